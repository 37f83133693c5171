//! Random jobs, each carried on by doing what comes next, as the status says it, and nothing else: a made-up vehicle gives
//! every figure that is asked for. Most are closed; the others end at a part to buy or at a refusal with its reason, and
//! none goes round in a circle.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;
mod vehicles;

use std::collections::BTreeMap;
use std::sync::Mutex;

use derecho_job::findings::{Finding, FindingKind};
use derecho_job::status::message::{Next, StatusMessage};
use derecho_job::{Job, Results};
use derecho_results::{plan, settle, solve, work};
use derecho_words::Spoken as _;
use proptest::prelude::*;
use serde_json::{Value, json};

/// No job takes more steps than this; the whole of the work is one of them.
const MOST_STEPS: usize = 40;

#[derive(Clone, Debug)]
struct Made {
    inches: bool,
    right: bool,
    front: bool,
    level_bar: bool,
    complains: bool,
    length: f64,
    rise: f64,
    offset: f64,
    driven: f64,
    adjuster: u8,
    engagement: f64,
    riser: f64,
    bars: bool,
    pan: bool,
    noise: u64,
}

fn made() -> impl Strategy<Value = Made> {
    (
        // Three shops in four have a bar on the shelf.
        (any::<[bool; 6]>(), prop::bool::weighted(0.75)),
        (650.0..950.0_f64, 0.0..180.0_f64, -22.0..22.0_f64, prop_oneof![Just(0.0), -25.0..40.0_f64]),
        (0_u8..3, 30.0..60.0_f64, 20.0..120.0_f64, any::<u64>()),
    )
        .prop_map(
            |(
                ([inches, right, front, level_bar, complains, pan], bars),
                (length, rise, offset, driven),
                (adjuster, engagement, riser, noise),
            )| {
                Made {
                    inches,
                    right,
                    front,
                    level_bar,
                    complains,
                    length,
                    rise,
                    offset,
                    driven,
                    adjuster,
                    engagement,
                    riser,
                    bars,
                    pan,
                    noise,
                }
            },
        )
}

/// A vehicle that answers: where its axle is, by Pythagoras, whatever was hung and set.
struct Vehicle {
    made: Made,
    noise: u64,
}

impl Vehicle {
    /// Within one of nought.
    fn chance(&mut self) -> f64 {
        self.noise =
            self.noise.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (self.noise >> 11) as f64 / (1_u64 << 52) as f64 - 1.0
    }

    fn typed(&self, mm: f64) -> Value {
        if self.made.inches {
            json!({ "text": format!("{:.4}", mm / 25.4), "unit": "in" })
        } else {
            json!({ "text": format!("{mm:.2}"), "unit": "mm" })
        }
    }

    /// Where the axle is, + left, with what was fitted in the rounds of a document.
    fn offset(&self, document: &Value) -> f64 {
        let Made { length, rise, offset, driven, right, .. } = self.made;
        let s = if right { -1.0 } else { 1.0 };
        // The eyes were measured as it is driven.
        let _ = driven;
        let (mut set, mut v, mut sideways) = (length, rise, 0.0);
        for round in document["setups"]["rounds"].as_array().into_iter().flatten() {
            if round["length"].is_object() {
                let number: f64 = round["length"]["text"].as_str().unwrap().parse().unwrap();
                set = if round["length"]["unit"] == "in" { number * 25.4 } else { number };
            }
            for moved in round["moved"].as_array().into_iter().flatten() {
                let by = |axis: usize| moved["by_mm"][axis].as_f64().unwrap();
                let sign = if moved["end"] == "frame" { 1.0 } else { -1.0 };
                v += sign * by(2);
                sideways += sign * by(1);
            }
        }
        let reach = |length: f64, v: f64| (length * length - v * v).sqrt();
        offset + s * (reach(length, rise) - reach(set, v)) + sideways
    }

