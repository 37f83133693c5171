//! How stiff the bar is at the axle, hole by hole and pose by pose.

use crate::defaults;
use crate::message::Message;
use crate::sway::message::{Against, SwayMessage};
use derecho_core::measure::{
    Angle, Heading, Length, Meaning, Moment, RollRate, SpringRate, SpringRateEntry, Step, Stress, Working,
};
use serde::Serialize;
use utoipa::ToSchema;

use crate::defaults::Assumption;
use crate::document::sway::{BushKind, SwayKind};
use crate::document::{ArmHoleId, Job, Sway, length_of};
use crate::sway::places;
use crate::sway::places::{Places, over};
use crate::sway::road_and_trail::Base;
use crate::sway::setting::{Driven, Setting, in_a_bend, settings};
use derecho_core::measure::phrase::Value;
use derecho_core::pose::mechanism::Posed;
use derecho_core::pose::sway_linkage::{SwayArms, twist};
use derecho_core::pose::travel::Envelope;
use derecho_core::sway::{Arm, ArmPose, BarRate};

/// What the bar does in a pose.
#[derive(Clone, Copy, Debug)]
pub(crate) struct BarHere {
    /// K_bar, to the radian of roll.
    pub(crate) rate: RollRate,
    /// Moment against the roll.
    pub(crate) moment: Moment,
}

/// A hole of the arm.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct HoleResult {
    /// By which plans point at it.
    pub id: ArmHoleId,
    /// From the axis to the eye.
    pub arm_mm: Length,
    /// Whether it is in use.
    pub in_use: bool,
    /// Rate at the eye against the hole in use.
    pub rate_ratio: f64,
    /// K_bar at the driven height, N·m per degree of roll; absent where arm and link do not close there.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub roll_rate_nm_per_deg: Option<f64>,
    /// Twist of the bar at the worst pose.
    pub worst_twist_deg: Angle,
    /// Shear stress, MPa: the most of the settings it is driven in.
    pub stress_mpa: f64,
    /// What the bar's material takes, MPa.
    pub allowable_mpa: f64,
    /// Degrees per g on the road with it; absent where the vehicle would not stand.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub road_deg_per_g: Option<f64>,
    /// How many figures its rate and roll rest on that nobody measured.
    pub assumed: usize,
    /// In words.
    pub says: Message,
}

/// The arm as far as it bends with its bar: one-piece arms do, those that are put on its splines are told by
/// themselves.
pub(crate) fn bending_arm(kind: Option<SwayKind>, arm: Length) -> Option<Length> {
    (kind == Some(SwayKind::OnePiece)).then_some(arm)
}

/// Rate of a bush that holds the bar: as typed, else by its kind, rubber where nobody said; None where it gives nothing.
fn bush_rate(form: &Sway) -> Option<SpringRate> {
    form.bush_rate.as_ref().map(SpringRateEntry::rate).or(match form.bush_kind {
        Some(BushKind::Rubber) | None => Some(defaults::RUBBER_BUSH),
        Some(BushKind::Polyurethane) => Some(defaults::POLYURETHANE_BUSH),
        Some(BushKind::Bearing) => None,
    })
}

fn bush_spacing(form: &Sway) -> Length {
    let active = length_of(&form.active_length).unwrap_or(defaults::SWAY_ACTIVE);
    length_of(&form.bush_spacing).unwrap_or(active * defaults::BUSH_SPACING_SHARE)
}

pub(crate) fn bar_rate(form: &Sway, places: &Places) -> BarRate {
    BarRate {
        outside: length_of(&form.diameter).unwrap_or(defaults::SWAY_BAR),
        bore: length_of(&form.bore).unwrap_or(Length::ZERO),
        active: length_of(&form.active_length).unwrap_or(defaults::SWAY_ACTIVE),
        arm: places.arm.length,
        bending_arm: bending_arm(form.kind, places.arm.length),
        link: form.link_rate.as_ref().map(SpringRateEntry::rate),
        bush: bush_rate(form).map(|rate| (rate, bush_spacing(form) / 2.0)),
        half_spacing: Length::from_mm(places.eye_out),
    }
}

/// The bar in a pose; None where an arm and its link do not close there.
pub(crate) fn bar_in(places: &Places, rate: &BarRate, posed: &Posed, arms: &[ArmPose; 2]) -> Option<BarHere> {
    let twist = twist(arms);
    let per_roll = places::twist_per_roll_of(places, posed, arms)?;
    Some(BarHere { rate: rate.roll_rate(per_roll), moment: rate.effective() * (twist * per_roll) })
}

