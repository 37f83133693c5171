//! One axle with everything that can end its travel: joints, clearances, stops, bind.

use glam::{DQuat, DVec3};

mod gaps;
mod knuckles;
mod swept;

use super::body::{Body, BodyName, Carrier, Pairing, is_judged, pairing};
use super::clearance::Gap;
use super::joint::{
    JointKind, JointLimits, Misalignment, free_spin, misalignment, turn_about, twist_between,
};
use super::point::{BodyPoint, Placing, Pose};
use super::solver::{PoseFault, Solved, Start, Suspension, WindUp};
use super::sway_linkage::SwayLinkage;
use crate::measure::{Angle, Length, Side};
use crate::pose::drag_link::DragLink;
pub use knuckles::Knuckles;

/// Which end of a link.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum LinkEnd {
    /// On the body.
    Body,
    /// On the axle.
    Axle,
}

/// A joint at one end of a link.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Joint {
    /// What sits in the eye.
    pub kind: JointKind,
    /// Unit bolt axis, fixed to the body or to the axle at ride height.
    pub bolt: DVec3,
    /// What it takes.
    pub limits: JointLimits,
}

/// A bend of a link, out of the line through its eyes.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Bend {
    /// Where along the link, 0 at the body end to 1 at the axle end.
    pub along: f64,
    /// How far out of the line.
    pub offset: Length,
    /// Which way at the driven height, where it is looked at, in body axes; its part along the link does not
    /// count.
    pub direction: DVec3,
}

/// A link of the suspension as a thing with joints, a radius and perhaps a bend. Members
/// stand in the order of the suspension's links.
#[derive(Clone, Debug, PartialEq)]
pub struct Member {
    /// What it is called.
    pub name: BodyName,
    /// The frame rail its body end hangs on.
    pub hangs_on: Option<Side>,
    /// Whether some of where its ends are nobody measured.
    pub assumed: bool,
    /// At the body and at the axle.
    pub joints: [Joint; 2],
    /// Half of its diameter.
    pub radius: Length,
    /// Its bend, where it has one.
    pub bend: Option<Bend>,
}

/// Where the travel ends. Distances; each limit is measured at its own half spacing.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Stops {
    /// Up from ride height.
    pub bump: Length,
    /// Down from ride height.
    pub droop: Length,
    /// From the centreline to where bump was measured.
    pub bump_half_spacing: Length,
    /// From the centreline to where droop was measured.
    pub droop_half_spacing: Length,
    /// Half of the track.
    pub half_track: Length,
}

/// Steepest lean looked at, as sin φ: 30°.
const MOST_LEAN: f64 = 0.5;

impl Stops {
    /// Heave and sine of the roll at two wheel travels, in millimetres.
    #[must_use]
    pub fn heave_and_lean(&self, left: f64, right: f64) -> (f64, f64) {
        ((left + right) / 2.0, (left - right) / (2.0 * self.half_track.to_mm()))
    }

    /// Whether a pose lies inside the stops, a millionth of a millimetre allowed.
    #[must_use]
    pub fn allow(&self, left: f64, right: f64) -> bool {
        let (z, lean) = self.heave_and_lean(left, right);
        let lean = lean.abs();
        lean <= MOST_LEAN
            && z + self.bump_half_spacing.to_mm() * lean <= self.bump.to_mm() + 1e-6
            && z - self.droop_half_spacing.to_mm() * lean >= -self.droop.to_mm() - 1e-6
    }

    /// The same so much further both ways.
    ///
    /// ```
    /// use derecho_core::measure::Length;
    /// use derecho_core::pose::mechanism::Stops;
    ///
    /// let mm = Length::from_mm;
    /// let (bump, droop) = (mm(100.0), mm(120.0));
    /// let half = mm(780.0);
    /// let stops =
    ///     Stops { bump, droop, bump_half_spacing: half, droop_half_spacing: half, half_track: half };
    /// assert_eq!(stops.further(mm(12.7)).bump, mm(112.7));
    /// ```
    #[must_use]
    pub fn further(&self, by: Length) -> Self {
        Self { bump: self.bump + by, droop: self.droop + by, ..*self }
    }

