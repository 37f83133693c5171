//! Stage Bar.

use derecho_core::bar::adjuster::{AdjusterKind, CutFrom, Setting, TurnStep, Verdict};
use derecho_core::bar::{Recentring, Swing};
use derecho_core::measure::phrase::{Words, degrees};
use derecho_core::measure::print::{self, Style};
use derecho_core::measure::typed::mark;
use derecho_core::measure::{Angle, Length, Phrase, Side, Unit};
use derecho_core::parts::BracketEnd;
use derecho_job::bar::message::{
    BarMessage, BarWarning, BenchLine, DrawnFigure, ExactTurns, EyeMove, LengthSet, Turns,
};

use derecho_job::bar::first::rounded_up;
use derecho_job::bar::further::Further;
use derecho_job::bar::need::{Need, NeedFacts, NeedReason};
use derecho_job::bar::ways::{WayFacts, WayOut};
use derecho_job::setups::OffsetAnswer;
use derecho_job::setups::adjuster::ThreadFault;

use super::assembly::likely_cause;

use crate::marked as say;

pub(super) fn bar(message: &BarMessage) -> Phrase {
    match message {
        BarMessage::DrawnFigure { figure, planned } => drawn_figure(*figure, *planned),
        BarMessage::Stands { angle } => stands(*angle),
        BarMessage::FirstAnswer { change, at_most } => first_answer(*change, *at_most),
        BarMessage::WhichBar => Phrase::plain(
            "Enter the new bar under New bar: where it adjusts, and how long it is screwed all the way in.",
        ),
        BarMessage::AngleUnmeasured => Phrase::plain(
            "Bar angle not measured. The length doesn't need it: the new bar goes in the old bar's brackets.",
        ),
        BarMessage::RateUnmeasured => Phrase::plain(
            "To see what the bar does over the travel, measure the height of both ends above the floor.",
        ),
        BarMessage::RateSays { rate } => rate_says(*rate),
        BarMessage::LiftSays { verb, shift } => lift_says(verb, *shift),
        BarMessage::EyesSay { reach, plumbed, cause } => eyes_say(*reach, *plumbed, cause.map(likely_cause)),
        BarMessage::Withheld { built, answer } => withheld(*built, *answer),
        BarMessage::DecideFirst { ends } => decide_first(ends.as_ref().map(say).as_ref()),
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
        "The bar is level".to_owned()
    } else {
        let end = if angle > Angle::ZERO { "frame" } else { "axle" };
        format!("Bar angle {}, {end} end high", degrees(angle))
    };
    Phrase::plain(&text)
}

pub(crate) fn rate_says(rate: f64) -> Phrase {
    Phrase::of(|w| {
        if rate.abs() < 0.005 {
            return "A small bump barely moves the axle sideways.".to_owned();
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
            "By its length and angle the bar spans {} side to side, but the bolt holes plumb out {} apart: {} difference. {cause} The bar length is used.",
            w.distance(reach),
            w.distance(plumbed),
            w.distance(difference)
        ),
        None => format!("The plumbed bolt holes match the bar length within {}.", w.fine(difference)),
    })
}

/// Why no length is offered.
fn withheld(built: Option<Length>, answer: OffsetAnswer) -> Phrase {
    match (built, answer) {
        (Some(length), _) => Phrase::of(|w| {
            format!(
                "Build the bar {} eye to eye: that is the gap under Other bars, measured with the axle strapped to center, so it will hold the axle there. Enter its length here once it is in.",
                w.fine(length)
            )
        }),
        (None, OffsetAnswer::CannotTell) => Phrase::plain(
            "No length yet: these measurements can't tell whether the axle is off center. Measure again first.",
        ),
        (None, OffsetAnswer::Centred) => Phrase::plain("Leave the length alone: the axle is centered."),
        (None, OffsetAnswer::Unread) => Phrase::plain(
            "Measure both sides on the Tape screen first: the bar length comes from how far off the axle is.",
        ),
        (None, OffsetAnswer::Off) => Phrase::plain(
            "The axle can't be off by as much as the bar is long. Check the measurements and their units.",
        ),
    }
}

fn first_answer(change: Length, at_most: Length) -> Phrase {
    let way = if change > Length::ZERO { "longer" } else { "shorter" };
    Phrase::of(|w| {
        let step = match w.unit() {
            Unit::Inches => Length::from_inches(1.0 / 32.0),
            Unit::Millimetres => Length::from_mm(0.5),
        };
        format!(
            "About {} {way}, from the measurements alone; the bar's angle changes that by less than {}. Measure the bar for the exact length and turns.",
            w.distance(change),
            w.fine(rounded_up(at_most, step))
        )
    })
}

