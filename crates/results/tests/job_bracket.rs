//! Stage Bracket of whole jobs: the exact riser, the ranking, the approaches, the fit, and a
//! chosen plan carried through to Prove. Expected figures are worked by hand.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::sound as job;
use derecho_core::measure::Length;
use derecho_core::parts::BracketEnd;
use derecho_job::bracket::PlanResult;
use derecho_job::bracket::approach::Approach;
use derecho_job::prove::ProveVerdict;
use derecho_job::verdict::FitVerdict;
use derecho_job::{Job, check};
use derecho_results::json::value as in_words;
use derecho_results::{plan, solve};
use derecho_words::Spoken as _;
use serde_json::{Value, json};

fn demo(name: &str) -> Value {
    let text = match name {
        "lookout-truck-7" => include_str!("../../../demo/lookout-truck-7.derecho.json"),
        "lookout-truck-12" => include_str!("../../../demo/lookout-truck-12.derecho.json"),
        "relay-van-2" => include_str!("../../../demo/relay-van-2.derecho.json"),
        "relay-wagon-5" => include_str!("../../../demo/relay-wagon-5.derecho.json"),
        "water-tender-3" => include_str!("../../../demo/water-tender-3.derecho.json"),
        "patrol-truck-6" => include_str!("../../../demo/patrol-truck-6.derecho.json"),
        other => panic!("there is no demo job {other}"),
    };
    serde_json::from_str(text).unwrap()
}

/// L 32 in, v 6 in, frame eye left, on leaf springs with nothing in the way; e 1/2 in left.
fn plain() -> Value {
    let mut value = demo("lookout-truck-7");
    value["rig"]["axle_location"] = json!("leaf_springs");
    value["rig"]["heights"] = json!([]);
    value["rig"]["driven_height"] = json!("");
    value["hardpoints"] = json!({ "bar": { "axle_eye_fore_aft": "0 mm" } });
    value["bracket"] = json!({});
    value["setups"]["found"].as_object_mut().unwrap().remove("axle_holes");
    for side in ["left", "right"] {
        let reading = if side == "left" { "6 1/2 in" } else { "5 1/2 in" };
        value["sheets"][0][side] = json!([reading, reading, reading, reading]);
    }
    value
}

fn inches(length: Length) -> f64 {
    length.to_inches()
}

fn ranked(result: &PlanResult) -> Vec<(String, bool)> {
    result.options.iter().map(|o| (o.name.inches(), o.fails.is_empty())).collect()
}

#[test]
fn the_exact_riser_meets_each_target() {
    let mut value = plain();
    // Level as driven: r = v = 6 in.
    assert!((inches(plan(&job(&value)).exact_riser_mm.unwrap()) - 6.0).abs() < 1e-9);
    // Level in the middle of 3 1/2 in of bump and 4 1/2 in of droop: t* = −1/2 in, r = 6 1/2 in.
    value["bracket"]["target"] = json!("level_mid_travel");
    assert!((inches(plan(&job(&value)).exact_riser_mm.unwrap()) - 6.5).abs() < 1e-9);
    // Like a drag link that rises 3 in over 36: r = 6 − h·3/36 with h = √988 + 1/2.
    value["bracket"]["target"] = json!("parallel_to_drag_link");
    value["hardpoints"]["steering"] = json!({ "pitman_side": "left", "knuckle_side": "right",
        "pitman": { "height": "22 in", "sideways": "14 in", "fore_aft": "6 in" },
        "knuckle": { "height": "19 in", "sideways": "22 in", "fore_aft": "6 in" } });
    let by_hand = 6.0 - (988.0_f64.sqrt() + 0.5) * 3.0 / 36.0;
    let riser = inches(plan(&job(&value)).exact_riser_mm.unwrap());
    assert!((riser - by_hand).abs() < 1e-6, "{riser} {by_hand}");
}

