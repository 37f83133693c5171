//! What stands in the way of settling a job, and what is due afterwards.
//!
//! Not here: whether the axle came out as predicted (`prove`), and what the day is: due dates are compared by whoever
//! has a calendar.

use derecho_core::bar::adjuster::{AdjusterKind, facts_within};
use derecho_core::measure::length::in_quadrature;
use derecho_core::measure::{Length, Phrase, Unit};
use derecho_core::parts::BracketEnd;
use jiff::civil::Date;
use jiff::tz::TimeZone;
use jiff::{Span, ToSpan as _};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::verdict::ProveVerdict;
use super::{ProveResult, words};
use crate::bolt_up::{Progressed, temporary};
use crate::document::proof::{ReminderKind, ReminderRecord};
use crate::document::{Job, SheetKind, Use, length_of};
use crate::setups::Resolved;
use crate::usual;
use crate::verdict::{FitCheck, FitVerdict, check};

/// What stands in the way.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GateKind {
    /// Something is still off the vehicle.
    StillOff,
    /// A complaint was not asked again.
    ComplaintOpen,
    /// Nobody wrote a torque, or why there is none.
    TorqueMissing,
    /// The vehicle stands otherwise than before.
    StandsOtherwise,
    /// Something that was looked at is not right.
    NotRight,
    /// The axle moved otherwise than was reckoned, and no second sheet says the same.
    MovedOtherwise,
}

/// One thing that stands in the way of settling.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Gate {
    /// What it is.
    pub kind: GateKind,
    /// In words.
    pub says: Phrase,
}

/// Something that is due after the work.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Reminder {
    /// What it is.
    pub kind: ReminderKind,
    /// What to do.
    pub says: Phrase,
    /// The day it is due, once the vehicle is back on the road and where it goes by days.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false, value_type = String, format = Date)]
    pub due: Option<Date>,
    /// What the odometer reads then, where it was read.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub odometer_says: Option<Phrase>,
    /// Seen to.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub done: Option<ReminderRecord>,
}

/// What stands in the way of settling, and what comes after it.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Settling {
    /// What stands in the way.
    pub gates: Vec<Gate>,
    /// Whether it can be settled now: proved, and nothing in the way or a reason written down.
    pub may: bool,
    /// The bar's angle and the links as they were read afterwards, against what was predicted.
    pub compared: Vec<FitCheck>,
    /// What whoever works on it next wants to know: what is set, what is left either way, what was met.
    pub next_time: Vec<Phrase>,
    /// What is due afterwards, soonest first.
    pub reminders: Vec<Reminder>,
}

fn gate(kind: GateKind, says: Phrase) -> Gate {
    Gate { kind, says }
}

fn gates(job: &Job, progressed: &Progressed) -> Vec<Gate> {
    let mut gates: Vec<Gate> =
        progressed.still_off.iter().map(|name| gate(GateKind::StillOff, words::still_off(name))).collect();
    let open = job.complaints.iter().filter(|complaint| complaint.after.is_none());
    gates.extend(open.map(|complaint| gate(GateKind::ComplaintOpen, words::complaint_open(&complaint.text))));
    if !progressed.untorqued.is_empty() {
        gates.push(gate(GateKind::TorqueMissing, words::torque_missing(&progressed.untorqued)));
    }
    if let Some((says, true)) = crate::bolt_up::corners(job) {
        gates.push(gate(GateKind::StandsOtherwise, says));
    }
    let looked = &job.proof.looked_at;
    for (answer, what) in [
        (looked.wheel_straight, "The steering wheel is not straight: set it by the drag link."),
        (looked.toe, "Toe is not right."),
        (looked.sensors, "The stability sensors want their zero."),
        (looked.lines, "A line or loom is not free at full droop and at lock."),
        (looked.wheel_nuts, "The wheel nuts are not torqued."),
        (looked.pins_level, "The pins do not go in and out on level ground."),
        (looked.stowed_clear, "The stowed link does not stay clear."),
    ] {
        if answer == Some(false) {
            gates.push(gate(GateKind::NotRight, words::not_right(what)));
        }
    }
    gates
}

/// Whether the axle moved otherwise than was reckoned, and no second sheet of this round says that it is where the
/// newest one has it. One sheet against the reckoning may be the sheet: bushings that held it, a person who leant.
fn moved_otherwise(job: &Job, resolved: &Resolved, prove: &ProveResult) -> Option<Gate> {
    let movement = prove.movement.as_ref().filter(|movement| !movement.agrees)?;
    let (after, newest) = (prove.after.as_ref()?, prove.sheet.as_ref()?);
    let round = job.setups.axle_rounds().len();
    let says_the_same = job.sheets.iter().zip(&resolved.sheets).any(|(sheet, result)| {
        let of_this_round = job.setups.axle_rounds_before(sheet.round) == round && result.drives();
        let other = result.centring.as_ref().filter(|_| of_this_round && sheet.kind == SheetKind::Centring);
        sheet.id != *newest
            && other.is_some_and(|other| {
                let unsure = in_quadrature(&[other.uncertainty_mm, after.uncertainty_mm]);
                (other.offset_mm - after.offset_mm).abs() <= unsure
            })
    });
    let says = || words::moved_otherwise(movement.predicted_mm, movement.measured_mm);
    (!says_the_same).then(|| gate(GateKind::MovedOtherwise, says()))
}

