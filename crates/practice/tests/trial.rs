//! The trial in small, with the bounds it is wanted to keep, and what may get out of a truth.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::measure::Unit;
use derecho_practice::GroundTruth;
use derecho_practice::technician::Technician;
use derecho_practice::trial::{FurtherReadings, TrialSettings, trial};
use derecho_practice::vehicle::PracticeVehicle;
use serde_json::Value;

static_assertions::assert_not_impl_any!(GroundTruth: serde::Serialize, std::fmt::Display, Default);

fn settings(technician: Technician, threads: usize) -> TrialSettings {
    TrialSettings {
        vehicles: 200,
        seed: 3,
        technician,
        rule_of_thumb: false,
        further: FurtherReadings::Advised,
        threads,
    }
}

#[test]
fn careful_hands_keep_the_bounds() {
    let reported = trial(&settings(Technician::Careful, 2), &|_| {});
    assert!(reported.reported > 180, "{reported:?}");
    assert!(reported.within_after_first as f64 >= 0.97 * reported.reported as f64, "{reported:?}");
    assert_eq!((reported.made_worse, reported.settled_wrong), (0, 0), "{reported:?}");
    // Of 400 intervals the share that holds the truth is good to 1.2 in 100: three of those either way of 94.
    assert!(reported.intervals > 350 && (0.90..=0.98).contains(&reported.coverage), "{reported:?}");
    assert!(
        reported.contacts > 40 && reported.contacts_foretold as f64 > 0.9 * reported.contacts as f64,
        "{reported:?}"
    );
    // On the same vehicles and the same readings: what the bar's angle adds to half the difference is little.
    assert!(reported.thumb_within_after_first <= reported.within_after_first + 2, "{reported:?}");
    assert!(reported.thumb_within_of_all >= reported.thumb_within_after_first, "{reported:?}");
    assert!(reported.eye_within_after_first < reported.thumb_within_after_first, "{reported:?}");
}

#[test]
fn hurried_hands_are_not_told_what_they_cannot_know() {
    let reported = trial(&settings(Technician::Hurried, 2), &|_| {});
    // One in a hundred over many; of so few, one may be.
    assert!(reported.settled > 10 && reported.settled_wrong <= 1, "{reported:?}");
    assert!(reported.reported < 150, "one or two hurried readings do not always tell: {reported:?}");
}

#[test]
fn what_to_read_next_tells_more_than_reading_blindly() {
    let reported = |further| trial(&TrialSettings { further, ..settings(Technician::Careful, 2) }, &|_| {});
    let [advised, blindly, never] =
        [FurtherReadings::Advised, FurtherReadings::Blindly, FurtherReadings::Never].map(reported);
    assert!(
        advised.reported > blindly.reported && blindly.reported >= never.reported,
        "{advised:?} {blindly:?} {never:?}"
    );
    assert!(never.readings < blindly.readings);
}

#[test]
fn one_thread_and_two_count_the_same() {
    for technician in [Technician::Careful, Technician::Hurried] {
        let [one, two] = [1, 2].map(|threads| trial(&settings(technician, threads), &|_| {}));
        assert_eq!(one, two);
    }
    let other = trial(&TrialSettings { seed: 4, ..settings(Technician::Careful, 2) }, &|_| {});
    assert_ne!(other.readings, trial(&settings(Technician::Careful, 2), &|_| {}).readings);
}

#[test]
fn the_rule_of_thumb_is_followed_to_its_end() {
    let thumb = trial(&TrialSettings { rule_of_thumb: true, ..settings(Technician::Hurried, 2) }, &|_| {});
    let derecho = trial(&settings(Technician::Hurried, 2), &|_| {});
    assert_eq!(thumb.settled + thumb.given_up, 200);
    assert!(thumb.settled_wrong >= derecho.settled_wrong, "{thumb:?} {derecho:?}");
}

/// Every length of a job is what a tape shows: a whole graduation. A truth is none, and none gets in.
#[test]
fn a_job_holds_readings_alone() {
    fn lengths(value: &Value, found: &mut Vec<(f64, String)>) {
        match value {
            Value::Object(fields) => {
                if let (Some(mm), Some(unit)) = (fields.get("mm").and_then(Value::as_f64), fields.get("unit"))
                {
                    found.push((mm, unit.as_str().unwrap().to_owned()));
                }
                fields.values().for_each(|value| lengths(value, found));
            }
            Value::Array(items) => items.iter().for_each(|value| lengths(value, found)),
            _ => {}
        }
    }
    for seed in 0..50 {
        let mut vehicle = PracticeVehicle::drawn(seed);
        let job = Technician::Careful.job(&mut vehicle);
        assert_eq!(derecho_job::check(&job), [], "seed {seed}");
        let mut found = Vec::new();
        lengths(&serde_json::to_value(&job).unwrap(), &mut found);
        assert!(found.len() > 20, "{found:?}");
        for (mm, unit) in found {
            let graduation = if unit == "in" { 25.4 / 16.0 } else { 1.0 };
            let over = (mm / graduation - (mm / graduation).round()).abs();
            assert!(over < 1e-6, "seed {seed}: {mm} mm is no reading in {unit}");
        }
        let unit = if vehicle.unit == Unit::Inches { "in" } else { "mm" };
        assert_eq!(serde_json::to_value(job.rig.sheet_unit).unwrap(), unit);
    }
}
