//! Every kind of work carried through the API by somebody who reads nothing but the steps: from a new job to one that is
//! closed, with its record. A step that comes next is one that can be done.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

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
        let address = format!("http://{}/api/v1", listener.local_addr().unwrap());
        let settings = Settings::new(data.path().to_owned(), false);
        tokio::spawn(launch_with_listener(settings, listener, std::future::pending()));
        Self { address, client: Client::new(), _data: data }
    }

    async fn call(
        &self,
        method: Method,
        path: &str,
        revision: Option<&Value>,
        body: Option<&Value>,
    ) -> Response {
        let mut request = self.client.request(method, format!("{}{path}", self.address));
        if let Some(revision) = revision {
            request = request.header("If-Match", format!("\"{revision}\""));
        }
        if let Some(body) = body {
            request = request.json(body);
        }
        request.send().await.unwrap()
    }

    async fn said(
        &self,
        method: Method,
        path: &str,
        revision: Option<&Value>,
        body: Option<&Value>,
    ) -> Value {
        let answer = self.call(method, path, revision, body).await;
        assert!(answer.status().is_success(), "{path}: {}", answer.text().await.unwrap());
        answer.json().await.unwrap()
    }
}

/// A job in the hands of somebody who does as the steps say.
struct Carried<'a> {
    shop: &'a Shop,
    kind: &'static str,
    id: String,
}

const MARK_BY: &str = "Rosa";

fn mark(minute: usize) -> Value {
    json!({ "at": format!("2026-11-20T{:02}:{:02}:00Z", 9 + minute / 60, minute % 60), "by": MARK_BY })
}

fn pushed(list: &mut Value, row: Value) {
    match list.as_array_mut() {
        Some(rows) => rows.push(row),
        None => *list = json!([row]),
    }
}

fn sheet(id: &str, left: &str, right: &str, after: &str) -> Value {
    json!({ "id": id, "unit": "in", "after": after, "method": "frame_to_hub", "left": [left, left, left, left],
        "right": [right, right, right, right], "conditions": { "on_its_weight": true } })
}

impl<'a> Carried<'a> {
    async fn begun(shop: &'a Shop, kind: &'static str, document: &Value) -> Self {
        let made = shop.said(Method::POST, "/jobs", None, Some(document)).await;
        Self { shop, kind, id: made["id"].as_str().unwrap().to_owned() }
    }

    async fn view(&self) -> Value {
        self.shop.said(Method::GET, &format!("/jobs/{}", self.id), None, None).await
    }

    async fn edit(&self, change: impl FnOnce(&mut Value)) {
        let mut view = self.view().await;
        change(&mut view["document"]);
        let path = format!("/jobs/{}", self.id);
        self.shop.said(Method::PUT, &path, Some(&view["revision"]), Some(&view["document"])).await;
    }

    /// What went in goes on record as the program has it ready, and both sides are read again.
    async fn record(&self) {
        let view = self.view().await;
        let results = &view["results"];
        let fitting = [&results["bar"]["correction"]["fitting"], &results["bar"]["built"]];
        let mut round =
            fitting.into_iter().find(|round| round.is_object()).cloned().unwrap_or_else(|| json!({}));
        let installs = results["settling"]["installs"].as_array().unwrap();
        let parts: Vec<&Value> =
            installs.iter().filter(|line| line["on_record"] == false).map(|line| &line["part"]).collect();
        if !parts.is_empty() {
            round["parts"] = json!(parts);
        }
        let sway = &view["document"]["setups"]["plans"]["sway"];
        for (from, to) in [("link", "sway_link"), ("hole", "sway_hole")] {
            if !sway[from].is_null() {
                round[to] = sway[from].clone();
            }
        }
        if round == json!({}) {
            return;
        }
        round["id"] = json!("r1");
        let reads = view["document"]["to_do"] != json!(["choose_sway_bar"]);
        self.edit(|document| {
            pushed(&mut document["setups"]["rounds"], round);
            if let Some(plans) = document["setups"]["plans"].as_object_mut() {
                plans.remove("sway");
            }
            if reads {
                pushed(&mut document["sheets"], sheet("after", "12 in", "12 in", "r1"));
            }
        })
        .await;
    }

