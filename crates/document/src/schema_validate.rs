//! Whether JSON has the shape of a job, and every place where it has not: a reader stops at the first, and a person
//! wants all of them. Of JSON Schema as much as the job's own schema says; the tests hold it against a validator of
//! the whole of it.
//!
//! Not here: whether typed figures can be read (`schema`), and whether what they say makes sense (`check`).

use std::fmt::Write as _;

use serde_json::{Map, Value};

use super::check::FieldError;
use super::schema::{TYPED, figure_fault};

/// Most choices told in a message.
const CHOICES_REPORTED: usize = 12;

/// Every fault of shape and of typed figures, in the document's own order, at most `most` of them.
#[must_use]
pub fn faults(schema: &Value, document: &Value, most: usize) -> Vec<FieldError> {
    let mut walk =
        SchemaWalk { root: schema, pointer: String::new(), faults: Vec::new(), most, figures_alone: false };
    walk.value(schema, document);
    walk.faults
}

/// As [`faults`], those of typed figures alone, all of them.
#[must_use]
pub fn figure_faults(schema: &Value, document: &Value) -> Vec<FieldError> {
    let mut walk = SchemaWalk {
        root: schema,
        pointer: String::new(),
        faults: Vec::new(),
        most: usize::MAX,
        figures_alone: true,
    };
    walk.value(schema, document);
    walk.faults
}

struct SchemaWalk<'a> {
    root: &'a Value,
    pointer: String,
    faults: Vec<FieldError>,
    most: usize,
    figures_alone: bool,
}

impl<'a> SchemaWalk<'a> {
    fn fault(&mut self, code: &str, message: String) {
        if !self.figures_alone {
            self.faults.push(FieldError::new(self.pointer.as_str(), code, message));
        }
    }

    fn value(&mut self, schema: &'a Value, value: &Value) {
        if self.faults.len() >= self.most {
            return;
        }
        if let Some(name) = schema["$ref"].as_str().and_then(|path| path.strip_prefix("#/$defs/")) {
            match figure_fault(name, value, &self.pointer) {
                Some(fault) => self.faults.push(fault),
                None if TYPED.contains(&name) => {}
                None => self.value(&self.root["$defs"][name], value),
            }
            return;
        }
        // A documented reference stands as allOf with one member, what may be left empty as oneOf with null.
        for member in schema["allOf"].as_array().into_iter().flatten() {
            self.value(member, value);
        }
        if let Some(ways) = schema["oneOf"].as_array() {
            let way = ways.iter().find(|way| (way["type"] == "null") == value.is_null());
            if let Some(way) = way {
                self.value(way, value);
            }
            return;
        }
        if let Some(choices) = schema["enum"].as_array() {
            if !choices.contains(value) {
                self.fault("unknown_choice", choices_reported(value, choices));
            }
            return;
        }
        let kinds = Kinds(&schema["type"]);
        if !kinds.take(value) {
            self.fault("wrong_type", format!("Found {}, expected {kinds}.", word_of(value)));
            return;
        }
        if let Some(least) = schema["minimum"].as_f64()
            && value.as_f64().is_some_and(|number| number < least)
        {
            self.fault("bad_value", format!("{value} is too small: {least} at least."));
        }
        match value {
            Value::Object(members) => self.members(schema, members),
            Value::Array(items) => {
                for (index, item) in items.iter().enumerate() {
                    self.inside(&index.to_string(), &schema["items"], item);
                }
            }
            _ => {}
        }
    }

    fn members(&mut self, schema: &'a Value, members: &Map<String, Value>) {
        for name in schema["required"].as_array().into_iter().flatten().filter_map(Value::as_str) {
            if !members.contains_key(name) {
                self.fault("missing", format!("{name:?} is missing here. Add it."));
            }
        }
        let closed = schema["additionalProperties"] == false;
        for (name, member) in members {
            match schema["properties"].get(name) {
                Some(property) => self.inside(name, property, member),
                None if closed => self.fault(
                    "unknown_field",
                    format!("No field {name:.60?} here. Remove it, or check its spelling."),
                ),
                None => {}
            }
            if self.faults.len() >= self.most {
                return;
            }
        }
    }

    fn inside(&mut self, name: &str, schema: &'a Value, value: &Value) {
        let depth = self.pointer.len();
        self.pointer.push('/');
        self.pointer.push_str(&name.replace('~', "~0").replace('/', "~1"));
        self.value(schema, value);
        self.pointer.truncate(depth);
    }
}

/// The types a schema takes; none said takes all.
struct Kinds<'a>(&'a Value);

impl Kinds<'_> {
    fn names(&self) -> impl Iterator<Item = &str> {
        let several = self.0.as_array().into_iter().flatten();
        several.chain(self.0.as_str().is_some().then_some(self.0)).filter_map(Value::as_str)
    }

    fn take(&self, value: &Value) -> bool {
        let fits = |name: &str| match name {
            "object" => value.is_object(),
            "array" => value.is_array(),
            "string" => value.is_string(),
            "boolean" => value.is_boolean(),
            "number" => value.is_number(),
            // 3.0 is a whole number, to JSON Schema and here.
            "integer" => value.as_f64().is_some_and(|number| number.fract() == 0.0),
            "null" => value.is_null(),
            _ => true,
        };
        self.names().next().is_none() || self.names().any(fits)
    }
}

impl std::fmt::Display for Kinds<'_> {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        let words: Vec<&str> = self
            .names()
            .map(|name| match name {
                "object" => "a group of fields",
                "array" => "a list",
                "string" => "a text",
                "boolean" => "true or false",
                "integer" => "a whole number",
                "number" => "a number",
                _ => "nothing",
            })
            .collect();
        f.write_str(&words.join(" or "))
    }
}

const fn word_of(value: &Value) -> &'static str {
    match value {
        Value::Null => "nothing",
        Value::Bool(_) => "true or false",
        Value::Number(_) => "a number",
        Value::String(_) => "a text",
        Value::Array(_) => "a list",
        Value::Object(_) => "a group of fields",
    }
}

fn choices_reported(value: &Value, choices: &[Value]) -> String {
    let mut reported = String::new();
    for (index, choice) in choices.iter().take(CHOICES_REPORTED).enumerate() {
        let between = if index == 0 { "" } else { ", " };
        let _ = write!(reported, "{between}{}", choice.as_str().unwrap_or_default());
    }
    let more = if choices.len() > CHOICES_REPORTED { " and others" } else { "" };
    let given = value.as_str().map_or_else(|| word_of(value).to_owned(), |text| format!("{text:.60?}"));
    format!("{given} is not one of the choices: {reported}{more}.")
}
