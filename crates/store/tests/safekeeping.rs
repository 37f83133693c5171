//! Copies and checks of a whole database, what a damaged or foreign one is called, and how much room edits take.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::fs;

use derecho_document::Job;
use derecho_store::safekeeping::{check, restore};
use derecho_store::{BasedOn, DATABASE_FILE, KeptCard, Ready, Store, StoreError, hold};
use jiff::Timestamp;
use tempfile::TempDir;

fn at(second: i64) -> Timestamp {
    Timestamp::from_second(1_790_000_000 + second).unwrap()
}

/// A full rig of the demo, as large as jobs are.
fn rig() -> Job {
    serde_json::from_str(include_str!("../../../demo/lookout-truck-7.derecho.json")).unwrap()
}

fn edited(count: usize) -> Job {
    Job { notes: format!("reading {count}, as typed"), ..rig() }
}

fn bay() -> (TempDir, Store) {
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    store.create("a", &rig(), at(0)).unwrap();
    (directory, store)
}

/// A full rig is 18 kB as text; ten thousand edits of it stay under 5 MB, here a twentieth of that in a
/// twentieth of the room, and every one of them can be read.
#[test]
fn edits_take_little_room_and_every_one_can_be_read() {
    let (directory, store) = bay();
    for count in 1..=500 {
        store.save("a", count as u64, &edited(count), at(count as i64)).unwrap();
    }
    for revision in [2, 50, 51, 52, 100, 101, 499, 501] {
        assert_eq!(store.revision("a", revision).unwrap(), edited(revision as usize - 1), "{revision}");
    }
    let copy = directory.path().join("copy.sqlite3");
    store.backup(&copy).unwrap();
    let bytes = fs::metadata(&copy).unwrap().len();
    assert!(bytes < 5_000_000 / 20, "{bytes}");
    let found = check(&copy).unwrap();
    assert_eq!((found.jobs, found.revisions, found.faults.len()), (1, 501, 0));
}

#[test]
fn a_backup_taken_under_load_is_whole() {
    let (directory, store) = bay();
    let store = std::sync::Arc::new(store);
    let saving = {
        let store = std::sync::Arc::clone(&store);
        std::thread::spawn(move || {
            for count in 1..=120 {
                store.save("a", count as u64, &edited(count), at(count as i64)).unwrap();
            }
        })
    };
    let copies: Vec<_> = (0..4).map(|n| directory.path().join(format!("copy-{n}.sqlite3"))).collect();
    for copy in &copies {
        store.backup(copy).unwrap();
    }
    saving.join().unwrap();
    let mut before = 0;
    for copy in &copies {
        let found = check(copy).unwrap();
        assert!(found.faults.is_empty(), "{:?}", found.faults);
        assert!((before.max(1)..=121).contains(&found.revisions), "{}", found.revisions);
        before = found.revisions;
    }
    assert!(matches!(store.backup(&copies[0]), Err(StoreError::Exists(_))), "won't be overwritten");
}

#[test]
fn check_finds_a_flipped_bit_and_restore_refuses_such_a_copy() {
    let (directory, store) = bay();
    for count in 1..=60 {
        store.save("a", count as u64, &edited(count), at(count as i64)).unwrap();
    }
    let copy = directory.path().join("copy.sqlite3");
    store.backup(&copy).unwrap();
    let sound = fs::read(&copy).unwrap();
    // A byte in the middle of a packed document: SQLite's own check does not look there.
    let magic = [0x28, 0xb5, 0x2f, 0xfd];
    let packed = sound.windows(4).rposition(|bytes| bytes == magic).unwrap();
    let mut flipped = sound.clone();
    flipped[packed + 12] ^= 0x10;
    fs::write(&copy, flipped).unwrap();
    let found = check(&copy).unwrap();
    assert!(found.faults.iter().any(|fault| fault.starts_with("job a, revision")), "{:?}", found.faults);
    drop(store);
    let reported = restore(&copy, directory.path()).unwrap_err();
    assert!(matches!(reported, StoreError::BadCopy { .. }), "{reported}");
    assert!(
        reported.to_string().contains("copy.sqlite3") && reported.to_string().contains("Nothing was changed")
    );
    let missing = restore(&directory.path().join("no.sqlite3"), directory.path()).unwrap_err();
    assert!(matches!(missing, StoreError::NotThere(_)) && !missing.to_string().contains("data folder"));
    // Sound again it is taken, and what was there is kept.
    fs::write(&copy, &sound).unwrap();
    let aside = restore(&copy, directory.path()).unwrap().unwrap();
    assert_eq!(check(&aside).unwrap().revisions, 61);
    let store = Store::open(directory.path()).unwrap();
    assert_eq!(store.get("a").unwrap().job, edited(60));
}

/// Even a database that is no database any more is kept, with its log, byte for byte.
#[test]
fn what_a_restore_replaces_is_kept_whole() {
    let (directory, store) = bay();
    let copy = directory.path().join("copy.sqlite3");
    store.backup(&copy).unwrap();
    drop(store);
    let database = directory.path().join(DATABASE_FILE);
    fs::write(&database, b"a shopping list").unwrap();
    fs::write(directory.path().join(format!("{DATABASE_FILE}-wal")), b"a log").unwrap();
    let aside = restore(&copy, directory.path()).unwrap().unwrap();
    assert_eq!(fs::read(&aside).unwrap(), b"a shopping list");
    let log = aside.with_file_name(format!("{}-wal", aside.file_name().unwrap().to_string_lossy()));
    assert_eq!(fs::read(log).unwrap(), b"a log");
    let store = Store::open(directory.path()).unwrap();
    assert_eq!(store.get("a").unwrap().job, rig());
    drop(store);
    // A second restore writes over neither.
    assert_ne!(restore(&copy, directory.path()).unwrap().unwrap(), aside);
}

