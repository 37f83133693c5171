//! What a bar puts into the frame and into the axle, and what the body feels of it.

use crate::measure::Length;

/// Use of the vehicle as a factor on its weight: road 1.0, trail 2.0, hard use 3.0.
#[must_use]
pub const fn use_factor(hard: bool, trail: bool) -> f64 {
    if hard {
        3.0
    } else if trail {
        2.0
    } else {
        1.0
    }
}

/// Moment at the root of a bracket: load · lever, N·m.
#[must_use]
pub fn root_moment(load_n: f64, lever: Length) -> f64 {
    load_n * lever.to_mm() / 1000.0
}

/// Force on each of two attachments a distance apart: moment / spacing, N.
#[must_use]
pub fn attachment_force(moment_nm: f64, spacing: Length) -> f64 {
    moment_nm * 1000.0 / spacing.to_mm()
}

/// Vertical force on the body in a turn: s·Y·v/h, + up, N; Y the sideways force of the bar on
/// the body, + left (a left turn).
#[must_use]
pub fn jacking(side_sign: f64, sideways_n: f64, rise: Length, reach: Length) -> f64 {
    side_sign * sideways_n * (rise / reach)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn moments_and_jacking_by_hand() {
        assert!((root_moment(12_000.0, Length::from_mm(150.0)) - 1800.0).abs() < 1e-9);
        assert!((attachment_force(1800.0, Length::from_mm(120.0)) - 15_000.0).abs() < 1e-9);
        // Frame eye left and higher: in a left turn the body is pushed left by the bar, and up.
        let up = jacking(1.0, 4000.0, Length::from_mm(150.0), Length::from_mm(750.0));
        assert!((up - 800.0).abs() < 1e-9);
        assert!((jacking(1.0, -4000.0, Length::from_mm(150.0), Length::from_mm(750.0)) + up).abs() < 1e-9);
        assert!(use_factor(false, false) < use_factor(false, true));
    }
}
