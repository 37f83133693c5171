//! The quick model against the public worked example, closed forms, numeric roots,
//! symmetry and the constancy of the bar's length.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::bar::front_view::BarFault;
use derecho_core::bar::{FrontView, sweep};
use derecho_core::measure::{Length, Side};
use proptest::prelude::*;

fn inches(value: f64) -> Length {
    Length::from_inches(value)
}

fn mm(value: f64) -> Length {
    Length::from_mm(value)
}

fn bar(length: f64, rise: f64, fore_aft: f64, side: Side) -> FrontView {
    FrontView::new(mm(length), mm(rise), mm(fore_aft), side).unwrap()
}

#[test]
fn the_worked_example_to_its_digits() {
    let stock = FrontView::new(inches(32.0), inches(2.0), Length::ZERO, Side::Left).unwrap();
    assert_eq!(format!("{:.4}", stock.reach().to_inches()), "31.9374");
    let lifted = stock.raised_by(inches(4.0)).unwrap();
    assert_eq!(lifted.rise(), inches(6.0));
    assert_eq!(format!("{:.4}", lifted.reach().to_inches()), "31.4325");
    let shift = stock.shift_of_lift(inches(4.0)).unwrap();
    assert_eq!(format!("{:.4}", shift.to_inches()), "0.5050");
    assert_eq!(format!("{:.3}", lifted.angle().to_degrees()), "10.807");
    assert_eq!(format!("{:.5}", lifted.lateral_rate()), "-0.19089");
    let wanted = lifted.recentred(shift).unwrap();
    assert_eq!(format!("{:.4}", wanted.length_mm.to_inches()), "32.4962");
    assert_eq!(format!("{:.4}", wanted.change_mm.to_inches()), "0.4962");
    assert_eq!(format!("{:.4}", wanted.thumb_change_mm.to_inches()), "0.5050");
    assert_eq!(format!("{:.4}", wanted.thumb_cost_mm.to_inches()), "0.0088");
}

#[test]
fn a_drop_past_level_moves_it_towards_the_frame_eye_again() {
    // 3-4-5: reach 400 with the frame end 300 up, 400 with it 300 down, 500 level.
    let high = bar(500.0, 300.0, 0.0, Side::Right);
    assert_eq!(high.reach().to_mm(), 400.0);
    assert_eq!(high.shift_of_lift(mm(-600.0)).unwrap().to_mm(), 0.0);
    // Down to level the reach grows by 100: away from the right, towards the left.
    assert_eq!(high.shift_of_lift(mm(-300.0)).unwrap().to_mm(), 100.0);
}

#[test]
fn a_fore_aft_offset_shortens_the_reach() {
    // 2-3-6-7: 7² = 2² + 3² + 6².
    let view = bar(700.0, 200.0, 300.0, Side::Left);
    assert!((view.reach().to_mm() - 600.0).abs() < 1e-9);
    let (droop, bump) = view.pulled_tight();
    // √(700² − 300²) = 632.4555
    assert!((droop.to_mm() - (200.0 - 632.455_532_033_675_9)).abs() < 1e-9);
    assert!((bump.to_mm() - (200.0 + 632.455_532_033_675_9)).abs() < 1e-9);
}

#[test]
fn pulled_tight_is_a_limit_with_its_travel_not_a_nan() {
    let view = bar(500.0, 300.0, 0.0, Side::Left);
    let swing = view.swing(mm(400.0), mm(100.0));
    assert_eq!(swing.tight_in_droop_mm, Some(mm(-200.0)));
    assert_eq!(swing.tight_in_bump_mm, None);
    // At the limit the bar hangs straight: the reach of 400 is gone.
    assert_eq!(swing.at_full_droop_mm.to_mm(), 400.0);
}

#[test]
fn the_level_point_counts_into_the_swing() {
    // Level at 100 bump; symmetric about it the ends are equal, the middle is furthest.
    let view = bar(1000.0, 100.0, 0.0, Side::Left);
    let swing = view.swing(mm(0.0), mm(200.0));
    assert!(swing.level_inside);
    assert!((swing.at_full_bump_mm - swing.at_full_droop_mm).abs().to_mm() < 1e-9);
    assert!((swing.peak_to_peak_mm.to_mm() - (1000.0 - 990_000.0_f64.sqrt())).abs() < 1e-9);
    let outside = view.swing(mm(200.0), mm(50.0));
    assert!(!outside.level_inside);
}

#[test]
fn impossible_bars_are_refused_by_name() {
    let of = |l, v, d| FrontView::new(mm(l), mm(v), mm(d), Side::Left);
    assert_eq!(of(0.0, 0.0, 0.0), Err(BarFault::NoLength));
    assert_eq!(of(f64::NAN, 0.0, 0.0), Err(BarFault::NoLength));
    assert_eq!(of(500.0, 500.0, 0.0), Err(BarFault::TooShort));
    assert_eq!(of(500.0, 400.0, 300.0), Err(BarFault::TooShort));
    assert_eq!(bar(500.0, 300.0, 0.0, Side::Left).recentred(mm(-400.0)), Err(BarFault::TooShort));
}

#[test]
fn a_longer_bar_has_a_smaller_rate_but_swings_past_the_body_centre_the_other_way() {
    let found = bar(812.8, 152.4, 0.0, Side::Left);
    let offset = mm(12.8);
    let wanted = found.recentred(offset).unwrap();
    let planned = found.with_length(wanted.length_mm).unwrap();
    assert!(planned.lateral_rate().abs() < found.lateral_rate().abs());
    let samples =
        sweep::sweep((&found, offset), (&planned, Length::ZERO), Length::ZERO, mm(100.0), mm(100.0));
    let at_bump = samples.last().unwrap();
    assert!(at_bump.planned_mm < Length::ZERO, "the axle goes to the right in bump");
    assert!(at_bump.found_mm.abs() < at_bump.planned_mm.abs());
}

