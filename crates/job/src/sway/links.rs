//! Arms and links over everything the axle does: γ, the link that works, links from each target.

use crate::defaults;
use crate::message::{Label, Message};
use crate::sway::message::{LinkAim, SwayMessage};
use derecho_core::measure::{Angle, AngleEntry, Heading, Length, Meaning, Step, Stress, TapeEntry, Working};
use glam::DVec3;
use serde::Serialize;
use utoipa::ToSchema;

use crate::bar::turns::sleeve_turns;
use crate::document::check::asks;
use crate::document::sway::{Sway, SwayTarget};
use crate::document::{Job, heights, length_of};
use crate::sway::places::{Ask, LinkWork, Places, linkage_of};
use crate::sway::poses::{ArmResult, SwayPose, SwayPoses};
use crate::sway::rates;
use crate::sway::setting::{Driven, Setting, share_off_road};
use derecho_core::measure::phrase::Value;
use derecho_core::pose::mechanism::{Mechanism, Posed};
use derecho_core::pose::sway_linkage::{SwayArms, twist};
use derecho_core::pose::travel::{self, Envelope};
use derecho_core::sway::rod::{RodCut, RodLink};
use derecho_core::sway::{ArmFault, ArmPose, BarRate, window};

/// Steps of the sweeps that are drawn.
const SWEEP_STEPS: usize = 80;

/// No link of any vehicle is so long, mm.
const LONGEST: f64 = 10_000.0;

/// A link length that meets a target.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LinkTarget {
    /// What it is sized to.
    #[schema(value_type = String)]
    pub name: Label,
    /// The link, eye to eye.
    pub link_mm: Length,
    /// Against the link as it is; absent where there is none.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub change_mm: Option<Length>,
    /// Whether it lies in the window that works.
    pub works: bool,
    /// Whether it is the target aimed at.
    pub chosen: bool,
    /// In words, with turns where its thread is known.
    pub says: Message,
    /// The rod to cut for it, where its joints were measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub rod: Option<RodCut>,
    /// The rod in words, or why there is none.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub rod_says: Option<Message>,
}

/// Arms and links over everything the axle does.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SwayLinks {
    /// The link as it is, or as it is sized where there is none.
    pub link_mm: Length,
    /// Whether no link was there, and everything is told of the one that aims the arms.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub sized: bool,
    /// The arm in use.
    pub arm_mm: Length,
    /// Whether the bar is on the axle.
    pub on_axle: bool,
    /// Whether the arms point forward.
    pub forward: bool,
    /// The bar's axis forward of the axle at ride height.
    pub axis_ahead_mm: Length,
    /// γ outside these fails.
    pub fails_outside_deg: [Angle; 2],
    /// Smallest γ over the envelope.
    pub least_eye_deg: Angle,
    /// Where.
    pub least_at: Message,
    /// Largest γ over the envelope.
    pub most_eye_deg: Angle,
    /// Where.
    pub most_at: Message,
    /// Least travel of the link left to a straight line.
    pub to_straight_mm: Length,
    /// Wheel travels there, left and right.
    pub to_straight_at_mm: [Length; 2],
    /// Least left to folded.
    pub to_folded_mm: Length,
    /// Poses in which arm and link do not close at all.
    pub open_poses: usize,
    /// Whether it fails, by the limits in force.
    pub fails: bool,
    /// Why, or that it does not.
    pub says: Message,
    /// Shortest and longest link that works; absent where there is none.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub window_mm: Option<[Length; 2]>,
    /// The window in words.
    pub window_says: Message,
    /// Links from each target.
    pub targets: Vec<LinkTarget>,
    /// Both wheels alike, droop first.
    pub heave: SwayPoses,
    /// From cross-axled to cross-axled the other way, right wheel up first.
    pub roll: SwayPoses,
    /// Cross-axled, left wheel up, and right wheel up.
    pub crossed: Vec<SwayPose>,
    /// Every other pose of the envelope that the stops allow, row by row `[left][right]`.
    pub envelope: SwayPoses,
    /// How it is worked out at ride height.
    pub working: Working,
}

