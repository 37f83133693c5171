//! The bar at every height of the rig.

use derecho_core::bar::FrontView;
use derecho_core::measure::{Angle, Length};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::document::heights::{RIDE_HEIGHT, driven_offset, travel};
use crate::document::{HeightId, Rig};

/// One height in the result tables.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HeightResult {
    /// Its id; empty for ride height where the rig has no row for it.
    pub id: HeightId,
    /// Its name.
    pub name: String,
    /// Whether it is the driven one, where decisions are made.
    pub driven: bool,
    /// Body above ride height.
    pub offset_mm: Length,
    /// The travel it stands at: the offset turned round.
    pub travel_mm: Length,
    /// Travel up that remains from there.
    pub bump_left_mm: Length,
    /// Travel down that remains from there.
    pub droop_left_mm: Length,
    /// The bar there, as found.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub found: Option<BarAtHeight>,
    /// The bar there, with the planned length.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub planned: Option<BarAtHeight>,
}

/// The bar at one height.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BarAtHeight {
    /// Angle in front view, + frame end higher.
    pub angle_deg: Angle,
    /// To the left per unit of bump.
    pub lateral_rate: f64,
    /// Axle centre to the left of the body's centre.
    pub offset_mm: Length,
}

/// All heights of a rig, with the bar as found and as planned where they are known.
/// Both views stand at the driven height, where their axle is at the offset beside
/// them.
#[must_use]
pub fn table(
    rig: &Rig,
    found: Option<(&FrontView, Length)>,
    planned: Option<(&FrontView, Length)>,
) -> Vec<HeightResult> {
    let (droop, bump) = travel(rig);
    let driven = driven_offset(rig);
    let mut rows: Vec<(HeightId, String, Length)> = rig
        .heights
        .iter()
        .map(|height| (height.id.clone(), height.name.clone(), height.offset.length()))
        .collect();
    // A row may stand for ride height itself.
    let ride = rig.heights.iter().find(|height| height.name == RIDE_HEIGHT).map(|height| &height.id);
    let driven_id = if rig.driven_height.is_empty() {
        ride.cloned().unwrap_or_default()
    } else {
        rig.driven_height.clone()
    };
    if rows.is_empty() || driven_id.is_empty() {
        rows.insert(0, (HeightId::default(), RIDE_HEIGHT.to_owned(), Length::ZERO));
    }
    let at = |view: Option<(&FrontView, Length)>, raised: Length| {
        let (view, offset) = view?;
        let there = view.raised_by(raised).ok()?;
        let shift = view.shift_of_lift(raised).ok()?;
        Some(BarAtHeight {
            angle_deg: there.angle(),
            lateral_rate: there.lateral_rate(),
            offset_mm: offset + shift,
        })
    };
    rows.into_iter()
        .map(|(id, name, offset)| HeightResult {
            driven: id == driven_id,
            id,
            name,
            offset_mm: offset,
            travel_mm: -offset,
            bump_left_mm: bump + offset,
            droop_left_mm: droop - offset,
            found: at(found, offset - driven),
            planned: at(planned, offset - driven),
        })
        .collect()
}
