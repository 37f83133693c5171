//! Whole jobs through `solve`: the demo jobs, the worked example, and what a person
//! can get wrong. Expected figures are worked by hand from the typed readings.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::bar::adjuster::Verdict;
use derecho_core::measure::centring::Answer;
use derecho_core::measure::{Length, Side, TapeEntry, Unit};
use derecho_job::check;
use derecho_job::document::{HeightId, Job, PlanForm, Round, RoundId, Sheet};
use derecho_job::prove::{Cause, ProveVerdict};
use derecho_job::strip::Progress;
use derecho_results::json::value as in_words;
use derecho_results::{settle, solve};
use derecho_words::Spoken as _;
use proptest::prelude::*;

const DEMO: [&str; 7] = [
    include_str!("../../../demo/lookout-truck-7.derecho.json"),
    include_str!("../../../demo/lookout-truck-12.derecho.json"),
    include_str!("../../../demo/water-tender-3.derecho.json"),
    include_str!("../../../demo/relay-van-2.derecho.json"),
    include_str!("../../../demo/lookout-truck-4.derecho.json"),
    include_str!("../../../demo/supply-truck-9.derecho.json"),
    include_str!("../../../demo/patrol-truck-6.derecho.json"),
];

fn demo(index: usize) -> Job {
    serde_json::from_str(DEMO[index]).unwrap()
}

fn inches(text: &str) -> TapeEntry {
    TapeEntry::parse(text, Unit::Inches).unwrap()
}

fn sheet(id: &str, round: u32, left: &str, right: &str) -> Sheet {
    let after = if round == 0 { RoundId::default() } else { RoundId::new(format!("round-{round}")) };
    let mut sheet = Sheet { id: id.to_owned(), after, ..Sheet::default() };
    sheet.conditions.on_its_weight = Some(true);
    sheet.left = vec![Some(inches(left)); 4];
    sheet.right = vec![Some(inches(right)); 4];
    sheet
}

fn set_to(text: &str) -> Round {
    Round { length: Some(inches(text)), ..Round::default() }
}

#[test]
fn every_demo_job_is_sound_and_survives_the_trip_through_json() {
    for text in DEMO {
        let job: Job = serde_json::from_str(text).unwrap();
        assert_eq!(check(&job), [], "{}", job.title);
        let again: Job = serde_json::from_str(&serde_json::to_string(&job).unwrap()).unwrap();
        assert_eq!(again, job);
        let results = solve(&job);
        assert_eq!(results.stages.len(), 8);
        assert!(results.bar.is_some(), "{}: {:?}", job.title, results.bar_missing);
    }
}

#[test]
fn the_worked_example_comes_out_of_a_job_with_no_readings() {
    let results = solve(&demo(1));
    let bar = results.bar.unwrap();
    let lift = bar.lift.unwrap();
    assert_eq!(format!("{:.4}", lift.before.reach_mm.to_inches()), "31.9374");
    assert_eq!(format!("{:.4}", bar.found.reach_mm.to_inches()), "31.4325");
    assert_eq!(format!("{:.4}", lift.shift_mm.to_inches()), "0.5050");
    assert_eq!(format!("{:.3}", bar.found.angle_deg.to_degrees()), "10.807");
    let correction = bar.correction.unwrap();
    assert_eq!(format!("{:.4}", correction.recentring.length_mm.to_inches()), "32.4962");
    // Something touches with the length alone, and holes are on offer: the choice comes before the length.
    assert!(correction.decide_first);
    assert!(correction.says.inches().starts_with("Decide first: a hole, or length only"));
    let mut decided = demo(1);
    decided.setups.plans.chosen = Some(PlanForm::default());
    let decided = solve(&decided).bar.unwrap().correction.unwrap();
    assert_eq!(decided.says.inches(), "Estimate: 1/2\" longer. Measure both sides first.");
    assert_eq!(decided.length_mm, correction.length_mm);
    assert_eq!(correction.setting.unwrap().exactly.unwrap().inches(), "3 turns minus 0.14 flat");
    let numbers: Vec<String> =
        correction.working.steps.iter().map(|step| step.result.inches.clone()).collect();
    assert_eq!(&numbers[..3], ["31.9374 in", "32.4962 in", "0.4962 in"]);
    assert_eq!(numbers[5], "0.0088 in");
}

