//! Stage Bracket.

use super::sides;
use crate::{all_marked as say_all, marked as say};
use derecho_core::bar::bracket_load::Braced;
use derecho_core::bar::strength::{Material, Section};
use derecho_core::fastener::Thread;
use derecho_core::fastener::stack::{Reckoned, Stack, StackFault};
use derecho_core::fastener::strength::{Grade, ThreadTreatment, TorqueStands};
use derecho_core::measure::phrase::{Words, degrees};
use derecho_core::measure::physical::{KG_PER_LB, force, torque as printed_torque};
use derecho_core::measure::print::{self, Style};
use derecho_core::measure::squareness::Squareness;
use derecho_core::measure::typed::mark;
use derecho_core::measure::{Angle, Force, Length, Mass, Moment, Phrase, Side, Unit};
use derecho_core::parts::BracketEnd;
use derecho_job::bracket::message::{BracketCheck, BracketMessage, BuildStep, OptionFacts, Picked};
use derecho_job::bracket::names::{BarName, PlaceName};

use derecho_job::bar::message::Turns;
use derecho_job::bracket::kinds::Approach;
use derecho_job::cycle::limit::{CrossedAt, Happening};
use derecho_job::defaults;
use derecho_job::document::bracketing::Target;
use derecho_job::message::Message;
use derecho_job::verdict::FitVerdict;

use super::bar::{at_least, turned};
use super::cycle::{happens, met_place};

pub(super) fn bracket(message: &BracketMessage) -> Phrase {
    match message {
        BracketMessage::CheckName(check) => check_name(check),
        BracketMessage::CheckNameAt { check, end } => {
            let eye = if *end == BracketEnd::Frame { "frame" } else { "axle" };
            let name = check_name(check);
            Phrase::plain(&format!("{} ({eye} eye)", name.inches))
        }
        BracketMessage::ApproachName(approach) => Phrase::plain(approach_name(*approach)),
        BracketMessage::Place(place) => Phrase::plain(&place_name(place)),
        BracketMessage::Bar(bar) => Phrase::plain(&bar_name(bar)),
        BracketMessage::BracketName { name, end } => Phrase::plain(&bracket_name(name, *end)),
        BracketMessage::LeavesOut => leaves_out(),
        BracketMessage::BuildStep(step) => Phrase::plain(build_step(*step)),
        BracketMessage::NothingYet => nothing_yet(),
        BracketMessage::PlanGone { named } => plan_gone(named),
        BracketMessage::Conversion { bad, open } => conversion(*bad, *open),
        BracketMessage::NoBarToLevel => no_bar_to_level(),
        BracketMessage::AsMeasured { fault } => as_measured(fault),
        BracketMessage::OutOfReachAtRide => out_of_reach_at_ride(),
        BracketMessage::PulledTight => pulled_tight(),
        BracketMessage::OutOfReach { shown, wanted, as_found, range } => {
            out_of_reach(&bar_name(shown), *wanted, *as_found, *range)
        }
        BracketMessage::LeftOff { offset, tolerance } => left_off(*offset, *tolerance),
        BracketMessage::OtherHeight { height, name, angle } => {
            other_height(height, &say(&name.0).inches, *angle)
        }
        BracketMessage::Met { what, place } => met(what, *place),
        BracketMessage::Exact { riser, target } => exact(*riser, *target),
        BracketMessage::Answer { with_another_bar: Some(option), .. } => with_another_bar(option),
        BracketMessage::Answer { pick, picked, with_another_bar: None } => answer(pick, *picked),
        BracketMessage::Because { pick, failing, exact, target } => because(pick, failing, *exact, *target),
        BracketMessage::Approach { approach, option, at_hand } => self::approach(*approach, option, *at_hand),
        BracketMessage::BendTaken => bend_taken(),
        BracketMessage::RangeUnknown => range_unknown(),
        BracketMessage::Reaches { wanted, out, inward } => reaches(*wanted, *out, *inward),
        BracketMessage::AddJoints => add_joints(),
        BracketMessage::Ears { filled, ear, verdict } => ears(*filled, *ear, *verdict),
        BracketMessage::Parallel { apart, good } => parallel(*apart, *good),
        BracketMessage::Spacers { verdict } => spacers(*verdict),
        BracketMessage::ReadBothSides => read_both_sides(),
        BracketMessage::YLinkSits { offset, verdict } => y_link_sits(*offset, *verdict),
        BracketMessage::YLinkSquare { found, verdict } => y_link_square(found, *verdict),
        BracketMessage::LegsSideways { off, driver } => legs_sideways(*off, *driver),
        BracketMessage::LegsPinion { turned } => legs_pinion(*turned),
        BracketMessage::Leg { name, change, turns } => leg(name, *change, *turns),
        BracketMessage::TakeSquareness => take_squareness(),
        BracketMessage::Pinion { turned, verdict, driven } => pinion(*turned, *verdict, *driven),
        BracketMessage::WiderWishbone { ends } => wider_wishbone(&say(ends)),
        BracketMessage::JointOut => joint_out(),
        BracketMessage::Follows => follows(),
        BracketMessage::Mass { mass } => self::mass(*mass),
        BracketMessage::Newtons(load) => Phrase::of(|w| force(w, *load)),
        BracketMessage::Jacking { lift, heave } => jacking(*lift, *heave),
        BracketMessage::Stands { margin, load, bend, sleeve } => stands(*margin, *load, *bend, *sleeve),
        BracketMessage::MadeOf { material, section, assumed } => made_of(*material, section, *assumed),
        BracketMessage::Slip { slip, load } => self::slip(*slip, *load),
        BracketMessage::InARow { parts } => in_a_row(&say_all(parts)),
        BracketMessage::Nut { nut, bolt, own } => self::nut(nut, bolt, *own),
        BracketMessage::Hole { play, too_wide } => hole(*play, *too_wide),
        BracketMessage::BoltUnmeasured => bolt_unmeasured(),
        BracketMessage::BoltLength { reported, stack } => bolt_length(reported, stack),
        BracketMessage::StackFault { fault } => stack_fault(fault),
        BracketMessage::Torque { usual, thread, grade, treatment, given } => {
            torque(*usual, (thread, *grade, *treatment), *given)
        }
        BracketMessage::Play { band } => play(*band),
        BracketMessage::GapIsOff { off, wanted } => gap_is_off(*off, *wanted),
        BracketMessage::TapeTheGap => Phrase::plain(TAPE_THE_GAP),
        BracketMessage::CutStock { cut, length } => cut_stock(*cut, *length),
        BracketMessage::StockAbout { cut, length } => stock_about(*cut, *length),
        BracketMessage::BraceUnmeasured => brace_unmeasured(),
        BracketMessage::Braced { with, load, at_the_brace, verdict } => {
            braced(*with, (*load, *at_the_brace), *verdict)
        }
        BracketMessage::BraceBeyond { below, lever } => brace_beyond(*below, *lever),
    }
}

