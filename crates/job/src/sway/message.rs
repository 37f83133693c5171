//! What stage Sway has to say, as facts.

use super::choice::Choice;
use crate::assembly::weights::Weighed;
use crate::cycle::limit::Happening;
use crate::cycle::steer::Beside;
use crate::document::Use;
use crate::document::sway::{BoltWay, PanelFaces};
use crate::message::{Message, OfTopic, Topic};
use crate::sway::places::LinkWork;
use crate::sway::setting::Driven;
use derecho_core::fastener::Thread;
use derecho_core::measure::{Angle, Force, Length, Mass, RollRate, Side, SpringRate, Stress};
use derecho_core::pose::body::BodyName;
use derecho_core::sway::ArmFault;
use derecho_core::sway::rod::{RodCut, RodFault};

/// Hole and link of a build stage.
#[derive(Clone, Debug, PartialEq)]
pub struct StageFacts {
    /// What it is called; empty for the vehicle as planned.
    pub name: String,
    /// The hole from the stiff end, and of how many; None where arm and link work in none.
    pub hole: Option<(usize, usize)>,
    /// The link, eye to eye.
    pub link: Option<Length>,
    /// Degrees per g on the road; None where it would not stand.
    pub road: Option<f64>,
    /// What is wanted, degrees per g, where that is less.
    pub wanted: Option<f64>,
    /// The drag link beside the bar, where one was measured.
    pub beside: Option<Beside>,
}

