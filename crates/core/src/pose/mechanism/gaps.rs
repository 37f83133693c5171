//! Gaps between the bodies of a mechanism: which pairs are watched, and how far apart they are in a pose.
//!
//! A pair in which something is steered is looked at from lock to lock: at [`STEERS`] turns of the wheels, and between
//! the nearest of them and its neighbours.

use std::cell::OnceCell;

use glam::DVec3;

use super::super::point::AxlePoint;
use super::swept::{STEERS, Swept};
use super::{
    Angle, Body, BodyName, Carrier, Gap, Level, Line, Mechanism, Misalignment, Pairing, Placing, Posed,
    Scene, Side, SwayLinkage, Watched, free_spin, is_judged, pairing,
};
use crate::pose::clearance::{Ring, gap, straight_distance};

/// Of parts further apart than this, mm, it is enough to know so.
const FAR: f64 = 60.0;
/// A link's far end so near the middle of an arm, mm, is bolted to it.
const BESIDE_AN_ARM: f64 = 75.0;
/// A gap where there is none to tell: a link that does not close is nowhere.
const NOWHERE: f64 = 10_000.0;
/// Places a bent bar that rolls freely is looked at.
const ROLLS: usize = 9;

/// Every body placed in one pose: two ends, or a ring's centre and a point of its axis.
pub(super) struct PlacedBodies<'a> {
    mechanism: &'a Mechanism,
    scene: &'a Scene,
    ends: Vec<[DVec3; 2]>,
    /// By the body, at each turn: placed once somebody asks.
    steered: Vec<OnceCell<[[DVec3; 2]; STEERS]>>,
    /// By the body, empty where it has no bend.
    bent: Vec<Vec<[DVec3; 3]>>,
}

impl PlacedBodies<'_> {
    /// A steered body at each of the turns.
    fn turns(&self, body: usize) -> &[[DVec3; 2]; STEERS] {
        self.steered[body].get_or_init(|| {
            let (mechanism, swept) = (self.mechanism, &self.mechanism.swept[body]);
            let placed = |at: DVec3| self.scene.placing.place(AxlePoint::at(at)).vector();
            std::array::from_fn(|step| match mechanism.bodies[body].carrier {
                Carrier::DragLink => mechanism.drag_at(self.scene, swept.turns[step]),
                _ => swept.points[step].map(placed),
            })
        })
    }

    /// Both points of a body at one of the turns.
    fn turned(&self, body: usize, step: usize) -> [DVec3; 2] {
        if self.mechanism.swept[body].steered { self.turns(body)[step] } else { self.ends[body] }
    }
}

/// A straight piece along a chain: from between its first and last points to between those in its middle, which is along
/// a rail.
fn along(points: &[DVec3]) -> [DVec3; 2] {
    let last = points.len() - 1;
    if last <= 1 {
        return [points[0], points[last]];
    }
    let middle = |a: usize, b: usize| points[a].midpoint(points[b]);
    [middle(0, last), middle(last / 2, points.len() / 2)]
}

/// Between what, and how far apart, most often asked for.
const APART: Gap = Gap { distance: NOWHERE, on_first: DVec3::ZERO, on_second: DVec3::ZERO };

impl Mechanism {
    /// What is known of each body beforehand, with the axle where it was fitted.
    pub(super) fn swept_bodies(&self, fitted: &Placing) -> Vec<Swept> {
        self.bodies.iter().map(|body| self.swept_body(body, fitted)).collect()
    }

