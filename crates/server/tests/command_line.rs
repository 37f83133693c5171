//! The finished binary as a command-line user meets it.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::io::Write;
use std::path::{Path, PathBuf};
use std::process::{Command, Output, Stdio};

use serde_json::Value;

fn derecho(arguments: &[&str], input: Option<&str>) -> Output {
    let mut child = Command::new(env!("CARGO_BIN_EXE_derecho"))
        .args(arguments)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    child.stdin.take().unwrap().write_all(input.unwrap_or_default().as_bytes()).unwrap();
    child.wait_with_output().unwrap()
}

fn demo(name: &str) -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo").join(format!("{name}.derecho.json"))
}

fn json(output: &Output) -> Value {
    assert!(output.status.success(), "{}", complaint(output));
    serde_json::from_slice(&output.stdout).unwrap()
}

fn complaint(output: &Output) -> String {
    String::from_utf8_lossy(&output.stderr).into_owned()
}

#[test]
fn solve_carries_the_worked_example() {
    let solved = json(&derecho(&["solve", demo("lookout-truck-12").to_str().unwrap()], None));
    let bar = &solved["bar"];
    let inches = |value: &Value| value.as_f64().unwrap() / 25.4;
    let four = |value: &Value| format!("{:.4}", inches(value));
    assert_eq!(four(&bar["lift"]["before"]["reach_mm"]), "31.9374");
    assert_eq!(four(&bar["found"]["reach_mm"]), "31.4325");
    assert_eq!(four(&bar["lift"]["shift_mm"]), "0.5050");
    assert_eq!(format!("{:.3}", bar["found"]["angle_deg"].as_f64().unwrap()), "10.807");
    assert_eq!(format!("{:.5}", bar["found"]["lateral_rate"].as_f64().unwrap()), "-0.19089");
    let recentring = &bar["correction"]["recentring"];
    assert_eq!(four(&recentring["length_mm"]), "32.4962");
    assert_eq!(four(&recentring["change_mm"]), "0.4962");
    assert_eq!(four(&recentring["thumb_change_mm"]), "0.5050");
    assert_eq!(four(&recentring["thumb_cost_mm"]), "0.0088");
    let setting = &bar["correction"]["setting"];
    assert_eq!(format!("{:.3}", setting["exact_turns"].as_f64().unwrap()), "2.977");
    assert_eq!((setting["turns"].as_u64(), setting["flats"].as_u64()), (Some(3), Some(0)));
    assert_eq!(format!("{:.2}", setting["flats_over"].as_f64().unwrap()), "-0.14");
}

#[test]
fn solve_reads_standard_input() {
    let file = std::fs::read_to_string(demo("relay-van-2")).unwrap();
    let piped = derecho(&["solve", "-"], Some(&file));
    let named = derecho(&["solve", demo("relay-van-2").to_str().unwrap()], None);
    assert_eq!(json(&piped), json(&named));
}

#[test]
fn solve_reads_short_forms() {
    let short = r#"{"format":"derecho-job","version":3,"title":"Short",
        "rig":{"frame_eye_side":"left","lift":"4 in"},
        "setups":{"found":{"bar":{"length":812.8,"frame_eye_height":"22 in","axle_eye_height":"20 in","read":"before_the_lift"}}}}"#;
    let solved = json(&derecho(&["solve", "-"], Some(short)));
    let length = solved["bar"]["correction"]["recentring"]["length_mm"].as_f64().unwrap();
    assert!((length - 1056.0_f64.sqrt() * 25.4).abs() < 1e-9);
}

#[test]
fn a_bad_file_exits_with_2_and_says_where() {
    let broken = derecho(&["solve", "-"], Some("{\n  \"format\": oops\n}"));
    assert_eq!(broken.status.code(), Some(2));
    assert!(complaint(&broken).contains("standard input:2:"), "{}", complaint(&broken));
    assert!(broken.stdout.is_empty());

    let text = r#"{"format":"derecho-job","version":3,"title":"T","rig":{"lift":"24 13/0 in","colour":1}}"#;
    let faulty = derecho(&["solve", "-"], Some(text));
    assert_eq!(faulty.status.code(), Some(2));
    let says = complaint(&faulty);
    assert!(
        says.contains("at /rig/lift (characters 7 to 7): A fraction can't have 0 on the bottom"),
        "{says}"
    );
    assert!(says.contains("at /rig: No field \"colour\" here. Remove it"), "{says}");

    let absent = derecho(&["solve", "no-such-file.json"], None);
    assert_eq!(absent.status.code(), Some(2));
    assert!(complaint(&absent).contains("no-such-file.json"));
}

