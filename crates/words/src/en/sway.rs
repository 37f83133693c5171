//! Stage Sway.

use super::bracket::capital;
use super::cycle::body;
use derecho_core::fastener::Thread;
use derecho_core::measure::phrase::{Words, degrees};
use derecho_core::measure::physical::{force, roll_rate, spring_rate, weight};
use derecho_core::measure::typed::mark;
use derecho_core::measure::{Angle, Force, Length, Mass, Phrase, RollRate, Side, SpringRate, Stress};
use derecho_core::pose::body::BodyName;
use derecho_core::pose::mechanism::WANTED_CLEARANCE;
use derecho_core::sway::ArmFault;
use derecho_core::sway::rod::{RodCut, RodFault};
use derecho_core::sway::splined::OVER_FRAME;
use derecho_job::assembly::weights::Weighed;
use derecho_job::defaults;
use derecho_job::document::Use;
use derecho_job::document::sway::{BoltWay, PanelFaces};
use derecho_job::sway::choice::Choice;
use derecho_job::sway::message::{
    Against, EndedBy, LinkAim, Reason, SplinedFacts, StageFacts, SwayCheck, SwayMessage, WithoutSway,
};
use derecho_job::sway::places::LinkWork;
use derecho_job::sway::setting::Driven;

use super::cycle::{happens, place};

use crate::marked as say;

pub(super) fn sway(message: &SwayMessage) -> Phrase {
    match message {
        SwayMessage::BarRow { old: true } => Phrase::plain("old sway bar"),
        SwayMessage::BarRow { old: false } => Phrase::plain("sway bar on it now"),
        SwayMessage::Aim(aim) => Phrase::plain(aim_name(*aim)),
        SwayMessage::RodName(rod) => Phrase::plain(&rod_name(rod)),
        SwayMessage::Neighbour(name) => Phrase::plain(&body(name)),
        SwayMessage::CheckName(check) => check_name(check),
        SwayMessage::Without(why) => without(*why),
        SwayMessage::PreloadOfLikeLinks => Phrase::plain(
            "Preload is on, but both sway links are the same length: enter how much longer the left one is.",
        ),
        SwayMessage::FromOtherEnd { title } => from_other_end(title),
        SwayMessage::At { left, right } => at(*left, *right),
        SwayMessage::DoesNotClose { fault, left, right } => does_not_close(*fault, *left, *right),
        SwayMessage::NothingPosed => nothing_posed(),
        SwayMessage::TooNear { worst, left, right, to_straight } => {
            too_near(*worst, (*left, *right), *to_straight)
        }
        SwayMessage::Works { link, least, most, work } => works(*link, [*least, *most], *work),
        SwayMessage::Sized { link, works } => sized(*link, *works),
        SwayMessage::Window { works, link } => window(*works, *link),
        SwayMessage::Target { link, change, turns } => {
            target(*link, *change, turns.as_ref().map(say).as_ref())
        }
        SwayMessage::Rod { cut } => rod(cut.as_ref()),
        SwayMessage::SplinedBar { least, frame } => splined_bar(*least, *frame),
        SwayMessage::BarWeighs { mass } => bar_weighs(*mass),
        SwayMessage::ArmAndStroke { arm, stroke, alike } => arm_and_stroke(*arm, *stroke, *alike),
        SwayMessage::Preload { longer, change, corners, wanted } => {
            preload(*longer, *change, *corners, *wanted)
        }
        SwayMessage::FloorLeans { degrees } => floor_leans(*degrees),
        SwayMessage::Parked { difference, pull, goes_in } => parked(*difference, *pull, *goes_in),
        SwayMessage::ParkedOnSlope { slope, lean, difference, pull, up_to } => {
            parked_on_slope((*slope, *lean), (*difference, *pull), *up_to)
        }
        SwayMessage::Stud { play } => stud(*play),
        SwayMessage::Nut { stud, nut, same } => self::nut(stud, nut, *same),
        SwayMessage::PinSide { reaches } => pin_side(*reaches),
        SwayMessage::StowedRoom { room } => stowed_room(*room),
        SwayMessage::StudOutOfReach => stud_out_of_reach(),
        SwayMessage::StowedAlone => stowed_alone(),
        SwayMessage::Stowed { thing, gap, wanted, left, right } => {
            stowed(&body(thing), *gap, *wanted, (*left, *right))
        }
        SwayMessage::Gap { rod, thing, gap: room, wanted, left, right } => {
            gap(&rod_name(rod), &body(thing), (*room, *wanted), (*left, *right))
        }
        SwayMessage::Room { tightest, half_measured } => {
            let tightest = tightest.as_ref().map(|(says, clear)| (say(says), *clear));
            let names: Vec<&str> = half_measured.iter().map(String::as_str).collect();
            room(tightest.as_ref().map(|(says, clear)| (says, *clear)), &names)
        }
        SwayMessage::Cut { name, faces, cut } => self::cut(name, *faces, *cut),
        SwayMessage::BoltOpen => bolt_open(),
        SwayMessage::BoltStopped { way, thing, round, other } => {
            let other = other.as_ref().map(body);
            bolt_stopped((*way, &body(thing)), (*round, other.as_deref()))
        }
        SwayMessage::BoltRoom { over, way } => bolt_room(*over, *way),
        SwayMessage::BoltFree { way } => bolt_free(*way),
        SwayMessage::AssumedBar { outside } => assumed_bar(*outside),
        SwayMessage::AssumedActive { active } => assumed_active(*active),
        SwayMessage::AssumedSteel => assumed_steel(),
        SwayMessage::AssumedRubber { rate } => assumed_rubber(*rate),
        SwayMessage::AssumedBush { rate } => {
            let rate = *rate;
            Phrase::of(|w| format!("mounting bushings of {}, typical of their kind", spring_rate(w, rate)))
        }
        SwayMessage::AssumedBushSpacing { spacing } => {
            let spacing = *spacing;
            Phrase::of(|w| format!("mounting bushings {} apart", w.distance(spacing)))
        }
        SwayMessage::AssumedThick { links, usual } => {
            assumed_thick(if *links { "sway links" } else { "sway arms" }, *usual)
        }
        SwayMessage::AssumedRails => assumed_rails(),
        SwayMessage::AssumedLock => assumed_lock(),
        SwayMessage::Hole { arm, against, roll, road, stressed, takes } => {
            hole(*arm, *against, *roll, *road, (stressed, *takes))
        }
        SwayMessage::Stage(stage) => build_stage(stage),
        SwayMessage::Weighs { weighed, lever, station } => {
            weighs(weighed, *lever, station.as_ref().map(say).as_ref())
        }
        SwayMessage::Choice { road, between, trail, trail_between, ended_by, needs } => {
            choice((*road, *between), (*trail, *trail_between), ended_by, &say(needs))
        }
        SwayMessage::ChoiceName(choice) => Phrase::plain(choice_name(*choice)),
        SwayMessage::Ended(by) => Phrase::plain(&ended(by)),
        SwayMessage::Suggests { choice, used_for, says } => suggests(*choice, *used_for, &say(says)),
        SwayMessage::Needs { choice } => needs(*choice),
        SwayMessage::SoftBar { diameter, length, arm } => soft_bar(*diameter, *length, *arm),
        SwayMessage::Splined(facts) => splined(facts),
        SwayMessage::SplinedWanted { wanted, least } => splined_wanted(*wanted, *least),
        SwayMessage::NoSplined => no_splined(),
        SwayMessage::SplinedBest { diameter, length, arm, link, out, share } => {
            splined_best([*diameter, *length, *arm, *link], *out, *share)
        }
        SwayMessage::Because(reason) => because(reason),
        SwayMessage::PastStops { work } => past_stops(*work),
        SwayMessage::ShimUnmeasured => shim_unmeasured(),
        SwayMessage::Shim { thick, lean, apart, side } => shim(*thick, *lean, *apart, *side),
        SwayMessage::LinkRate { rate } => link_rate(*rate),
    }
}

