//! Cycling: the axle over everything it can do, and the limit that is met first each way out from
//! the height it is driven at.

use crate::measure::Length;
use crate::pose::mechanism::{Stops, Watch};
use std::collections::VecDeque;

use super::mechanism::{Level, Mechanism, Posed, Trail};
use super::solver::PoseFault;

/// A way out from the driven height.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Way {
    /// Both wheels down.
    Droop,
    /// Both wheels up.
    Bump,
    /// Cross-axled, left wheel up.
    LeftUp,
    /// Cross-axled, right wheel up.
    RightUp,
}

impl Way {
    /// All four.
    pub const ALL: [Self; 4] = [Self::Droop, Self::Bump, Self::LeftUp, Self::RightUp];

    /// Wheel travels at its end, left and right, in millimetres.
    #[must_use]
    pub fn end(self, mechanism: &Mechanism) -> (f64, f64) {
        let stops = mechanism.stops();
        let (high, low) = stops.cross_axled();
        match self {
            Self::Droop => (-stops.droop.to_mm(), -stops.droop.to_mm()),
            Self::Bump => (stops.bump.to_mm(), stops.bump.to_mm()),
            Self::LeftUp => (high, low),
            Self::RightUp => (low, high),
        }
    }
}

/// Where along a way a watched figure becomes close and over, as shares of the way.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Crossed {
    /// Index of the watch.
    pub watch: usize,
    /// From here on it is close.
    pub near_at: Option<f64>,
    /// From here on it is over.
    pub violated_at: Option<f64>,
}

/// One way gone to its end or to where the links no longer reach.
#[derive(Clone, Debug, PartialEq)]
pub struct Walk {
    /// Which.
    pub way: Way,
    /// Wheel travel, of both alike, at its start.
    pub start: f64,
    /// Wheel travels at its end.
    pub end: (f64, f64),
    /// What is met on it.
    pub crossings: Vec<Crossed>,
    /// Where the links stop reaching, as a share of the way, and the link.
    pub out_of_reach: Option<(f64, usize)>,
}

impl Walk {
    /// Wheel travels at a share of it, left and right, mm.
    #[must_use]
    pub fn at(&self, share: f64) -> (f64, f64) {
        between(self.start, self.end, share)
    }
}

/// Wheel travels at a share of the way from `start`, of both wheels alike, to `end`, mm.
///
/// ```
/// use derecho_core::pose::travel::between;
///
/// assert_eq!(between(10.0, (50.0, -30.0), 0.5), (30.0, -10.0));
/// ```
#[must_use]
pub fn between(start: f64, end: (f64, f64), share: f64) -> (f64, f64) {
    (start + (end.0 - start) * share, start + (end.1 - start) * share)
}

/// Steps of a way.
const WAY_STEPS: usize = 32;
/// Halvings between two steps: a 200 mm way is cut to 0.002 mm.
const HALVINGS: usize = 12;

/// What is near or over its limit before anything moves, by the figures there.
fn crossed_at_the_start(watches: &[Watch], values: &[f64]) -> Vec<Crossed> {
    let at_the_start = |(watch, (w, value)): (usize, (&Watch, &f64))| {
        let level = w.level(*value);
        Crossed {
            watch,
            near_at: (level >= Level::Near).then_some(0.0),
            violated_at: (level >= Level::Violated).then_some(0.0),
        }
    };
    watches.iter().zip(values).enumerate().map(at_the_start).collect()
}

