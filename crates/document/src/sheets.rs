//! Sheets of readings as they were written down.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::ids::{HeightId, RoundId};
use derecho_core::measure::centring::Sense;
use derecho_core::measure::{TapeEntry, Unit};

/// What a sheet measures.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SheetKind {
    /// The axle under the frame, sideways.
    #[default]
    Centring,
    /// A sway bar in its clamps, sideways.
    StickOut,
    /// The axle under the frame, square: wheelbase on both sides.
    Squareness,
}

/// From what to what the tape goes.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Method {
    /// From a feature of the frame to the hub or drum.
    #[default]
    FrameToHub,
    /// From a feature of the frame to a straightedge on the sidewall.
    FrameToSidewall,
    /// From the body, by plumb line, to the sidewall.
    BodyToSidewall,
    /// Something else, named by the person.
    Own,
}

/// Conditions of a sheet. Left out where nobody said.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Conditions {
    /// On its own weight and settled; false is hanging.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub on_its_weight: Option<bool>,
    /// Wheels straight ahead.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub wheels_straight: Option<bool>,
    /// Tyres alike and equally inflated.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub pressures_equal: Option<bool>,
    /// Somebody leant on or pushed off the vehicle between repeats.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub leant_on: Option<bool>,
}

/// What is known of the instrument a sheet was read with.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SheetInstrument {
    /// Its name.
    pub id: String,
    /// One step of its display.
    pub resolution: TapeEntry,
    /// What one reading of it is good to, plus or minus.
    pub good_to: TapeEntry,
    /// When it was last checked; never where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false, value_type = Option<String>)]
    pub checked: Option<Date>,
    /// Whether its check was overdue when it was read.
    #[serde(default)]
    pub overdue: bool,
}

/// A sheet of readings on both sides.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Sheet {
    /// Unique in the job.
    pub id: String,
    /// What it measures.
    pub kind: SheetKind,
    /// The round it was read after; empty is as found. A sheet read before the last round is stale.
    #[serde(skip_serializing_if = "RoundId::is_empty")]
    pub after: RoundId,
    /// From what to what.
    pub method: Method,
    /// The person's name for a method of their own.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub method_name: String,
    /// Standard uncertainty of the feature, for a method of their own.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub feature_uncertainty: Option<TapeEntry>,
    /// What a larger reading means.
    pub sense: Sense,
    /// The unit of bare numbers.
    pub unit: Unit,
    /// One graduation of the tape; 1/16 in or 1 mm where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub resolution: Option<TapeEntry>,
    /// The instrument it was read with, where one was joined.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub instrument: Option<SheetInstrument>,
    /// Repeats on the left, each in its place; null is a place still empty.
    pub left: Vec<Option<TapeEntry>>,
    /// Repeats on the right.
    pub right: Vec<Option<TapeEntry>>,
    /// The height it stood at; empty is the driven one.
    #[serde(skip_serializing_if = "HeightId::is_empty")]
    pub height: HeightId,
    /// How it stood.
    pub conditions: Conditions,
    /// For a plumb line: from its mark down to the point read.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub plumb_drop: Option<TapeEntry>,
    /// Height of the readings above the axle centre; below is negative.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub height_above_axle: Option<TapeEntry>,
    /// Height of the frame above the hub on the left, the same mark each time.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub frame_above_hub_left: Option<TapeEntry>,
    /// Height of the frame above the hub on the right.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub frame_above_hub_right: Option<TapeEntry>,
    /// For squareness: between the two points measured on the axle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub between_points: Option<TapeEntry>,
    /// Free note.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub note: String,
}
