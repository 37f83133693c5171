//! What stands in the way of settling a job, and what is due afterwards.
//!
//! Not here: whether the axle came out as predicted (`prove`), and what the day is: due dates are compared by whoever
//! has a calendar.

use super::message::ProveCheck;
use crate::bracket::message::BracketMessage;
use crate::message::{Label, Message};
use derecho_core::bar::adjuster::{AdjusterKind, facts_within};
use derecho_core::measure::centring::Answer;
use derecho_core::measure::conformity::agree;
use derecho_core::measure::{Length, Stress, Unit};
use derecho_core::parts::BracketEnd;
use jiff::civil::Date;
use jiff::tz::TimeZone;
use jiff::{Span, ToSpan as _};
use serde::Serialize;
use utoipa::ToSchema;

pub use super::gate::{GateKind, LookKind};
use super::prediction::of_difference;
use super::verdict::ProveVerdict;
use super::{ProveResult, reported, same_feature};
use crate::bolt_up::named::Named;
use crate::bolt_up::{Progressed, temporary};
use crate::defaults;
use crate::document::check::LONGEST_NAME;
use crate::document::proof::{LookedAt, ReminderKind, ReminderRecord, RoadResult};
use crate::document::sway::PinForm;
use crate::document::{ComplaintAfter, Job, SheetKind, Use, length_of};
use crate::prove::message::ProveMessage;
use crate::setups::Resolved;
use crate::verdict::{FitCheck, FitVerdict, check};

/// A look that this job asks for.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Look {
    /// Which: the name of its field in the document.
    pub kind: LookKind,
    /// What there is to do for it in this job's figures.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub says: Option<Message>,
}

/// One thing that stands in the way of settling.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Gate {
    /// What it is.
    pub kind: GateKind,
    /// By what its reason goes in the document.
    pub key: String,
    /// In words.
    pub says: Message,
    /// Why it is settled all the same; empty while nobody wrote it.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub because: String,
}

/// Something that is due after the work.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Reminder {
    /// What it is.
    pub kind: ReminderKind,
    /// What to do.
    pub says: Message,
    /// The day it is due, once the vehicle is back on the road and where it goes by days.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false, value_type = String, format = Date)]
    pub due: Option<Date>,
    /// What the odometer reads then, where it was read.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub odometer_says: Option<Message>,
    /// Seen to.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub done: Option<ReminderRecord>,
}

/// What stands in the way of settling, and what comes after it.
#[derive(Clone, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct Settling {
    /// What stands in the way.
    pub gates: Vec<Gate>,
    /// Whether it can be settled now: proved, and a reason written down for each thing in the way.
    pub may: bool,
    /// What is looked at again in this job.
    pub looks: Vec<Look>,
    /// The bar's angle and the links as they were read afterwards, against what was predicted.
    pub compared: Vec<FitCheck>,
    /// What whoever works on it next wants to know: what is set, what is left either way, what was met.
    pub next_time: Vec<Message>,
    /// What is due afterwards, soonest first.
    pub reminders: Vec<Reminder>,
}

/// What other stages judge of the vehicle as it is fitted: found only for a job that could be settled.
#[derive(Clone, Debug, Default)]
pub struct JudgedFitted {
    /// Checks of a Y-link.
    pub y_link: Vec<FitCheck>,
    /// Shear stress of the sway bar at the worst pose, and what its steel takes, where that is less.
    pub sway_bar: Option<(Stress, Stress)>,
    /// The track bar's name and what it stands over its load, where that is less than one.
    pub track_bar: Option<(String, f64)>,
    /// What the drag link wants, in words.
    pub drag_link: Option<Message>,
}

/// Its key holds what it is about: a reason written for one thing does not open the way for another, or for more of the
/// same. No longer than a key of the document may be, and on one line, whatever somebody called a part.
fn gate(kind: GateKind, key: &str, says: Message) -> Gate {
    let key = key.chars().filter(|c| !c.is_control()).take(LONGEST_NAME).collect();
    Gate { kind, key, says, because: String::new() }
}

