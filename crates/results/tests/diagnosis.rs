//! The cause: what the figures, the complaint and a look at the vehicle say together of what is wrong, and what that does
//! to the job.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::sound as job;
use derecho_job::Results;
use derecho_job::diagnosis::DiagnosisResult;
use derecho_job::document::diagnosis::{QuickCheck, Suspect};
use derecho_job::findings::{FindingKind, Weight};
use derecho_results::solve;
use derecho_words::Spoken as _;
use serde_json::{Value, json};

fn mm(length: f64) -> Value {
    json!({ "text": format!("{length:.1}"), "unit": "mm" })
}

fn sheet(id: &str, left: f64, after: &str) -> Value {
    let side = |reads: f64| json!([mm(reads), mm(reads), mm(reads), mm(reads)]);
    let mut sheet = json!({
        "id": id, "kind": "centring", "method": "frame_to_hub", "sense": "outward", "unit": "mm",
        "left": side(160.0 + left), "right": side(160.0 - left),
        "conditions": { "on_its_weight": true, "wheels_straight": true, "pressures_equal": true },
    });
    if !after.is_empty() {
        sheet["after"] = json!(after);
    }
    sheet
}

/// A bar of 905 mm that rises 210 mm to its frame eye on the left reaches √(905² − 210²) = 880.3 mm across. The axle is
/// 12 mm to the left: the bar has to reach 892.3 mm, √(892.3² + 210²) = 916.7 mm long. It is recorded so; the axle is then
/// `left` of the middle.
fn set_and_measured(left: f64) -> Value {
    json!({
        "format": "derecho-job", "version": 7, "title": "Ridge patrol 11 front", "to_do": ["centre_axle"],
        "rig": {
            "sheet_unit": "mm", "end": "front", "steering_side": "left", "frame_eye_side": "left",
            "axle_location": "radius_arms", "bump": mm(90.0), "droop": mm(110.0), "tolerance": mm(3.0),
        },
        "sheets": [sheet("s1", 12.0, ""), sheet("s2", left, "r1")],
        "setups": {
            "found": { "bar": { "length": mm(905.0), "frame_eye_height": mm(610.0), "axle_eye_height": mm(400.0),
                "frame_eye_from_centre": mm(400.0) } },
            "rounds": [{ "id": "r1", "length": mm(916.7), "wanted_mm": 916.7 }],
        },
    })
}

fn complained(mut value: Value, about: &str) -> Value {
    value["complaints"] = json!([{ "text": "as the driver says", "about": about }]);
    value
}

fn looked(mut value: Value, checks: &[(&str, bool)]) -> Value {
    let made = |(what, seen): &(&str, bool)| json!({ "what": what, "seen": seen, "done": { "at": "2026-10-03T08:00:00Z" } });
    value["diagnosis"]["checks"] = checks.iter().map(made).collect();
    value
}

fn solved(value: &Value) -> Results {
    solve(&job(value))
}

fn searched(value: &Value) -> DiagnosisResult {
    solved(value).diagnosis.unwrap()
}

fn first(value: &Value) -> Suspect {
    searched(value).suspects[0].suspect
}

#[test]
fn nothing_is_searched_for_where_everything_agrees() {
    assert_eq!(solved(&set_and_measured(0.0)).diagnosis, None);
    // Nobody asks why of an empty job either.
    assert_eq!(solved(&json!({ "format": "derecho-job", "version": 7, "title": "new" })).diagnosis, None);
}

