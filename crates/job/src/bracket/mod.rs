//! Stage Bracket: every hole and bar ranked, the approaches side by side, what fits before it is
//! welded, what it loads. `option` is one hole with one bar, `planner` makes and ranks them,
//! `words` makes the sentences. Not here: whether a bracket is
//! called for at all; stage Bar says that.

pub mod carried;
pub mod compare;
pub mod fit;
pub mod kinds;
pub mod legs;

pub mod approach;
pub mod message;
pub mod names;
pub mod option;
mod planner;
pub(crate) mod stack;
pub mod template;

use self::kinds::Approach;
use crate::document::check::{FieldError, asks};
use crate::message::{Label, Message};
use derecho_core::parts::{BracketEnd, BracketPart};
use std::cell::RefCell;

use derecho_core::measure::{Length, Working};
use serde::Serialize;
use utoipa::ToSchema;

use self::approach::{ApproachResult, approaches};
use self::compare::{BarComparison, BoltResult, BuilderResult};
use self::legs::LegSetting;
use self::message::Picked;
pub use self::option::{OptionAtHeight, OptionResult};
use self::planner::{Planner, bar_candidates};
use crate::assembly::ReadJob;
use crate::assembly::weights::assumed_loads;
use crate::bar::need::{BracketNeed, Need};
use crate::bar::{BarResult, heights, need_of};
use crate::bracket::message::BracketMessage;
use crate::defaults::Assumption;
use crate::document::bracketing::Target;
use crate::document::{AxleLocation, BracketId, Job};
use crate::setups::moves::{EyeMoves, brackets};
use crate::setups::{NoBar, Resolved, Setup};
use crate::verdict::{FitCheck, FitVerdict};

/// Everything stage Bracket answers.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PlanResult {
    /// The answer in one sentence.
    pub says: Message,
    /// Why, in this job's numbers.
    pub because: Message,
    /// What keeps it from an answer.
    pub missing: Vec<FieldError>,
    /// Whether a bracket is wanted: the same judgement as stage Bar's.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub need: Option<BracketNeed>,
    /// What is aimed at.
    pub target: Target,
    /// Exact riser that meets the target, + up; and the exact drop, + down.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub exact_riser_mm: Option<Length>,
    /// The exact move in words.
    pub exact_says: Message,
    /// How the exact move is worked out.
    pub working: Working,
    /// Options, best first; failing ones last with their reasons. A page of them, with what is chosen, kept
    /// or spoken of whatever its rank; figures at every height with the first few of it.
    pub options: Vec<OptionResult>,
    /// How many options there are.
    pub options_in_all: usize,
    /// The option the answer speaks of, by its place in `options`.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub pick: Option<usize>,
    /// The approaches, each with its best plan.
    pub approaches: Vec<ApproachResult>,
    /// The hole that will be right at each other height.
    pub other_heights: Vec<Message>,
    /// Every bracket there is a hole to choose of.
    pub brackets: Vec<BracketChoice>,
    /// Kept plans that named what is not among the job's parts any more.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub gone: Vec<GonePlan>,
    /// Bars side by side at the length they need.
    pub bars: Vec<BarComparison>,
    /// What the strength figures leave out.
    #[schema(value_type = String)]
    pub leaves_out: Label,
    /// The eye's bolt, where something was said of it.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bolt: Option<BoltResult>,
    /// A built bar, where it was measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub builder: Option<BuilderResult>,
    /// Fit before welding.
    pub fit: Vec<FitCheck>,
    /// A Y-link conversion, checked; empty for other axles.
    pub conversion: Vec<FitCheck>,
    /// How far each leg of a Y-link is turned, sideways and for the pinion apart.
    pub legs: Vec<LegSetting>,
    /// Weights and heights nobody measured.
    pub assumptions: Vec<Assumption>,
    /// What the claim that a longer bar makes it worse comes to, where it is longer.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub longer_says: Option<Message>,
}

/// A bracket there is a hole to choose of.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BracketChoice {
    /// Its id; empty is the one that is there.
    pub id: BracketId,
    /// Which end it is for.
    pub end: BracketEnd,
    /// What people call it.
    #[schema(value_type = String)]
    pub name: Label,
}

impl BracketChoice {
    fn of(bracket: &BracketPart) -> Self {
        Self {
            id: bracket.id.clone(),
            end: bracket.end,
            name: BracketMessage::BracketName { name: bracket.name.clone(), end: bracket.end }.into(),
        }
    }
}

/// A kept plan that named what is gone.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct GonePlan {
    /// Its place among the kept plans, from 0.
    pub place: usize,
    /// What it named, in words.
    pub says: Message,
}

fn gone(job: &Job) -> Vec<GonePlan> {
    let kept = job.setups.plans.kept.iter().enumerate().filter(|(_, plan)| !plan.gone.is_empty());
    kept.map(|(place, plan)| GonePlan {
        place,
        says: BracketMessage::PlanGone { named: plan.gone.to_vec() }.into(),
    })
    .collect()
}

