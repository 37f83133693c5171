//! Version 3 pointed at rows by their names, or by how many came before; version 4 by ids.
//!
//! An id is made of what is there alone: a row's name where no row before it has that, so that what pointed at it by
//! name points at it still. Old revisions are brought forward at every read, and must come out the same each time. What
//! named nothing, as documents of older programs do, is not lost: a plan is kept with what it named, a round says it in
//! its note, and none of them keeps the job from being saved.

use std::collections::BTreeSet;

use serde_json::{Map, Value, json};

use crate::check::LONGEST_NAME;

pub(super) fn bring_forward(document: &mut Value) {
    document["version"] = json!(4);
    for (list, kind) in [
        ("/rig/heights", "height"),
        ("/setups/found/frame_holes", "hole"),
        ("/setups/found/axle_holes", "hole"),
    ] {
        give_ids(document.pointer_mut(list), kind);
    }
    for (list, kind) in [("bars", "bar"), ("brackets", "bracket"), ("drag_links", "drag link")] {
        give_ids(document.pointer_mut(&format!("/bracket/{list}")), kind);
    }
    for bracket in rows_mut(document, "/bracket/brackets") {
        give_ids(bracket.get_mut("holes"), "hole");
    }
    heights(document);
    arm_holes(document);
    for (place, round) in rows_mut(document, "/setups/rounds").enumerate() {
        put(round, "id", json!(format!("round-{}", place + 1)));
    }
    sheets(document);
    // A step to drill went by the hole's place: its tick stays with it.
    for (place, drill) in rows_mut(document, "/bolt_up/drills").enumerate() {
        put(drill, "id", json!(place.to_string()));
    }
    let parts = OlderParts::of(document);
    plans(document, &parts);
    for round in rows_mut(document, "/setups/rounds") {
        round_of(round, &parts);
    }
}

fn rows_mut<'a>(document: &'a mut Value, list: &str) -> impl Iterator<Item = &'a mut Value> + use<'a> {
    document.pointer_mut(list).and_then(Value::as_array_mut).into_iter().flatten()
}

fn rows(document: &Value, list: &str) -> Vec<Value> {
    document.pointer(list).and_then(Value::as_array).cloned().unwrap_or_default()
}

fn put(row: &mut Value, field: &str, value: Value) {
    if let Some(row) = row.as_object_mut() {
        row.insert(field.to_owned(), value);
    }
}

/// A row's own name as its id, or its kind and place where it has none that will do.
fn give_ids(list: Option<&mut Value>, kind: &str) {
    let mut taken = BTreeSet::new();
    for (place, row) in list.and_then(Value::as_array_mut).into_iter().flatten().enumerate() {
        let name = row["name"].as_str().unwrap_or_default();
        let fit =
            !name.is_empty() && name.chars().count() <= LONGEST_NAME && !name.contains(char::is_control);
        let mut id = if fit { name.to_owned() } else { format!("{kind}-{}", place + 1) };
        // A second row of a name is never the one that was meant by it: the first was found.
        let mut more = 2;
        while !taken.insert(id.clone()) {
            id = format!("{kind}-{}-{more}", place + 1);
            more += 1;
        }
        put(row, "id", json!(id));
    }
}

/// The id of the first row of a name.
fn id_of(rows: &[Value], name: &str) -> Option<Value> {
    rows.iter().find(|row| row["name"] == json!(name)).map(|row| row["id"].clone())
}

/// Heights were named wherever something was read. A name that was in no list was ride height: it goes into the list as
/// that, so that what was read at it stays there.
fn heights(document: &mut Value) {
    let mut known = rows(document, "/rig/heights");
    let before = known.len();
    let mut point = |object: Option<&mut Value>, field: &str| {
        let Some(object) = object.and_then(Value::as_object_mut) else { return };
        let Some(name) = object.get(field).and_then(Value::as_str).filter(|name| !name.is_empty()) else {
            return;
        };
        let id = id_of(&known, name).unwrap_or_else(|| {
            let mut rows = Value::Array(std::mem::take(&mut known));
            if let Some(rows) = rows.as_array_mut() {
                rows.push(json!({ "name": name, "offset": { "text": "0", "unit": "mm" } }));
            }
            give_ids(Some(&mut rows), "height");
            known = rows.as_array().cloned().unwrap_or_default();
            known.last().map(|row| row["id"].clone()).unwrap_or_default()
        });
        object.insert(field.to_owned(), id);
    };
    point(document.get_mut("rig"), "driven_height");
    point(document.pointer_mut("/setups/found/bar"), "height");
    point(document.get_mut("hardpoints"), "height");
    point(document.get_mut("hardpoints"), "tightened_height");
    for list in ["/sheets", "/bracket/conversion/pinion"] {
        for row in rows_mut(document, list) {
            point(Some(row), "height");
        }
    }
    if known.len() > before {
        document["rig"]["heights"] = Value::Array(known);
    }
}

