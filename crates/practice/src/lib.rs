//! A vehicle that exists only in the program. It has a truth that nobody is shown; hands read it with their tape as
//! hands do, and what they read is all that a job ever holds.
//!
//! `session` is one lesson under way, and its debriefing.
//!
//! `ground_truth` is the vehicle as it is and its physics, which is the pose solver; `vehicle` how it stands and what is done
//! to it; `technician` how it is read and written into a job; `trial` many of them sent through the whole job; `lessons`
//! vehicles with something planted, and what was learnt.
//!
//! `faults` are vehicles with something wrong, and whether the search for a cause finds it.
//!
//! Not here: advice. It comes from the job crate, by the same calls that answer a screen.

pub mod faults;
mod ground_truth;
pub mod lessons;
mod run;
pub mod session;
pub mod technician;
pub mod trial;
pub mod vehicle;

pub use ground_truth::GroundTruth;
