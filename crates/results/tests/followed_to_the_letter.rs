//! What could hurt somebody who follows it to the letter: lengths, sides, orders, and the last word. Figures are worked
//! by hand; each test is of a job somebody carried through.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::sound as job;
use derecho_core::bar::adjuster::Verdict;
use derecho_core::measure::centring::Answer;
use derecho_job::Results;
use derecho_job::bolt_up::{StepLine, StepState, WorkResult};
use derecho_job::document::work::Stands;
use derecho_job::findings::FindingKind;
use derecho_job::prove::ProveVerdict;
use derecho_job::prove::look::LookKind;
use derecho_job::results::Everything;
use derecho_job::setups::BasisSource;
use derecho_job::verdict::FitVerdict;
use derecho_results::json::value as in_words;
use derecho_results::{cycle, everything, plan, settle, solve, sway, work};
use derecho_words::Spoken as _;
use serde_json::{Value, json};

#[allow(clippy::disallowed_methods, reason = "the rules read no files; a test reads the demo")]
fn demo(name: &str) -> Value {
    let path = format!("{}/../../demo/{name}.derecho.json", env!("CARGO_MANIFEST_DIR"));
    serde_json::from_str(&std::fs::read_to_string(path).unwrap()).unwrap()
}

fn solved(value: &Value) -> Results {
    solve(&job(value))
}

fn worked(value: &Value) -> WorkResult {
    work(&job(value))
}

fn step<'a>(work: &'a WorkResult, key: &str) -> &'a StepLine {
    work.steps.iter().find(|step| step.key == key).unwrap_or_else(|| panic!("no step {key}"))
}

fn place(work: &WorkResult, key: &str) -> usize {
    work.steps.iter().position(|step| step.key == key).unwrap_or_else(|| panic!("no step {key}"))
}

/// Four readings a side, frame to hub.
fn sheet(left: &str, right: &str, round: u32) -> Value {
    json!({ "id": format!("sheet {round}"), "unit": "mm", "round": round, "method": "frame_to_hub",
        "left": [left, left, left, left], "right": [right, right, right, right],
        "conditions": { "on_its_weight": true } })
}

/// A front on leaf springs, frame eye left, a level bar of 800 mm.
fn level() -> Value {
    json!({ "format": "derecho-job", "version": 7, "title": "Ladder truck 5",
        "rig": { "end": "front", "steering_side": "left", "frame_eye_side": "left", "sheet_unit": "mm",
            "axle_location": "leaf_springs", "bump": "75 mm", "droop": "100 mm" },
        "sheets": [sheet("150 mm", "150 mm", 0)],
        "setups": { "found": {
            "bar": { "length": "800 mm", "frame_eye_height": "600 mm", "axle_eye_height": "600 mm" } } } })
}

fn turnbuckle(engagement: &str) -> Value {
    let end = |hand: &str| json!({ "thread": "1-1/4-12", "hand": hand, "engagement": engagement });
    json!({ "kind": "turnbuckle", "first": end("right"), "second": end("left") })
}

/// Sides 11 7/8 and 11 1/4 as it stands, 5/16 off to the left; the gap of 27 5/8 was taken strapped to centre, shells of
/// 1 3/4: 27 5/8 + 1 3/4 is 29 3/8 eye to eye, in every stage. Stock of 1 1/4 in a shell of 1 3/4 sits
/// (1.75 − √(1.75² − 1.25²))/2 = 0.2626 deep at each end: cut 28.150, 28 5/32.
#[test]
fn a_built_bar_has_the_length_of_its_strapped_gap_in_every_stage() {
    let mut value = level();
    value["rig"]["sheet_unit"] = json!("in");
    value["sheets"] = json!([{ "id": "as it stands", "unit": "in", "round": 0, "method": "frame_to_hub",
        "left": ["11 7/8 in", "11 7/8 in", "11 7/8 in"], "right": ["11 1/4 in", "11 1/4 in", "11 1/4 in"],
        "conditions": { "on_its_weight": true } }]);
    value["setups"]["found"] = json!({ "bar": { "frame_eye_height": "24 in", "axle_eye_height": "21 in" } });
    value["bracket"]["builder"] = json!({ "gap": "27 5/8 in", "frame_shell": "1 3/4 in", "axle_shell": "1 3/4 in", "stock": "1 1/4 in" });
    let all = everything(&job(&value));
    let bar = all.results.bar.as_ref().unwrap();
    let eye_to_eye = 29.375;
    assert!(
        (bar.built.as_ref().unwrap().length.as_ref().unwrap().length().to_inches() - eye_to_eye).abs() < 1e-6
    );
    assert!(bar.correction.is_none(), "nothing is added to a strapped gap");
    let built = all.plan.builder.as_ref().unwrap();
    assert!((built.bar.length_mm.to_inches() - eye_to_eye).abs() < 1e-6);
    assert!(built.says.inches().contains("28 5/32\""), "{}", built.says.inches());
    for key in ["bar/cut", "bar/build"] {
        assert!(
            step(&all.work, key).does.inches().contains("29 3/8\""),
            "{}",
            step(&all.work, key).does.inches()
        );
    }
    let part = all.work.parts.iter().find(|part| part.key == "part/bar").unwrap();
    assert!(part.where_says.inches().contains("29 3/8\""), "{}", part.where_says.inches());
    // Hung and read again it is the readings of after that count.
    value["setups"]["rounds"] = json!([{ "length": "29 3/8 in" }]);
    value["sheets"].as_array_mut().unwrap().push(json!({ "id": "after", "unit": "in", "round": 1,
        "method": "frame_to_hub", "left": ["11 9/16 in", "11 9/16 in", "11 9/16 in"], "right": ["11 1/2 in", "11 1/2 in", "11 1/2 in"],
        "conditions": { "on_its_weight": true } }));
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::CanSettle);
}

