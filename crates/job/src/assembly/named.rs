//! What a watched limit is of, by name; and what an unlikely measure would fit with.

use crate::document::bodies;
use derecho_core::pose::body::BodyName;
use derecho_core::pose::mechanism::{Mechanism, Watched};
use glam::DVec3;

/// The two parts a gap lies between, the moving one first; None where it is no gap.
pub(crate) fn pair(mechanism: &Mechanism, what: Watched) -> Option<(BodyName, BodyName)> {
    let Watched::Gap { first, second } = what else { return None };
    let name = |index: usize| mechanism.bodies()[index].name.clone();
    Some((name(first), name(second)))
}

/// What a link is called in errors and lists, beside the names people gave.
pub(crate) fn link_name(name: &BodyName) -> String {
    match name {
        BodyName::Arm(name) | BodyName::Typed(name) => name.clone(),
        BodyName::DragLink => bodies::DRAG_LINK.to_owned(),
        BodyName::TieRod => bodies::TIE_ROD.to_owned(),
        BodyName::Driveshaft => bodies::DRIVESHAFT.to_owned(),
        _ => bodies::TRACK_BAR.to_owned(),
    }
}

/// What would make a measured length and its ends agree.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum LikelyCause {
    /// One end is on the other side of the centreline.
    OtherSide,
    /// A sideways distance was taken from the rail.
    FromTheRail,
    /// A number was misread on the tape.
    Misread,
    /// The length was taken over the outside of the eyes.
    OverTheEyes,
    /// None of these.
    Unknown,
}

/// What explains best why a link and its ends do not agree.
pub(crate) fn likely_cause(length: f64, across: DVec3, axle: DVec3, good_to: f64, rail: f64) -> LikelyCause {
    let fits = |apart: f64| (apart - length).abs() <= 2.0 * good_to;
    let moved = |by: DVec3| fits((across + by).length());
    // One eye on the far side of the centreline: its y was taken with the other sign.
    if moved(DVec3::new(0.0, 2.0 * axle.y, 0.0)) {
        return LikelyCause::OtherSide;
    }
    if moved(DVec3::new(0.0, across.y.signum() * rail, 0.0))
        || moved(DVec3::new(0.0, -across.y.signum() * rail, 0.0))
    {
        return LikelyCause::FromTheRail;
    }
    if [25.4, -25.4, 50.8, -50.8].into_iter().any(|inch| fits(across.length() + inch)) {
        return LikelyCause::Misread;
    }
    let difference = (across.length() - length).abs();
    if (25.0..=90.0).contains(&difference) {
        return LikelyCause::OverTheEyes;
    }
    LikelyCause::Unknown
}
