//! The shelf of instruments: what is joined, its readings as they come, and what a field took.

use std::convert::Infallible;
use std::sync::Arc;

use axum::Json;
use axum::extract::rejection::{JsonRejection, PathRejection, QueryRejection};
use axum::extract::{Path, Query, State};
use axum::http::StatusCode;
use axum::response::sse::{Event, KeepAlive, Sse};
use axum::response::{IntoResponse, Response};
use derecho_instruments::connection::Way;
use derecho_instruments::message::Sentence;
use derecho_instruments::registry::{Held, RegistryEvent, RegistryFault, Shown};
use derecho_store::Taken;
use futures_util::stream::unfold;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use tokio::sync::broadcast::error::RecvError;
use utoipa::{IntoParams, ToSchema};

use super::{AppState, path, query};
use crate::api::problem::{Problem, too_many};

/// Entries of the log that are shown.
const SHOWN: u32 = 500;
/// Longest text of an entry.
const LONGEST: usize = 200;

/// A way in.
#[derive(Debug, Serialize, Deserialize, IntoParams, ToSchema)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct WayIn {
    /// `tcp:HOST:PORT`, or `serial:/dev/DEVICE` with `@BAUD` behind it where it is not 9600.
    pub way: String,
}

/// A reading that a field took.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Took {
    /// The reading as it was held.
    pub held: Held,
    /// The job.
    pub job: String,
    /// The field, as a JSON pointer.
    pub field: String,
}

/// An entry of the instrument log.
#[derive(Debug, Serialize, ToSchema)]
pub struct TakenLine {
    /// When.
    #[schema(value_type = String)]
    pub at: Timestamp,
    /// The job.
    pub job: String,
    /// The field, as a JSON pointer.
    pub field: String,
    /// The instrument's id.
    pub instrument: String,
    /// Its kind.
    pub kind: String,
    /// What it read, as it went into the field.
    pub reading: String,
}

fn way_in(text: &str) -> Result<Way, Problem> {
    Way::parse(text).map_err(|fault| Problem::new(StatusCode::BAD_REQUEST, "bad_way", fault.to_string()))
}

pub(super) fn body<T>(body: Result<Json<T>, JsonRejection>) -> Result<T, Problem> {
    body.map(|Json(value)| value)
        .map_err(|rejection| Problem::new(StatusCode::BAD_REQUEST, "bad_body", rejection.body_text()))
}

impl From<RegistryFault> for Problem {
    fn from(fault: RegistryFault) -> Self {
        let (status, code) = match fault {
            RegistryFault::Full => (StatusCode::CONFLICT, "shelf_full"),
            RegistryFault::Unknown => (StatusCode::NOT_FOUND, "no_such_instrument"),
            RegistryFault::Away => (StatusCode::CONFLICT, "instrument_away"),
        };
        let reported = fault.to_string();
        let mut letters = reported.chars();
        let first = letters.next().map(|c| c.to_uppercase().to_string()).unwrap_or_default();
        Self::new(status, code, format!("{first}{}.", letters.as_str()))
    }
}

/// What is joined, and what each instrument shows.
#[utoipa::path(
    get, path = "/api/v1/instruments", tag = "instruments", operation_id = "instruments",
    responses((status = 200, description = "Ways and instruments", body = Shown))
)]
pub async fn shown(State(state): State<AppState>) -> Json<Shown> {
    Json(state.registry.shown())
}

