//! Steering of a solid front axle by a drag link: what bump and roll steer, and the length
//! that makes the wheel straight again.
//!
//! The drag link goes from the pitman end P on the body to its axle-side end D on the
//! knuckle's steering arm. The kingpin axis goes through K along k, axle-fixed, k up.
//! δ > 0 steers left. |P − (K + R_k(δ)(D − K))| = length is A cos δ + B sin δ + C = 0.

use glam::DVec3;

use crate::measure::{Angle, Length};
use crate::pose::point::Placing;
use crate::pose::{AxlePoint, BodyPoint, Pose};

/// A drag link with the knuckle it turns.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct DragLink {
    /// P, its end on the pitman arm, wheels straight.
    pub pitman: BodyPoint,
    /// D, its end on the knuckle's steering arm, wheels straight.
    pub knuckle: AxlePoint,
    /// A point K of the kingpin axis.
    pub kingpin: AxlePoint,
    /// Direction k of the kingpin axis, pointing up, fixed to the axle; need not be unit.
    pub kingpin_axis: DVec3,
    /// Its length, centre to centre.
    pub made: Length,
}

/// How far the knuckle is turned in a pose.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Turn {
    /// δ in radians, + steers left.
    pub steer: f64,
    /// Whether the drag link reaches.
    pub reaches: bool,
}

impl DragLink {
    /// Length |P − D| in a pose with the road wheels straight on the axle (δ = 0).
    #[must_use]
    pub fn straight_length(&self, axle_height: Length, pose: &Pose) -> Length {
        Length::from_mm((pose.place(axle_height, self.knuckle) - self.pitman).length())
    }

    /// Where its axle-side end is in a pose, steered by δ.
    #[must_use]
    pub fn knuckle_place(&self, axle_height: Length, pose: &Pose, steer: Angle) -> BodyPoint {
        self.knuckle_at(&Placing::of(pose, axle_height), steer)
    }

    /// As [`DragLink::knuckle_place`], in a pose made ready.
    #[must_use]
    pub fn knuckle_at(&self, placing: &Placing, steer: Angle) -> BodyPoint {
        let axis = placing.direction(self.kingpin_axis.normalize());
        let w = placing.arm(self.knuckle) - placing.arm(self.kingpin);
        let along = axis * w.dot(axis);
        let across = w - along;
        let turned = along + across * steer.cos() + axis.cross(w) * steer.sin();
        placing.place(self.kingpin).moved(turned)
    }

    /// The steer δ of the knuckle in a pose, the root nearest to `near`; None where the
    /// drag link does not reach.
    #[must_use]
    pub fn steer(&self, axle_height: Length, pose: &Pose, near: Angle) -> Option<Angle> {
        let turn = self.turn_at(&Placing::of(pose, axle_height), near.to_radians());
        turn.reaches.then(|| Angle::from_radians(turn.steer))
    }

    /// As [`DragLink::steer`], in a pose made ready; where the drag link does not reach the turn at which it
    /// comes nearest to it, which runs on from where it just does.
    #[must_use]
    pub fn turn_at(&self, placing: &Placing, near: f64) -> Turn {
        let axis = placing.direction(self.kingpin_axis.normalize());
        let w = placing.arm(self.knuckle) - placing.arm(self.kingpin);
        let to_pitman = self.pitman - placing.place(self.kingpin);
        let along = axis * w.dot(axis);
        let across = w - along;
        let a = -2.0 * to_pitman.dot(across);
        let b = -2.0 * to_pitman.dot(axis.cross(w));
        let c = (to_pitman - along).length_squared() + across.length_squared()
            - self.made.to_mm() * self.made.to_mm();
        let ratio = -c / a.hypot(b);
        // A knuckle end on its own kingpin turns nothing.
        if ratio.is_nan() {
            return Turn { steer: near, reaches: false };
        }
        let (middle, half) = (b.atan2(a), ratio.clamp(-1.0, 1.0).acos());
        let wrap = |angle: f64| {
            let turn = angle - near;
            near + turn - (turn / std::f64::consts::TAU).round() * std::f64::consts::TAU
        };
        let roots = [wrap(middle + half), wrap(middle - half)];
        let nearer = if (roots[0] - near).abs() <= (roots[1] - near).abs() { 0 } else { 1 };
        // Beyond this the link is too short or too long by more than rounding.
        Turn { steer: roots[nearer], reaches: ratio.abs() <= 1.0 + 1e-12 }
    }

    /// Its angle in front view at ride height, + body end higher, and its length seen from
    /// the front.
    #[must_use]
    pub fn front_view(&self, axle_height: Length, pose: &Pose) -> (Angle, Length) {
        let out = self.pitman - pose.place(axle_height, self.knuckle);
        (Angle::from_radians(out.z.atan2(out.y.abs())), Length::from_mm(out.y.hypot(out.z)))
    }
}
