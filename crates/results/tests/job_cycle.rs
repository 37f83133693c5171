//! Stage Cycle of whole jobs: against the quick model, by hand, by symmetry, and with
//! everything measured wrong that a person can measure wrong.

mod by_name;

use by_name::sound as job;
use derecho_core::measure::{Angle, Length, Side};
use derecho_job::bar::uncertainty::drawn;
use derecho_job::cycle::{CycleResult, LimitKind, LimitLevel, SetupCycle};
use derecho_job::document::AxleLocation;
use derecho_job::setups::Resolved;
use derecho_results::json::value as in_words;
use derecho_results::{cycle, everything, solve};
use derecho_words::Spoken as _;
use proptest::prelude::*;
use serde_json::{Value, json};

fn demo(name: &str) -> Value {
    let text = match name {
        "lookout-truck-7" => include_str!("../../../demo/lookout-truck-7.derecho.json"),
        "lookout-truck-12" => include_str!("../../../demo/lookout-truck-12.derecho.json"),
        "relay-van-2" => include_str!("../../../demo/relay-van-2.derecho.json"),
        "relay-wagon-5" => include_str!("../../../demo/relay-wagon-5.derecho.json"),
        "supply-truck-9" => include_str!("../../../demo/supply-truck-9.derecho.json"),
        "water-tender-3" => include_str!("../../../demo/water-tender-3.derecho.json"),
        "patrol-truck-6" => include_str!("../../../demo/patrol-truck-6.derecho.json"),
        other => panic!("there is no demo job {other}"),
    };
    serde_json::from_str(text).expect("a demo job is JSON")
}

/// A front axle on leaf springs: L 32 in, both bolts as they stand 6 in apart, the axle
/// read 1/2 in to the left.
fn leaf() -> Value {
    let mut value = demo("lookout-truck-7");
    value["rig"]["axle_location"] = json!("leaf_springs");
    value["hardpoints"] = json!({ "bar": { "axle_eye_fore_aft": "0 mm" } });
    value
}

fn found(result: &CycleResult) -> &SetupCycle {
    result.found.as_ref().unwrap_or_else(|| panic!("{:?}", result.missing))
}

fn missing(value: &Value) -> String {
    let result = cycle(&job(value));
    assert!(result.found.is_none(), "{:?}", result.says);
    result.missing.iter().map(|fault| fault.message.clone()).collect::<Vec<_>>().join(" ")
}

#[test]
fn on_leaf_springs_the_heave_sweep_is_the_quick_model() {
    let job = job(&leaf());
    let (result, quick) = (cycle(&job), solve(&job).bar.unwrap());
    let correction = quick.correction.as_ref().unwrap();
    let (length, rise) = (quick.found.length_mm.to_mm(), quick.found.rise_mm.to_mm());
    let reach = |length: f64, rise: f64| (length * length - rise * rise).sqrt();
    let offset = correction.basis.offset_mm.to_mm();
    for pose in &found(&result).heave {
        let by_hand = offset + reach(length, rise) - reach(length, rise - pose.z_mm.to_mm());
        assert!((pose.y_mm.to_mm() - by_hand).abs() < 1e-6, "{}", pose.z_mm.to_mm());
        assert_eq!((pose.x_mm, pose.bind_mm < Length::from_mm(1e-9)), (Length::ZERO, true));
    }
    let plan = result.plan.as_ref().unwrap();
    assert_eq!(plan.bar_length_mm, Some(correction.recentring.length_mm));
    let at_ride = plan.heave.iter().find(|pose| pose.z_mm.to_mm().abs() < 1.5).unwrap();
    assert!(at_ride.y_mm.to_mm().abs() < 0.5);
}

#[test]
fn with_arms_the_axle_stands_where_it_was_read_and_at_ride_height_nothing_binds() {
    for name in ["lookout-truck-7", "supply-truck-9", "water-tender-3", "lookout-truck-12"] {
        let job = job(&demo(name));
        let result = cycle(&job);
        let setup = found(&result);
        let (bar, views) = (solve(&job).bar.unwrap(), setup.envelope.travels_mm.len());
        assert_eq!(views, 41);
        assert_eq!(setup.bar_length_mm, Some(bar.found.length_mm), "{name}");
        let read = bar.correction.map_or(0.0, |correction| correction.basis.offset_mm.to_mm());
        let ride =
            setup.heave.iter().min_by(|a, b| a.z_mm.abs().partial_cmp(&b.z_mm.abs()).unwrap()).unwrap();
        // The sample nearest to ride height is at most 1.3 mm of travel away.
        assert!(read == 0.0 || (ride.y_mm.to_mm() - read).abs() < 0.5, "{name}: {:?}", ride.y_mm);
        assert!(ride.bind_mm.to_mm() < 0.05, "{name}: {:?}", ride.bind_mm);
    }
}

