//! What ends the travel, and what nobody measured that could.

use super::finding::{Finding, FindingKind, finding};
use super::sources::Sources;
use crate::document::Purpose;
use crate::document::sway::SwayKind;
use crate::prove::message::ProveMessage;

pub(super) fn findings(sources: &Sources<'_>) -> Vec<Finding> {
    let Sources { resolved, cycle, links_work, .. } = *sources;
    let mut findings = Vec::new();
    if let Some(ends) = cycle.and_then(|brief| brief.ends.as_ref()) {
        findings.push(finding(
            FindingKind::TravelEnds,
            "travel_ends",
            ProveMessage::TravelEnds { ends: ends.clone() },
        ));
    }
    let linked = resolved.sway.plan.kind.is_some_and(|kind| kind != SwayKind::None);
    if linked && links_work == Some(false) {
        findings.push(finding(FindingKind::LinksFail, "links_fail", ProveMessage::Links { work: false }));
    }
    let fault = resolved.setups().and_then(|setups| setups.fitted.bar.thread_faults().into_iter().next());
    if let Some(fault) = fault {
        findings.push(Finding {
            acceptable: false,
            ..finding(FindingKind::ThreadEngaged, "thread_engaged", ProveMessage::ThreadEngaged { fault })
        });
    }
    if moves_what_could_hit(sources) && !cycle.is_some_and(|brief| brief.ended) {
        findings.push(finding(
            FindingKind::ClearanceNotChecked,
            "clearance_not_checked",
            ProveMessage::ClearanceNotChecked,
        ));
    }
    findings
}

/// Whether an eye is moved, another bar goes in or something was to come clear, and nothing was measured that could be
/// in the way of it.
fn moves_what_could_hit(Sources { job, resolved, .. }: &Sources<'_>) -> bool {
    let Some(setups) = resolved.setups() else { return false };
    let found = &setups.found;
    let moved = [&setups.plan, &setups.fitted]
        .into_iter()
        .any(|later| !later.moves.since(found.moves).is_none() || later.bar.id != found.bar.id);
    let asked = job.to_do.contains(&Purpose::ClearSomething);
    (moved || asked) && job.hardpoints.obstacles.is_empty()
}
