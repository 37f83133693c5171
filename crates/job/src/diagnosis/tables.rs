//! How often each suspect is met, what its driver complains about, and what is seen of it at each quick check. From
//! practice; every figure here is a share between nought and one, and none is measured on the vehicle at hand.

use crate::cautions::Stage;
use crate::document::diagnosis::{QuickCheck, Suspect};
use crate::document::{ComplaintAbout, Job};

use ComplaintAbout::{
    Clunk, LeansInBends, LiftsEarly, OffCentre, Rocking, Rub, SideStepping, Wander, WheelCrooked, Wobble,
};
use QuickCheck as See;

/// A driver complains of something that has nothing to do with a fault in so many of a hundred.
const COMPLAINS_ANYHOW: f64 = 0.04;
/// A check shows what it looks for where there is nothing in so many of a hundred.
const SEEN_ANYHOW: f64 = 0.04;

/// What is known of a suspect beforehand.
struct Habits {
    suspect: Suspect,
    /// Of a hundred vehicles with one fault.
    frequency: f64,
    complaints: &'static [(ComplaintAbout, f64)],
    checks: &'static [(QuickCheck, f64)],
}

const fn habits(
    suspect: Suspect,
    frequency: f64,
    complaints: &'static [(ComplaintAbout, f64)],
    checks: &'static [(QuickCheck, f64)],
) -> Habits {
    Habits { suspect, frequency, complaints, checks }
}

