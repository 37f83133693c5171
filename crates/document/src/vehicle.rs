//! The form of the vehicle: weights, springs, centre of gravity, roof.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use derecho_core::measure::{RollRateEntry, SpringRateEntry, TapeEntry, WeightEntry};

/// A sway bar at the axle that the job is not about.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct OtherSwayBar {
    /// Whether there is one; nearly every vehicle has one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub there: Option<bool>,
    /// Its diameter.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub diameter: Option<TapeEntry>,
    /// Its arm, from the bar straight back to the link.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub arm: Option<TapeEntry>,
    /// Its straight length between the arms; the usual where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub length: Option<TapeEntry>,
}

impl OtherSwayBar {
    fn is_empty(&self) -> bool {
        *self == Self::default()
    }
}

/// What the vehicle weighs and stands on. The other axle is the one not worked on.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Vehicle {
    /// Weight on this axle, at the wheels; the sum of its corners where they were weighed.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub axle_weight: Option<WeightEntry>,
    /// Weight under this axle's left wheel.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub left_corner: Option<WeightEntry>,
    /// Weight under this axle's right wheel.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub right_corner: Option<WeightEntry>,
    /// Weight of the axle itself, wheels and brakes included; of each axle where both are meant.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub unsprung_weight: Option<WeightEntry>,
    /// Weight on the other axle; the sum of its corners where they were weighed.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_weight: Option<WeightEntry>,
    /// Weight under the other axle's left wheel.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_left_corner: Option<WeightEntry>,
    /// Weight under the other axle's right wheel.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_right_corner: Option<WeightEntry>,
    /// Between the axles.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub wheelbase: Option<TapeEntry>,
    /// Centre of gravity of what the springs carry, above the floor, without the roof load.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub centre_of_gravity: Option<TapeEntry>,
    /// What that height is good to, plus or minus.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub centre_of_gravity_good_to: Option<TapeEntry>,
    /// Rate of one spring at this axle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub spring_rate: Option<SpringRateEntry>,
    /// Between the springs at this axle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub spring_spacing: Option<TapeEntry>,
    /// Rate of one spring at the other axle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_spring_rate: Option<SpringRateEntry>,
    /// Between the springs at the other axle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_spring_spacing: Option<TapeEntry>,
    /// The other axle's sway bar, as anybody can measure it; `other_bar` rules where that was typed.
    #[serde(skip_serializing_if = "OtherSwayBar::is_empty")]
    #[schema(required = false)]
    pub other_sway_bar: OtherSwayBar,
    /// Roll rate of the other axle's sway bar; by its sizes where empty, and the usual where those are.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_bar: Option<RollRateEntry>,
    /// Track of the other axle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_track: Option<TapeEntry>,
    /// Wheel travel up of the other axle, from ride height.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_bump: Option<TapeEntry>,
    /// Wheel travel down of the other axle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_droop: Option<TapeEntry>,
    /// Roll centre of the other axle, above the floor.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_roll_centre: Option<TapeEntry>,
    /// Rate of one tyre.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tyre_rate: Option<SpringRateEntry>,
    /// Weight on the roof: a tent, tools.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub roof_load: Option<WeightEntry>,
    /// Height of the roof load above the floor.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub roof_height: Option<TapeEntry>,
}

impl Vehicle {
    /// Whether nothing was said.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }
}
