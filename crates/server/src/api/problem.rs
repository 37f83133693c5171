//! Every error as `application/problem+json` (RFC 9457) with a stable code. The one
//! place where faults of the other crates become HTTP.

use crate::english::in_own_words;
use axum::Json;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use derecho_job::document::check::FieldError;
use derecho_store::StoreError;
use serde::Serialize;
use utoipa::ToSchema;

use crate::api::view::JobView;
use crate::parse::ParseFault;

/// A problem. `code` is stable; `detail` says what is wrong and what to do.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct Problem {
    /// `urn:derecho:problem:` and the code.
    #[serde(rename = "type")]
    pub kind: String,
    /// The status in words.
    pub title: String,
    /// The HTTP status.
    pub status: u16,
    /// Stable name of the problem.
    pub code: String,
    /// What is wrong and what to do.
    pub detail: String,
    /// Every bad field, where fields are bad.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub errors: Vec<FieldError>,
    /// The job as it stands, where a change was based on an older revision.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub current: Option<Box<JobView>>,
}

impl Problem {
    /// A problem without fields.
    pub fn new(status: StatusCode, code: &str, detail: impl Into<String>) -> Self {
        Self {
            kind: format!("urn:derecho:problem:{code}"),
            title: status.canonical_reason().unwrap_or("Problem").to_owned(),
            status: status.as_u16(),
            code: code.to_owned(),
            detail: detail.into(),
            errors: Vec::new(),
            current: None,
        }
    }

    /// Something is wrong with the program; the cause goes to the log, not to the
    /// person.
    pub fn internal(cause: &dyn std::fmt::Display) -> Self {
        tracing::error!(%cause, "internal error");
        Self::new(
            StatusCode::INTERNAL_SERVER_ERROR,
            "internal",
            "Something went wrong in the program. Nothing was changed. Try again; details are in the log.",
        )
    }
}

/// There are as many of this kind as there may be.
#[must_use]
pub fn too_many() -> Response {
    let problem = Problem::new(
        StatusCode::SERVICE_UNAVAILABLE,
        "too_many_at_once",
        "Too much comes in at once. Nothing of this was done; it is sent again by itself, or try again in a moment.",
    );
    let mut response = problem.into_response();
    response.headers_mut().insert(header::RETRY_AFTER, HeaderValue::from_static("1"));
    response.headers_mut().insert(header::CONNECTION, HeaderValue::from_static("close"));
    response
}

impl IntoResponse for Problem {
    fn into_response(mut self) -> Response {
        self.detail = in_own_words(&self.detail);
        for fault in &mut self.errors {
            fault.message = in_own_words(&fault.message);
        }
        let status = StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
        let mut response = (status, Json(self)).into_response();
        response
            .headers_mut()
            .insert(header::CONTENT_TYPE, HeaderValue::from_static("application/problem+json"));
        response
    }
}

impl From<ParseFault> for Problem {
    fn from(refusal: ParseFault) -> Self {
        match refusal {
            ParseFault::NotJson { message, .. } => Self::new(
                StatusCode::BAD_REQUEST,
                "not_json",
                format!("The body is not JSON: {message}. Send one JSON object."),
            ),
            ParseFault::Faults(errors) => Self {
                errors,
                ..Self::new(
                    StatusCode::UNPROCESSABLE_ENTITY,
                    "bad_fields",
                    "Some fields can't be accepted. Each is listed with what to do; nothing was saved.",
                )
            },
        }
    }
}

impl From<StoreError> for Problem {
    fn from(error: StoreError) -> Self {
        match error {
            StoreError::NoSuchJob => {
                Self::new(StatusCode::NOT_FOUND, "no_such_job", "No such job. It may have been removed.")
            }
            StoreError::NoSuchRevision => Self::new(
                StatusCode::NOT_FOUND,
                "no_such_revision",
                "This job has no such revision. Its history lists the ones it has.",
            ),
            StoreError::NothingTo(what) => {
                Self::new(StatusCode::CONFLICT, "nothing_to_change", format!("Nothing to {what}."))
            }
            StoreError::ChangedElsewhere(newer) => Self {
                current: Some(Box::new(JobView::of(*newer))),
                ..Self::new(
                    StatusCode::PRECONDITION_FAILED,
                    "changed_elsewhere",
                    "The job was changed somewhere else after you started this change. Both versions are kept: choose one.",
                )
            },
            StoreError::NoSuchPart => {
                Self::new(StatusCode::NOT_FOUND, "no_such_part", "No such part. Reload the library.")
            }
            StoreError::PartChangedElsewhere => Self::new(
                StatusCode::PRECONDITION_FAILED,
                "part_changed_elsewhere",
                "This part was changed somewhere else after you opened it; your change was not saved. It is still in the form: note it down, close the form and open the part again.",
            ),
            StoreError::KeyUsed => Self::new(
                StatusCode::UNPROCESSABLE_ENTITY,
                "edit_key_used",
                "This Idempotency-Key was used for another edit of this job. Nothing was saved; send the edit with a key of its own.",
            ),
            StoreError::AlreadyThere => {
                Self::new(StatusCode::CONFLICT, "already_there", "There is a job with this id already.")
            }
            // The client keeps what it has and tries again.
            full @ (StoreError::Full | StoreError::ReadOnly) => {
                let code = if matches!(full, StoreError::Full) { "disk_full" } else { "read_only" };
                Self::new(StatusCode::INSUFFICIENT_STORAGE, code, format!("Not saved: {full}."))
            }
            StoreError::Busy => Self::new(
                StatusCode::SERVICE_UNAVAILABLE,
                "database_busy",
                format!("Not done yet: {}.", StoreError::Busy),
            ),
            damaged @ StoreError::Damaged(_) => {
                tracing::error!(%damaged, "the database");
                Self::new(StatusCode::INTERNAL_SERVER_ERROR, "damaged", format!("Not done: {damaged}."))
            }
            StoreError::Unreadable { id, revision, source } => {
                tracing::error!(%id, revision, %source, "a stored document");
                Self::new(
                    StatusCode::INTERNAL_SERVER_ERROR,
                    "unreadable",
                    format!(
                        "Revision {revision} of this job can't be read: {source}. An older one in its history may be readable."
                    ),
                )
            }
            other => Self::internal(&other),
        }
    }
}
