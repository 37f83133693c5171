//! Two jobs at the two ends of one vehicle: what the one knows of the vehicle that the other does not, or says
//! otherwise. It is offered, with its field; nothing is changed from here.
//!
//! Not here: which jobs there are.

use crate::assembly::message::{AssumedMessage, FieldOf, VehicleField};
use crate::message::Label;
use serde::Serialize;
use serde_json::{Value, json};
use utoipa::ToSchema;

use crate::assembly::assemble;
use crate::document::Job;
use crate::document::migrate::{as_value, with_values};
use crate::document::sway::SwayKind;
use crate::setups::Resolved;

/// A figure of the vehicle that the other job knows.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Offer {
    /// The field of this job, as a JSON pointer.
    pub pointer: String,
    /// What it is.
    #[schema(value_type = String)]
    pub name: Label,
    /// What this job says, as typed; empty where it says nothing.
    pub here: String,
    /// What the other job says, as typed.
    pub there: String,
    /// The value for the field.
    #[serde(serialize_with = "derecho_core::measure::figure::exactly")]
    #[schema(value_type = serde_json::Value)]
    pub value: Value,
}

/// Fields that are the same at both ends: a name, this job's field and the other's.
const SHARED: [(VehicleField, &str); 11] = [
    (VehicleField::SteeringSide, "/rig/steering_side"),
    (VehicleField::TireDiameter, "/rig/tyre_diameter"),
    (VehicleField::TireWidth, "/rig/tyre_width"),
    (VehicleField::Wheelbase, "/vehicle/wheelbase"),
    (VehicleField::CentreOfGravity, "/vehicle/centre_of_gravity"),
    (VehicleField::CentreOfGravityGoodTo, "/vehicle/centre_of_gravity_good_to"),
    (VehicleField::TireRate, "/vehicle/tyre_rate"),
    (VehicleField::UnsprungWeight, "/vehicle/unsprung_weight"),
    (VehicleField::RoofLoad, "/vehicle/roof_load"),
    (VehicleField::RoofHeight, "/vehicle/roof_height"),
    (VehicleField::By, "/bolt_up/by"),
];

/// Fields in which one end's own figure is the other end's figure of the other axle: a name, the field as this axle's
/// own, the field as the other axle's.
const CROSSED: [(VehicleField, &str, &str); 8] = [
    (VehicleField::AxleWeight, "/vehicle/axle_weight", "/vehicle/other_weight"),
    (VehicleField::LeftCorner, "/vehicle/left_corner", "/vehicle/other_left_corner"),
    (VehicleField::RightCorner, "/vehicle/right_corner", "/vehicle/other_right_corner"),
    (VehicleField::SpringRate, "/vehicle/spring_rate", "/vehicle/other_spring_rate"),
    (VehicleField::SpringSpacing, "/vehicle/spring_spacing", "/vehicle/other_spring_spacing"),
    (VehicleField::Track, "/rig/track", "/vehicle/other_track"),
    (VehicleField::Bump, "/rig/bump", "/vehicle/other_bump"),
    (VehicleField::Droop, "/rig/droop", "/vehicle/other_droop"),
];

/// Whether two jobs are of one vehicle: it goes by one name, and they are at its two ends.
#[must_use]
pub fn is_of_one_vehicle(here: &Job, there: &Job) -> bool {
    let name = |job: &Job| job.rig.vehicle.trim().to_lowercase();
    !name(here).is_empty()
        && name(here) == name(there)
        && here.rig.end.zip(there.rig.end).is_some_and(|(here, there)| here != there)
}

/// A value as a person typed it.
fn typed(value: Option<&Value>) -> String {
    match value {
        None | Some(Value::Null) => String::new(),
        Some(Value::String(text)) => text.clone(),
        Some(entry) => {
            let text = entry["text"].as_str().unwrap_or_default();
            let unit = entry["unit"].as_str().unwrap_or_default();
            let has_unit = text.contains(|c: char| c.is_alphabetic() || "\"″'′".contains(c));
            if has_unit { text.to_owned() } else { format!("{text} {unit}").trim().to_owned() }
        }
    }
}

