//! Documents of older versions, brought forward to the one this program writes. Nothing typed
//! is lost: what stood in one place stands in another.

mod from_version_3;

use serde_json::{Map, Value, json};

use crate::json::{Layout, ToJson as _, to_json};
use crate::proof::ALL_THAT_WAS_OPEN;
use crate::schema::job_schema;
use crate::schema_validate::figure_faults;
use crate::{DOCUMENT_VERSION, Job};

to_json!(Job);

/// Reads a job of today's form from JSON. Everything that becomes a job comes through here: reading is a good part
/// of the program, and each other source of JSON would make it once more.
///
/// # Errors
/// Where it is no JSON, or no job of today's form.
pub fn parsed(json: &[u8]) -> Result<Job, serde_json::Error> {
    serde_json::from_slice(json)
}

/// A job's document as JSON text, with every digit. Whoever needs one as text or as a value comes through here, for
/// the same reason.
///
/// # Errors
/// Where it has no JSON form, as figures that are no numbers have none.
pub fn written(job: &Job) -> Result<String, serde_json::Error> {
    // What the writer makes is UTF-8.
    job.json(Layout::Exact).map(|bytes| String::from_utf8(bytes).unwrap_or_default())
}

/// A job's document as a JSON value; null where it has no JSON form.
#[must_use]
pub fn as_value(job: &Job) -> Value {
    job.json(Layout::Exact).and_then(|text| serde_json::from_slice(&text)).unwrap_or_default()
}

/// The job with values put at places of its document, JSON pointers through objects alone.
///
/// # Errors
/// Where what comes of it is no job of today's form.
pub fn with_values<'a>(
    job: &Job,
    values: impl IntoIterator<Item = (&'a str, Value)>,
) -> Result<Job, serde_json::Error> {
    let mut document = as_value(job);
    for (pointer, value) in values {
        *pointer.split('/').skip(1).fold(&mut document, |place, name| &mut place[name]) = value;
    }
    parsed(document.to_string().as_bytes())
}

/// Reads a job of any version from JSON text, as a file or the store keeps it. What it holds is
/// not looked at: that is [`check`](crate::check::check)'s.
///
/// # Errors
/// Where the text is no job of a version this program knows.
pub fn read(text: &str) -> Result<Job, serde_json::Error> {
    // The usual case, a document of today, needs no detour.
    if let Ok(job) = parsed(text.as_bytes())
        && job.version == DOCUMENT_VERSION
    {
        return Ok(job);
    }
    let mut value: Value = serde_json::from_str(text)?;
    bring_forward(&mut value);
    if let Ok(job) = parsed(value.to_string().as_bytes()) {
        return Ok(job);
    }
    into_the_notes(&mut value);
    parsed(value.to_string().as_bytes())
}

/// A figure that was taken once and is refused today, such as a weight of `2,600 lb` that may be 2.6 or
/// 2600, must not keep its job from being opened: it is taken out, and the notes say what was typed.
fn into_the_notes(document: &mut Value) {
    let mut faults = figure_faults(&job_schema(), document);
    // The last of a list first, so that the places of the others stay true.
    faults.reverse();
    for fault in faults {
        let Some((parent, key)) = fault.pointer.rsplit_once('/') else { continue };
        let removed = match document.pointer_mut(parent) {
            Some(Value::Object(members)) => members.remove(&key.replace("~1", "/").replace("~0", "~")),
            Some(Value::Array(items)) => {
                key.parse().ok().filter(|index| *index < items.len()).map(|index: usize| items.remove(index))
            }
            _ => None,
        };
        let Some(removed) = removed else { continue };
        let typed = removed["text"].as_str().or_else(|| removed.as_str()).map(str::to_owned);
        let typed = typed.unwrap_or_else(|| removed.to_string());
        let notes = document["notes"].as_str().unwrap_or_default();
        let line = format!("Enter {} again: {typed:?} was removed. {}", fault.pointer, fault.message);
        document["notes"] = json!([notes, &line].join("\n").trim_start());
    }
}

/// Brings a document's JSON forward to today's version. What is no job, or is of today's or an
/// unknown version, stays as it is.
pub fn bring_forward(document: &mut Value) {
    if document["version"] == json!(1) {
        from_version_1(document);
    }
    // Version 3 adds reasons for settling over what stands in the way, bolts through a bushing and the old sway bar's
    // kind: nothing of version 2 changes its place.
    if document["version"] == json!(2) {
        document["version"] = json!(3);
    }
    if document["version"] == json!(3) {
        from_version_3::bring_forward(document);
    }
    if document["version"] == json!(4) {
        from_version_4(document);
    }
    if document["version"] == json!(5) {
        from_version_5(document);
    }
    // Version 7 adds sizes of what can touch, and what an obstacle is: nothing of version 6 changes its place.
    if document["version"] == json!(6) {
        document["version"] = json!(7);
    }
    torque_with_its_unit(document);
}

