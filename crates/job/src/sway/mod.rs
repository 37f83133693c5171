//! Stage Sway: arms and links over everything the axle does, the link that works, the holes, the road
//! against the trail, and which way to disconnect. `words` makes the sentences.
//!
//! Not here: which hole and link are meant (`setups`), and the formulas of arms and rates (core).

pub mod build_stages;
pub mod choice;
mod fit;
mod links;
pub mod message;
pub mod places;
mod poses;
mod rates;
mod road_and_trail;
mod room;
pub mod setting;
mod splined;
mod stow;
mod surroundings;

use crate::document::check::{FieldError, asks};
use crate::message::{Label, Message};
use crate::sway::message::{SwayCheck, SwayMessage, WithoutSway};
use serde::Serialize;
use utoipa::ToSchema;

use crate::assembly::{assemble, envelope, past_the_stops};
use crate::defaults::Assumption;
use crate::document::Job;
use crate::document::sway::SwayKind;
use crate::setups::Resolved;
pub use crate::sway::build_stages::BuildStageResult;
pub use crate::sway::fit::BarRow;
pub use crate::sway::links::{AtEnds, LinkTarget, SwayLinks, at_ends};
pub use crate::sway::poses::{ArmColumns, ArmResult, SwayPose, SwayPoses};
pub use crate::sway::rates::HoleResult;
use crate::sway::road_and_trail::{BarOnAxle, Base};
pub use crate::sway::road_and_trail::{ChoiceResult, VehicleResult};
pub use crate::sway::room::{NeighbourKind, PanelCut, RoomResult, RoomThing, SwayGap};
pub use crate::sway::splined::{SplinedOption, SplinedResult, wanted_roll};
pub use crate::sway::stow::StowResult;
use crate::sway::surroundings::Surroundings;
use crate::verdict::{FitCheck, FitVerdict, check};
use derecho_core::measure::{Angle, RollRate, Working};
use derecho_core::pose::mechanism::Mechanism;

/// Poses along each side of the envelope.
const SIDE: usize = 41;

/// Everything stage Sway answers.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SwayResult {
    /// The answer in one sentence.
    pub says: Message,
    /// What keeps it from an answer.
    pub missing: Vec<FieldError>,
    /// Arms and links, where they were measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub links: Option<SwayLinks>,
    /// Holes and their rates.
    pub holes: Vec<HoleResult>,
    /// Hole and link by build stage, the vehicle as planned first; empty where no stage was typed.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub build_stages: Vec<BuildStageResult>,
    /// How the rate in the hole in use is worked out.
    pub bar_working: Working,
    /// The vehicle as a whole and the choices.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub vehicle: Option<VehicleResult>,
    /// Splined bar, mass, preload, arms against stroke, in words.
    pub fit_says: Vec<Message>,
    /// The old bar beside the new one, where the old one was measured.
    pub old_and_new: Vec<BarRow>,
    /// Disconnects, stowing, bolts.
    pub checks: Vec<FitCheck>,
    /// Choosing a splined bar, where one is there or some were typed.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub splined: Option<SplinedResult>,
    /// Room for arms and links.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub room: Option<RoomResult>,
    /// A link stowed, where its stud was measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub stowed: Option<StowResult>,
    /// What was not measured.
    pub assumptions: Vec<Assumption>,
    /// The other axle's figures that its own job gave; absent where none did.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub other_end: Option<FromOtherEnd>,
}

/// What the chart of road and trail takes from the job of the other axle.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FromOtherEnd {
    /// In one sentence.
    pub says: Message,
    /// Each figure.
    pub figures: Vec<FigureThere>,
}

/// A figure of the other axle as its own job has it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FigureThere {
    /// The field of this job that stays empty, as a JSON pointer.
    pub pointer: String,
    /// What it is.
    #[schema(value_type = String)]
    pub name: Label,
    /// As typed or reckoned there.
    pub there: String,
}

impl FromOtherEnd {
    /// Absent where that job said nothing that this one does not.
    #[must_use]
    pub fn of(title: &str, figures: Vec<FigureThere>) -> Option<Self> {
        let says = SwayMessage::FromOtherEnd { title: title.to_owned() }.into();
        (!figures.is_empty()).then_some(Self { says, figures })
    }
}

fn without(job: &Job, why: WithoutSway, missing: Vec<FieldError>) -> SwayResult {
    SwayResult {
        says: SwayMessage::Without(why).into(),
        missing,
        links: None,
        holes: Vec::new(),
        build_stages: Vec::new(),
        bar_working: Working::default(),
        vehicle: None,
        fit_says: Vec::new(),
        old_and_new: Vec::new(),
        checks: fit::pin_parts(&job.sway.pins).into_iter().chain(room::bolts_as_taped(job)).collect(),
        splined: None,
        room: None,
        stowed: None,
        assumptions: Vec::new(),
        other_end: None,
    }
}

/// What arms, links and bolts come near, and how far the bar twists, over everything the axle does.
struct Touched {
    room: RoomResult,
    stowed: Option<StowResult>,
    bolts: Vec<FitCheck>,
    holes: Vec<HoleResult>,
    worst_twist: Angle,
}