#[test]
fn a_riser_as_high_as_the_rise_levels_the_bar_and_its_length_is_the_reach() {
    let mut value = leaf();
    value["setups"]["found"]["axle_holes"] = json!([{ "name": "level", "up": "6 in" }]);
    value["setups"]["plans"]["trial"] = json!({ "axle": { "hole": "level" } });
    let job = job(&value);
    let result = cycle(&job);
    let plan = result.plan.as_ref().unwrap();
    assert_eq!(result.plan_name.inches(), "level");
    let ride = plan.heave.iter().min_by(|a, b| a.z_mm.abs().partial_cmp(&b.z_mm.abs()).unwrap()).unwrap();
    assert!(ride.bar_angle_deg.unwrap().to_degrees().abs() < 0.15);
    // Level and centred: as long as the old reach √(32² − 6²) in and the offset to take out.
    let offset = solve(&job).bar.unwrap().correction.unwrap().basis.offset_mm.to_mm();
    let by_hand = (32.0_f64 * 32.0 - 36.0).sqrt() * 25.4 + offset;
    assert!((plan.bar_length_mm.unwrap().to_mm() - by_hand).abs() < 1e-6);
    assert!(result.axle_holes[1].chosen && !result.axle_holes[0].chosen);
}

#[test]
fn stops_well_inboard_allow_more_wheel_travel_cross_axled_than_in_heave() {
    // By hand: bump 95 at 520, droop 130 at 430: sin φ = 225/950, z = 95 − 520·sin φ, the
    // higher wheel at z + 790·sin φ.
    let job = job(&demo("relay-wagon-5"));
    let result = cycle(&job);
    let lean: f64 = 225.0 / 950.0;
    let left_up = found(&result).ways.iter().find(|way| way.way == "left_up").unwrap();
    let by_hand = [95.0 - 520.0 * lean + 790.0 * lean, 95.0 - 520.0 * lean - 790.0 * lean];
    for (end, hand) in left_up.end_mm.iter().zip(by_hand) {
        assert!((end.to_mm() - hand).abs() < 1e-9, "{end:?} {hand}");
    }
}

#[test]
fn the_y_link_demo_stays_centred_in_heave_at_all_three_heights() {
    let job = job(&demo("relay-wagon-5"));
    let results = everything(&job);
    assert_eq!(results.results.heights.len(), 3);
    assert!(found(&results.cycle).heave.iter().all(|pose| pose.y_mm.to_mm().abs() < 1e-9));
    assert_eq!(results.results.bar_missing[0].code, "no_bar");
    assert!(results.drawn.uncertainty.is_none());
}

#[test]
fn the_five_link_binds_and_the_three_links_do_not() {
    let binds = |name: &str| {
        let result = cycle(&job(&demo(name)));
        let limits = &found(&result).limits;
        limits.iter().find(|limit| limit.kind == LimitKind::Bind).map(|limit| limit.level)
    };
    assert_eq!(binds("water-tender-3"), Some(LimitLevel::Violated));
    assert_eq!(binds("supply-truck-9"), None, "three arms and a bar agree exactly");
}

#[test]
fn nowhere_inside_the_stops_is_a_gap_smaller_than_the_worst_reported() {
    let result = cycle(&job(&demo("lookout-truck-7")));
    let setup = found(&result);
    for (index, limit) in setup.limits.iter().enumerate().filter(|(_, l)| l.kind == LimitKind::Gap) {
        let least = setup.heave.iter().map(|pose| pose.limits[index]).fold(f64::INFINITY, f64::min);
        assert!(least >= limit.worst - 0.1, "{}: {least} {}", limit.name.inches(), limit.worst);
    }
}

