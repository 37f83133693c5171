//! Stage Cycle: the axle of a job over everything it can do, as found and as planned, with
//! what touches, binds, runs out or steers. `steer` has the drag link, `words` makes the sentences.
//!
//! Not here: putting the mechanism together (`assembly`), and going through its poses (core).

pub mod axle_way;
pub mod limit;
pub mod message;
pub mod near;
mod sitting;
pub mod steer;

use crate::assembly::named::link_name;
use crate::document::check::{FieldError, asks};
use crate::message::{Label, Message};
use glam::DVec3;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use self::limit::{CrossedAt, EndsAt, EndsBy, Happening};
pub use self::sitting::SittingPair;
use crate::assembly::{self, Assembly, assemble, past_the_stops};
use crate::cycle::message::{CycleMessage, PlanName};
pub use crate::cycle::steer::{BesideLink, SteeringResult};
pub(crate) use crate::cycle::steer::{beside_link, link_wanted};
use crate::defaults::Assumption;
use crate::document::sway::SwayKind;
use crate::document::{Hole, HoleId, Job};
use crate::setups::{Setups, moves};
use derecho_core::fastener::Thread;
use derecho_core::measure::{Angle, Length};
use derecho_core::parts::BracketEnd;
use derecho_core::pose::PoseFault;
use derecho_core::pose::body::{BodyName, Carrier};
use derecho_core::pose::mechanism::{Level, Mechanism, Posed, Watched, drag_link_ends};
use derecho_core::pose::travel::{self, Envelope, Walk, Way};

/// Poses along each side of the envelope.
pub const ENVELOPE_SIDE: usize = 41;
/// A gap that stays wider everywhere, mm, is not told.
const NEAR_ENOUGH_TO_TELL: f64 = 50.0;
/// Steps of the heave sweep.
const SWEEP_STEPS: usize = 80;

/// Everything stage Cycle shows. Wheel travels are millimetres from ride height, + bump.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CycleResult {
    /// The answer in one sentence, for the plan where there is one.
    pub says: Message,
    /// What keeps it from an answer, each naming the part.
    pub missing: Vec<FieldError>,
    /// As found in this round.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub found: Option<SetupCycle>,
    /// With the planned or set length, or the holes tried.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub plan: Option<SetupCycle>,
    /// What the other setup is called: `plan`, `as set`, or the holes tried.
    #[schema(value_type = String)]
    pub plan_name: Label,
    /// The axle eye's places, the hole in use first.
    pub axle_holes: Vec<HolePlace>,
    /// The frame eye's places, the hole in use first.
    pub frame_holes: Vec<HolePlace>,
    /// Whether it stays clear half an inch past its stops, where it is clear to them.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub past_stops_say: Option<Message>,
    /// What does not agree, with its likely cause.
    pub warnings: Vec<Message>,
    /// Points nobody measured.
    pub assumptions: Vec<Assumption>,
}

/// A hole an eye can sit in.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HolePlace {
    /// Its id; empty is the hole in use.
    pub id: HoleId,
    /// Its name; empty is the hole in use.
    pub name: String,
    /// Where its middle is at ride height, mm forward, left, up; axle centred.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub at_mm: [f64; 3],
    /// Whether it is the one tried.
    pub chosen: bool,
}

/// One setup cycled.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SetupCycle {
    /// The bar's length, where there is a bar.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bar_length_mm: Option<Length>,
    /// Axle centre above the ground.
    pub axle_height_mm: Length,
    /// Links, the bar first where there is one.
    pub links: Vec<LinkResult>,
    /// Obstacles.
    pub obstacles: Vec<ObstacleResult>,
    /// What sits beside what on frame or axle, nearest first.
    pub standing: Vec<StandingResult>,
    /// What could be near and is held against nothing, since where it is, or how thick, is assumed.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub not_judged_say: Option<Message>,
    /// Everything watched; of the gaps those that come near.
    pub limits: Vec<LimitResult>,
    /// The four ways out from ride height and what is met first on each.
    pub ways: Vec<WayResult>,
    /// Both wheels alike, from full droop to full bump.
    pub heave: Vec<PoseResult>,
    /// The left × right envelope.
    pub envelope: EnvelopeResult,
    /// Steering, where a drag link was measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub steering: Option<SteeringResult>,
    /// How far a bent bar between spherical joints can roll about itself at ride height, to
    /// one way and the other.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub free_spin_deg: Option<[Angle; 2]>,
    /// The answer for this setup.
    pub says: Message,
}

