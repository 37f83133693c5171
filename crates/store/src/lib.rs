//! # derecho-store
//!
//! Where jobs are kept: one SQLite database, every saved change a revision that is
//! never altered, undo and redo as walks over them. The only crate that knows SQL.
//!
//! What is not here: HTTP, computation, the clock of a request (times are arguments): it is handed documents, and the
//! cards the bay shows of them. Depends on core and document; the server depends on it.
//!
//! What [`Store::save`] has acknowledged is on the disk: WAL with `synchronous=FULL`.

mod bay;
mod instruments;
mod migrations;
mod packed;
pub mod parts;
pub mod safekeeping;
mod sql;
mod texts;

use std::fs::{File, TryLockError};
use std::path::{Path, PathBuf};
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, MutexGuard};

use derecho_document::migrate::{self, written};
use derecho_document::{DOCUMENT_VERSION, Job};
use jiff::Timestamp;
use rusqlite::{Connection, ErrorCode, OptionalExtension, Row, Transaction, TransactionBehavior, params};
use thiserror::Error;

use crate::bay::Bay;
use crate::texts::Texts;

/// The file inside the data directory.
pub const DATABASE_FILE: &str = "derecho.sqlite3";
/// Locked while a database is opened and brought up to date.
const OPENING_FILE: &str = "derecho.opening";
/// Locked as long as a server runs on the directory.
const SERVING_FILE: &str = "derecho.serving";
pub use bay::BayOrder;
pub use instruments::Taken;
pub use parts::StoredPart;

/// Idle reading connections kept open.
const READERS_KEPT: usize = 4;

/// What went wrong.
#[derive(Debug, Error)]
pub enum StoreError {
    /// No job of this id.
    #[error("no such job")]
    NoSuchJob,
    /// No such revision of the job.
    #[error("no such revision of this job")]
    NoSuchRevision,
    /// Nothing to undo or to redo.
    #[error("there is nothing to {0}")]
    NothingTo(&'static str),
    /// The job was changed since the revision this change was based on.
    #[error("the job was changed somewhere else: it is at revision {}", .0.revision)]
    ChangedElsewhere(Box<StoredJob>),
    /// A job with this id is there already.
    #[error("there is a job with this id already")]
    AlreadyThere,
    /// A stored document can't be read.
    #[error("revision {revision} of job {id} can't be read: {source}")]
    Unreadable {
        /// The job.
        id: String,
        /// Its revision.
        revision: u64,
        /// Why.
        source: serde_json::Error,
    },
    /// No part of this id.
    #[error("no such part")]
    NoSuchPart,
    /// The part was changed since the change was begun.
    #[error("the part was changed somewhere else")]
    PartChangedElsewhere,
    /// A stored part can't be read.
    #[error("part {0} can't be read")]
    UnreadablePart(String),
    /// The data directory cannot be used.
    #[error("can't use the data folder: {0}. Check that it exists and is writable")]
    Directory(#[from] std::io::Error),
    /// No bay in this folder, where one is asked for.
    #[error(
        "no data in {}: derecho serve or derecho import creates it. Choose another folder with --data", .0.display()
    )]
    NoBay(PathBuf),
    /// The database is gone, or cut off, while copies of it are there.
    #[error(
        "the database in {folder} is missing or cut short; nothing was opened in its place. The newest backup is {copy}: restore it with `derecho restore {copy} --data {folder}`", folder = .folder.display(), copy = .copy.display()
    )]
    Gone {
        /// The data directory.
        folder: PathBuf,
        /// The newest copy.
        copy: PathBuf,
    },
    /// A server ended without closing its database, and what it had not yet brought in is gone.
    #[error(
        "Derecho was not shut down in {folder}, and the file {log} with the latest changes is missing. Put it back next to the database; or{copies} remove {mark} to go on with the database as it is", folder = .folder.display(), log = .log.display(), mark = .mark.display()
    )]
    LogGone {
        /// The data directory.
        folder: PathBuf,
        /// The log that should be there.
        log: PathBuf,
        /// The mark that says that a server was running.
        mark: PathBuf,
        /// Which copy could be put in its place, as a clause.
        copies: String,
    },
    /// The client's own name for an edit was used for another one.
    #[error("this edit key was already used for a different edit of this job")]
    KeyUsed,
    /// A file that is to be made is there already.
    #[error("{} already exists and won't be overwritten. Choose another name", .0.display())]
    Exists(PathBuf),
    /// A file that is to be read is not there.
    #[error("{} not found. Check the name and folder", .0.display())]
    NotThere(PathBuf),
    /// A copy is not sound enough to take the database's place.
    #[error("{} is damaged: {fault}. Nothing was changed; use another backup", .file.display())]
    BadCopy {
        /// The copy.
        file: PathBuf,
        /// The first thing that is wrong with it.
        fault: String,
    },
    /// Another program has the data directory.
    #[error("another Derecho is using the data folder {0}. Close it, or give this one its own with --data")]
    InUse(PathBuf),
    /// The database file has nothing in it at all.
    #[error("{0} is empty (0 bytes). Restore a backup, or move the file away to start fresh")]
    EmptyFile(PathBuf),
    /// The database was made by a newer program.
    #[error(
        "the data was last used by a newer Derecho. Use that version, or give this one its own folder with --data"
    )]
    NewerForm,
    /// The database's form can't be brought up to date.
    #[error("the database can't be brought up to date: {0}")]
    Migration(rusqlite_migration::Error),
    /// The disk is full.
    #[error("the disk is full. Free some space; everything already saved is safe")]
    Full,
    /// Another program holds the database.
    #[error("the database is held by another program. Try again in a moment")]
    Busy,
    /// The database may not be written.
    #[error("the data folder is not writable. Give this program permission to write there")]
    ReadOnly,
    /// The database is no database, or damaged.
    #[error(
        "the database is damaged: {0}. Restore a backup; keep the damaged file, parts of it may be readable"
    )]
    Damaged(String),
    /// SQLite refused.
    #[error("database error: {0}")]
    Database(rusqlite::Error),
}

