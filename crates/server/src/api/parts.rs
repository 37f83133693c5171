//! The parts library: list, add, change, retire, export and import.

use std::collections::{BTreeMap, HashSet};

use axum::Json;
use axum::body::Bytes;
use axum::extract::rejection::{PathRejection, QueryRejection};
use axum::extract::{Path, Query, State};
use axum::http::{HeaderMap, HeaderName, HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use derecho_core::measure::Phrase;
use derecho_core::parts::Part;
use derecho_core::parts::table::{COLUMNS, from_row, to_row};
use derecho_job::FieldError;
use derecho_job::document::check::check_part;
use derecho_store::StoredPart;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

use super::{AppState, path};
use crate::api::problem::Problem;
use crate::samples;

/// Longest name of a part.
const LONGEST_NAME: usize = 200;

/// Most parts taken in at once.
const MOST_PARTS: usize = 2000;

/// A part of the library.
#[derive(Serialize, ToSchema)]
pub struct PartView {
    /// Its id.
    pub id: String,
    /// Whether it is out of use.
    pub retired: bool,
    /// When it was last changed, in UTC.
    #[schema(value_type = String)]
    pub changed_at: Timestamp,
    /// The part.
    pub part: Part,
    /// The same as a row of a table: a text for each column that is not empty.
    pub row: BTreeMap<String, String>,
    /// What it is, in one line.
    pub says: Phrase,
}

impl From<StoredPart> for PartView {
    fn from(stored: StoredPart) -> Self {
        let cells = COLUMNS.iter().map(|column| (*column).to_owned()).zip(to_row(&stored.part));
        Self {
            id: stored.id,
            retired: stored.retired,
            changed_at: stored.changed_at,
            row: cells.filter(|(_, text)| !text.is_empty()).collect(),
            says: stored.part.says(),
            part: stored.part,
        }
    }
}

/// A part as it should be: whole, or as the row of a table.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PartChange {
    /// The part.
    #[serde(default)]
    #[schema(nullable = false)]
    pub part: Option<Part>,
    /// The same as a row: a text for each column; empty ones may be left out.
    #[serde(default)]
    #[schema(nullable = false)]
    pub row: Option<BTreeMap<String, String>>,
    /// Whether it is out of use.
    #[serde(default)]
    #[schema(nullable = false)]
    pub retired: Option<bool>,
}

impl PartChange {
    fn part(&self, out_of_use: bool) -> Result<Part, Problem> {
        let part = match (&self.part, &self.row) {
            (Some(part), None) => part.clone(),
            (None, Some(row)) => from_row(row.iter().map(|(column, text)| (column.as_str(), text.as_str())))
                .map_err(|message| bad("/row", format!("Can't save this part: {message}.")))?,
            _ => return Err(bad("", "Send either the part or its row, not both.".to_owned())),
        };
        // One kept before it was looked at so closely can still be put out of use; brought back it is looked at.
        if !out_of_use {
            sound(&part, "/part")?;
        }
        Ok(part)
    }
}

/// How to export.
#[derive(Deserialize, IntoParams)]
pub struct ExportQuery {
    /// `csv` or `json`.
    #[serde(default = "json_format")]
    format: String,
}

fn json_format() -> String {
    "json".to_owned()
}

/// How many came in.
#[derive(Serialize, ToSchema)]
pub struct Imported {
    /// Parts added.
    pub added: usize,
}

fn bad(pointer: &str, message: String) -> Problem {
    Problem {
        errors: vec![FieldError::new(pointer, "bad_part", message.clone())],
        ..Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "bad_fields", message)
    }
}

fn sound(part: &Part, pointer: &str) -> Result<(), Problem> {
    if part.name().trim().is_empty() {
        return Err(bad(&format!("{pointer}/name"), "A part needs a name. Enter one.".to_owned()));
    }
    if part.name().chars().any(char::is_control) {
        let message =
            "A part's name is one line of plain letters. Take line breaks and control characters out.";
        return Err(bad(&format!("{pointer}/name"), message.to_owned()));
    }
    if part.name().chars().count() > LONGEST_NAME {
        let message = format!("Part names can have {LONGEST_NAME} letters at most. Shorten it.");
        return Err(bad(&format!("{pointer}/name"), message));
    }
    if let Part::Bracket(bracket) = part {
        for (index, hole) in bracket.holes.iter().enumerate() {
            if bracket.holes[..index].iter().any(|other| other.name == hole.name) {
                let at = format!("{pointer}/holes/{index}/name");
                return Err(bad(
                    &at,
                    format!("Two holes are called {:?}. Give each its own name.", hole.name),
                ));
            }
        }
    }
    let mut faults = check_part(part);
    for fault in &mut faults {
        fault.pointer.insert_str(0, pointer);
    }
    match faults.first() {
        None => Ok(()),
        Some(first) => {
            let message = first.message.clone();
            Err(Problem {
                errors: faults,
                ..Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "bad_fields", message)
            })
        }
    }
}

