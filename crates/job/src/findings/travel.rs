//! What ends the travel, and what nobody measured that could.

use super::finding::{Finding, FindingKind, finding};
use super::sources::Sources;
use crate::cautions::Stage;
use crate::cycle::Brief;
use crate::cycle::limit::EndsAt;
use crate::cycle::message::CycleMessage;
use crate::document::hardpoints::ObstaclePart;
use crate::document::sway::SwayKind;
use crate::document::{Job, Purpose, Round, length_of};
use crate::message::Message;
use crate::prove::message::ProveMessage;
use crate::setups::Resolved;
use derecho_core::measure::Length;
use derecho_core::measure::squareness::AxleEnd;

pub(super) fn findings(sources: &Sources<'_>) -> Vec<Finding> {
    let Sources { resolved, cycle, links_work, .. } = *sources;
    let mut findings = Vec::new();
    if let Some((brief, ends)) = cycle.and_then(|brief| Some((brief, brief.ends.as_ref()?))) {
        findings.push(finding(
            FindingKind::TravelEnds,
            &format!("travel_ends/{}", where_it_ends(ends, brief.from_driven_mm)),
            ProveMessage::TravelEnds { ends: ends.clone() },
        ));
    }
    let linked = resolved.sway.plan.kind.is_some_and(|kind| kind != SwayKind::None);
    if linked && links_work == Some(false) {
        let link = length_of(&resolved.sway.plan.link).unwrap_or(Length::ZERO);
        let key = format!("links_fail/{:.0}", link.to_mm());
        findings.push(finding(FindingKind::LinksFail, &key, ProveMessage::Links { work: false }));
    }
    let fault = resolved.setups().and_then(|setups| setups.fitted.bar.thread_faults().into_iter().next());
    if let Some(fault) = fault {
        findings.push(Finding {
            acceptable: false,
            ..finding(FindingKind::ThreadEngaged, "thread_engaged", ProveMessage::ThreadEngaged { fault })
        });
    }
    let job = sources.job;
    if job.proof.looked_at.clear.is_none()
        && moves_past_what_nobody_measured(job, resolved, cycle, links_work)
    {
        let found = finding(
            FindingKind::ClearanceNotChecked,
            "clearance_not_checked",
            ProveMessage::ClearanceNotChecked,
        );
        // Once there is a proof it is looked at there; before, it can be measured.
        findings.push(if sources.prove.is_some() {
            let goes_to = Some("/proof/looked_at/clear".to_owned());
            Finding { stage: Stage::Prove, goes_to, ..found }
        } else {
            found
        });
    }
    findings.extend(parts_not_measured(job, resolved));
    findings.extend(cycle.iter().flat_map(|brief| &brief.in_the_way).map(|pair| {
        let key = format!("stands/{:?}/{:?}/{:.0}", pair.first, pair.second, pair.gap.to_mm());
        let (first, second, gap) = (pair.first.clone(), pair.second.clone(), pair.gap);
        finding(FindingKind::StandsInTheWay, &key, CycleMessage::Stands { first, second, gap })
    }));
    findings
}

/// What is usual at this end and was not measured, where other things near it were, and something moves past them.
fn parts_not_measured(job: &Job, resolved: &Resolved) -> Option<Finding> {
    let obstacles = &job.hardpoints.obstacles;
    if obstacles.is_empty() || !something_moves(job, resolved) {
        return None;
    }
    let rear = job.rig.end == Some(AxleEnd::Rear);
    let usual = [ObstaclePart::Exhaust, if rear { ObstaclePart::FuelTank } else { ObstaclePart::OilPan }];
    let open = |part: &ObstaclePart| obstacles.iter().all(|obstacle| obstacle.part != *part);
    let parts: Vec<ObstaclePart> = usual.into_iter().filter(open).collect();
    let key = format!("parts_not_measured/{parts:?}");
    (!parts.is_empty())
        .then(|| finding(FindingKind::PartsNotMeasured, &key, ProveMessage::PartsNotMeasured { parts }))
}

/// Whether an eye is moved, another bar goes in, or something was to come clear.
fn something_moves(job: &Job, resolved: &Resolved) -> bool {
    let Some(setups) = resolved.setups() else { return false };
    let found = &setups.found;
    let moved = [&setups.plan, &setups.fitted]
        .into_iter()
        .any(|later| !later.moves.since(found.moves).is_none() || later.bar.id != found.bar.id);
    moved || job.to_do.contains(&Purpose::ClearSomething)
}

/// By what the travel ends and where, to a millimetre of wheel travel from the driven height, + bump: what ends sooner
/// wants its own reason, and the name of a height does not change it.
fn where_it_ends(ends: &Message, (left, right): (f64, f64)) -> String {
    let Some(CycleMessage::BriefClause { by, at }) = ends.facts() else { return String::new() };
    match at {
        EndsAt::AsItStands { .. } => format!("{by:?}/as_it_stands"),
        EndsAt::On(way, ..) => format!("{by:?}/{way:?}/{left:.0}/{right:.0}"),
    }
}

/// Whether an eye is moved, another bar goes in, sway links went in that nobody measured, or something was to come clear, and nothing was measured that could be
/// in the way of it: then somebody has to look, once it is together.
#[must_use]
pub fn moves_past_what_nobody_measured(
    job: &Job,
    resolved: &Resolved,
    cycle: Option<&Brief>,
    links_work: Option<bool>,
) -> bool {
    // A sway bar or links that went in without being measured.
    let sways = job.is_sway_alone() && job.setups.rounds.iter().any(Round::is_sway_alone);
    if sways && links_work.is_none() {
        return true;
    }
    if cycle.is_some_and(|brief| brief.ended) {
        return false;
    }
    something_moves(job, resolved) && job.hardpoints.obstacles.is_empty()
}
