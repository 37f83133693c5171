//! A shim under the other clamp of the sway bar.

use crate::en::sides;
use crate::en::step::{SWAY, StepSays, plain, reported};
use derecho_core::measure::Phrase;
use derecho_job::bolt_up::message::StepContext;
use derecho_job::work::kinds::Change;
use derecho_job::work::kinds::second_shim::Step;

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    let shim = context.situation.changes.iter().find_map(|change| match change {
        Change::SecondShim(shim) => Some(*shim),
        _ => None,
    });
    match step {
        Step::Loose => reported(
            plain("Loosen both sway bar clamps"),
            Some(plain("Leave every bolt in by a few threads: the sway bar stays up.")),
            "The shim slides in without taking the sway bar off.",
            Some(SWAY),
        ),
        Step::In => reported(
            Phrase::of(|w| {
                let thick = shim.map_or_else(String::new, |shim| format!("a {} ", w.fine(shim.thickness)));
                let side = shim.and_then(|shim| shim.side);
                match side {
                    Some(side) => {
                        format!(
                            "Put {thick}shim under the {} sway bar clamp",
                            sides::whose(side, context.driver)
                        )
                    }
                    None => format!("Put {thick}shim under the sway bar clamp that has none"),
                }
            }),
            Some(plain("As thick as the plate under the other clamp, with the same bolt holes.")),
            "With a plate under one clamp only, the sway bar is not level.",
            None,
        ),
        Step::Tight => reported(
            plain("Tighten both sway bar clamps"),
            Some(plain("Check the stick-out and that the sway bar turns freely.")),
            "A loose clamp knocks.",
            None,
        ),
    }
}
