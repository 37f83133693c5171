//! Weights and rates as typed, with their unit.

use std::marker::PhantomData;

use serde::de::Error as _;
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use utoipa::openapi::{ObjectBuilder, RefOr, Schema, Type};
use utoipa::{PartialSchema, ToSchema};

use super::physical::{KG_PER_LB, Mass, Moment, N_PER_MM_PER_LB_IN, NM_PER_LB_FT, RollRate, SpringRate};
use super::tape::{self, Fault};

/// A kind of figure that is typed with its unit.
pub trait Quantity {
    /// Name of its schema.
    const NAME: &'static str;
    /// Its units as typed, lower case and without blanks, longest first, each with its factor to the
    /// base unit.
    const UNITS: &'static [(&'static str, f64)];
    /// Least and most that is taken, in the base unit.
    const RANGE: (f64, f64);
    /// What to type, where it cannot be read.
    const ASK: &'static str;
    /// What to do, where it is out of range.
    const BEYOND: &'static str;
}

/// Kinds of figure that are typed with their unit.
pub mod quantity {
    use super::{KG_PER_LB, N_PER_MM_PER_LB_IN, NM_PER_LB_FT, Quantity};

    /// Kilograms.
    #[derive(Clone, Copy, Debug, PartialEq, Eq)]
    pub struct Weight;
    /// N/mm.
    #[derive(Clone, Copy, Debug, PartialEq, Eq)]
    pub struct SpringRate;
    /// N·m per degree of roll.
    #[derive(Clone, Copy, Debug, PartialEq, Eq)]
    pub struct RollRate;
    /// N·m of a wrench.
    #[derive(Clone, Copy, Debug, PartialEq, Eq)]
    pub struct Torque;

    impl Quantity for Weight {
        const NAME: &'static str = "WeightEntry";
        const UNITS: &'static [(&'static str, f64)] = &[("kg", 1.0), ("lbs", KG_PER_LB), ("lb", KG_PER_LB)];
        const RANGE: (f64, f64) = (1.0, 20_000.0);
        const ASK: &'static str = "Not a weight. Enter a number with its unit, such as 2600 lb or 1180 kg.";
        const BEYOND: &'static str = "Enter between 1 kg and 20000 kg (2 to 44000 lb): what the scale shows.";
    }

    impl Quantity for SpringRate {
        const NAME: &'static str = "SpringRateEntry";
        const UNITS: &'static [(&'static str, f64)] =
            &[("n/mm", 1.0), ("lbs/in", N_PER_MM_PER_LB_IN), ("lb/in", N_PER_MM_PER_LB_IN)];
        const RANGE: (f64, f64) = (1.0, 5000.0);
        const ASK: &'static str =
            "Not a spring rate. Enter a number with its unit, such as 200 lb/in or 35 N/mm.";
        const BEYOND: &'static str =
            "Enter between 1 and 5000 N/mm (6 to 28000 lb/in). Check the spec sheet.";
    }

    impl Quantity for Torque {
        const NAME: &'static str = "TorqueEntry";
        const UNITS: &'static [(&'static str, f64)] = &[
            ("lb-ft", NM_PER_LB_FT),
            ("lb·ft", NM_PER_LB_FT),
            ("ft-lb", NM_PER_LB_FT),
            ("lbft", NM_PER_LB_FT),
            ("ftlb", NM_PER_LB_FT),
            ("n·m", 1.0),
            ("nm", 1.0),
        ];
        const RANGE: (f64, f64) = (1.0, 2000.0);
        const ASK: &'static str = "Not a torque. Enter a number with its unit, such as 180 Nm or 130 lb-ft.";
        const BEYOND: &'static str =
            "Enter between 1 and 2000 Nm (1 to 1475 lb-ft). Check the part's instructions.";
    }

    impl Quantity for RollRate {
        const NAME: &'static str = "RollRateEntry";
        const UNITS: &'static [(&'static str, f64)] = &[
            ("nm/deg", 1.0),
            ("n·m/°", 1.0),
            ("nm/°", 1.0),
            ("lb-ft/deg", NM_PER_LB_FT),
            ("lb·ft/°", NM_PER_LB_FT),
            ("lbft/deg", NM_PER_LB_FT),
        ];
        const RANGE: (f64, f64) = (0.0, 20_000.0);
        const ASK: &'static str =
            "Not a roll rate. Enter a number with its unit, such as 300 Nm/deg or 220 lb-ft/deg.";
        const BEYOND: &'static str =
            "Enter between 0 and 20000 Nm/deg (0 to 14750 lb-ft/deg). Check the spec sheet.";
    }
}