impl From<rusqlite::Error> for StoreError {
    fn from(error: rusqlite::Error) -> Self {
        match error.sqlite_error_code() {
            Some(ErrorCode::DiskFull) => Self::Full,
            Some(ErrorCode::DatabaseBusy | ErrorCode::DatabaseLocked) => Self::Busy,
            Some(ErrorCode::ReadOnly | ErrorCode::CannotOpen | ErrorCode::PermissionDenied) => Self::ReadOnly,
            Some(ErrorCode::DatabaseCorrupt | ErrorCode::NotADatabase) => Self::Damaged(error.to_string()),
            _ => Self::Database(error),
        }
    }
}

impl From<rusqlite_migration::Error> for StoreError {
    fn from(error: rusqlite_migration::Error) -> Self {
        use rusqlite_migration::{Error, MigrationDefinitionError};
        match error {
            Error::MigrationDefinition(MigrationDefinitionError::DatabaseTooFarAhead) => Self::NewerForm,
            Error::RusqliteError { err, .. } => err.into(),
            other => Self::Migration(other),
        }
    }
}

/// A job as stored at one revision.
#[derive(Clone, Debug, PartialEq)]
pub struct StoredJob {
    /// Its id.
    pub id: String,
    /// The revision, from 1.
    pub revision: u64,
    /// When it was saved, in UTC.
    pub saved_at: Timestamp,
    /// Whether there is a change to undo.
    pub can_undo: bool,
    /// Whether there is an undone change to bring back.
    pub can_redo: bool,
    /// The client's name for the edit that made this revision, where it gave one.
    pub edit: Option<String>,
    /// The document.
    pub job: Job,
}

/// A job in the bay's list.
#[derive(Clone, Debug, PartialEq)]
pub struct ListedJob {
    /// Its id.
    pub id: String,
    /// Its title.
    pub title: String,
    /// Its revision.
    pub revision: u64,
    /// When it was saved, in UTC.
    pub saved_at: Timestamp,
    /// Its card, by the rules it was drawn by: whoever shows it draws it anew where those are not today's.
    pub card: KeptCard,
}

/// How a revision came about.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum RevisionKind {
    /// Made new.
    Created,
    /// A change was saved.
    Saved,
    /// A change was taken back.
    Undone,
    /// A taken-back change was brought back.
    Redone,
    /// An earlier revision was brought back.
    Restored,
}

impl RevisionKind {
    /// The stored and published word.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Created => "created",
            Self::Saved => "saved",
            Self::Undone => "undone",
            Self::Redone => "redone",
            Self::Restored => "restored",
        }
    }

    fn of(word: &str) -> Self {
        [Self::Created, Self::Undone, Self::Redone, Self::Restored]
            .into_iter()
            .find(|kind| kind.word() == word)
            .unwrap_or(Self::Saved)
    }
}

/// A line of a job's history.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct HistoryLine {
    /// The revision.
    pub revision: u64,
    /// How it came about.
    pub kind: RevisionKind,
    /// When, in UTC.
    pub saved_at: Timestamp,
}

/// What a change is based on.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct BasedOn {
    /// The revision it was begun at.
    pub revision: u64,
    /// The client's own name for the edit, so that sent twice it is made once.
    pub edit: Option<String>,
}

impl From<u64> for BasedOn {
    fn from(revision: u64) -> Self {
        Self { revision, edit: None }
    }
}

/// Where undo and redo lead from a revision.
#[derive(Clone, Copy, Default)]
struct Links {
    undo_to: Option<u64>,
    redo_to: Option<u64>,
}

/// The jobs on disk.
#[derive(Debug)]
pub struct Store {
    writer: Mutex<Connection>,
    readers: Mutex<Vec<Connection>>,
    bay: Bay,
    texts: Texts,
    path: PathBuf,
}

/// A document made ready to be stored, outside of any lock: written once, with the card the bay shows of it. Without a
/// card the bay draws one when it is looked at next.
#[derive(Clone, Debug)]
pub struct Ready {
    job: Job,
    text: String,
    card: KeptCard,
}

/// The card the bay shows of a job, as JSON text, and by which rules it was drawn.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct KeptCard {
    /// The card; empty where none was drawn yet.
    pub card: String,
    /// The rules it was drawn by; empty where none was.
    pub by: String,
}

impl Ready {
    /// Writes a document, to be stored with its card.
    ///
    /// # Errors
    /// Where it has no JSON form.
    pub fn new(job: Job, card: KeptCard) -> Result<Self, StoreError> {
        let unwritten = |source| StoreError::Unreadable { id: String::new(), revision: 0, source };
        let text = written(&job).map_err(unwritten)?;
        Ok(Self { job, text, card })
    }

