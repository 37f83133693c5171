//! The form of what a person measures of links, steering and obstacles.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::ids::HeightId;
use super::rig::Rig;
use crate::length_of;
use derecho_core::fastener::Thread;
use derecho_core::measure::{AngleEntry, Length, Side, TapeEntry};
use derecho_core::pose::joint::JointKind;

/// From where a sideways distance is taken.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SidewaysFrom {
    /// Points of the body: from the frame's centreline. Points of the axle: from its middle.
    #[default]
    Centreline,
    /// From the outer face of the frame rail, + further out, − further in. Body points only.
    RailOuterFace,
    /// From the face of the hub on its side, + inward. Axle points only; `rig.hub_faces` tells how far both are apart.
    HubFace,
}

/// A point as a person can measure it.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct PointForm {
    /// Above the floor.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub height: Option<TapeEntry>,
    /// Sideways, on its own side; across the centreline is negative.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub sideways: Option<TapeEntry>,
    /// From where sideways was taken.
    pub sideways_from: SidewaysFrom,
    /// Forward of the axle centre; behind it is negative.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub fore_aft: Option<TapeEntry>,
    /// What these are good to, plus or minus; 3 mm where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub good_to: Option<TapeEntry>,
}

impl PointForm {
    /// How far out from the middle it is, on its own side; None where it, or what it was taken from, was not measured.
    #[must_use]
    pub fn out_from_centre(&self, rig: &Rig) -> Option<Length> {
        let sideways = length_of(&self.sideways)?;
        Some(match self.sideways_from {
            SidewaysFrom::Centreline => sideways,
            SidewaysFrom::RailOuterFace => length_of(&rig.frame_width)? / 2.0 + sideways,
            SidewaysFrom::HubFace => length_of(&rig.hub_faces)? / 2.0 - sideways,
        })
    }
}

/// Which way a bolt goes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BoltAxis {
    /// Across the vehicle.
    Sideways,
    /// Along the vehicle.
    ForeAft,
    /// Up and down.
    Upright,
}

/// A joint at one end of a link.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct JointForm {
    /// What sits in the eye; rubber where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub kind: Option<JointKind>,
    /// Which way its bolt goes: along the vehicle for a track bar, across it for an arm,
    /// where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bolt: Option<BoltAxis>,
    /// The part's own limit, as a half-angle; rules where given.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub limit: Option<AngleEntry>,
}

/// An arm or one leg of a Y-shaped link.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Arm {
    /// Eye to eye, centre to centre; for a radius arm from its frame eye to the middle of
    /// its axle bushes.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub length: Option<TapeEntry>,
    /// Its end on the body.
    pub body: PointForm,
    /// Its end on the axle.
    pub axle: PointForm,
    /// Joint on the body.
    pub body_joint: JointForm,
    /// Joint on the axle.
    pub axle_joint: JointForm,
    /// Outside diameter; 45 mm where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub diameter: Option<TapeEntry>,
    /// Radius arm: between its two axle bushes.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bush_spacing: Option<TapeEntry>,
    /// Stiffness along it with its bushings, N/mm, where it is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stiffness_n_per_mm: Option<f64>,
}

/// The arms. Which of them there are follows from the axle location: radius arms are the
/// lower ones, the legs of a Y-shaped link the upper ones; three arms have one upper.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Arms {
    /// Lower arm or radius arm on the left.
    pub lower_left: Arm,
    /// On the right; as on the left where empty.
    pub lower_right: Arm,
    /// Upper arm or leg on the left.
    pub upper_left: Arm,
    /// On the right; as on the left where empty.
    pub upper_right: Arm,
}

/// A bend of the bar out of the line through its eyes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BendForm {
    /// From the frame eye, along the line.
    pub from_frame_eye: TapeEntry,
    /// Out of the line.
    pub offset: TapeEntry,
    /// Which way.
    pub towards: BendTowards,
}

/// Which way a bar is bent, as the vehicle stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BendTowards {
    /// Up.
    Up,
    /// Down.
    Down,
    /// Forward.
    Forward,
    /// Back.
    Back,
}

fn is_default<T: Default + PartialEq>(value: &T) -> bool {
    *value == T::default()
}

/// How much room a bracket takes round its bolt, with the eye in it; held against nothing unless both are measured.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct BracketSize {
    /// Across the bolt, from edge to edge.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub across: Option<TapeEntry>,
    /// Along the bolt, with its head and nut.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub along: Option<TapeEntry>,
}

/// What the track bar is like as a body.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct BarBody {
    /// Axle eye forward of the axle centre; behind it is negative.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub axle_eye_fore_aft: Option<TapeEntry>,
    /// Joint on the frame.
    pub frame_joint: JointForm,
    /// Joint on the axle.
    pub axle_joint: JointForm,
    /// Outside diameter; 32 mm where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub diameter: Option<TapeEntry>,
    /// Its bend, where it has one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bend: Option<BendForm>,
    /// Its bracket on the frame with the eye in it.
    #[serde(skip_serializing_if = "is_default")]
    pub frame_bracket: BracketSize,
    /// Its bracket on the axle with the eye in it.
    #[serde(skip_serializing_if = "is_default")]
    pub axle_bracket: BracketSize,
    /// Stiffness along it with its bushings, N/mm; as the stiffest arm where it is empty and every arm's
    /// is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stiffness_n_per_mm: Option<f64>,
}

/// What the drag link ends on at the axle.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DragLinkEnd {
    /// On the knuckle's steering arm.
    #[default]
    Knuckle,
    /// On the tie rod: another mechanism, which is refused.
    TieRod,
}

