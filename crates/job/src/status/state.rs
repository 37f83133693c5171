//! The states of a job, from as found to closed.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Where a job stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum JobState {
    /// Nothing is decided.
    AsFound,
    /// What is to be done is decided, and nothing of it is done.
    Planned,
    /// Some of the steps are done.
    BeingFitted,
    /// Fitted and recorded, and not measured since.
    FittedToRead,
    /// Measured afterwards: not as wanted.
    NotAsWanted,
    /// What was done is proved; things may be open.
    Proved,
    /// Closed, and it stands.
    Closed,
    /// Closed, and changed since.
    ChangedSinceClosed,
}