    async fn do_step(&self, step: &Value, minute: usize) {
        let stood = step["stands"].as_str().unwrap_or("supported");
        self.edit(|document| {
            let work = &mut document["bolt_up"];
            work["stands"] = json!(stood);
            if step["key"] == "mock-up" {
                work["mock_up"] =
                    json!({ "corners_equal": true, "strapped": true, "repeats_agree": true, "cycled": true });
            }
            pushed(&mut work["steps"], json!({ "key": step["key"], "done": mark(minute), "stood": stood }));
            for key in step["tightens"].as_array().unwrap() {
                let tight =
                    json!({ "torque": "150 Nm", "stood": stood, "tool": "wrench 2", "done": mark(minute) });
                let fastener =
                    json!({ "key": key, "torque": "150 Nm", "source": "parts_sheet", "tight": tight });
                pushed(&mut work["fasteners"], fastener);
            }
        })
        .await;
    }

    /// Does what stands first, until nothing is left.
    async fn carry(&self) -> usize {
        let mut recorded = false;
        let mut done = 0;
        loop {
            assert!(done < 60, "{}: no end of steps", self.kind);
            let view = self.view().await;
            let work = self.shop.said(Method::POST, "/compute/work", None, Some(&view["document"])).await;
            let open = |step: &&Value| step["state"] != "done" && step["state"] != "struck";
            let Some(step) = work["steps"].as_array().unwrap().iter().find(open) else { break };
            if step["key"] == "read-again" && !recorded {
                self.record().await;
                recorded = true;
                continue;
            }
            assert_eq!(
                step["state"], "ready",
                "{}: {} waits for {}, {}",
                self.kind, step["does"], step["waits"], step["minds"]
            );
            self.do_step(step, done).await;
            done += 1;
        }
        if !recorded {
            self.record().await;
        }
        done
    }

    /// Everything looked at, driven, and closed; its record is there.
    async fn close(&self) {
        let view = self.view().await;
        let looks: serde_json::Map<String, Value> = view["results"]["settling"]["looks"]
            .as_array()
            .unwrap()
            .iter()
            .map(|look| (look["kind"].as_str().unwrap().to_owned(), json!(true)))
            .collect();
        self.edit(|document| {
            document["proof"] =
                json!({ "looked_at": looks, "by": MARK_BY, "road": [{ "step": "yard", "result": "good" }] });
            for complaint in document["complaints"].as_array_mut().into_iter().flatten() {
                complaint["after"] = json!("gone");
            }
        })
        .await;
        let view = self.view().await;
        assert_eq!(
            view["results"]["status"]["state"], "proved",
            "{}: {}",
            self.kind, view["results"]["findings"]
        );
        let path = format!("/jobs/{}/settle", self.id);
        let closed = self.shop.call(Method::POST, &path, Some(&view["revision"]), None).await;
        assert_eq!(closed.status(), StatusCode::OK, "{}: {}", self.kind, closed.text().await.unwrap());
        let record = self.shop.call(Method::GET, &format!("/jobs/{}/record.pdf", self.id), None, None).await;
        assert_eq!(record.status(), StatusCode::OK, "{}", self.kind);
        assert!(record.bytes().await.unwrap().starts_with(b"%PDF"));
    }
}

/// A front on leaf springs, 1/4 in to the left.
fn front(to_do: &str) -> Value {
    let end = |hand: &str| json!({ "thread": "1-1/4-12", "hand": hand, "engagement": "2 in" });
    json!({ "format": "derecho-job", "version": 7, "title": "Sled hauler 4", "to_do": [to_do],
        "rig": { "end": "front", "steering_side": "left", "frame_eye_side": "left", "sheet_unit": "in",
            "axle_location": "leaf_springs", "bump": "3 in", "droop": "4 in", "track": "61 in", "axle_height": "16 in" },
        "sheets": [sheet("before", "12 1/4 in", "11 3/4 in", "")],
        "setups": { "found": {
            "bar": { "length": "32 in", "frame_eye_height": "26 in", "axle_eye_height": "20 in" },
            "adjuster": { "kind": "turnbuckle", "first": end("right"), "second": end("left"), "made_min": "30 in",
                "made_max": "36 in" } } } })
}

