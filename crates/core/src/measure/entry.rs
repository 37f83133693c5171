//! Typed figures as they are kept in a job: the text as typed beside the value.

use crate::measure::figure;
use std::fmt;
use std::marker::PhantomData;

use serde::de::value::MapAccessDeserializer;
use serde::de::{self, Error as _, MapAccess, Visitor};
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use utoipa::openapi::{RefOr, Schema};
use utoipa::{PartialSchema, ToSchema};

use super::angle::Angle;
use super::length::{Length, Unit};
use super::tape::{self, Fault, Kind, TapeError, TapeNumber};

/// A length as typed: the text, the unit of the sheet it was typed on, and the
/// exact value. 26/32 stays 26/32 in its field.
///
/// In JSON an object `{"text": "24 13/16", "unit": "in", "mm": 630.2375}`. Where one
/// is read, `mm` may be left out; where it is given it must agree with the text. A
/// bare number of millimetres and a bare string with its unit are read as well.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct TapeEntry {
    text: String,
    unit: Unit,
    number: TapeNumber,
}

impl TapeEntry {
    /// Reads a text typed on a sheet in `unit`. A leading minus sign is taken here
    /// and judged where the field is known.
    ///
    /// # Errors
    /// The fault of the text and its place.
    pub fn parse(text: &str, unit: Unit) -> Result<Self, TapeError> {
        let number = tape::parse(text, unit, Kind::Signed)?;
        Ok(Self { text: text.to_owned(), unit, number })
    }

    /// A computed length as it would be typed, in millimetres to the nanometre: what is handed to a person to be kept as
    /// it is. None for a length no tape has.
    ///
    /// ```
    /// use derecho_core::measure::{Length, TapeEntry};
    ///
    /// let entry = TapeEntry::of(Length::from_inches(0.5)).unwrap();
    /// assert_eq!(entry.text(), "12.700000");
    /// assert_eq!(entry.length(), Length::from_mm(12.7));
    /// assert_eq!(TapeEntry::of(Length::from_mm(f64::NAN)), None);
    /// ```
    #[must_use]
    pub fn of(length: Length) -> Option<Self> {
        let number = TapeNumber::of(length)?;
        Some(Self { text: format!("{:.6}", number.length().to_mm()), unit: Unit::Millimetres, number })
    }

    /// The text as typed.
    ///
    /// ```
    /// use derecho_core::measure::{TapeEntry, Unit};
    ///
    /// let entry = TapeEntry::parse("26/32", Unit::Inches).unwrap();
    /// assert_eq!(entry.text(), "26/32");
    /// ```
    #[must_use]
    pub fn text(&self) -> &str {
        &self.text
    }

    /// The unit of the sheet it was typed on.
    #[must_use]
    pub const fn unit(&self) -> Unit {
        self.unit
    }

    /// The exact value.
    #[must_use]
    pub const fn number(&self) -> TapeNumber {
        self.number
    }

    /// For computation.
    ///
    /// ```
    /// use derecho_core::measure::{TapeEntry, Unit};
    ///
    /// let entry = TapeEntry::parse("24 13/16", Unit::Inches).unwrap();
    /// assert_eq!(entry.length().to_mm(), 630.2375);
    /// ```
    #[must_use]
    pub fn length(&self) -> Length {
        self.number.length()
    }
}

/// A length as typed, with the sheet's unit and its exact value in millimetres.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
struct TapeForm {
    /// As typed, for example `24 13/16`.
    text: String,
    /// The unit of a bare number on this sheet.
    unit: Unit,
    /// The value in millimetres. May be left out where a document is sent.
    #[serde(default, skip_serializing_if = "Option::is_none", serialize_with = "figure::exactly")]
    #[schema(nullable = false)]
    mm: Option<f64>,
}

impl PartialSchema for TapeEntry {
    fn schema() -> RefOr<Schema> {
        TapeForm::schema()
    }
}

impl ToSchema for TapeEntry {
    fn name() -> std::borrow::Cow<'static, str> {
        "TapeEntry".into()
    }

    fn schemas(schemas: &mut Vec<(String, RefOr<Schema>)>) {
        TapeForm::schemas(schemas);
    }
}

impl Serialize for TapeEntry {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        let mm = Some(self.length().to_mm());
        TapeForm { text: self.text.clone(), unit: self.unit, mm }.serialize(serializer)
    }
}

