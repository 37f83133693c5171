//! The vehicle as a whole: how it rolls on the road, how far it twists on the trail, and every
//! choice of bar and disconnect on both.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::form::SwayKind;
use crate::job::bracket::load::{axle_weight, centre_of_gravity};
use crate::job::document::{Job, Use, length_of};
use crate::job::elevation::Assumption;
use crate::measure::load::GRAVITY;
use crate::measure::squareness::AxleEnd;
use crate::measure::{Length, Phrase, WeightEntry};
use crate::pose::mechanism::Mechanism;
use crate::sway::BarRate;
use crate::sway::vehicle::{AxleRoll, TwistEnd, preload, roll_gradient, spring_roll_rate, trail_twist};

const USUAL_SPRING: f64 = 35.0;
const USUAL_OTHER_KG: f64 = 1000.0;
const UNSPRUNG_KG: f64 = 180.0;
/// A soft torsion bar's share of the bar there is, and a two-rate bar's soft setting.
const SOFT_SHARE: f64 = 0.5;
const TWO_RATE_SHARE: f64 = 0.3;
/// Roof rack above the floor.
const ROOF_HEIGHT: f64 = 1900.0;

/// One choice of bar and disconnect.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ChoiceResult {
    /// What it is.
    pub name: String,
    /// Whether it is what is there now.
    pub here: bool,
    /// Roll on the road, degrees per g; absent where it would not stand.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub road_deg_per_g: Option<f64>,
    /// Twist of the ground between the axles, degrees; absent where it would not stand.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub trail_deg: Option<f64>,
    /// The same as a wheel's lift at this axle, track · sin.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub trail_lift_mm: Option<Length>,
    /// What ends it on the trail.
    pub ended_by: String,
    /// What it needs.
    pub needs: String,
    /// In one sentence.
    pub says: Phrase,
}

/// The vehicle as a whole.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct VehicleResult {
    /// m_s·g·H, N·m per radian of roll.
    pub overturning_nm: f64,
    /// Roll rate of this axle's springs, N·m/rad.
    pub springs_nm_per_rad: f64,
    /// Of its bar at ride height.
    pub bar_nm_per_rad: f64,
    /// Of the other axle, bar and all.
    pub other_nm_per_rad: f64,
    /// Every choice.
    pub choices: Vec<ChoiceResult>,
    /// Which is suggested, and why.
    pub suggests: Phrase,
    #[serde(skip)]
    this: Option<AxleRoll>,
    #[serde(skip)]
    other: Option<AxleRoll>,
    #[serde(skip)]
    front: bool,
}

impl VehicleResult {
    /// Degrees per g with another bar at this axle, K in N·mm/rad.
    pub(super) fn road_with(&self, bar: f64) -> Option<f64> {
        let (this, other) = (self.this?, self.other?);
        roll_gradient(&this.with_bar(bar), &other, self.overturning_nm * 1000.0)
    }

    /// Change of weight at each wheel by a link that is longer.
    pub(super) fn preload(&self, rate: &BarRate, longer: Length, bar: f64) -> f64 {
        let (Some(this), Some(other)) = (self.this, self.other) else { return 0.0 };
        let lever = (longer.to_mm(), rate.arm.to_mm());
        preload(rate.effective(), lever, rate.half_spacing.to_mm(), &this.with_bar(bar), &other)
    }
}

