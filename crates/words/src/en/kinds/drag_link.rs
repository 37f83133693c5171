//! A drag-link part, and the link's sleeve.

use crate::en::step::{STEERING, StepSays, plain, reported};
use crate::marked as say;
use derecho_core::measure::typed::mark;
use derecho_job::bolt_up::message::StepContext;
use derecho_job::work::kinds::drag_link::Step;

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    let name = mark(context.situation.drag_link.as_deref().unwrap_or_default());
    match step {
        Step::Off => reported(
            plain("Remove the cotter pin and nut and separate the old ball stud"),
            Some(plain("With a ball joint separator. Never hit the stud or its threads; leave the nut on by two turns until it pops.")),
            "A fork or a hammer ruins the boot and the threads.",
            Some(STEERING),
        ),
        Step::On => reported(
            plain(&format!("Install the {name}, nuts by hand")),
            Some(plain("Taper clean and dry; seat it before you run the nut up.")),
            "The drag link has to match the bar, or you get bump steer.",
            Some(STEERING),
        ),
        Step::Tight => reported(
            plain(&format!("Tighten the nuts of the {name}")),
            None,
            "A ball stud spins in its taper until it seats.",
            Some(STEERING),
        ),
        Step::Turn => reported(
            plain("Turn the drag link's sleeve until the steering wheel is straight"),
            context.link.as_ref().map(say).or_else(|| {
                Some(plain("Clamps loose, wheels straight ahead, half turns at a time; equal thread engaged at both ends."))
            }),
            "The steering wheel turns with the axle when it is centered.",
            Some(STEERING),
        ),
        Step::Clamps => reported(
            plain("Tighten the clamps of the drag link's sleeve"),
            Some(plain("Both ball studs centered in their travel, clamp bolts clear of everything at full lock.")),
            "A sleeve that turns by itself steers by itself.",
            Some(STEERING),
        ),
        Step::Pin => reported(
            plain(&format!("Cotter pins through the nuts of the {name}")),
            Some(plain("Tighten to the next slot, never back off.")),
            "Back off to a slot and you lose the torque.",
            Some(STEERING),
        ),
    }
}
