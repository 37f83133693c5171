//! A splined sway bar.

use super::any_sway_bar::{old_off, stick_out};
use crate::en::step::{DRILLING, SWAY, StepSays, WELDING, plain, reported, unsaid};
use derecho_core::measure::Phrase;
use derecho_job::bolt_up::message::StepContext;
use derecho_job::work::kinds::splined::{Step, Tubes};

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    match step {
        Step::ArmsOn | Step::ArmsAlike | Step::Pinch | Step::Retaining => arms(step),
        Step::TubesMarked | Step::TubesSawn | Step::TubesTacked | Step::TubesWelded | Step::TubesCold => {
            tubes(context.situation.tubes().unwrap_or_default(), step)
        }
        _ => bar(context, step),
    }
}

/// Where the tubes' holes go.
fn marked(tubes: Tubes) -> Phrase {
    Phrase::of(|w| {
        let below = tubes.below_edge.map(|below| format!("{} below the top edge", w.fine(below)));
        let from = tubes.from_cross_member.map(|from| format!("{} from the cross-member", w.fine(from)));
        let at: Vec<String> = below.into_iter().chain(from).collect();
        let at = if at.is_empty() { String::new() } else { format!(": center {}", at.join(", ")) };
        format!("Mark the hole for the tube on both frame rails{at}")
    })
}

/// The tubes welded through the rails.
fn tubes(tubes: Tubes, step: Step) -> StepSays {
    let both = if tubes.inner_plates { "both tubes and their inner plates" } else { "both tubes" };
    match step {
        Step::TubesMarked => reported(
            marked(tubes),
            Some(plain(
                "Both frame rails from the same edge and the same cross-member; a straightedge through both marks is \
                 square to the frame. Look inside the frame rail first: lines, wiring, nuts.",
            )),
            "Tubes out of line bind the sway bar.",
            None,
        ),
        Step::TubesSawn => reported(
            match tubes.outside {
                Some(outside) => Phrase::of(|w| {
                    format!(
                        "Cut the hole through both walls of each frame rail with a {} hole saw",
                        w.fine(outside)
                    )
                }),
                None => plain("Cut the hole through both walls of each frame rail with a hole saw"),
            },
            Some(plain("Pilot hole through both walls first, then each wall from its own side. Deburr.")),
            "Cut from one side only, the far hole is off.",
            Some(DRILLING),
        ),
        Step::TubesTacked => reported(
            plain(&format!("Tack {both} with the sway bar and its bushings in them")),
            Some(plain(
                "Bare metal first, tacks small. The tubes stick out the same on both sides; the sway bar has to turn by hand \
                 after every tack.",
            )),
            "The sway bar lines the tubes up with each other.",
            Some(WELDING),
        ),
        Step::TubesWelded => reported(
            plain(&format!("Take the sway bar and its bushings out, then finish-weld {both}")),
            Some(plain("Short beads, alternating sides; let it cool between beads.")),
            "One long bead pulls a tube out of line.",
            Some(WELDING),
        ),
        _ => reported(
            plain("Let the tubes cool, then paint them"),
            Some(plain("Outside only: keep paint out of the bore.")),
            "Bare steel beside a weld rusts first.",
            None,
        ),
    }
}

/// The bar and its mounts.
fn bar(context: &StepContext, step: Step) -> StepSays {
    let in_tubes = context.situation.tubes().is_some();
    match step {
        Step::Bushings if in_tubes => reported(
            plain("Press the bushings into both tubes and grease their bore"),
            Some(plain("The manufacturer's grease, in the bore; keep it off the splines.")),
            "Once the sway bar is through no grease gets to the bore.",
            None,
        ),
        Step::BarThrough if in_tubes => reported(
            plain("Push the sway bar through both tubes"),
            Some(plain(
                "It has to turn by hand. If it binds, the weld pulled a tube: ream that one before you go on.",
            )),
            "The sway bar arms go on once it is through.",
            None,
        ),
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
