//! The log of a job: what was set, tightened, read and noticed, in order of time; the shop's log is that of all its
//! jobs. `words` makes the sentences. Not here: which jobs there are.

pub mod message;

use crate::bolt_up::message::{BoltUpMessage, FastenerName};
use derecho_core::measure::TorqueEntry;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use self::message::{LogMessage, Set};
use crate::diagnosis::message::DiagnosisMessage;
use crate::document::work::PartState;
use crate::document::{EyeOff, Job, Round, SheetKind, length_of};
use crate::message::Message;
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
#[derive(Clone, Debug, PartialEq)]
pub struct LogFact {
    /// What it is about.
    pub kind: LogKind,
    /// When, in UTC, where that is on record.
    pub at: Option<Timestamp>,
    /// By whom; empty where nobody said.
    pub by: String,
    /// What it says.
    pub says: Message,
}

fn entry(kind: LogKind, at: Option<Timestamp>, by: &str, says: impl Into<Message>) -> LogFact {
    LogFact { kind, at, by: by.trim().to_owned(), says: says.into() }
}

/// What was done in a round, in the order it is told.
fn set(job: &Job, round: &Round) -> Vec<Set> {
    let mut done = Vec::new();
    if let Some(bar) = &round.bar {
        let name = |bar| job.bar_part(bar).map(|part| part.name.clone()).unwrap_or_default();
        done.push(if bar.is_empty() { Set::OldBarHung } else { Set::BarHung { name: name(bar) } });
    }
    for moved in &round.moved {
        let hole = job.hole(moved.end, &moved.to).map(|hole| hole.name.clone());
        done.push(Set::EyeMoved { end: moved.end, hole });
        let [up, outward, forward] = moved.off.lengths();
        if moved.off != EyeOff::default() {
            done.push(Set::EyeOff { up, outward, forward });
        }
    }
    done.extend(round.cut.as_ref().map(|cut| Set::Cut { each_end: cut.each_end.length() }));
    // A bar that was not there before is built to its gap, not set.
    let built = job.setups.found.bar.length.is_none() && round.bar.is_none();
    done.extend(length_of(&round.length).map(if built { Set::BarBuilt } else { Set::BarLength }));
    if !round.drag_link.is_empty() {
        done.push(Set::DragLink { name: job.drag_link_name(&round.drag_link).to_owned() });
    }
    done.extend(length_of(&round.drag_link_length).map(Set::DragLinkLength));
    let hole = round.sway_hole.as_ref();
    let hole = hole.and_then(|id| {
        let (number, of) = job.sway.from_the_stiff_end(id)?;
        Some(Set::SwayHole { number, of, arm: job.sway.holes.get(job.sway.place_of(id))?.arm.length() })
    });
    done.extend(hole);
    done.extend(length_of(&round.sway_link).map(Set::SwayLinks));
    done.extend(round.parts.iter().copied().map(Set::Part));
    if !round.note.trim().is_empty() {
        done.push(Set::Note(round.note.trim().to_owned()));
    }
    done
}

/// What each round set, oldest first, a sentence each.
#[must_use]
pub fn settings(job: &Job) -> Vec<Message> {
    let rounds = job.setups.rounds.iter().map(|round| set(job, round)).filter(|set| !set.is_empty());
    rounds.map(|set| LogMessage::Setting(set).into()).collect()
}

/// Steps that were done against the order, or struck out.
fn of_the_steps(job: &Job) -> Vec<LogFact> {
    let mut entries = Vec::new();
    for record in &job.bolt_up.steps {
        let done = record.done.as_ref();
        let by = done.map_or("", |done| done.by.as_str());
        if !record.against.trim().is_empty() {
            let says = LogMessage::Against { read: record.read.clone(), reason: record.against.clone() };
            entries.push(entry(LogKind::Deviation, done.map(|done| done.at), by, says));
        }
        if !record.struck.trim().is_empty() {
            entries.push(entry(
                LogKind::Deviation,
                None,
                "",
                LogMessage::Struck { key: record.key.clone(), reason: record.struck.clone() },
            ));
        }
    }
    entries
}

/// Causes that were found: when they were mended, or while they are not, when they were confirmed.
fn of_the_causes(job: &Job) -> impl Iterator<Item = LogFact> {
    job.diagnosis.causes.iter().map(|cause| {
        let mark = cause.mended.as_ref().unwrap_or(&cause.done);
        entry(LogKind::Defect, Some(mark.at), &mark.by, DiagnosisMessage::Record(cause.clone()))
    })
}

