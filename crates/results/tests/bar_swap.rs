//! A bar that goes in where the old one was: the old bar's length and the new bar's own are enough, no height is asked
//! for, and it is proved by one set of readings.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::sound as job;
use derecho_core::measure::Length;
use derecho_job::cautions::Stage;
use derecho_job::findings::FindingKind;
use derecho_job::prove::ProveVerdict;
use derecho_job::results::Everything;
use derecho_job::status::JobState;
use derecho_results::{everything, settle};
use derecho_words::Spoken as _;
use proptest::prelude::*;
use serde_json::{Value, json};

fn all(value: &Value) -> Everything {
    everything(&job(value))
}

fn swap(old: &str) -> Value {
    json!({ "format": "derecho-job", "version": 7, "title": "Sled hauler 3", "to_do": ["swap_bar"],
        "rig": { "end": "front", "frame_eye_side": "left", "axle_location": "three_arms", "sheet_unit": "in" },
        "setups": { "found": { "bar": { "length": old } } } })
}

fn with(mut value: Value, bar: &Value) -> Value {
    value["bracket"] = json!({ "bars": [bar] });
    value["setups"]["plans"] = json!({ "chosen": { "bar": bar["name"], "length": "as_the_old_one" } });
    value
}

fn turnbuckle(shortest: &str) -> Value {
    json!({ "name": "new bar", "adjuster": "turnbuckle", "made_min": shortest, "thread": "1-1/4-12", "hand": "right",
        "second_hand": "left" })
}

fn next(all: &Everything) -> (Stage, String) {
    let next = all.results.status.next.as_ref().unwrap();
    (next.stage, next.says.inches())
}

/// 33 1/8 less 31 5/8 is 1 1/2 in; 2/12 in a turn: nine turns out from fully in.
#[test]
fn two_lengths_are_enough_and_nothing_is_said_of_an_angle_nobody_measured() {
    let bare = all(&swap("33 1/8 in"));
    assert_eq!(next(&bare), (Stage::Bar, "Enter the new bar".to_owned()));
    assert!(bare.results.bar_missing.is_empty(), "{:?}", bare.results.bar_missing);

    let set = all(&with(swap("33 1/8 in"), &turnbuckle("31 5/8 in")));
    let bar = set.results.bar.as_ref().unwrap();
    let correction = bar.correction.as_ref().unwrap();
    assert!((correction.length_mm.to_inches() - 33.125).abs() < 1e-9);
    assert_eq!(correction.says.inches(), "Set the new bar to 33 1/8\"");
    let turns = correction.setting.as_ref().unwrap().turns_say.as_ref().unwrap();
    assert_eq!(turns.inches(), "9 turns longer");
    assert!(!bar.angle_measured && bar.sweep.is_empty());
    let told = derecho_results::json::value(bar);
    assert!(!told.to_string().contains("level at"), "an angle is told");
    assert!(set.plan.options.is_empty() && set.results.heights.iter().all(|height| height.found.is_none()));
    assert_eq!(next(&set).0, Stage::BoltUp);
    // What it is worked out from is the old bar, not where the axle stands.
    let steps: Vec<&str> = correction.working.steps.iter().map(|step| step.formula.as_str()).collect();
    assert_eq!(steps, ["L′ = L", "ΔL = L′ − L"]);
}

/// A sleeve is counted in flats of 4/6 mm: whichever the nearest makes, the answer, the step and its bench name one length,
/// in both units.
#[test]
fn one_length_in_the_answer_the_step_and_on_the_bench() {
    for tenths in (8400..8420).step_by(3) {
        let bar = json!({ "name": "new bar", "adjuster": "turnbuckle", "made_min": "801.3 mm", "thread": "M24x2",
            "hand": "right", "second_hand": "left" });
        let set = all(&with(swap(&format!("{} mm", f64::from(tenths) / 10.0)), &bar));
        let correction = set.results.bar.as_ref().unwrap().correction.as_ref().unwrap().clone();
        let bench = correction.setting.unwrap().bench.unwrap();
        let step = set.work.steps.iter().find(|step| step.key == "bar/bench").unwrap();
        for (answer, does, turned) in [
            (correction.says.inches(), step.does.inches(), bench.says[1].inches()),
            (correction.says.millimetres(), step.does.millimetres(), bench.says[1].millimetres()),
        ] {
            let length = answer.trim_start_matches("Set the new bar to ").to_owned();
            assert!(does.contains(&length) && turned.contains(&length), "{answer} / {does} / {turned}");
        }
    }
}

