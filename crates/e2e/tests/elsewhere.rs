//! What happens elsewhere while somebody types: the browser's Back, another device, a row that goes, a job that is
//! taken out, many windows. Nothing typed is lost, and nothing is written over unasked.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_e2e::{DESK, PHONE, Page, Shop, in_browser};
use reqwest::{Client, Method, Response};
use serde_json::{Value, json};
use thirtyfour::error::WebDriverResult;
use thirtyfour::prelude::*;

const ANSWER: &str = "[data-answer]";
const NOT_STRAIGHT: &str =
    "//*[normalize-space()='Wheels straight ahead']/ancestor::fieldset[1]//button[normalize-space()='no']";

/// A call of another device, based on the job as the server has it.
async fn another_device(
    shop: &Shop,
    method: Method,
    path: &str,
    job: &Value,
    body: Option<&Value>,
) -> Response {
    let id = job["id"].as_str().unwrap();
    let call = Client::new()
        .request(method, format!("{}/api/v1/jobs/{id}{path}", shop.address))
        .header("If-Match", format!("\"{}\"", job["revision"]));
    let call = if let Some(body) = body { call.json(body) } else { call };
    let answer = call.send().await.unwrap();
    assert!(answer.status().is_success(), "{}", answer.text().await.unwrap());
    answer
}

fn reading(job: &Value) -> &Value {
    &job["document"]["sheets"][0]["left"][0]["text"]
}

async fn opened(page: &Page, shop: &Shop, at: &str) -> WebDriverResult<()> {
    page.go(&format!("{}/jobs/{at}", shop.address)).await?;
    page.sees(ANSWER, "").await.map(drop)
}

/// From the bay into the job and back by the browser's own Back, with a figure just typed.
async fn typed_and_gone_back(page: &Page, shop: &Shop, text: &str) -> WebDriverResult<()> {
    page.go(&shop.address).await?;
    page.pick("//*[@data-job='lookout-truck-7']").await?;
    page.sees(ANSWER, "").await?;
    page.driver.execute("history.replaceState(null, '', '/jobs/lookout-truck-7/tape')", vec![]).await?;
    page.driver.execute("dispatchEvent(new PopStateEvent('popstate', { state: null }))", vec![]).await?;
    page.fill("left reading 1", text).await?;
    page.driver.back().await?;
    page.at("//h1[normalize-space()='Derecho']").await?;
    shop.until("lookout-truck-7", |job| *reading(job) == text).await;
    Ok(())
}

#[tokio::test(flavor = "multi_thread")]
async fn a_figure_typed_just_before_the_browsers_back_is_kept_at_the_desk() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move { typed_and_gone_back(&page, &shop, "6 5/8").await }).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_figure_typed_just_before_the_browsers_back_is_kept_on_the_phone() {
    let shop = Shop::open();
    in_browser(PHONE, |page| async move { typed_and_gone_back(&page, &shop, "6 7/8").await }).await;
}

/// A draft of yesterday over a field that another device has filled since: asked, never written over.
#[tokio::test(flavor = "multi_thread")]
async fn a_draft_over_a_value_changed_elsewhere_is_asked_about() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let id = "lookout-truck-7";
        for (theirs, mine, kept) in [("7 1/8", "6 5/8", "Keep mine"), ("7 1/4", "6 3/4", "Take that")] {
            opened(&page, &shop, &format!("{id}/tape")).await?;
            page.fill("left reading 1", mine).await?;
            // The lid is closed: the page goes without a word.
            page.go("about:blank").await?;
            let job = shop.job(id).await;
            let mut document = job["document"].clone();
            document["sheets"][0]["left"][0] = json!({ "text": theirs, "unit": "in" });
            another_device(&shop, Method::PUT, "", &job, Some(&document)).await;

            opened(&page, &shop, &format!("{id}/tape")).await?;
            assert_eq!(page.value("left reading 1").await?, mine);
            page.touch("left reading 1").await?;
            page.type_on(&Key::Enter.value().to_string()).await?;
            page.sees("[data-meanwhile]", theirs).await?;
            assert_eq!(reading(&shop.job(id).await), theirs, "nothing is written over unasked");
            page.press(kept).await?;
            let wanted = if kept == "Keep mine" { mine } else { theirs };
            page.misses("[data-meanwhile]").await?;
            shop.until(id, |job| reading(job) == wanted).await;
            assert_eq!(page.value("left reading 1").await?, wanted);
        }
        Ok(())
    })
    .await;
}

