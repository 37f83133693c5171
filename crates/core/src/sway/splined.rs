//! Splined torsion bars: how long, how stiff, how heavy.

use std::f64::consts::PI;

use super::rate::SHEAR;
use crate::measure::{Angle, Length, Mass, RollRate};

/// How much longer a splined bar is than the frame is wide outside: about three inches.
pub const OVER_FRAME: Length = Length::from_mm(76.2);
/// Density of steel, kg/mm³.
pub const STEEL: f64 = 7.85e-6;

/// The shortest bar that reaches its arms outside of a frame.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::sway::splined::least_length;
///
/// // Longer than the frame is wide.
/// let frame = Length::from_mm(800.0);
/// assert!(least_length(frame) > frame);
/// ```
#[must_use]
pub fn least_length(frame: Length) -> Length {
    frame + OVER_FRAME
}

/// The shortest of the lengths that are made which is long enough: its place in the list.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::sway::splined::next_made;
///
/// let mm = Length::from_mm;
/// assert_eq!(next_made(mm(900.0), &[mm(850.0), mm(1000.0), mm(950.0)]), Some(2));
/// assert_eq!(next_made(mm(1100.0), &[mm(1000.0)]), None);
/// ```
#[must_use]
pub fn next_made(least: Length, made: &[Length]) -> Option<usize> {
    let enough = made.iter().enumerate().filter(|(_, length)| **length >= least);
    enough.min_by(|a, b| a.1.to_mm().total_cmp(&b.1.to_mm())).map(|(index, _)| index)
}

/// How far a centred bar sticks out of the frame on each side.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::sway::splined::stick_out;
///
/// // Half of what it is longer, each side.
/// let mm = Length::from_mm;
/// assert_eq!(stick_out(mm(1000.0), mm(900.0)), mm(50.0));
/// ```
#[must_use]
pub fn stick_out(bar: Length, frame: Length) -> Length {
    (bar - frame) / 2.0
}

/// Roll rate of both axles together at which a vehicle rolls by so much at one g: the roll gradient
/// R = M/(K − M) turned round, K = M·(1 + 1/R), M = m_s·g·H.
#[must_use]
pub fn rate_for_gradient(overturning: RollRate, at_one_g: Angle) -> RollRate {
    overturning * (1.0 + 1.0 / at_one_g.to_radians())
}

/// Diameter of a solid bar of a torsional rate k_t over its length:
/// D = (32·k_t·L/(π·G))^¼.
#[must_use]
pub fn solid_for(torsion: RollRate, active: Length) -> Length {
    Length::from_mm((32.0 * torsion.to_nmm_per_radian().max(0.0) * active.to_mm() / (PI * SHEAR)).powf(0.25))
}

/// Mass of a round steel bar.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::sway::splined::mass;
///
/// // A hollow bar weighs as the solid one less what is bored out.
/// let mm = Length::from_mm;
/// let [hollow, solid, core] = [(30.0, 20.0), (30.0, 0.0), (20.0, 0.0)].map(|(d, b)| mass(mm(d), mm(b), mm(1000.0)).to_kg());
/// assert!((hollow - (solid - core)).abs() < 1e-9);
/// ```
#[must_use]
pub fn mass(outside: Length, bore: Length, length: Length) -> Mass {
    let area = PI / 4.0 * (outside.to_mm().powi(2) - bore.to_mm().powi(2));
    Mass::from_kg(STEEL * area * length.to_mm())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::measure::Force;
    use crate::sway::BarRate;
    use crate::sway::body_roll::{AxleRoll, roll_gradient};
    use proptest::prelude::*;

    fn mm(value: f64) -> Length {
        Length::from_mm(value)
    }

    #[test]
    fn the_next_length_made_is_the_shortest_that_reaches() {
        // 30 in of frame: 33 in at least.
        let least = least_length(Length::from_inches(30.0));
        assert!((least.to_inches() - 33.0).abs() < 1e-9);
        let made = [38.0, 34.0, 30.0, 42.0].map(Length::from_inches);
        assert_eq!(next_made(least, &made), Some(1));
        assert!((stick_out(made[1], Length::from_inches(30.0)).to_inches() - 2.0).abs() < 1e-9);
        assert_eq!(next_made(Length::from_inches(43.0), &made), None);
        assert_eq!(next_made(Length::from_inches(34.0), &made), Some(1));
    }

    #[test]
    fn a_metre_of_one_inch_bar_weighs_four_kilograms() {
        // π/4 · 2.54² · 100 cm³ = 506.7 cm³ of 7.85 g.
        assert!((mass(mm(25.4), Length::ZERO, mm(1000.0)).to_kg() - 3.977_7).abs() < 1e-3);
        let half = mass(mm(25.4), mm(25.4 / 2.0_f64.sqrt()), mm(1000.0)).to_kg();
        assert!((half - 3.977_7 / 2.0).abs() < 1e-3);
    }

    proptest! {
        #[test]
        fn the_rate_asked_for_gives_the_roll_asked_for(m in 2e6..3e7_f64, degrees in 2.0..9.0_f64, share in 0.1..0.9_f64) {
            let rate = rate_for_gradient(RollRate::from_nmm_per_radian(m), Angle::from_degrees(degrees));
            let axle = |springs| AxleRoll { springs, bar: RollRate::ZERO, weight: Force::from_n(1e4), track: mm(1500.0), most_roll: Angle::from_radians(0.2), tyres: None };
            let rolled = roll_gradient(&axle(rate * share), &axle(rate * (1.0 - share)), RollRate::from_nmm_per_radian(m)).unwrap();
            prop_assert!((rolled.to_degrees() - degrees).abs() < 1e-9);
        }

        #[test]
        fn a_bar_of_the_diameter_found_has_the_rate(torsion in 1e6..2e7_f64, active in 500.0..1300.0_f64) {
            let bar = BarRate {
                outside: solid_for(RollRate::from_nmm_per_radian(torsion), mm(active)),
                bore: Length::ZERO,
                active: mm(active),
                arm: mm(250.0),
                bending_arm: None,
                link: None,
                bush: None,
                half_spacing: mm(400.0),
            };
            prop_assert!((bar.torsion().to_nmm_per_radian() / torsion - 1.0).abs() < 1e-9);
        }
    }
}
