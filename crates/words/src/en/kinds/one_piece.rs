//! A sway bar of one piece.

use crate::en::step::{STANDS, SWAY, StepSays, plain, reported};
use derecho_job::work::kinds::one_piece::Step;

pub(super) fn step(step: Step) -> StepSays {
    match step {
        Step::OldOff => reported(
            plain("Remove the old sway bar, if there is one"),
            Some(plain(
                "Loosen both clamps before you take either off; hold the sway bar up as the second comes off.",
            )),
            "The new sway bar goes in its place.",
            Some(STANDS),
        ),
        Step::Bushings => reported(
            plain("Grease the bore of both sway bar bushings, then put them on the sway bar"),
            Some(plain(
                "Polyurethane: the manufacturer's grease, in the bore only. Rubber: dry or as the instructions say, never \
                 mineral grease.",
            )),
            "Once the clamps are closed no grease gets to the bore.",
            None,
        ),
        Step::ByHand => reported(
            plain("Put the sway bar in its clamps, bolts by hand"),
            Some(plain("A plate under one clamp needs an equal shim under the other.")),
            "It still has to slide.",
            Some(SWAY),
        ),
        Step::StickOut => reported(
            plain("Slide the sway bar until it sticks out the same on both sides"),
            Some(plain("Measure it on the Tape screen, stick-out.")),
            "Off center, one sway bar arm gets closer to whatever is next to it.",
            None,
        ),
        Step::Clamps => reported(
            plain("Tighten the sway bar clamps"),
            Some(plain(
                "Set the stops against the bushings first, if it has them, and check the stick-out once more.",
            )),
            "Once the stick-out is equal.",
            None,
        ),
    }
}