    /// Wheel travels, higher wheel first, of the pose furthest cross-axled.
    #[must_use]
    pub fn cross_axled(&self) -> (f64, f64) {
        let (up, down) = (self.bump_half_spacing.to_mm(), self.droop_half_spacing.to_mm());
        let lean = ((self.bump + self.droop).to_mm() / (up + down)).min(MOST_LEAN);
        let z = self.bump.to_mm() - up * lean;
        let half = self.half_track.to_mm() * lean;
        (z + half, z - half)
    }

    /// The wheel travels the envelope spans on either side: lowest and highest.
    #[must_use]
    pub fn span(&self) -> (f64, f64) {
        let (high, low) = self.cross_axled();
        (low.min(-self.droop.to_mm()), high.max(self.bump.to_mm()))
    }
}

/// A figure watched in every pose.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Watched {
    /// How far an eye is off its bolt, in radians.
    Tilt {
        /// Index of the member.
        member: usize,
        /// Which end.
        end: LinkEnd,
    },
    /// Wind-up of a bonded bushing about its bolt, in radians.
    WindUp {
        /// Index of the member.
        member: usize,
        /// Which end.
        end: LinkEnd,
    },
    /// Gap between two bodies, in millimetres, by their indices.
    Gap {
        /// The first: what moves, where one stands still.
        first: usize,
        /// The second.
        second: usize,
    },
    /// Link stretch, or the give of radius-arm bushes, in millimetres.
    Bind,
}

/// How a watched figure stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Level {
    /// Nothing to mind.
    Free,
    /// A lot for this joint, or less clearance than wanted.
    Near,
    /// Past what it takes, or touching.
    Violated,
}

/// A figure with its thresholds: an angle or bind is over above `fail`, a gap below it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Watch {
    /// What is watched.
    pub what: Watched,
    /// From here on it is close; radians or millimetres.
    pub warn: f64,
    /// From here on it is over.
    pub fail: f64,
}

impl Watch {
    /// Whether it is a gap, where less is worse.
    #[must_use]
    pub const fn is_gap(&self) -> bool {
        matches!(self.what, Watched::Gap { .. })
    }

    /// Whether it is an angle.
    #[must_use]
    pub const fn is_angle(&self) -> bool {
        matches!(self.what, Watched::Tilt { .. } | Watched::WindUp { .. })
    }

    /// How a value stands.
    #[must_use]
    pub fn level(&self, value: f64) -> Level {
        let past = |threshold: f64| if self.is_gap() { value <= threshold } else { value >= threshold };
        if past(self.fail) {
            Level::Violated
        } else if past(self.warn) {
            Level::Near
        } else {
            Level::Free
        }
    }

    /// How much of the limit is used: 1 at the limit. For a gap 1/(1 + gap/wanted), which
    /// is one half at the wanted clearance; where it overlaps 1 − gap/wanted, so that deeper is more.
    #[must_use]
    pub fn used(&self, value: f64) -> f64 {
        match (self.is_gap(), value / self.warn) {
            (true, gap) if gap < 0.0 => 1.0 - gap,
            (true, gap) => 1.0 / (1.0 + gap),
            (false, _) => value / self.fail,
        }
    }

    /// Larger is worse, in the figure's own unit.
    pub(crate) fn badness(&self, value: f64) -> f64 {
        if self.is_gap() { -value } else { value }
    }

    /// How far a value is past a level, in its own unit: nought or more where it stands at the level or worse.
    pub(crate) fn past(&self, value: f64, level: Level) -> f64 {
        let threshold = match level {
            Level::Free => return f64::INFINITY,
            Level::Near => self.warn,
            Level::Violated => self.fail,
        };
        self.badness(value) - self.badness(threshold)
    }
}

