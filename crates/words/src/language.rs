//! Which language is written in.

use std::any::Any;
use std::cell::{Cell, RefCell};

use crate::{en, english};
use derecho_core::measure::Phrase;
use derecho_core::measure::said::written_with;
use derecho_job::message::{Message, Topic};

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

/// One sentence that was said: of which topic, and in the words of the US with what a person typed marked in it.
#[derive(Clone, Debug)]
pub struct SaidOnce {
    /// Of which topic; None is a working.
    pub topic: Option<Topic>,
    /// The sentence.
    pub says: Phrase,
}

thread_local! {
    static GATHERED: RefCell<Option<Vec<SaidOnce>>> = const { RefCell::new(None) };
}

/// Writes in English and gathers every sentence that is said within `write` on this thread.
pub fn gathered<T>(write: impl FnOnce() -> T) -> (T, Vec<SaidOnce>) {
    GATHERED.set(Some(Vec::new()));
    let written = written_in(None, write);
    (written, GATHERED.take().unwrap_or_default())
}

fn gather(found: &dyn Any, says: &Phrase) {
    GATHERED.with_borrow_mut(|gathered| {
        if let Some(gathered) = gathered {
            let topic = found.downcast_ref::<Message>().and_then(Message::topic);
            gathered.push(SaidOnce { topic, says: says.clone() });
        }
    });
}

/// What is written by way of this crate is a message, or a line of a working.
fn say_found(found: &dyn Any) -> Phrase {
    let message = found.downcast_ref().map(crate::marked);
    let line = || found.downcast_ref().map(en::workings::meaning);
    let heading = || found.downcast_ref().map(en::workings::heading);
    let says = message.or_else(line).or_else(heading).unwrap_or_default();
    gather(found, &says);
    english::read(says)
}
