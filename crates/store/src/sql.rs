//! Every statement, by name.

pub(crate) const IN_THE_BAY: &str = "SELECT 1 FROM jobs WHERE id = ?1 AND removed = 0";

pub(crate) const JOB_EXISTS: &str = "SELECT 1 FROM jobs WHERE id = ?1";

pub(crate) const ADD_JOB: &str = "
    INSERT INTO jobs (id, title, search, card, created_at, saved_at, drawn_by, revision)
    VALUES (?1, ?2, ?3, ?4, ?5, ?5, ?6, 1)";

pub(crate) const UPDATE_JOB: &str = "
    UPDATE jobs SET title = ?2, search = ?3, card = ?4, saved_at = ?5, revision = ?6, drawn_by = ?7
    WHERE id = ?1";

/// The card alone, and by which rules it was drawn: neither the job nor when it was saved changes. Not where the job was
/// saved meanwhile.
pub(crate) const DRAW_CARD_BY: &str =
    "UPDATE jobs SET card = ?2, drawn_by = ?3 WHERE id = ?1 AND revision = ?4";

pub(crate) const REMOVE_JOB: &str = "UPDATE jobs SET removed = 1 WHERE id = ?1";

pub(crate) const REMOVED: &str =
    "SELECT id, title, saved_at FROM jobs WHERE removed = 1 ORDER BY saved_at DESC, id DESC";

pub(crate) const BRING_BACK: &str = "UPDATE jobs SET removed = 0 WHERE id = ?1 AND removed = 1";

/// Every line of the tables beside the revisions, as it is.
pub(crate) const EVERY_JOB: &str = "SELECT id, title, search, card, created_at, saved_at, revision FROM jobs";

pub(crate) const EVERY_TAKEN: &str =
    "SELECT taken_at, job_id, field, instrument, kind, reading, rowid FROM instrument_log";

pub(crate) const ADD_REVISION: &str = "
    INSERT INTO revisions (job_id, number, document, packed, against, kind, undo_to, redo_to, saved_at, edit)
    VALUES (?1, ?2, '', ?3, ?4, ?5, ?6, ?7, ?8, ?9)";

pub(crate) const CURRENT: &str = "
    SELECT r.number, r.saved_at, r.undo_to, r.redo_to, r.edit
    FROM jobs j JOIN revisions r ON r.job_id = j.id AND r.number = j.revision
    WHERE j.id = ?1 AND j.removed = 0";

pub(crate) const LINKS: &str = "SELECT undo_to, redo_to FROM revisions WHERE job_id = ?1 AND number = ?2";

/// A document, packed or, from before the fourth form, as it is.
pub(crate) const DOCUMENT: &str =
    "SELECT document, packed, against FROM revisions WHERE job_id = ?1 AND number = ?2";

/// The newest revision that stands by itself: later ones are packed against it.
pub(crate) const WHOLE: &str = "
    SELECT max(number) FROM revisions WHERE job_id = ?1 AND number > ?2 AND packed IS NOT NULL AND against IS NULL";

pub(crate) const EVERY_REVISION: &str = "SELECT job_id, number FROM revisions ORDER BY job_id, number";

pub(crate) const HISTORY: &str = "
    SELECT number, kind, saved_at FROM revisions WHERE job_id = ?1 ORDER BY number DESC";

/// The bay's lines out of the index alone: cards are long.
pub(crate) const BAY: &str = "
    SELECT rowid, search, due, waits FROM jobs INDEXED BY jobs_by_time WHERE removed = 0 ORDER BY saved_at DESC, id DESC";

pub(crate) const LISTED: &str = "
    SELECT id, title, revision, saved_at, card, drawn_by FROM jobs WHERE rowid = ?1 AND removed = 0";

pub(crate) const LIST_PARTS: &str =
    "SELECT id, retired, changed_at, document FROM parts ORDER BY kind, name COLLATE NOCASE, id";

pub(crate) const PUT_PART: &str = "
    INSERT INTO parts (id, kind, name, retired, changed_at, document) VALUES (?1, ?2, ?3, ?4, ?5, ?6)
    ON CONFLICT (id) DO UPDATE SET kind = ?2, name = ?3, retired = ?4, changed_at = ?5, document = ?6";

pub(crate) const PART_CHANGED_AT: &str = "SELECT changed_at FROM parts WHERE id = ?1";

pub(crate) const LOG_TAKEN: &str = "
    INSERT INTO instrument_log (taken_at, job_id, field, instrument, kind, reading) VALUES (?1, ?2, ?3, ?4, ?5, ?6)";

pub(crate) const TAKEN: &str = "
    SELECT taken_at, job_id, field, instrument, kind, reading FROM instrument_log
    ORDER BY taken_at DESC, rowid DESC LIMIT ?1";

/// The bay's jobs and their newest revisions, last saved first, out of indexes and rows without reading cards.
pub(crate) const NEWEST: &str =
    "SELECT id, revision FROM jobs WHERE removed = 0 ORDER BY saved_at DESC, id DESC";
