//! Strength of bars, only as a comparison. Every figure is an estimate and leaves out weld
//! quality, fatigue, notches and damage; none is a certification.

use std::f64::consts::PI;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::measure::{Force, Length, Mass, Moment, Stress};

/// What a bar is made of.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Material {
    /// Cold-drawn seamless tube of a low-carbon steel.
    #[default]
    SeamlessTube,
    /// Electric-resistance welded tube of a low-carbon steel.
    WeldedTube,
    /// Normalised chrome-molybdenum tube.
    ChromeMolyTube,
    /// Normalised chrome-molybdenum bar, solid.
    ChromeMolySolid,
    /// Cold-rolled solid bar of a low-carbon steel.
    ColdRolledSolid,
    /// Forged medium-carbon steel.
    Forged,
}

/// Young's modulus of steel, MPa (handbook value).
const YOUNG: f64 = 205_000.0;
/// Density of steel, kg/mm³ (handbook value).
const DENSITY: f64 = 7.85e-6;

impl Material {
    /// Typical yield stress (handbook minima of these product forms, rounded down).
    #[must_use]
    pub const fn yield_stress(self) -> Stress {
        Stress::from_mpa(match self {
            Self::SeamlessTube => 480.0,
            Self::WeldedTube => 310.0,
            Self::ChromeMolyTube | Self::ChromeMolySolid => 435.0,
            Self::ColdRolledSolid => 370.0,
            Self::Forged => 400.0,
        })
    }

    /// In words.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::SeamlessTube => "cold-drawn seamless tube",
            Self::WeldedTube => "welded tube",
            Self::ChromeMolyTube => "chrome-moly tube",
            Self::ChromeMolySolid => "chrome-moly solid",
            Self::ColdRolledSolid => "cold-rolled solid",
            Self::Forged => "forged",
        }
    }
}

/// A round section: solid where the wall is left out.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Section {
    /// Outside diameter.
    pub outside: Length,
    /// Wall of a tube; None is solid.
    pub wall: Option<Length>,
}

impl Section {
    fn inside(&self) -> f64 {
        let outside = self.outside.to_mm();
        self.wall.map_or(0.0, |wall| (outside - 2.0 * wall.to_mm()).max(0.0))
    }

    /// Area A = π(D² − d²)/4, mm².
    #[must_use]
    pub fn area(&self) -> f64 {
        PI / 4.0 * (self.outside.to_mm().powi(2) - self.inside().powi(2))
    }

    /// Second moment I = π(D⁴ − d⁴)/64, mm⁴.
    #[must_use]
    pub fn second_moment(&self) -> f64 {
        PI / 64.0 * (self.outside.to_mm().powi(4) - self.inside().powi(4))
    }

    /// Section modulus Z = 2I/D, mm³.
    #[must_use]
    pub fn modulus(&self) -> f64 {
        2.0 * self.second_moment() / self.outside.to_mm()
    }

    /// Mass of a length.
    #[must_use]
    pub fn mass(&self, length: Length) -> Mass {
        Mass::from_kg(self.area() * length.to_mm() * DENSITY)
    }
}

/// A bar against the load it carries.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BarStrength {
    /// Compression it stands by Perry's formula, N.
    pub critical_n: f64,
    /// Euler's load of the straight bar, N: never reached.
    pub euler_n: f64,
    /// Critical load over the load it carries.
    pub margin: f64,
    /// Mass eye to eye, kg.
    pub mass_kg: f64,
}

/// Axial load of a bar: P = n·W·L/h.
///
/// ```
/// use derecho_core::measure::{Force, Length};
///
/// use derecho_core::bar::strength::bar_load;
///
/// // 0.8 of its length is what a bar reaches: it carries 1/0.8 of what pushes sideways.
/// let mm = Length::from_mm;
/// let load = bar_load(Force::from_n(8000.0), 1.0, mm(1000.0), mm(800.0));
/// assert!((load.to_n() - 10_000.0).abs() < 1e-6);
/// ```
#[must_use]
pub fn bar_load(weight: Force, factor: f64, length: Length, reach: Length) -> Force {
    weight * factor * (length / reach)
}

/// A bar in compression by Perry's formula: σ_e = π²EI/(L²A), η = (b + L/1000)·A/Z with b the
/// bend's offset, m = ½(σ_y + (1 + η)σ_e), critical stress m − √(m² − σ_y·σ_e).
#[must_use]
pub fn in_compression(
    section: &Section,
    material: Material,
    length: Length,
    bend: Length,
    load: Force,
) -> BarStrength {
    let (area, long) = (section.area(), length.to_mm());
    let euler = PI * PI * YOUNG * section.second_moment() / (long * long * area);
    let eccentric = (bend.to_mm() + long / 1000.0) * area / section.modulus();
    let yields = material.yield_stress().to_mpa();
    let middle = 0.5 * (yields + (1.0 + eccentric) * euler);
    let critical = middle - (middle * middle - yields * euler).max(0.0).sqrt();
    BarStrength {
        critical_n: critical * area,
        euler_n: euler * area,
        margin: if load > Force::ZERO { critical * area / load.to_n() } else { f64::INFINITY },
        mass_kg: section.mass(length).to_kg(),
    }
}

