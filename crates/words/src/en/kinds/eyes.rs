//! The track bar's eyes.

use super::any_track_bar::{eye_because, into_hole, pin, tighten_at};
use crate::en::sides;
use crate::en::step::{FINGERS, STANDS, StepSays, plain, reported};
use crate::marked as say;
use derecho_core::parts::BracketEnd;
use derecho_job::bolt_up::message::StepContext;
use derecho_job::work::kinds::bracket::end_word;
use derecho_job::work::kinds::eyes::Step;

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    let situation = &context.situation;
    match step {
        Step::Out => reported(
            plain("Remove the old bar, axle end first"),
            Some(plain(
                "While it is apart, look for oval holes, undersized bolts, torn bushings and cracked brackets.",
            )),
            "With the bar out the axle goes wherever the springs put it.",
            Some(STANDS),
        ),
        Step::Off(end) => reported(
            plain(&format!("Unbolt the {} end of the bar", end_word(end))),
            Some(plain("Check the hole and the bushing while it is apart.")),
            "The other end stays bolted and holds the bar up.",
            Some(STANDS),
        ),
        Step::Eased(end) => reported(
            plain(&format!("Loosen the {} eye bolt one turn", end_word(end))),
            Some(plain("Leave it in its hole; tighten it again with the weight on the wheels.")),
            "The bar is about to change angle: a clamped rubber bushing would stay twisted.",
            Some(STANDS),
        ),
        Step::ByHand(end) => reported(
            plain(&format!(
                "Bolt the {} end of the bar {} by hand, on the {} side",
                end_word(end),
                into_hole(context, end),
                context.side(end).map_or_else(String::new, |side| sides::whose(side, context.driver))
            )),
            if end == BracketEnd::Axle || !situation.is_undone(BracketEnd::Axle) {
                context.eye.as_ref().map(say)
            } else {
                None
            },
            "The other end only lines up while this one is loose.",
            Some(FINGERS),
        ),
        Step::Tight(end) => {
            let joint = situation.bar.as_ref().map(|bar| bar.joints[usize::from(end == BracketEnd::Axle)]);
            reported(
                plain(&format!("Tighten the {} eye bolt", end_word(end))),
                joint.map(|joint| plain(tighten_at(joint))),
                eye_because(joint),
                None,
            )
        }
        Step::Pin(end) => pin(&format!("{} eye bolt's", end_word(end))),
    }
}
