//! How the server bears what is sent to it: slow, foreign, huge or wrong; and how it ends.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::net::SocketAddr;
use std::time::Duration;

use derecho_server::serve::{Settings, launch_with_listener};
use serde_json::{Value, json};
use tempfile::TempDir;
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::{TcpListener, TcpSocket, TcpStream};
use tokio::sync::oneshot;
use tokio::task::JoinHandle;

struct Served {
    address: SocketAddr,
    stop: Option<oneshot::Sender<()>>,
    ended: JoinHandle<()>,
    _data: TempDir,
}

impl Served {
    async fn start(head_within: Duration) -> Self {
        let data = tempfile::tempdir().unwrap();
        let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
        let address = listener.local_addr().unwrap();
        let settings = Settings { head_within, ..Settings::new(data.path().to_owned(), true) };
        let (stop, stopped) = oneshot::channel::<()>();
        let serving = launch_with_listener(settings, listener, async { drop(stopped.await) });
        let ended = tokio::spawn(async { serving.await.unwrap() });
        Self { address, stop: Some(stop), ended, _data: data }
    }

    /// Sends bytes as they are and gives all that comes until the server closes.
    async fn raw(&self, bytes: &str) -> String {
        let mut stream = TcpStream::connect(self.address).await.unwrap();
        stream.write_all(bytes.as_bytes()).await.unwrap();
        let mut answer = String::new();
        let reading = stream.read_to_string(&mut answer);
        tokio::time::timeout(Duration::from_secs(20), reading).await.expect("it closes").unwrap();
        answer
    }

    async fn asked(&self, method: &str, path: &str, more: &str, body: &str) -> String {
        let length = body.len();
        let head = format!(
            "{method} {path} HTTP/1.1\r\nConnection: close\r\nContent-Length: {length}\r\n{more}\r\n"
        );
        self.raw(&format!("{head}{body}")).await
    }
}

const HOST: &str = "Host: localhost\r\n";
const JSON: &str = "Host: localhost\r\nContent-Type: application/json\r\n";

#[tokio::test]
async fn a_head_that_comes_slowly_is_not_waited_for() {
    let served = Served::start(Duration::from_millis(200)).await;
    let answer = served.raw("GET / HTTP/1.1\r\nHost: local").await;
    assert!(answer.is_empty() || answer.starts_with("HTTP/1.1 408"), "{answer}");
}

/// With connections open, one in the middle of its head, the server ends all the same.
#[tokio::test]
async fn a_server_that_is_stopped_ends_whoever_holds_a_connection() {
    let mut served = Served::start(Duration::from_secs(60)).await;
    let mut held = TcpStream::connect(served.address).await.unwrap();
    held.write_all(b"GET / HTTP/1.1\r\nHo").await.unwrap();
    let idle = TcpStream::connect(served.address).await.unwrap();
    assert!(served.asked("GET", "/api/v1/jobs", HOST, "").await.starts_with("HTTP/1.1 200"));
    served.stop.take().unwrap().send(()).unwrap();
    tokio::time::timeout(Duration::from_secs(30), served.ended).await.expect("it ends").unwrap();
    drop((held, idle));
}

#[tokio::test]
async fn names_and_addresses_of_this_machine_are_answered_and_no_others() {
    let served = Served::start(Duration::from_secs(10)).await;
    for host in ["localhost", "localhost:7317", "127.0.0.1:9", "127.0.0.2", "[::1]:7317", "[::1]"] {
        let answer = served.asked("GET", "/api/v1/jobs", &format!("Host: {host}\r\n"), "").await;
        assert!(answer.starts_with("HTTP/1.1 200"), "{host}: {answer}");
    }
    for host in ["derecho.example", "127.0.0.1.example", "10.0.0.7", "localhost.example:7317", "[::2]"] {
        let answer = served.asked("GET", "/api/v1/jobs", &format!("Host: {host}\r\n"), "").await;
        assert!(answer.starts_with("HTTP/1.1 421") && answer.contains("foreign_name"), "{host}: {answer}");
    }
}

#[tokio::test]
async fn unknown_methods_and_contents_are_refused_as_problems() {
    let served = Served::start(Duration::from_secs(10)).await;
    let traced = served.asked("TRACE", "/api/v1/jobs", HOST, "").await;
    assert!(traced.starts_with("HTTP/1.1 405") && traced.contains("problem+json"), "{traced}");
    let document = json!({ "format": "derecho-job", "version": 7, "title": "From a form" }).to_string();
    for kind in ["", "Content-Type: text/plain\r\n", "Content-Type: multipart/form-data\r\n"] {
        let answer = served.asked("POST", "/api/v1/jobs", &format!("{HOST}{kind}"), &document).await;
        assert!(answer.starts_with("HTTP/1.1 415") && answer.contains("unknown_content"), "{kind}: {answer}");
    }
    assert!(served.asked("POST", "/api/v1/jobs", JSON, &document).await.starts_with("HTTP/1.1 201"));
}