fn arm_result(places: &Places, posed: &Posed, left: bool, arm: Option<&ArmPose>) -> ArmResult {
    let [ahead, above, _] = places.far_end(&posed.placing, left);
    let turn = if places.arm.forward { 1.0 } else { -1.0 };
    let angle = arm.map(|arm| arm.above_level);
    let drawn = places.drawn_angle(&posed.placing, left, arm);
    ArmResult {
        arm_angle_deg: angle,
        eye_angle_deg: arm.map(|arm| arm.at_eye),
        far_ahead_mm: ahead,
        far_above_mm: above,
        eye_ahead_mm: places.arm.length * (turn * drawn.cos()),
        eye_above_mm: places.arm.length * drawn.sin(),
    }
}

fn pose_result(places: &Places, rate: &BarRate, posed: &Posed) -> SwayPose {
    let [left, right] = [true, false].map(|left| places.arm_at(&posed.placing, left).ok());
    let both = left.zip(right).map(|(left, right)| [left, right]);
    let bar = both.as_ref().and_then(|arms| rates::bar_in(places, rate, posed, arms));
    let pose = &posed.solved.pose;
    let (left, right) = (left.as_ref(), right.as_ref());
    let drawn =
        [places.drawn_angle(&posed.placing, true, left), places.drawn_angle(&posed.placing, false, right)];
    let rods = places.rods_at(&posed.placing, drawn);
    SwayPose {
        y_mm: pose.y,
        z_mm: pose.z,
        roll_deg: pose.roll,
        end_mm: rods.map(|rod| rod.map(|at| [at.y, at.z])),
        twist_deg: both.as_ref().map(twist),
        roll_rate_nm_per_deg: bar.map(|bar| bar.rate.to_nm_per_degree()),
        bar_moment_nm: bar.map(|bar| bar.moment.to_nm()),
        left_wheel_mm: Length::from_mm(posed.left),
        right_wheel_mm: Length::from_mm(posed.right),
        left: arm_result(places, posed, true, left),
        right: arm_result(places, posed, false, right),
    }
}

/// The extremes of both arms over the allowed envelope.
struct Extremes {
    least: (f64, Posed),
    most: (f64, Posed),
    straight: (f64, Posed),
    folded: f64,
    window: Option<(f64, f64)>,
    open: Vec<(Posed, ArmFault)>,
}

impl Extremes {
    /// Shortest and longest link that works. A link longer than any vehicle is the mark of nothing having been found.
    fn working_lengths(&self) -> Option<[Length; 2]> {
        self.window
            .filter(|(least, most)| least.is_finite() && *most < LONGEST)
            .map(|(least, most)| [least, most].map(Length::from_mm))
    }
}

fn extremes(places: &Places, envelope: &Envelope, arms: &[Option<SwayArms>], ride: &Posed) -> Extremes {
    let mut found = Extremes {
        least: (f64::INFINITY, *ride),
        most: (f64::NEG_INFINITY, *ride),
        straight: (f64::INFINITY, *ride),
        folded: f64::INFINITY,
        window: Some((0.0, f64::INFINITY)),
        open: Vec::new(),
    };
    let poses = envelope.poses.iter().zip(arms);
    for (posed, arms) in poses.filter_map(|(posed, arms)| Some((posed.as_ref()?, arms.as_ref()?))) {
        for (left, arm) in [true, false].into_iter().zip(arms) {
            found.window = found.window.zip(working_links(places, posed, left)).and_then(|(all, here)| {
                let (least, most) = (all.0.max(here.0), all.1.min(here.1));
                (least <= most).then_some((least, most))
            });
            match arm {
                Ok(arm) => {
                    let gamma = arm.at_eye.to_radians();
                    if gamma < found.least.0 {
                        found.least = (gamma, *posed);
                    }
                    if gamma > found.most.0 {
                        found.most = (gamma, *posed);
                    }
                    if arm.to_straight.to_mm() < found.straight.0 {
                        found.straight = (arm.to_straight.to_mm(), *posed);
                    }
                    found.folded = found.folded.min(arm.to_folded.to_mm());
                }
                Err(fault) => found.open.push((*posed, *fault)),
            }
        }
    }
    found
}

