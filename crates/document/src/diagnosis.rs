//! What was looked at to find a cause, and the causes that were found. Not here: how likely each is; that is computed.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::work::Mark;

/// Something that may be wrong with the vehicle, or with how it was measured.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Suspect {
    /// The bar was set by the whole difference of the sides instead of half.
    FullDifference,
    /// The bar was turned the wrong way.
    SignTurned,
    /// Measured with the axle hanging.
    MeasuredHanging,
    /// Measured before it was bounced: bushings held the axle.
    NotBounced,
    /// Somebody leaned on it.
    LeanedOn,
    /// The body stood at another height, or the air setting was another.
    AnotherHeight,
    /// Tires unlike, or at unlike pressures.
    TiresUnlike,
    /// The wheels were not straight ahead.
    WheelsTurned,
    /// The floor slopes sideways.
    SlopingFloor,
    /// What was measured from is itself out of its place: a flare, a body on its mounts, a bent hub.
    ReferenceCrooked,
    /// The bracket on the frame is sideways of its place.
    FrameBracketSideways,
    /// The bracket on the frame is above or below its place.
    FrameBracketHeight,
    /// The bracket on the axle is sideways of its place.
    AxleBracketSideways,
    /// The bracket on the axle is above or below its place.
    AxleBracketHeight,
    /// An eye is in another hole than is recorded.
    OtherHole,
    /// The bar is not as long as recorded: a thread started unevenly, turns miscounted.
    LengthOff,
    /// The bar is bent.
    BarBent,
    /// A bolt thinner than its hole, or an oval hole.
    BoltLoose,
    /// A bushing is torn or soft.
    BushingTorn,
    /// A bracket is cracked or tearing off.
    BracketTearing,
    /// Control arms of unlike length, or in unlike holes.
    ArmsUnlike,
    /// The axle housing is bent.
    HousingBent,
    /// The frame is out of square.
    FrameOutOfSquare,
    /// The sway links are of unlike length.
    SwayLinksUnlike,
    /// A sway-bar arm is on another spline than the other.
    ArmOnOtherSpline,
    /// A sway-bar arm and its link go over center.
    ArmOverCenter,
    /// The drag link is not parallel to the track bar.
    DragLinkNotParallel,
    /// The track bar hits something.
    TrackBarHits,
    /// Shocks are tired.
    ShocksTired,
    /// Springs unlike left and right.
    SpringsUnlike,
    /// The load is to one side.
    LoadToOneSide,
}

impl Suspect {
    /// Every one, measuring first.
    pub const ALL: [Self; 31] = [
        Self::FullDifference,
        Self::SignTurned,
        Self::MeasuredHanging,
        Self::NotBounced,
        Self::LeanedOn,
        Self::AnotherHeight,
        Self::TiresUnlike,
        Self::WheelsTurned,
        Self::SlopingFloor,
        Self::ReferenceCrooked,
        Self::FrameBracketSideways,
        Self::FrameBracketHeight,
        Self::AxleBracketSideways,
        Self::AxleBracketHeight,
        Self::OtherHole,
        Self::LengthOff,
        Self::BarBent,
        Self::BoltLoose,
        Self::BushingTorn,
        Self::BracketTearing,
        Self::ArmsUnlike,
        Self::HousingBent,
        Self::FrameOutOfSquare,
        Self::SwayLinksUnlike,
        Self::ArmOnOtherSpline,
        Self::ArmOverCenter,
        Self::DragLinkNotParallel,
        Self::TrackBarHits,
        Self::ShocksTired,
        Self::SpringsUnlike,
        Self::LoadToOneSide,
    ];

    /// Whether it is in the measuring and not in the vehicle: nothing is mended, it is measured again.
    #[must_use]
    pub const fn is_of_measuring(self) -> bool {
        matches!(
            self,
            Self::MeasuredHanging
                | Self::NotBounced
                | Self::LeanedOn
                | Self::AnotherHeight
                | Self::WheelsTurned
                | Self::SlopingFloor
                | Self::ReferenceCrooked
        )
    }
}

