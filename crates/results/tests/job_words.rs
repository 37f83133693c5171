//! What is said to people: both unit systems, sides instead of signs, trade words, and
//! nothing that is no number.

#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::measure::{AngleEntry, TapeEntry, Unit};
use derecho_job::document::{Job, Sheet, SheetKind};
use derecho_results::json::value as in_words;
use derecho_results::{card, solve};
use derecho_words::Spoken as _;
use serde_json::Value;

const DEMO: [(&str, &str); 7] = [
    ("lookout-truck-7", include_str!("../../../demo/lookout-truck-7.derecho.json")),
    ("lookout-truck-12", include_str!("../../../demo/lookout-truck-12.derecho.json")),
    ("water-tender-3", include_str!("../../../demo/water-tender-3.derecho.json")),
    ("patrol-truck-6", include_str!("../../../demo/patrol-truck-6.derecho.json")),
    ("relay-van-2", include_str!("../../../demo/relay-van-2.derecho.json")),
    ("lookout-truck-4", include_str!("../../../demo/lookout-truck-4.derecho.json")),
    ("supply-truck-9", include_str!("../../../demo/supply-truck-9.derecho.json")),
];

fn demo(name: &str) -> Job {
    let (_, text) = DEMO.iter().find(|(other, _)| *other == name).unwrap();
    serde_json::from_str(text).unwrap()
}

fn inches(text: &str) -> TapeEntry {
    TapeEntry::parse(text, Unit::Inches).unwrap()
}

/// Every phrase of a result, workings aside: those show formulas, where a sign belongs.
fn phrases(value: &Value, found: &mut Vec<(String, String)>) {
    match value {
        Value::Object(map) if map.len() == 2 && map.contains_key("in") && map.contains_key("mm") => {
            let text = |unit: &str| map[unit].as_str().unwrap().to_owned();
            found.push((text("in"), text("mm")));
        }
        Value::Object(map) => {
            map.iter().filter(|(name, _)| *name != "working").for_each(|(_, member)| phrases(member, found));
        }
        Value::Array(items) => items.iter().for_each(|item| phrases(item, found)),
        _ => {}
    }
}

fn said(job: &Job) -> Vec<(String, String)> {
    let mut found = Vec::new();
    phrases(&in_words(solve(job)), &mut found);
    phrases(&in_words(card(job)), &mut found);
    found
}

#[test]
fn no_sentence_has_a_bare_minus_sign_or_a_number_that_is_none() {
    for (name, _) in DEMO {
        let sentences = said(&demo(name));
        assert!(sentences.len() > 10, "{name}");
        for (in_inches, in_millimetres) in sentences {
            for text in [in_inches, in_millimetres] {
                let signed =
                    text.as_bytes().windows(2).any(|pair| pair[0] == b'-' && pair[1].is_ascii_digit());
                let joined = text.contains("1-1/4-12");
                assert!(!signed || joined, "{name}: {text}");
                assert!(
                    !text.contains('−') && !text.contains("NaN") && !text.contains("inf"),
                    "{name}: {text}"
                );
                assert!(!text.is_empty(), "{name}");
            }
        }
    }
}

#[test]
fn each_unit_system_keeps_to_its_own() {
    for (name, _) in DEMO {
        for (in_inches, in_millimetres) in said(&demo(name)) {
            // One thought names both units on purpose: a thing to know by heart.
            if in_inches.contains("1/8\" (3 mm)") {
                continue;
            }
            assert!(!in_inches.contains(" mm"), "{name}: {in_inches}");
            assert!(!in_millimetres.contains('"'), "{name}: {in_millimetres}");
        }
    }
}

