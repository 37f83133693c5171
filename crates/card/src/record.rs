//! What stands on the record of a closed job: one sheet for the customer.

use derecho_core::measure::Unit;
use derecho_job::bolt_up::WorkResult;
use derecho_job::message::Message;
use derecho_job::record::record;
use derecho_job::{Job, Results};
use derecho_words::say as in_words;

use crate::Paper;
use crate::content::{axle_of, heading, paragraph};
use crate::sheet::{BODY, DrawnMark, PLAIN, Pages, QUIET, STRONG, TITLE};
use crate::text::Faces;

/// Its pages; None of a job that was not closed.
pub(crate) fn pages(
    job: &Job,
    results: &Results,
    work: &WorkResult,
    paper: Paper,
    faces: &Faces<'_>,
) -> Option<Vec<Vec<DrawnMark>>> {
    let (closed, sections) = record(job, results, work)?;
    let unit = job.rig.sheet_unit;
    let mut pages = Pages::new(paper, faces);
    paragraph(&mut pages, QUIET, "Record of work");
    paragraph(&mut pages, TITLE, &job.title);
    paragraph(&mut pages, PLAIN, &axle_of(job));
    paragraph(&mut pages, STRONG, &say(&closed, unit));
    for section in sections {
        heading(&mut pages, &say(&section.heading, unit));
        for line in section.lines {
            paragraph(&mut pages, BODY, &say(&line, unit));
        }
    }
    paragraph(&mut pages, QUIET, "");
    paragraph(
        &mut pages,
        QUIET,
        "Left and right are as seen from the driver's seat. Check torques again when they are due; the vehicle's and the \
         parts' instructions rule.",
    );
    Some(pages.without_a_rule(&job.title))
}

fn say(message: &Message, unit: Unit) -> String {
    in_words(message).in_unit(unit).to_owned()
}
