//! A job as a card in the bay.

use derecho_core::measure::{Length, Phrase};
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::document::{Job, SheetKind};
use crate::elevation::Elevation;
use crate::prove::ProveVerdict;
use crate::results::{Results, solve};
use crate::strip::StageResult;
use crate::words;

/// A job as a card in the bay: enough to draw it small and say where it stands.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Card {
    /// The vehicle, in the shop's own words.
    pub vehicle: String,
    /// The answer of the furthest stage that has one.
    pub says: Phrase,
    /// Each stage, in working order.
    pub stages: Vec<StageResult>,
    /// What the small end view is drawn from.
    pub elevation: Elevation,
    /// The axle's place with the planned length, + left, where there is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub planned_offset_mm: Option<Length>,
    /// What is due after the work and not seen to, with its day.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub due: Vec<CardDue>,
    /// What waits: readings to take again, a length to set.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub waits: Option<Phrase>,
}

/// A reminder with its day.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct CardDue {
    /// The day.
    #[schema(value_type = String, format = Date)]
    pub day: Date,
    /// What to do.
    pub says: Phrase,
}

/// Makes the card of a job.
#[must_use]
pub fn card(job: &Job) -> Card {
    card_of(job, solve(job))
}

/// Makes the card of a job that is worked out already.
#[must_use]
pub fn card_of(job: &Job, results: Results) -> Card {
    let correction = results.bar.as_ref().and_then(|bar| bar.correction.as_ref());
    let sheet = results
        .sheets
        .iter()
        .rfind(|sheet| sheet.kind == SheetKind::Centring && sheet.current && sheet.says.is_some());
    let says = match (&results.prove, correction, sheet, &results.bar) {
        (Some(proof), ..) => proof.says.clone(),
        (None, Some(correction), ..) => {
            correction.set.as_ref().map_or_else(|| correction.says.clone(), |set| set.says.clone())
        }
        (None, None, Some(sheet), _) => sheet.says.clone().unwrap_or_default(),
        (None, None, None, Some(bar)) => bar.says.clone(),
        (None, None, None, None) => words::nothing_measured(),
    };
    let no_bar = results.no_bar;
    let waits = match (results.settled_stands, &results.prove, correction, sheet) {
        (Some(true), ..) => None,
        (Some(false), ..) => Some("changed since it was settled"),
        (None, Some(proof), ..) => Some(match proof.verdict {
            ProveVerdict::CanSettle => "road test, then settle it",
            ProveVerdict::BackToBar if no_bar => "turn the link's legs",
            ProveVerdict::BackToBar => "set the bar again",
            ProveVerdict::BackToCycle => "something still touches",
            ProveVerdict::BackToSway => "sway links that work",
            ProveVerdict::PlanNotFitted => "fit the chosen plan",
            ProveVerdict::NotDecided => "choose a hole or the length alone",
            ProveVerdict::ReadAgain => "read both sides again",
        }),
        (None, None, Some(correction), _) if correction.decide_first => {
            Some("choose a hole or the length alone")
        }
        (None, None, Some(correction), sheet) => Some(match (correction.set.is_some(), sheet) {
            (true, _) => "read both sides again",
            (false, _) if correction.covered == Some(false) => "a bar that reaches",
            (false, Some(_)) => "set the bar",
            (false, None) => "read both sides",
        }),
        (None, None, None, Some(sheet)) if no_bar && !sheet.centred() => Some("see stage Cycle"),
        (None, None, None, Some(_)) if results.bar.is_none() && !no_bar => Some("measure the bar"),
        (None, None, None, Some(_)) => Some("read both sides again"),
        (None, None, None, None) => Some("read both sides"),
    };
    let open = results.settling.reminders.into_iter().filter(|reminder| reminder.done.is_none());
    let mut due: Vec<CardDue> =
        open.filter_map(|reminder| Some(CardDue { day: reminder.due?, says: reminder.says })).collect();
    due.sort_by_key(|due| due.day);
    Card {
        due,
        vehicle: job.rig.vehicle.clone(),
        says,
        planned_offset_mm: correction.map(|correction| {
            correction.set.as_ref().map_or(correction.leaves_offset_mm, |set| set.predicted_offset_mm)
        }),
        stages: results.stages,
        elevation: results.elevation,
        waits: waits.map(words::waits),
    }
}
