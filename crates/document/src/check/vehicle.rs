//! What it weighs and stands on.

use super::checker::Checker;
use crate::Vehicle;

impl Checker {
    pub(super) fn vehicle(&mut self, form: &Vehicle) {
        for (field, entry) in [
            ("wheelbase", &form.wheelbase),
            ("centre_of_gravity", &form.centre_of_gravity),
            ("spring_spacing", &form.spring_spacing),
            ("other_spring_spacing", &form.other_spring_spacing),
            ("other_sway_bar/diameter", &form.other_sway_bar.diameter),
            ("other_sway_bar/arm", &form.other_sway_bar.arm),
            ("other_sway_bar/length", &form.other_sway_bar.length),
            ("other_track", &form.other_track),
            ("other_roll_centre", &form.other_roll_centre),
            ("roof_height", &form.roof_height),
        ] {
            self.size(format_args!("/vehicle/{field}"), entry.as_ref());
        }
        self.distance("/vehicle/other_bump", form.other_bump.as_ref());
        self.distance("/vehicle/other_droop", form.other_droop.as_ref());
        self.distance("/vehicle/centre_of_gravity_good_to", form.centre_of_gravity_good_to.as_ref());
        for (left, right, name) in [
            (&form.left_corner, &form.right_corner, "left_corner"),
            (&form.other_left_corner, &form.other_right_corner, "other_left_corner"),
        ] {
            if left.is_some() != right.is_some() {
                self.fault(
                    format!("/vehicle/{name}"),
                    "one_corner",
                    "Only one corner of this axle was weighed. Enter both, or the axle total.",
                );
            }
        }
    }
}
