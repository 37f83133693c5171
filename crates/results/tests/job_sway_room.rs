//! Room for arms and links, stowed links, bolts and panels over whole jobs: distances worked by hand
//! where the axle hardly moves, and what must hold whatever it does.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use derecho_core::measure::Length;
use derecho_job::sway::{RoomResult, SwayGap, SwayResult};
use derecho_job::verdict::{FitCheck, FitVerdict};
use derecho_job::{Job, check};
use derecho_results::json::value as in_words;
use derecho_results::{solve, sway};
use derecho_words::Spoken as _;
use proptest::prelude::*;
use serde_json::{Value, json};

fn demo(name: &str) -> Value {
    let text = match name {
        "lookout-truck-7" => include_str!("../../../demo/lookout-truck-7.derecho.json"),
        "water-tender-3" => include_str!("../../../demo/water-tender-3.derecho.json"),
        other => panic!("there is no demo job {other}"),
    };
    serde_json::from_str(text).expect("a demo job is JSON")
}

fn swayed(value: &Value) -> SwayResult {
    let job = by_name::read(value);
    assert_eq!(check(&job), []);
    sway(&job)
}

/// The truck with the link that levels its arms, its travel a thousandth of an inch, nothing in the
/// way. The arm lies level at 25 1/2 in up, 16 3/4 in out, from 11 in to 1 1/2 in behind the axle; its
/// thickness and the link's are 1 in.
fn still() -> Value {
    let mut value = demo("lookout-truck-7");
    value["rig"]["bump"] = json!("0.001 in");
    value["rig"]["droop"] = json!("0.001 in");
    value["sway"]["link"] = json!("8.26892 in");
    value["sway"]["room"] = json!({ "arm_thickness": "1 in", "link_thickness": "1 in" });
    for part in ["tyre_width", "frame_width"] {
        value["rig"].as_object_mut().unwrap().remove(part);
    }
    value["hardpoints"]["obstacles"] = json!([]);
    value
}

fn room(value: &Value) -> RoomResult {
    swayed(value).room.unwrap()
}

fn gap<'a>(room: &'a RoomResult, thing: &str) -> &'a SwayGap {
    room.gaps.iter().find(|gap| gap.thing.inches() == thing).unwrap_or_else(|| panic!("no gap to {thing}"))
}

fn inches(length: Length) -> f64 {
    length.to_inches()
}

#[test]
fn a_ball_above_the_arm_by_hand() {
    let mut value = still();
    value["hardpoints"]["obstacles"] = json!([{
        "name": "bump stop", "on": "body", "side": "left", "thickness": "1 1/2 in",
        "from": { "height": "28 1/2 in", "sideways": "16 3/4 in", "fore_aft": "-6 in" },
    }]);
    let room = room(&value);
    let found = gap(&room, "bump stop");
    // 3 in between the middles, less 1/2 in of arm and 3/4 in of ball.
    assert!((inches(found.gap_mm) - 1.75).abs() < 0.01, "{}", inches(found.gap_mm));
    assert_eq!((found.rod.inches().as_str(), found.clear), ("the left sway bar arm", true));
}

#[test]
fn a_rail_along_the_arm_by_hand() {
    let mut value = still();
    value["rig"]["frame_width"] = json!("31 in");
    value["sway"]["room"]["rail_underside"] = json!("23 1/2 in");
    value["sway"]["room"]["rail_height"] = json!("4 1/2 in");
    let room = room(&value);
    // The rail's outer face is 15 1/2 in out, its edges rounded by 30 mm: the lower edge's middle is
    // that far in and up. The link passes it, going 1/4 in out on 8 1/4 in down.
    let (low, middle) = (23.5 + 30.0 / 25.4, 15.5 - 30.0 / 25.4);
    let link = 16.75 + 0.25 * (25.5 - low) / 8.25;
    let expected = link - middle - 0.5 - 30.0 / 25.4;
    let found = gap(&room, "left frame rail");
    assert!((inches(found.gap_mm) - expected).abs() < 0.02, "{} for {expected}", inches(found.gap_mm));
    // The bar goes through both rails, and they are no fault of it.
    assert!(
        room.gaps
            .iter()
            .all(|gap| !gap.thing.inches().contains("rail") || gap.rod.inches() != "the sway bar")
    );
    // Inside the frame the arm runs along the rail.
    value["sway"]["eye_from_centre"] = json!("15 in");
    let inside = self::room(&value);
    assert!(!gap(&inside, "left frame rail").clear);
    assert!(inside.says.inches().contains("hits the left frame rail"), "{}", inside.says.inches());
}

