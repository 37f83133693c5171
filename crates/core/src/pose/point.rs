//! Points of the two bodies, and the pose that turns one kind into the other.
//!
//! Axes: x forward, y to the vehicle's left, z up, origin on the ground under the axle
//! centre at ride height (the directions of ISO 8855). The body stands still; the axle
//! moves.

use std::ops::Sub;

use glam::{DMat3, DVec3};

use crate::measure::{Angle, Length, Side};

/// A point fixed to the body.
///
/// A point of the axle is another kind, and only a [`Pose`] turns one into the other:
///
/// ```compile_fail
/// use derecho_core::pose::{AxlePoint, BodyPoint};
/// let reach = BodyPoint::from_mm(0.0, 400.0, 700.0) - AxlePoint::from_mm(0.0, -400.0, 500.0);
/// ```
/// ```
/// use derecho_core::measure::Length;
/// use derecho_core::pose::{AxlePoint, BodyPoint, Pose};
/// let axle_eye = Pose::RIDE.place(Length::from_mm(400.0), AxlePoint::from_mm(0.0, -400.0, 500.0));
/// let reach = BodyPoint::from_mm(0.0, 400.0, 700.0) - axle_eye;
/// assert_eq!(reach.y, 800.0);
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct BodyPoint(DVec3);

/// A point fixed to the axle, named by where it is at ride height with the axle centred.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct AxlePoint(DVec3);

macro_rules! point {
    ($name:ident) => {
        impl $name {
            /// From millimetres forward, to the left and up.
            #[must_use]
            pub const fn from_mm(x: f64, y: f64, z: f64) -> Self {
                Self(DVec3::new(x, y, z))
            }

            /// Millimetres forward, to the left and up.
            #[must_use]
            pub const fn to_mm(self) -> [f64; 3] {
                [self.0.x, self.0.y, self.0.z]
            }

            /// The same point on the other side of the centreline.
            #[must_use]
            pub const fn mirrored(self) -> Self {
                Self(DVec3::new(self.0.x, -self.0.y, self.0.z))
            }

            /// Moved by a displacement in millimetres, along the same axes.
            #[must_use]
            pub fn moved(self, by: DVec3) -> Self {
                Self(self.0 + by)
            }

            /// As a vector from the origin, mm.
            #[must_use]
            pub const fn vector(self) -> DVec3 {
                self.0
            }

            /// The point at a vector from the origin, mm.
            #[must_use]
            pub const fn at(vector: DVec3) -> Self {
                Self(vector)
            }
        }
    };
}

point!(BodyPoint);
point!(AxlePoint);

impl Sub for BodyPoint {
    type Output = DVec3;
    /// Displacement from `other`, in millimetres along the body's axes.
    fn sub(self, other: Self) -> DVec3 {
        self.0 - other.0
    }
}

/// Where the axle is against the body: shifts of its centre from the centred place at
/// ride height, and turns.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Pose {
    /// Forward.
    pub x: Length,
    /// To the left.
    pub y: Length,
    /// Up: heave, + in bump.
    pub z: Length,
    /// φ about x, + left wheel higher.
    pub roll: Angle,
    /// ψ about y, + top forward: caster falls by it, a rear pinion's nose goes down.
    pub pitch: Angle,
    /// ω about z, + points left.
    pub yaw: Angle,
}

impl Pose {
    /// Ride height, centred.
    pub const RIDE: Self = Self {
        x: Length::ZERO,
        y: Length::ZERO,
        z: Length::ZERO,
        roll: Angle::ZERO,
        pitch: Angle::ZERO,
        yaw: Angle::ZERO,
    };

    /// Where a point of the axle is on the body in this pose: p = C + (x, y, z) +
    /// R·(p₀ − C), C the axle centre at `axle_height` above the ground at ride height,
    /// R = Rz(ω)·Rx(φ)·Ry(ψ).
    #[must_use]
    pub fn place(&self, axle_height: Length, point: AxlePoint) -> BodyPoint {
        Placing::of(self, axle_height).place(point)
    }

    /// Travel of the wheel on a side: z ± (track/2)·sin φ, exact with this order of turns.
    #[must_use]
    pub fn wheel_travel(&self, side: Side, track: Length) -> Length {
        self.z + track * (0.5 * side.sign() * self.roll.sin())
    }
}

/// How the axle moves while it rolls at a fixed heave, per radian of roll.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct RollMotion {
    /// Of the axle centre, mm.
    pub shift: DVec3,
    /// Turn, about the body's axes: Rz·x for the roll itself, with the pitch and yaw that come with it.
    pub turn: DVec3,
}

/// A pose made ready for many points.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Placing {
    /// The axle centre at ride height, mm.
    pub centre: DVec3,
    /// How far it is shifted from there, mm.
    pub shift: DVec3,
    /// R = Rz·Rx·Ry.
    pub turn: DMat3,
    /// Axis of roll, Rz·x.
    pub roll_axis: DVec3,
    /// Axis of pitch, Rz·Rx·y.
    pub pitch_axis: DVec3,
}

