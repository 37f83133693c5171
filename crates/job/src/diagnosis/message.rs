//! What the search for a cause has to say, as facts.

use derecho_core::measure::Length;

use super::figures::FigureKind;
use crate::document::ComplaintAbout;
use crate::document::diagnosis::{FoundCause, QuickCheck, Suspect};
use crate::message::{OfTopic, Topic};

/// A message of the search for a cause. Shares are between nought and one.
#[expect(missing_docs, reason = "a message holds what its fields are named; lengths are of their type")]
#[derive(Clone, Debug, PartialEq)]
pub enum DiagnosisMessage {
    /// What is likeliest, and whether that can be told.
    Likeliest {
        suspect: Suspect,
        share: f64,
        told: bool,
        /// The next likeliest, where it is too close to call.
        rival: Option<Suspect>,
    },
    /// Nothing wrong explains it best.
    NothingPoints {
        /// The complaint that what is known of the bar and the axle explains.
        explained: Option<ComplaintAbout>,
    },
    /// A cause was confirmed and is still there.
    Confirmed(Suspect),
    /// A cause was confirmed and mended.
    Mended(Suspect),
    /// A suspect by its name, with how large it is.
    Suspected {
        suspect: Suspect,
        /// + left, up, longer or higher on the left, and what that is good to, U.
        size: Option<(Length, Length)>,
    },
    /// Why it would explain what is seen.
    Because(Suspect),
    /// What is done about it.
    Mend(Suspect),
    /// The question of a quick check.
    Asks(QuickCheck),
    /// What to mind at it.
    Mind(QuickCheck),
    /// What an answer to it would mean.
    Outcome { seen: bool, likeliest: Option<Suspect>, share: f64 },
    /// What was seen.
    Seen { check: QuickCheck, seen: bool },
    /// What was seen at a check and nobody put right.
    StillThere(QuickCheck),
    /// What a figure is of.
    Figure(FigureKind),
    /// A cause as the record has it: what was found, what was seen, and what was done about it.
    Record(FoundCause),
    /// A difference in a figure: mm, of an angle degrees, of weights hundredths.
    Amount { kind: FigureKind, value: f64 },
    /// A confirmed cause that nobody has mended, with what was seen.
    CauseOpen { suspect: Suspect, note: String },
}

impl OfTopic for DiagnosisMessage {
    const TOPIC: Topic = Topic::Diagnosis;
}
