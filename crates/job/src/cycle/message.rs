//! What stage Cycle has to say, as facts.

use crate::cycle::limit::{CrossedAt, EndsAt, EndsBy, Happening, LimitName};
use crate::message::{Message, OfTopic, Topic};
use derecho_core::measure::{Angle, Length};
use derecho_core::pose::body::BodyName;
use derecho_core::pose::travel::Way;

/// A message of stage Cycle. Sideways figures are + to the left, travels and changes of height + up.
#[expect(
    missing_docs,
    reason = "a message holds what its fields are named; lengths, angles and forces are of their types"
)]
#[derive(Clone, Debug, PartialEq)]
pub enum CycleMessage {
    /// A watched figure with its unit.
    Figure {
        angle: bool,
        gap: bool,
        value: f64,
    },
    /// `tight` is the travel at which the drag link no longer reaches, where there is one.
    BumpSteer {
        per_mm: f64,
        worst: Angle,
        at: Length,
        tight: Option<Length>,
    },
    LinkMatch {
        bar: Option<Angle>,
        drag: Angle,
        match_: Option<(Angle, f64)>,
        same_way: bool,
    },
    LinkChange {
        change: Length,
        turns: Option<Message>,
    },
    NothingYet,
    /// Wheel travels as a place, mm.
    AtPlace {
        left: f64,
        right: f64,
    },
    /// What ends a way, and where: wheel travels, mm.
    Ends {
        what: Happening,
        place: CrossedAt,
    },
    FreeToItsStop {
        left: f64,
        right: f64,
    },
    Past {
        happens: Happening,
        left: f64,
        right: f64,
    },
    FreeBut {
        happens: Happening,
        left: f64,
        right: f64,
    },
    /// `obstacles` is how many were measured, `sway_bar` whether there is one, which is held against nothing here.
    Free {
        obstacles: usize,
        sway_bar: bool,
    },
    BriefFree {
        obstacles: usize,
    },
    /// Half an inch past the stops: what ends the travel there, or nothing.
    PastStops {
        ends: Option<Message>,
        obstacles: usize,
    },
    /// What ends the travel first, as a clause.
    BriefClause {
        by: EndsBy,
        at: EndsAt,
    },
    /// What ends the travel first, for the strip; nothing watched is a bar or arm pulled tight.
    Brief {
        by: EndsBy,
        at: EndsAt,
    },
    /// What a body is called.
    Body(BodyName),
    /// Two that sit beside each other, and their gap, - where they run into each other.
    Stands {
        first: BodyName,
        second: BodyName,
        gap: Length,
    },
    /// What could be near and is held against nothing.
    NotJudged {
        bodies: Vec<BodyName>,
    },
    /// What a limit is called.
    LimitName(LimitName),
    /// What a way is called.
    Way(Way),
    /// What a plan is called in the drawing.
    Plan(PlanName),
    /// What happens at a limit, as a sentence without its stop.
    Happens(Happening),
}

impl OfTopic for CycleMessage {
    const TOPIC: Topic = Topic::Cycle;
}

/// What a plan is called in the drawing.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum PlanName {
    /// Holes that are tried, by their names.
    Trial {
        /// The names.
        holes: String,
    },
    /// What is set already.
    AsSet,
    /// What is planned.
    Plan,
}
