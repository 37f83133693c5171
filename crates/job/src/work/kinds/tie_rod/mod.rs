//! The tie rod to the other side of the steering arms: off its tapers, its new seats, in, looked at lock to lock, tight and
//! pinned, toe set on the weight.

use derecho_core::measure::Length;

use crate::document::hardpoints::{TieRodSeats, TieRodTo};
use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// How it moves.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct TieRod {
    /// Where it goes.
    pub to: TieRodTo,
    /// How far its middle goes up or down with that, without a sign.
    pub by: Option<Length>,
    /// What its studs go into there.
    pub seats: TieRodSeats,
}

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// Both ends off their tapers.
    Off,
    /// Seats for its studs from the other side.
    Seats,
    /// In its new place, by hand.
    On,
    /// Looked at from lock to lock, up and down.
    Clear,
    /// The nuts of its studs.
    Tight,
    /// Pinned.
    Pin,
    /// Toe.
    Toe,
    /// The clamps of its ends.
    Clamps,
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Off => "tie-rod/off",
            Self::Seats => "tie-rod/seats",
            Self::On => "tie-rod/on",
            Self::Clear => "tie-rod/clear",
            Self::Tight => "tie-rod/tight",
            Self::Pin => "tie-rod/pin",
            Self::Toe => "tie-rod/toe",
            Self::Clamps => "tie-rod/clamps",
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
const STUDS: &[&str] = &["tie-rod/studs"];

/// Its steps.
pub(super) fn tasks(tie_rod: TieRod) -> Vec<KindTask<Step>> {
    let seats = (tie_rod.seats != TieRodSeats::There)
        .then(|| KindTask::new(Step::Seats, Phase::Hang).after(Step::Off, Rule::OutOfTheWay).supported());
    // Nothing is set down on wheels that no tie rod holds: a built bar's gap and tack come before.
    let off = KindTask::new(Step::Off, Phase::Hang).undoes().once(Condition::BarBuilt, Rule::TieRodHolds);
    let mut tasks = vec![off.supported()];
    tasks.extend(seats);
    tasks.extend([
        KindTask::new(Step::On, Phase::Hang)
            .after(Step::Off, Rule::OutOfTheWay)
            .after(Step::Seats, Rule::DrilledFirst)
            .starts(STUDS),
        // What it has to clear hangs where it will: the track bar, its brackets, the drag link.
        KindTask::new(Step::Clear, Phase::Tighten)
            .after(Step::On, Rule::HungFirst)
            .once(Condition::BarHung, Rule::HungFirst)
            .once(Condition::DragLinkHung, Rule::HungFirst)
            .supported(),
        KindTask::new(Step::Tight, Phase::Tighten)
            .after(Step::On, Rule::HandFirst)
            .after(Step::Clear, Rule::ClearFirst)
            .gives(Condition::AxleTight)
            .tightens(STUDS),
        KindTask::new(Step::Pin, Phase::Tighten).after(Step::Tight, Rule::TorqueBeforePin),
        KindTask::new(Step::Toe, Phase::Steering)
            .after(Step::Tight, Rule::TightFirst)
            .once(Condition::OnItsWeight, Rule::OnItsWeight)
            .on_its_weight(),
        KindTask::new(Step::Clamps, Phase::Steering)
            .after(Step::Toe, Rule::SetFirst)
            .gives(Condition::ToeSet)
            .tightens(&["tie-rod/clamps"])
            .on_its_weight(),
    ]);
    tasks
}
