//! The arithmetic of the bar, line by line, with this job's numbers.

use derecho_core::bar::{FrontView, Recentring};
use derecho_core::measure::phrase::Value;
use derecho_core::measure::{Heading, Length, Meaning, Step, Working};

use crate::document::Job;
use crate::setups::known::eye_heights;

pub(crate) fn angle_working(view: &FrontView, job: &Job) -> Working {
    let length = Value::Length;
    let terms = [("L", length(view.length())), ("v", length(view.rise())), ("d", length(view.fore_aft()))];
    let mut steps = Vec::new();
    if let Some((frame, axle)) = eye_heights(job) {
        // Counted to ride height and back: what is left over of that was not added by anybody.
        let added = view.rise() - (frame - axle);
        let changed = added.abs() > Length::from_mm(1e-6);
        let note = if changed { Meaning::RiseAsRead } else { Meaning::Rise };
        steps.push(Step::new(
            note,
            "v = {F_z} − {A_z}",
            &[("F_z", length(frame)), ("A_z", length(axle))],
            length(frame - axle),
        ));
        if changed {
            steps.push(Step::new(
                Meaning::RiseDriven,
                "v = {v} + {added}",
                &[("v", length(frame - axle)), ("added", length(added))],
                length(view.rise()),
            ));
        }
    }
    steps.push(Step::new(Meaning::Reach, "h = √({L}² − {v}² − {d}²)", &terms, length(view.reach())));
    steps.push(Step::new(
        Meaning::FrontViewAngle,
        "θ = atan({v} / {h})",
        &[("v", length(view.rise())), ("h", length(view.reach()))],
        Value::Angle(view.angle()),
    ));
    steps.push(Step::new(
        Meaning::LateralRate,
        "dy/dt = −{s} · {v} / {h}",
        &[
            ("s", Value::Number(view.frame_eye_side().sign(), 0)),
            ("v", length(view.rise())),
            ("h", length(view.reach())),
        ],
        Value::Number(view.lateral_rate(), 5),
    ));
    Working { title: Heading::AngleAndRate, steps }
}

/// A length that is left as it was, or is the maker's: nothing is worked out from where the axle stands.
pub(crate) fn kept_length_working(old: Length, new: Length, stock: bool) -> Working {
    let (old, new, change) = (Value::Length(old), Value::Length(new), Value::Length(new - old));
    let same = if stock {
        Step::new(Meaning::LengthWanted, "L′ = {L_stock}", &[("L_stock", new)], new)
    } else {
        Step::new(Meaning::LengthWanted, "L′ = {L}", &[("L", old)], new)
    };
    let steps = vec![same, Step::new(Meaning::Change, "ΔL = {L′} − {L}", &[("L′", new), ("L", old)], change)];
    Working { title: Heading::CentringLength, steps }
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
            Meaning::ReachWanted,
            "h′ = {h} + {s} · {e}",
            &[("h", length(view.reach())), ("s", s), ("e", length(reached))],
            length(wanted.reach_mm),
        ),
        Step::new(
            Meaning::LengthWanted,
            "L′ = √({h′}² + {v}² + {d}²)",
            &[
                ("h′", length(wanted.reach_mm)),
                ("v", length(planned.rise())),
                ("d", length(planned.fore_aft())),
            ],
            length(wanted.length_mm),
        ),
        Step::new(
            Meaning::Change,
            "ΔL = {L′} − {L}",
            &[("L′", length(wanted.length_mm)), ("L", length(view.length()))],
            length(wanted.change_mm),
        ),
        Step::new(
            Meaning::FirstOrder,
            "ΔL ≈ {s} · {e} · {h} / {L}",
            &[("s", s), ("e", length(offset)), ("h", length(view.reach())), ("L", length(view.length()))],
            length(wanted.first_order_change_mm),
        ),
        Step::new(
            Meaning::HalfDifferenceRule,
            "ΔL ≈ {s} · {e}",
            &[("s", s), ("e", length(offset))],
            length(wanted.thumb_change_mm),
        ),
        Step::new(
            Meaning::RuleError,
            "{thumb} − {ΔL}",
            &[("thumb", length(wanted.thumb_change_mm)), ("ΔL", length(wanted.change_mm))],
            length(wanted.thumb_cost_mm),
        ),
    ];
    Working { title: Heading::CentringLength, steps }
}
