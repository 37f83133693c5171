//! Room for arms and links through everything the axle does, the holes panels want, and bolts that
//! must come out again.

use crate::cycle::message::CycleMessage;
use crate::defaults;
use crate::document::check::{FieldError, asks};
use crate::message::{Label, Message};
use crate::sway::message::{SwayCheck, SwayMessage};
use derecho_core::measure::Length;
use glam::DVec3;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::document::sway::{BoltPlace, BoltWay, PanelFaces, PanelForm, ServiceBolt};
use crate::document::{Job, heights};
use crate::sway::places::Places;
use crate::sway::surroundings::{HalfMeasured, Surroundings, WORTH_TELLING, spare, swept};
use crate::verdict::{FitCheck, FitVerdict};
use derecho_core::pose::body::{BodyName, Carrier, ring_points};
use derecho_core::pose::clearance::Gap;
use derecho_core::pose::mechanism::{Mechanism, Posed, WANTED_CLEARANCE, Watched};
use derecho_core::pose::sway_linkage::SwayArms;
use derecho_core::pose::travel::Envelope;
use derecho_core::sway::room::{Plane, around, covers};

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
}

/// The nearest that a bar, arm or link comes to a thing.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SwayGap {
    /// Which of them, in words.
    #[schema(value_type = String)]
    pub rod: Label,
    /// What it comes near to.
    #[schema(value_type = String)]
    pub thing: Label,
    /// Between their surfaces; negative where they run into each other.
    pub gap_mm: Length,
    /// What is wanted.
    pub wanted_mm: Length,
    /// Wheel travels there, left and right.
    pub at_mm: [Length; 2],
    /// The nearest points there, of the rod and of the thing, each on its middle line, mm in body axes at ride
    /// height: forward, left, up.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub between_mm: [[f64; 3]; 2],
    /// Whether it is enough.
    pub clear: bool,
    /// In words.
    pub says: Message,
}

/// The hole that a panel wants where the bar, its arms and links pass it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PanelCut {
    /// The panel.
    pub panel: String,
    /// Which way it faces.
    pub faces: PanelFaces,
    /// The cut line on the left, clearance included: least and most along the panel's first axis,
    /// then its second, mm in vehicle axes, heights above the floor as it stands driven.
    /// Forward-facing: left, up. Outward: forward, up. Up: forward, left. Absent where nothing passes it.
    #[serde(
        skip_serializing_if = "Option::is_none",
        serialize_with = "derecho_core::measure::figure::millimetres"
    )]
    #[schema(nullable = false)]
    pub cut_mm: Option<[[f64; 2]; 2]>,
    /// Where it stands along the way it faces: forward, out to either side, or above the floor as it stands driven.
    pub at_mm: Length,
    /// The middle of the bar over its left arm, in the same axes: where a template is laid from.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub mark_mm: [f64; 2],
    /// In words.
    pub says: Message,
}

/// A thing that arms and links are kept clear of, as it is drawn: a round chain of points.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RoomThing {
    /// As it was named, with its side.
    #[schema(value_type = String)]
    pub name: Label,
    /// What it is.
    pub kind: NeighbourKind,
    /// Its middle line at ride height with the axle centred, mm: forward, left, up of each point.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub points_mm: Vec<[f64; 3]>,
    /// Which of these points go with the axle; the others go with the body.
    pub on_axle: Vec<bool>,
    /// Its half thickness.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub radius_mm: f64,
}

/// Room for arms and links.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RoomResult {
    /// The answer.
    pub says: Message,
    /// Clear, not clear, or not measured whole.
    pub verdict: FitVerdict,
    /// What was begun and not measured whole.
    pub missing: Vec<FieldError>,
    /// Nearest to each thing, tightest first.
    pub gaps: Vec<SwayGap>,
    /// Panels and their holes.
    pub cuts: Vec<PanelCut>,
    /// Everything that was looked at.
    pub things: Vec<RoomThing>,
}

