//! Where each stage of a job stands, and its one headline figure; `message` is what it says. Not here: what a
//! stage finds; it is handed that.

pub mod message;
mod needs;

use derecho_core::parts::BracketEnd;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use self::message::{StripMessage, Waits};
use self::needs::needs;
use crate::bar::BarResult;
use crate::bar::need::Need;
use crate::bolt_up::Progressed;
use crate::cautions::Stage;
use crate::cycle::Brief;
use crate::document::sway::SwayKind;
use crate::document::{AxleLocation, Job, SheetKind, Sway};
use crate::message::Message;
use crate::prove::{ProveResult, ProveVerdict};
use crate::setups::{NoBar, Resolved, moves};
use crate::tape::SheetResult;
use derecho_core::measure::centring::Answer;
use derecho_core::measure::{Length, TapeEntry};

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
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StageResult {
    /// Which.
    pub stage: Stage,
    /// How far.
    pub progress: Progress,
    /// Whether the work of this job needs it.
    pub needed: bool,
    /// Its figure, or what it waits for.
    pub headline: Message,
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
    (prove, open, settled_stands): (Option<&ProveResult>, usize, Option<bool>),
) -> Vec<StageResult> {
    let all = vec![
        rig(job),
        tape(job, &resolved.sheets),
        bar_stage(job, resolved, bar),
        bracket_stage(job, resolved, bar),
        cycle_stage(job, cycle),
        sway_stage(&resolved.sway.plan, links_work),
        bolt_up_stage(progressed),
        prove_stage(job, (prove, open), settled_stands),
    ];
    all.into_iter().map(|stage| StageResult { needed: needs(job, stage.stage), ..stage }).collect()
}

/// Settled once a plan is chosen, or where a length alone is enough.
fn bracket_stage(job: &Job, resolved: &Resolved, bar: Option<&BarResult>) -> StageResult {
    let (Some(setups), Some(result)) = (resolved.measured_setups(), bar) else {
        let y_link = resolved.unknown().is_some_and(|unknown| unknown.why == NoBar::YLink);
        let says = if y_link { Waits::YLink } else { Waits::MeasureTheBar };
        return stage(Stage::Bracket, Progress::Nothing, StripMessage::Waits(says));
    };
    if let Some(chosen) = &job.setups.plans.chosen {
        let ends = [(BracketEnd::Axle, &chosen.axle), (BracketEnd::Frame, &chosen.frame)];
        let holes: Vec<String> = ends
            .iter()
            .filter_map(|(end, choice)| Some(job.hole_name(*end, choice.as_ref()?).to_owned()))
            .collect();
        let says = if holes.is_empty() {
            StripMessage::Waits(Waits::LengthOnly)
        } else {
            StripMessage::Holes(holes)
        };
        // What it points at was taken out: it is a plan no more.
        let progress = if setups.plan_gone { Progress::NeedsLook } else { Progress::Settled };
        return stage(Stage::Bracket, progress, says);
    }
    if setups.plan_gone {
        return stage(Stage::Bracket, Progress::NeedsLook, StripMessage::Waits(Waits::PartGone));
    }
    let tried = !moves::brackets(job).is_empty();
    let (progress, says) = match (result.need.facts.need, tried) {
        (Need::NotNeeded, _) => (Progress::Begun, Waits::NotNeeded),
        (Need::Offered, _) => (Progress::Begun, Waits::NotRecommended),
        (Need::Recommended, true) => (Progress::Begun, Waits::ToChoose),
        (Need::Recommended, false) => (Progress::Nothing, Waits::NoBracketTried),
    };
    stage(Stage::Bracket, progress, StripMessage::Waits(says))
}

/// Settled where the links work at the ends of travel, as they are planned.
fn sway_stage(sway: &Sway, links_work: Option<bool>) -> StageResult {
    let (progress, says) = match sway.kind {
        None => (Progress::Nothing, Waits::NotMeasured),
        Some(SwayKind::None) => (Progress::Settled, Waits::NoSwayBar),
        Some(_) if sway.link.is_none() && sway.arm().is_some() && sway.far_end.height.is_some() => {
            (Progress::Begun, Waits::LinkToChoose)
        }
        Some(_) if sway.link.is_none() || sway.holes.is_empty() => (Progress::Begun, Waits::MoreToMeasure),
        Some(_) => {
            let link = sway.link.as_ref().map_or(Length::ZERO, TapeEntry::length);
            let progress = if links_work == Some(true) { Progress::Settled } else { Progress::Begun };
            return stage(
                Stage::Sway,
                progress,
                StripMessage::Links { works: links_work != Some(false), link },
            );
        }
    };
    stage(Stage::Sway, progress, StripMessage::Waits(says))
}

