//! Setting a bar's length: turns, flats, what is left over, and how much thread
//! stays in.

use crate::measure::{Heading, Length, Meaning, Step, Working, phrase::Value};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::fastener::{Hand, Thread};

/// Flats of a hexagon: the smallest step of a turnbuckle.
const FLATS: f64 = 6.0;
/// The least engagement whatever the thread: one inch.
const LEAST_ENGAGEMENT: Length = Length::from_mm(25.4);
/// Length that is left to trim either way after a bar was cut back: a quarter of an inch
/// (default of this program).
pub const TRIM: Length = Length::from_mm(6.35);
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
    /// A through bolt in an eye that fits one way up only, by its offset, its grease nipple or a bend behind it: it
    /// lines up once in a turn.
    OneWayUp,
}

/// The least that a bar can be turned by.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TurnStep {
    /// A flat of its sleeve or nut, a sixth of a turn.
    #[default]
    Flat,
    /// Half a turn: its eye lines up with its bolt twice in one.
    HalfTurn,
    /// A whole turn: its eye fits one way up.
    WholeTurn,
}

impl TurnStep {
    const fn of(adjuster: &Adjuster) -> Self {
        match (adjuster.kind, adjuster.end_style) {
            (AdjusterKind::OneEnd, EndStyle::ThroughBolt) => Self::HalfTurn,
            (AdjusterKind::OneEnd, EndStyle::OneWayUp) => Self::WholeTurn,
            _ => Self::Flat,
        }
    }

    const fn flats(self) -> f64 {
        match self {
            Self::Flat => 1.0,
            Self::HalfTurn => FLATS / 2.0,
            Self::WholeTurn => FLATS,
        }
    }
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

    /// The most thread that can be in: the shorter of shank and tapped depth.
    #[must_use]
    pub fn full_depth(&self) -> Option<Length> {
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

/// A sleeve or link, one of its ends cut right hand and the other left, both with this thread.
#[must_use]
pub fn sleeve(thread: &Thread) -> Adjuster {
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
    Adjuster {
        kind: AdjusterKind::Turnbuckle,
        first: end(Hand::Right),
        second: end(Hand::Left),
        end_style: EndStyle::default(),
        made_min: None,
        made_max: None,
    }
}

/// What comes of trying to set the wanted length.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Verdict {
    /// It can be set, with thread enough as far as that is known.
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
    /// It can be set once both ends hold alike: one runs out while the other has thread to spare.
    EvenEnds,
    /// Too little thread would stay in.
    TooLittleThread,
    /// Two threads of one hand: the finer one is screwed in to its end first.
    ThreadBottoms,
    /// The shortest setting is too long: ends must be cut.
    CutBack,
}

impl Verdict {
    /// Whether the wanted length is set by turning, or stands already.
    #[must_use]
    pub const fn reaches(self) -> bool {
        matches!(self, Self::Fits | Self::AsItIs)
    }
}

/// One end after the change.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct EndAfter {
    /// Thread in before.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub engagement_before_mm: Option<Length>,
    /// Thread in after what can be turned was turned.
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
}

/// What must be taken off for a bar to screw further in: what stops it.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CutFrom {
    /// The tips of the threaded shanks: they are longer than the thread in the body is deep, so
    /// they stop inside.
    #[default]
    Shanks,
    /// The faces of the body: it is tapped deeper than the shanks are long, so their shoulders
    /// stop against it.
    Body,
    /// Both alike: shank and depth are alike, and one would stop where the other did.
    Both,
}

/// A bar that is too long screwed right in, cut back.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CutBack {
    /// Least to cut off each adjusting end, so that the length wanted can be trimmed both ways.
    pub each_end_mm: Length,
    /// How many ends are cut: one, or two alike.
    pub ends: usize,
    /// Length left to trim either way.
    pub trim_mm: Length,
    /// What must be cut; absent while shank or tapped depth is not known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub from: Option<CutFrom>,
    /// Thread in at the wanted length then, at the end with least.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub keeps_mm: Option<Length>,
    /// Whether that is enough, trimmed outward too.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub enough: Option<bool>,
}

/// How to set the length, and what is left.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Setting {
    /// What comes of it.
    pub verdict: Verdict,
    /// How it is turned.
    pub kind: AdjusterKind,
    /// The least it can be turned by.
    pub turned_by: TurnStep,
    /// Length it starts from.
    pub from_mm: Length,
    /// Length wanted.
    pub wanted_mm: Length,
    /// A length this near to the wanted one is taken as it.
    pub tolerance_mm: Length,
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
    /// Whole turns to make; absent where turning alone does not reach.
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
    /// Change the steps achieve, as far as they go.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub achieved_change_mm: Option<Length>,
    /// Length the steps achieve, as far as they go.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub achieved_length_mm: Option<Length>,
    /// Wanted less achieved; positive is still too short.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub leftover_mm: Option<Length>,
    /// The shortest it goes by turning alone: made range, and where the first end is full in.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub shortest_mm: Option<Length>,
    /// The longest it goes by turning alone: made range, and where the first end has its least.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub longest_mm: Option<Length>,
    /// The shortest with both ends evened: each full in.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub equal_engagement_shortest_mm: Option<Length>,
    /// The longest with both ends evened: each with its least.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub equal_engagement_longest_mm: Option<Length>,
    /// Where the shortest is still too long.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub cut: Option<CutBack>,
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