#[test]
fn the_answers_in_trade_words() {
    let results = solve(&demo("lookout-truck-7"));
    let sheet = &results.sheets[0];
    assert_eq!(sheet.says.as_ref().unwrap().inches(), "The axle is 1/2\" to the left (driver's)");
    // (6 33/64 − 5 31/64)/2 = 0.515625 in = 13.1 mm, to half a millimetre 13.
    assert_eq!(sheet.says.as_ref().unwrap().millimetres(), "The axle is 13 mm to the left (driver's)");
    let bar = results.bar.unwrap();
    assert_eq!(bar.says.inches(), "Bar angle 10.8°, frame end high");
    // 6/31.4325 = 0.19089 in per inch, to 1/32 in 3/16; 1.9 mm per 10 mm.
    assert_eq!(
        bar.rate_says.inches(),
        "At this height every 1\" of bump pushes the axle 3/16\" to the right."
    );
    assert_eq!(
        bar.rate_says.millimetres(),
        "At this height every 10 mm of bump pushes the axle 1.9 mm to the right."
    );
}

#[test]
fn right_hand_drive_turns_driver_and_passenger_round() {
    let mut job = demo("lookout-truck-7");
    job.rig.steering_side = Some(derecho_core::measure::Side::Right);
    let says = solve(&job).sheets[0].says.clone().unwrap().inches();
    assert_eq!(says, "The axle is 1/2\" to the left (passenger's)");
    job.rig.steering_side = None;
    let says = solve(&job).sheets[0].says.clone().unwrap().inches();
    assert_eq!(says, "The axle is 1/2\" to the left");
}

#[test]
fn the_longer_bar_is_answered_in_this_jobs_numbers() {
    let correction = solve(&demo("lookout-truck-12")).bar.unwrap().correction.unwrap();
    // Rates 6/31.4325 and 6/31.9374: 1.6 % less. At full bump (3 in): the plan is at
    // 31.9374 − √(1056 − 9) = −0.4199 in, as found at 0.5050 + 31.4325 − √(1024 − 9) = 0.0784.
    let says = correction.longer_says.unwrap().inches();
    assert!(says.contains("1.6 % less"), "{says}");
    assert!(
        says.contains(
            "At full bump the axle is 7/16\" to the right with it; as found it is 1/16\" to the left"
        ),
        "{says}"
    );
}

#[test]
fn a_level_bar_is_called_level() {
    let mut job = demo("lookout-truck-7");
    job.setups.found.bar.axle_eye_height = job.setups.found.bar.frame_eye_height.clone();
    let bar = solve(&job).bar.unwrap();
    assert_eq!(bar.says.inches(), "The bar is level");
    assert_eq!(bar.rate_says.inches(), "A small bump barely moves the axle sideways.");
    assert_eq!(bar.correction.unwrap().longer_says, None);
}

#[test]
fn a_finder_alone_says_how_little_it_is_good_for() {
    let mut job = demo("relay-van-2");
    job.setups.found.bar.frame_eye_height = None;
    job.setups.found.bar.finder.good_to = Some(AngleEntry::parse("1").unwrap());
    let bar = solve(&job).bar.unwrap();
    // 860 mm · cos 4.7° · 1° = 14.96 mm.
    let says = &bar.warnings[0].millimetres();
    assert!(says.contains("good to ±15 mm only"), "{says}");
    // 860 · sin 4.7° = 70.5 mm, axle end up.
    assert!((bar.rise.rise_mm.to_mm() + 70.46).abs() < 0.01);
}

#[test]
fn finder_and_heights_that_disagree_are_reported() {
    let mut job = demo("relay-van-2");
    job.setups.found.bar.finder.reading = Some(AngleEntry::parse("6.7").unwrap());
    let bar = solve(&job).bar.unwrap();
    // 860 · sin 6.7° = 100.3 mm against 70 mm: 30.5 mm apart.
    assert!(
        bar.warnings.iter().any(|w| w.millimetres().contains("disagree by 30.5 mm")),
        "{:?}",
        bar.warnings
    );
    assert_eq!(bar.found.rise_mm.to_mm(), -70.0, "the heights are used");
    job.setups.found.bar.bent = true;
    let bent = solve(&job).bar.unwrap();
    assert_eq!(bent.rise.disagreement_mm, None);
    assert!(bent.warnings.iter().any(|w| w.inches().contains("bent or tapered")));
}