/// It should have gone 12 mm to the right. Twice as far, and as far the other way, have one likely reason each.
#[test]
fn a_movement_turned_round_or_doubled_is_named_and_told_once_somebody_is_asked() {
    for (left, suspect) in [(-12.0, Suspect::FullDifference), (24.0, Suspect::SignTurned)] {
        let value = set_and_measured(left);
        assert_eq!(first(&value), suspect);
        let value = looked(value, &[("turns_differ", true)]);
        let found = searched(&value);
        assert!(found.told && found.suspects[0].suspect == suspect, "{found:?}");
    }
    // Somebody is sure that it was not: so much less likely it is.
    let share = |value: &Value| {
        searched(value)
            .suspects
            .iter()
            .find(|one| one.suspect == Suspect::SignTurned)
            .map_or(0.0, |one| one.share)
    };
    let asked = looked(set_and_measured(24.0), &[("turns_differ", false)]);
    assert!(share(&asked) < share(&set_and_measured(24.0)), "{}", share(&asked));
}

/// The axle stopped 8 mm short of where it was to go: a bar 7.8 mm shorter than recorded, 880.3/905 of it at the same
/// height being what a millimetre of bar is to the axle: 8 · 892.3/916.7 = 7.79 mm.
#[test]
fn a_bar_that_is_not_what_was_recorded_has_its_length_told() {
    let value = looked(set_and_measured(8.0), &[("bar_length_differs", true), ("bar_not_straight", false)]);
    let found = searched(&value);
    let bar = &found.suspects[0];
    assert_eq!(bar.suspect, Suspect::LengthOff);
    let (size, good_to) = (bar.size_mm.unwrap().to_mm(), bar.uncertainty_mm.unwrap().to_mm());
    assert!((size + 7.79).abs() < good_to && good_to < 4.0, "{size} ± {good_to}");
    assert!(bar.says.millimetres().contains("shorter than recorded"), "{}", bar.says.millimetres());
}

/// A clunk with nothing measured: loose bolts are met oftenest, and rocking it says whether it is one.
#[test]
fn a_complaint_alone_says_where_to_look() {
    let value =
        complained(json!({ "format": "derecho-job", "version": 7, "title": "Ladder truck 4" }), "clunk");
    let found = searched(&value);
    assert!(!found.told, "{found:?}");
    let shown: Vec<Suspect> = found.suspects.iter().map(|one| one.suspect).collect();
    assert!(shown[..4].contains(&Suspect::BoltLoose) && shown.contains(&Suspect::TrackBarHits), "{shown:?}");
    assert!(found.suspects.windows(2).all(|pair| pair[0].share >= pair[1].share));
    let next = &found.next[0];
    assert!(
        next.minutes <= 3
            && next.if_seen.inches().starts_with("Yes: ")
            && next.if_not.inches().starts_with("No: ")
    );
    // Rubbed paint is what a bar that hits leaves, and nothing else.
    let value = looked(value, &[("rubbed_paint", true)]);
    let found = searched(&value);
    assert!(found.told && found.suspects[0].suspect == Suspect::TrackBarHits, "{found:?}");
    assert!(found.next.iter().all(|next| next.check != QuickCheck::RubbedPaint), "it was looked at");
}

/// The weight of evidence by hand: with "no" to every check nothing is likelier than anything met in practice.
#[test]
fn nothing_seen_anywhere_is_most_likely_nothing() {
    let keys: Vec<String> = QuickCheck::ALL
        .iter()
        .map(|check| serde_json::to_value(check).unwrap().as_str().unwrap().to_owned())
        .collect();
    let all: Vec<(&str, bool)> = keys.iter().map(|key| (key.as_str(), false)).collect();
    let found = searched(&looked(complained(set_and_measured(0.0), "wander"), &all));
    assert!(found.nothing_share > 0.5 && !found.told && found.next.is_empty(), "{found:?}");
    assert_eq!(found.seen.len(), 26);
}