/// A link as it lies at ride height.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LinkResult {
    /// What it is called.
    pub name: String,
    /// Whether it is the track bar.
    pub is_bar: bool,
    /// Centre to centre.
    pub length_mm: Length,
    /// Body end, mm forward, left, up at ride height.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub body_mm: [f64; 3],
    /// Axle end with the axle centred at ride height.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub axle_mm: [f64; 3],
    /// Half of its diameter.
    pub radius_mm: Length,
    /// Whether it has a bend.
    pub bent: bool,
    /// Whether something of it is assumed.
    pub assumed: bool,
}

/// An obstacle as it lies at ride height.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ObstacleResult {
    /// What it is called.
    #[schema(value_type = String)]
    pub name: Label,
    /// Whether it goes with the axle.
    pub on_axle: bool,
    /// Both ends of its middle line.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub ends_mm: [[f64; 3]; 2],
    /// Half of its thickness.
    pub radius_mm: Length,
}

/// Two that sit on frame or axle beside each other: their gap stays as it is.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StandingResult {
    /// Between their surfaces; negative where they run into each other.
    pub gap_mm: Length,
    /// How it stands.
    pub level: LimitLevel,
    /// In words.
    pub says: Message,
}

/// What kind of limit.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LimitKind {
    /// A joint off its bolt.
    Tilt,
    /// A bonded bushing wound up.
    WindUp,
    /// A gap between two parts.
    Gap,
    /// Links that stretch, or bushes that give.
    Bind,
}

/// How a limit stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LimitLevel {
    /// Nothing to mind.
    Free,
    /// A lot, or less room than wanted.
    Near,
    /// Past what it takes, or touching.
    Violated,
}

impl From<Level> for LimitLevel {
    fn from(level: Level) -> Self {
        match level {
            Level::Free => Self::Free,
            Level::Near => Self::Near,
            Level::Violated => Self::Violated,
        }
    }
}

/// A watched figure over all the axle can do. In degrees for joints, else millimetres.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LimitResult {
    /// What it is called.
    #[schema(value_type = String)]
    pub name: Label,
    /// Its kind.
    pub kind: LimitKind,
    /// `deg` or `mm`.
    pub unit: String,
    /// From here on it is close.
    pub near: f64,
    /// From here on it is over.
    pub violated: f64,
    /// The worst it gets inside the stops.
    pub worst: f64,
    /// The worst in words.
    pub worst_says: Message,
    /// Left wheel's travel there.
    pub worst_left_mm: Length,
    /// Right wheel's travel there.
    pub worst_right_mm: Length,
    /// Where that is, in words.
    pub worst_place: Message,
    /// Nearest points of both parts there, in body axes, for a gap.
    #[serde(
        skip_serializing_if = "Option::is_none",
        serialize_with = "derecho_core::measure::figure::millimetres"
    )]
    #[schema(nullable = false)]
    pub worst_points_mm: Option<[[f64; 3]; 2]>,
    /// How it stands at its worst.
    pub level: LimitLevel,
    /// Where it is met on each way, where it is.
    pub crossings: Vec<CrossingResult>,
}

/// Where a limit is met on a way.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CrossingResult {
    /// Index of the way.
    pub way: usize,
    /// Wheel travels, left and right, from which it is close.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub near_at_mm: Option<[Length; 2]>,
    /// Wheel travels from which it is over.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub violated_at_mm: Option<[Length; 2]>,
    /// Nearest points of both parts there, in body axes, for a gap.
    #[serde(
        skip_serializing_if = "Option::is_none",
        serialize_with = "derecho_core::measure::figure::millimetres"
    )]
    #[schema(nullable = false)]
    pub violated_points_mm: Option<[[f64; 3]; 2]>,
}

/// One way out from ride height.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct WayResult {
    /// `droop`, `bump`, `left_up` or `right_up`.
    pub way: String,
    /// In words.
    #[schema(value_type = String)]
    pub name: Label,
    /// Wheel travels at its end, left and right.
    pub end_mm: [Length; 2],
    /// Wheel travels where something ends it before the stop.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub ended_at_mm: Option<[Length; 2]>,
    /// Index of the limit that ends it, where one does.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub ended_by: Option<usize>,
    /// What ends it, in words.
    pub says: Message,
}

/// One pose.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PoseResult {
    /// Travel of the left wheel.
    pub left_mm: Length,
    /// Travel of the right wheel.
    pub right_mm: Length,
    /// Axle forward of its centred place at ride height.
    pub x_mm: Length,
    /// Axle to the left of it.
    pub y_mm: Length,
    /// Heave.
    pub z_mm: Length,
    /// φ, + left wheel higher.
    pub roll_deg: Angle,
    /// ψ, + top forward: caster falls by it, a rear pinion's nose goes down.
    pub pitch_deg: Angle,
    /// ω, + points left.
    pub yaw_deg: Angle,
    /// Bar angle in front view, + frame end higher.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bar_angle_deg: Option<Angle>,
    /// Roll centre above the ground: axle centre + dy/dφ.
    pub roll_centre_mm: Length,
    /// The same from the line of the bar alone.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bar_line_roll_centre_mm: Option<Length>,
    /// Road wheels against the vehicle, + left.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub steer_deg: Option<Angle>,
    /// Link stretch, or give of the radius arms' bushes.
    pub bind_mm: Length,
    /// Every watched figure, in the order of `limits` and in their units.
    pub limits: Vec<f64>,
}

