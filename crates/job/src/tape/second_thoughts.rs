//! What to look at again in a sheet.

use derecho_core::measure::centring::range;
use derecho_core::measure::{Length, Side, TapeEntry};

use super::message::SecondThought;
use super::readings::{both, lengths};
use crate::defaults;
use crate::document::{Method, Rig, Sheet, SheetKind};

/// Of a sheet on a rig, in the order they are told.
pub(super) fn second_thoughts(sheet: &Sheet, rig: &Rig) -> Vec<SecondThought> {
    let mut thoughts = of_the_readings(sheet, rig);
    if sheet.kind == SheetKind::StickOut {
        return thoughts;
    }
    let conditions = &sheet.conditions;
    let read = lengths(&sheet.left).len() + lengths(&sheet.right).len() > 0;
    if read && conditions.on_its_weight.is_none() {
        thoughts.push(SecondThought::OnItsWeight);
    }
    for (holds, thought) in [
        (conditions.leant_on == Some(true), SecondThought::LeantOn),
        (conditions.wheels_straight == Some(false), SecondThought::WheelsTurned),
        (conditions.pressures_equal == Some(false), SecondThought::PressuresUnlike),
    ] {
        thoughts.extend(holds.then_some(thought));
    }
    if sheet.kind == SheetKind::Centring
        && sheet.method == Method::BodyToSidewall
        && (sheet.plumb_drop.is_none() || rig.floor_slope.is_none())
    {
        thoughts.push(SecondThought::PlumbLine);
    }
    if let Some((left, right)) = both(&sheet.frame_above_hub_left, &sheet.frame_above_hub_right)
        && (left - right).abs() > defaults::LEAN_WORTH_ASKING
        && (sheet.height_above_axle.is_none() || rig.track.is_none())
    {
        thoughts.push(SecondThought::FrameLeans(left - right));
    }
    thoughts
}

/// What holds for a sheet of any kind.
fn of_the_readings(sheet: &Sheet, rig: &Rig) -> Vec<SecondThought> {
    let mut thoughts = Vec::new();
    let spread = rig.usual_spread.as_ref().map_or(defaults::SPREAD, TapeEntry::length);
    let apart: Vec<(Side, Length)> = [(Side::Left, &sheet.left), (Side::Right, &sheet.right)]
        .into_iter()
        .map(|(side, entries)| (side, range(&lengths(entries))))
        .filter(|(_, range)| *range > spread * defaults::SUSPICIOUS_SPREADS)
        .collect();
    if !apart.is_empty() {
        thoughts.push(SecondThought::RepeatsDisagree(apart));
    }
    if let Some(instrument) = sheet.instrument.as_ref().filter(|instrument| instrument.overdue) {
        let (instrument, checked) = (instrument.id.clone(), instrument.checked);
        thoughts.push(SecondThought::CheckOverdue { instrument, checked });
    }
    let fewest = lengths(&sheet.left).len().min(lengths(&sheet.right).len());
    if fewest > 0 && fewest < defaults::REPEATS_WANTED {
        thoughts.push(SecondThought::FewRepeats);
    }
    thoughts
}
