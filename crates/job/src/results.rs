//! Everything computed from a job, as one call.

use serde::Serialize;
use utoipa::ToSchema;

use crate::assembly::empty_fields::empty_fields;
use crate::assembly::weights::weighed;
use crate::assembly::{Assembly, assemble};
use crate::bar::heights::{self, HeightResult};
use crate::bar::next::{NEXT_DRAWS, NextReading, next_reading};
use crate::bar::uncertainty::{Uncertainty, uncertainty as drawn};
use crate::bar::{self, BarResult};
use crate::bolt_up::{self, Progressed, WorkResult, progressed};
use crate::bracket::{self, PlanResult};
use crate::cautions::{Caution, Stage, cautions};
use crate::cycle::near::{self, NearResult};
use crate::cycle::{self, Brief, CycleResult};
use crate::defaults::Assumption;
use crate::diagnosis::{DiagnosisResult, diagnosis};
use crate::document::check::FieldError;
use crate::document::{AxleLocation, Job, Settled};
use crate::elevation::{Elevation, elevation};
use crate::findings::{Finding, JudgedFitted, Sources, moves_past_what_nobody_measured, register};
use crate::message::Message;
use crate::prove::complaints::{ComplaintAdvice, advice};
use crate::prove::settling::{Settling, compared, looks, settling};
use crate::prove::{FoundElsewhere, ProveResult, ProveVerdict, prove};
use crate::setups::{NoBar, Resolved, Setups};
use crate::status::{self, Status};
use crate::strip::message::StripMessage;
use crate::strip::{StageResult, stages};
use crate::sway::{self, AtEnds, FigureThere, FromOtherEnd, SwayResult};
use crate::tape::SheetResult;
use crate::vehicle::{Offer, with_other_end};
use derecho_core::measure::{Length, TapeEntry, Unit};

/// Everything the screens show. Lengths are millimetres in fields ending in `_mm`,
/// angles degrees in fields ending in `_deg`, sideways figures + to the left.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Results {
    /// The version of the rules that computed this.
    pub core_version: String,
    /// The unit the job's sheets are written in.
    pub sheet_unit: Unit,
    /// The headline for the bay.
    pub headline: Message,
    /// Each stage, in working order.
    pub stages: Vec<StageResult>,
    /// Each sheet, in the document's order.
    pub sheets: Vec<SheetResult>,
    /// The bar, where everything it needs is there.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bar: Option<BarResult>,
    /// What keeps the bar from an answer, each with its field.
    pub bar_missing: Vec<FieldError>,
    /// What both sides alone say of the bar's length, while the bar is not measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub first_answer: Option<Message>,
    /// Whether there is no track bar at all: a Y-link centres the axle.
    pub no_bar: bool,
    /// The rig's heights.
    pub heights: Vec<HeightResult>,
    /// The proof, where the bar was set and read again.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub prove: Option<ProveResult>,
    /// What does not hold or is not known, by whichever stage, the worst first.
    pub findings: Vec<Finding>,
    /// Where the job stands, and what comes next.
    pub status: Status,
    /// What is looked at before it is closed, and what is due afterwards.
    pub settling: Settling,
    /// What each complaint suggests to look at.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub complaints: Vec<ComplaintAdvice>,
    /// Why it is as it is, where there is something to search for.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub diagnosis: Option<DiagnosisResult>,
    /// Whether the results a settled job was settled on still stand.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub settled_stands: Option<bool>,
    /// What the end view is drawn from.
    pub elevation: Elevation,
    /// Figures nobody typed that something rests on.
    pub assumptions: Vec<Assumption>,
    /// Figures of the vehicle nobody typed, which loads and rolls rest on.
    pub vehicle_assumed: Vec<Assumption>,
    /// What counts as centred on this rig.
    pub tolerance_mm: Length,
    /// What is taken where a field is left empty, each with its field.
    pub empty_fields: Vec<Assumption>,
    /// Cautions, each with its stage.
    pub cautions: Vec<Caution>,
}

/// Whether what a job was settled on is what is found of it now. Asked of whoever can read the copy it was settled on.
pub type Stands = fn(&Settled, &Results) -> bool;

/// Of jobs that nobody settles.
#[must_use]
pub const fn never_settled(_: &Settled, _: &Results) -> bool {
    false
}

