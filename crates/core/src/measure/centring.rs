//! Centring: how far off to one side something sits, from readings on both sides.
//!
//! The arithmetic is the half-difference. It serves an axle under its frame and,
//! as stick-out, a sway bar in its clamps. Uncertainty follows the usual two kinds:
//! repeats scatter and average out (pooled, with the rig's usual spread standing in
//! while there are few), the feature itself does not.

use crate::measure::{Heading, Meaning};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::angle::Angle;
use super::conformity::{provable, proves, within};
use super::length::{Length, in_quadrature};
use super::phrase::{Step, Value, Working};
use super::side::Side;

/// How many readings the usual spread of a rig counts for.
const PRIOR_WEIGHT: f64 = 6.0;
/// Coverage factor: twice the standard uncertainty is about 95 %.
const COVERAGE: f64 = 2.0;

/// What a larger reading means.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Sense {
    /// Larger means that side is further out.
    #[default]
    Outward,
    /// Larger means that side is further in.
    Inward,
}

/// Everything the arithmetic needs from a sheet.
#[derive(Clone, Debug)]
pub struct Readings<'a> {
    /// Readings on the left, one or more.
    pub left: &'a [Length],
    /// Readings on the right, one or more.
    pub right: &'a [Length],
    /// What a larger reading means.
    pub sense: Sense,
    /// Standard uncertainty of the feature, which repeats cannot reveal.
    pub feature_uncertainty: Length,
    /// One graduation of the tape.
    pub resolution: Length,
    /// Standard deviation of repeats usual on this rig.
    pub usual_spread: Length,
    /// What counts as centred.
    pub tolerance: Length,
    /// For a plumb line: how far it hangs from its mark to the point read, and the
    /// slope of the floor, positive when the floor is higher on the left.
    pub plumb: Option<(Length, Angle)>,
    /// For a reading not at hub height: its height above the axle centre and the
    /// roll of the axle against the body, positive when the left wheel is higher.
    pub lean: Option<(Length, Angle)>,
}

/// What the readings answer.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Answer {
    /// Off to one side by more than the readings are unsure, and not proved to be within the tolerance.
    OffCentre,
    /// The readings cannot tell it from centred, nor prove that it is.
    CannotTell,
    /// Proved to be within the tolerance: 95 in 100 or more that it is.
    WithinTolerance,
}

/// The result of a centring or stick-out sheet.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Centring {
    /// Mean of the left readings.
    pub left_mean_mm: Length,
    /// Mean of the right readings.
    pub right_mean_mm: Length,
    /// Largest less smallest reading on the left.
    pub left_range_mm: Length,
    /// Largest less smallest reading on the right.
    pub right_range_mm: Length,
    /// Offset towards the left, corrections included; negative is to the right.
    pub offset_mm: Length,
    /// The side the offset is towards.
    pub side: Side,
    /// Taken off the half-difference for a plumb line on a sloping floor.
    pub floor_correction_mm: Length,
    /// Added to the half-difference for a leaning axle.
    pub lean_correction_mm: Length,
    /// Standard deviation of one reading, the usual spread weighed in.
    pub spread_mm: Length,
    /// Standard uncertainty of the offset from scatter and graduation alone.
    pub repeat_uncertainty_mm: Length,
    /// Standard uncertainty of the feature.
    pub feature_uncertainty_mm: Length,
    /// Expanded uncertainty U of the offset, twice the standard uncertainty.
    pub uncertainty_mm: Length,
    /// What counted as centred.
    pub tolerance_mm: Length,
    /// One of three.
    pub answer: Answer,
    /// How likely it truly is within the tolerance, 0 to 1.
    pub within_probability: f64,
    /// The smallest tolerance these readings prove.
    pub provable_mm: Length,
    /// False where not even an offset of nought could be proved to be within the tolerance, as sure as it was read.
    pub method_can_prove: bool,
    /// Whether more repeats of the same kind can answer at all: what the feature itself is unsure by stays.
    pub repeats_can_tell: bool,
    /// The arithmetic with this sheet's numbers.
    pub working: Working,
}

