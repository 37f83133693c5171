//! A sway bar of one piece.

use super::any_sway_bar::{old_off, stick_out};
use crate::en::step::{SWAY, StepSays, plain, reported};
use derecho_job::work::kinds::one_piece::Step;

pub(super) fn step(step: Step) -> StepSays {
    match step {
        Step::OldOff => old_off(),
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
        Step::StickOut => stick_out(None),
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
