//! What can stand in the way of settling, and what is looked at again. Not here: whether it does (`settling`), how it is
//! said (`words`).

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What stands in the way.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GateKind {
    /// Something is still off the vehicle.
    StillOff,
    /// A complaint was not asked again.
    ComplaintOpen,
    /// Nobody wrote a torque, or why there is none.
    TorqueMissing,
    /// The vehicle stands otherwise than before.
    StandsOtherwise,
    /// Something that was looked at is not right.
    NotRight,
    /// The axle moved otherwise than was reckoned, and no second sheet says the same.
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
    /// Steps of the plan that are neither ticked nor struck out.
    StepsOpen,
    /// Something of safety that nobody looked at.
    NotLookedAt,
    /// A check of the Y-link that is not good.
    YLinkFails,
    /// More stress or load than a part takes.
    Overstressed,
    /// Stick-out, an angle or a link otherwise than planned.
    NotAsPlanned,
}

/// Something that is looked at once the work is done.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LookKind {
    /// The steering wheel stands straight.
    WheelStraight,
    /// Toe.
    Toe,
    /// Stability sensors.
    Sensors,
    /// Lines and looms.
    Lines,
    /// Wheel nuts.
    WheelNuts,
    /// Pins of a disconnect.
    PinsLevel,
    /// A stowed link.
    StowedClear,
}

impl LookKind {
    /// The name of its field in the document.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::WheelStraight => "wheel_straight",
            Self::Toe => "toe",
            Self::Sensors => "sensors",
            Self::Lines => "lines",
            Self::WheelNuts => "wheel_nuts",
            Self::PinsLevel => "pins_level",
            Self::StowedClear => "stowed_clear",
        }
    }
}
