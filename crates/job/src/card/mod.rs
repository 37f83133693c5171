//! A job as a card in the bay.

pub mod message;

use derecho_core::measure::Length;
use jiff::civil::Date;

use self::message::CardMessage;
use crate::document::{Job, SheetKind};
use crate::elevation::Elevation;
use crate::message::Message;
use crate::results::Results;
use crate::strip::StageResult;

/// A job as a card in the bay: enough to draw it small and say where it stands.
#[derive(Clone, Debug, PartialEq)]
pub struct CardFacts {
    /// The vehicle, in the shop's own words.
    pub vehicle: String,
    /// The answer of the furthest stage that has one.
    pub says: Message,
    /// Each stage, in working order.
    pub stages: Vec<StageResult>,
    /// What the small end view is drawn from.
    pub elevation: Elevation,
    /// The axle's place with the planned length, + left, where there is one.
    pub planned_offset_mm: Option<Length>,
    /// What is due after the work and not seen to, with its day.
    pub due: Vec<DueFact>,
    /// What waits: readings to take again, a length to set.
    pub waits: Option<Message>,
}

/// A reminder with its day.
#[derive(Clone, Debug, PartialEq)]
pub struct DueFact {
    /// The day.
    pub day: Date,
    /// What to do.
    pub says: Message,
}

/// Makes the card of a job that is worked out already.
#[must_use]
pub fn card_of(job: &Job, results: Results) -> CardFacts {
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
        (None, None, None, None) => CardMessage::NothingMeasured.into(),
    };
    let open = results.settling.reminders.into_iter().filter(|reminder| reminder.done.is_none());
    let mut due: Vec<DueFact> =
        open.filter_map(|reminder| Some(DueFact { day: reminder.due?, says: reminder.says })).collect();
    due.sort_by_key(|due| due.day);
    CardFacts {
        due,
        vehicle: job.rig.vehicle.clone(),
        says,
        planned_offset_mm: correction.map(|correction| {
            correction.set.as_ref().map_or(correction.leaves_offset_mm, |set| set.predicted_offset_mm)
        }),
        stages: results.stages,
        elevation: results.elevation,
        waits: results.status.next.map(|next| next.says),
    }
}
