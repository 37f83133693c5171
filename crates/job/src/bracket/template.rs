//! The holes of a bracket at one to one, to mark through.

use derecho_core::fastener::Thread;
use derecho_core::measure::{Length, Side, TapeEntry, Unit};
use derecho_core::parts::BracketPart;
use derecho_core::parts::template::{Drawing, drill_holes};

use crate::document::Job;
use crate::setups::moves::{choice, hole_move};

/// Hole of a bracket nobody gave a bolt for.
const USUAL_BOLT: Length = Length::from_mm(14.0);

/// The holes of a bracket from the old hole, out to the right, as drilled for the eye's bolt.
#[must_use]
pub fn holes(job: &Job, bracket: &BracketPart, title: &str) -> Drawing {
    let bolt = job.bracket.bolt.thread.as_ref().map_or(USUAL_BOLT, Thread::diameter);
    let places: Vec<(String, f64, f64)> = bracket
        .holes
        .iter()
        .map(|hole| {
            let by = hole_move(hole, Side::Left);
            (format!("{} ({})", hole.name, with_unit(&hole.up)), by.y, by.z)
        })
        .collect();
    drill_holes(title, &places, bolt)
}

/// A length as typed, with its unit where the text has none.
fn with_unit(entry: &TapeEntry) -> String {
    let text = entry.text().trim();
    if text.contains(|c: char| c.is_alphabetic() || "\"″'′".contains(c)) {
        return text.to_owned();
    }
    let unit = match entry.unit() {
        Unit::Inches => "in",
        Unit::Millimetres => "mm",
    };
    format!("{text} {unit}")
}

/// The brackets the chosen plan fits, of those this job tries.
#[must_use]
pub fn chosen_brackets(job: &Job) -> Vec<&BracketPart> {
    let Some(plan) = &job.setups.plans.chosen else { return Vec::new() };
    let ends = [derecho_core::parts::BracketEnd::Frame, derecho_core::parts::BracketEnd::Axle];
    ends.into_iter()
        .filter_map(|end| {
            let hole = choice(plan, end)?;
            job.bracket_part(end, &hole.bracket)
        })
        .collect()
}