/// Goes a way from the driven height and notes what is met.
///
/// # Errors
/// Where that height itself has no pose.
pub fn walk(mechanism: &Mechanism, way: Way) -> Result<Walk, PoseFault> {
    let driven = mechanism.at_driven_height()?;
    let (start, end) = (mechanism.driven(), way.end(mechanism));
    let at = |share: f64, trail: Trail| {
        let (left, right) = between(start, end, share);
        mechanism.pose(left, right, trail)
    };
    let watches = mechanism.watches();
    let mut levels = Vec::new();
    mechanism.values(&driven, &mut levels);
    // Of the step before, to know how fast a figure comes up to its limit.
    let mut before = levels.clone();
    let mut crossings = crossed_at_the_start(watches, &before);
    let mut last = driven;
    let mut earlier = [None; 3];
    let mut out_of_reach = None;
    for step in 1..=WAY_STEPS {
        let (from, to) = ((step - 1) as f64 / WAY_STEPS as f64, step as f64 / WAY_STEPS as f64);
        let trail = last.trail_beyond(earlier.each_ref().map(Option::as_ref));
        let posed = match at(to, trail).or_else(|_| at(to, last.trail())) {
            Ok(posed) => posed,
            Err(fault) => {
                out_of_reach = Some(edge_of_reach(&at, from, to, &last, fault));
                break;
            }
        };
        mechanism.values(&posed, &mut levels);
        for (index, watch) in watches.iter().enumerate() {
            for (level, note) in [(Level::Near, 0), (Level::Violated, 1)] {
                let noted = if note == 0 { crossings[index].near_at } else { crossings[index].violated_at };
                if noted.is_some() || watch.level(levels[index]) < level {
                    continue;
                }
                let past = |share: f64| {
                    let trail = last.trail_towards(&posed, (share - from) / (to - from));
                    Some(watch.past(mechanism.value_of(&at(share, trail).ok()?, index), level))
                };
                let ends = [before[index], levels[index]].map(|value| watch.past(value, level));
                let crossing = crossing([from, to], ends, past);
                if note == 0 {
                    crossings[index].near_at = Some(crossing);
                } else {
                    crossings[index].violated_at = Some(crossing);
                }
            }
        }
        std::mem::swap(&mut before, &mut levels);
        earlier = [Some(last), earlier[0], earlier[1]];
        last = posed;
    }
    crossings.retain(|crossed| crossed.near_at.is_some() || crossed.violated_at.is_some());
    Ok(Walk { way, start, end, crossings, out_of_reach })
}

/// The share between `from`, where `past` is false, and `to`, where it is true, from which
/// it is true.
fn bisect(mut from: f64, mut to: f64, past: impl Fn(f64) -> bool) -> f64 {
    for _ in 0..HALVINGS {
        let middle = (from + to) / 2.0;
        if past(middle) {
            to = middle;
        } else {
            from = middle;
        }
    }
    to
}

/// The place between two, at the first of which a figure is not `past` and at the second of which it is, from
/// which it is past: as close as [`bisect`] finds it, in fewer looks where the figure is smooth, by the ITP
/// method (Oliveira, Takahashi 2020). `ends` are the figure there; a place without a figure is not past.
fn crossing([mut from, mut to]: [f64; 2], ends: [f64; 2], past: impl Fn(f64) -> Option<f64>) -> f64 {
    let [mut low, mut high] = ends;
    let close_enough = (to - from) / f64::from(1_u32 << HALVINGS);
    let lean = 0.2 / (to - from);
    for look in 0..=HALVINGS as i32 {
        let width = to - from;
        if width <= close_enough {
            break;
        }
        let middle = (from + to) / 2.0;
        let chord = (high * from - low * to) / (high - low);
        let share = if chord.is_finite() {
            // From the chord towards the middle by a little, and no further from it than halving would leave room.
            let towards = (middle - chord).signum();
            let leaning = lean * width * width;
            let drawn = if leaning <= (middle - chord).abs() { chord + towards * leaning } else { middle };
            let room = (close_enough * 2.0_f64.powi(HALVINGS as i32 - look) - width / 2.0).max(0.0);
            if (drawn - middle).abs() <= room { drawn } else { middle - towards * room }
        } else {
            middle
        };
        match past(share) {
            Some(value) if value >= 0.0 => (to, high) = (share, value),
            Some(value) => (from, low) = (share, value),
            None => (from, low) = (share, f64::NEG_INFINITY),
        }
    }
    to
}

/// Travel of both wheels alike, mm, at which a watched figure goes over its limit between the travel `inside`, where
/// it is not over, and the pose `over`, where it is: as closely as [`walk`] finds it.
#[must_use]
pub fn over_from(mechanism: &Mechanism, watch: usize, inside: f64, over: &Posed) -> f64 {
    let judge = mechanism.watches()[watch];
    let way = over.left - inside;
    if way == 0.0 {
        return over.left;
    }
    let past = |posed: &Posed| judge.past(mechanism.value_of(posed, watch), Level::Violated);
    let at = |share: f64, trail: Trail| {
        let travel = inside + way * share;
        mechanism.pose(travel, travel, trail).ok()
    };
    let inner = at(0.0, over.trail());
    let figure = |share: f64| {
        let trail = inner.as_ref().map_or_else(|| over.trail(), |inner| inner.trail_towards(over, share));
        Some(past(&at(share, trail)?))
    };
    let ends = [inner.as_ref().map_or(f64::NEG_INFINITY, past), past(over)];
    inside + way * crossing([0.0, 1.0], ends, figure)
}

fn edge_of_reach(
    at: &impl Fn(f64, Trail) -> Result<Posed, PoseFault>,
    from: f64,
    to: f64,
    last: &Posed,
    fault: PoseFault,
) -> (f64, usize) {
    let edge = bisect(from, to, |share| at(share, last.trail()).is_err());
    let link = match fault {
        PoseFault::OutOfReach { link, .. } => link,
        PoseFault::Loose(_) => 0,
    };
    (edge, link)
}