/// A message of stage Sway. Sideways figures are + to the left, travels and changes of height + up.
#[expect(
    missing_docs,
    reason = "a message holds what its fields are named; lengths, angles and forces are of their types"
)]
#[derive(Clone, Debug, PartialEq)]
pub enum SwayMessage {
    /// A bar in the table of old and new.
    BarRow {
        old: bool,
    },
    /// What a link is aimed at.
    Aim(LinkAim),
    /// A rod of the sway bar.
    RodName(BodyName),
    /// What stands near the sway bar.
    Neighbour(BodyName),
    /// What a check is of.
    CheckName(SwayCheck),
    /// An answer that has no figures.
    Without(WithoutSway),
    /// Preload is wanted, but both links are alike.
    PreloadOfLikeLinks,
    /// Whose figures of the other axle the chart takes.
    FromOtherEnd {
        title: String,
    },
    /// Where a pose is: both wheels' travel, mm.
    At {
        left: f64,
        right: f64,
    },
    /// Why arm and link do not close.
    DoesNotClose {
        fault: ArmFault,
        left: f64,
        right: f64,
    },
    /// Nothing of the travel could be posed.
    NothingPosed,
    /// Too near a straight or folded line: γ, where, and what is left.
    TooNear {
        worst: Angle,
        left: f64,
        right: f64,
        to_straight: Length,
    },
    /// The range of γ over everything the axle does.
    Works {
        link: Length,
        least: Angle,
        most: Angle,
        work: LinkWork,
    },
    /// A link sized where none was there.
    Sized {
        link: Length,
        works: bool,
    },
    /// Shortest and longest link that works, and this one where one is there.
    Window {
        works: Option<[Length; 2]>,
        link: Option<Length>,
    },
    /// A link that meets a target, against the one that is there.
    Target {
        link: Length,
        change: Option<Length>,
        turns: Option<Message>,
    },
    /// What to cut for a link built from rod, or why none makes it.
    Rod {
        cut: Result<RodCut, RodFault>,
    },
    /// The least splined bar for a frame.
    SplinedBar {
        least: Length,
        frame: Length,
    },
    /// The bar's mass.
    BarWeighs {
        mass: Mass,
    },
    /// The arm against the shock's stroke.
    ArmAndStroke {
        arm: Length,
        stroke: Length,
        alike: bool,
    },
    /// Preload by a left link that is longer, + left longer: at each wheel, and the corner weights.
    Preload {
        longer: Length,
        change: Force,
        corners: Option<(Force, Force)>,
        wanted: bool,
    },
    /// A floor that leans, degrees.
    FloorLeans {
        degrees: f64,
    },
    /// The sides differ as it is parked; the pull at the link.
    Parked {
        difference: Length,
        pull: Force,
        goes_in: bool,
    },
    /// Parked on a slope: slope and lean, what the sides differ by and the pull; the slope up to which
    /// pins go in, degrees, where they do not.
    ParkedOnSlope {
        slope: Angle,
        lean: Angle,
        difference: Length,
        pull: Force,
        up_to: Option<f64>,
    },
    /// Play of a stud in the link's eye, below nought where it is too thick.
    Stud {
        play: Length,
    },
    /// A nut on a stud.
    Nut {
        stud: Thread,
        nut: Thread,
        same: bool,
    },
    /// Whether a hand reaches the pin.
    PinSide {
        reaches: bool,
    },
    /// Room over a stowed link, as taped.
    StowedRoom {
        room: Length,
    },
    /// A stowed link that does not reach.
    StudOutOfReach,
    /// A stowed link beside nothing that was measured.
    StowedAlone,
    /// A stowed link and what it comes nearest to: the gap, − through it, and the one wanted.
    Stowed {
        thing: BodyName,
        gap: Length,
        wanted: Length,
        left: f64,
        right: f64,
    },
    /// A rod of the bar and what it comes nearest to: the gap, − through it, and the one wanted.
    Gap {
        rod: BodyName,
        thing: BodyName,
        gap: Length,
        wanted: Length,
        left: f64,
        right: f64,
    },
    /// Room for arms and links, by the tightest gap and whether it is clear.
    Room {
        tightest: Option<(Message, bool)>,
        half_measured: Vec<String>,
    },
    /// The hole to cut in a panel, in the panel's two axes, mm, with room round it.
    Cut {
        name: String,
        faces: PanelFaces,
        cut: Option<[[f64; 2]; 2]>,
    },
    /// A bolt nobody measured.
    BoltOpen,
    /// A bolt that a thing stops, and what stops it the other way round.
    BoltStopped {
        way: BoltWay,
        thing: BodyName,
        round: BoltWay,
        other: Option<BodyName>,
    },
    /// Room taped in front of a bolt's head, less its length.
    BoltRoom {
        over: Length,
        way: BoltWay,
    },
    /// A bolt in front of which nothing was found.
    BoltFree {
        way: BoltWay,
    },
    /// A bar that nobody measured.
    AssumedBar {
        outside: Length,
    },
    /// The length that twists, assumed.
    AssumedActive {
        active: Length,
    },
    /// What its steel takes, assumed.
    AssumedSteel,
    /// Mounting bushings of rubber, because nobody said what they are.
    AssumedRubber {
        rate: SpringRate,
    },
    /// What a bush gives, by its kind.
    AssumedBush {
        rate: SpringRate,
    },
    /// Between the bushes.
    AssumedBushSpacing {
        spacing: Length,
    },
    /// A thickness, assumed.
    AssumedThick {
        links: bool,
        usual: Length,
    },
    /// The frame rails' height, assumed.
    AssumedRails,
    /// The steering lock, assumed.
    AssumedLock,
    /// A hole of the arm: how it stands against the one in use, K_bar,
    /// roll on the road in degrees per g, stress and what the steel takes.
    Hole {
        arm: Length,
        against: Against,
        roll: Option<RollRate>,
        road: Option<f64>,
        stressed: Vec<(Driven, Stress)>,
        takes: Stress,
    },
    /// Hole and link of a build stage.
    Stage(StageFacts),
    /// What the vehicle weighs, and its centre of gravity above the roll axis.
    Weighs {
        weighed: Box<Weighed>,
        lever: Length,
        station: Option<Message>,
    },
    /// A choice of bar: roll on the road in degrees per g and its range, twist on the trail in degrees with
    /// the wheel's lift, what ends it, what it needs.
    Choice {
        road: Option<f64>,
        between: Option<[f64; 2]>,
        trail: Option<(f64, Length)>,
        /// The trail's twist with the other axle's bar as soft and as stiff as it may be, degrees, the least first; None
        /// where that bar was entered.
        trail_between: Option<[f64; 2]>,
        ended_by: EndedBy,
        needs: Message,
    },
    /// What a choice is called.
    ChoiceName(Choice),
    /// What ends the twist of a choice.
    Ended(EndedBy),
    /// The choice that is suggested.
    Suggests {
        choice: Choice,
        used_for: Option<Use>,
        says: Message,
    },
    /// What a choice needs.
    Needs {
        choice: Choice,
    },
    /// What a soft torsion bar needs, where one was found.
    SoftBar {
        diameter: Length,
        length: Length,
        arm: Length,
    },
    /// A splined bar with its arms.
    Splined(Box<SplinedFacts>),
    /// No splined bar was typed: what it would have to give, and the least length.
    SplinedWanted {
        wanted: RollRate,
        least: Option<Length>,
    },
    /// None of those typed fits.
    NoSplined,
    /// The splined bar to take: diameter, length, arm, link; what sticks out each side.
    SplinedBest {
        diameter: Length,
        length: Length,
        arm: Length,
        link: Length,
        out: Option<Length>,
        /// Its roll stiffness over the one wanted; None where none is wanted.
        share: Option<f64>,
    },
    /// Why this rate, in numbers.
    Because(Box<Reason>),
    /// Half an inch past the stops.
    PastStops {
        work: bool,
    },
    ShimUnmeasured,
    /// What a shim under one clamp alone does.
    Shim {
        thick: Length,
        lean: Angle,
        apart: Length,
        side: Option<Side>,
    },
    LinkRate {
        rate: SpringRate,
    },
}