/// A key of several things: how many, and which.
fn key_of_all(place: &str, names: &[Named]) -> String {
    let in_key: Vec<&str> = names.iter().map(|named| named.in_gate_keys.as_str()).collect();
    format!("{place}/{}/{}", names.len(), in_key.join(", "))
}

fn labels(names: &[Named]) -> Vec<Label> {
    names.iter().map(|named| named.name.clone()).collect()
}

/// A look's answer in the document.
const fn answer(looked: &LookedAt, kind: LookKind) -> Option<bool> {
    match kind {
        LookKind::WheelStraight => looked.wheel_straight,
        LookKind::Toe => looked.toe,
        LookKind::Sensors => looked.sensors,
        LookKind::Lines => looked.lines,
        LookKind::WheelNuts => looked.wheel_nuts,
        LookKind::PinsLevel => looked.pins_level,
        LookKind::StowedClear => looked.stowed_clear,
    }
}

/// What is looked at in a job: nothing of steering at an axle that is not steered, pins only where there are some.
fn looks(job: &Job, judged: &JudgedFitted) -> Vec<Look> {
    let steered = job.rig.is_steered();
    let pins = job.sway.pins != PinForm::default();
    [
        (LookKind::WheelStraight, steered),
        (LookKind::Toe, steered),
        (LookKind::Sensors, true),
        (LookKind::Lines, true),
        (LookKind::WheelNuts, true),
        (LookKind::PinsLevel, pins),
        (LookKind::StowedClear, pins),
    ]
    .into_iter()
    .filter(|(_, asked)| *asked)
    .map(|(kind, _)| Look {
        kind,
        says: judged.drag_link.clone().filter(|_| kind == LookKind::WheelStraight),
    })
    .collect()
}

/// What was looked at and is not right, or was not looked at.
fn gates_of_looks(job: &Job, progressed: &Progressed, looks: &[Look]) -> Vec<Gate> {
    let mut gates = Vec::new();
    for look in looks {
        let key = format!("look/{}", look.kind.key());
        match answer(&job.proof.looked_at, look.kind) {
            Some(false) => {
                gates.push(gate(GateKind::NotRight, &key, ProveMessage::NotRight { kind: look.kind }.into()));
            }
            // Where nothing was undone nothing came loose.
            None if progressed.steps > 0 => {
                gates.push(gate(
                    GateKind::NotLookedAt,
                    &key,
                    ProveMessage::NotLookedAt { kind: look.kind }.into(),
                ));
            }
            Some(true) | None => {}
        }
    }
    gates
}

/// Complaints that are not gone, and a road test that was stopped.
fn gates_of_the_drive(job: &Job) -> Vec<Gate> {
    let mut gates = Vec::new();
    for complaint in &job.complaints {
        let (kind, place, says) = match complaint.after {
            None => (
                GateKind::ComplaintOpen,
                "complaint_open",
                ProveMessage::ComplaintOpen { text: complaint.text.clone() }.into(),
            ),
            Some(after @ (ComplaintAfter::Same | ComplaintAfter::Worse)) => {
                let worse = after == ComplaintAfter::Worse;
                let place = if worse { "complaint_worse" } else { "complaint_same" };
                (
                    GateKind::ComplaintAgain,
                    place,
                    ProveMessage::ComplaintAgain { text: complaint.text.clone(), worse }.into(),
                )
            }
            Some(_) => continue,
        };
        gates.push(gate(kind, &format!("{place}/{}", complaint.text), says));
    }
    let stopped = job.proof.road.iter().filter(|record| record.result == RoadResult::Stopped);
    gates.extend(stopped.map(|record| {
        let key = format!("road/{:?}/{}", record.step, record.note);
        gate(
            GateKind::RoadStopped,
            &key,
            ProveMessage::RoadStopped { step: record.step, note: record.note.clone() }.into(),
        )
    }));
    gates
}