/// How far a bar can be turned: without evening its ends, and with.
struct Reach {
    turned_out: Option<Length>,
    turned_in: Option<Length>,
    longest: Option<Length>,
    shortest: Option<Length>,
}

fn reach(adjuster: &Adjuster, ends: &[(&ThreadedEnd, Length)], now: Length, per_turn: Length) -> Reach {
    let out = most_turns(ends, 1.0).map(|most| now + per_turn * most);
    let inward = most_turns(ends, -1.0).map(|most| now - per_turn * most);
    // Where every turn takes both ends out, each eye can be turned by itself once unbolted:
    // what one end has to spare makes up for what the other lacks.
    let equal_engagement = ends.len() > 1 && ends.iter().all(|(_, advance)| *advance > Length::ZERO);
    let all = |room: fn(&ThreadedEnd) -> Option<Length>| {
        let rooms = ends.iter().map(|(end, _)| room(end)).collect::<Option<Vec<_>>>();
        rooms.filter(|_| equal_engagement).map(|rooms| rooms.into_iter().sum::<Length>())
    };
    let more = all(|end| Some(end.engagement? - end.least_engagement()));
    let less = all(|end| Some(end.full_depth()? - end.engagement?));
    // Signed: ends that lack thread as they are set take the bar below its own length.
    let longest = more.map(|room| now + room).or(out);
    let shortest = less.map(|room| now - room.max(Length::ZERO)).or(inward);
    Reach {
        turned_out: tighter(out, adjuster.made_max, Length::min),
        turned_in: tighter(inward, adjuster.made_min, Length::max),
        longest: tighter(longest, adjuster.made_max, Length::min),
        shortest: tighter(shortest, adjuster.made_min, Length::max),
    }
}

/// How to get from `now` to `wanted`, both eye to eye, where only the wanted length will do.
#[must_use]
pub fn setting(adjuster: &Adjuster, now: Length, wanted: Length) -> Setting {
    setting_within(adjuster, now, wanted, Length::ZERO)
}

/// How to get from `now` to `wanted`, both eye to eye. A bar that ends within `tolerance` of
/// the wanted length is long or short enough.
#[must_use]
pub fn setting_within(adjuster: &Adjuster, now: Length, wanted: Length, tolerance: Length) -> Setting {
    let mut set = facts_within(adjuster, now, wanted, tolerance);
    if let (Ok(ends), Some(per_turn), Some(exact_turns), Some(achieved)) =
        (advances(adjuster), set.per_turn_mm, set.exact_turns, set.achieved_change_mm)
    {
        let turned = achieved / per_turn;
        set.working = working(adjuster, &ends, per_turn, wanted - now, exact_turns, turned, achieved);
    }
    set
}

