//! The first minute of a job, and slates one can take in: the way to the first answer, presses that go to what is
//! missing, sections by keyboard and no longer than two screens.

use std::time::{Duration, Instant};

use derecho_e2e::{DESK, Page, Shop, in_browser};
use serde_json::{Value, json};
use thirtyfour::Key;
use thirtyfour::error::WebDriverResult;

const ANSWER: &str = "[data-answer]";
const STAGES: [&str; 8] = ["rig", "tape", "bar", "bracket", "cycle", "sway", "bolt_up", "prove"];

/// Waits until a script gives true.
async fn comes_true(page: &Page, script: &str, what: &str) -> WebDriverResult<()> {
    let deadline = Instant::now() + Duration::from_secs(8);
    while !page.driver.execute(script, Vec::new()).await?.convert::<bool>()? {
        assert!(Instant::now() < deadline, "{what}");
        tokio::task::yield_now().await;
    }
    Ok(())
}

/// Opens a section from the tab before it, by keys alone. A stage whose figures come in meanwhile is drawn anew and lets go
/// of the focus: then it is gone through again.
async fn opens_by_keyboard(page: &Page, before: Option<&str>, name: &str, what: &str) -> WebDriverResult<()> {
    let open =
        format!("return document.querySelector('[data-section=\"{name}\"]')?.checkVisibility() === true");
    let focus =
        format!("document.querySelector('[data-section-name=\"{}\"]')?.focus()", before.unwrap_or(name));
    let deadline = Instant::now() + Duration::from_secs(8);
    loop {
        page.driver.execute(focus.as_str(), Vec::new()).await?;
        if before.is_some() {
            page.type_on(&Key::Right.value().to_string()).await?;
        }
        page.type_on(&Key::Enter.value().to_string()).await?;
        let once_more = Instant::now() + Duration::from_secs(2);
        while Instant::now() < once_more {
            if page.driver.execute(open.as_str(), Vec::new()).await?.convert::<bool>()? {
                return Ok(());
            }
            tokio::task::yield_now().await;
        }
        assert!(Instant::now() < deadline, "{what}");
    }
}

/// Whether the cursor is at a place of the document, or at the nearest field above or below it.
fn at_field(pointer: &str) -> String {
    format!(
        "const here = document.activeElement?.closest('[data-pointer]')?.dataset.pointer ?? '';
         const wanted = '{pointer}';
         return here !== '' && (here === wanted || here.startsWith(wanted + '/') || wanted.startsWith(here + '/'));"
    )
}

#[tokio::test(flavor = "multi_thread")]
async fn a_new_job_has_its_first_answer_after_eleven_figures_and_six_presses() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&shop.address).await?;
        let mut presses = 0;
        let mut typed = 0;
        for press in [
            "//button[normalize-space()='New job']",
            "//*[@data-purpose='centre_axle']",
            "//*[@role='radio'][normalize-space()='Front axle']",
            "//*[@role='radio'][normalize-space()='left']",
            "//button[normalize-space()='Next']",
        ] {
            page.pick(press).await?;
            presses += 1;
        }
        // The tape is out already: the cursor stands in the first reading.
        comes_true(&page, &at_field("/sheets/0/left/0"), "the cursor is in the first reading").await?;
        for reading in ["7", "7", "7", "7", "6", "6", "6", "6"] {
            page.type_on(&format!("{reading}{}", Key::Enter.value())).await?;
            typed += 1;
        }
        page.sees(ANSWER, "The axle is 1/2″ to the left").await?;
        page.saved().await?;
        // This work needs neither bracket nor cycling nor a sway bar.
        for needed in ["rig", "tape", "bar", "bolt_up", "prove"] {
            page.at(&format!("//*[@data-stage='{needed}']")).await?;
        }
        page.misses("[data-stage='bracket'], [data-stage='cycle'], [data-stage='sway']").await?;
        page.pick("//*[@data-stage='bar']").await?;
        presses += 1;
        comes_true(&page, &at_field("/setups/found/bar/length"), "the cursor is in the bar's length").await?;
        for figure in ["32", "24", "18"] {
            page.type_on(&format!("{figure}{}", Key::Enter.value())).await?;
            typed += 1;
        }
        // v = 6 in on 32 in: h = √(32² − 6²) = 31.4325; √((31.4325 + 0.5)² + 36) − 32 = 0.4913, to a sixteenth 1/2.
        page.sees(ANSWER, "Make the bar 1/2″ longer").await?;
        assert!(presses <= 6 && typed <= 11, "{presses} presses, {typed} figures");
        // What it was begun for is kept, and the other stages are one press away.
        page.saved().await?;
        let id = page.job_id().await?;
        assert_eq!(shop.job(&id).await["document"]["to_do"], json!(["centre_axle"]));
        page.press("more stages (3)").await?;
        page.at("//*[@data-stage='cycle']").await?;
        page.saved().await?;
        assert_eq!(shop.job(&id).await["document"]["all_stages"], true);
        Ok(())
    })
    .await;
}