/// A row above is taken out, and brought back, with a figure typed and not read in the row below.
#[tokio::test(flavor = "multi_thread")]
async fn a_figure_stays_with_its_row() {
    let shop = Shop::empty();
    let id = shop
        .make(&json!({
            "format": "derecho-job", "version": 7, "title": "Hose truck 5",
            "rig": { "sheet_unit": "in", "heights": [
                { "id": "a", "name": "raised", "offset": "2 in" }, { "id": "b", "name": "loaded", "offset": "-1 in" },
                { "id": "c", "name": "lowered", "offset": "-3 in" }] },
        }))
        .await;
    in_browser(DESK, |page| async move {
        let offsets = |job: &Value| -> Vec<String> {
            let rows = job["document"]["rig"]["heights"].as_array().unwrap().iter();
            rows.map(|row| {
                format!("{} {}", row["name"].as_str().unwrap(), row["offset"]["text"].as_str().unwrap())
            })
            .collect()
        };
        opened(&page, &shop, &format!("{id}/rig")).await?;
        let offset = |row: usize| format!("//input[@data-pointer='/rig/heights/{row}/offset']");
        let field = page.at(&offset(1)).await?;
        field.click().await?;
        field.send_keys(Key::Control + "a").await?;
        // A text nobody reads stays a draft; it must stay with its row.
        field.send_keys("1 1/x").await?;
        page.press("remove raised").await?;
        let job = shop.until(&id, |job| offsets(job).len() == 2).await;
        assert!(offsets(&job)[0].starts_with("loaded -1") && offsets(&job)[1].starts_with("lowered -3"));
        let field = page.at(&offset(0)).await?;
        assert_eq!(field.prop("value").await?.unwrap(), "1 1/x");
        let lowered = page.at(&offset(1)).await?;
        assert_ne!(lowered.prop("value").await?.unwrap(), "1 1/x");
        field.click().await?;
        field.send_keys(Key::Control + "a").await?;
        field.send_keys(format!("-1 1/4 in{}", Key::Enter.value())).await?;
        let job = shop.until(&id, |job| offsets(job)[0].contains("1/4")).await;
        assert_eq!(offsets(&job).len(), 2);
        assert!(offsets(&job)[1].starts_with("lowered -3"));
        Ok(())
    })
    .await;
}

/// Settled elsewhere while something was typed here: keeping what is here says that it takes the settling away.
#[tokio::test(flavor = "multi_thread")]
async fn a_settling_is_never_taken_away_unsaid() {
    let shop = Shop::open();
    let settled = shop.job("supply-truck-9").await;
    let mut open = settled["document"].clone();
    open.as_object_mut().unwrap().remove("settled");
    let id = shop.make(&open).await;
    in_browser(DESK, |page| async move {
        opened(&page, &shop, &format!("{id}/tape")).await?;
        let job = shop.job(&id).await;
        another_device(&shop, Method::POST, "/settle", &job, None).await;
        page.pick(NOT_STRAIGHT).await?;
        page.sees("[role=dialog]", "It was closed somewhere else").await?;
        page.sees("[role=dialog]", "Keep mine: job open again").await?;
        page.press("Use the other version").await?;
        page.misses("[role=dialog]").await?;
        assert!(shop.job(&id).await["document"]["settled"].is_object());
        Ok(())
    })
    .await;
}

