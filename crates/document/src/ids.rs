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
