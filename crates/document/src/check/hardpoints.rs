//! Points, arms, obstacles.

use std::fmt::Display;

use super::checker::{Checker, LONGEST_NAME, MOST_OBSTACLES};
use crate::Rig;
use crate::hardpoints::{Arm, Hardpoints, JointForm, ObstacleForm};

/// The stiffest that is taken for an arm, N/mm: some ten times a solid bar.
const MOST_STIFFNESS: f64 = 1e6;

impl Checker {
    pub(super) fn joint(&mut self, at: impl Display + Copy, joint: &JointForm) {
        let limit = joint.limit.as_ref().map(|limit| limit.angle().to_degrees());
        if limit.is_some_and(|limit| !(1.0..=60.0).contains(&limit)) {
            self.fault(
                format!("{at}/limit"),
                "limit_out_of_range",
                "Joint angle must be 1° to 60° each way. Enter half of the total angle on the spec sheet.",
            );
        }
    }

    pub(super) fn arm(&mut self, at: impl Display + Copy, arm: &Arm) {
        for (field, entry) in
            [("length", &arm.length), ("diameter", &arm.diameter), ("bush_spacing", &arm.bush_spacing)]
        {
            self.size(format_args!("{at}/{field}"), entry.as_ref());
        }
        self.point(format_args!("{at}/body"), &arm.body);
        self.point(format_args!("{at}/axle"), &arm.axle);
        self.joint(format_args!("{at}/body_joint"), &arm.body_joint);
        self.joint(format_args!("{at}/axle_joint"), &arm.axle_joint);
        self.stiffness(at, arm.stiffness_n_per_mm);
    }

    fn stiffness(&mut self, at: impl Display + Copy, typed: Option<f64>) {
        if typed.is_some_and(|k| !(k > 0.0 && k <= MOST_STIFFNESS)) {
            self.fault(
                format!("{at}/stiffness_n_per_mm"),
                "no_stiffness",
                "Stiffness must be more than zero and at most a million. Enter it in N/mm, or leave it out.",
            );
        }
    }

    pub(super) fn hardpoints(&mut self, points: &Hardpoints, rig: &Rig) {
        let at = "/hardpoints";
        self.height(format_args!("{at}/height"), &points.height, rig);
        self.height(format_args!("{at}/tightened_height"), &points.tightened_height, rig);
        self.stiffness(format_args!("{at}/bar"), points.bar.stiffness_n_per_mm);
        self.size(format_args!("{at}/spring_front_half"), points.spring_front_half.as_ref());
        let arms = &points.arms;
        for (name, arm) in [
            ("lower_left", &arms.lower_left),
            ("lower_right", &arms.lower_right),
            ("upper_left", &arms.upper_left),
            ("upper_right", &arms.upper_right),
        ] {
            self.arm(format_args!("{at}/arms/{name}"), arm);
        }
        let bar = &points.bar;
        self.joint(format_args!("{at}/bar/frame_joint"), &bar.frame_joint);
        self.joint(format_args!("{at}/bar/axle_joint"), &bar.axle_joint);
        self.size(format_args!("{at}/bar/diameter"), bar.diameter.as_ref());
        if let Some(bend) = &bar.bend {
            self.distance(format_args!("{at}/bar/bend/from_frame_eye"), Some(&bend.from_frame_eye));
            self.distance(format_args!("{at}/bar/bend/offset"), Some(&bend.offset));
        }
        if let Some(steering) = &points.steering {
            self.point(format_args!("{at}/steering/pitman"), &steering.pitman);
            self.point(format_args!("{at}/steering/knuckle"), &steering.knuckle);
            self.size(
                format_args!("{at}/steering/kingpin_from_centre"),
                steering.kingpin_from_centre.as_ref(),
            );
            self.size(format_args!("{at}/steering/diameter"), steering.diameter.as_ref());
        }
        if let Some(tie_rod) = &points.tie_rod {
            self.point(format_args!("{at}/tie_rod/end"), &tie_rod.end);
            self.size(format_args!("{at}/tie_rod/diameter"), tie_rod.diameter.as_ref());
            self.distance(format_args!("{at}/tie_rod/by"), tie_rod.by.as_ref());
        }
        self.size(format_args!("{at}/axle_tube"), points.axle_tube.as_ref());
        for (name, bracket) in
            [("frame_bracket", &points.bar.frame_bracket), ("axle_bracket", &points.bar.axle_bracket)]
        {
            self.size(format_args!("{at}/bar/{name}/across"), bracket.across.as_ref());
            self.size(format_args!("{at}/bar/{name}/along"), bracket.along.as_ref());
        }
        if let Some(shaft) = &points.driveshaft {
            self.point(format_args!("{at}/driveshaft/body"), &shaft.body);
            self.point(format_args!("{at}/driveshaft/axle"), &shaft.axle);
            self.size(format_args!("{at}/driveshaft/diameter"), Some(&shaft.diameter));
        }
        self.obstacles(&points.obstacles);
    }

    fn obstacles(&mut self, obstacles: &[ObstacleForm]) {
        let at = "/hardpoints";
        self.list(format_args!("{at}/obstacles"), obstacles.len(), MOST_OBSTACLES);
        for (index, obstacle) in obstacles.iter().enumerate() {
            let here = format!("{at}/obstacles/{index}");
            self.text(format_args!("{here}/name"), &obstacle.name, LONGEST_NAME);
            if obstacle.name.trim().is_empty() {
                self.fault(
                    format!("{here}/name"),
                    "name_missing",
                    "An obstacle needs a name, such as old bracket.",
                );
            } else if obstacles[..index].iter().any(|other| other.name == obstacle.name) {
                self.fault(
                    format!("{here}/name"),
                    "name_twice",
                    "Two obstacles have the same name. Rename one.",
                );
            }
            self.size(format_args!("{here}/thickness"), Some(&obstacle.thickness));
            self.point(format_args!("{here}/from"), &obstacle.from);
            if let Some(to) = &obstacle.to {
                self.point(format_args!("{here}/to"), to);
            }
        }
    }
}
