//! The approaches of putting it right, by name.

use derecho_core::parts::BracketEnd;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One approach of doing it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Approach {
    /// An adjustable bar centres it; the angle stays.
    LengthOnly,
    /// The axle eye is raised; the length stays.
    RiserOnly,
    /// The frame eye is dropped; the length stays.
    DropOnly,
    /// The axle eye is raised and the bar set to length.
    RiserAndLength,
    /// The frame eye is dropped and the bar set to length.
    DropAndLength,
}

impl Approach {
    /// The eye it moves.
    #[must_use]
    pub const fn end(self) -> Option<BracketEnd> {
        match self {
            Self::LengthOnly => None,
            Self::RiserOnly | Self::RiserAndLength => Some(BracketEnd::Axle),
            Self::DropOnly | Self::DropAndLength => Some(BracketEnd::Frame),
        }
    }

    /// Whether it sets the bar's length.
    #[must_use]
    pub const fn sets_length(self) -> bool {
        matches!(self, Self::LengthOnly | Self::RiserAndLength | Self::DropAndLength)
    }
}
