//! The handlers under /api/v1. Each does one thing; errors become problems in
//! `problem`, a job goes out as in `view`. Not here: reading a body against the schema
//! (`crate::intake`), and anything that computes.

pub mod compute;
pub mod figure;
pub mod jobs;
pub mod parts;
pub mod problem;
pub mod samples;
pub mod tape;
pub mod templates;
pub mod view;

use std::sync::Arc;

use axum::extract::rejection::{PathRejection, QueryRejection};
use axum::extract::{Path, Query};
use axum::http::{HeaderMap, StatusCode, header};
use derecho_store::{Store, StoreError};
use tokio::task::spawn_blocking;

use crate::api::problem::Problem;

/// What handlers share.
#[derive(Clone, Debug)]
pub struct AppState {
    /// The jobs.
    pub store: Arc<Store>,
}

impl AppState {
    /// Runs a store call on a thread that may wait for the disk.
    async fn stored<T: Send + 'static>(
        &self,
        call: impl FnOnce(&Store) -> Result<T, StoreError> + Send + 'static,
    ) -> Result<T, Problem> {
        let store = Arc::clone(&self.store);
        match spawn_blocking(move || call(&store)).await {
            Ok(answer) => answer.map_err(Problem::from),
            Err(panic) => Err(Problem::internal(&panic)),
        }
    }
}

/// The revision a change is based on, from `If-Match: "7"`.
fn based_on(headers: &HeaderMap) -> Result<u64, Problem> {
    let missing = || {
        Problem::new(
            StatusCode::PRECONDITION_REQUIRED,
            "revision_missing",
            "Say which revision this change is based on, with the header If-Match: \"7\".",
        )
    };
    let text = headers.get(header::IF_MATCH).ok_or_else(missing)?.to_str().map_err(|_| missing())?;
    text.trim().trim_start_matches("W/").trim_matches('"').parse().map_err(|_| missing())
}

/// The query, or what is wrong with it.
fn query<T>(query: Result<Query<T>, QueryRejection>) -> Result<T, Problem> {
    query
        .map(|Query(value)| value)
        .map_err(|rejection| Problem::new(StatusCode::BAD_REQUEST, "bad_query", rejection.to_string()))
}

/// The parts of the address, or what is wrong with them.
fn path<T>(path: Result<Path<T>, PathRejection>) -> Result<T, Problem> {
    path.map(|Path(value)| value)
        .map_err(|rejection| Problem::new(StatusCode::BAD_REQUEST, "bad_address", rejection.to_string()))
}
