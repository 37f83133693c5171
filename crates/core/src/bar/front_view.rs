//! One bar in front view: the quick model.
//!
//! The frame eye F stands still with the body, the axle eye A moves with the axle in
//! pure heave. With v = F_z − A_z (positive when the frame end is higher),
//! d = F_x − A_x and the centre-to-centre length L, the bar reaches sideways
//! h = √(L² − v² − d²) (Pythagoras). s is +1 for a frame eye on the left, −1 on the
//! right. Bump is positive travel and takes v down: v(t) = v − t.

use serde::{Deserialize, Serialize};
use thiserror::Error;
use utoipa::ToSchema;

use crate::measure::{Angle, Length, Side};

/// Why a bar cannot be drawn.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Error)]
pub enum BarFault {
    /// The length is nought, negative or no number.
    #[error("the bar has no length")]
    NoLength,
    /// The eyes are further apart, up-and-down and fore-and-aft, than the bar is long.
    #[error("the bar is shorter than the distance between its bolts: check its length and both bolt heights")]
    TooShort,
}

/// A track bar at one height of the body.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct FrontView {
    length: Length,
    rise: Length,
    fore_aft: Length,
    frame_eye_side: Side,
}

/// The length that brings the axle back to centre, and the rules of thumb beside it.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Recentring {
    /// Sideways reach wanted, h′ = h + s·e.
    pub reach_mm: Length,
    /// Length wanted, L′ = √(h′² + v² + d²).
    pub length_mm: Length,
    /// L′ − L; positive is longer.
    pub change_mm: Length,
    /// First order, s·e·h/L.
    pub first_order_change_mm: Length,
    /// The half-difference rule of thumb, s·e.
    pub thumb_change_mm: Length,
    /// What the thumb sets too long (positive) or too short (negative).
    pub thumb_cost_mm: Length,
}

/// How far the axle swings sideways over the travel.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Swing {
    /// Shift to the left at full droop, against the height the sweep starts from.
    pub at_full_droop_mm: Length,
    /// Shift to the left at full bump.
    pub at_full_bump_mm: Length,
    /// Furthest left less furthest right, the level point counted where it is reached.
    pub peak_to_peak_mm: Length,
    /// Travel at which the bar is level.
    pub level_travel_mm: Length,
    /// Whether the bar gets level inside the travel.
    pub level_inside: bool,
    /// Travel in droop at which the bar is pulled tight, where that is inside the travel.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tight_in_droop_mm: Option<Length>,
    /// Travel in bump at which the bar is pulled tight, where that is inside the travel.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tight_in_bump_mm: Option<Length>,
}

fn square(length: Length) -> f64 {
    length.to_mm() * length.to_mm()
}

impl FrontView {
    /// A bar of centre-to-centre `length`, whose frame eye is higher by `rise` and
    /// further forward by `fore_aft`.
    ///
    /// # Errors
    /// Where no such bar exists.
    pub fn new(
        length: Length,
        rise: Length,
        fore_aft: Length,
        frame_eye_side: Side,
    ) -> Result<Self, BarFault> {
        let all_finite = [length, rise, fore_aft].iter().all(|l| l.to_mm().is_finite());
        if !all_finite || length <= Length::ZERO {
            return Err(BarFault::NoLength);
        }
        if square(length) <= square(rise) + square(fore_aft) {
            return Err(BarFault::TooShort);
        }
        Ok(Self { length, rise, fore_aft, frame_eye_side })
    }

    /// Centre-to-centre length L.
    #[must_use]
    pub const fn length(&self) -> Length {
        self.length
    }

    /// v: how much higher the frame eye is.
    #[must_use]
    pub const fn rise(&self) -> Length {
        self.rise
    }

    /// d: how much further forward the frame eye is.
    #[must_use]
    pub const fn fore_aft(&self) -> Length {
        self.fore_aft
    }

    /// The side the frame eye is on.
    #[must_use]
    pub const fn frame_eye_side(&self) -> Side {
        self.frame_eye_side
    }

