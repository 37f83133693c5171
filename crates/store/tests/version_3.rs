//! A database that was filled by the program whose documents were of version 3: the thirteen sample jobs, one of them
//! changed and the change undone, and the sample parts.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_document::check::check;
use derecho_document::migrate;
use derecho_store::{DATABASE_FILE, Store};
use tempfile::TempDir;

fn filled() -> (TempDir, Store) {
    let directory = tempfile::tempdir().unwrap();
    let file = rusqlite::Connection::open(directory.path().join(DATABASE_FILE)).unwrap();
    file.execute_batch(include_str!("version_3/filled.sql")).unwrap();
    file.close().unwrap();
    let store = Store::open(directory.path()).unwrap();
    (directory, store)
}

fn id_of(store: &Store, title: &str) -> String {
    store.list("", 100, 0).unwrap().0.into_iter().find(|job| job.title == title).unwrap().id
}

#[test]
fn every_job_reads_as_its_file_brought_forward_and_is_sound() {
    let (_directory, store) = filled();
    assert_eq!(store.list("", 100, 0).unwrap().1, 13);
    let files = [
        ("Lookout truck 7", include_str!("../../job/tests/version_3/lookout-truck-7.derecho.json")),
        ("Supply truck 9", include_str!("../../job/tests/version_3/supply-truck-9.derecho.json")),
        ("Tower truck 8", include_str!("../../job/tests/version_3/tower-truck-8.derecho.json")),
        ("Ridge truck 1", include_str!("../../job/tests/version_3/ridge-truck-1.derecho.json")),
        ("Relay van 2", include_str!("../../job/tests/version_3/relay-van-2.derecho.json")),
        ("Water tender 3", include_str!("../../job/tests/version_3/water-tender-3.derecho.json")),
    ];
    for (title, file) in files {
        let stored = store.get(&id_of(&store, title)).unwrap().job;
        assert_eq!(stored, migrate::read(file).unwrap(), "{title}");
        assert_eq!(stored.version, 4);
        assert_eq!(check(&stored), [], "{title}");
    }
}

#[test]
fn what_was_undone_comes_back() {
    let (_directory, store) = filled();
    let id = id_of(&store, "Lookout truck 12");
    let stored = store.get(&id).unwrap();
    assert_eq!((stored.revision, stored.can_undo, stored.can_redo), (3, false, true));
    assert_eq!(store.revision(&id, 2).unwrap().title, "Lookout truck 12, again");
}
