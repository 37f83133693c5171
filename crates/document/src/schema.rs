//! The JSON Schema of a job file, and what a schema cannot say: typed figures are
//! read by their own grammar. `shape` goes through a document along it.

use serde_json::{Map, Value, json};
use utoipa::{PartialSchema, ToSchema};

use crate::Job;
use crate::check::FieldError;
use derecho_core::fastener::Thread;
use derecho_core::measure::tape::{self, Kind};
use derecho_core::measure::{
    AngleEntry, RollRateEntry, SpringRateEntry, TapeEntry, TorqueEntry, Unit, WeightEntry,
};

/// The schema types whose content is a typed figure.
pub(super) const TYPED: [&str; 7] =
    ["TapeEntry", "AngleEntry", "Thread", "WeightEntry", "SpringRateEntry", "RollRateEntry", "TorqueEntry"];

/// The JSON Schema (draft 2020-12) of a job file.
#[must_use]
pub fn job_schema() -> Value {
    let mut definitions = Vec::new();
    Job::schemas(&mut definitions);
    let mut named = Map::new();
    for (name, schema) in definitions {
        named.insert(name, to_value(&schema));
    }
    for (name, bare) in [("TapeEntry", "millimetres"), ("AngleEntry", "degrees")] {
        if let Some(object) = named.get(name).cloned() {
            let description = format!("A typed figure: an object, a string, or a number of {bare}.");
            named.insert(
                name.to_owned(),
                json!({
                    "description": description,
                    "anyOf": [object, { "type": "string" }, { "type": "number" }],
                }),
            );
        }
    }
    let mut root = to_value(&Job::schema());
    if let Value::Object(root) = &mut root {
        root.insert("$schema".to_owned(), json!("https://json-schema.org/draft/2020-12/schema"));
        let title = format!("Derecho job file, version {}", super::DOCUMENT_VERSION);
        root.insert("title".to_owned(), json!(title));
        root.insert("$defs".to_owned(), Value::Object(named));
    }
    point_at_definitions(&mut root);
    root
}

fn to_value<T: serde::Serialize>(schema: &T) -> Value {
    // A schema is plain data with string keys: it always has a JSON form.
    serde_json::to_value(schema).unwrap_or_default()
}

fn point_at_definitions(value: &mut Value) {
    match value {
        Value::Object(map) => {
            if let Some(Value::String(reference)) = map.get_mut("$ref") {
                *reference = reference.replace("#/components/schemas/", "#/$defs/");
            }
            map.values_mut().for_each(point_at_definitions);
        }
        Value::Array(items) => items.iter_mut().for_each(point_at_definitions),
        _ => {}
    }
}

/// Takes out every member that is null: null means left out.
pub fn drop_nulls(value: &mut Value) {
    match value {
        Value::Object(map) => {
            map.retain(|_, member| !member.is_null());
            map.values_mut().for_each(drop_nulls);
        }
        Value::Array(items) => items.iter_mut().for_each(drop_nulls),
        _ => {}
    }
}

/// What is wrong with a typed figure of a schema type. None where it can be read, or where the type holds none.
pub(super) fn figure_fault(name: &str, value: &Value, pointer: &str) -> Option<FieldError> {
    let refused = |error: serde_json::Error| error.to_string();
    let message = match name {
        "TapeEntry" => {
            let error = serde_json::from_value::<TapeEntry>(value.clone()).err()?;
            let text = value["text"].as_str().or_else(|| value.as_str());
            let unit = if value["unit"] == "in" { Unit::Inches } else { Unit::Millimetres };
            if let Some(Err(place)) = text.map(|text| tape::parse(text, unit, Kind::Signed)) {
                return Some(FieldError {
                    code: code_of(place.fault),
                    start: Some(place.start),
                    end: Some(place.end),
                    ..FieldError::new(pointer, "", place.to_string())
                });
            }
            refused(error)
        }
        "AngleEntry" => refused(serde_json::from_value::<AngleEntry>(value.clone()).err()?),
        "WeightEntry" => refused(serde_json::from_value::<WeightEntry>(value.clone()).err()?),
        "SpringRateEntry" => refused(serde_json::from_value::<SpringRateEntry>(value.clone()).err()?),
        "TorqueEntry" => refused(serde_json::from_value::<TorqueEntry>(value.clone()).err()?),
        "RollRateEntry" => refused(serde_json::from_value::<RollRateEntry>(value.clone()).err()?),
        "Thread" => refused(serde_json::from_value::<Thread>(value.clone()).err()?),
        _ => return None,
    };
    Some(FieldError::new(pointer, "bad_figure", message))
}

/// The stable name of a tape fault.
#[must_use]
pub fn code_of(fault: tape::Fault) -> String {
    serde_json::to_value(fault).ok().and_then(|value| value.as_str().map(str::to_owned)).unwrap_or_default()
}
