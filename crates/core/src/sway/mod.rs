//! Sway bars: arms and links over the travel, and how stiff a bar is.
//!
//! The bar's axis lies across the vehicle through B, on the body (links go down to the axle) or
//! on the axle (links go up to the body). Everything here is in the frame the bar is fixed to;
//! where the far end of a link is there comes from the pose. Nothing here knows of jobs.

pub mod body_roll;
pub mod rate;
pub mod rod;
pub mod room;
pub mod splined;

pub use crate::pose::sway_arm as arm;
pub use arm::{Arm, ArmFault, ArmPose, window};
pub use rate::{BarRate, rate_by_hole};
