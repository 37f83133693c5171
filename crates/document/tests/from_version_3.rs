//! Version 3 named what it pointed at; version 4 and later point at ids. What the older program found by a name is found still.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::parts::BracketEnd;
use derecho_document::{Job, check::check, heights, migrate};
use proptest::prelude::*;
use serde_json::{Value, json};

fn old(parts: &Value) -> Value {
    let mut document = json!({ "format": "derecho-job", "version": 3, "title": "Old" });
    for (name, part) in parts.as_object().unwrap() {
        document[name] = part.clone();
    }
    document
}

fn read(parts: &Value) -> Job {
    let job = migrate::read(&old(parts).to_string()).unwrap();
    assert_eq!(job.version, 7);
    assert_eq!(check(&job), [], "it can be saved");
    job
}

#[test]
fn the_first_that_matches_at_that_end_is_meant() {
    let job = read(&json!({
        "bracket": { "brackets": [
            { "name": "kit", "end": "frame", "holes": [{ "name": "low", "up": "-1 in" }] },
            { "name": "kit", "end": "axle", "holes": [{ "name": "low", "up": "2 in" }, { "name": "low", "up": "3 in" }] },
            { "name": "kit", "end": "axle", "holes": [{ "name": "low", "up": "4 in" }] } ] },
        "setups": { "plans": { "chosen": { "axle": { "bracket": "kit", "hole": "low" },
            "frame": { "bracket": "kit", "hole": "low" } } } },
    }));
    let chosen = job.setups.plans.chosen.clone().unwrap();
    let up = |end, choice| job.hole(end, choice).unwrap().up.text().to_owned();
    assert_eq!(up(BracketEnd::Axle, chosen.axle.as_ref().unwrap()), "2 in");
    assert_eq!(up(BracketEnd::Frame, chosen.frame.as_ref().unwrap()), "-1 in");
}

/// A plan that names what is gone is not chosen any more, and says what it was; it can be read, and the job saved.
#[test]
fn a_plan_that_names_what_is_gone_is_kept_to_be_read() {
    let job = read(&json!({
        "bracket": { "bars": [{ "name": "new bar" }] },
        "setups": { "plans": {
            "chosen": { "axle": { "bracket": "riser", "hole": "hole 2" }, "bar": "new bar", "drag_link": "block" },
            "kept": [{ "bar": "old bar" }, { "bar": "new bar" }],
            "trial": { "frame": { "hole": "low" } } } },
    }));
    let plans = &job.setups.plans;
    assert!(plans.chosen.is_none() && plans.trial.is_none());
    let gone: Vec<Vec<String>> = plans.kept.iter().map(|plan| plan.gone.clone()).collect();
    assert_eq!(
        gone,
        [
            vec!["hole “hole 2” of bracket “riser”".to_owned(), "drag-link part “block”".to_owned()],
            vec!["hole “low”".to_owned()],
            vec!["bar “old bar”".to_owned()],
            vec![],
        ]
    );
    assert_eq!(plans.kept[0].bar.as_str(), "new bar", "what is there is pointed at still");
    // To follow one that names what is gone is refused where somebody types it.
    let mut followed = job.clone();
    followed.setups.plans.chosen = Some(plans.kept[0].clone());
    assert_eq!(check(&followed)[0].code, "plan_gone");
}

/// What was fitted and is gone was found to be the bar as found, and a hole by its move alone.
#[test]
fn a_round_keeps_what_it_named_in_its_note() {
    let job = read(&json!({
        "setups": { "rounds": [
            { "bar": "sold bar", "drag_link": "block", "note": "In the rain.",
              "moved": [{ "end": "axle", "by_mm": [0.0, 0.0, 50.8], "to": { "bracket": "riser", "hole": "high" } }] },
            { "bar": "" } ] },
        "sheets": [{ "id": "a" }, { "id": "b", "round": 1 }, { "id": "c", "round": 2 }, { "id": "d", "round": 9 }, { "id": "" }],
    }));
    let [first, second] = &job.setups.rounds[..] else { unreachable!() };
    assert_eq!(
        first.note,
        "In the rain.\nBar: sold bar\nDrag-link part: block\nMoved to hole “high” of bracket “riser”"
    );
    assert!(first.bar.as_ref().unwrap().is_empty() && first.drag_link.is_empty());
    assert_eq!(first.moved[0].by_mm, [0.0, 0.0, 50.8]);
    assert!(second.note.is_empty() && second.bar.is_some());
    let done: Vec<usize> = job.sheets.iter().map(|sheet| job.setups.rounds_after(&sheet.after)).collect();
    assert_eq!(done, [0, 1, 2, 2, 0]);
}

/// A height that was in no list was ride height, and what was read at it stays there.
#[test]
fn a_height_in_no_list_is_ride_height_by_its_name() {
    let job = read(&json!({
        "rig": { "heights": [{ "name": "raised", "offset": "2 in" }], "driven_height": "raised" },
        "sheets": [{ "id": "a", "height": "parked" }, { "id": "b", "height": "raised" }, { "id": "c" }],
        "hardpoints": { "height": "parked" },
    }));
    let names: Vec<&str> = job.rig.heights.iter().map(|height| height.name.as_str()).collect();
    assert_eq!(names, ["raised", "parked"]);
    let offsets: Vec<f64> =
        job.sheets.iter().map(|sheet| heights::offset_of(&job.rig, &sheet.height).to_inches()).collect();
    assert_eq!(offsets, [0.0, 2.0, 0.0]);
    assert_eq!(heights::driven_offset(&job.rig).to_inches(), 2.0);
    assert_eq!(heights::read_at(&job).to_inches(), 0.0);
}

