//! The form of stage Prove beyond its readings: what is looked at again, the road test, who settles it, what is due.

use derecho_core::measure::{AngleEntry, TapeEntry};
use jiff::Timestamp;
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::work::Mark;

/// A step of the road test.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RoadStep {
    /// In the yard, at walking pace.
    Yard,
    /// Slow turns, both ways.
    SlowTurns,
    /// Dips.
    Dips,
    /// Expansion joints and edges.
    ExpansionJoints,
    /// A swerve, and how often it rocks after it.
    Swerve,
    /// Washboard.
    Washboard,
    /// The highway.
    Highway,
    /// Trail articulation.
    Trail,
}

/// How a step of the road test went.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RoadResult {
    /// As it should be.
    Good,
    /// Something to look at.
    Noticed,
    /// It was stopped.
    Stopped,
}

/// A step of the road test as it was driven.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RoadRecord {
    /// Which.
    pub step: RoadStep,
    /// How it went.
    pub result: RoadResult,
    /// What was noticed; for a swerve how many times it rocks.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// What is looked at once the work is done; left out where nobody looked, false where it is not right.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct LookedAt {
    /// The steering wheel stands straight.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub wheel_straight: Option<bool>,
    /// Toe was checked.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub toe: Option<bool>,
    /// Stability sensors have their zero, or there are none.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub sensors: Option<bool>,
    /// Lines and looms are free at full droop and at lock.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub lines: Option<bool>,
    /// Wheel nuts are torqued.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub wheel_nuts: Option<bool>,
    /// Pins of a disconnect go in and out on level ground.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub pins_level: Option<bool>,
    /// The stowed link stays clear through a full cycle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stowed_clear: Option<bool>,
    /// Bar, brackets and links stay clear of everything near them from full bump to full droop, where nothing of it was
    /// measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub clear: Option<bool>,
    /// The bar's angle as it stands now, by a finder, without a sign.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bar_angle: Option<AngleEntry>,
    /// The left sway link as it is set, eye to eye.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub left_link: Option<TapeEntry>,
    /// The right one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub right_link: Option<TapeEntry>,
}

/// The key of an acceptance that was given once for everything, as documents before version 3 had it.
pub const ALL_THAT_WAS_OPEN: &str = "all_that_was_open";

/// A finding that a job is closed over: by whom, why, and what it said then. One finding each.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Acceptance {
    /// The key of the finding, with its figure: what is worse has another key, and the acceptance lapses.
    /// `all_that_was_open` in one carried over from a document before version 3, which gave one reason for everything: it
    /// opens the way for nothing that is found now.
    pub key: String,
    /// What the finding said when it was accepted.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub said: String,
    /// Why the job is closed all the same.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub because: String,
    /// Who accepted it.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub by: String,
    /// When, in UTC.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false, value_type = String)]
    pub at: Option<Timestamp>,
}

/// What is due after the work.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ReminderKind {
    /// Torque after the first day.
    FirstDay,
    /// Torque after 50 miles, 80 km.
    FirstFifty,
    /// Torque after 500 miles, 800 km.
    FiveHundred,
    /// Torque and paint marks after the first day off the road.
    FirstTrail,
    /// How it feels after two weeks.
    TwoWeeks,
    /// Something that is there for a while only.
    Temporary,
    /// Bolts that were tightened by feel.
    ByFeel,
}

/// A reminder that was seen to.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ReminderRecord {
    /// Which.
    pub kind: ReminderKind,
    /// When and by whom.
    pub done: Mark,
    /// What was found.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// Everything of stage Prove beside its readings.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Proof {
    /// What was looked at.
    #[serde(skip_serializing_if = "is_default")]
    pub looked_at: LookedAt,
    /// The road test.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub road: Vec<RoadRecord>,
    /// By whom it is settled.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub by: String,
    /// Inspection or licence, where it is asked for.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub inspection: String,
    /// Photographs by their names.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub photographs: String,
    /// What was done otherwise than planned.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub deviations: String,
    /// Findings that the job is closed over, one at a time.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub acceptances: Vec<Acceptance>,
    /// Defects met: wrong spacers, a narrow pocket, a missing nut.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub defects: String,
    /// How it felt off the road, with which hole and link.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub trail: String,
    /// The day the vehicle went back to work; reminders count from it.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false, value_type = String, format = Date)]
    pub on_the_road: Option<Date>,
    /// The odometer then, as it reads.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub odometer: String,
    /// Reminders that were seen to.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub reminders: Vec<ReminderRecord>,
}

fn is_default<T: Default + PartialEq>(value: &T) -> bool {
    *value == T::default()
}

impl Proof {
    /// How the finding of a key was accepted; None where nobody wrote why.
    #[must_use]
    pub fn accepted(&self, key: &str) -> Option<&Acceptance> {
        self.acceptances.iter().find(|accepted| accepted.key == key && !accepted.because.trim().is_empty())
    }

    /// Whether nothing was said.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }
}
