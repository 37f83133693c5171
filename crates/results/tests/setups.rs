//! Found, plan, fitted: everyday jobs in which every stage must say the same. Figures are worked
//! by hand: a bar of 32 in that rises 6 in reaches √(32² − 6²) = √988 = 31.4325 in.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod by_name;

use by_name::sound as job;
use derecho_core::bar::adjuster::Verdict;
use derecho_core::measure::Length;
use derecho_job::bar::need::{Need, NeedReason};
use derecho_job::bar::{Correction, WayOut};
use derecho_job::bracket::approach::Approach;
use derecho_job::document::migrate;
use derecho_job::prove::ProveVerdict;
use derecho_job::setups::{BasisSource, Resolved};
use derecho_job::strip::Progress;
use derecho_job::{Results, check};
use derecho_results::json::value as in_words;
use derecho_results::{cycle, plan, settle, solve};
use derecho_words::Spoken as _;
use serde_json::{Value, json};

fn solved(value: &Value) -> Results {
    solve(&job(value))
}

fn correction(value: &Value) -> Correction {
    solved(value).bar.unwrap().correction.unwrap()
}

fn inches(length: Length) -> f64 {
    length.to_inches()
}

fn read(left: &str, right: &str, round: u32) -> Value {
    json!({ "id": format!("sheet {round}"), "unit": "in", "round": round, "left": [left, left, left, left],
        "right": [right, right, right, right], "conditions": { "on_its_weight": true } })
}

/// A front on leaf springs, frame eye left, bump 3 in, droop 4 in, both sides alike.
fn truck() -> Value {
    json!({ "format": "derecho-job", "version": 3, "title": "Ladder truck 3",
        "rig": { "end": "front", "steering_side": "left", "frame_eye_side": "left",
            "axle_location": "leaf_springs", "bump": "3 in", "droop": "4 in" },
        "sheets": [read("6 in", "6 in", 0)],
        "setups": { "found": {
            "bar": { "length": "32 in", "frame_eye_height": "27 in", "axle_eye_height": "21 in" },
            "adjuster": { "kind": "turnbuckle", "first": end("right", "2 in"), "second": end("left", "2 in") } } } })
}

/// An end of 1-1/4-12 with so much thread in: at least 1 1/4 in must stay.
fn end(hand: &str, engagement: &str) -> Value {
    json!({ "thread": "1-1/4-12", "hand": hand, "engagement": engagement })
}

fn riser(up: &str) -> Value {
    json!([{ "name": "riser", "holes": [{ "name": "hole 1", "up": up }] }])
}

fn choose(value: &mut Value, plan: &Value) {
    value["setups"]["plans"] = json!({ "chosen": plan });
}

const HOLE: &str = r#"{"bracket":"riser","hole":"hole 1"}"#;

fn hole() -> Value {
    serde_json::from_str(HOLE).unwrap()
}

// 1. A riser on a centred axle.

#[test]
fn a_riser_on_a_centred_axle_wants_the_same_length_in_bar_and_bracket_and_can_be_proved() {
    let mut value = truck();
    value["bracket"] = json!({ "brackets": riser("6 in") });
    choose(&mut value, &json!({ "axle": hole() }));
    // Level, it is as long as it reaches: 31.4325 in, 0.5675 in less.
    let set = correction(&value);
    assert!((inches(set.length_mm) - 988.0_f64.sqrt()).abs() < 1e-9);
    assert_eq!(set.says.inches(), "Make the bar 9/16\" shorter");
    // 0.5675 in at 1/6 in to the turn: 3.405 turns, 20.4 flats, so 20.
    assert_eq!(
        set.setting.as_ref().unwrap().turns_say.as_ref().unwrap().inches(),
        "3 turns and 2 flats shorter"
    );
    let planned = plan(&job(&value));
    let option = planned.options.iter().find(|option| option.chosen).unwrap();
    assert_eq!(option.length_mm, set.length_mm);
    assert_eq!(planned.says.inches(), "Use riser, hole 1, then make the bar 9/16\" shorter");
    assert_eq!(cycle(&job(&value)).plan.unwrap().bar_length_mm.unwrap(), set.length_mm);

    // Fitted and set to the nearest sixteenth, read again: proved against what was predicted.
    let mut fitted = in_words(&set.fitting);
    fitted["length"] = json!("31 7/16 in");
    value["setups"]["rounds"] = json!([fitted]);
    let check = solved(&value).bar.unwrap().correction.unwrap().set.unwrap();
    assert_eq!(
        check.says.inches(),
        "Set to 31 7/16\". The axle should be centered now. Now measure both sides again on the Prove screen."
    );
    value["sheets"].as_array_mut().unwrap().push(read("6 in", "6 in", 1));
    let proved = solved(&value).prove.unwrap();
    assert_eq!(proved.verdict, ProveVerdict::CanSettle);
    // s·(h − h′) with h = √988 and h′ = 31.4375.
    let predicted = 988.0_f64.sqrt() - 31.4375;
    assert!((inches(proved.movement.unwrap().predicted_mm) - predicted).abs() < 1e-9);
}

