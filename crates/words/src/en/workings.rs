//! What the lines of workings find, and what is worked out.

use derecho_core::measure::meaning::ShearIn;
use derecho_core::measure::typed::mark;
use derecho_core::measure::{Heading, Meaning, Phrase};
use derecho_job::defaults::HARD_BEND_G;

pub(crate) fn meaning(meaning: &Meaning) -> Phrase {
    let text = match meaning {
        Meaning::Offset => "offset",
        Meaning::PerTurnOpposite => "per turn, opposite hands",
        Meaning::PerTurnSame => "per turn, the same hand",
        Meaning::PerTurnOneEnd => "per turn, one end",
        Meaning::Turns => "turns",
        Meaning::ChangeSet => "change set with whole steps",
        Meaning::LeftOver => "left over, + is still too short",
        Meaning::ThreadIn => "thread engaged after",
        Meaning::HalfDifference => "half the difference of the means, + toward the left",
        Meaning::Repeat => "repeat scatter and tape resolution of both sides, u = ½√(u_left² + u_right²)",
        Meaning::Uncertainty => "uncertainty including the reference point's own, which repeats can't show",
        Meaning::Likelihood => "how likely it is within the tolerance; 95 in 100 prove it",
        Meaning::FloorSlope => "correction for a plumb line on a sloping floor, subtracted",
        Meaning::AxleLean => "correction for axle lean at this height, added",
        Meaning::OffsetAfterBoth => "offset after both",
        Meaning::Yaw => "axle out of square, + points left",
        Meaning::ReachBefore => "side-to-side distance before",
        Meaning::ReachAfter => "side-to-side distance after",
        Meaning::RiseAfter => "height difference after",
        Meaning::ShiftOfLift => "shift to the left, s = +1 for a frame eye on the left, −1 on the right",
        Meaning::RiseAsRead => "height of frame end over axle end, as measured",
        Meaning::Rise => "height of frame end over axle end",
        Meaning::RiseDriven => "height difference at the driven height, with the lift since",
        Meaning::Reach => "side-to-side distance, bolt to bolt",
        Meaning::FrontViewAngle => "angle in front view, + frame end higher",
        Meaning::LateralRate => "sideways movement per unit of bump, + to the left",
        Meaning::ReachWanted => "side-to-side distance needed; e = how far off center, + left",
        Meaning::LengthWanted => "length needed",
        Meaning::Change => "change",
        Meaning::FirstOrder => "quick approximation",
        Meaning::HalfDifferenceRule => "the half-difference rule of thumb",
        Meaning::RuleError => "error of the rule of thumb: + too long, − too short",
        Meaning::BarLoad => "load of the bar, N",
        Meaning::EulerStress => "Euler's stress π²EI/(L²A), MPa",
        Meaning::Eccentricity => "eccentricity, b the bend's offset: η = (b + L/1000) · A / Z",
        Meaning::CompressionMargin => "compression it holds by Perry's formula, over its load",
        Meaning::FrameSaddle => "saddle at the frame end",
        Meaning::AxleSaddle => "saddle at the axle end",
        Meaning::StockCut => "length of stock to cut, tip to tip",
        Meaning::CentreToCentre => "center to center",
        Meaning::RiserAsStock => "riser that gives the bar its stock angle",
        Meaning::RiserParallel => "riser that makes the bar parallel to the drag link",
        Meaning::RiserLevel => "riser that levels the bar at travel t* from the driven height",
        Meaning::Grip => "grip: both ears and what is between them",
        Meaning::ShortestBolt => "shortest bolt: two threads showing past the nut",
        Meaning::Measured => "measured: to the left, from both sets of measurements",
        Meaning::SheetsGoodTo => {
            "accuracy of both sets together; the error of a shared reference point cancels"
        }
        Meaning::DifferenceGoodTo => "accuracy of their difference, with the prediction's own u_p",
        Meaning::Landing => "where it lands by both together, weighted by how good each is",
        Meaning::Predicted => "predicted: + to the left, from the length set and how far the eye moved, m",
        Meaning::FarEnd => "other end from the center of the bar, in the plane of the arm",
        Meaning::LinkInPlane => "sway link in the plane of the arm",
        Meaning::AngleAtEye => "angle between arm and sway link",
        Meaning::Torsion => "torsional stiffness of the bar, N·m per radian, sizes in mm and G = 79300 N/mm²",
        Meaning::TorsionWithGive => "with arms, sway links and bushings that flex, N·m per radian",
        Meaning::AtTheAxle => {
            "at the axle, N·m per degree of roll; each degree turns the arms against each other by w"
        }
        Meaning::ArmInUse => "the arm in use",
        Meaning::Overturning => {
            "overturning moment, N·m per radian: sprung weight and roof load, each over the roll axis"
        }
        Meaning::SpringsHere => "springs of this axle, N·m per radian, their rate in N/m",
        Meaning::AxleWithBar => "this axle with its sway bar",
        Meaning::AxleWithBarOnTires => "this axle with its sway bar, tires flexing",
        Meaning::RollOnRoad => "roll on the road, degrees per g",
        Meaning::Shear { allowable, driven } => {
            let most = allowable.to_mpa();
            let twist = match driven {
                ShearIn::Everywhere => "at the worst twist".to_owned(),
                ShearIn::Locked => format!("locked, in a hard corner of {HARD_BEND_G} g"),
                ShearIn::Unlocked => "unlocked at the worst twist, s of the locked rate".to_owned(),
            };
            return Phrase::plain(&format!("shear {twist}, N/mm²; the steel takes {most:.0}"));
        }
    };
    Phrase::plain(text)
}

pub(crate) fn heading(heading: &Heading) -> Phrase {
    let text = match heading {
        Heading::Nothing => "",
        Heading::TurnsAndFlats => "Turns and flats",
        Heading::HowFarOff => "How far off center, and how sure",
        Heading::HowSquare => "How square",
        Heading::AngleAndRate => "Angle and rate",
        Heading::CentringLength => "Length that centers the axle",
        Heading::GapToCut => "From the gap to the cut length",
        Heading::ExactRiser => "The exact riser or drop",
        Heading::BoltLength => "From the stack-up to the bolt length",
        Heading::Movement => "Movement, predicted and measured",
        Heading::ArmAndLink => "Left sway bar arm and link at this height",
        Heading::BarRate => "Sway bar rate in the hole in use",
        Heading::RoadRoll => "Roll on the road with the sway bar as it is",
        Heading::Lift { lowered: false } => "What the lift alone does",
        Heading::Lift { lowered: true } => "What the drop alone does",
        Heading::Strength { part } => {
            return Phrase::plain(&format!("Strength of {}, estimated", mark(part)));
        }
    };
    Phrase::plain(text)
}
