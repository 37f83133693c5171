//! Thread designations as they are stamped and spoken: `1-1/4-12`, `7/8-18`, `M24x2`.

use serde::de::Error as _;
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use thiserror::Error;
use utoipa::openapi::{ObjectBuilder, RefOr, Schema, Type};
use utoipa::{PartialSchema, ToSchema};

use crate::measure::length::MM_PER_INCH;
use crate::measure::tape::{self, Kind};
use crate::measure::{Length, Unit};

/// Two sizes are one below this: the nearest different pitches of one diameter are a hundred times further apart.
const SAME: Length = Length::from_mm(1e-3);

/// Which way a thread is cut.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Hand {
    /// Tightens clockwise.
    Right,
    /// Tightens anticlockwise.
    Left,
}

/// A thread: nominal diameter and pitch. In JSON the designation as typed.
#[derive(Clone, Debug, PartialEq)]
pub struct Thread {
    text: String,
    diameter: Length,
    pitch: Length,
    metric: bool,
    hand: Option<Hand>,
}

/// A designation that cannot be read.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Error)]
pub enum ThreadFormFault {
    /// No diameter and pitch in it.
    #[error(
        "Not a thread size. Enter diameter and threads per inch, like 1-1/4-12, or M, diameter and pitch, like M24x2."
    )]
    NotAThread,
    /// A pitch no bar end has.
    #[error("That pitch is out of range: 4 to 40 threads per inch, or 0.5 to 6 mm metric.")]
    PitchOutOfReason,
    /// A diameter no bar end has.
    #[error("That diameter is out of range: 4 to 80 mm (3/16 to 3 in).")]
    DiameterOutOfReason,
}

impl Thread {
    /// Reads a designation.
    ///
    /// # Errors
    /// Where it is none, or not one a bar could have.
    pub fn parse(text: &str) -> Result<Self, ThreadFormFault> {
        let plain = text.trim().to_uppercase().replace('×', "X").replace(['–', '−'], "-");
        let (plain, hand) = hand_stamped(&plain);
        let (diameter, pitch) = match plain.strip_prefix('M') {
            Some(metric) => metric_thread(metric),
            None => inch_thread(plain),
        }
        .ok_or(ThreadFormFault::NotAThread)?;
        if !(0.5..=6.35).contains(&pitch.to_mm()) {
            return Err(ThreadFormFault::PitchOutOfReason);
        }
        if !(4.0..=80.0).contains(&diameter.to_mm()) {
            return Err(ThreadFormFault::DiameterOutOfReason);
        }
        Ok(Self { text: text.to_owned(), diameter, pitch, metric: plain.starts_with('M'), hand })
    }

    /// As typed.
    ///
    /// ```
    /// use derecho_core::fastener::Thread;
    ///
    /// assert_eq!(Thread::parse("1-1/4-12").unwrap().text(), "1-1/4-12");
    /// ```
    #[must_use]
    pub fn text(&self) -> &str {
        &self.text
    }

    /// Nominal diameter D.
    ///
    /// ```
    /// use derecho_core::fastener::Thread;
    ///
    /// assert_eq!(Thread::parse("M24x2").unwrap().diameter().to_mm(), 24.0);
    /// ```
    #[must_use]
    pub const fn diameter(&self) -> Length {
        self.diameter
    }

    /// Which way it is cut, where the designation says it: `7/8-18 LH`.
    #[must_use]
    pub const fn hand(&self) -> Option<Hand> {
        self.hand
    }

    /// Whether it is of the metric series.
    ///
    /// ```
    /// use derecho_core::fastener::Thread;
    ///
    /// assert!(Thread::parse("M14x2").unwrap().is_metric() && !Thread::parse("9/16-18").unwrap().is_metric());
    /// ```
    #[must_use]
    pub const fn is_metric(&self) -> bool {
        self.metric
    }

    /// Whether a nut of this thread goes on a bolt of the other: diameter, pitch and hand alike. Those that look
    /// alike, M14×1.5 and M14×2, start and then bind.
    ///
    /// ```
    /// use derecho_core::fastener::Thread;
    ///
    /// let of = |text| Thread::parse(text).unwrap();
    /// assert!(of("9/16-18").takes(&of("9/16-18")) && !of("9/16-12").takes(&of("9/16-18")));
    /// ```
    #[must_use]
    pub fn takes(&self, bolt: &Self) -> bool {
        let hand = |thread: &Self| thread.hand.unwrap_or(Hand::Right);
        (self.diameter - bolt.diameter).abs() < SAME
            && (self.pitch - bolt.pitch).abs() < SAME
            && hand(self) == hand(bolt)
    }

    /// Advance in one turn.
    ///
    /// ```
    /// use derecho_core::fastener::Thread;
    ///
    /// assert!((Thread::parse("1-1/4-12").unwrap().pitch().to_inches() - 1.0 / 12.0).abs() < 1e-12);
    /// assert_eq!(Thread::parse("M24x2").unwrap().pitch().to_mm(), 2.0);
    /// ```
    #[must_use]
    pub const fn pitch(&self) -> Length {
        self.pitch
    }
}

