//! # derecho-document
//!
//! The job document: what a person says and does, one file a part. Never a result: those are computed from it. The one
//! exception is the frozen copy a settled job keeps.
//!
//! Here is the document's form, its JSON Schema (`schema`, `schema_validate`), whether it makes sense (`check`), the one
//! reader and writer of its JSON (`json`, `migrate`), and how documents of older versions are brought forward. Not here:
//! what it means for the axle; that is `derecho-job`'s.
//!
//! Every field that may be left empty is left out of the JSON then. Lengths are [`TapeEntry`], which keep what was typed.
//!
//! Who may depend on it: job, store, and through them everything else. It depends on the core alone.

pub mod bodies;
pub mod bracketing;
pub mod check;
pub mod diagnosis;
pub mod gate_keys;
pub mod hardpoints;
pub mod heights;
pub mod ids;
mod job;
pub mod json;
pub mod migrate;
mod pointed;
pub mod proof;
mod purpose;
mod rig;
pub mod schema;
pub mod schema_table;
pub mod schema_validate;
mod setups;
mod sheets;
pub mod sway;
pub mod tool_keys;
pub mod vehicle;
pub mod work;

pub use bracketing::Bracketing;
pub use diagnosis::Diagnosis;
pub use hardpoints::Hardpoints;
pub use ids::{ArmHoleId, BarId, BracketId, DragLinkId, DrillId, HeightId, HoleId, RoundId};
pub use job::*;
pub use proof::Proof;
pub use purpose::Purpose;
pub use rig::*;
pub use setups::*;
pub use sheets::*;
pub use sway::Sway;
pub use vehicle::Vehicle;
pub use work::Work;

use derecho_core::measure::{Length, TapeEntry};
pub use derecho_core::parts::Hole;

/// The version written by this program.
pub const DOCUMENT_VERSION: u32 = 7;

/// The length of a field that may be empty.
pub fn length_of(entry: &Option<TapeEntry>) -> Option<Length> {
    entry.as_ref().map(TapeEntry::length)
}