const HABITS: [Habits; 31] = [
    habits(
        Suspect::FullDifference,
        6.0,
        &[(OffCentre, 0.7), (WheelCrooked, 0.3)],
        &[(See::TurnsDiffer, 0.93)],
    ),
    habits(Suspect::SignTurned, 4.0, &[(OffCentre, 0.85), (WheelCrooked, 0.3)], &[(See::TurnsDiffer, 0.95)]),
    habits(
        Suspect::MeasuredHanging,
        3.0,
        &[(OffCentre, 0.6)],
        &[(See::StoodOtherwise, 0.95), (See::BouncedDiffers, 0.9)],
    ),
    habits(Suspect::NotBounced, 5.0, &[(OffCentre, 0.4)], &[(See::BouncedDiffers, 0.85)]),
    habits(Suspect::LeanedOn, 2.5, &[(OffCentre, 0.3)], &[(See::BouncedDiffers, 0.8)]),
    habits(
        Suspect::AnotherHeight,
        3.0,
        &[(OffCentre, 0.5), (LeansInBends, 0.1)],
        &[(See::StoodOtherwise, 0.93), (See::BouncedDiffers, 0.15)],
    ),
    habits(
        Suspect::TiresUnlike,
        4.0,
        &[(Wander, 0.6), (WheelCrooked, 0.3), (OffCentre, 0.2)],
        &[(See::PressuresDiffer, 0.95)],
    ),
    habits(Suspect::WheelsTurned, 2.0, &[(OffCentre, 0.3)], &[(See::WheelsNotStraight, 0.9)]),
    habits(Suspect::SlopingFloor, 2.0, &[(OffCentre, 0.3)], &[(See::FloorSlopes, 0.95)]),
    habits(Suspect::ReferenceCrooked, 4.0, &[(OffCentre, 0.7), (Rub, 0.1)], &[(See::OtherPointDiffers, 0.9)]),
    habits(Suspect::FrameBracketSideways, 4.0, &[(OffCentre, 0.7)], &[(See::FrameEyeElsewhere, 0.92)]),
    habits(
        Suspect::FrameBracketHeight,
        3.0,
        &[(SideStepping, 0.5), (OffCentre, 0.4)],
        &[(See::FrameEyeElsewhere, 0.92)],
    ),
    habits(Suspect::AxleBracketSideways, 5.0, &[(OffCentre, 0.7)], &[(See::AxleEyeElsewhere, 0.92)]),
    habits(
        Suspect::AxleBracketHeight,
        4.0,
        &[(SideStepping, 0.5), (OffCentre, 0.4)],
        &[(See::AxleEyeElsewhere, 0.92)],
    ),
    habits(
        Suspect::OtherHole,
        3.0,
        &[(SideStepping, 0.4), (OffCentre, 0.4)],
        &[(See::HoleDiffers, 0.97), (See::AxleEyeElsewhere, 0.5), (See::FrameEyeElsewhere, 0.4)],
    ),
    habits(
        Suspect::LengthOff,
        5.0,
        &[(OffCentre, 0.7), (WheelCrooked, 0.3)],
        &[(See::BarLengthDiffers, 0.92)],
    ),
    habits(
        Suspect::BarBent,
        3.0,
        &[(OffCentre, 0.6), (WheelCrooked, 0.3), (Clunk, 0.15)],
        &[(See::BarNotStraight, 0.93), (See::BarLengthDiffers, 0.6)],
    ),
    habits(
        Suspect::BoltLoose,
        9.0,
        &[(Clunk, 0.65), (Wobble, 0.5), (Wander, 0.4)],
        &[(See::BoltMoves, 0.92), (See::BushingMoves, 0.1)],
    ),
    habits(
        Suspect::BushingTorn,
        8.0,
        &[(Wander, 0.6), (Wobble, 0.4), (Rocking, 0.25), (Clunk, 0.3)],
        &[(See::BushingMoves, 0.92), (See::BoltMoves, 0.08)],
    ),
    habits(
        Suspect::BracketTearing,
        3.0,
        &[(Clunk, 0.6), (Wobble, 0.5), (Wander, 0.4), (OffCentre, 0.2)],
        &[(See::BracketMoves, 0.93), (See::BoltMoves, 0.15)],
    ),
    habits(Suspect::ArmsUnlike, 4.0, &[(Wander, 0.5), (WheelCrooked, 0.5)], &[(See::ArmsDiffer, 0.94)]),
    habits(
        Suspect::HousingBent,
        1.5,
        &[(Wander, 0.4), (Rub, 0.2), (Wobble, 0.2)],
        &[(See::HousingNotStraight, 0.9)],
    ),
    habits(
        Suspect::FrameOutOfSquare,
        2.0,
        &[(Wander, 0.4), (WheelCrooked, 0.4), (OffCentre, 0.2)],
        &[(See::DiagonalsDiffer, 0.93)],
    ),
    habits(
        Suspect::SwayLinksUnlike,
        4.0,
        &[(LeansInBends, 0.6), (Clunk, 0.15), (LiftsEarly, 0.2)],
        &[(See::LinksDiffer, 0.96)],
    ),
    habits(Suspect::ArmOnOtherSpline, 2.0, &[(LeansInBends, 0.6)], &[(See::SplineMarksDiffer, 0.95)]),
    habits(
        Suspect::ArmOverCenter,
        3.0,
        &[(Clunk, 0.6), (LiftsEarly, 0.5), (LeansInBends, 0.25)],
        &[(See::LinkInLine, 0.94)],
    ),
    habits(
        Suspect::DragLinkNotParallel,
        5.0,
        &[(SideStepping, 0.45), (Wander, 0.5), (WheelCrooked, 0.3)],
        &[(See::LeansUnlike, 0.94)],
    ),
    habits(
        Suspect::TrackBarHits,
        5.0,
        &[(Clunk, 0.7), (Rub, 0.3), (LiftsEarly, 0.15)],
        &[(See::RubbedPaint, 0.95)],
    ),
    habits(
        Suspect::ShocksTired,
        7.0,
        &[(Rocking, 0.8), (Wobble, 0.3), (SideStepping, 0.3)],
        &[(See::KeepsSwinging, 0.9)],
    ),
    habits(
        Suspect::SpringsUnlike,
        4.0,
        &[(LeansInBends, 0.5), (Rub, 0.15), (LiftsEarly, 0.15)],
        &[(See::SpringsDiffer, 0.92)],
    ),
    habits(
        Suspect::LoadToOneSide,
        4.0,
        &[(LeansInBends, 0.5), (Rocking, 0.35)],
        &[(See::LoadOneSided, 0.94)],
    ),
];

fn of(suspect: Suspect) -> Option<&'static Habits> {
    HABITS.iter().find(|habits| habits.suspect == suspect)
}

fn listed<T: PartialEq>(list: &[(T, f64)], what: &T, anyhow: f64) -> f64 {
    list.iter().find(|(listed, _)| listed == what).map_or(anyhow, |(_, share)| share.max(anyhow))
}

/// How often it is met, against the other suspects: no share, a weight.
#[must_use]
pub(super) fn frequency(suspect: Suspect) -> f64 {
    of(suspect).map_or(0.0, |habits| habits.frequency)
}