/// Whether the links still work half an inch past the stops, where they work to them.
fn past_stops(job: &Job, resolved: &Resolved, mechanism: &Mechanism) -> Option<FitCheck> {
    at_ends(job, &job.sway, mechanism).filter(|ends| ends.work)?;
    let further = past_the_stops(job, resolved.measured_setups())?;
    let work = at_ends(job, &job.sway, further.mechanism())?.work;
    let verdict = if work { FitVerdict::Good } else { FitVerdict::Bad };
    Some(check(SwayMessage::CheckName(SwayCheck::PastStops), verdict, SwayMessage::PastStops { work }))
}

/// Works stage Sway out. Never fails: what is missing stands in its place.
#[must_use]
pub fn sway(job: &Job, resolved: &Resolved) -> SwayResult {
    // Hole and link as planned, or as they were fitted.
    let job = &Job { sway: resolved.sway.plan.clone(), ..job.clone() };
    let Some(kind) = job.sway.kind else {
        let ask = asks::SWAY_KIND;
        return without(job, WithoutSway::Measure, vec![FieldError::new("/sway/kind", "missing", ask)]);
    };
    let assembly = match assemble(job, resolved.measured_setups()) {
        Ok(assembly) => assembly,
        Err(missing) => return without(job, WithoutSway::NothingPosed, missing),
    };
    let mechanism = assembly.mechanism();
    if kind == SwayKind::None {
        let base = Base::of(job, mechanism);
        let vehicle = Some(road_and_trail::vehicle(job, &base, None));
        let assumptions = base.weighed.assumed;
        return SwayResult { vehicle, assumptions, ..without(job, WithoutSway::NoBar, Vec::new()) };
    }
    let places = match links::places_with_a_link(job, mechanism) {
        Ok(places) => places,
        Err(ask) => {
            let missing = ask.into_iter().map(|(at, says)| FieldError::new(at, "missing", says)).collect();
            return without(job, WithoutSway::Measure, missing);
        }
    };
    let solved = (envelope(mechanism, SIDE), mechanism.at_driven_height());
    let (Ok(envelope), Ok(driven)) = solved else {
        return without(job, WithoutSway::NothingPosed, Vec::new());
    };
    let poses = (&envelope, &driven);
    let arms = places::over(&places, &envelope);
    let rate = rates::bar_rate(&job.sway, &places);
    let base = Base::of(job, mechanism);
    let around = Surroundings::of(job, mechanism, &places);
    let per_roll = places::twist_per_roll(&places, &driven);
    let in_a_bend =
        setting::in_a_bend(per_roll.and_then(|per_roll| base.road_with(rate.roll_rate(per_roll))), per_roll);
    let bar_assumed = rates::assumed(job, &rate);
    // What arms and links touch is found beside what they do: neither asks the other.
    let (touched, links, splined, on_axle, vehicle) = std::thread::scope(|scope| {
        let touched = scope.spawn(|| Touched {
            room: room::room(job, &places, &around, (&envelope, &arms), rate.outside.to_mm() / 2.0),
            stowed: stow::stow(job, &places, &around, &envelope),
            bolts: room::bolts(job, &driven, &places, &around),
            holes: rates::holes(job, &places, poses, &arms, &rate, &base),
            worst_twist: rates::worst_twist(&arms),
        });
        let links = links::links(job, mechanism, &places, poses, &arms, &rate);
        let choosing = kind == SwayKind::Splined || !job.sway.splined.bars.is_empty();
        let splined = choosing.then(|| splined::choose(job, mechanism, &places, poses, &rate, &base));
        let line = links::rolling(mechanism);
        // Arms and links that do not close as it stands make no bar.
        let on_axle = per_roll.map(|per_roll| BarOnAxle {
            rate: rate.roll_rate(per_roll),
            working_roll: links::working_roll(mechanism, &places),
            strong_roll: rates::strong_roll(job, &places, &rate, &line),
            curve: rates::curve(&places, &rate, &line),
            soft: splined.as_ref().and_then(SplinedResult::soft),
            assumed: bar_assumed.len(),
        });
        let vehicle = road_and_trail::vehicle(job, &base, on_axle.as_ref());
        let touched = touched.join().unwrap_or_else(|panic| std::panic::resume_unwind(panic));
        (touched, links, splined, on_axle, vehicle)
    });
    let Touched { room, stowed, bolts, holes, worst_twist } = touched;
    let mut checks = fit::disconnects(job, &places, (&base, &rate), stowed.as_ref());
    checks.extend(bolts);
    checks.extend(fit::shim(job, &rate));
    checks.extend(past_stops(job, resolved, mechanism));
    SwayResult {
        says: links.says.clone(),
        fit_says: fit::fit_says(
            job,
            &links,
            &base,
            &rate,
            on_axle.as_ref().map_or(RollRate::ZERO, |bar| bar.rate),
        ),
        old_and_new: fit::old_and_new(job, &rate),
        checks,
        holes,
        build_stages: build_stages::by_stage(job, mechanism, &places, &base),
        bar_working: per_roll.map_or_else(Working::default, |per_roll| {
            rates::working(job, &rate, per_roll, &setting::settings(&job.sway, worst_twist, in_a_bend))
        }),
        links: Some(links),
        splined,
        room: Some(room),
        stowed,
        vehicle: Some(vehicle),
        missing: Vec::new(),
        assumptions: [base.weighed.assumed, bar_assumed, around.assumed].concat(),
        other_end: None,
    }
}
