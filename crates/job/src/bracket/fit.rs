//! Fit before welding: does the bar reach both ways, do joint and spacers fill the ears, are
//! the brackets parallel. And a Y-link conversion checked as a plan.

use crate::bracket::message::{BracketCheck, BracketMessage};
use crate::defaults;
use crate::verdict::{FitCheck, FitVerdict, check};

use super::carried::{factor, frame_lever};
use super::option::OptionResult;
use crate::assembly::weights::axle_weight;
use crate::bar::heights::HeightResult;
use crate::cycle::{CycleResult, LimitKind, LimitLevel};
use crate::document::bracketing::PinionReading;
use crate::document::{AxleLocation, Job, SheetKind, length_of};
use crate::setups::{Setup, Setups, hung};
use crate::tape::SheetResult;
use derecho_core::bar::adjuster::{AdjusterKind, facts_within};
use derecho_core::bar::bracket_load::{braced, root_moment};
use derecho_core::bar::strength::bar_load;
use derecho_core::measure::centring::{Answer, Centring};
use derecho_core::measure::squareness::AxleEnd;
use derecho_core::measure::{Angle, AngleEntry, Force, Length, Moment};
use derecho_core::parts::BracketEnd;

/// The checks for the chosen or best option.
pub(super) fn checks(job: &Job, setups: &Setups, option: Option<&OptionResult>) -> Vec<FitCheck> {
    let mut checks = Vec::new();
    if let Some(option) = option {
        checks.push(reach(job, setups, option));
        checks.extend(brace(job, option));
    }
    checks.extend(eyes(job).into_iter().filter_map(|end| ears(job, end)));
    checks.extend(parallel(job));
    checks
}

/// How short and how long the option's bar can be: made range and the thread that must stay in.
fn range(job: &Job, setups: &Setups, option: &OptionResult) -> (Option<Length>, Option<Length>) {
    let old = setups.base.view.length();
    let bar = hung(job, &option.plan.bar, old).unwrap_or_else(|| setups.base.bar.clone());
    match &bar.adjuster {
        None => bar.range,
        Some(adjuster) if adjuster.kind == AdjusterKind::Fixed => (Some(bar.length), Some(bar.length)),
        Some(adjuster) => {
            let set = facts_within(adjuster, bar.length, option.length_mm, Length::ZERO);
            (set.equal_engagement_shortest_mm, set.equal_engagement_longest_mm)
        }
    }
}

fn reach(job: &Job, setups: &Setups, option: &OptionResult) -> FitCheck {
    let (Some(least), Some(most)) = range(job, setups, option) else {
        return check(
            BracketMessage::CheckName(BracketCheck::Reach),
            FitVerdict::Open,
            BracketMessage::RangeUnknown,
        );
    };
    let wanted = option.length_mm;
    let (out, inward) = (most - wanted, wanted - least);
    // The same judgement as the option's own, so that the two never differ.
    let verdict = if option.covered == Some(false) { FitVerdict::Bad } else { FitVerdict::Good };
    check(
        BracketMessage::CheckName(BracketCheck::Reach),
        verdict,
        BracketMessage::Reaches { wanted, out, inward },
    )
}

/// What a brace to the far rail takes off the frame bracket's root, with the eye where the option has it.
fn brace(job: &Job, option: &OptionResult) -> Option<FitCheck> {
    let (load, moment) = (Force::from_n(option.loads.bar_n), Moment::from_nm(option.loads.frame_moment_nm));
    brace_under(job, load, Length::from_mm(moment.to_nmm() / load.to_n()))
}

/// What the brace takes off the frame bracket's root with the bar and its eyes as a setup has them; None without a brace.
pub(crate) fn brace_of(job: &Job, setup: &Setup) -> Option<FitCheck> {
    let view = &setup.view;
    let load = bar_load(axle_weight(job), factor(job), view.length(), view.reach());
    brace_under(job, load, frame_lever(setup.moves))
}

fn brace_under(job: &Job, load: Force, lever: Length) -> Option<FitCheck> {
    let part = job.bracket.brace.as_ref()?;
    let name = BracketMessage::CheckName(BracketCheck::Brace);
    let Some(below) = length_of(&part.below_rail) else {
        return Some(check(name, FitVerdict::Open, BracketMessage::BraceUnmeasured));
    };
    Some(match braced(lever, below) {
        Some(with) => {
            let verdict = match with.brace_share {
                share if share <= defaults::BRACE_CARRIES => FitVerdict::Good,
                share if share <= 2.0 * defaults::BRACE_CARRIES => FitVerdict::Open,
                _ => FitVerdict::Bad,
            };
            let at_the_brace = root_moment(load, lever - below);
            check(name, verdict, BracketMessage::Braced { with, load, at_the_brace, verdict })
        }
        None => check(name, FitVerdict::Bad, BracketMessage::BraceBeyond { below, lever }),
    })
}