/// No bar was there; the gap of 28 1/4 in between the holes as they are makes one of 30 in, 6 in up: it reaches √864 in. The
/// planned hole is 4 in higher, straight up: √(864 + 4) = 29.46 in between the eyes there. The gap is measured again
/// between the planned holes, 27 3/4 in, and the bar is 29 1/2 in everywhere: cut 27.75 + 2 · 0.2626 = 28.275, 28 9/32.
#[test]
fn a_gap_is_measured_again_where_the_plan_moves_an_eye_and_then_is_one_length_everywhere() {
    let mut value = level();
    value["rig"]["sheet_unit"] = json!("in");
    value["sheets"] = json!([]);
    value["setups"] = json!({ "found": { "bar": { "frame_eye_height": "24 in", "axle_eye_height": "18 in" } },
        "plans": { "chosen": { "axle": { "bracket": "riser", "hole": "4" } } } });
    value["bracket"] = json!({
        "builder": { "gap": "28 1/4 in", "frame_shell": "1 3/4 in", "axle_shell": "1 3/4 in", "stock": "1 1/4 in" },
        "brackets": [{ "name": "riser", "end": "axle", "attachment": "bolt_on",
            "holes": [{ "name": "4", "up": "4 in" }] }],
    });
    let all = everything(&job(&value));
    let length = |all: &Everything| {
        all.results.bar.as_ref().unwrap().correction.as_ref().unwrap().length_mm.to_inches()
    };
    assert!((length(&all) - 868.0_f64.sqrt()).abs() < 1e-6, "{}", length(&all));
    let built = all.plan.builder.as_ref().unwrap();
    assert!((built.bar.length_mm.to_inches() - 868.0_f64.sqrt()).abs() < 1e-6);
    assert!(built.says.inches().starts_with("The bar will be about 29 15/32\""), "{}", built.says.inches());
    assert!(built.remark.as_ref().unwrap().inches().starts_with("The gap was measured between other holes"));
    // A bar that isn't built yet reaches wherever it is wanted, and nothing is cut to the first gap.
    let next = all.results.status.next.as_ref().unwrap().says.inches();
    assert!(!next.contains("Find a bar"), "{next}");
    assert_eq!(step(&all.work, "bar/cut").state, StepState::Stopped);
    // No order of it holds a length that somebody could cut by, on a printed card either.
    let says = &all.results.bar.as_ref().unwrap().correction.as_ref().unwrap().says;
    let orders = [says, &step(&all.work, "bar/cut").does, &step(&all.work, "bar/build").does];
    assert!(orders.iter().all(|order| !order.inches().contains("29")), "{}", says.inches());
    let part = |all: &Everything| {
        all.work.parts.iter().find(|part| part.key == "part/bar").unwrap().where_says.inches()
    };
    assert!(!part(&all).contains("29"), "{}", part(&all));
    let [bracket, gap, cut] = ["axle/by-hand", "bar/gap", "bar/cut"].map(|key| place(&all.work, key));
    assert!(bracket < gap && gap < cut);

    value["bracket"]["builder"]["gap_in_new_holes"] = json!("27 3/4 in");
    let all = everything(&job(&value));
    assert!((length(&all) - 29.5).abs() < 1e-6, "{}", length(&all));
    let built = all.plan.builder.as_ref().unwrap();
    assert!((built.bar.length_mm.to_inches() - 29.5).abs() < 1e-6 && built.remark.is_none());
    assert!(built.says.inches().contains("28 9/32\""), "{}", built.says.inches());
    let bar = all.results.bar.as_ref().unwrap();
    assert!(bar.built.is_none(), "one length to record");
    assert!((bar.correction.as_ref().unwrap().fitting.wanted_mm.unwrap() - 29.5 * 25.4).abs() < 1e-6);
    for key in ["bar/cut", "bar/build"] {
        let does = step(&all.work, key).does.inches();
        assert!(does.contains("29 1/2\""), "{does}");
    }
    assert!(part(&all).contains("29 1/2\""), "{}", part(&all));
    let cut = step(&all.work, "bar/cut");
    assert_ne!(cut.state, StepState::Stopped);
    let how = cut.how.as_ref().unwrap().inches();
    assert!(how.contains("28 9/32\"") && how.contains("29 1/2\""), "{how}");
    let chosen = all.plan.options.iter().find(|option| option.chosen).unwrap();
    assert!((chosen.length_mm.to_inches() - 29.5).abs() < 1e-6 && chosen.fails.is_empty());

    // The first gap typed there again makes 30 in: both can't be so, and nothing is cut.
    value["bracket"]["builder"]["gap_in_new_holes"] = json!("28 1/4 in");
    let all = everything(&job(&value));
    let cut = step(&all.work, "bar/cut");
    assert_eq!(cut.state, StepState::Stopped);
    assert!(
        cut.minds[0].inches().starts_with("This gap makes a bar 9/16\" longer"),
        "{}",
        cut.minds[0].inches()
    );
}

/// Straps of 22 in where 22 1/2 in are between their bolts at full droop hold 1/2 in before the shocks; at 22 in or less they
/// would catch nothing, and where 22 in are there at the driven height the axle could not drop: neither is hung.
#[test]
fn limit_straps_that_catch_nothing_or_too_much_are_not_hung() {
    let with = |at_droop: &str, at_driven: &str| {
        let mut value = level();
        value["rig"]["straps"] = json!({ "length": "22 in", "at_droop": at_droop, "at_driven": at_driven });
        value["setups"]["plans"]["parts"] = json!(["straps"]);
        everything(&job(&value)).work
    };
    let good = with("22 1/2 in", "17 in");
    for key in ["straps/by-hand", "straps/tight", "straps/droop", "straps/slack"] {
        assert_ne!(step(&good, key).state, StepState::Stopped, "{key}");
    }
    let says = |work: &WorkResult, key: &str| step(work, key).how.as_ref().unwrap().inches();
    assert!(
        says(&good, "straps/droop").contains("1/2\" of shock travel left"),
        "{}",
        says(&good, "straps/droop")
    );
    assert!(says(&good, "straps/slack").contains("slack by 5\""), "{}", says(&good, "straps/slack"));
    assert!(place(&good, "straps/droop") < place(&good, "on-its-weight"));
    let part = good.parts.iter().find(|part| part.key == "part/straps").unwrap();
    assert!(part.where_says.inches().contains("22\""), "{}", part.where_says.inches());

    for (work, why) in [
        (with("21 1/4 in", "17 in"), "still slack at full droop, by 3/4\""),
        (with("22 in", "17 in"), "only go tight where the shocks end"),
        (with("25 in", "23 in"), "too short by 1\" at the driven height"),
    ] {
        let hung = step(&work, "straps/by-hand");
        assert_eq!(hung.state, StepState::Stopped);
        assert!(hung.minds[0].inches().contains(why), "{}", hung.minds[0].inches());
    }
}

/// Built, hung and read again: there was no bar before, so nothing was predicted of how far the axle comes over, and it is
/// proved by where it stands. 1/4 in to the left as it stood, centred now.
#[test]
fn a_built_bar_is_proved_by_where_the_axle_stands() {
    let mut value = level();
    value["sheets"] = json!([sheet("156 mm", "144 mm", 0), sheet("150 mm", "150 mm", 1)]);
    value["setups"] = json!({ "found": { "bar": { "frame_eye_height": "600 mm", "axle_eye_height": "580 mm" } },
        "rounds": [{ "length": "745 mm" }] });
    value["bracket"]["builder"] =
        json!({ "gap": "700 mm", "frame_shell": "45 mm", "axle_shell": "45 mm", "stock": "32 mm" });
    let results = solved(&value);
    let prove = results.prove.unwrap();
    assert_eq!(prove.verdict, ProveVerdict::CanSettle);
    assert!(prove.movement.is_none(), "{:?}", prove.movement);
    assert!(results.findings.iter().all(|gate| gate.kind != FindingKind::MovedOtherwise));
    // Nobody set it to a length, and the log doesn't say so.
    let log = derecho_results::log(&job(&value));
    let says = |text: &str| log.iter().any(|entry| entry.says.millimetres.contains(text));
    assert!(says("ar built, 745 mm eye to eye") && !says("bar set to"), "{log:?}");
}

/// Set to 893.2 mm, and typed as the tape shows it, 893: the step that was ticked still reads as it did.
#[test]
fn a_length_typed_to_the_graduation_changes_no_ticked_step() {
    let mut value = level();
    value["sheets"] = json!([sheet("157.5 mm", "143 mm", 0)]);
    value["setups"]["found"] = json!({ "bar": { "length": "900 mm", "frame_eye_height": "640 mm", "axle_eye_height": "570 mm" },
        "adjuster": turnbuckle("50 mm") });
    let does = |value: &Value| step(&worked(value), "bar/turn").does.millimetres().clone();
    let before = does(&value);
    let mut round = in_words(solved(&value).bar.unwrap().correction.unwrap().fitting);
    let wanted = round["wanted_mm"].as_f64().unwrap();
    assert!((wanted - wanted.round()).abs() > 0.05, "{wanted} is no whole millimetre");
    round["length"] = json!(format!("{:.0} mm", wanted));
    value["setups"]["rounds"] = json!([round]);
    assert_eq!(does(&value), before);
}

