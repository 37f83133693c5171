//! # derecho-results
//!
//! What the job's crate finds, with its words: as HTTP, papers, the command line and the bay's cards show it. Facts are
//! worked out there; here each message among them becomes its sentence while they are written.
//!
//! Not here: a formula, a rule of the work, or a sentence.

mod card;
pub mod json;
mod log;
mod settled;
mod ticked;
mod work;

pub use card::{Card, CardDue, StageLine, card, card_of};
pub use derecho_job::results::*;
pub use log::{LogEntry, log};
pub use settled::{settle, solve};
pub use work::{everything, work};
