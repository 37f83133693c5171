//! Stage Bar.

use derecho_core::bar::adjuster::{AdjusterKind, CutFrom, Setting, TurnStep, Verdict};
use derecho_core::bar::{Recentring, Swing};
use derecho_core::measure::phrase::{Words, degrees};
use derecho_core::measure::print::{self, Style};
use derecho_core::measure::{Angle, Length, Phrase, Side};
use derecho_core::parts::BracketEnd;
use derecho_job::bar::message::{
    BarMessage, BarWarning, BenchLine, DrawnFigure, ExactTurns, EyeMove, LengthSet, Turns,
};

use derecho_job::bar::further::Further;
use derecho_job::bar::need::{Need, NeedFacts, NeedReason};
use derecho_job::bar::ways::{WayFacts, WayOut};
use derecho_job::setups::OffsetAnswer;
use derecho_job::setups::adjuster::ThreadFault;

use super::assembly::likely_cause;

use crate::say;

pub(super) fn bar(message: &BarMessage) -> Phrase {
    match message {
        BarMessage::DrawnFigure { figure, planned } => drawn_figure(*figure, *planned),
        BarMessage::Stands { angle } => stands(*angle),
        BarMessage::RateSays { rate } => rate_says(*rate),
        BarMessage::LiftSays { verb, shift } => lift_says(verb, *shift),
        BarMessage::EyesSay { reach, plumbed, cause } => eyes_say(*reach, *plumbed, cause.map(likely_cause)),
        BarMessage::Withheld { built, answer } => withheld(*built, *answer),
        BarMessage::DecideFirst { ends } => decide_first(&say(ends)),
        BarMessage::LengthSays(set) => length_says(set),
        BarMessage::ThumbSays { wanted } => thumb_says(wanted),
        BarMessage::LeavesSays { angle, off, swing, need } => {
            leaves_says(*angle, *off, *swing, need.as_ref().map(say).as_ref())
        }
        BarMessage::NeedSays { facts } => need_says(facts),
        BarMessage::ReadingsSay { left, right } => readings_say([*left, *right]),
        BarMessage::SetSays { length, wants_now, offset, fault } => {
            set_says(*length, *wants_now, *offset, fault.as_ref())
        }
        BarMessage::SettingSays { setting } => setting_says(setting),
        BarMessage::ThreadEnds { set, exact, off } => thread_ends(*set, *exact, *off),
        BarMessage::WaySays { facts } => way_says(facts),
        BarMessage::Interval { name, low, high } => interval(name, *low, *high),
        BarMessage::Further { reading, now, to } => further(*reading, *now, *to),
        BarMessage::ReadNext { reading, now, to } => read_next(*reading, *now, *to),
        BarMessage::LongerSays { before, after, found_at_bump, planned_at_bump } => {
            longer_says((*before, *after), (*found_at_bump, *planned_at_bump))
        }
        BarMessage::Warning(warning) => warn_of(*warning),
        BarMessage::PlanSays(moves) => plan_says(moves),
        BarMessage::Turns(turns) => Phrase::plain(&turned(*turns)),
        BarMessage::Exactly(exact) => exactly(*exact),
        BarMessage::Bench(line) => bench(line),
    }
}

pub(crate) fn stands(angle: Angle) -> Phrase {
    let text = if angle.abs().to_degrees() < 0.05 {
        "The bar stands level".to_owned()
    } else {
        let end = if angle > Angle::ZERO { "frame" } else { "axle" };
        format!("The bar stands at {}, {end} end up", degrees(angle))
    };
    Phrase::plain(&text)
}

