//! Where bar and links are, and the arms in every pose.

use crate::document::check::asks;
use glam::DVec3;

use crate::document::hardpoints::{ObstacleOn, PointForm};
use crate::document::heights::{self, read_at};
use crate::document::sway::Sway;
use crate::document::{Job, length_of};
use derecho_core::measure::{Angle, AngleEntry, Length};
use derecho_core::pose::mechanism::Posed;
use derecho_core::pose::travel::Envelope;
use derecho_core::pose::{AxlePoint, BodyPoint};
use derecho_core::sway::{Arm, ArmFault, ArmPose};

/// How arm and link work over the travel.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum LinkWork {
    /// Clear of a straight line.
    Clear,
    /// Past where it is worth telling, within what works.
    ALot,
    /// They fail.
    Fails,
}

/// Bar and links of a job, at ride height in vehicle axes.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct Places {
    /// The bar's axis: forward, up.
    pub(crate) axis: (f64, f64),
    /// Link eye on the arm, out from the middle.
    pub(crate) eye_out: f64,
    /// Far end: forward, out to its side, up.
    pub(crate) far: DVec3,
    pub(crate) on_axle: bool,
    pub(crate) arm: Arm,
    pub(crate) axle_height: Length,
    /// Left link less right link.
    pub(crate) left_longer: Length,
    /// Whether no link was there, and this one is sized from arm, far end and what the arms are aimed at.
    pub(crate) sized: bool,
}

/// Both arms in a pose, left first, or why one does not close.
pub(crate) type SwayArms = [Result<ArmPose, ArmFault>; 2];

/// The twist between two arms.
pub(crate) fn twist([left, right]: &[ArmPose; 2]) -> Angle {
    left.above_level - right.above_level
}

/// What is missing, in words.
pub(crate) type Ask = Vec<(&'static str, &'static str)>;

/// Height at ride height, mm: points of the body were read with the body so much higher.
fn height_of(job: &Job, point: &PointForm, body: bool) -> Option<f64> {
    let height = point.height.as_ref()?;
    let above =
        if body { heights::of_body(job, height, read_at(job))? } else { heights::of_axle(job, height) };
    Some(above.to_mm())
}

/// A point as forward, out to its side, up at ride height; None unless all three were measured.
pub(crate) fn point_of(job: &Job, point: &PointForm, body: bool) -> Option<DVec3> {
    Some(DVec3::new(
        length_of(&point.fore_aft)?.to_mm(),
        point.out_from_centre(&job.rig)?.to_mm(),
        height_of(job, point, body)?,
    ))
}

