//! The closed loop: many vehicles sent through the whole job without a screen, the answer followed to the letter.

use derecho_core::measure::centring::{Answer, Centring};
use derecho_core::measure::{Length, TapeEntry};
use derecho_job::Job;
use derecho_job::bar::can_be_followed;
use derecho_job::bar::further::Further;
use derecho_job::bar::next::next_reading;
use derecho_job::cautions::Stage;
use derecho_job::document::{RoundId, SheetKind};
use derecho_job::findings::FindingKind;
use derecho_job::prove::ProveVerdict;
use derecho_job::results::{never_settled, solve};
use derecho_job::setups::Resolved;
use derecho_job::strip::Progress;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::ground_truth::Feature;
use crate::run::{Run, seed_of};
use crate::technician::{Technician, can_be_reported, feature};
use crate::vehicle::PracticeVehicle;

/// What careful hands read further, where an answer cannot be told or is worse than the tolerance.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum FurtherReadings {
    /// What Derecho says to read next.
    #[default]
    Advised,
    /// One more repeat on one side and then the other.
    Blindly,
    /// Nothing.
    Never,
}

/// What is tried.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct TrialSettings {
    /// How many vehicles.
    pub vehicles: usize,
    /// The seed of the first; each vehicle has its own, so that the result does not depend on threads.
    pub seed: u64,
    /// Whose hands.
    pub technician: Technician,
    /// Whether the rule of thumb is followed instead of Derecho.
    pub rule_of_thumb: bool,
    /// What careful hands read further.
    pub further: FurtherReadings,
    /// Threads.
    pub threads: usize,
}

/// Truly centred is within so much of the middle.
pub const CENTRED: Length = Length::from_mm(3.0);
/// Worse is further out by more than a tape shows.
const GRADUATION: Length = Length::from_mm(1.0);
/// Settled on a vehicle further out than this is settled wrongly.
pub const FAR_OUT: Length = Length::from_mm(6.0);
/// Rounds of setting before somebody gives up.
const ROUNDS: usize = 4;
/// Further readings somebody takes for one answer.
const FURTHER: usize = 8;
/// Draws behind what to read next.
const DRAWS: usize = 200;
/// What an eye along a straightedge is off by.
const BY_EYE: Length = Length::from_mm(5.0);

/// What came of a trial: counts, and shares of counts.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Trial {
    /// Vehicles.
    pub vehicles: usize,
    /// The seed.
    pub seed: u64,
    /// `careful` or `hurried`.
    #[serde(rename = "hands")]
    pub technician: String,
    /// Whether the rule of thumb was followed instead.
    pub rule_of_thumb: bool,
    /// Vehicles whose first answer could be told.
    #[serde(rename = "told")]
    pub reported: usize,
    /// Of those, truly within 3 mm of the middle after the first setting, or where none was called for.
    pub within_after_first: usize,
    /// Of all vehicles, truly within 3 mm of the middle at the end.
    pub within_at_end: usize,
    /// Truly further out after the first setting than before it by more than a millimetre, and not within 3 mm.
    pub made_worse: usize,
    /// Truly further out after the first setting than before it, and still within 3 mm.
    pub further_within: usize,
    /// Called settled.
    pub settled: usize,
    /// Called settled and truly more than 6 mm out.
    pub settled_wrong: usize,
    /// Given up: still to be read or set after four rounds.
    pub given_up: usize,
    /// Sheets of which it was said that they cannot tell.
    pub cannot_tell: usize,
    /// Of those, sheets whose axle truly stood no further out than the readings were unsure, by their U and not twice it.
    pub cannot_tell_right: usize,
    /// Sheets that were worked out.
    pub intervals: usize,
    /// Of those, sheets whose interval held the truth.
    pub intervals_hold: usize,
    /// Share of the 95 % intervals that hold the truth.
    pub coverage: f64,
    /// Vehicles whose bar truly touches something between droop and bump.
    pub contacts: usize,
    /// Of those, vehicles for which stage Cycle said so.
    pub contacts_foretold: usize,
    /// Vehicles for which stage Cycle said so and nothing touches.
    pub contacts_cried: usize,
    /// Readings of the tape on either side, over all vehicles.
    pub readings: usize,
    /// Of the vehicles told, truly within 3 mm after half the difference of the same readings was turned.
    pub thumb_within_after_first: usize,
    /// Of all vehicles, told or not, truly within 3 mm after half the difference of the same readings was turned.
    pub thumb_within_of_all: usize,
    /// Of the vehicles told, truly within 3 mm after what an eye along a straightedge saw was turned.
    pub eye_within_after_first: usize,
}

impl Trial {
    /// Where the axle truly is after the first setting, against before.
    fn compare(&mut self, before: Length, now: Length) {
        self.made_worse = count(now.abs() > before.abs() + GRADUATION && now.abs() > CENTRED);
        self.further_within = count(now.abs() > before.abs() && now.abs() <= CENTRED);
    }