#[test]
fn an_empty_place_among_the_readings_counts_for_nothing() {
    let mut job = demo(0);
    let full = solve(&job).sheets[0].centring.clone();
    job.sheets[0].left.insert(1, None);
    job.sheets[0].right.push(None);
    assert_eq!(solve(&job).sheets[0].centring, full);
}

#[test]
fn readings_rule_over_what_the_lift_would_do() {
    let mut job = demo(1);
    job.sheets.push(sheet("as-found", 0, "6 1/4", "5 3/4"));
    let results = solve(&job);
    // Half of 1/2 in.
    assert_eq!(results.sheets[0].says.as_ref().unwrap().inches(), "The axle is 1/4\" to the left (driver's)");
    let correction = results.bar.unwrap().correction.unwrap();
    assert!((correction.basis.offset_mm.to_inches() - 0.25).abs() < 1e-12);
    // √((31.43247 + 0.25)² + 36) − 32 = 0.24561
    assert!((correction.recentring.change_mm.to_inches() - 0.245_6).abs() < 1e-4);
}

#[test]
fn a_rear_with_the_frame_eye_on_the_right_and_a_fore_aft_offset() {
    let results = solve(&demo(2));
    let sheet = results.sheets[0].centring.as_ref().unwrap();
    // (7.270833 − 7.895833) / 2 = −0.3125
    assert!((sheet.offset_mm.to_inches() + 0.3125).abs() < 1e-9);
    assert_eq!(sheet.side, Side::Right);
    let bar = results.bar.unwrap();
    // √(38² − 5² − 1.5²) = 37.6398
    assert!((bar.found.reach_mm.to_inches() - 1416.75_f64.sqrt()).abs() < 1e-9);
    // Frame eye right and axle to the right: longer.
    assert!(bar.correction.unwrap().recentring.change_mm > Length::ZERO);
    // Empty it stands 1 1/2 in higher: v = 6 1/2 there.
    let empty = results.heights.iter().find(|height| !height.driven).unwrap();
    let angle = empty.found.unwrap().angle_deg.to_degrees();
    assert!((angle - (6.5_f64).atan2((1444.0_f64 - 42.25 - 2.25).sqrt()).to_degrees()).abs() < 1e-9);
    assert!((empty.bump_left_mm.to_inches() - 4.5).abs() < 1e-9);
    assert!((empty.droop_left_mm.to_inches() - 3.5).abs() < 1e-9);
}

#[test]
fn a_lowered_van_with_its_bar_the_other_way_up() {
    let results = solve(&demo(3));
    let bar = results.bar.unwrap();
    assert_eq!(bar.found.rise_mm.to_mm(), -70.0);
    assert_eq!(bar.says.inches(), "Bar angle 4.7°, axle end high");
    assert_eq!(bar.rise.disagreement_mm, None, "the finder agrees with the heights");
    // Level 70 mm further down in droop.
    assert_eq!(bar.level_travel_mm.to_mm(), -70.0);
    // No fore-aft offset: straight up or down when v is the whole 860 mm.
    assert!((bar.tight_droop_travel_mm.to_mm() - (-70.0 - 860.0)).abs() < 1e-9);
    assert!((bar.tight_bump_travel_mm.to_mm() - (-70.0 + 860.0)).abs() < 1e-9);
    let setting = bar.correction.unwrap().setting.unwrap().facts;
    // 5 mm wanted, half turns of 0.75 mm: seven of them, 3 turns and 3 flats.
    assert_eq!((setting.turns, setting.flats, setting.verdict), (Some(3), Some(3), Verdict::Fits));
}

