//! Setting a bar's length: turns, flats, what is left over, and how much thread
//! stays in.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::fastener::{Hand, Thread};
use crate::measure::{Length, Phrase, Step, Working, phrase::Value};

/// Flats of a hexagon: the smallest step of a turnbuckle.
const FLATS: f64 = 6.0;
/// The least engagement whatever the thread: one inch.
const LEAST_ENGAGEMENT: Length = Length::from_mm(25.4);
/// Lengths closer than this are the same: a hundredth of a millimetre.
const SLACK: Length = Length::from_mm(0.01);

/// How the length of a bar is changed.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AdjusterKind {
    /// Not at all.
    Fixed,
    /// One end is unbolted and turned.
    OneEnd,
    /// The middle is turned on the vehicle.
    Turnbuckle,
}

/// What passes through the eye of a one-end bar.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum EndStyle {
    /// A through bolt: the eye lines up twice in a turn.
    #[default]
    ThroughBolt,
    /// A ball stud: lines up anywhere.
    BallStud,
}

/// What the thread is cut into; it decides how much must stay in.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ThreadSeat {
    /// A forged or machined steel body: one diameter.
    #[default]
    Steel,
    /// A mild-steel adapter welded into a tube: one and a half.
    WeldedAdapter,
    /// Aluminium: two.
    Aluminium,
}

impl ThreadSeat {
    const fn diameters(self) -> f64 {
        match self {
            Self::Steel => 1.0,
            Self::WeldedAdapter => 1.5,
            Self::Aluminium => 2.0,
        }
    }
}

/// One threaded end.
#[derive(Clone, Debug, PartialEq)]
pub struct ThreadedEnd {
    /// Diameter and pitch.
    pub thread: Thread,
    /// Which way it is cut.
    pub hand: Option<Hand>,
    /// How much thread is in now.
    pub engagement: Option<Length>,
    /// Length of thread on the shank.
    pub shank: Option<Length>,
    /// Depth of thread in the body.
    pub tapped_depth: Option<Length>,
    /// What it is cut into.
    pub seat: ThreadSeat,
    /// The maker's least engagement, where a witness mark shows it. It rules.
    pub witness: Option<Length>,
}

impl ThreadedEnd {
    /// Least engagement: the witness mark, else the larger of 25.4 mm and so many
    /// diameters as the seat asks.
    #[must_use]
    pub fn least_engagement(&self) -> Length {
        let by_diameter = self.thread.diameter() * self.seat.diameters();
        self.witness.unwrap_or_else(|| LEAST_ENGAGEMENT.max(by_diameter))
    }

    fn full_depth(&self) -> Option<Length> {
        match (self.shank, self.tapped_depth) {
            (Some(shank), Some(depth)) => Some(shank.min(depth)),
            (one, other) => one.or(other),
        }
    }
}

/// A bar's adjuster and the range its maker gives.
#[derive(Clone, Debug, PartialEq)]
pub struct Adjuster {
    /// How it is turned.
    pub kind: AdjusterKind,
    /// The frame-side thread of a turnbuckle, or the only one of a one-end bar.
    pub first: Option<ThreadedEnd>,
    /// The axle-side thread of a turnbuckle.
    pub second: Option<ThreadedEnd>,
    /// For a one-end bar.
    pub end_style: EndStyle,
    /// Shortest length as made, eye to eye.
    pub made_min: Option<Length>,
    /// Longest length as made.
    pub made_max: Option<Length>,
}

/// Turns, in words, that bring a sleeve or link to a wanted length, eye to eye, one of its ends cut
/// right hand and the other left, both with this thread. None where there is nothing to turn.
#[must_use]
pub fn sleeve_turns(thread: &Thread, now: Length, wanted: Length) -> Option<Phrase> {
    let end = |hand| {
        Some(ThreadedEnd {
            thread: thread.clone(),
            hand: Some(hand),
            engagement: None,
            shank: None,
            tapped_depth: None,
            seat: ThreadSeat::default(),
            witness: None,
        })
    };
    let sleeve = Adjuster {
        kind: AdjusterKind::Turnbuckle,
        first: end(Hand::Right),
        second: end(Hand::Left),
        end_style: EndStyle::default(),
        made_min: None,
        made_max: None,
    };
    setting(&sleeve, now, wanted).turns_say
}