/// Link stretch that is a lot, and that is too much (defaults of this program).
pub const BIND_LIMITS: (Length, Length) = (Length::from_mm(2.0), Length::from_mm(5.0));
/// The same for the bushes of radius arms, which are made to give.
pub const BUSH_LIMITS: (Length, Length) = (Length::from_mm(5.0), Length::from_mm(10.0));

/// Everything that is judged.
#[derive(Clone, Debug, PartialEq)]
pub struct Mechanism {
    suspension: Suspension,
    members: Vec<Member>,
    bar: Option<usize>,
    wind_up: Option<(WindUp, Length)>,
    /// Members first, then the drag link where there is one, then the rest.
    bodies: Vec<Body>,
    steering: Option<(DragLink, Length)>,
    knuckles: Option<Knuckles>,
    sway: Option<SwayLinkage>,
    stops: Stops,
    driven: Length,
    watches: Vec<Watch>,
    rest: Vec<Rest>,
    /// The axle where it was fitted.
    fitted: Placing,
    /// What is known of each body in whatever pose.
    swept: Vec<swept::Swept>,
}

/// How a member lay when everything was tightened.
#[derive(Clone, Copy, Debug, PartialEq)]
struct Rest {
    along: DVec3,
    along_on_axle: DVec3,
    clocking: f64,
    /// Unit direction of the bend square to the link, as it lay where the bend was looked at.
    bend: DVec3,
    /// The link there.
    looked_at: DVec3,
}

/// The parts a mechanism is put together from.
#[derive(Clone, Debug, PartialEq)]
pub struct Parts {
    /// What holds the axle, fitted at the pose it was tightened in.
    pub suspension: Suspension,
    /// One for each of its links.
    pub members: Vec<Member>,
    /// Which of them is the track bar.
    pub bar: Option<usize>,
    /// The radius arms and the spacing of the bushes at a wrist.
    pub radius_arms: Option<(WindUp, Length)>,
    /// Everything else that can touch or be touched.
    pub bodies: Vec<Body>,
    /// The drag link and its radius.
    pub steering: Option<(DragLink, Length)>,
    /// Whether some of where the drag link's ends are nobody measured.
    pub steering_assumed: bool,
    /// How the knuckles turn, on a steered axle.
    pub knuckles: Option<Knuckles>,
    /// The sway bar's arms and links.
    pub sway: Option<SwayLinkage>,
    /// Where the travel ends.
    pub stops: Stops,
    /// Travel of the height it is driven at.
    pub driven: Length,
}

/// One pose with its figures.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Posed {
    /// Travel of the left wheel, mm.
    pub left: f64,
    /// Travel of the right wheel, mm.
    pub right: f64,
    /// The solved pose.
    pub solved: Solved,
    /// Bar angle θ in front view, radians, + body end higher; NaN without a bar.
    pub bar_angle: f64,
    /// Roll-centre height above the ground, mm: axle centre + dy/dφ.
    pub roll_centre: f64,
    /// The same from the line of the bar alone; NaN without a bar.
    pub bar_line_roll_centre: f64,
    /// Steer of the road wheels against the vehicle δ + ω, radians, + left; NaN without
    /// steering or where the drag link does not reach.
    pub steer: f64,
    /// δ alone, to go on from.
    delta: f64,
    /// Link stretch, or give of the radius arms' bushes, mm.
    pub bind: f64,
    /// The pose made ready for placing points.
    pub placing: Placing,
}

/// Where to go on from.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Trail {
    start: Start,
    delta: f64,
}

impl Posed {
    /// Where to start for a pose nearby.
    #[must_use]
    pub const fn trail(&self) -> Trail {
        Trail { start: self.solved.start(), delta: self.delta }
    }

    /// Where to start for a pose at a share of the way from this one to `other`.
    #[must_use]
    pub fn trail_towards(&self, other: &Self, share: f64) -> Trail {
        Trail {
            start: self.solved.towards(&other.solved, share),
            delta: self.delta + share * (other.delta - self.delta),
        }
    }