pub(crate) fn nothing_yet() -> Phrase {
    Phrase::plain("Not enough measured yet to plan a bracket")
}

/// A plan of an older document that named what was taken out since.
pub(crate) fn plan_gone(named: &[String]) -> Phrase {
    let is = if named.len() == 1 { "is" } else { "are" };
    let named: Vec<String> = named.iter().map(|name| mark(name)).collect();
    Phrase::plain(&format!(
        "A saved plan used {}, which {is} no longer in this job's parts. Choose again, or remove this plan.",
        named.join(" and ")
    ))
}

pub(crate) fn conversion(bad: usize, open: usize) -> Phrase {
    Phrase::plain(&match (bad, open) {
        (0, 0) => "The Y-link checks out".to_owned(),
        (0, open) => format!("The Y-link is OK so far, {open} left to check"),
        (1, _) => "One Y-link check failed".to_owned(),
        (bad, _) => format!("{bad} Y-link checks failed"),
    })
}

pub(crate) fn no_bar_to_level() -> Phrase {
    Phrase::plain("A Y-link keeps the axle centered through its travel. There is no track bar to level.")
}

pub(crate) fn as_measured(fault: &str) -> Phrase {
    Phrase::plain(&format!("by these measurements, {fault}"))
}

pub(crate) fn out_of_reach_at_ride() -> Phrase {
    Phrase::plain("the arms don't reach at ride height")
}

pub(crate) fn pulled_tight() -> Phrase {
    Phrase::plain("the bar runs out of length before full travel")
}

/// Why a bar does not reach; `range` is the shortest and longest it can be.
pub(crate) fn out_of_reach(
    shown: &str,
    wanted: Length,
    as_found: bool,
    range: (Option<Length>, Option<Length>),
) -> Phrase {
    let (who, is) = if as_found { (shown, "it goes") } else { ("the bar", "it is made") };
    Phrase::of(|w| {
        let wanted = w.fine(wanted);
        match range {
            (Some(least), Some(most)) if least == most => {
                let fixed =
                    if as_found { format!("{who} is fixed") } else { format!("the {shown} is fixed") };
                format!("{fixed} in length and would need to be {wanted}")
            }
            (Some(least), Some(most)) => {
                format!(
                    "{who} would need to be {wanted}, but {is} from {} to {}",
                    w.fine(least),
                    w.fine(most)
                )
            }
            (Some(least), None) => {
                format!("{who} would need to be {wanted}, but {is} no shorter than {}", w.fine(least))
            }
            (None, Some(most)) => {
                format!("{who} would need to be {wanted}, but {is} no longer than {}", w.fine(most))
            }
            (None, None) => format!("{who} would need to be {wanted}"),
        }
    })
}

/// Where a length that is left alone leaves the axle, beyond what counts as centred.
pub(crate) fn left_off(offset: Length, tolerance: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "with the bar length unchanged the axle ends up {}, more than {} off",
            w.sideways(offset),
            w.distance(tolerance)
        )
    })
}

pub(crate) fn other_height(height: &str, name: &str, angle: Angle) -> Phrase {
    Phrase::plain(&format!("At {}: {name}, bar angle {}.", mark(height), degrees(angle)))
}

