//! What is to be done: the first question of a job.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One kind of work; a job may want several.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Purpose {
    /// Bring the axle back under the middle of the frame.
    CentreAxle,
    /// Bring the track bar nearer to level.
    LevelBar,
    /// Get clear of something the axle or the bar touches.
    ClearSomething,
    /// Size the links of the sway bar.
    FitSwayLinks,
    /// Choose a sway bar, or a way to disconnect one.
    ChooseSwayBar,
    /// Convert a track bar to a Y-shaped upper link.
    ConvertToYLink,
    /// Install another track bar in the same brackets.
    SwapBar,
    /// See whether somebody's work holds.
    CheckWork,
}

impl Purpose {
    /// Whether it is about the sway bar and nothing else.
    #[must_use]
    pub const fn is_sway(self) -> bool {
        matches!(self, Self::FitSwayLinks | Self::ChooseSwayBar)
    }
}