    /// Sideways reach h at the height of this view.
    ///
    /// ```
    /// use derecho_core::bar::FrontView;
    /// use derecho_core::measure::{Length, Side};
    ///
    /// // 6, 8, 10: the frame eye on the left, 60 mm over the axle eye.
    /// let mm = Length::from_mm;
    /// let bar = FrontView::new(mm(1000.0), mm(600.0), mm(0.0), Side::Left).unwrap();
    /// assert!((bar.reach().to_mm() - 800.0).abs() < 1e-9);
    /// ```
    #[must_use]
    pub fn reach(&self) -> Length {
        self.reach_at(Length::ZERO)
    }

    /// Sideways reach at a travel; nought from where the bar is pulled tight.
    ///
    /// ```
    /// use derecho_core::bar::FrontView;
    /// use derecho_core::measure::{Length, Side};
    ///
    /// // 6, 8, 10: the frame eye on the left, 60 mm over the axle eye.
    /// let mm = Length::from_mm;
    /// let bar = FrontView::new(mm(1000.0), mm(600.0), mm(0.0), Side::Left).unwrap();
    /// // Bumped by as much as it rises, it is level, and reaches its whole length.
    /// assert!((bar.reach_at(mm(600.0)).to_mm() - 1000.0).abs() < 1e-9);
    /// ```
    #[must_use]
    pub fn reach_at(&self, travel: Length) -> Length {
        let squared = square(self.length) - square(self.rise - travel) - square(self.fore_aft);
        Length::from_mm(squared.max(0.0).sqrt())
    }

    /// Angle θ = atan2(v, h) in front view; positive when the frame end is higher.
    ///
    /// ```
    /// use derecho_core::bar::FrontView;
    /// use derecho_core::measure::{Length, Side};
    ///
    /// // 6, 8, 10: the frame eye on the left, 60 mm over the axle eye.
    /// let mm = Length::from_mm;
    /// let bar = FrontView::new(mm(1000.0), mm(600.0), mm(0.0), Side::Left).unwrap();
    /// assert!((bar.angle().tan() - 0.75).abs() < 1e-12);
    /// ```
    #[must_use]
    pub fn angle(&self) -> Angle {
        self.angle_at(Length::ZERO)
    }

    /// Angle in front view at a travel.
    #[must_use]
    pub fn angle_at(&self, travel: Length) -> Angle {
        let rise = self.rise - travel;
        Angle::from_radians(rise.to_mm().atan2(self.reach_at(travel).to_mm()))
    }

    /// Shift of the axle to the left at a travel, against travel nought:
    /// y(t) = s·(h(0) − h(t)). Held at the limit beyond where the bar is pulled tight.
    ///
    /// ```
    /// use derecho_core::bar::FrontView;
    /// use derecho_core::measure::{Length, Side};
    ///
    /// // 6, 8, 10: the frame eye on the left, 60 mm over the axle eye.
    /// let mm = Length::from_mm;
    /// let bar = FrontView::new(mm(1000.0), mm(600.0), mm(0.0), Side::Left).unwrap();
    /// // Level it reaches 200 mm further, and pushes the axle to the right.
    /// assert!((bar.shift_at(mm(600.0)).to_mm() + 200.0).abs() < 1e-9);
    /// ```
    #[must_use]
    pub fn shift_at(&self, travel: Length) -> Length {
        (self.reach() - self.reach_at(travel)) * self.frame_eye_side.sign()
    }

    /// Lateral rate −s·v/h: millimetres to the left per millimetre of bump.
    ///
    /// ```
    /// use derecho_core::bar::FrontView;
    /// use derecho_core::measure::{Length, Side};
    ///
    /// // 6, 8, 10: the frame eye on the left, 60 mm over the axle eye.
    /// let mm = Length::from_mm;
    /// let bar = FrontView::new(mm(1000.0), mm(600.0), mm(0.0), Side::Left).unwrap();
    /// // −v/h for a frame eye on the left.
    /// assert!((bar.lateral_rate() + 0.75).abs() < 1e-12);
    /// ```
    #[must_use]
    pub fn lateral_rate(&self) -> f64 {
        -self.frame_eye_side.sign() * (self.rise / self.reach())
    }