/// Why there is no answer.
fn without(why: WithoutSway) -> Phrase {
    Phrase::plain(match why {
        WithoutSway::Measure => "Measure the sway bar",
        WithoutSway::NothingPosed => "Not enough measured yet to cycle the axle",
        WithoutSway::NoBar => "No sway bar here",
    })
}

const fn use_word(used_for: Option<Use>) -> &'static str {
    match used_for {
        Some(Use::Crawling) => "Crawling",
        Some(Use::Trails) => "Trail use",
        Some(Use::Mixed) => "Mixed use",
        Some(Use::LoadedTravel) => "Loaded travel",
        Some(Use::RoadAndTowing) => "Road use and towing",
        Some(Use::FastDesert) => "Fast open ground",
        None => "No use chosen",
    }
}

/// What a choice is called.
const fn choice_name(choice: Choice) -> &'static str {
    match choice {
        Choice::AsItIs => "leave it connected",
        Choice::TiedUp => "unbolt it and tie it up",
        Choice::Pins => "pins",
        Choice::Powered => "powered disconnect",
        Choice::SoftTorsionBar => "soft torsion bar, left connected",
        Choice::TwoRate => "two-rate bar",
        Choice::NoBar => "none",
    }
}

/// What ends the twist, as a clause.
fn ended(by: &EndedBy) -> String {
    match by {
        EndedBy::WouldNotStand => "springs too soft to hold the body upright".to_owned(),
        EndedBy::FrontLifts => "a front wheel lifts".to_owned(),
        EndedBy::RearLifts => "a rear wheel lifts".to_owned(),
        EndedBy::FrontStops => "the front axle hits its bump stops".to_owned(),
        EndedBy::RearStops => "the rear axle hits its bump stops".to_owned(),
        EndedBy::Limit(None) => "the sway links run out of reach".to_owned(),
        EndedBy::Limit(Some(what)) => happens(what).replacen("The ", "the ", 1),
        EndedBy::BarLinks => "the sway links go over center".to_owned(),
        EndedBy::BarSteel => "the sway bar is overstressed".to_owned(),
    }
}

/// Whose figures of the other axle the chart takes.
pub(crate) fn from_other_end(title: &str) -> Phrase {
    Phrase::plain(&format!(
        "Road vs. trail uses the other axle's own job, \u{201c}{}\u{201d}, for anything not entered here.",
        mark(title)
    ))
}

/// Where a pose is: both wheels' travel, mm.
pub(crate) fn at(left: f64, right: f64) -> Phrase {
    Phrase::of(|w| place(w, left, right))
}