    /// The document.
    #[must_use]
    pub const fn job(&self) -> &Job {
        &self.job
    }

    /// The card the bay shows of it.
    #[must_use]
    pub const fn card(&self) -> &KeptCard {
        &self.card
    }

    /// Its JSON text, every digit.
    #[must_use]
    pub fn text(&self) -> &str {
        &self.text
    }
}

/// A job made ready to be stored beside others, in one transaction that does nothing but write.
#[derive(Debug)]
pub struct Prepared {
    id: String,
    title: String,
    search: String,
    card: KeptCard,
    packed: packed::Packed,
}

impl Prepared {
    /// Makes a new job ready under an id.
    ///
    /// # Errors
    /// Where its document cannot be written.
    pub fn of(id: String, ready: &Ready) -> Result<Self, StoreError> {
        let packed = packed::pack(&ready.text, None)?;
        let job = &ready.job;
        let card = ready.card.clone();
        Ok(Self { title: job.title.clone(), search: searchable(job), card, packed, id })
    }

    /// Its id.
    #[must_use]
    pub fn id(&self) -> &str {
        &self.id
    }

    /// Its title.
    #[must_use]
    pub fn title(&self) -> &str {
        &self.title
    }
}

/// A job that was taken out of the bay.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct RemovedJob {
    /// Its id.
    pub id: String,
    /// Its title.
    pub title: String,
    /// When it was saved last, in UTC.
    pub saved_at: Timestamp,
}

impl Store {
    /// Opens the database in `directory`, where there is one.
    ///
    /// # Errors
    /// [`StoreError::NoBay`] where there is none and no copy of one; else as [`Store::open`].
    pub fn open_existing(directory: &Path) -> Result<Self, StoreError> {
        let path = directory.join(DATABASE_FILE);
        if !path.exists() && safekeeping::newest_copy(directory).is_none() {
            return Err(StoreError::NoBay(directory.to_owned()));
        }
        Self::open(directory)
    }

    /// Opens the database in `directory`, making both where they are missing.
    ///
    /// # Errors
    /// Where the directory cannot be used, the database is of a newer program, or it is gone while copies of it are
    /// there: never is an empty one opened in its place.
    pub fn open(directory: &Path) -> Result<Self, StoreError> {
        folder_of_ones_own(directory)?;
        let path = directory.join(DATABASE_FILE);
        // One after another: two programs that bring one database up to date would do it twice.
        let opening = File::create(directory.join(OPENING_FILE))?;
        opening.lock()?;
        safekeeping::is_whole(directory)?;
        // Nobody holds it: then a server that did has ended without closing it.
        let unclosed = File::options()
            .read(true)
            .write(true)
            .open(directory.join(SERVING_FILE))
            .ok()
            .filter(|mark| mark.try_lock().is_ok());
        if let Some(mark) = &unclosed {
            Held::was_closed(mark, directory)?;
        }
        private_from_the_start(&path)?;
        let mut writer = connect(&path)?;
        safekeeping::set_aside(&writer, &path)?;
        migrations::all().to_latest(&mut writer)?;
        private(&path)?;
        for log in ["-wal", "-shm"] {
            let log = directory.join(format!("{DATABASE_FILE}{log}"));
            if log.exists() {
                private(&log)?;
            }
        }
        if let Some(mark) = unclosed {
            // What it left is read in.
            mark.set_len(0)?;
        }
        opening.unlock()?;
        let bay = Bay::new(connect(&path)?);
        Ok(Self {
            writer: Mutex::new(writer),
            readers: Mutex::new(Vec::new()),
            bay,
            texts: Texts::default(),
            path,
        })
    }

    /// The directory it is in.
    #[must_use]
    pub fn directory(&self) -> &Path {
        self.path.parent().unwrap_or(Path::new("."))
    }

