//! Where each stage of a job stands, and its one headline figure; `words` says it. Not here: what a
//! stage finds; it is handed that.

mod needs;
mod words;

use derecho_core::parts::BracketEnd;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use self::needs::needs;
use self::words::Headline;
pub(crate) use self::words::joined;
use crate::bar::BarResult;
use crate::bar::need::Need;
use crate::bolt_up::Progressed;
use crate::cautions::Stage;
use crate::cycle::Brief;
use crate::document::sway::SwayKind;
use crate::document::{AxleLocation, Job, SheetKind, Sway};
use crate::prove::{ProveResult, ProveVerdict};
use crate::setups::{NoBar, Resolved, moves};
use crate::tape::SheetResult;
use derecho_core::measure::centring::Answer;
use derecho_core::measure::squareness::AxleEnd;
use derecho_core::measure::{Length, Phrase, TapeEntry};

/// How far a stage is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Progress {
    /// Nothing yet.
    Nothing,
    /// Begun.
    Begun,
    /// Settled.
    Settled,
    /// Needs another look, since something above it changed.
    NeedsLook,
}

/// A stage in the strip.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct StageResult {
    /// Which.
    pub stage: Stage,
    /// How far.
    pub progress: Progress,
    /// Whether the work of this job needs it.
    pub needed: bool,
    /// Its figure, or what it waits for.
    pub headline: Phrase,
}

/// The stages that work, in working order.
#[must_use]
pub fn stages(
    job: &Job,
    resolved: &Resolved,
    bar: Option<&BarResult>,
    cycle: Option<&Brief>,
    links_work: Option<bool>,
    progressed: &Progressed,
    (prove, settled_stands): (Option<&ProveResult>, Option<bool>),
) -> Vec<StageResult> {
    let all = vec![
        rig(job),
        tape(job, &resolved.sheets),
        bar_stage(job, resolved, bar),
        bracket_stage(job, resolved, bar),
        cycle_stage(job, cycle),
        sway_stage(&resolved.sway.plan, links_work),
        bolt_up_stage(progressed),
        prove_stage(job, prove, settled_stands),
    ];
    all.into_iter().map(|stage| StageResult { needed: needs(job, stage.stage), ..stage }).collect()
}

/// Settled once a plan is chosen, or where a length alone is enough.
fn bracket_stage(job: &Job, resolved: &Resolved, bar: Option<&BarResult>) -> StageResult {
    let (Some(setups), Some(result)) = (resolved.setups(), bar) else {
        let y_link = resolved.unknown().is_some_and(|unknown| unknown.why == NoBar::YLink);
        let says = if y_link { "Y-link" } else { "measure the bar" };
        return stage(Stage::Bracket, Progress::Nothing, Headline::Plain(says));
    };
    if let Some(chosen) = &job.setups.plans.chosen {
        let ends = [(BracketEnd::Axle, &chosen.axle), (BracketEnd::Frame, &chosen.frame)];
        let told: Vec<&str> =
            ends.iter().filter_map(|(end, choice)| Some(job.hole_name(*end, choice.as_ref()?))).collect();
        let says = if told.is_empty() { "length only".to_owned() } else { told.join(", ") };
        // What it points at was taken out: it is a plan no more.
        let progress = if setups.plan_gone { Progress::NeedsLook } else { Progress::Settled };
        return stage(Stage::Bracket, progress, Headline::Text(says));
    }
    if setups.plan_gone {
        return stage(Stage::Bracket, Progress::NeedsLook, Headline::Plain("a part is gone"));
    }
    let tried = !moves::brackets(job).is_empty();
    let (progress, says) = match (result.need.facts.need, tried) {
        (Need::NotNeeded, _) => (Progress::Begun, "not needed"),
        (Need::Offered, _) => (Progress::Begun, "not urged"),
        (Need::Urged, true) => (Progress::Begun, "to choose"),
        (Need::Urged, false) => (Progress::Nothing, "no bracket tried"),
    };
    stage(Stage::Bracket, progress, Headline::Plain(says))
}

