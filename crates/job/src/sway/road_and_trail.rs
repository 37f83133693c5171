//! The vehicle as a whole: how it rolls on the road, how far it twists on the trail, and every
//! choice of bar and disconnect on both.

use crate::defaults;
use crate::message::{Label, Message};
use crate::sway::message::{EndedBy, SwayMessage};
use derecho_core::measure::{
    Angle, Force, Heading, Length, Meaning, Moment, RollRate, SpringRate, Step, Working,
};
use serde::Serialize;
use utoipa::ToSchema;

use crate::assembly::weights::{Weighed, station_says, weighed};
use crate::cycle::limit::Happening;
use crate::document::sway::SwayKind;
use crate::document::{Job, Use};
use crate::sway::choice::Choice;
use crate::sway::setting::soft_share;
use derecho_core::measure::phrase::Value;
use derecho_core::measure::squareness::AxleEnd;
use derecho_core::pose::mechanism::{Level, Mechanism};
use derecho_core::pose::travel::{self, Way};
use derecho_core::sway::BarRate;
use derecho_core::sway::body_roll::{
    AxleRoll, TwistEnd, preload, roll_gradient, spring_roll_rate, trail_twist,
};

/// Steps that bring a bar's rate and the roll it is taken at together.
const ROUNDS: usize = 24;

/// One choice of bar and disconnect, worked out.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ChoiceResult {
    /// What it is.
    pub choice: Choice,
    /// The same in words.
    #[schema(value_type = String)]
    pub name: Label,
    /// Whether it is what is there now.
    pub here: bool,
    /// Roll on the road, degrees per g; absent where it would not stand.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub road_deg_per_g: Option<f64>,
    /// The same with the centre of gravity as low and the other axle's bar as stiff as they may be, and the other way round.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub road_between_deg_per_g: Option<[f64; 2]>,
    /// How many figures it rests on that nobody measured.
    pub assumed: usize,
    /// Twist of the ground between the axles, degrees; absent where it would not stand.
    #[serde(
        skip_serializing_if = "Option::is_none",
        serialize_with = "derecho_core::measure::figure::degrees"
    )]
    #[schema(nullable = false)]
    pub trail_deg: Option<f64>,
    /// The same as a wheel's lift at this axle, track · sin.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub trail_lift_mm: Option<Length>,
    /// What ends it on the trail.
    #[schema(value_type = String)]
    pub ended_by: Label,
    /// What it needs.
    pub needs: Message,
    /// In one sentence.
    pub says: Message,
}

/// The vehicle as a whole.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct VehicleResult {
    /// m_s·g·H, N·m per radian of roll.
    pub overturning_nm: f64,
    /// From the roll axis to the centre of gravity, at its station.
    pub lever_mm: Length,
    /// Roll rate of this axle's springs, N·m/rad.
    pub springs_nm_per_rad: f64,
    /// Of its bar at ride height.
    pub bar_nm_per_rad: f64,
    /// Of the other axle, bar and all.
    pub other_nm_per_rad: f64,
    /// What it weighs and how high, in words.
    pub says: Message,
    /// How the roll on the road is worked out with the bar as it is.
    pub working: Working,
    /// Every choice.
    pub choices: Vec<ChoiceResult>,
    /// Which is suggested, and why.
    pub suggests: Message,
}

/// What the choices are reckoned from.
pub(crate) struct Base {
    pub(crate) weighed: Weighed,
    /// This axle without a bar.
    pub(crate) this: AxleRoll,
    pub(crate) other: AxleRoll,
    /// m_s·g·H, and with the centre of gravity as low and as high as it may be.
    pub(crate) overturning: RollRate,
    overturning_between: [RollRate; 2],
    roll_centre: Length,
    front: bool,
    /// Roll at which a joint, a gap or the links of this axle end its travel before its stops do, and
    /// which.
    ends_early: Option<(Angle, EndedBy)>,
}

