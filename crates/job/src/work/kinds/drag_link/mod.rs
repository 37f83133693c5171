//! A drag-link part in place of the old one, and the link's sleeve: the steering wheel turns with the axle.

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// What is done to it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct DragLink {
    /// Whether another part is put in.
    pub fits: bool,
    /// Whether its sleeve is turned once the axle stands where it will.
    pub turns: bool,
}

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// The old end off its taper.
    Off,
    /// The part, by hand.
    On,
    /// It tight.
    Tight,
    /// It pinned.
    Pin,
    /// Its sleeve turned until the steering wheel is straight.
    Turn,
    /// The clamps of its sleeve.
    Clamps,
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Off => "drag-link/off",
            Self::On => "drag-link/on",
            Self::Tight => "drag-link/tight",
            Self::Pin => "drag-link/pin",
            Self::Turn => "drag-link/turn",
            Self::Clamps => "drag-link/clamps",
        }
    }

    /// Whether there is more to say of how it is done.
    pub(super) const fn has_how(self) -> bool {
        !matches!(self, Self::Tight)
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        true
    }
}

/// The nuts of its studs.
const STUDS: &[&str] = &["drag-link/studs"];

/// Its steps.
pub(super) fn tasks(link: DragLink) -> Vec<KindTask<Step>> {
    let mut tasks = Vec::new();
    if link.fits {
        // A ball stud is out of its taper before another goes in.
        tasks.push(KindTask::new(Step::Off, Phase::Hang).undoes());
        tasks.push(
            KindTask::new(Step::On, Phase::Hang)
                .undoes()
                .after(Step::Off, Rule::OutOfTheWay)
                .gives(Condition::DragLinkHung)
                .starts(STUDS),
        );
        tasks.push(
            KindTask::new(Step::Tight, Phase::Tighten)
                .after(Step::On, Rule::HandFirst)
                .gives(Condition::AxleTight)
                .tightens(STUDS),
        );
        tasks.push(KindTask::new(Step::Pin, Phase::Tighten).after(Step::Tight, Rule::TorqueBeforePin));
    }
    if link.turns {
        tasks.push(
            KindTask::new(Step::Turn, Phase::Steering)
                .once(Condition::AxleRead, Rule::CentredFirst)
                .once(Condition::ToeSet, Rule::ToeFirst)
                .once(Condition::OnItsWeight, Rule::OnItsWeight)
                .on_its_weight(),
        );
        tasks.push(
            KindTask::new(Step::Clamps, Phase::Steering)
                .after(Step::Turn, Rule::SetFirst)
                .tightens(&["drag-link/clamps"])
                .on_its_weight(),
        );
    }
    tasks
}