/// Why arm and link do not close.
pub(crate) fn does_not_close(fault: ArmFault, left: f64, right: f64) -> Phrase {
    let what = match fault {
        ArmFault::OverExtended(_) => "The sway bar arm goes over center",
        ArmFault::Folded(_) => "The sway bar arm folds back onto its sway link",
        ArmFault::Sideways => "The sway link is too short to reach across",
    };
    Phrase::of(|w| format!("{what} at {}", place(w, left, right)))
}

/// Nothing of the travel could be posed.
pub(crate) fn nothing_posed() -> Phrase {
    Phrase::plain(
        "By these measurements the axle can't reach any of its travel: check the heights and positions of arms and sway links",
    )
}

/// Too near a straight or folded line: γ, where, and what is left.
pub(crate) fn too_near(worst: Angle, (left, right): (f64, f64), to_straight: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "Arm and sway link open to {} at {}: {} before they go straight",
            degrees(worst),
            place(w, left, right),
            w.distance(to_straight)
        )
    })
}

/// The range of γ over everything the axle does.
pub(crate) fn works(link: Length, [least, most]: [Angle; 2], work: LinkWork) -> Phrase {
    let range = format!("{:.0}° to {:.0}°", least.to_degrees(), most.to_degrees());
    let reported =
        if work == LinkWork::ALot { "a lot of angle, but OK" } else { "stays well away from straight" };
    Phrase::of(|w| format!("A {} sway link goes from {range}: {reported}", w.fine(link)))
}

/// A link sized where none was there.
fn sized(link: Length, works: bool) -> Phrase {
    Phrase::of(|w| {
        let link = w.fine(link);
        if works {
            format!("Make the sway links {link}")
        } else {
            format!("Sway links of {link}, sized for this aim, don't work over the travel")
        }
    })
}

/// Shortest and longest link that works, and this one.
fn window(works: Option<[Length; 2]>, link: Option<Length>) -> Phrase {
    Phrase::of(|w| match works {
        None => {
            "No sway link length works over this travel: use a longer arm or limit the travel.".to_owned()
        }
        Some([least, most]) => {
            let verdict = match link {
                None => String::new(),
                Some(link) if link < least => format!(": yours is {} too short", w.at_least(least - link)),
                Some(link) if link > most => format!(": yours is {} too long", w.at_least(link - most)),
                Some(_) => ": yours is in range".to_owned(),
            };
            format!("Sway links from {} to {} work{verdict}.", w.at_least(least), w.at_most(most))
        }
    })
}

/// A link that meets a target, against the one that is there.
fn target(link: Length, change: Option<Length>, turns: Option<&Phrase>) -> Phrase {
    Phrase::of(|w| {
        let Some(change) = change else { return w.fine(link) };
        let verb = if change > Length::ZERO { "longer" } else { "shorter" };
        let turns = turns.map_or_else(String::new, |turns| format!(", {}", turns.in_unit(w.unit())));
        format!("{}, {} {verb}{turns}", w.fine(link), w.fine(change))
    })
}

/// What to cut for a link built from rod, or why none makes it.
pub(crate) fn rod(cut: Result<&RodCut, &RodFault>) -> Phrase {
    match cut {
        Ok(cut) => Phrase::of(|w| {
            format!(
                "To make it from rod: cut {}; tap one end right-hand and one left-hand, {} deep; screw in {} of thread at each end; it adjusts {} either way. Jam nuts last.",
                w.distance(cut.rod_mm),
                w.distance(cut.tap_mm),
                w.distance(cut.in_mm),
                w.distance(cut.longer_mm)
            )
        }),
        Err(fault) => Phrase::plain(&format!("Can't be made from rod: {fault}.")),
    }
}

/// The least splined bar for a frame.
pub(crate) fn splined_bar(least: Length, frame: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "Splined bar: at least {} long, which is the {} frame plus {}, {} sticking out each side.",
            w.distance(least),
            w.distance(frame),
            w.distance(OVER_FRAME),
            w.distance(OVER_FRAME / 2.0)
        )
    })
}

/// The bar's mass.
pub(crate) fn bar_weighs(mass: Mass) -> Phrase {
    Phrase::of(|w| format!("The sway bar weighs {}.", weight(w, mass.weight())))
}

/// The arm against the shock's stroke.
pub(crate) fn arm_and_stroke(arm: Length, stroke: Length, alike: bool) -> Phrase {
    let verdict = if alike { "about right" } else { "see the range of sway link lengths above" };
    Phrase::of(|w| {
        format!(
            "Arms {}, shock stroke {}: as a rule of thumb they should match; {verdict}.",
            w.distance(arm),
            w.distance(stroke)
        )
    })
}

/// Preload by a left link that is longer, + left longer: at each wheel, and the corner weights.
pub(crate) fn preload(
    longer: Length,
    change: Force,
    corners: Option<(Force, Force)>,
    wanted: bool,
) -> Phrase {
    Phrase::of(|w| {
        let (side, other) = if longer > Length::ZERO { ("left", "right") } else { ("right", "left") };
        let corners = corners.map_or_else(String::new, |(left, right)| {
            let sign = if longer > Length::ZERO { 1.0 } else { -1.0 };
            format!(
                " Without it the scales would show {} left and {} right; with it {} and {}.",
                weight(w, left - change * sign),
                weight(w, right + change * sign),
                weight(w, left),
                weight(w, right)
            )
        });
        let wanted = if wanted {
            "on purpose"
        } else {
            "by mistake? Set both sway links to the same length on a level floor"
        };
        format!(
            "The {side} sway link is {} longer: {} of preload at each wheel, adding weight on this axle's {side} wheel and the other axle's {other} wheel, {wanted}.{corners}",
            w.distance(longer),
            weight(w, change),
        )
    })
}

