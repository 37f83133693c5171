//! A sway bar's arms and links as the axle moves.

use glam::DVec3;

use super::point::{AxlePoint, BodyPoint, Placing, RollMotion};
use super::sway_arm::{Arm, ArmFault, ArmPose};
use crate::measure::{Angle, Length};

/// Where bar, arms and links are, at ride height in vehicle axes.
#[derive(Clone, Debug, PartialEq)]
pub struct SwayLinkage {
    /// The bar's axis: forward, up, mm.
    pub axis: (f64, f64),
    /// Link eye on the arm, out from the middle, mm.
    pub eye_out: f64,
    /// Far end of the left link: forward, out to its side, up, mm; the right one is its mirror.
    pub far: DVec3,
    /// Whether the bar is fixed to the axle and its links go up to the body.
    pub on_axle: bool,
    /// The arm with its link.
    pub arm: Arm,
    /// Left link less right link.
    pub left_longer: Length,
}

/// Both arms in a pose, left first, or why one does not close.
pub type SwayArms = [Result<ArmPose, ArmFault>; 2];

/// The twist between two arms.
#[must_use]
pub fn twist([left, right]: &[ArmPose; 2]) -> Angle {
    left.above_level - right.above_level
}

impl SwayLinkage {
    /// The far end of a side in a pose, seen from what the bar is fixed to: ahead of the axis, above it, and out from the
    /// arm's eye.
    #[must_use]
    pub fn far_end(&self, placing: &Placing, left: bool) -> [Length; 3] {
        let side = if left { 1.0 } else { -1.0 };
        let far = DVec3::new(self.far.x, self.far.y * side, self.far.z);
        let seen = if self.on_axle {
            placing.seen_from_axle(BodyPoint::at(far))
        } else {
            placing.place(AxlePoint::at(far)).vector()
        };
        [seen.x - self.axis.0, seen.z - self.axis.1, seen.y * side - self.eye_out].map(Length::from_mm)
    }

    /// How the far end of a side's link moves in a pose: ahead, above and sideways of the arm's eye, mm to
    /// the radian of roll at the same heave.
    fn far_end_per_roll(&self, placing: &Placing, motion: &RollMotion, left: bool) -> [f64; 3] {
        let side = if left { 1.0 } else { -1.0 };
        let far = DVec3::new(self.far.x, self.far.y * side, self.far.z);
        let moves = if self.on_axle {
            placing.velocity_seen_from_axle(motion, BodyPoint::at(far))
        } else {
            placing.velocity(motion, AxlePoint::at(far))
        };
        [moves.x, moves.z, moves.y * side]
    }

    /// d(α_left − α_right)/dφ in a pose that rolls so, in closed form, of arms that are known there. None where arm and
    /// link of a side lie in one line.
    #[must_use]
    pub fn twist_per_roll(
        &self,
        placing: &Placing,
        motion: &RollMotion,
        [left, right]: &[ArmPose; 2],
    ) -> Option<f64> {
        let turns = |arm: &ArmPose, left: bool| {
            let far = self.far_end(placing, left).map(Length::to_mm);
            self.arm.turned_by(arm, far, self.far_end_per_roll(placing, motion, left))
        };
        Some(turns(left, true)? - turns(right, false)?)
    }

    /// Both arms in a pose, left first. None where a side does not close.
    #[must_use]
    pub fn both_arms(&self, placing: &Placing) -> Option<[ArmPose; 2]> {
        Some([self.arm_at(placing, true).ok()?, self.arm_at(placing, false).ok()?])
    }

    /// The arm of a side in a pose.
    ///
    /// # Errors
    /// Where arm and link do not close.
    pub fn arm_at(&self, placing: &Placing, left: bool) -> Result<ArmPose, ArmFault> {
        let [ahead, above, out] = self.far_end(placing, left);
        let half = self.left_longer / 2.0;
        let link = self.arm.link + if left { half } else { -half };
        Arm { link, ..self.arm }.pose(ahead, above, out)
    }

    /// Middle lines of the bar, the arms and the links in a pose, in body axes, mm; left first. None
    /// where a side does not close.
    #[must_use]
    pub fn rods(&self, placing: &Placing) -> Option<[[DVec3; 2]; 5]> {
        Some(self.rods_at(placing, self.both_arms(placing)?.map(|arm| arm.above_level)))
    }

    /// The same with the arms at these angles, left first.
    #[must_use]
    pub fn rods_at(&self, placing: &Placing, angles: [Angle; 2]) -> [[DVec3; 2]; 5] {
        let (left_eye, left_far) = (self.eye(angles[0], true), self.far_end(placing, true));
        let (right_eye, right_far) = (self.eye(angles[1], false), self.far_end(placing, false));
        let seen = |point: DVec3| {
            if self.on_axle { placing.place(AxlePoint::at(point)).vector() } else { point }
        };
        let far = |[ahead, above, out]: [Length; 3], sign: f64| {
            seen(DVec3::new(
                self.axis.0 + ahead.to_mm(),
                sign * (self.eye_out + out.to_mm()),
                self.axis.1 + above.to_mm(),
            ))
        };
        let root = |sign: f64| seen(DVec3::new(self.axis.0, sign * self.eye_out, self.axis.1));
        let (left_eye, right_eye) = (seen(left_eye), seen(right_eye));
        [
            [root(1.0), root(-1.0)],
            [root(1.0), left_eye],
            [root(-1.0), right_eye],
            [left_eye, far(left_far, 1.0)],
            [right_eye, far(right_far, -1.0)],
        ]
    }

    /// The arm's angle for drawing: towards the link's far end where it does not close.
    #[must_use]
    pub fn drawn_angle(&self, placing: &Placing, left: bool, arm: Option<&ArmPose>) -> Angle {
        arm.map_or_else(
            || {
                let [ahead, above, _] = self.far_end(placing, left);
                let turn = if self.arm.forward { 1.0 } else { -1.0 };
                Angle::from_radians(above.to_mm().atan2(turn * ahead.to_mm()))
            },
            |arm| arm.above_level,
        )
    }

    /// The link's eye on an arm at an angle, in the axes of what the bar is fixed to.
    ///
    /// ```
    /// use derecho_core::measure::{Angle, Length};
    /// use derecho_core::pose::sway_linkage::SwayLinkage;
    /// use derecho_core::sway::Arm;
    /// use glam::DVec3;
    ///
    /// let arm = Arm { length: Length::from_mm(300.0), link: Length::from_mm(250.0), forward: true, link_up: false };
    /// let far = DVec3::new(300.0, 480.0, 450.0);
    /// let bar = SwayLinkage { axis: (0.0, 700.0), eye_out: 480.0, far, on_axle: false, arm, left_longer: Length::ZERO };
    /// // A level arm of 300 mm points forward from the bar.
    /// assert_eq!(bar.eye(Angle::ZERO, true), DVec3::new(300.0, 480.0, 700.0));
    /// ```
    #[must_use]
    pub fn eye(&self, above_level: Angle, left: bool) -> DVec3 {
        let turn = if self.arm.forward { 1.0 } else { -1.0 };
        let a = self.arm.length.to_mm();
        DVec3::new(
            self.axis.0 + turn * a * above_level.cos(),
            if left { self.eye_out } else { -self.eye_out },
            self.axis.1 + a * above_level.sin(),
        )
    }

    /// Distance of the far end from the axis in the arm's plane.
    #[must_use]
    pub fn reach_at(&self, placing: &Placing, left: bool) -> Length {
        let [ahead, above, _] = self.far_end(placing, left);
        Length::from_mm(ahead.to_mm().hypot(above.to_mm()))
    }
}
