//! What a bolt carries by its size and grade, to compare a torque with. An estimate: the maker's figure always
//! wins, and no torque is ever supplied from here.

use std::f64::consts::PI;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Thread;
use crate::measure::{Force, Moment};

/// How much of the proof load a bolt is drawn to.
const DRAWN_TO: f64 = 0.75;
/// Inch bolts are weaker in the middle above this size, mm.
const ONE_INCH: f64 = 25.4;
/// Metric bolts of 8.8 are of another steel above this size, mm.
const SIXTEEN: f64 = 16.0;

/// The strength marked on a bolt's head.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub enum Grade {
    /// SAE grade 5, three lines.
    #[serde(rename = "grade_5")]
    Grade5,
    /// SAE grade 8, six lines.
    #[serde(rename = "grade_8")]
    Grade8,
    /// ISO 8.8.
    #[serde(rename = "8.8")]
    Class8_8,
    /// ISO 10.9.
    #[serde(rename = "10.9")]
    Class10_9,
    /// ISO 12.9.
    #[serde(rename = "12.9")]
    Class12_9,
}

impl Grade {
    /// As it is spoken and stamped.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Grade5 => "grade 5",
            Self::Grade8 => "grade 8",
            Self::Class8_8 => "8.8",
            Self::Class10_9 => "10.9",
            Self::Class12_9 => "12.9",
        }
    }

    /// Proof stress of a bolt of this thread, MPa (N/mm²). SAE J429: grade 5 85 ksi, 74 above one inch; grade 8
    /// 120 ksi. ISO 898-1: 8.8 580 MPa to M16 and 600 above, 10.9 830, 12.9 970.
    #[must_use]
    pub fn proof_stress_mpa(self, thread: &Thread) -> f64 {
        const MPA_PER_KSI: f64 = 6.894_757_293;
        let diameter = thread.diameter().to_mm();
        match self {
            Self::Grade5 if diameter > ONE_INCH + 1e-6 => 74.0 * MPA_PER_KSI,
            Self::Grade5 => 85.0 * MPA_PER_KSI,
            Self::Grade8 => 120.0 * MPA_PER_KSI,
            Self::Class8_8 if diameter > SIXTEEN + 1e-6 => 600.0,
            Self::Class8_8 => 580.0,
            Self::Class10_9 => 830.0,
            Self::Class12_9 => 970.0,
        }
    }
}

/// How a thread is treated before it goes in; one to a thread.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ThreadTreatment {
    /// Dry or plated: nut factor 0.20.
    #[default]
    Dry,
    /// Threadlocker: 0.17.
    Threadlocker,
    /// Oiled: 0.15.
    Oiled,
    /// Anti-seize: 0.13.
    AntiSeize,
}

impl ThreadTreatment {
    /// Nut factor K.
    #[must_use]
    pub const fn nut_factor(self) -> f64 {
        match self {
            Self::Dry => 0.20,
            Self::Threadlocker => 0.17,
            Self::Oiled => 0.15,
            Self::AntiSeize => 0.13,
        }
    }

    /// In words.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Dry => "dry",
            Self::Threadlocker => "with threadlocker",
            Self::Oiled => "oiled",
            Self::AntiSeize => "with anti-seize",
        }
    }
}

/// Tensile stress area, mm²: inch (π/4)(D − 0.9743/n)², metric (π/4)(D − 0.9382·p)², n threads to the inch, p
/// pitch. ASME B1.1, ISO 898-1.
///
/// ```
/// use derecho_core::fastener::Thread;
/// use derecho_core::fastener::strength::stress_area_mm2;
///
/// // ISO 898-1: 84.3 mm² for M12.
/// assert!((stress_area_mm2(&Thread::parse("M12x1.75").unwrap()) - 84.3).abs() < 0.1);
/// ```
#[must_use]
pub fn stress_area_mm2(thread: &Thread) -> f64 {
    let lost = if thread.is_metric() { 0.9382 } else { 0.9743 };
    let effective = (thread.diameter() - thread.pitch() * lost).to_mm();
    PI / 4.0 * effective * effective
}

/// Load a bolt takes without staying longer: proof stress × stress area.
#[must_use]
pub fn proof_load(thread: &Thread, grade: Grade) -> Force {
    Force::from_n(grade.proof_stress_mpa(thread) * stress_area_mm2(thread))
}

/// A torque to compare the given one with: K·D·0.75·proof load.
#[must_use]
pub fn reference_torque(thread: &Thread, grade: Grade, treatment: ThreadTreatment) -> Moment {
    proof_load(thread, grade) * DRAWN_TO * (thread.diameter() * treatment.nut_factor())
}

