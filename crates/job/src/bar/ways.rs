//! What else would help where a bar cannot be set: a bracket further out or in, another hole,
//! another bar, each with the thread that would stay in.

use derecho_core::bar::adjuster::{Setting, TRIM, Verdict, facts_within};
use derecho_core::measure::Length;
use derecho_core::parts::BracketEnd;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::document::Job;
use crate::message::Message;
use crate::setups::adjuster::BarState;
use crate::setups::moves::{EyeMoves, brackets, hole_at};
use crate::setups::{Setups, Wanted, hung};

/// Most holes and bars that are named.
const MOST_NAMED: usize = 3;

/// What would be changed instead.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum WayOut {
    /// A bracket moved further outward on its side, so that a longer bar is wanted.
    FurtherOut {
        /// By so much.
        by_mm: Length,
    },
    /// A bracket moved inward, so that a shorter bar is wanted.
    FurtherIn {
        /// By so much.
        by_mm: Length,
    },
    /// Another hole.
    Hole {
        /// Which eye.
        end: BracketEnd,
        /// The bracket, empty for the one that is there, and the hole.
        name: String,
    },
    /// Another bar of the job.
    Bar {
        /// Its name.
        name: String,
    },
}

/// One way out, in figures.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WayFacts {
    /// What is changed.
    pub way: WayOut,
    /// The bar's length then.
    pub length_mm: Length,
    /// Least thread in at any end then, where it is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread_in_mm: Option<Length>,
}

/// One way out.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct OtherWay {
    /// The facts.
    #[serde(flatten)]
    pub facts: WayFacts,
    /// In words.
    pub says: Message,
}

/// The ways out where the plan's bar does not reach; empty where it does.
#[must_use]
pub(super) fn other_ways(job: &Job, setups: &Setups, setting: Option<&Setting>) -> Vec<WayFacts> {
    let Some(wanted) = &setups.wanted else { return Vec::new() };
    if wanted.covered(&planned_bar(job, setups), setups.reach_tolerance()) != Some(false) {
        return Vec::new();
    }
    let bar = planned_bar(job, setups);
    let mut ways: Vec<WayFacts> =
        setting.and_then(|setting| sideways(wanted, &bar, setting)).into_iter().collect();
    ways.extend(holes(job, setups, &bar));
    ways.extend(bars(job, setups));
    ways
}

/// The bar of the plan before it is set.
fn planned_bar(job: &Job, setups: &Setups) -> BarState {
    let id = &setups.plan.bar.id;
    if *id == setups.base.bar.id {
        return setups.base.bar.clone();
    }
    hung(job, id, setups.base.view.length()).unwrap_or_else(|| setups.base.bar.clone())
}

fn thread_in(bar: &BarState, length: Length) -> Option<Length> {
    let set = facts_within(bar.adjuster.as_ref()?, bar.length, length, Length::ZERO);
    set.ends.iter().filter_map(|end| end.engagement_after_mm).reduce(Length::min)
}

fn way(way: WayOut, bar: &BarState, length: Length) -> WayFacts {
    WayFacts { way, length_mm: length, thread_in_mm: thread_in(bar, length) }
}

/// A bracket moved sideways until the bar's own range is wanted, with room to trim.
fn sideways(wanted: &Wanted, bar: &BarState, setting: &Setting) -> Option<WayFacts> {
    let length = match setting.verdict {
        Verdict::CutBack => setting.equal_engagement_shortest_mm? + TRIM,
        Verdict::BarTooShort | Verdict::TooLittleThread => setting.equal_engagement_longest_mm? - TRIM,
        _ => return None,
    };
    // The reach that the length wants, less the reach there is: h' = sqrt(L'^2 - v^2 - d^2).
    let by = wanted.view.with_length(length).ok()?.reach() - wanted.view.reach();
    let out =
        if by > Length::ZERO { WayOut::FurtherOut { by_mm: by } } else { WayOut::FurtherIn { by_mm: -by } };
    Some(way(out, bar, length))
}

fn holes(job: &Job, setups: &Setups, bar: &BarState) -> Vec<WayFacts> {
    let mut found = Vec::new();
    for bracket in brackets(job) {
        for hole in &bracket.holes {
            let by = hole_at(job, bracket.end, &bracket.id, hole, setups.known.side);
            let mut all = setups.base.moves;
            match bracket.end {
                BracketEnd::Axle => all.axle = by,
                BracketEnd::Frame => all.frame = by,
            }
            let moves: EyeMoves = all.since(setups.base.moves);
            if all == setups.plan.moves {
                continue;
            }
            let Some(wanted) = setups.wanted_with(moves, bar) else { continue };
            if wanted.covered(bar, setups.reach_tolerance()) == Some(true) {
                let name = match bracket.name.as_str() {
                    "" => hole.name.clone(),
                    bracket => format!("{bracket}, {}", hole.name),
                };
                found.push(way(WayOut::Hole { end: bracket.end, name }, bar, wanted.length));
            }
        }
    }
    found.truncate(MOST_NAMED);
    found
}

fn bars(job: &Job, setups: &Setups) -> Vec<WayFacts> {
    let moves = setups.plan.moves.since(setups.base.moves);
    let parts = job.bracket.bars.iter().filter(|part| part.id != setups.plan.bar.id);
    let fitting = parts.filter_map(|part| {
        let bar = BarState::new(part, setups.base.view.length());
        let wanted = setups.wanted_with(moves, &bar)?;
        (wanted.covered(&bar, setups.reach_tolerance()) == Some(true))
            .then(|| way(WayOut::Bar { name: part.name.clone() }, &bar, wanted.length))
    });
    fitting.take(MOST_NAMED).collect()
}
