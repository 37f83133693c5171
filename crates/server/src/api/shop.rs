//! The whole shop: its log, and all its jobs as one file, out and in.

use std::io::{Cursor, Read, Write};
use std::sync::Arc;

use axum::Json;
use axum::body::Bytes;
use axum::extract::rejection::{PathRejection, QueryRejection};
use axum::extract::{Path, Query, State};
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use derecho_job::Job;
use derecho_job::bolt_up::time::{StepTime, usual};
use derecho_job::document::check::FieldError;
use derecho_job::log::{LogEntry, LogKind};
use derecho_job::vehicle::{Offer, is_of_one_vehicle, offers};
use derecho_job::written::{Layout, Told as _};
use derecho_store::{Store, StoreError, StoredJob};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

use super::AppState;
use crate::api::jobs::new_id;
use crate::api::parts::no_formula;
use crate::api::problem::Problem;
use crate::intake::{LARGEST_BODY, Refusal, read_job};
use crate::records::Records;

/// Entries of a page of the log where nobody says how many.
const PAGE: usize = 200;
/// The largest zip taken in.
pub const LARGEST_SHOP: usize = 256 * 1024 * 1024;
/// Most job files in one.
const MOST_FILES: usize = 20_000;
const SUFFIX: &str = ".derecho.json";

/// Which entries.
#[derive(Debug, Default, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct LogQuery {
    /// What title, vehicle or entry must hold.
    #[serde(default)]
    search: String,
    /// Of one kind alone.
    #[serde(default)]
    #[param(nullable = false)]
    kind: Option<LogKind>,
    /// How many entries to pass over.
    #[serde(default)]
    offset: u32,
}

/// An entry of the shop's log.
#[derive(Debug, Serialize, ToSchema)]
pub struct LogLine {
    /// The job's id.
    pub id: String,
    /// Its title.
    pub title: String,
    /// Its vehicle.
    pub vehicle: String,
    /// What happened.
    pub entry: LogEntry,
}

/// A page of the shop's log, newest first.
#[derive(Debug, Serialize, ToSchema)]
pub struct LogPage {
    /// The entries.
    pub lines: Vec<LogLine>,
    /// How many there are in all.
    pub total: usize,
}

/// Every job that can be read, last saved first.
fn every_job(store: &Store) -> Result<Vec<StoredJob>, StoreError> {
    let (listed, _) = store.list("", u32::MAX, 0)?;
    // One that was taken out since, or cannot be read, is told in the bay.
    Ok(listed.iter().filter_map(|job| store.get(&job.id).ok()).collect())
}

/// Every entry that is asked for, newest first.
///
/// # Errors
/// Where the database refuses.
pub fn lines(
    records: &Records,
    store: &Store,
    search: &str,
    kind: Option<LogKind>,
) -> Result<Vec<LogLine>, StoreError> {
    let wanted = search.trim().to_lowercase();
    let holds = |text: &str| wanted.is_empty() || text.to_lowercase().contains(&wanted);
    let mut lines: Vec<LogLine> = Vec::new();
    for record in records.all(store)? {
        let of_job = holds(&record.title) || holds(&record.vehicle);
        let told = |entry: &&LogEntry| {
            (of_job || holds(&entry.by) || holds(entry.says.in_unit(record.unit)))
                && kind.is_none_or(|kind| kind == entry.kind)
        };
        lines.extend(record.entries.iter().filter(told).map(|entry| LogLine {
            id: record.id.clone(),
            title: record.title.clone(),
            vehicle: record.vehicle.clone(),
            entry: entry.clone(),
        }));
    }
    lines.sort_by_key(|line| std::cmp::Reverse(line.entry.at.unwrap_or(Timestamp::MIN)));
    Ok(lines)
}

