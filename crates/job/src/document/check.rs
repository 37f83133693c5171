//! Whether a document makes sense: every fault at once, each with its place.
//!
//! What cannot be computed yet, or cannot exist in geometry, is no fault of the
//! document: a half-typed job must be kept. Those are told in the results.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::document::bracketing::Bracketing;
use crate::document::hardpoints::{Arm, Hardpoints, JointForm, PointForm};
use crate::document::sway::Sway;
use crate::document::vehicle::Vehicle;
use crate::document::{AdjusterForm, Bar, DOCUMENT_VERSION, Hole, Job, Rig, Setups, Sheet, ThreadedEndForm};
use derecho_core::measure::TapeEntry;

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
const MOST_LOCK_DEGREES: f64 = 60.0;
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
            ("/rig/bump_half_spacing", &rig.bump_half_spacing),
            ("/rig/droop_half_spacing", &rig.droop_half_spacing),
            ("/rig/axle_height", &rig.axle_height),
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

    fn holes(&mut self, pointer: &str, holes: &[Hole], chosen: (&str, &str)) {
        self.list(pointer, holes.len(), MOST_HOLES);
        for (index, hole) in holes.iter().enumerate() {
            let at = format!("{pointer}/{index}/name");
            self.text(&at, &hole.name, LONGEST_NAME);
            if hole.name.trim().is_empty() {
                self.fault(&at, "name_missing", "A hole needs a name, such as hole 2.");
            } else if holes[..index].iter().any(|other| other.name == hole.name) {
                self.fault(&at, "name_twice", "Two holes of this bracket have this name. Give each its own.");
            }
        }
        let (at, name) = chosen;
        if !name.is_empty() && !holes.iter().any(|hole| hole.name == name) {
            self.fault(
                at,
                "unknown_hole",
                format!("There is no hole called {name:?} here. Pick one of the bracket's."),
            );
        }
    }

    fn setups(&mut self, setups: &Setups) {
        let trial = &setups.trial;
        self.holes(
            "/setups/frame_holes",
            &setups.frame_holes,
            ("/setups/trial/frame_hole", trial.frame_hole.as_str()),
        );
        self.holes(
            "/setups/axle_holes",
            &setups.axle_holes,
            ("/setups/trial/axle_hole", trial.axle_hole.as_str()),
        );
    }

    fn point(&mut self, at: &str, point: &PointForm) {
        self.distance(&format!("{at}/height"), point.height.as_ref());
        self.distance(&format!("{at}/good_to"), point.good_to.as_ref());
    }

    fn joint(&mut self, at: &str, joint: &JointForm) {
        let limit = joint.limit.as_ref().map(|limit| limit.angle().to_degrees());
        if limit.is_some_and(|limit| !(1.0..=60.0).contains(&limit)) {
            self.fault(
                format!("{at}/limit"),
                "limit_out_of_range",
                "A joint takes between 1° and 60° either way. Type half of the total angle on the part's sheet.",
            );
        }
    }

    fn arm(&mut self, at: &str, arm: &Arm) {
        for (field, entry) in
            [("length", &arm.length), ("diameter", &arm.diameter), ("bush_spacing", &arm.bush_spacing)]
        {
            self.size(&format!("{at}/{field}"), entry.as_ref());
        }
        self.point(&format!("{at}/body"), &arm.body);
        self.point(&format!("{at}/axle"), &arm.axle);
        self.joint(&format!("{at}/body_joint"), &arm.body_joint);
        self.joint(&format!("{at}/axle_joint"), &arm.axle_joint);
        if arm.stiffness_n_per_mm.is_some_and(|k| !(k.is_finite() && k > 0.0)) {
            self.fault(
                format!("{at}/stiffness_n_per_mm"),
                "no_stiffness",
                "A stiffness is more than nought. Type it in N/mm, or leave it out.",
            );
        }
    }

    fn hardpoints(&mut self, points: &Hardpoints, rig: &Rig) {
        let at = "/hardpoints";
        self.height_name(&format!("{at}/height"), &points.height, rig);
        self.size(&format!("{at}/spring_front_half"), points.spring_front_half.as_ref());
        let arms = &points.arms;
        for (name, arm) in [
            ("lower_left", &arms.lower_left),
            ("lower_right", &arms.lower_right),
            ("upper_left", &arms.upper_left),
            ("upper_right", &arms.upper_right),
        ] {
            self.arm(&format!("{at}/arms/{name}"), arm);
        }
        let bar = &points.bar;
        self.joint(&format!("{at}/bar/frame_joint"), &bar.frame_joint);
        self.joint(&format!("{at}/bar/axle_joint"), &bar.axle_joint);
        self.size(&format!("{at}/bar/diameter"), bar.diameter.as_ref());
        if let Some(bend) = &bar.bend {
            self.distance(&format!("{at}/bar/bend/from_frame_eye"), Some(&bend.from_frame_eye));
            self.distance(&format!("{at}/bar/bend/offset"), Some(&bend.offset));
        }
        if let Some(steering) = &points.steering {
            self.point(&format!("{at}/steering/pitman"), &steering.pitman);
            self.point(&format!("{at}/steering/knuckle"), &steering.knuckle);
            self.size(&format!("{at}/steering/kingpin_from_centre"), steering.kingpin_from_centre.as_ref());
            self.size(&format!("{at}/steering/diameter"), steering.diameter.as_ref());
        }
        let obstacles = &points.obstacles;
        self.list(&format!("{at}/obstacles"), obstacles.len(), MOST_OBSTACLES);
        for (index, obstacle) in obstacles.iter().enumerate() {
            let here = format!("{at}/obstacles/{index}");
            self.text(&format!("{here}/name"), &obstacle.name, LONGEST_NAME);
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
                    "Two obstacles have this name. Give each its own.",
                );
            }
            self.size(&format!("{here}/thickness"), Some(&obstacle.thickness));
            self.point(&format!("{here}/from"), &obstacle.from);
            if let Some(to) = &obstacle.to {
                self.point(&format!("{here}/to"), to);
            }
        }
    }

    fn bracket(&mut self, form: &Bracketing) {
        let at = "/bracket";
        self.list(&format!("{at}/bars"), form.bars.len(), MOST_HOLES);
        self.list(&format!("{at}/brackets"), form.brackets.len(), MOST_HOLES);
        self.list(&format!("{at}/drag_links"), form.drag_links.len(), MOST_HOLES);
        self.list(&format!("{at}/joints"), form.joints.len(), MOST_HOLES);
        self.list(&format!("{at}/kept"), form.kept.len(), LONGEST_LIST);
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
            self.holes(&format!("{at}/brackets/{index}/holes"), &bracket.holes, ("", ""));
        }
        for (index, bar) in form.bars.iter().enumerate() {
            for (field, entry) in [
                ("made_min", &bar.made_min),
                ("made_max", &bar.made_max),
                ("outside", &bar.outside),
                ("wall", &bar.wall),
            ] {
                self.size(&format!("{at}/bars/{index}/{field}"), entry.as_ref());
            }
        }
        if form.bolt.torque_nm.is_some_and(|torque| !(torque.is_finite() && torque > 0.0)) {
            self.fault(
                format!("{at}/bolt/torque_nm"),
                "not_positive",
                "This is more than nought. Type it, or leave it out.",
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
        self.size(&format!("{at}/ear_width"), form.ear_width.as_ref());
        self.distance(&format!("{at}/bolt/play"), form.bolt.play.as_ref());
    }

    fn sway(&mut self, form: &Sway) {
        let at = "/sway";
        self.list(&format!("{at}/holes"), form.holes.len(), MOST_HOLES);
        self.list(&format!("{at}/bolts"), form.bolts.len(), MOST_HOLES);
        for (index, hole) in form.holes.iter().enumerate() {
            self.size(&format!("{at}/holes/{index}"), Some(hole));
        }
        if !form.holes.is_empty() && form.hole >= form.holes.len() {
            self.fault(
                format!("{at}/hole"),
                "unknown_hole",
                "The arm has no such hole. Pick one of its holes.",
            );
        }
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
            self.size(&format!("{at}/{field}"), entry.as_ref());
        }
        self.bore(&format!("{at}/bore"), form.bore.as_ref(), form.diameter.as_ref());
        for (field, point) in
            [("axis", &form.axis), ("far_end", &form.far_end), ("pins/stow", &form.pins.stow)]
        {
            self.point(&format!("{at}/{field}"), point);
        }
        for (field, number, most) in
            [("allowable_mpa", form.allowable_mpa, 2000.0), ("soft_percent", form.soft_percent, 100.0)]
        {
            if number.is_some_and(|number| !(number > 0.0 && number <= most)) {
                self.fault(
                    format!("{at}/{field}"),
                    "out_of_range",
                    format!("This is more than nought and at most {most:.0}. Type it, or leave it out."),
                );
            }
        }
        self.sway_parts(form);
    }

    fn sway_parts(&mut self, form: &Sway) {
        let at = "/sway";
        for (index, bar) in form.splined.bars.iter().enumerate() {
            let here = format!("{at}/splined/bars/{index}");
            self.size(&format!("{here}/length"), Some(&bar.length));
            self.size(&format!("{here}/diameter"), Some(&bar.diameter));
            self.bore(&format!("{here}/bore"), bar.bore.as_ref(), Some(&bar.diameter));
        }
        self.list(&format!("{at}/splined/bars"), form.splined.bars.len(), MOST_HOLES);
        self.list(&format!("{at}/splined/arms"), form.splined.arms.len(), MOST_HOLES);
        for (index, arm) in form.splined.arms.iter().enumerate() {
            self.size(&format!("{at}/splined/arms/{index}"), Some(arm));
        }
        self.list(&format!("{at}/room/shocks"), form.room.shocks.len(), MOST_SHOCKS);
        for (index, shock) in form.room.shocks.iter().enumerate() {
            let here = format!("{at}/room/shocks/{index}");
            self.named(&format!("{here}/name"), &shock.name, "A shock needs a name, such as shock.");
            self.point(&format!("{here}/body"), &shock.body);
            self.point(&format!("{here}/axle"), &shock.axle);
            self.size(&format!("{here}/thickness"), Some(&shock.thickness));
        }
        self.list(&format!("{at}/room/panels"), form.room.panels.len(), MOST_HOLES);
        for (index, panel) in form.room.panels.iter().enumerate() {
            let here = format!("{at}/room/panels/{index}/name");
            self.named(&here, &panel.name, "A panel needs a name, such as inner fender.");
        }
        for (index, bolt) in form.bolts.iter().enumerate() {
            let here = format!("{at}/bolts/{index}");
            self.named(&format!("{here}/name"), &bolt.name, "A bolt needs a name, such as lower link bolt.");
            self.size(&format!("{here}/length"), Some(&bolt.length));
            self.distance(&format!("{here}/room"), bolt.room.as_ref());
        }
        let lock = form.room.steering_lock.as_ref().map_or(0.0, |lock| lock.angle().to_degrees().abs());
        if lock > MOST_LOCK_DEGREES {
            self.fault(
                format!("{at}/room/steering_lock"),
                "out_of_range",
                format!("Tyres steer at most {MOST_LOCK_DEGREES:.0}° either way here. Type half of the whole turn."),
            );
        }
    }

    fn named(&mut self, pointer: &str, name: &str, ask: &str) {
        self.text(pointer, name, LONGEST_NAME);
        if name.trim().is_empty() {
            self.fault(pointer, "name_missing", ask);
        }
    }

    fn bore(&mut self, pointer: &str, bore: Option<&TapeEntry>, diameter: Option<&TapeEntry>) {
        self.distance(pointer, bore);
        if let (Some(bore), Some(diameter)) = (bore, diameter)
            && bore.number().nanometres() >= diameter.number().nanometres()
        {
            self.fault(pointer, "bore_too_wide", "The bore is as wide as the bar. Check both.");
        }
    }

    fn vehicle(&mut self, form: &Vehicle) {
        for (field, entry) in [
            ("wheelbase", &form.wheelbase),
            ("centre_of_gravity", &form.centre_of_gravity),
            ("spring_spacing", &form.spring_spacing),
            ("other_spring_spacing", &form.other_spring_spacing),
            ("other_roll_centre", &form.other_roll_centre),
            ("roof_height", &form.roof_height),
        ] {
            self.size(&format!("/vehicle/{field}"), entry.as_ref());
        }
        self.distance("/vehicle/centre_of_gravity_good_to", form.centre_of_gravity_good_to.as_ref());
        for (left, right, name) in [
            (&form.left_corner, &form.right_corner, "left_corner"),
            (&form.other_left_corner, &form.other_right_corner, "other_left_corner"),
        ] {
            if left.is_some() != right.is_some() {
                self.fault(
                    format!("/vehicle/{name}"),
                    "one_corner",
                    "One corner of this axle was weighed and not the other. Type both, or the axle alone.",
                );
            }
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
    checker.hardpoints(&job.hardpoints, &job.rig);
    checker.setups(&job.setups);
    checker.bracket(&job.bracket);
    checker.vehicle(&job.vehicle);
    checker.sway(&job.sway);
    checker.list("/setups/as_built", job.setups.as_built.len(), LONGEST_LIST);
    for (index, made) in job.setups.as_built.iter().enumerate() {
        checker.size(&format!("/setups/as_built/{index}/length"), Some(&made.length));
    }
    checker.faults
}
