//! Stage Sway over the demo jobs: expected figures are worked by hand from the typed readings, or are
//! the same question asked another way.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::measure::{AngleEntry, Length, TapeEntry, Unit};
use derecho_job::cautions::Stage;
use derecho_job::document::sway::{BushKind, SwayKind};
use derecho_job::document::{AxleLocation, Job, Purpose, Setups, Sway};
use derecho_job::strip::Progress;
use derecho_job::sway::SwayResult;
use derecho_job::verdict::FitVerdict;
use derecho_results::{cycle, solve, sway};
use derecho_words::Spoken as _;
use proptest::prelude::*;

/// Arms of 9 1/2 in forward of an axis 11 in behind the axle and 25 1/2 in up; the links go down to
/// 17 1/4 in up and 1 in behind.
fn over_centre() -> Job {
    by_hand(include_str!("../../../demo/lookout-truck-7.derecho.json"))
}

fn roof_tent() -> Job {
    by_hand(include_str!("../../../demo/supply-truck-9.derecho.json"))
}

/// By hand nothing gives that was not told, and there is no bar but the one worked on.
fn by_hand(text: &str) -> Job {
    let mut job: Job = serde_json::from_str(text).unwrap();
    job.sway.bush_kind = Some(BushKind::Bearing);
    job.vehicle.other_sway_bar.there = Some(false);
    job
}

fn with_link(mm: f64) -> SwayResult {
    let mut job = over_centre();
    job.sway.link = Some(TapeEntry::parse(&format!("{mm:.4}"), Unit::Millimetres).unwrap());
    sway(&job)
}

fn progress(job: &Job) -> Progress {
    solve(job).stages.iter().find(|stage| stage.stage == Stage::Sway).unwrap().progress
}

#[test]
fn the_link_that_levels_the_arm_is_the_distance_of_its_two_ends() {
    // A level arm has its eye at -11 + 9 1/2 = -1 1/2 in, 25 1/2 in up, 16 3/4 in out; the far end is
    // at -1, 17 1/4 and 17: √(0.5² + 8.25² + 0.25²) = 8.26892 in.
    let links = sway(&over_centre()).links.unwrap();
    let target = links.targets.iter().find(|target| target.chosen).unwrap();
    assert!((target.link_mm.to_mm() - 8.268_92 * 25.4).abs() < 0.01, "{:?}", target.link_mm);
    // 2.26892 in on two 1/2-20 threads is 2.26892 × 20 / 2 = 22.69 turns, 22 and 4.1 flats.
    assert!(target.says.inches().contains("22 turns and 4 flats"), "{}", target.says.inches());
}

#[test]
fn a_link_of_that_length_levels_both_arms_at_ride_height() {
    let links = with_link(8.268_92 * 25.4).links.unwrap();
    let ride = links
        .heave
        .iter()
        .min_by(|a, b| a.left_wheel_mm.to_mm().abs().total_cmp(&b.left_wheel_mm.to_mm().abs()))
        .unwrap();
    // The sweep has no pose at ride height itself: a step of it turns the arm by a degree or so.
    let off = ride.left_wheel_mm.to_mm().abs() / links.arm_mm.to_mm() + 0.01;
    for arm in [ride.left, ride.right] {
        assert!(arm.arm_angle_deg.unwrap().to_radians().abs() < off, "{arm:?}");
    }
}

#[test]
fn the_window_of_links_that_work_is_where_the_verdict_turns() {
    let links = with_link(160.0).links.unwrap();
    assert!(links.fails);
    let [least, most] = links.window_mm.unwrap().map(Length::to_mm);
    for (link, fails) in [(least - 0.1, true), (least + 0.1, false), (most - 0.1, false), (most + 0.1, true)]
    {
        assert_eq!(with_link(link).links.unwrap().fails, fails, "a link of {link} mm in {least}..{most}");
    }
}

#[test]
fn the_strip_follows_the_verdict() {
    let mut job = over_centre();
    assert_eq!(progress(&job), Progress::Begun);
    job.sway.link = Some(TapeEntry::parse("8 1/4", Unit::Inches).unwrap());
    assert_eq!(progress(&job), Progress::Settled);
    job.sway.link = None;
    assert_eq!(progress(&job), Progress::Begun);
    job.sway.kind = Some(SwayKind::None);
    assert_eq!(progress(&job), Progress::Settled);
    job.sway.kind = None;
    assert_eq!(progress(&job), Progress::Nothing);
}

#[test]
fn what_is_not_measured_is_asked_for_by_its_place() {
    let mut job = over_centre();
    job.sway.kind = None;
    assert_eq!(sway(&job).missing[0].pointer, "/sway/kind");
    let mut job = over_centre();
    job.sway.link = None;
    job.sway.eye_from_centre = None;
    job.sway.holes.clear();
    let asked: Vec<String> = sway(&job).missing.into_iter().map(|fault| fault.pointer).collect();
    assert!(asked.contains(&"/sway/eye_from_centre".to_owned()), "{asked:?}");
    assert!(asked.iter().any(|at| at.starts_with("/sway/holes")), "{asked:?}");
}