/// Version 4 had a reason for each thing a job was closed over, and documents before version 3 one for all of it. Version
/// 5 has acceptances, each with who gave it and when: here whoever closed the job, when it was closed.
fn from_version_4(document: &mut Value) {
    document["version"] = json!(5);
    let (by, at) = (document["proof"]["by"].clone(), document["settled"]["at"].clone());
    let Some(proof) = document.get_mut("proof").and_then(Value::as_object_mut) else { return };
    let mut acceptances = match proof.remove("reasons") {
        Some(Value::Array(reasons)) => reasons,
        // What is no list stays where it is said to be wrong.
        Some(other) => {
            proof.insert("acceptances".to_owned(), other);
            return;
        }
        None => Vec::new(),
    };
    for accepted in &mut acceptances {
        rename(accepted, "read", "said");
    }
    if let Some(although) = proof.remove("although").filter(|although| *although != json!("")) {
        acceptances.push(json!({ "key": ALL_THAT_WAS_OPEN, "because": although }));
    }
    for accepted in acceptances.iter_mut().filter_map(Value::as_object_mut) {
        for (name, value) in [("by", &by), ("at", &at)] {
            if value.as_str().is_some_and(|text| !text.is_empty()) {
                accepted.insert(name.to_owned(), value.clone());
            }
        }
    }
    if !acceptances.is_empty() {
        proof.insert("acceptances".to_owned(), Value::Array(acceptances));
    }
}

/// Version 5 asked whether the sway bar is installed in a job, and had no record of it or of a brace. Version 6 has what is
/// installed with the plan, and what was with the rounds. In a job that was closed it was.
fn from_version_5(document: &mut Value) {
    document["version"] = json!(6);
    let mut parts = Vec::new();
    if let Some(work) = document.get_mut("bolt_up").and_then(Value::as_object_mut) {
        match work.remove("fits_sway_bar") {
            Some(Value::Bool(true)) => parts.push("sway_bar"),
            None | Some(Value::Bool(false) | Value::Null) => {}
            // What is no answer stays where it is said to be wrong.
            Some(other) => {
                work.insert("fits_sway_bar".to_owned(), other);
            }
        }
    }
    let closed = document["settled"].is_object();
    if document.pointer("/bracket/brace").is_some_and(Value::is_object) && !closed {
        parts.push("brace");
    }
    if parts.is_empty() {
        return;
    }
    let Some(job) = document.as_object_mut() else { return };
    let Some(setups) = job.entry("setups").or_insert_with(|| json!({})).as_object_mut() else { return };
    if closed && let Some(rounds) = setups.entry("rounds").or_insert_with(|| json!([])).as_array_mut() {
        match rounds.last_mut().and_then(Value::as_object_mut) {
            Some(last) => {
                last.insert("parts".to_owned(), json!(parts));
            }
            None => rounds.push(json!({ "id": "installed", "parts": parts })),
        }
    }
    if let Some(plans) = setups.entry("plans").or_insert_with(|| json!({})).as_object_mut() {
        plans.insert("parts".to_owned(), json!(parts));
    }
}

/// Where the field stands today that stood at a place of an older document, where it has moved. A place is a JSON pointer
/// in which a row goes by `=` and its id, as the client keeps what was typed and not taken yet.
#[must_use]
pub fn place_forward(place: &str) -> Option<String> {
    if let Some(key) = place.strip_prefix("/proof/reasons/") {
        return Some(format!("/proof/acceptances/{key}"));
    }
    let hole: usize = place.strip_prefix("/sway/holes/")?.parse().ok()?;
    Some(format!("/sway/holes/={}/arm", from_version_3::arm_hole(hole + 1)))
}

/// A torque was a number of N·m before it was typed with its unit.
fn torque_with_its_unit(document: &mut Value) {
    let Some(bolt) = document.pointer_mut("/bracket/bolt").and_then(Value::as_object_mut) else { return };
    if let Some(torque) = bolt.remove("torque_nm").filter(|torque| !torque.is_null()) {
        bolt.entry("torque").or_insert_with(|| json!(format!("{torque} Nm")));
    }
}

/// The names version 1 gave to the brackets that are there: version 2 leaves them empty.
const NOW: [&str; 2] = ["axle bracket as it is", "frame bracket as it is"];