/// In the order of its steps: off the old one, the new one set, hung, down, tight, read, jam nuts.
#[test]
fn its_steps_and_its_proof() {
    let planned = with(swap("33 1/8 in"), &turnbuckle("31 5/8 in"));
    let steps = all(&planned).work.steps;
    let keys: Vec<&str> = steps.iter().map(|step| step.key.as_str()).collect();
    let wanted = [
        "corners",
        "stands",
        "bar/out",
        "bar/bench",
        "bar/frame-eye-by-hand",
        "bar/axle-eye-by-hand",
        "on-its-weight",
        "bar/frame-eye",
        "bar/axle-eye",
        "read-again",
        "bar/jam",
    ];
    assert!(keys.starts_with(&wanted), "{keys:?}");

    let mark = json!({ "at": "2026-11-20T09:00:00Z", "by": "Rosa" });
    let tight = json!({ "torque": "110 lb-ft", "tool": "wrench 2", "done": mark });
    let tight = ["bar/frame-eye", "bar/axle-eye", "bar/jam"].map(|key| json!({ "key": key, "tight": tight }));
    let mut fitted = planned;
    fitted["bolt_up"] = json!({
        "steps": keys.iter().map(|key| json!({ "key": key, "done": mark })).collect::<Vec<_>>(),
        "fasteners": tight,
    });
    assert_eq!(next(&all(&fitted)), (Stage::Bar, "Record what was installed".to_owned()));
    fitted["setups"]["rounds"] = json!([{ "bar": "new bar", "length": "33 1/8 in" }]);
    fitted["sheets"] = json!([{ "id": "after", "unit": "in", "round": 1, "method": "frame_to_hub",
        "left": ["12 1/16 in", "12 1/16 in", "12 1/16 in"], "right": ["12 in", "12 in", "12 in"],
        "conditions": { "on_its_weight": true } }]);
    let looks = ["wheel_straight", "toe", "sensors", "lines", "wheel_nuts", "clear"];
    fitted["proof"] = json!({ "looked_at": looks.into_iter().map(|look| (look.to_owned(), json!(true))).collect::<serde_json::Map<_, _>>() });
    let proved = all(&fitted);
    assert_eq!(proved.results.prove.as_ref().unwrap().verdict, ProveVerdict::CanSettle);
    assert_eq!(proved.results.status.state, JobState::Proved);
    let open: Vec<FindingKind> =
        proved.results.findings.iter().filter(|f| f.stands_in_the_way()).map(|f| f.kind).collect();
    assert!(open.is_empty(), "{open:?}");
    assert!(settle(&job(&fitted), "2026-11-21T08:00:00Z".parse().unwrap()).is_some());
}

/// The maker's length in place of an old bar's that somebody changed: 32 3/4 less 31 5/8 is 1 1/8 in, 6 3/4 turns.
#[test]
fn a_new_bar_can_get_the_makers_length() {
    let mut value = with(swap("33 1/8 in"), &turnbuckle("31 5/8 in"));
    value["setups"]["plans"]["chosen"]["length"] = json!("as_the_maker_had_it");
    value["bracket"]["stock_length"] = json!("32 3/4 in");
    let bar = all(&value).results.bar.unwrap();
    let correction = bar.correction.unwrap();
    assert!((correction.length_mm.to_inches() - 32.75).abs() < 1e-9);
    assert!((correction.setting.unwrap().facts.exact_turns.unwrap() - 6.75).abs() < 1e-9);
    assert_eq!(correction.working.steps[0].formula, "L′ = L_stock");
    // Meant, but not typed: what the length then rests on is an estimate, and says so.
    value["bracket"].as_object_mut().unwrap().remove("stock_length");
    let asked = all(&value);
    assert!(asked.results.bar.as_ref().unwrap().correction.as_ref().unwrap().estimated);
    assert_eq!(next(&asked).0, Stage::Tape);
}

/// Rise 6 in on 32: 10.8°. A maker's angle of 6° wants a rise of h·tan 6° = 31.432 · 0.1051 = 3.304 in, a riser of 2.70 in.
#[test]
fn the_bar_can_be_given_its_stock_angle() {
    let mut value = swap("32 in");
    value["to_do"] = json!(["level_bar"]);
    value["rig"]["axle_location"] = json!("leaf_springs");
    value["setups"]["found"]["bar"] =
        json!({ "length": "32 in", "frame_eye_height": "26 in", "axle_eye_height": "20 in" });
    value["bracket"] = json!({ "target": "as_the_maker_had_it", "brackets": [{ "name": "riser", "end": "axle",
        "holes": [{ "name": "2 3/4", "up": "2.75 in" }, { "name": "6", "up": "6 in" }] }] });
    let asks = all(&value).plan.missing;
    assert!(asks.iter().any(|fault| fault.pointer == "/bracket/stock_angle"), "{asks:?}");
    value["bracket"]["stock_angle"] = json!({ "text": "6" });
    let planned = all(&value);
    assert!(
        (planned.plan.exact_riser_mm.unwrap().to_inches() - 2.696).abs() < 2e-3,
        "{:?}",
        planned.plan.exact_riser_mm
    );
    // 10.8 is 4.8 off 6: a bracket is recommended, and the hole that levels it is the worse one.
    let need = &planned.results.bar.unwrap().need;
    assert_eq!(need.says.inches().split('.').next().unwrap(), "Bracket recommended: the bar is 4");
    let first = planned.plan.options.iter().find(|option| option.end.is_some()).unwrap();
    assert!(first.name.inches().contains("2 3/4"), "{}", first.name.inches());
}