/// Arms are as long as their ends are apart with the axle where it stood, 12.7 mm to the left: there it stands square and
/// in its place. Taken as if it had stood centred, the left arm comes out by 12.7 · 50/900 = 0.7 mm shorter and the right one
/// as much longer, a tenth of a degree over 760 mm.
#[test]
fn arms_are_as_long_as_they_were_where_the_axle_stood() {
    for name in ["lookout-truck-7", "lookout-truck-4"] {
        let mut value = demo(name);
        value["setups"].as_object_mut().unwrap().remove("plans");
        value["rig"]["driven_height"] = json!("");
        value["hardpoints"].as_object_mut().unwrap().remove("height");
        value["sheets"] = json!([sheet("162.7 mm", "137.3 mm", 0)]);
        let cycled = cycle(&job(&value));
        let heave = &cycled.found.as_ref().unwrap().heave;
        let ride =
            heave.iter().min_by(|a, b| a.left_mm.abs().partial_cmp(&b.left_mm.abs()).unwrap()).unwrap();
        assert!((ride.y_mm.to_mm() - 12.7).abs() < 0.5, "{name}: {}", ride.y_mm.to_mm());
        assert!(ride.yaw_deg.to_degrees().abs() < 0.005, "{name}: {}", ride.yaw_deg.to_degrees());
        assert!(ride.x_mm.to_mm().abs() < 0.3, "{name}: {}", ride.x_mm.to_mm());
    }
}

/// Battery off before the first arc, on after the last, also where nothing but the bar is welded, and it is not proved
/// before it is built, however centred the strapped axle reads.
#[test]
fn a_built_bar_is_welded_with_the_battery_off_and_not_proved_before_it_is_built() {
    let mut value = level();
    value["setups"]["found"] =
        json!({ "bar": { "frame_eye_height": "600 mm", "axle_eye_height": "580 mm" } });
    value["bracket"]["builder"] =
        json!({ "gap": "700 mm", "frame_shell": "45 mm", "axle_shell": "45 mm", "stock": "32 mm" });
    let work = worked(&value);
    let order =
        ["mock-up", "battery/off", "bar/tack", "bar/build", "battery/on"].map(|key| place(&work, key));
    assert!(order.is_sorted(), "{order:?}");
    assert_eq!(step(&work, "bar/tack").stands, Some(Stands::OnItsWeight));
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::PlanNotFitted);
}

/// At 93 mm of droop the old bar holds nothing any more. A side is told only where both ends of what may be agree.
#[test]
fn a_side_at_full_droop_is_reported_only_where_it_is_sure() {
    let mut value = level();
    value["setups"]["found"]["bar"] =
        json!({ "length": "838 mm", "frame_eye_height": "735 mm", "axle_eye_height": "530 mm" });
    value["setups"]["found"]["adjuster"] = json!({ "kind": "fixed" });
    value["bracket"]["bars"] = json!([{ "name": "new bar", "adjuster": "one_end", "thread": "1-1/4-12",
        "made_min": "800 mm", "made_max": "900 mm", "shank": "80 mm", "tapped_depth": "80 mm" }]);
    value["setups"]["plans"]["chosen"] = json!({ "bar": "new bar" });
    let how = |value: &Value| step(&worked(value), "bar/axle-eye-by-hand").how.clone().unwrap().millimetres();
    // Read 11 mm to the left. Reach 812.5, 823.5 to centre it; the new bar is 848.7 long. At 100 mm of droop v is 305:
    // the old one reaches √(838² − 305²) = 780.5, the new one √(848.7² − 305²) = 792.0. Held by the old bar the axle is
    // 812.5 − 780.5 = 32.0 further left than it stood and has to come 11 and a bit to the right; where it stood it has to
    // come 32 less that to the left.
    value["sheets"] = json!([sheet("161 mm", "139 mm", 0)]);
    let both = how(&value);
    assert!(
        both.contains("Surest on its wheels") && both.find("Surest") < both.find("At full droop"),
        "{both}"
    );
    assert!(
        both.contains("look first")
            && both.contains("to the right or")
            && both.contains("to the left (driver's)."),
        "{both}"
    );
    // A level bar moves hardly at all at droop: both agree, and the side is told.
    value["setups"]["found"]["bar"] =
        json!({ "length": "838 mm", "frame_eye_height": "600 mm", "axle_eye_height": "650 mm" });
    let sure = how(&value);
    assert!(!sure.contains("look first") && sure.contains("at full droop"), "{sure}");
}

/// A riser whose hole is where the eye is, welded on: bare, tack, weld, although the eye does not move; fitted and
/// recorded it is done.
#[test]
fn a_bracket_in_the_old_ones_place_has_its_steps() {
    let mut value = level();
    value["setups"]["found"]["adjuster"] = turnbuckle("50 mm");
    value["bracket"]["brackets"] = json!([{ "name": "stronger bracket", "end": "axle", "attachment": "weld_on",
        "comes_off_first": "the old bracket", "holes": [{ "name": "hole 1", "up": "0 mm" }] }]);
    value["setups"]["plans"]["chosen"] =
        json!({ "axle": { "bracket": "stronger bracket", "hole": "hole 1" } });
    let first = worked(&value);
    let order = [
        "bar/eye-off",
        "off/axle",
        "axle/bare",
        "axle/tack",
        "axle/weld",
        "axle/coat",
        "bar/axle-eye-by-hand",
    ]
    .map(|key| place(&first, key));
    assert!(order.is_sorted(), "{order:?}");
    let results = solved(&value);
    assert_eq!(results.prove.unwrap().verdict, ProveVerdict::PlanNotFitted);
    let fitting = results.bar.unwrap().correction.unwrap().fitting;
    assert_eq!(fitting.moved.len(), 1);
    value["setups"]["rounds"] = json!([fitting]);
    value["sheets"].as_array_mut().unwrap().push(sheet("150 mm", "150 mm", 1));
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::CanSettle);
    assert_eq!(worked(&value).steps.len(), first.steps.len(), "what was done stays in the plan of work");
}

/// Links unequal on purpose stay so in every step and check: 250 mm with the left (driver's) one 6 mm longer is 253 and 247.
#[test]
fn links_made_unequal_on_purpose_are_not_set_alike() {
    let mut value = demo("lookout-truck-7");
    value["sway"]["left_longer"] = json!("6 mm");
    value["sway"]["preload_wanted"] = json!(true);
    value["setups"]["plans"]["sway"] = json!({ "link": "250 mm" });
    let work = worked(&value);
    let set = &step(&work, "sway/links-set").does.millimetres();
    assert!(set.contains("left sway link to 253 mm") && set.contains("right sway link to 247 mm"), "{set}");
    let read = &step(&work, "sway/links-read").does.millimetres();
    assert!(read.contains("left (driver's) one 6 mm longer"), "{read}");
    value["proof"]["looked_at"] = json!({ "left_link": "253 mm", "right_link": "247 mm" });
    let compared = solved(&value).settling.compared;
    assert!(compared.iter().all(|check| check.verdict == FitVerdict::Good), "{compared:?}");
    value["sway"]["preload_wanted"] = json!(false);
    assert!(step(&worked(&value), "sway/links-set").does.millimetres().contains("both sway links to 250 mm"));
}