fn read<T: serde::de::DeserializeOwned>(body: &[u8]) -> Result<T, Problem> {
    serde_json::from_slice(body).map_err(|error| bad("", format!("Not a valid part: {error}.")))
}

/// Names the parts that cannot be read, by their ids.
const DAMAGED: &str = "x-damaged-parts";

/// Every part, retired ones too; `X-Damaged-Parts` names those that cannot be read.
#[utoipa::path(
    get, path = "/api/v1/parts", tag = "parts", operation_id = "list_parts",
    responses((status = 200, description = "All parts by kind and name", body = Vec<PartView>))
)]
pub async fn list(State(state): State<AppState>) -> Result<(HeaderMap, Json<Vec<PartView>>), Problem> {
    let (parts, damaged) = state.stored(derecho_store::Store::parts_and_damaged).await?;
    let sound: Vec<PartView> = parts.into_iter().map(PartView::from).collect();
    // Those that cannot be read are named beside the others.
    let damaged = (!damaged.is_empty()).then(|| damaged.join(", "));
    let named = damaged.and_then(|ids| HeaderValue::from_str(&ids).ok());
    let headers = named.map(|ids| [(HeaderName::from_static(DAMAGED), ids)]);
    Ok((headers.into_iter().flatten().collect::<HeaderMap>(), Json(sound)))
}