/// A job taken out elsewhere: what was typed here is read, and goes back into the bay or becomes a job of its own.
#[tokio::test(flavor = "multi_thread")]
async fn what_was_typed_into_a_job_that_is_gone_is_brought_back_or_made_a_new_job() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let id = "lookout-truck-7";
        let not_straight = |job: &Value| job["document"]["sheets"][0]["conditions"]["wheels_straight"] == false;
        opened(&page, &shop, &format!("{id}/tape")).await?;
        another_device(&shop, Method::DELETE, "", &shop.job(id).await, None).await;
        page.pick(NOT_STRAIGHT).await?;
        page.sees("[data-gone]", "is no longer in the job list").await?;
        page.sees("[data-gone] [data-differences]", "wheels straight").await?;
        page.press("Bring it back").await?;
        page.sees(ANSWER, "").await?;
        shop.until(id, not_straight).await;
        page.saved().await?;

        // Once more, and closed meanwhile: found again at its address, and made a job of its own.
        another_device(&shop, Method::DELETE, "", &shop.job(id).await, None).await;
        page.pick("//*[normalize-space()='Wheels straight ahead']/ancestor::fieldset[1]//button[normalize-space()='yes']")
            .await?;
        page.sees("[data-gone]", "is no longer in the job list").await?;
        page.go(&shop.address).await?;
        page.sees("[data-unsent]", "not saved yet").await?;
        page.press("Send now").await?;
        page.sees("[data-unsent]", "No such job").await?;
        opened_gone(&page, &shop, id).await?;
        page.press("Make it a new job").await?;
        page.sees(ANSWER, "").await?;
        let made = page.job_id().await?;
        assert_ne!(made, id);
        assert_eq!(shop.job(&made).await["document"]["sheets"][0]["conditions"]["wheels_straight"], true);
        // Nothing waits any more, and the old one is brought back from the bay.
        page.go(&shop.address).await?;
        page.misses("[data-unsent]").await?;
        page.press("Removed jobs").await?;
        page.sees("[data-removed]", "Lookout truck 7").await?;
        page.press("Bring back").await?;
        page.sees(ANSWER, "").await?;
        assert_eq!(page.job_id().await?, id);
        Ok(())
    })
    .await;
}

async fn opened_gone(page: &Page, shop: &Shop, id: &str) -> WebDriverResult<()> {
    page.go(&format!("{}/jobs/{id}/tape", shop.address)).await?;
    page.sees("[data-gone]", "is no longer in the job list").await.map(drop)
}

/// Nine windows of one browser, all in sight: the last is answered as the first is.
#[tokio::test(flavor = "multi_thread")]
async fn nine_windows_of_one_browser_are_all_answered() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        opened(&page, &shop, "lookout-truck-4/tape").await?;
        for _ in 0..8 {
            let window = page.driver.new_window().await?;
            page.driver.switch_to_window(window).await?;
            opened(&page, &shop, "lookout-truck-7/tape").await?;
        }
        page.pick(NOT_STRAIGHT).await?;
        page.saved().await?;
        shop.until("lookout-truck-7", |job| {
            job["document"]["sheets"][0]["conditions"]["wheels_straight"] == false
        })
        .await;
        Ok(())
    })
    .await;
}

/// A hole of the chosen plan is called otherwise: the plan stays what it is, on the screen and in the job.
#[tokio::test(flavor = "multi_thread")]
async fn a_hole_called_otherwise_stays_the_one_that_is_chosen() {
    let shop = Shop::open();
    let mut document = shop.job("lookout-truck-7").await["document"].clone();
    document["setups"]["plans"] = json!({ "chosen": { "axle": { "hole": "riser hole 2" } } });
    document["title"] = json!("Hose truck 11");
    let id = shop.make(&document).await;
    in_browser(DESK, |page| async move {
        opened(&page, &shop, &format!("{id}/bar")).await?;
        let before = page.sees(ANSWER, "").await?;
        opened(&page, &shop, &format!("{id}/cycle")).await?;
        let holes = document["setups"]["found"]["axle_holes"].as_array().unwrap();
        let place = holes.iter().position(|hole| hole["id"] == "riser hole 2").unwrap();
        let name =
            page.at(&format!("//input[@data-pointer='/setups/found/axle_holes/{place}/name']")).await?;
        name.send_keys(Key::Control + "a").await?;
        name.send_keys(format!("the good one{}", Key::Tab.value())).await?;
        let of_hole = |job: &Value| job["document"]["setups"]["found"]["axle_holes"][place]["name"].clone();
        let job = shop.until(&id, |job| of_hole(job) == "the good one").await;
        assert_eq!(job["document"]["setups"]["plans"]["chosen"]["axle"]["hole"], "riser hole 2", "by its id");
        opened(&page, &shop, &format!("{id}/bar")).await?;
        page.sees(ANSWER, &before).await?;
        opened(&page, &shop, &format!("{id}/bolt_up")).await?;
        page.sees("main", "the good one").await?;
        Ok(())
    })
    .await;
}