#[tokio::test]
async fn answers_are_kept_by_no_cache_and_shown_in_no_other_page() {
    let served = Served::start(Duration::from_secs(10)).await;
    let answer = served.asked("GET", "/api/v1/jobs/lookout-truck-7", HOST, "").await.to_lowercase();
    for header in [
        "cache-control: no-store",
        "cross-origin-resource-policy: same-origin",
        "form-action 'self'",
        "x-content-type-options: nosniff",
    ] {
        assert!(answer.contains(header), "{header}");
    }
    // The document of the interface is whole.
    let described = served.asked("GET", "/api/openapi.json", HOST, "").await;
    let body = described.split_once("\r\n\r\n").unwrap().1;
    let described: Value = serde_json::from_str(body).unwrap();
    assert!(described["paths"].as_object().unwrap().len() > 15);
}

/// A document of two megabytes that is wrong at every reading: the first hundred faults are told, and nobody
/// waits for it: it was refused in twenty seconds and more once, on the thread everybody else needs.
#[tokio::test]
async fn a_huge_wrong_document_is_refused_with_its_first_hundred_faults() {
    let served = Served::start(Duration::from_secs(10)).await;
    let wrong: Vec<Value> = (0..60_000).map(|n| json!(format!("{n}/0 in"))).collect();
    let shapeless: Vec<Value> = (0..40_000).map(|n| json!([n])).collect();
    for (field, rows) in [("left", wrong), ("right", shapeless)] {
        let document = json!({ "format": "derecho-job", "version": 7, "title": "Huge",
            "sheets": [{ "id": "a", "kind": "centring", field: rows }] });
        let body = document.to_string();
        let refusing = served.asked("POST", "/api/v1/jobs", JSON, &body);
        let looking = served.asked("GET", "/api/v1/jobs", HOST, "");
        let (refused, looked) = tokio::join!(refusing, looking);
        assert!(looked.starts_with("HTTP/1.1 200"), "{looked}");
        assert!(refused.starts_with("HTTP/1.1 422"), "{}", &refused[..200]);
        let reported: Value = serde_json::from_str(refused.split_once("\r\n\r\n").unwrap().1).unwrap();
        assert_eq!(reported["errors"].as_array().unwrap().len(), 100);
    }
}

#[tokio::test]
async fn an_edit_sent_twice_under_its_name_is_made_once() {
    let served = Served::start(Duration::from_secs(10)).await;
    let body =
        |answer: &str| -> Value { serde_json::from_str(answer.split_once("\r\n\r\n").unwrap().1).unwrap() };
    let stored = body(&served.asked("GET", "/api/v1/jobs/lookout-truck-4", HOST, "").await);
    let mut document = stored["document"].clone();
    document["notes"] = json!("typed once");
    let headers = format!("{JSON}If-Match: \"1\"\r\nIdempotency-Key: k-1\r\n");
    for _ in 0..2 {
        let saved =
            served.asked("PUT", "/api/v1/jobs/lookout-truck-4", &headers, &document.to_string()).await;
        assert!(saved.starts_with("HTTP/1.1 200"), "{saved}");
        assert_eq!((&body(&saved)["revision"], &body(&saved)["edit"]), (&json!(2), &json!("k-1")));
    }
    let bad = format!("{JSON}If-Match: \"2\"\r\nIdempotency-Key: {}\r\n", "k".repeat(65));
    let refused = served.asked("PUT", "/api/v1/jobs/lookout-truck-4", &bad, &document.to_string()).await;
    assert!(refused.starts_with("HTTP/1.1 400") && refused.contains("bad_edit_key"), "{refused}");
}

