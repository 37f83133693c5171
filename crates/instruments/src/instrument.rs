//! What an instrument is: its kind, its units, what it is good to.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A kind of instrument.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[schema(as = InstrumentKind)]
pub enum Kind {
    /// A digital tape or a distance meter.
    Tape,
    /// An angle finder.
    Finder,
    /// A torque wrench that tells its peak.
    Wrench,
    /// Four pads under the wheels.
    Scales,
    /// Body over hub at a corner.
    HeightStick,
    /// Turns of a sleeve.
    TurnCounter,
}

impl Kind {
    /// Every kind.
    pub const ALL: [Self; 6] =
        [Self::Tape, Self::Finder, Self::Wrench, Self::Scales, Self::HeightStick, Self::TurnCounter];

    /// As it is in messages of the protocol, on the command line and in JSON.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Tape => "tape",
            Self::Finder => "finder",
            Self::Wrench => "wrench",
            Self::Scales => "scales",
            Self::HeightStick => "height_stick",
            Self::TurnCounter => "turn_counter",
        }
    }

    /// The kind of a word; None of another. A hyphen does for an underscore, as the protocol once had it.
    ///
    /// ```
    /// use derecho_instruments::instrument::Kind;
    ///
    /// assert_eq!(Kind::of_word("height-stick"), Kind::of_word("height_stick"));
    /// assert_eq!(Kind::of_word("plumb bob"), None);
    /// ```
    #[must_use]
    pub fn of_word(word: &str) -> Option<Self> {
        let word = word.replace('-', "_");
        Self::ALL.into_iter().find(|kind| kind.word() == word)
    }

    /// Whether it reads in such a unit.
    #[must_use]
    pub const fn reads_in(self, unit: Unit) -> bool {
        match self {
            Self::Tape | Self::HeightStick => matches!(unit, Unit::Millimetres | Unit::Inches),
            Self::Finder => matches!(unit, Unit::Degrees),
            Self::Wrench => matches!(unit, Unit::NewtonMetres | Unit::PoundFeet),
            Self::Scales => matches!(unit, Unit::Kilograms | Unit::Pounds),
            Self::TurnCounter => matches!(unit, Unit::Turns),
        }
    }
}

/// The unit of a reading.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[schema(as = InstrumentUnit)]
pub enum Unit {
    /// mm.
    #[serde(rename = "mm")]
    Millimetres,
    /// in.
    #[serde(rename = "in")]
    Inches,
    /// Degrees.
    #[serde(rename = "deg")]
    Degrees,
    /// N·m.
    #[serde(rename = "Nm")]
    NewtonMetres,
    /// lb-ft.
    #[serde(rename = "lb-ft")]
    PoundFeet,
    /// kg.
    #[serde(rename = "kg")]
    Kilograms,
    /// lb.
    #[serde(rename = "lb")]
    Pounds,
    /// Turns.
    #[serde(rename = "turns")]
    Turns,
}

impl Unit {
    /// Every unit.
    pub const ALL: [Self; 8] = [
        Self::Millimetres,
        Self::Inches,
        Self::Degrees,
        Self::NewtonMetres,
        Self::PoundFeet,
        Self::Kilograms,
        Self::Pounds,
        Self::Turns,
    ];

    /// As it is in sentences of the protocol.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Millimetres => "mm",
            Self::Inches => "in",
            Self::Degrees => "deg",
            Self::NewtonMetres => "Nm",
            Self::PoundFeet => "lb-ft",
            Self::Kilograms => "kg",
            Self::Pounds => "lb",
            Self::Turns => "turns",
        }
    }

    /// The unit of a word; None of another.
    #[must_use]
    pub fn of_word(word: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|unit| unit.word() == word)
    }
}

/// What an instrument says of itself.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Announced {
    /// Its own name, unique in the shop.
    pub id: String,
    /// What it is.
    pub kind: Kind,
    /// The unit its figures of itself are in.
    pub unit: Unit,
    /// One step of its display.
    pub resolution: f64,
    /// What it is good to, plus or minus.
    pub good_to: f64,
    /// When it was last checked.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false, value_type = Option<String>)]
    pub checked: Option<Date>,
}

/// Months after which an instrument wants to be checked again (default of this program).
pub const CHECK_MONTHS: i32 = 12;

impl Announced {
    /// Whether its check is overdue on a day; one that was never checked is.
    #[must_use]
    pub fn is_overdue(&self, today: Date) -> bool {
        use jiff::ToSpan as _;
        self.checked
            .is_none_or(|checked| checked.checked_add(CHECK_MONTHS.months()).is_ok_and(|due| due < today))
    }
}

/// A reading.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[schema(as = InstrumentReading)]
pub struct Reading {
    /// Counted by the instrument: the same number again is the same reading.
    pub number: u64,
    /// The value.
    pub value: f64,
    /// Its unit.
    pub unit: Unit,
    /// Held by the instrument's own button or on asking; else it only shows.
    pub held: bool,
    /// Which pad or corner, from 1, where it has several.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub place: Option<u8>,
}

impl Reading {
    /// As a field takes it: to four places at most, with its unit; degrees and turns are bare numbers.
    #[must_use]
    pub fn text(&self) -> String {
        let value = (self.value * 1e4).round() / 1e4;
        // No minus before nought.
        let value = if value == 0.0 { 0.0 } else { value };
        match self.unit {
            Unit::Degrees | Unit::Turns => format!("{value}"),
            unit => format!("{value} {}", unit.word()),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_reading_is_written_as_a_field_takes_it() {
        let text = |value, unit| Reading { number: 1, value, unit, held: true, place: None }.text();
        assert_eq!(text(6.375, Unit::Inches), "6.375 in");
        assert_eq!(text(161.900_000_000_1, Unit::Millimetres), "161.9 mm");
        assert_eq!(text(-0.000_001, Unit::Degrees), "0");
        assert_eq!(text(120.0, Unit::PoundFeet), "120 lb-ft");
    }

    #[test]
    fn each_kind_reads_in_a_unit_of_its_own_and_words_are_read_back() {
        for kind in Kind::ALL {
            assert!(Unit::ALL.into_iter().any(|unit| kind.reads_in(unit)), "{kind:?}");
            assert_eq!(Kind::of_word(kind.word()), Some(kind));
        }
        for unit in Unit::ALL {
            assert_eq!(Unit::of_word(unit.word()), Some(unit));
        }
    }
}
