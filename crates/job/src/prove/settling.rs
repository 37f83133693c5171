//! What is looked at and read beside the axle's place before a job is closed, and what is due afterwards.
//!
//! Not here: what stands in the way of closing (`findings`), whether the axle came out as predicted (`prove`), and what
//! the day is: due dates are compared by whoever has a calendar.

use super::message::ProveCheck;
use crate::message::Message;
use crate::sway::build_stages;
use derecho_core::bar::adjuster::{AdjusterKind, facts_within};
use derecho_core::measure::conformity::agree;
use derecho_core::measure::{Length, Unit};
use derecho_core::parts::BracketEnd;
use jiff::civil::Date;
use jiff::tz::TimeZone;
use jiff::{Span, ToSpan as _};
use serde::Serialize;
use utoipa::ToSchema;

pub use super::look::LookKind;
use super::prediction::of_difference;
use super::{ProveResult, reported, same_feature};
use crate::bolt_up::{Progressed, temporary};
use crate::defaults;
use crate::document::proof::{ReminderKind, ReminderRecord};
use crate::document::sway::PinForm;
use crate::document::{FittedPart, Job, SheetKind, Use, length_of};
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

/// Something besides bar, brackets and drag link that is installed in this job.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct InstallLine {
    /// Which.
    pub part: FittedPart,
    /// What it is called.
    pub says: Message,
    /// Whether it is on record as installed.
    pub on_record: bool,
}

/// What stands in the way of settling, and what comes after it.
#[derive(Clone, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct Settling {
    /// Whether it can be closed now: proved, and nothing in the way that nobody accepted.
    pub may: bool,
    /// What is installed in this job besides bar, brackets and drag link.
    pub installs: Vec<InstallLine>,
    /// What is looked at again in this job.
    pub looks: Vec<Look>,
    /// The bar's angle and the links as they were read afterwards, against what was predicted.
    pub compared: Vec<FitCheck>,
    /// What whoever works on it next wants to know: what is set, what is left either way, what was met.
    pub next_time: Vec<Message>,
    /// What is due afterwards, soonest first.
    pub reminders: Vec<Reminder>,
}

/// What is looked at in a job: nothing of steering at an axle that is not steered, pins only where there are some.
/// Clearance is looked at where nothing was measured that could be in the way.
pub(crate) fn looks(job: &Job, drag_link: Option<&Message>, unmeasured: bool) -> Vec<Look> {
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
        (LookKind::Clear, unmeasured),
    ]
    .into_iter()
    .filter(|(_, asked)| *asked)
    .map(|(kind, _)| Look { kind, says: drag_link.filter(|_| kind == LookKind::WheelStraight).cloned() })
    .collect()
}

/// Whether the axle moved otherwise than was reckoned, and no second sheet of this round says that it is where the
/// newest one has it. One sheet against the reckoning may be the sheet: bushings that held it, a person who leant.
pub(crate) fn says_otherwise_alone(job: &Job, resolved: &Resolved, prove: &ProveResult) -> Option<Message> {
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
    (!says_the_same).then(says)
}

/// What was read afterwards beside the axle's place, against what was predicted.
pub(crate) fn compared(job: &Job, resolved: &Resolved) -> Vec<FitCheck> {
    let looked = &job.proof.looked_at;
    let bar = looked.bar_angle.as_ref().zip(resolved.measured_setups()).map(|(read, setups)| {
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
            let mut rounds = job.setups.rounds.iter().rev().flat_map(|round| round.moved.iter().rev());
            let moved = rounds.find(|moved| moved.end == end);
            let now = moved.map(|moved| (job.hole_name(end, &moved.to).to_owned(), moved.off.lengths()));
            reported.extend(
                now.filter(|(hole, _)| !hole.is_empty())
                    .map(|(hole, [up, outward, _])| ProveMessage::EyeNow { end, hole, up, outward }.into()),
            );
        }
    }
    let links = job.setups.rounds.iter().rev().find_map(|round| length_of(&round.drag_link_length));
    reported.extend(links.map(|length| ProveMessage::DragLinkNow { length }.into()));
    let sway = &resolved.sway.fitted;
    reported.extend(length_of(&sway.link).map(|link| {
        let hole = sway.from_the_stiff_end(&sway.hole).filter(|(_, of)| *of > 1);
        ProveMessage::LinksNow { link, hole }.into()
    }));
    // The hole and link to use once it is built further.
    reported.extend(build_stages::of_job(job, resolved).into_iter().skip(1).map(|stage| stage.says));
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
        let says = ProveMessage::CheckByFeel {
            names: progressed.recheck.iter().map(|named| named.name.clone()).collect(),
        }
        .into();
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

/// What is looked at, and what comes after: `may` says whether the job can be closed now.
#[must_use]
pub(crate) fn settling(
    job: &Job,
    resolved: &Resolved,
    progressed: &Progressed,
    (looks, compared): (Vec<Look>, Vec<FitCheck>),
    may: bool,
) -> Settling {
    let installs = FittedPart::ALL.into_iter().filter(|part| job.installs(*part));
    let brace = job.bracket.brace.as_ref().map_or("", |brace| brace.name.as_str());
    Settling {
        may,
        installs: installs
            .map(|part| InstallLine {
                part,
                says: ProveMessage::Installs { part, name: brace.to_owned() }.into(),
                on_record: job.has_installed(part),
            })
            .collect(),
        looks,
        compared,
        next_time: next_time(job, resolved),
        reminders: reminders(job, progressed),
    }
}