#[test]
fn scattered_readings_offer_no_length() {
    let results = solve(&demo(4));
    let sheet = &results.sheets[0];
    assert_eq!(sheet.centring.as_ref().unwrap().answer, Answer::CannotTell);
    assert!(
        sheet
            .second_thoughts
            .iter()
            .any(|thought| thought.inches().contains("on the left by 5/8\", on the right by 5/8\""))
    );
    let bar = results.bar.unwrap();
    assert_eq!(bar.correction, None);
    assert!(bar.withheld.unwrap().inches().contains("can't tell"));
}

#[test]
fn a_job_carried_through_is_proved_and_can_be_settled() {
    let job = demo(5);
    let results = solve(&job);
    let proof = results.prove.unwrap();
    assert_eq!(proof.verdict, ProveVerdict::CanSettle);
    assert_eq!(proof.cause, None);
    let movement = proof.movement.unwrap();
    assert!(movement.agrees, "{}", movement.says.inches());
    // h(36.375) − h(36) with v = 4.5: 36.09557 − 35.71764 = 0.37793 to the right.
    assert!((movement.predicted_mm.to_inches() + 0.377_9).abs() < 1e-4);

    let settled = settle(&job, "2026-09-14T16:00:00Z".parse().unwrap()).unwrap();
    assert_eq!(solve(&settled).settled_stands, Some(true));
    let text = serde_json::to_string(&settled).unwrap();
    let mut again: Job = serde_json::from_str(&text).unwrap();
    assert_eq!(solve(&again).settled_stands, Some(true), "the frozen copy survives the file");
    again.setups.found.bar.length = Some(inches("36 1/4"));
    let moved = solve(&again);
    assert_eq!(moved.settled_stands, Some(false));
    assert_eq!(moved.stages[7].progress, Progress::NeedsLook);
}

/// What only the drawing takes, the rails' underside, is no figure that was proved; and a copy of an older program,
/// which holds the drawing, stands.
#[test]
fn a_settled_job_stands_whatever_it_is_drawn_from() {
    let mut settled = settle(&demo(5), "2026-09-14T16:00:00Z".parse().unwrap()).unwrap();
    settled.sway.room.rail_underside = Some(inches("26 1/2"));
    let results = solve(&settled);
    assert!((results.elevation.frame_bottom_mm.to_inches() - 26.5).abs() < 1e-9);
    assert_eq!(results.settled_stands, Some(true));
    let kept = &mut settled.settled.as_mut().unwrap().results;
    assert!(kept.get("elevation").is_none(), "it is not kept");
    kept["elevation"] = serde_json::json!({ "track_mm": 1.0 });
    assert_eq!(solve(&settled).settled_stands, Some(true));
    // The demo jobs that were settled stand as they are opened.
    for text in [
        include_str!("../../../demo/ridge-truck-1.derecho.json"),
        include_str!("../../../demo/patrol-truck-14.derecho.json"),
    ] {
        let job: Job = serde_json::from_str(text).unwrap();
        assert_eq!(solve(&job).settled_stands, Some(true), "{}", job.title);
    }
}

/// What a row is called is no figure: a copy that holds names of then, as those of older programs do, stands, and so does
/// a job of which a row was renamed since.
#[test]
fn a_settled_job_stands_whatever_its_rows_are_called() {
    let mut settled = settle(&demo(5), "2026-09-14T16:00:00Z".parse().unwrap()).unwrap();
    for name in ["/rig/heights/0/name", "/bracket/bars/0/name"] {
        let mut value = serde_json::to_value(&settled).unwrap();
        let Some(called) = value.pointer_mut(name) else { continue };
        *called = serde_json::json!("anew");
        let renamed: Job = serde_json::from_value(value).unwrap();
        assert_eq!(solve(&renamed).settled_stands, Some(true), "{name}");
    }
    let kept = &mut settled.settled.as_mut().unwrap().results;
    kept["bar"]["working"]["title"] = serde_json::json!("Angle");
    kept["prove"]["grounds"][0]["name"] = serde_json::json!("axle under the frame");
    assert_eq!(solve(&settled).settled_stands, Some(true));
    kept_offset(&mut settled);
    assert_eq!(solve(&settled).settled_stands, Some(false), "a figure beside a name is held");
}

