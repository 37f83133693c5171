//! What the work leaves open: steps, torques, parts, what does not go together.

use super::figure::keyed;
use super::finding::{Finding, FindingKind, finding};
use super::sources::Sources;
use crate::bolt_up::named::Named;
use crate::document::gate_keys;
use crate::message::Label;
use crate::prove::message::ProveMessage;

/// Bolts without which something hangs loose: nobody drives with one of them not tightened.
const HOLD_THE_AXLE: [&str; 9] = [
    gate_keys::FRAME_EYE,
    gate_keys::AXLE_EYE,
    gate_keys::ADJUSTER,
    gate_keys::ARM_EYES,
    gate_keys::FAR_ENDS,
    gate_keys::DISCONNECT_STUDS,
    gate_keys::DRAG_LINK_NUTS,
    gate_keys::LEGS_BOLTS,
    gate_keys::LEGS_BRACKETS,
];

/// A key of several things: how many, and which.
fn key_of_all(place: &str, names: &[Named]) -> String {
    let in_key: Vec<&str> = names.iter().map(|named| named.in_gate_keys.as_str()).collect();
    format!("{place}/{}/{}", names.len(), in_key.join(", "))
}

fn labels(names: &[Named]) -> Vec<Label> {
    names.iter().map(|named| named.name.clone()).collect()
}

pub(super) fn findings(Sources { job, progressed, .. }: &Sources<'_>) -> Vec<Finding> {
    let mut findings: Vec<Finding> = progressed
        .still_off
        .iter()
        .map(|name| Finding {
            acceptable: false,
            ..finding(
                FindingKind::StillOff,
                &format!("still_off/{name}"),
                ProveMessage::StillOff { name: name.to_owned() },
            )
        })
        .collect();
    let all = |kind, place: &str, names: &[Named], says: fn(Vec<Label>) -> ProveMessage| {
        (!names.is_empty()).then(|| finding(kind, &key_of_all(place, names), says(labels(names))))
    };
    let loose = progressed.untorqued.iter().any(|name| HOLD_THE_AXLE.contains(&name.in_gate_keys.as_str()));
    let untorqued = all(FindingKind::TorqueMissing, "torque_missing", &progressed.untorqued, |names| {
        ProveMessage::TorqueMissing { names }
    });
    findings.extend(untorqued.map(|found| Finding { acceptable: !loose, ..found }));
    findings.extend(all(FindingKind::TorqueOther, "torque_other", &progressed.other_than_wanted, |names| {
        ProveMessage::TorqueOther { names }
    }));
    findings.extend(all(
        FindingKind::TorqueFromMemory,
        "torque_from_memory",
        &progressed.from_memory,
        |names| ProveMessage::TorqueFromMemory { names },
    ));
    findings.extend(all(FindingKind::PartWrong, "part_wrong", &progressed.wrong_parts, |names| {
        ProveMessage::PartWrong { names }
    }));
    findings.extend(progressed.unfit.iter().map(|unfit| Finding {
        // Nobody rolls on a bolt whose nut is not full of thread.
        acceptable: !unfit.unusable,
        ..finding(
            FindingKind::DoesNotFit,
            &keyed(&format!("does_not_fit/{}", unfit.key), &unfit.check.says),
            ProveMessage::DoesNotFit { check: Box::new(unfit.check.clone()) },
        )
    }));
    if progressed.done < progressed.steps {
        let open = progressed.steps - progressed.done;
        findings.push(finding(
            FindingKind::StepsOpen,
            &format!("steps_open/{open}"),
            ProveMessage::StepsOpen { open, of: progressed.steps },
        ));
    }
    if let Some((says, true)) = crate::bolt_up::corners(job) {
        findings.push(finding(FindingKind::StandsOtherwise, &keyed("stands_otherwise", &says), says));
    }
    findings
}
