//! What is taken where a field is left empty.

use super::message::AssumedMessage;
use crate::defaults::{self, Assumption};

/// What is taken where a field is left empty, for the field to say in the person's unit.
#[must_use]
pub(crate) fn empty_fields() -> Vec<Assumption> {
    [
        ("/rig/bump", AssumedMessage::Length(defaults::BUMP)),
        ("/rig/droop", AssumedMessage::Length(defaults::DROOP)),
        ("/rig/tolerance", AssumedMessage::Length(defaults::TOLERANCE)),
        ("/rig/usual_spread", AssumedMessage::Length(defaults::SPREAD)),
        ("/setups/found/bar/heights_good_to", AssumedMessage::Length(defaults::BOLT_HEIGHT_GOOD_TO)),
        ("/bracket/swing_limit", AssumedMessage::Length(defaults::SWING_LIMIT)),
        ("/sheets/feature_uncertainty", AssumedMessage::Length(defaults::OWN_FEATURE)),
        ("/bracket/steep_from", AssumedMessage::WholeDegrees(defaults::STEEP_FROM_DEGREES)),
        ("/setups/found/bar/finder/good_to", AssumedMessage::Degrees(defaults::FINDER_GOOD_TO_DEGREES)),
        ("/sheets/resolution", AssumedMessage::Graduation),
    ]
    .into_iter()
    .map(|(pointer, says)| Assumption { pointer: pointer.to_owned(), says: says.into(), drawing_only: false })
    .collect()
}