#[test]
fn a_leaning_shock_by_hand() {
    let mut value = still();
    // Beside the link, leaning with it: from 40 in up to 15 1/2 in, 20 in out at 3/4 in forward.
    value["sway"]["room"]["shocks"] = json!([{
        "name": "shock", "thickness": "2 in",
        "body": { "height": "40 in", "sideways": "20 in", "fore_aft": "-1 in" },
        "axle": { "height": "15 1/2 in", "sideways": "20 in", "fore_aft": "-1 in" },
    }]);
    let room = room(&value);
    // The link's far end at 17 in out stands 3 in inside of it: less 1/2 in and 1 in.
    for side in ["left shock", "right shock"] {
        let found = gap(&room, side);
        assert!((inches(found.gap_mm) - 1.5).abs() < 0.02, "{}", inches(found.gap_mm));
        assert!(found.rod.inches().ends_with("link"));
    }
}

/// Through the whole travel of the truck: the drawn line of each gap is as long as its figure and the half
/// thicknesses at both ends, and its end on a thing of the body lies on that thing as it is drawn.
#[test]
fn every_gap_is_drawn_as_long_as_it_is_reported() {
    let mut value = demo("lookout-truck-7");
    value["sway"]["link"] = json!("8 1/4 in");
    let room = room(&value);
    // What stays more than 200 mm off is not told; control arms, track bar and drag link are drawn as links.
    assert!(room.gaps.len() >= 10, "{}", room.gaps.len());
    for found in &room.gaps {
        let Some(thing) = room.things.iter().find(|thing| thing.name == found.thing) else { continue };
        let [rod, there] = found.between_mm.map(glam::DVec3::from_array);
        // Arms 1 in, links 1 1/4 in, the bar 1 in thick.
        let half = if found.rod.inches().ends_with("link") { 0.625 } else { 0.5 } * 25.4;
        let gap = rod.distance(there) - half - thing.radius_mm;
        assert!((gap - found.gap_mm.to_mm()).abs() < 1e-6, "{}: {gap}", found.thing.inches());
        if thing.on_axle.iter().all(|axle| !axle) {
            let points: Vec<_> = thing.points_mm.iter().map(|at| glam::DVec3::from_array(*at)).collect();
            let off = points.windows(2).map(|ends| beside(there, ends[0], ends[1]));
            assert!(off.fold(f64::INFINITY, f64::min) < 1e-6, "{}", found.thing.inches());
        }
    }
}

/// How far a point is from a straight piece: at its foot, or at the nearer end.
fn beside(at: glam::DVec3, from: glam::DVec3, to: glam::DVec3) -> f64 {
    let along = to - from;
    let share = ((at - from).dot(along) / along.length_squared()).clamp(0.0, 1.0);
    at.distance(from + along * share)
}

