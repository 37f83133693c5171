//! The small questions a screen asks while somebody types, against whatever may be typed.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_server::serve::{Settings, launch_with_listener};
use proptest::prelude::*;
use proptest::test_runner::{Config, TestRunner};
use reqwest::Client;
use serde_json::Value;
use tokio::net::TcpListener;
use tokio::runtime::Runtime;

/// A server of its own and a client, for many questions.
struct Asked {
    runtime: Runtime,
    address: String,
    client: Client,
    _data: tempfile::TempDir,
}

impl Asked {
    fn new() -> Self {
        let runtime = Runtime::new().unwrap();
        let data = tempfile::tempdir().unwrap();
        let settings = Settings::new(data.path().to_owned(), false);
        let address = runtime.block_on(async {
            let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
            let address = format!("http://{}", listener.local_addr().unwrap());
            tokio::spawn(launch_with_listener(settings, listener, std::future::pending()));
            address
        });
        Self { runtime, address, client: Client::new(), _data: data }
    }

    /// Status and body of an answer.
    fn ask(&self, path: &str, query: &[(&str, &str)]) -> (u16, Value) {
        self.runtime.block_on(async {
            let url = reqwest::Url::parse_with_params(&format!("{}{path}", self.address), query).unwrap();
            let answer = self.client.get(url).send().await.unwrap();
            (answer.status().as_u16(), answer.json().await.unwrap())
        })
    }

    fn sound(&self, path: &str, query: &[(&str, &str)]) -> Result<(u16, Value), TestCaseError> {
        let (status, body) = self.ask(path, query);
        match status {
            200 => prop_assert!(body.is_object()),
            400 | 422 => {
                prop_assert_eq!(&body["status"], &Value::from(status));
                prop_assert!(body["code"].is_string() && body["detail"].is_string(), "{body}");
            }
            other => prop_assert!(false, "{other} for {query:?}"),
        }
        Ok((status, body))
    }
}

fn runner(cases: u32) -> TestRunner {
    TestRunner::new(Config { cases, failure_persistence: None, ..Config::default() })
}

fn kind() -> impl Strategy<Value = &'static str> {
    prop::sample::select(vec!["angle", "weight", "spring_rate", "roll_rate", "thread", "colour", ""])
}

#[test]
fn whatever_is_typed_as_a_figure_is_read_or_refused_with_what_to_type() {
    let server = Asked::new();
    runner(120)
        .run(&(kind(), "\\PC{0,20}"), |(kind, text)| {
            server.sound("/api/v1/figure", &[("kind", kind), ("text", &text)]).map(drop)
        })
        .unwrap();
}

#[test]
fn a_figure_with_its_unit_is_reported_back_in_both() {
    let server = Asked::new();
    runner(60)
        .run(&(1_u32..20_000, any::<bool>()), |(count, metric)| {
            let unit = if metric { "kg" } else { "lb" };
            let (status, body) = server
                .sound("/api/v1/figure", &[("kind", "weight"), ("text", &format!("{count} {unit}"))])?;
            let kilograms = f64::from(count) * if metric { 1.0 } else { 0.453_592_37 };
            if kilograms < 1.0 {
                prop_assert!(body["wrong"].is_object() && body["says"].is_null());
                return Ok(());
            }
            prop_assert_eq!(status, 200);
            // To the pound; to half of a tenth or of a whole kilogram.
            let number =
                |text: &Value| -> f64 { text.as_str().unwrap().split(' ').next().unwrap().parse().unwrap() };
            prop_assert!((number(&body["says"]["in"]) - kilograms / 0.453_592_37).abs() <= 0.5001);
            prop_assert!((number(&body["says"]["mm"]) - kilograms).abs() <= 0.5001);
            Ok(())
        })
        .unwrap();
}

#[test]
fn whatever_is_typed_as_a_length_is_read_or_marked_inside_the_text() {
    let server = Asked::new();
    runner(120)
        .run(&("[0-9 /.,'\"½inmcft+-]{0,16}", any::<bool>()), |(text, inches)| {
            let unit = if inches { "in" } else { "mm" };
            let (status, body) = server.sound("/api/v1/tape", &[("unit", unit), ("text", &text)])?;
            prop_assert_eq!(status, 200);
            if body["wrong"].is_object() {
                let place = &body["wrong"];
                let (start, end) = (place["start"].as_u64().unwrap(), place["end"].as_u64().unwrap());
                let long = text.chars().count() as u64;
                prop_assert!(start <= end && end <= long.max(1), "{place} in {text:?}");
            } else {
                prop_assert!(body["read"]["mm"].is_number());
            }
            Ok(())
        })
        .unwrap();
}
