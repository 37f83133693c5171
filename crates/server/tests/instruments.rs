//! Instruments over HTTP: joined, asked, their readings as events, the log; and the practice bay beside the real one.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::time::Duration;

use derecho_instruments::instrument::{Kind, Unit};
use derecho_instruments::simulator::StandIn;
use derecho_server::serve::{Settings, launch_with_listener};
use reqwest::{Client, Response, StatusCode};
use serde_json::{Value, json};
use tempfile::TempDir;
use tokio::net::TcpListener;
use tokio::sync::oneshot;
use tokio::task::JoinHandle;

struct Shop {
    address: String,
    client: Client,
    stop: oneshot::Sender<()>,
    running: JoinHandle<()>,
    _data: TempDir,
}

impl Shop {
    async fn open() -> Self {
        let data = tempfile::tempdir().unwrap();
        let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
        let address = format!("http://{}/api/v1", listener.local_addr().unwrap());
        let settings = Settings::new(data.path().to_owned(), false);
        let (stop, stopped) = oneshot::channel::<()>();
        let running = tokio::spawn(async move {
            launch_with_listener(settings, listener, async { drop(stopped.await) }).await.unwrap();
        });
        Self { address, client: Client::new(), stop, running, _data: data }
    }

    async fn get(&self, path: &str) -> Response {
        self.client.get(format!("{}{path}", self.address)).send().await.unwrap()
    }

    async fn post(&self, path: &str, body: &Value) -> Response {
        self.client.post(format!("{}{path}", self.address)).json(body).send().await.unwrap()
    }

    async fn json(&self, path: &str) -> Value {
        let answer = self.get(path).await;
        assert_eq!(answer.status(), StatusCode::OK, "{path}");
        answer.json().await.unwrap()
    }
}

async fn problem(answer: Response, status: u16, code: &str) -> Value {
    assert_eq!(answer.status(), status);
    assert_eq!(answer.headers()["content-type"], "application/problem+json");
    let reported: Value = answer.json().await.unwrap();
    assert_eq!(reported["code"], code, "{reported}");
    reported
}

/// The data of the next event of a name; None once the stream has ended.
async fn event(stream: &mut Response, left: &mut String, name: &str) -> Option<Value> {
    let until = tokio::time::Instant::now() + Duration::from_secs(20);
    loop {
        while let Some(end) = left.find("\n\n") {
            let block: String = left.drain(..end + 2).collect();
            let field =
                |wanted: &str| block.lines().find_map(|line| line.strip_prefix(wanted).map(str::to_owned));
            if field("event: ").as_deref() == Some(name) {
                return Some(serde_json::from_str(&field("data: ").unwrap()).unwrap());
            }
        }
        let chunk = tokio::time::timeout_at(until, stream.chunk()).await.expect("an event in time");
        left.push_str(std::str::from_utf8(&chunk.ok()??).unwrap());
    }
}

async fn stand_in(kind: Kind, unit: Unit, values: &[f64]) -> String {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let way = format!("tcp:{}", listener.local_addr().unwrap());
    let one = StandIn::of(kind, unit, values.to_vec());
    tokio::spawn(async move { one.serve(&listener).await });
    way
}

#[tokio::test]
async fn readings_come_as_events_and_the_stream_ends_with_the_server() {
    let shop = Shop::open().await;
    let way = stand_in(Kind::Tape, Unit::Inches, &[6.375, 5.625]).await;
    let mut stream = shop.get("/instruments/events").await;
    assert_eq!(stream.headers()["content-type"], "text/event-stream");
    let mut left = String::new();
    let first = event(&mut stream, &mut left, "shelf").await.unwrap();
    assert_eq!(first, json!({ "ways": [], "instruments": [] }));
    assert_eq!(shop.post("/instruments", &json!({ "way": way })).await.status(), StatusCode::OK);
    loop {
        let registry = event(&mut stream, &mut left, "shelf").await.unwrap();
        if registry["instruments"][0]["live"]["value"] == 6.375 {
            break;
        }
    }
    for (value, text) in [(6.375, "6.375 in"), (5.625, "5.625 in")] {
        let asked = shop.post("/instruments/practice%20tape/ask", &json!({})).await;
        assert_eq!(asked.status(), StatusCode::NO_CONTENT);
        let held = event(&mut stream, &mut left, "held").await.unwrap();
        assert_eq!((&held["reading"]["value"], &held["text"]), (&json!(value), &json!(text)));
        let took = json!({ "held": held, "job": "lookout-truck-7", "field": "/sheets/0/left/0" });
        assert_eq!(shop.post("/instruments/log", &took).await.status(), StatusCode::NO_CONTENT);
    }
    let log = shop.json("/instruments/log").await;
    assert_eq!((&log[0]["reading"], &log[1]["reading"]), (&json!("5.625 in"), &json!("6.375 in")));
    assert_eq!(log[0]["instrument"], "practice tape");
    // A stream that is open does not keep the program from stopping.
    shop.stop.send(()).unwrap();
    tokio::time::timeout(Duration::from_secs(4), shop.running).await.expect("stopped at once").unwrap();
    assert_eq!(event(&mut stream, &mut left, "never").await, None);
}

