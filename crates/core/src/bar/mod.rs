//! The track bar: what its tilt does in the front view, what length recentres the
//! axle, and how that length is set with threads.
//!
//! Uses `measure` and `fastener`; knows nothing of jobs.

pub mod adjuster;
pub mod bracket_load;
pub mod builder;
pub mod evidence;
pub mod front_view;
pub mod rolled;
pub mod strength;
pub mod sweep;

pub use front_view::{FrontView, Recentring, Swing};
