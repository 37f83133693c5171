//! What is placed where nothing was: the tie rod on the other side of the steering arms, the first bracket on the frame.
//! Figures are worked by hand.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::sound as job;
use derecho_job::bolt_up::{StepLine, WorkResult};
use derecho_job::cycle::{LimitKind, SetupCycle};
use derecho_job::document::work::Stands;
use derecho_results::{cycle, everything, work};
use derecho_words::Spoken as _;
use serde_json::{Value, json};

fn demo() -> Value {
    serde_json::from_str(include_str!("../../../demo/lookout-truck-7.derecho.json")).unwrap()
}

fn step<'a>(work: &'a WorkResult, key: &str) -> &'a StepLine {
    work.steps.iter().find(|step| step.key == key).unwrap_or_else(|| panic!("no step {key}"))
}

/// A front axle on leaf springs, the axle eye straight above the axle's middle at 21 1/4 in; the tie rod of 1 1/4 in lies 2 in
/// behind that and 2 in below, and goes over the steering arms. The wheels stay straight.
fn with_tie_rod(by: &str) -> Value {
    let mut value = demo();
    value["rig"]["axle_location"] = json!("leaf_springs");
    value["hardpoints"] = json!({ "bar": { "axle_eye_fore_aft": "0 in", "diameter": "1 1/4 in" },
        "tie_rod": { "end": { "height": "19 1/4 in", "fore_aft": "-2 in" }, "diameter": "1 1/4 in", "to": "over", "by": by } });
    value["sway"] = json!({ "room": { "steering_lock": "0" } });
    value["setups"]["plans"]["parts"] = json!(["tie_rod"]);
    value
}

/// The gap of the track bar to the tie rod at ride height, in.
fn gap(setup: &SetupCycle) -> f64 {
    let index = setup
        .limits
        .iter()
        .position(|limit| limit.kind == LimitKind::Gap && limit.name.0.inches().contains("tie rod"))
        .unwrap();
    let ride = setup.heave.iter().min_by(|a, b| a.z_mm.abs().partial_cmp(&b.z_mm.abs()).unwrap()).unwrap();
    ride.limits[index] / 25.4
}

/// Both are bolted to the axle and the bar rises from its axle eye: nearest there at any height. As found 2 in behind and
/// 2 in below, √(4 + 4) − 5/8 − 5/8 = 1.578 in; 1 in higher √(4 + 1) − 1.25 = 0.986 in.
#[test]
fn a_tie_rod_is_held_against_the_bar_where_it_is_and_where_it_goes() {
    let result = cycle(&job(&with_tie_rod("1 in")));
    assert!((gap(result.found.as_ref().unwrap()) - (8.0_f64.sqrt() - 1.25)).abs() < 0.005);
    assert!((gap(result.plan.as_ref().unwrap()) - (5.0_f64.sqrt() - 1.25)).abs() < 0.005);
    // Recorded as moved it is there now, and nothing is further to come.
    let mut moved = with_tie_rod("1 in");
    moved["setups"]["rounds"] = json!([{ "parts": ["tie_rod"] }]);
    assert!((gap(cycle(&job(&moved)).found.as_ref().unwrap()) - (5.0_f64.sqrt() - 1.25)).abs() < 0.005);
    // One that moves by nobody knows how much has no place to be held against once it is moved.
    let mut somewhere = with_tie_rod("1 in");
    somewhere["hardpoints"]["tie_rod"].as_object_mut().unwrap().remove("by");
    let result = cycle(&job(&somewhere));
    assert!((gap(result.found.as_ref().unwrap()) - (8.0_f64.sqrt() - 1.25)).abs() < 0.005);
    assert!(result.plan.unwrap().obstacles.iter().all(|obstacle| obstacle.name.0.inches() != "tie rod"));
    // A rod whose place is only assumed clears nothing.
    let mut unmeasured = with_tie_rod("1 in");
    unmeasured["hardpoints"]["tie_rod"]["end"] = json!({});
    let result = cycle(&job(&unmeasured));
    assert!(
        result.found.unwrap().obstacles.iter().all(|obstacle| !obstacle.name.0.inches().contains("tie rod"))
    );
}