/// The headline where the length alone leads into something that ends the travel, and holes are on offer.
pub(crate) fn decide_first(ends: Option<&Phrase>) -> Phrase {
    Phrase::of(|w| match ends {
        Some(ends) => {
            format!("Decide first: a hole, or length only. With length only, {}", ends.in_unit(w.unit()))
        }
        None => "Decide first: a hole, or length only. Length alone leaves the bar at its angle".to_owned(),
    })
}

fn length_says(set: &LengthSet) -> Phrase {
    let reaches = set.covered != Some(false);
    Phrase::of(|w| {
        if set.estimated && reaches && (set.hangs.is_some() || !w.shows_nothing(set.change)) {
            return estimate_says(set, w);
        }
        if let Some(name) = &set.hangs {
            let name = mark(name);
            let length = w.fine(set.length);
            return match set.verdict {
                _ if !reaches => format!("The {name} won't reach: it would need to be {length}"),
                _ if set.made_to_length => format!("Cut and weld the {name} to {length} eye to eye"),
                Some(Verdict::AsItIs) => format!("Install the {name} as it comes, {length} eye to eye"),
                _ => format!("Set the {name} to {length}"),
            };
        }
        if set.to_tape {
            return "Measure the gap in the planned holes, then build the bar to it".to_owned();
        }
        if set.made_to_length && reaches {
            return format!("Build the bar {} eye to eye", w.fine(set.length));
        }
        let longer = set.change > Length::ZERO;
        let by = w.distance(set.change);
        if w.shows_nothing(set.change) {
            return "Bar length is right as it is".to_owned();
        }
        if !reaches || set.verdict == Some(Verdict::CannotBeTurned) {
            let (is, to) = if longer { ("short", "longer") } else { ("long", "shorter") };
            return format!("The bar is too {is}: it needs to be {by} {to}");
        }
        let way = if longer { "longer" } else { "shorter" };
        if set.verdict == Some(Verdict::EvenEnds) {
            return format!("Even up both ends first, then make the bar {by} {way}");
        }
        format!("Make the bar {by} {way}")
    })
}

/// Nobody measured both sides: a figure to count with, no order to act on.
fn estimate_says(set: &LengthSet, w: Words) -> String {
    if let Some(name) = &set.hangs {
        return format!("Estimate: the {} at {}. Measure both sides first.", mark(name), w.fine(set.length));
    }
    let way = if set.change > Length::ZERO { "longer" } else { "shorter" };
    format!("Estimate: {} {way}. Measure both sides first.", w.distance(set.change))
}

pub(crate) fn thumb_says(wanted: &Recentring) -> Phrase {
    Phrase::of(|w| {
        let cost = wanted.thumb_cost_mm;
        let says = w.decimal(wanted.thumb_change_mm.abs());
        if print::decimal(cost.abs(), w.unit()) == print::decimal(Length::ZERO, w.unit()) {
            return format!("Rule of thumb (half the difference): {says}. Same as here.");
        }
        let side =
            if cost.to_mm() * wanted.change_mm.to_mm().signum() > 0.0 { "too much" } else { "too little" };
        format!("Rule of thumb (half the difference): {says}, {} {side}.", w.decimal(cost.abs()))
    })
}

