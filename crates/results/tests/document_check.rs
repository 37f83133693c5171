//! Whether a document makes sense: every fault by its place and its name, one at a time and all at once.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use derecho_job::document::check::{LONGEST_NAME, LONGEST_NOTE, MOST_HOLES, MOST_OBSTACLES, MOST_REPEATS};
use derecho_job::document::schema::job_schema;
use derecho_job::{Job, check};
use derecho_results::everything;
use derecho_results::json::value as in_words;
use serde_json::{Value, json};

fn sound() -> Value {
    let value: Value =
        serde_json::from_str(include_str!("../../../demo/lookout-truck-7.derecho.json")).unwrap();
    let job = by_name::read(&value);
    assert_eq!(check(&job), []);
    value
}

/// Puts a value at a JSON pointer, making the objects on the way.
fn put(document: &mut Value, pointer: &str, value: Value) {
    let mut at = document;
    for key in pointer.split('/').skip(1) {
        at = match at {
            Value::Array(list) => {
                let index: usize = key.parse().unwrap();
                if index == list.len() {
                    list.push(Value::Null);
                }
                &mut list[index]
            }
            other => {
                if !other.is_object() {
                    *other = json!({});
                }
                other.as_object_mut().unwrap().entry(key).or_insert(Value::Null)
            }
        };
    }
    *at = value;
}

fn faults(document: Value) -> Vec<(String, String)> {
    let job: Job = serde_json::from_value(document).unwrap();
    check(&job)
        .into_iter()
        .inspect(|fault| {
            let says = &fault.message;
            assert!(says.ends_with('.') && says.len() > 20, "{}: {says}", fault.pointer);
        })
        .map(|fault| (fault.pointer, fault.code))
        .collect()
}

