//! The accurate model: the axle as a rigid body held by links, over everything it can do.
//!
//! `point` has the two kinds of points and the pose, `solver` finds a pose, `joint` and
//! `clearance` judge one, `travel` goes through all of them, `template` knows what each kind
//! of axle location consists of, `legs` sets a Y-link's. `drag_link` steers the wheels. Nothing here knows of jobs.

pub mod body;
pub mod clearance;
pub mod drag_link;
pub mod joint;
pub mod legs;
pub mod mechanism;
pub mod point;
pub mod solver;
pub mod sway_arm;
pub mod sway_linkage;
pub mod template;
pub mod travel;

pub use point::{AxlePoint, BodyPoint, Pose};
pub use solver::{Held, Link, Motion, PoseFault, Solved, Start, Suspension, WindUp};