/// `need` where no eye is moved: what the length alone leaves to be wanted.
/// `off` is where the axle stands then, + left.
pub(crate) fn leaves_says(angle: Angle, off: Length, swing: Swing, need: Option<&Phrase>) -> Phrase {
    Phrase::of(|w| {
        let stands = if w.shows_nothing(off) {
            "With the axle centered at this height".to_owned()
        } else {
            format!("With the axle off center at this height, {}", w.sideways(off))
        };
        let over = format!(
            "{stands}, the bar {}. Over full travel the axle still moves {} side to side: {} at full droop and {} at full bump.",
            if angle.abs().to_degrees() < 0.05 {
                "is level".to_owned()
            } else {
                format!("is at {}", degrees(angle))
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
        Need::NotNeeded | Need::Offered if let Some(between) = facts.link_apart_deg => {
            let needed = if facts.need == Need::NotNeeded { "No bracket needed" } else { "Bracket optional" };
            format!(
                "{needed}: bar and drag link are {} apart, and they are to be parallel.",
                degrees(between)
            )
        }
        Need::NotNeeded | Need::Offered if let Some(off) = facts.off_stock_deg => {
            let needed = if facts.need == Need::NotNeeded { "No bracket needed" } else { "Bracket optional" };
            format!("{needed}: the bar is {} off its stock angle.", degrees(off))
        }
        Need::NotNeeded => format!(
            "No bracket needed for the angle: the bar is close to level and moves the axle only {} side to side over full travel.",
            w.distance(swing)
        ),
        Need::Offered => {
            let (swing, limit) = apart(w, swing, limit);
            format!(
                "Bracket optional: {} is under {}, and {swing} of side-to-side movement is under {limit}. A more level bar would reduce it.",
                degrees(angle),
                degrees(steep_from),
            )
        }
        Need::Recommended => {
            let reported: Vec<String> = reasons
                .iter()
                .map(|reason| match reason {
                    NeedReason::Steep => format!("{} is {} or more", degrees(angle), degrees(steep_from)),
                    NeedReason::Swings => {
                        let (swing, limit) = apart(w, swing, limit);
                        format!("it moves the axle {swing} side to side, more than {limit}")
                    }
                    NeedReason::Complaint => "the driver complains of side-stepping".to_owned(),
                    NeedReason::OffStock => {
                        let off = facts.off_stock_deg.map(degrees).unwrap_or_default();
                        format!("the bar is {off} off its stock angle")
                    }
                    NeedReason::BesideLink => {
                        let between = facts.link_apart_deg.map(degrees).unwrap_or_default();
                        format!("bar and drag link are {between} apart, and they are to be parallel")
                    }
                })
                .collect();
            format!(
                "Bracket recommended: {}. A bracket fixes the bar angle; bar length only centers the axle.",
                reported.join("; ")
            )
        }
    })
}

pub(crate) fn readings_say([left, right]: [Length; 2]) -> Phrase {
    Phrase::of(|w| {
        let (left, right) = (w.distance(left), w.distance(right));
        if left == right {
            format!("Both sides should then measure {left}.")
        } else {
            format!("The left should then measure {left} and the right {right}.")
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
            "The axle should be centered now".to_owned()
        } else {
            format!("The axle should now be {}", w.sideways(offset))
        };
        if let Some(fault) = fault {
            return format!(
                "Set to {}. {} Do not drive it like this.",
                w.fine(length),
                thread_fault(w, fault)
            );
        }
        match wants_now {
            Some(wanted) => format!(
                "Set to {}, but the measurements have changed since: it now needs {}. {place}.",
                w.fine(length),
                w.fine(wanted)
            ),
            None => format!(
                "Set to {}. {place}. Now measure both sides again on the Prove screen.",
                w.fine(length)
            ),
        }
    })
}

/// What is wrong with the thread that is in, in one sentence.
pub(crate) fn thread_fault(w: Words, fault: &ThreadFault) -> String {
    match fault {
        ThreadFault::TooLittle { in_mm, .. } if *in_mm <= Length::ZERO => {
            "At this setting the thread is all the way out: the bar would come apart.".to_owned()
        }
        ThreadFault::TooLittle { in_mm, least_mm } => format!(
            "At this setting only {} of thread is engaged; it needs {}. It can pull out.",
            w.distance(*in_mm),
            w.distance(*least_mm)
        ),
        ThreadFault::PastFullDepth { in_mm, full_mm } => format!(
            "At this setting {} of thread would be engaged, but there is only {}. Measure the bar and the thread again.",
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
                format!("{} {} {rest}", whole_turns(turns, flats), if over < 0.0 { "minus" } else { "plus" })
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
                "This bar is not adjustable. {} needs a bar {} eye to eye.",
                if change > Length::ZERO { "Longer" } else { "Shorter" },
                w.fine(setting.wanted_mm)
            )
        }),
        Verdict::ThreadMissing => Phrase::plain(
            "Enter the thread of each adjusting end, for example 1-1/4-12, to get turns and flats.",
        ),
        Verdict::HandsMissing => Phrase::plain(
            "Right- or left-hand thread at each end? One of each: both ends move with every turn. Both the same: only the difference in pitch counts.",
        ),
        Verdict::TurningDoesNothing => Phrase::plain(
            "Both ends have the same pitch and the same hand, so turning the sleeve does nothing. Check which way each thread runs.",
        ),
        Verdict::AsItIs if setting.kind == AdjusterKind::Fixed => Phrase::of(|w| {
            if w.shows_nothing(leftover) {
                "Length is right as it is.".to_owned()
            } else {
                format!(
                    "Leave the length: it is {} from exact, close enough to count as centered.",
                    w.distance(leftover)
                )
            }
        }),
        Verdict::AsItIs => Phrase::plain("The closest setting is where it is now: leave the threads alone."),
        Verdict::BarTooShort => Phrase::of(|w| {
            let most = setting.equal_engagement_longest_mm.map_or_else(String::new, |most| w.fine(most));
            format!(
                "Too short for this job: it needs {} and this bar tops out at {most}.",
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
                "One end runs out of thread while the other has plenty. Unbolt one eye and spin that end until both have the same thread engaged, at {} eye to eye: {} in, {} to spare at each end.",
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
                    "Too little thread is engaged as it is: {}, and each end needs {}. Use a longer bar, or a bracket that needs less length.",
                    w.fine(least_in),
                    w.fine(needed)
                ),
                (Some(longest), _) => format!(
                    "Keeping the minimum {} of thread engaged it only reaches {}, {} short. Use a longer bar, or a bracket that needs less length.",
                    w.distance(needed),
                    w.fine(longest),
                    w.distance(setting.wanted_mm - longest)
                ),
                (None, _) => {
                    format!("That leaves less than the minimum {} of thread engaged.", w.distance(needed))
                }
            }
        }),
        Verdict::ThreadBottoms => Phrase::plain(
            "The finer thread bottoms out before you get to the length. Use a bar with right- and left-hand ends, or a longer one.",
        ),
        Verdict::Fits => Phrase::of(|w| {
            if print::rounds_to_nought(leftover, Style::everyday(w.unit()))
                && leftover.abs() <= Length::from_mm(0.01)
            {
                return "These turns land right on the length.".to_owned();
            }
            let side = if leftover > Length::ZERO { "short" } else { "long" };
            format!("The closest setting leaves the bar {} too {side}.", w.fine(leftover))
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
            format!(" The axle is then {}, close enough to count as centered.", w.sideways(off))
        };
        format!(
            "That is as far as the thread goes: {} is its {way}. To center the axle exactly the bar needs to be {} {side}.{leaves}",
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
            "Screwed all the way in it is still {}, longer than the {} needed.",
            w.fine(short),
            w.fine(setting.wanted_mm)
        );
        let Some(cut) = &setting.cut else { return long };
        let each = at_least(w, cut.each_end_mm);
        let ends = if cut.ends > 1 { "each end" } else { "its end" };
        let (Some(from), Some(keeps)) = (cut.from, cut.keeps_mm) else {
            return format!(
                "{long} Before you cut, measure the shank and the tapped depth to see what bottoms out and how much thread is left. Then cut {each} off {ends}; that leaves {} of adjustment either way. Or use a shorter bar.",
                w.distance(cut.trim_mm)
            );
        };
        let how = match from {
            CutFrom::Shanks => {
                format!("Cut {each} off the tip of the threaded shank at {ends}: it bottoms out inside")
            }
            CutFrom::Body => format!("Face {each} off the body at {ends}: the shoulder bottoms against it"),
            CutFrom::Both => format!(
                "Take {each} off both the tip of the threaded shank and the face of the body at {ends}: cut only one and the other still bottoms out"
            ),
        };
        if cut.enough == Some(false) {
            return format!(
                "{long} Cut back {each} at {ends} it would keep only {} of thread: use a shorter bar.",
                w.distance(keeps)
            );
        }
        format!(
            "{long} {how}. That leaves {} of adjustment either way and {} of thread engaged. Or use a shorter bar.",
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
            Some(thread) => format!("{} long, with {} of thread engaged", w.fine(length), w.distance(thread)),
            None => format!("{} long", w.fine(length)),
        };
        match way {
            WayOut::FurtherOut { by_mm } => format!(
                "With a bracket {} farther from the centerline, at frame or axle, the bar would be {then}.",
                at_least(w, *by_mm)
            ),
            WayOut::FurtherIn { by_mm } => format!(
                "With a bracket {} closer to the centerline, at frame or axle, the bar would be {then}.",
                at_least(w, *by_mm)
            ),
            WayOut::Hole { name, .. } => format!("{}: the bar would be {then}.", mark(name)),
            WayOut::Bar { name } => format!("The {}: {then}.", mark(name)),
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
        Further::RepeatLeft => "one more measurement on the left",
        Further::RepeatRight => "one more measurement on the right",
        Further::BetterFeature => "a new set measured frame to hub",
        Further::HeightsAgain => "measure the bar's bolt heights again",
        Further::Finder => "angle finder on the bar instead of bolt heights",
    }
}

/// What a further reading is worth.
pub(crate) fn further(reading: Further, now: Length, to: Length) -> Phrase {
    Phrase::of(|w| {
        let (now, to, what) = (w.fine(now), w.fine(to), further_word(reading));
        if now == to {
            format!("{what}: no real gain, still about ±{now}")
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
            format!("Measure next: {what}. It helps most, but still leaves about ±{now}.")
        } else {
            format!("Measure next: {what}. It tightens the answer from ±{now} to ±{to}.")
        }
    })
}

/// Rates of the bar as found and as planned, and where the axle is with each at full bump, + left.
fn longer_says((before, after): (f64, f64), (found, planned): (Length, Length)) -> Phrase {
    Phrase::of(|w| {
        format!(
            "Does the longer bar make side-to-side movement worse? It moves {:.1} % less for the same travel, but now to both sides of center. At full bump the axle is {} with it; as found it is {}. See the curves.",
            (1.0 - after / before) * 100.0,
            w.sideways(planned),
            w.sideways(found)
        )
    })
}

fn warn_of(warning: BarWarning) -> Phrase {
    Phrase::of(|w| match warning {
        BarWarning::RiseDisagrees(by) => format!(
            "The angle finder and the bolt heights disagree by {} of height, more than either should be off. Using the bolt heights. Was the finder on a straight part of the bar, and zeroed? Were both heights measured from the same floor?",
            w.distance(by)
        ),
        BarWarning::FinderAside => {
            "The bar is bent or tapered, so the angle finder is not used. Enter both bolt heights.".to_owned()
        }
        BarWarning::RiseFromFinder(good_to) => format!(
            "The height difference comes from the angle finder: good to ±{} only. Two bolt heights are better.",
            w.distance(good_to)
        ),
        BarWarning::WhichEndHigher => {
            "Which end of the bar is higher? The angle finder can't tell.".to_owned()
        }
        BarWarning::TightInDroop(travel) => {
            format!("The bar runs out of length {} into droop, before full travel.", w.distance(travel))
        }
        BarWarning::TightInBump(travel) => {
            format!("The bar runs out of length {} into bump, before full travel.", w.distance(travel))
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
                    BracketEnd::Frame => "frame end",
                    BracketEnd::Axle => "axle end",
                };
                let place = if hole.is_empty() { "as found".to_owned() } else { mark(hole) };
                format!("the {eye} {}, {place}", ways.join(" and "))
            })
            .collect();
        format!("Based on {}, chosen on the Bracket screen.", reported.join(" and "))
    })
}

