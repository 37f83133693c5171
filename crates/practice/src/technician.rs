//! Hands that read a vehicle with their tape and write down what it shows. All that gets into a job comes from here.

use crate::ground_truth::{Feature, TrueObstacle};
use derecho_core::measure::centring::Centring;
use derecho_core::measure::print::{Style, written};
use derecho_core::measure::{Length, Side, TapeEntry, Unit};
use derecho_job::Job;
use derecho_job::bar::further::Further;
use derecho_job::document::migrate::parsed;
use derecho_job::document::{Conditions, Method, RoundId, Sheet, SheetKind};
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};
use utoipa::ToSchema;

use crate::vehicle::{PracticeVehicle, Stance};

/// How somebody works.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Technician {
    /// Bounces it before every reading, leans on nothing, repeats, and reads again where told to.
    Careful,
    /// Reads once or twice, leans on the fender, does not always bounce it, and ticks what was not done.
    Hurried,
}

/// What a careful tape scatters by, and a hurried one.
const CAREFUL: Length = Length::from_mm(1.0);
const HURRIED: Length = Length::from_mm(1.5);
/// Repeats of a careful sheet on either side.
const REPEATS: usize = 4;

/// A length as somebody writes it off the tape.
pub(crate) fn typed(length: Length, unit: Unit) -> TapeEntry {
    let style = match unit {
        Unit::Inches => Style::Sixteenths,
        Unit::Millimetres => Style::TenthMillimetres,
    };
    let text = written(length, style);
    // What the program prints it reads.
    TapeEntry::parse(&text, unit).unwrap_or_else(|_| unreachable!("{text} is a length"))
}

fn entry(length: Length, unit: Unit) -> Value {
    let entry = typed(length, unit);
    json!({ "text": entry.text(), "unit": unit })
}

/// A feature as the form calls it.
#[must_use]
pub const fn method(feature: Feature) -> Method {
    match feature {
        Feature::Hub => Method::FrameToHub,
        Feature::Sidewall => Method::FrameToSidewall,
        Feature::Body => Method::BodyToSidewall,
    }
}

/// The feature of a form's method.
#[must_use]
pub const fn feature(method: Method) -> Option<Feature> {
    match method {
        Method::FrameToHub => Some(Feature::Hub),
        Method::FrameToSidewall => Some(Feature::Sidewall),
        Method::BodyToSidewall => Some(Feature::Body),
        Method::Own => None,
    }
}

/// What hangs near the bar, as it is typed.
fn obstacle_typed(obstacle: &TrueObstacle, unit: Unit, tape: &mut impl FnMut(Length) -> Value) -> Value {
    let [from, to] = obstacle.ends.map(|end| {
        let place = end.vector();
        json!({
            "height": tape(Length::from_mm(place.z)),
            "sideways": tape(Length::from_mm(place.y.abs())),
            "fore_aft": entry(Length::from_mm(place.x.round()), unit),
        })
    });
    json!({ "name": "crossmember bolt", "on": "body", "side": Side::of(obstacle.ends[0].vector().y),
        "from": from, "to": to, "thickness": tape(obstacle.radius * 2.0), "room": "usual" })
}

impl Technician {
    const fn noise(self) -> Length {
        match self {
            Self::Careful => CAREFUL,
            Self::Hurried => HURRIED,
        }
    }

    /// Which feature somebody goes to at first.
    pub(crate) fn chooses(self, vehicle: &mut PracticeVehicle) -> Feature {
        match (vehicle.chance(), self) {
            (chance, Self::Careful) if chance < 0.8 => Feature::Hub,
            (chance, Self::Hurried) if chance < 0.4 => Feature::Hub,
            (chance, _) if chance < 0.9 => Feature::Sidewall,
            _ => Feature::Body,
        }
    }

    /// One reading on one side, as these hands take it.
    fn reading(self, vehicle: &mut PracticeVehicle, feature: Feature, side: Side, bounced: bool) -> Length {
        if bounced && self == Self::Careful {
            vehicle.bounce();
        }
        vehicle.read(feature, side, self.noise())
    }

    /// A sheet of readings on both sides.
    pub fn sheet(self, vehicle: &mut PracticeVehicle, feature: Feature, id: String, after: RoundId) -> Sheet {
        self.sheet_where(vehicle, feature, (id, after), true)
    }

    /// A sheet of readings on both sides; where it is not `bounced`, of the axle as its bushings hold it.
    pub(crate) fn sheet_where(
        self,
        vehicle: &mut PracticeVehicle,
        feature: Feature,
        (id, after): (String, RoundId),
        bounced: bool,
    ) -> Sheet {
        let hurried = self == Self::Hurried;
        let repeats = match self {
            Self::Careful => REPEATS,
            Self::Hurried => 1 + usize::from(vehicle.chance() < 0.5),
        };
        vehicle.leant_on = hurried && vehicle.chance() < 0.3;
        if hurried && vehicle.chance() < 0.7 && bounced {
            vehicle.bounce();
        }
        let unit = vehicle.unit;
        let mut side = |side| -> Vec<Option<TapeEntry>> {
            (0..repeats).map(|_| Some(typed(self.reading(vehicle, feature, side, bounced), unit))).collect()
        };
        let (left, right) = (side(Side::Left), side(Side::Right));
        vehicle.leant_on = false;
        Sheet {
            id,
            kind: SheetKind::Centring,
            after,
            method: method(feature),
            unit,
            left,
            right,
            conditions: Conditions {
                on_its_weight: Some(vehicle.stance == Stance::OnItsWeight),
                wheels_straight: Some(true),
                pressures_equal: Some(true),
                // A hurried hand ticks what it would like to be so.
                leant_on: Some(false),
            },
            ..Sheet::default()
        }
    }

