//! What stage Bolt-up has to say, as facts.

use std::sync::Arc;

use super::rules::Rule;
use super::situation::{Situation, drill_size};
use super::tasks::What;
use crate::document::work::{PartRecord, Stands, TorqueSource};
use crate::message::{Message, OfTopic, Topic};
use derecho_core::fastener::strength::TorqueStands;
use derecho_core::measure::{Length, Moment, Side};
use derecho_core::parts::BracketEnd;

/// A message of stage Bolt-up. Sideways figures are + to the left, travels and changes of height + up.
#[expect(
    missing_docs,
    reason = "a message holds what its fields are named; lengths, angles and forces are of their types"
)]
#[derive(Clone, Debug, PartialEq)]
pub enum BoltUpMessage {
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
        name: String,
    },
    WrongPart {
        part: PartRecord,
        name: String,
    },
    WrongNut {
        name: String,
    },
    /// How many of a part, where, and how long.
    PartAt {
        place: String,
        length: Option<Length>,
    },
    /// A reason as it was written down.
    Reason {
        text: String,
    },
    /// For the supplier.
    Supplier {
        part: PartRecord,
        name: String,
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
    /// The height it is driven at; None is ride height.
    pub driven: Option<String>,
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
        let (bar, of) = (self.of.situation.bar.as_ref(), &self.of);
        match &self.what {
            What::Stands
            | What::AdjusterOff
            | What::Coat(_)
            | What::BatteryOn
            | What::Snug(_)
            | What::DragLinkTight
            | What::Spacers
            | What::LegsJam
            | What::Witness
            | What::FirstArm
            | What::SwayMounts
            | What::Pinch
            | What::LinksRead
            | What::LinksJam
            | What::Own { .. } => false,
            What::Drill(id) => {
                let drill = of.situation.drills.iter().find(|drill| drill.id == *id);
                drill.and_then(drill_size).is_some()
            }
            // What was in the vehicle is held by its jam nuts, which are loosened first.
            What::Bench | What::AdjusterByHand | What::Turn => {
                bar.is_none_or(|bar| bar.hangs.is_none()) || !of.setting.is_empty()
            }
            What::EyeByHand(end) => {
                let last = *end == BracketEnd::Axle || !of.situation.is_undone(BracketEnd::Axle);
                last && of.eye.is_some()
            }
            What::EyeTight(_) | What::AdjusterTight => bar.is_some(),
            What::Legs => !of.legs.is_empty(),
            _ => true,
        }
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(&self) -> bool {
        matches!(
            self.what,
            What::Stands
                | What::BarOut
                | What::EyeOff(_)
                | What::EyeEased(_)
                | What::AdjusterOff
                | What::MockUp
                | What::Drill(_)
                | What::Bare(_)
                | What::Tack(_)
                | What::Weld(_)
                | What::Bench
                | What::BarCut
                | What::BarTack
                | What::Build
                | What::EyeByHand(_)
                | What::AdjusterByHand
                | What::DragLink
                | What::DragLinkTight
                | What::DragLinkPin
                | What::DragLinkTurn
                | What::DragLinkClamps
                | What::OnItsWeight
                | What::Spacers
                | What::SwayByHand
                | What::LinksSet
                | What::LinksByHand
        )
    }
}

/// What a mock-up waits for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
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
