//! JSON text: with every digit, or with figures no longer than they are good for.
//!
//! One writer for every layout: documents are written in this crate and results in one other, since each crate that wrote
//! them would compile all of it once more.

use std::io::{self, Write};

use serde::Serialize;
use serde_json::ser::{CompactFormatter, Formatter, PrettyFormatter, Serializer};

/// How JSON is laid out.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Layout {
    /// Every digit, without a space.
    #[default]
    Exact,
    /// Without a space: millimetres to a thousandth, degrees to a ten-thousandth, all else to six digits.
    Rounded,
    /// Every digit, a line for each value, for people and files.
    Indented,
}

/// What is told as JSON.
pub trait ToJson {
    /// Its JSON text, UTF-8.
    ///
    /// # Errors
    /// Where it has no JSON form.
    fn json(&self, layout: Layout) -> Result<Vec<u8>, serde_json::Error>;
}

/// Says of types with a serde form that they are told as JSON, where they are: each is made once.
#[macro_export]
#[doc(hidden)]
macro_rules! to_json {
    ($($reported:ty),* $(,)?) => {
        $(impl $crate::json::ToJson for $reported {
            fn json(&self, layout: $crate::json::Layout) -> Result<Vec<u8>, serde_json::Error> {
                $crate::json::bytes(self, layout)
            }
        })*
    };
}
pub use to_json;

/// The JSON text of a value, for [`to_json`] alone.
pub fn bytes(value: &impl Serialize, layout: Layout) -> Result<Vec<u8>, serde_json::Error> {
    let mut bytes = Vec::with_capacity(64 * 1024);
    value.serialize(&mut Serializer::with_formatter(&mut bytes, JsonPage::of(layout)))?;
    Ok(bytes)
}

/// What a figure is, by the ending of its field's name.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
enum Rounding {
    /// What goes back into a document as it is: a typed figure's value, a move, a length wanted.
    Exact,
    Millimetres,
    Degrees,
    #[default]
    Other,
}

/// Writes in a layout. Floating-point numbers are rounded by the field they stand in.
#[derive(Default)]
struct JsonPage {
    indented: Option<PrettyFormatter<'static>>,
    rounds: bool,
    in_key: bool,
    key: String,
    kind: Rounding,
}

impl JsonPage {
    fn of(layout: Layout) -> Self {
        let indented = (layout == Layout::Indented).then(PrettyFormatter::new);
        Self { indented, rounds: layout == Layout::Rounded, ..Self::default() }
    }
}

/// The layout's own way of writing a part.
macro_rules! laid_out {
    ($self:ident.$part:ident($($given:expr),*)) => {
        match &mut $self.indented {
            Some(indented) => indented.$part($($given),*),
            None => CompactFormatter.$part($($given),*),
        }
    };
}

impl Formatter for JsonPage {
    fn begin_array<W: ?Sized + Write>(&mut self, writer: &mut W) -> io::Result<()> {
        laid_out!(self.begin_array(writer))
    }

    fn end_array<W: ?Sized + Write>(&mut self, writer: &mut W) -> io::Result<()> {
        laid_out!(self.end_array(writer))
    }

    fn begin_array_value<W: ?Sized + Write>(&mut self, writer: &mut W, first: bool) -> io::Result<()> {
        laid_out!(self.begin_array_value(writer, first))
    }

    fn end_array_value<W: ?Sized + Write>(&mut self, writer: &mut W) -> io::Result<()> {
        laid_out!(self.end_array_value(writer))
    }

    fn begin_object<W: ?Sized + Write>(&mut self, writer: &mut W) -> io::Result<()> {
        laid_out!(self.begin_object(writer))
    }

    fn end_object<W: ?Sized + Write>(&mut self, writer: &mut W) -> io::Result<()> {
        laid_out!(self.end_object(writer))
    }

    fn begin_object_key<W: ?Sized + Write>(&mut self, writer: &mut W, first: bool) -> io::Result<()> {
        self.in_key = self.rounds;
        self.key.clear();
        laid_out!(self.begin_object_key(writer, first))
    }

    fn end_object_key<W: ?Sized + Write>(&mut self, writer: &mut W) -> io::Result<()> {
        self.in_key = false;
        self.kind = if matches!(self.key.as_str(), "mm" | "deg" | "by_mm" | "wanted_mm") {
            Rounding::Exact
        } else if self.key.ends_with("_mm") {
            Rounding::Millimetres
        } else if self.key.ends_with("_deg") {
            Rounding::Degrees
        } else {
            Rounding::Other
        };
        laid_out!(self.end_object_key(writer))
    }

