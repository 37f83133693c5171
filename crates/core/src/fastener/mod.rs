//! Threads: diameter, pitch and hand. Bolts, preload and torque come with the stages
//! that bolt things up.

pub mod thread;

pub use thread::{Hand, Thread};
