//! What arms and links could touch, as the mechanism has it, and what was begun or assumed of it.

use glam::DVec3;

use crate::assembly::bodies::{lock, sway_bodies};
use crate::defaults::{self, Assumption};
use crate::document::{Job, length_of};
use crate::message::Message;
use crate::sway::message::SwayMessage;
use crate::sway::places::{Places, point_of};
use derecho_core::measure::{Length, TapeEntry};
use derecho_core::pose::body::{Body, BodyName};
use derecho_core::pose::mechanism::{Mechanism, Posed};
use derecho_core::pose::sway_linkage::SwayArms;
use derecho_core::pose::travel::{self, Envelope, Worst};

/// Everything in the way, with what had to be assumed of it.
pub(crate) struct Surroundings {
    /// The mechanism with the sway bar's arms and links in it.
    pub(crate) mechanism: Mechanism,
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

/// Whether a body of the vehicle may be held against arms and links: what is assumed of it is told with the answer, or
/// it is left out.
fn may_be_near(body: &Body) -> bool {
    !body.assumed || matches!(body.name, BodyName::Tire(_) | BodyName::Rail(_))
}

impl Surroundings {
    pub(crate) fn of(job: &Job, mechanism: &Mechanism, places: &Places) -> Self {
        let form = &job.sway.room;
        let mechanism = if mechanism.sway().is_some() {
            mechanism.clone()
        } else {
            // Links that are sized are no part of what was measured.
            let rods = sway_bodies(job, &job.sway, Some(places));
            let rods = rods.into_iter().filter(|body| body.points.is_empty()).collect();
            mechanism.with_bodies(Some(places.clone()), rods)
        };
        let mut around = Self {
            mechanism,
            arm_radius: 0.0,
            link_radius: 0.0,
            assumed: Vec::new(),
            half_measured: half_measured(job),
        };
        let looked_at = !around.near().is_empty() || !form.panels.is_empty();
        let mut size = |field: &str, links: bool, entry: &Option<TapeEntry>| {
            let usual = defaults::SWAY_ROD;
            if entry.is_none() && looked_at {
                around.assume(
                    &format!("/sway/room/{field}"),
                    SwayMessage::AssumedThick { links, usual }.into(),
                );
            }
            length_of(entry).unwrap_or(usual).to_mm() / 2.0
        };
        let (arm, link) = (
            size("arm_thickness", false, &form.arm_thickness),
            size("link_thickness", true, &form.link_thickness),
        );
        (around.arm_radius, around.link_radius) = (arm, link);
        if around.has(|name| matches!(name, BodyName::Rail(_))) && form.rail_height.is_none() {
            around.assume("/sway/room/rail_height", SwayMessage::AssumedRails.into());
        }
        if around.has(|name| matches!(name, BodyName::Tire(_))) && lock(job).1 {
            around.assume("/sway/room/steering_lock", SwayMessage::AssumedLock.into());
        }
        around
    }

    fn assume(&mut self, pointer: &str, says: Message) {
        self.assumed.push(Assumption { pointer: pointer.to_owned(), says, drawing_only: false });
    }

    fn has(&self, is: impl Fn(&BodyName) -> bool) -> bool {
        self.mechanism.bodies().iter().any(|body| is(&body.name))
    }

    /// What was measured beside links and sway bar, by its index.
    pub(crate) fn near(&self) -> Vec<usize> {
        let bodies = self.mechanism.bodies();
        let is_near = |index: &usize| {
            let name = &bodies[*index].name;
            let link = matches!(name, BodyName::Arm(_) | BodyName::TrackBar | BodyName::DragLink);
            !name.is_of_the_sway_bar() && !link && may_be_near(&bodies[*index])
        };
        (0..bodies.len()).filter(is_near).collect()
    }

    /// Bar, arms and links over the travel: of each pair with something else the nearest, nearest first after what is
    /// wanted.
    pub(crate) fn nearest(&self, envelope: &Envelope) -> (Mechanism, Vec<Worst>) {
        let watching = self.mechanism.watching_gaps(|one, other| {
            let [one_of_it, other_of_it] = [one, other].map(|body| body.name.is_of_the_sway_bar());
            (one_of_it || may_be_near(one))
                && (other_of_it || may_be_near(other))
                && (one_of_it || other_of_it)
        });
        over_the_travel(&watching, envelope)
    }

    /// Rods stowed on what the bar is fixed to, over the travel: the nearest of each pair with what goes otherwise.
    pub(crate) fn stowed(&self, rods: Vec<Body>, envelope: &Envelope) -> (Mechanism, Vec<Worst>) {
        let with = self.mechanism.with_bodies(None, rods);
        let stowed = |body: &Body| matches!(body.name, BodyName::StowedLink(_));
        let clear_of = |body: &Body| {
            (may_be_near(body) || body.name == BodyName::AxleTube) && !body.name.is_of_the_sway_bar()
        };
        let watching = with
            .watching_gaps(|one, other| (stowed(one) && clear_of(other)) || (stowed(other) && clear_of(one)));
        over_the_travel(&watching, envelope)
    }
}

/// What stays further from the sway bar than this everywhere, mm, is not told.
pub(crate) const WORTH_TELLING: f64 = 200.0;

fn over_the_travel(watching: &Mechanism, envelope: &Envelope) -> (Mechanism, Vec<Worst>) {
    let (narrowed, watched) = travel::watched(watching, envelope, WORTH_TELLING);
    let worst = travel::worst(&narrowed, &watched);
    (narrowed, worst)
}

fn half_measured(job: &Job) -> Vec<HalfMeasured> {
    let mut open = Vec::new();
    for (index, shock) in job.sway.room.shocks.iter().enumerate() {
        let ends = [("body", point_of(job, &shock.body, true)), ("axle", point_of(job, &shock.axle, false))];
        let missing = ends.into_iter().filter(|(_, at)| at.is_none());
        let ends: Vec<String> = missing.map(|(end, _)| format!("/sway/room/shocks/{index}/{end}")).collect();
        if !ends.is_empty() {
            open.push(HalfMeasured { name: shock.name.clone(), ends });
        }
    }
    open
}

/// Bar, arms and links in every pose of the envelope in which the links close: what panels are cut for.
pub(crate) fn swept(places: &Places, envelope: &Envelope, arms: &[Option<SwayArms>]) -> Vec<[[DVec3; 2]; 5]> {
    let rods = |(posed, arms): (&Option<Posed>, &Option<SwayArms>)| {
        let (posed, [left, right]) = (posed.as_ref()?, arms.as_ref()?);
        let (left, right) = left.ok().zip(right.ok())?;
        Some(places.rods_at(&posed.placing, [left.above_level, right.above_level]))
    };
    envelope.poses.iter().zip(arms).filter_map(rods).collect()
}

/// How far the gap of a pair is from what is wanted of it, mm.
pub(crate) fn spare(gap: f64, wanted: Length) -> f64 {
    gap - wanted.to_mm()
}