/// What comes of trying to set the wanted length.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Verdict {
    /// It can be set, with legal engagement as far as that is known.
    Fits,
    /// Nothing to change.
    AsItIs,
    /// A fixed bar: its length cannot be changed.
    CannotBeTurned,
    /// The thread's designation is missing.
    ThreadMissing,
    /// Turns of a turnbuckle depend on the hands of its threads.
    HandsMissing,
    /// Same pitch, same hand: turning changes nothing.
    TurningDoesNothing,
    /// The longest setting is too short for this job.
    BarTooShort,
    /// Too little thread would stay in.
    TooLittleThread,
    /// Two threads of one hand: the finer one is screwed in to its end first.
    ThreadBottoms,
    /// The shortest setting is too long: ends must be cut.
    CutBack,
}

/// One end after the change.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct EndAfter {
    /// Thread in before.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub engagement_before_mm: Option<Length>,
    /// Thread in after.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub engagement_after_mm: Option<Length>,
    /// Least that must stay in.
    pub least_engagement_mm: Length,
    /// Most that can go in, where shank or tapped depth is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub full_depth_mm: Option<Length>,
    /// Whether enough stays in; absent while the engagement is not known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub enough: Option<bool>,
    /// Thread in after cutting back, fully screwed in: shank tips cut.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub after_cutting_shank_mm: Option<Length>,
    /// Thread in after cutting back, fully screwed in: body faced.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub after_facing_body_mm: Option<Length>,
}

/// How to set the length, and what is left.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Setting {
    /// What comes of it.
    pub verdict: Verdict,
    /// The same in words.
    pub says: Phrase,
    /// Change of length in one turn.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub per_turn_mm: Option<Length>,
    /// Smallest step that can be set.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub step_mm: Option<Length>,
    /// Turns wanted exactly; positive lengthens.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub exact_turns: Option<f64>,
    /// Whole turns to make.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub turns: Option<u32>,
    /// And flats, sixths of a turn, to make.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub flats: Option<u32>,
    /// What the whole flats miss: exact flats less flats made; negative is a touch less.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub flats_over: Option<f64>,
    /// Change the steps achieve.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub achieved_change_mm: Option<Length>,
    /// Length the steps achieve.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub achieved_length_mm: Option<Length>,
    /// Wanted less achieved; positive is still too short.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub leftover_mm: Option<Length>,
    /// The turns in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub turns_say: Option<Phrase>,
    /// The turns to hundredths of a flat, in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub exactly: Option<Phrase>,
    /// The shortest legal length: made range and full depth of thread.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub shortest_mm: Option<Length>,
    /// The longest legal length: made range and least engagement.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub longest_mm: Option<Length>,
    /// To cut off each end where the shortest is still too long.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub cut_each_end_mm: Option<Length>,
    /// The threaded ends after the change, frame side first.
    pub ends: Vec<EndAfter>,
    /// The arithmetic with this job's numbers.
    pub working: Working,
}

/// Advance of each end per turn that lengthens the bar, signed; the sum is the change
/// of length per turn. At a turnbuckle with two threads of the same hand the coarser
/// comes out while the finer goes in.
fn advances(adjuster: &Adjuster) -> Result<Vec<(&ThreadedEnd, Length)>, Verdict> {
    let first = adjuster.first.as_ref();
    match adjuster.kind {
        AdjusterKind::Fixed => Err(Verdict::CannotBeTurned),
        AdjusterKind::OneEnd => {
            let end = first.ok_or(Verdict::ThreadMissing)?;
            Ok(vec![(end, end.thread.pitch())])
        }
        AdjusterKind::Turnbuckle => {
            let (Some(a), Some(b)) = (first, adjuster.second.as_ref()) else {
                return Err(Verdict::ThreadMissing);
            };
            let (Some(hand_a), Some(hand_b)) = (a.hand, b.hand) else {
                return Err(Verdict::HandsMissing);
            };
            let (pa, pb) = (a.thread.pitch(), b.thread.pitch());
            if hand_a != hand_b {
                return Ok(vec![(a, pa), (b, pb)]);
            }
            if (pa - pb).abs().to_mm() < 1e-9 {
                return Err(Verdict::TurningDoesNothing);
            }
            Ok(if pa > pb { vec![(a, pa), (b, -pb)] } else { vec![(a, -pa), (b, pb)] })
        }
    }
}

