//! One hole with one bar, in figures.

use derecho_core::measure::{Angle, Force, Length};
use derecho_core::parts::BracketEnd;
use glam::DVec3;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::carried::LoadResult;
use super::message::OptionFacts;
use crate::document::PlanForm;
use crate::message::{Label, Message};
use crate::setups::moves::EyeMoves;

/// An option at another height.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OptionAtHeight {
    /// The height's name.
    pub name: String,
    /// Whether it is the driven one.
    pub driven: bool,
    /// Bar angle there.
    pub angle_deg: Angle,
    /// To the left per unit of bump.
    pub lateral_rate: f64,
    /// Swing over the travel that remains from there.
    pub peak_to_peak_mm: Length,
}

/// One hole with one bar.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct OptionResult {
    /// The plan, by ids.
    pub plan: PlanForm,
    /// The hole in words: `riser, hole 2`, `no bracket`.
    #[schema(value_type = String)]
    pub name: Label,
    /// The bar in words.
    #[schema(value_type = String)]
    pub bar: Label,
    /// The drag-link part it goes with, as people call it; empty for none.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub goes_with: String,
    /// Which eye is moved; absent where none is.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub end: Option<BracketEnd>,
    /// Move of that eye from where it is now: mm forward, left, up.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub move_mm: [f64; 3],
    /// Move of the frame eye where both eyes move.
    #[serde(
        skip_serializing_if = "Option::is_none",
        serialize_with = "derecho_core::measure::figure::millimetres"
    )]
    #[schema(nullable = false)]
    pub frame_move_mm: Option<[f64; 3]>,
    /// The frame eye in the end view's coordinates: mm left, up, at the driven height.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub frame_eye_mm: [f64; 2],
    /// The axle eye, with the axle centred.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub axle_eye_mm: [f64; 2],
    /// Rank, from 1; nought for a bracket that is only reckoned.
    pub rank: usize,
    /// Bar angle at the driven height, + frame end higher.
    pub angle_deg: Angle,
    /// Angle that is aimed to be nought: at the target's height, or against the drag link.
    pub off_target_deg: Angle,
    /// To the left per unit of bump at the driven height.
    pub lateral_rate: f64,
    /// Shift to the left at full droop.
    pub at_full_droop_mm: Length,
    /// Shift at full bump.
    pub at_full_bump_mm: Length,
    /// Sideways swing over the travel.
    pub peak_to_peak_mm: Length,
    /// Roll centre above the ground, from the bar's line.
    pub roll_centre_mm: Length,
    /// Its change from as found.
    pub roll_centre_change_mm: Length,
    /// Length the bar is to have: what centres the axle, or its own where it cannot be changed
    /// and leaves it within the tolerance, or is left as it is.
    pub length_mm: Length,
    /// Where the axle is left at the driven height, + left.
    pub left_off_mm: Length,
    /// Its change from the bar as found.
    pub change_mm: Length,
    /// Whether this bar can be so long; absent where its range is not known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub covered: Option<bool>,
    /// How far the length wanted is outside what this bar can be.
    pub missed_mm: Length,
    /// What is left over in the nearest step of its adjuster, + too short.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub leftover_mm: Option<Length>,
    /// The joint that tilts most over the travel.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub worst_tilt_deg: Option<Angle>,
    /// The least gap of the bar over the travel.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub least_gap_mm: Option<Length>,
    /// Bar angle less drag-link angle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub drag_link_difference_deg: Option<Angle>,
    /// Most bump steer over the travel.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bump_steer_deg: Option<Angle>,
    /// What it loads.
    pub loads: LoadResult,
    /// Why it fails, each with its reason; empty where it does not.
    pub fails: Vec<Message>,
    /// What to mind besides.
    pub minds: Vec<Message>,
    /// At every height.
    pub heights: Vec<OptionAtHeight>,
    /// Whether it is the chosen plan.
    pub chosen: bool,
    /// Whether it is kept beside it.
    pub kept: bool,
}

impl OptionResult {
    /// The moves of both eyes from where they are now.
    #[must_use]
    pub fn moves(&self) -> EyeMoves {
        let by = DVec3::from_array(self.move_mm);
        let moves = self.end.map_or(EyeMoves::default(), |end| EyeMoves::of(end, by));
        match self.frame_move_mm {
            Some(frame) => EyeMoves { frame: DVec3::from_array(frame), ..moves },
            None => moves,
        }
    }
}

impl OptionResult {
    /// What the answer, its reason and its approach say of it.
    #[must_use]
    pub fn facts(&self) -> OptionFacts {
        let loads = &self.loads;
        OptionFacts {
            name: self.name.clone(),
            bar: (!self.plan.bar.is_empty()).then(|| self.bar.clone()),
            goes_with: (!self.plan.drag_link.is_empty()).then(|| self.goes_with.clone()),
            end: self.end,
            angle: self.angle_deg,
            swing: self.peak_to_peak_mm,
            length: self.length_mm,
            change: self.change_mm,
            left_off: self.left_off_mm,
            higher: self.roll_centre_change_mm,
            drag_link_difference: self.drag_link_difference_deg,
            axle_moment_ratio: loads.axle_moment_ratio,
            frame_moment_ratio: loads.frame_moment_ratio,
            lift: Force::from_n(loads.jacking_left_turn_n),
            fails: self.fails.first().cloned(),
        }
    }
}
