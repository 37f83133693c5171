//! Every sentence of stage Bar.

use derecho_core::bar::adjuster::{AdjusterKind, CutFrom, Setting, TurnStep, Verdict, facts_within, sleeve};
use derecho_core::bar::evidence::RiseSource;
use derecho_core::bar::{FrontView, Recentring, Swing};
use derecho_core::fastener::Thread;
use derecho_core::measure::phrase::{Value, Words, degrees};
use derecho_core::measure::print::{self, Style};
use derecho_core::measure::{Angle, Length, Phrase, Side, Step, Working};
use derecho_core::parts::BracketEnd;
use glam::DVec3;

use super::further::Further;
use super::need::{BracketNeed, Need, NeedFacts, NeedReason};
use super::ways::{WayFacts, WayOut};
use crate::document::{Job, length_of};
use crate::setups::adjuster::ThreadFault;
use crate::setups::moves::EyeMoves;
use crate::setups::{BasisSource, Known, Reading, Setups};

pub(crate) fn stands(view: &FrontView) -> Phrase {
    let angle = view.angle();
    let text = if angle.abs().to_degrees() < 0.05 {
        "The bar stands level".to_owned()
    } else {
        let end = if angle > Angle::ZERO { "frame" } else { "axle" };
        format!("The bar stands at {}, {end} end up", degrees(angle))
    };
    Phrase::plain(&text)
}

pub(crate) fn rate_says(view: &FrontView) -> Phrase {
    let rate = view.lateral_rate();
    Phrase::of(|w| {
        if rate.abs() < 0.005 {
            return "A small bump moves the axle sideways hardly at all.".to_owned();
        }
        let side = Side::of(rate).word();
        format!(
            "At this height every {} of bump pushes the axle {} to the {side}.",
            w.distance(w.round_step()),
            w.fine(w.round_step() * rate)
        )
    })
}

pub(crate) fn angle_working(view: &FrontView, job: &Job) -> Working {
    let length = Value::Length;
    let terms = [("L", length(view.length())), ("v", length(view.rise())), ("d", length(view.fore_aft()))];
    let mut steps = Vec::new();
    let bar = &job.setups.found.bar;
    if let (Some(frame), Some(axle)) = (length_of(&bar.frame_eye_height), length_of(&bar.axle_eye_height)) {
        // Counted to ride height and back: what is left over of that was not added by anybody.
        let added = view.rise() - (frame - axle);
        let changed = added.abs() > Length::from_mm(1e-6);
        let note = if changed { "rise of the frame eye as it was read" } else { "rise of the frame eye" };
        steps.push(Step::new(
            note,
            "v = {F_z} − {A_z}",
            &[("F_z", length(frame)), ("A_z", length(axle))],
            length(frame - axle),
        ));
        if changed {
            steps.push(Step::new(
                "rise at the driven height, with what was added since",
                "v = {v} + {added}",
                &[("v", length(frame - axle)), ("added", length(added))],
                length(view.rise()),
            ));
        }
    }
    steps.push(Step::new("sideways reach", "h = √({L}² − {v}² − {d}²)", &terms, length(view.reach())));
    steps.push(Step::new(
        "angle in front view, + frame end higher",
        "θ = atan({v} / {h})",
        &[("v", length(view.rise())), ("h", length(view.reach()))],
        Value::Angle(view.angle()),
    ));
    steps.push(Step::new(
        "lateral rate: to the left per unit of bump",
        "dy/dt = −{s} · {v} / {h}",
        &[
            ("s", Value::Number(view.frame_eye_side().sign(), 0)),
            ("v", length(view.rise())),
            ("h", length(view.reach())),
        ],
        Value::Number(view.lateral_rate(), 5),
    ));
    Working { title: "Angle and rate".to_owned(), steps }
}

