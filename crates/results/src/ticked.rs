//! Whether two wordings of a step ask for the same: the same figures, the same ways and the same things by name.

use derecho_core::measure::typed;

/// Words that turn a step into another one.
const WAYS: [&str; 8] = ["left", "right", "longer", "shorter", "lengthen", "shorten", "higher", "lower"];

/// Whether a step's sentence, names marked in it, asks for what was read when it was ticked.
pub(crate) fn asks_the_same(does: &str, read: &str) -> bool {
    let mut rest = read.to_owned();
    let mut own = String::new();
    for (piece, is_typed) in typed::pieces(does) {
        if !is_typed {
            own.push_str(piece);
            continue;
        }
        let Some(at) = rest.find(piece) else { return false };
        rest.replace_range(at..at + piece.len(), " ");
        own.push(' ');
    }
    figures_and_ways(&own) == figures_and_ways(&rest)
}

/// The figures and ways of a sentence, sorted: another wording may have another order.
fn figures_and_ways(sentence: &str) -> Vec<String> {
    let words =
        sentence.split(|at: char| at.is_whitespace() || matches!(at, '(' | ')' | '\u{201c}' | '\u{201d}'));
    let mut found: Vec<String> = words
        .map(|word| {
            word.trim_matches(|at: char| matches!(at, '.' | ',' | ':' | ';' | '\'')).replace('\u{2033}', "\"")
        })
        .map(|word| match word.to_lowercase().as_str() {
            "lengthen" => "longer".to_owned(),
            "shorten" => "shorter".to_owned(),
            lower => lower.to_owned(),
        })
        .filter(|word| word.contains(|at: char| at.is_ascii_digit()) || WAYS.contains(&word.as_str()))
        .collect();
    found.sort_unstable();
    found
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_step_worded_otherwise_asks_for_the_same() {
        let hole = typed::mark("hole 3");
        let now = format!("Bolt the frame end into {hole} of the drop bracket");
        assert!(asks_the_same(&now, "Frame eye into hole 3 of the drop bracket, by hand"));
        assert!(!asks_the_same(&now, "Frame eye into hole 2 of the drop bracket, by hand"));
        assert!(asks_the_same("Make the bar 1/2\" longer", "Lengthen the bar 1/2\""));
        assert!(!asks_the_same("Make the bar 1/2\" longer", "Shorten the bar 1/2\""));
        assert!(!asks_the_same("Make the bar 1/2\" longer", "Lengthen the bar 7/16\""));
    }

    #[test]
    fn a_name_with_a_figure_or_a_side_in_it_is_a_name() {
        let now = format!("Tighten the bolts of the {}", typed::mark("left riser 2"));
        assert!(asks_the_same(&now, "left riser 2: tighten all bolts"));
        assert!(!asks_the_same(&now, "right riser 2: tighten all bolts"));
    }
}
