//! A splined sway bar.

use super::any_sway_bar::{old_off, stick_out};
use crate::en::step::{SWAY, StepSays, plain, reported, unsaid};
use derecho_job::bolt_up::message::StepContext;
use derecho_job::work::kinds::splined::Step;

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    match step {
        Step::ArmsOn | Step::ArmsAlike | Step::Pinch | Step::Retaining => arms(step),
        _ => bar(context, step),
    }
}

/// The bar and its mounts.
fn bar(context: &StepContext, step: Step) -> StepSays {
    match step {
        Step::OldOff => old_off(),
        Step::MountsOn => reported(
            plain("Install both sway bar mounts, bolts loose"),
            Some(plain(
                "Leave the bolts of both mounts loose enough that the mounts can line up with each other.",
            )),
            "Mounts that are tight out of line bind the sway bar.",
            None,
        ),
        Step::Bushings => reported(
            plain("Grease the bore of both sway bar mounts"),
            Some(plain("The manufacturer's grease, in the bore; keep it off the splines.")),
            "Once the sway bar is through no grease gets to the bore.",
            None,
        ),
        Step::BarThrough => reported(
            plain("Push the sway bar through both mounts"),
            Some(plain("It has to turn by hand: if it binds, move the loose mounts.")),
            "It lines the mounts up with each other.",
            None,
        ),
        Step::StickOut => stick_out(context.stick_out),
        Step::MountsTight => reported(
            plain("Tighten the bolts of both sway bar mounts"),
            Some(plain("Turn the sway bar by hand after each side: it must not bind.")),
            "Once the stick-out is equal.",
            None,
        ),
        _ => unsaid(),
    }
}

/// The arms on it.
fn arms(step: Step) -> StepSays {
    match step {
        Step::ArmsOn => reported(
            plain("Put both sway bar arms on the same spline, pinch bolts by hand"),
            Some(plain("Mark the spline on one side and count to the same one on the other.")),
            "One spline off twists the sway bar at rest.",
            Some(SWAY),
        ),
        Step::ArmsAlike => reported(
            plain("Set both sway bar arms to the same angle"),
            Some(plain("Angle finder on both, on level ground, on its wheels, links on by hand.")),
            "One spline off twists the sway bar at rest.",
            None,
        ),
        Step::Pinch => reported(
            plain("Tighten the pinch bolts of both sway bar arms"),
            None,
            "Once both sway bar arms are at the same angle.",
            None,
        ),
        Step::Retaining => reported(
            plain("Install the retaining bolts or caps at both ends of the sway bar"),
            Some(plain("As the manufacturer says, thread locker where it calls for it.")),
            "They keep the sway bar arms on if a pinch bolt works loose.",
            None,
        ),
        _ => unsaid(),
    }
}
