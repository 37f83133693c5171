//! What does not agree of a mechanism, and what had to be assumed.

use super::cycle::{arm, body};
use derecho_core::measure::physical::{spring_rate, weight};
use derecho_core::measure::typed::mark;
use derecho_core::measure::{Force, Length, Phrase, SpringRate};
use derecho_core::pose::body::BodyName;

use derecho_job::assembly::message::{AssemblyMessage, AssumedLength, Coordinate, PointName};
use derecho_job::assembly::named::LikelyCause;
use derecho_job::defaults;

pub(super) fn assembly(message: &AssemblyMessage) -> Phrase {
    match message {
        AssemblyMessage::AxleHeight { mm } => axle_height(*mm),
        AssemblyMessage::Inside { parts, gap } => inside(parts, *gap),
        AssemblyMessage::Point { name, assumed } => point(name, assumed),
        AssemblyMessage::UpperArmOnTheLeft => upper_arm_on_the_left(),
        AssemblyMessage::StraightUpAndDown => {
            Phrase::plain("the axle goes straight up and down, because its track bar is not measured")
        }
        AssemblyMessage::RigidSprings => rigid_springs(),
        AssemblyMessage::Unlike { name, length, apart, cause } => unlike(name, *length, *apart, *cause),
        AssemblyMessage::BushSpacing => bush_spacing(),
        AssemblyMessage::AxleEye { usual } => axle_eye(*usual),
        AssemblyMessage::EyeAboveTheAxle => eye_above_the_axle(),
        AssemblyMessage::FrameEye { half } => frame_eye(*half),
        AssemblyMessage::Kingpin { usual } => kingpin(*usual),
        AssemblyMessage::UprightKingpin => upright_kingpin(),
        AssemblyMessage::AxleWeight { on_it } => axle_weight(*on_it),
        AssemblyMessage::OtherWeight { on_it } => other_weight(*on_it),
        AssemblyMessage::UnsprungWeight { on_it } => unsprung_weight(*on_it),
        AssemblyMessage::Gravity { above_hub, good_to } => gravity(*above_hub, *good_to),
        AssemblyMessage::Springs { rate, other } => springs(*rate, *other),
        AssemblyMessage::Length { what, length } => self::length(*what, *length),
        AssemblyMessage::OtherBarNotEntered { usual } => other_bar(*usual),
        AssemblyMessage::Station { wheelbase, behind_front } => station(*wheelbase, *behind_front),
    }
}

fn other_bar(usual: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "a {} sway bar at the other axle, because none is entered: measure it, or say that there is none",
            w.distance(usual)
        )
    })
}

pub(crate) fn axle_height(mm: f64) -> Phrase {
    Phrase::of(|w| format!("axle center {} above the floor", w.distance(Length::from_mm(mm))))
}

/// A part inside another before anything moves; `gap` is negative, mm.
pub(crate) fn inside(parts: &(BodyName, BodyName), gap: f64) -> Phrase {
    Phrase::of(|w| {
        format!(
            "The {0} overlaps the {2} by {1} as it stands. Check where both were measured and how thick they are.",
            body(&parts.1),
            w.distance(Length::from_mm(gap)),
            body(&parts.0)
        )
    })
}

/// What is assumed of a point: whether, what, and where in mm.
pub(crate) fn point(name: &PointName, assumed: &[(bool, Coordinate, f64)]) -> Phrase {
    Phrase::of(|w| {
        let parts: Vec<String> = assumed
            .iter()
            .filter(|(open, ..)| *open)
            .map(|(_, what, mm)| format!("{} {}", coordinate(*what), w.distance(Length::from_mm(*mm))))
            .collect();
        format!("{}: {}", point_name(name), parts.join(", "))
    })
}

pub(crate) fn upper_arm_on_the_left() -> Phrase {
    Phrase::plain("the upper control arm is on the left")
}

pub(crate) fn rigid_springs() -> Phrase {
    Phrase::plain("leaf springs that hold the axle fore and aft with no give")
}

/// An arm whose length and ends do not agree, with the likely cause; mm.
pub(crate) fn unlike(name: &str, length: f64, apart: f64, cause: LikelyCause) -> Phrase {
    let cause = likely_cause(cause);
    Phrase::of(|w| {
        format!(
            "The {} is {} long, but its ends are {} apart: {} difference. {cause} The measured length is used.",
            arm(name),
            w.distance(Length::from_mm(length)),
            w.distance(Length::from_mm(apart)),
            w.distance(Length::from_mm(apart - length))
        )
    })
}

pub(crate) fn bush_spacing() -> Phrase {
    Phrase::of(|w| {
        format!("radius arm bushings {} apart", w.distance(Length::from_mm(defaults::BUSH_SPACING)))
    })
}