#[test]
fn where_a_way_ends_its_limit_is_just_met() {
    let result = cycle(&job(&demo("lookout-truck-7")));
    let setup = found(&result);
    let droop = &setup.ways[0];
    let limit = droop.ended_by.unwrap();
    assert_eq!(setup.limits[limit].name.inches(), "track bar to old bracket");
    let at = droop.ended_at_mm.unwrap()[0].to_mm();
    // The gap closes as fast as the heave sweep says on either side of it.
    let side = |below: bool| {
        let mut poses = setup.heave.iter().filter(|p| (p.left_mm.to_mm() < at) == below);
        let pose = if below { poses.next_back() } else { poses.next() };
        pose.map(|p| (p.left_mm.to_mm(), p.limits[limit])).unwrap()
    };
    let ((t0, g0), (t1, g1)) = (side(true), side(false));
    assert!(g0 < 0.0 && g1 > 0.0);
    let crossing = t0 + (t1 - t0) * g0 / (g0 - g1);
    assert!((crossing - at).abs() < 0.05, "{crossing} {at}");
}

#[test]
fn recentring_wants_the_drag_link_changed_by_nearly_the_offset() {
    let job = job(&demo("lookout-truck-7"));
    let result = cycle(&job);
    let offset = solve(&job).bar.unwrap().correction.unwrap().basis.offset_mm.to_mm();
    let steering = result.plan.as_ref().unwrap().steering.as_ref().unwrap();
    // A link at 9.7° takes an offset e as about e·cos 9.7°.
    let wanted = offset * 9.7_f64.to_radians().cos();
    assert!((steering.change_mm.to_mm() - wanted).abs() < 0.3, "{:?} {wanted}", steering.change_mm);
    assert!(found(&result).steering.as_ref().unwrap().change_mm.to_mm().abs() < 1e-9);
    // 7/8-18 at both ends of its sleeve: 25.4/9 mm a turn; 13.1·cos 9.7° are 4.57.
    assert!((steering.change_mm.to_mm() * 9.0 / 25.4 - 4.57).abs() < 0.1);
    assert!(steering.change_says.inches().contains("4 turns"), "{}", steering.change_says.inches());
}

/// The job with left and right exchanged.
fn mirrored(value: &Value) -> Value {
    let mut turned = value.clone();
    let other = |side: &Value| if side == "left" { json!("right") } else { json!("left") };
    for field in ["frame_eye_side", "steering_side"] {
        turned["rig"][field] = other(&value["rig"][field]);
    }
    for sheet in turned["sheets"].as_array_mut().into_iter().flatten() {
        let (left, right) = (sheet["left"].take(), sheet["right"].take());
        sheet["left"] = right;
        sheet["right"] = left;
    }
    for obstacle in turned["hardpoints"]["obstacles"].as_array_mut().into_iter().flatten() {
        obstacle["side"] = other(&obstacle["side"].clone());
    }
    if let Some(steering) = turned["hardpoints"]["steering"].as_object_mut() {
        for field in ["pitman_side", "knuckle_side"] {
            steering[field] = other(&steering[field].clone());
        }
    }
    turned
}

#[test]
fn the_mirrored_job_does_the_mirrored_thing() {
    let value = demo("lookout-truck-7");
    let (here, there) = (cycle(&job(&value)), cycle(&job(&mirrored(&value))));
    for (a, b) in found(&here).heave.iter().zip(&found(&there).heave) {
        assert!((a.y_mm + b.y_mm).abs().to_mm() < 1e-6);
        assert!((a.pitch_deg.to_degrees() - b.pitch_deg.to_degrees()).abs() < 1e-8);
        assert!((a.steer_deg.unwrap().to_degrees() + b.steer_deg.unwrap().to_degrees()).abs() < 1e-6);
    }
    let ways = |result: &CycleResult| {
        let ended = found(result).ways.iter().map(|w| w.ended_at_mm.map(|at| at.map(Length::to_mm)));
        ended.collect::<Vec<_>>()
    };
    let (a, b) = (ways(&here), ways(&there));
    assert!((a[0].unwrap()[0] - b[0].unwrap()[0]).abs() < 0.01);
    assert_eq!((a[2].is_some(), a[3].is_some()), (b[3].is_some(), b[2].is_some()));
}

