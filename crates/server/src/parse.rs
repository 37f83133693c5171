//! From JSON to a job: the one door for documents, whether they come over HTTP, from a
//! file or from standard input. It tells every fault at once, each with its place.

use std::sync::LazyLock;

use derecho_job::document::check::FieldError;
use derecho_job::document::migrate::{bring_forward, parsed};
use derecho_job::document::schema::{drop_nulls, job_schema};
use derecho_job::document::schema_validate;
use derecho_job::{Job, check};
use serde_json::Value;

/// The largest job taken: one of a thousand readings is a tenth of it.
pub const LARGEST_BODY: usize = 2 * 1024 * 1024;

/// Most faults told of one document; the rest would not be read.
const MOST_FAULTS: usize = 100;

static SCHEMA: LazyLock<Value> = LazyLock::new(job_schema);

/// Why a text is no job.
#[derive(Clone, Debug, PartialEq)]
pub enum ParseFault {
    /// Not JSON at all, or broken off.
    NotJson {
        /// What the parser says.
        message: String,
        /// Line, from 1.
        line: usize,
        /// Column, from 1.
        column: usize,
    },
    /// JSON, but not a sound job.
    Faults(Vec<FieldError>),
}

/// Reads a job from JSON text.
///
/// # Errors
/// Where it is not JSON, or with every fault of the document.
pub fn read_job(text: &[u8]) -> Result<Job, ParseFault> {
    // A sound document, the usual case, needs no second look: serde refuses all that the
    // schema refuses. Only what it will not take is gone through for every fault.
    if let Ok(job) = parsed(text)
        && check(&job).is_empty()
    {
        return Ok(job);
    }
    let value: Value = serde_json::from_slice(text).map_err(|error| ParseFault::NotJson {
        message: error.to_string(),
        line: error.line(),
        column: error.column(),
    })?;
    job_of(value).map_err(ParseFault::Faults)
}

fn job_of(mut value: Value) -> Result<Job, Vec<FieldError>> {
    drop_nulls(&mut value);
    bring_forward(&mut value);
    let mut faults = schema_validate::faults(&SCHEMA, &value, MOST_FAULTS);
    if faults.is_empty() {
        match parsed(value.to_string().as_bytes()) {
            Ok(job) => {
                let unsound = check(&job);
                if unsound.is_empty() {
                    return Ok(job);
                }
                faults = unsound;
            }
            Err(error) => {
                // Its line and column are of a text nobody typed.
                let message = error.to_string();
                let message = message.split(" at line ").next().unwrap_or_default();
                faults.push(FieldError::new("", "bad_document", message));
            }
        }
    }
    faults.truncate(MOST_FAULTS);
    Err(faults)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn faults(text: &str) -> Vec<(String, String)> {
        match read_job(text.as_bytes()) {
            Err(ParseFault::Faults(faults)) => faults.into_iter().map(|f| (f.pointer, f.code)).collect(),
            other => panic!("{other:?}"),
        }
    }

    fn pairs(rows: &[(&str, &str)]) -> Vec<(String, String)> {
        rows.iter().map(|(a, b)| ((*a).to_owned(), (*b).to_owned())).collect()
    }

    #[test]
    fn the_least_job() {
        let job = read_job(br#"{"format":"derecho-job","version":3,"title":"One"}"#).unwrap();
        assert_eq!(job, Job::new("One"));
    }

    #[test]
    fn null_is_left_out() {
        let text = r#"{"format":"derecho-job","version":3,"title":"One","rig":{"lift":null,"end":null}}"#;
        assert_eq!(read_job(text.as_bytes()).unwrap(), Job::new("One"));
    }

    #[test]
    fn what_is_taken_at_once_is_what_the_slow_way_takes() {
        for name in crate::samples::names() {
            let job = crate::samples::sample(&name).unwrap();
            let value = serde_json::to_value(&job).unwrap();
            assert_eq!(schema_validate::faults(&SCHEMA, &value, MOST_FAULTS), [], "{name}");
            assert_eq!(job_of(value), Ok(job), "{name}");
        }
    }

    #[test]
    fn shape_and_figures_are_reported_together() {
        let text = r#"{"format":"derecho-job","version":3,
            "rig":{"end":"sideways","colour":"red","lift":"24 13/0 in"},
            "sheets":[{"left":[{"text":"1,250","unit":"mm"}, true]}]}"#;
        let mut reported = faults(text);
        reported.sort();
        assert_eq!(
            reported,
            pairs(&[
                ("", "missing"),
                ("/rig", "unknown_field"),
                ("/rig/end", "unknown_choice"),
                ("/rig/lift", "zero_denominator"),
                ("/sheets/0/left/0", "ambiguous_comma"),
                ("/sheets/0/left/1", "bad_figure"),
            ])
        );
    }

    #[test]
    fn every_kind_of_figure_is_reported_by_its_place() {
        let text = r#"{"format":"derecho-job","version":3,"title":"One",
            "vehicle":{"spring_rate":"35","other_bar":"300","axle_weight":"2,600 lb"},
            "bracket":{"bolt":{"thread":"thick","torque":"180"}}}"#;
        let mut reported = faults(text);
        reported.sort();
        let places = [
            "/bracket/bolt/thread",
            "/bracket/bolt/torque",
            "/vehicle/axle_weight",
            "/vehicle/other_bar",
            "/vehicle/spring_rate",
        ];
        assert_eq!(reported, pairs(&places.map(|place| (place, "bad_figure"))));
    }

    #[test]
    fn what_is_no_json_is_reported_with_its_line() {
        let refusal = read_job(b"{\n  \"format\": \"derecho-job\",,\n}");
        assert!(matches!(refusal, Err(ParseFault::NotJson { line: 2, .. })), "{refusal:?}");
        assert!(matches!(read_job(b""), Err(ParseFault::NotJson { .. })));
        assert!(matches!(read_job(b"[1, 2"), Err(ParseFault::NotJson { .. })));
    }

    #[test]
    fn other_json_is_no_job() {
        for text in ["[]", "3", "\"job\"", "null"] {
            assert!(!faults(text).is_empty(), "{text}");
        }
    }
}
