//! What there is to choose from: bars, brackets, joints, drag-link parts, as rows of a
//! table, and the drawings cut and drilled after.
//!
//! Uses `measure`, `fastener`, `bar` and `pose`'s joints; knows nothing of jobs.

pub mod id;
mod kit;
mod part;
pub mod table;
pub mod template;

pub use id::{BarId, BracketId, DragLinkId, HoleId};
pub use kit::*;
pub use part::*;
