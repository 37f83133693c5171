//! What the lift alone does.

use derecho_core::bar::FrontView;
use derecho_core::measure::phrase::Value;
use derecho_core::measure::{Heading, Length, Meaning, Step, Working};
use serde::Serialize;
use utoipa::ToSchema;

use super::figures::BarFigures;
use crate::bar::message::BarMessage;
use crate::document::{Job, length_of};
use crate::message::Message;

/// What the lift alone does.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LiftEffect {
    /// The lift Δ; negative is a drop.
    pub lift_mm: Length,
    /// The bar before it.
    pub before: BarFigures,
    /// Shift of the axle to the left, s·(h₁ − h₂).
    pub shift_mm: Length,
    /// In words.
    pub says: Message,
    /// The arithmetic with this job's numbers.
    pub working: Working,
}

/// What the lift alone did to the bar that was there, with its eyes where they were found.
#[must_use]
pub(super) fn lift_effect(job: &Job, found: &FrontView) -> Option<LiftEffect> {
    let lift = length_of(&job.rig.lift).filter(|lift| *lift != Length::ZERO)?;
    let before = found.raised_by(-lift).ok()?;
    let shift = before.shift_of_lift(lift).ok()?;
    let length = Value::Length;
    let (l, d) = (length(before.length()), length(before.fore_aft()));
    let reach = |index: &str, view: &FrontView| {
        Step::new(
            if index == "₁" { Meaning::ReachBefore } else { Meaning::ReachAfter },
            &format!("h{index} = √({{L}}² − {{v{index}}}² − {{d}}²)"),
            &[("L", l), (&format!("v{index}"), length(view.rise())), ("d", d)],
            length(view.reach()),
        )
    };
    let steps = vec![
        reach("₁", &before),
        Step::new(
            Meaning::RiseAfter,
            "v₂ = {v₁} + {Δ}",
            &[("v₁", length(before.rise())), ("Δ", length(lift))],
            length(found.rise()),
        ),
        reach("₂", found),
        Step::new(
            Meaning::ShiftOfLift,
            "s · (h₁ − h₂) = {s} · ({h₁} − {h₂})",
            &[
                ("s", Value::Number(found.frame_eye_side().sign(), 0)),
                ("h₁", length(before.reach())),
                ("h₂", length(found.reach())),
            ],
            length(shift),
        ),
    ];
    let verb = if lift > Length::ZERO { "lift" } else { "drop" };
    Some(LiftEffect {
        lift_mm: lift,
        before: BarFigures::from(&before),
        shift_mm: shift,
        says: BarMessage::LiftSays { verb: verb.to_owned(), shift }.into(),
        working: Working { title: Heading::Lift { lowered: lift < Length::ZERO }, steps },
    })
}
