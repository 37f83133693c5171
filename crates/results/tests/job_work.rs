//! The work of whole jobs: what is ticked stays when the plan changes, what is open keeps a job from being settled,
//! and what else a part does. Figures are worked by hand beside each.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::sound as job;
use derecho_core::measure::Unit;
use derecho_job::bolt_up::{StepLine, StepState, Tightness, WorkResult};
use derecho_job::document::proof::ALL_THAT_WAS_OPEN;
use derecho_job::findings::FindingKind;
use derecho_job::log::{LogKind, log};
use derecho_job::verdict::FitVerdict;
use derecho_job::{Job, check};
use derecho_results::json::value as in_words;
use derecho_results::{cycle, plan, settle, solve, sway, work};
use derecho_words::Spoken as _;
use serde_json::{Value, json};

fn demo(name: &str) -> Value {
    let text = match name {
        "lookout-truck-12" => include_str!("../../../demo/lookout-truck-12.derecho.json"),
        "lookout-truck-7" => include_str!("../../../demo/lookout-truck-7.derecho.json"),
        "patrol-truck-14" => include_str!("../../../demo/patrol-truck-14.derecho.json"),
        "supply-truck-9" => include_str!("../../../demo/supply-truck-9.derecho.json"),
        "tower-truck-8" => include_str!("../../../demo/tower-truck-8.derecho.json"),
        other => panic!("{other}"),
    };
    serde_json::from_str(text).unwrap()
}

fn worked(value: &Value) -> WorkResult {
    work(&job(value))
}

fn step<'a>(worked: &'a WorkResult, key: &str) -> &'a StepLine {
    worked.steps.iter().find(|step| step.key == key).unwrap_or_else(|| panic!("{key}"))
}

/// A bar of 838 mm goes to an axle eye 70 mm up, from 205 of rise to 135, on an axle 10.5 mm to the left, driven 22 mm
/// above ride height, with 115 mm of droop from there.
#[test]
fn the_eye_goes_in_at_the_length_the_bar_has_by_then() {
    let reported = |kind: &str, engagements: &[&str]| {
        let mm = |text: &str| json!({ "text": text, "unit": "mm" });
        let end = |hand: &str, engagement: &&str| json!({ "thread": "M24x2", "hand": hand, "engagement": mm(engagement), "seat": "steel" });
        let mut adjuster = json!({ "kind": kind });
        for ((hand, place), engagement) in
            [("right", "first"), ("left", "second")].into_iter().zip(engagements)
        {
            adjuster[place] = end(hand, engagement);
        }
        let value = json!({
            "format": "derecho-job", "version": 7, "title": "one",
            "rig": {
                "frame_eye_side": "left", "heights": [{ "name": "bare", "offset": mm("22") }],
                "driven_height": "bare", "bump": mm("80"), "droop": mm("115"), "sheet_unit": "mm",
            },
            "bracket": { "brackets": [{ "name": "riser", "end": "axle", "holes": [{ "name": "B", "up": mm("70") }] }] },
            "sheets": [{
                "id": "as-found", "kind": "centring", "method": "frame_to_hub", "sense": "outward", "unit": "mm",
                "left": [mm("181"), mm("181"), mm("181")], "right": [mm("160"), mm("160"), mm("160")],
                "conditions": {
                    "on_its_weight": true, "wheels_straight": true, "pressures_equal": true, "leant_on": false,
                },
                "round": 0,
            }],
            "setups": {
                "found": {
                    "bar": {
                        "length": mm("838"), "frame_eye_height": mm("735"), "axle_eye_height": mm("530"),
                        "read": "as_it_stands", "bent": false,
                    },
                    "adjuster": adjuster,
                },
                "plans": { "chosen": { "axle": { "bracket": "riser", "hole": "B" } } },
            },
        });
        let worked = worked(&value);
        let turned = worked.steps.iter().any(|step| step.key == "bar/turn");
        (step(&worked, "bar/axle-eye-by-hand").how.clone().unwrap().millimetres(), turned)
    };
    // Turned once it hangs: √(838² − 135²) − √(838² − 205²) is 14.5, and at 93 mm under the height it stands at
    // √(838² − 228²) − √(838² − 298²) is 23.2 where the old bar had it there; where it stood on its wheels, 783.2 + s·e
    // of reach against √(838² − 228²) = 806.4 − … is told by its own sides.
    let (how, turned) = reported("turnbuckle", &["46", "44"]);
    assert!(
        turned
            && how.contains("has to come 14.5 mm to the right to line up.")
            && how.contains("look first: it may have to come 6 mm to the left or 23 mm to the right"),
        "{how}"
    );
    // Set on the bench the bar is as long as centres it: 812.5 + 10.5 of reach, and hung √(834² − 228²) − 783.2 less.
    let (how, turned) = reported("one_end", &["46"]);
    assert!(
        !turned
            && how.contains("has to come 10.5 mm to the right to line up.")
            && how.contains("look first: it may have to come"),
        "{how}"
    );
}

