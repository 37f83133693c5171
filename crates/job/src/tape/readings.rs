//! The readings of a sheet.

use derecho_core::measure::{Length, TapeEntry};

/// The readings of a side, empty places passed over.
#[must_use]
pub fn lengths(entries: &[Option<TapeEntry>]) -> Vec<Length> {
    entries.iter().flatten().map(TapeEntry::length).collect()
}

/// Two lengths where both were typed.
#[must_use]
pub(super) fn both(a: &Option<TapeEntry>, b: &Option<TapeEntry>) -> Option<(Length, Length)> {
    Some((a.as_ref()?.length(), b.as_ref()?.length()))
}