fn without(missing: Vec<FieldError>, job: &Job) -> PlanResult {
    PlanResult {
        says: BracketMessage::NothingYet.into(),
        because: Message::NOTHING,
        need: None,
        missing,
        target: job.bracket.target,
        exact_riser_mm: None,
        exact_says: Message::NOTHING,
        working: Working::default(),
        options: Vec::new(),
        options_in_all: 0,
        pick: None,
        approaches: Vec::new(),
        other_heights: Vec::new(),
        brackets: brackets(job).iter().map(BracketChoice::of).collect(),
        gone: gone(job),
        bars: Vec::new(),
        leaves_out: BracketMessage::LeavesOut.into(),
        bolt: None,
        builder: None,
        fit: Vec::new(),
        conversion: Vec::new(),
        legs: Vec::new(),
        assumptions: Vec::new(),
        longer_says: None,
    }
}

/// A job without a bar: what is left to plan is the conversion that took it out.
fn converted(job: &Job, resolved: &Resolved, missing: Vec<FieldError>) -> PlanResult {
    let cycle = crate::cycle::cycle(job, None);
    let heights = heights::table(&job.rig, None, None);
    let turned = fit::pinion_turns(job, &cycle, &heights)
        .into_iter()
        .find(|(height, _)| height.driven)
        .and_then(|(_, turned)| turned);
    let checks = fit::conversion(job, &resolved.sheets, &cycle, &heights);
    let count = |verdict| checks.iter().filter(|check| check.verdict == verdict).count();
    PlanResult {
        says: BracketMessage::Conversion { bad: count(FitVerdict::Bad), open: count(FitVerdict::Open) }
            .into(),
        because: BracketMessage::NoBarToLevel.into(),
        conversion: checks,
        legs: legs::legs(job, &resolved.sheets, turned),
        ..without(missing, job)
    }
}

/// What each leg of a Y-link is turned by, sideways and for the pinion, a sentence each.
pub(crate) fn legs_say(job: &Job, resolved: &Resolved) -> Vec<Message> {
    if job.rig.axle_location != Some(AxleLocation::YLink) {
        return Vec::new();
    }
    let settings = converted(job, resolved, Vec::new()).legs;
    settings
        .into_iter()
        .flat_map(|setting| [setting.says].into_iter().chain(setting.legs.into_iter().map(|leg| leg.says)))
        .collect()
}

/// The checks of a Y-link; none where there is a track bar.
pub(crate) fn conversion_checks(job: &Job, resolved: &Resolved) -> Vec<FitCheck> {
    if job.rig.axle_location != Some(AxleLocation::YLink) {
        return Vec::new();
    }
    converted(job, resolved, Vec::new()).conversion
}

/// What is cut of the stock of a built bar, in words; None where it was not measured, or the gap is measured again first.
pub(crate) fn cut_of_stock(job: &Job, setups: &crate::setups::Setups) -> Option<Message> {
    setups.gap.length()?;
    compare::builder(job, setups.plan.view.length(), setups).0.map(|built| built.says)
}

/// What people call the fitted track bar, and what it stands over its load, where that is less than is wanted and its
/// thickness was measured.
pub(crate) fn overloaded(job: &Job, fitted: &Setup) -> Option<(String, f64)> {
    compare::margin(job, &fitted.view, &fitted.bar.id)
        .filter(|(_, margin)| *margin < crate::defaults::BAR_MARGIN_TOLD)
}

/// What a stock angle is aimed at by, where it is and nobody typed it.
fn stock_missing(job: &Job) -> Option<FieldError> {
    let missing = job.bracket.target == Target::AsTheMakerHadIt && job.bracket.stock_angle.is_none();
    missing.then(|| FieldError::new("/bracket/stock_angle", "missing", asks::STOCK_ANGLE))
}

/// Why the other approaches that set a length fail: each with its name and its first reason.
fn failing(approaches: &[ApproachResult], pick: &OptionResult) -> Vec<(Approach, Message)> {
    approaches
        .iter()
        .filter(|approach| approach.approach.sets_length() && approach.option.end != pick.end)
        .filter_map(|approach| Some((approach.approach, approach.option.fails.first()?.clone())))
        .collect()
}

/// A hole that brings the bar so much nearer to its target is worth a longer or shorter bar, degrees.
const WORTH_ANOTHER_BAR_DEGREES: f64 = 1.0;

/// Options told at once: more than any shop has holes and bars for, and no more than a phone can show.
pub const OPTIONS_REPORTED: usize = 200;
/// Of those, how many have their figures at every height.
const WITH_HEIGHTS: usize = 8;