/// A line of setting a bar on the bench.
fn bench(line: &BenchLine) -> Phrase {
    Phrase::of(|w| match *line {
        BenchLine::RightIn { alike, length } => {
            let ends = if alike { "Both ends screwed" } else { "The end screwed" };
            format!("{ends} all the way in, it measures {} eye to eye.", w.fine(length))
        }
        BenchLine::Turn { alike, turns, to } => {
            let equally = if alike { ", both ends unscrewed the same amount" } else { "" };
            format!("From there {}{equally}: {} on the bench.", turned(turns), w.fine(to))
        }
        BenchLine::Thread { alike, stays, least } => {
            let ends = if alike { " at each end" } else { "" };
            let must =
                least.map_or_else(String::new, |least| format!("; it needs at least {}", w.at_least(least)));
            format!("{} of thread stays engaged{ends}{must}.", w.distance(stays))
        }
        BenchLine::BesideTheOld { differs, per_turn } if w.shows_nothing(differs) => format!(
            "No tape? Lay it next to the old bar: bolts should push through both eyes of both bars. One turn too many shifts a hole {} and they won't go.",
            w.fine(per_turn)
        ),
        BenchLine::BesideTheOld { differs, per_turn } => {
            let word = if differs > Length::ZERO { "longer" } else { "shorter" };
            format!(
                "No tape? Lay it next to the old bar with a bolt through one eye of each; the other eye should be {} {word}. One turn off shows as {} there.",
                w.fine(differs),
                w.fine(per_turn)
            )
        }
    })
}

/// What a drawn figure is.
fn drawn_figure(figure: DrawnFigure, planned: bool) -> Phrase {
    let name = match figure {
        DrawnFigure::Change => "change in bar length",
        DrawnFigure::Length => "length to set",
        DrawnFigure::Offset => "axle off center, + left",
        DrawnFigure::Angle => "bar angle",
        DrawnFigure::LateralRate => "sideways movement per unit of bump, + left",
        DrawnFigure::AtFullDroop => "sideways at full droop, + left",
        DrawnFigure::AtFullBump => "sideways at full bump, + left",
        DrawnFigure::PeakToPeak => "side-to-side movement over the travel",
    };
    Phrase::plain(&if planned { format!("{name}, as planned") } else { name.to_owned() })
}