/// The least roll, cross-axled either way, at which something of the axle itself is over its limit
/// before the stops end it, and what happens there.
fn ends_early(mechanism: &Mechanism, by_stops: Angle) -> Option<(Angle, EndedBy)> {
    let half = mechanism.stops().half_track.to_mm();
    [Way::LeftUp, Way::RightUp]
        .into_iter()
        .filter_map(|way| {
            let end = travel::first_end(mechanism, way).ok()??;
            let (left, right) = travel::between(mechanism.driven(), way.end(mechanism), end.share);
            let roll = Angle::from_radians(((left - right).abs() / (2.0 * half)).min(1.0).asin());
            let happening =
                |watch: usize| Happening::of(mechanism, mechanism.watches()[watch].what, Level::Violated);
            (roll < by_stops).then(|| (roll, EndedBy::Limit(end.watch.map(happening))))
        })
        .min_by(|a, b| a.0.to_radians().total_cmp(&b.0.to_radians()))
}

/// The bar on this axle as it is.
pub(crate) struct BarOnAxle {
    /// K_bar at ride height.
    pub(crate) rate: RollRate,
    /// Roll up to which its links work.
    pub(crate) working_roll: Angle,
    /// Roll up to which its steel takes the twist.
    pub(crate) strong_roll: Angle,
    /// Roll and the bar's moment along a sweep.
    pub(crate) curve: Vec<(Angle, Moment)>,
    /// K_bar of the torsion bar that was found for it, and what it is.
    pub(crate) soft: Option<(RollRate, Message)>,
    /// How many of the bar's figures nobody measured.
    pub(crate) assumed: usize,
}

impl BarOnAxle {
    /// The bar's moment over the roll, at a roll: its secant rate. `share` of the whole.
    fn secant(&self, roll: Angle, share: f64) -> RollRate {
        let at = |roll: Angle| {
            let mut pairs = self.curve.windows(2).filter_map(|pair| {
                let ((a, from), (b, to)) = (pair[0], pair[1]);
                let inside = (a.min(b)..=a.max(b)).contains(&roll) && a != b;
                inside.then(|| from + (to - from) * ((roll - a) / (b - a)))
            });
            pairs.next()
        };
        match (at(roll), at(-roll)) {
            (Some(up), Some(down)) if roll.abs().to_radians() > 1e-4 => {
                RollRate::from_nmm_per_radian((up - down).to_nmm() / (2.0 * roll.to_radians())) * share
            }
            _ => self.rate * share,
        }
    }
}

impl Base {
    pub(crate) fn of(job: &Job, mechanism: &Mechanism) -> Self {
        let stops = mechanism.stops();
        let track = stops.half_track * 2.0;
        let hub = mechanism.suspension().axle_height();
        let weighed = weighed(job, track, hub);
        let roll_centre = mechanism
            .at_driven_height()
            .map_or(hub + defaults::ROLL_CENTRE_ABOVE_HUB, |posed| Length::from_mm(posed.roll_centre));
        let leans = (stops.bump + stops.droop) / (stops.bump_half_spacing + stops.droop_half_spacing);
        let by_stops = Angle::from_radians(leans.min(0.5).asin());
        let axle = |rate: SpringRate, spacing: Length, track: Length| AxleRoll {
            springs: spring_roll_rate(rate, spacing),
            bar: RollRate::ZERO,
            weight: weighed.axle,
            track,
            most_roll: by_stops,
            tyres: weighed.tyre.map(|rate| spring_roll_rate(rate, track)),
        };
        // Travel at the other axle is told at its wheels.
        let other_leans = weighed.other_travel / weighed.other_track;
        let higher = weighed.gravity_good_to;
        Self {
            this: axle(weighed.spring, weighed.spacing, track),
            other: AxleRoll {
                bar: weighed.other_bar,
                weight: weighed.other,
                most_roll: Angle::from_radians(other_leans.min(0.5).asin()),
                ..axle(weighed.other_spring, weighed.other_spacing, weighed.other_track)
            },
            overturning: weighed.overturning(roll_centre, Length::ZERO),
            overturning_between: [-higher, higher].map(|by| weighed.overturning(roll_centre, by)),
            roll_centre,
            ends_early: ends_early(mechanism, by_stops),
            front: job.rig.end != Some(AxleEnd::Rear),
            weighed,
        }
    }

    /// Degrees per g with a bar at this axle.
    pub(crate) fn road_with(&self, bar: RollRate) -> Option<f64> {
        roll_gradient(&self.this.with_bar(bar), &self.other, self.overturning).map(Angle::to_degrees)
    }

