//! What was wrong once, each with figures that show it, so that it stays right.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::sound as job;
use derecho_core::measure::Length;
use derecho_core::parts::BracketEnd;
use derecho_job::document::check::check;
use derecho_job::verdict::FitVerdict;
use derecho_results::json::value as in_words;
use derecho_results::{cycle, plan, solve, sway, uncertainty};
use derecho_words::Spoken as _;
use serde_json::{Value, json};

fn demo(name: &str) -> Value {
    let text = match name {
        "lookout-truck-7" => include_str!("../../../demo/lookout-truck-7.derecho.json"),
        "relay-wagon-5" => include_str!("../../../demo/relay-wagon-5.derecho.json"),
        "water-tender-3" => include_str!("../../../demo/water-tender-3.derecho.json"),
        "patrol-truck-6" => include_str!("../../../demo/patrol-truck-6.derecho.json"),
        "patrol-truck-14" => include_str!("../../../demo/patrol-truck-14.derecho.json"),
        "relay-van-10" => include_str!("../../../demo/relay-van-10.derecho.json"),
        "tower-truck-8" => include_str!("../../../demo/tower-truck-8.derecho.json"),
        "supply-truck-9" => include_str!("../../../demo/supply-truck-9.derecho.json"),
        other => panic!("no demo {other}"),
    };
    serde_json::from_str(text).unwrap()
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
    let faults = check(&by_name::read(&value));
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
    assert!(result.other_heights.iter().all(|says| !says.inches().contains("on a lift")));
    assert!(result.other_heights.iter().any(|says| says.inches().contains("raised")));
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
            "from": { "height": "30 in", "sideways": "0 in", "fore_aft": "-9 in" } }]);
        let plan = plan(&job(&value));
        let option = plan.options.into_iter().find(|option| option.plan.bar.as_str() == "bent").unwrap();
        (option.least_gap_mm.unwrap(), option.minds)
    };
    let ((straight, none), (bent, minds)) = (gap(None), gap(Some("2 in")));
    assert!(bent < straight - Length::from_mm(15.0), "{bent:?} {straight:?}");
    assert!(none.iter().all(|says| !says.inches().contains("bend")));
    assert!(minds.iter().any(|says| says.inches().contains("bend assumed at mid-bar")), "{minds:?}");
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
    assert!(!sway(&job(&value)).room.unwrap().says.inches().contains("Measurements incomplete"));
    value["sway"]["room"]["shocks"][0]["axle"].as_object_mut().unwrap().remove("sideways");
    let room = sway(&job(&value)).room.unwrap();
    // Its sign says so too, and what is missing leads to the end that wants it.
    let tight = room.gaps.iter().any(|gap| !gap.clear);
    assert_eq!(room.verdict, if tight { FitVerdict::Bad } else { FitVerdict::Open });
    let missing: Vec<_> = room.missing.iter().map(|fault| fault.pointer.as_str()).collect();
    assert_eq!(missing, ["/sway/room/shocks/0/axle"]);
    let says = room.says.inches();
    assert!(says.starts_with("Measurements incomplete, so nothing can be called clear yet"), "{says}");
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
fn the_limit_that_is_reported_is_the_one_furthest_gone() {
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
            let gaps = found.limits.iter().filter(|limit| limit.name.inches().ends_with(thing));
            gaps.map(|limit| limit.worst).fold(f64::INFINITY, f64::min)
        };
        let (hose, pipe) = (least("hose"), least("pipe"));
        assert!(pipe < hose, "{pipe} {hose}");
        let reported = &found.says.inches();
        assert!(reported.contains("comes close to the pipe"), "{reported}");
    }
}

