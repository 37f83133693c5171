//! Fit before welding: does the bar reach both ways, do joint and spacers fill the ears, are
//! the brackets parallel. And a Y-link conversion checked as a plan.

use crate::usual;
use crate::verdict::{FitCheck, FitVerdict, check};

use super::option::OptionResult;
use crate::bar::heights::HeightResult;
use crate::cycle::{CycleResult, LimitKind, LimitLevel};
use crate::document::{AxleLocation, Job, SheetKind, length_of};
use crate::setups::{Setups, hung};
use crate::tape::SheetResult;
use derecho_core::bar::adjuster::{AdjusterKind, setting};
use derecho_core::measure::centring::Answer;
use derecho_core::measure::phrase::degrees;
use derecho_core::measure::print::{self, Style};
use derecho_core::measure::{Angle, AngleEntry, Length, Phrase};

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
        let ask = Phrase::plain(
            "How short and how long the bar goes is not known: measure it before anything is welded.",
        );
        return check("the bar reaches, both ways", FitVerdict::Open, ask);
    };
    let wanted = option.length_mm;
    let (out, inward) = (most - wanted, wanted - least);
    // The same judgement as the option's own, so that the two never differ.
    let verdict = if option.covered == Some(false) { FitVerdict::Bad } else { FitVerdict::Good };
    check(
        "the bar reaches, both ways",
        verdict,
        Phrase::of(|w| {
            let room = |room: Length| {
                if print::rounds_to_nought(room, Style::everyday(w.unit())) {
                    "nothing to spare".to_owned()
                } else if room < Length::ZERO {
                    format!("{} short of it", w.distance(room))
                } else {
                    format!("{} to spare", w.distance(room))
                }
            };
            format!("It needs {}: outward {}, inward {}.", w.fine(wanted), room(out), room(inward))
        }),
    )
}

fn ears(job: &Job) -> Option<FitCheck> {
    let ear = length_of(&job.bracket.ear_width)?;
    let widths: Vec<Length> = job.bracket.joints.iter().filter_map(|joint| length_of(&joint.width)).collect();
    if widths.is_empty() {
        let ask = Phrase::plain("Add the joint and its spacers to see whether they fill the ears.");
        return Some(check("joint and spacers between the ears", FitVerdict::Open, ask));
    }
    let filled: Length = widths.iter().copied().sum();
    let over = filled - ear;
    let verdict = if over.abs() <= usual::EAR_SLACK { FitVerdict::Good } else { FitVerdict::Bad };
    Some(check(
        "joint and spacers between the ears",
        verdict,
        Phrase::of(|w| {
            let told = if verdict == FitVerdict::Good {
                "they fill them".to_owned()
            } else if over > Length::ZERO {
                format!("{} too wide: do not spread the ears", w.fine(over))
            } else {
                format!("{} of gap: a spacer is missing, do not pull the ears together", w.fine(over))
            };
            format!("{} of parts in {} of ears: {told}.", w.fine(filled), w.fine(ear))
        }),
    ))
}

fn parallel(job: &Job) -> Option<FitCheck> {
    let angle = |entry: &Option<AngleEntry>| entry.as_ref().map(AngleEntry::angle);
    let (frame, axle) = (angle(&job.bracket.frame_bracket_angle)?, angle(&job.bracket.axle_bracket_angle)?);
    let apart = frame - axle;
    let good = apart.abs().to_degrees() <= usual::PARALLEL_DEGREES;
    let told = if good { "parallel" } else { "turn one until they agree, then tack" };
    Some(check(
        "the two brackets are parallel",
        if good { FitVerdict::Good } else { FitVerdict::Bad },
        Phrase::plain(&format!("{} apart: {told}.", degrees(apart))),
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
    checks.push(check(
        "spacers behind the old upper mount",
        FitVerdict::Open,
        Phrase::plain("Take them out: they were for the bar's height and turn the pinion now."),
    ));
    checks
}

fn centred(sheets: &[SheetResult]) -> FitCheck {
    let name = "equal readings both sides";
    let sheet = sheets.iter().rfind(|sheet| sheet.kind == SheetKind::Centring && sheet.centring.is_some());
    let Some(centring) = sheet.and_then(|sheet| sheet.centring.as_ref()) else {
        return check(name, FitVerdict::Open, Phrase::plain("Read both sides in stage Tape."));
    };
    let good = centring.answer == Answer::WithinTolerance;
    check(
        name,
        if good { FitVerdict::Good } else { FitVerdict::Bad },
        Phrase::of(|w| {
            let place = w.sideways(centring.offset_mm);
            if good {
                format!("It sits {place}, within the tolerance.")
            } else {
                format!("It sits {place}: thread both legs alike until both sides read the same.")
            }
        }),
    )
}

fn square(sheets: &[SheetResult]) -> FitCheck {
    let name = "square under the frame";
    let sheet =
        sheets.iter().rfind(|sheet| sheet.kind == SheetKind::Squareness && sheet.squareness.is_some());
    match sheet.and_then(|sheet| sheet.says.clone()) {
        Some(says) => check(name, FitVerdict::Good, says),
        None => check(
            name,
            FitVerdict::Open,
            Phrase::plain("Take a squareness sheet in stage Tape: wheelbase both sides."),
        ),
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
            let way = if change > Angle::ZERO { "down" } else { "up" };
            Some(check(
                &format!("pinion at {}", height.name),
                if good { FitVerdict::Good } else { FitVerdict::Bad },
                Phrase::plain(&if change.abs().to_degrees() < 0.05 {
                    "As at ride height.".to_owned()
                } else {
                    format!(
                        "{} further {way} than at ride height; up to {:.0}° is taken.",
                        degrees(change),
                        usual::PINION_DEGREES
                    )
                }),
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
        Some(way) => check(
            name,
            FitVerdict::Bad,
            Phrase {
                inches: format!("{}: beyond it a wider wishbone is wanted.", way.says.inches),
                millimetres: format!("{}: beyond it a wider wishbone is wanted.", way.says.millimetres),
            },
        ),
        None if over > 0 => check(
            name,
            FitVerdict::Bad,
            Phrase::plain("A joint is out of tilt somewhere cross-axled: see stage Cycle."),
        ),
        None => check(
            name,
            FitVerdict::Good,
            Phrase::plain("Nothing ends it before the stops, cross-axled either."),
        ),
    })
}