/// Root area of a thread against the area of the body it ends: d_root = d − 1.2269·p.
#[must_use]
pub fn thread_root_share(diameter: Length, pitch: Length, section: &Section) -> f64 {
    let root = diameter.to_mm() - 1.2269 * pitch.to_mm();
    PI / 4.0 * root * root / section.area()
}

/// What a bolted joint holds by friction alone: preload T/(K·D), friction 0.15, two faces.
/// The preload scatters by ±25 %.
///
/// ```
/// use derecho_core::measure::{Length, Moment};
///
/// use derecho_core::bar::strength::slip_load;
///
/// // T = K·F·d: 100 N·m at K = 0.2 and 10 mm clamp with 50 kN; what slips is a share of that.
/// let slip = slip_load(Moment::from_nm(100.0), 0.2, Length::from_mm(10.0));
/// assert!(slip.to_n() > 0.0 && slip.to_n() < 50_000.0 * 2.0);
/// ```
#[must_use]
pub fn slip_load(torque: Moment, nut_factor: f64, diameter: Length) -> Force {
    let preload = torque / (diameter * nut_factor);
    preload * (0.15 * 2.0)
}

/// Dead band at the tyre, end to end: the sum of diametral clearances · L/h.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::bar::strength::dead_band;
///
/// // A millimetre of play along a bar that reaches 0.8 of its length lets the axle go 1/0.8.
/// let mm = Length::from_mm;
/// assert!((dead_band(mm(1.0), mm(1000.0), mm(800.0)).to_mm() - 1.25).abs() < 1e-9);
/// ```
#[must_use]
pub fn dead_band(clearances: Length, length: Length, reach: Length) -> Length {
    clearances * (length / reach)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn mm(value: f64) -> Length {
        Length::from_mm(value)
    }

    #[test]
    fn sections_by_hand() {
        let solid = Section { outside: mm(20.0), wall: None };
        assert!((solid.area() - 314.159).abs() < 1e-3);
        assert!((solid.second_moment() - 7853.98).abs() < 1e-2);
        let tube = Section { outside: mm(40.0), wall: Some(mm(5.0)) };
        // π/4·(1600 − 900); π/64·(2 560 000 − 810 000).
        assert!((tube.area() - 549.779).abs() < 1e-3);
        assert!((tube.second_moment() - 85_902.9).abs() < 0.1);
        assert!((tube.mass(mm(1000.0)).to_kg() - 4.3158).abs() < 1e-3);
    }

    #[test]
    fn a_straight_long_bar_comes_near_to_euler_and_a_stub_to_yield() {
        let thin = Section { outside: mm(10.0), wall: None };
        let long =
            in_compression(&thin, Material::ColdRolledSolid, mm(3000.0), Length::ZERO, Force::from_n(1.0));
        assert!(long.critical_n < long.euler_n && long.critical_n > 0.7 * long.euler_n, "{long:?}");
        let thick = Section { outside: mm(60.0), wall: None };
        let stub =
            in_compression(&thick, Material::ColdRolledSolid, mm(100.0), Length::ZERO, Force::from_n(1.0));
        assert!((stub.critical_n / (370.0 * thick.area()) - 1.0).abs() < 0.03, "{stub:?}");
    }

    #[test]
    fn perry_is_the_load_at_which_the_bent_bar_first_yields() {
        // Independent of the closed form: σ + σ·η/(1 − σ/σ_e) = σ_y at the answer.
        let tube = Section { outside: mm(32.0), wall: Some(mm(4.0)) };
        let (length, bend) = (mm(820.0), mm(25.0));
        let load = Force::from_n(10_000.0);
        let found = in_compression(&tube, Material::SeamlessTube, length, bend, load);
        let stress = found.critical_n / tube.area();
        let euler = found.euler_n / tube.area();
        let eccentric = (25.0 + 0.82) * tube.area() / tube.modulus();
        let extreme = stress + stress * eccentric / (1.0 - stress / euler);
        assert!((extreme - 480.0).abs() < 1e-6, "{extreme}");
        assert!((found.margin - found.critical_n / 10_000.0).abs() < 1e-12);
        // A bend costs most of it.
        let straight = in_compression(&tube, Material::SeamlessTube, length, Length::ZERO, load);
        assert!(straight.critical_n > 2.0 * found.critical_n);
    }

    #[test]
    fn loads_slip_and_dead_band_by_hand() {
        let load = bar_load(Force::from_n(10_000.0), 2.0, mm(1000.0), mm(800.0));
        assert!((load.to_n() - 25_000.0).abs() < 1e-9);
        // 180 N·m on 14 mm, K 0.2: 64.3 kN of preload; 0.3 of it.
        assert!((slip_load(Moment::from_nm(180.0), 0.2, mm(14.0)).to_n() - 19_285.7).abs() < 0.1);
        assert!((dead_band(mm(0.8), mm(1000.0), mm(800.0)).to_mm() - 1.0).abs() < 1e-12);
        // M20×1.5: root 18.16 mm against a solid 20 mm bar.
        let bar = Section { outside: mm(20.0), wall: None };
        assert!((thread_root_share(mm(20.0), mm(1.5), &bar) - (18.159_65_f64 / 20.0).powi(2)).abs() < 1e-6);
    }
}
