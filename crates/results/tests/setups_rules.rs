//! What must hold over any job: one length in every stage, no two verdicts, a plan fitted is the
//! plan, a round taken back leaves no trace, left and right are alike.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use derecho_job::Results;
use derecho_job::document::Round;
use derecho_job::findings::FindingKind;
use derecho_job::setups::Resolved;
use derecho_job::{Everything, Job, check};
use derecho_results::json::value as in_words;
use derecho_results::{everything, solve};
use derecho_words::Spoken as _;
use proptest::prelude::*;
use serde_json::{Value, json};

/// A random vehicle on leaf springs: either side, above or below level, either unit system, a
/// driven height that may be another than ride height, with brackets for both eyes and bars of
/// every kind.
#[derive(Clone, Debug)]
struct Drawn {
    length: f64,
    rise: f64,
    right: bool,
    offset: f64,
    readings: u8,
    inches: bool,
    driven: f64,
    tolerance: f64,
    adjuster: u8,
    riser: f64,
    drop: f64,
    outward: f64,
    hole: u8,
    bar: u8,
}

fn drawn() -> impl Strategy<Value = Drawn> {
    (
        (700.0..1000.0_f64, -180.0..180.0_f64, any::<bool>(), -18.0..18.0_f64, 0..3_u8, any::<bool>()),
        (-40.0..60.0_f64, 2.0..6.0_f64, 0..3_u8),
        (20.0..110.0_f64, 20.0..110.0_f64, -15.0..15.0_f64, 0..4_u8, 0..6_u8),
    )
        .prop_map(
            |(
                (length, rise, right, offset, readings, inches),
                (driven, tolerance, adjuster),
                (riser, drop, outward, hole, bar),
            )| Drawn {
                length,
                rise,
                right,
                offset,
                readings,
                inches,
                driven,
                tolerance,
                adjuster,
                riser,
                drop,
                outward,
                hole,
                bar,
            },
        )
}

impl Drawn {
    fn typed(&self, mm: f64) -> Value {
        if self.inches { json!(format!("{:.4} in", mm / 25.4)) } else { json!(format!("{mm:.3} mm")) }
    }

    fn document(&self) -> Value {
        let mm = |value: f64| self.typed(value);
        let (side, other) = if self.right { ("right", "left") } else { ("left", "right") };
        let read = |value: f64| json!([mm(value), mm(value), mm(value), mm(value)]);
        let sheets = match self.readings {
            0 => json!([]),
            kind => json!([{ "id": "as-found", "unit": if self.inches { "in" } else { "mm" },
                // Some say centred, some do not.
                side: read(160.0 + if kind == 1 { self.offset } else { self.offset / 40.0 }),
                other: read(160.0), "conditions": { "on_its_weight": true } }]),
        };
        let end = |hand: &str| {
            json!({ "thread": "M30x2", "hand": hand, "engagement": mm(55.0),
            "shank": mm(70.0), "tapped_depth": mm(75.0) })
        };
        let adjuster = match self.adjuster {
            0 => json!({ "kind": "turnbuckle", "first": end("right"), "second": end("left") }),
            1 => json!({ "kind": "one_end", "first": end("right") }),
            _ => json!({ "kind": "fixed" }),
        };
        let bars = json!([
            { "name": "bought", "adjuster": "turnbuckle", "thread": "1-1/4-12", "hand": "right",
              "second_hand": "left", "shank": mm(80.0), "tapped_depth": mm(80.0),
              "made_min": mm(self.length - 30.0), "made_max": mm(self.length + 60.0) },
            { "name": "short", "adjuster": "one_end", "thread": "M24x2", "hand": "right",
              "shank": mm(60.0), "tapped_depth": mm(60.0),
              "made_min": mm(self.length - 70.0), "made_max": mm(self.length - 30.0) },
            { "name": "stock like", "adjuster": "fixed", "made_min": mm(self.length), "made_max": mm(self.length) },
            { "name": "welded", "made_min": mm(500.0), "made_max": mm(1400.0) },
        ]);
        let choice = |bracket: &str| json!({ "bracket": bracket, "hole": "hole 1" });
        let mut plan = match self.hole {
            0 => json!({}),
            1 => json!({ "axle": choice("riser") }),
            2 => json!({ "frame": choice("drop") }),
            _ => json!({ "axle": choice("riser"), "frame": choice("drop") }),
        };
        let bar = ["", "bought", "short", "stock like", "welded"].get(usize::from(self.bar)).copied();
        plan["bar"] = json!(bar.unwrap_or_default());
        json!({ "format": "derecho-job", "version": 7, "title": "Drawn",
            "rig": { "frame_eye_side": side, "axle_location": "leaf_springs", "end": "rear",
                "sheet_unit": if self.inches { "in" } else { "mm" }, "bump": mm(80.0), "droop": mm(100.0),
                "tolerance": mm(self.tolerance), "driven_height": "driven",
                "heights": [{ "name": "driven", "offset": mm(self.driven) }] },
            "sheets": sheets,
            "bracket": { "bars": bars, "brackets": [
                { "name": "riser", "holes": [{ "name": "hole 1", "up": mm(self.riser), "outward": mm(self.outward) }] },
                { "name": "drop", "end": "frame", "holes": [{ "name": "hole 1", "up": mm(-self.drop) }] }] },
            "setups": { "found": { "bar": { "length": mm(self.length), "frame_eye_height": mm(600.0 + self.rise),
                "axle_eye_height": mm(600.0) }, "adjuster": adjuster },
                "plans": if self.bar == 5 { json!({}) } else { json!({ "chosen": plan }) } } })
    }