pub(crate) fn length_working(
    view: &FrontView,
    planned: &FrontView,
    offset: Length,
    carried: Length,
    wanted: &Recentring,
) -> Working {
    let length = Value::Length;
    // With a hole moved sideways that much more has to be reached.
    let reached = offset + carried;
    let s = Value::Number(view.frame_eye_side().sign(), 0);
    let steps = vec![
        Step::new(
            "sideways reach wanted; e is the offset, + left",
            "h′ = {h} + {s} · {e}",
            &[("h", length(view.reach())), ("s", s), ("e", length(reached))],
            length(wanted.reach_mm),
        ),
        Step::new(
            "length wanted",
            "L′ = √({h′}² + {v}² + {d}²)",
            &[
                ("h′", length(wanted.reach_mm)),
                ("v", length(planned.rise())),
                ("d", length(planned.fore_aft())),
            ],
            length(wanted.length_mm),
        ),
        Step::new(
            "change",
            "ΔL = {L′} − {L}",
            &[("L′", length(wanted.length_mm)), ("L", length(view.length()))],
            length(wanted.change_mm),
        ),
        Step::new(
            "to first order",
            "ΔL ≈ {s} · {e} · {h} / {L}",
            &[("s", s), ("e", length(offset)), ("h", length(view.reach())), ("L", length(view.length()))],
            length(wanted.first_order_change_mm),
        ),
        Step::new(
            "the half-difference rule of thumb",
            "ΔL ≈ {s} · {e}",
            &[("s", s), ("e", length(offset))],
            length(wanted.thumb_change_mm),
        ),
        Step::new(
            "what the thumb sets too long, − is too short",
            "{thumb} − {ΔL}",
            &[("thumb", length(wanted.thumb_change_mm)), ("ΔL", length(wanted.change_mm))],
            length(wanted.thumb_cost_mm),
        ),
    ];
    Working { title: "The length that centres it".to_owned(), steps }
}

/// Some hold that a longer bar makes the sideways motion worse. Its rate is a little
/// smaller; but the swing now starts from the centre instead of from the offset.
pub(crate) fn longer_says(
    found: &FrontView,
    planned: &FrontView,
    offset: Length,
    bump: Length,
) -> Option<Phrase> {
    if planned.length() <= found.length() || found.rise().abs().to_mm() < 1.0 {
        return None;
    }
    let (before, after) = (found.lateral_rate().abs(), planned.lateral_rate().abs());
    let tight = |view: &FrontView| view.pulled_tight().1.min(bump);
    let at_bump = (offset + found.shift_at(tight(found)), planned.shift_at(tight(planned)));
    Some(Phrase::of(|w| {
        format!(
            "Does the longer bar make it worse? Its rate is {:.1} % smaller. But it swings from the centre: at full bump the axle is {} with it, and {} as found. The curves show both.",
            (1.0 - after / before) * 100.0,
            w.sideways(at_bump.1),
            w.sideways(at_bump.0)
        )
    }))
}

/// What explains best why a link and its ends do not agree.
pub(crate) fn likely_cause(length: f64, across: DVec3, axle: DVec3, good_to: f64, rail: f64) -> &'static str {
    let fits = |apart: f64| (apart - length).abs() <= 2.0 * good_to;
    let moved = |by: DVec3| fits((across + by).length());
    // One eye on the far side of the centreline: its y was taken with the other sign.
    if moved(DVec3::new(0.0, 2.0 * axle.y, 0.0)) {
        return "It would fit if one end were on the other side of the centreline: check both sideways distances.";
    }
    if moved(DVec3::new(0.0, across.y.signum() * rail, 0.0))
        || moved(DVec3::new(0.0, -across.y.signum() * rail, 0.0))
    {
        return "It would fit if one sideways distance had been taken from the rail instead of the centreline.";
    }
    if [25.4, -25.4, 50.8, -50.8].into_iter().any(|inch| fits(across.length() + inch)) {
        return "It would fit with a number misread on the tape: read the length again.";
    }
    let difference = (across.length() - length).abs();
    if (25.0..=90.0).contains(&difference) {
        return "An eye is about that wide: was the length taken over the outside of the eyes instead of centre to centre?";
    }
    "Measure its length again, centre to centre, then the end you trust least."
}

pub(crate) fn lift_says(verb: &str, shift: Length) -> Phrase {
    Phrase::of(|w| format!("The {verb} alone moves the axle: {}", w.movement(shift)))
}

/// `cause` is the likely cause where the two disagree by more than they are good to.
pub(crate) fn eyes_say(reach: Length, plumbed: Length, cause: Option<&str>) -> Phrase {
    let difference = reach - plumbed;
    Phrase::of(|w| match cause {
        Some(cause) => format!(
            "The bar reaches {} sideways, but its eyes were plumbed {} apart: {} off. {cause} The length rules here.",
            w.distance(reach),
            w.distance(plumbed),
            w.distance(difference)
        ),
        None => format!("The eyes as plumbed agree with the bar's length within {}.", w.fine(difference)),
    })
}