#[test]
fn without_a_plan_a_centred_axle_is_left_alone_in_every_stage() {
    let mut value = truck();
    // 1/32 in off: within what counts as centred.
    value["sheets"] = json!([read("6 in", "5 15/16 in", 0)]);
    let results = solved(&value);
    let bar = results.bar.unwrap();
    assert!(bar.correction.is_none());
    assert_eq!(bar.withheld.unwrap().inches(), "Leave the length alone: the axle is centered.");
    let planned = plan(&job(&value));
    let alone = &planned.options[0];
    assert_eq!((alone.change_mm, alone.covered), (Length::ZERO, Some(true)));
    assert!(!planned.says.inches().contains("0\""), "{}", planned.says.inches());
    assert!(planned.says.inches().ends_with("leave the length alone"), "{}", planned.says.inches());
    assert!(cycle(&job(&value)).plan.is_none());
    // Nothing was set, and nothing stands between it and being settled.
    assert_eq!(results.prove.unwrap().verdict, ProveVerdict::CanSettle);
}

// 2. A bought bar.

fn bought() -> Value {
    json!({ "name": "long-sleeve bar", "adjuster": "turnbuckle", "thread": "1-1/4-12", "hand": "right",
        "second_hand": "left", "shank": "3 in", "tapped_depth": "3 1/4 in", "least_engagement": "1 3/8 in",
        "made_min": "31 in", "made_max": "34 in" })
}

#[test]
fn a_bought_bar_is_the_bar_of_stage_bar_from_its_box_to_its_length() {
    let mut value = truck();
    value["sheets"] = json!([read("6 1/2 in", "5 1/2 in", 0)]);
    value["setups"]["found"]["adjuster"] = json!({ "kind": "fixed" });
    value["bracket"] = json!({ "bars": [bought()] });
    let stock = correction(&value);
    assert_eq!(stock.says.inches(), "The bar is too short: it needs to be 1/2\" longer");
    assert!(stock.setting.unwrap().turns_say.is_none());
    let names: Vec<_> = stock.other_ways.iter().map(|other| other.says.inches().clone()).collect();
    assert!(names.iter().any(|says| says.starts_with("The long-sleeve bar: ")), "{names:?}");

    choose(&mut value, &json!({ "bar": "long-sleeve bar" }));
    let set = correction(&value);
    // √((√988 + 1/2)² + 36) = 32.4913 in, 1.4913 in out of 31: 8.948 turns, 53.69 flats, so 54.
    let wanted = (988.0_f64.sqrt() + 0.5).hypot(6.0);
    assert!((inches(set.length_mm) - wanted).abs() < 1e-9);
    assert_eq!(set.says.inches(), "Set the long-sleeve bar to 32 1/2\"");
    let setting = set.setting.unwrap();
    assert_eq!(setting.turns_say.unwrap().inches(), "9 turns longer");
    let bench = setting.bench.unwrap();
    assert_eq!(bench.fully_in_mm, Length::from_inches(31.0));
    // Nine turns of 1/6 in: 32 1/2 in. Each end came out 3/4 in of the 3 in that were in.
    assert!((inches(bench.set_mm) - 32.5).abs() < 1e-9);
    assert!((inches(bench.thread_in_mm.unwrap()) - 2.25).abs() < 1e-9);
    assert!((inches(bench.against_old_mm) - 0.5).abs() < 1e-9);
    let says: Vec<String> = bench.says.iter().map(derecho_words::Spoken::inches).collect();
    assert!(says[0].contains("all the way in, it measures 31\""), "{says:?}");
    assert!(
        says[1].contains("9 turns longer, both ends unscrewed the same amount: 32 1/2\" on the bench"),
        "{says:?}"
    );
    assert!(
        says[2].contains("2 1/4\" of thread stays engaged at each end; it needs at least 1 3/8\""),
        "{says:?}"
    );
    assert!(
        says[3].contains("the other eye should be 1/2\" longer. One turn off shows as 5/32\""),
        "{says:?}"
    );

    // Hung and set, it is the bar of the next round, with the thread that is left.
    let mut fitted = in_words(&set.fitting);
    assert_eq!(fitted["bar"], "long-sleeve bar");
    fitted["length"] = json!("32 1/2 in");
    value["setups"]["rounds"] = json!([fitted]);
    value["sheets"].as_array_mut().unwrap().push(read("6 1/4 in", "6 in", 1));
    let again = correction(&value);
    assert_eq!(again.from_length_mm, Length::from_inches(32.5));
    let first = &again.setting.unwrap().facts.ends[0];
    assert!((inches(first.engagement_before_mm.unwrap()) - 2.25).abs() < 1e-9);
}

#[test]
fn copying_the_old_bars_length_is_a_target_of_its_own() {
    let mut value = truck();
    value["bracket"] = json!({ "bars": [bought()] });
    choose(&mut value, &json!({ "bar": "long-sleeve bar", "length": "as_the_old_one" }));
    let set = correction(&value);
    assert_eq!(set.length_mm, Length::from_inches(32.0));
    // One inch out of 31: six turns, and bolts go through both.
    let bench = set.setting.unwrap().bench.unwrap();
    assert!((inches(bench.set_mm) - 32.0).abs() < 1e-9);
    assert!(
        bench.says[3].inches().contains("bolts should push through both eyes of both"),
        "{:?}",
        bench.says
    );
}

