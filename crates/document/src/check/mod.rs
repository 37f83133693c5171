//! Whether a document makes sense: every fault at once, each with its place, one file a part.
//!
//! What cannot be computed yet, or cannot exist in geometry, is no fault of the
//! document: a half-typed job must be kept. Those are told in the results.

pub mod asks;
mod bracketing;
mod checker;
mod diagnosis;
mod hardpoints;
mod rig;
mod setups;
mod sheets;
mod sway;
mod vehicle;
mod work;

pub use self::bracketing::check_part;
use self::checker::Checker;
pub use self::checker::{
    FieldError, LONGEST_LIST, LONGEST_NAME, LONGEST_NOTE, MOST_HOLES, MOST_OBSTACLES, MOST_REPEATS,
    MOST_SHOCKS,
};
use super::{DOCUMENT_VERSION, Job};

/// Every fault of a document, in the document's own order.
#[must_use]
pub fn check(job: &Job) -> Vec<FieldError> {
    let mut checker = Checker { faults: Vec::new(), heights_from: job.rig.heights_from };
    if job.version != DOCUMENT_VERSION {
        checker.fault(
            "/version",
            "unknown_version",
            format!(
                "This version reads job files of version {DOCUMENT_VERSION}. Open the job with the version that saved it."
            ),
        );
    }
    if job.title.trim().is_empty() {
        checker.fault("/title", "name_missing", "The job needs a name. Enter one.");
    }
    checker.text("/title", &job.title, LONGEST_NAME);
    checker.text("/notes", &job.notes, LONGEST_NOTE);
    checker.list("/complaints", job.complaints.len(), LONGEST_LIST);
    for (index, complaint) in job.complaints.iter().enumerate() {
        checker.text(format_args!("/complaints/{index}/text"), &complaint.text, LONGEST_NOTE);
    }
    checker.rig(&job.rig);
    checker.list("/sheets", job.sheets.len(), LONGEST_LIST);
    checker.ids("/sheets", job.sheets.iter().map(|sheet| sheet.id.as_str()));
    for (index, sheet) in job.sheets.iter().enumerate() {
        checker.sheet(index, sheet, job);
    }
    checker.setups(job);
    checker.hardpoints(&job.hardpoints, &job.rig);
    checker.bracket(&job.bracket, &job.rig);
    checker.vehicle(&job.vehicle);
    checker.sway(&job.sway);
    checker.work(&job.bolt_up);
    checker.diagnosis(&job.diagnosis);
    checker.proof(&job.proof);
    checker.faults
}