pub(crate) fn room(
    job: &Job,
    places: &Places,
    around: &Surroundings,
    (envelope, arms): (&Envelope, &[Option<SwayArms>]),
    bar_radius: f64,
) -> RoomResult {
    let radii = [bar_radius, around.arm_radius, around.arm_radius, around.link_radius, around.link_radius];
    let gaps = gaps(around, envelope);
    let names: Vec<&str> = around.half_measured.iter().map(|shock| shock.name.as_str()).collect();
    RoomResult {
        says: SwayMessage::Room {
            tightest: gaps.first().map(|gap| (gap.says.clone(), gap.clear)),
            half_measured: names.iter().map(|one| (*one).to_owned()).collect(),
        }
        .into(),
        verdict: match gaps.first() {
            Some(tightest) if !tightest.clear => FitVerdict::Bad,
            Some(_) if names.is_empty() => FitVerdict::Good,
            _ => FitVerdict::Open,
        },
        missing: around.half_measured.iter().flat_map(half_measured).collect(),
        cuts: cuts(job, places, &swept(places, envelope, arms), radii),
        gaps,
        things: around
            .near()
            .into_iter()
            .filter(|index| around.mechanism.bodies()[*index].name != BodyName::AxleTube)
            .flat_map(|index| drawn(&around.mechanism, index))
            .collect(),
    }
}

/// The same gap seen from the other side.
fn turned(gap: Gap) -> Gap {
    Gap { on_first: gap.on_second, on_second: gap.on_first, ..gap }
}

/// The nearest that bar, arms or links come to each thing, tightest first after what is wanted.
fn gaps(around: &Surroundings, envelope: &Envelope) -> Vec<SwayGap> {
    let (mechanism, worst) = around.nearest(envelope);
    let mut by_thing: Vec<(BodyName, f64, SwayGap)> = Vec::new();
    for found in &worst {
        let Watched::Gap { first, second } = mechanism.watches()[found.watch].what else { continue };
        let [one, other] = [first, second].map(|index| &mechanism.bodies()[index].name);
        let Some(gap) = mechanism.gap_of(&found.posed, found.watch) else { continue };
        let wanted = mechanism.wanted_between(first, second);
        // The rod first.
        let (rod, thing, gap) = if one.is_of_the_sway_bar() && !matches!(one, BodyName::SwayTube) {
            (one, other, gap)
        } else {
            (other, one, turned(gap))
        };
        let (rod, thing, gap) =
            if rod.is_of_the_sway_bar() { (rod, thing, gap) } else { (thing, rod, turned(gap)) };
        let left = spare(gap.distance, wanted);
        let result = || gap_result(rod, thing, (gap, wanted), (found.posed.left, found.posed.right));
        match by_thing.iter_mut().find(|(name, ..)| name == thing) {
            Some(entry) if entry.1 > left => (entry.1, entry.2) = (left, result()),
            Some(_) => {}
            None => by_thing.push((thing.clone(), left, result())),
        }
    }
    // What sits on what the bar is fixed to keeps its distance from it.
    for (pair, gap) in mechanism.standing() {
        let [first, second] = pair.map(|index| &mechanism.bodies()[index].name);
        if !(first.is_of_the_sway_bar() || second.is_of_the_sway_bar()) || gap.distance > WORTH_TELLING {
            continue;
        }
        let (rod, thing, gap) =
            if first.is_of_the_sway_bar() { (first, second, gap) } else { (second, first, turned(gap)) };
        let wanted = mechanism.wanted_between(pair[0], pair[1]);
        let left = spare(gap.distance, wanted);
        let apart = Length::from_mm(gap.distance);
        let says = CycleMessage::Stands { first: rod.clone(), second: thing.clone(), gap: apart };
        let driven = (mechanism.driven(), mechanism.driven());
        let result = || SwayGap { says: says.into(), ..gap_result(rod, thing, (gap, wanted), driven) };
        match by_thing.iter_mut().find(|(name, ..)| name == thing) {
            Some(entry) if entry.1 > left => (entry.1, entry.2) = (left, result()),
            Some(_) => {}
            None => by_thing.push((thing.clone(), left, result())),
        }
    }
    by_thing.sort_by(|a, b| a.1.total_cmp(&b.1));
    by_thing.into_iter().map(|(.., gap)| gap).collect()
}

/// What its ends want, each at its field.
fn half_measured(shock: &HalfMeasured) -> impl Iterator<Item = FieldError> {
    let says = asks::shock_end(&shock.name);
    shock.ends.iter().map(move |end| FieldError::new(end, "missing", &says))
}

