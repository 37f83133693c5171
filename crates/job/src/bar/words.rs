//! What is said about the bar, and how its figures are worked out.

use crate::document::{Job, length_of};
use derecho_core::bar::evidence::{Rise, RiseSource};
use derecho_core::bar::{FrontView, Recentring, Swing};
use derecho_core::measure::phrase::{Value, degrees};
use derecho_core::measure::{Angle, Length, Phrase, Side, Step, Working};
use glam::DVec3;

/// Above this angle a length alone leaves much sideways motion (default of this program).
const STEEP_DEGREES: f64 = 4.0;

pub(crate) fn stands(view: &FrontView) -> Phrase {
    let angle = view.angle();
    let text = if angle.abs().to_degrees() < 0.05 {
        "The bar stands level".to_owned()
    } else {
        let end = if angle > Angle::ZERO { "frame" } else { "axle" };
        format!("The bar stands at {}, {end} end up", degrees(angle))
    };
    Phrase::plain(&text)
}

pub(crate) fn rate_says(view: &FrontView) -> Phrase {
    let rate = view.lateral_rate();
    Phrase::of(|w| {
        if rate.abs() < 0.005 {
            return "A small bump moves the axle sideways hardly at all.".to_owned();
        }
        let side = Side::of(rate).word();
        format!(
            "At this height every {} of bump pushes the axle {} to the {side}.",
            w.distance(w.round_step()),
            w.fine(w.round_step() * rate)
        )
    })
}

pub(crate) fn warnings(job: &Job, rise: &Rise, swing: &Swing) -> Vec<Phrase> {
    let mut warnings = Vec::new();
    let bar = &job.setups.as_found;
    if let Some(difference) = rise.disagreement_mm {
        warnings.push(Phrase::of(|w| {
            format!(
                "The finder and the bolt heights disagree by {} of rise, more than both are good for. The heights are used. Was the finder on a straight part, and zeroed? Were both heights taken from one floor?",
                w.distance(difference)
            )
        }));
    }
    if bar.bent && bar.finder.reading.is_some() {
        warnings.push(Phrase::plain(
            "The bar is bent or tapered: the finder's angle is left aside. Type both bolt heights.",
        ));
    }
    if rise.source == RiseSource::Finder {
        warnings.push(Phrase::of(|w| {
            format!(
                "The rise comes from the finder and is good to {} only. Two bolt heights are better.",
                w.distance(rise.uncertainty_mm)
            )
        }));
    }
    if bar.finder.reading.is_some() && bar.finder.higher_end.is_none() {
        warnings.push(Phrase::plain("Which end of the bar is higher? The finder does not say."));
    }
    for (tight, place) in [(swing.tight_in_droop_mm, "droop"), (swing.tight_in_bump_mm, "bump")] {
        if let Some(travel) = tight {
            warnings.push(Phrase::of(|w| {
                format!(
                    "The bar is pulled tight {} into {place}, before the travel ends.",
                    w.distance(travel)
                )
            }));
        }
    }
    warnings
}

pub(crate) fn angle_working(view: &FrontView, job: &Job) -> Working {
    let length = Value::Length;
    let terms = [("L", length(view.length())), ("v", length(view.rise())), ("d", length(view.fore_aft()))];
    let mut steps = Vec::new();
    let bar = &job.setups.as_found;
    if let (Some(frame), Some(axle)) = (length_of(&bar.frame_eye_height), length_of(&bar.axle_eye_height)) {
        let note = if frame - axle == view.rise() {
            "rise of the frame eye"
        } else {
            "rise of the frame eye as it was read"
        };
        steps.push(Step::new(
            note,
            "v = {F_z} − {A_z}",
            &[("F_z", length(frame)), ("A_z", length(axle))],
            length(frame - axle),
        ));
        if frame - axle != view.rise() {
            let added = view.rise() - (frame - axle);
            steps.push(Step::new(
                "rise at the driven height, with what was added since",
                "v = {v} + {added}",
                &[("v", length(frame - axle)), ("added", length(added))],
                length(view.rise()),
            ));
        }
    }
    steps.push(Step::new("sideways reach", "h = √({L}² − {v}² − {d}²)", &terms, length(view.reach())));
    steps.push(Step::new(
        "angle in front view, + frame end higher",
        "θ = atan({v} / {h})",
        &[("v", length(view.rise())), ("h", length(view.reach()))],
        Value::Angle(view.angle()),
    ));
    steps.push(Step::new(
        "lateral rate: to the left per unit of bump",
        "dy/dt = −{s} · {v} / {h}",
        &[
            ("s", Value::Number(view.frame_eye_side().sign(), 0)),
            ("v", length(view.rise())),
            ("h", length(view.reach())),
        ],
        Value::Number(view.lateral_rate(), 5),
    ));
    Working { title: "Angle and rate".to_owned(), steps }
}

