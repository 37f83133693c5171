//! What rows of the document are told apart by where others point at them. A name is for people and may change; an id
//! stays as long as its row is there.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

pub use derecho_core::parts::{BarId, BracketId, DragLinkId, HoleId};

derecho_core::ids! {
    /// Of a height of the rig. Empty is the driven height; as the driven height itself, ride height.
    HeightId;
    /// Of a round. Empty is as found.
    RoundId;
    /// Of a hole of the sway arm. Empty is its first.
    ArmHoleId;
    /// Of a hole to drill.
    DrillId;
}

/// The bracket of a riser that is reckoned and nowhere tried, and of a drop; nobody's document holds them.
pub const EXACT_RISER: &str = "exact riser";
/// See [`EXACT_RISER`].
pub const EXACT_DROP: &str = "exact drop";
/// The hole of either.
pub const TO_BE_MADE: &str = "to be found or made";
