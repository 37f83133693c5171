//! Joints at the ends of links: how far each is turned out of its rest, and what it takes.
//!
//! All turns are half-angles from the middle; makers often print the total.

use glam::DVec3;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::measure::Angle;

/// What sits in an eye.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum JointKind {
    /// Rubber bonded to its sleeves: twists, does not turn.
    #[default]
    Rubber,
    /// Polyurethane: turns on its sleeve.
    Polyurethane,
    /// Spherical joint.
    Spherical,
    /// Spherical joint with high-misalignment spacers.
    SphericalHighMisalignment,
}

/// What a joint takes, as half-angles.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct JointLimits {
    /// Tilt of the eye against its bolt that is a lot.
    pub tilt_warn: Angle,
    /// Tilt that ends the travel.
    pub tilt_fail: Angle,
    /// Wind-up about the bolt that is a lot, and that is too much; none where it turns free.
    pub wind_up: Option<(Angle, Angle)>,
}

impl JointKind {
    /// What this kind takes (defaults of this program; the part's own sheet rules).
    #[must_use]
    pub const fn limits(self) -> JointLimits {
        let (warn, fail, wind_up) = match self {
            Self::Rubber => (6.0, 10.0, Some((Angle::from_degrees(18.0), Angle::from_degrees(30.0)))),
            Self::Polyurethane => (4.0, 6.0, None),
            // A spherical joint has no give: it is free until its collar touches.
            Self::Spherical => (10.0, 12.0, None),
            Self::SphericalHighMisalignment => (21.0, 25.0, None),
        };
        JointLimits { tilt_warn: Angle::from_degrees(warn), tilt_fail: Angle::from_degrees(fail), wind_up }
    }

    /// Whether a link between two such joints can roll about its own axis.
    #[must_use]
    pub const fn rolls(self) -> bool {
        matches!(self, Self::Spherical | Self::SphericalHighMisalignment)
    }

    /// In words.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Rubber => "rubber bushing",
            Self::Polyurethane => "polyurethane bushing",
            Self::Spherical => "spherical joint",
            Self::SphericalHighMisalignment => "high-misalignment joint",
        }
    }
}

/// Both eyes of a link in one pose.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Misalignment {
    /// How far each eye is off its bolt, body end first, in radians.
    pub off: [f64; 2],
    /// Twist taken by the body end, of the whole twist between the bolts, in radians.
    pub share: f64,
    /// Cosines of the cones alone: the cone of an end is asin|u·n|.
    pub cone_cos: [f64; 2],
    /// Twist between the bolts seen along the link, less the clocking of its eyes.
    pub twist: f64,
}

/// How far both eyes are off their bolts, the twist shared so that the worse end is least.
///
/// `along` is the unit vector from the body end to the axle end, `bolts` the unit bolt axes
/// at the body end and at the axle end, all in body axes; `clocking` is the angle between
/// the eyes themselves as made, in radians, from [`twist_between`] at rest.
#[must_use]
pub fn misalignment(along: DVec3, bolts: [DVec3; 2], clocking: f64) -> Misalignment {
    let cone_cos = bolts.map(|bolt| (1.0 - along.dot(bolt).powi(2)).max(0.0).sqrt());
    let twist = wrapped(twist_between(along, bolts) - clocking);
    let whole = twist.abs();
    let [near, far] = cone_cos;
    // Equal tilts where near·cos τ = far·cos(T − τ); at an end of [0, T] where there is none.
    let balanced = (near - far * whole.cos()).atan2(far * whole.sin());
    let share = if whole < 1e-12 { 0.0 } else { balanced.clamp(0.0, whole) };
    let off =
        [(near * share.cos()).clamp(-1.0, 1.0).acos(), (far * (whole - share).cos()).clamp(-1.0, 1.0).acos()];
    Misalignment { off, share: share * twist.signum(), cone_cos, twist }
}

/// The angle from the first bolt to the second about `along`, in radians, −π/2 to π/2: a
/// bolt has no head or tail here.
#[must_use]
pub fn twist_between(along: DVec3, bolts: [DVec3; 2]) -> f64 {
    let flat = bolts.map(|bolt| bolt - along * along.dot(bolt));
    let angle = along.dot(flat[0].cross(flat[1])).atan2(flat[0].dot(flat[1]));
    wrapped(angle)
}

