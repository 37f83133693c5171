//! The headlines of the strip.

use derecho_core::measure::phrase::degrees;
use derecho_core::measure::print::{self, Style};
use derecho_core::measure::{Angle, Length, Phrase};

/// What a stage's headline is made from.
pub(super) enum Headline {
    /// Without a figure.
    Plain(&'static str),
    /// Names, as the person gave them.
    Text(String),
    /// As its stage says it.
    Told(Phrase),
    /// Which end, and how far it was lifted; negative is lowered.
    Rig { end: &'static str, lift: Length },
    /// How far off, and to which side.
    Off(Length, &'static str),
    /// The bar's angle.
    Angle(Angle),
    /// The length it was set to.
    Set(Length),
    /// The length another bar is set to.
    To(Length),
    /// The change of length wanted; negative shortens.
    Change(Length),
    /// Whether the sway links work, and their length.
    Links { works: bool, link: Length },
    /// How many steps are done.
    Steps { done: usize, of: usize },
}

pub(super) fn say(headline: Headline) -> Phrase {
    match headline {
        Headline::Plain(text) => Phrase::plain(text),
        Headline::Text(text) => Phrase::plain(&text),
        Headline::Told(phrase) => phrase,
        Headline::Rig { end, lift } => Phrase::of(|w| {
            if lift == Length::ZERO {
                return end.to_owned();
            }
            let verb = if lift > Length::ZERO { "up" } else { "down" };
            format!("{end}, {} {verb}", w.distance(lift))
        }),
        Headline::Off(offset, side) => Phrase::of(|w| format!("{} {side}", w.distance(offset))),
        Headline::Angle(angle) => Phrase::plain(&degrees(angle)),
        Headline::Set(length) => Phrase::of(|w| format!("set {}", w.fine(length))),
        Headline::To(length) => Phrase::of(|w| format!("to {}", w.fine(length))),
        Headline::Change(change) => Phrase::of(|w| {
            if print::rounds_to_nought(change, Style::everyday(w.unit())) {
                return "length stays".to_owned();
            }
            let word = if change > Length::ZERO { "longer" } else { "shorter" };
            format!("{} {word}", w.distance(change))
        }),
        Headline::Steps { done, of } => Phrase::plain(&format!("{done} of {of}")),
        Headline::Links { works, link } => {
            let word = if works { "links" } else { "do not work:" };
            Phrase::of(|w| format!("{word} {}", w.fine(link)))
        }
    }
}

/// The headlines of some stages as one line, for the bay.
pub(crate) fn joined(headlines: &[&Phrase]) -> Phrase {
    Phrase::of(|w| {
        let told: Vec<&str> = headlines.iter().map(|headline| headline.in_unit(w.unit())).collect();
        told.join(" · ")
    })
}
