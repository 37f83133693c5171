//! Computing without storing.

use axum::Json;
use axum::body::Bytes;
use axum::extract::rejection::{JsonRejection, QueryRejection};
use axum::extract::{Query, State};
use axum::http::StatusCode;
use derecho_core::measure::TapeEntry;
use derecho_core::measure::tape::count;
use derecho_job::bolt_up::WorkResult;
use derecho_job::bracket::PlanResult;
use derecho_job::cycle::CycleResult;
use derecho_job::cycle::near::NearResult;
use derecho_job::document::migrate;
use derecho_job::sway::SwayResult;
use derecho_job::{Job, Results};
use derecho_results::{Drawn, all_drawn, cycle, near, plan_from, solve, sway, sway_beside, turned, work};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use std::collections::BTreeMap;
use utoipa::{IntoParams, ToSchema};

use crate::api::problem::Problem;
use crate::api::shop::other_ends;
use crate::api::written::Written;
use crate::api::{AppState, query};
use crate::parse::read_job;

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

/// Cycles the axle of a document and stores nothing.
#[utoipa::path(
    post, path = "/api/v1/compute/cycle", tag = "compute",
    request_body = Job,
    responses(
        (status = 200, description = "Everything stage Cycle shows", body = CycleResult),
        (status = 422, description = "Bad fields, all of them", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compute_cycle(State(state): State<AppState>, body: Bytes) -> Result<Written, Problem> {
    state.computed(move || Written::of(&cycle(&read_job(&body)?))).await
}

/// Tells of a document's axle what is nearest to touching in each pose that is drawn, and stores nothing.
#[utoipa::path(
    post, path = "/api/v1/compute/near", tag = "compute",
    request_body = Job,
    responses(
        (status = 200, description = "The nearest gap in each drawn pose", body = NearResult),
        (status = 422, description = "Bad fields, all of them", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compute_near(State(state): State<AppState>, body: Bytes) -> Result<Written, Problem> {
    state.computed(move || Written::of(&near(&read_job(&body)?))).await
}

/// Draws every reading of a document within what it is good to, ten thousand times, and stores nothing.
#[utoipa::path(
    post, path = "/api/v1/compute/uncertainty", tag = "compute",
    request_body = Job,
    responses(
        (status = 200, description = "Accuracy of the bar figures", body = Drawn),
        (status = 422, description = "Bad fields, all of them", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compute_uncertainty(State(state): State<AppState>, body: Bytes) -> Result<Written, Problem> {
    state.computed(move || Written::of(&all_drawn(&read_job(&body)?))).await
}

/// Which page of a plan's options.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct PlanPage {
    /// How many options to pass over; a page is of 200.
    #[serde(default)]
    from: usize,
}

/// Plans a document's bracket, hole and bar, and stores nothing.
#[utoipa::path(
    post, path = "/api/v1/compute/plan", tag = "compute", params(PlanPage),
    request_body = Job,
    responses(
        (status = 200, description = "Everything stage Bracket shows", body = PlanResult),
        (status = 400, description = "A query that cannot be read", body = Problem, content_type = "application/problem+json"),
        (status = 422, description = "Bad fields, all of them", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compute_plan(
    State(state): State<AppState>,
    page: Result<Query<PlanPage>, QueryRejection>,
    body: Bytes,
) -> Result<Written, Problem> {
    let PlanPage { from } = query(page)?;
    state.computed(move || Written::of(&plan_from(&read_job(&body)?, from))).await
}

/// Whose document it is.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct WhoseSway {
    /// The stored job that the document is of: where its vehicle's other axle has a job of its own, that axle's
    /// figures come from there. Without it, from this document alone.
    job: Option<String>,
}

/// Works a document's sway bar out and stores nothing.
#[utoipa::path(
    post, path = "/api/v1/compute/sway", tag = "compute", params(WhoseSway),
    request_body = Job,
    responses(
        (status = 200, description = "Everything stage Sway shows", body = SwayResult),
        (status = 400, description = "A query that cannot be read", body = Problem, content_type = "application/problem+json"),
        (status = 422, description = "Bad fields, all of them", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compute_sway(
    State(state): State<AppState>,
    whose: Result<Query<WhoseSway>, QueryRejection>,
    body: Bytes,
) -> Result<Written, Problem> {
    let WhoseSway { job: id } = query(whose)?;
    let Some(id) = id else {
        return state.computed(move || Written::of(&sway(&read_job(&body)?))).await;
    };
    let (job, id) = state.computed(move || Ok((read_job(&body)?, id))).await?;
    let (job, there) = state
        .stored_of(&id.clone(), move |store| {
            let there = other_ends(store, &id, &job)?;
            Ok((job, there))
        })
        .await?;
    state
        .computed(move || match there.first() {
            Some(there) => Written::of(&sway_beside(&job, &there.job, &there.job.title)),
            None => Written::of(&sway(&job)),
        })
        .await
}

/// Plans a document's work, in order, and stores nothing.
#[utoipa::path(
    post, path = "/api/v1/compute/work", tag = "compute",
    request_body = Job,
    responses(
        (status = 200, description = "Everything stage Bolt-up shows", body = WorkResult),
        (status = 422, description = "Bad fields, all of them", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compute_work(State(state): State<AppState>, body: Bytes) -> Result<Written, Problem> {
    state.computed(move || Written::of(&work(&read_job(&body)?))).await
}

/// How many turns were counted.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct Counted {
    /// Turns of the sleeve or the adjusting end as they were counted, + longer, at most a hundred either way: `2 1/2`.
    turns: String,
}

/// A length that turns come to.
#[derive(Debug, Serialize, ToSchema)]
pub struct Turned {
    /// The bar, eye to eye, as it would be typed.
    length: TapeEntry,
}

/// Most turns that are counted: more than any thread has.
const MOST_TURNS: f64 = 100.0;

/// Tells how long a document's bar gets by turns that were counted, and stores nothing.
#[utoipa::path(
    post, path = "/api/v1/compute/turned", tag = "compute", params(Counted),
    request_body = Job,
    responses(
        (status = 200, description = "The length", body = Turned),
        (status = 400, description = "A query that cannot be read", body = Problem, content_type = "application/problem+json"),
        (status = 422, description = "Bad fields, or a bar whose thread is not known", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compute_turned(
    State(state): State<AppState>,
    counted: Result<Query<Counted>, QueryRejection>,
    body: Bytes,
) -> Result<Json<Turned>, Problem> {
    let Counted { turns } = query(counted)?;
    let unprocessable = |code, says| Problem::new(StatusCode::UNPROCESSABLE_ENTITY, code, says);
    let Ok(turns) = count(&turns) else {
        return Err(unprocessable(
            "no_count",
            "Enter turns as a number, such as 2.5 or 2 1/2; − makes the bar shorter.",
        ));
    };
    if turns.abs() > MOST_TURNS {
        let says = "That is more turns than any thread has. Count again, from where the bar stood.";
        return Err(unprocessable("too_many_turns", says));
    }
    let reported = move || {
        let length = turned(&read_job(&body)?, turns).ok_or_else(|| {
            let says = "How far a turn takes this bar is not known. Type its thread in stage Bar, or the length as it is set.";
            unprocessable("thread_unknown", says)
        })?;
        Ok(Json(Turned { length }))
    };
    state.computed(reported).await
}

/// What a device has kept since an older program.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(default, deny_unknown_fields)]
#[derive(Default)]
pub struct Older {
    /// A document that was not saved yet, of whatever version.
    #[schema(value_type = Option<Job>, nullable = false)]
    document: Option<Value>,
    /// Places of fields with something typed that was not taken yet.
    places: Vec<String>,
}

/// The same as this program has it.
#[derive(Debug, Serialize, ToSchema)]
pub struct BroughtForward {
    /// The document in today's form, nothing of it lost.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<Job>, nullable = false)]
    document: Option<Value>,
    /// The places that have moved, each with where it is now.
    places: BTreeMap<String, String>,
}

/// Brings what a device has kept since an older program to today's form, and stores nothing.
#[utoipa::path(
    post, path = "/api/v1/compute/forward", tag = "compute",
    request_body = Older,
    responses(
        (status = 200, description = "The same in today's form", body = BroughtForward),
        (status = 400, description = "A body that cannot be read", body = Problem, content_type = "application/problem+json"),
        (status = 422, description = "No job of a version this program knows", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compute_forward(
    State(state): State<AppState>,
    older: Result<Json<Older>, JsonRejection>,
) -> Result<Json<BroughtForward>, Problem> {
    let Older { document, places } = super::instruments::body(older)?;
    let forward = move || {
        let document = document.map(|document| migrate::read(&document.to_string())).transpose();
        let document = document.map_err(|fault| {
            let says = format!(
                "This is no job that this program knows: {fault}. Open it with the one that wrote it."
            );
            Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "unknown_version", says)
        })?;
        let moved =
            places.into_iter().filter_map(|place| Some((place.clone(), migrate::place_forward(&place)?)));
        Ok(Json(BroughtForward {
            document: document.as_ref().map(migrate::as_value),
            places: moved.collect(),
        }))
    };
    state.computed(forward).await
}

/// The JSON Schema of a job file.
#[utoipa::path(
    get, path = "/api/v1/schema", tag = "compute",
    responses((status = 200, description = "JSON Schema, draft 2020-12", body = Object))
)]
pub async fn schema() -> Json<Value> {
    Json(derecho_job::document::schema::job_schema())
}
