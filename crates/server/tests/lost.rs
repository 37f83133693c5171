//! Work that must not get lost: folders without a bay, a bay that is gone, jobs taken out, files that others may not
//! read, and a shop that comes in whole or not at all.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod running;

use std::fs;
use std::io::{Cursor, Write};
use std::os::unix::fs::PermissionsExt as _;
use std::path::Path;
use std::process::{Command, Output};
use std::time::Duration;

use derecho_core::parts::{JointPart, Part};
use derecho_store::{DATABASE_FILE, Store};
use reqwest::{Client, StatusCode};
use running::Server;
use serde_json::{Value, json};
use zip::ZipWriter;
use zip::write::SimpleFileOptions;

fn derecho(words: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_derecho")).args(words).output().unwrap()
}

fn complaint(output: &Output) -> String {
    String::from_utf8_lossy(&output.stderr).into_owned()
}

fn demo(name: &str) -> String {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    folder.join(format!("{name}.derecho.json")).to_str().unwrap().to_owned()
}

/// A running server and somebody who calls it.
struct Caller {
    _server: Server,
    address: String,
    client: Client,
}

impl Caller {
    fn start(data: &Path) -> Self {
        let server = Server::start(data);
        Self { address: server.address.clone(), _server: server, client: Client::new() }
    }

    fn at(&self, path: &str) -> String {
        format!("{}/api/v1{path}", self.address)
    }

    async fn json(&self, path: &str) -> Value {
        let answer = self.client.get(self.at(path)).send().await.unwrap();
        assert_eq!(answer.status(), StatusCode::OK, "{path}");
        answer.json().await.unwrap()
    }

    async fn made(&self, title: &str) -> Value {
        let job = json!({ "format": "derecho-job", "version": 7, "title": title });
        let answer = self.client.post(self.at("/jobs")).json(&job).send().await.unwrap();
        assert_eq!(answer.status(), StatusCode::CREATED);
        answer.json().await.unwrap()
    }
}

#[test]
fn a_command_on_a_folder_without_a_bay_makes_none() {
    let folder = tempfile::tempdir().unwrap();
    let (data, out) = (folder.path().join("data"), folder.path().join("out"));
    let (data, out) = (data.to_str().unwrap(), out.to_str().unwrap());
    let commands: [&[&str]; 6] =
        [&["backup", out], &["pack", out], &["export"], &["log"], &["reminders"], &["removed"]];
    // Whether the folder is there or not.
    for there in [false, true] {
        if there {
            fs::create_dir(data).unwrap();
        }
        for words in commands {
            let reported = derecho(&[words, &["--data", data]].concat());
            assert_eq!(reported.status.code(), Some(1), "{words:?}: {}", complaint(&reported));
            assert!(complaint(&reported).contains(data), "{words:?}: {}", complaint(&reported));
            assert!(reported.stdout.is_empty(), "{words:?}");
        }
        assert_eq!(Path::new(data).exists(), there);
        assert!(!Path::new(out).exists());
    }
    assert_eq!(fs::read_dir(data).unwrap().count(), 0);
}

