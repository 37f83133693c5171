//! Stage Sway.

use derecho_core::fastener::Thread;
use derecho_core::measure::phrase::{Words, degrees};
use derecho_core::measure::physical::{force, roll_rate, spring_rate, weight};
use derecho_core::measure::{Angle, Force, Length, Mass, Phrase, RollRate, Side, SpringRate, Stress};
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
    Against, EndedBy, LinkAim, NeighbourName, Reason, SplinedFacts, SwayCheck, SwayMessage, SwayRod,
    WithoutSway,
};
use derecho_job::sway::places::LinkWork;

use super::cycle::{happens, place};

use crate::say;

pub(super) fn sway(message: &SwayMessage) -> Phrase {
    match message {
        SwayMessage::BarRow { old: true } => Phrase::plain("the old bar"),
        SwayMessage::BarRow { old: false } => Phrase::plain("the bar here"),
        SwayMessage::Aim(aim) => Phrase::plain(aim_name(*aim)),
        SwayMessage::RodName(rod) => Phrase::plain(&rod_name(*rod)),
        SwayMessage::Neighbour(name) => Phrase::plain(&neighbour_name(name)),
        SwayMessage::CheckName(check) => check_name(check),
        SwayMessage::Without(why) => without(*why),
        SwayMessage::PreloadOfLikeLinks => Phrase::plain(
            "Preload is wanted, but both links are alike: type how much longer the left one is.",
        ),
        SwayMessage::FromOtherEnd { title } => from_other_end(title),
        SwayMessage::At { left, right } => at(*left, *right),
        SwayMessage::DoesNotClose { fault, left, right } => does_not_close(*fault, *left, *right),
        SwayMessage::NothingPosed => nothing_posed(),
        SwayMessage::TooNear { worst, left, right, to_straight } => {
            too_near(*worst, (*left, *right), *to_straight)
        }
        SwayMessage::Works { link, least, most, work } => works(*link, [*least, *most], *work),
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
            stowed(&neighbour_name(thing), *gap, *wanted, (*left, *right))
        }
        SwayMessage::Gap { rod, thing, gap: room, wanted, left, right } => {
            gap(&rod_name(*rod), &neighbour_name(thing), (*room, *wanted), (*left, *right))
        }
        SwayMessage::Room { tightest, half_measured } => {
            let tightest = tightest.as_ref().map(|(says, clear)| (say(says), *clear));
            let names: Vec<&str> = half_measured.iter().map(String::as_str).collect();
            room(tightest.as_ref().map(|(says, clear)| (says, *clear)), &names)
        }
        SwayMessage::Cut { name, faces, cut } => self::cut(name, *faces, *cut),
        SwayMessage::BoltOpen => bolt_open(),
        SwayMessage::BoltStopped { way, thing, round, other } => {
            let other = other.as_ref().map(neighbour_name);
            bolt_stopped((*way, &neighbour_name(thing)), (*round, other.as_deref()))
        }
        SwayMessage::BoltRoom { over, way } => bolt_room(*over, *way),
        SwayMessage::BoltFree { way } => bolt_free(*way),
        SwayMessage::AssumedBar { outside } => assumed_bar(*outside),
        SwayMessage::AssumedActive { active } => assumed_active(*active),
        SwayMessage::AssumedSteel => assumed_steel(),
        SwayMessage::AssumedRigid => assumed_rigid(),
        SwayMessage::AssumedThick { links, usual } => {
            assumed_thick(if *links { "sway links" } else { "sway arms" }, *usual)
        }
        SwayMessage::AssumedRails => assumed_rails(),
        SwayMessage::AssumedLock => assumed_lock(),
        SwayMessage::Hole { arm, against, roll, road, stress, takes } => {
            hole(*arm, *against, *roll, *road, (*stress, *takes))
        }
        SwayMessage::Weighs { weighed, lever, station } => {
            weighs(weighed, *lever, station.as_ref().map(say).as_ref())
        }
        SwayMessage::Choice { road, between, trail, ended_by, needs } => {
            choice((*road, *between), *trail, ended_by, &say(needs))
        }
        SwayMessage::ChoiceName(choice) => Phrase::plain(choice_name(*choice)),
        SwayMessage::Ended(by) => Phrase::plain(&ended(by)),
        SwayMessage::Suggests { choice, used_for, says } => suggests(*choice, *used_for, &say(says)),
        SwayMessage::Needs { choice } => needs(*choice),
        SwayMessage::SoftBar { diameter, length, arm } => soft_bar(*diameter, *length, *arm),
        SwayMessage::Splined(facts) => splined(facts),
        SwayMessage::SplinedWanted { wanted, least } => splined_wanted(*wanted, *least),
        SwayMessage::NoSplined => no_splined(),
        SwayMessage::SplinedBest { diameter, length, arm, link, out } => {
            splined_best([*diameter, *length, *arm, *link], *out)
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
        WithoutSway::NothingPosed => "Nothing can be cycled yet",
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
        None => "A use nobody named",
    }
}

