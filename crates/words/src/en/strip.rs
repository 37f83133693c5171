//! The headlines of the strip.

use derecho_core::measure::phrase::degrees;
use derecho_core::measure::print::{self, Style};
use derecho_core::measure::squareness::AxleEnd;
use derecho_core::measure::typed::mark;
use derecho_core::measure::{Length, Phrase, Unit};
use derecho_job::strip::message::{StripMessage, Waits};

use crate::all_marked as say_all;

pub(super) fn strip(message: &StripMessage) -> Phrase {
    match message {
        StripMessage::Waits(waits) => Phrase::plain(waiting(*waits)),
        StripMessage::Holes(names) => {
            Phrase::plain(&names.iter().map(|name| mark(name)).collect::<Vec<_>>().join(", "))
        }
        StripMessage::Rig { end, lift } => rig(*end, *lift),
        StripMessage::Off(offset, side) => Phrase::of(|w| format!("{} {}", w.distance(*offset), side.word())),
        StripMessage::Angle(angle) => Phrase::plain(&degrees(*angle)),
        StripMessage::Set(length) => Phrase::of(|w| format!("set {}", w.fine(*length))),
        StripMessage::To(length) => Phrase::of(|w| format!("to {}", w.fine(*length))),
        StripMessage::Change(change) => change_of(*change),
        StripMessage::Proved { open: 0 } => Phrase::plain("proved"),
        StripMessage::Proved { open } => Phrase::plain(&format!("proved, {open} open")),
        StripMessage::Steps { done, of } => Phrase::plain(&format!("{done} of {of}")),
        StripMessage::Links { works, link } => {
            let word = if *works { "links" } else { "don't work:" };
            Phrase::of(|w| format!("{word} {}", w.fine(*link)))
        }
        StripMessage::Joined(headlines) => joined(&say_all(headlines)),
    }
}

const fn waiting(waits: Waits) -> &'static str {
    match waits {
        Waits::YLink => "Y-link",
        Waits::MeasureTheBar => "measure the bar",
        Waits::PartGone => "part removed",
        Waits::NotNeeded => "no bracket needed for angle",
        Waits::NotRecommended => "optional",
        Waits::ToChoose => "choose a hole",
        Waits::NoBracketTried => "none entered",
        Waits::NotMeasured | Waits::NoReadings => "not measured",
        Waits::NoSwayBar => "no sway bar",
        Waits::MoreToMeasure => "measure more",
        Waits::LinkToChoose => "choose the link",
        Waits::ReadAgain => "measure again",
        Waits::OneSideSoFar => "one side done",
        Waits::CannotTellYet => "can't tell yet",
        Waits::Centred => "centered",
        Waits::NoBarYLink => "no bar: Y-link",
        Waits::CannotBe => "check measurements",
        Waits::ThreadFault => "thread: check",
        Waits::HoleOrLength => "hole or length?",
        Waits::DoesNotReach => "won't reach",
        Waits::NothingChosen => "nothing chosen",
        Waits::TorqueMissing => "torque not recorded",
        Waits::SomethingIsOff => "not all put back",
        Waits::Done => "done",
        Waits::Settled => "closed",
        Waits::ChangedSinceSettled => "changed since closed",
        Waits::BackToBar => "back to Bar",
        Waits::BackToSway => "back to Sway",
        Waits::StillTouches => "still stops early",
        Waits::PlanNotFitted => "plan not installed",
        Waits::BracketNotDecided => "bracket not decided",
        Waits::NotYet => "not yet",
        Waits::ReadBothSides => "measure both sides",
        Waits::LengthOnly => "length only",
    }
}

fn rig(end: Option<AxleEnd>, lift: Length) -> Phrase {
    let end = match end {
        Some(AxleEnd::Front) => "front",
        Some(AxleEnd::Rear) => "rear",
        None => "which axle?",
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
            return "leave the length".to_owned();
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