/// The left × right envelope: for each pose, row by row, shape `[left][right]`. Poses outside the stops are
/// there for drawing alone.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct EnvelopeResult {
    /// Wheel travels of rows and columns alike, lowest first.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub travels_mm: Vec<f64>,
    /// Whether the links reach.
    pub reached: Vec<bool>,
    /// The limit that is nearest, by its index.
    pub nearest: Vec<Option<usize>>,
    /// How much of it is used, to a hundredth: 1 at the limit, for a gap one half at the wanted clearance.
    pub used: Vec<Option<f64>>,
    /// How it stands; `null` where the stops do not allow it.
    pub level: Vec<Option<LimitLevel>>,
    /// Every other pose of each row and column, for drawing between them.
    pub drawn: DrawnPoses,
}

/// Poses for drawing: row by row, shape `[left][right]`, `null` where the links do not reach.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DrawnPoses {
    /// Wheel travels of rows and columns alike, lowest first.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub travels_mm: Vec<f64>,
    /// Whether the links reach.
    pub reached: Vec<bool>,
    /// Heave.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub z_mm: Vec<Option<f64>>,
    /// φ, + left wheel higher.
    #[serde(serialize_with = "derecho_core::measure::figure::degrees")]
    pub roll_deg: Vec<Option<f64>>,
    /// Axle forward.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub x_mm: Vec<Option<f64>>,
    /// Axle to the left.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub y_mm: Vec<Option<f64>>,
    /// Pitch.
    #[serde(serialize_with = "derecho_core::measure::figure::degrees")]
    pub pitch_deg: Vec<Option<f64>>,
    /// Yaw.
    #[serde(serialize_with = "derecho_core::measure::figure::degrees")]
    pub yaw_deg: Vec<Option<f64>>,
    /// Bar angle.
    #[serde(serialize_with = "derecho_core::measure::figure::degrees")]
    pub bar_angle_deg: Vec<Option<f64>>,
    /// Roll centre above the ground.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub roll_centre_mm: Vec<Option<f64>>,
    /// Road wheels.
    #[serde(serialize_with = "derecho_core::measure::figure::degrees")]
    pub steer_deg: Vec<Option<f64>>,
    /// Bind.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub bind_mm: Vec<Option<f64>>,
    /// How many points of links a pose has in `points_mm`.
    pub points_per_pose: usize,
    /// Points of the links in body axes to a tenth of a millimetre, x y z, shape `[left][right][point][3]`.
    /// Per link its bend, where it has one, then its axle end; the drag link's end last.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub points_mm: Vec<Option<f64>>,
}

/// To a ten-thousandth of a millimetre or degree: far below what is told.
const REPORTED: f64 = 1e4;
/// To a tenth of a millimetre: a quarter of a dot on a large screen.
const DRAWN: f64 = 10.0;
/// To a hundredth of a limit: what a tint tells.
const TINTED: f64 = 100.0;

fn rounded(value: f64, places: f64) -> Option<f64> {
    value.is_finite().then(|| (value * places).round() / places)
}

fn lengths((left, right): (f64, f64)) -> [Length; 2] {
    [Length::from_mm(left), Length::from_mm(right)]
}

