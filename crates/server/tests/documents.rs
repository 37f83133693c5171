//! What the papers name is there: files and folders by their paths, fields of job files and of results, choices. A name
//! that was changed in the sources alone is found here.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::collections::BTreeSet;
use std::path::{Path, PathBuf};

use derecho_job::Everything;
use derecho_job::document::schema::job_schema;
use derecho_job::document::schema_table::job_fields;
use serde_json::{Value, json};
use utoipa::{PartialSchema, ToSchema};

const PAPERS: [&str; 9] = [
    "README.md",
    "CONTRIBUTING.md",
    "docs/architecture.md",
    "docs/geometry.md",
    "docs/job-file.md",
    "docs/testing.md",
    "docs/performance.md",
    "docs/evidence.md",
    "docs/instruments.md",
];

fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../..").canonicalize().unwrap()
}

/// What stands between backticks, blocks of code aside.
fn quoted(text: &str) -> Vec<String> {
    let plain: Vec<&str> = text.split("```").step_by(2).collect();
    plain.iter().flat_map(|part| part.split('`').skip(1).step_by(2).map(str::to_owned)).collect()
}

/// Whether a quoted text is a path of a source: a file with its ending, or a folder of the workspace.
fn is_path(text: &str) -> bool {
    let endings = [".rs", ".ts", ".tsx", ".sql", ".sh", ".toml"];
    let plain = text.chars().all(|c| c.is_ascii_alphanumeric() || "/_.-{},".contains(c));
    plain && text.contains('/') && (endings.iter().any(|e| text.ends_with(e)) || text.starts_with("crates/"))
}

/// Where a path of the papers may begin: at the root, in a crate by its name, in the core's folders, in the client.
fn exists(path: &str) -> bool {
    let root = root();
    let mut places =
        vec![root.join(path), root.join("crates/core/src").join(path), root.join("crates/core").join(path)];
    if let Some((first, rest)) = path.split_once('/') {
        places.push(root.join("crates").join(first).join("src").join(rest));
    }
    places.push(root.join("web/src").join(path));
    places.iter().any(|place| place.exists())
}

/// `fastener/{hex,stack}.rs` are two.
fn spelled_out(path: &str) -> Vec<String> {
    match path.split_once('{').and_then(|(before, rest)| Some((before, rest.split_once('}')?))) {
        Some((before, (names, after))) => {
            names.split(',').map(|name| format!("{before}{name}{after}")).collect()
        }
        None => vec![path.to_owned()],
    }
}

#[test]
fn every_path_in_the_papers_is_there() {
    let mut seen = 0;
    let mut gone = Vec::new();
    for paper in PAPERS {
        let text = std::fs::read_to_string(root().join(paper)).unwrap();
        for path in quoted(&text).iter().filter(|text| is_path(text)).flat_map(|path| spelled_out(path)) {
            seen += 1;
            if !exists(&path) {
                gone.push(format!("{paper}: {path}"));
            }
        }
    }
    assert_eq!(gone, Vec::<String>::new(), "paths that are not there");
    assert!(seen > 60, "only {seen} paths were read: the check sees too little");
    assert!(!exists("bar/builder_of_nothing.rs"), "one that is not there would be seen");
}

/// The schema of everything `derecho solve` prints, with its types by name.
fn results_schema() -> Value {
    let mut types = Vec::new();
    Everything::schemas(&mut types);
    let named: serde_json::Map<String, Value> =
        types.into_iter().map(|(name, schema)| (name, serde_json::to_value(schema).unwrap())).collect();
    let mut root = serde_json::to_value(Everything::schema()).unwrap();
    root["$defs"] = Value::Object(named);
    root
}

/// Names of fields, choices and types of a schema.
fn vocabulary(schema: &Value, words: &mut BTreeSet<String>) {
    match schema {
        Value::Object(members) => {
            for (key, member) in members {
                if matches!(key.as_str(), "properties" | "$defs")
                    && let Value::Object(named) = member
                {
                    words.extend(named.keys().cloned());
                }
                if matches!(key.as_str(), "enum" | "const") {
                    let choices = member.as_array().cloned().unwrap_or_else(|| vec![member.clone()]);
                    words.extend(choices.iter().filter_map(Value::as_str).map(str::to_owned));
                }
                vocabulary(member, words);
            }
        }
        Value::Array(items) => items.iter().for_each(|item| vocabulary(item, words)),
        _ => {}
    }
}