/// A coarse end turns by half turns of 3 mm. Wanted: √((√(905² − 35²) − 5.3)² + 35²) = 899.70 mm, 3.5 half turns; the
/// nearest four leave 899.0. What is set so is what the step said; a millimetre and a half beside it is not.
#[test]
fn a_length_set_to_the_nearest_step_is_the_one_that_was_ticked() {
    let mm = |text: &str| json!({ "text": text, "unit": "mm" });
    let side = |text: &str| json!([mm(text), mm(text), mm(text)]);
    let mut value = json!({
        "format": "derecho-job", "version": 7, "title": "Relay van 6",
        "rig": {
            "sheet_unit": "mm", "end": "rear", "frame_eye_side": "left", "axle_location": "four_arms",
            "heights": [{ "id": "loaded", "name": "loaded", "offset": mm("-25") }], "driven_height": "loaded",
        },
        "sheets": [{
            "id": "as-found", "kind": "centring", "method": "frame_to_hub", "sense": "outward", "unit": "mm",
            "left": side("151"), "right": side("161.6"),
            "conditions": {
                "on_its_weight": true, "wheels_straight": true, "pressures_equal": true, "leant_on": false,
            },
        }],
        "setups": { "found": {
            "bar": {
                "length": mm("905"), "frame_eye_height": mm("395"), "axle_eye_height": mm("430"),
                "read": "as_it_stands", "height": "loaded", "bent": false,
            },
            "adjuster": {
                "kind": "one_end", "end_style": "through_bolt",
                "first": { "thread": "M24x3", "hand": "right", "engagement": mm("50"), "seat": "steel" },
            },
        } },
    });
    let said = step(&worked(&value), "bar/adjuster-by-hand").does.millimetres();
    assert!(said.contains("899.7 mm"), "{said}");
    let mark = json!({ "at": "2026-11-30T10:00:00Z", "by": "T. Arle" });
    value["bolt_up"]["steps"] = json!([{ "key": "bar/adjuster-by-hand", "done": mark, "read": said }]);
    let mut state_at = |length: &str| {
        value["setups"]["rounds"] = json!([{ "id": "round-1", "length": mm(length), "wanted_mm": 899.704 }]);
        step(&worked(&value), "bar/adjuster-by-hand").state
    };
    assert_eq!(state_at("899"), StepState::Done);
    assert_eq!(state_at("899.7"), StepState::Done);
    assert_eq!(state_at("897.5"), StepState::Changed);
}

