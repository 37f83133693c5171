//! Opening a sample as a job of one's own.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::Response;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::AppState;
use super::jobs::new_id;
use super::view::JobView;
use super::worked_out::WorkedOut;
use crate::api::problem::Problem;
use crate::samples;

/// A sample that can be opened.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct SampleLine {
    /// Its name in addresses.
    pub name: String,
    /// What the job is called.
    pub title: String,
    /// The vehicle.
    pub vehicle: String,
}

/// The samples the program carries.
#[utoipa::path(
    get, path = "/api/v1/samples", tag = "samples", operation_id = "list_samples",
    responses((status = 200, description = "All samples", body = Vec<SampleLine>))
)]
pub async fn list() -> Json<Vec<SampleLine>> {
    let lines = samples::names().into_iter().filter_map(|name| {
        let job = samples::sample(&name)?;
        Some(SampleLine { name, title: job.title, vehicle: job.rig.vehicle })
    });
    Json(lines.collect())
}

/// Opens a sample as a new job.
#[utoipa::path(
    post, path = "/api/v1/samples/{name}/open", tag = "samples", operation_id = "open_sample",
    params(("name" = String, Path, description = "The sample's name")),
    responses(
        (status = 201, description = "The new job", body = JobView),
        (status = 404, description = "No such sample", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn open(State(state): State<AppState>, Path(name): Path<String>) -> Result<Response, Problem> {
    let job = samples::sample(&name).ok_or_else(|| {
        Problem::new(StatusCode::NOT_FOUND, "no_such_sample", format!("No sample called {name:?}."))
    })?;
    let WorkedOut { ready, said } = state.computed(move || WorkedOut::of(job)).await?;
    let stored = state.stored(move |store| store.create_ready(&new_id(), ready, Timestamp::now())).await?;
    said.answer(&stored, StatusCode::CREATED)
}
