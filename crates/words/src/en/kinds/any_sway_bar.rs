//! What is said of every sway bar alike.

use crate::en::step::{STANDS, StepSays, plain, reported};

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

pub(super) fn stick_out() -> StepSays {
    reported(
        plain("Slide the sway bar until it sticks out the same on both sides"),
        Some(plain("Measure it on the Tape screen, stick-out.")),
        "Off center, one sway bar arm gets closer to whatever is next to it.",
        None,
    )
}