#[test]
fn a_hole_of_the_exact_riser_is_level_centred_and_first() {
    let mut value = plain();
    value["bracket"]["brackets"] = json!([
        { "name": "riser", "holes": [{ "name": "low", "up": "3 in" }, { "name": "exact", "up": "6 in" }] },
        { "name": "drop", "end": "frame", "holes": [{ "name": "some", "up": "-4 in" }] },
    ]);
    let result = plan(&job(&value));
    assert_eq!(
        ranked(&result),
        [("riser, exact", true), ("drop, some", true), ("riser, low", true), ("no bracket", true)]
            .map(|(name, fits)| (name.to_owned(), fits))
    );
    let best = &result.options[0];
    assert!(best.angle_deg.to_degrees().abs() < 1e-9 && best.lateral_rate.abs() < 1e-12);
    // Level and centred it is as long as it reaches: √988 + 1/2 in.
    assert!((inches(best.length_mm) - (988.0_f64.sqrt() + 0.5)).abs() < 1e-9);
    // Its swing is that of a level bar at 4 1/2 in of droop, the further end: L − √(L² − 4.5²).
    let long = inches(best.length_mm);
    let by_hand = long - (long * long - 4.5 * 4.5).sqrt();
    assert!((inches(best.peak_to_peak_mm) - by_hand).abs() < 1e-9);
    // A riser raises the roll centre by r·F_y/(F_y − A_y), a drop lowers it by r·(−A_y)/(F_y − A_y).
    let (frame_y, reach) = (15.25, 988.0_f64.sqrt() + 0.5);
    let none = result.options.iter().find(|o| o.end.is_none()).unwrap();
    let raised = inches(best.roll_centre_mm - none.roll_centre_mm);
    assert!((raised - 6.0 * frame_y / reach).abs() < 1e-6, "{raised}");
    let drop = result.options.iter().find(|o| o.end == Some(BracketEnd::Frame)).unwrap();
    let lowered = inches(none.roll_centre_mm - drop.roll_centre_mm);
    assert!((lowered - 4.0 * (reach - frame_y) / reach).abs() < 1e-6, "{lowered}");
}

#[test]
fn a_failing_option_stays_listed_with_its_reason() {
    let mut value = plain();
    value["bracket"]["brackets"] = json!([{ "name": "riser", "holes": [{ "name": "exact", "up": "6 in" }] }]);
    value["bracket"]["bars"] = json!([{ "name": "short", "made_min": "28 in", "made_max": "30 in" }]);
    let result = plan(&job(&value));
    let short: Vec<_> = result.options.iter().filter(|o| o.bar.inches() == "short").collect();
    assert_eq!(short.len(), 2);
    for option in short {
        assert_eq!(option.covered, Some(false));
        assert!(option.fails[0].inches().contains("it is made from 28\" to 30\""), "{:?}", option.fails);
        assert!(option.rank > 2);
    }
    // The bar's own fixed length cannot be changed.
    value["setups"]["found"]["adjuster"] = json!({ "kind": "fixed" });
    let result = plan(&job(&value));
    let fixed = |name: &str| {
        result.options.iter().find(|o| o.name.inches() == name && o.plan.bar.is_empty()).unwrap()
    };
    // √988 + 1/2 = 31.93 in at the exact riser: 0.07 in off, within the 1/8 in that counts as centred.
    assert_eq!(fixed("riser, exact").covered, Some(true));
    assert_eq!(
        (result.options[0].name.inches().as_str(), result.options[0].fails.len()),
        ("riser, exact", 0)
    );
    assert!((inches(result.options[0].left_off_mm) - (988.0_f64.sqrt() + 0.5 - 32.0)).abs() < 1e-9);
    // Without it the bar would have to be half an inch longer.
    assert!(fixed("no bracket").fails.iter().any(|why| why.inches().contains("fixed")));
}

