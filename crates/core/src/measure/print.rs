//! Lengths as a tape shows them.
//!
//! Rounding is done on whole nanometres, so that a tie is a tie: half a division
//! goes away from nought and is carried (23 63/64 at 1/16 is 24).

use super::length::{Length, Unit};

const NM_PER_MM: f64 = 1e6;
const NM_PER_INCH: i64 = 25_400_000;

/// The finest division printed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Style {
    /// Inches to 1/16.
    Sixteenths,
    /// Inches to 1/32.
    ThirtySeconds,
    /// Millimetres to 0.5.
    HalfMillimetres,
    /// Millimetres to 0.1.
    TenthMillimetres,
}

impl Style {
    /// All four, for tests and for choosing among.
    pub const ALL: [Self; 4] =
        [Self::Sixteenths, Self::ThirtySeconds, Self::HalfMillimetres, Self::TenthMillimetres];

    /// One division, in nanometres.
    #[must_use]
    pub const fn division_nanometres(self) -> i64 {
        match self {
            Self::Sixteenths => NM_PER_INCH / 16,
            Self::ThirtySeconds => NM_PER_INCH / 32,
            Self::HalfMillimetres => 500_000,
            Self::TenthMillimetres => 100_000,
        }
    }

    /// The unit printed.
    ///
    /// ```
    /// use derecho_core::measure::print::Style;
    /// use derecho_core::measure::Unit;
    ///
    /// assert_eq!(Style::everyday(Unit::Inches).unit(), Unit::Inches);
    /// ```
    #[must_use]
    pub const fn unit(self) -> Unit {
        match self {
            Self::Sixteenths | Self::ThirtySeconds => Unit::Inches,
            Self::HalfMillimetres | Self::TenthMillimetres => Unit::Millimetres,
        }
    }

    /// The everyday style of a unit: what figures in sentences are printed in.
    #[must_use]
    pub const fn everyday(unit: Unit) -> Self {
        match unit {
            Unit::Inches => Self::Sixteenths,
            Unit::Millimetres => Self::HalfMillimetres,
        }
    }

    /// The style a typed reading is read back in: 1/16, or 1/32 where the reading
    /// lies on a thirty-second; tenths of a millimetre.
    #[must_use]
    pub fn read_back(unit: Unit, nanometres: i64) -> Self {
        match unit {
            Unit::Millimetres => Self::TenthMillimetres,
            Unit::Inches => {
                let on = |style: Self| nanometres % style.division_nanometres() == 0;
                if on(Self::ThirtySeconds) && !on(Self::Sixteenths) {
                    Self::ThirtySeconds
                } else {
                    Self::Sixteenths
                }
            }
        }
    }
}

/// Whole nanometres of a computed length, to the nearest.
///
/// ```
/// use derecho_core::measure::Length;
///
/// use derecho_core::measure::print::nanometres;
///
/// // A sixty-fourth of an inch is 396,875 nm, exactly.
/// assert_eq!(nanometres(Length::from_inches(1.0 / 64.0)), 396_875);
/// ```
#[must_use]
pub fn nanometres(length: Length) -> i64 {
    // Saturates beyond nine million kilometres, which no vehicle is.
    (length.to_mm() * NM_PER_MM).round() as i64
}

/// Whether the length prints as nought.
///
/// ```
/// use derecho_core::measure::{Length, Unit};
///
/// use derecho_core::measure::print::{Style, rounds_to_nought};
///
/// let everyday = Style::everyday(Unit::Inches);
/// assert!(rounds_to_nought(Length::from_inches(1.0 / 64.0), everyday));
/// assert!(!rounds_to_nought(Length::from_inches(1.0 / 16.0), everyday));
/// ```
#[must_use]
pub fn rounds_to_nought(length: Length, style: Style) -> bool {
    divisions(nanometres(length), style) == 0
}

/// A thousandth of a millimetre, in nanometres.
const THOUSANDTH: i128 = 1_000;