/// A floor that leans, degrees.
pub(crate) fn floor_leans(degrees: f64) -> Phrase {
    Phrase::plain(&format!(
        "The floor slopes {degrees:.1}°: sway links adjusted here until they slip on come out unequal and preload the sway bar on level ground. Set both to the same length with a tape, or level the vehicle first."
    ))
}

/// The sides differ as it is parked; the pull at the link.
pub(crate) fn parked(difference: Length, pull: Force, goes_in: bool) -> Phrase {
    Phrase::of(|w| {
        if difference.abs() <= defaults::PIN_CHAMFER {
            "Both sides line up.".to_owned()
        } else if goes_in {
            format!(
                "The sides are off by {}: you can pull that by hand ({}).",
                w.distance(difference),
                force(w, pull)
            )
        } else {
            format!(
                "The sides are off by {}, which takes {} at the sway link: park level, or have a helper stand on the bumper.",
                w.distance(difference),
                force(w, pull)
            )
        }
    })
}

/// Parked on a slope: slope and lean, what the sides differ by and the pull; the slope up to which
/// pins go in, degrees, where they do not.
pub(crate) fn parked_on_slope(
    (slope, lean): (Angle, Angle),
    (difference, pull): (Length, Force),
    up_to: Option<f64>,
) -> Phrase {
    Phrase::of(|w| {
        let reported = format!(
            "Parked on a {:.1}° side slope the body leans {:.1}°. The sides are then off by {}, {} at the sway link",
            slope.to_degrees().abs(),
            lean.to_degrees().abs(),
            w.distance(difference),
            force(w, pull)
        );
        match up_to {
            None => format!("{reported}: you can pull that by hand."),
            Some(allowed) => format!(
                "{reported}: pins go in up to {allowed:.1}°. Find level ground or put a helper on the bumper."
            ),
        }
    })
}

/// Play of a stud in the link's eye, below nought where it is too thick.
pub(crate) fn stud(play: Length) -> Phrase {
    Phrase::of(|w| {
        if play < Length::ZERO {
            format!(
                "The stud is {} too big: press the sleeve out of the sway link, or use a smaller stud.",
                w.fine(play)
            )
        } else {
            format!("{} of play.", w.fine(play))
        }
    })
}

/// A nut on a stud.
pub(crate) fn nut(stud: &Thread, nut: &Thread, same: bool) -> Phrase {
    if same {
        return Phrase::plain("The nut matches the stud.");
    }
    Phrase::plain(&format!(
        "{} nut on a {} stud: it starts, then strips. Use the nut that matches the stud.",
        nut.text(),
        stud.text()
    ))
}

/// Whether a hand reaches the pin.
pub(crate) fn pin_side(reaches: bool) -> Phrase {
    Phrase::plain(if reaches {
        "You can reach the pin."
    } else {
        "You can't reach the pin: turn the stud so the pin faces out."
    })
}

/// Room over a stowed link, as taped.
pub(crate) fn stowed_room(room: Length) -> Phrase {
    Phrase::of(|w| {
        format!("{} above it at full bump; it needs {}.", w.distance(room), w.distance(defaults::LEAST_LEFT))
    })
}

/// A stowed link that does not reach.
pub(crate) fn stud_out_of_reach() -> Phrase {
    Phrase::plain("Arm and sway link don't reach the stow stud: move it closer to the end of the arm.")
}

/// A stowed link beside nothing that was measured.
pub(crate) fn stowed_alone() -> Phrase {
    Phrase::plain("Arm and sway link reach the stow stud; nothing near it has been measured.")
}

/// A stowed link and what it comes nearest to: the gap, − through it, and the one wanted.
pub(crate) fn stowed(thing: &str, gap: Length, wanted: Length, (left, right): (f64, f64)) -> Phrase {
    Phrase::of(|w| {
        let at = place(w, left, right);
        if gap < Length::ZERO {
            format!("Stowed, it hits the {thing} at {at}: move the stud.")
        } else {
            let reported =
                if gap >= wanted { String::new() } else { format!("; it needs {}", w.distance(wanted)) };
            format!("Stowed, it comes closest to the {thing}: {} clear{reported}, at {at}.", w.distance(gap))
        }
    })
}

/// A rod of the bar and what it comes nearest to: the gap, − through it, and the one wanted.
pub(crate) fn gap(rod: &str, thing: &str, (gap, wanted): (Length, Length), at: (f64, f64)) -> Phrase {
    Phrase::of(|w| {
        let at = place(w, at.0, at.1);
        let upper = |text: String| text.replacen('t', "T", 1);
        if gap < Length::ZERO {
            upper(format!("{rod} hits the {thing} at {at}"))
        } else {
            let reported =
                if gap >= wanted { String::new() } else { format!(", it needs {}", w.distance(wanted)) };
            upper(format!("{rod} comes within {} of the {thing}{reported}, at {at}", w.distance(gap)))
        }
    })
}