/// The schemas a field of one of these leads to: through references, lists, and what may be left out.
fn within<'a>(root: &'a Value, schemas: Vec<&'a Value>, field: &str) -> Vec<&'a Value> {
    let mut open = schemas;
    let mut found = Vec::new();
    while let Some(schema) = open.pop() {
        if let Some(name) = schema["$ref"].as_str().and_then(|path| path.rsplit('/').next()) {
            open.push(&root["$defs"][name]);
        }
        for way in ["allOf", "oneOf", "anyOf"] {
            open.extend(schema[way].as_array().into_iter().flatten());
        }
        if schema["items"].is_object() {
            open.push(&schema["items"]);
        }
        let fields = schema["properties"].as_object().into_iter().flatten();
        let meant = |name: &str| {
            name == field || field.strip_suffix('*').is_some_and(|start| name.starts_with(start))
        };
        found.extend(fields.filter(|(name, _)| meant(name)).map(|(_, value)| value));
    }
    found
}

/// Whether there is such a path, from the whole or from any part of it.
fn is_there(root: &Value, path: &str) -> bool {
    let mut here = vec![root];
    here.extend(root["$defs"].as_object().into_iter().flatten().map(|(_, part)| part));
    for field in path.split('.') {
        here = within(root, here, field.trim_end_matches("[]"));
    }
    !here.is_empty()
}

/// Whether a quoted text is a field, a path of fields or a choice: small letters, digits and underscores.
fn is_field(text: &str) -> bool {
    text.chars().all(|c| c.is_ascii_lowercase() || c.is_ascii_digit() || "_.*[]".contains(c))
        && text.starts_with(|c: char| c.is_ascii_lowercase())
        && !text.ends_with(".md")
}

/// Quoted in job-file.md and no name of a schema: figures of speech of the format itself, commands, ends of names.
const OTHERWISE: [&str; 12] = [
    "null",
    "in",
    "mm",
    "deg",
    "results",
    "derecho",
    "torque_nm",
    "chosen",
    "as_built",
    "bracket",
    "plans",
    "found",
];

#[test]
fn every_field_in_the_papers_is_in_a_schema() {
    let text = std::fs::read_to_string(root().join("docs/job-file.md")).unwrap();
    let (job, results) = (job_schema(), results_schema());
    let mut words = BTreeSet::new();
    vocabulary(&job, &mut words);
    vocabulary(&results, &mut words);
    let mut seen = 0;
    let mut gone = Vec::new();
    // What older versions had is told of in a part of its own.
    let today: String = text
        .split("\n## ")
        .filter(|part| !part.starts_with("Older versions"))
        .collect::<Vec<_>>()
        .join("\n## ");
    for field in quoted(&today).iter().filter(|text| is_field(text)) {
        seen += 1;
        let known = is_there(&job, field)
            || is_there(&results, field)
            || words.contains(field)
            || OTHERWISE.contains(&field.as_str());
        if !known {
            gone.push(field.clone());
        }
    }
    assert_eq!(gone, Vec::<String>::new(), "fields that no schema has");
    assert!(seen > 250, "only {seen} names were read: the check sees too little");
    assert!(!is_there(&results, "cycle.found.rolls[]") && is_there(&results, "cycle.found.heave[]"));
    assert!(!words.contains("a_field_of_nothing"));
}

#[test]
fn the_table_of_fields_is_the_schemas() {
    let table = std::fs::read_to_string(root().join("docs/job-fields.md")).unwrap();
    assert_eq!(table.trim_end(), job_fields().trim_end(), "run bin/derecho-generate");
    assert!(table.contains("## Job") && table.contains("## ArmHole"));
}

#[test]
fn the_version_of_the_papers_is_the_programs() {
    let text = std::fs::read_to_string(root().join("docs/job-file.md")).unwrap();
    let version = derecho_job::document::DOCUMENT_VERSION;
    assert!(
        text.contains(&format!("\"version\": {version},"))
            && text.contains(&format!("Version {version} is written"))
    );
    assert_eq!(job_schema()["title"], json!(format!("Derecho job file, version {version}")));
    // The example is a job that is taken as it stands.
    let example = text.split("```json").nth(1).unwrap().split("```").next().unwrap();
    assert!(derecho_server::parse::read_job(example.as_bytes()).is_ok());
}
