//! The card read back by another reader of PDFs: pages, their size, their words, the check rule in millimetres.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_card::{Paper, card};
use derecho_job::Job;
use derecho_words::Spoken as _;
use lopdf::content::{Content, Operation};
use lopdf::{Document, Object};

const TOWER: &str = include_str!("../../../demo/tower-truck-8.derecho.json");

fn job(text: &str) -> Job {
    serde_json::from_str(text).unwrap()
}

fn read(job: &Job, paper: Paper) -> Document {
    Document::load_mem(&card(job, paper).unwrap()).unwrap()
}

fn number(object: &Object) -> f64 {
    match object {
        Object::Integer(value) => *value as f64,
        other => f64::from(other.as_float().unwrap()),
    }
}

/// What stands before an operator, as far as it is figures.
fn figures(operation: &Operation) -> Vec<f64> {
    let figures = operation.operands.iter();
    figures.filter(|operand| matches!(operand, Object::Integer(_) | Object::Real(_))).map(number).collect()
}

/// Width and height of each page, mm.
fn sizes(document: &Document) -> Vec<(f64, f64)> {
    document
        .get_pages()
        .values()
        .map(|page| {
            let found = document.get_dictionary(*page).unwrap();
            let edges: Vec<f64> =
                found.get(b"MediaBox").unwrap().as_array().unwrap().iter().map(number).collect();
            let mm = |points: f64| points * 25.4 / 72.0;
            (mm(edges[2] - edges[0]), mm(edges[3] - edges[1]))
        })
        .collect()
}

fn words(document: &Document) -> String {
    let pages: Vec<u32> = document.get_pages().keys().copied().collect();
    document.extract_text(&pages).unwrap().replace('\n', " ")
}

/// Straight level lines of a page, each its length in points, by walking its operators.
fn level_lines(document: &Document, page: u32) -> Vec<f64> {
    let id = document.get_pages()[&page];
    let content = Content::decode(&document.get_page_content(id)).unwrap();
    let (mut scale, mut saved) = (1.0, Vec::new());
    let mut from = (0.0, 0.0);
    let mut lines = Vec::new();
    for operation in &content.operations {
        let at = figures(operation);
        match operation.operator.as_str() {
            "q" => saved.push(scale),
            "Q" => scale = saved.pop().unwrap(),
            "cm" => scale *= at[0],
            "m" => from = (at[0], at[1]),
            "l" => {
                if (at[1] - from.1).abs() < 1e-6 {
                    lines.push((at[0] - from.0).abs() * scale);
                }
                from = (at[0], at[1]);
            }
            _ => {}
        }
    }
    lines
}

#[test]
fn pages_have_the_size_of_the_paper() {
    let near = |(w, h): (f64, f64), (x, y): (f64, f64)| (w - x).abs() < 0.01 && (h - y).abs() < 0.01;
    let a4 = sizes(&read(&job(TOWER), Paper::A4));
    assert!(a4.iter().all(|size| near(*size, (210.0, 297.0))), "{a4:?}");
    let letter = sizes(&read(&job(TOWER), Paper::Letter));
    assert!(letter.iter().all(|size| near(*size, (8.5 * 25.4, 11.0 * 25.4))), "{letter:?}");
}

/// On every page one line is 100 mm long: 283.46 points.
#[test]
fn the_check_rule_is_a_hundred_millimetres() {
    let document = read(&job(TOWER), Paper::A4);
    for page in document.get_pages().keys() {
        let lines = level_lines(&document, *page);
        assert!(
            lines.iter().any(|points| (points - 100.0 * 72.0 / 25.4).abs() < 0.01),
            "page {page}: {lines:?}"
        );
    }
}

#[test]
fn everything_that_is_done_stands_on_it() {
    let job = job(TOWER);
    let document = read(&job, Paper::Letter);
    let words = words(&document);
    let plan = derecho_job::results::work(&job);
    assert!(plan.steps.len() > 15);
    let bare = |text: &str| text.chars().filter(|letter| letter.is_alphanumeric()).collect::<String>();
    let reported = bare(&words);
    for step in &plan.steps {
        assert!(reported.contains(&bare(&step.does.inches())), "{} in {words}", step.does.inches());
        // Once, in the units of the job.
        let (inches, other) = (step.does.inches(), step.does.millimetres());
        assert!(inches == other || !reported.contains(&bare(&other)), "{other} in {words}");
    }
    for wanted in [
        "Tower truck 8",
        "120 lb-ft (163 N·m)",
        "left front wheel",
        "Jack stands under the frame",
        "torqued to",
    ] {
        assert!(reported.contains(&bare(wanted)), "{wanted} in {words}");
    }
    // Its bracket is drilled: a page of its own for the template, with the holes' names.
    let last = *document.get_pages().keys().last().unwrap();
    let template = document.extract_text(&[last]).unwrap();
    assert!(template.contains("hole 3 (-4 in)"), "{template}");
}

#[test]
fn the_same_job_gives_the_same_bytes() {
    assert_eq!(card(&job(TOWER), Paper::A4).unwrap(), card(&job(TOWER), Paper::A4).unwrap());
    let mut other = job(TOWER);
    other.title.push('a');
    assert_ne!(card(&job(TOWER), Paper::A4).unwrap(), card(&other, Paper::A4).unwrap());
}

