//! Another bar in place of the old one.

use super::any_track_bar::{setting, to_length};
use crate::en::step::{StepSays, reported};
use derecho_core::measure::typed::mark;
use derecho_job::bolt_up::message::StepContext;
use derecho_job::work::kinds::bar_swap::Step;

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    let bar = context.situation.bar.as_ref().and_then(|bar| bar.hangs.as_deref()).unwrap_or_default();
    match step {
        Step::Bench => reported(
            to_length(context, &format!("On the bench, set the {} to", mark(bar))),
            setting(context),
            "On the bench you can see both ends and even them up.",
            Some("Never less thread engaged than the manufacturer calls for."),
        ),
    }
}
