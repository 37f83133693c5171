//! A finding: what does not hold of a job, how much that matters, and where to go for it.

use crate::cautions::Stage;
use crate::document::check::LONGEST_NAME;
use crate::document::proof::Acceptance;
use crate::message::Message;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What it is about.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FindingKind {
    /// Something is still off the vehicle.
    StillOff,
    /// A complaint was not asked again.
    ComplaintOpen,
    /// Nobody wrote a torque, or why there is none.
    TorqueMissing,
    /// The corners' heights are other than before.
    StandsOtherwise,
    /// Something that was looked at is not right.
    NotRight,
    /// The axle moved otherwise than predicted, and no second set of measurements says the same.
    MovedOtherwise,
    /// A complaint is the same as before, or worse.
    ComplaintAgain,
    /// A step of the road test was stopped.
    RoadStopped,
    /// Something does not fit: a joint in its ears, a bolt, a nut.
    DoesNotFit,
    /// A part is missing or the wrong one.
    PartWrong,
    /// A torque other than was wanted.
    TorqueOther,
    /// A torque from memory.
    TorqueFromMemory,
    /// Steps of the plan that are neither ticked nor skipped.
    StepsOpen,
    /// Something of safety that nobody looked at.
    NotLookedAt,
    /// A check of the Y-link that is not good.
    YLinkFails,
    /// More stress or load than a part takes.
    Overstressed,
    /// Stick-out, an angle or a link otherwise than planned.
    NotAsPlanned,
    /// Something ends the travel before the stops.
    TravelEnds,
    /// The bar and the drag link lean apart: the wheels steer as the axle moves.
    LinkBesideBar,
    /// The wheels steer by themselves over bumps.
    SteersOverBumps,
    /// The sway links do not work over the travel.
    LinksFail,
    /// Fewer threads are engaged than hold.
    ThreadEngaged,
    /// A cause was found and is not mended.
    CauseOpen,
    /// An eye is moved or another bar goes in, and nothing was measured that could be in its way.
    ClearanceNotChecked,
    /// Something was measured that could be in the way, and not the exhaust, the fuel tank or the oil pan.
    PartsNotMeasured,
    /// Two that sit beside each other on the frame or the axle are in each other's way as they sit.
    StandsInTheWay,
}

/// How it comes out.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FindingVerdict {
    /// It fails.
    Fails,
    /// It can't be judged yet: something is missing.
    Open,
    /// Nobody said whether there is anything to check.
    NotChecked,
    /// It holds with less than the wanted margin.
    Close,
}

/// What it weighs, the worst first.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Weight {
    /// It can come loose, break, lock the steering or hit a brake line.
    Safety,
    /// It won't do what the job is for.
    Function,
    /// It won't go together, or not as planned.
    Fit,
    /// It can be felt, and no more.
    Comfort,
}

/// Which setup a finding speaks of.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Concerns {
    /// What is planned; nothing is fitted yet.
    Plan,
    /// What is on the vehicle.
    Fitted,
}

/// One thing that does not hold, or that nobody knows yet.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Finding {
    /// What it is about.
    pub kind: FindingKind,
    /// By what its acceptance goes in the document: what it is about and its figure, so that an acceptance of one thing
    /// is none of another, nor of more of the same.
    pub key: String,
    /// The screen where it is put right.
    pub stage: Stage,
    /// The place of its field in the document, where it has one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub goes_to: Option<String>,
    /// Which setup it speaks of.
    pub concerns: Concerns,
    /// How it comes out.
    pub verdict: FindingVerdict,
    /// What it weighs.
    pub weight: Weight,
    /// In words.
    pub says: Message,
    /// Whether a job can be closed over it with a reason: never with something that leaves the vehicle unfit to roll.
    pub acceptable: bool,
    /// By whom and why it is accepted; None while nobody wrote it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub accepted: Option<Acceptance>,
}

impl Finding {
    /// Whether it stands between proved and closed: it is not comfort alone, and nobody accepted it.
    #[must_use]
    pub fn stands_in_the_way(&self) -> bool {
        self.counts() && (!self.acceptable || self.accepted.is_none())
    }

    /// Whether it has to be put right or accepted before a job is closed.
    #[must_use]
    pub fn counts(&self) -> bool {
        self.weight != Weight::Comfort && self.verdict != FindingVerdict::Close
    }