/// The plan goes from hole 3 to hole 2: the ticks stay, the step whose hole has changed says so with what it said, the
/// others are as they were.
#[test]
fn a_plan_changed_half_way_keeps_its_ticks_and_marks_what_it_changed() {
    let mut value = demo("tower-truck-8");
    let mark = json!({ "at": "2026-11-25T11:00:00Z", "by": "N. Orr" });
    let before = worked(&value);
    let eye = step(&before, "bar/frame-eye-by-hand").does.inches().clone();
    assert!(eye.contains("hole 3 of the three-hole drop"), "{eye}");
    value["bolt_up"]["steps"]
        .as_array_mut()
        .unwrap()
        .push(json!({ "key": "bar/frame-eye-by-hand", "done": mark, "read": eye, "stood": "supported" }));
    assert_eq!(step(&worked(&value), "bar/frame-eye-by-hand").state, StepState::Done);
    let ticked = worked(&value).done;

    value["setups"]["plans"]["chosen"]["frame"]["hole"] = json!("hole 2");
    let after = worked(&value);
    assert_eq!(after.done, ticked, "nothing ticked is lost");
    let changed = step(&after, "bar/frame-eye-by-hand");
    assert_eq!(changed.state, StepState::Changed);
    assert!(changed.does.inches().contains("hole 2"), "{}", changed.does.inches());
    assert!(
        changed.reported[0].inches().contains("hole 3 of the three-hole drop"),
        "{}",
        changed.reported[0].inches()
    );
    assert_eq!(step(&after, "stands").state, StepState::Done);
    // Read in the other unit nothing is another plan: the same step, the same length.
    let bench = step(&after, "bar/bench").does.clone();
    value["bolt_up"]["steps"]
        .as_array_mut()
        .unwrap()
        .push(json!({ "key": "bar/bench", "done": mark, "read": bench.millimetres() }));
    value["rig"]["sheet_unit"] = json!("mm");
    assert_eq!(step(&worked(&value), "bar/bench").state, StepState::Done);

    // Without the bracket its steps are gone, and are told as done.
    value["setups"]["plans"]["chosen"] = json!({ "bar": "long-sleeve turnbuckle bar" });
    let without = worked(&value);
    assert!(without.steps.iter().all(|step| !step.key.starts_with("frame/")));
    assert!(
        without.gone.iter().any(|says| says.inches().contains("Take off what is in the way")),
        "{:?}",
        without.gone
    );
}

/// Nothing is settled while something is off, a complaint unasked, a torque missing or the vehicle standing otherwise;
/// each is closed by itself, or all with a reason.
#[test]
fn what_is_open_keeps_a_job_from_being_settled() {
    let mut value = demo("supply-truck-9");
    let at = "2026-11-26T08:00:00Z".parse().unwrap();
    assert!(settle(&job(&value), at).is_some());
    let gates = |value: &Value| -> Vec<FindingKind> {
        solve(&job(value)).findings.into_iter().map(|gate| gate.kind).collect()
    };
    value["complaints"][0].as_object_mut().unwrap().remove("after");
    value["bolt_up"]["taken_off"] = json!([{ "name": "loom clip" }]);
    value["bolt_up"]["fasteners"][0].as_object_mut().unwrap().remove("tight");
    value["bolt_up"]["corners_before"] = json!({ "left_rear": "22 in", "right_rear": "22 in" });
    value["bolt_up"]["corners_after"] = json!({ "left_rear": "21 in", "right_rear": "22 in" });
    value["proof"] = json!({ "looked_at": { "lines": false, "sensors": true, "wheel_nuts": true } });
    assert_eq!(
        gates(&value),
        [
            FindingKind::StillOff,
            FindingKind::NotRight,
            FindingKind::TorqueMissing,
            FindingKind::StandsOtherwise,
            FindingKind::ComplaintOpen
        ],
        "the worst first: what nobody can accept, then safety, then what the job is for"
    );
    assert!(settle(&job(&value), at).is_none());
    // One reason does not do for five things: each has its own.
    let mut reasoned = value.clone();
    reasoned["proof"]["acceptances"] =
        json!([{ "key": ALL_THAT_WAS_OPEN, "because": "the owner takes it as it is" }]);
    assert!(settle(&job(&reasoned), at).is_none());
    let keys: Vec<String> = solve(&job(&value)).findings.into_iter().map(|gate| gate.key).collect();
    let reason = |key: &String| json!({ "key": key, "because": format!("the owner takes {key} as it is") });
    reasoned["proof"]["acceptances"] = keys.iter().map(reason).collect();
    assert!(settle(&job(&reasoned), at).is_none(), "nobody rolls with a clip off and a line that catches");
    let unfit: Vec<FindingKind> = solve(&job(&reasoned))
        .findings
        .into_iter()
        .filter(derecho_job::findings::Finding::stands_in_the_way)
        .map(|found| found.kind)
        .collect();
    assert_eq!(unfit, [FindingKind::StillOff, FindingKind::NotRight]);
    reasoned["bolt_up"]["taken_off"] = json!([]);
    reasoned["proof"]["looked_at"]["lines"] = json!(true);
    reasoned["proof"]["acceptances"] =
        keys[1..].iter().filter(|key| !key.starts_with("complaint")).map(reason).collect();
    assert!(settle(&job(&reasoned), at).is_none());
    reasoned["proof"]["acceptances"] = keys.iter().map(reason).collect();
    assert!(settle(&job(&reasoned), at).is_some());
    assert!(log(&job(&reasoned)).iter().any(|entry| entry.says.inches().contains("as it is")));

    value["complaints"][0]["after"] = json!("gone");
    value["bolt_up"]["taken_off"][0]["stays_off"] = json!("its clip broke; a new one is on order");
    value["bolt_up"]["fasteners"][0]["tight"] =
        json!({ "by_feel_because": "no room for the wrench", "done": { "at": "2026-11-25T11:00:00Z" } });
    value["bolt_up"]["corners_after"]["left_rear"] = json!("22 1/16 in");
    value["proof"]["looked_at"]["lines"] = json!(true);
    assert_eq!(gates(&value), []);
    assert!(settle(&job(&value), at).is_some());
}