/// The left × right envelope.
#[derive(Clone, Debug, PartialEq)]
pub struct Envelope {
    /// Wheel travels of the rows and columns alike, in millimetres, lowest first.
    pub travels: Vec<f64>,
    /// Poses, row by row: shape `[left][right]`. None out of reach. Those outside the stops are
    /// there for drawing between the grid's poses alone.
    pub poses: Vec<Option<Posed>>,
    /// Whether the stops allow it: shape `[left][right]`.
    pub allowed: Vec<bool>,
    /// Watched figures: shape `[left][right][watch]`, NaN where there is no pose; empty until it is [`watched`].
    pub values: Vec<f64>,
}

impl Envelope {
    /// The figures of one pose, by its index.
    #[must_use]
    pub fn values_at(&self, index: usize, watches: usize) -> &[f64] {
        &self.values[index * watches..(index + 1) * watches]
    }
}

/// Solves the envelope on a grid of `side` × `side`, from ride height outward, each pose
/// from its neighbours nearer in.
///
/// # Errors
/// Where ride height itself has no pose.
pub fn envelope(mechanism: &Mechanism, side: usize) -> Result<Envelope, PoseFault> {
    let begun = Begun::of(mechanism, side)?;
    let (low, high) = (begun.outward(Outward::Down), begun.outward(Outward::Up));
    Ok(begun.joined(low, high))
}

/// One half of an envelope, seen from the row in its middle.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Outward {
    /// Left wheel below it.
    Down,
    /// Left wheel above it.
    Up,
}

/// The poses of one left wheel's travel: shape `[right]`.
type Row = Vec<Option<Posed>>;

/// Some rows of an envelope, from the middle outward.
#[derive(Clone, Debug)]
pub struct TravelRows(Vec<Row>);

/// An envelope whose middle row is solved: both halves follow from it and not from each other, so that whoever
/// has two threads may do both at once.
#[derive(Clone, Debug)]
pub struct Begun<'a> {
    mechanism: &'a Mechanism,
    travels: Vec<f64>,
    middle: usize,
    row: Row,
}

impl<'a> Begun<'a> {
    /// Solves the middle row of a grid of `side` × `side`.
    ///
    /// # Errors
    /// Where ride height itself has no pose.
    pub fn of(mechanism: &'a Mechanism, side: usize) -> Result<Self, PoseFault> {
        let ride = mechanism.at_ride_height()?;
        let side = side.max(3);
        let (low, high) = mechanism.stops().span();
        let travels: Vec<f64> =
            (0..side).map(|i| low + (high - low) * i as f64 / (side - 1) as f64).collect();
        let middle =
            (0..side).min_by(|a, b| travels[*a].abs().total_cmp(&travels[*b].abs())).unwrap_or(side / 2);
        let mut begun = Self { mechanism, travels, middle, row: Vec::new() };
        begun.row = begun.solved(middle, [None; 4], Some(ride.trail()));
        Ok(begun)
    }

    /// The rows of one half.
    #[must_use]
    pub fn outward(&self, way: Outward) -> TravelRows {
        let mut rows: Vec<Row> = Vec::new();
        let mut solve = |row: usize| {
            // The nearest row first; the one in the middle counts as the one before the first.
            let inward = |steps: usize| match rows.len().checked_sub(steps) {
                Some(index) => rows.get(index),
                None => (rows.len() + 1 == steps).then_some(&self.row),
            };
            let solved = self.solved(row, [1, 2, 3, 4].map(inward), None);
            rows.push(solved);
        };
        match way {
            Outward::Down => (0..self.middle).rev().for_each(&mut solve),
            Outward::Up => (self.middle + 1..self.travels.len()).for_each(&mut solve),
        }
        TravelRows(rows)
    }

    /// The whole of it.
    #[must_use]
    pub fn joined(self, low: TravelRows, high: TravelRows) -> Envelope {
        let side = self.travels.len();
        let rows = low.0.into_iter().rev().chain([self.row]).chain(high.0);
        let mut envelope = Envelope {
            poses: Vec::with_capacity(side * side),
            allowed: Vec::with_capacity(side * side),
            values: Vec::new(),
            travels: Vec::new(),
        };
        for row in rows {
            envelope.poses.extend(row);
        }
        for left in &self.travels {
            let stops = self.mechanism.stops();
            envelope.allowed.extend(self.travels.iter().map(|right| stops.allow(*left, *right)));
        }
        envelope.travels = self.travels;
        envelope
    }