    /// Where to start for the pose next in a row of equal steps, of which this one is the last and `before` are the
    /// ones before it, nearest first: by the polynomial through as many of them as there are.
    #[must_use]
    pub fn trail_beyond(&self, before: [Option<&Self>; 3]) -> Trail {
        let known = before.iter().take_while(|posed| posed.is_some()).count();
        let mut trail = Trail { start: Start::default(), delta: 0.0 };
        for (posed, factor) in std::iter::once(self).chain(before.into_iter().flatten()).zip(ONWARD[known]) {
            trail.start = trail.start.and(factor, posed.solved.start());
            trail.delta += factor * posed.delta;
        }
        trail
    }
}

/// What each of so many places of a row, with the one before them all, counts for the next one, nearest first:
/// binomial coefficients.
const ONWARD: [[f64; 4]; 4] =
    [[1.0, 0.0, 0.0, 0.0], [2.0, -1.0, 0.0, 0.0], [3.0, -3.0, 1.0, 0.0], [4.0, -6.0, 4.0, -1.0]];

/// The links of the suspension as bodies.
fn link_bodies(members: &[Member]) -> impl Iterator<Item = Body> + '_ {
    members.iter().enumerate().map(|(index, member)| Body {
        name: member.name.clone(),
        carrier: Carrier::Member(index),
        hangs_on: member.hangs_on,
        points: Vec::new(),
        ring: None,
        radius: member.radius,
        wanted: Length::ZERO,
        assumed: member.assumed,
    })
}

/// The drag link as a body.
fn drag_link_body(steering: Option<&(DragLink, Length)>, assumed: bool) -> Option<Body> {
    steering.map(|(link, radius)| Body {
        name: BodyName::DragLink,
        carrier: Carrier::DragLink,
        hangs_on: Some(Side::of(link.pitman.vector().y)),
        points: Vec::new(),
        ring: None,
        radius: *radius,
        wanted: Length::ZERO,
        assumed,
    })
}

impl Mechanism {
    /// Puts the parts together. The suspension's own fitted pose is where bushings were
    /// tightened; `fitted` names it.
    #[must_use]
    pub fn new(parts: Parts, fitted: &Pose) -> Self {
        let Parts {
            suspension,
            members,
            bar,
            radius_arms,
            bodies,
            steering,
            knuckles,
            sway,
            stops,
            driven,
            steering_assumed: assumed,
        } = parts;
        let bodies: Vec<Body> =
            link_bodies(&members).chain(drag_link_body(steering.as_ref(), assumed)).chain(bodies).collect();
        let placing = Placing::of(fitted, suspension.axle_height());
        let rest = members
            .iter()
            .zip(suspension.links())
            .map(|(member, link)| {
                let along = (placing.place(link.axle) - link.body).normalize();
                let bolts = [member.joints[0].bolt, placing.direction(member.joints[1].bolt)];
                Rest {
                    along,
                    along_on_axle: placing.turn.transpose() * along,
                    clocking: twist_between(along, bolts),
                    bend: member.bend.map_or(DVec3::ZERO, |bend| square_to(along, bend.direction)),
                    looked_at: along,
                }
            })
            .collect();
        let mut mechanism = Self {
            suspension,
            members,
            bar,
            wind_up: radius_arms,
            bodies,
            steering,
            knuckles,
            sway,
            stops,
            driven,
            watches: Vec::new(),
            rest,
            fitted: placing,
            swept: Vec::new(),
        };
        mechanism.swept = mechanism.swept_bodies(&placing);
        mechanism.watches = mechanism.watch_list();
        mechanism.lay_bends();
        mechanism
    }

