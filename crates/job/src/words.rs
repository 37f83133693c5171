//! What is said beside the stages: on the bay's cards, of the drawing, in fields left empty.

use derecho_core::measure::{Length, Phrase, Unit};

use crate::defaults::{self, Assumption};

/// A size of the drawing that nobody typed, mm.
pub(crate) fn assumed(name: &str, mm: f64) -> Phrase {
    Phrase::of(|w| format!("{name} {}", w.distance(Length::from_mm(mm))))
}

/// What is taken where a field is left empty, for the field to say in the person's unit.
#[must_use]
pub(crate) fn empty_fields() -> Vec<Assumption> {
    let lengths: [(&str, Length); 6] = [
        ("/rig/bump", defaults::BUMP),
        ("/rig/droop", defaults::DROOP),
        ("/rig/tolerance", defaults::TOLERANCE),
        ("/rig/usual_spread", defaults::SPREAD),
        ("/setups/found/bar/heights_good_to", defaults::BOLT_HEIGHT_GOOD_TO),
        ("/bracket/swing_limit", defaults::SWING_LIMIT),
    ];
    let field =
        |pointer: &str, says: Phrase| Assumption { pointer: pointer.to_owned(), says, drawing_only: false };
    let feature = field("/sheets/feature_uncertainty", Phrase::of(|w| w.fine(defaults::OWN_FEATURE)));
    let steep = field("/bracket/steep_from", Phrase::plain(&format!("{:.0}°", defaults::STEEP_FROM_DEGREES)));
    let finder = field(
        "/setups/found/bar/finder/good_to",
        Phrase::plain(&format!("{:.1}°", defaults::FINDER_GOOD_TO_DEGREES)),
    );
    let graduation = field(
        "/sheets/resolution",
        Phrase::of(|w| match w.unit() {
            Unit::Inches => "1/16\"".to_owned(),
            Unit::Millimetres => "1 mm".to_owned(),
        }),
    );
    lengths
        .into_iter()
        .map(|(pointer, length)| field(pointer, Phrase::of(|w| w.fine(length))))
        .chain([feature, steep, finder, graduation])
        .collect()
}