/// Room for arms and links, by the tightest gap and whether it is clear.
pub(crate) fn room(tightest: Option<(&Phrase, bool)>, half_measured: &[&str]) -> Phrase {
    if !half_measured.is_empty() {
        let reported = half_measured.iter().map(|name| mark(name)).collect::<Vec<_>>().join(", ");
        return Phrase::of(|w| {
            let gap = tightest.map_or_else(String::new, |(says, _)| format!(" {}.", says.in_unit(w.unit())));
            format!(
                "Measurements incomplete, so nothing can be called clear yet: {reported}. Enter what is missing for these ends.{gap}"
            )
        });
    }
    match tightest {
        None => Phrase::plain(
            "Nothing has been measured that the arms and sway links could hit: their clearance is not checked. Check control arms and track bar yourself, too.",
        ),
        Some((says, false)) => Phrase::of(|w| format!("{}.", says.in_unit(w.unit()))),
        Some((says, true)) => Phrase::of(|w| {
            format!(
                "Arms and sway links clear everything measured near them. {}. Not checked: control arms and track bar. Look there yourself.",
                says.in_unit(w.unit())
            )
        }),
    }
}

/// The hole to cut in a panel, in the panel's two axes, mm, with room round it.
pub(crate) fn cut(name: &str, faces: PanelFaces, cut: Option<[[f64; 2]; 2]>) -> Phrase {
    let Some([first, second]) = cut else {
        return Phrase::plain(&format!("Nothing passes through the {}: no hole needed.", mark(name)));
    };
    let mm = Length::from_mm;
    Phrase::of(|w| {
        let up = format!("from {} to {} up", w.distance(mm(second[0])), w.distance(mm(second[1])));
        let out = |pair: [f64; 2]| {
            format!(
                "from {} to {} from the centerline",
                signed(w, pair[0], "across"),
                w.distance(mm(pair[1]))
            )
        };
        let fore = |pair: [f64; 2]| {
            let at = |value: f64| {
                let way = if value < 0.0 { "behind" } else { "forward of" };
                format!("{} {way}", w.distance(mm(value)))
            };
            format!("from {} to {} the axle", at(pair[0]), at(pair[1]))
        };
        let where_ = match faces {
            PanelFaces::Forward => format!("{}, {up}", out(first)),
            PanelFaces::Outward => format!("{}, {up}", fore(first)),
            PanelFaces::Up => format!("{}, {}", fore(first), out(second)),
        };
        format!(
            "Cut the {} {where_}. That leaves {} all around. Round the corners. Same on both sides.",
            mark(name),
            w.distance(WANTED_CLEARANCE)
        )
    })
}

fn signed(w: Words, value: f64, beyond: &str) -> String {
    let reported = w.distance(Length::from_mm(value));
    if value < 0.0 { format!("{reported} {beyond}") } else { reported }
}

/// A bolt nobody measured.
pub(crate) fn bolt_open() -> Phrase {
    Phrase::plain("Measure the clearance in front of the bolt head, or say what the bolt goes through.")
}

/// A bolt that a thing stops, and what stops it the other way round.
pub(crate) fn bolt_stopped((way, thing): (BoltWay, &str), (round, other): (BoltWay, Option<&str>)) -> Phrase {
    let turned = match other {
        None => format!("flip it and it comes out {}", way_out(round)),
        Some(other) => format!("and it won't come out {} either: the {other} is there", way_out(round)),
    };
    Phrase::plain(&format!("It won't come out {}: the {thing} is in the way; {turned}.", way_out(way)))
}

/// Room taped in front of a bolt's head, less its length.
pub(crate) fn bolt_room(over: Length, way: BoltWay) -> Phrase {
    Phrase::of(|w| {
        if over < Length::ZERO {
            format!("{} short: flip the bolt before a tab is welded or the rail traps it.", w.distance(over))
        } else {
            format!("{} to spare, {}.", w.distance(over), way_out(way))
        }
    })
}

/// A bolt in front of which nothing was found.
pub(crate) fn bolt_free(way: BoltWay) -> Phrase {
    Phrase::plain(&format!("Nothing measured is in its way {}.", way_out(way)))
}

const fn way_out(way: BoltWay) -> &'static str {
    match way {
        BoltWay::Outward => "outward",
        BoltWay::Inward => "inward",
        BoltWay::Forward => "forward",
        BoltWay::Back => "back",
        BoltWay::Up => "up",
        BoltWay::Down => "down",
    }
}

/// A bar that nobody measured.
pub(crate) fn assumed_bar(outside: Length) -> Phrase {
    Phrase::of(|w| format!("a {} bar", w.stock(outside)))
}

/// The length that twists, assumed.
pub(crate) fn assumed_active(active: Length) -> Phrase {
    Phrase::of(|w| format!("active length {}", w.distance(active)))
}

/// What its steel takes, assumed.
pub(crate) fn assumed_steel() -> Phrase {
    Phrase::plain(&format!("bar steel good for {:.0} MPa in shear", defaults::ALLOWABLE_SHEAR.to_mpa()))
}

/// Links and bushes, assumed.
fn assumed_rubber(rate: SpringRate) -> Phrase {
    Phrase::of(|w| format!("rubber mounting bushings of {}: pick what they are", spring_rate(w, rate)))
}