pub(crate) fn warnings(job: &Job, known: &Known, swing: &Swing) -> Vec<Phrase> {
    let mut warnings = Vec::new();
    let bar = &job.setups.found.bar;
    let rise = &known.rise;
    if let Some(difference) = rise.disagreement_mm {
        warnings.push(Phrase::of(|w| {
            format!(
                "The finder and the bolt heights disagree by {} of rise, more than both are good for. The heights are used. Was the finder on a straight part, and zeroed? Were both heights taken from one floor?",
                w.distance(difference)
            )
        }));
    }
    if bar.bent && bar.finder.reading.is_some() {
        warnings.push(Phrase::plain(
            "The bar is bent or tapered: the finder's angle is left aside. Type both bolt heights.",
        ));
    }
    if rise.source == RiseSource::Finder {
        warnings.push(Phrase::of(|w| {
            format!(
                "The rise comes from the finder and is good to {} only. Two bolt heights are better.",
                w.distance(rise.uncertainty_mm)
            )
        }));
    }
    if bar.finder.reading.is_some() && bar.finder.higher_end.is_none() {
        warnings.push(Phrase::plain("Which end of the bar is higher? The finder does not say."));
    }
    for (tight, place) in [(swing.tight_in_droop_mm, "droop"), (swing.tight_in_bump_mm, "bump")] {
        if let Some(travel) = tight {
            warnings.push(Phrase::of(|w| {
                format!(
                    "The bar is pulled tight {} into {place}, before the travel ends.",
                    w.distance(travel)
                )
            }));
        }
    }
    warnings
}

/// Why no length is offered.
pub(crate) fn withheld(setups: &Setups) -> Phrase {
    match (setups.basis.source, setups.basis.answer) {
        (BasisSource::Strapped, _) => Phrase::of(|w| {
            format!(
                "Build the bar {} eye to eye, as the gap in stage Bracket has it: measured strapped to centre, it leaves the axle there. Record it here once it is hung.",
                w.fine(setups.base.view.length())
            )
        }),
        (_, Reading::CannotTell) => Phrase::plain(
            "No length is offered: the readings cannot tell the axle from centred. Read again first.",
        ),
        (_, Reading::Centred) => Phrase::plain("Leave the length as it is: the axle is centred."),
        (_, Reading::Unread) => Phrase::plain(
            "Read both sides in stage Tape: the length to set follows from how far off the axle is.",
        ),
        (_, Reading::Off) => {
            Phrase::plain("The offset is as large as the bar's reach. Check the readings and their unit.")
        }
    }
}

/// The headline where the length alone leads into something that ends the travel, and holes are on offer.
pub(crate) fn decide_first(ends: &Phrase) -> Phrase {
    Phrase::of(|w| {
        format!("Decide first, a hole or the length alone: with the length alone, {}", ends.in_unit(w.unit()))
    })
}

/// What the headline is made from.
pub(crate) struct Set<'a> {
    /// Change of length from the bar that is in.
    pub(crate) change: Length,
    /// The length wanted.
    pub(crate) length: Length,
    /// The bar that is hung, where another one is.
    pub(crate) hangs: Option<&'a str>,
    /// Whether that one is cut and welded to length.
    pub(crate) made_to_length: bool,
    /// What comes of setting it, where that is known.
    pub(crate) verdict: Option<Verdict>,
    /// Whether it can be so long, where that is known.
    pub(crate) covered: Option<bool>,
}

pub(crate) fn length_says(set: &Set<'_>) -> Phrase {
    let reaches = set.covered != Some(false);
    Phrase::of(|w| {
        if let Some(name) = set.hangs {
            let length = w.fine(set.length);
            return match set.verdict {
                _ if !reaches => format!("The {name} does not reach: it would have to be {length}"),
                _ if set.made_to_length => format!("Cut and weld the {name} to {length} eye to eye"),
                Some(Verdict::AsItIs) => format!("Hang the {name} as it is, {length} eye to eye"),
                _ => format!("Set the {name} to {length}"),
            };
        }
        let longer = set.change > Length::ZERO;
        let by = w.distance(set.change);
        if w.shows_nothing(set.change) {
            return "The length is right as it stands".to_owned();
        }
        if !reaches || set.verdict == Some(Verdict::CannotBeTurned) {
            let (is, to) = if longer { ("short", "longer") } else { ("long", "shorter") };
            return format!("The bar is too {is}: it would have to be {by} {to}");
        }
        let verb = if longer { "Lengthen" } else { "Shorten" };
        if set.verdict == Some(Verdict::EvenEnds) {
            return format!("{verb} the bar {by}, both ends evened first");
        }
        format!("{verb} the bar {by}")
    })
}

