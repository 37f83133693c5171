//! Nothing typed is ever lost: through real windows, a network that goes and comes, and a device that is full.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_e2e::{DESK, Page, Shop, in_browser};
use serde_json::{Value, json};
use thirtyfour::By;
use thirtyfour::error::WebDriverResult;

const ANSWER: &str = "[data-answer]";
/// A press that changes the first sheet without the server having to read anything.
const NOT_STRAIGHT: &str =
    "//*[normalize-space()='Wheels straight ahead']/ancestor::fieldset[1]//button[normalize-space()='no']";

async fn offline(page: &Page, on: bool) -> WebDriverResult<()> {
    let conditions = json!({ "offline": on, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1 });
    page.driver.cdp().network().enable().await?;
    page.driver.cdp().send_raw("Network.emulateNetworkConditions", conditions).await.map(drop)
}

fn reading(job: &Value, side: &str, index: usize) -> String {
    job["document"]["sheets"][0][side][index]["text"].as_str().unwrap_or_default().to_owned()
}

fn not_straight(job: &Value) -> bool {
    job["document"]["sheets"][0]["conditions"]["wheels_straight"] == false
}

async fn opened(page: &Page, shop: &Shop, id: &str) -> WebDriverResult<()> {
    page.go(&format!("{}/jobs/{id}/tape", shop.address)).await?;
    page.sees(ANSWER, "").await.map(drop)
}

#[tokio::test(flavor = "multi_thread")]
async fn a_figure_typed_just_before_going_back_to_the_bay_is_kept() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        opened(&page, &shop, "lookout-truck-7").await?;
        page.fill("left reading 1", "6 5/8").await?;
        page.press("Back to the jobs").await?;
        shop.until("lookout-truck-7", |job| reading(job, "left", 0) == "6 5/8").await;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn two_jobs_changed_without_a_network_are_both_saved_when_it_comes() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        opened(&page, &shop, "lookout-truck-7").await?;
        page.press("Back to the jobs").await?;
        page.pick("//*[@data-job='lookout-truck-4']").await?;
        page.sees(ANSWER, "").await?;
        page.press("Back to the jobs").await?;
        page.pick("//*[@data-job='lookout-truck-7']").await?;
        page.sees(ANSWER, "").await?;
        page.go(&format!("{}/jobs/lookout-truck-7/tape", shop.address)).await?;
        page.sees(ANSWER, "").await?;
        offline(&page, true).await?;
        page.pick(NOT_STRAIGHT).await?;
        page.sees("[data-saved=waiting]", "saved on this device").await?;
        // Left, with its change unsent; the network comes while the bay is on the screen.
        page.press("Back to the jobs").await?;
        page.at("//h1").await?;
        offline(&page, false).await?;
        shop.until("lookout-truck-7", not_straight).await;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn undo_pressed_while_a_change_waits_takes_that_change_back_once_it_is_sent() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        opened(&page, &shop, "lookout-truck-7").await?;
        offline(&page, true).await?;
        page.pick(NOT_STRAIGHT).await?;
        page.sees("[data-saved=waiting]", "saved on this device").await?;
        page.driver
            .execute(
                "dispatchEvent(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, bubbles: true }))",
                vec![],
            )
            .await?;
        page.misses("[role=dialog]").await?;
        offline(&page, false).await?;
        let job = shop.until("lookout-truck-7", |job| job["revision"] == 3).await;
        // The change is in the history, and taken back.
        assert_eq!(job["document"]["sheets"][0]["conditions"]["wheels_straight"], true);
        page.saved().await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_window_that_is_gone_leaves_its_change_to_the_next() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        opened(&page, &shop, "lookout-truck-7").await?;
        let first = page.driver.window().await?;
        let second = page.driver.new_tab().await?;
        offline(&page, true).await?;
        page.pick(NOT_STRAIGHT).await?;
        page.sees("[data-saved=waiting]", "saved on this device").await?;
        // Closed without a word, as by a flat battery.
        page.driver.cdp().send_raw("Page.close", json!({})).await.map(drop).unwrap_or_default();
        page.driver.switch_to_window(second).await?;
        drop(first);
        opened(&page, &shop, "lookout-truck-7").await?;
        page.saved().await?;
        shop.until("lookout-truck-7", not_straight).await;
        Ok(())
    })
    .await;
}