/// What each round set, and what was read after it.
fn of_the_rounds(job: &Job, resolved: &Resolved) -> Vec<LogFact> {
    let mut entries = Vec::new();
    for round in 0..=job.setups.rounds.len() {
        if let Some(done) = round.checked_sub(1).map(|last| &job.setups.rounds[last]) {
            entries.push(entry(LogKind::Setting, done.at, &done.by, LogMessage::Setting(set(job, done))));
            entries.extend(done.cause.as_ref().map(|cause| {
                let says = LogMessage::CauseFound(cause.clone());
                entry(LogKind::Deviation, Some(cause.done.at), &cause.done.by, says)
            }));
        }
        let since = round.checked_sub(1).and_then(|last| job.setups.rounds[last].at);
        for (sheet, result) in job.sheets.iter().zip(&resolved.sheets) {
            if job.setups.rounds_after(&sheet.after) == round
                && sheet.kind == SheetKind::Centring
                && let Some(centring) = &result.centring
            {
                entries.push(entry(
                    LogKind::Reading,
                    since,
                    "",
                    LogMessage::Reading {
                        round,
                        offset: centring.offset_mm,
                        uncertainty: centring.uncertainty_mm,
                    },
                ));
            }
        }
    }
    entries
}

/// What was made tight, and how.
fn of_the_fasteners(job: &Job, resolved: &Resolved) -> Vec<LogFact> {
    // Working out the whole plan of work takes longer than all the rest: where nothing was tightened it names nothing.
    let tightened = job.bolt_up.fasteners.iter().any(|form| form.tight.is_some());
    let names = if tightened { crate::bolt_up::fastener_names(job, resolved) } else { Vec::new() };
    let mut entries = Vec::new();
    for form in &job.bolt_up.fasteners {
        let Some(tight) = &form.tight else { continue };
        let known = names.iter().find(|(key, _)| *key == form.key).map(|(_, name)| name.clone());
        let name = known.unwrap_or_else(|| FastenerName::Typed(form.key.clone()));
        let made = tight.torque.as_ref().map(TorqueEntry::torque);
        let says = LogMessage::Tight {
            name: BoltUpMessage::Fastener(name).into(),
            made,
            because: tight.by_feel_because.clone(),
        };
        entries.push(entry(LogKind::Torque, Some(tight.done.at), &tight.done.by, says));
    }
    entries
}

/// Everything of a job that belongs in the log, oldest first; what has no time stands where its round does.
#[must_use]
pub fn log(job: &Job) -> Vec<LogFact> {
    let resolved = Resolved::of(job);
    let mut entries = Vec::new();
    entries.extend(of_the_rounds(job, &resolved));
    entries.extend(of_the_fasteners(job, &resolved));
    entries.extend(of_the_steps(job));
    entries.extend(of_the_causes(job));
    for part in &job.bolt_up.parts {
        if matches!(part.state, Some(PartState::Missing | PartState::Wrong)) {
            entries.push(entry(LogKind::Defect, None, "", LogMessage::Part(part.clone())));
        }
    }
    let proof = &job.proof;
    for (kind, text) in [
        (LogKind::Deviation, &proof.deviations),
        (LogKind::Defect, &proof.defects),
        (LogKind::Trail, &proof.trail),
    ] {
        if !text.trim().is_empty() {
            entries.push(entry(kind, None, &proof.by, LogMessage::AsWritten(text.clone())));
        }
    }
    for accepted in proof.acceptances.iter().filter(|accepted| !accepted.because.trim().is_empty()) {
        let by = if accepted.by.is_empty() { &proof.by } else { &accepted.by };
        entries.push(entry(LogKind::Deviation, accepted.at, by, LogMessage::Accepted(accepted.clone())));
    }
    for record in &proof.reminders {
        let says = LogMessage::Reminder(record.clone());
        entries.push(entry(LogKind::Reminder, Some(record.done.at), &record.done.by, says));
    }
    if let Some(settled) = &job.settled {
        entries.push(entry(
            LogKind::Settled,
            Some(settled.at),
            &proof.by,
            LogMessage::Settled { version: settled.core_version.clone() },
        ));
    }
    // A stable sort: what has no time stays behind what stands before it.
    let mut last = Timestamp::MIN;
    let mut keyed: Vec<(Timestamp, LogFact)> = entries
        .into_iter()
        .map(|entry| {
            last = entry.at.unwrap_or(last);
            (last, entry)
        })
        .collect();
    keyed.sort_by_key(|(at, _)| *at);
    keyed.into_iter().map(|(_, entry)| entry).collect()
}