    /// Turns each bend so that it points its way as the vehicle stands, not where bushings are at rest.
    fn lay_bends(&mut self) {
        if self.members.iter().all(|member| member.bend.is_none()) {
            return;
        }
        // Where it does not stand there is nothing to look at.
        let Ok(driven) = self.at_driven_height() else { return };
        let scene = Scene::of(self, &driven);
        for ((member, rest), line) in self.members.iter().zip(&mut self.rest).zip(&scene.lines) {
            let Some(bend) = member.bend else { continue };
            let seen = square_to(line.along, bend.direction);
            rest.bend = DQuat::from_axis_angle(line.along, -line.tilt.share) * seen;
            rest.looked_at = line.along;
        }
    }

    fn watch_list(&self) -> Vec<Watch> {
        let mut watches = Vec::new();
        let mut push = |what, warn: f64, fail: f64| watches.push(Watch { what, warn, fail });
        for (member, part) in self.members.iter().enumerate() {
            for (end, joint) in [LinkEnd::Body, LinkEnd::Axle].into_iter().zip(part.joints) {
                // The wrist of a radius arm is two bushes: their give counts as bind.
                let wrist = self.wind_up.is_some_and(|(arms, _)| member == arms.left || member == arms.right)
                    && end == LinkEnd::Axle;
                if wrist {
                    continue;
                }
                let JointLimits { tilt_warn, tilt_fail, wind_up } = joint.limits;
                push(Watched::Tilt { member, end }, tilt_warn.to_radians(), tilt_fail.to_radians());
                if let Some((warn, fail)) = wind_up {
                    push(Watched::WindUp { member, end }, warn.to_radians(), fail.to_radians());
                }
            }
        }
        for [first, second] in self.watched_pairs(&is_judged, false) {
            let wanted = self.wanted_between(first, second);
            push(Watched::Gap { first, second }, wanted.to_mm(), 0.0);
        }
        let held = self.suspension.constraints();
        if self.wind_up.is_some() {
            push(Watched::Bind, BUSH_LIMITS.0.to_mm(), BUSH_LIMITS.1.to_mm());
        } else if held > 4 {
            push(Watched::Bind, BIND_LIMITS.0.to_mm(), BIND_LIMITS.1.to_mm());
        }
        watches
    }

    /// What is watched, in the order of the values.
    #[must_use]
    pub fn watches(&self) -> &[Watch] {
        &self.watches
    }

    /// Where the travel ends.
    #[must_use]
    pub const fn stops(&self) -> &Stops {
        &self.stops
    }

    /// The links with their joints.
    #[must_use]
    pub fn members(&self) -> &[Member] {
        &self.members
    }

    /// Which member is the track bar.
    #[must_use]
    pub const fn bar(&self) -> Option<usize> {
        self.bar
    }

    /// Everything that can touch something: the members, the drag link, and the rest.
    #[must_use]
    pub fn bodies(&self) -> &[Body] {
        &self.bodies
    }

    /// The clearance wanted between two bodies, by their indices.
    #[must_use]
    pub fn wanted_between(&self, first: usize, second: usize) -> Length {
        let wanted = self.bodies[first].wanted.max(self.bodies[second].wanted);
        if wanted == Length::ZERO { WANTED_CLEARANCE } else { wanted }
    }

    /// Whether the axle is held by radius arms, whose bushings give.
    #[must_use]
    pub const fn on_radius_arms(&self) -> bool {
        self.wind_up.is_some()
    }

    /// How the knuckles turn, on a steered axle.
    #[must_use]
    pub const fn knuckles(&self) -> Option<&Knuckles> {
        self.knuckles.as_ref()
    }

    /// The sway bar's arms and links.
    #[must_use]
    pub const fn sway(&self) -> Option<&SwayLinkage> {
        self.sway.as_ref()
    }

    /// The same with those watches alone whose indices are given, in that order.
    #[must_use]
    pub fn watching(&self, watches: &[usize]) -> Self {
        let kept = watches.iter().map(|index| self.watches[*index]).collect();
        Self { watches: kept, ..self.clone() }
    }

