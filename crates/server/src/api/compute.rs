//! Computing without storing.

use axum::Json;
use axum::body::Bytes;
use derecho_job::bar::uncertainty::Uncertainty;
use derecho_job::bracket::PlanResult;
use derecho_job::cycle::CycleResult;
use derecho_job::results::{cycle, plan, sway, uncertainty};
use derecho_job::sway::SwayResult;
use derecho_job::{Job, Results, solve};
use serde::Serialize;
use serde_json::Value;
use tokio::task::spawn_blocking;
use utoipa::ToSchema;

use crate::api::problem::Problem;
use crate::intake::read_job;

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

/// The axle over everything it can do, and how sure the bar's figures are.
#[derive(Serialize, ToSchema)]
pub struct Cycled {
    /// Limits, sweeps, the left × right envelope, for both setups.
    pub cycle: CycleResult,
    /// Intervals of the bar's figures, where the bar is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub uncertainty: Option<Uncertainty>,
}

/// Cycles the axle of a document and stores nothing.
#[utoipa::path(
    post, path = "/api/v1/compute/cycle", tag = "compute",
    request_body = Job,
    responses(
        (status = 200, description = "Everything stage Cycle shows", body = Cycled),
        (status = 422, description = "Bad fields, all of them", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compute_cycle(body: Bytes) -> Result<Json<Cycled>, Problem> {
    let job = read_job(&body)?;
    // Tens of milliseconds of arithmetic: on a thread that may take its time.
    let cycled = spawn_blocking(move || Cycled { cycle: cycle(&job), uncertainty: uncertainty(&job) });
    cycled.await.map(Json).map_err(|panic| Problem::internal(&panic))
}

/// Plans a document's bracket, hole and bar, and stores nothing.
#[utoipa::path(
    post, path = "/api/v1/compute/plan", tag = "compute",
    request_body = Job,
    responses(
        (status = 200, description = "Everything stage Bracket shows", body = PlanResult),
        (status = 422, description = "Bad fields, all of them", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compute_plan(body: Bytes) -> Result<Json<PlanResult>, Problem> {
    let job = read_job(&body)?;
    spawn_blocking(move || plan(&job)).await.map(Json).map_err(|panic| Problem::internal(&panic))
}

/// Works a document's sway bar out and stores nothing.
#[utoipa::path(
    post, path = "/api/v1/compute/sway", tag = "compute",
    request_body = Job,
    responses(
        (status = 200, description = "Everything stage Sway shows", body = SwayResult),
        (status = 422, description = "Bad fields, all of them", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compute_sway(body: Bytes) -> Result<Json<SwayResult>, Problem> {
    let job = read_job(&body)?;
    spawn_blocking(move || sway(&job)).await.map(Json).map_err(|panic| Problem::internal(&panic))
}

/// The JSON Schema of a job file.
#[utoipa::path(
    get, path = "/api/v1/schema", tag = "compute",
    responses((status = 200, description = "JSON Schema, draft 2020-12", body = Object))
)]
pub async fn schema() -> Json<Value> {
    Json(derecho_job::document::schema::job_schema())
}
