//! How arms and links work, and the arms over an envelope. Where they are says `assembly::sway_linkage`.

pub(crate) use crate::assembly::sway_linkage::{Ask, linkage_of, point_of};
use derecho_core::pose::sway_linkage::SwayArms;
pub(crate) use derecho_core::pose::sway_linkage::SwayLinkage as Places;
use derecho_core::pose::travel::Envelope;

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
