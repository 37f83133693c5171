//! The log of a job: what was set, tightened, read and noticed, in order of time; the shop's log is that of all its
//! jobs. `words` makes the sentences. Not here: which jobs there are.

mod words;

use derecho_core::measure::{Phrase, TorqueEntry};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::document::work::PartState;
use crate::document::{Job, SheetKind};
use crate::setups::Resolved;

/// What an entry is about.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LogKind {
    /// Both sides read.
    Reading,
    /// Something fitted or set.
    Setting,
    /// A fastener made tight.
    Torque,
    /// A step done against the order, struck out, or otherwise told.
    Deviation,
    /// A reminder seen to.
    Reminder,
    /// How it felt off the road.
    Trail,
    /// A defect: a part that was wrong or missing, and what was met.
    Defect,
    /// Settled.
    Settled,
}

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

fn entry(kind: LogKind, at: Option<Timestamp>, by: &str, says: Phrase) -> LogEntry {
    LogEntry { kind, at, by: by.trim().to_owned(), says }
}

/// Everything of a job that belongs in the log, oldest first; what has no time stands where its round does.
#[must_use]
pub fn log(job: &Job) -> Vec<LogEntry> {
    let resolved = Resolved::of(job);
    let mut entries = Vec::new();
    for round in 0..=job.setups.rounds.len() {
        if let Some(done) = round.checked_sub(1).map(|last| &job.setups.rounds[last]) {
            entries.push(entry(LogKind::Setting, done.at, &done.by, words::setting(job, done)));
        }
        let since = round.checked_sub(1).and_then(|last| job.setups.rounds[last].at);
        for (sheet, result) in job.sheets.iter().zip(&resolved.sheets) {
            if job.setups.rounds_after(&sheet.after) == round
                && sheet.kind == SheetKind::Centring
                && let Some(centring) = &result.centring
            {
                entries.push(entry(LogKind::Reading, since, "", words::reading(round, centring)));
            }
        }
    }
    // Working out the whole plan of work takes longer than all the rest: where nothing was tightened it names nothing.
    let tightened = job.bolt_up.fasteners.iter().any(|form| form.tight.is_some());
    let names = if tightened { crate::bolt_up::fastener_names(job, &resolved) } else { Vec::new() };
    for form in &job.bolt_up.fasteners {
        let Some(tight) = &form.tight else { continue };
        let name = names.iter().find(|(key, _)| *key == form.key).map_or(form.key.as_str(), |(_, name)| name);
        let made = tight.torque.as_ref().map(TorqueEntry::torque);
        let says = words::tight(name, made, &tight.by_feel_because);
        entries.push(entry(LogKind::Torque, Some(tight.done.at), &tight.done.by, says));
    }
    for record in &job.bolt_up.steps {
        let done = record.done.as_ref();
        let by = done.map_or("", |done| done.by.as_str());
        if !record.against.trim().is_empty() {
            let says = words::against(&record.read, &record.against);
            entries.push(entry(LogKind::Deviation, done.map(|done| done.at), by, says));
        }
        if !record.struck.trim().is_empty() {
            entries.push(entry(LogKind::Deviation, None, "", words::struck(&record.key, &record.struck)));
        }
    }
    for part in &job.bolt_up.parts {
        if matches!(part.state, Some(PartState::Missing | PartState::Wrong)) {
            entries.push(entry(LogKind::Defect, None, "", words::part(part)));
        }
    }
    let proof = &job.proof;
    for (kind, text) in [
        (LogKind::Deviation, &proof.deviations),
        (LogKind::Deviation, &proof.although),
        (LogKind::Defect, &proof.defects),
        (LogKind::Trail, &proof.trail),
    ] {
        if !text.trim().is_empty() {
            entries.push(entry(kind, None, &proof.by, words::as_written(text)));
        }
    }
    for reason in proof.reasons.iter().filter(|reason| !reason.because.trim().is_empty()) {
        entries.push(entry(LogKind::Deviation, None, &proof.by, words::although(reason)));
    }
    for record in &proof.reminders {
        let says = words::reminder(record);
        entries.push(entry(LogKind::Reminder, Some(record.done.at), &record.done.by, says));
    }
    if let Some(settled) = &job.settled {
        entries.push(entry(
            LogKind::Settled,
            Some(settled.at),
            &proof.by,
            words::settled(&settled.core_version),
        ));
    }
    // A stable sort: what has no time stays behind what stands before it.
    let mut last = Timestamp::MIN;
    let mut keyed: Vec<(Timestamp, LogEntry)> = entries
        .into_iter()
        .map(|entry| {
            last = entry.at.unwrap_or(last);
            (last, entry)
        })
        .collect();
    keyed.sort_by_key(|(at, _)| *at);
    keyed.into_iter().map(|(_, entry)| entry).collect()
}