/// 150 N·m wanted. 130 N·m is 13 % off and is told; 145 N·m is 3 % off and stands.
#[test]
fn a_wrench_that_read_otherwise_is_reported() {
    let mut value = demo("tower-truck-8");
    let reported = |value: &Value| {
        let worked = worked(value);
        let line = worked.fasteners.into_iter().find(|line| line.key == "bar/axle-eye").unwrap();
        (line.tightness, line.tight_says.unwrap().millimetres())
    };
    let made = |value: &mut Value, torque: &str| {
        let done = json!({ "at": "2026-11-25T11:00:00Z" });
        let form = json!({ "key": "bar/axle-eye", "tight": { "torque": torque, "done": done } });
        value["bolt_up"]["fasteners"].as_array_mut().unwrap().push(form);
    };
    let mut low = value.clone();
    made(&mut low, "130 Nm");
    let (tightness, says) = reported(&low);
    assert_eq!(tightness, Tightness::OtherThanWanted);
    assert!(says.contains("130 N·m") && says.contains("150 N·m"), "{says}");
    made(&mut value, "145 Nm");
    assert_eq!(reported(&value).0, Tightness::Tight);
    // A torque that was neither read nor explained is no torque.
    value["bolt_up"]["fasteners"][0]["tight"] = json!({ "done": { "at": "2026-11-25T11:00:00Z" } });
    let bad: Job = serde_json::from_value(value).unwrap();
    assert_eq!(check(&bad)[0].code, "neither_torque_nor_reason");
}

/// Grip 20 mm, two washers of 2.5 mm, a flanged nut as high as its bolt is thick, 10 mm, two pitches of 1.5 mm:
/// 20 + 5 + 10 + 3 = 38 mm; the next stock length is 40 mm. In inches: 3/4 + 1/4 + 1/2 + 2/20 = 1.6 in; 1 3/4 in is made.
#[test]
fn a_bolts_length_by_its_stack_in_both_unit_systems() {
    let with = |form: Value| {
        let mut value = demo("tower-truck-8");
        value["bolt_up"]["fasteners"] = json!([form]);
        let key = value["bolt_up"]["fasteners"][0]["key"].clone();
        let line = worked(&value).fasteners.into_iter().find(|line| line.key == key).unwrap();
        line.checks.into_iter().find(|check| check.name.inches() == "bolt length").unwrap()
    };
    let metric = json!({ "key": "frame/small", "thread": "M10x1.5", "nut": "flanged", "grip": "20 mm", "washer": "2.5 mm" });
    let reported = with(metric.clone());
    assert_eq!(reported.verdict, FitVerdict::Open);
    assert!(
        reported.says.millimetres().contains("38 mm")
            && reported.says.millimetres().contains("the next stock length is 40 mm"),
        "{}",
        reported.says.millimetres()
    );
    let mut short = metric;
    short["length"] = json!("35 mm");
    assert_eq!(with(short.clone()).verdict, FitVerdict::Bad);
    short["length"] = json!("40 mm");
    assert_eq!(with(short).verdict, FitVerdict::Good);
    let inch = json!({ "key": "frame/side", "thread": "1/2-20", "nut": "flanged", "grip": "3/4 in", "washer": "1/8 in" });
    let reported = with(inch);
    assert!(
        reported.says.inches().contains("the next stock length is 1 3/4\""),
        "{}",
        reported.says.inches()
    );
}