#[test]
fn what_is_missing_or_cannot_be_is_reported_in_a_sentence_that_names_the_part() {
    let mut value = demo("supply-truck-9");
    value["rig"].as_object_mut().unwrap().remove("axle_location");
    assert!(missing(&value).contains("What locates the axle"));

    let mut value = demo("supply-truck-9");
    value["hardpoints"]["arms"]["upper_left"] = json!({
        "body": { "height": "23 in", "sideways": "11 in", "fore_aft": "-1 in" },
        "axle": { "height": "23 in", "sideways": "11 in", "fore_aft": "-1 in" } });
    assert!(missing(&value).contains("Both ends of the upper arm are in the same place"));

    let mut value = demo("supply-truck-9");
    value["hardpoints"]["arms"]["lower_right"]["length"] = json!("4 in");
    assert!(missing(&value).contains("The right lower arm is shorter than its ends are apart"));

    let mut value = demo("lookout-truck-7");
    value["hardpoints"]["steering"]["ends_on"] = json!("tie_rod");
    assert!(missing(&value).contains("ends on the tie rod is not covered"));

    // Three arms whose bar was never measured: nothing holds it sideways.
    let mut value = demo("supply-truck-9");
    value["setups"] = json!({});
    value["sheets"] = json!([]);
    assert!(missing(&value).contains("nothing holds the axle sideways"), "{}", missing(&value));
}

#[test]
fn an_obstacle_inside_a_link_is_reported_with_both_names() {
    let mut value = demo("lookout-truck-7");
    value["hardpoints"]["obstacles"][0]["from"]["height"] = json!("25 1/2 in");
    value["hardpoints"]["obstacles"][0]["to"]["height"] = json!("25 1/2 in");
    let result = cycle(&job(&value));
    let said = result.warnings.iter().map(|w| w.inches().clone()).collect::<String>();
    assert!(said.contains("The old bracket overlaps the track bar by"), "{said}");
}

#[test]
fn an_arm_that_does_not_fit_its_ends_is_reported_with_a_likely_cause() {
    let arm = |sideways: &str, length: &str| {
        let mut value = demo("supply-truck-9");
        value["hardpoints"]["arms"]["lower_left"] = json!({
            "length": length,
            "body": { "height": "19 in", "sideways": sideways, "fore_aft": "30 in" },
            "axle": { "height": "14 in", "sideways": "18 1/2 in", "fore_aft": "0 in" } });
        value["hardpoints"]["arms"]["lower_right"] = json!({});
        cycle(&job(&value)).warnings.iter().map(|w| w.inches().clone()).collect::<String>()
    };
    // √(30² + 5² + 5²) = 30.82 in.
    assert_eq!(arm("13 1/2 in", "30 13/16 in"), "");
    assert!(arm("13 1/2 in", "31 13/16 in").contains("the tape was misread"));
    assert!(arm("13 1/2 in", "36 in").contains("Measure the length again"));
}

#[test]
fn a_bar_that_does_not_fit_its_plumbed_eyes_is_reported_with_a_likely_cause() {
    let mut value = leaf();
    // Reach 31.43 in, plumbed 15 1/4 + 15 3/16: an inch short.
    value["setups"]["found"]["bar"]["axle_eye_from_centre"] = json!("15 3/16 in");
    let check = solve(&job(&value)).bar.unwrap().eye_check.unwrap();
    assert!(
        check.too_much && check.says.inches().contains("the tape was misread"),
        "{}",
        check.says.inches()
    );
}

#[test]
fn a_bent_bar_between_spherical_joints_rolls_as_far_as_they_allow() {
    let mut value = demo("lookout-truck-7");
    let bar = json!({ "axle_eye_fore_aft": "1 in", "frame_joint": { "kind": "spherical" },
        "axle_joint": { "kind": "spherical" },
        "bend": { "from_frame_eye": "16 in", "offset": "2 in", "towards": "down" } });
    value["hardpoints"]["bar"] = bar;
    let rolling = cycle(&job(&value));
    let [low, high] = found(&rolling).free_spin_deg.unwrap().map(Angle::to_degrees);
    // Bolts square to the bar at ride height: 12° either way, as both joints take.
    assert!((low + 12.0).abs() < 1e-3 && (high - 12.0).abs() < 1e-3, "{low} {high}");
    // A bushed end holds it, and a straight bar has nothing to swing.
    value["hardpoints"]["bar"]["axle_joint"] = json!({});
    assert_eq!(found(&cycle(&job(&value))).free_spin_deg, None);
    // Bent 2 in down at its middle, 1.2 in down over the old bracket: as much nearer at ride
    // height, and no less for being free to roll.
    let gap = |result: &CycleResult| {
        let setup = found(result);
        let index = setup.limits.iter().position(|l| l.name.inches() == "track bar to old bracket").unwrap();
        let ride = setup.heave.iter().min_by(|a, b| a.z_mm.abs().partial_cmp(&b.z_mm.abs()).unwrap());
        ride.unwrap().limits[index]
    };
    let straight = cycle(&job(&demo("lookout-truck-7")));
    let nearer = gap(&straight) - gap(&rolling);
    assert!((26.0..34.0).contains(&nearer), "{nearer}");
}

