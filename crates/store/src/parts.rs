//! The parts library on disk.

use derecho_core::parts::Part;
use jiff::{SignedDuration, Timestamp};
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

    /// Adds a part.
    ///
    /// # Errors
    /// Where the database refuses.
    pub fn add_part(&self, id: &str, part: &Part, now: Timestamp) -> Result<StoredPart, StoreError> {
        put(&self.writer(), id, part, false, now)?;
        Ok(StoredPart { id: id.to_owned(), retired: false, changed_at: now, part: part.clone() })
    }

    /// Puts a part in the place of the one that was last changed at `based_on`.
    ///
    /// # Errors
    /// [`StoreError::NoSuchPart`], [`StoreError::PartChangedElsewhere`] where it was changed since; nothing is
    /// written then.
    pub fn change_part(
        &self,
        id: &str,
        based_on: Timestamp,
        part: &Part,
        retired: bool,
        now: Timestamp,
    ) -> Result<StoredPart, StoreError> {
        let mut writer = self.writer();
        let transaction = writer.transaction_with_behavior(TransactionBehavior::Immediate)?;
        let changed: Option<String> =
            transaction.query_row(sql::PART_CHANGED_AT, [id], |row| row.get(0)).optional()?;
        let changed = changed.ok_or(StoreError::NoSuchPart)?;
        if changed.parse::<Timestamp>().ok() != Some(based_on) {
            return Err(StoreError::PartChangedElsewhere);
        }
        // Never the same moment twice, however coarse the clock: it is what tells one state from the next.
        let now = now.max(based_on.saturating_add(SignedDuration::from_nanos(1)).unwrap_or(now));
        put(&transaction, id, part, retired, now)?;
        transaction.commit()?;
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
}
