//! Sentences and workings with figures in them, written once for both unit systems.
//!
//! A screen or a printed card picks one; it never puts figures into sentences itself.

use crate::measure::{Heading, Meaning};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::angle::Angle;
use super::length::{Length, Unit};
use super::print::{self, Style};
use super::side::Side;

/// One sentence or figure, in inches and in millimetres.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Phrase {
    /// With lengths in inches, to 1/16.
    #[serde(rename = "in")]
    pub inches: String,
    /// With lengths in millimetres, to 0.5.
    #[serde(rename = "mm")]
    pub millimetres: String,
}

impl Phrase {
    /// Writes the same sentence for both unit systems.
    pub fn of(write: impl Fn(Words) -> String) -> Self {
        Self {
            inches: write(Words { unit: Unit::Inches }),
            millimetres: write(Words { unit: Unit::Millimetres }),
        }
    }

    /// A sentence without lengths.
    ///
    /// ```
    /// use derecho_core::measure::Phrase;
    ///
    /// let says = Phrase::plain("centred");
    /// assert_eq!(says.inches, says.millimetres);
    /// ```
    #[must_use]
    pub fn plain(text: &str) -> Self {
        Self { inches: text.to_owned(), millimetres: text.to_owned() }
    }

    /// The sentence for one unit system.
    ///
    /// ```
    /// use derecho_core::measure::{Length, Phrase, Unit};
    ///
    /// let says = Phrase::of(|w| w.distance(Length::from_inches(1.5)));
    /// assert_eq!(says.in_unit(Unit::Inches), "1 1/2\"");
    /// ```
    #[must_use]
    pub fn in_unit(&self, unit: Unit) -> &str {
        match unit {
            Unit::Inches => &self.inches,
            Unit::Millimetres => &self.millimetres,
        }
    }
}

/// What a length is off by, reckoned to and fro: a thousandth of a millimetre, more than any figure is good for.
const RECKONING_NANOMETRES: i64 = 1_000;

/// No length of a vehicle is longer: a hundred metres.
const BEYOND_MM: f64 = 100_000.0;

/// Said where a figure would be that no vehicle has.
const OUT_OF_REACH: &str = "out of reach";

/// How figures are put into words in one unit system.
#[derive(Clone, Copy, Debug)]
pub struct Words {
    unit: Unit,
}

impl Words {
    /// The unit system.
    #[must_use]
    pub const fn unit(self) -> Unit {
        self.unit
    }

    /// What is said in place of a figure that no vehicle has: a length that is none, or far beyond one.
    fn beyond(length: Length) -> Option<String> {
        let mm = length.to_mm();
        (!mm.is_finite() || mm.abs() > BEYOND_MM).then(|| OUT_OF_REACH.to_owned())
    }

    /// A diameter of stock: to 1/32 where it is one, else to a hundredth of an inch, so that bars of 0.85 in, 7/8" and
    /// 0.9 in go by three names; millimetres to a tenth.
    ///
    /// ```
    /// use derecho_core::measure::{Length, Phrase};
    ///
    /// let says = |inches| Phrase::of(|w| w.stock(Length::from_inches(inches))).inches;
    /// assert_eq!((says(0.875).as_str(), says(0.85).as_str()), ("7/8\"", "0.85 in"));
    /// ```
    #[must_use]
    pub fn stock(self, length: Length) -> String {
        let thirty_seconds = length.to_inches() * 32.0;
        let on_a_mark = (thirty_seconds - thirty_seconds.round()).abs() < 0.02;
        if self.unit == Unit::Inches && !on_a_mark {
            return format!("{} in", print::fixed(length.to_inches(), 2));
        }
        self.fine(length)
    }

    /// An unsigned length in the everyday style: `3/8"`, `9.5 mm`.
    ///
    /// ```
    /// use derecho_core::measure::{Length, Phrase};
    ///
    /// let says = Phrase::of(|w| w.distance(Length::from_inches(-0.375)));
    /// assert_eq!((says.inches.as_str(), says.millimetres.as_str()), ("3/8\"", "9.5 mm"));
    /// ```
    #[must_use]
    pub fn distance(self, length: Length) -> String {
        if let Some(none) = Self::beyond(length) {
            return none;
        }
        print::written(length.abs(), Style::everyday(self.unit))
    }

    /// A length that something has to have at least, rounded up: whoever makes it as written has enough.
    ///
    /// ```
    /// use derecho_core::measure::{Length, Phrase};
    ///
    /// // Rounded up to the next sixteenth: whoever makes it so long has enough.
    /// let says = Phrase::of(|w| w.at_least(Length::from_inches(6.88)));
    /// assert_eq!(says.inches, "6 15/16\"");
    /// ```
    #[must_use]
    pub fn at_least(self, length: Length) -> String {
        self.bounded(length, 1)
    }

