//! # derecho-job
//!
//! The job document and what it means: readings, setups, stages, sentences, the order of
//! work. Each folder is a stage of the trade; later ones use earlier ones, never the other
//! way round.
//!
//! What is not here: formulas (they are `derecho-core`'s), files, clock, network, printing,
//! SQL, HTTP. `clippy.toml` beside the manifest refuses them by name.
//!
//! Who may depend on it: store, practice, server. It depends on the core alone.

pub mod assembly;
pub mod bar;
pub mod bolt_up;
pub mod bracket;
pub mod card;
pub mod cautions;
pub mod cycle;
pub mod defaults;
pub mod elevation;
pub mod log;
pub mod message;
pub mod prove;
pub mod results;
pub mod setups;
pub mod strip;
pub mod sway;
pub mod tape;
pub mod vehicle;
pub mod verdict;

pub use derecho_document as document;
pub use derecho_document::json;

pub use document::Job;
pub use document::check::{FieldError, check};
pub use results::{Everything, Results};
