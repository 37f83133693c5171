//! The shop as a whole: card and calendar of a job, the log as a table, all jobs out as a zip and in again.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::io::{Cursor, Read, Write};

use derecho_server::serve::{Settings, launch_with_listener};
use reqwest::{Client, Response, StatusCode};
use serde_json::{Value, json};
use tempfile::TempDir;
use tokio::net::TcpListener;
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

struct Shop {
    address: String,
    client: Client,
    _data: TempDir,
}

impl Shop {
    async fn open(demo: bool) -> Self {
        let data = tempfile::tempdir().unwrap();
        let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
        let address = format!("http://{}", listener.local_addr().unwrap());
        let settings = Settings::new(data.path().to_owned(), demo);
        tokio::spawn(launch_with_listener(settings, listener, std::future::pending()));
        Self { address, client: Client::new(), _data: data }
    }

    async fn get(&self, path: &str) -> Response {
        self.client.get(format!("{}{path}", self.address)).send().await.unwrap()
    }

    async fn json(&self, path: &str) -> Value {
        let answer = self.get(path).await;
        assert_eq!(answer.status(), StatusCode::OK, "{path}");
        answer.json().await.unwrap()
    }

    async fn take_in(&self, zip: Vec<u8>) -> Response {
        let request = self.client.post(format!("{}/api/v1/shop.zip", self.address));
        request.header("Content-Type", "application/zip").body(zip).send().await.unwrap()
    }
}

fn zip(files: &[(&str, &str)]) -> Vec<u8> {
    let mut writer = ZipWriter::new(Cursor::new(Vec::new()));
    for (name, text) in files {
        writer.start_file(*name, SimpleFileOptions::default()).unwrap();
        writer.write_all(text.as_bytes()).unwrap();
    }
    writer.finish().unwrap().into_inner()
}

