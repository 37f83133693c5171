//! A pose of the sway bar, and many of them as columns: a third of the size of a list of them.
//!
//! Not here: solving them (`links`).

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use derecho_core::measure::{Angle, Length};

/// One side of arm and link in a pose.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ArmResult {
    /// α above level; absent where the link does not close.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub arm_angle_deg: Option<Angle>,
    /// γ at the link's eye.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub eye_angle_deg: Option<Angle>,
    /// The link's far end ahead of the bar's axis.
    pub far_ahead_mm: Length,
    /// And above it.
    pub far_above_mm: Length,
    /// The link's eye ahead of the axis.
    pub eye_ahead_mm: Length,
    /// And above it.
    pub eye_above_mm: Length,
}

/// Both sides in a pose.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SwayPose {
    /// Travel of the left wheel.
    pub left_wheel_mm: Length,
    /// Travel of the right wheel.
    pub right_wheel_mm: Length,
    /// The axle's middle, to the left of the body's.
    pub y_mm: Length,
    /// And above where it is at ride height.
    pub z_mm: Length,
    /// Its lean, + left wheel higher.
    pub roll_deg: Angle,
    /// Seen from the end: the bar, its left and right arm, the left and right link, each from end to end
    /// as left and up, mm in the body's axes at ride height. Where a side does not close its arm
    /// points to the link's far end.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub end_mm: [[[f64; 2]; 2]; 5],
    /// The left arm.
    pub left: ArmResult,
    /// The right arm.
    pub right: ArmResult,
    /// Twist between the arms, + left arm higher; absent where a side does not close.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub twist_deg: Option<Angle>,
    /// K_bar here, N·m per degree of roll: k_eff·(dΔα/dφ)².
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub roll_rate_nm_per_deg: Option<f64>,
    /// Moment of the bar against the roll here, N·m: k_eff·Δα·dΔα/dφ.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bar_moment_nm: Option<f64>,
}

/// One side of arm and link in many poses, each column in the poses' order.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ArmColumns {
    /// α above level; `null` where the link does not close.
    pub arm_angle_deg: Vec<Option<Angle>>,
    /// γ at the link's eye.
    pub eye_angle_deg: Vec<Option<Angle>>,
    /// The link's far end ahead of the bar's axis.
    pub far_ahead_mm: Vec<Length>,
    /// And above it.
    pub far_above_mm: Vec<Length>,
    /// The link's eye ahead of the axis.
    pub eye_ahead_mm: Vec<Length>,
    /// And above it.
    pub eye_above_mm: Vec<Length>,
}

/// Both sides in many poses, each column in the poses' order; what a column is says [`SwayPose`].
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SwayPoses {
    /// Travel of the left wheel.
    pub left_wheel_mm: Vec<Length>,
    /// Travel of the right wheel.
    pub right_wheel_mm: Vec<Length>,
    /// The axle's middle, to the left of the body's.
    pub y_mm: Vec<Length>,
    /// And above where it is at ride height.
    pub z_mm: Vec<Length>,
    /// Its lean, + left wheel higher.
    pub roll_deg: Vec<Angle>,
    /// Seen from the end, shape `[pose][rod][end][left, up]`.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub end_mm: Vec<[[[f64; 2]; 2]; 5]>,
    /// The left arm.
    pub left: ArmColumns,
    /// The right arm.
    pub right: ArmColumns,
    /// Twist between the arms, + left arm higher; `null` where a side does not close.
    pub twist_deg: Vec<Option<Angle>>,
    /// K_bar, N·m per degree of roll.
    pub roll_rate_nm_per_deg: Vec<Option<f64>>,
    /// Moment of the bar against the roll, N·m.
    pub bar_moment_nm: Vec<Option<f64>>,
}

impl ArmColumns {
    fn push(&mut self, arm: &ArmResult) {
        self.arm_angle_deg.push(arm.arm_angle_deg);
        self.eye_angle_deg.push(arm.eye_angle_deg);
        self.far_ahead_mm.push(arm.far_ahead_mm);
        self.far_above_mm.push(arm.far_above_mm);
        self.eye_ahead_mm.push(arm.eye_ahead_mm);
        self.eye_above_mm.push(arm.eye_above_mm);
    }

    fn get(&self, index: usize) -> Option<ArmResult> {
        Some(ArmResult {
            arm_angle_deg: *self.arm_angle_deg.get(index)?,
            eye_angle_deg: *self.eye_angle_deg.get(index)?,
            far_ahead_mm: *self.far_ahead_mm.get(index)?,
            far_above_mm: *self.far_above_mm.get(index)?,
            eye_ahead_mm: *self.eye_ahead_mm.get(index)?,
            eye_above_mm: *self.eye_above_mm.get(index)?,
        })
    }
}

impl SwayPoses {
    /// One pose; `None` past the last.
    #[must_use]
    pub fn get(&self, index: usize) -> Option<SwayPose> {
        Some(SwayPose {
            left_wheel_mm: *self.left_wheel_mm.get(index)?,
            right_wheel_mm: *self.right_wheel_mm.get(index)?,
            y_mm: *self.y_mm.get(index)?,
            z_mm: *self.z_mm.get(index)?,
            roll_deg: *self.roll_deg.get(index)?,
            end_mm: *self.end_mm.get(index)?,
            left: self.left.get(index)?,
            right: self.right.get(index)?,
            twist_deg: *self.twist_deg.get(index)?,
            roll_rate_nm_per_deg: *self.roll_rate_nm_per_deg.get(index)?,
            bar_moment_nm: *self.bar_moment_nm.get(index)?,
        })
    }

    /// All of them, in their order.
    pub fn iter(&self) -> impl Iterator<Item = SwayPose> + '_ {
        (0..self.left_wheel_mm.len()).filter_map(|index| self.get(index))
    }
}

impl FromIterator<SwayPose> for SwayPoses {
    fn from_iter<I: IntoIterator<Item = SwayPose>>(poses: I) -> Self {
        let mut all = Self::default();
        for pose in poses {
            all.left_wheel_mm.push(pose.left_wheel_mm);
            all.right_wheel_mm.push(pose.right_wheel_mm);
            all.y_mm.push(pose.y_mm);
            all.z_mm.push(pose.z_mm);
            all.roll_deg.push(pose.roll_deg);
            all.end_mm.push(pose.end_mm);
            all.left.push(&pose.left);
            all.right.push(&pose.right);
            all.twist_deg.push(pose.twist_deg);
            all.roll_rate_nm_per_deg.push(pose.roll_rate_nm_per_deg);
            all.bar_moment_nm.push(pose.bar_moment_nm);
        }
        all
    }
}
