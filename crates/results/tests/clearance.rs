//! What a sway bar and the tube it runs in come near to: held against control arms over the travel, in Cycle, in Sway and
//! in the register alike.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::read;
use derecho_core::measure::Length;
use derecho_job::cycle::{CycleResult, LimitLevel, LimitResult, cycle};
use derecho_job::findings::FindingKind;
use derecho_job::results::{never_settled, solve};
use derecho_job::setups::Resolved;
use derecho_job::sway::{SwayResult, sway};
use derecho_job::verdict::FitVerdict;
use derecho_words::Spoken as _;
use serde_json::{Value, json};

/// A rear axle on four arms of 2 in, parallel and alike: 6 in of rise over 28 in at ride height, so that they are level at
/// 6 in of bump and the axle never turns. The upper ones lie at 29 15/16 in there. A 1 in sway bar runs 18 in ahead of
/// the axle and 31 in up.
fn rear() -> Value {
    let point =
        |up: &str, out: &str, ahead: &str| json!({ "height": up, "sideways": out, "fore_aft": ahead });
    json!({ "format": "derecho-job", "version": 7, "title": "Supply truck 11 rear", "to_do": ["choose_sway_bar"],
        "rig": { "end": "rear", "axle_location": "four_arms", "sheet_unit": "in", "track": "62 in",
            "axle_height": "17 in", "bump": "6 in", "droop": "4 in" },
        "hardpoints": { "arms": {
            "upper_left": { "diameter": "2 in", "body": point("29 15/16 in", "13 in", "28 in"),
                "axle": point("23 15/16 in", "13 in", "0 in") },
            "lower_left": { "diameter": "2 in", "body": point("20 in", "15 in", "28 in"),
                "axle": point("14 in", "15 in", "0 in") } } },
        "sway": { "kind": "one_piece", "diameter": "1 in", "forward": false, "eye_from_centre": "20 in",
            "axis": point("31 in", "0 in", "18 in") } })
}

fn limit<'a>(result: &'a CycleResult, name: &str) -> &'a LimitResult {
    let limits = &result.found.as_ref().unwrap_or_else(|| panic!("{:?}", result.missing)).limits;
    limits.iter().find(|limit| limit.name.0.inches() == name).unwrap_or_else(|| {
        let names: Vec<String> = limits.iter().map(|limit| limit.name.0.inches()).collect();
        panic!("no {name} among {names:?}")
    })
}

fn sixteenths(length: f64) -> f64 {
    length / 25.4 * 16.0
}

/// Level at 29 15/16 in under a bar at 31: 1 1/16 in between the middles, less 1 in of arm and 1/2 in of bar.
#[test]
fn the_upper_arms_go_seven_sixteenths_into_the_bar_by_hand() {
    let result = cycle(&read(&rear()), None);
    for arm in ["left upper control arm to sway bar", "right upper control arm to sway bar"] {
        let found = limit(&result, arm);
        assert!((sixteenths(found.worst) + 7.0).abs() < 0.02, "{arm}: {}", sixteenths(found.worst));
        assert_eq!(found.level, LimitLevel::Violated);
        assert!((found.worst_left_mm - Length::from_inches(6.0)).abs() < Length::from_mm(2.0));
    }
    let says = result.says.inches();
    assert!(
        says.starts_with("The left upper control arm hits the sway bar at ") && says.ends_with(" bump"),
        "{says}"
    );
}

/// Its 1 3/4 in tube is 3/8 in thicker on a side than the bar.
#[test]
fn and_thirteen_sixteenths_into_its_tube() {
    let mut value = rear();
    value["sway"]["room"] = json!({ "tube_outside": "1 3/4 in" });
    let result = cycle(&read(&value), None);
    let found = limit(&result, "left upper control arm to sway bar tube");
    assert!((sixteenths(found.worst) + 13.0).abs() < 0.02, "{}", sixteenths(found.worst));
    // A tube that ends inside of the arms, at 10 in less its own round end, is passed by.
    value["sway"]["room"]["tube_length"] = json!("18 in");
    let result = cycle(&read(&value), None);
    assert_eq!(
        limit_level(&result, "left upper control arm to sway bar tube"),
        None,
        "further off than is told"
    );
}

/// It stands in the register, in the strip and in the way of closing the job.
#[test]
fn it_is_a_finding_and_not_clear() {
    let results = solve(&read(&rear()), never_settled);
    let keys: Vec<&str> = results.findings.iter().map(|finding| finding.key.as_str()).collect();
    assert!(keys.iter().any(|key| key.starts_with("travel_ends/Touch/")), "{keys:?}");
    // With the bar 3 in higher they pass under it.
    let mut value = rear();
    value["sway"]["axis"]["height"] = json!("34 in");
    let clear = cycle(&read(&value), None);
    assert_eq!(limit_level(&clear, "left upper control arm to sway bar"), None, "further off than is told");
    let results = solve(&read(&value), never_settled);
    assert!(results.findings.iter().all(|finding| !finding.key.starts_with("travel_ends/")));
}

