//! What the lines of a working find, as facts. Not here: how they are said.

use serde::{Serialize, Serializer};

use super::said;
use crate::measure::Stress;

/// What a line of a working finds. Figures are of the unit the line shows.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Meaning {
    /// The offset.
    Offset,
    /// Change of length a turn, threads of opposite hands.
    PerTurnOpposite,
    /// Change of length a turn, threads of the same hand.
    PerTurnSame,
    /// Change of length a turn of the one end.
    PerTurnOneEnd,
    /// Turns.
    Turns,
    /// What whole steps set.
    ChangeSet,
    /// What whole steps leave, + is still too short.
    LeftOver,
    /// Thread in afterwards.
    ThreadIn,
    /// Half the difference of the means, + to the left.
    HalfDifference,
    /// What scatter and graduation leave open.
    Repeat,
    /// The uncertainty with the feature's own.
    Uncertainty,
    /// How likely it is within the tolerance.
    Likelihood,
    /// What the sloping floor adds to a plumb line.
    FloorSlope,
    /// What the lean of the axle hides.
    AxleLean,
    /// The offset after floor and lean.
    OffsetAfterBoth,
    /// Yaw of the axle, + points to the left.
    Yaw,
    /// Sideways reach before the lift.
    ReachBefore,
    /// Sideways reach after the lift.
    ReachAfter,
    /// Rise after the lift.
    RiseAfter,
    /// Shift of the axle by the lift, + to the left.
    ShiftOfLift,
    /// Rise of the frame eye as it was read.
    RiseAsRead,
    /// Rise of the frame eye.
    Rise,
    /// Rise at the driven height.
    RiseDriven,
    /// Sideways reach.
    Reach,
    /// Angle in front view, + frame end higher.
    FrontViewAngle,
    /// Lateral rate, + to the left per unit of bump.
    LateralRate,
    /// Sideways reach wanted.
    ReachWanted,
    /// Length wanted.
    LengthWanted,
    /// Change of length.
    Change,
    /// The change to first order.
    FirstOrder,
    /// The half-difference rule of thumb.
    HalfDifferenceRule,
    /// What that rule sets too long.
    RuleError,
    /// Load of the bar.
    BarLoad,
    /// Euler's stress.
    EulerStress,
    /// Eccentricity.
    Eccentricity,
    /// Compression it stands over its load.
    CompressionMargin,
    /// Saddle at the frame eye.
    FrameSaddle,
    /// Saddle at the axle eye.
    AxleSaddle,
    /// Stock to cut.
    StockCut,
    /// Length, centre to centre.
    CentreToCentre,
    /// Riser that lays the bar parallel to the drag link.
    RiserParallel,
    /// The riser that gives the bar its stock angle.
    RiserAsStock,
    /// Riser that levels the bar.
    RiserLevel,
    /// The bolt's grip.
    Grip,
    /// The shortest bolt.
    ShortestBolt,
    /// Movement measured, + to the left.
    Measured,
    /// What both sheets are good to.
    SheetsGoodTo,
    /// What the difference is good to.
    DifferenceGoodTo,
    /// Where it lands by both together.
    Landing,
    /// Movement predicted, + to the left.
    Predicted,
    /// The link's far end from the bar's axis.
    FarEnd,
    /// The link in the arm's plane.
    LinkInPlane,
    /// Angle at the link's eye.
    AngleAtEye,
    /// Torsion of the sway bar.
    Torsion,
    /// The same with what gives.
    TorsionWithGive,
    /// The same at the axle.
    AtTheAxle,
    /// The arm in use.
    ArmInUse,
    /// What leans.
    Overturning,
    /// Roll rate of the springs here.
    SpringsHere,
    /// Roll rate of this axle, its bar in.
    AxleWithBar,
    /// The same on tires that give.
    AxleWithBarOnTires,
    /// Roll on the road.
    RollOnRoad,
    /// Shear at the worst twist, of what its steel takes.
    Shear {
        /// What its steel takes.
        allowable: Stress,
        /// In which setting.
        driven: ShearIn,
    },
}

/// The setting in which a sway bar's shear is worked out.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum ShearIn {
    /// The bar as it is, wherever the axle goes.
    Everywhere,
    /// Locked, in a hard bend.
    Locked,
    /// Unlocked, wherever the axle goes.
    Unlocked,
}

impl Serialize for Meaning {
    /// As its text.
    ///
    /// # Errors
    /// Where no language is given: see [`said::written_with`].
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        said::text(self, serializer)
    }
}

/// What a working works out.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub enum Heading {
    /// Nothing is worked out.
    #[default]
    Nothing,
    /// Turns and flats of an adjuster.
    TurnsAndFlats,
    /// How far off the axle is.
    HowFarOff,
    /// How square the axle is.
    HowSquare,
    /// The bar's angle and lateral rate.
    AngleAndRate,
    /// The length that centres it.
    CentringLength,
    /// From the gap to the cut.
    GapToCut,
    /// The exact riser or drop.
    ExactRiser,
    /// The bolt's length.
    BoltLength,
    /// Movement, predicted and measured.
    Movement,
    /// Arm and link as it stands.
    ArmAndLink,
    /// The sway bar's rate.
    BarRate,
    /// Roll on the road.
    RoadRoll,
    /// What the lift alone does.
    Lift {
        /// Whether it is lowered.
        lowered: bool,
    },
    /// How strong a bar is.
    Strength {
        /// Its name.
        part: String,
    },
}

impl Serialize for Heading {
    /// As its text.
    ///
    /// # Errors
    /// Where no language is given: see [`said::written_with`].
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        said::text(self, serializer)
    }
}