    // A poisoned lock means a panic between two statements; the transaction it was in
    // was rolled back when its guard was dropped, so the connection is sound.
    fn writer(&self) -> MutexGuard<'_, Connection> {
        self.writer.lock().unwrap_or_else(std::sync::PoisonError::into_inner)
    }

    fn read<T>(&self, read: impl FnOnce(&Connection) -> Result<T, StoreError>) -> Result<T, StoreError> {
        let idle = || self.readers.lock().unwrap_or_else(std::sync::PoisonError::into_inner);
        let kept = idle().pop();
        let connection = match kept {
            Some(connection) => connection,
            None => connect(&self.path)?,
        };
        let answer = read(&connection);
        let mut kept = idle();
        if kept.len() < READERS_KEPT {
            kept.push(connection);
        }
        answer
    }

    /// Stores a new job as its first revision.
    ///
    /// # Errors
    /// Where the id is taken or the disk refuses.
    pub fn create(&self, id: &str, job: &Job, now: Timestamp) -> Result<StoredJob, StoreError> {
        self.create_ready(id, Ready::new(job.clone(), KeptCard::default())?, now)
    }

    /// The same of a document that is written already, with its card.
    ///
    /// # Errors
    /// As [`Store::create`].
    pub fn create_ready(&self, id: &str, ready: Ready, now: Timestamp) -> Result<StoredJob, StoreError> {
        let mut writer = self.writer();
        let transaction = writer.transaction_with_behavior(TransactionBehavior::Immediate)?;
        if transaction.query_row(sql::JOB_EXISTS, [id], |_| Ok(())).optional()?.is_some() {
            return Err(StoreError::AlreadyThere);
        }
        let Ready { job, text, card } = ready;
        transaction.execute(
            sql::ADD_JOB,
            params![id, job.title, searchable(&job), card.card, now.to_string(), card.by],
        )?;
        let made = Made { kind: RevisionKind::Created, links: Links::default(), at: now, edit: None };
        self.add_revision(&transaction, (id, 1), &text, &made)?;
        transaction.commit()?;
        Ok(StoredJob {
            id: id.to_owned(),
            revision: 1,
            saved_at: now,
            can_undo: false,
            can_redo: false,
            edit: None,
            job,
        })
    }

    /// Stores new jobs, all of them or none, in one transaction that does nothing but write: what takes time was done
    /// when they were made ready.
    ///
    /// # Errors
    /// Where an id is taken or the disk refuses; nothing is stored then.
    pub fn create_all(&self, jobs: &[Prepared], now: Timestamp) -> Result<(), StoreError> {
        let mut writer = self.writer();
        let transaction = writer.transaction_with_behavior(TransactionBehavior::Immediate)?;
        let at = now.to_string();
        for Prepared { id, title, search, card, packed } in jobs {
            if transaction.prepare_cached(sql::JOB_EXISTS)?.query_row([id], |_| Ok(())).optional()?.is_some()
            {
                return Err(StoreError::AlreadyThere);
            }
            transaction
                .prepare_cached(sql::ADD_JOB)?
                .execute(params![id, title, search, card.card, at, card.by])?;
            let none: Option<i64> = None;
            let kind = RevisionKind::Created.word();
            let edit: Option<&str> = None;
            transaction.prepare_cached(sql::ADD_REVISION)?.execute(params![
                id,
                1,
                packed.bytes,
                none,
                kind,
                none,
                none,
                at,
                edit
            ])?;
        }
        Ok(transaction.commit()?)
    }

    /// Jobs that were taken out of the bay, last saved first.
    ///
    /// # Errors
    /// Where the database refuses.
    pub fn removed(&self) -> Result<Vec<RemovedJob>, StoreError> {
        self.read(|connection| {
            let mut statement = connection.prepare_cached(sql::REMOVED)?;
            let rows = statement.query_map([], |row| {
                Ok(RemovedJob { id: row.get(0)?, title: lossy(row, 1)?, saved_at: time_or_none(row, 2) })
            })?;
            Ok(rows.collect::<Result<Vec<_>, _>>()?)
        })
    }

    /// Puts a job that was taken out back into the bay, as it was.
    ///
    /// # Errors
    /// [`StoreError::NoSuchJob`] where no such job was taken out.
    pub fn bring_back(&self, id: &str) -> Result<StoredJob, StoreError> {
        let brought = self.writer().execute(sql::BRING_BACK, [id])?;
        if brought == 0 {
            return Err(StoreError::NoSuchJob);
        }
        self.get(id)
    }

    /// The job as it stands.
    ///
    /// # Errors
    /// Where there is none.
    pub fn get(&self, id: &str) -> Result<StoredJob, StoreError> {
        self.read(|connection| current(connection, id))
    }

    /// Saves a change based on revision `based_on`. A document equal to the stored one
    /// makes no revision.
    ///
    /// # Errors
    /// [`StoreError::ChangedElsewhere`] with the newer job where `based_on` is not the
    /// revision it stands at; nothing is written then.
    pub fn save(
        &self,
        id: &str,
        based_on: impl Into<BasedOn>,
        job: &Job,
        now: Timestamp,
    ) -> Result<StoredJob, StoreError> {
        self.save_ready(id, based_on, Ready::new(job.clone(), KeptCard::default())?, now)
    }

    /// The same of a document that is written already, with its card: the transaction neither reads a document as a job
    /// nor works anything out.
    ///
    /// # Errors
    /// As [`Store::save`].
    pub fn save_ready(
        &self,
        id: &str,
        based_on: impl Into<BasedOn>,
        ready: Ready,
        now: Timestamp,
    ) -> Result<StoredJob, StoreError> {
        let based_on = based_on.into();
        let named = based_on.edit.is_some().then(|| ready.text.clone());
        let stored = self.change(id, &based_on, now, |transaction, head| {
            let before = self.text(transaction, id, head.revision)?;
            if says_the_same(&before, &ready) {
                return Ok(Next::Stays(Box::new(ready.job)));
            }
            let links = Links { undo_to: Some(head.revision), redo_to: None };
            Ok(Next::Goes(Box::new(ready), RevisionKind::Saved, links))
        })?;
        // One name for two edits: the second one was not made, and must not be called so.
        if let Some(text) = named
            && written(&stored.job).ok().as_ref() != Some(&text)
        {
            return Err(StoreError::KeyUsed);
        }
        Ok(stored)
    }

    /// Puts the card the bay shows of a job, where it stands at that revision still.
    ///
    /// # Errors
    /// Where the disk refuses.
    pub fn put_card(&self, id: &str, revision: u64, card: &KeptCard) -> Result<(), StoreError> {
        let params = params![id, card.card, card.by, revision as i64];
        self.writer().execute(sql::DRAW_CARD_BY, params)?;
        Ok(())
    }

    /// Takes the last change back, as a new revision.
    ///
    /// # Errors
    /// As [`Store::save`], or where there is nothing to undo.
    pub fn undo(
        &self,
        id: &str,
        based_on: impl Into<BasedOn>,
        now: Timestamp,
    ) -> Result<StoredJob, StoreError> {
        self.change(id, &based_on.into(), now, |transaction, head| {
            let links = links_of(transaction, id, head.revision)?;
            let target = links.undo_to.ok_or(StoreError::NothingTo("undo"))?;
            let before = links_of(transaction, id, target)?;
            let job = document(transaction, id, target)?;
            let links = Links { undo_to: before.undo_to, redo_to: Some(head.revision) };
            Next::again(job, RevisionKind::Undone, links)
        })
    }

    /// Brings the last undone change back, as a new revision.
    ///
    /// # Errors
    /// As [`Store::save`], or where there is nothing to redo.
    pub fn redo(
        &self,
        id: &str,
        based_on: impl Into<BasedOn>,
        now: Timestamp,
    ) -> Result<StoredJob, StoreError> {
        self.change(id, &based_on.into(), now, |transaction, head| {
            let target =
                links_of(transaction, id, head.revision)?.redo_to.ok_or(StoreError::NothingTo("redo"))?;
            let links = links_of(transaction, id, target)?;
            let job = document(transaction, id, target)?;
            Next::again(job, RevisionKind::Redone, links)
        })
    }

    /// Brings an earlier revision back, as a new one that can be undone.
    ///
    /// # Errors
    /// As [`Store::save`], or where there is no such revision.
    pub fn restore(
        &self,
        id: &str,
        based_on: impl Into<BasedOn>,
        revision: u64,
        now: Timestamp,
    ) -> Result<StoredJob, StoreError> {
        self.change(id, &based_on.into(), now, |transaction, head| {
            let job = document(transaction, id, revision)?;
            let links = Links { undo_to: Some(head.revision), redo_to: None };
            Next::again(job, RevisionKind::Restored, links)
        })
    }

    fn change(
        &self,
        id: &str,
        based_on: &BasedOn,
        now: Timestamp,
        next: impl FnOnce(&Transaction<'_>, &Head) -> Result<Next, StoreError>,
    ) -> Result<StoredJob, StoreError> {
        let mut writer = self.writer();
        let transaction = writer.transaction_with_behavior(TransactionBehavior::Immediate)?;
        let head = head(&transaction, id)?;
        // The same edit again, whose answer was lost on the way: it is done.
        if based_on.edit.is_some() && head.edit == based_on.edit {
            return current(&transaction, id);
        }
        if head.revision != based_on.revision {
            return Err(StoreError::ChangedElsewhere(Box::new(current(&transaction, id)?)));
        }
        let (ready, kind, links) = match next(&transaction, &head)? {
            Next::Stays(job) => return Ok(head.with(id, *job)),
            Next::Goes(ready, kind, links) => (ready, kind, links),
        };
        let Ready { job, text, card } = *ready;
        let revision = head.revision + 1;
        let made = Made { kind, links, at: now, edit: based_on.edit.as_deref() };
        self.add_revision(&transaction, (id, revision), &text, &made)?;
        transaction.execute(
            sql::UPDATE_JOB,
            params![id, job.title, searchable(&job), card.card, now.to_string(), revision as i64, card.by],
        )?;
        transaction.commit()?;
        // Only now: one that was rolled back would be written anew with another text.
        self.texts.put(id, revision, &text.into());
        Ok(StoredJob {
            id: id.to_owned(),
            revision,
            edit: based_on.edit.clone(),
            saved_at: now,
            can_undo: links.undo_to.is_some(),
            can_redo: links.redo_to.is_some(),
            job,
        })
    }

    /// The text of a revision's document.
    fn text(&self, connection: &Connection, id: &str, revision: u64) -> Result<Arc<str>, StoreError> {
        if let Some(kept) = self.texts.get(id, revision) {
            return Ok(kept);
        }
        let text: Arc<str> = text_of(connection, id, revision)?.into();
        self.texts.put(id, revision, &text);
        Ok(text)
    }

    fn add_revision(
        &self,
        transaction: &Transaction<'_>,
        (id, revision): (&str, u64),
        text: &str,
        made: &Made<'_>,
    ) -> Result<(), StoreError> {
        let since = revision.saturating_sub(packed::WHOLE_EVERY) as i64;
        let whole: Option<i64> =
            transaction.prepare_cached(sql::WHOLE)?.query_row(params![id, since], |row| row.get(0))?;
        let earlier = match whole.map(i64::unsigned_abs) {
            Some(number) => Some((number, self.text(transaction, id, number)?)),
            None => None,
        };
        let packed = packed::pack(text, earlier.as_ref().map(|(number, earlier)| (*number, &**earlier)))?;
        let link = |to: Option<u64>| to.map(|to| to as i64);
        transaction.execute(
            sql::ADD_REVISION,
            params![
                id,
                revision as i64,
                packed.bytes,
                link(packed.against),
                made.kind.word(),
                link(made.links.undo_to),
                link(made.links.redo_to),
                made.at.to_string(),
                made.edit,
            ],
        )?;
        Ok(())
    }

    /// Takes a job out of the bay. Its revisions stay in the database.
    ///
    /// # Errors
    /// As [`Store::save`].
    pub fn remove(&self, id: &str, based_on: u64) -> Result<(), StoreError> {
        let mut writer = self.writer();
        let transaction = writer.transaction_with_behavior(TransactionBehavior::Immediate)?;
        let stored = current(&transaction, id)?;
        if stored.revision != based_on {
            return Err(StoreError::ChangedElsewhere(Box::new(stored)));
        }
        transaction.execute(sql::REMOVE_JOB, [id])?;
        transaction.commit()?;
        Ok(())
    }

    /// Jobs whose title or vehicle holds `search`, last saved first, and how many there
    /// are in all.
    ///
    /// # Errors
    /// Where the database refuses.
    pub fn list(&self, search: &str, limit: u32, offset: u32) -> Result<(Vec<ListedJob>, u64), StoreError> {
        self.list_by(search, limit, offset, BayOrder::Newest)
    }

    /// The same in an order of choice.
    ///
    /// # Errors
    /// Where the database refuses.
    pub fn list_by(
        &self,
        search: &str,
        limit: u32,
        offset: u32,
        order: BayOrder,
    ) -> Result<(Vec<ListedJob>, u64), StoreError> {
        let (places, total) =
            self.bay.page(&search.to_lowercase(), limit as usize, offset as usize, order)?;
        let rows = self.read(|connection| {
            let mut line = connection.prepare_cached(sql::LISTED)?;
            // One that was taken out since is not there any more.
            let rows = places.into_iter().map(|place| line.query_row([place], listed).optional());
            Ok(rows.collect::<Result<Vec<_>, _>>()?)
        })?;
        Ok((rows.into_iter().flatten().collect(), total))
    }

    /// Every job of the bay with its newest revision, last saved first.
    ///
    /// # Errors
    /// Where the database refuses.
    pub fn newest(&self) -> Result<Vec<(String, u64)>, StoreError> {
        self.read(|connection| {
            let mut statement = connection.prepare_cached(sql::NEWEST)?;
            let rows = statement.query_map([], |row| Ok((row.get(0)?, row.get::<_, i64>(1)? as u64)))?;
            Ok(rows.collect::<Result<Vec<_>, _>>()?)
        })
    }

    /// The history of a job, newest first.
    ///
    /// # Errors
    /// Where no such job.
    pub fn history(&self, id: &str) -> Result<Vec<HistoryLine>, StoreError> {
        self.read(|connection| {
            current(connection, id)?;
            let mut statement = connection.prepare_cached(sql::HISTORY)?;
            let rows = statement.query_map([id], |row| {
                let kind: String = row.get(1)?;
                Ok(HistoryLine {
                    revision: number(row, 0)?,
                    kind: RevisionKind::of(&kind),
                    saved_at: time(row, 2)?,
                })
            })?;
            Ok(rows.collect::<Result<_, _>>()?)
        })
    }

    /// The document of one revision.
    ///
    /// # Errors
    /// Where no such job or revision.
    pub fn revision(&self, id: &str, revision: u64) -> Result<Job, StoreError> {
        self.read(|connection| {
            // A job that was taken out of the bay is out with all its revisions.
            if connection.prepare_cached(sql::IN_THE_BAY)?.query_row([id], |_| Ok(())).optional()?.is_none() {
                return Err(StoreError::NoSuchJob);
            }
            document(connection, id, revision)
        })
    }
}

