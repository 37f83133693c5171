//! The sentences of stage Bracket's options, schools and answer.

use derecho_core::measure::load::force;
use derecho_core::measure::phrase::{Words, degrees};
use derecho_core::measure::print::{self, Style};
use derecho_core::measure::{Angle, Length, Phrase};
use derecho_core::parts::BracketEnd;
use derecho_core::pose::mechanism::{Level, Mechanism, Watched};

use super::kinds::School;
use super::option::OptionResult;
use crate::bar::need::BracketNeed;
use crate::cycle::words as cycle_words;
use crate::document::HoleChoice;
use crate::setups::BarState;

pub(super) fn nothing_yet() -> Phrase {
    Phrase::plain("Nothing can be planned yet")
}

pub(super) fn conversion(bad: usize, open: usize) -> Phrase {
    Phrase::plain(&match (bad, open) {
        (0, 0) => "The Y-link is right".to_owned(),
        (0, open) => format!("The Y-link is right so far, {open} to check"),
        (1, _) => "One of the Y-link's checks fails".to_owned(),
        (bad, _) => format!("{bad} of the Y-link's checks fail"),
    })
}

pub(super) fn no_bar_to_level() -> Phrase {
    Phrase::plain(
        "A Y-shaped upper link centres the axle over all the travel it can follow. There is no bar to level.",
    )
}

/// A hole by its bracket; the bracket that is there has no name.
pub(super) fn hole_name(choice: &HoleChoice) -> String {
    match (choice.bracket.as_str(), choice.hole.as_str()) {
        (_, "") => "as it was found".to_owned(),
        ("", hole) => hole.to_owned(),
        (bracket, hole) => format!("{bracket}, {hole}"),
    }
}

pub(super) fn as_measured(fault: &str) -> Phrase {
    Phrase::plain(&format!("as measured, {fault}"))
}

pub(super) fn out_of_reach_at_ride() -> Phrase {
    Phrase::plain("the links do not reach at ride height")
}

pub(super) fn pulled_tight() -> Phrase {
    Phrase::plain("the bar is pulled tight before the travel ends")
}

/// Why a bar does not reach; `range` is the shortest and longest it can be.
pub(super) fn out_of_reach(
    shown: &str,
    wanted: Length,
    bar: &BarState,
    range: (Option<Length>, Option<Length>),
) -> Phrase {
    let (who, is) = if bar.name.is_empty() { (shown, "it goes") } else { ("the bar", "it is made") };
    Phrase::of(|w| {
        let wanted = w.fine(wanted);
        match range {
            (Some(least), Some(most)) if least == most => {
                let fixed = if bar.name.is_empty() {
                    format!("{who} is fixed")
                } else {
                    format!("the {shown} is fixed")
                };
                format!("{fixed} and would have to be {wanted}")
            }
            (Some(least), Some(most)) => {
                format!(
                    "{who} would have to be {wanted}, but {is} from {} to {}",
                    w.fine(least),
                    w.fine(most)
                )
            }
            (Some(least), None) => {
                format!("{who} would have to be {wanted}, but {is} no shorter than {}", w.fine(least))
            }
            (None, Some(most)) => {
                format!("{who} would have to be {wanted}, but {is} no longer than {}", w.fine(most))
            }
            (None, None) => format!("{who} would have to be {wanted}"),
        }
    })
}

/// Where a length that is left alone leaves the axle, beyond what counts as centred.
pub(super) fn left_off(offset: Length, tolerance: Length) -> Phrase {
    Phrase::of(|w| {
        format!(
            "its length left alone puts the axle {}, more than {}",
            w.sideways(offset),
            w.distance(tolerance)
        )
    })
}

pub(super) fn other_height(height: &str, name: &str, angle: Angle) -> Phrase {
    Phrase::plain(&format!("At {height}: {name}, {} there.", degrees(angle)))
}

/// What a limit does, and at which travel.
pub(super) fn met(mechanism: &Mechanism, what: Watched, level: Level, at: f64) -> Phrase {
    let what = cycle_words::happens(mechanism, what, level);
    Phrase::of(|w| format!("{} at {}", lowered(&what), cycle_words::place(w, at, at)))
}

fn lowered(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_lowercase().chain(letters).collect())
}

/// The exact riser or drop.
pub(super) fn exact(riser: Length) -> Phrase {
    Phrase::of(|w| {
        if print::rounds_to_nought(riser, Style::everyday(w.unit())) {
            return "It is on target where it is.".to_owned();
        }
        let (axle, frame) = if riser > Length::ZERO { ("up", "down") } else { ("down", "up") };
        let by = w.distance(riser);
        format!("Exactly on target: axle eye {by} {axle}, or frame eye {by} {frame}.")
    })
}

/// What is done with the bar's length: nothing where the change shows nothing on a tape.
fn length(w: Words, option: &OptionResult) -> Option<String> {
    if !option.plan.bar.is_empty() {
        return Some(format!("{} set to {}", option.bar, w.fine(option.length_mm)));
    }
    if print::rounds_to_nought(option.change_mm, Style::everyday(w.unit())) {
        return None;
    }
    let verb = if option.change_mm > Length::ZERO { "lengthen" } else { "shorten" };
    Some(format!("{verb} {}", w.distance(option.change_mm)))
}

