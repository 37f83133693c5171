//! What each kind of axle location consists of, and where its points usually are: a place
//! to start from until somebody measures.

use glam::DVec3;

use crate::measure::Side;

/// A place for an arm.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum ArmPlace {
    /// Lower arm or radius arm.
    Lower(Side),
    /// Upper arm, or a leg of a Y-shaped link.
    Upper(Side),
}

/// Kinds of axle location with arms.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum ArmLayout {
    /// Two radius arms.
    Radius,
    /// Two lower arms and one upper one on a side.
    Three(Side),
    /// Two lower and two upper arms.
    Four,
    /// Two lower arms and a Y-shaped upper link.
    Y,
}

/// The vehicle's sizes a template is drawn with, in millimetres.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Sizes {
    /// Half of the frame's outside width.
    pub rail: f64,
    /// Axle centre above the floor.
    pub axle_height: f64,
    /// +1 where arms lead forward from the axle (rear axles), −1 where back (front axles).
    pub leads: f64,
}

impl ArmLayout {
    /// The arms there are, lower ones first.
    #[must_use]
    pub fn places(self) -> Vec<ArmPlace> {
        let (left, right) = (Side::Left, Side::Right);
        let mut places = vec![ArmPlace::Lower(left), ArmPlace::Lower(right)];
        match self {
            Self::Radius => {}
            Self::Three(side) => places.push(ArmPlace::Upper(side)),
            Self::Four | Self::Y => places.extend([ArmPlace::Upper(left), ArmPlace::Upper(right)]),
        }
        places
    }

    /// Usual ends of an arm at ride height, on the body and on the axle, in millimetres with
    /// y out to its own side (defaults of this program).
    #[must_use]
    pub fn usual(self, place: ArmPlace, sizes: Sizes) -> (DVec3, DVec3) {
        let Sizes { rail, axle_height: z, leads } = sizes;
        match (self, place) {
            (Self::Radius, _) => {
                (DVec3::new(leads * 950.0, rail - 50.0, z + 90.0), DVec3::new(0.0, rail + 20.0, z))
            }
            (_, ArmPlace::Lower(_)) => {
                (DVec3::new(leads * 900.0, rail - 20.0, z + 60.0), DVec3::new(0.0, rail + 40.0, z - 60.0))
            }
            (Self::Y, ArmPlace::Upper(_)) => {
                (DVec3::new(leads * 650.0, rail - 60.0, z + 240.0), DVec3::new(0.0, 0.0, z + 200.0))
            }
            (_, ArmPlace::Upper(_)) => {
                (DVec3::new(leads * 720.0, rail - 60.0, z + 210.0), DVec3::new(0.0, rail - 120.0, z + 170.0))
            }
        }
    }

    /// What an arm is called.
    #[must_use]
    pub fn name(self, place: ArmPlace) -> String {
        match (self, place) {
            (Self::Radius, ArmPlace::Lower(side) | ArmPlace::Upper(side)) => {
                format!("{} radius arm", side.word())
            }
            (Self::Y, ArmPlace::Upper(side)) => format!("{} leg of the Y-link", side.word()),
            (Self::Three(_), ArmPlace::Upper(_)) => "upper arm".to_owned(),
            (_, ArmPlace::Upper(side)) => format!("{} upper arm", side.word()),
            (_, ArmPlace::Lower(side)) => format!("{} lower arm", side.word()),
        }
    }
}