/// As [`setting_within`] without its working, for where many are compared.
#[must_use]
pub fn facts_within(adjuster: &Adjuster, now: Length, wanted: Length, tolerance: Length) -> Setting {
    let ends = match advances(adjuster) {
        Ok(ends) => ends,
        Err(verdict) => return unsettable(adjuster, verdict, now, wanted, tolerance),
    };
    let slack = tolerance.max(SLACK);
    let per_turn: Length = ends.iter().map(|(_, advance)| *advance).sum();
    let turned_by = TurnStep::of(adjuster);
    let flats_per_step = turned_by.flats();
    let step = per_turn * (flats_per_step / FLATS);
    let change = wanted - now;
    let exact_turns = change / per_turn;
    let reach = reach(adjuster, &ends, now, per_turn);
    // The nearest step that the threads allow; a hair over a whole step counts as it.
    let nearest = (change / step).round();
    let most = reach.turned_out.map_or(f64::INFINITY, |out| ((out - now) / step + 1e-6).floor().max(0.0));
    let least =
        reach.turned_in.map_or(f64::NEG_INFINITY, |inward| ((inward - now) / step - 1e-6).ceil().min(0.0));
    let steps = nearest.clamp(least, most);
    let turned = steps * flats_per_step / FLATS;
    let achieved = per_turn * turned;
    let leftover = change - achieved;
    let after: Vec<EndAfter> = ends.iter().map(|(end, advance)| end_after(end, *advance * turned)).collect();

    let held = after.iter().all(|end| end.enough != Some(false)) && !after.iter().any(bottoms);
    let as_near_as_steps =
        leftover.abs() <= (step / 2.0).max(slack) + SLACK || (steps != nearest && leftover.abs() < step);
    // A step short of what the threads allow is near enough only where the wanted length itself is.
    let within_reach = reach.longest.is_none_or(|longest| wanted <= longest + slack);
    let mixed = ends.iter().any(|(_, advance)| *advance < Length::ZERO);
    let too_long = reach.shortest.filter(|short| wanted < *short - slack);
    let verdict = if too_long.is_some() {
        Verdict::CutBack
    } else if adjuster.made_max.is_some_and(|most| wanted > most + slack) {
        Verdict::BarTooShort
    } else if held && as_near_as_steps && steps == 0.0 {
        Verdict::AsItIs
    } else if held && as_near_as_steps && within_reach {
        Verdict::Fits
    } else if reach.longest.is_some_and(|longest| wanted > longest + SLACK) && !mixed {
        // What is near enough as a length never excuses a thread.
        Verdict::TooLittleThread
    } else if mixed {
        if wanted > now && ends_run_out(&ends, change / per_turn) {
            Verdict::TooLittleThread
        } else {
            Verdict::ThreadBottoms
        }
    } else if equal_engagement(&ends, change)
        .is_some_and(|after| after.iter().all(|end| end.enough == Some(true)))
    {
        Verdict::EvenEnds
    } else {
        Verdict::TooLittleThread
    };
    let after =
        if verdict == Verdict::EvenEnds { equal_engagement(&ends, change).unwrap_or(after) } else { after };
    let count = (steps * flats_per_step).abs() as u32;
    let reaches = verdict.reaches();
    Setting {
        verdict,
        kind: adjuster.kind,
        turned_by,
        from_mm: now,
        wanted_mm: wanted,
        tolerance_mm: tolerance,
        per_turn_mm: Some(per_turn),
        step_mm: Some(step),
        exact_turns: Some(exact_turns),
        turns: reaches.then_some(count / 6),
        flats: reaches.then_some(count % 6),
        flats_over: reaches.then_some(exact_turns.abs() * FLATS - f64::from(count)),
        achieved_change_mm: Some(achieved),
        achieved_length_mm: Some(now + achieved),
        leftover_mm: Some(leftover),
        shortest_mm: reach.turned_in,
        longest_mm: reach.turned_out,
        equal_engagement_shortest_mm: reach.shortest,
        equal_engagement_longest_mm: reach.longest,
        cut: too_long.map(|short| cut_back(&ends, per_turn, short - wanted)),
        ends: after,
        working: Working::default(),
    }
}

/// Whether an end that comes out would keep less than it must after so many turns.
fn ends_run_out(ends: &[(&ThreadedEnd, Length)], turns: f64) -> bool {
    ends.iter().any(|(end, advance)| {
        *advance > Length::ZERO
            && end.engagement.is_some_and(|now| now - *advance * turns + SLACK < end.least_engagement())
    })
}

fn bottoms(end: &EndAfter) -> bool {
    end.engagement_after_mm.zip(end.full_depth_mm).is_some_and(|(after, full)| after > full + SLACK)
}

fn end_after(end: &ThreadedEnd, out: Length) -> EndAfter {
    let least = end.least_engagement();
    let after = end.engagement.map(|engagement| engagement - out);
    EndAfter {
        engagement_before_mm: end.engagement,
        engagement_after_mm: after,
        least_engagement_mm: least,
        full_depth_mm: end.full_depth(),
        enough: after.map(|after| after + SLACK >= least),
    }
}

/// The thread to have in at each end so that both have alike to spare at the wanted length:
/// their room, less the change, shared in halves as far as the depth of either takes it.
fn equal_engagement(ends: &[(&ThreadedEnd, Length)], change: Length) -> Option<Vec<EndAfter>> {
    let [(a, _), (b, _)] = ends else { return None };
    let (now_a, now_b) = (a.engagement?, b.engagement?);
    let total = now_a + now_b - change;
    let spare = (total - a.least_engagement() - b.least_engagement()) / 2.0;
    let full = |end: &ThreadedEnd| end.full_depth().unwrap_or(total);
    let lowest = (total - full(b)).max(Length::ZERO);
    let first = (a.least_engagement() + spare).min(full(a)).max(lowest);
    let second = total - first;
    Some(vec![end_after(a, now_a - first), end_after(b, now_b - second)])
}

/// What stops an end from going further in by `cut`.
fn stopped_by(shank: Length, depth: Length, cut: Length) -> CutFrom {
    if shank - cut + SLACK >= depth {
        CutFrom::Shanks
    } else if depth - cut + SLACK >= shank {
        CutFrom::Body
    } else {
        CutFrom::Both
    }
}

