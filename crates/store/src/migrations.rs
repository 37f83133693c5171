//! The form of the database, as a list that only grows. A landed entry is never
//! edited: a snapshot in the tests shows it if somebody does.

use rusqlite_migration::{M, Migrations};

pub(crate) const LIST: &[&str] = &[
    // 1: jobs and their revisions. The triggers keep revisions append-only whoever asks.
    "CREATE TABLE jobs (
        id TEXT PRIMARY KEY,
        title TEXT NOT NULL,
        search TEXT NOT NULL,
        card TEXT NOT NULL,
        created_at TEXT NOT NULL,
        saved_at TEXT NOT NULL,
        revision INTEGER NOT NULL,
        removed INTEGER NOT NULL DEFAULT 0
    ) STRICT;
    CREATE INDEX jobs_by_time ON jobs (removed, saved_at DESC, id DESC);
    CREATE TABLE revisions (
        job_id TEXT NOT NULL REFERENCES jobs (id),
        number INTEGER NOT NULL,
        document TEXT NOT NULL,
        kind TEXT NOT NULL,
        undo_to INTEGER,
        redo_to INTEGER,
        saved_at TEXT NOT NULL,
        PRIMARY KEY (job_id, number)
    ) STRICT;
    CREATE TRIGGER revisions_are_not_changed BEFORE UPDATE ON revisions
        BEGIN SELECT raise(ABORT, 'revisions are append-only'); END;
    CREATE TRIGGER revisions_are_not_deleted BEFORE DELETE ON revisions
        BEGIN SELECT raise(ABORT, 'revisions are append-only'); END;",
    // 2: the parts library.
    "CREATE TABLE parts (
        id TEXT PRIMARY KEY,
        kind TEXT NOT NULL,
        name TEXT NOT NULL,
        retired INTEGER NOT NULL DEFAULT 0,
        changed_at TEXT NOT NULL,
        document TEXT NOT NULL
    ) STRICT;
    CREATE INDEX parts_by_name ON parts (kind, name);",
    // 3: nothing any more. It drew the cards anew of documents of version 2; today a card says by which rules it was
    // drawn, and is drawn anew when it is looked at.
    "UPDATE jobs SET search = search;",
    // 4: which edit of which client made a revision, so that an answer that was lost is known again; by which
    // rules a card was drawn; the bay's list out of an index alone, without reading cards; and documents packed,
    // most of them against an earlier revision.
    "ALTER TABLE revisions ADD COLUMN edit TEXT;
    ALTER TABLE revisions ADD COLUMN packed BLOB;
    ALTER TABLE revisions ADD COLUMN against INTEGER;
    ALTER TABLE jobs ADD COLUMN drawn_by TEXT NOT NULL DEFAULT '';
    DROP INDEX jobs_by_time;
    CREATE INDEX jobs_by_time ON jobs (removed, saved_at DESC, id DESC, search);",
    // 5: what was taken over from instruments, into which field.
    "CREATE TABLE instrument_log (
        taken_at TEXT NOT NULL,
        job_id TEXT NOT NULL,
        field TEXT NOT NULL,
        instrument TEXT NOT NULL,
        kind TEXT NOT NULL,
        reading TEXT NOT NULL
    ) STRICT;
    CREATE INDEX instrument_log_by_time ON instrument_log (taken_at DESC);",
    // 6: what a job waits for, read out of its card, so that the bay can begin with it.
    "ALTER TABLE jobs ADD COLUMN due TEXT
        GENERATED ALWAYS AS (CASE WHEN json_valid(card) THEN json_extract(card, '$.due[0].day') END) VIRTUAL;
    ALTER TABLE jobs ADD COLUMN waits INTEGER
        GENERATED ALWAYS AS (CASE WHEN json_valid(card) THEN json_type(card, '$.waits') = 'object' END) VIRTUAL;
    DROP INDEX jobs_by_time;
    CREATE INDEX jobs_by_time ON jobs (removed, saved_at DESC, id DESC, search, due, waits);",
];

pub(crate) fn all() -> Migrations<'static> {
    Migrations::new(LIST.iter().map(|sql| M::up(sql)).collect())
}

#[cfg(test)]
mod tests {
    #[test]
    fn the_list_is_sound() {
        assert!(super::all().validate().is_ok());
    }

    #[test]
    fn landed_migrations_are_not_edited() {
        insta::assert_snapshot!(super::LIST.join("\n-- next --\n"));
    }

    #[test]
    fn a_filled_database_of_the_first_form_keeps_its_jobs() {
        let mut database = rusqlite::Connection::open_in_memory().expect("memory");
        super::all().to_version(&mut database, 1).expect("the first form");
        let fill = "INSERT INTO jobs VALUES ('a', 'Truck', 'truck', '{}', 't', 't', 1, 0);
            INSERT INTO revisions VALUES ('a', 1, '{}', 'created', NULL, NULL, 't')";
        database.execute_batch(fill).expect("rows of the first form");
        super::all().to_latest(&mut database).expect("the newest form");
        let kept: i64 = database
            .query_row("SELECT count(*) FROM jobs JOIN revisions ON job_id = id", [], |row| row.get(0))
            .expect("both tables are there");
        let parts: i64 =
            database.query_row("SELECT count(*) FROM parts", [], |row| row.get(0)).expect("the parts table");
        assert_eq!((kept, parts), (1, 0));
    }
}