pub(crate) fn thumb_says(wanted: &Recentring) -> Phrase {
    Phrase::of(|w| {
        let cost = wanted.thumb_cost_mm;
        let says = w.decimal(wanted.thumb_change_mm.abs());
        if print::decimal(cost.abs(), w.unit()) == print::decimal(Length::ZERO, w.unit()) {
            return format!("The half-difference rule says {says}: the same here.");
        }
        let side =
            if cost.to_mm() * wanted.change_mm.to_mm().signum() > 0.0 { "too much" } else { "too little" };
        format!("The half-difference rule says {says}: {} {side}.", w.decimal(cost.abs()))
    })
}

/// `need` where no eye is moved: what the length alone leaves to be wanted.
/// `off` is where the axle stands then, + left.
pub(crate) fn leaves_says(
    planned: &FrontView,
    off: Length,
    swing: Swing,
    need: Option<&BracketNeed>,
) -> Phrase {
    Phrase::of(|w| {
        let stands = if w.shows_nothing(off) {
            "Centred here".to_owned()
        } else {
            format!("With the axle {} here", w.sideways(off))
        };
        let over = format!(
            "{stands}, the bar {}, so over the whole travel the axle still swings {}: {} at full droop, {} at full bump.",
            if planned.angle().abs().to_degrees() < 0.05 {
                "lies level".to_owned()
            } else {
                format!("stands at {}", degrees(planned.angle()))
            },
            w.distance(swing.peak_to_peak_mm),
            w.movement(swing.at_full_droop_mm),
            w.movement(swing.at_full_bump_mm)
        );
        match need {
            Some(need) => format!("{over} {}", need.says.in_unit(w.unit())),
            None => over,
        }
    })
}

/// Two lengths that are told to differ, printed so that they do: finer where the everyday style makes them one.
fn apart(w: Words, one: Length, other: Length) -> (String, String) {
    let (a, b) = (w.distance(one), w.distance(other));
    if a == b { (w.fine(one), w.fine(other)) } else { (a, b) }
}

/// What Bar and Bracket both say of a bracket.
pub(crate) fn need_says(facts: &NeedFacts) -> Phrase {
    let (angle, steep_from) = (facts.angle_deg, facts.steep_from_deg);
    let (swing, limit) = (facts.swing_mm, facts.swing_limit_mm);
    let reasons = &facts.reasons;
    Phrase::of(|w| match facts.need {
        Need::NotNeeded => format!(
            "No bracket is needed for the angle: the bar is as good as level, and swings the axle {} over the travel.",
            w.distance(swing)
        ),
        Need::Offered => {
            let (swing, limit) = apart(w, swing, limit);
            format!(
                "A bracket is not urged: {} is under {} and the swing of {swing} over the travel under {limit}. One nearer to level would lessen it.",
                degrees(angle),
                degrees(steep_from),
            )
        }
        Need::Urged => {
            let told: Vec<String> = reasons
                .iter()
                .map(|reason| match reason {
                    NeedReason::Steep => {
                        format!("{} is {} or more", degrees(angle), degrees(steep_from))
                    }
                    NeedReason::Swings => {
                        let (swing, limit) = apart(w, swing, limit);
                        format!("the swing of {swing} over the travel is more than {limit}")
                    }
                    NeedReason::Complaint => "side-stepping is complained of".to_owned(),
                })
                .collect();
            format!(
                "A bracket is urged: {}. It puts the angle right, the bar only the centre.",
                told.join(", and ")
            )
        }
    })
}

pub(crate) fn readings_say([left, right]: [Length; 2]) -> Phrase {
    Phrase::of(|w| {
        let (left, right) = (w.distance(left), w.distance(right));
        if left == right {
            format!("Both sides should read {left} then.")
        } else {
            format!("The left should read {left} then and the right {right}.")
        }
    })
}