#[test]
fn the_approaches_come_out_differently_in_three_demo_jobs() {
    let van = plan(&job(&demo("relay-van-2")));
    assert!(van.says.inches().starts_with("Changing the length is enough"), "{}", van.says.inches());

    let truck = plan(&job(&demo("lookout-truck-7")));
    assert_eq!(truck.options[0].end, Some(BracketEnd::Axle));
    assert_eq!(truck.options[0].plan.drag_link.as_str(), "raised knuckle block");
    // With the block bar and link lie within half a degree: bumps steer far less than without.
    let steer = |result: &PlanResult| result.options[0].bump_steer_deg.unwrap().to_degrees();
    let mut bare = demo("lookout-truck-7");
    bare["bracket"]["drag_links"] = json!([]);
    let bare = plan(&job(&bare));
    assert!(steer(&truck) < 2.0 && steer(&bare) > 4.0, "{} {}", steer(&truck), steer(&bare));
    let approach = |result: &PlanResult, approach: Approach| {
        result.approaches.iter().find(|s| s.approach == approach).unwrap().option.fails.len()
    };
    assert_eq!(approach(&truck, Approach::RiserAndLength), 0);
    assert!(approach(&truck, Approach::LengthOnly) > 0 && approach(&truck, Approach::DropAndLength) > 0);

    let survey = plan(&job(&demo("lookout-truck-12")));
    assert_eq!(survey.options[0].end, Some(BracketEnd::Frame));
    assert!(survey.options.iter().all(|o| o.end == Some(BracketEnd::Frame) || !o.fails.is_empty()));
    assert!(survey.because.inches().contains("hits the oil pan"), "{}", survey.because.inches());
}

#[test]
fn the_curves_of_the_approaches_settle_what_a_longer_bar_does() {
    let result = plan(&job(&plain()));
    let curve =
        |approach: Approach| &result.approaches.iter().find(|s| s.approach == approach).unwrap().curve;
    // Length only passes through the body's centre at ride height, where it was set.
    let only = curve(Approach::LengthOnly);
    let nearest = only.iter().min_by(|a, b| a.travel_mm.abs().partial_cmp(&b.travel_mm.abs()).unwrap());
    assert!(nearest.unwrap().y_mm.abs().to_mm() < 1.0);
    // And goes off to the other side in bump: right, away from the frame eye's left.
    assert!(only.last().unwrap().y_mm < Length::ZERO && only[0].y_mm > Length::ZERO);
    // Bracket only, exact: level with L = 32 in, so it reaches 32 and stands √988 + 1/2 − 32 off.
    let riser = result.approaches.iter().find(|s| s.approach == Approach::RiserOnly).unwrap();
    assert!(!riser.at_hand);
    assert!((inches(riser.left_off_mm) - (988.0_f64.sqrt() + 0.5 - 32.0)).abs() < 1e-9);
}

#[test]
fn loads_by_hand() {
    let mut value = plain();
    value["rig"]["use"] = json!("trails");
    value["vehicle"] = json!({ "axle_weight": "1000 kg", "unsprung_weight": "200 kg" });
    let result = plan(&job(&value));
    let none = &result.options[0];
    let (length, reach) = (inches(none.length_mm), 988.0_f64.sqrt() + 0.5);
    assert!((none.loads.bar_n - 2.0 * 9806.65 * length / reach).abs() < 1e-6);
    // Half of 800 kg sideways, frame eye left and 6 in higher: up in a left turn.
    let lift = 0.5 * 800.0 * 9.80665 * 6.0 / reach;
    assert!((none.loads.jacking_left_turn_n - lift).abs() < 1e-6);
    assert_eq!(none.loads.axle_moment_ratio, 1.0);
}

#[test]
fn fit_is_checked_before_anything_is_welded() {
    let mut value = plain();
    value["setups"]["found"]["adjuster"] =
        json!({ "kind": "turnbuckle", "made_min": "30 in", "made_max": "32 1/4 in" });
    value["bracket"] = json!({ "ear_width": "2 5/8 in", "frame_bracket_angle": "12.0", "axle_bracket_angle": "10.5",
        "joints": [{ "name": "eye", "width": "2 in" }, { "name": "spacer", "width": "1/2 in" }] });
    let result = plan(&job(&value));
    let verdicts: Vec<FitVerdict> = result.fit.iter().map(|check| check.verdict).collect();
    // It needs 32.49 in; 1/8 in of gap between the ears; 1.5° apart.
    assert_eq!(verdicts, [FitVerdict::Bad, FitVerdict::Bad, FitVerdict::Bad]);
    assert!(result.fit[1].says.inches().contains("1/8\" gap"), "{}", result.fit[1].says.inches());
    value["bracket"]["joints"][1]["width"] = json!("5/8 in");
    value["bracket"]["axle_bracket_angle"] = json!("11.5");
    value["setups"]["found"]["adjuster"]["made_max"] = json!("34 in");
    let result = plan(&job(&value));
    assert!(result.fit.iter().all(|check| check.verdict == FitVerdict::Good));
    // Threads of 1 1/4 in at 1 3/8 in engagement may come out 1/8 in each: 32 1/4 in at most.
    let end = |hand: &str| json!({ "thread": "1-1/4-12", "hand": hand, "engagement": "1 3/8 in" });
    value["setups"]["found"]["adjuster"]["first"] = end("right");
    value["setups"]["found"]["adjuster"]["second"] = end("left");
    let tight = plan(&job(&value));
    assert_eq!(tight.fit[0].verdict, FitVerdict::Bad, "{}", tight.fit[0].says.inches());
}

