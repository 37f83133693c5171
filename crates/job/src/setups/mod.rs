//! What is meant: found, planned, fitted.

pub mod moves;