/// What is put where, and the fault it makes: its place where that is another one, and its name.
fn rows() -> Vec<(&'static str, Value, &'static str, &'static str)> {
    let long = "x".repeat(LONGEST_NAME + 1);
    let same = "";
    vec![
        ("/title", json!("  "), same, "name_missing"),
        ("/title", json!(long), same, "too_long_text"),
        ("/title", json!("Hose\ntruck"), same, "control_character"),
        ("/notes", json!("one line\nand a bell\u{7}"), same, "control_character"),
        ("/notes", json!("x".repeat(LONGEST_NOTE + 1)), same, "too_long_text"),
        ("/complaints/0/text", json!("x".repeat(LONGEST_NOTE + 1)), same, "too_long_text"),
        ("/version", json!(8), same, "unknown_version"),
        ("/rig/vehicle", json!(long), same, "too_long_text"),
        ("/rig/bump", json!("-3 in"), same, "negative_distance"),
        ("/rig/droop", json!("-3 in"), same, "negative_distance"),
        ("/rig/usual_spread", json!("-1 mm"), same, "negative_distance"),
        ("/rig/track", json!("0 in"), same, "nought"),
        ("/rig/track", json!("-60 in"), same, "negative_distance"),
        ("/rig/tyre_diameter", json!("0 in"), same, "nought"),
        ("/rig/tyre_width", json!("0 in"), same, "nought"),
        ("/rig/frame_width", json!("0 in"), same, "nought"),
        ("/rig/tolerance", json!("0 in"), same, "nought"),
        ("/rig/axle_height", json!("0 in"), same, "nought"),
        ("/rig/bump_half_spacing", json!("0 in"), same, "nought"),
        ("/rig/droop_half_spacing", json!("0 in"), same, "nought"),
        ("/rig/heights/1/name", json!(" "), same, "name_missing"),
        ("/rig/heights/1/id", json!("empty"), same, "id_twice"),
        ("/rig/driven_height", json!("on stilts"), same, "unknown_height"),
        ("/hardpoints/height", json!("on stilts"), same, "unknown_height"),
        ("/hardpoints/arms/lower_left/length", json!("0 in"), same, "nought"),
        ("/hardpoints/arms/lower_left/diameter", json!("0 in"), same, "nought"),
        ("/hardpoints/arms/upper_left/body/height", json!("-9 in"), same, "negative_distance"),
        ("/hardpoints/arms/upper_left/axle/good_to", json!("-1 mm"), same, "negative_distance"),
        ("/hardpoints/arms/lower_left/stiffness_n_per_mm", json!(0.0), same, "no_stiffness"),
        ("/hardpoints/arms/lower_left/body_joint/limit", json!({ "text": "75" }), same, "limit_out_of_range"),
        ("/hardpoints/bar/axle_joint/limit", json!({ "text": "0" }), same, "limit_out_of_range"),
        ("/hardpoints/bar/diameter", json!("0 mm"), same, "nought"),
        ("/hardpoints/spring_front_half", json!("0 mm"), same, "nought"),
        ("/hardpoints/obstacles/0/name", json!(""), same, "name_missing"),
        ("/hardpoints/obstacles/1/name", json!("old bracket"), same, "name_twice"),
        ("/hardpoints/obstacles/0/thickness", json!("0 in"), same, "nought"),
        ("/hardpoints/obstacles/0/from/height", json!("-1 in"), same, "negative_distance"),
        ("/hardpoints/obstacles/0/to/height", json!("-1 in"), same, "negative_distance"),
        ("/setups/found/bar/length", json!("0 in"), same, "nought"),
        ("/setups/found/bar/frame_eye_height", json!("-1 in"), same, "negative_distance"),
        ("/setups/found/bar/heights_good_to", json!("-1 mm"), same, "negative_distance"),
        ("/setups/found/bar/height", json!("on stilts"), same, "unknown_height"),
        ("/setups/found/adjuster/made_min", json!("40 in"), same, "range_turned_round"),
        (
            "/setups/found/adjuster/made_max",
            json!("29 in"),
            "/setups/found/adjuster/made_min",
            "range_turned_round",
        ),
        ("/setups/found/adjuster/first/engagement", json!("-1 in"), same, "negative_distance"),
        (
            "/setups/found/adjuster/first/shank",
            json!("2 in"),
            "/setups/found/adjuster/first/engagement",
            "more_thread_than_shank",
        ),
        ("/setups/found/axle_holes/0/name", json!(""), same, "name_missing"),
        ("/setups/found/axle_holes/2/id", json!("riser hole 1"), same, "id_twice"),
        ("/setups/found/axle_holes/1/id", json!(""), same, "id_missing"),
        ("/setups/plans/trial/axle/hole", json!("no such"), same, "unknown_hole"),
        ("/setups/plans/trial/frame/hole", json!("no such"), same, "unknown_hole"),
        ("/bracket/bars/1/id", json!("long-sleeve turnbuckle bar"), same, "id_twice"),
        ("/bracket/brackets/0/name", json!(""), same, "name_missing"),
        ("/bracket/brackets/0/holes/1/id", json!("hole 1"), same, "id_twice"),
        ("/bracket/bars/0/outside", json!("0 mm"), same, "nought"),
        ("/bracket/bars/0/wall", json!("-1 mm"), same, "negative_distance"),
        ("/bracket/bars/0/wall", json!("1 in"), same, "wall_too_thick"),
        ("/bracket/bars/0/bend", json!("-2 in"), same, "negative_distance"),
        ("/bracket/bars/0/made_min", json!("90 in"), same, "range_turned_round"),
        ("/bracket/brackets/0/attachment_spacing", json!("0 in"), same, "nought"),
        (
            "/setups/found/adjuster/first/thread",
            json!("1-1/4-12 LH"),
            "/setups/found/adjuster/first/hand",
            "hands_disagree",
        ),
        ("/bracket/bolt/play", json!("-1 mm"), same, "negative_distance"),
        ("/bracket/ear_width", json!("0 in"), same, "nought"),
        ("/bracket/axle_eye/ear_width", json!("0 in"), same, "nought"),
        (
            "/bracket/frame_eye/bolt",
            json!({ "play": "-1 mm" }),
            "/bracket/frame_eye/bolt/play",
            "negative_distance",
        ),
        (
            "/bracket/axle_eye/bolt",
            json!({ "length": "60 mm", "threaded": "80 mm" }),
            "/bracket/axle_eye/bolt/threaded",
            "more_thread_than_there_is",
        ),
        (
            "/setups/rounds",
            json!([{ "id": "r", "drag_link_length": "0 in" }]),
            "/setups/rounds/0/drag_link_length",
            "nought",
        ),
        (
            "/proof/acceptances",
            json!([{ "key": "k", "because": "x" }, { "key": "k", "because": "y" }]),
            "/proof/acceptances/1/key",
            "key_twice",
        ),
        ("/bracket/builder/gap", json!("0 in"), same, "nought"),
        ("/sway/hole", json!("hole-9"), same, "unknown_hole"),
        ("/sway/holes/0/arm", json!("0 in"), same, "nought"),
        ("/sway/link", json!("0 in"), same, "nought"),
        ("/sway/diameter", json!("-1 in"), same, "negative_distance"),
        ("/sway/bore", json!("1 in"), same, "bore_too_wide"),
        ("/sway/axis/height", json!("-1 in"), same, "negative_distance"),
        ("/sway/far_end/height", json!("-1 in"), same, "negative_distance"),
        ("/sway/pins/stow/height", json!("-1 in"), same, "negative_distance"),
        ("/sway/allowable_mpa", json!(0.0), same, "out_of_range"),
        ("/sway/rod/shank", json!("0 in"), same, "nought"),
        ("/sway/room/rail_height", json!("0 in"), same, "nought"),
        ("/sway/room/shocks/0/name", json!(" "), same, "name_missing"),
        ("/sway/room/shocks/0/thickness", json!("0 in"), same, "nought"),
        ("/sway/room/shocks/0/axle/height", json!("-1 in"), same, "negative_distance"),
        ("/sway/bolts/0/name", json!(""), same, "name_missing"),
        ("/sway/bolts/0/length", json!("0 in"), same, "nought"),
        ("/sway/bolts/0/room", json!("-1 in"), same, "negative_distance"),
        ("/vehicle/wheelbase", json!("0 in"), same, "nought"),
        ("/vehicle/centre_of_gravity", json!("0 in"), same, "nought"),
        ("/vehicle/centre_of_gravity_good_to", json!("-1 in"), same, "negative_distance"),
        ("/vehicle/roof_height", json!("0 in"), same, "nought"),
        ("/vehicle/other_left_corner", json!("500 kg"), same, "one_corner"),
        ("/sheets/0/after", json!("round-9"), same, "unknown_round"),
        ("/sheets/0/height", json!("on stilts"), same, "unknown_height"),
        ("/sheets/0/left/2", json!("-6 in"), same, "negative_distance"),
        ("/sheets/0/plumb_drop", json!("-6 in"), same, "negative_distance"),
        ("/sheets/0/feature_uncertainty", json!("-1 mm"), same, "negative_distance"),
        ("/sheets/0/resolution", json!("0 mm"), same, "nought"),
        ("/sheets/0/note", json!("x".repeat(LONGEST_NOTE + 1)), same, "too_long_text"),
    ]
}

