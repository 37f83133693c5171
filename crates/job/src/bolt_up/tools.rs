//! Tools, gathered from what is tightened, drilled and welded.

use std::collections::BTreeMap;

use derecho_core::fastener::hex::{across_flats, drills, is_sawn};
use derecho_core::measure::Unit;
use serde::Serialize;
use utoipa::ToSchema;

use super::fasteners::{KnownFastener, wrench_size};
use super::message::{BoltUpMessage, ToolName, ToolUse};
use super::situation::Situation;
use super::tasks::{Task, What};
use crate::document::hardpoints::TieRodSeats;
use crate::document::tool_keys as keys;
use crate::document::{Job, length_of};
use crate::message::Label;
use crate::work::kinds::{
    KindStep, bracket, built_bar, drag_link, eyes, one_piece, splined, tie_rod, two_rate, y_link,
};

/// A tool.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ToolLine {
    /// Its key.
    pub key: String,
    /// What it is called.
    #[schema(value_type = String)]
    pub name: Label,
    /// What it is for, or what does in its place.
    #[schema(value_type = String)]
    pub says: Label,
    /// Whether it is on the bench.
    pub there: bool,
}

/// Wrenches by size, and how many are needed at once: one for the head, one for the nut that does not hold itself.
fn wrenches(job: &Job, tasks: &[Task]) -> Vec<(String, usize)> {
    let mut at_once: BTreeMap<(bool, i64), (String, usize)> = BTreeMap::new();
    for key in super::fasteners::keys(job, tasks) {
        let known = KnownFastener::of(job, key);
        let Some(thread) = &known.thread else { continue };
        let Some([head, nut]) = across_flats(thread) else { continue };
        let metric = thread.is_metric();
        let holds_itself = known.nut.is_some_and(|nut| !nut.needs_wrench());
        let mut here: BTreeMap<(bool, i64), (String, usize)> = BTreeMap::new();
        for flats in [Some(head), (!holds_itself).then_some(nut)].into_iter().flatten() {
            let sort = (flats.to_mm() * 1000.0).round() as i64;
            here.entry((metric, sort)).or_insert_with(|| (wrench_size(flats, metric), 0)).1 += 1;
        }
        for (sort, (name, count)) in here {
            let most = at_once.entry(sort).or_insert((name, 0));
            most.1 = most.1.max(count);
        }
    }
    at_once.into_values().collect()
}

