//! A sway bar of two rates, or one with a powered disconnect.

use crate::en::step::{STANDS, SWAY, StepSays, plain, reported};
use derecho_job::bolt_up::message::StepContext;
use derecho_job::work::kinds::Change;
use derecho_job::work::kinds::two_rate::Step;

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    let powered = context.situation.changes.contains(&Change::TwoRate { powered: true });
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
        Step::StickOut => reported(
            plain("Slide the sway bar until it sticks out the same on both sides"),
            Some(plain("Measure it on the Tape screen, stick-out.")),
            "Off center, one sway bar arm gets closer to whatever is next to it.",
            None,
        ),
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