/// A body as it is drawn; a tire of a steered axle also at both locks.
fn drawn(mechanism: &Mechanism, index: usize) -> Vec<RoomThing> {
    let body = &mechanism.bodies()[index];
    let name: Label = SwayMessage::Neighbour(body.name.clone()).into();
    let thing = |kind: NeighbourKind, points: Vec<DVec3>| {
        let last = points.len() - 1;
        let on_axle = |place: usize| match body.carrier {
            Carrier::Body => false,
            Carrier::Between => place == last,
            _ => true,
        };
        RoomThing {
            name: name.clone(),
            kind,
            on_axle: (0..points.len()).map(on_axle).collect(),
            points_mm: points.into_iter().map(|at| at.to_array()).collect(),
            radius_mm: body.radius.to_mm(),
        }
    };
    let kind = match body.name {
        BodyName::Shock(..) => NeighbourKind::Shock,
        BodyName::Rail(_) => NeighbourKind::Rail,
        BodyName::Tire(_) => NeighbourKind::Tyre,
        _ => NeighbourKind::Obstacle,
    };
    let (Some(out), Some(ends)) = (body.ring, body.points.first_chunk::<2>()) else {
        return vec![thing(kind, body.points.clone())];
    };
    let mut all = vec![thing(kind, ring_points(*ends, out))];
    if let (Carrier::Knuckle(side), Some(knuckles)) = (body.carrier, mechanism.knuckles()) {
        for turn in [1.0, -1.0].map(|way| way * knuckles.lock.to_radians()) {
            let turned = ends.map(|at| knuckles.turned(side, at, turn));
            all.push(thing(NeighbourKind::SteeredTyre, ring_points(turned, out)));
        }
    }
    all
}

/// What bar, arms and links cover of each panel over all poses.
fn cuts(job: &Job, places: &Places, swept: &[[[DVec3; 2]; 5]], radii: [f64; 5]) -> Vec<PanelCut> {
    let read_at = heights::read_at(job);
    let stands = heights::driven_offset(&job.rig).to_mm();
    let cut = |panel: &PanelForm| {
        let at = panel.at.length().to_mm();
        let plane = match panel.faces {
            PanelFaces::Forward => Plane::Across(at),
            PanelFaces::Outward => Plane::Along(at.abs()),
            PanelFaces::Up => {
                let up = heights::of_body(job, &panel.at, read_at);
                Plane::Level(up.map_or(at, Length::to_mm))
            }
        };
        let covered = swept.iter().flat_map(|rods| {
            rods.iter().copied().enumerate().filter_map(move |(index, [from, to])| {
                // The left side stands for both: a panel on the right is cut as its mirror image.
                let mirrored =
                    |at: DVec3| if index == 2 || index == 4 { at * DVec3::new(1.0, -1.0, 1.0) } else { at };
                covers(mirrored(from), mirrored(to), radii[index], plane)
            })
        });
        let out = WANTED_CLEARANCE.to_mm();
        // Heights of the body are told above the floor as it stands, where the tape is held.
        let up = if panel.faces == PanelFaces::Up { 0.0 } else { stands };
        let cut = covered.reduce(around).map(|axes| {
            let [first, second] = axes.map(|(least, most)| [least - out, most + out]);
            [first, second.map(|height| height + up)]
        });
        let says = SwayMessage::Cut { name: panel.name.clone(), faces: panel.faces, cut }.into();
        let root = DVec3::new(places.axis.0, places.eye_out, places.axis.1);
        let (_, first, second) = plane.axes();
        let mark = [root[first], root[second] + up];
        let at = match plane {
            Plane::Across(at) | Plane::Along(at) => at,
            Plane::Level(at) => at + stands,
        };
        PanelCut {
            panel: panel.name.clone(),
            faces: panel.faces,
            cut_mm: cut,
            at_mm: Length::from_mm(at),
            mark_mm: mark,
            says,
        }
    };
    job.sway.room.panels.iter().map(cut).collect()
}

fn gap_result(
    rod: &BodyName,
    thing: &BodyName,
    (gap, wanted): (Gap, Length),
    (left, right): (f64, f64),
) -> SwayGap {
    let apart = Length::from_mm(gap.distance);
    let (rod, thing) = (rod.clone(), thing.clone());
    let says = SwayMessage::Gap { rod: rod.clone(), thing: thing.clone(), gap: apart, wanted, left, right };
    SwayGap {
        rod: SwayMessage::RodName(rod).into(),
        thing: SwayMessage::Neighbour(thing).into(),
        gap_mm: apart,
        wanted_mm: wanted,
        at_mm: [left, right].map(Length::from_mm),
        between_mm: [gap.on_first, gap.on_second].map(|at| at.to_array()),
        clear: apart >= wanted,
        says: says.into(),
    }
}