/// The id of a hole of the sway arm, by its place from 1.
pub(super) fn arm_hole(place: usize) -> String {
    format!("hole-{place}")
}

/// The sway arm's holes were lengths, pointed at by their places.
fn arm_holes(document: &mut Value) {
    let mut holes = 0;
    for hole in rows_mut(document, "/sway/holes") {
        holes += 1;
        *hole = json!({ "id": arm_hole(holes), "arm": hole.take() });
    }
    let point = |object: Option<&mut Value>, field: &str| {
        let Some(object) = object.and_then(Value::as_object_mut) else { return };
        let place = object.get(field).and_then(Value::as_u64).and_then(|place| usize::try_from(place).ok());
        match place.filter(|place| *place < holes) {
            Some(place) => object.insert(field.to_owned(), json!(arm_hole(place + 1))),
            None => object.remove(field),
        };
    };
    point(document.get_mut("sway"), "hole");
    point(document.pointer_mut("/setups/plans/sway"), "hole");
    for round in rows_mut(document, "/setups/rounds") {
        point(Some(round), "sway_hole");
    }
}

/// A sheet said how many rounds had been done when it was read.
fn sheets(document: &mut Value) {
    let rounds = rows(document, "/setups/rounds").len() as u64;
    let mut taken = BTreeSet::new();
    for (place, sheet) in rows_mut(document, "/sheets").enumerate() {
        let Some(sheet) = sheet.as_object_mut() else { continue };
        let round = sheet.remove("round").and_then(|round| round.as_u64()).unwrap_or_default().min(rounds);
        if round > 0 {
            sheet.insert("after".to_owned(), json!(format!("round-{round}")));
        }
        let id = sheet.get("id").and_then(Value::as_str).unwrap_or_default().to_owned();
        if id.is_empty() || !taken.insert(id) {
            let made = format!("sheet-{}", place + 1);
            taken.insert(made.clone());
            sheet.insert("id".to_owned(), json!(made));
        }
    }
}

/// What plans and rounds point at.
struct OlderParts {
    bars: Vec<Value>,
    brackets: Vec<Value>,
    drag_links: Vec<Value>,
    frame_holes: Vec<Value>,
    axle_holes: Vec<Value>,
}

impl OlderParts {
    fn of(document: &Value) -> Self {
        Self {
            bars: rows(document, "/bracket/bars"),
            brackets: rows(document, "/bracket/brackets"),
            drag_links: rows(document, "/bracket/drag_links"),
            frame_holes: rows(document, "/setups/found/frame_holes"),
            axle_holes: rows(document, "/setups/found/axle_holes"),
        }
    }

    /// A hole of a bracket at an end, as the first that matched was found; what it named where it matches nothing.
    fn hole(&self, end: &str, choice: &Value) -> Result<Value, String> {
        let text = |field: &str| choice[field].as_str().unwrap_or_default();
        let (bracket, hole) = (text("bracket"), text("hole"));
        let mut pointed = Map::new();
        let holes = if bracket.is_empty() {
            if end == "frame" { self.frame_holes.clone() } else { self.axle_holes.clone() }
        } else {
            let at_end = |part: &&Value| part["end"].as_str().unwrap_or("axle") == end;
            let part = self.brackets.iter().filter(at_end).find(|part| part["name"] == json!(bracket));
            let Some(part) = part else { return Err(named(bracket, hole)) };
            pointed.insert("bracket".to_owned(), part["id"].clone());
            rows(part, "/holes")
        };
        if !hole.is_empty() {
            let Some(id) = id_of(&holes, hole) else { return Err(named(bracket, hole)) };
            pointed.insert("hole".to_owned(), id);
        }
        Ok(Value::Object(pointed))
    }
}

