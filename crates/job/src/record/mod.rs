//! The record of a closed job, one sheet for the customer: what it came in for and what became of it, before and after,
//! what was set, each torque with tool and name, what was accepted and why, what to look at and when.
//!
//! Not here: whether a job is closed (`status`), the paper (`derecho-card`).

pub mod message;

use self::message::{RecordHeading, RecordMessage};
use crate::bolt_up::{FastenerLine, Tightness, WorkResult};
use crate::diagnosis::message::DiagnosisMessage;
use crate::document::proof::ALL_THAT_WAS_OPEN;
use crate::document::{Job, Settled, SheetKind};
use crate::findings::Weight;
use crate::log::settings;
use crate::message::Message;
use crate::results::Results;
use crate::setups::Resolved;
use jiff::tz::TimeZone;

/// A part of the record.
#[derive(Clone, Debug, PartialEq)]
pub struct RecordSection {
    /// What stands over it.
    pub heading: Message,
    /// What it says, a paragraph each.
    pub lines: Vec<Message>,
}

/// The record of a job that was closed; None of one that was not.
#[must_use]
pub fn record(job: &Job, results: &Results, work: &WorkResult) -> Option<(Message, Vec<RecordSection>)> {
    let settled = job.settled.as_ref()?;
    let sections = [
        (RecordHeading::Complaint, complaints(job).into_iter().chain(causes(job)).collect()),
        (RecordHeading::Measured, measured(job)),
        (RecordHeading::Set, settings(job)),
        (RecordHeading::Torques, torques(job, work)),
        (RecordHeading::Accepted, accepted(job, results)),
        (RecordHeading::Due, due(results)),
        (RecordHeading::NextTime, results.settling.next_time.clone()),
    ];
    let sections = sections.into_iter().filter(|(_, lines)| !lines.is_empty());
    let sections = sections
        .map(|(heading, lines)| RecordSection { heading: RecordMessage::Heading(heading).into(), lines });
    Some((closed(job, settled, results), sections.collect()))
}

fn closed(job: &Job, settled: &Settled, results: &Results) -> Message {
    if results.settled_stands == Some(false) {
        return RecordMessage::ChangedSince.into();
    }
    let day = settled.at.to_zoned(TimeZone::UTC).date();
    RecordMessage::Closed { by: job.proof.by.trim().to_owned(), day }.into()
}

/// What was found to be the cause, and what was done about it.
fn causes(job: &Job) -> impl Iterator<Item = Message> {
    job.diagnosis.causes.iter().map(|cause| DiagnosisMessage::Record(cause.clone()).into())
}

fn complaints(job: &Job) -> Vec<Message> {
    let told = job.complaints.iter();
    told.map(|complaint| {
        RecordMessage::Complaint { text: complaint.text.trim().to_owned(), after: complaint.after }.into()
    })
    .collect()
}

/// The first set of measurements and the last, and the bar's angle then and now.
fn measured(job: &Job) -> Vec<Message> {
    let resolved = Resolved::of(job);
    let read: Vec<Message> = {
        let sheets = job.sheets.iter().zip(&resolved.sheets);
        let centring = sheets.filter(|(sheet, _)| sheet.kind == SheetKind::Centring);
        let told: Vec<_> = centring
            .filter_map(|(sheet, result)| Some((sheet, result.centring.as_ref()?, result.says.as_ref()?)))
            .collect();
        let ends = match told.as_slice() {
            [] => Vec::new(),
            [only] => vec![*only],
            [first, .., last] => vec![*first, *last],
        };
        ends.into_iter()
            .map(|(sheet, read, says)| {
                RecordMessage::Sides {
                    after: !sheet.after.is_empty(),
                    left: read.left_mean_mm,
                    right: read.right_mean_mm,
                    says: says.clone(),
                }
                .into()
            })
            .collect()
    };
    let angle = resolved.measured_setups().map(|setups| {
        let found = (!setups.known.built).then(|| setups.found.view.angle());
        RecordMessage::BarAngle { found, now: setups.fitted.view.angle() }.into()
    });
    read.into_iter().chain(angle).collect()
}

fn torques(job: &Job, work: &WorkResult) -> Vec<Message> {
    let told = |line: &&FastenerLine| !matches!(line.tightness, Tightness::Struck);
    let lines = work.fasteners.iter().filter(told);
    lines
        .map(|line| {
            let tight = job.bolt_up.fastener(&line.key).and_then(|form| form.tight.as_ref());
            let text = |of: fn(&crate::document::work::TorqueMark) -> &str| {
                tight.map_or_else(String::new, |tight| of(tight).trim().to_owned())
            };
            RecordMessage::Torque {
                name: line.name.clone(),
                says: line.tight_says.clone().unwrap_or_else(|| line.torque_says.clone()),
                tool: text(|tight| &tight.tool),
                by: text(|tight| &tight.done.by),
            }
            .into()
        })
        .collect()
}

/// What the job was closed over, safety first.
#[must_use]
pub fn accepted(job: &Job, results: &Results) -> Vec<Message> {
    let mut accepted: Vec<(Weight, Message)> = results
        .findings
        .iter()
        .filter_map(|finding| {
            let (safety, accepted) = (finding.weight == Weight::Safety, finding.accepted.clone()?);
            let says = finding.says.clone();
            Some((finding.weight, RecordMessage::Accepted { safety, says, accepted }.into()))
        })
        .collect();
    accepted.sort_by_key(|(weight, _)| *weight);
    let carried_over = job.proof.accepted(ALL_THAT_WAS_OPEN).map(|accepted| {
        let says = Message::NOTHING;
        RecordMessage::Accepted { safety: false, says, accepted: accepted.clone() }.into()
    });
    accepted.into_iter().map(|(_, says)| says).chain(carried_over).collect()
}

fn due(results: &Results) -> Vec<Message> {
    let open = results.settling.reminders.iter().filter(|reminder| reminder.done.is_none());
    open.map(|reminder| {
        RecordMessage::Due {
            says: reminder.says.clone(),
            day: reminder.due,
            odometer: reminder.odometer_says.clone(),
        }
        .into()
    })
    .collect()
}
