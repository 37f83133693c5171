//! Cautions, each with the stage it stands beside. They cannot be switched off.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::message::{Label, OfTopic, Topic};

/// The stages of a job that work today, in working order.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stage {
    /// Who holds what.
    Rig,
    /// Readings.
    Tape,
    /// Angle, arc, length, turns.
    Bar,
    /// The angle put right: hole, bracket, bar.
    Bracket,
    /// What touches, binds or runs out over the travel.
    Cycle,
    /// Links, arms, rates, disconnects.
    Sway,
    /// The work in order: parts, steps, torque.
    BoltUp,
    /// Readings again, and whether it is settled.
    Prove,
}

/// One caution.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Caution {
    /// The stage it stands beside.
    pub stage: Stage,
    /// What to mind.
    #[schema(value_type = String)]
    pub says: Label,
}

/// What to mind.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum CautionText {
    /// Local rules on lift, tires and steering.
    LocalRules,
    /// The maker's instructions and licensed work.
    MakersFirst,
    /// Chocks, and nobody beneath while it settles.
    ChockAndSettle,
    /// Stands before anything is undone.
    StandsFirst,
    /// Stands before a bolt is undone.
    StandsBeforeABolt,
    /// Fingers out of bolt holes.
    FingersOut,
    /// A strap under load.
    Strap,
    /// Threads in, jam nuts last.
    ThreadsIn,
    /// Work on the bar inspected.
    Inspected,
    /// Reach and clearance before weld or drill.
    ReachesAndClears,
    /// Welding near lines and bushings.
    Welding,
    /// Structural welding and steering parts, inspected.
    StructuralWelding,
    /// Drilling.
    Drilling,
    /// Risers and drag links go together.
    RaisedTogether,
    /// Strength is a comparison.
    NoCertification,
    /// Cycling it on the vehicle.
    CycleIt,
    /// The axle on jacks, springs out.
    SpringsOut,
    /// What is not in the figures.
    NotInTheseFigures,
    /// Steering parts and welding, licensed.
    Licensed,
    /// No road with the bar disconnected.
    NeverDisconnected,
    /// A twisted bar stores energy.
    TwistedBar,
    /// Lines and looms by the bar.
    LinesAndLooms,
    /// Torque, jam nuts, pins.
    PinsAndClips,
    /// An equal shim under the other clamp.
    EqualShim,
    /// Rates and roll are estimates.
    RollIsEstimated,
    /// Stands before bar or shocks come off.
    StandsForBarAndShocks,
    /// Torques from sheets, the maker's order first.
    TorqueFromSheets,
    /// Welding and drilling.
    WeldingAndDrilling,
    /// Structural, steering and brake work, licensed.
    LicensedBrakes,
    /// Before it moves.
    BeforeItMoves,
    /// Steering wheel, toe, sensors.
    WheelAndSensors,
    /// The road test in steps.
    RoadInSteps,
    /// Torque again.
    TorqueAgain,
    /// The figures are aids.
    FiguresAreAids,
}

/// A caution of an axle.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct CautionMessage {
    /// What to mind.
    pub text: CautionText,
    /// Whether a Y-shaped link stands in the track bar's place.
    pub y_link: bool,
    /// Whether the axle has a drag link to mind.
    pub steered: bool,
}

impl OfTopic for CautionMessage {
    const TOPIC: Topic = Topic::Caution;
}

const CAUTIONS: [(Stage, CautionText); 35] = [
    (Stage::Rig, CautionText::LocalRules),
    (Stage::Rig, CautionText::MakersFirst),
    (Stage::Tape, CautionText::ChockAndSettle),
    (Stage::Tape, CautionText::StandsFirst),
    (Stage::Bar, CautionText::StandsBeforeABolt),
    (Stage::Bar, CautionText::FingersOut),
    (Stage::Bar, CautionText::Strap),
    (Stage::Bar, CautionText::ThreadsIn),
    (Stage::Bar, CautionText::Inspected),
    (Stage::Bracket, CautionText::ReachesAndClears),
    (Stage::Bracket, CautionText::Welding),
    (Stage::Bracket, CautionText::StructuralWelding),
    (Stage::Bracket, CautionText::Drilling),
    (Stage::Bracket, CautionText::RaisedTogether),
    (Stage::Bracket, CautionText::NoCertification),
    (Stage::Cycle, CautionText::CycleIt),
    (Stage::Cycle, CautionText::SpringsOut),
    (Stage::Cycle, CautionText::NotInTheseFigures),
    (Stage::Cycle, CautionText::Licensed),
    (Stage::Sway, CautionText::NeverDisconnected),
    (Stage::Sway, CautionText::TwistedBar),
    (Stage::Sway, CautionText::LinesAndLooms),
    (Stage::Sway, CautionText::PinsAndClips),
    (Stage::Sway, CautionText::EqualShim),
    (Stage::Sway, CautionText::RollIsEstimated),
    (Stage::BoltUp, CautionText::StandsForBarAndShocks),
    (Stage::BoltUp, CautionText::FingersOut),
    (Stage::BoltUp, CautionText::TorqueFromSheets),
    (Stage::BoltUp, CautionText::WeldingAndDrilling),
    (Stage::BoltUp, CautionText::LicensedBrakes),
    (Stage::Prove, CautionText::BeforeItMoves),
    (Stage::Prove, CautionText::WheelAndSensors),
    (Stage::Prove, CautionText::RoadInSteps),
    (Stage::Prove, CautionText::TorqueAgain),
    (Stage::Prove, CautionText::FiguresAreAids),
];

/// Every caution, in the order of the stages; `y_link` is whether a Y-shaped link stands in the track bar's place,
/// `steered` whether the axle has a drag link to mind.
#[must_use]
pub fn cautions(y_link: bool, steered: bool) -> Vec<Caution> {
    let of_this_axle = |text: CautionText| match text {
        CautionText::RaisedTogether => steered && !y_link,
        _ => true,
    };
    CAUTIONS
        .into_iter()
        .filter(|(_, text)| of_this_axle(*text))
        .map(|(stage, text)| Caution { stage, says: CautionMessage { text, y_link, steered }.into() })
        .collect()
}