/// A rail taped 23 1/2 in up with the tank full, the body 1 1/4 in lower than ride height: 24 3/4 in at ride
/// height, where the vehicle is driven, and the drawing puts it there. Its shocks end where they were taped.
#[test]
fn rails_and_shocks_are_drawn_where_they_were_taped() {
    let mut value = demo("lookout-truck-7");
    value["hardpoints"]["height"] = json!("water tank full");
    value["sway"]["room"]["rail_underside"] = json!("23 1/2 in");
    let job: Job = serde_json::from_value(value).unwrap();
    let results = solve(&job);
    let inches = |mm: f64| mm / 25.4;
    assert!((results.elevation.frame_bottom_mm.to_inches() - 24.75).abs() < 1e-9);
    assert!((results.elevation.rail_height_mm.to_inches() - 4.5).abs() < 1e-9);
    let room = sway(&job).room.unwrap();
    let thing = |name: &str| room.things.iter().find(|thing| thing.name.inches() == name).unwrap();
    let rail = thing("right frame rail");
    let low = rail.points_mm.iter().map(|at| at[2] - rail.radius_mm).fold(f64::INFINITY, f64::min);
    let high = rail.points_mm.iter().map(|at| at[2] + rail.radius_mm).fold(0.0, f64::max);
    assert!((inches(low) - 24.75).abs() < 1e-9 && (inches(high) - 29.25).abs() < 1e-9);
    let shock = thing("right shock");
    assert_eq!(shock.on_axle, [false, true]);
    for (found, expected) in shock.points_mm.iter().flatten().zip([3.0, -14.5, 41.25, 2.5, -18.5, 15.5]) {
        assert!((inches(*found) - expected).abs() < 1e-9, "{:?}", shock.points_mm);
    }
}

#[test]
fn tyres_at_lock_come_nearer_and_those_of_a_rear_axle_do_not_steer() {
    let mut value = demo("lookout-truck-7");
    value["sway"]["link"] = json!("8 1/4 in");
    let nearest = |value: &Value| {
        let room = room(value);
        let tyres = room.gaps.iter().filter(|gap| gap.thing.inches().contains("tire"));
        tyres.map(|gap| gap.gap_mm.to_mm()).fold(f64::INFINITY, f64::min)
    };
    let mut before = f64::INFINITY;
    for lock in ["0", "12", "24", "36"] {
        value["sway"]["room"]["steering_lock"] = json!({ "text": lock });
        let now = nearest(&value);
        assert!(now < before, "{lock}°: {now} after {before}");
        before = now;
    }
    let names =
        |value: &Value| room(value).gaps.iter().filter(|gap| gap.thing.inches().contains("tire")).count();
    assert_eq!(names(&value), 2);
    assert_eq!(names(&demo("water-tender-3")), 2);
}

#[test]
fn the_hole_an_arm_wants_in_a_panel_by_hand() {
    let mut value = still();
    value["sway"]["room"]["panels"] = json!([
        { "name": "splash panel", "faces": "forward", "at": "-6 in" },
        { "name": "inner fender", "faces": "outward", "at": "20 in" },
        { "name": "floor", "faces": "up", "at": "21 in" },
    ]);
    let cuts = room(&value).cuts;
    // Across a level arm: half an inch of arm and half an inch of room either way.
    let cut = cuts[0].cut_mm.unwrap().map(|axis| axis.map(|mm| mm / 25.4));
    let expected = [[15.75, 17.75], [24.5, 26.5]];
    for (found, expected) in cut.iter().flatten().zip(expected.iter().flatten()) {
        assert!((found - expected).abs() < 0.01, "{cut:?}");
    }
    assert!(
        cuts[0].says.inches().contains("from 15 3/4\" to 17 3/4\" from the centerline"),
        "{}",
        cuts[0].says.inches()
    );
    assert_eq!(cuts[1].cut_mm, None);
    assert!(cuts[1].says.inches().contains("no hole needed"));
    // The link passes 21 in on its way from 25 1/2 in at −1 1/2 in to 17 1/4 in at −1 in: 4.5/8.25 down it.
    let [fore, out] = cuts[2].cut_mm.unwrap().map(|axis| axis.map(|mm| mm / 25.4));
    let at = -1.5 + 0.5 * 4.5 / 8.25;
    assert!((f64::midpoint(fore[0], fore[1]) - at).abs() < 0.01, "{fore:?}");
    assert!((f64::midpoint(out[0], out[1]) - (16.75 + 0.25 * 4.5 / 8.25)).abs() < 0.01, "{out:?}");
}

