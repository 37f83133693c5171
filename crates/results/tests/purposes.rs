//! What is to be done comes first: the stages a job needs follow it, and it is proved by it.
//! Figures are worked by hand: eight readings of 6 1/2 and 5 1/2 in stand half an inch apart on each side of their
//! middle, so that the axle sits 1/2 in to the left.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::sound as job;
use derecho_core::measure::Unit;
use derecho_job::Results;
use derecho_job::cautions::Stage;
use derecho_job::prove::ProveVerdict;
use derecho_job::verdict::FitVerdict;
use derecho_results::{settle, solve};
use derecho_words::Spoken as _;
use proptest::prelude::*;
use serde_json::{Value, json};

const PURPOSES: [&str; 8] = [
    "centre_axle",
    "level_bar",
    "clear_something",
    "fit_sway_links",
    "choose_sway_bar",
    "convert_to_y_link",
    "swap_bar",
    "check_work",
];

fn solved(value: &Value) -> Results {
    solve(&job(value))
}

/// The stages that are shown.
fn needed(value: &Value) -> Vec<Stage> {
    solved(value).stages.into_iter().filter(|stage| stage.needed).map(|stage| stage.stage).collect()
}

fn bare(to_do: &[&str]) -> Value {
    json!({ "format": "derecho-job", "version": 7, "title": "Hose truck 5", "to_do": to_do,
        "rig": { "end": "front", "steering_side": "left", "frame_eye_side": "left" } })
}

fn sheet(left: &str, right: &str, round: u32) -> Value {
    json!({ "id": format!("sheet {round}"), "unit": "in", "round": round, "left": [left, left, left, left],
        "right": [right, right, right, right], "conditions": { "on_its_weight": true } })
}

/// A front on leaf springs that was read, its bar measured, its axle `off` to the left by half of the difference.
fn read(to_do: &[&str], left: &str, right: &str) -> Value {
    let mut value = bare(to_do);
    value["rig"]["axle_location"] = json!("leaf_springs");
    value["sheets"] = json!([sheet(left, right, 0)]);
    value["setups"]["found"]["bar"] =
        json!({ "length": "32 in", "frame_eye_height": "27 in", "axle_eye_height": "21 in" });
    value
}

#[test]
fn a_job_nobody_said_it_of_shows_every_stage() {
    assert_eq!(needed(&bare(&[])).len(), 8);
}

#[test]
fn each_work_shows_its_own_stages_and_no_more() {
    use Stage::{Bar, BoltUp, Bracket, Cycle, Prove, Rig, Sway, Tape};
    for (purpose, stages) in [
        ("centre_axle", vec![Rig, Tape, Bar, BoltUp, Prove]),
        ("level_bar", vec![Rig, Tape, Bar, Bracket, BoltUp, Prove]),
        ("clear_something", vec![Rig, Tape, Bar, Bracket, Cycle, BoltUp, Prove]),
        ("fit_sway_links", vec![Rig, Sway, BoltUp, Prove]),
        ("choose_sway_bar", vec![Rig, Sway, BoltUp, Prove]),
        ("convert_to_y_link", vec![Rig, Tape, Bracket, Cycle, BoltUp, Prove]),
        ("swap_bar", vec![Rig, Tape, Bar, BoltUp, Prove]),
        ("check_work", vec![Rig, Tape, Bar, Cycle, BoltUp, Prove]),
    ] {
        assert_eq!(needed(&bare(&[purpose])), stages, "{purpose}");
    }
}

#[test]
fn a_stage_that_holds_something_is_never_put_out_of_sight() {
    let mut value = bare(&["fit_sway_links"]);
    value["sheets"] = json!([sheet("6 in", "6 in", 0)]);
    assert!(needed(&value).contains(&Stage::Tape));
    value["setups"]["found"]["bar"] = json!({ "length": "32 in" });
    assert!(needed(&value).contains(&Stage::Bar));
    value["hardpoints"] = json!({ "bar": { "diameter": "1 1/4 in" } });
    assert!(needed(&value).contains(&Stage::Cycle));
    value["bracket"] = json!({ "ear_width": "2 5/8 in" });
    assert_eq!(needed(&value).len(), 8);
    let mut axle = bare(&["centre_axle"]);
    axle["sway"] = json!({ "kind": "one_piece" });
    assert!(needed(&axle).contains(&Stage::Sway));
}

proptest! {
    #[test]
    fn more_work_never_takes_a_stage_away(first in prop::sample::subsequence(PURPOSES.to_vec(), 1..=4),
        second in prop::sample::subsequence(PURPOSES.to_vec(), 1..=4)) {
        let both: Vec<&str> = first.iter().chain(&second).copied().collect();
        let (alone, together) = (needed(&bare(&first)), needed(&bare(&both)));
        prop_assert!(alone.iter().all(|stage| together.contains(stage)));
        // Every work is begun in Rig, done in Bolt-up and ended in Prove.
        for stage in [Stage::Rig, Stage::BoltUp, Stage::Prove] {
            prop_assert!(alone.contains(&stage));
        }
        let mut all = bare(&first);
        all["all_stages"] = json!(true);
        prop_assert_eq!(needed(&all).len(), 8);
    }
}

