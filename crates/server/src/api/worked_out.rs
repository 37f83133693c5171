//! A document worked out once: what of it is stored, and what is answered.

use axum::body::Bytes;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use derecho_job::Job;
use derecho_results::json::{Layout, ToJson as _};
use derecho_results::solve;
use derecho_store::{Ready, Store, StoreError, StoredJob};
use jiff::Timestamp;
use serde::Serialize;

use super::problem::Problem;
use crate::cards::with_card;

/// Where a job stands, without its document: the beginning of what `JobView` is answered as.
#[derive(Serialize)]
struct Standing<'a> {
    id: &'a str,
    revision: u64,
    saved_at: Timestamp,
    can_undo: bool,
    can_redo: bool,
    #[serde(skip_serializing_if = "Option::is_none")]
    edit: Option<&'a str>,
}

/// A document worked out once: ready to be stored with its card, and to be answered with its results.
pub(super) struct WorkedOut {
    /// What is stored.
    pub(super) ready: Ready,
    /// Its text and its results' as they are answered.
    pub(super) said: Said,
}

/// The texts of a document and of its results.
pub(super) struct Said {
    document: String,
    results: Vec<u8>,
}

impl WorkedOut {
    /// Works a document out and writes both.
    pub(super) fn of(job: Job) -> Result<Self, Problem> {
        let results = solve(&job);
        let text = results.json(Layout::Rounded).map_err(|error| Problem::internal(&error))?;
        let ready = with_card(job, results).map_err(Problem::from)?;
        Ok(Self { said: Said { document: ready.text().to_owned(), results: text }, ready })
    }
}

impl Said {
    /// The answer to whoever asked for the job, with its revision as ETag. `stored` is of this document.
    pub(super) fn answer(&self, stored: &StoredJob, status: StatusCode) -> Result<Response, Problem> {
        let standing = Standing {
            id: &stored.id,
            revision: stored.revision,
            saved_at: stored.saved_at,
            can_undo: stored.can_undo,
            can_redo: stored.can_redo,
            edit: stored.edit.as_deref(),
        };
        // Its last brace is left for after the document and the results.
        let mut body = serde_json::to_vec(&standing).map_err(|error| Problem::internal(&error))?;
        body.pop();
        body.extend_from_slice(b",\"document\":");
        body.extend_from_slice(self.document.as_bytes());
        body.extend_from_slice(b",\"results\":");
        body.extend_from_slice(&self.results);
        body.push(b'}');
        let kind = (header::CONTENT_TYPE, HeaderValue::from_static("application/json"));
        let mut response = (status, [kind], Bytes::from(body)).into_response();
        if let Ok(tag) = HeaderValue::from_str(&format!("\"{}\"", stored.revision)) {
            response.headers_mut().insert(header::ETAG, tag);
        }
        Ok(response)
    }
}

/// A stored job as it is answered. One whose card is not drawn yet, as after undo, gets it.
pub(super) fn answered(stored: StoredJob, status: StatusCode) -> Result<(Response, Undrawn), Problem> {
    let WorkedOut { ready, said } = WorkedOut::of(stored.job.clone())?;
    let answer = said.answer(&stored, status)?;
    Ok((answer, Undrawn { id: stored.id, revision: stored.revision, ready }))
}

/// A job whose card may not be drawn yet.
pub(super) struct Undrawn {
    pub(super) id: String,
    revision: u64,
    ready: Ready,
}

impl Undrawn {
    /// Puts its card.
    pub(super) fn draw(&self, store: &Store) -> Result<(), StoreError> {
        store.put_card(&self.id, self.revision, self.ready.card())
    }
}