// 3. A bar that is too long.

/// 33 in with both ends right in, on a truck that wants about 32 1/2.
fn too_long() -> Value {
    let mut value = truck();
    value["sheets"] = json!([read("5 1/2 in", "6 1/2 in", 0)]);
    value["setups"]["found"]["bar"]["length"] = json!("33 in");
    for name in ["first", "second"] {
        let hand = if name == "first" { "right" } else { "left" };
        let mut end = end(hand, "2 1/2 in");
        end["shank"] = json!("2 1/2 in");
        end["tapped_depth"] = json!("3 1/4 in");
        value["setups"]["found"]["adjuster"][name] = end;
    }
    value
}

#[test]
fn a_bar_too_long_names_the_cut_on_the_safe_side_and_the_other_ways() {
    let mut value = too_long();
    value["bracket"] = json!({ "bars": [bought()], "brackets": [
        { "name": "outrigger", "end": "frame", "holes": [{ "name": "far", "up": "0 in", "outward": "1 in" }] }] });
    let set = correction(&value);
    // h = √(33² − 6²) = 32.4500; e = 1/2 in to the right: h′ = 31.95, L′ = √(31.95² + 36) = 32.5085.
    let wanted = ((33.0_f64 * 33.0 - 36.0).sqrt() - 0.5).hypot(6.0);
    assert!((inches(set.length_mm) - wanted).abs() < 1e-9);
    let setting = set.setting.unwrap();
    assert_eq!(setting.facts.verdict, Verdict::CutBack);
    assert!(setting.turns_say.is_none() && set.says.inches().contains("too long"), "{}", set.says.inches());
    // (0.4915 + 0.25)/2 = 0.3707 in off each end, rounded up to 3/8, never down to what leaves no trim.
    assert!(
        setting.says.inches().contains("Face 3/8\" off the body at each end: the shoulder bottoms against it. That leaves 1/4\" of adjustment either way"),
        "{}",
        setting.says.inches()
    );
    for end in &setting.facts.ends {
        assert!(
            end.engagement_after_mm.unwrap() <= end.full_depth_mm.unwrap(),
            "no more thread than there is"
        );
    }
    // Outward until 33 1/4 in is wanted: √(33.25² − 36) − 31.95 = 0.7542 in; the far hole; the other bar.
    let out = set.other_ways.iter().find_map(|other| match other.facts.way {
        WayOut::FurtherOut { by_mm } => Some(by_mm),
        _ => None,
    });
    let by_hand = (33.25_f64 * 33.25 - 36.0).sqrt() - ((33.0_f64 * 33.0 - 36.0).sqrt() - 0.5);
    assert!((inches(out.unwrap()) - by_hand).abs() < 1e-6);
    let says: Vec<_> = set.other_ways.iter().map(|other| other.says.inches().clone()).collect();
    assert!(says.iter().any(|says| says.starts_with("outrigger, far")), "{says:?}");
    assert!(says.iter().any(|says| says.starts_with("The long-sleeve bar")), "{says:?}");
    assert!(set.other_ways.iter().all(|other| other.facts.thread_in_mm.is_some()));
}

#[test]
fn a_cut_on_record_makes_the_bar_shorter_for_the_next_round() {
    let mut value = too_long();
    value["setups"]["rounds"] = json!([{ "cut": { "each_end": "3/8 in", "from": "body" } }]);
    let set = correction(&value);
    let setting = set.setting.unwrap();
    assert_eq!(setting.facts.verdict, Verdict::Fits, "{}", setting.says.inches());
    // 3/8 off each of two faces: right in it is 32 1/4 in.
    assert!((inches(setting.facts.shortest_mm.unwrap()) - 32.25).abs() < 1e-9);
    // 33 → 32.5085: 2.949 turns in, 17.69 flats: 18, so 32 1/2 in. 2 1/2 − 3/8 + 1/4 stays in.
    assert_eq!(setting.turns_say.unwrap().inches(), "3 turns shorter");
    let end = &setting.facts.ends[0];
    assert!((inches(end.engagement_after_mm.unwrap()) - 2.375).abs() < 1e-2, "{end:?}");
    // Cutting the tips instead would have gained nothing: the shoulders stop it where they did.
    value["setups"]["rounds"] = json!([{ "cut": { "each_end": "3/8 in", "from": "shanks" } }]);
    assert_eq!(correction(&value).setting.unwrap().facts.verdict, Verdict::CutBack);
    // Set, it is the bar from there on.
    value["setups"]["rounds"] =
        json!([{ "cut": { "each_end": "3/8 in", "from": "body" } }, { "length": "32 1/2 in" }]);
    let done = solved(&value);
    assert!(done.bar.unwrap().correction.unwrap().set.unwrap().says.inches().starts_with("Set to 32 1/2\""));
}

// 4. Reach is judged by the rig's tolerance.