pub(crate) fn divisions(nanometres: i64, style: Style) -> i64 {
    let division = i128::from(style.division_nanometres());
    // By the thousandth of a millimetre that HTTP writes, so that a screen comes to the same division: half
    // differences of sixteenths are often ties, and 8.73125 mm is one that 8.731 mm would not be.
    let thousandths = (i128::from(nanometres).abs() + THOUSANDTH / 2) / THOUSANDTH;
    let magnitude = (2 * thousandths * THOUSANDTH + THOUSANDTH + division) / (2 * division);
    let magnitude = i64::try_from(magnitude).unwrap_or(i64::MAX);
    if nanometres < 0 { -magnitude } else { magnitude }
}

/// Prints a length in a style, lowest terms, with its unit.
///
/// ```
/// use derecho_core::measure::{Length, print::{Style, written}};
/// let almost = Length::from_inches(23.0 + 63.0 / 64.0);
/// assert_eq!(written(almost, Style::Sixteenths), "24\"");
/// assert_eq!(written(Length::from_mm(630.24), Style::TenthMillimetres), "630.2 mm");
/// ```
#[must_use]
pub fn written(length: Length, style: Style) -> String {
    written_nanometres(nanometres(length), style)
}

/// As [`written`], from exact nanometres.
#[must_use]
pub fn written_nanometres(nanometres: i64, style: Style) -> String {
    let count = divisions(nanometres, style);
    let sign = if count < 0 { "-" } else { "" };
    let count = count.unsigned_abs();
    match style {
        Style::Sixteenths => format!("{sign}{}\"", mixed(count, 16)),
        Style::ThirtySeconds => format!("{sign}{}\"", mixed(count, 32)),
        Style::HalfMillimetres => format!("{sign}{} mm", tenths(count * 5)),
        Style::TenthMillimetres => format!("{sign}{} mm", tenths(count)),
    }
}

fn tenths(count: u64) -> String {
    match (count / 10, count % 10) {
        (whole, 0) => whole.to_string(),
        (whole, tenth) => format!("{whole}.{tenth}"),
    }
}

fn mixed(count: u64, per_inch: u64) -> String {
    let (whole, mut over, mut under) = (count / per_inch, count % per_inch, per_inch);
    while over != 0 && over % 2 == 0 {
        over /= 2;
        under /= 2;
    }
    match (whole, over) {
        (whole, 0) => whole.to_string(),
        (0, over) => format!("{over}/{under}"),
        (whole, over) => format!("{whole} {over}/{under}"),
    }
}

/// Inches to four decimals or millimetres to two: for workings, where a fraction
/// would hide the digits.
///
/// ```
/// use derecho_core::measure::{Length, Unit};
///
/// use derecho_core::measure::print::decimal;
///
/// assert_eq!(decimal(Length::from_inches(0.5), Unit::Inches), "0.5000 in");
/// assert_eq!(decimal(Length::from_inches(0.5), Unit::Millimetres), "12.70 mm");
/// ```
#[must_use]
pub fn decimal(length: Length, unit: Unit) -> String {
    match unit {
        Unit::Inches => bare_decimal(length, unit) + " in",
        Unit::Millimetres => bare_decimal(length, unit) + " mm",
    }
}

/// The same without its unit.
pub(super) fn bare_decimal(length: Length, unit: Unit) -> String {
    match unit {
        Unit::Inches => fixed(length.to_inches(), 4),
        Unit::Millimetres => fixed(length.to_mm(), 2),
    }
}

/// A number with so many decimals, without a minus sign where it rounds to nought.
///
/// As `format!` prints it. Whole numbers of the last place are ten times quicker to print than a
/// binary fraction is to round exactly, and a working has dozens of them.
///
/// ```
/// use derecho_core::measure::print::fixed;
///
/// assert_eq!(fixed(1.005, 1), "1.0");
/// assert_eq!(fixed(-0.01, 1), "0.0");
/// ```
#[must_use]
pub fn fixed(value: f64, decimals: usize) -> String {
    let places = i32::try_from(decimals).unwrap_or(i32::MAX);
    let scaled = value.abs() * 10_f64.powi(places);
    // Near a half the product's own rounding could decide.
    if decimals > 9 || scaled.is_nan() || scaled > 1e12 || (scaled.fract() - 0.5).abs() < 1e-3 {
        return trim_minus(format!("{value:.decimals$}"));
    }
    let whole = scaled.round() as u64;
    let sign = if value < 0.0 && whole > 0 { "-" } else { "" };
    if decimals == 0 {
        return format!("{sign}{whole}");
    }
    let unit = 10_u64.pow(decimals as u32);
    format!("{sign}{}.{:0decimals$}", whole / unit, whole % unit)
}

