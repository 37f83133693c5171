//! One axle at several heights: where decisions are made, and what holds elsewhere.

#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::measure::{TapeEntry, Unit};
use derecho_job::Results;
use derecho_job::bar::heights::HeightResult;
use derecho_job::document::{HeightId, HeightState, Job};
use derecho_results::solve;
use proptest::prelude::*;

fn mm(value: f64) -> TapeEntry {
    TapeEntry::parse(&format!("{value:.3}"), Unit::Millimetres).unwrap()
}

/// A 3-4-5 bar at the driven height: 500 long, 300 up, so 400 of reach; frame eye left;
/// read 10 mm to the left.
fn job(heights: &[(&str, f64)], driven: &str) -> Job {
    let mut job: Job = serde_json::from_str(
        r#"{"format":"derecho-job","version":3,"title":"Heights",
            "rig":{"frame_eye_side":"left","bump":80,"droop":120},
            "sheets":[{"id":"a","unit":"mm","left":[110,110,110],"right":[90,90,90],
                       "conditions":{"on_its_weight":true}}],
            "setups":{"found":{"bar":{"length":500,"frame_eye_height":700,"axle_eye_height":400}}}}"#,
    )
    .unwrap();
    job.rig.heights = heights
        .iter()
        .map(|(name, offset)| HeightState {
            id: HeightId::new(*name),
            name: (*name).to_owned(),
            offset: mm(*offset),
        })
        .collect();
    job.rig.driven_height = HeightId::new(driven);
    job
}

fn at<'a>(results: &'a Results, name: &str) -> &'a HeightResult {
    results.heights.iter().find(|height| height.name == name).unwrap()
}

#[test]
fn without_names_there_is_ride_height_alone_and_it_is_driven() {
    let results = solve(&job(&[], ""));
    assert_eq!(results.heights.len(), 1);
    assert!(results.heights[0].driven);
    assert_eq!(results.heights[0].name, "ride height");
    assert_eq!(results.heights[0].bump_left_mm.to_mm(), 80.0);
}

#[test]
fn travel_that_remains_follows_the_offset() {
    let results = solve(&job(&[("normal", 0.0), ("raised", 50.0), ("aired out", -60.0)], "normal"));
    let left = |name| (at(&results, name).bump_left_mm.to_mm(), at(&results, name).droop_left_mm.to_mm());
    assert_eq!(left("normal"), (80.0, 120.0));
    assert_eq!(left("raised"), (130.0, 70.0));
    assert_eq!(left("aired out"), (20.0, 180.0));
    assert_eq!(at(&results, "raised").travel_mm.to_mm(), -50.0);
}

#[test]
fn the_bar_at_another_height_is_the_bar_lifted_there() {
    let results = solve(&job(&[("normal", 0.0), ("low", -300.0)], "normal"));
    // 300 lower the bar is level: the reach grows from 400 to 500, so the axle goes 100 away
    // from the frame eye, to the right: 10 − 100 = −90.
    let low = at(&results, "low").found.unwrap();
    assert!(low.angle_deg.to_degrees().abs() < 1e-9);
    assert!(low.lateral_rate.abs() < 1e-12);
    assert!((low.offset_mm.to_mm() + 90.0).abs() < 1e-9);
    let normal = at(&results, "normal").found.unwrap();
    assert!((normal.offset_mm.to_mm() - 10.0).abs() < 1e-9);
    // −s·v/h = −300/400.
    assert!((normal.lateral_rate + 0.75).abs() < 1e-12);
}

#[test]
fn the_plan_is_centred_at_the_driven_height_and_nowhere_else() {
    let results = solve(&job(&[("normal", 0.0), ("raised", 40.0)], "normal"));
    assert!(at(&results, "normal").planned.unwrap().offset_mm.to_mm().abs() < 1e-9);
    assert!(at(&results, "raised").planned.unwrap().offset_mm.to_mm() > 1.0, "towards the frame eye");
}

#[test]
fn the_driven_height_is_where_readings_and_bolt_heights_are_taken_to_be() {
    let low = solve(&job(&[("normal", 0.0), ("loaded", -40.0)], "loaded"));
    let bar = low.bar.as_ref().unwrap();
    // Read as it is driven: the rise is as typed, and the level point is 300 up from there.
    assert_eq!(bar.found.rise_mm.to_mm(), 300.0);
    assert!((bar.level_travel_mm.to_mm() - 340.0).abs() < 1e-9);
    assert_eq!(low.elevation.driven_travel_mm.to_mm(), 40.0);
    assert!((at(&low, "loaded").found.unwrap().offset_mm.to_mm() - 10.0).abs() < 1e-9);
    // Travel left from the driven height is what the swing runs over: 40 bump, 160 droop.
    let reach = |rise: f64| (250_000.0 - rise * rise).sqrt();
    assert!((bar.found_swing.at_full_bump_mm.to_mm() - (400.0 - reach(260.0))).abs() < 1e-9);
    assert!((bar.found_swing.at_full_droop_mm.to_mm() - (400.0 - reach(460.0))).abs() < 1e-9);
}

#[test]
fn a_height_the_bar_does_not_reach_has_no_figures() {
    let results = solve(&job(&[("normal", 0.0), ("sky", 250.0)], "normal"));
    assert!(at(&results, "sky").found.is_none());
    assert!(at(&results, "normal").found.is_some());
}

#[test]
fn bump_and_droop_left_out_are_assumed_and_said() {
    let mut job = job(&[], "");
    job.rig.bump = None;
    job.rig.droop = None;
    let results = solve(&job);
    assert_eq!(results.elevation.full_bump_mm.to_mm(), 75.0);
    assert_eq!(results.elevation.full_droop_mm.to_mm(), -100.0);
    let assumed: Vec<&str> =
        results.assumptions.iter().filter(|a| !a.drawing_only).map(|a| a.pointer.as_str()).collect();
    assert_eq!(assumed, ["/rig/bump", "/rig/droop"]);
}

proptest! {
    #[test]
    fn naming_the_same_height_otherwise_changes_no_decision(offset in -60.0_f64..60.0) {
        // Shifting ride height itself, travel and all, is only another way of counting.
        let plain = job(&[], "");
        let mut named = job(&[("driven", offset)], "driven");
        named.rig.bump = Some(mm(80.0 - offset));
        named.rig.droop = Some(mm(120.0 + offset));
        let (one, other) = (solve(&plain).bar.unwrap(), solve(&named).bar.unwrap());
        prop_assert_eq!(one.found, other.found);
        let (one, other) = (one.correction.unwrap(), other.correction.unwrap());
        prop_assert_eq!(one.recentring, other.recentring);
        let close = |a: derecho_core::measure::Length, b| (a - b).abs().to_mm() < 2e-3;
        prop_assert!(close(one.planned_swing.peak_to_peak_mm, other.planned_swing.peak_to_peak_mm));
    }
}