fn mean(readings: &[Length]) -> Length {
    readings.iter().copied().sum::<Length>() / readings.len() as f64
}

fn squares_about(mean: Length, readings: &[Length]) -> f64 {
    readings.iter().map(|reading| (*reading - mean).to_mm().powi(2)).sum()
}

/// Largest less smallest; nought where there are none.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::measure::centring::range;
///
/// let mm = Length::from_mm;
/// assert_eq!(range(&[mm(161.0), mm(158.5), mm(160.0)]), mm(2.5));
/// ```
#[must_use]
pub fn range(readings: &[Length]) -> Length {
    let largest = readings.iter().copied().reduce(Length::max);
    let smallest = readings.iter().copied().reduce(Length::min);
    match (largest, smallest) {
        (Some(largest), Some(smallest)) => largest - smallest,
        _ => Length::ZERO,
    }
}

/// Works a sheet out. `None` while one side has no reading.
#[must_use]
pub fn centring(readings: &Readings<'_>) -> Option<Centring> {
    let Readings { left, right, .. } = readings;
    if left.is_empty() || right.is_empty() {
        return None;
    }
    let (left_mean, right_mean) = (mean(left), mean(right));
    let sign = match readings.sense {
        Sense::Outward => 1.0,
        Sense::Inward => -1.0,
    };
    let half_difference = (left_mean - right_mean) * (sign / 2.0);
    let floor = readings.plumb.map_or(Length::ZERO, |(drop, slope)| drop * slope.tan());
    let lean = readings.lean.map_or(Length::ZERO, |(height, roll)| height * roll.sin());
    let offset = half_difference - floor + lean;

    let (n_left, n_right) = (left.len() as f64, right.len() as f64);
    let freedom = n_left + n_right - 2.0;
    let squares = squares_about(left_mean, left) + squares_about(right_mean, right);
    // ν·s_pooled² is the sum of squares itself, so that ν = 0 needs no special case.
    let prior = PRIOR_WEIGHT * readings.usual_spread.to_mm().powi(2);
    let spread = Length::from_mm(((prior + squares) / (PRIOR_WEIGHT + freedom)).sqrt());
    let graduation = readings.resolution / 12.0_f64.sqrt();
    let of_side = |count: f64| in_quadrature(&[spread / count.sqrt(), graduation]);
    let repeat = in_quadrature(&[of_side(n_left), of_side(n_right)]) / 2.0;
    let uncertainty = in_quadrature(&[repeat, readings.feature_uncertainty]) * COVERAGE;

    let standard = uncertainty / COVERAGE;
    let tolerance = readings.tolerance;
    let answer = match proves(offset, standard, tolerance) {
        true => Answer::WithinTolerance,
        false if offset.abs() <= uncertainty => Answer::CannotTell,
        false => Answer::OffCentre,
    };
    let figures =
        Figures { left_mean, right_mean, half_difference, floor, lean, offset, spread, repeat, uncertainty };
    Some(Centring {
        left_mean_mm: left_mean,
        right_mean_mm: right_mean,
        left_range_mm: range(left),
        right_range_mm: range(right),
        offset_mm: offset,
        side: Side::of(offset.to_mm()),
        floor_correction_mm: floor,
        lean_correction_mm: lean,
        spread_mm: spread,
        repeat_uncertainty_mm: repeat,
        feature_uncertainty_mm: readings.feature_uncertainty,
        uncertainty_mm: uncertainty,
        tolerance_mm: readings.tolerance,
        answer,
        within_probability: within(offset, standard, tolerance),
        provable_mm: provable(offset, standard),
        method_can_prove: proves(Length::ZERO, standard, tolerance),
        repeats_can_tell: answer != Answer::CannotTell
            || proves(offset, readings.feature_uncertainty, tolerance)
            || offset.abs() > readings.feature_uncertainty * COVERAGE,
        working: figures.working(readings),
    })
}