#[test]
fn the_steps_of_a_tie_rod_follow_from_its_seats_and_a_rear_axle_has_none() {
    let mut value = with_tie_rod("2 1/2 in");
    let all = everything(&job(&value));
    assert!(all.work.steps.iter().all(|step| step.key != "tie-rod/seats"));
    let on = step(&all.work, "tie-rod/on");
    assert!(on.does.inches().contains("over the steering arms"), "{}", on.does.inches());
    let how = on.how.as_ref().unwrap();
    assert!(
        how.inches().contains("2 1/2\" higher") && how.millimetres().contains("63.5 mm higher"),
        "{}",
        how.inches()
    );
    assert_eq!(step(&all.work, "tie-rod/toe").stands, Some(Stands::OnItsWeight));
    assert!(all.work.fasteners.iter().any(|line| line.key == "tie-rod/studs" && line.count == Some(2)));
    assert!(all.work.tools.iter().any(|tool| tool.key == "ball joint separator"));
    assert!(all.work.parts.iter().all(|part| part.key != "part/taper-inserts"));

    value["hardpoints"]["tie_rod"]["seats"] = json!("reamed");
    let reamed = work(&job(&value));
    assert!(step(&reamed, "tie-rod/seats").does.inches().starts_with("Ream both steering arms from the top"));
    assert!(reamed.tools.iter().any(|tool| tool.key == "taper reamer"));

    value["hardpoints"]["tie_rod"]["seats"] = json!("inserts");
    value["hardpoints"]["tie_rod"]["to"] = json!("under");
    let inserts = work(&job(&value));
    assert!(step(&inserts, "tie-rod/seats").does.inches().contains("press in the inserts from the bottom"));
    assert!(inserts.parts.iter().any(|part| part.key == "part/taper-inserts"));

    value["rig"]["end"] = json!("rear");
    assert!(work(&job(&value)).steps.iter().all(|step| !step.key.starts_with("tie-rod")));
}

/// Radius arms of 37 in whose axle ends sit 3 7/8 in below the frame ends at ride height, with 3 1/2 in of bump and 4 1/2 in of
/// droop: the axle lies √(37² − 3.875²) = 36.797 in ahead of the frame eyes, at full bump √(37² − 0.375²) = 36.998, at full
/// droop √(37² − 8.375²) = 36.040. It goes 0.20 in forward and 0.76 in back: 3/16 and 3/4 in.
#[test]
fn a_first_frame_bracket_is_placed_at_full_bump_with_room_for_what_the_axle_does() {
    let mut value = demo();
    value["bracket"]["brackets"] = json!([{ "id": "first", "name": "frame bracket", "end": "frame",
        "attachment": "weld_on", "comes_off_first": "", "holes": [{ "id": "hole", "name": "hole 1", "up": "-3 in" }] }]);
    value["setups"]["plans"]["chosen"] = json!({ "frame": { "bracket": "first", "hole": "hole" } });
    assert!(work(&job(&value)).steps.iter().all(|step| step.key != "frame/place"));
    value["bracket"]["first_frame_bracket"] = json!(true);
    value["bracket"]["first_bracket_room"] = json!("1 1/2 in");
    let placed = work(&job(&value));
    let step = step(&placed, "frame/place");
    assert_eq!(step.stands, Some(Stands::Supported));
    let how = step.how.as_ref().unwrap().inches();
    assert!(how.contains("full bump is 3 1/2\" up from the driven height"), "{how}");
    assert!(how.contains("1 1/2\" fore and aft between the bracket"), "{how}");
    assert!(how.contains("3/4\" back and 3/16\" forward"), "{how}");
    // Driven 1 1/4 in lower, that much of the bump is used up: 3 1/2 − 1 1/4.
    value["rig"]["driven_height"] = json!("water tank full");
    let lower = work(&job(&value));
    let how = self::step(&lower, "frame/place").how.as_ref().unwrap().inches().to_owned();
    assert!(how.contains("full bump is 2 1/4\" up from the driven height"), "{how}");
    // On springs that nobody measured nothing is said of fore and aft but to look.
    value["rig"]["axle_location"] = json!("leaf_springs");
    let springs = work(&job(&value));
    let how = self::step(&springs, "frame/place").how.as_ref().unwrap().inches().to_owned();
    assert!(how.contains("Lower the axle to full droop and look again"), "{how}");
}