/// A castle nut at the bar's eye is pinned; a bolt through a control arm bushing, too, is tightened on the weight.
#[test]
fn castle_nuts_are_pinned_and_shared_bolts_wait_for_the_weight() {
    let mut value = demo("tower-truck-8");
    value["bracket"]["bolt"] = json!({ "thread": "9/16-18", "nut": "castle" });
    value["bolt_up"]["fasteners"] = json!([{ "key": "frame/side", "through_bushing": true }]);
    let work = worked(&value);
    for end in ["frame", "axle"] {
        assert!(place(&work, &format!("bar/{end}-eye")) < place(&work, &format!("bar/{end}-eye-pin")));
    }
    let shared = step(&work, "frame/side");
    assert_eq!(shared.stands, Some(Stands::OnItsWeight));
    assert!(shared.how.as_ref().unwrap().inches().contains("through a control arm bushing"));
    assert!(place(&work, "on-its-weight") < place(&work, "frame/side"));
    assert_eq!(step(&work, "frame/main").stands, None);
}

/// A drag-link part that was fitted stays fitted: what bar and link come to is what the plan said before.
#[test]
fn a_fitted_drag_link_part_is_not_forgotten() {
    let mut value = demo("lookout-truck-7");
    let part = value["bracket"]["drag_links"][0]["name"].clone();
    value["setups"]["plans"] = json!({ "chosen": { "drag_link": part } });
    let steered = |value: &Value| {
        let cycle = cycle(&job(value));
        (cycle.found.unwrap().steering.unwrap(), cycle.plan.map(|plan| plan.steering.unwrap()))
    };
    let (before, planned) = steered(&value);
    let planned = planned.unwrap();
    let difference =
        |steering: &derecho_job::cycle::SteeringResult| steering.angle_difference_deg.unwrap().to_degrees();
    assert!((difference(&before) - difference(&planned)).abs() > 1.0, "the part changes the link's angle");
    // Its turns are a step, with what the sleeve is turned by, and clamps that are made tight.
    let work = worked(&value);
    assert!(place(&work, "read-again") < place(&work, "drag-link/turn"));
    assert!(step(&work, "drag-link/turn").how.as_ref().unwrap().inches().contains("the drag link"));
    assert_eq!(step(&work, "drag-link/clamps").tightens, ["drag-link/clamps"]);
    // Fitted, set and read centred.
    let fitting = solved(&value).bar.unwrap().correction.unwrap().fitting;
    value["setups"]["rounds"] = json!([fitting]);
    value["sheets"].as_array_mut().unwrap().push(sheet("150 mm", "150 mm", 1));
    let (after, _) = steered(&value);
    assert!(
        (difference(&after) - difference(&planned)).abs() < 0.1,
        "{} {}",
        difference(&after),
        difference(&planned)
    );
    let needs =
        plan(&job(&value)).options.into_iter().find(|option| option.chosen || option.end.is_none()).unwrap();
    assert!((needs.drag_link_difference_deg.unwrap().to_degrees() - difference(&planned)).abs() < 0.2);
}

/// The axle comes 3/8 in over and takes the drag link's far end with it. Set and read again, nobody has turned the sleeve
/// yet: what is to be turned is the same figure in the step and where the wheel is looked at.
#[test]
fn the_drag_link_is_still_to_be_turned_once_the_axle_is_set() {
    let mut value = demo("tower-truck-8");
    let turn = |value: &Value| step(&worked(value), "drag-link/turn").how.clone().unwrap().inches();
    let before = turn(&value);
    assert!(before.contains("Make the drag link 3/8\" longer"), "{before}");
    let fitting = solved(&value).bar.unwrap().correction.unwrap().fitting;
    let mut round = in_words(fitting);
    round["length"] = json!("31 7/8 in");
    value["setups"]["rounds"] = json!([round]);
    let six = json!(["6 in", "6 in", "6 in", "6 in"]);
    value["sheets"]
        .as_array_mut()
        .unwrap()
        .push(json!({ "id": "after", "unit": "in", "round": 1, "method": "frame_to_hub",
        "left": six, "right": six, "conditions": { "on_its_weight": true } }));
    assert_eq!(turn(&value), before);
    let settling = solved(&value).settling;
    let look = settling.looks.iter().find(|look| look.kind == LookKind::WheelStraight).unwrap();
    assert_eq!(look.says.as_ref().unwrap().inches(), before);
}

/// Whatever somebody called what stands in the way, a reason can be written for it, is kept, and opens the way for that
/// one thing alone.
#[test]
fn a_reason_can_be_written_for_what_has_a_long_name() {
    let mut value = level();
    let long = "the bracket of the steering damper with both of its bolts and the spacer behind it, as it came from the depot, left".to_owned();
    assert!(long.len() > 110 && long.len() <= 120, "{}", long.len());
    value["bolt_up"] = json!({ "parts": [{ "key": "own/1", "name": long, "state": "missing" }] });
    value["complaints"] = json!([{ "text": format!("{long}\n").repeat(30) }]);
    let gates = solved(&value).findings;
    let reasons: Vec<Value> = gates
        .iter()
        .map(|gate| json!({ "key": gate.key, "said": gate.says.inches(), "because": "the depot keeps it" }))
        .collect();
    assert!(reasons.len() >= 2);
    value["proof"] = json!({ "acceptances": reasons });
    let findings = solved(&value).findings;
    assert!(
        findings.iter().all(|found| found
            .accepted
            .as_ref()
            .is_some_and(|accepted| accepted.because == "the depot keeps it")),
        "{findings:?}"
    );
    // A second complaint of the same beginning wants its own.
    value["complaints"].as_array_mut().unwrap().push(json!({ "text": "Wanders" }));
    assert!(!solved(&value).settling.may);
}

/// A rear axle has no steering wheel: no step, no look, no advice speaks of one.
#[test]
fn a_rear_axle_has_nothing_to_steer() {
    let mut value = demo("tower-truck-8");
    value["rig"]["end"] = json!("rear");
    value["hardpoints"].as_object_mut().unwrap().remove("steering");
    value["bracket"]["drag_links"] = json!([]);
    value["complaints"] =
        json!([{ "text": "it wanders", "about": "wander" }, { "text": "clunks", "about": "clunk" }]);
    let all = everything(&job(&value));
    let text = in_words((&all.work, &all.results.cautions, &all.results.complaints)).to_string();
    for word in ["steering wheel", "drag link", "Wheels straight", "wheels straight"] {
        assert!(!text.contains(word), "{word} in {text}");
    }
    let looks: Vec<LookKind> = all.results.settling.looks.iter().map(|look| look.kind).collect();
    assert!(!looks.contains(&LookKind::WheelStraight) && !looks.contains(&LookKind::Toe));
}

