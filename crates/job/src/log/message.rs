//! What the log says, as facts.

use derecho_core::measure::{Length, Moment};
use derecho_core::parts::BracketEnd;

use crate::document::proof::{Acceptance, ReminderRecord};
use crate::document::work::PartRecord;
use crate::document::{CauseRecord, FittedPart};
use crate::message::{Label, OfTopic, Topic};

/// What an entry of the log says.
#[derive(Clone, Debug, PartialEq)]
pub enum LogMessage {
    /// Both sides read.
    Reading {
        /// After so many rounds; nought is as found.
        round: usize,
        /// Where the axle is, + left.
        offset: Length,
        /// Good to.
        uncertainty: Length,
    },
    /// What a round fitted or set.
    Setting(Vec<Set>),
    /// A fastener made tight.
    Tight {
        /// Its name.
        name: Label,
        /// The torque; None where it went by feel.
        made: Option<Moment>,
        /// Why by feel, as it was typed.
        because: String,
    },
    /// A step done against the order.
    Against {
        /// The step as it was read.
        read: String,
        /// Why, as it was typed.
        reason: String,
    },
    /// A step struck out of the plan.
    Struck {
        /// The step's key.
        key: String,
        /// Why, as it was typed.
        reason: String,
    },
    /// A part that was missing or wrong.
    Part(PartRecord),
    /// As somebody wrote it.
    AsWritten(String),
    /// A reminder seen to.
    Reminder(ReminderRecord),
    /// Settled.
    Settled {
        /// By the rules of this version.
        version: String,
    },
    /// What it was settled over, and why.
    Accepted(Acceptance),
    /// Why an axle moved otherwise than predicted.
    CauseFound(CauseRecord),
}

impl OfTopic for LogMessage {
    const TOPIC: Topic = Topic::Log;
}

/// One thing that a round fitted or set.
#[derive(Clone, Debug, PartialEq)]
pub enum Set {
    /// The old bar, hung again.
    OldBarHung,
    /// Another bar.
    BarHung {
        /// As the part is named; empty where it is gone.
        name: String,
    },
    /// An eye moved.
    EyeMoved {
        /// Which eye.
        end: BracketEnd,
        /// To the hole of this name; None where it is gone.
        hole: Option<String>,
    },
    /// It sits off its planned place.
    EyeOff {
        /// Higher.
        up: Length,
        /// Further out.
        outward: Length,
        /// Further forward.
        forward: Length,
    },
    /// The drag link's length, set.
    DragLinkLength(Length),
    /// A bar cut.
    Cut {
        /// Off each end.
        each_end: Length,
    },
    /// The bar's length, eye to eye.
    BarLength(Length),
    /// The length of a bar that was built to its gap.
    BarBuilt(Length),
    /// A drag link fitted.
    DragLink {
        /// As the part is named.
        name: String,
    },
    /// The hole of the sway links, counted from the stiff end.
    SwayHole {
        /// Which it is.
        number: usize,
        /// Of how many.
        of: usize,
        /// The arm to it.
        arm: Length,
    },
    /// Something else of the plan.
    Part(FittedPart),
    /// The length of the sway links.
    SwayLinks(Length),
    /// What was noted.
    Note(String),
}
