//! Drawings of a job at one to one: the wrap for a cope, the holes of a bracket.

use crate::english::in_own_words;
use axum::extract::rejection::{PathRejection, QueryRejection};
use axum::extract::{Path, Query, State};
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use derecho_core::measure::typed::mark;
use derecho_core::parts::BracketEnd;
use derecho_core::parts::template::{Drawing, cope_wrap, panel_hole};
use derecho_job::bracket::template::holes as bracket_holes;
use derecho_job::document::Job;
use derecho_job::setups::moves::brackets;
use derecho_results::sway;
use derecho_words::title_of_holes;
use serde::Deserialize;
use utoipa::IntoParams;

use super::AppState;
use crate::api::problem::Problem;

/// Corners of a panel's hole, so that it does not tear.
const CORNER: f64 = 12.7;

/// Which drawing.
#[derive(Deserialize, IntoParams)]
pub struct TemplateQuery {
    /// `svg` or `dxf`.
    format: String,
    /// For a cope: `frame` or `axle`. For holes: the bracket's id, empty for the one that is there. For a panel: its name.
    of: String,
    /// For holes of the bracket that is there: which end it is on.
    end: Option<BracketEnd>,
}

/// A drawing at one to one with a bar to check its scale: `cope`, `holes` or `panel`.
#[utoipa::path(
    get, path = "/api/v1/jobs/{id}/templates/{drawing}", tag = "jobs", operation_id = "template",
    params(("id" = String, Path, description = "The job"), ("drawing" = String, Path, description = "cope, holes or panel"), TemplateQuery),
    responses(
        (status = 200, description = "The drawing, SVG in millimeters or DXF R12", body = String),
        (status = 404, description = "No such job or drawing", body = Problem, content_type = "application/problem+json"),
        (status = 422, description = "Something is not measured yet", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn template(
    State(state): State<AppState>,
    path: Result<Path<(String, String)>, PathRejection>,
    query: Result<Query<TemplateQuery>, QueryRejection>,
) -> Result<Response, Problem> {
    let (id, name) = super::path(path)?;
    let query = super::query(query)?;
    let format = query.format.clone();
    let job = state.stored_of(&id.clone(), move |store| store.get(&id)).await?.job;
    let drawing = match name.as_str() {
        "cope" => cope(&job, &query.of)?,
        "holes" => holes(&job, &query.of, query.end)?,
        "panel" => state.computed(move || panel(&job, &query.of)).await?,
        _ => {
            let reported = "No such drawing. Ask for cope, holes or panel.";
            return Err(Problem::new(StatusCode::NOT_FOUND, "no_such_drawing", reported));
        }
    };
    let (kind, text) = match format.as_str() {
        "svg" => ("image/svg+xml", drawing.said(in_own_words).svg()),
        "dxf" => ("image/vnd.dxf", drawing.said(in_own_words).dxf()),
        _ => {
            return Err(Problem::new(
                StatusCode::UNPROCESSABLE_ENTITY,
                "unknown_format",
                "Ask for svg or dxf.",
            ));
        }
    };
    let file = format!("attachment; filename=\"{name}.{format}\"");
    Ok(([(header::CONTENT_TYPE, kind), (header::CONTENT_DISPOSITION, file.as_str())], text).into_response())
}

fn missing(detail: &str) -> Problem {
    Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "not_measured", detail)
}

fn cope(job: &Job, end: &str) -> Result<Drawing, Problem> {
    let builder = &job.bracket.builder;
    let shell = if end == "frame" { &builder.frame_shell } else { &builder.axle_shell };
    let (Some(shell), Some(stock)) = (shell, &builder.stock) else {
        return Err(missing("Enter the bushing shell and bar stock diameters on the Bar screen first."));
    };
    let (shell, stock) = (shell.length(), stock.length());
    if stock > shell {
        return Err(missing("The bar stock is bigger than the bushing shell: it can't be coped to it."));
    }
    Ok(cope_wrap(shell, stock))
}

fn panel(job: &Job, name: &str) -> Result<Drawing, Problem> {
    let room = sway(job).room.ok_or_else(|| missing("Measure the sway bar on the Sway screen first."))?;
    let cut = room
        .cuts
        .iter()
        .find(|cut| cut.panel == name)
        .ok_or_else(|| missing("No such panel in this job. Choose one listed on the Sway screen."))?;
    let hole = cut.cut_mm.ok_or_else(|| missing("Nothing passes through this panel: nothing to cut."))?;
    let title = format!("Hole for the sway bar arm in {}, left side; flip over for the right", mark(name));
    Ok(panel_hole(&title, hole, (cut.mark_mm[0], cut.mark_mm[1]), CORNER))
}

fn holes(job: &Job, id: &str, end: Option<BracketEnd>) -> Result<Drawing, Problem> {
    let all = brackets(job);
    let bracket = all
        .iter()
        .find(|bracket| bracket.id.as_str() == id && end.is_none_or(|end| bracket.end == end))
        .ok_or_else(|| missing("No such bracket in this job. Choose one it lists."))?;
    Ok(bracket_holes(job, bracket, &title_of_holes(bracket)))
}
