//! A job as a card in the bay: kept with the job, and read back as it was written.

use derecho_core::measure::{Length, Phrase};
use derecho_job::Job;
use derecho_job::cautions::Stage;
use derecho_job::elevation::Elevation;
use derecho_job::results::Results;
use derecho_job::strip::{Progress, StageResult};
use derecho_words::{English, marked};
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A job as a card in the bay: enough to draw it small and say where it stands. Its sentences are as the US says them, with
/// what a person typed marked in them, until [`Card::said_in`] an English.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Card {
    /// The vehicle, in the shop's own words.
    pub vehicle: String,
    /// The answer of the furthest stage that has one.
    pub says: Phrase,
    /// Each stage, in working order.
    pub stages: Vec<StageLine>,
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

/// Where one stage stands, as a card keeps it.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[schema(as = StageResult)]
pub struct StageLine {
    /// Which.
    pub stage: Stage,
    /// How far.
    pub progress: Progress,
    /// Whether the work of this job needs it.
    pub needed: bool,
    /// Its figure, or what it waits for.
    pub headline: Phrase,
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

impl Card {
    /// The card as it is read in an English, what a person typed left alone.
    #[must_use]
    pub fn said_in(mut self, english: English) -> Self {
        let stages = self.stages.iter_mut().map(|stage| &mut stage.headline);
        let due = self.due.iter_mut().map(|due| &mut due.says);
        for phrase in [&mut self.says].into_iter().chain(stages).chain(due).chain(self.waits.as_mut()) {
            phrase.inches = english.say(&phrase.inches);
            phrase.millimetres = english.say(&phrase.millimetres);
        }
        self
    }
}

/// The card of a job.
#[must_use]
pub fn card(job: &Job) -> Card {
    card_of(job, crate::settled::solve(job))
}

/// The card of a job whose results are there already.
#[must_use]
pub fn card_of(job: &Job, results: Results) -> Card {
    let facts = derecho_job::card::card_of(job, results);
    Card {
        vehicle: facts.vehicle,
        says: marked(&facts.says),
        stages: facts.stages.into_iter().map(stage).collect(),
        elevation: facts.elevation,
        planned_offset_mm: facts.planned_offset_mm,
        due: facts.due.into_iter().map(|due| CardDue { day: due.day, says: marked(&due.says) }).collect(),
        waits: facts.waits.as_ref().map(marked),
    }
}

fn stage(found: StageResult) -> StageLine {
    let StageResult { stage, progress, needed, headline } = found;
    StageLine { stage, progress, needed, headline: marked(&headline) }
}
