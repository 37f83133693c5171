//! What to read next: every figure worked by hand from what the readings are good to.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_job::Job;
use derecho_job::bar::further::Further;
use derecho_job::bar::next::NextReading;
use derecho_results::next;
use derecho_words::Spoken as _;
use serde_json::{Value, json};

fn readings(values: &[f64]) -> Vec<Value> {
    values.iter().map(|mm| json!({ "text": format!("{mm}"), "unit": "mm" })).collect()
}

/// A job of one sheet in millimetres and nothing else.
fn sheet(method: &str, left: &[f64], right: &[f64]) -> Job {
    let document = json!({ "format": "derecho-job", "version": 7, "title": "Next", "rig": { "sheet_unit": "mm" },
        "sheets": [{ "id": "a", "kind": "centring", "method": method, "unit": "mm",
            "left": readings(left), "right": readings(right) }] });
    serde_json::from_value(document).unwrap()
}

fn to(next: &NextReading, reading: Further) -> Option<f64> {
    next.options.iter().find(|option| option.reading == reading).map(|option| option.to_mm.to_mm())
}

/// U = 2√(¼(s²/n_l + s²/n_r + 2g²/12) + u²), g = 1 mm.
fn by_hand(spread: f64, left: f64, right: f64, feature: f64) -> f64 {
    let square = spread * spread;
    2.0 * ((square / left + square / right + 2.0 / 12.0) / 4.0 + feature * feature).sqrt()
}

#[test]
fn the_side_read_less_often_is_the_one_to_read_again() {
    // Left deviates by ±1 twice (squares 4), right by nothing: s² = (6·1 + 4)/(6 + 4 − 2 + ...) by hand below.
    let job = sheet("frame_to_hub", &[110.0, 112.0, 110.0, 112.0], &[100.0]);
    let next = next(&job).unwrap();
    // Freedom 4 + 1 − 2 = 3; s² = (6 + 4)/(6 + 3).
    let spread = (10.0_f64 / 9.0).sqrt();
    assert!((next.now_mm.to_mm() - by_hand(spread, 4.0, 1.0, 0.8)).abs() < 1e-9);
    assert_eq!(next.options[0].reading, Further::RepeatRight);
    assert!((to(&next, Further::RepeatRight).unwrap() - by_hand(spread, 4.0, 2.0, 0.8)).abs() < 1e-9);
    // Hub is the best feature there is, and no bar was measured.
    assert_eq!(to(&next, Further::BetterFeature), None);
    assert_eq!(to(&next, Further::HeightsAgain), None);
    assert!(
        next.says
            .in_unit(derecho_core::measure::Unit::Millimetres)
            .contains("one more measurement on the right")
    );
}

#[test]
fn a_poor_feature_is_left_before_it_is_repeated() {
    let job = sheet("body_to_sidewall", &[110.0; 4], &[100.0; 4]);
    let next = next(&job).unwrap();
    // Equal readings: s² = 6/(6 + 6).
    let spread = 0.5_f64.sqrt();
    assert!((next.now_mm.to_mm() - by_hand(spread, 4.0, 4.0, 3.0)).abs() < 1e-9);
    assert_eq!(next.options[0].reading, Further::BetterFeature);
    assert!((next.options[0].to_mm.to_mm() - by_hand(spread, 4.0, 4.0, 0.8)).abs() < 1e-9);
    // Good to more than the tolerance of 3 mm: it is said unasked.
    assert!(next.recommended);
    // One more repeat is worth less than two in a hundred beside ±6 mm of the feature: it is no offer.
    assert_eq!(to(&next, Further::RepeatLeft), None);
}

#[test]
fn nothing_is_reported_of_nothing_and_little_is_not_recommended() {
    assert_eq!(next(&sheet("frame_to_hub", &[110.0], &[])), None);
    let sure = next(&sheet("frame_to_hub", &[110.0], &[100.0])).unwrap();
    assert!(!sure.recommended, "5 mm off, good to 2.2");
    // By hand: four repeats of a spread of √½ each side, U = 1.73; a fifth makes it 1.72, which is no reason.
    assert_eq!(next(&sheet("frame_to_hub", &[110.0; 4], &[100.0; 4])), None);
}

/// With a bar the change of length is what narrows, by the draws that tell how sure it is: as it stands now it is the
/// half of that interval, and nothing further makes it wider.
#[test]
fn with_a_bar_the_change_of_length_narrows() {
    let mut met = 0;
    for text in [
        include_str!("../../../demo/lookout-truck-7.derecho.json"),
        include_str!("../../../demo/lookout-truck-12.derecho.json"),
        include_str!("../../../demo/water-tender-3.derecho.json"),
        include_str!("../../../demo/relay-van-2.derecho.json"),
        include_str!("../../../demo/tower-truck-8.derecho.json"),
    ] {
        let job: Job = serde_json::from_str(text).unwrap();
        let drawn = derecho_results::uncertainty(&job);
        let change = drawn.iter().flat_map(|drawn| &drawn.intervals).find(|one| one.name == "change_mm");
        let Some((next, change)) = next(&job).zip(change) else { continue };
        met += 1;
        let half = (change.high - change.low) / 2.0;
        // 2,000 draws against 10,000: quantiles of 95 in 100 scatter by about two in a hundred.
        assert!((next.now_mm.to_mm() / half - 1.0).abs() < 0.06, "{} {half}", next.now_mm.to_mm());
        assert!(next.options.iter().all(|option| option.to_mm < next.now_mm));
        assert!(next.options.windows(2).all(|pair| pair[0].to_mm <= pair[1].to_mm), "the best first");
    }
    assert!(met >= 2, "{met} of the samples have a change to narrow");
}

/// An instrument's own step and what it is good to count in the sheet it was read into: ±1 mm a reading is a deviation
/// of ½, and of half the difference of two ½/√2; a step of 0.1 mm instead of the tape's 1 mm.
#[test]
fn an_instrument_brings_what_it_is_good_to() {
    let mut job = sheet("frame_to_hub", &[110.0; 2], &[100.0; 2]);
    let plain = derecho_results::solve(&job).sheets[0].centring.clone().unwrap();
    let instrument = |checked: Option<&str>, overdue: bool| {
        serde_json::from_value(json!({ "id": "tape-4", "resolution": { "text": "0.1", "unit": "mm" },
            "good_to": { "text": "1", "unit": "mm" }, "checked": checked, "overdue": overdue }))
        .unwrap()
    };
    job.sheets[0].instrument = Some(instrument(Some("2026-05-12"), false));
    let results = derecho_results::solve(&job);
    let read = results.sheets[0].centring.clone().unwrap();
    // s² = 6/8; u² = ¼(2 · ¾/2 + 2 · 0.01/12) + 0.8² + ⅛.
    let by_hand = 2.0 * ((0.75 + 0.02 / 12.0) / 4.0 + 0.64 + 0.125_f64).sqrt();
    assert!(
        (read.uncertainty_mm.to_mm() - by_hand).abs() < 1e-9,
        "{} {by_hand}",
        read.uncertainty_mm.to_mm()
    );
    assert_eq!(read.offset_mm, plain.offset_mm);
    let overdue = |job: &Job| {
        let reported = derecho_results::solve(job).sheets[0].second_thoughts.clone();
        reported.iter().any(|says| says.in_unit(derecho_core::measure::Unit::Inches).contains("overdue"))
    };
    assert!(!overdue(&job));
    job.sheets[0].instrument = Some(instrument(None, true));
    assert!(overdue(&job));
    assert_eq!(derecho_job::check(&job), []);
}
