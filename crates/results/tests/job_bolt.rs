//! The eye's bolt in stage Bracket of whole jobs: stacks worked by hand in both unit systems, nuts that look alike,
//! torques beside what is usual.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use derecho_job::bolt_up::StepState;
use derecho_job::bracket::compare::BoltResult;
use derecho_job::check;
use derecho_job::findings::FindingKind;
use derecho_job::verdict::{FitCheck, FitVerdict};
use derecho_results::plan;
use derecho_words::Spoken as _;
use serde_json::{Value, json};

fn with_bolt(ear_width: &str, bolt: Value) -> Value {
    let text = include_str!("../../../demo/lookout-truck-7.derecho.json");
    let mut value: Value = serde_json::from_str(text).unwrap();
    value["bracket"]["ear_width"] = json!(ear_width);
    value["bracket"]["bolt"] = bolt;
    value
}

fn reported(value: &Value) -> BoltResult {
    let job = by_name::read(value);
    assert_eq!(check(&job), []);
    plan(&job).bolt.unwrap()
}

fn line<'a>(bolt: &'a BoltResult, name: &str) -> &'a FitCheck {
    bolt.checks
        .iter()
        .find(|check| check.name.inches() == name)
        .unwrap_or_else(|| panic!("{name}: {:?}", bolt.checks))
}

/// Two ears of 1/4 in and 2-1/2 in between them: grip 3 in; two washers of 1/8 in, a nut of 1/2 in, two threads of 18
/// to the inch: 3 + 0.25 + 0.5 + 0.1111 = 3.8611 in, so 3 7/8 on a tape at least; 4 in is bought.
#[test]
fn a_bolt_of_an_inch_stack_by_hand() {
    let mut value = with_bolt(
        "2 1/2 in",
        json!({ "thread": "9/16-18", "ear": "1/4 in", "washer": "1/8 in", "nut_height": "1/2 in" }),
    );
    let open = reported(&value);
    let length = line(&open, "bolt length");
    assert_eq!(length.verdict, FitVerdict::Open);
    assert!(
        length
            .says
            .inches()
            .contains("must be at least 3 7/8\" under the head; the next stock length is 4\""),
        "{}",
        length.says.inches()
    );
    // 3.8611 in are 98.07 mm; a bolt of inch thread is sold by the inch.
    assert!(
        length
            .says
            .millimetres()
            .contains("must be at least 98.5 mm under the head; the next stock length is 4\""),
        "{}",
        length.says.millimetres()
    );
    let working = open.working.unwrap();
    assert_eq!(working.steps[1].numbers.inches, "3.0000 + 0.2500 + 0.5000 + 2 · 0.0556");
    assert_eq!(working.steps[1].result.inches, "3.8611 in");

    // 3 3/4 in stand 0 threads out of a nut that ends at 3 3/4 in: two are missing, 0.1111 in or 7/64.
    value["bracket"]["bolt"]["length"] = json!("3 3/4 in");
    let short = reported(&value);
    let length = line(&short, "bolt length");
    assert_eq!(length.verdict, FitVerdict::Bad);
    assert!(length.says.inches().contains("too short: two threads must show"), "{}", length.says.inches());
    value["bracket"]["bolt"]["length"] = json!("4 in");
    // 0.25 in stand out: 4.5 threads of 18.
    let good = reported(&value);
    let length = line(&good, "bolt length");
    assert_eq!(length.verdict, FitVerdict::Good);
    assert!(length.says.inches().contains("sticks out 4.5 threads"), "{}", length.says.inches());
    // Three inches of room behind the head: one too little.
    value["bracket"]["bolt"]["room_at_head"] = json!("3 in");
    let stuck = reported(&value);
    let length = line(&stuck, "bolt length");
    assert_eq!(length.verdict, FitVerdict::Bad);
    assert!(
        length.says.inches().contains("won't come back out: it needs 1\" more room"),
        "{}",
        length.says.inches()
    );
}

