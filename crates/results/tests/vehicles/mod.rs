//! Random whole vehicles, typed as a person would type them: fronts and rears, frame eye on either side,
//! lifted and lowered, every axle location, sway bars on body and axle, bent bars, tyres that give, driven at
//! another height than ride height, and later rounds with an eye fitted and the length set.

#![allow(dead_code, reason = "shared by test files, each of which uses a part")]

use derecho_job::results::{cycle, plan, sway, uncertainty};
use derecho_job::{Job, check};
use derecho_results::json::value as in_words;
use derecho_results::solve;
use proptest::prelude::*;
use proptest::test_runner::RngSeed;
use serde_json::{Value, json};

/// So many vehicles, the same in every run; others, and as many as one likes, with `DERECHO_VEHICLES=300`.
pub(crate) fn as_many(cases: u32) -> ProptestConfig {
    match option_env!("DERECHO_VEHICLES").and_then(|cases| cases.parse().ok()) {
        Some(cases) => ProptestConfig::with_cases(cases),
        None => ProptestConfig { rng_seed: RngSeed::Fixed(20_261_126), ..ProptestConfig::with_cases(cases) },
    }
}

/// A length as typed in millimetres.
pub(crate) fn mm(value: f64) -> Value {
    json!({ "text": format!("{value:.4}"), "unit": "mm" })
}

/// What was typed at a place, in millimetres.
pub(crate) fn typed(value: &Value, pointer: &str) -> f64 {
    value.pointer(pointer).unwrap()["text"].as_str().unwrap().parse().unwrap()
}

/// The document as a job that the program takes.
pub(crate) fn job(value: &Value) -> Job {
    let job = super::by_name::read(value);
    assert_eq!(check(&job), [], "{value}");
    job
}

/// Everything every stage tells of a job.
pub(crate) fn reported(value: &Value) -> Value {
    let job = job(value);
    json!({
        "solve": in_words(solve(&job)),
        "cycle": in_words(cycle(&job)),
        "plan": in_words(plan(&job)),
        "sway": in_words(sway(&job)),
        "uncertainty": in_words(uncertainty(&job)),
    })
}

fn point(forward: f64, out: f64, up: f64) -> Value {
    json!({ "fore_aft": mm(forward), "sideways": mm(out), "height": mm(up) })
}

fn arm(location: &str, upper: bool, [a, b, c, d]: [f64; 4]) -> Value {
    let legs = location == "y_link" && upper;
    let (length, body_up, axle_up) = if upper {
        (620.0, 650.0, 600.0)
    } else {
        (880.0, 470.0, if location == "radius_arms" { 400.0 } else { 345.0 })
    };
    let out = match (legs, upper) {
        (true, _) => 0.0,
        (false, true) => 290.0 + 10.0 * a,
        (false, false) => 420.0 + 20.0 * a,
    };
    let mut arm = json!({
        "length": mm(length + 40.0 * b),
        "body": { "sideways": mm(360.0 + 15.0 * c), "height": mm(body_up + 25.0 * d) },
        "axle": point(if upper { -10.0 } else { 0.0 }, out, axle_up),
    });
    if location == "radius_arms" {
        arm["bush_spacing"] = mm(160.0);
    }
    arm
}

fn arms(location: &str, shares: &[[f64; 4]; 4]) -> Value {
    // Both legs of a Y-shaped link end in one point.
    let names = ["lower_left", "lower_right", "upper_left", "upper_right"];
    let wanted = match location {
        "leaf_springs" => 0,
        "radius_arms" => 2,
        "three_arms" => 3,
        _ => 4,
    };
    let of = |index: usize| (names[index].to_owned(), arm(location, index > 1, shares[index]));
    Value::Object((0..wanted).map(of).collect())
}