/// The eyes the plan moves, frame eye first; None where it moves none.
pub(crate) fn plan_says(moves: EyeMoves, holes: &[&str; 2]) -> Option<Phrase> {
    if moves.is_none() {
        return None;
    }
    Some(Phrase::of(|w| {
        let told: Vec<String> =
            [(BracketEnd::Frame, "frame eye", &holes[0]), (BracketEnd::Axle, "axle eye", &holes[1])]
                .into_iter()
                .filter(|(end, ..)| moves.at(*end).length() > 1e-6)
                .map(|(end, eye, hole)| {
                    let by = moves.at(end);
                    let up = Length::from_mm(by.z);
                    let mut ways = Vec::new();
                    if !w.shows_nothing(up) {
                        ways.push(format!(
                            "{} {}",
                            w.distance(up),
                            if up < Length::ZERO { "down" } else { "up" }
                        ));
                    }
                    let side = Length::from_mm(by.y);
                    if !w.shows_nothing(side) {
                        ways.push(w.sideways(side));
                    }
                    let ahead = Length::from_mm(by.x);
                    if !w.shows_nothing(ahead) {
                        let way = if ahead > Length::ZERO { "forward" } else { "back" };
                        ways.push(format!("{} {way}", w.distance(ahead)));
                    }
                    let place = if hole.is_empty() { "where it was found" } else { *hole };
                    format!("the {eye} {}, {place}", ways.join(" and "))
                })
                .collect();
        format!("With {}, as chosen in stage Bracket.", told.join(" and "))
    }))
}

pub(crate) fn set_says(
    length: Length,
    wants_now: Option<Length>,
    offset: Length,
    fault: Option<&ThreadFault>,
) -> Phrase {
    Phrase::of(|w| {
        let place = if w.shows_nothing(offset) {
            "The axle should be centred now".to_owned()
        } else {
            format!("The axle should sit {} now", w.sideways(offset))
        };
        if let Some(fault) = fault {
            return format!("Set to {}. {} Do not drive it so.", w.fine(length), thread_fault(w, fault));
        }
        match wants_now {
            Some(wanted) => format!(
                "Set to {}, but the readings have changed since: it now wants {}. {place}.",
                w.fine(length),
                w.fine(wanted)
            ),
            None => format!("Set to {}. {place}: read both sides again in stage Prove.", w.fine(length)),
        }
    })
}

/// What is wrong with the thread that is in, in one sentence.
pub(crate) fn thread_fault(w: Words, fault: &ThreadFault) -> String {
    match fault {
        ThreadFault::TooLittle { in_mm, .. } if *in_mm <= Length::ZERO => {
            "So set, the thread is right out: the bar would come apart.".to_owned()
        }
        ThreadFault::TooLittle { in_mm, least_mm } => format!(
            "So set, only {} of thread is in and {} must be: it can pull out.",
            w.distance(*in_mm),
            w.distance(*least_mm)
        ),
        ThreadFault::PastFullDepth { in_mm, full_mm } => format!(
            "So set, {} of thread would be in where {} is all there is: measure the length and the thread again.",
            w.distance(*in_mm),
            w.distance(*full_mm)
        ),
    }
}

fn counted(count: u32, word: &str) -> String {
    format!("{count} {word}{}", if count == 1 { "" } else { "s" })
}

fn whole_turns(turns: u32, flats: u32) -> String {
    match (turns, flats) {
        (turns, 0) => counted(turns, "turn"),
        (0, flats) => counted(flats, "flat"),
        (turns, flats) => format!("{} and {}", counted(turns, "turn"), counted(flats, "flat")),
    }
}

/// The turns to make; None where turning does not reach the length, or a bar has none to make.
pub(crate) fn turns_say(setting: &Setting) -> Option<Phrase> {
    let (turns, flats) = (setting.turns?, setting.flats?);
    // In and out mean nothing of a sleeve with two hands.
    let way = if setting.wanted_mm > setting.from_mm { "longer" } else { "shorter" };
    let text = match (turns, flats, setting.turned_by) {
        (0, 0, _) => "leave it as it is".to_owned(),
        (0, 3, TurnStep::HalfTurn) => format!("half a turn {way}"),
        (turns, 3, TurnStep::HalfTurn) => format!("{turns} ½ turns {way}"),
        (turns, flats, _) => format!("{} {way}", whole_turns(turns, flats)),
    };
    Some(Phrase::plain(&text))
}

