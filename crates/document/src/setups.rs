//! The bar and its brackets as found, what is planned, and what was fitted since.

use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::ids::{ArmHoleId, BarId, BracketId, DragLinkId, HeightId, HoleId, RoundId};
use super::work::Mark;
use derecho_core::bar::adjuster::{AdjusterKind, CutFrom, EndStyle, ThreadSeat};
use derecho_core::bar::evidence::{BarEnd, FinderZero};
use derecho_core::fastener::{Hand, Thread};
use derecho_core::measure::{AngleEntry, Length, TapeEntry};
use derecho_core::parts::{BracketEnd, Hole};

/// When the bolt heights and the angle were read.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BarRead {
    /// As the vehicle stands now.
    #[default]
    AsItStands,
    /// Before the lift or drop that the rig names.
    BeforeTheLift,
}

/// An angle finder laid along the bar.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Finder {
    /// What it reads from level, without a sign.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub reading: Option<AngleEntry>,
    /// Which end of the bar is higher.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub higher_end: Option<BarEnd>,
    /// What it was zeroed on.
    pub zero: FinderZero,
    /// What it is good to, plus or minus; 0.2° where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub good_to: Option<AngleEntry>,
}

/// The track bar as found.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Bar {
    /// Eye to eye, centre to centre.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub length: Option<TapeEntry>,
    /// Height of the frame eye's bolt above the floor.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub frame_eye_height: Option<TapeEntry>,
    /// Height of the axle eye's bolt above the same floor.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub axle_eye_height: Option<TapeEntry>,
    /// What each bolt height is good to, plus or minus; 1.5 mm where empty.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub heights_good_to: Option<TapeEntry>,
    /// When heights and angle were read.
    pub read: BarRead,
    /// The height it stood at then; empty is the driven one.
    #[serde(skip_serializing_if = "HeightId::is_empty")]
    pub height: HeightId,
    /// An angle finder along the bar.
    pub finder: Finder,
    /// Bent or tapered: a finder laid along it says nothing.
    pub bent: bool,
    /// How much further forward the frame eye is; negative is further back.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub fore_aft: Option<TapeEntry>,
    /// Sideways from the frame's centreline to the frame eye, on its own side.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub frame_eye_from_centre: Option<TapeEntry>,
    /// Sideways from the frame's centreline to the axle eye, on the other side.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub axle_eye_from_centre: Option<TapeEntry>,
}

/// One threaded end.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct ThreadedEndForm {
    /// Diameter and pitch, as stamped: `1-1/4-12`, `M24x2`.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread: Option<Thread>,
    /// Which way it is cut.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub hand: Option<Hand>,
    /// Thread in now.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub engagement: Option<TapeEntry>,
    /// Length of thread on the shank.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub shank: Option<TapeEntry>,
    /// Depth of thread in the body.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tapped_depth: Option<TapeEntry>,
    /// What it is cut into.
    pub seat: ThreadSeat,
    /// The maker's least engagement, by the witness mark; rules where given.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub witness: Option<TapeEntry>,
}

/// How the bar's length is changed.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct AdjusterForm {
    /// Fixed, one end, turnbuckle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub kind: Option<AdjusterKind>,
    /// The frame-side thread, or the only one.
    pub first: ThreadedEndForm,
    /// The axle-side thread.
    pub second: ThreadedEndForm,
    /// For one adjusting end: what passes through its eye.
    pub end_style: EndStyle,
    /// Shortest as made, eye to eye.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub made_min: Option<TapeEntry>,
    /// Longest as made.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub made_max: Option<TapeEntry>,
}

/// A hole of a bracket.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct HoleChoice {
    /// The bracket; empty is the one that is there now.
    #[serde(skip_serializing_if = "BracketId::is_empty")]
    pub bracket: BracketId,
    /// Its hole; empty is where the eye was found.
    #[serde(skip_serializing_if = "HoleId::is_empty")]
    pub hole: HoleId,
}

/// What a bar's length is aimed at.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LengthAim {
    /// The axle centred at the driven height.
    #[default]
    Centred,
    /// As long as the bar that comes out.
    AsTheOldOne,
    /// As long as the maker had it; centred where nobody typed that.
    AsTheMakerHadIt,
}

impl PlanForm {
    /// Whether another bar goes in with a length that is known, the old bar's or the maker's: nothing has to be read for
    /// that. `stock` is whether the maker's was typed; without it the length centres the axle.
    #[must_use]
    pub fn copies_a_length(&self, stock: bool) -> bool {
        let known = match self.length {
            LengthAim::Centred => false,
            LengthAim::AsTheOldOne => true,
            LengthAim::AsTheMakerHadIt => stock,
        };
        known && !self.bar.is_empty()
    }
}

