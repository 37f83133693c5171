//! Documents and results as JSON text. One writer for every layout, and in this crate: results are a good part of the
//! program, and each writer of its own, or of another crate, would make them once more.

use derecho_document::Job;
pub use derecho_document::json::Layout;
use derecho_document::json::bytes;
use derecho_job::bolt_up::WorkResult;
use derecho_job::bracket::PlanResult;
use derecho_job::cycle::CycleResult;
use derecho_job::cycle::near::NearResult;
use derecho_job::results::{Drawn, Everything, Results};
use derecho_job::sway::SwayResult;
use derecho_words::written_in;
use serde::Serialize;
use serde_json::Value;

/// What is shown as JSON.
pub trait ToJson {
    /// Its JSON text, UTF-8.
    ///
    /// # Errors
    /// Where it has no JSON form.
    fn json(&self, layout: Layout) -> Result<Vec<u8>, serde_json::Error>;
}

impl ToJson for Job {
    fn json(&self, layout: Layout) -> Result<Vec<u8>, serde_json::Error> {
        derecho_document::json::ToJson::json(self, layout)
    }
}

macro_rules! with_words {
    ($($result:ty),* $(,)?) => {
        $(impl ToJson for $result {
            fn json(&self, layout: Layout) -> Result<Vec<u8>, serde_json::Error> {
                written_in(None, || bytes(self, layout))
            }
        })*
    };
}

with_words!(Results, Everything, CycleResult, NearResult, PlanResult, SwayResult, WorkResult, Drawn);

/// A result, or anything found of a job, as a JSON value with its words.
#[must_use]
pub fn value(result: impl Serialize) -> Value {
    // What is found is plain data with string keys: it always has a JSON form.
    written_in(None, || serde_json::to_value(result)).unwrap_or_default()
}
