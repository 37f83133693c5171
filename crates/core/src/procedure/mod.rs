//! The order of work. In this version: the cautions that stand beside each stage.

pub mod cautions;