/// Settled only where somebody measured more than the bar: a template proves nothing.
fn cycle_stage(job: &Job, cycle: Option<&Brief>) -> StageResult {
    match cycle {
        None => stage(Stage::Cycle, Progress::Nothing, StripMessage::Waits(Waits::MoreToMeasure)),
        Some(brief) => {
            let done = !brief.ended && !job.hardpoints.is_empty();
            let progress = if done { Progress::Settled } else { Progress::Begun };
            of_stage(Stage::Cycle, progress, brief.headline.clone())
        }
    }
}

fn stage(stage: Stage, progress: Progress, headline: StripMessage) -> StageResult {
    of_stage(stage, progress, headline.into())
}

fn of_stage(stage: Stage, progress: Progress, headline: Message) -> StageResult {
    StageResult { stage, progress, needed: true, headline }
}

fn rig(job: &Job) -> StageResult {
    let rig = &job.rig;
    // A Y-shaped link has no frame eye to ask for.
    let no_bar = rig.axle_location == Some(AxleLocation::YLink);
    let reported = [rig.end.is_some(), rig.steering_side.is_some(), rig.frame_eye_side.is_some() || no_bar];
    let progress = match reported.iter().filter(|reported| **reported).count() {
        0 => Progress::Nothing,
        3 => Progress::Settled,
        _ => Progress::Begun,
    };
    let lift = rig.lift.as_ref().map_or(Length::ZERO, TapeEntry::length);
    stage(Stage::Rig, progress, StripMessage::Rig { end: rig.end, lift })
}

fn tape(job: &Job, sheets: &[SheetResult]) -> StageResult {
    let newest = sheets
        .iter()
        .rfind(|sheet| sheet.kind == SheetKind::Centring && sheet.current && sheet.centring.is_some());
    let Some(sheet) = newest else {
        return if !job.setups.rounds.is_empty() {
            stage(Stage::Tape, Progress::NeedsLook, StripMessage::Waits(Waits::ReadAgain))
        } else if job.sheets.iter().any(|sheet| {
            sheet.kind == SheetKind::Centring && sheet.left.iter().chain(&sheet.right).any(Option::is_some)
        }) {
            stage(Stage::Tape, Progress::Begun, StripMessage::Waits(Waits::OneSideSoFar))
        } else {
            stage(Stage::Tape, Progress::Nothing, StripMessage::Waits(Waits::NoReadings))
        };
    };
    let Some(centring) = &sheet.centring else {
        return stage(Stage::Tape, Progress::Begun, StripMessage::Waits(Waits::NoReadings));
    };
    if !sheet.refusals.is_empty() {
        return stage(Stage::Tape, Progress::NeedsLook, StripMessage::Waits(Waits::ReadAgain));
    }
    match centring.answer {
        Answer::CannotTell => {
            stage(Stage::Tape, Progress::NeedsLook, StripMessage::Waits(Waits::CannotTellYet))
        }
        Answer::OffCentre => {
            let off = StripMessage::Off(centring.offset_mm, centring.side);
            stage(Stage::Tape, Progress::Settled, off)
        }
        Answer::WithinTolerance => stage(Stage::Tape, Progress::Settled, StripMessage::Waits(Waits::Centred)),
    }
}