/// Every tool, those that hold the vehicle first.
pub(super) fn lines(job: &Job, situation: &Situation, tasks: &[Task]) -> Vec<ToolLine> {
    let mut lines: Vec<(ToolName, ToolUse)> = Vec::new();
    let mut add = |name: ToolName, purpose: ToolUse| {
        if !lines.iter().any(|(known, _)| *known == name) {
            lines.push((name, purpose));
        }
    };
    let does = |wanted: &dyn Fn(&What) -> bool| tasks.iter().any(|task| wanted(&task.what));
    if does(&|what| matches!(what, What::Stands)) {
        add(ToolName::Stands, ToolUse::UnderIt);
    }
    if tasks.iter().any(|task| !task.tightens.is_empty()) {
        add(ToolName::TorqueWrench, ToolUse::Range);
    }
    for (size, count) in wrenches(job, tasks) {
        add(ToolName::Wrench(size), ToolUse::Wrenches { count });
    }
    if does(&|what| matches!(what, What::Kind(KindStep::Eyes(eyes::Step::ByHand(_))))) {
        add(ToolName::Strap, ToolUse::AxleToFrame { steered: job.rig.is_steered() });
    }
    let unit = job.rig.sheet_unit;
    for drill in &job.bolt_up.drills {
        for step in length_of(&drill.size).map(|hole| drills(hole, unit)).unwrap_or_default() {
            let size = wrench_size(step, unit == Unit::Millimetres);
            let tool = if is_sawn(step) { ToolName::HoleSaw(size) } else { ToolName::Drill(size) };
            add(tool, ToolUse::Hole { name: drill.name.trim().to_owned() });
        }
    }
    let tube = situation.tubes().and_then(|tubes| tubes.outside);
    if let Some(outside) = tube {
        let size = wrench_size(outside, unit == Unit::Millimetres);
        add(ToolName::HoleSaw(size), ToolUse::TubeHoles);
    }
    if !situation.drills.is_empty() || tube.is_some() {
        add(ToolName::Punch, ToolUse::Mark);
        add(ToolName::RightAngleDrill, ToolUse::NoRoom);
    }
    let separates = |what: &What| {
        matches!(
            what,
            What::Kind(KindStep::DragLink(drag_link::Step::Off) | KindStep::TieRod(tie_rod::Step::Off))
        )
    };
    if does(&separates) {
        add(ToolName::Separator, ToolUse::Taper);
    }
    if situation.tie_rod().is_some_and(|tie_rod| tie_rod.seats == TieRodSeats::Reamed) {
        add(ToolName::TaperReamer, ToolUse::Seats);
    }
    let tubes = |what: &What| matches!(what, What::Kind(KindStep::Splined(splined::Step::TubesTacked)));
    if does(&tubes) {
        add(ToolName::Welder, ToolUse::Weld);
    }
    if does(&|what| {
        matches!(
            what,
            What::Kind(KindStep::Bracket(bracket::Step::Tack(_)))
                | What::Kind(KindStep::BuiltBar(built_bar::Step::Tack))
                | What::Kind(KindStep::BuiltBar(built_bar::Step::Weld))
        )
    }) {
        add(ToolName::Welder, ToolUse::Weld);
        add(ToolName::AngleFinder, ToolUse::Partner);
    }
    if does(&|what| matches!(what, What::Kind(KindStep::Splined(splined::Step::ArmsAlike)))) {
        add(ToolName::AngleFinder, ToolUse::SwayArms);
    }
    if does(&|what| matches!(what, What::Kind(KindStep::YLink(y_link::Step::Pinion)))) {
        add(ToolName::AngleFinder, ToolUse::Pinion);
    }
    if does(&|what| matches!(what, What::ReadAgain | What::Corners)) {
        add(ToolName::Tape, ToolUse::SameTape);
    }
    let greases = |what: &What| {
        matches!(
            what,
            What::Grease
                | What::Kind(
                    KindStep::OnePiece(one_piece::Step::Bushings)
                        | KindStep::Splined(splined::Step::Bushings)
                        | KindStep::TwoRate(two_rate::Step::Bushings)
                )
        )
    };
    if does(&greases) {
        add(ToolName::GreaseGun, ToolUse::Grease);
    }
    if does(&|what| matches!(what, What::Witness)) {
        add(ToolName::PaintPen, ToolUse::Marks);
    }
    lines
        .into_iter()
        .map(|(name, purpose)| {
            let key = key(&name);
            ToolLine {
                there: job.bolt_up.tools.contains(&key),
                key,
                name: BoltUpMessage::ToolName(name).into(),
                says: BoltUpMessage::ToolUse(purpose).into(),
            }
        })
        .collect()
}

/// The key under which a document holds that a tool is on the bench.
fn key(name: &ToolName) -> String {
    match name {
        ToolName::Stands => keys::STANDS,
        ToolName::TorqueWrench => keys::TORQUE_WRENCH,
        ToolName::Wrench(size) => return keys::wrench(size),
        ToolName::Strap => keys::STRAP,
        ToolName::Drill(size) => return keys::drill(size),
        ToolName::HoleSaw(size) => return keys::hole_saw(size),
        ToolName::TaperReamer => keys::TAPER_REAMER,
        ToolName::Separator => keys::SEPARATOR,
        ToolName::Punch => keys::PUNCH,
        ToolName::RightAngleDrill => keys::RIGHT_ANGLE_DRILL,
        ToolName::Welder => keys::WELDER,
        ToolName::AngleFinder => keys::ANGLE_FINDER,
        ToolName::Tape => keys::TAPE,
        ToolName::GreaseGun => keys::GREASE_GUN,
        ToolName::PaintPen => keys::PAINT_PEN,
    }
    .to_owned()
}