/// A number that rounds to nought has no minus sign.
///
/// ```
/// use derecho_core::measure::print::trim_minus;
///
/// assert_eq!(trim_minus("-0.0".to_owned()), "0.0");
/// assert_eq!(trim_minus("-0.1".to_owned()), "-0.1");
/// ```
#[must_use]
pub fn trim_minus(text: String) -> String {
    match text.strip_prefix('-') {
        Some(rest) if rest.bytes().all(|b| b == b'0' || b == b'.') => rest.to_owned(),
        _ => text,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        /// The quick way and the exact one print the same.
        #[test]
        fn fixed_is_what_format_prints(value in -1e6..1e6_f64, decimals in 0..9_usize, whole in -50_000..50_000_i32) {
            prop_assert_eq!(fixed(value, decimals), trim_minus(format!("{value:.decimals$}")));
            // Ties and their neighbours.
            for value in [f64::from(whole) / 8.0, f64::from(whole) / 1000.0, f64::from(whole) * 0.005] {
                prop_assert_eq!(fixed(value, decimals), trim_minus(format!("{value:.decimals$}")));
            }
        }
    }

    #[test]
    fn what_has_no_end_is_printed_as_it_is() {
        assert_eq!(fixed(f64::INFINITY, 2), "inf");
        assert_eq!(fixed(f64::NAN, 2), "NaN");
        assert_eq!(fixed(-0.000_01, 3), "0.000");
        assert_eq!(fixed(3e15, 1), "3000000000000000.0");
    }

    #[test]
    fn named_rows() {
        let sixteenths = |sixty_fourths: i64| written_nanometres(sixty_fourths * 396_875, Style::Sixteenths);
        let rows = [
            ("a sixty-fourth short of 24 is carried", sixteenths(24 * 64 - 1), "24\""),
            ("a tie goes away from nought", sixteenths(2), "1/16\""),
            ("a tie below nought goes away too", sixteenths(-2), "-1/16\""),
            ("less than half a division is nought", sixteenths(-1), "0\""),
            ("26/32 in lowest terms", sixteenths(24 * 64 + 52), "24 13/16\""),
            ("a fraction alone", sixteenths(52), "13/16\""),
        ];
        for (name, printed, wanted) in rows {
            assert_eq!(printed, wanted, "{name}");
        }
    }

    #[test]
    fn millimetres_to_half_and_tenth() {
        let mm = Length::from_mm;
        assert_eq!(written(mm(630.25), Style::HalfMillimetres), "630.5 mm");
        assert_eq!(written(mm(630.24), Style::HalfMillimetres), "630 mm");
        assert_eq!(written(mm(-0.24), Style::HalfMillimetres), "0 mm");
        assert_eq!(written(mm(-0.05), Style::TenthMillimetres), "-0.1 mm");
    }

    #[test]
    fn a_decimal_nought_has_no_minus_sign() {
        assert_eq!(decimal(Length::from_mm(-0.001), Unit::Millimetres), "0.00 mm");
        assert_eq!(decimal(Length::from_inches(-0.5), Unit::Inches), "-0.5000 in");
    }

    #[test]
    fn read_back_keeps_a_thirty_second() {
        assert_eq!(Style::read_back(Unit::Inches, 25_400_000 / 32 * 3), Style::ThirtySeconds);
        assert_eq!(Style::read_back(Unit::Inches, 25_400_000 / 16 * 3), Style::Sixteenths);
        assert_eq!(Style::read_back(Unit::Inches, 8_466_667), Style::Sixteenths);
    }
}