fn lowered(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_lowercase().chain(letters).collect())
}

/// The exact riser or drop.
pub(crate) fn exact(riser: Length, target: Target) -> Phrase {
    let link = link_left(target);
    Phrase::of(|w| {
        if print::rounds_to_nought(riser, Style::everyday(w.unit())) {
            return format!("The bar is on target where it is{link}.");
        }
        let by = w.distance(riser);
        let (axle, frame) = (way(BracketEnd::Axle, riser), way(BracketEnd::Frame, riser));
        format!(
            "To hit the target exactly{link}: move the axle end of the bar {by} {axle}, or the frame end {by} {frame}."
        )
    })
}

/// What a target rests on that is not the bar's: a part that lays the drag link otherwise moves it.
const fn link_left(target: Target) -> &'static str {
    match target {
        Target::ParallelToDragLink => " with the drag link as it is now",
        Target::LevelDriven | Target::LevelMidTravel | Target::AsTheMakerHadIt => "",
    }
}

/// Which way an eye goes for an exact riser, + axle eye up.
fn way(end: BracketEnd, riser: Length) -> &'static str {
    if (riser > Length::ZERO) == (end == BracketEnd::Axle) { "up" } else { "down" }
}

/// What is done with the bar's length: nothing where the change shows nothing on a tape.
fn length(w: Words, option: &OptionFacts) -> Option<String> {
    if let Some(bar) = &option.bar {
        return Some(format!("{} set to {}", say(&bar.0).inches, w.fine(option.length)));
    }
    if print::rounds_to_nought(option.change, Style::everyday(w.unit())) {
        return None;
    }
    let way = if option.change > Length::ZERO { "longer" } else { "shorter" };
    Some(format!("make the bar {} {way}", w.distance(option.change)))
}

/// The answer: the chosen plan, else length only where that is enough, else the best option.
/// What a limit does, and at which travel.
fn met(what: &Happening, at: CrossedAt) -> Phrase {
    let what = happens(what);
    Phrase::of(|w| format!("{} {}", lowered(&what), met_place(w, at)))
}

pub(crate) fn answer(pick: &OptionFacts, picked: Picked) -> Phrase {
    Phrase::of(|w| {
        let set = length(w, pick);
        if pick.end.is_none() {
            let bare = match picked {
                Picked::Chosen => "Length only",
                Picked::Enough => "Changing the length is enough",
                Picked::Best => "None of these brackets helps",
            };
            format!("{bare}: {}", set.unwrap_or_else(|| "leave the length alone".to_owned()))
        } else {
            match set {
                Some(set) => format!("Use {}, then {set}", say(&pick.name.0).inches),
                None => format!("Use {}, leave the length alone", say(&pick.name.0).inches),
            }
        }
    })
}

/// A hole that helps, and what keeps it from it.
fn with_another_bar(option: &OptionFacts) -> Phrase {
    Phrase::of(|w| {
        format!(
            "{} brings the bar to {}, but needs a bar of {}: no bar you entered reaches",
            say(&option.name.0).inches,
            degrees(option.angle),
            w.fine(option.length)
        )
    })
}

/// Why. `failing` names the other approaches with why they fail, `need` is told where a length alone
/// is enough.
fn because(
    pick: &OptionFacts,
    failing: &[(Approach, Message)],
    exact: Option<Length>,
    target: Target,
) -> Phrase {
    let link = link_left(target);
    let failing: Vec<(&str, Phrase)> =
        failing.iter().map(|(approach, reason)| (approach_name(*approach), say(reason))).collect();
    let fails = pick.fails.as_ref().map(say);
    Phrase::of(|w| {
        let reported: Vec<String> =
            failing.iter().map(|(name, reason)| format!("{name}: {}", reason.in_unit(w.unit()))).collect();
        let level = exact.map_or_else(String::new, |exact| {
            if print::rounds_to_nought(exact, Style::everyday(w.unit())) {
                return format!(" It is on target where it is now{link}.");
            }
            let (end, eye) = match pick.end {
                Some(BracketEnd::Frame) => (BracketEnd::Frame, "frame end of the bar"),
                _ => (BracketEnd::Axle, "axle end of the bar"),
            };
            let (by, way) = (w.distance(exact), way(end, exact));
            format!(" To hit the target exactly{link}, move the {eye} {by} {way}.")
        });
        let fails = fails
            .as_ref()
            .map_or_else(String::new, |reason| format!(" But it won't work: {}.", reason.in_unit(w.unit())));
        let others = if reported.is_empty() {
            String::new()
        } else {
            format!(" Other options won't work: {}.", capital(&reported.join("; ")))
        };
        format!(
            "The bar is then at {} and moves the axle {} side to side over full travel.{level}{fails}{others}",
            degrees(pick.angle),
            w.distance(pick.swing)
        )
    })
}

/// What belongs with a moved eye where bar and drag link are apart.
const fn drag_link_cure(end: Option<BracketEnd>) -> &'static str {
    match end {
        Some(BracketEnd::Frame) => "drop the pitman arm to match",
        Some(BracketEnd::Axle) => "raise the drag link at the knuckle to match",
        None => "expect bump steer",
    }
}