/// The turns to hundredths of a flat.
pub(crate) fn exactly(setting: &Setting) -> Option<Phrase> {
    let (turns, flats, over) = (setting.turns?, setting.flats?, setting.flats_over?);
    // Flats mean nothing to an eye that lines up once or twice in a turn.
    let steps = match setting.turned_by {
        TurnStep::Flat => None,
        TurnStep::HalfTurn => Some("half"),
        TurnStep::WholeTurn => Some("whole"),
    };
    if let Some(steps) = steps {
        return Some(Phrase::plain(&format!("{:.2} turns, in {steps} turns", setting.exact_turns?.abs())));
    }
    let rest = format!("{:.2} flat", over.abs());
    Some(Phrase::plain(&if rest == "0.00 flat" {
        whole_turns(turns, flats)
    } else {
        format!("{} {} {rest}", whole_turns(turns, flats), if over < 0.0 { "less" } else { "and" })
    }))
}

/// Turns, in words, that bring a sleeve or link to a wanted length, eye to eye, one of its ends cut
/// right hand and the other left, both with this thread. None where there is nothing to turn.
pub(crate) fn sleeve_turns(thread: &Thread, now: Length, wanted: Length) -> Option<Phrase> {
    turns_say(&facts_within(&sleeve(thread), now, wanted, Length::ZERO))
}

/// A length rounded up to the tape's everyday mark, so that what is cut is never too little.
pub(crate) fn at_least(w: Words, length: Length) -> String {
    let division = Length::from_mm(Style::everyday(w.unit()).division_nanometres() as f64 / 1e6);
    // A hair over a mark is that mark: a tape shows no more.
    let marks = (length / division - 1e-3).ceil().max(0.0);
    w.distance(division * marks)
}

/// What comes of setting the length.
pub(crate) fn setting_says(setting: &Setting) -> Phrase {
    let leftover = setting.leftover_mm.unwrap_or(Length::ZERO);
    let change = setting.wanted_mm - setting.from_mm;
    match setting.verdict {
        Verdict::CannotBeTurned => Phrase::of(|w| {
            format!(
                "This bar cannot be turned. {} wants a bar of {}, eye to eye.",
                if change > Length::ZERO { "Longer" } else { "Shorter" },
                w.fine(setting.wanted_mm)
            )
        }),
        Verdict::ThreadMissing => {
            Phrase::plain("Type the thread of each adjusting end, such as 1-1/4-12, to get turns and flats.")
        }
        Verdict::HandsMissing => Phrase::plain(
            "Which hand is each thread? Opposite hands add their pitches, the same hand takes them from each other.",
        ),
        Verdict::TurningDoesNothing => Phrase::plain(
            "Both ends have the same pitch and the same hand: turning the middle changes nothing. Check the hands.",
        ),
        Verdict::AsItIs if setting.kind == AdjusterKind::Fixed => Phrase::of(|w| {
            if w.shows_nothing(leftover) {
                "Its length is right as it is.".to_owned()
            } else {
                format!(
                    "Its length stays: {} off the exact one, within what counts as centred.",
                    w.distance(leftover)
                )
            }
        }),
        Verdict::AsItIs => Phrase::plain("The nearest step is where it stands: leave the threads alone."),
        Verdict::BarTooShort => Phrase::of(|w| {
            let most = setting.evened_longest_mm.map_or_else(String::new, |most| w.fine(most));
            format!(
                "Too short for this job: it takes {} and this bar ends at {most}.",
                w.fine(setting.wanted_mm)
            )
        }),
        Verdict::CutBack => cut_says(setting),
        Verdict::EvenEnds => Phrase::of(|w| {
            let told: Vec<String> = setting
                .ends
                .iter()
                .zip(["frame-side", "axle-side"])
                .filter_map(|(end, name)| {
                    Some(format!("{} at the {name} end", w.distance(end.engagement_after_mm?)))
                })
                .collect();
            format!(
                "One end runs out while the other has thread to spare. Unbolt one eye and turn it by itself until both hold alike at {}: {} of thread in, with {} to spare at each.",
                w.fine(setting.wanted_mm),
                told.join(" and "),
                w.distance(spare(setting))
            )
        }),
        Verdict::TooLittleThread => Phrase::of(|w| {
            let needed = setting.ends.iter().map(|end| end.least_engagement_mm).reduce(Length::max);
            let needed = needed.unwrap_or(Length::ZERO);
            let least_in = setting.ends.iter().filter_map(|end| end.engagement_before_mm).reduce(Length::min);
            match (setting.evened_longest_mm, least_in) {
                (Some(longest), Some(least_in)) if longest < setting.from_mm => format!(
                    "As it is there is too little thread in: {} where {} must stay in at each end. Take a longer bar, or a bracket that wants less length.",
                    w.fine(least_in),
                    w.fine(needed)
                ),
                (Some(longest), _) => format!(
                    "With the {} of thread that must stay in it goes to {} and no further, {} short. Take a longer bar, or a bracket that wants less length.",
                    w.distance(needed),
                    w.fine(longest),
                    w.distance(setting.wanted_mm - longest)
                ),
                (None, _) => {
                    format!("Less than the {} of thread that must stay in would.", w.distance(needed))
                }
            }
        }),
        Verdict::ThreadBottoms => Phrase::plain(
            "The finer thread would be screwed in to its end before the length is reached. Take a bar with opposite hands, or a longer one.",
        ),
        Verdict::Fits => Phrase::of(|w| {
            if print::rounds_to_nought(leftover, Style::everyday(w.unit()))
                && leftover.abs() <= Length::from_mm(0.01)
            {
                return "These steps hit the length.".to_owned();
            }
            let side = if leftover > Length::ZERO { "short" } else { "long" };
            format!("The nearest step leaves the bar {} too {side}.", w.fine(leftover))
        }),
    }
}

