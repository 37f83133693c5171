//! What a plan loads: frame and axle bracket, roll centre against the centre of gravity,
//! jacking. Estimates for comparison.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::moves::EyeMoves;
use super::plan::{Shop, force};
use crate::bar::FrontView;
use crate::bar::strength::bar_load;
use crate::bracket::load::{attachment_force, jacking, root_moment, use_factor};
use crate::bracket::parts::{BracketEnd, BracketPart};
use crate::job::document::{Job, Use, length_of};
use crate::measure::load::GRAVITY;
use crate::measure::{Length, Phrase, TapeEntry, WeightEntry};

/// Weight on an axle nobody put on a scale, kg (default of this program).
pub const USUAL_AXLE_KG: f64 = 1100.0;
/// Weight of an axle itself, kg (default of this program).
pub const USUAL_UNSPRUNG_KG: f64 = 180.0;
/// Centre of gravity above hub height (default of this program).
pub const USUAL_GRAVITY_ABOVE_HUB: Length = Length::from_mm(350.0);
/// What that is good to, plus or minus.
pub const GRAVITY_GOOD_TO: Length = Length::from_mm(80.0);
/// Half of an axle tube.
const TUBE: f64 = 46.0;
/// Rail above the frame eye, where nobody measured it.
const RAIL_ABOVE_EYE: f64 = 45.0;
/// A brisk turn, as a share of the weight.
const TURN: f64 = 0.5;

/// Loads of one plan.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LoadResult {
    /// Factor on the weight by use: road 1, trail 2, hard 3.
    pub factor: f64,
    /// Load of the bar P = n·W·L/h, N.
    pub bar_n: f64,
    /// Moment at the root of the axle bracket, N·m.
    pub axle_moment_nm: f64,
    /// The same over that of the eye where it is now.
    pub axle_moment_ratio: f64,
    /// Moment at the root of the frame bracket, N·m.
    pub frame_moment_nm: f64,
    /// The same over that of the eye where it is now.
    pub frame_moment_ratio: f64,
    /// Force on each of the bracket's two attachments, N, where their spacing is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub attachment_n: Option<f64>,
    /// Roll centre to centre of gravity.
    pub lever_mm: Length,
    /// Lift of the body in a left turn at half a g, N, + up; a right turn is the opposite.
    pub jacking_left_turn_n: f64,
    /// The same as heave over the axle's springs, where their rate is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub jacking_heave_mm: Option<Length>,
    /// The bar's load in words.
    pub bar_says: Phrase,
    /// What is on each attachment, in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub attachment_says: Option<Phrase>,
    /// The jacking in words.
    pub jacking_says: Phrase,
}

/// How hard it is used: the factor n of the load.
#[must_use]
pub fn factor(job: &Job) -> f64 {
    use_factor(
        matches!(job.rig.used_for, Some(Use::Crawling | Use::FastDesert)),
        matches!(job.rig.used_for, Some(Use::Trails)),
    )
}

/// Weight on the axle, N.
#[must_use]
pub fn axle_weight(job: &Job) -> f64 {
    job.bracket.axle_weight.as_ref().map_or(USUAL_AXLE_KG * GRAVITY, WeightEntry::newtons)
}

/// Centre of gravity above the ground.
#[must_use]
pub fn centre_of_gravity(job: &Job, hub: Length) -> Length {
    let lift = length_of(&job.rig.lift).unwrap_or(Length::ZERO);
    let typed = job.bracket.centre_of_gravity.as_ref().map(TapeEntry::length);
    typed.unwrap_or(hub + USUAL_GRAVITY_ABOVE_HUB + lift)
}

pub(super) fn loads(shop: &Shop<'_>, view: &FrontView, moves: EyeMoves, bracket: &BracketPart) -> LoadResult {
    let job = shop.job;
    let weight = axle_weight(job);
    let hub = shop.bench.axle_height();
    let bar_n = bar_load(weight, factor(job), view.length(), view.reach());
    let eye = shop.bench.bar_link().map_or(hub.to_mm() + TUBE + 30.0, |link| link.axle.to_mm()[2]);
    // An eye level with the tube still stands off its root by about an eye's radius.
    let lever = |mm: f64| Length::from_mm(mm.abs().max(25.0));
    let axle_now = lever(eye - hub.to_mm() - TUBE);
    let axle = lever(eye + moves.axle.z - hub.to_mm() - TUBE);
    let frame_now = lever(RAIL_ABOVE_EYE);
    let frame = lever(RAIL_ABOVE_EYE - moves.frame.z);
    let (axle_moment, frame_moment) = (root_moment(bar_n, axle), root_moment(bar_n, frame));
    let moved = match bracket.end {
        BracketEnd::Axle => axle_moment,
        BracketEnd::Frame => frame_moment,
    };
    let unsprung =
        job.bracket.unsprung_weight.as_ref().map_or(USUAL_UNSPRUNG_KG * GRAVITY, WeightEntry::newtons);
    let turn = TURN * (weight - unsprung).max(0.0);
    let on_each =
        bracket.attachment_spacing.as_ref().map(|spacing| attachment_force(moved, spacing.length()));
    let lift = jacking(shop.side.sign(), turn, view.rise(), view.reach());
    let heave = job.bracket.spring_rate_n_per_mm.map(|rate| Length::from_mm(lift / (2.0 * rate)));
    LoadResult {
        factor: factor(job),
        bar_n,
        axle_moment_nm: axle_moment,
        axle_moment_ratio: axle / axle_now,
        frame_moment_nm: frame_moment,
        frame_moment_ratio: frame / frame_now,
        attachment_n: on_each,
        lever_mm: centre_of_gravity(job, hub) - shop.roll_centre(view, moves),
        jacking_left_turn_n: lift,
        jacking_heave_mm: heave,
        bar_says: Phrase::of(|w| force(w, bar_n)),
        attachment_says: on_each.map(|on_each| Phrase::of(|w| force(w, on_each))),
        jacking_says: Phrase::of(|w| {
            let verb = if lift >= 0.0 { "lifts" } else { "pulls down" };
            let heave = heave.map_or_else(String::new, |heave| format!(", {} of heave", w.fine(heave)));
            format!("{verb} {}{heave}; a right turn the opposite", force(w, lift.abs()))
        }),
    }
}