#[test]
fn what_nobody_measured_is_listed_and_the_right_side_takes_the_left_ones_figures() {
    let result = cycle(&job(&demo("lookout-truck-12")));
    let setup = found(&result);
    let arm = |name: &str| setup.links.iter().find(|link| link.name == name).unwrap();
    let (left, right) = (arm("left radius arm"), arm("right radius arm"));
    assert!((left.length_mm - right.length_mm).abs().to_mm() < 1e-9);
    assert_eq!(left.body_mm[1], -right.body_mm[1]);
    assert!(result.assumptions.iter().any(|a| a.pointer == "/setups/found/bar/frame_eye_from_centre"));
    assert!(result.assumptions.iter().all(|a| !a.pointer.starts_with("/hardpoints/arms")));
}

#[test]
fn drawn_readings_scatter_as_their_uncertainties_say() {
    let job = job(&demo("lookout-truck-7"));
    let result = drawn(&job, &Resolved::of(&job), 20_000, 11).unwrap();
    assert_eq!(result.failed, 0);
    assert_eq!(drawn(&job, &Resolved::of(&job), 20_000, 11).unwrap(), result);
    let width = |name: &str| {
        let interval = result.intervals.iter().find(|i| i.name == name).unwrap();
        interval.high - interval.low
    };
    // Four readings a side, each with its scatter s and a graduation of 1/16 in; the feature
    // at 0.8 mm: u² = ½·(s² + g²/12)/4 + 0.8². The middle 95 % are 1.96 u either way.
    let sheet = solve(&job).sheets[0].centring.clone().unwrap();
    let (s, g) = (sheet.spread_mm.to_mm(), 25.4 / 16.0);
    let wanted = 2.0 * 1.96 * (0.5 * (s * s + g * g / 12.0) / 4.0 + 0.64_f64).sqrt();
    assert!((width("offset_mm") - wanted).abs() < 0.03 * wanted, "{} {wanted}", width("offset_mm"));
    // Two bolt heights at ±1.5 mm (two deviations) and 775 mm of level: σ_θ = 0.75·√2/812 rad.
    let angle = 2.0 * 1.96 * (0.75 * 2.0_f64.sqrt() / 798.0).to_degrees();
    assert!((width("angle_deg") - angle).abs() < 0.08 * angle, "{} {angle}", width("angle_deg"));
    // The change is drawn with the same length as the whole: it is surer.
    assert!(width("change_mm") < width("length_mm"));
    assert_eq!(result.intervals[0].name, "change_mm");
}

#[test]
fn too_many_draws_without_a_bar_give_no_interval() {
    let mut value = leaf();
    // A bar that only just reaches: 6 in of rise and a length good to ±1.5 mm.
    value["setups"]["found"]["bar"]["length"] = json!("152.6 mm");
    let result = drawn(&job(&value), &Resolved::of(&job(&value)), 2_000, 3).unwrap();
    assert!(result.failed > 20 && result.intervals.is_empty(), "{}", result.failed);
}

fn no_null(value: &Value, at: &str) {
    match value {
        Value::Null => panic!("a figure at {at} is no number"),
        Value::Array(items) => {
            for (i, item) in items.iter().enumerate() {
                no_null(item, &format!("{at}/{i}"));
            }
        }
        Value::Object(map) => {
            for (k, item) in map {
                no_null(item, &format!("{at}/{k}"));
            }
        }
        _ => {}
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]
    #[test]
    fn whatever_is_measured_there_is_an_answer_or_a_sentence_and_never_no_number(
        kind in 0_usize..5,
        heights in prop::array::uniform4(0_u16..1200),
        sideways in prop::array::uniform4(-900_i16..900),
        lengths in prop::array::uniform2(0_u16..1500),
        lift in 0_u16..300,
    ) {
        let mut value = demo("lookout-truck-7");
        value["rig"]["axle_location"] =
            json!(["leaf_springs", "radius_arms", "three_arms", "four_arms", "y_link"][kind]);
        let mm = |v: i32| json!(f64::from(v));
        let point = |i: usize| json!({ "height": mm(heights[i].into()), "sideways": mm(sideways[i].into()) });
        let arm = |i: usize| json!({ "length": mm(i32::from(lengths[i]) + 1), "body": point(2 * i), "axle": point(2 * i + 1) });
        value["hardpoints"]["arms"] = json!({ "lower_left": arm(0), "upper_left": arm(1) });
        value["setups"]["found"]["bar"]["frame_eye_height"] = mm(600 + i32::from(lift));
        let result = cycle(&job(&value));
        prop_assert!(result.found.is_some() || !result.missing.is_empty());
        for setup in [&result.found, &result.plan].into_iter().flatten() {
            let mut plain = in_words(setup);
            // The envelope says null where there is no pose.
            plain["envelope"] = json!({});
            no_null(&plain, "");
        }
    }
}

