//! Everything beside the links that can touch something: what a person measured, and what a vehicle has anyway.

use glam::DVec3;

use super::message::PointName;
use super::reader::{PointReader, PointWanted};
use super::sway_linkage::{linkage_of, point_of};
use crate::defaults;
use crate::document::hardpoints::{BoltAxis, BracketSize, ObstacleOn};
use crate::document::heights::read_at;
use crate::document::sway::{Sway, SwayKind};
use crate::document::{Job, bodies, length_of};
use derecho_core::measure::squareness::AxleEnd;
use derecho_core::measure::{Angle, AngleEntry, Length, Side};
use derecho_core::pose::Link;
use derecho_core::pose::body::{Body, BodyName, Carrier, tire_ring};
use derecho_core::pose::mechanism::{Knuckles, WANTED_CLEARANCE};
use derecho_core::pose::sway_linkage::SwayLinkage;

/// A body of two points or more, with the clearance that is usual.
pub(crate) fn body(name: BodyName, carrier: Carrier, points: Vec<DVec3>, radius: f64) -> Body {
    let (radius, wanted) = (Length::from_mm(radius), WANTED_CLEARANCE);
    Body { name, carrier, hangs_on: None, points, ring: None, radius, wanted, assumed: false }
}

/// A round rod of a length about a middle, its ends round within that length.
fn about(middle: DVec3, axis: DVec3, along: Length, across: Length) -> Vec<DVec3> {
    let half = ((along - across) / 2.0).max(Length::ZERO).to_mm();
    vec![middle - axis * half, middle + axis * half]
}

/// How far the wheels turn either way; nought where they don't, and whether nobody measured it.
pub(crate) fn lock(job: &Job) -> (Angle, bool) {
    let front = job.rig.end != Some(AxleEnd::Rear);
    let typed = job.sway.room.steering_lock.as_ref().map(|lock| AngleEntry::angle(lock).abs());
    let usual = if front { defaults::STEERING_LOCK_DEGREES } else { 0.0 };
    (typed.unwrap_or(Angle::from_degrees(usual)), front && typed.is_none())
}

/// The knuckles of a steered axle, by the kingpin of its drag link where that was measured.
pub(super) fn knuckles(job: &Job, (half_track, hub): (f64, f64), tie_rod: Option<&Body>) -> Option<Knuckles> {
    let (lock, _) = lock(job);
    if lock == Angle::ZERO || !job.rig.is_steered() {
        return None;
    }
    let form = job.hardpoints.steering.as_ref();
    let usual = Length::from_mm(half_track - defaults::KINGPIN_INSIDE);
    let out = form.and_then(|form| length_of(&form.kingpin_from_centre)).unwrap_or(usual).to_mm();
    let slope = |entry: Option<&AngleEntry>| entry.map_or(Angle::ZERO, AngleEntry::angle).tan();
    let caster = slope(form.and_then(|form| form.caster.as_ref()));
    let inclined = slope(form.and_then(|form| form.kingpin_inclination.as_ref()));
    let of = |sign: f64| (DVec3::new(0.0, sign * out, hub), DVec3::new(-caster, -sign * inclined, 1.0));
    let [(left, left_axis), (right, right_axis)] = [of(1.0), of(-1.0)];
    let tie_rod = tie_rod.and_then(|rod| rod.points.first_chunk::<2>().copied());
    Some(Knuckles { kingpins: [left, right], axes: [left_axis, right_axis], lock, tie_rod })
}

/// The steering arms to what was measured of drag link and tie rod; how thick they are nobody asks.
pub(super) fn steering_arms(knuckles: &Knuckles, tie_rod: Option<&Body>) -> Vec<Body> {
    let Some(rod) = tie_rod else { return Vec::new() };
    [Side::Left, Side::Right]
        .into_iter()
        .zip(&rod.points)
        .zip(knuckles.kingpins)
        .map(|((side, end), pin)| {
            let root = DVec3::new(pin.x, pin.y, end.z);
            let arm = body(
                BodyName::SteeringArm(side),
                Carrier::Knuckle(side),
                vec![root, *end],
                defaults::STEERING_ARM_RADIUS,
            );
            Body { assumed: true, ..arm }
        })
        .collect()
}

/// What a vehicle has anyway: its axle tube, tires, shocks, rails and driveshaft, as far as they were measured.
pub(super) fn of_the_vehicle(job: &Job, (half_track, hub): (f64, f64)) -> Vec<Body> {
    let mut all = vec![axle_tube(job, half_track, hub)];
    all.extend(tires(job, half_track, hub));
    all.extend(shocks(job));
    all.extend(rails(job));
    all
}

