//! A truck on a hoist, measured from its frame rail and its axle: the same vehicle as measured from the floor on its wheels.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::sound as job;
use derecho_job::results::Everything;
use derecho_results::everything;
use serde_json::{Value, json};

/// Bottom of the rails above the floor, in, and the axle's centre.
const RAIL: f64 = 26.0;
const AXLE: f64 = 16.125;

fn inches(entry: &Value) -> f64 {
    let text = entry["text"].as_str().unwrap();
    let mut sum = 0.0;
    for part in text.split(' ') {
        sum += match part.split_once('/') {
            Some((above, below)) => above.parse::<f64>().unwrap() / below.parse::<f64>().unwrap(),
            None => part.parse::<f64>().unwrap(),
        };
    }
    sum
}

/// Every height below a pointer, from what it is fixed to.
fn from_the_vehicle(point: &mut Value, datum: f64) {
    if let Some(height) = point.get("height").cloned() {
        point["height"] = json!(format!("{:.4} in", inches(&height) - datum));
    }
}

fn demo() -> Value {
    let mut value: Value =
        serde_json::from_str(include_str!("../../../demo/lookout-truck-7.derecho.json")).unwrap();
    value["sway"]["room"]["rail_underside"] = json!(format!("{RAIL} in"));
    value
}

fn on_a_hoist() -> Value {
    let mut value = demo();
    value["rig"]["heights_from"] = json!("rail_and_axle");
    let bar = &mut value["setups"]["found"]["bar"];
    for (field, datum) in [("frame_eye_height", RAIL), ("axle_eye_height", AXLE)] {
        bar[field] = json!(format!("{:.4} in", inches(&bar[field].clone()) - datum));
    }
    for arm in ["lower_left", "lower_right"] {
        let arm = &mut value["hardpoints"]["arms"][arm];
        from_the_vehicle(&mut arm["body"], RAIL);
        from_the_vehicle(&mut arm["axle"], AXLE);
    }
    let steering = &mut value["hardpoints"]["steering"];
    from_the_vehicle(&mut steering["pitman"], RAIL);
    from_the_vehicle(&mut steering["knuckle"], AXLE);
    for obstacle in value["hardpoints"]["obstacles"].as_array_mut().unwrap() {
        for end in ["from", "to"] {
            from_the_vehicle(&mut obstacle[end], RAIL);
        }
    }
    from_the_vehicle(&mut value["sway"]["axis"], RAIL);
    from_the_vehicle(&mut value["sway"]["far_end"], AXLE);
    value
}

/// Bar, poses and sway links of both, to a hundredth of a millimetre.
fn same(one: &Everything, other: &Everything) {
    let bars = [one, other].map(|all| all.results.bar.as_ref().unwrap().found.rise_mm.to_mm());
    assert!((bars[0] - bars[1]).abs() < 0.01, "{bars:?}");
    let [first, second] = [one, other].map(|all| all.cycle.found.as_ref().unwrap());
    assert_eq!(first.heave.len(), second.heave.len());
    for (a, b) in first.heave.iter().zip(&second.heave) {
        assert!((a.x_mm - b.x_mm).abs().to_mm() < 0.01 && (a.y_mm - b.y_mm).abs().to_mm() < 0.01);
        for (a, b) in a.limits.iter().zip(&b.limits) {
            assert!((a - b).abs() < 0.02, "{a} {b}");
        }
    }
    let links = [one, other].map(|all| all.sway.links.as_ref().unwrap().targets[0].link_mm.to_mm());
    assert!((links[0] - links[1]).abs() < 0.01, "{links:?}");
}

#[test]
fn heights_from_the_rail_and_the_axle_are_the_same_vehicle() {
    same(&everything(&job(&demo())), &everything(&job(&on_a_hoist())));
}

/// Driven 1 1/4 in lower, and measured there: the rail stands lower by as much, and nothing from it changes.
#[test]
fn measured_at_the_driven_height_it_is_the_same_too() {
    let lower = |mut value: Value, floor: bool| {
        value["rig"]["driven_height"] = json!("water tank full");
        value["sway"]["room"]["rail_underside"] = json!(format!("{} in", RAIL - 1.25));
        if floor {
            let mut down = |pointer: &str| {
                let height = value.pointer_mut(pointer).unwrap();
                *height = json!(format!("{:.4} in", inches(height) - 1.25));
            };
            down("/setups/found/bar/frame_eye_height");
            for place in ["arms/lower_left/body", "arms/lower_right/body", "steering/pitman"] {
                down(&format!("/hardpoints/{place}/height"));
            }
            for obstacle in [0, 1] {
                down(&format!("/hardpoints/obstacles/{obstacle}/from/height"));
                down(&format!("/hardpoints/obstacles/{obstacle}/to/height"));
            }
            down("/sway/axis/height");
        }
        everything(&job(&value))
    };
    same(&lower(demo(), true), &lower(on_a_hoist(), false));
}

/// A point on the axle 16 1/4 in out of its middle is 14 3/4 in inward of a hub face where the faces are 62 in apart.
#[test]
fn an_axle_point_is_measured_from_its_hub_face() {
    let mut value = demo();
    for arm in ["lower_left", "lower_right"] {
        let axle = &mut value["hardpoints"]["arms"][arm]["axle"];
        axle["sideways"] = json!("14 3/4 in");
        axle["sideways_from"] = json!("hub_face");
    }
    let unknown = everything(&job(&value));
    assert_eq!(unknown.cycle.missing.len(), 1, "asked once: {:?}", unknown.cycle.missing);
    assert!(
        unknown.cycle.missing.iter().any(|fault| fault.pointer == "/rig/hub_faces"),
        "{:?}",
        unknown.cycle.missing
    );
    value["rig"]["hub_faces"] = json!("62 in");
    same(&everything(&job(&demo())), &everything(&job(&value)));
}

/// Without the rail's own height nothing is drawn from it, and that is what is asked.
#[test]
fn the_rails_own_height_is_asked_for() {
    let mut value = on_a_hoist();
    value["sway"]["room"].as_object_mut().unwrap().remove("rail_underside");
    let all = everything(&job(&value));
    assert!(all.results.bar.is_none());
    for missing in [&all.results.bar_missing, &all.cycle.missing, &all.sway.missing] {
        assert!(missing.iter().any(|fault| fault.pointer == "/sway/room/rail_underside"), "{missing:?}");
    }
    // On the floor nothing is below it; from the rail much is.
    let mut floor = demo();
    floor["hardpoints"]["steering"]["knuckle"]["height"] = json!("-1 in");
    let faults = derecho_job::check(&serde_json::from_value(by_name::with_ids(&floor)).unwrap());
    assert!(faults.iter().any(|fault| fault.pointer == "/hardpoints/steering/knuckle/height"), "{faults:?}");
}
