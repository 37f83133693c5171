//! Computing without storing.

use axum::Json;
use axum::body::Bytes;
use derecho_core::job::{Job, Results, solve};
use serde_json::Value;

use crate::intake::read_job;
use crate::problem::Problem;

/// Computes everything from a document and stores nothing.
#[utoipa::path(
    post, path = "/api/v1/compute", tag = "compute",
    request_body = Job,
    responses(
        (status = 200, description = "Everything the screens show", body = Results),
        (status = 422, description = "Bad fields, all of them", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compute(body: Bytes) -> Result<Json<Results>, Problem> {
    Ok(Json(solve(&read_job(&body)?)))
}

/// The JSON Schema of a job file.
#[utoipa::path(
    get, path = "/api/v1/schema", tag = "compute",
    responses((status = 200, description = "JSON Schema, draft 2020-12", body = Object))
)]
pub async fn schema() -> Json<Value> {
    Json(derecho_core::job::schema::job_schema())
}
