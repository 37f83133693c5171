//! What is asked for where a stage can't go on, and what can't be as it was measured: the sentences at a field.

use derecho_core::pose::solver::Motion;

/// Which side the bar hangs on.
pub const SIDE: &str = "Which side is the bar bolted to the frame on?";
/// The bar's length.
pub const BAR_LENGTH: &str =
    "Type the bar's length, eye to eye; where there is none yet, the gap for a built bar in stage Bracket.";
/// How the bar stands.
pub const BAR_HEIGHTS: &str =
    "Type the heights of both bolts above the floor, or the bar's angle and which end is higher.";
/// A Y-link has no track bar.
pub const NO_TRACK_BAR: &str = "There is no track bar to set: the Y-shaped upper link centres the axle over its whole travel. Stage Cycle shows it; where it is off centre, the link's ends are.";
/// A bar that does not reach its eyes.
pub const BAR_TOO_SHORT: &str = "The bar is shorter than its eyes are apart, up-and-down and fore-and-aft. Check its length and both bolt heights.";
/// What holds the axle.
pub const AXLE_LOCATION: &str = "What holds the axle fore and aft?";
/// Leaf springs and no bar.
pub const BAR_FIRST: &str = "Measure the bar first: it is what moves the axle sideways.";
/// A drag link that ends on the tie rod.
pub const DRAG_LINK_ON_TIE_ROD: &str = "A drag link that ends on the tie rod is another mechanism, which is not computed here. Take the steering out, or say where it ends on a knuckle.";
/// A drag link without length.
pub const DRAG_LINK_IN_ONE_PLACE: &str =
    "Both ends of the drag link are in one place. Check where they were measured.";
/// A built bar's sizes.
pub const BUILT_BAR: &str = "For a built bar type the gap between the shells, both shells and the stock.";
/// What sway bar there is.
pub const SWAY_KIND: &str = "Say what kind of sway bar there is, or that there is none.";
/// The sway arm's holes.
pub const SWAY_HOLES: &str =
    "Type the arm's length from the bar's axis to the link's eye, one for each hole.";
/// The sway bar's axis.
pub const SWAY_AXIS: &str = "Measure the bar's axis: its height, and how far forward of the axle it lies.";
/// The sway link's length.
pub const SWAY_LINK: &str = "Type the link's length, eye to eye.";
/// Where the sway link's eye is.
pub const SWAY_EYE: &str = "Type how far the link's eye on the arm is from the middle.";
/// The sway link's far end.
pub const SWAY_FAR_END: &str =
    "Measure the link's far end, or the arm's angle and both leans of the link where no tape gets there.";
/// The frame's width.
pub const FRAME_WIDTH: &str = "Measure the frame's outside width: the bar has to reach out of it.";
/// Splined bars there are.
pub const SPLINED_BARS: &str = "Type the splined bars that can be had: length and diameter.";

/// An arm without length.
#[must_use]
pub fn arm_in_one_place(name: &str) -> String {
    format!("Both eyes of the {name} are in one place. Check the heights and distances of its two ends.")
}

/// An arm that does not reach its ends.
#[must_use]
pub fn arm_too_short(name: &str) -> String {
    format!(
        "The {name} is shorter than its ends are apart, up-and-down and sideways. Check its length, both heights and both sideways distances."
    )
}

/// A motion of the axle that nothing holds.
#[must_use]
pub fn axle_loose(motion: Motion) -> String {
    format!(
        "As measured, nothing holds the axle {motion}. Check the arms' places and what holds the axle, or measure the bar."
    )
}

/// A part that is too short for where its ends are; mm.
#[must_use]
pub fn does_not_reach(part: &str, missing_mm: f64) -> String {
    format!(
        "The {part} does not reach: it is {:.0} mm too short for where its ends are at ride height. Check its length and both ends.",
        missing_mm.abs()
    )
}

/// A mechanism that can't be posed.
#[must_use]
pub fn as_measured(fault: impl std::fmt::Display) -> String {
    format!("As measured, {fault}.")
}

/// A bar that can't be built.
#[must_use]
pub fn cannot_be_built(fault: impl std::fmt::Display) -> String {
    format!("This bar cannot be built: {fault}.")
}

/// A shock of which one end is not measured.
#[must_use]
pub fn shock_end(name: &str) -> String {
    format!("Type height, distance from the middle and fore and aft of this end of the {name}.")
}