    /// Change of weight at each wheel by a link that is longer.
    pub(crate) fn preload(&self, rate: &BarRate, longer: Length, bar: RollRate) -> Force {
        let this = self.this.with_bar(bar);
        preload(rate.effective(), (longer, rate.arm), rate.half_spacing, &this, &self.other)
    }

    /// Lean of the body against this axle, without its bar, on ground that slopes sideways.
    pub(crate) fn lean_on_slope(&self, slope: Angle) -> Option<Angle> {
        let left = self.this.rate() + self.other.rate() - self.overturning;
        (left > RollRate::ZERO).then(|| Angle::from_radians(self.overturning / left * slope.sin()))
    }

    /// From the roll axis to the centre of gravity, at its station.
    pub(crate) fn lever(&self) -> Length {
        self.weighed.gravity - self.weighed.roll_axis(self.roll_centre)
    }
}

/// The vehicle with this axle's bar.
pub(crate) fn vehicle(job: &Job, base: &Base, bar: Option<&BarOnAxle>) -> VehicleResult {
    let mut result = VehicleResult {
        overturning_nm: base.overturning.to_nm_per_radian(),
        lever_mm: base.lever(),
        springs_nm_per_rad: base.this.springs.to_nm_per_radian(),
        bar_nm_per_rad: bar.map_or(0.0, |bar| bar.rate.to_nm_per_radian()),
        other_nm_per_rad: base.other.rate().to_nm_per_radian(),
        says: SwayMessage::Weighs {
            weighed: Box::new(base.weighed.clone()),
            lever: base.lever(),
            station: station_says(job, &base.weighed),
        }
        .into(),
        working: working(base, bar.map_or(RollRate::ZERO, |bar| bar.rate)),
        choices: choices(job, base, bar),
        suggests: Message::NOTHING,
    };
    result.suggests = suggests(job, &result);
    result
}

/// In newtons and metres whatever is shown.
fn working(base: &Base, bar: RollRate) -> Working {
    let weighed = &base.weighed;
    let number = Value::Number;
    let roof_lever = weighed.roof_height - (weighed.gravity - base.lever());
    let metres = |length: Length| number(length.to_mm() / 1000.0, 3);
    let newton_metres = |rate: RollRate| number(rate.to_nm_per_radian(), 0);
    let this = base.this.with_bar(bar);
    let [here, there, moment] = [this.rate(), base.other.rate(), base.overturning].map(newton_metres);
    let mut steps = vec![Step::new(
        Meaning::Overturning,
        "M = {W} · {H} + {W_roof} · {H_roof}",
        &[
            ("W", number(weighed.sprung().to_n(), 0)),
            ("H", metres(base.lever())),
            ("W_roof", number(weighed.roof.to_n(), 0)),
            ("H_roof", metres(roof_lever)),
        ],
        moment,
    )];
    steps.push(Step::new(
        Meaning::SpringsHere,
        "K_springs = {k} · {s}² / 2",
        &[("k", number(weighed.spring.to_n_per_mm() * 1000.0, 0)), ("s", metres(weighed.spacing))],
        newton_metres(base.this.springs),
    ));
    steps.push(match this.tyres {
        None => Step::new(
            Meaning::AxleWithBar,
            "K_here = {K_springs} + {K_bar}",
            &[("K_springs", newton_metres(this.springs)), ("K_bar", newton_metres(bar))],
            here,
        ),
        Some(tyres) => Step::new(
            Meaning::AxleWithBarOnTires,
            "K_here = 1 / (1 / ({K_springs} + {K_bar}) + 1 / {K_tyres})",
            &[
                ("K_springs", newton_metres(this.springs)),
                ("K_bar", newton_metres(bar)),
                ("K_tyres", newton_metres(tyres)),
            ],
            here,
        ),
    });
    if let Some(road) = base.road_with(bar) {
        steps.push(Step::new(
            Meaning::RollOnRoad,
            "R = {M} / ({K_here} + {K_other} − {M}) · 180 / π",
            &[("M", moment), ("K_here", here), ("K_other", there)],
            number(road, 2),
        ));
    }
    Working { title: Heading::RoadRoll, steps }
}

