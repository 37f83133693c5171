//! Bays that older programs filled: their cards are drawn by today's rules when they are looked at, and kept so.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::path::Path;

use derecho_job::check;
use derecho_results::card;
use derecho_results::solve;
use derecho_server::cards::{DRAWN_BY, of_today, ready, shown};
use derecho_store::{DATABASE_FILE, Store, StoreError};
use jiff::Timestamp;
use tempfile::TempDir;

fn filled(version: u32) -> (TempDir, Store) {
    let directory = tempfile::tempdir().unwrap();
    let fixture = format!("{}/../store/tests/version_{version}/filled.sql", env!("CARGO_MANIFEST_DIR"));
    let file = rusqlite::Connection::open(directory.path().join(DATABASE_FILE)).unwrap();
    file.execute_batch(&std::fs::read_to_string(Path::new(&fixture)).unwrap()).unwrap();
    file.close().unwrap();
    let store = Store::open(directory.path()).unwrap();
    (directory, store)
}

#[test]
fn cards_are_drawn_by_the_rules_of_now_and_kept() {
    for version in 1..=3 {
        let (_directory, store) = filled(version);
        let listed = store.list("", 100, 0).unwrap().0;
        assert!(listed.len() >= 7);
        for line in &listed {
            assert_eq!(of_today(line), None, "{} was drawn by an older program", line.title);
            let job = store.get(&line.id).unwrap().job;
            assert_eq!(check(&job), [], "{}", line.title);
            assert_eq!(shown(&store, line).unwrap(), Some(card(&job)), "{}", line.title);
        }
        assert!(store.list("", 100, 0).unwrap().0.iter().all(|line| of_today(line).is_some()));
    }
}

#[test]
fn what_an_older_program_settled_stands() {
    for version in 2..=3 {
        let (_directory, store) = filled(version);
        let listed = store.list("Ridge truck 1", 1, 0).unwrap().0.remove(0);
        let ridge = store.get(&listed.id).unwrap().job;
        assert_eq!(solve(&ridge).settled_stands, Some(true), "version {version}");
    }
}

#[test]
fn a_card_that_cannot_be_read_is_drawn_anew_and_a_job_that_cannot_is_shown_without_one() {
    let (directory, store) = filled(3);
    let raw = rusqlite::Connection::open(directory.path().join(DATABASE_FILE)).unwrap();
    let line = |store: &Store| store.list("", 1, 0).unwrap().0.remove(0);
    let first = line(&store);
    raw.execute(
        "UPDATE jobs SET card = '{\"of\": \"another time\"}', drawn_by = ?2 WHERE id = ?1",
        [first.id.as_str(), DRAWN_BY],
    )
    .unwrap();
    let job = store.get(&first.id).unwrap().job;
    assert_eq!(shown(&store, &line(&store)).unwrap(), Some(card(&job)));
    raw.execute("UPDATE jobs SET card = '', revision = 99 WHERE id = ?1", [&first.id]).unwrap();
    assert_eq!(shown(&store, &line(&store)).unwrap(), None);
}

/// A saved document brings its card with it: the bay has nothing to draw.
#[test]
fn a_save_brings_its_card() {
    let (_directory, store) = filled(3);
    let first = store.list("", 1, 0).unwrap().0.remove(0);
    let stored = store.get(&first.id).unwrap();
    let mut job = stored.job.clone();
    job.title = "Renamed".to_owned();
    let now = Timestamp::from_second(1_900_000_000).unwrap();
    store.save_ready(&first.id, stored.revision, ready(job.clone()).unwrap(), now).unwrap();
    let line = store.list("renamed", 1, 0).unwrap().0.remove(0);
    assert_eq!(of_today(&line), Some(card(&job)));
    // Of a job that is gone there is none.
    store.remove(&line.id, line.revision).unwrap();
    assert!(matches!(store.get(&line.id), Err(StoreError::NoSuchJob)));
    assert_eq!(shown(&store, &first).unwrap(), None);
}
