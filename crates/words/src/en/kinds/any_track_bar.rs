//! What several kinds of work of the track bar say alike.

use crate::all_marked as say_all;
use crate::en::step::{StepSays, hole_name, in_a_row, plain, reported};
use derecho_core::measure::Phrase;
use derecho_core::measure::typed::mark;
use derecho_core::parts::BracketEnd;
use derecho_core::pose::joint::JointKind;
use derecho_job::bolt_up::message::StepContext;
use derecho_job::bolt_up::situation::is_bushing;
use derecho_job::work::kinds::bracket::end_word;

pub(super) fn bracket_name(context: &StepContext, end: BracketEnd) -> String {
    let part = context.situation.at(end).and_then(|work| work.bracket.as_ref());
    part.map_or_else(|| format!("{} bracket", end_word(end)), |part| mark(&part.name))
}

/// Where an eye is bolted.
pub(super) fn into_hole(context: &StepContext, end: BracketEnd) -> String {
    match context.situation.at(end) {
        Some(work) if work.bracket.is_some() => {
            format!("in {} of the {}", hole_name(&work.hole), bracket_name(context, end))
        }
        Some(work) => format!("in {} of its bracket", hole_name(&work.hole)),
        None => "in its bracket".to_owned(),
    }
}

/// With the length the bar gets, where it gets another.
pub(super) fn to_length(context: &StepContext, verb: &str) -> Phrase {
    match context.situation.bar.as_ref().and_then(|bar| bar.length) {
        Some(length) => Phrase::of(|w| format!("{verb} {} eye to eye", w.fine(length))),
        None => plain(verb),
    }
}

/// How far to turn, jam nuts loose first.
pub(super) fn setting(context: &StepContext) -> Option<Phrase> {
    // What was in the vehicle is held by its jam nuts.
    let hung = context.situation.bar.as_ref().is_some_and(|bar| bar.hangs.is_some());
    let loosen = (!hung && !context.situation.turns_the_sleeve())
        .then(|| plain("Loosen the jam nuts or clamps first."));
    let reported: Vec<Phrase> = loosen.into_iter().chain(say_all(&context.setting)).collect();
    (!reported.is_empty()).then(|| in_a_row(&reported))
}

/// A cotter pin through a castle nut of the bar.
pub(super) fn pin(whose: &str) -> StepSays {
    reported(
        plain(&format!("Cotter pin through the {whose} castle nut")),
        Some(plain("Tighten to the next slot, never back off. Bend the pin legs around the nut.")),
        "Back off to a slot and you lose the torque.",
        None,
    )
}

pub(super) const fn tighten_at(joint: JointKind) -> &'static str {
    if is_bushing(joint) {
        "On its wheels at the height it is driven, never in a raised mode."
    } else {
        "A spherical joint can be tightened at any height."
    }
}

pub(super) fn eye_because(joint: Option<JointKind>) -> &'static str {
    match joint {
        Some(JointKind::Rubber) => "A rubber bushing tightened with the axle hanging stays twisted.",
        Some(JointKind::Polyurethane) => {
            "A polyurethane bushing tightened with the axle hanging gets squeezed out."
        }
        Some(JointKind::Spherical | JointKind::SphericalHighMisalignment) | None => {
            "After the bracket's own bolts."
        }
    }
}
