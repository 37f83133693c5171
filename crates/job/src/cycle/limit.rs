//! Watched limits by the parts they are of. Not here: where they are met (the rest of the stage), or a sentence.

use derecho_core::pose::body::BodyName;
use derecho_core::pose::joint::JointKind;
use derecho_core::pose::mechanism::{Level, LinkEnd, Mechanism, Watched};
use derecho_core::pose::travel::Way;

/// An end of an arm or of the track bar.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum NamedEnd {
    /// The track bar's, at the frame.
    FrameEye,
    /// The track bar's, at the axle.
    AxleEye,
    /// An arm's, at the body.
    Body,
    /// An arm's, at the axle.
    Axle,
}

/// What a watched limit is of.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum NamedLimit {
    /// Tilt of a joint.
    Tilt {
        /// The arm or bar.
        member: BodyName,
        /// Its end.
        end: NamedEnd,
    },
    /// Wind-up of a bushing.
    WindUp {
        /// The arm or bar.
        member: BodyName,
        /// Its end.
        end: NamedEnd,
    },
    /// A gap between two parts.
    Gap {
        /// The one that moves.
        first: BodyName,
        /// The other.
        second: BodyName,
    },
    /// What links work against each other.
    LinksBind,
    /// The give of radius arms' bushes.
    BushesGive,
}

impl NamedLimit {
    /// What a watched figure of a mechanism is of.
    #[must_use]
    pub fn of(mechanism: &Mechanism, what: Watched) -> Self {
        let member = |index: usize| mechanism.members()[index].name.clone();
        let named = |index: usize, end: LinkEnd| match (end, mechanism.bar() == Some(index)) {
            (LinkEnd::Body, true) => NamedEnd::FrameEye,
            (LinkEnd::Axle, true) => NamedEnd::AxleEye,
            (LinkEnd::Body, false) => NamedEnd::Body,
            (LinkEnd::Axle, false) => NamedEnd::Axle,
        };
        match what {
            Watched::Tilt { member: m, end } => Self::Tilt { member: member(m), end: named(m, end) },
            Watched::WindUp { member: m, end } => Self::WindUp { member: member(m), end: named(m, end) },
            Watched::Gap { first, second } => {
                let name = |index: usize| mechanism.bodies()[index].name.clone();
                Self::Gap { first: name(first), second: name(second) }
            }
            Watched::Bind if mechanism.on_radius_arms() => Self::BushesGive,
            Watched::Bind => Self::LinksBind,
        }
    }
}

/// What happens somewhere on the travel.
#[derive(Clone, Debug, PartialEq)]
pub enum Happening {
    /// A limit comes near, or is past.
    Limit(NamedLimit, Level),
    /// A bar or arm that reaches no further.
    PulledTight {
        /// Which.
        part: BodyName,
    },
}

impl Happening {
    /// What a watched figure of a mechanism does at a level.
    #[must_use]
    pub fn of(mechanism: &Mechanism, what: Watched, level: Level) -> Self {
        Self::Limit(NamedLimit::of(mechanism, what), level)
    }
}

/// Where something is met.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum CrossedAt {
    /// As it stands, above or below ride height, before anything moves.
    AsItStands,
    /// At these travels of both wheels, left and right, mm, + up.
    At(f64, f64),
}

impl CrossedAt {
    /// The place of travels, left and right, mm, on a mechanism.
    #[must_use]
    pub fn of(mechanism: &Mechanism, (left, right): (f64, f64)) -> Self {
        let driven = mechanism.driven();
        if driven != 0.0 && stands(mechanism, (left, right)) {
            Self::AsItStands
        } else {
            Self::At(left, right)
        }
    }
}

/// Whether wheel travels, mm, are those it stands at.
#[must_use]
pub fn stands(mechanism: &Mechanism, (left, right): (f64, f64)) -> bool {
    [left, right].into_iter().all(|travel| (travel - mechanism.driven()).abs() < 0.5)
}

/// What ends the travel first, in short.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum EndsBy {
    /// A bar or arm is pulled tight.
    Tight,
    /// A joint is out of tilt.
    Tilt,
    /// A bushing is wound up.
    WindUp,
    /// The axle binds.
    Bind,
    /// Something touches.
    Touch,
}

impl EndsBy {
    /// By what was watched; nothing watched is a bar or arm pulled tight.
    #[must_use]
    pub const fn of(what: Option<Watched>) -> Self {
        match what {
            None => Self::Tight,
            Some(Watched::Tilt { .. }) => Self::Tilt,
            Some(Watched::WindUp { .. }) => Self::WindUp,
            Some(Watched::Bind) => Self::Bind,
            Some(Watched::Gap { .. }) => Self::Touch,
        }
    }
}

/// Where the travel ends first.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum EndsAt {
    /// Where it stands; whether that is ride height.
    AsItStands {
        /// Driven at ride height.
        ride: bool,
    },
    /// On a way, at these wheel travels, left and right, mm, + up.
    On(Way, f64, f64),
}

/// A limit as it is called: what it is of, and the kind of its joint where it is a joint's.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct LimitName {
    /// What it is of.
    pub of: NamedLimit,
    /// The kind of its joint.
    pub joint: Option<JointKind>,
}

/// The name of a limit.
pub(crate) fn name(mechanism: &Mechanism, what: Watched) -> LimitName {
    let joint = match what {
        Watched::Tilt { member, end } | Watched::WindUp { member, end } => {
            Some(mechanism.members()[member].joints[end as usize].kind)
        }
        Watched::Gap { .. } | Watched::Bind => None,
    };
    LimitName { of: NamedLimit::of(mechanism, what), joint }
}

/// Whether a watched figure is of the track bar.
pub(crate) fn is_bar(mechanism: &Mechanism, what: Watched) -> bool {
    let bar = |index: usize| mechanism.bar() == Some(index);
    match what {
        Watched::Tilt { member, .. } | Watched::WindUp { member, .. } => bar(member),
        // Members come first among the bodies.
        Watched::Gap { first, second } => bar(first) || bar(second),
        Watched::Bind => false,
    }
}

/// Whether a watched figure is the tilt of a joint.
pub(crate) const fn is_tilt(what: Watched) -> bool {
    matches!(what, Watched::Tilt { .. })
}
