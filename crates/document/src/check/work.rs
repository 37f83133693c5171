//! What was ticked and torqued, and what was agreed at the end.

use super::checker::{Checker, LONGEST_LIST, LONGEST_NAME, LONGEST_NOTE, MOST_HOLES};
use crate::{Proof, Work};

impl Checker {
    pub(super) fn work(&mut self, work: &Work) {
        self.text("/bolt_up/by", &work.by, LONGEST_NAME);
        for (field, length) in [
            ("steps", work.steps.len()),
            ("own", work.own.len()),
            ("order", work.order.len()),
            ("fasteners", work.fasteners.len()),
            ("parts", work.parts.len()),
            ("tools", work.tools.len()),
            ("taken_off", work.taken_off.len()),
        ] {
            self.list(format_args!("/bolt_up/{field}"), length, LONGEST_LIST);
        }
        self.list("/bolt_up/drills", work.drills.len(), MOST_HOLES);
        self.ids("/bolt_up/drills", work.drills.iter().map(|drill| drill.id.as_str()));
        self.keys("steps", work.steps.iter().map(|record| record.key.as_str()));
        self.keys("own", work.own.iter().map(|own| own.key.as_str()));
        self.keys("fasteners", work.fasteners.iter().map(|form| form.key.as_str()));
        self.keys("parts", work.parts.iter().map(|part| part.key.as_str()));
        for (index, record) in work.steps.iter().enumerate() {
            for (field, text) in [
                ("against", &record.against),
                ("struck", &record.struck),
                ("note", &record.note),
                ("read", &record.read),
                ("by_ids", &record.by_ids),
            ] {
                self.text(format_args!("/bolt_up/steps/{index}/{field}"), text, LONGEST_NOTE);
            }
        }
        for (index, own) in work.own.iter().enumerate() {
            self.named(format_args!("/bolt_up/own/{index}/does"), &own.does, "Enter what has to be done.");
        }
        for (index, form) in work.fasteners.iter().enumerate() {
            let at = format!("/bolt_up/fasteners/{index}");
            self.size(format_args!("{at}/length"), form.length.as_ref());
            self.size(format_args!("{at}/hole"), form.hole.as_ref());
            self.size(format_args!("{at}/grip"), form.grip.as_ref());
            self.size(format_args!("{at}/washer"), form.washer.as_ref());
            for (field, text) in [("name", &form.name), ("reused_from", &form.reused_from)] {
                self.text(format_args!("{at}/{field}"), text, LONGEST_NAME);
            }
            for (field, text) in [("access", &form.access), ("struck", &form.struck)] {
                self.text(format_args!("{at}/{field}"), text, LONGEST_NOTE);
            }
            if let Some(tight) = &form.tight
                && tight.torque.is_none()
                && tight.by_feel_because.trim().is_empty()
            {
                self.fault(
                    format_args!("{at}/tight"),
                    "neither_torque_nor_reason",
                    "Enter the torque you tightened it to, or why it was done by feel.",
                );
            }
        }
        for (index, part) in work.parts.iter().enumerate() {
            for (field, text) in [("name", &part.name), ("until", &part.until)] {
                self.text(format_args!("/bolt_up/parts/{index}/{field}"), text, LONGEST_NAME);
            }
            self.text(format_args!("/bolt_up/parts/{index}/note"), &part.note, LONGEST_NOTE);
        }
        for (index, taken) in work.taken_off.iter().enumerate() {
            let ask = "Enter what was taken off, for example the brake line clip.";
            self.named(format_args!("/bolt_up/taken_off/{index}/name"), &taken.name, ask);
            self.text(format_args!("/bolt_up/taken_off/{index}/stays_off"), &taken.stays_off, LONGEST_NOTE);
        }
        for (index, drill) in work.drills.iter().enumerate() {
            let ask = "Say which hole it is, such as the bracket's side hole.";
            self.named(format_args!("/bolt_up/drills/{index}/name"), &drill.name, ask);
            self.size(format_args!("/bolt_up/drills/{index}/size"), drill.size.as_ref());
        }
        for (at, corners) in
            [("corners_before", &work.corners_before), ("corners_after", &work.corners_after)]
        {
            for (field, _, entry) in corners.each() {
                self.distance(format_args!("/bolt_up/{at}/{field}"), entry);
            }
        }
    }

    /// Lines are told apart by their keys.
    fn keys<'a>(&mut self, list: &str, keys: impl Iterator<Item = &'a str>) {
        self.keys_at(&format!("/bolt_up/{list}"), keys);
    }

    fn keys_at<'a>(&mut self, list: &str, keys: impl Iterator<Item = &'a str>) {
        let mut seen = std::collections::HashSet::new();
        for (index, key) in keys.enumerate() {
            let at = format!("{list}/{index}/key");
            self.named(&at, key, "This line has no key.");
            if !seen.insert(key) {
                self.fault(&at, "key_twice", "Two entries are for the same line. Remove one.");
            }
        }
    }

    pub(super) fn proof(&mut self, proof: &Proof) {
        self.list("/proof/road", proof.road.len(), LONGEST_LIST);
        self.list("/proof/reminders", proof.reminders.len(), LONGEST_LIST);
        for (field, text) in
            [("by", &proof.by), ("inspection", &proof.inspection), ("odometer", &proof.odometer)]
        {
            self.text(format_args!("/proof/{field}"), text, LONGEST_NAME);
        }
        for (field, text) in [
            ("photographs", &proof.photographs),
            ("deviations", &proof.deviations),
            ("defects", &proof.defects),
            ("trail", &proof.trail),
        ] {
            self.text(format_args!("/proof/{field}"), text, LONGEST_NOTE);
        }
        for (index, record) in proof.road.iter().enumerate() {
            self.text(format_args!("/proof/road/{index}/note"), &record.note, LONGEST_NOTE);
            if proof.road[..index].iter().any(|other| other.step == record.step) {
                self.fault(
                    format_args!("/proof/road/{index}/step"),
                    "key_twice",
                    "This road test step is listed twice. Remove one.",
                );
            }
        }
        let at = "/proof/acceptances";
        self.list(at, proof.acceptances.len(), LONGEST_LIST);
        self.keys_at(at, proof.acceptances.iter().map(|accepted| accepted.key.as_str()));
        for (index, accepted) in proof.acceptances.iter().enumerate() {
            self.text(format_args!("{at}/{index}/because"), &accepted.because, LONGEST_NOTE);
            // A finding quotes a complaint whole.
            self.text(format_args!("{at}/{index}/said"), &accepted.said, 2 * LONGEST_NOTE);
            self.text(format_args!("{at}/{index}/by"), &accepted.by, LONGEST_NAME);
        }
        for (index, record) in proof.reminders.iter().enumerate() {
            self.text(format_args!("/proof/reminders/{index}/note"), &record.note, LONGEST_NOTE);
        }
        self.size("/proof/looked_at/left_link", proof.looked_at.left_link.as_ref());
        self.size("/proof/looked_at/right_link", proof.looked_at.right_link.as_ref());
    }
}
