//! What goes out of a job as a file: its card on paper, its reminders for a calendar.

use axum::extract::rejection::{PathRejection, QueryRejection};
use axum::extract::{Path, Query, State};
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use derecho_card::{Paper, card, record};
use derecho_core::measure::Unit;
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};

use super::AppState;
use crate::api::problem::Problem;
use crate::calendar::{calendar, due};

/// The paper.
#[derive(Clone, Copy, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PaperName {
    /// 210 by 297 mm.
    A4,
    /// 8 1/2 by 11 in.
    Letter,
}

/// Which paper.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct CardQuery {
    /// What is usual where the job's sheets are written in inches or millimetres, where empty.
    #[serde(default)]
    #[param(nullable = false)]
    paper: Option<PaperName>,
}

impl CardQuery {
    /// The paper that was asked for, or the usual one.
    fn paper(&self, unit: Unit) -> Paper {
        match self.paper {
            Some(PaperName::A4) => Paper::A4,
            Some(PaperName::Letter) => Paper::Letter,
            None => Paper::usual(unit),
        }
    }
}

/// The record of a closed job as a PDF.
#[utoipa::path(
    get, path = "/api/v1/jobs/{id}/record.pdf", tag = "jobs", operation_id = "record",
    params(("id" = String, Path, description = "The job"), CardQuery),
    responses(
        (status = 200, description = "One sheet for the customer", body = String, content_type = "application/pdf"),
        (status = 400, description = "A query that cannot be read", body = Problem, content_type = "application/problem+json"),
        (status = 404, description = "No such job", body = Problem, content_type = "application/problem+json"),
        (status = 409, description = "The job is not closed", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn record_pdf(
    State(state): State<AppState>,
    path: Result<Path<String>, PathRejection>,
    query: Result<Query<CardQuery>, QueryRejection>,
) -> Result<Response, Problem> {
    let (id, query) = (super::path(path)?, super::query(query)?);
    let stored = state.stored_of(&id.clone(), move |store| store.get(&id)).await?;
    let paper = query.paper(stored.job.rig.sheet_unit);
    let written = move || record(&stored.job, paper).map_err(|error| Problem::internal(&error));
    let Some(bytes) = state.computed(written).await? else {
        return Err(Problem::new(
            StatusCode::CONFLICT,
            "not_closed",
            "This job is not closed yet, so there is no record of it. Close it on the Prove screen first.",
        ));
    };
    let kind = [
        (header::CONTENT_TYPE, "application/pdf"),
        (header::CONTENT_DISPOSITION, "inline; filename=\"record.pdf\""),
    ];
    Ok((StatusCode::OK, kind, bytes).into_response())
}

/// The job card as a PDF.
#[utoipa::path(
    get, path = "/api/v1/jobs/{id}/card.pdf", tag = "jobs", operation_id = "card",
    params(("id" = String, Path, description = "The job"), CardQuery),
    responses(
        (status = 200, description = "The card, boxes and template at one to one", body = String, content_type = "application/pdf"),
        (status = 400, description = "A query that cannot be read", body = Problem, content_type = "application/problem+json"),
        (status = 404, description = "No such job", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn card_pdf(
    State(state): State<AppState>,
    path: Result<Path<String>, PathRejection>,
    query: Result<Query<CardQuery>, QueryRejection>,
) -> Result<Response, Problem> {
    let (id, query) = (super::path(path)?, super::query(query)?);
    let stored = state.stored_of(&id.clone(), move |store| store.get(&id)).await?;
    let paper = query.paper(stored.job.rig.sheet_unit);
    let bytes =
        state.computed(move || card(&stored.job, paper).map_err(|error| Problem::internal(&error))).await?;
    let kind = [
        (header::CONTENT_TYPE, "application/pdf"),
        (header::CONTENT_DISPOSITION, "inline; filename=\"card.pdf\""),
    ];
    Ok((StatusCode::OK, kind, bytes).into_response())
}

/// What is due after the work, as a calendar file.
#[utoipa::path(
    get, path = "/api/v1/jobs/{id}/reminders.ics", tag = "jobs", operation_id = "reminders",
    params(("id" = String, Path, description = "The job")),
    responses(
        (status = 200, description = "An iCalendar file, with alarms the day before and on the day", body = String, content_type = "text/calendar"),
        (status = 404, description = "No such job", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn reminders_ics(
    State(state): State<AppState>,
    path: Result<Path<String>, PathRejection>,
) -> Result<Response, Problem> {
    let id = super::path(path)?;
    let stored = state.stored_of(&id.clone(), move |store| store.get(&id)).await?;
    let text = state.computed(move || Ok(calendar(&due(&stored.id, &stored.job, stored.saved_at)))).await?;
    let kind = [
        (header::CONTENT_TYPE, "text/calendar; charset=utf-8"),
        (header::CONTENT_DISPOSITION, "attachment; filename=\"reminders.ics\""),
    ];
    Ok((StatusCode::OK, kind, text).into_response())
}
