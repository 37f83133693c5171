//! A bracket that sits elsewhere than it was planned: suspected from how the axle moved, told apart by an angle, confirmed,
//! and from then on where the eye is.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::sound as job;
use derecho_core::parts::BracketEnd;
use derecho_job::Results;
use derecho_job::log::log;
use derecho_job::prove::misplaced::Misplaced;
use derecho_job::prove::{Cause, ProveVerdict};
use derecho_results::solve;
use derecho_words::Spoken as _;
use proptest::prelude::*;
use serde_json::{Value, json};

fn mm(length: f64) -> Value {
    json!({ "text": format!("{length:.1}"), "unit": "mm" })
}

/// Four a side from the frame to the hub, the axle so far to the left.
fn sheet(id: &str, left: f64, after: &str) -> Value {
    let side = |reads: f64| json!([mm(reads), mm(reads), mm(reads), mm(reads)]);
    let mut sheet = json!({
        "id": id, "kind": "centring", "method": "frame_to_hub", "sense": "outward", "unit": "mm",
        "left": side(158.0 + left), "right": side(158.0 - left),
        "conditions": { "on_its_weight": true, "wheels_straight": true, "pressures_equal": true },
    });
    if !after.is_empty() {
        sheet["after"] = json!(after);
    }
    sheet
}

/// The reach of a bar, by Pythagoras.
fn reach(length: f64, rise: f64) -> f64 {
    (length * length - rise * rise).sqrt()
}

const FOUND: (f64, f64) = (905.0, 210.0);
const HIGHER: f64 = 100.0;
const SET: f64 = 887.1;

/// A bar of 905 mm that is 210 mm higher at the frame, on the left; a weld-on bracket puts its axle eye 100 mm higher, and
/// the bar is set to what that wants, √(880.3² + 110²) = 887.14 mm. The bracket then sits elsewhere by so much.
fn set_on(off_up: f64, off_left: f64) -> Value {
    let left = reach(FOUND.0, FOUND.1) - reach(SET, FOUND.1 - HIGHER - off_up) - off_left;
    json!({
        "format": "derecho-job", "version": 7, "title": "Ladder truck 6 rear", "to_do": ["centre_axle"],
        "rig": {
            "sheet_unit": "mm", "end": "rear", "steering_side": "left", "frame_eye_side": "left",
            "axle_location": "four_arms", "bump": mm(90.0), "droop": mm(110.0), "tolerance": mm(3.0),
        },
        "bracket": { "brackets": [{ "id": "riser", "name": "riser", "end": "axle", "attachment": "weld_on",
            "holes": [{ "id": "low", "name": "low", "up": "100 mm" }, { "id": "high", "name": "high", "up": "125 mm" }] }] },
        "sheets": [sheet("s1", 0.0, ""), sheet("s2", left, "r1")],
        "setups": {
            "found": {
                "bar": { "length": mm(FOUND.0), "frame_eye_height": mm(610.0), "axle_eye_height": mm(400.0),
                    "frame_eye_from_centre": mm(400.0) },
                "adjuster": { "kind": "one_end", "first": { "thread": "M24x2", "hand": "right",
                    "engagement": mm(45.0), "shank": mm(90.0), "tapped_depth": mm(90.0), "seat": "steel" } },
            },
            "plans": { "chosen": { "axle": { "bracket": "riser", "hole": "low" } } },
            "rounds": [{ "id": "r1", "length": mm(SET), "wanted_mm": 887.144,
                "moved": [{ "end": "axle", "by_mm": [0.0, 0.0, HIGHER], "to": { "bracket": "riser", "hole": "low" } }] }],
        },
    })
}

fn solved(value: &Value) -> Results {
    solve(&job(value))
}

fn places(value: &Value) -> Vec<Misplaced> {
    solved(value).prove.unwrap().misplaced
}

fn up(place: &Misplaced) -> f64 {
    place.off.up.as_ref().map_or(0.0, |up| up.length().to_mm())
}

fn outward(place: &Misplaced) -> f64 {
    place.off.outward.as_ref().map_or(0.0, |outward| outward.length().to_mm())
}

