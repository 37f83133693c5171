//! The steps of the kinds of work, a file a kind.

mod any_sway_bar;
mod any_track_bar;
mod bar_swap;
mod brace;
mod bracket;
mod built_bar;
mod disconnect;
mod drag_link;
mod eyes;
mod length;
mod links;
mod one_piece;
mod second_shim;
mod splined;
mod straps;
mod tie_rod;
mod two_rate;
mod y_link;

use super::step::StepSays;
use derecho_job::bolt_up::message::StepContext;
use derecho_job::work::kinds::KindStep;

/// A step of one of them.
pub(super) fn step(context: &StepContext, step: KindStep) -> StepSays {
    match step {
        KindStep::BarSwap(step) => bar_swap::step(context, step),
        KindStep::Bracket(step) => bracket::step(context, step),
        KindStep::BuiltBar(step) => built_bar::step(context, step),
        KindStep::DragLink(step) => drag_link::step(context, step),
        KindStep::Eyes(step) => eyes::step(context, step),
        KindStep::Length(step) => length::step(context, step),
        KindStep::OnePiece(step) => one_piece::step(step),
        KindStep::Splined(step) => splined::step(context, step),
        KindStep::TwoRate(step) => two_rate::step(context, step),
        KindStep::Links(step) => links::step(context, step),
        KindStep::Disconnect(step) => disconnect::step(step),
        KindStep::Brace(step) => brace::step(context, step),
        KindStep::SecondShim(step) => second_shim::step(context, step),
        KindStep::Straps(step) => straps::step(context, step),
        KindStep::TieRod(step) => tie_rod::step(context, step),
        KindStep::YLink(step) => y_link::step(context, step),
    }
}
