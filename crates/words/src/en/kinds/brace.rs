//! A brace from the frame bracket to the far rail.

use crate::en::step::{STANDS, StepSays, plain, reported};
use derecho_core::measure::typed::mark;
use derecho_job::bolt_up::message::StepContext;
use derecho_job::work::kinds::Change;
use derecho_job::work::kinds::brace::Step;

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    let name = context.situation.changes.iter().find_map(|change| match change {
        Change::Brace(brace) => Some(mark(&brace.name)),
        _ => None,
    });
    let name = name.unwrap_or_default();
    match step {
        Step::ByHand => reported(
            plain(&format!("Install the {name}, bolts at both ends by hand")),
            Some(plain(
                "From the frame bracket to the other frame rail. If it shares the frame eye bolt, hang it together with \
                 the bar.",
            )),
            "Started last, its holes no longer line up.",
            Some(STANDS),
        ),
        Step::Tight => reported(
            plain(&format!("Tighten the {name} at both ends")),
            Some(plain(
                "After the bracket's own bolts. The manufacturer's sequence comes first if there is one.",
            )),
            "Tightened first, it pulls the bracket out of line.",
            None,
        ),
    }
}
