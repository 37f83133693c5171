//! Version 5 asked whether a sway bar is installed, and had no record of it; version 6 has what a job installs with its plan,
//! and what was installed with its rounds.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_document::{FittedPart, Job, check::check, migrate};
use serde_json::{Value, json};

fn read(parts: &Value) -> Job {
    let mut document = json!({ "format": "derecho-job", "version": 5, "title": "Old",
        "sway": { "kind": "one_piece" } });
    for (name, value) in parts.as_object().unwrap() {
        document[name] = value.clone();
    }
    let job = migrate::read(&document.to_string()).unwrap();
    assert_eq!(job.version, 7);
    assert_eq!(check(&job), [], "it can be saved");
    job
}

fn settled() -> Value {
    json!({ "at": "2026-11-03T07:10:00Z", "core_version": "0.5.0", "results": {} })
}

#[test]
fn a_sway_bar_that_was_to_be_installed_still_is() {
    let job = read(&json!({ "bolt_up": { "fits_sway_bar": true, "by": "Rosa" } }));
    assert!(job.installs(FittedPart::SwayBar) && !job.has_installed(FittedPart::SwayBar));
    assert_eq!(job.not_installed(), [FittedPart::SwayBar]);
    assert_eq!(job.bolt_up.by, "Rosa");
    for no in [json!({ "fits_sway_bar": false }), json!({})] {
        assert_eq!(read(&json!({ "bolt_up": no })).setups.plans.parts, []);
    }
}

#[test]
fn a_brace_that_was_entered_is_to_be_installed() {
    let brace = json!({ "brace": { "name": "rail brace" } });
    assert_eq!(read(&json!({ "bracket": brace })).not_installed(), [FittedPart::Brace]);
}

/// In a job that was closed it was installed: nothing of it opens again, and the rounds that moved the axle are as many.
#[test]
fn what_was_closed_was_installed() {
    let rounds = json!({ "rounds": [{ "id": "r1", "length": "890 mm" }] });
    let job = read(&json!({ "bolt_up": { "fits_sway_bar": true }, "setups": rounds, "settled": settled() }));
    assert!(job.has_installed(FittedPart::SwayBar) && job.not_installed().is_empty());
    assert_eq!(job.setups.axle_rounds().len(), 1);
    let braced = read(&json!({ "bracket": { "brace": { "name": "rail brace" } }, "settled": settled() }));
    assert!(braced.not_installed().is_empty() && braced.setups.rounds.is_empty());
}
