//! Why a sheet drives no correction.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Why a sheet drives no correction.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Refusal {
    /// It hung, or nobody let it down.
    Hanging,
    /// It stood at another height than it is driven at.
    OtherHeight,
    /// Something was set since.
    Stale,
}
