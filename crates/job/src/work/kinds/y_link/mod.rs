//! A Y-shaped upper link: hung in place of the old upper arm and the track bar, or its legs turned where it is there.

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// What is done to it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct YLink {
    /// Whether it is put in, in place of an upper arm and a track bar.
    pub converts: bool,
    /// Whether spacers stand behind the old upper mount.
    pub spacers: bool,
}

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// The pinion's angle, before anything comes apart.
    PinionBefore,
    /// The track bar comes out.
    BarOut,
    /// The old upper arm comes out.
    ArmOut,
    /// Its brackets on frame and axle.
    Brackets,
    /// It hangs, by hand.
    ByHand,
    /// The spacers behind the old upper mount out.
    Spacers,
    /// Its legs turned.
    Legs,
    /// Pinion and squareness looked at.
    Pinion,
    /// All its bolts.
    Bolts,
    /// The legs' jam nuts.
    Jam,
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::PinionBefore => "legs/pinion-before",
            Self::BarOut => "legs/bar-out",
            Self::ArmOut => "legs/arm-out",
            Self::Brackets => "legs/brackets-on",
            Self::ByHand => "legs/by-hand",
            Self::Spacers => "legs/spacers",
            Self::Legs => "legs/turn",
            Self::Pinion => "legs/pinion",
            Self::Bolts => "legs/bolts-tight",
            Self::Jam => "legs/jam",
        }
    }

    /// Whether there is more to say of how it is done, beside what the job's figures give.
    pub(super) const fn has_how(self) -> bool {
        !matches!(self, Self::Spacers | Self::Legs | Self::Jam)
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        matches!(self, Self::BarOut | Self::ArmOut | Self::Brackets | Self::ByHand | Self::Spacers)
    }
}

/// What comes out for it, and how it comes to hang.
fn put_in() -> Vec<KindTask<Step>> {
    vec![
        KindTask::new(Step::PinionBefore, Phase::Undo)
            .once(Condition::CornersRead, Rule::ReadFirst)
            .gives(Condition::ReadBefore)
            .on_its_weight(),
        KindTask::new(Step::BarOut, Phase::Undo).undoes().supported(),
        KindTask::new(Step::ArmOut, Phase::Undo).undoes().after(Step::BarOut, Rule::OutOfTheWay).supported(),
        KindTask::new(Step::Brackets, Phase::Hang)
            .undoes()
            .after(Step::ArmOut, Rule::OutOfTheWay)
            .tightens(&["legs/brackets"]),
        KindTask::new(Step::ByHand, Phase::Hang)
            .after(Step::Brackets, Rule::HungFirst)
            .starts(&["legs/bolts"])
            .supported(),
    ]
}

/// Its steps.
pub(super) fn tasks(link: YLink) -> Vec<KindTask<Step>> {
    let mut tasks = if link.converts { put_in() } else { Vec::new() };
    if link.spacers || link.converts {
        // They keep the housing from turning as it is let down; the new link holds it once it hangs.
        tasks.push(
            KindTask::new(Step::Spacers, Phase::Tighten)
                .once(Condition::OnStands, Rule::StandsFirst)
                .after(Step::ByHand, Rule::HungFirst)
                .gives(Condition::HousingFree)
                .supported(),
        );
    }
    let legs = KindTask::new(Step::Legs, Phase::Set)
        .once(Condition::OnItsWeight, Rule::OnItsWeight)
        .once(Condition::HousingFree, Rule::OutOfTheWay)
        .gives(Condition::AxleSet)
        .on_its_weight();
    tasks.push(legs);
    if link.converts {
        tasks.push(
            KindTask::new(Step::Pinion, Phase::Set).after(Step::Legs, Rule::SetBeforeRead).on_its_weight(),
        );
        tasks.push(
            KindTask::new(Step::Bolts, Phase::Set)
                .after(Step::Pinion, Rule::SetFirst)
                .once(Condition::OnItsWeight, Rule::OnItsWeight)
                .gives(Condition::AxleSet)
                .tightens(&["legs/bolts"])
                .on_its_weight(),
        );
    }
    tasks.push(
        KindTask::new(Step::Jam, Phase::OnItsWeight)
            .once(Condition::AxleRead, Rule::ReadBeforeJam)
            .tightens(&["legs/jam"])
            .on_its_weight(),
    );
    tasks
}
