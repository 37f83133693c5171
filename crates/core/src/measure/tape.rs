//! Tape numbers: what a person types after reading a tape, read exactly.
//!
//! Every length that can be typed in binary fractions of an inch down to 1/64, and
//! every whole micrometre, is a whole number of nanometres (1/64 in = 396 875 nm),
//! so that is what a reading is kept in. A fraction that is no whole number of
//! nanometres, such as 1/3 in, is rounded to the nearest one.
//!
//! ```
//! use derecho_core::measure::{Unit, tape};
//! let reading = tape::parse("24 13/16", Unit::Inches, tape::Kind::Distance)?;
//! assert_eq!(reading.nanometres(), 630_237_500);
//! # Ok::<(), tape::TapeError>(())
//! ```

use serde::Serialize;
use thiserror::Error;
use utoipa::ToSchema;

use super::length::{Length, Unit};

/// The longest length taken, in metres. Ten metres itself passes.
pub const LONGEST_METRES: i128 = 10;

const NM_PER_MM: i128 = 1_000_000;
const NM_PER_INCH: i128 = 25_400_000;
const NM_PER_FOOT: i128 = 12 * NM_PER_INCH;
const NM_PER_METRE: i128 = 1_000 * NM_PER_MM;
// With these three caps the largest product below stays under 1e38: the feet part
// 10^9 · 10^12 · 3.1e8 and a denominator of 10^6.
const MOST_WHOLE_DIGITS: usize = 9;
const MOST_DECIMALS: usize = 12;
const MOST_FRACTION_DIGITS: usize = 6;

/// Whether the figure may point either way.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Kind {
    /// A distance between two points: no minus sign.
    Distance,
    /// A difference, such as a lift: a minus sign is a drop.
    Signed,
}

/// A length read off a tape, exact.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct TapeNumber {
    nanometres: i64,
    unit: Unit,
}

impl TapeNumber {
    /// A length in whole nanometres, which is finer than any tape; None for one no tape has.
    pub(super) fn of(length: Length) -> Option<Self> {
        let nanometres = (length.to_mm() * NM_PER_MM as f64).round();
        let there_is = nanometres.is_finite() && nanometres.abs() <= (LONGEST_METRES * NM_PER_METRE) as f64;
        there_is.then_some(Self { nanometres: nanometres as i64, unit: Unit::Millimetres })
    }

    /// Whole nanometres.
    #[must_use]
    pub const fn nanometres(self) -> i64 {
        self.nanometres
    }

    /// The family of units it was typed in: feet count as inches, centimetres and
    /// metres as millimetres.
    #[must_use]
    pub const fn unit(self) -> Unit {
        self.unit
    }

    /// For computation.
    #[must_use]
    pub fn length(self) -> Length {
        Length::from_mm(self.nanometres as f64 / NM_PER_MM as f64)
    }
}

/// Why a text is no tape number. Every message says what is wrong and what to type.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Error, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Fault {
    /// Nothing, or spaces only.
    #[error("Nothing entered yet. Enter a length such as 24 13/16 or 630 mm.")]
    Empty,
    /// A sign that has no place in a length.
    #[error("That character doesn't belong in a length. Enter one such as 24 13/16 or 630 mm.")]
    StrangeSign,
    /// A word that is no unit.
    #[error("Unknown unit. Use in, ft, mm, cm or m.")]
    UnknownWord,
    /// NaN, inf and the like.
    #[error("Not a number. Enter a length such as 24 13/16 or 630 mm.")]
    NotANumber,
    /// A unit with no number before it.
    #[error("A number is missing. Enter the number, then the unit: 24 13/16 in.")]
    NumberMissing,
    /// A fraction bar without a number on one side.
    #[error("Unfinished fraction. Enter both numbers, like 13/16.")]
    FractionUnfinished,
    /// A fraction over nought.
    #[error("A fraction can't have 0 on the bottom. Use 2, 4, 8, 16, 32 or 64.")]
    ZeroDenominator,
    /// A whole number followed by a fraction of one or more.
    #[error("The fraction must be less than 1. Add it to the whole number, or enter the fraction alone.")]
    FractionTooLarge,
    /// A decimal and a fraction in one figure.
    #[error("Use a fraction or a decimal, not both: 24 1/2 or 24.5.")]
    DecimalWithFraction,
    /// A fraction on a millimetre sheet with no unit of its own.
    #[error("Inches or millimeters? These measurements are in mm, so a fraction needs its unit: 13/16 in.")]
    FractionWithoutUnit,
    /// A comma that may be a decimal mark or a thousands mark.
    #[error("1.25 or 1250? Use a point for decimals and no comma in thousands.")]
    AmbiguousComma,
    /// More than one decimal mark.
    #[error("Two decimal points. Use one, and no separators in thousands.")]
    TwoDecimalMarks,
    /// Two figures next to each other.
    #[error("Two numbers. Enter one length, with its unit last: 24 13/16 in.")]
    TwoNumbers,
    /// Two units that do not belong together.
    #[error("Two units disagree. Use one; only feet and inches go together.")]
    UnitsDisagree,
    /// A minus sign before a distance.
    #[error("A distance can't be negative. Leave out the minus sign and choose the side instead.")]
    NegativeDistance,
    /// Longer than anything on a vehicle.
    #[error("This is longer than 10 m. Is a decimal mark missing, or the unit wrong?")]
    TooLong,
    /// More digits than any tape shows.
    #[error("More digits than a tape can show. Leave some out.")]
    TooManyDigits,
}

