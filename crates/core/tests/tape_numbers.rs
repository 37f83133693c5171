//! Every form a tape number may take, and every form refused, as named rows; and
//! that whatever is printed is read back as what it was.
//!
//! The expected values are worked by hand from 1 in = 25 400 000 nm.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::measure::print::{Style, nanometres, written, written_nanometres};
use derecho_core::measure::tape::{Fault, Kind, parse};
use derecho_core::measure::{Length, Unit};
use proptest::prelude::*;

const IN: Unit = Unit::Inches;
const MM: Unit = Unit::Millimetres;

/// Name, text, sheet, fault, first character and one past the last.
type Refused = (&'static str, &'static str, Unit, Fault, (usize, usize));

#[test]
fn accepted() {
    let rows: &[(&str, &str, Unit, i64)] = &[
        ("inches and a fraction", "24 13/16", IN, 630_237_500),
        ("joined by a hyphen", "24-13/16", IN, 630_237_500),
        ("a hyphen with spaces round it", "24 - 13/16", IN, 630_237_500),
        ("an en dash", "24–13/16", IN, 630_237_500),
        ("with an inch mark", "24 13/16\"", IN, 630_237_500),
        ("with a double prime", "24 13/16″", IN, 630_237_500),
        ("with a curly quote", "24 13/16”", IN, 630_237_500),
        ("with two single quotes", "24 13/16''", IN, 630_237_500),
        ("decimal inches", "24.8125", IN, 630_237_500),
        ("decimal inches with the unit", "24.8125 in", IN, 630_237_500),
        ("the unit in capitals", "24.8125 IN", IN, 630_237_500),
        ("the unit with a full stop", "24.8125 in.", IN, 630_237_500),
        ("the unit in full", "24.8125 inches", IN, 630_237_500),
        ("a fraction alone", "13/16", IN, 20_637_500),
        ("an improper fraction alone", "17/16", IN, 26_987_500),
        ("a fraction not in lowest terms", "24 26/32", IN, 630_237_500),
        ("feet and inches", "2' 3 1/2\"", IN, 698_500_000),
        ("feet and inches with a hyphen", "2'-3 1/2\"", IN, 698_500_000),
        ("feet and inches, the inch mark left out", "2' 3 1/2", IN, 698_500_000),
        ("feet and inches in words", "2 ft 3.5 in", IN, 698_500_000),
        ("feet and inches in primes", "2′ 3½″", IN, 698_500_000),
        ("feet alone", "2'", IN, 609_600_000),
        ("feet and a half", "2 1/2 ft", IN, 762_000_000),
        ("feet on a millimetre sheet", "2' 3 1/2\"", MM, 698_500_000),
        ("a bare number on a millimetre sheet", "630", MM, 630_000_000),
        ("a bare number on an inch sheet", "24", IN, 609_600_000),
        ("millimetres without a space", "630mm", IN, 630_000_000),
        ("centimetres", "63 cm", IN, 630_000_000),
        ("metres", "0.63 m", IN, 630_000_000),
        ("a decimal comma", "630,5 mm", MM, 630_500_000),
        ("a decimal comma with two digits", "12,25", MM, 12_250_000),
        ("a decimal comma with four digits", "1,2500", MM, 1_250_000),
        ("three digits after a comma, but nought before it", "0,250", MM, 250_000),
        ("a point and three digits", "1.250", MM, 1_250_000),
        ("no nought before the point", ".5", IN, 12_700_000),
        ("nothing after the point", "24.", IN, 609_600_000),
        ("spaces round it", "  24 13/16  ", IN, 630_237_500),
        ("a no-break space", "24\u{a0}13/16", IN, 630_237_500),
        ("spaces round the bar", "24 13 / 16", IN, 630_237_500),
        ("a Unicode fraction", "24 ¾", IN, 628_650_000),
        ("a Unicode fraction without a space", "24¾", IN, 628_650_000),
        ("a Unicode fraction alone", "⅞", IN, 22_225_000),
        ("a fraction slash", "24 13⁄16", IN, 630_237_500),
        ("raised and lowered digits", "24¹³⁄₁₆", IN, 630_237_500),
        ("a numerator-one sign", "24 ⅟16", IN, 611_187_500),
        ("a fraction with its own unit on a millimetre sheet", "13/16 in", MM, 20_637_500),
        ("inches on a millimetre sheet", "24\"", MM, 609_600_000),
        ("a sixty-fourth, exact", "1/64", IN, 396_875),
        ("a micrometre, exact", "0.001 mm", MM, 1_000),
        ("a third, to the nearest nanometre", "1/3", IN, 8_466_667),
        ("a plus sign", "+5", MM, 5_000_000),
        ("nought", "0", IN, 0),
        ("ten metres itself", "10 m", MM, 10_000_000_000),
        ("ten metres in millimetres", "10000", MM, 10_000_000_000),
    ];
    for (name, text, sheet, wanted) in rows {
        match parse(text, *sheet, Kind::Distance) {
            Ok(number) => assert_eq!(number.nanometres(), *wanted, "{name}: {text}"),
            Err(error) => panic!("{name}: {text:?} refused: {error}"),
        }
    }
}

