//! How wide a line is, with figures of one width and real fractions, and where it breaks.

use rustybuzz::ttf_parser::Tag;
use rustybuzz::{Face, Feature, UnicodeBuffer};

use crate::CardError;

/// Bytes of the shipped faces.
pub(crate) const REGULAR: &[u8] = include_bytes!("../fonts/regular.ttf");
/// The bold one.
pub(crate) const BOLD: &[u8] = include_bytes!("../fonts/bold.ttf");

/// Points in a millimetre.
pub(crate) const POINTS: f64 = 72.0 / 25.4;

/// A glyph in its place, in units of the font's size.
#[derive(Clone, Debug)]
pub(crate) struct Placed {
    pub(crate) glyph: u32,
    pub(crate) advance: f32,
    pub(crate) offset: (f32, f32),
    /// The bytes of the text it stands for.
    pub(crate) of: std::ops::Range<usize>,
}

/// Both faces.
pub(crate) struct Faces<'a> {
    regular: Face<'a>,
    bold: Face<'a>,
}

impl Faces<'_> {
    /// Those that ship with the program.
    pub(crate) fn shipped() -> Result<Self, CardError> {
        let face = |bytes| Face::from_slice(bytes, 0).ok_or(CardError::Face);
        Ok(Self { regular: face(REGULAR)?, bold: face(BOLD)? })
    }

    fn face(&self, bold: bool) -> &Face<'_> {
        if bold { &self.bold } else { &self.regular }
    }

    /// A text without letters the faces do not have: those become question marks, so that nothing vanishes.
    pub(crate) fn known(&self, text: &str) -> String {
        text.chars()
            .map(|letter| match letter {
                '\u{2033}' => '"',
                '\u{2032}' => '\'',
                letter if letter.is_whitespace() => ' ',
                letter if self.regular.glyph_index(letter).is_some() => letter,
                _ => '?',
            })
            .collect()
    }

    /// The glyphs of a line. Its letters must be known ones.
    pub(crate) fn shaped(&self, text: &str, bold: bool) -> Vec<Placed> {
        let face = self.face(bold);
        let mut buffer = UnicodeBuffer::new();
        buffer.push_str(text);
        buffer.guess_segment_properties();
        let whole = Feature { tag: Tag::from_bytes(b"tnum"), value: 1, start: 0, end: u32::MAX };
        let fractions = fractions(text).into_iter().map(|range| Feature {
            tag: Tag::from_bytes(b"frac"),
            value: 1,
            start: range.start as u32,
            end: range.end as u32,
        });
        let features: Vec<Feature> = std::iter::once(whole).chain(fractions).collect();
        let shaped = rustybuzz::shape(face, &features, buffer);
        let em = face.units_per_em() as f32;
        let infos = shaped.glyph_infos();
        infos
            .iter()
            .zip(shaped.glyph_positions())
            .enumerate()
            .map(|(index, (info, position))| {
                let next = infos[index + 1..].iter().find(|other| other.cluster > info.cluster);
                Placed {
                    glyph: info.glyph_id,
                    advance: position.x_advance as f32 / em,
                    offset: (position.x_offset as f32 / em, position.y_offset as f32 / em),
                    of: info.cluster as usize..next.map_or(text.len(), |next| next.cluster as usize),
                }
            })
            .collect()
    }

    /// How wide a line is, mm, set in a size of points.
    pub(crate) fn width(&self, text: &str, size: f64, bold: bool) -> f64 {
        let advance: f32 = self.shaped(text, bold).iter().map(|glyph| glyph.advance).sum();
        f64::from(advance) * size / POINTS
    }

    /// A text broken into lines no wider than `width` mm; a word that is wider stands alone and runs on.
    pub(crate) fn broken(&self, text: &str, size: f64, bold: bool, width: f64) -> Vec<String> {
        let mut lines = Vec::new();
        let mut line = String::new();
        for word in unbroken(&self.known(text)) {
            let longer = if line.is_empty() { word.clone() } else { format!("{line} {word}") };
            if line.is_empty() || self.width(&longer, size, bold) <= width {
                line = longer;
            } else {
                lines.push(std::mem::replace(&mut line, word));
            }
        }
        if !line.is_empty() {
            lines.push(line);
        }
        lines
    }
}

