//! The sheets of a job: each worked out, and whether it may drive a correction.

use crate::usual;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::document::{Job, Method, Rig, Sheet, SheetKind};
use derecho_core::measure::centring::{Answer, Centring, Readings, centring, range};
use derecho_core::measure::squareness::{AxleEnd, Squareness, squareness};
use derecho_core::measure::{Angle, AngleEntry, Length, Phrase, TapeEntry, Unit};

/// A sheet worked out.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SheetResult {
    /// The sheet's id.
    pub id: String,
    /// What it measures.
    pub kind: SheetKind,
    /// Whether it was read since the bar was last set.
    pub current: bool,
    /// Whether it may drive a correction.
    pub usable: bool,
    /// Why not.
    pub refusals: Vec<Phrase>,
    /// Second thoughts: what to look at again.
    pub second_thoughts: Vec<Phrase>,
    /// The answer in one sentence, where there is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub says: Option<Phrase>,
    /// How sure, and what to do.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub advice: Option<Phrase>,
    /// Of a centring or stick-out sheet.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub centring: Option<Centring>,
    /// Of a squareness sheet.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub squareness: Option<Squareness>,
}

/// A named default for a feature's standard uncertainty.
#[must_use]
pub fn feature_uncertainty(sheet: &Sheet) -> Length {
    match sheet.method {
        Method::FrameToHub => Length::from_mm(0.8),
        Method::FrameToSidewall => Length::from_mm(1.5),
        Method::BodyToSidewall => Length::from_mm(3.0),
        Method::Own => sheet.feature_uncertainty.as_ref().map_or(Length::from_mm(1.5), TapeEntry::length),
    }
}

/// What counts as centred on this rig.
#[must_use]
pub fn tolerance(rig: &Rig) -> Length {
    rig.tolerance.as_ref().map_or(usual::TOLERANCE, TapeEntry::length)
}

pub(crate) fn graduation(sheet: &Sheet) -> Length {
    sheet.resolution.as_ref().map_or(
        match sheet.unit {
            Unit::Inches => Length::from_inches(1.0 / 16.0),
            Unit::Millimetres => Length::from_mm(1.0),
        },
        TapeEntry::length,
    )
}

/// The readings of a side, empty places passed over.
#[must_use]
pub fn lengths(entries: &[Option<TapeEntry>]) -> Vec<Length> {
    entries.iter().flatten().map(TapeEntry::length).collect()
}

fn both(a: &Option<TapeEntry>, b: &Option<TapeEntry>) -> Option<(Length, Length)> {
    Some((a.as_ref()?.length(), b.as_ref()?.length()))
}

/// Mean height of the frame above the hubs, where both sides were read.
#[must_use]
pub fn stance(sheet: &Sheet) -> Option<Length> {
    both(&sheet.frame_above_hub_left, &sheet.frame_above_hub_right).map(|(left, right)| (left + right) / 2.0)
}

/// Roll of the axle against the body from the frame's height above both hubs: the
/// higher wheel has less above it. Positive when the left wheel is higher.
fn roll(sheet: &Sheet, track: Option<Length>) -> Option<Angle> {
    let (left, right) = both(&sheet.frame_above_hub_left, &sheet.frame_above_hub_right)?;
    let sine = (right - left) / track?;
    (sine.abs() < 1.0).then(|| Angle::from_radians(sine.asin()))
}

/// Works a centring or stick-out sheet out; `None` while one side is empty.
#[must_use]
pub fn work_out(sheet: &Sheet, rig: &Rig) -> Option<Centring> {
    let track = rig.track.as_ref().map(TapeEntry::length);
    let slope = rig.floor_slope.as_ref().map(AngleEntry::angle);
    centring(&Readings {
        left: &lengths(&sheet.left),
        right: &lengths(&sheet.right),
        sense: sheet.sense,
        feature_uncertainty: feature_uncertainty(sheet),
        resolution: graduation(sheet),
        usual_spread: rig.usual_spread.as_ref().map_or(usual::SPREAD, TapeEntry::length),
        tolerance: tolerance(rig),
        plumb: sheet.plumb_drop.as_ref().map(TapeEntry::length).zip(slope),
        lean: sheet.height_above_axle.as_ref().map(TapeEntry::length).zip(roll(sheet, track)),
    })
}