fn kept_offset(settled: &mut Job) {
    let kept = &mut settled.settled.as_mut().unwrap().results;
    let offset = kept.pointer_mut("/prove/after/offset_mm").unwrap();
    *offset = serde_json::json!(offset.as_f64().unwrap() + 1.0);
}

/// A browser writes 1 where the program wrote 1.0: what was settled stands when the job comes back from it.
#[test]
fn a_settled_job_that_went_through_a_browser_stands() {
    fn through_a_browser(value: &mut serde_json::Value) {
        match value {
            serde_json::Value::Number(number) => {
                if let Some(whole) = number.as_f64().filter(|n| n.fract() == 0.0 && n.abs() < 1e15) {
                    *value = serde_json::json!(whole as i64);
                }
            }
            serde_json::Value::Array(list) => list.iter_mut().for_each(through_a_browser),
            serde_json::Value::Object(map) => map.values_mut().for_each(through_a_browser),
            _ => {}
        }
    }
    let settled = settle(&demo(5), "2026-09-14T16:00:00Z".parse().unwrap()).unwrap();
    let mut value = in_words(&settled);
    let before = value.clone();
    through_a_browser(&mut value);
    assert_ne!(value, before, "some figure of it is whole");
    assert_eq!(solve(&serde_json::from_value(value).unwrap()).settled_stands, Some(true));
}

/// What another version of the rules settled stands while this one finds the same figures, whatever it
/// says of them and whatever it tells beside; it does not where a figure has moved.
#[test]
fn a_job_of_another_version_stands_on_its_figures() {
    let mut settled = settle(&demo(5), "2026-09-14T16:00:00Z".parse().unwrap()).unwrap();
    let kept = settled.settled.as_mut().unwrap();
    kept.core_version = "0.1.0".to_owned();
    kept.results["core_version"] = serde_json::json!("0.1.0");
    kept.results["bar"]["says"] =
        serde_json::json!({ "in": "Said otherwise then", "mm": "Said otherwise then" });
    kept.results["bar"].as_object_mut().unwrap().remove("level_travel_mm");
    assert_eq!(solve(&settled).settled_stands, Some(true));
    let mut turned = settled.clone();
    turned.setups.found.bar.length = Some(inches("36 1/4"));
    assert_eq!(solve(&turned).settled_stands, Some(false));
    let mut other_rules = settled.clone();
    let offset = &mut other_rules.settled.as_mut().unwrap().results["prove"]["movement"]["measured_mm"];
    *offset = serde_json::json!(offset.as_f64().unwrap() + 0.5);
    assert_eq!(solve(&other_rules).settled_stands, Some(false));
}

#[test]
fn an_unproved_job_cannot_be_settled() {
    assert!(settle(&demo(0), "2026-09-14T16:00:00Z".parse().unwrap()).is_none());
}

/// The lifted front of the worked example, read 1/2 in to the left, set to `length`,
/// read again.
fn carried_on(length: &str, after: Sheet) -> Job {
    let mut job = demo(1);
    job.sheets = vec![sheet("as-found", 0, "6 1/2", "5 1/2"), after];
    job.setups.record(set_to(length));
    job
}

