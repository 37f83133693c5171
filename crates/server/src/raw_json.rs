//! JSON that the job's own writer made, as fields of an answer.

use derecho_results::json::{Layout, ToJson};
use serde::ser::Error as _;
use serde::{Serialize as _, Serializer};
use serde_json::value::RawValue;

/// Writes a document within an answer, as it was typed.
///
/// # Errors
/// Where it has no JSON form.
pub fn as_typed<S: Serializer>(document: &impl ToJson, serializer: S) -> Result<S::Ok, S::Error> {
    within(document, Layout::Exact, serializer)
}

/// Writes a result within an answer, its figures no longer than they are good for.
///
/// # Errors
/// Where it has no JSON form.
pub fn rounded<S: Serializer>(result: &impl ToJson, serializer: S) -> Result<S::Ok, S::Error> {
    within(result, Layout::Rounded, serializer)
}

fn within<S: Serializer>(reported: &dyn ToJson, layout: Layout, serializer: S) -> Result<S::Ok, S::Error> {
    let bytes = reported.json(layout).map_err(S::Error::custom)?;
    let text: &RawValue = serde_json::from_slice(&bytes).map_err(S::Error::custom)?;
    text.serialize(serializer)
}