/// A data directory held for one server: until it is dropped no other gets it.
#[derive(Debug)]
pub struct Held {
    mark: File,
    /// Whether the mark goes with it: not where it is another's, whose database is not closed yet.
    clears: AtomicBool,
}

/// Stands in the mark while a server runs.
const RUNNING: &[u8] = b"running\n";

impl Held {
    /// Writes down that a server runs, so that one that ends without closing its database is known.
    ///
    /// # Errors
    /// Where the mark cannot be written.
    pub fn runs(&self) -> Result<(), StoreError> {
        use std::io::{Seek as _, Write as _};
        let mut mark = &self.mark;
        mark.set_len(0)?;
        mark.rewind()?;
        mark.write_all(RUNNING)?;
        self.is_closed();
        Ok(mark.sync_all()?)
    }

    /// From now on the mark goes when this is dropped: what is in the directory then is whole.
    pub fn is_closed(&self) {
        self.clears.store(true, Ordering::Relaxed);
    }

    /// Whether the server before closed its database, or left the log in which what was saved last is.
    ///
    /// # Errors
    /// [`StoreError::LogGone`] where it is not there.
    pub fn closed_before(&self, directory: &Path) -> Result<(), StoreError> {
        Self::was_closed(&self.mark, directory)
    }

    fn was_closed(mark: &File, directory: &Path) -> Result<(), StoreError> {
        let log = directory.join(format!("{DATABASE_FILE}-wal"));
        let running = mark.metadata()?.len() > 0;
        if !running || log.exists() || !directory.join(DATABASE_FILE).exists() {
            return Ok(());
        }
        let copies = safekeeping::newest_copy(directory).map_or_else(String::new, |copy| {
            format!(
                " put the newest copy in its place with `derecho restore {} --data {}`, or",
                copy.display(),
                directory.display()
            )
        });
        Err(StoreError::LogGone {
            folder: directory.to_owned(),
            log,
            mark: directory.join(SERVING_FILE),
            copies,
        })
    }
}

