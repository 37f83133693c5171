//! The register of findings: what does not hold of a job or is not known, by whichever stage judges it, in one list, the
//! worst first. Prove, the strip, the job list, the card and settling read it. Not here: the judging itself, which each
//! stage does; the sentences.

mod cause;
mod drive;
mod figure;
pub mod finding;
mod fitted;
mod sources;
mod travel;
mod work;

pub use self::cause::cause_key;
pub use self::finding::{Concerns, Finding, FindingKind, FindingVerdict, Weight};
pub use self::sources::{JudgedFitted, Sources};
pub use self::travel::moves_past_what_nobody_measured;

/// Everything that does not hold or is not known, the worst first.
#[must_use]
pub fn register(sources: &Sources<'_>) -> Vec<Finding> {
    let Sources { job, progressed, .. } = *sources;
    let mut findings = work::findings(sources);
    findings.extend(drive::findings(sources));
    findings.extend(cause::findings(job));
    findings.extend(fitted::findings(sources));
    findings.extend(travel::findings(sources));
    let concerns =
        if job.setups.rounds.is_empty() && progressed.done == 0 { Concerns::Plan } else { Concerns::Fitted };
    for finding in &mut findings {
        finding.concerns = concerns;
        if finding.acceptable {
            finding.accepted = job.proof.accepted(&finding.key).cloned();
        }
    }
    findings.sort_by_key(Finding::order);
    findings
}
