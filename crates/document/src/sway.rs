//! The form of stage Sway: the bar, its links, what they could touch, disconnects.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::hardpoints::{ObstacleOn, PointForm};
use crate::ids::ArmHoleId;
use derecho_core::fastener::Thread;
use derecho_core::measure::{AngleEntry, Length, Side, SpringRateEntry, TapeEntry, WeightEntry};

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
    /// Arms at an angle of one's own at the driven height, such as a little nose up.
    OwnAngle,
    /// Arms in line with the lower arms that hold the axle, at the driven height.
    TrailingArm,
}

/// Where a bolt goes through.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BoltPlace {
    /// The link's eye on the arm.
    ArmEye,
    /// The link's far end.
    FarEnd,
}

/// Which way a bolt comes out.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BoltWay {
    /// Away from the middle of the vehicle.
    Outward,
    /// Towards the middle.
    Inward,
    /// Forward.
    Forward,
    /// Back.
    Back,
    /// Up.
    Up,
    /// Down.
    Down,
}

/// What a sway bar is held in.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BushKind {
    /// Rubber.
    Rubber,
    /// Polyurethane.
    Polyurethane,
    /// A plain or a ball bearing: it gives nothing.
    Bearing,
}

/// A stage the vehicle is built to later, such as the next lift, or a tent on the roof.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct BuildStage {
    /// What it is called.
    pub name: String,
    /// How much higher the body stands on its axles than now, + up.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub raised: Option<TapeEntry>,
    /// Weight on the roof; as now where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub roof_load: Option<WeightEntry>,
}

/// A bolt that must come out again.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ServiceBolt {
    /// What it holds.
    pub name: String,
    /// Its length.
    pub length: TapeEntry,
    /// Room in front of its head, along it, to the next rail or tab, as taped.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub room: Option<TapeEntry>,
    /// Where it goes through: then what stands in its way is worked out, too.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub place: Option<BoltPlace>,
    /// Which way it comes out; outward where empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub way: Option<BoltWay>,
}

/// Joints for links built from tapped rod.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct RodForm {
    /// From a joint's centre to the tip of its thread.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub eye_to_tip: Option<TapeEntry>,
    /// Length of its thread.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub shank: Option<TapeEntry>,
    /// Thickness of a jam nut.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub jam_nut: Option<TapeEntry>,
}

/// A splined bar that can be had.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SplinedBar {
    /// End to end.
    pub length: TapeEntry,
    /// Outside diameter between the splines.
    pub diameter: TapeEntry,
    /// Bore; solid where empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bore: Option<TapeEntry>,
}

/// Splined bars and arms to choose from.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct SplinedForm {
    /// The bars.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub bars: Vec<SplinedBar>,
    /// The arms, from the bar's axis to the link's eye.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub arms: Vec<TapeEntry>,
    /// The tubes it runs in, where they are welded through the frame rails; mounts that are bolted on where absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tubes: Option<FrameTubes>,
}

/// Tubes welded through both frame rails, in which a splined bar runs: where their holes go.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct FrameTubes {
    /// Outside diameter of a tube: what is sawn.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub outside: Option<TapeEntry>,
    /// Centre of the hole below the rail's top edge.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub below_edge: Option<TapeEntry>,
    /// Centre of the hole from the cross-member's face.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub from_cross_member: Option<TapeEntry>,
    /// Whether plates go on the rails' inner sides.
    pub inner_plates: bool,
}

/// A shock absorber, the same on both sides.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShockForm {
    /// What it is called.
    pub name: String,
    /// Its end on the body.
    #[serde(default)]
    pub body: PointForm,
    /// Its end on the axle.
    #[serde(default)]
    pub axle: PointForm,
    /// Its thickness.
    pub thickness: TapeEntry,
}

/// Which way a panel faces.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PanelFaces {
    /// Forward: it stands across the vehicle.
    #[default]
    Forward,
    /// Outward: it stands along the vehicle, on both sides.
    Outward,
    /// Up: it lies level.
    Up,
}

/// A flat panel of the body that an arm may have to pass, such as an inner fender.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PanelForm {
    /// What it is called.
    pub name: String,
    /// Which way it faces.
    #[serde(default)]
    pub faces: PanelFaces,
    /// Where it stands: forward of the axle, out from the middle, or above the floor.
    pub at: TapeEntry,
}