/// Shortest and longest link that works of a side in one pose, mm eye to eye. A link stands out of the
/// arm's plane by D_y, and the more so the further the axle has swung sideways, which makes it longer
/// than it is in the plane: l = √(l_f² + D_y²). What is left to a straight or folded line bounds it as
/// γ does; the tighter counts.
fn working_links(places: &Places, posed: &Posed, left: bool) -> Option<(f64, f64)> {
    let reach = places.reach_at(&posed.placing, left);
    let bounds =
        (Angle::from_degrees(defaults::FAIL_DEGREES.0), Angle::from_degrees(defaults::FAIL_DEGREES.1));
    let (least, most) = window(places.arm.length, (reach, reach), bounds)?;
    let arm = places.arm.length;
    let least = least.max(reach + defaults::LEAST_LEFT - arm).max(arm - reach + defaults::LEAST_LEFT);
    let most = most.min(arm + reach - defaults::LEAST_LEFT);
    let [_, _, out] = places.far_end(&posed.placing, left);
    let longer = places.left_longer.to_mm() / if left { 2.0 } else { -2.0 };
    let link = |in_plane: Length| in_plane.to_mm().hypot(out.to_mm()) - longer;
    (least <= most).then(|| (link(least), link(most)))
}

/// Poses from cross-axled to cross-axled the other way, right wheel up first.
pub(crate) fn rolling(mechanism: &Mechanism) -> Vec<Posed> {
    let (up, down) = mechanism.stops().cross_axled();
    travel::line(mechanism, (down, up), (up, down), SWEEP_STEPS).unwrap_or_default()
}

pub(crate) fn links(
    job: &Job,
    mechanism: &Mechanism,
    places: &Places,
    (envelope, ride): (&Envelope, &Posed),
    arms: &[Option<SwayArms>],
    rate: &BarRate,
) -> SwayLinks {
    let found = extremes(places, envelope, arms, ride);
    let (low, high) = (found.least.0.to_degrees(), found.most.0.to_degrees());
    let outside = |(least, most): (f64, f64)| low < least || high > most;
    let near = found.straight.0 < defaults::LEAST_LEFT.to_mm() || found.folded < defaults::LEAST_LEFT.to_mm();
    let nothing_posed = !low.is_finite() && found.open.is_empty();
    let fails = nothing_posed || !found.open.is_empty() || outside(defaults::FAIL_DEGREES) || near;
    let works = found.working_lengths();
    let at = |posed: &Posed| SwayMessage::At { left: posed.left, right: posed.right }.into();
    let works_how = match (fails, outside(defaults::WARN_DEGREES)) {
        (true, _) => LinkWork::Fails,
        (false, true) => LinkWork::ALot,
        (false, false) => LinkWork::Clear,
    };
    let says = if nothing_posed {
        SwayMessage::NothingPosed.into()
    } else {
        link_says(&found, (places, job.sway.link.is_none()), works_how)
    };
    let stops = mechanism.stops();
    let (droop, bump) = (-stops.droop.to_mm(), stops.bump.to_mm());
    let line = |from: (f64, f64), to: (f64, f64), steps: usize| {
        travel::line(mechanism, from, to, steps).unwrap_or_default()
    };
    let posed = |posed: &Posed| pose_result(places, rate, posed);
    let (up, down) = stops.cross_axled();
    SwayLinks {
        link_mm: places.arm.link,
        sized: job.sway.link.is_none(),
        arm_mm: places.arm.length,
        on_axle: places.on_axle,
        forward: places.arm.forward,
        axis_ahead_mm: Length::from_mm(places.axis.0),
        fails_outside_deg: [defaults::FAIL_DEGREES.0, defaults::FAIL_DEGREES.1].map(Angle::from_degrees),
        least_eye_deg: Angle::from_radians(if low.is_finite() { found.least.0 } else { 0.0 }),
        least_at: at(&found.least.1),
        most_eye_deg: Angle::from_radians(if high.is_finite() { found.most.0 } else { 0.0 }),
        most_at: at(&found.most.1),
        to_straight_mm: Length::from_mm(if found.straight.0.is_finite() { found.straight.0 } else { 0.0 }),
        to_straight_at_mm: [found.straight.1.left, found.straight.1.right].map(Length::from_mm),
        to_folded_mm: Length::from_mm(if found.folded.is_finite() { found.folded } else { 0.0 }),
        open_poses: found.open.len(),
        fails,
        says,
        window_says: SwayMessage::Window { works, link: job.sway.link.is_some().then_some(places.arm.link) }
            .into(),
        targets: targets(job, mechanism, places, works),
        window_mm: works,
        heave: line((droop, droop), (bump, bump), SWEEP_STEPS).iter().map(posed).collect(),
        roll: rolling(mechanism).iter().map(posed).collect(),
        crossed: line((up, down), (down, up), 1).iter().map(posed).collect(),
        envelope: over_the_envelope(places, envelope, rate),
        working: working(places, ride),
    }
}

