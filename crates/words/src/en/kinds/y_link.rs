//! A Y-shaped upper link.

use crate::all_marked as say_all;
use crate::en::step::{FINGERS, STANDS, StepSays, WELDING, in_a_row, plain, reported, unsaid};
use derecho_job::bolt_up::message::StepContext;
use derecho_job::work::kinds::y_link::Step;

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    match step {
        Step::PinionBefore | Step::BarOut | Step::ArmOut | Step::Brackets | Step::ByHand => put_in(step),
        _ => set(context, step),
    }
}

/// What comes out for it, and how it comes to hang.
fn put_in(step: Step) -> StepSays {
    match step {
        Step::PinionBefore => reported(
            plain("Measure the pinion angle as it is, at the driven height"),
            Some(plain(
                "Angle finder on the housing. Enter it on the Bracket screen, under Y-link, as before.",
            )),
            "The Y-link has to bring the pinion back to it.",
            None,
        ),
        Step::BarOut => reported(
            plain("Remove the track bar, axle end first"),
            Some(plain("Jack stands under the frame and under the axle, wheels chocked.")),
            "The Y-link centers the axle from now on; with both in, they fight each other.",
            Some(STANDS),
        ),
        Step::ArmOut => reported(
            plain("Remove the old upper arm"),
            Some(plain(
                "Support the pinion first: without the upper arm the housing can turn. Leave the spacers at its mount \
                 where they are.",
            )),
            "The Y-link goes in its place.",
            Some(STANDS),
        ),
        Step::Brackets => reported(
            plain("Install the brackets of the Y-link on the frame and on the axle"),
            Some(plain(
                "Bolted or welded as the manufacturer says. Welded: battery negative off, tack, check with the link held \
                 in place, then weld.",
            )),
            "Everything the Y-link does goes through them.",
            Some(WELDING),
        ),
        Step::ByHand => reported(
            plain("Hang the Y-link, all bolts by hand"),
            Some(plain(
                "Both legs at the same length to begin with, same amount of thread engaged at each end.",
            )),
            "The axle can only line up while its bolts are loose.",
            Some(FINGERS),
        ),
        _ => unsaid(),
    }
}

/// Spacers, legs, bolts.
fn set(context: &StepContext, step: Step) -> StepSays {
    match step {
        Step::Spacers => reported(
            plain("Remove the spacers behind the old upper mount, on jack stands"),
            None,
            "They keep the housing from turning: left in, they hold what the Y-link has to move.",
            Some(STANDS),
        ),
        Step::Legs => reported(
            plain(
                "Turn the legs of the Y-link until both sides measure the same and the pinion is back at its old angle",
            ),
            (!context.legs.is_empty()).then(|| in_a_row(&say_all(&context.legs))),
            "One leg longer and the other shorter moves the axle sideways. Both legs longer, or both shorter, rotates the pinion.",
            None,
        ),
        Step::Pinion => reported(
            plain("Measure the pinion angle and check that the axle is square"),
            Some(plain(
                "Enter both on the Bracket screen, under Y-link; turn the legs again if they are off.",
            )),
            "A pinion at the wrong angle vibrates and wears out its joints.",
            None,
        ),
        Step::Bolts => reported(
            plain("Tighten all bolts of the Y-link and the control arms"),
            Some(plain("On its wheels at the driven height, never in a raised mode.")),
            "Bushings tightened with the axle hanging stay twisted.",
            None,
        ),
        Step::Jam => reported(
            plain("Tighten the jam nuts of both legs"),
            None,
            "Last, once both sides measure the same.",
            None,
        ),
        _ => unsaid(),
    }
}