// Proved by what is to be done.

#[test]
fn somebodys_work_is_proved_by_the_readings_as_found() {
    // Without the purpose an axle that is off has nothing to prove: nothing was set.
    assert!(solved(&read(&["centre_axle"], "6 1/2 in", "5 1/2 in")).prove.is_none());
    let off = solved(&read(&["check_work"], "6 1/2 in", "5 1/2 in"));
    let proof = off.prove.unwrap();
    assert_eq!(proof.verdict, ProveVerdict::BackToBar);
    assert_eq!(proof.says.in_unit(Unit::Inches), "The axle is 1/2\" to the left");
    assert!(proof.advice.in_unit(Unit::Inches).ends_with("The Bar screen gives the length that centers it."));
    let holds = read(&["check_work"], "6 in", "6 in");
    let proof = solved(&holds).prove.unwrap();
    assert_eq!(proof.verdict, ProveVerdict::CanSettle);
    assert!(proof.says.in_unit(Unit::Millimetres).starts_with("The work is good: centered within"));
    // Something set since then is proved as any setting is.
    let mut set = read(&["check_work"], "6 1/2 in", "5 1/2 in");
    set["setups"]["rounds"] = json!([{ "length": "32 1/2 in" }]);
    assert!(solved(&set).prove.is_none());
    set["sheets"].as_array_mut().unwrap().push(sheet("6 in", "6 in", 1));
    let proof = solved(&set).prove.unwrap();
    assert!(proof.says.in_unit(Unit::Inches).starts_with("Proved: centered"));
    assert!(proof.movement.is_some());
}

/// A sway bar with a link of so much: arms of 10 in level at ride height, the far end 8 in under their eyes.
fn with_sway(value: &mut Value, link: &str) {
    value["rig"]["bump"] = json!("3 in");
    value["rig"]["droop"] = json!("3 in");
    value["sway"] = json!({ "kind": "one_piece", "on": "body", "holes": ["10 in"], "link": link,
        "eye_from_centre": "17 in", "axis": { "height": "26 in", "fore_aft": "10 in" },
        "far_end": { "height": "18 in", "fore_aft": "0 in", "sideways": "17 in" } });
}

#[test]
fn links_alone_are_proved_by_the_links_whatever_the_axle_does() {
    let mut value = read(&["fit_sway_links"], "6 1/2 in", "5 1/2 in");
    with_sway(&mut value, "8 in");
    let proof = solved(&value).prove.unwrap();
    assert_eq!(proof.verdict, ProveVerdict::CanSettle);
    assert!(proof.after.is_none(), "the axle's readings prove nothing of a link");
    with_sway(&mut value, "2 in");
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::BackToSway);
    // Where the axle was to be centred as well, the axle comes first.
    value["to_do"] = json!(["centre_axle", "fit_sway_links"]);
    assert!(solved(&value).prove.is_none(), "it is off, and nothing was set");
}

#[test]
fn an_axle_that_is_centred_is_not_done_before_its_links_are() {
    let mut value = read(&["centre_axle", "fit_sway_links"], "6 in", "6 in");
    let open = solved(&value).prove.unwrap();
    assert_eq!(open.verdict, ProveVerdict::BackToSway);
    assert_eq!(open.says.in_unit(Unit::Inches), "Centered, but the sway links are not measured yet");
    assert!(open.grounds.iter().any(|ground| ground.verdict == FitVerdict::Open));
    assert!(settle(&job(&value), "2026-11-02T09:00:00Z".parse().unwrap()).is_none());
    with_sway(&mut value, "8 in");
    let done = solved(&value).prove.unwrap();
    assert_eq!(done.verdict, ProveVerdict::CanSettle);
    assert_eq!(done.grounds.len(), 2);
    assert!(done.grounds.iter().all(|ground| ground.verdict == FitVerdict::Good));
    with_sway(&mut value, "2 in");
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::BackToSway);
    // A vehicle without a sway bar asks for no links.
    value["sway"] = json!({ "kind": "none" });
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::CanSettle);
}