/// How a torque that was given stands to what the bolt carries.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TorqueStands {
    /// Less than half of the reference: it would hold little.
    Low,
    /// About what is usual for it.
    Usual,
    /// More than brings it to its proof load: it would stretch for good.
    PastProof,
}

/// Compares a torque that was given with what a bolt of this size and grade carries.
#[must_use]
pub fn torque_stands(
    given: Moment,
    thread: &Thread,
    grade: Grade,
    treatment: ThreadTreatment,
) -> TorqueStands {
    let share = given.to_nm() / reference_torque(thread, grade, treatment).to_nm();
    if share < 0.5 {
        TorqueStands::Low
    } else if share > 1.0 / DRAWN_TO {
        TorqueStands::PastProof
    } else {
        TorqueStands::Usual
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn thread(text: &str) -> Thread {
        Thread::parse(text).unwrap()
    }

    /// Areas from the standards' own tables: ASME B1.1 in square inches, ISO 898-1 in square millimetres.
    #[test]
    fn stress_areas_are_those_of_the_tables() {
        for (text, square_inches) in [
            ("1/2-13", 0.1419),
            ("1/2-20", 0.1599),
            ("9/16-12", 0.182),
            ("9/16-18", 0.203),
            ("5/8-11", 0.226),
            ("3/4-10", 0.334),
        ] {
            let area = stress_area_mm2(&thread(text)) / 645.16;
            assert!((area - square_inches).abs() < 6e-4, "{text}: {area}");
        }
        for (text, square_mm) in [
            ("M10x1.5", 58.0),
            ("M12x1.75", 84.3),
            ("M14x2", 115.0),
            ("M14x1.5", 125.0),
            ("M16x2", 157.0),
            ("M18x2.5", 192.0),
        ] {
            let area = stress_area_mm2(&thread(text));
            assert!((area / square_mm - 1.0).abs() < 0.004, "{text}: {area}");
        }
    }

    /// ISO 898-1 table 6: proof load of M16x2 8.8 is 91 kN, of M18x2.5 8.8 115 kN, of M14x2 10.9 95.5 kN.
    #[test]
    fn proof_loads_are_those_of_the_table() {
        for (text, grade, kilonewtons) in [
            ("M16x2", Grade::Class8_8, 91.0),
            ("M18x2.5", Grade::Class8_8, 115.0),
            ("M14x2", Grade::Class10_9, 95.5),
            ("M12x1.75", Grade::Class12_9, 81.8),
        ] {
            let load = proof_load(&thread(text), grade).to_n() / 1000.0;
            assert!((load / kilonewtons - 1.0).abs() < 0.006, "{text}: {load}");
        }
        // SAE J429: 9/16-12 of grade 8 carries 21,850 lb, 1-1/8-7 of grade 5 56,500 lb.
        for (text, grade, pounds) in
            [("9/16-12", Grade::Grade8, 21_850.0), ("1-1/8-7", Grade::Grade5, 56_500.0)]
        {
            let load = proof_load(&thread(text), grade).to_n() / 4.448_222;
            assert!((load / pounds - 1.0).abs() < 0.006, "{text}: {load}");
        }
    }

    /// By hand: M14x1.5 10.9, A = π/4·(14 − 1.4073)² = 124.55 mm², 830 MPa, 103.4 kN, three quarters 77.53 kN; dry
    /// 0.2 × 14 mm × 77.53 kN = 217.1 N·m; with anti-seize 0.13 of the same: 141.1.
    #[test]
    fn a_reference_torque_by_hand() {
        let bolt = thread("M14x1.5");
        let dry = reference_torque(&bolt, Grade::Class10_9, ThreadTreatment::Dry).to_nm();
        assert!((dry - 217.1).abs() < 0.1, "{dry}");
        let eased = reference_torque(&bolt, Grade::Class10_9, ThreadTreatment::AntiSeize).to_nm();
        assert!((eased - 141.1).abs() < 0.1, "{eased}");
        let stands =
            |nm: f64| torque_stands(Moment::from_nm(nm), &bolt, Grade::Class10_9, ThreadTreatment::Dry);
        assert_eq!(stands(108.0), TorqueStands::Low);
        assert_eq!(stands(109.0), TorqueStands::Usual);
        assert_eq!(stands(289.0), TorqueStands::Usual);
        // 217.1 / 0.75 is the proof load's own torque.
        assert_eq!(stands(290.0), TorqueStands::PastProof);
    }
}