fn bar_stage(job: &Job, resolved: &Resolved, bar: Option<&BarResult>) -> StageResult {
    let (Some(setups), Some(result)) = (resolved.setups(), bar) else {
        let found = &job.setups.found.bar;
        let begun = found.length.is_some() || found.frame_eye_height.is_some();
        let (progress, says) = match (resolved.unknown().map(|unknown| unknown.why), begun) {
            (Some(NoBar::YLink), _) => (Progress::Settled, Waits::NoBarYLink),
            (Some(NoBar::Impossible), _) => (Progress::NeedsLook, Waits::CannotBe),
            (_, true) => (Progress::Begun, Waits::MoreToMeasure),
            (_, false) => (Progress::Nothing, Waits::NotMeasured),
        };
        return stage(Stage::Bar, progress, StripMessage::Waits(says));
    };
    // What breaks a rule is said first, whatever else is settled.
    if !setups.fitted.bar.thread_faults().is_empty() {
        return stage(Stage::Bar, Progress::NeedsLook, StripMessage::Waits(Waits::ThreadFault));
    }
    let Some(correction) = &result.correction else {
        if !result.angle_measured && job.setups.axle_rounds().is_empty() {
            return stage(Stage::Bar, Progress::Begun, StripMessage::Waits(Waits::MoreToMeasure));
        }
        if !job.setups.axle_rounds().is_empty() {
            return stage(Stage::Bar, Progress::Settled, StripMessage::Set(setups.fitted.view.length()));
        }
        // Without a length to set the stage is done only when the axle is proved centred.
        let centred = resolved.sheets.iter().any(|sheet| sheet.usable && sheet.centred());
        let progress = if centred { Progress::Settled } else { Progress::Begun };
        return stage(Stage::Bar, progress, StripMessage::Angle(result.found.angle_deg));
    };
    let change = correction.length_mm - correction.from_length_mm;
    let headline = if correction.fitting.bar.is_some() {
        StripMessage::To(correction.length_mm)
    } else {
        StripMessage::Change(change)
    };
    if correction.decide_first {
        return stage(Stage::Bar, Progress::NeedsLook, StripMessage::Waits(Waits::HoleOrLength));
    }
    match &correction.set {
        Some(check) if check.wanted_moved => stage(Stage::Bar, Progress::NeedsLook, headline),
        Some(check) => stage(Stage::Bar, Progress::Settled, StripMessage::Set(check.length_mm)),
        None if correction.covered == Some(false) => {
            stage(Stage::Bar, Progress::NeedsLook, StripMessage::Waits(Waits::DoesNotReach))
        }
        None => stage(Stage::Bar, Progress::Begun, headline),
    }
}

fn bolt_up_stage(progressed: &Progressed) -> StageResult {
    let Progressed { steps, done, .. } = *progressed;
    match (steps, done) {
        (0, _) => stage(Stage::BoltUp, Progress::Nothing, StripMessage::Waits(Waits::NothingChosen)),
        (_, 0) => stage(Stage::BoltUp, Progress::Nothing, StripMessage::Steps { done, of: steps }),
        _ if done < steps => stage(Stage::BoltUp, Progress::Begun, StripMessage::Steps { done, of: steps }),
        _ if !progressed.untorqued.is_empty() => {
            stage(Stage::BoltUp, Progress::NeedsLook, StripMessage::Waits(Waits::TorqueMissing))
        }
        _ if !progressed.still_off.is_empty() => {
            stage(Stage::BoltUp, Progress::NeedsLook, StripMessage::Waits(Waits::SomethingIsOff))
        }
        _ => stage(Stage::BoltUp, Progress::Settled, StripMessage::Waits(Waits::Done)),
    }
}

fn prove_stage(
    job: &Job,
    (prove, open): (Option<&ProveResult>, usize),
    settled_stands: Option<bool>,
) -> StageResult {
    let (progress, says) = match (settled_stands, prove.map(|prove| prove.verdict)) {
        (Some(true), _) => (Progress::Settled, Waits::Settled),
        (Some(false), _) => (Progress::NeedsLook, Waits::ChangedSinceSettled),
        (None, Some(ProveVerdict::CanSettle)) => {
            return stage(Stage::Prove, Progress::Begun, StripMessage::Proved { open });
        }
        (None, Some(ProveVerdict::BackToBar)) => (Progress::NeedsLook, Waits::BackToBar),
        (None, Some(ProveVerdict::BackToSway)) => (Progress::NeedsLook, Waits::BackToSway),
        (None, Some(ProveVerdict::BackToCycle)) => (Progress::NeedsLook, Waits::StillTouches),
        (None, Some(ProveVerdict::PlanNotFitted)) => (Progress::Begun, Waits::PlanNotFitted),
        (None, Some(ProveVerdict::NotDecided)) => (Progress::Begun, Waits::BracketNotDecided),
        (None, Some(ProveVerdict::ReadAgain)) => (Progress::NeedsLook, Waits::ReadAgain),
        (None, None) if job.setups.axle_rounds().is_empty() => (Progress::Nothing, Waits::NotYet),
        (None, None) => (Progress::Begun, Waits::ReadBothSides),
    };
    stage(Stage::Prove, progress, StripMessage::Waits(says))
}
