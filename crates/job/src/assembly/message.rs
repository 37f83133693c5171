//! What does not agree of a mechanism, and what had to be assumed, as facts.

use crate::assembly::named::LikelyCause;
use crate::message::{OfTopic, Topic};
use derecho_core::measure::{Force, Length, SpringRate};

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
        parts: (String, String),
        gap: f64,
    },
    /// What is assumed of a point: whether, what, and where in mm.
    Point {
        name: String,
        assumed: Vec<(bool, &'static str, f64)>,
    },
    UpperArmOnTheLeft,
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
        place: String,
    },
    Length {
        what: String,
        length: Length,
    },
    NoOtherBar,
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
        name: String,
        /// The size, mm.
        mm: f64,
    },
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