    /// A row, from its middle outward, each pose from those beside it nearer in, or else from those of the rows
    /// `inward` of it, nearest first.
    fn solved(&self, row: usize, inward: [Option<&Row>; 4], start: Option<Trail>) -> Row {
        let (side, middle) = (self.travels.len(), self.middle);
        let mut poses: Vec<Option<Posed>> = vec![None; side];
        for column in (middle..side).chain((0..middle).rev()) {
            let beside = [1, 2, 3, 4].map(|steps| poses.get(before(column, steps, middle)?)?.as_ref());
            let across = inward.map(|row| row?[column].as_ref());
            let beyond =
                |[near, before @ ..]: [Option<&Posed>; 4]| near.map(|near: &Posed| near.trail_beyond(before));
            let starts = [beside, across].into_iter().filter_map(beyond);
            let (left, right) = (self.travels[row], self.travels[column]);
            let found = starts
                .chain(start.filter(|_| column == middle))
                .find_map(|trail| self.mechanism.pose(left, right, trail).ok());
            let Some(posed) = found else { continue };
            poses[column] = Some(posed);
        }
        poses
    }
}

/// Steps of the grid between the poses at which gaps are looked at: everywhere, and where they are near.
const COARSE: usize = 4;
const FINE: usize = 2;
/// A gap so wide at all of a patch's corners, mm, is taken between them as they have it: nothing comes nearer by more
/// than its wheels go, and in the middle of a patch each is some 15 mm from a corner.
const WIDE: f64 = 45.0;
/// How much nearer than at every fourth pose a gap is taken to come that is worth a closer look, mm.
const BETWEEN: f64 = 20.0;

/// Every so many places of a row, and the last.
fn nodes(side: usize, step: usize) -> Vec<usize> {
    let mut nodes: Vec<usize> = (0..side).step_by(step).collect();
    if nodes.last() != Some(&(side - 1)) {
        nodes.push(side - 1);
    }
    nodes
}

/// The gaps of an envelope while they are filled in.
struct Filling<'a> {
    mechanism: &'a Mechanism,
    poses: &'a [Option<Posed>],
    side: usize,
    watches: usize,
    gaps: Vec<usize>,
    values: Vec<f64>,
}

impl Filling<'_> {
    /// Looks at the gaps of a pose that are not known yet.
    fn tell(&mut self, index: usize) {
        let Some(posed) = &self.poses[index] else { return };
        let values = &mut self.values[index * self.watches..(index + 1) * self.watches];
        let open: Vec<usize> = self.gaps.iter().copied().filter(|watch| values[*watch].is_nan()).collect();
        self.mechanism.gaps(posed, values, &open);
    }

    /// Between four corners, of which the first is the lowest: takes what is told at all of them, and is `flat` there,
    /// between them as they have it.
    fn fill(&mut self, [low, high]: [usize; 2], [near, far]: [usize; 2], flat: impl Fn([f64; 4]) -> bool) {
        let side = self.side;
        let corners = [low * side + near, low * side + far, high * side + near, high * side + far];
        let known: Vec<(usize, [f64; 4])> = self
            .gaps
            .iter()
            .map(|watch| (*watch, corners.map(|index| self.values[index * self.watches + watch])))
            .filter(|(_, at)| !at.iter().any(|gap| gap.is_nan()) && flat(*at))
            .collect();
        for left in low..=high {
            let up = (left - low) as f64 / (high - low) as f64;
            for right in near..=far {
                let index = left * side + right;
                if corners.contains(&index) || self.poses[index].is_none() {
                    continue;
                }
                let over = (right - near) as f64 / (far - near) as f64;
                let counts = [(1.0 - up) * (1.0 - over), (1.0 - up) * over, up * (1.0 - over), up * over];
                let values = &mut self.values[index * self.watches..(index + 1) * self.watches];
                for (watch, at) in &known {
                    let value = &mut values[*watch];
                    if value.is_nan() {
                        *value = at.iter().zip(counts).map(|(gap, count)| gap * count).sum();
                    }
                }
            }
        }
    }
}

/// The figures of an envelope with the gaps that are still open, NaN, filled in.
fn filled(narrowed: &Mechanism, envelope: &Envelope, values: Vec<f64>) -> Vec<f64> {
    let (side, watches) = (envelope.travels.len(), narrowed.watches().len());
    let gaps = (0..watches).filter(|at| narrowed.watches()[*at].is_gap()).collect();
    let mut filling = Filling { mechanism: narrowed, poses: &envelope.poses, side, watches, gaps, values };
    for (step, wide) in [(COARSE, WIDE), (FINE, f64::NEG_INFINITY)] {
        let nodes = nodes(side, step);
        if step == FINE {
            nodes.iter().for_each(|left| nodes.iter().for_each(|right| filling.tell(left * side + right)));
        }
        for rows in nodes.windows(2) {
            for columns in nodes.windows(2) {
                let flat = |gaps: [f64; 4]| gaps.iter().all(|gap| *gap > wide);
                filling.fill([rows[0], rows[1]], [columns[0], columns[1]], flat);
            }
        }
    }
    // Beside poses out of reach nothing lies between four.
    (0..side * side).for_each(|index| filling.tell(index));
    filling.values
}