fn gates(job: &Job, progressed: &Progressed, looks: &[Look]) -> Vec<Gate> {
    let mut gates: Vec<Gate> = Vec::new();
    for name in &progressed.still_off {
        gates.push(gate(
            GateKind::StillOff,
            &format!("still_off/{name}"),
            ProveMessage::StillOff { name: name.to_owned() }.into(),
        ));
    }
    gates.extend(gates_of_the_drive(job));
    if !progressed.untorqued.is_empty() {
        let says = ProveMessage::TorqueMissing { names: labels(&progressed.untorqued) }.into();
        let key = key_of_all("torque_missing", &progressed.untorqued);
        gates.push(gate(GateKind::TorqueMissing, &key, says));
    }
    for (kind, key, names) in [
        (GateKind::TorqueOther, "torque_other", &progressed.other_than_wanted),
        (GateKind::TorqueFromMemory, "torque_from_memory", &progressed.from_memory),
        (GateKind::PartWrong, "part_wrong", &progressed.wrong_parts),
    ] {
        if !names.is_empty() {
            gates.push(gate(
                kind,
                &key_of_all(key, names),
                ProveMessage::Named { kind, names: labels(names) }.into(),
            ));
        }
    }
    for (key, check) in &progressed.unfit {
        let key = format!("does_not_fit/{key}");
        gates.push(gate(
            GateKind::DoesNotFit,
            &key,
            ProveMessage::DoesNotFit { check: Box::new(check.clone()) }.into(),
        ));
    }
    if progressed.done < progressed.steps {
        let open = progressed.steps - progressed.done;
        gates.push(gate(
            GateKind::StepsOpen,
            &format!("steps_open/{open}"),
            ProveMessage::StepsOpen { open, of: progressed.steps }.into(),
        ));
    }
    if let Some((says, true)) = crate::bolt_up::corners(job) {
        gates.push(gate(GateKind::StandsOtherwise, "stands_otherwise", says));
    }
    gates.extend(gates_of_looks(job, progressed, looks));
    gates
}

/// What a check is called in the keys of gates.
fn in_gate_keys(check: &FitCheck) -> String {
    let name = &check.name.0;
    match (name.facts(), name.facts()) {
        (Some(BracketMessage::CheckName(check)), _) => check.in_gate_keys(),
        (_, Some(ProveMessage::CheckName(check))) => check.in_gate_keys().to_owned(),
        _ => String::new(),
    }
}

/// What is judged bad of the vehicle as it is fitted, and what reads otherwise than planned.
fn gates_of_the_fitted(
    job: &Job,
    resolved: &Resolved,
    judged: &JudgedFitted,
    compared: &[FitCheck],
) -> Vec<Gate> {
    let named = |kind: GateKind, key: &str, checks: &[FitCheck]| -> Vec<Gate> {
        let bad = checks.iter().filter(|check| check.verdict == FitVerdict::Bad);
        bad.map(|check| {
            gate(
                kind,
                &format!("{key}/{}", in_gate_keys(check)),
                ProveMessage::DoesNotFit { check: Box::new(check.clone()) }.into(),
            )
        })
        .collect()
    };
    let mut gates = named(GateKind::YLinkFails, "y_link", &judged.y_link);
    if let Some((stress, takes)) = judged.sway_bar {
        gates.push(gate(
            GateKind::Overstressed,
            &format!("sway_bar/{:.0}", stress.to_mpa()),
            ProveMessage::SwayBarOverstressed { stress, takes }.into(),
        ));
    }
    if let Some((name, margin)) = &judged.track_bar {
        gates.push(gate(
            GateKind::Overstressed,
            &format!("track_bar/{name}"),
            ProveMessage::TrackBarOverloaded { name: name.to_owned(), margin: *margin }.into(),
        ));
    }
    gates.extend(named(GateKind::NotAsPlanned, "compared", compared));
    let stick_out = job
        .sheets
        .iter()
        .zip(&resolved.sheets)
        .rfind(|(sheet, result)| sheet.kind == SheetKind::StickOut && result.centring.is_some());
    let off = stick_out.and_then(|(_, result)| result.centring.as_ref());
    if let Some(off) = off.filter(|off| off.answer == Answer::OffCentre) {
        gates.push(gate(
            GateKind::NotAsPlanned,
            "stick_out",
            ProveMessage::StickOutOff { off: off.clone(), driver: job.rig.steering_side }.into(),
        ));
    }
    gates
}