pub(crate) fn rate_says(rate: f64) -> Phrase {
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

/// Why no length is offered.
fn withheld(built: Option<Length>, answer: OffsetAnswer) -> Phrase {
    match (built, answer) {
        (Some(length), _) => Phrase::of(|w| {
            format!(
                "Build the bar {} eye to eye, as the gap in stage Bracket has it: measured strapped to centre, it leaves the axle there. Record it here once it is hung.",
                w.fine(length)
            )
        }),
        (None, OffsetAnswer::CannotTell) => Phrase::plain(
            "No length is offered: the readings cannot tell the axle from centred. Read again first.",
        ),
        (None, OffsetAnswer::Centred) => Phrase::plain("Leave the length as it is: the axle is centred."),
        (None, OffsetAnswer::Unread) => Phrase::plain(
            "Read both sides in stage Tape: the length to set follows from how far off the axle is.",
        ),
        (None, OffsetAnswer::Off) => {
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

fn length_says(set: &LengthSet) -> Phrase {
    let reaches = set.covered != Some(false);
    Phrase::of(|w| {
        if let Some(name) = &set.hangs {
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
pub(crate) fn leaves_says(angle: Angle, off: Length, swing: Swing, need: Option<&Phrase>) -> Phrase {
    Phrase::of(|w| {
        let stands = if w.shows_nothing(off) {
            "Centred here".to_owned()
        } else {
            format!("With the axle {} here", w.sideways(off))
        };
        let over = format!(
            "{stands}, the bar {}, so over the whole travel the axle still swings {}: {} at full droop, {} at full bump.",
            if angle.abs().to_degrees() < 0.05 {
                "lies level".to_owned()
            } else {
                format!("stands at {}", degrees(angle))
            },
            w.distance(swing.peak_to_peak_mm),
            w.movement(swing.at_full_droop_mm),
            w.movement(swing.at_full_bump_mm)
        );
        match need {
            Some(need) => format!("{over} {}", need.in_unit(w.unit())),
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
        Need::Recommended => {
            let reported: Vec<String> = reasons
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
                reported.join(", and ")
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

/// How far to turn: `2 turns and 1 flat longer`.
pub(super) fn turned(Turns { turns, flats, by, longer }: Turns) -> String {
    // In and out mean nothing of a sleeve with two hands.
    let way = if longer { "longer" } else { "shorter" };
    match (turns, flats, by) {
        (0, 0, _) => "leave it as it is".to_owned(),
        (0, 3, TurnStep::HalfTurn) => format!("half a turn {way}"),
        (turns, 3, TurnStep::HalfTurn) => format!("{turns} ½ turns {way}"),
        (turns, flats, _) => format!("{} {way}", whole_turns(turns, flats)),
    }
}

/// The turns that would be exact.
fn exactly(exact: ExactTurns) -> Phrase {
    match exact {
        // Flats mean nothing to an eye that lines up once or twice in a turn.
        ExactTurns::Half(turns) => Phrase::plain(&format!("{turns:.2} turns, in half turns")),
        ExactTurns::Whole(turns) => Phrase::plain(&format!("{turns:.2} turns, in whole turns")),
        ExactTurns::Flats { turns, flats, over } => {
            let rest = format!("{:.2} flat", over.abs());
            Phrase::plain(&if rest == "0.00 flat" {
                whole_turns(turns, flats)
            } else {
                format!("{} {} {rest}", whole_turns(turns, flats), if over < 0.0 { "less" } else { "and" })
            })
        }
    }
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
            let most = setting.equal_engagement_longest_mm.map_or_else(String::new, |most| w.fine(most));
            format!(
                "Too short for this job: it takes {} and this bar ends at {most}.",
                w.fine(setting.wanted_mm)
            )
        }),
        Verdict::CutBack => cut_says(setting),
        Verdict::EvenEnds => Phrase::of(|w| {
            let reported: Vec<String> = setting
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
                reported.join(" and "),
                w.distance(spare(setting))
            )
        }),
        Verdict::TooLittleThread => Phrase::of(|w| {
            let needed = setting.ends.iter().map(|end| end.least_engagement_mm).reduce(Length::max);
            let needed = needed.unwrap_or(Length::ZERO);
            let least_in = setting.ends.iter().filter_map(|end| end.engagement_before_mm).reduce(Length::min);
            match (setting.equal_engagement_longest_mm, least_in) {
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
    let short = setting.equal_engagement_shortest_mm.unwrap_or(setting.wanted_mm);
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
pub(crate) fn further(reading: Further, now: Length, to: Length) -> Phrase {
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
pub(crate) fn read_next(reading: Further, now: Length, to: Length) -> Phrase {
    Phrase::of(|w| {
        let (now, to, what) = (w.fine(now), w.fine(to), further_word(reading));
        if now == to {
            format!("Read next: {what}. It helps most, and leaves the answer at about ±{now}.")
        } else {
            format!("Read next: {what}. That narrows the answer most, from ±{now} to ±{to}.")
        }
    })
}

/// Rates of the bar as found and as planned, and where the axle is with each at full bump, + left.
fn longer_says((before, after): (f64, f64), (found, planned): (Length, Length)) -> Phrase {
    Phrase::of(|w| {
        format!(
            "Does the longer bar make it worse? Its rate is {:.1} % smaller. But it swings from the centre: at full bump the axle is {} with it, and {} as found. The curves show both.",
            (1.0 - after / before) * 100.0,
            w.sideways(planned),
            w.sideways(found)
        )
    })
}

fn warn_of(warning: BarWarning) -> Phrase {
    Phrase::of(|w| match warning {
        BarWarning::RiseDisagrees(by) => format!(
            "The finder and the bolt heights disagree by {} of rise, more than both are good for. The heights are used. Was the finder on a straight part, and zeroed? Were both heights taken from one floor?",
            w.distance(by)
        ),
        BarWarning::FinderAside => {
            "The bar is bent or tapered: the finder's angle is left aside. Type both bolt heights.".to_owned()
        }
        BarWarning::RiseFromFinder(good_to) => format!(
            "The rise comes from the finder and is good to {} only. Two bolt heights are better.",
            w.distance(good_to)
        ),
        BarWarning::WhichEndHigher => "Which end of the bar is higher? The finder does not say.".to_owned(),
        BarWarning::TightInDroop(travel) => {
            format!("The bar is pulled tight {} into droop, before the travel ends.", w.distance(travel))
        }
        BarWarning::TightInBump(travel) => {
            format!("The bar is pulled tight {} into bump, before the travel ends.", w.distance(travel))
        }
    })
}

fn plan_says(moves: &[EyeMove]) -> Phrase {
    Phrase::of(|w| {
        let reported: Vec<String> = moves
            .iter()
            .map(|EyeMove { end, by, hole }| {
                let mut ways = Vec::new();
                let up = Length::from_mm(by.z);
                if !w.shows_nothing(up) {
                    let way = if up < Length::ZERO { "down" } else { "up" };
                    ways.push(format!("{} {way}", w.distance(up)));
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
                let eye = match end {
                    BracketEnd::Frame => "frame eye",
                    BracketEnd::Axle => "axle eye",
                };
                let place = if hole.is_empty() { "where it was found" } else { hole };
                format!("the {eye} {}, {place}", ways.join(" and "))
            })
            .collect();
        format!("With {}, as chosen in stage Bracket.", reported.join(" and "))
    })
}

/// A line of setting a bar on the bench.
fn bench(line: &BenchLine) -> Phrase {
    Phrase::of(|w| match *line {
        BenchLine::RightIn { alike, length } => {
            let ends = if alike { "Both ends screwed" } else { "Its end screwed" };
            format!("{ends} right in, it measures {} eye to eye.", w.fine(length))
        }
        BenchLine::Turn { alike, turns, to } => {
            let equally = if alike { ", both ends turned out alike" } else { "" };
            format!("From there {}{equally}: {} on the bench.", turned(turns), w.fine(to))
        }
        BenchLine::Thread { alike, stays, least } => {
            let ends = if alike { "at each end" } else { "in" };
            let must =
                least.map_or_else(String::new, |least| format!("; at least {} must", w.at_least(least)));
            format!("{} of thread stays in {ends}{must}.", w.distance(stays))
                .replace("stays in in", "stays in")
        }
        BenchLine::BesideTheOld { differs, per_turn } if w.shows_nothing(differs) => format!(
            "Without a tape: side by side with the old bar, bolts push through both eyes of both. One turn more shows {}, and they do not go through.",
            w.fine(per_turn)
        ),
        BenchLine::BesideTheOld { differs, per_turn } => {
            let word = if differs > Length::ZERO { "longer" } else { "shorter" };
            format!(
                "Without a tape: side by side with the old bar, a bolt through one eye of both, the other eye is {} {word}. One turn more shows {}.",
                w.fine(differs),
                w.fine(per_turn)
            )
        }
    })
}

/// What a drawn figure is.
fn drawn_figure(figure: DrawnFigure, planned: bool) -> Phrase {
    let name = match figure {
        DrawnFigure::Change => "change of the bar's length",
        DrawnFigure::Length => "length to set",
        DrawnFigure::Offset => "how far off the axle is, + left",
        DrawnFigure::Angle => "angle of the bar",
        DrawnFigure::LateralRate => "sideways per unit of bump, + left",
        DrawnFigure::AtFullDroop => "shift at full droop, + left",
        DrawnFigure::AtFullBump => "shift at full bump, + left",
        DrawnFigure::PeakToPeak => "sideways swing over the travel",
    };
    Phrase::plain(&if planned { format!("{name}, as planned") } else { name.to_owned() })
}
