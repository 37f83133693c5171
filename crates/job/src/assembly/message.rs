//! What does not agree of a mechanism, and what had to be assumed, as facts.

use crate::assembly::named::LikelyCause;
use crate::message::{OfTopic, Topic};
use derecho_core::measure::{Force, Length, SpringRate};
use derecho_core::pose::body::BodyName;

/// A message about a mechanism. Heights are above the floor.
#[expect(
    missing_docs,
    reason = "a message holds what its fields are named; lengths, angles and forces are of their types"
)]
#[derive(Clone, Debug, PartialEq)]
pub enum AssemblyMessage {
    AxleHeight {
        mm: f64,
    },
    /// A part inside another before anything moves; `gap` is negative, mm.
    Inside {
        parts: (BodyName, BodyName),
        gap: f64,
    },
    /// What is assumed of a point: whether, what, and where in mm.
    Point {
        name: PointName,
        assumed: Vec<(bool, Coordinate, f64)>,
    },
    UpperArmOnTheLeft,
    /// An axle whose track bar is not measured.
    StraightUpAndDown,
    RigidSprings,
    /// An arm whose length and ends do not agree, with the likely cause; mm.
    Unlike {
        name: String,
        length: f64,
        apart: f64,
        cause: LikelyCause,
    },
    BushSpacing,
    AxleEye {
        usual: Length,
    },
    EyeAboveTheAxle,
    FrameEye {
        half: Length,
    },
    Kingpin {
        usual: Length,
    },
    UprightKingpin,
    AxleWeight {
        on_it: Force,
    },
    OtherWeight {
        on_it: Force,
    },
    UnsprungWeight {
        on_it: Force,
    },
    Gravity {
        above_hub: Length,
        good_to: Length,
    },
    Springs {
        rate: SpringRate,
        other: bool,
    },
    Length {
        what: AssumedLength,
        length: Length,
    },
    /// A sway bar at the other axle that nobody entered, and the diameter it counts with.
    OtherBarNotEntered {
        usual: Length,
    },
    /// Where the centre of gravity stands: a share of the wheelbase behind the front axle.
    Station {
        wheelbase: Length,
        behind_front: f64,
    },
}

impl OfTopic for AssemblyMessage {
    const TOPIC: Topic = Topic::Assembly;
}

/// What is assumed, as facts.
#[derive(Clone, Debug, PartialEq)]
pub enum AssumedMessage {
    /// A size of the drawing.
    Drawn {
        /// What it is.
        size: DrawnSize,
        /// The size, mm.
        mm: f64,
    },
    /// A figure that the job at the other end knows.
    Field(FieldOf, VehicleField),
    /// A length that is taken where a field is empty.
    Length(Length),
    /// An angle that is taken where a field is empty, degrees, in whole degrees.
    WholeDegrees(f64),
    /// The same to a tenth.
    Degrees(f64),
    /// The finest mark of a tape.
    Graduation,
}

impl OfTopic for AssumedMessage {
    const TOPIC: Topic = Topic::Assumed;
}

/// A size that only the drawing needs, or the travel.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum DrawnSize {
    /// Travel up.
    Bump,
    /// Travel down.
    Droop,
    /// Track width.
    Track,
    /// Tire diameter.
    TireDiameter,
    /// Tire width.
    TireWidth,
    /// Frame width.
    FrameWidth,
}

/// A point of a mechanism.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum PointName {
    /// An arm's end at the axle.
    ArmAxleEnd(String),
    /// An arm's end at the body.
    ArmBodyEnd(String),
    /// The drag link's end at the pitman arm.
    PitmanEnd,
    /// The drag link's end at the axle.
    AxleEnd,
    /// Of what a person named.
    Named(String),
}

/// A coordinate of a point.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Coordinate {
    /// Height.
    Height,
    /// Out from the middle.
    Sideways,
    /// Fore and aft.
    ForeAft,
}

/// A length of the vehicle that is assumed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum AssumedLength {
    /// Between the springs at this axle.
    SpringSpacing,
    /// The other axle's track.
    OtherTrack,
    /// Between the springs at the other axle.
    OtherSpringSpacing,
    /// Straight length of the other axle's sway bar.
    OtherSwayBar,
    /// Diameter of the other axle's sway bar.
    OtherSwayDiameter,
    /// Its arm.
    OtherSwayArm,
    /// The other axle's travel up.
    OtherBump,
    /// The other axle's travel down.
    OtherDroop,
    /// The other axle's roll centre.
    OtherRollCentre,
    /// Height of the roof load.
    RoofHeight,
}

/// A figure of the vehicle that the job at its other end knows.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[expect(missing_docs, reason = "each is the field of its name")]
pub enum VehicleField {
    SteeringSide,
    TireDiameter,
    TireWidth,
    Wheelbase,
    CentreOfGravity,
    CentreOfGravityGoodTo,
    TireRate,
    UnsprungWeight,
    RoofLoad,
    RoofHeight,
    By,
    AxleWeight,
    LeftCorner,
    RightCorner,
    SpringRate,
    SpringSpacing,
    Track,
    Bump,
    Droop,
    SwayBarRollRate,
    RollCentre,
}

/// Whose figure it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum FieldOf {
    /// The vehicle's, one for both axles.
    Vehicle,
    /// The other axle's.
    OtherAxle,
    /// This axle's.
    ThisAxle,
}
