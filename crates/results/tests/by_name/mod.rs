//! Documents as tests write them: rows without an id go by their name or place, and a sheet says after how many rounds
//! it was read.

#![allow(dead_code, reason = "shared by test files, each of which uses a part")]

use derecho_job::Job;
use derecho_job::check;
use derecho_job::document::migrate;
use serde_json::{Value, json};

/// The document with an id for every row that others point at.
pub(crate) fn with_ids(document: &Value) -> Value {
    let mut document = document.clone();
    for list in [
        "/rig/heights",
        "/setups/found/frame_holes",
        "/setups/found/axle_holes",
        "/bracket/bars",
        "/bracket/brackets",
        "/bracket/drag_links",
        "/setups/rounds",
        "/bolt_up/drills",
    ] {
        fill(document.pointer_mut(list), list);
    }
    for bracket in
        document.pointer_mut("/bracket/brackets").and_then(Value::as_array_mut).into_iter().flatten()
    {
        fill(bracket.get_mut("holes"), "holes");
    }
    for (place, hole) in
        document.pointer_mut("/sway/holes").and_then(Value::as_array_mut).into_iter().flatten().enumerate()
    {
        if hole.get("arm").is_none() {
            *hole = json!({ "id": format!("hole-{}", place + 1), "arm": hole.take() });
        }
    }
    for sheet in document.pointer_mut("/sheets").and_then(Value::as_array_mut).into_iter().flatten() {
        let Some(round) = sheet.as_object_mut().and_then(|sheet| sheet.remove("round")) else { continue };
        if let Some(round) = round.as_u64().filter(|round| *round > 0) {
            sheet["after"] = json!(format!("round-{round}"));
        }
    }
    document
}

fn fill(list: Option<&mut Value>, called: &str) {
    for (place, row) in list.and_then(Value::as_array_mut).into_iter().flatten().enumerate() {
        if row.get("id").is_none() {
            let by_place =
                if called.ends_with("rounds") { format!("round-{}", place + 1) } else { place.to_string() };
            let name = row["name"].as_str().filter(|_| !called.ends_with("drills")).map(str::to_owned);
            row["id"] = json!(name.unwrap_or(by_place));
        }
    }
}

/// The document as a job.
pub(crate) fn read(document: &Value) -> Job {
    migrate::read(&with_ids(document).to_string()).expect("it has the form of a job")
}

/// The document as a job in which the check finds nothing.
#[allow(dead_code, reason = "a test of documents that are not sound reads them alone")]
pub(crate) fn sound(document: &Value) -> Job {
    let job = read(document);
    assert_eq!(check(&job), []);
    job
}
