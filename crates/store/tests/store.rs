//! The store on a real file: revisions, undo and redo, conflicts, what is on disk.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::sync::Arc;

use derecho_document::Job;
use derecho_store::{BayOrder, DATABASE_FILE, KeptCard, Ready, RevisionKind, Store, StoreError};
use jiff::Timestamp;
use jiff::civil::date;
use tempfile::TempDir;

fn at(second: i64) -> Timestamp {
    Timestamp::from_second(1_790_000_000 + second).unwrap()
}

fn job(title: &str) -> Job {
    Job::new(title)
}

/// A store with one job `a`, called `one`, at revision 1.
fn with_one() -> (TempDir, Store) {
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    store.create("a", &job("one"), at(0)).unwrap();
    (directory, store)
}

fn titles(store: &Store) -> Vec<String> {
    store.list("", 100, 0).unwrap().0.into_iter().map(|job| job.title).collect()
}

#[test]
fn a_job_is_there_after_closing_and_opening() {
    let (directory, store) = with_one();
    let stored = store.get("a").unwrap();
    drop(store);
    assert_eq!(stored.revision, 1);
    assert_eq!(Store::open(directory.path()).unwrap().get("a").unwrap(), stored);
}

#[test]
fn undo_and_redo_walk_the_changes_and_keep_every_revision() {
    let (_directory, store) = with_one();
    store.save("a", 1, &job("two"), at(1)).unwrap();
    store.save("a", 2, &job("three"), at(2)).unwrap();

    let undone = store.undo("a", 3, at(3)).unwrap();
    assert_eq!((undone.job.title.as_str(), undone.revision, undone.can_redo), ("two", 4, true));
    let undone = store.undo("a", 4, at(4)).unwrap();
    assert_eq!((undone.job.title.as_str(), undone.can_undo), ("one", false));
    assert!(matches!(store.undo("a", 5, at(5)), Err(StoreError::NothingTo("undo"))));

    let redone = store.redo("a", 5, at(6)).unwrap();
    assert_eq!((redone.job.title.as_str(), redone.can_undo, redone.can_redo), ("two", true, true));
    let redone = store.redo("a", 6, at(7)).unwrap();
    assert_eq!((redone.job.title.as_str(), redone.can_redo), ("three", false));
    assert!(matches!(store.redo("a", 7, at(8)), Err(StoreError::NothingTo("redo"))));
    // Undo still works after redo, to the change before.
    assert_eq!(store.undo("a", 7, at(9)).unwrap().job.title, "two");

    // A new change ends what could be redone.
    let changed = store.save("a", 8, &job("four"), at(10)).unwrap();
    assert!(!changed.can_redo);
    assert_eq!(store.undo("a", 9, at(11)).unwrap().job.title, "two");

    use RevisionKind::{Created, Redone, Saved, Undone};
    let kinds: Vec<_> = store.history("a").unwrap().iter().rev().map(|line| line.kind).collect();
    assert_eq!(kinds, [Created, Saved, Saved, Undone, Undone, Redone, Redone, Undone, Saved, Undone]);
    assert_eq!(store.revision("a", 3).unwrap().title, "three");
}

#[test]
fn an_earlier_revision_is_brought_back_as_a_new_one() {
    let (_directory, store) = with_one();
    store.save("a", 1, &job("two"), at(1)).unwrap();
    let back = store.restore("a", 2, 1, at(2)).unwrap();
    assert_eq!((back.job.title.as_str(), back.revision), ("one", 3));
    assert_eq!(store.undo("a", 3, at(3)).unwrap().job.title, "two");
    assert!(matches!(store.restore("a", 4, 99, at(4)), Err(StoreError::NoSuchRevision)));
}

#[test]
fn a_change_based_on_an_older_revision_is_refused_with_the_newer_job() {
    let (_directory, store) = with_one();
    store.save("a", 1, &job("theirs"), at(1)).unwrap();
    match store.save("a", 1, &job("mine"), at(2)) {
        Err(StoreError::ChangedElsewhere(newer)) => {
            assert_eq!((newer.job.title.as_str(), newer.revision), ("theirs", 2));
        }
        other => panic!("{other:?}"),
    }
    assert_eq!(store.get("a").unwrap().job.title, "theirs");
    assert!(matches!(store.undo("a", 1, at(3)), Err(StoreError::ChangedElsewhere(_))));
    assert!(matches!(store.remove("a", 1), Err(StoreError::ChangedElsewhere(_))));
}

#[test]
fn saving_the_same_document_makes_no_revision() {
    let (_directory, store) = with_one();
    assert_eq!(store.save("a", 1, &job("one"), at(1)).unwrap().revision, 1);
    assert_eq!(store.history("a").unwrap().len(), 1);
}

/// A job with a card as the bay is handed one: the day something is due, and that somebody is waited for.
fn with_card(title: &str, due: Option<jiff::civil::Date>) -> Ready {
    let due: Vec<_> = due.into_iter().map(|day| serde_json::json!({ "day": day.to_string() })).collect();
    let card = serde_json::json!({ "due": due, "waits": { "in": "read", "mm": "read" } });
    Ready::new(job(title), KeptCard { card: card.to_string(), by: "some rules".to_owned() }).unwrap()
}

