//! Hole and link by build stage, each against the vehicle as it stands or a form worked by hand.
#![allow(
    clippy::unwrap_used,
    clippy::expect_used,
    reason = "a test that unwraps nothing fails, as it should"
)]

mod by_name;
mod vehicles;

use derecho_job::sway::{BuildStageResult, SwayResult};
use derecho_results::{cycle, solve, sway};
use derecho_words::Spoken;
use serde_json::{Value, json};
use vehicles::job;

const G: f64 = 9.806_65;

fn demo(text: &str) -> Value {
    serde_json::from_str(text).expect("a demo job is JSON")
}

/// A rear axle with arms of 320 mm and upright links, its springs, weights and roof told.
fn wagon(stages: Value) -> Value {
    let mut value = demo(include_str!("../../../demo/relay-wagon-5.derecho.json"));
    value["sway"]["far_end"]["sideways"] = json!("420 mm");
    value["sway"]["far_end"]["fore_aft"] = json!("10 mm");
    value["sway"]["build_stages"] = stages;
    value["sway"]["bush_kind"] = json!("bearing");
    value["vehicle"]["other_sway_bar"] = json!({ "there": false });
    value["vehicle"]["centre_of_gravity"] = json!("900 mm");
    value["vehicle"]["roof_height"] = json!("2000 mm");
    value["vehicle"]["roof_load"] = json!("20 kg");
    value
}

fn swayed(value: &Value) -> SwayResult {
    sway(&job(value))
}

fn rows(stages: Value) -> Vec<BuildStageResult> {
    swayed(&wagon(stages)).build_stages
}

#[test]
fn without_a_stage_there_is_no_table() {
    assert_eq!(rows(json!([])), []);
}

#[test]
fn the_vehicle_as_it_is_stands_first_and_is_the_hole_in_use() {
    let result = swayed(&wagon(json!([{ "name": "as it is" }])));
    let (now, in_use) = (&result.build_stages[0], result.holes.iter().find(|hole| hole.in_use).unwrap());
    assert_eq!(
        (now.hole.clone(), now.link_mm),
        (Some(in_use.id.clone()), result.links.as_ref().map(|links| links.link_mm))
    );
    let (road, holes) = (now.road_deg_per_g.unwrap(), in_use.road_deg_per_g.unwrap());
    assert!((road - holes).abs() < 1e-6, "{road} {holes}");
    // A stage that changes nothing differs by its link alone: the one that aims the arms.
    let aimed = result.links.unwrap().targets.into_iter().find(|target| target.chosen).unwrap();
    assert_eq!(result.build_stages[1].link_mm, Some(aimed.link_mm));
}

/// With level arms and upright links the far end goes down by what the body goes up, and the link with it.
#[test]
fn a_lift_makes_the_link_longer_by_as_much() {
    let rows = rows(
        json!([{ "name": "as it is" }, { "name": "lift", "raised": "40 mm" }, { "name": "drop", "raised": "-20 mm" }]),
    );
    let link = |row: usize| rows[row].link_mm.unwrap().to_mm();
    // The axle swings fore and aft on its arms as it goes down: the link leans by little more.
    assert!((link(2) - link(1) - 40.0).abs() < 2.0, "{}", link(2) - link(1));
    assert!((link(3) - link(1) + 20.0).abs() < 2.0, "{}", link(3) - link(1));
}

/// R = M / (K − M): a load on the roof adds m·g·h to M and nothing to K.
#[test]
fn a_tent_rolls_it_further_by_its_own_moment() {
    let result = swayed(&wagon(json!([{ "name": "tent", "roof_load": "100 kg" }])));
    let vehicle = result.vehicle.as_ref().unwrap();
    let k = vehicle.springs_nm_per_rad + vehicle.other_nm_per_rad;
    let axis = 0.900 - vehicle.lever_mm.to_mm() / 1000.0;
    let m = vehicle.overturning_nm + 80.0 * G * (2.000 - axis);
    let row = &result.build_stages[1];
    // The bar in that hole with that link is found from the row without the tent.
    let alone = &rows(json!([{ "name": "as it is" }]))[1];
    let bar = vehicle.overturning_nm * (1.0 + 1.0 / alone.road_deg_per_g.unwrap().to_radians()) - k;
    let expected = (m / (k + bar - m)).to_degrees();
    assert_eq!(row.hole, alone.hole);
    assert!((row.road_deg_per_g.unwrap() - expected).abs() < 0.01, "{:?} {expected}", row.road_deg_per_g);
}