#[test]
fn the_arms_holes_keep_their_places() {
    let job = read(&json!({
        "sway": { "kind": "one_piece", "holes": ["9 in", "10 in", "11 in"], "hole": 1 },
        "setups": { "plans": { "sway": { "hole": 2 } }, "rounds": [{ "sway_hole": 0 }, { "sway_hole": 7 }] },
    }));
    assert_eq!(job.sway.arm().unwrap().to_inches(), 10.0);
    assert_eq!(job.sway.place_of(job.setups.plans.sway.hole.as_ref().unwrap()), 2);
    assert_eq!(job.sway.place_of(job.setups.rounds[0].sway_hole.as_ref().unwrap()), 0);
    assert!(job.setups.rounds[1].sway_hole.is_none());
}

/// A tick went by the place of its hole to drill.
#[test]
fn ticks_of_holes_to_drill_stay() {
    let job = read(&json!({ "bolt_up": { "drills": [{ "name": "side hole" }, { "name": "top hole" }],
        "steps": [{ "key": "drill/1", "note": "pilot first" }] } }));
    let ids: Vec<&str> = job.bolt_up.drills.iter().map(|drill| drill.id.as_str()).collect();
    assert_eq!(ids, ["0", "1"]);
    let key = format!("drill/{}", job.bolt_up.drills[1].id.as_str());
    assert_eq!(job.bolt_up.step(&key).unwrap().note, "pilot first");
}

/// Names as people type them: alike, empty, long, with what cannot be seen.
fn name() -> impl Strategy<Value = String> {
    prop_oneof![
        Just("riser".to_owned()),
        Just("hole 2".to_owned()),
        Just(String::new()),
        "[a-c ]{0,4}",
        Just("x".repeat(200)),
        Just("a\u{7}b".to_owned()),
    ]
}

fn first(names: &[String], name: &str) -> Option<usize> {
    names.iter().position(|other| other == name)
}

proptest! {
    /// Brought forward twice, or again from what came of it, it is the same; every row has an id of its own, and what
    /// was pointed at by a name is the first row of that name.
    #[test]
    fn bringing_forward_is_a_function_of_the_document(
        heights in prop::collection::vec(name(), 0..4), driven in name(),
        holes in prop::collection::vec(name(), 0..4), hole in name(),
        bars in prop::collection::vec(name(), 0..4), bar in name(),
    ) {
        let rows = |names: &[String], field: &str| {
            names.iter().map(|name| json!({ "name": name, field: "1 in" })).collect::<Vec<_>>()
        };
        let parts = json!({
            "rig": { "heights": rows(&heights, "offset"), "driven_height": driven },
            "bracket": { "bars": bars.iter().map(|name| json!({ "name": name })).collect::<Vec<_>>(),
                "brackets": [{ "name": "riser", "holes": rows(&holes, "up") }] },
            "setups": { "plans": { "chosen": { "axle": { "bracket": "riser", "hole": hole }, "bar": bar } } },
        });
        let mut once = old(&parts);
        migrate::bring_forward(&mut once);
        let mut again = old(&parts);
        migrate::bring_forward(&mut again);
        prop_assert_eq!(&once, &again);
        migrate::bring_forward(&mut again);
        prop_assert_eq!(&once, &again, "there is nothing left to do");
        let job = migrate::read(&once.to_string()).unwrap();
        // Names that were no good before are none now; nothing else is wrong with it.
        let of_names = ["name_missing", "too_long_text", "control_character"];
        let faults = check(&job);
        prop_assert!(faults.iter().all(|fault| of_names.contains(&fault.code.as_str())), "{faults:?}");
        let plan = job.setups.plans.chosen.as_ref();
        let sound = (hole.is_empty() || first(&holes, &hole).is_some())
            && (bar.is_empty() || first(&bars, &bar).is_some());
        prop_assert_eq!(plan.is_some(), sound);
        if let Some(plan) = plan {
            let meant = job.hole(BracketEnd::Axle, plan.axle.as_ref().unwrap());
            let wanted = (!hole.is_empty()).then(|| first(&holes, &hole).unwrap());
            prop_assert_eq!(meant, wanted.map(|place| &job.bracket.brackets[0].holes[place]));
            let wanted = (!bar.is_empty()).then(|| first(&bars, &bar).unwrap());
            prop_assert_eq!(job.bar_part(&plan.bar), wanted.map(|place| &job.bracket.bars[place]));
        }
        if !driven.is_empty() {
            let place = first(&heights, &driven).unwrap_or(heights.len());
            prop_assert_eq!(heights::height_of(&job.rig, &job.rig.driven_height), job.rig.heights.get(place));
        }
    }
}