#[test]
fn a_bar_pulled_tight_inside_the_travel_is_reported_with_its_travel() {
    let mut job = demo("lookout-truck-7");
    job.setups.found.bar.length = Some(inches("10"));
    job.rig.droop = Some(inches("6"));
    let bar = solve(&job).bar.unwrap();
    // v = 6 in on a 10 in bar: straight down at v = 10, 4 in further into droop.
    assert!((bar.found_swing.tight_in_droop_mm.unwrap().to_inches() + 4.0).abs() < 1e-9);
    assert!(
        bar.warnings.iter().any(|w| w.inches().contains("runs out of length 4\" into droop")),
        "{:?}",
        bar.warnings
    );
    assert!(bar.sweep[0].travel_mm.to_inches() >= -4.0 - 1e-9, "no samples beyond the limit");
}

#[test]
fn a_stick_out_sheet_says_where_to_slide() {
    let mut job = demo("lookout-truck-7");
    job.sheets[0].kind = SheetKind::StickOut;
    let result = &solve(&job).sheets[0];
    assert!(result.says.as_ref().unwrap().inches().starts_with("The sway bar is 1/2\" to the left"));
    assert!(result.advice.as_ref().unwrap().inches().contains("Slide it 1/2\" to the right (passenger's)."));
    assert!(!result.usable, "it drives no correction of the track bar");
    let results = solve(&job);
    assert_eq!(results.stages[1].headline.inches(), "not measured", "nor is it the axle's own reading");
}

#[test]
fn a_squareness_sheet_says_which_way_the_axle_points() {
    let mut job = demo("water-tender-3");
    job.sheets.push(Sheet {
        id: "square".to_owned(),
        kind: SheetKind::Squareness,
        left: vec![Some(inches("112 1/2")); 3],
        right: vec![Some(inches("112")); 3],
        between_points: Some(inches("60")),
        ..Sheet::default()
    });
    let result = solve(&job).sheets[1].clone();
    // asin(0.5/60) = 0.4775°; at a rear axle the longer left side points to the left.
    let yaw = result.squareness.unwrap().yaw_deg.to_degrees();
    assert!((yaw - 0.477_5).abs() < 1e-4);
    assert_eq!(
        result.says.unwrap().inches(),
        "The axle is out of square: it points 0.48° to the left. Wheelbase differs by 1/2\" side to side"
    );
}

#[test]
fn second_thoughts_ask_for_what_would_help() {
    let mut job = demo("lookout-truck-7");
    let sheet = &mut job.sheets[0];
    sheet.left.truncate(2);
    sheet.conditions.on_its_weight = None;
    sheet.conditions.wheels_straight = Some(false);
    sheet.conditions.pressures_equal = Some(false);
    sheet.method = derecho_job::document::Method::BodyToSidewall;
    sheet.frame_above_hub_left = Some(inches("14"));
    sheet.frame_above_hub_right = Some(inches("14 1/2"));
    let thoughts: Vec<String> =
        solve(&job).sheets[0].second_thoughts.iter().map(|t| t.inches().clone()).collect();
    for part in [
        "three or four times",
        "on its wheels",
        "wheels were not straight",
        "tires were not equal",
        "plumb line is off on a sloping floor",
        "1/2\" higher on one side",
    ] {
        assert!(thoughts.iter().any(|thought| thought.contains(part)), "{part}: {thoughts:?}");
    }
}

