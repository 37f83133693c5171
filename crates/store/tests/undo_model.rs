//! Undo and redo against the plainest model there is: a list of documents and a finger
//! on one of them.

#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_document::Job;
use derecho_store::{Store, StoreError};
use jiff::Timestamp;
use proptest::prelude::*;

#[derive(Clone, Copy, Debug)]
enum Act {
    Save,
    Undo,
    Redo,
    Reopen,
}

fn acts() -> impl Strategy<Value = Vec<Act>> {
    let act =
        prop_oneof![3 => Just(Act::Save), 3 => Just(Act::Undo), 2 => Just(Act::Redo), 1 => Just(Act::Reopen)];
    prop::collection::vec(act, 1..25)
}

/// What a person expects: a change cuts off what was undone.
struct Model {
    titles: Vec<String>,
    finger: usize,
}

proptest! {
    // Every case writes to a real disk: fewer of them than usual.
    #![proptest_config(ProptestConfig::with_cases(24))]

    #[test]
    fn any_row_of_changes_goes_as_a_person_expects(acts in acts()) {
        let directory = tempfile::tempdir().unwrap();
        let mut store = Store::open(directory.path()).unwrap();
        let now = Timestamp::from_second(1_790_000_000).unwrap();
        store.create("a", &Job::new("0"), now).unwrap();
        let mut model = Model { titles: vec!["0".to_owned()], finger: 0 };
        let mut revision = 1;
        for (count, act) in acts.into_iter().enumerate() {
            let outcome = match act {
                Act::Save => {
                    let title = format!("change {count}");
                    model.titles.truncate(model.finger + 1);
                    model.titles.push(title.clone());
                    model.finger += 1;
                    store.save("a", revision, &Job::new(&title), now)
                }
                Act::Undo => {
                    let possible = model.finger > 0;
                    let outcome = store.undo("a", revision, now);
                    prop_assert_eq!(possible, outcome.is_ok());
                    model.finger -= usize::from(possible);
                    outcome
                }
                Act::Redo => {
                    let possible = model.finger + 1 < model.titles.len();
                    let outcome = store.redo("a", revision, now);
                    prop_assert_eq!(possible, outcome.is_ok());
                    model.finger += usize::from(possible);
                    outcome
                }
                Act::Reopen => {
                    drop(store);
                    store = Store::open(directory.path()).unwrap();
                    store.get("a")
                }
            };
            match outcome {
                Ok(stored) => {
                    prop_assert_eq!(&stored.job.title, &model.titles[model.finger]);
                    prop_assert_eq!(stored.can_undo, model.finger > 0);
                    prop_assert_eq!(stored.can_redo, model.finger + 1 < model.titles.len());
                    revision = stored.revision;
                }
                Err(error) => prop_assert!(matches!(error, StoreError::NothingTo(_)), "{}", error),
            }
            prop_assert_eq!(store.get("a").unwrap().revision, revision);
        }
        // Nothing that was ever saved is gone.
        prop_assert_eq!(store.history("a").unwrap().len() as u64, revision);
    }
}