/// The eyes that are looked at one by one: none by name where both are alike.
pub(crate) fn eyes(job: &Job) -> Vec<Option<BracketEnd>> {
    if job.bracket.eyes_differ() { vec![Some(BracketEnd::Frame), Some(BracketEnd::Axle)] } else { vec![None] }
}

/// What a check of one eye is called.
pub(super) const fn named(check: BracketCheck, end: Option<BracketEnd>) -> BracketMessage {
    match end {
        Some(end) => BracketMessage::CheckNameAt { check, end },
        None => BracketMessage::CheckName(check),
    }
}

/// Whether joint and spacers fill the ears of one eye, or of either where both are alike. What is for the other eye is
/// not counted.
pub(crate) fn ears(job: &Job, end: Option<BracketEnd>) -> Option<FitCheck> {
    let ear = match end {
        Some(end) => job.bracket.ear_width_at(end),
        None => job.bracket.ear_width.as_ref(),
    };
    let ear = ear?.length();
    let own = job.bracket.joints.iter().any(|joint| end.is_some() && joint.end == end);
    let here =
        job.bracket.joints.iter().filter(|joint| if own { joint.end == end } else { joint.end.is_none() });
    let widths: Vec<Length> = here.filter_map(|joint| length_of(&joint.width)).collect();
    if widths.is_empty() {
        return Some(check(named(BracketCheck::Ears, end), FitVerdict::Open, BracketMessage::AddJoints));
    }
    let filled: Length = widths.iter().copied().sum();
    let over = filled - ear;
    let verdict = if over.abs() <= defaults::EAR_SLACK { FitVerdict::Good } else { FitVerdict::Bad };
    Some(check(named(BracketCheck::Ears, end), verdict, BracketMessage::Ears { filled, ear, verdict }))
}

/// Whether both brackets stand alike, where an angle finder was laid on both.
pub(crate) fn parallel(job: &Job) -> Option<FitCheck> {
    let angle = |entry: &Option<AngleEntry>| entry.as_ref().map(AngleEntry::angle);
    let (frame, axle) = (angle(&job.bracket.frame_bracket_angle)?, angle(&job.bracket.axle_bracket_angle)?);
    let apart = frame - axle;
    let good = apart.abs().to_degrees() <= defaults::PARALLEL_DEGREES;
    Some(check(
        BracketMessage::CheckName(BracketCheck::Parallel),
        if good { FitVerdict::Good } else { FitVerdict::Bad },
        BracketMessage::Parallel { apart, good },
    ))
}

/// The conversion to a Y-shaped upper link, checked: centred, square, pinion, travel.
pub(super) fn conversion(
    job: &Job,
    sheets: &[SheetResult],
    cycle: &CycleResult,
    heights: &[HeightResult],
) -> Vec<FitCheck> {
    if job.rig.axle_location != Some(AxleLocation::YLink) {
        return Vec::new();
    }
    let mut checks = vec![centred(job, sheets), square(sheets)];
    let turns = pinion_turns(job, cycle, heights);
    checks.extend(turns.iter().map(|(height, turned)| pinion(height, *turned)));
    checks.extend(travel(cycle));
    let verdict = match job.bracket.conversion.spacers_out {
        Some(true) => FitVerdict::Good,
        Some(false) => FitVerdict::Bad,
        None => FitVerdict::Open,
    };
    checks.push(check(
        BracketMessage::CheckName(BracketCheck::Spacers),
        verdict,
        BracketMessage::Spacers { verdict },
    ));
    checks
}

/// The newest centring sheet that may drive a correction now: of a Y-link that is put in, one that was read with it in.
pub(super) fn newest_centring<'a>(job: &Job, sheets: &'a [SheetResult]) -> Option<&'a Centring> {
    let read = job.sheets.iter().zip(sheets);
    let held =
        read.filter(|(sheet, _)| job.reads_the_axle_as_it_is_held(&sheet.after)).map(|(_, result)| result);
    let stands = |sheet: &&SheetResult| sheet.kind == SheetKind::Centring && sheet.refused.is_empty();
    held.filter(stands).filter_map(|sheet| sheet.centring.as_ref()).next_back()
}

fn centred(job: &Job, sheets: &[SheetResult]) -> FitCheck {
    let name = BracketMessage::CheckName(BracketCheck::BothSides);
    let Some(centring) = newest_centring(job, sheets) else {
        return check(name, FitVerdict::Open, BracketMessage::ReadBothSides);
    };
    let verdict = match centring.answer {
        Answer::WithinTolerance => FitVerdict::Good,
        Answer::OffCentre => FitVerdict::Bad,
        Answer::CannotTell => FitVerdict::Open,
    };
    check(name, verdict, BracketMessage::YLinkSits { offset: centring.offset_mm, verdict })
}

