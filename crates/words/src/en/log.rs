//! The log.

use crate::Spoken;
use derecho_core::measure::phrase::Words;
use derecho_core::measure::{Length, Moment, Phrase};
use derecho_core::parts::BracketEnd;
use derecho_job::document::proof::{GateReason, ReminderKind, ReminderRecord};
use derecho_job::document::work::{PartRecord, PartState};
use derecho_job::log::message::{LogMessage, Set};

use super::bolt_up::both;

pub(super) fn log(message: &LogMessage) -> Phrase {
    match message {
        LogMessage::Reading { round, offset, uncertainty } => reading(*round, *offset, *uncertainty),
        LogMessage::Setting(done) => setting(done),
        LogMessage::Tight { name, made, because } => tight(&name.inches(), *made, because),
        LogMessage::Against { read, reason } => against(read, reason),
        LogMessage::Struck { key, reason } => struck(key, reason),
        LogMessage::Part(record) => part(record),
        LogMessage::AsWritten(text) => Phrase::plain(text.trim()),
        LogMessage::Reminder(record) => reminder(record),
        LogMessage::Settled { version } => Phrase::plain(&format!("Settled, by the rules of {version}")),
        LogMessage::Although(reason) => although(reason),
    }
}

fn reading(round: usize, offset: Length, sure: Length) -> Phrase {
    Phrase::of(|w| {
        let when = if round == 0 { "as found".to_owned() } else { format!("after round {round}") };
        format!("Read {when}: {}, give or take {}", w.sideways(offset), w.fine(sure))
    })
}

fn setting(done: &[Set]) -> Phrase {
    Phrase::of(|w| {
        let mut says = done.iter().map(|set| one_set(w, set)).collect::<Vec<_>>().join(", ");
        if let Some(first) = says.get_mut(0..1) {
            first.make_ascii_uppercase();
        }
        says
    })
}

fn one_set(w: Words, set: &Set) -> String {
    match set {
        Set::OldBarHung => "hung the old bar again".to_owned(),
        Set::BarHung { name } => format!("hung the {name}"),
        Set::EyeMoved { end, hole } => {
            let end = if *end == BracketEnd::Axle { "axle" } else { "frame" };
            format!("{end} eye to {}", hole.as_deref().unwrap_or("another place"))
        }
        Set::Cut { each_end } => format!("cut {} off each end", w.fine(*each_end)),
        Set::BarLength(length) => format!("bar set to {}", w.fine(*length)),
        Set::DragLink { name } => format!("fitted the {name}"),
        Set::SwayHole { arm } => format!("sway links in the hole {} from the bar's axis", w.fine(*arm)),
        Set::SwayLinks(length) => format!("sway links set to {}", w.fine(*length)),
        Set::Note(note) => note.clone(),
    }
}

fn tight(name: &str, made: Option<Moment>, because: &str) -> Phrase {
    Phrase::of(|w| match made {
        Some(made) => format!("Tight, {name}: {}", both(w, made)),
        None => format!("Tight by feel, {name}, because {}", because.trim()),
    })
}

fn against(read: &str, reason: &str) -> Phrase {
    Phrase::plain(&format!("Against the order: {read}. Reason: {}", reason.trim()))
}

fn struck(key: &str, reason: &str) -> Phrase {
    Phrase::plain(&format!("Struck out of the plan ({key}). Reason: {}", reason.trim()))
}

fn part(part: &PartRecord) -> Phrase {
    let name = if part.name.is_empty() {
        part.key.rsplit('/').next().unwrap_or_default().replace('-', " ")
    } else {
        part.name.clone()
    };
    let what = if part.state == Some(PartState::Wrong) { "the wrong one" } else { "missing" };
    let note = if part.note.trim().is_empty() { String::new() } else { format!(": {}", part.note.trim()) };
    Phrase::plain(&format!("Part {what}: {name}{note}"))
}

fn reminder(record: &ReminderRecord) -> Phrase {
    let what = match record.kind {
        ReminderKind::FirstDay => "after the first day",
        ReminderKind::FirstFifty => "after 50 miles (80 km)",
        ReminderKind::FiveHundred => "after 500 miles (800 km)",
        ReminderKind::FirstTrail => "after the first day off the road",
        ReminderKind::TwoWeeks => "after two weeks",
        ReminderKind::Temporary => "what was there for a while",
        ReminderKind::ByFeel => "what was tight by feel",
    };
    let note =
        if record.note.trim().is_empty() { String::new() } else { format!(": {}", record.note.trim()) };
    Phrase::plain(&format!("Seen to, {what}{note}"))
}

/// What a job was settled over, and why.
fn although(reason: &GateReason) -> Phrase {
    let because = reason.because.trim();
    match reason.read.trim() {
        "" => Phrase::plain(&format!("Settled all the same: {because}")),
        read => Phrase::plain(&format!("Settled although: {read} Because: {because}")),
    }
}
