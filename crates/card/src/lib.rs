//! # derecho-card
//!
//! The job card on paper, for greasy fingers: what is set, parts, tools, steps with boxes to tick, blanks for torque and
//! initials, and a drill template at one to one; and the record of a closed job, one sheet for the customer. Drawn in millimetres; the same job gives the same bytes.
//!
//! `content` says what stands on the card and `record` what on the record, `sheet` where, `text` how wide a line is, `pdf` writes it. Not here: what is to be
//! done (`derecho-job`), HTTP, files.

mod content;
mod pdf;
mod record;
mod sheet;
mod text;

use derecho_core::measure::Unit;
use derecho_job::Job;
use derecho_results::{solve, work};
use thiserror::Error;

/// The paper it is printed on.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Paper {
    /// 210 by 297 mm.
    A4,
    /// 8 1/2 by 11 in.
    Letter,
}

impl Paper {
    /// Width and height, mm.
    #[must_use]
    pub const fn size_mm(self) -> (f64, f64) {
        match self {
            Self::A4 => (210.0, 297.0),
            Self::Letter => (215.9, 279.4),
        }
    }

    /// What is usual where sheets are written in a unit.
    #[must_use]
    pub const fn usual(unit: Unit) -> Self {
        match unit {
            Unit::Inches => Self::Letter,
            Unit::Millimetres => Self::A4,
        }
    }
}

/// A card that could not be written.
#[derive(Debug, Error)]
pub enum CardError {
    /// The shipped faces cannot be read.
    #[error("the card's fonts can't be read")]
    Face,
    /// The writer of the file refused.
    #[error("the card can't be written: {0}")]
    Writing(String),
}

/// The record of a closed job as a PDF; None of a job that was not closed.
///
/// # Errors
/// Where the shipped faces or the writer of the file fail; no job is the cause.
pub fn record(job: &Job, paper: Paper) -> Result<Option<Vec<u8>>, CardError> {
    let faces = text::Faces::shipped()?;
    let pages = record::pages(job, &solve(job), &work(job), paper, &faces);
    pages.map(|pages| pdf::write(&job.title, paper, &pages, &faces)).transpose()
}

/// The card of a job as a PDF.
///
/// # Errors
/// Where the shipped faces or the writer of the file fail; no job is the cause.
pub fn card(job: &Job, paper: Paper) -> Result<Vec<u8>, CardError> {
    let faces = text::Faces::shipped()?;
    let pages = content::pages(job, &solve(job), &work(job), paper, &faces);
    pdf::write(&job.title, paper, &pages, &faces)
}
