//! Stage Sway: arms and links over everything the axle does, the legal link, the holes, the road
//! against the trail, and which way to disconnect.

pub mod form;
mod places;
mod vehicle;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use self::form::{SwayKind, SwayTarget};
use self::places::Places;
pub use self::vehicle::{ChoiceResult, VehicleResult};
use super::bracket::fit::{FitCheck, FitVerdict};
use super::check::FieldError;
use super::correction;
use super::cycle::words::place;
use super::document::{Job, length_of};
use super::elevation::Assumption;
use super::hardpoints::assemble;
use super::{heights, sheets};
use crate::bar::adjuster::{Adjuster, AdjusterKind, EndStyle, ThreadSeat, ThreadedEnd, setting};
use crate::fastener::{Hand, Thread};
use crate::measure::phrase::{Value, degrees};
use crate::measure::{Angle, AngleEntry, Length, Phrase, Step, TapeEntry, Working};
use crate::pose::cycle::{self as walkers, Envelope};
use crate::pose::mechanism::{Mechanism, Posed};
use crate::sway::{ArmFault, BarRate, window};

/// Travel that must be left to a straight or folded line (default of this program).
pub const LEAST_LEFT: Length = Length::from_mm(12.7);
/// γ outside this fails (default of this program).
pub const FAIL_DEGREES: (f64, f64) = (20.0, 160.0);
/// γ outside this is a lot (default of this program).
pub const WARN_DEGREES: (f64, f64) = (30.0, 150.0);
/// Poses along each side of the envelope.
const SIDE: usize = 41;
const SWEEP_STEPS: usize = 80;
/// How much longer a splined bar is than the frame is wide (default of this program).
pub const BAR_OVER_FRAME: Length = Length::from_mm(76.2);
/// Shear stress a spring-steel bar takes, MPa (default of this program).
pub const ALLOWABLE_SHEAR: f64 = 700.0;

/// Everything stage Sway answers.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SwayResult {
    /// The answer in one sentence.
    pub says: Phrase,
    /// What keeps it from an answer.
    pub missing: Vec<FieldError>,
    /// Arms and links, where they were measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub links: Option<SwayLinks>,
    /// Holes and their rates.
    pub holes: Vec<HoleResult>,
    /// The vehicle as a whole and the choices.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub vehicle: Option<VehicleResult>,
    /// Splined bar, preload, arms against stroke, in words.
    pub fit_says: Vec<Phrase>,
    /// Disconnects, stowing, bolts.
    pub checks: Vec<FitCheck>,
    /// What was not measured.
    pub assumptions: Vec<Assumption>,
}

/// One side of arm and link in a pose.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ArmResult {
    /// α above level; absent where the link does not close.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub arm_angle_deg: Option<Angle>,
    /// γ at the link's eye.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub eye_angle_deg: Option<Angle>,
    /// The link's far end ahead of the bar's axis.
    pub far_ahead_mm: Length,
    /// And above it.
    pub far_above_mm: Length,
    /// The link's eye ahead of the axis.
    pub eye_ahead_mm: Length,
    /// And above it.
    pub eye_above_mm: Length,
}

/// Both sides in a pose.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SwayPose {
    /// Travel of the left wheel.
    pub left_wheel_mm: Length,
    /// Travel of the right wheel.
    pub right_wheel_mm: Length,
    /// The left arm.
    pub left: ArmResult,
    /// The right arm.
    pub right: ArmResult,
}

/// A link length that meets a target.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LinkTarget {
    /// What it is sized to.
    pub name: String,
    /// The link, eye to eye.
    pub link_mm: Length,
    /// Against the link as it is.
    pub change_mm: Length,
    /// Whether it lies in the legal window.
    pub legal: bool,
    /// Whether it is the target aimed at.
    pub chosen: bool,
    /// In words, with turns where its thread is known.
    pub says: Phrase,
}