#[test]
fn a_bracket_where_it_was_planned_is_not_suspected() {
    assert_eq!(places(&set_on(0.0, 0.0)), []);
    assert_eq!(solved(&set_on(0.0, 0.0)).prove.unwrap().verdict, ProveVerdict::CanSettle);
}

/// Welded an inch low: the axle comes 3.6 mm to the left. An inch down explains it, and so do 3.6 mm sideways; the angle
/// of the bar, asin(135.4/887.1) = 8.8° where 7.1° were planned, says which.
#[test]
fn an_inch_low_is_offered_and_told_from_sideways_by_the_angle() {
    let mut value = set_on(-25.4, 0.0);
    let prove = solved(&value).prove.unwrap();
    assert_eq!(prove.cause, Some(Cause::EyeElsewhere));
    let low = prove.misplaced.iter().find(|place| up(place) != 0.0).unwrap();
    assert_eq!((low.end, low.round, low.moved, low.by_angle), (BracketEnd::Axle, 0, 0, false));
    assert!((up(low) + 25.4).abs() <= 1.0, "{}", up(low));
    let angle = (135.4_f64 / SET).asin().to_degrees();
    assert!((low.bar_angle_deg.to_degrees() - angle).abs() < 0.1);
    assert!(
        low.says.millimetres().contains("axle eye 25.5 mm lower than planned"),
        "{}",
        low.says.millimetres()
    );

    value["proof"] = json!({ "looked_at": { "bar_angle": "8.8" } });
    let [place] = &places(&value)[..] else { panic!("one place fits: {:?}", places(&value)) };
    assert!(place.by_angle && outward(place) == 0.0 && (up(place) + 25.4).abs() < 2.0, "{place:?}");

    // At the planned angle it is sideways. The eye is on the right of its axle: further out carries the axle to the left.
    value["proof"] = json!({ "looked_at": { "bar_angle": "7.1" } });
    let [place] = &places(&value)[..] else { panic!("one place fits: {:?}", places(&value)) };
    assert!(place.by_angle && up(place) == 0.0 && (outward(place) - 4.0).abs() < 1.0, "{place:?}");
}

/// Confirmed, the place is the eye's: the movement is as predicted, the plan stays fitted, the bar is the wrong length by
/// what Pythagoras says, and set to that the job is proved.
#[test]
fn once_confirmed_it_is_where_the_eye_is() {
    let mut value = set_on(-25.4, 0.0);
    let off = places(&value).into_iter().find(|place| up(place) != 0.0).unwrap().off;
    value["setups"]["rounds"][0]["moved"][0]["off"] = derecho_results::json::value(off);
    let results = solved(&value);
    let prove = results.prove.unwrap();
    assert!(prove.movement.unwrap().agrees);
    assert_eq!((prove.cause, prove.misplaced, prove.verdict), (None, vec![], ProveVerdict::BackToBar));
    let bar = results.bar.unwrap();
    assert!(bar.correction.as_ref().unwrap().fitting.moved.is_empty(), "the eye is where the plan has it");
    let wanted = bar.correction.unwrap().recentring.length_mm.to_mm();
    let by_hand = reach(FOUND.0, FOUND.1).hypot(135.0);
    assert!((wanted - by_hand).abs() < 0.4, "{wanted} {by_hand}");

    // The other hole of that bracket is as far off: 25 mm further up, from where this one really is.
    value["setups"]["plans"]["chosen"]["axle"]["hole"] = json!("high");
    let fitting = solved(&value).bar.unwrap().correction.unwrap().fitting;
    let by = fitting.moved[0].by_mm;
    assert!(by[0].abs() + by[1].abs() < 1e-9 && (by[2] - 25.0).abs() < 1e-9, "{by:?}");

    value["setups"]["plans"]["chosen"]["axle"]["hole"] = json!("low");
    let rounds = value["setups"]["rounds"].as_array_mut().unwrap();
    rounds.push(json!({ "id": "r2", "length": mm(by_hand), "wanted_mm": wanted }));
    value["sheets"].as_array_mut().unwrap().push(sheet("s3", 0.1, "r2"));
    value["setups"]["rounds"][0]["cause"] = json!({ "what": "eye_elsewhere", "note": "the hole is slotted",
        "done": { "at": "2026-11-20T09:00:00Z", "by": "Rosa" } });
    let proved = solved(&value);
    assert_eq!(proved.prove.unwrap().verdict, ProveVerdict::CanSettle);
    // On record, and for whoever works on it next.
    let next: Vec<String> =
        proved.settling.next_time.iter().map(derecho_words::Spoken::millimetres).collect();
    assert!(next.contains(&"Axle end in the “low” hole, 25 mm lower than planned.".to_owned()), "{next:?}");
    let said: Vec<String> = log(&job(&value)).iter().map(|entry| entry.says.millimetres()).collect();
    for part in
        ["it is 25 mm lower than planned", "an eye is not where it was planned. Seen: the hole is slotted"]
    {
        assert!(said.iter().any(|says| says.contains(part)), "{part}: {said:?}");
    }
}