/// A mechanism with what it watches over an envelope: every figure but the gaps that stay wider than `within`, mm,
/// everywhere; and the envelope with those figures. Gaps are looked at at every fourth pose, at every second between
/// those that are near there, and else taken between them as they lie.
#[must_use]
pub fn watched(mechanism: &Mechanism, envelope: &Envelope, within: f64) -> (Mechanism, Envelope) {
    let side = envelope.travels.len();
    let coarse = nodes(side, COARSE);
    let all: Vec<usize> =
        (0..mechanism.watches().len()).filter(|at| mechanism.watches()[*at].is_gap()).collect();
    // Of every fourth pose, by its place among all: its gaps.
    let mut looked: Vec<(usize, Vec<f64>)> = Vec::with_capacity(coarse.len() * coarse.len());
    let mut least = vec![f64::INFINITY; mechanism.watches().len()];
    for index in coarse.iter().flat_map(|left| coarse.iter().map(move |right| left * side + right)) {
        let Some(posed) = &envelope.poses[index] else { continue };
        let mut gaps = vec![f64::NAN; mechanism.watches().len()];
        mechanism.gaps(posed, &mut gaps, &all);
        for (least, gap) in least.iter_mut().zip(&gaps) {
            *least = least.min(*gap);
        }
        looked.push((index, gaps));
    }
    let near = |watch: &usize| !mechanism.watches()[*watch].is_gap() || least[*watch] <= within + BETWEEN;
    let kept: Vec<usize> = (0..mechanism.watches().len()).filter(near).collect();
    let narrowed = mechanism.watching(&kept);
    let mut values = Vec::with_capacity(side * side * kept.len());
    let mut buffer = Vec::with_capacity(kept.len());
    for posed in &envelope.poses {
        buffer.clear();
        match posed {
            Some(posed) => narrowed.figures(posed, &mut buffer),
            None => buffer.resize(kept.len(), f64::NAN),
        }
        values.extend_from_slice(&buffer);
    }
    for (index, gaps) in looked {
        for (place, watch) in
            kept.iter().enumerate().filter(|(_, watch)| mechanism.watches()[**watch].is_gap())
        {
            values[index * kept.len() + place] = gaps[*watch];
        }
    }
    let values = filled(&narrowed, envelope, values);
    // Once more, by what was found between.
    let mut least = vec![f64::INFINITY; kept.len()];
    for (pose, allowed) in values.chunks(kept.len().max(1)).zip(&envelope.allowed) {
        if *allowed {
            least.iter_mut().zip(pose).for_each(|(least, value)| *least = least.min(*value));
        }
    }
    let near = |at: &usize| !narrowed.watches()[*at].is_gap() || least[*at] <= within;
    let kept: Vec<usize> = (0..kept.len()).filter(near).collect();
    let poses = values.chunks(narrowed.watches().len().max(1));
    let values = poses.flat_map(|pose| kept.iter().map(|at| pose[*at])).collect();
    (narrowed.watching(&kept), Envelope { values, ..envelope.clone() })
}

/// The place so many steps before this one where the upper half is gone first, from the middle up, and the lower one
/// from the middle down, from which what lies above is known.
const fn before(place: usize, steps: usize, middle: usize) -> Option<usize> {
    if place < middle {
        Some(place + steps)
    } else if place >= middle + steps {
        Some(place - steps)
    } else {
        None
    }
}

/// The worst a watched figure gets anywhere.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Worst {
    /// Index of the watch.
    pub watch: usize,
    /// The figure there, radians or millimetres.
    pub value: f64,
    /// The pose.
    pub posed: Posed,
}