/// Where nothing was measured nothing is called clear, and nothing is where the sway bar is held against nothing.
#[test]
fn what_was_not_measured_is_not_called_clear() {
    let mut value = level();
    value["setups"]["found"]["adjuster"] = turnbuckle("50 mm");
    let said = cycle(&job(&value)).says.inches();
    assert!(said.contains("clearance is not checked"), "{said}");
    value["hardpoints"]["obstacles"] = json!([{ "name": "brace", "on": "body", "side": "left",
        "from": { "height": "1200 mm", "sideways": "0 mm", "fore_aft": "0 mm" },
        "to": { "height": "1200 mm", "sideways": "100 mm", "fore_aft": "0 mm" }, "thickness": "20 mm" }]);
    value["sway"] = json!({ "kind": "one_piece" });
    let said = cycle(&job(&value)).says.inches();
    assert!(said.contains("clear of the one obstacle measured"), "{said}");
    assert!(said.contains("Not checked: the sway bar"), "{said}");
    value["to_do"] = json!(["clear_something"]);
    value["hardpoints"]["obstacles"] = json!([]);
    let grounds = solved(&value).prove.unwrap().grounds;
    assert!(grounds.iter().any(|ground| ground.verdict == FitVerdict::Open), "{grounds:?}");
}

/// Everything that stands in the way of the last word, and that each has to have a reason of its own.
#[test]
fn a_job_is_not_settled_over_a_failure() {
    let ready = demo("supply-truck-9");
    let at = "2026-11-26T08:00:00Z".parse().unwrap();
    assert!(settle(&job(&ready), at).is_some());
    let mark = json!({ "at": "2026-11-25T15:00:00Z" });
    type Failing<'a> = (FindingKind, &'a dyn Fn(&mut Value));
    let rows: [Failing<'_>; 9] = [
        (FindingKind::ComplaintAgain, &|value| value["complaints"][0]["after"] = json!("worse")),
        (FindingKind::RoadStopped, &|value| {
            value["proof"]["road"] =
                json!([{ "step": "swerve", "result": "stopped", "note": "rocks five times" }]);
        }),
        (FindingKind::PartWrong, &|value| {
            value["bolt_up"]["parts"] = json!([{ "key": "own/1", "name": "jam nut", "state": "wrong" }]);
        }),
        (FindingKind::TorqueOther, &|value| {
            value["bolt_up"]["fasteners"][0]["torque"] = json!("110 lb-ft");
            value["bolt_up"]["fasteners"][0]["tight"] = json!({ "torque": "40 lb-ft", "done": mark });
        }),
        (FindingKind::TorqueFromMemory, &|value| {
            value["bolt_up"]["fasteners"][0]["torque"] = json!("110 lb-ft");
            value["bolt_up"]["fasteners"][0]["source"] = json!("from_memory");
            value["bolt_up"]["fasteners"][0]["tight"] = json!({ "torque": "110 lb-ft", "done": mark });
        }),
        (FindingKind::DoesNotFit, &|value| {
            value["bolt_up"]["fasteners"][0]["thread"] = json!("1/2-20");
            value["bolt_up"]["fasteners"][0]["hole"] = json!("5/8 in");
        }),
        (FindingKind::StepsOpen, &|value| {
            value["bolt_up"]["steps"].as_array_mut().unwrap().pop();
        }),
        (FindingKind::NotLookedAt, &|value| {
            value["proof"]["looked_at"].as_object_mut().unwrap().remove("lines");
        }),
        (FindingKind::NotAsPlanned, &|value| {
            value["sheets"].as_array_mut().unwrap().push(json!({ "id": "ends", "kind": "stick_out", "unit": "in",
                "left": ["3 1/4 in", "3 1/4 in", "3 1/4 in"], "right": ["2 3/4 in", "2 3/4 in", "2 3/4 in"], "round": 1 }));
        }),
    ];
    for (kind, spoil) in rows {
        let mut value = ready.clone();
        spoil(&mut value);
        let gates = solved(&value).findings;
        assert_eq!(gates.iter().map(|gate| gate.kind).collect::<Vec<_>>(), [kind]);
        assert!(settle(&job(&value), at).is_none(), "{kind:?}");
        value["proof"]["acceptances"] = json!([{ "key": "something else", "because": "no time" }]);
        assert!(settle(&job(&value), at).is_none(), "{kind:?} over another's reason");
        value["proof"]["acceptances"] = json!([{ "key": gates[0].key, "because": "agreed with the owner" }]);
        assert!(settle(&job(&value), at).is_some(), "{kind:?} with its reason");
    }
    // A nut of another thread holds nothing: no reason closes a job over that.
    let mut value = ready;
    value["bolt_up"]["fasteners"][0]["thread"] = json!("1/2-20");
    value["bolt_up"]["fasteners"][0]["nut_thread"] = json!("1/2-13");
    let found = solved(&value).findings;
    value["proof"]["acceptances"] = json!([{ "key": found[0].key, "because": "agreed with the owner" }]);
    assert!(settle(&job(&value), at).is_none());
}

/// 766 of 700 MPa: a sway bar twisted past its steel is told before the last word. With its allowable a hundredth of
/// what it is under the same bar is past it.
#[test]
fn a_sway_bar_past_what_its_steel_takes_keeps_the_job_open() {
    let mut value = demo("supply-truck-9");
    value["sway"] = demo("lookout-truck-7")["sway"].clone();
    value["sway"]["on"] = json!("body");
    value["sway"]["diameter"] = json!("32 mm");
    let reported = |value: &Value| {
        let gates = solved(value).findings;
        gates.iter().any(|gate| gate.kind == FindingKind::Overstressed)
    };
    value["sway"]["allowable_mpa"] = json!(2000.0);
    assert!(!reported(&value));
    value["sway"]["allowable_mpa"] = json!(1.0);
    assert!(reported(&value));
}

/// A bar to be brought nearer to level, its bracket urged and neither fitted nor declined, is not proved; the length
/// alone, chosen, declines it.
#[test]
fn an_recommended_bracket_is_fitted_or_declined_before_anything_is_proved() {
    let mut value = level();
    // 20° and more: a bracket is urged.
    value["setups"]["found"]["bar"]["axle_eye_height"] = json!("300 mm");
    value["setups"]["found"]["adjuster"] = turnbuckle("50 mm");
    value["to_do"] = json!(["level_bar"]);
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::NotDecided);
    value["setups"]["plans"]["chosen"] = json!({});
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::CanSettle);
    // "Proved" is said of no job on which nothing was fitted.
    assert!(solved(&value).prove.unwrap().says.inches().contains("nothing had to be set"));
}

/// Something touches with the length alone and a hole is on offer: nobody is told to turn anything first.
#[test]
fn the_choice_comes_before_a_length_that_leads_into_something() {
    let value = demo("lookout-truck-7");
    let all = everything(&job(&value));
    let correction = all.results.bar.as_ref().unwrap().correction.as_ref().unwrap();
    assert!(correction.decide_first);
    assert!(all.results.headline.inches().contains("hole or length?"), "{}", all.results.headline.inches());
    assert!(all.work.says.inches().contains("Choose"), "{}", all.work.says.inches());
    assert!(all.work.next.is_none());
    assert!(all.work.steps.iter().all(|step| step.state == StepState::Stopped));
    let mut decided = value;
    decided["setups"]["plans"]["chosen"] = json!({});
    let work = worked(&decided);
    assert!(work.next.is_some() && work.steps.iter().any(|step| step.state == StepState::Ready));
}

