//! What is asked for where a stage can't go on, and what can't be as it was measured: the sentences at a field.

use derecho_core::pose::solver::Motion;

/// Which side the bar hangs on.
pub const SIDE: &str = "Which side is the bar's frame end on?";
/// The bar's length.
pub const BAR_LENGTH: &str =
    "Enter the bar's length, eye to eye. No bar yet? Enter the gap on the Bar screen, under Other bars.";
/// How the bar stands.
pub const BAR_HEIGHTS: &str =
    "Enter the heights of both bolts above the floor, or the bar's angle and which end is higher.";
/// The rail's own height, where heights are taken from it.
pub const RAIL_UNDERSIDE: &str = "Enter how high the underside of the frame rail is above the floor, on its wheels: heights here are measured from it.";
/// Between both hub faces, where a point is measured from one.
pub const HUB_FACES: &str =
    "Enter the distance between both hub faces: a point on the axle is measured from one of them.";
/// A Y-link has no track bar.
pub const NO_TRACK_BAR: &str = "No track bar to adjust: the Y-link keeps the axle centered through its travel. If the axle is off center, so are the ends of the Y-link.";
/// No track bar any more once a job is done.
pub const BAR_COMES_OUT: &str = "This job replaces the track bar with a Y-link, so there is nothing to adjust here. On the Rig screen set what locates the axle to Y-link, then enter its ends.";
/// A bar that does not reach its eyes.
pub const BAR_TOO_SHORT: &str = "The bar is shorter than the height and fore-aft distance between its two bolts. Check its length and both bolt heights.";
/// What holds the axle.
pub const AXLE_LOCATION: &str = "What locates the axle fore and aft?";
/// Leaf springs and no bar.
pub const BAR_FIRST: &str = "Measure the bar first: it is what moves the axle sideways.";
/// A drag link that ends on the tie rod.
pub const DRAG_LINK_ON_TIE_ROD: &str = "A drag link that ends on the tie rod is not covered. Take the steering out, or enter where it ends on a knuckle.";
/// A drag link without length.
pub const DRAG_LINK_IN_ONE_PLACE: &str =
    "Both ends of the drag link are in the same place. Check where they were measured.";
/// A built bar's sizes.
pub const BUILT_BAR: &str =
    "For a built bar, enter the gap between the bushing shells, both shell diameters and the bar stock.";
/// What a stock angle is aimed at by.
pub const STOCK_ANGLE: &str = "Enter the bar's stock angle, + with the frame end higher: from the vehicle's manual, or another one that was never lifted.";
/// What sway bar there is.
pub const SWAY_KIND: &str = "Choose the kind of sway bar, or say there is none.";
/// The sway arm's holes.
pub const SWAY_HOLES: &str =
    "Enter the sway bar arm length, center of the bar to the sway link hole, one for each hole.";
/// The sway bar's axis.
pub const SWAY_AXIS: &str =
    "Measure the sway bar: its height above the floor and how far forward of the axle.";
/// The sway link's length.
pub const SWAY_LINK: &str = "Enter the sway link length, eye to eye.";
/// Where the sway link's eye is.
pub const SWAY_EYE: &str = "Enter how far the sway link hole in the sway bar arm is from the centerline.";
/// The sway link's far end.
pub const SWAY_FAR_END: &str = "Measure the other end of the sway link. If a tape won't reach, enter the sway bar arm angle and both lean angles of the sway link.";
/// The frame's width.
pub const FRAME_WIDTH: &str = "Measure the frame's outside width: the sway bar has to stick out past it.";
/// Splined bars there are.
pub const SPLINED_BARS: &str = "Enter the splined bars you can get: length and diameter.";

/// An arm without length.
#[must_use]
pub fn arm_in_one_place(name: &str) -> String {
    format!("Both ends of the {name} are in the same place. Check their heights and distances.")
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
        "By these measurements nothing holds the axle {motion}. Check the control arm positions and the axle setup, or measure the bar."
    )
}

/// A part that is too short for where its ends are; mm.
#[must_use]
pub fn does_not_reach(part: &str, missing_mm: f64) -> String {
    format!(
        "The {part} doesn't reach: {:.0} mm too short at ride height. Check its length and both ends.",
        missing_mm.abs()
    )
}

/// A mechanism that can't be posed.
#[must_use]
pub fn as_measured(fault: impl std::fmt::Display) -> String {
    format!("By these measurements, {fault}.")
}

/// A bar that can't be built.
#[must_use]
pub fn cannot_be_built(fault: impl std::fmt::Display) -> String {
    format!("This bar can't be built: {fault}.")
}

/// A shock of which one end is not measured.
#[must_use]
pub fn shock_end(name: &str) -> String {
    format!("Enter the height, distance from the centerline and fore-aft position of this end of the {name}.")
}