/// A quick check: something that is looked at with a simple answer.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum QuickCheck {
    /// Rocked sideways by hand: a bolt moves in its hole.
    BoltMoves,
    /// Rocked: a bushing is torn, or its rubber moves a lot.
    BushingMoves,
    /// Rocked: a bracket itself moves, or its paint or weld is cracked.
    BracketMoves,
    /// Bright, rubbed paint on the bar or beside it.
    RubbedPaint,
    /// A straightedge along the bar shows a bend.
    BarNotStraight,
    /// The bar, measured eye to eye again, has another length than recorded.
    BarLengthDiffers,
    /// The turns went to the wrong side, or twice as far as was written.
    TurnsDiffer,
    /// The frame eye is elsewhere than planned, measured.
    FrameEyeElsewhere,
    /// The axle eye is elsewhere than planned, measured.
    AxleEyeElsewhere,
    /// A bolt is in another hole than is recorded.
    HoleDiffers,
    /// Bounced and nobody touching it, the tape reads otherwise.
    BouncedDiffers,
    /// When it was measured it hung, or stood in another height or air setting.
    StoodOtherwise,
    /// Pressures or tires unlike.
    PressuresDiffer,
    /// The wheels were not straight ahead when it was measured.
    WheelsNotStraight,
    /// A level across the floor shows a slope.
    FloorSlopes,
    /// Measured from another point, the axle is elsewhere.
    OtherPointDiffers,
    /// The diagonals of the frame are unlike.
    DiagonalsDiffer,
    /// Left and right control arms are of unlike length or in unlike holes.
    ArmsDiffer,
    /// The wheels lean unlike with the axle unloaded, or a straightedge shows the housing bent.
    HousingNotStraight,
    /// Left and right sway links are of unlike length.
    LinksDiffer,
    /// The marks of both sway-bar arms do not match on their splines.
    SplineMarksDiffer,
    /// At full droop a link and its arm are nearly in line, or past it.
    LinkInLine,
    /// Seen from the front the drag link and the track bar lean unlike.
    LeansUnlike,
    /// A corner pushed down keeps swinging.
    KeepsSwinging,
    /// The springs are of unlike free height, part number or sag.
    SpringsDiffer,
    /// What is carried lies to one side.
    LoadOneSided,
}

impl QuickCheck {
    /// Every one.
    pub const ALL: [Self; 26] = [
        Self::BoltMoves,
        Self::BushingMoves,
        Self::BracketMoves,
        Self::RubbedPaint,
        Self::BarNotStraight,
        Self::BarLengthDiffers,
        Self::TurnsDiffer,
        Self::FrameEyeElsewhere,
        Self::AxleEyeElsewhere,
        Self::HoleDiffers,
        Self::BouncedDiffers,
        Self::StoodOtherwise,
        Self::PressuresDiffer,
        Self::WheelsNotStraight,
        Self::FloorSlopes,
        Self::OtherPointDiffers,
        Self::DiagonalsDiffer,
        Self::ArmsDiffer,
        Self::HousingNotStraight,
        Self::LinksDiffer,
        Self::SplineMarksDiffer,
        Self::LinkInLine,
        Self::LeansUnlike,
        Self::KeepsSwinging,
        Self::SpringsDiffer,
        Self::LoadOneSided,
    ];
}

/// A quick check that was made.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CheckRecord {
    /// Which.
    pub what: QuickCheck,
    /// Whether it was seen.
    pub seen: bool,
    /// When and by whom.
    pub done: Mark,
}

/// A cause that somebody confirmed.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FoundCause {
    /// What it is.
    pub what: Suspect,
    /// What was seen.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
    /// When it was confirmed, and by whom.
    pub done: Mark,
    /// When it was mended, and by whom; absent while it is not.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub mended: Option<Mark>,
    /// What was done about it.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub mended_note: String,
}

/// The search for a cause.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
pub struct Diagnosis {
    /// Quick checks, oldest first; each once.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub checks: Vec<CheckRecord>,
    /// Causes that were confirmed, oldest first; each once.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub causes: Vec<FoundCause>,
}

impl Diagnosis {
    /// Whether nothing of it is filled in.
    #[must_use]
    pub const fn is_empty(&self) -> bool {
        self.checks.is_empty() && self.causes.is_empty()
    }

    /// What was seen at a check; None where it was not made, or where a cause that `shows` at it was mended since: what was
    /// seen of that is gone, and has to be looked at again. What another cause left is still there.
    #[must_use]
    pub fn seen(&self, check: QuickCheck, shows: impl Fn(Suspect) -> bool) -> Option<bool> {
        let made = self.checks.iter().rev().find(|made| made.what == check)?;
        let since =
            |cause: &FoundCause| cause.mended.as_ref().is_some_and(|mended| mended.at >= made.done.at);
        let gone = self.causes.iter().any(|cause| shows(cause.what) && since(cause));
        (!gone).then_some(made.seen)
    }
}
