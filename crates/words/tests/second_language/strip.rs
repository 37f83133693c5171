//! The headlines of the strip.

use derecho_job::strip::message::{StripMessage, Waits};
use derecho_words::Phrase;

pub(super) fn strip(message: &StripMessage) -> Option<Phrase> {
    match message {
        StripMessage::Waits(Waits::Centred) => Some(Phrase::plain("mittig")),
        StripMessage::Waits(Waits::NoReadings) => Some(Phrase::plain("nichts gelesen")),
        StripMessage::Set(length) => Some(Phrase::of(|w| format!("auf {}", w.fine(*length)))),
        _ => None,
    }
}