pub(crate) fn length_working(
    view: &FrontView,
    planned: &FrontView,
    offset: Length,
    carried: Length,
    wanted: &Recentring,
) -> Working {
    let length = Value::Length;
    // With a hole moved sideways that much more has to be reached.
    let reached = offset + carried;
    let s = Value::Number(view.frame_eye_side().sign(), 0);
    let steps = vec![
        Step::new(
            "sideways reach wanted; e is the offset, + left",
            "h′ = {h} + {s} · {e}",
            &[("h", length(view.reach())), ("s", s), ("e", length(reached))],
            length(wanted.reach_mm),
        ),
        Step::new(
            "length wanted",
            "L′ = √({h′}² + {v}² + {d}²)",
            &[
                ("h′", length(wanted.reach_mm)),
                ("v", length(planned.rise())),
                ("d", length(planned.fore_aft())),
            ],
            length(wanted.length_mm),
        ),
        Step::new(
            "change",
            "ΔL = {L′} − {L}",
            &[("L′", length(wanted.length_mm)), ("L", length(view.length()))],
            length(wanted.change_mm),
        ),
        Step::new(
            "to first order",
            "ΔL ≈ {s} · {e} · {h} / {L}",
            &[("s", s), ("e", length(offset)), ("h", length(view.reach())), ("L", length(view.length()))],
            length(wanted.first_order_change_mm),
        ),
        Step::new(
            "the half-difference rule of thumb",
            "ΔL ≈ {s} · {e}",
            &[("s", s), ("e", length(offset))],
            length(wanted.thumb_change_mm),
        ),
        Step::new(
            "what the thumb sets too long, − is too short",
            "{thumb} − {ΔL}",
            &[("thumb", length(wanted.thumb_change_mm)), ("ΔL", length(wanted.change_mm))],
            length(wanted.thumb_cost_mm),
        ),
    ];
    Working { title: "The length that centres it".to_owned(), steps }
}

pub(crate) fn length_says(wanted: &Recentring) -> Phrase {
    Phrase::of(|w| {
        let verb = if wanted.change_mm > Length::ZERO { "Lengthen" } else { "Shorten" };
        let by = w.distance(wanted.change_mm);
        if by.starts_with("0\"") || by == "0 mm" {
            "The length is right as it stands".to_owned()
        } else {
            format!("{verb} the bar {by}")
        }
    })
}

pub(crate) fn thumb_says(wanted: &Recentring) -> Phrase {
    Phrase::of(|w| {
        let side = if wanted.thumb_cost_mm.to_mm() * wanted.change_mm.to_mm().signum() > 0.0 {
            "too much"
        } else {
            "too little"
        };
        format!(
            "The half-difference rule says {}: {} {side}.",
            w.decimal(wanted.thumb_change_mm.abs()),
            w.decimal(wanted.thumb_cost_mm.abs())
        )
    })
}

pub(crate) fn leaves_says(planned: &FrontView, droop: Length, bump: Length) -> Phrase {
    let swing = planned.swing(droop, bump);
    Phrase::of(|w| {
        let over = format!(
            "The length centres it here. The bar stays at {}, so over the whole travel the axle still swings {}: {} at full droop, {} at full bump.",
            degrees(planned.angle()),
            w.distance(swing.peak_to_peak_mm),
            w.movement(swing.at_full_droop_mm),
            w.movement(swing.at_full_bump_mm)
        );
        if planned.angle().to_degrees().abs() > STEEP_DEGREES {
            format!(
                "{over} At this angle think of a bracket as well: it puts the angle right, the bar only the centre."
            )
        } else {
            over
        }
    })
}

/// Some hold that a longer bar makes the sideways motion worse. Its rate is a little
/// smaller; but the swing now starts from the centre instead of from the offset.
pub(crate) fn longer_says(
    found: &FrontView,
    planned: &FrontView,
    offset: Length,
    bump: Length,
) -> Option<Phrase> {
    if planned.length() <= found.length() || found.rise().abs().to_mm() < 1.0 {
        return None;
    }
    let (before, after) = (found.lateral_rate().abs(), planned.lateral_rate().abs());
    let tight = |view: &FrontView| view.pulled_tight().1.min(bump);
    let at_bump = (offset + found.shift_at(tight(found)), planned.shift_at(tight(planned)));
    Some(Phrase::of(|w| {
        format!(
            "Does the longer bar make it worse? Its rate is {:.1} % smaller. But it swings from the centre: at full bump the axle is {} with it, and {} as found. The curves show both.",
            (1.0 - after / before) * 100.0,
            w.sideways(at_bump.1),
            w.sideways(at_bump.0)
        )
    }))
}

/// What explains best why a link and its ends do not agree.
pub(crate) fn likely_cause(length: f64, across: DVec3, axle: DVec3, good_to: f64, rail: f64) -> &'static str {
    let fits = |apart: f64| (apart - length).abs() <= 2.0 * good_to;
    let moved = |by: DVec3| fits((across + by).length());
    // One eye on the far side of the centreline: its y was taken with the other sign.
    if moved(DVec3::new(0.0, 2.0 * axle.y, 0.0)) {
        return "It would fit if one end were on the other side of the centreline: check both sideways distances.";
    }
    if moved(DVec3::new(0.0, across.y.signum() * rail, 0.0))
        || moved(DVec3::new(0.0, -across.y.signum() * rail, 0.0))
    {
        return "It would fit if one sideways distance had been taken from the rail instead of the centreline.";
    }
    if [25.4, -25.4, 50.8, -50.8].into_iter().any(|inch| fits(across.length() + inch)) {
        return "It would fit within an inch or two misread on the tape: read the length again.";
    }
    let difference = (across.length() - length).abs();
    if (25.0..=90.0).contains(&difference) {
        return "An eye is about that wide: was the length taken over the outside of the eyes instead of centre to centre?";
    }
    "Measure its length again, centre to centre, then the end you trust least."
}
