//! Parts tried, the bolt, the built bar.

use super::checker::{Checker, LONGEST_NAME, MOST_HOLES};
use crate::document::Bracketing;

impl Checker {
    pub(super) fn bracket(&mut self, form: &Bracketing) {
        let at = "/bracket";
        self.list(&format!("{at}/bars"), form.bars.len(), MOST_HOLES);
        self.list(&format!("{at}/brackets"), form.brackets.len(), MOST_HOLES);
        self.list(&format!("{at}/drag_links"), form.drag_links.len(), MOST_HOLES);
        self.list(&format!("{at}/joints"), form.joints.len(), MOST_HOLES);
        let names: [(&str, Vec<&str>); 3] = [
            ("bars", form.bars.iter().map(|part| part.name.as_str()).collect()),
            ("brackets", form.brackets.iter().map(|part| part.name.as_str()).collect()),
            ("drag_links", form.drag_links.iter().map(|part| part.name.as_str()).collect()),
        ];
        for (list, names) in names {
            for (index, name) in names.iter().enumerate() {
                let pointer = format!("{at}/{list}/{index}/name");
                self.text(&pointer, name, LONGEST_NAME);
                if name.trim().is_empty() {
                    self.fault(&pointer, "name_missing", "A part needs a name, such as three-hole drop.");
                } else if names[..index].contains(name) {
                    self.fault(
                        &pointer,
                        "name_twice",
                        "Two parts of this job have this name. Give each its own.",
                    );
                }
            }
        }
        for (index, bracket) in form.brackets.iter().enumerate() {
            self.holes(&format!("{at}/brackets/{index}/holes"), &bracket.holes);
        }
        for (index, bar) in form.bars.iter().enumerate() {
            for (field, entry) in [
                ("made_min", &bar.made_min),
                ("made_max", &bar.made_max),
                ("outside", &bar.outside),
                ("wall", &bar.wall),
                ("shank", &bar.shank),
                ("tapped_depth", &bar.tapped_depth),
                ("least_engagement", &bar.least_engagement),
            ] {
                self.size(&format!("{at}/bars/{index}/{field}"), entry.as_ref());
            }
        }
        if form.bolt.torque_nm.is_some_and(|torque| !(torque.is_finite() && torque > 0.0)) {
            self.fault(
                format!("{at}/bolt/torque_nm"),
                "not_positive",
                "This is more than zero. Type it, or leave it out.",
            );
        }
        for (field, entry) in [
            ("gap", &form.builder.gap),
            ("frame_shell", &form.builder.frame_shell),
            ("axle_shell", &form.builder.axle_shell),
            ("stock", &form.builder.stock),
        ] {
            self.size(&format!("{at}/builder/{field}"), entry.as_ref());
        }
        self.size(&format!("{at}/swing_limit"), form.swing_limit.as_ref());
        self.size(&format!("{at}/ear_width"), form.ear_width.as_ref());
        self.distance(&format!("{at}/bolt/play"), form.bolt.play.as_ref());
    }
}