fn limit_level(result: &CycleResult, name: &str) -> Option<LimitLevel> {
    let limits = &result.found.as_ref()?.limits;
    limits.iter().find(|limit| limit.name.0.inches() == name).map(|limit| limit.level)
}

/// With arms and links measured stage Sway has the same pair with the same figure.
#[test]
fn sway_tells_the_same() {
    let mut value = rear();
    value["sway"]["holes"] = json!([{ "arm": "12 in" }]);
    value["sway"]["link"] = json!("14 in");
    value["sway"]["far_end"] = json!({ "height": "17 in", "sideways": "21 in", "fore_aft": "5 in" });
    value["sway"]["room"] = json!({ "arm_thickness": "1 in", "link_thickness": "1 in" });
    let room = swayed(&value).room.unwrap();
    assert_eq!(room.verdict, FitVerdict::Bad);
    let gap = room.gaps.iter().find(|gap| gap.thing.inches() == "left upper control arm").unwrap();
    let cycled = cycle(&read(&value), None);
    let there = limit(&cycled, "left upper control arm to sway bar").worst;
    assert!((gap.gap_mm.to_mm() - there).abs() < 0.01, "{} {there}", gap.gap_mm.to_mm());
    assert_eq!(gap.rod.inches(), "the sway bar");
}

/// Nothing whose place is assumed is called clear: it is named.
#[test]
fn what_is_assumed_is_named() {
    let mut value = rear();
    value["hardpoints"]["arms"]["upper_left"]["axle"].as_object_mut().unwrap().remove("height");
    let result = cycle(&read(&value), None);
    let setup = result.found.as_ref().unwrap();
    let says = setup.not_judged_say.as_ref().unwrap().inches();
    assert!(says.contains("control arms") && says.contains("Assumed"), "{says}");
    assert!(limit_level(&result, "left upper control arm to sway bar").is_none());
}

/// A tube beside something on the frame keeps its distance: that is told as it stands, with no place of the travel.
#[test]
fn what_sits_beside_the_tube_is_told_as_it_sits() {
    let mut value = rear();
    value["sway"]["room"] = json!({ "tube_outside": "1 3/4 in" });
    // 2 in above the bar's axis: less 7/8 in of tube and 1/2 in of line.
    value["hardpoints"]["obstacles"] = json!([{ "name": "fuel line", "on": "body", "side": "left",
        "thickness": "1 in", "from": { "height": "33 in", "sideways": "2 in", "fore_aft": "18 in" } }]);
    let result = cycle(&read(&value), None);
    let standing = &result.found.as_ref().unwrap().standing;
    let says: Vec<String> = standing.iter().map(|pair| pair.says.inches()).collect();
    assert!(says.iter().any(|says| says == "The sway bar tube is 5/8\" from the fuel line"), "{says:?}");
}

/// A line through the tube: 1 3/8 in into it, wherever the axle is. It stands in the register by itself, and nobody is told
/// that the axle's travel ends for it.
#[test]
fn what_goes_through_the_tube_as_it_sits_is_a_finding() {
    let mut value = rear();
    value["sway"]["axis"]["height"] = json!("36 in");
    value["sway"]["room"] = json!({ "tube_outside": "1 3/4 in" });
    value["hardpoints"]["obstacles"] = json!([{ "name": "fuel line", "on": "body", "side": "left",
        "thickness": "1 in", "from": { "height": "36 in", "sideways": "2 in", "fore_aft": "18 in" } }]);
    let results = solve(&read(&value), never_settled);
    let found: Vec<_> =
        results.findings.iter().filter(|finding| finding.kind == FindingKind::StandsInTheWay).collect();
    assert!(found.iter().any(|finding| finding.key.contains("SwayTube")), "{:?}", results.findings);
    assert!(found.iter().all(|finding| finding.stands_in_the_way()));
}

/// Where some things were measured and the axle's way changes, what is usual at that end and was not is named once.
#[test]
fn what_nobody_measured_is_named_once() {
    let mut value = rear();
    value["to_do"] = json!(["clear_something"]);
    value["hardpoints"]["obstacles"] = json!([{ "name": "pipe", "part": "exhaust", "on": "body", "side": "left",
        "thickness": "2 in", "from": { "height": "40 in", "sideways": "2 in", "fore_aft": "-40 in" } }]);
    value["rig"]["frame_eye_side"] = json!("left");
    value["setups"] = json!({ "found": { "bar": { "length": "36 in", "frame_eye_height": "24 in", "axle_eye_height": "18 in" } } });
    let said = |value: &Value| -> Vec<String> {
        let findings = solve(&read(value), never_settled).findings;
        let named = findings.iter().filter(|finding| finding.kind == FindingKind::PartsNotMeasured);
        named.map(|finding| finding.says.inches()).collect()
    };
    assert_eq!(said(&value), ["No fuel tank measured: clearance to it is not checked."]);
    value["rig"]["end"] = json!("front");
    assert_eq!(said(&value), ["No oil pan measured: clearance to it is not checked."]);
}

fn swayed(value: &Value) -> SwayResult {
    let job = read(value);
    sway(&job, &Resolved::of(&job))
}