impl Drop for Held {
    fn drop(&mut self) {
        // The lock goes with the file.
        if self.clears.load(Ordering::Relaxed) {
            let _ = self.mark.set_len(0);
        }
    }
}

/// Holds a data directory for one server: until it is dropped no other gets it.
///
/// # Errors
/// [`StoreError::InUse`] where another has it; where the directory cannot be used.
pub fn hold(directory: &Path) -> Result<Held, StoreError> {
    folder_of_ones_own(directory)?;
    let file = File::options()
        .read(true)
        .write(true)
        .create(true)
        .truncate(false)
        .open(directory.join(SERVING_FILE))?;
    match file.try_lock() {
        Ok(()) => Ok(Held { mark: file, clears: AtomicBool::new(false) }),
        Err(TryLockError::WouldBlock) => Err(StoreError::InUse(directory.to_owned())),
        Err(TryLockError::Error(error)) => Err(error.into()),
    }
}

/// Makes the data directory where it is missing, for its owner alone: addresses and names of people are in it.
fn folder_of_ones_own(directory: &Path) -> std::io::Result<()> {
    let mut builder = std::fs::DirBuilder::new();
    builder.recursive(true);
    #[cfg(unix)]
    std::os::unix::fs::DirBuilderExt::mode(&mut builder, 0o700);
    builder.create(directory)
}

