//! Fit before welding: does the bar reach both ways, do joint and spacers fill the ears, are
//! the brackets parallel. And a Y-link conversion checked as a plan.

use crate::usual;
use crate::verdict::{FitCheck, FitVerdict, check};

use super::option::OptionResult;
use super::words;
use crate::bar::heights::HeightResult;
use crate::cycle::{CycleResult, LimitKind, LimitLevel};
use crate::document::{AxleLocation, Job, SheetKind, length_of};
use crate::setups::{Setups, hung};
use crate::tape::SheetResult;
use derecho_core::bar::adjuster::{AdjusterKind, setting};
use derecho_core::measure::centring::Answer;
use derecho_core::measure::{Angle, AngleEntry, Length};

/// The checks for the chosen or best option.
pub(super) fn checks(job: &Job, setups: &Setups, option: Option<&OptionResult>) -> Vec<FitCheck> {
    let mut checks = Vec::new();
    if let Some(option) = option {
        checks.push(reach(job, setups, option));
    }
    checks.extend(ears(job));
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
            let set = setting(adjuster, bar.length, option.length_mm);
            (set.evened_shortest_mm, set.evened_longest_mm)
        }
    }
}

fn reach(job: &Job, setups: &Setups, option: &OptionResult) -> FitCheck {
    let (Some(least), Some(most)) = range(job, setups, option) else {
        return check("the bar reaches, both ways", FitVerdict::Open, words::range_unknown());
    };
    let wanted = option.length_mm;
    let (out, inward) = (most - wanted, wanted - least);
    // The same judgement as the option's own, so that the two never differ.
    let verdict = if option.covered == Some(false) { FitVerdict::Bad } else { FitVerdict::Good };
    check("the bar reaches, both ways", verdict, words::reaches(wanted, out, inward))
}

fn ears(job: &Job) -> Option<FitCheck> {
    let ear = length_of(&job.bracket.ear_width)?;
    let widths: Vec<Length> = job.bracket.joints.iter().filter_map(|joint| length_of(&joint.width)).collect();
    if widths.is_empty() {
        return Some(check("joint and spacers between the ears", FitVerdict::Open, words::add_joints()));
    }
    let filled: Length = widths.iter().copied().sum();
    let over = filled - ear;
    let verdict = if over.abs() <= usual::EAR_SLACK { FitVerdict::Good } else { FitVerdict::Bad };
    Some(check("joint and spacers between the ears", verdict, words::ears(filled, ear, verdict)))
}

fn parallel(job: &Job) -> Option<FitCheck> {
    let angle = |entry: &Option<AngleEntry>| entry.as_ref().map(AngleEntry::angle);
    let (frame, axle) = (angle(&job.bracket.frame_bracket_angle)?, angle(&job.bracket.axle_bracket_angle)?);
    let apart = frame - axle;
    let good = apart.abs().to_degrees() <= usual::PARALLEL_DEGREES;
    Some(check(
        "the two brackets are parallel",
        if good { FitVerdict::Good } else { FitVerdict::Bad },
        words::parallel(apart, good),
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
    let mut checks = vec![centred(sheets), square(sheets)];
    checks.extend(pinion(cycle, heights));
    checks.extend(travel(cycle));
    checks.push(check("spacers behind the old upper mount", FitVerdict::Open, words::spacers()));
    checks
}

fn centred(sheets: &[SheetResult]) -> FitCheck {
    let name = "equal readings both sides";
    let sheet = sheets.iter().rfind(|sheet| sheet.kind == SheetKind::Centring && sheet.centring.is_some());
    let Some(centring) = sheet.and_then(|sheet| sheet.centring.as_ref()) else {
        return check(name, FitVerdict::Open, words::read_both_sides());
    };
    let good = centring.answer == Answer::WithinTolerance;
    check(
        name,
        if good { FitVerdict::Good } else { FitVerdict::Bad },
        words::y_link_sits(centring.offset_mm, good),
    )
}

fn square(sheets: &[SheetResult]) -> FitCheck {
    let name = "square under the frame";
    let sheet =
        sheets.iter().rfind(|sheet| sheet.kind == SheetKind::Squareness && sheet.squareness.is_some());
    match sheet.and_then(|sheet| sheet.says.clone()) {
        Some(says) => check(name, FitVerdict::Good, says),
        None => check(name, FitVerdict::Open, words::take_squareness()),
    }
}

fn pinion(cycle: &CycleResult, heights: &[HeightResult]) -> Vec<FitCheck> {
    let Some(found) = &cycle.found else { return Vec::new() };
    heights
        .iter()
        .filter_map(|height| {
            let travel = height.travel_mm.to_mm();
            let pose = found.heave.iter().min_by(|a, b| {
                let far = |mm: f64| (mm - travel).abs();
                far(a.z_mm.to_mm()).total_cmp(&far(b.z_mm.to_mm()))
            })?;
            let change: Angle = pose.pitch_deg;
            let good = change.abs().to_degrees() <= usual::PINION_DEGREES;
            Some(check(
                &format!("pinion at {}", height.name),
                if good { FitVerdict::Good } else { FitVerdict::Bad },
                words::pinion(change),
            ))
        })
        .collect()
}

fn travel(cycle: &CycleResult) -> Option<FitCheck> {
    let found = cycle.found.as_ref()?;
    let ended = found.ways.iter().find(|way| way.ended_at_mm.is_some());
    let joints = found.limits.iter().filter(|l| l.kind == LimitKind::Tilt);
    let over = joints.filter(|l| l.level == LimitLevel::Over).count();
    let name = "the link follows the whole travel";
    Some(match ended {
        Some(way) => check(name, FitVerdict::Bad, words::wider_wishbone(&way.says)),
        None if over > 0 => check(name, FitVerdict::Bad, words::joint_out()),
        None => check(name, FitVerdict::Good, words::follows()),
    })
}
