//! English: a file a screen.

mod assembly;
mod assumed;
mod bar;
mod bolt_up;
mod bracket;
mod card;
mod cautions;
mod cycle;
mod diagnosis;
mod fit;
mod kinds;
mod log;
mod prove;
mod record;
mod setups;
mod sides;
mod status;
mod step;
mod strip;
mod sway;
mod tape;
pub(crate) mod templates;
pub(crate) mod workings;

use derecho_core::measure::Phrase;
use derecho_job::message::{Message, OfTopic, Topic};

/// The sentence of a message.
pub(crate) fn say(message: &Message) -> Phrase {
    let Some(topic) = message.topic() else { return Phrase::default() };
    match topic {
        Topic::Caution => said(message, cautions::caution),
        Topic::Card => said(message, card::card),
        Topic::Log => said(message, log::log),
        Topic::Record => said(message, record::record),
        Topic::Diagnosis => said(message, diagnosis::diagnosis),
        Topic::Prove => said(message, prove::prove),
        Topic::Status => said(message, status::status),
        Topic::Sway => said(message, sway::sway),
        Topic::Bracket => said(message, bracket::bracket),
        Topic::Cycle => said(message, cycle::cycle),
        Topic::Bar => said(message, bar::bar),
        Topic::Assembly => said(message, assembly::assembly),
        Topic::Setups => said(message, setups::setups),
        Topic::Tape => said(message, tape::tape),
        Topic::Assumed => said(message, assumed::assumed),
        Topic::BoltUp => said(message, bolt_up::bolt_up),
        Topic::Strip => said(message, strip::strip),
    }
}

/// No type but one is of a topic: what is of it is always there.
fn said<T: OfTopic>(message: &Message, say: fn(&T) -> Phrase) -> Phrase {
    message.facts().map(say).unwrap_or_default()
}
