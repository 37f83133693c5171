//! # derecho-core
//!
//! Formulas and quantities: tape numbers and readings, fasteners, the track bar seen from
//! the front, poses of the whole axle with the drag link, sway bars, and the parts there
//! are to choose from.
//!
//! What is not here: the job document and its sentences (they are `derecho-job`'s), files,
//! clock, network, printing, SQL, HTTP, anything a screen needs to lay itself out.
//! `clippy.toml` beside the manifest refuses them by name.
//!
//! Who may depend on it: every other crate. It depends on none of them.
//!
//! Axes: x forward, y to the vehicle's left, z up. Millimetres and radians inside.

pub mod bar;
pub mod fastener;
pub mod measure;
pub mod parts;
pub mod pose;
pub mod sway;

/// The version of the rules, kept beside results that are frozen into a settled job.
pub const VERSION: &str = env!("CARGO_PKG_VERSION");
