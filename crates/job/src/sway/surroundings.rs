//! What arms and links could touch: obstacles, frame rails, shocks that lean, tyres at lock.

use crate::defaults;
use crate::message::Message;
use crate::sway::message::{NeighbourName, SwayMessage};
use derecho_core::measure::{AngleEntry, Length, Side, TapeEntry};
use glam::{DMat3, DVec3};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::defaults::Assumption;
use crate::document::heights::read_at;
use crate::document::{Job, length_of};
use crate::sway::places::{Places, SwayArms, point_of};
use derecho_core::measure::squareness::AxleEnd;
use derecho_core::pose::clearance::Gap;
use derecho_core::pose::mechanism::{Carrier, Mechanism, Posed, WANTED_CLEARANCE};
use derecho_core::pose::point::Placing;
use derecho_core::pose::travel::Envelope;
use derecho_core::pose::{AxlePoint, clearance};
use derecho_core::sway::room::tyre;

/// What a thing goes with.
#[derive(Clone, Debug)]
enum Goes {
    Body(Vec<DVec3>),
    Axle(Vec<DVec3>),
    /// One end with the body, the other with the axle.
    Between(DVec3, DVec3),
}

/// What a thing is, so that it is drawn as such.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NeighbourKind {
    /// An obstacle that was measured.
    Obstacle,
    /// A shock, from the body to the axle.
    Shock,
    /// A frame rail.
    Rail,
    /// A tyre straight ahead.
    Tyre,
    /// A tyre at its lock.
    SteeredTyre,
    /// The axle's tube.
    Tube,
}

/// The flat a tyre lies in, fixed to the axle.
#[derive(Clone, Copy, Debug)]
struct Disc {
    centre: DVec3,
    axis: DVec3,
}

/// One thing, as a chain of capsules at ride height.
#[derive(Clone, Debug)]
pub(crate) struct Neighbour {
    pub(crate) name: NeighbourName,
    pub(crate) kind: NeighbourKind,
    goes: Goes,
    pub(crate) radius: f64,
    disc: Option<Disc>,
    pub(crate) wanted: Length,
}

impl Neighbour {
    /// The axle tube is in the way of a stowed link only: a connected one is bolted beside it.
    pub(crate) fn stowed_only(&self) -> bool {
        self.kind == NeighbourKind::Tube
    }

    /// The rails hold the bar: only arms and links keep clear of them.
    pub(crate) fn holds_bar(&self) -> bool {
        self.kind == NeighbourKind::Rail
    }

    /// Its middle line at ride height with the axle centred, and which of its points go with the axle.
    pub(crate) fn standing(&self) -> Vec<(DVec3, bool)> {
        match &self.goes {
            Goes::Body(chain) => chain.iter().map(|at| (*at, false)).collect(),
            Goes::Axle(chain) => chain.iter().map(|at| (*at, true)).collect(),
            Goes::Between(body, axle) => vec![(*body, false), (*axle, true)],
        }
    }

    /// Its middle line in a pose, in body axes.
    pub(crate) fn chain(&self, placing: &Placing) -> Vec<DVec3> {
        let placed = |at: &DVec3| placing.place(AxlePoint::at(*at)).vector();
        match &self.goes {
            Goes::Body(chain) => chain.clone(),
            Goes::Axle(chain) => chain.iter().map(placed).collect(),
            Goes::Between(body, axle) => vec![*body, placed(axle)],
        }
    }

    /// The gap of a rod to its middle line as given by [`Self::chain`].
    pub(crate) fn gap(&self, chain: &[DVec3], rod: [DVec3; 2], radius: f64) -> Gap {
        clearance::gap(&rod, radius, chain, self.radius)
    }