/// Arms and links over everything the axle does.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SwayLinks {
    /// The link as it is.
    pub link_mm: Length,
    /// The arm in use.
    pub arm_mm: Length,
    /// Whether the bar is on the axle.
    pub on_axle: bool,
    /// Whether the arms point forward.
    pub forward: bool,
    /// Smallest γ over the envelope.
    pub least_eye_deg: Angle,
    /// Where.
    pub least_at: Phrase,
    /// Largest γ over the envelope.
    pub most_eye_deg: Angle,
    /// Where.
    pub most_at: Phrase,
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
    pub says: Phrase,
    /// Shortest and longest legal link; absent where there is none.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub window_mm: Option<[Length; 2]>,
    /// The window in words.
    pub window_says: Phrase,
    /// Links from each target.
    pub targets: Vec<LinkTarget>,
    /// Both wheels alike, droop first.
    pub heave: Vec<SwayPose>,
    /// Leaning at ride height.
    pub roll: Vec<SwayPose>,
    /// Cross-axled, left wheel up, and right wheel up.
    pub crossed: Vec<SwayPose>,
    /// How it is worked out at ride height.
    pub working: Working,
}

/// A hole of the arm.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HoleResult {
    /// From the axis to the eye.
    pub arm_mm: Length,
    /// Whether it is in use.
    pub in_use: bool,
    /// Rate at the eye against the hole in use.
    pub rate_ratio: f64,
    /// K_bar at ride height, N·m per degree of roll.
    pub roll_rate_nm_per_deg: f64,
    /// Twist of the bar at the worst pose.
    pub worst_twist_deg: Angle,
    /// Shear stress there, MPa.
    pub stress_mpa: f64,
    /// Degrees per g on the road with it; absent where the vehicle would not stand.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub road_deg_per_g: Option<f64>,
    /// In words.
    pub says: Phrase,
}

fn without(says: &str, missing: Vec<FieldError>) -> SwayResult {
    SwayResult {
        says: Phrase::plain(says),
        missing,
        links: None,
        holes: Vec::new(),
        vehicle: None,
        fit_says: Vec::new(),
        checks: Vec::new(),
        assumptions: Vec::new(),
    }
}

/// Works stage Sway out. Never fails: what is missing stands in its place.
#[must_use]
pub fn sway(job: &Job) -> SwayResult {
    let Some(kind) = job.sway.kind else {
        let ask = "Say what kind of sway bar there is, or that there is none.";
        return without("Measure the sway bar", vec![FieldError::new("/sway/kind", "missing", ask)]);
    };
    let views = correction::bar(job, &sheets::results(job)).views;
    let assembly = match assemble(job, views.as_ref()) {
        Ok(assembly) => assembly,
        Err(missing) => return without("Nothing can be cycled yet", missing),
    };
    let mechanism = assembly.plan.as_ref().map_or(&assembly.found, |plan| &plan.mechanism);
    if kind == SwayKind::None {
        let (vehicle, assumptions) = vehicle::vehicle(job, mechanism, 0.0, None);
        return SwayResult { vehicle: Some(vehicle), assumptions, ..without("No sway bar here", Vec::new()) };
    }
    let places = match Places::of(job, mechanism.suspension().axle_height()) {
        Ok(places) => places,
        Err(ask) => {
            let missing = ask.into_iter().map(|(at, says)| FieldError::new(at, "missing", says)).collect();
            return without("Measure the sway bar", missing);
        }
    };
    let solved = (walkers::envelope(mechanism, SIDE), mechanism.at_ride_height());
    let (Ok(envelope), Ok(ride)) = solved else {
        return without("Nothing can be cycled yet", Vec::new());
    };
    let links = links(job, mechanism, &places, &envelope, &ride);
    let rate = bar_rate(job, &places);
    let per_roll = arms_per_roll(mechanism, &places, &ride);
    let bar = rate.roll_rate(per_roll);
    let most_roll = legal_roll(mechanism, &places);
    let (vehicle, mut assumptions) = vehicle::vehicle(job, mechanism, bar, Some(most_roll));
    let holes = holes(job, mechanism, &places, &envelope, &rate, &vehicle);
    if job.sway.diameter.is_none() || job.sway.active_length.is_none() {
        assumptions.push(Assumption {
            pointer: "/sway/diameter".to_owned(),
            says: Phrase::of(|w| {
                format!(
                    "a solid bar of {} that twists over {}",
                    w.distance(rate.outside),
                    w.distance(rate.active)
                )
            }),
            drawing_only: false,
        });
    }
    SwayResult {
        says: links.says.clone(),
        fit_says: fit_says(job, &links, &vehicle, &rate, bar),
        checks: checks(job),
        links: Some(links),
        holes,
        vehicle: Some(vehicle),
        missing: Vec::new(),
        assumptions,
    }
}

