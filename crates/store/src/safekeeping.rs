//! Copies of a whole database, taken while it runs, and whether one is sound.
//!
//! Not here: when the server takes them (`serve` in the server).

use std::fs;
use std::path::{Path, PathBuf};

use derecho_document::Job;
use jiff::civil::Date;
use rusqlite::{Connection, OpenFlags};

use crate::{DATABASE_FILE, Store, StoreError, hold, migrations, private, sql, text_of};

/// Where the daily copies are, in the data directory.
pub const COPIES: &str = "copies";
/// Copies of the last so many days are kept, and of so many weeks before them one each.
const DAYS: usize = 7;
const WEEKS: usize = 4;

/// What [`check`] found.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct CheckedBay {
    /// Jobs, those taken out of the bay too.
    pub jobs: usize,
    /// Their revisions.
    pub revisions: usize,
    /// Everything that is wrong, one line each.
    pub faults: Vec<String>,
}

impl Store {
    /// Writes the database as it is now to a new file, while it is in use.
    ///
    /// # Errors
    /// Where the file is there already or cannot be written.
    pub fn backup(&self, to: &Path) -> Result<(), StoreError> {
        self.read(|connection| copy(connection, to))
    }

    /// Takes today's copy into the data directory, where there is none yet, and lets those go that are neither
    /// of the last seven days nor the newest of one of the four weeks before. True where one was taken.
    ///
    /// # Errors
    /// Where it cannot be written.
    pub fn daily_copy(&self, today: Date) -> Result<bool, StoreError> {
        let folder = self.path.with_file_name(COPIES);
        fs::create_dir_all(&folder)?;
        let file = folder.join(format!("{today}.sqlite3"));
        if file.exists() {
            return Ok(false);
        }
        self.backup(&file)?;
        let mut days: Vec<Date> = fs::read_dir(&folder)?
            .filter_map(|entry| entry.ok()?.path().file_stem()?.to_str()?.parse().ok())
            .collect();
        days.sort_unstable();
        days.reverse();
        for old in gone(&days) {
            fs::remove_file(folder.join(format!("{old}.sqlite3")))?;
        }
        Ok(true)
    }
}

/// Of days, newest first, those whose copy may go.
fn gone(days: &[Date]) -> Vec<Date> {
    let mut weeks: Vec<(i16, i8)> = Vec::new();
    let older = days.iter().skip(DAYS).filter(|day| {
        let date = day.iso_week_date();
        let week = (date.year(), date.week());
        let kept = weeks.len() < WEEKS && !weeks.contains(&week);
        if kept {
            weeks.push(week);
        }
        !kept
    });
    older.copied().collect()
}

fn copy(connection: &Connection, to: &Path) -> Result<(), StoreError> {
    if to.exists() {
        return Err(StoreError::Exists(to.to_owned()));
    }
    // Under another name until it is whole; what was begun and not finished goes.
    let half = to.with_extension("half");
    let _ = fs::remove_file(&half);
    let written = || -> Result<(), StoreError> {
        connection.execute("VACUUM INTO ?1", [half.to_string_lossy()])?;
        private(&half)?;
        fs::File::open(&half)?.sync_all()?;
        Ok(fs::rename(&half, to)?)
    };
    written().inspect_err(|_| {
        let _ = fs::remove_file(&half);
    })
}

/// The newest of the daily copies of a data directory; None where there is none.
#[must_use]
pub fn newest_copy(directory: &Path) -> Option<PathBuf> {
    let copies = fs::read_dir(directory.join(COPIES)).ok()?;
    let dated = copies.filter_map(|entry| {
        let path = entry.ok()?.path();
        let day: Date = path.file_stem()?.to_str()?.parse().ok()?;
        (path.extension()? == "sqlite3").then_some((day, path))
    });
    dated.max().map(|(_, path)| path)
}

/// The head of a database file is so long: what is shorter is cut off.
const HEAD: u64 = 100;

/// Whether a data directory's database is there, or was never: gone or cut off while there are copies it is no bay to
/// open.
pub(crate) fn is_whole(directory: &Path) -> Result<(), StoreError> {
    let path = directory.join(DATABASE_FILE);
    let length = path.metadata().map(|file| file.len()).ok();
    match (length, newest_copy(directory)) {
        (None | Some(0..HEAD), Some(copy)) => Err(StoreError::Gone { folder: directory.to_owned(), copy }),
        (Some(0..HEAD), None) => Err(StoreError::EmptyFile(path)),
        _ => Ok(()),
    }
}

