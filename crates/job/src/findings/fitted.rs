//! What is judged of the vehicle as it is fitted, and what reads otherwise than planned.

use super::figure::keyed;
use super::finding::{Finding, FindingKind, FindingVerdict, Weight, finding};
use super::sources::Sources;
use crate::bracket::message::BracketMessage;
use crate::cautions::Stage;
use crate::cycle::BesideLink;
use crate::defaults;
use crate::document::bracketing::Target;
use crate::document::{Job, SheetKind};
use crate::message::Message;
use crate::prove::message::ProveMessage;
use crate::prove::settling::says_otherwise_alone;
use crate::setups::Resolved;
use crate::verdict::{FitCheck, FitVerdict};
use derecho_core::measure::Angle;
use derecho_core::measure::centring::Answer;

/// What a check is called in the keys of acceptances.
fn in_gate_keys(check: &FitCheck) -> String {
    let name = &check.name.0;
    match (name.facts(), name.facts()) {
        (Some(BracketMessage::CheckName(check)), _) => check.in_gate_keys(),
        (Some(BracketMessage::CheckNameAt { check, end }), _) => format!("{end:?}/{}", check.in_gate_keys()),
        (_, Some(ProveMessage::CheckName(check))) => check.in_gate_keys().to_owned(),
        _ => String::new(),
    }
}

fn bad(kind: FindingKind, key: &str, checks: &[FitCheck]) -> Vec<Finding> {
    let bad = checks.iter().filter(|check| check.verdict == FitVerdict::Bad);
    bad.map(|check| {
        finding(
            kind,
            &keyed(&format!("{key}/{}", in_gate_keys(check)), &check.says),
            ProveMessage::DoesNotFit { check: Box::new(check.clone()) },
        )
    })
    .collect()
}

pub(super) fn findings(sources: &Sources<'_>) -> Vec<Finding> {
    let Sources { job, resolved, prove, fitted, compared, .. } = *sources;
    let mut findings = bad(FindingKind::YLinkFails, "y_link", &fitted.y_link);
    if let Some((stress, takes)) = fitted.sway_bar {
        findings.push(finding(
            FindingKind::Overstressed,
            &format!("sway_bar/{:.0}", stress.to_mpa()),
            ProveMessage::SwayBarOverstressed { stress, takes },
        ));
    }
    if let Some((name, margin)) = &fitted.track_bar {
        let says = ProveMessage::TrackBarOverloaded { name: name.to_owned(), margin: *margin };
        let found = finding(FindingKind::Overstressed, &format!("track_bar/{name}/{margin:.2}"), says);
        // What holds, and not by much, is told and stands in nobody's way.
        let verdict = if *margin < 1.0 { found.verdict } else { FindingVerdict::Close };
        findings.push(Finding { stage: Stage::Bracket, verdict, ..found });
    }
    findings.extend(fitted.steering.into_iter().flat_map(|steering| beside_link(job, resolved, steering)));
    let brace = fitted.brace.as_ref().filter(|check| check.verdict == FitVerdict::Bad);
    findings.extend(brace.map(|check| {
        let says = ProveMessage::DoesNotFit { check: Box::new(check.clone()) };
        let found = finding(FindingKind::Overstressed, &keyed("brace", &check.says), says);
        Finding { stage: Stage::Bracket, ..found }
    }));
    findings.extend(bad(FindingKind::NotAsPlanned, "compared", compared));
    findings.extend(stick_out(job, resolved));
    let otherwise = prove.and_then(|prove| says_otherwise_alone(job, resolved, prove));
    findings.extend(
        otherwise.map(|says: Message| {
            finding(FindingKind::MovedOtherwise, &keyed("moved_otherwise", &says), says)
        }),
    );
    findings
}

/// Bar and drag link apart, and what that does over bumps, where this job moves an eye or was to bring them parallel: then
/// somebody can choose otherwise.
fn beside_link(job: &Job, resolved: &Resolved, BesideLink { apart, over_bumps }: BesideLink) -> Vec<Finding> {
    let Some(setups) = resolved.setups().filter(|_| job.rig.is_steered()) else { return Vec::new() };
    let moves = !setups.other().moves.since(setups.found.moves).is_none();
    let part = setups.other().drag_link != setups.found.drag_link;
    let wanted = job.bracket.target == Target::ParallelToDragLink;
    if !(moves || part || wanted) {
        return Vec::new();
    }
    let graded = |kind, key: &str, angle: Angle, (close, fails): (f64, f64), weight| {
        let degrees = angle.to_degrees();
        let verdict = if degrees > fails { FindingVerdict::Fails } else { FindingVerdict::Close };
        let says = ProveMessage::Steers { over_bumps: kind == FindingKind::SteersOverBumps, angle };
        (degrees > close).then(|| Finding {
            verdict,
            weight,
            ..finding(kind, &format!("{key}/{degrees:.1}"), says)
        })
    };
    let asked = if wanted { Weight::Function } else { Weight::Comfort };
    let apart = apart.and_then(|apart| {
        graded(FindingKind::LinkBesideBar, "link_beside_bar", apart, defaults::LINK_APART_DEGREES, asked)
    });
    let (kind, limits) = (FindingKind::SteersOverBumps, defaults::BUMP_STEER_DEGREES);
    let steers = graded(kind, "steers_over_bumps", over_bumps, limits, Weight::Comfort);
    apart.into_iter().chain(steers).collect()
}

/// The last stick-out, where the sway bar is off to one side.
fn stick_out(job: &Job, resolved: &Resolved) -> Option<Finding> {
    let last = job
        .sheets
        .iter()
        .zip(&resolved.sheets)
        .rfind(|(sheet, result)| sheet.kind == SheetKind::StickOut && result.centring.is_some());
    let off = last?.1.centring.as_ref().filter(|off| off.answer == Answer::OffCentre)?;
    let says: Message = ProveMessage::StickOutOff { off: off.clone(), driver: job.rig.steering_side }.into();
    let key = keyed("stick_out", &says);
    Some(Finding { stage: Stage::Sway, ..finding(FindingKind::NotAsPlanned, &key, says) })
}
