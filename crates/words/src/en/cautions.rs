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
            "Before you weld or drill, check that the Y-link's legs adjust both ways and clear everything over full travel.",
        ),
        _ => None,
    }
}

/// What is minded of an axle that is not steered, where that is something else.
const fn without_steering(text: CautionText) -> Option<&'static str> {
    match text {
        CautionText::FingersOut => Some("Engine off and fingers out of bolt holes while anything moves."),
        CautionText::Inspected => Some(
            "On a rear axle the bar steers the axle over bumps: have the work inspected where the law requires it.",
        ),
        CautionText::StructuralWelding => Some(
            "Structural welding on frame or axle is for people who are qualified and, where the law requires it, licensed. Have it inspected.",
        ),
        CautionText::Licensed => Some(
            "Structural welding is for people who are qualified and, where the law requires it, licensed and inspected.",
        ),
        CautionText::WheelAndSensors => Some("Re-zero the stability-control sensors if it has them."),
        _ => None,
    }
}

const fn usual(text: CautionText) -> &'static str {
    match text {
        CautionText::LocalRules => {
            "Local rules limit lift height, tire coverage and steering changes. Check them before you buy parts."
        }
        CautionText::MakersFirst => {
            "The instructions of the vehicle's and every part's manufacturer come first. Structural, steering and brake work is for people who are qualified and, where the law requires it, licensed."
        }
        CautionText::ChockAndSettle => "Chock the wheels. Nobody underneath while you bounce it.",
        CautionText::StandsFirst => {
            "Jack stands under the frame or axle before anything comes loose, never a jack alone."
        }
        CautionText::StandsBeforeABolt => {
            "Jack stands under the frame or axle before you undo a bolt, never a jack alone. Springs are under load, and the axle can shift or drop when the bar comes off."
        }
        CautionText::FingersOut => {
            "Engine off and fingers out of bolt holes while anything moves, steering wheel included."
        }
        CautionText::Strap => {
            "A ratchet strap pulling the axle over is under load: stand out of line with it and release it slowly."
        }
        CautionText::ThreadsIn => {
            "Never less thread engaged than the manufacturer calls for. Jam nuts or clamps last, to the torque in the part's instructions."
        }
        CautionText::Inspected => {
            "On a front axle the bar is part of the steering geometry: have the work inspected where the law requires it."
        }
        CautionText::ReachesAndClears => {
            "Before you weld or drill, check that the bar adjusts both ways from its length and clears everything over full travel."
        }
        CautionText::Welding => {
            "Welding: battery negative off, protect electronics, keep heat off fuel and brake lines and bushings, bare metal, fire extinguisher within reach. Cover eyes and hands."
        }
        CautionText::StructuralWelding => {
            "Structural welding on frame or axle, and steering parts, are for people who are qualified and, where the law requires it, licensed. Have it inspected."
        }
        CautionText::Drilling => {
            "Drilling: jack stands under the frame; brace the drill, it can grab; keep hot chips away from eyes and hands; check that nothing is behind the far wall. Paint the bare edges."
        }
        CautionText::RaisedTogether => {
            "Match an axle riser with a raised drag link, and a frame drop bracket with a dropped pitman arm. Steering parts: the manufacturer's instructions only; torque, pin and inspect."
        }
        CautionText::NoCertification => {
            "Strength figures are for comparison only, not a certification. Manufacturer's instructions and local lift and steering rules come first."
        }
        CautionText::CycleIt => {
            "These numbers don't replace cycling it: run the axle from full droop to full bump and crossed up on the vehicle before you weld anything."
        }
        CautionText::SpringsOut => {
            "With the springs out only jacks hold the axle: jack stands under the frame, nobody underneath, fingers out of every gap while it moves."
        }
        CautionText::NotInTheseFigures => {
            "Brake lines, wiring, exhaust, driveshaft and shocks are not in these numbers. Check them at full droop and full lock."
        }
        CautionText::Licensed => {
            "Steering parts and structural welding are for people who are qualified and, where the law requires it, licensed and inspected."
        }
        CautionText::NeverDisconnected => {
            "Never drive on the road with the sway bar disconnected: it is for slow off-road driving only."
        }
        CautionText::TwistedBar => {
            "A twisted sway bar is under load: level ground, jack stands under frame and axle, both wheels at the same height before you undo a sway link or pull a pin."
        }
        CautionText::LinesAndLooms => {
            "Unclip brake lines and sensor wiring near the bar, and clip them back; nothing may rub at full droop, full bump or full lock."
        }
        CautionText::PinsAndClips => {
            "Torque bolts to the part's instructions, jam nuts last, clips in the pins. Check again after the first trail day."
        }
        CautionText::EqualShim => {
            "A reinforcing plate under one sway bar clamp needs an equal shim under the other. Tighten the stops or clamps once stick-out is equal."
        }
        CautionText::RollIsEstimated => {
            "Rates and roll angles are estimates for comparison. Manufacturer's instructions and a qualified inspection come first."
        }
        CautionText::StandsForBarAndShocks => {
            "Jack stands under the frame before anything comes loose, never a jack alone. Springs are under load, and the axle can shift or drop when the bar or shocks come off."
        }
        CautionText::TorqueFromSheets => {
            "Torques come only from the part's instructions or the vehicle manual. The manufacturer's sequence comes before the one here."
        }
        CautionText::WeldingAndDrilling => {
            "Welding and drilling: cover eyes and hands, battery negative off, keep heat and chips off fuel and brake lines, fire extinguisher within reach."
        }
        CautionText::LicensedBrakes => {
            "Structural welding, steering and brake parts are for people who are qualified and, where the law requires it, licensed and inspected."
        }
        CautionText::BeforeItMoves => {
            "Before it moves: jam nuts or clamps tight, lug nuts torqued, brake lines free at full droop and full lock."
        }
        CautionText::WheelAndSensors => {
            "Straighten the steering wheel at the drag link, check toe, re-zero the stability-control sensors if it has them."
        }
        CautionText::RoadInSteps => {
            "Road test in steps: yard, slow turns, dips, highway. Stop at the first wobble."
        }
        CautionText::TorqueAgain => {
            "Re-torque after 50 miles (80 km), after 500 (800 km), and after the first trail day."
        }
        CautionText::FiguresAreAids => {
            "These figures are a guide. Manufacturer's instructions and a qualified inspection come first."
        }
    }
}