    fn swept_body(&self, body: &Body, fitted: &Placing) -> Swept {
        let steered = body.carrier.is_steered() && self.lock() > 0.0;
        let bend = match body.carrier {
            Carrier::Member(index) => self.members[index].bend.map(|bend| bend.offset.to_mm().abs()),
            _ => None,
        };
        let by_knuckle = matches!(body.carrier, Carrier::TieRod | Carrier::Knuckle(_));
        let points: Vec<[DVec3; 2]> = if steered && by_knuckle {
            self.steers().map(|turn| self.steered(body, turn)).collect()
        } else {
            Vec::new()
        };
        let out_of = |line: [DVec3; 2], points: &[DVec3]| {
            let to_line = |at: &DVec3| straight_distance(line, 0.0, [*at; 2], 0.0);
            points.iter().map(to_line).fold(0.0, f64::max)
        };
        let mut turns = self.steers();
        let turns: [f64; STEERS] =
            std::array::from_fn(|_| turns.next().map_or(0.0, |turn| self.own_turn(body, turn)));
        let swings = match body.carrier {
            Carrier::DragLink if steered => {
                let scene = self.fitted_scene(fitted);
                let straight = self.drag_at(&scene, 0.0);
                turns.iter().map(|turn| out_of(straight, &self.drag_at(&scene, *turn))).fold(0.0, f64::max)
            }
            Carrier::TieRod | Carrier::Knuckle(_) if steered => {
                let straight = along(&body.points);
                points.iter().map(|turned| out_of(straight, turned)).fold(0.0, f64::max)
            }
            _ if body.points.len() > 2 => out_of(along(&body.points), &body.points),
            _ => 0.0,
        };
        Swept {
            straight: !steered && bend.is_none() && body.points.len() <= 2 && body.ring.is_none(),
            steered,
            bent: bend.is_some(),
            beyond: swings + bend.unwrap_or(0.0) + body.ring.unwrap_or(0.0),
            points,
            turns,
        }
    }

    /// How far the knuckle that carries a body has turned where the left one has by `turn`, radians.
    fn own_turn(&self, body: &Body, turn: f64) -> f64 {
        let on_left = match body.carrier {
            Carrier::Knuckle(side) => side == Side::Left,
            Carrier::DragLink => {
                self.steering.as_ref().is_some_and(|(link, _)| link.kingpin.vector().y > 0.0)
            }
            _ => true,
        };
        if on_left { turn } else { self.knuckles.as_ref().map_or(turn, |knuckles| knuckles.right_turn(turn)) }
    }

    /// How far the left wheel turns either way, radians; nought where nothing is steered.
    #[must_use]
    pub fn lock(&self) -> f64 {
        self.knuckles.as_ref().map_or(0.0, |knuckles| knuckles.lock.to_radians().abs())
    }

    /// Turns of the left wheel from lock to lock, radians.
    fn steers(&self) -> impl Iterator<Item = f64> + use<> {
        let lock = self.lock();
        (0..STEERS).map(move |step| lock * (2.0 * step as f64 / (STEERS - 1) as f64 - 1.0))
    }

    /// The drag link where its own knuckle has turned so far: its pitman end goes along the link, level, until the link
    /// reaches.
    fn drag_at(&self, scene: &Scene, own: f64) -> [DVec3; 2] {
        let (Some((link, _)), Some(straight)) = (self.steering.as_ref(), scene.drag) else {
            return [DVec3::ZERO; 2];
        };
        let end = link.knuckle_at(&scene.placing, Angle::from_radians(own)).vector();
        let along = straight[1] - straight[0];
        let level = DVec3::new(along.x, along.y, 0.0).normalize_or(DVec3::Y);
        // |P + t·u - K| = l, the root that moves it least.
        let apart = straight[0] - end;
        let half = level.dot(apart);
        let under = half * half - apart.length_squared() + link.made.to_mm().powi(2);
        let root = under.max(0.0).sqrt();
        let goes = if (root - half).abs() < (-root - half).abs() { root - half } else { -root - half };
        [straight[0] + level * goes, end]
    }

    /// Both points of a body of the knuckles where the left wheel has turned so far, on the axle.
    fn steered(&self, body: &Body, turn: f64) -> [DVec3; 2] {
        let straight = along(&body.points);
        let Some(knuckles) = &self.knuckles else { return straight };
        match body.carrier {
            Carrier::TieRod => knuckles.tie_rod_at(turn).unwrap_or(straight),
            Carrier::Knuckle(side) => {
                let own = self.own_turn(body, turn);
                straight.map(|at| knuckles.turned(side, at, own))
            }
            _ => straight,
        }
    }

