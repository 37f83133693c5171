//! Height states: the same axle at the heights the body is driven or parked at.
//!
//! A height is an offset of the body from ride height, + higher. In travel that is
//! −offset; bump + offset and droop − offset remain from there.

use crate::{HeightId, HeightState, HeightsFrom, Job, Rig, length_of};
use derecho_core::measure::{Length, TapeEntry};

/// The name of ride height where the rig names none.
pub const RIDE_HEIGHT: &str = "ride height";

/// Travel up assumed where the rig leaves it empty: what most trucks have left over at ride height (default of this
/// program).
pub const BUMP: Length = Length::from_mm(75.0);

/// Travel down assumed where the rig leaves it empty: as much as a usual shock gives (default of this program).
pub const DROOP: Length = Length::from_mm(100.0);

/// Outside diameter of the tyres where the rig leaves it empty (default of this program).
pub const TYRE_DIAMETER: Length = Length::from_mm(800.0);

/// The height pointed at, where there is one.
#[must_use]
pub fn height_of<'a>(rig: &'a Rig, id: &HeightId) -> Option<&'a HeightState> {
    rig.heights.iter().find(|height| !id.is_empty() && height.id == *id)
}

/// Its offset; ride height where nothing is pointed at.
#[must_use]
pub fn offset_of(rig: &Rig, id: &HeightId) -> Length {
    height_of(rig, id).map_or(Length::ZERO, |height| height.offset.length())
}

/// What people call the height pointed at.
#[must_use]
pub fn name_of<'a>(rig: &'a Rig, id: &HeightId) -> &'a str {
    height_of(rig, id).map_or(RIDE_HEIGHT, |height| height.name.as_str())
}

/// Offset of the driven height.
#[must_use]
pub fn driven_offset(rig: &Rig) -> Length {
    offset_of(rig, &rig.driven_height)
}

/// How much higher than at ride height the body stood when its points were read.
#[must_use]
pub fn read_at(job: &Job) -> Length {
    if job.hardpoints.height.is_empty() {
        driven_offset(&job.rig)
    } else {
        offset_of(&job.rig, &job.hardpoints.height)
    }
}

/// Something on the body above the floor with the body at ride height, as typed; None where it was taken from a rail whose
/// own height nobody typed. `read` is how much higher than at ride height the body stood when it was taken.
#[must_use]
pub fn of_body(job: &Job, typed: &TapeEntry, read: Length) -> Option<Length> {
    match job.rig.heights_from {
        HeightsFrom::Floor => Some(typed.length() - read),
        HeightsFrom::RailAndAxle => {
            let rail = length_of(&job.sway.room.rail_underside)?;
            Some(rail - read_at(job) + typed.length())
        }
    }
}

/// Something on the axle above the floor, as typed.
#[must_use]
pub fn of_axle(job: &Job, typed: &TapeEntry) -> Length {
    match job.rig.heights_from {
        HeightsFrom::Floor => typed.length(),
        HeightsFrom::RailAndAxle => axle_height(&job.rig) + typed.length(),
    }
}

/// The axle's centre above the floor: half of the tyre where nobody typed it.
#[must_use]
pub fn axle_height(rig: &Rig) -> Length {
    let tyre = length_of(&rig.tyre_diameter).unwrap_or(TYRE_DIAMETER);
    length_of(&rig.axle_height).unwrap_or(tyre / 2.0)
}

/// Whether heights are taken from a rail whose own height nobody typed.
#[must_use]
pub fn rail_is_open(job: &Job) -> bool {
    job.rig.heights_from == HeightsFrom::RailAndAxle && job.sway.room.rail_underside.is_none()
}

/// Droop and bump from ride height, as distances, assumed where empty.
#[must_use]
pub fn travel(rig: &Rig) -> (Length, Length) {
    let of = |entry: &Option<derecho_core::measure::TapeEntry>, assumed| {
        entry.as_ref().map_or(assumed, derecho_core::measure::TapeEntry::length)
    };
    (of(&rig.droop, DROOP), of(&rig.bump, BUMP))
}