    fn add(&mut self, other: &Self) {
        for (sum, one) in [
            (&mut self.reported, other.reported),
            (&mut self.within_after_first, other.within_after_first),
            (&mut self.within_at_end, other.within_at_end),
            (&mut self.made_worse, other.made_worse),
            (&mut self.further_within, other.further_within),
            (&mut self.settled, other.settled),
            (&mut self.settled_wrong, other.settled_wrong),
            (&mut self.given_up, other.given_up),
            (&mut self.cannot_tell, other.cannot_tell),
            (&mut self.cannot_tell_right, other.cannot_tell_right),
            (&mut self.intervals, other.intervals),
            (&mut self.intervals_hold, other.intervals_hold),
            (&mut self.contacts, other.contacts),
            (&mut self.contacts_foretold, other.contacts_foretold),
            (&mut self.contacts_cried, other.contacts_cried),
            (&mut self.readings, other.readings),
            (&mut self.thumb_within_after_first, other.thumb_within_after_first),
            (&mut self.thumb_within_of_all, other.thumb_within_of_all),
            (&mut self.eye_within_after_first, other.eye_within_after_first),
        ] {
            *sum += one;
        }
    }
}

/// Sends every vehicle through; `progress` is told how many are done, from any thread.
#[must_use]
pub fn trial(settings: &TrialSettings, progress: &(dyn Fn(usize) + Sync)) -> Trial {
    let run = Run { vehicles: settings.vehicles, threads: settings.threads };
    let mut sum = run.through(progress, &|index, sum: &mut Trial| sum.add(&one(settings, index)), Trial::add);
    sum.vehicles = settings.vehicles;
    sum.seed = settings.seed;
    sum.technician =
        if settings.technician == Technician::Careful { "careful" } else { "hurried" }.to_owned();
    sum.rule_of_thumb = settings.rule_of_thumb;
    sum.coverage = sum.intervals_hold as f64 / sum.intervals.max(1) as f64;
    sum
}

/// Where the axle is after the bar is set so much longer.
fn after(vehicle: &PracticeVehicle, longer: Length) -> Length {
    let mut set = vehicle.clone();
    set.turn(longer);
    set.true_offset()
}

fn count(happened: bool) -> usize {
    usize::from(happened)
}

fn one(settings: &TrialSettings, index: u64) -> Trial {
    let mut vehicle = PracticeVehicle::drawn(seed_of(settings.seed, index));
    let (before, found) = (vehicle.true_offset(), vehicle.clone());
    let mut job = settings.technician.job(&mut vehicle);
    let mut sum = Trial::default();
    if settings.rule_of_thumb {
        thumb(&mut vehicle, &mut job, settings.technician, &mut sum);
        return sum;
    }
    for round in 0..=ROUNDS {
        let Some(centring) = read(&mut vehicle, &mut job, settings, &mut sum) else { break };
        let reported = can_be_reported(&centring);
        let results = solve(&job, never_settled);
        if round == 0 {
            sum.reported = count(reported);
            foretold(&vehicle, &results.stages, &mut sum);
            others(&found, reported, &job, &mut sum);
        }
        let proved = results.prove.as_ref().is_some_and(|prove| prove.verdict == ProveVerdict::CanSettle);
        let doubted = results.findings.iter().any(|found| found.kind == FindingKind::MovedOtherwise);
        if proved && doubted && round < ROUNDS {
            // Told to read once more before it is settled.
            read_again(&mut vehicle, &mut job, settings.technician);
            continue;
        }
        if proved && !doubted {
            sum.settled = 1;
            sum.within_after_first += count(round == 0 && reported && before.abs() <= CENTRED);
            break;
        }
        if round == ROUNDS || !reported {
            break;
        }
        let correction = results.bar.as_ref().and_then(|bar| bar.correction.as_ref());
        let Some((correction, setting)) = correction.and_then(|c| Some((c, c.setting.as_ref()?))) else {
            break;
        };
        let Some(change) =
            setting.facts.achieved_change_mm.filter(|_| can_be_followed(setting.facts.verdict))
        else {
            break;
        };
        vehicle.turn(change);
        if round == 0 {
            let now = vehicle.true_offset();
            sum.within_after_first += count(now.abs() <= CENTRED);
            sum.compare(before, now);
        }
        job.setups.record(correction.fitting.clone());
        read_again(&mut vehicle, &mut job, settings.technician);
    }
    let end = vehicle.true_offset();
    sum.within_at_end = count(end.abs() <= CENTRED);
    sum.settled_wrong = count(sum.settled == 1 && end.abs() > FAR_OUT);
    sum.given_up = 1 - sum.settled;
    sum
}

/// A new sheet of the round, from the feature of the last one.
fn read_again(vehicle: &mut PracticeVehicle, job: &mut Job, technician: Technician) {
    let kept = job.sheets.last().and_then(|sheet| feature(sheet.method));
    let rounds = job.setups.rounds.len();
    let id = format!("after-{rounds}-{}", job.sheets.len());
    job.sheets.push(technician.sheet(vehicle, kept.unwrap_or(Feature::Hub), id, job.setups.last_round()));
}