/// Settled where the links work at the ends of travel, as they are planned.
fn sway_stage(sway: &Sway, links_work: Option<bool>) -> StageResult {
    let (progress, says) = match sway.kind {
        None => (Progress::Nothing, "not measured"),
        Some(SwayKind::None) => (Progress::Settled, "no sway bar"),
        Some(_) if sway.link.is_none() || sway.holes.is_empty() => (Progress::Begun, "more to measure"),
        Some(_) => {
            let link = sway.link.as_ref().map_or(Length::ZERO, TapeEntry::length);
            let progress = if links_work == Some(true) { Progress::Settled } else { Progress::Begun };
            return stage(Stage::Sway, progress, Headline::Links { works: links_work != Some(false), link });
        }
    };
    stage(Stage::Sway, progress, Headline::Plain(says))
}

/// Settled only where somebody measured more than the bar: a template proves nothing.
fn cycle_stage(job: &Job, cycle: Option<&Brief>) -> StageResult {
    match cycle {
        None => stage(Stage::Cycle, Progress::Nothing, Headline::Plain("more to measure")),
        Some(brief) => {
            let done = !brief.ended && !job.hardpoints.is_empty();
            let progress = if done { Progress::Settled } else { Progress::Begun };
            stage(Stage::Cycle, progress, Headline::Told(brief.headline.clone()))
        }
    }
}

fn stage(stage: Stage, progress: Progress, headline: Headline) -> StageResult {
    StageResult { stage, progress, needed: true, headline: words::say(headline) }
}

fn rig(job: &Job) -> StageResult {
    let rig = &job.rig;
    // A Y-shaped link has no frame eye to ask for.
    let no_bar = rig.axle_location == Some(AxleLocation::YLink);
    let told = [rig.end.is_some(), rig.steering_side.is_some(), rig.frame_eye_side.is_some() || no_bar];
    let progress = match told.iter().filter(|told| **told).count() {
        0 => Progress::Nothing,
        3 => Progress::Settled,
        _ => Progress::Begun,
    };
    let end = match rig.end {
        Some(AxleEnd::Front) => "front",
        Some(AxleEnd::Rear) => "rear",
        None => "which end?",
    };
    let lift = rig.lift.as_ref().map_or(Length::ZERO, TapeEntry::length);
    stage(Stage::Rig, progress, Headline::Rig { end, lift })
}

fn tape(job: &Job, sheets: &[SheetResult]) -> StageResult {
    let newest = sheets
        .iter()
        .rfind(|sheet| sheet.kind == SheetKind::Centring && sheet.current && sheet.centring.is_some());
    let Some(sheet) = newest else {
        return if !job.setups.rounds.is_empty() {
            stage(Stage::Tape, Progress::NeedsLook, Headline::Plain("read again"))
        } else if job.sheets.iter().any(|sheet| {
            sheet.kind == SheetKind::Centring && sheet.left.iter().chain(&sheet.right).any(Option::is_some)
        }) {
            stage(Stage::Tape, Progress::Begun, Headline::Plain("one side so far"))
        } else {
            stage(Stage::Tape, Progress::Nothing, Headline::Plain("no readings"))
        };
    };
    let Some(centring) = &sheet.centring else {
        return stage(Stage::Tape, Progress::Begun, Headline::Plain("no readings"));
    };
    if !sheet.refusals.is_empty() {
        return stage(Stage::Tape, Progress::NeedsLook, Headline::Plain("read again"));
    }
    match centring.answer {
        Answer::CannotTell => stage(Stage::Tape, Progress::NeedsLook, Headline::Plain("cannot tell yet")),
        Answer::OffCentre => {
            let side = centring.side.word();
            stage(Stage::Tape, Progress::Settled, Headline::Off(centring.offset_mm, side))
        }
        Answer::WithinTolerance => stage(Stage::Tape, Progress::Settled, Headline::Plain("centred")),
    }
}

