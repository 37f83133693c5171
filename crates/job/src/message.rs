//! What a job has to say, as facts: which message, and the figures and names in it. Its sentence is made where somebody
//! reads it, by whoever has words for it. Not here: a sentence, or a language.

use std::cell::Cell;

use derecho_core::measure::Phrase;
use serde::{Serialize, Serializer};
use utoipa::{PartialSchema, ToSchema, openapi};

use crate::assembly::message::{AssemblyMessage, AssumedMessage};
use crate::bar::message::BarMessage;
use crate::bolt_up::message::BoltUpMessage;
use crate::bracket::message::BracketMessage;
use crate::card::message::CardMessage;
use crate::cycle::message::CycleMessage;
use crate::log::message::LogMessage;
use crate::prove::message::ProveMessage;
use crate::setups::message::SetupsMessage;
use crate::strip::message::StripMessage;
use crate::sway::message::SwayMessage;
use crate::tape::message::TapeMessage;

/// One thing to say.
#[derive(Clone, Debug, Default, PartialEq)]
pub enum Message {
    /// Nothing.
    #[default]
    Nothing,
    /// Of a card in the bay.
    Card(CardMessage),
    /// Of the log.
    Log(LogMessage),
    /// Of stage Prove.
    Prove(ProveMessage),
    /// Of stage Sway.
    Sway(SwayMessage),
    /// Of stage Bracket.
    Bracket(BracketMessage),
    /// Of stage Cycle.
    Cycle(CycleMessage),
    /// Of stage Bar.
    Bar(BarMessage),
    /// Of what was read into a mechanism, and does not agree or had to be assumed.
    Assembly(AssemblyMessage),
    /// Of the offset that is corrected.
    Setups(SetupsMessage),
    /// Of stage Tape.
    Tape(TapeMessage),
    /// Of sizes that nobody typed.
    Assumed(AssumedMessage),
    /// Of stage Bolt-up.
    BoltUp(BoltUpMessage),
    /// Of the strip.
    Strip(StripMessage),
}

/// A message without figures that stands in results as one text: a name, a clause.
#[derive(Clone, Debug, PartialEq)]
pub struct Label(pub Message);

impl<T: Into<Message>> From<T> for Label {
    fn from(message: T) -> Self {
        Self(message.into())
    }
}

impl Serialize for Label {
    /// As its text.
    ///
    /// # Errors
    /// Where no language is given: see [`written_with`].
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        match SAY.get() {
            Some(say) => say(&self.0).inches.serialize(serializer),
            None => Err(serde::ser::Error::custom(NO_LANGUAGE)),
        }
    }
}

const NO_LANGUAGE: &str = "a message is written in a language, and none is given";

/// Makes the sentence of a message.
pub type Say = fn(&Message) -> Phrase;

thread_local! {
    static SAY: Cell<Option<Say>> = const { Cell::new(None) };
}

/// Writes with a language: every message that is serialized within `write` on this thread stands there as the sentence
/// that `say` makes of it.
pub fn written_with<T>(say: Say, write: impl FnOnce() -> T) -> T {
    struct Before(Option<Say>);
    impl Drop for Before {
        fn drop(&mut self) {
            SAY.set(self.0);
        }
    }
    let _before = Before(SAY.replace(Some(say)));
    write()
}

/// Writes figures alone: a message stands there as an empty sentence.
pub fn written_without_words<T>(write: impl FnOnce() -> T) -> T {
    written_with(|_| Phrase::default(), write)
}

impl Serialize for Message {
    /// As its sentence.
    ///
    /// # Errors
    /// Where no language is given: see [`written_with`].
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        match SAY.get() {
            Some(say) => say(self).serialize(serializer),
            None => Err(serde::ser::Error::custom(NO_LANGUAGE)),
        }
    }
}

impl PartialSchema for Message {
    fn schema() -> openapi::RefOr<openapi::Schema> {
        Phrase::schema()
    }
}

impl ToSchema for Message {
    fn name() -> std::borrow::Cow<'static, str> {
        Phrase::name()
    }

    fn schemas(schemas: &mut Vec<(String, openapi::RefOr<openapi::schema::Schema>)>) {
        Phrase::schemas(schemas);
    }
}
