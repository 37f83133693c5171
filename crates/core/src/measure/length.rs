//! Lengths. Millimetres inside, units named at the doors.

use crate::measure::figure;
use std::ops::Div;

use derive_more::{Add, Div as DivBy, Mul as Times, Neg, Sub, Sum};

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Millimetres in one inch, exact since 1959.
pub const MM_PER_INCH: f64 = 25.4;

/// The unit a sheet is written in. A bare number takes it.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
pub enum Unit {
    /// Inches, read in binary fractions.
    #[default]
    #[serde(rename = "in")]
    Inches,
    /// Millimetres.
    #[serde(rename = "mm")]
    Millimetres,
}

/// A signed length in millimetres, for computation.
///
/// Written to JSON as a bare number of millimetres; the names of the fields that
/// hold one end in `_mm`. What a person typed is kept apart from it, exactly, as a
/// [`TapeEntry`](super::TapeEntry).
///
/// A bare number is not a length:
///
/// ```compile_fail
/// use derecho_core::measure::Length;
/// let sum: Length = Length::from_mm(1.0) + 2.0;
/// ```
/// ```
/// use derecho_core::measure::Length;
/// let sum: Length = Length::from_mm(1.0) + Length::from_mm(2.0);
/// assert_eq!(sum.to_mm(), 3.0);
/// ```
#[derive(
    Clone,
    Copy,
    Debug,
    Default,
    PartialEq,
    PartialOrd,
    Serialize,
    Deserialize,
    ToSchema,
    Add,
    Sub,
    Neg,
    Sum,
    Times,
    DivBy,
)]
#[serde(transparent)]
pub struct Length(#[serde(serialize_with = "figure::millimetres")] f64);

impl Length {
    /// Nothing at all.
    pub const ZERO: Self = Self(0.0);

    /// From millimetres.
    #[must_use]
    pub const fn from_mm(mm: f64) -> Self {
        Self(mm)
    }

    /// From inches; 1 in is exactly 25.4 mm.
    ///
    /// ```
    /// use derecho_core::measure::Length;
    ///
    /// assert_eq!(Length::from_inches(1.0).to_mm(), 25.4);
    /// ```
    #[must_use]
    pub const fn from_inches(inches: f64) -> Self {
        Self(inches * MM_PER_INCH)
    }

    /// In millimetres.
    ///
    /// ```
    /// use derecho_core::measure::Length;
    ///
    /// assert_eq!(Length::from_inches(2.0).to_mm(), 50.8);
    /// ```
    #[must_use]
    pub const fn to_mm(self) -> f64 {
        self.0
    }

    /// In inches.
    ///
    /// ```
    /// use derecho_core::measure::Length;
    ///
    /// assert_eq!(Length::from_mm(12.7).to_inches(), 0.5);
    /// ```
    #[must_use]
    pub const fn to_inches(self) -> f64 {
        self.0 / MM_PER_INCH
    }

    /// The same length without its sign.
    ///
    /// ```
    /// use derecho_core::measure::Length;
    ///
    /// assert_eq!(Length::from_mm(-3.0).abs(), Length::from_mm(3.0));
    /// ```
    #[must_use]
    pub const fn abs(self) -> Self {
        Self(self.0.abs())
    }

    /// The larger of the two.
    ///
    /// ```
    /// use derecho_core::measure::Length;
    ///
    /// let mm = Length::from_mm;
    /// assert_eq!(mm(-9.0).max(mm(5.0)), mm(5.0));
    /// ```
    #[must_use]
    pub const fn max(self, other: Self) -> Self {
        Self(self.0.max(other.0))
    }

    /// The smaller of the two.
    ///
    /// ```
    /// use derecho_core::measure::Length;
    ///
    /// let mm = Length::from_mm;
    /// assert_eq!(mm(-9.0).min(mm(5.0)), mm(-9.0));
    /// ```
    #[must_use]
    pub const fn min(self, other: Self) -> Self {
        Self(self.0.min(other.0))
    }

    /// Kept between `low` and `high`.
    ///
    /// ```
    /// use derecho_core::measure::Length;
    ///
    /// let mm = Length::from_mm;
    /// assert_eq!(mm(9.0).clamp_to(mm(0.0), mm(5.0)), mm(5.0));
    /// ```
    #[must_use]
    pub const fn clamp_to(self, low: Self, high: Self) -> Self {
        self.max(low).min(high)
    }
}

impl Div for Length {
    type Output = f64;
    fn div(self, other: Self) -> f64 {
        self.0 / other.0
    }
}

/// Root of the sum of squares: how independent uncertainties add.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::measure::length::in_quadrature;
///
/// // 3, 4, 5.
/// let mm = Length::from_mm;
/// assert_eq!(in_quadrature(&[mm(3.0), mm(4.0)]), mm(5.0));
/// ```
#[must_use]
pub fn in_quadrature(parts: &[Length]) -> Length {
    Length(parts.iter().map(|part| part.0 * part.0).sum::<f64>().sqrt())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_inch_is_twenty_five_point_four_millimetres() {
        assert_eq!(Length::from_inches(10.0).to_mm(), 254.0);
        assert_eq!(Length::from_mm(50.8).to_inches(), 2.0);
    }

    #[test]
    fn independent_uncertainties_add_like_the_sides_of_a_right_triangle() {
        let sum = in_quadrature(&[Length::from_mm(3.0), Length::from_mm(4.0)]);
        assert_eq!(sum.to_mm(), 5.0);
    }

    #[test]
    fn a_length_is_a_bare_number_of_millimetres_in_json() {
        assert_eq!(serde_json::to_string(&Length::from_inches(1.0)).unwrap(), "25.4");
    }
}