/// Adds a part.
#[utoipa::path(
    post, path = "/api/v1/parts", tag = "parts", operation_id = "create_part",
    request_body = PartChange,
    responses(
        (status = 201, description = "The part", body = PartView),
        (status = 422, description = "Bad fields", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn create(
    State(state): State<AppState>,
    body: Bytes,
) -> Result<(StatusCode, Json<PartView>), Problem> {
    let part = read::<PartChange>(&body)?.part(false)?;
    let id = uuid::Uuid::now_v7().to_string();
    let stored = state.stored(move |store| store.add_part(&id, &part, Timestamp::now())).await?;
    Ok((StatusCode::CREATED, Json(stored.into())))
}

/// Changes or retires a part.
#[utoipa::path(
    put, path = "/api/v1/parts/{id}", tag = "parts", operation_id = "save_part",
    params(
        ("id" = String, Path, description = "The part"),
        ("If-Match" = String, Header, description = "The part's changed_at as it was seen, in quotes"),
    ),
    request_body = PartChange,
    responses(
        (status = 200, description = "The part", body = PartView),
        (status = 404, description = "No such part", body = Problem, content_type = "application/problem+json"),
        (status = 412, description = "Changed elsewhere since", body = Problem, content_type = "application/problem+json"),
        (status = 428, description = "If-Match is missing", body = Problem, content_type = "application/problem+json"),
        (status = 422, description = "Bad fields", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn save(
    State(state): State<AppState>,
    id: Result<Path<String>, PathRejection>,
    headers: HeaderMap,
    body: Bytes,
) -> Result<Json<PartView>, Problem> {
    let id = path(id)?;
    let based_on = seen_at(&headers)?;
    let change: PartChange = read(&body)?;
    let retired = change.retired.unwrap_or(false);
    let part = change.part(retired)?;
    let stored =
        state.stored(move |store| store.change_part(&id, based_on, &part, retired, Timestamp::now())).await?;
    Ok(Json(stored.into()))
}

/// When the part was last changed as the client saw it, from `If-Match: "2026-11-26T08:00:00Z"`.
fn seen_at(headers: &HeaderMap) -> Result<Timestamp, Problem> {
    let text = headers.get(header::IF_MATCH).and_then(|value| value.to_str().ok()).unwrap_or_default();
    text.trim().trim_matches('"').parse().map_err(|_| {
        Problem::new(
            StatusCode::PRECONDITION_REQUIRED,
            "revision_missing",
            "Say which state of the part this change is based on: its changed_at, in the header If-Match.",
        )
    })
}

/// The library as a file.
#[utoipa::path(
    get, path = "/api/v1/parts/export", tag = "parts", operation_id = "export_parts",
    params(ExportQuery),
    responses((status = 200, description = "Parts in use, as CSV or as a JSON array",
        content((Vec<Part> = "application/json"), (String = "text/csv"))))
)]
pub async fn export(
    State(state): State<AppState>,
    query: Result<Query<ExportQuery>, QueryRejection>,
) -> Result<Response, Problem> {
    let query = super::query(query)?;
    let parts = state.stored(derecho_store::Store::parts).await?;
    let parts: Vec<Part> = parts.into_iter().filter(|part| !part.retired).map(|part| part.part).collect();
    if query.format == "csv" {
        let text = to_csv(&parts).map_err(|error| Problem::internal(&error))?;
        let name = "attachment; filename=\"parts.csv\"";
        return Ok((
            [(header::CONTENT_TYPE, "text/csv; charset=utf-8"), (header::CONTENT_DISPOSITION, name)],
            text,
        )
            .into_response());
    }
    let name = "attachment; filename=\"parts.json\"";
    Ok(([(header::CONTENT_DISPOSITION, name)], Json(parts)).into_response())
}

fn to_csv(parts: &[Part]) -> Result<Vec<u8>, csv::Error> {
    let mut writer = csv::Writer::from_writer(Vec::new());
    writer.write_record(COLUMNS)?;
    for part in parts {
        writer.write_record(to_row(part).into_iter().map(no_formula))?;
    }
    writer.into_inner().map_err(|error| csv::Error::from(error.into_error()))
}

/// A table program takes a cell that begins so for a formula, and runs it: such a cell is written with an
/// apostrophe before it, as those programs themselves do, and read without.
const FORMULA: [char; 11] = ['=', '+', '-', '@', '\t', '\r', '\n', '＝', '＋', '－', '＠'];

/// Whether a table program takes a cell for a formula; some pass blanks over before they look.
fn is_formula(cell: &str) -> bool {
    cell.starts_with(FORMULA) || cell.trim_start().starts_with(FORMULA)
}

pub(crate) fn no_formula(cell: String) -> String {
    // A figure such as -2 in is one.
    let plain = |c: char| c.is_ascii_alphanumeric() || matches!(c, ' ' | '.' | '/' | '"');
    let figure = cell
        .strip_prefix('-')
        .is_some_and(|rest| rest.starts_with(|c: char| c.is_ascii_digit()) && rest.chars().all(plain));
    if is_formula(&cell) && !figure { format!("'{cell}") } else { cell }
}

fn as_written(cell: &str) -> &str {
    cell.strip_prefix('\'').filter(|rest| is_formula(rest)).unwrap_or(cell)
}

fn from_csv(body: &[u8]) -> Result<Vec<Part>, Problem> {
    let mut reader = csv::ReaderBuilder::new().flexible(false).from_reader(body);
    let unreadable = |error: csv::Error| bad("", format!("Not a CSV file: {error}."));
    let columns = reader.headers().map_err(unreadable)?.clone();
    let mut parts = Vec::new();
    for (index, record) in reader.records().enumerate() {
        let record = record.map_err(unreadable)?;
        // Line 1 holds the columns.
        let part = from_row(columns.iter().zip(record.iter().map(as_written)))
            .map_err(|message| bad(&format!("/{index}"), format!("Line {}: {message}.", index + 2)))?;
        parts.push(part);
    }
    Ok(parts)
}

/// Takes parts in, from CSV or JSON by the content type; all of them or none.
#[utoipa::path(
    post, path = "/api/v1/parts/import", tag = "parts", operation_id = "import_parts",
    request_body = String,
    responses(
        (status = 200, description = "How many came in", body = Imported),
        (status = 422, description = "A bad line or part", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn import(
    State(state): State<AppState>,
    headers: HeaderMap,
    body: Bytes,
) -> Result<Json<Imported>, Problem> {
    let kind = headers.get(header::CONTENT_TYPE).and_then(|kind| kind.to_str().ok()).unwrap_or_default();
    let parts: Vec<Part> = if kind.starts_with("text/csv") { from_csv(&body)? } else { read(&body)? };
    if parts.len() > MOST_PARTS {
        return Err(bad("", format!("{MOST_PARTS} parts per file at most. Split the file.")));
    }
    for (index, part) in parts.iter().enumerate() {
        sound(part, &format!("/{index}"))?;
    }
    add_all(&state, parts).await
}

/// Takes the made-up sample parts in.
#[utoipa::path(
    post, path = "/api/v1/parts/samples", tag = "parts", operation_id = "sample_parts",
    responses((status = 200, description = "How many came in", body = Imported))
)]
pub async fn samples(State(state): State<AppState>) -> Result<Json<Imported>, Problem> {
    add_all(&state, samples::parts()).await
}

async fn add_all(state: &AppState, parts: Vec<Part>) -> Result<Json<Imported>, Problem> {
    // What the library holds already is not added again, however a file writes the same figure.
    let held = state.stored(derecho_store::Store::parts).await?;
    let held: HashSet<Vec<String>> =
        held.iter().filter(|part| !part.retired).map(|part| to_row(&part.part)).collect();
    let named: Vec<(String, Part)> = parts
        .into_iter()
        .filter(|part| !held.contains(&to_row(part)))
        .map(|part| (uuid::Uuid::now_v7().to_string(), part))
        .collect();
    let added = state.stored(move |store| store.put_parts(&named, Timestamp::now())).await?;
    Ok(Json(Imported { added }))
}
