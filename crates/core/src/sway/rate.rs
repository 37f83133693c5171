//! How stiff a sway bar is, at its eyes and at the axle.

use std::f64::consts::PI;

use crate::measure::{Angle, Length, RollRate, SpringRate, Stress};

/// Shear modulus of steel, MPa.
pub const SHEAR: f64 = 79_300.0;
/// Young's modulus of steel, MPa.
pub const YOUNG: f64 = 205_000.0;

/// A bar with what gives besides it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct BarRate {
    /// Outside diameter.
    pub outside: Length,
    /// Bore of a hollow bar; nought is solid.
    pub bore: Length,
    /// Length that twists.
    pub active: Length,
    /// a, from the axis to the link's eye.
    pub arm: Length,
    /// Length of a one-piece arm that bends; None for stiff arms.
    pub bending_arm: Option<Length>,
    /// Rate of a link with its joints.
    pub link: Option<SpringRate>,
    /// Rate of a bush that holds the bar, and half of the spacing of the two.
    pub bush: Option<(SpringRate, Length)>,
    /// b, half of the links' spacing.
    pub half_spacing: Length,
}

impl BarRate {
    fn polar(&self) -> f64 {
        PI * (self.outside.to_mm().powi(4) - self.bore.to_mm().powi(4)) / 32.0
    }

    /// k_t = G·J/L_active.
    #[must_use]
    pub fn torsion(&self) -> RollRate {
        RollRate::from_nmm_per_radian(SHEAR * self.polar() / self.active.to_mm())
    }

    /// k_eff, to the radian of twist between the arms:
    /// 1/k_eff = 1/k_t + (2/a²)·(a_b³/(3·E·I) + 1/k_link + (b/c)²/k_bush).
    #[must_use]
    pub fn effective(&self) -> RollRate {
        let a = self.arm.to_mm();
        // A round section: I is half of J.
        let bends =
            self.bending_arm.map_or(0.0, |arm| arm.to_mm().powi(3) / (3.0 * YOUNG * self.polar() / 2.0));
        let link = self.link.map_or(0.0, |rate| 1.0 / rate.to_n_per_mm());
        let bush =
            self.bush.map_or(0.0, |(rate, half)| (self.half_spacing / half).powi(2) / rate.to_n_per_mm());
        let twists = 1.0 / self.torsion().to_nmm_per_radian();
        RollRate::from_nmm_per_radian(1.0 / (twists + 2.0 / (a * a) * (bends + link + bush)))
    }

    /// K_bar at a pose, to the radian of roll, where the two arms turn against each other by
    /// `arms_per_roll` for each radian of roll: k_eff·(d(α_left − α_right)/dφ)².
    #[must_use]
    pub fn roll_rate(&self, arms_per_roll: f64) -> RollRate {
        self.effective() * (arms_per_roll * arms_per_roll)
    }

    /// Shear stress of the bar's skin at a twist: T·(D/2)/J.
    #[must_use]
    pub fn stress(&self, twist: Angle) -> Stress {
        let torque = self.effective() * twist.abs();
        Stress::from_mpa(torque.to_nmm() * self.outside.to_mm() / 2.0 / self.polar())
    }
}

/// The rate in each hole against that of the one in use: rates go with 1/a².
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::sway::rate_by_hole;
///
/// // With one over the arm squared.
/// let mm = Length::from_mm;
/// let rates = rate_by_hole(mm(200.0), &[mm(200.0), mm(100.0)]);
/// assert!((rates[0] - 1.0).abs() < 1e-12 && (rates[1] - 4.0).abs() < 1e-12);
/// ```
#[must_use]
pub fn rate_by_hole(in_use: Length, holes: &[Length]) -> Vec<f64> {
    holes.iter().map(|hole| (in_use / *hole).powi(2)).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn mm(value: f64) -> Length {
        Length::from_mm(value)
    }

    fn bar() -> BarRate {
        BarRate {
            outside: mm(25.0),
            bore: Length::ZERO,
            active: mm(900.0),
            arm: mm(250.0),
            bending_arm: None,
            link: None,
            bush: None,
            half_spacing: mm(500.0),
        }
    }

    #[test]
    fn torsion_by_hand() {
        // J = π·25⁴/32 = 38 349.5 mm⁴; 79 300·J/900.
        let torsion = bar().torsion().to_nmm_per_radian();
        assert!((torsion / 3_379_015.0 - 1.0).abs() < 1e-5, "{torsion}");
        assert!((bar().effective() / bar().torsion() - 1.0).abs() < 1e-12);
    }

    #[test]
    fn a_level_arm_on_an_upright_link_gives_the_textbook_rate() {
        // Roll φ lifts one eye by b·φ and lowers the other: each arm turns b·φ/a.
        let per_roll = 2.0 * 500.0 / 250.0;
        assert!((bar().roll_rate(per_roll) / bar().torsion() - 16.0).abs() < 1e-12);
    }

    #[test]
    fn what_gives_in_series_agrees_with_virtual_work() {
        let soft = BarRate {
            bending_arm: Some(mm(250.0)),
            link: Some(SpringRate::from_n_per_mm(4000.0)),
            bush: Some((SpringRate::from_n_per_mm(3000.0), mm(400.0))),
            ..bar()
        };
        // A force F up at one eye and down at the other: twice the energy over F² is the
        // compliance at the eyes, times a²/… the turn between the arms is 2·deflection/a.
        let (force, a) = (100.0, 250.0);
        let torque: f64 = force * a;
        let twist = torque * torque / bar().torsion().to_nmm_per_radian() / 2.0;
        let inertia = PI * 25.0_f64.powi(4) / 64.0;
        let bending = 2.0 * force * force * 250.0_f64.powi(3) / (3.0 * YOUNG * inertia) / 2.0;
        let links = 2.0 * force * force / 4000.0 / 2.0;
        // The pair of bushes takes F·2b over 2c.
        let bush_force = force * 500.0 / 400.0;
        let bushes = 2.0 * bush_force * bush_force / 3000.0 / 2.0;
        let energy = twist + bending + links + bushes;
        let compliance = 2.0 * energy / (torque * torque);
        assert!((soft.effective().to_nmm_per_radian() * compliance - 1.0).abs() < 1e-9);
    }

    #[test]
    fn a_bore_half_as_wide_costs_a_sixteenth() {
        let hollow = BarRate { bore: mm(12.5), ..bar() };
        assert!((hollow.torsion() / bar().torsion() - 15.0 / 16.0).abs() < 1e-12);
    }

    #[test]
    fn stress_of_a_solid_bar_is_sixteen_t_over_pi_d_cubed() {
        let torque = bar().torsion().to_nmm_per_radian() * 0.3;
        let by_hand = 16.0 * torque / (PI * 25.0_f64.powi(3));
        assert!((bar().stress(Angle::from_radians(0.3)).to_mpa() - by_hand).abs() < 1e-9);
    }

    #[test]
    fn a_hole_a_twentieth_further_out_is_a_tenth_softer() {
        let rates = rate_by_hole(mm(300.0), &[mm(285.0), mm(300.0), mm(315.0)]);
        assert!((rates[0] - 1.108).abs() < 1e-3 && rates[1] == 1.0 && (rates[2] - 0.907).abs() < 1e-3);
    }
}
