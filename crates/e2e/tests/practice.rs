//! Instruments at the screen, and the practice bay: a sheet filled without typing, a bolt torqued from the wrench, one
//! lesson lost and one won.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_e2e::{DESK, Page, Shop, in_browser};
use derecho_instruments::instrument::{Kind, Unit};
use derecho_instruments::simulator::StandIn;
use serde_json::Value;
use thirtyfour::error::WebDriverResult;
use tokio::net::TcpListener;

const ANSWER: &str = "[data-answer]";

/// A stand-in that speaks on a line of its own.
async fn stand_in(kind: Kind, unit: Unit, values: &[f64]) -> String {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let way = format!("tcp:{}", listener.local_addr().unwrap());
    let one = StandIn::of(kind, unit, values.to_vec());
    tokio::spawn(async move { one.serve(&listener).await });
    way
}

/// Joins a way as a person does.
async fn join(page: &Page, way: &str) -> WebDriverResult<()> {
    page.press("More").await?;
    page.press("Instruments").await?;
    page.at("//input[@id='way']").await?.send_keys(way).await?;
    page.press("Connect").await?;
    page.at(&format!("//*[@role='dialog']//b[normalize-space()='{way}']")).await?;
    page.press("Back to the job").await?;
    page.misses("[role=dialog]").await
}

fn on_the_shelf(kind: Kind) -> String {
    format!("//*[@data-instrument='practice {}' and not(@disabled) and contains(., '.')]", kind.word())
}

/// Holds a reading, and waits until the shelf says where it went.
async fn hold(page: &Page, kind: Kind, says: &str) -> WebDriverResult<()> {
    page.pick(&on_the_shelf(kind)).await?;
    page.sees("[data-took]", says).await.map(drop)
}

fn text_of(job: &Value, pointer: &str) -> String {
    job["document"].pointer(pointer).and_then(|entry| entry["text"].as_str()).unwrap_or_default().to_owned()
}

#[tokio::test(flavor = "multi_thread")]
async fn a_sheet_is_filled_without_typing_and_the_wrong_kind_is_refused() {
    let shop = Shop::open();
    let left = [6.375, 6.4375, 6.375, 6.375];
    let right = [5.625, 5.625, 5.5625, 5.625];
    let tape = stand_in(Kind::Tape, Unit::Inches, &[left, right].concat()).await;
    let finder = stand_in(Kind::Finder, Unit::Degrees, &[10.8]).await;
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/tape", shop.address)).await?;
        page.sees(ANSWER, "").await?;
        page.press("New left-right measurement").await?;
        join(&page, &tape).await?;
        join(&page, &finder).await?;
        // The last sheet of the job is the new one.
        page.touch("left reading 1").await?;
        hold(&page, Kind::Finder, "not used").await?;
        assert_eq!(page.value("left reading 1").await?, "");
        for (index, _) in left.iter().enumerate() {
            hold(&page, Kind::Tape, &format!("into “left reading {}”", index + 1)).await?;
        }
        for (index, _) in right.iter().enumerate() {
            page.touch(&format!("right reading {}", index + 1)).await?;
            hold(&page, Kind::Tape, &format!("into “right reading {}”", index + 1)).await?;
        }
        page.saved().await?;
        // By hand: (6.390625 - 5.609375) / 2 = 0.390625, to a sixteenth 3/8.
        page.sees(ANSWER, "3/8″ to the left").await?;
        let job = shop.job("lookout-truck-7").await;
        let sheets = job["document"]["sheets"].as_array().unwrap().len() - 1;
        assert_eq!(text_of(&job, &format!("/sheets/{sheets}/left/1")), "6.4375 in");
        assert_eq!(job["document"]["sheets"][sheets]["instrument"]["id"], "practice tape");
        // The finder's figure goes where a finder belongs.
        page.go(&format!("{}/jobs/lookout-truck-7/bar", shop.address)).await?;
        page.sees(ANSWER, "").await?;
        page.press("More").await?;
        page.press("Instruments").await?;
        page.sees("[data-taken]", "6.4375 in").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_bolt_is_torqued_from_the_wrench() {
    let shop = Shop::open();
    let wrench = stand_in(Kind::Wrench, Unit::PoundFeet, &[120.5]).await;
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/tower-truck-8/bolt_up", shop.address)).await?;
        page.at("//*[@data-steps]//li").await?;
        join(&page, &wrench).await?;
        page.pick("//*[@data-steps]//li//button[contains(normalize-space(),'tighten the main bolt')]")
            .await?;
        page.at("//*[@data-open]//*[normalize-space()='Torqued to']").await?;
        // Nothing is in focus: it goes to the step that is open.
        hold(&page, Kind::Wrench, "into “Torqued to”").await?;
        page.saved().await?;
        let job = shop.job("tower-truck-8").await;
        let fasteners = job["document"]["bolt_up"]["fasteners"].as_array().unwrap().clone();
        let main = fasteners.iter().find(|form| form["key"] == "frame/main").unwrap();
        assert_eq!(main["tight"]["torque"], "120.5 lb-ft", "{main}");
        Ok(())
    })
    .await;
}

