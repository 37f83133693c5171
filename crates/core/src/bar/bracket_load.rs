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
///
/// ```
/// use derecho_core::measure::{Force, Length};
///
/// use derecho_core::bar::bracket_load::root_moment;
///
/// let moment = root_moment(Force::from_n(1000.0), Length::from_mm(100.0));
/// assert!((moment.to_nm() - 100.0).abs() < 1e-12);
/// ```
#[must_use]
pub fn root_moment(load: Force, lever: Length) -> Moment {
    load * lever
}

/// Force on each of two attachments a distance apart: moment / spacing.
///
/// ```
/// use derecho_core::measure::{Length, Moment};
///
/// use derecho_core::bar::bracket_load::attachment_force;
///
/// let force = attachment_force(Moment::from_nm(100.0), Length::from_mm(50.0));
/// assert!((force.to_n() - 2000.0).abs() < 1e-9);
/// ```
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

/// What a brace does for a bracket that hangs from a rail.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Braced {
    /// Moment at the bracket's root over what it is without the brace, without its sign.
    pub root_share: f64,
    /// Force in the brace over the bar's load.
    pub brace_share: f64,
}

/// A bracket loaded a `lever` from its root and held by a brace `below` it: a cantilever propped by a stiff brace. The
/// load bends the bracket by P·d²(3h − d)/6EI where the brace holds it, the brace bends it back by R·d³/3EI; alike,
/// R/P = (3h − d)/2d, and what is left at the root is |h − R/P·d|/h = (h − d)/2h. None where the brace holds it above
/// its root or beyond its eye. Estimate: a brace that gives takes less.
#[must_use]
pub fn braced(lever: Length, below: Length) -> Option<Braced> {
    if below <= Length::ZERO || below > lever {
        return None;
    }
    let brace_share = (lever * 3.0 - below) / (below * 2.0);
    Some(Braced { root_share: (lever - below) / (lever * 2.0), brace_share })
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

    /// Held at its eye the root feels nothing and the brace carries it all; nearly at the root half the moment stays,
    /// turned round, as in every table of propped beams.
    #[test]
    fn a_brace_by_its_limits() {
        let lever = Length::from_mm(200.0);
        let at_the_eye = braced(lever, lever).unwrap();
        assert!(at_the_eye.root_share.abs() < 1e-12 && (at_the_eye.brace_share - 1.0).abs() < 1e-12);
        assert!((braced(lever, Length::from_mm(1e-6)).unwrap().root_share - 0.5).abs() < 1e-6);
        assert_eq!(braced(lever, Length::ZERO), None);
        assert_eq!(braced(lever, Length::from_mm(201.0)), None);
    }

    /// The bracket's bending line, summed up step by step from its moments, passes through the brace.
    #[test]
    fn the_bracket_does_not_move_where_the_brace_holds_it() {
        let (lever, below) = (180.0, 110.0);
        let brace = braced(Length::from_mm(lever), Length::from_mm(below)).unwrap();
        let steps = 200_000;
        let step = below / f64::from(steps);
        let (mut slope, mut sideways) = (0.0, 0.0);
        for index in 0..steps {
            let x = (f64::from(index) + 0.5) * step;
            slope += ((lever - x) - brace.brace_share * (below - x)) * step;
            sideways += slope * step;
        }
        let without = below * below * (3.0 * lever - below) / 6.0;
        assert!((sideways / without).abs() < 1e-4, "{}", sideways / without);
        // And its moments balance: what is at the root is the load's less the brace's.
        let root = lever - brace.brace_share * below;
        assert!((root.abs() / lever - brace.root_share).abs() < 1e-12);
    }
}