    fn document(&self) -> Value {
        let mm = |value: f64| self.typed(value);
        let made = &self.made;
        let end = |hand: &str| {
            json!({ "thread": "M30x2", "hand": hand, "engagement": mm(made.engagement), "shank": mm(80.0),
                "tapped_depth": mm(85.0), "seat": "steel" })
        };
        let adjuster = match made.adjuster {
            0 => json!({ "kind": "turnbuckle", "first": end("right"), "second": end("left") }),
            1 => json!({ "kind": "one_end", "first": end("right") }),
            _ => json!({ "kind": "fixed" }),
        };
        let bars = if made.bars {
            json!([{ "id": "bought", "name": "bought bar", "adjuster": "turnbuckle", "thread": "1-1/4-12", "hand": "right",
                "second_hand": "left", "shank": mm(80.0), "tapped_depth": mm(80.0),
                "made_min": mm(made.length - 40.0), "made_max": mm(made.length + 60.0) }])
        } else {
            json!([])
        };
        let mut document = json!({ "format": "derecho-job", "version": 7, "title": "Drawn",
            "to_do": if made.level_bar { json!(["centre_axle", "level_bar"]) } else { json!(["centre_axle"]) },
            "rig": { "frame_eye_side": if made.right { "right" } else { "left" }, "axle_location": "leaf_springs",
                "end": if made.front { "front" } else { "rear" }, "steering_side": "left",
                "sheet_unit": if made.inches { "in" } else { "mm" }, "bump": mm(80.0), "droop": mm(100.0),
                "driven_height": "driven", "heights": [{ "id": "driven", "name": "driven", "offset": mm(made.driven) }] },
            "sheets": [],
            "bracket": { "bars": bars, "brackets": [{ "id": "riser", "name": "riser", "end": "axle", "attachment": "bolt_on",
                "holes": [{ "id": "low", "name": "low", "up": mm(made.riser) },
                    { "id": "high", "name": "high", "up": mm(made.riser + 25.0) }] }] },
            "setups": { "found": { "bar": { "length": mm(made.length), "frame_eye_height": mm(600.0 + made.rise),
                "axle_eye_height": mm(600.0) }, "adjuster": adjuster } } });
        if made.complains {
            document["complaints"] = json!([{ "text": "it wanders", "about": "wander" }]);
        }
        if made.pan {
            let point =
                |across: f64| json!({ "height": mm(760.0), "sideways": mm(across), "fore_aft": mm(0.0) });
            document["hardpoints"] = json!({ "bar": { "axle_eye_fore_aft": mm(0.0), "diameter": mm(30.0) },
                "obstacles": [{ "name": "oil pan", "on": "body", "side": "left", "from": point(-60.0), "to": point(60.0),
                    "thickness": mm(40.0) }] });
        }
        document
    }

    /// Both sides read four times, each within half a millimetre.
    fn read(&mut self, document: &mut Value) {
        let at = self.offset(document);
        let mut side = |sign: f64| -> Vec<Value> {
            (0..4)
                .map(|_| {
                    let reads = 160.0 + sign * at + 0.5 * self.chance();
                    self.typed(reads)
                })
                .collect()
        };
        let (left, right) = (side(1.0), side(-1.0));
        let rounds = document["setups"]["rounds"].as_array();
        let after = rounds.and_then(|rounds| rounds.last()).map_or(json!(""), |round| round["id"].clone());
        let sheets = document["sheets"].as_array_mut().unwrap();
        let mut sheet = json!({ "id": format!("sheet-{}", sheets.len()), "kind": "centring", "method": "frame_to_hub",
            "sense": "outward", "unit": if self.made.inches { "in" } else { "mm" }, "left": left, "right": right,
            "conditions": { "on_its_weight": true, "wheels_straight": true, "pressures_equal": true },
            "height": "driven" });
        if after != "" {
            sheet["after"] = after;
        }
        sheets.push(sheet);
    }
}