fn riser(document: &mut Value, attachment: &str, up: &str) {
    document["bracket"]["brackets"] = json!([{ "id": "riser", "name": "riser", "end": "axle", "attachment": attachment,
        "comes_off_first": if attachment == "weld_on" { "old bracket" } else { "" },
        "holes": [{ "id": "hole", "name": "hole", "up": up }] }]);
    document["setups"]["plans"]["chosen"]["axle"] = json!({ "bracket": "riser", "hole": "hole" });
}

fn of_the_bar(kind: &str) -> Value {
    let mut document = front(match kind {
        "new bar" => "swap_bar",
        "bracket bolted" | "bracket welded" | "drag link" => "level_bar",
        "somebody's work" => "check_work",
        _ => "centre_axle",
    });
    match kind {
        "new bar" => {
            document["sheets"] = json!([]);
            document["setups"] = json!({ "found": { "bar": { "length": "33 1/8 in" } },
                "plans": { "chosen": { "bar": "new", "length": "as_the_old_one" } } });
            document["bracket"]["bars"] = json!([{ "id": "new", "name": "new bar", "adjuster": "turnbuckle",
                "made_min": "31 5/8 in", "thread": "1-1/4-12", "hand": "right", "second_hand": "left" }]);
        }
        "built bar" => {
            document["sheets"] = json!([]);
            document["setups"] =
                json!({ "found": { "bar": { "frame_eye_height": "24 in", "axle_eye_height": "18 in" } } });
            riser(&mut document, "bolt_on", "4 in");
            document["bracket"]["builder"] = json!({ "gap": "28 1/4 in", "gap_in_new_holes": "27 3/4 in",
                "frame_shell": "1 3/4 in", "axle_shell": "1 3/4 in", "stock": "1 1/4 in" });
        }
        "bracket bolted" => riser(&mut document, "bolt_on", "5 in"),
        "bracket welded" => riser(&mut document, "weld_on", "5 in"),
        "drag link" => {
            riser(&mut document, "bolt_on", "3 in");
            document["bracket"]["drag_links"] =
                json!([{ "id": "arm", "name": "raised arm", "raises_axle_end": "2 in" }]);
            document["setups"]["plans"]["chosen"]["drag_link"] = json!("arm");
        }
        "brace" => {
            document["bracket"]["brace"] = json!({ "name": "rail brace", "below_rail": "1 in" });
            document["setups"]["plans"]["parts"] = json!(["brace"]);
        }
        "tie rod" => {
            document["hardpoints"] = json!({ "tie_rod": { "end": { "height": "14 in", "fore_aft": "-6 in" }, "to": "over",
                "by": "3 1/2 in", "seats": "inserts" } });
            document["setups"]["plans"]["parts"] = json!(["tie_rod"]);
        }
        "first frame bracket" => {
            riser(&mut document, "weld_on", "-4 in");
            let bracket = &mut document["bracket"];
            bracket["brackets"][0]["end"] = json!("frame");
            bracket["brackets"][0]["comes_off_first"] = json!("");
            bracket["first_frame_bracket"] = json!(true);
            document["setups"]["plans"]["chosen"] =
                json!({ "frame": { "bracket": "riser", "hole": "hole" } });
        }
        "straps" => {
            document["rig"]["straps"] =
                json!({ "length": "22 in", "at_droop": "22 1/2 in", "at_driven": "17 in" });
            document["setups"]["plans"]["parts"] = json!(["straps"]);
        }
        "somebody's work" => document["sheets"] = json!([sheet("before", "12 in", "12 in", "")]),
        _ => {}
    }
    document
}