/// What a approach does and what it gives up, in this job's numbers.
pub(crate) fn approach(approach: Approach, option: &OptionFacts, at_hand: bool) -> Phrase {
    let left_off = option.left_off;
    let failing = option.fails.as_ref().map(say);
    Phrase::of(|w| {
        let mut parts = Vec::new();
        let angle = degrees(option.angle);
        match approach {
            Approach::LengthOnly if option.change == Length::ZERO => parts.push(format!(
                "Leaves the length alone and the bar at {angle}: the axle still moves {} side to side over full travel",
                w.distance(option.swing)
            )),
            Approach::LengthOnly => parts.push(format!(
                "Centers the axle and leaves the bar at {angle}: it still moves {} side to side over full travel",
                w.distance(option.swing)
            )),
            Approach::RiserOnly | Approach::DropOnly => {
                parts.push(format!("Brings the bar to {angle} and leaves the axle {}", w.sideways(left_off)));
            }
            Approach::RiserAndLength | Approach::DropAndLength => parts
                .push(format!("Brings the bar to {angle} with the axle centered; it moves {} side to side", w.distance(option.swing))),
        }
        let load = match option.end {
            Some(BracketEnd::Axle) => Some((option.axle_moment_ratio, "the axle tube")),
            Some(BracketEnd::Frame) => {
                Some((option.frame_moment_ratio, "the frame rail, where brackets crack on hard use"))
            }
            None => None,
        };
        if let Some((ratio, into)) = load.filter(|(ratio, _)| (ratio - 1.0).abs() >= 0.05) {
            parts.push(format!("{ratio:.1} times the bending load on {into}"));
        }
        let higher = option.higher;
        if option.end.is_some() && !print::rounds_to_nought(higher, Style::everyday(w.unit())) {
            let way = if higher < Length::ZERO { "lower" } else { "higher" };
            parts.push(format!("roll center {} {way}", w.distance(higher)));
        }
        if let Some(part) = option.goes_with.as_ref().filter(|_| option.end.is_some()) {
            parts.push(format!("needs the {} to match", mark(part)));
        }
        if let Some(difference) = option.drag_link_difference.filter(|d| d.abs().to_degrees() >= 1.5) {
            let cure = drag_link_cure(option.end);
            parts.push(format!("bar and drag link are {} apart: {cure}", degrees(difference)));
        }
        let lift = option.lift;
        parts.push(match verb(w, lift) {
            Some(verb) => format!("in a left turn it {verb} the body by {}", force(w, lift.abs())),
            None => format!("in a turn it {NO_JACKING}"),
        });
        if !at_hand && approach != Approach::LengthOnly {
            parts.push("no such bracket in this job yet: this is the exact size needed".to_owned());
        }
        if let Some(reason) = &failing {
            parts.push(format!("it won't work: {}", reason.in_unit(w.unit())));
        }
        format!("{}.", parts.join("; "))
    })
}

/// What a bar does to the body in a turn that it neither lifts nor pulls down.
const NO_JACKING: &str = "does not jack the body up or down";

/// What it does to the body, + up; none where the force prints as nothing.
fn verb(w: Words, lift: Force) -> Option<&'static str> {
    let shows = force(w, lift.abs()) != force(w, Force::ZERO);
    shows.then_some(if lift > Force::ZERO { "lifts" } else { "pulls down" })
}

pub(super) fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

pub(crate) fn bend_taken() -> Phrase {
    Phrase::plain(
        "bend assumed at mid-bar, bent the same way as the old bar (else upward): hold the new bar up to check before you buy it",
    )
}

pub(crate) fn range_unknown() -> Phrase {
    Phrase::plain(
        "The bar's shortest and longest lengths are not known: measure them before you weld anything.",
    )
}

/// What is wanted, and what is to spare outward and inward; negative is short of it.
pub(crate) fn reaches(wanted: Length, out: Length, inward: Length) -> Phrase {
    Phrase::of(|w| {
        let room = |room: Length| {
            if print::rounds_to_nought(room, Style::everyday(w.unit())) {
                "nothing to spare".to_owned()
            } else if room < Length::ZERO {
                format!("{} short of it", w.distance(room))
            } else {
                format!("{} to spare", w.distance(room))
            }
        };
        format!("Needs {}. To go longer: {}. To go shorter: {}.", w.fine(wanted), room(out), room(inward))
    })
}

pub(crate) fn add_joints() -> Phrase {
    Phrase::plain("Add the joint and its spacers to check that they fill the bracket.")
}

pub(crate) fn ears(filled: Length, ear: Length, verdict: FitVerdict) -> Phrase {
    let over = filled - ear;
    Phrase::of(|w| {
        let reported = if verdict == FitVerdict::Good {
            "good fit".to_owned()
        } else if over > Length::ZERO {
            format!("{} too wide: don't spread the bracket", w.fine(over))
        } else {
            format!("{} gap: a spacer is missing; don't pull the bracket in with the bolt", w.fine(over))
        };
        format!("{} of joint and spacers in a {} bracket: {reported}.", w.fine(filled), w.fine(ear))
    })
}