    /// A scene of the pose it was fitted in, links and drag link straight between their ends.
    fn fitted_scene(&self, fitted: &Placing) -> Scene {
        let still = Misalignment { off: [0.0; 2], share: 0.0, cone_cos: [1.0; 2], twist: 0.0 };
        let links = self.suspension.links();
        let lines = std::array::from_fn(|index| {
            let ends = links.get(index).map(|link| (link.body.vector(), fitted.place(link.axle).vector()));
            let (body, axle) = ends.unwrap_or((DVec3::ZERO, DVec3::ZERO));
            Line { body, axle, along: (axle - body).normalize_or(DVec3::Y), tilt: still }
        });
        let drag = self.steering.as_ref().map(|(link, _)| {
            let end = link.knuckle_at(fitted, Angle::ZERO);
            [link.pitman.vector(), end.vector()]
        });
        let sway = self.sway.as_ref().and_then(|sway| sway.rods(fitted));
        Scene { placing: *fitted, lines, drag, sway }
    }

    /// The pairs that can come near over the travel, what moves first, of those `wanted`.
    ///
    /// `however_far` keeps those that can't, too.
    pub(super) fn watched_pairs(
        &self,
        wanted: &dyn Fn(&Body, &Body) -> bool,
        however_far: bool,
    ) -> Vec<[usize; 2]> {
        let scene = self.fitted_scene(&self.fitted);
        let ends: Vec<[DVec3; 2]> = (0..self.bodies.len()).map(|body| self.ends(&scene, body)).collect();
        let (low, high) = self.stops.span();
        // Wheels go as far as the stops let them; what lies fore or aft of the axle goes on by its pitch.
        let travel = 1.3 * low.abs().max(high.abs()) + self.driven.to_mm().abs() + 60.0;
        let moves = |body: usize| if self.bodies[body].carrier == Carrier::Body { 0.0 } else { travel };
        let mut pairs = Vec::new();
        for second in 0..self.bodies.len() {
            for first in 0..second {
                let (one, other) = (&self.bodies[first], &self.bodies[second]);
                if pairing(one, other) != Some(Pairing::Moving) || !wanted(one, other) {
                    continue;
                }
                if self.bolted_beside([first, second], &ends) || self.bolted_beside([second, first], &ends) {
                    continue;
                }
                let both = self.bodies[first].carrier != Carrier::Body
                    && self.bodies[second].carrier != Carrier::Body;
                // What goes with the axle on both sides goes together, for the most part.
                let reach = if both { travel } else { moves(first) + moves(second) };
                let bound = self.bound(&scene, [first, second], &ends);
                if however_far || bound < reach + FAR || bound >= NOWHERE / 2.0 {
                    let still = self.bodies[first].carrier == Carrier::Body;
                    pairs.push(if still { [second, first] } else { [first, second] });
                }
            }
        }
        pairs
    }

    /// The same, watching the gaps alone of those pairs that are `wanted`, whether their places are assumed or not.
    #[must_use]
    pub fn watching_gaps(&self, wanted: impl Fn(&Body, &Body) -> bool) -> Self {
        let watch = |[first, second]: [usize; 2]| super::Watch {
            what: Watched::Gap { first, second },
            warn: self.wanted_between(first, second).to_mm(),
            fail: 0.0,
        };
        let watches = self.watched_pairs(&wanted, true).into_iter().map(watch).collect();
        Self { watches, ..self.clone() }
    }

    /// The same with more bodies, and a sway bar's arms and links where they are given.
    #[must_use]
    pub fn with_bodies(&self, sway: Option<SwayLinkage>, more: Vec<Body>) -> Self {
        let mut with = self.clone();
        with.bodies.extend(more);
        with.sway = sway.or(with.sway);
        with.swept = with.swept_bodies(&self.fitted);
        with.watches = with.watch_list();
        with
    }

    /// Bodies that are held against not everything that passes them, since where they are, or how thick, is assumed: their
    /// indices.
    #[must_use]
    pub fn not_judged(&self) -> Vec<usize> {
        let passes = |body: &Body| {
            let open =
                |other: &Body| pairing(body, other) == Some(Pairing::Moving) && !is_judged(body, other);
            self.bodies.iter().any(open)
        };
        (0..self.bodies.len())
            .filter(|body| self.bodies[*body].assumed && passes(&self.bodies[*body]))
            .collect()
    }

    /// Whether the first is a sway link whose far end is bolted to an arm, or to a bracket right beside it.
    fn bolted_beside(&self, [link, arm]: [usize; 2], ends: &[[DVec3; 2]]) -> bool {
        let names = (&self.bodies[link].name, &self.bodies[arm].name);
        let (BodyName::SwayLink(_), BodyName::Arm(_)) = names else { return false };
        straight_distance([ends[link][1]; 2], 0.0, ends[arm], 0.0) < BESIDE_AN_ARM
    }