fn wrapped(angle: f64) -> f64 {
    angle - (angle / std::f64::consts::PI).round() * std::f64::consts::PI
}

/// The turn of a link about a bolt since `rest`, both given in the frame the bolt is fixed
/// to, in radians.
#[must_use]
pub fn turn_about(bolt: DVec3, rest: DVec3, now: DVec3) -> f64 {
    let flat = |v: DVec3| v - bolt * bolt.dot(v);
    let (a, b) = (flat(rest), flat(now));
    bolt.dot(a.cross(b)).atan2(a.dot(b))
}

/// How far a link may roll either way about its own axis before an eye reaches `limit`:
/// the range of its body-end twist, in radians. Empty (None) where an eye is past it.
#[must_use]
pub fn free_spin(found: &Misalignment, limits: [f64; 2]) -> Option<(f64, f64)> {
    let reach = |end: usize| {
        let ratio = limits[end].cos() / found.cone_cos[end];
        (ratio <= 1.0).then(|| ratio.acos())
    };
    let (body, axle) = (reach(0)?, reach(1)?);
    let low = (-body).max(found.twist - axle);
    let high = body.min(found.twist + axle);
    (low <= high).then_some((low, high))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn deg(angle: f64) -> f64 {
        angle.to_degrees()
    }

    #[test]
    fn a_link_square_to_both_bolts_is_not_off_at_all() {
        let found = misalignment(DVec3::Y, [DVec3::X, DVec3::X], 0.0);
        assert!(found.off.iter().all(|off| off.abs() < 1e-7));
    }

    #[test]
    fn a_link_leaning_towards_its_bolts_is_off_by_that_lean() {
        let lean = 7.0_f64.to_radians();
        let along = DVec3::new(lean.sin(), lean.cos(), 0.0);
        let found = misalignment(along, [DVec3::X, DVec3::X], 0.0);
        assert!((deg(found.off[0]) - 7.0).abs() < 1e-9 && (deg(found.off[1]) - 7.0).abs() < 1e-9);
    }

    #[test]
    fn pure_twist_is_shared_half_and_half() {
        let turn = 12.0_f64.to_radians();
        let bolts = [DVec3::X, DVec3::new(turn.cos(), 0.0, -turn.sin())];
        let found = misalignment(DVec3::Y, bolts, 0.0);
        assert!((deg(found.twist.abs()) - 12.0).abs() < 1e-9);
        assert!((deg(found.off[0]) - 6.0).abs() < 1e-9 && (deg(found.off[1]) - 6.0).abs() < 1e-9);
    }

    #[test]
    fn no_other_share_makes_the_worse_end_better() {
        let along = DVec3::new(0.11, 0.98, -0.05).normalize();
        let bolts = [DVec3::X, DVec3::new(0.95, 0.1, 0.3).normalize()];
        let found = misalignment(along, bolts, 0.0);
        let worst = found.off[0].max(found.off[1]);
        for step in -200..=200 {
            let share = found.twist * f64::from(step) / 100.0;
            let off = |cone: f64, twist: f64| (cone * twist.cos()).acos();
            let other = off(found.cone_cos[0], share).max(off(found.cone_cos[1], found.twist - share));
            assert!(other >= worst - 1e-9, "{share}");
        }
    }

    #[test]
    fn wind_up_is_the_turn_about_the_bolt() {
        let turn = 20.0_f64.to_radians();
        let now = DVec3::new(turn.cos(), 0.3, -turn.sin());
        assert!((deg(turn_about(DVec3::Y, DVec3::X, now)) - 20.0).abs() < 1e-9);
    }

    #[test]
    fn a_straight_bar_spins_until_its_collars_touch() {
        let found = misalignment(DVec3::Y, [DVec3::X, DVec3::X], 0.0);
        let limit = 12.0_f64.to_radians();
        let (low, high) = free_spin(&found, [limit, limit]).unwrap();
        assert!((deg(low) + 12.0).abs() < 1e-9 && (deg(high) - 12.0).abs() < 1e-9);
        let lean = 13.0_f64.to_radians();
        let past = misalignment(DVec3::new(lean.sin(), lean.cos(), 0.0), [DVec3::X, DVec3::X], 0.0);
        assert_eq!(free_spin(&past, [limit, limit]), None);
    }
}
