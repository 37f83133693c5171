//! What a predicted movement is good to, and where the axle lands where prediction and readings agree. Not here: what
//! is predicted (`prove`).

use derecho_core::bar::FrontView;
use derecho_core::bar::adjuster::{Adjuster, setting};
use derecho_core::measure::conformity::weighed;
use derecho_core::measure::length::in_quadrature;
use derecho_core::measure::{Length, TapeEntry};

use crate::defaults;
use crate::document::{Job, Round, length_of};
use crate::setups::{Setup, Setups};

/// Standard uncertainty of a movement that was predicted from one setup to another, from what the set length, the
/// heights and the bolts are good to:
/// (L/h)²·(u_L0² + u_L1²), or turned by count (L/h)²·(advance per turn · u_turns)², (∂p/∂v·u_v)², (play/√3)², and the
/// square of what the place of an eye that was found elsewhere is good to.
#[must_use]
pub(crate) fn uncertainty(
    job: &Job,
    setups: &Setups,
    (earlier, fitted): (&Setup, &Setup),
    rounds: &[(usize, &Round)],
) -> Length {
    let (before, after) = (&earlier.view, &fitted.view);
    let ratio = after.length() / after.reach();
    let per_turn = fitted.bar.adjuster.as_ref().and_then(|adjuster| advance(adjuster, after.length()));
    let counted = earlier.bar.id == fitted.bar.id && rounds.iter().all(|(_, round)| as_counted(round));
    let changed = earlier.bar.id != fitted.bar.id || rounds.iter().any(|(_, round)| round.length.is_some());
    let of_length = match (changed, counted, per_turn) {
        (false, ..) => Length::ZERO,
        (true, true, Some(per_turn)) => per_turn * defaults::TURNS_GOOD_TO,
        _ => in_quadrature(&[defaults::BAR_LENGTH_GOOD_TO / 2.0; 2]),
    };
    // v is good to U; half of it is one standard uncertainty.
    let by_height = of_a_height(before, after) * (setups.known.rise.uncertainty_mm.to_mm() / 2.0);
    let play = length_of(&job.bracket.bolt.play).unwrap_or(Length::ZERO) / 2.0 / 3.0_f64.sqrt();
    let mut moved = rounds.iter().flat_map(|(_, round)| &round.moved);
    let found = moved.any(|moved| moved.off.lengths().iter().any(|by| *by != Length::ZERO));
    let of_place = if found { defaults::FOUND_PLACE_GOOD_TO } else { Length::ZERO };
    in_quadrature(&[of_length * ratio, Length::from_mm(by_height), play, of_place])
}

/// How far a movement from one view to another changes with v, ∂p/∂v = s·(v₁/h₁ − v₀/h₀), without its sign.
fn of_a_height(before: &FrontView, after: &FrontView) -> f64 {
    (after.rise() / after.reach() - before.rise() / before.reach()).abs()
}

fn advance(adjuster: &Adjuster, length: Length) -> Option<Length> {
    setting(adjuster, length, length).per_turn_mm
}

/// Whether a round's length is the one that was wanted: set by count, and not what a tape said of it afterwards.
fn as_counted(round: &Round) -> bool {
    let set = round.length.as_ref().map(TapeEntry::length);
    set.zip(round.wanted_mm)
        .is_none_or(|(set, wanted)| (set - Length::from_mm(wanted)).abs() <= defaults::AS_WANTED)
}

/// What two sets of measurements tell of where the axle stands now.
#[derive(Clone, Copy, Debug)]
pub(super) struct SaidOffset {
    /// Where it stands, by this set.
    pub(super) at: Length,
    /// Standard uncertainty of its repeats, resolution included.
    pub(super) repeats: Length,
    /// Standard uncertainty of what it was measured from.
    pub(super) feature: Length,
}

/// The axle's place where the readings taken now and those of before, carried on by the predicted movement, agree; with
/// its standard uncertainty. What both were measured from, where it is one thing, never averages out.
#[must_use]
pub(super) fn landing(
    now: SaidOffset,
    carried: SaidOffset,
    predicted_good_to: Length,
    same_feature: bool,
) -> (Length, Length) {
    let before = in_quadrature(&[carried.repeats, predicted_good_to]);
    if same_feature {
        let (at, u) = weighed((now.at, now.repeats), (carried.at, before));
        return (at, in_quadrature(&[u, now.feature.max(carried.feature)]));
    }
    weighed(
        (now.at, in_quadrature(&[now.repeats, now.feature])),
        (carried.at, in_quadrature(&[before, carried.feature])),
    )
}

/// Standard uncertainty of the difference of two sets of measurements: what they were both measured from drops out
/// where it is one thing.
#[must_use]
pub(super) fn of_difference(one: SaidOffset, other: SaidOffset, same_feature: bool) -> Length {
    if same_feature {
        in_quadrature(&[one.repeats, other.repeats])
    } else {
        in_quadrature(&[one.repeats, other.repeats, one.feature, other.feature])
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn reported(at: f64, repeats: f64, feature: f64) -> SaidOffset {
        let mm = Length::from_mm;
        SaidOffset { at: mm(at), repeats: mm(repeats), feature: mm(feature) }
    }

    #[test]
    fn the_shared_reference_never_averages_out() {
        let zero = Length::ZERO;
        let (at, u) = landing(reported(1.0, 0.45, 1.5), reported(1.0, 0.45, 1.5), Length::from_mm(0.3), true);
        assert!((at.to_mm() - 1.0).abs() < 1e-12);
        // By hand: a = 0.2025, b = 0.2925, 1/(1/a + 1/b) = 0.11966; with 1.5² the root of 2.36966.
        assert!((u.to_mm() - 2.369_66_f64.sqrt()).abs() < 1e-4);
        // Of two reference points each brings its own: 1.5² + 0.45² = 2.4525, the half of it.
        let (_, u) = landing(reported(1.0, 0.45, 1.5), reported(1.0, 0.45, 1.5), zero, false);
        assert!((u.to_mm() - (2.4525_f64 / 2.0).sqrt()).abs() < 1e-9);
    }

    #[test]
    fn one_reference_point_drops_out_of_a_difference() {
        let (one, other) = (reported(0.0, 0.3, 0.8), reported(2.4, 0.4, 0.8));
        assert!((of_difference(one, other, true).to_mm() - 0.5).abs() < 1e-12);
        // By hand: 0.09 + 0.16 + 2 · 0.64.
        assert!((of_difference(one, other, false).to_mm() - 1.53_f64.sqrt()).abs() < 1e-12);
    }
}
