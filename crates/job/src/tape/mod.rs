//! Sheets of readings: each worked out, and whether it may drive a correction. `words` makes the
//! sentences of it. Not here: which round's sheet is corrected; `setups` decides that.

pub mod message;
mod readings;
mod refusal;
mod second_thoughts;

use crate::defaults;
use crate::message::Message;
use crate::tape::message::TapeMessage;
use serde::Serialize;
use utoipa::ToSchema;

use self::readings::both;
pub use self::readings::lengths;
pub use self::refusal::Refusal;
use self::second_thoughts::second_thoughts;
use crate::document::heights;
use crate::document::{Job, Method, Rig, Sheet, SheetKind};
use derecho_core::measure::centring::{Answer, Centring, Readings, centring};
use derecho_core::measure::length::in_quadrature;
use derecho_core::measure::squareness::{AxleEnd, Squareness, squareness};
use derecho_core::measure::{Angle, AngleEntry, Length, TapeEntry, Unit};

/// A sheet worked out.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
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
    pub refused: Vec<Refusal>,
    /// The same in words.
    pub refusals: Vec<Message>,
    /// Second thoughts: what to look at again.
    pub second_thoughts: Vec<Message>,
    /// The answer in one sentence, where there is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub says: Option<Message>,
    /// How sure, and what to do.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub advice: Option<Message>,
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
        Method::FrameToHub => defaults::HUB_FEATURE,
        Method::FrameToSidewall => defaults::SIDEWALL_FEATURE,
        Method::BodyToSidewall => defaults::BODY_FEATURE,
        Method::Own => sheet.feature_uncertainty.as_ref().map_or(defaults::OWN_FEATURE, TapeEntry::length),
    }
}

/// Standard uncertainty that the instrument brings to an offset: each side's reading is good to its ±, two deviations,
/// and half the difference of two such is off by a root of two less.
pub(crate) fn instrument_uncertainty(sheet: &Sheet) -> Length {
    sheet.instrument.as_ref().map_or(Length::ZERO, |one| one.good_to.length().abs() / 2.0 / 2.0_f64.sqrt())
}

/// Standard uncertainty of the best feature there is, read with the same instrument.
pub(crate) fn better_feature(sheet: &Sheet) -> Length {
    in_quadrature(&[defaults::HUB_FEATURE, instrument_uncertainty(sheet)])
}

/// What counts as centred on this rig.
#[must_use]
pub fn tolerance(rig: &Rig) -> Length {
    rig.tolerance.as_ref().map_or(defaults::TOLERANCE, TapeEntry::length)
}

pub(crate) fn graduation(sheet: &Sheet) -> Length {
    let own = sheet.instrument.as_ref().map(|instrument| &instrument.resolution);
    sheet.resolution.as_ref().or(own).map_or(
        match sheet.unit {
            Unit::Inches => Length::from_inches(1.0 / 16.0),
            Unit::Millimetres => Length::from_mm(1.0),
        },
        TapeEntry::length,
    )
}

/// Whether two sheets are of one reference point, whose error they share. Features of one's own are alike where they go by
/// one name.
pub(crate) fn same_feature(one: &Sheet, other: &Sheet) -> bool {
    let feature = |sheet: &Sheet| (sheet.method, sheet.sense, sheet.method_name.trim().to_lowercase());
    feature(one) == feature(other)
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
        feature_uncertainty: in_quadrature(&[feature_uncertainty(sheet), instrument_uncertainty(sheet)]),
        resolution: graduation(sheet),
        usual_spread: rig.usual_spread.as_ref().map_or(defaults::SPREAD, TapeEntry::length),
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

fn refusal_says(refusal: Refusal, sheet: &Sheet, rig: &Rig) -> Message {
    let called = |height| heights::name_of(rig, height).to_owned();
    let (read_at, driven_at) = (called(&sheet.height), called(&rig.driven_height));
    TapeMessage::Refusal { refusal, read_at, driven_at }.into()
}

fn result(sheet: &Sheet, job: &Job) -> SheetResult {
    // A sway bar lies in its clamps as it does whatever is done to the axle, and however it stands.
    let of_the_axle = sheet.kind != SheetKind::StickOut;
    let current =
        !of_the_axle || job.setups.axle_rounds_before(&sheet.after) == job.setups.axle_rounds().len();
    let mut refused = if of_the_axle { refused(sheet, &job.rig) } else { Vec::new() };
    if !current {
        refused.push(Refusal::Stale);
    }
    let mut result = SheetResult {
        id: sheet.id.clone(),
        kind: sheet.kind,
        current,
        usable: false,
        refusals: refused.iter().map(|refusal| refusal_says(*refusal, sheet, &job.rig)).collect(),
        refused,
        second_thoughts: second_thoughts(sheet, &job.rig)
            .into_iter()
            .map(|thought| TapeMessage::SecondThought(thought).into())
            .collect(),
        says: None,
        advice: None,
        centring: None,
        squareness: None,
    };
    match sheet.kind {
        SheetKind::Squareness => {
            result.squareness = work_out_squareness(sheet, &job.rig);
            result.says = result
                .squareness
                .as_ref()
                .map(|square| TapeMessage::SquarenessSays { square: square.clone() }.into());
        }
        SheetKind::Centring | SheetKind::StickOut => {
            result.centring = work_out(sheet, &job.rig);
            if let Some(centring) = &result.centring {
                result.says = Some(
                    TapeMessage::Says {
                        kind: sheet.kind,
                        centring: centring.clone(),
                        steering: job.rig.steering_side,
                    }
                    .into(),
                );
                result.advice = Some(
                    TapeMessage::Advice {
                        kind: sheet.kind,
                        centring: centring.clone(),
                        steering: job.rig.steering_side,
                    }
                    .into(),
                );
            }
            result.usable =
                sheet.kind == SheetKind::Centring && result.centring.is_some() && result.refused.is_empty();
        }
    }
    result
}

fn work_out_squareness(sheet: &Sheet, rig: &Rig) -> Option<Squareness> {
    let spread = rig.usual_spread.as_ref().map_or(defaults::SPREAD, TapeEntry::length);
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

/// Why a sheet, stored as it is, drives no correction; staleness aside.
fn refused(sheet: &Sheet, rig: &Rig) -> Vec<Refusal> {
    let mut refused = Vec::new();
    if sheet.conditions.on_its_weight == Some(false) {
        refused.push(Refusal::Hanging);
    }
    if !sheet.height.is_empty() && heights::offset_of(rig, &sheet.height) != heights::driven_offset(rig) {
        refused.push(Refusal::OtherHeight);
    }
    refused
}

impl SheetResult {
    /// Whether the sheet itself may drive a correction, in whatever round it was read.
    #[must_use]
    pub fn drives(&self) -> bool {
        self.refused.iter().all(|refusal| *refusal == Refusal::Stale)
    }

    /// Whether it says centred within the tolerance.
    #[must_use]
    pub fn centred(&self) -> bool {
        self.centring.as_ref().is_some_and(|centring| centring.answer == Answer::WithinTolerance)
    }
}
