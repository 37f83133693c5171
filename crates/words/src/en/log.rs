//! The log.

use derecho_core::measure::phrase::Words;
use derecho_core::measure::typed::mark;
use derecho_core::measure::{Length, Moment, Phrase};
use derecho_core::parts::BracketEnd;
use derecho_job::document::proof::{ALL_THAT_WAS_OPEN, Acceptance, ReminderKind, ReminderRecord};
use derecho_job::document::work::{PartRecord, PartState};
use derecho_job::document::{CauseFound, CauseRecord};
use derecho_job::log::message::{LogMessage, Set};

use super::bolt_up::both;

use crate::marked as say;

pub(super) fn log(message: &LogMessage) -> Phrase {
    match message {
        LogMessage::Reading { round, offset, uncertainty } => reading(*round, *offset, *uncertainty),
        LogMessage::Setting(done) => setting(done),
        LogMessage::Tight { name, made, because } => tight(&say(&name.0).inches, *made, because),
        LogMessage::Against { read, reason } => against(read, reason),
        LogMessage::Struck { key, reason } => struck(key, reason),
        LogMessage::Part(record) => part(record),
        LogMessage::AsWritten(text) => Phrase::plain(&mark(text.trim())),
        LogMessage::Reminder(record) => reminder(record),
        LogMessage::Settled { version } => Phrase::plain(&format!("Job closed, version {version}")),
        LogMessage::CauseFound(cause) => cause_found(cause),
        LogMessage::Accepted(accepted) => closed_over(accepted),
    }
}

fn reading(round: usize, offset: Length, sure: Length) -> Phrase {
    Phrase::of(|w| {
        let when = if round == 0 { "as found".to_owned() } else { format!("after adjustment {round}") };
        format!("Measured {when}: {}, ±{}", w.sideways(offset), w.fine(sure))
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
        Set::OldBarHung => "put the old bar back in".to_owned(),
        Set::BarHung { name } | Set::DragLink { name } => format!("installed the {}", mark(name)),
        Set::EyeMoved { end, hole } => {
            let end = if *end == BracketEnd::Axle { "axle" } else { "frame" };
            format!("{end} end to {}", hole.as_deref().map_or_else(|| "another position".to_owned(), mark))
        }
        Set::EyeOff { up, outward, forward } => {
            let mut places = vec![super::prove::elsewhere(w, (*up, *outward))];
            if *forward != Length::ZERO {
                let way = if *forward > Length::ZERO { "forward" } else { "back" };
                places.push(format!("{} further {way}", w.distance(*forward)));
            }
            places.retain(|place| !place.is_empty());
            format!("it is {} than planned", places.join(" and "))
        }
        Set::DragLinkLength(length) => format!("drag link set to {}", w.fine(*length)),
        Set::Part(part) => format!("installed {}", super::prove::installs(*part, "brace")),
        Set::Cut { each_end } => format!("cut {} off each end", w.fine(*each_end)),
        Set::BarBuilt(length) => format!("bar built, {} eye to eye", w.fine(*length)),
        Set::BarLength(length) => format!("bar set to {}", w.fine(*length)),
        Set::SwayHole { number, of, arm } => format!(
            "sway links in hole {number} of {of}, counted from the stiff end, {} from the center of the sway bar",
            w.fine(*arm)
        ),
        Set::SwayLinks(length) => format!("sway links set to {}", w.fine(*length)),
        Set::Note(note) => mark(note),
    }
}

fn tight(name: &str, made: Option<Moment>, because: &str) -> Phrase {
    Phrase::of(|w| match made {
        Some(made) => format!("Torqued, {name}: {}", both(w, made)),
        None => format!("Tightened by feel, {name}, because {}", mark(because.trim())),
    })
}

fn against(read: &str, reason: &str) -> Phrase {
    Phrase::plain(&format!("Out of order: {}. Reason: {}", mark(read), mark(reason.trim())))
}

fn struck(key: &str, reason: &str) -> Phrase {
    Phrase::plain(&format!("Step skipped ({}). Reason: {}", mark(key), mark(reason.trim())))
}

fn part(part: &PartRecord) -> Phrase {
    let name = if part.name.is_empty() {
        part.key.rsplit('/').next().unwrap_or_default().replace('-', " ")
    } else {
        mark(&part.name)
    };
    let what = if part.state == Some(PartState::Wrong) { "wrong part" } else { "missing" };
    let note =
        if part.note.trim().is_empty() { String::new() } else { format!(": {}", mark(part.note.trim())) };
    Phrase::plain(&format!("Part {what}: {name}{note}"))
}

fn reminder(record: &ReminderRecord) -> Phrase {
    let what = match record.kind {
        ReminderKind::FirstDay => "after the first day",
        ReminderKind::FirstFifty => "after 50 miles (80 km)",
        ReminderKind::FiveHundred => "after 500 miles (800 km)",
        ReminderKind::FirstTrail => "after the first trail day",
        ReminderKind::TwoWeeks => "after two weeks",
        ReminderKind::Temporary => "temporary part",
        ReminderKind::ByFeel => "fastener tightened by feel",
    };
    let note =
        if record.note.trim().is_empty() { String::new() } else { format!(": {}", mark(record.note.trim())) };
    Phrase::plain(&format!("Done, {what}{note}"))
}

/// Why an axle moved otherwise than predicted.
fn cause_found(cause: &CauseRecord) -> Phrase {
    let what = match cause.what {
        CauseFound::EyeElsewhere => "an eye is not where it was planned",
        CauseFound::TurnedTheWrongWay => "the bar was turned the wrong way",
        CauseFound::FullDifference => "the bar was set by the full left-right difference",
        CauseFound::OtherLength => "the bar was set to another length than written",
        CauseFound::ReadOtherwise => "it was measured hanging, or at another height",
        CauseFound::WornHole => "a bolt hole is oval",
        CauseFound::BushingWoundUp => "a bushing was tightened off its weight",
        CauseFound::Other => "something else",
    };
    let note = if cause.note.trim().is_empty() {
        String::new()
    } else {
        format!(". Seen: {}", mark(cause.note.trim()))
    };
    Phrase::plain(&format!("Why it didn't move as predicted: {what}{note}"))
}

/// What a job was closed over, and why.
fn closed_over(accepted: &Acceptance) -> Phrase {
    let because = mark(accepted.because.trim());
    if accepted.key == ALL_THAT_WAS_OPEN {
        return Phrase::plain(&format!(
            "Closed anyway. The reason was given once for all that was open then: {because}"
        ));
    }
    match accepted.said.trim() {
        "" => Phrase::plain(&format!("Closed anyway: {because}")),
        read => Phrase::plain(&format!("Closed anyway, with this open: {} Reason: {because}", mark(read))),
    }
}