impl Places {
    /// Of the sway bar that `form` says, on the vehicle of a job.
    pub(crate) fn of(job: &Job, form: &Sway, axle_height: Length) -> Result<Self, Ask> {
        let read_at = read_at(job);
        let on_axle = form.on == ObstacleOn::Axle;
        let up = |point: &PointForm, body: bool| height_of(job, point, body);
        let mut ask = Vec::new();
        let axis_z = up(&form.axis, !on_axle);
        let axis_x = length_of(&form.axis.fore_aft).map(Length::to_mm);
        if axis_z.is_none() || axis_x.is_none() {
            ask.push(("/sway/axis", asks::SWAY_AXIS));
        }
        let arm_length = form.arm();
        if arm_length.is_none() {
            ask.push(("/sway/holes", asks::SWAY_HOLES));
        }
        let link = length_of(&form.link);
        if link.is_none() {
            ask.push(("/sway/link", asks::SWAY_LINK));
        }
        let eye_out = length_of(&form.eye_from_centre).map(Length::to_mm);
        if eye_out.is_none() {
            ask.push(("/sway/eye_from_centre", asks::SWAY_EYE));
        }
        let (Some(axis_z), Some(axis_x), Some(length), Some(link), Some(eye_out)) =
            (axis_z, axis_x, arm_length, link, eye_out)
        else {
            return Err(ask);
        };
        let arm = Arm { length, link, forward: form.forward, link_up: on_axle };
        let taped = up(&form.far_end, on_axle).map(|z| {
            let fore_aft = length_of(&form.far_end.fore_aft).map(Length::to_mm);
            let turn = if form.forward { 1.0 } else { -1.0 };
            let x = fore_aft.unwrap_or(axis_x + turn * length.to_mm());
            DVec3::new(x, form.far_end.out_from_centre(&job.rig).map_or(eye_out, Length::to_mm), z)
        });
        // Leans and angle were read as it stood: the far end is found there, and where it is on the body
        // brought to ride height with it.
        let leant = || {
            let axis_read = if on_axle { axis_z } else { axis_z + read_at.to_mm() };
            let far = from_leans(form, &arm, axis_x, axis_read, eye_out)?;
            Some(if on_axle { far - DVec3::Z * read_at.to_mm() } else { far })
        };
        let Some(far) = taped.or_else(leant) else {
            ask.push(("/sway/far_end", asks::SWAY_FAR_END));
            return Err(ask);
        };
        Ok(Self {
            axis: (axis_x, axis_z),
            eye_out,
            far,
            on_axle,
            arm,
            axle_height,
            left_longer: length_of(&form.left_longer).unwrap_or(Length::ZERO),
            sized: false,
        })
    }

    /// The far end of a side in a pose, seen from what the bar is fixed to: ahead of the axis,
    /// above it, and out from the arm's eye.
    pub(crate) fn far_end(&self, posed: &Posed, left: bool) -> [Length; 3] {
        let side = if left { 1.0 } else { -1.0 };
        let far = DVec3::new(self.far.x, self.far.y * side, self.far.z);
        let placing = &posed.placing;
        let seen = if self.on_axle {
            placing.seen_from_axle(BodyPoint::at(far))
        } else {
            placing.place(AxlePoint::at(far)).vector()
        };
        [seen.x - self.axis.0, seen.z - self.axis.1, seen.y * side - self.eye_out].map(Length::from_mm)
    }

    /// How the far end of a side's link moves in a pose: ahead, above and sideways of the arm's eye, mm to
    /// the radian of roll at the same heave.
    fn far_end_per_roll(&self, posed: &Posed, left: bool) -> [f64; 3] {
        let side = if left { 1.0 } else { -1.0 };
        let far = DVec3::new(self.far.x, self.far.y * side, self.far.z);
        let placing = &posed.placing;
        let motion = posed.solved.roll_motion(placing);
        let moves = if self.on_axle {
            placing.velocity_seen_from_axle(&motion, BodyPoint::at(far))
        } else {
            placing.velocity(&motion, AxlePoint::at(far))
        };
        [moves.x, moves.z, moves.y * side]
    }

    /// d(α_left − α_right)/dφ in a pose, in closed form. None where a side does not close.
    pub(crate) fn twist_per_roll(&self, posed: &Posed) -> Option<f64> {
        self.twist_per_roll_of(posed, &self.both_arms(posed)?)
    }

    /// As [`Self::twist_per_roll`], of arms that are known there.
    pub(crate) fn twist_per_roll_of(&self, posed: &Posed, [left, right]: &[ArmPose; 2]) -> Option<f64> {
        let turns = |arm: &ArmPose, left: bool| {
            let far = self.far_end(posed, left).map(Length::to_mm);
            self.arm.turned_by(arm, far, self.far_end_per_roll(posed, left))
        };
        Some(turns(left, true)? - turns(right, false)?)
    }

    /// Both arms in a pose, left first. None where a side does not close.
    pub(crate) fn both_arms(&self, posed: &Posed) -> Option<[ArmPose; 2]> {
        Some([self.arm_at(posed, true).ok()?, self.arm_at(posed, false).ok()?])
    }

