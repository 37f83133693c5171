//! The eyes' places as plumbed against the bar's own length.

use crate::assembly::named::likely_cause;
use derecho_core::bar::FrontView;
use derecho_core::measure::Length;
use serde::Serialize;
use utoipa::ToSchema;

use crate::bar::message::BarMessage;
use crate::defaults;
use crate::document::{Job, length_of};
use crate::message::Message;

/// Both eyes' places against the bar's length.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct EyeCheck {
    /// Sideways distance of the eyes as plumbed.
    pub plumbed_mm: Length,
    /// The bar's own reach less that.
    pub difference_mm: Length,
    /// Whether it is more than twice the uncertainty of the eye that is moved.
    pub too_much: bool,
    /// In words.
    pub says: Message,
}

/// Holds the eyes as plumbed against the bar as found; None where one was not plumbed.
#[must_use]
pub(super) fn eye_check(job: &Job, found: &FrontView) -> Option<EyeCheck> {
    let bar = &job.setups.found.bar;
    let plumbed = length_of(&bar.frame_eye_from_centre)? + length_of(&bar.axle_eye_from_centre)?;
    let difference = found.reach() - plumbed;
    let too_much = difference.abs() > defaults::PLUMBED * 2.0;
    let s = found.frame_eye_side().sign();
    let rail = length_of(&job.rig.frame_width).map_or(defaults::FRAME_WIDTH, Length::to_mm) / 2.0;
    let across = glam::DVec3::new(found.fore_aft().to_mm(), plumbed.to_mm() * s, found.rise().to_mm());
    let axle_y = length_of(&bar.axle_eye_from_centre).unwrap_or(Length::ZERO).to_mm() * -s;
    let cause = likely_cause(
        found.length().to_mm(),
        across,
        glam::DVec3::new(0.0, axle_y, 0.0),
        defaults::PLUMBED.to_mm() * 2.0_f64.sqrt(),
        rail,
    );
    let says = BarMessage::EyesSay { reach: found.reach(), plumbed, cause: too_much.then_some(cause) }.into();
    Some(EyeCheck { plumbed_mm: plumbed, difference_mm: difference, too_much, says })
}
