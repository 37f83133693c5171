//! The API over a real socket, on a real database.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::time::Duration;

use derecho_server::serve::{Settings, launch_with_listener};
use reqwest::{Client, Method, Response, StatusCode};
use serde_json::{Value, json};
use tempfile::TempDir;
use tokio::net::TcpListener;

struct Shop {
    address: String,
    client: Client,
    _data: TempDir,
}

impl Shop {
    async fn open() -> Self {
        let data = tempfile::tempdir().unwrap();
        let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
        let address = format!("http://{}", listener.local_addr().unwrap());
        let settings = Settings::new(data.path().to_owned(), true);
        tokio::spawn(launch_with_listener(settings, listener, std::future::pending()));
        Self { address, client: Client::new(), _data: data }
    }

    async fn call(
        &self,
        method: Method,
        path: &str,
        based_on: Option<u64>,
        body: Option<String>,
    ) -> Response {
        let mut request =
            self.client.request(method, format!("{}{path}", self.address)).timeout(Duration::from_secs(20));
        if let Some(revision) = based_on {
            request = request.header("If-Match", format!("\"{revision}\""));
        }
        if let Some(body) = body {
            request = request.header("Content-Type", "application/json").body(body);
        }
        request.send().await.unwrap()
    }

    async fn get(&self, path: &str) -> Value {
        let answer = self.call(Method::GET, path, None, None).await;
        assert_eq!(answer.status(), StatusCode::OK, "{path}");
        answer.json().await.unwrap()
    }
}

/// Checks the common form of a problem and gives its body.
async fn problem(answer: Response, status: u16, code: &str) -> Value {
    assert_eq!(answer.status().as_u16(), status);
    assert_eq!(answer.headers()["content-type"], "application/problem+json");
    let body: Value = answer.json().await.unwrap();
    assert_eq!(body["code"], code, "{body}");
    assert_eq!(body["status"], status);
    assert!(body["detail"].as_str().is_some_and(|detail| !detail.is_empty()));
    body
}

fn document(title: &str) -> Value {
    json!({ "format": "derecho-job", "version": 7, "title": title })
}

#[tokio::test]
async fn a_job_is_made_saved_undone_and_redone() {
    let shop = Shop::open().await;
    let made = shop.call(Method::POST, "/api/v1/jobs", None, Some(document("One").to_string())).await;
    assert_eq!(made.status(), StatusCode::CREATED);
    assert_eq!(made.headers()["etag"], "\"1\"");
    let made: Value = made.json().await.unwrap();
    let path = format!("/api/v1/jobs/{}", made["id"].as_str().unwrap());

    let saved = shop.call(Method::PUT, &path, Some(1), Some(document("Two").to_string())).await;
    assert_eq!(saved.headers()["etag"], "\"2\"");
    let saved: Value = saved.json().await.unwrap();
    assert_eq!((&saved["can_undo"], &saved["can_redo"]), (&json!(true), &json!(false)));

    let undone: Value =
        shop.call(Method::POST, &format!("{path}/undo"), Some(2), None).await.json().await.unwrap();
    assert_eq!((&undone["document"]["title"], &undone["revision"]), (&json!("One"), &json!(3)));
    let redone: Value =
        shop.call(Method::POST, &format!("{path}/redo"), Some(3), None).await.json().await.unwrap();
    assert_eq!(redone["document"]["title"], "Two");
    let back: Value = shop
        .call(Method::POST, &format!("{path}/revisions/1/restore"), Some(4), None)
        .await
        .json()
        .await
        .unwrap();
    assert_eq!(back["document"]["title"], "One");
    let kinds: Vec<Value> = shop
        .get(&format!("{path}/revisions"))
        .await
        .as_array()
        .unwrap()
        .iter()
        .map(|line| line["kind"].clone())
        .collect();
    assert_eq!(kinds, ["restored", "redone", "undone", "saved", "created"]);
    assert_eq!(shop.get(&format!("{path}/revisions/2")).await["title"], "Two");

    problem(shop.call(Method::POST, &format!("{path}/redo"), Some(5), None).await, 409, "nothing_to_change")
        .await;
    assert_eq!(shop.call(Method::DELETE, &path, Some(5), None).await.status(), StatusCode::NO_CONTENT);
    problem(shop.call(Method::GET, &path, None, None).await, 404, "no_such_job").await;
}