/// Two windows lay open in two tabs when the battery went flat: the job opened again brings both back, one after the
/// other, and the second is asked about.
#[tokio::test(flavor = "multi_thread")]
async fn two_windows_that_are_gone_leave_both_their_changes() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let tabs =
            [page.driver.window().await?, page.driver.new_tab().await?, page.driver.new_tab().await?];
        let presses =
            [NOT_STRAIGHT, "//*[normalize-space()='Tires the same size, pressures equal']/ancestor::fieldset[1]//button[normalize-space()='no']"];
        for (tab, press) in tabs.iter().zip(presses) {
            page.driver.switch_to_window(tab.clone()).await?;
            opened(&page, &shop, "lookout-truck-7").await?;
            offline(&page, true).await?;
            page.pick(press).await?;
            page.sees("[data-saved=waiting]", "saved on this device").await?;
        }
        // As by a flat battery: closed in good order, one of them might get a word through on its way out.
        for tab in &tabs[..2] {
            page.driver.switch_to_window(tab.clone()).await?;
            page.driver.cdp().send_raw("Page.crash", json!({})).await.map(drop).unwrap_or_default();
        }
        page.driver.switch_to_window(tabs[2].clone()).await?;
        page.go(&format!("{}/jobs/lookout-truck-7/tape", shop.address)).await?;
        page.sees("[role=dialog]", "This job was changed somewhere else").await?;
        // One of them is there, whichever window was seen to be gone first; the other one is asked about.
        let unlike = |job: &Value| job["document"]["sheets"][0]["conditions"]["pressures_equal"] == false;
        let first = shop.until("lookout-truck-7", |job| not_straight(job) || unlike(job)).await;
        assert!(not_straight(&first) != unlike(&first), "{}", first["document"]["sheets"]);
        page.press("Keep mine").await?;
        page.misses("[role=dialog]").await?;
        let wheels_were_first = not_straight(&first);
        let other = |job: &Value| if wheels_were_first { unlike(job) } else { not_straight(job) };
        shop.until("lookout-truck-7", other).await;
        page.saved().await
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn on_a_device_that_keeps_nothing_typing_goes_on_and_it_is_said() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        opened(&page, &shop, "lookout-truck-7").await?;
        // Full to the last byte: neither of the two places takes anything.
        let full =
            "Storage.prototype.setItem = () => { throw new DOMException('full', 'QuotaExceededError'); };
             IDBObjectStore.prototype.put = () => { throw new DOMException('full', 'QuotaExceededError'); };";
        page.driver.execute(full, vec![]).await?;
        page.enter("left reading 1", "6 5/8").await?;
        shop.until("lookout-truck-7", |job| reading(job, "left", 0) == "6 5/8").await;
        page.saved().await?;
        offline(&page, true).await?;
        page.pick(NOT_STRAIGHT).await?;
        page.sees("[role=status]", "this device can't keep it: leave this window open").await?;
        offline(&page, false).await?;
        page.saved().await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_text_nobody_could_read_is_not_called_saved_and_is_read_when_somebody_answers() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        opened(&page, &shop, "lookout-truck-7").await?;
        offline(&page, true).await?;
        page.enter("left reading 1", "6 5/8").await?;
        page.sees("[data-saved=unread]", "typed but not checked").await?;
        offline(&page, false).await?;
        shop.until("lookout-truck-7", |job| reading(job, "left", 0) == "6 5/8").await;
        page.saved().await?;
        Ok(())
    })
    .await;
}

/// More jobs than a page: the bay says how many there are, and goes on to the last.
#[tokio::test(flavor = "multi_thread")]
async fn the_bay_says_how_many_jobs_there_are_and_goes_on_to_the_last() {
    let shop = Shop::open();
    let client = reqwest::Client::new();
    for count in 0..60 {
        let document = json!({ "format": "derecho-job", "version": 7, "title": format!("Mule {count}") });
        let made = client.post(format!("{}/api/v1/jobs", shop.address)).json(&document).send().await.unwrap();
        assert_eq!(made.status().as_u16(), 201);
    }
    in_browser(DESK, |page| async move {
        page.go(&shop.address).await?;
        page.sees("[data-how-many]", "73 jobs, most urgent first").await?;
        // What is overdue comes before everything, whenever it was saved.
        let first = page.at("//*[@data-grid]/li[1]//*[@data-job]").await?.attr("data-job").await?;
        assert_eq!(first.as_deref(), Some("ridge-truck-1"));
        // Of so many only those in view are drawn; the rest come as one scrolls.
        let drawn = page.driver.find_all(By::Css("[data-job]")).await?.len();
        assert!((8..40).contains(&drawn), "{drawn} cards are drawn");
        let deadline = std::time::Instant::now() + std::time::Duration::from_secs(10);
        let scroll = "document.querySelector('main').scrollBy(0, 700)";
        while page.driver.find_all(By::Css("[data-job='lookout-truck-7']")).await?.is_empty() {
            assert!(std::time::Instant::now() < deadline, "the last jobs never came");
            page.driver.execute(scroll, Vec::new()).await?;
            tokio::task::yield_now().await;
        }
        page.fill("Find a job", "mule 5").await?;
        // 5 and 50 to 59.
        page.sees("[data-how-many]", "11 jobs").await?;
        Ok(())
    })
    .await;
}