#[test]
fn a_panel_is_cut_wider_the_more_the_axle_travels() {
    let tall = |travel: &str| {
        let mut value = still();
        value["rig"]["bump"] = json!(travel);
        value["rig"]["droop"] = json!(travel);
        value["sway"]["room"]["panels"] = json!([{ "name": "splash panel", "at": "-6 in" }]);
        let [_, up] = room(&value).cuts[0].cut_mm.unwrap();
        up[1] - up[0]
    };
    let (still, some, more) = (tall("0.001 in"), tall("1 in"), tall("2 in"));
    assert!(still < some && some < more, "{still} {some} {more}");
    // Five inches out on an arm of 9 1/2: 5/9.5 of 2 in, but for what the link's lean takes and gives.
    let expected = 2.0 * 25.4 * 5.0 / 9.5;
    assert!(((some - still) / expected - 1.0).abs() < 0.03, "{} for {expected}", some - still);
}

fn verdict(checks: &[FitCheck], name: &str) -> (FitVerdict, String) {
    let check =
        checks.iter().find(|check| check.name.inches().starts_with(name)).expect("a check of that name");
    (check.verdict, check.says.inches().clone())
}

#[test]
fn a_bolt_stopped_by_the_rail_comes_out_the_other_way() {
    let mut value = still();
    value["rig"]["frame_width"] = json!("31 in");
    value["sway"]["room"]["rail_underside"] = json!("23 1/2 in");
    value["sway"]["bolts"] =
        json!([{ "name": "upper", "length": "2 1/2 in", "place": "arm_eye", "way": "inward" }]);
    let (bad, says) = verdict(&swayed(&value).checks, "upper");
    assert_eq!(bad, FitVerdict::Bad);
    assert!(says.contains("the left frame rail is in the way; flip it and it comes out outward"), "{says}");
    value["sway"]["bolts"][0]["way"] = json!("outward");
    assert_eq!(verdict(&swayed(&value).checks, "upper").0, FitVerdict::Good);
    // A rail 6 in higher is out of its way, and so is one that nobody measured.
    value["sway"]["bolts"][0]["way"] = json!("inward");
    value["sway"]["room"]["rail_underside"] = json!("29 1/2 in");
    assert_eq!(verdict(&swayed(&value).checks, "upper").0, FitVerdict::Good);
    // Neither taped nor placed: nothing can be said yet.
    value["sway"]["bolts"] = json!([{ "name": "upper", "length": "2 1/2 in" }]);
    assert_eq!(verdict(&swayed(&value).checks, "upper").0, FitVerdict::Open);
    // Stopped both ways between the rail and a tab.
    value["sway"]["room"]["rail_underside"] = json!("23 1/2 in");
    value["hardpoints"]["obstacles"] = json!([{
        "name": "tab", "on": "body", "side": "left", "thickness": "2 in",
        "from": { "height": "25 1/2 in", "sideways": "19 in", "fore_aft": "-1 1/2 in" },
    }]);
    value["sway"]["bolts"] =
        json!([{ "name": "upper", "length": "2 1/2 in", "place": "arm_eye", "way": "inward" }]);
    let (_, says) = verdict(&swayed(&value).checks, "upper");
    assert!(says.contains("it won't come out outward either: the tab is there"), "{says}");
}

#[test]
fn a_stowed_link_keeps_its_length_and_its_arm() {
    let mut value = demo("lookout-truck-7");
    value["sway"]["link"] = json!("8 1/4 in");
    let stowed = swayed(&value).stowed.unwrap();
    assert!(stowed.reaches);
    let arm = inches(stowed.eye_ahead_mm).hypot(inches(stowed.eye_above_mm));
    assert!((arm - 9.5).abs() < 1e-9);
    // The stud is 1 1/4 in inside of the arm's eye.
    let flat = inches(stowed.eye_ahead_mm - stowed.stud_ahead_mm)
        .hypot(inches(stowed.eye_above_mm - stowed.stud_above_mm));
    assert!((flat.hypot(1.25) - 8.25).abs() < 1e-9, "{flat}");
    // Two inches ahead of the axis and four above it, as taped.
    assert!((inches(stowed.stud_ahead_mm) - 2.0).abs() < 1e-9);
    assert!((inches(stowed.stud_above_mm) - 4.0).abs() < 1e-9);
    value["sway"]["pins"]["stow"]["height"] = json!("48 in");
    let far = swayed(&value);
    assert!(!far.stowed.as_ref().unwrap().reaches);
    assert_eq!(verdict(&far.checks, "stowed sway link, calculated").0, FitVerdict::Bad);
    value["sway"]["pins"].as_object_mut().unwrap().remove("stow");
    assert!(swayed(&value).stowed.is_none());
}