/// Every other pose of the envelope, for drawing.
fn over_the_envelope(places: &Places, envelope: &Envelope, rate: &BarRate) -> SwayPoses {
    let side = envelope.travels.len();
    let at = |left: usize, right: usize| {
        if left >= side || right >= side {
            return None;
        }
        envelope.poses[left * side + right].as_ref()
    };
    let posed = |left: usize, right: usize| {
        at(left, right)
            .filter(|_| envelope.allowed[left * side + right])
            .map(|here| pose_result(places, rate, here))
    };
    let every_other = || (0..side).step_by(2);
    every_other().flat_map(|left| every_other().filter_map(move |right| posed(left, right))).collect()
}

fn link_says(found: &Extremes, (places, sized): (&Places, bool), work: LinkWork) -> Message {
    if sized {
        return SwayMessage::Sized { link: places.arm.link, works: work != LinkWork::Fails }.into();
    }
    if let Some((posed, fault)) = found.open.iter().min_by(|a, b| {
        let far = |posed: &Posed| posed.left.abs() + posed.right.abs();
        far(&a.0).total_cmp(&far(&b.0))
    }) {
        return SwayMessage::DoesNotClose { fault: *fault, left: posed.left, right: posed.right }.into();
    }
    if work == LinkWork::Fails {
        let (worst, posed) = if found.most.0.to_degrees() > 180.0 - found.least.0.to_degrees() {
            found.most
        } else {
            found.least
        };
        let (worst, straight) = (Angle::from_radians(worst), Length::from_mm(found.straight.0));
        return SwayMessage::TooNear { worst, left: posed.left, right: posed.right, to_straight: straight }
            .into();
    }
    let [least, most] = [found.least.0, found.most.0].map(Angle::from_radians);
    SwayMessage::Works { link: places.arm.link, least, most, work }.into()
}

fn targets(job: &Job, mechanism: &Mechanism, places: &Places, works: Option<[Length; 2]>) -> Vec<LinkTarget> {
    let driven = -heights::driven_offset(&job.rig).to_mm();
    let stops = mechanism.stops();
    let middle = (stops.bump - stops.droop).to_mm() / 2.0;
    let angle = |entry: &Option<AngleEntry>| entry.as_ref().map(AngleEntry::angle);
    let all = [
        (LinkAim::LevelDriven, Some(Angle::ZERO), driven, SwayTarget::LevelDriven),
        (LinkAim::LevelMidTravel, Some(Angle::ZERO), middle, SwayTarget::LevelMidTravel),
        (LinkAim::OwnAngle, angle(&job.sway.wanted_angle), driven, SwayTarget::OwnAngle),
        (LinkAim::TrailingArm, lower_arm(mechanism, places, driven), driven, SwayTarget::TrailingArm),
    ];
    let aimed =
        all.into_iter().map(|(name, angle, travel, target)| (name, angle, travel, job.sway.target == target));
    let stock = (LinkAim::Stock, angle(&job.sway.stock_arm_angle), driven, false);
    let thread = job.sway.link_thread.as_ref().filter(|_| !job.sway.links_fixed);
    aimed
        .chain([stock])
        .filter_map(|(name, angle, travel, chosen)| {
            let link = link_at(mechanism, places, travel, angle?)?;
            let there = job.sway.link.is_some().then_some(places.arm.link);
            let change = there.map(|there| link - there);
            let turns = there.zip(thread).and_then(|(there, thread)| sleeve_turns(thread, there, link));
            let (rod, rod_says) = if job.sway.links_fixed { (None, None) } else { rod(job, link) };
            Some(LinkTarget {
                rod,
                rod_says,
                name: SwayMessage::Aim(name).into(),
                link_mm: link,
                change_mm: change,
                works: works.is_some_and(|[least, most]| least <= link && link <= most),
                chosen,
                says: SwayMessage::Target { link, change, turns: turns.clone() }.into(),
            })
        })
        .collect()
}