/// A place typed by hand counts as one that was confirmed, forward too: it changes the bar's reach to the square.
#[test]
fn a_typed_place_moves_the_eye_three_ways() {
    let mut value = set_on(0.0, 0.0);
    value["setups"]["rounds"][0]["moved"][0]["off"] =
        json!({ "forward": mm(-40.0), "outward": mm(5.0), "up": mm(-10.0) });
    let predicted = solved(&value).prove.unwrap().movement.unwrap().predicted_mm.to_mm();
    let across = (SET * SET - 120.0_f64.powi(2) - 40.0_f64.powi(2)).sqrt();
    assert!((predicted - (reach(FOUND.0, FOUND.1) - across + 5.0)).abs() < 1e-6, "{predicted}");
}

/// At the end of the range: 40 mm low, and a millimetre to the left that no finder sees. The place is good to a millimetre
/// and the movement no better: it is not called otherwise.
#[test]
fn a_confirmed_place_is_good_to_what_it_was_found_by() {
    let (up_by, left_by) = (-39.98, 1.2);
    let mut value = set_on(up_by, left_by);
    let angle = ((FOUND.1 - HIGHER - up_by) / SET).asin().to_degrees();
    value["proof"] = json!({ "looked_at": { "bar_angle": format!("{angle:.1}") } });
    let place = places(&value)[0].clone();
    value["setups"]["rounds"][0]["moved"][0]["off"] = derecho_results::json::value(place.off);
    let movement = solved(&value).prove.unwrap().movement.unwrap();
    assert!(movement.agrees, "{movement:?}");
    // Three millimetres more than that are otherwise still.
    value["sheets"][1] = sheet("s2", 9.0, "r1");
    assert!(!solved(&value).prove.unwrap().movement.unwrap().agrees);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]
    /// Whatever way it is off, the angle read along the bar and the movement together find it, within what they say they
    /// are good to and the last digit written; what is confirmed predicts the movement.
    #[test]
    fn planted_places_are_found(up_by in -40.0..40.0_f64, left_by in -30.0..30.0_f64) {
        prop_assume!(up_by.hypot(left_by) > 12.0);
        let mut value = set_on(up_by, left_by);
        let angle = ((FOUND.1 - HIGHER - up_by) / SET).asin().to_degrees();
        value["proof"] = json!({ "looked_at": { "bar_angle": format!("{angle:.1}") } });
        let found = places(&value);
        let Some(place) = found.first() else {
            // Up and sideways can undo each other: then the axle came as predicted.
            prop_assert!(solved(&value).prove.unwrap().movement.unwrap().agrees);
            return Ok(());
        };
        let good_to = place.uncertainty_mm.to_mm() + 3.0;
        prop_assert!((up(place) - up_by).abs() <= good_to.max(8.0), "{} {up_by}", up(place));
        // The axle eye is on the right: out is to the right.
        prop_assert!((outward(place) + left_by).abs() <= good_to, "{} {left_by}", outward(place));
        value["setups"]["rounds"][0]["moved"][0]["off"] = derecho_results::json::value(place.off.clone());
        prop_assert!(solved(&value).prove.unwrap().movement.unwrap().agrees);
    }
}