    /// The least gap of some rods, each with its radius, in a pose, and which; infinite where none is
    /// less than `below`.
    pub(crate) fn nearest(&self, placing: &Placing, rods: &[([DVec3; 2], f64)], below: f64) -> (f64, usize) {
        let disc = self.disc.map(|disc| {
            let [centre, beside] =
                [disc.centre, disc.centre + disc.axis].map(|at| placing.place(AxlePoint::at(at)).vector());
            (centre, beside - centre)
        });
        let mut chain = None;
        let mut least = (f64::INFINITY, 0);
        for (index, (rod, radius)) in rods.iter().enumerate() {
            // A rod beside a tyre is no nearer than to the slab the tyre lies in.
            let beside = disc.map_or(f64::NEG_INFINITY, |(centre, axis)| {
                let [from, to] = rod.map(|end| (end - centre).dot(axis));
                let apart = if from * to > 0.0 { from.abs().min(to.abs()) } else { 0.0 };
                apart - self.radius - radius
            });
            if beside < below.min(least.0) {
                let chain = chain.get_or_insert_with(|| self.chain(placing));
                let gap = self.gap(chain, *rod, *radius).distance;
                if gap < below.min(least.0) {
                    least = (gap, index);
                }
            }
        }
        least
    }

    /// Whether it goes with the body alone.
    pub(crate) const fn on_body(&self) -> bool {
        matches!(self.goes, Goes::Body(_))
    }
}

/// Everything in the way, with what had to be assumed of it.
pub(crate) struct Surroundings {
    pub(crate) all: Vec<Neighbour>,
    pub(crate) arm_radius: f64,
    pub(crate) link_radius: f64,
    pub(crate) assumed: Vec<Assumption>,
    /// Shocks that were begun and not measured whole: they are not looked at, and nothing is called clear.
    pub(crate) half_measured: Vec<HalfMeasured>,
}

/// A shock of which not every place was typed.
pub(crate) struct HalfMeasured {
    pub(crate) name: String,
    /// Its ends that want more, by their fields.
    pub(crate) ends: Vec<String>,
}

impl Surroundings {
    pub(crate) fn of(job: &Job, mechanism: &Mechanism, axis: (f64, f64)) -> Self {
        let form = &job.sway.room;
        let mut around = Self {
            all: Vec::new(),
            arm_radius: 0.0,
            link_radius: 0.0,
            assumed: Vec::new(),
            half_measured: Vec::new(),
        };
        for obstacle in mechanism.obstacles() {
            let ends = obstacle.ends.to_vec();
            let goes = if obstacle.on == Carrier::Axle { Goes::Axle(ends) } else { Goes::Body(ends) };
            let radius = obstacle.radius.to_mm();
            around.put(
                NeighbourKind::Obstacle,
                NeighbourName::Named(obstacle.name.clone()),
                goes,
                radius,
                obstacle.wanted,
            );
        }
        around.shocks(job);
        around.rails(job, axis);
        around.tyres(job, mechanism);
        let hub = mechanism.suspension().axle_height().to_mm();
        let half = mechanism.stops().half_track.to_mm() - 120.0;
        let tube = Goes::Axle(vec![DVec3::new(0.0, half, hub), DVec3::new(0.0, -half, hub)]);
        let radius = defaults::AXLE_TUBE_RADIUS;
        around.put(NeighbourKind::Tube, NeighbourName::AxleTube, tube, radius, WANTED_CLEARANCE);
        if !around.all.iter().all(Neighbour::stowed_only) || !job.sway.room.panels.is_empty() {
            let arm = around.size("arm_thickness", false, &form.arm_thickness, defaults::SWAY_ROD);
            around.arm_radius = arm.to_mm() / 2.0;
            let link = around.size("link_thickness", true, &form.link_thickness, defaults::SWAY_ROD);
            around.link_radius = link.to_mm() / 2.0;
        } else {
            around.arm_radius = length_of(&form.arm_thickness).unwrap_or(defaults::SWAY_ROD).to_mm() / 2.0;
            around.link_radius = length_of(&form.link_thickness).unwrap_or(defaults::SWAY_ROD).to_mm() / 2.0;
        }
        around
    }

