//! A bar cut to its gap: coped, tacked where it hangs, welded out of the vehicle.

use super::eyes::ENDS;
use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// What is built.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct BuiltBar {
    /// Whether its gap is measured once its brackets are on: none was there before.
    pub tapes_gap: bool,
}

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// The gap measured between the brackets it will hang in.
    Gap,
    /// The stock cut and coped.
    Cut,
    /// Tacked where it hangs.
    Tack,
    /// The tacked bar out of the vehicle, and its bushings out of it.
    BushingsOut,
    /// Welded out of the vehicle.
    Weld,
    /// Its bushings in again, once it is cold.
    BushingsIn,
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Gap => "bar/gap",
            Self::Cut => "bar/cut",
            Self::Tack => "bar/tack",
            Self::BushingsOut => "bar/bushings-out",
            Self::Weld => "bar/build",
            Self::BushingsIn => "bar/bushings-in",
        }
    }

    /// Whether there is more to say of how it is done.
    pub(super) const fn has_how(self) -> bool {
        true
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        true
    }
}

/// A weld pulls its bracket: the gap is the one between brackets that are cold.
fn between_brackets(mut task: KindTask<Step>) -> KindTask<Step> {
    for end in ENDS {
        task = task
            .once(Condition::BracketCold(end), Rule::HungFirst)
            .once(Condition::BracketHung(end), Rule::HungFirst);
    }
    task
}

/// Its steps.
pub(super) fn tasks(bar: BuiltBar) -> Vec<KindTask<Step>> {
    let new = |step| KindTask::new(step, Phase::Build);
    let mocked_up = |step| new(step).once(Condition::MockedUp, Rule::MockUpFirst);
    let gap = || between_brackets(mocked_up(Step::Gap)).on_its_weight();
    let of_it = vec![
        between_brackets(mocked_up(Step::Cut)).after(Step::Gap, Rule::SetFirst),
        mocked_up(Step::Tack)
            .after(Step::Cut, Rule::SetFirst)
            .once(Condition::BatteryOff, Rule::BatteryOff)
            .gives(Condition::Welded)
            .on_its_weight(),
        // Off its bolts again, and no rubber near the arc.
        new(Step::BushingsOut).after(Step::Tack, Rule::TackFirst).supported(),
        mocked_up(Step::Weld)
            .after(Step::BushingsOut, Rule::OutOfTheWay)
            .after(Step::Tack, Rule::TackFirst)
            .once(Condition::BatteryOff, Rule::BatteryOff)
            .gives(Condition::Welded),
        new(Step::BushingsIn).after(Step::Weld, Rule::ColdFirst).gives(Condition::BarBuilt),
    ];
    bar.tapes_gap.then(gap).into_iter().chain(of_it).collect()
}
