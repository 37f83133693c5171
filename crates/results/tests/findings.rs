//! The register of findings, the one state of a job and its next step: nothing is closed over what fails, whoever judged
//! it, and what comes next leads nowhere that another screen calls failing.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::sound as job;
use derecho_job::Results;
use derecho_job::cautions::Stage;
use derecho_job::findings::{Concerns, FindingKind, FindingVerdict, Weight};
use derecho_job::prove::look::LookKind;
use derecho_job::status::JobState;
use derecho_results::{settle, solve, work};
use derecho_words::Spoken as _;
use jiff::Timestamp;
use serde_json::{Value, json};

fn solved(value: &Value) -> Results {
    solve(&job(value))
}

fn mm(text: &str) -> Value {
    json!({ "text": text, "unit": "mm" })
}

/// Both sides from the frame to the hub: they differ by twice what the axle is off.
fn sheet(id: &str, [left, right]: [&str; 2], after: Option<&str>) -> Value {
    let mut sheet = json!({
        "id": id, "kind": "centring", "method": "frame_to_hub", "sense": "outward", "unit": "mm",
        "left": [mm(left), mm(left), mm(left), mm(left)], "right": [mm(right), mm(right), mm(right), mm(right)],
        "conditions": { "on_its_weight": true, "wheels_straight": true, "pressures_equal": true },
    });
    if let Some(round) = after {
        sheet["after"] = json!(round);
    }
    sheet
}

/// A rear axle 7 mm to the right on a bar of 905 mm that is 90 mm higher at the frame: reach √(905² − 90²) = 900.5, and
/// centred √(893.5² + 90²) = 898.02 mm.
fn ladder_truck() -> Value {
    json!({
        "format": "derecho-job", "version": 7, "title": "Ladder truck 5 rear", "to_do": ["centre_axle"],
        "rig": {
            "sheet_unit": "mm", "end": "rear", "steering_side": "left", "frame_eye_side": "left",
            "axle_location": "four_arms", "bump": mm("90"), "droop": mm("110"), "tolerance": mm("3"),
        },
        "sheets": [sheet("s1", ["151", "165"], None)],
        "setups": { "found": {
            "bar": { "length": mm("905"), "frame_eye_height": mm("610"), "axle_eye_height": mm("520"),
                "frame_eye_from_centre": mm("400") },
            "adjuster": { "kind": "one_end", "first": { "thread": "M24x2", "hand": "right", "engagement": mm("45"),
                "shank": mm("70"), "tapped_depth": mm("80"), "seat": "steel" } },
        } },
    })
}

/// Every step ticked, every bolt tightened with a wrench.
fn all_done(value: &mut Value) {
    let worked = work(&job(value));
    let done = json!({ "at": "2026-11-20T09:00:00Z", "by": "Rosa" });
    let stands = |step: &derecho_job::bolt_up::StepLine| {
        if step.key == "corners" || step.stands.is_some() { "on_its_weight" } else { "supported" }
    };
    let steps: Vec<Value> = worked
        .steps
        .iter()
        .map(|step| json!({ "key": step.key, "done": done, "read": step.does.millimetres(), "stood": stands(step) }))
        .collect();
    let fasteners: Vec<Value> = worked
        .fasteners
        .iter()
        .map(|bolt| {
            json!({ "key": bolt.key, "torque": "140 N·m", "source": "parts_sheet",
                "tight": { "torque": "140 N·m", "stood": "on_its_weight", "done": done } })
        })
        .collect();
    value["bolt_up"] = json!({ "by": "Rosa", "steps": steps, "fasteners": fasteners });
}

/// The same truck with its bar set to 898 mm and centred.
fn set_and_centred() -> Value {
    let mut value = ladder_truck();
    all_done(&mut value);
    value["setups"]["rounds"] = json!([{ "id": "r1", "length": mm("898"), "wanted_mm": 898.02 }]);
    value["sheets"].as_array_mut().unwrap().push(sheet("s2", ["158", "158"], Some("r1")));
    value["proof"] =
        json!({ "looked_at": { "sensors": true, "lines": true, "wheel_nuts": true }, "by": "Rosa" });
    value
}

fn at() -> Timestamp {
    "2026-11-22T16:00:00Z".parse().unwrap()
}

fn kinds(results: &Results) -> Vec<FindingKind> {
    results.findings.iter().map(|found| found.kind).collect()
}

fn next(results: &Results) -> (Stage, String) {
    let next = results.status.next.as_ref().unwrap();
    (next.stage, next.says.millimetres())
}