/// A figure as typed with its unit. In JSON the text.
#[derive(Clone, Debug, PartialEq)]
pub struct UnitEntry<Q> {
    text: String,
    value: f64,
    quantity: PhantomData<Q>,
}

/// A weight such as `2600 lb` or `1180 kg`.
pub type WeightEntry = UnitEntry<quantity::Weight>;
/// A rate such as `200 lb/in` or `35 N/mm`.
pub type SpringRateEntry = UnitEntry<quantity::SpringRate>;
/// A torque such as `180 Nm` or `130 lb-ft`.
pub type TorqueEntry = UnitEntry<quantity::Torque>;
/// A roll rate such as `300 Nm/deg` or `220 lb-ft/deg`.
pub type RollRateEntry = UnitEntry<quantity::RollRate>;

impl<Q: Quantity> UnitEntry<Q> {
    /// Reads a number without a sign and its unit: `2600 lb`, `1 180,5 kg`, `200 lb/in`.
    ///
    /// # Errors
    /// A sentence that says what to type.
    pub fn parse(text: &str) -> Result<Self, String> {
        let ask = || Q::ASK.to_owned();
        let plain: String = text.to_lowercase().chars().filter(|c| !c.is_whitespace()).collect();
        let (number, factor) = Q::UNITS
            .iter()
            .find_map(|(unit, factor)| plain.strip_suffix(unit).map(|number| (number, *factor)))
            .ok_or_else(ask)?;
        let number = tape::decimal(number).map_err(|fault| match fault {
            Fault::AmbiguousComma | Fault::TwoDecimalMarks => fault.to_string(),
            _ => ask(),
        })?;
        let value = number * factor;
        if !(Q::RANGE.0..=Q::RANGE.1).contains(&value) {
            return Err(Q::BEYOND.to_owned());
        }
        Ok(Self { text: text.to_owned(), value, quantity: PhantomData })
    }

    /// The text as typed.
    ///
    /// ```
    /// use derecho_core::measure::WeightEntry;
    ///
    /// let entry = WeightEntry::parse("2650 lb").unwrap();
    /// assert_eq!(entry.text(), "2650 lb");
    /// ```
    #[must_use]
    pub fn text(&self) -> &str {
        &self.text
    }

    /// In the base unit of its kind.
    #[must_use]
    const fn value(&self) -> f64 {
        self.value
    }
}

impl WeightEntry {
    /// The mass that weighs so much.
    ///
    /// ```
    /// use derecho_core::measure::WeightEntry;
    ///
    /// let entry = WeightEntry::parse("1000 lb").unwrap();
    /// assert!((entry.mass().to_kg() - 453.592_37).abs() < 1e-9);
    /// ```
    #[must_use]
    pub const fn mass(&self) -> Mass {
        Mass::from_kg(self.value())
    }
}

impl SpringRateEntry {
    /// The rate.
    #[must_use]
    pub const fn rate(&self) -> SpringRate {
        SpringRate::from_n_per_mm(self.value())
    }
}

impl TorqueEntry {
    /// The torque.
    ///
    /// ```
    /// use derecho_core::measure::TorqueEntry;
    ///
    /// let entry = TorqueEntry::parse("100 Nm").unwrap();
    /// assert!((entry.torque().to_nm() - 100.0).abs() < 1e-12);
    /// ```
    #[must_use]
    pub const fn torque(&self) -> Moment {
        Moment::from_nm(self.value())
    }
}

impl RollRateEntry {
    /// The rate.
    #[must_use]
    pub const fn rate(&self) -> RollRate {
        RollRate::from_nm_per_degree(self.value())
    }
}

impl<Q> Serialize for UnitEntry<Q> {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        self.text.serialize(serializer)
    }
}

impl<'de, Q: Quantity> Deserialize<'de> for UnitEntry<Q> {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        Self::parse(&String::deserialize(deserializer)?).map_err(D::Error::custom)
    }
}

impl<Q: Quantity> PartialSchema for UnitEntry<Q> {
    fn schema() -> RefOr<Schema> {
        let units: Vec<&str> = Q::UNITS.iter().map(|(unit, _)| *unit).collect();
        ObjectBuilder::new()
            .schema_type(Type::String)
            .description(Some(format!("A number with its unit: {}.", units.join(", "))))
            .into()
    }
}