/// The least roll of a sweep at which the bar is twisted past what its steel takes; boundless where it
/// nowhere is.
pub(crate) fn strong_roll(job: &Job, places: &Places, rate: &BarRate, line: &[Posed]) -> Angle {
    let over = |posed: &&Posed| {
        twist_of(places, posed).is_some_and(|twist| rate.stress(twist) > allowable(&job.sway))
    };
    let rolls = line.iter().filter(over).map(|posed| posed.solved.pose.roll.abs());
    rolls.fold(Angle::from_radians(f64::INFINITY), Angle::min)
}

/// Roll and the bar's moment along the sweep in roll, in the order of the roll.
pub(crate) fn curve(places: &Places, rate: &BarRate, line: &[Posed]) -> Vec<(Angle, Moment)> {
    let here = |posed: &Posed| {
        let bar = bar_in(places, rate, posed, &places.both_arms(&posed.placing)?)?;
        Some((posed.solved.pose.roll, bar.moment))
    };
    line.iter().filter_map(here).collect()
}

/// What of the bar nobody measured.
pub(crate) fn assumed(job: &Job, rate: &BarRate) -> Vec<Assumption> {
    let mut assumed = Vec::new();
    let mut say = |field: &str, says: Message| {
        assumed.push(Assumption { pointer: format!("/sway/{field}"), says, drawing_only: false });
    };
    if job.sway.diameter.is_none() {
        say("diameter", SwayMessage::AssumedBar { outside: rate.outside }.into());
    }
    if job.sway.active_length.is_none() {
        say("active_length", SwayMessage::AssumedActive { active: rate.active }.into());
    }
    if job.sway.allowable_mpa.is_none() {
        say("allowable_mpa", SwayMessage::AssumedSteel.into());
    }
    match (job.sway.bush_rate.is_some(), job.sway.bush_kind) {
        (false, None) => say("bush_kind", SwayMessage::AssumedRubber { rate: defaults::RUBBER_BUSH }.into()),
        (false, Some(kind)) if kind != BushKind::Bearing => {
            let rate = bush_rate(&job.sway).unwrap_or(defaults::RUBBER_BUSH);
            say("bush_rate", SwayMessage::AssumedBush { rate }.into());
        }
        _ => {}
    }
    if bush_rate(&job.sway).is_some() && job.sway.bush_spacing.is_none() {
        say("bush_spacing", SwayMessage::AssumedBushSpacing { spacing: bush_spacing(&job.sway) }.into());
    }
    assumed
}

/// The largest twist between the arms over everything the axle does.
pub(crate) fn worst_twist(arms: &[Option<SwayArms>]) -> Angle {
    let closed = arms.iter().flatten().filter_map(|[left, right]| Some([left.ok()?, right.ok()?]));
    closed.fold(Angle::ZERO, |worst, arms| worst.max(twist(&arms).abs()))
}

/// How the rate of the bar in use is worked out at the driven height, and its stress in each setting where it is driven.
pub(crate) fn working(job: &Job, rate: &BarRate, per_roll: f64, settings: &[Setting]) -> Working {
    let (length, number) = (Value::Length, Value::Number);
    let torsion = rate.torsion().to_nm_per_radian();
    let effective = rate.effective().to_nm_per_radian();
    // Millimetres whatever is shown: the modulus is in N/mm².
    let mm = |length: Length| number(length.to_mm(), 2);
    let shear = |setting: &Setting| {
        Step::new(
            Meaning::Shear { allowable: allowable(&job.sway), driven: setting.driven.meaning() },
            if setting.driven == Driven::Unlocked {
                "τ = 16 · {k_eff} · {s} · 1000 · {θ} / (π · {D}³ · (1 − ({d}/{D})⁴))"
            } else {
                "τ = 16 · {k_eff} · 1000 · {θ} / (π · {D}³ · (1 − ({d}/{D})⁴))"
            },
            &[
                ("k_eff", number(effective, 0)),
                ("s", number(setting.share, 2)),
                ("θ", number(setting.twist.to_radians(), 4)),
                ("D", mm(rate.outside)),
                ("d", mm(rate.bore)),
            ],
            number(setting.stress(rate).to_mpa(), 1),
        )
    };
    let arm = Step::new(Meaning::ArmInUse, "a = {a}", &[("a", length(rate.arm))], length(rate.arm));
    Working {
        title: Heading::BarRate,
        steps: [
            Step::new(
                Meaning::Torsion,
                "k_t = 79300 · π · ({D}⁴ − {d}⁴) / (32 · {L}) / 1000",
                &[("D", mm(rate.outside)), ("d", mm(rate.bore)), ("L", mm(rate.active))],
                number(torsion, 0),
            ),
            Step::new(
                Meaning::TorsionWithGive,
                "k_eff = 1 / (1/{k_t} + {c})",
                &[("k_t", number(torsion, 0)), ("c", number(1.0 / effective - 1.0 / torsion, 9))],
                number(effective, 0),
            ),
            Step::new(
                Meaning::AtTheAxle,
                "K_bar = {k_eff} · {w}² · π / 180",
                &[("k_eff", number(effective, 0)), ("w", number(per_roll, 4))],
                number(effective * per_roll * per_roll * 1.0_f64.to_radians(), 1),
            ),
        ]
        .into_iter()
        .chain(settings.iter().map(shear))
        .chain([arm])
        .collect(),
    }
}

