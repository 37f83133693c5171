//! Every sentence of the log.

use derecho_core::measure::centring::Centring;
use derecho_core::measure::{Moment, Phrase};
use derecho_core::parts::BracketEnd;

use crate::bolt_up::words::both;
use crate::document::proof::{GateReason, ReminderKind, ReminderRecord};
use crate::document::work::{PartRecord, PartState};
use crate::document::{Job, Round, length_of};

pub(super) fn reading(round: usize, centring: &Centring) -> Phrase {
    let (offset, sure) = (centring.offset_mm, centring.uncertainty_mm);
    Phrase::of(|w| {
        let when = if round == 0 { "as found".to_owned() } else { format!("after round {round}") };
        format!("Read {when}: {}, give or take {}", w.sideways(offset), w.fine(sure))
    })
}

pub(super) fn setting(job: &Job, round: &Round) -> Phrase {
    Phrase::of(|w| {
        let mut told = Vec::new();
        if let Some(bar) = &round.bar {
            told.push(if bar.is_empty() {
                "hung the old bar again".to_owned()
            } else {
                format!("hung the {}", job.bar_part(bar).map_or("", |part| part.name.as_str()))
            });
        }
        for moved in &round.moved {
            let end = if moved.end == BracketEnd::Axle { "axle" } else { "frame" };
            let hole = job.hole(moved.end, &moved.to).map_or("another place", |hole| hole.name.as_str());
            told.push(format!("{end} eye to {hole}"));
        }
        if let Some(cut) = &round.cut {
            told.push(format!("cut {} off each end", w.fine(cut.each_end.length())));
        }
        if let Some(length) = length_of(&round.length) {
            told.push(format!("bar set to {}", w.fine(length)));
        }
        if !round.drag_link.is_empty() {
            told.push(format!("fitted the {}", job.drag_link_name(&round.drag_link)));
        }
        if let Some(hole) = &round.sway_hole
            && let Some(row) = job.sway.holes.get(job.sway.place_of(hole))
        {
            told.push(format!("sway links in the hole {} from the bar's axis", w.fine(row.arm.length())));
        }
        if let Some(link) = length_of(&round.sway_link) {
            told.push(format!("sway links set to {}", w.fine(link)));
        }
        if !round.note.trim().is_empty() {
            told.push(round.note.trim().to_owned());
        }
        let mut says = told.join(", ");
        if let Some(first) = says.get_mut(0..1) {
            first.make_ascii_uppercase();
        }
        says
    })
}

pub(super) fn tight(name: &str, made: Option<Moment>, because: &str) -> Phrase {
    Phrase::of(|w| match made {
        Some(made) => format!("Tight, {name}: {}", both(w, made)),
        None => format!("Tight by feel, {name}, because {}", because.trim()),
    })
}

pub(super) fn against(read: &str, reason: &str) -> Phrase {
    Phrase::plain(&format!("Against the order: {read}. Reason: {}", reason.trim()))
}

pub(super) fn struck(key: &str, reason: &str) -> Phrase {
    Phrase::plain(&format!("Struck out of the plan ({key}). Reason: {}", reason.trim()))
}

pub(super) fn part(part: &PartRecord) -> Phrase {
    let name = if part.name.is_empty() {
        part.key.rsplit('/').next().unwrap_or_default().replace('-', " ")
    } else {
        part.name.clone()
    };
    let what = if part.state == Some(PartState::Wrong) { "the wrong one" } else { "missing" };
    let note = if part.note.trim().is_empty() { String::new() } else { format!(": {}", part.note.trim()) };
    Phrase::plain(&format!("Part {what}: {name}{note}"))
}

pub(super) fn as_written(text: &str) -> Phrase {
    Phrase::plain(text.trim())
}

pub(super) fn reminder(record: &ReminderRecord) -> Phrase {
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

pub(super) fn settled(version: &str) -> Phrase {
    Phrase::plain(&format!("Settled, by the rules of {version}"))
}

/// What a job was settled over, and why.
pub(super) fn although(reason: &GateReason) -> Phrase {
    let because = reason.because.trim();
    match reason.read.trim() {
        "" => Phrase::plain(&format!("Settled all the same: {because}")),
        read => Phrase::plain(&format!("Settled although: {read} Because: {because}")),
    }
}