/// What was read afterwards beside the axle's place, against what was predicted.
fn compared(job: &Job, resolved: &Resolved) -> Vec<FitCheck> {
    let looked = &job.proof.looked_at;
    let bar = looked.bar_angle.as_ref().zip(resolved.setups()).map(|(read, setups)| {
        let (read, wanted) = (read.angle().abs(), setups.fitted.view.angle().abs());
        let good = (read - wanted).abs().to_degrees() <= usual::ANGLE_AS_PREDICTED_DEGREES;
        let verdict = if good { FitVerdict::Good } else { FitVerdict::Bad };
        check("bar's angle", verdict, words::angle_compared(read, wanted, good))
    });
    let planned = length_of(&resolved.sway.plan.link);
    let links = [("left sway link", &looked.left_link), ("right sway link", &looked.right_link)];
    let links = links.into_iter().filter_map(|(name, read)| {
        let (read, wanted) = (length_of(read)?, planned?);
        let good = (read - wanted).abs() <= usual::LINK_AS_PREDICTED;
        let verdict = if good { FitVerdict::Good } else { FitVerdict::Bad };
        Some(check(name, verdict, words::link_compared(read, wanted, good)))
    });
    bar.into_iter().chain(links).collect()
}

/// What stands now, for the next time.
fn next_time(job: &Job, resolved: &Resolved) -> Vec<Phrase> {
    let mut told = Vec::new();
    if let Some(setups) = resolved.setups() {
        let (bar, length) = (&setups.fitted.bar, setups.fitted.view.length());
        let left = bar.adjuster.as_ref().filter(|adjuster| adjuster.kind != AdjusterKind::Fixed);
        let left = left.and_then(|adjuster| {
            let facts = facts_within(adjuster, length, length, Length::ZERO);
            Some((length - facts.evened_shortest_mm?, facts.evened_longest_mm? - length))
        });
        told.push(words::bar_now(&bar.name, length, left));
        for end in [BracketEnd::Frame, BracketEnd::Axle] {
            let rounds = job.setups.rounds.iter().rev().flat_map(|round| round.moved.iter().rev());
            let hole = rounds.filter(|moved| moved.end == end).map(|moved| moved.to.hole.as_str()).next();
            told.extend(hole.filter(|hole| !hole.is_empty()).map(|hole| words::eye_now(end, hole)));
        }
    }
    let sway = &resolved.sway.fitted;
    told.extend(length_of(&sway.link).map(words::links_now));
    let tools: Vec<String> = job.bolt_up.tools.clone();
    if !tools.is_empty() {
        told.push(words::tools_used(&tools));
    }
    told
}

/// The day reminders count from.
fn start(job: &Job) -> Option<Date> {
    let settled = job.settled.as_ref().map(|settled| settled.at.to_zoned(TimeZone::UTC).date());
    job.proof.on_the_road.or(settled)
}

/// What the odometer will read: as it reads now, its separators aside, and so much more.
fn odometer(job: &Job, miles: f64, kilometres: f64) -> Option<Phrase> {
    let text = job.proof.odometer.trim().to_lowercase();
    let number: String = text.chars().filter(char::is_ascii_digit).collect();
    let reads: f64 = number.parse().ok()?;
    let metric = if text.contains("km") {
        true
    } else {
        !text.contains("mi") && job.rig.sheet_unit == Unit::Millimetres
    };
    let more = if metric { kilometres } else { miles };
    Some(words::odometer(reads + more, if metric { "km" } else { "miles" }))
}

fn reminders(job: &Job, progressed: &Progressed) -> Vec<Reminder> {
    if progressed.steps == 0 && progressed.untorqued.is_empty() && progressed.recheck.is_empty() {
        return Vec::new();
    }
    let start = start(job);
    let reminder =
        |kind: ReminderKind, says: Phrase, after: Option<Span>, odometer_says: Option<Phrase>| Reminder {
            kind,
            says,
            due: start.zip(after).and_then(|(start, after)| start.checked_add(after).ok()),
            odometer_says,
            done: job.proof.reminders.iter().find(|record| record.kind == kind).cloned(),
        };
    let mut list = Vec::new();
    if !progressed.recheck.is_empty() {
        let says = words::check_by_feel(&progressed.recheck);
        list.push(reminder(ReminderKind::ByFeel, says, Some(1.day()), None));
    }
    list.push(reminder(ReminderKind::FirstDay, words::after_first_day(), Some(1.day()), None));
    let fifty = odometer(job, 50.0, 80.0);
    list.push(reminder(ReminderKind::FirstFifty, words::after_fifty(), Some(3.days()), fifty));
    list.push(reminder(ReminderKind::TwoWeeks, words::after_two_weeks(), Some(14.days()), None));
    let five_hundred = odometer(job, 500.0, 800.0);
    list.push(reminder(
        ReminderKind::FiveHundred,
        words::after_five_hundred(),
        Some(30.days()),
        five_hundred,
    ));
    for (name, until) in temporary(job) {
        list.push(reminder(ReminderKind::Temporary, words::temporary(&name, &until), Some(30.days()), None));
    }
    if job.rig.used_for != Some(Use::RoadAndTowing) {
        list.push(reminder(ReminderKind::FirstTrail, words::after_first_trail(), None, None));
    }
    list
}

/// What stands in the way, and what comes after.
#[must_use]
pub fn settling(
    job: &Job,
    resolved: &Resolved,
    prove: Option<&ProveResult>,
    progressed: &Progressed,
) -> Settling {
    let mut gates = gates(job, progressed);
    gates.extend(prove.and_then(|prove| moved_otherwise(job, resolved, prove)));
    let proved = prove.is_some_and(|prove| prove.verdict == ProveVerdict::CanSettle);
    Settling {
        may: proved && (gates.is_empty() || !job.proof.although.trim().is_empty()),
        gates,
        compared: compared(job, resolved),
        next_time: next_time(job, resolved),
        reminders: reminders(job, progressed),
    }
}
