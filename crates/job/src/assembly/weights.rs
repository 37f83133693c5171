//! What the vehicle weighs and stands on, with the usual figure wherever nobody measured, and the
//! mark of it.

use super::message::AssumedLength;
use crate::assembly::message::AssemblyMessage;
use crate::defaults;
use crate::defaults::Assumption;
use crate::document::vehicle::Vehicle;
use crate::document::{Job, heights, length_of};
use crate::message::Message;
use derecho_core::measure::squareness::AxleEnd;
use derecho_core::measure::{Force, Length, RollRate, SpringRate, SpringRateEntry, TapeEntry, WeightEntry};
use derecho_core::sway::BarRate;

/// Figures of the vehicle, measured or usual.
#[derive(Clone, Debug, PartialEq)]
pub struct Weighed {
    /// On this axle.
    pub axle: Force,
    /// On the other.
    pub other: Force,
    /// Of one axle itself.
    pub unsprung: Force,
    /// Left less right under this axle, where both corners were weighed.
    pub leans_left: Option<Force>,
    /// Between the axles, where it was measured.
    pub wheelbase: Option<Length>,
    /// Centre of gravity above the floor.
    pub gravity: Length,
    /// What that is good to.
    pub gravity_good_to: Length,
    /// Rate of a spring here.
    pub spring: SpringRate,
    /// Between the springs here.
    pub spacing: Length,
    /// Rate of a spring at the other axle.
    pub other_spring: SpringRate,
    /// Between the springs there.
    pub other_spacing: Length,
    /// The other axle's bar.
    pub other_bar: RollRate,
    /// The same as stiff and as soft as it may be: half and twice of it where nobody entered it.
    pub other_bar_between: [RollRate; 2],
    /// Roll centre of the other axle above the floor.
    pub other_roll_centre: Length,
    /// The other axle's track.
    pub other_track: Length,
    /// The other axle's travel from stop to stop, at its wheels.
    pub other_travel: Length,
    /// Rate of a tyre, where it is known.
    pub tyre: Option<SpringRate>,
    /// Load on the roof.
    pub roof: Force,
    /// Its height.
    pub roof_height: Length,
    /// What nobody measured.
    pub assumed: Vec<Assumption>,
}

pub(crate) fn weight_of(entry: &Option<WeightEntry>) -> Option<Force> {
    entry.as_ref().map(|entry| entry.mass().weight())
}

fn corners(left: &Option<WeightEntry>, right: &Option<WeightEntry>) -> Option<(Force, Force)> {
    Some((weight_of(left)?, weight_of(right)?))
}

/// Weight on this axle: its corners, or the axle as weighed, or the usual.
#[must_use]
pub fn axle_weight(job: &Job) -> Force {
    measured_weight(&job.vehicle).unwrap_or(defaults::AXLE_WEIGHT)
}

fn measured_weight(form: &Vehicle) -> Option<Force> {
    corners(&form.left_corner, &form.right_corner)
        .map(|(left, right)| left + right)
        .or_else(|| weight_of(&form.axle_weight))
}

/// Weight of the axle itself.
#[must_use]
pub fn unsprung_weight(job: &Job) -> Force {
    weight_of(&job.vehicle.unsprung_weight).unwrap_or(defaults::UNSPRUNG_WEIGHT)
}

/// Centre of gravity above the ground.
#[must_use]
pub fn centre_of_gravity(job: &Job, hub: Length) -> Length {
    let lift = length_of(&job.rig.lift).unwrap_or(Length::ZERO);
    length_of(&job.vehicle.centre_of_gravity).unwrap_or(hub + defaults::GRAVITY_ABOVE_HUB + lift)
}

/// What the height of the centre of gravity is good to.
#[must_use]
pub fn gravity_good_to(job: &Job) -> Length {
    let usual = match job.vehicle.centre_of_gravity {
        Some(_) => defaults::MEASURED_GRAVITY_GOOD_TO,
        None => defaults::GRAVITY_GOOD_TO,
    };
    length_of(&job.vehicle.centre_of_gravity_good_to).map_or(usual, Length::abs)
}

