//! A bracket: what comes off for it, welded or bolted on.

use super::any_track_bar::bracket_name;
use crate::en::step::{STANDS, StepSays, WELDING, plain, reported, unsaid};
use derecho_core::measure::Phrase;
use derecho_core::measure::typed::mark;
use derecho_core::parts::BracketEnd;
use derecho_job::bolt_up::message::{FirstBracket, StepContext};
use derecho_job::bolt_up::situation::Situation;
use derecho_job::work::kinds::bracket::{Bolts, Step};

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    match step {
        Step::ComesOff(end) => {
            let first = context.situation.at(end).and_then(|work| work.comes_off()).unwrap_or_default();
            reported(
                plain(&format!(
                    "Remove what is in the way of the {}: {}",
                    bracket_name(context, end),
                    mark(first)
                )),
                Some(plain("List anything you unclip or loosen along the way, so it goes back.")),
                "The bracket goes on crooked over anything left under it.",
                None,
            )
        }
        Step::Place(end) => reported(
            plain(&format!(
                "Jack the axle to full bump and mark where the {} goes",
                bracket_name(context, end)
            )),
            Some(context.first_bracket.map_or_else(Phrase::default, place)),
            "Placed at ride height, the axle hits it at full bump.",
            Some(STANDS),
        ),
        Step::Bare(_) | Step::Tack(_) | Step::TackCheck(_) | Step::Weld(_) | Step::Coat(_) => {
            welded(context, step)
        }
        Step::ByHand(_) | Step::Snug(_) | Step::Tight(..) => bolted(context, step),
    }
}

/// Where a first bracket goes: its room at full bump, and what the axle still does fore and aft.
fn place(FirstBracket { room, way }: FirstBracket) -> Phrase {
    Phrase::of(|w| {
        let moves = match way.fore_aft {
            Some([back, forward]) => format!(
                "Over the travel the axle moves {} back and {} forward of where it is at the driven height: add that on each side.",
                w.distance(back),
                w.distance(forward)
            ),
            None => {
                "Lower the axle to full droop and look again: it moves fore and aft as it goes.".to_owned()
            }
        };
        format!(
            "Springs out, bump stops in; full bump is {} up from the driven height. The bar level with its other eye at the driven height, and {} fore and aft between the bracket and the axle tube, differential, tie rod and tires at full bump. {moves}",
            w.distance(way.up),
            w.distance(room)
        )
    })
}

fn welded(context: &StepContext, step: Step) -> StepSays {
    let bracket = |end: BracketEnd| bracket_name(context, end);
    match step {
        Step::Bare(end) => reported(
            plain(&format!("Grind to bare metal and bevel where the {} goes", bracket(end))),
            Some(plain(
                "Cut off any old bracket in its place first. Take out or cover bushings and lines nearby.",
            )),
            "Paint and rust make holes in the weld.",
            Some(WELDING),
        ),
        Step::Tack(end) => reported(
            plain(&format!("Tack the {} only", bracket(end))),
            Some(plain("Zero the angle finder on the bracket at the other end, then match this one to it.")),
            "A tack is easy to cut off again.",
            Some(WELDING),
        ),
        Step::TackCheck(end) => reported(
            plain(&format!("Check the tacked {}: angle, reach, full cycle", bracket(end))),
            Some(plain(if context.situation.bar.as_ref().is_some_and(|bar| bar.made_to_length) {
                "With a tube between both eyes in place of the bar: it lines up and clears everything from full droop to full bump."
            } else {
                "The bar must adjust both ways from its length and clear everything from full droop to full bump."
            })),
            "Tacks pull as they cool.",
            None,
        ),
        Step::Weld(end) => reported(
            plain(&format!("Finish-weld the {}", bracket(end))),
            Some(plain("Short beads, alternating sides, bushings out; let it cool between beads.")),
            "One long bead warps it and burns the rubber.",
            Some(WELDING),
        ),
        Step::Coat(end) => reported(
            plain(&format!("Let the {} cool, then paint it", bracket(end))),
            None,
            "Bare steel beside a weld rusts first.",
            None,
        ),
        _ => unsaid(),
    }
}

fn bolted(context: &StepContext, step: Step) -> StepSays {
    let situation = &context.situation;
    match step {
        Step::ByHand(end) => reported(
            plain(&format!("Start every bolt of the {} by hand", bracket_name(context, end))),
            Some(plain("Fingers only, all the way: a nut that stops is the wrong nut or cross-threaded.")),
            "One tight bolt pulls the others out of line.",
            None,
        ),
        Step::Snug(end) => reported(
            plain(&format!("{}: snug all bolts, then back them off one turn", bracket_name(context, end))),
            None,
            "Lets it seat before it is clamped.",
            None,
        ),
        Step::Tight(end, bolts) => reported(
            plain(&format!("{}: tighten the {}", bracket_name(context, end), bolts_reported(bolts))),
            Some(plain(if through_bushing(situation, end, bolts) {
                "The bolt goes through a control arm bushing: tighten it on its wheels at the driven height, never hanging. The manufacturer's sequence comes first if there is one."
            } else if bolts == Bolts::Main {
                "The manufacturer's sequence comes first if there is one."
            } else {
                "If there are several, two passes: all to half torque, from the middle out, then full torque in the same order. The manufacturer's sequence comes first if there is one."
            })),
            "Pulled in by the small bolts it goes on crooked.",
            None,
        ),
        _ => unsaid(),
    }
}

const fn bolts_reported(bolts: Bolts) -> &'static str {
    match bolts {
        Bolts::Main => "main bolt",
        Bolts::Side => "side bolts",
        Bolts::Small => "small bolts",
    }
}

/// Whether a group of a bracket's bolts goes through an arm's bushing.
fn through_bushing(situation: &Situation, end: BracketEnd, bolts: Bolts) -> bool {
    situation.through_bushings.iter().any(|key| key == bolts.key(end))
}
