//! The JSON Schema of a job file, and what a schema cannot say: typed figures are
//! read by their own grammar, all of them at once.

use serde_json::{Map, Value, json};
use utoipa::{PartialSchema, ToSchema};

use crate::document::Job;
use crate::document::check::FieldError;
use derecho_core::fastener::Thread;
use derecho_core::measure::tape::{self, Kind};
use derecho_core::measure::{
    AngleEntry, RollRateEntry, SpringRateEntry, TapeEntry, TorqueEntry, Unit, WeightEntry,
};

/// The schema types whose content is a typed figure.
const TYPED: [&str; 7] =
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
        root.insert("title".to_owned(), json!("Derecho job file, version 1"));
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

/// The faults of every typed figure in a document's JSON, found by walking it along
/// its schema.
#[must_use]
pub fn typed_figure_faults(schema: &Value, document: &Value) -> Vec<FieldError> {
    let mut faults = Vec::new();
    walk(schema, schema, document, &mut String::new(), &mut faults);
    faults
}

fn walk(root: &Value, schema: &Value, value: &Value, pointer: &mut String, faults: &mut Vec<FieldError>) {
    if value.is_null() {
        return;
    }
    if let Some(name) = schema["$ref"].as_str().and_then(|path| path.strip_prefix("#/$defs/")) {
        if TYPED.contains(&name) {
            faults.extend(figure_fault(name, value, pointer));
        } else {
            walk(root, &root["$defs"][name], value, pointer, faults);
        }
        return;
    }
    // A documented reference stands as allOf or oneOf with one member.
    for group in ["allOf", "oneOf"] {
        for member in schema[group].as_array().into_iter().flatten() {
            walk(root, member, value, pointer, faults);
        }
    }
    let depth = pointer.len();
    match value {
        Value::Object(members) => {
            for (name, member) in members {
                let escaped = name.replace('~', "~0").replace('/', "~1");
                pointer.push('/');
                pointer.push_str(&escaped);
                walk(root, &schema["properties"][name], member, pointer, faults);
                pointer.truncate(depth);
            }
        }
        Value::Array(items) => {
            for (index, item) in items.iter().enumerate() {
                pointer.push_str(&format!("/{index}"));
                walk(root, &schema["items"], item, pointer, faults);
                pointer.truncate(depth);
            }
        }
        _ => {}
    }
}

fn figure_fault(name: &str, value: &Value, pointer: &str) -> Option<FieldError> {
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
        _ => refused(serde_json::from_value::<Thread>(value.clone()).err()?),
    };
    Some(FieldError::new(pointer, "bad_figure", message))
}

/// The stable name of a tape fault.
#[must_use]
pub fn code_of(fault: tape::Fault) -> String {
    serde_json::to_value(fault).ok().and_then(|value| value.as_str().map(str::to_owned)).unwrap_or_default()
}