#[test]
fn every_demo_is_a_full_rig_of_its_kind() {
    use AxleLocation::{FourArms, LeafSprings, RadiusArms, ThreeArms, YLink};
    let mut kinds = Vec::new();
    for name in ["lookout-truck-7", "relay-van-2", "supply-truck-9", "water-tender-3", "relay-wagon-5"] {
        let job = job(&demo(name));
        let result = cycle(&job);
        assert!(result.missing.is_empty() && result.warnings.is_empty(), "{name}: {:?}", result.warnings);
        assert_eq!(found(&result).ways.len(), 4);
        kinds.push(job.rig.axle_location.unwrap());
    }
    assert_eq!(kinds, [RadiusArms, LeafSprings, ThreeArms, FourArms, YLink]);
    assert_eq!(job(&demo("relay-van-2")).rig.frame_eye_side, Some(Side::Right));
}

#[test]
fn a_drag_link_that_no_longer_reaches_is_reported_with_the_place() {
    let mut value = demo("lookout-truck-7");
    let steering = &mut value["hardpoints"]["steering"];
    steering["kingpin_from_centre"] = json!("24 in");
    steering["knuckle"]["fore_aft"] = json!("2 in");
    let reported = |value: &Value| cycle(&job(value)).found.unwrap().steering.unwrap().says.inches();
    assert!(!reported(&value).contains("runs out of length"), "{}", reported(&value));
    value["rig"]["droop"] = json!("20 in");
    let says = reported(&value);
    // The bar swings after the knuckle: with v = 6 + t the axle stands √(32² − 6²) − √(32² − v²) nearer to the
    // pitman arm, which lets the 34.8 in link and its arm of 3.6 in follow to 17 in and a bit.
    assert!(
        says.contains("Past about 17") && says.contains("droop the drag link runs out of length"),
        "{says}"
    );
}

/// The nearest gap of a pose is the least of what is watched: at the worst pose of the tightest gap it is that gap, and
/// nowhere inside the stops is it less.
#[test]
fn the_nearest_gap_of_each_pose_agrees_with_the_worst_of_each_limit() {
    for name in ["lookout-truck-7", "relay-wagon-5", "patrol-truck-6"] {
        let job = job(&demo(name));
        let found = cycle(&job).found.expect("it is cycled");
        let near = derecho_results::near(&job).found.expect("it is cycled");
        let gaps: Vec<_> = found.limits.iter().filter(|limit| limit.kind == LimitKind::Gap).collect();
        assert_eq!(near.names.len(), gaps.len(), "{name}");
        let tightest = gaps.iter().map(|gap| gap.worst).fold(f64::INFINITY, f64::min);
        let side = near.travels_mm.len();
        let level = &found.envelope.level;
        let full = found.envelope.travels_mm.len();
        for (index, gap) in near.gap_mm.iter().enumerate() {
            // The drawn poses are every other of the envelope's.
            let (row, column) = (index / side * 2, index % side * 2);
            let Some(gap) = gap.filter(|_| level[row * full + column].is_some()) else { continue };
            assert!(gap >= tightest - 0.06, "{name}: {gap} is less than the worst, {tightest}");
        }
        // A figure that is told has its pair and both its points; one that is not has none of them.
        for (index, gap) in near.gap_mm.iter().enumerate() {
            let points = &near.points_mm[6 * index..6 * index + 6];
            assert_eq!(gap.is_some(), near.nearest[index].is_some());
            assert!(points.iter().all(|figure| figure.is_some() == gap.is_some()));
        }
    }
}

#[test]
fn where_nothing_can_be_cycled_nothing_is_near() {
    let mut value = demo("lookout-truck-7");
    value["rig"].as_object_mut().expect("it is an object").remove("axle_location");
    let near = derecho_results::near(&job(&value));
    assert!(near.found.is_none() && near.plan.is_none());
}