/// Where the thread ends before the length that centres is reached, near enough to be proved centred.
pub(crate) fn thread_ends(set: Length, exact: Length, off: Length) -> Phrase {
    let missed = exact - set;
    Phrase::of(|w| {
        let (way, side) = if missed > Length::ZERO { ("longest", "longer") } else { ("shortest", "shorter") };
        let leaves = if w.shows_nothing(off) {
            String::new()
        } else {
            format!(" The axle stands {} then, near enough to be proved centred.", w.sideways(off))
        };
        format!(
            "Its thread ends there: {} is the {way} it goes, {} {side} would centre it exactly.{leaves}",
            w.fine(set),
            w.fine(missed)
        )
    })
}

/// The least that any end has in over what must stay in.
fn spare(setting: &Setting) -> Length {
    let spare =
        setting.ends.iter().filter_map(|end| Some(end.engagement_after_mm? - end.least_engagement_mm));
    spare.reduce(Length::min).unwrap_or(Length::ZERO)
}

fn cut_says(setting: &Setting) -> Phrase {
    let short = setting.evened_shortest_mm.unwrap_or(setting.wanted_mm);
    Phrase::of(|w| {
        let long = format!(
            "Screwed right in it is still {}, longer than the {} wanted.",
            w.fine(short),
            w.fine(setting.wanted_mm)
        );
        let Some(cut) = &setting.cut else { return long };
        let each = at_least(w, cut.each_end_mm);
        let ends = if cut.ends > 1 { "each end" } else { "its end" };
        let (Some(from), Some(keeps)) = (cut.from, cut.keeps_mm) else {
            return format!(
                "{long} Cut {each} off {ends}, which leaves {} to trim either way; measure shank and tapped depth first, to see what stops it and what thread is left. Or take a shorter bar.",
                w.distance(cut.trim_mm)
            );
        };
        let how = match from {
            CutFrom::Shanks => format!("Cut {each} off the shank's tip at {ends}: it stops inside"),
            CutFrom::Body => format!("Face {each} off the body at {ends}: the shoulder stops against it"),
            CutFrom::Both => format!(
                "Take {each} off both the shank's tip and the body's face at {ends}: either alone would stop it"
            ),
        };
        if cut.enough == Some(false) {
            return format!(
                "{long} Cut back by {each} at {ends} it would keep only {} of thread: take a shorter bar.",
                w.distance(keeps)
            );
        }
        format!(
            "{long} {how}. That leaves {} to trim either way and {} of thread in; or take a shorter bar.",
            w.distance(cut.trim_mm),
            w.distance(keeps)
        )
    })
}