/// Plans a job. Never fails: what is missing stands in its place. `bar` is what stage Bar says; options are
/// told from the one after `from`.
#[must_use]
pub fn plan(job: &Job, resolved: &Resolved, bar: Option<&BarResult>, from: usize) -> PlanResult {
    let setups = match &resolved.bar {
        Ok(setups) if setups.known.rise_is_measured() => setups,
        Ok(_) => return without(vec![crate::setups::known::heights_missing()], job),
        Err(unknown) if unknown.why == NoBar::YLink => {
            return converted(job, resolved, unknown.missing.clone());
        }
        Err(unknown) => return without(unknown.missing.clone(), job),
    };
    let bench = match ReadJob::new(job, Some(setups)) {
        Ok(bench) => bench,
        Err(missing) => return without(missing, job),
    };
    if bench.bar_link().is_none() {
        return without(Vec::new(), job);
    }
    let bars = bar_candidates(job, setups);
    let link_now = crate::setups::moves::drag_link_raise(job, &setups.base.drag_link);
    let found = match bench.candidate((EyeMoves::default(), None), &bars[0].body, link_now) {
        Ok((found, _)) => found,
        Err(fault) => {
            let reported = FieldError::new("/hardpoints", "impossible_geometry", asks::as_measured(fault));
            return without(vec![reported], job);
        }
    };
    let drag_out = bench
        .drag_link()
        .zip(found.at_driven_height().ok())
        .map(|((link, _), driven)| link.pitman - driven.solved.pose.place(bench.axle_height(), link.knuckle));
    let planner = Planner {
        job,
        bench: &bench,
        setups,
        side: setups.known.side,
        drag_out,
        bars,
        sweeps: RefCell::default(),
    };
    let exact = planner.exact_riser();
    let ranked = planner.options();
    let approaches = approaches(&planner, &ranked, exact);
    let other_heights = planner.other_heights(&ranked);
    let options_in_all = ranked.len();
    let need = need_of(job, setups);
    let find = |wanted: &dyn Fn(&OptionResult) -> bool| {
        ranked.iter().map(|(option, _)| option).find(|option| wanted(option))
    };
    let chosen = find(&|option| option.chosen);
    let alone = find(&|option| option.end.is_none() && option.fails.is_empty());
    let enough = alone.filter(|_| need.facts.need != Need::Recommended && chosen.is_none());
    let pick = chosen.or(enough).or(find(&|_| true)).cloned();
    let pick = pick.as_ref();
    let picked = match (chosen, enough) {
        (Some(_), _) => Picked::Chosen,
        (None, Some(_)) => Picked::Enough,
        (None, None) => Picked::Best,
    };
    let helps_nothing = pick.filter(|pick| picked == Picked::Best && pick.end.is_none());
    let with_another_bar = helps_nothing.and_then(|pick| {
        let off = |option: &OptionResult| option.off_target_deg.to_degrees().abs();
        let better = |option: &&OptionResult| {
            let wants_a_bar = option.covered == Some(false) && option.fails.len() == 1;
            option.end.is_some() && wants_a_bar && off(option) < off(pick) - WORTH_ANOTHER_BAR_DEGREES
        };
        ranked.iter().map(|(option, _)| option).find(better).map(|option| Box::new(option.facts()))
    });
    let moves = pick.map(OptionResult::moves).unwrap_or_default();
    let view = planner.view(moves).unwrap_or(setups.base.view);
    let correction = bar.and_then(|bar| bar.correction.as_ref());
    let wanted = pick.map_or(setups.plan.view.length(), |option| option.length_mm);
    let (builder, unbuilt) = compare::builder(job, wanted, setups);
    let needed = |option: &OptionResult| {
        let page = (from + 1..=from + OPTIONS_REPORTED).contains(&option.rank);
        page || option.chosen || option.kept || pick.is_some_and(|pick| pick.rank == option.rank)
    };
    let says_enough = enough.is_some();
    let options: Vec<OptionResult> = ranked
        .into_iter()
        .filter(|(option, _)| needed(option))
        .enumerate()
        .map(|(index, found)| {
            let shown = index < WITH_HEIGHTS || found.0.chosen || found.0.kept;
            if shown { planner.with_heights(found) } else { found.0 }
        })
        .collect();
    PlanResult {
        bars: compare::bars(job, &view),
        leaves_out: BracketMessage::LeavesOut.into(),
        bolt: compare::bolt(job, &view),
        builder,
        fit: fit::checks(job, setups, pick),
        conversion: Vec::new(),
        legs: Vec::new(),
        assumptions: assumed_loads(job),
        says: pick.map_or_else(
            || BracketMessage::NothingYet.into(),
            |pick| BracketMessage::Answer { pick: Box::new(pick.facts()), picked, with_another_bar }.into(),
        ),
        because: match pick {
            None => Message::NOTHING,
            Some(_) if says_enough => need.says.clone(),
            Some(pick) => BracketMessage::Because {
                pick: Box::new(pick.facts()),
                failing: failing(&approaches, pick),
                exact,
                target: job.bracket.target,
            }
            .into(),
        },
        need: Some(need),
        missing: unbuilt.into_iter().chain(stock_missing(job)).collect(),
        target: job.bracket.target,
        exact_riser_mm: exact,
        exact_says: exact.map_or(Message::NOTHING, |exact| {
            BracketMessage::Exact { riser: exact, target: job.bracket.target }.into()
        }),
        working: planner.exact_working(exact),
        other_heights,
        brackets: brackets(job).iter().map(BracketChoice::of).collect(),
        gone: gone(job),
        longer_says: correction.and_then(|correction| correction.longer_says.clone()),
        pick: pick.and_then(|pick| options.iter().position(|option| option.rank == pick.rank)),
        options,
        options_in_all,
        approaches,
    }
}