#[test]
fn tape_prints_one_object() {
    let inches = json(&derecho(&["tape", "24 13/16", "--unit", "in", "--json"], None));
    assert_eq!((inches["mm"].as_f64(), inches["text"].as_str()), (Some(630.2375), Some("24 13/16\"")));
    let millimetres = json(&derecho(&["tape", "24 13/16 in", "--unit", "mm", "--json"], None));
    assert_eq!(millimetres["text"], "630.2 mm");
    let carried = json(&derecho(&["tape", "23 63/64", "--json"], None));
    assert_eq!(carried["text"], "24\"");
    let fine = json(&derecho(&["tape", "5.1", "--json", "--fraction", "32"], None));
    assert_eq!(fine["text"], "5 3/32\"");
    let drop = json(&derecho(&["tape", "-1 1/2", "--signed", "--json"], None));
    assert_eq!(drop["mm"], -38.1);
}

#[test]
fn tape_refuses_with_the_place_marked() {
    let refused = derecho(&["tape", "24 13/0"], None);
    assert_eq!(refused.status.code(), Some(2));
    assert!(complaint(&refused).ends_with("  24 13/0\n        ^\n"), "{}", complaint(&refused));
    assert_eq!(derecho(&["tape", "-3/8"], None).status.code(), Some(2));
}

#[test]
fn jobs_go_out_and_come_back() {
    let data = tempfile::tempdir().unwrap();
    let data = data.path().to_str().unwrap();
    let file = demo("water-tender-3");
    let stored = derecho(&["import", file.to_str().unwrap(), "--data", data], None);
    assert!(stored.status.success(), "{}", complaint(&stored));
    let line = String::from_utf8(stored.stdout).unwrap();
    let (id, title) = line.trim_end().split_once('\t').unwrap();
    assert_eq!(title, "Water tender 3: rocks after a swerve");
    let listed = derecho(&["export", "--data", data], None);
    assert_eq!(String::from_utf8(listed.stdout).unwrap(), line);
    let out = json(&derecho(&["export", id, "--data", data], None));
    assert_eq!(out["title"], title);
    let solved = json(&derecho(&["solve", "-"], Some(&out.to_string())));
    assert_eq!(solved, json(&derecho(&["solve", file.to_str().unwrap()], None)));
    assert_eq!(derecho(&["export", "no-such-id", "--data", data], None).status.code(), Some(1));

    // A bad file among good ones stores none of them.
    let mixed = derecho(&["import", file.to_str().unwrap(), "-", "--data", data], Some("{}"));
    assert_eq!(mixed.status.code(), Some(2));
    assert_eq!(String::from_utf8(derecho(&["export", "--data", data], None).stdout).unwrap(), line);
}

#[test]
fn files_of_version_1_are_solved_and_stored_as_version_7() {
    let old = |name: &str| {
        let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../job/tests/version_1");
        folder.join(format!("{name}.derecho.json")).to_str().unwrap().to_owned()
    };
    // The worked example of the day the file was written.
    let solved = json(&derecho(&["solve", &old("lookout-truck-12")], None));
    let inches = |value: &Value| format!("{:.4}", value.as_f64().unwrap() / 25.4);
    assert_eq!(inches(&solved["bar"]["lift"]["shift_mm"]), "0.5050");
    assert_eq!(inches(&solved["bar"]["correction"]["recentring"]["length_mm"]), "32.4962");
    let directory = tempfile::tempdir().unwrap();
    let data = directory.path().to_str().unwrap();
    let stored = derecho(&["import", &old("supply-truck-9"), "--data", data], None);
    let line = String::from_utf8(stored.stdout).unwrap();
    let id = line.split_whitespace().next().unwrap();
    let exported = json(&derecho(&["export", id, "--data", data], None));
    assert_eq!(exported["version"], 7);
    assert_eq!(exported["setups"]["rounds"].as_array().unwrap().len(), 1);
    let from: Value = serde_json::from_str(&std::fs::read_to_string(old("supply-truck-9")).unwrap()).unwrap();
    let typed = |job: &Value| -> Vec<Vec<String>> {
        let sheets = job["sheets"].as_array().unwrap().iter();
        let readings = |side: &Value| -> Vec<String> {
            side.as_array().into_iter().flatten().map(|entry| entry["text"].to_string()).collect()
        };
        sheets.flat_map(|sheet| ["left", "right"].map(|side| readings(&sheet[side]))).collect()
    };
    assert!(typed(&from).iter().map(Vec::len).sum::<usize>() >= 8, "there are readings to lose");
    assert_eq!(typed(&exported), typed(&from), "every reading is there");
}