/// What arms and links could touch, besides the obstacles of stage Tape.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct RoomForm {
    /// Thickness of an arm; 25 mm where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub arm_thickness: Option<TapeEntry>,
    /// Thickness of a link with its joints; 25 mm where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub link_thickness: Option<TapeEntry>,
    /// Underside of the frame rails above the floor, by the bar. Without it, and the frame's width in
    /// stage Rig, rails are left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub rail_underside: Option<TapeEntry>,
    /// Height of a rail; 100 mm where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub rail_height: Option<TapeEntry>,
    /// Outside diameter of the tube the bar runs in, from rail to rail or as long as `tube_length`; no tube where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tube_outside: Option<TapeEntry>,
    /// Length of that tube, its middle over the axle's; between the arms where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tube_length: Option<TapeEntry>,
    /// The bar's mounts: the middle of each from the middle of the vehicle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub mount_from_centre: Option<TapeEntry>,
    /// How far they reach across the bar, from edge to edge.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub mount_across: Option<TapeEntry>,
    /// And along the bar.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub mount_along: Option<TapeEntry>,
    /// How far the tyres steer either way; 35° at a front where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub steering_lock: Option<AngleEntry>,
    /// Shock absorbers.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub shocks: Vec<ShockForm>,
    /// Panels.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub panels: Vec<PanelForm>,
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
    /// Sideways slope of the ground it is parked on.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub parked_slope: Option<AngleEntry>,
    /// The stud the link's far end is stowed on: on what the bar is fixed to.
    pub stow: PointForm,
}

/// The sway bar that was there before.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct OldBar {
    /// What kind it was; one piece where empty, as nearly every bar that a vehicle comes with.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub kind: Option<SwayKind>,
    /// Outside diameter.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub diameter: Option<TapeEntry>,
    /// Bore; solid where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bore: Option<TapeEntry>,
    /// Length that twists.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub active_length: Option<TapeEntry>,
    /// Its arm, from the bar's axis to the link's eye.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub arm: Option<TapeEntry>,
}

fn is_default<T: Default + PartialEq>(value: &T) -> bool {
    *value == T::default()
}

/// A hole of the sway arm.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ArmHole {
    /// By which plans and rounds point at it.
    #[serde(default, skip_serializing_if = "ArmHoleId::is_empty")]
    pub id: ArmHoleId,
    /// Length of the arm there, from the bar's axis.
    pub arm: TapeEntry,
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
    /// The arm's holes.
    pub holes: Vec<ArmHole>,
    /// The hole in use; empty is the first.
    #[serde(skip_serializing_if = "ArmHoleId::is_empty")]
    pub hole: ArmHoleId,
    /// Link eye on the arm, from the centreline.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub eye_from_centre: Option<TapeEntry>,
    /// Link, eye to eye.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub link: Option<TapeEntry>,
    /// Whether the links have a length of their own, without a thread to turn: they are taken as given.
    #[serde(skip_serializing_if = "is_default")]
    pub links_fixed: bool,
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
    /// Rate of a link with its joints, along it; stiff where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub link_rate: Option<SpringRateEntry>,
    /// What the bar is held in, where nobody knows its rate.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bush_kind: Option<BushKind>,
    /// Rate of a bush that holds the bar; by its kind where empty, stiff where that is.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bush_rate: Option<SpringRateEntry>,
    /// Between those bushes.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bush_spacing: Option<TapeEntry>,
    /// Shear stress the bar's material takes, MPa; 700 where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub allowable_mpa: Option<f64>,
    /// Soft setting of a two-rate bar, per cent of the firm one; 30 where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub soft_percent: Option<f64>,
    /// Joints for links built from rod.
    pub rod: RodForm,
    /// Splined bars and arms to choose from.
    pub splined: SplinedForm,
    /// What arms and links could touch.
    pub room: RoomForm,
    /// Stroke of the shock.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub shock_stroke: Option<TapeEntry>,
    /// A pin disconnect.
    pub pins: PinForm,
    /// A shim or plate under one clamp of the bar and not under the other.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub shim: Option<TapeEntry>,
    /// The side it is under.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub shim_side: Option<Side>,
    /// The bar that was there before, to compare with.
    #[serde(skip_serializing_if = "is_default")]
    pub old_bar: OldBar,
    /// Bolts that must come out again.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub bolts: Vec<ServiceBolt>,
    /// What is still to be built, each against the vehicle as it is planned in this job.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub build_stages: Vec<BuildStage>,
}

impl Sway {
    /// The place of a hole among the arm's holes, from 0: the one in use where none is pointed at. Nought where there is
    /// no such hole.
    #[must_use]
    pub fn place_of(&self, hole: &ArmHoleId) -> usize {
        self.holes.iter().position(|row| row.id == *hole).unwrap_or(0)
    }

    /// Which hole one is, counted from the stiff end, where the arm is shortest, and of how many; None without holes.
    #[must_use]
    pub fn from_the_stiff_end(&self, hole: &ArmHoleId) -> Option<(usize, usize)> {
        let arm = self.holes.get(self.place_of(hole))?.arm.length();
        let stiffer = self.holes.iter().filter(|other| other.arm.length() < arm).count();
        Some((stiffer + 1, self.holes.len()))
    }

    /// Length of the arm to the hole in use.
    #[must_use]
    pub fn arm(&self) -> Option<Length> {
        self.holes.get(self.place_of(&self.hole)).map(|hole| hole.arm.length())
    }

    /// Whether nothing was said.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }
}
