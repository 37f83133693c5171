//! Faults of the search for a cause.

use super::checker::{Checker, LONGEST_LIST, LONGEST_NAME, LONGEST_NOTE};
use crate::diagnosis::Diagnosis;

impl Checker {
    pub(super) fn diagnosis(&mut self, diagnosis: &Diagnosis) {
        let Diagnosis { checks, causes } = diagnosis;
        self.list("/diagnosis/checks", checks.len(), LONGEST_LIST);
        for (index, made) in checks.iter().enumerate() {
            self.text(format_args!("/diagnosis/checks/{index}/done/by"), &made.done.by, LONGEST_NAME);
            if checks[..index].iter().any(|other| other.what == made.what) {
                let at = format!("/diagnosis/checks/{index}/what");
                self.fault(at, "key_twice", "This check is listed twice. Remove one.");
            }
        }
        self.list("/diagnosis/causes", causes.len(), LONGEST_LIST);
        for (index, cause) in causes.iter().enumerate() {
            let at = |field: &str| format!("/diagnosis/causes/{index}/{field}");
            self.text(&*at("note"), &cause.note, LONGEST_NOTE);
            self.text(&*at("mended_note"), &cause.mended_note, LONGEST_NOTE);
            if causes[..index].iter().any(|other| other.what == cause.what) {
                self.fault(at("what"), "key_twice", "This cause is listed twice. Remove one.");
            }
        }
    }
}