/// What `there` knows of the vehicle that `here` does not say, or says otherwise.
#[must_use]
pub fn offers(here: &Job, there: &Job) -> Vec<Offer> {
    let (mine, theirs) = (as_value(here), as_value(there));
    let offer = |of: FieldOf, field: VehicleField, to: &str, from: &str| {
        let value = theirs.pointer(from).filter(|value| !value.is_null())?;
        let (here, there) = (typed(mine.pointer(to)), typed(Some(value)));
        (!there.is_empty() && here != there).then(|| Offer {
            pointer: to.to_owned(),
            name: AssumedMessage::Field(of, field).into(),
            here,
            there,
            value: value.clone(),
        })
    };
    let shared = SHARED.iter().filter_map(|(name, field)| offer(FieldOf::Vehicle, *name, field, field));
    let crossed = CROSSED.iter().flat_map(|(name, own, other)| {
        [offer(FieldOf::OtherAxle, *name, other, own), offer(FieldOf::ThisAxle, *name, own, other)]
    });
    let bar = bar_there(there).and_then(|text| {
        let here = typed(mine.pointer("/vehicle/other_bar"));
        (here != text).then(|| Offer {
            pointer: "/vehicle/other_bar".to_owned(),
            name: AssumedMessage::Field(FieldOf::OtherAxle, VehicleField::SwayBarRollRate).into(),
            here,
            there: text.clone(),
            value: Value::String(text),
        })
    });
    let roll_centre = roll_centre_there(there).and_then(|value| {
        let (here, there) = (typed(mine.pointer(OTHER_ROLL_CENTRE)), typed(Some(&value)));
        (here != there).then(|| Offer {
            pointer: OTHER_ROLL_CENTRE.to_owned(),
            name: AssumedMessage::Field(FieldOf::OtherAxle, VehicleField::RollCentre).into(),
            here,
            there,
            value,
        })
    });
    shared.chain(crossed.flatten()).chain(bar).chain(roll_centre).collect()
}

/// The three fields that tell the other axle's weight.
const OTHER_WEIGHTS: [&str; 3] =
    ["/vehicle/other_weight", "/vehicle/other_left_corner", "/vehicle/other_right_corner"];

/// Where the other axle's roll centre is typed.
const OTHER_ROLL_CENTRE: &str = "/vehicle/other_roll_centre";

/// The other job's roll centre above the floor as it is driven, as a field takes it; absent where its axle cannot be
/// posed.
fn roll_centre_there(there: &Job) -> Option<Value> {
    let resolved = Resolved::of(there);
    let assembly = assemble(there, resolved.measured_setups()).ok()?;
    let posed = assembly.mechanism().at_driven_height().ok()?;
    Some(json!({ "text": format!("{:.1}", posed.roll_centre), "unit": "mm" }))
}

/// `here` as it is, with the other axle's figures from that axle's own job wherever `here` says nothing of them, and
/// those figures. For what is shown of the vehicle as a whole: nothing of it goes back into a job.
#[must_use]
pub fn with_other_end(here: &Job, there: &Job) -> (Job, Vec<Offer>) {
    let form = &here.vehicle;
    let weighed =
        form.other_weight.is_some() || form.other_left_corner.is_some() || form.other_right_corner.is_some();
    let taken: Vec<Offer> = offers(here, there)
        .into_iter()
        // What both ends have in common is the vehicle's, too: what each axle itself weighs, its wheelbase, its roof.
        .filter(|offer| offer.here.is_empty() && offer.pointer.starts_with("/vehicle/"))
        .filter(|offer| offer.pointer.starts_with("/vehicle/other_") || is_shared(&offer.pointer))
        // One weight told in two ways: the corners from there would push the weight typed here aside.
        .filter(|offer| !weighed || !OTHER_WEIGHTS.contains(&offer.pointer.as_str()))
        .collect();
    match with_values(here, taken.iter().map(|offer| (offer.pointer.as_str(), offer.value.clone()))) {
        Ok(job) => (job, taken),
        // Both documents are sound, and so is a field of one in the other: without it the job stands on its own.
        Err(_) => (here.clone(), Vec::new()),
    }
}

fn is_shared(pointer: &str) -> bool {
    SHARED.iter().any(|(_, field)| *field == pointer)
}