    /// A length that something may have at most, rounded down: whoever makes it as written is within.
    ///
    /// ```
    /// use derecho_core::measure::{Length, Phrase};
    ///
    /// let says = Phrase::of(|w| w.at_most(Length::from_inches(6.88)));
    /// assert_eq!(says.inches, "6 7/8\"");
    /// ```
    #[must_use]
    pub fn at_most(self, length: Length) -> String {
        self.bounded(length, 0)
    }

    fn bounded(self, length: Length, up: i64) -> String {
        if let Some(none) = Self::beyond(length) {
            return none;
        }
        let style = Style::everyday(self.unit);
        let division = style.division_nanometres();
        let exact = print::nanometres(length.abs());
        // What is within reckoning of a mark is on it.
        let on = print::divisions(exact, style).saturating_mul(division);
        let within = (exact - on).abs() <= RECKONING_NANOMETRES;
        let bound = if within { on } else { (exact.div_euclid(division) + up).saturating_mul(division) };
        print::written_nanometres(bound, style)
    }

    /// A length to 1/32 or 0.1 mm, where a sixteenth is too coarse to say anything.
    ///
    /// ```
    /// use derecho_core::measure::{Length, Phrase};
    ///
    /// let says = Phrase::of(|w| w.fine(Length::from_inches(3.0 / 32.0)));
    /// assert_eq!((says.inches.as_str(), says.millimetres.as_str()), ("3/32\"", "2.4 mm"));
    /// ```
    #[must_use]
    pub fn fine(self, length: Length) -> String {
        if let Some(none) = Self::beyond(length) {
            return none;
        }
        let style = match self.unit {
            Unit::Inches => Style::ThirtySeconds,
            Unit::Millimetres => Style::TenthMillimetres,
        };
        let printed = print::written(length.abs(), style);
        if print::rounds_to_nought(length, style) && length != Length::ZERO {
            let least = Length::from_mm(style.division_nanometres() as f64 / 1e6);
            return format!("less than {}", print::written(least, style));
        }
        printed
    }

    /// Whether a length says nothing at the everyday rounding of this unit system: what rounds to nought is centred, or
    /// has not moved.
    ///
    /// ```
    /// use derecho_core::measure::{Length, Phrase};
    ///
    /// // A quarter of a millimetre is less than either tape shows.
    /// let says = Phrase::of(|w| w.shows_nothing(Length::from_mm(0.2)).to_string());
    /// assert_eq!((says.inches.as_str(), says.millimetres.as_str()), ("true", "true"));
    /// ```
    #[must_use]
    pub fn shows_nothing(self, length: Length) -> bool {
        print::rounds_to_nought(length, Style::everyday(self.unit))
    }

    /// A signed sideways figure as a distance and a side, never a bare minus sign;
    /// `centred` where it rounds to nought.
    ///
    /// ```
    /// use derecho_core::measure::{Length, Phrase};
    ///
    /// let says = |mm| Phrase::of(|w| w.sideways(Length::from_mm(mm))).millimetres;
    /// assert_eq!((says(-9.5).as_str(), says(0.0).as_str()), ("9.5 mm to the right", "centered"));
    /// ```
    #[must_use]
    pub fn sideways(self, to_the_left: Length) -> String {
        if self.shows_nothing(to_the_left) {
            return "centered".to_owned();
        }
        let side = Side::of(to_the_left.to_mm());
        format!("{} to the {}", self.distance(to_the_left), side.word())
    }

    /// As [`Words::sideways`] for a movement: `no movement` where it rounds to nought.
    ///
    /// ```
    /// use derecho_core::measure::{Length, Phrase};
    ///
    /// let says = |mm| Phrase::of(|w| w.movement(Length::from_mm(mm))).millimetres;
    /// assert_eq!((says(4.0).as_str(), says(0.0).as_str()), ("4 mm to the left", "no movement"));
    /// ```
    #[must_use]
    pub fn movement(self, to_the_left: Length) -> String {
        if self.shows_nothing(to_the_left) { "no movement".to_owned() } else { self.sideways(to_the_left) }
    }

    /// A round length people reckon with: an inch, or ten millimetres.
    #[must_use]
    pub const fn round_step(self) -> Length {
        match self.unit {
            Unit::Inches => Length::from_inches(1.0),
            Unit::Millimetres => Length::from_mm(10.0),
        }
    }

    /// A length with its decimals, for workings.
    #[must_use]
    pub fn decimal(self, length: Length) -> String {
        if let Some(none) = Self::beyond(length) {
            return none;
        }
        print::decimal(length, self.unit)
    }
}

/// Degrees to one decimal, unsigned.
///
/// ```
/// use derecho_core::measure::Angle;
///
/// use derecho_core::measure::phrase::degrees;
///
/// assert_eq!(degrees(Angle::from_degrees(-5.04)), "5.0°");
/// ```
#[must_use]
pub fn degrees(angle: Angle) -> String {
    if !angle.to_degrees().is_finite() {
        return OUT_OF_REACH.to_owned();
    }
    format!("{:.1}°", angle.to_degrees().abs())
}