/// One job through every state, and where each leads.
#[test]
fn a_job_goes_from_as_found_to_closed() {
    let mut value = ladder_truck();
    value.as_object_mut().unwrap().remove("sheets");
    let found = solved(&value);
    assert_eq!(next(&found), (Stage::Tape, "Measure both sides".to_owned()));

    let mut value = ladder_truck();
    let planned = solved(&value);
    assert_eq!(planned.status.state, JobState::Planned);
    assert_eq!(next(&planned), (Stage::BoltUp, "Set the bar".to_owned()));

    let first = work(&job(&value)).steps[0].key.clone();
    value["bolt_up"] = json!({ "steps": [{ "key": first, "done": { "at": "2026-11-20T09:00:00Z" }, "stood": "on_its_weight" }] });
    let begun = solved(&value);
    assert_eq!(begun.status.state, JobState::BeingFitted);
    assert!(begun.status.says.millimetres().starts_with("Being installed: 1 of "));

    // Every step ticked and nothing recorded: nobody is sent back to the steps.
    let mut ticked = ladder_truck();
    all_done(&mut ticked);
    assert_eq!(next(&solved(&ticked)), (Stage::Bar, "Record what was installed".to_owned()));

    let mut value = set_and_centred();
    let after = value["sheets"].as_array_mut().unwrap().pop().unwrap();
    let unread = solved(&value);
    assert_eq!(unread.status.state, JobState::FittedToRead);
    assert_eq!(next(&unread), (Stage::Prove, "Measure both sides again".to_owned()));

    value["sheets"].as_array_mut().unwrap().push(sheet("s2", ["162", "154"], Some("r1")));
    let off = solved(&value);
    assert_eq!(off.status.state, JobState::NotAsWanted);
    // It has not moved at all: why comes before setting it again.
    assert_eq!(next(&off), (Stage::Prove, "Find out why it moved differently".to_owned()));

    value["sheets"].as_array_mut().unwrap()[1] = after;
    let proved = solved(&value);
    assert_eq!((proved.status.state, proved.status.open), (JobState::Proved, 0), "{:?}", proved.findings);
    assert_eq!(next(&proved), (Stage::Prove, "Road test it, then close the job".to_owned()));

    let closed = settle(&job(&value), at()).unwrap();
    let closed = solve(&closed);
    assert_eq!((closed.status.state, closed.status.next), (JobState::Closed, None));
}

/// A drop bracket is welded on and nothing near the bar was ever measured: that is said, and either measured or accepted.
#[test]
fn clearance_that_nobody_checked_is_a_finding() {
    let mut value = ladder_truck();
    value["bracket"] = json!({ "brackets": [{ "id": "b1", "name": "drop bracket", "end": "frame", "attachment": "weld_on",
        "holes": [{ "id": "o1", "name": "low", "up": mm("-40") }] }] });
    assert!(!kinds(&solved(&value)).contains(&FindingKind::ClearanceNotChecked), "nothing moves yet");
    value["setups"]["plans"] = json!({ "chosen": { "frame": { "bracket": "b1", "hole": "o1" } } });
    let planned = solved(&value);
    let found = planned.findings.iter().find(|found| found.kind == FindingKind::ClearanceNotChecked).unwrap();
    assert_eq!((found.verdict, found.weight), (FindingVerdict::NotChecked, Weight::Function));
    assert_eq!((found.stage, found.concerns), (Stage::Cycle, Concerns::Plan));
    let point = |across: &str| json!({ "height": mm("900"), "sideways": mm(across), "fore_aft": mm("0") });
    value["hardpoints"] = json!({ "obstacles": [{ "name": "tank", "on": "body", "side": "right",
        "from": point("100"), "to": point("300"), "thickness": mm("40") }] });
    assert!(!kinds(&solved(&value)).contains(&FindingKind::ClearanceNotChecked));
}

/// Where nothing was measured, somebody looks: good answers it, bad stands in the way, and nobody is asked where nothing
/// moves.
#[test]
fn clearance_that_was_looked_at_is_answered() {
    let asked = |value: &Value| {
        let looks = solved(value).settling.looks;
        looks.iter().any(|look| look.kind == LookKind::Clear)
    };
    let mut value = set_and_centred();
    assert!(!asked(&value), "the bar was turned and stays where it was");
    value["bracket"] = json!({ "brackets": [{ "id": "b1", "name": "drop bracket", "end": "frame", "attachment": "weld_on",
        "holes": [{ "id": "o1", "name": "low", "up": mm("-40") }] }] });
    value["setups"]["rounds"][0]["moved"] =
        json!([{ "end": "frame", "by_mm": [0.0, 0.0, -40.0], "to": { "bracket": "b1", "hole": "o1" } }]);
    assert!(asked(&value));
    let open = solved(&value);
    let found = open.findings.iter().find(|found| found.kind == FindingKind::ClearanceNotChecked).unwrap();
    assert_eq!((found.stage, found.goes_to.as_deref()), (Stage::Prove, Some("/proof/looked_at/clear")));
    value["proof"]["looked_at"]["clear"] = json!(true);
    assert!(asked(&value) && !kinds(&solved(&value)).contains(&FindingKind::ClearanceNotChecked));
    value["proof"]["looked_at"]["clear"] = json!(false);
    let touching = solved(&value);
    let found = touching.findings.iter().find(|found| found.kind == FindingKind::NotRight).unwrap();
    assert!(found.stands_in_the_way() && found.weight == Weight::Safety);
}

