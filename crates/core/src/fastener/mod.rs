//! Threads: diameter, pitch and hand; what a bolt carries (`strength`); how long it must be for what it holds
//! (`stack`), which tools it wants (`hex`). What a bolted joint holds by friction is in `bar::strength`.

pub mod hex;
pub mod stack;
pub mod strength;
pub mod thread;

pub use thread::{Hand, Thread};
