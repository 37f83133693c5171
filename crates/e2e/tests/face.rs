//! The face: what is to be done, slates in sections, details over the axle, an empty bay.

use std::time::{Duration, Instant};

use derecho_e2e::{DESK, PHONE, Page, Shop, in_browser};
use serde_json::json;
use thirtyfour::error::WebDriverResult;
use thirtyfour::{By, Key};

const ANSWER: &str = "[data-answer]";
const PANEL: &str = "[data-panel]";

/// The stages of the strip, in order.
async fn strip(page: &Page) -> WebDriverResult<Vec<String>> {
    let stages =
        "return [...document.querySelectorAll('nav [data-stage]')].map((link) => link.dataset.stage)";
    page.driver.execute(stages, Vec::new()).await?.convert()
}

/// Waits until the strip shows these.
async fn shows(page: &Page, stages: &[&str]) -> WebDriverResult<()> {
    let deadline = Instant::now() + Duration::from_secs(8);
    loop {
        let now = strip(page).await?;
        if now == stages {
            return Ok(());
        }
        assert!(Instant::now() < deadline, "{now:?} instead of {stages:?}");
        tokio::task::yield_now().await;
    }
}

/// What a detail draws, as its text.
async fn detail(page: &Page) -> WebDriverResult<String> {
    page.at("//*[@data-detail]//*[name()='svg']").await?.inner_html().await
}