#[test]
fn likely_causes() {
    // 1/2 in wants about 0.491 in more length; twice that turns the axle as far over.
    let hanging = {
        let mut after = sheet("after", 1, "6", "6");
        after.conditions.on_its_weight = Some(false);
        after
    };
    let higher = {
        let mut after = sheet("after", 1, "6 1/4", "5 3/4");
        after.frame_above_hub_left = Some(inches("14"));
        after.frame_above_hub_right = Some(inches("14"));
        after
    };
    let rows = [
        ("as predicted", "32 1/2", sheet("after", 1, "6", "6"), None, ProveVerdict::CanSettle),
        (
            "twice the length set",
            "33",
            sheet("after", 1, "5 1/2", "6 1/2"),
            Some(Cause::FullDifferenceUsed),
            ProveVerdict::BackToBar,
        ),
        (
            "twice the turns made",
            "32 1/2",
            sheet("after", 1, "5 1/2", "6 1/2"),
            Some(Cause::FullDifferenceUsed),
            ProveVerdict::BackToBar,
        ),
        (
            "shortened instead",
            "31 1/2",
            sheet("after", 1, "7", "5"),
            Some(Cause::SignTurned),
            ProveVerdict::BackToBar,
        ),
        (
            "turned the wrong way",
            "32 1/2",
            sheet("after", 1, "7", "5"),
            Some(Cause::SignTurned),
            ProveVerdict::BackToBar,
        ),
        (
            "nothing happened",
            "32 1/2",
            sheet("after", 1, "6 1/2", "5 1/2"),
            Some(Cause::NotMoved),
            ProveVerdict::BackToBar,
        ),
        ("read while hanging", "32 1/2", hanging, Some(Cause::ReadWhileHanging), ProveVerdict::ReadAgain),
        (
            "some other thing",
            "32 1/2",
            sheet("after", 1, "6 1/4", "5 3/4"),
            Some(Cause::Unexplained),
            ProveVerdict::BackToBar,
        ),
    ];
    for (name, length, after, cause, verdict) in rows {
        let proof = solve(&carried_on(length, after)).prove.unwrap();
        assert_eq!(proof.cause, cause, "{name}: {:?}", proof.movement.map(|m| m.says.inches()));
        assert_eq!(proof.verdict, verdict, "{name}");
        assert_eq!(proof.cause.is_some(), proof.cause_says.is_some());
    }
    let mut job = carried_on("32 1/2", higher);
    job.sheets[0].frame_above_hub_left = Some(inches("13"));
    job.sheets[0].frame_above_hub_right = Some(inches("13"));
    let proof = solve(&job).prove.unwrap();
    assert_eq!(proof.cause, Some(Cause::HeightChanged));
    assert!(proof.cause_says.unwrap().inches().starts_with("The body is 1\" higher than before"));
}

#[test]
fn back_to_bar_starts_from_the_length_set() {
    let job = carried_on("32 1/4", sheet("after", 1, "6 1/4", "5 3/4"));
    let correction = solve(&job).bar.unwrap().correction.unwrap();
    assert_eq!(correction.round, 1);
    assert_eq!(correction.from_length_mm.to_inches(), 32.25);
    assert!((correction.basis.offset_mm.to_inches() - 0.25).abs() < 1e-9);
    // 1/4 in at 1/6 in a turn came out of both ends already: 1.5 turns of 1/12.
    let before = correction.setting.unwrap().facts.ends[0].engagement_before_mm.unwrap();
    assert!((before.to_inches() - 1.875).abs() < 1e-9);
}

#[test]
fn hanging_stale_and_elsewhere_read_sheets_drive_nothing() {
    let mut job = demo(0);
    job.sheets[0].conditions.on_its_weight = Some(false);
    let hanging = solve(&job);
    assert!(!hanging.sheets[0].usable);
    assert!(hanging.sheets[0].refusals[0].inches().contains("hanging"));

    let mut job = demo(0);
    job.sheets[0].height = HeightId::new("water tank full");
    let elsewhere = solve(&job);
    assert!(!elsewhere.sheets[0].usable);
    assert!(elsewhere.sheets[0].refusals[0].inches().contains("driven at empty"));

    let mut job = demo(0);
    job.setups.record(set_to("32 1/2"));
    let stale = solve(&job);
    assert!(!stale.sheets[0].usable && !stale.sheets[0].current);
    assert_eq!(stale.stages[1].progress, Progress::NeedsLook);
    assert!(stale.bar.unwrap().correction.unwrap().set.is_some(), "the round it was set in is still shown");
}