#[test]
fn without_a_bar_the_vehicle_still_rolls() {
    let mut job = roof_tent();
    let with = sway(&job).vehicle.unwrap();
    job.sway.kind = Some(SwayKind::None);
    let without = sway(&job);
    assert!(without.links.is_none() && without.holes.is_empty());
    let roll = |name: &str| {
        let choice = with.choices.iter().find(|choice| choice.name.inches().starts_with(name)).unwrap();
        choice.road_deg_per_g.unwrap()
    };
    let bare = without.vehicle.unwrap().choices[0].road_deg_per_g.unwrap();
    // Taking the bar off is the same vehicle as one that never had it, and rolls more than with it.
    assert!((bare - roll("none")).abs() < 1e-9, "{bare}");
    assert!(bare > roll("leave it connected"));
}

#[test]
fn a_bar_of_more_diameter_goes_with_its_fourth_power() {
    // A splined bar's arms do not bend here: its rate is that of its torsion alone.
    let rate = |diameter: &str| {
        let mut job = roof_tent();
        job.sway.kind = Some(SwayKind::Splined);
        job.sway.diameter = Some(TapeEntry::parse(diameter, Unit::Millimetres).unwrap());
        sway(&job).holes[1].roll_rate_nm_per_deg.unwrap()
    };
    assert!((rate("28") / rate("20") - 1.4_f64.powi(4)).abs() < 1e-9);
}

#[test]
fn a_splined_bars_holes_go_with_one_over_the_arm_squared() {
    let mut job = roof_tent();
    job.sway.kind = Some(SwayKind::Splined);
    let holes = sway(&job).holes;
    let ratios: Vec<f64> = holes.iter().map(|hole| hole.rate_ratio).collect();
    for (ratio, arm) in ratios.iter().zip([9.0_f64, 9.75, 10.5]) {
        assert!((ratio - (9.75 / arm).powi(2)).abs() < 1e-9, "{ratios:?}");
    }
}

#[test]
fn the_parts_of_a_disconnect_are_checked_one_by_one() {
    let good = |job: &Job, name: &str| {
        let checks = sway(job).checks;
        checks
            .iter()
            .find(|check| check.name.inches().starts_with(name))
            .map(|check| check.verdict == FitVerdict::Good)
    };
    let mut job = over_centre();
    // A nut of 13 threads to the inch on a stud of 20 strips; a bolt of 3 in does not come out of 2 1/2.
    assert_eq!(good(&job, "nut on the stud"), Some(false));
    assert_eq!(good(&job, "lower link bolt"), Some(false));
    assert_eq!(good(&job, "stowed sway link"), Some(true));
    assert_eq!(good(&job, "pins go in where"), None);
    job.sway.pins.nut_thread = job.sway.pins.stud_thread.clone();
    job.sway.bolts[0].room = Some(TapeEntry::parse("4 1/2", Unit::Inches).unwrap());
    job.sway.pins.stowed_room = Some(TapeEntry::parse("1/4", Unit::Inches).unwrap());
    job.sway.pins.parked_difference = Some(TapeEntry::parse("1/2", Unit::Inches).unwrap());
    assert_eq!(good(&job, "nut on the stud"), Some(true));
    assert_eq!(good(&job, "lower link bolt"), Some(true));
    assert_eq!(good(&job, "stowed sway link"), Some(false));
    assert_eq!(good(&job, "pins go in where"), Some(false));
    job.sway.pins.stud = Some(TapeEntry::parse("9/16", Unit::Inches).unwrap());
    assert_eq!(good(&job, "stud fits the sway link"), Some(false));
}

#[test]
fn every_way_to_disconnect_twists_at_least_as_far_as_the_bar_connected() {
    for job in [over_centre(), roof_tent()] {
        let choices = sway(&job).vehicle.unwrap().choices;
        let connected =
            choices.iter().find(|choice| choice.name.inches().starts_with("leave it connected")).unwrap();
        for choice in &choices {
            assert!(choice.trail_deg >= connected.trail_deg, "{:?}", choice.choice);
            assert!(choice.road_deg_per_g >= connected.road_deg_per_g, "{:?}", choice.choice);
        }
    }
}

