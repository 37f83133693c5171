//! Room for arms and links through everything the axle does, the holes panels want, and bolts that
//! must come out again.

use glam::DVec3;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::form::{BoltPlace, BoltWay, PanelFaces, ServiceBolt};
use super::places::Places;
use super::things::{Thing, Things, placing};
use crate::job::bracket::fit::{FitCheck, FitVerdict};
use crate::job::cycle::words::place;
use crate::job::document::Job;
use crate::measure::phrase::Words;
use crate::measure::{Length, Phrase};
use crate::pose::cycle::Envelope;
use crate::pose::mechanism::{Mechanism, Posed, WANTED_CLEARANCE};
use crate::sway::room::{Outline, Plane, around, covers};

/// Every so many poses of the envelope are looked at: its ends are among them.
pub(super) const STRIDE: usize = 2;
/// Half of a bolt's head (default of this program).
const HEAD: f64 = 10.0;
/// Names of the rods, in the order of [`Places::rods`].
const RODS: [&str; 5] = ["the bar", "the left arm", "the right arm", "the left link", "the right link"];

/// The nearest that a bar, arm or link comes to a thing.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SwayGap {
    /// Which of them, in words.
    pub rod: String,
    /// What it comes near to.
    pub thing: String,
    /// Between their surfaces; negative where they run into each other.
    pub gap_mm: Length,
    /// What is wanted.
    pub wanted_mm: Length,
    /// Wheel travels there, left and right.
    pub at_mm: [Length; 2],
    /// Whether it is enough.
    pub clear: bool,
    /// In words.
    pub says: Phrase,
}

/// The hole that a panel wants where the bar, its arms and links pass it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PanelCut {
    /// The panel.
    pub panel: String,
    /// Which way it faces.
    pub faces: PanelFaces,
    /// The cut line on the left, clearance included: least and most along the panel's first axis,
    /// then its second, mm in vehicle axes at ride height. Forward-facing: left, up. Outward: forward,
    /// up. Up: forward, left. Absent where nothing passes it.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub cut_mm: Option<[[f64; 2]; 2]>,
    /// In words.
    pub says: Phrase,
}

/// Room for arms and links.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RoomResult {
    /// The answer.
    pub says: Phrase,
    /// Nearest to each thing, tightest first.
    pub gaps: Vec<SwayGap>,
    /// Panels and their holes.
    pub cuts: Vec<PanelCut>,
}

struct Nearest {
    gap: f64,
    rod: usize,
    at: (f64, f64),
}

fn allowed(envelope: &Envelope) -> impl Iterator<Item = &Posed> {
    let side = envelope.travels.len();
    let looked_at =
        move |index: &usize| (index / side).is_multiple_of(STRIDE) && (index % side).is_multiple_of(STRIDE);
    (0..envelope.poses.len())
        .filter(looked_at)
        .filter(|index| envelope.allowed[*index])
        .filter_map(|index| envelope.poses[index].as_ref())
}

