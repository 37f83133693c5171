//! What was wrong once, each with figures that show it, so that it stays right.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::measure::Length;
use derecho_job::document::check::check;
use derecho_job::results::{cycle, plan, sway};
use derecho_job::verdict::FitVerdict;
use derecho_job::{Job, solve};
use serde_json::{Value, json};

fn demo(name: &str) -> Value {
    let text = match name {
        "lookout-truck-7" => include_str!("../../../demo/lookout-truck-7.derecho.json"),
        "supply-truck-9" => include_str!("../../../demo/supply-truck-9.derecho.json"),
        other => panic!("no demo {other}"),
    };
    serde_json::from_str(text).unwrap()
}

fn job(value: &Value) -> Job {
    let job: Job = serde_json::from_value(value.clone()).unwrap();
    assert_eq!(check(&job), []);
    job
}

fn height(name: &str, offset: &str) -> Value {
    json!({ "name": name, "offset": offset })
}

#[test]
fn one_height_is_driven_whatever_it_is_called() {
    let mut value = demo("supply-truck-9");
    value["rig"]["heights"] = json!([height("ride height", "0 in"), height("raised", "2 in")]);
    let heights = solve(&job(&value)).heights;
    let driven: Vec<&str> = heights.iter().filter(|h| h.driven).map(|h| h.name.as_str()).collect();
    assert_eq!((driven, heights.len()), (vec!["ride height"], 2));
    // Called ride height and not there, it is asked about.
    value["rig"]["heights"] = json!([height("Ride height", "2 in")]);
    let faults = check(&serde_json::from_value(value).unwrap());
    assert_eq!(faults[0].code, "name_taken");
}

/// A bar of a yard cannot hold an axle four feet lower: that height is left out for it, and nothing falls.
#[test]
fn heights_that_a_bar_cannot_reach_are_left_out() {
    let mut value = demo("lookout-truck-7");
    value["rig"]["heights"] =
        json!([height("empty", "0 in"), height("on a lift", "48 in"), height("raised", "1 in")]);
    let result = plan(&job(&value));
    assert!(!result.options.is_empty());
    assert!(result.options.iter().all(|option| option.heights.iter().all(|h| h.name != "on a lift")));
    assert!(result.other_heights.iter().all(|says| !says.inches.contains("on a lift")));
    assert!(result.other_heights.iter().any(|says| says.inches.contains("raised")));
}

/// A tube bent upward by two inches comes two inches nearer to what lies over its middle.
#[test]
fn a_bars_bend_is_held_against_what_is_there() {
    let gap = |bend: Option<&str>| {
        let mut value = demo("supply-truck-9");
        let mut bar = json!({ "name": "bent", "made_min": "30 in", "made_max": "40 in", "outside": "32 mm",
            "frame_joint": "rubber", "axle_joint": "rubber" });
        if let Some(bend) = bend {
            bar["bend"] = json!(bend);
        }
        value["bracket"]["bars"] = json!([bar]);
        value["hardpoints"]["bar"].as_object_mut().unwrap().remove("bend");
        value["hardpoints"]["obstacles"] = json!([{ "name": "tank", "on": "body", "side": "left", "thickness": "2 in",
            "from": { "height": "40 in", "sideways": "0 in", "fore_aft": "-9 in" } }]);
        let plan = plan(&job(&value));
        let option = plan.options.into_iter().find(|option| option.plan.bar == "bent").unwrap();
        (option.least_gap_mm.unwrap(), option.minds)
    };
    let ((straight, none), (bent, minds)) = (gap(None), gap(Some("2 in")));
    assert!(bent < straight - Length::from_mm(15.0), "{bent:?} {straight:?}");
    assert!(none.iter().all(|says| !says.inches.contains("bend")));
    assert!(minds.iter().any(|says| says.inches.contains("its bend is taken")), "{minds:?}");
}

#[test]
fn two_features_of_ones_own_are_not_one() {
    let uncertainty = |second: &str| {
        let mut value = demo("supply-truck-9");
        for (index, name) in [(0, "spring pad to drum"), (1, second)] {
            value["sheets"][index]["method"] = json!("own");
            value["sheets"][index]["method_name"] = json!(name);
            value["sheets"][index]["feature_uncertainty"] = json!("1.5 mm");
        }
        solve(&job(&value)).prove.unwrap().movement.unwrap().uncertainty_mm.to_mm()
    };
    let (same, other) = (uncertainty("Spring pad to drum "), uncertainty("shock mount to drum"));
    // Both features' own uncertainty comes in: 2·√(1.5² + 1.5²) beside what repeats leave.
    assert!((other.powi(2) - same.powi(2) - 4.0 * 2.0 * 2.25).abs() < 1e-6, "{same} {other}");
}

#[test]
fn a_half_measured_shock_leaves_nothing_clear() {
    let mut value = demo("lookout-truck-7");
    assert!(!sway(&job(&value)).room.unwrap().says.inches.contains("Not measured whole"));
    value["sway"]["room"]["shocks"][0]["axle"].as_object_mut().unwrap().remove("sideways");
    let says = sway(&job(&value)).room.unwrap().says.inches;
    assert!(says.starts_with("Not measured whole, so nothing is called clear yet"), "{says}");
    assert!(!says.contains("are clear of everything"), "{says}");
}

#[test]
fn bolts_are_judged_where_there_is_no_sway_bar() {
    let mut value = demo("supply-truck-9");
    value["sway"] = json!({ "kind": "none", "bolts": [
        { "name": "frame bolt", "length": "4 in", "room": "3 1/2 in" },
        { "name": "axle bolt", "length": "4 in", "room": "6 in" },
        { "name": "lower bolt", "length": "4 in" } ] });
    let verdicts = |value: &Value| sway(&job(value)).checks.iter().map(|c| c.verdict).collect::<Vec<_>>();
    assert_eq!(verdicts(&value), [FitVerdict::Bad, FitVerdict::Good, FitVerdict::Open]);
    value["sway"].as_object_mut().unwrap().remove("kind");
    assert_eq!(verdicts(&value), [FitVerdict::Bad, FitVerdict::Good, FitVerdict::Open]);
}

/// Of two things that come near, the nearer one is told, whichever was measured first.
#[test]
fn the_limit_that_is_told_is_the_one_furthest_gone() {
    for order in [[0, 1], [1, 0]] {
        let mut value = demo("supply-truck-9");
        let over = |name: &str, height: &str| {
            json!({ "name": name, "on": "body", "side": "left", "thickness": "1 in",
                "from": { "height": height, "sideways": "16 in", "fore_aft": "15 in" } })
        };
        // Over the left lower arm, clear of it by a little and by less.
        let things = [over("hose", "20.1 in"), over("pipe", "19.9 in")];
        value["hardpoints"]["obstacles"] = json!(order.map(|index: usize| things[index].clone()));
        let found = cycle(&job(&value)).found.unwrap();
        let least = |thing: &str| {
            let gaps = found.limits.iter().filter(|limit| limit.name.ends_with(thing));
            gaps.map(|limit| limit.worst).fold(f64::INFINITY, f64::min)
        };
        let (hose, pipe) = (least("hose"), least("pipe"));
        assert!(pipe < hose, "{pipe} {hose}");
        let told = &found.says.inches;
        assert!(told.contains("comes near the pipe"), "{told}");
    }
}
