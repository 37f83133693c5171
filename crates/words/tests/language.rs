//! A second language: what it has is said in it, within a sentence too, and the rest in English.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod second_language;

use derecho_core::measure::Length;
use derecho_job::message::Message;
use derecho_job::strip::message::{StripMessage, Waits};
use derecho_words::{Spoken as _, say, written_in};

#[test]
fn a_second_language_is_one_folder() {
    let centred: Message = StripMessage::Waits(Waits::Centred).into();
    let set: Message = StripMessage::Set(Length::from_inches(32.5)).into();
    let done: Message = StripMessage::Steps { done: 3, of: 8 }.into();
    assert_eq!((say(&centred).inches.as_str(), say(&done).inches.as_str()), ("centered", "3 of 8"));
    // A sentence that holds others says each of them in the language it has.
    let all: Message = StripMessage::Joined(vec![centred.clone(), set, done]).into();
    let said = written_in(Some(second_language::say), || say(&all));
    assert_eq!(said.inches, "mittig · auf 32 1/2\" · 3 of 8");
    assert_eq!(said.millimetres, "mittig · auf 825.5 mm · 3 of 8");
    // Behind it English is spoken again.
    assert_eq!(centred.inches(), "centered");
}

#[test]
fn results_are_written_in_it() {
    let none = StripMessage::Waits(Waits::NoReadings);
    let messages: Vec<Message> = vec![none.into(), StripMessage::Waits(Waits::Settled).into()];
    let json = written_in(Some(second_language::say), || serde_json::to_string(&messages)).unwrap();
    assert_eq!(json, r#"[{"in":"nichts gelesen","mm":"nichts gelesen"},{"in":"closed","mm":"closed"}]"#);
    // Without a language nothing is written: a message is no sentence by itself.
    assert!(serde_json::to_string(&messages).is_err());
}
