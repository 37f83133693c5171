//! The line protocol: one sentence a line, ASCII, with a checksum. Told in docs/instruments.md.

use std::fmt::Write as _;

use crc::{CRC_16_IBM_SDLC, Crc};
use jiff::civil::Date;
use percent_encoding::{AsciiSet, CONTROLS, percent_decode_str, utf8_percent_encode};
use thiserror::Error;

use crate::instrument::{Announced, Kind, Reading, Unit};

/// The version this program speaks.
pub const VERSION: u32 = 1;
/// The longest line, its end not counted.
pub const LONGEST: usize = 256;

const CHECK: Crc<u16> = Crc::<u16>::new(&CRC_16_IBM_SDLC);
/// What may not stand in a value as it is.
const ESCAPED: &AsciiSet = &CONTROLS.add(b' ').add(b'%').add(b'=').add(b';').add(b'#');

/// What a line says.
#[derive(Clone, Debug, PartialEq)]
pub enum Sentence {
    /// An instrument tells what it is.
    Announce(Announced),
    /// An instrument reads.
    Reading {
        /// Whose.
        id: String,
        /// What.
        reading: Reading,
    },
    /// Its battery is low.
    LowBattery {
        /// Whose.
        id: String,
    },
    /// It cannot read, and why.
    Fault {
        /// Whose.
        id: String,
        /// In its own words.
        says: String,
    },
    /// The host asks for a held reading.
    Ask {
        /// Of whom.
        id: String,
    },
    /// The host asks to be set to nought.
    Zero {
        /// Of whom.
        id: String,
    },
}

/// Why a line is dropped.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum LineFault {
    /// Longer than any sentence, or with bytes that are no ASCII.
    #[error("not a line of the instrument protocol")]
    NotALine,
    /// No checksum, or one that does not fit.
    #[error("checksum does not match")]
    Checksum,
    /// Another protocol, or a newer one.
    #[error("protocol version {0} is not supported")]
    Version(String),
    /// A verb nobody knows.
    #[error("`{0}` is not recognized")]
    Verb(String),
    /// A field is missing or says nothing.
    #[error("`{0}` is missing or unreadable")]
    Field(&'static str),
}

struct Fields<'a>(Vec<(&'a str, &'a str)>);

impl Fields<'_> {
    /// What an instrument says of itself.
    fn announced(&self, id: String) -> Result<Announced, LineFault> {
        let kind = Kind::of_word(self.raw("kind")?).ok_or(LineFault::Field("kind"))?;
        let unit = self.unit()?;
        if !kind.reads_in(unit) {
            return Err(LineFault::Field("unit"));
        }
        let positive = |name| {
            self.number(name)
                .and_then(|value| if value > 0.0 { Ok(value) } else { Err(LineFault::Field(name)) })
        };
        let checked = match self.raw("checked") {
            Err(_) => None,
            Ok(text) => Some(text.parse::<Date>().map_err(|_| LineFault::Field("checked"))?),
        };
        let (resolution, good_to) = (positive("resolution")?, positive("good_to")?);
        Ok(Announced { id, kind, unit, resolution, good_to, checked })
    }

    fn raw(&self, name: &'static str) -> Result<&str, LineFault> {
        let found = self.0.iter().find(|(known, _)| *known == name).map(|(_, value)| *value);
        found.filter(|value| !value.is_empty()).ok_or(LineFault::Field(name))
    }

    fn text(&self, name: &'static str) -> Result<String, LineFault> {
        let decoded = percent_decode_str(self.raw(name)?).decode_utf8();
        decoded.map(std::borrow::Cow::into_owned).map_err(|_| LineFault::Field(name))
    }

    fn number(&self, name: &'static str) -> Result<f64, LineFault> {
        let number = self.raw(name)?.parse::<f64>().ok();
        number.filter(|number| number.is_finite() && number.abs() < 1e9).ok_or(LineFault::Field(name))
    }

    fn unit(&self) -> Result<Unit, LineFault> {
        Unit::of_word(self.raw("unit")?).ok_or(LineFault::Field("unit"))
    }
}

