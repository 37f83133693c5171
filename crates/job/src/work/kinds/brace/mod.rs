//! A brace from the frame bracket to the far rail: by hand with the bracket, tight after it.

use derecho_core::parts::BracketEnd;

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// What is installed.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Brace {
    /// What it is called.
    pub name: String,
}

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// Both ends by hand.
    ByHand,
    /// Both ends tight.
    Tight,
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::ByHand => "brace/by-hand",
            Self::Tight => "brace/tight",
        }
    }

    /// Whether there is more to say of how it is done.
    pub(super) const fn has_how(self) -> bool {
        true
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        matches!(self, Self::ByHand)
    }
}

/// Its bolts, at the bracket and at the rail.
pub const BOLTS: [&str; 2] = ["brace/bracket-end", "brace/rail-end"];

/// Its steps.
pub(super) fn tasks() -> Vec<KindTask<Step>> {
    vec![
        KindTask::new(Step::ByHand, Phase::Hang)
            .undoes()
            .once(Condition::BracketHung(BracketEnd::Frame), Rule::HungFirst)
            .once(Condition::BracketCold(BracketEnd::Frame), Rule::HungFirst)
            .starts(&BOLTS),
        KindTask::new(Step::Tight, Phase::Tighten)
            .after(Step::ByHand, Rule::HandFirst)
            .once(Condition::BracketTight(BracketEnd::Frame), Rule::BracketFirst)
            .tightens(&BOLTS),
    ]
}
