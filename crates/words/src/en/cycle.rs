//! Stage Cycle.

use derecho_core::measure::phrase::{Words, degrees};
use derecho_core::measure::typed::mark;
use derecho_core::measure::{Angle, Length, Phrase, Side};
use derecho_core::pose::body::BodyName;
use derecho_core::pose::joint::JointKind;
use derecho_core::pose::mechanism::Level;
use derecho_core::pose::travel::Way;
use derecho_job::cycle::limit::{CrossedAt, EndsAt, EndsBy, Happening, LimitName, NamedEnd, NamedLimit};
use derecho_job::cycle::message::{CycleMessage, PlanName};

use crate::marked as say;

pub(super) fn cycle(message: &CycleMessage) -> Phrase {
    match message {
        CycleMessage::Figure { angle, gap, value } => figure(*angle, *gap, *value),
        CycleMessage::BumpSteer { per_mm, worst, at, tight } => bump_steer(*per_mm, (*worst, *at), *tight),
        CycleMessage::LinkMatch { bar, drag, match_, same_way } => {
            link_match(*bar, *drag, *match_, *same_way)
        }
        CycleMessage::LinkChange { change, turns } => link_change(*change, turns.as_ref().map(say).as_ref()),
        CycleMessage::Body(name) => Phrase::plain(&body(name)),
        CycleMessage::Stands { first, second, gap } => stands(first, second, *gap),
        CycleMessage::NotJudged { bodies } => not_judged(bodies),
        CycleMessage::LimitName(name) => Phrase::plain(&limit_name(name)),
        CycleMessage::Way(way) => Phrase::plain(way_name(*way)),
        CycleMessage::Plan(PlanName::Trial { holes }) => Phrase::plain(&mark(holes)),
        CycleMessage::Plan(PlanName::AsSet) => Phrase::plain("as set"),
        CycleMessage::Plan(PlanName::Plan) => Phrase::plain("plan"),
        CycleMessage::NothingYet => nothing_yet(),
        CycleMessage::AtPlace { left, right } => at_place(*left, *right),
        CycleMessage::Ends { what, place } => ends(what, *place),
        CycleMessage::Happens(what) => Phrase::plain(&happens(what)),
        CycleMessage::FreeToItsStop { left, right } => free_to_its_stop((*left, *right)),
        CycleMessage::Past { happens, left, right } => past(happens, *left, *right),
        CycleMessage::FreeBut { happens, left, right } => free_but(happens, *left, *right),
        CycleMessage::Free { obstacles, sway_bar } => free(*obstacles, *sway_bar),
        CycleMessage::BriefFree { obstacles } => brief_free(*obstacles),
        CycleMessage::PastStops { ends, obstacles } => {
            past_stops(ends.as_ref().map(say).as_ref(), *obstacles)
        }
        CycleMessage::BriefClause { by, at } => brief_clause(*by, *at),
        CycleMessage::Brief { by, at } => brief(*by, *at),
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

/// A watched figure with its unit.
fn figure(is_angle: bool, is_gap: bool, value: f64) -> Phrase {
    if is_angle {
        return Phrase::plain(&derecho_core::measure::phrase::degrees(Angle::from_radians(value)));
    }
    let length = Length::from_mm(value);
    Phrase::of(|w| {
        if is_gap && value < 0.0 {
            format!("{} overlap", w.distance(length))
        } else if is_gap {
            w.distance(length)
        } else {
            w.fine(length)
        }
    })
}

/// `tight` is the travel at which the drag link no longer reaches, where there is one.
pub(crate) fn bump_steer(per_mm: f64, (worst, at): (Angle, Length), tight: Option<Length>) -> Phrase {
    Phrase::of(|w| {
        let step = w.round_step();
        let rate = per_mm * step.to_mm();
        if rate.abs() < 0.005 && worst.abs().to_degrees() < 0.05 {
            return "No bump steer.".to_owned();
        }
        let way = |at: Length| if at > Length::ZERO { "bump" } else { "droop" };
        let place = |at: Length| format!("{} {}", w.distance(at), way(at));
        let tight = tight.map_or_else(String::new, |tight| {
            format!(
                " Past about {} the drag link runs out of length and pulls the wheels to full lock.",
                place(tight)
            )
        });
        format!(
            "Each {} of bump steers the wheels {:.2}° to the {}; at worst {} to the {}, at {}.{tight}",
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
        return Phrase::plain(&format!("Drag link angle {}.", degrees(drag)));
    };
    let verdict = if !same_way {
        "their frame ends are on opposite sides, so they move opposite ways: expect bump steer"
    } else if difference.abs().to_degrees() < 1.0 && (0.9..=1.1).contains(&ratio) {
        "they match"
    } else {
        "raise or lower the drag link's end along with the bar's"
    };
    Phrase::plain(&format!(
        "Bar {}, drag link {}: {} apart, lengths {ratio:.2} to 1; {verdict}.",
        degrees(bar),
        degrees(drag),
        degrees(difference)
    ))
}

pub(crate) fn link_change(change: Length, turns: Option<&Phrase>) -> Phrase {
    Phrase::of(|w| {
        if change.abs() < Length::from_mm(0.4) {
            return "The steering wheel stays straight.".to_owned();
        }
        let way = if change > Length::ZERO { "longer" } else { "shorter" };
        let turns = turns.map_or_else(String::new, |turns| format!(", {}", turns.in_unit(w.unit())));
        format!("Make the drag link {} {way}{turns} to straighten the steering wheel.", w.distance(change))
    })
}

pub(crate) fn nothing_yet() -> Phrase {
    Phrase::plain("Not enough measured yet to cycle the axle")
}

/// Wheel travels as a place, mm.
pub(crate) fn at_place(left: f64, right: f64) -> Phrase {
    Phrase::of(|w| place(w, left, right))
}

/// What ends a way, and where.
fn ends(what: &Happening, at: CrossedAt) -> Phrase {
    let what = happens(what);
    Phrase::of(|w| format!("{what} {}", met_place(w, at)))
}

/// Where a limit is met: at a place of the travel, or as it stands before anything moves.
pub(super) fn met_place(w: Words, at: CrossedAt) -> String {
    match at {
        CrossedAt::AsItStands => "at the driven height".to_owned(),
        CrossedAt::At(left, right) => format!("at {}", place(w, left, right)),
    }
}

const fn end_word(end: NamedEnd) -> &'static str {
    match end {
        NamedEnd::FrameEye => "frame end",
        NamedEnd::AxleEye | NamedEnd::Axle => "axle end",
        NamedEnd::Body => "body end",
    }
}

/// A link of the suspension by the name the program has for it.
pub(super) fn arm(name: &str) -> String {
    name.replace(" arm", " control arm").replace("radius control arm", "radius arm")
}

/// What a body is called, without its article.
pub(super) fn body(name: &BodyName) -> String {
    let of = |side: &Side, what: &str| format!("{} {what}", side.word());
    match name {
        BodyName::Arm(name) => arm(name),
        BodyName::TrackBar => "track bar".to_owned(),
        BodyName::FrameBracket => "track bar bracket on the frame".to_owned(),
        BodyName::AxleBracket => "track bar bracket on the axle".to_owned(),
        BodyName::DragLink => "drag link".to_owned(),
        BodyName::TieRod => "tie rod".to_owned(),
        BodyName::SteeringArm(side) => of(side, "steering arm"),
        BodyName::AxleTube => "axle tube".to_owned(),
        BodyName::Rail(side) => of(side, "frame rail"),
        BodyName::Tire(side) => of(side, "tire"),
        BodyName::Shock(side, name) => of(side, &mark(name)),
        BodyName::Driveshaft => "driveshaft".to_owned(),
        BodyName::SwayBar => "sway bar".to_owned(),
        BodyName::SwayTube => "sway bar tube".to_owned(),
        BodyName::SwayMount(side) => of(side, "sway bar mount"),
        BodyName::SwayArm(side) => of(side, "sway bar arm"),
        BodyName::SwayLink(side) => of(side, "sway link"),
        BodyName::StowedLink(side) => of(side, "sway link, stowed,"),
        BodyName::Typed(name) => mark(name),
    }
}

/// Two that sit on frame or axle beside each other.
fn stands(first: &BodyName, second: &BodyName, gap: Length) -> Phrase {
    let (first, second) = (body(first), body(second));
    Phrase::of(|w| {
        if gap < Length::ZERO {
            let by = w.distance(gap.abs());
            format!(
                "The {first} and the {second} are in each other's way by {by}. Move one, or measure both again."
            )
        } else {
            format!("The {first} is {} from the {second}", w.distance(gap))
        }
    })
}

/// A body by its kind, both sides in one.
fn kind_of(name: &BodyName) -> String {
    let both = |what: &str| what.to_owned();
    match name {
        BodyName::Arm(name) => {
            let kinds = [("radius", "radius arms"), ("leg", "Y-link legs"), ("spring", "springs")];
            let of = kinds.into_iter().find(|(word, _)| name.contains(word));
            both(of.map_or("control arms", |(_, plural)| plural))
        }
        BodyName::SteeringArm(_) => both("steering arms"),
        BodyName::Rail(_) => both("frame rails"),
        BodyName::Tire(_) => both("tires"),
        BodyName::SwayMount(_) => both("sway bar mounts"),
        BodyName::SwayArm(_) => both("sway bar arms"),
        BodyName::SwayLink(_) | BodyName::StowedLink(_) => both("sway links"),
        one => body(one),
    }
}

/// What could be near and is held against nothing.
fn not_judged(bodies: &[BodyName]) -> Phrase {
    let mut kinds: Vec<String> = Vec::new();
    for kind in bodies.iter().map(kind_of) {
        if !kinds.contains(&kind) {
            kinds.push(kind);
        }
    }
    Phrase::plain(&format!("Assumed, so not fully checked: {}.", kinds.join(", ")))
}

/// What happens at a limit, as the start of a sentence.
pub(super) fn happens(what: &Happening) -> String {
    let (limit, level) = match what {
        Happening::PulledTight { part } => return format!("The {} runs out of length", body(part)),
        Happening::Limit(limit, level) => (limit, *level),
    };
    let over = level == Level::Violated;
    let part = |member: &BodyName, end: NamedEnd| format!("{} of the {}", end_word(end), body(member));
    match limit {
        NamedLimit::Tilt { member, end } if over => {
            format!("The {} runs out of misalignment", part(member, *end))
        }
        NamedLimit::Tilt { member, end } => {
            format!("The {} is near its misalignment limit", part(member, *end))
        }
        NamedLimit::WindUp { member, end } if over => {
            format!("The {} bushing twists too far", part(member, *end))
        }
        NamedLimit::WindUp { member, end } => format!("The {} bushing twists a lot", part(member, *end)),
        NamedLimit::Gap { first, second } if over => format!("The {} hits the {}", body(first), body(second)),
        NamedLimit::Gap { first, second } => {
            format!("The {} comes close to the {}", body(first), body(second))
        }
        NamedLimit::LinksBind if over => "The control arms bind".to_owned(),
        NamedLimit::LinksBind => "The control arms start to bind".to_owned(),
        NamedLimit::BushesGive if over => "The radius arm bushings are out of give".to_owned(),
        NamedLimit::BushesGive => "The radius arm bushings are giving a lot".to_owned(),
    }
}

pub(crate) fn free_to_its_stop((left, right): (f64, f64)) -> Phrase {
    Phrase::of(|w| format!("clear to the stop, {}", place(w, left, right)))
}

fn past(what: &Happening, left: f64, right: f64) -> Phrase {
    let what = happens(what);
    Phrase::of(|w| format!("{what} at {}", place(w, left, right)))
}

fn free_but(what: &Happening, left: f64, right: f64) -> Phrase {
    let what = happens(what);
    Phrase::of(|w| format!("Clear to the stops. {what} at {}", place(w, left, right)))
}

/// `obstacles` is how many were measured, `sway_bar` whether there is one, which is held against nothing here.
pub(crate) fn free(obstacles: usize, sway_bar: bool) -> Phrase {
    let of_the_sway_bar = if sway_bar {
        ". Not checked: the sway bar against control arms and track bar. Look for yourself"
    } else {
        ""
    };
    Phrase::plain(&match obstacles {
        0 => format!(
            "Joints and lengths allow full travel. No obstacle was measured: clearance is not checked{of_the_sway_bar}"
        ),
        1 => format!("Full travel, clear of the one obstacle measured{of_the_sway_bar}"),
        many => format!("Full travel, clear of the {many} obstacles measured{of_the_sway_bar}"),
    })
}

pub(crate) fn brief_free(obstacles: usize) -> Phrase {
    Phrase::plain(if obstacles == 0 { "clearance not checked" } else { "clear" })
}

/// Half an inch past the stops: what ends the travel there, or nothing.
pub(crate) fn past_stops(ends: Option<&Phrase>, obstacles: usize) -> Phrase {
    Phrase::of(|w| {
        let past = w.distance(derecho_job::defaults::PAST_THE_STOPS);
        match ends {
            None if obstacles == 0 => {
                format!("Joints and lengths still allow {past} past the stops; clearance is not checked.")
            }
            None => format!("Still clear {past} past the stops, so a soft bump stop makes no difference."),
            Some(ends) => format!(
                "Clear to the stops but not {past} past them: {}. Bump stops compress and wear: make room now.",
                ends.in_unit(w.unit())
            ),
        }
    })
}

/// What ends the travel first, as a clause.
fn brief_clause(by: EndsBy, at: EndsAt) -> Phrase {
    let does = match by {
        EndsBy::Tight => "the bar runs out of length",
        EndsBy::Tilt => "a joint runs out of misalignment",
        EndsBy::WindUp => "a bushing twists too far",
        EndsBy::Bind => "the axle binds",
        EndsBy::Touch => "something hits",
    };
    match at {
        EndsAt::AsItStands { .. } => Phrase::plain(&format!("{does} at the driven height")),
        EndsAt::On(way, left, right) => Phrase::of(|w| {
            let most = furthest(left, right);
            let place = match way {
                Way::Droop | Way::Bump if most < Length::ZERO => "of droop",
                Way::Droop | Way::Bump => "of bump",
                Way::LeftUp | Way::RightUp => "crossed up",
            };
            format!("{does} at {} {place}", w.distance(most))
        }),
    }
}

fn furthest(left: f64, right: f64) -> Length {
    Length::from_mm(if left.abs() > right.abs() { left } else { right })
}

/// What ends the travel first, for the strip.
fn brief(by: EndsBy, at: EndsAt) -> Phrase {
    let word = match by {
        EndsBy::Tight => "bar too short",
        EndsBy::Tilt => "joint at its limit",
        EndsBy::WindUp => "bushing twisted",
        EndsBy::Bind => "binds",
        EndsBy::Touch => "hits",
    };
    match at {
        // As the stages call that place.
        EndsAt::AsItStands { ride: true } => Phrase::plain(&format!("{word} at ride height")),
        EndsAt::AsItStands { ride: false } => Phrase::plain(&format!("{word} at driven height")),
        EndsAt::On(way, left, right) => Phrase::of(|w| {
            let most = furthest(left, right);
            let place = match way {
                // Driven above or below ride height, either way begins on one side of it and goes through.
                Way::Droop | Way::Bump if most < Length::ZERO => "droop",
                Way::Droop | Way::Bump => "bump",
                Way::LeftUp | Way::RightUp => "crossed up",
            };
            format!("{word} {} {place}", w.distance(most))
        }),
    }
}

/// What a limit is called.
fn limit_name(name: &LimitName) -> String {
    let joint = name.joint.map_or("joint", JointKind::word);
    match &name.of {
        NamedLimit::Tilt { member, end } => {
            format!("{}, {}: misalignment of its {joint}", body(member), end_word(*end))
        }
        NamedLimit::WindUp { member, end } => {
            format!("{}, {}: twist of its {joint}", body(member), end_word(*end))
        }
        NamedLimit::Gap { first, second } => format!("{} to {}", body(first), body(second)),
        NamedLimit::LinksBind => "bind between the control arms".to_owned(),
        NamedLimit::BushesGive => "radius arm bushing give".to_owned(),
    }
}

/// What a way is called.
const fn way_name(way: Way) -> &'static str {
    match way {
        Way::Droop => "both wheels down",
        Way::Bump => "both wheels up",
        Way::LeftUp => "crossed up, left wheel up",
        Way::RightUp => "crossed up, right wheel up",
    }
}