/// Shear stress the bar's material takes.
pub(crate) fn allowable(form: &Sway) -> Stress {
    form.allowable_mpa.map_or(defaults::ALLOWABLE_SHEAR, Stress::from_mpa)
}

pub(crate) fn twist_of(places: &Places, posed: &Posed) -> Option<Angle> {
    Some(twist(&places.both_arms(&posed.placing)?))
}

pub(crate) fn holes(
    job: &Job,
    places: &Places,
    (envelope, driven): (&Envelope, &Posed),
    arms: &[Option<SwayArms>],
    rate: &BarRate,
    base: &Base,
) -> Vec<HoleResult> {
    let all: Vec<Length> = job.sway.holes.iter().map(|hole| hole.arm.length()).collect();
    let in_use = rate.effective() / rate.arm.to_mm().powi(2);
    let roll_in_use = places::twist_per_roll(places, driven).map(|per_roll| rate.roll_rate(per_roll));
    all.iter()
        .enumerate()
        .map(|(index, arm)| {
            let there = Places { arm: Arm { length: *arm, ..places.arm }, ..places.clone() };
            let bar = BarRate { arm: *arm, bending_arm: rate.bending_arm.map(|_| *arm), ..*rate };
            let roll = places::twist_per_roll(&there, driven).map(|per_roll| bar.roll_rate(per_roll));
            let ratio = bar.effective() / arm.to_mm().powi(2) / in_use;
            let road = roll.and_then(|roll| base.road_with(roll));
            let in_use_here = index == job.sway.place_of(&job.sway.hole);
            let worst = if in_use_here { worst_twist(arms) } else { worst_twist(&over(&there, envelope)) };
            let per_roll = places::twist_per_roll(&there, driven);
            let settings = settings(&job.sway, worst, in_a_bend(road, per_roll));
            let stressed = settings.iter().map(|setting| (setting.driven, setting.stress(&bar)));
            let stressed: Vec<(Driven, Stress)> = stressed.collect();
            let stress = stressed.iter().map(|(_, stress)| *stress).fold(Stress::ZERO, Stress::max);
            let takes = allowable(&job.sway);
            // Told as what the two rates beside it come to: arms at other angles turn otherwise.
            let against = roll.zip(roll_in_use).map(|(here, in_use)| here / in_use);
            HoleResult {
                id: job.sway.holes[index].id.clone(),
                arm_mm: *arm,
                in_use: in_use_here,
                rate_ratio: ratio,
                roll_rate_nm_per_deg: roll.map(RollRate::to_nm_per_degree),
                worst_twist_deg: worst,
                stress_mpa: stress.to_mpa(),
                allowable_mpa: takes.to_mpa(),
                road_deg_per_g: road,
                assumed: base.weighed.assumed.len() + assumed(job, rate).len(),
                says: SwayMessage::Hole {
                    arm: *arm,
                    against: if in_use_here {
                        Against::InUse
                    } else {
                        against.map_or(Against::Unknown, Against::Share)
                    },
                    roll,
                    road,
                    stressed,
                    takes,
                }
                .into(),
            }
        })
        .collect()
}
