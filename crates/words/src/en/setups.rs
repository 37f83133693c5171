//! What is said of the offset that is corrected.

use derecho_core::measure::{Length, Phrase};
use derecho_job::setups::message::SetupsMessage;

pub(super) fn setups(message: &SetupsMessage) -> Phrase {
    match message {
        SetupsMessage::Read { offset, uncertainty, there } => read(*offset, *uncertainty, *there),
        SetupsMessage::Reckoned { offset } => reckoned(*offset),
        SetupsMessage::Supposed => supposed(),
        SetupsMessage::Strapped => strapped(),
    }
}

pub(crate) fn read(offset: Length, uncertainty: Length, there: bool) -> Phrase {
    Phrase::of(|w| {
        let place = format!("{}, give or take {}", w.sideways(offset), w.fine(uncertainty));
        if there {
            format!("Read off the vehicle: {place}")
        } else {
            format!("Read before the last change and reckoned on: {place}")
        }
    })
}

pub(crate) fn reckoned(offset: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "Reckoned from the lift, not read: {}, supposing it was centred before. Read both sides before anything is turned.",
            w.sideways(offset)
        )
    })
}

pub(crate) fn supposed() -> Phrase {
    Phrase::plain(
        "Nobody has read both sides yet: it is supposed to be centred as it stands. Read both sides before anything is turned.",
    )
}

pub(crate) fn strapped() -> Phrase {
    Phrase::plain("The gap was measured strapped to centre: a bar built to it leaves the axle there.")
}
