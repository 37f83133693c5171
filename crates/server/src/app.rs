//! The router and what every request passes through.

use crate::english::in_chosen_english;
use std::any::Any;
use std::net::IpAddr;
use std::sync::OnceLock;
use std::time::Duration;

use axum::Router;
use axum::body::Bytes;
use axum::extract::{DefaultBodyLimit, Request};
use axum::http::{HeaderName, HeaderValue, Method, StatusCode, header};
use axum::middleware::{Next, from_fn, from_fn_with_state};
use axum::response::{IntoResponse, Response};
use axum::routing::get;
use serde_json::Value;
use tokio::task::spawn_blocking;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::compression::CompressionLayer;
use tower_http::csrf::{CsrfLayer, ProtectionError};
use tower_http::request_id::{MakeRequestUuid, PropagateRequestIdLayer, SetRequestIdLayer};
use tower_http::set_header::SetResponseHeaderLayer;
use tower_http::trace::TraceLayer;
use utoipa::OpenApi;
use utoipa::openapi::OpenApi as Document;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::api::problem::Problem;
use crate::api::{
    AppState, compute, figure, instruments, jobs, papers, parts, practice, samples, shop, tape, templates,
};
use crate::assets;
use crate::limits::{Bodies, one_of_many};
use crate::openapi::finished;
use crate::parse::LARGEST_BODY;

const LONGEST_REQUEST: Duration = Duration::from_secs(30);

#[derive(OpenApi)]
#[openapi(
    info(title = "Derecho", description = "Centers solid axles: jobs, and everything calculated from them."),
    components(schemas(Problem, papers::PaperName))
)]
struct Described;

fn api() -> (Router<AppState>, Document) {
    OpenApiRouter::with_openapi(Described::openapi())
        .routes(routes!(jobs::list, jobs::create))
        .routes(routes!(jobs::read, jobs::save, jobs::remove))
        .routes(routes!(jobs::undo))
        .routes(routes!(jobs::redo))
        .routes(routes!(jobs::settle))
        .routes(routes!(jobs::export))
        .routes(routes!(jobs::history))
        .routes(routes!(jobs::revision))
        .routes(routes!(jobs::restore))
        .routes(routes!(jobs::removed))
        .routes(routes!(jobs::bring_back))
        .routes(routes!(compute::compute))
        .routes(routes!(compute::compute_cycle))
        .routes(routes!(compute::compute_near))
        .routes(routes!(compute::compute_uncertainty))
        .routes(routes!(compute::compute_plan))
        .routes(routes!(compute::compute_sway))
        .routes(routes!(compute::compute_work))
        .routes(routes!(compute::compute_forward))
        .routes(routes!(compute::compute_turned))
        .routes(routes!(papers::card_pdf))
        .routes(routes!(papers::record_pdf))
        .routes(routes!(papers::reminders_ics))
        .routes(routes!(compute::schema))
        .routes(routes!(parts::list, parts::create))
        .routes(routes!(parts::save))
        .routes(routes!(parts::export))
        .routes(routes!(parts::import))
        .routes(routes!(parts::samples))
        .routes(routes!(templates::template))
        .routes(routes!(tape::tape))
        .routes(routes!(figure::figure))
        .routes(routes!(shop::shop_log))
        .routes(routes!(shop::other_end))
        .routes(routes!(shop::step_times))
        .routes(routes!(shop::shop_log_csv))
        .merge(
            OpenApiRouter::new()
                .routes(routes!(shop::shop_out, shop::shop_in))
                .routes(routes!(shop::shop_progress))
                .layer(DefaultBodyLimit::max(shop::LARGEST_SHOP)),
        )
        .routes(routes!(instruments::shown, instruments::join, instruments::leave))
        .routes(routes!(instruments::events))
        .routes(routes!(instruments::took, instruments::log))
        .routes(routes!(instruments::order))
        .routes(routes!(practice::lessons, practice::begin))
        .routes(routes!(practice::under_way))
        .routes(routes!(practice::act))
        .routes(routes!(practice::debrief))
        .routes(routes!(samples::list))
        .routes(routes!(samples::open))
        .split_for_parts()
}

/// The OpenAPI document, made from the handlers.
#[must_use]
pub fn openapi() -> Value {
    finished(&api().1)
}

/// The whole application.
pub fn app(state: AppState) -> Router {
    let (router, _) = api();
    let header_layer = |name: HeaderName, value: &'static str| {
        SetResponseHeaderLayer::if_not_present(name, HeaderValue::from_static(value))
    };
    // The layer added last is the first to see a request.
    router
        .route("/api/openapi.json", get(described))
        .fallback(assets::client)
        .layer(DefaultBodyLimit::max(LARGEST_BODY))
        .layer(CsrfLayer::new().with_rejection_response(foreign))
        .layer(from_fn(local_host_only))
        .layer(from_fn(plainly_asked))
        .layer(from_fn(in_time))
        .layer(from_fn_with_state(Bodies::default(), one_of_many))
        .layer(from_fn(as_problem))
        .layer(from_fn(in_chosen_english))
        .layer(CatchPanicLayer::custom(panicked))
        .layer(CompressionLayer::new())
        .layer(header_layer(header::CONTENT_SECURITY_POLICY, assets::OWN_ONLY))
        .layer(header_layer(header::REFERRER_POLICY, "no-referrer"))
        .layer(header_layer(HeaderName::from_static("cross-origin-resource-policy"), "same-origin"))
        .layer(header_layer(header::X_CONTENT_TYPE_OPTIONS, "nosniff"))
        .layer(PropagateRequestIdLayer::x_request_id())
        .layer(TraceLayer::new_for_http())
        .layer(SetRequestIdLayer::x_request_id(MakeRequestUuid))
        .with_state(state)
}