/// A refused text: the fault and where it sits, counted in characters from 0.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Error)]
#[error("{fault}")]
pub struct TapeError {
    /// What is wrong.
    pub fault: Fault,
    /// First character of the place.
    pub start: usize,
    /// One past its last character.
    pub end: usize,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Measure {
    Inch,
    Foot,
    Millimetre,
    Centimetre,
    Metre,
}

impl Measure {
    const fn nanometres(self) -> i128 {
        match self {
            Self::Inch => NM_PER_INCH,
            Self::Foot => NM_PER_FOOT,
            Self::Millimetre => NM_PER_MM,
            Self::Centimetre => 10 * NM_PER_MM,
            Self::Metre => NM_PER_METRE,
        }
    }

    const fn unit(self) -> Unit {
        match self {
            Self::Inch | Self::Foot => Unit::Inches,
            Self::Millimetre | Self::Centimetre | Self::Metre => Unit::Millimetres,
        }
    }

    const fn bare(unit: Unit) -> Self {
        match unit {
            Unit::Inches => Self::Inch,
            Unit::Millimetres => Self::Millimetre,
        }
    }
}

#[derive(Clone, Debug, PartialEq)]
enum Token {
    /// Digits, and the digits after a decimal mark where there is one.
    Number {
        whole: String,
        decimals: Option<String>,
    },
    /// A single-character fraction such as ¾.
    Vulgar {
        over: i128,
        under: i128,
    },
    Slash,
    Minus,
    Plus,
    Measure(Measure),
}

#[derive(Clone, Debug)]
struct Placed {
    token: Token,
    start: usize,
    end: usize,
}

/// Reads a typed length exactly. `sheet` is the unit of a bare number.
///
/// # Errors
/// A [`TapeError`] that names the fault and its place in `text`.
///
/// ```
/// use derecho_core::measure::{Unit, tape::{Fault, Kind, parse}};
/// let refused = parse("1,250", Unit::Millimetres, Kind::Distance).unwrap_err();
/// assert_eq!(refused.fault, Fault::AmbiguousComma);
/// ```
pub fn parse(text: &str, sheet: Unit, kind: Kind) -> Result<TapeNumber, TapeError> {
    let tokens = tokens(text)?;
    Reader { tokens: &tokens, at: 0, length: text.chars().count() }.whole_text(sheet, kind)
}

/// Reads a count that may have a fraction, such as turns: `2.5`, `2 1/2`, `-3/4 turn`. Without a unit, in the tape's own
/// grammar.
///
/// ```
/// use derecho_core::measure::tape::count;
///
/// assert_eq!(count("2 1/2").ok(), Some(2.5));
/// assert_eq!(count("-0.75 turns").ok(), Some(-0.75));
/// assert!(count("2 mm").is_err() && count("some").is_err());
/// ```
///
/// # Errors
/// The fault of the text and its place.
pub fn count(text: &str) -> Result<f64, TapeError> {
    let bare = text.trim().replace('−', "-");
    let bare = bare.trim_end_matches("turns").trim_end_matches("turn").trim_end();
    if let Some(start) = bare.chars().position(|c| c.is_alphabetic() || "\"″'′".contains(c)) {
        return Err(TapeError { fault: Fault::NotANumber, start, end: bare.chars().count() });
    }
    // Whole nanometres, so that half a turn is half a turn.
    Ok(parse(bare, Unit::Inches, Kind::Signed)?.nanometres as f64 / NM_PER_INCH as f64)
}

/// Reads a number without sign or unit, by the tape's rules for points and commas: `2600`, `35.5`, `630,5`.
/// For figures that are no lengths.
///
/// # Errors
/// With the fault of a comma or a second decimal mark; [`Fault::NotANumber`] for anything else.
///
/// ```
/// use derecho_core::measure::tape::decimal;
///
/// assert_eq!(decimal("10.8").ok(), Some(10.8));
/// assert!(decimal("1,250").is_err(), "1.25 or 1250?");
/// ```
pub fn decimal(text: &str) -> Result<f64, Fault> {
    let tokens = tokens(text).map_err(|error| error.fault)?;
    let [Placed { token: Token::Number { whole, decimals }, .. }] = tokens.as_slice() else {
        return Err(Fault::NotANumber);
    };
    format!("{whole}.{}", decimals.as_deref().unwrap_or_default()).parse().map_err(|_| Fault::NotANumber)
}

fn tokens(text: &str) -> Result<Vec<Placed>, TapeError> {
    let chars: Vec<char> = text.chars().collect();
    let mut found = Vec::with_capacity(4);
    let mut at = 0;
    while at < chars.len() {
        let start = at;
        let c = chars[at];
        let token = if is_space(c) {
            at += 1;
            continue;
        } else if digit(c).is_some() || (c == '.' && plain_digit_at(&chars, at + 1)) {
            number(&chars, &mut at)?
        } else if let Some((over, under)) = vulgar(c) {
            at += 1;
            Token::Vulgar { over, under }
        } else if c == '\u{215F}' {
            // ⅟ is a one with its bar: two tokens from one character.
            found.push(Placed { token: one(), start, end: start + 1 });
            at += 1;
            Token::Slash
        } else if c.is_alphabetic() {
            word(&chars, &mut at)?
        } else {
            mark(&chars, &mut at)?
        };
        found.push(Placed { token, start, end: at });
    }
    Ok(found)
}

fn one() -> Token {
    Token::Number { whole: "1".into(), decimals: None }
}

fn is_space(c: char) -> bool {
    c.is_whitespace() || matches!(c, '\u{200B}' | '\u{2060}' | '\u{FEFF}')
}

/// The value of a digit and which row it stands on: plain, raised or lowered. A
/// change of row ends a number, so that 24¹³⁄₁₆ is not 2413/16.
fn digit(c: char) -> Option<(char, u8)> {
    const RAISED: &str = "⁰¹²³⁴⁵⁶⁷⁸⁹";
    const LOWERED: &str = "₀₁₂₃₄₅₆₇₈₉";
    let of = |row: &str, kind| {
        row.chars()
            .position(|d| d == c)
            .and_then(|value| char::from_digit(value as u32, 10))
            .map(|value| (value, kind))
    };
    match c {
        '0'..='9' => Some((c, 0)),
        _ if c.is_ascii() => None,
        _ => of(RAISED, 1).or_else(|| of(LOWERED, 2)),
    }
}

fn plain_digit_at(chars: &[char], at: usize) -> bool {
    chars.get(at).is_some_and(char::is_ascii_digit)
}

fn run_of_digits(chars: &[char], at: &mut usize, row: u8) -> String {
    let mut digits = String::new();
    while let Some((value, _)) = chars.get(*at).copied().and_then(digit).filter(|d| d.1 == row) {
        digits.push(value);
        *at += 1;
    }
    digits
}

fn number(chars: &[char], at: &mut usize) -> Result<Token, TapeError> {
    let start = *at;
    let row = digit(chars[start]).map_or(0, |d| d.1);
    let whole = run_of_digits(chars, at, row);
    let fail = |fault, end| Err(TapeError { fault, start, end });
    let decimals = match chars.get(*at) {
        Some(&separator @ ('.' | ',')) if row == 0 => {
            *at += 1;
            let decimals = run_of_digits(chars, at, 0);
            if matches!(chars.get(*at), Some('.' | ',')) && plain_digit_at(chars, *at + 1) {
                while matches!(chars.get(*at), Some('.' | ',' | '0'..='9')) {
                    *at += 1;
                }
                return fail(Fault::TwoDecimalMarks, *at);
            }
            if separator == ',' && decimals.is_empty() {
                return Err(TapeError { fault: Fault::StrangeSign, start: *at - 1, end: *at });
            }
            let has_whole_part = whole.bytes().any(|d| d != b'0');
            if separator == ',' && decimals.len() == 3 && has_whole_part {
                return fail(Fault::AmbiguousComma, *at);
            }
            Some(decimals)
        }
        _ => None,
    };
    if decimals.as_ref().is_some_and(|d| d.len() > MOST_DECIMALS) {
        return fail(Fault::TooManyDigits, *at);
    }
    if whole.trim_start_matches('0').len() > MOST_WHOLE_DIGITS {
        return fail(Fault::TooLong, *at);
    }
    Ok(Token::Number { whole, decimals })
}

fn vulgar(c: char) -> Option<(i128, i128)> {
    Some(match c {
        '¼' => (1, 4),
        '½' => (1, 2),
        '¾' => (3, 4),
        '⅐' => (1, 7),
        '⅑' => (1, 9),
        '⅒' => (1, 10),
        '⅓' => (1, 3),
        '⅔' => (2, 3),
        '⅕' => (1, 5),
        '⅖' => (2, 5),
        '⅗' => (3, 5),
        '⅘' => (4, 5),
        '⅙' => (1, 6),
        '⅚' => (5, 6),
        '⅛' => (1, 8),
        '⅜' => (3, 8),
        '⅝' => (5, 8),
        '⅞' => (7, 8),
        '↉' => (0, 3),
        _ => return None,
    })
}

fn word(chars: &[char], at: &mut usize) -> Result<Token, TapeError> {
    let start = *at;
    while chars.get(*at).is_some_and(|c| c.is_alphabetic()) {
        *at += 1;
    }
    let word: String = chars[start..*at].iter().flat_map(|c| c.to_lowercase()).collect();
    let measure = match word.as_str() {
        "in" | "ins" | "inch" | "inches" => Measure::Inch,
        "ft" | "foot" | "feet" => Measure::Foot,
        "mm" | "millimetre" | "millimetres" | "millimeter" | "millimeters" => Measure::Millimetre,
        "cm" | "centimetre" | "centimetres" | "centimeter" | "centimeters" => Measure::Centimetre,
        "m" | "metre" | "metres" | "meter" | "meters" => Measure::Metre,
        "nan" | "inf" | "infinity" | "infinite" => {
            return Err(TapeError { fault: Fault::NotANumber, start, end: *at });
        }
        _ => {
            return Err(TapeError { fault: Fault::UnknownWord, start, end: *at });
        }
    };
    // "in." and "ft." end in a full stop.
    if chars.get(*at) == Some(&'.') && !plain_digit_at(chars, *at + 1) {
        *at += 1;
    }
    Ok(Token::Measure(measure))
}

fn is_prime(c: char) -> bool {
    matches!(c, '\'' | '′' | '’' | '‘' | '‛' | '`' | '´' | 'ʹ' | 'ʼ' | '＇')
}

fn mark(chars: &[char], at: &mut usize) -> Result<Token, TapeError> {
    let start = *at;
    let c = chars[start];
    *at += 1;
    Ok(match c {
        '"' | '″' | '”' | '“' | '„' | '‟' | '＂' | '〃' | '˝' | 'ʺ' => {
            Token::Measure(Measure::Inch)
        }
        _ if is_prime(c) => {
            if chars.get(*at).is_some_and(|next| is_prime(*next)) {
                *at += 1;
                Token::Measure(Measure::Inch)
            } else {
                Token::Measure(Measure::Foot)
            }
        }
        '/' | '⁄' | '∕' | '／' => Token::Slash,
        '-' | '‐' | '‑' | '‒' | '–' | '—' | '―' | '−' | '﹣' | '－' => Token::Minus,
        '+' | '＋' => Token::Plus,
        '∞' => {
            return Err(TapeError { fault: Fault::NotANumber, start, end: *at });
        }
        _ => {
            return Err(TapeError { fault: Fault::StrangeSign, start, end: *at });
        }
    })
}

/// A non-negative rational number of the unit it stands in.
struct Figure {
    over: i128,
    under: i128,
    has_fraction: bool,
}

struct Reader<'a> {
    tokens: &'a [Placed],
    at: usize,
    length: usize,
}

