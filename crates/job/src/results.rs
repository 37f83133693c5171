//! Everything computed from a job, as one call.

use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use utoipa::ToSchema;

use crate::assembly::assemble;
use crate::assembly::weights::weighed;
use crate::bar::uncertainty::{Uncertainty, uncertainty};
use crate::bar::{self, BarResult};
use crate::bracket::plan::{self, PlanResult};
use crate::cautions::{Caution, Stage, cautions};
use crate::cycle::{self, CycleResult};
use crate::document::check::FieldError;
use crate::document::heights::{self, HeightResult};
use crate::document::{Job, Settled, SheetKind};
use crate::elevation::{Elevation, elevation};
use crate::prove::{ProveResult, prove};
use crate::strip::{StageResult, stages};
use crate::sway::{self, SwayResult};
use crate::tape::{self, SheetResult};
use crate::usual::Assumption;
use derecho_core::measure::{Phrase, Unit};

/// Everything the screens show. Lengths are millimetres in fields ending in `_mm`,
/// angles degrees in fields ending in `_deg`, sideways figures + to the left.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Results {
    /// The version of the rules that computed this.
    pub core_version: String,
    /// The unit the job's sheets are written in.
    pub sheet_unit: Unit,
    /// The headline for the bay.
    pub headline: Phrase,
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
    /// The rig's heights.
    pub heights: Vec<HeightResult>,
    /// The proof, where the bar was set and read again.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub prove: Option<ProveResult>,
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
    /// Cautions, each with its stage.
    pub cautions: Vec<Caution>,
}

/// Computes everything from a document. Never fails: what cannot be computed is absent,
/// with what is missing in its place.
#[must_use]
pub fn solve(job: &Job) -> Results {
    let sheets = tape::results(job);
    let bar = bar::bar(job, &sheets);
    let proof = prove(job, &sheets, bar.result.as_ref());
    let (elevation, assumptions) = elevation(job, bar.views.as_ref());
    let found = bar.views.as_ref().map(|views| (&views.found, views.found_offset));
    let planned = bar.views.as_ref().map(|views| (&views.planned, views.planned_offset));
    let mut results = Results {
        core_version: derecho_core::VERSION.to_owned(),
        sheet_unit: job.rig.sheet_unit,
        headline: Phrase::default(),
        stages: Vec::new(),
        heights: heights::table(&job.rig, found, planned),
        settled_stands: None,
        bar: None,
        bar_missing: Vec::new(),
        prove: proof,
        sheets,
        vehicle_assumed: weighed(job, elevation.track_mm, elevation.axle_height_mm).assumed,
        elevation,
        assumptions,
        cautions: cautions(),
    };
    // The frozen copy is compared before the parts that speak of settling are filled in.
    let with_bar = Results { bar: bar.result.clone(), bar_missing: bar.missing.clone(), ..results.clone() };
    results.settled_stands = job
        .settled
        .as_ref()
        .map(|settled| settled.core_version != derecho_core::VERSION || settled.results == frozen(&with_bar));
    let assembly = assemble(job, bar.views.as_ref()).ok();
    results.stages = stages(
        job,
        &results.sheets,
        &bar,
        assembly.as_ref().map(cycle::brief).as_ref(),
        assembly.as_ref().and_then(|assembly| sway::legal_at_ends(job, assembly.mechanism())),
        results.prove.as_ref(),
        results.settled_stands,
    );
    results.headline = headline(&results.stages);
    results.bar = bar.result;
    results.bar_missing = bar.missing;
    results
}

/// Everything there is: what the screens fetch with the job, and what stage Cycle fetches
/// for itself.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Everything {
    /// What is computed at every save.
    #[serde(flatten)]
    pub results: Results,
    /// The axle over everything it can do.
    pub cycle: CycleResult,
    /// Holes, bars and schools.
    pub plan: PlanResult,
    /// The sway bar.
    pub sway: SwayResult,
    /// How sure the bar's figures are, where the bar is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub uncertainty: Option<Uncertainty>,
}

/// Computes everything, the whole envelope included.
#[must_use]
pub fn everything(job: &Job) -> Everything {
    Everything {
        results: solve(job),
        cycle: cycle::cycle(job),
        plan: plan::plan(job),
        sway: sway::sway(job),
        uncertainty: uncertainty(job),
    }
}

/// The results as a settled job keeps them: without the sweep, which follows from the
/// rest and is long.
fn frozen(results: &Results) -> Value {
    // Results are plain data with string keys: they always have a JSON form.
    let mut value = serde_json::to_value(results).unwrap_or_default();
    if let Some(bar) = value.get_mut("bar").and_then(Value::as_object_mut) {
        bar.remove("sweep");
    }
    // Nothing that is proved rests on the vehicle's weights.
    for part in ["stages", "headline", "cautions", "vehicle_assumed"] {
        if let Some(results) = value.as_object_mut() {
            results.remove(part);
        }
    }
    value
}