/// What a choice is called.
const fn choice_name(choice: Choice) -> &'static str {
    match choice {
        Choice::AsItIs => "as it is, always connected",
        Choice::TiedUp => "unbolted and tied up",
        Choice::Pins => "pins",
        Choice::Powered => "powered disconnect",
        Choice::SoftTorsionBar => "soft torsion bar, always connected",
        Choice::TwoRate => "two-rate bar",
        Choice::NoBar => "none",
    }
}

/// What ends the twist, as a clause.
fn ended(by: &EndedBy) -> String {
    match by {
        EndedBy::WouldNotStand => "it would not stand".to_owned(),
        EndedBy::FrontLifts => "a front wheel lifts".to_owned(),
        EndedBy::RearLifts => "a rear wheel lifts".to_owned(),
        EndedBy::FrontStops => "the front axle meets its stops".to_owned(),
        EndedBy::RearStops => "the rear axle meets its stops".to_owned(),
        EndedBy::Limit(None) => "the links reach no further".to_owned(),
        EndedBy::Limit(Some(what)) => happens(what).replacen("The ", "the ", 1),
        EndedBy::BarLinks => "the sway bar's links turn over".to_owned(),
        EndedBy::BarSteel => "the sway bar is twisted past what its steel takes".to_owned(),
    }
}

/// Whose figures of the other axle the chart takes.
pub(crate) fn from_other_end(title: &str) -> Phrase {
    Phrase::plain(&format!(
        "Road against trail takes the other axle from its own job, “{title}”, where this job says nothing of it."
    ))
}

/// Where a pose is: both wheels' travel, mm.
pub(crate) fn at(left: f64, right: f64) -> Phrase {
    Phrase::of(|w| place(w, left, right))
}

/// Why arm and link do not close.
pub(crate) fn does_not_close(fault: ArmFault, left: f64, right: f64) -> Phrase {
    let what = match fault {
        ArmFault::OverExtended(_) => "The sway bar's arm turns over",
        ArmFault::Folded(_) => "The sway bar's arm folds onto its link",
        ArmFault::Sideways => "The link is too short sideways",
    };
    Phrase::of(|w| format!("{what} at {}", place(w, left, right)))
}

/// Nothing of the travel could be posed.
pub(crate) fn nothing_posed() -> Phrase {
    Phrase::plain(
        "As measured the axle reaches no part of its travel: check heights and places of arms and links",
    )
}

/// Too near a straight or folded line: γ, where, and what is left.
pub(crate) fn too_near(worst: Angle, (left, right): (f64, f64), to_straight: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "Arm and link come to {} at {}: {} left to a straight line",
            degrees(worst),
            place(w, left, right),
            w.distance(to_straight)
        )
    })
}

/// The range of γ over everything the axle does.
pub(crate) fn works(link: Length, [least, most]: [Angle; 2], work: LinkWork) -> Phrase {
    let range = format!("{:.0}° to {:.0}°", least.to_degrees(), most.to_degrees());
    let reported = if work == LinkWork::ALot { "a lot, but it works" } else { "clear of a straight line" };
    Phrase::of(|w| format!("A link of {} works from {range}: {reported}", w.fine(link)))
}

