//! The record of a closed job read back by another reader of PDFs: one page, with what the customer asks for.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_card::{Paper, record};
use derecho_job::Job;
use lopdf::Document;
use serde_json::Value;

const RIDGE: &str = include_str!("../../../demo/ridge-truck-1.derecho.json");
const PATROL: &str = include_str!("../../../demo/patrol-truck-14.derecho.json");
const TOWER: &str = include_str!("../../../demo/tower-truck-8.derecho.json");

fn job(text: &str) -> Job {
    serde_json::from_str(text).unwrap()
}

fn read(job: &Job, paper: Paper) -> Document {
    Document::load_mem(&record(job, paper).unwrap().unwrap()).unwrap()
}

/// Letters and figures alone: where a line breaks is the paper's.
fn bare(text: &str) -> String {
    text.chars().filter(|letter| letter.is_alphanumeric()).collect()
}

fn words(document: &Document) -> String {
    let pages: Vec<u32> = document.get_pages().keys().copied().collect();
    bare(&document.extract_text(&pages).unwrap())
}

/// Nothing is read off the program's own sentences: what must stand on it is typed in the job file.
#[test]
fn what_was_typed_stands_on_it() {
    for text in [RIDGE, PATROL] {
        let typed: Value = serde_json::from_str(text).unwrap();
        for paper in [Paper::A4, Paper::Letter] {
            let document = read(&job(text), paper);
            assert_eq!(document.get_pages().len(), 1, "one page for the customer");
            let words = words(&document);
            let mut wanted = vec![typed["title"].as_str().unwrap().to_owned()];
            for complaint in typed["complaints"].as_array().unwrap() {
                wanted.push(complaint["text"].as_str().unwrap().to_owned());
            }
            for fastener in typed["bolt_up"]["fasteners"].as_array().into_iter().flatten() {
                let by = fastener["tight"]["done"]["by"].as_str().unwrap_or_default();
                wanted
                    .extend([by, fastener["tight"]["tool"].as_str().unwrap_or_default()].map(str::to_owned));
            }
            wanted.push(typed["settled"]["at"].as_str().unwrap()[..10].to_owned());
            for wanted in wanted {
                assert!(words.contains(&bare(&wanted)), "{wanted} in {words}");
            }
        }
    }
}

/// Before and after, of both sides: the means of what was typed, in the job's own unit.
#[test]
fn both_sides_stand_on_it_before_and_after() {
    let mut value: Value = serde_json::from_str(PATROL).unwrap();
    let sides = |left: &str, right: &str| {
        let read = |text: &str| vec![serde_json::json!({ "text": text, "unit": "mm" }); 3];
        (read(left), read(right))
    };
    let count = value["sheets"].as_array().unwrap().len();
    for (place, (left, right)) in [(0, sides("171", "149")), (count - 1, sides("160.5", "159.5"))] {
        value["sheets"][place]["left"] = serde_json::json!(left);
        value["sheets"][place]["right"] = serde_json::json!(right);
    }
    let words = words(&read(&serde_json::from_value(value).unwrap(), Paper::A4));
    assert!(words.contains("Beforeleft171mmright149mm"), "{words}");
    assert!(words.contains("Afterleft1605mmright1595mm"), "{words}");
    // It is another job than the one that was closed, and says so.
    assert!(words.contains("Changedsinceitwasclosed"), "{words}");
}

#[test]
fn an_open_job_has_none() {
    assert!(record(&job(TOWER), Paper::A4).unwrap().is_none());
}
