//! Jobs: list, make, read, save, undo, redo, history, settle.

use axum::Json;
use axum::body::Bytes;
use axum::extract::rejection::{PathRejection, QueryRejection};
use axum::extract::{Path, Query, State};
use axum::http::{HeaderMap, StatusCode, header};
use axum::response::{IntoResponse, Response};
use derecho_job::Job;
use derecho_job::document::check::FieldError;
use derecho_job::prove::ProveVerdict;
use derecho_results::Card;
use derecho_results::json::{Layout, ToJson as _};
use derecho_results::{settle as settled, solve};
use derecho_store::{BayOrder, ListedJob, RemovedJob, Store, StoreError};
use derecho_words::{Spoken as _, current_english};
use jiff::{Timestamp, Zoned};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

use super::view::JobView;
use super::worked_out::WorkedOut;
use super::{AppState, based_on, basis, path, query};
use crate::api::problem::Problem;
use crate::api::written::Written;
use crate::cards::{ready, shown};

const MOST_PER_PAGE: u32 = 500;

/// A job as the bay lists it.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
pub struct JobLine {
    /// Its id.
    pub id: String,
    /// What it is called.
    pub title: String,
    /// Its revision.
    pub revision: u64,
    /// When it was saved, in UTC.
    #[schema(value_type = String)]
    pub saved_at: Timestamp,
    /// Its card; left out where the job cannot be read.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub card: Option<Card>,
}

impl JobLine {
    fn of(store: &Store, listed: ListedJob) -> Result<Self, StoreError> {
        let card = shown(store, &listed)?.map(|card| card.said_in(current_english()));
        let ListedJob { id, title, revision, saved_at, .. } = listed;
        Ok(Self { id, title, revision, saved_at, card })
    }
}

/// A page of jobs.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
pub struct JobList {
    /// How many there are in all.
    pub total: u64,
    /// This page, in the order asked for.
    pub jobs: Vec<JobLine>,
}

/// Which jobs to list.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct WantedJob {
    /// Part of a title or a vehicle.
    #[serde(default)]
    search: String,
    /// How many at the most; 50 where left out.
    #[serde(default = "fifty")]
    limit: u32,
    /// How many to pass over.
    #[serde(default)]
    offset: u32,
    /// In which order.
    #[serde(default)]
    #[param(inline)]
    order: ListOrder,
}

/// In which order jobs are listed.
#[derive(Clone, Copy, Debug, Default, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ListOrder {
    /// Last saved first.
    #[default]
    Newest,
    /// What is due first, then what waits for somebody, then the rest.
    WaitingFirst,
}

const fn fifty() -> u32 {
    50
}

/// A line of a job's history.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
pub struct HistoryEntry {
    /// The revision.
    pub revision: u64,
    /// created, saved, undone, redone or restored.
    pub kind: String,
    /// When, in UTC.
    #[schema(value_type = String)]
    pub saved_at: Timestamp,
}

/// A fresh id. Later ids sort after earlier ones.
#[must_use]
pub fn new_id() -> String {
    uuid::Uuid::now_v7().to_string()
}

/// The jobs in the bay.
#[utoipa::path(
    get, path = "/api/v1/jobs", tag = "jobs", params(WantedJob),
    responses((status = 200, description = "A page of jobs", body = JobList))
)]
pub async fn list(
    State(state): State<AppState>,
    wanted: Result<Query<WantedJob>, QueryRejection>,
) -> Result<Json<JobList>, Problem> {
    let wanted = query(wanted)?;
    let limit = wanted.limit.min(MOST_PER_PAGE);
    let order = match wanted.order {
        ListOrder::Newest => BayOrder::Newest,
        ListOrder::WaitingFirst => BayOrder::WaitingFirst(Zoned::now().date()),
    };
    let list = move |store: &Store| {
        let (jobs, total) = store.list_by(&wanted.search, limit, wanted.offset, order)?;
        let jobs = jobs.into_iter().map(|job| JobLine::of(store, job)).collect::<Result<_, _>>()?;
        Ok(JobList { total, jobs })
    };
    Ok(Json(state.stored(list).await?))
}

