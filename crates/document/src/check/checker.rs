//! What every part is checked with: faults gathered, each with its place.

use std::fmt::Display;

use derecho_core::measure::TapeEntry;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::hardpoints::PointForm;
use crate::heights::height_of;
use crate::{HeightId, HeightsFrom, Rig};

/// Most characters of a title or a name.
pub const LONGEST_NAME: usize = 120;
/// Most characters of a note or a complaint.
pub const LONGEST_NOTE: usize = 4000;
/// Most entries of any list in a job.
pub const LONGEST_LIST: usize = 200;
/// Most obstacles of a job: each is tried against every link in every pose.
pub const MOST_OBSTACLES: usize = 12;
/// Most other holes of one bracket.
pub const MOST_HOLES: usize = 12;
/// Most shock absorbers of a side: each is tried against arms and links in every pose.
pub const MOST_SHOCKS: usize = 4;
/// Furthest that tyres steer either way.
pub(super) const MOST_LOCK_DEGREES: f64 = 60.0;
/// Most repeats on one side of a sheet.
pub const MOST_REPEATS: usize = 24;

/// One fault of a document.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct FieldError {
    /// Where: a JSON pointer such as `/sheets/0/left/2`.
    pub pointer: String,
    /// Stable name of the fault.
    pub code: String,
    /// What is wrong and what to do.
    pub message: String,
    /// First character of the place in a typed text, counted from 0.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub start: Option<usize>,
    /// One past the last character of the place.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub end: Option<usize>,
}

impl FieldError {
    /// A fault without a place inside the text.
    pub fn new(pointer: impl Into<String>, code: &str, message: impl Into<String>) -> Self {
        Self {
            pointer: pointer.into(),
            code: code.to_owned(),
            message: message.into(),
            start: None,
            end: None,
        }
    }
}

/// Gathers the faults of a document. Places are handed over unwritten (`format_args!`): a sound document, the usual
/// case, writes none.
pub(super) struct Checker {
    pub(super) faults: Vec<FieldError>,
    /// What heights are taken from: nothing lies under the floor, much under the frame rail.
    pub(super) heights_from: HeightsFrom,
}

impl Checker {
    pub(super) fn fault(&mut self, pointer: impl Display, code: &str, message: impl Into<String>) {
        self.faults.push(FieldError::new(pointer.to_string(), code, message));
    }

    pub(super) fn distance(&mut self, pointer: impl Display + Copy, entry: Option<&TapeEntry>) {
        if entry.is_some_and(|entry| entry.number().nanometres() < 0) {
            self.fault(
                pointer,
                "negative_distance",
                "A distance can't be negative. Leave out the minus sign.",
            );
        }
    }

    /// Above what heights are taken from.
    pub(super) fn height_above(&mut self, pointer: impl Display + Copy, entry: Option<&TapeEntry>) {
        if self.heights_from == HeightsFrom::Floor {
            self.distance(pointer, entry);
        }
    }

    pub(super) fn size(&mut self, pointer: impl Display + Copy, entry: Option<&TapeEntry>) {
        self.distance(pointer, entry);
        if entry.is_some_and(|entry| entry.number().nanometres() == 0) {
            self.fault(pointer, "nought", "This can't be zero. Enter the size, or leave it empty.");
        }
    }

    pub(super) fn text(&mut self, pointer: impl Display + Copy, text: &str, most: usize) {
        // A name is one line; a note has lines and tabs, and nothing else that no one can see.
        let lines = most > LONGEST_NAME;
        let unseen = |c: char| c.is_control() && !(lines && matches!(c, '\n' | '\r' | '\t'));
        if text.chars().any(unseen) {
            self.fault(
                pointer,
                "control_character",
                "It has a line break or an invisible character. Enter it again on one line.",
            );
        }
        if text.chars().count() > most {
            self.fault(
                pointer,
                "too_long_text",
                format!("Too long: {most} characters at most. Shorten it, or move the rest to the notes."),
            );
        }
    }

    pub(super) fn list(&mut self, pointer: impl Display + Copy, length: usize, most: usize) {
        if length > most {
            self.fault(pointer, "too_many", format!("Too many: {most} at most. Remove some."));
        }
    }

    /// A height that is pointed at is one of the rig's.
    pub(super) fn height(&mut self, pointer: impl Display + Copy, id: &HeightId, rig: &Rig) {
        if !id.is_empty() && height_of(rig, id).is_none() {
            self.fault(
                pointer,
                "unknown_height",
                format!("The rig has no height with the id {:?}. Choose one of its heights.", id.as_str()),
            );
        }
    }

    /// Rows that others point at have an id each, and no two of a list the same.
    pub(super) fn ids<'a>(&mut self, list: impl Display + Copy, ids: impl Iterator<Item = &'a str>) {
        let mut seen = std::collections::BTreeSet::new();
        for (index, id) in ids.enumerate() {
            let at = format!("{list}/{index}/id");
            self.text(&at, id, LONGEST_NAME);
            if id.is_empty() {
                let says =
                    "This row needs an id that others can point at, such as row-1. Names are for people.";
                self.fault(&at, "id_missing", says);
            } else if !seen.insert(id) {
                self.fault(&at, "id_twice", "Two rows of this list have this id. Give each its own.");
            }
        }
    }

    pub(super) fn named(&mut self, pointer: impl Display + Copy, name: &str, ask: &str) {
        self.text(pointer, name, LONGEST_NAME);
        if name.trim().is_empty() {
            self.fault(pointer, "name_missing", ask);
        }
    }

    pub(super) fn bore(
        &mut self,
        pointer: impl Display + Copy,
        bore: Option<&TapeEntry>,
        diameter: Option<&TapeEntry>,
    ) {
        self.distance(pointer, bore);
        if let (Some(bore), Some(diameter)) = (bore, diameter)
            && bore.number().nanometres() >= diameter.number().nanometres()
        {
            self.fault(pointer, "bore_too_wide", "The bore is as wide as the bar. Check both.");
        }
    }

    pub(super) fn point(&mut self, at: impl Display + Copy, point: &PointForm) {
        self.height_above(format_args!("{at}/height"), point.height.as_ref());
        self.distance(format_args!("{at}/good_to"), point.good_to.as_ref());
    }
}
