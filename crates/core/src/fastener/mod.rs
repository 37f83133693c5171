//! Threads: diameter, pitch and hand. What a bolted joint holds by friction is in `bar::strength`.

pub mod thread;

pub use thread::{Hand, Thread};