    /// What holds the axle.
    #[must_use]
    pub const fn suspension(&self) -> &Suspension {
        &self.suspension
    }

    /// The drag link.
    #[must_use]
    pub fn drag_link(&self) -> Option<&DragLink> {
        self.steering.as_ref().map(|(link, _)| link)
    }

    /// The pose at ride height.
    ///
    /// # Errors
    /// Where there is none.
    pub fn at_ride_height(&self) -> Result<Posed, PoseFault> {
        self.pose(0.0, 0.0, Trail { start: Start::default(), delta: 0.0 })
    }

    /// Travel of the height it is driven at, mm: decisions are made there.
    #[must_use]
    pub const fn driven(&self) -> f64 {
        self.driven.to_mm()
    }

    /// The pose at the height it is driven at.
    ///
    /// # Errors
    /// Where there is none.
    pub fn at_driven_height(&self) -> Result<Posed, PoseFault> {
        let ride = self.at_ride_height()?;
        if self.driven == Length::ZERO {
            return Ok(ride);
        }
        self.pose(self.driven(), self.driven(), ride.trail())
    }

    /// The pose at two wheel travels, in millimetres, looked for from `trail`.
    ///
    /// # Errors
    /// Where the links do not reach or a motion is loose.
    pub fn pose(&self, left: f64, right: f64, trail: Trail) -> Result<Posed, PoseFault> {
        let (z, lean) = self.stops.heave_and_lean(left, right);
        let roll = Angle::from_radians(lean.clamp(-1.0, 1.0).asin());
        let (solved, placing) = self.suspension.solve_placed(Length::from_mm(z), roll, trail.start)?;
        let near = trail.delta;
        let eyes = self.bar.map(|bar| {
            let link = &self.suspension.links()[bar];
            (link.body.vector(), placing.place(link.axle).vector())
        });
        let turn = self.steering.as_ref().map(|(link, _)| link.turn_at(&placing, near));
        let z = solved.pose.z.to_mm();
        let bind = match self.wind_up {
            Some((_, spacing)) => {
                let worst = solved.wind_up[0].abs().to_radians().max(solved.wind_up[1].abs().to_radians());
                worst * spacing.to_mm() / 2.0
            }
            None => solved.bind.to_mm(),
        };
        Ok(Posed {
            left,
            right,
            bar_angle: eyes.map_or(f64::NAN, |(f, a)| (f.z - a.z).atan2((f.y - a.y).abs())),
            roll_centre: self.suspension.axle_height().to_mm() + solved.sideways_per_roll,
            bar_line_roll_centre: eyes
                .map_or(f64::NAN, |(f, a)| a.z + (f.z - a.z) * (-a.y) / (f.y - a.y) - z),
            steer: turn
                .filter(|turn| turn.reaches)
                .map_or(f64::NAN, |turn| turn.steer + solved.pose.yaw.to_radians()),
            delta: turn.map_or(near, |turn| turn.steer),
            bind,
            placing,
            solved,
        })
    }

    /// Every watched figure in a pose, in the order of the watches. A gap of parts far from each other is told no
    /// larger than it is.
    pub fn values(&self, posed: &Posed, values: &mut Vec<f64>) {
        values.clear();
        let scene = Scene::of(self, posed);
        let placed = self.placed_bodies(&scene, |_| true);
        values.extend(self.watches.iter().map(|watch| match watch.what {
            Watched::Gap { first, second } => self.quick_gap(&scene, &placed, [first, second]),
            what => self.figure(&scene, posed, what),
        }));
    }

    /// One watched figure in a pose.
    #[must_use]
    pub fn value_of(&self, posed: &Posed, watch: usize) -> f64 {
        let what = self.watches[watch].what;
        let scene = self.scene_for(posed, what);
        match what {
            Watched::Gap { first, second } => self.distance(&scene, [first, second]),
            what => self.figure(&scene, posed, what),
        }
    }

