//! What is looked at again. Not here: what was found (`findings`), how it is said (`words`).

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

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
    /// What nobody measured that bar, brackets and links could touch.
    Clear,
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
            Self::Clear => "clear",
        }
    }
}
