//! The server killed with -9 between and during saves: every acknowledged save is there
//! afterwards.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

mod running;

use std::sync::Arc;
use std::sync::atomic::{AtomicU64, Ordering};

use reqwest::Client;
use running::Server;
use serde_json::{Value, json};

fn document(count: u64) -> Value {
    json!({ "format": "derecho-job", "version": 7, "title": format!("save {count}") })
}

#[tokio::test(flavor = "multi_thread")]
async fn every_acknowledged_save_survives() {
    let data = tempfile::tempdir().unwrap();
    let client = Client::new();
    let mut server = Server::start(data.path());
    let made: Value = client
        .post(format!("{}/api/v1/jobs", server.address))
        .json(&document(0))
        .send()
        .await
        .unwrap()
        .json()
        .await
        .unwrap();
    let id = made["id"].as_str().unwrap().to_owned();
    let mut known = 1;
    // Killed each time in the middle of saving, after so many more saves.
    let rounds = std::env::var("DERECHO_KILLS").ok().and_then(|kills| kills.parse().ok()).unwrap_or(30);
    for more in [1, 7, 20, 3, 33].into_iter().cycle().take(rounds) {
        let acknowledged = Arc::new(AtomicU64::new(known));
        let saving = {
            let (client, address, id, acknowledged) =
                (client.clone(), server.address.clone(), id.clone(), Arc::clone(&acknowledged));
            tokio::spawn(async move {
                let mut revision = known;
                loop {
                    let request = client
                        .put(format!("{address}/api/v1/jobs/{id}"))
                        .header("If-Match", format!("\"{revision}\""))
                        .json(&document(revision + 1));
                    let Ok(answer) = request.send().await else { return };
                    // An answer that breaks off half-way acknowledged nothing.
                    let Ok(body) = answer.json::<Value>().await else { return };
                    revision = body["revision"].as_u64().unwrap();
                    acknowledged.store(revision, Ordering::SeqCst);
                }
            })
        };
        while acknowledged.load(Ordering::SeqCst) < known + more {
            tokio::task::yield_now().await;
        }
        drop(server);
        saving.await.unwrap();
        server = Server::start(data.path());
        let stored: Value = client
            .get(format!("{}/api/v1/jobs/{id}", server.address))
            .send()
            .await
            .unwrap()
            .json()
            .await
            .unwrap();
        let revision = stored["revision"].as_u64().unwrap();
        let acknowledged = acknowledged.load(Ordering::SeqCst);
        // One more may have reached the disk before its answer was cut off.
        assert!((acknowledged..=acknowledged + 1).contains(&revision), "{revision} after {acknowledged}");
        if revision > 1 {
            assert_eq!(stored["document"]["title"], format!("save {revision}"));
        }
        let history: Value = client
            .get(format!("{}/api/v1/jobs/{id}/revisions", server.address))
            .send()
            .await
            .unwrap()
            .json()
            .await
            .unwrap();
        assert_eq!(history.as_array().unwrap().len() as u64, revision, "no revision is missing");
        known = revision;
    }
    assert!(known > rounds as u64, "every stretch of saving is there: {known}");
}
