//! A job as a card in the job list.

use derecho_core::measure::Phrase;
use derecho_job::card::message::CardMessage;

pub(super) fn card(message: &CardMessage) -> Phrase {
    match message {
        CardMessage::NothingMeasured => Phrase::plain("Nothing measured yet"),
    }
}