    /// The arm of a side in a pose.
    pub(crate) fn arm_at(&self, posed: &Posed, left: bool) -> Result<ArmPose, ArmFault> {
        let [ahead, above, out] = self.far_end(posed, left);
        let half = self.left_longer / 2.0;
        let link = self.arm.link + if left { half } else { -half };
        Arm { link, ..self.arm }.pose(ahead, above, out)
    }

    /// The arms in every pose that the stops allow: shape `[left][right]` as the envelope's.
    pub(crate) fn over(&self, envelope: &Envelope) -> Vec<Option<SwayArms>> {
        let allowed = envelope.poses.iter().zip(&envelope.allowed);
        allowed
            .map(|(posed, allowed)| {
                let posed = posed.as_ref().filter(|_| *allowed)?;
                Some([self.arm_at(posed, true), self.arm_at(posed, false)])
            })
            .collect()
    }

    /// Middle lines of the bar, the arms and the links in a pose, in body axes, mm; left first. None
    /// where a side does not close.
    pub(crate) fn rods(&self, posed: &Posed) -> Option<[[DVec3; 2]; 5]> {
        Some(self.rods_at(posed, self.both_arms(posed)?.map(|arm| arm.above_level)))
    }

    /// The same with the arms at these angles, left first.
    pub(crate) fn rods_at(&self, posed: &Posed, angles: [Angle; 2]) -> [[DVec3; 2]; 5] {
        let placing = &posed.placing;
        let (left_eye, left_far) = (self.eye(angles[0], true), self.far_end(posed, true));
        let (right_eye, right_far) = (self.eye(angles[1], false), self.far_end(posed, false));
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
    pub(crate) fn drawn_angle(&self, posed: &Posed, left: bool, arm: Option<&ArmPose>) -> Angle {
        arm.map_or_else(
            || {
                let [ahead, above, _] = self.far_end(posed, left);
                let turn = if self.arm.forward { 1.0 } else { -1.0 };
                Angle::from_radians(above.to_mm().atan2(turn * ahead.to_mm()))
            },
            |arm| arm.above_level,
        )
    }

    /// The link's eye on an arm at an angle, in the axes of what the bar is fixed to.
    pub(crate) fn eye(&self, above_level: Angle, left: bool) -> DVec3 {
        let turn = if self.arm.forward { 1.0 } else { -1.0 };
        let a = self.arm.length.to_mm();
        DVec3::new(
            self.axis.0 + turn * a * above_level.cos(),
            if left { self.eye_out } else { -self.eye_out },
            self.axis.1 + a * above_level.sin(),
        )
    }

    /// Distance of the far end from the axis in the arm's plane.
    pub(crate) fn reach_at(&self, posed: &Posed, left: bool) -> Length {
        let [ahead, above, _] = self.far_end(posed, left);
        Length::from_mm(ahead.to_mm().hypot(above.to_mm()))
    }
}

/// E + l·(tan λx, tan λy, ∓1)/√(1 + tan²λx + tan²λy): the far end from the arm's angle, the
/// link's length and its two leans from upright.
fn from_leans(form: &Sway, arm: &Arm, axis_x: f64, axis_z: f64, eye_out: f64) -> Option<DVec3> {
    let angle = form.arm_angle.as_ref()?.angle();
    let lean = |entry: &Option<AngleEntry>| entry.as_ref().map_or(Angle::ZERO, AngleEntry::angle).tan();
    let (forward, outward) = (lean(&form.lean_forward), lean(&form.lean_outward));
    let turn = if arm.forward { 1.0 } else { -1.0 };
    let eye = DVec3::new(
        axis_x + turn * arm.length.to_mm() * angle.cos(),
        eye_out,
        axis_z + arm.length.to_mm() * angle.sin(),
    );
    let down = if arm.link_up { 1.0 } else { -1.0 };
    let way = DVec3::new(forward, outward, down) / (1.0 + forward * forward + outward * outward).sqrt();
    Some(eye + way * arm.link.to_mm())
}