/// Shortest and longest link that works, and this one.
pub(crate) fn window(works: Option<[Length; 2]>, link: Length) -> Phrase {
    Phrase::of(|w| match works {
        None => "No link works over this travel: a longer arm or less travel is wanted.".to_owned(),
        Some([least, most]) => {
            let verdict = if link < least {
                format!("this one is {} too short", w.at_least(least - link))
            } else if link > most {
                format!("this one is {} too long", w.at_least(link - most))
            } else {
                "this one is inside".to_owned()
            };
            format!("Links work from {} to {}: {verdict}.", w.at_least(least), w.at_most(most))
        }
    })
}

/// A link that meets a target, against the one that is there.
pub(crate) fn target(link: Length, change: Length, turns: Option<&Phrase>) -> Phrase {
    Phrase::of(|w| {
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
                "Built from rod: cut {}, tap one end right hand and one left hand {} deep, {} of thread in at each; it turns {} longer or shorter. Jam nuts last.",
                w.distance(cut.rod_mm),
                w.distance(cut.tap_mm),
                w.distance(cut.in_mm),
                w.distance(cut.longer_mm)
            )
        }),
        Err(fault) => Phrase::plain(&format!("No rod makes this link: {fault}.")),
    }
}

/// The least splined bar for a frame.
pub(crate) fn splined_bar(least: Length, frame: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "A splined bar of at least {}: the frame's {} and {} over, {} sticking out each side.",
            w.distance(least),
            w.distance(frame),
            w.distance(OVER_FRAME),
            w.distance(OVER_FRAME / 2.0)
        )
    })
}

/// The bar's mass.
pub(crate) fn bar_weighs(mass: Mass) -> Phrase {
    Phrase::of(|w| format!("The bar weighs {}.", weight(w, mass.weight())))
}