/// A sleeve is turned so that the bar gets longer or shorter; "out" of a sleeve with two hands means nothing.
#[test]
fn turns_are_longer_or_shorter() {
    for (left, right, way) in [("160 mm", "140 mm", "longer"), ("140 mm", "160 mm", "shorter")] {
        let mut value = level();
        value["setups"]["found"]["adjuster"] = turnbuckle("60 mm");
        value["sheets"] = json!([sheet(left, right, 0)]);
        let setting = solved(&value).bar.unwrap().correction.unwrap().setting.unwrap();
        let turns = setting.turns_say.unwrap().inches();
        assert!(turns.ends_with(way), "{turns}");
    }
}

/// Bars of 0.85 in, 7/8 in and 0.9 in go by three names.
#[test]
fn three_bars_have_three_names() {
    let mut value = demo("lookout-truck-7");
    value["sway"]["kind"] = json!("splined");
    value["rig"]["frame_width"] = json!("32 in");
    let bar = |diameter: &str| json!({ "length": "36 in", "diameter": diameter });
    value["sway"]["splined"] = json!({ "bars": [bar("0.85 in"), bar("7/8 in"), bar("0.9 in")] });
    let reported = sway(&job(&value)).splined.unwrap();
    let text = in_words(&reported).to_string();
    for name in ["0.85 in", "7/8\\\"", "0.90 in"] {
        assert!(text.contains(name), "{name} in {text}");
    }
}

/// A level bar takes an offset one for one: 1.2 to 1.8 mm off is proved or corrected, never sent back and forth.
#[test]
fn no_offset_is_a_dead_end() {
    for tenths in 0..40 {
        let off = f64::from(tenths) / 10.0;
        let mut value = level();
        value["setups"]["found"]["adjuster"] = turnbuckle("60 mm");
        value["setups"]["rounds"] = json!([{ "length": "800 mm", "wanted_mm": 800.0 }]);
        value["sheets"] = json!([
            sheet("150 mm", "150 mm", 0),
            sheet(&format!("{} mm", 150.0 + off), &format!("{} mm", 150.0 - off), 1),
        ]);
        let results = solved(&value);
        let proof = results.prove.unwrap();
        let bar = results.bar.unwrap();
        match proof.verdict {
            ProveVerdict::CanSettle => {}
            // Sent back, stage Bar has a length to set.
            ProveVerdict::BackToBar => {
                let setting = bar.correction.unwrap().setting.unwrap();
                assert_eq!(setting.facts.verdict, Verdict::Fits, "{off}");
                assert!(setting.facts.turns.unwrap() + setting.facts.flats.unwrap() > 0, "{off}");
            }
            // Read again only where that can answer.
            ProveVerdict::ReadAgain => assert!(proof.after.unwrap().repeats_can_tell, "{off}"),
            other => panic!("{off}: {other:?}"),
        }
    }
}

/// A sidewall is good to 1.5 mm however often it is read. What it cannot prove is said, with what could.
#[test]
fn a_sidewall_is_not_asked_for_more_repeats_for_ever() {
    let mut value = level();
    value["setups"]["found"]["adjuster"] = turnbuckle("60 mm");
    let mut read = sheet("151 mm", "149 mm", 1);
    read["method"] = json!("frame_to_sidewall");
    value["setups"]["rounds"] = json!([{ "length": "800 mm", "wanted_mm": 800.0 }]);
    value["sheets"] = json!([read]);
    let proof = solved(&value).prove.unwrap();
    assert_eq!(proof.after.as_ref().unwrap().answer, Answer::CannotTell);
    assert!(!proof.after.as_ref().unwrap().repeats_can_tell);
    let advice = proof.advice.millimetres();
    assert!(advice.contains("Measure frame to hub, or set 4 mm as"), "{advice}");
    // 1 mm off, good to u = √(1.5² + (1² + 1/12)/4/2 …) = 1.54: proved to |e| + 1.645 u, 3.6 mm; 4 mm as counts as centred.
    assert!(advice.contains("you can prove 4 mm"), "{advice}");
    value["rig"]["tolerance"] = json!("4 mm");
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::CanSettle);
}

/// A fixed bar that lands where its plan said is as planned, though its readings alone prove nothing.
#[test]
fn a_fixed_bar_that_lands_as_planned_is_as_planned() {
    let mut value = level();
    value["setups"]["found"]["adjuster"] = json!({ "kind": "fixed" });
    value["bracket"]["bars"] =
        json!([{ "name": "fixed bar", "adjuster": "fixed", "made_min": "812.5 mm", "made_max": "812.5 mm" }]);
    value["sheets"] = json!([sheet("165 mm", "135 mm", 0)]);
    value["setups"]["plans"]["chosen"] = json!({ "bar": "fixed bar" });
    // 15 mm wanted, 12.5 had: 2.5 mm are left.
    let correction = solved(&value).bar.unwrap().correction.unwrap();
    assert!((correction.leaves_offset_mm.to_mm() - 2.5).abs() < 1e-6);
    value["setups"]["rounds"] = json!([correction.fitting]);
    value["sheets"].as_array_mut().unwrap().push(sheet("152.5 mm", "147.5 mm", 1));
    let proof = solved(&value).prove.unwrap();
    assert_eq!(proof.verdict, ProveVerdict::CanSettle, "{proof:?}");
    assert!(
        proof.says.millimetres().starts_with("As planned: 2.5 mm to the left"),
        "{}",
        proof.says.millimetres()
    );
    // One that lands elsewhere is not.
    value["sheets"][1] = sheet("157 mm", "143 mm", 1);
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::BackToBar);
}

/// 15.9 mm predicted, 14.3 measured by a bar hung new: both lengths were measured, ±1.5 mm each, and that is part of
/// what the prediction is good to, √(0.75² + 0.75²) = 1.06. Four readings a side with the usual spread of 1 mm and marks of
/// 1 mm: s² = 6/12, u² = ½ (0.5/4 + 1/12) = 0.104 for each sheet. U = 2 √(1.125 + 0.208) = 2.31.
#[test]
fn a_right_setting_is_not_called_wrong() {
    let mut value = level();
    value["setups"]["found"]["adjuster"] = json!({ "kind": "fixed" });
    value["bracket"]["bars"] = json!([{ "name": "new bar", "adjuster": "turnbuckle", "thread": "1-1/4-12", "hand": "right",
        "second_hand": "left", "made_min": "790 mm", "made_max": "900 mm", "shank": "80 mm", "tapped_depth": "80 mm" }]);
    value["sheets"] = json!([sheet("165.9 mm", "134.1 mm", 0)]);
    value["setups"]["plans"]["chosen"] = json!({ "bar": "new bar" });
    value["setups"]["rounds"] = json!([solved(&value).bar.unwrap().correction.unwrap().fitting]);
    value["sheets"].as_array_mut().unwrap().push(sheet("151.6 mm", "148.4 mm", 1));
    let movement = solved(&value).prove.unwrap().movement.unwrap();
    assert!((movement.measured_mm - movement.predicted_mm).to_mm().abs() > 1.5);
    assert!((movement.prediction_uncertainty_mm.to_mm() - 1.06).abs() < 0.02, "{movement:?}");
    assert!((movement.uncertainty_mm.to_mm() - 2.31).abs() < 0.01, "{movement:?}");
    assert!(movement.agrees, "{movement:?}");
}

