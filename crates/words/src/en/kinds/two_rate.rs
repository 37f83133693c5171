//! A sway bar of two rates, or one with a powered disconnect.

use super::any_sway_bar::{old_off, stick_out};
use crate::en::step::{SWAY, StepSays, plain, reported};
use derecho_job::bolt_up::message::StepContext;
use derecho_job::work::kinds::Change;
use derecho_job::work::kinds::two_rate::Step;

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    let powered = context.situation.changes.contains(&Change::TwoRate { powered: true });
    match step {
        Step::OldOff => old_off(),
        Step::Bushings => reported(
            plain("Grease the bore of both sway bar blocks"),
            Some(plain("The manufacturer's grease, in the bore only.")),
            "Once the blocks are closed no grease gets to the bore.",
            None,
        ),
        Step::ByHand => reported(
            plain("Put the sway bar in its blocks, bolts loose"),
            Some(plain("A plate under one block needs an equal shim under the other.")),
            "The lock finds its place only while the blocks can move.",
            Some(SWAY),
        ),
        Step::StickOut => stick_out(None),
        Step::Lock => reported(
            plain(if powered {
                "Blocks loose: switch the lock on and off, several times"
            } else {
                "Blocks loose: work the lock lever both ways, several times"
            }),
            Some(plain(
                "On level ground, on its wheels. It has to go in and come out by itself, without a pry bar.",
            )),
            "Tightened out of line, the lock hangs up where you need it.",
            Some("Fingers out of the lock and the sway bar arms while it is worked."),
        ),
        Step::Blocks => reported(
            plain("Tighten the sway bar blocks"),
            None,
            "Once the lock goes in and comes out freely.",
            None,
        ),
        Step::LockAgain => reported(
            plain("Blocks tight: check the lock both ways once more"),
            Some(plain("If it hangs up now, loosen the blocks and do it again.")),
            "Tightening may have pulled the blocks out of line.",
            None,
        ),
    }
}