impl Reader<'_> {
    fn peek(&self, ahead: usize) -> Option<&Token> {
        self.tokens.get(self.at + ahead).map(|placed| &placed.token)
    }

    fn fault_at(&self, fault: Fault, from: usize, to: usize) -> TapeError {
        let place = |index: usize| self.tokens.get(index);
        TapeError {
            fault,
            start: place(from).map_or(self.length, |placed| placed.start),
            end: place(to).map_or(self.length, |placed| placed.end),
        }
    }

    fn here(&self, fault: Fault) -> TapeError {
        self.fault_at(fault, self.at, self.at)
    }

    fn whole_text(mut self, sheet: Unit, kind: Kind) -> Result<TapeNumber, TapeError> {
        if self.tokens.is_empty() {
            return Err(TapeError { fault: Fault::Empty, start: 0, end: self.length });
        }
        let negative = match self.peek(0) {
            Some(Token::Minus) if kind == Kind::Distance => {
                return Err(self.here(Fault::NegativeDistance));
            }
            Some(Token::Minus) => {
                self.at += 1;
                true
            }
            Some(Token::Plus) => {
                self.at += 1;
                false
            }
            _ => false,
        };
        let first = self.at;
        let figure = self.figure()?;
        let measure = self.measure();
        // A rational number of nanometres, over / under.
        let (mut over, mut under) = (figure.over, figure.under);
        let used = match measure {
            Some(Measure::Foot) => {
                over *= NM_PER_FOOT;
                if let Some(inches) = self.inches_after_feet()? {
                    over = over * inches.under + inches.over * NM_PER_INCH * under;
                    under *= inches.under;
                }
                Measure::Foot
            }
            Some(measure) => {
                over *= measure.nanometres();
                measure
            }
            None if figure.has_fraction && sheet == Unit::Millimetres => {
                return Err(self.fault_at(Fault::FractionWithoutUnit, first, self.at - 1));
            }
            None => {
                over *= Measure::bare(sheet).nanometres();
                Measure::bare(sheet)
            }
        };
        self.end(used)?;
        if over > LONGEST_METRES * NM_PER_METRE * under {
            return Err(self.fault_at(Fault::TooLong, first, self.tokens.len() - 1));
        }
        // Half a nanometre goes away from nought, whatever the sign.
        let rounded = (2 * over + under) / (2 * under);
        let magnitude = i64::try_from(rounded).map_err(|_| self.here(Fault::TooLong))?;
        Ok(TapeNumber { nanometres: if negative { -magnitude } else { magnitude }, unit: used.unit() })
    }

    fn measure(&mut self) -> Option<Measure> {
        let Some(Token::Measure(measure)) = self.peek(0) else {
            return None;
        };
        let measure = *measure;
        self.at += 1;
        Some(measure)
    }

    /// 2' 3 1/2", 2'-3 1/2 and 2 ft 3 in: the second part is in inches, said or not.
    fn inches_after_feet(&mut self) -> Result<Option<Figure>, TapeError> {
        let hyphen = matches!(self.peek(0), Some(Token::Minus));
        let next = self.peek(usize::from(hyphen));
        if !matches!(next, Some(Token::Number { .. } | Token::Vulgar { .. })) {
            return Ok(None);
        }
        self.at += usize::from(hyphen);
        let figure = self.figure()?;
        match self.peek(0) {
            None => Ok(Some(figure)),
            Some(Token::Measure(Measure::Inch)) => {
                self.at += 1;
                Ok(Some(figure))
            }
            Some(Token::Measure(_)) => Err(self.here(Fault::UnitsDisagree)),
            Some(_) => Err(self.here(Fault::TwoNumbers)),
        }
    }

    fn end(&self, used: Measure) -> Result<(), TapeError> {
        let Some(token) = self.peek(0) else {
            return Ok(());
        };
        let rest = &self.tokens[self.at..];
        let other_unit =
            rest.iter().position(|placed| matches!(placed.token, Token::Measure(unit) if unit != used));
        if let Some(offset) = other_unit {
            let index = self.at + offset;
            return Err(self.fault_at(Fault::UnitsDisagree, index, index));
        }
        Err(match token {
            Token::Slash => self.here(Fault::FractionUnfinished),
            Token::Number { .. } | Token::Vulgar { .. } => self.here(Fault::TwoNumbers),
            Token::Measure(_) | Token::Minus | Token::Plus => self.here(Fault::StrangeSign),
        })
    }

    fn figure(&mut self) -> Result<Figure, TapeError> {
        match self.peek(0) {
            Some(&Token::Vulgar { over, under }) => {
                self.at += 1;
                Ok(Figure { over, under, has_fraction: true })
            }
            Some(Token::Number { .. }) if matches!(self.peek(1), Some(Token::Slash)) => {
                let (over, under) = self.fraction()?;
                Ok(Figure { over, under, has_fraction: true })
            }
            Some(Token::Number { .. }) => self.number_and_fraction(),
            Some(Token::Slash) => Err(self.here(Fault::FractionUnfinished)),
            Some(Token::Minus | Token::Plus) => Err(self.here(Fault::StrangeSign)),
            Some(Token::Measure(_)) | None => Err(self.here(Fault::NumberMissing)),
        }
    }

    fn number_and_fraction(&mut self) -> Result<Figure, TapeError> {
        let whole_at = self.at;
        let (over, under, is_decimal) = self.decimal();
        let hyphen = usize::from(matches!(self.peek(0), Some(Token::Minus)));
        let part_at = self.at + hyphen;
        let part = match (self.peek(hyphen), self.peek(hyphen + 1)) {
            (Some(&Token::Vulgar { over, under }), _) => {
                self.at = part_at + 1;
                (over, under)
            }
            (Some(Token::Number { .. }), Some(Token::Slash)) => {
                self.at = part_at;
                self.fraction()?
            }
            (Some(Token::Number { .. }), _) => {
                return Err(self.fault_at(Fault::TwoNumbers, part_at, part_at));
            }
            _ => {
                return Ok(Figure { over, under, has_fraction: false });
            }
        };
        if is_decimal {
            return Err(self.fault_at(Fault::DecimalWithFraction, whole_at, self.at - 1));
        }
        if part.0 >= part.1 {
            return Err(self.fault_at(Fault::FractionTooLarge, part_at, self.at - 1));
        }
        Ok(Figure { over: over * part.1 + part.0, under: part.1, has_fraction: true })
    }

    /// The number here as over / under, and whether it had a decimal mark.
    fn decimal(&mut self) -> (i128, i128, bool) {
        let Some(Token::Number { whole, decimals }) = self.peek(0) else {
            return (0, 1, false);
        };
        let is_decimal = decimals.is_some();
        let decimals = decimals.as_deref().unwrap_or("");
        // The tokenizer has capped both parts, so the sum below cannot overflow.
        let digits =
            |text: &str| text.bytes().fold(0_i128, |value, digit| value * 10 + i128::from(digit - b'0'));
        let under = 10_i128.pow(decimals.len() as u32);
        let over = digits(whole) * under + digits(decimals);
        self.at += 1;
        (over, under, is_decimal)
    }

    fn fraction(&mut self) -> Result<(i128, i128), TapeError> {
        let start = self.at;
        let over = self.fraction_part()?;
        self.at += 1;
        if !matches!(self.peek(0), Some(Token::Number { .. })) {
            return Err(self.fault_at(Fault::FractionUnfinished, start, self.at - 1));
        }
        let under_at = self.at;
        let under = self.fraction_part()?;
        if under == 0 {
            return Err(self.fault_at(Fault::ZeroDenominator, under_at, under_at));
        }
        Ok((over, under))
    }

    fn fraction_part(&mut self) -> Result<i128, TapeError> {
        let at = self.at;
        let digits = match self.peek(0) {
            Some(Token::Number { whole, .. }) => whole.trim_start_matches('0').len(),
            _ => 0,
        };
        if digits > MOST_FRACTION_DIGITS {
            return Err(self.fault_at(Fault::TooManyDigits, at, at));
        }
        let (value, _, is_decimal) = self.decimal();
        if is_decimal {
            return Err(self.fault_at(Fault::DecimalWithFraction, at, at));
        }
        Ok(value)
    }
}