    fn put(&mut self, kind: NeighbourKind, name: NeighbourName, goes: Goes, radius: f64, wanted: Length) {
        self.all.push(Neighbour { name, kind, goes, radius, wanted, disc: None });
    }

    fn assume(&mut self, pointer: &str, says: Message) {
        self.assumed.push(Assumption { pointer: pointer.to_owned(), says, drawing_only: false });
    }

    fn size(&mut self, field: &str, links: bool, entry: &Option<TapeEntry>, usual: Length) -> Length {
        length_of(entry).unwrap_or_else(|| {
            self.assume(&format!("/sway/room/{field}"), SwayMessage::AssumedThick { links, usual }.into());
            usual
        })
    }

    fn shocks(&mut self, job: &Job) {
        for (index, shock) in job.sway.room.shocks.iter().enumerate() {
            let ends = (point_of(job, &shock.body, true), point_of(job, &shock.axle, false));
            let (Some(body), Some(axle)) = ends else {
                let open = [("body", ends.0), ("axle", ends.1)].into_iter().filter(|(_, at)| at.is_none());
                let ends = open.map(|(end, _)| format!("/sway/room/shocks/{index}/{end}")).collect();
                self.half_measured.push(HalfMeasured { name: shock.name.clone(), ends });
                continue;
            };
            for side in [Side::Left, Side::Right] {
                let sign = side.sign();
                let over = |at: DVec3| DVec3::new(at.x, at.y * sign, at.z);
                let goes = Goes::Between(over(body), over(axle));
                let radius = shock.thickness.length().to_mm() / 2.0;
                let name = NeighbourName::Shock { side, name: shock.name.clone() };
                self.put(NeighbourKind::Shock, name, goes, radius, WANTED_CLEARANCE);
            }
        }
    }

    fn rails(&mut self, job: &Job, axis: (f64, f64)) {
        let form = &job.sway.room;
        let taped = length_of(&form.rail_underside).zip(length_of(&job.rig.frame_width));
        let Some((underside, width)) = taped else { return };
        let height = length_of(&form.rail_height).unwrap_or_else(|| {
            self.assume("/sway/room/rail_height", SwayMessage::AssumedRails.into());
            defaults::RAIL_HEIGHT
        });
        let radius = (defaults::RAIL_WIDTH / 2.0).min(height.to_mm() / 2.0);
        let low = (underside - read_at(job)).to_mm() + radius;
        let high = low + height.to_mm() - 2.0 * radius;
        let out = width.to_mm() / 2.0 - radius;
        for side in [Side::Left, Side::Right] {
            let sign = side.sign();
            let at = |x: f64, z: f64| DVec3::new(axis.0 + x, sign * out, z);
            let chain = vec![
                at(-defaults::RAIL_REACH, low),
                at(defaults::RAIL_REACH, low),
                at(defaults::RAIL_REACH, high),
                at(-defaults::RAIL_REACH, high),
            ];
            let name = NeighbourName::Rail(side);
            self.put(NeighbourKind::Rail, name, Goes::Body(chain), radius, WANTED_CLEARANCE);
        }
    }

    fn tyres(&mut self, job: &Job, mechanism: &Mechanism) {
        let rig = &job.rig;
        let (Some(diameter), Some(width), Some(_)) =
            (length_of(&rig.tyre_diameter), length_of(&rig.tyre_width), rig.track.as_ref())
        else {
            return;
        };
        let front = rig.end != Some(AxleEnd::Rear);
        let lock =
            job.sway.room.steering_lock.as_ref().map(|lock| AngleEntry::angle(lock).to_degrees().abs());
        if front && lock.is_none() {
            self.assume("/sway/room/steering_lock", SwayMessage::AssumedLock.into());
        }
        let lock = lock.unwrap_or(if front { defaults::STEERING_LOCK_DEGREES } else { 0.0 });
        let hub = mechanism.suspension().axle_height().to_mm();
        let half = mechanism.stops().half_track.to_mm();
        for side in [Side::Left, Side::Right] {
            let sign = side.sign();
            let turns: &[f64] = if lock > 0.0 { &[0.0, 1.0, -1.0] } else { &[0.0] };
            for turn in turns {
                let axis = DMat3::from_rotation_z((lock * turn).to_radians()) * DVec3::Y;
                let centre = DVec3::new(0.0, sign * half, hub);
                let (chain, radius) = tyre(centre, axis, diameter.to_mm(), width.to_mm());
                let steered = (*turn != 0.0).then(|| Side::of(*turn));
                let name = NeighbourName::Tire { side, steered };
                let kind = if *turn == 0.0 { NeighbourKind::Tyre } else { NeighbourKind::SteeredTyre };
                self.put(kind, name, Goes::Axle(chain), radius, WANTED_CLEARANCE);
                if let Some(tyre) = self.all.last_mut() {
                    tyre.disc = Some(Disc { centre, axis });
                }
            }
        }
    }
}

