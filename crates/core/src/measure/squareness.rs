//! Squareness: whether the axle stands square under the frame, from a wheelbase
//! measured on both sides. Not a half-difference.

use crate::measure::{Heading, Meaning};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::angle::Angle;
use super::length::{Length, in_quadrature};
use super::phrase::{Step, Value, Working};

/// Which axle is worked on.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AxleEnd {
    /// The front axle.
    Front,
    /// The rear axle.
    Rear,
}

/// The result of a squareness sheet.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Squareness {
    /// Mean wheelbase on the left.
    pub left_mean_mm: Length,
    /// Mean wheelbase on the right.
    pub right_mean_mm: Length,
    /// Left less right.
    pub difference_mm: Length,
    /// Yaw of the axle; positive points to the left, so its left end sits further back.
    pub yaw_deg: Angle,
    /// Expanded uncertainty of the yaw.
    pub uncertainty_deg: Angle,
    /// The arithmetic with this sheet's numbers.
    pub working: Working,
}

/// Works the yaw out: asin of the difference over the distance between the two
/// measured points on the axle, with the opposite sign at a front axle, where the
/// longer side has its end further forward.
///
/// `standard_uncertainty` is that of one mean. `None` while one side has no reading,
/// or where the difference is larger than the distance between the points.
#[must_use]
pub fn squareness(
    end: AxleEnd,
    left: &[Length],
    right: &[Length],
    between_points: Length,
    standard_uncertainty: Length,
) -> Option<Squareness> {
    if left.is_empty() || right.is_empty() || between_points <= Length::ZERO {
        return None;
    }
    let mean = |readings: &[Length]| readings.iter().copied().sum::<Length>() / readings.len() as f64;
    let (left_mean, right_mean) = (mean(left), mean(right));
    let difference = left_mean - right_mean;
    let (sign, formula) = match end {
        AxleEnd::Rear => (1.0, "ω = asin(({WB_left} − {WB_right}) / {b})"),
        AxleEnd::Front => (-1.0, "ω = −asin(({WB_left} − {WB_right}) / {b})"),
    };
    let ratio = difference / between_points;
    if ratio.abs() > 1.0 {
        return None;
    }
    let yaw = Angle::from_radians(sign * ratio.asin());
    let both = in_quadrature(&[standard_uncertainty, standard_uncertainty]) * 2.0;
    let step = Step::new(
        Meaning::Yaw,
        formula,
        &[
            ("WB_left", Value::Length(left_mean)),
            ("WB_right", Value::Length(right_mean)),
            ("b", Value::Length(between_points)),
        ],
        Value::Angle(yaw),
    );
    Some(Squareness {
        left_mean_mm: left_mean,
        right_mean_mm: right_mean,
        difference_mm: difference,
        yaw_deg: yaw,
        uncertainty_deg: Angle::from_radians(both / between_points),
        working: Working { title: Heading::HowSquare, steps: vec![step] },
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn half_the_distance_is_thirty_degrees_and_the_sign_turns_at_the_front() {
        let (left, right) = ([Length::from_mm(3500.0)], [Length::from_mm(3000.0)]);
        let b = Length::from_mm(1000.0);
        let yaw = |end| squareness(end, &left, &right, b, Length::from_mm(1.0)).unwrap().yaw_deg.to_degrees();
        assert!((yaw(AxleEnd::Rear) - 30.0).abs() < 1e-9);
        assert!((yaw(AxleEnd::Front) + 30.0).abs() < 1e-9);
    }

    #[test]
    fn equal_wheelbases_are_square() {
        let one = [Length::from_mm(2600.0), Length::from_mm(2602.0)];
        let result = squareness(AxleEnd::Rear, &one, &one, Length::from_mm(1500.0), Length::ZERO).unwrap();
        assert_eq!(result.yaw_deg, Angle::ZERO);
    }

    #[test]
    fn an_impossible_difference_gives_no_angle() {
        let (left, right) = ([Length::from_mm(3500.0)], [Length::from_mm(1000.0)]);
        assert!(squareness(AxleEnd::Rear, &left, &right, Length::from_mm(100.0), Length::ZERO).is_none());
    }
}