fn sheet(id: &str, off: f64, spreads: [f64; 3], round: u32) -> Value {
    // The half-difference is `off`, to the left, whatever the spread.
    let side = |mean: f64| spreads.map(|spread| mm(mean + spread - spreads.iter().sum::<f64>() / 3.0));
    json!({
        "id": id, "kind": "centring", "method": "frame_to_hub", "sense": "outward", "unit": "mm",
        "resolution": mm(1.0), "left": side(150.0 + off), "right": side(150.0 - off), "round": round,
        "conditions":
            { "on_its_weight": true, "wheels_straight": true, "pressures_equal": true, "leant_on": false },
    })
}

/// How one random vehicle is made up.
#[derive(Clone, Debug)]
pub(crate) struct Made {
    pub(crate) document: Value,
    pub(crate) location: &'static str,
    /// Whether an eye was fitted and read again.
    pub(crate) later: bool,
}

const LOCATIONS: [&str; 5] = ["leaf_springs", "radius_arms", "three_arms", "four_arms", "y_link"];

/// Numbers between −1 and 1.
fn shares<const N: usize>() -> impl Strategy<Value = [f64; N]> {
    prop::collection::vec(-1.0..1.0_f64, N).prop_map(|list| list.try_into().unwrap())
}

/// A random vehicle.
pub(crate) fn vehicle() -> impl Strategy<Value = Made> {
    let choices = (0..5_usize, any::<[bool; 6]>(), 0..3_usize);
    let figures = (shares::<12>(), prop::array::uniform4(shares::<4>()), shares::<3>(), shares::<8>());
    (choices, figures).prop_map(|((location, flags, bar), (body, arms, spreads, later))| {
        made(LOCATIONS[location], flags, ["none", "body", "axle"][bar], &body, &arms, spreads, later)
    })
}

