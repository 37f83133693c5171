//! Who holds what: which end, which side, what holds the axle, its heights and travel.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::ids::HeightId;
use derecho_core::measure::squareness::AxleEnd;
use derecho_core::measure::{AngleEntry, Side, TapeEntry, Unit};

/// What holds the axle fore and aft.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AxleLocation {
    /// Leaf springs.
    LeafSprings,
    /// Two radius arms, rigid on the axle.
    RadiusArms,
    /// Three arms.
    ThreeArms,
    /// Four arms.
    FourArms,
    /// Two lower arms and a Y- or A-shaped upper link that also centres the axle.
    YLink,
}

/// What the vehicle is for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Use {
    /// Road and towing.
    RoadAndTowing,
    /// Loaded travel.
    LoadedTravel,
    /// Road and trail by turns.
    Mixed,
    /// Trails.
    Trails,
    /// Crawling.
    Crawling,
    /// Fast open ground.
    FastDesert,
}

/// A named height of the body.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HeightState {
    /// By which sheets, points and the driven height point at it.
    #[serde(default, skip_serializing_if = "HeightId::is_empty")]
    pub id: HeightId,
    /// Such as normal, raised, loaded.
    pub name: String,
    /// How much higher the body stands than at ride height; negative is lower.
    pub offset: TapeEntry,
}

/// What heights of points and of the bar's eyes are taken from.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HeightsFrom {
    /// The floor, on its wheels.
    #[default]
    Floor,
    /// On a hoist: what is on the body from the underside of the frame rail, what is on the axle from the axle's centre; above
    /// is positive.
    RailAndAxle,
}

impl HeightsFrom {
    fn is_floor(&self) -> bool {
        *self == Self::Floor
    }
}

/// Limit straps, one per side, frame to axle.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct LimitStraps {
    /// Their length, tight, between the bolts of both ends.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub length: Option<TapeEntry>,
    /// Between those bolts at full droop, the shocks all the way out.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub at_droop: Option<TapeEntry>,
    /// Between those bolts at the driven height.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub at_driven: Option<TapeEntry>,
}

/// The end worked on and what holds it.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Rig {
    /// Which vehicle, in the shop's own words.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub vehicle: String,
    /// The unit sheets are written in.
    pub sheet_unit: Unit,
    /// Front or rear axle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub end: Option<AxleEnd>,
    /// The side the steering wheel is on.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub steering_side: Option<Side>,
    /// The side the bar is bolted to the frame on.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub frame_eye_side: Option<Side>,
    /// What holds the axle fore and aft.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub axle_location: Option<AxleLocation>,
    /// What it is used for.
    #[serde(rename = "use", skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub used_for: Option<Use>,
    /// Height added to stock; negative is taken away.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub lift: Option<TapeEntry>,
    /// Named heights; ride height is offset zero. None means ride height alone.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub heights: Vec<HeightState>,
    /// The height it is really driven at; empty is ride height.
    #[serde(skip_serializing_if = "HeightId::is_empty")]
    pub driven_height: HeightId,
    /// Wheel travel up from ride height.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bump: Option<TapeEntry>,
    /// Wheel travel down from ride height.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub droop: Option<TapeEntry>,
    /// Between the tyre contact centres.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub track: Option<TapeEntry>,
    /// From the centreline to where travel up was measured; half of the track where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bump_half_spacing: Option<TapeEntry>,
    /// From the centreline to where travel down was measured; half of the track where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub droop_half_spacing: Option<TapeEntry>,
    /// Axle centre above the floor; half of the tyre's diameter where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub axle_height: Option<TapeEntry>,
    /// Outside diameter of the tyres.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tyre_diameter: Option<TapeEntry>,
    /// Width of the tyres.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tyre_width: Option<TapeEntry>,
    /// Outside width of the frame over its rails.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub frame_width: Option<TapeEntry>,
    /// Between the faces of both hubs, where the wheels seat.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub hub_faces: Option<TapeEntry>,
    /// What heights are taken from; the rail's own height is in `sway.room.rail_underside`.
    #[serde(skip_serializing_if = "HeightsFrom::is_floor")]
    pub heights_from: HeightsFrom,
    /// A pair of limit straps that stops the droop before the shocks do.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub straps: Option<LimitStraps>,
    /// What counts as centred; 3 mm where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tolerance: Option<TapeEntry>,
    /// Standard deviation of repeats usual on this rig; 1 mm where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub usual_spread: Option<TapeEntry>,
    /// Slope of the shop floor; positive when it is higher on the vehicle's left.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub floor_slope: Option<AngleEntry>,
}

impl Rig {
    /// Whether the axle is steered: a rear one is not, and has neither a steering wheel nor a drag link to mind.
    #[must_use]
    pub fn is_steered(&self) -> bool {
        self.end != Some(AxleEnd::Rear)
    }
}
