//! The parts library on disk.

use derecho_core::parts::Part;
use jiff::{SignedDuration, Timestamp};
use rusqlite::{Connection, OptionalExtension, Row, TransactionBehavior, params};

use crate::{Store, StoreError, lossy, sql};

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
    Ok((lossy(row, 0)?, row.get(1).unwrap_or_default(), lossy(row, 2)?, lossy(row, 3)?))
}

/// The id of a part, and the part as far as it can be read.
type Read = (String, Result<StoredPart, StoreError>);

/// Every part with its id, as far as it can be read.
pub(crate) fn every(connection: &Connection) -> Result<Vec<Read>, StoreError> {
    let mut statement = connection.prepare_cached(sql::LIST_PARTS)?;
    let rows = statement.query_map([], stored)?.collect::<Result<Vec<_>, _>>()?;
    Ok(rows.into_iter().map(|row| (row.0.clone(), part_of(row))).collect())
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
    /// Every part that can be read, by kind and name.
    ///
    /// # Errors
    /// Where the database refuses.
    pub fn parts(&self) -> Result<Vec<StoredPart>, StoreError> {
        Ok(self.parts_and_damaged()?.0)
    }

    /// Every part that can be read, and the ids of those that cannot.
    ///
    /// # Errors
    /// Where the database refuses.
    pub fn parts_and_damaged(&self) -> Result<(Vec<StoredPart>, Vec<String>), StoreError> {
        self.read(|connection| {
            let (mut sound, mut damaged) = (Vec::new(), Vec::new());
            for (id, part) in every(connection)? {
                match part {
                    Ok(part) => sound.push(part),
                    Err(_) => damaged.push(id),
                }
            }
            Ok((sound, damaged))
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

    /// Adds parts with their ids, all of them or none; one that is in use as it is already is not added again. How
    /// many were added.
    ///
    /// # Errors
    /// Where the database refuses; nothing is added then.
    pub fn put_parts(&self, parts: &[(String, Part)], now: Timestamp) -> Result<usize, StoreError> {
        let mut writer = self.writer();
        let transaction = writer.transaction_with_behavior(TransactionBehavior::Immediate)?;
        let mut known: Vec<Part> = every(&transaction)?
            .into_iter()
            .filter_map(|(_, part)| part.ok().filter(|part| !part.retired).map(|part| part.part))
            .collect();
        let mut added = 0;
        for (id, part) in parts {
            if known.contains(part) {
                continue;
            }
            put(&transaction, id, part, false, now)?;
            known.push(part.clone());
            added += 1;
        }
        transaction.commit()?;
        Ok(added)
    }
}