    /// One watched figure in a pose as [`Self::values`] tells it.
    pub(in crate::pose) fn glance_of(&self, posed: &Posed, watch: usize) -> f64 {
        let what = self.watches[watch].what;
        let scene = self.scene_for(posed, what);
        match what {
            Watched::Gap { first, second } => self.glance(&scene, [first, second]),
            what => self.figure(&scene, posed, what),
        }
    }

    /// As much of the scene as one watch looks at.
    fn scene_for(&self, posed: &Posed, what: Watched) -> Scene {
        let [first, second] = match what {
            Watched::Tilt { member, .. } | Watched::WindUp { member, .. } => [Carrier::Member(member); 2],
            Watched::Gap { first, second } => [first, second].map(|body| self.bodies[body].carrier),
            Watched::Bind => [Carrier::Body; 2],
        };
        Scene::with(self, posed, |carrier| first == carrier || second == carrier)
    }

    /// A figure that is no gap.
    fn figure(&self, scene: &Scene, posed: &Posed, what: Watched) -> f64 {
        match what {
            Watched::Tilt { member, end } => scene.lines[member].tilt.off[end as usize],
            Watched::WindUp { member, end } => self.wind_up_of(scene, member, end).abs(),
            Watched::Bind | Watched::Gap { .. } => posed.bind,
        }
    }

    fn wind_up_of(&self, scene: &Scene, member: usize, end: LinkEnd) -> f64 {
        let bolt = self.members[member].joints[end as usize].bolt;
        let (line, rest) = (&scene.lines[member], &self.rest[member]);
        match end {
            LinkEnd::Body => turn_about(bolt, rest.along, line.along),
            LinkEnd::Axle => {
                turn_about(bolt, rest.along_on_axle, scene.placing.turn.transpose() * line.along)
            }
        }
    }

    /// The least gap of a watched pair in a pose, with its place in body axes; None where
    /// the watch is no gap.
    #[must_use]
    pub fn gap_of(&self, posed: &Posed, watch: usize) -> Option<Gap> {
        let what = self.watches[watch].what;
        let Watched::Gap { first, second } = what else { return None };
        Some(self.gap_in(&self.scene_for(posed, what), [first, second]))
    }

    /// Points along each member in a pose, body end first, for drawing: two or three.
    #[must_use]
    pub fn lines(&self, posed: &Posed) -> Vec<Vec<[f64; 3]>> {
        let scene = Scene::of(self, posed);
        let points = |index: usize| {
            let line = &scene.lines[index];
            match &self.members[index].bend {
                Some(bend) => line.bent(&self.rest[index], bend, line.tilt.share).to_vec(),
                None => vec![line.body, line.axle],
            }
        };
        (0..self.members.len())
            .map(|index| points(index).into_iter().map(|p| p.to_array()).collect())
            .collect()
    }

    /// How far a bent bar may roll about its own axis in a pose, from and to; None where it is straight or a bushing holds it.
    #[must_use]
    pub fn free_spin(&self, posed: &Posed, member: usize) -> Option<[Angle; 2]> {
        let part = self.members.get(member).filter(|part| part.bend.is_some())?;
        if !part.joints.iter().all(|joint| joint.kind.rolls()) {
            return None;
        }
        let limits = part.joints.map(|joint| joint.limits.tilt_fail.to_radians());
        let (low, high) = free_spin(&Scene::of(self, posed).lines[member].tilt, limits)?;
        Some([low, high].map(Angle::from_radians))
    }
}

/// Clearance wanted where nothing else is said (default of this program).
pub const WANTED_CLEARANCE: Length = Length::from_mm(12.7);

/// A member in one pose.
struct Line {
    body: DVec3,
    axle: DVec3,
    along: DVec3,
    tilt: Misalignment,
}

impl Line {
    fn bent(&self, rest: &Rest, bend: &Bend, roll: f64) -> [DVec3; 3] {
        let carried = DQuat::from_rotation_arc(rest.looked_at, self.along) * rest.bend;
        let out = DQuat::from_axis_angle(self.along, roll) * carried;
        let middle = self.body.lerp(self.axle, bend.along) + out * bend.offset.to_mm();
        [self.body, middle, self.axle]
    }
}