/// Cycles a job's axle. Never fails: what is missing stands in its place.
#[must_use]
pub fn cycle(job: &Job, setups: Option<&Setups>) -> CycleResult {
    let assembly = match assemble(job, setups) {
        Ok(assembly) => assembly,
        Err(missing) => return without(missing),
    };
    let thread = job.hardpoints.steering.as_ref().and_then(|steering| steering.thread.as_ref());
    let sway_bar = job.sway.kind.is_some_and(|kind| kind != SwayKind::None);
    let tyre = crate::document::length_of(&job.rig.tyre_diameter);
    // Both setups side by side: each is a whole envelope.
    let (found, plan) = std::thread::scope(|scope| {
        let plan = assembly
            .plan
            .as_ref()
            .map(|plan| scope.spawn(move || setup(&plan.mechanism, tyre, thread, sway_bar)));
        let found = setup(&assembly.found, tyre, thread, sway_bar);
        (found, plan.map(|plan| plan.join().unwrap_or_else(|panic| std::panic::resume_unwind(panic))))
    });
    let found = match found {
        Ok(found) => found,
        Err(fault) => return without(vec![unsolved(&assembly.found, fault)]),
    };
    let plan = match plan.transpose() {
        Ok(plan) => plan,
        Err(fault) => {
            let tried = assembly.plan.as_ref().map_or(&assembly.found, |plan| &plan.mechanism);
            return without(vec![unsolved(tried, fault)]);
        }
    };
    let assumed = |setup: &mut SetupCycle| {
        for (link, assumed) in setup.links.iter_mut().zip(&assembly.assumed_links) {
            link.assumed = *assumed;
        }
    };
    let (mut found, mut plan) = (found, plan);
    assumed(&mut found);
    plan.iter_mut().for_each(assumed);
    let (axle_holes, frame_holes) = holes(job, &assembly, setups);
    CycleResult {
        says: plan.as_ref().unwrap_or(&found).says.clone(),
        missing: Vec::new(),
        plan_name: plan_name(job, &assembly, setups),
        found: Some(found),
        plan,
        axle_holes,
        frame_holes,
        past_stops_say: past_stops(job, setups, &assembly),
        warnings: assembly.warnings,
        assumptions: assembly.assumptions,
    }
}

/// What ends the travel half an inch past the stops, where nothing does before them.
fn past_stops(job: &Job, setups: Option<&Setups>, assembly: &Assembly) -> Option<Message> {
    if brief(assembly).ended {
        return None;
    }
    let further = brief(&past_the_stops(job, setups)?);
    Some(
        CycleMessage::PastStops {
            ends: further.ended.then_some(&further.headline).cloned(),
            obstacles: obstacles_measured(assembly.mechanism()),
        }
        .into(),
    )
}

fn without(missing: Vec<FieldError>) -> CycleResult {
    CycleResult {
        says: CycleMessage::NothingYet.into(),
        missing,
        found: None,
        plan: None,
        plan_name: Label(Message::NOTHING),
        axle_holes: Vec::new(),
        frame_holes: Vec::new(),
        past_stops_say: None,
        warnings: Vec::new(),
        assumptions: Vec::new(),
    }
}

fn unsolved(mechanism: &Mechanism, fault: PoseFault) -> FieldError {
    let message = match fault {
        PoseFault::Loose(motion) => asks::axle_loose(motion),
        PoseFault::OutOfReach { link, missing_mm } => {
            let part = mechanism.members().get(link).map_or(&BodyName::TrackBar, |member| &member.name);
            asks::does_not_reach(&link_name(part), missing_mm)
        }
    };
    FieldError::new("/hardpoints", "impossible_geometry", message)
}

fn plan_name(job: &Job, assembly: &Assembly, setups: Option<&Setups>) -> Label {
    let name = match &assembly.plan {
        Some(plan) if plan.trial => {
            let trial = job.setups.plans.trial.clone().unwrap_or_default();
            let ends = [(BracketEnd::Frame, trial.frame), (BracketEnd::Axle, trial.axle)];
            let reported: Vec<&str> =
                ends.iter().filter_map(|(end, choice)| Some(job.hole_name(*end, choice.as_ref()?))).collect();
            PlanName::Trial { holes: reported.join(", ") }
        }
        Some(_) if setups.is_some_and(|setups| setups.unread) => PlanName::AsSet,
        Some(_) => PlanName::Plan,
        None => return Label(Message::NOTHING),
    };
    CycleMessage::Plan(name).into()
}

fn holes(job: &Job, assembly: &Assembly, setups: Option<&Setups>) -> (Vec<HolePlace>, Vec<HolePlace>) {
    let bar = assembly.found.bar().map(|bar| assembly.found.suspension().links()[bar]);
    let (Some(bar), Some(setups)) = (bar, setups) else { return (Vec::new(), Vec::new()) };
    let found = &job.setups.found;
    let trial = job.setups.plans.trial.as_ref();
    let all = |holes: &[Hole], at: [f64; 3], end: BracketEnd| {
        if holes.is_empty() {
            return Vec::new();
        }
        let tried = trial.and_then(|plan| moves::choice(plan, end)).map(|choice| &choice.hole);
        let tried = tried.filter(|hole| !hole.is_empty());
        let here =
            HolePlace { id: HoleId::default(), name: String::new(), at_mm: at, chosen: tried.is_none() };
        let others = holes.iter().map(|hole| {
            let by =
                moves::hole_move(hole, moves::side_of(end, setups.known.side)) - setups.base.moves.at(end);
            HolePlace {
                id: hole.id.clone(),
                name: hole.name.clone(),
                at_mm: (DVec3::from_array(at) + by).to_array(),
                chosen: tried == Some(&hole.id),
            }
        });
        std::iter::once(here).chain(others).collect()
    };
    (
        all(&found.axle_holes, bar.axle.to_mm(), BracketEnd::Axle),
        all(&found.frame_holes, bar.body.to_mm(), BracketEnd::Frame),
    )
}