/// Keeps a copy of a database that is about to be brought to a newer form, beside it.
pub(crate) fn set_aside(connection: &Connection, path: &Path) -> Result<(), StoreError> {
    let form: i64 = connection.query_row("PRAGMA user_version", [], |row| row.get(0))?;
    if form == 0 || form >= migrations::LIST.len() as i64 {
        return Ok(());
    }
    let aside = path.with_file_name(format!("before-form-{}.sqlite3", migrations::LIST.len()));
    if aside.exists() { Ok(()) } else { copy(connection, &aside) }
}

/// Goes through a database file: its own checks, then every revision of every job.
///
/// # Errors
/// Where it cannot be opened at all; what is wrong inside is told in the result.
pub fn check(file: &Path) -> Result<CheckedBay, StoreError> {
    if !file.exists() {
        return Err(StoreError::NotThere(file.to_owned()));
    }
    let connection = Connection::open_with_flags(file, OpenFlags::SQLITE_OPEN_READ_ONLY)?;
    let mut checked = CheckedBay::default();
    let lines = connection.prepare("PRAGMA integrity_check(100)").and_then(|mut check| {
        check.query_map([], |row| row.get::<_, String>(0))?.collect::<Result<Vec<_>, _>>()
    });
    match lines {
        Ok(lines) => checked.faults.extend(lines.into_iter().filter(|line| line != "ok")),
        Err(error) => checked.faults.push(error.to_string()),
    }
    let every = connection.prepare(sql::EVERY_REVISION).and_then(|mut every| {
        let rows = every.query_map([], |row| Ok((row.get(0)?, row.get::<_, i64>(1)?)))?;
        rows.collect::<Result<Vec<(String, i64)>, _>>()
    });
    let every = match every {
        Ok(every) => every,
        Err(error) => {
            checked.faults.push(error.to_string());
            return Ok(checked);
        }
    };
    let mut last = "";
    for (id, number) in &every {
        checked.jobs += usize::from(id != last);
        last = id;
        checked.revisions += 1;
        let number = number.unsigned_abs();
        let read = text_of(&connection, id, number).and_then(|text| crate::read_document(id, number, &text));
        if let Err(error) = read.map(|_: Job| ()) {
            // What to do about it is said once, by whoever asked.
            let why = if let StoreError::Damaged(why) = error { why } else { error.to_string() };
            checked.faults.push(format!("job {id}, revision {number}: {why}"));
        }
    }
    rows_beside(&connection, &mut checked.faults);
    Ok(checked)
}

/// Everything that is wrong with the rows of the other tables: what the bay lists, the parts, the instrument log.
fn rows_beside(connection: &Connection, faults: &mut Vec<String>) {
    let jobs = connection.prepare(sql::EVERY_JOB).and_then(|mut every| {
        let rows = every.query_map([], |row| {
            let id = crate::lossy(row, 0)?;
            let mut wrong: Vec<String> = ["title", "search", "card"]
                .into_iter()
                .enumerate()
                .filter_map(|(index, name)| row.get::<_, String>(index + 1).err().map(|_| name.to_owned()))
                .collect();
            if row.get::<_, String>(3).is_ok_and(|card| {
                !card.is_empty() && serde_json::from_str::<serde_json::Value>(&card).is_err()
            }) {
                wrong.push("card".to_owned());
            }
            for (index, name) in [(4, "created_at"), (5, "saved_at")] {
                if crate::time(row, index).is_err() {
                    wrong.push(name.to_owned());
                }
            }
            Ok(wrong
                .into_iter()
                .map(|name| format!("job {id}: its {name} can't be read"))
                .collect::<Vec<_>>())
        })?;
        rows.collect::<Result<Vec<_>, _>>()
    });
    match jobs {
        Ok(jobs) => faults.extend(jobs.into_iter().flatten()),
        Err(error) => faults.push(format!("jobs: {error}")),
    }
    match crate::parts::every(connection) {
        Ok(parts) => faults.extend(
            parts.into_iter().filter_map(|(id, part)| part.err().map(|_| format!("part {id} can't be read"))),
        ),
        // A form older than the library has none.
        Err(error) => faults.push(format!("parts: {error}")),
    }
    let taken = connection.prepare(sql::EVERY_TAKEN).and_then(|mut every| {
        let rows = every.query_map([], |row| {
            let sound =
                crate::time(row, 0).is_ok() && (1..6).all(|index| row.get::<_, String>(index).is_ok());
            Ok((row.get::<_, i64>(6)?, sound))
        })?;
        rows.collect::<Result<Vec<_>, _>>()
    });
    match taken {
        Ok(taken) => faults.extend(
            taken
                .into_iter()
                .filter(|(_, sound)| !sound)
                .map(|(row, _)| format!("line {row} of the instrument log can't be read")),
        ),
        // Databases from before the instruments have no such table.
        Err(error) if error.to_string().contains("no such table") => {}
        Err(error) => faults.push(format!("instrument log: {error}")),
    }
}

