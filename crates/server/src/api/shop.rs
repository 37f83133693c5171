//! The whole shop: its log, and all its jobs as one file, out and in.

use std::io::{Cursor, Read, Write};
use std::sync::Arc;
use std::time::Duration;

use axum::Json;
use axum::body::{Body, Bytes};
use axum::extract::rejection::{PathRejection, QueryRejection};
use axum::extract::{Path, Query, State};
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use derecho_card::{Paper, record};
use derecho_job::Job;
use derecho_job::bolt_up::time::{StepTime, usual};
use derecho_job::document::check::FieldError;
use derecho_job::log::LogKind;
use derecho_job::vehicle::{Offer, is_of_one_vehicle, offers};
use derecho_results::LogEntry;
use derecho_results::json::{Layout, ToJson as _};
use derecho_store::{Prepared, Store, StoreError, StoredJob};
use futures_util::StreamExt as _;
use futures_util::stream::unfold;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use tokio::sync::mpsc;
use utoipa::{IntoParams, ToSchema};
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

use super::AppState;
use crate::api::jobs::new_id;
use crate::api::parts::no_formula;
use crate::api::problem::Problem;
use crate::api::taking_in::ShopProgress;
use crate::cards;
use crate::parse::{LARGEST_BODY, ParseFault, read_job};
use crate::records::Records;

/// Entries of a page of the log where nobody says how many.
const PAGE: usize = 200;
/// The largest zip taken in.
pub const LARGEST_SHOP: usize = 256 * 1024 * 1024;
/// Most job files in one.
const MOST_FILES: usize = 20_000;
/// Where a whole shop goes out and comes in.
pub const PLACE: &str = "/api/v1/shop.zip";
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
        let reported = |entry: &&LogEntry| {
            (of_job || holds(&entry.by) || holds(entry.says.in_unit(record.unit)))
                && kind.is_none_or(|kind| kind == entry.kind)
        };
        lines.extend(record.entries.iter().filter(reported).map(|entry| LogLine {
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

/// The record of a closed job beside its job file.
fn sheet_name(title: &str, id: &str) -> String {
    file_name(title, id).replace(SUFFIX, ".record.pdf")
}

/// Writes every job of a store as a zip of job files, one after another: no more than one is held at a time. With the
/// ids of those that cannot be read, and so are not in it.
///
/// # Errors
/// With what failed.
pub fn shop_zip<W: Write>(
    store: &Store,
    to: W,
) -> Result<(W, Vec<String>), Box<dyn std::error::Error + Send + Sync>> {
    let mut writer = ZipWriter::new_stream(to);
    let mut left_out = Vec::new();
    for (id, _) in store.newest()? {
        let stored = match store.get(&id) {
            Ok(stored) => stored,
            // Taken out since.
            Err(StoreError::NoSuchJob) => continue,
            Err(_) => {
                left_out.push(id);
                continue;
            }
        };
        writer.start_file(file_name(&stored.job.title, &stored.id), SimpleFileOptions::default())?;
        writer.write_all(&stored.job.json(Layout::Indented)?)?;
        // What the customer of a closed job has in hand; whoever takes the zip in passes over it.
        let paper = Paper::usual(stored.job.rig.sheet_unit);
        if stored.job.settled.is_some()
            && let Some(sheet) = record(&stored.job, paper)?
        {
            writer.start_file(sheet_name(&stored.job.title, &stored.id), SimpleFileOptions::default())?;
            writer.write_all(&sheet)?;
        }
    }
    Ok((writer.finish()?.into_inner(), left_out))
}

/// What is written goes out in pieces, as fast as they are taken.
struct Pieces {
    piece: Vec<u8>,
    out: mpsc::Sender<Result<Bytes, std::io::Error>>,
}

/// So much goes out at once.
const PIECE: usize = 64 * 1024;

impl Write for Pieces {
    fn write(&mut self, bytes: &[u8]) -> std::io::Result<usize> {
        self.piece.extend_from_slice(bytes);
        if self.piece.len() >= PIECE {
            self.flush()?;
        }
        Ok(bytes.len())
    }

    fn flush(&mut self) -> std::io::Result<()> {
        if self.piece.is_empty() {
            return Ok(());
        }
        let piece = Bytes::from(std::mem::take(&mut self.piece));
        // Nobody takes it any more: the zip is given up.
        self.out.blocking_send(Ok(piece)).map_err(|_| std::io::ErrorKind::BrokenPipe.into())
    }
}

/// Every job, as a zip of job files.
#[utoipa::path(
    get, path = "/api/v1/shop.zip", tag = "shop", operation_id = "shop_out",
    responses((status = 200, description = "A job file for each job", body = String, content_type = "application/zip"))
)]
pub async fn shop_out(State(state): State<AppState>) -> Result<Response, Problem> {
    let store = Arc::clone(&state.store);
    let (out, taken) = mpsc::channel(4);
    tokio::task::spawn_blocking(move || {
        let pieces = Pieces { piece: Vec::with_capacity(PIECE), out: out.clone() };
        let written = shop_zip(&store, pieces).and_then(|(mut pieces, _)| Ok(pieces.flush()?));
        if let Err(error) = written {
            // What is cut off is no zip: whoever takes it is told by the connection.
            let _ = out.blocking_send(Err(std::io::Error::other(error.to_string())));
        }
    });
    let pieces = unfold(taken, |mut taken| async move { taken.recv().await.map(|piece| (piece, taken)) });
    let kind = [
        (header::CONTENT_TYPE, "application/zip"),
        (header::CONTENT_DISPOSITION, "attachment; filename=\"shop.zip\""),
    ];
    Ok((kind, Body::from_stream(pieces)).into_response())
}

fn bad(code: &str, detail: impl Into<String>) -> Problem {
    Problem::new(StatusCode::UNPROCESSABLE_ENTITY, code, detail)
}

/// The jobs of the job files of a zip, each handed to `take` with how many files there are; other files in it are passed
/// over. Nothing is to be kept of them where one is bad.
///
/// # Errors
/// With every fault of every file, each with the file's name.
pub fn jobs_of_zip(
    bytes: &[u8],
    mut take: impl FnMut(Job, usize) -> Result<(), Problem>,
) -> Result<usize, Problem> {
    let reported =
        |error: zip::result::ZipError| bad("not_a_zip", format!("Not a readable zip file: {error}."));
    let mut archive = ZipArchive::new(Cursor::new(bytes)).map_err(reported)?;
    if archive.file_names().filter(|name| name.ends_with(SUFFIX)).count() > MOST_FILES {
        return Err(bad("too_many", format!("{MOST_FILES} files at once at most. Split it.")));
    }
    let (mut found, of) = (0, archive.len());
    let mut faults: Vec<FieldError> = Vec::new();
    for index in 0..of {
        let file = archive.by_index(index).map_err(reported)?;
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
            faults.push(FieldError::new(format!("/{name}"), "too_large", "A job file can be 2 MiB at most."));
            continue;
        }
        match read_job(&text) {
            Ok(job) => {
                found += 1;
                take(job, of)?;
            }
            Err(ParseFault::NotJson { message, line, column }) => {
                let says = format!("Line {line}, column {column}: this is not JSON: {message}");
                faults.push(FieldError::new(format!("/{name}"), "not_json", says));
            }
            Err(ParseFault::Faults(reported)) => faults.extend(
                reported
                    .into_iter()
                    .map(|fault| FieldError { pointer: format!("/{name}{}", fault.pointer), ..fault }),
            ),
        }
    }
    if !faults.is_empty() {
        let detail =
            "Some files are not valid jobs, so none were imported: fix them, or take them out of the zip.";
        faults.truncate(100);
        return Err(Problem { errors: faults, ..bad("bad_fields", detail) });
    }
    if found == 0 {
        return Err(bad("no_jobs", format!("It holds no file ending in {SUFFIX}.")));
    }
    Ok(found)
}

