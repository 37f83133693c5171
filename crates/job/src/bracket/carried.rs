//! What a plan loads: frame and axle bracket, roll centre against the centre of gravity,
//! jacking. Estimates for comparison.

use crate::bracket::message::BracketMessage;
use crate::defaults;
use crate::message::Message;
use serde::Serialize;
use utoipa::ToSchema;

use crate::assembly::weights::{axle_weight, centre_of_gravity, unsprung_weight};
use crate::document::{Job, Use};
use crate::setups::moves::EyeMoves;
use derecho_core::bar::FrontView;
use derecho_core::bar::bracket_load::{UsedHow, attachment_force, jacking, root_moment};
use derecho_core::bar::strength::bar_load;
use derecho_core::measure::{Force, Length, Side};
use derecho_core::parts::{BracketEnd, BracketPart};

/// Loads of one plan.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
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
    /// The same in words.
    #[serde(flatten)]
    pub says: LoadSays,
}

/// What a plan loads, in words.
#[derive(Clone, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct LoadSays {
    /// The bar's load in words.
    pub bar_says: Message,
    /// What is on each attachment, in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub attachment_says: Option<Message>,
    /// The jacking in words.
    pub jacking_says: Message,
}

impl LoadSays {
    /// What is said of loads.
    #[must_use]
    pub fn of(load: &LoadResult) -> Self {
        let newtons = |load: f64| BracketMessage::Newtons(Force::from_n(load)).into();
        let lift = Force::from_n(load.jacking_left_turn_n);
        Self {
            bar_says: newtons(load.bar_n),
            attachment_says: load.attachment_n.map(newtons),
            jacking_says: BracketMessage::Jacking { lift, heave: load.jacking_heave_mm }.into(),
        }
    }
}

/// How hard it is used: the factor n of the load.
#[must_use]
pub fn factor(job: &Job) -> f64 {
    match job.rig.used_for {
        Some(Use::Crawling | Use::FastDesert) => UsedHow::Hard,
        Some(Use::Trails) => UsedHow::Trail,
        _ => UsedHow::Road,
    }
    .factor()
}

/// What loads are worked out from.
pub(super) struct Loaded<'a> {
    pub(super) job: &'a Job,
    pub(super) axle_height: Length,
    /// The axle eye above the ground, where it is known.
    pub(super) axle_eye: Option<Length>,
    pub(super) side: Side,
    pub(super) roll_centre: Length,
}

/// An eye level with its root still stands off it by about its own radius.
fn lever(mm: f64) -> Length {
    Length::from_mm(mm.abs().max(25.0))
}

/// From the rail down to the frame eye, wherever it was moved: the lever of the bar's load on the frame bracket's root.
pub(super) fn frame_lever(moves: EyeMoves) -> Length {
    lever(defaults::RAIL_ABOVE_EYE.to_mm() - moves.frame.z)
}

/// Loads of a bar with its eyes moved.
pub(super) fn loads(on: &Loaded<'_>, view: &FrontView, moves: EyeMoves, bracket: &BracketPart) -> LoadResult {
    let (job, hub) = (on.job, on.axle_height);
    let weight = axle_weight(job);
    let load = bar_load(weight, factor(job), view.length(), view.reach());
    let eye = on.axle_eye.map_or(hub.to_mm() + defaults::AXLE_TUBE_RADIUS + 30.0, Length::to_mm);
    // Above the tube or below it: the bracket's root is on the side where the eye is.
    let off_tube =
        |eye: f64| Length::from_mm(((eye - hub.to_mm()).abs() - defaults::AXLE_TUBE_RADIUS).max(25.0));
    let (axle_now, axle) = (off_tube(eye), off_tube(eye + moves.axle.z));
    let frame_now = lever(defaults::RAIL_ABOVE_EYE.to_mm());
    let frame = frame_lever(moves);
    let (axle_moment, frame_moment) = (root_moment(load, axle), root_moment(load, frame));
    let moved = match bracket.end {
        BracketEnd::Axle => axle_moment,
        BracketEnd::Frame => frame_moment,
    };
    let turn = (weight - unsprung_weight(job)).max(Force::ZERO) * defaults::TURN;
    let on_each =
        bracket.attachment_spacing.as_ref().map(|spacing| attachment_force(moved, spacing.length()));
    let lift = jacking(on.side, turn, view.rise(), view.reach());
    let heave = job.vehicle.spring_rate.as_ref().map(|spring| lift / (spring.rate() * 2.0));
    LoadResult {
        factor: factor(job),
        bar_n: load.to_n(),
        axle_moment_nm: axle_moment.to_nm(),
        axle_moment_ratio: axle / axle_now,
        frame_moment_nm: frame_moment.to_nm(),
        frame_moment_ratio: frame / frame_now,
        attachment_n: on_each.map(Force::to_n),
        lever_mm: centre_of_gravity(job, hub) - on.roll_centre,
        jacking_left_turn_n: lift.to_n(),
        jacking_heave_mm: heave,
        says: LoadSays::default(),
    }
}
