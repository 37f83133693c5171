//! What the keys of acceptances hold: a person settled a job although something stood in the way, and the document says of
//! what it was by these. They are of the file's form and stay as they are, whatever is said on the screen.

/// The frame eye's bolt.
pub const FRAME_EYE: &str = "frame eye's bolt";
/// The axle eye's bolt.
pub const AXLE_EYE: &str = "axle eye's bolt";
/// The bolt of the adjusting end.
pub const ADJUSTER: &str = "bolt of the adjusting end";
/// The bar's one jam nut.
pub const JAM_NUT: &str = "bar's jam nut";
/// The bar's jam nuts or clamps.
pub const JAM_NUTS: &str = "bar's jam nuts or clamps";
/// The clamps of the drag link's sleeve.
pub const DRAG_LINK_CLAMPS: &str = "clamps of the drag link's sleeve";
/// The nuts of the drag-link part.
pub const DRAG_LINK_NUTS: &str = "nuts of the drag-link part";
/// The first sway arm's mount bolt.
pub const FIRST_MOUNT: &str = "first sway arm's mount bolt";
/// The second sway arm's mount bolt.
pub const SECOND_MOUNT: &str = "second sway arm's mount bolt";
/// The sway bar's clamps.
pub const SWAY_CLAMPS: &str = "sway bar's clamps";
/// The pinch bolts of the sway arms.
pub const PINCH: &str = "pinch bolts of the sway arms";
/// The sway links' bolts on the arms.
pub const ARM_EYES: &str = "sway links' bolts on the arms";
/// The sway links' bolts at the far ends.
pub const FAR_ENDS: &str = "sway links' bolts at the far ends";
/// The sway links' jam nuts.
pub const LINKS_JAM: &str = "sway links' jam nuts";
/// The jam nuts of a Y-link's legs.
pub const LEGS_JAM: &str = "jam nuts of the Y-link's legs";
/// The bolts of a Y-link's brackets.
pub const LEGS_BRACKETS: &str = "legs/brackets";
/// The bolts of a Y-link and of the arms.
pub const LEGS_BOLTS: &str = "legs/bolts";
/// What keeps splined arms on their bar.
pub const RETAINING: &str = "sway/retaining";
/// The nuts of a disconnect's studs.
pub const DISCONNECT_STUDS: &str = "disconnect/studs";
/// The nuts of the studs the links are stowed on.
pub const STOW_STUDS: &str = "disconnect/stow";
/// A brace's bolts at the bracket.
pub const BRACE_AT_BRACKET: &str = "brace/bracket-end";
/// A brace's bolts at the rail.
pub const BRACE_AT_RAIL: &str = "brace/rail-end";
/// A Y-link.
pub const Y_LINK: &str = "part/y-link";
/// A disconnect.
pub const DISCONNECT: &str = "part/disconnect";
/// A second shim.
pub const SECOND_SHIM: &str = "part/second-shim";
/// Both brackets of the bar parallel.
pub const PARALLEL: &str = "brackets parallel";
/// A bracket without a name.
pub const BRACKET: &str = "bracket";

/// Bolts of a bracket: `main`, `side` or `small`.
#[must_use]
pub fn bracket_bolts(bolts: &str, bracket: &str) -> String {
    let bolt = if bolts == "main" { "bolt" } else { "bolts" };
    format!("{bolts} {bolt} of the {bracket}")
}

/// A track bar that is built.
pub const BUILT_BAR: &str = "built track bar";
/// The sway bar.
pub const SWAY_BAR: &str = "sway bar";
/// The sway links.
pub const SWAY_LINKS: &str = "sway links";

/// Joint and spacers between the ears.
pub const EARS: &str = "joint and spacers between the ears";
/// The nut on a bolt.
pub const NUT: &str = "nut";
/// A bolt in its hole.
pub const HOLE: &str = "bolt in its hole";
/// A bolt's length.
pub const BOLT_LENGTH: &str = "bolt's length";
/// Spacers behind the old upper mount.
pub const SPACERS: &str = "spacers behind the old upper mount";
/// Equal readings both sides.
pub const BOTH_SIDES: &str = "equal readings both sides";
/// Square under the frame.
pub const SQUARE: &str = "square under the frame";
/// The link follows the whole travel.
pub const FOLLOWS: &str = "the link follows the whole travel";
/// The bar's angle.
pub const BAR_ANGLE: &str = "bar's angle";
/// The left sway link.
pub const LEFT_LINK: &str = "left sway link";
/// The right sway link.
pub const RIGHT_LINK: &str = "right sway link";

/// The pinion at a height.
#[must_use]
pub fn pinion(height: &str) -> String {
    format!("pinion at {height}")
}

/// A check of a fastener.
#[must_use]
pub fn of_fastener(fastener: &str, check: &str) -> String {
    format!("{fastener}: {check}")
}

/// The track bar that was there and has no name.
pub const BAR_AS_FOUND: &str = "the bar as found";

/// The nuts of a tie rod's studs.
pub const TIE_ROD_NUTS: &str = "tie-rod/studs";
/// The clamps of its ends.
pub const TIE_ROD_CLAMPS: &str = "tie-rod/clamps";
/// Inserts for its studs.
pub const TAPER_INSERTS: &str = "part/taper-inserts";

/// Limit straps.
pub const STRAPS: &str = "part/straps";
/// Their bolts at the frame.
pub const STRAPS_AT_FRAME: &str = "straps/frame-ends";
/// And at the axle.
pub const STRAPS_AT_AXLE: &str = "straps/axle-ends";
