//! What the lines of workings find, and what is worked out.

use derecho_core::measure::{Heading, Meaning, Phrase};

pub(crate) fn meaning(meaning: &Meaning) -> Phrase {
    let text = match meaning {
        Meaning::Offset => "offset",
        Meaning::PerTurnOpposite => "per turn, opposite hands",
        Meaning::PerTurnSame => "per turn, the same hand",
        Meaning::PerTurnOneEnd => "per turn, one end",
        Meaning::Turns => "turns",
        Meaning::ChangeSet => "change set with whole steps",
        Meaning::LeftOver => "left over, + is still too short",
        Meaning::ThreadIn => "thread in after",
        Meaning::HalfDifference => "half the difference of the means, + towards the left",
        Meaning::Repeat => "scatter and graduation of both sides, u = ½√(u_left² + u_right²)",
        Meaning::Uncertainty => "uncertainty with the feature's own, which repeats cannot reveal",
        Meaning::Likelihood => "how likely it is within the tolerance; 95 in 100 prove it",
        Meaning::FloorSlope => "what the sloping floor adds to a plumb line, taken off",
        Meaning::AxleLean => "what the lean of the axle hides at this height, added",
        Meaning::OffsetAfterBoth => "offset after both",
        Meaning::Yaw => "yaw of the axle, + points to the left",
        Meaning::ReachBefore => "sideways reach before",
        Meaning::ReachAfter => "sideways reach after",
        Meaning::RiseAfter => "rise after",
        Meaning::ShiftOfLift => "shift to the left, s = +1 for a frame eye on the left, −1 on the right",
        Meaning::RiseAsRead => "rise of the frame eye as it was read",
        Meaning::Rise => "rise of the frame eye",
        Meaning::RiseDriven => "rise at the driven height, with what was added since",
        Meaning::Reach => "sideways reach",
        Meaning::FrontViewAngle => "angle in front view, + frame end higher",
        Meaning::LateralRate => "lateral rate: to the left per unit of bump",
        Meaning::ReachWanted => "sideways reach wanted; e is the offset, + left",
        Meaning::LengthWanted => "length wanted",
        Meaning::Change => "change",
        Meaning::FirstOrder => "to first order",
        Meaning::HalfDifferenceRule => "the half-difference rule of thumb",
        Meaning::RuleError => "what the thumb sets too long, − is too short",
        Meaning::BarLoad => "load of the bar, N",
        Meaning::EulerStress => "Euler's stress π²EI/(L²A), MPa",
        Meaning::Eccentricity => "eccentricity, b the bend's offset: η = (b + L/1000) · A / Z",
        Meaning::CompressionMargin => "compression it stands by Perry's formula over its load",
        Meaning::FrameSaddle => "saddle at the frame eye",
        Meaning::AxleSaddle => "saddle at the axle eye",
        Meaning::StockCut => "stock to cut, tip to tip",
        Meaning::CentreToCentre => "centre to centre",
        Meaning::RiserParallel => "riser that lays the bar parallel to the drag link",
        Meaning::RiserLevel => "riser that levels the bar at travel t* from the driven height",
        Meaning::Grip => "grip: both ears and what is between",
        Meaning::ShortestBolt => "shortest bolt: two threads stand out of the nut",
        Meaning::Measured => "measured: to the left, from both sheets",
        Meaning::SheetsGoodTo => {
            "what both sheets are good to together; what both were read from drops out where it is the same"
        }
        Meaning::DifferenceGoodTo => "what their difference is good to, with the prediction's own u_p",
        Meaning::Landing => "where it lands by both together, weighed by how sure each is",
        Meaning::Predicted => "predicted: to the left, from the length set and the eye moved by m",
        Meaning::FarEnd => "far end from the bar's axis, in the arm's plane",
        Meaning::LinkInPlane => "link in the arm's plane",
        Meaning::AngleAtEye => "angle at the link's eye",
        Meaning::Torsion => "torsion of the bar, N·m to the radian, sizes in mm and G = 79,300 N/mm²",
        Meaning::TorsionWithGive => "with arms, links and bushes that give, N·m to the radian",
        Meaning::AtTheAxle => {
            "at the axle, N·m to the degree of roll, each degree turning the arms against each other by w"
        }
        Meaning::ArmInUse => "the arm in use",
        Meaning::Overturning => {
            "what leans, N·m to the radian: the weight on the springs and on the roof, each over the roll axis"
        }
        Meaning::SpringsHere => "springs here, N·m to the radian, their rate in N/m",
        Meaning::AxleWithBar => "this axle, its bar in",
        Meaning::AxleWithBarOnTires => "this axle, its bar in, on tyres that give",
        Meaning::RollOnRoad => "roll on the road, degrees to the g",
        Meaning::Shear { allowable } => {
            let most = allowable.to_mpa();
            return Phrase::plain(&format!(
                "shear at the worst twist, N/mm², of {most:.0} that its steel takes"
            ));
        }
    };
    Phrase::plain(text)
}

pub(crate) fn heading(heading: &Heading) -> Phrase {
    let text = match heading {
        Heading::Nothing => "",
        Heading::TurnsAndFlats => "Turns and flats",
        Heading::HowFarOff => "How far off, and how sure",
        Heading::HowSquare => "How square",
        Heading::AngleAndRate => "Angle and rate",
        Heading::CentringLength => "The length that centres it",
        Heading::GapToCut => "From the gap to the cut",
        Heading::ExactRiser => "The exact riser or drop",
        Heading::BoltLength => "From what is on it to the bolt's length",
        Heading::Movement => "Movement, predicted and measured",
        Heading::ArmAndLink => "Arm and link as it stands, left",
        Heading::BarRate => "The bar's rate, in the hole in use",
        Heading::RoadRoll => "Roll on the road, the bar as it is",
        Heading::Lift { lowered: false } => "What the lift alone does",
        Heading::Lift { lowered: true } => "What the drop alone does",
        Heading::Strength { part } => return Phrase::plain(&format!("Strength of {part}, estimated")),
    };
    Phrase::plain(text)
}
