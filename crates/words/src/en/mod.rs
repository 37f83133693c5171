//! English: a file a screen.

mod bolt_up;
mod card;
mod log;
mod strip;

use derecho_core::measure::Phrase;
use derecho_job::message::Message;

/// The sentence of a message.
pub(crate) fn say(message: &Message) -> Phrase {
    match message {
        Message::Said(phrase) => phrase.clone(),
        Message::Card(message) => card::card(*message),
        Message::Log(message) => log::log(message),
        Message::Strip(message) => strip::strip(message),
    }
}