/// What a bar that is to be levelled leaves at its angle is decided before a length is set.
#[test]
fn a_bar_to_be_levelled_is_decided_before_it_is_set() {
    let mut value = ladder_truck();
    value["bracket"] = json!({ "brackets": [{ "id": "b1", "name": "riser", "end": "axle", "attachment": "bolt_on",
        "holes": [{ "id": "o1", "name": "up", "up": mm("80") }] }] });
    // atan(90 / 900.5) = 5.71°, more than the 5° from which a bracket is recommended.
    let alone = solved(&value);
    let says =
        |results: &Results| results.bar.as_ref().unwrap().correction.as_ref().unwrap().says.millimetres();
    assert_eq!(says(&alone), "Make the bar 7 mm shorter", "nobody asked for the angle");
    value["to_do"] = json!(["centre_axle", "level_bar"]);
    let both = solved(&value);
    assert!(says(&both).starts_with("Decide first: a hole, or length only."), "{}", says(&both));
    assert_eq!(next(&both), (Stage::Bracket, "Choose a hole, or length only".to_owned()));
    value["setups"]["plans"] = json!({ "chosen": {} });
    assert_eq!(says(&solved(&value)), "Make the bar 7 mm shorter", "length only was chosen");
}

/// An eye bolt nobody tightened keeps the vehicle where it is, whatever reason is written; a jam nut may have one.
#[test]
fn a_loose_eye_bolt_is_accepted_by_nobody() {
    let mut value = set_and_centred();
    let bolts = value["bolt_up"]["fasteners"].as_array_mut().unwrap();
    let jam = bolts.iter().position(|bolt| bolt["key"] == "bar/jam").unwrap();
    let kept = bolts.remove(jam);
    let accepted = |value: &Value| {
        let mut value = value.clone();
        let found = solved(&value).findings;
        value["proof"]["acceptances"] = found
            .iter()
            .map(|found| json!({ "key": found.key, "said": found.says.millimetres(), "because": "ordered" }))
            .collect();
        value
    };
    let found = solved(&value);
    assert_eq!(kinds(&found), [FindingKind::TorqueMissing]);
    assert!(found.findings[0].acceptable && !found.settling.may);
    assert_eq!(next(&found), (Stage::BoltUp, "Enter the torques that are missing".to_owned()));
    assert!(settle(&job(&accepted(&value)), at()).is_some());
    let bolts = value["bolt_up"]["fasteners"].as_array_mut().unwrap();
    bolts.push(kept);
    bolts.retain(|bolt| bolt["key"] != "bar/adjuster");
    let loose = solved(&accepted(&value));
    assert_eq!(kinds(&loose), [FindingKind::TorqueMissing]);
    assert!(loose.findings[0].stands_in_the_way() && !loose.settling.may);
}

/// Nobody rolls on a Y-link, a disconnect's studs or a drag link that are not tight, whatever reason is written.
#[test]
fn what_holds_the_axle_steers_or_carries_a_link_is_tight() {
    let torqueless = |value: &Value| {
        let found = solved(value).findings.into_iter().find(|found| found.kind == FindingKind::TorqueMissing);
        found.unwrap()
    };
    let bare = |to_do: &str, sway: Value, parts: Value| {
        json!({ "format": "derecho-job", "version": 7, "title": "Saddle truck 6", "to_do": [to_do],
            "rig": { "end": "rear", "steering_side": "left", "sheet_unit": "mm", "axle_location": "four_arms" },
            "sway": sway, "setups": { "plans": { "parts": parts } } })
    };
    let link = bare("convert_to_y_link", json!({}), json!([]));
    assert!(!torqueless(&link).acceptable);
    let mut pinned = bare("choose_sway_bar", json!({ "kind": "one_piece" }), json!(["disconnect"]));
    assert!(!torqueless(&pinned).acceptable);
    // Its studs alone are left.
    all_done(&mut pinned);
    let bolts = pinned["bolt_up"]["fasteners"].as_array_mut().unwrap();
    bolts.retain(|bolt| bolt["key"] != "disconnect/studs");
    assert!(!torqueless(&pinned).acceptable);
}