impl<Q: Quantity> ToSchema for UnitEntry<Q> {
    fn name() -> std::borrow::Cow<'static, str> {
        Q::NAME.into()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn weights_are_read_with_their_unit() {
        for (text, kilograms) in
            [("1180 kg", 1180.0), ("2600lb", 2600.0 * 0.453_592_37), (" 1 180,5 KG", 1180.5)]
        {
            let read = WeightEntry::parse(text).unwrap();
            assert!((read.mass().to_kg() - kilograms).abs() < 1e-9, "{text}");
            assert_eq!(WeightEntry::parse(read.text()).unwrap(), read);
        }
        for text in ["", "2600", "heavy kg", "0 kg", "-3 kg", "1e3 kg", "99999 kg", "1/2 kg", "5 6/8 lb"] {
            assert!(WeightEntry::parse(text).is_err(), "{text}");
        }
    }

    /// The tape's rule: a comma before exactly three digits after a whole part may be either.
    #[test]
    fn a_comma_that_can_be_read_both_ways_is_asked_about() {
        for text in ["2,600 lb", "1,180 kg", "12,000 lb"] {
            assert!(WeightEntry::parse(text).unwrap_err().starts_with("1.25 or 1250?"), "{text}");
        }
        assert!(SpringRateEntry::parse("5,000 N/mm").unwrap_err().starts_with("1.25 or 1250?"));
        assert!(RollRateEntry::parse("1,234.5 Nm/deg").unwrap_err().starts_with("Two decimal points"));
        assert_eq!(WeightEntry::parse("2600,5 kg").unwrap().mass().to_kg(), 2600.5);
        assert_eq!(SpringRateEntry::parse("35,25 N/mm").unwrap().rate().to_n_per_mm(), 35.25);
    }

    #[test]
    fn rates_are_read_with_their_unit() {
        // 1 lbf/in = 4.448 221 615 N / 25.4 mm.
        let typed = SpringRateEntry::parse("200 lb/in").unwrap();
        assert!((typed.rate().to_n_per_mm() - 200.0 * 4.448_221_615 / 25.4).abs() < 1e-6);
        assert_eq!(SpringRateEntry::parse("35 N/mm").unwrap().rate().to_n_per_mm(), 35.0);
        // A pound-foot is 1.355 818 N·m; 180° are π.
        let typed = RollRateEntry::parse("220 lb-ft/deg").unwrap();
        let expected = 220.0 * 1_355.817_948 * 180.0 / std::f64::consts::PI;
        assert!((typed.rate().to_nmm_per_radian() / expected - 1.0).abs() < 1e-8);
        assert_eq!(RollRateEntry::parse("0 Nm/deg").unwrap().rate().to_nmm_per_radian(), 0.0);
        // 130 lb-ft are 176.256 N·m.
        for text in ["130 lb-ft", "130 ft-lb", "130 LBFT"] {
            assert!((TorqueEntry::parse(text).unwrap().torque().to_nm() - 176.256).abs() < 1e-3, "{text}");
        }
        assert_eq!(TorqueEntry::parse("180 N·m").unwrap().torque().to_nm(), 180.0);
        for text in ["180", "180 N", "1e300 Nm", "5000 Nm", "-3 Nm", "1,250 Nm"] {
            assert!(TorqueEntry::parse(text).is_err(), "{text}");
        }
        for text in ["35", "35 kg", "0 N/mm", "-2 lb/in", "N/mm", "6000 N/mm"] {
            assert!(SpringRateEntry::parse(text).is_err(), "{text}");
        }
        for text in ["300", "300 Nm", "-1 Nm/deg", "30000 Nm/deg"] {
            assert!(RollRateEntry::parse(text).is_err(), "{text}");
        }
    }

    proptest! {
        #[test]
        fn anything_typed_is_read_or_told_what_to_type(text in "\\PC{0,20}") {
            if let Err(says) = SpringRateEntry::parse(&text) {
                prop_assert!(says.ends_with('.'));
            }
        }

        #[test]
        fn a_rate_in_pounds_and_the_same_in_newtons_agree(rate in 10.0..2000.0_f64) {
            let pounds = SpringRateEntry::parse(&format!("{rate:.6} lb/in")).unwrap();
            let newtons = SpringRateEntry::parse(&format!("{:.6} N/mm", rate * 0.175_126_835)).unwrap();
            prop_assert!((pounds.rate().to_n_per_mm() - newtons.rate().to_n_per_mm()).abs() < 1e-5);
        }
    }
}
