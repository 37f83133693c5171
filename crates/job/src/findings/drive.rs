//! What was driven, asked again and looked at.

use super::finding::{Finding, FindingKind, Weight, finding};
use super::sources::Sources;
use crate::document::proof::{LookedAt, RoadResult};
use crate::document::{ComplaintAfter, Job};
use crate::prove::look::LookKind;
use crate::prove::message::ProveMessage;

pub(super) fn findings(sources: &Sources<'_>) -> Vec<Finding> {
    let mut findings = of_the_drive(sources.job);
    findings.extend(of_looks(sources));
    findings
}

/// A look's answer in the document.
const fn answer(looked: &LookedAt, kind: LookKind) -> Option<bool> {
    match kind {
        LookKind::WheelStraight => looked.wheel_straight,
        LookKind::Toe => looked.toe,
        LookKind::Sensors => looked.sensors,
        LookKind::Lines => looked.lines,
        LookKind::WheelNuts => looked.wheel_nuts,
        LookKind::PinsLevel => looked.pins_level,
        LookKind::StowedClear => looked.stowed_clear,
        LookKind::Clear => looked.clear,
    }
}

/// What was looked at and is not right, or was not looked at.
fn of_looks(Sources { job, progressed, looks, .. }: &Sources<'_>) -> Vec<Finding> {
    let answered = looks.iter().filter_map(|look| {
        let key = look.kind.key();
        let place = format!("look/{key}");
        let found = match answer(&job.proof.looked_at, look.kind) {
            // No vehicle rolls on loose wheels or on a line that catches.
            Some(false) => Finding {
                acceptable: !matches!(look.kind, LookKind::WheelNuts | LookKind::Lines),
                ..finding(FindingKind::NotRight, &place, ProveMessage::NotRight { kind: look.kind })
            },
            // Where nothing was undone nothing came loose.
            // What could be in the way is a finding of its own (`travel`).
            None if look.kind == LookKind::Clear => return None,
            None if progressed.steps > 0 => {
                finding(FindingKind::NotLookedAt, &place, ProveMessage::NotLookedAt { kind: look.kind })
            }
            Some(true) | None => return None,
        };
        // A crooked wheel and toe are felt and wear tires; the rest can hurt somebody.
        let weight = match look.kind {
            LookKind::WheelStraight | LookKind::Toe => Weight::Function,
            _ => found.weight,
        };
        Some(Finding { goes_to: Some(format!("/proof/looked_at/{key}")), weight, ..found })
    });
    answered.collect()
}

/// Complaints that are not gone, and a road test that was stopped.
fn of_the_drive(job: &Job) -> Vec<Finding> {
    let mut findings = Vec::new();
    for (index, complaint) in job.complaints.iter().enumerate() {
        let text = complaint.text.clone();
        let found = match complaint.after {
            None => finding(
                FindingKind::ComplaintOpen,
                &format!("complaint_open/{text}"),
                ProveMessage::ComplaintOpen { text },
            ),
            Some(after @ (ComplaintAfter::Same | ComplaintAfter::Worse)) => {
                let worse = after == ComplaintAfter::Worse;
                let place = if worse { "complaint_worse" } else { "complaint_same" };
                finding(
                    FindingKind::ComplaintAgain,
                    &format!("{place}/{text}"),
                    ProveMessage::ComplaintAgain { text, worse },
                )
            }
            Some(_) => continue,
        };
        findings.push(Finding { goes_to: Some(format!("/complaints/{index}/after")), ..found });
    }
    let stopped = job.proof.road.iter().filter(|record| record.result == RoadResult::Stopped);
    findings.extend(stopped.map(|record| {
        finding(
            FindingKind::RoadStopped,
            &format!("road/{:?}/{}", record.step, record.note),
            ProveMessage::RoadStopped { step: record.step, note: record.note.clone() },
        )
    }));
    findings
}