/// The worst of each watched figure over the envelope, refined between the grid's poses
/// until it changes by less than 0.1 mm, or its like in angle.
#[must_use]
pub fn worst(mechanism: &Mechanism, envelope: &Envelope) -> Vec<Worst> {
    let watches = mechanism.watches();
    // Of each watch how bad it gets and in which pose, in one pass over the figures as they lie; a pose is long.
    let mut found: Vec<Option<(f64, usize)>> = vec![None; watches.len()];
    for (index, posed) in envelope.poses.iter().enumerate() {
        if posed.is_none() || !envelope.allowed[index] {
            continue;
        }
        let values = envelope.values_at(index, watches.len());
        for ((watch, value), found) in watches.iter().zip(values).zip(&mut found) {
            let bad = watch.badness(*value);
            if found.is_none_or(|(most, _)| bad.total_cmp(&most).is_ge()) {
                *found = Some((bad, index));
            }
        }
    }
    let stops = mechanism.stops();
    found
        .into_iter()
        .enumerate()
        .filter_map(|(watch, found)| {
            let starts = if watches[watch].is_gap() {
                gap_starts(mechanism, envelope, watch, found?)
            } else {
                vec![found?.1]
            };
            let judge = &watches[watch];
            let refined = starts.into_iter().filter_map(|index| {
                let posed = *envelope.poses[index].as_ref()?;
                let begin = Worst { watch, value: mechanism.value_of(&posed, watch), posed };
                Some(refined(mechanism, stops, begin, envelope.travels[1] - envelope.travels[0]))
            });
            let worst = refined.max_by(|a, b| judge.badness(a.value).total_cmp(&judge.badness(b.value)))?;
            let near = judge.is_gap() && worst.value < 2.0 * judge.warn;
            Some(if near { searched(mechanism, stops, worst, [0.5, 0.001]) } else { worst })
        })
        .collect()
}

/// The same figure so far past the stops both ways, looked for from where it is worst inside them.
#[must_use]
pub fn worst_past_the_stops(mechanism: &Mechanism, inside: &Worst, past: Length) -> Worst {
    refined(mechanism, &mechanism.stops().further(past), *inside, 2.0 * past.to_mm())
}

/// Poses of the grid that a gap is refined from: its least, and others about as near that lie apart from it. The
/// figures of a pair that is far off are no larger than its gap, so that those below the least are looked at closely.
fn gap_starts(
    mechanism: &Mechanism,
    envelope: &Envelope,
    watch: usize,
    (bad, first): (f64, usize),
) -> Vec<usize> {
    let (side, watches) = (envelope.travels.len(), mechanism.watches().len());
    let exact = |index: usize| {
        envelope.poses[index].as_ref().map_or(f64::INFINITY, |posed| mechanism.value_of(posed, watch))
    };
    let mut best = (exact(first), first);
    let told = |index: usize| envelope.values_at(index, watches)[watch];
    let usable = |index: &usize| envelope.allowed[*index] && envelope.poses[*index].is_some();
    let mut nearer: Vec<usize> =
        (0..side * side).filter(usable).filter(|at| told(*at) < best.0 + ABOUT_AS_NEAR).collect();
    nearer.sort_by(|a, b| told(*a).total_cmp(&told(*b)));
    // Where the least was told closely, so are all others as near.
    if best.0 + bad > 0.5 {
        for index in nearer.iter().copied() {
            if told(index) >= best.0 {
                break;
            }
            let value = exact(index);
            if value < best.0 {
                best = (value, index);
            }
        }
    }
    let apart = |a: usize, b: usize| (a / side).abs_diff(b / side).max((a % side).abs_diff(b % side)) > 3;
    let mut starts = vec![best.1];
    for index in nearer {
        if best.0 < ABOUT_AS_NEAR * 2.0
            && starts.len() < STARTS
            && starts.iter().all(|start| apart(*start, index))
        {
            starts.push(index);
        }
    }
    starts
}

/// How many places a gap is refined from at most.
const STARTS: usize = 3;
/// A gap at most so much wider than the least, mm, may have a nearer place between the grid's poses.
const ABOUT_AS_NEAR: f64 = 15.0;

const ONE_WHEEL: [(f64, f64); 4] = [(1.0, 0.0), (-1.0, 0.0), (0.0, 1.0), (0.0, -1.0)];
const BOTH_WHEELS: [(f64, f64); 4] = [(1.0, 1.0), (-1.0, -1.0), (1.0, -1.0), (-1.0, 1.0)];

/// Looks around a pose of the grid for a worse one. Curves are flat at their worst: half a millimetre of travel is far
/// below 0.1 mm of gap.
fn refined(mechanism: &Mechanism, stops: &Stops, begin: Worst, spacing: f64) -> Worst {
    searched(mechanism, stops, begin, [spacing / 2.0, 0.5])
}

