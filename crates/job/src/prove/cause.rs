//! The likely cause where a movement differs from its prediction.

use derecho_core::measure::Length;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::defaults;
use crate::document::Sheet;
use crate::tape::{Refusal, SheetResult, stance};

/// Why the movement differs from the prediction.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Cause {
    /// The after-readings were taken while it hung.
    ReadWhileHanging,
    /// The body stood at another height.
    HeightChanged,
    /// The bar was changed by the whole difference of the sides instead of half.
    FullDifferenceUsed,
    /// The bar was turned the wrong way.
    SignTurned,
    /// The axle has hardly moved.
    NotMoved,
    /// An eye that was moved may sit elsewhere than planned.
    EyeElsewhere,
    /// None of these fits.
    Unexplained,
}

impl Cause {
    /// Whether something has to be looked at before anything is set again.
    #[must_use]
    pub const fn is_open(self) -> bool {
        matches!(self, Self::NotMoved | Self::Unexplained)
    }
}

/// The movement a cause is looked for in.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Moved {
    /// Offset before, + left.
    pub(super) before: Length,
    /// Movement that was predicted.
    pub(super) predicted: Length,
    /// Movement that was measured.
    pub(super) measured: Length,
    /// What their difference is good to.
    pub(super) uncertainty: Length,
    /// Whether they agree within that.
    pub(super) agrees: bool,
}

/// How much higher the frame stood for the later sheet, where that is another height.
#[must_use]
pub fn height_change(before: Option<&Sheet>, after: &Sheet) -> Option<Length> {
    let change = stance(after)? - stance(before?)?;
    (change.abs() > defaults::HEIGHT_CHANGED).then_some(change)
}

/// Looks for it.
#[must_use]
pub(super) fn cause(
    sheet: &Sheet,
    result: &SheetResult,
    before: Option<&Sheet>,
    movement: Option<&Moved>,
) -> Option<Cause> {
    if result.refused.contains(&Refusal::Hanging) {
        return Some(Cause::ReadWhileHanging);
    }
    if !result.refused.is_empty() {
        return Some(Cause::HeightChanged);
    }
    let movement = movement?;
    let wanted = -movement.before;
    // What the axle did, and what the recorded length says it should have done: either
    // can be twice the wanted movement, or turned round.
    let near = |value: Length, target: Length| {
        (value - target).abs() <= movement.uncertainty.max(wanted.abs() / 4.0)
    };
    let worth_telling = wanted.abs() > movement.uncertainty;
    for moved in [movement.predicted, movement.measured] {
        if worth_telling && near(moved, wanted * 2.0) && !near(moved, wanted) {
            return Some(Cause::FullDifferenceUsed);
        }
        if worth_telling && near(moved, -wanted) {
            return Some(Cause::SignTurned);
        }
    }
    if movement.agrees {
        return None;
    }
    if height_change(before, sheet).is_some() {
        return Some(Cause::HeightChanged);
    }
    if movement.measured.abs() <= movement.uncertainty {
        return Some(Cause::NotMoved);
    }
    Some(Cause::Unexplained)
}
