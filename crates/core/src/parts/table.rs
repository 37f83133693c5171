//! Parts as rows of a table, as they stand in a CSV file: one column for each field, lengths
//! as typed with their unit, holes as `hole 1: 2 in; hole 2: 3 in, outward 1/2 in`.

use serde_json::{Map, Value, json};

use super::part::{Part, length_text};
use crate::fastener::Thread;
use crate::fastener::stack::NutKind;
use crate::fastener::strength::{Grade, ThreadTreatment};
use crate::measure::TorqueEntry;

/// The columns, in order.
pub const COLUMNS: [&str; 45] = [
    "kind",
    "name",
    "end",
    "attachment",
    "attachment_spacing",
    "comes_off_first",
    "holes",
    "adjuster",
    "made_min",
    "made_max",
    "thread",
    "second_thread",
    "hand",
    "second_hand",
    "shank",
    "tapped_depth",
    "seat",
    "least_engagement",
    "end_style",
    "frame_joint",
    "axle_joint",
    "outside",
    "wall",
    "material",
    "bend",
    "joint",
    "width",
    "bolt",
    "raises_axle_end",
    "drops_pitman_end",
    "below_rail",
    "length",
    "thickness",
    "bore",
    "active_length",
    "arm",
    "grade",
    "nut",
    "nut_thread",
    "treatment",
    "torque",
    "holds",
    "fasteners",
    "order",
    "note",
];

/// Columns that hold a length.
const LENGTHS: [&str; 19] = [
    "attachment_spacing",
    "made_min",
    "made_max",
    "shank",
    "tapped_depth",
    "least_engagement",
    "outside",
    "wall",
    "bend",
    "width",
    "bolt",
    "raises_axle_end",
    "drops_pitman_end",
    "below_rail",
    "length",
    "thickness",
    "bore",
    "active_length",
    "arm",
];

/// What is in a kit: `2 × spacer; 1 × crush sleeve`.
fn holds_text(holds: &Value) -> String {
    let reported = holds.as_array().into_iter().flatten();
    let reported =
        reported.map(|line| format!("{} × {}", line["count"], line["name"].as_str().unwrap_or_default()));
    reported.collect::<Vec<_>>().join("; ")
}

/// Fields of a kit's fastener in the order in which they are written.
const FASTENER: [&str; 5] = ["thread", "grade", "nut", "treatment", "torque"];

/// A kit's fasteners: `frame/main: 9/16-18, grade_8, nylon_insert, threadlocker, 120 lb-ft; …`.
fn fasteners_text(fasteners: &Value) -> String {
    let reported = fasteners.as_array().into_iter().flatten().map(|line| {
        let fields = FASTENER.iter().filter_map(|field| line[*field].as_str());
        format!("{}: {}", line["place"].as_str().unwrap_or_default(), fields.collect::<Vec<_>>().join(", "))
    });
    reported.collect::<Vec<_>>().join("; ")
}

fn order_text(order: &Value) -> String {
    order.as_array().into_iter().flatten().filter_map(Value::as_str).collect::<Vec<_>>().join("; ")
}

/// The pieces of a cell that holds several.
fn pieces(text: &str) -> impl Iterator<Item = &str> {
    text.split(';').map(str::trim).filter(|piece| !piece.is_empty())
}

fn held_of(text: &str) -> Value {
    let (count, name) = text.split_once('×').or_else(|| text.split_once(" x ")).unwrap_or(("1", text));
    match count.trim().parse::<u32>() {
        Ok(count) => json!({ "name": name.trim(), "count": count }),
        Err(_) => json!({ "name": text, "count": 1 }),
    }
}

