//! What is assumed where nothing was typed.

use derecho_core::measure::{Length, Phrase, Unit};
use derecho_job::assembly::message::AssumedMessage;

pub(super) fn assumed(message: &AssumedMessage) -> Phrase {
    match message {
        AssumedMessage::Drawn { name, mm } => {
            Phrase::of(|w| format!("{name} {}", w.distance(Length::from_mm(*mm))))
        }
        AssumedMessage::Length(length) => Phrase::of(|w| w.fine(*length)),
        AssumedMessage::WholeDegrees(degrees) => Phrase::plain(&format!("{degrees:.0}°")),
        AssumedMessage::Degrees(degrees) => Phrase::plain(&format!("{degrees:.1}°")),
        AssumedMessage::Graduation => Phrase::of(|w| match w.unit() {
            Unit::Inches => "1/16\"".to_owned(),
            Unit::Millimetres => "1 mm".to_owned(),
        }),
    }
}