/// Bar and links of a job; where no link is there and its far end was taped, with the link that aims the arms as the job
/// does. Else with what is missing.
pub(crate) fn places_with_a_link(job: &Job, mechanism: &Mechanism) -> Result<Places, Ask> {
    let form = &job.sway;
    let taped = form.far_end.height.is_some();
    // By its leans a far end is found along the link that is there.
    if form.link.is_some() || (!taped && form.arm_angle.is_some()) {
        return linkage_of(job, form);
    }
    let without_link = |ask: Ask| -> Ask {
        let far_end = (!taped).then_some(("/sway/far_end", asks::SWAY_FAR_END));
        ask.into_iter().filter(|(at, _)| *at != "/sway/link").chain(far_end).collect()
    };
    let Some(arm) = form.arm().filter(|_| taped) else {
        return linkage_of(job, form).map_err(without_link);
    };
    // Any length does to find the places by: none of them depends on it.
    let tried = Sway { link: TapeEntry::of(arm), ..form.clone() };
    let mut places = linkage_of(job, &tried).map_err(without_link)?;
    let Some(link) = link_for_aim(job, mechanism, &places, Length::ZERO) else {
        return linkage_of(job, form);
    };
    places.arm.link = link;
    Ok(places)
}

/// The link that aims the arms as this job does, with the body so much higher on its axle, + up.
pub(crate) fn link_for_aim(
    job: &Job,
    mechanism: &Mechanism,
    places: &Places,
    raised: Length,
) -> Option<Length> {
    let (stops, by) = (mechanism.stops(), raised.to_mm());
    let driven = -heights::driven_offset(&job.rig).to_mm() - by;
    let middle = (stops.bump - stops.droop).to_mm() / 2.0 - by;
    let own = || job.sway.wanted_angle.as_ref().map(AngleEntry::angle);
    match job.sway.target {
        SwayTarget::LevelMidTravel => link_at(mechanism, places, middle, Angle::ZERO),
        SwayTarget::OwnAngle => link_at(mechanism, places, driven, own().unwrap_or(Angle::ZERO)),
        SwayTarget::TrailingArm => {
            let angle = lower_arm(mechanism, places, driven).unwrap_or(Angle::ZERO);
            link_at(mechanism, places, driven, angle)
        }
        SwayTarget::LevelDriven => link_at(mechanism, places, driven, Angle::ZERO),
    }
}

/// Whether arm and link work at the ends of a travel that is the same about a body that stands so much higher.
pub(crate) fn works_about(mechanism: &Mechanism, places: &Places, raised: Length) -> bool {
    let (stops, by) = (mechanism.stops(), raised.to_mm());
    let (droop, bump) = (-stops.droop.to_mm(), stops.bump.to_mm());
    let (up, down) = stops.cross_axled();
    [(droop, droop), (bump, bump), (up, down), (down, up)].into_iter().all(|(left, right)| {
        let end = (left - by, right - by);
        let poses = travel::line(mechanism, (0.0, 0.0), end, 2).unwrap_or_default();
        poses.last().filter(|_| poses.len() == 3).is_some_and(|posed| works_at(places, posed))
    })
}