/// The links share their quarrel by how stiff they are: the stiffer the bar among the arms, the nearer the
/// axle follows the bar's own arc.
#[test]
fn arm_stiffnesses_count_where_there_is_a_bar() {
    let off_the_arc = |bar: Option<f64>| {
        let mut value = demo("water-tender-3");
        for arm in value["hardpoints"]["arms"].as_object_mut().unwrap().values_mut() {
            arm["stiffness_n_per_mm"] = json!(2000.0);
        }
        if let Some(stiffness) = bar {
            value["hardpoints"]["bar"]["stiffness_n_per_mm"] = json!(stiffness);
        }
        let found = cycle(&job(&value)).found.unwrap();
        let bar = found.links.iter().find(|link| link.is_bar).unwrap();
        let end = &found.heave[0];
        // The bar's length in that pose against its own: what it is stretched by.
        let frame = bar.body_mm;
        let (ca, sa) = (end.pitch_deg.to_radians().cos(), end.pitch_deg.to_radians().sin());
        let (x, z) = (bar.axle_mm[0], bar.axle_mm[2] - found.axle_height_mm.to_mm());
        // Pitch alone turns the eye fore and aft; yaw is a tenth of a degree here and left out.
        let eye = [
            x * ca + z * sa + end.x_mm.to_mm(),
            bar.axle_mm[1] + end.y_mm.to_mm(),
            found.axle_height_mm.to_mm() + z * ca - x * sa + end.z_mm.to_mm(),
        ];
        let length = (0..3).map(|i| (eye[i] - frame[i]).powi(2)).sum::<f64>().sqrt();
        (length - bar.length_mm.to_mm()).abs()
    };
    let (soft, alike, stiff) = (off_the_arc(Some(200.0)), off_the_arc(None), off_the_arc(Some(200_000.0)));
    assert!(soft > 2.0 * alike && stiff < alike, "{soft} {alike} {stiff}");
}

/// Bushings wind up from where they were tightened: let down from a lift first, they start at rest there.
#[test]
fn wind_up_counts_from_the_height_it_was_tightened_at() {
    let wound = |tightened: &str, at: f64| {
        let mut value = demo("supply-truck-9");
        value["rig"]["heights"] = json!([height("raised", "2 in")]);
        if !tightened.is_empty() {
            value["hardpoints"]["tightened_height"] = json!(tightened);
        }
        let found = cycle(&job(&value)).found.unwrap();
        let watch = found
            .limits
            .iter()
            .position(|l| l.name.inches().contains("lower control arm") && l.name.inches().contains("twist"));
        let pose = found
            .heave
            .iter()
            .min_by(|a, b| (a.z_mm.to_mm() - at).abs().total_cmp(&(b.z_mm.to_mm() - at).abs()));
        pose.unwrap().limits[watch.unwrap()]
    };
    // Two inches higher is 50.8 mm of droop: at rest there now, and wound by that much at ride height.
    assert!(wound("raised", -50.8) < 0.1 && wound("", 0.0) < 0.1);
    let (over, back) = (wound("raised", 0.0), wound("", -50.8));
    assert!(over > 2.0 && (over - back).abs() < 0.1, "{over} {back}");
}

/// A bar whose frame eye is on the other side than the pitman arm swings the other way, however alike they
/// lie: it is never said to match.
#[test]
fn a_bar_and_a_drag_link_on_opposite_sides_never_match() {
    let mut value = demo("lookout-truck-7");
    let reported = |value: &Value| cycle(&job(value)).found.unwrap().steering.unwrap();
    let alike = reported(&value);
    assert!(!alike.match_says.inches().contains("opposite"), "{}", alike.match_says.inches());
    value["rig"]["frame_eye_side"] = json!("right");
    let crossed = reported(&value);
    assert!(crossed.match_says.inches().contains("opposite sides"), "{}", crossed.match_says.inches());
    assert!(!crossed.match_says.inches().contains("they match"));
    // Leant like roof and gutter: what they are apart is the sum of both.
    let [bar, link] = [crossed.bar_angle_deg.unwrap(), crossed.drag_link_angle_deg];
    let apart = crossed.angle_difference_deg.unwrap();
    assert!((apart - bar - link).to_degrees().abs() < 1e-9, "{apart:?}");
}

#[test]
fn a_drop_goes_with_a_dropped_pitman_arm_and_a_riser_with_a_raised_knuckle() {
    let mut value = demo("lookout-truck-7");
    value["bracket"]["drag_links"] = json!([
        { "name": "raised block", "raises_axle_end": "4 in" },
        { "name": "dropped arm", "drops_pitman_end": "4 in" },
    ]);
    value["bracket"]["brackets"] = json!([
        { "name": "riser", "end": "axle", "holes": [{ "name": "hole", "up": "4 in" }] },
        { "name": "drop", "end": "frame", "holes": [{ "name": "hole", "up": "-4 in" }] },
    ]);
    for option in plan(&job(&value)).options {
        let wrong = match option.end {
            Some(BracketEnd::Axle) => "dropped arm",
            Some(BracketEnd::Frame) => "raised block",
            None => continue,
        };
        assert_ne!(option.plan.drag_link.as_str(), wrong, "{}", option.name.inches());
    }
}