/// The words of a text, a figure with its fraction and its unit being one: `33 21/32"` is read wrong over two lines.
fn unbroken(text: &str) -> Vec<String> {
    const UNITS: [&str; 8] = ["mm", "N·m", "lb-ft", "in", "psi", "kPa", "kg", "lb"];
    let bare = |word: &str| word.trim_matches(|c: char| "(),.;:".contains(c)).to_owned();
    let mut words: Vec<String> = Vec::new();
    for word in text.split(' ').filter(|word| !word.is_empty()) {
        let fraction = word.starts_with(|c: char| c.is_ascii_digit()) && word.contains('/');
        let goes_on = fraction || UNITS.contains(&bare(word).as_str());
        match words.last_mut() {
            Some(last) if goes_on && last.ends_with(|c: char| c.is_ascii_digit()) => {
                last.push(' ');
                last.push_str(word);
            }
            _ => words.push(word.to_owned()),
        }
    }
    words
}

/// Where fractions stand in a text: digits, a stroke, digits, and no letter or digit touching them.
fn fractions(text: &str) -> Vec<std::ops::Range<usize>> {
    let bytes = text.as_bytes();
    let digits = |from: usize, forward: bool| {
        let mut at = from;
        while forward && at < bytes.len() && bytes[at].is_ascii_digit() {
            at += 1;
        }
        while !forward && at > 0 && bytes[at - 1].is_ascii_digit() {
            at -= 1;
        }
        at
    };
    text.match_indices('/')
        .filter_map(|(at, _)| {
            let (start, end) = (digits(at, false), digits(at + 1, true));
            let touches = |index: Option<usize>| {
                index.and_then(|index| bytes.get(index)).is_some_and(u8::is_ascii_alphabetic)
            };
            (start < at && end > at + 1 && !touches(start.checked_sub(1))).then_some(start..end)
        })
        .collect()
}

#[cfg(test)]
mod tests {
    #![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]
    use super::*;

    #[test]
    fn fractions_are_found_and_words_are_not() {
        let found = |text: &str| -> Vec<String> {
            fractions(text).into_iter().map(|range| text[range].to_owned()).collect()
        };
        assert_eq!(found("set to 33 5/32\", in hole 2 of 3"), ["5/32"]);
        assert_eq!(found("1 1/2 to 2 3/16"), ["1/2", "3/16"]);
        assert!(found("and/or, A1/2x").is_empty());
    }

    #[test]
    fn a_figure_stands_on_one_line() {
        let words = |text: &str| unbroken(text).join("|");
        assert_eq!(words("bar is 33 21/32\", 855 mm long"), "bar|is|33 21/32\",|855 mm|long");
        assert_eq!(words("140 N·m (103 lb-ft) in hole 5 of 7"), "140 N·m|(103 lb-ft)|in|hole|5|of|7");
        assert_eq!(words("2 in or 1/2 in"), "2 in|or|1/2 in");
        let faces = Faces::shipped().unwrap();
        for width in 20..60 {
            let lines = faces.broken(
                "Set the bar to 33 21/32\" eye to eye, then 33 5/8\"",
                11.0,
                false,
                f64::from(width),
            );
            assert!(lines.iter().all(|line| !line.ends_with(" 33")), "{lines:?}");
        }
    }

    /// A fraction is set smaller than its digits in a row: the feature is really applied.
    #[test]
    fn a_fraction_is_narrower_than_its_digits() {
        let faces = Faces::shipped().unwrap();
        let row = faces.width("5", 10.0, false) * 3.0 + faces.width("/", 10.0, false);
        assert!(
            faces.width("5/32", 10.0, false) < row * 0.9,
            "{} of {row}",
            faces.width("5/32", 10.0, false)
        );
    }

    #[test]
    fn figures_are_all_of_one_width() {
        let faces = Faces::shipped().unwrap();
        let ones = faces.width("111", 12.0, true);
        assert!((faces.width("808", 12.0, true) - ones).abs() < 1e-6);
    }

    /// No glyph is the empty box, whatever was typed.
    #[test]
    fn every_letter_has_a_glyph() {
        let faces = Faces::shipped().unwrap();
        let text = faces.known("33 5/32″ · 150 N·m — Größe № 7 木 \u{1F6E0} “so” ±½ °");
        assert!(text.contains('?') && text.contains("Größe"), "{text}");
        assert!(faces.shaped(&text, false).iter().all(|glyph| glyph.glyph != 0), "{text}");
        assert!(faces.shaped(&text, true).iter().all(|glyph| glyph.glyph != 0), "{text}");
    }

    #[test]
    fn lines_fit_and_lose_no_word() {
        let faces = Faces::shipped().unwrap();
        let text = "Bolt the axle eye into hole 2 of its bracket by hand, on the right side";
        let lines = faces.broken(text, 11.0, false, 40.0);
        assert!(lines.len() > 2);
        assert!(lines.iter().all(|line| faces.width(line, 11.0, false) <= 40.0));
        assert_eq!(lines.join(" "), text);
    }
}