/// A 1-1/4-12 turnbuckle with 28 mm in where 31.75 must stay is 3.75 mm short at each end, as it is; 2.6 mm more make it
/// 5.05. No tolerance of length excuses that.
#[test]
fn too_little_thread_is_reported_as_too_little() {
    let mut value = level();
    value["setups"]["found"]["adjuster"] = turnbuckle("28 mm");
    value["sheets"] = json!([sheet("152.6 mm", "147.4 mm", 0)]);
    let setting = solved(&value).bar.unwrap().correction.unwrap().setting.unwrap();
    assert_eq!(setting.facts.verdict, Verdict::TooLittleThread);
    let says = setting.says.millimetres();
    assert!(
        says.contains("Too little thread is engaged as it is: 28 mm, and each end needs 31.8 mm"),
        "{says}"
    );
    assert!(!says.contains("to spare"), "{says}");
}

/// A level bar of 800 mm with 38.1 mm in at each end, the axle 15 mm off: wanted 815, and at 800 + 2 · 6.35 = 812.7 the
/// thread ends, 2.3 mm short. That cannot be proved to be within 3 mm, so it does not fit; 1 mm short can, and is told.
#[test]
fn a_bar_whose_thread_ends_says_so() {
    let mut value = level();
    value["setups"]["found"]["adjuster"] = turnbuckle("38.1 mm");
    value["sheets"] = json!([sheet("165 mm", "135 mm", 0)]);
    let far = solved(&value).bar.unwrap().correction.unwrap();
    assert_eq!(far.setting.as_ref().unwrap().facts.verdict, Verdict::TooLittleThread);
    assert_eq!(far.covered, Some(false));
    assert!(far.setting.unwrap().says.millimetres().contains("only reaches 812.7 mm"));
    // 13.7 mm wanted: it ends 1 mm short. What is left is in the answer, in the readings and in the proof.
    value["sheets"] = json!([sheet("163.7 mm", "136.3 mm", 0)]);
    let near = solved(&value).bar.unwrap().correction.unwrap();
    assert!((near.length_mm.to_mm() - 812.7).abs() < 1e-6);
    assert!((near.leaves_offset_mm.to_mm() - 1.0).abs() < 0.01);
    let setting = near.setting.as_ref().unwrap();
    assert_eq!(setting.facts.verdict, Verdict::Fits);
    assert!(
        setting.says.millimetres().contains("as far as the thread goes"),
        "{}",
        setting.says.millimetres()
    );
    let [left, right] = near.predicted_readings_mm.unwrap();
    assert!(((left - right).to_mm() - 2.0).abs() < 0.02);
    value["setups"]["rounds"] = json!([near.fitting]);
    value["sheets"].as_array_mut().unwrap().push(sheet("151 mm", "149 mm", 1));
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::CanSettle);
}

/// A brace 10 mm below the rail of a bracket whose eye hangs 145 mm below: (3 · 145 − 10)/20 is 21 times the load.
#[test]
fn a_brace_near_the_root_is_no_good_brace() {
    let mut value = demo("tower-truck-8");
    let verdict = |value: &Value| {
        plan(&job(value)).fit.into_iter().find(|check| check.name.inches().contains("brace")).unwrap()
    };
    value["bracket"]["brace"] = json!({ "name": "brace", "below_rail": "10 mm" });
    let near = verdict(&value);
    assert_eq!(near.verdict, FitVerdict::Bad, "{}", near.says.inches());
    assert!(near.says.inches().contains("times the bar load"), "{}", near.says.inches());
    value["bracket"]["brace"]["below_rail"] = json!("110 mm");
    assert_eq!(verdict(&value).verdict, FitVerdict::Good);
}

/// A stock bar bends its arms, the splined one that takes its place does not: by its own kind it is what the same bar is
/// as the bar in use.
#[test]
fn the_old_sway_bar_is_reckoned_by_its_own_kind() {
    let mut value = demo("lookout-truck-7");
    value["sway"]["diameter"] = json!("28 mm");
    value["sway"]["active_length"] = json!("900 mm");
    value["sway"]["holes"] = json!(["220 mm"]);
    value["sway"]["hole"] = json!("hole-1");
    value["sway"]["kind"] = json!("one_piece");
    value["sway"]["old_bar"] = json!({ "diameter": "28 mm" });
    let stock = sway(&job(&value)).old_and_new;
    assert!((stock[0].link_rate_n_per_mm - stock[1].link_rate_n_per_mm).abs() < 1e-9);
    value["sway"]["kind"] = json!("splined");
    let beside = sway(&job(&value)).old_and_new;
    assert!((beside[0].link_rate_n_per_mm - stock[0].link_rate_n_per_mm).abs() < 1e-9, "{beside:?}");
    assert!(beside[1].link_rate_n_per_mm > 1.05 * beside[0].link_rate_n_per_mm, "{beside:?}");
    value["sway"]["old_bar"]["kind"] = json!("splined");
    let alike = sway(&job(&value)).old_and_new;
    assert!((alike[0].link_rate_n_per_mm - alike[1].link_rate_n_per_mm).abs() < 1e-9);
}

/// Two sheets of one feature 2.4 mm apart, good to U 1.06 by their repeats, do not say the same: the feature both share
/// drops out of their difference.
#[test]
fn two_sheets_of_one_feature_that_differ_are_not_one_answer() {
    let mut value = level();
    value["setups"]["found"]["adjuster"] = turnbuckle("60 mm");
    value["sheets"] = json!([sheet("165 mm", "135 mm", 0)]);
    value["setups"]["rounds"] = json!([{ "length": "815 mm", "wanted_mm": 815.0 }]);
    let with = |value: &Value, extra: &str, other: &str| {
        let mut value = value.clone();
        let sheets = value["sheets"].as_array_mut().unwrap();
        let mut first = sheet(extra, other, 1);
        first["id"] = json!("first");
        sheets.push(first);
        // 4.2 mm away from where it was to land: moved otherwise.
        sheets.push(sheet("154.2 mm", "145.8 mm", 1));
        let gates = solved(&value).findings;
        gates.iter().any(|gate| gate.kind == FindingKind::MovedOtherwise)
    };
    // 1.8 mm against 4.2 mm: 2.4 mm apart.
    assert!(with(&value, "151.8 mm", "148.2 mm"));
    assert!(!with(&value, "153.8 mm", "146.2 mm"));
}

/// The instrument's share stays at a better feature: ±4 mm of an instrument is u = 4/2/√2 = 1.41, and with the hub's 0.8
/// it is √(1.41² + 0.8²) = 1.62: never promised under U 3.2.
#[test]
fn what_to_read_next_keeps_the_instruments_share() {
    let mut value = level();
    let mut read = sheet("158 mm", "142 mm", 0);
    read["method"] = json!("body_to_sidewall");
    read["instrument"] = json!({ "id": "old tape", "resolution": "1 mm", "good_to": "4 mm" });
    value["sheets"] = json!([read]);
    value["setups"]["found"]["adjuster"] = turnbuckle("60 mm");
    let next = derecho_results::next(&job(&value)).unwrap();
    let better =
        next.options.iter().find(|option| option.says.millimetres().contains("frame to hub")).unwrap();
    assert!(better.to_mm.to_mm() > 3.0, "{better:?}");
}

