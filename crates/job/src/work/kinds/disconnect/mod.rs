//! A pin disconnect: sleeves out of the links' eyes, studs in, pins in and out on level ground, the stowed link clear.

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// What is done for it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Disconnect {
    /// Whether sleeves are pressed out of the links' eyes.
    pub presses: bool,
    /// Whether the links are stowed on studs of their own.
    pub stows: bool,
}

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// Sleeves out of the links' eyes.
    Press,
    /// Studs in, by hand.
    Studs,
    /// The studs' nuts.
    StudsTight,
    /// Studs to stow the links on.
    Stow,
    /// Pins in and out on level ground.
    Pins,
    /// Stowed, and cycled.
    Stowed,
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Press => "disconnect/press",
            Self::Studs => "disconnect/studs-in",
            Self::StudsTight => "disconnect/studs-tight",
            Self::Stow => "disconnect/stow",
            Self::Pins => "disconnect/pins",
            Self::Stowed => "disconnect/stowed",
        }
    }

    /// Whether there is more to say of how it is done.
    pub(super) const fn has_how(self) -> bool {
        !matches!(self, Self::StudsTight)
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        matches!(self, Self::Press | Self::Pins | Self::Stowed)
    }
}

/// Its steps.
pub(super) fn tasks(disconnect: Disconnect) -> Vec<KindTask<Step>> {
    let mut tasks = Vec::new();
    if disconnect.presses {
        tasks.push(KindTask::new(Step::Press, Phase::Hang).once(Condition::LinksOff, Rule::OutOfTheWay));
    }
    tasks.push(
        KindTask::new(Step::Studs, Phase::Hang)
            .undoes()
            .once(Condition::LinksOff, Rule::OutOfTheWay)
            .after(Step::Press, Rule::SetFirst)
            .starts(&["disconnect/studs"]),
    );
    tasks.push(
        KindTask::new(Step::StudsTight, Phase::Hang)
            .after(Step::Studs, Rule::HandFirst)
            .gives(Condition::StudsIn)
            .tightens(&["disconnect/studs"]),
    );
    if disconnect.stows {
        tasks.push(KindTask::new(Step::Stow, Phase::Hang).undoes().tightens(&["disconnect/stow"]));
    }
    tasks.push(
        KindTask::new(Step::Pins, Phase::OnItsWeight)
            .once(Condition::OnItsWeight, Rule::OnItsWeight)
            .once(Condition::LinksTight, Rule::TightFirst)
            .on_its_weight(),
    );
    if disconnect.stows {
        tasks.push(
            KindTask::new(Step::Stowed, Phase::OnItsWeight)
                .after(Step::Pins, Rule::SetFirst)
                .after(Step::Stow, Rule::HungFirst),
        );
    }
    tasks
}
