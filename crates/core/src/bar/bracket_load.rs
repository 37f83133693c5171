//! What a bar puts into the frame and into the axle, and what the body feels of it.

use crate::measure::{Force, Length, Moment, Side};

/// How hard a vehicle is used.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum UsedHow {
    /// On roads.
    Road,
    /// On trails.
    Trail,
    /// Crawling, or fast over rough ground.
    Hard,
}

impl UsedHow {
    /// As a factor on the vehicle's weight.
    #[must_use]
    pub const fn factor(self) -> f64 {
        match self {
            Self::Road => 1.0,
            Self::Trail => 2.0,
            Self::Hard => 3.0,
        }
    }
}

/// Moment at the root of a bracket: load · lever.
#[must_use]
pub fn root_moment(load: Force, lever: Length) -> Moment {
    load * lever
}

/// Force on each of two attachments a distance apart: moment / spacing.
#[must_use]
pub fn attachment_force(moment: Moment, spacing: Length) -> Force {
    moment / spacing
}

/// Vertical force on the body in a turn, + up: s·Y·v/h, s the sign of the frame eye's side; Y the
/// sideways force of the bar on the body, + left (a left turn).
#[must_use]
pub fn jacking(frame_eye: Side, sideways: Force, rise: Length, reach: Length) -> Force {
    sideways * (frame_eye.sign() * (rise / reach))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn moments_and_jacking_by_hand() {
        assert!((root_moment(Force::from_n(12_000.0), Length::from_mm(150.0)).to_nm() - 1800.0).abs() < 1e-9);
        let each = attachment_force(Moment::from_nm(1800.0), Length::from_mm(120.0));
        assert!((each.to_n() - 15_000.0).abs() < 1e-9);
        // Frame eye left and higher: in a left turn the body is pushed left by the bar, and up.
        let turn = Force::from_n(4000.0);
        let up = jacking(Side::Left, turn, Length::from_mm(150.0), Length::from_mm(750.0));
        assert!((up.to_n() - 800.0).abs() < 1e-9);
        assert_eq!(jacking(Side::Left, -turn, Length::from_mm(150.0), Length::from_mm(750.0)), -up);
        assert!(UsedHow::Road.factor() < UsedHow::Trail.factor());
    }
}
