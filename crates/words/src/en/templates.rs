//! Templates for drilling.

use derecho_core::parts::BracketPart;

use super::bracket::bracket_name;

/// Over the drawing of a bracket's holes.
pub(crate) fn holes(bracket: &BracketPart) -> String {
    format!("Holes of {}, out to the right, from the old hole", bracket_name(&bracket.name, bracket.end))
}
