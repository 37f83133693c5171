//! The job document, version 1: one end of one vehicle being worked on.
//!
//! It holds what a person says and does, never a result: those are computed from it
//! by [`solve`](super::solve). The one exception is the frozen copy a settled job
//! keeps of the results it was settled on.
//!
//! Every field that may be left empty is left out of the JSON then. Lengths are
//! [`TapeEntry`], which keep what was typed.

use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use utoipa::ToSchema;

use crate::bar::adjuster::{AdjusterKind, EndStyle, ThreadSeat};
use crate::bar::evidence::{BarEnd, FinderZero};
use crate::fastener::{Hand, Thread};
use crate::measure::centring::Sense;
use crate::measure::squareness::AxleEnd;
use crate::measure::{AngleEntry, Length, Side, TapeEntry, Unit};

pub use super::bracket::form::{Bracketing, FittedMove};
pub use super::hardpoints::form::Hardpoints;
pub use super::sway::form::Sway;
pub use super::vehicle::form::Vehicle;
pub use crate::bracket::parts::Hole;

/// The version written by this program.
pub const DOCUMENT_VERSION: u32 = 1;

/// Marks a file as a job.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub enum Format {
    /// The only one.
    #[default]
    #[serde(rename = "derecho-job")]
    DerechoJob,
}

/// One end of one vehicle being worked on.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Job {
    /// Always `derecho-job`.
    pub format: Format,
    /// The version of this document's form: 1.
    pub version: u32,
    /// What the job is called in the bay.
    pub title: String,
    /// Free notes.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub notes: String,
    /// What is complained about, asked again at the end.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub complaints: Vec<Complaint>,
    /// Who holds what.
    #[serde(default)]
    pub rig: Rig,
    /// Where the links are, what they end in, what stands in their way.
    #[serde(default, skip_serializing_if = "Hardpoints::is_empty")]
    pub hardpoints: Hardpoints,
    /// What the bar's angle is aimed at, the parts tried, the plan chosen.
    #[serde(default, skip_serializing_if = "Bracketing::is_empty")]
    pub bracket: Bracketing,
    /// What the vehicle weighs and stands on.
    #[serde(default, skip_serializing_if = "Vehicle::is_empty")]
    pub vehicle: Vehicle,
    /// The sway bar and its links.
    #[serde(default, skip_serializing_if = "Sway::is_empty")]
    pub sway: Sway,
    /// Sheets of readings, oldest first.
    #[serde(default)]
    pub sheets: Vec<Sheet>,
    /// The bar as found, its adjuster, and the lengths it was set to since.
    #[serde(default)]
    pub setups: Setups,
    /// Present once the job was settled.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub settled: Option<Settled>,
}

impl Job {
    /// An empty job.
    #[must_use]
    pub fn new(title: &str) -> Self {
        Self {
            format: Format::DerechoJob,
            version: DOCUMENT_VERSION,
            title: title.to_owned(),
            notes: String::new(),
            complaints: Vec::new(),
            rig: Rig::default(),
            hardpoints: Hardpoints::default(),
            bracket: Bracketing::default(),
            vehicle: Vehicle::default(),
            sway: Sway::default(),
            sheets: Vec::new(),
            setups: Setups::default(),
            settled: None,
        }
    }
}

/// A complaint and how it stands after the work.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Complaint {
    /// In the owner's words.
    pub text: String,
    /// Asked again after the road test.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub after: Option<ComplaintAfter>,
}

/// How a complaint stands after the road test.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ComplaintAfter {
    /// Not noticed any more.
    Gone,
    /// Less than before.
    Better,
    /// As before.
    Same,
    /// More than before.
    Worse,
}

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
    /// Such as normal, raised, loaded.
    pub name: String,
    /// How much higher the body stands than at ride height; negative is lower.
    pub offset: TapeEntry,
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
    /// Named heights; ride height is offset nought. None means ride height alone.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub heights: Vec<HeightState>,
    /// The name of the height it is really driven at; empty is ride height.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub driven_height: String,
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

/// A sheet of readings on both sides.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Sheet {
    /// Unique in the job.
    pub id: String,
    /// What it measures.
    pub kind: SheetKind,
    /// How many times the bar had been set when it was read: 0 is as found. A sheet
    /// read before the bar was last set is stale.
    pub after_setting: u32,
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
    /// Repeats on the left, each in its place; null is a place still empty.
    pub left: Vec<Option<TapeEntry>>,
    /// Repeats on the right.
    pub right: Vec<Option<TapeEntry>>,
    /// The name of the height it stood at; empty is the driven one.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub height: String,
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

/// The frozen copy of the results a job was settled on.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Settled {
    /// When, in UTC.
    #[schema(value_type = String)]
    pub at: Timestamp,
    /// The version of the rules that computed them.
    pub core_version: String,
    /// The results, as `derecho solve` prints them.
    #[schema(value_type = Object)]
    pub results: Value,
}

/// The length of a field that may be empty.
pub(super) fn length_of(entry: &Option<TapeEntry>) -> Option<Length> {
    entry.as_ref().map(TapeEntry::length)
}