/// How a job ended.
#[derive(Clone, Debug, PartialEq)]
enum End {
    Closed,
    /// At a part to buy, or at a refusal: which.
    Refused(&'static str),
    /// Nowhere: a fault of the program.
    Stuck(String),
}

fn job(document: &Value) -> Job {
    by_name::sound(document)
}

fn all_ticked(document: &mut Value) {
    let worked = work(&job(document));
    let done = json!({ "at": "2026-11-20T09:00:00Z", "by": "Rosa" });
    let stood =
        |key: &str, stands: bool| if key == "corners" || stands { "on_its_weight" } else { "supported" };
    let steps = worked.steps.iter().map(|step| {
        json!({ "key": step.key, "done": done, "read": step.does.millimetres(),
            "stood": stood(&step.key, step.stands.is_some()) })
    });
    let bolts = worked.fasteners.iter().map(|bolt| {
        json!({ "key": bolt.key, "torque": "140 N·m", "source": "parts_sheet",
            "tight": { "torque": "140 N·m", "stood": "on_its_weight", "done": done } })
    });
    document["bolt_up"] =
        json!({ "by": "Rosa", "steps": steps.collect::<Vec<_>>(), "fasteners": bolts.collect::<Vec<_>>() });
}

/// The work done and on record: what the program has ready, with the length as it came out.
fn fitted(vehicle: &mut Vehicle, document: &mut Value, results: &Results) -> Result<(), String> {
    all_ticked(document);
    let Some(correction) = results.bar.as_ref().and_then(|bar| bar.correction.as_ref()) else {
        return Err("nothing to record".to_owned());
    };
    let mut round = derecho_results::json::value(correction.fitting.clone());
    let fixed = correction.setting.is_none() && vehicle.made.adjuster == 2 && round.get("bar").is_none();
    let came = correction.length_mm.to_mm() + if fixed { 0.0 } else { 0.4 * vehicle.chance() };
    round["length"] = vehicle.typed(came);
    let rounds = document["setups"]["rounds"].as_array().map_or(0, Vec::len);
    round["id"] = json!(format!("round-{}", rounds + 1));
    match document["setups"]["rounds"].as_array_mut() {
        Some(list) => list.push(round),
        None => document["setups"]["rounds"] = json!([round]),
    }
    Ok(())
}

/// The best hole or bar on offer that fails in nothing; the length alone where there is none.
fn chosen(document: &mut Value, bar_alone: bool) -> bool {
    let options = plan(&job(document)).options;
    let before = document["setups"]["plans"]["chosen"].clone();
    let works = options.iter().find(|option| option.fails.is_empty() && option.covered != Some(false));
    let form = match works {
        Some(option) => derecho_results::json::value(option.plan.clone()),
        None if bar_alone => return false,
        None => json!({}),
    };
    document["setups"]["plans"]["chosen"] = form;
    document["setups"]["plans"]["chosen"] != before
}

fn accepted(document: &mut Value, finding: &Finding) {
    let row =
        json!({ "key": finding.key, "said": finding.says.millimetres(), "because": "agreed with the depot" });
    match document["proof"]["acceptances"].as_array_mut() {
        Some(list) => list.push(row),
        None => document["proof"]["acceptances"] = json!([row]),
    }
}

/// Puts right what is first in the way, as a person would.
fn put_right(vehicle: &mut Vehicle, document: &mut Value, results: &Results) -> Option<End> {
    let finding = results.findings.iter().find(|finding| finding.stands_in_the_way()).unwrap();
    match finding.kind {
        FindingKind::NotLookedAt | FindingKind::ClearanceNotChecked => {
            let key = finding.goes_to.as_deref().unwrap().rsplit('/').next().unwrap();
            document["proof"]["looked_at"][key] = json!(true);
        }
        FindingKind::ComplaintOpen => document["complaints"][0]["after"] = json!("gone"),
        FindingKind::StepsOpen | FindingKind::TorqueMissing => all_ticked(document),
        FindingKind::MovedOtherwise => vehicle.read(document),
        FindingKind::TravelEnds => return Some(End::Refused("something ends the travel")),
        FindingKind::ThreadEngaged => return Some(End::Refused("too little thread")),
        _ if finding.acceptable => accepted(document, finding),
        _ => return Some(End::Stuck(format!("{finding:?}"))),
    }
    None
}

/// One step: what the status says comes next, done. None where the job goes on.
fn step(vehicle: &mut Vehicle, document: &mut Value, results: &Results) -> Option<End> {
    let Some(next) = &results.status.next else { return Some(End::Stuck("no next step".to_owned())) };
    let next = match next.says.facts::<StatusMessage>().unwrap() {
        StatusMessage::PutRight(_) => return put_right(vehicle, document, results),
        StatusMessage::Next(next) => *next,
        StatusMessage::State { .. } => unreachable!("a state is no step"),
    };
    match next {
        Next::ReadBothSides | Next::ReadBothSidesAgain => vehicle.read(document),
        Next::SetTheBar
        | Next::SetTheBarAgain
        | Next::FitTheChosenPlan
        | Next::NextStepOfWork
        | Next::RecordWhatWasFitted => {
            if let Err(why) = fitted(vehicle, document, results) {
                return Some(End::Stuck(why));
            }
        }
        Next::ChooseHoleOrLength => {
            if !chosen(document, false) {
                return Some(End::Stuck("the choice is asked again".to_owned()));
            }
        }
        Next::BarThatReaches => {
            if !chosen(document, true) {
                return Some(End::Refused("a bar to buy"));
            }
        }
        Next::MeasureTheEye => {
            // It sits where it was planned: something else it was.
            let last = document["setups"]["rounds"].as_array_mut().unwrap().last_mut().unwrap();
            last["cause"] = json!({ "what": "other", "done": { "at": "2026-11-20T09:00:00Z" } });
        }
        Next::SomethingStillTouches => return Some(End::Refused("something still touches")),
        Next::RoadTestThenClose => {
            document["proof"]["road"] = json!([{ "step": "yard", "result": "good" }]);
        }
        Next::Close => {
            let job = job(document);
            let Some(closed) = settle(&job, "2026-11-22T16:00:00Z".parse().unwrap()) else {
                return Some(End::Stuck("it says to close it and does not close".to_owned()));
            };
            let open = solve(&Job { settled: None, ..closed }).findings;
            let over = open.iter().find(|finding| finding.stands_in_the_way());
            return Some(over.map_or(End::Closed, |over| End::Stuck(format!("closed over {over:?}"))));
        }
        other => return Some(End::Stuck(format!("{other:?}"))),
    }
    None
}

fn carried(made: &Made) -> (End, Vec<String>) {
    let mut vehicle = Vehicle { made: made.clone(), noise: made.noise };
    let mut document = vehicle.document();
    let mut said = Vec::new();
    for _ in 0..MOST_STEPS {
        let results = solve(&job(&document));
        said.extend(results.status.next.as_ref().map(|next| next.says.millimetres()));
        if let Some(end) = step(&mut vehicle, &mut document, &results) {
            return (end, said);
        }
    }
    (End::Stuck("round in a circle".to_owned()), said)
}

static ENDS: Mutex<BTreeMap<String, usize>> = Mutex::new(BTreeMap::new());

proptest! {
    #![proptest_config(vehicles::as_many(150))]

    /// Nothing is stuck, and nothing goes round.
    fn what_comes_next_leads_to_an_end(made in made()) {
        let (end, said) = carried(&made);
        let stuck = matches!(end, End::Stuck(_));
        let name = match &end {
            End::Closed => "closed",
            End::Refused(why) => why,
            End::Stuck(_) => "stuck",
        };
        *ENDS.lock().unwrap().entry(name.to_owned()).or_default() += 1;
        prop_assert!(!stuck, "{end:?} after {said:?}");
    }
}

/// At least four in five are closed; the rest end at a part to buy or a refusal.
#[test]
fn most_jobs_are_closed_by_what_comes_next() {
    what_comes_next_leads_to_an_end();
    let ends = ENDS.lock().unwrap();
    let all: usize = ends.values().sum();
    let closed = ends.get("closed").copied().unwrap_or_default();
    assert!(closed * 5 >= all * 4, "{ends:?}");
}
