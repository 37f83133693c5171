//! The trial of the cause: vehicles with something wrong, or nothing, and whether it is found. `broken` is such a vehicle
//! and the job hands make of it; `seen` what its driver says and hands see. What Derecho says to look at next is looked at,
//! four times at the most.

mod broken;
mod fault;
mod seen;

use std::collections::BTreeMap;

use derecho_job::Job;
use derecho_job::diagnosis::{DiagnosisResult, RankedSuspect, diagnosis};
use derecho_job::document::diagnosis::{CheckRecord, QuickCheck, Suspect};
use derecho_job::document::work::Mark;
use derecho_job::setups::Resolved;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};

use self::broken::{Broken, drawn_feature, drawn_size};
use self::fault::Fault;
use crate::run::{Run, seed_of};
use crate::technician::Technician;
use crate::vehicle::PracticeVehicle;

/// What is tried.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct FaultSettings {
    /// How many vehicles.
    pub vehicles: usize,
    /// The seed of the first.
    pub seed: u64,
    /// Whose hands.
    pub technician: Technician,
    /// Threads; the counts do not depend on them.
    pub threads: usize,
}

/// What came of one suspect.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub struct OfSuspect {
    /// Vehicles that had it, alone or with another.
    pub had: usize,
    /// Of those, it was said that it can be told what is wrong.
    pub told: usize,
    /// Of those told, named first.
    pub first: usize,
    /// Of those told, the true cause or either of two among the first three.
    pub among_three: usize,
    /// Sizes of it that were told where it was named first.
    pub sizes: usize,
    /// Of those, 95 % intervals that hold the truth.
    pub sizes_hold: usize,
    /// What was named in its place, and how often.
    pub mistaken_for: BTreeMap<String, usize>,
}

/// What came of the trial of the cause: counts.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub struct FaultTrial {
    /// Vehicles.
    pub vehicles: usize,
    /// The seed.
    pub seed: u64,
    /// `careful` or `hurried`.
    pub hands: String,
    /// Vehicles with something wrong.
    pub faulty: usize,
    /// Of those, vehicles of which it was said that it can be told.
    pub told: usize,
    /// Of those, a true cause named first.
    pub first: usize,
    /// Of those, a true cause among the first three.
    pub among_three: usize,
    /// Of the faulty, told or not, a true cause named first.
    pub first_of_all: usize,
    /// Vehicles with nothing wrong.
    pub healthy: usize,
    /// Of those, vehicles of which a cause was told.
    pub accused: usize,
    /// Sizes that were told of a true cause.
    pub sizes: usize,
    /// Of those, 95 % intervals that hold the truth.
    pub sizes_hold: usize,
    /// Checks that were looked at.
    pub checks: usize,
    /// Of the faulty, a true cause named by a fixed list, the likeliest looked at first.
    pub list_first: usize,
    /// Of the healthy, vehicles that the list accused.
    pub list_accused: usize,
    /// By suspect.
    pub by_suspect: BTreeMap<Suspect, OfSuspect>,
}

/// How often each is met here, of a few hundred; what the advice takes is its own.
const MET: [(Suspect, f64); 29] = [
    (Suspect::FullDifference, 12.0),
    (Suspect::SignTurned, 7.0),
    (Suspect::MeasuredHanging, 5.0),
    (Suspect::NotBounced, 12.0),
    (Suspect::LeanedOn, 5.0),
    (Suspect::AnotherHeight, 7.0),
    (Suspect::TiresUnlike, 9.0),
    (Suspect::WheelsTurned, 4.0),
    (Suspect::SlopingFloor, 4.0),
    (Suspect::ReferenceCrooked, 9.0),
    (Suspect::AxleBracketSideways, 12.0),
    (Suspect::AxleBracketHeight, 9.0),
    (Suspect::OtherHole, 7.0),
    (Suspect::LengthOff, 12.0),
    (Suspect::BarBent, 5.0),
    (Suspect::BoltLoose, 21.0),
    (Suspect::BushingTorn, 17.0),
    (Suspect::BracketTearing, 6.0),
    (Suspect::ArmsUnlike, 9.0),
    (Suspect::HousingBent, 3.0),
    (Suspect::FrameOutOfSquare, 4.0),
    (Suspect::SwayLinksUnlike, 9.0),
    (Suspect::ArmOnOtherSpline, 4.0),
    (Suspect::ArmOverCenter, 7.0),
    (Suspect::DragLinkNotParallel, 12.0),
    (Suspect::TrackBarHits, 11.0),
    (Suspect::ShocksTired, 15.0),
    (Suspect::SpringsUnlike, 9.0),
    (Suspect::LoadToOneSide, 9.0),
];
/// Share of healthy vehicles, of the others with two faults, and of work in which the axle eye is moved.
const HEALTHY: f64 = 0.1;
const TWO: f64 = 0.2;
const RAISED: f64 = 0.4;
/// Checks somebody looks at before it is called.
const CHECKS: usize = 4;