/// Every sheet of a job.
#[must_use]
pub fn results(job: &Job) -> Vec<SheetResult> {
    job.sheets.iter().map(|sheet| result(sheet, job)).collect()
}

fn result(sheet: &Sheet, job: &Job) -> SheetResult {
    let current = sheet.after_setting as usize == job.setups.as_built.len();
    let mut refusals = refusals(sheet, &job.rig);
    if !current {
        refusals.push(Phrase::plain(
            "The bar has been set since these readings. They stay in the record; read again for the next step.",
        ));
    }
    let mut result = SheetResult {
        id: sheet.id.clone(),
        kind: sheet.kind,
        current,
        usable: false,
        refusals,
        second_thoughts: second_thoughts(sheet, &job.rig),
        says: None,
        advice: None,
        centring: None,
        squareness: None,
    };
    match sheet.kind {
        SheetKind::Squareness => {
            result.squareness = work_out_squareness(sheet, &job.rig);
            result.says = result.squareness.as_ref().map(squareness_says);
        }
        SheetKind::Centring | SheetKind::StickOut => {
            result.centring = work_out(sheet, &job.rig);
            if let Some(centring) = &result.centring {
                result.says = Some(says(sheet.kind, centring, &job.rig));
                result.advice = Some(advice(sheet.kind, centring));
            }
            result.usable =
                sheet.kind == SheetKind::Centring && result.centring.is_some() && result.refusals.is_empty();
        }
    }
    result
}

fn work_out_squareness(sheet: &Sheet, rig: &Rig) -> Option<Squareness> {
    let spread = rig.usual_spread.as_ref().map_or(usual::SPREAD, TapeEntry::length);
    let count = lengths(&sheet.left).len().min(lengths(&sheet.right).len()).max(1) as f64;
    let of_mean = derecho_core::measure::length::in_quadrature(&[
        spread / count.sqrt(),
        graduation(sheet) / 12.0_f64.sqrt(),
    ]);
    squareness(
        rig.end.unwrap_or(AxleEnd::Rear),
        &lengths(&sheet.left),
        &lengths(&sheet.right),
        sheet.between_points.as_ref()?.length(),
        of_mean,
    )
}

fn squareness_says(square: &Squareness) -> Phrase {
    let degrees = square.yaw_deg.to_degrees();
    let side = if degrees >= 0.0 { "left" } else { "right" };
    Phrase::of(|w| {
        if square.yaw_deg.abs() <= square.uncertainty_deg {
            format!(
                "Square as far as these readings tell: {:.2}° ± {:.2}°",
                degrees.abs(),
                square.uncertainty_deg.to_degrees()
            )
        } else {
            format!(
                "The axle points {:.2}° to the {side}: the wheelbases differ by {}",
                degrees.abs(),
                w.distance(square.difference_mm)
            )
        }
    })
}

/// Why a sheet, stored as it is, drives no correction; staleness aside.
fn refusals(sheet: &Sheet, rig: &Rig) -> Vec<Phrase> {
    let mut refusals = Vec::new();
    if sheet.conditions.on_its_weight == Some(false) {
        refusals.push(Phrase::plain(
            "Read while hanging: the bar stands at another angle and the axle somewhere else. Set it on its own weight, bounce it, and read again.",
        ));
    }
    if !sheet.height.is_empty()
        && crate::document::heights::offset_of(rig, &sheet.height)
            != crate::document::heights::driven_offset(rig)
    {
        let driven = if rig.driven_height.is_empty() {
            crate::document::heights::RIDE_HEIGHT
        } else {
            &rig.driven_height
        };
        refusals.push(Phrase::plain(&format!(
            "Read at {}, but it is driven at {driven}: the axle moves sideways between the two. Read again at {driven}.",
            sheet.height
        )));
    }
    refusals
}