/// Both eyes are plumbed from the frame: the frame eye is as far out as the bar reaches less the axle eye's
/// distance, wherever the axle sits.
#[test]
fn the_axle_eyes_distance_alone_places_the_frame_eye() {
    let mut value = demo("supply-truck-9");
    value["setups"]["found"]["bar"]["axle_eye_from_centre"] = json!("17 in");
    let found = cycle(&job(&value)).found.unwrap();
    let bar = found.links.iter().find(|link| link.is_bar).unwrap();
    // h = √(36² − 4.5²) = 35.717 64 in.
    assert!((bar.body_mm[1] / 25.4 - (35.717_64 - 17.0)).abs() < 1e-4, "{}", bar.body_mm[1] / 25.4);
    assert!(!bar.assumed);
    let unplumbed = cycle(&job(&demo("supply-truck-9"))).found.unwrap();
    assert!(unplumbed.links.iter().any(|link| link.is_bar && link.assumed), "nobody plumbed an eye");
    let eyes = solve(&job(&value)).elevation.eyes.unwrap();
    assert!((eyes.frame.y_mm.to_mm() - bar.body_mm[1]).abs() < 1e-6);
}

#[test]
fn the_axle_and_the_tyre_are_as_they_were_measured() {
    let mut value = demo("lookout-truck-7");
    value["rig"]["axle_height"] = json!("15 in");
    value["rig"]["tyre_diameter"] = json!("33 in");
    let drawn = solve(&job(&value)).elevation;
    assert!((drawn.axle_height_mm.to_inches() - 15.0).abs() < 1e-9);
    let steering = cycle(&job(&value)).found.unwrap().steering.unwrap();
    let toe = 33.0 * steering.worst_deg.tan();
    assert!((steering.worst_at_tyre_mm.to_inches() - toe).abs() < 1e-9);
}

/// A leg that cannot reach is named by its own place, not by its neighbour's or by a bar that is not there.
#[test]
fn a_y_links_fault_names_the_part_that_does_not_reach() {
    let mut value = demo("relay-wagon-5");
    value["rig"]["heights"] = json!([height("on a lift", "900 mm")]);
    value["rig"]["driven_height"] = json!("on a lift");
    value["hardpoints"].as_object_mut().unwrap().remove("height");
    value["hardpoints"]["tightened_height"] = json!("");
    value["bracket"] = json!({});
    value["rig"]["droop"] = json!("1000 mm");
    // Read at ride height, driven where nothing reaches.
    value["rig"]["heights"].as_array_mut().unwrap().push(height("by these measurements", "0 mm"));
    value["hardpoints"]["height"] = json!("by these measurements");
    let missing = cycle(&job(&value)).missing;
    assert_eq!(missing.len(), 1, "{missing:?}");
    assert!(missing[0].pointer.starts_with("/hardpoints/arms/"), "{missing:?}");
    assert!(!missing[0].message.contains("track bar"), "{missing:?}");
}

/// The interval of the change is about the change that is told, with a riser chosen too.
#[test]
fn intervals_are_about_the_plan_that_is_chosen() {
    for hole in [None, Some("4 in")] {
        let mut value = demo("lookout-truck-7");
        value["bracket"]["brackets"] = json!([
            { "name": "riser", "end": "axle", "holes": [{ "name": "hole", "up": hole.unwrap_or("1 in") }] }]);
        value["setups"]["plans"] = hole
            .map_or(json!({}), |_| json!({ "chosen": { "axle": { "bracket": "riser", "hole": "hole" } } }));
        let job = job(&value);
        let correction = solve(&job).bar.unwrap().correction.unwrap();
        let change = (correction.length_mm - correction.from_length_mm).to_mm();
        let drawn = uncertainty(&job).unwrap();
        let of = |name: &str| drawn.intervals.iter().find(|interval| interval.name == name).unwrap();
        for (name, reported) in [
            ("change_mm", change),
            ("length_mm", correction.length_mm.to_mm()),
            ("angle_deg", correction.planned.angle_deg.to_degrees()),
            ("peak_to_peak_mm", correction.planned_swing.peak_to_peak_mm.to_mm()),
        ] {
            let interval = of(name);
            assert!(
                interval.low < reported && reported < interval.high,
                "{hole:?} {name} {reported} {interval:?}"
            );
        }
    }
}