/// The most turns possible in the direction `sign` (+1 lengthens) before the first
/// end runs out; `None` while nothing bounds them.
fn most_turns(ends: &[(&ThreadedEnd, Length)], sign: f64) -> Option<f64> {
    ends.iter()
        .filter_map(|(end, advance)| {
            let out_per_turn = *advance * sign;
            let engagement = end.engagement?;
            let room = if out_per_turn > Length::ZERO {
                engagement - end.least_engagement()
            } else {
                end.full_depth()? - engagement
            };
            Some(room.max(Length::ZERO) / out_per_turn.abs())
        })
        .reduce(f64::min)
}

fn tighter(a: Option<Length>, b: Option<Length>, pick: fn(Length, Length) -> Length) -> Option<Length> {
    match (a, b) {
        (Some(a), Some(b)) => Some(pick(a, b)),
        (one, other) => one.or(other),
    }
}

/// How to get from `now` to `wanted`, both eye to eye.
#[must_use]
pub fn setting(adjuster: &Adjuster, now: Length, wanted: Length) -> Setting {
    let ends = match advances(adjuster) {
        Ok(ends) => ends,
        Err(verdict) => return unsettable(adjuster, verdict, now, wanted),
    };
    let per_turn: Length = ends.iter().map(|(_, advance)| *advance).sum();
    let half_turns = adjuster.kind == AdjusterKind::OneEnd && adjuster.end_style == EndStyle::ThroughBolt;
    let flats_per_step = if half_turns { FLATS / 2.0 } else { 1.0 };
    let step = per_turn * (flats_per_step / FLATS);
    let change = wanted - now;
    let exact_turns = change / per_turn;
    let flats_made = (change / step).round() * flats_per_step;
    let turned = flats_made / FLATS;
    let achieved = per_turn * turned;
    let count = flats_made.abs() as u32;
    let (turns, flats) = (count / 6, count % 6);
    let flats_over = exact_turns.abs() * FLATS - flats_made.abs();

    let outward = most_turns(&ends, 1.0).map(|most| now + per_turn * most);
    let inward = most_turns(&ends, -1.0).map(|most| now - per_turn * most);
    let longest = tighter(outward, adjuster.made_max, Length::min);
    let shortest = tighter(inward, adjuster.made_min, Length::max);
    let cut = shortest.filter(|short| wanted < *short - SLACK).map(|short| (short - wanted) / 2.0);
    let after: Vec<EndAfter> =
        ends.iter().map(|(end, advance)| end_after(end, *advance * turned, cut)).collect();

    let verdict = if count == 0 && cut.is_none() {
        Verdict::AsItIs
    } else if adjuster.made_max.is_some_and(|most| wanted > most + SLACK) {
        Verdict::BarTooShort
    } else if cut.is_some() {
        Verdict::CutBack
    } else if after.iter().any(|end| end.enough == Some(false)) {
        Verdict::TooLittleThread
    } else if after.iter().any(bottoms) {
        Verdict::ThreadBottoms
    } else {
        Verdict::Fits
    };
    let turns_say = if half_turns {
        half_turns_in_words(count / 3, change)
    } else {
        turns_in_words(turns, flats, change)
    };
    let mut settled = Setting {
        says: Phrase::default(),
        verdict,
        per_turn_mm: Some(per_turn),
        step_mm: Some(step),
        exact_turns: Some(exact_turns),
        turns: Some(turns),
        flats: Some(flats),
        flats_over: Some(flats_over),
        achieved_change_mm: Some(achieved),
        achieved_length_mm: Some(now + achieved),
        leftover_mm: Some(change - achieved),
        exactly: Some(Phrase::plain(&if half_turns {
            // Flats mean nothing to an eye that lines up twice in a turn.
            format!("{:.2} turns, in half turns", exact_turns.abs())
        } else {
            exactly_in_words(turns, flats, flats_over)
        })),
        turns_say: Some(Phrase::plain(&turns_say)),
        shortest_mm: shortest,
        longest_mm: longest,
        cut_each_end_mm: cut,
        ends: after,
        working: working(adjuster, &ends, per_turn, change, exact_turns, turned, achieved),
    };
    settled.says = verdict_in_words(&settled, wanted);
    settled
}