/// Computes everything from a document. Never fails: what cannot be computed is absent,
/// with what is missing in its place.
#[must_use]
pub fn solve(job: &Job, stands: Stands) -> Results {
    solved(job, &Resolved::of(job), stands)
}

fn solved(job: &Job, resolved: &Resolved, stands: Stands) -> Results {
    let mut bar = resolved.setups().map(|setups| bar::bar(job, setups));
    let setups = resolved.measured_setups();
    let assembly = assemble(job, setups).ok();
    let at_ends =
        assembly.as_ref().and_then(|assembly| sway::at_ends(job, &resolved.sway.plan, assembly.mechanism()));
    let links_work = at_ends.map(|ends| ends.work);
    let brief = assembly.as_ref().map(cycle::brief);
    choose_first(job, bar.as_mut(), brief.as_ref());
    let (elevation, assumptions) = elevation(job, setups);
    let progressed = progressed(job, resolved);
    let no_bar = resolved.unknown().is_some_and(|unknown| unknown.why == NoBar::YLink);
    let work = (progressed.done, progressed.steps);
    let prove = prove(job, resolved, FoundElsewhere { links_work, cycled: brief.as_ref(), work });
    let closing = closing(&Judging {
        job,
        resolved,
        bar: bar.as_ref(),
        prove: prove.as_ref(),
        progressed: &progressed,
        assembly: assembly.as_ref(),
        at_ends,
        cycle: brief.as_ref(),
        links_work,
        no_bar,
    });
    let mut results = Results {
        core_version: derecho_core::VERSION.to_owned(),
        sheet_unit: job.rig.sheet_unit,
        headline: Message::NOTHING,
        stages: Vec::new(),
        heights: heights_of(job, setups, bar.as_ref()),
        settled_stands: None,
        settling: closing.settling,
        findings: closing.findings,
        status: closing.status,
        complaints: advice(job, resolved, bar.as_ref(), links_work),
        diagnosis: diagnosis(job, resolved, moved_otherwise(prove.as_ref())),
        bar,
        first_answer: bar::first::first_answer(job, resolved),
        bar_missing: resolved.unknown().map_or_else(Vec::new, |unknown| unknown.missing.clone()),
        no_bar,
        prove,
        sheets: resolved.sheets.clone(),
        vehicle_assumed: weighed(job, elevation.track_mm, elevation.axle_height_mm).assumed,
        elevation,
        assumptions,
        tolerance_mm: crate::tape::tolerance(&job.rig),
        empty_fields: empty_fields(),
        cautions: cautions(job.rig.axle_location == Some(AxleLocation::YLink), job.rig.is_steered()),
    };
    stands_since_closed(&mut results, job, stands);
    let proof = (results.prove.as_ref(), results.status.open, results.settled_stands);
    let (bar, cycle) = (results.bar.as_ref(), brief.as_ref());
    results.stages = stages(job, resolved, bar, cycle, links_work, &progressed, proof);
    results.headline = headline(&results.stages);
    results
}

/// Whether the axle moved otherwise than predicted, beyond what both are good to.
fn moved_otherwise(prove: Option<&ProveResult>) -> bool {
    prove.and_then(|prove| prove.movement.as_ref()).is_some_and(|movement| !movement.agrees)
}

/// Whether a closed job still stands as it was closed. The frozen copy is compared before the parts that speak of settling
/// are filled in.
fn stands_since_closed(results: &mut Results, job: &Job, stands: Stands) {
    results.settled_stands = job.settled.as_ref().map(|settled| stands(settled, results));
    if let Some(stands) = results.settled_stands {
        results.status = status::of_closed(stands);
    }
}

/// The heights, as found and planned.
fn heights_of(job: &Job, setups: Option<&Setups>, bar: Option<&BarResult>) -> Vec<HeightResult> {
    let found = setups.map(|setups| (&setups.base.view, setups.base.offset));
    let corrected = bar.is_some_and(|bar| bar.correction.is_some());
    let planned = setups.map(|setups| {
        let other = if corrected { setups.other() } else { &setups.base };
        (&other.view, other.offset)
    });
    heights::table(&job.rig, found, planned)
}

