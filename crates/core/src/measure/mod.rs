//! What is measured and how it is written: lengths, angles, tape numbers, and
//! the sheets of readings that come off a vehicle.
//!
//! Knows nothing of bars, jobs or screens. Everything else in the core may use it.

pub mod angle;
pub mod centring;
pub mod draws;
pub mod entry;
pub mod length;
pub mod load;
pub mod phrase;
pub mod print;
pub mod side;
pub mod squareness;
pub mod tape;

pub use angle::Angle;
pub use entry::{AngleEntry, TapeEntry};
pub use length::{Length, Unit};
pub use load::{RollRateEntry, SpringRateEntry, WeightEntry};
pub use phrase::{Phrase, Step, Words, Working};
pub use side::Side;