#[test]
fn a_bay_that_is_gone_is_not_served_empty_and_the_copy_that_brings_it_back_is_named() {
    let folder = tempfile::tempdir().unwrap();
    let data = folder.path().to_str().unwrap();
    assert!(derecho(&["import", &demo("lookout-truck-4"), "--data", data]).status.success());
    let copies = folder.path().join("copies");
    fs::create_dir_all(&copies).unwrap();
    let copy = copies.join("2026-11-28.sqlite3");
    assert!(derecho(&["backup", copy.to_str().unwrap(), "--data", data]).status.success());
    for lose in [0, 1] {
        let database = folder.path().join(DATABASE_FILE);
        if lose == 0 {
            fs::remove_file(&database).unwrap();
        } else {
            fs::write(&database, "x").unwrap();
        }
        for words in [&["serve", "--listen", "127.0.0.1:0"][..], &["export"]] {
            let reported = derecho(&[words, &["--data", data]].concat());
            let says = complaint(&reported);
            assert_eq!(reported.status.code(), Some(1), "{says}");
            assert!(says.contains("2026-11-28.sqlite3") && says.contains("derecho restore"), "{says}");
        }
        assert!(derecho(&["restore", copy.to_str().unwrap(), "--data", data]).status.success());
        let back = derecho(&["export", "--data", data]);
        assert_eq!(String::from_utf8_lossy(&back.stdout).lines().count(), 1);
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn what_the_program_writes_is_read_by_its_owner_alone() {
    let folder = tempfile::tempdir().unwrap();
    let data = folder.path().join("data");
    // There before, and open to everybody, as a folder made by hand is.
    fs::create_dir(&data).unwrap();
    fs::set_permissions(&data, fs::Permissions::from_mode(0o755)).unwrap();
    let server = Caller::start(&data);
    server.made("Hose truck 2").await;
    let mode = |path: &Path| fs::metadata(path).unwrap().permissions().mode() & 0o777;
    for ending in ["", "-wal", "-shm"] {
        let file = data.join(format!("{DATABASE_FILE}{ending}"));
        assert_eq!(mode(&file), 0o600, "{}", file.display());
    }
    drop(server);
    let at = |name: &str| folder.path().join(name).to_str().unwrap().to_owned();
    let data = data.to_str().unwrap();
    for words in [
        &["pack", &at("shop.zip")][..],
        &["backup", &at("copy.sqlite3")],
        &["reminders", "--calendar", &at("due.ics")],
        &["card", &demo("tower-truck-8"), "-o", &at("card.pdf")],
    ] {
        let reported = derecho(&[words, &["--data", data]].concat());
        assert!(reported.status.success(), "{words:?}: {}", complaint(&reported));
    }
    for name in ["shop.zip", "copy.sqlite3", "due.ics", "card.pdf"] {
        assert_eq!(mode(Path::new(&at(name))), 0o600, "{name}");
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn a_job_that_was_taken_out_comes_back_over_the_network_and_by_the_command() {
    let folder = tempfile::tempdir().unwrap();
    let data = folder.path().to_str().unwrap();
    let server = Caller::start(folder.path());
    let job = server.made("Hose truck 3").await;
    let id = job["id"].as_str().unwrap();
    let take_out = || server.client.delete(server.at(&format!("/jobs/{id}"))).header("If-Match", "\"1\"");
    assert!(take_out().send().await.unwrap().status().is_success());
    assert_eq!(server.json("/jobs").await["total"], 0);
    let removed = server.json("/removed-jobs").await;
    assert_eq!((&removed[0]["id"], &removed[0]["title"]), (&json!(id), &json!("Hose truck 3")));
    let path = format!("/removed-jobs/{id}");
    let back = server.client.post(server.at(&path)).send().await.unwrap();
    assert_eq!(back.status(), StatusCode::OK);
    let back: Value = back.json().await.unwrap();
    assert_eq!(back["document"]["title"], "Hose truck 3");
    assert_eq!(server.json("/removed-jobs").await, json!([]));
    // It is there: nothing to bring back.
    let again = server.client.post(server.at(&path)).send().await.unwrap();
    assert_eq!(again.status(), StatusCode::NOT_FOUND);
    assert_eq!(again.json::<Value>().await.unwrap()["code"], "no_such_job");

    let revision = back["revision"].as_u64().unwrap();
    let taken = server
        .client
        .delete(server.at(&format!("/jobs/{id}")))
        .header("If-Match", format!("\"{revision}\""))
        .send()
        .await
        .unwrap();
    assert!(taken.status().is_success());
    drop(server);
    let listed = derecho(&["removed", "--data", data]);
    assert!(String::from_utf8_lossy(&listed.stdout).contains(id), "{}", complaint(&listed));
    assert!(derecho(&["bring-back", id, "--data", data]).status.success());
    let jobs = derecho(&["export", "--data", data]);
    assert!(String::from_utf8_lossy(&jobs.stdout).contains("Hose truck 3"));
}

/// The name of an edit is one edit's: with another document it is a mistake, and is told as one.
#[tokio::test(flavor = "multi_thread")]
async fn one_key_names_one_edit() {
    let folder = tempfile::tempdir().unwrap();
    let server = Caller::start(folder.path());
    let job = server.made("Hose truck 4").await;
    let id = job["id"].as_str().unwrap();
    let put = async |title: &str, revision: u64| {
        let body = json!({ "format": "derecho-job", "version": 7, "title": title });
        let call = server.client.put(server.at(&format!("/jobs/{id}"))).json(&body);
        call.header("If-Match", format!("\"{revision}\""))
            .header("Idempotency-Key", "edit-1")
            .send()
            .await
            .unwrap()
    };
    assert_eq!(put("Hose truck 4, front", 1).await.status(), StatusCode::OK);
    // The same again is the same edit, made once.
    let same: Value = put("Hose truck 4, front", 1).await.json().await.unwrap();
    assert_eq!(same["revision"], 2);
    let other = put("Hose truck 4, rear", 1).await;
    assert_eq!(other.status(), StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(other.json::<Value>().await.unwrap()["code"], "edit_key_used");
    let now = server.json(&format!("/jobs/{id}")).await;
    assert_eq!(now["document"]["title"], "Hose truck 4, front");
}

/// So many small jobs as a zip.
fn shop_of(jobs: usize) -> Vec<u8> {
    let mut writer = ZipWriter::new(Cursor::new(Vec::new()));
    for number in 0..jobs {
        writer.start_file(format!("{number}.derecho.json"), SimpleFileOptions::default()).unwrap();
        let job = json!({ "format": "derecho-job", "version": 7, "title": format!("Hose truck {number}") });
        writer.write_all(job.to_string().as_bytes()).unwrap();
    }
    writer.finish().unwrap().into_inner()
}

/// Killed while a shop is taken in: none of it is there, or all of it; and somebody else's save does not wait for it.
#[tokio::test(flavor = "multi_thread")]
async fn a_shop_that_is_cut_off_came_in_whole_or_not_at_all() {
    const JOBS: usize = 300;
    let folder = tempfile::tempdir().unwrap();
    for made_ready in [1, JOBS / 2, JOBS - 1] {
        let server = Caller::start(folder.path());
        let before = server.json("/jobs").await["total"].as_u64().unwrap();
        let sending = {
            let call = server.client.post(server.at("/shop.zip")).header("Content-Type", "application/zip");
            tokio::spawn(call.body(shop_of(JOBS)).send())
        };
        loop {
            let progress = server.json("/shop.zip/progress").await;
            if progress["done"].as_u64().unwrap() >= made_ready as u64 || sending.is_finished() {
                break;
            }
            tokio::time::sleep(Duration::from_millis(2)).await;
        }
        let kept = server.made("Saved meanwhile").await;
        drop(server);
        drop(sending.await);
        let server = Caller::start(folder.path());
        let total = server.json("/jobs").await["total"].as_u64().unwrap();
        assert!(
            [before + 1, before + 1 + JOBS as u64].contains(&total),
            "{before} before, {total} after a cut at {made_ready}"
        );
        let path = format!("/jobs/{}", kept["id"].as_str().unwrap());
        assert_eq!(server.json(&path).await["document"]["title"], "Saved meanwhile");
    }
}

/// One job that cannot be read, and one part: the others are packed, listed and told, and what is left out is named.
#[tokio::test(flavor = "multi_thread")]
async fn what_cannot_be_read_is_named_and_the_others_are_there() {
    let folder = tempfile::tempdir().unwrap();
    let data = folder.path().to_str().unwrap();
    let stored = derecho(&["import", &demo("ridge-truck-1"), &demo("lookout-truck-4"), "--data", data]);
    let reported = String::from_utf8_lossy(&stored.stdout).into_owned();
    let damaged = reported.lines().next().unwrap().split('\t').next().unwrap().to_owned();
    let store = Store::open(folder.path()).unwrap();
    for name in ["jam nut", "rod end"] {
        let part = Part::Joint(JointPart { name: name.to_owned(), ..JointPart::default() });
        store.add_part(name, &part, "2026-11-29T08:00:00Z".parse().unwrap()).unwrap();
    }
    drop(store);
    let raw = rusqlite::Connection::open(folder.path().join(DATABASE_FILE)).unwrap();
    raw.execute_batch("DROP TRIGGER revisions_are_not_changed").unwrap();
    raw.execute("UPDATE revisions SET packed = X'00' WHERE job_id = ?1", [&damaged]).unwrap();
    raw.execute("UPDATE parts SET document = 'a nut' WHERE id = 'jam nut'", []).unwrap();
    drop(raw);

    let zip = folder.path().join("shop.zip");
    for words in [&["pack", zip.to_str().unwrap()][..], &["reminders"]] {
        let reported = derecho(&[words, &["--data", data]].concat());
        assert_eq!(reported.status.code(), Some(1), "{words:?}");
        assert!(complaint(&reported).contains(&damaged), "{words:?}: {}", complaint(&reported));
    }
    assert_eq!(zip::ZipArchive::new(fs::File::open(&zip).unwrap()).unwrap().len(), 1);

    let server = Caller::start(folder.path());
    let answer = server.client.get(server.at("/parts")).send().await.unwrap();
    assert_eq!(answer.headers()["x-damaged-parts"], "jam nut");
    let left: Value = answer.json().await.unwrap();
    assert_eq!((left.as_array().unwrap().len(), &left[0]["id"]), (1, &json!("rod end")));
    assert_eq!(server.json("/jobs").await["total"], 2);
}
