//! The track bar's eyes: what comes out of its brackets and is bolted in them again, whatever the bar or a bracket is worked on for.

use derecho_core::parts::BracketEnd;

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// Both ends, frame first.
pub const ENDS: [BracketEnd; 2] = [BracketEnd::Frame, BracketEnd::Axle];

/// What of the bar comes off and goes on again.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Eyes {
    /// Whether the whole bar that is there comes out.
    pub out: bool,
    /// The one eye that is unbolted where the bar stays.
    pub off: Option<BracketEnd>,
    /// Eyes whose bolt is eased: they stay in their hole.
    pub eased: Vec<BracketEnd>,
    /// Eyes that are bolted by hand.
    pub hung: Vec<BracketEnd>,
    /// Eyes whose bolt is drawn up.
    pub tight: Vec<EyeBolt>,
}

/// The bolt of an eye as it is drawn up.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct EyeBolt {
    /// Which eye.
    pub end: BracketEnd,
    /// Whether it clamps a bushing that must not be wound up.
    pub bushing: bool,
    /// Whether its nut is a castle nut, which is pinned.
    pub castle: bool,
}

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// The old bar comes out.
    Out,
    /// One eye is unbolted.
    Off(BracketEnd),
    /// The bolt of an eye that stays is eased.
    Eased(BracketEnd),
    /// An eye in its hole, by hand.
    ByHand(BracketEnd),
    /// An eye's bolt.
    Tight(BracketEnd),
    /// A cotter pin through an eye's castle nut.
    Pin(BracketEnd),
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Out => "bar/out",
            Self::Off(_) => "bar/eye-off",
            Self::Eased(BracketEnd::Frame) => "bar/frame-eye-eased",
            Self::Eased(BracketEnd::Axle) => "bar/axle-eye-eased",
            Self::ByHand(BracketEnd::Frame) => "bar/frame-eye-by-hand",
            Self::ByHand(BracketEnd::Axle) => "bar/axle-eye-by-hand",
            Self::Tight(end) => bolt_key(end),
            Self::Pin(BracketEnd::Frame) => "bar/frame-eye-pin",
            Self::Pin(BracketEnd::Axle) => "bar/axle-eye-pin",
        }
    }

    /// Whether there is more to say of how it is done, beside what the job's figures give.
    pub(super) const fn has_how(self) -> bool {
        !matches!(self, Self::ByHand(_))
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        matches!(self, Self::Out | Self::Off(_) | Self::Eased(_) | Self::ByHand(_))
    }
}

/// Key of the bolt through the bar's eye at an end.
#[must_use]
pub const fn bolt_key(end: BracketEnd) -> &'static str {
    match end {
        BracketEnd::Frame => "bar/frame-eye",
        BracketEnd::Axle => "bar/axle-eye",
    }
}

/// The key of an eye's bolt, as a list that lasts.
const fn bolts(end: BracketEnd) -> &'static [&'static str] {
    match end {
        BracketEnd::Frame => &["bar/frame-eye"],
        BracketEnd::Axle => &["bar/axle-eye"],
    }
}

/// Its steps.
pub(super) fn tasks(eyes: &Eyes) -> Vec<KindTask<Step>> {
    let out = eyes.out.then_some(Step::Out).into_iter().chain(eyes.off.map(Step::Off));
    let mut tasks: Vec<_> = out
        .map(|step| KindTask::new(step, Phase::Undo).undoes().gives(Condition::EyesFree))
        .chain(eyes.eased.iter().map(|end| KindTask::new(Step::Eased(*end), Phase::Undo).undoes()))
        .collect();
    for end in &eyes.hung {
        let mut task = KindTask::new(Step::ByHand(*end), Phase::Hang)
            .once(Condition::OnStands, Rule::StandsFirst)
            .once(Condition::EyesFree, Rule::OutOfTheWay)
            .once(Condition::BarSet, Rule::SetFirst)
            .once(Condition::BarBuilt, Rule::HungFirst)
            .once(Condition::BracketCold(*end), Rule::ColdFirst)
            .once(Condition::BracketHung(*end), Rule::HungFirst)
            .gives(Condition::BarHung)
            .starts(bolts(*end));
        if *end == BracketEnd::Axle {
            task = task.after(Step::ByHand(BracketEnd::Frame), Rule::HungFirst);
        }
        tasks.push(task);
    }
    for bolt in &eyes.tight {
        tasks.extend(drawn_up(*bolt));
    }
    tasks
}

/// An eye's bolt after its bracket's, and its pin.
fn drawn_up(bolt: EyeBolt) -> Vec<KindTask<Step>> {
    let end = bolt.end;
    let mut task = KindTask::new(Step::Tight(end), Phase::Set)
        .once(Condition::BracketTight(end), Rule::BarBoltLast)
        .once(Condition::BarHung, Rule::HandFirst)
        .after(Step::Eased(end), Rule::LooseFirst)
        .gives(Condition::AxleTight)
        .tightens(bolts(end));
    if bolt.bushing {
        task = task.once(Condition::OnItsWeight, Rule::OnItsWeight).on_its_weight();
    }
    let pin = || KindTask::new(Step::Pin(end), Phase::Set).after(Step::Tight(end), Rule::TorqueBeforePin);
    std::iter::once(task).chain(bolt.castle.then(pin)).collect()
}
