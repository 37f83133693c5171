//! What the bodies of a mechanism are called where nobody named them: as they stand in errors beside the names people
//! gave.

use derecho_core::measure::Side;

/// The track bar.
pub const TRACK_BAR: &str = "track bar";
/// The drag link.
pub const DRAG_LINK: &str = "drag link";
/// The tie rod.
pub const TIE_ROD: &str = "tie rod";

/// The driveshaft.
pub const DRIVESHAFT: &str = "driveshaft";

/// The front half of a leaf spring.
#[must_use]
pub fn spring_half(side: Side) -> String {
    format!("{} spring's front half", side.word())
}