/// Works the newest sheet out, with the further readings careful hands take where they are told to.
fn read(
    vehicle: &mut PracticeVehicle,
    job: &mut Job,
    settings: &TrialSettings,
    sum: &mut Trial,
) -> Option<Centring> {
    let technician = settings.technician;
    let mut further = 0;
    let centring = loop {
        let resolved = Resolved::of(job);
        let newest = resolved.sheets.iter().rfind(|sheet| sheet.kind == SheetKind::Centring)?;
        let centring = newest.centring.clone()?;
        if can_be_reported(&centring) || technician == Technician::Hurried || further == FURTHER {
            break centring;
        }
        let next = match settings.further {
            FurtherReadings::Advised => next_reading(job, &resolved, DRAWS)
                .and_then(|next| next.options.first().map(|option| option.reading)),
            FurtherReadings::Blindly if further % 2 == 0 => Some(Further::RepeatLeft),
            FurtherReadings::Blindly => Some(Further::RepeatRight),
            FurtherReadings::Never => None,
        };
        let Some(next) = next else { break centring };
        further += 1;
        technician.read_further(vehicle, job, next);
    };
    let ground_truth = vehicle.true_offset();
    let sheet = job.sheets.last()?;
    sum.readings += sheet.left.len() + sheet.right.len();
    sum.intervals += 1;
    sum.intervals_hold += count((centring.offset_mm - ground_truth).abs() <= centring.uncertainty_mm);
    if centring.answer == Answer::CannotTell {
        sum.cannot_tell += 1;
        sum.cannot_tell_right += count(ground_truth.abs() <= centring.uncertainty_mm);
    }
    Some(centring)
}

fn foretold(vehicle: &PracticeVehicle, stages: &[derecho_job::strip::StageResult], sum: &mut Trial) {
    // Cycle is settled where nothing ends the travel before its stops.
    let reported =
        stages.iter().any(|stage| stage.stage == Stage::Cycle && stage.progress == Progress::Begun);
    let truly = vehicle.truly_touches() == Some(true);
    sum.contacts = count(truly);
    sum.contacts_foretold = count(truly && reported);
    sum.contacts_cried = count(reported && !truly);
}

/// The nearest whole flats of the sleeve.
fn to_flats(vehicle: &PracticeVehicle, longer: Length) -> Length {
    let flat = vehicle.thread.lead() / 3.0;
    flat * (longer / flat).round()
}

/// Half the difference of the means of the newest sheet: positive where the axle sits to the left.
fn half_difference(job: &Job) -> Option<Length> {
    let sheet = job.sheets.last()?;
    let mean = |side: &[Option<TapeEntry>]| {
        let read: Vec<Length> = side.iter().flatten().map(TapeEntry::length).collect();
        read.iter().copied().sum::<Length>() / read.len().max(1) as f64
    };
    Some((mean(&sheet.left) - mean(&sheet.right)) / 2.0)
}

/// What becomes of the same vehicle by the rule of thumb, on the same readings, and by eye.
fn others(found: &PracticeVehicle, reported: bool, job: &Job, sum: &mut Trial) {
    let side = found.ground_truth_side();
    let mut vehicle = found.clone();
    let seen = vehicle.error(BY_EYE) + found.true_offset();
    let within = |longer: Length| after(found, to_flats(found, longer * side)).abs() <= CENTRED;
    let thumb = within(half_difference(job).unwrap_or(Length::ZERO));
    sum.thumb_within_of_all = count(thumb);
    sum.thumb_within_after_first = count(reported && thumb);
    sum.eye_within_after_first = count(reported && within(seen));
}

/// The whole job by the rule of thumb: half the difference of the means is turned until both sides read alike.
fn thumb(vehicle: &mut PracticeVehicle, job: &mut Job, technician: Technician, sum: &mut Trial) {
    let before = vehicle.true_offset();
    sum.reported = 1;
    for round in 0..=ROUNDS {
        let Some((sheet, off)) = job.sheets.last().zip(half_difference(job)) else { break };
        sum.readings += sheet.left.len() + sheet.right.len();
        let method = sheet.method;
        let turn = to_flats(vehicle, off * vehicle.ground_truth_side());
        if turn == Length::ZERO || off.abs() <= CENTRED {
            sum.settled = 1;
            sum.within_after_first += count(round == 0 && before.abs() <= CENTRED);
            break;
        }
        if round == ROUNDS {
            break;
        }
        vehicle.turn(turn);
        if round == 0 {
            let now = vehicle.true_offset();
            sum.within_after_first = count(now.abs() <= CENTRED);
            sum.compare(before, now);
        }
        let went_to = feature(method).unwrap_or(Feature::Hub);
        let rounds = round as u32 + 1;
        job.sheets.push(technician.sheet(vehicle, went_to, format!("after-{rounds}"), RoundId::default()));
    }
    let end = vehicle.true_offset();
    sum.thumb_within_after_first = sum.within_after_first;
    sum.within_at_end = count(end.abs() <= CENTRED);
    sum.settled_wrong = count(sum.settled == 1 && end.abs() > FAR_OUT);
    sum.given_up = 1 - sum.settled;
}