/// Made when somebody asks for it: it takes longer than all the rest of a start.
static DOCUMENT: OnceLock<Bytes> = OnceLock::new();

async fn described() -> Result<impl IntoResponse, Problem> {
    let write = || DOCUMENT.get_or_init(|| Bytes::from(openapi().to_string())).clone();
    let document = match DOCUMENT.get() {
        Some(document) => document.clone(),
        None => spawn_blocking(write).await.map_err(|panic| Problem::internal(&panic))?,
    };
    Ok(([(header::CONTENT_TYPE, HeaderValue::from_static("application/json"))], document))
}

/// Every request has so long; a whole shop, in or out, as long as it makes headway.
async fn in_time(request: Request, next: Next) -> Response {
    if request.uri().path() == shop::PLACE {
        return next.run(request).await;
    }
    let answered = tokio::time::timeout(LONGEST_REQUEST, next.run(request)).await;
    answered.unwrap_or_else(|_| StatusCode::SERVICE_UNAVAILABLE.into_response())
}

#[expect(clippy::needless_pass_by_value, reason = "the layer hands the cause over")]
fn panicked(cause: Box<dyn Any + Send + 'static>) -> Response {
    let message = cause
        .downcast_ref::<String>()
        .map(String::as_str)
        .or_else(|| cause.downcast_ref::<&str>().copied())
        .unwrap_or("no message");
    Problem::internal(&message).into_response()
}

fn foreign(_error: ProtectionError) -> Response {
    Problem::new(
        StatusCode::FORBIDDEN,
        "foreign_page",
        "This request came from another site. Open Derecho at its own address.",
    )
    .into_response()
}

/// A page elsewhere can point a name of its own at this machine; it cannot make the
/// browser send our name. So only local names are answered.
async fn local_host_only(request: Request, next: Next) -> Response {
    let host = request.headers().get(header::HOST).and_then(|host| host.to_str().ok());
    if host.is_none_or(is_local) {
        return next.run(request).await;
    }
    Problem::new(
        StatusCode::MISDIRECTED_REQUEST,
        "foreign_name",
        "Derecho only answers at addresses of this machine, such as 127.0.0.1.",
    )
    .into_response()
}

/// Whether a Host header names this machine: `localhost` or a loopback address, with or without a port.
fn is_local(host: &str) -> bool {
    let named = host.rsplit_once(':').filter(|(_, port)| port.bytes().all(|b| b.is_ascii_digit()));
    let name = named.map_or(host, |(name, _)| name);
    let address = name.trim_start_matches('[').trim_end_matches(']');
    name == "localhost"
        || name.is_empty()
        || address.parse::<IpAddr>().is_ok_and(|address| address.is_loopback())
}

/// Methods and content types the program knows. A form of another page can send text, never JSON; and what
/// is answered about jobs is kept by no cache.
async fn plainly_asked(request: Request, next: Next) -> Response {
    let known = [Method::GET, Method::HEAD, Method::POST, Method::PUT, Method::DELETE, Method::OPTIONS];
    if !known.contains(request.method()) {
        return StatusCode::METHOD_NOT_ALLOWED.into_response();
    }
    let of_the_api = request.uri().path().starts_with("/api/");
    let has_body = request.headers().get(header::CONTENT_LENGTH).is_some_and(|length| length != "0")
        || request.headers().contains_key(header::TRANSFER_ENCODING);
    let kind = request.headers().get(header::CONTENT_TYPE).and_then(|kind| kind.to_str().ok());
    let plain = kind.is_some_and(|kind| {
        kind.starts_with("application/json")
            || kind.starts_with("text/csv")
            || (kind == "application/zip" && request.uri().path() == shop::PLACE)
    });
    if of_the_api && has_body && !plain {
        return Problem::new(
            StatusCode::UNSUPPORTED_MEDIA_TYPE,
            "unknown_content",
            "Send JSON as application/json, a table of parts as text/csv, or a shop as application/zip.",
        )
        .into_response();
    }
    let mut response = next.run(request).await;
    if of_the_api {
        response.headers_mut().entry(header::CACHE_CONTROL).or_insert(HeaderValue::from_static("no-store"));
    }
    response
}

/// Layers and extractors that refuse in plain text are given the common form.
async fn as_problem(request: Request, next: Next) -> Response {
    let response = next.run(request).await;
    let status = response.status();
    let spoken = response
        .headers()
        .get(header::CONTENT_TYPE)
        .is_some_and(|kind| kind.as_bytes().starts_with(b"application/problem+json"));
    if spoken || !(status.is_client_error() || status.is_server_error()) {
        return response;
    }
    let (code, detail) = match status {
        StatusCode::PAYLOAD_TOO_LARGE => {
            ("too_large", "Larger than 2 MiB. A job is far smaller: send one job at a time.")
        }
        StatusCode::METHOD_NOT_ALLOWED => (
            "no_such_method",
            "This address does not take that method. /api/openapi.json lists what there is.",
        ),
        StatusCode::SERVICE_UNAVAILABLE => ("too_slow", "This took too long and was stopped. Try again."),
        _ => ("bad_request", "Bad request. /api/openapi.json describes what is accepted."),
    };
    Problem::new(status, code, detail).into_response()
}