    fn begin_object_value<W: ?Sized + Write>(&mut self, writer: &mut W) -> io::Result<()> {
        laid_out!(self.begin_object_value(writer))
    }

    fn end_object_value<W: ?Sized + Write>(&mut self, writer: &mut W) -> io::Result<()> {
        laid_out!(self.end_object_value(writer))
    }

    fn write_string_fragment<W: ?Sized + Write>(&mut self, writer: &mut W, part: &str) -> io::Result<()> {
        if self.in_key {
            self.key.push_str(part);
        }
        CompactFormatter.write_string_fragment(writer, part)
    }

    fn write_f64<W: ?Sized + Write>(&mut self, writer: &mut W, value: f64) -> io::Result<()> {
        if !self.rounds {
            return CompactFormatter.write_f64(writer, value);
        }
        let rounded = match self.kind {
            Rounding::Exact => value,
            Rounding::Millimetres => places(value, 1e3),
            Rounding::Degrees => places(value, 1e4),
            Rounding::Other => six_digits(value),
        };
        // A whole number needs no point.
        if rounded.fract() == 0.0 && rounded.abs() < 1e15 {
            return CompactFormatter.write_i64(writer, rounded as i64);
        }
        CompactFormatter.write_f64(writer, rounded)
    }
}

fn places(value: f64, scale: f64) -> f64 {
    (value * scale).round() / scale
}

fn six_digits(value: f64) -> f64 {
    if value == 0.0 || !value.is_finite() {
        return value;
    }
    let before = value.abs().log10().floor() as i32 + 1;
    if before >= 6 {
        return value.round();
    }
    // Dividing by a whole power of ten gives the nearest double to the decimal; multiplying by 0.1 does not.
    places(value, 10_f64.powi(6 - before))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use serde_json::{Value, json};

    fn written(value: &Value) -> String {
        String::from_utf8(bytes(value, Layout::Rounded).unwrap()).unwrap()
    }

    #[test]
    fn figures_are_as_long_as_they_are_good_for() {
        let value = json!({
            "length_mm": 824.123_456_7, "angle_deg": [10.123_456_7, -0.000_01], "rate": 0.123_456_789_1,
            "big": 123_456_789.123, "says": "12.345678 mm", "count": 7, "nested_mm": { "plain": 1.0 / 3.0 },
            "tiny": 1.234_567_89e-7, "whole_mm": 24.0,
        });
        let back: Value = serde_json::from_str(&written(&value)).unwrap();
        assert_eq!(back["length_mm"], json!(824.123));
        assert_eq!(back["angle_deg"], json!([10.1235, 0]));
        assert_eq!(back["rate"], json!(0.123_457));
        assert_eq!(back["big"], json!(123_456_789));
        assert_eq!(back["says"], value["says"]);
        assert_eq!(back["count"], json!(7));
        assert_eq!(back["nested_mm"]["plain"], json!(0.333_333));
        assert_eq!(back["tiny"], json!(1.234_57e-7));
        // What a client sends back in a document is not touched.
        let typed = json!({ "length": { "text": "973.062859", "unit": "mm", "mm": 973.062_859 }, "by_mm": [1.0 / 3.0] });
        assert_eq!(serde_json::from_str::<Value>(&written(&typed)).unwrap(), typed);
        assert!(written(&value).contains("\"whole_mm\":24,") || written(&value).contains("\"whole_mm\":24}"));
    }

    /// What is written at length or as it was typed is what the general writers make of it.
    #[test]
    fn other_layouts_are_the_usual_ones() {
        let value = json!({ "a_mm": 1.0 / 3.0, "b": [], "c": {}, "d": [1, [2.0, { "e": "\u{7}x" }], null, true], "f_deg": 4.0 });
        assert_eq!(bytes(&value, Layout::Indented).unwrap(), serde_json::to_vec_pretty(&value).unwrap());
        assert_eq!(bytes(&value, Layout::Exact).unwrap(), serde_json::to_vec(&value).unwrap());
    }

    proptest! {
        /// Nothing is further off than half of the last place that is kept, and writing again changes nothing.
        #[test]
        fn no_figure_moves_by_more_than_half_a_place(value in -1e7..1e7_f64) {
            let text = written(&json!({ "a_mm": value, "b_deg": value, "c": value }));
            let back: Value = serde_json::from_str(&text).unwrap();
            let of = |key: &str| back[key].as_f64().unwrap();
            prop_assert!((of("a_mm") - value).abs() <= 0.000_500_1);
            prop_assert!((of("b_deg") - value).abs() <= 0.000_050_1);
            prop_assert!((of("c") / value - 1.0).abs() <= 5.1e-6 || value == 0.0);
            prop_assert_eq!(written(&back), text);
        }
    }
}