/// Looks around a pose for a worse one in ever smaller steps of travel, from the first to the last, mm.
fn searched(mechanism: &Mechanism, stops: &Stops, begin: Worst, [first, last]: [f64; 2]) -> Worst {
    let judge = mechanism.watches()[begin.watch];
    let mut step = first;
    let mut best = Worst { value: mechanism.glance_of(&begin.posed, begin.watch), ..begin };
    while step > last {
        let mut moved = false;
        for (index, (left, right)) in ONE_WHEEL.into_iter().chain(BOTH_WHEELS).enumerate() {
            // The least gap can lie along a crease across the grid: both wheels are moved where one helps no more.
            if moved && index >= ONE_WHEEL.len() {
                break;
            }
            let (left, right) = (best.posed.left + step * left, best.posed.right + step * right);
            if !stops.allow(left, right) {
                continue;
            }
            let Ok(posed) = mechanism.pose(left, right, best.posed.trail()) else { continue };
            let value = mechanism.glance_of(&posed, best.watch);
            if judge.badness(value) > judge.badness(best.value) + 1e-9 {
                best = Worst { watch: best.watch, value, posed };
                moved = true;
            }
        }
        if !moved {
            step /= 2.0;
        }
    }
    // At a glance it is told well enough to find its place; here it is told exactly.
    let value = mechanism.value_of(&best.posed, best.watch);
    if judge.badness(value) >= judge.badness(begin.value) { Worst { value, ..best } } else { begin }
}

/// Poses at equal steps between two wheel travels, warm, from the one nearest to ride
/// height outward; those out of reach are left out. Lowest share first.
///
/// # Errors
/// Where ride height itself has no pose.
pub fn line(
    mechanism: &Mechanism,
    from: (f64, f64),
    to: (f64, f64),
    steps: usize,
) -> Result<Vec<Posed>, PoseFault> {
    let ride = mechanism.at_ride_height()?;
    let at = |i: usize| {
        let share = i as f64 / steps as f64;
        (from.0 + (to.0 - from.0) * share, from.1 + (to.1 - from.1) * share)
    };
    let middle = (0..=steps)
        .min_by(|a, b| {
            let far = |i: usize| at(i).0.abs() + at(i).1.abs();
            far(*a).total_cmp(&far(*b))
        })
        .unwrap_or(0);
    // The upper half first; the lower one goes on from it, downwards.
    let go = |found: &mut VecDeque<Posed>, up: bool, indices: &mut dyn Iterator<Item = usize>| {
        for index in indices {
            let (left, right) = at(index);
            let known = |steps: usize| {
                let place = if up { found.len().checked_sub(steps + 1)? } else { steps };
                found.get(place)
            };
            let trail = known(0).map_or(ride.trail(), |last| last.trail_beyond([1, 2, 3].map(known)));
            let Ok(posed) = mechanism.pose(left, right, trail) else { break };
            if up { found.push_back(posed) } else { found.push_front(posed) }
        }
    };
    let mut found = VecDeque::with_capacity(steps + 1);
    go(&mut found, true, &mut (middle..=steps));
    go(&mut found, false, &mut (0..middle).rev());
    Ok(found.into())
}

/// The first thing over on a way.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct FirstEnd {
    /// Where, as a share of the way.
    pub share: f64,
    /// Which watch; None where the links stop reaching.
    pub watch: Option<usize>,
}

/// Steps of the quick look along a way.
const GLANCES: usize = 6;

/// As [`walk`] in a few long steps, for the first thing that ends the way alone.
///
/// # Errors
/// Where the driven height itself has no pose.
pub fn first_end(mechanism: &Mechanism, way: Way) -> Result<Option<FirstEnd>, PoseFault> {
    Ok(first_end_from(mechanism, &mechanism.at_driven_height()?, way))
}

