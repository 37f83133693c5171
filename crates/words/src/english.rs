//! The Englishes: sentences are written as they are said in the US; here their words become those of another country. What
//! a person typed is never touched.

use std::cell::Cell;
use std::collections::HashMap;
use std::str::FromStr;
use std::sync::OnceLock;

use aho_corasick::{AhoCorasick, MatchKind};
use derecho_core::measure::{Phrase, typed};

/// One table with a column for each English; an empty cell says it as the US does.
const TABLE: &str = include_str!("regions.tsv");

/// Whose English is written.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub enum English {
    /// As the sentences are written.
    #[default]
    Us,
    /// United Kingdom.
    Uk,
    /// Australia.
    Au,
    /// Canada.
    Ca,
}

impl English {
    /// Every English, the US first.
    pub const ALL: [Self; 4] = [Self::Us, Self::Uk, Self::Au, Self::Ca];

    /// Its short name, as it is chosen by.
    ///
    /// ```
    /// use derecho_words::English;
    ///
    /// assert_eq!("uk".parse(), Ok(English::Uk));
    /// assert_eq!(English::Uk.code(), "uk");
    /// ```
    #[must_use]
    pub const fn code(self) -> &'static str {
        match self {
            Self::Us => "us",
            Self::Uk => "uk",
            Self::Au => "au",
            Self::Ca => "ca",
        }
    }

    /// A sentence in this English, what a person typed in it left alone and no longer marked.
    ///
    /// ```
    /// use derecho_core::measure::typed;
    /// use derecho_words::English;
    ///
    /// let says = format!("Center the axle: hole {}", typed::mark("center"));
    /// assert_eq!(English::Uk.say(&says), "Centre the axle: hole center");
    /// assert_eq!(English::Us.say(&says), "Center the axle: hole center");
    /// ```
    #[must_use]
    pub fn say(self, sentence: &str) -> String {
        if self == Self::Us {
            return typed::unmarked(sentence).into_owned();
        }
        typed::pieces(sentence)
            .map(|(piece, is_typed)| if is_typed { piece.to_owned() } else { words_of(self).of_place(piece) })
            .collect()
    }
}

/// An English that there is not.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("There is no English called {0:?}. Choose us, uk, au or ca.")]
pub struct NoSuchEnglish(String);

impl FromStr for English {
    type Err = NoSuchEnglish;

    fn from_str(text: &str) -> Result<Self, Self::Err> {
        Self::ALL
            .into_iter()
            .find(|english| english.code() == text)
            .ok_or_else(|| NoSuchEnglish(text.to_owned()))
    }
}

/// The words that are others in one country.
struct OwnWords {
    finder: AhoCorasick,
    instead: Vec<&'static str>,
}

impl OwnWords {
    fn of(column: usize) -> Self {
        let rows = TABLE.lines().skip(1).filter_map(|line| {
            let mut cells = line.split('\t');
            let base = cells.next().filter(|base| !base.is_empty())?;
            let own = cells.nth(column - 1).filter(|own| !own.is_empty()).unwrap_or(base);
            Some((base, own))
        });
        let (bases, instead): (Vec<&str>, Vec<&str>) = rows.unzip();
        let finder = AhoCorasick::builder()
            .match_kind(MatchKind::LeftmostLongest)
            .ascii_case_insensitive(true)
            .build(bases)
            .unwrap_or_else(|_| unreachable!("the table is built in and small"));
        Self { finder, instead }
    }

    fn of_place(&self, text: &str) -> String {
        let mut said = String::with_capacity(text.len());
        let mut from = 0;
        for found in self.finder.find_iter(text) {
            let whole = !text[..found.start()].ends_with(char::is_alphanumeric)
                && !text[found.end()..].starts_with(char::is_alphanumeric);
            if !whole {
                continue;
            }
            said.push_str(&text[from..found.start()]);
            let own = self.instead[found.pattern().as_usize()];
            match own.chars().next() {
                Some(first) if text[found.start()..].starts_with(char::is_uppercase) => {
                    said.extend(first.to_uppercase());
                    said.push_str(&own[first.len_utf8()..]);
                }
                _ => said.push_str(own),
            }
            from = found.end();
        }
        said.push_str(&text[from..]);
        said
    }
}

fn words_of(english: English) -> &'static OwnWords {
    static WORDS: OnceLock<HashMap<&'static str, OwnWords>> = OnceLock::new();
    let words = WORDS.get_or_init(|| {
        let columns = English::ALL.into_iter().enumerate();
        columns.map(|(column, english)| (english.code(), OwnWords::of(column.max(1)))).collect()
    });
    &words[english.code()]
}

thread_local! {
    static ENGLISH: Cell<English> = const { Cell::new(English::Us) };
}

/// The English this thread writes in.
#[must_use]
pub fn current_english() -> English {
    ENGLISH.get()
}

/// Writes in an English: every message said or serialized within `write` on this thread is said so.
pub fn in_english<T>(english: English, write: impl FnOnce() -> T) -> T {
    struct Before(English);
    impl Drop for Before {
        fn drop(&mut self) {
            ENGLISH.set(self.0);
        }
    }
    let _before = Before(ENGLISH.replace(english));
    write()
}

/// A text of the program's own, such as an error's, in the English this thread writes in.
#[must_use]
pub fn in_own_words(text: &str) -> String {
    ENGLISH.get().say(text)
}

/// A sentence as it is read, in the English this thread writes in.
pub(crate) fn read(phrase: Phrase) -> Phrase {
    let english = ENGLISH.get();
    if english == English::Us && !phrase.inches.contains('\u{2068}') {
        return phrase;
    }
    Phrase { inches: english.say(&phrase.inches), millimetres: english.say(&phrase.millimetres) }
}