/// Version 1 had the bar as found, lengths set since, and the chosen plan beside the parts.
/// Version 2 has found, plans and rounds.
fn from_version_1(document: &mut Value) {
    let Some(job) = document.as_object_mut() else { return };
    job.insert("version".to_owned(), json!(2));
    for sheet in job.get_mut("sheets").and_then(Value::as_array_mut).into_iter().flatten() {
        rename(sheet, "after_setting", "round");
    }
    let parts = job.get("bracket").cloned().unwrap_or_default();
    let on_frame = |name: &str| {
        let tried = parts["brackets"].as_array().into_iter().flatten();
        let mut end =
            tried.filter(|part| part["name"] == json!(name)).map(|part| part["end"] == json!("frame"));
        end.next_back().unwrap_or(name == NOW[1])
    };
    let plan = |old: &Value| plan_of(old, &on_frame);
    let bracket = job.get_mut("bracket").and_then(Value::as_object_mut);
    let (chosen, kept) =
        bracket.map_or((None, None), |bracket| (bracket.remove("chosen"), bracket.remove("kept")));
    if !job.contains_key("setups") && chosen.is_none() && kept.is_none() {
        return;
    }
    let setups = job.entry("setups").or_insert_with(|| json!({}));
    let Some(setups) = setups.as_object_mut() else { return };
    let mut found = Map::new();
    for (old, new) in [
        ("as_found", "bar"),
        ("adjuster", "adjuster"),
        ("frame_holes", "frame_holes"),
        ("axle_holes", "axle_holes"),
    ] {
        if let Some(value) = setups.remove(old) {
            found.insert(new.to_owned(), value);
        }
    }
    let mut plans = Map::new();
    if let Some(chosen) = chosen.filter(|chosen| !chosen.is_null()) {
        plans.insert("chosen".to_owned(), plan(&chosen));
    }
    if let Some(Value::Array(kept)) = kept {
        plans.insert("kept".to_owned(), kept.iter().map(plan).collect());
    }
    if let Some(trial) = setups.remove("trial").as_ref().and_then(trial_of) {
        plans.insert("trial".to_owned(), trial);
    }
    let rounds = match setups.remove("as_built") {
        Some(Value::Array(made)) => made.into_iter().map(|made| round_of(made, &plans)).collect(),
        other => other.unwrap_or_else(|| json!([])),
    };
    for (name, value) in
        [("found", Value::Object(found)), ("plans", Value::Object(plans)), ("rounds", rounds)]
    {
        if value != json!({}) && value != json!([]) {
            setups.insert(name.to_owned(), value);
        }
    }
}

fn rename(object: &mut Value, old: &str, new: &str) {
    if let Some(object) = object.as_object_mut()
        && let Some(value) = object.remove(old)
    {
        object.insert(new.to_owned(), value);
    }
}

/// A plan named one bracket, wherever it sat; now each end has a hole of its own.
fn plan_of(old: &Value, on_frame: &dyn Fn(&str) -> bool) -> Value {
    let text = |name: &str| old[name].as_str().unwrap_or_default();
    let (bracket, hole) = (text("bracket"), text("hole"));
    let mut plan = Map::new();
    if !hole.is_empty() {
        let end = if on_frame(bracket) { "frame" } else { "axle" };
        let mut choice = json!({ "hole": hole });
        if !NOW.contains(&bracket) {
            choice["bracket"] = json!(bracket);
        }
        plan.insert(end.to_owned(), choice);
    }
    for name in ["bar", "drag_link"] {
        if !text(name).is_empty() {
            plan.insert(name.to_owned(), json!(text(name)));
        }
    }
    Value::Object(plan)
}

/// A trial named holes of the brackets that are there.
fn trial_of(old: &Value) -> Option<Value> {
    let mut plan = Map::new();
    for (name, end) in [("frame_hole", "frame"), ("axle_hole", "axle")] {
        if let Some(hole) = old[name].as_str().filter(|hole| !hole.is_empty()) {
            plan.insert(end.to_owned(), json!({ "hole": hole }));
        }
    }
    (!plan.is_empty()).then_some(Value::Object(plan))
}

/// A length that was set, with the eye that was moved with it: a round. The hole it went to was
/// not kept; where the chosen plan has one at that end, it is that.
fn round_of(mut made: Value, plans: &Map<String, Value>) -> Value {
    if let Some(round) = made.as_object_mut()
        && let Some(mut moved) = round.remove("moved").filter(|moved| !moved.is_null())
    {
        let hole = moved["end"].as_str().and_then(|end| plans.get("chosen")?.get(end)).cloned();
        if let Some(hole) = hole {
            moved["to"] = hole;
        }
        round.insert("moved".to_owned(), json!([moved]));
    }
    made
}