#[test]
fn a_load_on_the_roof_rolls_more_on_the_road() {
    let mut job = roof_tent();
    let loaded = sway(&job).vehicle.unwrap();
    job.vehicle.roof_load = None;
    let bare = sway(&job).vehicle.unwrap();
    for (with, without) in loaded.choices.iter().zip(&bare.choices) {
        assert!(with.road_deg_per_g > without.road_deg_per_g, "{:?}", with.choice);
    }
    // 260 lb at 80 in over a roll axis that is nowhere above 40 in: at least 117.9 kg × g × 1.016 m.
    assert!(loaded.overturning_nm - bare.overturning_nm > 117.9 * 9.81 * 1.016);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(12))]

    /// Whatever the link, the stage answers: no pose of an axle makes it panic, γ stays an angle of a
    /// triangle, and a link that fails is outside of the window.
    #[test]
    fn any_link_is_judged(mm in 60.0_f64..700.0) {
        let links = with_link(mm).links.unwrap();
        if links.open_poses == 0 {
            prop_assert!(links.least_eye_deg.to_degrees() >= 0.0);
            prop_assert!(links.most_eye_deg.to_degrees() <= 180.0);
        }
        let [least, most] = links.window_mm.unwrap().map(Length::to_mm);
        if mm < least - 0.1 || mm > most + 0.1 {
            prop_assert!(links.fails);
        }
        if mm > least + 0.1 && mm < most - 0.1 {
            prop_assert!(!links.fails);
        }
    }
}

/// A level arm's eye and the far end are 8.26892 in apart, whatever link was there: without one that is what to make. What
/// was there changes only how much longer it is told to be.
#[test]
fn a_link_is_sized_from_arm_and_far_end_where_none_is_there() {
    let mut job = over_centre();
    job.sway.link = None;
    let result = sway(&job);
    assert!(result.missing.is_empty(), "{:?}", result.missing);
    let links = result.links.unwrap();
    assert!(links.sized && (links.link_mm.to_mm() - 8.268_92 * 25.4).abs() < 0.01, "{:?}", links.link_mm);
    assert_eq!(progress(&job), Progress::Begun);
    assert_eq!(result.says.inches(), "Make the sway links 8 9/32\"");
    let target = links.targets.iter().find(|target| target.chosen).unwrap();
    assert!(
        target.works && target.change_mm.is_none() && target.says.inches() == "8 9/32\"",
        "{}",
        target.says.inches()
    );
    assert!(!links.window_says.inches().contains("yours"), "{}", links.window_says.inches());
    let with_one = sway(&over_centre()).links.unwrap();
    assert!(!with_one.sized && with_one.targets[0].link_mm == links.targets[0].link_mm);
    // With a far end 3 in under the bar's axis no link works over the travel, and none is told to be made.
    let mut folded = job.clone();
    folded.sway.far_end.height = Some(TapeEntry::parse("22 1/2", Unit::Inches).unwrap());
    let result = sway(&folded);
    let links = result.links.unwrap();
    assert!(links.fails && !result.says.inches().starts_with("Make"), "{}", result.says.inches());
    // What is asked is the far end, and no link; by leans alone it is found along the link that is there.
    let asked =
        |job: &Job| -> Vec<String> { sway(job).missing.into_iter().map(|fault| fault.pointer).collect() };
    job.sway.far_end.height = None;
    assert_eq!(asked(&job), ["/sway/far_end"]);
    job.sway.arm_angle = Some(AngleEntry::parse("5").unwrap());
    assert_eq!(asked(&job), ["/sway/link"]);
}

/// A nut of 13 threads to the inch on a stud of 20: told of the pins alone, with nothing of the bar measured.
#[test]
fn the_parts_of_a_disconnect_are_checked_with_nothing_of_the_bar_measured() {
    let mut job = over_centre();
    job.sway = Sway { kind: job.sway.kind, pins: job.sway.pins, ..Sway::default() };
    let result = sway(&job);
    assert!(!result.missing.is_empty());
    let nut = result.checks.iter().find(|check| check.name.inches().starts_with("nut on the stud")).unwrap();
    assert_eq!(nut.verdict, FitVerdict::Bad);
}

/// A job about the sway bar alone asks for no track bar: the axle goes straight up and down, centred, and the link that levels
/// the arm is the distance of its ends all the same. Said as an assumption, and asked for where the job is about the bar.
#[test]
fn the_sway_bar_alone_needs_no_track_bar() {
    for location in [AxleLocation::LeafSprings, AxleLocation::RadiusArms, AxleLocation::FourArms] {
        let mut job = over_centre();
        job.rig.axle_location = Some(location);
        job.setups = Setups::default();
        job.sheets.clear();
        job.to_do = vec![Purpose::ChooseSwayBar];
        let result = sway(&job);
        assert!(result.missing.is_empty(), "{location:?}: {:?}", result.missing);
        let links = result.links.unwrap();
        let chosen = links.targets.iter().find(|target| target.chosen).unwrap();
        assert!((chosen.link_mm.to_mm() - 8.268_92 * 25.4).abs() < 1.0, "{location:?}: {:?}", chosen.link_mm);
        assert!(links.heave.iter().all(|pose| pose.y_mm.to_mm().abs() < 1e-6), "{location:?}");
        let told = cycle(&job).assumptions;
        assert!(told.iter().any(|assumed| assumed.pointer == "/setups/found/bar/length"), "{location:?}");
    }
    let mut job = over_centre();
    job.rig.axle_location = Some(AxleLocation::LeafSprings);
    job.setups = Setups::default();
    assert_eq!(sway(&job).missing[0].pointer, "/setups/found/bar/length");
}