/// The vehicle with this axle's bar, K in N·mm/rad; `legal_roll` is how far its links allow.
pub(super) fn vehicle(
    job: &Job,
    mechanism: &Mechanism,
    bar: f64,
    legal_roll: Option<f64>,
) -> (VehicleResult, Vec<Assumption>) {
    let form = &job.sway.vehicle;
    let mut assumed = Vec::new();
    let mut say = |pointer: &str, inches: String, millimetres: String| {
        assumed.push(Assumption {
            pointer: pointer.to_owned(),
            says: Phrase { inches, millimetres },
            drawing_only: false,
        });
    };
    let stops = mechanism.stops();
    let track = 2.0 * stops.half_track.to_mm();
    let hub = mechanism.suspension().axle_height();
    let spring = job.bracket.spring_rate_n_per_mm.unwrap_or(USUAL_SPRING);
    if job.bracket.spring_rate_n_per_mm.is_none() {
        say(
            "/bracket/spring_rate_n_per_mm",
            "springs of 200 lb/in here".to_owned(),
            "springs of 35 N/mm here".to_owned(),
        );
    }
    let other_spring = form.other_spring_n_per_mm.unwrap_or(USUAL_SPRING);
    if form.other_spring_n_per_mm.is_none() {
        say(
            "/sway/vehicle/other_spring_n_per_mm",
            "springs of 200 lb/in at the other axle".to_owned(),
            "springs of 35 N/mm at the other axle".to_owned(),
        );
    }
    if job.bracket.axle_weight.is_none() {
        say("/bracket/axle_weight", "2,425 lb on this axle".to_owned(), "1,100 kg on this axle".to_owned());
    }
    if form.other_weight.is_none() {
        say(
            "/sway/vehicle/other_weight",
            "2,205 lb on the other axle".to_owned(),
            "1,000 kg on the other axle".to_owned(),
        );
    }
    if job.bracket.centre_of_gravity.is_none() {
        say(
            "/bracket/centre_of_gravity",
            "centre of gravity 13 3/4\" above the hubs and the lift on top, good to 3 1/8\"".to_owned(),
            "centre of gravity 350 mm above the hubs and the lift on top, good to 80 mm".to_owned(),
        );
    }
    let spacing =
        |entry: &Option<crate::measure::TapeEntry>| length_of(entry).map_or(0.62 * track, Length::to_mm);
    let weight = axle_weight(job);
    let other_weight = form.other_weight.as_ref().map_or(USUAL_OTHER_KG * GRAVITY, WeightEntry::newtons);
    let roof = form.roof_load.as_ref().map_or(0.0, WeightEntry::newtons);
    let sin_most = ((stops.bump + stops.droop).to_mm()
        / (stops.bump_half_spacing + stops.droop_half_spacing).to_mm())
    .min(0.5);
    let by_stops = sin_most.asin();
    let tyres = form.tyre_n_per_mm.map(|rate| spring_roll_rate(rate, track));
    let this = AxleRoll {
        springs: spring_roll_rate(spring, spacing(&form.spring_spacing)),
        bar,
        weight,
        track,
        most_roll: by_stops,
        tyres,
    };
    let other = AxleRoll {
        springs: spring_roll_rate(other_spring, spacing(&form.other_spring_spacing)),
        bar: form.other_bar_nm_per_rad.unwrap_or(0.0) * 1000.0,
        weight: other_weight,
        track,
        most_roll: by_stops,
        tyres,
    };
    let ride = mechanism.at_ride_height().map_or(hub.to_mm() + 100.0, |posed| posed.roll_centre);
    let sprung = (weight + other_weight - 2.0 * UNSPRUNG_KG * GRAVITY).max(0.0);
    let height = centre_of_gravity(job, hub).to_mm();
    let roof_height = length_of(&form.roof_height).map_or(ROOF_HEIGHT, Length::to_mm);
    // The roof load adds its own weight at its own height.
    let overturning = sprung * (height - ride).max(0.0) + roof * (roof_height - ride).max(0.0);
    let front = job.rig.end != Some(AxleEnd::Rear);
    let mut result = VehicleResult {
        overturning_nm: overturning / 1000.0,
        springs_nm_per_rad: this.springs / 1000.0,
        bar_nm_per_rad: bar / 1000.0,
        other_nm_per_rad: other.rate() / 1000.0,
        choices: Vec::new(),
        suggests: Phrase::default(),
        this: Some(this),
        other: Some(other),
        front,
    };
    result.choices = choices(job, &result, bar, legal_roll);
    result.suggests = suggests(job, &result);
    (result, assumed)
}

struct Choice {
    name: &'static str,
    road: f64,
    trail: f64,
    connected: bool,
    needs: &'static str,
    kind: Option<SwayKind>,
}

fn choices(job: &Job, vehicle: &VehicleResult, bar: f64, legal_roll: Option<f64>) -> Vec<ChoiceResult> {
    let (Some(this), Some(other)) = (vehicle.this, vehicle.other) else { return Vec::new() };
    let overturning = vehicle.overturning_nm * 1000.0;
    let choice =
        |name, road, trail, connected, needs, kind| Choice { name, road, trail, connected, needs, kind };
    let all = [
        choice(
            "as it is, always connected",
            bar,
            bar,
            true,
            "nothing to do on the trail",
            Some(SwayKind::OnePiece),
        ),
        choice(
            "unbolted and tied up",
            bar,
            0.0,
            false,
            "a wrench, free and slow; bolts get lost; level ground to reconnect",
            None,
        ),
        choice(
            "pins",
            bar,
            0.0,
            false,
            "no wrench; level ground or a helper on the bumper to reconnect; a place to stow the links",
            None,
        ),
        choice(
            "powered disconnect",
            bar,
            0.0,
            false,
            "wiring, and a hand knob for the day the motor fails",
            Some(SwayKind::Powered),
        ),
        choice(
            "soft torsion bar, always connected",
            bar * SOFT_SHARE,
            bar * SOFT_SHARE,
            true,
            "a splined bar of half the rate and its arms",
            Some(SwayKind::Splined),
        ),
        choice(
            "two-rate bar",
            bar,
            bar * TWO_RATE_SHARE,
            true,
            "a lever or air cylinder; finds its place again by itself",
            Some(SwayKind::TwoRate),
        ),
        choice(
            "none",
            0.0,
            0.0,
            false,
            "stiffer springs, or a driver who takes it slowly",
            Some(SwayKind::None),
        ),
    ];
    let (Some(legal), true) = (legal_roll, bar > 0.0) else {
        return all
            .into_iter()
            .filter(|c| c.name == "none")
            .map(|c| evaluate(job, vehicle, (this, other), overturning, &c, None))
            .collect();
    };
    all.into_iter().map(|c| evaluate(job, vehicle, (this, other), overturning, &c, Some(legal))).collect()
}