    /// Travels at which the bar is pulled tight, droop first: v ∓ √(L² − d²).
    ///
    /// ```
    /// use derecho_core::bar::FrontView;
    /// use derecho_core::measure::{Length, Side};
    ///
    /// // 6, 8, 10: the frame eye on the left, 60 mm over the axle eye.
    /// let mm = Length::from_mm;
    /// let bar = FrontView::new(mm(1000.0), mm(600.0), mm(0.0), Side::Left).unwrap();
    /// // Hanging straight down, and standing straight up: v − L and v + L.
    /// let (droop, bump) = bar.pulled_tight();
    /// assert!((droop.to_mm() + 400.0).abs() < 1e-9 && (bump.to_mm() - 1600.0).abs() < 1e-9);
    /// ```
    #[must_use]
    pub fn pulled_tight(&self) -> (Length, Length) {
        let span = Length::from_mm((square(self.length) - square(self.fore_aft)).sqrt());
        (self.rise - span, self.rise + span)
    }

    /// The same bar with the body raised by `lift` (a drop is negative).
    ///
    /// # Errors
    /// Where the bar does not reach so far.
    ///
    /// ```
    /// use derecho_core::bar::FrontView;
    /// use derecho_core::measure::{Length, Side};
    ///
    /// // 6, 8, 10: the frame eye on the left, 60 mm over the axle eye.
    /// let mm = Length::from_mm;
    /// let bar = FrontView::new(mm(1000.0), mm(600.0), mm(0.0), Side::Left).unwrap();
    /// assert!((bar.raised_by(mm(-600.0)).unwrap().angle().to_degrees()).abs() < 1e-9);
    /// ```
    pub fn raised_by(&self, lift: Length) -> Result<Self, BarFault> {
        Self::new(self.length, self.rise + lift, self.fore_aft, self.frame_eye_side)
    }

    /// A bar of another length at the same height.
    ///
    /// # Errors
    /// Where it would not reach.
    ///
    /// ```
    /// use derecho_core::bar::FrontView;
    /// use derecho_core::measure::{Length, Side};
    ///
    /// // 6, 8, 10: the frame eye on the left, 60 mm over the axle eye.
    /// let mm = Length::from_mm;
    /// let bar = FrontView::new(mm(1000.0), mm(600.0), mm(0.0), Side::Left).unwrap();
    /// // 600, 1000·0.866…: a bar shorter than its rise cannot be.
    /// assert!(bar.with_length(mm(599.0)).is_err());
    /// ```
    pub fn with_length(&self, length: Length) -> Result<Self, BarFault> {
        Self::new(length, self.rise, self.fore_aft, self.frame_eye_side)
    }

    /// A bar of another length between eyes moved: the rise and the fore-aft distance changed.
    ///
    /// # Errors
    /// Where it would not reach.
    pub fn moved(&self, length: Length, rise: Length, fore_aft: Length) -> Result<Self, BarFault> {
        Self::new(length, self.rise + rise, self.fore_aft + fore_aft, self.frame_eye_side)
    }

    /// How far the axle goes to the left when the body is raised by `lift`, the bar
    /// unchanged: s·(h₁ − h₂).
    ///
    /// # Errors
    /// Where the bar does not reach so far.
    pub fn shift_of_lift(&self, lift: Length) -> Result<Length, BarFault> {
        let raised = self.raised_by(lift)?;
        Ok((self.reach() - raised.reach()) * self.frame_eye_side.sign())
    }

    /// How far the axle goes to the left when the bar is set to `length` at this
    /// height: −s·(h′ − h). A longer bar pushes it away from the frame eye.
    ///
    /// # Errors
    /// Where the bar would not reach.
    ///
    /// ```
    /// use derecho_core::bar::FrontView;
    /// use derecho_core::measure::{Length, Side};
    ///
    /// // 6, 8, 10: the frame eye on the left, 60 mm over the axle eye.
    /// let mm = Length::from_mm;
    /// let bar = FrontView::new(mm(1000.0), mm(600.0), mm(0.0), Side::Left).unwrap();
    /// // √(1000.5² − 600²) − 800 further out: about 1/0.8 of the half millimetre, to the right.
    /// let shift = bar.shift_of_length(mm(1000.5)).unwrap().to_mm();
    /// assert!((shift + 0.625).abs() < 1e-3);
    /// ```
    pub fn shift_of_length(&self, length: Length) -> Result<Length, BarFault> {
        let changed = self.with_length(length)?;
        Ok((self.reach() - changed.reach()) * self.frame_eye_side.sign())
    }