/// Middles of the circles of a page, mm, y up the page: every matrix on the way is taken.
fn circles(document: &Document, page: u32) -> Vec<(f64, f64)> {
    type Matrix = [f64; 6];
    let apply = |m: &Matrix, (x, y): (f64, f64)| (m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]);
    let content = Content::decode(&document.get_page_content(document.get_pages()[&page])).unwrap();
    let (mut matrix, mut saved): (Matrix, Vec<Matrix>) = ([1.0, 0.0, 0.0, 1.0, 0.0, 0.0], Vec::new());
    // A circle is the only thing drawn with curves alone: its middle is that of its box.
    let mut path: Vec<(f64, f64)> = Vec::new();
    let mut curves = 0;
    let mut found = Vec::new();
    for operation in &content.operations {
        let at = figures(operation);
        match operation.operator.as_str() {
            "q" => saved.push(matrix),
            "Q" => matrix = saved.pop().unwrap(),
            "cm" => {
                let [a, b, c, d, e, f] = [at[0], at[1], at[2], at[3], at[4], at[5]];
                let (x, y) = (apply(&matrix, (a, b)), apply(&matrix, (c, d)));
                let (o, t) = (apply(&matrix, (0.0, 0.0)), apply(&matrix, (e, f)));
                matrix = [x.0 - o.0, x.1 - o.1, y.0 - o.0, y.1 - o.1, t.0, t.1];
            }
            "m" => {
                path = vec![apply(&matrix, (at[0], at[1]))];
                curves = 0;
            }
            "c" => {
                path.push(apply(&matrix, (at[4], at[5])));
                curves += 1;
            }
            "l" => path.push(apply(&matrix, (at[0], at[1]))),
            "S" | "s" | "f" | "B" if curves >= 4 && path.len() == curves + 1 => {
                let middle = |of: fn(&(f64, f64)) -> f64| {
                    let (low, high) = path
                        .iter()
                        .map(of)
                        .fold((f64::MAX, f64::MIN), |(low, high), v| (low.min(v), high.max(v)));
                    (low + high) / 2.0 * 25.4 / 72.0
                };
                found.push((middle(|p| p.0), middle(|p| p.1)));
            }
            _ => {}
        }
    }
    found
}

/// The holes of the bracket are printed where the part has them: 2, 3 and 4 in below the old one, and none above it.
#[test]
fn a_template_is_printed_at_one_to_one_and_the_right_way_up() {
    let document = read(&job(TOWER), Paper::Letter);
    let last = *document.get_pages().keys().last().unwrap();
    let found = circles(&document, last);
    assert_eq!(found.len(), 4, "{found:?}");
    for ((x, y), inches) in found.iter().zip([0.0, -2.0, -3.0, -4.0]) {
        assert!((y - found[0].1 - inches * 25.4).abs() < 0.01, "{found:?}");
        assert!((x - found[0].0).abs() < 0.01, "{found:?}");
    }
}

/// A step that tightens two bolts has both of them on the card, each with its torque.
#[test]
fn a_step_of_two_fasteners_has_both_on_the_card() {
    let bare = |text: &str| text.chars().filter(|letter| letter.is_alphanumeric()).collect::<String>();
    for text in [TOWER, include_str!("../../../demo/ridge-truck-1.derecho.json")] {
        let job = job(text);
        let reported = bare(&words(&read(&job, Paper::Letter)));
        let work = derecho_job::results::work(&job);
        let of_steps: Vec<&String> = work.steps.iter().flat_map(|step| &step.tightens).collect();
        assert!(!of_steps.is_empty());
        for key in of_steps {
            let line = work.fasteners.iter().find(|line| line.key == *key).unwrap();
            // As often as there are steps that tighten it.
            let wanted = bare(&format!("{}{}", line.name.inches(), line.torque_says.inches()));
            let bolt = bare(&line.name.inches());
            assert!(reported.contains(&bolt), "{}", line.name.inches());
            assert!(
                wanted.len() > bolt.len() && reported.contains(&bare(&line.torque_says.inches())),
                "{wanted}"
            );
        }
    }
}

#[test]
fn a_job_without_anything_still_has_its_card() {
    let document = read(&Job::new("Empty \u{6728} job"), Paper::A4);
    assert_eq!(document.get_pages().len(), 1);
    assert!(words(&document).contains("Empty ? job"));
}

/// What a job is closed over is on its card, safety first, with why, by whom and when.
#[test]
fn what_was_accepted_is_printed_safety_first() {
    let mut value: serde_json::Value = serde_json::from_str(TOWER).unwrap();
    value["complaints"] = serde_json::json!([{ "text": "it hums", "after": "same" }]);
    value["proof"]["road"] =
        serde_json::json!([{ "step": "swerve", "result": "stopped", "note": "leaned too far" }]);
    let open = derecho_results::solve(&job(&value.to_string())).findings;
    let accepted = |starts: &str| {
        let found = open.iter().find(|found| found.key.starts_with(starts)).unwrap();
        serde_json::json!({ "key": found.key, "said": found.says.inches(), "because": format!("agreed, {starts}"),
            "by": "Edda", "at": "2026-11-21T15:00:00Z" })
    };
    value["proof"]["acceptances"] = serde_json::json!([
        accepted("complaint_same"),
        accepted("road/"),
        { "key": "all_that_was_open", "because": "the owner takes it as it is", "by": "R. Holt" }
    ]);
    let said = words(&read(&job(&value.to_string()), Paper::A4));
    let at = |part: &str| said.find(part).unwrap_or_else(|| panic!("{part} in {said}"));
    assert!(at("Left open, and accepted") < at("Safety:"));
    assert!(
        at("Accepted: agreed, road/ (Edda, 2026-11-21)")
            < at("Accepted: agreed, complaint_same (Edda, 2026-11-21)")
    );
    assert!(at("by an earlier version") < at("Accepted: the owner takes it as it is (R. Holt)"));
    let none = words(&read(&job(TOWER), Paper::A4));
    assert!(!none.contains("Left open, and accepted"));
}
