//! What the work of a job consists of: kinds of work, each in a folder of its own, the conditions by which their steps
//! join, and the rules that say why one comes after another. A new kind is a folder and a line in the register.
//!
//! Not here: the order of a whole plan and what was ticked of it (`bolt_up`).

pub mod kinds;
pub mod rules;
pub mod step;