#[test]
fn the_schema_accepts_the_demo_jobs_as_written() {
    let schema = json(&derecho(&["schema"], None));
    let validator = jsonschema::validator_for(&schema).unwrap();
    for name in [
        "lookout-truck-7",
        "lookout-truck-12",
        "water-tender-3",
        "relay-van-2",
        "lookout-truck-4",
        "relay-wagon-5",
        "supply-truck-9",
    ] {
        let job: Value = serde_json::from_str(&std::fs::read_to_string(demo(name)).unwrap()).unwrap();
        let faults: Vec<String> = validator.iter_errors(&job).map(|error| error.to_string()).collect();
        assert_eq!(faults, Vec::<String>::new(), "{name}");
    }
    assert!(!validator.is_valid(&serde_json::json!({ "format": "derecho-job" })));
}

#[test]
fn serving_the_network_is_refused() {
    let data = tempfile::tempdir().unwrap();
    let refused = derecho(&["serve", "--listen", "0.0.0.0:0", "--data", data.path().to_str().unwrap()], None);
    assert_eq!(refused.status.code(), Some(1));
    assert!(complaint(&refused).contains("127.0.0.1"));
}

#[test]
fn wrong_words_exit_with_2() {
    assert_eq!(derecho(&["solve"], None).status.code(), Some(2));
    assert_eq!(derecho(&["weld"], None).status.code(), Some(2));
}

fn document(path: &str) -> String {
    std::fs::read_to_string(Path::new(env!("CARGO_MANIFEST_DIR")).join("../..").join(path)).unwrap()
}

/// The example in the documentation is a job, and solves to the worked example's bar with
/// half an inch read off the vehicle.
#[test]
fn the_documented_job_file_is_one() {
    let page = document("docs/job-file.md");
    let example = page.split("```json").nth(1).and_then(|rest| rest.split("```").next()).unwrap();
    let solved = json(&derecho(&["solve", "-"], Some(example)));
    let inches = |value: &Value| value.as_f64().unwrap() / 25.4;
    assert!((inches(&solved["sheets"][0]["centring"]["offset_mm"]) - 0.5).abs() < 1e-9);
    // √((√988 + 0.5)² + 36) − 32 with h₂ = √(32² − 6²) = √988.
    let by_hand = ((988.0_f64.sqrt() + 0.5).powi(2) + 36.0).sqrt() - 32.0;
    assert!((inches(&solved["bar"]["correction"]["recentring"]["change_mm"]) - by_hand).abs() < 1e-9);
}

/// Every field the documentation names is really printed.
#[test]
fn the_documented_results_are_there() {
    let page = document("docs/job-file.md");
    let (_, page) = page.split_once("\n## The results").unwrap();
    let solved = json(&derecho(&["solve", demo("lookout-truck-12").to_str().unwrap()], None));
    let proved = json(&derecho(&["solve", demo("supply-truck-9").to_str().unwrap()], None));
    let scattered = json(&derecho(&["solve", demo("lookout-truck-4").to_str().unwrap()], None));
    let steered = json(&derecho(&["solve", demo("lookout-truck-7").to_str().unwrap()], None));
    let splined = json(&derecho(&["solve", demo("relay-wagon-5").to_str().unwrap()], None));
    let mut named = 0;
    for row in page.lines().filter(|line| line.starts_with("| `")) {
        let first = row.split('|').nth(1).unwrap().split('`').nth(1).unwrap();
        let pointer = format!("/{}", first.replace("[]", "/0").replace('*', "found").replace('.', "/"));
        let results = [&solved, &proved, &scattered, &steered, &splined];
        let found = results.iter().any(|result| result.pointer(&pointer).is_some());
        // What is missing is named only where something is.
        assert!(found || first.ends_with("missing[]"), "{first}");
        named += 1;
    }
    assert!(named >= 26);
    let bar = &solved["bar"];
    for field in ["level_travel_mm", "tight_droop_travel_mm", "tight_bump_travel_mm"] {
        assert!(bar[field].is_number(), "{field}");
    }
}