#[tokio::test]
async fn a_save_based_on_an_older_revision_gets_the_newer_job() {
    let shop = Shop::open().await;
    let path = "/api/v1/jobs/lookout-truck-7";
    shop.call(Method::PUT, path, Some(1), Some(document("Theirs").to_string())).await;
    let refused = shop.call(Method::PUT, path, Some(1), Some(document("Mine").to_string())).await;
    let body = problem(refused, 412, "changed_elsewhere").await;
    assert_eq!(
        (&body["current"]["revision"], &body["current"]["document"]["title"]),
        (&json!(2), &json!("Theirs"))
    );
    assert_eq!(shop.get(path).await["document"]["title"], "Theirs");
    problem(
        shop.call(Method::PUT, path, None, Some(document("Mine").to_string())).await,
        428,
        "revision_missing",
    )
    .await;
}

#[tokio::test]
async fn every_bad_field_is_reported_at_once_and_nothing_is_saved() {
    let shop = Shop::open().await;
    let path = "/api/v1/jobs/lookout-truck-7";
    let mut bad = shop.get(path).await["document"].clone();
    bad["rig"]["end"] = json!("sideways");
    bad["rig"]["lift"] = json!({ "text": "4 17/16", "unit": "in" });
    bad["sheets"][0]["left"][1] = json!({ "text": "1,250", "unit": "mm" });
    let body =
        problem(shop.call(Method::PUT, path, Some(1), Some(bad.to_string())).await, 422, "bad_fields").await;
    let mut reported: Vec<(&str, &str)> = body["errors"]
        .as_array()
        .unwrap()
        .iter()
        .map(|error| (error["pointer"].as_str().unwrap(), error["code"].as_str().unwrap()))
        .collect();
    reported.sort_unstable();
    assert_eq!(
        reported,
        [
            ("/rig/end", "unknown_choice"),
            ("/rig/lift", "fraction_too_large"),
            ("/sheets/0/left/1", "ambiguous_comma"),
        ]
    );
    assert_eq!(shop.get(path).await["revision"], 1);
}

#[tokio::test]
async fn computing_stores_nothing_and_agrees_with_the_stored_job() {
    let shop = Shop::open().await;
    let stored = shop.get("/api/v1/jobs/water-tender-3").await;
    let computed =
        shop.call(Method::POST, "/api/v1/compute", None, Some(stored["document"].to_string())).await;
    // Figures are no longer than they are good for, alone and beside their document.
    let computed: Value = computed.json().await.unwrap();
    let job = derecho_job::document::migrate::parsed(stored["document"].to_string().as_bytes()).unwrap();
    alike(&computed, &derecho_results::json::value(derecho_results::solve(&job)), "");
    assert_eq!(computed, stored["results"]);
    assert_eq!(shop.get("/api/v1/jobs").await["total"], 13);
}

/// Rounding is of results alone: a figure without a unit of its own comes back from a document to its last digit.
#[tokio::test]
async fn a_document_beside_its_results_is_as_it_was_typed() {
    let shop = Shop::open().await;
    let mut document = shop.get("/api/v1/jobs/lookout-truck-7").await["document"].clone();
    document["sway"]["soft_percent"] = json!(12.345_678_901_234_5);
    let body = Some(document.to_string());
    let saved = shop.call(Method::PUT, "/api/v1/jobs/lookout-truck-7", Some(1), body).await;
    let saved: Value = saved.json().await.unwrap();
    let revision = shop.get("/api/v1/jobs/lookout-truck-7/revisions/2").await;
    for reported in
        [&saved["document"], &shop.get("/api/v1/jobs/lookout-truck-7").await["document"], &revision]
    {
        assert_eq!(reported["sway"]["soft_percent"], json!(12.345_678_901_234_5), "{saved}");
        assert_eq!(reported["sheets"], document["sheets"]);
    }
}

/// What a phone under a vehicle has to fetch, before it is compressed.
#[tokio::test]
async fn answers_are_no_larger_than_they_must_be() {
    let shop = Shop::open().await;
    for name in ["lookout-truck-7", "patrol-truck-6", "water-tender-3"] {
        let document = shop.get(&format!("/api/v1/jobs/{name}")).await["document"].to_string();
        for (stage, most) in [("cycle", 300_000), ("sway", 250_000), ("plan", 100_000)] {
            let path = format!("/api/v1/compute/{stage}");
            let answer = shop.call(Method::POST, &path, None, Some(document.clone())).await;
            let bytes = answer.bytes().await.unwrap().len();
            assert!(bytes > 1000 && bytes < most, "{name} {stage}: {bytes}");
        }
    }
}

