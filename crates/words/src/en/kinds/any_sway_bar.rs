//! What is said of every sway bar alike.

use crate::en::step::{STANDS, StepSays, plain, reported};
use derecho_core::measure::{Length, Phrase};

pub(super) fn old_off() -> StepSays {
    reported(
        plain("Remove the old sway bar, if there is one"),
        Some(plain(
            "Loosen both clamps before you take either off; hold the sway bar up as the second comes off.",
        )),
        "The new sway bar goes in its place.",
        Some(STANDS),
    )
}

/// `each` is how far it will stick out, where that is known.
pub(super) fn stick_out(each: Option<Length>) -> StepSays {
    let does = Phrase::of(|w| {
        let each = each.map_or_else(String::new, |each| format!(", {} each", w.fine(each)));
        format!("Slide the sway bar until it sticks out the same on both sides{each}")
    });
    reported(
        does,
        Some(plain("Measure it on the Tape screen, stick-out.")),
        "Off center, one sway bar arm gets closer to whatever is next to it.",
        None,
    )
}
