//! What is nearest to touching in each pose that is drawn: the gap, between what, and where.

use super::message::CycleMessage;
use crate::cycle::limit;
use crate::message::Label;
use serde::Serialize;
use utoipa::ToSchema;

use super::{DRAWN, rounded, watched};
use crate::assembly::assemble;
use crate::document::Job;
use crate::setups::Setups;
use derecho_core::pose::clearance::Gap;
use derecho_core::pose::mechanism::{Mechanism, Posed};

/// The nearest gaps of both setups.
#[derive(Clone, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct NearResult {
    /// As found.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub found: Option<NearPoses>,
    /// As planned, where there is a plan.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub plan: Option<NearPoses>,
}

/// The nearest gap in each drawn pose: row by row, shape `[left][right]` as the envelope's drawn poses, `null` where
/// the links do not reach or nothing is watched.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct NearPoses {
    /// The pairs that are watched.
    #[schema(value_type = Vec<String>)]
    pub names: Vec<Label>,
    /// Wheel travels of rows and columns alike, lowest first.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub travels_mm: Vec<f64>,
    /// Which pair is nearest, by its place in `names`.
    pub nearest: Vec<Option<usize>>,
    /// Its gap; negative where the parts overlap.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub gap_mm: Vec<Option<f64>>,
    /// The nearest points of both, in body axes at ride height: six figures a pose.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub points_mm: Vec<Option<f64>>,
}

/// The nearest gaps of a job's setups; absent where there is nothing to cycle.
#[must_use]
pub fn near(job: &Job, setups: Option<&Setups>) -> NearResult {
    let Ok(assembly) = assemble(job, setups) else { return NearResult::default() };
    NearResult {
        found: of(&assembly.found),
        plan: assembly.plan.as_ref().and_then(|plan| of(&plan.mechanism)),
    }
}

fn of(mechanism: &Mechanism) -> Option<NearPoses> {
    let (mechanism, envelope) = &watched(mechanism).ok()?;
    let watched: Vec<usize> =
        (0..mechanism.watches().len()).filter(|watch| mechanism.watches()[*watch].is_gap()).collect();
    let rows = envelope.poses.chunks(envelope.travels.len()).step_by(2);
    let near: Vec<Option<(usize, Gap)>> = rows
        .flat_map(|row| row.iter().step_by(2))
        .map(|posed| nearest(mechanism, &watched, posed.as_ref()?))
        .collect();
    Some(NearPoses {
        names: watched
            .iter()
            .map(|watch| {
                CycleMessage::LimitName(limit::name(mechanism, mechanism.watches()[*watch].what)).into()
            })
            .collect(),
        travels_mm: envelope.travels.iter().copied().step_by(2).collect(),
        nearest: near.iter().map(|near| near.map(|(place, _)| place)).collect(),
        gap_mm: near.iter().map(|near| near.and_then(|(_, gap)| rounded(gap.distance, DRAWN))).collect(),
        points_mm: near
            .iter()
            .flat_map(|near| match near {
                Some((_, gap)) => {
                    let (a, b) = (gap.on_first.to_array(), gap.on_second.to_array());
                    [a[0], a[1], a[2], b[0], b[1], b[2]].map(|mm| rounded(mm, DRAWN))
                }
                None => [None; 6],
            })
            .collect(),
    })
}

/// The least of the watched gaps, and its place among them.
fn nearest(mechanism: &Mechanism, watched: &[usize], posed: &Posed) -> Option<(usize, Gap)> {
    watched
        .iter()
        .enumerate()
        .filter_map(|(place, watch)| Some((place, mechanism.gap_of(posed, *watch)?)))
        .min_by(|a, b| a.1.distance.total_cmp(&b.1.distance))
}