#[test]
fn readings_changed_after_setting_ask_for_another_look() {
    let mut job = demo(0);
    let wanted = solve(&job).bar.unwrap().correction.unwrap().recentring.length_mm;
    job.setups.record(Round { wanted_mm: Some(wanted.to_mm()), ..set_to("32 1/2") });
    assert_eq!(solve(&job).stages[2].progress, Progress::Settled);
    job.sheets[0].left = vec![Some(inches("7")); 4];
    assert_eq!(solve(&job).stages[2].progress, Progress::NeedsLook);
}

#[test]
fn the_height_a_bar_was_read_at_is_taken_into_account() {
    let mut job = demo(0);
    // Read with the tank full, 1 1/4 in lower: at the driven height the frame eye is
    // that much higher again.
    job.setups.found.bar.height = HeightId::new("water tank full");
    let rise = solve(&job).bar.unwrap().found.rise_mm;
    assert!((rise.to_inches() - 7.25).abs() < 1e-9);
}

#[test]
fn an_impossible_bar_gets_a_sentence_with_its_field() {
    let mut job = demo(0);
    job.setups.found.bar.length = Some(inches("5"));
    let results = solve(&job);
    assert!(results.bar.is_none());
    assert_eq!(results.bar_missing[0].pointer, "/setups/found/bar/length");
    assert_eq!(results.bar_missing[0].code, "impossible_bar");
}

#[test]
fn an_empty_job_asks_for_what_it_needs() {
    let results = solve(&Job::new("New"));
    let asked: Vec<&str> = results.bar_missing.iter().map(|fault| fault.pointer.as_str()).collect();
    assert_eq!(
        asked,
        ["/rig/frame_eye_side", "/setups/found/bar/length", "/setups/found/bar/frame_eye_height"]
    );
    assert!(results.stages.iter().all(|stage| stage.progress == Progress::Nothing));
}

#[test]
fn plumbed_eyes_that_disagree_with_the_length_are_reported() {
    let mut job = demo(0);
    job.setups.found.bar.axle_eye_from_centre = Some(inches("16 3/16"));
    // 15 1/4 + 16 3/16 = 31 7/16 against a reach of 31.4325: agrees.
    assert!(!solve(&job).bar.unwrap().eye_check.unwrap().too_much);
    job.setups.found.bar.axle_eye_from_centre = Some(inches("15 1/2"));
    assert!(solve(&job).bar.unwrap().eye_check.unwrap().too_much);
}

#[test]
fn every_fault_of_a_document_is_reported_at_once_with_its_place() {
    let mut job = demo(0);
    job.title = " ".to_owned();
    job.rig.driven_height = HeightId::new("parked");
    job.rig.track = Some(inches("0"));
    job.sheets[0].left[2] = Some(inches("-3/8"));
    job.sheets[0].after = RoundId::new("round-3");
    job.setups.found.adjuster.made_min = Some(inches("40"));
    let faults = check(&job);
    let reported: Vec<(&str, &str)> = faults.iter().map(|f| (f.pointer.as_str(), f.code.as_str())).collect();
    assert_eq!(
        reported,
        [
            ("/title", "name_missing"),
            ("/rig/track", "nought"),
            ("/rig/driven_height", "unknown_height"),
            ("/sheets/0/after", "unknown_round"),
            ("/sheets/0/left/2", "negative_distance"),
            ("/setups/found/adjuster/made_min", "range_turned_round"),
        ]
    );
}

#[test]
fn typed_figures_are_judged_all_at_once_along_the_schema() {
    use derecho_job::document::schema::job_schema;
    use derecho_job::document::schema_validate::figure_faults;
    let mut document: serde_json::Value = serde_json::from_str(DEMO[0]).unwrap();
    document["sheets"][0]["right"][1]["text"] = "5 17/16".into();
    document["rig"]["lift"]["text"] = "four".into();
    document["setups"]["found"]["adjuster"]["first"]["thread"] = "thick".into();
    document["rig"]["floor_slope"] = serde_json::json!({ "text": "steep" });
    let mut faults = figure_faults(&job_schema(), &document);
    faults.sort_by(|a, b| a.pointer.cmp(&b.pointer));
    let reported: Vec<(&str, &str)> = faults.iter().map(|f| (f.pointer.as_str(), f.code.as_str())).collect();
    assert_eq!(
        reported,
        [
            ("/rig/floor_slope", "bad_figure"),
            ("/rig/lift", "unknown_word"),
            ("/setups/found/adjuster/first/thread", "bad_figure"),
            ("/sheets/0/right/1", "fraction_too_large"),
        ]
    );
    assert_eq!((faults[3].start, faults[3].end), (Some(2), Some(7)));
}