struct Figures {
    left_mean: Length,
    right_mean: Length,
    half_difference: Length,
    floor: Length,
    lean: Length,
    offset: Length,
    spread: Length,
    repeat: Length,
    uncertainty: Length,
}

impl Figures {
    fn working(&self, readings: &Readings<'_>) -> Working {
        let length = Value::Length;
        let half = match readings.sense {
            Sense::Outward => "e = ({l̄} − {r̄}) / 2",
            Sense::Inward => "e = −({l̄} − {r̄}) / 2",
        };
        let mut steps = vec![Step::new(
            Meaning::HalfDifference,
            half,
            &[("l̄", length(self.left_mean)), ("r̄", length(self.right_mean))],
            length(self.half_difference),
        )];
        steps.extend(self.corrections(readings));
        let counts = (readings.left.len() as f64, readings.right.len() as f64);
        steps.push(Step::new(
            Meaning::Repeat,
            "u = ½ √({s}²/{n_l} + {s}²/{n_r} + 2 · ({g}/√12)²)",
            &[
                ("s", length(self.spread)),
                ("n_l", Value::Number(counts.0, 0)),
                ("n_r", Value::Number(counts.1, 0)),
                ("g", length(readings.resolution)),
            ],
            length(self.repeat),
        ));
        steps.push(Step::new(
            Meaning::Uncertainty,
            "U = 2 √({u}² + {u_feature}²)",
            &[("u", length(self.repeat)), ("u_feature", length(readings.feature_uncertainty))],
            length(self.uncertainty),
        ));
        steps.push(Step::new(
            Meaning::Likelihood,
            "Φ(({tol} − {e}) / {u}) − Φ((−{tol} − {e}) / {u})",
            &[
                ("tol", length(readings.tolerance)),
                ("e", length(self.offset)),
                ("u", length(self.uncertainty / COVERAGE)),
            ],
            Value::Number(within(self.offset, self.uncertainty / COVERAGE, readings.tolerance), 3),
        ));
        Working { title: Heading::HowFarOff, steps }
    }