/// A thickness, assumed.
pub(crate) fn assumed_thick(what: &str, usual: Length) -> Phrase {
    Phrase::of(|w| format!("{what} {} thick", w.distance(usual)))
}

/// The frame rails' height, assumed.
pub(crate) fn assumed_rails() -> Phrase {
    Phrase::of(|w| format!("frame rails {} high", w.distance(defaults::RAIL_HEIGHT)))
}

/// The steering lock, assumed.
pub(crate) fn assumed_lock() -> Phrase {
    Phrase::plain(&format!(
        "tires that steer {:.0}° each way about their own center",
        defaults::STEERING_LOCK_DEGREES
    ))
}

/// A hole of the arm: how it stands against the one in use, K_bar,
/// roll on the road in degrees per g, stress and what the steel takes.
pub(crate) fn hole(
    arm: Length,
    against: Against,
    roll: Option<RollRate>,
    road: Option<f64>,
    (stressed, takes): (&[(Driven, Stress)], Stress),
) -> Phrase {
    Phrase::of(|w| {
        let Some(roll) = roll else {
            return format!("Arm {}: the sway link can't reach it at the driven height", w.distance(arm));
        };
        let road = road.map_or_else(
            || "springs too soft to hold the body upright".to_owned(),
            |road| format!("{road:.1}° per g on the road"),
        );
        let against = match against {
            Against::InUse => "the hole in use, ".to_owned(),
            Against::Unknown => String::new(),
            Against::Share(share) if (share - 1.0).abs() < 0.005 => {
                "same stiffness as the hole in use, ".to_owned()
            }
            Against::Share(share) => {
                let way = if share > 1.0 { "stiffer" } else { "softer" };
                format!("{:.0} % {way} than the hole in use, ", (share - 1.0).abs() * 100.0)
            }
        };
        format!(
            "Arm {}: {against}{}, {road}, {}",
            w.distance(arm),
            roll_rate(w, roll),
            stresses(stressed, takes),
        )
    })
}

/// Hole and link of a build stage.
fn build_stage(stage: &StageFacts) -> Phrase {
    let name = if stage.name.is_empty() { "As planned".to_owned() } else { mark(&capital(&stage.name)) };
    let hole = match stage.hole {
        Some((_, 1)) | None => String::new(),
        Some((number, of)) => format!("hole {number} of {of} (stiff end = 1), "),
    };
    let road = match (stage.road, stage.wanted) {
        (None, _) => "; springs too soft to hold the body upright".to_owned(),
        (Some(road), None) => format!("; {road:.1}° per g on the road"),
        (Some(road), Some(wanted)) => {
            format!("; {road:.1}° per g on the road, more than the {wanted:.1}° that suits its use")
        }
    };
    let beside = stage.beside.map_or_else(String::new, |beside| {
        let apart =
            beside.apart.map_or_else(String::new, |apart| format!(", {} off the bar", degrees(apart)));
        format!("; drag link at {}{apart}", degrees(beside.drag_link))
    });
    let Some(link) = stage.link else {
        return Phrase::plain(&format!(
            "{name}: in no hole do sway bar arm and link work over the travel{beside}"
        ));
    };
    Phrase::of(|w| format!("{name}: {hole}sway link {}{road}{beside}", w.fine(link)))
}

/// The bar's stress in each setting it is driven in.
fn stresses(stressed: &[(Driven, Stress)], takes: Stress) -> String {
    let says = |(driven, stress): &(Driven, Stress)| {
        let over = if *stress > takes { ": overstressed" } else { "" };
        let (stress, takes) = (stress.to_mpa(), takes.to_mpa());
        match driven {
            Driven::Everywhere => format!("{stress:.0} of {takes:.0} MPa at the worst twist{over}"),
            Driven::LockedInABend => format!("locked in a hard corner {stress:.0} of {takes:.0} MPa{over}"),
            Driven::Unlocked if stress < 0.5 => "unlocked no load".to_owned(),
            Driven::Unlocked => format!("unlocked at the worst twist {stress:.0} of {takes:.0} MPa{over}"),
        }
    };
    stressed.iter().map(says).collect::<Vec<_>>().join(", ")
}

/// What the vehicle weighs, and its centre of gravity above the roll axis.
pub(crate) fn weighs(weighed: &Weighed, lever: Length, station: Option<&Phrase>) -> Phrase {
    Phrase::of(|w| {
        let roof = if weighed.roof > Force::ZERO {
            format!(", {} on the roof at {}", weight(w, weighed.roof), w.distance(weighed.roof_height))
        } else {
            String::new()
        };
        let station =
            station.map_or_else(String::new, |says| format!(" {}.", capital(says.in_unit(w.unit()))));
        format!(
            "{} sprung{roof}. Center of gravity {} above the roll axis, ±{}.{station}",
            weight(w, weighed.sprung()),
            w.distance(lever),
            w.distance(weighed.gravity_good_to)
        )
    })
}

