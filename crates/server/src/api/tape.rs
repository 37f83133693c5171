//! Reading a typed length back while it is typed.

use axum::Json;
use axum::extract::Query;
use axum::extract::rejection::QueryRejection;
use axum::http::StatusCode;
use derecho_core::measure::Unit;
use derecho_core::measure::print::{Style, written_nanometres};
use derecho_core::measure::tape::{Kind, TapeError, TapeNumber, parse};
use derecho_job::document::check::FieldError;
use derecho_job::document::schema::code_of;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

use crate::api::problem::Problem;

/// A typed length.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct Typed {
    /// As typed.
    text: String,
    /// The unit of the sheet.
    unit: Unit,
    /// Whether a minus sign is allowed.
    #[serde(default)]
    signed: bool,
}

/// A length read back.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct ReadBack {
    /// Exact, in millimetres.
    pub mm: f64,
    /// Exact, in nanometres.
    pub nanometres: i64,
    /// The unit it was typed in.
    pub typed_unit: Unit,
    /// In inches, to 1/16, or to 1/32 where it lies on one.
    pub inches: String,
    /// In millimetres, to 0.1.
    pub millimetres: String,
}

impl ReadBack {
    /// Reads a number back in both units.
    #[must_use]
    pub fn of(number: TapeNumber) -> Self {
        let nanometres = number.nanometres();
        let back = |unit| written_nanometres(nanometres, Style::read_back(unit, nanometres));
        Self {
            mm: number.length().to_mm(),
            nanometres,
            typed_unit: number.unit(),
            inches: back(Unit::Inches),
            millimetres: back(Unit::Millimetres),
        }
    }
}

/// A typed length judged. Half a figure is no failed call: what is wrong with it is the answer.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct Judged {
    /// The length, where it is one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub read: Option<ReadBack>,
    /// What is wrong and where, where it is none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub wrong: Option<FieldError>,
}

fn wrong(error: TapeError) -> FieldError {
    FieldError {
        start: Some(error.start),
        end: Some(error.end),
        ..FieldError::new("/text", &code_of(error.fault), error.to_string())
    }
}

/// Reads a typed length exactly and prints it back in both units, or says what is wrong with it.
#[utoipa::path(
    get, path = "/api/v1/tape", tag = "compute",
    params(Typed),
    responses(
        (status = 200, description = "The length, or what is wrong with it", body = Judged),
        (status = 400, description = "A query that cannot be read", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn tape(typed: Result<Query<Typed>, QueryRejection>) -> Result<Json<Judged>, Problem> {
    let Query(typed) = typed.map_err(|rejection| {
        Problem::new(
            StatusCode::BAD_REQUEST,
            "bad_query",
            format!("{rejection}. Send text and unit=in or unit=mm."),
        )
    })?;
    let kind = if typed.signed { Kind::Signed } else { Kind::Distance };
    Ok(Json(match parse(&typed.text, typed.unit, kind) {
        Ok(number) => Judged { read: Some(ReadBack::of(number)), wrong: None },
        Err(error) => Judged { read: None, wrong: Some(wrong(error)) },
    }))
}
