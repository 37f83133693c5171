//! The one state of a job, from as found to closed, and its next step: one sentence and one place to go, the same in the
//! job list, on the Prove screen and in `derecho solve`. Not here: what stands in the way (`findings`), what a screen
//! shows in the strip (`strip`).

pub mod message;
mod state;

use self::message::{Next, StatusMessage};
pub use self::state::JobState;
use crate::bar::BarResult;
use crate::bolt_up::Progressed;
use crate::cautions::Stage;
use crate::document::{Job, Purpose, SheetKind};
use crate::findings::{Finding, FindingKind, cause_key};
use crate::message::Message;
use crate::prove::{Cause, ProveResult, ProveVerdict};
use crate::tape::SheetResult;
use serde::Serialize;
use utoipa::ToSchema;

/// What comes next.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct NextStep {
    /// In a sentence.
    pub says: Message,
    /// The screen it is done on.
    pub stage: Stage,
    /// The place of its field in the document, where it has one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub goes_to: Option<String>,
}

/// Where a job stands, and what comes next.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Status {
    /// The state.
    pub state: JobState,
    /// In words.
    pub says: Message,
    /// How many findings stand in the way of closing it.
    pub open: usize,
    /// The next step; None of a job that is closed.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub next: Option<NextStep>,
}

/// What a status is read from.
#[derive(Clone, Copy, Debug)]
pub struct Sources<'a> {
    /// The job.
    pub job: &'a Job,
    /// The bar, where everything it needs is there.
    pub bar: Option<&'a BarResult>,
    /// Each set of measurements.
    pub sheets: &'a [SheetResult],
    /// The proof, where there is one.
    pub prove: Option<&'a ProveResult>,
    /// How far the work is.
    pub progressed: &'a Progressed,
    /// The register.
    pub findings: &'a [Finding],
    /// Whether there is no track bar at all.
    pub no_bar: bool,
}

/// The status of a job that was closed: whether the results it was closed on still stand.
#[must_use]
pub fn of_closed(stands: bool) -> Status {
    let state = if stands { JobState::Closed } else { JobState::ChangedSinceClosed };
    Status {
        state,
        says: StatusMessage::State { state, work: (0, 0), open: 0 }.into(),
        open: 0,
        next: (!stands).then(|| NextStep {
            says: StatusMessage::Next(Next::ChangedSinceClosed).into(),
            stage: Stage::Prove,
            goes_to: None,
        }),
    }
}

/// Where a job that is not closed stands, and what comes next.
#[must_use]
pub fn status(sources: Sources<'_>) -> Status {
    let state = state(sources);
    let open = sources.findings.iter().filter(|finding| finding.stands_in_the_way()).count();
    let work = (sources.progressed.done, sources.progressed.steps);
    Status {
        state,
        says: StatusMessage::State { state, work, open }.into(),
        open,
        next: next(sources, state),
    }
}

fn state(Sources { job, bar, prove, progressed, .. }: Sources<'_>) -> JobState {
    match prove.map(|prove| prove.verdict) {
        Some(ProveVerdict::CanSettle) => return JobState::Proved,
        Some(
            ProveVerdict::BackToBar
            | ProveVerdict::BackToCycle
            | ProveVerdict::BackToSway
            | ProveVerdict::ReadAgain,
        ) => return JobState::NotAsWanted,
        Some(ProveVerdict::PlanNotFitted | ProveVerdict::NotDecided) | None => {}
    }
    let waits = progressed.done < progressed.steps;
    if waits && progressed.done > 0 {
        return JobState::BeingFitted;
    }
    if prove.is_none() && !job.setups.axle_rounds().is_empty() {
        return JobState::FittedToRead;
    }
    // Every step is done, and what was installed is not on record.
    if progressed.done > 0 {
        return JobState::BeingFitted;
    }
    let undecided = bar.and_then(|bar| bar.correction.as_ref()).is_some_and(|length| length.decide_first);
    if waits && !undecided { JobState::Planned } else { JobState::AsFound }
}

