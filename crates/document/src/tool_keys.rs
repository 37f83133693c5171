//! The keys under which a document holds which tools are on the bench. They are of the file's form and stay as they are,
//! whatever a tool is called on the screen.

/// What holds the vehicle up.
pub const STANDS: &str = "stands, jack, chocks";
/// A torque wrench.
pub const TORQUE_WRENCH: &str = "torque wrench";
/// A ratchet strap.
pub const STRAP: &str = "ratchet strap";
/// What a hole is marked and deburred with.
pub const PUNCH: &str = "centre punch, paint, deburring tool";
/// A drill for where a straight one has no room.
pub const RIGHT_ANGLE_DRILL: &str = "right-angle drill";
/// What is welded with.
pub const WELDER: &str = "welder, grinder, cover for lines";
/// An angle finder.
pub const ANGLE_FINDER: &str = "angle finder";
/// A tape.
pub const TAPE: &str = "tape";
/// A grease gun.
pub const GREASE_GUN: &str = "grease gun";
/// A paint pen.
pub const PAINT_PEN: &str = "paint pen";

/// A wrench of a size, as it is stamped.
#[must_use]
pub fn wrench(size: &str) -> String {
    format!("{size} wrench")
}

/// A drill of a size, as it is stamped.
#[must_use]
pub fn drill(size: &str) -> String {
    format!("{size} drill")
}

/// A reamer of a stud's taper.
pub const TAPER_REAMER: &str = "taper reamer";

/// A separator for ball studs.
pub const SEPARATOR: &str = "ball joint separator";

/// A hole saw of a size, as it is stamped.
#[must_use]
pub fn hole_saw(size: &str) -> String {
    format!("{size} hole saw")
}