/// Every so many poses are looked at first, the envelope's ends among them; gaps change smoothly, so
/// that the least of all is then looked for round the least of these.
const COARSE: usize = 4;

/// A pose of the envelope with what is needed of it.
pub(crate) struct SweptPose {
    /// Wheel travels.
    pub(crate) at: (f64, f64),
    pub(crate) placing: Placing,
    /// Bar, arms, links: [`Places::rods`]; None where a link does not close.
    pub(crate) rods: Option<[[DVec3; 2]; 5]>,
}

/// Bar, arms and links through the envelope.
pub(crate) struct Swept {
    side: usize,
    /// Shape `[left][right]`; None where stops or suspension do not allow it.
    poses: Vec<Option<SweptPose>>,
}

impl Swept {
    pub(crate) fn of(places: &Places, envelope: &Envelope, arms: &[Option<SwayArms>]) -> Self {
        let swept = |(posed, arms): (&Option<Posed>, &Option<SwayArms>)| {
            let (posed, [left, right]) = (posed.as_ref()?, arms.as_ref()?);
            let angles = left.ok().zip(right.ok()).map(|(left, right)| [left.above_level, right.above_level]);
            let rods = angles.map(|angles| places.rods_at(posed, angles));
            Some(SweptPose { at: (posed.left, posed.right), placing: posed.placing, rods })
        };
        Self { side: envelope.travels.len(), poses: envelope.poses.iter().zip(arms).map(swept).collect() }
    }

    /// Every pose.
    pub(crate) fn all(&self) -> impl Iterator<Item = &SweptPose> {
        self.poses.iter().flatten()
    }

    /// The least of a smooth gap over all poses, what goes with it, and its pose. `gap` is told
    /// below what it is of interest, and gives infinity where it is not or cannot be told.
    pub(crate) fn least<T: Copy>(
        &self,
        gap: impl Fn(&SweptPose, f64) -> (f64, T),
    ) -> Option<(f64, T, &SweptPose)> {
        let side = self.side;
        let coarse = (0..self.poses.len())
            .filter(|index| (index / side).is_multiple_of(COARSE) && (index % side).is_multiple_of(COARSE));
        let first = self.least_of(coarse, &gap)?.2;
        let round = |at: usize| at.saturating_sub(COARSE - 1)..(at + COARSE).min(side);
        let near =
            round(first / side).flat_map(|left| round(first % side).map(move |right| left * side + right));
        let (least, with, index) = self.least_of(near, &gap)?;
        Some((least, with, self.poses[index].as_ref()?))
    }

    fn least_of<T>(
        &self,
        among: impl Iterator<Item = usize>,
        gap: impl Fn(&SweptPose, f64) -> (f64, T),
    ) -> Option<(f64, T, usize)> {
        let mut best: Option<(f64, T, usize)> = None;
        for index in among {
            let below = best.as_ref().map_or(f64::INFINITY, |best| best.0);
            let Some(pose) = &self.poses[index] else { continue };
            let (least, with) = gap(pose, below);
            if least < below {
                best = Some((least, with, index));
            }
        }
        best
    }
}
