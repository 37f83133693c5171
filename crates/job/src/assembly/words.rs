//! Every sentence about what was assumed and what does not agree.

use derecho_core::measure::physical::{spring_rate, weight};
use derecho_core::measure::{Force, Length, Phrase, SpringRate};
use derecho_core::pose::mechanism::{Mechanism, Watched};

use crate::defaults;

/// The two parts a gap lies between, the moving one first.
pub(crate) fn pair(mechanism: &Mechanism, what: Watched) -> (String, String) {
    let member = |index: usize| {
        mechanism.members().get(index).map_or_else(|| "drag link".to_owned(), |member| member.name.clone())
    };
    let obstacle = |index: usize| mechanism.obstacles()[index].name.clone();
    match what {
        Watched::Gap { member: m, obstacle: o } => (member(m), obstacle(o)),
        Watched::ObstacleGap { axle, body } => (obstacle(axle), obstacle(body)),
        Watched::BarToDragLink => (member(mechanism.bar().unwrap_or(0)), "drag link".to_owned()),
        Watched::Tilt { member: m, .. } | Watched::WindUp { member: m, .. } => (member(m), String::new()),
        Watched::Bind => ("links".to_owned(), String::new()),
    }
}

pub(super) fn axle_height(mm: f64) -> Phrase {
    Phrase::of(|w| format!("axle centre {} above the floor", w.distance(Length::from_mm(mm))))
}

/// A part inside another before anything moves; `gap` is negative, mm.
pub(super) fn inside(parts: &(String, String), gap: f64) -> Phrase {
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
pub(super) fn point(name: &str, assumed: &[(bool, &str, f64)]) -> Phrase {
    Phrase::of(|w| {
        let parts: Vec<String> = assumed
            .iter()
            .filter(|(open, ..)| *open)
            .map(|(_, what, mm)| format!("{what} {}", w.distance(Length::from_mm(*mm))))
            .collect();
        format!("{name}: {}", parts.join(", "))
    })
}

pub(super) fn upper_arm_on_the_left() -> Phrase {
    Phrase::plain("the upper arm is on the left")
}

pub(super) fn rigid_springs() -> Phrase {
    Phrase::plain("leaf springs hold the axle rigidly fore and aft")
}

/// An arm whose length and ends do not agree, with the likely cause; mm.
pub(super) fn unlike(name: &str, length: f64, apart: f64, cause: &str) -> Phrase {
    Phrase::of(|w| {
        format!(
            "The {name} measures {}, but its ends are {} apart: {} off. {cause} The length is used.",
            w.distance(Length::from_mm(length)),
            w.distance(Length::from_mm(apart)),
            w.distance(Length::from_mm(apart - length))
        )
    })
}

pub(super) fn bush_spacing() -> Phrase {
    Phrase::of(|w| {
        format!("bushes of a radius arm {} apart", w.distance(Length::from_mm(defaults::BUSH_SPACING)))
    })
}

pub(super) fn axle_eye(usual: Length) -> Phrase {
    Phrase::of(|w| format!("the bar's axle eye {} above the floor", w.distance(usual)))
}

pub(super) fn eye_above_the_axle() -> Phrase {
    Phrase::plain("the bar's axle eye is straight above the axle centre")
}

pub(super) fn frame_eye(half: Length) -> Phrase {
    Phrase::of(|w| format!("the bar's frame eye {} from the centreline", w.distance(half)))
}

pub(super) fn kingpin(usual: Length) -> Phrase {
    Phrase::of(|w| format!("kingpin {} from the middle", w.distance(usual)))
}

pub(super) fn upright_kingpin() -> Phrase {
    Phrase::plain("an upright kingpin, which costs up to 8 % of bump steer")
}

pub(super) fn axle_weight(on_it: Force) -> Phrase {
    Phrase::of(|w| format!("{} on this axle", weight(w, on_it)))
}

pub(super) fn other_weight(on_it: Force) -> Phrase {
    Phrase::of(|w| format!("{} on the other axle", weight(w, on_it)))
}

pub(super) fn unsprung_weight(on_it: Force) -> Phrase {
    Phrase::of(|w| format!("an axle itself weighs {}", weight(w, on_it)))
}

pub(super) fn gravity(above_hub: Length, good_to: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "centre of gravity {} above the hubs and the lift on top, good to {}",
            w.distance(above_hub),
            w.distance(good_to)
        )
    })
}

pub(super) fn springs(rate: SpringRate, place: &str) -> Phrase {
    Phrase::of(|w| format!("springs of {} {place}", spring_rate(w, rate)))
}

pub(super) fn length(what: &str, length: Length) -> Phrase {
    Phrase::of(|w| format!("{what} {}", w.distance(length)))
}

pub(super) fn no_other_bar() -> Phrase {
    Phrase::plain("no sway bar at the other axle")
}

/// Where the centre of gravity stands: a share of the wheelbase behind the front axle.
pub(super) fn station(wheelbase: Length, behind_front: f64) -> Phrase {
    Phrase::of(|w| {
        format!(
            "its weight {} behind the front axle of {} of wheelbase, {:.0} % on the front",
            w.distance(wheelbase * behind_front),
            w.distance(wheelbase),
            (1.0 - behind_front) * 100.0
        )
    })
}
