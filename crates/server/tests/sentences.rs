//! What a person reads is in the words of the trade: no sentence of sample jobs, random changes of them, the client or the
//! command line holds a word that the trade does not use so.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::sync::LazyLock;

use derecho_server::cli::help;
use derecho_server::sentences::{Sentence, all, by_form};
use regex::Regex;

/// Words that are not used so, each with what is.
const UNUSED: &[(&str, &str)] = &[
    (r"\b[Ss]tage\b", "the Bar screen"),
    (r"\b([Rr]ead (both|the|again|in|from)\b|[Rr]eadings\b)", "measure, measurement"),
    (r"\b[Ss]heets?\b", "set of measurements; the part's instructions; its spec sheet"),
    (r"\b[Ss]ettl(e|ed|es|ing)\b", "close, closed (a job)"),
    (r"\b[Rr]ounds?\b", "adjustment"),
    (r"\b[Ff]eatures?\b", "reference point"),
    (r"\bon (its|the) weight\b", "on its wheels"),
    (r"\b([Oo]n|[Oo]ff|[Uu]p on) (the )?stands\b", "jack stands"),
    (r"\b[Mm]akers?\b", "manufacturer"),
    (r"\burged\b", "recommended"),
    (r"\b([Ss]upposing|[Rr]eckon\w*)\b", "if, estimated"),
    (r"\b[Ss]wings?\b", "side-to-side movement"),
    (r"\bpulled tight\b", "runs out of length"),
    (r"\bout of tilt\b", "runs out of misalignment"),
    (r"\b[Cc]ross-axled\b", "crossed up"),
    (r"\b[Tt]ouch(es|ed)?\b", "hits"),
    (r"\bturns over\b", "goes over center"),
    (r"\b(does|do) not close\b", "can't reach"),
    (r"\b[Tt]hread in\b", "thread engaged"),
    (r"\b([Hh]ung|[Hh]ang (a|the) bar)\b", "install"),
    (r"\b[Ee]ase[ds]?\b", "loosen"),
    (r"\bbright metal\b", "bare metal"),
    (r"\b[Nn]ipples?\b", "grease fitting"),
    (r"\bnot its own\b", "wrong nut"),
    (r"\b[Aa]like\b", "the same"),
    (r"\b[Ss]chools?\b", "options"),
    (r"\b[Ww]ho holds what\b", "axle setup"),
    (r"\b([Ss]trike|[Ss]truck) (it |this )?out\b", "skip"),
    (r"\b[Mm]ind this\b", "Warning"),
    (r"\bcannot be told\b", "can't tell yet"),
    (r"\b[Ss]its\b", "is"),
    (
        r"\b([Ii]s|[Aa]re) to be\b|\b[Nn]ought\b|\b[Aa]new\b|\b[Oo]therwise\b|\b[Tt]old\b|\b[Ww]ant(s|ed)?\b",
        "plain words",
    ),
    (r"\bturns? (out|in)\b", "longer, shorter"),
    (r"\b\d{1,3},\d{3}\b", "no commas in figures"),
    (r#"\b0(\.0+)?( in|"|\u{2033}| mm) (longer|shorter)\b"#, "leave it alone"),
    (
        r"\b(centre[ds]?|centring|tyres?|colours?|grey|bush(es)?|loom|metres?|millimetres?|licence)\b",
        "words of the US",
    ),
];

/// Longest sentence, in words.
const LONGEST: usize = 24;

/// On their own screens, and in what names a part of one, these stand alone.
const ALONE: &[(&str, &[&str])] = &[
    (r"(?:^|[^\w-])(?:[Ll]inks?)(?:[^\w]|$)", &["sway", "drag", "y-link"]),
    (
        r"(?:^|[^\w-])(?:[Aa]rms?)(?:[^\w]|$)",
        &["control", "bar", "radius", "trailing", "pitman", "steering", "moment", "sway"],
    ),
];

fn exceptions() -> Vec<Regex> {
    let lines = include_str!("sentences/exceptions.tsv").lines().skip(1);
    lines
        .map(|line| {
            let (pattern, reason) =
                line.split_once('\t').unwrap_or_else(|| panic!("{line}: a pattern and its reason"));
            assert!(reason.split_whitespace().count() >= 3, "{line}: say why");
            Regex::new(pattern).unwrap()
        })
        .collect()
}

/// What is wrong with a sentence; None where nothing is.
fn fault(one: &Sentence) -> Option<String> {
    static PATTERNS: LazyLock<Vec<(Regex, &str)>> = LazyLock::new(|| {
        UNUSED.iter().map(|(pattern, instead)| (Regex::new(pattern).unwrap(), *instead)).collect()
    });
    static OWNED: LazyLock<Vec<Regex>> =
        LazyLock::new(|| ALONE.iter().map(|(pattern, _)| Regex::new(pattern).unwrap()).collect());
    for (pattern, instead) in PATTERNS.iter() {
        if let Some(found) = pattern.find(&one.says) {
            return Some(format!("{:?}, say {instead}", found.as_str()));
        }
    }
    let own_screen = one.screen == "Sway" || one.screen == "Workings";
    for (alone, (_, whose)) in OWNED.iter().zip(ALONE) {
        let named = whose.iter().any(|whose| one.says.to_lowercase().contains(whose));
        if !own_screen && !named && alone.is_match(&one.says) {
            return Some("name which one it is".to_owned());
        }
    }
    // Figures and their units are read at a glance.
    let is_word =
        |word: &&str| word.chars().filter(|at| at.is_alphabetic()).count() >= 2 && !word.starts_with("mm");
    let longest = one
        .says
        .split_inclusive(['.', '!', '?', ':', ';'])
        .map(|part| part.split_whitespace().filter(is_word).count())
        .max();
    longest.filter(|words| *words > LONGEST).map(|words| format!("{words} words in one sentence"))
}

#[test]
fn what_is_read_is_in_the_words_of_the_trade() {
    let exceptions = exceptions();
    let sentences = by_form(all(help(), 40, 1));
    assert!(sentences.len() > 2_000, "only {} sentences were found", sentences.len());
    let screens =
        ["Tape", "Bar", "Bracket", "Cycle", "Sway", "Bolt-up", "Prove", "Command line", "Everywhere"];
    for screen in screens {
        assert!(sentences.iter().any(|one| one.screen == screen), "nothing of {screen} was found");
    }
    let faults: Vec<String> = sentences
        .iter()
        .filter(|one| !exceptions.iter().any(|exception| exception.is_match(&one.says)))
        .filter_map(|one| Some(format!("{}: {}: {}", one.screen, fault(one)?, one.says)))
        .collect();
    assert!(faults.is_empty(), "{} of {}:\n{}", faults.len(), sentences.len(), faults.join("\n"));
}

#[test]
fn a_sentence_in_other_words_would_be_seen() {
    let seen = |says: &str| fault(&Sentence { screen: "Bar".to_owned(), says: says.to_owned() }).is_some();
    assert!(seen("Read both sides again in stage Prove."));
    assert!(seen("The link is too short."));
    assert!(seen("Set it 0 in longer."));
    assert!(seen("3 turns out"));
    assert!(seen("between 1 and 2,000 Nm"));
    assert!(seen(&"one word after another and ".repeat(6)));
    assert!(!seen("Measure both sides again on the Prove screen."));
    assert!(!seen("The sway link is too short."));
}
