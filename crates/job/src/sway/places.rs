//! How arms and links work, and the arms over an envelope. Where they are says `assembly::sway_linkage`.

pub(crate) use crate::assembly::sway_linkage::{Ask, linkage_of, point_of};
use derecho_core::pose::mechanism::Posed;
use derecho_core::pose::sway_linkage::SwayArms;
pub(crate) use derecho_core::pose::sway_linkage::SwayLinkage as Places;
use derecho_core::pose::travel::Envelope;
use derecho_core::sway::ArmPose;

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

/// The arms in every pose that the stops allow: shape `[left][right]` as the envelope's.
pub(crate) fn over(places: &Places, envelope: &Envelope) -> Vec<Option<SwayArms>> {
    let allowed = envelope.poses.iter().zip(&envelope.allowed);
    allowed
        .map(|(posed, allowed)| {
            let placing = &posed.as_ref().filter(|_| *allowed)?.placing;
            Some([places.arm_at(placing, true), places.arm_at(placing, false)])
        })
        .collect()
}

/// d(α_left − α_right)/dφ in a pose, of arms that are known there.
pub(crate) fn twist_per_roll_of(places: &Places, posed: &Posed, arms: &[ArmPose; 2]) -> Option<f64> {
    places.twist_per_roll(&posed.placing, &posed.solved.roll_motion(&posed.placing), arms)
}

/// As [`twist_per_roll_of`], of the arms there. None where a side does not close.
pub(crate) fn twist_per_roll(places: &Places, posed: &Posed) -> Option<f64> {
    twist_per_roll_of(places, posed, &places.both_arms(&posed.placing)?)
}