/// What is known when the register is made.
struct Judging<'a> {
    job: &'a Job,
    resolved: &'a Resolved,
    bar: Option<&'a BarResult>,
    prove: Option<&'a ProveResult>,
    progressed: &'a Progressed,
    assembly: Option<&'a Assembly>,
    at_ends: Option<AtEnds>,
    cycle: Option<&'a Brief>,
    links_work: Option<bool>,
    no_bar: bool,
}

/// What stands between a job and its closing.
struct Closing {
    findings: Vec<Finding>,
    status: Status,
    settling: Settling,
}

/// Makes the register, and reads from it where the job stands.
fn closing(judging: &Judging<'_>) -> Closing {
    let Judging { job, resolved, bar, prove, progressed, cycle, links_work, no_bar, .. } = *judging;
    let proved = prove.is_some_and(|prove| prove.verdict == ProveVerdict::CanSettle);
    let (fitted, drag_link) = judged(judging, proved);
    let unmeasured = moves_past_what_nobody_measured(job, resolved, cycle, links_work);
    let seen = (looks(job, drag_link.as_ref(), unmeasured), compared(job, resolved));
    let findings = register(&Sources {
        job,
        resolved,
        prove,
        progressed,
        looks: &seen.0,
        compared: &seen.1,
        fitted: &fitted,
        cycle,
        links_work,
    });
    let may = proved && !findings.iter().any(Finding::stands_in_the_way);
    let sheets = &resolved.sheets;
    let status =
        status::status(status::Sources { job, bar, sheets, prove, progressed, findings: &findings, no_bar });
    Closing { status, settling: settling(job, resolved, progressed, seen, may), findings }
}

fn choose_first(job: &Job, bar: Option<&mut BarResult>, brief: Option<&Brief>) {
    if let Some(bar) = bar {
        bar::put_choice_first(job, bar, brief.and_then(|brief| brief.ends.as_ref()));
    }
}

/// Stage Bar by itself, with what stage Cycle finds of the length it wants.
fn bar_of(job: &Job, resolved: &Resolved) -> Option<BarResult> {
    let setups = resolved.setups()?;
    let mut bar = bar::bar(job, setups);
    let undecided = bar.correction.is_some() && job.setups.plans.chosen.is_none();
    let assembly = undecided.then(|| assemble(job, Some(setups)).ok()).flatten();
    choose_first(job, Some(&mut bar), assembly.as_ref().map(cycle::brief).as_ref());
    Some(bar)
}

/// What the stages judge of parts and geometry, as planned and, once it is proved, as fitted; a Y-link, and what the drag
/// link wants, only then.
fn judged(judging: &Judging<'_>, proved: bool) -> (JudgedFitted, Option<Message>) {
    let Judging { job, resolved, assembly, at_ends, .. } = *judging;
    let setups = resolved.measured_setups();
    let sway = &resolved.sway;
    let ends = match assembly.filter(|_| proved && sway.fitted != sway.plan) {
        Some(assembly) => sway::at_ends(job, &sway.fitted, assembly.mechanism()),
        None => at_ends,
    };
    let bar = setups.map(|setups| if proved { &setups.fitted } else { setups.other() });
    let fitted = JudgedFitted {
        y_link: if proved { bracket::conversion_checks(job, resolved) } else { Vec::new() },
        sway_bar: ends.and_then(|ends| ends.overstressed()),
        brace: bar.and_then(|bar| bracket::fit::brace_of(job, bar)),
        track_bar: bar.and_then(|bar| bracket::overloaded(job, bar)),
        steering: assembly.and_then(|assembly| cycle::beside_link(assembly.mechanism())),
    };
    let steered = proved && job.rig.is_steered();
    (fitted, steered.then(|| cycle::link_wanted(job, setups)).flatten())
}

/// Stage Cycle of a job by itself.
#[must_use]
pub fn cycle(job: &Job) -> CycleResult {
    cycle::cycle(job, Resolved::of(job).measured_setups())
}

/// What is nearest to touching in each pose, of a job by itself.
#[must_use]
pub fn near(job: &Job) -> NearResult {
    near::near(job, Resolved::of(job).measured_setups())
}

/// Stage Sway of a job by itself.
#[must_use]
pub fn sway(job: &Job) -> SwayResult {
    sway::sway(job, &Resolved::of(job))
}