/// The same but for the last places of figures: half a thousandth of a millimetre, or the sixth digit.
fn alike(short: &Value, exact: &Value, at: &str) {
    match (short, exact) {
        (Value::Object(a), Value::Object(b)) => {
            assert_eq!(a.keys().collect::<Vec<_>>(), b.keys().collect::<Vec<_>>(), "{at}");
            for (key, value) in a {
                alike(value, &b[key], &format!("{at}/{key}"));
            }
        }
        (Value::Array(a), Value::Array(b)) => {
            assert_eq!(a.len(), b.len(), "{at}");
            for (index, (a, b)) in a.iter().zip(b).enumerate() {
                alike(a, b, &format!("{at}/{index}"));
            }
        }
        (Value::Number(a), Value::Number(b)) => {
            let (a, b) = (a.as_f64().unwrap(), b.as_f64().unwrap());
            assert!((a - b).abs() <= 5.1e-4_f64.max(5.1e-6 * b.abs()), "{at}: {a} for {b}");
        }
        (a, b) => assert_eq!(a, b, "{at}"),
    }
}

#[tokio::test]
async fn cycling_stores_nothing_and_follows_the_hole_that_is_tried() {
    let shop = Shop::open().await;
    let mut document = shop.get("/api/v1/jobs/lookout-truck-7").await["document"].clone();
    let cycle = async |document: &Value| {
        let body = Some(document.to_string());
        let answer = shop.call(Method::POST, "/api/v1/compute/cycle", None, body).await;
        answer.json::<Value>().await.unwrap()
    };
    let straight = cycle(&document).await;
    assert_eq!(straight["plan_name"], "plan");
    document["setups"]["plans"]["trial"] = json!({ "axle": { "hole": "riser hole 1" } });
    let tried = cycle(&document).await;
    assert_eq!(tried["plan_name"], "riser hole 1");
    // A riser of 1 3/4 in takes the bar nearer to level: it reaches further, so it is set shorter.
    let length = |answer: &Value| answer["plan"]["bar_length_mm"].as_f64().unwrap();
    assert!(length(&tried) < length(&straight));
    assert_eq!(shop.get("/api/v1/jobs/lookout-truck-7").await["revision"], 1);

    document["setups"]["plans"]["trial"] = json!({ "axle": { "hole": "hole 9" } });
    let answer = shop.call(Method::POST, "/api/v1/compute/cycle", None, Some(document.to_string())).await;
    let reported = problem(answer, 422, "bad_fields").await;
    assert_eq!(reported["errors"][0]["pointer"], "/setups/plans/trial/axle/hole");
}

#[tokio::test]
async fn draws_are_made_on_asking_and_are_the_same_each_time() {
    let shop = Shop::open().await;
    let drawn = async |document: &Value| {
        let body = Some(document.to_string());
        let answer = shop.call(Method::POST, "/api/v1/compute/uncertainty", None, body).await;
        assert_eq!(answer.status(), 200);
        answer.json::<Value>().await.unwrap()
    };
    let mut document = shop.get("/api/v1/jobs/lookout-truck-7").await["document"].clone();
    let sure = drawn(&document).await;
    assert_eq!(sure["uncertainty"]["draws"], 10_000);
    assert_eq!(drawn(&document).await, sure);
    let change = &sure["uncertainty"]["intervals"][0];
    assert!(change["low"].as_f64().unwrap() < change["high"].as_f64().unwrap());
    // Without a bar nothing is drawn.
    document["setups"]["found"]["bar"].as_object_mut().unwrap().remove("length");
    assert_eq!(drawn(&document).await, json!({}));
}

#[tokio::test]
async fn planning_and_swaying_store_nothing_and_follow_the_document_sent() {
    let shop = Shop::open().await;
    let mut document = shop.get("/api/v1/jobs/lookout-truck-7").await["document"].clone();
    let compute = async |what: &str, document: &Value| {
        let path = format!("/api/v1/compute/{what}");
        shop.call(Method::POST, &path, None, Some(document.to_string())).await
    };
    let plan: Value = compute("plan", &document).await.json().await.unwrap();
    let failing = |option: &Value| option["fails"].as_array().is_some_and(|fails| !fails.is_empty());
    let options = plan["options"].as_array().unwrap();
    // What fails comes after all that does not.
    let first_failing = options.iter().position(failing).unwrap();
    assert!(first_failing > 0 && options[first_failing..].iter().all(failing));

    let sway: Value = compute("sway", &document).await.json().await.unwrap();
    assert_eq!(sway["links"]["fails"], true);
    // The longest link that works is asked for half an inch inside of the window the answer gives.
    let longest = sway["links"]["window_mm"][1].as_f64().unwrap();
    document["sway"]["link"] = json!((longest - 12.7).round());
    let sway: Value = compute("sway", &document).await.json().await.unwrap();
    assert_eq!(sway["links"]["fails"], false);
    assert_eq!(shop.get("/api/v1/jobs/lookout-truck-7").await["revision"], 1);

    document["sway"]["link"] = json!({ "text": "8 1/", "unit": "in" });
    let reported = problem(compute("sway", &document).await, 422, "bad_fields").await;
    assert_eq!(reported["errors"][0]["pointer"], "/sway/link");
    document["sway"]["link"] = json!("8 1/4 in");
    document["sway"]["hole"] = json!(4);
    let reported = problem(compute("sway", &document).await, 422, "bad_fields").await;
    assert_eq!(reported["errors"][0]["pointer"], "/sway/hole");
}