/// The mechanism with what comes near over its envelope, and the envelope with it.
pub(crate) fn watched(mechanism: &Mechanism) -> Result<(Mechanism, Envelope), PoseFault> {
    let envelope = assembly::envelope(mechanism, ENVELOPE_SIDE)?;
    Ok(travel::watched(mechanism, &envelope, NEAR_ENOUGH_TO_TELL))
}

/// Whether the sway bar is among what is judged.
fn holds_the_sway_bar(mechanism: &Mechanism) -> bool {
    mechanism.bodies().iter().any(|body| body.name == BodyName::SwayBar && !body.assumed)
}

fn not_judged(mechanism: &Mechanism) -> Option<Message> {
    let bodies = mechanism.not_judged();
    let names: Vec<BodyName> = bodies.into_iter().map(|body| mechanism.bodies()[body].name.clone()).collect();
    (!names.is_empty()).then(|| CycleMessage::NotJudged { bodies: names }.into())
}

fn setup(
    mechanism: &Mechanism,
    tyre: Option<Length>,
    thread: Option<&Thread>,
    sway_bar: bool,
) -> Result<SetupCycle, PoseFault> {
    let whole = mechanism;
    let (mechanism, envelope) = watched(whole)?;
    let mechanism = &mechanism;
    let walks =
        Way::ALL.into_iter().map(|way| travel::walk(mechanism, way)).collect::<Result<Vec<_>, _>>()?;
    let stops = mechanism.stops();
    let (droop, bump) = (-stops.droop.to_mm(), stops.bump.to_mm());
    let heave = travel::line(mechanism, (droop, droop), (bump, bump), SWEEP_STEPS)?;
    let limits = limits(mechanism, &envelope, &walks);
    let ways: Vec<WayResult> = walks.iter().map(|walk| way_result(mechanism, walk)).collect();
    let driven = mechanism.at_driven_height()?;
    let bar = mechanism.bar();
    Ok(SetupCycle {
        bar_length_mm: bar.map(|bar| mechanism.suspension().links()[bar].made),
        axle_height_mm: mechanism.suspension().axle_height(),
        links: links(mechanism),
        obstacles: obstacles(whole),
        standing: standing(whole),
        not_judged_say: not_judged(whole),
        says: answer(mechanism, &walks, &limits, sway_bar && !holds_the_sway_bar(whole)),
        steering: steer::steering(mechanism, &heave, &driven, tyre, thread),
        free_spin_deg: bar.and_then(|bar| mechanism.free_spin(&driven, bar)),
        heave: heave.iter().map(|posed| pose_result(mechanism, posed)).collect(),
        envelope: envelope_result(mechanism, &envelope),
        limits,
        ways,
    })
}

fn links(mechanism: &Mechanism) -> Vec<LinkResult> {
    let parts = mechanism.members().iter().zip(mechanism.suspension().links()).enumerate();
    parts
        .map(|(index, (member, link))| LinkResult {
            name: link_name(&member.name),
            is_bar: mechanism.bar() == Some(index),
            length_mm: link.made,
            body_mm: link.body.to_mm(),
            axle_mm: link.axle.to_mm(),
            radius_mm: member.radius,
            bent: member.bend.is_some(),
            assumed: false,
        })
        .collect()
}

/// Whether a body is one that a person measured as something in the way.
fn in_the_way(name: &BodyName) -> bool {
    matches!(name, BodyName::Typed(_) | BodyName::TieRod)
}

/// How many things in the way were measured.
fn obstacles_measured(mechanism: &Mechanism) -> usize {
    mechanism.bodies().iter().filter(|body| in_the_way(&body.name)).count()
}

/// What is drawn beside links and sway bar: what was measured in the way, brackets, and what the sway bar sits in.
fn obstacles(mechanism: &Mechanism) -> Vec<ObstacleResult> {
    let drawn = |name: &BodyName| {
        use BodyName::{AxleBracket, FrameBracket, SwayMount, SwayTube};
        in_the_way(name) || matches!(name, FrameBracket | AxleBracket | SwayTube | SwayMount(_))
    };
    let all = mechanism.bodies().iter().filter(|body| drawn(&body.name));
    all.filter_map(|body| {
        let ends = [*body.points.first()?, *body.points.last()?];
        Some(ObstacleResult {
            name: CycleMessage::Body(body.name.clone()).into(),
            on_axle: body.carrier != Carrier::Body,
            ends_mm: ends.map(|end| end.to_array()),
            radius_mm: body.radius,
        })
    })
    .collect()
}

