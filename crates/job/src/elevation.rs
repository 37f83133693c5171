//! What the end view is drawn from: places in millimetres at the driven height, and
//! which of them are assumed.
//!
//! Body coordinates: y to the left from the body's centreline, z up from the ground
//! with the body at the driven height. Axle-side places are those of an axle standing
//! at the body's centre; a screen adds the axle's shift and takes the body down by the
//! travel.

use crate::assembly::message::{AssumedMessage, DrawnSize};
use crate::defaults::{self, Assumption};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::document::{Job, heights, length_of};
use crate::setups::Setups;
use derecho_core::measure::{Length, Side, TapeEntry};

/// A place in the end view.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Place {
    /// To the left of the centreline.
    pub y_mm: Length,
    /// Above the ground.
    pub z_mm: Length,
}

/// The bar's eyes.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Eyes {
    /// On the frame; goes with the body.
    pub frame: Place,
    /// On the axle; goes with the axle, its y that of a centred axle.
    pub axle: Place,
}

/// The end view.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Elevation {
    /// Between tyre contact centres.
    pub track_mm: Length,
    /// Tyre diameter.
    pub tyre_diameter_mm: Length,
    /// Tyre width.
    pub tyre_width_mm: Length,
    /// Axle centre above the ground.
    pub axle_height_mm: Length,
    /// Frame's outside width.
    pub frame_width_mm: Length,
    /// Underside of the frame rails above the ground, at the driven height: as taped for stage Sway's room,
    /// else where the frame eye hangs under it.
    pub frame_bottom_mm: Length,
    /// Height of a frame rail.
    pub rail_height_mm: Length,
    /// Width of a frame rail.
    pub rail_width_mm: Length,
    /// The side the differential sits on in the drawing: away from the axle eye.
    pub differential_side: Side,
    /// The bar's eyes, where the bar is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub eyes: Option<Eyes>,
    /// The eyes as they are planned or were set, where the plan moves one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub planned_eyes: Option<Eyes>,
    /// The side the frame eye is on.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub frame_eye_side: Option<Side>,
    /// The axle's place at the driven height, as it stands, + left.
    pub axle_offset_mm: Length,
    /// Travel of the driven height.
    pub driven_travel_mm: Length,
    /// Full droop, as travel (negative).
    pub full_droop_mm: Length,
    /// Full bump, as travel.
    pub full_bump_mm: Length,
}

/// Both eyes as they are; `axle_eye_z` is the axle eye's height as it was measured.
fn eyes_found(job: &Job, setups: &Setups, axle_eye_z: Length) -> Eyes {
    let found = &setups.base.view;
    let s = found.frame_eye_side().sign();
    // Eyes moved by a bracket that was fitted since they were measured.
    let moved = setups.base.moves;
    let axle_eye_z = axle_eye_z + Length::from_mm(moved.axle.z);
    let (frame_y, _) = setups.frame_eye_y(&job.setups.found.bar);
    let axle_y = frame_y - found.reach() * s - setups.base.offset;
    Eyes {
        frame: Place { y_mm: frame_y, z_mm: axle_eye_z + found.rise() },
        axle: Place { y_mm: axle_y, z_mm: axle_eye_z },
    }
}

/// Gathers the drawing's places.
#[must_use]
pub fn elevation(job: &Job, setups: Option<&Setups>) -> (Elevation, Vec<Assumption>) {
    let rig = &job.rig;
    let bar = &job.setups.found.bar;
    let mut assumptions = Vec::new();
    let mut or = |entry: &Option<TapeEntry>, mm: f64, pointer: &str, size: DrawnSize, drawing_only| {
        entry.as_ref().map_or_else(
            || {
                assumptions.push(Assumption {
                    pointer: pointer.to_owned(),
                    says: AssumedMessage::Drawn { size, mm }.into(),
                    drawing_only,
                });
                Length::from_mm(mm)
            },
            TapeEntry::length,
        )
    };
    let bump = or(&rig.bump, defaults::BUMP.to_mm(), "/rig/bump", DrawnSize::Bump, false);
    let droop = or(&rig.droop, defaults::DROOP.to_mm(), "/rig/droop", DrawnSize::Droop, false);
    let track = or(&rig.track, defaults::TRACK, "/rig/track", DrawnSize::Track, true);
    let tyre_diameter =
        or(&rig.tyre_diameter, defaults::TYRE_DIAMETER, "/rig/tyre_diameter", DrawnSize::TireDiameter, true);
    let tyre_width = or(&rig.tyre_width, defaults::TYRE_WIDTH, "/rig/tyre_width", DrawnSize::TireWidth, true);
    let frame_width =
        or(&rig.frame_width, defaults::FRAME_WIDTH, "/rig/frame_width", DrawnSize::FrameWidth, true);

    let axle_height = heights::axle_height(rig);
    let axle_eye_z = bar
        .axle_eye_height
        .as_ref()
        .map_or(axle_height + defaults::AXLE_EYE_ABOVE, |height| heights::of_axle(job, height));
    let eyes = setups.map(|setups| eyes_found(job, setups, axle_eye_z));
    // Taped with the body at another height, perhaps.
    let taped = length_of(&job.sway.room.rail_underside)
        .map(|underside| underside - heights::read_at(job) + heights::driven_offset(rig));
    let frame_bottom = taped.unwrap_or_else(|| {
        let over_eye = eyes
            .map_or(axle_height + Length::from_mm(230.0), |eyes| eyes.frame.z_mm + defaults::RAIL_ABOVE_EYE);
        over_eye.max(axle_height + Length::from_mm(120.0))
    });
    let elevation = Elevation {
        track_mm: track,
        tyre_diameter_mm: tyre_diameter,
        tyre_width_mm: tyre_width,
        axle_height_mm: axle_height,
        frame_width_mm: frame_width,
        frame_bottom_mm: frame_bottom,
        rail_height_mm: length_of(&job.sway.room.rail_height).unwrap_or(defaults::RAIL_HEIGHT),
        rail_width_mm: Length::from_mm(defaults::RAIL_WIDTH),
        differential_side: rig.frame_eye_side.unwrap_or(Side::Left),
        eyes,
        planned_eyes: eyes.zip(setups).and_then(|(eyes, setups)| planned_eyes(eyes, setups)),
        frame_eye_side: rig.frame_eye_side,
        axle_offset_mm: setups.map_or(Length::ZERO, |setups| setups.base.offset),
        driven_travel_mm: -heights::driven_offset(rig),
        full_droop_mm: -droop,
        full_bump_mm: bump,
    };
    (elevation, assumptions)
}

/// The eyes moved from the base to what is planned or was set.
fn planned_eyes(eyes: Eyes, setups: &Setups) -> Option<Eyes> {
    let moves = setups.other().moves.since(setups.base.moves);
    let moved = |place: Place, by: glam::DVec3| Place {
        y_mm: place.y_mm + Length::from_mm(by.y),
        z_mm: place.z_mm + Length::from_mm(by.z),
    };
    (!moves.is_none())
        .then(|| Eyes { frame: moved(eyes.frame, moves.frame), axle: moved(eyes.axle, moves.axle) })
}