fn of_the_sway_bar(kind: &str) -> Value {
    let plans = match kind {
        "links" => json!({ "sway": { "hole": "short", "link": "8 1/2 in" } }),
        "disconnect" => json!({ "parts": ["disconnect"] }),
        "second shim" => json!({ "parts": ["second_shim"] }),
        _ => json!({ "parts": ["sway_bar"], "sway": { "link": "8 1/2 in" } }),
    };
    let named = if ["splined", "two_rate", "powered"].contains(&kind) { kind } else { "one_piece" };
    let at =
        |up: &str, out: &str, forward: &str| json!({ "height": up, "sideways": out, "fore_aft": forward });
    let tubes = json!({ "outside": "2 in", "below_edge": "2 1/4 in", "from_cross_member": "6 in", "inner_plates": true });
    let splined = if kind == "splined in tubes" { json!({ "tubes": tubes }) } else { json!({}) };
    let named = if kind == "splined in tubes" { "splined" } else { named };
    json!({ "format": "derecho-job", "version": 7, "title": "Cistern truck 3", "to_do": ["choose_sway_bar"],
        "rig": { "sheet_unit": "in", "end": "front", "steering_side": "left", "axle_location": "leaf_springs",
            "bump": "3 in", "droop": "4 in", "track": "61 in", "axle_height": "16 in", "frame_width": "31 in" },
        "sway": { "kind": named, "on": "body", "forward": false, "axis": at("24 in", "0 in", "10 in"),
            "holes": [{ "id": "short", "arm": "9 1/2 in" }, { "id": "long", "arm": "10 1/2 in" }], "hole": "long",
            "eye_from_centre": "17 in", "link": "8 in", "far_end": at("15 3/4 in", "17 in", "0 in"),
            "diameter": "1 in", "active_length": "31 in", "link_thread": "1/2-20", "shim": "1/4 in", "shim_side": "left",
            "pins": { "eye_bore": "3/4 in", "stud": "3/4 in", "stud_thread": "1/2-20", "nut_thread": "1/2-20",
                "stowed_room": "2 in" }, "splined": splined },
        "setups": { "plans": plans } })
}

async fn carried(shop: &Shop, kind: &'static str, document: &Value, at_least: usize) {
    let job = Carried::begun(shop, kind, document).await;
    let steps = job.carry().await;
    assert!(steps >= at_least, "{kind}: {steps} steps");
    job.close().await;
}

#[tokio::test]
async fn every_kind_of_work_on_the_track_bar_is_carried_to_its_record() {
    let shop = Shop::open().await;
    for (kind, steps) in [
        ("length", 5),
        ("new bar", 11),
        ("built bar", 20),
        ("bracket bolted", 15),
        ("bracket welded", 18),
        ("drag link", 20),
        ("brace", 8),
        ("straps", 9),
        ("tie rod", 13),
        ("first frame bracket", 20),
        ("somebody's work", 0),
    ] {
        carried(&shop, kind, &of_the_bar(kind), steps).await;
    }
}

#[tokio::test]
async fn every_kind_of_work_on_the_sway_bar_is_carried_to_its_record() {
    let shop = Shop::open().await;
    for (kind, steps) in [
        ("one_piece", 12),
        ("splined", 16),
        ("splined in tubes", 20),
        ("two_rate", 14),
        ("powered", 14),
        ("links", 8),
        ("disconnect", 10),
        ("second shim", 6),
    ] {
        carried(&shop, kind, &of_the_sway_bar(kind), steps).await;
    }
}

#[tokio::test]
#[allow(clippy::disallowed_methods, reason = "a test reads a sample job")]
async fn a_y_link_is_carried_to_its_record() {
    let path = format!("{}/../../demo/relay-wagon-5.derecho.json", env!("CARGO_MANIFEST_DIR"));
    let mut document: Value = serde_json::from_str(&std::fs::read_to_string(path).unwrap()).unwrap();
    document["to_do"] = json!(["convert_to_y_link"]);
    carried(&Shop::open().await, "Y-link", &document, 14).await;
}