/// Whether the axle moved otherwise than was reckoned, and no second sheet of this round says that it is where the
/// newest one has it. One sheet against the reckoning may be the sheet: bushings that held it, a person who leant.
fn moved_otherwise(job: &Job, resolved: &Resolved, prove: &ProveResult) -> Option<Gate> {
    let movement = prove.movement.as_ref().filter(|movement| !movement.agrees)?;
    let (after, newest) = (prove.after.as_ref()?, prove.sheet.as_ref()?);
    let round = job.setups.axle_rounds().len();
    let newest_sheet = job.sheets.iter().find(|sheet| sheet.id == *newest)?;
    let says_the_same = job.sheets.iter().zip(&resolved.sheets).any(|(sheet, result)| {
        let of_this_round = job.setups.axle_rounds_before(&sheet.after) == round && result.drives();
        let other = result.centring.as_ref().filter(|_| of_this_round && sheet.kind == SheetKind::Centring);
        sheet.id != *newest
            && other.is_some_and(|other| {
                let u = of_difference(reported(after), reported(other), same_feature(sheet, newest_sheet));
                agree(other.offset_mm, after.offset_mm, u)
            })
    });
    let says = || {
        ProveMessage::MovedOtherwise { predicted: movement.predicted_mm, measured: movement.measured_mm }
            .into()
    };
    (!says_the_same).then(|| gate(GateKind::MovedOtherwise, "moved_otherwise", says()))
}

/// What was read afterwards beside the axle's place, against what was predicted.
fn compared(job: &Job, resolved: &Resolved) -> Vec<FitCheck> {
    let looked = &job.proof.looked_at;
    let bar = looked.bar_angle.as_ref().zip(resolved.setups()).map(|(read, setups)| {
        let (read, wanted) = (read.angle().abs(), setups.fitted.view.angle().abs());
        let good = (read - wanted).abs().to_degrees() <= defaults::ANGLE_AS_PREDICTED_DEGREES;
        let verdict = if good { FitVerdict::Good } else { FitVerdict::Bad };
        check(
            ProveMessage::CheckName(ProveCheck::BarAngle),
            verdict,
            ProveMessage::AngleCompared { read, wanted, good },
        )
    });
    let planned = length_of(&resolved.sway.plan.link);
    // Unequal on purpose, each side has its own half of the difference.
    let longer = length_of(&resolved.sway.plan.left_longer).filter(|_| resolved.sway.plan.preload_wanted);
    let half = longer.unwrap_or(Length::ZERO) / 2.0;
    let links =
        [(ProveCheck::LeftLink, &looked.left_link, half), (ProveCheck::RightLink, &looked.right_link, -half)];
    let links = links.into_iter().filter_map(|(name, read, more)| {
        let (read, wanted) = (length_of(read)?, planned? + more);
        let good = (read - wanted).abs() <= defaults::LINK_AS_PREDICTED;
        let verdict = if good { FitVerdict::Good } else { FitVerdict::Bad };
        Some(check(ProveMessage::CheckName(name), verdict, ProveMessage::LinkCompared { read, wanted, good }))
    });
    bar.into_iter().chain(links).collect()
}

/// What stands now, for the next time.
fn next_time(job: &Job, resolved: &Resolved) -> Vec<Message> {
    let mut reported = Vec::new();
    if let Some(setups) = resolved.setups() {
        let (bar, length) = (&setups.fitted.bar, setups.fitted.view.length());
        let left = bar.adjuster.as_ref().filter(|adjuster| adjuster.kind != AdjusterKind::Fixed);
        let left = left.and_then(|adjuster| {
            let facts = facts_within(adjuster, length, length, Length::ZERO);
            Some((length - facts.equal_engagement_shortest_mm?, facts.equal_engagement_longest_mm? - length))
        });
        reported.push(ProveMessage::BarNow { name: bar.name.clone(), length, left }.into());
        for end in [BracketEnd::Frame, BracketEnd::Axle] {
            let rounds = job.setups.rounds.iter().rev().flat_map(|round| round.moved.iter().rev());
            let hole =
                rounds.filter(|moved| moved.end == end).map(|moved| job.hole_name(end, &moved.to)).next();
            reported.extend(
                hole.filter(|hole| !hole.is_empty())
                    .map(|hole| ProveMessage::EyeNow { end, hole: hole.to_owned() }.into()),
            );
        }
    }
    let sway = &resolved.sway.fitted;
    reported.extend(length_of(&sway.link).map(|link| ProveMessage::LinksNow { link }.into()));
    let tools: Vec<String> = job.bolt_up.tools.clone();
    if !tools.is_empty() {
        reported.push(ProveMessage::ToolsUsed { tools: tools.to_vec() }.into());
    }
    reported
}