#[cfg(unix)]
fn private(file: &Path) -> std::io::Result<()> {
    std::fs::set_permissions(file, std::os::unix::fs::PermissionsExt::from_mode(0o600))
}

/// Makes a database file for its owner alone before SQLite opens it: its log and index take the file's rights.
#[cfg(unix)]
fn private_from_the_start(file: &Path) -> std::io::Result<()> {
    use std::os::unix::fs::OpenOptionsExt as _;
    if !file.exists() {
        File::options().write(true).create_new(true).mode(0o600).open(file)?;
    }
    private(file)
}

#[cfg(not(unix))]
#[expect(clippy::unnecessary_wraps, reason = "as where files have modes")]
fn private_from_the_start(_file: &Path) -> std::io::Result<()> {
    Ok(())
}

#[cfg(not(unix))]
#[expect(clippy::unnecessary_wraps, reason = "as where files have modes")]
fn private(_file: &Path) -> std::io::Result<()> {
    Ok(())
}

fn connect(path: &Path) -> Result<Connection, rusqlite::Error> {
    let connection = Connection::open(path)?;
    // Outside migrations: they hold for a connection, not for the file.
    connection.pragma_update(None, "journal_mode", "WAL")?;
    connection.pragma_update(None, "synchronous", "FULL")?;
    connection.pragma_update(None, "foreign_keys", "ON")?;
    connection.busy_timeout(std::time::Duration::from_secs(5))?;
    Ok(connection)
}

fn searchable(job: &Job) -> String {
    format!("{}\n{}", job.title, job.rig.vehicle).to_lowercase()
}

/// How a revision is made.
struct Made<'a> {
    kind: RevisionKind,
    links: Links,
    at: Timestamp,
    edit: Option<&'a str>,
}

fn number(row: &Row<'_>, index: usize) -> rusqlite::Result<u64> {
    row.get::<_, i64>(index).map(i64::unsigned_abs)
}

fn time(row: &Row<'_>, index: usize) -> rusqlite::Result<Timestamp> {
    row.get::<_, String>(index)?.parse().map_err(|error| {
        rusqlite::Error::FromSqlConversionFailure(index, rusqlite::types::Type::Text, Box::new(error))
    })
}

fn listed(row: &Row<'_>) -> rusqlite::Result<ListedJob> {
    // A damaged row is listed as far as it can be read: its job says more when it is opened.
    Ok(ListedJob {
        id: row.get(0)?,
        title: lossy(row, 1)?,
        revision: number(row, 2)?,
        saved_at: time_or_none(row, 3),
        card: KeptCard { card: lossy(row, 4)?, by: lossy(row, 5)? },
    })
}

/// A text as far as it is one: what is no text, or not in UTF-8, stands as marks.
pub(crate) fn lossy(row: &Row<'_>, index: usize) -> rusqlite::Result<String> {
    use rusqlite::types::ValueRef;
    Ok(match row.get_ref(index)? {
        ValueRef::Text(bytes) | ValueRef::Blob(bytes) => String::from_utf8_lossy(bytes).into_owned(),
        _ => String::new(),
    })
}

/// A time, or the beginning of all times where it can't be read.
fn time_or_none(row: &Row<'_>, index: usize) -> Timestamp {
    time(row, index).unwrap_or(Timestamp::UNIX_EPOCH)
}

/// Where a job stands, without its document.
struct Head {
    revision: u64,
    saved_at: Timestamp,
    can_undo: bool,
    can_redo: bool,
    edit: Option<String>,
}

impl Head {
    fn with(self, id: &str, job: Job) -> StoredJob {
        let Self { revision, saved_at, can_undo, can_redo, edit } = self;
        StoredJob { id: id.to_owned(), revision, saved_at, can_undo, can_redo, edit, job }
    }
}

/// What becomes of a job by a change.
enum Next {
    /// It stays at its revision: nothing of it is changed.
    Stays(Box<Job>),
    /// A new revision is made.
    Goes(Box<Ready>, RevisionKind, Links),
}

