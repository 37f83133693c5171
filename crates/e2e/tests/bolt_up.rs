//! The work done in order, as a person ticks it: on a phone under the vehicle, and at the bench.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_e2e::{DESK, PHONE, Page, Shop, in_browser};
use thirtyfour::prelude::*;

const ANSWER: &str = "[data-answer]";
const PANEL: &str = "[data-panel]";

/// Presses the tick of a step.
async fn tick(page: &Page, step: &str) -> WebDriverResult<()> {
    page.pick(&format!("//li[@data-step='{step}']/button[@aria-pressed]")).await
}

async fn is(page: &Page, step: &str, state: &str) -> WebDriverResult<()> {
    page.at(&format!("//li[@data-step='{step}'][@data-state='{state}']")).await.map(drop)
}

/// Types what the wrench said into the field of a fastener of the open step.
async fn wrench(page: &Page, fastener: &str, torque: &str) -> WebDriverResult<()> {
    let field = format!("//section[@data-fastener='{fastener}']//input");
    let field = page.at(&field).await?;
    field.send_keys(format!("{torque}{}", Key::Enter.value())).await?;
    page.at(&format!("//section[@data-fastener='{fastener}']//p[@data-tight]")).await?;
    page.saved().await
}

/// From the middle of the work to settled, one thumb all the way; the card is printed on the way.
#[tokio::test(flavor = "multi_thread")]
async fn a_chosen_plan_is_carried_through_every_step_to_settled_on_a_phone() {
    let shop = Shop::open();
    in_browser(PHONE, |page| async move {
        let id = "tower-truck-8";
        page.go(&format!("{}/jobs/{id}/bolt_up", shop.address)).await?;
        page.sees(ANSWER, "Step 7 of 23").await?;
        page.sees("[data-put-back]", "left front wheel").await?;
        for step in
            ["frame/by-hand", "bar/bench", "bar/frame-eye-by-hand", "bar/axle-eye-by-hand", "frame/snug"]
        {
            tick(&page, step).await?;
            is(&page, step, "done").await?;
        }
        // The bench is the same as stage Bar's: 31 7/8 in eye to eye.
        let job = shop.job(id).await;
        let steps = job["document"]["bolt_up"]["steps"].as_array().unwrap().clone();
        let bench = steps.iter().find(|step| step["key"] == "bar/bench").unwrap();
        assert_eq!(bench["read"], "On the bench, set the long-sleeve turnbuckle bar to 31 7/8\" eye to eye");
        assert_eq!((&bench["stood"], &bench["done"]["by"]), (&"supported".into(), &"N. Orr".into()));
        for (step, torque) in
            [("frame/main", "120 lb-ft"), ("frame/side", "85 lb-ft"), ("frame/small", "45 Nm")]
        {
            wrench(&page, step, torque).await?;
            tick(&page, step).await?;
            is(&page, step, "done").await?;
        }
        tick(&page, "on-its-weight").await?;
        is(&page, "on-its-weight", "done").await?;
        for eye in ["bar/frame-eye", "bar/axle-eye"] {
            wrench(&page, eye, "150 Nm").await?;
            tick(&page, eye).await?;
            is(&page, eye, "done").await?;
        }

        // The plan is recorded as fitted in stage Bar, and read again: the plan of work stays, ticks and all.
        page.go(&format!("{}/jobs/{id}/bar", shop.address)).await?;
        page.enter("Length as set, eye to eye", "31 7/8").await?;
        page.saved().await?;
        page.go(&format!("{}/jobs/{id}/bolt_up", shop.address)).await?;
        is(&page, "frame/main", "done").await?;
        is(&page, "bar/bench", "done").await?;
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.press("Start the after measurements").await?;
        page.saved().await?;
        page.press("on its wheels").await?;
        page.type_readings(["6", "6", "6", "6", "6", "6", "6", "6"]).await?;
        page.sees(ANSWER, "Proved: centered within 1/8″").await?;
        // It cannot be settled: things are off, complaints unasked, the jam nuts open.
        page.sees("[data-gates]", "Still off the vehicle: left front wheel").await?;
        page.sees("[data-gates]", "bar jam nuts or clamps").await?;

        page.go(&format!("{}/jobs/{id}/bolt_up", shop.address)).await?;
        is(&page, "read-again", "ready").await?;
        tick(&page, "read-again").await?;
        // The drag link comes with the axle: it is turned, and held.
        is(&page, "read-again", "done").await?;
        tick(&page, "drag-link/turn").await?;
        is(&page, "drag-link/turn", "done").await?;
        wrench(&page, "drag-link/clamps", "40 lb-ft").await?;
        tick(&page, "drag-link/clamps").await?;
        is(&page, "drag-link/clamps", "done").await?;
        wrench(&page, "bar/jam", "95 lb-ft").await?;
        tick(&page, "bar/jam").await?;
        is(&page, "bar/jam", "done").await?;
        tick(&page, "witness").await?;
        is(&page, "witness", "done").await?;
        page.pick("//section[@aria-label='Put back']//button").await?;
        for _ in 0..3 {
            page.press("It is back on").await?;
            page.saved().await?;
        }
        page.sees("[data-put-back='0']", "Nothing left to put back").await?;
        tick(&page, "put-back").await?;
        page.sees(ANSWER, "All 23 steps are done").await?;
        page.at("//*[@data-stage='bolt_up'][@data-progress='settled']").await?;

        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        for complaint in
            ["Steps to the left over washboard", "Steering wheel a thumb off center since the lift"]
        {
            page.pick(&format!("//*[@aria-label='{complaint}']//button[normalize-space()='gone']")).await?;
            page.saved().await?;
        }
        page.all_looked_at().await?;
        page.press("Close this job").await?;
        page.sees("[data-settled]", "Closed on").await?;
        let settled = shop.job(id).await;
        assert_eq!(settled["results"]["settled_stands"], true);
        // Its drag link leans 6° from the bar, which can be felt and stands in nobody's way.
        let findings = settled["results"]["findings"].as_array().unwrap();
        assert!(findings.iter().all(|found| found["weight"] == "comfort"), "{findings:?}");
        // What is due stands there with its days, and the card can be printed.
        page.sees("[data-reminder=first_day]", "re-torque everything").await?;
        let card = reqwest::get(format!("{}/api/v1/jobs/{id}/card.pdf", shop.address)).await.unwrap();
        assert_eq!(card.headers()["content-type"], "application/pdf");
        assert!(card.bytes().await.unwrap().starts_with(b"%PDF-"));
        assert_eq!(page.complaints().await?, Vec::<String>::new());
        Ok(())
    })
    .await;
}