    /// The pairs that sit on one carrier, what a person named last, with their gaps and places, as named at ride height.
    #[must_use]
    pub fn standing(&self) -> Vec<([usize; 2], Gap)> {
        let mut standing = Vec::new();
        for second in 0..self.bodies.len() {
            for first in 0..second {
                let named = matches!(self.bodies[first].name, BodyName::Typed(_));
                let [first, second] = if named { [second, first] } else { [first, second] };
                let (a, b) = (&self.bodies[first], &self.bodies[second]);
                if pairing(a, b) == Some(Pairing::Standing) {
                    let apart = gap(&a.points, a.radius.to_mm(), &b.points, b.radius.to_mm());
                    standing.push(([first, second], apart));
                }
            }
        }
        standing
    }

    /// Both ends of a body's middle line in a pose, wheels straight, in body axes.
    fn ends(&self, scene: &Scene, body: usize) -> [DVec3; 2] {
        let body = &self.bodies[body];
        let placed = |at: DVec3| scene.placing.place(AxlePoint::at(at)).vector();
        match body.carrier {
            Carrier::Member(index) => [scene.lines[index].body, scene.lines[index].axle],
            Carrier::DragLink => scene.drag.unwrap_or_default(),
            Carrier::Sway { rod, .. } => {
                scene.sway.map_or([DVec3::new(0.0, 0.0, NOWHERE * 2.0); 2], |rods| rods[rod])
            }
            Carrier::Body => along(&body.points),
            Carrier::Axle | Carrier::TieRod | Carrier::Knuckle(_) => along(&body.points).map(placed),
            Carrier::Between => {
                let [above, below] = along(&body.points);
                [above, placed(below)]
            }
        }
    }