/// The roll rate of the other job's sway bar as it was fitted, where it is known; nought where there is none.
fn bar_there(there: &Job) -> Option<String> {
    if there.sway.kind? == SwayKind::None {
        return Some("0 Nm/deg".to_owned());
    }
    let vehicle = crate::sway::sway(there, &Resolved::of(there)).vehicle?;
    let per_degree = vehicle.bar_nm_per_rad.to_radians();
    (per_degree > 0.0).then(|| format!("{per_degree:.1} Nm/deg"))
}

#[cfg(test)]
mod tests {
    #![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]
    use super::*;

    fn job(end: &str, rest: &Value) -> Job {
        let mut value = json!({ "format": "derecho-job", "version": 7, "title": end,
            "rig": { "vehicle": "Tender of the pass", "end": end } });
        for (part, fields) in rest.as_object().unwrap() {
            for (field, entry) in fields.as_object().unwrap() {
                value[part][field] = entry.clone();
            }
        }
        serde_json::from_value(value).unwrap()
    }

    fn offer<'a>(offers: &'a [Offer], pointer: &str) -> Option<&'a Offer> {
        offers.iter().find(|offer| offer.pointer == pointer)
    }

    #[test]
    fn one_vehicle_is_one_name_at_two_ends() {
        let (front, rear) =
            (job("front", &json!({})), job("rear", &json!({ "rig": { "vehicle": " tender of THE pass " } })));
        assert!(is_of_one_vehicle(&front, &rear) && is_of_one_vehicle(&rear, &front));
        assert!(!is_of_one_vehicle(&front, &front), "the same end is another job, not the other end");
        assert!(!is_of_one_vehicle(&front, &job("rear", &json!({ "rig": { "vehicle": "Another" } }))));
        let nameless = job("rear", &json!({ "rig": { "vehicle": " " } }));
        assert!(!is_of_one_vehicle(&nameless, &job("front", &json!({ "rig": { "vehicle": "" } }))));
    }

    /// What is this axle's own at one end is the other axle's at the other, both ways; what is the vehicle's is the
    /// vehicle's.
    #[test]
    fn own_and_other_are_crossed_and_the_rest_is_shared() {
        let front = job(
            "front",
            &json!({ "vehicle": { "axle_weight": "2600 lb", "wheelbase": "102 in", "other_weight": "2100 lb" },
                "rig": { "track": "61 1/2 in", "steering_side": "left" } }),
        );
        let rear = job("rear", &json!({ "vehicle": { "axle_weight": "2250 lb", "wheelbase": "102 in" } }));
        let to_rear = offers(&rear, &front);
        assert_eq!(offer(&to_rear, "/vehicle/other_weight").unwrap().there, "2600 lb");
        assert_eq!(offer(&to_rear, "/vehicle/other_track").unwrap().there, "61 1/2 in");
        assert_eq!(offer(&to_rear, "/rig/steering_side").unwrap().value, "left");
        // They differ: what the front job supposed of the rear is offered, beside what the rear job says itself.
        let weight = offer(&to_rear, "/vehicle/axle_weight").unwrap();
        assert_eq!((weight.here.as_str(), weight.there.as_str()), ("2250 lb", "2100 lb"));
        // Alike on both sides is nothing to offer.
        assert_eq!(offer(&to_rear, "/vehicle/wheelbase"), None);
        let to_front = offers(&front, &rear);
        assert_eq!(offer(&to_front, "/vehicle/other_weight").unwrap().there, "2250 lb");
        assert_eq!(offer(&to_front, "/vehicle/wheelbase"), None);
    }

    /// The chart reckons with the rear job's own figures where the front says nothing, and only there.
    #[test]
    fn the_chart_takes_the_other_end_from_its_own_job() {
        let front: Job =
            serde_json::from_str(include_str!("../../../demo/lookout-truck-7.derecho.json")).unwrap();
        let mut bare = front.clone();
        bare.vehicle.other_weight = None;
        bare.vehicle.other_spring_rate = None;
        bare.vehicle.other_track = None;
        let rear = job(
            "rear",
            &json!({ "rig": { "vehicle": front.rig.vehicle, "track": "1600 mm" },
                "vehicle": { "axle_weight": "1234 kg", "spring_rate": "77 N/mm", "other_weight": "1 kg" } }),
        );
        let (merged, taken) = with_other_end(&bare, &rear);
        let value = serde_json::to_value(&merged.vehicle).unwrap();
        assert_eq!(typed(value.get("other_weight")), "1234 kg");
        assert_eq!(typed(value.get("other_spring_rate")), "77 N/mm");
        assert_eq!(typed(value.get("other_track")), "1600 mm");
        assert!(taken.iter().all(|offer| offer.here.is_empty()), "{taken:?}");
        // What the front says of the rear itself stays, and so does its own axle.
        let said = serde_json::to_value(&front.vehicle).unwrap();
        let (kept, _) = with_other_end(&front, &rear);
        let kept = serde_json::to_value(&kept.vehicle).unwrap();
        for field in ["axle_weight", "spring_rate", "other_weight"] {
            if !said[field].is_null() {
                assert_eq!(kept[field], said[field], "{field}");
            }
        }
        let cornered = job(
            "rear",
            &json!({ "rig": { "vehicle": front.rig.vehicle },
                "vehicle": { "left_corner": "900 lb", "right_corner": "800 lb" } }),
        );
        let (kept, _) = with_other_end(&front, &cornered);
        assert_eq!(
            kept.vehicle.other_left_corner, None,
            "a weight typed here is not pushed aside by corners"
        );
        let (taken_corners, _) = with_other_end(&bare, &cornered);
        assert!(taken_corners.vehicle.other_left_corner.is_some());
        // The chart of the merged job is that of a job in which a person typed the same.
        let swayed = crate::results::sway_beside(&bare, &rear, "Rear");
        assert_eq!(swayed.vehicle, crate::results::sway(&merged).vehicle);
        assert_ne!(swayed.vehicle, crate::results::sway(&bare).vehicle);
        let said = swayed.other_end.unwrap();
        assert!(said.figures.iter().map(|f| &f.pointer).eq(taken.iter().map(|offer| &offer.pointer)));
        let assumed = |result: &crate::sway::SwayResult| -> Vec<String> {
            result.assumptions.iter().map(|a| a.pointer.clone()).collect()
        };
        let left = assumed(&crate::results::sway_beside(&bare, &rear, "Rear"));
        assert!(!left.contains(&"/vehicle/other_weight".to_owned()), "{left:?}");
    }

    /// Where its bar crosses the axle's middle, half an inch to the left: the frame eye 27 1/4" up and 15 1/4" left, 6"
    /// down over a bar of 32"; by hand 27 1/4 - 6 · 14 3/4 / √(32² - 6²) = 24.43". The arms turn the axle a little.
    #[test]
    fn the_other_ends_roll_centre_is_where_its_bar_crosses_the_middle() {
        let there: Job =
            serde_json::from_str(include_str!("../../../demo/lookout-truck-7.derecho.json")).unwrap();
        let here = job("rear", &json!({ "rig": { "vehicle": there.rig.vehicle } }));
        let offered = offers(&here, &there);
        let reported = offer(&offered, "/vehicle/other_roll_centre").unwrap();
        let height: f64 = reported.there.trim_end_matches(" mm").parse().unwrap();
        assert!((height - 24.43 * 25.4).abs() < 1.5, "{height}");
    }

    /// Taken over, nothing of it is offered again, and the job is sound.
    #[test]
    fn an_offer_taken_is_offered_no_more() {
        let there: Job =
            serde_json::from_str(include_str!("../../../demo/lookout-truck-7.derecho.json")).unwrap();
        let mut here = job("rear", &json!({}));
        here.rig.vehicle.clone_from(&there.rig.vehicle);
        let first = offers(&here, &there);
        assert!(first.len() > 5, "{first:?}");
        let mut value = serde_json::to_value(&here).unwrap();
        for offer in &first {
            let (part, field) = offer.pointer[1..].split_once('/').unwrap();
            value[part][field] = offer.value.clone();
        }
        let taken: Job = serde_json::from_value(value).unwrap();
        assert_eq!(crate::check(&taken), []);
        assert_eq!(offers(&taken, &there), []);
    }
}
