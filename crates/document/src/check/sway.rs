//! The sway bar.

use super::checker::{Checker, MOST_HOLES, MOST_LOCK_DEGREES, MOST_SHOCKS};
use crate::sway::RoomForm;
use crate::{ArmHoleId, Sway};
use std::fmt::Display;

impl Checker {
    fn tube_and_mounts(&mut self, form: &RoomForm) {
        for (field, entry) in [
            ("tube_outside", &form.tube_outside),
            ("tube_length", &form.tube_length),
            ("mount_from_centre", &form.mount_from_centre),
            ("mount_across", &form.mount_across),
            ("mount_along", &form.mount_along),
        ] {
            self.size(format_args!("/sway/room/{field}"), entry.as_ref());
        }
    }

    pub(super) fn sway(&mut self, form: &Sway) {
        self.size("/sway/shim", form.shim.as_ref());
        self.size("/sway/old_bar/diameter", form.old_bar.diameter.as_ref());
        self.bore("/sway/old_bar/bore", form.old_bar.bore.as_ref(), form.old_bar.diameter.as_ref());
        self.size("/sway/old_bar/active_length", form.old_bar.active_length.as_ref());
        self.size("/sway/old_bar/arm", form.old_bar.arm.as_ref());
        let at = "/sway";
        self.list(format_args!("{at}/holes"), form.holes.len(), MOST_HOLES);
        self.list(format_args!("{at}/bolts"), form.bolts.len(), MOST_HOLES);
        self.list(format_args!("{at}/build_stages"), form.build_stages.len(), MOST_HOLES);
        for (index, stage) in form.build_stages.iter().enumerate() {
            self.named(
                format_args!("{at}/build_stages/{index}/name"),
                &stage.name,
                "A later build needs a name, such as next lift.",
            );
        }
        for (index, hole) in form.holes.iter().enumerate() {
            self.size(format_args!("{at}/holes/{index}/arm"), Some(&hole.arm));
        }
        self.ids("/sway/holes", form.holes.iter().map(|hole| hole.id.as_str()));
        self.arm_hole("/sway/hole", Some(&form.hole), form);
        for (field, entry) in [
            ("eye_from_centre", &form.eye_from_centre),
            ("link", &form.link),
            ("diameter", &form.diameter),
            ("active_length", &form.active_length),
            ("shock_stroke", &form.shock_stroke),
            ("bush_spacing", &form.bush_spacing),
            ("rod/eye_to_tip", &form.rod.eye_to_tip),
            ("rod/shank", &form.rod.shank),
            ("rod/jam_nut", &form.rod.jam_nut),
            ("room/arm_thickness", &form.room.arm_thickness),
            ("room/link_thickness", &form.room.link_thickness),
            ("room/rail_underside", &form.room.rail_underside),
            ("room/rail_height", &form.room.rail_height),
        ] {
            self.size(format_args!("{at}/{field}"), entry.as_ref());
        }
        self.tube_and_mounts(&form.room);
        self.bore(format_args!("{at}/bore"), form.bore.as_ref(), form.diameter.as_ref());
        for (field, point) in
            [("axis", &form.axis), ("far_end", &form.far_end), ("pins/stow", &form.pins.stow)]
        {
            self.point(format_args!("{at}/{field}"), point);
        }
        for (field, number, most) in
            [("allowable_mpa", form.allowable_mpa, 2000.0), ("soft_percent", form.soft_percent, 100.0)]
        {
            if number.is_some_and(|number| !(number > 0.0 && number <= most)) {
                self.fault(
                    format!("{at}/{field}"),
                    "out_of_range",
                    format!("Must be more than zero and at most {most:.0}. Enter it, or leave it out."),
                );
            }
        }
        self.sway_parts(form);
    }

    /// A hole of the sway arm that is pointed at is one of its holes.
    pub(super) fn arm_hole(&mut self, pointer: impl Display + Copy, hole: Option<&ArmHoleId>, form: &Sway) {
        let Some(hole) = hole.filter(|hole| !hole.is_empty()) else { return };
        if !form.holes.iter().any(|row| row.id == *hole) {
            let says = format!(
                "The sway bar arm has no hole with the id {:?}. Choose one of its holes.",
                hole.as_str()
            );
            self.fault(pointer, "unknown_hole", says);
        }
    }

    pub(super) fn sway_parts(&mut self, form: &Sway) {
        let at = "/sway";
        for (index, bar) in form.splined.bars.iter().enumerate() {
            let here = format!("{at}/splined/bars/{index}");
            self.size(format_args!("{here}/length"), Some(&bar.length));
            self.size(format_args!("{here}/diameter"), Some(&bar.diameter));
            self.bore(format_args!("{here}/bore"), bar.bore.as_ref(), Some(&bar.diameter));
        }
        if let Some(tubes) = &form.splined.tubes {
            self.size(format_args!("{at}/splined/tubes/outside"), tubes.outside.as_ref());
            self.size(format_args!("{at}/splined/tubes/below_edge"), tubes.below_edge.as_ref());
            self.size(format_args!("{at}/splined/tubes/from_cross_member"), tubes.from_cross_member.as_ref());
        }
        self.list(format_args!("{at}/splined/bars"), form.splined.bars.len(), MOST_HOLES);
        self.list(format_args!("{at}/splined/arms"), form.splined.arms.len(), MOST_HOLES);
        for (index, arm) in form.splined.arms.iter().enumerate() {
            self.size(format_args!("{at}/splined/arms/{index}"), Some(arm));
        }
        self.list(format_args!("{at}/room/shocks"), form.room.shocks.len(), MOST_SHOCKS);
        for (index, shock) in form.room.shocks.iter().enumerate() {
            let here = format!("{at}/room/shocks/{index}");
            self.named(format_args!("{here}/name"), &shock.name, "A shock needs a name, such as shock.");
            self.point(format_args!("{here}/body"), &shock.body);
            self.point(format_args!("{here}/axle"), &shock.axle);
            self.size(format_args!("{here}/thickness"), Some(&shock.thickness));
        }
        self.list(format_args!("{at}/room/panels"), form.room.panels.len(), MOST_HOLES);
        for (index, panel) in form.room.panels.iter().enumerate() {
            let here = format!("{at}/room/panels/{index}/name");
            self.named(&here, &panel.name, "A panel needs a name, such as inner fender.");
        }
        for (index, bolt) in form.bolts.iter().enumerate() {
            let here = format!("{at}/bolts/{index}");
            self.named(
                format_args!("{here}/name"),
                &bolt.name,
                "A bolt needs a name, such as lower link bolt.",
            );
            self.size(format_args!("{here}/length"), Some(&bolt.length));
            self.distance(format_args!("{here}/room"), bolt.room.as_ref());
        }
        let lock = form.room.steering_lock.as_ref().map_or(0.0, |lock| lock.angle().to_degrees().abs());
        if lock > MOST_LOCK_DEGREES {
            self.fault(
                format!("{at}/room/steering_lock"),
                "out_of_range",
                format!(
                    "Steering lock: {MOST_LOCK_DEGREES:.0}° each way at most. Enter half of the total angle."
                ),
            );
        }
    }
}
