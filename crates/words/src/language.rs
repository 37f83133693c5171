//! Which language is written in.

use std::any::Any;
use std::cell::Cell;

use crate::en;
use derecho_core::measure::Phrase;
use derecho_core::measure::said::written_with;
use derecho_job::message::Message;

/// A language beside English: the sentences it has. None is said in English.
pub type Language = fn(&Message) -> Option<Phrase>;

thread_local! {
    static LANGUAGE: Cell<Option<Language>> = const { Cell::new(None) };
}

/// The language this thread writes in, where it is not English.
pub(crate) fn current() -> Option<Language> {
    LANGUAGE.get()
}

/// Writes in a language, English where it is None: every message serialized within `write` on this thread stands there as
/// its sentence.
pub fn written_in<T>(language: Option<Language>, write: impl FnOnce() -> T) -> T {
    struct Before(Option<Language>);
    impl Drop for Before {
        fn drop(&mut self) {
            LANGUAGE.set(self.0);
        }
    }
    let _before = Before(LANGUAGE.replace(language));
    written_with(say_found, write)
}

/// What is written by way of this crate is a message, or a line of a working.
fn say_found(found: &dyn Any) -> Phrase {
    let message = found.downcast_ref().map(crate::say);
    let line = || found.downcast_ref().map(en::workings::meaning);
    message.or_else(line).or_else(|| found.downcast_ref().map(en::workings::heading)).unwrap_or_default()
}