#[tokio::test]
async fn settling_takes_a_proof() {
    let shop = Shop::open().await;
    let settled: Value = shop
        .call(Method::POST, "/api/v1/jobs/supply-truck-9/settle", Some(1), None)
        .await
        .json()
        .await
        .unwrap();
    assert_eq!(settled["results"]["settled_stands"], true);
    let refused = shop.call(Method::POST, "/api/v1/jobs/lookout-truck-4/settle", Some(1), None).await;
    let told = problem(refused, 409, "not_proved").await;
    assert!(told["detail"].as_str().unwrap().contains("Next: Measure both sides again."), "{told}");
    // Centred, with a bolt nobody tightened and more: each thing is named, with its place where it has one.
    let refused = shop.call(Method::POST, "/api/v1/jobs/patrol-truck-6/settle", Some(1), None).await;
    let told = problem(refused, 409, "still_open").await;
    let open = told["errors"].as_array().unwrap();
    let view: Value = shop.get("/api/v1/jobs/patrol-truck-6").await;
    assert_eq!(view["results"]["status"]["open"], open.len());
    assert!(open.iter().any(|one| one["pointer"] == "/proof/looked_at/wheel_nuts"), "{told}");
    let behind = shop.call(Method::POST, "/api/v1/jobs/supply-truck-9/settle", Some(1), None).await;
    problem(behind, 412, "changed_elsewhere").await;
}

#[tokio::test]
async fn a_length_is_read_back_and_a_refused_one_is_marked() {
    let shop = Shop::open().await;
    let judged = shop.get("/api/v1/tape?text=24%2013/16&unit=in").await;
    assert!(judged["wrong"].is_null());
    let back = &judged["read"];
    assert_eq!(
        (&back["mm"], &back["inches"], &back["millimetres"]),
        (&json!(630.2375), &json!("24 13/16\""), &json!("630.2 mm"))
    );
    // Half a figure is no failed call.
    let refused = shop.get("/api/v1/tape?text=24%2013/0&unit=in").await;
    assert_eq!(
        (&refused["wrong"]["code"], &refused["wrong"]["start"], &refused["read"]),
        (&json!("zero_denominator"), &json!(6), &Value::Null)
    );
    problem(shop.call(Method::GET, "/api/v1/tape?text=24&unit=ell", None, None).await, 400, "bad_query")
        .await;
    problem(shop.call(Method::GET, "/api/v1/tape", None, None).await, 400, "bad_query").await;
}

#[tokio::test]
async fn an_angle_a_weight_a_rate_and_a_thread_are_judged_as_they_are_typed() {
    let shop = Shop::open().await;
    // 1000 kg are 2204.6 lb; 35.025 N/mm are 200 lb/in; 1/2-20 is 12.7 mm across.
    for (query, inches, millimetres) in [
        ("kind=weight&text=1000%20kg", "2205 lb", "1000 kg"),
        ("kind=spring_rate&text=200%20lb/in", "200 lb/in", "35.0 N/mm"),
        ("kind=roll_rate&text=100%20Nm/deg", "74 lb-ft/°", "100 N·m/°"),
        ("kind=angle&text=-10,8%20deg", "-10.8°", "-10.8°"),
        // 180 N·m are 132.8 lb-ft.
        ("kind=torque&text=180%20Nm", "133 lb-ft", "180 N·m"),
        ("kind=number&text=700,5", "700.5", "700.5"),
    ] {
        let back = shop.get(&format!("/api/v1/figure?{query}")).await;
        assert_eq!((&back["says"]["in"], &back["says"]["mm"]), (&json!(inches), &json!(millimetres)));
    }
    let thread = shop.get("/api/v1/figure?kind=thread&text=1/2-20").await;
    assert!(thread["says"]["mm"].as_str().unwrap().starts_with("12.7 mm across"), "{thread}");
    for query in [
        "kind=angle&text=1-2",
        "kind=angle&text=95",
        "kind=weight&text=heavy",
        "kind=spring_rate&text=35",
        "kind=thread&text=1/2",
        "kind=weight&text=2,600%20lb",
        "kind=number&text=1,250",
        "kind=number&text=0",
    ] {
        let refused = shop.get(&format!("/api/v1/figure?{query}")).await;
        assert_eq!((&refused["wrong"]["code"], &refused["says"]), (&json!("bad_figure"), &Value::Null));
    }
    let unknown = shop.call(Method::GET, "/api/v1/figure?kind=colour&text=red", None, None).await;
    problem(unknown, 400, "bad_query").await;
}

