//! What points at a row points at its id: a name is for people, and a plan, a sheet or a step stays what it is whatever
//! its rows are called.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_job::bolt_up::StepState;
use derecho_job::{Job, check};
use derecho_results::everything;
use derecho_results::json::value as in_words;
use derecho_words::Spoken as _;
use serde_json::{Value, json};

fn demo() -> Value {
    let mut value: Value =
        serde_json::from_str(include_str!("../../../demo/lookout-truck-7.derecho.json")).unwrap();
    // The hole of the issue: everything that is told of the bar hangs on it.
    value["setups"]["plans"] =
        json!({ "chosen": { "axle": { "hole": "riser hole 2" }, "drag_link": "raised knuckle block" } });
    value["bolt_up"]["drills"] = json!([{ "id": "side", "name": "side hole", "size": "1/2 in" }]);
    value
}

fn job(value: &Value) -> Job {
    let job: Job = serde_json::from_value(value.clone()).unwrap();
    assert_eq!(check(&job), []);
    job
}

/// Everything that is told, without a word: figures, enums by their place, and how many of each.
fn figures(value: &Value) -> Value {
    match value {
        Value::String(_) => Value::Null,
        Value::Array(items) => items.iter().map(figures).collect(),
        // What a step reads with ids is told where it differs from what it reads with names.
        Value::Object(members) => {
            let members = members.iter().filter(|(key, _)| *key != "by_ids");
            members.map(|(key, value)| (key.clone(), figures(value))).collect()
        }
        other => other.clone(),
    }
}

const NAMED: [&str; 5] =
    ["/rig/heights", "/setups/found/axle_holes", "/bracket/bars", "/bracket/brackets", "/bracket/drag_links"];

#[test]
fn a_new_name_changes_no_figure() {
    let before = demo();
    let reported = in_words(everything(&job(&before)));
    for list in NAMED {
        let rows = before.pointer(list).and_then(Value::as_array).unwrap().len();
        assert!(rows > 0, "{list}");
        for row in 0..rows {
            let mut after = before.clone();
            after.pointer_mut(list).unwrap()[row]["name"] = json!("called anew");
            let now = in_words(everything(&job(&after)));
            assert_eq!(figures(&now), figures(&reported), "{list}/{row}");
        }
        // All of one name: each is the one it was all the same.
        let mut alike = before.clone();
        for row in alike.pointer_mut(list).unwrap().as_array_mut().unwrap() {
            row["name"] = json!("alike");
        }
        let now = in_words(everything(&job(&alike)));
        assert_eq!(figures(&now), figures(&reported), "{list}, all alike");
    }
}

/// What was seen: the chosen hole renamed, and Bar, headline and Bolt-up told of another plan than Bracket.
#[test]
fn the_chosen_hole_called_otherwise_is_the_same_plan_in_every_stage() {
    let before = everything(&job(&demo()));
    let mut value = demo();
    let holes = value["setups"]["found"]["axle_holes"].as_array_mut().unwrap();
    let chosen = holes.iter_mut().find(|hole| hole["id"] == "riser hole 2").unwrap();
    chosen["name"] = json!("the good one");
    let after = everything(&job(&value));
    assert_eq!(after.results.headline, before.results.headline);
    let says = |reported: &derecho_job::Everything| {
        reported.results.bar.as_ref().unwrap().correction.as_ref().unwrap().says.clone()
    };
    assert_eq!(says(&after), says(&before));
    let keys = |reported: &derecho_job::Everything| {
        reported.work.steps.iter().map(|step| step.key.clone()).collect::<Vec<_>>()
    };
    assert_eq!(keys(&after), keys(&before));
    // By its new name where a person reads it.
    let read: Vec<String> = after.work.steps.iter().map(|step| step.does.inches()).collect();
    let read = read.join(" ");
    assert!(read.contains("the good one") && !read.contains("riser hole 2"), "{read}");
    assert!(after.plan.options.iter().any(|option| option.chosen && option.name.inches() == "the good one"));
}