/// A table program would run a cell that begins so; written with an apostrophe it does not, and it comes back
/// as it was. Parts of one table come in all together or not at all.
#[tokio::test]
async fn a_table_of_parts_runs_nowhere_and_comes_in_whole() {
    let served = Served::start(Duration::from_secs(10)).await;
    let part = |name: &str| {
        json!({ "part": { "kind": "drag_link", "name": name, "raises_axle_end": "2 in" } }).to_string()
    };
    for name in ["=cmd|' /C calc'!A0", "@home", "+1", "-2+3", "plain"] {
        let made = served.asked("POST", "/api/v1/parts", JSON, &part(name)).await;
        assert!(made.starts_with("HTTP/1.1 201"), "{made}");
    }
    let table = served.asked("GET", "/api/v1/parts/export?format=csv", HOST, "").await;
    let csv = table.split_once("\r\n\r\n").unwrap().1.to_owned();
    for cell in ["'=cmd|", "'@home", "'+1", "'-2+3"] {
        assert!(csv.contains(cell), "{cell} in {csv}");
    }
    assert!(!csv.contains(",=cmd") && csv.contains(",plain"));
    let table = format!("{HOST}Content-Type: text/csv\r\n");
    let before = served.asked("GET", "/api/v1/parts", HOST, "").await.matches("\"changed_at\"").count();
    let broken = format!("{csv}no_such_kind,x\r\n");
    assert!(served.asked("POST", "/api/v1/parts/import", &table, &broken).await.starts_with("HTTP/1.1 422"));
    let after = served.asked("GET", "/api/v1/parts", HOST, "").await;
    assert_eq!(after.matches("\"changed_at\"").count(), before);
    assert!(served.asked("POST", "/api/v1/parts/import", &table, &csv).await.starts_with("HTTP/1.1 200"));
    let doubled = served.asked("GET", "/api/v1/parts", HOST, "").await;
    assert_eq!(doubled.matches("\"=cmd|' /C calc'!A0\"").count() % 2, 0, "names come back as they were");
    let long = served.asked("POST", "/api/v1/parts", JSON, &part(&"n".repeat(201))).await;
    assert!(long.starts_with("HTTP/1.1 422") && long.contains("200 letters at most"), "{long}");
}

/// A connection from an address of this machine.
async fn from(address: &str, to: SocketAddr) -> TcpStream {
    let socket = TcpSocket::new_v4().unwrap();
    socket.bind(format!("{address}:0").parse().unwrap()).unwrap();
    socket.connect(to).await.unwrap()
}

/// What comes on a connection until the server closes it.
async fn answer_of(mut stream: TcpStream, request: &str) -> String {
    stream.write_all(request.as_bytes()).await.unwrap();
    let mut answer = String::new();
    let reading = stream.read_to_string(&mut answer);
    tokio::time::timeout(Duration::from_secs(20), reading).await.expect("it closes").unwrap();
    answer
}

const LIST: &str = "GET /api/v1/jobs HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n";

/// Five hundred and twenty bodies that never end, from one address: it and everybody else is still answered.
#[tokio::test(flavor = "multi_thread")]
async fn slow_bodies_keep_nobody_out() {
    let served = Served::start(Duration::from_secs(60)).await;
    let head = format!("POST /api/v1/jobs HTTP/1.1\r\n{JSON}Content-Length: 4000\r\n\r\n{{\"format\"");
    let mut held = Vec::new();
    for _ in 0..520 {
        let mut stream = from("127.0.0.1", served.address).await;
        // One that is sent away at once may be closed already.
        let _ = stream.write_all(head.as_bytes()).await;
        held.push(stream);
    }
    for address in ["127.0.0.1", "127.0.0.2"] {
        let reported = answer_of(from(address, served.address).await, LIST).await;
        assert!(reported.starts_with("HTTP/1.1 200"), "{address}: {reported}");
    }
}

/// As many idle connections as there may be in all, from one address: another address is still let in.
#[tokio::test(flavor = "multi_thread")]
async fn one_address_does_not_take_every_connection() {
    let served = Served::start(Duration::from_secs(60)).await;
    let mut held = Vec::new();
    for _ in 0..520 {
        let mut stream = from("127.0.0.1", served.address).await;
        let _ = stream.write_all(b"GET / HTTP/1.1\r\nHo").await;
        held.push(stream);
    }
    let reported = answer_of(from("127.0.0.2", served.address).await, LIST).await;
    assert!(reported.starts_with("HTTP/1.1 200"), "{reported}");
}

/// Streams of events beyond what there may be are refused as a problem that says what to do, and everything else goes
/// on.
#[tokio::test(flavor = "multi_thread")]
async fn held_streams_keep_nobody_out() {
    let served = Served::start(Duration::from_secs(60)).await;
    let head = format!("GET /api/v1/instruments/events HTTP/1.1\r\n{HOST}\r\n");
    let (mut held, mut refused) = (Vec::new(), 0);
    for _ in 0..80 {
        let mut stream = from("127.0.0.1", served.address).await;
        stream.write_all(head.as_bytes()).await.unwrap();
        let mut first = [0; 12];
        stream.read_exact(&mut first).await.unwrap();
        refused += usize::from(first == *b"HTTP/1.1 503");
        held.push(stream);
    }
    assert!((1..80).contains(&refused), "{refused} of 80 refused");
    let reported = answer_of(from("127.0.0.1", served.address).await, LIST).await;
    assert!(reported.starts_with("HTTP/1.1 200"), "{reported}");
}
