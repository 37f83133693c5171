//! The lines of the bay, newest first, kept in memory for looking through as somebody types: a text inside a word
//! is found as well as at its beginning, which no index of SQLite's finds for one or two letters.
//!
//! Not here: the cards themselves (`lib`), which are read for one page alone.

use std::sync::{Arc, Mutex, PoisonError};

use jiff::civil::Date;
use memchr::memmem::Finder;
use rusqlite::Connection;

use crate::{StoreError, sql};

/// One job of the bay.
#[derive(Debug)]
struct Line {
    /// Its row.
    place: i64,
    /// What is looked through, lower case.
    search: Box<str>,
    /// The first day something is due after the work, as SQLite writes days.
    due: Option<Box<str>>,
    /// Whether it waits for somebody to go on.
    waits: bool,
}

/// In which order the bay is listed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum BayOrder {
    /// Last saved first.
    Newest,
    /// What is due by this day first, the longest overdue before the others; then what waits; then the rest. Among
    /// equals, last saved first.
    WaitingFirst(Date),
}

/// How a line ranks: what is due, by its day; what waits; the rest.
fn rank<'a>(line: &'a Line, today: &str) -> (u8, &'a str) {
    match &line.due {
        // Days as SQLite writes them sort as text.
        Some(due) if **due <= *today => (0, due),
        _ if line.waits => (1, ""),
        _ => (2, ""),
    }
}

/// The lines as they were at one state of the database.
#[derive(Debug)]
struct Read {
    /// SQLite's own count of changes made through other connections than this one.
    version: i64,
    lines: Arc<[Line]>,
}

/// All lines, read again where the database was changed since, by whomever.
#[derive(Debug)]
pub(crate) struct Bay {
    /// Reads alone, so that every change is one of another connection.
    connection: Mutex<(Connection, Option<Read>)>,
}

impl Bay {
    pub(crate) const fn new(connection: Connection) -> Self {
        Self { connection: Mutex::new((connection, None)) }
    }

    /// The rows of a page of those that hold `wanted` (lower case), and how many hold it in all.
    pub(crate) fn page(
        &self,
        wanted: &str,
        limit: usize,
        offset: usize,
        order: BayOrder,
    ) -> Result<(Vec<i64>, u64), StoreError> {
        let lines = self.lines()?;
        let finder = Finder::new(wanted);
        let mut found: Vec<&Line> =
            lines.iter().filter(|line| finder.find(line.search.as_bytes()).is_some()).collect();
        if let BayOrder::WaitingFirst(today) = order {
            let today = today.to_string();
            found.sort_by(|a, b| rank(a, &today).cmp(&rank(b, &today)));
        }
        let rows = found.iter().skip(offset).take(limit).map(|line| line.place).collect();
        Ok((rows, found.len() as u64))
    }

    fn lines(&self) -> Result<Arc<[Line]>, StoreError> {
        let mut held = self.connection.lock().unwrap_or_else(PoisonError::into_inner);
        let (connection, read) = &mut *held;
        // Asked for before the lines are read: what is changed in between is read once more, never missed.
        let version = connection.pragma_query_value(None, "data_version", |row| row.get(0))?;
        if let Some(read) = read.as_ref().filter(|read| read.version == version) {
            return Ok(Arc::clone(&read.lines));
        }
        let mut statement = connection.prepare_cached(sql::BAY)?;
        let rows = statement.query_map([], |row| {
            let waits: Option<bool> = row.get(3).unwrap_or_default();
            Ok(Line {
                place: row.get(0)?,
                // A damaged line is found by nothing that is typed, and listed all the same.
                search: crate::lossy(row, 1)?.into(),
                due: row.get(2).unwrap_or_default(),
                waits: waits.unwrap_or_default(),
            })
        })?;
        let lines: Arc<[Line]> = rows.collect::<Result<_, _>>()?;
        drop(statement);
        *read = Some(Read { version, lines: Arc::clone(&lines) });
        Ok(lines)
    }
}