/// The job with every step ticked as the screen ticks it, in inches; `by_ids` as rows of today's program are kept.
fn ticked(value: &Value, with_ids: bool) -> Value {
    let work = everything(&job(value)).work;
    let steps: Vec<Value> = work
        .steps
        .iter()
        .map(|step| {
            let mut record = json!({ "key": step.key, "read": step.does.inches(),
                "done": { "at": "2026-11-29T09:00:00Z", "by": "I. Vale" } });
            if let Some(by_ids) = step.by_ids.as_ref().filter(|_| with_ids) {
                record["by_ids"] = json!(by_ids.inches());
            }
            record
        })
        .collect();
    let mut after = value.clone();
    after["bolt_up"]["steps"] = json!(steps);
    after
}

/// Keys of the steps that ask to be looked at again.
fn changed(value: &Value) -> Vec<String> {
    let steps = everything(&job(value)).work.steps;
    steps.into_iter().filter(|step| step.state == StepState::Changed).map(|step| step.key).collect()
}

/// Every row of the job has an id that is no name, as rows have that are added on the screen.
fn with_ids_of_their_own() -> Value {
    let text = serde_json::to_string(&demo()).unwrap();
    let mut value: Value = serde_json::from_str(&text.replace("\"riser hole 2\"", "\"hole-7f\"")).unwrap();
    let holes = value["setups"]["found"]["axle_holes"].as_array_mut().unwrap();
    holes.iter_mut().find(|hole| hole["id"] == "hole-7f").unwrap()["name"] = json!("riser hole 2");
    value
}

#[test]
fn a_new_name_takes_no_tick_back() {
    let older = ticked(&demo(), false);
    let newer = ticked(&with_ids_of_their_own(), true);
    for value in [&older, &newer] {
        assert_eq!(changed(value), Vec::<String>::new());
        for list in NAMED {
            let mut after = value.clone();
            for row in after.pointer_mut(list).unwrap().as_array_mut().unwrap() {
                row["name"] = json!(format!("{} anew", row["name"].as_str().unwrap()));
            }
            assert_eq!(changed(&after), Vec::<String>::new(), "{list}");
        }
        // Another hole is another step, also where both are called alike.
        let mut moved = value.clone();
        moved["setups"]["plans"]["chosen"]["axle"]["hole"] = json!("riser hole 3");
        assert!(changed(&moved).contains(&"bar/axle-eye-by-hand".to_owned()), "{:?}", changed(&moved));
    }
    let mut alike = newer;
    for hole in alike["setups"]["found"]["axle_holes"].as_array_mut().unwrap() {
        hole["name"] = json!("riser hole 2");
    }
    assert_eq!(changed(&alike), Vec::<String>::new());
    alike["setups"]["plans"]["chosen"]["axle"]["hole"] = json!("riser hole 3");
    assert!(changed(&alike).contains(&"bar/axle-eye-by-hand".to_owned()), "{:?}", changed(&alike));
}

