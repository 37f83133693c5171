//! Fit before welding: does the bar reach both ways, do joint and spacers fill the ears, are
//! the brackets parallel. And a Y-link conversion checked as a plan.

use crate::usual;
use crate::verdict::{FitCheck, FitVerdict, check};

use crate::bracket::plan::OptionResult;
use crate::cycle::{CycleResult, LimitKind, LimitLevel};
use crate::document::heights::HeightResult;
use crate::document::{AxleLocation, Job, SheetKind, length_of};
use crate::tape::SheetResult;
use derecho_core::measure::centring::Answer;
use derecho_core::measure::phrase::degrees;
use derecho_core::measure::{Angle, AngleEntry, Length, Phrase};

/// The checks for the chosen or best option.
///
/// `thread_allows` is how short and how long the bar as found can be set with the thread that
/// must stay in.
pub(crate) fn checks(
    job: &Job,
    option: Option<&OptionResult>,
    thread_allows: (Option<Length>, Option<Length>),
) -> Vec<FitCheck> {
    let mut checks = Vec::new();
    if let Some(option) = option {
        checks.push(reach(job, option, thread_allows));
    }
    checks.extend(ears(job));
    checks.extend(parallel(job));
    checks
}

fn reach(
    job: &Job,
    option: &OptionResult,
    (shortest, longest): (Option<Length>, Option<Length>),
) -> FitCheck {
    let part = job.bracket.bars.iter().find(|bar| bar.name == option.plan.bar);
    let adjuster = &job.setups.adjuster;
    let (least, most) = match part {
        Some(part) => (&part.made_min, &part.made_max),
        None => (&adjuster.made_min, &adjuster.made_max),
    };
    // The thread that must stay in can end it before its made range does.
    let tighter = |made: Option<Length>, by_thread: Option<Length>, pick: fn(Length, Length) -> Length| match (
        made,
        by_thread.filter(|_| part.is_none()),
    ) {
        (Some(made), Some(by_thread)) => Some(pick(made, by_thread)),
        (made, by_thread) => made.or(by_thread),
    };
    let least = tighter(length_of(least), shortest, Length::max);
    let most = tighter(length_of(most), longest, Length::min);
    let (Some(least), Some(most)) = (least, most) else {
        let ask = Phrase::plain(
            "How short and how long the bar goes is not known: measure it before anything is welded.",
        );
        return check("the bar reaches, both ways", FitVerdict::Open, ask);
    };
    let wanted = option.length_mm;
    let (out, inward) = (most - wanted, wanted - least);
    let verdict =
        if out >= Length::ZERO && inward >= Length::ZERO { FitVerdict::Good } else { FitVerdict::Bad };
    check(
        "the bar reaches, both ways",
        verdict,
        Phrase::of(|w| {
            let room = |room: Length| {
                if room < Length::ZERO {
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
pub(crate) fn conversion(
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