/// Sends every vehicle through; `progress` is told how many are done, from any thread.
#[must_use]
pub fn fault_trial(settings: &FaultSettings, progress: &(dyn Fn(usize) + Sync)) -> FaultTrial {
    let run = Run { vehicles: settings.vehicles, threads: settings.threads };
    let mut sum =
        run.through(progress, &|index, sum: &mut FaultTrial| one(settings, index, sum), FaultTrial::add);
    sum.vehicles = settings.vehicles;
    sum.seed = settings.seed;
    let careful = settings.technician == Technician::Careful;
    sum.hands = if careful { "careful" } else { "hurried" }.to_owned();
    sum
}

impl FaultTrial {
    fn add(&mut self, other: &Self) {
        for (sum, one) in [
            (&mut self.faulty, other.faulty),
            (&mut self.told, other.told),
            (&mut self.first, other.first),
            (&mut self.among_three, other.among_three),
            (&mut self.first_of_all, other.first_of_all),
            (&mut self.healthy, other.healthy),
            (&mut self.accused, other.accused),
            (&mut self.sizes, other.sizes),
            (&mut self.sizes_hold, other.sizes_hold),
            (&mut self.checks, other.checks),
            (&mut self.list_first, other.list_first),
            (&mut self.list_accused, other.list_accused),
        ] {
            *sum += one;
        }
        for (suspect, one) in &other.by_suspect {
            let sum = self.by_suspect.entry(*suspect).or_default();
            sum.had += one.had;
            sum.told += one.told;
            sum.first += one.first;
            sum.among_three += one.among_three;
            sum.sizes += one.sizes;
            sum.sizes_hold += one.sizes_hold;
            for (name, count) in &one.mistaken_for {
                *sum.mistaken_for.entry(name.clone()).or_default() += count;
            }
        }
    }
}

fn faults_of(vehicle: &mut PracticeVehicle, raised: bool) -> Vec<Fault> {
    let count = match vehicle.chance() {
        chance if chance < HEALTHY => 0,
        chance if chance < HEALTHY + (1.0 - HEALTHY) * TWO => 2,
        _ => 1,
    };
    let mut faults: Vec<Fault> = Vec::new();
    while faults.len() < count {
        let open: Vec<(Suspect, f64)> = MET
            .into_iter()
            .filter(|(suspect, _)| {
                Broken::can_have(*suspect, raised, vehicle.rear)
                    && faults.iter().all(|fault| fault.suspect != *suspect)
            })
            .collect();
        let all: f64 = open.iter().map(|(_, often)| often).sum();
        let mut at = vehicle.chance() * all;
        let drawn = open.iter().find(|(_, often)| {
            at -= often;
            at <= 0.0
        });
        let Some((suspect, _)) = drawn.or(open.last()) else { break };
        let size = drawn_size(vehicle, *suspect);
        let at = (*suspect == Suspect::ReferenceCrooked).then(|| drawn_feature(vehicle));
        faults.push(Fault { suspect: *suspect, size, at });
    }
    faults
}

fn one(settings: &FaultSettings, index: u64, sum: &mut FaultTrial) {
    let hands = settings.technician;
    let mut vehicle = PracticeVehicle::drawn(seed_of(settings.seed, index));
    let raised = vehicle.chance() < RAISED;
    let faults = faults_of(&mut vehicle, raised);
    let mut broken = Broken::new(vehicle, faults, raised, hands);
    let Some(mut job) = broken.job() else { return };
    let answers: BTreeMap<QuickCheck, bool> = QuickCheck::ALL
        .into_iter()
        .map(|check| {
            let shows = seen::shows(&broken.faults, check, hands);
            (check, broken.vehicle.chance() < shows)
        })
        .collect();
    let (result, checks) = searched(&mut job, &answers);
    sum.checks += checks;
    count(sum, &broken, result.as_ref());
    by_the_list(sum, &broken, &answers);
}