fn made(
    location: &'static str,
    [front, frame_left, steers_left, fitted, bent, tyres]: [bool; 6],
    sway: &str,
    body: &[f64; 12],
    arm_shares: &[[f64; 4]; 4],
    spreads: [f64; 3],
    later: [f64; 8],
) -> Made {
    let has_bar = location != "y_link";
    let side = |left: bool| if left { "left" } else { "right" };
    // The frame eye is usually the higher one; on a lowered vehicle it may be the lower.
    let (axle_eye, rise) = (540.0 + 30.0 * body[0], 60.0 + 110.0 * body[1]);
    let driven = 35.0 * body[2];
    let mut document = json!({
        "format": "derecho-job", "version": 7, "title": "A vehicle",
        "rig": {
            "sheet_unit": "mm", "end": if front { "front" } else { "rear" },
            "steering_side": side(steers_left), "axle_location": location, "lift": mm(90.0 * body[1]),
            "heights": [
                { "name": "empty", "offset": mm(0.0) }, { "name": "as it stands", "offset": mm(driven) },
            ],
            "driven_height": "as it stands", "bump": mm(90.0), "droop": mm(110.0), "track": mm(1560.0),
            "tyre_diameter": mm(800.0), "frame_width": mm(790.0), "axle_height": mm(396.0), "use": "trails",
        },
        "hardpoints": { "arms": arms(location, arm_shares) },
        "vehicle": {
            "left_corner": "610 kg", "right_corner": "640 kg", "unsprung_weight": "190 kg",
            "other_weight": "1300 kg", "wheelbase": mm(2750.0), "centre_of_gravity": mm(770.0),
            "spring_rate": "32 N/mm", "spring_spacing": mm(900.0), "other_spring_rate": "44 N/mm",
            "other_spring_spacing": mm(1060.0), "other_track": mm(1560.0), "other_bump": mm(100.0),
            "other_droop": mm(110.0), "other_roll_centre": mm(500.0), "other_bar": "200 Nm/deg",
        },
        "sheets": [sheet("as-found", 9.0 + 3.0 * body[3], spreads, 0)],
    });
    if tyres {
        document["vehicle"]["tyre_rate"] = json!("260 N/mm");
    }
    if location == "three_arms" {
        document["hardpoints"]["upper_arm_side"] = json!("left");
    }
    if has_bar {
        let rig = document["rig"].as_object_mut().unwrap();
        rig.insert("frame_eye_side".to_owned(), json!(side(frame_left)));
        let length = 850.0 + 60.0 * body[4];
        let length_set = length + 6.0 * body[5];
        document["hardpoints"]["bar"] = json!({
            "axle_eye_fore_aft": mm(30.0 * body[6]), "diameter": mm(32.0),
        });
        if bent {
            document["hardpoints"]["bar"]["bend"] =
                json!({ "from_frame_eye": mm(300.0), "offset": mm(40.0), "towards": "up" });
        }
        document["setups"] = json!({ "found": {
            "bar": {
                "length": mm(length), "frame_eye_height": mm(axle_eye + rise), "axle_eye_height": mm(axle_eye),
                "fore_aft": mm(25.0 * body[7]), "frame_eye_from_centre": mm(400.0 + 20.0 * body[8]),
                "bent": bent,
            },
            "adjuster": {
                "kind": "turnbuckle",
                "first": { "thread": "M24x2", "hand": "right", "engagement": mm(50.0) },
                "second": { "thread": "M24x2", "hand": "left", "engagement": mm(50.0) },
            },
        } });
        document["bracket"] = json!({
            "target": "level_driven",
            "brackets": [{ "name": "riser", "end": "axle", "holes": [
                { "name": "low", "up": mm(40.0), "outward": mm(3.0) }, { "name": "high", "up": mm(80.0) },
            ] }],
            "bars": [{
                "name": "straight bar", "adjuster": "one_end", "made_min": mm(780.0), "made_max": mm(960.0),
                "thread": "M24x2", "hand": "right", "shank": mm(60.0), "tapped_depth": mm(65.0),
                "outside": mm(38.0),
            }],
        });
        if fitted {
            let up = 40.0 + 20.0 * later[0];
            document["setups"]["rounds"] = json!([{
                "length": mm(length_set),
                "moved": [{ "end": "axle", "by_mm": [5.0 * later[1], 4.0 * later[2], up] }],
            }]);
            let sheets = document["sheets"].as_array_mut().unwrap();
            sheets.push(sheet("after-1", -8.0 + 3.0 * later[3], spreads, 1));
        }
        document["hardpoints"]["obstacles"] = json!([{
            "name": "oil pan", "on": "body", "side": "left",
            "from": point(-80.0, 20.0 * body[9], 800.0), "to": point(160.0, 20.0 * body[9], 800.0),
            "thickness": mm(130.0), "room": "engine",
        }]);
    }
    if front {
        document["hardpoints"]["steering"] = json!({
            "pitman_side": side(steers_left), "pitman": point(170.0, 330.0, 610.0 + 20.0 * body[10]),
            "knuckle_side": side(!steers_left), "knuckle": point(170.0, 530.0, 520.0),
            "kingpin_from_centre": mm(690.0), "kingpin_inclination": "8", "caster": "3.5",
        });
    }
    document["sway"] = if sway == "none" {
        json!({ "kind": "none" })
    } else {
        let on_axle = sway == "axle";
        let (axis, far) = if on_axle { (430.0, 640.0) } else { (620.0, 400.0) };
        json!({
            "kind": "one_piece", "on": sway, "forward": false,
            "axis": { "height": mm(axis), "fore_aft": mm(200.0 + 20.0 * later[4]) },
            "holes": [mm(240.0), mm(270.0)], "hole": "hole-1", "eye_from_centre": mm(425.0),
            "link": mm(215.0 + 10.0 * later[5]), "left_longer": mm(4.0 * later[6]), "preload_wanted": true,
            "far_end": { "height": mm(far), "sideways": mm(440.0), "fore_aft": mm(-20.0) },
            "target": "level_driven", "diameter": mm(27.0), "active_length": mm(800.0),
            "link_thread": "M12x1.75", "shock_stroke": mm(240.0),
        })
    };
    Made { document, location, later: fitted && has_bar }
}