#[test]
fn a_stowed_link_is_looked_at_through_the_whole_travel() {
    // Low down, just clear of the axle's tube at ride height and in its way at full bump.
    let clear = |bump: &str| {
        let mut value = demo("lookout-truck-7");
        value["rig"]["bump"] = json!(bump);
        value["sway"]["room"]["shocks"] = json!([]);
        value["sway"]["link"] = json!("8 1/4 in");
        value["sway"]["pins"]["stow"] =
            json!({ "height": "23 in", "sideways": "16 in", "fore_aft": "1/2 in" });
        let stowed = swayed(&value).stowed.unwrap();
        assert!(stowed.reaches, "{}", stowed.says.inches());
        (stowed.gap_mm.unwrap().to_mm(), stowed.at_mm, stowed.says.inches())
    };
    let (little, _, _) = clear("1/2 in");
    let (much, at, says) = clear("4 in");
    assert!(much < little, "{much} {little}");
    assert!(at.iter().all(|travel| travel.to_mm() > 0.0), "{at:?} {says}");
}

#[test]
fn a_slope_leans_the_body_and_parts_the_pins() {
    let mut value = demo("lookout-truck-7");
    value["sway"]["pins"]["parked_slope"] = json!({ "text": "5" });
    let result = swayed(&value);
    let vehicle = result.vehicle.unwrap();
    // Without this axle's bar: M·sin 5° over what is left of both axles' rates, between ends 34 in apart.
    let left = vehicle.springs_nm_per_rad + vehicle.other_nm_per_rad - vehicle.overturning_nm;
    let lean = vehicle.overturning_nm * 5.0_f64.to_radians().sin() / left;
    let sixteenths = (34.0 * lean * 16.0).round();
    let (bad, says) = verdict(&result.checks, "pins go in on this slope");
    assert_eq!(bad, FitVerdict::Bad);
    assert!(says.contains(&format!("leans {:.1}°", lean.to_degrees())), "{says}");
    let printed = Length::from_inches(sixteenths / 16.0);
    let reported = says.split("off by ").nth(1).unwrap().split('"').next().unwrap();
    let read: f64 = reported
        .split(' ')
        .map(|part| match part.split_once('/') {
            Some((over, under)) => over.parse::<f64>().unwrap() / under.parse::<f64>().unwrap(),
            None => part.parse::<f64>().unwrap(),
        })
        .sum();
    assert!((read - inches(printed)).abs() < 1e-9, "{reported} for {}", inches(printed));
    // What it says of the slope it goes in on holds.
    let most = says.split("go in up to ").nth(1).unwrap().split('°').next().unwrap().to_owned();
    value["sway"]["pins"]["parked_slope"] = json!({ "text": most });
    let most: f64 = most.parse().unwrap();
    for (slope, verdict_there) in [(most - 0.1, FitVerdict::Good), (most + 0.1, FitVerdict::Bad)] {
        value["sway"]["pins"]["parked_slope"] = json!({ "text": format!("{slope:.2}") });
        assert_eq!(verdict(&swayed(&value).checks, "pins go in on this slope").0, verdict_there, "{slope}");
    }
}

#[test]
fn on_an_axle_mounted_bar_the_arm_moves_with_the_axle() {
    // Something that goes with the axle, as far from the arm as it is at ride height in every pose.
    let mut value = demo("water-tender-3");
    value["sway"]["room"] = json!({ "arm_thickness": "1 in", "link_thickness": "1 in" });
    value["hardpoints"]["obstacles"] = json!([{
        "name": "brake line tab", "on": "axle", "side": "left", "thickness": "1 in",
        "from": { "height": "14 in", "sideways": "18 in", "fore_aft": "-6 in" },
    }]);
    let room = room(&value);
    // 3 in below the arm's root: less half an inch of tab and half an inch of arm, or of the bar's
    // 5/8 in where that is nearer.
    let found = gap(&room, "brake line tab");
    assert!((inches(found.gap_mm) - (3.0 - 0.5 - 0.625)).abs() < 1e-6, "{}", inches(found.gap_mm));
    assert_eq!(found.rod.inches(), "the sway bar");
}