#[test]
fn a_sweep_passes_through_the_driven_height_with_the_offset_read_there() {
    // Driven 50 up: the body is higher, so the axle hangs at travel −50.
    let driven = mm(-50.0);
    let found = bar(800.0, 120.0, 30.0, Side::Right);
    let samples = sweep::sweep((&found, mm(9.0)), (&found, mm(0.0)), driven, mm(150.0), mm(150.0));
    let near = samples
        .iter()
        .min_by(|a, b| (a.travel_mm - driven).abs().partial_cmp(&(b.travel_mm - driven).abs()).unwrap());
    assert!((near.unwrap().found_mm.to_mm() - 9.0).abs() < 0.2);
    // Each sample keeps the bar's length: h² + v(t)² + d² = L².
    for sample in &samples {
        let reach = found.reach().to_mm() + (sample.found_mm.to_mm() - 9.0);
        let rise = 120.0 - (sample.travel_mm - driven).to_mm();
        assert!((reach.hypot(rise).hypot(30.0) - 800.0).abs() < 1e-9);
    }
}

/// Any bar a vehicle could have, with its eyes no steeper than about 40°.
fn any_bar() -> impl Strategy<Value = FrontView> {
    (500.0_f64..1300.0, -0.6_f64..0.6, -0.3_f64..0.3, prop::bool::ANY).prop_map(|(length, v, d, left)| {
        let side = if left { Side::Left } else { Side::Right };
        bar(length, length * v, length * d, side)
    })
}

proptest! {
    #[test]
    fn the_length_found_is_the_root_of_the_offset(view in any_bar(), offset in -40.0_f64..40.0) {
        // Bisection on the closed form's own definition, the distance of two points.
        let s = view.frame_eye_side().sign();
        let (mut low, mut high) = (view.length().to_mm() - 120.0, view.length().to_mm() + 120.0);
        let leftover = |length: f64| {
            let h = (length.powi(2) - view.rise().to_mm().powi(2) - view.fore_aft().to_mm().powi(2)).max(0.0).sqrt();
            h - view.reach().to_mm() - s * offset
        };
        for _ in 0..80 {
            let middle = 0.5 * (low + high);
            if leftover(middle) < 0.0 { low = middle } else { high = middle }
        }
        let found = view.recentred(mm(offset)).unwrap().length_mm.to_mm();
        prop_assert!((found - low).abs() < 1e-6, "{found} against {low}");
    }

    #[test]
    fn setting_that_length_moves_the_axle_by_the_offset(view in any_bar(), offset in -40.0_f64..40.0) {
        let wanted = view.recentred(mm(offset)).unwrap();
        let moved = view.shift_of_length(wanted.length_mm).unwrap();
        prop_assert!((moved.to_mm() + offset).abs() < 1e-9);
    }

    #[test]
    fn the_rate_is_the_slope_of_the_shift(view in any_bar()) {
        let step = 0.01;
        let slope = (view.shift_at(mm(step)) - view.shift_at(mm(-step))).to_mm() / (2.0 * step);
        prop_assert!((slope - view.lateral_rate()).abs() < 1e-5);
    }

    #[test]
    fn left_and_right_are_mirror_images(view in any_bar(), travel in -100.0_f64..100.0) {
        let other = FrontView::new(view.length(), view.rise(), view.fore_aft(), view.frame_eye_side().other()).unwrap();
        prop_assert_eq!(view.shift_at(mm(travel)), -other.shift_at(mm(travel)));
        prop_assert_eq!(view.angle_at(mm(travel)), other.angle_at(mm(travel)));
    }

    #[test]
    fn up_and_down_again_is_where_it_was(view in any_bar(), lift in -100.0_f64..100.0) {
        let Ok(raised) = view.raised_by(mm(lift)) else { return Ok(()) };
        let there = view.shift_of_lift(mm(lift)).unwrap();
        let back = raised.shift_of_lift(mm(-lift)).unwrap();
        prop_assert!((there + back).abs().to_mm() < 1e-9);
        // And a lift is a droop of the same size.
        prop_assert!((there - view.shift_at(mm(-lift))).abs().to_mm() < 1e-9);
    }

    #[test]
    fn no_sample_strays_outside_the_swing(view in any_bar(), droop in 10.0_f64..250.0, bump in 10.0_f64..250.0) {
        let swing = view.swing(mm(droop), mm(bump));
        let samples = sweep::sweep((&view, Length::ZERO), (&view, Length::ZERO), Length::ZERO, mm(droop), mm(bump));
        let shifts: Vec<f64> = samples.iter().map(|s| s.found_mm.to_mm()).collect();
        let spread = shifts.iter().copied().fold(f64::MIN, f64::max) - shifts.iter().copied().fold(f64::MAX, f64::min);
        prop_assert!(shifts.iter().all(|shift| shift.is_finite()));
        // Where a bar is pulled tight the reach goes to nought like a root: the last bit of a
        // travel is worth a hundred-thousandth of a millimetre there.
        prop_assert!(spread <= swing.peak_to_peak_mm.to_mm() + 1e-4);
        prop_assert!(spread >= swing.peak_to_peak_mm.to_mm() - 0.05);
    }
}
