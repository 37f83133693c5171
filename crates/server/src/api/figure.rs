//! Judging a figure while it is typed: angles, weights, rates, torques, threads.

use axum::Json;
use axum::extract::Query;
use axum::extract::rejection::QueryRejection;
use axum::http::StatusCode;
use derecho_core::fastener::Thread;
use derecho_core::measure::physical::{roll_rate, spring_rate, torque, weight};
use derecho_core::measure::tape::{self, Fault};
use derecho_core::measure::{AngleEntry, Phrase, RollRateEntry, SpringRateEntry, TorqueEntry, WeightEntry};
use derecho_job::document::check::FieldError;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

use crate::api::problem::Problem;

/// What kind of figure it is.
#[derive(Clone, Copy, Debug, Deserialize, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FigureKind {
    /// An angle in degrees such as `10.8`.
    Angle,
    /// A weight such as `2600 lb`.
    Weight,
    /// A rate such as `200 lb/in`.
    SpringRate,
    /// A roll rate such as `300 Nm/deg`.
    RollRate,
    /// A torque such as `180 Nm`.
    Torque,
    /// A bare number more than zero, such as `700`.
    Number,
    /// A thread such as `1/2-20`.
    Thread,
}

/// A typed figure.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct TypedFigure {
    /// As typed.
    text: String,
    /// What it is.
    kind: FigureKind,
}

/// A figure read back, or what is wrong with it.
#[derive(Debug, Serialize, ToSchema)]
pub struct FigureBack {
    /// What kind it is.
    kind: FigureKind,
    /// In both unit systems, where it is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    says: Option<Phrase>,
    /// What is wrong and what to type, where it is none.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    wrong: Option<FieldError>,
}

fn read(kind: FigureKind, text: &str) -> Result<Phrase, String> {
    Ok(match kind {
        FigureKind::Angle => {
            let read = AngleEntry::parse(text)?;
            Phrase::of(|_| format!("{:.1}°", read.angle().to_degrees()))
        }
        FigureKind::Weight => {
            let read = WeightEntry::parse(text)?;
            Phrase::of(|w| weight(w, read.mass().weight()))
        }
        FigureKind::SpringRate => {
            let read = SpringRateEntry::parse(text)?;
            Phrase::of(|w| spring_rate(w, read.rate()))
        }
        FigureKind::RollRate => {
            let read = RollRateEntry::parse(text)?;
            Phrase::of(|w| roll_rate(w, read.rate()))
        }
        FigureKind::Torque => {
            let read = TorqueEntry::parse(text)?;
            Phrase::of(|w| torque(w, read.torque()))
        }
        FigureKind::Number => {
            let number = tape::decimal(text.trim()).map_err(|fault| match fault {
                Fault::AmbiguousComma | Fault::TwoDecimalMarks => fault.to_string(),
                _ => "Not a number. Enter one such as 700.".to_owned(),
            })?;
            if number <= 0.0 {
                return Err("Must be more than zero. Enter it, or leave it out.".to_owned());
            }
            Phrase::of(|_| number.to_string())
        }
        FigureKind::Thread => {
            let read = Thread::parse(text).map_err(|fault| fault.to_string())?;
            Phrase::of(|w| {
                format!("{} across, {} of pitch", w.fine(read.diameter()), w.decimal(read.pitch()))
            })
        }
    })
}

/// Reads a typed angle, weight, rate or thread and tells it back in both unit systems, or says what is wrong with it.
#[utoipa::path(
    get, path = "/api/v1/figure", tag = "compute",
    params(TypedFigure),
    responses(
        (status = 200, description = "The figure, or what is wrong with it", body = FigureBack),
        (status = 400, description = "A query that cannot be read", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn figure(typed: Result<Query<TypedFigure>, QueryRejection>) -> Result<Json<FigureBack>, Problem> {
    let Query(typed) = typed.map_err(|rejection| {
        Problem::new(
            StatusCode::BAD_REQUEST,
            "bad_query",
            format!("{rejection}. Send text and kind=angle, weight, spring_rate, roll_rate, torque, number or thread."),
        )
    })?;
    let kind = typed.kind;
    Ok(Json(match read(kind, &typed.text) {
        Ok(says) => FigureBack { kind, says: Some(says), wrong: None },
        Err(message) => {
            FigureBack { kind, says: None, wrong: Some(FieldError::new("/text", "bad_figure", message)) }
        }
    }))
}
