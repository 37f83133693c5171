//! A bar built to its gap.

use super::any_track_bar::to_length;
use crate::en::step::{FINGERS, STANDS, StepSays, WELDING, in_a_row, plain, reported};
use crate::marked as say;
use derecho_core::measure::Phrase;
use derecho_job::bolt_up::message::StepContext;
use derecho_job::bolt_up::situation::EndWork;
use derecho_job::setups::PlannedGap;
use derecho_job::work::kinds::built_bar::Step;

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    match step {
        Step::Gap => reported(
            plain("Measure the gap between the bushing shells, eyes in the planned holes"),
            Some(plain(&format!(
                "Springs back in, down on its wheels at the driven height, axle strapped to center{}, both bushings in. \
                 Enter the gap on the Bar screen, under Other bars; the cut length comes from it.",
                snug(context)
            ))),
            "The bar is built to the gap between the brackets as they are now.",
            Some(FINGERS),
        ),
        Step::Cut => reported(
            to_gap(
                context,
                "Cut and cope the bar stock for a bar of",
                "Cut and cope the bar stock to the gap you measured",
            ),
            Some(cut_stock(context)),
            "Cut too short, it stays too short.",
            Some("Eye protection on. Clamp the bar stock. Deburr sharp edges."),
        ),
        Step::Tack => reported(
            plain("Tack the bar in place between both bushing shells"),
            Some(plain(&format!(
                "On its wheels at the driven height, axle strapped to center as for the gap{}, both ends bolted. Set it \
                 down for this, then back on jack stands.",
                snug(context)
            ))),
            "Tacked in place, both shells line up with their bolts.",
            Some(WELDING),
        ),
        Step::BushingsOut => reported(
            plain("Remove the tacked bar and press both bushings out"),
            Some(plain(
                "Back on jack stands first, the axle supported. Mark which bushing came out of which end.",
            )),
            "The heat of welding burns a bushing.",
            Some(STANDS),
        ),
        Step::Weld => reported(
            to_gap(context, "Finish-weld the bar at", "Finish-weld the bar at the length its gap gives"),
            Some(plain(
                "On the bench, center to center of the bolt holes, measured again before the first bead. Short beads, \
                 alternating sides.",
            )),
            "A welded bar can't be adjusted.",
            Some(WELDING),
        ),
        Step::BushingsIn => reported(
            plain("Let the bar cool, paint it, then press both bushings in"),
            Some(plain("Measure it once more, cold: eye to eye.")),
            "Pressed into a hot eye, a bushing is ruined.",
            Some("Eye protection on. Keep hands clear of the press."),
        ),
    }
}

/// Said where a bracket has bolts to be snug.
fn snug(context: &StepContext) -> &'static str {
    let bolted = context.situation.ends.is_empty() || context.situation.ends.iter().any(EndWork::bolts_on);
    if bolted { ", bracket bolts snug" } else { "" }
}

/// The same of a built bar, whose length nobody can cut by before its gap is measured in the planned holes.
fn to_gap(context: &StepContext, verb: &str, unmeasured: &str) -> Phrase {
    match context.situation.gap {
        PlannedGap::TapeAgain => plain(unmeasured),
        _ => to_length(context, verb),
    }
}

/// What to cut, and where the templates are. Measured again last where its brackets were there all along.
fn cut_stock(context: &StepContext) -> Phrase {
    let again = (!context.situation.tapes_the_gap())
        .then(|| plain("Measure the gap once more first, on its wheels, axle strapped to center."));
    let templates = plain("Full-size cope templates are on the Bar screen, under Other bars.");
    in_a_row(&again.into_iter().chain(context.cut.as_ref().map(say)).chain([templates]).collect::<Vec<_>>())
}