#[test]
fn a_fixed_bar_within_the_tolerance_does_not_fail_for_reach() {
    let mut value = truck();
    value["setups"]["found"]["adjuster"] = json!({ "kind": "fixed" });
    // A riser of 3 1/4 in leaves v = 2 3/4: L′ = √(988 + 2.75²) = 31.5526; the bar's 32 leaves it 0.449 in off.
    // One of 2 in less than nothing much: v = 5 3/4, L′ = 31.954, 0.046 in off: within 1/8.
    value["bracket"] = json!({ "brackets": [{ "name": "riser", "holes": [
        { "name": "low", "up": "1/4 in" }, { "name": "high", "up": "3 1/4 in" }] }] });
    let planned = plan(&job(&value));
    let option = |name: &str| planned.options.iter().find(|option| option.name.inches() == name).unwrap();
    assert_eq!((option("riser, low").covered, option("riser, low").fails.len()), (Some(true), 0));
    assert_eq!(option("riser, low").length_mm, Length::from_inches(32.0));
    let left = (1024.0_f64 - 5.75 * 5.75).sqrt() - 988.0_f64.sqrt();
    assert!((inches(option("riser, low").left_off_mm).abs() - left).abs() < 1e-9);
    assert_eq!(option("riser, high").covered, Some(false));
    // A bar and a hole that are looser in the rig's own eyes are looser in every stage.
    value["rig"]["tolerance"] = json!("1/2 in");
    let loose = plan(&job(&value));
    assert!(loose.options.iter().all(|option| option.covered == Some(true)));
}

#[test]
fn a_approach_that_leaves_the_length_alone_does_not_fail_for_it() {
    let mut value = truck();
    value["setups"]["found"]["adjuster"] = json!({ "kind": "fixed" });
    value["bracket"] = json!({ "brackets": riser("3 1/4 in"), "bars": [
        { "name": "far too short", "adjuster": "fixed", "made_min": "20 in", "made_max": "20 in" },
        { "name": "a bit short", "adjuster": "fixed", "made_min": "31 in", "made_max": "31 in" }] });
    let planned = plan(&job(&value));
    let only = planned.approaches.iter().find(|approach| approach.approach == Approach::RiserOnly).unwrap();
    // It is left 32 in long, which leaves the axle √(1024 − 2.75²) − √988 = 0.4492 in to the right.
    assert!(
        only.option.fails.iter().all(|why| !why.inches().contains("would need to be")),
        "{:?}",
        only.option.fails
    );
    let off = 988.0_f64.sqrt() - (1024.0_f64 - 2.75 * 2.75).sqrt();
    assert!((inches(only.left_off_mm) - off).abs() < 1e-9, "{:?}", only.left_off_mm);
    assert!(
        only.option.fails[0].inches().contains("7/16\" to the right, more than 1/8\""),
        "{:?}",
        only.option.fails
    );
    // Of the bars that do not reach, the nearest one's reason is told: 32 in is 0.45 off, 31 in 0.55.
    let both =
        planned.approaches.iter().find(|approach| approach.approach == Approach::RiserAndLength).unwrap();
    assert!(both.option.fails[0].inches().contains("the bar as found is fixed"), "{:?}", both.option.fails);
}

// 5. One judgement of how steep is steep.

#[test]
fn bar_and_bracket_say_one_sentence_of_the_bracket() {
    let mut value = truck();
    // v = 2 in on 32 in: 3.6°; over 7 in of travel it swings well under 3/4 in.
    value["setups"]["found"]["bar"]["axle_eye_height"] = json!("25 in");
    let results = solved(&value);
    let need = results.bar.unwrap().need;
    assert_eq!(need.facts.need, Need::Offered);
    let planned = plan(&job(&value));
    assert_eq!(planned.because, need.says);
    assert!(planned.says.inches().starts_with("Changing the length is enough"), "{}", planned.says.inches());

    // Side-stepping is complained of: urged, and Bracket no longer calls the length enough.
    value["complaints"] = json!([{ "text": "Jumps", "about": "side_stepping" }]);
    let heard = solved(&value).bar.unwrap().need;
    assert_eq!(
        (heard.facts.need, heard.facts.reasons.as_slice()),
        (Need::Recommended, [NeedReason::Complaint].as_slice())
    );
    assert!(!plan(&job(&value)).says.inches().contains("enough"));
    // So it is in words.
    value["complaints"] = json!([{ "text": "It hops towards the ditch on washboard" }]);
    assert_eq!(solved(&value).bar.unwrap().need.facts.need, Need::Recommended);
    // The threshold is the person's: at 3° it is steep, at 4° it is not.
    value["complaints"] = json!([]);
    value["bracket"] = json!({ "steep_from": "3" });
    assert_eq!(solved(&value).bar.unwrap().need.facts.reasons, [NeedReason::Steep]);
    value["bracket"] = json!({ "steep_from": "4", "swing_limit": "1/4 in" });
    assert_eq!(solved(&value).bar.unwrap().need.facts.reasons, [NeedReason::Swings]);
}

// 6. Uneven ends.

