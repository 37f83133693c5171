//! Mistakes that were planted once and that nobody noticed: each of these figures is worked by hand, so that the same
//! mistake would be seen.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::sound as job;
use derecho_core::measure::{Length, TapeEntry, Unit};
use derecho_job::Job;
use derecho_job::verdict::FitVerdict;
use derecho_results::json::value as in_words;
use derecho_results::{plan, solve, sway, work};
use derecho_words::Spoken;
use serde_json::{Value, json};

#[allow(clippy::disallowed_methods, reason = "the rules read no files; a test reads the demo")]
fn demo(name: &str) -> Value {
    let path = format!("{}/../../demo/{name}.derecho.json", env!("CARGO_MANIFEST_DIR"));
    serde_json::from_str(&std::fs::read_to_string(path).unwrap()).unwrap()
}

/// L 32 in, 6 in rise, frame eye left, on leaf springs, centred.
fn plain() -> Value {
    json!({ "format": "derecho-job", "version": 7, "title": "Hose truck 6",
        "rig": { "end": "front", "steering_side": "left", "frame_eye_side": "left", "sheet_unit": "in", "use": "trails",
            "axle_location": "leaf_springs", "bump": "3 in", "droop": "4 in" },
        "hardpoints": { "bar": { "axle_eye_fore_aft": "0 mm" } },
        "sheets": [{ "id": "as found", "unit": "in", "round": 0, "method": "frame_to_hub",
            "left": ["6 in", "6 in", "6 in", "6 in"], "right": ["6 in", "6 in", "6 in", "6 in"],
            "conditions": { "on_its_weight": true } }],
        "setups": { "found": { "bar": { "length": "32 in", "frame_eye_height": "26 in", "axle_eye_height": "20 in" } } } })
}

/// A drop that brings the frame eye 100 mm down stands 100 mm further off the rail: 45 mm as it is, 145 with it; the
/// moment at its root is the bar's load times that. One 30 mm up stands 25 mm off at the least, an eye's own radius.
#[test]
fn a_frame_drop_loads_its_root_by_how_far_it_hangs() {
    let mut value = plain();
    value["bracket"]["brackets"] = json!([{ "name": "drop", "end": "frame", "holes": [
        { "name": "low", "up": "-100 mm" }, { "name": "high", "up": "30 mm" }] }]);
    let planned = plan(&job(&value));
    let lever = |hole: &str| {
        let option = planned.options.iter().find(|option| option.name.inches().contains(hole)).unwrap();
        (option.loads.frame_moment_nm * 1000.0 / option.loads.bar_n, option.loads.frame_moment_ratio)
    };
    let (low, ratio) = lever("low");
    assert!((low - 145.0).abs() < 1e-6 && (ratio - 145.0 / 45.0).abs() < 1e-9, "{low} {ratio}");
    let (high, ratio) = lever("high");
    assert!((high - 25.0).abs() < 1e-6 && (ratio - 25.0 / 45.0).abs() < 1e-9, "{high} {ratio}");
}

/// A frame drop of 3 in levels the bar and loads its root (45 + 76.2)/45 = 2.7 times as hard, log2 1.4; an axle riser of
/// 2.9 in leaves asin(0.1/32) = 0.2° and loads its own, an eye that sits high above the tube, half as much more: in hard
/// use it is the better place, by a degree for each doubling.
#[test]
fn a_little_match_is_not_worth_a_bracket_that_carries_twice_as_much_in_hard_use() {
    let mut value = plain();
    value["rig"]["use"] = json!("crawling");
    value["setups"]["found"]["bar"] =
        json!({ "length": "32 in", "frame_eye_height": "27 in", "axle_eye_height": "24 in" });
    value["bracket"]["brackets"] = json!([
        { "name": "drop", "end": "frame", "holes": [{ "name": "low", "up": "-3 in" }] },
        { "name": "riser", "end": "axle", "holes": [{ "name": "2.9", "up": "2.9 in" }] },
    ]);
    let planned = plan(&job(&value));
    let at = |name: &str| planned.options.iter().find(|option| option.name.inches().contains(name)).unwrap();
    let (drop, riser) = (at("drop"), at("riser"));
    assert!(drop.off_target_deg.abs() < riser.off_target_deg.abs(), "the drop matches better");
    assert!((drop.loads.frame_moment_ratio - 121.2 / 45.0).abs() < 1e-6);
    assert!(riser.loads.axle_moment_ratio < 1.5, "{}", riser.loads.axle_moment_ratio);
    assert!(riser.rank < drop.rank, "{} after {}", riser.rank, drop.rank);
}