fn verdict(result: &PlanResult, name: &str) -> FitVerdict {
    result
        .conversion
        .iter()
        .find(|check| check.name.inches() == name)
        .unwrap_or_else(|| panic!("no {name}"))
        .verdict
}

#[test]
fn a_y_link_conversion_is_checked_at_every_height() {
    let result = plan(&job(&demo("relay-wagon-5")));
    let names: Vec<String> = result.conversion.iter().map(|check| check.name.inches()).collect();
    assert!(
        names.iter().any(|name| name == "pinion at raised")
            && names.iter().any(|name| name == "pinion at aired out")
    );
    assert!(names.iter().any(|name| name == "Y-link follows full travel"));
    assert_eq!(verdict(&result, "both sides measure the same"), FitVerdict::Good);
    assert_eq!(verdict(&result, "square under the frame"), FitVerdict::Open, "nobody read the wheelbases");
    assert!(result.legs.is_empty(), "nothing to turn");
}

/// Wheelbases that differ over a metre and a half of axle.
fn wheelbases(left: &str, right: &str) -> Value {
    json!({ "id": "square", "kind": "squareness", "unit": "mm", "left": [left, left, left, left],
        "right": [right, right, right, right], "between_points": "1500 mm" })
}

#[test]
fn a_perfect_conversion_is_right_and_a_crooked_one_is_not() {
    let mut value = demo("relay-wagon-5");
    value["sheets"].as_array_mut().unwrap().push(wheelbases("2700 mm", "2700 mm"));
    let result = plan(&job(&value));
    assert_eq!(result.says.inches(), "The Y-link checks out", "{:?}", result.conversion);
    // 26 mm in 1500 mm are a degree.
    *value["sheets"].as_array_mut().unwrap().last_mut().unwrap() = wheelbases("2726 mm", "2700 mm");
    assert_eq!(verdict(&plan(&job(&value)), "square under the frame"), FitVerdict::Bad);
    value["bracket"]["conversion"]["spacers_out"] = json!(false);
    assert_eq!(verdict(&plan(&job(&value)), "spacers behind the old upper mount"), FitVerdict::Bad);
    // What was read hanging says nothing of how it sits.
    value["sheets"][0]["conditions"]["on_its_weight"] = json!(false);
    assert_eq!(verdict(&plan(&job(&value)), "both sides measure the same"), FitVerdict::Open);
}

