//! Templates for drilling.

use derecho_core::parts::BracketPart;

use super::bracket::bracket_name;

/// Over the drawing of a bracket's holes.
pub(crate) fn holes(bracket: &BracketPart) -> String {
    format!(
        "Holes of {}, measured from the old hole, outward to the right",
        bracket_name(&bracket.name, bracket.end)
    )
}
