//! What stage Bolt-up has to say, as facts.

use crate::cycle::axle_way::AxleWay;
use crate::document::work::{HeadSide, PartRecord, Stands, TorqueSource};
use derecho_core::fastener::stack::NutKind;
use derecho_core::fastener::strength::{Grade, ThreadTreatment, TorqueStands};
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use utoipa::ToSchema;

use super::situation::{Situation, drill_size};
use super::tasks::What;
use crate::message::{Label, Message, OfTopic, Topic};
use crate::verdict::FitCheck;
use crate::work::kinds::bracket::Bolts;
use crate::work::kinds::{KindStep, eyes, length, y_link};
use crate::work::rules::Rule;
use derecho_core::measure::{Length, Moment, Side};
use derecho_core::parts::BracketEnd;

/// A message of stage Bolt-up. Sideways figures are + to the left, travels and changes of height + up.
#[expect(
    missing_docs,
    reason = "a message holds what its fields are named; lengths, angles and forces are of their types"
)]
#[derive(Clone, Debug, PartialEq)]
pub enum BoltUpMessage {
    /// A check of a fastener.
    OfFastener {
        fastener: Label,
        check: Label,
    },
    /// What a fastener is called.
    Fastener(FastenerName),
    /// Everything known of a fastener but its torque.
    What(FastenerWhat),
    /// What a part is called.
    Part(PartName),
    /// What a tool is called.
    ToolName(ToolName),
    /// What a tool is for, or what does in its place.
    ToolUse(ToolUse),
    /// Sentences one after the other, each with its full stop.
    InARow {
        phrases: Vec<Message>,
    },
    /// A pair that stands the wrong way round in a person's order.
    Broken {
        first: Message,
        then: Message,
        why: Rule,
    },
    /// A step that waits for another one.
    Waits {
        first: Message,
        why: Rule,
    },
    /// A step that was done before another one that comes first.
    DoneBefore {
        first: Message,
        why: Rule,
    },
    StoodOtherwise {
        stood: Stands,
        wanted: Stands,
    },
    StandOtherwise {
        wanted: Stands,
    },
    Changed {
        read: String,
    },
    Gone {
        read: String,
    },
    NoTorque {
        name: FastenerName,
    },
    WrongPart {
        part: PartRecord,
        name: PartName,
    },
    /// Limit straps that hang slack at full droop by so much.
    StrapsTooLong {
        by: Length,
    },
    /// Limit straps that are tight at the driven height, short by so much.
    StrapsTooShort {
        by: Length,
    },
    WrongNut {
        name: FastenerName,
    },
    /// A bolt of an eye that can't hold.
    BoltDoesNotFit {
        check: Box<FitCheck>,
    },
    /// How many of a part, where, and how long.
    PartAt {
        place: PartPlace,
        length: Option<Length>,
    },
    /// A reason as it was written down.
    Reason {
        text: String,
    },
    /// For the supplier.
    Supplier {
        part: PartRecord,
        name: PartName,
        vehicle: String,
    },
    TorqueWanted {
        moment: Moment,
        typed: String,
        from: Option<TorqueSource>,
    },
    TorqueMade {
        made: Moment,
        wanted: Option<Moment>,
    },
    ByFeel {
        because: String,
    },
    TorqueMissing,
    Reference {
        usual: Moment,
        stands: Option<TorqueStands>,
    },
    /// Where the eye is from its hole: on its weight, and at full droop with the axle where the old bar had it there, and
    /// where it stood on its wheels. A side is told only where both agree.
    EyeOff {
        stands: Length,
        droop: Option<[Length; 2]>,
        steered: bool,
        driver: Option<Side>,
    },
    /// The next step, or that there is none.
    Says {
        of: usize,
        next: Option<Message>,
    },
    ChooseFirst,
    NothingYet,
    Refused,
    MockUp {
        open: Vec<MockUpOpen>,
    },
    CornersApart {
        name: String,
        apart: Length,
    },
    CornerMoved {
        name: String,
        change: Length,
    },
    CornersMoved {
        moved: Vec<Message>,
    },
    CornersAlike,
    StillOff {
        names: Vec<String>,
    },
    /// A hole of the drill schedule.
    Drill {
        size: Option<Length>,
    },
    /// What a step does.
    Does(StepFacts),
    /// How.
    How(StepFacts),
    /// Why.
    Because(StepFacts),
    /// What to mind.
    Caution(StepFacts),
    /// How the vehicle has to stand; None is at any height.
    HowItStands(Option<Stands>),
    /// What is cut.
    CutName(CutKind),
    /// Where its figures and its template are.
    CutSays(CutKind),
}

impl OfTopic for BoltUpMessage {
    const TOPIC: Topic = Topic::BoltUp;
}