/// The pinion is held against what it was, not against ride height: read at one height it is carried to the
/// others by what the link does in between.
#[test]
fn the_pinion_is_compared_with_before_the_conversion() {
    let reported = |before: f64, after: f64, end: &str| {
        let mut value = demo("relay-wagon-5");
        value["rig"]["end"] = json!(end);
        let angle = |degrees: f64| json!({ "text": format!("{degrees:.3}") });
        value["bracket"]["conversion"]["pinion"] =
            json!([{ "before": angle(before), "after": angle(after) }]);
        plan(&job(&value))
    };
    assert_eq!(verdict(&reported(4.0, 6.9, "rear"), "pinion at road"), FitVerdict::Good);
    let result = reported(4.0, 8.0, "rear");
    assert_eq!(verdict(&result, "pinion at road"), FitVerdict::Bad);
    assert_eq!(verdict(&result, "pinion at raised"), FitVerdict::Open, "nobody read it there before");
    // Both legs alike. A rear axle's legs lie ahead of it: longer ones push its top back and the nose up.
    let legs = &result.legs[0].legs;
    let change = |leg: usize| (legs[leg].length_mm - legs[leg].from_mm).to_mm();
    assert!((change(0) - change(1)).abs() < 1e-6 && change(0) > 1.0, "{legs:?}");
    // A front axle is the mirror image fore and aft: its pinion points back, its legs lie behind it.
    let front = reported(4.0, 8.0, "front");
    let there = (front.legs[0].legs[0].length_mm - front.legs[0].legs[0].from_mm).to_mm();
    assert!((there / change(0) - 1.0).abs() < 0.01, "{there} {}", change(0));
}

/// Sideways wants the legs by opposite amounts, and turns that add up to them.
#[test]
fn a_y_link_off_to_one_side_is_turned_by_opposite_amounts() {
    let mut value = demo("relay-wagon-5");
    let sheet = &mut value["sheets"][0];
    // Outward readings: 20 mm more on the left is 10 mm too far left.
    sheet["left"] = json!(["198 mm", "198 mm", "198 mm", "198 mm"]);
    sheet["right"] = json!(["178 mm", "178 mm", "178 mm", "178 mm"]);
    let result = plan(&job(&value));
    assert_eq!(verdict(&result, "both sides measure the same"), FitVerdict::Bad);
    assert_eq!(result.legs.len(), 1, "the pinion is as it was");
    let setting = &result.legs[0];
    assert!(
        setting.says.millimetres().starts_with("Axle 10 mm to the right"),
        "{}",
        setting.says.millimetres()
    );
    let change = |leg: usize| (setting.legs[leg].length_mm - setting.legs[leg].from_mm).to_mm();
    // The left leg hangs from the left rail: it lets the axle go right.
    assert!(change(0) > 2.0 && change(1) < -2.0 && (change(0) + change(1)).abs() < 0.5);
    // M24x2 at both ends of a sleeve: 4 mm a turn, two thirds of a millimetre a flat.
    let flats = (change(0) * 6.0 / 4.0).round();
    let reported = match ((flats / 6.0).floor(), flats % 6.0) {
        (0.0, flats) => format!("{flats} flats longer"),
        (1.0, 0.0) => "1 turn longer".to_owned(),
        (1.0, 1.0) => "1 turn and 1 flat longer".to_owned(),
        (1.0, flats) => format!("1 turn and {flats} flats longer"),
        (turns, flats) => format!("{turns} turns and {flats} flats longer"),
    };
    assert!(
        setting.legs[0].says.millimetres().ends_with(&reported),
        "{} {reported}",
        setting.legs[0].says.millimetres()
    );
}

/// A sway bar lies in its clamps as it does: no hanging axle and no length set makes its readings stale.
#[test]
fn a_stick_out_sheet_stands_whatever_is_done_to_the_axle() {
    let mut value = plain();
    value["sheets"].as_array_mut().unwrap().push(json!({
        "id": "out", "kind": "stick_out", "unit": "in", "left": ["2 in", "2 in"], "right": ["1 1/2 in", "1 1/2 in"],
        "conditions": { "on_its_weight": false }
    }));
    value["setups"]["rounds"] = json!([{ "length": "32 1/2 in" }]);
    let sheet = solve(&job(&value)).sheets.into_iter().find(|sheet| sheet.id == "out").unwrap();
    assert!(sheet.current && sheet.refused.is_empty());
    let all = [sheet.says, sheet.advice].map(|says| says.unwrap().inches()).join(" ")
        + &format!("{:?}", sheet.second_thoughts);
    assert!(
        all.contains("Slide it 1/4\" to the right")
            && !all.contains("hanging")
            && !all.contains("the bar stands"),
        "{all}"
    );
}