#[test]
fn a_leaning_axle_is_reckoned_with_once_height_and_track_are_known() {
    let mut job = demo("lookout-truck-7");
    let sheet = &mut job.sheets[0];
    sheet.frame_above_hub_left = Some(inches("14"));
    sheet.frame_above_hub_right = Some(inches("14 1/2"));
    sheet.height_above_axle = Some(inches("4"));
    let centring = solve(&job).sheets[0].centring.clone().unwrap();
    // The right frame is higher over its hub, so the left wheel is higher: φ = asin(0.5/61.5),
    // and 4 in above the axle it hides 4·0.5/61.5 = 0.03252 in.
    assert!((centring.lean_correction_mm.to_inches() - 0.032_52).abs() < 1e-5);
    assert!((centring.offset_mm.to_inches() - (0.515_625 + 0.032_52)).abs() < 1e-5);
}

#[test]
fn cards_say_where_each_job_stands() {
    let waits = |name| card(&demo(name)).waits.map(|phrase| phrase.inches);
    assert_eq!(waits("lookout-truck-7").as_deref(), Some("Choose a hole, or length only"));
    assert_eq!(waits("lookout-truck-12").as_deref(), Some("Choose a hole, or length only"));
    assert_eq!(waits("lookout-truck-4").as_deref(), Some("Measure both sides again"));
    assert_eq!(waits("supply-truck-9").as_deref(), Some("Road test it, then close the job"));
    assert_eq!(card(&demo("supply-truck-9")).says.inches, "Proved: centered within 1/8\"");
    let fresh = card(&Job::new("Fresh"));
    assert_eq!(fresh.says.inches, "Nothing measured yet");
    assert_eq!(fresh.waits.unwrap().inches, "Measure both sides");
}

#[test]
fn every_stage_has_cautions_and_they_are_the_same_for_every_job_with_a_bar() {
    use derecho_job::cautions::{Stage, cautions};
    let all = cautions(false, true);
    for stage in [Stage::Rig, Stage::Tape, Stage::Bar, Stage::Prove] {
        assert!(all.iter().any(|caution| caution.stage == stage), "{stage:?}");
    }
    assert_eq!(solve(&Job::new("Fresh")).cautions, all);
    // A rear axle has no steering to mind.
    let rear = solve(&demo("supply-truck-9")).cautions;
    assert_eq!(rear, cautions(false, false));
    let steering =
        |said: &str| said.contains("teering wheel") || said.contains("drag link") || said.contains("toe");
    assert!(all.iter().any(|caution| steering(&caution.says.inches())));
    assert!(rear.iter().all(|caution| !steering(&caution.says.inches())), "{rear:?}");
    // A Y-link has legs and no bar to mind, and neither riser nor drop; everything else is minded all the same.
    let mut y_link = Job::new("Fresh");
    y_link.rig.axle_location = Some(derecho_job::document::AxleLocation::YLink);
    let reported = solve(&y_link).cautions;
    assert_eq!(reported, cautions(true, true));
    assert_eq!(reported.len(), all.len() - 1);
    let bracket = |reported: &[derecho_job::cautions::Caution]| -> Vec<String> {
        reported
            .iter()
            .filter(|caution| caution.stage == Stage::Bracket)
            .map(|caution| caution.says.inches())
            .collect()
    };
    assert!(
        bracket(&reported).iter().all(|says| !says.contains("the bar adjusts") && !says.contains("riser"))
    );
    assert!(bracket(&reported)[0].contains("the Y-link's legs adjust both ways"));
    assert_eq!(bracket(&reported).len(), bracket(&all).len() - 1);
}

#[test]
fn what_nobody_measured_is_reported_as_assumed() {
    let reported =
        |job: &Job| -> Vec<String> { solve(job).assumptions.into_iter().map(|a| a.pointer).collect() };
    assert_eq!(reported(&demo("lookout-truck-7")), Vec::<String>::new());
    let mut job = demo("lookout-truck-7");
    job.rig.bump = None;
    job.rig.tyre_width = None;
    assert_eq!(reported(&job), ["/rig/bump", "/rig/tyre_width"]);
    let results = solve(&job);
    assert_eq!(results.elevation.full_bump_mm.to_mm(), 75.0);
    assert!(!results.assumptions[0].drawing_only && results.assumptions[1].drawing_only);
}
