//! A sway bar of one piece: the old one off, the bushings greased in the bore before the clamps close, the bar even.

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// The old bar comes off.
    OldOff,
    /// Bushings greased and over the bar.
    Bushings,
    /// In its clamps, by hand.
    ByHand,
    /// Equal stick-out.
    StickOut,
    /// Its clamps.
    Clamps,
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
            Self::Clamps => "sway/mounts",
        }
    }

    /// Whether there is more to say of how it is done.
    pub(super) const fn has_how(self) -> bool {
        true
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        matches!(self, Self::OldOff | Self::ByHand)
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
        KindTask::new(Step::Clamps, Phase::OnItsWeight)
            .after(Step::StickOut, Rule::StickOutFirst)
            .once(Condition::ShimIn, Rule::HungFirst)
            .once(Condition::LinksHung, Rule::HandFirst)
            .once(Condition::OnItsWeight, Rule::OnItsWeight)
            .gives(Condition::SwayBarTight)
            .tightens(&["sway/clamps"])
            .on_its_weight(),
    ]
}