/// A brace that went in after the bar was set leaves the length as it was wanted: 898.02 mm, set and typed as 898.
#[test]
fn what_goes_in_later_changes_no_ticked_step() {
    let does = |value: &Value| {
        let worked = work(&job(value));
        worked.steps.iter().map(|step| step.does.millimetres()).collect::<Vec<_>>()
    };
    let mut value = set_and_centred();
    let before = does(&value);
    value["setups"]["rounds"].as_array_mut().unwrap().push(json!({ "id": "r2", "parts": ["sway_bar"] }));
    assert_eq!(does(&value), before);
    assert_eq!(solved(&value).status.state, JobState::Proved, "the axle stays where it was read");
}

/// What the Cycle screen shows in red stands in the way, though the axle is centred: a rail in the bar's way at bump.
#[test]
fn what_ends_the_travel_stands_in_the_way() {
    let mut value = set_and_centred();
    assert_eq!(kinds(&solved(&value)), []);
    // The bar's middle is at 565 mm and rises by half of what the axle does: at 90 mm of bump by 45. A tube of 20 mm
    // across it, 30 mm above, is met before that.
    let point = |fore: &str| json!({ "height": mm("600"), "sideways": mm("0"), "fore_aft": mm(fore) });
    value["hardpoints"] = json!({ "bar": { "axle_eye_fore_aft": mm("0"), "diameter": mm("30") }, "obstacles": [{ "name": "crossmember", "on": "body",
        "side": "left", "from": point("-200"), "to": point("200"), "thickness": mm("20") }] });
    let met = solved(&value);
    let found: Vec<_> = met.findings.iter().filter(|found| found.kind == FindingKind::TravelEnds).collect();
    assert_eq!(found.len(), 1, "{:?}", met.stages);
    assert_eq!((found[0].verdict, found[0].stage), (FindingVerdict::Fails, Stage::Cycle));
    assert!(settle(&job(&value), at()).is_none());
    // A reason for that opens the way; the same bar met sooner wants its own.
    let reason = json!([{ "key": found[0].key, "because": "the owner trims it" }]);
    value["proof"]["acceptances"] = reason;
    let stands = |value: &Value| {
        solved(value)
            .findings
            .iter()
            .any(|one| one.kind == FindingKind::TravelEnds && one.stands_in_the_way())
    };
    assert!(!stands(&value));
    for end in ["from", "to"] {
        value["hardpoints"]["obstacles"][0][end]["height"] = mm("590");
    }
    assert!(stands(&value));
}

/// A brace that is entered lower than the bar's own end holds nothing: planned or fitted, it stands in the way.
#[test]
fn a_brace_that_cannot_hold_is_a_finding_before_and_after() {
    let brace = |below: &str| json!({ "name": "cross brace", "below_rail": mm(below) });
    let found = |value: &Value| {
        let results = solved(value);
        results.findings.into_iter().find(|found| found.key.starts_with("brace"))
    };
    for mut value in [ladder_truck(), set_and_centred()] {
        value["bracket"]["brace"] = brace("900");
        let beyond = found(&value).unwrap();
        assert_eq!(
            (beyond.kind, beyond.stage, beyond.weight),
            (FindingKind::Overstressed, Stage::Bracket, Weight::Safety)
        );
        value["bracket"].as_object_mut().unwrap().remove("brace");
        assert!(found(&value).is_none());
    }
}

/// A sway bar that goes in without being taped: its steps come next, then its record, then a look over the travel, and only
/// with that it is closed.
#[test]
fn a_sway_bar_nobody_taped_is_closed_by_a_look() {
    let mut value = json!({ "format": "derecho-job", "version": 7, "title": "Saddle truck 6", "to_do": ["choose_sway_bar"],
        "rig": { "end": "rear", "steering_side": "left", "sheet_unit": "mm", "axle_location": "four_arms" },
        "sway": { "kind": "one_piece" }, "setups": { "plans": { "parts": ["sway_bar"] } } });
    assert_eq!(next(&solved(&value)), (Stage::BoltUp, "Install the chosen plan".to_owned()));
    all_done(&mut value);
    let ticked = solved(&value);
    assert_eq!(next(&ticked), (Stage::Prove, "Record what was installed".to_owned()));
    assert!(ticked.settling.installs.iter().all(|line| !line.on_record));
    value["setups"]["rounds"] = json!([{ "id": "r1", "parts": ["sway_bar"] }]);
    value["proof"] =
        json!({ "by": "Rosa", "looked_at": { "sensors": true, "lines": true, "wheel_nuts": true } });
    let proved = solved(&value);
    assert_eq!(proved.status.state, JobState::Proved);
    assert_eq!(kinds(&proved), [FindingKind::ClearanceNotChecked]);
    assert!(settle(&job(&value), at()).is_none());
    value["proof"]["looked_at"]["clear"] = json!(true);
    assert!(settle(&job(&value), at()).is_some());
    // Looked at, and it touches: that stands in the way.
    value["proof"]["looked_at"]["clear"] = json!(false);
    assert!(settle(&job(&value), at()).is_none());
}
