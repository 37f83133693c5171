//! Cautions, each with the stage it stands beside. They cannot be switched off.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The stages of a job that work today, in working order.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stage {
    /// Who holds what.
    Rig,
    /// Readings.
    Tape,
    /// Angle, arc, length, turns.
    Bar,
    /// The angle put right: hole, bracket, bar.
    Bracket,
    /// What touches, binds or runs out over the travel.
    Cycle,
    /// Links, arms, rates, disconnects.
    Sway,
    /// The work in order: parts, steps, torque.
    BoltUp,
    /// Readings again, and whether it is settled.
    Prove,
}

/// One caution.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Caution {
    /// The stage it stands beside.
    pub stage: Stage,
    /// What to mind.
    pub says: String,
}

const CAUTIONS: [(Stage, &str); 35] = [
    (
        Stage::Rig,
        "Lift height, tyre cover and steering changes are governed by local rules. Check them before parts are bought.",
    ),
    (
        Stage::Rig,
        "The maker's instructions come first, for the vehicle and for every part. Structural, steering and brake work belongs to people qualified and, where the law says so, licensed.",
    ),
    (Stage::Tape, "Chock the wheels. Nobody under the vehicle while it is bounced to settle."),
    (Stage::Tape, "Stands under the frame or axle before anything is undone, never a jack alone."),
    (
        Stage::Bar,
        "Stands under the frame or axle before a bolt is undone, never a jack alone. Springs store energy, and the axle shifts or drops when the bar comes off.",
    ),
    (Stage::Bar, "Engine off and fingers out of bolt holes while anything moves, the steering wheel too."),
    (
        Stage::Bar,
        "A strap pulling the axle over is under load: stand clear of its line, and let it off slowly.",
    ),
    (
        Stage::Bar,
        "Never fewer threads in than the maker asks. Jam nuts or clamps are tightened last, to the part's own sheet.",
    ),
    (
        Stage::Bar,
        "The bar is part of the steering's geometry at the front: have the work inspected where the law says so.",
    ),
    (
        Stage::Bracket,
        "Check that the bar reaches its length both ways and clears over the whole travel before anything is welded or drilled.",
    ),
    (
        Stage::Bracket,
        "Welding: battery negative off, electronics in mind, fuel and brake lines and soft bushings away from heat, bright metal, something to put a fire out at hand. Eyes and hands covered.",
    ),
    (
        Stage::Bracket,
        "Structural welding on frame or axle, and steering parts, belong to people qualified and, where the law says so, licensed; have it inspected.",
    ),
    (
        Stage::Bracket,
        "Drilling: stands under the frame, the drill braced against its kick, hot chips away from eyes and hands, nothing behind the far wall. Paint the raw edges.",
    ),
    (
        Stage::Bracket,
        "A riser goes with a raised drag link and a drop with a dropped pitman arm: steering parts by the maker's sheet alone, torqued, pinned and inspected.",
    ),
    (
        Stage::Bracket,
        "Strength here is a comparison, no certification. The maker's instructions and local rules on lift and steering come first.",
    ),
    (
        Stage::Cycle,
        "What is computed here does not replace cycling it: go from full droop to full bump and cross-axled on the vehicle before anything is welded.",
    ),
    (
        Stage::Cycle,
        "With springs out the axle hangs on jacks: stands under the frame, nobody beneath, fingers out of every gap while it moves.",
    ),
    (
        Stage::Cycle,
        "Brake lines, looms, exhaust, driveshaft and shocks are not in these figures. Watch them at full droop and at lock.",
    ),
    (
        Stage::Cycle,
        "Steering parts and structural welding belong to people qualified and, where the law says so, licensed and inspected.",
    ),
    (
        Stage::Sway,
        "Never drive on the road with the sway bar disconnected: it is for slow ground off the road.",
    ),
    (
        Stage::Sway,
        "A twisted bar stores energy: level ground, stands under frame and axle, both wheels alike before a link is undone or a pin pulled.",
    ),
    (
        Stage::Sway,
        "Unclip brake lines and sensor looms by the bar, and put them back; nothing may chafe at full droop, full bump or lock.",
    ),
    (
        Stage::Sway,
        "Bolts to the part's own torque, jam nuts last, pins with their clips in. Look again after the first day off the road.",
    ),
    (
        Stage::Sway,
        "A reinforcing plate under one clamp of the bar wants an equal shim under the other. Stops or clamps tight once its stick-out is equal.",
    ),
    (
        Stage::Sway,
        "Rates and roll here are estimates to compare by. The maker's instructions and a qualified inspection come first.",
    ),
    (
        Stage::BoltUp,
        "Stands under the frame before anything is undone, never a jack alone. Springs store energy, and the axle drops or shifts when bar or shocks come off.",
    ),
    (Stage::BoltUp, "Engine off and fingers out of bolt holes while anything moves, the steering wheel too."),
    (
        Stage::BoltUp,
        "Torques come from the part's own sheet or the vehicle's manual alone. The maker's order comes before the order here.",
    ),
    (
        Stage::BoltUp,
        "Welding and drilling: eyes and hands covered, battery negative off, fuel and brake lines away from heat and chips, something to put a fire out at hand.",
    ),
    (
        Stage::BoltUp,
        "Structural welding, steering and brake parts belong to people qualified and, where the law says so, licensed and inspected.",
    ),
    (
        Stage::Prove,
        "Jam nuts or clamps tight, wheel nuts torqued, brake lines free at full droop and at lock before it moves.",
    ),
    (
        Stage::Prove,
        "Steering wheel straight again by the drag link, toe checked, stability sensors' zero where there are any.",
    ),
    (Stage::Prove, "Road test in steps: yard, slow, dips, highway. Stop at the first wobble."),
    (
        Stage::Prove,
        "Torque again after the first 50 miles (80 km) and at 500 (800 km), and after the first day off the road.",
    ),
    (
        Stage::Prove,
        "The figures here are aids. The maker's instructions and a qualified inspection come first.",
    ),
];

