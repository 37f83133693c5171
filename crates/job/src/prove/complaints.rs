//! What a complaint suggests to look at first, in this job's figures, and which plan addresses it.

use derecho_core::measure::Phrase;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::words;
use crate::bar::BarResult;
use crate::document::{ComplaintAbout, ComplaintAfter, Job};
use crate::setups::Resolved;
use crate::tape::SheetResult;
use derecho_core::measure::centring::Centring;

/// What to look at for one complaint.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct ComplaintAdvice {
    /// Its place in the job's list.
    pub complaint: usize,
    /// What to look at, the likeliest first.
    pub says: Vec<Phrase>,
    /// Whether it is open again: the same or worse after the road test.
    pub again: bool,
}

/// The newest answer of the readings that stand.
fn centring(sheets: &[SheetResult]) -> Option<&Centring> {
    sheets.iter().rev().filter(|sheet| sheet.usable).find_map(|sheet| sheet.centring.as_ref())
}

/// For every complaint that says what it is about.
#[must_use]
pub fn advice(
    job: &Job,
    resolved: &Resolved,
    bar: Option<&BarResult>,
    links_work: Option<bool>,
) -> Vec<ComplaintAdvice> {
    let facts = words::ComplaintFacts {
        centring: centring(&resolved.sheets),
        bar,
        view: resolved.setups().map(|setups| &setups.fitted.view),
        play: job.bracket.bolt.play.as_ref().map(derecho_core::measure::TapeEntry::length),
        drag_link: job.hardpoints.steering.is_some(),
        links_work,
    };
    let of = |about: ComplaintAbout| words::complaint(about, &facts);
    let numbered = job.complaints.iter().enumerate();
    numbered
        .filter_map(|(index, complaint)| {
            Some(ComplaintAdvice {
                complaint: index,
                says: of(complaint.about?),
                again: matches!(complaint.after, Some(ComplaintAfter::Same | ComplaintAfter::Worse)),
            })
        })
        .collect()
}
