//! The router and what every request passes through.

use std::any::Any;
use std::time::Duration;

use axum::extract::{DefaultBodyLimit, Request};
use axum::http::{HeaderName, HeaderValue, StatusCode, header};
use axum::middleware::{Next, from_fn};
use axum::response::{IntoResponse, Response};
use axum::routing::get;
use axum::{Json, Router};
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::compression::CompressionLayer;
use tower_http::csrf::{CsrfLayer, ProtectionError};
use tower_http::request_id::{MakeRequestUuid, PropagateRequestIdLayer, SetRequestIdLayer};
use tower_http::set_header::SetResponseHeaderLayer;
use tower_http::timeout::TimeoutLayer;
use tower_http::trace::TraceLayer;
use utoipa::OpenApi;
use utoipa::openapi::OpenApi as Document;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::api::problem::Problem;
use crate::api::{AppState, compute, figure, jobs, parts, samples, tape, templates};
use crate::assets;

/// The largest body taken: a job of a thousand readings is a tenth of it.
pub const LARGEST_BODY: usize = 2 * 1024 * 1024;
const LONGEST_REQUEST: Duration = Duration::from_secs(30);

#[derive(OpenApi)]
#[openapi(
    info(title = "Derecho", description = "Solid axles set straight: jobs, and what is computed from them."),
    components(schemas(Problem))
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
        .routes(routes!(compute::compute))
        .routes(routes!(compute::compute_cycle))
        .routes(routes!(compute::compute_plan))
        .routes(routes!(compute::compute_sway))
        .routes(routes!(compute::schema))
        .routes(routes!(parts::list, parts::create))
        .routes(routes!(parts::save))
        .routes(routes!(parts::export))
        .routes(routes!(parts::import))
        .routes(routes!(parts::samples))
        .routes(routes!(templates::template))
        .routes(routes!(tape::tape))
        .routes(routes!(figure::figure))
        .routes(routes!(samples::list))
        .routes(routes!(samples::open))
        .split_for_parts()
}

/// The OpenAPI document, made from the handlers.
#[must_use]
pub fn openapi() -> Document {
    api().1
}

/// The whole application.
pub fn app(state: AppState) -> Router {
    let (router, document) = api();
    let header_layer = |name: HeaderName, value: &'static str| {
        SetResponseHeaderLayer::if_not_present(name, HeaderValue::from_static(value))
    };
    // The layer added last is the first to see a request.
    router
        .route("/api/openapi.json", get(|| async move { Json(document) }))
        .fallback(assets::client)
        .layer(DefaultBodyLimit::max(LARGEST_BODY))
        .layer(CsrfLayer::new().with_rejection_response(foreign))
        .layer(from_fn(local_host_only))
        .layer(TimeoutLayer::with_status_code(StatusCode::SERVICE_UNAVAILABLE, LONGEST_REQUEST))
        .layer(from_fn(as_problem))
        .layer(CatchPanicLayer::custom(panicked))
        .layer(CompressionLayer::new())
        .layer(header_layer(
            header::CONTENT_SECURITY_POLICY,
            "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; frame-ancestors 'none'; base-uri 'none'",
        ))
        .layer(header_layer(header::REFERRER_POLICY, "no-referrer"))
        .layer(header_layer(header::X_CONTENT_TYPE_OPTIONS, "nosniff"))
        .layer(PropagateRequestIdLayer::x_request_id())
        .layer(TraceLayer::new_for_http())
        .layer(SetRequestIdLayer::x_request_id(MakeRequestUuid))
        .with_state(state)
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
        "This request came from another page. Open the program at its own address.",
    )
    .into_response()
}

/// A page elsewhere can point a name of its own at this machine; it cannot make the
/// browser send our name. So only local names are answered.
async fn local_host_only(request: Request, next: Next) -> Response {
    let host = request.headers().get(header::HOST).and_then(|host| host.to_str().ok());
    let name = host.map(|host| host.rsplit_once(':').map_or(host, |(name, _)| name));
    match name {
        None | Some("127.0.0.1" | "localhost" | "[::1]" | "[" | "") => next.run(request).await,
        Some(_) => Problem::new(
            StatusCode::MISDIRECTED_REQUEST,
            "foreign_name",
            "This program answers on 127.0.0.1 and localhost only.",
        )
        .into_response(),
    }
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
            ("too_large", "The body is larger than 2 MiB. A job is far smaller: send one job at a time.")
        }
        StatusCode::METHOD_NOT_ALLOWED => (
            "no_such_method",
            "This address does not take that method. /api/openapi.json lists what there is.",
        ),
        StatusCode::SERVICE_UNAVAILABLE => ("too_slow", "This took too long and was given up. Try again."),
        _ => ("bad_request", "The request cannot be taken as it is. /api/openapi.json describes what can."),
    };
    Problem::new(status, code, detail).into_response()
}
