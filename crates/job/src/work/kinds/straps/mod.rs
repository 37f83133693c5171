//! A pair of limit straps: hung and tight, tried at full droop, slack where it is driven.

use derecho_core::measure::Length;

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// What is installed.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Straps {
    /// Their length, tight.
    pub length: Option<Length>,
    /// Between their ends at full droop.
    pub at_droop: Option<Length>,
    /// Between their ends at the driven height.
    pub at_driven: Option<Length>,
}

impl Straps {
    /// How much shorter they are than the way between their ends at full droop; below nought they hang slack there, and
    /// catch nothing.
    #[must_use]
    pub fn before_droop(&self) -> Option<Length> {
        Some(self.at_droop? - self.length?)
    }

    /// How slack they are at the driven height; below nought they are tight there.
    #[must_use]
    pub fn slack(&self) -> Option<Length> {
        Some(self.length? - self.at_driven?)
    }
}

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// Both by hand.
    ByHand,
    /// Their bolts.
    Tight,
    /// Looked at, at full droop.
    Droop,
    /// Looked at, at the driven height.
    Slack,
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::ByHand => "straps/by-hand",
            Self::Tight => "straps/tight",
            Self::Droop => "straps/droop",
            Self::Slack => "straps/slack",
        }
    }

    /// Whether there is more to say of how it is done.
    pub(super) const fn has_how(self) -> bool {
        !matches!(self, Self::Tight)
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        matches!(self, Self::ByHand | Self::Droop)
    }
}

/// Their bolts, at the frame and at the axle.
pub const BOLTS: [&str; 2] = ["straps/frame-ends", "straps/axle-ends"];

/// Its steps.
pub(super) fn tasks() -> Vec<KindTask<Step>> {
    vec![
        KindTask::new(Step::ByHand, Phase::Hang).undoes().starts(&BOLTS),
        KindTask::new(Step::Tight, Phase::Tighten).after(Step::ByHand, Rule::HandFirst).tightens(&BOLTS),
        // The axle hangs from them only with the bolts tight, and while it is off its wheels.
        KindTask::new(Step::Droop, Phase::Tighten).after(Step::Tight, Rule::TightFirst).supported(),
        KindTask::new(Step::Slack, Phase::OnItsWeight)
            .after(Step::Tight, Rule::TightFirst)
            .once(Condition::OnItsWeight, Rule::OnItsWeight)
            .on_its_weight(),
    ]
}