/// The usual figures that a plan's loads rest on.
#[must_use]
pub fn assumed_loads(job: &Job) -> Vec<Assumption> {
    let form = &job.vehicle;
    let mut assumed = Vec::new();
    if measured_weight(form).is_none() {
        assumed.push(assumption(
            "axle_weight",
            AssemblyMessage::AxleWeight { on_it: defaults::AXLE_WEIGHT }.into(),
        ));
    }
    if form.unsprung_weight.is_none() {
        assumed.push(assumption(
            "unsprung_weight",
            AssemblyMessage::UnsprungWeight { on_it: defaults::UNSPRUNG_WEIGHT }.into(),
        ));
    }
    if form.centre_of_gravity.is_none() {
        assumed.push(assumption(
            "centre_of_gravity",
            AssemblyMessage::Gravity {
                above_hub: defaults::GRAVITY_ABOVE_HUB,
                good_to: gravity_good_to(job),
            }
            .into(),
        ));
    }
    assumed
}

fn assumption(field: &str, says: Message) -> Assumption {
    Assumption { pointer: format!("/vehicle/{field}"), says, drawing_only: false }
}

/// Roll rate of the other axle's bar: as typed, else by its sizes. Nearly every vehicle has one: while nobody entered it a
/// usual one counts, which is told with every figure that rests on it, and the figures are told from half to twice of it.
/// And whether it was entered.
fn other_bar(job: &Job, assumed: &mut Vec<Assumption>) -> (RollRate, bool) {
    let form = &job.vehicle;
    if let Some(rate) = &form.other_bar {
        return (rate.rate(), true);
    }
    let bar = &form.other_sway_bar;
    if bar.there == Some(false) {
        return (RollRate::ZERO, true);
    }
    let usual =
        if job.rig.end == Some(AxleEnd::Rear) { defaults::FRONT_SWAY_BAR } else { defaults::REAR_SWAY_BAR };
    let (diameter, arm) = (length_of(&bar.diameter), length_of(&bar.arm));
    if diameter.is_none() && arm.is_none() {
        assumed.push(assumption(
            "other_sway_bar/diameter",
            AssemblyMessage::OtherBarNotEntered { usual }.into(),
        ));
        return (rate_by_sizes(usual, defaults::SWAY_ARM, defaults::SWAY_ACTIVE), false);
    }
    let mut size = |field: &str, what: AssumedLength, typed: Option<Length>, length: Length| {
        typed.unwrap_or_else(|| {
            let says = AssemblyMessage::Length { what, length }.into();
            assumed.push(assumption(&format!("other_sway_bar/{field}"), says));
            length
        })
    };
    let made = rate_by_sizes(
        size("diameter", AssumedLength::OtherSwayDiameter, diameter, usual),
        size("arm", AssumedLength::OtherSwayArm, arm, defaults::SWAY_ARM),
        size("length", AssumedLength::OtherSwayBar, length_of(&bar.length), defaults::SWAY_ACTIVE),
    );
    (made, diameter.is_some() && arm.is_some())
}

/// Roll rate of a bar of one piece by what a caliper and a tape find of it. Its links stand about as far apart as its arms:
/// each degree of roll twists it by length over arm.
fn rate_by_sizes(outside: Length, arm: Length, active: Length) -> RollRate {
    let made = BarRate {
        outside,
        bore: Length::ZERO,
        active,
        arm,
        bending_arm: None,
        link: None,
        bush: None,
        half_spacing: active / 2.0,
    };
    made.roll_rate(active / arm)
}