/// The link that levels the arms as driven or mid-travel.
pub(crate) fn target_link(
    job: &Job,
    mechanism: &Mechanism,
    places: &Places,
    target: SwayTarget,
) -> Option<Length> {
    let stops = mechanism.stops();
    let travel = match target {
        SwayTarget::LevelMidTravel => (stops.bump - stops.droop).to_mm() / 2.0,
        _ => -heights::driven_offset(&job.rig).to_mm(),
    };
    link_at(mechanism, places, travel, Angle::ZERO)
}

/// The link that brings the arms to an angle above level at a travel of both wheels: the mean of what each
/// side wants, which differ by the square of how far the axle stands off to one side.
fn link_at(mechanism: &Mechanism, places: &Places, travel: f64, angle: Angle) -> Option<Length> {
    let posed = travel::line(mechanism, (travel, travel), (travel, travel), 1).ok()?;
    let posed = posed.first()?;
    let [left, right] = [true, false].map(|left| {
        let [ahead, above, out] = places.far_end(&posed.placing, left);
        places.arm.link_for(angle, ahead, above, out)
    });
    Some((left + right) / 2.0)
}

/// The sway arm's angle that runs in line with the lowest links that hold the axle fore and aft, the mean of
/// one on each side, seen from the side, at a travel of both wheels.
fn lower_arm(mechanism: &Mechanism, places: &Places, travel: f64) -> Option<Angle> {
    let posed = travel::line(mechanism, (travel, travel), (travel, travel), 1).ok()?;
    let placing = posed.first()?.placing;
    let links = mechanism.suspension().links().iter();
    let along: Vec<(DVec3, DVec3)> = links
        .map(|link| (link.body.vector(), placing.place(link.axle).vector()))
        .filter(|(body, axle)| (body.x - axle.x).abs() > (body.y - axle.y).abs())
        .collect();
    let lowest = |left: bool| {
        let here = along.iter().filter(|(body, _)| (body.y > 0.0) == left);
        here.min_by(|a, b| a.1.z.total_cmp(&b.1.z)).map(|(body, axle)| (body.z - axle.z) / (body.x - axle.x))
    };
    let slopes: Vec<f64> = [true, false].into_iter().filter_map(lowest).collect();
    let slope = slopes.iter().sum::<f64>() / slopes.len() as f64;
    let turn = if places.arm.forward { 1.0 } else { -1.0 };
    (!slopes.is_empty()).then(|| Angle::from_radians((turn * slope).atan()))
}

/// What to cut for a link built from rod.
fn rod(job: &Job, link: Length) -> (Option<RodCut>, Option<Message>) {
    let form = &job.sway.rod;
    let sizes = (length_of(&form.eye_to_tip), length_of(&form.shank), length_of(&form.jam_nut));
    let (Some(eye_to_tip), Some(shank), Some(jam_nut), Some(thread)) =
        (sizes.0, sizes.1, sizes.2, job.sway.link_thread.as_ref())
    else {
        return (None, None);
    };
    let parts = RodLink { eye_to_tip, shank, jam_nut, least_in: thread.diameter() * defaults::THREAD_IN };
    let cut = parts.cut(link);
    let says = SwayMessage::Rod { cut }.into();
    (cut.ok(), Some(says))
}

fn working(places: &Places, ride: &Posed) -> Working {
    let [ahead, above, out] = places.far_end(&ride.placing, true);
    let reach = places.reach_at(&ride.placing, true);
    let length = Value::Length;
    let flat = Length::from_mm((places.arm.link.to_mm().powi(2) - out.to_mm().powi(2)).max(0.0).sqrt());
    let mut steps = vec![
        Step::new(
            Meaning::FarEnd,
            "r = √({D_x}² + {D_z}²)",
            &[("D_x", length(ahead)), ("D_z", length(above))],
            length(reach),
        ),
        Step::new(
            Meaning::LinkInPlane,
            "l_f = √({l}² − {D_y}²)",
            &[("l", length(places.arm.link)), ("D_y", length(out))],
            length(flat),
        ),
    ];
    if let Ok(arm) = places.arm_at(&ride.placing, true) {
        steps.push(Step::new(
            Meaning::AngleAtEye,
            "γ = acos(({a}² + {l_f}² − {r}²) / (2 · {a} · {l_f}))",
            &[("a", length(places.arm.length)), ("l_f", length(flat)), ("r", length(reach))],
            Value::Angle(arm.at_eye),
        ));
    }
    Working { title: Heading::ArmAndLink, steps }
}

