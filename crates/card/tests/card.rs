//! The card read back by another reader of PDFs: pages, their size, their words, the check rule in millimetres.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_card::{Paper, card};
use derecho_job::Job;
use lopdf::content::Content;
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
        let at: Vec<f64> = operation
            .operands
            .iter()
            .filter(|operand| matches!(operand, Object::Integer(_) | Object::Real(_)))
            .map(number)
            .collect();
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
    let told = bare(&words);
    for step in &plan.steps {
        assert!(told.contains(&bare(&step.does.inches)), "{} in {words}", step.does.inches);
    }
    for wanted in
        ["Tower truck 8", "120 lb-ft (163 N·m)", "left front wheel", "Stands under the frame", "wrench said"]
    {
        assert!(told.contains(&bare(wanted)), "{wanted} in {words}");
    }
    // Its bracket is drilled: a page of its own for the template, with the holes' names.
    let last = *document.get_pages().keys().last().unwrap();
    let template = document.extract_text(&[last]).unwrap();
    assert!(template.contains("hole 3 (-4)"), "{template}");
}

#[test]
fn the_same_job_gives_the_same_bytes() {
    assert_eq!(card(&job(TOWER), Paper::A4).unwrap(), card(&job(TOWER), Paper::A4).unwrap());
    let mut other = job(TOWER);
    other.title.push('a');
    assert_ne!(card(&job(TOWER), Paper::A4).unwrap(), card(&other, Paper::A4).unwrap());
}

/// The hole drilled 4 in below the old one is printed 4 in below it: circles of the template lie so far apart.
#[test]
fn a_template_is_printed_at_one_to_one() {
    let document = read(&job(TOWER), Paper::Letter);
    let last = *document.get_pages().keys().last().unwrap();
    let id = document.get_pages()[&last];
    let content = Content::decode(&document.get_page_content(id)).unwrap();
    // A circle is the only thing drawn with curves: it begins at its rightmost point.
    let mut starts = Vec::new();
    let mut from = (0.0, 0.0);
    for pair in content.operations.windows(2) {
        if pair[0].operator == "m" {
            from = (number(&pair[0].operands[0]), number(&pair[0].operands[1]));
            if pair[1].operator == "c" {
                starts.push(from);
            }
        }
    }
    let _ = from;
    let down: Vec<f64> = starts.iter().map(|(_, y)| y - starts[0].1).collect();
    // In millimetres, down the page: the old hole, then 2, 3 and 4 in below it.
    for (told, inches) in down.iter().zip([0.0, 2.0, 3.0, 4.0]) {
        assert!((told.abs() - inches * 25.4).abs() < 0.01, "{down:?}");
    }
    assert_eq!(down.len(), 4, "{down:?}");
}

#[test]
fn a_job_without_anything_still_has_its_card() {
    let document = read(&Job::new("Empty \u{6728} job"), Paper::A4);
    assert_eq!(document.get_pages().len(), 1);
    assert!(words(&document).contains("Empty ? job"));
}
