//! The form of stage Bolt-up: what of the work was ticked, torqued and put back, and what a person changed in its
//! plan. The plan itself is computed from the setup; its lines are named here by their keys.

use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use derecho_core::fastener::Thread;
use derecho_core::measure::{TapeEntry, TorqueEntry};

use super::bracketing::{Grade, NutKind, ThreadTreatment};
use super::ids::DrillId;

/// How the vehicle stands while it is worked on.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stands {
    /// The frame on stands, the axle hanging or held by a jack.
    Supported,
    /// On its wheels and its weight, at the driven height.
    OnItsWeight,
}

/// When something was done, and by whom.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Mark {
    /// When, in UTC.
    #[schema(value_type = String)]
    pub at: Timestamp,
    /// By whom.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub by: String,
}

/// What was done with a step of the plan.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct StepRecord {
    /// Its key in the plan.
    pub key: String,
    /// Ticked.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub done: Option<Mark>,
    /// As it read when it was ticked.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub read: String,
    /// The same with ids in place of names, where they differ: a row called otherwise changes no step.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub by_ids: String,
    /// How the vehicle stood then.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stood: Option<Stands>,
    /// Why it was done against the order or the condition.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub against: String,
    /// Why it is struck out of the plan; in the plan where empty.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub struck: String,
    /// Free note.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A step that a person added.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct OwnStep {
    /// Its key; begins with `own/`.
    pub key: String,
    /// What to do.
    pub does: String,
    /// The key of the step it comes after; last where empty.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub after: String,
}

/// Who gave a torque.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TorqueSource {
    /// The part's own sheet.
    PartsSheet,
    /// The vehicle's manual.
    VehicleManual,
    /// The maker, asked.
    MakerTold,
    /// From memory: unconfirmed.
    FromMemory,
}

/// Which side a bolt's head is on.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HeadSide {
    /// Forward.
    Forward,
    /// Back.
    Back,
    /// Towards the middle.
    Inward,
    /// Away from the middle.
    Outward,
    /// Up.
    Up,
    /// Down.
    Down,
}

/// How tight a fastener was made.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TorqueMark {
    /// What the wrench said; none where it was tightened by feel.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub torque: Option<TorqueEntry>,
    /// Why it was tightened by feel.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub by_feel_because: String,
    /// With which tool.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub tool: String,
    /// How the vehicle stood.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stood: Option<Stands>,
    /// When and by whom.
    pub done: Mark,
}

/// A bolt, stud or nut of the plan, or one a person added: what is known of it, and how tight it was made.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct FastenerForm {
    /// Its key in the plan; `own/` and a number for one a person added.
    pub key: String,
    /// What it holds, for one a person added.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub name: String,
    /// Thread.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread: Option<Thread>,
    /// Strength marked on its head.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub grade: Option<Grade>,
    /// Length under its head.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub length: Option<TapeEntry>,
    /// What it holds together, all thicknesses, spacers and sleeves too.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub grip: Option<TapeEntry>,
    /// Thickness of one washer; one lies under the head and one under the nut.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub washer: Option<TapeEntry>,
    /// The hole it goes through.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub hole: Option<TapeEntry>,
    /// Whether it also goes through an arm's bushing: then it is tightened on the weight.
    #[serde(skip_serializing_if = "is_false")]
    pub through_bushing: bool,
    /// Its nut.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub nut: Option<NutKind>,
    /// The nut's own thread; the bolt's where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub nut_thread: Option<Thread>,
    /// How its thread is treated.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub treatment: Option<ThreadTreatment>,
    /// The side its head is on.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub head: Option<HeadSide>,
    /// Torque as it was given.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub torque: Option<TorqueEntry>,
    /// Who gave it.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub source: Option<TorqueSource>,
    /// Where a reused one comes from; new where empty.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub reused_from: String,
    /// What has to give way for the wrench: a wheel off, the exhaust turned.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub access: String,
    /// How tight it was made.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tight: Option<TorqueMark>,
    /// Why it is struck out of the plan; in the plan where empty.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub struck: String,
}

/// Whether a part is there.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PartState {
    /// It came with the kit.
    InTheKit,
    /// Used again.
    Reused,
    /// Bought for it.
    Bought,
    /// Made for it.
    Made,
    /// There, but left out.
    Declined,
    /// Not there.
    Missing,
    /// The wrong one.
    Wrong,
}

