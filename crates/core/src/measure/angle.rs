//! Angles. Radians inside, degrees at the doors and in JSON.

use crate::measure::figure;
use std::ops::Div;

use derive_more::{Add, Div as DivBy, Mul as Times, Neg, Sub, Sum};
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use utoipa::ToSchema;

/// A signed angle. Held in radians; written to JSON in degrees, in fields whose
/// names end in `_deg`.
#[derive(Clone, Copy, Debug, Default, PartialEq, PartialOrd, ToSchema, Add, Sub, Neg, Sum, Times, DivBy)]
#[schema(value_type = f64)]
pub struct Angle(f64);

impl Angle {
    /// No angle.
    pub const ZERO: Self = Self(0.0);

    /// From radians.
    #[must_use]
    pub const fn from_radians(radians: f64) -> Self {
        Self(radians)
    }

    /// From degrees.
    ///
    /// ```
    /// use derecho_core::measure::Angle;
    ///
    /// assert!((Angle::from_degrees(180.0).to_radians() - std::f64::consts::PI).abs() < 1e-15);
    /// ```
    #[must_use]
    pub const fn from_degrees(degrees: f64) -> Self {
        Self(degrees.to_radians())
    }

    /// In radians.
    #[must_use]
    pub const fn to_radians(self) -> f64 {
        self.0
    }

    /// In degrees.
    #[must_use]
    pub const fn to_degrees(self) -> f64 {
        self.0.to_degrees()
    }

    /// Without its sign.
    ///
    /// ```
    /// use derecho_core::measure::Angle;
    ///
    /// assert_eq!(Angle::from_degrees(-5.0).abs(), Angle::from_degrees(5.0));
    /// ```
    #[must_use]
    pub const fn abs(self) -> Self {
        Self(self.0.abs())
    }

    /// The larger of the two.
    ///
    /// ```
    /// use derecho_core::measure::Angle;
    ///
    /// let of = Angle::from_degrees;
    /// assert_eq!(of(3.0).max(of(5.0)), of(5.0));
    /// ```
    #[must_use]
    pub const fn max(self, other: Self) -> Self {
        Self(self.0.max(other.0))
    }

    /// The smaller of the two.
    ///
    /// ```
    /// use derecho_core::measure::Angle;
    ///
    /// let of = Angle::from_degrees;
    /// assert_eq!(of(3.0).min(of(5.0)), of(3.0));
    /// ```
    #[must_use]
    pub const fn min(self, other: Self) -> Self {
        Self(self.0.min(other.0))
    }

    /// Sine.
    ///
    /// ```
    /// use derecho_core::measure::Angle;
    ///
    /// assert!((Angle::from_degrees(30.0).sin() - 0.5).abs() < 1e-15);
    /// ```
    #[must_use]
    pub fn sin(self) -> f64 {
        self.0.sin()
    }

    /// Cosine.
    ///
    /// ```
    /// use derecho_core::measure::Angle;
    ///
    /// assert!((Angle::from_degrees(60.0).cos() - 0.5).abs() < 1e-15);
    /// ```
    #[must_use]
    pub fn cos(self) -> f64 {
        self.0.cos()
    }

    /// Tangent.
    ///
    /// ```
    /// use derecho_core::measure::Angle;
    ///
    /// assert!((Angle::from_degrees(45.0).tan() - 1.0).abs() < 1e-15);
    /// ```
    #[must_use]
    pub fn tan(self) -> f64 {
        self.0.tan()
    }
}

impl Div for Angle {
    type Output = f64;
    fn div(self, other: Self) -> f64 {
        self.0 / other.0
    }
}

impl Serialize for Angle {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        figure::degrees(&self.to_degrees(), serializer)
    }
}

impl<'de> Deserialize<'de> for Angle {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        f64::deserialize(deserializer).map(Self::from_degrees)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn thirty_degrees_has_half_a_sine() {
        assert!((Angle::from_degrees(30.0).sin() - 0.5).abs() < 1e-15);
    }

    #[test]
    fn json_speaks_degrees() {
        let quarter = Angle::from_radians(std::f64::consts::FRAC_PI_2);
        assert_eq!(serde_json::to_string(&quarter).unwrap(), "90.0");
        let back: Angle = serde_json::from_str("90").unwrap();
        assert_eq!(back, quarter);
    }
}