/// Whether a link of this length, on an arm of this length, works everywhere.
pub(crate) fn works_everywhere(places: &Places, envelope: &Envelope) -> bool {
    let poses = envelope.poses.iter().zip(&envelope.allowed).filter(|(_, allowed)| **allowed);
    poses.filter_map(|(posed, _)| posed.as_ref()).all(|posed| works_at(places, posed))
}

/// Roll from the driven height up to which both links work.
pub(crate) fn working_roll(mechanism: &Mechanism, places: &Places) -> Angle {
    let ((up, down), driven) = (mechanism.stops().cross_axled(), mechanism.driven());
    let Ok(poses) = travel::line(mechanism, (driven, driven), (up, down), SWEEP_STEPS) else {
        return Angle::ZERO;
    };
    let works = |posed: &&Posed| works_at(places, posed);
    poses.iter().take_while(works).last().map_or(Angle::ZERO, |posed| posed.solved.pose.roll)
}

/// Whether both arms are within the limits in a pose.
fn works_at(places: &Places, posed: &Posed) -> bool {
    [true, false].into_iter().all(|left| {
        places.arm_at(&posed.placing, left).is_ok_and(|arm| {
            let gamma = arm.at_eye.to_degrees();
            (defaults::FAIL_DEGREES.0..=defaults::FAIL_DEGREES.1).contains(&gamma)
                && arm.to_straight >= defaults::LEAST_LEFT
                && arm.to_folded >= defaults::LEAST_LEFT
        })
    })
}

/// What the sway bar does at full droop, full bump and cross-axled either way: the quick answer for the strip and the
/// register.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct AtEnds {
    /// Whether the links work there: a little stricter than the stage, which leaves out what the axle cannot reach.
    pub work: bool,
    /// Shear stress of the bar cross-axled, where its thickness was measured and the axle gets there.
    pub stress: Option<Stress>,
    /// What its steel takes.
    pub takes: Stress,
}

impl AtEnds {
    /// The stress and what the steel takes, where it is more than that.
    #[must_use]
    pub fn overstressed(&self) -> Option<(Stress, Stress)> {
        self.stress.filter(|stress| *stress > self.takes).map(|stress| (stress, self.takes))
    }
}

/// Poses the axle at the ends of its travel. None while something of bar or links is not measured.
#[must_use]
pub fn at_ends(job: &Job, form: &Sway, mechanism: &Mechanism) -> Option<AtEnds> {
    let places = linkage_of(job, form).ok()?;
    let stops = mechanism.stops();
    let (droop, bump) = (-stops.droop.to_mm(), stops.bump.to_mm());
    let (up, down) = stops.cross_axled();
    let at = |end: (f64, f64)| {
        let poses = travel::line(mechanism, (0.0, 0.0), end, 2).ok()?;
        if poses.len() == 3 { poses.into_iter().last() } else { None }
    };
    let works = |posed: Option<&Posed>| posed.is_some_and(|posed| works_at(&places, posed));
    let works_at_once = [(droop, droop), (bump, bump)].into_iter().all(|end| works(at(end).as_ref()));
    // A bar that nobody measured twists as it will.
    let is_measured = form.diameter.is_some();
    let crossed = (works_at_once || is_measured).then(|| [at((up, down)), at((down, up))]);
    let work = works_at_once && crossed.iter().flatten().all(|posed| works(posed.as_ref()));
    let twisted = crossed.iter().flatten().flatten().filter_map(|posed| rates::twist_of(&places, posed));
    let most = twisted.map(Angle::abs).reduce(Angle::max).filter(|_| is_measured);
    // At the ends of its travel a two-rate bar is unlocked, and a powered one disconnected.
    let here = |twist| Setting { driven: Driven::Everywhere, share: share_off_road(form), twist };
    let stress = most.map(|twist| here(twist).stress(&rates::bar_rate(form, &places)));
    Some(AtEnds { work, stress, takes: rates::allowable(form) })
}
