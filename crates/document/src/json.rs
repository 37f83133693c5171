//! JSON text: with every digit, or with figures no longer than they are good for.
//!
//! One writer for every layout: documents are written in this crate and results in one other, since each crate that wrote
//! them would compile all of it once more.

use std::io::{self, Write};

use derecho_core::measure::figure::{Figure, being_written};
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

/// Writes in a layout. Floating-point numbers are rounded by what they are ([`being_written`]).
#[derive(Default)]
struct JsonPage {
    indented: Option<PrettyFormatter<'static>>,
    rounds: bool,
}

impl JsonPage {
    fn of(layout: Layout) -> Self {
        let indented = (layout == Layout::Indented).then(PrettyFormatter::new);
        Self { indented, rounds: layout == Layout::Rounded }
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
        laid_out!(self.begin_object_key(writer, first))
    }

    fn end_object_key<W: ?Sized + Write>(&mut self, writer: &mut W) -> io::Result<()> {
        laid_out!(self.end_object_key(writer))
    }

    fn begin_object_value<W: ?Sized + Write>(&mut self, writer: &mut W) -> io::Result<()> {
        laid_out!(self.begin_object_value(writer))
    }

    fn end_object_value<W: ?Sized + Write>(&mut self, writer: &mut W) -> io::Result<()> {
        laid_out!(self.end_object_value(writer))
    }

    fn write_f64<W: ?Sized + Write>(&mut self, writer: &mut W, value: f64) -> io::Result<()> {
        if !self.rounds {
            return CompactFormatter.write_f64(writer, value);
        }
        let rounded = match being_written() {
            Figure::Exact => value,
            Figure::Millimetres => places(value, 1e3),
            Figure::Degrees => places(value, 1e4),
            Figure::Other => six_digits(value),
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
    use derecho_core::measure::{Angle, Length, TapeEntry, Unit, figure};
    use proptest::prelude::*;
    use serde_json::{Value, json};

    fn written(value: &impl Serialize) -> String {
        String::from_utf8(bytes(value, Layout::Rounded).unwrap()).unwrap()
    }

    /// Figures that say what they are, whatever their fields are called.
    #[derive(Serialize)]
    struct Figures {
        length: Length,
        angles: [Angle; 2],
        #[serde(serialize_with = "figure::millimetres")]
        points: Vec<Option<f64>>,
        #[serde(serialize_with = "figure::degrees")]
        roll: f64,
        rate_per_mm: f64,
        typed: TapeEntry,
        #[serde(serialize_with = "figure::exactly")]
        moved: [f64; 2],
    }

    fn figures(value: f64) -> Figures {
        Figures {
            length: Length::from_mm(value),
            angles: [Angle::from_degrees(value), Angle::from_degrees(0.0)],
            points: vec![Some(value), None],
            roll: value,
            rate_per_mm: value,
            typed: TapeEntry::parse("973.062859", Unit::Millimetres).unwrap(),
            moved: [value, 1.0 / 3.0],
        }
    }

    #[test]
    fn figures_are_as_long_as_they_are_good_for() {
        let back: Value = serde_json::from_str(&written(&figures(24.123_456_789))).unwrap();
        assert_eq!(back["length"], json!(24.123));
        assert_eq!(back["angles"], json!([24.1235, 0]));
        assert_eq!(back["points"], json!([24.123, null]));
        assert_eq!(back["roll"], json!(24.1235));
        assert_eq!(back["rate_per_mm"], json!(24.1235), "six digits, though its name ends as a length's");
        // What a client sends back in a document is not touched.
        assert_eq!(back["typed"]["mm"], json!(973.062_859));
        assert_eq!(back["moved"], json!([24.123_456_789, 1.0 / 3.0]));
        let others =
            json!({ "big": 123_456_789.123, "tiny": 1.234_567_89e-7, "says": "12.345678 mm", "count": 7 });
        let back: Value = serde_json::from_str(&written(&others)).unwrap();
        assert_eq!(
            back,
            json!({ "big": 123_456_789, "tiny": 1.234_57e-7, "says": "12.345678 mm", "count": 7 })
        );
        assert!(written(&figures(24.0)).starts_with("{\"length\":24,"), "a whole number needs no point");
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
            let text = written(&figures(value));
            let back: Value = serde_json::from_str(&text).unwrap();
            let of = |at: &str| back.pointer(at).and_then(Value::as_f64).unwrap();
            prop_assert!((of("/length") - value).abs() <= 0.000_500_1);
            prop_assert!((of("/angles/0") - value).abs() <= 0.000_050_1);
            prop_assert!((of("/points/0") - value).abs() <= 0.000_500_1);
            prop_assert!((of("/rate_per_mm") / value - 1.0).abs() <= 5.1e-6 || value == 0.0);
            let again = written(&Length::from_mm(of("/length")));
            prop_assert_eq!(again, written(&Length::from_mm(value)));

        }
    }
}
