//! Random whole vehicles: closed forms, the other unit system, the mirror image and another name for the same
//! stance agree in every stage.

#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;
mod vehicles;

use proptest::prelude::*;
use serde_json::{Map, Value, json};
use vehicles::{Made, reported, typed, vehicle};

const CASES: u32 = 16;

fn number(reported: &Value, pointer: &str) -> Option<f64> {
    reported.pointer(pointer).and_then(Value::as_f64)
}

/// The bar in front view as it stands now, from what was typed alone.
struct ByHand {
    /// + where the frame eye is on the left.
    s: f64,
    length: f64,
    rise: f64,
    fore_aft: f64,
    /// The axle's offset to the left.
    off: f64,
}

impl ByHand {
    fn of(made: &Made) -> Self {
        let document = &made.document;
        let bar = |field: &str| typed(document, &format!("/setups/found/bar/{field}"));
        let mut hand = Self {
            s: if document["rig"]["frame_eye_side"] == "left" { 1.0 } else { -1.0 },
            length: bar("length"),
            rise: bar("frame_eye_height") - bar("axle_eye_height"),
            fore_aft: bar("fore_aft"),
            off: 0.0,
        };
        let mut sheet = 0;
        if made.later {
            let round = &document["setups"]["rounds"][0];
            let by: Vec<f64> = round["moved"][0]["by_mm"]
                .as_array()
                .unwrap()
                .iter()
                .map(|by| by.as_f64().unwrap())
                .collect();
            (hand.length, sheet) = (typed(document, "/setups/rounds/0/length"), 1);
            // The axle eye went up and forward: the frame eye is less above and less ahead of it.
            hand.rise -= by[2];
            hand.fore_aft -= by[0];
        }
        let mean = |side: &str| {
            (0..3).map(|index| typed(document, &format!("/sheets/{sheet}/{side}/{index}"))).sum::<f64>() / 3.0
        };
        hand.off = (mean("left") - mean("right")) / 2.0;
        hand
    }

    fn reach_at(&self, rise: f64) -> f64 {
        (self.length.powi(2) - rise.powi(2) - self.fore_aft.powi(2)).sqrt()
    }

    fn reach(&self) -> f64 {
        self.reach_at(self.rise)
    }

    /// Offset with the axle `bump` up from where it stands.
    fn off_at(&self, bump: f64) -> f64 {
        self.off + self.s * (self.reach() - self.reach_at(self.rise - bump))
    }

    /// Length that centres it.
    fn wanted(&self) -> f64 {
        let reach = self.reach() + self.s * self.off;
        (reach.powi(2) + self.rise.powi(2) + self.fore_aft.powi(2)).sqrt()
    }
}

fn close(a: f64, b: f64, within: f64) -> bool {
    (a - b).abs() <= within
}

/// The value of a column at a travel, straight between two of its samples.
fn between(samples: &[Value], at: f64, key: &str, travel: &str) -> f64 {
    let place = |sample: &Value| sample[travel].as_f64().unwrap();
    let after = samples.iter().position(|sample| place(sample) >= at).unwrap().max(1);
    let (from, to) = (&samples[after - 1], &samples[after]);
    let share = (at - place(from)) / (place(to) - place(from));
    let of = |sample: &Value| sample[key].as_f64().unwrap();
    of(from) + (of(to) - of(from)) * share
}