fn axle_tube(job: &Job, half_track: f64, hub: f64) -> Body {
    let typed = length_of(&job.hardpoints.axle_tube);
    let half = half_track - defaults::TUBE_INSIDE;
    let ends = vec![DVec3::new(0.0, half, hub), DVec3::new(0.0, -half, hub)];
    let radius = typed.map_or(defaults::AXLE_TUBE_RADIUS, |across| across.to_mm() / 2.0);
    Body { assumed: typed.is_none(), ..body(BodyName::AxleTube, Carrier::Axle, ends, radius) }
}

fn tires(job: &Job, half_track: f64, hub: f64) -> Vec<Body> {
    let rig = &job.rig;
    let sizes = length_of(&rig.tyre_diameter).zip(length_of(&rig.tyre_width));
    let Some((diameter, width)) = sizes.filter(|_| rig.track.is_some()) else { return Vec::new() };
    let (lock, assumed) = lock(job);
    let tire = |side: Side| {
        let centre = DVec3::new(0.0, side.sign() * half_track, hub);
        let (ends, out, radius) = tire_ring(centre, DVec3::Y, diameter.to_mm(), width.to_mm());
        let carrier =
            if lock > Angle::ZERO && rig.is_steered() { Carrier::Knuckle(side) } else { Carrier::Axle };
        Body { ring: Some(out), assumed, ..body(BodyName::Tire(side), carrier, ends.to_vec(), radius) }
    };
    vec![tire(Side::Left), tire(Side::Right)]
}

fn shocks(job: &Job) -> Vec<Body> {
    let mut shocks = Vec::new();
    for shock in &job.sway.room.shocks {
        let ends = (point_of(job, &shock.body, true), point_of(job, &shock.axle, false));
        let (Some(above), Some(below)) = ends else { continue };
        for side in [Side::Left, Side::Right] {
            let over = |at: DVec3| DVec3::new(at.x, at.y * side.sign(), at.z);
            let name = BodyName::Shock(side, shock.name.clone());
            let radius = shock.thickness.length().to_mm() / 2.0;
            shocks.push(body(name, Carrier::Between, vec![over(above), over(below)], radius));
        }
    }
    shocks
}

/// The rails by the sway bar, or over the axle where none was measured.
fn rails(job: &Job) -> Vec<Body> {
    let form = &job.sway.room;
    let taped = length_of(&form.rail_underside).zip(length_of(&job.rig.frame_width));
    let Some((underside, width)) = taped else { return Vec::new() };
    let height = length_of(&form.rail_height).unwrap_or(defaults::RAIL_HEIGHT);
    let ahead = length_of(&job.sway.axis.fore_aft).map_or(0.0, Length::to_mm);
    let radius = (defaults::RAIL_WIDTH / 2.0).min(height.to_mm() / 2.0);
    let low = (underside - read_at(job)).to_mm() + radius;
    let high = low + height.to_mm() - 2.0 * radius;
    let out = width.to_mm() / 2.0 - radius;
    let rail = |side: Side| {
        let at = |x: f64, z: f64| DVec3::new(ahead + x, side.sign() * out, z);
        let reach = defaults::RAIL_REACH;
        let chain = vec![at(-reach, low), at(reach, low), at(reach, high), at(-reach, high)];
        let assumed = form.rail_height.is_none();
        Body { assumed, ..body(BodyName::Rail(side), Carrier::Body, chain, radius) }
    };
    vec![rail(Side::Left), rail(Side::Right)]
}

/// The track bar's brackets where its eyes are, as far as they were measured.
pub(super) fn brackets(job: &Job, bar: &Link) -> Vec<Body> {
    let form = &job.hardpoints.bar;
    let of = |size: &BracketSize, bolt: Option<BoltAxis>, at: DVec3, name: BodyName, carrier: Carrier| {
        let (across, along) = length_of(&size.across).zip(length_of(&size.along))?;
        let axis = match bolt.unwrap_or(BoltAxis::ForeAft) {
            BoltAxis::Sideways => DVec3::Y,
            BoltAxis::ForeAft => DVec3::X,
            BoltAxis::Upright => DVec3::Z,
        };
        Some(body(name, carrier, about(at, axis, along, across), across.to_mm() / 2.0))
    };
    let (above, below) = (bar.body.vector(), bar.axle.vector());
    let frame = of(&form.frame_bracket, form.frame_joint.bolt, above, BodyName::FrameBracket, Carrier::Body);
    let axle = of(&form.axle_bracket, form.axle_joint.bolt, below, BodyName::AxleBracket, Carrier::Axle);
    frame
        .map(|bracket| Body { hangs_on: Some(Side::of(above.y)), ..bracket })
        .into_iter()
        .chain(axle)
        .collect()
}

