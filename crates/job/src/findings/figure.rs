//! The figure of what a finding says, for its key: an acceptance was given for that figure, and lapses with another one.

use crate::bolt_up::message::BoltUpMessage;
use crate::bracket::message::BracketMessage;
use crate::message::Message;
use crate::prove::message::ProveMessage;
use derecho_core::fastener::stack::StackFault;
use derecho_core::measure::{Angle, Length};

fn of_length(length: Length) -> String {
    format!("{:.1}", length.to_mm())
}

fn of_angle(angle: Angle) -> String {
    format!("{:.1}", angle.to_degrees())
}

/// Lengths to a tenth of a millimetre, angles to a tenth of a degree; empty where there is none.
pub(super) fn figure(says: &Message) -> String {
    of_bracket(says).or_else(|| of_proof(says)).or_else(|| of_work(says)).unwrap_or_default()
}

/// A place with the figure of what is said of it.
pub(super) fn keyed(place: &str, says: &Message) -> String {
    match figure(says) {
        figure if figure.is_empty() => place.to_owned(),
        figure => format!("{place}/{figure}"),
    }
}

fn of_bracket(says: &Message) -> Option<String> {
    Some(match says.facts()? {
        BracketMessage::Ears { filled, ear, .. } => of_length(*filled - *ear),
        BracketMessage::Parallel { apart, .. } => of_angle(*apart),
        BracketMessage::Hole { play, .. } => of_length(*play),
        BracketMessage::Nut { nut, .. } => nut.text().to_owned(),
        BracketMessage::StackFault { fault } => of_fault(*fault),
        BracketMessage::Braced { with, .. } => format!("{:.2}", with.brace_share),
        BracketMessage::BraceBeyond { below, lever } => of_length(*below - *lever),
        BracketMessage::YLinkSits { offset, .. } => of_length(*offset),
        BracketMessage::YLinkSquare { found, .. } => of_angle(found.yaw_deg),
        BracketMessage::Pinion { turned, .. } => turned.map(of_angle).unwrap_or_default(),
        BracketMessage::InARow { parts } => {
            let figures: Vec<String> = parts.iter().map(figure).filter(|text| !text.is_empty()).collect();
            figures.join("/")
        }
        _ => String::new(),
    })
}

fn of_fault(fault: StackFault) -> String {
    match fault {
        StackFault::WrongNut => String::new(),
        StackFault::HoleTooSmall(by)
        | StackFault::HoleTooWide(by)
        | StackFault::TooShort(by)
        | StackFault::NutOnShank(by)
        | StackFault::NoWayOut(by)
        | StackFault::NoWrench(by) => of_length(by),
    }
}

fn of_proof(says: &Message) -> Option<String> {
    Some(match says.facts()? {
        ProveMessage::AngleCompared { read, wanted, .. } => of_angle(*read - *wanted),
        ProveMessage::LinkCompared { read, wanted, .. } => of_length(*read - *wanted),
        ProveMessage::MovedOtherwise { predicted, measured } => of_length(*measured - *predicted),
        ProveMessage::StickOutOff { off, .. } => of_length(off.offset_mm),
        _ => String::new(),
    })
}

fn of_work(says: &Message) -> Option<String> {
    Some(match says.facts()? {
        BoltUpMessage::CornersMoved { moved } => moved.iter().map(figure).collect::<Vec<_>>().join("/"),
        BoltUpMessage::CornerMoved { name, change } => format!("{name} {}", of_length(*change)),
        _ => String::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_worse_has_another_figure() {
        let short = |mm: f64| -> Message {
            let fault = StackFault::TooShort(Length::from_mm(mm));
            let parts =
                vec![BracketMessage::StackFault { fault }.into(), BracketMessage::BoltUnmeasured.into()];
            BracketMessage::InARow { parts }.into()
        };
        assert_eq!(figure(&short(2.54)), "2.5");
        assert_ne!(figure(&short(2.54)), figure(&short(3.0)));
        let moved = |measured: f64| -> Message {
            let (predicted, measured) = (Length::from_mm(12.0), Length::from_mm(measured));
            ProveMessage::MovedOtherwise { predicted, measured }.into()
        };
        assert_eq!((figure(&moved(9.0)), figure(&moved(13.5))), ("-3.0".to_owned(), "1.5".to_owned()));
        assert_eq!(figure(&BracketMessage::AddJoints.into()), "");
    }
}