impl Sentence {
    /// Reads a line without its end.
    ///
    /// # Errors
    /// Why it is to be dropped.
    pub fn parse(line: &str) -> Result<Self, LineFault> {
        if line.len() > LONGEST || !line.is_ascii() {
            return Err(LineFault::NotALine);
        }
        let (said, check) = line.trim_end().rsplit_once(" #").ok_or(LineFault::Checksum)?;
        let fits = check.len() == 4
            && u16::from_str_radix(check, 16).is_ok_and(|check| check == CHECK.checksum(said.as_bytes()));
        if !fits {
            return Err(LineFault::Checksum);
        }
        let mut words = said.split(' ').filter(|word| !word.is_empty());
        let version = words.next().unwrap_or_default();
        if version != format!("derecho/{VERSION}") {
            return Err(LineFault::Version(version.to_owned()));
        }
        let verb = words.next().unwrap_or_default();
        // What this version does not know is passed over.
        let fields = Fields(words.filter_map(|word| word.split_once('=')).collect());
        let id = fields.text("id")?;
        match verb {
            "announce" => fields.announced(id).map(Self::Announce),
            "reading" => {
                let number = fields.raw("n")?.parse().map_err(|_| LineFault::Field("n"))?;
                let held = match fields.raw("state")? {
                    "held" => true,
                    "live" => false,
                    _ => return Err(LineFault::Field("state")),
                };
                let place = match fields.raw("place") {
                    Err(_) => None,
                    // Places are counted from one.
                    Ok(text) => match text.parse() {
                        Ok(0) | Err(_) => return Err(LineFault::Field("place")),
                        Ok(place) => Some(place),
                    },
                };
                let (value, unit) = (fields.number("value")?, fields.unit()?);
                Ok(Self::Reading { id, reading: Reading { number, value, unit, held, place } })
            }
            "battery" => Ok(Self::LowBattery { id }),
            "fault" => Ok(Self::Fault { id, says: fields.text("says")? }),
            "ask" => Ok(Self::Ask { id }),
            "zero" => Ok(Self::Zero { id }),
            other => Err(LineFault::Verb(other.to_owned())),
        }
    }

    /// The line, without its end.
    #[must_use]
    pub fn line(&self) -> String {
        let escaped = |text: &str| utf8_percent_encode(text, ESCAPED).to_string();
        let mut said = format!("derecho/{VERSION} ");
        // Writing into a text cannot fail.
        let _ = match self {
            Self::Announce(Announced { id, kind, unit, resolution, good_to, checked }) => {
                let checked = checked.map_or_else(String::new, |date| format!(" checked={date}"));
                write!(
                    said,
                    "announce id={} kind={} unit={} resolution={resolution} good_to={good_to}{checked}",
                    escaped(id),
                    kind.word(),
                    unit.word()
                )
            }
            Self::Reading { id, reading: Reading { number, value, unit, held, place } } => {
                let place = place.map_or_else(String::new, |place| format!(" place={place}"));
                let state = if *held { "held" } else { "live" };
                write!(
                    said,
                    "reading id={} n={number} value={value} unit={} state={state}{place}",
                    escaped(id),
                    unit.word()
                )
            }
            Self::LowBattery { id } => write!(said, "battery id={}", escaped(id)),
            Self::Fault { id, says } => write!(said, "fault id={} says={}", escaped(id), escaped(says)),
            Self::Ask { id } => write!(said, "ask id={}", escaped(id)),
            Self::Zero { id } => write!(said, "zero id={}", escaped(id)),
        };
        let check = CHECK.checksum(said.as_bytes());
        format!("{said} #{check:04X}")
    }
}

#[cfg(test)]
mod tests {
    #![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]
    use super::*;
    use proptest::prelude::*;

    /// The checksum by its definition, bit by bit: polynomial x¹⁶ + x¹² + x⁵ + 1 reflected, all ones at first and
    /// turned over at the end.
    fn bit_by_bit(text: &str) -> u16 {
        let mut register = 0xFFFF_u16;
        for byte in text.bytes() {
            register ^= u16::from(byte);
            for _ in 0..8 {
                register = if register & 1 == 1 { (register >> 1) ^ 0x8408 } else { register >> 1 };
            }
        }
        !register
    }

    fn checked(said: &str) -> String {
        format!("{said} #{:04X}", bit_by_bit(said))
    }

    #[test]
    fn a_line_from_the_document_is_read() {
        let line = checked(
            "derecho/1 announce id=tape-4 kind=tape unit=mm resolution=0.5 good_to=1 checked=2026-05-12",
        );
        let reported = Sentence::parse(&line).unwrap();
        let Sentence::Announce(reported) = reported else { unreachable!("{reported:?}") };
        assert_eq!((reported.kind, reported.resolution, reported.good_to), (Kind::Tape, 0.5, 1.0));
        assert_eq!(reported.checked, Some(jiff::civil::date(2026, 5, 12)));
        assert!(!reported.is_overdue(jiff::civil::date(2027, 5, 12)));
        assert!(reported.is_overdue(jiff::civil::date(2027, 5, 13)));
        let line = checked("derecho/1 reading id=tape-4 n=17 value=161.9 unit=mm state=held colour=green");
        let reading = Reading { number: 17, value: 161.9, unit: Unit::Millimetres, held: true, place: None };
        assert_eq!(Sentence::parse(&line), Ok(Sentence::Reading { id: "tape-4".to_owned(), reading }));
    }

