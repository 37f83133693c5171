//! Where each stage of a job stands, and its one headline figure.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::bar::BarOutcome;
use crate::bracket::plan::ENOUGH_DEGREES;
use crate::cautions::Stage;
use crate::cycle::Brief;
use crate::document::sway::SwayKind;
use crate::document::{AxleLocation, Job, SheetKind};
use crate::prove::{ProveResult, ProveVerdict};
use crate::setups::moves;
use crate::tape::SheetResult;
use derecho_core::measure::centring::Answer;
use derecho_core::measure::phrase::degrees;
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
    /// Its figure, or what it waits for.
    pub headline: Phrase,
}

/// The stages that work, in working order.
#[must_use]
pub fn stages(
    job: &Job,
    sheets: &[SheetResult],
    bar: &BarOutcome,
    cycle: Option<&Brief>,
    links_work: Option<bool>,
    prove: Option<&ProveResult>,
    settled_stands: Option<bool>,
) -> Vec<StageResult> {
    vec![
        rig(job),
        tape(job, sheets),
        bar_stage(job, sheets, bar),
        bracket_stage(job, bar),
        cycle_stage(job, cycle),
        sway_stage(job, links_work),
        prove_stage(job, prove, settled_stands),
    ]
}

/// Settled once a plan is chosen, or where a length alone is enough.
fn bracket_stage(job: &Job, bar: &BarOutcome) -> StageResult {
    let Some(result) = &bar.result else {
        let no_bar = bar.missing.iter().any(|fault| fault.code == "no_bar");
        let says = if no_bar { "Y-link" } else { "measure the bar" };
        return stage(Stage::Bracket, Progress::Nothing, Phrase::plain(says));
    };
    if let Some(chosen) = &job.bracket.chosen {
        if chosen.hole.is_empty() {
            return stage(Stage::Bracket, Progress::Settled, Phrase::plain("length only"));
        }
        // A hole that was taken out of its bracket is a plan no more.
        let there = moves::plan_move(job, chosen).is_some();
        let progress = if there { Progress::Settled } else { Progress::NeedsLook };
        return stage(Stage::Bracket, progress, Phrase::plain(&chosen.hole));
    }
    let steep = result.found.angle_deg.abs().to_degrees() > ENOUGH_DEGREES;
    if !steep {
        return stage(Stage::Bracket, Progress::Begun, Phrase::plain("not needed"));
    }
    let tried = !moves::brackets(job).is_empty();
    let (progress, says) =
        if tried { (Progress::Begun, "to choose") } else { (Progress::Nothing, "no bracket tried") };
    stage(Stage::Bracket, progress, Phrase::plain(says))
}

/// Settled where the links are legal at the ends of travel.
fn sway_stage(job: &Job, links_work: Option<bool>) -> StageResult {
    let (progress, says) = match job.sway.kind {
        None => (Progress::Nothing, "not measured"),
        Some(SwayKind::None) => (Progress::Settled, "no sway bar"),
        Some(_) if job.sway.link.is_none() || job.sway.holes.is_empty() => {
            (Progress::Begun, "more to measure")
        }
        Some(_) => {
            let link = job.sway.link.as_ref().map_or(Length::ZERO, TapeEntry::length);
            let word = if links_work == Some(false) { "not legal:" } else { "links" };
            let progress = if links_work == Some(true) { Progress::Settled } else { Progress::Begun };
            return stage(Stage::Sway, progress, Phrase::of(|w| format!("{word} {}", w.distance(link))));
        }
    };
    stage(Stage::Sway, progress, Phrase::plain(says))
}

/// Settled only where somebody measured more than the bar: a template proves nothing.
fn cycle_stage(job: &Job, cycle: Option<&Brief>) -> StageResult {
    match cycle {
        None => stage(Stage::Cycle, Progress::Nothing, Phrase::plain("more to measure")),
        Some(brief) => {
            let done = !brief.ended && !job.hardpoints.is_empty();
            let progress = if done { Progress::Settled } else { Progress::Begun };
            stage(Stage::Cycle, progress, brief.headline.clone())
        }
    }
}

fn stage(stage: Stage, progress: Progress, headline: Phrase) -> StageResult {
    StageResult { stage, progress, headline }
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
    let headline = Phrase::of(|w| {
        if lift == Length::ZERO {
            end.to_owned()
        } else {
            let verb = if lift > Length::ZERO { "up" } else { "down" };
            format!("{end}, {} {verb}", w.distance(lift))
        }
    });
    stage(Stage::Rig, progress, headline)
}

