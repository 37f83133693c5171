//! Version 4 had reasons; version 5 has acceptances, each with who gave it and when, and eyes that differ.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_document::proof::{ALL_THAT_WAS_OPEN, Acceptance};
use derecho_document::{Job, check::check, migrate};
use proptest::prelude::*;
use serde_json::{Value, json};

fn read(version: u32, proof: &Value, settled: &Value) -> Job {
    let mut document = json!({ "format": "derecho-job", "version": version, "title": "Old", "proof": proof });
    if !settled.is_null() {
        document["settled"] = settled.clone();
    }
    let job = migrate::read(&document.to_string()).unwrap();
    assert_eq!(job.version, 7);
    assert_eq!(check(&job), [], "it can be saved");
    job
}

fn closed() -> Value {
    json!({ "at": "2026-11-03T07:10:00Z", "core_version": "0.3.0", "results": {} })
}

#[test]
fn reasons_become_acceptances_of_whoever_closed_the_job() {
    let reasons = json!([{ "key": "part_wrong/1/skid plate", "read": "Wrong part: skid plate.", "because": "on order" }]);
    let job = read(4, &json!({ "by": "R. Holt", "reasons": reasons }), &closed());
    let accepted = Acceptance {
        key: "part_wrong/1/skid plate".to_owned(),
        said: "Wrong part: skid plate.".to_owned(),
        because: "on order".to_owned(),
        by: "R. Holt".to_owned(),
        at: Some("2026-11-03T07:10:00Z".parse().unwrap()),
    };
    assert_eq!(job.proof.acceptances, [accepted]);
    // Nobody closed it yet: who and when is not known, and not made up.
    let open = read(4, &json!({ "reasons": reasons }), &Value::Null);
    let [accepted] = &open.proof.acceptances[..] else { panic!("{:?}", open.proof.acceptances) };
    assert_eq!((accepted.by.as_str(), accepted.at), ("", None));
}

/// A job of version 2 that was closed "although": its one reason is kept, says that it was for everything, and opens the
/// way for nothing that is found now.
#[test]
fn one_reason_for_everything_is_kept_and_marked() {
    for version in [2, 3, 4] {
        let although = "the owner takes it as it is";
        let job = read(version, &json!({ "by": "R. Holt", "although": although }), &closed());
        let [accepted] = &job.proof.acceptances[..] else { panic!("{:?}", job.proof.acceptances) };
        assert_eq!((accepted.key.as_str(), accepted.because.as_str()), (ALL_THAT_WAS_OPEN, although));
        assert_eq!(accepted.by, "R. Holt");
        assert!(job.proof.accepted("part_wrong/1/skid plate").is_none());
    }
}

/// A reason that was typed and not sent yet is in its field still.
#[test]
fn what_was_typed_and_not_sent_finds_its_field() {
    let place = migrate::place_forward("/proof/reasons/part_wrong/1/skid plate");
    assert_eq!(place.as_deref(), Some("/proof/acceptances/part_wrong/1/skid plate"));
    assert_eq!(migrate::place_forward("/proof/by"), None);
}

#[test]
fn what_is_no_list_is_said_and_not_lost() {
    let document =
        json!({ "format": "derecho-job", "version": 4, "title": "Old", "proof": { "reasons": "all of it" } });
    let refused = migrate::read(&document.to_string());
    assert!(refused.is_err() || refused.unwrap().notes.contains("all of it"));
}

proptest! {
    /// Brought forward a document is the same each time, and what is of today stays as it is.
    #[test]
    fn it_is_a_function_of_what_is_there(
        reasons in prop::collection::btree_map("[a-z_]{1,12}", "[a-z ]{0,12}[a-z]", 0..6),
        although in "[a-z ]{0,20}",
    ) {
        let rows: Vec<Value> = reasons.iter().map(|(key, because)| json!({ "key": key, "because": because })).collect();
        let mut document = json!({ "format": "derecho-job", "version": 4, "title": "Old",
            "proof": { "reasons": rows, "although": although } });
        let again = document.clone();
        migrate::bring_forward(&mut document);
        let mut twice = document.clone();
        migrate::bring_forward(&mut twice);
        prop_assert_eq!(&twice, &document);
        let mut other = again;
        migrate::bring_forward(&mut other);
        prop_assert_eq!(&other, &document);
        let job = migrate::read(&document.to_string()).unwrap();
        prop_assert_eq!(job.proof.acceptances.len(), reasons.len() + usize::from(!although.is_empty()));
        for (key, because) in &reasons {
            prop_assert_eq!(job.proof.accepted(key).unwrap().because.trim(), because.trim());
        }
    }
}