#[tokio::test]
async fn a_card_comes_in_both_papers_and_refuses_a_third() {
    let shop = Shop::open(true).await;
    let size = |bytes: &[u8]| {
        let text = String::from_utf8_lossy(bytes);
        let at = text.find("/MediaBox").unwrap();
        text[at..].chars().take_while(|c| *c != ']').collect::<String>()
    };
    let of = async |query: &str| {
        let answer = shop.get(&format!("/api/v1/jobs/tower-truck-8/card.pdf{query}")).await;
        assert_eq!(answer.headers()["content-type"], "application/pdf");
        answer.bytes().await.unwrap()
    };
    // 210 by 297 mm are 595.28 by 841.89 points; 8 1/2 by 11 in are 612 by 792.
    assert!(size(&of("?paper=a4").await).contains("595.27"), "{}", size(&of("?paper=a4").await));
    assert!(size(&of("?paper=letter").await).contains("612 792"), "{}", size(&of("?paper=letter").await));
    assert_eq!(of("").await, of("?paper=letter").await, "inches are printed on Letter");
    let third = shop.get("/api/v1/jobs/tower-truck-8/card.pdf?paper=napkin").await;
    assert_eq!(third.status(), StatusCode::BAD_REQUEST);
    assert_eq!(shop.get("/api/v1/jobs/nowhere/card.pdf").await.status(), StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn a_calendar_is_read_by_another_parser() {
    let shop = Shop::open(true).await;
    let answer = shop.get("/api/v1/jobs/ridge-truck-1/reminders.ics").await;
    assert!(answer.headers()["content-type"].to_str().unwrap().starts_with("text/calendar"));
    let text = answer.text().await.unwrap();
    let read: Vec<_> = ical::IcalParser::new(text.as_bytes()).map(Result::unwrap).collect();
    // By feel, first day, fifty miles, two weeks, five hundred, the jam nut that is there for a while.
    assert_eq!(read[0].events.len(), 6);
    assert!(read[0].events.iter().all(|event| event.alarms.len() == 2));
    // A job without work has no days, and its calendar is empty but sound.
    let empty = shop.get("/api/v1/jobs/lookout-truck-4/reminders.ics").await.text().await.unwrap();
    assert_eq!(ical::IcalParser::new(empty.as_bytes()).map(Result::unwrap).next().unwrap().events.len(), 0);
}

#[tokio::test]
async fn the_log_is_looked_through_and_written_as_a_table() {
    let shop = Shop::open(true).await;
    let all = shop.json("/api/v1/log").await;
    let total = all["total"].as_u64().unwrap();
    assert!(total > 20, "{total}");
    let times: Vec<&str> =
        all["lines"].as_array().unwrap().iter().filter_map(|line| line["entry"]["at"].as_str()).collect();
    assert!(times.is_sorted_by(|a, b| a >= b), "newest first: {times:?}");
    let defects = shop.json("/api/v1/log?kind=defect").await;
    assert!(defects["lines"].as_array().unwrap().iter().all(|line| line["entry"]["kind"] == "defect"));
    assert_eq!(defects["total"], 1, "{defects}");
    let found = shop.json("/api/v1/log?search=PATROL%20truck%2014&kind=torque").await;
    assert!(
        found["lines"]
            .as_array()
            .unwrap()
            .iter()
            .all(|line| line["title"].as_str().unwrap().starts_with("Patrol truck 14"))
    );
    assert_eq!(found["total"], 6);

    let text = shop.get("/api/v1/log.csv").await.text().await.unwrap();
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    let columns: Vec<String> = reader.headers().unwrap().iter().map(str::to_owned).collect();
    let rows: Vec<csv::StringRecord> = reader.records().map(Result::unwrap).collect();
    assert_eq!(rows.len() as u64, total);
    // The table says what the page says, line by line, in both units.
    let at = |name: &str| columns.iter().position(|column| column == name).unwrap();
    for (row, line) in rows.iter().zip(all["lines"].as_array().unwrap()) {
        assert_eq!(&row[at("inches")], line["entry"]["says"]["in"].as_str().unwrap());
        assert_eq!(&row[at("millimetres")], line["entry"]["says"]["mm"].as_str().unwrap());
        assert_eq!(&row[at("title")], line["title"].as_str().unwrap());
    }
}

#[tokio::test]
async fn a_cell_that_would_be_a_formula_is_none() {
    let shop = Shop::open(false).await;
    let job = json!({ "format": "derecho-job", "version": 7, "title": "=1+1",
        "proof": { "defects": "@SUM(A1)", "by": "+x" } });
    assert_eq!(shop.take_in(zip(&[("a.derecho.json", &job.to_string())])).await.status(), StatusCode::OK);
    let text = shop.get("/api/v1/log.csv").await.text().await.unwrap();
    assert!(text.contains(",'=1+1,") && text.contains(",'@SUM(A1)") && text.contains(",'+x,"), "{text}");
}

/// Every job comes out and goes into an empty shop as it was.
#[tokio::test]
async fn a_whole_shop_goes_out_and_in() {
    let (from, to) = (Shop::open(true).await, Shop::open(false).await);
    let packed = from.get("/api/v1/shop.zip").await;
    assert_eq!(packed.headers()["content-type"], "application/zip");
    let packed = packed.bytes().await.unwrap().to_vec();
    let mut archive = ZipArchive::new(Cursor::new(&packed)).unwrap();
    let mut out: Vec<Value> = Vec::new();
    let mut records = 0;
    for index in 0..archive.len() {
        let mut file = archive.by_index(index).unwrap();
        // Beside the job file of a closed job lies its record.
        if file.name().ends_with(".record.pdf") {
            let mut bytes = Vec::new();
            file.read_to_end(&mut bytes).unwrap();
            assert!(bytes.starts_with(b"%PDF"));
            records += 1;
            continue;
        }
        let mut text = String::new();
        file.read_to_string(&mut text).unwrap();
        out.push(serde_json::from_str(&text).unwrap());
    }
    let closed = out.iter().filter(|job| job["settled"].is_object()).count();
    assert!(closed > 0 && records == closed, "{records} records of {closed} closed jobs");
    assert_eq!(to.take_in(packed).await.json::<Value>().await.unwrap()["added"], out.len());
    let listed = to.json("/api/v1/jobs?limit=100").await;
    assert_eq!(listed["total"], out.len());
    for line in listed["jobs"].as_array().unwrap() {
        let stored = to.json(&format!("/api/v1/jobs/{}", line["id"].as_str().unwrap())).await;
        let twin = out.iter().find(|job| job["title"] == stored["document"]["title"]).unwrap();
        assert_eq!(&stored["document"], twin);
    }
}

#[tokio::test]
async fn a_bad_file_in_a_zip_is_named_and_nothing_comes_in() {
    let shop = Shop::open(false).await;
    let good = json!({ "format": "derecho-job", "version": 7, "title": "Good" }).to_string();
    let bad =
        json!({ "format": "derecho-job", "version": 7, "title": "", "rig": { "lift": "much" } }).to_string();
    let answer = shop
        .take_in(zip(&[
            ("good.derecho.json", &good),
            ("bad.derecho.json", &bad),
            ("worse.derecho.json", "{"),
        ]))
        .await;
    assert_eq!(answer.status(), StatusCode::UNPROCESSABLE_ENTITY);
    let problem: Value = answer.json().await.unwrap();
    assert_eq!(problem["code"], "bad_fields");
    let places: Vec<&str> =
        problem["errors"].as_array().unwrap().iter().filter_map(|fault| fault["pointer"].as_str()).collect();
    assert!(places.iter().any(|place| place.starts_with("/bad.derecho.json/rig/lift")), "{places:?}");
    assert!(places.contains(&"/worse.derecho.json"), "{places:?}");
    assert_eq!(shop.json("/api/v1/jobs").await["total"], 0);

    // What is no zip, or has no job in it, says so.
    let answer: Value = shop.take_in(b"not a zip".to_vec()).await.json().await.unwrap();
    assert_eq!(answer["code"], "not_a_zip");
    let answer: Value = shop.take_in(zip(&[("read me.txt", "hello")])).await.json().await.unwrap();
    assert_eq!(answer["code"], "no_jobs");
    // Elsewhere a zip is refused before it is read.
    let elsewhere = shop.client.post(format!("{}/api/v1/jobs", shop.address));
    let answer = elsewhere.header("Content-Type", "application/zip").body(zip(&[])).send().await.unwrap();
    assert_eq!(answer.status(), StatusCode::UNSUPPORTED_MEDIA_TYPE);
}

/// The chart of the front job takes the rear axle from the rear's own job while it is there, and says so; a document
/// sent without saying whose it is stands alone.
#[tokio::test]
async fn sway_takes_the_other_axle_from_its_own_job() {
    let shop = Shop::open(true).await;
    let document = shop.json("/api/v1/jobs/lookout-truck-7").await["document"].clone();
    let sway = async |query: &str| -> Value {
        let request = shop.client.post(format!("{}/api/v1/compute/sway{query}", shop.address));
        let answer = request.json(&document).send().await.unwrap();
        assert_eq!(answer.status(), StatusCode::OK);
        answer.json().await.unwrap()
    };
    let alone = sway("").await;
    assert_eq!(alone["other_end"], Value::Null);
    let beside = sway("?job=lookout-truck-7").await;
    let figures = beside["other_end"]["figures"].as_array().unwrap();
    assert!(beside["other_end"]["says"]["in"].as_str().unwrap().contains("own job"));
    let rear = shop.json("/api/v1/jobs/lookout-truck-7-rear").await;
    let track = figures.iter().find(|figure| figure["pointer"] == "/vehicle/other_track").unwrap();
    assert!(
        track["there"]
            .as_str()
            .unwrap()
            .starts_with(rear["document"]["rig"]["track"]["text"].as_str().unwrap())
    );
    let assumed = |sway: &Value| sway["assumptions"].as_array().unwrap().len();
    assert!(assumed(&beside) < assumed(&alone));
    // What the arms and links of this axle do is none of the other axle's business.
    assert_eq!(beside["links"], alone["links"]);
    // Nobody stands beside oneself.
    assert_eq!(sway("?job=lookout-truck-7-rear").await["other_end"], alone["other_end"]);
}