#[test]
fn uneven_ends_are_equal_engagement_before_a_longer_bar_is_asked_for() {
    let mut value = truck();
    value["sheets"] = json!([read("6 1/2 in", "5 1/2 in", 0)]);
    value["setups"]["found"]["adjuster"]["first"] = end("right", "1 3/8 in");
    value["setups"]["found"]["adjuster"]["second"] = end("left", "2 1/2 in");
    let set = correction(&value);
    // 1/8 in to spare at one end, 1 1/4 in at the other: 1 3/8 in of length once evened; 0.4913 in is wanted.
    let setting = set.setting.as_ref().unwrap();
    assert_eq!(setting.facts.verdict, Verdict::EvenEnds);
    assert_eq!(set.covered, Some(true));
    assert_eq!(set.says.inches(), "Even up both ends first, then make the bar 1/2\" longer");
    let each = (1.375 + 2.5 - inches(set.length_mm) + 32.0) / 2.0;
    for end in &setting.facts.ends {
        assert!((inches(end.engagement_after_mm.unwrap()) - each).abs() < 1e-9);
    }
    // Recorded as told, the thread is where it was put.
    let fitted = in_words(&set.fitting);
    value["setups"]["rounds"] = json!([fitted]);
    let check = solved(&value).bar.unwrap().correction.unwrap().set.unwrap();
    assert!(!check.thread_broken, "{}", check.says.inches());
}

// 7. Too little thread.

#[test]
fn a_length_that_leaves_too_little_thread_is_refused_loudly() {
    let mut value = truck();
    value["sheets"] = json!([read("6 1/2 in", "5 1/2 in", 0)]);
    value["setups"]["found"]["adjuster"]["first"] = end("right", "1 3/8 in");
    value["setups"]["found"]["adjuster"]["second"] = end("left", "1 3/8 in");
    // Set all the same: 1/4 in came out of each end, and 1 1/8 in of the 1 1/4 stays in.
    value["setups"]["rounds"] = json!([{ "length": "32 1/2 in" }]);
    let results = solved(&value);
    let check = results.bar.as_ref().unwrap().correction.as_ref().unwrap().set.clone().unwrap();
    assert!(check.thread_broken);
    assert!(
        check.says.inches().contains("only 1 1/8\" of thread is engaged; it needs 1 1/4\""),
        "{}",
        check.says.inches()
    );
    let stage = |results: &Results, index: usize| results.stages[index].progress;
    assert_eq!(stage(&results, 2), Progress::NeedsLook);
    // However well it reads, it is not proved and cannot be settled.
    value["sheets"].as_array_mut().unwrap().push(read("6 in", "6 in", 1));
    let read = job(&value);
    let proof = solve(&read).prove.unwrap();
    assert_eq!(proof.verdict, ProveVerdict::BackToBar);
    assert!(proof.advice.inches().contains("It can pull out"), "{}", proof.advice.inches());
    assert!(settle(&read, "2026-11-26T08:00:00Z".parse().unwrap()).is_none());
}

// 8. A built bar where there is none yet.

#[test]
fn a_bar_built_to_a_gap_answers_where_there_is_no_bar_yet() {
    let mut value = truck();
    value["sheets"] = json!([]);
    value["setups"]["found"] = json!({ "bar": { "frame_eye_height": "27 in", "axle_eye_height": "21 in" } });
    assert!(solved(&value).bar.is_none());
    value["bracket"] = json!({ "builder": { "gap": "30 in", "frame_shell": "2 in", "axle_shell": "2 in", "stock": "1 1/4 in" } });
    let results = solved(&value);
    let bar = results.bar.unwrap();
    // The gap and half of each shell: 32 in, at √988 of reach.
    assert!((inches(bar.found.length_mm) - 32.0).abs() < 1e-9);
    assert!((inches(bar.found.reach_mm) - 988.0_f64.sqrt()).abs() < 1e-9);
    assert!(bar.withheld.unwrap().inches().starts_with("Build the bar 32\" eye to eye"));
    let setups = Resolved::of(&job(&value));
    assert_eq!(setups.setups().unwrap().basis.source, BasisSource::Strapped);
    // Hung, it is read and proved like any other.
    let mut built = in_words(bar.built.unwrap());
    built["length"] = json!("32 in");
    value["setups"]["rounds"] = json!([built]);
    value["sheets"] = json!([read("6 in", "6 in", 1)]);
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::CanSettle);
}

#[test]
fn a_gap_that_is_off_what_centring_wants_draws_a_remark() {
    let mut value = truck();
    value["sheets"] = json!([read("6 1/2 in", "5 1/2 in", 0)]);
    // Centring wants 32.4913 in; this gap makes 32 3/16: 5/16 in shorter.
    value["bracket"] = json!({ "builder": { "gap": "30 3/16 in", "frame_shell": "2 in", "axle_shell": "2 in", "stock": "1 1/4 in" } });
    let built = plan(&job(&value)).builder.unwrap();
    let says = built.remark.unwrap().inches();
    assert!(
        says.starts_with("This gap makes a bar 5/16\" shorter than the 32 1/2\" that centers the axle."),
        "{says}"
    );
    value["bracket"]["builder"]["gap"] = json!("30 1/2 in");
    assert!(plan(&job(&value)).builder.unwrap().remark.is_none());
}

