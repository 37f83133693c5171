//! How far the axle goes up and fore and aft between the driven height and its stops.

use derecho_core::measure::Length;
use derecho_core::pose::travel;

use crate::assembly::assemble;
use crate::document::{AxleLocation, Job, heights};
use crate::setups::Setups;

/// Poses looked at between both stops.
const STEPS: usize = 12;

/// Where the axle goes, from where it stands at the driven height.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct AxleWay {
    /// Up to full bump.
    pub up: Length,
    /// Furthest back, as a distance, and furthest forward over the travel, stop to stop; None where what holds it fore and
    /// aft was not measured.
    pub fore_aft: Option<[Length; 2]>,
}

/// The way of a job's axle, both wheels together.
#[must_use]
pub(crate) fn axle_way(job: &Job, setups: Option<&Setups>) -> AxleWay {
    let (_, bump) = heights::travel(&job.rig);
    AxleWay { up: bump + heights::driven_offset(&job.rig), fore_aft: fore_aft(job, setups) }
}

fn fore_aft(job: &Job, setups: Option<&Setups>) -> Option<[Length; 2]> {
    // Springs that nobody measured count as rigid there.
    let springs = job.rig.axle_location == Some(AxleLocation::LeafSprings);
    if springs && job.hardpoints.spring_front_half.is_none() {
        return None;
    }
    let assembly = assemble(job, setups).ok()?;
    if assembly.assumed_links.iter().skip(usize::from(assembly.found.bar().is_some())).any(|assumed| *assumed)
    {
        return None;
    }
    let mechanism = assembly.mechanism();
    let stops = mechanism.stops();
    let (droop, bump) = (-stops.droop.to_mm(), stops.bump.to_mm());
    let driven = mechanism.at_driven_height().ok()?.solved.pose.x;
    let poses = travel::line(mechanism, (droop, droop), (bump, bump), STEPS).ok()?;
    let ways = poses.iter().map(|posed| posed.solved.pose.x - driven);
    let (back, forward) =
        ways.fold((Length::ZERO, Length::ZERO), |(back, forward), x| (back.min(x), forward.max(x)));
    Some([-back, forward])
}