/// A plan: decisions relative to the vehicle as found, by ids of parts kept in the job. What is left empty stays as it
/// is.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct PlanForm {
    /// The hole for the axle eye.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub axle: Option<HoleChoice>,
    /// The hole for the frame eye; both eyes may move.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub frame: Option<HoleChoice>,
    /// The bar; empty is the one as found.
    #[serde(skip_serializing_if = "BarId::is_empty")]
    pub bar: BarId,
    /// What its length is aimed at.
    #[serde(skip_serializing_if = "is_default")]
    pub length: LengthAim,
    /// The drag-link part; empty is none.
    #[serde(skip_serializing_if = "DragLinkId::is_empty")]
    pub drag_link: DragLinkId,
    /// What it named in a document before version 4 that was not among the job's parts any more, as it was called: such
    /// a plan is kept to be read, and cannot be followed.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub gone: Vec<String>,
}

fn is_default<T: Default + PartialEq>(value: &T) -> bool {
    *value == T::default()
}

/// What is planned for the sway bar; what is left empty stays as it is.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct SwayPlan {
    /// The sway arm's hole.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub hole: Option<ArmHoleId>,
    /// Length of the sway links, eye to eye.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub link: Option<TapeEntry>,
}

/// Something besides the bar, its brackets and the drag link that is installed in a job, or is not.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FittedPart {
    /// The sway bar itself, with its arms.
    SwayBar,
    /// A disconnect of the sway links.
    Disconnect,
    /// A brace from the frame bracket to the far rail.
    Brace,
    /// A shim under the sway bar's other clamp, to match the one that is there.
    SecondShim,
    /// A Y-shaped upper link in place of the bar.
    YLink,
    /// A pair of limit straps.
    Straps,
    /// The tie rod, to the other side of the steering arms.
    TieRod,
}

impl FittedPart {
    /// Every one of them.
    pub const ALL: [Self; 7] = [
        Self::SwayBar,
        Self::Disconnect,
        Self::Brace,
        Self::SecondShim,
        Self::YLink,
        Self::Straps,
        Self::TieRod,
    ];
}

/// Plans: one chosen, others kept to compare, one tried in the drawing.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Plans {
    /// The plan that every stage follows.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub chosen: Option<PlanForm>,
    /// What is planned for the sway bar, whatever hole and bar are chosen.
    #[serde(skip_serializing_if = "is_default")]
    pub sway: SwayPlan,
    /// What else is installed in this job.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub parts: Vec<FittedPart>,
    /// What was said to be no work of this job: it was on the vehicle before, or stays away.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub not_here: Vec<FittedPart>,
    /// Plans kept beside it.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub kept: Vec<PlanForm>,
    /// A plan that is tried in the drawing and not kept.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub trial: Option<PlanForm>,
}

/// How far from its planned place an eye sits once its bracket is on: the bracket slipped, was drilled or welded
/// elsewhere. Measured on the vehicle.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct EyeOff {
    /// Higher than planned; negative is lower.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub up: Option<TapeEntry>,
    /// Further out, away from the middle of the vehicle, than planned; negative is further in.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub outward: Option<TapeEntry>,
    /// Further forward than planned; negative is further back.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub forward: Option<TapeEntry>,
}

impl EyeOff {
    /// Up, outward and forward; nothing where it was left empty.
    #[must_use]
    pub fn lengths(&self) -> [Length; 3] {
        [&self.up, &self.outward, &self.forward]
            .map(|entry| entry.as_ref().map_or(Length::ZERO, TapeEntry::length))
    }
}

/// What made the axle move otherwise than predicted, once somebody found it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CauseFound {
    /// An eye sits elsewhere than its bracket was planned.
    EyeElsewhere,
    /// The bar was turned the wrong way.
    TurnedTheWrongWay,
    /// It was changed by the whole difference of the sides instead of half.
    FullDifference,
    /// It was set to another length than was written.
    OtherLength,
    /// The measurements were taken while the axle hung, or at another height.
    ReadOtherwise,
    /// A bolt hole is worn or egg-shaped.
    WornHole,
    /// A bushing was tightened off its weight and holds the axle.
    BushingWoundUp,
    /// Something else; the note says what.
    Other,
}

/// A cause that was found, by whom and when.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CauseRecord {
    /// What it was.
    pub what: CauseFound,
    /// What was seen.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
    /// When and by whom.
    pub done: Mark,
}

/// An eye that was moved to another place.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FittedMove {
    /// Which eye was moved.
    pub end: BracketEnd,
    /// By how much from where it sat before: mm forward, left, up.
    #[serde(serialize_with = "derecho_core::measure::figure::exactly")]
    pub by_mm: [f64; 3],
    /// The hole it went to.
    #[serde(default, skip_serializing_if = "is_default")]
    pub to: HoleChoice,
    /// How far from there it really sits.
    #[serde(default, skip_serializing_if = "is_default")]
    pub off: EyeOff,
}