/// A number in a working.
#[derive(Clone, Copy, Debug)]
pub enum Value {
    /// A length, printed with its decimals.
    Length(Length),
    /// An angle, printed in degrees with three decimals.
    Angle(Angle),
    /// A plain number with so many decimals.
    Number(f64, usize),
}

impl Value {
    fn bare(self, unit: Unit) -> String {
        match self {
            Self::Length(length) => print::bare_decimal(length, unit),
            Self::Angle(angle) => print::fixed(angle.to_degrees(), 3) + "°",
            Self::Number(number, decimals) => print::fixed(number, decimals),
        }
    }

    fn with_unit(self, unit: Unit) -> String {
        match self {
            Self::Length(length) => print::decimal(length, unit),
            Self::Angle(_) | Self::Number(..) => self.bare(unit),
        }
    }
}

/// One line of a working: the formula, the same with this job's numbers, and what
/// comes of it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Step {
    /// What is found, in words.
    #[schema(value_type = String)]
    pub meaning: Meaning,
    /// The formula with its symbols.
    pub formula: String,
    /// The formula with the numbers of this job.
    pub numbers: Phrase,
    /// The result with its unit.
    pub result: Phrase,
}

impl Step {
    /// `formula` holds each symbol in braces; `terms` says what stands for it.
    #[must_use]
    pub fn new(meaning: Meaning, formula: &str, terms: &[(&str, Value)], result: Value) -> Self {
        let right = formula.split_once(" = ").map_or(formula, |(_, right)| right);
        let filled = |unit| {
            let mut pieces = right.split(['{', '}']);
            let mut text = pieces.next().unwrap_or_default().to_owned();
            // Between braces a symbol, behind them what stands as it is.
            while let (Some(symbol), Some(between)) = (pieces.next(), pieces.next()) {
                match terms.iter().find(|(name, _)| *name == symbol).map(|(_, value)| value.bare(unit)) {
                    Some(negative) if negative.starts_with('-') => {
                        text.extend(["(", &negative, ")"]);
                    }
                    Some(bare) => text.push_str(&bare),
                    None => text.extend(["{", symbol, "}"]),
                }
                text.push_str(between);
            }
            text
        };
        Self {
            meaning,
            formula: formula.replace(['{', '}'], ""),
            numbers: Phrase { inches: filled(Unit::Inches), millimetres: filled(Unit::Millimetres) },
            result: Phrase {
                inches: result.with_unit(Unit::Inches),
                millimetres: result.with_unit(Unit::Millimetres),
            },
        }
    }
}

/// How a figure is worked out, line by line.
#[derive(Clone, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct Working {
    /// What is worked out.
    #[schema(value_type = String)]
    pub title: Heading,
    /// The lines, in order.
    pub steps: Vec<Step>,
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn sideways_is_a_distance_and_a_side() {
        let said = |mm: f64| Phrase::of(|w| w.sideways(Length::from_mm(mm)));
        assert_eq!(said(9.525).inches, "3/8\" to the left");
        assert_eq!(said(-9.525).inches, "3/8\" to the right");
        assert_eq!(said(-9.525).millimetres, "9.5 mm to the right");
        assert_eq!(said(-0.2).millimetres, "centered");
    }

    #[test]
    fn a_bound_is_rounded_to_the_side_that_holds() {
        let inches = |inches: f64| Length::from_inches(inches);
        let least = |length: Length| Phrase::of(|w| w.at_least(length));
        let most = |length: Length| Phrase::of(|w| w.at_most(length));
        assert_eq!(least(inches(6.870)).inches, "6 7/8\"");
        assert_eq!(least(inches(6.876)).inches, "6 15/16\"");
        assert_eq!(most(inches(6.876)).inches, "6 7/8\"");
        assert_eq!(most(inches(6.870)).inches, "6 13/16\"");
        // 9 in is 228.6 mm.
        assert_eq!(least(inches(9.0)).millimetres, "229 mm");
        assert_eq!(most(inches(9.0)).millimetres, "228.5 mm");
        // On a mark, and by reckoning a hair beside it, it is that mark.
        for off in [0.0, 1e-6, -1e-6] {
            assert_eq!(least(inches(6.875 + off)).inches, "6 7/8\"");
            assert_eq!(most(inches(6.875 + off)).inches, "6 7/8\"");
        }
    }

    #[test]
    fn a_step_shows_symbols_and_numbers() {
        let step = Step::new(
            Meaning::Offset,
            "e = ({l} − {r}) / 2",
            &[("l", Value::Length(Length::from_inches(3.0))), ("r", Value::Length(Length::from_inches(2.0)))],
            Value::Length(Length::from_inches(0.5)),
        );
        assert_eq!(step.formula, "e = (l − r) / 2");
        assert_eq!(step.numbers.inches, "(3.0000 − 2.0000) / 2");
        assert_eq!(step.numbers.millimetres, "(76.20 − 50.80) / 2");
        assert_eq!(step.result.inches, "0.5000 in");
    }
}