/// The shop's log.
#[utoipa::path(
    get, path = "/api/v1/log", tag = "shop", operation_id = "shop_log", params(LogQuery),
    responses(
        (status = 200, description = "A page of 200 entries, newest first", body = LogPage),
        (status = 400, description = "A query that cannot be read", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn shop_log(
    State(state): State<AppState>,
    query: Result<Query<LogQuery>, QueryRejection>,
) -> Result<Json<LogPage>, Problem> {
    let LogQuery { search, kind, offset } = super::query(query)?;
    let records = Arc::clone(&state.records);
    let lines = state.stored(move |store| lines(&records, store, &search, kind)).await?;
    let total = lines.len();
    Ok(Json(LogPage { lines: lines.into_iter().skip(offset as usize).take(PAGE).collect(), total }))
}

const COLUMNS: [&str; 8] = ["when", "job", "title", "vehicle", "kind", "by", "inches", "millimetres"];

/// The log as CSV.
///
/// # Errors
/// Where the writer fails.
pub fn log_csv(lines: &[LogLine]) -> Result<Vec<u8>, csv::Error> {
    let mut writer = csv::Writer::from_writer(Vec::new());
    writer.write_record(COLUMNS)?;
    for line in lines {
        let LogEntry { kind, at, by, says } = &line.entry;
        // A kind is plain data: it always has a JSON form, a text.
        let kind = serde_json::to_value(kind).unwrap_or_default();
        let cells = [
            at.map_or_else(String::new, |at| at.to_string()),
            line.id.clone(),
            line.title.clone(),
            line.vehicle.clone(),
            kind.as_str().unwrap_or_default().to_owned(),
            by.clone(),
            says.inches.clone(),
            says.millimetres.clone(),
        ];
        writer.write_record(cells.map(no_formula))?;
    }
    writer.into_inner().map_err(|error| csv::Error::from(error.into_error()))
}

/// The shop's log as a table.
#[utoipa::path(
    get, path = "/api/v1/log.csv", tag = "shop", operation_id = "shop_log_csv", params(LogQuery),
    responses(
        (status = 200, description = "Every entry that is asked for, both units", body = String, content_type = "text/csv"),
        (status = 400, description = "A query that cannot be read", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn shop_log_csv(
    State(state): State<AppState>,
    query: Result<Query<LogQuery>, QueryRejection>,
) -> Result<Response, Problem> {
    let LogQuery { search, kind, .. } = super::query(query)?;
    let records = Arc::clone(&state.records);
    let lines = state.stored(move |store| lines(&records, store, &search, kind)).await?;
    let text = log_csv(&lines).map_err(|error| Problem::internal(&error))?;
    let kind = [
        (header::CONTENT_TYPE, "text/csv; charset=utf-8"),
        (header::CONTENT_DISPOSITION, "attachment; filename=\"log.csv\""),
    ];
    Ok((kind, text).into_response())
}

/// A file's name of a title: letters, figures and hyphens.
fn file_name(title: &str, id: &str) -> String {
    let plain: String = title.chars().map(|c| if c.is_alphanumeric() { c } else { '-' }).take(60).collect();
    format!("{}-{id}{SUFFIX}", plain.trim_matches('-').to_lowercase())
}

/// Every job of a store as a zip of job files.
///
/// # Errors
/// With what failed.
pub fn shop_zip(store: &Store) -> Result<Vec<u8>, Box<dyn std::error::Error + Send + Sync>> {
    let mut writer = ZipWriter::new(Cursor::new(Vec::new()));
    for stored in every_job(store)? {
        writer.start_file(file_name(&stored.job.title, &stored.id), SimpleFileOptions::default())?;
        writer.write_all(&stored.job.json(Layout::Indented)?)?;
    }
    Ok(writer.finish()?.into_inner())
}

/// Every job, as a zip of job files.
#[utoipa::path(
    get, path = "/api/v1/shop.zip", tag = "shop", operation_id = "shop_out",
    responses((status = 200, description = "A job file for each job", body = String, content_type = "application/zip"))
)]
pub async fn shop_out(State(state): State<AppState>) -> Result<Response, Problem> {
    let store = std::sync::Arc::clone(&state.store);
    let bytes = state.computed(move || shop_zip(&store).map_err(|error| Problem::internal(&error))).await?;
    let kind = [
        (header::CONTENT_TYPE, "application/zip"),
        (header::CONTENT_DISPOSITION, "attachment; filename=\"shop.zip\""),
    ];
    Ok((kind, bytes).into_response())
}

fn bad(code: &str, detail: impl Into<String>) -> Problem {
    Problem::new(StatusCode::UNPROCESSABLE_ENTITY, code, detail)
}

/// The job files of a zip; other files in it are passed over.
///
/// # Errors
/// With every fault of every file, each with the file's name.
pub fn jobs_of_zip(bytes: &[u8]) -> Result<Vec<Job>, Problem> {
    let told =
        |error: zip::result::ZipError| bad("not_a_zip", format!("This is no zip that can be read: {error}."));
    let mut archive = ZipArchive::new(Cursor::new(bytes)).map_err(told)?;
    if archive.len() > MOST_FILES {
        return Err(bad("too_many", format!("At most {MOST_FILES} files come in at once. Split it.")));
    }
    let mut jobs = Vec::new();
    let mut faults: Vec<FieldError> = Vec::new();
    for index in 0..archive.len() {
        let file = archive.by_index(index).map_err(told)?;
        let name = file.name().to_owned();
        if !name.ends_with(SUFFIX) {
            continue;
        }
        let mut text = Vec::new();
        // A file says how long it is, and may lie.
        let limit = LARGEST_BODY as u64 + 1;
        file.take(limit)
            .read_to_end(&mut text)
            .map_err(|error| bad("not_a_zip", format!("{name}: {error}.")))?;
        if text.len() > LARGEST_BODY {
            faults.push(FieldError::new(format!("/{name}"), "too_large", "A job file is of 2 MiB at most."));
            continue;
        }
        match read_job(&text) {
            Ok(job) => jobs.push(job),
            Err(Refusal::NotJson { message, line, column }) => {
                let says = format!("Line {line}, column {column}: this is not JSON: {message}");
                faults.push(FieldError::new(format!("/{name}"), "not_json", says));
            }
            Err(Refusal::Faults(found)) => faults.extend(
                found
                    .into_iter()
                    .map(|fault| FieldError { pointer: format!("/{name}{}", fault.pointer), ..fault }),
            ),
        }
    }
    if !faults.is_empty() {
        let detail =
            "Some files are no jobs that can be taken. None came in: mend them, or take them out of the zip.";
        faults.truncate(100);
        return Err(Problem { errors: faults, ..bad("bad_fields", detail) });
    }
    if jobs.is_empty() {
        return Err(bad("no_jobs", format!("There is no file ending in {SUFFIX} in it.")));
    }
    Ok(jobs)
}

/// How many came in.
#[derive(Debug, Serialize, ToSchema)]
pub struct ShopIn {
    /// Jobs.
    pub added: usize,
}

/// Takes the jobs of a zip in as new jobs; all of them or none.
#[utoipa::path(
    post, path = "/api/v1/shop.zip", tag = "shop", operation_id = "shop_in",
    request_body(content = String, content_type = "application/zip"),
    responses(
        (status = 200, description = "How many came in", body = ShopIn),
        (status = 422, description = "No zip, or bad files in it", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn shop_in(State(state): State<AppState>, body: Bytes) -> Result<Json<ShopIn>, Problem> {
    let jobs = state.computed(move || jobs_of_zip(&body)).await?;
    let added = jobs.len();
    state
        .stored(move |store| {
            jobs.iter().try_for_each(|job| store.create(&new_id(), job, Timestamp::now()).map(drop))
        })
        .await?;
    Ok(Json(ShopIn { added }))
}

/// How long each step takes in this shop, by its own records.
#[utoipa::path(
    get, path = "/api/v1/step-times", tag = "shop", operation_id = "step_times",
    responses((status = 200, description = "The middle time of each step that was ticked, over all jobs", body = Vec<StepTime>))
)]
pub async fn step_times(State(state): State<AppState>) -> Result<Json<Vec<StepTime>>, Problem> {
    let records = Arc::clone(&state.records);
    let all = state.stored(move |store| records.all(store)).await?;
    Ok(Json(usual(all.iter().flat_map(|record| &record.took))))
}

/// The job at the other end of the same vehicle, and what it knows.
#[derive(Debug, Serialize, ToSchema)]
pub struct OtherEnd {
    /// Its id.
    pub id: String,
    /// Its title.
    pub title: String,
    /// What it knows of the vehicle that this job does not say, or says otherwise.
    pub offers: Vec<Offer>,
}

/// The stored jobs at the other end of a job's vehicle, the one saved last first.
pub(super) fn other_ends(store: &Store, id: &str, job: &Job) -> Result<Vec<StoredJob>, StoreError> {
    let vehicle = job.rig.vehicle.trim();
    if vehicle.is_empty() {
        return Ok(Vec::new());
    }
    let (listed, _) = store.list(vehicle, u32::MAX, 0)?;
    let found = listed.iter().filter(|other| other.id != id).filter_map(|other| store.get(&other.id).ok());
    Ok(found.filter(|there| is_of_one_vehicle(job, &there.job)).collect())
}

/// Jobs at the other end of the same vehicle.
#[utoipa::path(
    get, path = "/api/v1/jobs/{id}/other-end", tag = "jobs", operation_id = "other_end",
    params(("id" = String, Path, description = "The job")),
    responses(
        (status = 200, description = "Each with what it offers; nothing is changed", body = Vec<OtherEnd>),
        (status = 404, description = "No such job", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn other_end(
    State(state): State<AppState>,
    path: Result<Path<String>, PathRejection>,
) -> Result<Json<Vec<OtherEnd>>, Problem> {
    let id = super::path(path)?;
    let (here, there) = state
        .stored_of(&id.clone(), move |store| {
            let here = store.get(&id)?;
            let found = other_ends(store, &id, &here.job)?;
            Ok((here, found))
        })
        .await?;
    let ends = state
        .computed(move || {
            let of = |there: StoredJob| OtherEnd {
                offers: offers(&here.job, &there.job),
                id: there.id,
                title: there.job.title,
            };
            Ok(there.into_iter().map(of).collect())
        })
        .await?;
    Ok(Json(ends))
}