// 9. Jobs without a bar to set.

#[test]
fn a_y_link_read_centred_can_be_settled_and_one_off_centre_goes_on_in_rounds() {
    let mut value = truck();
    value["rig"]["axle_location"] = json!("y_link");
    value["setups"] = json!({});
    let proof = solved(&value).prove.unwrap();
    assert_eq!(proof.verdict, ProveVerdict::CanSettle);
    value["sheets"] = json!([read("6 1/2 in", "5 1/2 in", 0)]);
    assert!(solved(&value).prove.is_none());
    value["setups"]["rounds"] = json!([{ "note": "left leg of the Y-link three turns out", "by": "Ada" }]);
    value["sheets"].as_array_mut().unwrap().push(read("6 1/8 in", "5 7/8 in", 1));
    let still = solved(&value).prove.unwrap();
    assert_eq!(still.verdict, ProveVerdict::BackToBar);
    assert!(still.advice.inches().contains("one leg of the Y-link"), "{}", still.advice.inches());
    value["setups"]["rounds"].as_array_mut().unwrap().push(json!({ "note": "a turn more" }));
    value["sheets"].as_array_mut().unwrap().push(read("6 in", "6 in", 2));
    // Nobody wrote how tight the legs' jam nuts are: only a reason lets it be settled so.
    let at = "2026-11-26T08:00:00Z".parse().unwrap();
    assert!(settle(&job(&value), at).is_none());
    let mut reasoned = value.clone();
    let gates = solved(&value).findings;
    reasoned["proof"] = json!({ "acceptances": gates.iter().map(|gate| {
        json!({ "key": gate.key, "because": "the wrench is at the depot; marked with paint" })
    }).collect::<Vec<_>>() });
    assert!(settle(&job(&reasoned), at).is_some());
    let mark = json!({ "at": "2026-11-25T15:00:00Z", "by": "Ada" });
    let steps = derecho_results::work(&job(&value)).steps;
    value["bolt_up"] = json!({
        "fasteners": [{ "key": "legs/jam", "tight": { "torque": "110 lb-ft", "done": mark } }],
        "steps": steps.iter().map(|step| json!({ "key": step.key, "done": mark })).collect::<Vec<_>>(),
    });
    let looks = ["wheel_straight", "toe", "sensors", "lines", "wheel_nuts"];
    value["proof"]["looked_at"] = looks.into_iter().map(|look| (look.to_owned(), json!(true))).collect();
    let open: Vec<String> = solved(&value).findings.into_iter().map(|gate| gate.key).collect();
    assert_eq!(open, Vec::<String>::new());
    assert!(settle(&job(&value), at).is_some());
}

#[test]
fn sway_links_alone_are_proved_by_whether_they_work() {
    let mut value: Value =
        serde_json::from_str(include_str!("../../../demo/lookout-truck-7.derecho.json")).unwrap();
    value["sheets"] = json!([]);
    value["setups"] = json!({});
    value["rig"]["axle_location"] = json!("four_arms");
    value["hardpoints"]["arms"] = json!({});
    let first = solved(&value);
    let Some(proof) = first.prove else {
        panic!("links that were measured are something to prove: {:?}", first.stages)
    };
    assert_eq!(proof.verdict, ProveVerdict::BackToSway);
    // Without a link that was measured there is nothing to say.
    value["sway"].as_object_mut().unwrap().remove("link");
    assert!(solved(&value).prove.is_none());
}

#[test]
fn a_chosen_plan_that_is_not_fitted_is_not_proved() {
    let mut value = truck();
    value["bracket"] = json!({ "brackets": riser("3 in") });
    choose(&mut value, &json!({ "axle": hole() }));
    assert_eq!(solved(&value).prove.unwrap().verdict, ProveVerdict::PlanNotFitted);
}

// 10. Words and roundings.

/// The truck with a riser of so much chosen, fitted, set and read centred again.
fn with_riser_fitted(up: &str) -> Value {
    let mut value = truck();
    value["bracket"] = json!({ "brackets": riser(up) });
    choose(&mut value, &json!({ "axle": hole() }));
    let fitting = in_words(&correction(&value).fitting);
    value["setups"]["rounds"] = json!([fitting]);
    value["sheets"].as_array_mut().unwrap().push(read("6 in", "6 in", 1));
    value
}