/// A fastener of a cell: what follows its place is told apart by what it can be read as.
fn fastener_of(text: &str) -> Result<Value, String> {
    let (place, rest) = text.split_once(':').ok_or_else(|| {
        format!("the fastener {text:?} has no colon: write it like frame/main: 9/16-18, 120 lb-ft")
    })?;
    let mut fastener = Map::new();
    fastener.insert("place".to_owned(), json!(place.trim()));
    for piece in rest.split(',').map(str::trim).filter(|piece| !piece.is_empty()) {
        let value = json!(piece);
        let field = if Thread::parse(piece).is_ok() {
            "thread"
        } else if serde_json::from_value::<Grade>(value.clone()).is_ok() {
            "grade"
        } else if serde_json::from_value::<NutKind>(value.clone()).is_ok() {
            "nut"
        } else if serde_json::from_value::<ThreadTreatment>(value.clone()).is_ok() {
            "treatment"
        } else if TorqueEntry::parse(piece).is_ok() {
            "torque"
        } else {
            return Err(format!(
                "{piece:?} of the fastener {:?} is no thread, grade, nut, treatment or torque",
                place.trim()
            ));
        };
        if fastener.insert(field.to_owned(), value).is_some() {
            return Err(format!("the fastener {:?} has {field} twice", place.trim()));
        }
    }
    Ok(Value::Object(fastener))
}

fn holes_text(holes: &Value) -> String {
    let reported = holes.as_array().into_iter().flatten().map(|hole| {
        let mut text = format!("{}: {}", hole["name"].as_str().unwrap_or_default(), length_text(&hole["up"]));
        for way in ["outward", "forward"] {
            if hole[way].is_object() {
                text.push_str(&format!(", {way} {}", length_text(&hole[way])));
            }
        }
        text
    });
    reported.collect::<Vec<_>>().join("; ")
}

/// A part as a row, one text for each of [`COLUMNS`].
#[must_use]
pub fn to_row(part: &Part) -> Vec<String> {
    // A part is plain data with string keys: it always has a JSON form.
    let value = serde_json::to_value(part).unwrap_or_default();
    COLUMNS
        .iter()
        .map(|column| match &value[*column] {
            holes if *column == "holes" => holes_text(holes),
            holds if *column == "holds" => holds_text(holds),
            fasteners if *column == "fasteners" => fasteners_text(fasteners),
            order if *column == "order" => order_text(order),
            entry @ Value::Object(_) => length_text(entry),
            Value::String(text) => text.clone(),
            _ => String::new(),
        })
        .collect()
}

/// A bare number in a file could be either unit: it is asked back.
fn has_unit(text: &str, of: &str) -> Result<(), String> {
    if text.contains(|c: char| c.is_alphabetic() || "\"″'′".contains(c)) {
        return Ok(());
    }
    Err(format!("{of}: {text:?} has no unit: add in or mm"))
}

/// The holes of a cell, one text each. A piece without a colon belongs to the next: it is the start
/// of a name with a semicolon in it.
fn holes_of(text: &str) -> Vec<String> {
    let mut holes = Vec::new();
    let mut begun = String::new();
    for piece in text.split(';') {
        if !begun.is_empty() {
            begun.push(';');
        }
        begun.push_str(piece);
        if piece.contains(':') {
            holes.push(std::mem::take(&mut begun).trim().to_owned());
        }
    }
    holes.extend(Some(begun.trim().to_owned()).filter(|rest| !rest.is_empty()));
    holes
}

fn hole_of(text: &str) -> Result<Value, String> {
    let (name, rest) = text
        .rsplit_once(':')
        .ok_or_else(|| format!("the hole {text:?} has no colon: write it as hole 1: 2 in"))?;
    let mut hole = Map::new();
    hole.insert("name".to_owned(), json!(name.trim()));
    for (index, part) in rest.split(',').map(str::trim).enumerate() {
        let (way, length) = match part.split_once(' ') {
            Some((way @ ("outward" | "forward"), length)) => (way, length),
            _ if index == 0 => ("up", part),
            _ => return Err(format!("{part:?} of the hole {name:?} is neither outward nor forward")),
        };
        has_unit(length, &format!("the hole {:?}", name.trim()))?;
        hole.insert(way.to_owned(), json!(length));
    }
    Ok(Value::Object(hole))
}