struct ChoiceCandidate {
    choice: Choice,
    road: RollRate,
    /// Share of the bar that stays connected on the trail.
    share: f64,
    needs: Message,
    kind: Option<SwayKind>,
}

fn choices(job: &Job, base: &Base, on_axle: Option<&BarOnAxle>) -> Vec<ChoiceResult> {
    let bar = on_axle.map_or(RollRate::ZERO, |bar| bar.rate);
    let plain = |choice: Choice, road: RollRate, share: f64, kind: Option<SwayKind>| ChoiceCandidate {
        choice,
        road,
        share,
        needs: SwayMessage::Needs { choice }.into(),
        kind,
    };
    let soft = on_axle.and_then(|bar| bar.soft.clone()).filter(|_| bar > RollRate::ZERO);
    let (soft, soft_needs) = soft.map_or_else(
        || (defaults::SOFT_SHARE, SwayMessage::Needs { choice: Choice::SoftTorsionBar }.into()),
        |(rate, needs)| (rate / bar, needs),
    );
    let two_rate = soft_share(&job.sway);
    let soft_bar = ChoiceCandidate {
        choice: Choice::SoftTorsionBar,
        road: bar * soft,
        share: soft,
        needs: soft_needs,
        kind: Some(SwayKind::Splined),
    };
    let with_a_bar = [
        plain(Choice::AsItIs, bar, 1.0, Some(SwayKind::OnePiece)),
        plain(Choice::TiedUp, bar, 0.0, None),
        plain(Choice::Pins, bar, 0.0, None),
        plain(Choice::Powered, bar, 0.0, Some(SwayKind::Powered)),
        soft_bar,
        plain(Choice::TwoRate, bar, two_rate, Some(SwayKind::TwoRate)),
    ];
    with_a_bar
        .into_iter()
        .filter(|_| bar > RollRate::ZERO)
        .chain([plain(Choice::NoBar, RollRate::ZERO, 0.0, Some(SwayKind::None))])
        .map(|candidate| evaluate(job, base, candidate, on_axle))
        .collect()
}

/// Roll that ends this axle's articulation, and what ends it.
fn limit_of(base: &Base, share: f64, on_axle: Option<&BarOnAxle>) -> (Angle, EndedBy) {
    let stops = if base.front { EndedBy::FrontStops } else { EndedBy::RearStops };
    let mut ends = vec![(base.this.most_roll, stops.clone())];
    ends.extend(base.ends_early.clone());
    if let Some(bar) = on_axle.filter(|_| share > 0.0) {
        // Up to the stops themselves is all the way: a rounding short of them ends nothing.
        let mut before_the_stops = |roll: Angle, what: EndedBy| {
            if roll < base.this.most_roll - Angle::from_degrees(1e-6) {
                ends.push((roll, what));
            }
        };
        before_the_stops(bar.working_roll, EndedBy::BarLinks);
        // A softer bar is another one, chosen so that its steel takes it.
        if share >= 1.0 {
            before_the_stops(bar.strong_roll, EndedBy::BarSteel);
        }
    }
    ends.into_iter()
        .min_by(|a, b| a.0.to_radians().total_cmp(&b.0.to_radians()))
        .unwrap_or((Angle::ZERO, stops))
}

/// Twist of the ground at which something ends it, and what. A connected bar acts with its moment at
/// the roll it has there, so that rate and roll are brought together.
///
/// `other` is the other axle.
fn twisted(
    base: &Base,
    other: &AxleRoll,
    share: f64,
    on_axle: Option<&BarOnAxle>,
) -> Option<(Angle, EndedBy)> {
    let (most_roll, limit) = limit_of(base, share, on_axle);
    let ends = |bar: RollRate| {
        let this = AxleRoll { bar, most_roll, ..base.this };
        let (front, rear) = if base.front { (this, *other) } else { (*other, this) };
        let found = trail_twist(&front, &rear, base.overturning)?;
        let rear_roll = found.0 * (front.rate() / (front.rate() + rear.rate() - base.overturning));
        Some((found, if base.front { found.0 - rear_roll } else { rear_roll }))
    };
    let mut rate = RollRate::ZERO;
    if let Some(bar) = on_axle.filter(|_| share > 0.0) {
        rate = bar.rate * share;
        for _ in 0..ROUNDS {
            let Some((_, roll)) = ends(rate) else { break };
            rate = (rate + bar.secant(roll.abs().min(most_roll), share)) / 2.0;
        }
    }
    let ((twist, end), _) = ends(rate)?;
    let what = match (end, base.front) {
        (TwistEnd::FrontLifts, _) => EndedBy::FrontLifts,
        (TwistEnd::RearLifts, _) => EndedBy::RearLifts,
        (TwistEnd::FrontLimit, true) | (TwistEnd::RearLimit, false) => limit,
        (TwistEnd::FrontLimit, false) => EndedBy::FrontStops,
        (TwistEnd::RearLimit, true) => EndedBy::RearStops,
    };
    Some((twist, what))
}

