//! One stance under two names. A vehicle that stands three inches above its ride height, and the same
//! vehicle with that height called its ride height, is one vehicle: every stage tells the same figures.
//! Four arms and a bar are left out: they bind, and are at rest at ride height by definition.

#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;
mod vehicles;

use proptest::prelude::*;
use serde_json::{Value, json};
use vehicles::{Made, reported, typed, vehicle};

fn demo(name: &str) -> Value {
    let text = match name {
        "lookout-truck-7" => include_str!("../../../demo/lookout-truck-7.derecho.json"),
        "supply-truck-9" => include_str!("../../../demo/supply-truck-9.derecho.json"),
        "relay-wagon-5" => include_str!("../../../demo/relay-wagon-5.derecho.json"),
        "relay-van-2" => include_str!("../../../demo/relay-van-2.derecho.json"),
        "water-tender-3" => include_str!("../../../demo/water-tender-3.derecho.json"),
        "patrol-truck-6" => include_str!("../../../demo/patrol-truck-6.derecho.json"),
        other => panic!("no demo {other}"),
    };
    serde_json::from_str(text).unwrap()
}

/// The vehicle with every reading taken as it stands, `offset` above its ride height, and the same with
/// that height for its ride height.
fn two_names(mut value: Value, offset: f64) -> [Value; 2] {
    let rig = value["rig"].as_object_mut().unwrap();
    let mm = |entry: &Value| {
        let typed = entry["text"].as_str().unwrap();
        let unit = if entry["unit"] == "in" { 25.4 } else { 1.0 };
        let mut parts = typed.split(' ').map(|part| match part.split_once('/') {
            Some((over, under)) => over.parse::<f64>().unwrap() / under.parse::<f64>().unwrap(),
            None => part.parse().unwrap(),
        });
        parts.by_ref().sum::<f64>() * unit
    };
    let (bump, droop) = (mm(&rig["bump"]), mm(&rig["droop"]));
    rig.remove("heights");
    rig.remove("driven_height");
    for pointer in ["/hardpoints", "/setups/found/bar"] {
        if let Some(part) = value.pointer_mut(pointer).and_then(Value::as_object_mut) {
            part.remove("height");
        }
    }
    // Readings at heights that are no longer named.
    if let Some(pinion) = value.pointer_mut("/bracket/conversion/pinion").and_then(Value::as_array_mut) {
        pinion.truncate(1);
    }
    for sheet in value["sheets"].as_array_mut().into_iter().flatten() {
        sheet.as_object_mut().unwrap().remove("height");
    }
    let entry = |mm: f64| json!({ "text": format!("{mm:.6}"), "unit": "mm" });
    let mut above = value.clone();
    above["rig"]["heights"] = json!([{ "name": "driven height", "offset": entry(offset) }]);
    above["rig"]["driven_height"] = json!("driven height");
    above["rig"]["bump"] = entry(bump);
    above["rig"]["droop"] = entry(droop);
    // Tightened as it stands: the height has another name in each.
    let tightened = value["hardpoints"].as_object_mut().and_then(|points| points.remove("tightened_height"));
    if tightened.is_some() {
        above["hardpoints"]["tightened_height"] = json!("driven height");
    }
    let mut renamed = value;
    renamed["rig"]["bump"] = entry(bump + offset);
    renamed["rig"]["droop"] = entry(droop - offset);
    [above, renamed]
}

/// Places in the travel and heights of the body: they are counted from ride height.
const COUNTED_FROM_RIDE_HEIGHT: [&str; 30] = [
    "travel_mm",
    "travels_mm",
    "left_mm",
    "right_mm",
    "z_mm",
    "end_mm",
    "ended_at_mm",
    "near_at_mm",
    "violated_at_mm",
    "worst_left_mm",
    "worst_right_mm",
    "worst_at_mm",
    "at_mm",
    "left_wheel_mm",
    "right_wheel_mm",
    "to_straight_at_mm",
    "full_bump_mm",
    "full_droop_mm",
    "offset_mm",
    "body_mm",
    "ends_mm",
    "points_mm",
    "between_mm",
    "worst_points_mm",
    "violated_points_mm",
    "pitman_mm",
    "level_travel_mm",
    "tight_bump_travel_mm",
    "tight_droop_travel_mm",
    "driven_travel_mm",
];
/// What is counted from how joints lie at ride height: bolts are taken to be square to their links there,
/// bushings at rest.
const AT_REST_AT_RIDE_HEIGHT: [&str; 7] =
    ["used", "level", "nearest", "limits", "bind_mm", "worst_tilt_deg", "minds"];
/// Left and right alike: which comes first is chance.
const TIES: [&str; 2] = ["rod", "thing"];
/// Words that name a height or a place.
const PLACES: [&str; 7] = ["bump", "droop", " up", " down", "-travel", "ride height", "driven height"];