/// The softest hole that rolls no more than is wanted, and the stiffest where none holds it.
#[test]
fn the_hole_is_the_softest_that_is_enough() {
    let mut value = wagon(json!([{ "name": "light" }, { "name": "tent", "roof_load": "300 kg" }]));
    value["rig"]["use"] = json!("crawling");
    // Ahead of the axle, where each of its holes has a link that works.
    value["sway"]["axis"]["fore_aft"] = json!("330 mm");
    value["sway"]["forward"] = json!(false);
    value["sway"]["holes"] = json!([{ "id": "long", "arm": "320 mm" }, { "id": "mid", "arm": "290 mm" }, { "id": "short", "arm": "260 mm" }]);
    value["sway"]["hole"] = json!("long");
    let result = swayed(&value);
    let light = &result.build_stages[1];
    let by_hole: Vec<(String, f64)> = result
        .holes
        .iter()
        .filter_map(|hole| Some((hole.id.as_str().to_owned(), hole.road_deg_per_g?)))
        .collect();
    // 7 degrees per g suit crawling: the first of the long to short arms that is within it, else the last.
    let wanted = by_hole.iter().find(|(_, road)| *road <= 7.0).unwrap_or(by_hole.last().unwrap());
    assert_eq!(light.hole.as_ref().unwrap().as_str(), wanted.0);
    let heavy = &result.build_stages[2];
    let arm = |row: &BuildStageResult| {
        result.holes.iter().find(|hole| Some(&hole.id) == row.hole.as_ref()).unwrap().arm_mm
    };
    assert!(arm(heavy) <= arm(light));
    assert_eq!(heavy.enough, heavy.road_deg_per_g.is_some_and(|road| road <= 7.0));
    assert_eq!(heavy.says.inches().contains("that suits its use"), !heavy.enough);
}

/// The pitman end goes up with the body: its height over the knuckle grows by the lift.
#[test]
fn the_drag_link_leans_by_the_lift() {
    let mut value = demo(include_str!("../../../demo/lookout-truck-7.derecho.json"));
    value["sway"]["build_stages"] = json!([{ "name": "lift", "raised": "30 mm" }]);
    let (rows, cycled) = (swayed(&value).build_stages, cycle(&job(&value)));
    let steering =
        cycled.plan.as_ref().or(cycled.found.as_ref()).and_then(|setup| setup.steering.clone()).unwrap();
    let angle = |row: usize| rows[row].drag_link_deg.unwrap();
    let (told, there) = (angle(0).to_degrees(), steering.drag_link_angle_deg.to_degrees());
    assert!((told - there).abs() < 0.01, "{told} {there}");
    // The same vehicle that is driven 30 mm higher, as stage Cycle poses it.
    let heights = value["rig"]["heights"].as_array_mut().unwrap();
    heights.push(json!({ "id": "high", "name": "high", "offset": "30 mm" }));
    value["hardpoints"]["height"] = json!("empty");
    value["rig"]["driven_height"] = json!("high");
    let higher = cycle(&job(&value)).found.and_then(|setup| setup.steering).unwrap();
    let (told, there) = (angle(1).to_degrees(), higher.drag_link_angle_deg.to_degrees());
    assert!(
        (told - there).abs() < 0.3 && told > angle(0).to_degrees() + 1.0,
        "{told} {there} {}",
        angle(0).to_degrees()
    );
    assert!(rows[1].says.inches().contains("drag link at"));
}

/// In the log a hole is called as a person finds it: the shorter of two arms is the stiff end.
#[test]
fn the_log_names_the_hole_by_its_number() {
    let mut value = wagon(json!([]));
    let hole = value["sway"]["holes"][1]["id"].clone();
    value["setups"]["rounds"] = json!([{ "id": "r1", "sway_hole": hole }]);
    let told = derecho_results::log(&job(&value));
    let line = told.iter().find(|entry| entry.says.millimetres.contains("hole 2 of 2")).unwrap();
    assert!(
        line.says.millimetres.contains("counted from the stiff end, 350 mm"),
        "{}",
        line.says.millimetres
    );
}

/// A closed job's paper names the hole and the link for the next stage.
#[test]
fn the_next_time_is_told_with_the_record() {
    let value = wagon(json!([{ "name": "next lift", "raised": "2 in" }]));
    let told = solve(&job(&value)).settling.next_time;
    let line = told.iter().find(|line| line.inches().starts_with("Next lift: ")).unwrap();
    assert!(line.inches().contains("sway link"), "{}", line.inches());
}
