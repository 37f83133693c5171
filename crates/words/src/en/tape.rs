//! Stage Tape.

use derecho_core::measure::centring::{Answer, Centring};
use derecho_core::measure::phrase::Words;
use derecho_core::measure::squareness::Squareness;
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
        TapeMessage::Advice { kind, centring } => advice(*kind, centring),
    }
}

/// Why a sheet drives no correction.
fn refusal(refusal: Refusal, read_at: &str, driven_at: &str) -> Phrase {
    match refusal {
        Refusal::Hanging => Phrase::plain(
            "Read while hanging: the bar stands at another angle and the axle somewhere else. Set it on its own weight, bounce it, and read again.",
        ),
        Refusal::OtherHeight => Phrase::plain(&format!(
            "Read at {read_at}, but it is driven at {driven_at}: the axle moves sideways between the two. Read again at {driven_at}."
        )),
        Refusal::Stale => Phrase::plain(
            "Something has been set since these readings. They stay in the record; read again for the next step.",
        ),
    }
}

pub(crate) fn squareness_says(square: &Squareness) -> Phrase {
    let degrees = square.yaw_deg.to_degrees();
    let side = if degrees >= 0.0 { "left" } else { "right" };
    Phrase::of(|w| {
        if square.yaw_deg.abs() <= square.uncertainty_deg {
            format!(
                "Square as far as these readings tell: {:.2}° ± {:.2}°",
                degrees.abs(),
                square.uncertainty_deg.to_degrees()
            )
        } else {
            format!(
                "The axle points {:.2}° to the {side}: the wheelbases differ by {}",
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
                "{instrument} was last checked {when}: its check is overdue. Hold it against another tape before you rely on it."
            ));
        }
        SecondThought::FewRepeats => "Read each side three or four times: repeats show how sure it is.",
        SecondThought::OnItsWeight => "Tick whether it stood on its own weight; hanging readings are no use.",
        SecondThought::LeantOn => {
            "It was leant on between repeats. That moves a reading by 1/8\" (3 mm): bounce it and read again."
        }
        SecondThought::WheelsTurned => {
            "The wheels were not straight: a turned wheel moves its sidewall. Straighten them and read again."
        }
        SecondThought::PressuresUnlike => {
            "The tyres were not alike: level their pressures, or read to the hubs."
        }
        SecondThought::PlumbLine => {
            "A plumb line leans with the floor. Use a level floor, or type the floor's slope (stage Rig) and how far the line hangs."
        }
        SecondThought::FrameLeans(by) => {
            return Phrase::of(|w| {
                format!(
                    "The frame stands {} higher on one side. Read at hub height, or type how high above the axle the tape was, and the track width.",
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
            "The repeats disagree: {}. Was somebody leaning on it, or was the tape on another edge?",
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
        "More repeats do not change that: read this way it proves {provable}. Measure from frame to hub, or take {provable} as what counts as centred, in stage Rig."
    )
}

fn what(kind: SheetKind) -> &'static str {
    match kind {
        SheetKind::StickOut => "The sway bar",
        SheetKind::Centring | SheetKind::Squareness => "The axle",
    }
}

fn says(kind: SheetKind, centring: &Centring, steering: Option<Side>) -> Phrase {
    let seat =
        steering.map_or(String::new(), |steering| format!(", the {}", centring.side.seat_word(steering)));
    Phrase::of(|w| match centring.answer {
        Answer::OffCentre if w.shows_nothing(centring.offset_mm) => {
            format!("{} is off by less than the tape shows", what(kind))
        }
        Answer::OffCentre => format!("{} sits {}{seat}", what(kind), w.sideways(centring.offset_mm)),
        Answer::CannotTell => "Cannot be told from centred".to_owned(),
        Answer::WithinTolerance => format!("Centred within {}", w.distance(centring.tolerance_mm)),
    })
}

pub(crate) fn advice(kind: SheetKind, centring: &Centring) -> Phrase {
    Phrase::of(|w| {
        let sure = format!("give or take {}", w.fine(centring.uncertainty_mm));
        let best = w.sideways(centring.offset_mm);
        let mut text = match centring.answer {
            Answer::OffCentre if kind == SheetKind::StickOut => {
                format!(
                    "Half the difference, {sure}. Slide it {} to the {}.",
                    w.distance(centring.offset_mm),
                    centring.side.other().word()
                )
            }
            Answer::OffCentre => format!("Half the difference of the two sides, {sure}."),
            Answer::CannotTell if !centring.repeats_can_tell => {
                format!("The readings say {best}, {sure}. {}", cannot_prove(w, centring))
            }
            Answer::CannotTell => format!(
                "The readings say {best}, {sure}. Repeat them, more carefully or more often, or use a better feature, before anything is turned."
            ),
            Answer::WithinTolerance => {
                format!("The readings say {best}, {sure}: {}.", how_likely(w, centring))
            }
        };
        if !centring.method_can_prove && centring.repeats_can_tell {
            text.push_str(&format!(
                " As read, this cannot prove {}: it is not sure enough. It takes more repeats that agree, or a better feature.",
                w.distance(centring.tolerance_mm)
            ));
        }
        text
    })
}