impl OfTopic for SwayMessage {
    const TOPIC: Topic = Topic::Sway;
}

/// How a hole of the arm stands against the one in use.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Against {
    /// It is the hole in use.
    InUse,
    /// As a share of it.
    Share(f64),
    /// One of the two does not close.
    Unknown,
}

/// Sizes, rates and verdicts of a splined bar with its arms.
#[derive(Clone, Debug, PartialEq)]
pub struct SplinedFacts {
    /// Outside diameter.
    pub diameter: Length,
    /// The length that twists.
    pub length: Length,
    /// The arms.
    pub arm: Length,
    /// Degrees per g.
    pub road: Option<f64>,
    /// K_bar.
    pub roll: RollRate,
    /// At an arm's eye.
    pub eye_rate: SpringRate,
    /// Stress and what the steel takes.
    pub stress: (Stress, Stress),
    /// Its mass.
    pub mass: Mass,
    /// Each side, where the bar is long enough.
    pub out: Option<Length>,
    /// Missing to the least length.
    pub short: Option<Length>,
    /// Whether arms and links close over the travel.
    pub works: bool,
    /// The arm less the shock's stroke, where they are unlike.
    pub unlike: Option<Length>,
}

/// Why a rate is wanted.
#[derive(Clone, Debug, PartialEq)]
pub struct Reason {
    /// What it is used for.
    pub used_for: Option<Use>,
    /// Roll that suits the use, degrees per g.
    pub degrees: f64,
    /// What the vehicle weighs.
    pub weighed: Weighed,
    /// Where its weight stands, where that is known.
    pub station: Option<Message>,
    /// Centre of gravity above the roll axis.
    pub lever: Length,
    /// Roll rate wanted in all.
    pub all: RollRate,
    /// The springs' part.
    pub springs: RollRate,
    /// The other axle's part.
    pub other: RollRate,
    /// What the bar has to give.
    pub wanted: RollRate,
    /// A solid bar that gives it: diameter, length, arm.
    pub solid: Option<[Length; 3]>,
}

/// What ends the twist of an axle with a choice of bar.
#[derive(Clone, Debug, PartialEq)]
pub enum EndedBy {
    /// It would not stand.
    WouldNotStand,
    /// A front wheel lifts.
    FrontLifts,
    /// A rear wheel lifts.
    RearLifts,
    /// The front axle meets its stops.
    FrontStops,
    /// The rear axle meets its stops.
    RearStops,
    /// Something of this axle before its stops; None where the links reach no further.
    Limit(Option<Happening>),
    /// The sway bar's links turn over.
    BarLinks,
    /// The sway bar is twisted past what its steel takes.
    BarSteel,
}

/// Why stage Sway has no answer.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum WithoutSway {
    /// The sway bar is not measured.
    Measure,
    /// The axle cannot be posed.
    NothingPosed,
    /// There is none here.
    NoBar,
}

/// What is checked of a sway bar and its disconnects.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum SwayCheck {
    /// The stowed link, worked out.
    StowedWorkedOut,
    /// The stowed link, as taped.
    StowedTaped,
    /// Pins go in as it is parked.
    PinsParked,
    /// Pins go in on a slope.
    PinsOnSlope,
    /// The stud in the link's eye.
    Stud,
    /// The nut on the stud.
    StudNut,
    /// The pin's side.
    PinSide,
    /// A shim under one clamp.
    Shim,
    /// Half an inch past the stops.
    PastStops,
    /// A bolt comes out again.
    ComesOut {
        /// The bolt's name.
        bolt: String,
    },
}

/// What a link's length is aimed at.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum LinkAim {
    /// Arms level as driven.
    LevelDriven,
    /// Arms level mid-travel.
    LevelMidTravel,
    /// Arms at an angle of one's own.
    OwnAngle,
    /// Arms in line with the lower arms.
    TrailingArm,
    /// Arms as they were when stock.
    Stock,
}