/// How far a shop that is taken in is.
#[utoipa::path(
    get, path = "/api/v1/shop.zip/progress", tag = "shop", operation_id = "shop_progress",
    responses((status = 200, description = "Jobs made ready, of how many; nought of nought where none is taken in", body = ShopProgress))
)]
pub async fn shop_progress(State(state): State<AppState>) -> Json<ShopProgress> {
    Json(state.taking_in.so_far())
}

/// A body that comes on has no time limit; one of which nothing comes for so long is given up.
const STALLED: Duration = Duration::from_secs(30);

/// The whole of a body, as long as there is headway.
async fn with_headway(body: Body) -> Result<Bytes, Problem> {
    let mut pieces = body.into_data_stream();
    let mut whole = Vec::new();
    loop {
        let piece = tokio::time::timeout(STALLED, pieces.next()).await.map_err(|_| {
            Problem::new(
                StatusCode::REQUEST_TIMEOUT,
                "stalled",
                "Nothing came for half a minute. Send it again.",
            )
        })?;
        match piece {
            None => return Ok(whole.into()),
            Some(Err(error)) => return Err(bad("not_a_zip", format!("It did not come whole: {error}."))),
            Some(Ok(piece)) if whole.len() + piece.len() > LARGEST_SHOP => {
                let says = "A shop of 256 MiB at most comes in at once. Split it.";
                return Err(Problem::new(StatusCode::PAYLOAD_TOO_LARGE, "too_large", says));
            }
            Some(Ok(piece)) => whole.extend_from_slice(&piece),
        }
    }
}

/// The jobs of a zip made ready to be stored: looked through, drawn, packed.
///
/// # Errors
/// With every fault of every file.
pub fn ready_of_zip(bytes: &[u8], mut reported: impl FnMut(usize, usize)) -> Result<Vec<Prepared>, Problem> {
    let mut ready = Vec::new();
    jobs_of_zip(bytes, |job, of| {
        ready.push(Prepared::of(new_id(), &cards::ready(job)?)?);
        reported(ready.len(), of);
        Ok(())
    })?;
    Ok(ready)
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
pub async fn shop_in(State(state): State<AppState>, body: Body) -> Result<Json<ShopIn>, Problem> {
    let body = with_headway(body).await?;
    let taking = Arc::clone(&state.taking_in);
    // All the work before the database is touched; then one transaction that only writes.
    let ready = state
        .computed(move || {
            let reported = |done, of| {
                taking.say(done, of);
            };
            let ready = ready_of_zip(&body, reported);
            if ready.is_err() {
                reported(0, 0);
            }
            ready
        })
        .await?;
    let added = ready.len();
    let stored = state.stored(move |store| store.create_all(&ready, Timestamp::now())).await;
    state.taking_in.say(0, 0);
    stored?;
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
