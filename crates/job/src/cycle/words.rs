//! What the limits are called and what is said about them.

use crate::assembly::words::pair;
use crate::bar::words::sleeve_turns;
use derecho_core::fastener::Thread;
use derecho_core::measure::phrase::Words;
use derecho_core::measure::phrase::degrees;
use derecho_core::measure::{Angle, Length, Phrase, Side};
use derecho_core::pose::mechanism::{Level, LinkEnd, Mechanism, Watch, Watched};
use derecho_core::pose::travel::Way;

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

/// `tight` is the travel at which the drag link no longer reaches, where there is one.
pub(crate) fn bump_steer(per_mm: f64, (worst, at): (Angle, Length), tight: Option<Length>) -> Phrase {
    Phrase::of(|w| {
        let step = w.round_step();
        let rate = per_mm * step.to_mm();
        if rate.abs() < 0.005 && worst.abs().to_degrees() < 0.05 {
            return "Bumps do not steer it.".to_owned();
        }
        let way = |at: Length| if at > Length::ZERO { "bump" } else { "droop" };
        let place = |at: Length| format!("{} {}", w.distance(at), way(at));
        let tight = tight.map_or_else(String::new, |tight| {
            format!(
                " From about {} on the drag link does not reach: it pulls the wheels round to their stops.",
                place(tight)
            )
        });
        format!(
            "Every {} of bump steers {:.2}° to the {}; over the travel at most {} to the {}, at {}.{tight}",
            w.distance(step),
            rate.abs(),
            Side::of(rate).word(),
            degrees(worst),
            Side::of(worst.to_radians()).word(),
            place(at)
        )
    })
}

pub(crate) fn link_match(
    bar: Option<Angle>,
    drag: Angle,
    match_: Option<(Angle, f64)>,
    same_way: bool,
) -> Phrase {
    let (Some(bar), Some((difference, ratio))) = (bar, match_) else {
        return Phrase::plain(&format!("The drag link stands at {}.", degrees(drag)));
    };
    let verdict = if !same_way {
        "their body ends are on opposite sides, so that they swing opposite ways and bump steers"
    } else if difference.abs().to_degrees() < 1.0 && (0.9..=1.1).contains(&ratio) {
        "they match"
    } else {
        "raise or lower the link's end together with the bar's"
    };
    Phrase::plain(&format!(
        "Bar {}, drag link {}: {} apart, lengths {ratio:.2} to 1; {verdict}.",
        degrees(bar),
        degrees(drag),
        degrees(difference)
    ))
}

pub(crate) fn link_change(now: Length, straight: Length, thread: Option<&Thread>) -> Phrase {
    let change = straight - now;
    let turns = thread.and_then(|thread| sleeve_turns(thread, now, straight));
    Phrase::of(|w| {
        if change.abs() < Length::from_mm(0.4) {
            return "The steering wheel stays straight.".to_owned();
        }
        let verb = if change > Length::ZERO { "Lengthen" } else { "Shorten" };
        let turns = turns.as_ref().map_or_else(String::new, |turns| format!(", {}", turns.in_unit(w.unit())));
        format!(
            "{verb} the drag link {}{turns}, and the steering wheel is straight again.",
            w.distance(change)
        )
    })
}

pub(crate) fn nothing_yet() -> Phrase {
    Phrase::plain("Nothing can be cycled yet")
}

/// Wheel travels as a place, mm.
pub(crate) fn at_place(left: f64, right: f64) -> Phrase {
    Phrase::of(|w| place(w, left, right))
}

/// What ends a way, and where: wheel travels, mm.
pub(crate) fn ends(mechanism: &Mechanism, what: &str, at: (f64, f64)) -> Phrase {
    let place = met_place(mechanism, at);
    Phrase::of(|w| format!("{what} {}", place.in_unit(w.unit())))
}

/// Where a limit is met: at a place of the travel, or as it stands before anything moves.
pub(crate) fn met_place(mechanism: &Mechanism, (left, right): (f64, f64)) -> Phrase {
    let stands = |travel: f64| (travel - mechanism.driven()).abs() < 0.5;
    if mechanism.driven() != 0.0 && stands(left) && stands(right) {
        return Phrase::plain("as it stands");
    }
    Phrase::of(|w| format!("at {}", place(w, left, right)))
}

pub(crate) fn free_to_its_stop((left, right): (f64, f64)) -> Phrase {
    Phrase::of(|w| format!("free to its stop, {}", place(w, left, right)))
}