pub(crate) fn axle_eye(usual: Length) -> Phrase {
    Phrase::of(|w| format!("axle end of the bar {} above the floor", w.distance(usual)))
}

pub(crate) fn eye_above_the_axle() -> Phrase {
    Phrase::plain("axle end of the bar straight above the axle center")
}

pub(crate) fn frame_eye(half: Length) -> Phrase {
    Phrase::of(|w| format!("frame end of the bar {} from the centerline", w.distance(half)))
}

pub(crate) fn kingpin(usual: Length) -> Phrase {
    Phrase::of(|w| format!("kingpin {} from the centerline", w.distance(usual)))
}

pub(crate) fn upright_kingpin() -> Phrase {
    Phrase::plain("kingpin taken as upright (bump steer can be up to 8 % off)")
}

pub(crate) fn axle_weight(on_it: Force) -> Phrase {
    Phrase::of(|w| format!("{} on this axle", weight(w, on_it)))
}

pub(crate) fn other_weight(on_it: Force) -> Phrase {
    Phrase::of(|w| format!("{} on the other axle", weight(w, on_it)))
}

pub(crate) fn unsprung_weight(on_it: Force) -> Phrase {
    Phrase::of(|w| format!("axle weight {}", weight(w, on_it)))
}

pub(crate) fn gravity(above_hub: Length, good_to: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "center of gravity {} above the hubs, plus the lift, ±{}",
            w.distance(above_hub),
            w.distance(good_to)
        )
    })
}

pub(crate) fn springs(rate: SpringRate, other: bool) -> Phrase {
    let place = if other { "at the other axle" } else { "at this axle" };
    Phrase::of(|w| format!("{} springs {place}", spring_rate(w, rate)))
}

pub(crate) fn length(what: AssumedLength, length: Length) -> Phrase {
    let what = match what {
        AssumedLength::SpringSpacing => "distance between the springs, this axle:",
        AssumedLength::OtherTrack => "track width of the other axle, the same as this one:",
        AssumedLength::OtherSwayDiameter => "diameter of the other axle's sway bar:",
        AssumedLength::OtherSwayArm => "sway bar arm at the other axle:",
        AssumedLength::OtherSwayBar => "straight length of the other axle's sway bar:",
        AssumedLength::OtherSpringSpacing => "distance between the springs, other axle:",
        AssumedLength::OtherBump => "up-travel of the other axle, the same as this one:",
        AssumedLength::OtherDroop => "down-travel of the other axle, the same as this one:",
        AssumedLength::OtherRollCentre => "roll center of the other axle:",
        AssumedLength::RoofHeight => "height of the roof load:",
    };
    Phrase::of(|w| format!("{what} {}", w.distance(length)))
}

/// Where the centre of gravity stands: a share of the wheelbase behind the front axle.
pub(crate) fn station(wheelbase: Length, behind_front: f64) -> Phrase {
    Phrase::of(|w| {
        format!(
            "center of gravity {} behind the front axle, {} wheelbase, {:.0} % on the front",
            w.distance(wheelbase * behind_front),
            w.distance(wheelbase),
            (1.0 - behind_front) * 100.0
        )
    })
}

/// What an unlikely measure would fit with.
pub(super) const fn likely_cause(cause: LikelyCause) -> &'static str {
    match cause {
        LikelyCause::OtherSide => {
            "The numbers fit if one end is on the other side of center: check both sideways measurements."
        }
        LikelyCause::FromTheRail => {
            "The numbers fit if one sideways measurement was taken from the frame rail instead of the centerline."
        }
        LikelyCause::Misread => {
            "The numbers fit if the tape was misread by an inch or two: measure the length again."
        }
        LikelyCause::OverTheEyes => {
            "That is about the width of a bar eye: was the length measured over the outside of the eyes instead of center to center?"
        }
        LikelyCause::Unknown => {
            "Measure the length again center to center, then whichever end you trust least."
        }
    }
}

/// What a point is called.
fn point_name(name: &PointName) -> String {
    match name {
        PointName::ArmAxleEnd(name) => format!("{}, axle end", arm(name)),
        PointName::ArmBodyEnd(name) => format!("{}, body end", arm(name)),
        PointName::PitmanEnd => "pitman end of the drag link".to_owned(),
        PointName::AxleEnd => "axle end of the drag link".to_owned(),
        PointName::Named(name) => mark(name),
    }
}

const fn coordinate(coordinate: Coordinate) -> &'static str {
    match coordinate {
        Coordinate::Height => "height",
        Coordinate::Sideways => "distance from the centerline",
        Coordinate::ForeAft => "fore and aft",
    }
}