#[tokio::test]
async fn refusals_of_every_layer_have_the_common_form() {
    let shop = Shop::open().await;
    let too_large = "x".repeat(3 * 1024 * 1024);
    problem(shop.call(Method::POST, "/api/v1/jobs", None, Some(too_large)).await, 413, "too_large").await;
    problem(shop.call(Method::POST, "/api/v1/jobs", None, Some("{".to_owned())).await, 400, "not_json").await;
    problem(shop.call(Method::PATCH, "/api/v1/jobs", None, None).await, 405, "no_such_method").await;
    problem(shop.call(Method::GET, "/api/v1/nothing", None, None).await, 404, "no_such_address").await;
    problem(shop.call(Method::GET, "/api/v1/jobs?limit=many", None, None).await, 400, "bad_query").await;
    problem(shop.call(Method::GET, "/api/v1/jobs/a/revisions/first", None, None).await, 400, "bad_address")
        .await;
    problem(shop.call(Method::POST, "/api/v1/samples/none/open", None, None).await, 404, "no_such_sample")
        .await;

    let elsewhere = shop
        .client
        .post(format!("{}/api/v1/samples/lookout-truck-7/open", shop.address))
        .header("Origin", "http://elsewhere.example")
        .header("Sec-Fetch-Site", "cross-site");
    problem(elsewhere.send().await.unwrap(), 403, "foreign_page").await;
    let renamed =
        shop.client.get(format!("{}/api/v1/jobs", shop.address)).header("Host", "elsewhere.example");
    problem(renamed.send().await.unwrap(), 421, "foreign_name").await;
}

#[tokio::test]
async fn no_body_makes_the_server_fall_over() {
    let shop = Shop::open().await;
    let good = shop.get("/api/v1/jobs/lookout-truck-7").await["document"].clone();
    let mut bodies: Vec<String> =
        ["", "null", "[]", "0", "\"\"", "{}", "[[[[", "\u{0}", "{\"format\":\"derecho-job\"}"]
            .map(str::to_owned)
            .to_vec();
    // Every single value of a sound job replaced by each of these, one at a time.
    let wrong = [json!(null), json!(-1e308), json!("1e999 mm"), json!([]), json!({}), json!(true)];
    let mut pointers = Vec::new();
    collect(&good, String::new(), &mut pointers);
    for pointer in &pointers {
        for value in &wrong {
            let mut document = good.clone();
            *document.pointer_mut(pointer).unwrap() = value.clone();
            bodies.push(document.to_string());
        }
    }
    assert!(bodies.len() > 300);
    for body in bodies {
        let answer = shop.call(Method::POST, "/api/v1/compute", None, Some(body.clone())).await;
        assert!(matches!(answer.status().as_u16(), 200 | 400 | 422), "{} for {body}", answer.status());
    }
}

fn collect(value: &Value, pointer: String, found: &mut Vec<String>) {
    match value {
        Value::Object(map) => {
            map.iter().for_each(|(name, member)| collect(member, format!("{pointer}/{name}"), found));
        }
        Value::Array(items) => {
            items.iter().enumerate().for_each(|(at, item)| collect(item, format!("{pointer}/{at}"), found));
        }
        _ => {}
    }
    if !pointer.is_empty() {
        found.push(pointer);
    }
}

#[tokio::test]
async fn a_job_file_comes_out_as_it_would_go_in() {
    let shop = Shop::open().await;
    let answer = shop.call(Method::GET, "/api/v1/jobs/relay-van-2/export", None, None).await;
    assert_eq!(
        answer.headers()["content-disposition"],
        "attachment; filename=\"relay-van-2-pulls-right-over-speed-bumps.derecho.json\""
    );
    let file = answer.text().await.unwrap();
    let made = shop.call(Method::POST, "/api/v1/jobs", None, Some(file)).await;
    assert_eq!(made.status(), StatusCode::CREATED);
    let made: Value = made.json().await.unwrap();
    assert_eq!(made["document"], shop.get("/api/v1/jobs/relay-van-2").await["document"]);
}

