//! # derecho-words
//!
//! The sentences. The job's crate finds facts and says which message holds; here a message becomes a sentence, in inches
//! and in millimetres. A folder is a language, a file in it a screen. English says every message, by matches without a
//! rest, so that a message without its sentence does not compile; any other language says what it can and leaves the rest
//! to English.
//!
//! Not here: what is found, whether something holds, and how results are written.

mod en;
mod english;
mod language;

pub use derecho_core::measure::Phrase;
pub use english::{English, NoSuchEnglish, current_english, in_english, in_own_words};
pub use language::{Language, SaidOnce, gathered, written_in};

use derecho_core::measure::Unit;
use derecho_core::parts::BracketPart;
use derecho_job::message::{Label, Message};

/// The sentence of a message as it is read, in the language and the English that are written in on this thread.
#[must_use]
pub fn say(message: &Message) -> Phrase {
    english::read(marked(message))
}

/// The same as the US says it, with what a person typed marked in it: see [`derecho_core::measure::typed`].
#[must_use]
pub fn marked(message: &Message) -> Phrase {
    language::current().and_then(|language| language(message)).unwrap_or_else(|| en::say(message))
}

/// What stands over the drawing of a bracket's holes, what a person typed marked in it.
#[must_use]
pub fn title_of_holes(bracket: &BracketPart) -> String {
    en::templates::holes(bracket)
}

fn all_marked(messages: &[Message]) -> Vec<Phrase> {
    messages.iter().map(marked).collect()
}

/// A message's sentence in either unit system.
pub trait Spoken {
    /// With lengths in inches.
    fn inches(&self) -> String;
    /// With lengths in millimetres.
    fn millimetres(&self) -> String;
    /// In one of them.
    fn in_unit(&self, unit: Unit) -> String {
        match unit {
            Unit::Inches => self.inches(),
            Unit::Millimetres => self.millimetres(),
        }
    }
}

impl Spoken for Message {
    fn inches(&self) -> String {
        say(self).inches
    }

    fn millimetres(&self) -> String {
        say(self).millimetres
    }
}

impl Spoken for Label {
    fn inches(&self) -> String {
        say(&self.0).inches
    }

    fn millimetres(&self) -> String {
        say(&self.0).millimetres
    }
}
