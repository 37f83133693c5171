//! Tools for a bolt and the steps to a hole: what wrench goes on a head and a nut, which drills come before the last.

use super::Thread;
use crate::measure::{Length, Unit};

/// Sizes closer than this are one: half of the nearest two nominal diameters.
const SAME: Length = Length::from_mm(0.2);

/// Bolt diameter, across the flats of its head, across the flats of its nut; mm. ISO 272.
const METRIC: [(f64, f64, f64); 13] = [
    (5.0, 8.0, 8.0),
    (6.0, 10.0, 10.0),
    (8.0, 13.0, 13.0),
    (10.0, 16.0, 16.0),
    (12.0, 18.0, 18.0),
    (14.0, 21.0, 21.0),
    (16.0, 24.0, 24.0),
    (18.0, 27.0, 27.0),
    (20.0, 30.0, 30.0),
    (22.0, 34.0, 34.0),
    (24.0, 36.0, 36.0),
    (27.0, 41.0, 41.0),
    (30.0, 46.0, 46.0),
];

/// The same in sixteenths of an inch: ASME B18.2.1 for heads, B18.2.2 for nuts.
const INCH: [(f64, f64, f64); 12] = [
    (4.0, 7.0, 7.0),
    (5.0, 8.0, 8.0),
    (6.0, 9.0, 9.0),
    (7.0, 10.0, 11.0),
    (8.0, 12.0, 12.0),
    (9.0, 13.0, 14.0),
    (10.0, 15.0, 15.0),
    (12.0, 18.0, 18.0),
    (14.0, 21.0, 21.0),
    (16.0, 24.0, 24.0),
    (18.0, 27.0, 27.0),
    (20.0, 30.0, 30.0),
];

/// Wrenches for the head and for the nut of a hexagon bolt, across the flats; None for a size the tables do not have.
/// The heads of older metric bolts and of flanged ones differ: the tool that fits is the one that fits.
#[must_use]
pub fn across_flats(thread: &Thread) -> Option<[Length; 2]> {
    let scaled = |table: &[(f64, f64, f64)], of: fn(f64) -> Length| {
        let (_, head, nut) =
            table.iter().find(|(diameter, ..)| (of(*diameter) - thread.diameter()).abs() < SAME)?;
        Some([of(*head), of(*nut)])
    };
    if thread.is_metric() {
        scaled(&METRIC, Length::from_mm)
    } else {
        scaled(&INCH, |sixteenths| Length::from_inches(sixteenths / 16.0))
    }
}

/// From this on a hole is made with a hole saw: no hand drill turns a twist drill so wide, 1 1/8 in.
const SAWN: Length = Length::from_mm(28.0);

/// Whether a hole of such a diameter is made with a hole saw after its pilot, and not with twist drills.
///
/// ```
/// use derecho_core::fastener::hex::is_sawn;
/// use derecho_core::measure::Length;
///
/// assert!(is_sawn(Length::from_inches(1.75)) && !is_sawn(Length::from_inches(0.75)));
/// ```
#[must_use]
pub fn is_sawn(hole: Length) -> bool {
    hole > SAWN
}

