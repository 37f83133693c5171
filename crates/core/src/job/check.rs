//! Whether a document makes sense: every fault at once, each with its place.
//!
//! What cannot be computed yet, or cannot exist in geometry, is no fault of the
//! document: a half-typed job must be kept. Those are told in the results.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::document::{AdjusterForm, Bar, DOCUMENT_VERSION, Job, Rig, Sheet, ThreadedEndForm};
use crate::measure::TapeEntry;

/// Most characters of a title or a name.
pub const LONGEST_NAME: usize = 120;
/// Most characters of a note or a complaint.
pub const LONGEST_NOTE: usize = 4000;
/// Most entries of any list in a job.
pub const LONGEST_LIST: usize = 200;
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

struct Checker {
    faults: Vec<FieldError>,
}

impl Checker {
    fn fault(&mut self, pointer: impl Into<String>, code: &str, message: impl Into<String>) {
        self.faults.push(FieldError::new(pointer, code, message));
    }

    fn distance(&mut self, pointer: &str, entry: Option<&TapeEntry>) {
        if entry.is_some_and(|entry| entry.number().nanometres() < 0) {
            self.fault(pointer, "negative_distance", "A distance has no minus sign. Type it without.");
        }
    }

    fn size(&mut self, pointer: &str, entry: Option<&TapeEntry>) {
        self.distance(pointer, entry);
        if entry.is_some_and(|entry| entry.number().nanometres() == 0) {
            self.fault(pointer, "nought", "This cannot be nought. Type the size, or leave it empty.");
        }
    }

    fn text(&mut self, pointer: &str, text: &str, most: usize) {
        if text.chars().count() > most {
            self.fault(
                pointer,
                "too_long_text",
                format!("At most {most} characters fit here. Shorten it, or put the rest into the notes."),
            );
        }
    }

    fn list(&mut self, pointer: &str, length: usize, most: usize) {
        if length > most {
            self.fault(pointer, "too_many", format!("At most {most} fit here. Take some out."));
        }
    }

    fn rig(&mut self, rig: &Rig) {
        self.text("/rig/vehicle", &rig.vehicle, LONGEST_NAME);
        self.list("/rig/heights", rig.heights.len(), LONGEST_LIST);
        for (pointer, entry) in
            [("/rig/bump", &rig.bump), ("/rig/droop", &rig.droop), ("/rig/usual_spread", &rig.usual_spread)]
        {
            self.distance(pointer, entry.as_ref());
        }
        for (pointer, entry) in [
            ("/rig/track", &rig.track),
            ("/rig/tyre_diameter", &rig.tyre_diameter),
            ("/rig/tyre_width", &rig.tyre_width),
            ("/rig/frame_width", &rig.frame_width),
            ("/rig/tolerance", &rig.tolerance),
        ] {
            self.size(pointer, entry.as_ref());
        }
        for (index, height) in rig.heights.iter().enumerate() {
            let pointer = format!("/rig/heights/{index}/name");
            self.text(&pointer, &height.name, LONGEST_NAME);
            if height.name.trim().is_empty() {
                self.fault(&pointer, "name_missing", "A height needs a name, such as raised.");
            } else if rig.heights[..index].iter().any(|other| other.name == height.name) {
                self.fault(&pointer, "name_twice", "Two heights have this name. Give each its own.");
            }
        }
        self.height_name("/rig/driven_height", &rig.driven_height, rig);
    }

    fn height_name(&mut self, pointer: &str, name: &str, rig: &Rig) {
        if !name.is_empty() && !rig.heights.iter().any(|height| height.name == name) {
            self.fault(
                pointer,
                "unknown_height",
                format!("There is no height called {name:?}. Pick one of the rig's heights."),
            );
        }
    }