#[test]
fn refused_with_the_place() {
    let rows: &[Refused] = &[
        ("nothing", "", IN, Fault::Empty, (0, 0)),
        ("spaces only", "   ", IN, Fault::Empty, (0, 3)),
        ("a fraction without a unit on a millimetre sheet", "13/16", MM, Fault::FractionWithoutUnit, (0, 5)),
        (
            "a mixed number without a unit on a millimetre sheet",
            "24 13/16",
            MM,
            Fault::FractionWithoutUnit,
            (0, 8),
        ),
        (
            "a Unicode fraction without a unit on a millimetre sheet",
            "¾",
            MM,
            Fault::FractionWithoutUnit,
            (0, 1),
        ),
        ("a comma before three digits", "1,250", MM, Fault::AmbiguousComma, (0, 5)),
        ("a comma before three digits, unit or not", "1,250 mm", IN, Fault::AmbiguousComma, (0, 5)),
        ("two thousands marks", "1,250,000", MM, Fault::TwoDecimalMarks, (0, 9)),
        ("a thousands mark and a point", "1,250.5", MM, Fault::TwoDecimalMarks, (0, 7)),
        ("nought under the bar", "24 13/0", IN, Fault::ZeroDenominator, (6, 7)),
        ("inches and then millimetres", "24 in 3 mm", IN, Fault::UnitsDisagree, (8, 10)),
        ("two units after one number", "24 in mm", IN, Fault::UnitsDisagree, (6, 8)),
        ("a quote and then millimetres", "24\" mm", IN, Fault::UnitsDisagree, (4, 6)),
        ("feet and millimetres", "2' 30 mm", IN, Fault::UnitsDisagree, (6, 8)),
        ("feet twice", "2' 3'", IN, Fault::UnitsDisagree, (4, 5)),
        ("the same unit twice", "24 in in", IN, Fault::StrangeSign, (6, 8)),
        ("a fraction of one after a whole number", "24 16/16", IN, Fault::FractionTooLarge, (3, 8)),
        ("a fraction over one after a whole number", "24 17/16", IN, Fault::FractionTooLarge, (3, 8)),
        ("a minus sign", "-3/8", IN, Fault::NegativeDistance, (0, 1)),
        ("a minus sign before nought", "−0", IN, Fault::NegativeDistance, (0, 1)),
        ("not a number", "NaN", IN, Fault::NotANumber, (0, 3)),
        ("infinite", "inf", IN, Fault::NotANumber, (0, 3)),
        ("a lying eight", "∞", IN, Fault::NotANumber, (0, 1)),
        ("just over ten metres", "10.000000001 m", MM, Fault::TooLong, (0, 14)),
        ("an inch too many", "394 in", IN, Fault::TooLong, (0, 6)),
        ("no end of digits", "99999999999999999999", MM, Fault::TooLong, (0, 20)),
        ("decimals no tape has", "1.0000000000001", MM, Fault::TooManyDigits, (0, 15)),
        ("a denominator no tape has", "1/10000000", IN, Fault::TooManyDigits, (2, 10)),
        ("a word", "about 24", IN, Fault::UnknownWord, (0, 5)),
        ("an exponent", "1e3", IN, Fault::UnknownWord, (1, 2)),
        ("a unit alone", "mm", MM, Fault::NumberMissing, (0, 2)),
        ("a sign alone", "+", MM, Fault::NumberMissing, (1, 1)),
        ("a bar and nothing under it", "24 13/", IN, Fault::FractionUnfinished, (3, 6)),
        ("a bar and nothing over it", "/16", IN, Fault::FractionUnfinished, (0, 1)),
        ("two bars", "1/2/3", IN, Fault::FractionUnfinished, (3, 4)),
        ("a decimal and a fraction", "24.5 1/2", IN, Fault::DecimalWithFraction, (0, 8)),
        ("a fraction of decimals", "1.5/2", IN, Fault::DecimalWithFraction, (0, 3)),
        ("two whole numbers", "24 13", IN, Fault::TwoNumbers, (3, 5)),
        ("two whole numbers and a hyphen", "24-13", IN, Fault::TwoNumbers, (3, 5)),
        ("the unit in the middle", "24 in 13/16", IN, Fault::TwoNumbers, (6, 8)),
        ("a comma and nothing after it", "24,", IN, Fault::StrangeSign, (2, 3)),
        ("two hyphens", "24--13/16", IN, Fault::StrangeSign, (2, 3)),
        ("a hash", "#24", IN, Fault::StrangeSign, (0, 1)),
    ];
    for (name, text, sheet, fault, (start, end)) in rows {
        match parse(text, *sheet, Kind::Distance) {
            Ok(number) => panic!("{name}: {text:?} read as {} nm", number.nanometres()),
            Err(error) => {
                assert_eq!(error.fault, *fault, "{name}: {text}");
                assert_eq!((error.start, error.end), (*start, *end), "{name}: {text}");
            }
        }
    }
}