pub(crate) fn parallel(apart: Angle, good: bool) -> Phrase {
    let reported = if good { "parallel" } else { "turn one until they match, then tack" };
    Phrase::plain(&format!("{} apart: {reported}.", degrees(apart)))
}

pub(crate) fn spacers(verdict: FitVerdict) -> Phrase {
    Phrase::plain(if verdict == FitVerdict::Good {
        "The spacers are out."
    } else {
        "Take the spacers out: they set the height for the old track bar and now rotate the pinion."
    })
}

pub(crate) fn read_both_sides() -> Phrase {
    Phrase::plain("Measure both sides on the Tape screen.")
}

/// Where a Y-link's axle sits.
pub(crate) fn y_link_sits(offset: Length, verdict: FitVerdict) -> Phrase {
    Phrase::of(|w| {
        let place = w.sideways(offset);
        match verdict {
            FitVerdict::Good => format!("The axle is {place}, within the tolerance."),
            FitVerdict::Bad => {
                format!("The axle is {place}: adjust the legs as shown, then measure both sides again.")
            }
            FitVerdict::Open => {
                "Can't tell yet: it could be centered or off. Measure again before you adjust a leg."
                    .to_owned()
            }
        }
    })
}

/// How square a Y-link's axle stands.
pub(crate) fn y_link_square(found: &Squareness, verdict: FitVerdict) -> Phrase {
    let (yaw, sure) = (found.yaw_deg.abs().to_degrees(), found.uncertainty_deg.to_degrees());
    let reported = format!("{yaw:.2}° ± {sure:.2}°");
    let side = if found.yaw_deg >= Angle::ZERO { "left" } else { "right" };
    Phrase::plain(&match verdict {
        FitVerdict::Good => format!("{reported}, within {:.2}°.", defaults::SQUARE_DEGREES),
        FitVerdict::Bad => format!(
            "The axle points {reported} to the {side}; up to {:.2}° counts as square. One lower arm is longer, or a bracket is out of place.",
            defaults::SQUARE_DEGREES
        ),
        FitVerdict::Open => format!(
            "{reported}: not accurate enough to say it is square within {:.2}°. Measure the wheelbase again, more times.",
            defaults::SQUARE_DEGREES
        ),
    })
}

/// A pinion that turned by less is not told, degrees.
const LEAST_REPORTED_DEGREES: f64 = 0.05;

/// What the legs do sideways, and what it leaves alone.
pub(crate) fn legs_sideways(off: Length, driver: Option<Side>) -> Phrase {
    Phrase::of(|w| {
        let way = sides::whose(Side::of(-off.to_mm()), driver);
        format!("Axle {} to the {way}, pinion angle unchanged:", w.distance(off))
    })
}

/// What the legs do to the pinion. `turned` is how far its nose went down.
pub(crate) fn legs_pinion(turned: Angle) -> Phrase {
    let way = if turned > Angle::ZERO { "up" } else { "down" };
    Phrase::plain(&format!(
        "Pinion {} {way}, back to its old angle, axle position unchanged:",
        degrees(turned)
    ))
}

/// One leg's change, and its turns.
pub(crate) fn leg(name: &str, change: Length, turns: Option<Turns>) -> Phrase {
    Phrase::of(|w| {
        if change.abs() < Length::from_mm(0.05) {
            return format!("{}: leave it as it is", mark(name));
        }
        let verb = if change > Length::ZERO { "longer" } else { "shorter" };
        let turns = turns.map_or_else(String::new, |turns| format!(", {}", turned(turns)));
        format!("{}: {} {verb}{turns}", mark(name), w.fine(change))
    })
}

pub(crate) fn take_squareness() -> Phrase {
    Phrase::plain("Measure squareness on the Tape screen: wheelbase, both sides.")
}

/// Change of the pinion from before the conversion, + nose down. The legs are told for the driven height.
pub(crate) fn pinion(turned: Option<Angle>, verdict: FitVerdict, driven: bool) -> Phrase {
    let Some(turned) = turned else {
        return Phrase::plain("Enter the pinion angle before the conversion and now.");
    };
    let way = if turned > Angle::ZERO { "down" } else { "up" };
    Phrase::plain(&if turned.abs().to_degrees() < LEAST_REPORTED_DEGREES {
        "Same as before the conversion.".to_owned()
    } else {
        let taken = format!("up to {:.0}° is acceptable", defaults::PINION_DEGREES);
        let cure = if verdict == FitVerdict::Bad && driven { ": adjust both legs as shown" } else { "" };
        format!("The pinion points {} more {way} than before the conversion; {taken}{cure}.", degrees(turned))
    })
}

pub(crate) fn wider_wishbone(ends: &Phrase) -> Phrase {
    Phrase::of(|w| format!("{}: past that you need a wider wishbone.", ends.in_unit(w.unit())))
}

pub(crate) fn joint_out() -> Phrase {
    Phrase::plain("A joint runs out of misalignment when the axle is crossed up: see Cycle.")
}

