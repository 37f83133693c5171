//! The record of a closed job.

use crate::marked as say;
use derecho_core::measure::Phrase;
use derecho_core::measure::phrase::degrees;
use derecho_core::measure::typed::mark;
use derecho_job::document::ComplaintAfter;
use derecho_job::document::proof::{ALL_THAT_WAS_OPEN, Acceptance};
use derecho_job::record::message::{RecordHeading, RecordMessage};

use super::bracket::capital;

pub(super) fn record(message: &RecordMessage) -> Phrase {
    match message {
        RecordMessage::Heading(heading) => Phrase::plain(self::heading(*heading)),
        RecordMessage::Complaint { text, after } => {
            Phrase::plain(&format!("\u{201c}{}\u{201d}: {}", mark(text), became(*after)))
        }
        RecordMessage::Sides { after, left, right, says } => {
            let says = say(says);
            Phrase::of(|w| {
                let when = if *after { "After" } else { "Before" };
                let (left, right) = (w.fine(*left), w.fine(*right));
                format!("{when}: left {left}, right {right}. {}", says.in_unit(w.unit()))
            })
        }
        RecordMessage::BarAngle { found, now } => Phrase::plain(&format!(
            "Track bar angle at the driven height: {}{} now.",
            found.map_or_else(String::new, |found| format!("{} as found, ", degrees(found.abs()))),
            degrees(now.abs())
        )),
        RecordMessage::Torque { name, says, tool, by } => {
            let (name, says) = (say(&name.0), say(says));
            Phrase::of(|w| {
                let more: Vec<String> =
                    [tool, by].into_iter().filter(|text| !text.is_empty()).map(|text| mark(text)).collect();
                let more = if more.is_empty() { String::new() } else { format!(" ({})", more.join(", ")) };
                format!("{}: {}{more}", capital(name.in_unit(w.unit())), says.in_unit(w.unit()))
            })
        }
        RecordMessage::Accepted { safety, says, accepted } => self::accepted(*safety, &say(says), accepted),
        RecordMessage::Due { says, day, odometer } => {
            let (says, odometer) = (say(says), odometer.as_ref().map(say));
            Phrase::of(|w| {
                let when = [
                    day.map(|day| day.to_string()),
                    odometer.as_ref().map(|odometer| odometer.in_unit(w.unit()).to_owned()),
                ];
                let when: Vec<String> = when.into_iter().flatten().collect();
                let when = if when.is_empty() { String::new() } else { format!("{}: ", when.join(", ")) };
                format!("{when}{}", says.in_unit(w.unit()))
            })
        }
        RecordMessage::Closed { by, day } => {
            let by = if by.is_empty() { String::new() } else { format!(" by {}", mark(by)) };
            Phrase::plain(&format!("Closed{by} on {day}"))
        }
        RecordMessage::ChangedSince => Phrase::plain(
            "Changed since it was closed: this sheet no longer describes the job as it was closed.",
        ),
    }
}

const fn heading(heading: RecordHeading) -> &'static str {
    match heading {
        RecordHeading::Complaint => "What it came in for",
        RecordHeading::Measured => "Before and after",
        RecordHeading::Set => "What was done",
        RecordHeading::Torques => "Torques",
        RecordHeading::Accepted => "Left open, and accepted",
        RecordHeading::Due => "Check again",
        RecordHeading::NextTime => "For the next time",
    }
}

const fn became(after: Option<ComplaintAfter>) -> &'static str {
    match after {
        Some(ComplaintAfter::Gone) => "gone",
        Some(ComplaintAfter::Better) => "better",
        Some(ComplaintAfter::Same) => "the same as before",
        Some(ComplaintAfter::Worse) => "worse",
        None => "not asked again",
    }
}

/// Something the job was closed over, by whom, why and when.
fn accepted(safety: bool, says: &Phrase, accepted: &Acceptance) -> Phrase {
    // The day alone of an instant in UTC.
    let day = accepted.at.map(|at| at.to_string().chars().take(10).collect());
    let who = [Some(accepted.by.trim().to_owned()), day].into_iter().flatten();
    let who: Vec<String> = who.filter(|text| !text.is_empty()).map(|text| mark(&text)).collect();
    let who = if who.is_empty() { String::new() } else { format!(" ({})", who.join(", ")) };
    let because = mark(accepted.because.trim().trim_end_matches('.'));
    Phrase::of(|w| {
        let what = match accepted.key == ALL_THAT_WAS_OPEN {
            true => "Accepted once for all that was open, by an earlier version".to_owned(),
            false => says.in_unit(w.unit()).trim_end_matches('.').to_owned(),
        };
        let safety = if safety { "Safety: " } else { "" };
        format!("{safety}{what}. Accepted: {because}{who}.")
    })
}