#[tokio::test]
async fn the_client_and_its_papers_are_served() {
    let shop = Shop::open().await;
    let page = shop.call(Method::GET, "/jobs/anything/tape", None, None).await;
    assert_eq!(page.status(), StatusCode::OK);
    let policy = page.headers()["content-security-policy"].to_str().unwrap().to_owned();
    assert!(policy.contains("default-src 'self'") && !policy.contains("unsafe"), "{policy}");
    let text = page.text().await.unwrap();
    assert!(text.contains("<div id=\"root\">"));
    // Styles are taken by a nonce that the page has in it, another one every time, by whatever name it is asked for.
    let nonce = policy.split("'nonce-").nth(1).unwrap().split('\'').next().unwrap();
    assert!(nonce.len() >= 22 && text.contains(&format!("nonce=\"{nonce}\"")), "{policy}");
    let again = shop.call(Method::GET, "/index.html", None, None).await;
    let other = again.headers()["content-security-policy"].to_str().unwrap();
    assert!(other.contains("'nonce-") && other != policy, "{other}");
    let described = shop.get("/api/openapi.json").await;
    assert_eq!(described["openapi"], "3.1.0");
    assert!(described["paths"]["/api/v1/jobs/{id}"]["put"].is_object());
    assert_eq!(shop.get("/api/v1/schema").await["$schema"], "https://json-schema.org/draft/2020-12/schema");
}

#[tokio::test]
async fn operations_have_names_of_their_own() {
    let described = serde_json::to_value(derecho_server::app::openapi()).unwrap();
    let mut names: Vec<&str> = described["paths"]
        .as_object()
        .unwrap()
        .values()
        .flat_map(|methods| methods.as_object().unwrap().values())
        .filter_map(|operation| operation["operationId"].as_str())
        .collect();
    let all = names.len();
    names.sort_unstable();
    names.dedup();
    assert_eq!(names.len(), all);
    assert!(all >= 16);
}

/// Pairs of a group code and its value, as the format lays them down: two lines each.
fn dxf_pairs(text: &str) -> Vec<(i32, String)> {
    let lines: Vec<&str> = text.lines().collect();
    assert_eq!(lines.len() % 2, 0, "a DXF is pairs of lines");
    lines.chunks(2).map(|pair| (pair[0].trim().parse().unwrap(), pair[1].to_owned())).collect()
}

/// The entities: their kind with their groups.
fn dxf_entities(text: &str) -> Vec<(String, Vec<(i32, String)>)> {
    let pairs = dxf_pairs(text);
    let start = pairs.iter().position(|pair| *pair == (2, "ENTITIES".to_owned())).unwrap();
    let mut entities: Vec<(String, Vec<(i32, String)>)> = Vec::new();
    for (code, value) in &pairs[start + 1..] {
        if *code == 0 {
            entities.push((value.clone(), Vec::new()));
        } else if let Some((_, groups)) = entities.last_mut() {
            groups.push((*code, value.clone()));
        }
    }
    assert_eq!(pairs.last(), Some(&(0, "EOF".to_owned())));
    entities
}

fn group(groups: &[(i32, String)], code: i32) -> f64 {
    groups.iter().find(|(known, _)| *known == code).unwrap().1.parse().unwrap()
}