/// What sits beside what on frame or axle, nearest first.
fn standing(mechanism: &Mechanism) -> Vec<StandingResult> {
    let mut all: Vec<StandingResult> = mechanism
        .standing()
        .into_iter()
        .map(|(pair, gap)| (pair, gap.distance))
        .filter(|(_, gap)| *gap <= NEAR_ENOUGH_TO_TELL)
        .map(|(pair, gap)| {
            let [first, second] = pair.map(|body| mechanism.bodies()[body].name.clone());
            StandingResult {
                gap_mm: Length::from_mm(gap),
                level: mechanism.standing_level(pair, gap).into(),
                says: CycleMessage::Stands { first, second, gap: Length::from_mm(gap) }.into(),
            }
        })
        .collect();
    all.sort_by(|a, b| a.gap_mm.to_mm().total_cmp(&b.gap_mm.to_mm()));
    all
}

/// A watched figure in the unit people read: degrees or millimetres.
fn in_unit(mechanism: &Mechanism, watch: usize, value: f64) -> f64 {
    if mechanism.watches()[watch].is_angle() { value.to_degrees() } else { value }
}

fn pose_result(mechanism: &Mechanism, posed: &Posed) -> PoseResult {
    let pose = &posed.solved.pose;
    let mut values = Vec::new();
    mechanism.values(posed, &mut values);
    let some = |value: f64| value.is_finite().then_some(value);
    PoseResult {
        left_mm: Length::from_mm(posed.left),
        right_mm: Length::from_mm(posed.right),
        x_mm: pose.x,
        y_mm: pose.y,
        z_mm: pose.z,
        roll_deg: pose.roll,
        pitch_deg: pose.pitch,
        yaw_deg: pose.yaw,
        bar_angle_deg: some(posed.bar_angle).map(Angle::from_radians),
        roll_centre_mm: Length::from_mm(posed.roll_centre),
        bar_line_roll_centre_mm: some(posed.bar_line_roll_centre).map(Length::from_mm),
        steer_deg: some(posed.steer).map(Angle::from_radians),
        bind_mm: Length::from_mm(posed.bind),
        limits: values.iter().enumerate().map(|(watch, value)| in_unit(mechanism, watch, *value)).collect(),
    }
}

const fn kind(what: Watched) -> LimitKind {
    match what {
        Watched::Tilt { .. } => LimitKind::Tilt,
        Watched::WindUp { .. } => LimitKind::WindUp,
        Watched::Gap { .. } => LimitKind::Gap,
        Watched::Bind => LimitKind::Bind,
    }
}

fn limits(mechanism: &Mechanism, envelope: &Envelope, walks: &[Walk]) -> Vec<LimitResult> {
    let worst = travel::worst(mechanism, envelope);
    worst
        .into_iter()
        .map(|found| {
            let watch = mechanism.watches()[found.watch];
            let (left, right) = (found.posed.left, found.posed.right);
            let points_at = |posed: &Posed| {
                let gap = mechanism.gap_of(posed, found.watch)?;
                Some([gap.on_first.to_array(), gap.on_second.to_array()])
            };
            let points = points_at(&found.posed);
            let crossings = walks.iter().enumerate().filter_map(|(way, walk)| {
                let crossing = walk.crossings.iter().find(|crossing| crossing.watch == found.watch)?;
                let at = |share: f64| lengths(walk.at(share));
                let touching = crossing.violated_at.and_then(|share| {
                    let trail = found.posed.trail();
                    let (left, right) = walk.at(share);
                    mechanism.pose(left, right, trail).ok()
                });
                Some(CrossingResult {
                    way,
                    near_at_mm: crossing.near_at.map(at),
                    violated_at_mm: crossing.violated_at.map(at),
                    violated_points_mm: touching.as_ref().and_then(points_at),
                })
            });
            LimitResult {
                name: CycleMessage::LimitName(limit::name(mechanism, watch.what)).into(),
                kind: kind(watch.what),
                unit: if watch.is_angle() { "deg" } else { "mm" }.to_owned(),
                near: in_unit(mechanism, found.watch, watch.warn),
                violated: in_unit(mechanism, found.watch, watch.fail),
                worst: in_unit(mechanism, found.watch, found.value),
                worst_says: CycleMessage::Figure {
                    angle: watch.is_angle(),
                    gap: watch.is_gap(),
                    value: found.value,
                }
                .into(),
                worst_left_mm: Length::from_mm(left),
                worst_right_mm: Length::from_mm(right),
                worst_place: CycleMessage::AtPlace { left, right }.into(),
                worst_points_mm: points,
                level: watch.level(found.value).into(),
                crossings: crossings.collect(),
            }
        })
        .collect()
}