/// A bushing tightened on stands is told, a spherical joint is not.
#[test]
fn where_it_stood_is_reported_where_it_matters() {
    let mut value = demo("tower-truck-8");
    let mark = json!({ "at": "2026-11-25T11:00:00Z" });
    value["bolt_up"]["steps"].as_array_mut().unwrap().push(
        json!({ "key": "bar/frame-eye", "done": mark, "stood": "supported", "against": "dark by then" }),
    );
    let reported = |value: &Value| {
        let reported = step(&worked(value), "bar/frame-eye").reported.clone();
        reported.iter().map(|says| says.inches().clone()).collect::<Vec<_>>().join(" ")
    };
    let rubber = reported(&value);
    assert!(rubber.contains("Done on jack stands") && rubber.contains("Reason: dark by then"), "{rubber}");
    value["bracket"]["bars"][0]["frame_joint"] = json!("spherical");
    assert!(!reported(&value).contains("Done on jack stands"), "{}", reported(&value));
}

/// The eye is as far from its hole as the plan moves the axle: 3/8 in at the driven height, where stage Tape reads it.
#[test]
fn the_eye_is_off_by_what_stage_tape_reads() {
    let worked = worked(&demo("tower-truck-8"));
    let eye = step(&worked, "bar/axle-eye-by-hand").how.clone().unwrap();
    assert!(
        eye.inches().contains("Surest on its wheels: there the axle has to come 3/8\" to the right"),
        "{}",
        eye.inches()
    );
    let results = solve(&job(&demo("tower-truck-8")));
    let read = results.sheets[0].centring.as_ref().unwrap();
    assert!((read.offset_mm.to_inches() - 0.39).abs() < 0.02, "{}", read.offset_mm.to_inches());
}

/// Tools by the bolts: 9/16 takes 13/16 and 7/8, 1/2 takes 3/4 twice, M10 takes 16 mm twice (the standards' tables).
#[test]
fn tools_are_those_of_the_bolts() {
    let worked = worked(&demo("tower-truck-8"));
    let reported =
        |key: &str| worked.tools.iter().find(|tool| tool.key == key).map(|tool| tool.says.inches());
    assert_eq!(reported("13/16\" wrench").as_deref(), Some("socket or wrench"));
    assert_eq!(reported("7/8\" wrench").as_deref(), Some("socket or wrench"));
    assert_eq!(reported("3/4\" wrench").as_deref(), Some("2 at once, socket and wrench"));
    assert_eq!(reported("16 mm wrench").as_deref(), Some("2 at once, socket and wrench"));
    assert!(reported("1/4\" drill").is_some() && reported("1/2\" drill").is_some());
}

/// A missing part stops its steps, and what to write to its supplier stands ready.
#[test]
fn a_part_that_is_missing_stops_its_steps() {
    let mut value = demo("tower-truck-8");
    value["bolt_up"]["parts"][0] =
        json!({ "key": "part/bar", "state": "missing", "note": "only one jam nut came" });
    let worked = worked(&value);
    for key in ["bar/bench", "bar/frame-eye-by-hand", "bar/axle-eye-by-hand"] {
        assert_eq!(step(&worked, key).state, StepState::Stopped, "{key}");
    }
    assert_eq!(step(&worked, "frame/by-hand").state, StepState::Ready);
    let note = worked.parts[0].supplier_says.clone().unwrap().inches();
    assert!(note.contains("long-sleeve turnbuckle bar") && note.contains("only one jam nut came"), "{note}");
}

