//! JSON that the job's own writer made, as an answer.

use axum::body::Bytes;
use axum::http::{HeaderValue, header};
use axum::response::{IntoResponse, Response};
use derecho_results::json::{Layout, ToJson};

use crate::api::problem::Problem;

/// JSON that was written on the thread that computed it.
#[derive(Debug)]
pub struct Written(Bytes);

impl Written {
    /// A result, its figures no longer than they are good for.
    ///
    /// # Errors
    /// Where it has no JSON form.
    pub fn of(result: &dyn ToJson) -> Result<Self, Problem> {
        Self::with(result, Layout::Rounded)
    }

    /// A document or result in a layout.
    ///
    /// # Errors
    /// Where it has no JSON form.
    pub fn with(reported: &dyn ToJson, layout: Layout) -> Result<Self, Problem> {
        let bytes = reported.json(layout).map_err(|error| Problem::internal(&error))?;
        Ok(Self(bytes.into()))
    }
}

impl IntoResponse for Written {
    fn into_response(self) -> Response {
        ([(header::CONTENT_TYPE, HeaderValue::from_static("application/json"))], self.0).into_response()
    }
}