    /// The job as these hands begin it: the rig, the bar, and the first sheet.
    pub fn job(self, vehicle: &mut PracticeVehicle) -> Job {
        let feature = self.chooses(vehicle);
        let mut job = self.rig(vehicle);
        let sheet = self.sheet(vehicle, feature, "as-found".to_owned(), RoundId::default());
        job.sheets.push(sheet);
        job
    }

    /// Everything but the sheets.
    pub(crate) fn rig(self, vehicle: &mut PracticeVehicle) -> Job {
        let (unit, noise) = (vehicle.unit, self.noise());
        let ground_truth = vehicle.ground_truth.clone();
        let [frame_eye, axle_eye] = vehicle.read_eyes(noise);
        let bar = vehicle.read_bar(noise);
        let mut tape = |length: Length| entry(vehicle.taped(length, noise), unit);
        let obstacle =
            ground_truth.obstacle.as_ref().map(|obstacle| obstacle_typed(obstacle, unit, &mut tape));
        let eye = entry(Length::from_mm(ground_truth.axle_eye.vector().x.round()), unit);
        let frame_eye_out = tape(Length::from_mm(ground_truth.frame_eye.vector().y.abs()));
        let thread = |hand: &str, vehicle: &PracticeVehicle, end: usize| {
            json!({ "thread": vehicle.thread.name, "hand": hand, "seat": "steel",
                "engagement": entry(vehicle.graduated(vehicle.engagement[end]), unit),
                "tapped_depth": entry(vehicle.graduated(vehicle.depth), unit) })
        };
        let document = json!({
            "format": "derecho-job",
            "version": 7,
            "title": "Practice vehicle",
            "rig": {
                "vehicle": "a made-up vehicle that exists only in this program",
                "sheet_unit": unit,
                "end": if vehicle.rear { "rear" } else { "front" },
                "steering_side": "left",
                "frame_eye_side": ground_truth.frame_eye_side,
                "axle_location": "three_arms",
                "use": "trails",
                "bump": entry(vehicle.graduated(ground_truth.bump), unit),
                "droop": entry(vehicle.graduated(ground_truth.droop), unit),
                "axle_height": entry(vehicle.graduated(ground_truth.axle_height), unit),
            },
            "hardpoints": {
                "bar": { "axle_eye_fore_aft": eye, "diameter": entry(vehicle.graduated(ground_truth.bar_radius * 2.0), unit) },
                "obstacles": obstacle.into_iter().collect::<Vec<_>>(),
            },
            "setups": { "found": {
                "bar": {
                    "length": entry(bar, unit),
                    "frame_eye_height": entry(frame_eye, unit),
                    "axle_eye_height": entry(axle_eye, unit),
                    "frame_eye_from_centre": frame_eye_out,
                    "read": "as_it_stands",
                    "bent": false,
                },
                "adjuster": {
                    "kind": "turnbuckle",
                    "first": thread("right", vehicle, 0),
                    "second": thread("left", vehicle, 1),
                },
            } },
        });
        // The document's own form, and lengths that were printed by the program itself.
        parsed(document.to_string().as_bytes()).unwrap_or_else(|fault| unreachable!("{fault}"))
    }

    /// Takes the further reading that was advised.
    pub fn read_further(self, vehicle: &mut PracticeVehicle, job: &mut Job, further: Further) {
        let unit = vehicle.unit;
        let after = job.setups.last_round();
        match further {
            Further::RepeatLeft | Further::RepeatRight => {
                let Some(sheet) = job.sheets.last_mut() else { return };
                let Some(feature) = feature(sheet.method) else { return };
                let side = if further == Further::RepeatLeft { Side::Left } else { Side::Right };
                let reading = Some(typed(self.reading(vehicle, feature, side, true), unit));
                if side == Side::Left { sheet.left.push(reading) } else { sheet.right.push(reading) }
            }
            Further::BetterFeature => {
                let id = format!("again-{}", job.sheets.len());
                let sheet = self.sheet(vehicle, Feature::Hub, id, after.clone());
                job.sheets.push(sheet);
            }
            Further::HeightsAgain | Further::Finder => {
                // The mean of both.
                let heights = vehicle.read_eyes(self.noise());
                let bar = &mut job.setups.found.bar;
                for (field, again) in
                    [&mut bar.frame_eye_height, &mut bar.axle_eye_height].into_iter().zip(heights)
                {
                    let mean = field.as_ref().map_or(again, |first| (first.length() + again) / 2.0);
                    *field = Some(typed(mean, unit));
                }
            }
        }
    }
}

/// Whether a sheet tells where the axle is, well enough to set it by.
#[must_use]
pub fn can_be_reported(centring: &Centring) -> bool {
    use derecho_core::measure::centring::Answer;
    centring.answer != Answer::CannotTell && centring.method_can_prove
}