/// A sway bar as far as it was measured: its arms and links, and the bodies of it.
pub(crate) fn sway(job: &Job, form: &Sway) -> (Option<SwayLinkage>, Vec<Body>) {
    if form.kind.is_none_or(|kind| kind == SwayKind::None) {
        return (None, Vec::new());
    }
    let linkage = linkage_of(job, form).ok();
    let bodies = sway_bodies(job, form, linkage.as_ref());
    (linkage, bodies)
}

/// The bodies of a sway bar whose arms and links are these, or of the bar alone.
pub(crate) fn sway_bodies(job: &Job, form: &Sway, linkage: Option<&SwayLinkage>) -> Vec<Body> {
    let room = &job.sway.room;
    let on_axle = form.on == ObstacleOn::Axle;
    let carrier = if on_axle { Carrier::Axle } else { Carrier::Body };
    // Where its axis is does not hang on arms and links.
    let Some(axis) = super::sway_linkage::axis_of(job, form) else { return Vec::new() };
    let at = |out: f64| DVec3::new(axis.0, out, axis.1);
    let eye = length_of(&form.eye_from_centre).map(Length::to_mm);
    let mut all = Vec::new();
    if let Some(out) = eye {
        let thick = length_of(&form.diameter);
        let radius = thick.unwrap_or(defaults::SWAY_BAR).to_mm() / 2.0;
        let bar = body(BodyName::SwayBar, carrier, vec![at(out), at(-out)], radius);
        all.push(Body { assumed: thick.is_none(), ..bar });
    }
    if let Some(across) = length_of(&room.tube_outside) {
        let half = length_of(&room.tube_length).map(|length| length.to_mm() / 2.0).or(eye);
        if let Some(half) = half {
            let half = (half - across.to_mm() / 2.0).max(0.0);
            all.push(body(BodyName::SwayTube, carrier, vec![at(half), at(-half)], across.to_mm() / 2.0));
        }
    }
    let mount =
        (length_of(&room.mount_from_centre), length_of(&room.mount_across), length_of(&room.mount_along));
    if let (Some(out), Some(across), Some(along)) = mount {
        for side in [Side::Left, Side::Right] {
            let middle = at(side.sign() * out.to_mm());
            let points = about(middle, DVec3::Y, along, across);
            all.push(body(BodyName::SwayMount(side), carrier, points, across.to_mm() / 2.0));
        }
    }
    if linkage.is_some() {
        let (arm, link) = (length_of(&room.arm_thickness), length_of(&room.link_thickness));
        for (place, side) in [Side::Left, Side::Right].into_iter().enumerate() {
            for (rod, name, thick) in [(1, BodyName::SwayArm(side), arm), (3, BodyName::SwayLink(side), link)]
            {
                let radius = thick.unwrap_or(defaults::SWAY_ROD).to_mm() / 2.0;
                let carrier = Carrier::Sway { rod: rod + place, on_axle };
                all.push(Body { assumed: thick.is_none(), ..body(name, carrier, Vec::new(), radius) });
            }
        }
    }
    all
}

impl PointReader<'_> {
    /// The driveshaft, where it was measured.
    pub(super) fn driveshaft(&mut self) -> Option<Body> {
        let form = self.job.hardpoints.driveshaft.as_ref()?;
        let lead = self.sizes.leads;
        let z = self.sizes.axle_height;
        let mut end = |field: &str, point, body: bool, usual| {
            self.point(&PointWanted {
                pointer: format!("/hardpoints/driveshaft/{field}"),
                name: PointName::Named(bodies::DRIVESHAFT.to_owned()),
                form: point,
                like: None,
                side: form.side,
                body,
                usual,
            })
        };
        let above = end("body", &form.body, true, DVec3::new(lead * 900.0, 0.0, z + 100.0));
        let below = end("axle", &form.axle, false, DVec3::new(lead * 220.0, 0.0, z + 20.0));
        let radius = form.diameter.length().abs().to_mm() / 2.0;
        let shaft = body(BodyName::Driveshaft, Carrier::Between, vec![above.at, below.at], radius);
        Some(Body { assumed: above.assumed || below.assumed, ..shaft })
    }
}
