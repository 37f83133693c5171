//! Computing without storing.

use axum::Json;
use axum::body::Bytes;
use axum::extract::State;
use derecho_job::bar::uncertainty::Uncertainty;
use derecho_job::bracket::PlanResult;
use derecho_job::cycle::CycleResult;
use derecho_job::results::{cycle, plan, sway, uncertainty};
use derecho_job::sway::SwayResult;
use derecho_job::{Job, Results, solve};
use serde::Serialize;
use serde_json::Value;
use utoipa::ToSchema;

use crate::api::AppState;
use crate::api::problem::Problem;
use crate::api::written::Written;
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
pub async fn compute(State(state): State<AppState>, body: Bytes) -> Result<Written, Problem> {
    state.computed(move || Written::of(&solve(&read_job(&body)?))).await
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
pub async fn compute_cycle(State(state): State<AppState>, body: Bytes) -> Result<Written, Problem> {
    let cycled = move || {
        let job = read_job(&body)?;
        let cycled = std::thread::scope(|scope| {
            let drawn = scope.spawn(|| uncertainty(&job));
            let cycle = cycle(&job);
            let uncertainty = drawn.join().unwrap_or_else(|panic| std::panic::resume_unwind(panic));
            Cycled { cycle, uncertainty }
        });
        Written::of(&cycled)
    };
    state.computed(cycled).await
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
pub async fn compute_plan(State(state): State<AppState>, body: Bytes) -> Result<Written, Problem> {
    state.computed(move || Written::of(&plan(&read_job(&body)?))).await
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
pub async fn compute_sway(State(state): State<AppState>, body: Bytes) -> Result<Written, Problem> {
    state.computed(move || Written::of(&sway(&read_job(&body)?))).await
}

/// The JSON Schema of a job file.
#[utoipa::path(
    get, path = "/api/v1/schema", tag = "compute",
    responses((status = 200, description = "JSON Schema, draft 2020-12", body = Object))
)]
pub async fn schema() -> Json<Value> {
    Json(derecho_job::document::schema::job_schema())
}
