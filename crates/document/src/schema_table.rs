//! Every field of a job file as a page of tables, made from its schema: the reference of docs/job-fields.md.

use std::fmt::Write as _;

use serde_json::Value;

use super::schema::job_schema;

/// Parts of the document that have a table of their own, in the order in which they are typed: a job, then every type in
/// the order in which it is met.
#[must_use]
pub fn job_fields() -> String {
    let schema = job_schema();
    let mut page = format!(
        "# Every field of a job file\n\nVersion {}. Made from the schema (`derecho schema`) by `bin/derecho-generate`; \
         [job-file.md](job-file.md) says what they mean together.\n",
        super::DOCUMENT_VERSION
    );
    let mut open = vec![("Job".to_owned(), schema.clone())];
    let mut met = vec!["Job".to_owned()];
    let mut index = 0;
    while index < open.len() {
        let (name, of) = open[index].clone();
        index += 1;
        let mut next = Vec::new();
        table(&name, &of, &schema, (&mut page, &mut next));
        for name in next {
            if !met.contains(&name) {
                met.push(name.clone());
                let of = schema["$defs"][&name].clone();
                if of["properties"].is_object() {
                    open.push((name, of));
                }
            }
        }
    }
    page
}

fn table(name: &str, of: &Value, schema: &Value, (page, next): (&mut String, &mut Vec<String>)) {
    let Some(fields) = of["properties"].as_object() else { return };
    let said = one_line(&of["description"]);
    // Writing to a string cannot fail.
    let _ = write!(page, "\n## {name}\n\n{said}\n\n| field | holds | what |\n|---|---|---|\n");
    for (field, value) in fields {
        let _ = writeln!(
            page,
            "| `{field}` | {} | {} |",
            holds(value, schema, next),
            one_line(&value["description"])
        );
    }
}

fn one_line(description: &Value) -> String {
    description
        .as_str()
        .unwrap_or_default()
        .split_whitespace()
        .collect::<Vec<_>>()
        .join(" ")
        .replace('|', "\\|")
}

/// What a field holds: a plain kind, or the name of a type, of which `next` makes a note.
fn holds(value: &Value, schema: &Value, next: &mut Vec<String>) -> String {
    let members = ["allOf", "oneOf"].iter().filter_map(|way| value[*way].as_array()).flatten();
    if let Some(name) = std::iter::once(value)
        .chain(members.clone())
        .find_map(|member| member["$ref"].as_str()?.strip_prefix("#/$defs/"))
    {
        if let Some(choices) = schema["$defs"][name]["enum"].as_array() {
            let choices: Vec<String> =
                choices.iter().filter_map(Value::as_str).map(|choice| format!("`{choice}`")).collect();
            return choices.join(", ");
        }
        next.push(name.to_owned());
        return name.to_owned();
    }
    match value["type"].as_str() {
        Some("array") => format!("list of {}", holds(&value["items"], schema, next)),
        Some("integer") => "whole number".to_owned(),
        Some("boolean") => "true or false".to_owned(),
        Some("string") => "text".to_owned(),
        Some(other) => other.to_owned(),
        None => members.clone().find_map(|member| member["type"].as_str()).unwrap_or("any JSON").to_owned(),
    }
}