/// Looks where it is said to look next, until it can be told or nobody looks any more.
fn searched(job: &mut Job, answers: &BTreeMap<QuickCheck, bool>) -> (Option<DiagnosisResult>, usize) {
    for made in 0..CHECKS {
        let result = diagnosis(job, &Resolved::of(job), false);
        let next = result.as_ref().filter(|result| !result.told).and_then(|result| result.next.first());
        let Some(what) = next.map(|next| next.check) else { return (result, made) };
        let seen = answers.get(&what).copied().unwrap_or(false);
        let done = Mark { at: Timestamp::UNIX_EPOCH, by: String::new() };
        job.diagnosis.checks.push(CheckRecord { what, seen, done });
    }
    (diagnosis(job, &Resolved::of(job), false), CHECKS)
}

fn count(sum: &mut FaultTrial, broken: &Broken, result: Option<&DiagnosisResult>) {
    let told = result.is_some_and(|result| result.told);
    let named = result.map_or(&[][..], |result| &result.suspects);
    let is_true = |suspect: Suspect| broken.faults.iter().any(|fault| fault.suspect == suspect);
    if broken.faults.is_empty() {
        sum.healthy += 1;
        sum.accused += usize::from(told);
        return;
    }
    let first = named.first().is_some_and(|first| is_true(first.suspect));
    let three = named.iter().take(3).any(|one| is_true(one.suspect));
    sum.faulty += 1;
    sum.told += usize::from(told);
    sum.first += usize::from(told && first);
    sum.among_three += usize::from(told && three);
    sum.first_of_all += usize::from(first);
    for fault in &broken.faults {
        let of = sum.by_suspect.entry(fault.suspect).or_default();
        of.had += 1;
        of.told += usize::from(told);
        of.first += usize::from(told && first);
        of.among_three += usize::from(told && three);
        if let Some(other) = named.first().filter(|_| told && !first) {
            *of.mistaken_for.entry(format!("{:?}", other.suspect)).or_default() += 1;
        }
    }
    let sized = named.first().filter(|_| told && first);
    let size =
        |one: &RankedSuspect| Some((one.size_mm.or(one.sideways_mm)?.to_mm(), one.uncertainty_mm?.to_mm()));
    if let Some((one, truly)) =
        sized.and_then(|one| Some(((one.suspect, size(one)?), broken.true_size(one.suspect)?)))
    {
        let (suspect, (size, good_to)) = one;
        let holds = usize::from((size - truly).abs() <= good_to);
        let of = sum.by_suspect.entry(suspect).or_default();
        (of.sizes, of.sizes_hold) = (of.sizes + 1, of.sizes_hold + holds);
        (sum.sizes, sum.sizes_hold) = (sum.sizes + 1, sum.sizes_hold + holds);
    }
}

/// The same vehicle by a list: what is met oftenest is looked at first, and the first that shows is named; the oftenest
/// where none does.
fn by_the_list(sum: &mut FaultTrial, broken: &Broken, answers: &BTreeMap<QuickCheck, bool>) {
    const LIST: [(QuickCheck, Suspect); CHECKS] = [
        (QuickCheck::BoltMoves, Suspect::BoltLoose),
        (QuickCheck::BushingMoves, Suspect::BushingTorn),
        (QuickCheck::KeepsSwinging, Suspect::ShocksTired),
        (QuickCheck::BarLengthDiffers, Suspect::LengthOff),
    ];
    let seen = LIST.iter().find(|(check, _)| answers.get(check) == Some(&true));
    let named = seen.map_or(Suspect::BoltLoose, |(_, suspect)| *suspect);
    let right = broken.faults.iter().any(|fault| fault.suspect == named);
    sum.list_first += usize::from(right);
    sum.list_accused += usize::from(broken.faults.is_empty() && seen.is_some());
}
