//! Steering of a job's axle: what bump and roll steer, how well bar and drag link match, and
//! the drag link's length once the axle is centred.

use crate::bar::turns::sleeve_turns;
use serde::Serialize;
use utoipa::ToSchema;

use crate::assembly::assemble;
use crate::cycle::message::CycleMessage;
use crate::document::Job;
use crate::message::Message;
use crate::setups::{Resolved, Setups};
use derecho_core::fastener::Thread;
use derecho_core::measure::{Angle, Length};
use derecho_core::pose::mechanism::{Mechanism, Posed};

/// How much of a travel the rates are taken over, either way: 2 mm.
const RATE_STEP: f64 = 2.0;

/// Steering figures of one setup. Road wheels against the vehicle, + left.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SteeringResult {
    /// Bump steer at the driven height, degrees per millimetre of bump.
    pub bump_steer_deg_per_mm: f64,
    /// Roll steer at the driven height, degrees per degree of roll.
    pub roll_steer_deg_per_deg: f64,
    /// The most it steers over the heave travel, against the driven height.
    pub worst_deg: Angle,
    /// At which travel.
    pub worst_at_mm: Length,
    /// The same at the tyre: diameter · tan δ, over twice the axle's height where the tyre was not measured.
    pub worst_at_tyre_mm: Length,
    /// Bar angle in front view at the driven height, + body end higher.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bar_angle_deg: Option<Angle>,
    /// Drag-link angle in front view, + pitman end higher.
    pub drag_link_angle_deg: Angle,
    /// Bar less drag link, both leant as seen from the front.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub angle_difference_deg: Option<Angle>,
    /// Bar over drag link, in front view.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub length_ratio: Option<f64>,
    /// Its end on the pitman arm, mm forward, left, up at ride height.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub pitman_mm: [f64; 3],
    /// Its length now.
    pub drag_link_length_mm: Length,
    /// The length that makes the wheels straight at the driven height.
    pub straight_length_mm: Length,
    /// What to change: straight less now.
    pub change_mm: Length,
    /// Bump steer in words.
    pub says: Message,
    /// The match of bar and drag link in words.
    pub match_says: Message,
    /// What the drag link wants in words.
    pub change_says: Message,
}

/// The job before anything was set: the drag link was measured with the axle where it stood then.
fn as_it_came(job: &Job) -> Job {
    let mut came = job.clone();
    let part =
        job.setups.rounds.iter().rev().map(|round| round.drag_link.clone()).find(|part| !part.is_empty());
    came.setups.rounds.clear();
    came.sheets.retain(|sheet| sheet.after.is_empty());
    if let Some(part) = part {
        came.setups.plans.chosen.get_or_insert_default().drag_link = part;
    }
    came
}

/// What the drag link wants once the axle stands as planned, in words; None where no link was measured. The same before
/// the axle is set and after it: nobody turned the sleeve by setting the bar.
#[must_use]
pub(crate) fn link_wanted(job: &Job, setups: Option<&Setups>) -> Option<Message> {
    if job.setups.rounds.is_empty() {
        return wanted(job, setups);
    }
    let came = as_it_came(job);
    wanted(&came, Resolved::of(&came).measured_setups())
}

fn wanted(job: &Job, setups: Option<&Setups>) -> Option<Message> {
    let form = job.hardpoints.steering.as_ref()?;
    let assembly = assemble(job, setups).ok()?;
    let mechanism = assembly.mechanism();
    let link = mechanism.drag_link()?;
    let driven = mechanism.at_driven_height().ok()?;
    let straight = link.straight_length(mechanism.suspension().axle_height(), &driven.solved.pose);
    Some(link_change(link.made, straight, form.thread.as_ref()))
}

/// Bar and drag link in front view: angle and length of each.
struct Leant {
    drag: (Angle, Length),
    bar: Option<(Angle, Length)>,
    /// Whether both lean the same way, seen from the front, whichever side each has its body end on.
    same_way: bool,
}

fn leant(mechanism: &Mechanism, driven: &Posed) -> Option<Leant> {
    let link = mechanism.drag_link()?;
    let (suspension, pose) = (mechanism.suspension(), &driven.solved.pose);
    let height = suspension.axle_height();
    let bar_out = mechanism.bar().map(|bar| suspension.links()[bar].body - suspension.axle_end(bar, pose));
    let pitman_out = link.pitman - pose.place(height, link.knuckle);
    Some(Leant {
        drag: link.front_view(height, pose),
        bar: bar_out.map(|out| (Angle::from_radians(driven.bar_angle), Length::from_mm(out.y.hypot(out.z)))),
        same_way: bar_out.is_none_or(|out| (out.y < 0.0) == (pitman_out.y < 0.0)),
    })
}

/// The drag link in a pose, beside the bar.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Beside {
    /// Its angle in front view, + pitman end higher.
    pub drag_link: Angle,
    /// How far bar and drag link lean apart, without a sign; None without a bar.
    pub apart: Option<Angle>,
}