/// What ends a way before its stop: its share, what happens, and the limit.
fn ends(mechanism: &Mechanism, walk: &Walk) -> Option<(f64, Happening, Option<usize>)> {
    let over = walk
        .crossings
        .iter()
        .filter_map(|crossing| Some((crossing.violated_at?, crossing.watch)))
        .min_by(|a, b| a.0.total_cmp(&b.0))
        .map(|(share, watch)| {
            let what = mechanism.watches()[watch].what;
            (share, Happening::of(mechanism, what, Level::Violated), Some(watch))
        });
    let tight = walk.out_of_reach.map(|(share, link)| {
        let part = mechanism.members().get(link).map_or(&BodyName::TrackBar, |member| &member.name);
        (share, Happening::PulledTight { part: part.clone() }, None)
    });
    [over, tight].into_iter().flatten().min_by(|a, b| a.0.total_cmp(&b.0))
}

fn way_result(mechanism: &Mechanism, walk: &Walk) -> WayResult {
    let ended = ends(mechanism, walk);
    let at = |share: f64| walk.at(share);
    let says = match &ended {
        Some((share, what, _)) => {
            CycleMessage::Ends { what: what.clone(), place: CrossedAt::of(mechanism, at(*share)) }.into()
        }
        None => CycleMessage::FreeToItsStop { left: walk.end.0, right: walk.end.1 }.into(),
    };
    WayResult {
        way: match walk.way {
            Way::Droop => "droop",
            Way::Bump => "bump",
            Way::LeftUp => "left_up",
            Way::RightUp => "right_up",
        }
        .to_owned(),
        name: CycleMessage::Way(walk.way).into(),
        end_mm: lengths(walk.end),
        ended_at_mm: ended.as_ref().map(|(share, ..)| lengths(at(*share))),
        ended_by: ended.as_ref().and_then(|(.., watch)| *watch),
        says,
    }
}

/// The answer: the limit that ends a way soonest; else one that is past somewhere; else what
/// comes nearest.
fn answer(mechanism: &Mechanism, walks: &[Walk], limits: &[LimitResult], sway_bar: bool) -> Message {
    let soonest = walks
        .iter()
        .filter_map(|walk| ends(mechanism, walk).map(|(share, what, _)| (share, what, walk)))
        .min_by(|a, b| a.0.total_cmp(&b.0));
    if let Some((share, what, walk)) = soonest {
        return CycleMessage::Ends { what, place: CrossedAt::of(mechanism, walk.at(share)) }.into();
    }
    // Of those at a level the one that is furthest gone.
    let used = |index: usize| {
        let (watch, limit) = (&mechanism.watches()[index], &limits[index]);
        watch.used(if watch.is_angle() { limit.worst.to_radians() } else { limit.worst })
    };
    let somewhere = |level: LimitLevel| {
        let at_it = (0..limits.len()).filter(|index| limits[*index].level == level);
        at_it.max_by(|a, b| used(*a).total_cmp(&used(*b)))
    };
    let happens = |index: usize, level: Level| {
        let what = mechanism.watches()[index].what;
        let limit = &limits[index];
        (Happening::of(mechanism, what, level), limit.worst_left_mm.to_mm(), limit.worst_right_mm.to_mm())
    };
    if let Some(index) = somewhere(LimitLevel::Violated) {
        let (happens, left, right) = happens(index, Level::Violated);
        return CycleMessage::Past { happens, left, right }.into();
    }
    if let Some(index) = somewhere(LimitLevel::Near) {
        let (happens, left, right) = happens(index, Level::Near);
        return CycleMessage::FreeBut { happens, left, right }.into();
    }
    CycleMessage::Free { obstacles: obstacles_measured(mechanism), sway_bar }.into()
}

fn envelope_result(mechanism: &Mechanism, envelope: &Envelope) -> EnvelopeResult {
    let watches = mechanism.watches().len();
    let nearest: Vec<Option<(usize, f64)>> = (0..envelope.poses.len())
        .map(|index| {
            envelope.poses[index].as_ref()?;
            let used = envelope.values_at(index, watches).iter().zip(mechanism.watches());
            used.map(|(value, watch)| watch.used(*value)).enumerate().max_by(|a, b| a.1.total_cmp(&b.1))
        })
        .collect();
    let level = (0..envelope.poses.len())
        .map(|index| {
            let values = envelope.values_at(index, watches).iter().zip(mechanism.watches());
            let reached = envelope.poses[index].is_some();
            let worst = values.map(|(value, watch)| watch.level(*value)).max().unwrap_or(Level::Free);
            envelope.allowed[index].then(|| if reached { worst.into() } else { LimitLevel::Violated })
        })
        .collect();
    EnvelopeResult {
        travels_mm: envelope.travels.clone(),
        reached: envelope.poses.iter().map(Option::is_some).collect(),
        used: nearest.iter().map(|n| n.and_then(|(_, used)| rounded(used, TINTED))).collect(),
        nearest: nearest.iter().map(|n| n.map(|(watch, _)| watch)).collect(),
        level,
        drawn: drawn(mechanism, envelope),
    }
}