/// Drills for a hole, smallest first, its own last: a pilot of half its size and at most 1/4 in (6 mm), then never
/// more than that wider at a time. In sizes a drill has: sixteenths of an inch or half millimetres.
///
/// ```
/// use derecho_core::measure::{Length, Unit};
///
/// use derecho_core::fastener::hex::drills;
///
/// // A pilot first, the hole itself last, each wider than the one before.
/// let steps = drills(Length::from_inches(0.5), Unit::Inches);
/// assert!(steps.windows(2).all(|pair| pair[0] < pair[1]));
/// assert_eq!(steps.last().copied(), Some(Length::from_inches(0.5)));
/// // A hole for a bushing is sawn: the saw's pilot, and the saw.
/// assert_eq!(drills(Length::from_inches(1.75), Unit::Inches).len(), 2);
/// ```
#[must_use]
pub fn drills(hole: Length, unit: Unit) -> Vec<Length> {
    let (grain, widest) = match unit {
        Unit::Inches => (Length::from_inches(1.0 / 16.0), Length::from_inches(0.25)),
        Unit::Millimetres => (Length::from_mm(0.5), Length::from_mm(6.0)),
    };
    // A pilot below its grain is no drill.
    let half = grain * (hole / 2.0 / grain + 1e-6).floor();
    let mut next = half.max(grain).min(widest);
    if is_sawn(hole) {
        return vec![next, hole];
    }
    let mut steps = Vec::new();
    while next + grain / 2.0 < hole {
        steps.push(next);
        next = next + widest;
    }
    steps.push(hole);
    steps
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn flats(thread: &str) -> Option<[f64; 2]> {
        let thread = Thread::parse(thread).ok()?;
        across_flats(&thread).map(|sizes| sizes.map(Length::to_mm))
    }

    /// From the standards' own tables.
    #[test]
    fn wrenches_of_common_bolts() {
        assert_eq!(flats("M14x1.5"), Some([21.0, 21.0]));
        assert_eq!(flats("M10x1.5"), Some([16.0, 16.0]));
        // 9/16: a head of 13/16 and a nut of 7/8.
        let [head, nut] = flats("9/16-18").unwrap_or_default();
        assert!((head - 20.6375).abs() < 1e-9 && (nut - 22.225).abs() < 1e-9, "{head} {nut}");
        assert_eq!(flats("1-1/4-12").map(|[head, _]| head), Some(47.625));
        // M22 and 7/8 lie 0.2 mm apart: each has its own.
        assert_eq!(flats("7/8-14").map(|[head, _]| head), Some(33.3375));
        assert_eq!(flats("M38x1.5"), None);
    }

    fn sixteenths(hole: f64) -> Vec<f64> {
        drills(Length::from_inches(hole), Unit::Inches)
            .into_iter()
            .map(|size| size.to_inches() * 16.0)
            .collect()
    }

    /// 1/4 then 1/2, as it is done by hand; 5/8 wants one more.
    #[test]
    fn pilot_and_steps() {
        let near = |reported: &[f64], wanted: &[f64]| {
            reported.len() == wanted.len() && reported.iter().zip(wanted).all(|(a, b)| (a - b).abs() < 1e-9)
        };
        assert!(near(&sixteenths(0.5), &[4.0, 8.0]), "{:?}", sixteenths(0.5));
        assert!(near(&sixteenths(0.625), &[4.0, 8.0, 10.0]), "{:?}", sixteenths(0.625));
        assert!(near(&sixteenths(0.375), &[3.0, 6.0]), "{:?}", sixteenths(0.375));
        let metric: Vec<f64> =
            drills(Length::from_mm(14.0), Unit::Millimetres).into_iter().map(Length::to_mm).collect();
        assert_eq!(metric, [6.0, 12.0, 14.0]);
    }

    proptest! {
        /// A pilot and the saw, whatever the saw's size: nobody turns seven twist drills for a bushing.
        #[test]
        fn a_wide_hole_is_sawn(mm in 29.0..120.0_f64, metric: bool) {
            let unit = if metric { Unit::Millimetres } else { Unit::Inches };
            let steps = drills(Length::from_mm(mm), unit);
            prop_assert_eq!(steps.len(), 2);
            prop_assert!(steps[0].to_mm() <= 6.35 + 1e-9 && (steps[1].to_mm() - mm).abs() < 1e-9);
        }

        /// Always rising, never by more than a quarter of an inch, and the hole itself last.
        #[test]
        fn drills_rise_to_the_hole(mm in 2.0..28.0_f64, metric: bool) {
            let unit = if metric { Unit::Millimetres } else { Unit::Inches };
            let steps = drills(Length::from_mm(mm), unit);
            prop_assert!((steps[steps.len() - 1].to_mm() - mm).abs() < 1e-9);
            prop_assert!(steps[0].to_mm() <= 6.35 + 1e-9 || steps.len() == 1);
            for pair in steps.windows(2) {
                let step = (pair[1] - pair[0]).to_mm();
                prop_assert!(step > 0.0 && step <= 6.35 + 25.4 / 32.0 + 1e-9, "{steps:?}");
            }
        }
    }
}
