//! A disconnected link on its stowing stud: whether it gets there, and that it clears at full bump.

use crate::message::{Label, Message};
use glam::DVec3;
use serde::Serialize;
use utoipa::ToSchema;

use crate::assembly::bodies::body;
use crate::document::Job;
use crate::sway::message::SwayMessage;
use crate::sway::places::{Places, point_of};
use crate::sway::surroundings::{Surroundings, spare};
use derecho_core::measure::{Angle, Length, Side};
use derecho_core::pose::body::{BodyName, Carrier};
use derecho_core::pose::mechanism::Watched;
use derecho_core::pose::travel::Envelope;
use derecho_core::sway::Arm;

/// The arm and link stowed, in the axes of what the bar is fixed to, ahead of and above its axis.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StowResult {
    /// Whether the link reaches the stud and clears everything by enough.
    pub clear: bool,
    /// Whether arm and link reach the stud.
    pub reaches: bool,
    /// The arm above level, where it reaches.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub arm_angle_deg: Option<Angle>,
    /// The link's eye on the arm, ahead of the axis.
    pub eye_ahead_mm: Length,
    /// And above it.
    pub eye_above_mm: Length,
    /// The stud, ahead of the axis.
    pub stud_ahead_mm: Length,
    /// And above it.
    pub stud_above_mm: Length,
    /// Seen from the end: the bar, its left and right arm, the left and right link, as in a pose's
    /// `end_mm`, in the axes of what the bar is fixed to. Absent where it does not reach.
    #[serde(
        skip_serializing_if = "Option::is_none",
        serialize_with = "derecho_core::measure::figure::millimetres"
    )]
    #[schema(nullable = false)]
    pub end_mm: Option<[[[f64; 2]; 2]; 5]>,
    /// Least gap to anything that moves, through the whole envelope, where anything was measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub gap_mm: Option<Length>,
    /// To what.
    #[schema(value_type = String)]
    pub thing: Label,
    /// Wheel travels there, left and right.
    pub at_mm: [Length; 2],
    /// In words.
    pub says: Message,
}

/// Bar, arms and links of both sides as they are seen from the end, mm left and up.
fn drawn_ends(root: DVec3, eye: DVec3, stud: DVec3) -> [[[f64; 2]; 2]; 5] {
    let seen = |at: DVec3, sign: f64| [at.y * sign, at.z];
    [
        [seen(root, 1.0), seen(root, -1.0)],
        [seen(root, 1.0), seen(eye, 1.0)],
        [seen(root, -1.0), seen(eye, -1.0)],
        [seen(eye, 1.0), seen(stud, 1.0)],
        [seen(eye, -1.0), seen(stud, -1.0)],
    ]
}

/// The stowed link, where its stud was measured.
pub(crate) fn stow(
    job: &Job,
    places: &Places,
    around: &Surroundings,
    envelope: &Envelope,
) -> Option<StowResult> {
    let stud = point_of(job, &job.sway.pins.stow, !places.on_axle)?;
    let (ahead, above) = (stud.x - places.axis.0, stud.z - places.axis.1);
    let sideways = Length::from_mm(stud.y - places.eye_out);
    // The link hangs from the arm either way round: the pose with the arm higher is the one out of
    // the way of what moves below the body, or above the axle.
    let mm = Length::from_mm;
    let pose = [!places.on_axle, places.on_axle].into_iter().find_map(|hangs_up| {
        let arm = Arm { link_up: !hangs_up, ..places.arm };
        arm.pose(mm(ahead), mm(above), sideways).ok()
    });
    let mut result = StowResult {
        clear: false,
        reaches: pose.is_some(),
        arm_angle_deg: pose.map(|pose| pose.above_level),
        eye_ahead_mm: mm(0.0),
        eye_above_mm: mm(0.0),
        stud_ahead_mm: mm(ahead),
        stud_above_mm: mm(above),
        end_mm: None,
        gap_mm: None,
        thing: Label(Message::NOTHING),
        at_mm: [Length::ZERO; 2],
        says: SwayMessage::StudOutOfReach.into(),
    };
    let Some(pose) = pose else { return Some(result) };
    let eye = places.eye(pose.above_level, true);
    (result.eye_ahead_mm, result.eye_above_mm) = (mm(eye.x - places.axis.0), mm(eye.z - places.axis.1));
    let root = DVec3::new(places.axis.0, places.eye_out, places.axis.1);
    result.end_mm = Some(drawn_ends(root, eye, stud));
    // What is fixed beside the stud is looked at where it is bolted; what moves is looked at here.
    let carrier = if places.on_axle { Carrier::Axle } else { Carrier::Body };
    let mut rods = Vec::new();
    for side in [Side::Left, Side::Right] {
        let over = |at: DVec3| DVec3::new(at.x, at.y * side.sign(), at.z);
        for (ends, radius) in [([root, eye], around.arm_radius), ([eye, stud], around.link_radius)] {
            let points = ends.map(over).to_vec();
            rods.push(body(BodyName::StowedLink(side), carrier, points, radius));
        }
    }
    let (mechanism, worst) = around.stowed(rods, envelope);
    let least = worst
        .iter()
        .filter_map(|found| {
            let Watched::Gap { first, second } = mechanism.watches()[found.watch].what else { return None };
            let names = [first, second].map(|index| &mechanism.bodies()[index].name);
            let thing = names.into_iter().find(|name| !matches!(name, BodyName::StowedLink(_)))?;
            let at = (found.posed.left, found.posed.right);
            Some((found.value, thing, at, mechanism.wanted_between(first, second)))
        })
        .min_by(|a, b| spare(a.0, a.3).total_cmp(&spare(b.0, b.3)));
    let Some((gap, thing, at, wanted)) = least else {
        result.clear = true;
        result.says = SwayMessage::StowedAlone.into();
        return Some(result);
    };
    result.clear = mm(gap) >= wanted;
    result.gap_mm = Some(mm(gap));
    result.thing = SwayMessage::Neighbour(thing.clone()).into();
    result.at_mm = [mm(at.0), mm(at.1)];
    result.says =
        SwayMessage::Stowed { thing: thing.clone(), gap: mm(gap), wanted, left: at.0, right: at.1 }.into();
    Some(result)
}