pub(super) fn room(
    job: &Job,
    mechanism: &Mechanism,
    places: &Places,
    things: &Things,
    (envelope, bar_radius): (&Envelope, f64),
) -> RoomResult {
    let radii = [bar_radius, things.arm_radius, things.arm_radius, things.link_radius, things.link_radius];
    let looked: Vec<&Thing> = things.all.iter().filter(|thing| !thing.stowed_only).collect();
    let mut nearest: Vec<Nearest> =
        looked.iter().map(|_| Nearest { gap: f64::INFINITY, rod: 0, at: (0.0, 0.0) }).collect();
    let planes: Vec<Plane> = job
        .sway
        .room
        .panels
        .iter()
        .map(|panel| {
            let at = panel.at.length().to_mm();
            match panel.faces {
                PanelFaces::Forward => Plane::Across(at),
                PanelFaces::Outward => Plane::Along(at.abs()),
                PanelFaces::Up => Plane::Level(at - super::places::read_at(job).to_mm()),
            }
        })
        .collect();
    let mut outlines: Vec<Option<Outline>> = vec![None; planes.len()];
    for posed in allowed(envelope) {
        let Some(rods) = places.rods(posed) else { continue };
        let placing = placing(mechanism, posed);
        for (thing, nearest) in looked.iter().zip(&mut nearest) {
            let chain = thing.chain(&placing);
            let from = usize::from(thing.holds_bar && !places.on_axle);
            for (index, rod) in rods.into_iter().enumerate().skip(from) {
                let gap = thing.gap(&chain, rod, radii[index]);
                if gap < nearest.gap {
                    *nearest = Nearest { gap, rod: index, at: (posed.left, posed.right) };
                }
            }
        }
        for (plane, outline) in planes.iter().zip(&mut outlines) {
            // The left side stands for both: a panel on the right is cut as its mirror image.
            for (index, [from, to]) in rods.into_iter().enumerate() {
                let mirrored =
                    |at: DVec3| if index == 2 || index == 4 { DVec3::new(at.x, -at.y, at.z) } else { at };
                if let Some(covered) = covers(mirrored(from), mirrored(to), radii[index], *plane) {
                    *outline = Some(outline.map_or(covered, |all| around(all, covered)));
                }
            }
        }
    }
    let mut gaps: Vec<SwayGap> = looked
        .iter()
        .zip(nearest)
        .filter(|(_, nearest)| nearest.gap.is_finite())
        .map(|(thing, nearest)| gap_result(thing, &nearest))
        .collect();
    gaps.sort_by(|a, b| (a.gap_mm - a.wanted_mm).to_mm().total_cmp(&(b.gap_mm - b.wanted_mm).to_mm()));
    let cuts = job.sway.room.panels.iter().zip(outlines).map(|(panel, outline)| {
        let out = WANTED_CLEARANCE.to_mm();
        let cut = outline.map(|axes| axes.map(|(least, most)| [least - out, most + out]));
        let says = cut_says(&panel.name, panel.faces, cut);
        PanelCut { panel: panel.name.clone(), faces: panel.faces, cut_mm: cut, says }
    });
    RoomResult { says: room_says(&gaps), cuts: cuts.collect(), gaps }
}

fn gap_result(thing: &Thing, nearest: &Nearest) -> SwayGap {
    let (gap, wanted) = (Length::from_mm(nearest.gap), thing.wanted);
    let (rod, clear) = (RODS[nearest.rod], gap >= wanted);
    let says = Phrase::of(|w| {
        let at = place(w, nearest.at.0, nearest.at.1);
        let upper = |text: String| text.replacen('t', "T", 1);
        if gap < Length::ZERO {
            upper(format!("{rod} runs into the {} at {at}", thing.name))
        } else {
            let told = if clear { String::new() } else { format!(", {} is wanted", w.distance(wanted)) };
            upper(format!("{rod} comes within {} of the {} at {at}{told}", w.distance(gap), thing.name))
        }
    });
    SwayGap {
        rod: rod.to_owned(),
        thing: thing.name.clone(),
        gap_mm: gap,
        wanted_mm: wanted,
        at_mm: [nearest.at.0, nearest.at.1].map(Length::from_mm),
        clear,
        says,
    }
}

fn room_says(gaps: &[SwayGap]) -> Phrase {
    match gaps.first() {
        None => Phrase::plain("Nothing was measured that arms and links could touch."),
        Some(first) if !first.clear => Phrase::of(|w| format!("{}.", first.says.in_unit(w.unit()))),
        Some(first) => Phrase::of(|w| {
            format!("Arms and links are clear of everything measured. {}.", first.says.in_unit(w.unit()))
        }),
    }
}

fn cut_says(name: &str, faces: PanelFaces, cut: Option<[[f64; 2]; 2]>) -> Phrase {
    let Some([first, second]) = cut else {
        return Phrase::plain(&format!("Nothing passes the {name}: leave it whole."));
    };
    let mm = Length::from_mm;
    Phrase::of(|w| {
        let up = format!("from {} to {} up", w.distance(mm(second[0])), w.distance(mm(second[1])));
        let out = |pair: [f64; 2]| {
            format!(
                "from {} to {} out from the middle",
                signed(w, pair[0], "across"),
                w.distance(mm(pair[1]))
            )
        };
        let fore = |pair: [f64; 2]| {
            let at = |value: f64| {
                let way = if value < 0.0 { "behind" } else { "forward of" };
                format!("{} {way}", w.distance(mm(value)))
            };
            format!("from {} to {} the axle", at(pair[0]), at(pair[1]))
        };
        let where_ = match faces {
            PanelFaces::Forward => format!("{}, {up}", out(first)),
            PanelFaces::Outward => format!("{}, {up}", fore(first)),
            PanelFaces::Up => format!("{}, {}", fore(first), out(second)),
        };
        format!(
            "Cut the {name} {where_}, with {} of room all round, corners rounded; both sides alike.",
            w.distance(WANTED_CLEARANCE)
        )
    })
}

