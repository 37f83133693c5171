//! Room for arms and links through everything the axle does, the holes panels want, and bolts that
//! must come out again.

use crate::usual;
use glam::DVec3;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::cycle::words::place;
use crate::document::Job;
use crate::document::sway::{BoltPlace, BoltWay, PanelFaces, PanelForm, ServiceBolt};
use crate::sway::places::Places;
use crate::sway::things::{Swept, Thing, Things, placing};
use crate::verdict::{FitCheck, FitVerdict};
use derecho_core::measure::phrase::Words;
use derecho_core::measure::{Length, Phrase};
use derecho_core::pose::mechanism::{Mechanism, Posed, WANTED_CLEARANCE};
use derecho_core::sway::room::{Plane, around, covers};

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
    /// The middle of the bar over its left arm, in the same axes: where a template is laid from.
    pub mark_mm: [f64; 2],
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

pub(crate) fn room(
    job: &Job,
    places: &Places,
    things: &Things,
    swept: &Swept,
    bar_radius: f64,
) -> RoomResult {
    let radii = [bar_radius, things.arm_radius, things.arm_radius, things.link_radius, things.link_radius];
    let mut gaps: Vec<SwayGap> = things
        .all
        .iter()
        .filter(|thing| !thing.stowed_only)
        .filter_map(|thing| {
            // What holds the bar is no obstacle to it.
            let first = usize::from(thing.holds_bar && !places.on_axle);
            let (gap, rod, pose) = swept.least(|pose, below| {
                let Some(rods) = pose.rods else { return (f64::INFINITY, 0) };
                let rods: [_; 5] = std::array::from_fn(|index| (rods[index], radii[index]));
                thing.nearest(&pose.placing, &rods[first..], below)
            })?;
            Some(gap_result(thing, &Nearest { gap, rod: rod + first, at: pose.at }))
        })
        .collect();
    gaps.sort_by(|a, b| (a.gap_mm - a.wanted_mm).to_mm().total_cmp(&(b.gap_mm - b.wanted_mm).to_mm()));
    RoomResult { says: room_says(&gaps), cuts: cuts(job, places, swept, radii), gaps }
}

/// What bar, arms and links cover of each panel over all poses.
fn cuts(job: &Job, places: &Places, swept: &Swept, radii: [f64; 5]) -> Vec<PanelCut> {
    let read_at = crate::sway::places::read_at(job).to_mm();
    let cut = |panel: &PanelForm| {
        let at = panel.at.length().to_mm();
        let plane = match panel.faces {
            PanelFaces::Forward => Plane::Across(at),
            PanelFaces::Outward => Plane::Along(at.abs()),
            PanelFaces::Up => Plane::Level(at - read_at),
        };
        let covered = swept.all().filter_map(|pose| pose.rods).flat_map(|rods| {
            rods.into_iter().enumerate().filter_map(move |(index, [from, to])| {
                // The left side stands for both: a panel on the right is cut as its mirror image.
                let mirrored =
                    |at: DVec3| if index == 2 || index == 4 { at * DVec3::new(1.0, -1.0, 1.0) } else { at };
                covers(mirrored(from), mirrored(to), radii[index], plane)
            })
        });
        let out = WANTED_CLEARANCE.to_mm();
        let cut = covered.reduce(around).map(|axes| axes.map(|(least, most)| [least - out, most + out]));
        let says = cut_says(&panel.name, panel.faces, cut);
        let root = DVec3::new(places.axis.0, places.eye_out, places.axis.1);
        let (_, first, second) = plane.axes();
        let mark = [root[first], root[second]];
        PanelCut { panel: panel.name.clone(), faces: panel.faces, cut_mm: cut, mark_mm: mark, says }
    };
    job.sway.room.panels.iter().map(cut).collect()
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
pub(crate) fn bolts(job: &Job, mechanism: &Mechanism, places: &Places, things: &Things) -> Vec<FitCheck> {
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
        let gaps = beside.map(|thing| (thing, thing.gap(&thing.chain(placing), drawn, usual::BOLT_HEAD)));
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