fn arm_result(places: &Places, posed: &Posed, left: bool) -> ArmResult {
    let [ahead, above, _] = places.far_end(posed, left);
    let arm = places.arm_at(posed, left).ok();
    let turn = if places.arm.forward { 1.0 } else { -1.0 };
    let angle = arm.map(|arm| arm.above_level);
    // Where it does not close the arm is drawn towards its far end.
    let drawn = angle.unwrap_or_else(|| Angle::from_radians(above.to_mm().atan2(turn * ahead.to_mm())));
    ArmResult {
        arm_angle_deg: angle,
        eye_angle_deg: arm.map(|arm| arm.at_eye),
        far_ahead_mm: ahead,
        far_above_mm: above,
        eye_ahead_mm: places.arm.length * (turn * drawn.cos()),
        eye_above_mm: places.arm.length * drawn.sin(),
    }
}

fn pose_result(places: &Places, posed: &Posed) -> SwayPose {
    SwayPose {
        left_wheel_mm: Length::from_mm(posed.left),
        right_wheel_mm: Length::from_mm(posed.right),
        left: arm_result(places, posed, true),
        right: arm_result(places, posed, false),
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

fn extremes(places: &Places, envelope: &Envelope, ride: &Posed) -> Extremes {
    let mut found = Extremes {
        least: (f64::INFINITY, *ride),
        most: (f64::NEG_INFINITY, *ride),
        straight: (f64::INFINITY, *ride),
        folded: f64::INFINITY,
        window: Some((0.0, f64::INFINITY)),
        open: Vec::new(),
    };
    let poses = envelope.poses.iter().zip(&envelope.allowed).filter(|(_, allowed)| **allowed);
    for posed in poses.filter_map(|(posed, _)| posed.as_ref()) {
        for left in [true, false] {
            found.window = found.window.zip(legal_links(places, posed, left)).and_then(|(all, here)| {
                let (least, most) = (all.0.max(here.0), all.1.min(here.1));
                (least <= most).then_some((least, most))
            });
            match places.arm_at(posed, left) {
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
                Err(fault) => found.open.push((*posed, fault)),
            }
        }
    }
    found
}

/// Shortest and longest legal link of a side in one pose, mm eye to eye. A link stands out of the
/// arm's plane by D_y, and the more so the further the axle has swung sideways, which makes it longer
/// than it is in the plane: l = √(l_f² + D_y²). What is left to a straight or folded line bounds it as
/// γ does; the tighter counts.
fn legal_links(places: &Places, posed: &Posed, left: bool) -> Option<(f64, f64)> {
    let reach = places.reach_at(posed, left);
    let bounds = (Angle::from_degrees(FAIL_DEGREES.0), Angle::from_degrees(FAIL_DEGREES.1));
    let (least, most) = window(places.arm.length, (reach, reach), bounds)?;
    let arm = places.arm.length;
    let least = least.max(reach + LEAST_LEFT - arm).max(arm - reach + LEAST_LEFT);
    let most = most.min(arm + reach - LEAST_LEFT);
    let [_, _, out] = places.far_end(posed, left);
    let longer = places.left_longer.to_mm() / if left { 2.0 } else { -2.0 };
    let link = |in_plane: Length| in_plane.to_mm().hypot(out.to_mm()) - longer;
    (least <= most).then(|| (link(least), link(most)))
}

fn links(job: &Job, mechanism: &Mechanism, places: &Places, envelope: &Envelope, ride: &Posed) -> SwayLinks {
    let found = extremes(places, envelope, ride);
    let (low, high) = (found.least.0.to_degrees(), found.most.0.to_degrees());
    let outside = |(least, most): (f64, f64)| low < least || high > most;
    let near = found.straight.0 < LEAST_LEFT.to_mm() || found.folded < LEAST_LEFT.to_mm();
    let fails = !found.open.is_empty() || outside(FAIL_DEGREES) || near;
    let legal = found.window.map(|(least, most)| [least, most].map(Length::from_mm));
    let at = |posed: &Posed| Phrase::of(|w| place(w, posed.left, posed.right));
    let says = link_says(&found, places, fails, outside(WARN_DEGREES));
    let stops = mechanism.stops();
    let (droop, bump) = (-stops.droop.to_mm(), stops.bump.to_mm());
    let line = |from: (f64, f64), to: (f64, f64), steps: usize| {
        walkers::line(mechanism, from, to, steps).unwrap_or_default()
    };
    let poses = |line: Vec<Posed>| line.iter().map(|posed| pose_result(places, posed)).collect::<Vec<_>>();
    let (up, down) = stops.cross_axled();
    SwayLinks {
        link_mm: places.arm.link,
        arm_mm: places.arm.length,
        on_axle: places.on_axle,
        forward: places.arm.forward,
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
        window_says: window_says(legal, places.arm.link),
        targets: targets(job, mechanism, places, legal),
        window_mm: legal,
        heave: poses(line((droop, droop), (bump, bump), SWEEP_STEPS)),
        roll: poses(line((down, up), (up, down), SWEEP_STEPS)),
        crossed: poses(line((up, down), (down, up), 1)),
        working: working(places, ride),
    }
}

fn link_says(found: &Extremes, places: &Places, fails: bool, much: bool) -> Phrase {
    if let Some((posed, fault)) = found.open.iter().min_by(|a, b| {
        let far = |posed: &Posed| posed.left.abs() + posed.right.abs();
        far(&a.0).total_cmp(&far(&b.0))
    }) {
        let what = match fault {
            ArmFault::OverExtended(_) => "The sway bar's arm goes over centre",
            ArmFault::Folded(_) => "The sway bar's arm folds onto its link",
            ArmFault::Sideways => "The link is too short sideways",
        };
        return Phrase::of(|w| format!("{what} at {}", place(w, posed.left, posed.right)));
    }
    if fails {
        let (worst, posed) = if found.most.0.to_degrees() > 180.0 - found.least.0.to_degrees() {
            found.most
        } else {
            found.least
        };
        return Phrase::of(|w| {
            format!(
                "Arm and link come to {} at {}: {} left to a straight line",
                degrees(Angle::from_radians(worst)),
                place(w, posed.left, posed.right),
                w.distance(Length::from_mm(found.straight.0))
            )
        });
    }
    let range = format!("{:.0}° to {:.0}°", found.least.0.to_degrees(), found.most.0.to_degrees());
    let told = if much { "a lot, but legal" } else { "clear of a straight line" };
    Phrase::of(|w| format!("A link of {} works from {range}: {told}", w.distance(places.arm.link)))
}

fn window_says(legal: Option<[Length; 2]>, link: Length) -> Phrase {
    Phrase::of(|w| match legal {
        None => "No link is legal over this travel: a longer arm or less travel is wanted.".to_owned(),
        Some([least, most]) => {
            let verdict = if link < least {
                format!("this one is {} too short", w.distance(least - link))
            } else if link > most {
                format!("this one is {} too long", w.distance(link - most))
            } else {
                "this one is inside".to_owned()
            };
            format!("Legal from {} to {}: {verdict}.", w.distance(least), w.distance(most))
        }
    })
}

fn targets(job: &Job, mechanism: &Mechanism, places: &Places, legal: Option<[Length; 2]>) -> Vec<LinkTarget> {
    let driven = -heights::driven_offset(&job.rig).to_mm();
    let stops = mechanism.stops();
    let middle = (stops.bump - stops.droop).to_mm() / 2.0;
    let angle = |entry: &Option<AngleEntry>| entry.as_ref().map(AngleEntry::angle);
    let all = [
        ("arms level as driven", Some(Angle::ZERO), driven, SwayTarget::LevelDriven),
        ("arms level mid-travel", Some(Angle::ZERO), middle, SwayTarget::LevelMidTravel),
        ("arms at the angle of your own", angle(&job.sway.wanted_angle), driven, SwayTarget::OwnAngle),
    ];
    let aimed =
        all.into_iter().map(|(name, angle, travel, target)| (name, angle, travel, job.sway.target == target));
    let stock = ("arms as they were when stock", angle(&job.sway.stock_arm_angle), driven, false);
    aimed
        .chain([stock])
        .filter_map(|(name, angle, travel, chosen)| {
            let posed = walkers::line(mechanism, (travel, travel), (travel, travel), 1).ok()?;
            let [ahead, above, out] = places.far_end(posed.first()?, true);
            let link = places.arm.link_for(angle?, ahead, above, out);
            let change = link - places.arm.link;
            let turns = job.sway.link_thread.as_ref().and_then(|thread| turns(thread, places.arm.link, link));
            Some(LinkTarget {
                name: name.to_owned(),
                link_mm: link,
                change_mm: change,
                legal: legal.is_some_and(|[least, most]| least <= link && link <= most),
                chosen,
                says: Phrase::of(|w| {
                    let verb = if change > Length::ZERO { "longer" } else { "shorter" };
                    let turns =
                        turns.as_ref().map_or_else(String::new, |t| format!(", {}", t.in_unit(w.unit())));
                    format!("{}, {} {verb}{turns}", w.fine(link), w.fine(change))
                }),
            })
        })
        .collect()
}

fn turns(thread: &Thread, now: Length, wanted: Length) -> Option<Phrase> {
    let end = |hand| {
        Some(ThreadedEnd {
            thread: thread.clone(),
            hand: Some(hand),
            engagement: None,
            shank: None,
            tapped_depth: None,
            seat: ThreadSeat::default(),
            witness: None,
        })
    };
    let link = Adjuster {
        kind: AdjusterKind::Turnbuckle,
        first: end(Hand::Right),
        second: end(Hand::Left),
        end_style: EndStyle::default(),
        made_min: None,
        made_max: None,
    };
    setting(&link, now, wanted).turns_say
}

fn working(places: &Places, ride: &Posed) -> Working {
    let [ahead, above, out] = places.far_end(ride, true);
    let reach = places.reach_at(ride, true);
    let length = Value::Length;
    let flat = Length::from_mm((places.arm.link.to_mm().powi(2) - out.to_mm().powi(2)).max(0.0).sqrt());
    let mut steps = vec![
        Step::new(
            "far end from the bar's axis, in the arm's plane",
            "r = √({D_x}² + {D_z}²)",
            &[("D_x", length(ahead)), ("D_z", length(above))],
            length(reach),
        ),
        Step::new(
            "link in the arm's plane",
            "l_f = √({l}² − {D_y}²)",
            &[("l", length(places.arm.link)), ("D_y", length(out))],
            length(flat),
        ),
    ];
    if let Ok(arm) = places.arm_at(ride, true) {
        steps.push(Step::new(
            "angle at the link's eye",
            "γ = acos(({a}² + {l_f}² − {r}²) / (2 · {a} · {l_f}))",
            &[("a", length(places.arm.length)), ("l_f", length(flat)), ("r", length(reach))],
            Value::Angle(arm.at_eye),
        ));
    }
    Working { title: "Arm and link at ride height, left".to_owned(), steps }
}

fn bar_rate(job: &Job, places: &Places) -> BarRate {
    let form = &job.sway;
    BarRate {
        outside: length_of(&form.diameter).unwrap_or(Length::from_mm(25.0)),
        bore: length_of(&form.bore).unwrap_or(Length::ZERO),
        active: length_of(&form.active_length).unwrap_or(Length::from_mm(900.0)),
        arm: places.arm.length,
        bending_arm: (form.kind == Some(SwayKind::OnePiece)).then_some(places.arm.length),
        link: None,
        bush: None,
        half_spacing: Length::from_mm(places.eye_out),
    }
}

/// d(α_left − α_right)/dφ at ride height, from two leans of half a degree.
fn arms_per_roll(mechanism: &Mechanism, places: &Places, ride: &Posed) -> f64 {
    let half = mechanism.stops().half_track.to_mm();
    let lean = 0.5_f64.to_radians();
    let travel = half * lean.sin();
    let twist = |sign: f64| {
        let posed = mechanism.pose(sign * travel, -sign * travel, ride.trail()).ok()?;
        twist_of(places, &posed)
    };
    match (twist(1.0), twist(-1.0)) {
        (Some(up), Some(down)) => (up - down) / (2.0 * lean),
        _ => 0.0,
    }
}

fn twist_of(places: &Places, posed: &Posed) -> Option<f64> {
    let left = places.arm_at(posed, true).ok()?.above_level;
    let right = places.arm_at(posed, false).ok()?.above_level;
    Some((left - right).to_radians())
}

/// Roll at ride height up to which both links stay legal.
fn legal_roll(mechanism: &Mechanism, places: &Places) -> f64 {
    let (up, down) = mechanism.stops().cross_axled();
    let Ok(poses) = walkers::line(mechanism, (0.0, 0.0), (up, down), SWEEP_STEPS) else { return 0.0 };
    let legal = |posed: &&Posed| legal_at(places, posed);
    poses.iter().take_while(legal).last().map_or(0.0, |posed| posed.solved.pose.roll.to_radians())
}

/// Whether both arms are within the limits in a pose.
fn legal_at(places: &Places, posed: &Posed) -> bool {
    [true, false].into_iter().all(|left| {
        places.arm_at(posed, left).is_ok_and(|arm| {
            let gamma = arm.at_eye.to_degrees();
            (FAIL_DEGREES.0..=FAIL_DEGREES.1).contains(&gamma)
                && arm.to_straight >= LEAST_LEFT
                && arm.to_folded >= LEAST_LEFT
        })
    })
}

/// Whether the links are legal at full droop, full bump and cross-axled either way: the quick
/// answer for the strip, a little stricter than the stage, which leaves out what the axle cannot
/// reach. Absent while something is not measured.
#[must_use]
pub fn legal_at_ends(job: &Job, mechanism: &Mechanism) -> Option<bool> {
    let places = Places::of(job, mechanism.suspension().axle_height()).ok()?;
    let stops = mechanism.stops();
    let (droop, bump) = (-stops.droop.to_mm(), stops.bump.to_mm());
    let (up, down) = stops.cross_axled();
    let ends = [(droop, droop), (bump, bump), (up, down), (down, up)];
    Some(ends.into_iter().all(|end| {
        let walked = walkers::line(mechanism, (0.0, 0.0), end, 2);
        walked.is_ok_and(|poses| poses.len() == 3 && poses.last().is_some_and(|at| legal_at(&places, at)))
    }))
}

fn holes(
    job: &Job,
    mechanism: &Mechanism,
    places: &Places,
    envelope: &Envelope,
    rate: &BarRate,
    vehicle: &VehicleResult,
) -> Vec<HoleResult> {
    let Ok(ride) = mechanism.at_ride_height() else { return Vec::new() };
    let all: Vec<Length> = job.sway.holes.iter().map(TapeEntry::length).collect();
    let in_use = rate.effective() / rate.arm.to_mm().powi(2);
    all.iter()
        .enumerate()
        .map(|(index, arm)| {
            let there = Places { arm: crate::sway::Arm { length: *arm, ..places.arm }, ..places.clone() };
            let bar = BarRate { arm: *arm, bending_arm: rate.bending_arm.map(|_| *arm), ..*rate };
            let roll = bar.roll_rate(arms_per_roll(mechanism, &there, &ride));
            let twists = envelope.poses.iter().zip(&envelope.allowed).filter(|(_, allowed)| **allowed);
            let worst = twists
                .filter_map(|(posed, _)| twist_of(&there, posed.as_ref()?))
                .fold(0.0_f64, |worst, twist| worst.max(twist.abs()));
            let stress = bar.stress(worst);
            let ratio = bar.effective() / arm.to_mm().powi(2) / in_use;
            let road = vehicle.road_with(roll);
            let in_use_here = index == job.sway.hole;
            HoleResult {
                arm_mm: *arm,
                in_use: in_use_here,
                rate_ratio: ratio,
                roll_rate_nm_per_deg: roll / 1000.0 * 1.0_f64.to_radians(),
                worst_twist_deg: Angle::from_radians(worst),
                stress_mpa: stress,
                road_deg_per_g: road,
                says: Phrase::of(|w| {
                    let road = road.map_or_else(
                        || "it would not stand".to_owned(),
                        |r| format!("{r:.1}° per g on the road"),
                    );
                    let over = if stress > ALLOWABLE_SHEAR { ", over what a spring steel takes" } else { "" };
                    let against = if in_use_here {
                        "the hole in use".to_owned()
                    } else {
                        format!("{:+.0} % of rate against the hole in use", (ratio - 1.0) * 100.0)
                    };
                    format!(
                        "Arm {}: {against}, {road}, {stress:.0} MPa at the worst twist{over}",
                        w.distance(*arm),
                    )
                }),
            }
        })
        .collect()
}

fn fit_says(job: &Job, links: &SwayLinks, vehicle: &VehicleResult, rate: &BarRate, bar: f64) -> Vec<Phrase> {
    let mut says = Vec::new();
    if job.sway.kind == Some(SwayKind::Splined)
        && let Some(frame) = length_of(&job.rig.frame_width)
    {
        let least = frame + BAR_OVER_FRAME;
        says.push(Phrase::of(|w| {
            format!(
                "A splined bar of at least {}: the frame's {} and {} over, {} sticking out each side.",
                w.distance(least),
                w.distance(frame),
                w.distance(BAR_OVER_FRAME),
                w.distance(BAR_OVER_FRAME / 2.0)
            )
        }));
    }
    if let Some(stroke) = length_of(&job.sway.shock_stroke) {
        says.push(Phrase::of(|w| {
            let verdict = if (links.arm_mm - stroke).abs() <= stroke * 0.15 {
                "about right"
            } else {
                "look at the window above"
            };
            format!(
                "Arms of {} against {} of shock stroke: the rule of thumb takes them alike; {verdict}.",
                w.distance(links.arm_mm),
                w.distance(stroke)
            )
        }));
    }
    let longer = length_of(&job.sway.left_longer).unwrap_or(Length::ZERO);
    if longer != Length::ZERO {
        let change = vehicle.preload(rate, longer, bar);
        says.push(Phrase::of(|w| {
            let side = if longer > Length::ZERO { "left" } else { "right" };
            let wanted = if job.sway.preload_wanted {
                "on purpose".to_owned()
            } else {
                "by accident? Set both links alike on a level floor".to_owned()
            };
            format!(
                "The {side} link is {} longer: {} of preload at each wheel, {wanted}.",
                w.distance(longer),
                super::bracket::plan::force(w, change.abs())
            )
        }));
        if job.rig.floor_slope.as_ref().is_some_and(|slope| slope.angle().abs().to_degrees() > 0.3) {
            says.push(Phrase::plain(
                "The floor is not level: unequal links fitted here twist the bar on level ground.",
            ));
        }
    }
    says
}

fn checks(job: &Job) -> Vec<FitCheck> {
    let mut checks = Vec::new();
    let pins = &job.sway.pins;
    let mut push = |name: &str, good: bool, says: Phrase| {
        let verdict = if good { FitVerdict::Good } else { FitVerdict::Bad };
        checks.push(FitCheck { name: name.to_owned(), verdict, says });
    };
    if let (Some(bore), Some(stud)) = (length_of(&pins.eye_bore), length_of(&pins.stud)) {
        let play = bore - stud;
        let good = play >= Length::ZERO && play <= Length::from_mm(0.8);
        push(
            "stud in the link's eye",
            good,
            Phrase::of(|w| {
                if play < Length::ZERO {
                    format!(
                        "The stud is {} too thick: press the sleeve out, or take a thinner stud.",
                        w.fine(play)
                    )
                } else {
                    format!("{} of play.", w.fine(play))
                }
            }),
        );
    }
    if let (Some(stud), Some(nut)) = (&pins.stud_thread, &pins.nut_thread) {
        let same = (stud.diameter() - nut.diameter()).abs() < Length::from_mm(0.05)
            && (stud.pitch() - nut.pitch()).abs() < Length::from_mm(0.01);
        let says = if same {
            "Diameter and pitch are the same.".to_owned()
        } else {
            format!(
                "{} on {}: it starts, and strips. Take the nut of the stud's own thread.",
                nut.text(),
                stud.text()
            )
        };
        push("nut on the stud", same, Phrase::plain(&says));
    }
    if let Some(reaches) = pins.hand_reaches {
        let says = if reaches {
            "A hand reaches the pin."
        } else {
            "Turn the stud round: the pin must face where a hand reaches it."
        };
        push("pin's side", reaches, Phrase::plain(says));
    }
    if let Some(room) = length_of(&pins.stowed_room) {
        push(
            "stowed link at full bump",
            room >= LEAST_LEFT,
            Phrase::of(|w| {
                format!("{} over it at full bump; {} is wanted.", w.distance(room), w.distance(LEAST_LEFT))
            }),
        );
    }
    if let Some(difference) = length_of(&pins.parked_difference) {
        let goes_in = difference.abs() <= Length::from_mm(3.0);
        push(
            "pins go in as it is parked",
            goes_in,
            Phrase::of(|w| {
                if goes_in {
                    "Both sides stand alike.".to_owned()
                } else {
                    format!(
                        "The sides differ by {}: park level, or let a helper stand on the bumper.",
                        w.distance(difference)
                    )
                }
            }),
        );
    }
    for bolt in &job.sway.bolts {
        let over = bolt.room.length() - bolt.length.length();
        push(
            &format!("{} comes out again", bolt.name),
            over >= Length::ZERO,
            Phrase::of(|w| {
                if over < Length::ZERO {
                    format!(
                        "{} short: turn it round before a tab is welded or the rail is in the way.",
                        w.distance(over)
                    )
                } else {
                    format!("{} to spare.", w.distance(over))
                }
            }),
        );
    }
    checks
}