#[tokio::test]
async fn what_cannot_be_joined_or_asked_is_reported() {
    let shop = Shop::open().await;
    let reported = problem(shop.post("/instruments", &json!({ "way": "usb" })).await, 400, "bad_way").await;
    assert!(reported["detail"].as_str().unwrap().contains("tcp:HOST:PORT"), "{reported}");
    problem(shop.post("/instruments", &json!({ "road": "tcp:a:1" })).await, 400, "bad_body").await;
    problem(shop.post("/instruments/nobody/ask", &json!({})).await, 404, "no_such_instrument").await;
    assert_eq!(shop.post("/instruments/nobody/dance", &json!({})).await.status(), StatusCode::BAD_REQUEST);
    let leave = |way: &str| shop.client.delete(format!("{}/instruments?way={way}", shop.address)).send();
    problem(leave("tcp:127.0.0.1:9").await.unwrap(), 404, "no_such_way").await;
    // Nothing listens there: joined all the same, and told as not there.
    assert_eq!(
        shop.post("/instruments", &json!({ "way": "tcp:127.0.0.1:9" })).await.status(),
        StatusCode::OK
    );
    assert_eq!(shop.json("/instruments").await["ways"][0]["there"], false);
    assert_eq!(leave("tcp:127.0.0.1:9").await.unwrap().status(), StatusCode::OK);
    assert_eq!(shop.json("/instruments").await, json!({ "ways": [], "instruments": [] }));
    let long = json!({ "held": { "instrument": { "id": "x".repeat(300), "kind": "tape", "unit": "mm", "resolution": 1, "good_to": 1 },
        "reading": { "number": 1, "value": 1, "unit": "mm", "held": true }, "text": "1 mm", "overdue": false },
        "job": "a", "field": "/b" });
    problem(shop.post("/instruments/log", &long).await, 400, "bad_body").await;
}

/// A practice vehicle has a job of its own that every ordinary call serves, and that is in no list of the real bay.
#[tokio::test]
async fn nothing_of_the_practice_bay_mixes_with_real_jobs() {
    let shop = Shop::open().await;
    let lessons = shop.json("/practice/lessons").await;
    assert!(lessons.as_array().unwrap().len() >= 9);
    let begin = json!({ "planted": "full_difference", "seed": 5, "unit": "mm" });
    let begun = shop.post("/practice/lessons", &begin).await;
    assert_eq!(begun.status(), StatusCode::CREATED);
    let begun: Value = begun.json().await.unwrap();
    let job = begun["job"].as_str().unwrap().to_owned();
    let stored = shop.json(&format!("/jobs/{job}")).await;
    assert_eq!((&stored["document"]["rig"]["sheet_unit"], &stored["revision"]), (&json!("mm"), &json!(1)));
    assert_eq!(shop.json("/jobs").await["total"], 0);
    assert_eq!(shop.json("/log").await["total"], 0);
    // Saved as any job is.
    let mut document = stored["document"].clone();
    document["sheets"] = json!([{ "id": "a", "unit": "mm", "left": [{ "text": "150", "unit": "mm" }], "right": [{ "text": "140", "unit": "mm" }] }]);
    let saved =
        shop.client.put(format!("{}/jobs/{job}", shop.address)).header("If-Match", "\"1\"").json(&document);
    assert_eq!(saved.send().await.unwrap().status(), StatusCode::OK);

    let mut stream = shop.get("/instruments/events").await;
    let mut left = String::new();
    let read = json!({ "act": "read", "method": "frame_to_hub", "side": "left" });
    let reported: Value = shop.post(&format!("/practice/{job}/act"), &read).await.json().await.unwrap();
    let shows = reported["done"][0]["shows_mm"].as_f64().unwrap();
    let held = event(&mut stream, &mut left, "held").await.unwrap();
    assert_eq!(
        (&held["instrument"]["kind"], held["reading"]["value"].as_f64().unwrap()),
        (&json!("tape"), shows)
    );
    // Neither what is seen nor the job tells what is true.
    let everything = format!("{reported}{}", shop.json(&format!("/jobs/{job}")).await);
    assert!(!everything.contains("truly"));
    let huge = json!({ "act": "turn", "flats": 10_000 });
    problem(shop.post(&format!("/practice/{job}/act"), &huge).await, 400, "bad_body").await;
    let debriefed: Value =
        shop.post(&format!("/practice/{job}/done"), &json!({})).await.json().await.unwrap();
    assert_eq!(debriefed["won"], false, "nothing was set: {debriefed}");
    assert_eq!(debriefed["believed_mm"], 5.0);
    assert!((debriefed["truly_before_mm"].as_f64().unwrap().abs() - 13.0).abs() < 1e-6);
    problem(shop.get("/practice/practice-gone").await, 404, "no_such_practice").await;
    problem(shop.get("/jobs/practice-gone").await, 404, "no_such_job").await;
    problem(shop.post("/practice/lessons", &json!({ "planted": "nothing" })).await, 400, "bad_body").await;
}
