//! The job document, whether it makes sense, and everything computed from it.

mod bar_words;
pub mod bracket;
pub mod check;
pub mod correction;
pub mod cycle;
pub mod document;
pub mod elevation;
pub mod hardpoints;
pub mod heights;
pub mod prove;
pub mod results;
pub mod schema;
pub mod sheets;
pub mod stages;
pub mod sway;
pub mod uncertainty;
pub mod vehicle;

pub use check::{FieldError, check};
pub use document::Job;
pub use results::{Card, Everything, Results, card, everything, solve};