/// Absurd but accepted: an arm ten metres forward. No sentence has a figure that is none.
#[test]
fn no_sentence_has_a_figure_that_is_none() {
    let mut value = demo("lookout-truck-7");
    for (pointer, absurd) in [
        ("/hardpoints/arms/left_upper/body_end/fore_aft", "393 in"),
        ("/hardpoints/arms/left_lower/axle_end/height", "390 in"),
        ("/sway/axis/fore_aft", "393 in"),
        ("/sway/far_end/height", "390 in"),
    ] {
        if let Some(place) = value.pointer_mut(pointer) {
            *place = json!(absurd);
        }
        let text = in_words(everything(&job(&value))).to_string();
        for none in ["inf", "NaN", "e+", "363124883340"] {
            let found = text.match_indices(none).find(|(at, _)| {
                let before = text[..*at].chars().next_back();
                !before.is_some_and(char::is_alphabetic)
                    && !text[at + none.len()..].starts_with(char::is_alphabetic)
            });
            assert!(
                found.is_none(),
                "{pointer}: {none} in {}",
                &text[found.unwrap().0.saturating_sub(120)..][..240]
            );
        }
    }
}

/// Nobody reads both sides before anything is decided: a strapped gap is its own reason.
#[test]
fn a_strapped_gap_is_its_own_basis() {
    let mut value = level();
    value["setups"]["found"] =
        json!({ "bar": { "frame_eye_height": "600 mm", "axle_eye_height": "580 mm" } });
    value["bracket"]["builder"] =
        json!({ "gap": "700 mm", "frame_shell": "45 mm", "axle_shell": "45 mm", "stock": "32 mm" });
    value["sheets"] = json!([sheet("158 mm", "142 mm", 0)]);
    let resolved = derecho_job::setups::Resolved::of(&job(&value));
    assert_eq!(resolved.setups().unwrap().basis.source, BasisSource::Strapped);
}

/// A bolt of M14 in a hole of 14.4 mm knocks: 0.4 mm between them; 0.2 do not. Both are told to a tenth, in both places
/// alike. One that measures 13.8 mm knocks in a hole of 14.2, too.
#[test]
fn what_knocks_in_an_eye_is_not_called_good() {
    let judged = |hole: &str, diameter: Option<&str>| {
        let mut value = level();
        value["bracket"]["bars"] = json!([{ "id": "b", "name": "new bar", "adjuster": "one_end", "made_min": "780 mm", "made_max": "840 mm" }]);
        value["setups"]["plans"] = json!({ "chosen": { "bar": "b" } });
        value["bracket"]["bolt"] = json!({ "thread": "M14x1.5", "hole": hole });
        if let Some(diameter) = diameter {
            value["bracket"]["bolt"]["diameter"] = json!(diameter);
        }
        let work = worked(&value);
        let of = |checks: &[derecho_job::verdict::FitCheck]| {
            let hole =
                checks.iter().find(|check| check.says.millimetres().contains("than the bolt")).unwrap();
            (hole.verdict, hole.says.millimetres())
        };
        let bolt = work.fasteners.iter().find(|line| line.key == "bar/frame-eye").unwrap();
        assert_eq!(of(&work.fit), of(&bolt.checks));
        of(&work.fit)
    };
    let (knocks, says) = judged("14.4 mm", None);
    assert_eq!(knocks, FitVerdict::Bad);
    assert!(says.starts_with("The hole is 0.4"), "{says}");
    assert_eq!(judged("14.2 mm", None).0, FitVerdict::Good);
    let (knocks, says) = judged("14.2 mm", Some("13.8 mm"));
    assert!(knocks == FitVerdict::Bad && says.starts_with("The hole is 0.4"), "{says}");
}

/// What a bolt of that size is clamped with says nothing of a taper under a castle nut.
#[test]
fn a_castle_nut_has_no_usual_torque() {
    let told = |nut: &str| {
        let mut value = level();
        value["bracket"]["bars"] = json!([{ "id": "b", "name": "new bar", "adjuster": "one_end", "made_min": "780 mm", "made_max": "840 mm" }]);
        value["setups"]["plans"] = json!({ "chosen": { "bar": "b" } });
        value["bracket"]["bolt"] = json!({ "thread": "M18x1.5", "grade": "10.9", "nut": nut });
        let work = worked(&value);
        let bolt = work.fasteners.iter().find(|line| line.key == "bar/axle-eye").unwrap();
        bolt.checks.iter().chain(&work.fit).filter(|check| check.says.inches().contains("typical")).count()
    };
    assert_eq!((told("plain") > 0, told("castle")), (true, 0));
}

/// A bar of 9.4° beside a drag link of 9.6° is as it should be where both are to be parallel: 800 mm long it rises by
/// 800 · sin 9.4° = 130.7, the link over 700 mm by 700 · tan 9.6° = 118.4. At 5.4° of link, 66.2 mm, they are 4° apart.
#[test]
fn a_bar_beside_its_drag_link_is_judged_against_the_link() {
    use derecho_job::bar::need::Need;
    let need = |target: &str, rise: f64| {
        let mut value = level();
        value["setups"]["found"]["bar"]["frame_eye_height"] = json!("730.7 mm");
        value["bracket"]["target"] = json!(target);
        let point = |height: f64, across: f64| json!({ "height": format!("{height:.1} mm"), "sideways": format!("{across} mm"), "fore_aft": "150 mm" });
        value["hardpoints"]["steering"] = json!({ "pitman_side": "left", "pitman": point(500.0 + rise, 330.0),
            "knuckle_side": "right", "knuckle": point(500.0, 370.0) });
        solved(&value).bar.unwrap().need
    };
    assert_eq!(need("level_driven", 118.4).facts.need, Need::Recommended);
    let beside = need("parallel_to_drag_link", 118.4);
    assert_eq!(beside.facts.need, Need::NotNeeded);
    assert_eq!(
        beside.says.millimetres(),
        "No bracket needed: bar and drag link are 0.2° apart, and they are to be parallel."
    );
    assert_eq!(need("parallel_to_drag_link", 66.2).facts.need, Need::Recommended);
}

/// "Convert to a Y-link" on three arms and a track bar gives no length: the bar goes.
#[test]
fn a_conversion_sets_no_bar() {
    let mut value = level();
    value["rig"]["axle_location"] = json!("three_arms");
    value["sheets"] = json!([sheet("153 mm", "147 mm", 0)]);
    assert!(solved(&value).bar.is_some());
    value["to_do"] = json!(["convert_to_y_link"]);
    let results = solved(&value);
    assert!(results.bar.is_none() && results.no_bar);
    assert!(results.bar_missing[0].message.contains("replaces the track bar"), "{:?}", results.bar_missing);
    let work = worked(&value);
    assert!(place(&work, "legs/bar-out") < place(&work, "legs/by-hand"));
    assert!(work.steps.iter().all(|step| !step.key.starts_with("bar/")));
}

/// A splined bar of 34 in through a frame of 31: it sticks out 1 1/2 in each side, and its step says so.
#[test]
fn a_splined_bars_step_says_how_far_it_sticks_out() {
    let value = json!({ "format": "derecho-job", "version": 7, "title": "Cistern truck 3", "to_do": ["choose_sway_bar"],
        "rig": { "end": "front", "sheet_unit": "in", "axle_location": "leaf_springs", "frame_width": "31 in" },
        "sway": { "kind": "splined", "active_length": "34 in", "diameter": "1 in" },
        "setups": { "plans": { "parts": ["sway_bar"] } } });
    let work = worked(&value);
    let says: Vec<String> = work.steps.iter().map(|step| step.does.inches()).collect();
    let wanted = "Slide the sway bar until it sticks out the same on both sides, 1 1/2\" each";
    assert!(says.iter().any(|says| says == wanted), "{says:#?}");
}