/// Begins a job for some work at the front, and goes on.
async fn begin(page: &Page, shop: &Shop, purposes: &[&str]) -> WebDriverResult<()> {
    page.go(&shop.address).await?;
    page.press("New job").await?;
    for purpose in purposes {
        page.pick(&format!("//*[@data-purpose='{purpose}']")).await?;
    }
    page.press("Front axle").await?;
    page.press("Next").await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_job_of_sway_links_alone_asks_for_no_bar_and_no_tape() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        begin(&page, &shop, &["fit_sway_links"]).await?;
        // Where the bar's eye is bolted is not asked of it.
        shows(&page, &["rig", "sway", "bolt_up", "prove"]).await?;
        page.saved().await?;
        page.key("1").await?;
        page.sees(ANSWER, "Front").await?;
        page.misses("[data-pointer='/rig/frame_eye_side']").await?;
        page.at("//*[@data-section-name='sway_bar']").await?;
        // Looked at all the same, a stage that is not needed stands in the strip while one is in it.
        page.key("5").await?;
        shows(&page, &["rig", "cycle", "sway", "bolt_up", "prove"]).await?;
        page.key("6").await?;
        shows(&page, &["rig", "sway", "bolt_up", "prove"]).await?;
        let id = page.job_id().await?;
        assert_eq!(shop.job(&id).await["document"]["to_do"], json!(["fit_sway_links"]));
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn somebodys_work_is_checked_by_the_readings_as_found() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&shop.address).await?;
        page.press("New job").await?;
        page.pick("//*[@data-purpose='check_work']").await?;
        page.pick("//*[@role='radio'][normalize-space()='right']").await?;
        page.press("Next").await?;
        page.type_readings(["203", "203", "203", "203", "195", "195", "195", "195"]).await?;
        page.saved().await?;
        page.key("8").await?;
        // Read in the unit one looks at: bare numbers were inches. 203 and 195 in are 4 in off either way.
        page.sees(ANSWER, "The axle is 4″ to the left").await?;
        page.sees(PANEL, "The Bar screen gives the length that centers it").await?;
        page.press("Back to Bar").await?;
        page.sees(PANEL, "Enter the bar's length, eye to eye").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_to_be_done_is_changed_later_and_the_strip_follows() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        begin(&page, &shop, &["centre_axle"]).await?;
        shows(&page, &["rig", "tape", "bar", "bolt_up", "prove"]).await?;
        page.saved().await?;
        page.press("More").await?;
        page.press("Change what this job is for").await?;
        // What was taken stands taken; more of it, and less.
        page.at("//*[@data-purpose='centre_axle'][@aria-pressed='true']").await?;
        page.pick("//*[@data-purpose='level_bar']").await?;
        page.pick("//*[@data-purpose='choose_sway_bar']").await?;
        page.press("Next").await?;
        shows(&page, &["rig", "tape", "bar", "bracket", "sway", "bolt_up", "prove"]).await?;
        page.saved().await?;
        // No second sheet was begun for it.
        let id = page.job_id().await?;
        let job = shop.job(&id).await;
        assert_eq!(job["document"]["sheets"].as_array().map(Vec::len), Some(1));
        page.press("more stages (1)").await?;
        page.at("//*[@data-stage='cycle']").await?;
        // Undone like any other change.
        page.saved().await?;
        page.press("Undo").await?;
        shows(&page, &["rig", "tape", "bar", "bracket", "sway", "bolt_up", "prove"]).await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn nothing_can_be_begun_before_something_is_to_be_done() {
    let shop = Shop::open();
    in_browser(PHONE, |page| async move {
        page.go(&shop.address).await?;
        page.press("New job").await?;
        let go = page.at("//button[normalize-space()='Next']").await?;
        assert!(!go.is_enabled().await?);
        page.pick("//*[@data-purpose='clear_something']").await?;
        assert!(go.is_enabled().await?);
        page.pick("//*[@data-purpose='clear_something']").await?;
        assert!(!go.is_enabled().await?, "taken back");
        assert_eq!(page.grave_faults().await?, Vec::<String>::new());
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn an_empty_bay_asks_what_the_first_job_is_for() {
    let shop = Shop::empty();
    in_browser(DESK, |page| async move {
        page.go(&shop.address).await?;
        page.sees("[data-invitation]", "No jobs yet. What needs doing?").await?;
        assert_eq!(page.grave_faults().await?, Vec::<String>::new());
        page.pick("//*[@data-invitation]//*[@data-purpose='convert_to_y_link']").await?;
        // It is taken already; only the end is asked.
        page.at("//*[@data-purpose='convert_to_y_link'][@aria-pressed='true']").await?;
        page.press("Rear axle").await?;
        page.press("Next").await?;
        shows(&page, &["rig", "tape", "bracket", "cycle", "bolt_up", "prove"]).await?;
        page.saved().await?;
        page.go(&shop.address).await?;
        page.sees("[data-how-many]", "1 job").await?;
        page.misses("[data-invitation]").await?;
        // A card shows no stage its work does not need.
        page.sees("[data-job]", "Bracket").await?;
        let card = page.at("//*[@data-job]").await?.text().await?;
        assert!(!card.contains("Sway") && !card.contains("Bar\n"), "{card}");
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn an_answer_that_comes_while_one_types_takes_no_field_away() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/relay-van-2/bar", shop.address)).await?;
        page.enter("Length as set, eye to eye", "865 mm").await?;
        page.press("Measure both sides again (Prove)").await?;
        page.press("Start the after measurements").await?;
        page.saved().await?;
        page.touch("left reading 1").await?;
        // The proof is there after the first reading of the second side; the cursor stays where it is.
        for (reading, at) in [
            ("6", "left/1"),
            ("6", "left/2"),
            ("6", "left/3"),
            ("6", "right/0"),
            ("6", "right/1"),
            ("6", "right/2"),
        ] {
            page.type_on(&format!("{reading}{}", Key::Enter.value())).await?;
            page.saved().await?;
            let here = page.driver.active_element().await?.attr("data-tape").await?.unwrap_or_default();
            assert!(here.ends_with(at), "{here} instead of {at}");
        }
        page.at("//*[@data-section='read']//*[@data-face-name='results']").await?;
        // Turned over, it stays turned over.
        page.pick("//*[@data-section='read']//*[@data-face-name='results']").await?;
        page.sees("[data-movement]", "should have moved").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn details_over_the_axle_go_with_the_stick_and_with_what_is_set() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        for stage in ["rig", "bar", "bracket"] {
            page.go(&format!("{}/jobs/lookout-truck-7/{stage}", shop.address)).await?;
            page.at("//*[@data-answer][not(contains(., '…'))]").await?;
            let before = detail(&page).await?;
            for _ in 0..6 {
                page.key("]").await?;
            }
            assert_ne!(detail(&page).await?, before, "{stage}: the stick moves it");
        }
        // The bracket's detail follows the hole that is looked at, with its rise from the old one.
        page.sees("[data-detail]", "3″ up from the old hole").await?;
        page.pick("//button[starts-with(normalize-space(), 'Show all')]").await?;
        page.pick("//tr[@data-option='riser hole 1']//button").await?;
        page.sees("[data-detail]", "1 3/4″ up from the old hole").await?;
        page.key("u").await?;
        page.sees("[data-detail]", "44.5 mm up from the old hole").await?;
        page.key("u").await?;
        // The bar's has what stays in, the tape's both means, the proof's before and now.
        page.go(&format!("{}/jobs/tower-truck-8/bar", shop.address)).await?;
        page.sees("[data-detail]", "of thread stays engaged at each end").await?;
        page.go(&format!("{}/jobs/lookout-truck-7/tape", shop.address)).await?;
        page.sees("[data-detail]", "face of the hub").await?;
        page.sees("[data-detail]", "left measures 6 1/2″, right 5 1/2″").await?;
        page.go(&format!("{}/jobs/supply-truck-9/prove", shop.address)).await?;
        page.sees("[data-detail]", "before 3/8″ left").await?;
        page.sees("[data-detail]", "now centered").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_section_shows_in_the_drawing_what_it_is_about() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/sway", shop.address)).await?;
        page.sees(ANSWER, "goes over center").await?;
        page.misses("[data-stow-says]").await?;
        page.pick("//*[@data-section-name='disconnect']").await?;
        page.sees("[data-stow-says]", "Stowed, it comes closest to the left tire").await?;
        page.pick("//*[@data-section-name='links']").await?;
        page.misses("[data-stow-says]").await?;
        // Which section is open is remembered while one is in the job.
        page.pick("//*[@data-section-name='room']").await?;
        page.key("5").await?;
        page.at("//*[@data-map]").await?;
        page.key("6").await?;
        page.at("//*[@data-section-name='room'][@aria-selected='true']").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_bar_without_readings_leads_to_the_tape_and_an_assumed_figure_to_its_field() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-12/bar", shop.address)).await?;
        page.go(&format!("{}/jobs/water-tender-3/cycle", shop.address)).await?;
        page.at("//*[@data-map]").await?;
        page.pick("//button[contains(., 'Assumed, not measured')]").await?;
        let assumed = page.at("//*[@data-assumed]//button").await?;
        let pointer = assumed.attr("data-goes-to").await?.unwrap_or_default();
        page.pick("//*[@data-assumed]//button").await?;
        let deadline = Instant::now() + Duration::from_secs(8);
        loop {
            let here = "return document.activeElement?.closest('[data-pointer]')?.dataset.pointer ?? ''";
            let here: String = page.driver.execute(here, Vec::new()).await?.convert()?;
            if !here.is_empty() && (here.starts_with(&pointer) || pointer.starts_with(&here)) {
                break;
            }
            assert!(Instant::now() < deadline, "{here} instead of {pointer}");
            tokio::task::yield_now().await;
        }
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_rack_draws_every_kind_to_one_scale_and_a_held_bar_reaches_or_does_not() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/parts", shop.address)).await?;
        page.sees("[data-parts]", "every part is drawn to this scale").await?;
        // 34 in and 37 1/2 in at their longest: drawn as long as that, whatever their cards are wide.
        let wide = async |name: &str| -> WebDriverResult<f64> {
            let picture = page.at(&format!("//*[@data-part='{name}']//*[@data-picture]")).await?;
            Ok(picture.attr("width").await?.and_then(|text| text.parse().ok()).unwrap_or(f64::NAN))
        };
        let (long, short) =
            (wide("long-sleeve turnbuckle bar").await?, wide("short-sleeve turnbuckle bar").await?);
        assert!((short - long - 3.5 * 25.4 * 0.29).abs() < 0.5, "{long} {short}");
        let kinds = page.driver.find_all(By::Css("[data-parts] section")).await?.len();
        let drawn = page.driver.find_all(By::Css("[data-parts] [data-picture]")).await?.len();
        let parts = page.driver.find_all(By::Css("[data-part]")).await?.len();
        assert!(kinds >= 5 && drawn == parts, "{kinds} kinds, {drawn} of {parts} drawn");
        assert_eq!(page.grave_faults().await?, Vec::<String>::new());
        // Held against an axle: 32.4962 in is wanted, and 34 in is its shortest.
        page.go(&format!("{}/jobs/lookout-truck-12/bracket", shop.address)).await?;
        page.sees(ANSWER, "three-hole drop").await?;
        page.pick("//button[contains(.,'From the library')]").await?;
        page.press("Try on short-sleeve turnbuckle bar").await?;
        page.sees("[data-looked]", "short-sleeve turnbuckle bar").await?;
        page.sees("[data-looked]", "Can't use.").await?;
        page.press("Add to this job").await?;
        page.saved().await?;
        page.misses("[data-held]").await?;
        let job = shop.job("lookout-truck-12").await;
        let bars = job["document"]["bracket"]["bars"].to_string();
        assert!(bars.contains("short-sleeve turnbuckle bar"), "{bars}");
        Ok(())
    })
    .await;
}