fn square(sheets: &[SheetResult]) -> FitCheck {
    let name = BracketMessage::CheckName(BracketCheck::Square);
    let stands = |sheet: &&SheetResult| sheet.kind == SheetKind::Squareness && sheet.refused.is_empty();
    let Some(found) = sheets.iter().filter(stands).filter_map(|sheet| sheet.squareness.as_ref()).next_back()
    else {
        return check(name, FitVerdict::Open, BracketMessage::TakeSquareness);
    };
    let (yaw, sure) = (found.yaw_deg.abs().to_degrees(), found.uncertainty_deg.to_degrees());
    let verdict = if yaw + sure <= defaults::SQUARE_DEGREES {
        FitVerdict::Good
    } else if yaw > sure && yaw > defaults::SQUARE_DEGREES {
        FitVerdict::Bad
    } else {
        FitVerdict::Open
    };
    check(name, verdict, BracketMessage::YLinkSquare { found: found.clone(), verdict })
}

/// ψ that sends the pinion's nose down by an angle: it points forward at a rear axle, back at a front one.
pub(super) fn nose_down(job: &Job, by: Angle) -> Angle {
    if job.rig.end == Some(AxleEnd::Front) { -by } else { by }
}

/// How far the pinion's nose went down at each height from what it was before the conversion. Read at that
/// height, or at another one and carried there by what the link does in between; None where one of the two
/// was not read.
pub(super) fn pinion_turns(
    job: &Job,
    cycle: &CycleResult,
    heights: &[HeightResult],
) -> Vec<(HeightResult, Option<Angle>)> {
    let readings = &job.bracket.conversion.pinion;
    let is = |reading: &PinionReading, height: &HeightResult| {
        if reading.height.is_empty() { height.driven } else { reading.height == height.id }
    };
    let modelled = |height: &HeightResult| {
        let travel = height.travel_mm.to_mm();
        let heave = &cycle.found.as_ref()?.heave;
        let after = heave.iter().position(|pose| pose.z_mm.to_mm() >= travel)?;
        let (low, high) = (&heave[after.saturating_sub(1)], &heave[after]);
        let wide = (high.z_mm - low.z_mm).to_mm();
        let share = if wide > 0.0 { (travel - low.z_mm.to_mm()) / wide } else { 0.0 };
        Some(nose_down(job, low.pitch_deg + (high.pitch_deg - low.pitch_deg) * share))
    };
    let angle = |entry: &Option<AngleEntry>| entry.as_ref().map(AngleEntry::angle);
    let after_at = |height: &HeightResult| {
        let here = readings.iter().filter(|reading| is(reading, height)).find_map(|r| angle(&r.after));
        here.or_else(|| {
            let (read, there) = heights.iter().find_map(|other| {
                let reading = readings.iter().find(|reading| is(reading, other))?;
                Some((angle(&reading.after)?, modelled(other)?))
            })?;
            Some(read + (modelled(height)? - there))
        })
    };
    heights
        .iter()
        .map(|height| {
            let before = readings.iter().filter(|r| is(r, height)).find_map(|r| angle(&r.before));
            (height.clone(), after_at(height).zip(before).map(|(after, before)| after - before))
        })
        .collect()
}

fn pinion(height: &HeightResult, turned: Option<Angle>) -> FitCheck {
    let verdict = match turned {
        None => FitVerdict::Open,
        Some(turned) if turned.abs().to_degrees() <= defaults::PINION_DEGREES => FitVerdict::Good,
        Some(_) => FitVerdict::Bad,
    };
    check(
        BracketMessage::CheckName(BracketCheck::Pinion { height: height.name.clone() }),
        verdict,
        BracketMessage::Pinion { turned, verdict, driven: height.driven },
    )
}

fn travel(cycle: &CycleResult) -> Option<FitCheck> {
    let found = cycle.found.as_ref()?;
    let ended = found.ways.iter().find(|way| way.ended_at_mm.is_some());
    let joints = found.limits.iter().filter(|l| l.kind == LimitKind::Tilt);
    let over = joints.filter(|l| l.level == LimitLevel::Violated).count();
    let name = BracketMessage::CheckName(BracketCheck::Follows);
    Some(match ended {
        Some(way) => check(name, FitVerdict::Bad, BracketMessage::WiderWishbone { ends: way.says.clone() }),
        None if over > 0 => check(name, FitVerdict::Bad, BracketMessage::JointOut),
        None => check(name, FitVerdict::Good, BracketMessage::Follows),
    })
}
