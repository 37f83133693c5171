//! The length of an adjustable bar: its sleeve turned with both ends bolted, or one end unbolted and turned.

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// How it is set.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Length {
    /// Whether it is set with an eye free.
    pub bench: bool,
    /// Whether its sleeve is turned on the weight.
    pub sleeve: bool,
    /// The end that is unbolted to be turned, where no other eye is.
    pub end: Option<AdjustingEnd>,
}

/// The end that turns.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct AdjustingEnd {
    /// Whether its bolt clamps a bushing that must not be wound up.
    pub bushing: bool,
    /// Whether its nut is a castle nut, which is pinned.
    pub castle: bool,
}

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// The adjusting end is unbolted.
    EndOff,
    /// The bar set with an eye free.
    Bench,
    /// The adjusting end turned and back in, by hand.
    EndByHand,
    /// The jam nuts or clamps of a sleeve loosened.
    Loosen,
    /// The sleeve turned.
    Turn,
    /// The adjusting end's bolt.
    EndTight,
    /// A cotter pin through its castle nut.
    EndPin,
    /// Jam nuts or clamps of the bar.
    Jam,
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::EndOff => "bar/adjuster-off",
            Self::Bench => "bar/bench",
            Self::EndByHand => "bar/adjuster-by-hand",
            Self::Loosen => "bar/loosen",
            Self::Turn => "bar/turn",
            Self::EndTight => BOLT,
            Self::EndPin => "bar/adjuster-pin",
            Self::Jam => "bar/jam",
        }
    }

    /// Whether there is more to say of how it is done, beside what the job's figures give.
    pub(super) const fn has_how(self) -> bool {
        !matches!(self, Self::EndOff | Self::Turn)
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        matches!(self, Self::EndOff | Self::Bench | Self::EndByHand)
    }
}

/// Key of the bolt through the eye of a bar's adjusting end.
pub const BOLT: &str = "bar/adjuster";

/// Its steps.
pub(super) fn tasks(length: Length) -> Vec<KindTask<Step>> {
    let mut tasks = Vec::new();
    if length.bench {
        tasks.push(
            KindTask::new(Step::Bench, Phase::Build)
                .once(Condition::EyesFree, Rule::OutOfTheWay)
                .gives(Condition::BarSet),
        );
    }
    if length.sleeve {
        let on_its_weight = |step| {
            KindTask::new(step, Phase::Set).once(Condition::OnItsWeight, Rule::OnItsWeight).on_its_weight()
        };
        tasks.push(on_its_weight(Step::Loosen));
        tasks.push(on_its_weight(Step::Turn).after(Step::Loosen, Rule::LooseFirst).gives(Condition::AxleSet));
    }
    if let Some(end) = length.end {
        tasks.extend(end_turned(end));
    }
    // Turned with its jam nuts loose, and read so: they are last.
    tasks.push(
        KindTask::new(Step::Jam, Phase::OnItsWeight)
            .once(Condition::AxleRead, Rule::ReadBeforeJam)
            .tightens(&["bar/jam"])
            .on_its_weight(),
    );
    tasks
}

fn end_turned(end: AdjustingEnd) -> Vec<KindTask<Step>> {
    let mut tight = KindTask::new(Step::EndTight, Phase::Set)
        .once(Condition::BarHung, Rule::HandFirst)
        .gives(Condition::AxleTight)
        .tightens(&[BOLT]);
    if end.bushing {
        tight = tight.once(Condition::OnItsWeight, Rule::OnItsWeight).on_its_weight();
    }
    let pin = || KindTask::new(Step::EndPin, Phase::Set).after(Step::EndTight, Rule::TorqueBeforePin);
    vec![
        KindTask::new(Step::EndOff, Phase::Undo).undoes(),
        KindTask::new(Step::EndByHand, Phase::Hang)
            .after(Step::EndOff, Rule::LooseFirst)
            .gives(Condition::BarHung)
            .starts(&[BOLT]),
        tight,
    ]
    .into_iter()
    .chain(end.castle.then(pin))
    .collect()
}
