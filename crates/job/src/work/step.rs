//! A step of a kind of work, and the conditions by which steps of different kinds join: a kind names no step of another.

use derecho_core::parts::BracketEnd;

use super::rules::Rule;
use crate::document::work::Stands;

/// What is so of the vehicle once a step is done.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Condition {
    /// The corners are read.
    CornersRead,
    /// What is to be compared afterwards is read as it stood.
    ReadBefore,
    /// Stands are under the frame.
    OnStands,
    /// The bar, or the eye that moves, is out of its bracket.
    EyesFree,
    /// Whatever a bracket takes the place of is off.
    OldBracketOff,
    /// A first bracket has its place on the frame.
    BracketPlaced,
    /// Everything is held where it will be, and was cycled.
    MockedUp,
    /// What is to be drilled is.
    Drilled,
    /// The battery is off.
    BatteryOff,
    /// An arc was struck, and the weld is made.
    Welded,
    /// The battery is on again.
    BatteryOn,
    /// A welded bracket is cold and coated.
    BracketCold(BracketEnd),
    /// A bolted bracket is started by hand.
    BracketHung(BracketEnd),
    /// A group of a bracket's bolts is tight.
    BracketTight(BracketEnd),
    /// The bar is set to its length on the bench.
    BarSet,
    /// A built bar is cold, with its bushings in.
    BarBuilt,
    /// Something of the bar or its brackets is started by hand.
    BarHung,
    /// The drag link's part is started by hand.
    DragLinkHung,
    /// What holds the axle sideways, or steers it, is tight.
    AxleTight,
    /// It is down on its wheels.
    OnItsWeight,
    /// Both sides are read again.
    AxleRead,
    /// Toe is set.
    ToeSet,
    /// Nothing keeps the housing from turning.
    HousingFree,
    /// The axle stands where it will, and can be read.
    AxleSet,
    /// The old sway links are off.
    LinksOff,
    /// The old sway bar is off.
    SwayBarOff,
    /// The sway bar and its arms hang, by hand.
    SwayBarHung,
    /// Whatever goes under the sway bar's clamps is there.
    ShimIn,
    /// The sway bar's clamps or mounts are tight.
    SwayBarTight,
    /// The sway arms stand alike and are tight on their bar.
    ArmsSet,
    /// What the links are bolted or pinned to is there.
    StudsIn,
    /// The sway links hang, by hand.
    LinksHung,
    /// The sway links are tight.
    LinksTight,
}

/// What comes before a step.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum First<S> {
    /// A step of the same kind.
    Step(S),
    /// Whatever makes this so.
    That(Condition),
}

/// Where a plan has a step among those that might come next.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Phase {
    /// Taken off.
    Undo,
    /// Made in the vehicle: bare metal, tack, weld.
    Make,
    /// Brackets started by hand.
    Brackets,
    /// Made or set on the bench.
    Build,
    /// Started by hand.
    Hang,
    /// Drawn up before it is let down.
    Tighten,
    /// Set on its weight, before it is read.
    Set,
    /// The steering, once both sides are read.
    Steering,
    /// Drawn up on its weight.
    OnItsWeight,
}

/// A step of a kind of work.
#[derive(Clone, Debug, PartialEq)]
pub struct KindTask<S> {
    /// What it does.
    pub step: S,
    /// Where it usually comes.
    pub phase: Phase,
    /// How the vehicle must stand for it; either way where None.
    pub stands: Option<Stands>,
    /// What comes before it, and why.
    pub after: Vec<(First<S>, Rule)>,
    /// What is so once it is done.
    pub gives: Vec<Condition>,
    /// Keys of the fasteners it makes tight.
    pub tightens: Vec<&'static str>,
    /// Keys of the fasteners it starts by hand.
    pub starts: Vec<&'static str>,
}

impl<S> KindTask<S> {
    /// A step that waits for nothing.
    pub const fn new(step: S, phase: Phase) -> Self {
        Self {
            step,
            phase,
            stands: None,
            after: Vec::new(),
            gives: Vec::new(),
            tightens: Vec::new(),
            starts: Vec::new(),
        }
    }

    /// It comes after what makes something so.
    #[must_use]
    pub fn once(mut self, that: Condition, rule: Rule) -> Self {
        self.after.push((First::That(that), rule));
        self
    }

    /// It comes after another step of its kind, where that is in the plan.
    #[must_use]
    pub fn after(mut self, step: S, rule: Rule) -> Self {
        self.after.push((First::Step(step), rule));
        self
    }

    /// What it makes so.
    #[must_use]
    pub fn gives(mut self, that: Condition) -> Self {
        self.gives.push(that);
        self
    }

    /// The fasteners it makes tight.
    #[must_use]
    pub fn tightens(mut self, keys: &[&'static str]) -> Self {
        self.tightens.extend(keys);
        self
    }

    /// The fasteners it starts by hand.
    #[must_use]
    pub fn starts(mut self, keys: &[&'static str]) -> Self {
        self.starts.extend(keys);
        self
    }

    /// It is done with the vehicle on its wheels at the driven height.
    #[must_use]
    pub const fn on_its_weight(mut self) -> Self {
        self.stands = Some(Stands::OnItsWeight);
        self
    }

    /// It is done on stands.
    #[must_use]
    pub const fn supported(mut self) -> Self {
        self.stands = Some(Stands::Supported);
        self
    }

    /// Nothing comes loose before the corners are read and stands are under it.
    #[must_use]
    pub fn undoes(self) -> Self {
        self.once(Condition::OnStands, Rule::StandsFirst).once(Condition::CornersRead, Rule::ReadFirst)
    }

    /// The same step among those of all kinds.
    pub fn among<T>(self, all: impl Fn(S) -> T) -> KindTask<T> {
        let first = |first: First<S>| match first {
            First::Step(step) => First::Step(all(step)),
            First::That(that) => First::That(that),
        };
        KindTask {
            after: self.after.into_iter().map(|(step, rule)| (first(step), rule)).collect(),
            step: all(self.step),
            phase: self.phase,
            stands: self.stands,
            gives: self.gives,
            tightens: self.tightens,
            starts: self.starts,
        }
    }
}
