//! Finding the rise: what heights and finder must agree on, whatever the bar.

#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::bar::FrontView;
use derecho_core::bar::evidence::{BarEnd, FinderReading, FinderZero, Rise, RiseSource, rise};
use derecho_core::fastener::Thread;
use derecho_core::measure::{Angle, AngleEntry, Length, Side};
use proptest::prelude::*;

fn mm(value: f64) -> Length {
    Length::from_mm(value)
}

fn finder(degrees: f64, zero: FinderZero) -> FinderReading {
    FinderReading {
        reading: Angle::from_degrees(degrees.abs()),
        higher_end: if degrees >= 0.0 { BarEnd::Frame } else { BarEnd::Axle },
        zero,
        good_to: Angle::from_degrees(0.2),
    }
}

fn by_finder(length: f64, side: Side, reading: FinderReading, slope: f64) -> Rise {
    rise(mm(length), side, None, mm(1.5), Some(reading), Angle::from_degrees(slope)).unwrap()
}

fn side() -> impl Strategy<Value = Side> {
    prop::sample::select(vec![Side::Left, Side::Right])
}

proptest! {
    #[test]
    fn a_finder_laid_on_the_bar_finds_the_rise_of_its_ends(
        length in 500.0_f64..1300.0, degrees in -40.0_f64..40.0, fore_aft in -0.3_f64..0.3, side in side(),
    ) {
        // Make the bar in space: the finder shows its slope against the horizontal plane.
        let v = length * degrees.to_radians().sin();
        let found = by_finder(length, side, finder(degrees, FinderZero::FloorOrFrame), 0.0);
        prop_assert!((found.rise_mm.to_mm() - v).abs() < 1e-9);
        // The front view then closes on the bar's length, fore-aft offset and all.
        let Ok(view) = FrontView::new(mm(length), found.rise_mm, mm(length * fore_aft), side) else { return Ok(()) };
        let closed = view.reach().to_mm().hypot(v).hypot(length * fore_aft);
        prop_assert!((closed - length).abs() < 1e-9);
    }

    #[test]
    fn tipping_floor_and_vehicle_together_does_not_move_the_rise(
        degrees in -20.0_f64..20.0, slope in -5.0_f64..5.0, side in side(),
    ) {
        // On a floor higher on the left by β everything leans: a bar with its frame eye on the
        // left reads β more, one with it on the right β less.
        let leant = degrees + side.sign() * slope;
        let level = by_finder(800.0, side, finder(degrees, FinderZero::Gravity), 0.0);
        let tipped = by_finder(800.0, side, finder(leant, FinderZero::Gravity), slope);
        prop_assert!((level.rise_mm - tipped.rise_mm).abs().to_mm() < 1e-9);
    }

    #[test]
    fn turning_the_bar_end_for_end_turns_the_sign(degrees in 0.1_f64..40.0, side in side()) {
        let up = by_finder(900.0, side, finder(degrees, FinderZero::Gravity), 0.0);
        let down = by_finder(900.0, side, finder(-degrees, FinderZero::Gravity), 0.0);
        prop_assert_eq!(up.rise_mm, -down.rise_mm);
        prop_assert_eq!(up.uncertainty_mm, down.uncertainty_mm);
    }

    #[test]
    fn a_disagreement_is_reported_exactly_when_it_is_beyond_both_uncertainties(
        off in -12.0_f64..12.0, degrees in -20.0_f64..20.0,
    ) {
        let v = 800.0 * degrees.to_radians().sin();
        let found = rise(
            mm(800.0),
            Side::Left,
            Some((mm(500.0 + v - off), mm(500.0))),
            mm(1.5),
            Some(finder(degrees, FinderZero::Gravity)),
            Angle::ZERO,
        )
        .unwrap();
        let of_finder = 800.0 * degrees.to_radians().cos() * 0.2_f64.to_radians();
        let allowed = (2.0 * 1.5_f64.powi(2) + of_finder.powi(2)).sqrt();
        prop_assert_eq!(found.disagreement_mm.is_some(), off.abs() > allowed);
        prop_assert_eq!(found.source, RiseSource::Heights);
        prop_assert!((found.rise_mm.to_mm() - (v - off)).abs() < 1e-9);
    }

    #[test]
    fn every_sensible_inch_thread_is_read_in_each_spelling(eighths in 3_u32..20, per_inch in 8_u32..28) {
        let (whole, part) = (eighths / 8, eighths % 8);
        let diameter = match (whole, part) {
            (whole, 0) => vec![format!("{whole}")],
            (0, part) => vec![format!("{part}/8")],
            (whole, part) => vec![format!("{whole}-{part}/8"), format!("{whole} {part}/8")],
        };
        for spelling in diameter {
            let thread = Thread::parse(&format!("{spelling}-{per_inch}")).unwrap();
            prop_assert!((thread.diameter().to_mm() - 3.175 * f64::from(eighths)).abs() < 1e-9);
            prop_assert!((thread.pitch().to_mm() * f64::from(per_inch) - 25.4).abs() < 1e-9);
        }
    }

    #[test]
    fn every_metric_thread_is_read_in_each_spelling(diameter in 6_u32..60, quarters in 2_u32..24) {
        let pitch = f64::from(quarters) / 4.0;
        for cross in ["x", "X", "×", "-", " x "] {
            let thread = Thread::parse(&format!("M{diameter}{cross}{pitch}")).unwrap();
            prop_assert_eq!(thread.diameter().to_mm(), f64::from(diameter));
            prop_assert_eq!(thread.pitch().to_mm(), pitch);
        }
    }

    #[test]
    fn no_text_makes_the_thread_or_the_angle_reader_panic(text in "\\PC{0,16}") {
        let _ = Thread::parse(&text);
        if let Ok(angle) = AngleEntry::parse(&text) {
            prop_assert!(angle.angle().to_degrees().abs() <= 89.0 + 1e-9);
        }
    }
}