#[tokio::test]
async fn templates_are_one_to_one_in_both_formats() {
    let shop = Shop::open().await;
    let text = async |path: &str| {
        let answer = shop.call(Method::GET, path, None, None).await;
        assert_eq!(answer.status(), 200, "{path}");
        answer.text().await.unwrap()
    };
    let base = "/api/v1/jobs/water-tender-3/templates/cope?of=frame&format=";
    let entities = dxf_entities(&text(&format!("{base}dxf")).await);
    let lines: Vec<_> = entities.iter().filter(|(kind, _)| kind == "LINE").map(|(_, g)| g).collect();
    // The square edge is as long as the 1 1/2 in stock is round: π·38.1 mm.
    let long = |g: &[(i32, String)]| (group(g, 11) - group(g, 10)).hypot(group(g, 21) - group(g, 20));
    let round = std::f64::consts::PI * 38.1;
    assert!(lines.iter().any(|g| (long(g) - round).abs() < 1e-3));
    // The check bar is 50 mm, and 2 in.
    for check in [50.0, 50.8] {
        assert!(lines.iter().any(|g| (long(g) - check).abs() < 1e-4), "{check}");
    }
    // The curve goes as deep as the saddle: (50.8 − √(50.8² − 38.1²))/2 mm.
    let deep = (50.8 - (50.8_f64 * 50.8 - 38.1 * 38.1).sqrt()) / 2.0;
    let ends = lines.iter().flat_map(|g| [group(g, 20), group(g, 21)]);
    assert!(ends.clone().any(|y| (y + deep).abs() < 1e-3), "{deep}");

    let svg = text(&format!("{base}svg")).await;
    let size = |name: &str| {
        let rest = svg.split(&format!(" {name}=\"")).nth(1).unwrap();
        rest.split("mm\"").next().unwrap().parse::<f64>().unwrap()
    };
    let view: Vec<f64> = svg
        .split("viewBox=\"")
        .nth(1)
        .unwrap()
        .split('"')
        .next()
        .unwrap()
        .split(' ')
        .map(|n| n.parse().unwrap())
        .collect();
    // One unit of the drawing is one millimetre on paper.
    assert_eq!((size("width"), size("height")), (view[2], view[3]));
    assert!(size("width") > round);

    let holes = text("/api/v1/jobs/lookout-truck-12/templates/holes?of=three-hole%20drop&format=dxf").await;
    let circles: Vec<f64> =
        dxf_entities(&holes).iter().filter(|(kind, _)| kind == "CIRCLE").map(|(_, g)| group(g, 20)).collect();
    // The old hole, then 2, 3 and 4 in down from it.
    assert_eq!(
        circles.iter().map(|y| (y / 25.4 * 1e4).round() / 1e4).collect::<Vec<_>>(),
        [0.0, -2.0, -3.0, -4.0]
    );
    // As a picture they lie where the table has them, down the sheet: 25.4 mm to the inch.
    let picture = text("/api/v1/jobs/lookout-truck-12/templates/holes?of=three-hole%20drop&format=svg").await;
    let down: Vec<f64> = picture
        .split("<circle ")
        .skip(1)
        .map(|circle| circle.split(" cy=\"").nth(1).or_else(|| circle.split("cy=\"").nth(1)).unwrap())
        .map(|rest| rest.split('"').next().unwrap().parse().unwrap())
        .collect();
    assert_eq!(down.len(), 4, "{picture}");
    for (y, inches) in down.iter().zip([0.0, 2.0, 3.0, 4.0]) {
        assert!((y - down[0] - inches * 25.4).abs() < 1e-3, "{down:?}");
    }
    // A cope is cut for the shell of its own end: 2 in and 3 in, with 1 1/2 in of stock.
    let mut job = shop.get("/api/v1/jobs/water-tender-3").await;
    job["document"]["bracket"]["builder"]["axle_shell"] = json!({ "text": "3", "unit": "in" });
    let made = shop.call(Method::POST, "/api/v1/jobs", None, Some(job["document"].to_string())).await;
    let made: Value = made.json().await.unwrap();
    for (end, shell) in [("frame", 50.8_f64), ("axle", 76.2)] {
        let path =
            format!("/api/v1/jobs/{}/templates/cope?of={end}&format=dxf", made["id"].as_str().unwrap());
        let deep = (shell - (shell * shell - 38.1 * 38.1).sqrt()) / 2.0;
        let entities = dxf_entities(&text(&path).await);
        let lowest = entities
            .iter()
            .filter(|(kind, _)| kind == "LINE")
            .flat_map(|(_, g)| [group(g, 20), group(g, 21)])
            .filter(|y| (y + deep).abs() < 1e-3);
        assert!(lowest.count() > 0, "{end}: {deep}");
    }
    // An arm 1 in thick with 1/2 in of room either way: 2 in less both rounded corners is 1 in, above
    // and below.
    let panel = text("/api/v1/jobs/lookout-truck-7/templates/panel?of=inner%20fender&format=dxf").await;
    let entities = dxf_entities(&panel);
    let level = entities.iter().filter(|(kind, groups)| {
        kind == "LINE" && group(groups, 20) == group(groups, 21) && (long(groups) - 25.4).abs() < 1e-3
    });
    assert_eq!(level.count(), 2);
    let refused = shop
        .call(Method::GET, "/api/v1/jobs/lookout-truck-7/templates/panel?of=roof&format=svg", None, None)
        .await;
    problem(refused, 422, "not_measured").await;
    let refused = shop
        .call(Method::GET, "/api/v1/jobs/relay-van-2/templates/cope?of=frame&format=svg", None, None)
        .await;
    problem(refused, 422, "not_measured").await;
    let refused =
        shop.call(Method::GET, "/api/v1/jobs/relay-van-2/templates/anvil?of=x&format=svg", None, None).await;
    problem(refused, 404, "no_such_drawing").await;
}

