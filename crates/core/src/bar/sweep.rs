//! The bar over the whole travel, sampled closely enough that a screen needs no
//! computation of its own between two samples.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::front_view::FrontView;
use crate::measure::{Angle, Length};

/// Sampling distance. With a reach of 800 mm, straight lines between samples are
/// 5²/(8·800) = 0.004 mm off, far below the finest figure shown; closer ones would be most of what is sent.
const STEP_MM: f64 = 5.0;
const FEWEST: usize = 40;
const MOST: usize = 120;

/// One place of the travel.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Sample {
    /// Travel from ride height; bump is positive.
    pub travel_mm: Length,
    /// Where the axle centre is as found: to the left of the body's centre.
    pub found_mm: Length,
    /// Where it is with the planned length.
    pub planned_mm: Length,
    /// Angle of the bar as found; positive when the frame end is higher.
    pub found_angle_deg: Angle,
    /// Angle of the bar with the planned length.
    pub planned_angle_deg: Angle,
}

/// Samples `found` and `planned` from full droop to full bump (distances), both about
/// the body centre. `found` and `planned` stand at the driven height, which is at
/// travel `driven`; there the axle is at `found_offset` as found, and at
/// `planned_offset` with the planned bar. Beyond where either bar is pulled tight
/// there are no samples.
#[must_use]
pub fn sweep(
    (found, found_offset): (&FrontView, Length),
    (planned, planned_offset): (&FrontView, Length),
    driven: Length,
    droop: Length,
    bump: Length,
) -> Vec<Sample> {
    let tight = |view: &FrontView| {
        let (low, high) = view.pulled_tight();
        (low + driven, high + driven)
    };
    let ((low_a, high_a), (low_b, high_b)) = (tight(found), tight(planned));
    let low = (-droop).max(low_a).max(low_b);
    let high = bump.min(high_a).min(high_b);
    let range = (high - low).to_mm();
    let count = ((range / STEP_MM).ceil() as usize).clamp(FEWEST, MOST);
    (0..=count)
        .map(|index| {
            let travel = low + Length::from_mm(range * index as f64 / count as f64);
            let from_driven = travel - driven;
            Sample {
                travel_mm: travel,
                found_mm: found_offset + found.shift_at(from_driven),
                planned_mm: planned_offset + planned.shift_at(from_driven),
                found_angle_deg: found.angle_at(from_driven),
                planned_angle_deg: planned.angle_at(from_driven),
            }
        })
        .collect()
}
