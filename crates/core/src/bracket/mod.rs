//! Brackets and the parts that go with them: what there is to choose from, what a bracket is
//! loaded with, how a bar is built to length, and the drawings cut and drilled after.
//!
//! Uses `measure`, `fastener`, `bar` and `pose`'s joints; knows nothing of jobs.

pub mod builder;
pub mod load;
pub mod parts;
pub mod table;
pub mod template;