/// A nut that looks alike stops its step before anything is tight.
#[tokio::test(flavor = "multi_thread")]
async fn a_wrong_nut_is_refused_and_its_own_one_goes_on() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let id = "relay-van-10";
        page.go(&format!("{}/jobs/{id}/bolt_up", shop.address)).await?;
        page.sees(ANSWER, "Step 1 of 16").await?;
        // M14×2 on M14×1.5: the eye is not even started by hand.
        is(&page, "bar/frame-eye-by-hand", "stopped").await?;
        page.pick("//li[@data-step='bar/frame-eye-by-hand']/button").await?;
        page.sees("li[data-step='bar/frame-eye-by-hand']", "Wrong nut on the frame eye bolt").await?;
        tick(&page, "bar/frame-eye-by-hand").await?;
        page.sees("li[data-step='bar/frame-eye-by-hand']", "Do it out of order, because").await?;
        page.press("Cancel").await?;
        is(&page, "bar/frame-eye-by-hand", "stopped").await?;
        // The right nut, typed where the bolt is: the step goes on once what comes before it is done.
        page.go(&format!("{}/jobs/{id}/bracket", shop.address)).await?;
        page.enter("Nut thread", "M14x1.5").await?;
        page.saved().await?;
        page.go(&format!("{}/jobs/{id}/bolt_up", shop.address)).await?;
        is(&page, "bar/frame-eye-by-hand", "waits").await?;
        assert_eq!(page.grave_faults().await?, Vec::<String>::new());
        Ok(())
    })
    .await;
}

/// Against the order only with a reason, which stands in the record and in the log.
#[tokio::test(flavor = "multi_thread")]
async fn going_on_against_the_order_is_reported_and_kept() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let id = "tower-truck-8";
        page.go(&format!("{}/jobs/{id}/bolt_up", shop.address)).await?;
        page.sees(ANSWER, "Step 7 of 23").await?;
        tick(&page, "bar/jam").await?;
        page.sees(
            "li[data-step='bar/jam']",
            "jam nuts and clamps come last, once both sides measure the same",
        )
        .await?;
        assert_eq!(shop.job(id).await["document"]["bolt_up"]["steps"].as_array().map(Vec::len), Some(6));
        let reason =
            page.at("//li[@data-step='bar/jam']//label[contains(.,'Do it out of order')]//input").await?;
        reason.send_keys("held for the night").await?;
        page.press("Mark it done anyway").await?;
        is(&page, "bar/jam", "done").await?;
        page.sees("li[data-step='bar/jam'] [data-reported]", "Done before “Measure both sides again").await?;
        page.sees("li[data-step='bar/jam'] [data-reported]", "Reason: held for the night").await?;
        page.sees("li[data-step='bar/jam'] [data-reported]", "should be done on its wheels").await?;
        page.saved().await?;

        // A step of one's own, moved before the drilling: the rule that is broken is named.
        page.pick("//li[@data-step='bar/bench']/button").await?;
        page.pick("//li[@data-step='bar/bench']//button[normalize-space()='later']").await?;
        page.pick("//li[@data-step='bar/bench']//button[normalize-space()='later']").await?;
        page.sees(PANEL, "set its length before it goes in").await?;
        page.press("Back to the standard sequence").await?;
        page.saved().await?;

        page.go(&format!("{}/log", shop.address)).await?;
        page.sees(
            "[data-log]",
            "Out of order: Tighten both jam nuts or clamps, clamps square. Reason: held for the night",
        )
        .await?;
        page.fill("Search the log", "pocket").await?;
        page.sees("[data-log='1']", "2 mm too narrow").await?;
        assert_eq!(page.grave_faults().await?, Vec::<String>::new());
        Ok(())
    })
    .await;
}

/// What is overdue stands on the card in the bay, and is gone once it was seen to.
#[tokio::test(flavor = "multi_thread")]
async fn a_reminder_that_is_overdue_stands_in_the_bay_until_it_is_seen_to() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&shop.address).await?;
        page.sees("[data-job=ridge-truck-1] [data-due='2026-11-04']", "overdue 2026-11-04").await?;
        page.go(&format!("{}/jobs/ridge-truck-1/prove", shop.address)).await?;
        page.sees("[data-reminder=by_feel]", "Overdue: 2026-11-04").await?;
        page.pick("//li[@data-reminder='by_feel']//button").await?;
        page.saved().await?;
        page.pick("//li[@data-reminder='first_day']//button").await?;
        page.saved().await?;
        page.sees("[data-reminder=first_day]", "done").await?;
        page.go(&shop.address).await?;
        page.sees("[data-job=ridge-truck-1] [data-due='2026-11-06']", "overdue 2026-11-06").await?;
        // It is settled still: what was seen to is a record, no change of figures.
        assert_eq!(shop.job("ridge-truck-1").await["results"]["settled_stands"], true);
        Ok(())
    })
    .await;
}