/// A part of the plan, or one a person added: whether it is there and fits.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct PartRecord {
    /// Its key in the plan; `own/` and a number for one a person added.
    pub key: String,
    /// What it is, for one a person added.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub name: String,
    /// Whether it is there.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub state: Option<PartState>,
    /// What replaces it later, where it is there for a while only.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub until: String,
    /// What is wrong with it, or where it comes from.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// Something taken off or eased on the way, that must go back.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct TakenOff {
    /// What: a brake line's clip, a loom, a wheel.
    pub name: String,
    /// Put back.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub back: Option<Mark>,
    /// Why it stays off.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub stays_off: String,
}

/// A hole to drill.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct DrillForm {
    /// By which its step and its tick are kept.
    #[serde(skip_serializing_if = "DrillId::is_empty")]
    pub id: DrillId,
    /// What for, and where.
    pub name: String,
    /// Its diameter.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub size: Option<TapeEntry>,
}

/// Heights at the four corners, the same mark each time.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Corners {
    /// Left front.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub left_front: Option<TapeEntry>,
    /// Right front.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub right_front: Option<TapeEntry>,
    /// Left rear.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub left_rear: Option<TapeEntry>,
    /// Right rear.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub right_rear: Option<TapeEntry>,
}

impl Corners {
    /// The four, with their names and the fields they are in.
    #[must_use]
    pub fn each(&self) -> [(&'static str, &'static str, Option<&TapeEntry>); 4] {
        [
            ("left_front", "left front", self.left_front.as_ref()),
            ("right_front", "right front", self.right_front.as_ref()),
            ("left_rear", "left rear", self.left_rear.as_ref()),
            ("right_rear", "right rear", self.right_rear.as_ref()),
        ]
    }

    /// Whether none was read.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }
}

/// What stands before anything is measured to, drilled or welded.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
#[expect(clippy::struct_excessive_bools, reason = "four ticks of a list")]
pub struct MockUp {
    /// Left and right stand equally high.
    pub corners_equal: bool,
    /// The axle is strapped to centre.
    pub strapped: bool,
    /// Repeats of the readings agree.
    pub repeats_agree: bool,
    /// The full cycle was done, half an inch past the stops.
    pub cycled: bool,
}

impl MockUp {
    /// Whether it stands.
    #[must_use]
    pub const fn stands(self) -> bool {
        self.corners_equal && self.strapped && self.repeats_agree && self.cycled
    }
}

/// Everything of stage Bolt-up.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Work {
    /// Who works: kept with each tick.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub by: String,
    /// How the vehicle stands now.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stands: Option<Stands>,
    /// Steps that something was done with.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub steps: Vec<StepRecord>,
    /// Steps a person added.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub own: Vec<OwnStep>,
    /// The order in which a person does the steps, by their keys; the plan's own where empty.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub order: Vec<String>,
    /// Whether that order is the maker's: then it rules over what is only usual.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub makers_order: Option<bool>,
    /// What is known of the fasteners.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub fasteners: Vec<FastenerForm>,
    /// What is known of the parts.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub parts: Vec<PartRecord>,
    /// Tools on the bench, by their keys.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub tools: Vec<String>,
    /// What was taken off on the way.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub taken_off: Vec<TakenOff>,
    /// Holes to drill.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub drills: Vec<DrillForm>,
    /// Whether the mock-up stands.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub mock_up: Option<MockUp>,
    /// Corner heights before anything was undone.
    #[serde(skip_serializing_if = "Corners::is_empty")]
    pub corners_before: Corners,
    /// Corner heights afterwards.
    #[serde(skip_serializing_if = "Corners::is_empty")]
    pub corners_after: Corners,
}

#[expect(clippy::trivially_copy_pass_by_ref, reason = "serde hands a reference")]
const fn is_false(value: &bool) -> bool {
    !*value
}

impl Work {
    /// Whether nothing was said.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }

    /// What was done with a step.
    #[must_use]
    pub fn step(&self, key: &str) -> Option<&StepRecord> {
        self.steps.iter().find(|record| record.key == key)
    }

    /// What is known of a fastener.
    #[must_use]
    pub fn fastener(&self, key: &str) -> Option<&FastenerForm> {
        self.fasteners.iter().find(|form| form.key == key)
    }
}