/// Every other pose of the envelope. Its side is odd, so that both ends are among them.
fn drawn(mechanism: &Mechanism, envelope: &Envelope) -> DrawnPoses {
    let rows = envelope.poses.chunks(envelope.travels.len()).step_by(2);
    let poses: Vec<Option<&Posed>> = rows.flat_map(|row| row.iter().step_by(2)).map(Option::as_ref).collect();
    let column = |pick: &dyn Fn(&Posed) -> f64| -> Vec<Option<f64>> {
        poses.iter().map(|posed| posed.and_then(|posed| rounded(pick(posed), REPORTED))).collect()
    };
    let points: Vec<Option<Vec<f64>>> =
        poses.iter().map(|posed| posed.map(|posed| drawn_points(mechanism, posed))).collect();
    let per_pose = points.iter().flatten().map(|p| p.len() / 3).next().unwrap_or(0);
    DrawnPoses {
        travels_mm: envelope.travels.iter().copied().step_by(2).collect(),
        reached: poses.iter().map(Option::is_some).collect(),
        z_mm: column(&|p| p.solved.pose.z.to_mm()),
        roll_deg: column(&|p| p.solved.pose.roll.to_degrees()),
        x_mm: column(&|p| p.solved.pose.x.to_mm()),
        y_mm: column(&|p| p.solved.pose.y.to_mm()),
        pitch_deg: column(&|p| p.solved.pose.pitch.to_degrees()),
        yaw_deg: column(&|p| p.solved.pose.yaw.to_degrees()),
        bar_angle_deg: column(&|p| p.bar_angle.to_degrees()),
        roll_centre_mm: column(&|p| p.roll_centre),
        steer_deg: column(&|p| p.steer.to_degrees()),
        bind_mm: column(&|p| p.bind),
        points_per_pose: per_pose,
        points_mm: points
            .into_iter()
            .flat_map(|points| match points {
                Some(points) => points.into_iter().map(|point| rounded(point, DRAWN)).collect(),
                None => vec![None; 3 * per_pose],
            })
            .collect(),
    }
}

fn drawn_points(mechanism: &Mechanism, posed: &Posed) -> Vec<f64> {
    let lines = mechanism.lines(posed);
    let mut points: Vec<f64> = lines.iter().flat_map(|line| line[1..].iter().flatten().copied()).collect();
    if let Some([_, end]) = drag_link_ends(mechanism, posed) {
        points.extend(end.to_mm());
    }
    points
}

/// The limit that ends the travel first, found on the four ways alone: cheap enough for
/// every save.
#[must_use]
pub fn brief(assembly: &Assembly) -> Brief {
    let mechanism = assembly.mechanism();
    let driven = mechanism.at_driven_height().ok();
    let soonest = Way::ALL
        .into_iter()
        .filter_map(|way| Some((way, travel::first_end_from(mechanism, driven.as_ref()?, way)?)))
        .min_by(|a, b| a.1.share.total_cmp(&b.1.share));
    let Some((way, found)) = soonest else {
        return Brief {
            headline: CycleMessage::BriefFree { obstacles: obstacles_measured(mechanism) }.into(),
            ends: None,
            from_driven_mm: (0.0, 0.0),
            ended: false,
            in_the_way: sitting::in_the_way(mechanism),
        };
    };
    let driven = mechanism.driven();
    let at = travel::between(driven, way.end(mechanism), found.share);
    let from_driven_mm = (at.0 - driven, at.1 - driven);
    let by = EndsBy::of(found.watch.map(|watch| mechanism.watches()[watch].what));
    let at = if limit::stands(mechanism, at) {
        EndsAt::AsItStands { ride: driven == 0.0 }
    } else {
        EndsAt::On(way, at.0, at.1)
    };
    Brief {
        headline: CycleMessage::Brief { by, at }.into(),
        ends: Some(CycleMessage::BriefClause { by, at }.into()),
        from_driven_mm,
        ended: true,
        in_the_way: sitting::in_the_way(mechanism),
    }
}

/// Stage Cycle in the strip.
#[derive(Clone, Debug, PartialEq)]
pub struct Brief {
    /// Its figure.
    pub headline: Message,
    /// What ends the travel first, as a clause.
    pub ends: Option<Message>,
    /// Wheel travel to there from the driven height, left and right, mm, + bump: the same whatever height is called
    /// ride height. Zero where nothing ends it.
    pub from_driven_mm: (f64, f64),
    /// Whether something ends the travel before its stops.
    pub ended: bool,
    /// Pairs on frame or axle that are in each other's way as they sit.
    pub in_the_way: Vec<SittingPair>,
}
