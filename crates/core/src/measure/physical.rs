//! Forces, masses, moments, rates and stresses, each a type of its own, and how they are told.

use std::ops::{Div, Mul};

use derive_more::{Add, Div as DivBy, Mul as Times, Neg, Sub, Sum};

use super::angle::Angle;
use super::length::{Length, Unit};
use super::phrase::Words;

/// Standard gravity, m/s², by definition.
pub const GRAVITY: f64 = 9.806_65;
/// Kilograms in a pound, exact since 1959.
pub const KG_PER_LB: f64 = 0.453_592_37;
/// Newtons in a pound-force.
pub const N_PER_LBF: f64 = KG_PER_LB * GRAVITY;
/// N/mm in a pound-force to the inch.
pub const N_PER_MM_PER_LB_IN: f64 = N_PER_LBF / 25.4;
/// N·m in a pound-foot.
pub const NM_PER_LB_FT: f64 = N_PER_LBF * 0.3048;

/// A figure with a unit of its own: sums and multiples of it are the same kind of figure, one over another is a
/// bare number.
macro_rules! quantity {
    ($(#[$doc:meta])* $name:ident) => {
        $(#[$doc])*
        #[derive(Clone, Copy, Debug, Default, PartialEq, PartialOrd, Add, Sub, Neg, Sum, Times, DivBy)]
        pub struct $name(f64);

        impl $name {
            /// None.
            pub const ZERO: Self = Self(0.0);

            /// The larger of the two.
            #[must_use]
            pub const fn max(self, other: Self) -> Self {
                Self(self.0.max(other.0))
            }

            /// Without its sign.
            #[must_use]
            pub const fn abs(self) -> Self {
                Self(self.0.abs())
            }
        }

        impl Div for $name {
            type Output = f64;
            fn div(self, other: Self) -> f64 {
                self.0 / other.0
            }
        }
    };
}

quantity! {
    /// A force, held in newtons. Its sign is said where it is used.
    Force
}

impl Force {
    /// From newtons.
    #[must_use]
    pub const fn from_n(newtons: f64) -> Self {
        Self(newtons)
    }

    /// In newtons.
    #[must_use]
    pub const fn to_n(self) -> f64 {
        self.0
    }
}

quantity! {
    /// A mass, held in kilograms.
    Mass
}

impl Mass {
    /// From kilograms.
    #[must_use]
    pub const fn from_kg(kilograms: f64) -> Self {
        Self(kilograms)
    }

    /// In kilograms.
    #[must_use]
    pub const fn to_kg(self) -> f64 {
        self.0
    }
}

quantity! {
    /// A moment, held in N·mm.
    Moment
}

impl Moment {
    /// From newton millimetres.
    #[must_use]
    pub const fn from_nmm(newton_mm: f64) -> Self {
        Self(newton_mm)
    }

    /// In newton millimetres.
    #[must_use]
    pub const fn to_nmm(self) -> f64 {
        self.0
    }

    /// From newton metres.
    ///
    /// ```
    /// use derecho_core::measure::Moment;
    ///
    /// assert_eq!(Moment::from_nm(1.0).to_nmm(), 1000.0);
    /// ```
    #[must_use]
    pub const fn from_nm(newton_metres: f64) -> Self {
        Self(newton_metres * 1000.0)
    }

    /// In newton metres.
    #[must_use]
    pub const fn to_nm(self) -> f64 {
        self.0 / 1000.0
    }
}

quantity! {
    /// A force to the length, held in N/mm.
    SpringRate
}

impl SpringRate {
    /// From N/mm.
    #[must_use]
    pub const fn from_n_per_mm(newtons_per_mm: f64) -> Self {
        Self(newtons_per_mm)
    }

    /// In N/mm.
    #[must_use]
    pub const fn to_n_per_mm(self) -> f64 {
        self.0
    }
}

quantity! {
    /// A moment to the angle, held in N·mm to the radian.
    RollRate
}

impl RollRate {
    /// From N·mm to the radian.
    #[must_use]
    pub const fn from_nmm_per_radian(newton_mm: f64) -> Self {
        Self(newton_mm)
    }

    /// In N·mm to the radian.
    #[must_use]
    pub const fn to_nmm_per_radian(self) -> f64 {
        self.0
    }

    /// From N·m to the radian.
    #[must_use]
    pub const fn from_nm_per_radian(newton_metres: f64) -> Self {
        Self(newton_metres * 1000.0)
    }

    /// In N·m to the radian.
    #[must_use]
    pub const fn to_nm_per_radian(self) -> f64 {
        self.0 / 1000.0
    }

    /// From N·m to the degree.
    ///
    /// ```
    /// use derecho_core::measure::RollRate;
    ///
    /// let rate = RollRate::from_nm_per_degree(1.0);
    /// assert!((rate.to_nm_per_radian() - 180.0 / std::f64::consts::PI).abs() < 1e-12);
    /// ```
    #[must_use]
    pub const fn from_nm_per_degree(newton_metres: f64) -> Self {
        Self(newton_metres * 1000.0 / 1.0_f64.to_radians())
    }

    /// In N·m to the degree.
    #[must_use]
    pub const fn to_nm_per_degree(self) -> f64 {
        self.0 / 1000.0 * 1.0_f64.to_radians()
    }
}

quantity! {
    /// A stress, held in N/mm², which is MPa.
    Stress
}

impl Stress {
    /// From MPa.
    #[must_use]
    pub const fn from_mpa(megapascals: f64) -> Self {
        Self(megapascals)
    }

    /// In MPa.
    #[must_use]
    pub const fn to_mpa(self) -> f64 {
        self.0
    }
}

impl Mass {
    /// What it weighs: m·g.
    ///
    /// ```
    /// use derecho_core::measure::Mass;
    ///
    /// // A kilogram weighs 9.80665 N by definition.
    /// assert!((Mass::from_kg(2.0).weight().to_n() - 19.6133).abs() < 1e-12);
    /// ```
    #[must_use]
    pub const fn weight(self) -> Force {
        Force(self.0 * GRAVITY)
    }
}

impl Force {
    /// The mass that weighs so much.
    ///
    /// ```
    /// use derecho_core::measure::Force;
    ///
    /// assert!((Force::from_n(9.806_65).as_mass().to_kg() - 1.0).abs() < 1e-15);
    /// ```
    #[must_use]
    pub const fn as_mass(self) -> Mass {
        Mass(self.0 / GRAVITY)
    }
}

impl Mul<Length> for Force {
    type Output = Moment;
    fn mul(self, lever: Length) -> Moment {
        Moment(self.0 * lever.to_mm())
    }
}

impl Div<Length> for Moment {
    type Output = Force;
    fn div(self, lever: Length) -> Force {
        Force(self.0 / lever.to_mm())
    }
}

impl Mul<Length> for SpringRate {
    type Output = Force;
    fn mul(self, by: Length) -> Force {
        Force(self.0 * by.to_mm())
    }
}

impl Div<SpringRate> for Force {
    type Output = Length;
    fn div(self, rate: SpringRate) -> Length {
        Length::from_mm(self.0 / rate.0)
    }
}

impl Mul<Angle> for RollRate {
    type Output = Moment;
    fn mul(self, by: Angle) -> Moment {
        Moment(self.0 * by.to_radians())
    }
}

/// A force in the unit of the words, rounded to ten pounds or fifty newtons.
#[must_use]
pub fn force(w: Words, force: Force) -> String {
    match w.unit() {
        Unit::Inches => format!("{:.0} lb", (force.to_n() / N_PER_LBF / 10.0).round() * 10.0),
        Unit::Millimetres => format!("{:.0} N", (force.to_n() / 50.0).round() * 50.0),
    }
}

/// A weight in the unit of the words, to the pound or half kilogram.
///
/// ```
/// use derecho_core::measure::physical::weight;
/// use derecho_core::measure::{Mass, Phrase};
///
/// let says = Phrase::of(|w| weight(w, Mass::from_kg(500.0).weight()));
/// assert_eq!((says.inches.as_str(), says.millimetres.as_str()), ("1102 lb", "500 kg"));
/// ```
#[must_use]
pub fn weight(w: Words, weight: Force) -> String {
    let kilograms = weight.as_mass().to_kg();
    match w.unit() {
        Unit::Inches => format!("{:.0} lb", kilograms / KG_PER_LB),
        Unit::Millimetres if kilograms < 100.0 => format!("{kilograms:.1} kg"),
        Unit::Millimetres => format!("{kilograms:.0} kg"),
    }
}

/// A spring's rate in the unit of the words.
#[must_use]
pub fn spring_rate(w: Words, rate: SpringRate) -> String {
    match w.unit() {
        Unit::Inches => format!("{:.0} lb/in", rate.to_n_per_mm() / N_PER_MM_PER_LB_IN),
        Unit::Millimetres => format!("{:.1} N/mm", rate.to_n_per_mm()),
    }
}

/// A torque in the unit of the words.
///
/// ```
/// use derecho_core::measure::physical::torque;
/// use derecho_core::measure::{Moment, Phrase};
///
/// // 1 lb-ft is 1.3558 N·m.
/// let says = Phrase::of(|w| torque(w, Moment::from_nm(135.58)));
/// assert_eq!((says.inches.as_str(), says.millimetres.as_str()), ("100 lb-ft", "136 N·m"));
/// ```
#[must_use]
pub fn torque(w: Words, torque: Moment) -> String {
    match w.unit() {
        Unit::Inches => format!("{:.0} lb-ft", torque.to_nm() / NM_PER_LB_FT),
        Unit::Millimetres => format!("{:.0} N·m", torque.to_nm()),
    }
}

/// A roll rate in the unit of the words, to the degree.
#[must_use]
pub fn roll_rate(w: Words, rate: RollRate) -> String {
    let per_degree = rate.to_nm_per_degree();
    match w.unit() {
        Unit::Inches => format!("{:.0} lb-ft/°", per_degree / NM_PER_LB_FT),
        Unit::Millimetres => format!("{per_degree:.0} N·m/°"),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::measure::Phrase;

    #[test]
    fn units_multiply_as_on_paper() {
        let force = Force::from_n(12_000.0);
        assert!((force * Length::from_mm(150.0)).to_nm() == 1800.0);
        assert_eq!(force * Length::from_mm(150.0) / Length::from_mm(120.0), Force::from_n(15_000.0));
        assert_eq!(SpringRate::from_n_per_mm(30.0) * Length::from_mm(20.0), Force::from_n(600.0));
        assert_eq!(Force::from_n(600.0) / SpringRate::from_n_per_mm(30.0), Length::from_mm(20.0));
        let degree = RollRate::from_nm_per_degree(100.0) * Angle::from_degrees(3.0);
        assert!((degree.to_nm() - 300.0).abs() < 1e-9);
        assert_eq!(Mass::from_kg(1.0).weight(), Force::from_n(9.806_65));
    }

    #[test]
    fn rates_are_reported_in_the_unit_of_the_words() {
        let reported = Phrase::of(|w| {
            format!(
                "{}, {}, {}",
                spring_rate(w, SpringRate::from_n_per_mm(35.025_37)),
                weight(w, Mass::from_kg(1000.0).weight()),
                force(w, Force::from_n(444.8))
            )
        });
        assert_eq!(reported.inches, "200 lb/in, 2205 lb, 100 lb");
        assert_eq!(reported.millimetres, "35.0 N/mm, 1000 kg, 450 N");
        let per_degree = RollRate::from_nmm_per_radian(100_000.0 * 180.0 / std::f64::consts::PI);
        assert_eq!(Phrase::of(|w| roll_rate(w, per_degree)).millimetres, "100 N·m/°");
        assert_eq!(Phrase::of(|w| roll_rate(w, per_degree)).inches, "74 lb-ft/°");
    }
}