#[test]
fn the_commands_the_readme_names_are_known() {
    let page = document("README.md");
    let known = String::from_utf8(derecho(&["--help"], None).stdout).unwrap();
    let mut named = 0;
    for line in page.lines().filter_map(|line| line.strip_prefix("derecho ")) {
        let command = line.split_whitespace().next().unwrap();
        assert!(known.contains(&format!("  {command} ")), "{command}");
        named += 1;
    }
    assert!(named >= 6);
}

#[test]
fn a_bay_is_copied_checked_and_put_back() {
    let data = tempfile::tempdir().unwrap();
    let folder = data.path().to_str().unwrap();
    let copy = data.path().join("copy.sqlite3");
    let copy = copy.to_str().unwrap();
    let file = demo("lookout-truck-4");
    let run = |words: &[&str]| {
        let output = std::process::Command::new(env!("CARGO_BIN_EXE_derecho")).args(words).output().unwrap();
        let reported =
            String::from_utf8_lossy(if output.status.success() { &output.stdout } else { &output.stderr });
        (output.status.code().unwrap(), reported.into_owned())
    };
    assert_eq!(run(&["import", file.to_str().unwrap(), "--data", folder]).0, 0);
    assert_eq!(run(&["backup", copy, "--data", folder]).0, 0);
    assert_eq!(run(&["check", "--data", folder]), (0, "OK: 1 jobs, 1 revisions.\n".to_owned()));
    // A second job, then back to the copy: one again, and what was there kept.
    assert_eq!(run(&["import", file.to_str().unwrap(), "--data", folder]).0, 0);
    let (code, reported) = run(&["restore", copy, "--data", folder]);
    assert!(code == 0 && reported.contains("before-restore-1.sqlite3"), "{reported}");
    assert_eq!(run(&["export", "--data", folder]).1.lines().count(), 1);
    let aside = data.path().join("before-restore-1.sqlite3");
    assert_eq!(run(&["check", aside.to_str().unwrap()]), (0, "OK: 2 jobs, 2 revisions.\n".to_owned()));
    // A copy that is no database is told, and nothing is put in place of anything.
    std::fs::write(copy, "no database at all, but long enough to look at ".repeat(60)).unwrap();
    let (code, reported) = run(&["restore", copy, "--data", folder]);
    assert!(code == 1 && reported.contains("not a database"), "{reported}");
    assert_eq!(run(&["check", copy]).0, 1);
}