pub(crate) fn follows() -> Phrase {
    Phrase::plain("Nothing stops it before the bump stops, crossed up or not.")
}

/// Lift of the body in a left turn, + up, and the same as heave.
fn jacking(lift: Force, heave: Option<Length>) -> Phrase {
    Phrase::of(|w| {
        let Some(verb) = verb(w, lift) else { return NO_JACKING.to_owned() };
        let heave = heave.map_or_else(String::new, |heave| format!(", moving the body {}", w.fine(heave)));
        format!("{verb} {}{heave}; opposite in a right turn", force(w, lift.abs()))
    })
}

/// A mass.
pub(crate) fn mass(mass: Mass) -> Phrase {
    let kg = mass.to_kg();
    Phrase::of(|w| match w.unit() {
        Unit::Inches => format!("{:.1} lb", kg / KG_PER_LB),
        Unit::Millimetres => format!("{kg:.1} kg"),
    })
}

/// A bar against its load; `sleeve` where a turnbuckle's sleeve sits away from its ends.
pub(crate) fn stands(margin: f64, load: Force, bend: Length, sleeve: bool) -> Phrase {
    Phrase::of(|w| {
        let sleeve = if sleeve { "; the sleeve takes part of the bending too" } else { "" };
        let bent = if bend > Length::ZERO {
            format!(", the {} bend costs most of its strength{sleeve}", w.distance(bend))
        } else {
            String::new()
        };
        format!("estimated to hold {margin:.1} times its {} load{bent}", force(w, load))
    })
}

fn made_of(material: Material, section: &Section, assumed: bool) -> Phrase {
    let assumed = if assumed { ", assumed" } else { "" };
    Phrase::of(|w| match section.wall {
        Some(wall) => format!(
            "{}, {} by {} wall{assumed}",
            material.word(),
            w.distance(section.outside),
            w.distance(wall)
        ),
        None => format!("{}, {}{assumed}", material.word(), w.distance(section.outside)),
    })
}

/// What a joint holds by friction against its load.
pub(crate) fn slip(slip: Force, load: Force) -> Phrase {
    Phrase::of(|w| {
        let verdict = if slip * 0.75 >= load {
            "it holds by friction"
        } else if slip * 1.25 < load {
            "it will slip and hammer its hole"
        } else {
            "borderline: it holds only with clean faces and full clamp load"
        };
        format!(
            "At that torque the clamped joint holds about {} (±25 %) against a load of {}: {verdict}.",
            force(w, slip),
            force(w, load)
        )
    })
}

/// Sentences one after another.
pub(crate) fn in_a_row(parts: &[Phrase]) -> Phrase {
    let row = |of: fn(&Phrase) -> &str| parts.iter().map(of).collect::<Vec<_>>().join(" ");
    Phrase { inches: row(|part| &part.inches), millimetres: row(|part| &part.millimetres) }
}

pub(crate) fn nut(nut: &Thread, bolt: &Thread, own: bool) -> Phrase {
    let (nut, bolt) = (nut.text(), bolt.text());
    Phrase::plain(&if own {
        format!("Right nut: {nut} on a {bolt} bolt. Start it by hand.")
    } else {
        format!(
            "Wrong nut: a {nut} nut does not fit a {bolt} bolt, even if it starts. It binds or holds by a few threads. Stop, get the matching nut and start it by hand."
        )
    })
}

pub(crate) fn hole(play: Length, too_wide: bool) -> Phrase {
    Phrase::of(|w| {
        // A thirty-second of an inch is more than what knocks.
        let by = w.decimal(play.abs());
        if play == Length::ZERO {
            "The hole is the right size for the bolt.".to_owned()
        } else if play < Length::ZERO {
            format!(
                "The bolt is {by} too big for the hole. Make sure bolt and bracket belong together before you drill."
            )
        } else if too_wide {
            format!(
                "The hole is {by} bigger than the bolt: it will hammer. Use a sleeve, a reducer or the right size bolt."
            )
        } else {
            format!("The hole is {by} wider than the bolt.")
        }
    })
}

pub(crate) fn bolt_unmeasured() -> Phrase {
    Phrase::plain(
        "Measure the ear thickness and the inside width between the ears to work out the bolt length.",
    )
}