#[test]
fn a_built_bar_and_its_faults() {
    let result = plan(&job(&demo("water-tender-3")));
    let built = result.builder.unwrap().bar;
    // Shells 2 in, stock 1 1/2 in: each saddle (2 − √(4 − 2.25))/2 in; gap 36 1/4 in.
    let saddle = (2.0 - 1.75_f64.sqrt()) / 2.0;
    assert!((inches(built.cut_mm) - (36.25 + 2.0 * saddle)).abs() < 1e-9);
    assert!((inches(built.length_mm) - 38.25).abs() < 1e-9);
    let mut value = demo("water-tender-3");
    value["bracket"]["builder"]["stock"] = json!("2 1/2 in");
    let reported = plan(&job(&value)).missing;
    assert!(reported[0].message.contains("bigger than the bushing shell"), "{reported:?}");
}

#[test]
fn a_chosen_plan_goes_through_bar_and_cycle_to_prove() {
    let mut value = plain();
    value["bracket"] = json!({
        "brackets": [{ "name": "riser", "holes": [{ "name": "hole 2", "up": "4 in", "outward": "1/2 in" }] }] });
    value["setups"]["plans"] = json!({ "chosen": { "axle": { "bracket": "riser", "hole": "hole 2" } } });
    let chosen = solve(&job(&value)).bar.unwrap();
    let correction = chosen.correction.unwrap();
    // v′ = 2 in; the axle eye goes 1/2 in further right: h′ = √988 + 1/2 + 1/2.
    let (rise, reach) = (2.0_f64, 988.0_f64.sqrt() + 1.0);
    let wanted = reach.hypot(rise);
    assert!((inches(correction.recentring.length_mm) - wanted).abs() < 1e-9);
    assert!((inches(correction.planned.rise_mm) - 2.0).abs() < 1e-9);
    assert!(
        correction.plan_says.unwrap().inches().contains("axle end 4\" up and 1/2\" to the right, hole 2")
    );
    // Both sides should read their mean then: 6 in.
    assert!(correction.predicted_readings_mm.unwrap().iter().all(|r| (inches(*r) - 6.0).abs() < 1e-9));

    // Set as planned, with the eye moved, and read again.
    let moved = in_words(correction.fitting.moved);
    value["setups"]["rounds"] = json!([{ "length": format!("{wanted:.6} in"), "moved": moved }]);
    let after = json!({ "id": "after", "kind": "centring", "round": 1, "method": "frame_to_hub",
        "unit": "in", "left": ["6 in", "6 in", "6 in", "6 in"], "right": ["6 in", "6 in", "6 in", "6 in"],
        "conditions": { "on_its_weight": true } });
    value["sheets"].as_array_mut().unwrap().push(after);
    let proved = solve(&job(&value));
    let movement = proved.prove.as_ref().unwrap().movement.as_ref().unwrap();
    assert!((inches(movement.predicted_mm) + 0.5).abs() < 1e-5, "{:?}", movement.predicted_mm);
    assert!(movement.agrees);
    assert!(movement.predicted_readings_mm.unwrap().iter().all(|r| (inches(*r) - 6.0).abs() < 1e-5));
    assert_eq!(proved.prove.as_ref().unwrap().verdict, ProveVerdict::CanSettle);
    // From now on the bar lies as it was fitted, and is not moved a second time.
    let bar = proved.bar.unwrap();
    assert!((inches(bar.found.rise_mm) - 2.0).abs() < 1e-9);
    assert!(bar.correction.is_none());
    // The eyes are drawn where they sit now: the axle eye 4 in higher than it was measured.
    let eyes = proved.elevation.eyes.unwrap();
    assert!((inches(eyes.axle.z_mm) - (21.25 + 4.0)).abs() < 1e-9);
    assert!((inches(eyes.frame.z_mm) - 27.25).abs() < 1e-9);
    // And in the planner the fitted hole is no move any more.
    let again = plan(&job(&value));
    let fitted = again
        .options
        .iter()
        .find(|o| o.plan.axle.as_ref().is_some_and(|axle| axle.hole.as_str() == "hole 2"))
        .unwrap();
    assert!(fitted.move_mm.iter().all(|mm| mm.abs() < 1e-9), "{:?}", fitted.move_mm);
}

