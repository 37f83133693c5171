//! What a driver complains of and what hands see, made from what a fault does. The shares are those of the vehicles and
//! hands here; none of them is read from the advice.

use derecho_job::document::ComplaintAbout;
use derecho_job::document::diagnosis::{QuickCheck, Suspect};

use super::fault::Fault;
use crate::technician::Technician;

/// A driver with nothing to complain of says so in so many of a hundred, of each thing.
const SAYS_ANYHOW: f64 = 0.03;

/// How likely a driver complains of that.
pub(super) fn complains(faults: &[Fault], off_by: f64, about: ComplaintAbout) -> f64 {
    use ComplaintAbout as About;
    let of = |fault: &Fault| -> f64 {
        let far = |least: f64, share: f64| if fault.size.abs() > least { share } else { share * 0.4 };
        match (fault.suspect, about) {
            (Suspect::BoltLoose, About::Clunk) => far(1.5, 0.75),
            (Suspect::BoltLoose, About::Wobble) => far(2.0, 0.45),
            (Suspect::SpringsUnlike | Suspect::LoadToOneSide, About::LeansInBends) => far(10.0, 0.55),
            (Suspect::SwayLinksUnlike, About::LeansInBends) => far(8.0, 0.65),
            (Suspect::ArmsUnlike, About::Wander | About::WheelCrooked) => far(6.0, 0.55),
            (Suspect::FrameOutOfSquare, About::Wander | About::WheelCrooked) => far(6.0, 0.45),
            (
                Suspect::FrameBracketHeight | Suspect::AxleBracketHeight | Suspect::OtherHole,
                About::SideStepping,
            ) => far(12.0, 0.45),
            (Suspect::ShocksTired, About::Rocking) => 0.85,
            (Suspect::TrackBarHits, About::Clunk) => 0.75,
            (Suspect::BushingTorn, About::Wander)
            | (Suspect::BracketTearing | Suspect::ArmOverCenter, About::Clunk)
            | (Suspect::ArmOnOtherSpline, About::LeansInBends) => 0.65,
            (Suspect::TiresUnlike, About::Wander) => 0.6,
            (Suspect::DragLinkNotParallel, About::SideStepping | About::Wander) => 0.5,
            (Suspect::BracketTearing, About::Wobble)
            | (Suspect::ArmOverCenter, About::LiftsEarly)
            | (Suspect::HousingBent, About::Wander) => 0.45,
            (Suspect::BoltLoose | Suspect::BracketTearing, About::Wander)
            | (Suspect::BushingTorn, About::Wobble)
            | (Suspect::ShocksTired, About::SideStepping) => 0.35,
            (Suspect::LoadToOneSide, About::Rocking) => 0.3,
            (Suspect::BushingTorn, About::Rocking | About::Clunk)
            | (Suspect::TrackBarHits, About::Rub)
            | (Suspect::ShocksTired, About::Wobble)
            | (Suspect::TiresUnlike | Suspect::BarBent | Suspect::DragLinkNotParallel, About::WheelCrooked) => {
                0.25
            }
            (Suspect::HousingBent, About::Rub | About::Wobble) => 0.2,
            _ => 0.0,
        }
    };
    // A tire that stands out is seen, whatever has put it there.
    let stands_out =
        if about == ComplaintAbout::OffCentre { (off_by.abs() / 14.0).powi(2).min(0.85) } else { 0.0 };
    let crooked = faults.iter().any(|fault| {
        fault.suspect == Suspect::ReferenceCrooked
            && about == ComplaintAbout::OffCentre
            && fault.size.abs() > 6.0
    });
    let quiet = faults
        .iter()
        .map(of)
        .chain([SAYS_ANYHOW, stands_out, if crooked { 0.6 } else { 0.0 }])
        .map(|share| 1.0 - share)
        .product::<f64>();
    1.0 - quiet
}

/// How likely a check shows what it looks for, in these hands.
pub(super) fn shows(faults: &[Fault], check: QuickCheck, hands: Technician) -> f64 {
    let (misses, imagines) = match hands {
        Technician::Careful => (0.04, 0.03),
        Technician::Hurried => (0.15, 0.07),
    };
    let quiet = faults
        .iter()
        .map(|fault| of_one(fault, check) * (1.0 - misses))
        .chain([imagines])
        .map(|share| 1.0 - share)
        .product::<f64>();
    1.0 - quiet
}

/// Before hands miss it or imagine it: what is large is plain to see, what is small is not.
fn of_one(fault: &Fault, check: QuickCheck) -> f64 {
    use QuickCheck as See;
    use Suspect as Is;
    let size = fault.size.abs();
    let plain = |least: f64| (size / least).min(1.0);
    match (fault.suspect, check) {
        (Is::BoltLoose, See::BoltMoves) => 0.7 + 0.3 * plain(1.5),
        (Is::BushingTorn, See::BushingMoves)
        | (Is::BracketTearing, See::BracketMoves)
        | (Is::ShocksTired, See::KeepsSwinging) => 0.95,
        (Is::BushingTorn, See::BoltMoves) | (Is::BoltLoose, See::BushingMoves) => 0.1,
        (Is::BracketTearing, See::BoltMoves) | (Is::AnotherHeight, See::BouncedDiffers) => 0.2,
        (Is::TrackBarHits, See::RubbedPaint)
        | (Is::SlopingFloor, See::FloorSlopes)
        | (Is::ArmOverCenter, See::LinkInLine)
        | (Is::DragLinkNotParallel, See::LeansUnlike)
        | (Is::MeasuredHanging | Is::AnotherHeight, See::StoodOtherwise)
        | (Is::SignTurned | Is::FullDifference, See::TurnsDiffer) => 0.96,
        (Is::BarBent, See::BarNotStraight) => 0.6 + 0.4 * plain(4.0),
        (Is::LengthOff | Is::BarBent, See::BarLengthDiffers) => plain(3.0),
        (Is::FullDifference | Is::SignTurned, See::BarLengthDiffers) => 0.6,
        (Is::FrameBracketSideways | Is::FrameBracketHeight, See::FrameEyeElsewhere)
        | (Is::AxleBracketSideways | Is::AxleBracketHeight, See::AxleEyeElsewhere) => 0.3 + 0.7 * plain(5.0),
        (Is::OtherHole, See::HoleDiffers) | (Is::ArmOnOtherSpline, See::SplineMarksDiffer) => 0.98,
        (Is::OtherHole, See::AxleEyeElsewhere) => 0.85,
        (Is::MeasuredHanging, See::BouncedDiffers) => 0.92,
        (Is::NotBounced | Is::LeanedOn, See::BouncedDiffers) => 0.4 + 0.55 * plain(3.0),
        (Is::TiresUnlike, See::PressuresDiffer)
        | (Is::LoadToOneSide, See::LoadOneSided)
        | (Is::SpringsUnlike, See::SpringsDiffer)
        | (Is::HousingBent, See::HousingNotStraight)
        | (Is::WheelsTurned, See::WheelsNotStraight) => 0.94,
        (Is::ReferenceCrooked, See::OtherPointDiffers) => 0.4 + 0.6 * plain(5.0),
        (Is::ArmsUnlike, See::ArmsDiffer) | (Is::FrameOutOfSquare, See::DiagonalsDiffer) => {
            0.5 + 0.5 * plain(5.0)
        }
        (Is::SwayLinksUnlike, See::LinksDiffer) => 0.6 + 0.4 * plain(3.0),
        _ => 0.0,
    }
}
