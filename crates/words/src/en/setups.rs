//! What is said of the offset that is corrected.

use derecho_core::measure::{Length, Phrase};
use derecho_job::setups::message::SetupsMessage;

pub(super) fn setups(message: &SetupsMessage) -> Phrase {
    match message {
        SetupsMessage::Read { offset, uncertainty, there } => read(*offset, *uncertainty, *there),
        SetupsMessage::Reckoned { offset } => reckoned(*offset),
        SetupsMessage::Supposed => supposed(),
        SetupsMessage::Copied => Phrase::plain(
            "This length is copied, not worked out from where the axle is. Measure both sides once it is in.",
        ),
        SetupsMessage::Strapped => strapped(),
    }
}

pub(crate) fn read(offset: Length, uncertainty: Length, there: bool) -> Phrase {
    Phrase::of(|w| {
        let place = format!("{}, ±{}", w.sideways(offset), w.fine(uncertainty));
        if there {
            format!("Measured on the vehicle: {place}")
        } else {
            format!("Measured before the last change, calculated since: {place}")
        }
    })
}

pub(crate) fn reckoned(offset: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "Estimate from the lift, not measured: {}, if it was centered before. Measure both sides before you adjust anything.",
            w.sideways(offset)
        )
    })
}

pub(crate) fn supposed() -> Phrase {
    Phrase::plain(
        "Nobody has measured both sides yet, so it is taken as centered. Measure both sides before you adjust anything.",
    )
}

pub(crate) fn strapped() -> Phrase {
    Phrase::plain(
        "The gap was measured with the axle strapped to center: a bar built to it holds the axle there.",
    )
}