/// The twist with the other axle's bar as stiff and as soft as it may be, where nobody entered it.
fn trail_between(
    base: &Base,
    twist: Option<Angle>,
    with_other: impl Fn(&AxleRoll) -> Option<(Angle, EndedBy)>,
) -> Option<[f64; 2]> {
    let bars = base.weighed.other_bar_between;
    if bars[0] == bars[1] {
        return None;
    }
    let twists = bars.map(|bar| with_other(&base.other.with_bar(bar)).map(|(twist, _)| twist));
    let [first, second] = [twists[0]?, twists[1]?];
    let all = [first, twist?, second].map(Angle::to_degrees);
    Some([all.into_iter().fold(f64::INFINITY, f64::min), all.into_iter().fold(0.0, f64::max)])
}

fn evaluate(job: &Job, base: &Base, choice: ChoiceCandidate, on_axle: Option<&BarOnAxle>) -> ChoiceResult {
    let road = base.road_with(choice.road);
    let this = base.this.with_bar(choice.road);
    let [low, high] = [0, 1].map(|end| {
        let other = base.other.with_bar(base.weighed.other_bar_between[end]);
        roll_gradient(&this, &other, base.overturning_between[end]).map(Angle::to_degrees)
    });
    let with_other = |other: &AxleRoll| twisted(base, other, choice.share, on_axle);
    let (twist, ended_by) = with_other(&base.other)
        .map_or_else(|| (None, EndedBy::WouldNotStand), |(twist, what)| (Some(twist), what));
    let degrees = twist.map(Angle::to_degrees);
    let lift = twist.map(|twist| base.this.track * twist.sin());
    let by_bar = if choice.road > RollRate::ZERO { on_axle.map_or(0, |bar| bar.assumed) } else { 0 };
    let between = low.zip(high).map(|(low, high)| [low, high]);
    let says = SwayMessage::Choice {
        road,
        between,
        trail: degrees.zip(lift),
        trail_between: trail_between(base, twist, with_other),
        ended_by: ended_by.clone(),
        needs: choice.needs.clone(),
    }
    .into();
    ChoiceResult {
        choice: choice.choice,
        name: SwayMessage::ChoiceName(choice.choice).into(),
        here: match (choice.kind, job.sway.kind) {
            // A splined bar that is in is the bar as it is.
            (Some(SwayKind::OnePiece), Some(SwayKind::Splined)) => true,
            (Some(SwayKind::Splined), _) | (None, _) => false,
            (kind, there) => kind == there,
        },
        road_deg_per_g: road,
        road_between_deg_per_g: between,
        assumed: base.weighed.assumed.len() + by_bar,
        trail_deg: degrees,
        trail_lift_mm: lift,
        ended_by: SwayMessage::Ended(ended_by).into(),
        needs: choice.needs,
        says,
    }
}

fn suggests(job: &Job, vehicle: &VehicleResult) -> Message {
    let wanted = match job.rig.used_for {
        Some(Use::Crawling) => Choice::Pins,
        Some(Use::Trails | Use::Mixed) => Choice::TwoRate,
        Some(Use::FastDesert | Use::RoadAndTowing | Use::LoadedTravel) | None => Choice::AsItIs,
    };
    let there = vehicle.choices.iter().find(|result| result.choice == wanted);
    there
        .or_else(|| vehicle.choices.first())
        .map(|result| {
            SwayMessage::Suggests {
                choice: result.choice,
                used_for: job.rig.used_for,
                says: result.says.clone(),
            }
            .into()
        })
        .unwrap_or_default()
}