#[test]
fn what_was_to_come_clear_has_to_be_clear() {
    let mut value = read(&["centre_axle", "clear_something"], "6 in", "6 in");
    // Nothing that could touch was measured: told, and no reason to stop.
    let open = solved(&value).prove.unwrap();
    assert_eq!(open.verdict, ProveVerdict::CanSettle);
    assert!(open.grounds.iter().any(|ground| ground.verdict == FitVerdict::Open));
    // The bar lies between 27 and 21 in: a rod through its middle, at 24 in, is touched as it stands.
    let rod = |height: &str| {
        json!({ "obstacles": [{ "name": "oil pan", "on": "body", "side": "left", "thickness": "2 in",
            "from": { "height": height, "sideways": "0 in", "fore_aft": "-6 in" },
            "to": { "height": height, "sideways": "0 in", "fore_aft": "12 in" } }] })
    };
    value["hardpoints"] = rod("24 in");
    let touches = solved(&value).prove.unwrap();
    assert_eq!(touches.verdict, ProveVerdict::BackToCycle);
    assert!(touches.advice.in_unit(Unit::Inches).starts_with("See the Cycle screen: "));
    assert_eq!(touches.after.unwrap().offset_mm.to_mm(), 0.0, "it is centred all the same");
    value["to_do"] = json!(["centre_axle"]);
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::CanSettle, "nobody asked for that");
    // Twelve inches higher nothing comes near it.
    value["to_do"] = json!(["centre_axle", "clear_something"]);
    value["hardpoints"] = rod("40 in");
    let clear = solved(&value).prove.unwrap();
    assert_eq!(clear.verdict, ProveVerdict::CanSettle);
    assert!(clear.grounds.iter().all(|ground| ground.verdict == FitVerdict::Good), "{:?}", clear.grounds);
}

/// Carried through by hand: a rear in millimetres whose swing is a hair under its limit, a front in inches that is
/// driven above ride height and touches before it comes down to it.
#[test]
fn two_figures_that_are_reported_to_differ_are_never_printed_alike() {
    let mut value = read(&["check_work"], "6 1/2 in", "5 1/2 in");
    value["rig"]["bump"] = json!("80 mm");
    value["rig"]["droop"] = json!("110 mm");
    value["setups"]["found"]["bar"] =
        json!({ "length": "812 mm", "frame_eye_height": "520 mm", "axle_eye_height": "455 mm" });
    let need = |value: &Value| solved(value).bar.unwrap().need;
    let swing = need(&value).facts.swing_mm.to_mm();
    for (limit, word) in [(swing + 0.11, "under"), (swing - 0.11, "more than")] {
        value["bracket"] = json!({ "swing_limit": format!("{limit:.2} mm"), "steep_from": "20" });
        let says = need(&value).says.in_unit(Unit::Millimetres).to_owned();
        let (before, after) = says.rsplit_once(&format!("{word} ")).unwrap_or_else(|| panic!("{says}"));
        let moved = if word == "under" { before.rsplit(", and ").next().unwrap() } else { before };
        let moved = moved.split_once("moves the axle ").map_or(moved, |(_, moved)| moved);
        let reported = moved.split(" of side").next().unwrap().split(" side").next().unwrap();
        assert!(reported.ends_with(" mm") && after.contains(" mm"), "{says}");
        assert!(!says.contains(&format!("{word} {reported}")), "{says}");
    }
}

#[test]
fn what_touches_above_ride_height_is_reported_as_droop_also_on_the_way_to_bump() {
    let mut value = read(&["clear_something"], "6 in", "6 in");
    value["rig"]["heights"] =
        json!([{ "name": "road", "offset": "0 in" }, { "name": "raised", "offset": "2 in" }]);
    value["rig"]["driven_height"] = json!("raised");
    value["sheets"][0]["height"] = json!("raised");
    value["setups"]["found"]["bar"]["height"] = json!("raised");
    value["rig"]["bump"] = json!("3 in");
    value["rig"]["droop"] = json!("4 in");
    // The bar lies between 27 and 21 in as it is driven; on the axle a rod an inch over its middle comes to meet it.
    value["hardpoints"] = json!({ "obstacles": [{ "name": "shaft", "on": "axle", "side": "left", "thickness": "1 in",
        "from": { "height": "22 1/4 in", "sideways": "0 in", "fore_aft": "-6 in" },
        "to": { "height": "22 1/4 in", "sideways": "0 in", "fore_aft": "12 in" } }] });
    let results = solved(&value);
    let strip = results.stages.iter().find(|stage| stage.stage == Stage::Cycle).unwrap();
    let cycled = derecho_results::cycle(&job(&value));
    let bump = cycled.found.unwrap().ways.into_iter().find(|way| way.way == "bump").unwrap();
    let ended = bump.ended_at_mm.expect("it touches on the way up")[0].to_mm();
    let reported = strip.headline.in_unit(Unit::Inches);
    let word = if ended < 0.0 { "droop" } else { "bump" };
    assert!(reported.starts_with("hits ") && reported.ends_with(word), "{reported}, ended at {ended}");
    assert!(bump.says.in_unit(Unit::Inches).ends_with(word), "{}", bump.says.in_unit(Unit::Inches));
    assert!(ended < 0.0, "it is to touch above ride height: {ended}");
}