#[test]
fn what_is_due_comes_first_the_longest_overdue_before_the_others() {
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    let jobs = [
        ("overdue for long", Some(date(2026, 8, 2))),
        ("overdue", Some(date(2026, 10, 2))),
        ("due later", Some(date(2027, 3, 2))),
        ("waits", None),
    ];
    for (index, (title, due)) in jobs.into_iter().enumerate() {
        store.create_ready(title, with_card(title, due), at(index as i64)).unwrap();
    }
    let listed = |order| -> Vec<String> {
        store.list_by("", 9, 0, order).unwrap().0.into_iter().map(|job| job.title).collect()
    };
    let waiting = listed(BayOrder::WaitingFirst(date(2026, 11, 27)));
    assert_eq!(waiting[..2], ["overdue for long", "overdue"]);
    // What is not due yet waits as the others do, last saved first.
    assert_eq!(waiting[2..], ["waits", "due later"]);
    // On a later day it is due as well, after what was due before it.
    let later = listed(BayOrder::WaitingFirst(date(2027, 3, 5)));
    assert_eq!(later[..3], ["overdue for long", "overdue", "due later"]);
    // What is due today is due, and not the day before.
    assert_eq!(listed(BayOrder::WaitingFirst(date(2027, 3, 2)))[2], "due later");
    assert_eq!(listed(BayOrder::WaitingFirst(date(2027, 3, 1)))[2], "waits");
    assert_eq!(listed(BayOrder::Newest), ["waits", "due later", "overdue", "overdue for long"]);
    // Pages follow the order.
    let second = store.list_by("", 1, 1, BayOrder::WaitingFirst(date(2026, 11, 27))).unwrap();
    assert_eq!((second.0[0].title.as_str(), second.1), ("overdue", 4));
}

#[test]
fn the_list_is_searched_paged_and_sorted_by_last_saved() {
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    for (index, title) in ["Truck 1", "Tender 2", "Truck 3"].into_iter().enumerate() {
        let mut job = job(title);
        job.rig.vehicle = format!("100% vehicle {index}");
        store.create(title, &job, at(index as i64)).unwrap();
    }
    assert_eq!(titles(&store), ["Truck 3", "Tender 2", "Truck 1"]);
    store.save("Truck 1", 1, &job("Truck 1 again"), at(9)).unwrap();
    assert_eq!(titles(&store), ["Truck 1 again", "Truck 3", "Tender 2"]);
    let (found, total) = store.list("TRUCK", 1, 1).unwrap();
    assert_eq!((found[0].title.as_str(), total), ("Truck 3", 2));
    assert_eq!(store.list("vehicle 1", 9, 0).unwrap().1, 1);
    // A page past the end still knows how many there are.
    assert_eq!(store.list("truck", 9, 50).unwrap(), (Vec::new(), 2));
    assert_eq!(store.list("", 9, 50).unwrap(), (Vec::new(), 3));
    // A percent sign stands for itself and not for anything at all.
    assert_eq!(store.list("truck%again", 9, 0).unwrap().1, 0);
    store.remove("Truck 3", 1).unwrap();
    assert_eq!(titles(&store), ["Truck 1 again", "Tender 2"]);
    // What another program changes is seen as well: a job taken in at the command line, say.
    Store::open(directory.path()).unwrap().create("Mule 4", &job("Mule 4"), at(12)).unwrap();
    assert_eq!(titles(&store), ["Mule 4", "Truck 1 again", "Tender 2"]);
    assert_eq!(store.list("ule", 9, 0).unwrap().1, 1);
    assert!(matches!(store.get("Truck 3"), Err(StoreError::NoSuchJob)));
}

#[test]
fn ids_are_taken_once() {
    let (_directory, store) = with_one();
    assert!(matches!(store.create("a", &job("two"), at(1)), Err(StoreError::AlreadyThere)));
}

#[test]
fn many_hands_at_once_lose_nothing() {
    let (_directory, store) = with_one();
    let store = Arc::new(store);
    let workers: Vec<_> = (0..4)
        .map(|worker| {
            let store = Arc::clone(&store);
            std::thread::spawn(move || {
                let mut saved = 0;
                while saved < 10 {
                    let based_on = store.get("a").unwrap().revision;
                    let job = Job::new(&format!("worker {worker}, change {saved}"));
                    match store.save("a", based_on, &job, at(1)) {
                        Ok(_) => saved += 1,
                        Err(StoreError::ChangedElsewhere(_)) => {}
                        Err(other) => panic!("{other}"),
                    }
                }
            })
        })
        .collect();
    for worker in workers {
        worker.join().unwrap();
    }
    assert_eq!(store.get("a").unwrap().revision, 41);
    assert_eq!(store.history("a").unwrap().len(), 41);
}

#[test]
fn a_database_of_a_newer_program_is_refused() {
    let (directory, store) = with_one();
    drop(store);
    let raw = rusqlite::Connection::open(directory.path().join(DATABASE_FILE)).unwrap();
    raw.pragma_update(None, "user_version", 99).unwrap();
    drop(raw);
    assert!(matches!(Store::open(directory.path()), Err(StoreError::NewerForm)));
}

#[test]
fn revisions_cannot_be_changed_by_anybody() {
    let (directory, _store) = with_one();
    let raw = rusqlite::Connection::open(directory.path().join(DATABASE_FILE)).unwrap();
    for statement in ["UPDATE revisions SET document = '{}'", "DELETE FROM revisions"] {
        let refused = raw.execute(statement, []).unwrap_err().to_string();
        assert!(refused.contains("append-only"), "{refused}");
    }
}