/// As [`first_end`] from the driven height's pose, where that is there already.
#[must_use]
pub fn first_end_from(mechanism: &Mechanism, driven: &Posed, way: Way) -> Option<FirstEnd> {
    let (start, end) = (mechanism.driven(), way.end(mechanism));
    let at = |share: f64, trail: Trail| {
        let (left, right) = between(start, end, share);
        mechanism.pose(left, right, trail)
    };
    let mut last = *driven;
    let mut earlier = [None; 3];
    let (mut before, mut values) = (Vec::new(), Vec::new());
    for step in 0..=GLANCES {
        let (from, to) = (step.saturating_sub(1) as f64 / GLANCES as f64, step as f64 / GLANCES as f64);
        let trail = last.trail_beyond(earlier.each_ref().map(Option::as_ref));
        let Ok(posed) = at(to, trail).or_else(|_| at(to, last.trail())) else {
            let share = bisect(from, to, |share| at(share, last.trail()).is_err());
            return Some(FirstEnd { share, watch: None });
        };
        mechanism.values(&posed, &mut values);
        let over =
            mechanism.watches().iter().enumerate().filter(|(i, w)| w.level(values[*i]) == Level::Violated);
        let first = over
            .map(|(index, watch)| {
                // As it stands there is no way yet to have come.
                let share = if step == 0 {
                    0.0
                } else {
                    let past = |share: f64| {
                        let trail = last.trail_towards(&posed, (share - from) / (to - from));
                        Some(watch.past(mechanism.value_of(&at(share, trail).ok()?, index), Level::Violated))
                    };
                    let ends = [before[index], values[index]].map(|value| watch.past(value, Level::Violated));
                    crossing([from, to], ends, past)
                };
                FirstEnd { share, watch: Some(index) }
            })
            .min_by(|a, b| a.share.total_cmp(&b.share));
        if first.is_some() {
            return first;
        }
        std::mem::swap(&mut before, &mut values);
        earlier = if step == 0 { [None; 3] } else { [Some(last), earlier[0], earlier[1]] };
        last = posed;
    }
    None
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::pose::body::{Body, BodyName, Carrier};
    use crate::pose::mechanism::Parts;
    use crate::pose::{Held, Pose, Suspension};
    use glam::DVec3;
    use proptest::prelude::*;
    use std::cell::Cell;

    proptest! {
        /// As near as halving comes, whatever the figure's shape, in at most one look more.
        #[test]
        fn a_crossing_is_found_as_near_as_by_halving(root in 0.001..0.999_f64, bent in 0.2..5.0_f64, scale in 1e-6..1e6_f64) {
            let looks = Cell::new(0);
            let figure = |share: f64| scale * (share.powf(bent) - root.powf(bent));
            let found = crossing([0.0, 1.0], [figure(0.0), figure(1.0)], |share| {
                looks.set(looks.get() + 1);
                Some(figure(share))
            });
            prop_assert!(found >= root && found - root <= 1.0 / 4096.0, "{} for {}", found, root);
            prop_assert!(looks.get() <= HALVINGS + 1, "{}", looks.get());
        }

        /// A figure that jumps, or that is not there before its place, is found too.
        #[test]
        fn a_jump_is_found(root in 0.001..0.999_f64, reached: bool) {
            let jump = |share: f64| if share >= root { Some(1e-9) } else { reached.then_some(-1e3) };
            let found = crossing([0.0, 1.0], [-1e3, 1e-9], jump);
            prop_assert!(found >= root && found - root <= 1.0 / 4096.0, "{} for {}", found, root);
        }
    }

    #[test]
    fn a_smooth_crossing_takes_half_the_looks_of_halving() {
        let looks = Cell::new(0);
        crossing([0.0, 1.0], [-0.3, 0.9], |share| {
            looks.set(looks.get() + 1);
            Some((share * 1.1).sin() - 0.3 + 0.01 * share)
        });
        assert!(looks.get() <= HALVINGS / 2, "{}", looks.get());
    }

    /// An axle on leaf springs goes straight up and down: two balls of 10 mm, 80 mm apart at ride height, touch 60 mm
    /// from there.
    #[test]
    fn where_two_balls_touch_by_hand() {
        for up in [1.0, -1.0] {
            let ball = |carrier, height: f64| Body {
                name: BodyName::Typed("ball".to_owned()),
                carrier,
                hangs_on: None,
                points: vec![DVec3::Z * height],
                ring: None,
                radius: Length::from_mm(10.0),
                wanted: Length::from_mm(12.7),
                assumed: false,
            };
            let held = Held { x: true, y: true, pitch: true, yaw: true };
            let hundred = Length::from_mm(100.0);
            let parts = Parts {
                suspension: Suspension::new(Length::from_mm(400.0), Vec::new(), None, held),
                members: Vec::new(),
                bar: None,
                radius_arms: None,
                bodies: vec![ball(Carrier::Axle, 400.0), ball(Carrier::Body, 400.0 + 80.0 * up)],
                steering: None,
                steering_assumed: false,
                knuckles: None,
                sway: None,
                stops: Stops {
                    bump: hundred,
                    droop: hundred,
                    bump_half_spacing: hundred,
                    droop_half_spacing: hundred,
                    half_track: hundred * 7.0,
                },
                driven: Length::ZERO,
            };
            let mechanism = Mechanism::new(parts, &Pose::RIDE);
            for (inside, over) in [(55.0, 65.0), (0.0, 100.0), (59.0, 60.0), (60.0, 60.0)] {
                let posed = mechanism.pose(over * up, over * up, mechanism.at_ride_height().unwrap().trail());
                let found = over_from(&mechanism, 0, inside * up, &posed.unwrap()) * up;
                // From here on it is over: never before it is.
                let close = (over - inside) / 4096.0;
                assert!(found >= 60.0 - 1e-9 && found - 60.0 <= close + 1e-9, "{inside} to {over}: {found}");
            }
        }
    }
}