fn next(sources: Sources<'_>, state: JobState) -> Option<NextStep> {
    let Sources { job, findings, prove, no_bar, .. } = sources;
    let to = |stage, next| Some(NextStep { says: StatusMessage::Next(next).into(), stage, goes_to: None });
    // What was found wrong is put right before anything is set by figures that it spoils.
    if let Some(cause) = job.diagnosis.causes.iter().find(|cause| cause.mended.is_none()) {
        let accepted = findings
            .iter()
            .any(|finding| finding.key == cause_key(cause.what) && !finding.stands_in_the_way());
        if !accepted {
            let says = StatusMessage::PutRight(FindingKind::CauseOpen).into();
            return Some(NextStep { says, stage: Stage::Prove, goes_to: None });
        }
    }
    match (state, prove.map(|prove| prove.verdict)) {
        (JobState::Proved, _) => match findings.iter().find(|finding| finding.stands_in_the_way()) {
            Some(finding) => Some(NextStep {
                says: StatusMessage::PutRight(finding.kind).into(),
                stage: finding.stage,
                goes_to: finding.goes_to.clone(),
            }),
            None if job.proof.road.is_empty() => to(Stage::Prove, Next::RoadTestThenClose),
            None => to(Stage::Prove, Next::Close),
        },
        (_, Some(ProveVerdict::BackToBar)) if no_bar => to(Stage::Bracket, Next::TurnTheLegs),
        (_, Some(ProveVerdict::BackToBar)) if an_eye_is_suspected(sources) => {
            to(Stage::Prove, Next::MeasureTheEye)
        }
        (_, Some(ProveVerdict::BackToBar)) if cause_is_open(sources) => to(Stage::Prove, Next::FindTheCause),
        (_, Some(ProveVerdict::BackToBar)) => to(Stage::Bar, Next::SetTheBarAgain),
        (_, Some(ProveVerdict::BackToCycle)) => to(Stage::Cycle, Next::SomethingStillTouches),
        (_, Some(ProveVerdict::BackToSway)) => to(Stage::Sway, Next::SwayLinksThatWork),
        (_, Some(ProveVerdict::ReadAgain)) => to(Stage::Prove, Next::ReadBothSidesAgain),
        (_, Some(ProveVerdict::NotDecided)) => to(Stage::Bracket, Next::ChooseHoleOrLength),
        (JobState::BeingFitted, _) if !all_done(sources) => to(Stage::BoltUp, Next::NextStepOfWork),
        (_, None) if all_done(sources) && !job.not_installed().is_empty() => {
            to(Stage::Prove, Next::RecordWhatWasFitted)
        }
        // Nobody is sent to the steps that were just done.
        (_, Some(ProveVerdict::PlanNotFitted)) if all_done(sources) => {
            // What is no bar and no link goes on record on the Prove screen.
            let stage = match job.is_sway_alone() {
                _ if !job.not_installed().is_empty() => Stage::Prove,
                true => Stage::Sway,
                false => Stage::Bar,
            };
            to(stage, Next::RecordWhatWasFitted)
        }
        (_, Some(ProveVerdict::PlanNotFitted)) => to(Stage::BoltUp, Next::FitTheChosenPlan),
        (_, _) => before_the_proof(sources).and_then(|(stage, next)| to(stage, next)),
    }
}

/// Whether an eye may sit elsewhere than planned, and nobody said yet what the cause was.
fn an_eye_is_suspected(Sources { prove, .. }: Sources<'_>) -> bool {
    prove.is_some_and(|prove| !prove.misplaced.is_empty())
}

/// Whether nothing explains yet why the axle moved otherwise.
fn cause_is_open(Sources { prove, .. }: Sources<'_>) -> bool {
    prove.and_then(|prove| prove.cause).is_some_and(Cause::is_open)
}

/// Whether there is work, and every step of it is done or skipped.
fn all_done(Sources { progressed, .. }: Sources<'_>) -> bool {
    progressed.steps > 0 && progressed.done == progressed.steps
}

/// What comes next where nothing was proved yet.
fn before_the_proof(sources: Sources<'_>) -> Option<(Stage, Next)> {
    let Sources { job, bar, sheets, no_bar, .. } = sources;
    let correction = bar.and_then(|bar| bar.correction.as_ref());
    let sheet = sheets
        .iter()
        .rfind(|sheet| sheet.kind == SheetKind::Centring && sheet.current && sheet.says.is_some());
    // A bar as long as the old one needs no readings first.
    let stock = job.bracket.stock_length.is_some();
    let copied = job.setups.plans.chosen.as_ref().is_some_and(|plan| plan.copies_a_length(stock));
    let swaps = job.to_do.contains(&Purpose::SwapBar);
    let nothing_hung = job.setups.axle_rounds().is_empty() && job.setups.plans.chosen.is_none();
    Some(match (correction, sheet) {
        // What goes in without a tape on the sway bar.
        _ if job.is_sway_alone() && sources.progressed.steps > 0 && !job.not_installed().is_empty() => {
            (Stage::BoltUp, Next::FitTheChosenPlan)
        }
        _ if job.is_sway_alone() => (Stage::Sway, Next::MeasureTheSwayBar),
        (Some(correction), _) if correction.decide_first => (Stage::Bracket, Next::ChooseHoleOrLength),
        (Some(correction), _) if correction.set.is_some() => (Stage::Prove, Next::ReadBothSidesAgain),
        // The bar of a swap is entered on Bar, and Bracket is not shown.
        (Some(correction), _) if correction.covered == Some(false) => {
            (if swaps { Stage::Bar } else { Stage::Bracket }, Next::BarThatReaches)
        }
        (Some(_), Some(_)) if all_done(sources) => (Stage::Bar, Next::RecordWhatWasFitted),
        (Some(_), None) if copied && all_done(sources) => (Stage::Bar, Next::RecordWhatWasFitted),
        (Some(_), Some(_)) => (Stage::BoltUp, Next::SetTheBar),
        (Some(_), None) if copied => (Stage::BoltUp, Next::SetTheBar),
        (None, _) if swaps && bar.is_none() => (Stage::Bar, Next::MeasureTheBar),
        (None, _) if swaps && nothing_hung => (Stage::Bar, Next::EnterTheNewBar),
        (Some(_) | None, None) => (Stage::Tape, Next::ReadBothSides),
        (None, Some(sheet)) if no_bar && !sheet.centred() => (Stage::Cycle, Next::SeeCycle),
        (None, Some(_)) if bar.is_none() && !no_bar => (Stage::Bar, Next::MeasureTheBar),
        (None, Some(_)) => (Stage::Tape, Next::ReadBothSidesAgain),
    })
}
