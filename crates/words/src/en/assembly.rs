//! What does not agree of a mechanism, and what had to be assumed.

use derecho_core::measure::physical::{spring_rate, weight};
use derecho_core::measure::{Force, Length, Phrase, SpringRate};

use derecho_job::assembly::message::{AssemblyMessage, AssumedLength, Coordinate, PointName};
use derecho_job::assembly::named::LikelyCause;
use derecho_job::defaults;

pub(super) fn assembly(message: &AssemblyMessage) -> Phrase {
    match message {
        AssemblyMessage::AxleHeight { mm } => axle_height(*mm),
        AssemblyMessage::Inside { parts, gap } => inside(parts, *gap),
        AssemblyMessage::Point { name, assumed } => point(name, assumed),
        AssemblyMessage::UpperArmOnTheLeft => upper_arm_on_the_left(),
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
        AssemblyMessage::NoOtherBar => no_other_bar(),
        AssemblyMessage::Station { wheelbase, behind_front } => station(*wheelbase, *behind_front),
    }
}

pub(crate) fn axle_height(mm: f64) -> Phrase {
    Phrase::of(|w| format!("axle centre {} above the floor", w.distance(Length::from_mm(mm))))
}

/// A part inside another before anything moves; `gap` is negative, mm.
pub(crate) fn inside(parts: &(String, String), gap: f64) -> Phrase {
    Phrase::of(|w| {
        format!(
            "The {} lies {} inside the {} at ride height already. Check where both were measured, and how thick they are.",
            parts.1,
            w.distance(Length::from_mm(gap)),
            parts.0
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
    Phrase::plain("the upper arm is on the left")
}

pub(crate) fn rigid_springs() -> Phrase {
    Phrase::plain("leaf springs hold the axle rigidly fore and aft")
}

/// An arm whose length and ends do not agree, with the likely cause; mm.
pub(crate) fn unlike(name: &str, length: f64, apart: f64, cause: LikelyCause) -> Phrase {
    let cause = likely_cause(cause);
    Phrase::of(|w| {
        format!(
            "The {name} measures {}, but its ends are {} apart: {} off. {cause} The length is used.",
            w.distance(Length::from_mm(length)),
            w.distance(Length::from_mm(apart)),
            w.distance(Length::from_mm(apart - length))
        )
    })
}

pub(crate) fn bush_spacing() -> Phrase {
    Phrase::of(|w| {
        format!("bushes of a radius arm {} apart", w.distance(Length::from_mm(defaults::BUSH_SPACING)))
    })
}

pub(crate) fn axle_eye(usual: Length) -> Phrase {
    Phrase::of(|w| format!("the bar's axle eye {} above the floor", w.distance(usual)))
}

pub(crate) fn eye_above_the_axle() -> Phrase {
    Phrase::plain("the bar's axle eye is straight above the axle centre")
}

pub(crate) fn frame_eye(half: Length) -> Phrase {
    Phrase::of(|w| format!("the bar's frame eye {} from the centreline", w.distance(half)))
}

pub(crate) fn kingpin(usual: Length) -> Phrase {
    Phrase::of(|w| format!("kingpin {} from the middle", w.distance(usual)))
}

pub(crate) fn upright_kingpin() -> Phrase {
    Phrase::plain("an upright kingpin, which costs up to 8 % of bump steer")
}

pub(crate) fn axle_weight(on_it: Force) -> Phrase {
    Phrase::of(|w| format!("{} on this axle", weight(w, on_it)))
}

pub(crate) fn other_weight(on_it: Force) -> Phrase {
    Phrase::of(|w| format!("{} on the other axle", weight(w, on_it)))
}

pub(crate) fn unsprung_weight(on_it: Force) -> Phrase {
    Phrase::of(|w| format!("an axle itself weighs {}", weight(w, on_it)))
}

pub(crate) fn gravity(above_hub: Length, good_to: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "centre of gravity {} above the hubs and the lift on top, good to {}",
            w.distance(above_hub),
            w.distance(good_to)
        )
    })
}

pub(crate) fn springs(rate: SpringRate, other: bool) -> Phrase {
    let place = if other { "at the other axle" } else { "at this axle" };
    Phrase::of(|w| format!("springs of {} {place}", spring_rate(w, rate)))
}

pub(crate) fn length(what: AssumedLength, length: Length) -> Phrase {
    let what = match what {
        AssumedLength::SpringSpacing => "between the springs here",
        AssumedLength::OtherTrack => "the other axle's track, as this one's,",
        AssumedLength::OtherSpringSpacing => "between the springs there",
        AssumedLength::OtherBump => "the other axle's travel up, as this one's,",
        AssumedLength::OtherDroop => "the other axle's travel down, as this one's,",
        AssumedLength::OtherRollCentre => "the other axle's roll centre at",
        AssumedLength::RoofHeight => "the roof load at",
    };
    Phrase::of(|w| format!("{what} {}", w.distance(length)))
}

pub(crate) fn no_other_bar() -> Phrase {
    Phrase::plain("no sway bar at the other axle")
}

/// Where the centre of gravity stands: a share of the wheelbase behind the front axle.
pub(crate) fn station(wheelbase: Length, behind_front: f64) -> Phrase {
    Phrase::of(|w| {
        format!(
            "its weight {} behind the front axle of {} of wheelbase, {:.0} % on the front",
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
            "It would fit if one end were on the other side of the centreline: check both sideways distances."
        }
        LikelyCause::FromTheRail => {
            "It would fit if one sideways distance had been taken from the rail instead of the centreline."
        }
        LikelyCause::Misread => "It would fit with a number misread on the tape: read the length again.",
        LikelyCause::OverTheEyes => {
            "An eye is about that wide: was the length taken over the outside of the eyes instead of centre to centre?"
        }
        LikelyCause::Unknown => "Measure its length again, centre to centre, then the end you trust least.",
    }
}

/// What a point is called.
fn point_name(name: &PointName) -> String {
    match name {
        PointName::ArmAxleEnd(arm) => format!("{arm}, axle end"),
        PointName::ArmBodyEnd(arm) => format!("{arm}, body end"),
        PointName::PitmanEnd => "pitman end of the drag link".to_owned(),
        PointName::AxleEnd => "axle end of the drag link".to_owned(),
        PointName::Named(name) => name.clone(),
    }
}

const fn coordinate(coordinate: Coordinate) -> &'static str {
    match coordinate {
        Coordinate::Height => "height",
        Coordinate::Sideways => "out from the middle",
        Coordinate::ForeAft => "fore and aft",
    }
}
