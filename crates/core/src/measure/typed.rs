//! What a person typed, at the driven height inside a sentence: between two characters that no one sees, so that whatever is done
//! to the words of the sentence leaves it alone.

use std::borrow::Cow;

/// First strong isolate and pop directional isolate, what Unicode has for a text of another's inside one's own.
const OPENS: char = '\u{2068}';
const CLOSES: char = '\u{2069}';

/// A text somebody typed, for a sentence.
///
/// ```
/// use derecho_core::measure::typed;
///
/// let says = format!("Bolt it into {}", typed::mark("center"));
/// assert_eq!(typed::unmarked(&says), "Bolt it into center");
/// ```
#[must_use]
pub fn mark(text: &str) -> String {
    if text.is_empty() { String::new() } else { format!("{OPENS}{text}{CLOSES}") }
}

/// The sentence as a person reads it.
///
/// ```
/// use derecho_core::measure::typed;
///
/// assert_eq!(typed::unmarked("level"), "level");
/// ```
#[must_use]
pub fn unmarked(sentence: &str) -> Cow<'_, str> {
    if sentence.contains([OPENS, CLOSES]) {
        Cow::Owned(sentence.replace([OPENS, CLOSES], ""))
    } else {
        Cow::Borrowed(sentence)
    }
}

/// A sentence's pieces in their order, each with whether a person typed it.
///
/// ```
/// use derecho_core::measure::typed;
///
/// let says = format!("into {} of it", typed::mark("center"));
/// let pieces: Vec<_> = typed::pieces(&says).collect();
/// assert_eq!(pieces, [("into ", false), ("center", true), (" of it", false)]);
/// ```
pub fn pieces(sentence: &str) -> impl Iterator<Item = (&str, bool)> {
    let mut depth = 0_usize;
    sentence.split_inclusive([OPENS, CLOSES]).filter_map(move |piece| {
        let inside = depth > 0;
        let text = piece.strip_suffix(OPENS).or_else(|| piece.strip_suffix(CLOSES)).unwrap_or(piece);
        if piece.ends_with(OPENS) {
            depth += 1;
        } else if piece.ends_with(CLOSES) {
            depth = depth.saturating_sub(1);
        }
        (!text.is_empty()).then_some((text, inside))
    })
}