/// The day reminders count from.
fn start(job: &Job) -> Option<Date> {
    let settled = job.settled.as_ref().map(|settled| settled.at.to_zoned(TimeZone::UTC).date());
    job.proof.on_the_road.or(settled)
}

/// What the odometer will read: as it reads now, its separators aside, and so much more.
fn odometer(job: &Job, miles: f64, kilometres: f64) -> Option<Message> {
    let text = job.proof.odometer.trim().to_lowercase();
    let number: String = text.chars().filter(char::is_ascii_digit).collect();
    let reads: f64 = number.parse().ok()?;
    let metric = if text.contains("km") {
        true
    } else {
        !text.contains("mi") && job.rig.sheet_unit == Unit::Millimetres
    };
    let more = if metric { kilometres } else { miles };
    Some(
        ProveMessage::Odometer {
            reads: reads + more,
            unit: (if metric { "km" } else { "miles" }).to_owned(),
        }
        .into(),
    )
}

fn reminders(job: &Job, progressed: &Progressed) -> Vec<Reminder> {
    if progressed.steps == 0 && progressed.untorqued.is_empty() && progressed.recheck.is_empty() {
        return Vec::new();
    }
    let start = start(job);
    let reminder =
        |kind: ReminderKind, says: Message, after: Option<Span>, odometer_says: Option<Message>| Reminder {
            kind,
            says,
            due: start.zip(after).and_then(|(start, after)| start.checked_add(after).ok()),
            odometer_says,
            done: job.proof.reminders.iter().find(|record| record.kind == kind).cloned(),
        };
    let mut list = Vec::new();
    if !progressed.recheck.is_empty() {
        let says = ProveMessage::CheckByFeel { names: labels(&progressed.recheck) }.into();
        list.push(reminder(ReminderKind::ByFeel, says, Some(1.day()), None));
    }
    list.push(reminder(ReminderKind::FirstDay, ProveMessage::AfterFirstDay.into(), Some(1.day()), None));
    let fifty = odometer(job, 50.0, 80.0);
    list.push(reminder(ReminderKind::FirstFifty, ProveMessage::AfterFifty.into(), Some(3.days()), fifty));
    list.push(reminder(ReminderKind::TwoWeeks, ProveMessage::AfterTwoWeeks.into(), Some(14.days()), None));
    let five_hundred = odometer(job, 500.0, 800.0);
    list.push(reminder(
        ReminderKind::FiveHundred,
        ProveMessage::AfterFiveHundred.into(),
        Some(30.days()),
        five_hundred,
    ));
    for (name, until) in temporary(job) {
        list.push(reminder(
            ReminderKind::Temporary,
            ProveMessage::Temporary { name: name.clone(), until: until.clone() }.into(),
            Some(30.days()),
            None,
        ));
    }
    if job.rig.used_for != Some(Use::RoadAndTowing) {
        list.push(reminder(ReminderKind::FirstTrail, ProveMessage::AfterFirstTrail.into(), None, None));
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
    judged: &JudgedFitted,
) -> Settling {
    let (looks, compared) = (looks(job, judged), compared(job, resolved));
    let mut gates = gates(job, progressed, &looks);
    gates.extend(gates_of_the_fitted(job, resolved, judged, &compared));
    gates.extend(prove.and_then(|prove| moved_otherwise(job, resolved, prove)));
    for gate in &mut gates {
        job.proof.reason(&gate.key).clone_into(&mut gate.because);
    }
    let proved = prove.is_some_and(|prove| prove.verdict == ProveVerdict::CanSettle);
    Settling {
        may: proved && gates.iter().all(|gate| !gate.because.is_empty()),
        gates,
        looks,
        compared,
        next_time: next_time(job, resolved),
        reminders: reminders(job, progressed),
    }
}