impl Next {
    /// An earlier document again; its card is drawn once it is looked at.
    fn again(job: Job, kind: RevisionKind, links: Links) -> Result<Self, StoreError> {
        Ok(Self::Goes(Box::new(Ready::new(job, KeptCard::default())?), kind, links))
    }
}

/// Whether a stored document is the one that is to be saved. Both were written by one writer: where the stored one is of
/// today's form their texts tell, and nothing is read.
fn says_the_same(stored: &str, ready: &Ready) -> bool {
    if stored == ready.text {
        return true;
    }
    let of_today =
        stored.starts_with(&format!("{{\"format\":\"derecho-job\",\"version\":{DOCUMENT_VERSION},"));
    !of_today && migrate::read(stored).is_ok_and(|job| job == ready.job)
}

fn head(connection: &Connection, id: &str) -> Result<Head, StoreError> {
    let row = connection
        .prepare_cached(sql::CURRENT)?
        .query_row([id], |row| {
            let undo_to: Option<i64> = row.get(2)?;
            let redo_to: Option<i64> = row.get(3)?;
            Ok(Head {
                revision: number(row, 0)?,
                saved_at: time(row, 1)?,
                can_undo: undo_to.is_some(),
                can_redo: redo_to.is_some(),
                edit: row.get(4)?,
            })
        })
        .optional()?;
    row.ok_or(StoreError::NoSuchJob)
}

fn current(connection: &Connection, id: &str) -> Result<StoredJob, StoreError> {
    let head = head(connection, id)?;
    let job = document(connection, id, head.revision)?;
    Ok(head.with(id, job))
}

fn links_of(connection: &Connection, id: &str, revision: u64) -> Result<Links, StoreError> {
    connection
        .prepare_cached(sql::LINKS)?
        .query_row(params![id, revision as i64], |row| {
            let link = |index| row.get::<_, Option<i64>>(index).map(|to| to.map(i64::unsigned_abs));
            Ok(Links { undo_to: link(0)?, redo_to: link(1)? })
        })
        .optional()?
        .ok_or(StoreError::NoSuchRevision)
}

fn document(connection: &Connection, id: &str, revision: u64) -> Result<Job, StoreError> {
    read_document(id, revision, &text_of(connection, id, revision)?)
}

/// The text of a revision's document.
fn text_of(connection: &Connection, id: &str, revision: u64) -> Result<String, StoreError> {
    let row = connection
        .prepare_cached(sql::DOCUMENT)?
        .query_row(params![id, revision as i64], |row| {
            Ok((row.get(0)?, row.get::<_, Option<Vec<u8>>>(1)?, row.get::<_, Option<i64>>(2)?))
        })
        .optional()?;
    let (plain, packed, against): (String, _, _) = row.ok_or(StoreError::NoSuchRevision)?;
    let Some(packed) = packed else { return Ok(plain) };
    // One step: what a revision is packed against stands by itself.
    let earlier = match against.map(i64::unsigned_abs) {
        Some(number) if number < revision => Some(text_of(connection, id, number)?),
        _ => None,
    };
    packed::unpack(&packed, earlier.as_deref())
        .map_err(|error| StoreError::Damaged(format!("revision {revision} of job {id}: {error}")))
}

fn read_document(id: &str, revision: u64, text: &str) -> Result<Job, StoreError> {
    migrate::read(text).map_err(|source| StoreError::Unreadable { id: id.to_owned(), revision, source })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn now() -> Timestamp {
        Timestamp::from_second(1_790_000_000).unwrap()
    }

    #[test]
    fn a_full_disk_is_called_so_and_what_was_saved_stays() {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        store.create("a", &Job::new("one"), now()).unwrap();
        let pages: i64 = store.writer().query_row("PRAGMA page_count", [], |row| row.get(0)).unwrap();
        store.writer().pragma_update(None, "max_page_count", pages).unwrap();
        // Noise does not pack: sooner or later there is no page left.
        let noise = |seed: u64| -> String {
            let mut state = seed;
            let mut letter = || {
                state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
                char::from(b'!' + (state >> 33) as u8 % 90)
            };
            (0..20_000).map(|_| letter()).collect()
        };
        let full = (1..50).find_map(|count| {
            let job = Job { notes: noise(count), ..Job::new("one") };
            let revision = store.get("a").unwrap().revision;
            store.save("a", revision, &job, now()).err().map(|error| (error, revision))
        });
        let (error, revision) = full.unwrap();
        assert!(matches!(error, StoreError::Full), "{error}");
        assert_eq!(store.get("a").unwrap().revision, revision);
        // With room again it goes on.
        store.writer().pragma_update(None, "max_page_count", 1_000_000).unwrap();
        assert_eq!(store.save("a", revision, &Job::new("two"), now()).unwrap().revision, revision + 1);
    }

    #[test]
    fn a_database_held_by_another_is_called_busy() {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        store.create("a", &Job::new("one"), now()).unwrap();
        let other = Connection::open(directory.path().join(DATABASE_FILE)).unwrap();
        other.execute_batch("BEGIN IMMEDIATE").unwrap();
        store.writer().busy_timeout(std::time::Duration::ZERO).unwrap();
        assert!(matches!(store.save("a", 1, &Job::new("two"), now()), Err(StoreError::Busy)));
        other.execute_batch("ROLLBACK").unwrap();
        assert_eq!(store.save("a", 1, &Job::new("two"), now()).unwrap().revision, 2);
    }
}