/// What people called a hole that is gone.
fn named(bracket: &str, hole: &str) -> String {
    match (bracket, hole) {
        (bracket, "") => format!("bracket “{bracket}”"),
        ("", hole) => format!("hole “{hole}”"),
        (bracket, hole) => format!("hole “{hole}” of bracket “{bracket}”"),
    }
}

/// Plans that named what is gone are kept beside the others, to be read; nothing is chosen then.
fn plans(document: &mut Value, parts: &OlderParts) {
    let Some(plans) = document.pointer_mut("/setups/plans").and_then(Value::as_object_mut) else { return };
    let mut kept = Vec::new();
    for field in ["chosen", "trial"] {
        if let Some(plan) = plans.get_mut(field).filter(|plan| plan.is_object())
            && plan_of(plan, parts)
        {
            kept.extend(plans.remove(field));
        }
    }
    if let Some(Value::Array(before)) = plans.get_mut("kept") {
        for plan in &mut *before {
            plan_of(plan, parts);
        }
        kept.append(before);
    }
    if !kept.is_empty() {
        plans.insert("kept".to_owned(), Value::Array(kept));
    }
}

/// Points a plan at what it named, and tells whether something of that is gone.
fn plan_of(plan: &mut Value, parts: &OlderParts) -> bool {
    let Some(plan) = plan.as_object_mut() else { return false };
    let mut gone = Vec::new();
    for end in ["frame", "axle"] {
        let Some(choice) = plan.get(end).filter(|choice| choice.is_object()) else { continue };
        match parts.hole(end, choice) {
            Ok(pointed) => {
                plan.insert(end.to_owned(), pointed);
            }
            Err(named) => {
                plan.remove(end);
                gone.push(named);
            }
        }
    }
    for (field, rows, what) in
        [("bar", &parts.bars, "bar"), ("drag_link", &parts.drag_links, "drag-link part")]
    {
        let Some(name) = plan.get(field).and_then(Value::as_str).filter(|name| !name.is_empty()) else {
            continue;
        };
        match id_of(rows, name) {
            Some(id) => {
                plan.insert(field.to_owned(), id);
            }
            None => {
                gone.push(format!("{what} “{name}”"));
                plan.remove(field);
            }
        }
    }
    let lost = !gone.is_empty();
    if lost {
        plan.insert("gone".to_owned(), json!(gone));
    }
    lost
}

/// Points a round at what it named. What is gone was found to be the bar as found, no drag-link part, or a hole by its
/// move alone: that stays, and the note says what it was called.
fn round_of(round: &mut Value, parts: &OlderParts) {
    let Some(round) = round.as_object_mut() else { return };
    let mut lines = Vec::new();
    if let Some(name) = round.get("bar").and_then(Value::as_str).filter(|name| !name.is_empty()) {
        let id = id_of(&parts.bars, name);
        if id.is_none() {
            lines.push(format!("Bar: {name}"));
        }
        round.insert("bar".to_owned(), id.unwrap_or_else(|| json!("")));
    }
    if let Some(name) = round.get("drag_link").and_then(Value::as_str).filter(|name| !name.is_empty()) {
        match id_of(&parts.drag_links, name) {
            Some(id) => {
                round.insert("drag_link".to_owned(), id);
            }
            None => {
                lines.push(format!("Drag-link part: {name}"));
                round.remove("drag_link");
            }
        }
    }
    for moved in round.get_mut("moved").and_then(Value::as_array_mut).into_iter().flatten() {
        let Some(moved) = moved.as_object_mut() else { continue };
        let end = moved.get("end").and_then(Value::as_str).unwrap_or("axle").to_owned();
        let Some(to) = moved.get("to").filter(|to| to.is_object()) else { continue };
        match parts.hole(&end, to) {
            Ok(pointed) => {
                moved.insert("to".to_owned(), pointed);
            }
            Err(named) => {
                lines.push(format!("Moved to {named}"));
                moved.remove("to");
            }
        }
    }
    if !lines.is_empty() {
        let note = round.get("note").and_then(Value::as_str).unwrap_or_default();
        lines.insert(0, note.to_owned());
        let note = lines.join("\n").trim_start().to_owned();
        round.insert("note".to_owned(), json!(note));
    }
}
