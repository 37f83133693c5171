//! Where a job stands and what comes next, as facts.

use super::state::JobState;
use crate::findings::FindingKind;
use crate::message::{OfTopic, Topic};

/// What the state of a job has to say.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum StatusMessage {
    /// Where it stands.
    State {
        /// Which state.
        state: JobState,
        /// How many steps of the work are done, and of how many.
        work: (usize, usize),
        /// How many findings stand in the way of closing it.
        open: usize,
    },
    /// What comes next.
    Next(Next),
    /// What is to put right or to accept first.
    PutRight(FindingKind),
}

impl OfTopic for StatusMessage {
    const TOPIC: Topic = Topic::Status;
}

/// What comes next in a job.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Next {
    /// It was changed since it was closed.
    ChangedSinceClosed,
    /// Nothing stands in the way: close it.
    Close,
    /// Nothing stands in the way, and nobody drove it yet.
    RoadTestThenClose,
    /// The legs of the Y-link.
    TurnTheLegs,
    /// Where an eye really sits, before the bar is set once more.
    MeasureTheEye,
    /// The bar's length, set once more.
    SetTheBarAgain,
    /// Find out why the axle moved otherwise.
    FindTheCause,
    /// What still ends the travel.
    SomethingStillTouches,
    /// Sway links that work.
    SwayLinksThatWork,
    /// The chosen plan is not fitted.
    FitTheChosenPlan,
    /// The work is begun: the next step of it.
    NextStepOfWork,
    /// Every step is done, and what was fitted is not on record.
    RecordWhatWasFitted,
    /// The choice of a hole or the length alone.
    ChooseHoleOrLength,
    /// Measurements again.
    ReadBothSidesAgain,
    /// A bar that is made for that length.
    BarThatReaches,
    /// The bar's length.
    SetTheBar,
    /// Measurements.
    ReadBothSides,
    /// What the Cycle screen finds.
    SeeCycle,
    /// The bar's measures.
    MeasureTheBar,
    /// Say which bar goes in.
    EnterTheNewBar,
    /// The sway bar's measures.
    MeasureTheSwayBar,
}
