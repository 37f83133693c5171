//! The sway links: the old ones off, set and hung, tight on the weight, looked at, locked.

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};
use derecho_core::measure::Length;

/// A hole of the sway arm, counted from the stiff end.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct ArmHolePlace {
    /// Which it is, 1 the shortest arm.
    pub number: usize,
    /// Of how many.
    pub of: usize,
    /// The arm to it, from the bar's axis.
    pub arm: Length,
}

/// What is done to the sway links.
#[derive(Clone, Debug, PartialEq)]
pub struct Links {
    /// The length they get, where that is another one than they have.
    pub length: Option<Length>,
    /// Whether that length is their own, with no thread to turn.
    pub fixed: bool,
    /// The hole they go to, where that is another one.
    pub hole: Option<ArmHolePlace>,
    /// How much longer the left link is than the right one, where that is wanted; nothing where both are alike.
    pub left_longer: Length,
    /// Whether their far ends are pinned, not bolted.
    pub pinned: bool,
}

impl Links {
    /// How much longer the left one is on purpose; None where both are alike.
    #[must_use]
    pub fn unequal(&self) -> Option<Length> {
        (self.left_longer != Length::ZERO).then_some(self.left_longer)
    }
}

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// The old links come off.
    Off,
    /// Set.
    Set,
    /// Hung by hand.
    ByHand,
    /// Their bolts.
    Tight,
    /// Both arms or links looked at.
    Read,
    /// Their jam nuts.
    Jam,
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Off => "sway/links-off",
            Self::Set => "sway/links-set",
            Self::ByHand => "sway/links-by-hand",
            Self::Tight => "sway/links-tight",
            Self::Read => "sway/links-read",
            Self::Jam => "sway/links-jam",
        }
    }

    /// Whether there is more to say of how it is done.
    pub(super) const fn has_how(self) -> bool {
        !matches!(self, Self::Read | Self::Jam)
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        matches!(self, Self::Off | Self::Set | Self::ByHand)
    }
}

/// Its steps.
pub(super) fn tasks(links: &Links) -> Vec<KindTask<Step>> {
    let changes = links.length.is_some();
    let sets = changes && !links.fixed;
    let bolts: &[&str] = if links.pinned { &["sway/arm-eyes"] } else { &["sway/arm-eyes", "sway/far-ends"] };
    let mut tasks = vec![KindTask::new(Step::Off, Phase::Undo).undoes().gives(Condition::LinksOff)];
    if sets {
        tasks.push(KindTask::new(Step::Set, Phase::Hang).after(Step::Off, Rule::OutOfTheWay));
    }
    tasks.push(
        KindTask::new(Step::ByHand, Phase::Hang)
            .undoes()
            .after(Step::Off, Rule::OutOfTheWay)
            .after(Step::Set, Rule::SetFirst)
            .once(Condition::SwayBarHung, Rule::HungFirst)
            .once(Condition::StudsIn, Rule::HungFirst)
            .gives(Condition::LinksHung)
            .starts(bolts),
    );
    tasks.push(
        KindTask::new(Step::Tight, Phase::OnItsWeight)
            .after(Step::ByHand, Rule::HandFirst)
            .once(Condition::OnItsWeight, Rule::OnItsWeight)
            .gives(Condition::LinksTight)
            .tightens(bolts)
            .on_its_weight(),
    );
    if changes {
        tasks.push(
            KindTask::new(Step::Read, Phase::OnItsWeight)
                .after(Step::Tight, Rule::TightFirst)
                .once(Condition::ArmsSet, Rule::TightFirst)
                .once(Condition::SwayBarTight, Rule::TightFirst)
                .on_its_weight(),
        );
    }
    if sets {
        tasks.push(
            KindTask::new(Step::Jam, Phase::OnItsWeight)
                .after(Step::Read, Rule::ReadBeforeJam)
                .tightens(&["sway/links-jam"]),
        );
    }
    tasks
}