/// The designation without the hand that may be stamped behind it, and the hand.
fn hand_stamped(text: &str) -> (&str, Option<Hand>) {
    [("LH", Hand::Left), ("RH", Hand::Right)]
        .into_iter()
        .find_map(|(mark, hand)| {
            let before = text.strip_suffix(mark)?;
            // Only behind a gap: a word that ends so is no hand.
            let stands_alone = before.ends_with([' ', '-']) || before.ends_with(|c: char| c.is_ascii_digit());
            stands_alone.then(|| (before.trim_end_matches([' ', '-']), Some(hand)))
        })
        .unwrap_or((text, None))
}

fn plain_number(text: &str) -> Option<f64> {
    tape::decimal(text).ok()
}

fn metric_thread(text: &str) -> Option<(Length, Length)> {
    let (diameter, pitch) = text.split_once(['X', '-'])?;
    let number = |part: &str| plain_number(part.trim()).map(Length::from_mm);
    Some((number(diameter)?, number(pitch)?))
}

fn inch_thread(text: &str) -> Option<(Length, Length)> {
    let text = text.trim_end_matches(|c: char| c.is_ascii_alphabetic() || c == ' ');
    let (diameter, per_inch) = text.rsplit_once('-')?;
    let per_inch = plain_number(per_inch.trim()).filter(|count| *count > 0.0)?;
    let diameter = tape::parse(diameter, Unit::Inches, Kind::Distance).ok()?.length();
    Some((diameter, Length::from_mm(MM_PER_INCH / per_inch)))
}

impl PartialSchema for Thread {
    fn schema() -> RefOr<Schema> {
        ObjectBuilder::new()
            .schema_type(Type::String)
            .description(Some("A thread designation such as 1-1/4-12 or M24x2."))
            .build()
            .into()
    }
}

impl ToSchema for Thread {
    fn name() -> std::borrow::Cow<'static, str> {
        "Thread".into()
    }
}

impl Serialize for Thread {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.serialize_str(&self.text)
    }
}

impl<'de> Deserialize<'de> for Thread {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        Self::parse(&String::deserialize(deserializer)?).map_err(D::Error::custom)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn designations() {
        let rows = [
            ("1-1/4-12", 31.75, 25.4 / 12.0),
            ("1 1/4-12", 31.75, 25.4 / 12.0),
            ("1 1/4\"-12 UNF", 31.75, 25.4 / 12.0),
            ("7/8-18", 22.225, 25.4 / 18.0),
            ("9/16-12", 14.2875, 25.4 / 12.0),
            ("M24x2", 24.0, 2.0),
            ("m14×1.5", 14.0, 1.5),
            ("M14-2.0", 14.0, 2.0),
        ];
        for (text, diameter, pitch) in rows {
            let thread = Thread::parse(text).unwrap();
            assert!((thread.diameter().to_mm() - diameter).abs() < 1e-9, "{text}");
            assert!((thread.pitch().to_mm() - pitch).abs() < 1e-9, "{text}");
        }
    }

    #[test]
    fn a_hand_that_is_stamped_is_kept() {
        for (text, pitch, hand) in [
            ("7/8-18 LH", 25.4 / 18.0, Some(Hand::Left)),
            ("M24x2 LH", 2.0, Some(Hand::Left)),
            ("M24x1,5-LH", 1.5, Some(Hand::Left)),
            ("m24x2 rh", 2.0, Some(Hand::Right)),
            ("1-1/4-12 UNF LH", 25.4 / 12.0, Some(Hand::Left)),
            ("M24x2LH", 2.0, Some(Hand::Left)),
            ("1-1/4-12 UNF", 25.4 / 12.0, None),
        ] {
            let thread = Thread::parse(text).unwrap();
            assert!((thread.pitch().to_mm() - pitch).abs() < 1e-9, "{text}");
            assert_eq!(thread.hand(), hand, "{text}");
            assert_eq!(thread.text(), text);
        }
        assert_eq!(Thread::parse("LH"), Err(ThreadFormFault::NotAThread));
    }

    #[test]
    fn a_nut_goes_on_its_own_thread_alone() {
        let takes = |nut: &str, bolt: &str| Thread::parse(nut).unwrap().takes(&Thread::parse(bolt).unwrap());
        for (nut, bolt) in [
            ("M14x2", "M14X2.0"),
            ("9/16-18", "9/16-18 UNF"),
            ("7/8-18 LH", "7/8-18 LH"),
            ("M14x2 RH", "M14x2"),
        ] {
            assert!(takes(nut, bolt) && takes(bolt, nut), "{nut} on {bolt}");
        }
        for (nut, bolt) in [
            ("M14x1.5", "M14x2"),
            ("9/16-18", "9/16-12"),
            ("M14x2", "9/16-12"),
            ("7/8-18 LH", "7/8-18"),
            ("M14x2", "M16x2"),
        ] {
            assert!(!takes(nut, bolt) && !takes(bolt, nut), "{nut} on {bolt}");
        }
    }

    #[test]
    fn refused() {
        for text in ["", "12", "M24", "thick", "1-1/4-0", "M24xfine", "1/0-12", "M2e1x2"] {
            assert_eq!(Thread::parse(text), Err(ThreadFormFault::NotAThread), "{text}");
        }
        assert_eq!(Thread::parse("1-1/4-120"), Err(ThreadFormFault::PitchOutOfReason));
        assert_eq!(Thread::parse("M240x2"), Err(ThreadFormFault::DiameterOutOfReason));
    }
}
