//! Instruments of a shop: a tape, an angle finder, a torque wrench, wheel scales, a height stick, a turn counter.
//!
//! `instrument` is what one is; `sentence` the line protocol, read and written; `way` how bytes come in, over TCP or
//! a serial device; `registry` what is joined, and what it shows; `stand_in` simulated instruments. The protocol is told
//! in docs/instruments.md.
//!
//! Not here: which field takes a reading, and what it is good for in a sheet.

pub mod connection;
pub mod instrument;
pub mod message;
pub mod registry;
pub mod simulator;
