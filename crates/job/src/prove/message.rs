//! What stage Prove has to say, as facts.

use super::cause::Cause;
use super::look::LookKind;
use super::verdict::ProveVerdict;
use crate::document::hardpoints::ObstaclePart;
use crate::document::proof::RoadStep;
use crate::document::{FittedPart, gate_keys};
use crate::message::{Label, Message, OfTopic, Topic};
use crate::setups::adjuster::ThreadFault;
use crate::verdict::FitCheck;
use derecho_core::measure::centring::Centring;
use derecho_core::measure::{Angle, Length, Side, Stress};
use derecho_core::parts::BracketEnd;

/// A message of stage Prove. Sideways figures are + to the left, travels and changes of height + up.
#[expect(
    missing_docs,
    reason = "a message holds what its fields are named; lengths, angles and forces are of their types"
)]
#[derive(Clone, Debug, PartialEq)]
pub enum ProveMessage {
    /// What a check is of.
    CheckName(ProveCheck),
    /// Why it moved otherwise; + left. `change` of height is + where the body stands higher, `shift` what it moves the axle by.
    Cause {
        cause: Cause,
        wanted: Length,
        measured: Length,
        change: Option<Length>,
        shift: Option<Length>,
    },
    Readings {
        left: Length,
        right: Length,
        after: Centring,
    },
    Movement {
        predicted: Length,
        measured: Length,
        agrees: bool,
    },
    MovedOtherwise {
        predicted: Length,
        measured: Length,
    },
    Stands {
        after: Centring,
    },
    Links {
        work: bool,
    },
    LinksNotFitted,
    FitLinks,
    LinksAdvice {
        work: bool,
    },
    LinksOpen,
    LinksOpenAdvice,
    /// Installed, and not measured over the travel.
    LinksUnmeasured,
    LinksUnmeasuredAdvice,
    /// Planned for the sway bar, and not on record as installed.
    SwayNotFitted,
    FitSway,
    Clear,
    ClearOpen,
    ClearLooked,
    Touches,
    TouchesAdvice {
        headline: Message,
    },
    /// Somebody's work looked at: nothing was set here.
    Checked {
        verdict: ProveVerdict,
        after: Centring,
    },
    /// As near as the bar goes, though not proved to the tolerance.
    AsNear {
        after: Centring,
    },
    /// Nothing was set, and nothing had to be.
    FoundCentred {
        after: Centring,
    },
    /// `fault` is what is wrong with the thread that is in.
    Says {
        verdict: ProveVerdict,
        after: Centring,
        y_link: bool,
        fault: Option<ThreadFault>,
    },
    Advice {
        verdict: ProveVerdict,
        after: Centring,
        refusal: Option<Message>,
        y_link: bool,
        rounds: usize,
        fault: Option<ThreadFault>,
        /// An eye may sit elsewhere than planned.
        eye_suspected: bool,
        /// Why it moved otherwise is found before anything is set again.
        cause_open: bool,
    },
    /// The bar as it is left, and how far it still goes either way.
    BarNow {
        name: String,
        length: Length,
        left: Option<(Length, Length)>,
    },
    EyeNow {
        end: BracketEnd,
        hole: String,
        /// How much higher than planned.
        up: Length,
        /// How much further out.
        outward: Length,
    },
    /// The drag link as it was set.
    DragLinkNow {
        length: Length,
    },
    LinksNow {
        link: Length,
        hole: Option<(usize, usize)>,
    },
    ToolsUsed {
        tools: Vec<String>,
    },
    AngleCompared {
        read: Angle,
        wanted: Angle,
        good: bool,
    },
    LinkCompared {
        read: Length,
        wanted: Length,
        good: bool,
    },
    StillOff {
        name: String,
    },
    ComplaintOpen {
        text: String,
    },
    TorqueMissing {
        names: Vec<Label>,
    },
    ComplaintAgain {
        text: String,
        worse: bool,
    },
    RoadStopped {
        step: RoadStep,
        note: String,
    },
    TorqueOther {
        names: Vec<Label>,
    },
    TorqueFromMemory {
        names: Vec<Label>,
    },
    PartWrong {
        names: Vec<Label>,
    },
    /// What ends the travel, as a clause.
    TravelEnds {
        ends: Message,
    },
    ClearanceNotChecked,
    /// Parts that nobody measured, though others were.
    PartsNotMeasured {
        parts: Vec<ObstaclePart>,
    },
    ThreadEngaged {
        fault: ThreadFault,
    },
    DoesNotFit {
        check: Box<FitCheck>,
    },
    StepsOpen {
        open: usize,
        of: usize,
    },
    SwayBarOverstressed {
        stress: Stress,
        takes: Stress,
    },
    /// Bar and drag link apart, or what the wheels do over a bump of 50 mm.
    Steers {
        over_bumps: bool,
        angle: Angle,
    },
    /// What is installed besides bar, brackets and drag link.
    Installs {
        part: FittedPart,
        name: String,
    },
    TrackBarOverloaded {
        name: String,
        margin: f64,
    },
    StickOutOff {
        off: Centring,
        driver: Option<Side>,
    },
    NotRight {
        kind: LookKind,
    },
    NotLookedAt {
        kind: LookKind,
    },
    Odometer {
        reads: f64,
        unit: String,
    },
    AfterFirstDay,
    AfterFifty,
    AfterFiveHundred,
    AfterFirstTrail,
    AfterTwoWeeks,
    Temporary {
        name: String,
        until: String,
    },
    CheckByFeel {
        names: Vec<Label>,
    },
    /// What to look at first for a complaint.
    LookFirst(LookFirst),
    /// Where an eye would sit, were that why the axle moved otherwise.
    Misplaced {
        end: BracketEnd,
        /// + up.
        up: Length,
        /// + out.
        outward: Length,
        uncertainty: Length,
        angle: Angle,
        by_angle: bool,
    },
}

impl OfTopic for ProveMessage {
    const TOPIC: Topic = Topic::Prove;
}

/// What a complaint suggests to look at, with this job's figures.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum LookFirst {
    /// Play; how much the bolts have in their holes, where that was measured.
    Play(Option<Length>),
    /// A bracket that moves.
    Bracket,
    /// The bar's angle, where the bar is known.
    Angle(Option<Angle>),
    /// Where the axle is by the readings that stand: None without readings, else how far off, + left, where it is off.
    Offset(Option<Option<Length>>),
    /// The drag link, and whether it was measured.
    DragLink(bool),
    /// The sway links, and whether they work; None while not measured.
    Links(Option<bool>),
    /// The steering.
    Steering,
    /// The shock absorbers.
    Shocks,
    /// What is carried on the roof.
    RoofLoad,
    /// How stiff the sway bar is, and whether it is connected.
    SwayBar,
    /// The steering wheel.
    Wheel,
}

/// What is compared, and what a proof stands on.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum ProveCheck {
    /// The bar's angle.
    BarAngle,
    /// The left sway link.
    LeftLink,
    /// The right sway link.
    RightLink,
    /// Clear over its travel.
    Clear,
    /// The sway links.
    SwayLinks,
    /// The axle under the frame.
    Axle,
}

impl ProveCheck {
    /// As the keys of acceptances have it; empty for what stands in the way of nothing.
    #[must_use]
    pub const fn in_gate_keys(self) -> &'static str {
        match self {
            Self::BarAngle => gate_keys::BAR_ANGLE,
            Self::LeftLink => gate_keys::LEFT_LINK,
            Self::RightLink => gate_keys::RIGHT_LINK,
            Self::Clear | Self::SwayLinks | Self::Axle => "",
        }
    }
}