impl Default for Placing {
    /// Ride height, centred, with the axle's centre at the ground.
    fn default() -> Self {
        Self {
            centre: DVec3::ZERO,
            shift: DVec3::ZERO,
            turn: DMat3::IDENTITY,
            roll_axis: DVec3::X,
            pitch_axis: DVec3::Y,
        }
    }
}

impl Placing {
    /// Of a pose, with the height of the axle centre above the ground at ride height.
    #[must_use]
    pub fn of(pose: &Pose, axle_height: Length) -> Self {
        Self::from_parts(
            axle_height.to_mm(),
            DVec3::new(pose.x.to_mm(), pose.y.to_mm(), pose.z.to_mm()),
            pose.roll.to_radians(),
            pose.pitch.to_radians(),
            pose.yaw.to_radians(),
        )
    }

    /// From millimetres and radians.
    #[must_use]
    pub fn from_parts(axle_height: f64, shift: DVec3, roll: f64, pitch: f64, yaw: f64) -> Self {
        let (sr, cr) = roll.sin_cos();
        let (sp, cp) = pitch.sin_cos();
        let (sy, cy) = yaw.sin_cos();
        let roll_axis = DVec3::new(cy, sy, 0.0);
        let pitch_axis = DVec3::new(-sy * cr, cy * cr, sr);
        // Third axis of Rz·Rx, up for a level axle.
        let up = DVec3::new(sy * sr, -cy * sr, cr);
        let turn = DMat3::from_cols(roll_axis * cp - up * sp, pitch_axis, roll_axis * sp + up * cp);
        Self { centre: DVec3::new(0.0, 0.0, axle_height), shift, turn, roll_axis, pitch_axis }
    }

    /// The point's place relative to the axle centre, turned.
    #[must_use]
    pub fn arm(&self, point: AxlePoint) -> DVec3 {
        self.turn * (point.vector() - self.centre)
    }

    /// Where an axle-fixed point is in the body.
    #[must_use]
    pub fn place(&self, point: AxlePoint) -> BodyPoint {
        BodyPoint::at(self.centre + self.shift + self.arm(point))
    }

    /// Where a place of the body is seen from the axle, as a point of it at ride height.
    #[must_use]
    pub fn seen_from_axle(&self, place: BodyPoint) -> DVec3 {
        self.centre + self.turn.transpose() * (place.vector() - self.centre - self.shift)
    }

    /// How an axle-fixed point moves in the body, mm per radian of roll.
    #[must_use]
    pub fn velocity(&self, motion: &RollMotion, point: AxlePoint) -> DVec3 {
        motion.shift + motion.turn.cross(self.arm(point))
    }

    /// How a place of the body moves as seen from the axle, mm per radian of roll.
    #[must_use]
    pub fn velocity_seen_from_axle(&self, motion: &RollMotion, place: BodyPoint) -> DVec3 {
        let out = place.vector() - self.centre - self.shift;
        self.turn.transpose() * -(motion.shift + motion.turn.cross(out))
    }

    /// A direction fixed to the axle, in body axes.
    #[must_use]
    pub fn direction(&self, axle_fixed: DVec3) -> DVec3 {
        self.turn * axle_fixed
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const AXLE: Length = Length::from_mm(400.0);

    #[test]
    fn a_quarter_turn_about_each_axis_goes_the_way_its_sign_says() {
        // Bodies turned by 90°, worked by hand from the meaning of each sign.
        let quarter = Angle::from_degrees(90.0);
        let rows = [
            // Left wheel higher: what was left is up.
            (Pose { roll: quarter, ..Pose::RIDE }, [0.0, 100.0, 400.0], [0.0, 0.0, 500.0]),
            // Top forward: what was up is forward.
            (Pose { pitch: quarter, ..Pose::RIDE }, [0.0, 0.0, 500.0], [100.0, 0.0, 400.0]),
            // Points left: what was forward is left.
            (Pose { yaw: quarter, ..Pose::RIDE }, [100.0, 0.0, 400.0], [0.0, 100.0, 400.0]),
        ];
        for (pose, [x, y, z], wanted) in rows {
            let placed = pose.place(AXLE, AxlePoint::from_mm(x, y, z));
            let off = placed - BodyPoint::from_mm(wanted[0], wanted[1], wanted[2]);
            assert!(off.length() < 1e-9, "{pose:?}: {placed:?}");
        }
    }

    #[test]
    fn the_order_of_turns_keeps_wheel_travel_exact() {
        let pose = Pose {
            z: Length::from_mm(30.0),
            roll: Angle::from_degrees(8.0),
            pitch: Angle::from_degrees(5.0),
            yaw: Angle::from_degrees(-3.0),
            ..Pose::RIDE
        };
        let hub = AxlePoint::from_mm(0.0, 780.0, 400.0);
        let risen = pose.place(AXLE, hub).to_mm()[2] - 400.0;
        let travel = pose.wheel_travel(Side::Left, Length::from_mm(1560.0));
        assert!((risen - travel.to_mm()).abs() < 1e-9);
    }
}