/// Bolts that must come out again: as taped, and by what stands in their way as it is driven.
pub(crate) fn bolts(job: &Job, driven: &Posed, places: &Places, around: &Surroundings) -> Vec<FitCheck> {
    job.sway.bolts.iter().filter_map(|bolt| bolt_check(bolt, places, around, driven)).collect()
}

/// Bolts that must come out again, by the room that was taped alone: where nothing else is measured.
pub(crate) fn bolts_as_taped(job: &Job) -> Vec<FitCheck> {
    let judged = |bolt: &ServiceBolt| {
        let taped = bolt.room.as_ref().map(|room| room.length() - bolt.length.length());
        let (verdict, says) = match taped {
            None => (FitVerdict::Open, SwayMessage::BoltOpen.into()),
            Some(over) => bolt_with_room(over, bolt.way.unwrap_or(BoltWay::Outward)),
        };
        FitCheck { name: bolt_name(bolt), verdict, says }
    };
    job.sway.bolts.iter().map(judged).collect()
}

fn bolt_name(bolt: &ServiceBolt) -> Label {
    SwayMessage::CheckName(SwayCheck::ComesOut { bolt: bolt.name.clone() }).into()
}

fn bolt_with_room(over: Length, way: BoltWay) -> (FitVerdict, Message) {
    let verdict = if over < Length::ZERO { FitVerdict::Bad } else { FitVerdict::Good };
    (verdict, SwayMessage::BoltRoom { over, way }.into())
}

/// The way on the left side, and the one that turning the bolt round gives.
fn direction(way: BoltWay) -> (DVec3, BoltWay) {
    match way {
        BoltWay::Outward => (DVec3::Y, BoltWay::Inward),
        BoltWay::Inward => (-DVec3::Y, BoltWay::Outward),
        BoltWay::Forward => (DVec3::X, BoltWay::Back),
        BoltWay::Back => (-DVec3::X, BoltWay::Forward),
        BoltWay::Up => (DVec3::Z, BoltWay::Down),
        BoltWay::Down => (-DVec3::Z, BoltWay::Up),
    }
}

fn bolt_check(
    bolt: &ServiceBolt,
    places: &Places,
    around: &Surroundings,
    driven: &Posed,
) -> Option<FitCheck> {
    let length = bolt.length.length();
    let way = bolt.way.unwrap_or(BoltWay::Outward);
    let taped = bolt.room.as_ref().map(|room| room.length() - length);
    let rods = places.rods(&driven.placing);
    let bodies = around.mechanism.bodies();
    let at = bolt.place.zip(rods).map(|(place, rods)| match place {
        BoltPlace::ArmEye => rods[3][0],
        BoltPlace::FarEnd => rods[3][1],
    });
    // Drawn out by its own length, its head leading: what it runs into first.
    let stopped = |way: BoltWay| {
        let at = at.as_ref()?;
        let along = direction(way).0 * length.to_mm();
        let drawn = [*at + along * 0.5, *at + along * 1.5];
        let beside = around.near().into_iter().filter(|index| bodies[*index].name != BodyName::AxleTube);
        let gaps = beside.filter_map(|index| {
            let gap = around.mechanism.distance_to_rod(driven, index, drawn, defaults::BOLT_HEAD)?;
            Some((index, gap))
        });
        gaps.filter(|(_, gap)| *gap < 0.0)
            .min_by(|a, b| a.1.total_cmp(&b.1))
            .map(|(index, _)| bodies[index].name.clone())
    };
    let (verdict, says) = match (taped, at.is_some(), stopped(way)) {
        (None, false, _) => (FitVerdict::Open, SwayMessage::BoltOpen.into()),
        (_, true, Some(thing)) => {
            let round = direction(way).1;
            let other = stopped(round);
            (FitVerdict::Bad, SwayMessage::BoltStopped { way, thing: thing.clone(), round, other }.into())
        }
        (Some(over), _, _) => bolt_with_room(over, way),
        (None, true, None) => (FitVerdict::Good, SwayMessage::BoltFree { way }.into()),
    };
    Some(FitCheck { name: bolt_name(bolt), verdict, says })
}