    /// Those bodies of which `wanted` says so, placed in a pose.
    pub(super) fn placed_bodies<'a>(
        &'a self,
        scene: &'a Scene,
        wanted: impl Fn(usize) -> bool,
    ) -> PlacedBodies<'a> {
        let all = 0..self.bodies.len();
        let ends =
            all.clone().map(|body| if wanted(body) { self.ends(scene, body) } else { [DVec3::ZERO; 2] });
        let bent = all.clone().map(|body| if wanted(body) { self.bent(scene, body) } else { Vec::new() });
        PlacedBodies {
            mechanism: self,
            scene,
            ends: ends.collect(),
            steered: all.map(|_| OnceCell::new()).collect(),
            bent: bent.collect(),
        }
    }

    /// How a member with a bend may lie: one way, or where it rolls freely some on the whole of its way.
    fn bent(&self, scene: &Scene, body: usize) -> Vec<[DVec3; 3]> {
        let Carrier::Member(index) = self.bodies[body].carrier else { return Vec::new() };
        let (member, line) = (&self.members[index], &scene.lines[index]);
        let Some(bend) = &member.bend else { return Vec::new() };
        let at = |roll: f64| line.bent(&self.rest[index], bend, roll);
        if !member.joints.iter().all(|joint| joint.kind.rolls()) {
            return vec![at(line.tilt.share)];
        }
        let limits = member.joints.map(|joint| joint.limits.tilt_fail.to_radians());
        let Some((low, high)) = free_spin(&line.tilt, limits) else { return vec![at(line.tilt.share)] };
        // It can lie anywhere in between: the nearest of these places counts.
        (0..ROLLS).map(|step| at(low + (high - low) * step as f64 / (ROLLS - 1) as f64)).collect()
    }

    /// No more than a pair's gap, however the wheels are turned.
    fn bound(&self, scene: &Scene, pair: [usize; 2], ends: &[[DVec3; 2]]) -> f64 {
        if pair.iter().any(|body| self.is_nowhere(scene, *body)) {
            return NOWHERE;
        }
        let [(a, a_out), (b, b_out)] = pair.map(|body| {
            let [from, to] = ends[body];
            let line = if self.bodies[body].ring.is_some() { [from; 2] } else { [from, to] };
            (line, self.bodies[body].radius.to_mm() + self.swept[body].beyond)
        });
        straight_distance(a, a_out, b, b_out)
    }

    fn is_nowhere(&self, scene: &Scene, body: usize) -> bool {
        matches!(self.bodies[body].carrier, Carrier::Sway { .. }) && scene.sway.is_none()
    }

    /// The gap of a pair among all bodies; where that is far off no more than it is. What is steered is looked at in few
    /// turns, and the least between them is taken from the parabola through the nearest three.
    pub(super) fn quick_gap(&self, scene: &Scene, placed: &PlacedBodies<'_>, pair: [usize; 2]) -> f64 {
        let bound = self.bound(scene, pair, &placed.ends);
        if bound > FAR || pair.iter().all(|body| self.swept[*body].straight) {
            return bound;
        }
        if !pair.iter().any(|body| self.swept[*body].steered) {
            return self.distance_placed(placed, pair, STEERS / 2);
        }
        let looked: [f64; STEERS] = std::array::from_fn(|step| self.distance_placed(placed, pair, step));
        let nearest = (0..STEERS).min_by(|a, b| looked[*a].total_cmp(&looked[*b])).unwrap_or(STEERS / 2);
        let least = looked[nearest];
        if nearest == 0 || nearest == STEERS - 1 {
            return least;
        }
        let [before, after] = [looked[nearest - 1] - least, looked[nearest + 1] - least];
        if before > 0.0 && after > 0.0 {
            least - (after - before).powi(2) / (8.0 * (after + before))
        } else {
            least
        }
    }

    /// The distance of a pair at one of the turns, at a glance: of a ring further off than [`FAR`] no more than it is.
    fn distance_placed(&self, placed: &PlacedBodies<'_>, [first, second]: [usize; 2], step: usize) -> f64 {
        let plain = |body: usize| !self.swept[body].bent && self.bodies[body].points.len() <= 2;
        if let [true, false] | [false, true] = [first, second].map(plain) {
            let [one, other] = if plain(first) { [first, second] } else { [second, first] };
            if self.bodies[one].ring.is_some() && !self.swept[other].bent {
                // A rail beside a tire, piece by piece.
                let rail = self.points(placed, (other, 0), step);
                let [centre, beside] = placed.turned(one, step);
                let (out, radius) = (self.bodies[one].ring.unwrap_or(0.0), self.bodies[one].radius.to_mm());
                let (ring, thick) =
                    (Ring { centre, axis: beside - centre, out, radius }, self.bodies[other].radius.to_mm());
                let bound = ring.bound(rail, thick);
                if bound > FAR {
                    return bound;
                }
                let pieces =
                    rail.windows(2).map(|piece| ring.distance_at_a_glance([piece[0], piece[1]], thick));
                return pieces.fold(NOWHERE, f64::min);
            }
        }
        if !plain(first) || !plain(second) {
            return self.gap_placed(placed, [first, second], step, FAR).distance;
        }
        let radius = |body: usize| self.bodies[body].radius.to_mm();
        let (a, b) = (placed.turned(first, step), placed.turned(second, step));
        let to_ring = |body: usize, out: f64, [centre, beside]: [DVec3; 2], rod: [DVec3; 2], other: usize| {
            let ring = Ring { centre, axis: beside - centre, out, radius: radius(body) };
            let bound = ring.bound(&rod, radius(other));
            if bound > FAR { bound } else { ring.distance_at_a_glance(rod, radius(other)) }
        };
        match (self.bodies[first].ring, self.bodies[second].ring) {
            (None, None) => straight_distance(a, radius(first), b, radius(second)),
            (None, Some(out)) => to_ring(second, out, b, a, first),
            (Some(out), None) => to_ring(first, out, a, b, second),
            (Some(_), Some(_)) => NOWHERE,
        }
    }

    /// The gap of a pair.
    pub(super) fn distance(&self, scene: &Scene, pair: [usize; 2]) -> f64 {
        self.gap_in(scene, pair).distance
    }

    /// The gap of a pair as [`Self::quick_gap`] tells it where it is near.
    pub(super) fn glance(&self, scene: &Scene, pair: [usize; 2]) -> f64 {
        let placed = self.placed_bodies(scene, |body| pair.contains(&body));
        self.quick_gap(scene, &placed, pair)
    }

    /// The gap of a pair with its place.
    pub(super) fn gap_in(&self, scene: &Scene, pair: [usize; 2]) -> Gap {
        if pair.iter().any(|body| self.is_nowhere(scene, *body)) {
            return APART;
        }
        let mut placed = self.placed_bodies(scene, |body| pair.contains(&body));
        if !pair.iter().any(|body| self.swept[*body].steered) {
            return self.gap_placed(&placed, pair, STEERS / 2, f64::INFINITY);
        }
        let looked: [Gap; STEERS] =
            std::array::from_fn(|step| self.gap_placed(&placed, pair, step, f64::INFINITY));
        let nearest = (0..STEERS)
            .min_by(|a, b| looked[*a].distance.total_cmp(&looked[*b].distance))
            .unwrap_or(STEERS / 2);
        let mut best = looked[nearest];
        // Between its neighbours by golden section.
        const GOLDEN: f64 = 0.618_033_988_749_894_8;
        let turn = |step: usize| self.lock() * (2.0 * step as f64 / (STEERS - 1) as f64 - 1.0);
        let (mut low, mut high) = (turn(nearest.saturating_sub(1)), turn((nearest + 1).min(STEERS - 1)));
        for _ in 0..14 {
            let [near, far] = [high - GOLDEN * (high - low), low + GOLDEN * (high - low)].map(|turn| {
                self.turn_placed(scene, &mut placed, pair, turn);
                self.gap_placed(&placed, pair, 0, f64::INFINITY)
            });
            if near.distance < far.distance {
                high = low + GOLDEN * (high - low);
            } else {
                low = high - GOLDEN * (high - low);
            }
            for found in [near, far] {
                if found.distance < best.distance {
                    best = found;
                }
            }
        }
        best
    }

    /// Puts what is steered of a pair where the left wheel has turned so far, as the first of its turns.
    fn turn_placed(&self, scene: &Scene, placed: &mut PlacedBodies<'_>, pair: [usize; 2], turn: f64) {
        for body in pair.into_iter().filter(|body| self.swept[*body].steered) {
            let form = &self.bodies[body];
            let at = |at: DVec3| scene.placing.place(AxlePoint::at(at)).vector();
            let turned = match form.carrier {
                Carrier::DragLink => self.drag_at(scene, self.own_turn(form, turn)),
                _ => self.steered(form, turn).map(at),
            };
            placed.steered[body] = OnceCell::from([turned; STEERS]);
        }
    }

    /// The gap of a pair at one of the turns, each bent one lying as near as it may. A ring further off than `below` is
    /// told no further than it is.
    fn gap_placed(
        &self,
        placed: &PlacedBodies<'_>,
        [first, second]: [usize; 2],
        step: usize,
        below: f64,
    ) -> Gap {
        let mut least = APART;
        for a in 0..self.ways_to_lie(placed, first) {
            for b in 0..self.ways_to_lie(placed, second) {
                let found = self.gap_of_shapes(placed, [(first, a), (second, b)], step, below);
                if found.distance < least.distance {
                    least = found;
                }
            }
        }
        least
    }

    fn ways_to_lie(&self, placed: &PlacedBodies<'_>, body: usize) -> usize {
        if self.swept[body].bent { placed.bent[body].len().max(1) } else { 1 }
    }

    fn gap_of_shapes(
        &self,
        placed: &PlacedBodies<'_>,
        [first, second]: [(usize, usize); 2],
        step: usize,
        below: f64,
    ) -> Gap {
        let radius = |body: usize| self.bodies[body].radius.to_mm();
        let a = self.points(placed, first, step);
        let b = self.points(placed, second, step);
        let ring = |body: usize, out: f64, [centre, beside]: [DVec3; 2]| Ring {
            centre,
            axis: beside - centre,
            out,
            radius: radius(body),
        };
        let turned = |gap: Gap| Gap { on_first: gap.on_second, on_second: gap.on_first, ..gap };
        let to_ring = |ring: Ring, chain: &[DVec3], other: usize| {
            let bound = ring.bound(chain, radius(other));
            if bound > below { Gap { distance: bound, ..APART } } else { ring.gap(chain, radius(other)) }
        };
        match (self.bodies[first.0].ring, self.bodies[second.0].ring) {
            (None, None) => gap(a, radius(first.0), b, radius(second.0)),
            (None, Some(out)) => to_ring(ring(second.0, out, [b[0], b[1]]), a, first.0),
            (Some(out), None) => turned(to_ring(ring(first.0, out, [a[0], a[1]]), b, second.0)),
            // Two tires never meet.
            (Some(_), Some(_)) => APART,
        }
    }

    /// A body's middle line at one of the turns, lying in one of its ways; a ring's centre and a point of its axis.
    fn points<'a>(
        &'a self,
        placed: &'a PlacedBodies<'_>,
        (body, way): (usize, usize),
        step: usize,
    ) -> &'a [DVec3] {
        let form = &self.bodies[body];
        if self.swept[body].steered {
            return &placed.turns(body)[step];
        }
        if let Some(points) = placed.bent[body].get(way) {
            return points;
        }
        if form.carrier == Carrier::Body && form.points.len() > 2 { &form.points } else { &placed.ends[body] }
    }

    /// A body's middle line in a pose, in body axes, mm, with the left wheel turned by so many radians, or wheels
    /// straight; a ring's centre and a point of its axis. None where a sway link does not close.
    #[must_use]
    pub fn placed(&self, posed: &Posed, body: usize, turn: Option<f64>) -> Option<Vec<DVec3>> {
        let carrier = self.bodies[body].carrier;
        let scene = Scene::with(self, posed, |other| other == carrier);
        if self.is_nowhere(&scene, body) {
            return None;
        }
        let mut placed = self.placed_bodies(&scene, |other| other == body);
        self.turn_placed(&scene, &mut placed, [body; 2], turn.unwrap_or(0.0));
        Some(self.points(&placed, (body, 0), 0).to_vec())
    }

    /// The figures of a pose that are no gaps, NaN in the place of those.
    pub(in crate::pose) fn figures(&self, posed: &Posed, values: &mut Vec<f64>) {
        let scene = Scene::with(self, posed, |carrier| matches!(carrier, Carrier::Member(_)));
        values.clear();
        values.extend(
            self.watches
                .iter()
                .map(|watch| if watch.is_gap() { f64::NAN } else { self.figure(&scene, posed, watch.what) }),
        );
    }

    /// Puts gaps, by their watches, in their places among all figures of a pose.
    pub(in crate::pose) fn gaps(&self, posed: &Posed, values: &mut [f64], watches: &[usize]) {
        if watches.is_empty() {
            return;
        }
        let scene = Scene::of(self, posed);
        let placed = self.placed_bodies(&scene, |_| true);
        for index in watches {
            if let Watched::Gap { first, second } = self.watches[*index].what {
                values[*index] = self.quick_gap(&scene, &placed, [first, second]);
            }
        }
    }

    /// How far a round rod, ends in body axes, is from a body in a pose with the wheels straight, mm; None where a sway
    /// link does not close.
    #[must_use]
    pub fn distance_to_rod(&self, posed: &Posed, body: usize, rod: [DVec3; 2], radius: f64) -> Option<f64> {
        let points = self.placed(posed, body, None)?;
        let own = self.bodies[body].radius.to_mm();
        Some(match self.bodies[body].ring {
            Some(out) => {
                let ring = Ring { centre: points[0], axis: points[1] - points[0], out, radius: own };
                ring.gap(&rod, radius).distance
            }
            None => gap(&points, own, &rod, radius).distance,
        })
    }

    /// Whether a watch is of a body of that name.
    #[must_use]
    pub fn is_of(&self, watch: usize, of: impl Fn(&BodyName) -> bool) -> bool {
        match self.watches[watch].what {
            Watched::Gap { first, second } => {
                [first, second].into_iter().any(|body| of(&self.bodies[body].name))
            }
            Watched::Tilt { .. } | Watched::WindUp { .. } | Watched::Bind => false,
        }
    }

    /// How a pair that stands stands.
    #[must_use]
    pub fn standing_level(&self, [first, second]: [usize; 2], gap: f64) -> Level {
        if gap <= 0.0 {
            Level::Violated
        } else if gap <= self.wanted_between(first, second).to_mm() {
            Level::Near
        } else {
            Level::Free
        }
    }
}