#[test]
fn every_fault_alone_is_reported_by_its_place_and_nothing_else_is() {
    for (pointer, value, at, code) in rows() {
        let mut document = sound();
        put(&mut document, pointer, value);
        let at = if at.is_empty() { pointer } else { at };
        assert_eq!(faults(document), [(at.to_owned(), code.to_owned())], "{pointer}");
    }
}

#[test]
fn faults_in_different_parts_are_reported_together() {
    let mut document = sound();
    let together = [
        ("/title", json!(" "), "name_missing"),
        ("/rig/track", json!("0 in"), "nought"),
        ("/sheets/0/left/0", json!("-6 in"), "negative_distance"),
        ("/setups/found/bar/length", json!("0 in"), "nought"),
        ("/sway/link", json!("0 in"), "nought"),
        ("/vehicle/wheelbase", json!("0 in"), "nought"),
    ];
    for (pointer, value, _) in &together {
        put(&mut document, pointer, value.clone());
    }
    let mut found = faults(document);
    found.sort();
    let mut wanted: Vec<(String, String)> =
        together.iter().map(|(pointer, _, code)| ((*pointer).to_owned(), (*code).to_owned())).collect();
    wanted.sort();
    assert_eq!(found, wanted);
}

#[test]
fn lists_have_an_end() {
    let many = |pointer: &str, count: usize, entry: &dyn Fn(usize) -> Value| {
        let mut document = sound();
        put(&mut document, pointer, Value::Array((0..count).map(entry).collect()));
        faults(document)
    };
    let reported = |pointer: &str| vec![(pointer.to_owned(), "too_many".to_owned())];
    let reading = |_: usize| json!("6 in");
    assert_eq!(many("/sheets/0/right", MOST_REPEATS, &reading), []);
    assert_eq!(many("/sheets/0/right", MOST_REPEATS + 1, &reading), reported("/sheets/0/right"));
    let hole =
        |index: usize| json!({ "id": index.to_string(), "name": format!("hole {index}"), "up": "1 in" });
    assert_eq!(many("/setups/found/frame_holes", MOST_HOLES, &hole), []);
    assert_eq!(
        many("/setups/found/frame_holes", MOST_HOLES + 1, &hole),
        reported("/setups/found/frame_holes")
    );
    let thing =
        |index: usize| json!({ "name": format!("thing {index}"), "side": "left", "thickness": "1 in" });
    assert_eq!(many("/hardpoints/obstacles", MOST_OBSTACLES, &thing), []);
    assert_eq!(many("/hardpoints/obstacles", MOST_OBSTACLES + 1, &thing), reported("/hardpoints/obstacles"));
    let arm = |_: usize| json!("9 in");
    assert_eq!(many("/sway/splined/arms", MOST_HOLES, &arm), []);
    assert_eq!(many("/sway/splined/arms", MOST_HOLES + 1, &arm), reported("/sway/splined/arms"));
    let shock = |index: usize| json!({ "name": format!("shock {index}"), "thickness": "2 in" });
    assert_eq!(many("/sway/room/shocks", 4, &shock), []);
    assert_eq!(many("/sway/room/shocks", 5, &shock), reported("/sway/room/shocks"));
}