/// Ears of 6 mm and 60 between: grip 72. No washers, a plain nut of 7/8 of 14 mm, two pitches of 2: 72 + 12.25 + 4 =
/// 88.25 mm; 90 is made. Of 90 mm with 12 of thread 78 are shank, and the nut sits at 72: 6 mm are missing.
#[test]
fn a_bolt_of_a_metric_stack_by_hand() {
    let value = with_bolt(
        "60 mm",
        json!({ "thread": "M14x2", "ear": "6 mm", "length": "90 mm", "threaded": "12 mm", "hole": "14.2 mm" }),
    );
    let bolt = reported(&value);
    let length = line(&bolt, "bolt length");
    assert_eq!(length.verdict, FitVerdict::Bad);
    assert!(length.says.millimetres().contains("Add 6 mm of washers"), "{}", length.says.millimetres());
    assert!(
        length.says.millimetres().contains("its height assumed by its size"),
        "{}",
        length.says.millimetres()
    );
    assert!(
        length
            .says
            .millimetres()
            .contains("must be at least 88.5 mm under the head; the next stock length is 90 mm"),
        "{}",
        length.says.millimetres()
    );
    // It is not said to stand out of a nut that is not down yet.
    assert!(!length.says.millimetres().contains("threads past the nut"), "{}", length.says.millimetres());
    assert_eq!(line(&bolt, "bolt fit in its hole").verdict, FitVerdict::Good);
}

#[test]
fn a_nut_that_looks_alike_is_refused() {
    for (nut, verdict) in
        [("9/16-12", FitVerdict::Bad), ("9/16-18", FitVerdict::Good), ("M14x2", FitVerdict::Bad)]
    {
        let bolt = reported(&with_bolt("2 1/2 in", json!({ "thread": "9/16-18", "nut_thread": nut })));
        let line = line(&bolt, "nut");
        assert_eq!(line.verdict, verdict, "{nut}");
        let stops = line.says.inches().contains("Stop, get");
        assert_eq!(stops, verdict == FitVerdict::Bad, "{}", line.says.inches());
    }
    // A hole of 14 mm for a bolt of 9/16 in, 14.2875 mm.
    let tight = reported(&with_bolt("2 1/2 in", json!({ "thread": "9/16-18", "hole": "14 mm" })));
    let hole = line(&tight, "bolt fit in its hole");
    assert_eq!(hole.verdict, FitVerdict::Bad);
    assert!(hole.says.millimetres().contains("0.29 mm too big for the hole"), "{}", hole.says.millimetres());
}

/// M14x1.5 of 10.9, dry: 217.1 N·m by hand (the core's own test has the figures), 160.1 lb-ft.
#[test]
fn a_torque_is_compared_and_never_supplied() {
    let of = |more: Value| {
        let mut bolt = json!({ "thread": "M14x1.5", "grade": "10.9" });
        bolt.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
        line(&reported(&with_bolt("2 1/2 in", bolt)), "torque").clone()
    };
    let open = of(json!({}));
    assert_eq!(open.verdict, FitVerdict::Open);
    assert!(open.says.millimetres().contains("about 217 N·m (160 lb-ft)."), "{}", open.says.millimetres());
    assert!(open.says.inches().contains("about 160 lb-ft (217 N·m)."), "{}", open.says.inches());
    assert!(open.says.inches().contains("part's instructions"));
    assert_eq!(of(json!({ "torque": "180 Nm" })).verdict, FitVerdict::Good);
    // 217.1 / 0.75 = 289.5 N·m brings it to its proof load.
    let past = of(json!({ "torque": "295 Nm" }));
    assert_eq!(past.verdict, FitVerdict::Bad);
    assert!(past.says.millimetres().contains("stretch this bolt permanently"), "{}", past.says.millimetres());
    assert_eq!(of(json!({ "torque": "70 lb-ft" })).verdict, FitVerdict::Bad);
}

#[test]
fn a_thread_longer_than_its_bolt_is_reported_by_its_place() {
    let value = with_bolt("2 1/2 in", json!({ "thread": "9/16-18", "length": "3 in", "threaded": "4 in" }));
    let faults = check(&serde_json::from_value(value).unwrap());
    let places: Vec<(&str, &str)> = faults.iter().map(|f| (f.pointer.as_str(), f.code.as_str())).collect();
    assert_eq!(places, [("/bracket/bolt/threaded", "more_thread_than_there_is")]);
}

