//! A sway bar's arms and links as a person measured them, at ride height in vehicle axes.

use glam::DVec3;

use crate::document::check::asks;
use crate::document::hardpoints::{ObstacleOn, PointForm};
use crate::document::heights::{self, read_at};
use crate::document::sway::Sway;
use crate::document::{Job, length_of};
use derecho_core::measure::{Angle, AngleEntry, Length};
use derecho_core::pose::sway_linkage::SwayLinkage;
use derecho_core::sway::Arm;

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

/// The bar's axis at ride height, forward and up, mm; None unless both were measured.
pub(crate) fn axis_of(job: &Job, form: &Sway) -> Option<(f64, f64)> {
    let up = height_of(job, &form.axis, form.on != ObstacleOn::Axle)?;
    Some((length_of(&form.axis.fore_aft)?.to_mm(), up))
}

/// Of the sway bar that `form` says, on the vehicle of a job.
pub(crate) fn linkage_of(job: &Job, form: &Sway) -> Result<SwayLinkage, Ask> {
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
    Ok(SwayLinkage {
        axis: (axis_x, axis_z),
        eye_out,
        far,
        on_axle,
        arm,
        left_longer: length_of(&form.left_longer).unwrap_or(Length::ZERO),
    })
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