/// A figure that is none becomes null in JSON: nowhere may one be.
fn no_null(value: &Value, at: &str) {
    match value {
        Value::Null => panic!("{at} is null"),
        Value::Array(list) => {
            for (index, value) in list.iter().enumerate() {
                no_null(value, &format!("{at}/{index}"));
            }
        }
        Value::Object(map) => {
            for (key, value) in map {
                if !NULL_WHERE_IT_DOES_NOT_CLOSE.contains(&key.as_str()) || !value.is_array() {
                    no_null(value, &format!("{at}/{key}"));
                }
            }
        }
        _ => {}
    }
}

/// Columns of many poses have a place for each, closed or not.
const NULL_WHERE_IT_DOES_NOT_CLOSE: [&str; 5] =
    ["arm_angle_deg", "eye_angle_deg", "twist_deg", "roll_rate_nm_per_deg", "bar_moment_nm"];

fn inch() -> impl Strategy<Value = Value> {
    (-40.0..60.0_f64).prop_map(|value| json!(format!("{value:.2} in")))
}

fn size() -> impl Strategy<Value = Value> {
    (0.01..60.0_f64).prop_map(|value| json!(format!("{value:.2} in")))
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(16))]

    /// Whatever is typed, sense or nonsense, stage Sway answers in figures and sentences: a link across the
    /// vehicle, an arm longer than the truck, a stud under the floor, a bar thicker than its length.
    #[test]
    fn whatever_is_typed_there_is_an_answer_and_never_no_number(
        sizes in prop::collection::vec(size(), 12), places in prop::collection::vec(inch(), 12),
        on_axle: bool, forward: bool, stiff in 1.0..4000.0_f64, slope in -40.0..40.0_f64,
    ) {
        let mut value = demo("lookout-truck-7");
        let form = &mut value["sway"];
        form["on"] = json!(if on_axle { "axle" } else { "body" });
        form["forward"] = json!(forward);
        for (field, size) in ["link", "diameter", "active_length", "eye_from_centre", "shock_stroke", "bush_spacing"]
            .iter()
            .zip(&sizes)
        {
            form[*field] = size.clone();
        }
        form["holes"] = json!([sizes[6], sizes[7]]);
        form["splined"] = json!({ "bars": [{ "length": sizes[8], "diameter": sizes[9] }], "arms": [sizes[10]] });
        form["link_rate"] = json!(format!("{stiff:.1} N/mm"));
        form["bush_rate"] = json!(format!("{stiff:.1} N/mm"));
        form["axis"]["fore_aft"] = places[0].clone();
        form["far_end"]["fore_aft"] = places[1].clone();
        form["far_end"]["sideways"] = places[2].clone();
        form["pins"]["stow"]["fore_aft"] = places[3].clone();
        form["pins"]["stow"]["sideways"] = places[4].clone();
        form["pins"]["parked_slope"] = json!({ "text": format!("{slope:.1}") });
        form["left_longer"] = places[5].clone();
        form["room"]["shocks"][0]["body"]["sideways"] = places[6].clone();
        form["room"]["shocks"][0]["thickness"] = sizes[11].clone();
        for (index, faces) in ["forward", "outward", "up"].into_iter().enumerate() {
            form["room"]["panels"][0]["faces"] = json!(faces);
            form["room"]["panels"][0]["at"] = places[7 + index].clone();
        }
        let job = by_name::read(&value);
        prop_assert_eq!(check(&job), []);
        let result = sway(&job);
        no_null(&in_words(&result), "");
        prop_assert!(!result.says.inches().is_empty());
        if let Some(stowed) = &result.stowed {
            prop_assert!(stowed.reaches || !stowed.clear);
        }
    }
}