/// Rise of 4.5 in on 32, 8.1°: a riser of 2.1 in leaves 2.4 in, which is 3.7° of the longer bar. It sits 5 in further out, so that it
/// needs a bar of √((√(32² − 4.5²) + 5)² + 2.4²) = 36.76 in, which no bar here reaches: that is said, not that it does
/// not help.
#[test]
fn a_hole_that_only_wants_a_longer_bar_is_told() {
    let mut value = plain();
    value["setups"]["found"] = json!({ "bar": { "length": "32 in", "frame_eye_height": "24.5 in", "axle_eye_height": "20 in" },
        "adjuster": { "kind": "turnbuckle", "made_min": "30 in", "made_max": "33 in" } });
    value["bracket"]["brackets"] = json!([{ "name": "riser", "end": "axle",
        "holes": [{ "name": "2", "up": "2.1 in", "outward": "5 in" }] }]);
    let says = plan(&job(&value)).says.inches();
    assert!(says.contains("brings the bar to 3.7°, but needs a bar of 36 3/4\""), "{says}");
}

/// An eye moved outward is drawn outward: on the left towards the left, which is plus; on the right towards the right.
#[test]
fn a_frame_eye_moved_outward_is_drawn_there() {
    for (side, sign) in [("left", 1.0), ("right", -1.0)] {
        let mut value = plain();
        value["rig"]["frame_eye_side"] = json!(side);
        value["bracket"]["brackets"] = json!([{ "name": "drop", "end": "frame", "holes": [
            { "name": "out", "up": "-50 mm", "outward": "20 mm" }] }]);
        value["setups"]["plans"] = json!({ "chosen": { "frame": { "bracket": "drop", "hole": "out" } } });
        let drawn = solve(&job(&value)).elevation;
        let (now, then) = (drawn.eyes.unwrap().frame, drawn.planned_eyes.unwrap().frame);
        assert!((then.y_mm.to_mm() - now.y_mm.to_mm() - sign * 20.0).abs() < 1e-9, "{now:?} {then:?}");
        assert!((then.z_mm.to_mm() - now.z_mm.to_mm() + 50.0).abs() < 1e-9, "{now:?} {then:?}");
    }
}

/// A link that works to the stops by a hair does not work half an inch past them; one in the middle of its window
/// does, where the window past the stops reaches so far.
#[test]
fn past_the_stops_is_looked_at_past_the_stops() {
    let of = |mm: f64| {
        let mut job: Job = serde_json::from_value(demo("lookout-truck-7")).unwrap();
        job.sway.link = Some(TapeEntry::parse(&format!("{mm:.4}"), Unit::Millimetres).unwrap());
        sway(&job)
    };
    let past = |mm: f64| {
        let reported = of(mm);
        assert!(!reported.links.as_ref().unwrap().fails, "it works to the stops");
        reported
            .checks
            .iter()
            .find(|check| check.name.inches() == "past the stops")
            .map(|check| check.verdict)
    };
    let [least, most] = of(160.0).links.unwrap().window_mm.unwrap().map(Length::to_mm);
    assert_eq!(past(least + 0.2), Some(FitVerdict::Bad));
    assert_eq!(past(most - 0.2), Some(FitVerdict::Bad));
    assert_eq!(past(f64::midpoint(least, most)), Some(FitVerdict::Good));
}

/// The other axle leans by its own travel over its own track: twice the travel, twice the lean, and this axle's travel
/// has no part in it.
#[test]
fn the_other_axle_goes_to_its_own_stops() {
    let reported = |this: &str, bump: &str, droop: &str| {
        let mut value = demo("supply-truck-9");
        value["rig"]["bump"] = json!(this);
        value["vehicle"]["other_bump"] = json!(bump);
        value["vehicle"]["other_droop"] = json!(droop);
        let vehicle = in_words(sway(&job(&value)));
        vehicle["vehicle"].clone()
    };
    let (short, long) = (reported("80 mm", "40 mm", "40 mm"), reported("80 mm", "80 mm", "80 mm"));
    assert_ne!(short, long, "its stops are in it");
    assert_eq!(
        reported("80 mm", "80 mm", "40 mm"),
        reported("80 mm", "40 mm", "80 mm"),
        "both together are what it has"
    );
}