/// The three ways a typed figure may stand in a document. By hand, not as an untagged choice: that would keep the
/// whole value and write an error for each way that does not fit, which is most of what reading a job takes.
struct Forms<F> {
    expected: &'static str,
    form: PhantomData<F>,
}

/// A typed figure as it stands in a document.
enum Given<F> {
    Number(f64),
    Text(String),
    Form(F),
}

impl<F> Forms<F> {
    const fn expecting(expected: &'static str) -> Self {
        Self { expected, form: PhantomData }
    }
}

impl<'de, F: Deserialize<'de>> Visitor<'de> for Forms<F> {
    type Value = Given<F>;

    fn expecting(&self, formatter: &mut fmt::Formatter<'_>) -> fmt::Result {
        formatter.write_str(self.expected)
    }

    fn visit_f64<E: de::Error>(self, number: f64) -> Result<Self::Value, E> {
        Ok(Given::Number(number))
    }

    fn visit_i64<E: de::Error>(self, number: i64) -> Result<Self::Value, E> {
        Ok(Given::Number(number as f64))
    }

    fn visit_u64<E: de::Error>(self, number: u64) -> Result<Self::Value, E> {
        Ok(Given::Number(number as f64))
    }

    fn visit_str<E: de::Error>(self, text: &str) -> Result<Self::Value, E> {
        Ok(Given::Text(text.to_owned()))
    }

    fn visit_string<E: de::Error>(self, text: String) -> Result<Self::Value, E> {
        Ok(Given::Text(text))
    }

    fn visit_map<A: MapAccess<'de>>(self, map: A) -> Result<Self::Value, A::Error> {
        F::deserialize(MapAccessDeserializer::new(map)).map(Given::Form)
    }
}

impl<'de> Deserialize<'de> for TapeEntry {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let forms = Forms::<TapeForm>::expecting(
            "a length: an object with text and unit, a string with its unit, or a number of millimeters",
        );
        let (text, unit, mm) = match deserializer.deserialize_any(forms)? {
            Given::Number(mm) => (mm.to_string(), Unit::Millimetres, None),
            Given::Text(text) => (text, Unit::Millimetres, None),
            Given::Form(form) => (form.text, form.unit, form.mm),
        };
        let number = tape::parse(&text, unit, Kind::Signed).map_err(D::Error::custom)?;
        let entry = Self { text, unit, number };
        // A thousandth of a millimetre allows for a value written with fewer digits.
        if mm.is_some_and(|mm| (mm - entry.length().to_mm()).abs() > 1e-3) {
            return Err(D::Error::custom(format!(
                "the text {:?} and mm disagree: the text is {} mm. Leave mm out or make them agree.",
                entry.text,
                entry.length().to_mm()
            )));
        }
        Ok(entry)
    }
}

/// The steepest angle taken, in degrees.
const STEEPEST_DEGREES: f64 = 89.0;

/// An angle as typed, in degrees: the text and its value. In JSON an object
/// `{"text": "10.8", "deg": 10.8}`; a bare number of degrees and a bare string are
/// read as well.
#[derive(Clone, Debug, PartialEq)]
pub struct AngleEntry {
    text: String,
    angle: Angle,
}

impl AngleEntry {
    /// Reads `10.8`, `10,8`, `-2°`, `10.8 deg`.
    ///
    /// # Errors
    /// A sentence that says what to type.
    ///
    /// ```
    /// use derecho_core::measure::AngleEntry;
    ///
    /// let entry = AngleEntry::parse("10.8").unwrap();
    /// assert!((entry.angle().to_degrees() - 10.8).abs() < 1e-12);
    /// assert!(AngleEntry::parse("steep").is_err());
    /// ```
    pub fn parse(text: &str) -> Result<Self, String> {
        let trimmed = text.trim().trim_end_matches("degrees").trim_end_matches("deg");
        let number = trimmed.trim_end_matches('°').trim();
        let (sign, number) = match number.strip_prefix(['-', '−']) {
            Some(rest) => (-1.0, rest),
            None => (1.0, number.strip_prefix('+').unwrap_or(number)),
        };
        let degrees = tape::decimal(number).map_err(|fault| match fault {
            Fault::AmbiguousComma | Fault::TwoDecimalMarks => fault.to_string(),
            _ => "Not an angle. Enter degrees, such as 10.8.".to_owned(),
        })?;
        if degrees > STEEPEST_DEGREES {
            return Err(format!("Steeper than {STEEPEST_DEGREES}°. Enter the angle from level, in degrees."));
        }
        Ok(Self { text: text.to_owned(), angle: Angle::from_degrees(sign * degrees) })
    }