#[test]
fn a_hole_that_is_gone_is_refused_and_a_plan_no_more() {
    let mut value = plain();
    value["setups"]["plans"]["chosen"] = json!({ "axle": { "bracket": "riser", "hole": "hole 9" } });
    let dangling: Job = serde_json::from_value(value).unwrap();
    let faults = check(&dangling);
    let [fault] = faults.as_slice() else { panic!("{faults:?}") };
    assert_eq!(
        (fault.pointer.as_str(), fault.code.as_str()),
        ("/setups/plans/chosen/axle/bracket", "unknown_bracket")
    );
    // Stored by an earlier version it is read all the same.
    let results = solve(&dangling);
    assert!(results.bar.unwrap().correction.unwrap().fitting.moved.is_empty());
    assert_eq!(results.stages[3].progress, derecho_job::strip::Progress::NeedsLook);
}

/// Stage Bracket tells of a hole and bar what stage Cycle tells when they are tried: with that bar's own joints,
/// thickness and bend, the deepest that parts overlap and not the first pose in which they do.
#[test]
fn an_option_is_judged_as_its_cycle_is() {
    let mut value = demo("patrol-truck-6");
    // The pan 58 mm lower: the bent bar goes deep into it at full bump.
    for end in ["from", "to"] {
        value["hardpoints"]["obstacles"][0][end]["height"] = json!("732 mm");
    }
    // A thicker, straight bar on spherical joints beside the bent one.
    let straight = &mut value["bracket"]["bars"][0];
    straight["outside"] = json!("44 mm");
    straight["frame_joint"] = json!("spherical");
    let planned = plan(&job(&value));
    let (mut gaps, mut tilts, mut touched) = (Vec::new(), Vec::new(), 0);
    for option in &planned.options {
        value["setups"]["plans"]["trial"] = in_words(&option.plan);
        let cycled = derecho_results::cycle(&job(&value)).plan.unwrap();
        // Both wheels alike is what the planner goes through.
        let worst = |wanted: &str, larger: fn(f64, f64) -> f64, none: f64| {
            let named = |name: &str| name.starts_with("track bar") && name.contains(wanted);
            let limits = cycled.limits.iter().enumerate().filter(|(_, limit)| named(&limit.name.inches()));
            let of = |index: usize| cycled.heave.iter().map(move |pose| pose.limits[index]);
            limits.flat_map(|(index, _)| of(index)).fold(none, larger)
        };
        let gap = worst(" to ", f64::min, f64::INFINITY);
        let tilt = worst("misalignment of its", f64::max, f64::NEG_INFINITY);
        let (reported, tilted) =
            (option.least_gap_mm.unwrap().to_mm(), option.worst_tilt_deg.unwrap().to_degrees());
        assert!(
            (reported - gap).abs() < 0.05,
            "{} {}: {reported} {gap}",
            option.name.inches(),
            option.bar.inches()
        );
        assert!(
            (tilted - tilt).abs() < 0.02,
            "{} {}: {tilted} {tilt}",
            option.name.inches(),
            option.bar.inches()
        );
        // What the planner says of the pan and where, to the half millimetre it is written with.
        let touches = option.fails.iter().find_map(|said| {
            let says = said.millimetres();
            let (_, at) = says.split_once("hits the oil pan at ")?;
            at.strip_suffix(" mm bump")?.parse::<f64>().ok()
        });
        let way = cycled.ways.iter().position(|way| way.way == "bump").unwrap();
        let met = cycled.limits.iter().filter(|limit| limit.name.inches() == "track bar to oil pan");
        let met = met
            .flat_map(|limit| &limit.crossings)
            .find(|met| met.way == way)
            .and_then(|met| met.violated_at_mm);
        assert_eq!(touches.is_some(), met.is_some(), "{}: {:?}", option.name.inches(), option.fails);
        if let Some((touches, [met, _])) = touches.zip(met) {
            assert!((touches - met.to_mm()).abs() < 0.26, "{}: {touches} {met:?}", option.name.inches());
            touched += 1;
        }
        gaps.push(reported);
        tilts.push(tilted);
    }
    let deepest = gaps.iter().copied().fold(f64::INFINITY, f64::min);
    let widest = gaps.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    assert!(deepest < -8.0 && widest - deepest > 4.0, "{gaps:?}");
    assert!(tilts.iter().all(|tilt| *tilt > 1.0), "{tilts:?}");
    assert!(touched > 3, "{touched} options touch the pan");
}

