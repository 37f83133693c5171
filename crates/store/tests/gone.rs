//! A bay that is gone, cut off, damaged in a row, or was not closed: nothing is opened unsaid, and what can be read is.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::fs;
use std::path::Path;

use derecho_core::parts::{JointPart, Part};
use derecho_document::Job;
use derecho_store::safekeeping::{check, restore};
use derecho_store::{BasedOn, DATABASE_FILE, KeptCard, Prepared, Ready, Store, StoreError, hold};
use jiff::Timestamp;

fn now() -> Timestamp {
    Timestamp::from_second(1_795_000_000).unwrap()
}

/// Two jobs, a part and a copy of yesterday.
fn filled(folder: &Path) {
    let store = Store::open(folder).unwrap();
    store.create("one", &Job::new("Hose truck 1"), now()).unwrap();
    store.create("two", &Job::new("Hose truck 2"), now()).unwrap();
    for name in ["jam nut", "rod end"] {
        let part = Part::Joint(JointPart { name: name.to_owned(), ..JointPart::default() });
        store.add_part(name, &part, now()).unwrap();
    }
    store.daily_copy("2026-11-27".parse().unwrap()).unwrap();
    store.daily_copy("2026-11-28".parse().unwrap()).unwrap();
}

fn drawn(job: Job) -> Ready {
    Ready::new(job, KeptCard { card: "{}".to_owned(), by: "some rules".to_owned() }).unwrap()
}

#[test]
fn a_bay_that_is_gone_or_cut_off_is_not_opened_empty_where_there_is_a_copy() {
    let folder = tempfile::tempdir().unwrap();
    filled(folder.path());
    let database = folder.path().join(DATABASE_FILE);
    let lost: [&dyn Fn(); 3] =
        [&|| fs::remove_file(&database).unwrap(), &|| fs::write(&database, b"").unwrap(), &|| {
            fs::write(&database, b"S").unwrap();
        }];
    for lose in lost {
        lose();
        let refused = Store::open(folder.path()).unwrap_err();
        assert!(matches!(refused, StoreError::Gone { .. }), "{refused}");
        let says = refused.to_string();
        assert!(says.contains("2026-11-28.sqlite3") && says.contains("derecho restore"), "{says}");
        restore(&folder.path().join("copies/2026-11-28.sqlite3"), folder.path()).unwrap();
        assert_eq!(Store::open(folder.path()).unwrap().list("", 10, 0).unwrap().1, 2);
    }
}

#[test]
fn a_folder_without_a_bay_stays_without_one() {
    let folder = tempfile::tempdir().unwrap();
    assert!(matches!(Store::open_existing(folder.path()), Err(StoreError::NoBay(_))));
    assert_eq!(fs::read_dir(folder.path()).unwrap().count(), 0);
    filled(folder.path());
    assert!(Store::open_existing(folder.path()).is_ok());
}

#[test]
fn a_server_that_was_not_closed_and_whose_log_is_gone_is_reported() {
    let folder = tempfile::tempdir().unwrap();
    filled(folder.path());
    let held = hold(folder.path()).unwrap();
    held.closed_before(folder.path()).unwrap();
    held.runs().unwrap();
    // As a machine that loses its power leaves it: the mark stays.
    let mark = folder.path().join("derecho.serving");
    let running = fs::read(&mark).unwrap();
    drop(held);
    assert_eq!(fs::read(&mark).unwrap(), b"", "closed in peace it leaves no mark");
    fs::write(&mark, &running).unwrap();
    let held = hold(folder.path()).unwrap();
    let refused = held.closed_before(folder.path()).unwrap_err();
    assert!(matches!(refused, StoreError::LogGone { .. }), "{refused}");
    assert!(refused.to_string().contains("derecho restore"), "{refused}");
    drop(held);
    assert_eq!(fs::read(&mark).unwrap(), running, "a refusal changes nothing");
    assert!(matches!(Store::open(folder.path()), Err(StoreError::LogGone { .. })));
    // With its log there it is read in, and the mark is gone.
    fs::write(folder.path().join(format!("{DATABASE_FILE}-wal")), b"").unwrap();
    assert_eq!(Store::open(folder.path()).unwrap().list("", 10, 0).unwrap().1, 2);
    assert_eq!(fs::read(&mark).unwrap(), b"");
}

#[test]
fn one_damaged_row_leaves_the_others_and_is_named() {
    let folder = tempfile::tempdir().unwrap();
    filled(folder.path());
    let database = folder.path().join(DATABASE_FILE);
    assert_eq!(check(&database).unwrap().faults, Vec::<String>::new());
    let raw = rusqlite::Connection::open(&database).unwrap();
    let rows = [
        ("UPDATE jobs SET title = CAST(X'FF41' AS TEXT) WHERE id = 'one'", "job one: its title"),
        ("UPDATE jobs SET search = CAST(X'FF' AS TEXT) WHERE id = 'one'", "job one: its search"),
        ("UPDATE jobs SET saved_at = 'yesterday' WHERE id = 'one'", "job one: its saved_at"),
        ("UPDATE parts SET document = 'a nut' WHERE id = 'jam nut'", "part jam nut"),
    ];
    for (damage, reported) in rows {
        raw.execute_batch(damage).unwrap();
        let faults = check(&database).unwrap().faults;
        assert!(faults.iter().any(|fault| fault.contains(reported)), "{reported}: {faults:?}");
        let store = Store::open(folder.path()).unwrap();
        let (jobs, total) = store.list("", 10, 0).unwrap();
        assert_eq!((jobs.len(), total), (2, 2), "{damage}");
        assert!(jobs.iter().any(|job| job.title == "Hose truck 2"));
    }
    let store = Store::open(folder.path()).unwrap();
    let (parts, damaged) = store.parts_and_damaged().unwrap();
    assert_eq!((parts.len(), damaged), (1, vec!["jam nut".to_owned()]));
}

