//! A cause that was found and nobody mended, and what was seen at a quick check and is still there.

use super::finding::{Finding, FindingKind, Weight, finding};
use crate::diagnosis::message::DiagnosisMessage;
use crate::diagnosis::{looks_for, still_seen};
use crate::document::Job;
use crate::document::diagnosis::{QuickCheck, Suspect};

/// The key of a cause that was found.
#[must_use]
pub fn cause_key(suspect: Suspect) -> String {
    format!("cause/{suspect:?}")
}

pub(super) fn findings(job: &Job) -> Vec<Finding> {
    let open = || job.diagnosis.causes.iter().filter(|cause| cause.mended.is_none());
    let mut findings: Vec<Finding> = open()
        .map(|cause| {
            let (suspect, note) = (cause.what, cause.note.clone());
            Finding {
                weight: weight(suspect),
                // Nobody drives on a bracket that tears off or a bolt that is loose.
                acceptable: !matches!(suspect, Suspect::BracketTearing | Suspect::BoltLoose),
                ..finding(
                    FindingKind::CauseOpen,
                    &cause_key(suspect),
                    DiagnosisMessage::CauseOpen { suspect, note },
                )
            }
        })
        .collect();
    let seen = QuickCheck::ALL.into_iter().filter(|check| {
        is_of_the_vehicle(*check)
            && still_seen(job, *check) == Some(true)
            && !open().any(|cause| looks_for(*check, cause.what))
    });
    findings.extend(seen.map(|check| {
        let safety = matches!(
            check,
            QuickCheck::BoltMoves
                | QuickCheck::BracketMoves
                | QuickCheck::BushingMoves
                | QuickCheck::RubbedPaint
                | QuickCheck::LinkInLine
                | QuickCheck::HousingNotStraight
                | QuickCheck::BarNotStraight
        );
        Finding {
            weight: if safety { Weight::Safety } else { Weight::Function },
            acceptable: !matches!(check, QuickCheck::BoltMoves | QuickCheck::BracketMoves),
            ..finding(FindingKind::CauseOpen, &format!("seen/{check:?}"), DiagnosisMessage::StillThere(check))
        }
    }));
    findings
}

const fn weight(suspect: Suspect) -> Weight {
    match suspect {
        Suspect::BoltLoose
        | Suspect::BushingTorn
        | Suspect::BracketTearing
        | Suspect::BarBent
        | Suspect::HousingBent
        | Suspect::ArmOverCenter
        | Suspect::TrackBarHits => Weight::Safety,
        _ => Weight::Function,
    }
}

/// Whether what it shows is a fault of the vehicle, not of how it was measured or of what was recorded.
const fn is_of_the_vehicle(check: QuickCheck) -> bool {
    !matches!(
        check,
        QuickCheck::BarLengthDiffers
            | QuickCheck::TurnsDiffer
            | QuickCheck::FrameEyeElsewhere
            | QuickCheck::AxleEyeElsewhere
            | QuickCheck::HoleDiffers
            | QuickCheck::BouncedDiffers
            | QuickCheck::StoodOtherwise
            | QuickCheck::WheelsNotStraight
            | QuickCheck::FloorSlopes
            | QuickCheck::OtherPointDiffers
    )
}