#[test]
fn a_copy_a_day_is_taken_once() {
    let (directory, store) = bay();
    let day = "2026-11-26".parse().unwrap();
    assert!(store.daily_copy(day).unwrap());
    assert!(!store.daily_copy(day).unwrap());
    assert!(store.daily_copy("2026-11-27".parse().unwrap()).unwrap());
    let copies = fs::read_dir(directory.path().join("copies")).unwrap().count();
    assert_eq!(copies, 2);
}

#[test]
fn what_cannot_be_opened_is_called_by_its_name() {
    let empty = tempfile::tempdir().unwrap();
    fs::write(empty.path().join(DATABASE_FILE), b"").unwrap();
    let reported = Store::open(empty.path()).unwrap_err().to_string();
    assert!(reported.contains("is empty") && reported.contains("backup"), "{reported}");

    let text = tempfile::tempdir().unwrap();
    fs::write(
        text.path().join(DATABASE_FILE),
        "this is a shopping list, long enough to be read as a head\n".repeat(40),
    )
    .unwrap();
    let reported = Store::open(text.path()).unwrap_err();
    assert!(matches!(reported, StoreError::Damaged(_)), "{reported}");

    let (directory, store) = bay();
    let copy = directory.path().join("copy.sqlite3");
    store.backup(&copy).unwrap();
    let whole = fs::read(&copy).unwrap();
    let cut = tempfile::tempdir().unwrap();
    fs::write(cut.path().join(DATABASE_FILE), &whole[..whole.len() / 2]).unwrap();
    let reported = Store::open(cut.path()).and_then(|store| store.get("a").map(drop));
    assert!(matches!(reported, Err(StoreError::Damaged(_))), "{reported:?}");
}

#[test]
fn a_second_server_on_one_folder_is_reported_so() {
    let directory = tempfile::tempdir().unwrap();
    let first = hold(directory.path()).unwrap();
    let reported = hold(directory.path()).unwrap_err().to_string();
    assert!(reported.contains("another Derecho") && reported.contains("--data"), "{reported}");
    drop(first);
    assert!(hold(directory.path()).is_ok());
}

/// Both bring one fresh database up to date: neither fails.
#[test]
fn programs_started_at_once_on_fresh_data_do_not_meet() {
    let directory = tempfile::tempdir().unwrap();
    let opening: Vec<_> = (0..6)
        .map(|_| {
            let path = directory.path().to_owned();
            std::thread::spawn(move || Store::open(&path).map(drop))
        })
        .collect();
    for one in opening {
        one.join().unwrap().unwrap();
    }
}

/// Sent twice since its answer was lost, an edit is made once; another's is not taken for it.
#[test]
fn an_edit_with_a_name_is_made_once() {
    let (_directory, store) = bay();
    let named = |revision, edit: &str| BasedOn { revision, edit: Some(edit.to_owned()) };
    let first = store.save("a", named(1, "k1"), &edited(1), at(1)).unwrap();
    assert_eq!((first.revision, first.edit.as_deref()), (2, Some("k1")));
    assert_eq!(store.save("a", named(1, "k1"), &edited(1), at(2)).unwrap(), first);
    let undone = store.undo("a", named(2, "k2"), at(3)).unwrap();
    assert_eq!(store.undo("a", named(2, "k2"), at(4)).unwrap(), undone, "taken back once");
    match store.save("a", named(2, "k3"), &edited(2), at(5)) {
        Err(StoreError::ChangedElsewhere(newer)) => assert_eq!(newer.edit.as_deref(), Some("k2")),
        other => panic!("{other:?}"),
    }
}

/// The store keeps the card it is handed, by the rules it was drawn by, and only while its job stands where it stood.
#[test]
fn a_card_is_kept_as_it_was_handed_over() {
    let (_directory, store) = bay();
    let card = |id: &str| store.list("", 10, 0).unwrap().0.into_iter().find(|job| job.id == id).unwrap().card;
    assert_eq!(card("a"), KeptCard::default(), "nobody drew one yet");
    let drawn = KeptCard { card: "{\"due\":[]}".to_owned(), by: "some rules".to_owned() };
    store.put_card("a", 1, &drawn).unwrap();
    assert_eq!(card("a"), drawn);
    let ready = Ready::new(edited(1), KeptCard { card: "{}".to_owned(), by: "others".to_owned() }).unwrap();
    store.save_ready("a", 1, ready, at(1)).unwrap();
    assert_eq!(card("a").by, "others");
    // Of a revision that is not the newest any more.
    store.put_card("a", 1, &drawn).unwrap();
    assert_eq!(card("a").by, "others");
    // Taken back, it is another job: its card is still to be drawn.
    store.undo("a", 2, at(2)).unwrap();
    assert_eq!(card("a"), KeptCard::default());
}

#[test]
fn a_job_taken_out_is_out_with_its_revisions() {
    let (_directory, store) = bay();
    store.remove("a", 1).unwrap();
    assert!(matches!(store.revision("a", 1), Err(StoreError::NoSuchJob)));
}

#[cfg(unix)]
#[test]
fn the_data_is_for_its_owner_alone() {
    use std::os::unix::fs::PermissionsExt;
    let above = tempfile::tempdir().unwrap();
    let folder = above.path().join("data");
    drop(Store::open(&folder).unwrap());
    let mode = |path: &std::path::Path| fs::metadata(path).unwrap().permissions().mode() & 0o777;
    assert_eq!((mode(&folder), mode(&folder.join(DATABASE_FILE))), (0o700, 0o600));
}