/// Of both sides and both units: mirrored, the same is found with the same shares, and the size turned round.
#[test]
fn a_mirrored_vehicle_has_the_mirrored_cause() {
    let value = looked(set_and_measured(8.0), &[("bar_length_differs", true)]);
    let mut mirrored = value.clone();
    mirrored["rig"]["frame_eye_side"] = json!("right");
    for sheet in mirrored["sheets"].as_array_mut().unwrap() {
        let (left, right) = (sheet["left"].clone(), sheet["right"].clone());
        (sheet["left"], sheet["right"]) = (right, left);
    }
    let (one, other) = (searched(&value), searched(&mirrored));
    for (one, other) in one.suspects.iter().zip(&other.suspects) {
        assert_eq!(one.suspect, other.suspect);
        assert!((one.share - other.share).abs() < 1e-6, "{one:?} {other:?}");
    }
    // A bar's length has no side.
    let size = |found: &DiagnosisResult| found.suspects[0].size_mm.unwrap().to_mm();
    assert!((size(&one) - size(&other)).abs() < 1e-6);
}

/// What was seen is a finding of its own: no job is closed over a bracket that moves, whatever was concluded from it.
#[test]
fn a_bracket_that_moves_stands_in_the_way_until_it_is_mended() {
    let value = looked(set_and_measured(0.0), &[("bracket_moves", true)]);
    let open = |value: &Value| -> Vec<(Weight, bool)> {
        let found = solved(value).findings;
        let causes = found.iter().filter(|found| found.kind == FindingKind::CauseOpen);
        causes.map(|found| (found.weight, found.acceptable)).collect()
    };
    assert_eq!(open(&value), [(Weight::Safety, false)]);
    assert!(!solved(&value).settling.may);

    // Confirmed it is one finding and not two.
    let mut confirmed = value.clone();
    confirmed["diagnosis"]["causes"] = json!([{ "what": "bracket_tearing", "note": "weld open on one side", "done": { "at": "2026-10-03T08:10:00Z" } }]);
    assert_eq!(open(&confirmed), [(Weight::Safety, false)]);
    let found = searched(&confirmed);
    assert!(found.suspects.is_empty() && found.says.inches().contains("Fix it"), "{}", found.says.inches());

    // Welded: what was seen before is gone with it, and what is seen after it counts.
    let mut mended = confirmed.clone();
    mended["diagnosis"]["causes"][0]["mended"] = json!({ "at": "2026-10-04T08:00:00Z", "by": "I. Stone" });
    assert_eq!(open(&mended), []);
    mended["diagnosis"]["checks"] =
        json!([{ "what": "bracket_moves", "seen": true, "done": { "at": "2026-10-05T08:00:00Z" } }]);
    assert_eq!(open(&mended), [(Weight::Safety, false)]);
}

/// Tires that were mended since say nothing of a bracket that moves.
#[test]
fn what_was_seen_of_one_cause_outlives_the_mending_of_another() {
    let mut value = looked(set_and_measured(0.0), &[("bracket_moves", true), ("pressures_differ", true)]);
    value["diagnosis"]["causes"] = json!([{ "what": "tires_unlike", "done": { "at": "2026-10-03T08:10:00Z" },
        "mended": { "at": "2026-10-03T08:30:00Z" } }]);
    let results = solved(&value);
    let keys: Vec<&str> = results.findings.iter().map(|found| found.key.as_str()).collect();
    assert!(keys.contains(&"seen/BracketMoves") && !keys.contains(&"seen/PressuresDiffer"), "{keys:?}");
    assert!(!results.settling.may);
    // It is searched on, and the bracket is named.
    assert_eq!(results.diagnosis.unwrap().suspects[0].suspect, Suspect::BracketTearing);
}

/// Twice the same check, or the same cause, is a fault of the document, told with its place.
#[test]
fn a_check_or_a_cause_is_listed_once() {
    let value = looked(set_and_measured(0.0), &[("floor_slopes", true), ("floor_slopes", false)]);
    let document = by_name::with_ids(&value);
    let read = derecho_job::document::migrate::parsed(document.to_string().as_bytes()).unwrap();
    let faults = derecho_job::check(&read);
    assert!(
        faults.iter().any(|fault| fault.pointer == "/diagnosis/checks/1/what" && fault.code == "key_twice"),
        "{faults:?}"
    );
}