/// How often its driver complains of that; of a vehicle with nothing wrong for None.
#[must_use]
pub(super) fn complains(suspect: Option<Suspect>, about: ComplaintAbout) -> f64 {
    let list = suspect.and_then(of).map_or(&[][..], |habits| habits.complaints);
    listed(list, &about, COMPLAINS_ANYHOW)
}

/// How often a check shows what it looks for where that is the fault; where nothing is wrong for None.
#[must_use]
pub(super) fn shows(suspect: Option<Suspect>, check: QuickCheck) -> f64 {
    let list = suspect.and_then(of).map_or(&[][..], |habits| habits.checks);
    listed(list, &check, SEEN_ANYHOW)
}

/// Whether a check looks for a suspect at all.
#[must_use]
pub(crate) fn looks_for(check: QuickCheck, suspect: Suspect) -> bool {
    of(suspect)
        .is_some_and(|habits| habits.checks.iter().any(|(listed, share)| *listed == check && *share > 0.3))
}

/// What was seen at a check and still counts: what is mended since is not there any more.
#[must_use]
pub(crate) fn still_seen(job: &Job, check: QuickCheck) -> Option<bool> {
    job.diagnosis.seen(check, |suspect| looks_for(check, suspect))
}

/// Minutes a check takes, tools in hand.
#[must_use]
pub(super) const fn minutes(check: QuickCheck) -> u32 {
    match check {
        See::TurnsDiffer | See::StoodOtherwise | See::WheelsNotStraight | See::LoadOneSided => 1,
        See::RubbedPaint | See::HoleDiffers | See::KeepsSwinging | See::LeansUnlike => 2,
        See::BoltMoves
        | See::BushingMoves
        | See::BracketMoves
        | See::PressuresDiffer
        | See::SplineMarksDiffer => 3,
        See::BarNotStraight | See::FloorSlopes | See::LinksDiffer => 4,
        See::BarLengthDiffers | See::BouncedDiffers => 6,
        See::FrameEyeElsewhere | See::AxleEyeElsewhere | See::OtherPointDiffers => 8,
        See::ArmsDiffer | See::LinkInLine => 10,
        See::DiagonalsDiffer | See::SpringsDiffer => 15,
        See::HousingNotStraight => 20,
    }
}

/// The screen on which it is put right.
#[must_use]
pub(super) const fn stage(suspect: Suspect) -> Stage {
    match suspect {
        Suspect::FullDifference | Suspect::SignTurned | Suspect::LengthOff | Suspect::BarBent => Stage::Bar,
        Suspect::FrameBracketSideways
        | Suspect::FrameBracketHeight
        | Suspect::AxleBracketSideways
        | Suspect::AxleBracketHeight
        | Suspect::OtherHole
        | Suspect::BracketTearing
        | Suspect::ArmsUnlike => Stage::Bracket,
        Suspect::TrackBarHits | Suspect::DragLinkNotParallel => Stage::Cycle,
        Suspect::SwayLinksUnlike | Suspect::ArmOnOtherSpline | Suspect::ArmOverCenter => Stage::Sway,
        Suspect::BoltLoose | Suspect::BushingTorn => Stage::BoltUp,
        Suspect::TiresUnlike
        | Suspect::HousingBent
        | Suspect::FrameOutOfSquare
        | Suspect::ShocksTired
        | Suspect::SpringsUnlike
        | Suspect::LoadToOneSide => Stage::Rig,
        Suspect::MeasuredHanging
        | Suspect::NotBounced
        | Suspect::LeanedOn
        | Suspect::AnotherHeight
        | Suspect::WheelsTurned
        | Suspect::SlopingFloor
        | Suspect::ReferenceCrooked => Stage::Prove,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Everybody on the list can be looked for, and every check looks for somebody.
    #[test]
    fn every_suspect_has_a_check_and_every_check_a_suspect() {
        for suspect in Suspect::ALL {
            assert!(frequency(suspect) > 0.0, "{suspect:?}");
            assert!(QuickCheck::ALL.iter().any(|check| looks_for(*check, suspect)), "{suspect:?}");
        }
        for check in QuickCheck::ALL {
            assert!(Suspect::ALL.iter().any(|suspect| looks_for(check, *suspect)), "{check:?}");
        }
    }
}