#[test]
fn what_is_on_target_is_reported_from_where_the_eye_sits_now_and_which_way() {
    // The bar rises 6 in: 4 in of riser leave 2 in, 7 in are 1 in too many, 6 in level it.
    let exact = |value: &Value| plan(&job(value)).exact_says.inches();
    let reported =
        "To hit the target exactly: move the axle end of the bar 6\" up, or the frame end 6\" down.";
    assert_eq!(exact(&truck()), reported);
    let reported =
        "To hit the target exactly: move the axle end of the bar 2\" up, or the frame end 2\" down.";
    assert_eq!(exact(&with_riser_fitted("4 in")), reported);
    let reported =
        "To hit the target exactly: move the axle end of the bar 1\" down, or the frame end 1\" up.";
    assert_eq!(exact(&with_riser_fitted("7 in")), reported);
    assert_eq!(exact(&with_riser_fitted("6 in")), "The bar is on target where it is.");
    // A part may lay the drag link otherwise: what is parallel to it is told of the link that is there.
    let mut value = truck();
    value["bracket"]["target"] = json!("parallel_to_drag_link");
    value["hardpoints"]["steering"] = json!({
        "pitman_side": "left", "pitman": { "height": "26 in", "sideways": "14 in" },
        "knuckle_side": "right", "knuckle": { "height": "20 in", "sideways": "22 in" },
    });
    let reported = exact(&value);
    assert!(
        reported.starts_with(
            "To hit the target exactly with the drag link as it is now: move the axle end of the bar "
        ),
        "{reported}"
    );
}

#[test]
fn a_level_bar_lifts_nothing_and_says_so_without_a_nothing_in_figures() {
    // Jacking goes with the rise over the reach: level, there is none.
    let planned = plan(&job(&with_riser_fitted("6 in")));
    let alone = planned.approaches.iter().find(|approach| approach.approach == Approach::LengthOnly).unwrap();
    assert!(alone.says.inches().contains("in a turn it does not jack the body up or down"), "{alone:?}");
    for approach in &planned.approaches {
        for text in [&approach.says.inches(), &approach.says.millimetres()] {
            assert!(
                ![" 0 lb", " 0 N", " 0\"", " 0 mm", "1.0 times"].iter().any(|nil| text.contains(nil)),
                "{text}"
            );
        }
    }
}

#[test]
fn a_change_too_small_for_a_tape_is_no_change() {
    let mut value = truck();
    // Off by 1/4 in, with a hole that takes just that: √((√988 + 1/4)² + v′²) = 32 at v′² = 1024 − 1003.78.
    value["sheets"] = json!([read("6 1/4 in", "5 3/4 in", 0)]);
    let rise = (1024.0 - (988.0_f64.sqrt() + 0.25).powi(2)).sqrt();
    value["bracket"] = json!({ "brackets": riser(&format!("{:.3} in", 6.0 - rise)) });
    choose(&mut value, &json!({ "axle": hole() }));
    let results = solved(&value);
    let set = results.bar.as_ref().unwrap().correction.as_ref().unwrap();
    assert!(set.recentring.change_mm.abs() < Length::from_mm(0.1));
    assert_eq!(set.says.inches(), "Bar length is right as it is");
    assert_eq!(results.stages[2].headline.inches(), "leave the length");
    assert_eq!(plan(&job(&value)).says.inches(), "Use riser, hole 1, leave the length alone");
}

// Both eyes move, and a sway link set leaves the readings standing.

#[test]
fn both_eyes_may_move() {
    let mut value = truck();
    value["bracket"] = json!({ "brackets": [
        { "name": "riser", "holes": [{ "name": "hole 1", "up": "3 in" }] },
        { "name": "drop", "end": "frame", "holes": [{ "name": "hole 1", "up": "-3 in" }] }] });
    choose(&mut value, &json!({ "axle": hole(), "frame": { "bracket": "drop", "hole": "hole 1" } }));
    let set = correction(&value);
    // Three inches each: level.
    assert!(set.planned.rise_mm.abs() < Length::from_mm(1e-9));
    assert!((inches(set.length_mm) - 988.0_f64.sqrt()).abs() < 1e-9);
    assert_eq!(set.fitting.moved.len(), 2);
    let planned = plan(&job(&value));
    let option = planned.options.iter().find(|option| option.chosen).unwrap();
    assert_eq!(
        (option.name.inches().as_str(), option.length_mm),
        ("riser, hole 1 and drop, hole 1", set.length_mm)
    );
}

#[test]
fn a_sway_link_that_was_set_leaves_the_axles_readings_standing() {
    let mut value = truck();
    value["setups"]["rounds"] = json!([{ "sway_link": "9 in" }]);
    let results = solved(&value);
    assert!(results.sheets[0].current && results.sheets[0].usable);
    assert_eq!(Resolved::of(&job(&value)).sway.fitted.link.unwrap().text(), "9 in");
    value["setups"]["rounds"] = json!([{ "sway_link": "9 in", "note": "and the bracket welded" }]);
    assert!(!solved(&value).sheets[0].current);
}

#[test]
fn a_length_set_in_steps_is_reckoned_on_until_it_is_read_again() {
    let mut value = truck();
    value["sheets"] = json!([read("6 1/2 in", "5 1/2 in", 0)]);
    value["bracket"] = json!({ "bars": [bought()] });
    choose(&mut value, &json!({ "bar": "long-sleeve bar" }));
    // Hung but not yet set: what is told goes on from its length right in.
    value["setups"]["rounds"] = json!([{ "bar": "long-sleeve bar" }]);
    let set = correction(&value);
    assert!(set.set.is_none());
    assert_eq!(set.from_length_mm, Length::from_inches(31.0));
    assert!(
        set.basis.says.inches().starts_with("Measured before the last change, calculated since"),
        "{}",
        set.basis.says.inches()
    );
    let wanted = (988.0_f64.sqrt() + 0.5).hypot(6.0);
    assert!((inches(set.length_mm) - wanted).abs() < 1e-9, "the same length as before it was hung");
}

