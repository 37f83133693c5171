//! The web client, built into the program.

use axum::http::{HeaderValue, StatusCode, Uri, header};
use axum::response::{Html, IntoResponse, Response};
use rust_embed::RustEmbed;
use std::collections::BTreeMap;

use crate::api::problem::Problem;

/// What a page may load: what the program itself serves.
pub const OWN_ONLY: &str =
    "default-src 'self'; img-src 'self' data:; frame-ancestors 'none'; base-uri 'none'; form-action 'self'";

#[derive(RustEmbed)]
#[folder = "$DERECHO_CLIENT"]
struct Client;

/// The client's own texts, a list for each of its sources; None where no client is built in.
#[must_use]
pub fn own_texts() -> Option<BTreeMap<String, Vec<String>>> {
    serde_json::from_slice(&Client::get("sentences.json")?.data).ok()
}

/// Serves a file of the client; any other path is the client's own to interpret.
pub async fn client(uri: Uri) -> Response {
    let path = uri.path().trim_start_matches('/');
    if path.starts_with("api/") {
        return Problem::new(
            StatusCode::NOT_FOUND,
            "no_such_address",
            "Nothing at this address. /api/openapi.json lists what there is.",
        )
        .into_response();
    }
    if let Some(response) = file(path).filter(|_| path != PAGE) {
        return response;
    }
    if path.starts_with("assets/") {
        return Problem::new(StatusCode::NOT_FOUND, "no_such_file", "No such file. Reload the page.")
            .into_response();
    }
    page().unwrap_or_else(|| {
        Problem::new(
            StatusCode::NOT_FOUND,
            "client_not_built",
            "The web client is not built. Run `npm run build` in web, then build the program again.",
        )
        .into_response()
    })
}

const PAGE: &str = "index.html";
/// Stands in the page as it is built, where each answer has a nonce of its own.
const NONCE: &str = "one-page-nonce";

/// The client's page. Styles are taken from the program's own files, and where a component brings one (a dialog
/// that stops the page behind it from scrolling) by a nonce that holds for this answer alone.
fn page() -> Option<Response> {
    let nonce = uuid::Uuid::new_v4().simple().to_string();
    let page = String::from_utf8(Client::get(PAGE)?.data.into_owned()).ok()?.replace(NONCE, &nonce);
    let mut response = Html(page).into_response();
    let headers = response.headers_mut();
    headers.insert(header::CACHE_CONTROL, HeaderValue::from_static("no-store"));
    let policy = format!("{OWN_ONLY}; style-src 'self' 'nonce-{nonce}'");
    headers.insert(header::CONTENT_SECURITY_POLICY, HeaderValue::from_str(&policy).ok()?);
    Some(response)
}

fn file(path: &str) -> Option<Response> {
    let found = Client::get(path)?;
    let kind = mime_guess::from_path(path).first_or_octet_stream();
    // Files under assets carry a fingerprint in their name and never change.
    let cache = if path.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
    let mut response = found.data.into_response();
    let headers = response.headers_mut();
    headers.insert(header::CONTENT_TYPE, HeaderValue::from_str(kind.as_ref()).ok()?);
    headers.insert(header::CACHE_CONTROL, HeaderValue::from_static(cache));
    Some(response)
}