/// A step, and what its plan says of it.
#[derive(Clone, Debug, PartialEq)]
pub struct StepFacts {
    /// What it does.
    pub what: What,
    /// The plan it is in.
    pub of: Arc<StepContext>,
}

/// What the steps of a plan say beside what they do.
#[derive(Clone, Debug, PartialEq)]
pub struct StepContext {
    /// What is to be done.
    pub situation: Situation,
    /// The side the frame eye and the axle eye are on, where that was told.
    pub sides: Option<[Side; 2]>,
    /// Whether the axle is steered.
    pub steered: bool,
    /// The side the driver sits on, where that was told.
    pub driver: Option<Side>,
    /// The height it is driven at; None is ride height.
    pub driven: Option<String>,
    /// What is cut of the stock of a built bar, as stage Bracket says it.
    pub cut: Option<Message>,
    /// How far a splined sway bar sticks out each side, where bar and frame were measured.
    pub stick_out: Option<Length>,
    /// Turns and flats, or the bench's order of work, as stage Bar says them.
    pub setting: Vec<Message>,
    /// Where the eye is from its hole.
    pub eye: Option<Message>,
    /// What both sides should read afterwards.
    pub readings: Option<Message>,
    /// What each leg of a Y-link is turned by.
    pub legs: Vec<Message>,
    /// What the drag link wants once the axle stands as planned.
    pub link: Option<Message>,
    /// What a first bracket on the frame is placed by.
    pub first_bracket: Option<FirstBracket>,
}

/// What a first bracket on the frame is placed by.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct FirstBracket {
    /// Room to everything on the axle at full bump.
    pub room: Length,
    /// Where the axle goes from the driven height.
    pub way: AxleWay,
}

impl StepContext {
    /// The side an eye is on.
    #[must_use]
    pub fn side(&self, end: BracketEnd) -> Option<Side> {
        self.sides.map(|[frame, axle]| if end == BracketEnd::Frame { frame } else { axle })
    }
}

impl StepFacts {
    /// Whether there is more to say of how it is done.
    pub(super) fn has_how(&self) -> bool {
        let of = &self.of;
        match &self.what {
            What::Stands | What::BatteryOn | What::Witness | What::Own { .. } => false,
            What::Drill(id) => {
                let drill = of.situation.drills.iter().find(|drill| drill.id == *id);
                drill.and_then(drill_size).is_some()
            }
            What::Kind(KindStep::Length(length::Step::Turn) | KindStep::BarSwap(_)) => !of.setting.is_empty(),
            What::Kind(KindStep::Eyes(eyes::Step::ByHand(end))) => {
                let last = *end == BracketEnd::Axle || !of.situation.is_undone(BracketEnd::Axle);
                last && of.eye.is_some()
            }
            What::Kind(KindStep::YLink(y_link::Step::Legs)) => !of.legs.is_empty(),
            What::Kind(step) => step.has_how(),
            _ => true,
        }
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(&self) -> bool {
        if let What::Kind(step) = self.what {
            return step.has_caution();
        }
        matches!(self.what, What::Stands | What::MockUp | What::Drill(_) | What::OnItsWeight)
    }
}

/// What a mock-up waits for: the name of its field in the document.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MockUpOpen {
    /// Left and right equally high.
    CornersEqual,
    /// Strapped to centre.
    Strapped,
    /// Repeats that agree.
    RepeatsAgree,
    /// The full cycle.
    Cycled,
}

/// A kind of cut.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum CutKind {
    /// The tube or rod a bar is built of.
    BarStock,
    /// Rods of links built from tapped rod.
    LinkRods,
    /// A hole in a panel of the body.
    Panel,
}

/// What a fastener is called.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum FastenerName {
    /// The frame eye's bolt.
    FrameEye,
    /// The axle eye's bolt.
    AxleEye,
    /// The bolt of the adjusting end.
    Adjuster,
    /// The bar's one jam nut.
    JamNut,
    /// The bar's jam nuts or clamps.
    JamNuts,
    /// The clamps of the drag link's sleeve.
    DragLinkClamps,
    /// The nuts of the drag-link part.
    DragLinkNuts,
    /// The first sway arm's mount bolt.
    FirstMount,
    /// The second sway arm's mount bolt.
    SecondMount,
    /// The sway bar's clamps.
    SwayClamps,
    /// The pinch bolts of the sway arms.
    Pinch,
    /// The sway links' bolts on the arms.
    ArmEyes,
    /// The sway links' bolts at the far ends.
    FarEnds,
    /// The sway links' jam nuts.
    LinksJam,
    /// The jam nuts of a Y-link's legs.
    LegsJam,
    /// The bolts of a Y-link's brackets.
    LegsBrackets,
    /// The bolts of a Y-link and of the arms that were loosened for it.
    LegsBolts,
    /// What keeps splined arms on their bar.
    Retaining,
    /// The nuts of a disconnect's studs.
    DisconnectStuds,
    /// The nuts of the studs the links are stowed on.
    StowStuds,
    /// A brace's bolts at the bracket.
    BraceAtBracket,
    /// And at the rail.
    BraceAtRail,
    /// Nuts of the tie rod's ends.
    TieRodNuts,
    /// The clamps or jam nuts of its ends.
    TieRodClamps,
    /// Of limit straps, at the frame.
    StrapsAtFrame,
    /// And at the axle.
    StrapsAtAxle,
    /// Bolts of a bracket.
    Bracket {
        /// Which of them.
        bolts: Bolts,
        /// The bracket's name; None where it has none.
        bracket: Option<String>,
    },
    /// As a person named it.
    Typed(String),
}

