//! Single further readings that could be taken. Not here: what each is worth (`next`).

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A single further reading.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Further {
    /// One more repeat on the left.
    RepeatLeft,
    /// One more repeat on the right.
    RepeatRight,
    /// A feature that is good to more: frame to hub.
    BetterFeature,
    /// The heights of the bar's eyes once more.
    HeightsAgain,
    /// The finder on the bar instead of heights.
    Finder,
}
