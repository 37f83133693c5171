//! What stage Tape has to say, as facts.

use super::refusal::Refusal;
use crate::document::SheetKind;
use crate::message::{OfTopic, Topic};
use derecho_core::measure::centring::Centring;
use derecho_core::measure::squareness::Squareness;
use derecho_core::measure::{Length, Side};
use jiff::civil::Date;

/// A message of stage Tape. Sideways figures are + to the left, travels and changes of height + up.
#[expect(
    missing_docs,
    reason = "a message holds what its fields are named; lengths, angles and forces are of their types"
)]
#[derive(Clone, Debug, PartialEq)]
pub enum TapeMessage {
    /// Why a sheet drives no correction.
    Refusal {
        refusal: Refusal,
        read_at: String,
        driven_at: String,
    },
    SquarenessSays {
        square: Squareness,
    },
    /// `steering` is the side of the steering wheel, where it was told.
    Says {
        kind: SheetKind,
        centring: Centring,
        steering: Option<Side>,
    },
    Advice {
        kind: SheetKind,
        centring: Centring,
        steering: Option<Side>,
    },
    /// Something to look at again.
    SecondThought(SecondThought),
}

impl OfTopic for TapeMessage {
    const TOPIC: Topic = Topic::Tape;
}

/// Something to look at again in a sheet.
#[derive(Clone, Debug, PartialEq)]
pub enum SecondThought {
    /// Repeats of a side range over so much.
    RepeatsDisagree(Vec<(Side, Length)>),
    /// The instrument's check is overdue.
    CheckOverdue {
        /// The instrument.
        instrument: String,
        /// When it was last checked; None is never.
        checked: Option<Date>,
    },
    /// Too few repeats.
    FewRepeats,
    /// Nobody said whether it stood on its own weight.
    OnItsWeight,
    /// It was leant on.
    LeantOn,
    /// The wheels were not straight.
    WheelsTurned,
    /// Pressures were not alike.
    PressuresUnlike,
    /// A plumb line on a floor whose slope nobody typed.
    PlumbLine,
    /// The frame stands higher on one side by so much, and the tape's height is not typed.
    FrameLeans(Length),
}