/// A part from a row: pairs of column and text; empty texts are left out.
///
/// # Errors
/// What is wrong, naming the column.
///
/// ```
/// use derecho_core::parts::table::from_row;
///
/// let cells = [("kind", "bracket"), ("name", "riser"), ("end", "axle"), ("holes", "low: 2 in; high: 3 in")];
/// assert_eq!(from_row(cells.into_iter()).unwrap().name(), "riser");
/// assert!(from_row([("kind", "anvil")].into_iter()).is_err());
/// ```
pub fn from_row<'a>(cells: impl Iterator<Item = (&'a str, &'a str)>) -> Result<Part, String> {
    let mut map = Map::new();
    for (column, text) in cells {
        let (column, text) = (column.trim(), text.trim());
        if text.is_empty() {
            continue;
        }
        if !COLUMNS.contains(&column) {
            return Err(format!("there is no column {column:?}: remove it, or check its spelling"));
        }
        let value = if column == "holes" {
            Value::Array(holes_of(text).iter().map(|hole| hole_of(hole)).collect::<Result<_, _>>()?)
        } else if column == "holds" {
            pieces(text).map(held_of).collect()
        } else if column == "fasteners" {
            Value::Array(pieces(text).map(fastener_of).collect::<Result<_, _>>()?)
        } else if column == "order" {
            pieces(text).map(Value::from).collect()
        } else {
            if LENGTHS.contains(&column) && !text.contains(|c: char| c.is_alphabetic() || "\"″'′".contains(c))
            {
                return Err(format!("{column} {text:?} has no unit: add in or mm"));
            }
            json!(text)
        };
        map.insert(column.to_owned(), value);
    }
    serde_json::from_value(Value::Object(map)).map_err(|error| error.to_string())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::measure::{TapeEntry, Unit};
    use crate::parts::{BarPart, BracketPart, Hole, HoleId};

    fn inches(text: &str) -> TapeEntry {
        TapeEntry::parse(text, Unit::Inches).unwrap()
    }

    fn lengths(part: &Part) -> Vec<f64> {
        let Part::Bracket(bracket) = part else { return Vec::new() };
        bracket.holes.iter().map(|hole| hole.up.length().to_mm()).collect()
    }

    #[test]
    fn a_bracket_goes_into_a_row_and_comes_back() {
        let hole = |name: &str, up: &str| Hole {
            id: HoleId::default(),
            name: name.to_owned(),
            up: inches(up),
            outward: None,
            forward: None,
        };
        let mut holes = vec![hole("hole 1", "1 3/4"), hole("hole 2", "3")];
        holes[1].outward = Some(inches("-1/2"));
        let part = Part::Bracket(BracketPart {
            name: "riser; wide, heavy".to_owned(),
            holes,
            ..BracketPart::default()
        });
        let row = to_row(&part);
        assert_eq!(row[6], "hole 1: 1 3/4 in; hole 2: 3 in, outward -1/2 in");
        let back = from_row(COLUMNS.iter().copied().zip(row.iter().map(String::as_str))).unwrap();
        assert_eq!(lengths(&back), lengths(&part));
        assert_eq!(to_row(&back), row);
    }

    #[test]
    fn a_bar_goes_into_a_row_and_comes_back() {
        let part = Part::Bar(BarPart {
            name: "bar".to_owned(),
            made_min: Some(inches("30 1/2")),
            outside: Some(TapeEntry::parse("32", Unit::Millimetres).unwrap()),
            ..BarPart::default()
        });
        let row = to_row(&part);
        assert_eq!((row[8].as_str(), row[21].as_str()), ("30 1/2 in", "32 mm"));
        let back = from_row(COLUMNS.iter().copied().zip(row.iter().map(String::as_str))).unwrap();
        assert_eq!(to_row(&back), row);
    }

    #[test]
    fn bad_rows_are_refused_with_their_column() {
        let row = |pairs: &[(&'static str, &'static str)]| from_row(pairs.iter().copied()).unwrap_err();
        assert!(row(&[("kind", "bar"), ("colour", "red")]).contains("colour"));
        assert!(row(&[("kind", "bar"), ("name", "x"), ("made_min", "30 1/2")]).contains("made_min"));
        assert!(row(&[("kind", "bracket"), ("name", "x"), ("holes", "2 in")]).contains("no colon"));
        assert!(row(&[("kind", "bracket"), ("name", "x"), ("holes", "hole 1: 5")]).contains("has no unit"));
        assert!(row(&[("kind", "anvil"), ("name", "x")]).contains("anvil"));
    }
}