proptest! {
    #![proptest_config(vehicles::as_many(3 * CASES))]

    /// What is told of the bar, from what was typed, by hand; and the pose solver puts the axle there.
    #[test]
    fn the_bar_is_as_by_hand(made in vehicle().prop_filter("a bar", |made| made.location != "y_link")) {
        let hand = ByHand::of(&made);
        let reported = reported(&made.document);
        let solve = &reported["solve"];
        let of = |pointer: &str| number(solve, pointer).unwrap_or_else(|| panic!("{pointer}: {solve}"));
        prop_assert!(close(of("/bar/found/length_mm"), hand.length, 1e-3));
        prop_assert!(close(of("/bar/found/rise_mm"), hand.rise, 1e-3));
        prop_assert!(close(of("/bar/found/reach_mm"), hand.reach(), 1e-3));
        // atan2(v, h), and −s·v/h: to the left for each millimetre of bump.
        let angle = hand.rise.atan2(hand.reach()).to_degrees();
        prop_assert!(close(of("/bar/found/angle_deg"), angle, 1e-4));
        prop_assert!(close(of("/bar/found/lateral_rate"), -hand.s * hand.rise / hand.reach(), 1e-5));
        prop_assert!(close(of("/bar/correction/basis/offset_mm"), hand.off, 2e-3));
        prop_assert!(close(of("/bar/correction/length_mm"), hand.wanted(), 5e-3));
        // Every height: the offset is what the arc of the bar makes of it.
        for height in solve["heights"].as_array().unwrap() {
            let driven = typed(&made.document, "/rig/heights/1/offset");
            let up = height["offset_mm"].as_f64().unwrap() - driven;
            prop_assert!(close(height["found"]["offset_mm"].as_f64().unwrap(), hand.off_at(-up), 5e-3));
        }
        // Stage Bracket's exact riser levels it where it stands: as much as the frame eye is higher.
        if let Some(riser) = number(&reported, "/plan/exact_mm") {
            prop_assert!(close(riser, hand.rise, 1e-2), "{riser} {}", hand.rise);
        }
        // Stage Cycle, by its own way: where the axle was read, and centred with the length wanted.
        let stands = -typed(&made.document, "/rig/heights/1/offset");
        let cycle = &reported["cycle"];
        let heave = |setup: &str| cycle[setup]["heave"].as_array().unwrap_or_else(|| panic!("{cycle}"));
        let bound = made.location == "four_arms";
        // The arms take the axle a little fore and aft as it is centred, which the front view leaves out.
        let within = if bound { 0.6 } else { 0.2 };
        for (setup, wanted) in [("found", hand.off), ("plan", 0.0)] {
            let y = between(heave(setup), stands, "y_mm", "z_mm");
            prop_assert!(close(y, wanted, within), "{setup} {}: {y} for {wanted}", made.location);
        }
        if made.location == "leaf_springs" {
            for pose in heave("found") {
                let z = pose["z_mm"].as_f64().unwrap();
                prop_assert!(close(pose["y_mm"].as_f64().unwrap(), hand.off_at(z - stands), 5e-3));
            }
        }
    }
}

/// The same figures typed in inches.
fn in_inches(value: &Value) -> Value {
    match value {
        Value::Object(map)
            if map.get("unit").is_some_and(|unit| unit == "mm") && map.contains_key("text") =>
        {
            let mm: f64 = map["text"].as_str().unwrap().parse().unwrap();
            json!({ "text": format!("{:.9}", mm / 25.4), "unit": "in" })
        }
        Value::Object(map) => map.iter().map(|(key, value)| (key.clone(), in_inches(value))).collect(),
        Value::Array(list) => list.iter().map(in_inches).collect(),
        other => other.clone(),
    }
}

/// Everything told but words, which are rounded to what a tape shows, and what was typed.
fn figures(reported: &Value, at: &str, found: &mut Vec<(String, f64)>) {
    match reported {
        Value::Number(number) => found.push((at.to_owned(), number.as_f64().unwrap())),
        Value::Array(list) => {
            list.iter()
                .enumerate()
                .for_each(|(index, value)| figures(value, &format!("{at}/{index}"), found));
        }
        Value::Object(map) if map.contains_key("text") || map.contains_key("symbolic") => {}
        Value::Object(map) => {
            map.iter().for_each(|(key, value)| figures(value, &format!("{at}/{key}"), found));
        }
        _ => {}
    }
}

