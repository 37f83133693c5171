//! The headlines of the strip, as facts.

use derecho_core::measure::squareness::AxleEnd;
use derecho_core::measure::{Angle, Length, Side};

use crate::message::{Message, OfTopic, Topic};

/// The headline of a stage.
#[derive(Clone, Debug, PartialEq)]
pub enum StripMessage {
    /// Where it stands, without a figure.
    Waits(Waits),
    /// The chosen holes, as people named them.
    Holes(Vec<String>),
    /// Which end, and how far it was lifted; negative is lowered.
    Rig {
        /// The end, where it was told.
        end: Option<AxleEnd>,
        /// The lift.
        lift: Length,
    },
    /// How far off, and to which side.
    Off(Length, Side),
    /// The bar's angle.
    Angle(Angle),
    /// The length it was set to.
    Set(Length),
    /// The length another bar is set to.
    To(Length),
    /// The change of length wanted; negative shortens.
    Change(Length),
    /// The sway links.
    Links {
        /// Whether they work.
        works: bool,
        /// Their length.
        link: Length,
    },
    /// How far the work is.
    Steps {
        /// Steps that are done.
        done: usize,
        /// Of so many.
        of: usize,
    },
    /// Proved and not closed, with so many findings in the way.
    Proved {
        /// How many.
        open: usize,
    },
    /// The headlines of some stages as one line, for the bay.
    Joined(Vec<Message>),
}

impl OfTopic for StripMessage {
    const TOPIC: Topic = Topic::Strip;
}

/// Where a stage stands that has no figure to show.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Waits {
    /// Brackets are of no use: a Y-link centres the axle.
    YLink,
    /// The bar is to measure first.
    MeasureTheBar,
    /// What the plan points at was taken out.
    PartGone,
    /// No bracket is needed.
    NotNeeded,
    /// A bracket can be had and is not urged.
    NotRecommended,
    /// Brackets are there, none is chosen.
    ToChoose,
    /// A bracket is urged, none is there.
    NoBracketTried,
    /// Nothing is measured.
    NotMeasured,
    /// There is no sway bar.
    NoSwayBar,
    /// Something is missing yet.
    MoreToMeasure,
    /// A sway link's length is to choose.
    LinkToChoose,
    /// The readings no longer count.
    ReadAgain,
    /// One side is read.
    OneSideSoFar,
    /// No side is read.
    NoReadings,
    /// The readings say neither centred nor off.
    CannotTellYet,
    /// Centred within the tolerance.
    Centred,
    /// There is no bar: a Y-link centres the axle.
    NoBarYLink,
    /// The bar cannot stand as it was measured.
    CannotBe,
    /// Too few threads are in.
    ThreadFault,
    /// A hole or the length alone is to choose.
    HoleOrLength,
    /// The bar is not made for that length.
    DoesNotReach,
    /// Nothing is chosen to be done.
    NothingChosen,
    /// Every step is done, a torque is missing.
    TorqueMissing,
    /// Every step is done, something was not put back.
    SomethingIsOff,
    /// Every step is done.
    Done,
    /// Settled, and it stands.
    Settled,
    /// Settled, and changed since.
    ChangedSinceSettled,
    /// The length is to set again.
    BackToBar,
    /// The sway links are to choose again.
    BackToSway,
    /// Something still touches.
    StillTouches,
    /// The chosen plan is not fitted.
    PlanNotFitted,
    /// A hole or the length alone is not chosen.
    BracketNotDecided,
    /// Nothing is set yet.
    NotYet,
    /// Set, and not read since.
    ReadBothSides,
    /// The length alone was chosen.
    LengthOnly,
}
