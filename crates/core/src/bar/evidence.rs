//! How much higher the frame eye is than the axle eye: from two bolt heights, from
//! an angle finder laid along the bar, or both.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::measure::{Angle, Length, Side};

/// One end of the bar.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BarEnd {
    /// The end on the frame.
    Frame,
    /// The end on the axle.
    Axle,
}

/// What the finder was zeroed on.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FinderZero {
    /// On gravity: a sloping floor must be taken off.
    #[default]
    Gravity,
    /// On the floor the vehicle stands on, or on its frame: nothing to take off.
    FloorOrFrame,
}

/// A finder reading along the bar.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct FinderReading {
    /// The angle from level, without a sign.
    pub reading: Angle,
    /// Which end is higher: the finder does not say.
    pub higher_end: BarEnd,
    /// What it was zeroed on.
    pub zero: FinderZero,
    /// What the maker says it is good to, plus or minus.
    pub good_to: Angle,
}

/// Where the rise used comes from.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RiseSource {
    /// Two bolt heights above one floor.
    Heights,
    /// A finder laid along the bar.
    Finder,
    /// Nobody measured: the bar is taken to be level, which its length hardly depends on.
    Assumed,
}

/// A bar that nobody measured the rise of is steeper than this one time in twenty, degrees.
pub const STEEPEST_ASSUMED_DEGREES: f64 = 15.0;

/// The rise v = F_z − A_z, how sure it is, and whether two ways of finding it agree.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Rise {
    /// The one used. Positive when the frame end is higher.
    pub rise_mm: Length,
    /// Plus or minus, about 95 %.
    pub uncertainty_mm: Length,
    /// Where it comes from: the heights, where there are both.
    pub source: RiseSource,
    /// From two heights.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub from_heights_mm: Option<Length>,
    /// From the finder, v = L·sin of the corrected reading.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub from_finder_mm: Option<Length>,
    /// What the finder's own uncertainty is worth in rise.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub finder_uncertainty_mm: Option<Length>,
    /// Finder less heights, where it is more than both uncertainties allow.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub disagreement_mm: Option<Length>,
}

/// Finds the rise. `heights` are those of the frame eye and of the axle eye above the
/// same floor, each good to `height_uncertainty`. `floor_slope` is positive when the
/// floor is higher on the left; it matters to a finder zeroed on gravity alone:
/// θ = θ_read − s·β. `None` where neither way has its readings.
#[must_use]
pub fn rise(
    length: Length,
    frame_eye_side: Side,
    heights: Option<(Length, Length)>,
    height_uncertainty: Length,
    finder: Option<FinderReading>,
    floor_slope: Angle,
) -> Option<Rise> {
    let from_heights = heights.map(|(frame, axle)| frame - axle);
    let of_heights = height_uncertainty * std::f64::consts::SQRT_2;
    let from_finder = finder.map(|finder| {
        let angle = finder_angle(finder, frame_eye_side, floor_slope);
        (length * angle.sin(), length * (angle.cos() * finder.good_to.to_radians()))
    });
    let (rise_mm, uncertainty_mm, source) = match (from_heights, from_finder) {
        (Some(rise), _) => (rise, of_heights, RiseSource::Heights),
        (None, Some((rise, uncertainty))) => (rise, uncertainty, RiseSource::Finder),
        (None, None) => return None,
    };
    let disagreement = match (from_heights, from_finder) {
        (Some(by_heights), Some((by_finder, uncertainty))) => {
            let allowed = crate::measure::length::in_quadrature(&[of_heights, uncertainty]);
            Some(by_finder - by_heights).filter(|difference| difference.abs() > allowed)
        }
        _ => None,
    };
    Some(Rise {
        rise_mm,
        uncertainty_mm,
        source,
        from_heights_mm: from_heights,
        from_finder_mm: from_finder.map(|(rise, _)| rise),
        finder_uncertainty_mm: from_finder.map(|(_, uncertainty)| uncertainty),
        disagreement_mm: disagreement,
    })
}

