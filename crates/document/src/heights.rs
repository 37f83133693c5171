//! Height states: the same axle at the heights the body is driven or parked at.
//!
//! A height is an offset of the body from ride height, + higher. In travel that is
//! −offset; bump + offset and droop − offset remain from there.

use crate::{HeightId, HeightState, Job, Rig};
use derecho_core::measure::Length;

/// The name of ride height where the rig names none.
pub const RIDE_HEIGHT: &str = "ride height";

/// Travel up assumed where the rig leaves it empty: what most trucks have left over at ride height (default of this
/// program).
pub const BUMP: Length = Length::from_mm(75.0);

/// Travel down assumed where the rig leaves it empty: as much as a usual shock gives (default of this program).
pub const DROOP: Length = Length::from_mm(100.0);

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

/// Droop and bump from ride height, as distances, assumed where empty.
#[must_use]
pub fn travel(rig: &Rig) -> (Length, Length) {
    let of = |entry: &Option<derecho_core::measure::TapeEntry>, assumed| {
        entry.as_ref().map_or(assumed, derecho_core::measure::TapeEntry::length)
    };
    (of(&rig.droop, DROOP), of(&rig.bump, BUMP))
}