/// A frame joint of 2 5/8 in and an axle joint of 2 in each fill their own ears: added together they were 2 in too wide for
/// either. The eyes' bolts differ as well: what is too short at the axle eye is right at the frame eye.
#[test]
fn each_eye_has_its_own_joint_ears_and_bolt() {
    let bolt = |length: &str| {
        json!({ "thread": "9/16-18", "ear": "1/4 in", "washer": "1/8 in", "nut_height": "1/2 in", "length": length,
            "threaded": "1 1/2 in" })
    };
    let mut value = with_bolt("2 5/8 in", bolt("4 in"));
    value["bracket"]["joints"] = json!([
        { "name": "frame joint", "end": "frame", "width": "2 5/8 in" },
        { "name": "axle joint", "end": "axle", "width": "1 7/8 in" },
        { "name": "spacer", "end": "axle", "width": "1/8 in" }
    ]);
    // Grip 2 · 1/4 + 2 = 2 1/2 in at the axle eye, washers and nut and two threads: 3.3611 in. A 3 in bolt is short there.
    value["bracket"]["axle_eye"] = json!({ "ear_width": "2 in", "bolt": bolt("3 in") });
    let fit = plan(&by_name::read(&value)).fit;
    let ears: Vec<(String, FitVerdict)> = fit
        .iter()
        .filter(|check| check.name.inches().starts_with("joint and spacers"))
        .map(|check| (check.name.inches(), check.verdict))
        .collect();
    assert_eq!(
        ears,
        [
            ("joint and spacers fill the bracket (frame eye)".to_owned(), FitVerdict::Good),
            ("joint and spacers fill the bracket (axle eye)".to_owned(), FitVerdict::Good),
        ]
    );
    let bolts = reported(&value);
    assert_eq!(line(&bolts, "bolt length (frame eye)").verdict, FitVerdict::Good);
    assert_eq!(line(&bolts, "bolt length (axle eye)").verdict, FitVerdict::Bad);
    // The wrong one is taken out: the gap at the axle eye is told there, and the frame eye stays good.
    value["bracket"]["joints"].as_array_mut().unwrap().pop();
    let fit = plan(&by_name::read(&value)).fit;
    let verdicts: Vec<FitVerdict> = fit
        .iter()
        .filter(|check| check.name.inches().starts_with("joint and spacers"))
        .map(|check| check.verdict)
        .collect();
    assert_eq!(verdicts, [FitVerdict::Good, FitVerdict::Bad]);
}

/// Grip 60, washers 6, nut 14, two threads of 1.5: 83 mm wanted. At 82 one thread less shows, and a reason closes the job; at
/// 78 the nut is not full, the steps that use it stop, and nobody can close the job. A reason given for 82 is none for 81.
#[test]
fn a_bolt_whose_nut_is_not_full_stops_the_work() {
    let bolt = |length: &str| json!({ "thread": "M14x1.5", "ear": "5 mm", "washer": "3 mm", "nut_height": "14 mm", "length": length });
    let at = |length: &str| {
        let mut value = with_bolt("50 mm", bolt("90 mm"));
        value["setups"]["plans"]["chosen"] = json!({ "axle": { "hole": "riser hole 2" } });
        value["bracket"]["axle_eye"] = json!({ "bolt": bolt(length) });
        value["bracket"]["joints"] = json!([{ "name": "bushing", "width": "50 mm" }]);
        value
    };
    let found = |value: &Value| {
        let results = derecho_results::solve(&by_name::read(value));
        let unfit = results.findings.into_iter().find(|found| found.kind == FindingKind::DoesNotFit);
        unfit.map(|found| (found.acceptable, found.key))
    };
    let stopped = |value: &Value| -> Vec<String> {
        let steps = derecho_results::work(&by_name::read(value)).steps;
        steps.into_iter().filter(|step| step.state == StepState::Stopped).map(|step| step.key).collect()
    };
    assert_eq!((found(&at("83.1 mm")), stopped(&at("83.1 mm"))), (None, vec![]));
    let (acceptable, key) = found(&at("82 mm")).unwrap();
    assert!(acceptable && stopped(&at("82 mm")).is_empty());
    assert_ne!(found(&at("81 mm")).unwrap().1, key, "worse by a millimeter is another finding");
    assert!(!found(&at("78 mm")).unwrap().0);
    let stops = stopped(&at("78 mm"));
    assert!(stops.contains(&"bar/axle-eye".to_owned()), "{stops:?}");
    assert!(!stops.contains(&"bar/frame-eye".to_owned()), "its own bolt is long enough: {stops:?}");
}
