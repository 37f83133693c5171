//! The approaches side by side: length only, bracket only, bracket and length, with a riser or
//! with a drop. Each as a whole plan in this job's numbers.

use super::names::PlaceName;
use crate::document::ids::{EXACT_DROP, EXACT_RISER, TO_BE_MADE};
use crate::message::{Label, Message};
use derecho_core::bar::FrontView;
use derecho_core::measure::Length;
use derecho_core::parts::{BracketEnd, BracketPart};
use glam::DVec3;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

pub use super::kinds::Approach;
use super::option::OptionResult;
use super::planner::{Candidate, LengthPolicy, Planner};
use crate::bar::travel_left;
use crate::bracket::message::BracketMessage;
use crate::document::{BracketId, HoleChoice, HoleId, LengthAim, PlanForm, heights};
use crate::setups::moves::EyeMoves;

/// Points of a approach's curve.
const CURVE_STEPS: usize = 40;

/// A place on a curve of sideways motion.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CurvePoint {
    /// Travel from ride height.
    pub travel_mm: Length,
    /// Axle to the left of the body's centre.
    pub y_mm: Length,
}

/// A approach with its best plan.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ApproachResult {
    /// Which.
    pub approach: Approach,
    /// In words.
    #[schema(value_type = String)]
    pub name: Label,
    /// The plan it comes to.
    pub option: OptionResult,
    /// Whether its bracket is among those tried; else it is the exact one, to be found or made.
    pub at_hand: bool,
    /// Where the axle is left at the driven height, + left.
    pub left_off_mm: Length,
    /// What it does and what it gives up, in this job's numbers.
    pub says: Message,
    /// Its sideways motion about the body's centre, droop first.
    pub curve: Vec<CurvePoint>,
}

/// The curve of a bar whose axle is at `offset` at the driven height.
fn curve(planner: &Planner<'_>, view: &FrontView, offset: Length) -> Vec<CurvePoint> {
    let (droop, bump) = travel_left(planner.job);
    let driven = -heights::driven_offset(&planner.job.rig);
    let (tight_low, tight_high) = view.pulled_tight();
    let (low, high) = ((-droop).max(tight_low), bump.min(tight_high));
    (0..=CURVE_STEPS)
        .map(|step| {
            let travel = low + (high - low) * (step as f64 / CURVE_STEPS as f64);
            CurvePoint { travel_mm: travel + driven, y_mm: offset + view.shift_at(travel) }
        })
        .collect()
}

/// Every approach with its best plan, where it has one.
pub(super) fn approaches(
    planner: &Planner<'_>,
    options: &[(OptionResult, FrontView)],
    exact: Option<Length>,
) -> Vec<ApproachResult> {
    let all = [
        Approach::LengthOnly,
        Approach::RiserOnly,
        Approach::DropOnly,
        Approach::RiserAndLength,
        Approach::DropAndLength,
    ];
    all.into_iter().filter_map(|approach| approach_result(planner, options, exact, approach)).collect()
}

fn approach_result(
    planner: &Planner<'_>,
    options: &[(OptionResult, FrontView)],
    exact: Option<Length>,
    approach: Approach,
) -> Option<ApproachResult> {
    let best = match approach.end().filter(|_| !approach.sets_length()) {
        Some(end) => planner.best_left_alone(end),
        // Options come best first.
        None => {
            // A chosen plan that leaves the length sets none; leaving it is all that length alone may come to.
            let sets = |option: &OptionResult| {
                option.plan.length == LengthAim::Centred || approach == Approach::LengthOnly
            };
            let found =
                options.iter().find(|(option, _)| option.end == approach.end() && sets(option)).cloned();
            found.map(|found| planner.with_heights(found))
        }
    };
    let (option, at_hand) = match best {
        Some(option) => (option, true),
        None => (exact_option(planner, approach, exact?)?, false),
    };
    let base = &planner.setups.base;
    let moves = option.moves();
    let view = base.view.moved(option.length_mm, moves.rise(), moves.fore_aft()).ok()?;
    Some(ApproachResult {
        name: BracketMessage::ApproachName(approach).into(),
        says: BracketMessage::Approach { approach, option: Box::new(option.facts()), at_hand }.into(),
        curve: curve(planner, &view, option.left_off_mm),
        left_off_mm: option.left_off_mm,
        approach,
        option,
        at_hand,
    })
}

/// The exact bracket, where none of that kind is tried.
fn exact_option(planner: &Planner<'_>, approach: Approach, exact: Length) -> Option<OptionResult> {
    let end = approach.end()?;
    let (name, up) = match end {
        BracketEnd::Axle => (EXACT_RISER, exact),
        BracketEnd::Frame => (EXACT_DROP, -exact),
    };
    let choice = HoleChoice { bracket: BracketId::new(name), hole: HoleId::new(TO_BE_MADE) };
    let form = match end {
        BracketEnd::Axle => PlanForm { axle: Some(choice.clone()), ..PlanForm::default() },
        BracketEnd::Frame => PlanForm { frame: Some(choice.clone()), ..PlanForm::default() },
    };
    let candidate = Candidate {
        form,
        name: PlaceName::Exact(end),
        bracket: BracketPart { name: name.to_owned(), end, ..BracketPart::default() },
        end: Some(end),
        moves: EyeMoves::of(end, DVec3::new(0.0, 0.0, up.to_mm())),
    };
    if !approach.sets_length() {
        let found = planner.option(&candidate, planner.bars.first()?, LengthPolicy::Left)?;
        return Some(planner.with_heights(found));
    }
    let all = planner.bars.iter().filter_map(|bar| planner.option(&candidate, bar, LengthPolicy::Set));
    all.min_by_key(|(option, _)| planner.rank(option)).map(|found| planner.with_heights(found))
}
