//! The one door for documents, against whatever may be thrown at it.

#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_results::json::{Layout, ToJson as _};
use std::sync::LazyLock;

use derecho_job::document::schema::{drop_nulls, job_schema};
use derecho_job::document::schema_validate;
use derecho_results::solve;
use derecho_server::parse::{ParseFault, read_job};
use derecho_server::samples;
use proptest::prelude::*;
use serde_json::{Value, json};

/// Any JSON at all, with the words of a job among its names.
fn any_json() -> impl Strategy<Value = Value> {
    let words = vec![
        "rig", "sheets", "setups", "title", "lift", "left", "text", "unit", "mm", "found", "bar", "length",
        "end",
    ];
    let leaf = prop_oneof![
        Just(Value::Null),
        any::<bool>().prop_map(Value::from),
        any::<f64>().prop_map(|number| json!(number)),
        "[0-9 /.,'\"inm-]{0,12}".prop_map(Value::from),
    ];
    leaf.prop_recursive(4, 40, 6, move |inner| {
        prop_oneof![
            prop::collection::vec(inner.clone(), 0..5).prop_map(Value::from),
            prop::collection::btree_map(prop::sample::select(words.clone()), inner, 0..6)
                .prop_map(|map| map.into_iter().map(|(name, value)| (name.to_owned(), value)).collect()),
        ]
    })
}

static SCHEMA: LazyLock<Value> = LazyLock::new(job_schema);
static VALIDATOR: LazyLock<jsonschema::Validator> =
    LazyLock::new(|| jsonschema::validator_for(&SCHEMA).unwrap());

/// Every place of a document that holds others, its own root among them.
fn groups(value: &Value, here: String) -> Vec<String> {
    let mut found = Vec::new();
    match value {
        Value::Object(map) => {
            map.iter().for_each(|(name, member)| found.extend(groups(member, format!("{here}/{name}"))));
        }
        Value::Array(items) => {
            items
                .iter()
                .enumerate()
                .for_each(|(at, item)| found.extend(groups(item, format!("{here}/{at}"))));
        }
        _ => {}
    }
    found.push(here);
    found
}

fn pointers(value: &Value, here: String, found: &mut Vec<String>) {
    match value {
        Value::Object(map) => {
            map.iter().for_each(|(name, member)| pointers(member, format!("{here}/{name}"), found));
        }
        Value::Array(items) => {
            items.iter().enumerate().for_each(|(at, item)| pointers(item, format!("{here}/{at}"), found));
        }
        _ => found.push(here),
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    #[test]
    fn no_bytes_make_it_panic(bytes in prop::collection::vec(any::<u8>(), 0..200)) {
        prop_assert!(read_job(&bytes).is_err());
    }

    #[test]
    fn any_json_in_any_part_is_taken_or_refused_with_a_place(
        sample in 0_usize..6, place in any::<prop::sample::Index>(), value in any_json(),
    ) {
        let name = &samples::names()[sample];
        let mut document = serde_json::to_value(samples::sample(name).unwrap()).unwrap();
        let mut all = Vec::new();
        pointers(&document, String::new(), &mut all);
        let pointer = place.get(&all);
        *document.pointer_mut(pointer).unwrap() = value;
        match read_job(document.to_string().as_bytes()) {
            // What is taken can be solved, and answers with numbers that are numbers.
            Ok(job) => prop_assert!(solve(&job).json(Layout::Exact).is_ok()),
            Err(ParseFault::Faults(faults)) => {
                prop_assert!(!faults.is_empty());
                for fault in faults {
                    prop_assert!(fault.pointer.is_empty() || fault.pointer.starts_with('/'), "{}", fault.pointer);
                    prop_assert!(!fault.code.is_empty() && !fault.message.is_empty());
                }
            }
            Err(ParseFault::NotJson { message, .. }) => prop_assert!(false, "{}", message),
        }
    }

    /// What the program says of a document's shape is what a validator of the whole of JSON Schema says of it, but
    /// for typed figures, which have a grammar that no schema holds.
    #[test]
    fn its_shape_is_judged_as_a_validator_judges_it(
        sample in 0_usize..6, place in any::<prop::sample::Index>(), value in any_json(),
        name in "[a-z_]{1,8}", taken_out: bool,
    ) {
        let mut document = serde_json::to_value(samples::sample(&samples::names()[sample]).unwrap()).unwrap();
        let all = groups(&document, String::new());
        let at = document.pointer_mut(place.get(&all).as_str()).unwrap();
        match at.as_object_mut() {
            Some(members) if taken_out => {
                if let Some(first) = members.keys().nth(name.len() % members.len().max(1)).cloned() {
                    members.remove(&first);
                }
            }
            Some(members) if name.len() % 2 == 0 => {
                members.insert(name, value);
            }
            _ => *at = value,
        }
        // Null is left out before anything looks.
        drop_nulls(&mut document);
        let faults = schema_validate::faults(&SCHEMA, &document, usize::MAX);
        let figures = schema_validate::figure_faults(&SCHEMA, &document).len();
        let sound = VALIDATOR.is_valid(&document);
        prop_assert!(sound || !faults.is_empty(), "{}", document);
        prop_assert!(!sound || faults.len() == figures, "{:?}", faults);
    }

    #[test]
    fn a_refused_figure_is_always_found_at_its_own_place(
        sample in 0_usize..6, place in any::<prop::sample::Index>(),
    ) {
        let name = &samples::names()[sample];
        let mut document = serde_json::to_value(samples::sample(name).unwrap()).unwrap();
        let mut all = Vec::new();
        pointers(&document, String::new(), &mut all);
        all.retain(|pointer| pointer.ends_with("/text") && !pointer.starts_with("/complaints"));
        let pointer = place.get(&all);
        *document.pointer_mut(pointer).unwrap() = json!("24 in mm");
        let Err(ParseFault::Faults(faults)) = read_job(document.to_string().as_bytes()) else {
            return Err(TestCaseError::fail("taken"));
        };
        let entry = pointer.strip_suffix("/text").unwrap();
        prop_assert_eq!(faults.len(), 1, "{:?}", faults);
        prop_assert_eq!(&faults[0].pointer, entry);
    }

    #[test]
    fn what_was_taken_is_taken_again_as_it_is_written(sample in 0_usize..6) {
        let job = samples::sample(&samples::names()[sample]).unwrap();
        prop_assert_eq!(read_job(serde_json::to_string(&job).unwrap().as_bytes()), Ok(job));
    }
}
