//! Limit straps.

use crate::en::step::{STANDS, StepSays, plain, reported};
use derecho_core::measure::{Length, Phrase};
use derecho_job::bolt_up::message::StepContext;
use derecho_job::work::kinds::straps::{Step, Straps};

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    let straps = context.situation.straps().unwrap_or_default();
    match step {
        Step::ByHand => reported(
            match straps.length {
                Some(length) => Phrase::of(|w| {
                    format!("Install both limit straps, {} bolt to bolt, by hand", w.fine(length))
                }),
                None => plain("Install both limit straps by hand"),
            },
            Some(plain(
                "Frame to axle, not twisted, clear of exhaust, brake lines and tires from full droop to full bump.",
            )),
            "A limit strap that rubs tears.",
            Some(STANDS),
        ),
        Step::Tight => reported(
            plain("Tighten the limit strap bolts, both ends, both sides"),
            None,
            "The axle is about to hang from them.",
            None,
        ),
        Step::Droop => reported(
            plain(
                "Lower the axle to full droop: both limit straps go tight before the shocks are all the way out",
            ),
            Some(at_droop(straps)),
            "Without them the shocks hold the axle up at full droop.",
            Some(STANDS),
        ),
        Step::Slack => reported(
            plain("Check both limit straps: slack at the driven height"),
            Some(match straps.slack() {
                Some(slack) => {
                    Phrase::of(|w| format!("They should be slack by {}, both sides.", w.distance(slack)))
                }
                None => plain("Both sides the same."),
            }),
            "A limit strap that is tight here takes droop away.",
            None,
        ),
    }
}

fn at_droop(straps: Straps) -> Phrase {
    match straps.before_droop().filter(|before| *before > Length::ZERO) {
        Some(before) => Phrase::of(|w| {
            format!(
                "By the figures with {} of shock travel left. Both sides at the same time.",
                w.distance(before)
            )
        }),
        None => plain("Both sides at the same time, with some shock travel left."),
    }
}