/// What a tool is called.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum ToolName {
    /// Stands, jack, chocks.
    Stands,
    /// A torque wrench.
    TorqueWrench,
    /// A wrench of a size, as it is stamped.
    Wrench(String),
    /// A ratchet strap.
    Strap,
    /// A drill of a size, as it is stamped.
    Drill(String),
    /// A hole saw of a size.
    HoleSaw(String),
    /// A separator for ball studs.
    Separator,
    /// A reamer of a stud's taper.
    TaperReamer,
    /// Centre punch, paint, deburring tool.
    Punch,
    /// A right-angle drill.
    RightAngleDrill,
    /// Welder, grinder, cover for lines.
    Welder,
    /// An angle finder.
    AngleFinder,
    /// A tape.
    Tape,
    /// A grease gun.
    GreaseGun,
    /// A paint pen.
    PaintPen,
}

/// What a tool is for, or what does in its place.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum ToolUse {
    /// Under frame and axle.
    UnderIt,
    /// The range the sheets ask for.
    Range,
    /// So many at once.
    Wrenches {
        /// How many.
        count: usize,
    },
    /// The axle to the frame.
    AxleToFrame {
        /// Whether a helper at the steering wheel does in its place.
        steered: bool,
    },
    /// For a hole.
    Hole {
        /// What it is called.
        name: String,
    },
    /// The holes of tubes through the frame rails.
    TubeHoles,
    /// Marking and deburring.
    Mark,
    /// A ball stud out of its taper.
    Taper,
    /// Seats for ball studs.
    Seats,
    /// The pinion's angle.
    Pinion,
    /// Where a straight drill has no room.
    NoRoom,
    /// Bright metal, fire.
    Weld,
    /// The partner bracket's angle.
    Partner,
    /// Both sway arms' angle.
    SwayArms,
    /// The one it was read with.
    SameTape,
    /// The maker's grease.
    Grease,
    /// Marks across nuts.
    Marks,
}

/// What a part of the plan is called.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum PartName {
    /// As a person named it.
    Typed(String),
    /// A track bar that is built.
    BuiltBar,
    /// The sway bar.
    SwayBar,
    /// The sway links.
    SwayLinks,
    /// A disconnect of the sway links.
    Disconnect,
    /// Limit straps.
    Straps,
    /// Tapered inserts for the tie rod's studs.
    TaperInserts,
    /// A second shim.
    SecondShim,
    /// A Y-link.
    YLink,
}

/// How many of a part there are, and where it goes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum PartPlace {
    /// One, the track bar.
    TrackBar,
    /// One, a bracket.
    Bracket {
        /// At which end of the bar.
        end: BracketEnd,
        /// On which side; None where nobody said.
        side: Option<Side>,
    },
    /// On the drag link.
    DragLink,
    /// One, with its mounts.
    SwayBar,
    /// Two, one a side.
    SwayLinks,
    /// Two, one a side, with their pins.
    Disconnect,
    /// Two, one a steering arm.
    TaperInserts,
    /// Two, one a side, frame to axle.
    Straps,
    /// One, from the frame bracket to the far rail.
    Brace,
    /// One, under the other clamp.
    SecondShim,
    /// One, with its brackets.
    YLink,
}

/// Everything known of a fastener but its torque.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct FastenerWhat {
    /// Its thread, as typed.
    pub thread: Option<String>,
    /// Its grade.
    pub grade: Option<Grade>,
    /// The nut on it.
    pub nut: Option<NutKind>,
    /// What its thread is treated with.
    pub treatment: Option<ThreadTreatment>,
    /// Which way its head lies.
    pub head: Option<HeadSide>,
    /// Where it is reused from, as typed.
    pub reused_from: Option<String>,
    /// How one gets to it, as typed.
    pub access: Option<String>,
}