/// The arm against the shock's stroke.
pub(crate) fn arm_and_stroke(arm: Length, stroke: Length, alike: bool) -> Phrase {
    let verdict = if alike { "about right" } else { "look at the window above" };
    Phrase::of(|w| {
        format!(
            "Arms of {} against {} of shock stroke: the rule of thumb takes them alike; {verdict}.",
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
        let wanted = if wanted { "on purpose" } else { "by accident? Set both links alike on a level floor" };
        format!(
            "The {side} link is {} longer: {} of preload at each wheel, more under this axle's {side} and the other axle's {other} wheel, {wanted}.{corners}",
            w.distance(longer),
            weight(w, change),
        )
    })
}

/// A floor that leans, degrees.
pub(crate) fn floor_leans(degrees: f64) -> Phrase {
    Phrase::plain(&format!(
        "The floor leans by {degrees:.1}°: links set here by what slips in come out unequal and twist the bar on level ground. Set both to one length by the tape, or level the tyres first."
    ))
}

/// The sides differ as it is parked; the pull at the link.
pub(crate) fn parked(difference: Length, pull: Force, goes_in: bool) -> Phrase {
    Phrase::of(|w| {
        if difference.abs() <= defaults::PIN_CHAMFER {
            "Both sides stand alike.".to_owned()
        } else if goes_in {
            format!("The sides differ by {}: a hand pulls that, {}.", w.distance(difference), force(w, pull))
        } else {
            format!(
                "The sides differ by {}, which takes {} at the link: park level, or let a helper stand on the bumper.",
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
            "On {:.1}° sideways the body leans {:.1}° on its springs and the sides differ by {}, {} at the link",
            slope.to_degrees().abs(),
            lean.to_degrees().abs(),
            w.distance(difference),
            force(w, pull)
        );
        match up_to {
            None => format!("{reported}: a hand pulls that."),
            Some(allowed) => format!(
                "{reported}: pins go in up to {allowed:.1}°. Find level ground, or a helper for the bumper."
            ),
        }
    })
}

/// Play of a stud in the link's eye, below nought where it is too thick.
pub(crate) fn stud(play: Length) -> Phrase {
    Phrase::of(|w| {
        if play < Length::ZERO {
            format!("The stud is {} too thick: press the sleeve out, or take a thinner stud.", w.fine(play))
        } else {
            format!("{} of play.", w.fine(play))
        }
    })
}

/// A nut on a stud.
pub(crate) fn nut(stud: &Thread, nut: &Thread, same: bool) -> Phrase {
    if same {
        return Phrase::plain("Diameter and pitch are the same.");
    }
    Phrase::plain(&format!(
        "{} on {}: it starts, and strips. Take the nut of the stud's own thread.",
        nut.text(),
        stud.text()
    ))
}

/// Whether a hand reaches the pin.
pub(crate) fn pin_side(reaches: bool) -> Phrase {
    Phrase::plain(if reaches {
        "A hand reaches the pin."
    } else {
        "No hand reaches the pin: turn the stud round, so that the pin's side faces out."
    })
}

/// Room over a stowed link, as taped.
pub(crate) fn stowed_room(room: Length) -> Phrase {
    Phrase::of(|w| {
        format!("{} over it at full bump; {} is wanted.", w.distance(room), w.distance(defaults::LEAST_LEFT))
    })
}

/// A stowed link that does not reach.
pub(crate) fn stud_out_of_reach() -> Phrase {
    Phrase::plain("Arm and link do not reach the stowing stud: move it, nearer to the arm's eye.")
}

/// A stowed link beside nothing that was measured.
pub(crate) fn stowed_alone() -> Phrase {
    Phrase::plain("Arm and link reach the stud; nothing was measured that they could touch.")
}

/// A stowed link and what it comes nearest to: the gap, − through it, and the one wanted.
pub(crate) fn stowed(thing: &str, gap: Length, wanted: Length, (left, right): (f64, f64)) -> Phrase {
    Phrase::of(|w| {
        let at = place(w, left, right);
        if gap < Length::ZERO {
            format!("Stowed, it runs into the {thing} at {at}: move the stud.")
        } else {
            let reported =
                if gap >= wanted { String::new() } else { format!("; {} is wanted", w.distance(wanted)) };
            format!(
                "Stowed, it clears the {thing} by {} at {at}, the nearest of all{reported}.",
                w.distance(gap)
            )
        }
    })
}

/// A rod of the bar and what it comes nearest to: the gap, − through it, and the one wanted.
pub(crate) fn gap(rod: &str, thing: &str, (gap, wanted): (Length, Length), at: (f64, f64)) -> Phrase {
    Phrase::of(|w| {
        let at = place(w, at.0, at.1);
        let upper = |text: String| text.replacen('t', "T", 1);
        if gap < Length::ZERO {
            upper(format!("{rod} runs into the {thing} at {at}"))
        } else {
            let reported =
                if gap >= wanted { String::new() } else { format!(", {} is wanted", w.distance(wanted)) };
            upper(format!("{rod} comes within {} of the {thing} at {at}{reported}", w.distance(gap)))
        }
    })
}

/// Room for arms and links, by the tightest gap and whether it is clear.
pub(crate) fn room(tightest: Option<(&Phrase, bool)>, half_measured: &[&str]) -> Phrase {
    if !half_measured.is_empty() {
        let reported = half_measured.join(", ");
        return Phrase::of(|w| {
            let gap = tightest.map_or_else(String::new, |(says, _)| format!(" {}.", says.in_unit(w.unit())));
            format!(
                "Not measured whole, so nothing is called clear yet: {reported}. Type what the ends lack.{gap}"
            )
        });
    }
    match tightest {
        None => Phrase::plain(
            "Nothing was measured that arms and links could touch: their clearance is not checked. Look at control arms and track bar, too.",
        ),
        Some((says, false)) => Phrase::of(|w| format!("{}.", says.in_unit(w.unit()))),
        Some((says, true)) => Phrase::of(|w| {
            format!(
                "Arms and links are clear of what was measured beside them. {}. They are not held against control arms and track bar: look there yourself.",
                says.in_unit(w.unit())
            )
        }),
    }
}

/// The hole to cut in a panel, in the panel's two axes, mm, with room round it.
pub(crate) fn cut(name: &str, faces: PanelFaces, cut: Option<[[f64; 2]; 2]>) -> Phrase {
    let Some([first, second]) = cut else {
        return Phrase::plain(&format!("Nothing passes the {name}: leave it whole."));
    };
    let mm = Length::from_mm;
    Phrase::of(|w| {
        let up = format!("from {} to {} up", w.distance(mm(second[0])), w.distance(mm(second[1])));
        let out = |pair: [f64; 2]| {
            format!(
                "from {} to {} out from the middle",
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
            "Cut the {name} {where_}, with {} of room all round, corners rounded; both sides alike.",
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
    Phrase::plain("Tape the room in front of its head, or say where it goes through.")
}

/// A bolt that a thing stops, and what stops it the other way round.
pub(crate) fn bolt_stopped((way, thing): (BoltWay, &str), (round, other): (BoltWay, Option<&str>)) -> Phrase {
    let turned = match other {
        None => format!("turn it round, it comes out {}", way_out(round)),
        Some(other) => format!("nor {}: the {other} is there", way_out(round)),
    };
    Phrase::plain(&format!("It does not come out {}: the {thing} is in its way; {turned}.", way_out(way)))
}

/// Room taped in front of a bolt's head, less its length.
pub(crate) fn bolt_room(over: Length, way: BoltWay) -> Phrase {
    Phrase::of(|w| {
        if over < Length::ZERO {
            format!(
                "{} short: turn it round before a tab is welded or the rail is in the way.",
                w.distance(over)
            )
        } else {
            format!("{} to spare, {}.", w.distance(over), way_out(way))
        }
    })
}

/// A bolt in front of which nothing was found.
pub(crate) fn bolt_free(way: BoltWay) -> Phrase {
    Phrase::plain(&format!("Nothing measured stands in its way {}.", way_out(way)))
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
    Phrase::of(|w| format!("a bar of {}", w.stock(outside)))
}

/// The length that twists, assumed.
pub(crate) fn assumed_active(active: Length) -> Phrase {
    Phrase::of(|w| format!("{} of it twist", w.distance(active)))
}

/// What its steel takes, assumed.
pub(crate) fn assumed_steel() -> Phrase {
    Phrase::plain(&format!("its steel takes {:.0} MPa in shear", defaults::ALLOWABLE_SHEAR.to_mpa()))
}

/// Links and bushes, assumed.
pub(crate) fn assumed_rigid() -> Phrase {
    Phrase::plain("links and bushes that do not give")
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
        "tyres that steer {:.0}° either way about their own middle",
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
    (stress, takes): (Stress, Stress),
) -> Phrase {
    let (stress, takes) = (stress.to_mpa(), takes.to_mpa());
    Phrase::of(|w| {
        let Some(roll) = roll else {
            return format!("Arm {}: it does not close with this link as it stands", w.distance(arm));
        };
        let road = road
            .map_or_else(|| "it would not stand".to_owned(), |road| format!("{road:.1}° per g on the road"));
        let over = if stress > takes { ": over" } else { "" };
        let against = match against {
            Against::InUse => "the hole in use, ".to_owned(),
            Against::Unknown => String::new(),
            Against::Share(share) if (share - 1.0).abs() < 0.005 => {
                "as stiff as the hole in use, ".to_owned()
            }
            Against::Share(share) => {
                let way = if share > 1.0 { "stiffer" } else { "softer" };
                format!("{:.0} % {way} than the hole in use, ", (share - 1.0).abs() * 100.0)
            }
        };
        format!(
            "Arm {}: {against}{}, {road}, {stress:.0} of {takes:.0} MPa at the worst twist{over}",
            w.distance(arm),
            roll_rate(w, roll),
        )
    })
}

/// What the vehicle weighs, and its centre of gravity above the roll axis.
pub(crate) fn weighs(weighed: &Weighed, lever: Length, station: Option<&Phrase>) -> Phrase {
    Phrase::of(|w| {
        let roof = if weighed.roof > Force::ZERO {
            format!(", {} on the roof at {}", weight(w, weighed.roof), w.distance(weighed.roof_height))
        } else {
            String::new()
        };
        let station = station.map_or_else(String::new, |says| format!(", {}", says.in_unit(w.unit())));
        format!(
            "{} on the springs{roof}, centre of gravity {} above the roll axis, give or take {}{station}.",
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
    trail: Option<(f64, Length)>,
    ended_by: &EndedBy,
    needs: &Phrase,
) -> Phrase {
    Phrase::of(|w| {
        let road = road.map_or_else(
            || "would not stand on the road".to_owned(),
            |road| {
                let between =
                    between.map_or_else(String::new, |[low, high]| format!(" ({low:.1} to {high:.1})"));
                format!("{road:.1}°{between} per g on the road")
            },
        );
        let trail = trail.map_or_else(
            || ended(ended_by),
            |(degrees, lift)| {
                format!(
                    "{degrees:.0}° of twist on the trail, a wheel {} up, until {}",
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
        Some(Use::Crawling) => "crawling wants the most twist and can stop to reconnect",
        Some(Use::Trails) => "trails want twist without getting out",
        Some(Use::Mixed) => "road and trail by turns want the bar firm on the one and soft on the other",
        Some(Use::FastDesert) => "fast open ground wants the bar at work all the time",
        Some(Use::RoadAndTowing) => "the road and towing want the least roll",
        Some(Use::LoadedTravel) => "a load up high wants the least roll",
        None => "nobody said what it is used for",
    };
    let name = choice_name(choice);
    Phrase::of(|w| format!("For this use: {name}, because {why}. {}", says.in_unit(w.unit())))
}

/// What a choice needs.
pub(crate) fn needs(choice: Choice) -> Phrase {
    Phrase::plain(match choice {
        Choice::AsItIs => "nothing to do on the trail",
        Choice::TiedUp => "a wrench, free and slow; bolts get lost; level ground to reconnect",
        Choice::Pins => {
            "no wrench; level ground or a helper on the bumper to reconnect; a place to stow the links"
        }
        Choice::Powered => "wiring, and a hand knob for the day the motor fails",
        Choice::SoftTorsionBar => {
            "a splined bar of half the rate and its arms; type those that can be had to find one"
        }
        Choice::TwoRate => "a lever or air cylinder; finds its place again by itself",
        Choice::NoBar => "stiffer springs, or a driver who takes it slowly",
    })
}

/// What a soft torsion bar needs, where one was found.
pub(crate) fn soft_bar(diameter: Length, length: Length, arm: Length) -> Phrase {
    Phrase::of(|w| {
        format!("the bar of {} × {} and arms of {}", w.stock(diameter), w.distance(length), w.distance(arm))
    })
}

/// A splined bar with its arms.
pub(crate) fn splined(facts: &SplinedFacts) -> Phrase {
    let (stress, takes) = (facts.stress.0.to_mpa(), facts.stress.1.to_mpa());
    Phrase::of(|w| {
        let road =
            facts.road.map_or_else(|| "would not stand".to_owned(), |road| format!("{road:.1}° per g"));
        let out =
            facts.out.map_or_else(String::new, |out| format!(", sticks out {} each side", w.distance(out)));
        let short = facts
            .short
            .map_or_else(String::new, |short| format!("; {} too short for the frame", w.distance(short)));
        let over = if stress > takes { ": over" } else { "" };
        let works = if facts.works { "" } else { "; its arms turn over" };
        let unlike = facts.unlike.map_or_else(String::new, |by| {
            let verb = if by > Length::ZERO { "longer" } else { "shorter" };
            format!("; arms {} {verb} than the shock's stroke", w.distance(by))
        });
        format!(
            "{} × {} with arms of {}: {road}, {}, {} at an arm's eye, {stress:.0} of {takes:.0} MPa{over}, {}{out}{short}{works}{unlike}",
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
        format!("A splined bar of {}{least}", roll_rate(w, wanted.max(RollRate::ZERO)))
    })
}

/// None of those typed fits.
pub(crate) fn no_splined() -> Phrase {
    Phrase::plain("None of these bars and arms fits")
}

/// The splined bar to take: diameter, length, arm, link; what sticks out each side.
pub(crate) fn splined_best([diameter, length, arm, link]: [Length; 4], out: Option<Length>) -> Phrase {
    Phrase::of(|w| {
        let out = out.map_or_else(String::new, |out| format!(", sticking out {} each side", w.distance(out)));
        format!(
            "Bar of {} × {}, arms of {}, links of {}{out}",
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
                    " The {side} corner carries {} more: no reason for a stiffer bar, but for a spring.",
                    weight(w, leans.abs())
                )
            },
        );
        let station =
            station.as_ref().map_or_else(String::new, |says| format!(", {}", says.in_unit(w.unit())));
        let asks = if reason.wanted > RollRate::ZERO {
            let solid = reason.solid.map_or_else(String::new, |[diameter, length, arm]| {
                format!(
                    ": a solid bar of {} over {} with arms of {}",
                    w.stock(diameter),
                    w.distance(length),
                    w.distance(arm)
                )
            });
            format!("the bar has to give {}{solid}", roll_rate(w, reason.wanted))
        } else {
            "springs and the other axle give it without a bar".to_owned()
        };
        format!(
            "{use_} may roll {degrees:.1}° per g. {} on the springs{roof}, {} above the roll axis{station}, wants {} in all; these springs give {} and the other axle {}: {asks}.{corners}",
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
            format!("The links still work {past} past the stops.")
        } else {
            format!(
                "To the stops the links work, {past} past them they do not. A bump stop gives; take a link further inside its window."
            )
        }
    })
}

pub(crate) fn shim_unmeasured() -> Phrase {
    Phrase::plain("Measure between the clamps: how far the bar leans follows from that.")
}

/// What a shim under one clamp alone does.
pub(crate) fn shim(thick: Length, lean: Angle, apart: Length, side: Option<Side>) -> Phrase {
    Phrase::of(|w| {
        let where_ = side.map_or_else(String::new, |side| format!(" on the {}", side.word()));
        format!(
            "{} under one clamp{where_} leans the bar by {:.1}°: its two arms stand {} apart in height, as with unequal links. An equal one under the other clamp takes it out.",
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
        SwayCheck::StowedWorkedOut => "stowed link, worked out",
        SwayCheck::StowedTaped => "stowed link, as taped",
        SwayCheck::PinsParked => "pins go in as it is parked",
        SwayCheck::PinsOnSlope => "pins go in on this slope",
        SwayCheck::Stud => "stud in the link's eye",
        SwayCheck::StudNut => "nut on the stud",
        SwayCheck::PinSide => "pin's side",
        SwayCheck::Shim => "shim under one clamp",
        SwayCheck::PastStops => "past the stops",
        SwayCheck::ComesOut { bolt } => return Phrase::plain(&format!("{bolt} comes out again")),
    };
    Phrase::plain(name)
}

/// What a link is aimed at.
const fn aim_name(aim: LinkAim) -> &'static str {
    match aim {
        LinkAim::LevelDriven => "arms level as driven",
        LinkAim::LevelMidTravel => "arms level mid-travel",
        LinkAim::OwnAngle => "arms at the angle of your own",
        LinkAim::TrailingArm => "arms in line with the lower arms",
        LinkAim::Stock => "arms as they were when stock",
    }
}

/// A rod of the sway bar.
fn rod_name(rod: SwayRod) -> String {
    match rod {
        SwayRod::Bar => "the bar".to_owned(),
        SwayRod::Arm(side) => format!("the {} arm", side.word()),
        SwayRod::Link(side) => format!("the {} link", side.word()),
    }
}

/// What stands near the sway bar.
fn neighbour_name(name: &NeighbourName) -> String {
    match name {
        NeighbourName::Named(name) => name.clone(),
        NeighbourName::AxleTube => "axle tube".to_owned(),
        NeighbourName::Shock { side, name } => format!("{} {name}", side.word()),
        NeighbourName::Rail(side) => format!("{} frame rail", side.word()),
        NeighbourName::Tire { side, steered: None } => format!("{} tyre", side.word()),
        NeighbourName::Tire { side, steered: Some(to) } => {
            format!("{} tyre steered {}", side.word(), to.word())
        }
    }
}