/// A choice of bar: roll on the road in degrees per g and its range, twist on the trail in degrees with
/// the wheel's lift, what ends it, what it needs.
pub(crate) fn choice(
    (road, between): (Option<f64>, Option<[f64; 2]>),
    (trail, twist_between): (Option<(f64, Length)>, Option<[f64; 2]>),
    ended_by: &EndedBy,
    needs: &Phrase,
) -> Phrase {
    Phrase::of(|w| {
        let road = road.map_or_else(
            || "springs too soft to hold the body upright on the road".to_owned(),
            |road| {
                let between =
                    between.map_or_else(String::new, |[low, high]| format!(" ({low:.1} to {high:.1})"));
                format!("{road:.1}°{between} per g on the road")
            },
        );
        let trail = trail.map_or_else(
            || ended(ended_by),
            |(degrees, lift)| {
                let between = twist_between
                    .filter(|[least, most]| most - least >= 1.0)
                    .map_or_else(String::new, |[least, most]| format!(" ({least:.0} to {most:.0})"));
                format!(
                    "{degrees:.0}°{between} of flex on the trail, one wheel {} up, until {}",
                    w.distance(lift),
                    ended(ended_by)
                )
            },
        );
        format!("{road}; {trail}. Needs: {}.", needs.in_unit(w.unit()))
    })
}

/// The choice that is suggested.
pub(crate) fn suggests(choice: Choice, used_for: Option<Use>, says: &Phrase) -> Phrase {
    let why = match used_for {
        Some(Use::Crawling) => "crawling needs the most flex, and you can stop to reconnect",
        Some(Use::Trails) => "trail driving needs flex without getting out",
        Some(Use::Mixed) => "mixed road and trail needs a firm bar on the road and a soft one on the trail",
        Some(Use::FastDesert) => "fast open ground needs the sway bar working all the time",
        Some(Use::RoadAndTowing) => "road and towing need the least body roll",
        Some(Use::LoadedTravel) => "a high load needs the least body roll",
        None => "no use was chosen",
    };
    let name = choice_name(choice);
    Phrase::of(|w| format!("Best for this use: {name}, because {why}. {}", says.in_unit(w.unit())))
}

/// What a choice needs.
pub(crate) fn needs(choice: Choice) -> Phrase {
    Phrase::plain(match choice {
        Choice::AsItIs => "nothing to do on the trail",
        Choice::TiedUp => "a wrench; no cost, but slow; bolts get lost; level ground to reconnect",
        Choice::Pins => {
            "no wrench; level ground or a helper on the bumper to reconnect; a place to stow the sway links"
        }
        Choice::Powered => "wiring, plus a manual override in case the motor fails",
        Choice::SoftTorsionBar => {
            "a splined bar of half the stiffness, with arms; enter the ones you can get"
        }
        Choice::TwoRate => "a lever or air cylinder; re-engages by itself",
        Choice::NoBar => "stiffer springs, or slower driving",
    })
}

/// What a soft torsion bar needs, where one was found.
pub(crate) fn soft_bar(diameter: Length, length: Length, arm: Length) -> Phrase {
    Phrase::of(|w| {
        format!("the {} × {} bar and {} arms", w.stock(diameter), w.distance(length), w.distance(arm))
    })
}

/// A splined bar with its arms.
pub(crate) fn splined(facts: &SplinedFacts) -> Phrase {
    let (stress, takes) = (facts.stress.0.to_mpa(), facts.stress.1.to_mpa());
    Phrase::of(|w| {
        let road = facts.road.map_or_else(
            || "springs too soft to hold the body upright".to_owned(),
            |road| format!("{road:.1}° per g"),
        );
        let out =
            facts.out.map_or_else(String::new, |out| format!(", sticks out {} each side", w.distance(out)));
        let short = facts
            .short
            .map_or_else(String::new, |short| format!("; {} too short for the frame", w.distance(short)));
        let over = if stress > takes { ": overstressed" } else { "" };
        let works = if facts.works { "" } else { "; its arms go over center" };
        let unlike = facts.unlike.map_or_else(String::new, |by| {
            let verb = if by > Length::ZERO { "longer" } else { "shorter" };
            format!("; arms {} {verb} than the shock stroke", w.distance(by))
        });
        format!(
            "{} × {} with {} arms: {road}, {}; {} at the end of the arm, {stress:.0} of {takes:.0} MPa{over}; {}{out}{short}{works}{unlike}",
            w.stock(facts.diameter),
            w.distance(facts.length),
            w.distance(facts.arm),
            roll_rate(w, facts.roll),
            spring_rate(w, facts.eye_rate),
            weight(w, facts.mass.weight()),
        )
    })
}

/// No splined bar was typed: what it would have to give, and the least length.
pub(crate) fn splined_wanted(wanted: RollRate, least: Option<Length>) -> Phrase {
    Phrase::of(|w| {
        let least = least.map_or_else(String::new, |least| format!(", at least {} long", w.at_least(least)));
        format!("A splined bar rated {}{least}", roll_rate(w, wanted.max(RollRate::ZERO)))
    })
}

/// None of those typed fits.
pub(crate) fn no_splined() -> Phrase {
    Phrase::plain("None of these bars and arms works")
}

/// Bars come in sizes: so far from what is wanted the nearest one is still said to give it.
const GIVES_IT: std::ops::RangeInclusive<f64> = 0.8..=1.25;