/// What is only usual yields to the maker's order; what is firm does not.
#[test]
fn a_makers_order_rules_over_the_usual_one() {
    let mut value = demo("tower-truck-8");
    let order: Vec<String> = worked(&value).steps.into_iter().map(|step| step.key).collect();
    let swapped = |a: &str, b: &str| -> Vec<String> {
        let name = |key: &String| {
            if key == a {
                b.to_owned()
            } else if key == b {
                a.to_owned()
            } else {
                key.clone()
            }
        };
        order.iter().map(name).collect()
    };
    value["bolt_up"]["order"] = json!(swapped("frame/main", "frame/small"));
    assert!(!worked(&value).broken.is_empty());
    value["bolt_up"]["makers_order"] = json!(true);
    assert_eq!(worked(&value).broken, []);
    value["bolt_up"]["order"] = json!(swapped("bar/jam", "read-again"));
    let broken = worked(&value).broken;
    assert!(
        broken.iter().any(|fault| fault.says.inches().contains("jam nuts and clamps come last")),
        "{broken:?}"
    );
}

/// 200 mm from rail to eye, held 100 mm below the rail: (200 − 100)/400 = 25 % stays, the brace carries
/// (600 − 100)/200 = 2.5 times the bar's load.
#[test]
fn a_brace_takes_its_share_off_the_rail() {
    let mut value = demo("tower-truck-8");
    let option = plan(&job(&value)).options.remove(0);
    let lever_mm = option.loads.frame_moment_nm * 1000.0 / option.loads.bar_n;
    let below = lever_mm / 2.0;
    value["bracket"]["brace"] = json!({ "name": "cross brace", "below_rail": format!("{below:.4} mm") });
    let fit = plan(&job(&value)).fit;
    let brace = fit.iter().find(|check| check.name.inches() == "brace to the opposite rail").unwrap();
    assert_eq!(brace.verdict, FitVerdict::Good);
    assert!(brace.says.inches().contains("25 % of the bending load stays"), "{}", brace.says.inches());
    let carried = format!("{:.0} N", (option.loads.bar_n * 2.5 / 50.0).round() * 50.0);
    assert!(brace.says.millimetres().contains(&carried), "{carried}: {}", brace.says.millimetres());
    value["bracket"]["brace"]["below_rail"] = json!(format!("{:.1} mm", lever_mm * 1.2));
    let fit = plan(&job(&value)).fit;
    assert_eq!(
        fit.iter().find(|c| c.name.inches() == "brace to the opposite rail").unwrap().verdict,
        FitVerdict::Bad
    );
}

/// A torsion bar's rate goes with the fourth power of its diameter: 32 mm for 28 is (32/28)⁴ = 1.706 times; with the
/// arm from 250 to 200 mm another (250/200)² = 1.5625 times.
#[test]
fn the_old_bar_stands_beside_the_new_one() {
    let mut value = demo("lookout-truck-7");
    let form = &mut value["sway"];
    form["kind"] = json!("splined");
    form["diameter"] = json!("32 mm");
    form["active_length"] = json!("900 mm");
    form["holes"] = json!(["200 mm"]);
    form["hole"] = json!("hole-1");
    form["bush_kind"] = json!("bearing");
    for stiff in ["link_rate", "bush_rate"] {
        form.as_object_mut().unwrap().remove(stiff);
    }
    assert!(sway(&job(&value)).old_and_new.is_empty());
    value["sway"]["old_bar"] = json!({ "kind": "splined", "diameter": "28 mm" });
    let rows = sway(&job(&value)).old_and_new;
    assert!((rows[0].against_old - 1.0).abs() < 1e-12);
    assert!((rows[1].against_old - (32.0_f64 / 28.0).powi(4)).abs() < 1e-9, "{}", rows[1].against_old);
    value["sway"]["old_bar"]["arm"] = json!("250 mm");
    let rows = sway(&job(&value)).old_and_new;
    let wanted = (32.0_f64 / 28.0).powi(4) * 1.5625;
    assert!((rows[1].against_old - wanted).abs() < 1e-9, "{}", rows[1].against_old);
    // Steel weighs 7.85 g/cm³: 28 mm over 900 mm are 554.2 cm³, 4.35 kg.
    assert!((rows[0].mass_kg - 4.35).abs() < 0.02, "{}", rows[0].mass_kg);
}