#[test]
fn the_schema_of_a_job_points_only_at_what_it_defines() {
    let schema = derecho_job::document::schema::job_schema();
    fn references(value: &serde_json::Value, found: &mut Vec<String>) {
        match value {
            serde_json::Value::Object(map) => {
                found.extend(map.get("$ref").and_then(|r| r.as_str()).map(str::to_owned));
                map.values().for_each(|member| references(member, found));
            }
            serde_json::Value::Array(items) => items.iter().for_each(|item| references(item, found)),
            _ => {}
        }
    }
    let mut found = Vec::new();
    references(&schema, &mut found);
    assert!(found.len() > 50);
    for reference in found {
        let name = reference.strip_prefix("#/$defs/").unwrap_or_else(|| panic!("{reference}"));
        assert!(schema["$defs"].get(name).is_some(), "{name}");
    }
}

fn mirrored(job: &Job) -> Job {
    let mut mirror = job.clone();
    mirror.rig.frame_eye_side = job.rig.frame_eye_side.map(Side::other);
    mirror.rig.steering_side = job.rig.steering_side.map(Side::other);
    for sheet in &mut mirror.sheets {
        std::mem::swap(&mut sheet.left, &mut sheet.right);
    }
    mirror
}

#[test]
fn a_mirrored_job_wants_the_same_length_and_the_opposite_side() {
    for index in 0..DEMO.len() {
        let (job, mirror) = (demo(index), mirrored(&demo(index)));
        let (one, other) = (solve(&job).bar.unwrap(), solve(&mirror).bar.unwrap());
        let change = |bar: &derecho_job::bar::BarResult| {
            bar.correction.as_ref().map(|c| (c.recentring.change_mm.to_mm() * 1e9).round())
        };
        assert_eq!(change(&one), change(&other));
        assert_eq!(one.found.lateral_rate, -other.found.lateral_rate);
        assert_eq!(one.sweep[0].found_mm, -other.sweep[0].found_mm);
    }
}

proptest! {
    #[test]
    fn solve_never_panics_and_never_answers_with_a_number_that_is_none(
        length in 0.0_f64..3000.0,
        frame in 0.0_f64..2000.0,
        axle in 0.0_f64..2000.0,
        lift in -500.0_f64..500.0,
        left in 0.0_f64..2000.0,
        right in 0.0_f64..2000.0,
        set in prop::option::of(1.0_f64..3000.0),
    ) {
        let mm = |value: f64| TapeEntry::parse(&format!("{value:.3}"), Unit::Millimetres).unwrap();
        let mut job = demo(3);
        job.setups.found.bar.length = Some(mm(length));
        job.setups.found.bar.frame_eye_height = Some(mm(frame));
        job.setups.found.bar.axle_eye_height = Some(mm(axle));
        job.rig.lift = Some(mm(lift));
        job.sheets[0].left = vec![None, Some(mm(left))];
        job.sheets[0].right = vec![Some(mm(right))];
        if let Some(set) = set {
            job.setups.record(Round { length: Some(mm(set)), ..Round::default() });
        }
        // JSON has no NaN: serde_json writes null for one.
        let json = in_words(solve(&job));
        fn has_null(value: &serde_json::Value) -> bool {
            match value {
                serde_json::Value::Null => true,
                serde_json::Value::Object(map) => map.values().any(has_null),
                serde_json::Value::Array(items) => items.iter().any(has_null),
                _ => false,
            }
        }
        prop_assert!(!has_null(&json));
    }
}