/// The drag link and the knuckle it turns.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SteeringForm {
    /// What it ends on at the axle.
    #[serde(default)]
    pub ends_on: DragLinkEnd,
    /// The side of its pitman end.
    pub pitman_side: Side,
    /// Its end on the pitman arm, wheels straight.
    #[serde(default)]
    pub pitman: PointForm,
    /// The side of its axle end.
    pub knuckle_side: Side,
    /// Its end on the steering arm, wheels straight.
    #[serde(default)]
    pub knuckle: PointForm,
    /// Kingpin axis from the axle's middle at hub height; 90 mm inside the tyre's middle
    /// where empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub kingpin_from_centre: Option<TapeEntry>,
    /// Lean of the kingpin, top inward; upright where empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub kingpin_inclination: Option<AngleEntry>,
    /// Caster, top back; upright where empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub caster: Option<AngleEntry>,
    /// Outside diameter; 30 mm where empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub diameter: Option<TapeEntry>,
    /// Thread of its sleeve, one end right hand and the other left.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread: Option<Thread>,
}

/// Where a tie rod goes in a job.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TieRodTo {
    /// On top of the steering arms, its studs down.
    Over,
    /// Under them, its studs up.
    Under,
}

/// What its studs go into there.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TieRodSeats {
    /// Tapers that are there, as in knuckles made for it.
    #[default]
    There,
    /// The steering arms' own holes, reamed from the other side.
    Reamed,
    /// Tapered inserts in holes drilled straight through.
    Inserts,
}

/// The tie rod, from knuckle to knuckle, wheels straight.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct TieRodForm {
    /// The middle of the rod at its left end, as found; the right end is its mirror.
    pub end: PointForm,
    /// Outside diameter; 32 mm where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub diameter: Option<TapeEntry>,
    /// Where it goes, where this job moves it.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub to: Option<TieRodTo>,
    /// How far its middle goes up or down with that, without a sign.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub by: Option<TapeEntry>,
    /// What its studs go into there.
    pub seats: TieRodSeats,
}

impl TieRodForm {
    /// How far its middle goes up in the job, mm; nought where it stays, None where nobody said how far it moves.
    #[must_use]
    pub fn raised(&self) -> Option<f64> {
        let by = || Some(self.by.as_ref()?.length().to_mm().abs());
        match self.to {
            Some(TieRodTo::Over) => by(),
            Some(TieRodTo::Under) => Some(-by()?),
            None => Some(0.0),
        }
    }
}

/// What an obstacle is fixed to.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ObstacleOn {
    /// The body.
    #[default]
    Body,
    /// The axle.
    Axle,
}

/// What an obstacle is, so that what nobody measured can be told.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ObstaclePart {
    /// Something else.
    #[default]
    Other,
    /// The exhaust.
    Exhaust,
    /// The fuel tank.
    FuelTank,
    /// The engine's oil pan.
    OilPan,
}

/// The driveshaft to this axle.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DriveshaftForm {
    /// The side its sideways distances are on.
    pub side: Side,
    /// The middle of its joint at the transmission or transfer case.
    #[serde(default)]
    pub body: PointForm,
    /// The middle of its joint at the pinion.
    #[serde(default)]
    pub axle: PointForm,
    /// Outside diameter.
    pub diameter: TapeEntry,
}

/// How much room is wanted.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Room {
    /// 12.7 mm, the usual.
    #[default]
    Usual,
    /// 6 mm: what the bar is bolted to.
    OwnBracket,
    /// 20 mm: the engine, which moves.
    Engine,
}

/// Something a bar or link could touch: a rod with round ends.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ObstacleForm {
    /// Such as old bracket; unique in the job.
    pub name: String,
    /// What it is fixed to.
    #[serde(default)]
    pub on: ObstacleOn,
    /// The side its sideways distances are on.
    pub side: Side,
    /// One end of its middle line.
    #[serde(default)]
    pub from: PointForm,
    /// The other; a ball where it is left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub to: Option<PointForm>,
    /// Its thickness.
    pub thickness: TapeEntry,
    /// How much room is wanted.
    #[serde(default)]
    pub room: Room,
    /// What it is.
    #[serde(default, skip_serializing_if = "is_default")]
    pub part: ObstaclePart,
}

/// Everything measured for stage Cycle.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Hardpoints {
    /// The height it stood at; empty is the driven one.
    #[serde(skip_serializing_if = "HeightId::is_empty")]
    pub height: HeightId,
    /// The height its bushings were tightened at: their wind-up counts from there. Empty is ride height.
    #[serde(skip_serializing_if = "HeightId::is_empty")]
    pub tightened_height: HeightId,
    /// Three arms: the side the upper one is on; left where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub upper_arm_side: Option<Side>,
    /// Leaf springs: length of the front half, from its eye to the axle. Where it is given
    /// the half acts as a link of three quarters of it; where not, it holds the axle rigidly.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub spring_front_half: Option<TapeEntry>,
    /// Arms and legs.
    pub arms: Arms,
    /// The track bar as a body.
    pub bar: BarBody,
    /// The drag link, on a steered axle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub steering: Option<SteeringForm>,
    /// The tie rod, on a steered axle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tie_rod: Option<TieRodForm>,
    /// Outside diameter of the axle's tube; held against nothing where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub axle_tube: Option<TapeEntry>,
    /// The driveshaft; held against nothing where absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub driveshaft: Option<DriveshaftForm>,
    /// What stands in the way.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub obstacles: Vec<ObstacleForm>,
}

impl Hardpoints {
    /// Whether nothing was measured.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }
}