/// Stage Sway of a job whose other axle has a job of its own, `title`: what this one does not say of that axle comes
/// from there.
#[must_use]
pub fn sway_beside(job: &Job, there: &Job, title: &str) -> SwayResult {
    let (job, figures) = with_other_end(job, there);
    let figures =
        figures.into_iter().map(|Offer { pointer, name, there, .. }| FigureThere { pointer, name, there });
    let other_end = FromOtherEnd::of(title, figures.collect());
    SwayResult { other_end, ..sway(&job) }
}

/// Stage Bracket of a job by itself.
#[must_use]
pub fn plan(job: &Job) -> PlanResult {
    plan_from(job, 0)
}

/// Stage Bracket of a job by itself, its options told from the one after `from`.
#[must_use]
pub fn plan_from(job: &Job, from: usize) -> PlanResult {
    let resolved = Resolved::of(job);
    let bar = resolved.setups().map(|setups| bar::bar(job, setups));
    bracket::plan(job, &resolved, bar.as_ref(), from)
}

/// Stage Bolt-up of a job by itself.
#[must_use]
pub fn work(job: &Job) -> WorkResult {
    let resolved = Resolved::of(job);
    let bar = bar_of(job, &resolved);
    work_of(job, &resolved, bar.as_ref())
}

fn work_of(job: &Job, resolved: &Resolved, bar: Option<&BarResult>) -> WorkResult {
    let link = cycle::link_wanted(job, resolved.measured_setups());
    bolt_up::work(job, resolved, bar, (bracket::legs_say(job, resolved), link))
}

/// How long the bar that is in, or the one that is planned, gets by so many turns from where it stands, + longer. None
/// where its thread is not known, or no bar is that long.
#[must_use]
pub fn turned(job: &Job, turns: f64) -> Option<TapeEntry> {
    let resolved = Resolved::of(job);
    let length = bar::turned(job, resolved.setups()?, turns)?;
    TapeEntry::of(length).filter(|_| length > Length::ZERO)
}

/// How sure the bar's figures are, of a job by itself.
#[must_use]
pub fn uncertainty(job: &Job) -> Option<Uncertainty> {
    drawn(job, &Resolved::of(job))
}

/// What to read next, of a job by itself.
#[must_use]
pub fn next(job: &Job) -> Option<NextReading> {
    next_reading(job, &Resolved::of(job), NEXT_DRAWS)
}

/// How sure the figures of the bar are.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Drawn {
    /// Intervals of the bar's figures, where the bar is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub uncertainty: Option<Uncertainty>,
    /// What to read next, where a sheet was read and something narrows it.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub next: Option<NextReading>,
}

/// How sure the bar's figures are and what to read next, of a job by itself.
#[must_use]
pub fn all_drawn(job: &Job) -> Drawn {
    Drawn { uncertainty: uncertainty(job), next: next(job) }
}

/// Everything there is: what the screens fetch with the job, and what stage Cycle fetches
/// for itself.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Everything {
    /// What is computed at every save.
    #[serde(flatten)]
    pub results: Results,
    /// The axle over everything it can do.
    pub cycle: CycleResult,
    /// Holes, bars and approaches.
    pub plan: PlanResult,
    /// The sway bar.
    pub sway: SwayResult,
    /// The plan of work.
    pub work: WorkResult,
    /// How sure the bar's figures are and what to read next.
    #[serde(flatten)]
    pub drawn: Drawn,
}

/// Computes everything, the whole envelope included.
#[must_use]
pub fn everything(job: &Job, stands: Stands) -> Everything {
    let resolved = Resolved::of(job);
    let results = solved(job, &resolved, stands);
    Everything {
        cycle: cycle::cycle(job, resolved.measured_setups()),
        plan: bracket::plan(job, &resolved, results.bar.as_ref(), 0),
        sway: sway::sway(job, &resolved),
        work: work_of(job, &resolved, results.bar.as_ref()),
        drawn: Drawn { uncertainty: drawn(job, &resolved), next: next_reading(job, &resolved, NEXT_DRAWS) },
        results,
    }
}

fn headline(stages: &[StageResult]) -> Message {
    let of = |wanted: Stage| stages.iter().find(|stage| stage.stage == wanted);
    let reported = [of(Stage::Tape), of(Stage::Bar), of(Stage::Prove)].into_iter().flatten();
    StripMessage::Joined(reported.map(|stage| stage.headline.clone()).collect()).into()
}
