//! What holes are called, by the names people gave their parts.

/// A hole of a bracket; an eye with no hole is as it was found.
pub(crate) fn hole_name(bracket: &str, hole: &str) -> String {
    match (bracket, hole) {
        (_, "") => "as it was found".to_owned(),
        ("", hole) => hole.to_owned(),
        (bracket, hole) => format!("{bracket}, {hole}"),
    }
}

/// The holes of both eyes.
pub(crate) fn both_holes(axle: &str, frame: &str) -> String {
    format!("{axle} and {frame}")
}