fn bar_stage(job: &Job, resolved: &Resolved, bar: Option<&BarResult>) -> StageResult {
    let (Some(setups), Some(result)) = (resolved.setups(), bar) else {
        let found = &job.setups.found.bar;
        let begun = found.length.is_some() || found.frame_eye_height.is_some();
        let (progress, says) = match (resolved.unknown().map(|unknown| unknown.why), begun) {
            (Some(NoBar::YLink), _) => (Progress::Settled, "no bar: Y-link"),
            (Some(NoBar::Impossible), _) => (Progress::NeedsLook, "cannot be"),
            (_, true) => (Progress::Begun, "more to measure"),
            (_, false) => (Progress::Nothing, "not measured"),
        };
        return stage(Stage::Bar, progress, Headline::Plain(says));
    };
    // What breaks a rule is said first, whatever else is settled.
    if !setups.fitted.bar.thread_faults().is_empty() {
        return stage(Stage::Bar, Progress::NeedsLook, Headline::Plain("thread!"));
    }
    let Some(correction) = &result.correction else {
        if !job.setups.axle_rounds().is_empty() {
            return stage(Stage::Bar, Progress::Settled, Headline::Set(setups.fitted.view.length()));
        }
        // Without a length to set the stage is done only when the axle is proved centred.
        let centred = resolved.sheets.iter().any(|sheet| sheet.usable && sheet.centred());
        let progress = if centred { Progress::Settled } else { Progress::Begun };
        return stage(Stage::Bar, progress, Headline::Angle(result.found.angle_deg));
    };
    let change = correction.length_mm - correction.from_length_mm;
    let headline = if correction.fitting.bar.is_some() {
        Headline::To(correction.length_mm)
    } else {
        Headline::Change(change)
    };
    if correction.decide_first {
        return stage(Stage::Bar, Progress::NeedsLook, Headline::Plain("hole or length?"));
    }
    match &correction.set {
        Some(check) if check.wanted_moved => stage(Stage::Bar, Progress::NeedsLook, headline),
        Some(check) => stage(Stage::Bar, Progress::Settled, Headline::Set(check.length_mm)),
        None if correction.covered == Some(false) => {
            stage(Stage::Bar, Progress::NeedsLook, Headline::Plain("does not reach"))
        }
        None => stage(Stage::Bar, Progress::Begun, headline),
    }
}

fn bolt_up_stage(progressed: &Progressed) -> StageResult {
    let Progressed { steps, done, .. } = *progressed;
    match (steps, done) {
        (0, _) => stage(Stage::BoltUp, Progress::Nothing, Headline::Plain("nothing chosen")),
        (_, 0) => stage(Stage::BoltUp, Progress::Nothing, Headline::Steps { done, of: steps }),
        _ if done < steps => stage(Stage::BoltUp, Progress::Begun, Headline::Steps { done, of: steps }),
        _ if !progressed.untorqued.is_empty() => {
            stage(Stage::BoltUp, Progress::NeedsLook, Headline::Plain("torque missing"))
        }
        _ if !progressed.still_off.is_empty() => {
            stage(Stage::BoltUp, Progress::NeedsLook, Headline::Plain("something is off"))
        }
        _ => stage(Stage::BoltUp, Progress::Settled, Headline::Plain("done")),
    }
}

fn prove_stage(job: &Job, prove: Option<&ProveResult>, settled_stands: Option<bool>) -> StageResult {
    let (progress, says) = match (settled_stands, prove.map(|prove| prove.verdict)) {
        (Some(true), _) => (Progress::Settled, "settled"),
        (Some(false), _) => (Progress::NeedsLook, "changed since settled"),
        (None, Some(ProveVerdict::CanSettle)) => (Progress::Begun, "proved, not settled"),
        (None, Some(ProveVerdict::BackToBar)) => (Progress::NeedsLook, "back to Bar"),
        (None, Some(ProveVerdict::BackToSway)) => (Progress::NeedsLook, "back to Sway"),
        (None, Some(ProveVerdict::BackToCycle)) => (Progress::NeedsLook, "still touches"),
        (None, Some(ProveVerdict::PlanNotFitted)) => (Progress::Begun, "plan not fitted"),
        (None, Some(ProveVerdict::NotDecided)) => (Progress::Begun, "bracket not decided"),
        (None, Some(ProveVerdict::ReadAgain)) => (Progress::NeedsLook, "read again"),
        (None, None) if job.setups.axle_rounds().is_empty() => (Progress::Nothing, "not yet"),
        (None, None) => (Progress::Begun, "read both sides"),
    };
    stage(Stage::Prove, progress, Headline::Plain(says))
}
