//! The legs of a Y-shaped link: how long each must be for the axle to stand where it should.
//!
//! Both legs alike move the apex fore and aft and turn the pinion; one leg, or both by opposite amounts,
//! moves the axle sideways. Which is which comes from the solver, with the lower arms as they lie.

use super::solver::{Solved, Suspension};
use super::{Link, PoseFault};
use crate::measure::{Angle, Length};

/// Lengths are stepped by so much to see what they do, mm.
const STEP: f64 = 0.05;
/// An angle as a length, so that both aims weigh alike, mm to the radian.
const SCALE: f64 = 500.0;
/// Both aims are met this nearly, mm.
const MET: f64 = 1e-7;
const MOST_STEPS: usize = 20;

/// Where the axle should stand.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Aim {
    /// To the left.
    pub y: Length,
    /// ψ, + top forward.
    pub pitch: Angle,
}

/// The lengths of the two legs, links `legs` of the suspension, that put the axle at `aim` at heave `z`,
/// looked for from `from`, the pose it has there now: Newton's method on the solved pose.
///
/// # Errors
/// Where the links do not reach on the way.
pub fn lengths_for(
    suspension: &Suspension,
    legs: [usize; 2],
    z: Length,
    from: &Solved,
    aim: Aim,
) -> Result<[Length; 2], PoseFault> {
    let with = |lengths: [f64; 2]| {
        let mut turned = suspension.clone();
        for (leg, length) in legs.into_iter().zip(lengths) {
            let link = suspension.links()[leg];
            turned = turned.with_link(leg, Link { made: Length::from_mm(length), ..link });
        }
        let pose = turned.solve(z, Angle::ZERO, from.start())?.pose;
        let off = [(pose.y - aim.y).to_mm(), (pose.pitch - aim.pitch).to_radians() * SCALE];
        Ok::<[f64; 2], PoseFault>(off)
    };
    let mut lengths = legs.map(|leg| suspension.links()[leg].made.to_mm());
    for _ in 0..MOST_STEPS {
        let off = with(lengths)?;
        if off.iter().all(|off| off.abs() < MET) {
            break;
        }
        let slope = |stepped: [f64; 2]| [(stepped[0] - off[0]) / STEP, (stepped[1] - off[1]) / STEP];
        let first = slope(with([lengths[0] + STEP, lengths[1]])?);
        let second = slope(with([lengths[0], lengths[1] + STEP])?);
        let determinant = first[0] * second[1] - first[1] * second[0];
        if determinant.abs() < 1e-9 {
            break;
        }
        lengths[0] -= (off[0] * second[1] - off[1] * second[0]) / determinant;
        lengths[1] -= (first[0] * off[1] - first[1] * off[0]) / determinant;
    }
    Ok(lengths.map(Length::from_mm))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::pose::solver::{Held, Start};
    use crate::pose::{AxlePoint, BodyPoint};
    use proptest::prelude::*;

    /// Lower arms fore and aft, legs from the rails to one point over the axle.
    fn axle(apex: f64, out: f64, lead: f64, rise: f64) -> Suspension {
        let link = |body: (f64, f64, f64), axle: (f64, f64, f64)| {
            let body = BodyPoint::from_mm(body.0, body.1, body.2);
            let axle = AxlePoint::from_mm(axle.0, axle.1, axle.2);
            Link {
                body,
                axle,
                made: Length::from_mm((body.vector() - axle.vector()).length()),
                stiffness: None,
            }
        };
        let arms = vec![
            link((lead, 450.0, 420.0), (0.0, 460.0, 340.0)),
            link((lead, -450.0, 420.0), (0.0, -460.0, 340.0)),
            link((lead - 150.0, out, apex + rise), (0.0, 0.0, apex)),
            link((lead - 150.0, -out, apex + rise), (0.0, 0.0, apex)),
        ];
        Suspension::new(Length::from_mm(400.0), arms, None, Held::default())
    }

    fn at(suspension: &Suspension, z: f64) -> Solved {
        suspension.solve(Length::from_mm(z), Angle::ZERO, Start::default()).unwrap()
    }

    proptest! {
        /// Set to the lengths found, the axle stands where it was meant to.
        #[test]
        fn the_lengths_found_do_what_was_asked(
            apex in 520.0..640.0_f64, out in 250.0..420.0_f64, lead in 600.0..900.0_f64, rise in -40.0..60.0_f64,
            z in -60.0..60.0_f64, y in -25.0..25.0_f64, nose in -3.0..3.0_f64,
        ) {
            let axle = axle(apex, out, lead, rise);
            let now = at(&axle, z);
            let aim = Aim { y: now.pose.y + Length::from_mm(y), pitch: now.pose.pitch + Angle::from_degrees(nose) };
            let lengths = lengths_for(&axle, [2, 3], Length::from_mm(z), &now, aim).unwrap();
            let mut set = axle.clone();
            for (leg, made) in [2, 3].into_iter().zip(lengths) {
                set = set.with_link(leg, Link { made, ..axle.links()[leg] });
            }
            let there = at(&set, z).pose;
            prop_assert!((there.y - aim.y).to_mm().abs() < 1e-5 && (there.pitch - aim.pitch).to_degrees().abs() < 1e-6);
        }

        /// Alike on both sides: sideways asks opposite changes to first order, the pinion the same of both.
        #[test]
        fn sideways_is_opposite_and_the_pinion_alike(out in 250.0..420.0_f64, lead in 600.0..900.0_f64) {
            let axle = axle(600.0, out, lead, 20.0);
            let now = at(&axle, 0.0);
            let made = axle.links()[2].made;
            let change = |y: f64, nose: f64| {
                let aim = Aim { y: Length::from_mm(y), pitch: now.pose.pitch + Angle::from_degrees(nose) };
                lengths_for(&axle, [2, 3], Length::ZERO, &now, aim).unwrap().map(|length| (length - made).to_mm())
            };
            let [left, right] = change(1.0, 0.0);
            prop_assert!((left + right).abs() < 0.02 * left.abs(), "{left} {right}");
            // The left leg lies to the left of the apex: an axle that goes left shortens it.
            prop_assert!(left < 0.0);
            let [left, right] = change(0.0, 1.0);
            prop_assert!((left - right).abs() < 1e-6);
        }
    }
}
