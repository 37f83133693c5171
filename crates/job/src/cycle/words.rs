//! What the limits are called and what is said about them.

use derecho_core::measure::phrase::Words;
use derecho_core::measure::{Angle, Length, Phrase};
use derecho_core::pose::cycle::Way;
use derecho_core::pose::mechanism::{Level, LinkEnd, Mechanism, Watch, Watched};

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

fn end_word(mechanism: &Mechanism, member: usize, end: LinkEnd) -> &'static str {
    match (end, mechanism.bar() == Some(member)) {
        (LinkEnd::Body, true) => "frame eye",
        (LinkEnd::Axle, true) => "axle eye",
        (LinkEnd::Body, false) => "body end",
        (LinkEnd::Axle, false) => "axle end",
    }
}

/// The name of a limit.
pub(crate) fn name(mechanism: &Mechanism, what: Watched) -> String {
    let joint = |member: usize, end: LinkEnd| mechanism.members()[member].joints[end as usize].kind.word();
    let at = |member: usize, end: LinkEnd| {
        format!("{}, {}", mechanism.members()[member].name, end_word(mechanism, member, end))
    };
    match what {
        Watched::Tilt { member, end } => format!("{}: tilt of its {}", at(member, end), joint(member, end)),
        Watched::WindUp { member, end } => {
            format!("{}: wind-up of its {}", at(member, end), joint(member, end))
        }
        Watched::Gap { .. } | Watched::ObstacleGap { .. } | Watched::BarToDragLink => {
            let (first, second) = pair(mechanism, what);
            format!("{first} to {second}")
        }
        Watched::Bind if mechanism.suspension().links().len() > 4 => "bind between the links".to_owned(),
        Watched::Bind => "give of the radius arms' bushes".to_owned(),
    }
}

/// What happens at a limit, as the start of a sentence.
pub(crate) fn happens(mechanism: &Mechanism, what: Watched, level: Level) -> String {
    let over = level == Level::Over;
    let part = |member: usize, end: LinkEnd| {
        format!("{} of the {}", end_word(mechanism, member, end), mechanism.members()[member].name)
    };
    match what {
        Watched::Tilt { member, end } if over => format!("The {} is out of tilt", part(member, end)),
        Watched::Tilt { member, end } => format!("The {} tilts a lot", part(member, end)),
        Watched::WindUp { member, end } if over => format!("The {} winds up too far", part(member, end)),
        Watched::WindUp { member, end } => format!("The {} winds up a lot", part(member, end)),
        Watched::Gap { .. } | Watched::ObstacleGap { .. } | Watched::BarToDragLink => {
            let (first, second) = pair(mechanism, what);
            if over {
                format!("The {first} touches the {second}")
            } else {
                format!("The {first} comes near the {second}")
            }
        }
        Watched::Bind if mechanism.suspension().links().len() > 4 => {
            if over {
                "The links bind".to_owned()
            } else {
                "The links begin to bind".to_owned()
            }
        }
        Watched::Bind if over => "The radius arms' bushes are used up".to_owned(),
        Watched::Bind => "The radius arms' bushes give a lot".to_owned(),
    }
}

/// Words for where a pose is: `3 1/4" droop`, `cross-axled, left wheel 2" up`.
pub(crate) fn place(w: Words, left: f64, right: f64) -> String {
    let side = |name: &str, mm: f64| {
        let way = if mm >= 0.0 { "up" } else { "down" };
        format!("{name} wheel {} {way}", w.distance(Length::from_mm(mm)))
    };
    if left.abs() < 0.5 && right.abs() < 0.5 {
        return "ride height".to_owned();
    }
    if (left - right).abs() < 0.5 {
        let word = if left > 0.0 { "bump" } else { "droop" };
        return format!("{} {word}", w.distance(Length::from_mm(left)));
    }
    format!("{}, {}", side("left", left), side("right", right))
}

/// What a way is called.
pub(crate) const fn way(way: Way) -> &'static str {
    match way {
        Way::Droop => "both wheels down",
        Way::Bump => "both wheels up",
        Way::LeftUp => "cross-axled, left up",
        Way::RightUp => "cross-axled, right up",
    }
}

/// A watched figure with its unit.
pub(crate) fn figure(watch: &Watch, value: f64) -> Phrase {
    if watch.is_angle() {
        return Phrase::plain(&derecho_core::measure::phrase::degrees(Angle::from_radians(value)));
    }
    let length = Length::from_mm(value);
    Phrase::of(|w| {
        if watch.is_gap() && value < 0.0 {
            format!("{} into it", w.distance(length))
        } else if watch.is_gap() {
            w.distance(length)
        } else {
            w.fine(length)
        }
    })
}

/// Whether a watched figure is of the track bar.
pub(crate) fn is_bar(mechanism: &Mechanism, what: Watched) -> bool {
    match what {
        Watched::Tilt { member, .. } | Watched::WindUp { member, .. } | Watched::Gap { member, .. } => {
            mechanism.bar() == Some(member)
        }
        Watched::BarToDragLink => true,
        Watched::ObstacleGap { .. } | Watched::Bind => false,
    }
}

/// Whether a watched figure is the tilt of a joint.
pub(crate) const fn is_tilt(what: Watched) -> bool {
    matches!(what, Watched::Tilt { .. })
}