/// The splined bar to take: diameter, length, arm, link; what sticks out each side. `share` is what it gives of the roll
/// stiffness wanted.
pub(crate) fn splined_best(
    [diameter, length, arm, link]: [Length; 4],
    out: Option<Length>,
    share: Option<f64>,
) -> Phrase {
    let far = share.filter(|share| !GIVES_IT.contains(share)).map_or_else(String::new, |share| {
        let none = if share < 1.0 { "stiff" } else { "soft" };
        format!(
            ": the closest, but none you entered is {none} enough. It gives {:.0} % of what is wanted",
            share * 100.0
        )
    });
    Phrase::of(|w| {
        let out = out.map_or_else(String::new, |out| format!(", sticking out {} each side", w.distance(out)));
        format!(
            "{} × {} bar, {} arms, {} sway links{out}{far}",
            w.stock(diameter),
            w.distance(length),
            w.distance(arm),
            w.fine(link)
        )
    })
}

/// Why this rate, in numbers.
pub(crate) fn because(reason: &Reason) -> Phrase {
    let Reason { degrees, weighed, .. } = reason;
    let use_ = use_word(reason.used_for);
    let station = reason.station.as_ref().map(say);
    Phrase::of(|w| {
        let roof = if weighed.roof > Force::ZERO {
            format!(" and {} on the roof", weight(w, weighed.roof))
        } else {
            String::new()
        };
        let corners = weighed.leans_left.filter(|leans| leans.abs() > defaults::UNEVEN).map_or_else(
            String::new,
            |leans| {
                let side = if leans > Force::ZERO { "left" } else { "right" };
                format!(
                    " The {side} corner carries {} more: that calls for a spring, not a stiffer bar.",
                    weight(w, leans.abs())
                )
            },
        );
        let station = station
            .as_ref()
            .map_or_else(String::new, |says| format!(" {}.", capital(says.in_unit(w.unit()))));
        let asks = if reason.wanted > RollRate::ZERO {
            let solid = reason.solid.map_or_else(String::new, |[diameter, length, arm]| {
                format!(
                    ": a solid {} bar, {} long, with {} arms",
                    w.stock(diameter),
                    w.distance(length),
                    w.distance(arm)
                )
            });
            format!("the sway bar needs to give {}{solid}", roll_rate(w, reason.wanted))
        } else {
            "springs and the other axle give that without a sway bar".to_owned()
        };
        format!(
            "{use_}: allow {degrees:.1}° of body roll per g. {} sprung{roof}, {} above the roll axis.{station} That needs {} in total. These springs give {} and the other axle {}; {asks}.{corners}",
            weight(w, weighed.sprung()),
            w.distance(reason.lever),
            roll_rate(w, reason.all),
            roll_rate(w, reason.springs),
            roll_rate(w, reason.other),
        )
    })
}

/// Half an inch past the stops.
pub(crate) fn past_stops(work: bool) -> Phrase {
    Phrase::of(|w| {
        let past = w.distance(derecho_job::defaults::PAST_THE_STOPS);
        if work {
            format!("The sway links still work {past} past the bump stops.")
        } else {
            format!(
                "The sway links work to the bump stops but not {past} past them. Bump stops compress: pick a length further inside the range."
            )
        }
    })
}

pub(crate) fn shim_unmeasured() -> Phrase {
    Phrase::plain("Measure between the clamps to work out how far the sway bar tilts.")
}

/// What a shim under one clamp alone does.
pub(crate) fn shim(thick: Length, lean: Angle, apart: Length, side: Option<Side>) -> Phrase {
    Phrase::of(|w| {
        let where_ = side.map_or_else(String::new, |side| format!(" on the {}", side.word()));
        format!(
            "{} under one clamp only{where_} tilts the sway bar {:.1}°: one arm ends up {} higher than the other, as with unequal sway links. Put an equal shim under the other clamp.",
            w.fine(thick),
            lean.to_degrees(),
            w.fine(apart)
        )
    })
}

pub(crate) fn link_rate(rate: SpringRate) -> Phrase {
    Phrase::of(|w| spring_rate(w, rate))
}

/// What a check is of.
fn check_name(check: &SwayCheck) -> Phrase {
    let name = match check {
        SwayCheck::StowedWorkedOut => "stowed sway link, calculated",
        SwayCheck::StowedTaped => "stowed sway link, as measured",
        SwayCheck::PinsParked => "pins go in where it is parked",
        SwayCheck::PinsOnSlope => "pins go in on this slope",
        SwayCheck::Stud => "stud fits the sway link",
        SwayCheck::StudNut => "nut on the stud",
        SwayCheck::PinSide => "reaching the pin",
        SwayCheck::Shim => "shim under one clamp",
        SwayCheck::PastStops => "past the stops",
        SwayCheck::ComesOut { bolt } => return Phrase::plain(&format!("{} comes back out", mark(bolt))),
    };
    Phrase::plain(name)
}

/// What a link is aimed at.
const fn aim_name(aim: LinkAim) -> &'static str {
    match aim {
        LinkAim::LevelDriven => "arms level at driven height",
        LinkAim::LevelMidTravel => "arms level at mid-travel",
        LinkAim::OwnAngle => "arms at your own angle",
        LinkAim::TrailingArm => "arms in line with the lower arms",
        LinkAim::Stock => "arms at their stock angle",
    }
}

/// A rod of the sway bar with its article.
fn rod_name(rod: &BodyName) -> String {
    format!("the {}", body(rod))
}