/// The order of work on the bench with a new bar, a sentence each.
pub(crate) fn bench_says(
    setting: &Setting,
    set: Length,
    against_old: Length,
    thread: Option<Length>,
) -> Vec<Phrase> {
    let alike = setting.kind == AdjusterKind::Turnbuckle;
    let turns = turns_say(setting);
    let mut says = vec![
        Phrase::of(|w| {
            let ends = if alike { "Both ends screwed" } else { "Its end screwed" };
            format!("{ends} right in, it measures {} eye to eye.", w.fine(setting.from_mm))
        }),
        Phrase::of(|w| {
            let equally = if alike { ", both ends turned out alike" } else { "" };
            format!(
                "From there {}{equally}: {} on the bench.",
                turns.as_ref().map_or("", |turns| turns.in_unit(w.unit())),
                w.fine(set)
            )
        }),
    ];
    if let Some(thread) = thread {
        let least = setting.ends.iter().map(|end| end.least_engagement_mm).reduce(Length::max);
        says.push(Phrase::of(|w| {
            let ends = if alike { "at each end" } else { "in" };
            let must =
                least.map_or_else(String::new, |least| format!("; at least {} must", w.at_least(least)));
            format!("{} of thread stays in {ends}{must}.", w.distance(thread))
                .replace("stays in in", "stays in")
        }));
    }
    let per_turn = setting.per_turn_mm.unwrap_or(Length::ZERO);
    says.push(Phrase::of(|w| {
        if w.shows_nothing(against_old) {
            format!(
                "Without a tape: side by side with the old bar, bolts push through both eyes of both. One turn more shows {}, and they do not go through.",
                w.fine(per_turn)
            )
        } else {
            let word = if against_old > Length::ZERO { "longer" } else { "shorter" };
            format!(
                "Without a tape: side by side with the old bar, a bolt through one eye of both, the other eye is {} {word}. One turn more shows {}.",
                w.fine(against_old),
                w.fine(per_turn)
            )
        }
    }));
    says
}

/// One way out, with the thread that stays in.
pub(crate) fn way_says(facts: &WayFacts) -> Phrase {
    let (way, length, thread) = (&facts.way, facts.length_mm, facts.thread_in_mm);
    Phrase::of(|w| {
        let then = match thread {
            Some(thread) => format!("{} long, with {} of thread in", w.fine(length), w.distance(thread)),
            None => format!("{} long", w.fine(length)),
        };
        match way {
            WayOut::FurtherOut { by_mm } => format!(
                "A bracket {} further out, frame or axle side: the bar is then {then}.",
                at_least(w, *by_mm)
            ),
            WayOut::FurtherIn { by_mm } => format!(
                "A bracket {} further in, frame or axle side: the bar is then {then}.",
                at_least(w, *by_mm)
            ),
            WayOut::Hole { name, .. } => format!("{name}: the bar is then {then}."),
            WayOut::Bar { name } => format!("The {name}: {then}."),
        }
    })
}

/// An interval of a drawn figure, by its name; its ends in the unit of the name.
pub(crate) fn interval(name: &str, low: f64, high: f64) -> Phrase {
    let ends = [low, high];
    match name {
        "angle_deg" => Phrase::plain(&format!("{low:.1}° to {high:.1}°")),
        "lateral_rate" => Phrase::plain(&format!("{low:.3} to {high:.3}")),
        "length_mm" | "peak_to_peak_mm" => Phrase::of(|w| {
            let [a, b] = ends.map(|mm| w.fine(Length::from_mm(mm)));
            format!("{a} to {b}")
        }),
        "change_mm" => Phrase::of(|w| {
            let [a, b] = ends.map(|mm| {
                let word = if mm < 0.0 { "shorter" } else { "longer" };
                format!("{} {word}", w.fine(Length::from_mm(mm)))
            });
            format!("{a} to {b}")
        }),
        _ => Phrase::of(|w| {
            let [a, b] = ends.map(|mm| w.sideways(Length::from_mm(mm)));
            format!("{a} to {b}")
        }),
    }
}

/// A further reading, as something to do.
const fn further_word(reading: Further) -> &'static str {
    match reading {
        Further::RepeatLeft => "one more repeat on the left",
        Further::RepeatRight => "one more repeat on the right",
        Further::BetterFeature => "a new sheet from the frame to the hub",
        Further::HeightsAgain => "the heights of the bar's eyes once more",
        Further::Finder => "the angle finder on the bar instead of the heights",
    }
}

/// What a further reading is worth.
pub(super) fn further(reading: Further, now: Length, to: Length) -> Phrase {
    Phrase::of(|w| {
        let (now, to, what) = (w.fine(now), w.fine(to), further_word(reading));
        if now == to {
            format!("{what}: hardly less than ±{now}")
        } else {
            format!("{what}: from ±{now} to ±{to}")
        }
    })
}

/// Which to take.
pub(super) fn read_next(reading: Further, now: Length, to: Length) -> Phrase {
    Phrase::of(|w| {
        let (now, to, what) = (w.fine(now), w.fine(to), further_word(reading));
        if now == to {
            format!("Read next: {what}. It helps most, and leaves the answer at about ±{now}.")
        } else {
            format!("Read next: {what}. That narrows the answer most, from ±{now} to ±{to}.")
        }
    })
}
