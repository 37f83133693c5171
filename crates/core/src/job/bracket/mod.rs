//! Stage Bracket: the form, the moves of eyes, the planner, the schools.

pub mod compare;
pub mod fit;
pub mod form;
pub mod load;
pub mod moves;
pub mod plan;
pub mod school;

pub use plan::{PlanResult, plan};
