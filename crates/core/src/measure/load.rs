//! Weights, torques and forces as typed, with their unit.

use serde::de::Error as _;
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use utoipa::openapi::{ObjectBuilder, RefOr, Schema, Type};
use utoipa::{PartialSchema, ToSchema};

/// Standard gravity, m/s², by definition.
pub const GRAVITY: f64 = 9.806_65;
/// Kilograms in a pound, exact since 1959.
pub const KG_PER_LB: f64 = 0.453_592_37;
/// Newtons in a pound-force.
pub const N_PER_LBF: f64 = KG_PER_LB * GRAVITY;

/// A weight as typed, such as `2600 lb` or `1180 kg`: the text and its mass. In JSON the
/// text.
#[derive(Clone, Debug, PartialEq)]
pub struct WeightEntry {
    text: String,
    kilograms: f64,
}

impl WeightEntry {
    /// Reads `2600 lb`, `1180 kg`, `1 180 kg`, `1180,5 kg`.
    ///
    /// # Errors
    /// A sentence that says what to type.
    pub fn parse(text: &str) -> Result<Self, String> {
        let ask =
            || "This is not a weight. Type a number with its unit, such as 2600 lb or 1180 kg.".to_owned();
        let lower = text.trim().to_lowercase();
        let (number, factor) = if let Some(number) = lower.strip_suffix("kg") {
            (number, 1.0)
        } else if let Some(number) = lower.strip_suffix("lbs").or_else(|| lower.strip_suffix("lb")) {
            (number, KG_PER_LB)
        } else {
            return Err(ask());
        };
        let plain: String = number.chars().filter(|c| !c.is_whitespace()).collect();
        let plain = plain.replace(',', ".");
        if plain.is_empty() || !plain.chars().all(|c| c.is_ascii_digit() || c == '.') {
            return Err(ask());
        }
        let kilograms = plain.parse::<f64>().map_err(|_| ask())? * factor;
        if !(1.0..=20_000.0).contains(&kilograms) {
            return Err("Between 1 kg and 20,000 kg fit here. Type what the scale shows.".to_owned());
        }
        Ok(Self { text: text.to_owned(), kilograms })
    }

    /// The text as typed.
    #[must_use]
    pub fn text(&self) -> &str {
        &self.text
    }

    /// Mass in kilograms.
    #[must_use]
    pub const fn kilograms(&self) -> f64 {
        self.kilograms
    }

    /// What it weighs, in newtons.
    #[must_use]
    pub const fn newtons(&self) -> f64 {
        self.kilograms * GRAVITY
    }
}

impl Serialize for WeightEntry {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        self.text.serialize(serializer)
    }
}

impl<'de> Deserialize<'de> for WeightEntry {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        Self::parse(&String::deserialize(deserializer)?).map_err(D::Error::custom)
    }
}

impl PartialSchema for WeightEntry {
    fn schema() -> RefOr<Schema> {
        ObjectBuilder::new()
            .schema_type(Type::String)
            .description(Some("A weight with its unit, such as 2600 lb or 1180 kg."))
            .into()
    }
}

impl ToSchema for WeightEntry {
    fn name() -> std::borrow::Cow<'static, str> {
        "WeightEntry".into()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn weights_are_read_with_their_unit() {
        for (text, kilograms) in
            [("1180 kg", 1180.0), ("2600lb", 2600.0 * 0.453_592_37), (" 1 180,5 KG", 1180.5)]
        {
            let read = WeightEntry::parse(text).unwrap();
            assert!((read.kilograms() - kilograms).abs() < 1e-9, "{text}");
            assert_eq!(WeightEntry::parse(read.text()).unwrap(), read);
        }
        for text in ["", "2600", "heavy kg", "0 kg", "-3 kg", "1e3 kg", "99999 kg"] {
            assert!(WeightEntry::parse(text).is_err(), "{text}");
        }
    }
}