#[test]
fn a_signed_figure_may_point_down() {
    let drop = parse("-1 1/2", IN, Kind::Signed).unwrap();
    assert_eq!(drop.nanometres(), -38_100_000);
    assert_eq!(parse("−40", MM, Kind::Signed).unwrap().nanometres(), -40_000_000);
    assert_eq!(parse("--40", MM, Kind::Signed).unwrap_err().fault, Fault::StrangeSign);
}

#[test]
fn every_refusal_says_what_to_do() {
    insta::assert_snapshot!(
        ["1,250", "13/16", "24 13/0", "24 in mm", "24 17/16", "-3"]
            .map(|text| format!("{text}: {}", parse(text, MM, Kind::Distance).unwrap_err()))
            .join("\n"),
        @r"
    1,250: 1.25 or 1250? Use a point for decimals and no comma in thousands.
    13/16: Inches or millimeters? These measurements are in mm, so a fraction needs its unit: 13/16 in.
    24 13/0: A fraction can't have 0 on the bottom. Use 2, 4, 8, 16, 32 or 64.
    24 in mm: Two units disagree. Use one; only feet and inches go together.
    24 17/16: The fraction must be less than 1. Add it to the whole number, or enter the fraction alone.
    -3: A distance can't be negative. Leave out the minus sign and choose the side instead.
    "
    );
}

proptest! {
    #[test]
    fn a_whole_number_of_divisions_is_printed_and_read_back_exactly(
        count in -6_000_i64..6_000,
        style in prop::sample::select(Style::ALL.to_vec()),
    ) {
        let exact = count * style.division_nanometres();
        let text = written_nanometres(exact, style);
        // The other unit's sheet, so that only the printed unit can be what is used.
        let sheet = if style.unit() == IN { MM } else { IN };
        let read = parse(&text, sheet, Kind::Signed).unwrap();
        prop_assert_eq!(read.nanometres(), exact, "{}", text);
    }

    #[test]
    fn printing_moves_a_length_by_half_a_division_at_most(
        mm in -9_000.0_f64..9_000.0,
        style in prop::sample::select(Style::ALL.to_vec()),
    ) {
        let length = Length::from_mm(mm);
        let read = parse(&written(length, style), IN, Kind::Signed).unwrap();
        let moved = (read.nanometres() - nanometres(length)).abs();
        // But for the thousandth of a millimetre within which a tie is a tie.
        prop_assert!(2 * moved <= style.division_nanometres() + 2_000);
    }

    /// Half differences of sixteenths lie on ties of the sixteenth as often as not: what HTTP rounded to a thousandth
    /// of a millimetre is printed as what it was.
    #[test]
    fn a_length_and_its_thousandth_print_alike(
        mm in -9_000.0_f64..9_000.0,
        sixty_fourths in -6_000_i64..6_000,
        style in prop::sample::select(Style::ALL.to_vec()),
    ) {
        for mm in [mm, sixty_fourths as f64 * 25.4 / 64.0] {
            let sent = (mm * 1_000.0).round() / 1_000.0;
            prop_assert_eq!(written(Length::from_mm(mm), style), written(Length::from_mm(sent), style), "{} mm", mm);
        }
    }

    #[test]
    fn sixty_fourths_are_exact_in_every_spelling(whole in 0_i64..300, part in 1_i64..64) {
        let exact = (whole * 64 + part) * 396_875;
        for text in [
            format!("{whole} {part}/64"),
            format!("{whole}-{part}/64\""),
            format!("{whole} {}/128 in", part * 2),
            format!("{}/64 in", whole * 64 + part),
        ] {
            let read = parse(&text, IN, Kind::Distance).unwrap();
            prop_assert_eq!(read.nanometres(), exact, "{}", text);
        }
    }

    #[test]
    fn no_text_makes_the_reader_panic_and_every_place_lies_in_the_text(text in "\\PC{0,24}") {
        for sheet in [IN, MM] {
            if let Err(error) = parse(&text, sheet, Kind::Distance) {
                prop_assert!(error.start <= error.end);
                prop_assert!(error.end <= text.chars().count());
            }
        }
    }

    #[test]
    fn nor_does_any_row_of_the_signs_it_knows(text in "[0-9 /.,'\"½inmcft+-]{0,16}") {
        for sheet in [IN, MM] {
            if let Ok(number) = parse(&text, sheet, Kind::Distance) {
                prop_assert!((0..=10_000_000_000).contains(&number.nanometres()));
            }
        }
    }
}
