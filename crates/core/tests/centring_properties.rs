//! What must hold of every centring sheet, whatever was read.

#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::measure::centring::{Answer, Centring, Readings, Sense, centring};
use derecho_core::measure::squareness::{AxleEnd, squareness};
use derecho_core::measure::{Angle, Length};
use proptest::prelude::*;

fn mm(values: &[f64]) -> Vec<Length> {
    values.iter().copied().map(Length::from_mm).collect()
}

fn of(left: &[f64], right: &[f64], change: impl Fn(&mut Readings<'_>)) -> Centring {
    let (left, right) = (mm(left), mm(right));
    let mut readings = Readings {
        left: &left,
        right: &right,
        sense: Sense::Outward,
        feature_uncertainty: Length::from_mm(0.8),
        resolution: Length::from_mm(1.0),
        usual_spread: Length::from_mm(1.0),
        tolerance: Length::from_mm(3.0),
        plumb: None,
        lean: None,
    };
    change(&mut readings);
    centring(&readings).unwrap()
}

fn as_read(left: &[f64], right: &[f64]) -> Centring {
    of(left, right, |_| {})
}

fn side() -> impl Strategy<Value = Vec<f64>> {
    prop::collection::vec(50.0_f64..400.0, 1..8)
}

fn close(a: Length, b: Length) -> bool {
    (a - b).abs().to_mm() < 1e-9
}

/// The share of a normal distribution about `e` that lies within ± `tolerance`, summed up by Simpson's rule over eight
/// standard deviations.
fn within(e: f64, standard: f64, tolerance: f64) -> f64 {
    let density = |x: f64| (-0.5 * (x / standard).powi(2)).exp() / (standard * std::f64::consts::TAU.sqrt());
    let (from, to) = ((-tolerance - e).max(-8.0 * standard), (tolerance - e).min(8.0 * standard));
    if to <= from {
        return 0.0;
    }
    let steps = 2000;
    let step = (to - from) / f64::from(steps);
    let weight = |index: i32| {
        if index == 0 || index == steps {
            1.0
        } else if index % 2 == 1 {
            4.0
        } else {
            2.0
        }
    };
    (0..=steps).map(|index| weight(index) * density(from + f64::from(index) * step)).sum::<f64>() * step / 3.0
}

proptest! {
    #[test]
    fn tape_held_further_along_on_both_sides_changes_nothing(left in side(), right in side(), along in -40.0_f64..40.0) {
        let moved = |side: &[f64]| side.iter().map(|r| r + along).collect::<Vec<_>>();
        let (one, other) = (as_read(&left, &right), as_read(&moved(&left), &moved(&right)));
        prop_assert!(close(one.offset_mm, other.offset_mm));
        prop_assert!(close(one.uncertainty_mm, other.uncertainty_mm));
    }

    #[test]
    fn moving_the_axle_moves_the_offset_by_as_much(left in side(), right in side(), by in -40.0_f64..40.0) {
        // An axle that goes left by `by` reads `by` more on the left and less on the right.
        let further: Vec<f64> = left.iter().map(|r| r + by).collect();
        let nearer: Vec<f64> = right.iter().map(|r| r - by).collect();
        let (one, other) = (as_read(&left, &right), as_read(&further, &nearer));
        prop_assert!(close(other.offset_mm - one.offset_mm, Length::from_mm(by)));
    }

    #[test]
    fn the_order_of_repeats_does_not_matter(left in side(), right in side()) {
        let turned = |side: &[f64]| side.iter().rev().copied().collect::<Vec<_>>();
        let (one, other) = (as_read(&left, &right), as_read(&turned(&left), &turned(&right)));
        prop_assert!(close(one.offset_mm, other.offset_mm));
        prop_assert!(close(one.uncertainty_mm, other.uncertainty_mm));
    }

    #[test]
    fn repeats_that_agree_make_it_surer_but_never_surer_than_the_feature(
        reading in 50.0_f64..400.0, count in 1_usize..20,
    ) {
        let fewer = as_read(&vec![reading; count], &vec![reading; count]);
        let more = as_read(&vec![reading; count + 1], &vec![reading; count + 1]);
        prop_assert!(more.uncertainty_mm < fewer.uncertainty_mm);
        prop_assert!(more.uncertainty_mm > Length::from_mm(2.0 * 0.8));
    }

    #[test]
    fn the_answer_follows_from_offset_uncertainty_and_tolerance(left in side(), right in side(), tolerance in 0.5_f64..60.0) {
        let result = of(&left, &right, |readings| readings.tolerance = Length::from_mm(tolerance));
        let (e, u) = (result.offset_mm.abs().to_mm(), result.uncertainty_mm.to_mm());
        let likely = within(e, u / 2.0, tolerance);
        prop_assert!((result.within_probability - likely).abs() < 1e-6, "{} {likely}", result.within_probability);
        // What lies on the border itself may fall either way.
        prop_assume!((likely - 0.95).abs() > 1e-6);
        match result.answer {
            Answer::WithinTolerance => prop_assert!(likely > 0.95),
            Answer::CannotTell => prop_assert!(likely < 0.95 && e <= u),
            Answer::OffCentre => prop_assert!(likely < 0.95 && e > u),
        }
        let centred = within(0.0, u / 2.0, tolerance);
        prop_assume!((centred - 0.95).abs() > 1e-6);
        prop_assert_eq!(result.method_can_prove, centred > 0.95);
        // The smallest tolerance that it proves is the one at which 95 in 100 are reached.
        let provable = result.provable_mm.to_mm();
        prop_assert!(within(e, u / 2.0, provable) >= 0.95 - 1e-6 && within(e, u / 2.0, provable - 0.02) < 0.95);
        if result.answer == Answer::WithinTolerance {
            prop_assert!(result.method_can_prove, "what cannot be proved is never called proved");
        }
    }

    #[test]
    fn the_spread_of_many_repeats_is_their_own(scatter in 0.5_f64..8.0) {
        // Fifty pairs at ± scatter: the sum of squares is 200·scatter², with 198 degrees of
        // freedom beside the six of the prior.
        let side: Vec<f64> = (0..100).map(|at| if at % 2 == 0 { 100.0 + scatter } else { 100.0 - scatter }).collect();
        let result = as_read(&side, &side);
        let by_hand = ((6.0 + 200.0 * scatter * scatter) / 204.0).sqrt();
        prop_assert!((result.spread_mm.to_mm() - by_hand).abs() < 1e-9);
    }

    #[test]
    fn a_plumb_line_on_a_level_floor_needs_no_correction(left in side(), right in side(), drop in 100.0_f64..900.0) {
        let hung = of(&left, &right, |readings| {
            readings.plumb = Some((Length::from_mm(drop), Angle::ZERO));
        });
        prop_assert!(close(hung.offset_mm, as_read(&left, &right).offset_mm));
    }

    #[test]
    fn floor_and_lean_work_on_the_offset_and_never_on_the_uncertainty(
        left in side(), right in side(), slope in -3.0_f64..3.0, lean in -5.0_f64..5.0,
    ) {
        let plain = as_read(&left, &right);
        let both = of(&left, &right, |readings| {
            readings.plumb = Some((Length::from_mm(400.0), Angle::from_degrees(slope)));
            readings.lean = Some((Length::from_mm(150.0), Angle::from_degrees(lean)));
        });
        let wanted = plain.offset_mm.to_mm() - 400.0 * slope.to_radians().tan() + 150.0 * lean.to_radians().sin();
        prop_assert!((both.offset_mm.to_mm() - wanted).abs() < 1e-9);
        prop_assert!(close(both.uncertainty_mm, plain.uncertainty_mm));
    }

    #[test]
    fn a_square_axle_stays_square_when_both_wheelbases_grow(base in 2000.0_f64..4000.0, more in 0.0_f64..300.0) {
        let both = mm(&[base, base + 2.0]);
        let grown = mm(&[base + more, base + 2.0 + more]);
        for side in [both, grown] {
            let result = squareness(AxleEnd::Front, &side, &side, Length::from_mm(1500.0), Length::from_mm(1.0)).unwrap();
            prop_assert_eq!(result.yaw_deg, Angle::ZERO);
        }
    }

    #[test]
    fn the_yaw_gives_the_difference_back(difference in -200.0_f64..200.0, between in 800.0_f64..2000.0) {
        let (left, right) = (mm(&[3000.0 + difference]), mm(&[3000.0]));
        let result = squareness(AxleEnd::Rear, &left, &right, Length::from_mm(between), Length::ZERO).unwrap();
        prop_assert!((result.yaw_deg.sin() * between - difference).abs() < 1e-9);
    }
}

#[test]
fn the_working_shows_this_sheets_numbers() {
    let result = as_read(&[110.0, 112.0], &[100.0, 98.0]);
    let first = &result.working.steps[0];
    assert_eq!(first.formula, "e = (l̄ − r̄) / 2");
    assert_eq!(first.numbers.millimetres, "(111.00 − 99.00) / 2");
    assert_eq!(first.result.millimetres, "6.00 mm");
    // 111 mm is 4.370079 in, 99 mm is 3.897638 in, 6 mm is 0.236220 in.
    assert_eq!(first.numbers.inches, "(4.3701 − 3.8976) / 2");
    assert_eq!(first.result.inches, "0.2362 in");
}

#[test]
fn a_sheet_with_corrections_shows_each_in_its_own_line() {
    let result = of(&[110.0], &[100.0], |readings| {
        readings.plumb = Some((Length::from_mm(400.0), Angle::from_degrees(1.0)));
        readings.lean = Some((Length::from_mm(100.0), Angle::from_degrees(30.0)));
    });
    let results: Vec<&str> =
        result.working.steps.iter().map(|step| step.result.millimetres.as_str()).collect();
    // 5 by halves; 400·tan 1° = 6.982 taken off; 100·sin 30° = 50 added; 48.018 in all.
    assert_eq!(&results[..4], ["5.00 mm", "6.98 mm", "50.00 mm", "48.02 mm"]);
}