    fn sheet(&mut self, index: usize, sheet: &Sheet, job: &Job) {
        let at = |field: &str| format!("/sheets/{index}/{field}");
        if job.sheets[..index].iter().any(|other| other.id == sheet.id) {
            self.fault(at("id"), "id_twice", "Two sheets have this id. Give each its own.");
        }
        if sheet.after_setting as usize > job.setups.as_built.len() {
            self.fault(
                at("after_setting"),
                "setting_missing",
                "This sheet says the bar had been set more often than it has been. Lower the count.",
            );
        }
        self.text(&at("method_name"), &sheet.method_name, LONGEST_NAME);
        self.text(&at("note"), &sheet.note, LONGEST_NOTE);
        self.height_name(&at("height"), &sheet.height, &job.rig);
        for (side, readings) in [("left", &sheet.left), ("right", &sheet.right)] {
            self.list(&at(side), readings.len(), MOST_REPEATS);
            for (place, reading) in readings.iter().enumerate() {
                self.distance(&format!("{}/{place}", at(side)), reading.as_ref());
            }
        }
        for (field, entry) in
            [("plumb_drop", &sheet.plumb_drop), ("feature_uncertainty", &sheet.feature_uncertainty)]
        {
            self.distance(&at(field), entry.as_ref());
        }
        for (field, entry) in [("resolution", &sheet.resolution), ("between_points", &sheet.between_points)] {
            self.size(&at(field), entry.as_ref());
        }
    }

    fn bar(&mut self, bar: &Bar, rig: &Rig) {
        let at = "/setups/as_found";
        self.size(&format!("{at}/length"), bar.length.as_ref());
        for (field, entry) in [
            ("frame_eye_height", &bar.frame_eye_height),
            ("axle_eye_height", &bar.axle_eye_height),
            ("heights_good_to", &bar.heights_good_to),
        ] {
            self.distance(&format!("{at}/{field}"), entry.as_ref());
        }
        self.height_name(&format!("{at}/height"), &bar.height, rig);
    }

    fn adjuster(&mut self, adjuster: &AdjusterForm) {
        let at = "/setups/adjuster";
        self.size(&format!("{at}/made_min"), adjuster.made_min.as_ref());
        self.size(&format!("{at}/made_max"), adjuster.made_max.as_ref());
        if let (Some(least), Some(most)) = (&adjuster.made_min, &adjuster.made_max)
            && least.number().nanometres() > most.number().nanometres()
        {
            self.fault(
                format!("{at}/made_min"),
                "range_turned_round",
                "The shortest length is longer than the longest. Swap them.",
            );
        }
        for (name, end) in [("first", &adjuster.first), ("second", &adjuster.second)] {
            self.threaded_end(&format!("{at}/{name}"), end);
        }
    }

    fn threaded_end(&mut self, at: &str, end: &ThreadedEndForm) {
        for (field, entry) in [
            ("engagement", &end.engagement),
            ("shank", &end.shank),
            ("tapped_depth", &end.tapped_depth),
            ("witness", &end.witness),
        ] {
            self.distance(&format!("{at}/{field}"), entry.as_ref());
        }
        if let (Some(engagement), Some(shank)) = (&end.engagement, &end.shank)
            && engagement.number().nanometres() > shank.number().nanometres()
        {
            self.fault(
                format!("{at}/engagement"),
                "more_thread_than_shank",
                "More thread is in than the shank has. Check both.",
            );
        }
    }
}

/// Every fault of a document, in the document's own order.
#[must_use]
pub fn check(job: &Job) -> Vec<FieldError> {
    let mut checker = Checker { faults: Vec::new() };
    if job.version != DOCUMENT_VERSION {
        checker.fault(
            "/version",
            "unknown_version",
            format!(
                "This program reads version {DOCUMENT_VERSION}. Open the job with the program that wrote it."
            ),
        );
    }
    if job.title.trim().is_empty() {
        checker.fault("/title", "name_missing", "The job needs a name. Type one.");
    }
    checker.text("/title", &job.title, LONGEST_NAME);
    checker.text("/notes", &job.notes, LONGEST_NOTE);
    checker.list("/complaints", job.complaints.len(), LONGEST_LIST);
    for (index, complaint) in job.complaints.iter().enumerate() {
        checker.text(&format!("/complaints/{index}/text"), &complaint.text, LONGEST_NOTE);
    }
    checker.rig(&job.rig);
    checker.list("/sheets", job.sheets.len(), LONGEST_LIST);
    for (index, sheet) in job.sheets.iter().enumerate() {
        checker.sheet(index, sheet, job);
    }
    checker.bar(&job.setups.as_found, &job.rig);
    checker.adjuster(&job.setups.adjuster);
    checker.list("/setups/as_built", job.setups.as_built.len(), LONGEST_LIST);
    for (index, made) in job.setups.as_built.iter().enumerate() {
        checker.size(&format!("/setups/as_built/{index}/length"), Some(&made.length));
    }
    checker.faults
}
