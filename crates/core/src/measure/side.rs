//! Left and right of the vehicle, seen by somebody sitting in it.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A side of the vehicle. Left and right are stored; driver and passenger follow
/// from the side the steering wheel is on.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Side {
    /// The vehicle's left, +y.
    Left,
    /// The vehicle's right, −y.
    Right,
}

impl Side {
    /// +1 for left, −1 for right: the sign of y, and the `s` of the bar formulas
    /// for a frame eye on that side.
    ///
    /// ```
    /// use derecho_core::measure::Side;
    ///
    /// assert_eq!((Side::Left.sign(), Side::Right.sign()), (1.0, -1.0));
    /// ```
    #[must_use]
    pub const fn sign(self) -> f64 {
        match self {
            Self::Left => 1.0,
            Self::Right => -1.0,
        }
    }

    /// The other side.
    ///
    /// ```
    /// use derecho_core::measure::Side;
    ///
    /// assert_eq!(Side::Left.other(), Side::Right);
    /// ```
    #[must_use]
    pub const fn other(self) -> Self {
        match self {
            Self::Left => Self::Right,
            Self::Right => Self::Left,
        }
    }

    /// The side a signed y points to; nought counts as left.
    ///
    /// ```
    /// use derecho_core::measure::Side;
    ///
    /// assert_eq!((Side::of(2.0), Side::of(-2.0), Side::of(0.0)), (Side::Left, Side::Right, Side::Left));
    /// ```
    #[must_use]
    pub fn of(y: f64) -> Self {
        if y < 0.0 { Self::Right } else { Self::Left }
    }

    /// `left` or `right`.
    ///
    /// ```
    /// use derecho_core::measure::Side;
    ///
    /// assert_eq!(Side::Right.word(), "right");
    /// ```
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Left => "left",
            Self::Right => "right",
        }
    }

    /// `driver's side` or `passenger's side`, given where the steering wheel is.
    ///
    /// ```
    /// use derecho_core::measure::Side;
    ///
    /// // The steering wheel is on the left.
    /// assert_eq!(Side::Right.seat_word(Side::Left), "passenger's side");
    /// ```
    #[must_use]
    pub fn seat_word(self, steering_side: Self) -> &'static str {
        if self == steering_side { "driver's side" } else { "passenger's side" }
    }
}