/// Shortest bolt, the one to buy, and what the one that is there comes to.
pub(crate) fn bolt_length(reported: &Reckoned, stack: &Stack) -> Phrase {
    let assumed = if stack.nut_height.is_some() { "" } else { " (its height assumed by its size)" };
    // A nut that does not come down to what it holds stands nowhere yet.
    let seated = !reported.faults.iter().any(|fault| matches!(fault, StackFault::NutOnShank(_)));
    let threads = reported.stands_out_threads.filter(|threads| seated && *threads >= 0.0);
    let there = threads.map_or(String::new(), |threads| {
        format!(" The bolt in it now sticks out {threads:.1} threads past the nut.")
    });
    // Bolts are made and sold in the unit of their thread.
    let series = if stack.bolt.is_metric() { Unit::Millimetres } else { Unit::Inches };
    let made = print::written(reported.buy, Style::everyday(series));
    let washers = if stack.washers.is_empty() { "no washers" } else { "two washers" };
    Phrase::of(|w| {
        let beyond = reported.most.filter(|most| *most < reported.buy).map_or(String::new(), |most| {
            format!(" Only a bolt up to {} long comes back out there with room for the wrench. Find another way in, or flip the bolt.", w.distance(most))
        });
        let bears = reported.thread_in_far_ear.map_or(String::new(), |inside| {
            format!(
                " The thread reaches {} into the ear on the nut side, and the ear bears on it. A bolt with a longer shank carries more and wears the hole less.",
                w.fine(inside)
            )
        });
        format!(
            "With {washers} and a {}{assumed} the bolt must be at least {} under the head; the next stock length is {made}.{there}{bears}{beyond}",
            stack.nut.word(),
            at_least(w, reported.needed),
        )
    })
}

/// What is wrong with the bolt that is there.
pub(crate) fn stack_fault(fault: &StackFault) -> Phrase {
    Phrase::of(|w| match fault {
        StackFault::WrongNut => "Wrong nut.".to_owned(),
        StackFault::HoleTooSmall(by) => format!("The hole is {} too small.", w.fine(*by)),
        StackFault::HoleTooWide(by) => format!("The hole is {} too wide.", w.fine(*by)),
        StackFault::TooShort(by) => {
            format!("The bolt in it now is {} too short: two threads must show past the nut.", w.fine(*by))
        }
        StackFault::NutOnShank(by) => format!(
            "The nut runs out of thread before it clamps: it feels tight and is loose. Add {} of washers, or use a bolt with more thread.",
            w.fine(*by)
        ),
        StackFault::NoWayOut(by) => format!(
            "The bolt won't come back out: it needs {} more room behind its head. Put it in from the other side, or move what is in the way first.",
            w.distance(*by)
        ),
        StackFault::NoWrench(by) => {
            format!("No room for a wrench on the nut: it needs {} more.", w.distance(*by))
        }
    })
}

/// A torque that was given beside what is usual for a bolt of its size; never one to use.
pub(crate) fn torque(
    usual: Moment,
    (thread, grade, treatment): (&Thread, Grade, ThreadTreatment),
    given: Option<(Moment, TorqueStands)>,
) -> Phrase {
    Phrase::of(|w| {
        let usual = in_both(w, usual);
        let size = format!("a {} bolt, {}, {}", thread.text(), grade.word(), treatment.word());
        let stands = match given {
            None => "Enter the torque from the part's instructions; this figure is only a check.".to_owned(),
            Some((given, TorqueStands::Usual)) => {
                format!(
                    "The {} you were given is reasonable. The part's instructions rule.",
                    in_both(w, given)
                )
            }
            Some((given, TorqueStands::Low)) => format!(
                "The {} you were given is less than half of that: ask the manufacturer if it is right for this bolt.",
                in_both(w, given)
            ),
            Some((given, TorqueStands::PastProof)) => format!(
                "Warning: don't use the {} you were given. It would stretch this bolt permanently. Check the bolt, the grade and the units, and ask the manufacturer.",
                in_both(w, given)
            ),
        };
        format!("Typical for {size}: about {usual}. {stands}")
    })
}

/// A torque in both units, the person's own first: wrenches are marked in either.
fn in_both(w: Words, moment: Moment) -> String {
    let other = if w.unit() == Unit::Inches { Unit::Millimetres } else { Unit::Inches };
    let other = Phrase::of(|w| printed_torque(w, moment)).in_unit(other).to_owned();
    format!("{} ({other})", printed_torque(w, moment))
}

pub(crate) fn play(band: Length) -> Phrase {
    Phrase::of(|w| format!("Bolt slop alone lets the axle wander {} side to side.", w.fine(band)))
}

/// A gap that makes another length than centring wants.
pub(crate) fn gap_is_off(off: Length, wanted: Length) -> Phrase {
    let word = if off > Length::ZERO { "longer" } else { "shorter" };
    Phrase::of(|w| {
        format!(
            "This gap makes a bar {} {word} than the {} that centers the axle. Was it on its wheels at driven height, strapped to center, eyes in the planned holes? Measure the gap again before you cut.",
            w.distance(off),
            w.fine(wanted)
        )
    })
}

pub(crate) fn cut_stock(cut: Length, length: Length) -> Phrase {
    Phrase::of(|w| format!("Cut {} of stock; the bar will be {} eye to eye.", w.fine(cut), w.fine(length)))
}

const TAPE_THE_GAP: &str = "The gap was measured between other holes than the planned ones. Measure it again in the planned \
                            holes before you cut, with the axle strapped to center and the bracket bolts snug.";

/// Good to buy the stock by, not to cut it by.
fn stock_about(cut: Length, length: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "The bar will be about {} eye to eye in the planned holes: get at least {} of stock.",
            w.fine(length),
            w.fine(cut)
        )
    })
}

pub(crate) fn brace_unmeasured() -> Phrase {
    Phrase::plain(
        "Enter how far below the rail the brace meets the bracket; the load it takes depends on that.",
    )
}

