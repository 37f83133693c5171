//! What the register is read from: a job with what its stages found.

use crate::bolt_up::Progressed;
use crate::cycle::{BesideLink, Brief};
use crate::document::Job;
use crate::prove::ProveResult;
use crate::prove::settling::Look;
use crate::setups::Resolved;
use crate::verdict::FitCheck;
use derecho_core::measure::Stress;

/// What other stages judge of the vehicle: as planned, and as fitted once it is proved.
#[derive(Clone, Debug, Default)]
pub struct JudgedFitted {
    /// Checks of a Y-link; only of a job that is proved.
    pub y_link: Vec<FitCheck>,
    /// Shear stress of the sway bar at the worst pose, and what its steel takes, where that is less.
    pub sway_bar: Option<(Stress, Stress)>,
    /// What a brace takes off the frame bracket, where there is one.
    pub brace: Option<FitCheck>,
    /// The track bar's name and what it stands over its load, where that is less than wanted.
    pub track_bar: Option<(String, f64)>,
    /// Bar beside drag link, and what the wheels do over bumps.
    pub steering: Option<BesideLink>,
}

/// What the register is read from: a job with what its stages found.
#[derive(Clone, Copy, Debug)]
pub struct Sources<'a> {
    /// The job.
    pub job: &'a Job,
    /// What it means.
    pub resolved: &'a Resolved,
    /// The proof, where there is one.
    pub prove: Option<&'a ProveResult>,
    /// How far the work is.
    pub progressed: &'a Progressed,
    /// What is looked at in this job.
    pub looks: &'a [Look],
    /// What was read afterwards beside the axle's place.
    pub compared: &'a [FitCheck],
    /// What is judged of a job that is proved.
    pub fitted: &'a JudgedFitted,
    /// What ends the travel, where the axle could be cycled.
    pub cycle: Option<&'a Brief>,
    /// Whether the sway links work at the ends of travel; None while not measured.
    pub links_work: Option<bool>,
}
