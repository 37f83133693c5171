//! Lengths as they are printed: the table that the client's tests read as well, worked out by hand.
//! In each pair the everyday style comes first (1/16 in, half a millimetre) and the fine one second
//! (1/32 in, a tenth of a millimetre); `side` holds inches first.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::measure::{Length, Phrase, Unit};
use serde_json::Value;

fn said(phrase: &Phrase) -> [&str; 2] {
    [Unit::Inches, Unit::Millimetres].map(|unit| phrase.in_unit(unit))
}

#[test]
fn the_core_prints_as_the_table_says() {
    let table: Vec<Value> = serde_json::from_str(include_str!("printed.json")).unwrap();
    assert!(table.len() > 10, "the table was read");
    for row in &table {
        let length = Length::from_mm(row["mm"].as_f64().unwrap());
        let text = |style: &str, index: usize| row[style][index].as_str().unwrap();
        let everyday = Phrase::of(|w| w.distance(length));
        let fine = Phrase::of(|w| w.fine(length));
        assert_eq!(said(&everyday), [text("in", 0), text("metric", 0)], "{}", row["name"]);
        assert_eq!(said(&fine), [text("in", 1), text("metric", 1)], "{}, fine", row["name"]);
        let sideways = Phrase::of(|w| w.sideways(length));
        for (reported, side) in said(&sideways).into_iter().zip([text("side", 0), text("side", 1)]) {
            assert!(reported.ends_with(side), "{}: {reported}, not {side}", row["name"]);
        }
    }
}
