//! Every sentence the program says, for somebody who proofreads them: what sample jobs and random changes of them bring up,
//! the client's own texts, lessons, the command line's help.

use std::collections::BTreeMap;

use derecho_core::measure::typed;
use derecho_job::document::schema::job_schema;
use derecho_job::message::Topic;
use derecho_practice::lessons::LESSONS;
use derecho_practice::session::Session;
use derecho_results::json::{Layout, ToJson};
use derecho_results::{cycle, everything, plan, sway};
use derecho_words::gathered;
use serde_json::Value;

use crate::{assets, parse, samples};

/// A sentence and the screen it is read on.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Sentence {
    /// The screen.
    pub screen: String,
    /// As it is read, what a person typed standing as `…`.
    pub says: String,
}

/// All of them, with those of the command line's `help`: `jobs` is how many changed jobs are gone through, `seed` how they
/// are changed.
#[must_use]
pub fn all(help: Vec<String>, jobs: usize, seed: u64) -> Vec<Sentence> {
    let mut found = of_the_client();
    found.extend(help.into_iter().map(|says| sentence("Command line", &says)));
    for lesson in &LESSONS {
        let texts = [lesson.title, lesson.begins, lesson.learns, lesson.careful];
        found.extend(texts.map(|says| sentence("Practice", says)));
    }
    let documents: Vec<Value> = samples::names()
        .iter()
        .filter_map(|name| serde_json::to_value(samples::sample(name)?).ok())
        .collect();
    let mut draws = Draws(seed);
    let mut schema = job_schema();
    let choices = choices(&mut schema);
    for document in &documents {
        of_a_document(document, &mut found);
    }
    for lesson in &LESSONS {
        let (session, job) = Session::begin(lesson, seed, None);
        found.extend(session.done().iter().map(|done| sentence("Practice", &done.says.inches)));
        if let Ok(document) = serde_json::to_value(job) {
            of_a_document(&document, &mut found);
        }
    }
    for _ in 0..jobs {
        let mut document = documents[draws.below(documents.len())].clone();
        for _ in 0..=draws.below(6) {
            change(&mut document, &choices, &mut draws);
        }
        of_a_document(&document, &mut found);
    }
    found.sort();
    found.dedup();
    found
}

/// One of each form: sentences that differ by their figures alone are one to whoever proofreads.
#[must_use]
pub fn by_form(sentences: Vec<Sentence>) -> Vec<Sentence> {
    let mut forms = BTreeMap::new();
    for one in sentences {
        forms.entry((one.screen.clone(), form(&one.says))).or_insert(one);
    }
    forms.into_values().collect()
}

/// A sentence with # for each figure.
#[must_use]
pub fn form(says: &str) -> String {
    let mut form = String::new();
    for at in says.chars() {
        let part_of_figure =
            at.is_ascii_digit() || (form.ends_with('#') && matches!(at, '.' | '/' | '"' | '\u{2033}'));
        if !part_of_figure {
            form.push(at);
        } else if !form.ends_with('#') {
            form.push('#');
        }
    }
    form.replace("# #", "#").replace("#.", "#")
}

fn sentence(screen: &str, says: &str) -> Sentence {
    let says = typed::pieces(says).map(|(piece, typed)| if typed { "\u{2026}" } else { piece }).collect();
    Sentence { screen: screen.to_owned(), says }
}

/// Where a source of the client is read.
fn of_the_client() -> Vec<Sentence> {
    let texts = assets::own_texts().unwrap_or_default();
    let screen = |file: &str| {
        let folder = file.rsplit_once('/').map_or("app", |(folder, _)| folder);
        match folder.strip_prefix("stages/").unwrap_or(folder) {
            "bar" => "Bar",
            "bolt_up" => "Bolt-up",
            "bracket" => "Bracket",
            "cycle" => "Cycle",
            "prove" => "Prove",
            "rig" => "Rig",
            "sway" => "Sway",
            "tape" => "Tape",
            "parts" => "Parts",
            _ => "Everywhere",
        }
    };
    texts.iter().flat_map(|(file, says)| says.iter().map(move |says| sentence(screen(file), says))).collect()
}

const fn screen_of(topic: Option<Topic>) -> &'static str {
    match topic {
        Some(Topic::Card) => "Jobs",
        Some(Topic::Caution) => "Warnings",
        Some(Topic::Log) => "Log",
        Some(Topic::Record) => "Record",
        Some(Topic::Strip) => "Strip",
        Some(Topic::Assumed | Topic::Assembly) => "Assumed",
        Some(Topic::Setups | Topic::Bar) => "Bar",
        Some(Topic::Tape) => "Tape",
        Some(Topic::Bracket) => "Bracket",
        Some(Topic::Cycle) => "Cycle",
        Some(Topic::Sway) => "Sway",
        Some(Topic::BoltUp) => "Bolt-up",
        Some(Topic::Diagnosis | Topic::Prove) => "Prove",
        Some(Topic::Status) => "Status",
        None => "Workings",
    }
}