/// A document and a figure that a device kept since an older program are in today's form before they are shown.
#[tokio::test(flavor = "multi_thread")]
async fn what_a_device_has_kept_since_an_older_program_is_brought_forward() {
    let shop = Shop::open();
    let id = "supply-truck-9";
    let mut older: Value =
        serde_json::from_str(include_str!("../../job/tests/version_3/supply-truck-9.derecho.json")).unwrap();
    older["title"] = json!("Supply truck 9, in the rain");
    older.as_object_mut().unwrap().remove("settled");
    in_browser(DESK, |page| async move {
        page.go(&shop.address).await?;
        page.at("//h1[normalize-space()='Derecho']").await?;
        let revision = shop.job(id).await["revision"].clone();
        let left = json!({ "job": id, "window": "one that is gone", "at": 1, "basedOn": revision, "document": older,
            "keys": [] });
        page.driver
            .execute_async(
                "const [left, done] = arguments;
                 localStorage.setItem(`derecho.draft.${left.job}./sway/holes/0`, '9 3/x');
                 localStorage.setItem(`derecho.over.${left.job}./sway/holes/0`, '');
                 const opening = indexedDB.open('derecho', 1);
                 opening.onupgradeneeded = () => opening.result.createObjectStore('unsaved', { keyPath: ['job', 'window'] });
                 opening.onsuccess = () => {
                   const transaction = opening.result.transaction('unsaved', 'readwrite');
                   transaction.objectStore('unsaved').put(left);
                   transaction.oncomplete = () => { opening.result.close(); done(true); };
                 };",
                vec![left],
            )
            .await?;
        opened(&page, &shop, &format!("{id}/sway")).await?;
        let job = shop.until(id, |job| job["document"]["title"] == "Supply truck 9, in the rain").await;
        assert_eq!(job["document"]["version"], 7);
        assert_eq!(job["document"]["sheets"][1]["after"], "round-1");
        let arm = page.at("//input[@data-pointer='/sway/holes/0/arm']").await?;
        assert_eq!(arm.prop("value").await?.unwrap(), "9 3/x", "the figure nobody had taken is in its field");
        Ok(())
    })
    .await;
}

/// Turns that were counted are recorded as the length they come to.
#[tokio::test(flavor = "multi_thread")]
async fn turns_that_were_counted_are_kept_as_a_length() {
    let shop = Shop::open();
    let id = "lookout-truck-7";
    shop.choose_length_alone(id).await;
    in_browser(DESK, |page| async move {
        opened(&page, &shop, &format!("{id}/bar")).await?;
        page.enter("Or turns counted, + longer", "two and a half").await?;
        page.sees("main", "Enter turns as a number").await?;
        assert!(shop.job(id).await["document"]["setups"]["rounds"].as_array().unwrap().is_empty());
        page.enter("Or turns counted, + longer", "2 1/2").await?;
        let job = shop
            .until(id, |job| {
                job["document"]["setups"]["rounds"].as_array().is_some_and(|rounds| !rounds.is_empty())
            })
            .await;
        let length = |entry: &Value| entry["mm"].as_f64().unwrap();
        let set = length(&job["document"]["setups"]["rounds"][0]["length"]);
        let found = length(&job["document"]["setups"]["found"]["bar"]["length"]);
        // A turnbuckle of 1-1/4-12, right and left: a sixth of an inch a turn.
        assert!((set - found - 2.5 * 25.4 / 6.0).abs() < 1e-3, "{set} {found}");
        assert_eq!(job["document"]["setups"]["rounds"][0]["note"], "Turns counted: 2 1/2");
        Ok(())
    })
    .await;
}