pub(crate) fn past(happens: &str, place: &Phrase) -> Phrase {
    Phrase::of(|w| format!("{happens} at {}", place.in_unit(w.unit())))
}

pub(crate) fn free_but(happens: &str, place: &Phrase) -> Phrase {
    Phrase::of(|w| format!("Free to its stops. {happens} at {}", place.in_unit(w.unit())))
}

/// `obstacles` is how many were measured, `sway_bar` whether there is one, which is held against nothing here.
pub(crate) fn free(obstacles: usize, sway_bar: bool) -> Phrase {
    let of_the_sway_bar = if sway_bar {
        ". The sway bar is not checked here: look at it against control arms and track bar yourself"
    } else {
        ""
    };
    Phrase::plain(&match obstacles {
        0 => format!(
            "Free to its stops by joints and lengths. No obstacle was measured: clearance is not checked{of_the_sway_bar}"
        ),
        1 => format!("Free to its stops, clear of the one obstacle measured{of_the_sway_bar}"),
        many => format!("Free to its stops, clear of the {many} obstacles measured{of_the_sway_bar}"),
    })
}

pub(crate) fn brief_free(obstacles: usize) -> Phrase {
    Phrase::plain(if obstacles == 0 { "clearance not checked" } else { "free to its stops" })
}

/// Half an inch past the stops: what ends the travel there, or nothing.
pub(crate) fn past_stops(ends: Option<&Phrase>, obstacles: usize) -> Phrase {
    Phrase::of(|w| {
        let past = w.distance(crate::defaults::PAST_THE_STOPS);
        match ends {
            None if obstacles == 0 => {
                format!("{past} past its stops joints and lengths still do; clearance is not checked.")
            }
            None => format!("{past} past its stops it is still clear: a stop that gives changes nothing."),
            Some(ends) => format!(
                "Clear to its stops, but not {past} past them: {}. A bump stop gives, and wears; make the room now.",
                ends.in_unit(w.unit())
            ),
        }
    })
}

/// What ends the travel first, as a clause.
pub(crate) fn brief_clause(
    mechanism: &Mechanism,
    way: Way,
    what: Option<Watched>,
    (left, right): (f64, f64),
) -> Phrase {
    let does = match what {
        None => "the bar is pulled tight",
        Some(Watched::Tilt { .. }) => "a joint is out of tilt",
        Some(Watched::WindUp { .. }) => "a bushing is wound up too far",
        Some(Watched::Bind) => "the axle binds",
        Some(_) => "something touches",
    };
    let stands = |travel: f64| (travel - mechanism.driven()).abs() < 0.5;
    if stands(left) && stands(right) {
        return Phrase::plain(&format!("{does} as it stands"));
    }
    Phrase::of(|w| {
        let most = Length::from_mm(if left.abs() > right.abs() { left } else { right });
        let place = match way {
            Way::Droop | Way::Bump if most < Length::ZERO => "of droop",
            Way::Droop | Way::Bump => "of bump",
            Way::LeftUp | Way::RightUp => "cross-axled",
        };
        format!("{does} at {} {place}", w.distance(most))
    })
}

/// What ends the travel first, for the strip; nothing watched is a bar or arm pulled tight.
pub(crate) fn brief(
    mechanism: &Mechanism,
    way: Way,
    what: Option<Watched>,
    (left, right): (f64, f64),
) -> Phrase {
    let word = match what {
        None => "tight",
        Some(Watched::Tilt { .. }) => "joint out",
        Some(Watched::WindUp { .. }) => "wound up",
        Some(Watched::Bind) => "binds",
        Some(_) => "touches",
    };
    let stands = |travel: f64| (travel - mechanism.driven()).abs() < 0.5;
    if stands(left) && stands(right) {
        // As the stages call that place.
        let place = if mechanism.driven() == 0.0 { "at ride height" } else { "as it stands" };
        return Phrase::plain(&format!("{word} {place}"));
    }
    Phrase::of(|w| {
        let most = Length::from_mm(if left.abs() > right.abs() { left } else { right });
        let place = match way {
            // Driven above or below ride height, either way begins on one side of it and goes through.
            Way::Droop | Way::Bump if most < Length::ZERO => "droop",
            Way::Droop | Way::Bump => "bump",
            Way::LeftUp | Way::RightUp => "crossed",
        };
        format!("{word} {} {place}", w.distance(most))
    })
}