/// What to cut off where a bar screwed right in is `too_long` by so much. Shank tips cut: thread in
/// min(shank − cut, depth); body faced: min(shank, depth − cut); both: min(shank, depth) − cut.
fn cut_back(ends: &[(&ThreadedEnd, Length)], per_turn: Length, too_long: Length) -> CutBack {
    let each = (too_long + TRIM) / ends.len() as f64;
    let sizes: Option<Vec<(Length, Length)>> =
        ends.iter().map(|(end, _)| Some((end.shank?, end.tapped_depth?))).collect();
    let from = sizes.as_ref().map(|sizes| {
        let mut ways = sizes.iter().map(|(shank, depth)| stopped_by(*shank, *depth, each));
        let first = ways.next().unwrap_or_default();
        // Ends that are stopped unlike are cut alike: both.
        if ways.all(|way| way == first) { first } else { CutFrom::Both }
    });
    // At the wanted length every end stands out by its share of the trim.
    let kept: Option<Vec<(Length, Length)>> = sizes.zip(from).map(|(sizes, from)| {
        sizes
            .iter()
            .zip(ends)
            .map(|((shank, depth), (end, advance))| {
                let full = match from {
                    CutFrom::Shanks => (*shank - each).min(*depth),
                    CutFrom::Body => (*shank).min(*depth - each),
                    CutFrom::Both => (*shank).min(*depth) - each,
                };
                let out = TRIM * (advance.abs() / per_turn);
                ((full - out).max(Length::ZERO), end.least_engagement() + out)
            })
            .collect()
    });
    CutBack {
        each_end_mm: each,
        ends: ends.len(),
        trim_mm: TRIM,
        from,
        keeps_mm: kept.as_ref().and_then(|kept| kept.iter().map(|(kept, _)| *kept).reduce(Length::min)),
        enough: kept.map(|kept| kept.iter().all(|(kept, least)| *kept + SLACK >= *least)),
    }
}

fn unsettable(
    adjuster: &Adjuster,
    verdict: Verdict,
    now: Length,
    wanted: Length,
    tolerance: Length,
) -> Setting {
    let near = verdict == Verdict::CannotBeTurned && (wanted - now).abs() <= tolerance.max(SLACK);
    Setting {
        verdict: if near { Verdict::AsItIs } else { verdict },
        kind: adjuster.kind,
        turned_by: TurnStep::Flat,
        from_mm: now,
        wanted_mm: wanted,
        tolerance_mm: tolerance,
        per_turn_mm: None,
        step_mm: None,
        exact_turns: None,
        turns: None,
        flats: None,
        flats_over: None,
        achieved_change_mm: near.then_some(Length::ZERO),
        achieved_length_mm: near.then_some(now),
        leftover_mm: near.then_some(wanted - now),
        shortest_mm: adjuster.made_min,
        longest_mm: adjuster.made_max,
        equal_engagement_shortest_mm: adjuster.made_min,
        equal_engagement_longest_mm: adjuster.made_max,
        cut: None,
        ends: Vec::new(),
        working: Working::default(),
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
            (Meaning::PerTurnOpposite, "{p_a} + {p_b}")
        } else {
            (Meaning::PerTurnSame, "|{p_a} − {p_b}|")
        };
        steps.push(Step::new(
            meaning,
            formula,
            &[("p_a", length(*a)), ("p_b", length(*b))],
            length(per_turn),
        ));
    } else {
        steps.push(Step::new(Meaning::PerTurnOneEnd, "{p}", &[("p", length(per_turn))], length(per_turn)));
    }
    let turns = Value::Number(exact_turns, 3);
    steps.push(Step::new(
        Meaning::Turns,
        "{ΔL} / {p_turn}",
        &[("ΔL", length(change)), ("p_turn", length(per_turn))],
        turns,
    ));
    steps.push(Step::new(
        Meaning::ChangeSet,
        "{turns} · {p_turn}",
        &[("turns", Value::Number(turned, 4)), ("p_turn", length(per_turn))],
        length(achieved),
    ));
    steps.push(Step::new(
        Meaning::LeftOver,
        "{ΔL} − {set}",
        &[("ΔL", length(change)), ("set", length(achieved))],
        length(change - achieved),
    ));
    for (end, advance) in ends {
        if let Some(engagement) = end.engagement {
            steps.push(Step::new(
                Meaning::ThreadIn,
                "{E} − {turns} · {p}",
                &[("E", length(engagement)), ("turns", Value::Number(turned, 4)), ("p", length(*advance))],
                length(engagement - *advance * turned),
            ));
        }
    }
    Working { title: Heading::TurnsAndFlats, steps }
}