/// The unit direction square to a link that is nearest to `towards`; nought where that lies along the link.
fn square_to(along: DVec3, towards: DVec3) -> DVec3 {
    (towards - along * along.dot(towards)).normalize_or_zero()
}

/// Everything placed for one pose.
struct Scene {
    placing: Placing,
    lines: [Line; 6],
    drag: Option<[DVec3; 2]>,
    /// The sway bar's rods; None without one, or where a link does not close.
    sway: Option<[[DVec3; 2]; 5]>,
}

impl Scene {
    fn of(mechanism: &Mechanism, posed: &Posed) -> Self {
        Self::with(mechanism, posed, |_| true)
    }

    /// With those carriers alone that are wanted.
    fn with(mechanism: &Mechanism, posed: &Posed, wanted: impl Fn(Carrier) -> bool) -> Self {
        let suspension = &mechanism.suspension;
        let placing = posed.placing;
        let lines = std::array::from_fn(|index| {
            let parts = mechanism.members.get(index).zip(suspension.links().get(index));
            let Some((member, link)) = parts.filter(|_| wanted(Carrier::Member(index))) else {
                let still = Misalignment { off: [0.0; 2], share: 0.0, cone_cos: [1.0; 2], twist: 0.0 };
                return Line { body: DVec3::ZERO, axle: DVec3::ZERO, along: DVec3::Y, tilt: still };
            };
            let (body, axle) = (link.body.vector(), placing.place(link.axle).vector());
            let along = (axle - body).normalize();
            let bolts = [member.joints[0].bolt, placing.direction(member.joints[1].bolt)];
            Line { body, axle, along, tilt: misalignment(along, bolts, mechanism.rest[index].clocking) }
        });
        let drag = mechanism.steering.as_ref().map(|(link, _)| {
            let steer = Angle::from_radians(posed.delta);
            let end = link.knuckle_at(&placing, steer);
            [link.pitman.vector(), end.vector()]
        });
        let rod = |rod: usize| {
            let on_axle = mechanism.sway.as_ref().is_some_and(|sway| sway.on_axle);
            wanted(Carrier::Sway { rod, on_axle })
        };
        let sway = mechanism.sway.as_ref().filter(|_| (1..5).any(rod)).and_then(|sway| sway.rods(&placing));
        Self { placing, lines, drag, sway }
    }
}

/// The drag link's ends in a pose, for drawing; None without steering.
#[must_use]
pub fn drag_link_ends(mechanism: &Mechanism, posed: &Posed) -> Option<[BodyPoint; 2]> {
    Scene::of(mechanism, posed).drag.map(|ends| ends.map(BodyPoint::at))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_gap_uses_more_the_smaller_it_is_and_the_deeper_parts_overlap() {
        let watch = Watch { what: Watched::Gap { first: 0, second: 1 }, warn: 20.0, fail: 0.0 };
        // 1/(1 + 1), 1/(1 + 0) and as far again past it.
        for (gap, used) in [(20.0, 0.5), (0.0, 1.0), (-20.0, 2.0), (-60.0, 4.0)] {
            assert!((watch.used(gap) - used).abs() < 1e-12, "{gap}: {}", watch.used(gap));
        }
        let gaps = (-90..90).map(f64::from);
        assert!(gaps.zip(-89..).all(|(gap, next)| watch.used(gap) > watch.used(f64::from(next))));
        // Steep alike on both sides of touching: nothing jumps there.
        let slope = |at: f64| (watch.used(at + 0.01) - watch.used(at - 0.01)) / 0.02;
        assert!((slope(-1.0) + 1.0 / 20.0).abs() < 1e-9 && (slope(0.02) + 1.0 / 20.0).abs() < 1e-3);
    }
}