/// What a brace does, at most: it is taken to be stiff. `at_the_brace` is what the bracket itself carries there.
pub(crate) fn braced(with: Braced, (load, at_the_brace): (Force, Moment), verdict: FitVerdict) -> Phrase {
    Phrase::of(|w| {
        let carried = force(w, load * with.brace_share);
        let own = printed_torque(w, at_the_brace);
        let times = with.brace_share;
        match verdict {
            FitVerdict::Good => format!(
                "With the brace {:.0} % of the bending load stays in this rail. The brace carries {carried} to the other rail, and the bracket carries {own} where the brace holds it. Estimate for a stiff brace: one that flexes takes less.",
                with.root_share * 100.0
            ),
            FitVerdict::Open => format!(
                "A stiff brace would carry {carried}, {times:.0} times the bar load, and the bracket {own} where the brace holds it. Nobody has said that brace and bolts take that. Brace the bracket lower down."
            ),
            FitVerdict::Bad => format!(
                "The brace holds the bracket too close to the rail. A stiff brace would carry {carried}, {times:.0} times the bar load; one that flexes does almost nothing. The bracket carries {own} below the brace. Brace it lower down."
            ),
        }
    })
}

pub(crate) fn brace_beyond(below: Length, lever: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "The brace is entered {} below the rail, lower than the end of the bar at {}. Check both.",
            w.distance(below),
            w.distance(lever)
        )
    })
}

/// What a check is of.
fn check_name(check: &BracketCheck) -> Phrase {
    let name = match check {
        BracketCheck::Reach => "bar adjusts enough both ways",
        BracketCheck::Brace => "brace to the opposite rail",
        BracketCheck::Ears => "joint and spacers fill the bracket",
        BracketCheck::Parallel => "brackets parallel",
        BracketCheck::Spacers => "spacers behind the old upper mount",
        BracketCheck::BothSides => "both sides measure the same",
        BracketCheck::Square => "square under the frame",
        BracketCheck::Pinion { height } => return Phrase::plain(&format!("pinion at {}", mark(height))),
        BracketCheck::Follows => "Y-link follows full travel",
        BracketCheck::Nut => "nut",
        BracketCheck::Hole => "bolt fit in its hole",
        BracketCheck::BoltLength => "bolt length",
        BracketCheck::Torque => "torque",
    };
    Phrase::plain(name)
}

/// What an approach is called.
const fn approach_name(approach: Approach) -> &'static str {
    match approach {
        Approach::LengthOnly => "length only",
        Approach::RiserOnly => "riser only",
        Approach::DropOnly => "drop only",
        Approach::RiserAndLength => "riser and length",
        Approach::DropAndLength => "drop and length",
    }
}

/// What a hole is called.
fn place_name(place: &PlaceName) -> String {
    match place {
        PlaceName::NoBracket => "no bracket".to_owned(),
        PlaceName::AsFound => "as found".to_owned(),
        PlaceName::Hole { bracket, hole } if bracket.is_empty() => mark(hole),
        PlaceName::Hole { bracket, hole } => format!("{}, {}", mark(bracket), mark(hole)),
        PlaceName::Exact(BracketEnd::Axle) => "exact riser, to buy or make".to_owned(),
        PlaceName::Exact(BracketEnd::Frame) => "exact drop, to buy or make".to_owned(),
        PlaceName::Both { axle, frame } => format!("{} and {}", place_name(axle), place_name(frame)),
    }
}

/// What a bar is called.
fn bar_name(bar: &BarName) -> String {
    match bar {
        BarName::AsFound => "the bar as found".to_owned(),
        BarName::Named(name) => mark(name),
    }
}

/// What a bracket is called.
pub(crate) fn bracket_name(name: &str, end: BracketEnd) -> String {
    match (name, end) {
        ("", BracketEnd::Axle) => "axle bracket as it is".to_owned(),
        ("", BracketEnd::Frame) => "frame bracket as it is".to_owned(),
        (name, _) => mark(name),
    }
}

/// What every strength figure leaves out.
fn leaves_out() -> Phrase {
    Phrase::plain(
        "Estimates for comparison only: weld quality, fatigue, notches, heat and damage are not included. The manufacturer's figures and a qualified inspection come first.",
    )
}

/// The order of work of a built bar.
const fn build_step(step: BuildStep) -> &'static str {
    match step {
        BuildStep::ReadAgain => {
            "On its wheels at ride height, strapped to center; measure both sides once more."
        }
        BuildStep::Gap => {
            "Both ends in their brackets with bushings, bolts snug; measure the gap between the shells again."
        }
        BuildStep::Cut => "Cut the stock, cope both ends to the paper template, clean to bare metal, bevel.",
        BuildStep::Tack => {
            "Battery negative off. Tack in place, four tacks per end, both shells square to their bolts."
        }
        BuildStep::Weld => {
            "Take it out, press out the bushings before anything gets hot, then finish-weld a quarter turn at a time."
        }
        BuildStep::Fit => "Let it air-cool, press in the bushings, install it, measure both sides again.",
    }
}