/// The form of a database file.
fn form_of(file: &Path) -> Result<i64, StoreError> {
    let connection = Connection::open_with_flags(file, OpenFlags::SQLITE_OPEN_READ_ONLY)?;
    Ok(connection.query_row("PRAGMA user_version", [], |row| row.get(0))?)
}

/// Puts a copy in the place of a database, which is kept beside it under the name that is returned, where
/// there was one.
///
/// # Errors
/// Where the copy is not sound, a server has the directory, or a file cannot be written.
pub fn restore(copy: &Path, directory: &Path) -> Result<Option<PathBuf>, StoreError> {
    let found = check(copy)?;
    if let Some(fault) = found.faults.first() {
        return Err(StoreError::BadCopy { file: copy.to_owned(), fault: fault.clone() });
    }
    // One of a newer program would be refused by the next start.
    if form_of(copy)? > migrations::LIST.len() as i64 {
        return Err(StoreError::NewerForm);
    }
    let held = hold(directory)?;
    let database = directory.join(DATABASE_FILE);
    let fresh = directory.join("restored.half");
    fs::copy(copy, &fresh)?;
    private(&fresh)?;
    fs::File::open(&fresh)?.sync_all()?;
    let aside = database.exists().then(|| keep_beside(&database)).transpose()?;
    // A log that stayed would be played into the copy. It goes only now that it lies beside.
    for log in LOGS {
        let _ = fs::remove_file(with_ending(&database, log));
    }
    fs::rename(fresh, database)?;
    held.is_closed();
    drop(held);
    Ok(aside)
}

/// Endings of the files in which SQLite keeps what is not yet in the database itself.
const LOGS: [&str; 2] = ["-wal", "-shm"];

fn with_ending(database: &Path, ending: &str) -> PathBuf {
    let mut name = database.as_os_str().to_owned();
    name.push(ending);
    name.into()
}

/// Copies a database beside itself, with what is still in its log; the database stays where it is, so that at
/// no moment there is none. Returns the copy's name.
fn keep_beside(database: &Path) -> Result<PathBuf, StoreError> {
    let mut number = 1;
    let mut aside = database.with_file_name("before-restore-1.sqlite3");
    while aside.exists() {
        number += 1;
        aside = database.with_file_name(format!("before-restore-{number}.sqlite3"));
    }
    // Before SQLite looks: of a database that is none any more it throws the log away.
    for log in LOGS.into_iter().filter(|log| with_ending(database, log).exists()) {
        fs::copy(with_ending(database, log), with_ending(&aside, log))?;
    }
    let brought_in = Connection::open(database)
        .and_then(|old| old.query_row("PRAGMA wal_checkpoint(TRUNCATE)", [], |row| row.get::<_, i64>(0)));
    if brought_in.is_ok_and(|busy| busy == 0) {
        for log in LOGS {
            let _ = fs::remove_file(with_ending(&aside, log));
        }
    }
    fs::copy(database, &aside)?;
    fs::File::open(&aside)?.sync_all()?;
    Ok(aside)
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Eighty days in a row: seven days, then one of each of four weeks, the newest of it.
    #[test]
    fn seven_days_and_four_weeks_are_kept() {
        let today: Date = "2026-11-26".parse().unwrap();
        let days: Vec<Date> =
            (0..80).map(|back| today.saturating_sub(jiff::Span::new().days(back))).collect();
        let gone = gone(&days);
        let kept: Vec<String> =
            days.iter().filter(|day| !gone.contains(day)).map(ToString::to_string).collect();
        // A Thursday; seven days reach to Friday the 20th. The weeks before end on Sundays, the first of them
        // is the rest of the week of the 20th.
        let expected = [
            "2026-11-26",
            "2026-11-25",
            "2026-11-24",
            "2026-11-23",
            "2026-11-22",
            "2026-11-21",
            "2026-11-20",
            "2026-11-19",
            "2026-11-15",
            "2026-11-08",
            "2026-11-01",
        ];
        assert_eq!(kept, expected);
    }
}
