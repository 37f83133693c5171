//! English: a file a screen.

mod assembly;
mod assumed;
mod bar;
mod bolt_up;
mod bracket;
mod card;
mod cycle;
mod log;
mod prove;
mod setups;
mod strip;
mod sway;
mod tape;

use derecho_core::measure::Phrase;
use derecho_job::message::Message;

/// The sentence of a message.
pub(crate) fn say(message: &Message) -> Phrase {
    match message {
        Message::Nothing => Phrase::default(),
        Message::Card(message) => card::card(*message),
        Message::Log(message) => log::log(message),
        Message::Prove(message) => prove::prove(message),
        Message::Sway(message) => sway::sway(message),
        Message::Bracket(message) => bracket::bracket(message),
        Message::Cycle(message) => cycle::cycle(message),
        Message::Bar(message) => bar::bar(message),
        Message::Assembly(message) => assembly::assembly(message),
        Message::Setups(message) => setups::setups(message),
        Message::Tape(message) => tape::tape(message),
        Message::Assumed(message) => assumed::assumed(message),
        Message::BoltUp(message) => bolt_up::bolt_up(message),
        Message::Strip(message) => strip::strip(message),
    }
}