    fn job(&self) -> Job {
        let job = by_name::read(&self.document());
        assert_eq!(check(&job), []);
        job
    }
}

fn near(a: f64, b: f64) -> bool {
    (a - b).abs() < 1e-6
}

/// Every sentence of a result, in inches.
fn sentences(value: &Value, found: &mut Vec<String>) {
    match value {
        Value::Object(map) if map.len() == 2 && map.contains_key("in") && map.contains_key("mm") => {
            found.push(map["in"].as_str().unwrap_or_default().to_owned());
        }
        Value::Object(map) => map.values().for_each(|member| sentences(member, found)),
        Value::Array(items) => items.iter().for_each(|item| sentences(item, found)),
        _ => {}
    }
}

/// What the register holds of parts and geometry: work, proof and road aside.
fn of_parts_and_geometry(results: &Results) -> Vec<(FindingKind, String)> {
    let of_them = |kind| {
        matches!(
            kind,
            FindingKind::TravelEnds
                | FindingKind::ClearanceNotChecked
                | FindingKind::ThreadEngaged
                | FindingKind::LinksFail
                | FindingKind::DoesNotFit
        )
    };
    let found = results.findings.iter().filter(|found| of_them(found.kind));
    found.map(|found| (found.kind, found.says.millimetres())).collect()
}