    /// What floor and lean add, and the offset after both.
    fn corrections(&self, readings: &Readings<'_>) -> Vec<Step> {
        let length = Value::Length;
        let mut steps = Vec::new();
        if let Some((drop, slope)) = readings.plumb {
            steps.push(Step::new(
                Meaning::FloorSlope,
                "{drop} · tan {β}",
                &[("drop", length(drop)), ("β", Value::Angle(slope))],
                length(self.floor),
            ));
        }
        if let Some((height, roll)) = readings.lean {
            steps.push(Step::new(
                Meaning::AxleLean,
                "{ζ} · sin {φ}",
                &[("ζ", length(height)), ("φ", Value::Angle(roll))],
                length(self.lean),
            ));
        }
        if !steps.is_empty() {
            steps.push(Step::new(
                Meaning::OffsetAfterBoth,
                "e = {half} − {floor} + {lean}",
                &[
                    ("half", length(self.half_difference)),
                    ("floor", length(self.floor)),
                    ("lean", length(self.lean)),
                ],
                length(self.offset),
            ));
        }
        steps
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn mm(values: &[f64]) -> Vec<Length> {
        values.iter().copied().map(Length::from_mm).collect()
    }

    fn sheet<'a>(left: &'a [Length], right: &'a [Length]) -> Readings<'a> {
        Readings {
            left,
            right,
            sense: Sense::Outward,
            feature_uncertainty: Length::from_mm(0.8),
            resolution: Length::from_mm(1.0),
            usual_spread: Length::from_mm(1.0),
            tolerance: Length::from_mm(3.0),
            plumb: None,
            lean: None,
        }
    }

    #[test]
    fn half_the_difference_towards_the_larger_side() {
        let (left, right) = (mm(&[110.0, 112.0]), mm(&[100.0, 98.0]));
        let result = centring(&sheet(&left, &right)).unwrap();
        assert_eq!(result.offset_mm.to_mm(), 6.0);
        assert_eq!(result.side, Side::Left);
        assert_eq!(result.answer, Answer::OffCentre);
        let inward = centring(&Readings { sense: Sense::Inward, ..sheet(&left, &right) }).unwrap();
        assert_eq!(inward.offset_mm.to_mm(), -6.0);
    }

    #[test]
    fn single_readings_lean_on_the_usual_spread() {
        // By hand: s = 1, u_side² = 1 + 1/12 = 13/12, u² = ¼ · 26/12 + 0.64 = 1.181667.
        let (left, right) = (mm(&[100.0]), mm(&[100.0]));
        let result = centring(&sheet(&left, &right)).unwrap();
        assert!((result.spread_mm.to_mm() - 1.0).abs() < 1e-12);
        assert!((result.uncertainty_mm.to_mm() - 2.0 * (0.5416666666666666_f64 + 0.64).sqrt()).abs() < 1e-12);
        assert_eq!(result.answer, Answer::WithinTolerance);
    }

    #[test]
    fn repeats_are_pooled_with_six_readings_worth_of_usual_spread() {
        // By hand: left deviates ±1 (squares 2), right ±2 (squares 8), ν = 2,
        // s² = (6·1 + 10)/8 = 2.
        let (left, right) = (mm(&[101.0, 99.0]), mm(&[92.0, 88.0]));
        let result = centring(&sheet(&left, &right)).unwrap();
        assert!((result.spread_mm.to_mm().powi(2) - 2.0).abs() < 1e-12);
        assert_eq!(result.left_range_mm.to_mm(), 2.0);
        assert_eq!(result.right_range_mm.to_mm(), 4.0);
    }

    #[test]
    fn scattered_readings_cannot_be_told_from_centred() {
        let (left, right) = (mm(&[112.0, 100.0]), mm(&[104.0, 98.0]));
        let result = centring(&sheet(&left, &right)).unwrap();
        // By hand: e = 2.5; s² = (6 + 72 + 18)/8 = 12; u² = ¼·2·(6 + 1/12) + 0.64.
        let by_hand = 2.0 * (0.5 * (6.0 + 1.0 / 12.0) + 0.64_f64).sqrt();
        assert_eq!(result.offset_mm.to_mm(), 2.5);
        assert!((result.uncertainty_mm.to_mm() - by_hand).abs() < 1e-12);
        assert_eq!(result.answer, Answer::CannotTell);
        assert!(!result.method_can_prove);
    }

    #[test]
    fn a_floor_one_degree_high_on_the_left_is_worth_seven_millimetres_in_four_hundred() {
        let (left, right) = (mm(&[107.0]), mm(&[93.0]));
        let plumb = Some((Length::from_mm(400.0), Angle::from_degrees(1.0)));
        let result = centring(&Readings { plumb, ..sheet(&left, &right) }).unwrap();
        assert!((result.floor_correction_mm.to_mm() - 6.982).abs() < 1e-3);
        assert!((result.offset_mm.to_mm() - 0.018).abs() < 1e-3);
    }

    #[test]
    fn a_reading_above_a_leaning_axle_gets_the_lean_back() {
        let (left, right) = (mm(&[100.0]), mm(&[100.0]));
        let lean = Some((Length::from_mm(200.0), Angle::from_degrees(30.0)));
        let result = centring(&Readings { lean, ..sheet(&left, &right) }).unwrap();
        assert!((result.offset_mm.to_mm() - 100.0).abs() < 1e-9);
    }

    #[test]
    fn nothing_to_say_while_one_side_is_empty() {
        let left = mm(&[100.0]);
        assert!(centring(&sheet(&left, &[])).is_none());
    }

    #[test]
    fn swapping_the_sides_turns_the_offset_round_and_nothing_else() {
        let (left, right) = (mm(&[110.0, 111.0, 108.0]), mm(&[100.0, 98.5]));
        let one = centring(&sheet(&left, &right)).unwrap();
        let other = centring(&sheet(&right, &left)).unwrap();
        assert_eq!(one.offset_mm, -other.offset_mm);
        assert!((one.uncertainty_mm - other.uncertainty_mm).abs().to_mm() < 1e-12);
    }
}
