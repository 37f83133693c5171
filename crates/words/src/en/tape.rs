//! Stage Tape.

use super::sides;
use derecho_core::measure::centring::{Answer, Centring};
use derecho_core::measure::phrase::Words;
use derecho_core::measure::squareness::Squareness;
use derecho_core::measure::typed::mark;
use derecho_core::measure::{Length, Phrase, Side};

use derecho_job::document::SheetKind;
use derecho_job::tape::Refusal;
use derecho_job::tape::message::{SecondThought, TapeMessage};

pub(super) fn tape(message: &TapeMessage) -> Phrase {
    match message {
        TapeMessage::Refusal { refusal: why, read_at, driven_at } => refusal(*why, read_at, driven_at),
        TapeMessage::SquarenessSays { square } => squareness_says(square),
        TapeMessage::Says { kind, centring, steering } => says(*kind, centring, *steering),
        TapeMessage::SecondThought(thought) => second_thought(thought),
        TapeMessage::Advice { kind, centring, steering } => advice(*kind, centring, *steering),
    }
}

/// Why a sheet drives no correction.
fn refusal(refusal: Refusal, read_at: &str, driven_at: &str) -> Phrase {
    match refusal {
        Refusal::Hanging => Phrase::plain(
            "Measured with the axle hanging: the bar is at a different angle and the axle has moved over. Set it down on its wheels, bounce it, and measure again.",
        ),
        Refusal::OtherHeight => Phrase::plain(&format!(
            "Measured at {}, but it is driven at {}: the axle moves sideways between the two. Measure again at {}.",
            mark(read_at),
            mark(driven_at),
            mark(driven_at)
        )),
        Refusal::Stale => Phrase::plain(
            "Something was adjusted after these measurements. They stay on record; measure again before the next step.",
        ),
    }
}

pub(crate) fn squareness_says(square: &Squareness) -> Phrase {
    let degrees = square.yaw_deg.to_degrees();
    let side = if degrees >= 0.0 { "left" } else { "right" };
    Phrase::of(|w| {
        if square.yaw_deg.abs() <= square.uncertainty_deg {
            format!(
                "Square, as near as these measurements can tell: {:.2}° ± {:.2}°",
                degrees.abs(),
                square.uncertainty_deg.to_degrees()
            )
        } else {
            format!(
                "The axle is out of square: it points {:.2}° to the {side}. Wheelbase differs by {} side to side",
                degrees.abs(),
                w.distance(square.difference_mm)
            )
        }
    })
}

fn second_thought(thought: &SecondThought) -> Phrase {
    Phrase::plain(match thought {
        SecondThought::RepeatsDisagree(apart) => return disagree(apart),
        SecondThought::CheckOverdue { instrument, checked } => {
            let when = checked.map_or_else(|| "never".to_owned(), |date| format!("on {date}"));
            return Phrase::plain(&format!(
                "{} was last checked {when}: overdue. Check it against another tape before you rely on it.",
                mark(instrument)
            ));
        }
        SecondThought::FewRepeats => {
            "Measure each side three or four times: repeats show how good the number is."
        }
        SecondThought::OnItsWeight => {
            "Say whether it was on its wheels or hanging; measurements taken hanging can't be used."
        }
        SecondThought::LeantOn => {
            "Someone leaned on it between measurements. That can move it 1/8\" (3 mm): bounce it and measure again."
        }
        SecondThought::WheelsTurned => {
            "The wheels were not straight: a turned wheel moves its sidewall. Straighten them and measure again."
        }
        SecondThought::PressuresUnlike => {
            "The tires were not equal: set the pressures the same, or measure to the hubs."
        }
        SecondThought::PlumbLine => {
            "A plumb line is off on a sloping floor. Use a level floor, or enter the floor slope (Rig screen) and the length of the plumb line."
        }
        SecondThought::FrameLeans(by) => {
            return Phrase::of(|w| {
                format!(
                    "The frame is {} higher on one side. Measure at hub height, or enter how far above the axle the tape was and the track width.",
                    w.distance(*by)
                )
            });
        }
    })
}

fn disagree(apart: &[(Side, Length)]) -> Phrase {
    Phrase::of(|w| {
        let reported: Vec<String> = apart
            .iter()
            .map(|(side, range)| format!("on the {} by {}", side.word(), w.distance(*range)))
            .collect();
        format!(
            "The repeats don't agree: {}. Was someone leaning on it, or did the tape go to a different edge?",
            reported.join(", ")
        )
    })
}

/// How likely it is within the tolerance, of a hundred.
pub(crate) fn how_likely(w: Words, centring: &Centring) -> String {
    let of_100 = (centring.within_probability * 100.0).floor().clamp(0.0, 99.0);
    format!("{of_100:.0} in 100 that it is within {}", w.distance(centring.tolerance_mm))
}

/// What a way of reading proves that repeats make no surer, and what does: read otherwise, or want no more.
pub(crate) fn cannot_prove(w: Words, centring: &Centring) -> String {
    let provable = w.at_least(centring.provable_mm);
    format!(
        "More repeats won't change that: measured this way you can prove {provable} at best. Measure frame to hub, or set {provable} as what counts as centered on the Rig screen."
    )
}

fn what(kind: SheetKind) -> &'static str {
    match kind {
        SheetKind::StickOut => "The sway bar",
        SheetKind::Centring | SheetKind::Squareness => "The axle",
    }
}

fn says(kind: SheetKind, centring: &Centring, steering: Option<Side>) -> Phrase {
    Phrase::of(|w| match centring.answer {
        Answer::OffCentre if w.shows_nothing(centring.offset_mm) => {
            format!("{} is off center by less than a tape can show", what(kind))
        }
        Answer::OffCentre => {
            format!("{} is {}", what(kind), sides::sideways(w, centring.offset_mm, steering))
        }
        Answer::CannotTell => "Can't tell yet: it could be centered or off. Measure again".to_owned(),
        Answer::WithinTolerance => format!("Centered within {}", w.distance(centring.tolerance_mm)),
    })
}

fn advice(kind: SheetKind, centring: &Centring, steering: Option<Side>) -> Phrase {
    Phrase::of(|w| {
        let sure = format!("±{}", w.fine(centring.uncertainty_mm));
        let best = w.sideways(centring.offset_mm);
        let mut text = match centring.answer {
            Answer::OffCentre if kind == SheetKind::StickOut => {
                format!(
                    "Half the left-right difference, {sure}. Slide it {} to the {}.",
                    w.distance(centring.offset_mm),
                    sides::whose(centring.side.other(), steering)
                )
            }
            Answer::OffCentre => format!("Half the left-right difference, {sure}."),
            Answer::CannotTell if !centring.repeats_can_tell => {
                format!("Measured {best}, {sure}. {}", cannot_prove(w, centring))
            }
            Answer::CannotTell => format!(
                "Measured {best}, {sure}: not good enough to act on. Measure again more carefully, take more repeats, or use a better reference point before you adjust anything."
            ),
            Answer::WithinTolerance => {
                format!("Measured {best}, {sure}: {}.", how_likely(w, centring))
            }
        };
        if !centring.method_can_prove && centring.repeats_can_tell {
            text.push_str(&format!(
                " Measured this way you can't show it is centered within {}. Take more repeats that agree, or use a better reference point.",
                w.distance(centring.tolerance_mm)
            ));
        }
        text
    })
}
