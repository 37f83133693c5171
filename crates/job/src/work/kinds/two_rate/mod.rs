//! A sway bar of two rates, or one that is disconnected by power: it is tightened only once its lock is found both ways.

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// The old bar comes off.
    OldOff,
    /// Bushings greased.
    Bushings,
    /// In its blocks, their bolts loose.
    ByHand,
    /// Equal stick-out.
    StickOut,
    /// Its lock found both ways, the blocks loose.
    Lock,
    /// Its blocks.
    Blocks,
    /// Its lock once more, the blocks tight.
    LockAgain,
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::OldOff => "sway/old-off",
            Self::Bushings => "sway/bushings",
            Self::ByHand => "sway/by-hand",
            Self::StickOut => "sway/stick-out",
            Self::Lock => "sway/rate-lock",
            Self::Blocks => "sway/mounts",
            Self::LockAgain => "sway/rate-lock-again",
        }
    }

    /// Whether there is more to say of how it is done.
    pub(super) const fn has_how(self) -> bool {
        !matches!(self, Self::Blocks)
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        matches!(self, Self::OldOff | Self::ByHand | Self::Lock)
    }
}

/// Its steps.
pub(super) fn tasks() -> Vec<KindTask<Step>> {
    vec![
        KindTask::new(Step::OldOff, Phase::Undo)
            .undoes()
            .once(Condition::LinksOff, Rule::OutOfTheWay)
            .gives(Condition::SwayBarOff),
        KindTask::new(Step::Bushings, Phase::Hang).once(Condition::SwayBarOff, Rule::OutOfTheWay),
        KindTask::new(Step::ByHand, Phase::Hang)
            .undoes()
            .once(Condition::SwayBarOff, Rule::OutOfTheWay)
            .after(Step::Bushings, Rule::GreasedFirst)
            .gives(Condition::SwayBarHung)
            .starts(&["sway/clamps"]),
        KindTask::new(Step::StickOut, Phase::Hang).after(Step::ByHand, Rule::HungFirst),
        KindTask::new(Step::Lock, Phase::OnItsWeight)
            .after(Step::StickOut, Rule::StickOutFirst)
            .once(Condition::LinksHung, Rule::HandFirst)
            .once(Condition::OnItsWeight, Rule::OnItsWeight)
            .on_its_weight(),
        KindTask::new(Step::Blocks, Phase::OnItsWeight)
            .after(Step::Lock, Rule::LockFirst)
            .once(Condition::ShimIn, Rule::HungFirst)
            .gives(Condition::SwayBarTight)
            .tightens(&["sway/clamps"])
            .on_its_weight(),
        KindTask::new(Step::LockAgain, Phase::OnItsWeight)
            .after(Step::Blocks, Rule::TightFirst)
            .on_its_weight(),
    ]
}