fn tape(job: &Job, sheets: &[SheetResult]) -> StageResult {
    let newest = sheets
        .iter()
        .rfind(|sheet| sheet.kind == SheetKind::Centring && sheet.current && sheet.centring.is_some());
    let Some(sheet) = newest else {
        return if !job.setups.as_built.is_empty() {
            stage(Stage::Tape, Progress::NeedsLook, Phrase::plain("read again"))
        } else if job.sheets.iter().any(|sheet| {
            sheet.kind == SheetKind::Centring && sheet.left.iter().chain(&sheet.right).any(Option::is_some)
        }) {
            stage(Stage::Tape, Progress::Begun, Phrase::plain("one side so far"))
        } else {
            stage(Stage::Tape, Progress::Nothing, Phrase::plain("no readings"))
        };
    };
    let Some(centring) = &sheet.centring else {
        return stage(Stage::Tape, Progress::Begun, Phrase::plain("no readings"));
    };
    if !sheet.refusals.is_empty() {
        return stage(Stage::Tape, Progress::NeedsLook, Phrase::plain("read again"));
    }
    match centring.answer {
        Answer::CannotTell => stage(Stage::Tape, Progress::NeedsLook, Phrase::plain("cannot tell yet")),
        Answer::OffCentre => {
            let side = centring.side.word();
            stage(
                Stage::Tape,
                Progress::Settled,
                Phrase::of(|w| format!("{} {side}", w.distance(centring.offset_mm))),
            )
        }
        Answer::WithinTolerance => stage(Stage::Tape, Progress::Settled, Phrase::plain("centred")),
    }
}

fn bar_stage(job: &Job, sheets: &[SheetResult], bar: &BarOutcome) -> StageResult {
    let Some(result) = &bar.result else {
        if bar.missing.iter().any(|fault| fault.code == "no_bar") {
            return stage(Stage::Bar, Progress::Settled, Phrase::plain("no bar: Y-link"));
        }
        let begun = job.setups.as_found.length.is_some() || job.setups.as_found.frame_eye_height.is_some();
        let progress = if begun { Progress::Begun } else { Progress::Nothing };
        let impossible = bar.missing.iter().any(|fault| fault.code == "impossible_bar");
        let headline = match (impossible, begun) {
            (true, _) => "cannot be",
            (false, true) => "more to measure",
            (false, false) => "not measured",
        };
        let progress = if impossible { Progress::NeedsLook } else { progress };
        return stage(Stage::Bar, progress, Phrase::plain(headline));
    };
    let angle = degrees(result.found.angle_deg);
    let Some(correction) = &result.correction else {
        if let Some(made) = job.setups.as_built.last() {
            return stage(
                Stage::Bar,
                Progress::Settled,
                Phrase::of(|w| format!("set {}", w.fine(made.length.length()))),
            );
        }
        // Without a length to set the stage is done only when the axle is proved centred.
        let centred = sheets.iter().any(|sheet| {
            sheet.usable && sheet.centring.as_ref().is_some_and(|c| c.answer == Answer::WithinTolerance)
        });
        let progress = if centred { Progress::Settled } else { Progress::Begun };
        return stage(Stage::Bar, progress, Phrase::plain(&angle));
    };
    let change = correction.recentring.change_mm;
    let word = if change > Length::ZERO { "longer" } else { "shorter" };
    let headline = Phrase::of(|w| format!("{} {word}", w.distance(change)));
    match &correction.set {
        Some(check) if check.wanted_moved => stage(Stage::Bar, Progress::NeedsLook, headline),
        Some(check) => {
            stage(Stage::Bar, Progress::Settled, Phrase::of(|w| format!("set {}", w.fine(check.length_mm))))
        }
        None => stage(Stage::Bar, Progress::Begun, headline),
    }
}

fn prove_stage(job: &Job, prove: Option<&ProveResult>, settled_stands: Option<bool>) -> StageResult {
    match (settled_stands, prove.map(|prove| prove.verdict)) {
        (Some(true), _) => stage(Stage::Prove, Progress::Settled, Phrase::plain("settled")),
        (Some(false), _) => stage(Stage::Prove, Progress::NeedsLook, Phrase::plain("changed since settled")),
        (None, Some(ProveVerdict::CanSettle)) => {
            stage(Stage::Prove, Progress::Begun, Phrase::plain("proved, not settled"))
        }
        (None, Some(ProveVerdict::BackToBar)) => {
            stage(Stage::Prove, Progress::NeedsLook, Phrase::plain("back to Bar"))
        }
        (None, Some(ProveVerdict::ReadAgain)) => {
            stage(Stage::Prove, Progress::NeedsLook, Phrase::plain("read again"))
        }
        (None, None) if job.setups.as_built.is_empty() => {
            stage(Stage::Prove, Progress::Nothing, Phrase::plain("set the bar first"))
        }
        (None, None) => stage(Stage::Prove, Progress::Begun, Phrase::plain("read both sides")),
    }
}