/// What the lift did is reckoned with the eyes where they were found, also once a riser is in.
#[test]
fn what_the_lift_did_does_not_change_with_a_riser() {
    let mut value = demo("lookout-truck-7");
    value["rig"]["lift"] = json!("4 in");
    let lifted = |value: &Value| solve(&job(value)).bar.unwrap().lift.unwrap().shift_mm.to_mm();
    let before = lifted(&value);
    value["setups"]["rounds"] = json!([{ "moved": [{ "end": "axle", "by_mm": [0.0, 0.0, 100.0] }] }]);
    assert!((lifted(&value) - before).abs() < 1e-9);
}

/// Arms whose axle ends all but coincide leave nothing to solve by: what cannot be told is left out, never a
/// null where a number is promised.
#[test]
fn what_cannot_be_reported_is_left_out() {
    fn nulls(value: &Value, at: &str, found: &mut Vec<String>) {
        match value {
            Value::Null => found.push(at.to_owned()),
            Value::Object(members) => {
                // Columns of many poses have a place for each, closed or not.
                let column = |key: &str, member: &Value| {
                    let may = ["arm_angle_deg", "eye_angle_deg", "twist_deg", "roll_rate_nm_per_deg"];
                    member.is_array() && (may.contains(&key) || key == "bar_moment_nm")
                };
                for (key, member) in members.iter().filter(|(key, member)| !column(key, member)) {
                    nulls(member, &format!("{at}/{key}"), found);
                }
            }
            Value::Array(items) => {
                for item in items {
                    nulls(item, &format!("{at}/#"), found);
                }
            }
            _ => {}
        }
    }
    for apart in ["0 mm", "0.1 mm", "1 mm", "5 mm"] {
        let mut value = demo("supply-truck-9");
        let axle = json!({ "height": "23 in", "sideways": "11 in", "fore_aft": apart });
        for arm in ["lower_left", "upper_left"] {
            value["hardpoints"]["arms"][arm]["axle"] = axle.clone();
            value["hardpoints"]["arms"][arm].as_object_mut().unwrap().remove("length");
        }
        let job = job(&value);
        let mut found = Vec::new();
        nulls(&in_words(plan(&job)), "/plan", &mut found);
        nulls(&in_words(sway(&job)), "/sway", &mut found);
        nulls(&in_words(solve(&job)), "/solve", &mut found);
        assert_eq!(found, Vec::<String>::new(), "{apart}");
    }
}

/// A chosen bar that is to be as long as the old one was told as centring in Bracket and as the old length in Bar.
#[test]
fn a_chosen_length_is_one_length_in_every_stage() {
    for name in ["relay-van-10", "patrol-truck-6", "patrol-truck-14", "tower-truck-8", "lookout-truck-7"] {
        for aim in ["centred", "as_the_old_one"] {
            let mut value = demo(name);
            if value["setups"]["plans"]["chosen"].is_null() {
                value["setups"]["plans"]["chosen"] = json!({});
            }
            value["setups"]["plans"]["chosen"]["length"] = json!(aim);
            let job = job(&value);
            let planned = plan(&job);
            let Some(correction) = solve(&job).bar.and_then(|bar| bar.correction) else { continue };
            let picked = planned.options.iter().find(|option| option.chosen).unwrap();
            let apart = (picked.length_mm - correction.length_mm).abs().to_mm();
            assert!(apart < 1e-6, "{name} {aim}: {:?} {:?}", picked.length_mm, correction.length_mm);
            let off = (picked.left_off_mm - correction.leaves_offset_mm).abs().to_mm();
            assert!(off < 1e-6, "{name} {aim}: {:?} {:?}", picked.left_off_mm, correction.leaves_offset_mm);
            // Nobody is told that it is centred where it is not.
            let centred = correction.leaves_says.millimetres().starts_with("With the axle centered");
            assert_eq!(centred, correction.leaves_offset_mm.abs() < Length::from_mm(0.25), "{name} {aim}");
        }
    }
    // Lowered by 90 mm a bar of 860 goes from 20 of rise to 70 of fall: √(860² − 20²) − √(860² − 70²) is 2.6, 2.5 to
    // the half millimetre, to the right, where its frame eye is.
    let van = demo("relay-van-10");
    assert_eq!(plan(&job(&van)).says.millimetres(), "Length only: long-eye swap bar set to 860 mm");
    let says = solve(&job(&van)).bar.unwrap().correction.unwrap().leaves_says.millimetres();
    assert!(
        says.starts_with("With the axle off center at this height, 2.5 mm to the right, the bar is at 4.7°"),
        "{says}"
    );
}
