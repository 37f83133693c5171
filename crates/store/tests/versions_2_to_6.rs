//! Databases that were filled by the programs whose documents were of version 2 to 6: the thirteen sample
//! jobs, one of them changed and the change undone, and the sample parts.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::path::PathBuf;

use derecho_document::check::check;
use derecho_document::migrate;
use derecho_store::{DATABASE_FILE, Store};
use tempfile::TempDir;

const VERSIONS: [u32; 5] = [2, 3, 4, 5, 6];

/// A fixture of a version, of a crate's tests.
fn fixture(of: &str, version: u32, file: &str) -> String {
    let tests = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("..").join(of).join("tests");
    std::fs::read_to_string(tests.join(format!("version_{version}")).join(file)).unwrap()
}

fn filled(version: u32) -> (TempDir, Store) {
    let directory = tempfile::tempdir().unwrap();
    let file = rusqlite::Connection::open(directory.path().join(DATABASE_FILE)).unwrap();
    file.execute_batch(&fixture("store", version, "filled.sql")).unwrap();
    file.close().unwrap();
    let store = Store::open(directory.path()).unwrap();
    (directory, store)
}

fn id_of(store: &Store, title: &str) -> String {
    // A sample job says after its name what is wrong.
    let is = |other: &str| other == title || other.starts_with(&format!("{title}:"));
    store.list("", 100, 0).unwrap().0.into_iter().find(|job| is(&job.title)).unwrap().id
}

#[test]
fn every_job_reads_as_its_file_brought_forward_and_is_sound() {
    let names = [
        ("Lookout truck 7", "lookout-truck-7"),
        ("Supply truck 9", "supply-truck-9"),
        ("Tower truck 8", "tower-truck-8"),
        ("Ridge truck 1", "ridge-truck-1"),
        ("Relay van 2", "relay-van-2"),
        ("Water tender 3", "water-tender-3"),
    ];
    for version in VERSIONS {
        let (_directory, store) = filled(version);
        assert_eq!(store.list("", 100, 0).unwrap().1, 13);
        for (title, file) in names {
            let file = fixture("job", version, &format!("{file}.derecho.json"));
            let stored = store.get(&id_of(&store, title)).unwrap().job;
            assert_eq!(stored, migrate::read(&file).unwrap(), "{title}, version {version}");
            assert_eq!(stored.version, 7);
            assert_eq!(check(&stored), [], "{title}, version {version}");
        }
    }
}

#[test]
fn what_was_undone_comes_back() {
    for version in VERSIONS {
        let (_directory, store) = filled(version);
        let id = id_of(&store, "Lookout truck 12");
        let stored = store.get(&id).unwrap();
        assert_eq!((stored.revision, stored.can_undo, stored.can_redo), (3, false, true));
        assert_eq!(store.revision(&id, 2).unwrap().title, "Lookout truck 12, again");
    }
}

/// A stored document of an older form that comes back as it is today is the same: no revision is made of it.
#[test]
fn brought_forward_and_saved_again_it_is_unchanged() {
    for version in VERSIONS {
        let (_directory, store) = filled(version);
        let id = id_of(&store, "Supply truck 9");
        let stored = store.get(&id).unwrap();
        let now = jiff::Timestamp::from_second(1_900_000_000).unwrap();
        let saved = store.save(&id, stored.revision, &stored.job, now).unwrap();
        assert_eq!(saved.revision, stored.revision);
    }
}