/// Every figure of the vehicle. `track` and `hub` are those of this axle and stand for the other
/// one too.
#[must_use]
pub fn weighed(job: &Job, track: Length, hub: Length) -> Weighed {
    let form = &job.vehicle;
    let mut assumed = assumed_loads(job);
    let mut spring = |field: &str, other: bool, entry: &Option<SpringRateEntry>| {
        entry.as_ref().map_or_else(
            || {
                assumed.push(assumption(
                    field,
                    AssemblyMessage::Springs { rate: defaults::SPRING, other }.into(),
                ));
                defaults::SPRING
            },
            SpringRateEntry::rate,
        )
    };
    let here = spring("spring_rate", false, &form.spring_rate);
    let there = spring("other_spring_rate", true, &form.other_spring_rate);
    let mut length = |field: &str, what: AssumedLength, entry: &Option<TapeEntry>, usual: Length| {
        length_of(entry).unwrap_or_else(|| {
            assumed.push(assumption(field, AssemblyMessage::Length { what, length: usual }.into()));
            usual
        })
    };
    let share = defaults::SPRING_SPACING_SHARE;
    let spacing = length("spring_spacing", AssumedLength::SpringSpacing, &form.spring_spacing, track * share);
    let other_track = length("other_track", AssumedLength::OtherTrack, &form.other_track, track);
    let other_spacing = length(
        "other_spring_spacing",
        AssumedLength::OtherSpringSpacing,
        &form.other_spring_spacing,
        other_track * share,
    );
    let (droop, bump) = heights::travel(&job.rig);
    let other_bump = length("other_bump", AssumedLength::OtherBump, &form.other_bump, bump);
    let other_droop = length("other_droop", AssumedLength::OtherDroop, &form.other_droop, droop);
    let other_roll_centre =
        length("other_roll_centre", AssumedLength::OtherRollCentre, &form.other_roll_centre, hub);
    let roof = weight_of(&form.roof_load).unwrap_or(Force::ZERO);
    // A build to come may bring the first load on the roof.
    let mut loads = job.sway.build_stages.iter().filter_map(|stage| weight_of(&stage.roof_load));
    let roof_height = if roof > Force::ZERO || loads.any(|load| load > Force::ZERO) {
        length("roof_height", AssumedLength::RoofHeight, &form.roof_height, defaults::ROOF)
    } else {
        defaults::ROOF
    };
    let other = corners(&form.other_left_corner, &form.other_right_corner)
        .map(|(left, right)| left + right)
        .or_else(|| weight_of(&form.other_weight));
    if other.is_none() {
        assumed.push(assumption(
            "other_weight",
            AssemblyMessage::OtherWeight { on_it: defaults::OTHER_AXLE_WEIGHT }.into(),
        ));
    }
    let (other_bar, entered) = other_bar(job, &mut assumed);
    Weighed {
        axle: axle_weight(job),
        other: other.unwrap_or(defaults::OTHER_AXLE_WEIGHT),
        unsprung: unsprung_weight(job),
        leans_left: corners(&form.left_corner, &form.right_corner).map(|(left, right)| left - right),
        wheelbase: length_of(&form.wheelbase),
        gravity: centre_of_gravity(job, hub),
        gravity_good_to: gravity_good_to(job),
        spring: here,
        spacing,
        other_spring: there,
        other_spacing,
        other_bar,
        other_bar_between: if entered { [other_bar; 2] } else { [other_bar * 2.0, other_bar / 2.0] },
        other_roll_centre,
        other_track,
        other_travel: other_bump + other_droop,
        tyre: form.tyre_rate.as_ref().map(SpringRateEntry::rate),
        roof,
        roof_height,
        assumed,
    }
}

impl Weighed {
    /// Weight of what the springs carry, without the roof load.
    #[must_use]
    pub fn sprung(&self) -> Force {
        (self.axle + self.other - self.unsprung * 2.0).max(Force::ZERO)
    }

    /// How far from this axle towards the other the centre of gravity stands, as a share of the
    /// wheelbase: what the other axle carries of the whole.
    #[must_use]
    pub fn station(&self) -> f64 {
        self.other / (self.axle + self.other)
    }

    /// m_s·g·H, H from the roll axis to the centre of gravity at its station, the roof load at its own
    /// height; `roll_centre` is this axle's, `higher` moves the centre of gravity up.
    #[must_use]
    pub fn overturning(&self, roll_centre: Length, higher: Length) -> RollRate {
        let axis = self.roll_axis(roll_centre);
        let moment = self.sprung() * (self.gravity + higher - axis).max(Length::ZERO)
            + self.roof * (self.roof_height - axis).max(Length::ZERO);
        RollRate::from_nmm_per_radian(moment.to_nmm())
    }

    /// The roll axis above the floor at the station of the centre of gravity.
    #[must_use]
    pub fn roll_axis(&self, roll_centre: Length) -> Length {
        roll_centre + (self.other_roll_centre - roll_centre) * self.station()
    }
}

/// Where the centre of gravity stands, in words: behind the front axle, where the wheelbase is known.
#[must_use]
pub fn station_says(job: &Job, weighed: &Weighed) -> Option<Message> {
    let wheelbase = weighed.wheelbase?;
    let this_is_front = job.rig.end != Some(AxleEnd::Rear);
    let behind_front = if this_is_front { weighed.station() } else { 1.0 - weighed.station() };
    Some(AssemblyMessage::Station { wheelbase, behind_front }.into())
}
