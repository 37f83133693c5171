//! Stage Bracket: the form, the moves of eyes, the planner, the schools.

pub mod compare;
pub mod fit;
pub mod load;
pub mod plan;
pub mod school;

pub use plan::{PlanResult, plan};
