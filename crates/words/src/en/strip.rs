//! The headlines of the strip.

use derecho_core::measure::phrase::degrees;
use derecho_core::measure::print::{self, Style};
use derecho_core::measure::squareness::AxleEnd;
use derecho_core::measure::{Length, Phrase, Unit};
use derecho_job::strip::message::{StripMessage, Waits};

use crate::say_all;

pub(super) fn strip(message: &StripMessage) -> Phrase {
    match message {
        StripMessage::Waits(waits) => Phrase::plain(waiting(*waits)),
        StripMessage::Holes(names) => Phrase::plain(&names.join(", ")),
        StripMessage::Rig { end, lift } => rig(*end, *lift),
        StripMessage::Off(offset, side) => Phrase::of(|w| format!("{} {}", w.distance(*offset), side.word())),
        StripMessage::Angle(angle) => Phrase::plain(&degrees(*angle)),
        StripMessage::Set(length) => Phrase::of(|w| format!("set {}", w.fine(*length))),
        StripMessage::To(length) => Phrase::of(|w| format!("to {}", w.fine(*length))),
        StripMessage::Change(change) => change_of(*change),
        StripMessage::Steps { done, of } => Phrase::plain(&format!("{done} of {of}")),
        StripMessage::Links { works, link } => {
            let word = if *works { "links" } else { "do not work:" };
            Phrase::of(|w| format!("{word} {}", w.fine(*link)))
        }
        StripMessage::Joined(headlines) => joined(&say_all(headlines)),
    }
}

const fn waiting(waits: Waits) -> &'static str {
    match waits {
        Waits::YLink => "Y-link",
        Waits::MeasureTheBar => "measure the bar",
        Waits::PartGone => "a part is gone",
        Waits::NotNeeded => "not needed",
        Waits::NotRecommended => "not urged",
        Waits::ToChoose => "to choose",
        Waits::NoBracketTried => "no bracket tried",
        Waits::NotMeasured => "not measured",
        Waits::NoSwayBar => "no sway bar",
        Waits::MoreToMeasure => "more to measure",
        Waits::ReadAgain => "read again",
        Waits::OneSideSoFar => "one side so far",
        Waits::NoReadings => "no readings",
        Waits::CannotTellYet => "cannot tell yet",
        Waits::Centred => "centred",
        Waits::NoBarYLink => "no bar: Y-link",
        Waits::CannotBe => "cannot be",
        Waits::ThreadFault => "thread!",
        Waits::HoleOrLength => "hole or length?",
        Waits::DoesNotReach => "does not reach",
        Waits::NothingChosen => "nothing chosen",
        Waits::TorqueMissing => "torque missing",
        Waits::SomethingIsOff => "something is off",
        Waits::Done => "done",
        Waits::Settled => "settled",
        Waits::ChangedSinceSettled => "changed since settled",
        Waits::ProvedNotSettled => "proved, not settled",
        Waits::BackToBar => "back to Bar",
        Waits::BackToSway => "back to Sway",
        Waits::StillTouches => "still touches",
        Waits::PlanNotFitted => "plan not fitted",
        Waits::BracketNotDecided => "bracket not decided",
        Waits::NotYet => "not yet",
        Waits::ReadBothSides => "read both sides",
        Waits::LengthOnly => "length only",
    }
}

fn rig(end: Option<AxleEnd>, lift: Length) -> Phrase {
    let end = match end {
        Some(AxleEnd::Front) => "front",
        Some(AxleEnd::Rear) => "rear",
        None => "which end?",
    };
    Phrase::of(|w| {
        if lift == Length::ZERO {
            return end.to_owned();
        }
        let verb = if lift > Length::ZERO { "up" } else { "down" };
        format!("{end}, {} {verb}", w.distance(lift))
    })
}

fn change_of(change: Length) -> Phrase {
    Phrase::of(|w| {
        if print::rounds_to_nought(change, Style::everyday(w.unit())) {
            return "length stays".to_owned();
        }
        let word = if change > Length::ZERO { "longer" } else { "shorter" };
        format!("{} {word}", w.distance(change))
    })
}

/// Some sentences as one line.
fn joined(reported: &[Phrase]) -> Phrase {
    let in_unit = |unit: Unit| reported.iter().map(|one| one.in_unit(unit)).collect::<Vec<_>>().join(" · ");
    Phrase { inches: in_unit(Unit::Inches), millimetres: in_unit(Unit::Millimetres) }
}