/// The old bar is 33 1/8 in, the new one 31 5/8 in screwed right in: 1 1/2 in longer.
#[tokio::test(flavor = "multi_thread")]
async fn a_new_bar_has_its_bench_length_after_two_figures_and_eight_presses() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&shop.address).await?;
        let mut presses = 0;
        for press in [
            "//button[normalize-space()='New job']",
            "//*[@data-purpose='swap_bar']",
            "//*[@role='radio'][normalize-space()='Front axle']",
            "//*[@role='radio'][normalize-space()='left']",
            "//button[normalize-space()='Next']",
        ] {
            page.pick(press).await?;
            presses += 1;
        }
        comes_true(&page, &at_field("/setups/found/bar/length"), "the cursor is in the old bar's length")
            .await?;
        page.type_on(&format!("33 1/8{}", Key::Enter.value())).await?;
        page.pick("//*[@data-new-bar]//*[@role='radio'][normalize-space()='both ends']").await?;
        presses += 1;
        page.enter("New bar screwed all the way in, eye to eye", "31 5/8").await?;
        presses += 1;
        page.sees(ANSWER, "Set the new bar to 33 1/8″").await?;
        assert!(presses <= 8, "{presses} presses");
        // How it is turned: 2 / 12 in for each turn of the sleeve, 1 1/2 in are nine.
        page.enter("Its thread, for turns and flats", "1-1/4-12").await?;
        page.pick("//*[@data-new-bar]//*[@role='radio'][normalize-space()='one right-, one left-hand']")
            .await?;
        page.sees(ANSWER, "9 turns longer").await?;
        page.saved().await?;
        let id = page.job_id().await?;
        let job = shop.job(&id).await;
        let chosen = &job["document"]["setups"]["plans"]["chosen"];
        assert_eq!(chosen["length"], "as_the_old_one");
        assert_eq!(chosen["bar"], job["document"]["bracket"]["bars"][0]["id"]);
        // Nobody measured how it lies: no angle is told, and no hole is offered.
        page.misses("[data-stage='bracket'], [data-stage='cycle'], [data-stage='sway']").await?;
        page.pick("//*[@data-stage='bolt_up']").await?;
        page.at("//*[contains(., 'On the bench, set the new bar to')]").await?;
        // Done, set on record, one set of readings after it, closed: the sheet one hands over.
        shop.work_done(&id).await;
        page.proved_and_closed(&shop, &id, "33 1/8").await
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_missing_goes_to_its_field_whatever_stage_it_is_in() {
    let shop = Shop::open();
    // Next to nothing is known of one; of the other everything but its sway bar.
    let job = |rig: Value, bar: Value| {
        json!({ "format": "derecho-job", "version": 7, "title": "Hose truck 8", "rig": rig,
            "setups": { "found": { "bar": bar } }, "sway": { "kind": "one_piece" } })
    };
    let bar = json!({ "length": "32 in", "frame_eye_height": "24 in", "axle_eye_height": "18 in" });
    let known = json!({ "end": "front", "frame_eye_side": "left", "axle_location": "leaf_springs" });
    let jobs =
        [shop.make(&job(json!({ "end": "front" }), json!({}))).await, shop.make(&job(known, bar)).await];
    in_browser(DESK, |page| async move {
        let mut gone = Vec::new();
        for (id, stage) in jobs.iter().flat_map(|id| STAGES.map(|stage| (id, stage))) {
            let address = format!("{}/jobs/{id}/{stage}", shop.address);
            page.go(&address).await?;
            page.at("//*[@data-answer][not(contains(., '…'))]").await?;
            let script = "return [...document.querySelectorAll('[data-missing] [data-goes-to]')]
                .filter((press) => press.checkVisibility()).map((press) => press.dataset.goesTo)";
            let pointers: Vec<String> = page.driver.execute(script, Vec::new()).await?.convert()?;
            for pointer in pointers {
                page.go(&address).await?;
                page.pick(&format!("//*[@data-missing]//*[@data-goes-to='{pointer}']")).await?;
                comes_true(&page, &at_field(&pointer), &format!("{stage}: {pointer} is gone to")).await?;
                gone.push(pointer);
            }
        }
        for pointer in
            ["/rig/frame_eye_side", "/setups/found/bar/length", "/rig/axle_location", "/sway/holes"]
        {
            assert!(gone.iter().any(|reported| reported.starts_with(pointer)), "{pointer} is told: {gone:?}");
        }
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn every_section_is_reached_by_keyboard_and_is_at_most_two_screens_long() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let mut too_tall = Vec::new();
        for job in ["lookout-truck-7", "relay-wagon-5", "ridge-truck-1"] {
            for stage in STAGES {
                page.go(&format!("{}/jobs/{job}/{stage}", shop.address)).await?;
                page.at("//*[@data-answer][not(contains(., '…'))]").await?;
                page.at("//*[@data-sections]").await?;
                let names = "return [...document.querySelectorAll('[data-section-name]')].map((tab) => tab.dataset.sectionName)";
                let names: Vec<String> = page.driver.execute(names, Vec::new()).await?.convert()?;
                assert!(!names.is_empty());
                page.driver
                    .execute("document.querySelector('[data-section-name]').focus()", Vec::new())
                    .await?;
                for (place, name) in names.iter().enumerate() {
                    let before = place.checked_sub(1).map(|before| names[before].as_str());
                    let what = format!("{job}, {stage}: {name} opens by keyboard");
                    opens_by_keyboard(&page, before, name, &what).await?;
                    for face in ["results", "inputs"] {
                        let tall = format!(
                            "const face = document.querySelector('[data-section=\"{name}\"] [data-face-name={face}]');
                             if (face?.checkVisibility()) face.dispatchEvent(new MouseEvent('mousedown', {{ bubbles: true, button: 0 }}));
                             return document.querySelector('[data-section=\"{name}\"]').getBoundingClientRect().height"
                        );
                        page.driver.execute(tall.as_str(), Vec::new()).await?;
                        let tall: f64 = page.driver.execute(tall, Vec::new()).await?.convert()?;
                        if tall > 1600.0 {
                            too_tall.push(format!("{job}, {stage}, {name}, {face}: {tall} px"));
                        }
                    }
                    // Back to the tabs: what was looked at took no focus.
                    let back = format!("document.querySelector('[data-section-name=\"{name}\"]').focus()");
                    page.driver.execute(back, Vec::new()).await?;
                }
            }
        }
        assert!(too_tall.is_empty(), "{too_tall:#?}");
        Ok(())
    })
    .await;
}
