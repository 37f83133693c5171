//! Another bar in place of the old one: set on the bench before it hangs. Its eyes are those of any bar (`eyes`), its jam
//! nuts those of any length (`length`).

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// The new bar set on the bench.
    Bench,
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Bench => "bar/bench",
        }
    }

    /// Whether there is more to say of how it is done, beside what the job's figures give.
    pub(super) const fn has_how(self) -> bool {
        false
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        true
    }
}

/// Its steps. The old bar is out first: side by side with it the new one is held against it.
pub(super) fn tasks() -> Vec<KindTask<Step>> {
    vec![
        KindTask::new(Step::Bench, Phase::Build)
            .once(Condition::EyesFree, Rule::OutOfTheWay)
            .gives(Condition::BarSet),
    ]
}
