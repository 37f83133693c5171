//! The log of a job, in words.

use derecho_core::measure::Phrase;
use derecho_job::Job;
use derecho_job::log::LogKind;
use derecho_words::say;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// An entry of the log.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct LogEntry {
    /// What it is about.
    pub kind: LogKind,
    /// When, in UTC, where that is on record.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false, value_type = String)]
    pub at: Option<Timestamp>,
    /// By whom; empty where nobody said.
    pub by: String,
    /// In words.
    pub says: Phrase,
}

/// Everything of a job that belongs in the log, oldest first.
#[must_use]
pub fn log(job: &Job) -> Vec<LogEntry> {
    let said = |entry: derecho_job::log::LogFact| LogEntry {
        kind: entry.kind,
        at: entry.at,
        by: entry.by,
        says: say(&entry.says),
    };
    derecho_job::log::log(job).into_iter().map(said).collect()
}