proptest! {
    #![proptest_config(vehicles::as_many(CASES))]

    #[test]
    fn typed_in_inches_every_figure_is_the_same(made in vehicle()) {
        let mut reported_in = [Vec::new(), Vec::new()];
        figures(&reported(&made.document), "", &mut reported_in[0]);
        figures(&reported(&in_inches(&made.document)), "", &mut reported_in[1]);
        let [in_mm, in_inches] = reported_in;
        prop_assert!(in_mm.len() > 500);
        let names = |list: &[(String, f64)]| list.iter().map(|(name, _)| name.clone()).collect::<Vec<_>>();
        prop_assert_eq!(names(&in_mm), names(&in_inches));
        for ((name, a), (_, b)) in in_mm.iter().zip(&in_inches) {
            // A tenth of a micrometre of what was typed is left in what is drawn from it; a drawing is
            // rounded to a tenth of a millimetre.
            let drawn = name.contains("/envelope/") || name.contains("/drawn/");
            let within = if drawn { 0.11 } else { 2e-4 * a.abs().max(b.abs()).max(1.0) };
            prop_assert!(close(*a, *b, within), "{name} {a} {b}");
        }
    }
}

const SIDES: [(&str, &str); 3] =
    [("left", "right"), ("lower_left", "lower_right"), ("upper_left", "upper_right")];

fn other_side(word: &str) -> String {
    word.replace("left", "\u{1}").replace("right", "left").replace('\u{1}', "right")
}

/// The vehicle seen in a mirror: whatever is on the left is on the right.
fn mirrored(value: &Value) -> Value {
    match value {
        Value::Object(map) => {
            let mut image: Map<String, Value> = Map::new();
            for (key, value) in map {
                let swapped = SIDES.iter().any(|(a, b)| key == a || key == b)
                    || ["left_corner", "right_corner"].contains(&key.as_str());
                let key = if swapped { other_side(key) } else { key.clone() };
                let value = match key.as_str() {
                    "by_mm" => json!([value[0], -value[1].as_f64().unwrap(), value[2]]),
                    "left_longer" => {
                        let mm: f64 = value["text"].as_str().unwrap().parse().unwrap();
                        vehicles::mm(-mm)
                    }
                    _ => mirrored(value),
                };
                image.insert(key, value);
            }
            Value::Object(image)
        }
        Value::Array(list) => list.iter().map(mirrored).collect(),
        Value::String(word) if word == "left" || word == "right" => json!(other_side(word)),
        other => other.clone(),
    }
}

/// Figures that change their sign in a mirror: sideways ones, and turns about the vehicle's length and height.
const TURNED: [&str; 27] = [
    "bump_steer_deg_per_mm",
    "worst_deg",
    "worst_at_tyre_mm",
    "after_mm",
    "before_mm",
    "measured_mm",
    "predicted_mm",
    "bar_moment_nm",
    "found_mm",
    "planned_mm",
    "jacking_left_turn_n",
    "jacking_heave_mm",
    "offset_mm",
    "y_mm",
    "roll_deg",
    "yaw_deg",
    "lateral_rate",
    "leaves_offset_mm",
    "steer_deg",
    "left_off_mm",
    "at_full_droop_mm",
    "at_full_bump_mm",
    "half_difference_mm",
    "difference_mm",
    "twist_deg",
    "shift_mm",
    "sideways_mm",
];

proptest! {
    #![proptest_config(vehicles::as_many(2 * CASES))]

    #[test]
    fn in_a_mirror_sideways_figures_turn_and_all_others_stay(made in vehicle()) {
        let (reported, seen) = (reported(&made.document), reported(&mirrored(&made.document)));
        let mut apart = Vec::new();
        reflected(&reported, &seen, "", &mut apart);
        apart.truncate(12);
        prop_assert_eq!(apart, Vec::<String>::new());
    }
}