/// A bar that can't be turned is as long as it is; one that ends short does not reach.
#[test]
fn a_bar_that_is_too_short_does_not_reach() {
    let short = json!({ "name": "new bar", "adjuster": "turnbuckle", "made_min": "29 in", "made_max": "31 in",
        "thread": "1-1/4-12", "hand": "right", "second_hand": "left" });
    let all = all(&with(swap("33 1/8 in"), &short));
    assert_eq!(all.results.bar.as_ref().unwrap().correction.as_ref().unwrap().covered, Some(false));
    assert!(next(&all).1.starts_with("Find a bar that reaches"), "{:?}", next(&all));
    assert_eq!(next(&all).0, Stage::Bar, "where the new bar is entered");
}

/// 12 5/8 and 11 3/8 in: 5/8 in to the left. With the frame eye on the left the bar has to get about that much longer; at
/// 15 degrees it would be 5/8 · cos 15° = 0.604, 0.021 less: under 1/32.
#[test]
fn both_sides_alone_say_about_how_much_longer() {
    let mut value = swap("33 1/8 in");
    value["to_do"] = json!(["centre_axle"]);
    value["setups"] = json!({});
    value["sheets"] = json!([{ "id": "first", "unit": "in", "round": 0, "method": "frame_to_hub",
        "left": ["12 5/8 in", "12 5/8 in", "12 5/8 in"], "right": ["11 3/8 in", "11 3/8 in", "11 3/8 in"],
        "conditions": { "on_its_weight": true } }]);
    let says = |value: &Value| all(value).results.first_answer.map(|says| says.inches());
    let wanted =
        "About 5/8\" longer, from the measurements alone; the bar's angle changes that by less than 1/32\".";
    assert!(says(&value).unwrap().starts_with(wanted), "{:?}", says(&value));
    value["rig"]["frame_eye_side"] = json!("right");
    assert!(says(&value).unwrap().starts_with("About 5/8\" shorter"), "{:?}", says(&value));
    // Once the bar is measured its own answer stands; readings that can't tell say nothing.
    let mut measured = value.clone();
    measured["setups"]["found"] =
        json!({ "bar": { "length": "33 1/8 in", "frame_eye_height": "24 in", "axle_eye_height": "18 in" } });
    assert!(says(&measured).is_none());
    value["sheets"][0]["right"] = json!(["12 5/8 in", "12 5/8 in", "12 5/8 in"]);
    assert!(says(&value).is_none());
}

/// Who wants more than a swap is asked for the heights.
#[test]
fn other_work_asks_for_the_heights() {
    let mut value = swap("33 1/8 in");
    value["to_do"] = json!(["swap_bar", "level_bar"]);
    let asked = all(&value).results.bar_missing;
    assert!(asked.iter().any(|fault| fault.pointer.ends_with("/frame_eye_height")), "{asked:?}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// Whatever the two lengths: the new bar gets the old one's, and turns times the pitch of both threads is what it
    /// gets longer by, to half a turn.
    #[test]
    fn turns_make_the_difference(old in 600.0_f64..900.0, shorter in 5.0_f64..60.0) {
        let mm = |value: f64| format!("{value:.1} mm");
        let (old, new) = ((old * 10.0).round() / 10.0, ((old - shorter) * 10.0).round() / 10.0);
        let set = all(&with(swap(&mm(old)), &turnbuckle(&mm(new))));
        let correction = set.results.bar.unwrap().correction.unwrap();
        prop_assert!((correction.length_mm - Length::from_mm(old)).abs().to_mm() < 1e-6);
        let turns = correction.setting.unwrap().facts.exact_turns.unwrap();
        prop_assert!((turns * 2.0 * 25.4 / 12.0 - (old - new)).abs() < 1e-6, "{turns} turns of {old} − {new}");
    }
}
