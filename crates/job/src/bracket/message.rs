//! What stage Bracket has to say, as facts.

use super::kinds::Approach;
use super::names::{BarName, PlaceName};
use crate::bar::message::Turns;
use crate::cycle::limit::{CrossedAt, Happening};
use crate::document::bracketing::Target;
use crate::document::gate_keys;
use crate::message::{Label, Message, OfTopic, Topic};
use crate::verdict::FitVerdict;
use derecho_core::bar::bracket_load::Braced;
use derecho_core::bar::strength::{Material, Section};
use derecho_core::fastener::Thread;
use derecho_core::fastener::stack::{Reckoned, Stack, StackFault};
use derecho_core::fastener::strength::{Grade, ThreadTreatment, TorqueStands};
use derecho_core::measure::squareness::Squareness;
use derecho_core::measure::{Angle, Force, Length, Mass, Moment, Side};
use derecho_core::parts::BracketEnd;

/// A message of stage Bracket. Sideways figures are + to the left, travels and changes of height + up.
#[expect(
    missing_docs,
    reason = "a message holds what its fields are named; lengths, angles and forces are of their types"
)]
#[derive(Clone, Debug, PartialEq)]
pub enum BracketMessage {
    /// What a check is of.
    CheckName(BracketCheck),
    /// The name of a check of one eye.
    CheckNameAt {
        /// The check.
        check: BracketCheck,
        /// Which eye.
        end: BracketEnd,
    },
    /// What an approach is called.
    ApproachName(Approach),
    /// What a hole is called.
    Place(PlaceName),
    /// What a bar is called.
    Bar(BarName),
    /// What a bracket is called: the one that is there where it has no name.
    BracketName {
        name: String,
        end: BracketEnd,
    },
    /// What every strength figure leaves out.
    LeavesOut,
    /// The order of work of a built bar.
    BuildStep(BuildStep),
    NothingYet,
    /// A plan of an older document that named what was taken out since.
    PlanGone {
        named: Vec<String>,
    },
    Conversion {
        bad: usize,
        open: usize,
    },
    NoBarToLevel,
    AsMeasured {
        fault: String,
    },
    OutOfReachAtRide,
    PulledTight,
    /// Why a bar does not reach; `range` is the shortest and longest it can be.
    OutOfReach {
        shown: BarName,
        wanted: Length,
        as_found: bool,
        range: (Option<Length>, Option<Length>),
    },
    /// Where a length that is left alone leaves the axle, beyond what counts as centred.
    LeftOff {
        offset: Length,
        tolerance: Length,
    },
    OtherHeight {
        height: String,
        name: Label,
        angle: Angle,
    },
    /// What a limit does, and at which travel.
    Met {
        what: Happening,
        place: CrossedAt,
    },
    /// The exact riser or drop.
    Exact {
        riser: Length,
        target: Target,
    },
    /// The answer: the chosen plan, else length only where that is enough, else the best option.
    Answer {
        pick: Box<OptionFacts>,
        picked: Picked,
        /// A hole that only wants another bar, where none of the brackets helps with the ones there are.
        with_another_bar: Option<Box<OptionFacts>>,
    },
    /// Why. `failing` names the other approaches with why they fail.
    Because {
        pick: Box<OptionFacts>,
        failing: Vec<(Approach, Message)>,
        exact: Option<Length>,
        target: Target,
    },
    /// What a approach does and what it gives up, in this job's numbers.
    Approach {
        approach: Approach,
        option: Box<OptionFacts>,
        at_hand: bool,
    },
    BendTaken,
    RangeUnknown,
    /// What is wanted, and what is to spare outward and inward; negative is short of it.
    Reaches {
        wanted: Length,
        out: Length,
        inward: Length,
    },
    AddJoints,
    Ears {
        filled: Length,
        ear: Length,
        verdict: FitVerdict,
    },
    Parallel {
        apart: Angle,
        good: bool,
    },
    Spacers {
        verdict: FitVerdict,
    },
    ReadBothSides,
    /// Where a Y-link's axle sits.
    YLinkSits {
        offset: Length,
        verdict: FitVerdict,
    },
    /// How square a Y-link's axle stands.
    YLinkSquare {
        found: Squareness,
        verdict: FitVerdict,
    },
    /// What the legs do sideways, and what it leaves alone.
    LegsSideways {
        off: Length,
        driver: Option<Side>,
    },
    /// What the legs do to the pinion. `turned` is how far its nose went down.
    LegsPinion {
        turned: Angle,
    },
    /// One leg's change, and its turns.
    Leg {
        name: String,
        change: Length,
        turns: Option<Turns>,
    },
    TakeSquareness,
    /// Change of the pinion from before the conversion, + nose down. The legs are told for the driven height.
    Pinion {
        turned: Option<Angle>,
        verdict: FitVerdict,
        driven: bool,
    },
    WiderWishbone {
        ends: Message,
    },
    JointOut,
    Follows,
    /// A mass.
    Mass {
        mass: Mass,
    },
    /// The load of a bar or attachment.
    Newtons(Force),
    /// Lift of the body in a left turn, + up, and the same as heave.
    Jacking {
        lift: Force,
        heave: Option<Length>,
    },
    /// A bar against its load; `sleeve` where a turnbuckle's sleeve sits away from its ends.
    Stands {
        margin: f64,
        load: Force,
        bend: Length,
        sleeve: bool,
    },
    MadeOf {
        material: Material,
        section: Section,
        assumed: bool,
    },
    /// What a joint holds by friction against its load.
    Slip {
        slip: Force,
        load: Force,
    },
    /// Sentences one after another.
    InARow {
        parts: Vec<Message>,
    },
    Nut {
        nut: Thread,
        bolt: Thread,
        own: bool,
    },
    Hole {
        play: Length,
        too_wide: bool,
    },
    BoltUnmeasured,
    /// Shortest bolt, the one to buy, and what the one that is there comes to.
    BoltLength {
        reported: Box<Reckoned>,
        stack: Box<Stack>,
    },
    /// What is wrong with the bolt that is there.
    StackFault {
        fault: StackFault,
    },
    /// A torque that was given beside what is usual for a bolt of its size; never one to use.
    Torque {
        usual: Moment,
        thread: Thread,
        grade: Grade,
        treatment: ThreadTreatment,
        given: Option<(Moment, TorqueStands)>,
    },
    Play {
        band: Length,
    },
    /// A gap that makes another length than centring wants.
    GapIsOff {
        off: Length,
        wanted: Length,
    },
    /// A gap that was measured between other holes than the planned ones.
    TapeTheGap,
    CutStock {
        cut: Length,
        length: Length,
    },
    /// What is cut is not known until the gap is measured in the planned holes.
    StockAbout {
        cut: Length,
        length: Length,
    },
    BraceUnmeasured,
    /// What a brace does, at most: it is taken to be stiff. `at_the_brace` is what the bracket itself carries there.
    Braced {
        with: Braced,
        load: Force,
        at_the_brace: Moment,
        verdict: FitVerdict,
    },
    BraceBeyond {
        below: Length,
        lever: Length,
    },
}