/// At the limits of its lists a plan is told by pages, which put together are every option in its rank.
#[test]
fn a_plan_of_hundreds_of_options_comes_by_pages() {
    let mut value = plain();
    let holes = |up: i32| -> Vec<Value> {
        (0..12)
            .map(|hole| json!({ "name": format!("{hole}"), "up": format!("{} mm", up + 3 * hole) }))
            .collect()
    };
    value["bracket"] = json!({
        "brackets": (0..6).map(|n| json!({ "name": format!("riser {n}"), "end": "axle", "holes": holes(8 * n) }))
            .collect::<Vec<_>>(),
        "bars": (0..4).map(|n| json!({ "name": format!("bar {n}"), "adjuster": "turnbuckle" })).collect::<Vec<_>>(),
    });
    value["rig"]["heights"] = (0..30)
        .map(|n| json!({ "name": format!("height {n}"), "offset": format!("{} mm", n - 15) }))
        .collect();
    value["setups"]["plans"] =
        json!({ "chosen": { "axle": { "bracket": "riser 0", "hole": "0" }, "bar": "bar 3" } });
    let job = job(&value);
    let first = plan(&job);
    // Six brackets of twelve holes and the places where the eyes are, each with the bar as found and four others.
    let all = (6 * 12 + 1) * 5;
    assert_eq!(first.options_in_all, all);
    // What is chosen is among them whatever its rank, and the answer speaks of it.
    let picked = &first.options[first.pick.unwrap()];
    assert!(picked.chosen, "{}", picked.rank);
    assert_eq!(picked.heights.len(), solve(&job).heights.len());
    let mut ranks = Vec::new();
    for from in [0, 200] {
        let page = derecho_results::plan_from(&job, from);
        assert!(page.options.len() <= 201, "{}", page.options.len());
        let reported = page.options.iter().filter(|option| !option.heights.is_empty()).count();
        assert!((8..=9).contains(&reported), "{reported}");
        ranks.extend(
            page.options
                .iter()
                .map(|option| option.rank)
                .filter(|rank| (from + 1..=from + 200).contains(rank)),
        );
        assert_eq!(page.other_heights, first.other_heights);
        assert_eq!(page.approaches, first.approaches);
    }
    assert_eq!(ranks, (1..=all).collect::<Vec<_>>());
}

/// A bracket's lever at the axle is how far its eye stands off the tube, above it or below: an eye brought down to
/// the hub loads it less, not more, and as far below as it was above it loads it alike.
#[test]
fn the_axle_bracket_is_loaded_by_how_far_its_eye_stands_off_the_tube() {
    let mut value = plain();
    // 380 mm of hub height, the eye 140 mm above it: 140 - 46 = 94 mm off the tube.
    value["rig"]["axle_height"] = json!("380 mm");
    value["setups"]["found"]["bar"]["axle_eye_height"] = json!("520 mm");
    value["setups"]["found"]["bar"]["frame_eye_height"] = json!("420 mm");
    let hole = |name: &str, up: &str| json!({ "name": name, "up": up });
    value["bracket"]["brackets"] = json!([{ "name": "lowered tab", "end": "axle", "holes": [
        hole("hub", "-140 mm"), hole("under", "-280 mm"), hole("up", "94 mm"),
    ] }]);
    let planned = plan(&job(&value));
    let ratio = |hole: &str| {
        let option = planned.options.iter().find(|option| option.name.inches().contains(hole)).unwrap();
        option.loads.axle_moment_ratio
    };
    // At the hub an eye's own 25 mm are left; below it is as above; twice as far off is twice the moment.
    for (hole, expected) in [("hub", 25.0 / 94.0), ("under", 1.0), ("up", 2.0)] {
        assert!((ratio(hole) - expected).abs() < 1e-6, "{hole}: {}", ratio(hole));
    }
}