#[test]
fn a_field_nobody_knows_is_refused_and_not_dropped() {
    for pointer in
        ["/colour", "/rig/colour", "/vehicle/colour", "/sway/colour", "/sway/room/colour", "/sheets/0/colour"]
    {
        let mut document = sound();
        put(&mut document, pointer, json!("red"));
        let refused = serde_json::from_value::<Job>(document).unwrap_err().to_string();
        assert!(refused.contains("unknown field `colour`"), "{pointer}: {refused}");
    }
}

#[test]
fn a_job_goes_out_and_comes_in_as_it_was() {
    let document = sound();
    let job: Job = serde_json::from_value(document.clone()).unwrap();
    let again: Job = serde_json::from_value(in_words(&job)).unwrap();
    assert_eq!(job, again);
    // What is empty stays out of the file.
    let out = in_words(Job::new("empty"));
    for part in ["vehicle", "sway", "bracket", "hardpoints", "notes", "complaints", "settled"] {
        assert!(out.get(part).is_none(), "{part}");
    }
}

#[test]
fn the_schema_names_every_part_of_the_document() {
    let schema = job_schema();
    let text = schema.to_string();
    let document = sound();
    let mut keys = Vec::new();
    fn collect(value: &Value, keys: &mut Vec<String>) {
        match value {
            Value::Object(map) => {
                for (key, value) in map {
                    keys.push(key.clone());
                    collect(value, keys);
                }
            }
            Value::Array(list) => list.iter().for_each(|value| collect(value, keys)),
            _ => {}
        }
    }
    collect(&document, &mut keys);
    assert!(keys.len() > 200);
    for key in keys {
        assert!(text.contains(&format!("\"{key}\"")), "the schema says nothing of {key}");
    }
}

#[test]
fn every_faulty_document_still_gets_its_answers() {
    // A half-typed job must be kept, so that what is computed of it must never panic. Every sixth: all
    // of them would take most of a minute.
    for (pointer, value, ..) in rows().into_iter().step_by(6) {
        let mut document = sound();
        put(&mut document, pointer, value);
        let job: Job = serde_json::from_value(document).unwrap();
        let results = in_words(everything(&job));
        assert!(results["sway"]["says"]["in"].is_string(), "{pointer}");
        assert!(results["plan"]["says"]["in"].is_string(), "{pointer}");
    }
}
