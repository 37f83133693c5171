//! A first answer from both sides alone, before the bar is measured.

use derecho_core::bar::evidence::STEEPEST_ASSUMED_DEGREES;
use derecho_core::measure::centring::Answer;
use derecho_core::measure::{Angle, Length};

use super::message::BarMessage;
use crate::document::Job;
use crate::document::SheetKind;
use crate::message::Message;
use crate::setups::{NoBar, Resolved};
use crate::tape::SheetResult;

/// What half the difference says of a bar that nobody measured yet: s·e longer, where the bar makes that less by 1 − cos φ,
/// at most. None once the bar is known, where there is none, or while the readings can't tell.
#[must_use]
pub(crate) fn first_answer(job: &Job, resolved: &Resolved) -> Option<Message> {
    resolved.unknown().filter(|unknown| unknown.why == NoBar::NotMeasured)?;
    let side = job.rig.frame_eye_side?;
    let off_centre = |sheet: &&SheetResult| {
        let read = sheet.centring.as_ref();
        sheet.kind == SheetKind::Centring
            && sheet.usable
            && read.is_some_and(|read| read.answer == Answer::OffCentre)
    };
    let sheet = resolved.sheets.iter().rev().find(|sheet| sheet.current).filter(off_centre)?;
    let change = sheet.centring.as_ref()?.offset_mm * side.sign();
    let share = 1.0 - Angle::from_degrees(STEEPEST_ASSUMED_DEGREES).cos();
    Some(BarMessage::FirstAnswer { change, at_most: change.abs() * share }.into())
}

/// So many of a step as hold a length.
#[must_use]
pub fn rounded_up(length: Length, step: Length) -> Length {
    step * (length / step).ceil()
}
