//! A bracket at the frame or at the axle: bolted or welded on, with what comes off before it.

use derecho_core::parts::BracketEnd;

use crate::work::rules::Rule;
use crate::work::step::{Condition, KindTask, Phase};

/// The bracket that is put on at an end.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Bracket {
    /// Which end.
    pub end: BracketEnd,
    /// Whether it is welded on, else bolted.
    pub welds: bool,
    /// Whether something comes off before it goes on.
    pub comes_off: bool,
    /// Whether there was none before: it is placed from the axle at full bump.
    pub first: bool,
    /// Which of its bolts go through a bushing besides, in the order of [`Bolts::ALL`].
    pub through_bushing: [bool; 3],
}

/// Which of a bracket's bolts.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Bolts {
    /// The long one, or the one through the old eye hole.
    Main,
    /// Those at its side.
    Side,
    /// The small ones.
    Small,
}

impl Bolts {
    /// Every group in the usual order.
    pub const ALL: [Self; 3] = [Self::Main, Self::Side, Self::Small];

    /// As it is in the keys of gates.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Main => "main",
            Self::Side => "side",
            Self::Small => "small",
        }
    }

    /// The key of a group at an end, of the step that draws it up and of the fastener.
    #[must_use]
    pub const fn key(self, end: BracketEnd) -> &'static str {
        let keys = keys(end);
        match self {
            Self::Main => keys[0],
            Self::Side => keys[1],
            Self::Small => keys[2],
        }
    }
}

/// The keys of all groups at an end.
const fn keys(end: BracketEnd) -> &'static [&'static str; 3] {
    match end {
        BracketEnd::Frame => &["frame/main", "frame/side", "frame/small"],
        BracketEnd::Axle => &["axle/main", "axle/side", "axle/small"],
    }
}

/// An end in keys and words.
#[must_use]
pub const fn end_word(end: BracketEnd) -> &'static str {
    match end {
        BracketEnd::Frame => "frame",
        BracketEnd::Axle => "axle",
    }
}

/// A step of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// Something comes off before it goes on.
    ComesOff(BracketEnd),
    /// Placed on the frame where nothing of the axle reaches it.
    Place(BracketEnd),
    /// Bare metal for the weld.
    Bare(BracketEnd),
    /// Tacked.
    Tack(BracketEnd),
    /// Looked at again after the tack.
    TackCheck(BracketEnd),
    /// Welded out.
    Weld(BracketEnd),
    /// Cold, coated.
    Coat(BracketEnd),
    /// Its bolts by hand.
    ByHand(BracketEnd),
    /// Snug, and back a turn.
    Snug(BracketEnd),
    /// A group of its bolts.
    Tight(BracketEnd, Bolts),
}

impl Step {
    /// The key that ticks and orders go by.
    #[must_use]
    pub const fn key(self) -> &'static str {
        const fn at(end: BracketEnd, frame: &'static str, axle: &'static str) -> &'static str {
            match end {
                BracketEnd::Frame => frame,
                BracketEnd::Axle => axle,
            }
        }
        match self {
            Self::ComesOff(end) => at(end, "off/frame", "off/axle"),
            Self::Place(end) => at(end, "frame/place", "axle/place"),
            Self::Bare(end) => at(end, "frame/bare", "axle/bare"),
            Self::Tack(end) => at(end, "frame/tack", "axle/tack"),
            Self::TackCheck(end) => at(end, "frame/tack-check", "axle/tack-check"),
            Self::Weld(end) => at(end, "frame/weld", "axle/weld"),
            Self::Coat(end) => at(end, "frame/coat", "axle/coat"),
            Self::ByHand(end) => at(end, "frame/by-hand", "axle/by-hand"),
            Self::Snug(end) => at(end, "frame/snug", "axle/snug"),
            Self::Tight(end, bolts) => bolts.key(end),
        }
    }

    /// Whether there is more to say of how it is done.
    pub(super) const fn has_how(self) -> bool {
        !matches!(self, Self::Coat(_) | Self::Snug(_))
    }

    /// Whether it can hurt somebody.
    pub(super) const fn has_caution(self) -> bool {
        matches!(self, Self::Place(_) | Self::Bare(_) | Self::Tack(_) | Self::Weld(_))
    }
}