fn second_thoughts(sheet: &Sheet, rig: &Rig) -> Vec<Phrase> {
    let mut thoughts = Vec::new();
    let spread = rig.usual_spread.as_ref().map_or(usual::SPREAD, TapeEntry::length);
    let apart: Vec<(&str, Length)> = [("left", &sheet.left), ("right", &sheet.right)]
        .into_iter()
        .map(|(side, entries)| (side, range(&lengths(entries))))
        .filter(|(_, range)| *range > spread * usual::SUSPICIOUS_SPREADS)
        .collect();
    if !apart.is_empty() {
        thoughts.push(Phrase::of(|w| {
            let told: Vec<String> = apart
                .iter()
                .map(|(side, range)| format!("on the {side} by {}", w.distance(*range)))
                .collect();
            format!(
                "The repeats disagree: {}. Was somebody leaning on it, or was the tape on another edge?",
                told.join(", ")
            )
        }));
    }
    let counts = (lengths(&sheet.left).len(), lengths(&sheet.right).len());
    if counts.0.min(counts.1) > 0 && counts.0.min(counts.1) < usual::REPEATS_WANTED {
        thoughts.push(Phrase::plain("Read each side three or four times: repeats show how sure it is."));
    }
    let conditions = &sheet.conditions;
    if counts.0 + counts.1 > 0 && conditions.on_its_weight.is_none() {
        thoughts.push(Phrase::plain("Tick whether it stood on its own weight; hanging readings are no use."));
    }
    for (said, thought) in [
        (
            conditions.leant_on == Some(true),
            "It was leant on between repeats. That moves a reading by 1/8\" (3 mm): bounce it and read again.",
        ),
        (
            conditions.wheels_straight == Some(false),
            "The wheels were not straight: a turned wheel moves its sidewall. Straighten them and read again.",
        ),
        (
            conditions.pressures_equal == Some(false),
            "The tyres were not alike: level their pressures, or read to the hubs.",
        ),
    ] {
        if said {
            thoughts.push(Phrase::plain(thought));
        }
    }
    if sheet.kind == SheetKind::Centring
        && sheet.method == Method::BodyToSidewall
        && (sheet.plumb_drop.is_none() || rig.floor_slope.is_none())
    {
        thoughts.push(Phrase::plain(
            "A plumb line leans with the floor. Use a level floor, or type the floor's slope (stage Rig) and how far the line hangs.",
        ));
    }
    if let Some((left, right)) = both(&sheet.frame_above_hub_left, &sheet.frame_above_hub_right)
        && (left - right).abs() > usual::LEAN_WORTH_ASKING
        && (sheet.height_above_axle.is_none() || rig.track.is_none())
    {
        thoughts.push(Phrase::of(|w| {
            format!(
                "The frame stands {} higher on one side. Read at hub height, or type how high above the axle the tape was, and the track width.",
                w.distance(left - right)
            )
        }));
    }
    thoughts
}

fn what(kind: SheetKind) -> &'static str {
    match kind {
        SheetKind::StickOut => "The sway bar",
        SheetKind::Centring | SheetKind::Squareness => "The axle",
    }
}

fn says(kind: SheetKind, centring: &Centring, rig: &Rig) -> Phrase {
    let seat = rig
        .steering_side
        .map_or(String::new(), |steering| format!(", the {}", centring.side.seat_word(steering)));
    Phrase::of(|w| match centring.answer {
        Answer::OffCentre => match w.sideways(centring.offset_mm) {
            rounded if rounded == "centred" => format!("{} is off by less than the tape shows", what(kind)),
            sideways => format!("{} sits {sideways}{seat}", what(kind)),
        },
        Answer::CannotTell => "Cannot be told from centred".to_owned(),
        Answer::WithinTolerance => format!("Centred within {}", w.distance(centring.tolerance_mm)),
    })
}

fn advice(kind: SheetKind, centring: &Centring) -> Phrase {
    Phrase::of(|w| {
        let sure = format!("give or take {}", w.fine(centring.uncertainty_mm));
        let best = w.sideways(centring.offset_mm);
        let mut text = match centring.answer {
            Answer::OffCentre if kind == SheetKind::StickOut => {
                format!(
                    "Half the difference, {sure}. Slide it {} to the {}.",
                    w.distance(centring.offset_mm),
                    centring.side.other().word()
                )
            }
            Answer::OffCentre => format!("Half the difference of the two sides, {sure}."),
            Answer::CannotTell => format!(
                "The readings say {best}, {sure}. Repeat them, more carefully or more often, or use a better feature, before anything is turned."
            ),
            Answer::WithinTolerance => format!("The readings say {best}, {sure}."),
        };
        if !centring.method_can_prove {
            text.push_str(&format!(
                " As read, this cannot prove {}: it is not sure enough. It takes more repeats that agree, or a better feature.",
                w.distance(centring.tolerance_mm)
            ));
        }
        text
    })
}