/// 5 mm under one of two clamps 800 mm apart: atan(5/800) = 0.36°; eyes 1000 mm apart stand 6.25 mm apart in height.
#[test]
fn a_shim_under_one_clamp_leans_the_bar() {
    let mut value = demo("lookout-truck-7");
    value["sway"]["shim"] = json!("5 mm");
    value["sway"]["shim_side"] = json!("left");
    value["sway"]["bush_spacing"] = json!("800 mm");
    value["sway"]["eye_from_centre"] = json!("500 mm");
    let checks = sway(&job(&value)).checks;
    let shim = checks.iter().find(|check| check.name.inches() == "shim under one clamp").unwrap();
    assert_eq!(shim.verdict, FitVerdict::Bad);
    let says = &shim.says.millimetres();
    assert!(says.contains("tilts the sway bar 0.4°") && says.contains("ends up 6.3 mm higher"), "{says}");
}

/// Half an inch past the stops: told where it is clear to the stops, and nothing where it is not even that.
#[test]
fn half_an_inch_past_the_stops_is_reported() {
    let free = cycle(&job(&demo("tower-truck-8")));
    assert!(free.past_stops_say.unwrap().inches().contains("1/2\" past"));
    let binds = cycle(&job(&demo("lookout-truck-7")));
    assert!(binds.past_stops_say.is_none(), "{:?}", binds.says);
}

/// Each complaint names what to look at in this job's own figures.
#[test]
fn complaints_are_answered_in_this_jobs_figures() {
    let value = demo("tower-truck-8");
    let results = solve(&job(&value));
    let advice = &results.complaints[0];
    let angle = results.bar.as_ref().unwrap().found.angle_deg.to_degrees();
    let says = advice.says.iter().map(|says| says.inches().clone()).collect::<Vec<_>>().join(" ");
    assert!(says.contains(&format!("{:.1}°", angle.abs())), "{angle}: {says}");
    assert!(says.contains("1/32\""), "its bolts have 1/32 in of play: {says}");
    assert!(!advice.again);
    let mut worse = value;
    worse["complaints"][0]["after"] = json!("worse");
    assert!(solve(&job(&worse)).complaints[0].again);
}

/// The log of a settled job: readings, settings, torques and reminders, each once, in order of time.
#[test]
fn the_log_is_in_order_of_time() {
    let mut value = demo("patrol-truck-14");
    value["bolt_up"]["parts"][0]["state"] = json!("missing");
    let job = job(&value);
    let entries = log(&job);
    let count = |kind: LogKind| entries.iter().filter(|entry| entry.kind == kind).count();
    assert_eq!(count(LogKind::Torque), job.bolt_up.fasteners.len());
    assert_eq!(count(LogKind::Reminder), job.proof.reminders.len());
    assert_eq!((count(LogKind::Setting), count(LogKind::Settled)), (job.setups.rounds.len(), 1));
    assert_eq!(count(LogKind::Defect), 2, "what was met, and the part that was missing");
    let times: Vec<_> = entries.iter().filter_map(|entry| entry.at).collect();
    assert!(times.is_sorted());
    assert_eq!(entries[0].kind, LogKind::Reading, "as found, before anything was set");
    assert_eq!(job.rig.sheet_unit, Unit::Millimetres);
}

/// For the next time: the length and the hole that the last round recorded.
#[test]
fn the_next_one_finds_what_is_set() {
    let results = solve(&job(&demo("patrol-truck-14")));
    let reported: Vec<String> =
        results.settling.next_time.iter().map(|says| says.millimetres().clone()).collect();
    assert!(reported[0].starts_with("The bar: 842 mm eye to eye"), "{reported:?}");
    assert!(reported.contains(&"Axle end in the “high” hole.".to_owned()), "{reported:?}");
}

