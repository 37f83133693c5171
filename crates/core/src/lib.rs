//! # derecho-core
//!
//! The rules of the trade and all of the computation: tape numbers and readings,
//! the track bar seen from the front, threads and turns, height states, and the
//! job document that ties them together.
//!
//! What is not here: files, clock, network, printing, SQL, HTTP, anything a screen
//! needs to lay itself out. `clippy.toml` beside the manifest refuses them by name.
//!
//! Who may depend on it: every other crate. It depends on none of them.
//!
//! Axes: x forward, y to the vehicle's left, z up. Millimetres and radians inside.

pub mod bar;
pub mod bracket;
pub mod fastener;
pub mod job;
pub mod measure;
pub mod pose;
pub mod procedure;
pub mod steering;
pub mod sway;

/// The version of the rules, kept beside results that are frozen into a settled job.
pub const VERSION: &str = env!("CARGO_PKG_VERSION");