/// What is minded of a bar, and in its place of a Y-link; empty where a Y-link has nothing of the kind.
const OF_A_BAR: [(&str, &str); 2] = [
    (
        "Check that the bar reaches its length both ways and clears over the whole travel before anything is welded or drilled.",
        "Check that the link's legs reach their length both ways and clear over the whole travel before anything is welded or drilled.",
    ),
    (
        "A riser goes with a raised drag link and a drop with a dropped pitman arm: steering parts by the maker's sheet alone, torqued, pinned and inspected.",
        "",
    ),
];

/// What is minded of a steered axle, and in its place of one that is not.
const OF_A_STEERED_AXLE: [(&str, &str); 6] = [
    (
        "Engine off and fingers out of bolt holes while anything moves, the steering wheel too.",
        "Engine off and fingers out of bolt holes while anything moves.",
    ),
    (
        "The bar is part of the steering's geometry at the front: have the work inspected where the law says so.",
        "The bar steers the rear axle over bumps: have the work inspected where the law says so.",
    ),
    (
        "A riser goes with a raised drag link and a drop with a dropped pitman arm: steering parts by the maker's sheet alone, torqued, pinned and inspected.",
        "",
    ),
    (
        "Structural welding on frame or axle, and steering parts, belong to people qualified and, where the law says so, licensed; have it inspected.",
        "Structural welding on frame or axle belongs to people qualified and, where the law says so, licensed; have it inspected.",
    ),
    (
        "Steering parts and structural welding belong to people qualified and, where the law says so, licensed and inspected.",
        "Structural welding belongs to people qualified and, where the law says so, licensed and inspected.",
    ),
    (
        "Steering wheel straight again by the drag link, toe checked, stability sensors' zero where there are any.",
        "Stability sensors' zero where there are any.",
    ),
];

/// Every caution, in the order of the stages; `y_link` is whether a Y-shaped link stands in the track bar's place,
/// `steered` whether the axle has a drag link to mind.
#[must_use]
pub fn cautions(y_link: bool, steered: bool) -> Vec<Caution> {
    let of_this_axle = |says: &'static str| {
        let unsteered = OF_A_STEERED_AXLE.iter().find(|(front, _)| !steered && *front == says);
        let says = unsteered.map_or(says, |(_, rear)| rear);
        let instead = OF_A_BAR.iter().find(|(bar, _)| y_link && *bar == says);
        instead.map_or(says, |(_, link)| link)
    };
    CAUTIONS
        .iter()
        .map(|(stage, says)| Caution { stage: *stage, says: of_this_axle(says).to_owned() })
        .filter(|caution| !caution.says.is_empty())
        .collect()
}