/// The bar is hung and recorded, the bracket not yet: the bracket's steps stay. With all of it recorded, read or not, the
/// plan of work is the same one.
#[test]
fn a_plan_that_is_fitted_in_part_keeps_its_steps() {
    let mut value = demo("tower-truck-8");
    let keys =
        |value: &Value| -> Vec<String> { worked(value).steps.into_iter().map(|step| step.key).collect() };
    let planned = keys(&value);
    value["setups"]["rounds"] = json!([{ "bar": "long-sleeve turnbuckle bar", "length": "31 7/8 in" }]);
    assert_eq!(keys(&value), planned, "hung, not read");
    let moved = json!([{ "end": "frame", "by_mm": [0.0, 0.0, -101.6],
        "to": { "bracket": "three-hole drop", "hole": "hole 3" } }]);
    value["setups"]["rounds"][0]["moved"] = moved;
    assert_eq!(keys(&value), planned, "all of it, not read");
    let mut read = value["sheets"][0].clone();
    read["id"] = json!("after");
    read["round"] = json!(1);
    read["left"] = read["right"].clone();
    value["sheets"].as_array_mut().unwrap().push(read);
    assert_eq!(keys(&value), planned, "measure again");
}

/// A job of before opens, is worked out, and loses nothing on its way through the program.
#[test]
fn a_job_of_before_opens_with_nothing_ticked() {
    let mut before = demo("lookout-truck-12");
    for part in ["bolt_up", "proof"] {
        before.as_object_mut().unwrap().remove(part);
    }
    let opened = job(&before);
    assert!(opened.bolt_up.is_empty() && opened.proof.is_empty());
    let written = in_words(&opened);
    assert!(written.get("bolt_up").is_none() && written.get("proof").is_none());
    assert_eq!(worked(&before).done, 0);
}

/// The bar was made 3/8" longer, which moves the axle about 3/8"; read 3/4" off before and centred after, it would have
/// moved 3/4". One of the two sheets is wrong: it is read once more before it is settled, and where the second sheet
/// says the same, it is so.
#[test]
fn an_axle_that_moved_otherwise_is_read_once_more() {
    let mut value: Value =
        serde_json::from_str(include_str!("../../../demo/supply-truck-9.derecho.json")).unwrap();
    let gates = |value: &Value| -> Vec<FindingKind> {
        let job = by_name::read(value);
        solve(&job).findings.into_iter().map(|gate| gate.kind).collect()
    };
    assert!(!gates(&value).contains(&FindingKind::MovedOtherwise), "as it is it moved as reckoned");
    let side = |text: &str| json!(vec![json!({ "text": text, "unit": "in" }); 4]);
    value["sheets"][0]["left"] = side("6 3/4");
    value["sheets"][0]["right"] = side("5 1/4");
    assert!(gates(&value).contains(&FindingKind::MovedOtherwise));
    let mut second = value["sheets"][1].clone();
    second["id"] = json!("after-1-again");
    let off = |value: &Value, text: &str| {
        let (mut value, mut second) = (value.clone(), second.clone());
        second["left"] = side(text);
        value["sheets"].as_array_mut().unwrap().push(second);
        value
    };
    // The second sheet half an inch from the first says something else: nothing is confirmed by it.
    assert!(
        gates(&off(&value, "7 1/16")).contains(&FindingKind::MovedOtherwise) || {
            let job: Job = serde_json::from_value(off(&value, "7 1/16")).unwrap();
            solve(&job).prove.unwrap().verdict != derecho_job::prove::ProveVerdict::CanSettle
        }
    );
    assert!(!gates(&off(&value, "6 1/16")).contains(&FindingKind::MovedOtherwise));
}

/// A sleeve turned in place: it is loose while it turns, read as it is set, and its jam nuts are last. No step waits
/// for something tight that is tightened after it.
#[test]
fn why_a_step_waits_is_true_of_a_sleeve_turned_in_place() {
    let mut value = demo("supply-truck-9");
    value["bolt_up"] = json!({});
    let worked = worked(&value);
    let waits = |key: &str| {
        let waits: Vec<String> =
            step(&worked, key).waits.iter().map(|wait| wait.says.inches().clone()).collect();
        waits.join(" ")
    };
    assert!(waits("bar/turn").contains("it has to be loose first"), "{}", waits("bar/turn"));
    let read = waits("read-again");
    assert!(read.contains("set its length before you measure") && !read.contains("tight first"), "{read}");
    assert!(waits("bar/jam").contains("jam nuts and clamps come last"), "{}", waits("bar/jam"));
}
