//! Sheets of readings.

use super::checker::{Checker, LONGEST_NAME, LONGEST_NOTE, MOST_REPEATS};
use crate::{Job, Sheet};

impl Checker {
    pub(super) fn sheet(&mut self, index: usize, sheet: &Sheet, job: &Job) {
        let at = |field: &str| format!("/sheets/{index}/{field}");
        if !sheet.after.is_empty() && !job.setups.rounds.iter().any(|round| round.id == sheet.after) {
            self.fault(
                at("after"),
                "unknown_round",
                "These measurements follow an adjustment that is not recorded. Leave this empty for as found, or record what was installed.",
            );
        }
        self.text(&at("method_name"), &sheet.method_name, LONGEST_NAME);
        self.text(&at("note"), &sheet.note, LONGEST_NOTE);
        self.height(&at("height"), &sheet.height, &job.rig);
        for (side, readings) in [("left", &sheet.left), ("right", &sheet.right)] {
            self.list(&at(side), readings.len(), MOST_REPEATS);
            for (place, reading) in readings.iter().enumerate() {
                self.distance(format_args!("{}/{place}", at(side)), reading.as_ref());
            }
        }
        for (field, entry) in
            [("plumb_drop", &sheet.plumb_drop), ("feature_uncertainty", &sheet.feature_uncertainty)]
        {
            self.distance(&at(field), entry.as_ref());
        }
        if let Some(instrument) = &sheet.instrument {
            self.text(&at("instrument/id"), &instrument.id, LONGEST_NAME);
            self.size(&at("instrument/resolution"), Some(&instrument.resolution));
            self.distance(&at("instrument/good_to"), Some(&instrument.good_to));
        }
        for (field, entry) in [("resolution", &sheet.resolution), ("between_points", &sheet.between_points)] {
            self.size(&at(field), entry.as_ref());
        }
    }
}