fn bottoms(end: &EndAfter) -> bool {
    end.engagement_after_mm.zip(end.full_depth_mm).is_some_and(|(after, full)| after > full + SLACK)
}

fn end_after(end: &ThreadedEnd, out: Length, cut: Option<Length>) -> EndAfter {
    let least = end.least_engagement();
    let after = end.engagement.map(|engagement| engagement - out);
    EndAfter {
        engagement_before_mm: end.engagement,
        engagement_after_mm: after,
        least_engagement_mm: least,
        full_depth_mm: end.full_depth(),
        enough: after.map(|after| after + SLACK >= least),
        after_cutting_shank_mm: cut
            .zip(end.shank.zip(end.tapped_depth))
            .map(|(cut, (shank, depth))| (shank - cut).min(depth).max(Length::ZERO)),
        after_facing_body_mm: cut
            .zip(end.shank.zip(end.tapped_depth))
            .map(|(cut, (shank, depth))| shank.min(depth - cut).max(Length::ZERO)),
    }
}

fn unsettable(adjuster: &Adjuster, verdict: Verdict, now: Length, wanted: Length) -> Setting {
    let change = wanted - now;
    let says = match verdict {
        Verdict::CannotBeTurned => Phrase::of(|w| {
            format!(
                "This bar cannot be turned. {} wants a bar of {}, eye to eye.",
                if change > Length::ZERO { "Longer" } else { "Shorter" },
                w.distance(wanted)
            )
        }),
        Verdict::ThreadMissing => {
            Phrase::plain("Type the thread of each adjusting end, such as 1-1/4-12, to get turns and flats.")
        }
        Verdict::HandsMissing => Phrase::plain(
            "Which hand is each thread? Opposite hands add their pitches, the same hand takes them from each other.",
        ),
        _ => Phrase::plain(
            "Both ends have the same pitch and the same hand: turning the middle changes nothing. Check the hands.",
        ),
    };
    Setting {
        verdict,
        says,
        per_turn_mm: None,
        step_mm: None,
        exact_turns: None,
        turns: None,
        flats: None,
        flats_over: None,
        achieved_change_mm: None,
        achieved_length_mm: None,
        leftover_mm: None,
        turns_say: None,
        exactly: None,
        shortest_mm: adjuster.made_min,
        longest_mm: adjuster.made_max,
        cut_each_end_mm: None,
        ends: Vec::new(),
        working: Working::default(),
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

fn half_turns_in_words(halves: u32, change: Length) -> String {
    let way = if change > Length::ZERO { "out" } else { "in" };
    match (halves / 2, halves % 2) {
        (0, 0) => "leave it as it is".to_owned(),
        (turns, 0) => format!("{} {way}", counted(turns, "turn")),
        (0, _) => format!("half a turn {way}"),
        (turns, _) => format!("{turns} ½ turns {way}"),
    }
}

fn turns_in_words(turns: u32, flats: u32, change: Length) -> String {
    let way = if change > Length::ZERO { "out" } else { "in" };
    if turns == 0 && flats == 0 {
        "leave it as it is".to_owned()
    } else {
        format!("{} {way}", whole_turns(turns, flats))
    }
}

fn exactly_in_words(turns: u32, flats: u32, flats_over: f64) -> String {
    let rest = format!("{:.2} flat", flats_over.abs());
    if rest == "0.00 flat" {
        whole_turns(turns, flats)
    } else {
        format!("{} {} {rest}", whole_turns(turns, flats), if flats_over < 0.0 { "less" } else { "and" })
    }
}

fn verdict_in_words(setting: &Setting, wanted: Length) -> Phrase {
    let leftover = setting.leftover_mm.unwrap_or(Length::ZERO);
    match setting.verdict {
        Verdict::AsItIs => Phrase::plain("The nearest step is where it stands: leave the threads alone."),
        Verdict::BarTooShort => Phrase::of(|w| {
            let most = setting.longest_mm.map_or_else(String::new, |most| w.distance(most));
            format!("Too short for this job: it takes {} and this bar ends at {most}.", w.distance(wanted))
        }),
        Verdict::CutBack => Phrase::of(|w| {
            let cut = setting.cut_each_end_mm.unwrap_or(Length::ZERO);
            let short = setting.shortest_mm.unwrap_or(wanted);
            format!(
                "Screwed right in it is still {}, longer than the {} wanted. Cut {} off each end, or take a shorter bar.",
                w.distance(short),
                w.distance(wanted),
                w.distance(cut)
            )
        }),
        Verdict::TooLittleThread => Phrase::of(|w| {
            let least = |pick: fn(&EndAfter) -> Option<Length>| {
                setting
                    .ends
                    .iter()
                    .filter(|end| end.enough == Some(false))
                    .filter_map(pick)
                    .reduce(Length::min)
            };
            let after = least(|end| end.engagement_after_mm).unwrap_or(Length::ZERO);
            let needed = least(|end| Some(end.least_engagement_mm)).unwrap_or(Length::ZERO);
            if after <= Length::ZERO {
                return format!(
                    "This takes the thread right out. At least {} must stay in: take a longer bar.",
                    w.distance(needed)
                );
            }
            format!(
                "Only {} of thread would stay in; at least {} is needed. Take a longer bar, or a bracket that wants less length.",
                w.distance(after),
                w.distance(needed)
            )
        }),
        Verdict::ThreadBottoms => Phrase::plain(
            "The finer thread would be screwed in to its end before the length is reached. Take a bar with opposite hands, or a longer one.",
        ),
        _ => Phrase::of(|w| {
            if leftover.abs() <= SLACK {
                "These steps hit the length.".to_owned()
            } else {
                let side = if leftover > Length::ZERO { "short" } else { "long" };
                format!("The nearest step leaves the bar {} too {side}.", w.fine(leftover))
            }
        }),
    }
}

fn working(
    adjuster: &Adjuster,
    ends: &[(&ThreadedEnd, Length)],
    per_turn: Length,
    change: Length,
    exact_turns: f64,
    turned: f64,
    achieved: Length,
) -> Working {
    let length = Value::Length;
    let pitches: Vec<Length> = ends.iter().map(|(end, _)| end.thread.pitch()).collect();
    let mut steps = Vec::new();
    if let (AdjusterKind::Turnbuckle, [a, b]) = (adjuster.kind, pitches.as_slice()) {
        let opposite = ends.iter().all(|(_, advance)| *advance > Length::ZERO);
        let (meaning, formula) = if opposite {
            ("per turn, opposite hands", "{p_a} + {p_b}")
        } else {
            ("per turn, the same hand", "|{p_a} − {p_b}|")
        };
        steps.push(Step::new(
            meaning,
            formula,
            &[("p_a", length(*a)), ("p_b", length(*b))],
            length(per_turn),
        ));
    } else {
        steps.push(Step::new("per turn, one end", "{p}", &[("p", length(per_turn))], length(per_turn)));
    }
    let turns = Value::Number(exact_turns, 3);
    steps.push(Step::new(
        "turns",
        "{ΔL} / {per turn}",
        &[("ΔL", length(change)), ("per turn", length(per_turn))],
        turns,
    ));
    steps.push(Step::new(
        "change set with whole steps",
        "{turns} · {per turn}",
        &[("turns", Value::Number(turned, 4)), ("per turn", length(per_turn))],
        length(achieved),
    ));
    steps.push(Step::new(
        "left over, + is still too short",
        "{ΔL} − {set}",
        &[("ΔL", length(change)), ("set", length(achieved))],
        length(change - achieved),
    ));
    for (end, advance) in ends {
        if let Some(engagement) = end.engagement {
            steps.push(Step::new(
                "thread in after",
                "{E} − {turns} · {p}",
                &[("E", length(engagement)), ("turns", Value::Number(turned, 4)), ("p", length(*advance))],
                length(engagement - *advance * turned),
            ));
        }
    }
    Working { title: "Turns and flats".to_owned(), steps }
}