/// Joins a way in. It is opened, and opened again whenever it is gone.
#[utoipa::path(
    post, path = "/api/v1/instruments", tag = "instruments", operation_id = "join_instruments",
    request_body = WayIn,
    responses(
        (status = 200, description = "Joined; it may take a moment until it is there", body = Shown),
        (status = 400, description = "No way in", body = Problem, content_type = "application/problem+json"),
        (status = 409, description = "There are enough", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn join(
    State(state): State<AppState>,
    wanted: Result<Json<WayIn>, JsonRejection>,
) -> Result<Json<Shown>, Problem> {
    state.registry.join(&way_in(&body(wanted)?.way)?)?;
    Ok(Json(state.registry.shown()))
}

/// Leaves a way in, with every instrument on it.
#[utoipa::path(
    delete, path = "/api/v1/instruments", tag = "instruments", operation_id = "leave_instruments", params(WayIn),
    responses(
        (status = 200, description = "What is still joined", body = Shown),
        (status = 400, description = "No way in", body = Problem, content_type = "application/problem+json"),
        (status = 404, description = "It was not joined", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn leave(
    State(state): State<AppState>,
    wanted: Result<Query<WayIn>, QueryRejection>,
) -> Result<Json<Shown>, Problem> {
    if state.registry.leave(&way_in(&query(wanted)?.way)?) {
        Ok(Json(state.registry.shown()))
    } else {
        Err(Problem::new(StatusCode::NOT_FOUND, "no_such_way", "That connection does not exist.".to_owned()))
    }
}

/// What an instrument can be asked.
#[derive(Clone, Copy, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Order {
    /// For a held reading.
    Ask,
    /// To be set to nought.
    Zero,
}

/// Asks an instrument for a held reading, or to be set to nought. The reading comes with the events.
#[utoipa::path(
    post, path = "/api/v1/instruments/{id}/{order}", tag = "instruments", operation_id = "order_instrument",
    params(("id" = String, Path, description = "The instrument"), ("order" = inline(Order), Path, description = "What it is asked")),
    responses(
        (status = 204, description = "Asked"),
        (status = 400, description = "Nothing it can be asked", body = Problem, content_type = "application/problem+json"),
        (status = 404, description = "No such instrument", body = Problem, content_type = "application/problem+json"),
        (status = 409, description = "It is away", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn order(
    State(state): State<AppState>,
    asked: Result<Path<(String, Order)>, PathRejection>,
) -> Result<StatusCode, Problem> {
    let (id, order) = path(asked)?;
    state.registry.order(match order {
        Order::Ask => Sentence::Ask { id },
        Order::Zero => Sentence::Zero { id },
    })?;
    Ok(StatusCode::NO_CONTENT)
}

/// Readings as they come: `registry` with everything on it whenever something is shown otherwise, `held` with a reading
/// that was held. Ends when the program is stopped.
#[utoipa::path(
    get, path = "/api/v1/instruments/events", tag = "instruments", operation_id = "instrument_events",
    responses(
        (status = 200, description = "Server-sent events", body = String, content_type = "text/event-stream"),
        (status = 503, description = "As many streams as there may be", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn events(State(state): State<AppState>) -> Response {
    let Ok(turn) = Arc::clone(&state.streams).try_acquire_owned() else { return too_many() };
    let listening = state.registry.listen();
    // Its turn goes with the stream.
    let begun = (state, listening, turn, true);
    let stream = unfold(begun, |(state, mut listening, turn, first)| async move {
        if first {
            let event = reported("shelf", &state.registry.shown());
            return Some((Ok::<_, Infallible>(event), (state, listening, turn, false)));
        }
        let event = tokio::select! {
            event = listening.recv() => event,
            () = state.ending.cancelled() => return None,
        };
        let event = match event {
            Ok(RegistryEvent::Held(held)) => reported("held", &*held),
            // A window that fell behind sees how it is now.
            Ok(RegistryEvent::Changed) | Err(RecvError::Lagged(_)) => {
                reported("shelf", &state.registry.shown())
            }
            Err(RecvError::Closed) => return None,
        };
        Some((Ok(event), (state, listening, turn, false)))
    });
    Sse::new(stream).keep_alive(KeepAlive::default()).into_response()
}

fn reported(name: &str, what: &impl Serialize) -> Event {
    // Plain data has a JSON form.
    Event::default().event(name).json_data(what).unwrap_or_default()
}

/// Writes down that a field took a reading.
#[utoipa::path(
    post, path = "/api/v1/instruments/log", tag = "instruments", operation_id = "log_taken",
    request_body = Took,
    responses(
        (status = 204, description = "Written down"),
        (status = 400, description = "Not a reading", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn took(
    State(state): State<AppState>,
    reported: Result<Json<Took>, JsonRejection>,
) -> Result<StatusCode, Problem> {
    let Took { held, job, field } = body(reported)?;
    let taken = Taken {
        at: Timestamp::now(),
        instrument: held.instrument.id,
        kind: held.instrument.kind.word().to_owned(),
        reading: held.text,
        job,
        field,
    };
    if [&taken.job, &taken.field, &taken.instrument, &taken.reading].iter().any(|text| text.len() > LONGEST) {
        let says = format!("No text of an entry is longer than {LONGEST} characters.");
        return Err(Problem::new(StatusCode::BAD_REQUEST, "bad_body", says));
    }
    state.stored(move |store| store.log_taken(&taken)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// What fields took from instruments, the newest first.
#[utoipa::path(
    get, path = "/api/v1/instruments/log", tag = "instruments", operation_id = "instrument_log",
    responses((status = 200, description = "The newest entries", body = Vec<TakenLine>))
)]
pub async fn log(State(state): State<AppState>) -> Result<Json<Vec<TakenLine>>, Problem> {
    let taken = state.stored(|store| store.taken(SHOWN)).await?;
    let line = |Taken { at, job, field, instrument, kind, reading }| TakenLine {
        at,
        job,
        field,
        instrument,
        kind,
        reading,
    };
    Ok(Json(taken.into_iter().map(line).collect()))
}