fn evaluate(
    job: &Job,
    vehicle: &VehicleResult,
    (this, other): (AxleRoll, AxleRoll),
    overturning: f64,
    choice: &Choice,
    legal_roll: Option<f64>,
) -> ChoiceResult {
    let road = roll_gradient(&this.with_bar(choice.road), &other, overturning);
    // A connected bar stops where its links would go over centre.
    let most_roll =
        legal_roll.filter(|_| choice.connected).map_or(this.most_roll, |legal| legal.min(this.most_roll));
    let by_links = most_roll < this.most_roll;
    let trail_axle = AxleRoll { bar: choice.trail, most_roll, ..this };
    let (front, rear) = if vehicle.front { (trail_axle, other) } else { (other, trail_axle) };
    let twist = trail_twist(&front, &rear, overturning);
    let ended_by = twist.map_or("it would not stand", |(_, end)| match (end, vehicle.front) {
        (TwistEnd::FrontLifts, _) => "a front wheel lifts",
        (TwistEnd::RearLifts, _) => "a rear wheel lifts",
        (TwistEnd::FrontLimit, true) | (TwistEnd::RearLimit, false) if by_links => {
            "the sway bar's links go over centre"
        }
        (TwistEnd::FrontLimit, _) => "the front axle meets its stops",
        (TwistEnd::RearLimit, _) => "the rear axle meets its stops",
    });
    let degrees = twist.map(|(twist, _)| twist.to_degrees());
    let lift = twist.map(|(twist, _)| Length::from_mm(this.track * twist.sin()));
    ChoiceResult {
        name: choice.name.to_owned(),
        here: choice.kind.is_some() && choice.kind == job.sway.kind,
        road_deg_per_g: road,
        trail_deg: degrees,
        trail_lift_mm: lift,
        ended_by: ended_by.to_owned(),
        needs: choice.needs.to_owned(),
        says: Phrase::of(|w| {
            let road = road.map_or_else(
                || "would not stand on the road".to_owned(),
                |road| format!("{road:.1}° per g on the road"),
            );
            let trail = match (degrees, lift) {
                (Some(degrees), Some(lift)) => format!(
                    "{degrees:.0}° of twist on the trail, a wheel {} up, until {ended_by}",
                    w.distance(lift)
                ),
                _ => ended_by.to_owned(),
            };
            format!("{road}; {trail}. Needs: {}.", choice.needs)
        }),
    }
}

fn suggests(job: &Job, vehicle: &VehicleResult) -> Phrase {
    let find = |name: &str| vehicle.choices.iter().find(|choice| choice.name == name);
    let wanted = match job.rig.used_for {
        Some(Use::Crawling) => "pins",
        Some(Use::Trails) => "two-rate bar",
        Some(Use::FastDesert | Use::RoadAndTowing | Use::LoadedTravel) | None => "as it is, always connected",
    };
    let why = match job.rig.used_for {
        Some(Use::Crawling) => "crawling wants the most twist and can stop to reconnect",
        Some(Use::Trails) => "trails want twist without getting out",
        Some(Use::FastDesert) => "fast open ground wants the bar at work all the time",
        Some(Use::RoadAndTowing) => "the road and towing want the least roll",
        Some(Use::LoadedTravel) => "a load up high wants the least roll",
        None => "nobody said what it is used for",
    };
    match find(wanted).or_else(|| vehicle.choices.first()) {
        Some(choice) => {
            let says = choice.says.clone();
            Phrase {
                inches: format!("For this use: {}, because {why}. {}", choice.name, says.inches),
                millimetres: format!("For this use: {}, because {why}. {}", choice.name, says.millimetres),
            }
        }
        None => Phrase::default(),
    }
}
