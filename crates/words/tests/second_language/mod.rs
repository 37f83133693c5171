//! A language of three messages, made up for the test: what a second language costs is this folder.

mod strip;

use derecho_job::message::Message;
use derecho_words::Phrase;

/// The sentence of a message, where this language has one.
pub(crate) fn say(message: &Message) -> Option<Phrase> {
    message.facts().and_then(strip::strip)
}
