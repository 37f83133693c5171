//! The form of stage Sway: the bar, its links, the vehicle's weights, disconnects.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::fastener::Thread;
use crate::job::hardpoints::form::{ObstacleOn, PointForm};
use crate::measure::{AngleEntry, TapeEntry, WeightEntry};

/// Kinds of sway bar.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SwayKind {
    /// One piece, arms and all.
    #[default]
    OnePiece,
    /// A splined torsion bar with separate arms.
    Splined,
    /// Two rates, with a lock.
    TwoRate,
    /// With a powered disconnect.
    Powered,
    /// None.
    None,
}

/// What the links are sized to.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SwayTarget {
    /// Arms level at the driven height.
    #[default]
    LevelDriven,
    /// Arms level in the middle of the travel.
    LevelMidTravel,
    /// Arms at an angle of one's own at the driven height: nose up, or the trailing arm's.
    OwnAngle,
}

/// A bolt that must come out again.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ServiceBolt {
    /// What it holds.
    pub name: String,
    /// Its length.
    pub length: TapeEntry,
    /// Room in front of its head, along it, to the next rail or tab.
    pub room: TapeEntry,
}

/// Parts of a pin disconnect.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct PinForm {
    /// Bore of the link's eye with its sleeve pressed out.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub eye_bore: Option<TapeEntry>,
    /// Diameter of the stud.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stud: Option<TapeEntry>,
    /// Thread of the stud.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stud_thread: Option<Thread>,
    /// Thread of the nut that is used.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub nut_thread: Option<Thread>,
    /// Whether a hand reaches the pin's side.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub hand_reaches: Option<bool>,
    /// Room over the stowed link at full bump.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stowed_room: Option<TapeEntry>,
    /// Height difference of the two sides, axle to frame, as it is parked.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub parked_difference: Option<TapeEntry>,
}

/// The vehicle as a whole. The other axle is the one not worked on.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct VehicleForm {
    /// Weight on the other axle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_weight: Option<WeightEntry>,
    /// Weight on the roof: a tent, tools.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub roof_load: Option<WeightEntry>,
    /// Height of the roof load above the floor.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub roof_height: Option<TapeEntry>,
    /// Rate of one spring at the other axle, N/mm.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_spring_n_per_mm: Option<f64>,
    /// Between the springs at this axle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub spring_spacing: Option<TapeEntry>,
    /// Between the springs at the other axle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_spring_spacing: Option<TapeEntry>,
    /// Roll rate of the other axle's sway bar, N·m/rad; nought where there is none.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_bar_nm_per_rad: Option<f64>,
    /// Rate of one tyre, N/mm.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tyre_n_per_mm: Option<f64>,
}

/// Everything of stage Sway.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Sway {
    /// What kind of bar there is.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub kind: Option<SwayKind>,
    /// What the bar itself is fixed to: on the body links go down, on the axle up.
    pub on: ObstacleOn,
    /// Whether the arms point forward from the bar.
    pub forward: bool,
    /// The bar's axis: its height and how far it is fore and aft.
    pub axis: PointForm,
    /// Arm lengths, one for each hole.
    pub holes: Vec<TapeEntry>,
    /// Which hole is in use, from 0.
    pub hole: usize,
    /// Link eye on the arm, from the centreline.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub eye_from_centre: Option<TapeEntry>,
    /// Link, eye to eye.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub link: Option<TapeEntry>,
    /// How much longer the left link is than the right one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub left_longer: Option<TapeEntry>,
    /// Whether that is on purpose.
    pub preload_wanted: bool,
    /// The link's far end, on the other of body and axle.
    pub far_end: PointForm,
    /// Where the far end cannot be taped: the arm's angle above level.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub arm_angle: Option<AngleEntry>,
    /// And the link's lean forward of upright, from its eye on the arm.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub lean_forward: Option<AngleEntry>,
    /// And its lean outward.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub lean_outward: Option<AngleEntry>,
    /// The arm's angle when the vehicle was stock, above level.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stock_arm_angle: Option<AngleEntry>,
    /// What the links are sized to.
    pub target: SwayTarget,
    /// The arm's angle wanted, for a target of one's own.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub wanted_angle: Option<AngleEntry>,
    /// Thread of the link, one end right hand and the other left.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub link_thread: Option<Thread>,
    /// Outside diameter of the bar.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub diameter: Option<TapeEntry>,
    /// Bore of a hollow bar; solid where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bore: Option<TapeEntry>,
    /// Length that twists.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub active_length: Option<TapeEntry>,
    /// Stroke of the shock.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub shock_stroke: Option<TapeEntry>,
    /// The vehicle as a whole.
    pub vehicle: VehicleForm,
    /// A pin disconnect.
    pub pins: PinForm,
    /// Bolts that must come out again.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub bolts: Vec<ServiceBolt>,
}

impl Sway {
    /// Whether nothing was said.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }
}