/// Settles a job on the results it has now. `None` where the proof does not allow it.
#[must_use]
pub fn settle(job: &Job, at: Timestamp) -> Option<Job> {
    let open = Job { settled: None, ..job.clone() };
    let results = solve(&open);
    let proved = results.prove.as_ref()?.verdict == crate::prove::ProveVerdict::CanSettle;
    proved.then(|| Job {
        settled: Some(Settled {
            at,
            core_version: derecho_core::VERSION.to_owned(),
            results: frozen(&results),
        }),
        ..open
    })
}

fn headline(stages: &[StageResult]) -> Phrase {
    let of = |wanted: Stage| stages.iter().find(|stage| stage.stage == wanted);
    let parts = [of(Stage::Tape), of(Stage::Bar), of(Stage::Prove)];
    let join = |pick: fn(&Phrase) -> &str| {
        let told: Vec<&str> = parts.iter().flatten().map(|stage| pick(&stage.headline)).collect();
        told.join(" · ")
    };
    Phrase { inches: join(|phrase| &phrase.inches), millimetres: join(|phrase| &phrase.millimetres) }
}

/// A job as a card in the bay: enough to draw it small and say where it stands.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Card {
    /// The vehicle, in the shop's own words.
    pub vehicle: String,
    /// The answer of the furthest stage that has one.
    pub says: Phrase,
    /// Each stage, in working order.
    pub stages: Vec<StageResult>,
    /// What the small end view is drawn from.
    pub elevation: Elevation,
    /// The axle's place with the planned length, + left, where there is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub planned_offset_mm: Option<derecho_core::measure::Length>,
    /// What waits: readings to take again, a length to set.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub waits: Option<Phrase>,
}

fn centred(sheet: &SheetResult) -> bool {
    use derecho_core::measure::centring::Answer;
    sheet.centring.as_ref().is_some_and(|centring| centring.answer == Answer::WithinTolerance)
}

/// Makes the card of a job.
#[must_use]
pub fn card(job: &Job) -> Card {
    let results = solve(job);
    let correction = results.bar.as_ref().and_then(|bar| bar.correction.as_ref());
    let sheet = results
        .sheets
        .iter()
        .rfind(|sheet| sheet.kind == SheetKind::Centring && sheet.current && sheet.says.is_some());
    let says = match (&results.prove, correction, sheet, &results.bar) {
        (Some(proof), ..) => proof.says.clone(),
        (None, Some(correction), ..) => {
            correction.set.as_ref().map_or_else(|| correction.says.clone(), |set| set.says.clone())
        }
        (None, None, Some(sheet), _) => sheet.says.clone().unwrap_or_default(),
        (None, None, None, Some(bar)) => bar.says.clone(),
        (None, None, None, None) => Phrase::plain("Nothing measured yet"),
    };
    let no_bar = results.bar_missing.iter().any(|fault| fault.code == "no_bar");
    let waits = match (results.settled_stands, &results.prove, correction, sheet) {
        (Some(true), ..) => None,
        (Some(false), ..) => Some("changed since it was settled"),
        (None, Some(proof), ..) => Some(match proof.verdict {
            crate::prove::ProveVerdict::CanSettle => "road test, then settle it",
            crate::prove::ProveVerdict::BackToBar => "set the bar again",
            crate::prove::ProveVerdict::ReadAgain => "read both sides again",
        }),
        (None, None, Some(correction), sheet) => Some(match (correction.set.is_some(), sheet) {
            (true, _) => "read both sides again",
            (false, Some(_)) => "set the bar",
            (false, None) => "read both sides",
        }),
        (None, None, None, Some(sheet)) if no_bar && !centred(sheet) => Some("see stage Cycle"),
        (None, None, None, Some(_)) if results.bar.is_none() && !no_bar => Some("measure the bar"),
        (None, None, None, Some(sheet)) if sheet.usable && centred(sheet) => {
            Some("nothing to set: note it and close")
        }
        (None, None, None, Some(_)) => Some("read both sides again"),
        (None, None, None, None) => Some("read both sides"),
    };
    Card {
        vehicle: job.rig.vehicle.clone(),
        says,
        planned_offset_mm: correction.map(|correction| {
            correction.set.as_ref().map_or(derecho_core::measure::Length::ZERO, |set| set.predicted_offset_mm)
        }),
        stages: results.stages,
        elevation: results.elevation,
        waits: waits.map(Phrase::plain),
    }
}
