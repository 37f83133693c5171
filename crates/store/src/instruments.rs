//! The instrument log on disk: what was taken over from which instrument, into which field.

use jiff::Timestamp;
use rusqlite::params;

use crate::{Store, StoreError, sql};

/// A reading that a field took.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Taken {
    /// When.
    pub at: Timestamp,
    /// The job.
    pub job: String,
    /// The field, as a JSON pointer.
    pub field: String,
    /// The instrument's id.
    pub instrument: String,
    /// Its kind, in the words of the protocol.
    pub kind: String,
    /// What it read, as it went into the field.
    pub reading: String,
}

impl Store {
    /// Writes down that a field took a reading.
    ///
    /// # Errors
    /// Where the database refuses.
    pub fn log_taken(&self, taken: &Taken) -> Result<(), StoreError> {
        let row = params![
            taken.at.to_string(),
            taken.job,
            taken.field,
            taken.instrument,
            taken.kind,
            taken.reading
        ];
        self.writer().prepare_cached(sql::LOG_TAKEN)?.execute(row)?;
        Ok(())
    }

    /// The newest entries, newest first.
    ///
    /// # Errors
    /// Where the database refuses.
    pub fn taken(&self, most: u32) -> Result<Vec<Taken>, StoreError> {
        self.read(|connection| {
            let mut statement = connection.prepare_cached(sql::TAKEN)?;
            let rows = statement.query_map([most], |row| {
                let at: String = row.get(0)?;
                Ok(Taken {
                    at: at.parse().unwrap_or(Timestamp::UNIX_EPOCH),
                    job: row.get(1)?,
                    field: row.get(2)?,
                    instrument: row.get(3)?,
                    kind: row.get(4)?,
                    reading: row.get(5)?,
                })
            })?;
            Ok(rows.collect::<Result<Vec<_>, _>>()?)
        })
    }
}

#[cfg(test)]
mod tests {
    #![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]
    use super::*;

    #[test]
    fn what_was_taken_is_there_the_newest_first() {
        let folder = tempfile::tempdir().unwrap();
        let taken = |second: i64, reading: &str| Taken {
            at: Timestamp::from_second(second).unwrap(),
            job: "a".to_owned(),
            field: "/sheets/0/left/0".to_owned(),
            instrument: "tape-4".to_owned(),
            kind: "tape".to_owned(),
            reading: reading.to_owned(),
        };
        let store = Store::open(folder.path()).unwrap();
        for entry in [taken(10, "161.5 mm"), taken(20, "142 mm"), taken(20, "143 mm")] {
            store.log_taken(&entry).unwrap();
        }
        drop(store);
        let store = Store::open(folder.path()).unwrap();
        assert_eq!(store.taken(2).unwrap(), [taken(20, "143 mm"), taken(20, "142 mm")]);
        assert_eq!(store.taken(10).unwrap().len(), 3);
    }
}
