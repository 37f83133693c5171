//! The bar as found, its adjuster, and what was set since.

use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::bracketing::FittedMove;
use derecho_core::bar::adjuster::{AdjusterKind, EndStyle, ThreadSeat};
use derecho_core::bar::evidence::{BarEnd, FinderZero};
use derecho_core::fastener::{Hand, Thread};
use derecho_core::measure::{AngleEntry, TapeEntry};
use derecho_core::parts::Hole;

/// When the bolt heights and the angle were read.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BarRead {
    /// As the vehicle stands now.
    #[default]
    AsItStands,
    /// Before the lift or drop that the rig names.
    BeforeTheLift,
}

/// An angle finder laid along the bar.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Finder {
    /// What it reads from level, without a sign.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub reading: Option<AngleEntry>,
    /// Which end of the bar is higher.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub higher_end: Option<BarEnd>,
    /// What it was zeroed on.
    pub zero: FinderZero,
    /// What it is good to, plus or minus; 0.2° where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub good_to: Option<AngleEntry>,
}

/// The track bar as found.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Bar {
    /// Eye to eye, centre to centre.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub length: Option<TapeEntry>,
    /// Height of the frame eye's bolt above the floor.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub frame_eye_height: Option<TapeEntry>,
    /// Height of the axle eye's bolt above the same floor.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub axle_eye_height: Option<TapeEntry>,
    /// What each bolt height is good to, plus or minus; 1.5 mm where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub heights_good_to: Option<TapeEntry>,
    /// When heights and angle were read.
    pub read: BarRead,
    /// The name of the height it stood at then; empty is the driven one.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub height: String,
    /// An angle finder along the bar.
    pub finder: Finder,
    /// Bent or tapered: a finder laid along it says nothing.
    pub bent: bool,
    /// How much further forward the frame eye is; negative is further back.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub fore_aft: Option<TapeEntry>,
    /// Sideways from the frame's centreline to the frame eye, on its own side.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub frame_eye_from_centre: Option<TapeEntry>,
    /// Sideways from the frame's centreline to the axle eye, on the other side.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub axle_eye_from_centre: Option<TapeEntry>,
}

/// One threaded end.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct ThreadedEndForm {
    /// Diameter and pitch, as stamped: `1-1/4-12`, `M24x2`.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread: Option<Thread>,
    /// Which way it is cut.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub hand: Option<Hand>,
    /// Thread in now.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub engagement: Option<TapeEntry>,
    /// Length of thread on the shank.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub shank: Option<TapeEntry>,
    /// Depth of thread in the body.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tapped_depth: Option<TapeEntry>,
    /// What it is cut into.
    pub seat: ThreadSeat,
    /// The maker's least engagement, by the witness mark; rules where given.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub witness: Option<TapeEntry>,
}

/// How the bar's length is changed.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct AdjusterForm {
    /// Fixed, one end, turnbuckle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub kind: Option<AdjusterKind>,
    /// The frame-side thread, or the only one.
    pub first: ThreadedEndForm,
    /// The axle-side thread.
    pub second: ThreadedEndForm,
    /// For one adjusting end: what passes through its eye.
    pub end_style: EndStyle,
    /// Shortest as made, eye to eye.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub made_min: Option<TapeEntry>,
    /// Longest as made.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub made_max: Option<TapeEntry>,
}

/// A length the bar was really set to.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MadeSetting {
    /// Eye to eye as set.
    pub length: TapeEntry,
    /// The length that was wanted when it was set, in millimetres.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub wanted_mm: Option<f64>,
    /// The eye that was moved with it, where a bracket was fitted.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub moved: Option<FittedMove>,
    /// When, in UTC.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false, value_type = String)]
    pub at: Option<Timestamp>,
}

/// The holes tried out in stage Cycle; empty is the hole in use.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Trial {
    /// The hole of the frame bracket.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub frame_hole: String,
    /// The hole of the axle bracket.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub axle_hole: String,
}

impl Trial {
    /// Whether nothing is tried.
    #[must_use]
    pub const fn is_empty(&self) -> bool {
        self.frame_hole.is_empty() && self.axle_hole.is_empty()
    }
}

/// The bar as found and what was done to it.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Setups {
    /// As found.
    pub as_found: Bar,
    /// Its adjuster.
    pub adjuster: AdjusterForm,
    /// Other holes of the bracket on the frame.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub frame_holes: Vec<Hole>,
    /// Other holes of the bracket on the axle.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub axle_holes: Vec<Hole>,
    /// What is tried out.
    #[serde(skip_serializing_if = "Trial::is_empty")]
    pub trial: Trial,
    /// The lengths it was set to since, in order.
    pub as_built: Vec<MadeSetting>,
}