/// The answer: the chosen plan, else length only where that is enough, else the best option.
pub(super) fn answer(pick: &OptionResult, chosen: bool, enough: bool) -> Phrase {
    Phrase::of(|w| {
        let set = length(w, pick);
        if pick.end.is_none() {
            let bare = match (chosen, enough) {
                (true, _) => "Length only",
                (false, true) => "Length only is enough",
                (false, false) => "No bracket here helps",
            };
            format!("{bare}: {}", set.unwrap_or_else(|| "the length stays".to_owned()))
        } else {
            match set {
                Some(set) => format!("{}, then {set}", capital(&pick.name)),
                None => format!("{}, the length stays", capital(&pick.name)),
            }
        }
    })
}

/// Why. `failing` names the other schools with why they fail, `need` is told where a length alone
/// is enough.
pub(super) fn because(
    pick: &OptionResult,
    failing: &[(String, Phrase)],
    exact: Option<Length>,
    need: Option<&BracketNeed>,
) -> Phrase {
    Phrase::of(|w| {
        if let Some(need) = need {
            return need.says.in_unit(w.unit()).to_owned();
        }
        let told: Vec<String> =
            failing.iter().map(|(name, reason)| format!("{name}: {}", reason.in_unit(w.unit()))).collect();
        let level = exact.map_or_else(String::new, |exact| {
            format!(
                " On target would be {} {}.",
                w.distance(exact),
                if pick.end == Some(BracketEnd::Frame) { "of drop" } else { "of riser" }
            )
        });
        let fails = pick
            .fails
            .first()
            .map_or_else(String::new, |reason| format!(" But it fails: {}.", reason.in_unit(w.unit())));
        let others =
            if told.is_empty() { String::new() } else { format!(" What fails: {}.", told.join("; ")) };
        format!(
            "It stands at {} then and swings {} over the travel.{level}{others}{fails}",
            degrees(pick.angle_deg),
            w.distance(pick.peak_to_peak_mm)
        )
    })
}

/// What a school does and what it gives up, in this job's numbers.
pub(super) fn school(school: School, option: &OptionResult, at_hand: bool) -> Phrase {
    let left_off = option.left_off_mm;
    let failing = option.fails.first().cloned();
    Phrase::of(|w| {
        let mut parts = Vec::new();
        let angle = degrees(option.angle_deg);
        match school {
            School::LengthOnly if option.change_mm == Length::ZERO => parts.push(format!(
                "Leaves the length as it is and the bar at {angle}: it still swings {} over the travel",
                w.distance(option.peak_to_peak_mm)
            )),
            School::LengthOnly => parts.push(format!(
                "Centres it and leaves the bar at {angle}: it still swings {} over the travel",
                w.distance(option.peak_to_peak_mm)
            )),
            School::RiserOnly | School::DropOnly => {
                parts.push(format!("Brings the bar to {angle} and leaves the axle {}", w.sideways(left_off)))
            }
            School::RiserAndLength | School::DropAndLength => parts.push(format!(
                "Brings the bar to {angle}, centred, swinging {}",
                w.distance(option.peak_to_peak_mm)
            )),
        }
        match option.end {
            Some(BracketEnd::Axle) => parts.push(format!(
                "{:.1} times the moment into the axle tube, roll centre {} {}",
                option.loads.axle_moment_ratio,
                w.distance(option.roll_centre_change_mm),
                higher(option.roll_centre_change_mm)
            )),
            Some(BracketEnd::Frame) => parts.push(format!(
                "{:.1} times the moment into the frame rail, where brackets crack on hard use, roll centre {} {}",
                option.loads.frame_moment_ratio,
                w.distance(option.roll_centre_change_mm),
                higher(option.roll_centre_change_mm)
            )),
            None => {}
        }
        if !option.plan.drag_link.is_empty() && option.end.is_some() {
            parts.push(format!("goes with the {}", option.plan.drag_link));
        }
        if let Some(difference) = option.drag_link_difference_deg.filter(|d| d.abs().to_degrees() >= 1.5) {
            let cure = match option.end {
                Some(BracketEnd::Frame) => "a dropped pitman arm belongs with it",
                Some(BracketEnd::Axle) => "the drag link is raised at the knuckle with it",
                None => "bumps steer",
            };
            parts.push(format!("bar and drag link are {} apart: {cure}", degrees(difference)));
        }
        parts.push(format!(
            "in a left turn it {} the body by {}",
            if option.loads.jacking_left_turn_n >= 0.0 { "lifts" } else { "pulls down" },
            force(w, option.loads.jacking_left_turn_n.abs())
        ));
        if !at_hand && school != School::LengthOnly {
            parts.push("no such bracket is tried here yet: this is the exact one".to_owned());
        }
        if let Some(reason) = &failing {
            parts.push(format!("it fails: {}", reason.in_unit(w.unit())));
        }
        format!("{}.", parts.join("; "))
    })
}

fn higher(change: Length) -> &'static str {
    if change < Length::ZERO { "lower" } else { "higher" }
}

fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}