/// The drag link beside the bar in a pose, where one was measured.
pub(crate) fn beside_in(mechanism: &Mechanism, posed: &Posed) -> Option<Beside> {
    let Leant { drag: (drag_link, _), bar, same_way } = leant(mechanism, posed)?;
    let turned = if same_way { drag_link } else { -drag_link };
    Some(Beside { drag_link, apart: bar.map(|(angle, _)| (angle - turned).abs()) })
}

/// A bump or dip that steering is judged over, mm of travel: what a road has.
const BUMP: f64 = 50.0;

/// What steering is judged by.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct BesideLink {
    /// How far bar and drag link lean apart at the driven height, without a sign; None without a bar.
    pub apart: Option<Angle>,
    /// The most the wheels steer by themselves over a bump or a dip of 50 mm, without a sign.
    pub over_bumps: Angle,
}

/// What steering is judged by, where a drag link was measured.
pub(crate) fn beside_link(mechanism: &Mechanism) -> Option<BesideLink> {
    mechanism.drag_link()?;
    let driven = mechanism.at_driven_height().ok()?;
    let Beside { apart, .. } = beside_in(mechanism, &driven)?;
    let steers = [BUMP, -BUMP].into_iter().filter_map(|travel| {
        let posed = mechanism.pose(driven.left + travel, driven.right + travel, driven.trail()).ok()?;
        Some((posed.steer - driven.steer).abs()).filter(|steer| steer.is_finite())
    });
    let over_bumps = Angle::from_radians(steers.fold(0.0, f64::max));
    Some(BesideLink { apart, over_bumps })
}

pub(crate) fn steering(
    mechanism: &Mechanism,
    heave: &[Posed],
    driven: &Posed,
    tyre: Option<Length>,
    thread: Option<&Thread>,
) -> Option<SteeringResult> {
    let link = mechanism.drag_link()?;
    let height = mechanism.suspension().axle_height();
    let at = |left: f64, right: f64| {
        let (left, right) = (driven.left + left, driven.right + right);
        mechanism.pose(left, right, driven.trail()).map_or(f64::NAN, |posed| posed.steer.to_degrees())
    };
    let per_mm = (at(RATE_STEP, RATE_STEP) - at(-RATE_STEP, -RATE_STEP)) / (2.0 * RATE_STEP);
    let roll = (RATE_STEP / mechanism.stops().half_track.to_mm()).asin().to_degrees();
    let per_degree = (at(RATE_STEP, -RATE_STEP) - at(-RATE_STEP, RATE_STEP)) / (2.0 * roll);
    // Links that are tight as it stands leave no slope to tell.
    if !(per_mm.is_finite() && per_degree.is_finite()) {
        return None;
    }
    let worst = heave
        .iter()
        .filter(|posed| posed.steer.is_finite())
        .max_by(|a, b| (a.steer - driven.steer).abs().total_cmp(&(b.steer - driven.steer).abs()))?;
    let steered = worst.steer - driven.steer;
    // Both wheels alike: from where the drag link no longer reaches, nearest to where it stands.
    let tight = heave
        .iter()
        .filter(|posed| posed.steer.is_nan())
        .min_by(|a, b| (a.left - driven.left).abs().total_cmp(&(b.left - driven.left).abs()));
    let Leant { drag: (drag_angle, drag_length), bar, same_way } = leant(mechanism, driven)?;
    let straight = link.straight_length(height, &driven.solved.pose);
    let change = straight - link.made;
    let turned = if same_way { drag_angle } else { -drag_angle };
    let difference = bar.map(|(angle, _)| angle - turned);
    let ratio = bar.map(|(_, length)| length / drag_length);
    let worst_angle = Angle::from_radians(steered);
    Some(SteeringResult {
        bump_steer_deg_per_mm: per_mm,
        roll_steer_deg_per_deg: per_degree,
        worst_deg: worst_angle,
        worst_at_mm: Length::from_mm(worst.left),
        worst_at_tyre_mm: tyre.unwrap_or(height * 2.0) * steered.tan(),
        bar_angle_deg: bar.map(|(angle, _)| angle),
        drag_link_angle_deg: drag_angle,
        angle_difference_deg: difference,
        length_ratio: ratio,
        pitman_mm: link.pitman.to_mm(),
        drag_link_length_mm: link.made,
        straight_length_mm: straight,
        change_mm: change,
        says: CycleMessage::BumpSteer {
            per_mm,
            worst: worst_angle,
            at: Length::from_mm(worst.left),
            tight: tight.map(|posed| Length::from_mm(posed.left)),
        }
        .into(),
        match_says: CycleMessage::LinkMatch {
            bar: bar.map(|(angle, _)| angle),
            drag: drag_angle,
            match_: difference.zip(ratio),
            same_way,
        }
        .into(),
        change_says: link_change(link.made, straight, thread),
    })
}

/// What brings a drag link that is made so long to the length at which the steering wheel is straight.
fn link_change(now: Length, straight: Length, thread: Option<&Thread>) -> Message {
    let turns = thread.and_then(|thread| sleeve_turns(thread, now, straight));
    CycleMessage::LinkChange { change: straight - now, turns }.into()
}