/// What is said of a document, or what is wrong with it.
fn of_a_document(document: &Value, found: &mut Vec<Sentence>) {
    let job = match parse::read_job(document.to_string().as_bytes()) {
        Ok(job) => job,
        Err(parse::ParseFault::Faults(faults)) => {
            found.extend(faults.iter().map(|fault| sentence("Fields", &fault.message)));
            return;
        }
        Err(parse::ParseFault::NotJson { .. }) => return,
    };
    let results: [Box<dyn ToJson>; 4] =
        [Box::new(everything(&job)), Box::new(cycle(&job)), Box::new(sway(&job)), Box::new(plan(&job))];
    let written = |result: &dyn ToJson| result.json(Layout::Rounded).unwrap_or_default();
    let (json, said) = gathered(|| results.iter().map(|result| written(result.as_ref())).collect::<Vec<_>>());
    for one in said {
        let screen = screen_of(one.topic);
        found.push(sentence(screen, &one.says.inches));
        if one.says.millimetres != one.says.inches {
            found.push(sentence(screen, &one.says.millimetres));
        }
    }
    // What is asked at fields stands in results as texts of their own.
    for json in json {
        if let Ok(value) = serde_json::from_slice(&json) {
            asks(&value, found);
        }
    }
}

fn asks(value: &Value, found: &mut Vec<Sentence>) {
    match value {
        Value::Object(members) => {
            if let (Some(Value::String(message)), Some(_)) = (members.get("message"), members.get("pointer"))
            {
                found.push(sentence("Fields", message));
            }
            members.values().for_each(|inner| asks(inner, found));
        }
        Value::Array(items) => items.iter().for_each(|inner| asks(inner, found)),
        _ => {}
    }
}

/// Numbers that are drawn, the same for the same seed.
struct Draws(u64);

impl Draws {
    /// splitmix64, by Steele, Lea and Flood (2014).
    fn next(&mut self) -> u64 {
        self.0 = self.0.wrapping_add(0x9E37_79B9_7F4A_7C15);
        let mut mixed = self.0;
        mixed = (mixed ^ (mixed >> 30)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
        mixed = (mixed ^ (mixed >> 27)).wrapping_mul(0x94D0_49BB_1331_11EB);
        mixed ^ (mixed >> 31)
    }

    fn below(&mut self, limit: usize) -> usize {
        (self.next() % limit.max(1) as u64) as usize
    }
}

/// The choices that the schema has, each as its list of words.
fn choices(schema: &mut Value) -> Vec<Vec<Value>> {
    fn of(value: &Value, found: &mut Vec<Vec<Value>>) {
        match value {
            Value::Object(members) => {
                if let Some(Value::Array(words)) = members.get("enum") {
                    found.push(words.clone());
                }
                members.values().for_each(|inner| of(inner, found));
            }
            Value::Array(items) => items.iter().for_each(|inner| of(inner, found)),
            _ => {}
        }
    }
    let mut found = Vec::new();
    of(schema, &mut found);
    found
}

/// Every place of a document, as pointers.
fn places(value: &Value, here: &str, found: &mut Vec<String>) {
    let mut below = |key: &str, inner: &Value| {
        let place = format!("{here}/{key}");
        found.push(place.clone());
        places(inner, &place, found);
    };
    match value {
        Value::Object(members) => members.iter().for_each(|(key, inner)| below(key, inner)),
        Value::Array(items) => {
            for (at, inner) in items.iter().enumerate() {
                below(&at.to_string(), inner);
            }
        }
        _ => {}
    }
}

/// One change: something is taken out, a figure becomes another, a choice another of its kind, a flag is turned.
fn change(document: &mut Value, choices: &[Vec<Value>], draws: &mut Draws) {
    let mut all = Vec::new();
    places(document, "", &mut all);
    let place = &all[draws.below(all.len())];
    let Some(value) = document.pointer_mut(place) else { return };
    let factor = [0.0, 0.2, 0.7, 0.9, 1.1, 1.4, 3.0][draws.below(7)];
    match value {
        Value::Bool(flag) => *flag = !*flag,
        Value::Number(number) => {
            if let Some(changed) = number.as_f64().and_then(|at| serde_json::Number::from_f64(at * factor)) {
                *number = changed;
            }
        }
        Value::String(word) => {
            let kinds: Vec<_> =
                choices.iter().filter(|kind| kind.contains(&Value::from(word.as_str()))).collect();
            if kinds.is_empty() {
                if let Ok(figure) = word.parse::<f64>() {
                    *word = format!("{:.1}", figure * factor);
                }
            } else {
                let kind = kinds[draws.below(kinds.len())];
                *value = kind[draws.below(kind.len())].clone();
            }
        }
        _ => {
            if let Some((above, key)) = place.rsplit_once('/') {
                match document.pointer_mut(above) {
                    Some(Value::Object(members)) => drop(members.shift_remove(key)),
                    Some(Value::Array(items)) => {
                        if let Ok(at) = key.parse::<usize>() {
                            drop(items.remove(at));
                        }
                    }
                    _ => {}
                }
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn sentences_with_other_figures_are_one_form() {
        assert_eq!(form("The axle is 1 1/2\" to the left."), form("The axle is 3/8\" to the left."));
        assert_ne!(form("The axle is 3/8\" to the left."), form("The axle is 3/8\" to the right."));
    }

    #[test]
    fn the_same_seed_gives_the_same_sentences() {
        let of = || by_form(all(Vec::new(), 3, 5));
        let once = of();
        assert!(once.len() > 1_000, "{}", once.len());
        assert_eq!(once, of());
    }
}
