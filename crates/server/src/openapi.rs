//! The OpenAPI document, finished: what its derivation from the handlers cannot say.
//!
//! Not here: what a route takes and answers; that stands beside its handler.

use serde_json::{Map, Value, json};
use utoipa::openapi::OpenApi;

const SCHEMAS: &str = "#/components/schemas/";

/// Finishes a derived document: kinds of one thing are whole objects, and every route says how it refuses.
pub(crate) fn finished(document: &OpenApi) -> Value {
    // A document is plain data with string keys: it always has a JSON form.
    let mut document = serde_json::to_value(document).unwrap_or_default();
    let known = document.pointer("/components/schemas").cloned().unwrap_or_default();
    if let Some(schemas) = document.pointer_mut("/components/schemas") {
        whole(schemas, &known);
    }
    for path in document["paths"].as_object_mut().into_iter().flat_map(Map::values_mut) {
        for operation in path.as_object_mut().into_iter().flat_map(Map::values_mut) {
            if let Some(answers) = operation.get_mut("responses").and_then(Value::as_object_mut) {
                answers.entry("default").or_insert_with(refusal);
            }
        }
    }
    document
}

/// What any route may answer besides: a host or method that is not taken, a body that is too large, a full disk.
fn refusal() -> Value {
    json!({
        "description": "What went wrong and what to do",
        "content": { "application/problem+json": { "schema": { "$ref": format!("{SCHEMAS}Problem") } } },
    })
}

/// A closed object and a field that tells its kind, both at once, is what nothing can be: the closed object refuses
/// the field. They become one closed object with all of the fields.
fn whole(schema: &mut Value, known: &Value) {
    if let Some(merged) = schema.get("allOf").and_then(Value::as_array).and_then(|parts| merged(parts, known))
    {
        if let Some(schema) = schema.as_object_mut() {
            schema.remove("allOf");
            schema.extend(merged);
        }
        return;
    }
    match schema {
        Value::Object(members) => members.values_mut().for_each(|member| whole(member, known)),
        Value::Array(members) => members.iter_mut().for_each(|member| whole(member, known)),
        _ => {}
    }
}

fn merged(parts: &[Value], known: &Value) -> Option<Map<String, Value>> {
    let [closed, kind] = parts else { return None };
    let named = closed.get("$ref")?.as_str()?.strip_prefix(SCHEMAS)?;
    let mut whole = known.get(named)?.as_object()?.clone();
    if whole.get("additionalProperties") != Some(&Value::Bool(false)) {
        return None;
    }
    whole.get_mut("properties")?.as_object_mut()?.extend(kind.get("properties")?.as_object()?.clone());
    let required = whole.entry("required").or_insert_with(|| json!([])).as_array_mut()?;
    required.extend(kind.get("required")?.as_array()?.iter().cloned());
    whole.remove("description");
    Some(whole)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn validator_of(schema: &str) -> jsonschema::Validator {
        let document = crate::app::openapi();
        // The pointers inside lead from the document's own root.
        let whole = json!({ "$ref": format!("{SCHEMAS}{schema}"), "components": document["components"] });
        jsonschema::validator_for(&whole).unwrap()
    }

    #[test]
    fn every_part_of_the_demo_is_what_the_document_calls_a_part() {
        let part = validator_of("Part");
        let kinds: Vec<String> = crate::samples::parts()
            .into_iter()
            .map(|sample| {
                let value = serde_json::to_value(&sample).unwrap();
                assert!(part.is_valid(&value), "{value}");
                let mut strange = value.clone();
                strange["shelf"] = json!(3);
                assert!(!part.is_valid(&strange), "a field nobody knows: {strange}");
                value["kind"].as_str().unwrap_or_default().to_owned()
            })
            .collect();
        for kind in ["bar", "bracket"] {
            assert!(kinds.iter().any(|known| known == kind), "{kinds:?}");
        }
    }

    #[test]
    fn every_route_says_how_it_refuses() {
        let document = crate::app::openapi();
        let mut routes = 0;
        for (path, operations) in document["paths"].as_object().unwrap() {
            for (method, operation) in operations.as_object().unwrap() {
                let refusal = &operation["responses"]["default"]["content"]["application/problem+json"];
                assert!(refusal.is_object(), "{method} {path}");
                routes += 1;
            }
        }
        assert!(routes > 20);
    }
}
