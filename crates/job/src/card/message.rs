//! What a card says by itself, as facts.

use crate::message::{OfTopic, Topic};

/// What a card says by itself.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum CardMessage {
    /// No stage has an answer.
    NothingMeasured,
    /// What the job waits for.
    Waits(JobWaits),
}

impl OfTopic for CardMessage {
    const TOPIC: Topic = Topic::Card;
}

/// What a job in the bay waits for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum JobWaits {
    /// It was changed since it was settled.
    ChangedSinceSettled,
    /// The road test, then settling.
    RoadTestThenSettle,
    /// The legs of the Y-link.
    TurnTheLegs,
    /// The bar's length, set once more.
    SetTheBarAgain,
    /// What still touches.
    SomethingStillTouches,
    /// Sway links that work.
    SwayLinksThatWork,
    /// The chosen plan is not fitted.
    FitTheChosenPlan,
    /// The choice of a hole or the length alone.
    ChooseHoleOrLength,
    /// Readings again.
    ReadBothSidesAgain,
    /// A bar that is made for that length.
    BarThatReaches,
    /// The bar's length.
    SetTheBar,
    /// Readings.
    ReadBothSides,
    /// What stage Cycle finds.
    SeeCycle,
    /// The bar's measures.
    MeasureTheBar,
}
