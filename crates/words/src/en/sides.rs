//! Sides that a person acts on: whose side each is on this vehicle.

use derecho_core::measure::phrase::Words;
use derecho_core::measure::{Length, Side};

/// A side with whose it is, where the steering wheel's side is known: `left (driver's)`.
pub(super) fn whose(side: Side, driver: Option<Side>) -> String {
    match driver {
        None => side.word().to_owned(),
        Some(driver) if driver == side => format!("{} (driver's)", side.word()),
        Some(_) => format!("{} (passenger's)", side.word()),
    }
}

/// As [`Words::sideways`], with whose side it is; + to the left.
pub(super) fn sideways(w: Words, to_the_left: Length, driver: Option<Side>) -> String {
    if w.shows_nothing(to_the_left) {
        return w.sideways(to_the_left);
    }
    format!("{} to the {}", w.distance(to_the_left), whose(Side::of(to_the_left.to_mm()), driver))
}

#[cfg(test)]
mod tests {
    use super::*;
    use derecho_core::measure::Phrase;

    #[test]
    fn a_side_is_the_drivers_where_the_wheel_is() {
        assert_eq!(whose(Side::Left, Some(Side::Left)), "left (driver's)");
        assert_eq!(whose(Side::Left, Some(Side::Right)), "left (passenger's)");
        assert_eq!(whose(Side::Right, None), "right");
        let says = |driver| Phrase::of(|w| sideways(w, Length::from_mm(-12.0), driver)).millimetres;
        assert_eq!(says(Some(Side::Left)), "12 mm to the right (passenger's)");
        assert_eq!(Phrase::of(|w| sideways(w, Length::ZERO, None)).inches, "centered");
    }
}