    /// What comes first in a list: what can't be accepted, then by weight, then what fails before what is not known.
    pub(super) fn order(&self) -> (bool, bool, Weight, FindingVerdict) {
        (!self.stands_in_the_way(), self.acceptable, self.weight, self.verdict)
    }
}

impl FindingKind {
    /// The screen where it is put right.
    #[must_use]
    pub const fn stage(self) -> Stage {
        match self {
            Self::StillOff
            | Self::TorqueMissing
            | Self::StandsOtherwise
            | Self::DoesNotFit
            | Self::PartWrong
            | Self::TorqueOther
            | Self::TorqueFromMemory
            | Self::StepsOpen => Stage::BoltUp,
            Self::ComplaintOpen
            | Self::ComplaintAgain
            | Self::NotRight
            | Self::NotLookedAt
            | Self::MovedOtherwise
            | Self::RoadStopped
            | Self::CauseOpen
            | Self::NotAsPlanned => Stage::Prove,
            Self::YLinkFails => Stage::Bracket,
            Self::Overstressed | Self::LinksFail => Stage::Sway,
            Self::TravelEnds
            | Self::ClearanceNotChecked
            | Self::PartsNotMeasured
            | Self::StandsInTheWay
            | Self::LinkBesideBar
            | Self::SteersOverBumps => Stage::Cycle,
            Self::ThreadEngaged => Stage::Bar,
        }
    }

    /// How it comes out.
    #[must_use]
    pub const fn verdict(self) -> FindingVerdict {
        match self {
            Self::ComplaintOpen
            | Self::TorqueMissing
            | Self::TorqueFromMemory
            | Self::StepsOpen
            | Self::MovedOtherwise => FindingVerdict::Open,
            Self::NotLookedAt | Self::ClearanceNotChecked | Self::PartsNotMeasured => {
                FindingVerdict::NotChecked
            }
            Self::StillOff
            | Self::StandsOtherwise
            | Self::NotRight
            | Self::ComplaintAgain
            | Self::RoadStopped
            | Self::CauseOpen
            | Self::StandsInTheWay
            | Self::DoesNotFit
            | Self::PartWrong
            | Self::TorqueOther
            | Self::YLinkFails
            | Self::Overstressed
            | Self::NotAsPlanned
            | Self::TravelEnds
            | Self::LinkBesideBar
            | Self::SteersOverBumps
            | Self::LinksFail
            | Self::ThreadEngaged => FindingVerdict::Fails,
        }
    }

    /// What it weighs.
    #[must_use]
    pub const fn weight(self) -> Weight {
        match self {
            Self::StillOff
            | Self::TorqueMissing
            | Self::TorqueOther
            | Self::TorqueFromMemory
            | Self::NotRight
            | Self::NotLookedAt
            | Self::RoadStopped
            | Self::DoesNotFit
            | Self::Overstressed
            | Self::LinksFail
            | Self::ThreadEngaged => Weight::Safety,
            Self::ComplaintOpen
            | Self::ComplaintAgain
            | Self::MovedOtherwise
            | Self::StandsOtherwise
            | Self::StepsOpen
            | Self::YLinkFails
            | Self::TravelEnds
            | Self::CauseOpen
            | Self::StandsInTheWay
            | Self::ClearanceNotChecked => Weight::Function,
            Self::PartWrong | Self::NotAsPlanned => Weight::Fit,
            Self::LinkBesideBar | Self::SteersOverBumps | Self::PartsNotMeasured => Weight::Comfort,
        }
    }
}

/// Its key holds what it is about: a reason written for one thing does not open the way for another, or for more of the
/// same. No longer than a key of the document may be, and on one line, whatever somebody called a part.
pub(super) fn finding(kind: FindingKind, key: &str, says: impl Into<Message>) -> Finding {
    Finding {
        kind,
        key: key.chars().filter(|c| !c.is_control()).take(LONGEST_NAME).collect(),
        stage: kind.stage(),
        goes_to: None,
        concerns: Concerns::Plan,
        verdict: kind.verdict(),
        weight: kind.weight(),
        says: says.into(),
        acceptable: true,
        accepted: None,
    }
}