fn one_length(all: &Everything) -> Result<(), TestCaseError> {
    let bar = all.results.bar.as_ref().unwrap();
    let chosen = all.plan.options.iter().find(|option| option.chosen);
    let wanted = bar.correction.as_ref().map_or(bar.found.length_mm, |correction| correction.length_mm);
    if let Some(option) = chosen {
        prop_assert!(near(option.length_mm.to_mm(), wanted.to_mm()), "{:?} {:?}", option.length_mm, wanted);
    }
    if let Some(plan) = &all.cycle.plan {
        prop_assert!(near(plan.bar_length_mm.unwrap().to_mm(), wanted.to_mm()));
    } else {
        prop_assert!(
            near(bar.found.length_mm.to_mm(), wanted.to_mm()),
            "nothing is cycled, so nothing changes"
        );
    }
    // At the driven height the plan stands where Bar says it leaves the axle.
    if let Some(correction) = &bar.correction {
        let driven = all.results.heights.iter().find(|height| height.driven).unwrap();
        prop_assert!(near(driven.planned.unwrap().offset_mm.to_mm(), correction.leaves_offset_mm.to_mm()));
    }
    Ok(())
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    #[test]
    fn one_length_in_every_stage(drawn in drawn()) {
        let all = everything(&drawn.job());
        prop_assume!(all.results.bar.is_some() && all.cycle.missing.is_empty());
        one_length(&all)?;
    }

    #[test]
    fn no_two_sentences_contradict_each_other(drawn in drawn()) {
        let all = everything(&drawn.job());
        prop_assume!(all.results.bar.is_some());
        let bar = all.results.bar.as_ref().unwrap();
        let mut said = Vec::new();
        sentences(&in_words(&all), &mut said);
        let says = |part: &str| said.iter().any(|sentence| sentence.contains(part));
        let needs = ["Bracket recommended", "Bracket optional", "No bracket needed for the angle"];
        prop_assert!(needs.iter().filter(|need| says(need)).count() <= 1, "{said:?}");
        if let Some(need) = &all.plan.need {
            prop_assert_eq!(&need.says, &bar.need.says);
        }
        prop_assert!(!says("shorten 0\"") && !says("lengthen 0\"") && !says("0\" shorter") && !says("0\" longer"));
        prop_assert!(!says("legal") && !says("nought"));
        if let Some(correction) = &bar.correction {
            let chosen = all.plan.options.iter().find(|option| option.chosen);
            if let Some(option) = chosen {
                // Whether it reaches is one verdict: Bar's, Bracket's, and that before welding.
                prop_assert_eq!(option.covered, correction.covered);
                let reach = all.plan.fit.iter().find(|check| check.name.inches().starts_with("bar adjusts")).unwrap();
                if correction.covered == Some(false) {
                    prop_assert!(!option.fails.is_empty());
                    prop_assert_eq!(reach.verdict, derecho_job::verdict::FitVerdict::Bad);
                } else {
                    prop_assert!(reach.verdict != derecho_job::verdict::FitVerdict::Bad);
                }
            }
            let reported = correction.setting.as_ref().and_then(|setting| setting.turns_say.as_ref());
            if correction.covered == Some(false) {
                prop_assert!(reported.is_none(), "turns that nothing can turn: {:?}", correction.says);
                let words = ["won't reach", "too long", "too short"];
                prop_assert!(words.iter().any(|word| correction.says.inches().contains(word)), "{}", correction.says.inches());
            } else {
                prop_assert!(!correction.says.inches().contains("won't reach"));
            }
            prop_assert!(bar.withheld.is_none());
        } else {
            prop_assert!(bar.withheld.is_some());
        }
    }

    #[test]
    fn fitting_exactly_the_plan_makes_it_the_plan(drawn in drawn()) {
        let mut job = drawn.job();
        let before = solve(&job);
        let planned = of_parts_and_geometry(&before);
        let Some(correction) = before.bar.and_then(|bar| bar.correction) else { return Ok(()) };
        prop_assume!(correction.covered != Some(false));
        job.setups.record(correction.fitting.clone());
        prop_assert_eq!(check(&job), []);
        // What the register says of the plan it says of the same parts fitted.
        prop_assert_eq!(of_parts_and_geometry(&solve(&job)), planned);
        let resolved = Resolved::of(&job);
        let setups = resolved.setups().unwrap();
        prop_assert!(near(setups.fitted.view.length().to_mm(), correction.length_mm.to_mm()));
        prop_assert!(!setups.plan.differs(&setups.fitted));
        prop_assert!(near(setups.fitted.view.rise().to_mm(), setups.plan.view.rise().to_mm()));
        // Centred, or within what counts as centred where the bar's own length was right.
        prop_assert!(near(setups.fitted.offset.to_mm(), correction.leaves_offset_mm.to_mm()));
        prop_assert!(setups.fitted.offset.abs() <= setups.tolerance);
        if job.sheets.is_empty() {
            return Ok(());
        }
        // Read again as it is foretold, it is proved and what is measured is what was predicted.
        let [left, right] = correction.predicted_readings_mm.unwrap();
        let mut after = job.sheets[0].clone();
        let entry = |length: derecho_core::measure::Length| {
            let text = format!("{:.6} mm", length.to_mm());
            vec![Some(derecho_core::measure::TapeEntry::parse(&text, derecho_core::measure::Unit::Millimetres).unwrap()); 4]
        };
        (after.id, after.after) = ("after".to_owned(), job.setups.last_round());
        (after.left, after.right) = (entry(left), entry(right));
        job.sheets.push(after);
        let results = solve(&job);
        let movement = results.prove.unwrap().movement.unwrap();
        prop_assert!(near(movement.predicted_mm.to_mm(), movement.measured_mm.to_mm()), "{movement:?}");
        prop_assert!(movement.agrees);
    }

    #[test]
    fn a_round_taken_back_leaves_no_trace_and_its_fields_have_no_order(drawn in drawn()) {
        let mut job = drawn.job();
        let before = solve(&job);
        let Some(correction) = before.bar.clone().and_then(|bar| bar.correction) else { return Ok(()) };
        let round = Round { note: "by hand".to_owned(), ..correction.fitting };
        job.setups.record(round.clone());
        let fitted = solve(&job);
        // The same fields typed the other way round.
        let Value::Object(fields) = in_words(&round) else { unreachable!() };
        let mut turned = job.clone();
        turned.setups.rounds.clear();
        turned.setups.record(serde_json::from_value(Value::Object(fields.into_iter().rev().collect())).unwrap());
        prop_assert_eq!(&solve(&turned), &fitted);
        job.setups.rounds.pop();
        prop_assert_eq!(solve(&job), before);
    }

    #[test]
    fn left_for_right_gives_the_mirror_image(drawn in drawn()) {
        let mirrored = Drawn { right: !drawn.right, ..drawn.clone() };
        let (here, there) = (everything(&drawn.job()), everything(&mirrored.job()));
        prop_assume!(here.results.bar.is_some());
        let (a, b) = (here.results.bar.unwrap(), there.results.bar.unwrap());
        prop_assert!(near(a.found_swing.at_full_droop_mm.to_mm(), -b.found_swing.at_full_droop_mm.to_mm()));
        prop_assert_eq!(&a.need, &b.need);
        prop_assert_eq!(a.correction.is_some(), b.correction.is_some());
        if let (Some(a), Some(b)) = (&a.correction, &b.correction) {
            prop_assert!(near(a.length_mm.to_mm(), b.length_mm.to_mm()));
            prop_assert!(near(a.basis.offset_mm.to_mm(), -b.basis.offset_mm.to_mm()));
            prop_assert_eq!(&a.says, &b.says);
            prop_assert_eq!(a.covered, b.covered);
        }
        let names = |all: &derecho_job::bracket::PlanResult| {
            all.options.iter().map(|o| (o.name.inches(), o.bar.inches(), o.fails.is_empty())).collect::<Vec<_>>()
        };
        prop_assert_eq!(names(&here.plan), names(&there.plan));
        for (a, b) in here.plan.options.iter().zip(&there.plan.options) {
            prop_assert!(near(a.length_mm.to_mm(), b.length_mm.to_mm()));
            prop_assert!(near(a.left_off_mm.to_mm(), -b.left_off_mm.to_mm()));
        }
    }
}