#[test]
fn card_reminders_log_and_pack_work_on_files_and_on_the_bay() {
    let folder = tempfile::tempdir().unwrap();
    let at = |name: &str| folder.path().join(name).to_str().unwrap().to_owned();
    let data = at("data");
    let card = derecho(&["card", demo("tower-truck-8").to_str().unwrap(), "-o", &at("card.pdf")], None);
    assert!(card.status.success(), "{}", complaint(&card));
    assert!(std::fs::read(at("card.pdf")).unwrap().starts_with(b"%PDF-"));

    let stored = derecho(&["import", demo("ridge-truck-1").to_str().unwrap(), "--data", &data], None);
    let reported = String::from_utf8_lossy(&stored.stdout).into_owned();
    let id = reported.split('\t').next().unwrap();
    let card = derecho(&["card", id, "-o", &at("stored.pdf"), "--paper", "a4", "--data", &data], None);
    assert!(card.status.success(), "{}", complaint(&card));
    let nowhere = derecho(&["card", "nowhere", "-o", &at("no.pdf"), "--data", &data], None);
    assert_eq!(nowhere.status.code(), Some(1));
    assert!(complaint(&nowhere).contains("nowhere"), "{}", complaint(&nowhere));

    let due = derecho(&["reminders", "--data", &data], None);
    let lines: Vec<String> = String::from_utf8_lossy(&due.stdout).lines().map(str::to_owned).collect();
    assert_eq!(lines.len(), 6);
    assert!(
        lines[0].starts_with("2026-11-04\tRidge truck 1: rear tire hit its liner\t")
            && lines.is_sorted_by_key(|line| &line[..10]),
        "{lines:?}"
    );
    assert!(derecho(&["reminders", "--calendar", &at("r.ics"), "--data", &data], None).status.success());
    assert!(std::fs::read_to_string(at("r.ics")).unwrap().starts_with("BEGIN:VCALENDAR"));

    let log = derecho(&["log", "--data", &data], None);
    assert!(String::from_utf8_lossy(&log.stdout).contains("Tightened by feel, bar jam nuts or clamps"));

    // The whole bay as a zip, and in again beside what is there.
    assert!(derecho(&["pack", &at("shop.zip"), "--data", &data], None).status.success());
    let back = derecho(&["import", &at("shop.zip"), "--data", &data], None);
    assert!(back.status.success(), "{}", complaint(&back));
    let jobs = derecho(&["export", "--data", &data], None);
    assert_eq!(String::from_utf8_lossy(&jobs.stdout).matches("Ridge truck 1").count(), 2);
    std::fs::write(at("bad.zip"), "no zip").unwrap();
    let bad = derecho(&["import", &at("bad.zip"), "--data", &data], None);
    assert_eq!(bad.status.code(), Some(2));
    assert!(complaint(&bad).contains("Not a readable zip"), "{}", complaint(&bad));
}

#[test]
fn a_trial_prints_one_object_or_a_table() {
    let reported = |words: &[&str]| {
        let output = derecho(words, None);
        assert!(output.status.success(), "{}", String::from_utf8_lossy(&output.stderr));
        String::from_utf8(output.stdout).unwrap()
    };
    let object: serde_json::Value = serde_json::from_str(&reported(&[
        "trial",
        "--vehicles",
        "20",
        "--seed",
        "9",
        "--hands",
        "hurried",
        "--json",
    ]))
    .unwrap();
    for field in [
        "vehicles",
        "told",
        "within_after_first",
        "within_at_end",
        "made_worse",
        "settled",
        "settled_wrong",
        "thumb_within_after_first",
        "seed",
    ] {
        assert!(object[field].is_u64(), "{field}: {object}");
    }
    assert_eq!(
        (&object["vehicles"], &object["seed"], &object["hands"]),
        (&20.into(), &9.into(), &"hurried".into())
    );
    assert!(object["coverage"].as_f64().is_some_and(|share| (0.0..=1.0).contains(&share)));
    let table = reported(&["trial", "--vehicles", "20", "--rule-of-thumb"]);
    assert!(table.starts_with("20 vehicles, careful measuring, by the rule of thumb, seed 1"), "{table}");
    assert_eq!(derecho(&["trial", "--vehicles", "0"], None).status.code(), Some(2));
}

/// A stand-in says where it is reached; `list` finds it there, `listen` would print what it holds.
#[test]
fn a_stand_in_is_listed() {
    use std::io::{BufRead as _, BufReader};
    let mut stand_in = Command::new(env!("CARGO_BIN_EXE_derecho"))
        .args(["instruments", "simulate", "finder", "--values", "10.8,-2.5"])
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let mut way = String::new();
    BufReader::new(stand_in.stdout.take().unwrap()).read_line(&mut way).unwrap();
    assert!(way.starts_with("tcp:127.0.0.1:"), "{way}");
    let listed = derecho(&["instruments", "list", way.trim()], None);
    stand_in.kill().unwrap();
    stand_in.wait().unwrap();
    let listed = String::from_utf8(listed.stdout).unwrap();
    assert!(listed.contains("finder, good to 0.2 deg") && listed.contains("shows 10.8"), "{listed}");
    let bad = derecho(&["instruments", "simulate", "finder", "--values", "1", "--unit", "mm"], None);
    assert_eq!(bad.status.code(), Some(1));
    assert!(String::from_utf8_lossy(&bad.stderr).contains("does not read in mm"));
}