    /// The text as typed.
    #[must_use]
    pub fn text(&self) -> &str {
        &self.text
    }

    /// For computation.
    #[must_use]
    pub const fn angle(&self) -> Angle {
        self.angle
    }
}

/// An angle as typed, with its value in degrees.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
struct AngleForm {
    /// As typed, for example `10.8`.
    text: String,
    /// The value in degrees. May be left out where a document is sent.
    #[serde(default, skip_serializing_if = "Option::is_none", serialize_with = "figure::exactly")]
    #[schema(nullable = false)]
    deg: Option<f64>,
}

impl PartialSchema for AngleEntry {
    fn schema() -> RefOr<Schema> {
        AngleForm::schema()
    }
}

impl ToSchema for AngleEntry {
    fn name() -> std::borrow::Cow<'static, str> {
        "AngleEntry".into()
    }

    fn schemas(schemas: &mut Vec<(String, RefOr<Schema>)>) {
        AngleForm::schemas(schemas);
    }
}

impl Serialize for AngleEntry {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        let deg = Some(self.angle.to_degrees());
        AngleForm { text: self.text.clone(), deg }.serialize(serializer)
    }
}

impl<'de> Deserialize<'de> for AngleEntry {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let forms =
            Forms::<AngleForm>::expecting("an angle: an object with text, a string, or a number of degrees");
        let text = match deserializer.deserialize_any(forms)? {
            Given::Number(degrees) => degrees.to_string(),
            Given::Text(text) | Given::Form(AngleForm { text, .. }) => text,
        };
        Self::parse(&text).map_err(D::Error::custom)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_typed_text_comes_back_as_typed() {
        let entry = TapeEntry::parse("24 26/32", Unit::Inches).unwrap();
        let json = serde_json::to_string(&entry).unwrap();
        assert_eq!(json, r#"{"text":"24 26/32","unit":"in","mm":630.2375}"#);
        assert_eq!(serde_json::from_str::<TapeEntry>(&json).unwrap(), entry);
    }

    #[test]
    fn numbers_and_strings_are_read_too() {
        let read = |json: &str| serde_json::from_str::<TapeEntry>(json).unwrap().length().to_mm();
        assert_eq!(read("630.5"), 630.5);
        assert_eq!(read(r#""24 in""#), 609.6);
        assert_eq!(read(r#"{"text":"24","unit":"in"}"#), 609.6);
    }

    #[test]
    fn what_is_no_figure_is_refused_by_what_a_figure_is() {
        let reported = |json: &str| serde_json::from_str::<TapeEntry>(json).unwrap_err().to_string();
        for json in ["true", "null", "[24]"] {
            assert!(
                reported(json).contains("a length: an object with text and unit"),
                "{json}: {}",
                reported(json)
            );
        }
        assert!(reported(r#"{"unit":"in"}"#).contains("missing field `text`"));
        assert!(reported(r#"{"text":"24","unit":"in","inch":1}"#).contains("unknown field `inch`"));
        assert!(reported(r#"{"text":"24","unit":"ft"}"#).contains("unknown variant `ft`"));
        let angle = |json: &str| serde_json::from_str::<AngleEntry>(json);
        assert!(angle("false").unwrap_err().to_string().contains("an angle: an object with text"));
        for json in ["3", "3.0", r#""3""#, r#"{"text":"3"}"#] {
            assert_eq!(angle(json).unwrap().angle(), Angle::from_degrees(3.0), "{json}");
        }
        assert_eq!(angle("-2").unwrap().angle(), Angle::from_degrees(-2.0));
    }

    #[test]
    fn a_text_and_a_value_that_disagree_are_refused() {
        let error = serde_json::from_str::<TapeEntry>(r#"{"text":"24","unit":"in","mm":600}"#);
        assert!(error.unwrap_err().to_string().contains("disagree"));
    }

    #[test]
    fn angles_are_read_in_degrees() {
        for (text, degrees) in [("10.8", 10.8), ("10,8°", 10.8), ("−2 deg", -2.0), (" 3 ", 3.0)] {
            assert_eq!(AngleEntry::parse(text).unwrap().angle(), Angle::from_degrees(degrees), "{text}");
        }
        for text in ["", "steep", "90", "inf", "NaN", "1e1", "1,234", "--3", "1/2", "3 4"] {
            assert!(AngleEntry::parse(text).is_err(), "{text}");
        }
    }
}
