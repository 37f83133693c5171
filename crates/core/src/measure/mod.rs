//! What is measured and how it is written: lengths, angles, tape numbers, and
//! the sheets of readings that come off a vehicle.
//!
//! Knows nothing of bars, jobs or screens. Everything else in the core may use it.

pub mod angle;
pub mod centring;
pub mod conformity;
pub mod draws;
pub mod entry;
pub mod figure;
pub mod length;
pub mod meaning;
pub mod phrase;
pub mod physical;
pub mod print;
pub mod said;
pub mod side;
pub mod squareness;
pub mod suspicion;
pub mod tape;
pub mod typed;
pub mod unit_entry;

pub use angle::Angle;
pub use entry::{AngleEntry, TapeEntry};
pub use length::{Length, Unit};
pub use meaning::{Heading, Meaning};

pub use phrase::{Phrase, Step, Words, Working};
pub use physical::{Force, Mass, Moment, RollRate, SpringRate, Stress};
pub use side::Side;
pub use unit_entry::{RollRateEntry, SpringRateEntry, TorqueEntry, WeightEntry};
