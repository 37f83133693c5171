//! Tools, gathered from what is tightened, drilled and welded.

use std::collections::BTreeMap;

use derecho_core::fastener::hex::{across_flats, drills};
use derecho_core::measure::Unit;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::fasteners::{KnownFastener, keys, wrench_size};
use super::situation::Situation;
use super::tasks::{Task, What};
use crate::document::{Job, length_of};

/// A tool.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct ToolLine {
    /// Its key, also its name.
    pub key: String,
    /// What it is for, or what does in its place.
    pub says: String,
    /// Whether it is on the bench.
    pub there: bool,
}

/// Wrenches by size, and how many are needed at once: one for the head, one for the nut that does not hold itself.
fn wrenches(job: &Job, tasks: &[Task]) -> Vec<(String, usize)> {
    let mut at_once: BTreeMap<(bool, i64), (String, usize)> = BTreeMap::new();
    for key in keys(job, tasks) {
        let known = KnownFastener::of(job, &key);
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
    let mut lines: Vec<(String, String)> = Vec::new();
    let mut add = |key: &str, says: &str| {
        if !lines.iter().any(|(known, _)| known == key) {
            lines.push((key.to_owned(), says.to_owned()));
        }
    };
    let does = |wanted: &dyn Fn(&What) -> bool| tasks.iter().any(|task| wanted(&task.what));
    if does(&|what| matches!(what, What::Stands)) {
        add("stands, jack, chocks", "two stands for the frame, a jack for the axle");
    }
    if tasks.iter().any(|task| !task.tightens.is_empty()) {
        add("torque wrench", "with the range the sheets ask for; a crow's foot changes its reading");
    }
    for (name, count) in wrenches(job, tasks) {
        let says = if count > 1 {
            format!("{count} at once, socket and wrench")
        } else {
            "socket or wrench".to_owned()
        };
        add(&format!("{name} wrench"), &says);
    }
    if does(&|what| matches!(what, What::EyeByHand(_))) {
        let instead = if job.rig.is_steered() { "; a helper at the steering wheel in its place" } else { "" };
        add("ratchet strap", &format!("axle to frame{instead}"));
    }
    let unit = job.rig.sheet_unit;
    for drill in &job.bolt_up.drills {
        for step in length_of(&drill.size).map(|hole| drills(hole, unit)).unwrap_or_default() {
            add(
                &format!("{} drill", wrench_size(step, unit == Unit::Millimetres)),
                &format!("for {}", drill.name.trim()),
            );
        }
    }
    if !situation.drills.is_empty() {
        add("centre punch, paint, deburring tool", "mark through the bracket, punch, paint the raw edges");
        add("right-angle drill", "where a straight one has no room; or the bracket comes off");
    }
    if does(&|what| matches!(what, What::Tack(_) | What::BarTack | What::Build)) {
        add("welder, grinder, cover for lines", "bright metal, something to put a fire out at hand");
        add("angle finder", "zeroed on the partner bracket");
    }
    if does(&|what| matches!(what, What::ArmsAlike)) {
        add("angle finder", "on both sway arms");
    }
    if does(&|what| matches!(what, What::ReadAgain | What::Corners)) {
        add("tape", "the one it was read with before");
    }
    if does(&|what| matches!(what, What::Grease)) {
        add("grease gun", "with the maker's grease for polyurethane");
    }
    if does(&|what| matches!(what, What::Witness)) {
        add("paint pen", "for the marks across the nuts");
    }
    lines
        .into_iter()
        .map(|(key, says)| ToolLine { there: job.bolt_up.tools.contains(&key), key, says })
        .collect()
}