#[tokio::test]
async fn parts_are_kept_changed_retired_and_travel_as_files() {
    let shop = Shop::open().await;
    let samples = shop.get("/api/v1/parts").await.as_array().unwrap().len();
    assert!(samples >= 10);
    let row = json!({ "row": { "kind": "bracket", "name": "own riser", "end": "axle",
        "holes": "hole 1: 1 in; hole 2: 2 in, outward 1/4 in" } });
    let made = shop.call(Method::POST, "/api/v1/parts", None, Some(row.to_string())).await;
    assert_eq!(made.status(), 201);
    let made: Value = made.json().await.unwrap();
    assert_eq!(made["part"]["holes"][1]["up"]["mm"], 50.8);
    let path = format!("/api/v1/parts/{}", made["id"].as_str().unwrap());
    let retired = json!({ "row": made["row"], "retired": true });
    let put = async |path: &str, seen: Option<&Value>, body: &Value| {
        let mut call = shop.client.put(format!("{}{path}", shop.address)).json(body);
        if let Some(seen) = seen {
            call = call.header("If-Match", format!("\"{}\"", seen["changed_at"].as_str().unwrap()));
        }
        call.send().await.unwrap()
    };
    problem(put(&path, None, &retired).await, 428, "revision_missing").await;
    let changed: Value = put(&path, Some(&made), &retired).await.json().await.unwrap();
    assert_eq!(changed["retired"], true);
    // Whoever still sees it as it was made writes over nothing.
    let renamed = json!({ "row": { "kind": "bracket", "name": "theirs", "end": "axle" } });
    problem(put(&path, Some(&made), &renamed).await, 412, "part_changed_elsewhere").await;
    let kept = shop.get("/api/v1/parts").await;
    let kept = kept.as_array().unwrap().iter().find(|part| part["id"] == made["id"]).unwrap();
    assert_eq!((&kept["part"]["name"], &kept["changed_at"]), (&json!("own riser"), &changed["changed_at"]));

    // A part that cannot be is told by its fields and does not come in.
    let crooked = json!({ "row": { "kind": "bar", "name": "all wall", "outside": "1 in", "wall": "3/4 in",
        "made_min": "40 in", "made_max": "30 in" } });
    let reported = problem(
        shop.call(Method::POST, "/api/v1/parts", None, Some(crooked.to_string())).await,
        422,
        "bad_fields",
    )
    .await;
    let codes: Vec<&str> =
        reported["errors"].as_array().unwrap().iter().map(|fault| fault["code"].as_str().unwrap()).collect();
    assert_eq!(codes, ["range_turned_round", "wall_too_thick"]);
    // Nor does one whose adjuster could not do what it says.
    for (adjuster, more, code) in [
        ("one_end", json!({ "thread": "7/8-14", "second_thread": "1-14" }), "second_thread_of_one"),
        (
            "turnbuckle",
            json!({ "thread": "7/8-14", "hand": "right", "second_hand": "right" }),
            "turning_does_nothing",
        ),
        (
            "one_end",
            json!({ "thread": "7/8-14", "shank": "1 in", "least_engagement": "2 in" }),
            "more_thread_than_there_is",
        ),
    ] {
        let mut row = json!({ "kind": "bar", "name": "odd", "adjuster": adjuster });
        row.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
        let body = json!({ "row": row }).to_string();
        let reported =
            problem(shop.call(Method::POST, "/api/v1/parts", None, Some(body)).await, 422, "bad_fields")
                .await;
        assert_eq!(reported["errors"][0]["code"], code, "{reported}");
    }

    // One that is no longer taken can be put out of use, and does not come back as it is.
    let odd = |retired: bool| {
        let row = json!({ "kind": "bar", "name": "odd", "adjuster": "one_end", "thread": "7/8-14", "second_thread": "1-14" });
        json!({ "row": row, "retired": retired })
    };
    let shelved: Value = put(&path, Some(&changed), &odd(true)).await.json().await.unwrap();
    assert_eq!(shelved["retired"], true, "{shelved}");
    problem(put(&path, Some(&shelved), &odd(false)).await, 422, "bad_fields").await;

    // Out as CSV and JSON, in again: the same parts, and so none more.
    let csv =
        shop.call(Method::GET, "/api/v1/parts/export?format=csv", None, None).await.text().await.unwrap();
    assert_eq!(csv.lines().count(), samples + 1, "retired parts stay behind");
    let client = reqwest::Client::new();
    let import = async |kind: &str, body: String| {
        let call = client.post(format!("{}/api/v1/parts/import", shop.address));
        call.header("content-type", kind).body(body).send().await.unwrap()
    };
    assert_eq!(import("text/csv", csv.clone()).await.json::<Value>().await.unwrap()["added"], 0);
    let out =
        shop.call(Method::GET, "/api/v1/parts/export?format=json", None, None).await.text().await.unwrap();
    assert_eq!(import("application/json", out).await.json::<Value>().await.unwrap()["added"], 0);

    // A bad line is told by its number, and nothing comes in.
    let bad = "kind,name,end,holes\nbracket,bad,axle,hole 1 2 in\n".to_owned();
    let reported = problem(import("text/csv", bad).await, 422, "bad_fields").await;
    assert!(reported["detail"].as_str().unwrap().starts_with("Line 2"), "{reported}");
    assert_eq!(shop.get("/api/v1/parts").await.as_array().unwrap().len(), samples + 1);
    problem(put("/api/v1/parts/none", Some(&shelved), &row).await, 404, "no_such_part").await;
    problem(shop.call(Method::POST, "/api/v1/parts", None, Some("{}".to_owned())).await, 422, "bad_fields")
        .await;
}
