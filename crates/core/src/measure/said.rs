//! Where a fact is written as what is said of it: whoever writes names who says it. Facts stand in results by themselves;
//! which language they are written in is a matter of the writing, not of what was found.

use std::any::Any;
use std::borrow::Cow;
use std::cell::Cell;

use serde::{Serialize, Serializer};
use utoipa::openapi::{RefOr, Schema};
use utoipa::{PartialSchema, ToSchema};

use super::Phrase;

/// Says something that was found.
pub type Say = fn(&dyn Any) -> Phrase;

thread_local! {
    static SAY: Cell<Option<Say>> = const { Cell::new(None) };
}

const NO_LANGUAGE: &str = "a message is written in a language, and none is given";

/// Writes with a language: everything that is written by [`both`] or [`text`] within `write` on this thread stands there
/// as what `say` makes of it.
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

/// Writes figures alone: where something would be said stands nothing.
pub fn written_without_words<T>(write: impl FnOnce() -> T) -> T {
    written_with(|_| Phrase::default(), write)
}

/// Serializes what is said of a fact, in both unit systems.
///
/// # Errors
/// Where no language is given: see [`written_with`].
pub fn both<S: Serializer>(fact: &dyn Any, serializer: S) -> Result<S::Ok, S::Error> {
    let say = SAY.get().ok_or_else(|| serde::ser::Error::custom(NO_LANGUAGE))?;
    say(fact).serialize(serializer)
}

/// Serializes what is said of a fact without a figure, as one text.
///
/// # Errors
/// Where no language is given: see [`written_with`].
pub fn text<S: Serializer>(fact: &dyn Any, serializer: S) -> Result<S::Ok, S::Error> {
    let say = SAY.get().ok_or_else(|| serde::ser::Error::custom(NO_LANGUAGE))?;
    say(fact).inches.serialize(serializer)
}

/// The name of the form that [`both`] writes.
#[must_use]
pub fn name() -> Cow<'static, str> {
    Phrase::name()
}

/// The form that [`both`] writes.
#[must_use]
pub fn schema() -> RefOr<Schema> {
    Phrase::schema()
}
