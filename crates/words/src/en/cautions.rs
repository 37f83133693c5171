//! Cautions.

use derecho_core::measure::Phrase;
use derecho_job::cautions::{CautionMessage, CautionText};

pub(super) fn caution(message: &CautionMessage) -> Phrase {
    let CautionMessage { text, y_link, steered } = *message;
    let unsteered = (!steered).then(|| without_steering(text)).flatten();
    let of_a_y_link = y_link.then(|| of_a_y_link(text)).flatten();
    Phrase::plain(of_a_y_link.or(unsteered).unwrap_or_else(|| usual(text)))
}

/// What is minded of a Y-link in a track bar's place, where that is something else.
const fn of_a_y_link(text: CautionText) -> Option<&'static str> {
    match text {
        CautionText::ReachesAndClears => Some(
            "Check that the link's legs reach their length both ways and clear over the whole travel before anything is welded or drilled.",
        ),
        _ => None,
    }
}

/// What is minded of an axle that is not steered, where that is something else.
const fn without_steering(text: CautionText) -> Option<&'static str> {
    match text {
        CautionText::FingersOut => Some("Engine off and fingers out of bolt holes while anything moves."),
        CautionText::Inspected => {
            Some("The bar steers the rear axle over bumps: have the work inspected where the law says so.")
        }
        CautionText::StructuralWelding => Some(
            "Structural welding on frame or axle belongs to people qualified and, where the law says so, licensed; have it inspected.",
        ),
        CautionText::Licensed => Some(
            "Structural welding belongs to people qualified and, where the law says so, licensed and inspected.",
        ),
        CautionText::WheelAndSensors => Some("Stability sensors' zero where there are any."),
        _ => None,
    }
}

const fn usual(text: CautionText) -> &'static str {
    match text {
        CautionText::LocalRules => {
            "Lift height, tyre cover and steering changes are governed by local rules. Check them before parts are bought."
        }
        CautionText::MakersFirst => {
            "The maker's instructions come first, for the vehicle and for every part. Structural, steering and brake work belongs to people qualified and, where the law says so, licensed."
        }
        CautionText::ChockAndSettle => {
            "Chock the wheels. Nobody under the vehicle while it is bounced to settle."
        }
        CautionText::StandsFirst => {
            "Stands under the frame or axle before anything is undone, never a jack alone."
        }
        CautionText::StandsBeforeABolt => {
            "Stands under the frame or axle before a bolt is undone, never a jack alone. Springs store energy, and the axle shifts or drops when the bar comes off."
        }
        CautionText::FingersOut => {
            "Engine off and fingers out of bolt holes while anything moves, the steering wheel too."
        }
        CautionText::Strap => {
            "A strap pulling the axle over is under load: stand clear of its line, and let it off slowly."
        }
        CautionText::ThreadsIn => {
            "Never fewer threads in than the maker asks. Jam nuts or clamps are tightened last, to the part's own sheet."
        }
        CautionText::Inspected => {
            "The bar is part of the steering's geometry at the front: have the work inspected where the law says so."
        }
        CautionText::ReachesAndClears => {
            "Check that the bar reaches its length both ways and clears over the whole travel before anything is welded or drilled."
        }
        CautionText::Welding => {
            "Welding: battery negative off, electronics in mind, fuel and brake lines and soft bushings away from heat, bright metal, something to put a fire out at hand. Eyes and hands covered."
        }
        CautionText::StructuralWelding => {
            "Structural welding on frame or axle, and steering parts, belong to people qualified and, where the law says so, licensed; have it inspected."
        }
        CautionText::Drilling => {
            "Drilling: stands under the frame, the drill braced against its kick, hot chips away from eyes and hands, nothing behind the far wall. Paint the raw edges."
        }
        CautionText::RaisedTogether => {
            "A riser goes with a raised drag link and a drop with a dropped pitman arm: steering parts by the maker's sheet alone, torqued, pinned and inspected."
        }
        CautionText::NoCertification => {
            "Strength here is a comparison, no certification. The maker's instructions and local rules on lift and steering come first."
        }
        CautionText::CycleIt => {
            "What is computed here does not replace cycling it: go from full droop to full bump and cross-axled on the vehicle before anything is welded."
        }
        CautionText::SpringsOut => {
            "With springs out the axle hangs on jacks: stands under the frame, nobody beneath, fingers out of every gap while it moves."
        }
        CautionText::NotInTheseFigures => {
            "Brake lines, looms, exhaust, driveshaft and shocks are not in these figures. Watch them at full droop and at lock."
        }
        CautionText::Licensed => {
            "Steering parts and structural welding belong to people qualified and, where the law says so, licensed and inspected."
        }
        CautionText::NeverDisconnected => {
            "Never drive on the road with the sway bar disconnected: it is for slow ground off the road."
        }
        CautionText::TwistedBar => {
            "A twisted bar stores energy: level ground, stands under frame and axle, both wheels alike before a link is undone or a pin pulled."
        }
        CautionText::LinesAndLooms => {
            "Unclip brake lines and sensor looms by the bar, and put them back; nothing may chafe at full droop, full bump or lock."
        }
        CautionText::PinsAndClips => {
            "Bolts to the part's own torque, jam nuts last, pins with their clips in. Look again after the first day off the road."
        }
        CautionText::EqualShim => {
            "A reinforcing plate under one clamp of the bar wants an equal shim under the other. Stops or clamps tight once its stick-out is equal."
        }
        CautionText::RollIsEstimated => {
            "Rates and roll here are estimates to compare by. The maker's instructions and a qualified inspection come first."
        }
        CautionText::StandsForBarAndShocks => {
            "Stands under the frame before anything is undone, never a jack alone. Springs store energy, and the axle drops or shifts when bar or shocks come off."
        }
        CautionText::TorqueFromSheets => {
            "Torques come from the part's own sheet or the vehicle's manual alone. The maker's order comes before the order here."
        }
        CautionText::WeldingAndDrilling => {
            "Welding and drilling: eyes and hands covered, battery negative off, fuel and brake lines away from heat and chips, something to put a fire out at hand."
        }
        CautionText::LicensedBrakes => {
            "Structural welding, steering and brake parts belong to people qualified and, where the law says so, licensed and inspected."
        }
        CautionText::BeforeItMoves => {
            "Jam nuts or clamps tight, wheel nuts torqued, brake lines free at full droop and at lock before it moves."
        }
        CautionText::WheelAndSensors => {
            "Steering wheel straight again by the drag link, toe checked, stability sensors' zero where there are any."
        }
        CautionText::RoadInSteps => {
            "Road test in steps: yard, slow, dips, highway. Stop at the first wobble."
        }
        CautionText::TorqueAgain => {
            "Torque again after the first 50 miles (80 km) and at 500 (800 km), and after the first day off the road."
        }
        CautionText::FiguresAreAids => {
            "The figures here are aids. The maker's instructions and a qualified inspection come first."
        }
    }
}