fn walk(a: &Value, b: &Value, pointer: &str, apart: &mut Vec<String>) {
    let key = pointer.rsplit('/').next().unwrap_or_default();
    if COUNTED_FROM_RIDE_HEIGHT.contains(&key) || AT_REST_AT_RIDE_HEIGHT.contains(&key) || TIES.contains(&key)
    {
        return;
    }
    match (a, b) {
        (Value::Object(a), Value::Object(b)) => {
            for key in a.keys().chain(b.keys().filter(|key| !a.contains_key(*key))) {
                let of =
                    |object: &serde_json::Map<String, Value>| object.get(key).cloned().unwrap_or_default();
                walk(&of(a), &of(b), &format!("{pointer}/{key}"), apart);
            }
        }
        (Value::Array(a), Value::Array(b)) if a.len() == b.len() => {
            for (index, (a, b)) in a.iter().zip(b).enumerate() {
                walk(a, b, &format!("{pointer}/{index}"), apart);
            }
        }
        (Value::Number(x), Value::Number(y)) => {
            let (x, y) = (x.as_f64().unwrap(), y.as_f64().unwrap());
            // A bent bar rolls with its bushings, whose bolts are square to it at ride height.
            let least = if key == "least_gap_mm" { 0.3 } else { 0.0 };
            if (x - y).abs() > (1e-5 * x.abs().max(y.abs()).max(1.0)).max(least) {
                apart.push(format!("{pointer} {x} {y}"));
            }
        }
        (Value::String(a), Value::String(b)) => {
            if a != b && !PLACES.iter().any(|word| a.contains(word) || b.contains(word)) {
                apart.push(format!("{pointer} {a} {b}"));
            }
        }
        (a, b) if a == b => {}
        _ => apart.push(format!("{pointer} {a} {b}").chars().take(300).collect()),
    }
}

fn same(name: &str, offset: f64) {
    let [above, renamed] = two_names(demo(name), offset);
    let mut apart = Vec::new();
    walk(&reported(&above), &reported(&renamed), "", &mut apart);
    apart.truncate(12);
    assert_eq!(apart, Vec::<String>::new(), "{name} standing {offset} mm above its ride height");
}

#[test]
fn a_front_on_radius_arms() {
    same("lookout-truck-7", 76.2);
    same("lookout-truck-7", -38.1);
}

#[test]
fn a_rear_on_three_arms_with_a_length_set() {
    same("supply-truck-9", -40.0);
    same("supply-truck-9", 55.0);
}

#[test]
fn a_rear_on_a_y_link() {
    same("relay-wagon-5", 50.0);
    same("relay-wagon-5", -35.0);
}

#[test]
fn a_front_on_leaf_springs() {
    same("relay-van-2", 25.0);
    same("relay-van-2", -25.0);
}

/// A driven height below ride height, a bent bar, an eye moved in a round that was read after, tyre rates.
#[test]
fn a_front_with_an_eye_fitted_a_bent_bar_and_tyres_that_give() {
    same("patrol-truck-6", 25.0);
    same("patrol-truck-6", -30.0);
}

/// A random vehicle, which stands above or below its ride height, with that height called its ride height.
fn renamed(made: &Made) -> Value {
    let up = typed(&made.document, "/rig/heights/1/offset");
    let mut renamed = made.document.clone();
    let rig = renamed["rig"].as_object_mut().unwrap();
    rig.remove("heights");
    rig.remove("driven_height");
    for (travel, by) in [("bump", up), ("droop", -up)] {
        rig.insert(travel.to_owned(), vehicles::mm(typed(&made.document, &format!("/rig/{travel}")) + by));
    }
    renamed
}

proptest! {
    #![proptest_config(vehicles::as_many(24))]

    #[test]
    fn any_vehicle_under_either_name(made in vehicle().prop_filter("arms", |made| made.location != "four_arms")) {
        let (mut above, mut renamed) = (reported(&made.document), reported(&renamed(&made)));
        for reported in [&mut above, &mut renamed] {
            // The other height has another distance from it, and its own line.
            reported["solve"]["heights"] = Value::Null;
            reported["plan"]["other_heights"] = Value::Null;
            reported["plan"]["conversion"] = Value::Null;
            for options in reported["plan"]["options"].as_array_mut().into_iter().flatten() {
                options["heights"] = Value::Null;
            }
            for approach in reported["plan"]["approaches"].as_array_mut().into_iter().flatten() {
                approach["option"]["heights"] = Value::Null;
            }
            // Draws are drawn anew for another number of heights.
            reported["uncertainty"] = Value::Null;
            // Where two things end the articulation at nearly one twist, which of them comes out first is decided by
            // rounding, and the bar's rate there with it.
            if let Some(vehicle) = reported["sway"]["vehicle"].as_object_mut() {
                vehicle.remove("choices");
                vehicle.remove("suggests");
            }
        }
        let mut apart = Vec::new();
        walk(&above, &renamed, "", &mut apart);
        apart.truncate(12);
        prop_assert_eq!(apart, Vec::<String>::new());
    }
}