// Documents of version 1.

#[test]
fn a_document_of_version_1_is_brought_forward_with_nothing_lost() {
    let rows = [
        (
            include_str!("../../job/tests/version_1/lookout-truck-4.derecho.json"),
            include_str!("../../../demo/lookout-truck-4.derecho.json"),
        ),
        (
            include_str!("../../job/tests/version_1/lookout-truck-12.derecho.json"),
            include_str!("../../../demo/lookout-truck-12.derecho.json"),
        ),
        (
            include_str!("../../job/tests/version_1/relay-wagon-5.derecho.json"),
            include_str!("../../../demo/relay-wagon-5.derecho.json"),
        ),
        (
            include_str!("../../job/tests/version_1/supply-truck-9.derecho.json"),
            include_str!("../../../demo/supply-truck-9.derecho.json"),
        ),
        (
            include_str!("../../job/tests/version_1/water-tender-3.derecho.json"),
            include_str!("../../../demo/water-tender-3.derecho.json"),
        ),
    ];
    for (old, new) in rows {
        let forward = migrate::read(old).unwrap();
        assert_eq!(check(&forward), []);
        let today = migrate::read(new).unwrap();
        assert_eq!(forward.setups, today.setups, "{}", today.title);
        assert_eq!(forward.sheets, today.sheets);
        assert_eq!(forward.rig, today.rig);
    }
}

#[test]
fn chosen_kept_and_tried_holes_of_version_1_keep_their_places() {
    let old = json!({ "format": "derecho-job", "version": 1, "title": "Old",
        "sheets": [{ "id": "a", "after_setting": 1 }],
        "bracket": { "bars": [{ "name": "new bar" }], "drag_links": [{ "name": "block" }],
            "brackets": [{ "name": "drop", "end": "frame", "holes": [{ "name": "low", "up": "-2 in" }] }],
            "chosen": { "bracket": "drop", "hole": "low", "bar": "new bar", "drag_link": "block" },
            "kept": [{ "bracket": "axle bracket as it is", "hole": "hole 2" }, {}] },
        "setups": { "as_found": { "length": "32 in" }, "adjuster": { "kind": "fixed" },
            "axle_holes": [{ "name": "hole 2", "up": "2 in" }], "trial": { "axle_hole": "hole 2" },
            "as_built": [{ "length": "32 1/2 in", "wanted_mm": 825.4, "at": "2026-09-14T15:40:00Z",
                "moved": { "end": "frame", "by_mm": [0.0, 0.0, -50.8] } }] } });
    let job = migrate::read(&old.to_string()).unwrap();
    let now = in_words(&job);
    assert_eq!(now["version"], 7);
    assert_eq!(now["sheets"][0]["after"], "round-1");
    let plans = &now["setups"]["plans"];
    assert_eq!(
        plans["chosen"],
        json!({ "frame": { "bracket": "drop", "hole": "low" }, "bar": "new bar", "drag_link": "block" })
    );
    assert_eq!(plans["kept"], json!([{ "axle": { "hole": "hole 2" } }, {}]));
    assert_eq!(plans["trial"], json!({ "axle": { "hole": "hole 2" } }));
    let round = &now["setups"]["rounds"][0];
    assert_eq!(
        (&round["length"]["text"], &round["at"]),
        (&json!("32 1/2 in"), &json!("2026-09-14T15:40:00Z"))
    );
    assert_eq!(
        round["moved"],
        json!([{ "end": "frame", "by_mm": [0.0, 0.0, -50.8], "to": { "bracket": "drop", "hole": "low" } }])
    );
    // A second time nothing is left to do.
    let mut again = now.clone();
    migrate::bring_forward(&mut again);
    assert_eq!(again, now);
}

/// A figure that was taken once and is asked about today: its job opens, and the notes keep it.
#[test]
fn what_is_no_longer_read_goes_to_the_notes() {
    let text = r#"{"format":"derecho-job","version":3,"title":"Truck","notes":"Mind the tank.",
        "vehicle":{"axle_weight":"2,600 lb","spring_rate":"35 N/mm"},
        "bracket":{"bolt":{"torque_nm":150.0}}}"#;
    let job = migrate::read(text).expect("it opens");
    assert!(job.vehicle.axle_weight.is_none());
    assert!(
        job.notes.starts_with(
            "Mind the tank.\nEnter /vehicle/axle_weight again: \"2,600 lb\" was removed. 1.25 or 1250?"
        ),
        "{}",
        job.notes
    );
    // What is still read stays, and a torque gets its unit.
    assert_eq!(job.vehicle.spring_rate.expect("kept").rate().to_n_per_mm(), 35.0);
    assert_eq!(job.bracket.bolt.torque.expect("kept").torque().to_nm(), 150.0);
}
