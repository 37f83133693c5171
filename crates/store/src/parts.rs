//! The parts library on disk.

use derecho_core::parts::Part;
use jiff::Timestamp;
use rusqlite::{Connection, OptionalExtension, Row, TransactionBehavior, params};

use crate::{Store, StoreError, sql};

/// A part of the library.
#[derive(Clone, Debug, PartialEq)]
pub struct StoredPart {
    /// Its id.
    pub id: String,
    /// Whether it is out of use: kept, but no longer offered.
    pub retired: bool,
    /// When it was last changed.
    pub changed_at: Timestamp,
    /// The part.
    pub part: Part,
}

fn stored(row: &Row<'_>) -> rusqlite::Result<(String, bool, String, String)> {
    Ok((row.get(0)?, row.get(1)?, row.get(2)?, row.get(3)?))
}

fn part_of((id, retired, at, document): (String, bool, String, String)) -> Result<StoredPart, StoreError> {
    Ok(StoredPart {
        retired,
        changed_at: at.parse().map_err(|_| StoreError::UnreadablePart(id.clone()))?,
        part: serde_json::from_str(&document).map_err(|_| StoreError::UnreadablePart(id.clone()))?,
        id,
    })
}

fn put(
    connection: &Connection,
    id: &str,
    part: &Part,
    retired: bool,
    now: Timestamp,
) -> Result<(), StoreError> {
    let document = serde_json::to_string(part).map_err(|_| StoreError::UnreadablePart(id.to_owned()))?;
    let row = params![id, part.kind(), part.name(), retired, now.to_string(), document];
    connection.prepare_cached(sql::PUT_PART)?.execute(row)?;
    Ok(())
}

impl Store {
    /// Every part, by kind and name.
    ///
    /// # Errors
    /// Where the database refuses.
    pub fn parts(&self) -> Result<Vec<StoredPart>, StoreError> {
        self.read(|connection| {
            let mut statement = connection.prepare_cached(sql::LIST_PARTS)?;
            let rows = statement.query_map([], stored)?.collect::<Result<Vec<_>, _>>()?;
            rows.into_iter().map(part_of).collect()
        })
    }

    /// Adds a part, or puts it in the place of the one with this id.
    ///
    /// # Errors
    /// Where the database refuses.
    pub fn put_part(
        &self,
        id: &str,
        part: &Part,
        retired: bool,
        now: Timestamp,
    ) -> Result<StoredPart, StoreError> {
        put(&self.writer(), id, part, retired, now)?;
        Ok(StoredPart { id: id.to_owned(), retired, changed_at: now, part: part.clone() })
    }

    /// Adds parts with their ids, all of them or none.
    ///
    /// # Errors
    /// Where the database refuses; nothing is added then.
    pub fn put_parts(&self, parts: &[(String, Part)], now: Timestamp) -> Result<(), StoreError> {
        let mut writer = self.writer();
        let transaction = writer.transaction_with_behavior(TransactionBehavior::Immediate)?;
        for (id, part) in parts {
            put(&transaction, id, part, false, now)?;
        }
        Ok(transaction.commit()?)
    }

    /// Whether there is a part with this id.
    ///
    /// # Errors
    /// Where the database refuses.
    pub fn has_part(&self, id: &str) -> Result<bool, StoreError> {
        self.read(|connection| {
            Ok(connection.query_row(sql::PART_EXISTS, [id], |_| Ok(())).optional()?.is_some())
        })
    }
}
