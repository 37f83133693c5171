//! A database that was filled by the program whose documents were of version 1: seven jobs, one of
//! them changed and the change undone, and thirteen parts.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_document::migrate;
use derecho_store::{DATABASE_FILE, Store};
use jiff::Timestamp;
use tempfile::TempDir;

fn filled() -> (TempDir, Store) {
    let directory = tempfile::tempdir().unwrap();
    let file = rusqlite::Connection::open(directory.path().join(DATABASE_FILE)).unwrap();
    file.execute_batch(include_str!("version_1/filled.sql")).unwrap();
    file.close().unwrap();
    let store = Store::open(directory.path()).unwrap();
    (directory, store)
}

fn id_of(store: &Store, title: &str) -> String {
    store.list("", 100, 0).unwrap().0.into_iter().find(|job| job.title == title).unwrap().id
}

#[test]
fn every_job_and_part_is_there() {
    let (_directory, store) = filled();
    let (jobs, total) = store.list("", 100, 0).unwrap();
    assert_eq!((jobs.len(), total), (7, 7));
    assert_eq!(store.parts().unwrap().len(), 13);
}

#[test]
fn the_database_as_it_was_is_kept_beside_the_newer_one() {
    let (directory, store) = filled();
    drop(store);
    let before: Vec<_> = std::fs::read_dir(directory.path())
        .unwrap()
        .map(|entry| entry.unwrap().path())
        .filter(|path| path.file_name().unwrap().to_string_lossy().starts_with("before-form-"))
        .collect();
    let [before] = before.as_slice() else { panic!("{before:?}") };
    let old = rusqlite::Connection::open(before).unwrap();
    let form = |connection: &rusqlite::Connection| -> i64 {
        connection.query_row("PRAGMA user_version", [], |row| row.get(0)).unwrap()
    };
    let new = rusqlite::Connection::open(directory.path().join(DATABASE_FILE)).unwrap();
    assert!(form(&old) < form(&new));
    // Its documents are the very ones that were filled in.
    let version: i64 = old
        .query_row("SELECT min(json_extract(document, '$.version')) FROM revisions", [], |row| row.get(0))
        .unwrap();
    assert_eq!(version, 1);
    let jobs: i64 = old.query_row("SELECT count(*) FROM jobs", [], |row| row.get(0)).unwrap();
    assert_eq!(jobs, 7);
}

#[test]
fn a_job_reads_as_its_file_brought_forward() {
    let (_directory, store) = filled();
    let files = [
        ("Lookout truck 7", include_str!("../../job/tests/version_1/lookout-truck-7.derecho.json")),
        ("Supply truck 9", include_str!("../../job/tests/version_1/supply-truck-9.derecho.json")),
    ];
    for (title, file) in files {
        let stored = store.get(&id_of(&store, title)).unwrap().job;
        assert_eq!(stored, migrate::read(file).unwrap(), "{title}");
        assert_eq!(stored.version, 7);
    }
    // Supply truck 9 had been set and read again: that is a round now.
    let supply = store.get(&id_of(&store, "Supply truck 9")).unwrap().job;
    assert_eq!(supply.setups.rounds.len(), 1);
    assert_eq!(supply.sheets.iter().filter(|sheet| sheet.after.as_str() == "round-1").count(), 1);
}

#[test]
fn what_was_undone_comes_back_and_a_job_is_saved_on() {
    let (_directory, store) = filled();
    let at = Timestamp::from_second(1_900_000_000).unwrap();
    let id = id_of(&store, "Lookout truck 12");
    let stored = store.get(&id).unwrap();
    assert_eq!((stored.revision, stored.can_undo, stored.can_redo), (3, false, true));
    let redone = store.redo(&id, 3, at).unwrap();
    assert_eq!(redone.job.title, "Lookout truck 12, again");
    assert_eq!(store.history(&id).unwrap().len(), 4);
    assert_eq!(store.revision(&id, 1).unwrap().title, "Lookout truck 12");
    let saved = store.save(&id, 4, &redone.job, at).unwrap();
    assert_eq!(saved.job, redone.job);
}