impl OfTopic for BracketMessage {
    const TOPIC: Topic = Topic::Bracket;
}

/// Why an option is the one that is told.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Picked {
    /// The person chose it.
    Chosen,
    /// No bracket, and that is enough.
    Enough,
    /// The best there is.
    Best,
}

/// What is said of an option.
#[derive(Clone, Debug, PartialEq)]
pub struct OptionFacts {
    /// The hole.
    pub name: Label,
    /// The bar that is hung with it; None for the one that is in.
    pub bar: Option<Label>,
    /// The drag-link part that is fitted with it.
    pub goes_with: Option<String>,
    /// Which eye is moved; None where none is.
    pub end: Option<BracketEnd>,
    /// The bar's angle then.
    pub angle: Angle,
    /// Swing over the whole travel.
    pub swing: Length,
    /// The bar's length then.
    pub length: Length,
    /// Its change; negative shortens.
    pub change: Length,
    /// Where it leaves the axle, + left.
    pub left_off: Length,
    /// How much higher the roll centre comes.
    pub higher: Length,
    /// Angle between bar and drag link, where both are known.
    pub drag_link_difference: Option<Angle>,
    /// Moment into the axle tube, over that of the eye where it is now.
    pub axle_moment_ratio: f64,
    /// Moment into the frame rail, over that of the eye where it is now.
    pub frame_moment_ratio: f64,
    /// Lift of the body in a left turn at half a g, + up.
    pub lift: Force,
    /// The first of the reasons why it fails.
    pub fails: Option<Message>,
}

/// What is checked of a plan, a bolt or a conversion.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum BracketCheck {
    /// The bar reaches, both ways.
    Reach,
    /// A brace to the far rail.
    Brace,
    /// Joint and spacers between the ears.
    Ears,
    /// The two brackets are parallel.
    Parallel,
    /// Spacers behind the old upper mount of a conversion.
    Spacers,
    /// Equal readings both sides after a conversion.
    BothSides,
    /// Square under the frame after a conversion.
    Square,
    /// The pinion after a conversion.
    Pinion {
        /// The height's name.
        height: String,
    },
    /// The link of a conversion follows the whole travel.
    Follows,
    /// The nut on a bolt.
    Nut,
    /// A bolt in its hole.
    Hole,
    /// A bolt's length.
    BoltLength,
    /// A bolt's torque.
    Torque,
}

impl BracketCheck {
    /// As the keys of acceptances have it; empty for what stands in the way of nothing.
    #[must_use]
    pub fn in_gate_keys(&self) -> String {
        match self {
            Self::Ears => gate_keys::EARS,
            Self::Nut => gate_keys::NUT,
            Self::Hole => gate_keys::HOLE,
            Self::BoltLength => gate_keys::BOLT_LENGTH,
            Self::Spacers => gate_keys::SPACERS,
            Self::BothSides => gate_keys::BOTH_SIDES,
            Self::Square => gate_keys::SQUARE,
            Self::Follows => gate_keys::FOLLOWS,
            Self::Pinion { height } => return gate_keys::pinion(height),
            Self::Parallel => gate_keys::PARALLEL,
            Self::Reach | Self::Brace | Self::Torque => "",
        }
        .to_owned()
    }
}

/// A step of the order of work of a built bar.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum BuildStep {
    /// Strapped to centre, both sides read once more.
    ReadAgain,
    /// The gap between the shells measured again.
    Gap,
    /// Cut and coped.
    Cut,
    /// Tacked in place.
    Tack,
    /// Taken out and welded.
    Weld,
    /// Cooled, fitted, read again.
    Fit,
}

impl BuildStep {
    /// In their order.
    pub const ALL: [Self; 6] = [Self::ReadAgain, Self::Gap, Self::Cut, Self::Tack, Self::Weld, Self::Fit];
}