/// Begins a lesson, with a sheet to read into.
async fn begin(page: &Page, shop: &Shop, title: &str) -> WebDriverResult<String> {
    page.go(&format!("{}/practice", shop.address)).await?;
    page.press(&format!("Begin: {title}")).await?;
    page.at("//*[@data-practice]").await?;
    page.press("New left-right measurement").await?;
    page.at("//input[@data-pointer='/sheets/0/left/0']").await?;
    page.job_id().await
}

/// Reads both sides three times each, the field in focus taking what the tape shows.
async fn read_both(page: &Page, sheet: usize, bounced: bool) -> WebDriverResult<()> {
    for side in ["left", "right"] {
        for place in 0..3 {
            if bounced {
                page.press("Bounce it").await?;
            }
            page.at(&format!("//input[@data-pointer='/sheets/{sheet}/{side}/{place}']"))
                .await?
                .click()
                .await?;
            page.press(&format!("Measure the {side}")).await?;
            page.sees("[data-took=taken]", &format!("into “{side} reading {}”", place + 1)).await?;
        }
    }
    page.saved().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_lesson_is_lost_by_its_mistake_and_the_debriefing_says_so() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        begin(&page, &shop, "Up on jack stands").await?;
        page.sees("[data-stands]", "the axle hanging").await?;
        // Read as it hangs, and called done.
        read_both(&page, 0, false).await?;
        page.press("I'm done").await?;
        page.sees("[data-debrief=lost]", "Measured with the axle hanging.").await?;
        page.sees("[data-debrief=lost]", "It is actually").await?;
        page.sees("[data-debrief=lost]", "Set it down on its wheels, bounce it to settle").await?;
        assert_eq!(page.grave_faults().await?, Vec::<String>::new());
        page.press("Back to the lessons").await?;
        page.at("//*[@data-lessons]/li").await?;
        // Nothing of it is in the bay.
        page.go(&shop.address).await?;
        page.at("//*[@data-job]").await?;
        assert!(page.at("//*[@data-job][contains(., 'Up on the stands')]").await.is_err());
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_lesson_is_won_by_doing_what_derecho_says() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let id = begin(&page, &shop, "The easy one").await?;
        read_both(&page, 0, true).await?;
        let job = shop.job(&id).await;
        let facts = &job["results"]["bar"]["correction"]["setting"];
        let turns = facts["turns"].as_u64().unwrap_or(0);
        let flats = facts["flats"].as_u64().unwrap_or(0);
        let longer = facts["exact_turns"].as_f64().unwrap() > 0.0;
        assert!(turns + flats > 0, "{facts}");
        for (label, count) in [("Sleeve: turns", turns), ("flats", flats)] {
            let field = page.field(label).await?;
            field.clear().await?;
            field.send_keys(count.to_string()).await?;
        }
        page.press(if longer { "Make it longer" } else { "Make it shorter" }).await?;
        page.sees("[data-seen]", "Turned.").await?;
        page.press("Bounce it").await?;
        page.press("I'm done").await?;
        page.sees("[data-debrief=won]", "It is actually").await?;
        Ok(())
    })
    .await;
}

/// The practice vehicle's tape is on its own lesson's shelf alone, and what it holds goes into no other job.
#[tokio::test(flavor = "multi_thread")]
async fn a_practice_tape_reads_into_no_vehicles_job() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let lesson = begin(&page, &shop, "The easy one").await?;
        page.at("//*[@data-shelf]").await?;
        page.go(&format!("{}/jobs/lookout-truck-7/tape", shop.address)).await?;
        let reading = "//input[@data-pointer='/sheets/0/left/0']";
        page.at(reading).await?.click().await?;
        let before = page.at(reading).await?.value().await?;
        let act = format!("{}/api/v1/practice/{lesson}/act", shop.address);
        let read = r#"{ "act": "read", "method": "frame_to_hub", "side": "left" }"#;
        let call = reqwest::Client::new().post(act).header("content-type", "application/json").body(read);
        let answer = call.send().await.expect("the server answers");
        assert_eq!(answer.status(), 200);
        let reported: serde_json::Value = answer.json().await.expect("JSON");
        assert!(reported.to_string().contains("shows"), "the tape shows something: {reported}");
        // The held reading has come to the window by the time the quiet has.
        page.asked_in_all().await?;
        assert_eq!(page.at(reading).await?.value().await?, before);
        page.misses("[data-shelf]").await
    })
    .await;
}
