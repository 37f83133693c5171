//! The length of an adjustable bar.

use super::any_track_bar::{eye_because, pin, setting, tighten_at, to_length};
use crate::en::step::{FINGERS, STANDS, StepSays, plain, reported};
use derecho_core::bar::adjuster::AdjusterKind;
use derecho_job::bolt_up::message::StepContext;
use derecho_job::bolt_up::situation::is_bushing;
use derecho_job::work::kinds::length::Step;

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    let situation = &context.situation;
    match step {
        Step::EndOff => reported(
            plain("Unbolt the adjusting end and loosen its jam nut"),
            None,
            "A single-adjuster bar turns only with that end off.",
            Some(STANDS),
        ),
        Step::Bench => reported(
            to_length(
                context,
                if situation.bar_comes_out() {
                    "On the bench, set the bar to"
                } else {
                    "With one end free, set the bar to"
                },
            ),
            setting(context),
            "On the bench you can see both ends and even them up.",
            Some("Never less thread engaged than the manufacturer calls for."),
        ),
        Step::EndByHand => reported(
            to_length(context, "Turn the free end and bolt it back by hand: the bar is"),
            setting(context),
            "The eye must slip over its bolt without force.",
            Some(FINGERS),
        ),
        Step::Loosen => reported(
            plain("Loosen both jam nuts or clamps and paint-mark the sleeve"),
            Some(plain("A line across sleeve and thread lets you count turns.")),
            "Forcing a clamped sleeve tears its thread.",
            None,
        ),
        Step::Turn => reported(
            to_length(context, "Turn the sleeve until the bar is"),
            setting(context),
            "It turns with both ends bolted, on its wheels.",
            None,
        ),
        Step::EndTight => end_tight(context),
        Step::EndPin => pin("adjusting-end bolt's"),
        Step::Jam => reported(
            plain(match situation.bar.as_ref().and_then(|bar| bar.kind) {
                Some(AdjusterKind::OneEnd) => "Tighten the jam nut",
                _ => "Tighten both jam nuts or clamps, clamps square",
            }),
            Some(plain("Hold the bar so that both ends stay parallel.")),
            "Last, once both sides measure the same: until then the length may still change.",
            None,
        ),
    }
}

fn end_tight(context: &StepContext) -> StepSays {
    // Which end turns nobody said: the one that asks for more.
    let joints = context.situation.bar.as_ref().map(|bar| bar.joints);
    let joint = joints.map(|j| j.into_iter().find(|joint| is_bushing(*joint)).unwrap_or(j[0]));
    reported(
        plain("Tighten the adjusting-end bolt"),
        joint.map(|joint| plain(tighten_at(joint))),
        eye_because(joint),
        None,
    )
}