/// Its steps.
pub(super) fn tasks(bracket: Bracket) -> Vec<KindTask<Step>> {
    let end = bracket.end;
    // The old bar hangs in the bracket that comes off.
    let off = || {
        KindTask::new(Step::ComesOff(end), Phase::Undo)
            .undoes()
            .once(Condition::EyesFree, Rule::OutOfTheWay)
            .gives(Condition::OldBracketOff)
    };
    // Marked before anything is mocked up, ground or drilled by it.
    let place = || {
        in_the_clear(KindTask::new(Step::Place(end), Phase::Undo)).gives(Condition::BracketPlaced).supported()
    };
    let on = if bracket.welds { welded(end) } else { bolted(bracket) };
    bracket.comes_off.then(off).into_iter().chain(bracket.first.then(place)).chain(on).collect()
}

/// Everything that was in its place is out of it.
fn in_the_clear(task: KindTask<Step>) -> KindTask<Step> {
    task.once(Condition::OnStands, Rule::StandsFirst)
        .once(Condition::EyesFree, Rule::OutOfTheWay)
        .once(Condition::OldBracketOff, Rule::OutOfTheWay)
}

fn welded(end: BracketEnd) -> Vec<KindTask<Step>> {
    let new = |step| KindTask::new(step, Phase::Make);
    vec![
        in_the_clear(new(Step::Bare(end))).after(Step::Place(end), Rule::HungFirst),
        new(Step::Tack(end))
            .after(Step::Bare(end), Rule::OutOfTheWay)
            .once(Condition::MockedUp, Rule::MockUpFirst)
            .once(Condition::BatteryOff, Rule::BatteryOff)
            .once(Condition::Drilled, Rule::DrilledFirst)
            .gives(Condition::Welded),
        new(Step::TackCheck(end)).after(Step::Tack(end), Rule::TackFirst),
        new(Step::Weld(end))
            .after(Step::TackCheck(end), Rule::TackFirst)
            .once(Condition::BatteryOff, Rule::BatteryOff)
            .gives(Condition::Welded),
        new(Step::Coat(end)).after(Step::Weld(end), Rule::ColdFirst).gives(Condition::BracketCold(end)),
    ]
}

fn bolted(bracket: Bracket) -> Vec<KindTask<Step>> {
    let end = bracket.end;
    let mut tasks = vec![
        in_the_clear(KindTask::new(Step::ByHand(end), Phase::Brackets))
            .after(Step::Place(end), Rule::HungFirst)
            .once(Condition::Drilled, Rule::DrilledFirst)
            .gives(Condition::BracketHung(end))
            .gives(Condition::BarHung)
            .starts(keys(end)),
        KindTask::new(Step::Snug(end), Phase::Tighten).once(Condition::BarHung, Rule::HandFirst),
    ];
    let mut last = (Step::Snug(end), Rule::SnugFirst);
    for ((bolts, key), through) in
        Bolts::ALL.into_iter().zip(keys(end).chunks(1)).zip(bracket.through_bushing)
    {
        let mut task = KindTask::new(Step::Tight(end, bolts), Phase::Tighten)
            .after(last.0, last.1)
            .once(Condition::BarHung, Rule::HandFirst)
            .gives(Condition::BracketTight(end))
            .gives(Condition::AxleTight)
            .tightens(key);
        if through {
            task = task.once(Condition::OnItsWeight, Rule::OnItsWeight).on_its_weight();
        }
        tasks.push(task);
        last =
            (Step::Tight(end, bolts), if bolts == Bolts::Main { Rule::MainFirst } else { Rule::SideFirst });
    }
    tasks
}