#[test]
fn a_copy_of_a_newer_form_does_not_take_the_bays_place() {
    let folder = tempfile::tempdir().unwrap();
    filled(folder.path());
    let copy = folder.path().join("copies/2026-11-28.sqlite3");
    rusqlite::Connection::open(&copy).unwrap().execute_batch("PRAGMA user_version = 99").unwrap();
    assert!(matches!(restore(&copy, folder.path()), Err(StoreError::NewerForm)));
    assert_eq!(Store::open(folder.path()).unwrap().list("", 10, 0).unwrap().1, 2);
}

#[test]
fn a_backup_that_fails_leaves_nothing_behind() {
    let folder = tempfile::tempdir().unwrap();
    filled(folder.path());
    let store = Store::open(folder.path()).unwrap();
    let nowhere = folder.path().join("no/such/folder");
    assert!(store.backup(&nowhere.join("copy.sqlite3")).is_err());
    // Into a file's place that is a folder: it is written and cannot take its name.
    let taken = folder.path().join("taken");
    fs::create_dir(&taken).unwrap();
    assert!(store.backup(&taken).is_err());
    let left: Vec<_> =
        fs::read_dir(folder.path()).unwrap().filter_map(|e| e.ok()?.file_name().into_string().ok()).collect();
    assert!(left.iter().all(|name| !name.contains("half")), "{left:?}");
}

#[test]
fn a_job_that_was_taken_out_comes_back_as_it_was() {
    let folder = tempfile::tempdir().unwrap();
    filled(folder.path());
    let store = Store::open(folder.path()).unwrap();
    let before = store.get("one").unwrap();
    store.remove("one", 1).unwrap();
    let removed: Vec<String> = store.removed().unwrap().into_iter().map(|job| job.id).collect();
    assert_eq!(removed, ["one"]);
    assert_eq!(store.bring_back("one").unwrap(), before);
    assert!(matches!(store.bring_back("one"), Err(StoreError::NoSuchJob)));
    assert_eq!(store.list("", 10, 0).unwrap().1, 2);
}

#[test]
fn one_name_does_not_do_for_two_edits() {
    let folder = tempfile::tempdir().unwrap();
    filled(folder.path());
    let store = Store::open(folder.path()).unwrap();
    let named = |revision| BasedOn { revision, edit: Some("edit 7".to_owned()) };
    let first = Job { notes: "first".to_owned(), ..Job::new("Hose truck 1") };
    let saved = store.save("one", named(1), &first, now()).unwrap();
    assert_eq!(store.save("one", named(1), &first, now()).unwrap(), saved, "sent again it is made once");
    let second = Job { notes: "second".to_owned(), ..Job::new("Hose truck 1") };
    assert!(matches!(store.save("one", named(1), &second, now()), Err(StoreError::KeyUsed)));
    assert_eq!(store.get("one").unwrap(), saved);
}

#[test]
fn many_jobs_come_in_all_or_none() {
    let folder = tempfile::tempdir().unwrap();
    filled(folder.path());
    let store = Store::open(folder.path()).unwrap();
    let made = |ids: &[&str]| -> Vec<Prepared> {
        ids.iter()
            .map(|id| Prepared::of((*id).to_owned(), &drawn(Job::new(&format!("Mule {id}")))).unwrap())
            .collect()
    };
    // One of them has an id that is taken.
    assert!(matches!(store.create_all(&made(&["a", "b", "two", "c"]), now()), Err(StoreError::AlreadyThere)));
    assert_eq!(store.list("", 10, 0).unwrap().1, 2);
    store.create_all(&made(&["a", "b", "c"]), now()).unwrap();
    assert_eq!(store.list("", 10, 0).unwrap().1, 5);
    let stored = store.get("b").unwrap();
    assert_eq!((stored.job, stored.revision), (Job::new("Mule b"), 1));
    assert!(store.list("mule", 10, 0).unwrap().0.iter().all(|job| job.card.by == "some rules"));
}

#[test]
fn the_same_parts_taken_in_again_add_nothing() {
    let folder = tempfile::tempdir().unwrap();
    filled(folder.path());
    let store = Store::open(folder.path()).unwrap();
    let out: Vec<(String, Part)> =
        store.parts().unwrap().into_iter().map(|part| (format!("{} again", part.id), part.part)).collect();
    assert_eq!(store.put_parts(&out, now()).unwrap(), 0);
    let other = Part::Joint(JointPart {
        name: "jam nut".to_owned(),
        note: "left hand".to_owned(),
        ..JointPart::default()
    });
    assert_eq!(
        store.put_parts(&[("other".to_owned(), other.clone()), ("twice".to_owned(), other)], now()).unwrap(),
        1
    );
    assert_eq!(store.parts().unwrap().len(), 3);
}

#[cfg(unix)]
#[test]
fn what_the_bay_writes_is_its_owners_alone() {
    use std::os::unix::fs::PermissionsExt as _;
    let folder = tempfile::tempdir().unwrap();
    // A folder that was there before, open to everybody.
    fs::set_permissions(folder.path(), fs::Permissions::from_mode(0o755)).unwrap();
    let store = Store::open(folder.path()).unwrap();
    store.create("one", &Job::new("Hose truck 1"), now()).unwrap();
    for name in [DATABASE_FILE.to_owned(), format!("{DATABASE_FILE}-wal"), format!("{DATABASE_FILE}-shm")] {
        let mode = fs::metadata(folder.path().join(&name)).unwrap().permissions().mode();
        assert_eq!(mode & 0o777, 0o600, "{name}");
    }
}