    #[test]
    fn each_fault_is_told_apart() {
        let fault = |said: &str| Sentence::parse(&checked(said)).unwrap_err();
        assert_eq!(Sentence::parse("derecho/1 battery id=a"), Err(LineFault::Checksum));
        assert_eq!(Sentence::parse("derecho/1 battery id=a #0000"), Err(LineFault::Checksum));
        assert_eq!(Sentence::parse(&"a".repeat(LONGEST + 1)), Err(LineFault::NotALine));
        assert_eq!(Sentence::parse("½"), Err(LineFault::NotALine));
        assert_eq!(fault("derecho/2 battery id=a"), LineFault::Version("derecho/2".to_owned()));
        assert_eq!(fault("derecho/1 dance id=a"), LineFault::Verb("dance".to_owned()));
        assert_eq!(fault("derecho/1 battery"), LineFault::Field("id"));
        assert_eq!(
            fault("derecho/1 reading id=a n=1 value=NaN unit=mm state=held"),
            LineFault::Field("value")
        );
        assert_eq!(
            fault("derecho/1 reading id=a n=1 value=1 unit=furlong state=held"),
            LineFault::Field("unit")
        );
        // A finder does not read in millimetres.
        assert_eq!(
            fault("derecho/1 announce id=a kind=finder unit=mm resolution=1 good_to=1"),
            LineFault::Field("unit")
        );
        assert_eq!(
            fault("derecho/1 announce id=a kind=tape unit=mm resolution=0 good_to=1"),
            LineFault::Field("resolution")
        );
    }

    fn sentence() -> impl Strategy<Value = Sentence> {
        let id = || "[ -~äµ]{1,12}";
        let unit = prop::sample::select(Unit::ALL.to_vec());
        let reading = (id(), any::<u64>(), -1e6..1e6_f64, unit, any::<bool>(), prop::option::of(1..5_u8))
            .prop_map(|(id, number, value, unit, held, place)| Sentence::Reading {
                id,
                reading: Reading { number, value, unit, held, place },
            });
        let announce = (
            id(),
            prop::sample::select(Kind::ALL.to_vec()),
            0.001..10.0_f64,
            0.001..10.0_f64,
            prop::option::of(1..29_i8),
        )
            .prop_map(|(id, kind, resolution, good_to, day)| {
                let unit = Unit::ALL.into_iter().find(|unit| kind.reads_in(*unit)).unwrap();
                let checked = day.map(|day| jiff::civil::date(2026, 2, day));
                Sentence::Announce(Announced { id, kind, unit, resolution, good_to, checked })
            });
        prop_oneof![
            reading,
            announce,
            id().prop_map(|id| Sentence::LowBattery { id }),
            (id(), "[ -~°]{1,20}").prop_map(|(id, says)| Sentence::Fault { id, says }),
            id().prop_map(|id| Sentence::Ask { id }),
            id().prop_map(|id| Sentence::Zero { id }),
        ]
    }

    proptest! {
        #[test]
        fn what_is_written_is_read_back(said in sentence()) {
            let line = said.line();
            prop_assert!(line.is_ascii() && line.len() <= LONGEST && !line.contains('\n'), "{line}");
            prop_assert_eq!(Sentence::parse(&line), Ok(said));
        }

        /// One byte changed is noticed, wherever it is.
        #[test]
        fn a_changed_byte_is_dropped(said in sentence(), at: prop::sample::Index, to in b'!'..b'~') {
            let mut bytes = said.line().into_bytes();
            let at = at.index(bytes.len());
            prop_assume!(bytes[at] != to && !bytes[at].eq_ignore_ascii_case(&to));
            bytes[at] = to;
            prop_assert!(Sentence::parse(&String::from_utf8(bytes).unwrap()).is_err());
        }

        #[test]
        fn arbitrary_text_is_refused_without_a_panic(text in ".{0,300}") {
            let _ = Sentence::parse(&text);
            prop_assert!(Sentence::parse(&checked(&text.replace(|c: char| !c.is_ascii(), ""))).is_err());
        }
    }
}