    /// The length that takes out an `offset` to the left, read at this height.
    ///
    /// # Errors
    /// Where the offset is as large as the bar reaches.
    ///
    /// ```
    /// use derecho_core::bar::FrontView;
    /// use derecho_core::measure::{Length, Side};
    ///
    /// // 6, 8, 10: the frame eye on the left, 60 mm over the axle eye.
    /// let mm = Length::from_mm;
    /// let bar = FrontView::new(mm(1000.0), mm(600.0), mm(0.0), Side::Left).unwrap();
    /// // 40 mm to the left of centre: it has to reach 840. √(840² + 600²).
    /// let wanted = bar.recentred(mm(40.0)).unwrap();
    /// assert!((wanted.length_mm.to_mm() - (840.0_f64.powi(2) + 600.0_f64.powi(2)).sqrt()).abs() < 1e-9);
    /// ```
    pub fn recentred(&self, offset: Length) -> Result<Recentring, BarFault> {
        self.recentred_moved(offset, Length::ZERO, Length::ZERO, Length::ZERO).map(|(wanted, _)| wanted)
    }

    /// The length that takes out an `offset` to the left with the eyes moved: the rise and
    /// the fore-aft distance changed by `rise` and `fore_aft`, and the frame eye moved to the
    /// left of the axle eye by `sideways` more. h′ = h + s·(e + sideways),
    /// L′ = √(h′² + v′² + d′²). With it, the bar as it will lie.
    ///
    /// # Errors
    /// Where there is no such bar.
    pub fn recentred_moved(
        &self,
        offset: Length,
        rise: Length,
        fore_aft: Length,
        sideways: Length,
    ) -> Result<(Recentring, Self), BarFault> {
        let toward_frame_eye = offset * self.frame_eye_side.sign();
        let reach = self.reach() + (offset + sideways) * self.frame_eye_side.sign();
        if reach <= Length::ZERO {
            return Err(BarFault::TooShort);
        }
        let (rise, fore_aft) = (self.rise + rise, self.fore_aft + fore_aft);
        let length = Length::from_mm((square(reach) + square(rise) + square(fore_aft)).sqrt());
        let change = length - self.length;
        let recentring = Recentring {
            reach_mm: reach,
            length_mm: length,
            change_mm: change,
            first_order_change_mm: toward_frame_eye * (self.reach() / self.length),
            thumb_change_mm: toward_frame_eye,
            thumb_cost_mm: toward_frame_eye - change,
        };
        Ok((recentring, Self::new(length, rise, fore_aft, self.frame_eye_side)?))
    }

    /// Swing over the travel from `droop` below to `bump` above, both given as
    /// distances. Where the bar is pulled tight first, the figures are those there.
    #[must_use]
    pub fn swing(&self, droop: Length, bump: Length) -> Swing {
        let (tight_droop, tight_bump) = self.pulled_tight();
        let low = tight_droop.max(-droop);
        let high = tight_bump.min(bump);
        let level_inside = low <= self.rise && self.rise <= high;
        let mut shifts = vec![self.shift_at(low), self.shift_at(high)];
        if level_inside {
            shifts.push(self.shift_at(self.rise));
        }
        let most = shifts.iter().copied().fold(shifts[0], Length::max);
        let least = shifts.iter().copied().fold(shifts[0], Length::min);
        Swing {
            at_full_droop_mm: shifts[0],
            at_full_bump_mm: shifts[1],
            peak_to_peak_mm: most - least,
            level_travel_mm: self.rise,
            level_inside,
            tight_in_droop_mm: (tight_droop > -droop).then_some(tight_droop),
            tight_in_bump_mm: (tight_bump < bump).then_some(tight_bump),
        }
    }
}
