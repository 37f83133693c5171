//! What comes next after the readings.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What comes next.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ProveVerdict {
    /// Centred within the tolerance: it can be settled.
    CanSettle,
    /// Off centre: back to stage Bar with these readings.
    BackToBar,
    /// These readings prove nothing: read again.
    ReadAgain,
    /// The sway links do not work over the travel: back to stage Sway.
    BackToSway,
    /// It is centred, but what was to come clear still ends the travel: back to stage Cycle.
    BackToCycle,
    /// The chosen plan is not fitted yet, or nothing of the work is done.
    PlanNotFitted,
    /// The bar was to be brought nearer to level, a bracket is urged, and nobody fitted or declined one.
    NotDecided,
}
