//! What stage Bar has to say, as facts.

use super::further::Further;
use super::need::NeedFacts;
use super::ways::WayFacts;
use crate::assembly::named::LikelyCause;
use crate::message::{Message, OfTopic, Topic};
use crate::setups::OffsetAnswer;
use crate::setups::adjuster::ThreadFault;
use derecho_core::bar::adjuster::{Setting, TurnStep, Verdict};
use derecho_core::bar::{Recentring, Swing};
use derecho_core::measure::{Angle, Length};
use derecho_core::parts::BracketEnd;
use glam::DVec3;

/// A message of stage Bar. Sideways figures are + to the left, travels and changes of height + up.
#[expect(
    missing_docs,
    reason = "a message holds what its fields are named; lengths, angles and forces are of their types"
)]
#[derive(Clone, Debug, PartialEq)]
pub enum BarMessage {
    /// What a drawn figure is.
    DrawnFigure {
        figure: DrawnFigure,
        planned: bool,
    },
    Stands {
        angle: Angle,
    },
    /// From both sides alone: how much longer, and by how much at most the bar's angle changes that.
    FirstAnswer {
        change: Length,
        at_most: Length,
    },
    /// A bar is to go in for the old one, and nobody said which.
    WhichBar,
    /// Nobody measured how the bar lies; its length is good without.
    AngleUnmeasured,
    /// What asks for the bar's angle.
    RateUnmeasured,
    /// Sideways per unit of bump, + left.
    RateSays {
        rate: f64,
    },
    LiftSays {
        verb: String,
        shift: Length,
    },
    /// `cause` is the likely cause where the two disagree by more than they are good to.
    EyesSay {
        reach: Length,
        plumbed: Length,
        cause: Option<LikelyCause>,
    },
    /// Why no length is offered; `built` is the length of a bar that is built strapped to centre.
    Withheld {
        built: Option<Length>,
        answer: OffsetAnswer,
    },
    /// The headline where holes are on offer, and the length alone leads into what ends the travel, or leaves a bar that
    /// was to be levelled at its angle.
    DecideFirst {
        ends: Option<Message>,
    },
    LengthSays(LengthSet),
    ThumbSays {
        wanted: Recentring,
    },
    /// `angle` is the planned bar's, `need` is there where no eye is moved: what the length alone leaves to be wanted.
    /// `off` is where the axle stands then, + left.
    LeavesSays {
        angle: Angle,
        off: Length,
        swing: Swing,
        need: Option<Message>,
    },
    /// What Bar and Bracket both say of a bracket.
    NeedSays {
        facts: NeedFacts,
    },
    ReadingsSay {
        left: Length,
        right: Length,
    },
    SetSays {
        length: Length,
        wants_now: Option<Length>,
        offset: Length,
        fault: Option<ThreadFault>,
    },
    /// What comes of setting the length.
    SettingSays {
        setting: Box<Setting>,
    },
    /// Where the thread ends before the length that centres is reached, near enough to be proved centred.
    ThreadEnds {
        set: Length,
        exact: Length,
        off: Length,
    },
    /// One way out, with the thread that stays in.
    WaySays {
        facts: WayFacts,
    },
    /// An interval of a drawn figure, by its name; its ends in the unit of the name.
    Interval {
        name: String,
        low: f64,
        high: f64,
    },
    /// What a further reading is worth.
    Further {
        reading: Further,
        now: Length,
        to: Length,
    },
    /// Which to take.
    ReadNext {
        reading: Further,
        now: Length,
        to: Length,
    },
    /// Lateral rates of the bar as found and as planned, and where the axle is with each at full bump, + left.
    LongerSays {
        before: f64,
        after: f64,
        found_at_bump: Length,
        planned_at_bump: Length,
    },
    /// What to look at again.
    Warning(BarWarning),
    /// What the chosen plan moves.
    PlanSays(Vec<EyeMove>),
    /// How far to turn.
    Turns(Turns),
    /// How far it would be exactly.
    Exactly(ExactTurns),
    /// A line of setting a bar on the bench.
    Bench(BenchLine),
}

impl OfTopic for BarMessage {
    const TOPIC: Topic = Topic::Bar;
}

/// What the headline is made from.
#[derive(Clone, Debug, PartialEq)]
pub struct LengthSet {
    /// Change of length from the bar that is in.
    pub change: Length,
    /// The length wanted.
    pub length: Length,
    /// The bar that is hung, where another one is.
    pub hangs: Option<String>,
    /// Whether that one is cut and welded to length.
    pub made_to_length: bool,
    /// What comes of setting it, where that is known.
    pub verdict: Option<Verdict>,
    /// Whether it can be so long, where that is known.
    pub covered: Option<bool>,
    /// Whether the change comes from the lift alone, or from taking the axle as centered: nobody measured.
    pub estimated: bool,
    /// Whether it is built to a gap that is measured again in the planned holes first.
    pub to_tape: bool,
}

/// What to look at again in the bar's figures.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum BarWarning {
    /// The finder and the bolt heights disagree by so much of rise.
    RiseDisagrees(Length),
    /// The finder lay on a bar that is bent.
    FinderAside,
    /// The rise is the finder's, and good to this.
    RiseFromFinder(Length),
    /// The finder does not say which end is higher.
    WhichEndHigher,
    /// Pulled tight at this much droop.
    TightInDroop(Length),
    /// Pulled tight at this much bump.
    TightInBump(Length),
}

/// An eye that the plan moves.
#[derive(Clone, Debug, PartialEq)]
pub struct EyeMove {
    /// Which eye.
    pub end: BracketEnd,
    /// By how much, mm: ahead, left, up.
    pub by: DVec3,
    /// The hole it comes to; empty is where it was found.
    pub hole: String,
}

/// How far to turn.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Turns {
    /// Whole turns.
    pub turns: u32,
    /// Flats on top, six a turn.
    pub flats: u32,
    /// What it is turned by.
    pub by: TurnStep,
    /// Longer, not shorter.
    pub longer: bool,
}

/// How far it would be exactly.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum ExactTurns {
    /// So many, where it can be turned by half turns alone.
    Half(f64),
    /// So many, where it can be turned by whole turns alone.
    Whole(f64),
    /// Turns and flats, and the share of a flat over them.
    Flats {
        /// Whole turns.
        turns: u32,
        /// Flats on top.
        flats: u32,
        /// What is left over, flats.
        over: f64,
    },
}

/// A line of setting a bar on the bench; `alike` where both ends are turned.
#[derive(Clone, Copy, Debug, PartialEq)]
#[expect(missing_docs, reason = "a message holds what its fields are named; lengths are of their type")]
pub enum BenchLine {
    /// How long it is screwed right in.
    RightIn { alike: bool, length: Length },
    /// How far to turn from there, and to what length.
    Turn { alike: bool, turns: Turns, to: Length },
    /// What stays in, and what must.
    Thread { alike: bool, stays: Length, least: Option<Length> },
    /// Against the old bar.
    BesideTheOld { differs: Length, per_turn: Length },
}

/// A figure that is drawn many times for its interval.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum DrawnFigure {
    /// Change of the bar's length.
    Change,
    /// Length to set.
    Length,
    /// How far off the axle is, + left.
    Offset,
    /// Angle of the bar.
    Angle,
    /// Sideways per unit of bump, + left.
    LateralRate,
    /// Shift at full droop, + left.
    AtFullDroop,
    /// Shift at full bump, + left.
    AtFullBump,
    /// Sideways swing over the travel.
    PeakToPeak,
}