/// Two readings of one list that are refused today: each is taken out of its own place, the sound one between them
/// stays, and the notes name both.
#[test]
fn figures_taken_out_of_a_list_leave_the_others_in_it() {
    let mut value = demo("lookout-truck-7");
    value["sheets"][0]["left"] = json!(["1,250", "6 1/2 in", "2,600", "6 7/16 in"]);
    let read = by_name::read(&value);
    let left: Vec<String> =
        read.sheets[0].left.iter().flatten().map(|entry| entry.text().to_owned()).collect();
    assert_eq!(left.len(), 2, "{left:?}");
    assert!(left[0].starts_with("6 1/2") && left[1].starts_with("6 7/16"), "{left:?}");
    for (place, typed) in [("/sheets/0/left/0", "1,250"), ("/sheets/0/left/2", "2,600")] {
        let line = read.notes.lines().find(|line| line.contains(place)).unwrap_or_default();
        assert!(line.contains(typed), "{}", read.notes);
    }
}

/// Two heights, each good to 1/8 in, of one rise: it is good to √2 times that, and a height is not said to be better than
/// it is.
#[test]
fn a_rise_is_as_good_as_its_two_heights() {
    use derecho_core::bar::evidence::{RiseSource, rise};
    use derecho_core::measure::{Angle, Side};
    let inches = Length::from_inches;
    let heights = Some((inches(26.0), inches(20.0)));
    let known = rise(inches(32.0), Side::Left, heights, inches(0.125), None, Angle::ZERO).unwrap();
    assert_eq!(known.source, RiseSource::Heights);
    assert!((known.rise_mm.to_inches() - 6.0).abs() < 1e-12);
    assert!((known.uncertainty_mm.to_inches() - 0.176_776_695).abs() < 1e-6, "{:?}", known.uncertainty_mm);
}

/// Tacked before the battery was off, and ticked: it is said of that step, and the battery still comes off before what is left to weld.
#[test]
fn the_battery_is_off_before_what_is_left_to_weld_though_the_tack_was_ticked_early() {
    let mut value = plain();
    value["setups"]["found"] = json!({ "bar": { "frame_eye_height": "24 in", "axle_eye_height": "21 in" } });
    value["bracket"]["builder"] = json!({ "gap": "27 5/8 in", "frame_shell": "1 3/4 in", "axle_shell": "1 3/4 in", "stock": "1 1/4 in" });
    value["bolt_up"] = json!({ "steps": [{ "key": "bar/tack", "done": { "at": "2026-11-29T08:00:00Z", "by": "A. Reyes" },
        "against": "two hands free" }] });
    let work = work(&job(&value));
    let place = |key: &str| work.steps.iter().position(|step| step.key == key).unwrap();
    let tack = &work.steps[place("bar/tack")];
    assert!(place("battery/off") < place("bar/build") && place("bar/build") < place("battery/on"));
    assert!(place("battery/off") < place("bar/tack"), "the order it belongs in does not follow the mistake");
    assert!(!tack.reported.is_empty(), "what was done before the battery was off is told");
}

/// Holes are ranked by the angle to half a degree, and only then by the swing. Level by 6 in up, the swing is least half an
/// inch further up, where the bar is level in the middle of 3 in of bump and 4 of droop. 5.4 in up leaves 1.1°, 6.9 in
/// 1.6° the other way and less swing: the angle decides. 5.6 and 6.4 in leave 0.7° both: the swing does.
#[test]
fn holes_are_ranked_by_half_degrees_and_then_by_the_swing() {
    let first_of = |holes: [&str; 2]| {
        let mut value = plain();
        let holes: Vec<Value> =
            holes.iter().map(|up| json!({ "name": up, "up": format!("{up} in") })).collect();
        value["bracket"]["brackets"] = json!([{ "name": "riser", "end": "axle", "holes": holes }]);
        let planned = plan(&job(&value));
        let of_riser: Vec<_> =
            planned.options.iter().filter(|option| option.name.inches().contains("riser")).collect();
        assert_eq!(of_riser.len(), 2);
        assert!(of_riser.iter().all(|option| option.fails.is_empty()));
        let swings = [of_riser[0].peak_to_peak_mm, of_riser[1].peak_to_peak_mm];
        (of_riser[0].name.clone(), swings[0] < swings[1])
    };
    for holes in [["5.4", "6.9"], ["6.9", "5.4"]] {
        let (name, less_swing) = first_of(holes);
        assert!(name.inches().contains("5.4") && !less_swing, "{}", name.inches());
    }
    for holes in [["5.6", "6.4"], ["6.4", "5.6"]] {
        let (name, less_swing) = first_of(holes);
        assert!(name.inches().contains("6.4") && less_swing, "{}", name.inches());
    }
}