/// Stores a document as a new job.
#[utoipa::path(
    post, path = "/api/v1/jobs", tag = "jobs", request_body = Job,
    responses(
        (status = 201, description = "The new job", body = JobView),
        (status = 422, description = "Bad fields, all of them", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn create(State(state): State<AppState>, body: Bytes) -> Result<Response, Problem> {
    let WorkedOut { ready, said } = state.worked_out(body).await?;
    let stored = state.stored(move |store| store.create_ready(&new_id(), ready, Timestamp::now())).await?;
    said.answer(&stored, StatusCode::CREATED)
}

/// A job as it stands.
#[utoipa::path(
    get, path = "/api/v1/jobs/{id}", tag = "jobs",
    params(("id" = String, Path, description = "The job's id")),
    responses(
        (status = 200, description = "The job", body = JobView),
        (status = 404, description = "No such job", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn read(
    State(state): State<AppState>,
    id: Result<Path<String>, PathRejection>,
) -> Result<Response, Problem> {
    let id = path(id)?;
    let stored = state.stored_of(&id.clone(), move |store| store.get(&id)).await?;
    state.reported(stored, StatusCode::OK).await
}

/// Saves a document over the revision named in If-Match.
#[utoipa::path(
    put, path = "/api/v1/jobs/{id}", tag = "jobs", request_body = Job,
    params(
        ("id" = String, Path, description = "The job's id"),
        ("If-Match" = String, Header, description = "The revision the change is based on, in quotes"),
        ("Idempotency-Key" = Option<String>, Header, description = "The client's own name for this edit: sent again it is made once"),
    ),
    responses(
        (status = 200, description = "The job as saved", body = JobView),
        (status = 412, description = "Changed elsewhere; `current` holds the newer job", body = Problem, content_type = "application/problem+json"),
        (status = 422, description = "Bad fields, all of them", body = Problem, content_type = "application/problem+json"),
        (status = 428, description = "If-Match is missing", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn save(
    State(state): State<AppState>,
    id: Result<Path<String>, PathRejection>,
    headers: HeaderMap,
    body: Bytes,
) -> Result<Response, Problem> {
    let (id, basis) = (path(id)?, basis(&headers)?);
    let WorkedOut { ready, said } = state.worked_out(body).await?;
    let stored = state
        .stored_of(&id.clone(), move |store| store.save_ready(&id, basis, ready, Timestamp::now()))
        .await?;
    // What is stored is this document, whether it was saved now, before, or was there already.
    said.answer(&stored, StatusCode::OK)
}

/// Takes a job out of the bay.
#[utoipa::path(
    delete, path = "/api/v1/jobs/{id}", tag = "jobs",
    params(
        ("id" = String, Path, description = "The job's id"),
        ("If-Match" = String, Header, description = "The revision it was seen at, in quotes"),
    ),
    responses(
        (status = 204, description = "Taken out"),
        (status = 412, description = "Changed elsewhere", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn remove(
    State(state): State<AppState>,
    id: Result<Path<String>, PathRejection>,
    headers: HeaderMap,
) -> Result<StatusCode, Problem> {
    let (id, based_on) = (path(id)?, based_on(&headers)?);
    state.stored_of(&id.clone(), move |store| store.remove(&id, based_on)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// A change the program makes to a job by itself.
#[derive(Clone, Copy, Debug)]
enum Change {
    Undo,
    Redo,
    Restore(u64),
    Settle,
}

/// Makes a change over the revision named in If-Match, and answers the job as it is then.
async fn changed(
    state: &AppState,
    id: String,
    headers: &HeaderMap,
    change: Change,
) -> Result<Response, Problem> {
    let (basis, now) = (basis(headers)?, Timestamp::now());
    let job = match change {
        Change::Settle => {
            let wanted = id.clone();
            let stored = state.stored_of(&wanted.clone(), move |store| store.get(&wanted)).await?;
            let settling = move || settled(&stored.job, now).ok_or_else(|| not_closed(&stored.job));
            Some(state.computed(settling).await?)
        }
        _ => None,
    };
    let stored = state
        .stored_of(&id.clone(), move |store| match (change, job) {
            (_, Some(job)) => match store.save_ready(&id, basis, ready(job)?, now) {
                // Sent again after a lost answer: it was settled then, at another moment.
                Err(StoreError::KeyUsed) => store.get(&id),
                saved => saved,
            },
            (Change::Undo, _) => store.undo(&id, basis, now),
            (Change::Redo, _) => store.redo(&id, basis, now),
            (Change::Restore(revision), _) => store.restore(&id, basis, revision, now),
            (Change::Settle, None) => store.get(&id),
        })
        .await?;
    state.reported_anew(stored).await
}

/// Why a job can't be closed: what its proof wants next, or each thing that stands in the way with its place.
fn not_closed(job: &Job) -> Problem {
    let results = solve(&Job { settled: None, ..job.clone() });
    let unit = job.rig.sheet_unit;
    let proved = results.prove.as_ref().is_some_and(|prove| prove.verdict == ProveVerdict::CanSettle);
    let next = results.status.next.as_ref().map_or_else(String::new, |next| next.says.in_unit(unit));
    if !proved {
        let detail = format!("The job can't be closed: it is not proved yet. Next: {next}.");
        return Problem::new(StatusCode::CONFLICT, "not_proved", detail);
    }
    let standing = results.findings.iter().filter(|finding| finding.stands_in_the_way());
    let errors = standing.map(|finding| {
        let pointer = finding.goes_to.clone().unwrap_or_else(|| "/proof/acceptances".to_owned());
        FieldError::new(pointer, "stands_in_the_way", finding.says.in_unit(unit))
    });
    Problem {
        errors: errors.collect(),
        ..Problem::new(
            StatusCode::CONFLICT,
            "still_open",
            "The job can't be closed: each thing listed is to be put right, or accepted with a reason on the Prove screen.",
        )
    }
}

/// Takes the last change back.
#[utoipa::path(
    post, path = "/api/v1/jobs/{id}/undo", tag = "jobs",
    params(
        ("id" = String, Path, description = "The job's id"),
        ("If-Match" = String, Header, description = "The revision it was seen at, in quotes"),
        ("Idempotency-Key" = Option<String>, Header, description = "The client's own name for this edit: sent again it is made once"),
    ),
    responses(
        (status = 200, description = "The job without the change", body = JobView),
        (status = 409, description = "Nothing to undo", body = Problem, content_type = "application/problem+json"),
        (status = 412, description = "Changed elsewhere", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn undo(
    State(state): State<AppState>,
    id: Result<Path<String>, PathRejection>,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    changed(&state, path(id)?, &headers, Change::Undo).await
}

/// Brings the last undone change back.
#[utoipa::path(
    post, path = "/api/v1/jobs/{id}/redo", tag = "jobs",
    params(
        ("id" = String, Path, description = "The job's id"),
        ("If-Match" = String, Header, description = "The revision it was seen at, in quotes"),
        ("Idempotency-Key" = Option<String>, Header, description = "The client's own name for this edit: sent again it is made once"),
    ),
    responses(
        (status = 200, description = "The job with the change", body = JobView),
        (status = 409, description = "Nothing to redo", body = Problem, content_type = "application/problem+json"),
        (status = 412, description = "Changed elsewhere", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn redo(
    State(state): State<AppState>,
    id: Result<Path<String>, PathRejection>,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    changed(&state, path(id)?, &headers, Change::Redo).await
}

/// Every revision of a job, newest first.
#[utoipa::path(
    get, path = "/api/v1/jobs/{id}/revisions", tag = "jobs",
    params(("id" = String, Path, description = "The job's id")),
    responses(
        (status = 200, description = "The history", body = Vec<HistoryEntry>),
        (status = 404, description = "No such job", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn history(
    State(state): State<AppState>,
    id: Result<Path<String>, PathRejection>,
) -> Result<Json<Vec<HistoryEntry>>, Problem> {
    let id = path(id)?;
    let lines = state.stored_of(&id.clone(), move |store| store.history(&id)).await?;
    let entries = lines.into_iter().map(|line| HistoryEntry {
        revision: line.revision,
        kind: line.kind.word().to_owned(),
        saved_at: line.saved_at,
    });
    Ok(Json(entries.collect()))
}

/// The document of one revision.
#[utoipa::path(
    get, path = "/api/v1/jobs/{id}/revisions/{revision}", tag = "jobs",
    params(("id" = String, Path, description = "The job's id"), ("revision" = u64, Path, description = "The revision")),
    responses(
        (status = 200, description = "The document", body = Job),
        (status = 404, description = "No such job or revision", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn revision(
    State(state): State<AppState>,
    place: Result<Path<(String, u64)>, PathRejection>,
) -> Result<Written, Problem> {
    let (id, revision) = path(place)?;
    Written::with(
        &state.stored_of(&id.clone(), move |store| store.revision(&id, revision)).await?,
        Layout::Exact,
    )
}

/// Brings an earlier revision back, as a new one.
#[utoipa::path(
    post, path = "/api/v1/jobs/{id}/revisions/{revision}/restore", tag = "jobs",
    params(
        ("id" = String, Path, description = "The job's id"),
        ("revision" = u64, Path, description = "The revision"),
        ("If-Match" = String, Header, description = "The revision it was seen at, in quotes"),
        ("Idempotency-Key" = Option<String>, Header, description = "The client's own name for this edit: sent again it is made once"),
    ),
    responses(
        (status = 200, description = "The job as it was then", body = JobView),
        (status = 412, description = "Changed elsewhere", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn restore(
    State(state): State<AppState>,
    place: Result<Path<(String, u64)>, PathRejection>,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    let (id, revision) = path(place)?;
    changed(&state, id, &headers, Change::Restore(revision)).await
}

/// Settles a proved job on the results it has now.
#[utoipa::path(
    post, path = "/api/v1/jobs/{id}/settle", tag = "jobs",
    params(
        ("id" = String, Path, description = "The job's id"),
        ("If-Match" = String, Header, description = "The revision it was seen at, in quotes"),
        ("Idempotency-Key" = Option<String>, Header, description = "The client's own name for this edit: sent again it is made once"),
    ),
    responses(
        (status = 200, description = "The settled job", body = JobView),
        (status = 409, description = "Not proved", body = Problem, content_type = "application/problem+json"),
        (status = 412, description = "Changed elsewhere", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn settle(
    State(state): State<AppState>,
    id: Result<Path<String>, PathRejection>,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    changed(&state, path(id)?, &headers, Change::Settle).await
}

/// A job that was taken out of the bay.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
pub struct RemovedLine {
    /// Its id.
    pub id: String,
    /// What it is called.
    pub title: String,
    /// When it was saved last, in UTC.
    #[schema(value_type = String)]
    pub saved_at: Timestamp,
}

impl From<RemovedJob> for RemovedLine {
    fn from(removed: RemovedJob) -> Self {
        let RemovedJob { id, title, saved_at } = removed;
        Self { id, title, saved_at }
    }
}

/// Jobs that were taken out of the bay, last saved first.
#[utoipa::path(
    get, path = "/api/v1/removed-jobs", tag = "jobs", operation_id = "removed_jobs",
    responses((status = 200, description = "Each can be brought back", body = Vec<RemovedLine>))
)]
pub async fn removed(State(state): State<AppState>) -> Result<Json<Vec<RemovedLine>>, Problem> {
    let removed = state.stored(derecho_store::Store::removed).await?;
    Ok(Json(removed.into_iter().map(RemovedLine::from).collect()))
}

/// Puts a job that was taken out back into the bay, as it was.
#[utoipa::path(
    post, path = "/api/v1/removed-jobs/{id}", tag = "jobs", operation_id = "bring_back",
    params(("id" = String, Path, description = "The job's id")),
    responses(
        (status = 200, description = "The job", body = JobView),
        (status = 404, description = "No such job was taken out", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn bring_back(
    State(state): State<AppState>,
    id: Result<Path<String>, PathRejection>,
) -> Result<Response, Problem> {
    let id = path(id)?;
    let stored = state.stored(move |store| store.bring_back(&id)).await?;
    state.reported(stored, StatusCode::OK).await
}

/// The job as a job file to keep.
#[utoipa::path(
    get, path = "/api/v1/jobs/{id}/export", tag = "jobs",
    params(("id" = String, Path, description = "The job's id")),
    responses(
        (status = 200, description = "A job file", body = Job),
        (status = 404, description = "No such job", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn export(
    State(state): State<AppState>,
    id: Result<Path<String>, PathRejection>,
) -> Result<Response, Problem> {
    let id = path(id)?;
    let stored = state.stored_of(&id.clone(), move |store| store.get(&id)).await?;
    let plain = stored.job.title.to_ascii_lowercase();
    let words = plain.split(|c: char| !c.is_ascii_alphanumeric()).filter(|word| !word.is_empty());
    let name = words.collect::<Vec<_>>().join("-");
    let text = stored.job.json(Layout::Indented).map_err(|error| Problem::internal(&error))?;
    let disposition = format!("attachment; filename=\"{name}.derecho.json\"");
    Ok((
        [(header::CONTENT_TYPE, "application/json".to_owned()), (header::CONTENT_DISPOSITION, disposition)],
        text,
    )
        .into_response())
}
