//! A shim under the sway bar's other clamp, as thick as the one that is there: one alone tilts the bar.

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};
use derecho_core::measure::{Length, Side};

/// What is put in.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct SecondShim {
    /// As thick as the one that is there.
    pub thickness: Length,
    /// The side it goes under; None where nobody said under which the other is.
    pub side: Option<Side>,
    /// Whether the sway bar itself is installed in the same job, with its clamps open.
    pub with_the_bar: bool,
}

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// The clamps loosened.
    Loose,
    /// The shim in.
    In,
    /// The clamps tight.
    Tight,
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Loose => "shim/loose",
            Self::In => "shim/in",
            Self::Tight => "shim/tight",
        }
    }

    /// Whether there is more to say of how it is done.
    pub(super) const fn has_how(self) -> bool {
        true
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        matches!(self, Self::Loose)
    }
}

/// Its steps.
pub(super) fn tasks(shim: SecondShim) -> Vec<KindTask<Step>> {
    let bring_in = KindTask::new(Step::In, Phase::Hang)
        .undoes()
        .after(Step::Loose, Rule::LooseFirst)
        .once(Condition::SwayBarOff, Rule::OutOfTheWay)
        .gives(Condition::ShimIn);
    if shim.with_the_bar {
        return vec![bring_in];
    }
    vec![
        KindTask::new(Step::Loose, Phase::Undo).undoes(),
        bring_in,
        KindTask::new(Step::Tight, Phase::OnItsWeight)
            .after(Step::In, Rule::HungFirst)
            .once(Condition::OnItsWeight, Rule::OnItsWeight)
            .gives(Condition::SwayBarTight)
            .tightens(&["sway/clamps"])
            .on_its_weight(),
    ]
}