/// A bar cut back.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Cut {
    /// Taken off each adjusting end.
    pub each_end: TapeEntry,
    /// What it was taken off.
    #[serde(default)]
    pub from: CutFrom,
}

/// One time of changing something and reading again: what was fitted or set. The sheets read after it point at it.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Round {
    /// By which the sheets read after it point at it.
    #[serde(skip_serializing_if = "RoundId::is_empty")]
    pub id: RoundId,
    /// The bar that was hung; left out is the one that was in, empty the one as found.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bar: Option<BarId>,
    /// The bar's length as set, eye to eye.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub length: Option<TapeEntry>,
    /// The length that was wanted when it was set, in millimetres.
    #[serde(
        skip_serializing_if = "Option::is_none",
        serialize_with = "derecho_core::measure::figure::exactly"
    )]
    #[schema(nullable = false)]
    pub wanted_mm: Option<f64>,
    /// Eyes that were moved.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub moved: Vec<FittedMove>,
    /// Ends cut back.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub cut: Option<Cut>,
    /// Thread in at the frame-side end after both ends were evened, measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub first_engagement: Option<TapeEntry>,
    /// Thread in at the axle-side end.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub second_engagement: Option<TapeEntry>,
    /// The drag-link part that was fitted.
    #[serde(skip_serializing_if = "DragLinkId::is_empty")]
    pub drag_link: DragLinkId,
    /// The length the drag link was set to, eye to eye.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub drag_link_length: Option<TapeEntry>,
    /// The hole the sway links were put in.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub sway_hole: Option<ArmHoleId>,
    /// The length the sway links were set to.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub sway_link: Option<TapeEntry>,
    /// What else of the plan was installed.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub parts: Vec<FittedPart>,
    /// What made the axle move otherwise than predicted, where that was found.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub cause: Option<CauseRecord>,
    /// What else was done: a leg of a Y-link turned, a bracket welded.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub note: String,
    /// By whom.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub by: String,
    /// When, in UTC.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false, value_type = String)]
    pub at: Option<Timestamp>,
}

/// The bar and its brackets as they came.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Found {
    /// The track bar.
    pub bar: Bar,
    /// Its adjuster.
    pub adjuster: AdjusterForm,
    /// Other holes of the bracket on the frame.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub frame_holes: Vec<Hole>,
    /// Other holes of the bracket on the axle.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub axle_holes: Vec<Hole>,
}

/// As found, as planned, and what was fitted since.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Setups {
    /// As it came.
    pub found: Found,
    /// What is planned.
    pub plans: Plans,
    /// What was fitted or set since, oldest first.
    pub rounds: Vec<Round>,
}

impl Round {
    /// Whether what was set or installed leaves the axle where it was read: sway links, a sway bar, a brace.
    #[must_use]
    pub fn is_sway_alone(&self) -> bool {
        let moves_nothing = |part: &FittedPart| *part != FittedPart::YLink;
        let parts = !self.parts.is_empty() && self.parts.iter().all(moves_nothing);
        let sways = self.sway_hole.is_some() || self.sway_link.is_some() || parts;
        let rest = Self {
            id: RoundId::default(),
            sway_hole: None,
            sway_link: None,
            parts: self.parts.iter().copied().filter(|part| !moves_nothing(part)).collect(),
            cause: None,
            by: String::new(),
            at: None,
            ..self.clone()
        };
        sways && rest == Self::default()
    }
}

impl Setups {
    /// Records a round after the others, by the next id that is free where it has none.
    pub fn record(&mut self, mut round: Round) {
        if round.id.is_empty() {
            let free = |id: &RoundId| self.rounds.iter().all(|other| other.id != *id);
            let ids = (self.rounds.len() + 1..).map(|place| RoundId::new(format!("round-{place}")));
            round.id = ids.into_iter().find(free).unwrap_or_default();
        }
        self.rounds.push(round);
    }

    /// The round that was done last, for a sheet read now; empty as found.
    #[must_use]
    pub fn last_round(&self) -> RoundId {
        self.rounds.last().map(|round| round.id.clone()).unwrap_or_default()
    }

    /// The rounds that may have moved the axle, each with its place in the list.
    #[must_use]
    pub fn axle_rounds(&self) -> Vec<(usize, &Round)> {
        self.rounds.iter().enumerate().filter(|(_, round)| !round.is_sway_alone()).collect()
    }

    /// How many rounds had been done once the one of this id was; none as found, all where there is no such round.
    #[must_use]
    pub fn rounds_after(&self, after: &RoundId) -> usize {
        if after.is_empty() {
            return 0;
        }
        self.rounds.iter().position(|round| round.id == *after).map_or(self.rounds.len(), |place| place + 1)
    }

    /// How many of those moved the axle or may have.
    #[must_use]
    pub fn axle_rounds_before(&self, after: &RoundId) -> usize {
        let done = self.rounds.iter().take(self.rounds_after(after));
        done.filter(|round| !round.is_sway_alone()).count()
    }
}
