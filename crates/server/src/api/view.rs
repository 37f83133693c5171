//! A job as it is answered: the document with everything computed from it.

use derecho_job::{Job, Results};
use derecho_results::solve;
use derecho_store::StoredJob;
use jiff::Timestamp;
use serde::Serialize;
use utoipa::ToSchema;

use crate::raw_json::{as_typed, rounded};

/// A job with everything computed from it.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct JobView {
    /// Its id.
    pub id: String,
    /// The revision; the ETag says the same.
    pub revision: u64,
    /// When it was saved, in UTC.
    #[schema(value_type = String)]
    pub saved_at: Timestamp,
    /// Whether there is a change to undo.
    pub can_undo: bool,
    /// Whether there is an undone change to bring back.
    pub can_redo: bool,
    /// The client's own name for the edit that made this revision, where it gave one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub edit: Option<String>,
    /// The document.
    #[serde(serialize_with = "as_typed")]
    pub document: Job,
    /// Everything computed from it.
    #[serde(serialize_with = "rounded")]
    pub results: Results,
}

impl JobView {
    /// Computes the results of a stored job.
    #[must_use]
    pub fn of(stored: StoredJob) -> Self {
        Self {
            results: solve(&stored.job),
            id: stored.id,
            revision: stored.revision,
            saved_at: stored.saved_at,
            can_undo: stored.can_undo,
            can_redo: stored.can_redo,
            edit: stored.edit,
            document: stored.job,
        }
    }
}
