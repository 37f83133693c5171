//! # derecho-job
//!
//! What a job's document means, as facts: readings, setups, stages, the order of work. Each folder is a stage of the
//! trade; later ones use earlier ones, never the other way round. What there is to say is a message (`message.rs` of each
//! stage): which sentence holds, with its figures and names.
//!
//! What is not here: formulas (they are `derecho-core`'s), sentences (`derecho-words`'), JSON (`derecho-results`'), files,
//! clock, network, printing, SQL, HTTP. `clippy.toml` beside the manifest refuses them by name.
//!
//! Who may depend on it: words, results, card, practice, server. It depends on core and document.

pub mod assembly;
pub mod bar;
pub mod bolt_up;
pub mod bracket;
pub mod card;
pub mod cautions;
pub mod cycle;
pub mod defaults;
pub mod diagnosis;
pub mod elevation;
pub mod findings;
pub mod log;
pub mod message;
pub mod prove;
pub mod record;
pub mod results;
pub mod setups;
pub mod status;
pub mod strip;
pub mod sway;
pub mod tape;
pub mod vehicle;
pub mod verdict;
pub mod work;

pub use derecho_document as document;
pub use derecho_document::json;

pub use document::Job;
pub use document::check::{FieldError, check};
pub use results::{Everything, Results};