/// What is drawn as points and poses in an order of sides; the place of a flat least gap; and intervals, whose
/// draws have no mirror image.
const BY_ORDER: [&str; 14] = [
    "at_mm",
    "envelope",
    "roll",
    "crossed",
    "elevation",
    "uncertainty",
    "end_mm",
    "way",
    "ended_by",
    "crossings",
    "worst_left_mm",
    "worst_right_mm",
    "worst_points_mm",
    "between_mm",
];

/// Pairs of a left and a right figure.
const OF_BOTH_SIDES: [&str; 4] = ["predicted_readings_mm", "ended_at_mm", "to_straight_at_mm", "readings_mm"];

fn reflected(a: &Value, b: &Value, at: &str, apart: &mut Vec<String>) {
    let key = at.rsplit('/').next().unwrap_or_default();
    match (a, b) {
        _ if BY_ORDER.contains(&key) => {}
        // A pose's figures stand in the order of the limits.
        (Value::Array(_), _) if key == "limits" && at.contains("/heave/") => {}
        (Value::Object(a), Value::Object(b)) => {
            for (key, value) in a {
                let start = key.trim_start_matches("worst_");
                let sided = ["left", "right"].iter().any(|side| {
                    start.strip_prefix(side).is_some_and(|rest| rest.is_empty() || rest.starts_with('_'))
                });
                let swapped = sided && !TURNED.contains(&key.as_str());
                let other = if swapped { other_side(key) } else { key.clone() };
                reflected(value, b.get(&other).unwrap_or(&Value::Null), &format!("{at}/{key}"), apart);
            }
        }
        (Value::Array(a), Value::Array(b))
            if a.len() == 2 && b.len() == 2 && OF_BOTH_SIDES.contains(&key) =>
        {
            reflected(&a[0], &b[1], &format!("{at}/0"), apart);
            reflected(&a[1], &b[0], &format!("{at}/1"), apart);
        }
        (Value::Array(a), Value::Array(b)) if a.len() == b.len() => {
            for (index, one) in a.iter().enumerate() {
                // Links, ways and limits come by their names.
                let named = one["name"].as_str().map(|name| (name, other_side(name)));
                let named = named.filter(|(name, image)| name != image).map(|(_, image)| image);
                let image = named.and_then(|name| b.iter().find(|image| image["name"] == name.as_str()));
                reflected(one, image.unwrap_or(&b[index]), &format!("{at}/{index}"), apart);
            }
        }
        (Value::Number(x), Value::Number(y)) => {
            let (x, y) = (x.as_f64().unwrap(), y.as_f64().unwrap());
            // The second figure of a point in space is how far to the left, the first of one seen from the end.
            let mut parents = at.rsplit('/').skip(1);
            let parent = parents.next().unwrap_or_default();
            let holder =
                if parent.parse::<usize>().is_ok() { parents.next().unwrap_or_default() } else { parent };
            let in_space = [
                "body_mm",
                "axle_mm",
                "ends_mm",
                "worst_points_mm",
                "violated_points_mm",
                "move_mm",
                "pitman_mm",
                "frame_move_mm",
                "by_mm",
            ];
            let point = match key {
                "0" => ["axle_eye_mm", "frame_eye_mm"].contains(&holder),
                "1" => in_space.contains(&holder) || (holder == "points_mm" && holder != parent),
                _ => false,
            };
            // How much higher the body stands at a height is no offset of the axle.
            let column = key.parse::<usize>().is_ok() && TURNED.contains(&holder);
            let turned =
                point || column || (TURNED.contains(&key) && !(holder == "heights" && key == "offset_mm"));
            if !close(x, if turned { -y } else { y }, 1e-5 * x.abs().max(y.abs()).max(1.0)) {
                apart.push(format!("{at} {x} {y}"));
            }
        }
        (Value::String(_), Value::String(_)) => {}
        (a, b) if a == b => {}
        _ => apart.push(format!("{at} {a} {b}").chars().take(200).collect()),
    }
}