/// A bar taken to be level, good to what it rises at 15 degrees: ± L·sin 15°. A length worked out from it is off by no
/// more than 1 − cos 15°, a thirtieth of its change.
#[must_use]
pub fn level_assumed(length: Length) -> Rise {
    Rise {
        rise_mm: Length::ZERO,
        uncertainty_mm: length * Angle::from_degrees(STEEPEST_ASSUMED_DEGREES).sin(),
        source: RiseSource::Assumed,
        from_heights_mm: None,
        from_finder_mm: None,
        finder_uncertainty_mm: None,
        disagreement_mm: None,
    }
}

fn finder_angle(finder: FinderReading, frame_eye_side: Side, floor_slope: Angle) -> Angle {
    let read = match finder.higher_end {
        BarEnd::Frame => finder.reading.abs(),
        BarEnd::Axle => -finder.reading.abs(),
    };
    match finder.zero {
        FinderZero::FloorOrFrame => read,
        FinderZero::Gravity => read - Angle::from_radians(frame_eye_side.sign() * floor_slope.to_radians()),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const EIGHT_HUNDRED: Length = Length::from_mm(800.0);

    fn finder(degrees: f64, higher_end: BarEnd, good_to: f64) -> FinderReading {
        FinderReading {
            reading: Angle::from_degrees(degrees),
            higher_end,
            zero: FinderZero::Gravity,
            good_to: Angle::from_degrees(good_to),
        }
    }

    fn of(
        heights: Option<(f64, f64)>,
        finder: Option<FinderReading>,
        side: Side,
        slope: f64,
    ) -> Option<Rise> {
        let heights = heights.map(|(f, a)| (Length::from_mm(f), Length::from_mm(a)));
        rise(EIGHT_HUNDRED, side, heights, Length::from_mm(1.5), finder, Angle::from_degrees(slope))
    }

    #[test]
    fn half_the_length_is_thirty_degrees() {
        let found = of(None, Some(finder(30.0, BarEnd::Frame, 0.2)), Side::Left, 0.0).unwrap();
        assert!((found.rise_mm.to_mm() - 400.0).abs() < 1e-9);
        let turned = of(None, Some(finder(30.0, BarEnd::Axle, 0.2)), Side::Left, 0.0).unwrap();
        assert!((turned.rise_mm.to_mm() + 400.0).abs() < 1e-9);
    }

    #[test]
    fn a_fifth_of_a_degree_is_three_millimetres_and_a_degree_is_fourteen() {
        let worth = |good_to| {
            of(None, Some(finder(0.0, BarEnd::Frame, good_to)), Side::Left, 0.0)
                .unwrap()
                .uncertainty_mm
                .to_mm()
        };
        assert!((worth(0.2) - 2.79).abs() < 0.01);
        assert!((worth(1.0) - 13.96).abs() < 0.01);
    }

    #[test]
    fn a_floor_higher_on_the_left_lifts_a_frame_end_on_the_left_and_lowers_one_on_the_right() {
        let level = |side| of(None, Some(finder(2.0, BarEnd::Frame, 0.2)), side, 2.0).unwrap().rise_mm;
        assert!(level(Side::Left).to_mm().abs() < 1e-9);
        assert!((level(Side::Right).to_mm() - 800.0 * 4.0_f64.to_radians().sin()).abs() < 1e-9);
    }

    #[test]
    fn a_finder_zeroed_on_the_floor_needs_no_slope() {
        let zeroed = FinderReading { zero: FinderZero::FloorOrFrame, ..finder(30.0, BarEnd::Frame, 0.2) };
        let found = of(None, Some(zeroed), Side::Left, 5.0).unwrap();
        assert!((found.rise_mm.to_mm() - 400.0).abs() < 1e-9);
    }

    #[test]
    fn heights_rule_and_a_disagreement_is_reported() {
        // 10° on 800 mm is 138.9 mm of rise.
        let reading = Some(finder(10.0, BarEnd::Frame, 0.2));
        let agree = of(Some((640.0, 501.0)), reading, Side::Left, 0.0).unwrap();
        assert_eq!((agree.source, agree.rise_mm.to_mm()), (RiseSource::Heights, 139.0));
        assert_eq!(agree.disagreement_mm, None);
        let apart = of(Some((640.0, 510.0)), reading, Side::Left, 0.0).unwrap();
        assert!((apart.disagreement_mm.unwrap().to_mm() - 8.918).abs() < 1e-3);
    }

    #[test]
    fn nothing_read_nothing_found() {
        assert_eq!(of(None, None, Side::Left, 0.0), None);
    }
}