/// Every field that points at a row, pointed at none.
#[test]
fn what_points_at_nothing_is_reported_with_its_place() {
    let gone = json!("no such row");
    let sheet = json!([{ "id": "a", "after": gone, "height": gone, "conditions": {} }]);
    let round = json!([{ "id": "r", "bar": gone, "drag_link": gone, "sway_hole": gone,
        "moved": [{ "end": "axle", "by_mm": [0.0, 0.0, 10.0], "to": { "hole": gone } },
            { "end": "frame", "by_mm": [0.0, 0.0, 10.0], "to": { "bracket": gone, "hole": "hole 1" } }] }]);
    let plan =
        json!({ "axle": { "hole": gone }, "frame": { "bracket": gone }, "bar": gone, "drag_link": gone });
    let value = json!({ "format": "derecho-job", "version": 7, "title": "Gone",
        "rig": { "driven_height": gone }, "hardpoints": { "height": gone, "tightened_height": gone },
        "sheets": sheet, "bracket": { "conversion": { "pinion": [{ "height": gone }] } },
        "sway": { "holes": [{ "id": "hole-1", "arm": "10 in" }], "hole": gone },
        "setups": { "found": { "bar": { "height": gone } }, "rounds": round,
            "plans": { "chosen": plan, "trial": plan, "kept": [plan], "sway": { "hole": gone } } } });
    let reported: Vec<(String, String)> = check(&serde_json::from_value(value).unwrap())
        .into_iter()
        .map(|fault| (fault.pointer, fault.code))
        .collect();
    let mut wanted: Vec<(String, String)> = Vec::new();
    let mut want = |pointer: &str, code: &str| wanted.push((pointer.to_owned(), code.to_owned()));
    for pointer in [
        "/rig/driven_height",
        "/hardpoints/height",
        "/hardpoints/tightened_height",
        "/sheets/0/height",
        "/bracket/conversion/pinion/0/height",
        "/setups/found/bar/height",
    ] {
        want(pointer, "unknown_height");
    }
    want("/sheets/0/after", "unknown_round");
    for plan in ["chosen", "trial", "kept/0"] {
        for (field, code) in [
            ("axle/hole", "unknown_hole"),
            ("frame/bracket", "unknown_bracket"),
            ("bar", "unknown_bar"),
            ("drag_link", "unknown_drag_link"),
        ] {
            want(&format!("/setups/plans/{plan}/{field}"), code);
        }
    }
    for (field, code) in [
        ("bar", "unknown_bar"),
        ("drag_link", "unknown_drag_link"),
        ("sway_hole", "unknown_hole"),
        ("moved/0/to/hole", "unknown_hole"),
        ("moved/1/to/bracket", "unknown_bracket"),
    ] {
        want(&format!("/setups/rounds/0/{field}"), code);
    }
    want("/setups/plans/sway/hole", "unknown_hole");
    want("/sway/hole", "unknown_hole");
    for fault in &wanted {
        assert!(reported.contains(fault), "{fault:?} is not told: {reported:?}");
    }
    assert_eq!(reported.len(), wanted.len(), "{reported:?}");
}

/// A plan of an older document whose hole is gone: nothing is chosen, and the stage says so.
#[test]
fn a_plan_whose_part_is_gone_is_said_and_not_followed() {
    let mut value = demo();
    value["setups"]["plans"] = json!({ "kept": [{ "gone": ["hole “riser hole 9”"] }] });
    let reported = everything(&job(&value));
    assert_eq!(reported.plan.gone.len(), 1);
    assert!(
        reported.plan.gone[0].says.inches().contains("riser hole 9"),
        "{}",
        reported.plan.gone[0].says.inches()
    );
    let bracket = reported
        .results
        .stages
        .iter()
        .find(|stage| stage.stage == derecho_job::cautions::Stage::Bracket)
        .unwrap();
    assert_eq!(bracket.progress, derecho_job::strip::Progress::NeedsLook);
    assert!(reported.plan.options.iter().all(|option| !option.chosen && !option.kept));
}

/// Turns that were counted come to what they advance: one turn of a turnbuckle with 1-1/4-12 at both ends, one right and
/// one left hand, is 2/12 in.
#[test]
fn turns_that_were_counted_come_to_a_length() {
    let mut value = demo();
    value["setups"]["plans"] = json!({});
    let job = job(&value);
    let found = &job.setups.found;
    let length = found.bar.length.as_ref().unwrap().length().to_inches();
    let turned = derecho_results::turned(&job, 3.0).unwrap().length().to_inches();
    assert_eq!(found.adjuster.first.thread.as_ref().unwrap().text(), "1-1/4-12");
    assert!((turned - (length + 3.0 * 2.0 / 12.0)).abs() < 1e-6, "{turned} {length}");
    let back = derecho_results::turned(&job, -3.0).unwrap().length().to_inches();
    assert!((back - (length - 0.5)).abs() < 1e-6);
    // A bar of no known thread tells nothing.
    let mut fixed = value.clone();
    fixed["setups"]["found"]["adjuster"] = json!({ "kind": "fixed" });
    assert_eq!(derecho_results::turned(&self::job(&fixed), 1.0), None);
}