fn signed(w: Words, value: f64, beyond: &str) -> String {
    let told = w.distance(Length::from_mm(value));
    if value < 0.0 { format!("{told} {beyond}") } else { told }
}

/// Bolts that must come out again: as taped, and by what stands in their way at ride height.
pub(super) fn bolts(job: &Job, mechanism: &Mechanism, places: &Places, things: &Things) -> Vec<FitCheck> {
    let ride = mechanism.at_ride_height().ok();
    job.sway
        .bolts
        .iter()
        .filter_map(|bolt| bolt_check(bolt, mechanism, places, things, ride.as_ref()))
        .collect()
}

fn words(way: BoltWay) -> &'static str {
    match way {
        BoltWay::Outward => "outward",
        BoltWay::Inward => "inward",
        BoltWay::Forward => "forward",
        BoltWay::Back => "back",
        BoltWay::Up => "up",
        BoltWay::Down => "down",
    }
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
    mechanism: &Mechanism,
    places: &Places,
    things: &Things,
    ride: Option<&Posed>,
) -> Option<FitCheck> {
    let name = format!("{} comes out again", bolt.name);
    let length = bolt.length.length();
    let way = bolt.way.unwrap_or(BoltWay::Outward);
    let taped = bolt.room.as_ref().map(|room| room.length() - length);
    let rods = ride.and_then(|posed| Some((posed, places.rods(posed)?)));
    let at = bolt.place.zip(rods).map(|(place, (posed, rods))| {
        let at = match place {
            BoltPlace::ArmEye => rods[3][0],
            BoltPlace::FarEnd => rods[3][1],
        };
        (at, placing(mechanism, posed))
    });
    // Drawn out by its own length, its head leading: what it runs into first.
    let stopped = |way: BoltWay| {
        let (at, placing) = at.as_ref()?;
        let along = direction(way).0 * length.to_mm();
        let drawn = [*at + along * 0.5, *at + along * 1.5];
        let beside = things.all.iter().filter(|thing| !thing.stowed_only);
        let gaps = beside.map(|thing| (thing, thing.gap(&thing.chain(placing), drawn, HEAD)));
        gaps.filter(|(_, gap)| *gap < 0.0)
            .min_by(|a, b| a.1.total_cmp(&b.1))
            .map(|(thing, _)| thing.name.clone())
    };
    let (verdict, says) = match (taped, at.is_some(), stopped(way)) {
        (None, false, _) => (
            FitVerdict::Open,
            Phrase::plain("Tape the room in front of its head, or say where it goes through."),
        ),
        (_, true, Some(thing)) => {
            let round = direction(way).1;
            let turned = match stopped(round) {
                None => format!("turn it round, it comes out {}", words(round)),
                Some(other) => format!("nor {}: the {other} is there", words(round)),
            };
            let says = format!("It does not come out {}: the {thing} is in its way; {turned}.", words(way));
            (FitVerdict::Bad, Phrase::plain(&says))
        }
        (Some(over), _, _) if over < Length::ZERO => (
            FitVerdict::Bad,
            Phrase::of(|w| {
                format!(
                    "{} short: turn it round before a tab is welded or the rail is in the way.",
                    w.distance(over)
                )
            }),
        ),
        (Some(over), _, _) => {
            (FitVerdict::Good, Phrase::of(|w| format!("{} to spare, {}.", w.distance(over), words(way))))
        }
        (None, true, None) => {
            (FitVerdict::Good, Phrase::plain(&format!("Nothing measured stands in its way {}.", words(way))))
        }
    };
    Some(FitCheck { name, verdict, says })
}
