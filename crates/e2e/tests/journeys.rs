//! What a person does, from end to end: real browser, real server, its database behind.

use derecho_e2e::{DESK, PHONE, Page, Shop, TABLET, in_browser};
use serde_json::Value;
use thirtyfour::Key;
use thirtyfour::prelude::*;

const ANSWER: &str = "[data-answer]";
const PANEL: &str = "[data-panel]";

fn readings(job: &Value, sheet: usize, side: &str) -> Vec<(String, f64)> {
    let entries = job["document"]["sheets"][sheet][side].as_array().cloned().unwrap_or_default();
    entries
        .iter()
        .map(|entry| {
            (entry["text"].as_str().unwrap_or_default().to_owned(), entry["mm"].as_f64().unwrap_or(f64::NAN))
        })
        .collect()
}

#[tokio::test(flavor = "multi_thread")]
async fn from_eight_readings_to_a_bar_that_is_proved() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&shop.address).await?;
        page.at("//*[@data-job='lookout-truck-12']").await?.click().await?;
        page.press("New left-right measurement").await?;
        page.type_readings([
            "24 13/16", "24 3/4", "24 13/16", "24 13/16", "23 13/16", "23 3/4", "23 13/16", "23 13/16",
        ])
        .await?;
        // Every left reading is 1 in more than its right one: half of that.
        page.sees(ANSWER, "The axle is 1/2″ to the left (driver's)").await?;
        let id = page.job_id().await?;
        let job = shop.job(&id).await;
        // 24 13/16 in is 630.2375 mm; 23 3/4 in is 603.25 mm.
        assert_eq!(readings(&job, 0, "left")[0], ("24 13/16".to_owned(), 630.2375));
        assert_eq!(readings(&job, 0, "right")[1], ("23 3/4".to_owned(), 603.25));

        // Flipping the units changes what is shown and nothing that is stored.
        page.key("u").await?;
        page.sees(ANSWER, "The axle is 12.5 mm to the left").await?;
        assert_eq!(page.value("left reading 1").await?, "24 13/16");
        let again = shop.job(&id).await;
        assert_eq!((&again["revision"], &again["document"]), (&job["revision"], &job["document"]));
        page.key("u").await?;

        // Undo takes the last reading back, redo brings it again.
        page.press("Undo").await?;
        page.at("//input[@data-tape='/sheets/0/right/3'][@value='']").await?;
        assert_eq!(readings(&shop.job(&id).await, 0, "right").len(), 3);
        page.press("Redo").await?;
        page.at("//input[@data-tape='/sheets/0/right/3'][@value='23 13/16']").await?;

        // e = 1/2 in on a 32 in bar at v = 6 in: √((31.4325 + 0.5)² + 36) − 32 = 0.4913 in,
        // at 1/6 in a turn 2.948 turns: 17.69 flats, so 18.
        page.key("3").await?;
        // Holes are on offer, and the length alone runs into the pan: that is decided first, in Bracket.
        page.sees(ANSWER, "Decide first: a hole, or length only").await?;
        page.press("Go to Bracket").await?;
        page.pick("//button[starts-with(normalize-space(), 'Show all')]").await?;
        page.pick("//tr[@data-option='no bracket']//button").await?;
        page.press("Choose this plan").await?;
        page.saved().await?;
        page.key("3").await?;
        page.sees(ANSWER, "Make the bar 1/2″ longer, 3 turns longer").await?;
        page.sees(PANEL, "3 turns minus 0.31 flat").await?;
        page.enter("Length as set, eye to eye", "32 1/2").await?;
        page.sees(PANEL, "Set to 32 1/2″. The axle should be centered now").await?;
        page.saved().await?;

        page.press("Measure both sides again (Prove)").await?;
        page.press("Start the after measurements").await?;
        page.saved().await?;
        page.type_readings([
            "24 5/16", "24 1/4", "24 5/16", "24 5/16", "24 5/16", "24 5/16", "24 5/16", "24 5/16",
        ])
        .await?;
        page.sees(ANSWER, "Proved: centered within 1/8″").await?;
        page.sees("[data-movement]", "should have moved 1/2″ right").await?;
        page.press("on its wheels").await?;
        page.saved().await?;
        // Nobody wrote how tight the jam nuts are, nor asked the complaint again: only a reason settles it so.
        page.sees("[data-gates]", "bar jam nuts or clamps").await?;
        page.reasons("road test tomorrow").await?;
        page.saved().await?;
        page.press("Close this job").await?;
        page.sees("[data-settled]", "Closed on").await?;
        let settled = shop.job(&id).await;
        assert!(settled["document"]["settled"]["results"]["prove"].is_object());
        assert_eq!(settled["results"]["settled_stands"], true);
        assert_eq!(page.complaints().await?, Vec::<String>::new());
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_worked_example_stands_on_the_screen_to_its_digits() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        shop.choose_length_alone("lookout-truck-12").await;
        page.go(&format!("{}/jobs/lookout-truck-12/bar", shop.address)).await?;
        page.sees(ANSWER, "Estimate: 1/2″ longer. Measure both sides first.").await?;
        page.sees(PANEL, "3 turns longer").await?;
        page.sees(PANEL, "3 turns minus 0.14 flat").await?;
        for working in
            ["angle and rate", "what the lift alone does", "length that centers the axle", "turns and flats"]
        {
            page.press(&format!("How this is calculated: {working}")).await?;
        }
        for figure in [
            "31.9374 in",
            "31.4325 in",
            "0.5050 in",
            "10.807°",
            "-0.19089",
            "32.4962 in",
            "0.4962 in",
            "0.0088 in",
            "2.977",
        ] {
            page.sees(PANEL, figure).await?;
        }
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_bad_reading_is_marked_kept_and_mended() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/tape", shop.address)).await?;
        page.sees(ANSWER, "1/2″ to the left").await?;
        let before = shop.job("lookout-truck-7").await;
        page.enter("left reading 1", "6 17/16").await?;
        page.sees("[role=alert]", "The fraction must be less than 1").await?;
        page.sees("mark", "17/16").await?;
        assert_eq!(page.value("left reading 1").await?, "6 17/16");
        assert_eq!(shop.job("lookout-truck-7").await["revision"], before["revision"]);

        // It survives a reload, still marked, still not in the job.
        page.driver.refresh().await?;
        page.sees("mark", "17/16").await?;
        page.enter("left reading 1", "7 1/16").await?;
        page.misses("[role=alert]").await?;
        page.saved().await?;
        let job = shop.job("lookout-truck-7").await;
        assert_eq!(readings(&job, 0, "left")[0].0, "7 1/16");

        // Escape brings the last good value back.
        page.fill("left reading 1", &format!("nonsense{}", Key::Escape.value())).await?;
        assert_eq!(page.value("left reading 1").await?, "7 1/16");
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_reload_in_the_middle_of_typing_loses_nothing() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/tape", shop.address)).await?;
        page.sees(ANSWER, "1/2″ to the left").await?;
        page.fill("left reading 1", "6 5/8").await?;
        page.driver.refresh().await?;
        // It is taken up again and saved by itself.
        page.at("//input[@data-tape='/sheets/0/left/0'][@value='6 5/8']").await?;
        page.saved().await?;
        page.sees("[data-saved=saved]", "saved").await?;
        shop.until("lookout-truck-7", |job| readings(job, 0, "left")[0].0 == "6 5/8").await;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn two_windows_on_one_job_meet_the_choice() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let url = format!("{}/jobs/lookout-truck-7/tape", shop.address);
        page.go(&url).await?;
        page.sees(ANSWER, "1/2″ to the left").await?;
        let first = page.driver.window().await?;
        let second = page.driver.new_tab().await?;
        page.driver.switch_to_window(second.clone()).await?;
        page.go(&url).await?;
        page.sees(ANSWER, "1/2″ to the left").await?;
        page.enter("left reading 1", "6 3/4").await?;
        page.saved().await?;
        page.sees(ANSWER, "9/16″ to the left").await?;

        page.driver.switch_to_window(first).await?;
        page.enter("right reading 1", "5 1/4").await?;
        page.sees("[role=dialog]", "This job was changed somewhere else").await?;
        page.sees("[data-differences]", "6 3/4 in").await?;
        page.sees("[data-differences]", "5 1/4 in").await?;
        assert_eq!(
            readings(&shop.job("lookout-truck-7").await, 0, "right")[0].0,
            "5 1/2",
            "nothing overwritten unseen"
        );
        page.press("Keep mine").await?;
        page.misses("[role=dialog]").await?;
        page.saved().await?;
        let mine = shop.job("lookout-truck-7").await;
        assert_eq!(readings(&mine, 0, "right")[0].0, "5 1/4");
        assert_eq!(readings(&mine, 0, "left")[0].0, "6 1/2");

        // The other way round: the second window gives way.
        page.driver.switch_to_window(second).await?;
        page.enter("left reading 2", "6 7/8").await?;
        page.sees("[role=dialog]", "This job was changed somewhere else").await?;
        page.press("Use the other version").await?;
        page.misses("[role=dialog]").await?;
        assert_eq!(page.value("right reading 1").await?, "5 1/4");
        assert_eq!(shop.job("lookout-truck-7").await["revision"], mine["revision"]);
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_stick_moves_elevation_rule_and_figures_without_the_server() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        shop.choose_length_alone("lookout-truck-12").await;
        page.go(&format!("{}/jobs/lookout-truck-12/bar", shop.address)).await?;
        page.sees("[data-travel]", "ride height").await?;
        let before = page.asked_in_all().await?;
        // Sixteen steps of 1/8 in are 2 in of bump: v goes from 6 in to 4 in.
        for _ in 0..16 {
            page.key("]").await?;
        }
        page.sees("[data-travel]", "2″ bump").await?;
        // The plan, 32.4962 in, at v = 4 in: asin(4/32.4962) = 7.07°.
        page.sees("[data-bar-caption]", "7.1°").await?;
        // It goes to the right by √(32.4962² − 4²) − √(32.4962² − 6²) = 0.3117 in: 5/16.
        page.sees("[data-pointer=plan]", "5/16″ right").await?;
        page.press("as found").await?;
        // As found, 32 in: asin(4/32) = 7.18°.
        page.sees("[data-bar-caption]", "7.2°").await?;

        page.at("//*[@data-stick]").await?.send_keys(Key::Down.value()).await?;
        page.sees("[data-travel]", "1 7/8″ bump").await?;
        page.key(&Key::Home.value().to_string()).await?;
        page.sees("[data-travel]", "ride height").await?;
        page.press("Cycle").await?;
        page.sees("[data-travel]", "bump").await?;
        page.press("Pause").await?;
        let after = page.asked_in_all().await?;
        assert_eq!(after, before, "moving the stick asks the server for nothing");
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn keys_go_to_stages_and_views_but_never_while_typing() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/relay-van-2/tape", shop.address)).await?;
        page.sees(ANSWER, "to the right").await?;
        // Right-hand drive: the right is the driver's side; from the front it is on the left.
        page.sees("[data-elevation]", "RIGHT driver").await?;
        page.key("f").await?;
        page.press("View from the rear, switch").await?;
        page.key("1").await?;
        page.sees(ANSWER, "Front,").await?;
        page.fill("Vehicle, in your own words", "3 u f").await?;
        assert_eq!(page.value("Vehicle, in your own words").await?, "3 u f");
        page.sees(ANSWER, "Front,").await?;
        page.key("8").await?;
        page.sees(ANSWER, "Nothing to prove yet").await?;
        page.key("2").await?;
        page.key("n").await?;
        let field = page.driver.active_element().await?;
        assert_eq!(field.attr("data-tape").await?.as_deref(), Some("/sheets/0/left/3"));
        page.key("?").await?;
        page.sees("[role=dialog]", "Keyboard shortcuts").await?;
        // The style a dialog brings to hold the page behind it still is taken, by the page's nonce; one without is not.
        let taken = "const foreign = document.createElement('style'); foreign.textContent = 'b{}';
            document.head.append(foreign);
            const own = [...document.querySelectorAll('style')].filter((style) => style !== foreign);
            return own.length > 0 && own.every((style) => style.sheet) && !foreign.sheet;";
        assert!(page.driver.execute(taken, Vec::new()).await?.convert::<bool>()?);
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn on_a_phone_with_the_fraction_pad() {
    let shop = Shop::open();
    in_browser(PHONE, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-12/tape", shop.address)).await?;
        page.press("New left-right measurement").await?;
        let field = page.field("left reading 1").await?;
        field.scroll_into_view().await?;
        field.click().await?;
        // 24 13/16 is three touches.
        for touch in ["2", "4", "13/16", "enter, next measurement"] {
            page.press(touch).await?;
        }
        page.saved().await?;
        page.at("//input[@data-tape='/sheets/0/left/0'][@value='24 13/16']").await?;
        let next = page.driver.active_element().await?;
        assert_eq!(next.attr("data-tape").await?.as_deref(), Some("/sheets/0/left/1"));
        let wide: bool = page
            .driver
            .execute(
                "return Math.max(document.documentElement.scrollWidth, window.innerWidth) > screen.width",
                Vec::new(),
            )
            .await?
            .convert()?;
        assert!(!wide, "nothing sticks out sideways");
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_new_job_from_nothing_and_its_history() {
    let shop = Shop::open();
    in_browser(TABLET, |page| async move {
        page.go(&shop.address).await?;
        page.press("New job").await?;
        // Who knows the trade may pass the question over.
        page.press("Show all screens").await?;
        page.enter("Job", "Hose truck 5").await?;
        page.press("Rear axle").await?;
        page.at("//*[@aria-label='Track bar frame end on the']//button[normalize-space()='Right']")
            .await?
            .click()
            .await?;
        page.saved().await?;
        page.press("Millimeters").await?;
        page.saved().await?;
        page.at("//*[@data-stage='bar']").await?.click().await?;
        page.sees(PANEL, "Enter the bar's length, eye to eye").await?;
        page.enter("Length, eye to eye (center to center)", "500").await?;
        page.enter("Frame end, height above the floor", "700").await?;
        page.enter("Axle end, height above the floor", "400").await?;
        page.saved().await?;
        // 3-4-5: asin(300/500) = 36.9°.
        page.sees(ANSWER, "Bar angle 36.9°, frame end high").await?;
        // Shorter than its eyes are apart: said in words, nothing drawn that cannot be.
        page.enter("Length, eye to eye (center to center)", "250").await?;
        page.sees(PANEL, "The bar is shorter than the height and fore-aft distance").await?;
        page.saved().await?;

        page.press("More").await?;
        page.press("History").await?;
        page.sees("[role=dialog] table, [role=dialog] ol", "made").await?;
        let lines = page.driver.find_all(By::Css("[role=dialog] ol button")).await?;
        assert!(lines.len() >= 7, "every saved change is listed: {}", lines.len());
        lines[1].click().await?;
        page.sees("[role=dialog] table", "bar › length").await?;
        page.at("//button[starts-with(normalize-space(), 'Restore revision')]").await?.click().await?;
        page.misses("[role=dialog]").await?;
        page.sees(ANSWER, "36.9°").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_bay_finds_jobs_and_opens_samples() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&shop.address).await?;
        page.sees("[data-job=lookout-truck-4]", "Can't tell yet: it could be centered or off. Measure again")
            .await?;
        page.sees("[data-job=supply-truck-9]", "Road test it, then close the job").await?;
        page.fill("Find a job", "tender").await?;
        page.misses("[data-job=lookout-truck-4]").await?;
        page.sees("[data-job=water-tender-3]", "Water tender 3").await?;
        page.press("Relay van 2: pulls right over speed bumps").await?;
        page.sees(ANSWER, "to the right").await?;
        assert_ne!(page.job_id().await?, "relay-van-2", "a sample opens as a job of one's own");
        // A sheet begun by mistake is taken out again.
        page.press("Squareness").await?;
        page.sees(ANSWER, "Measure both sides").await?;
        page.press("More about these measurements").await?;
        page.press("Delete these measurements").await?;
        page.sees(ANSWER, "to the right").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn no_view_has_a_grave_fault_of_access_in_either_theme() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        for theme in ["paper", "night"] {
            page.go(&shop.address).await?;
            page.sees("[data-job=lookout-truck-7]", "Lookout truck 7").await?;
            if theme == "night" {
                page.press("Dark").await?;
            }
            assert_eq!(page.grave_faults().await?, Vec::<String>::new(), "bay, {theme}");
            for view in [
                "lookout-truck-7/rig",
                "lookout-truck-4/tape",
                "lookout-truck-7/tape",
                "lookout-truck-7/bar",
                "relay-van-2/bar",
                "lookout-truck-7/bracket",
                "relay-wagon-5/bracket",
                "lookout-truck-7/cycle",
                "relay-wagon-5/cycle",
                "lookout-truck-7/sway",
                "relay-wagon-5/sway",
                "tower-truck-8/bolt_up",
                "lookout-truck-7-rear/bolt_up",
                "supply-truck-9/prove",
                "ridge-truck-1/prove",
            ] {
                page.go(&format!("{}/jobs/{view}", shop.address)).await?;
                page.at("//*[@data-answer]").await?;
                if view.ends_with("cycle") {
                    page.at("//*[@data-map]").await?;
                }
                if view.ends_with("sway") {
                    page.at("//*[@data-chart]").await?;
                }
                assert_eq!(page.grave_faults().await?, Vec::<String>::new(), "{view}, {theme}");
            }
            page.key("?").await?;
            page.sees("[role=dialog]", "Keyboard shortcuts").await?;
            assert_eq!(page.grave_faults().await?, Vec::<String>::new(), "keys, {theme}");
        }
        Ok(())
    })
    .await;
}

/// The read-back on the screen is written by the client, that of the API by the core: one
/// and the same rule.
#[tokio::test(flavor = "multi_thread")]
async fn the_screen_reads_back_as_the_core_does() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-12/rig", shop.address)).await?;
        let client = reqwest::Client::new();
        for text in [
            "10 1/2", "23 63/64", "24 13/32", "1/3", "5/32", "0.03", "630,5 mm", "0.05 mm", "2' 3 1/2",
            "63 cm", "24 31/32",
        ] {
            let answer =
                client.get(format!("{}/api/v1/tape", shop.address)).query(&[("text", text), ("unit", "in")]);
            let judged: Value =
                answer.send().await.expect("the server answers").json().await.expect("it is JSON");
            let back = &judged["read"];
            let wanted = format!(
                "{} · {}",
                back["inches"].as_str().unwrap_or_default(),
                back["millimetres"].as_str().unwrap_or_default()
            );
            page.fill("Tire width", text).await?;
            page.sees("fieldset, [data-panel]", &wanted.replace('"', "″")).await?;
        }
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_stick_is_dragged_and_everything_follows() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        shop.choose_length_alone("lookout-truck-7").await;
        page.go(&format!("{}/jobs/lookout-truck-7/bar", shop.address)).await?;
        page.sees("[data-travel]", "ride height").await?;
        let stick = page.at("//*[@data-stick]").await?;
        let before = page.driver.find(By::Css("[data-elevation] svg")).await?.inner_html().await?;
        let box_of = stick.rect().await?;
        let middle = (box_of.x + box_of.width / 2.0) as i64;
        // From the middle to the very top, where the travel ends.
        page.driver
            .action_chain()
            .move_to(middle, (box_of.y + box_of.height / 2.0) as i64)
            .click_and_hold()
            .move_to(middle, (box_of.y + box_of.height * 0.3) as i64)
            .move_to(middle, box_of.y as i64 + 4)
            .release()
            .perform()
            .await?;
        page.sees("[data-travel]", "3 1/2″ bump").await?;
        let after = page.driver.find(By::Css("[data-elevation] svg")).await?.inner_html().await?;
        assert_ne!(before, after, "the drawing moved");
        page.sees("[data-pointer=plan]", "right").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn setting_the_whole_difference_is_found_out_and_leads_back_to_bar() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        shop.choose_length_alone("lookout-truck-7").await;
        page.go(&format!("{}/jobs/lookout-truck-7/bar", shop.address)).await?;
        page.sees(ANSWER, "Make the bar 1/2″ longer").await?;
        // A slip of the finger is mended in its own field.
        page.enter("Length as set, eye to eye", "23").await?;
        page.sees(PANEL, "Set to 23″").await?;
        // The classic mistake: 1 in instead of 1/2.
        page.enter("Length it is set to", "33").await?;
        page.sees(PANEL, "The axle should now be 1/2″ to the right").await?;
        page.press("Measure both sides again (Prove)").await?;
        page.press("Start the after measurements").await?;
        page.saved().await?;
        page.type_readings(["5 1/2", "5 1/2", "5 1/2", "5 1/2", "6 1/2", "6 1/2", "6 1/2", "6 1/2"]).await?;
        page.sees(ANSWER, "Still off center: 1/2″ to the right").await?;
        page.sees(PANEL, "by the full left-right difference instead of half").await?;
        page.press("Back to Bar").await?;
        // From 33 in: e = −1/2 in at v = 6 in, √((32.4500 − 0.5)² + 36) − 33 = −0.4915.
        page.sees(ANSWER, "Make the bar 1/2″ shorter").await?;
        page.at("//*[@data-stage='prove'][@data-progress='needs_look']").await?;

        // Read while hanging it proves nothing at all.
        page.key("8").await?;
        page.press("hanging").await?;
        page.sees(ANSWER, "Not proved: measure again").await?;
        page.sees(PANEL, "measured with the axle hanging").await?;
        Ok(())
    })
    .await;
}

/// The views that are looked at on every screen.
const VIEWS: [&str; 12] = [
    "",
    "jobs/water-tender-3/rig",
    "jobs/lookout-truck-4/tape",
    "jobs/lookout-truck-7/bar",
    "jobs/lookout-truck-7/bracket",
    "jobs/lookout-truck-7/cycle",
    "jobs/lookout-truck-7/sway",
    "parts",
    "jobs/supply-truck-9/prove",
    "jobs/lookout-truck-7/start",
    "jobs/lookout-truck-7/tape",
    "jobs/tower-truck-8/bolt_up",
];

#[tokio::test(flavor = "multi_thread")]
async fn on_tablet_and_phone_nothing_sticks_out_and_no_fault_is_grave() {
    let shop = Shop::open();
    for (name, size) in [("tablet", TABLET), ("phone", PHONE)] {
        let address = shop.address.clone();
        in_browser(size, |page| async move {
            // Both themes at every width; the desk has its own test.
            for (theme, view) in ["paper", "night"].into_iter().flat_map(|theme| VIEWS.map(|view| (theme, view))) {
                page.go(&format!("{address}/{view}")).await?;
                let set = "localStorage.setItem('derecho.settings', JSON.stringify({ version: 0,
                    state: { units: 'in', face: 'front', pad: false, theme: arguments[0] } }))";
                page.driver.execute(set, vec![serde_json::json!(theme)]).await?;
                page.go(&format!("{address}/{view}")).await?;
                page.at("//*[@data-job] | //*[@data-answer] | //*[@data-part]").await?;
                let wide: bool = page
                    .driver
                    .execute("return Math.max(document.documentElement.scrollWidth, window.innerWidth) > screen.width", Vec::new())
                    .await?
                    .convert()?;
                assert!(!wide, "{view} on a {name} sticks out sideways");
                assert_eq!(page.grave_faults().await?, Vec::<String>::new(), "{view} on a {name}");
            }
            Ok(())
        })
        .await;
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn a_job_file_goes_out_and_comes_in_through_the_bay() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let folder = tempfile::tempdir().expect("there is room for a file");
        let file = folder.path().join("van.derecho.json");
        let exported = reqwest::get(format!("{}/api/v1/jobs/relay-van-2/export", shop.address)).await;
        let text = exported.expect("the server answers").text().await.expect("a job file is text");
        std::fs::write(&file, &text).expect("the file is written");
        page.go(&shop.address).await?;
        page.at("//input[@type='file']").await?.send_keys(file.to_string_lossy()).await?;
        page.sees(ANSWER, "Front,").await?;
        assert_ne!(page.job_id().await?, "relay-van-2");

        // A file with a mistake is refused with its place, and the bay stays as it was.
        std::fs::write(&file, text.replace("\"148\"", "\"148 17/16 in\"")).expect("the file is written");
        page.go(&shop.address).await?;
        page.at("//input[@type='file']").await?.send_keys(file.to_string_lossy()).await?;
        page.sees("main", "/sheets/0/left/0: The fraction must be less than 1").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn after_a_power_cut_the_job_is_as_it_was_saved() {
    let mut shop = Shop::open();
    let address = shop.address.clone();
    in_browser(DESK, |page| async move {
        page.go(&format!("{address}/jobs/lookout-truck-7/tape")).await?;
        page.enter("left reading 1", "7").await?;
        page.saved().await?;
        page.sees(ANSWER, "9/16″ to the left").await?;
        shop.cut_power();
        page.go(&format!("{}/jobs/lookout-truck-7/tape", shop.address)).await?;
        page.at("//input[@data-tape='/sheets/0/left/0'][@value='7']").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_change_made_while_the_server_is_down_is_kept_and_saved_later() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/tape", shop.address)).await?;
        page.sees(ANSWER, "1/2″ to the left").await?;
        let offline = |on: bool| serde_json::json!({ "offline": on, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1 });
        page.driver.cdp().network().enable().await?;
        page.press("on its wheels").await?;
        page.saved().await?;
        page.driver.cdp().send_raw("Network.emulateNetworkConditions", offline(true)).await?;
        page.at("//*[normalize-space()='Wheels straight ahead']/ancestor::fieldset[1]//button[normalize-space()='no']").await?.click().await?;
        page.sees("[data-saved=waiting]", "saved on this device").await?;
        page.driver.cdp().send_raw("Network.emulateNetworkConditions", offline(false)).await?;
        page.saved().await?;
        assert_eq!(shop.job("lookout-truck-7").await["document"]["sheets"][0]["conditions"]["wheels_straight"], false);
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn what_a_person_prefers_stays_after_a_reload() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        shop.choose_length_alone("lookout-truck-7").await;
        let url = format!("{}/jobs/lookout-truck-7/bar", shop.address);
        page.go(&url).await?;
        page.sees(ANSWER, "1/2″").await?;
        page.key("u").await?;
        page.key("f").await?;
        page.press("More").await?;
        page.press("Dark").await?;
        page.sees(ANSWER, "13 mm").await?;
        page.driver.refresh().await?;
        page.sees(ANSWER, "13 mm").await?;
        page.press("View from the rear, switch").await?;
        page.at("//html[@data-theme='night']").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_job_is_taken_out_of_the_bay_only_when_asked_twice() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-4/tape", shop.address)).await?;
        page.press("More").await?;
        page.press("Remove this job").await?;
        page.press("Keep it").await?;
        page.misses("[role=dialog]").await?;
        page.press("More").await?;
        page.press("Remove this job").await?;
        page.press("Remove").await?;
        page.sees("[data-job=lookout-truck-7]", "Lookout truck 7").await?;
        page.misses("[data-job=lookout-truck-4]").await?;
        page.go(&format!("{}/jobs/lookout-truck-4/tape", shop.address)).await?;
        page.sees("h1", "No such job").await?;
        Ok(())
    })
    .await;
}

/// The client looks at an angle's form only; the core has the last word, and a refused
/// change stays on the screen until it is mended or dropped.
#[tokio::test(flavor = "multi_thread")]
async fn a_change_the_core_refuses_is_reported_and_can_be_dropped() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/relay-van-2/bar", shop.address)).await?;
        page.sees(ANSWER, "Make the bar").await?;
        // What is no angle is told at the field, and never sent as a change.
        page.enter("Angle finder on the bar", "95").await?;
        page.sees(PANEL, "Steeper than 89°").await?;
        assert_eq!(shop.job("relay-van-2").await["revision"], 1);
        page.enter("Angle finder on the bar", "4.7").await?;
        // A length of nothing is a length: only the whole document shows that it cannot be.
        page.enter("Length, eye to eye (center to center)", "0").await?;
        page.sees(PANEL, "This can't be zero").await?;
        page.at("//*[@data-saved='refused']").await?;
        assert_eq!(shop.job("relay-van-2").await["revision"], 1);
        // What else is typed is saved all the same; what was refused stays in its field.
        page.enter("Angle finder on the bar", "5").await?;
        page.at("//*[@data-saved='refused']").await?;
        shop.until("relay-van-2", |job| job["revision"] == 2).await;
        assert_eq!(page.value("Length, eye to eye (center to center)").await?, "0");
        page.press("Discard what was refused").await?;
        page.saved().await?;
        assert_eq!(page.value("Length, eye to eye (center to center)").await?, "860");
        Ok(())
    })
    .await;
}

/// What a way of stage Cycle says ends it.
async fn way(page: &Page, name: &str) -> WebDriverResult<String> {
    page.sees(&format!("[data-way={name}]"), "").await
}

#[tokio::test(flavor = "multi_thread")]
async fn the_pose_where_the_bar_touches_is_one_press_away() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/cycle", shop.address)).await?;
        page.sees(ANSWER, "The track bar hits the old bracket at 2 5/8″ droop").await?;
        page.misses("[data-touch]").await?;
        page.pick("//*[@data-way='droop']").await?;
        page.at("//*[@data-touch]").await?;
        page.sees("[data-travel]", "2 5/8″ droop").await?;
        // As found the bar is shorter and lies lower there: it touches sooner.
        page.press("as found").await?;
        page.sees(ANSWER, "hits the old bracket at 2 1/2″ droop").await?;
        // The worst of it is at the far end of the travel.
        page.pick("//*[@data-limit='track bar to old bracket']").await?;
        page.sees("[data-travel]", "4 1/2″ droop").await?;
        page.at("//*[@data-touch]").await?;
        assert_eq!(page.complaints().await?, Vec::<String>::new());
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_eye_is_dragged_to_the_next_hole_and_the_limit_moves() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/cycle", shop.address)).await?;
        page.sees(ANSWER, "hits the old bracket").await?;
        let eye = page.at("//*[@data-eye='axle']").await?;
        let hole = page.at("//*[@data-hole='riser hole 2']").await?;
        page.driver.action_chain().drag_and_drop_element(&eye, &hole).perform().await?;
        page.sees(ANSWER, "Clear to the stops.").await?;
        let droop = way(&page, "droop").await?;
        assert!(
            droop.contains("clear to the stop") && droop.contains("as found: the track bar hits"),
            "{droop}"
        );
        page.saved().await?;
        let id = page.job_id().await?;
        let job = shop.job(&id).await;
        assert_eq!(job["document"]["setups"]["plans"]["trial"]["axle"]["hole"], "riser hole 2");
        // A riser of 3 in leaves 3 of 6 in of rise: the bar stands at about half the angle.
        page.sees("[data-pose-caption]", "at 5.").await?;

        // By keyboard back down, hole by hole, and undo brings the last one again.
        let eye = page.at("//*[@data-eye='axle']").await?;
        eye.send_keys(Key::Down + "").await?;
        page.at("//*[@data-eye='axle'][@aria-valuetext='riser hole 1']").await?;
        page.sees(ANSWER, "The track bar hits the old bracket at 4 1/4″ droop").await?;
        page.saved().await?;
        page.press("Undo").await?;
        page.at("//*[@data-eye='axle'][@aria-valuetext='riser hole 2']").await?;
        // And by name.
        page.press("current hole").await?;
        page.sees(ANSWER, "hits the old bracket at 2 5/8″ droop").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn cycling_plays_and_holds_by_key_and_asks_the_server_for_nothing() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/relay-wagon-5/cycle", shop.address)).await?;
        page.sees(ANSWER, "Full travel, clear of").await?;
        page.press("crossed up").await?;
        let before = page.asked_in_all().await?;
        page.key(" ").await?;
        // It leans one way and, half a round later, the other.
        page.sees("[data-pose]", "left up").await?;
        page.sees("[data-pose]", "right up").await?;
        page.key(" ").await?;
        page.at("//button[@aria-pressed='false'][normalize-space()='Cycle']").await?;
        let still = page.sees("[data-pose]", "").await?;
        assert_eq!(page.sees("[data-pose]", "").await?, still);
        let after = page.asked_in_all().await?;
        assert_eq!(before, after);
        // The map is moved by arrow keys: back to ride height, then the left wheel alone.
        page.key(&Key::Home.value().to_string()).await?;
        page.sees("[data-pose]", "lean 0.0°").await?;
        page.at("//*[@data-map]").await?.send_keys(Key::Right + "").await?;
        page.sees("[data-pose]", "left up").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_measured_obstacle_is_cycled_and_a_bad_arm_is_named() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/relay-van-2/tape", shop.address)).await?;
        page.press("Add an obstacle").await?;
        page.saved().await?;
        page.press("old bracket").await?;
        // The bar lies between 372 and 442 mm: a rod at 430 over its middle is too near in bump.
        page.enter("How thick it is", "30").await?;
        page.at("//*[@data-tape='/hardpoints/obstacles/0/from/height']").await?.send_keys("455\n").await?;
        page.at("//*[@data-tape='/hardpoints/obstacles/0/from/sideways']").await?.send_keys("0\n").await?;
        page.at("//*[@data-tape='/hardpoints/obstacles/0/from/fore_aft']").await?.send_keys("90\n").await?;
        page.saved().await?;
        page.key("5").await?;
        page.sees(ANSWER, "The track bar hits the old bracket at").await?;
        page.sees("[data-way=bump]", "bump").await?;

        page.go(&format!("{}/jobs/supply-truck-9/tape", shop.address)).await?;
        page.press("Left lower control arm").await?;
        page.enter("Length, eye to eye (center to center)", "3").await?;
        page.saved().await?;
        page.key("5").await?;
        page.sees(PANEL, "The left lower arm is shorter than its ends are apart").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_plan_is_chosen_by_table_by_grasping_and_by_key() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/bracket", shop.address)).await?;
        page.sees(ANSWER, "Use riser hole 2, then make the bar").await?;
        // A failing option is listed with its reason.
        page.pick(
            "//tr[@data-option='no bracket']//button | //button[starts-with(normalize-space(),'Show all')]",
        )
        .await?;
        page.pick("//tr[@data-option='no bracket']//button").await?;
        page.sees("[data-looked]", "hits the old bracket").await?;
        // By table.
        page.pick("//tr[@data-option='riser hole 2']//button").await?;
        page.pick("//button[@data-bar='the bar as found']").await?;
        page.press("Choose this plan").await?;
        page.at("//*[@data-stage='bracket'][@data-progress='settled']").await?;
        page.saved().await?;
        let id = page.job_id().await?;
        assert_eq!(
            shop.job(&id).await["document"]["setups"]["plans"]["chosen"]["axle"]["hole"],
            "riser hole 2"
        );
        // By grasping: the axle eye one hole down.
        let eye = page.at("//*[@data-eye='axle']").await?;
        let hole = page.at("//*[@data-hole='riser hole 1']").await?;
        page.driver.action_chain().drag_and_drop_element(&eye, &hole).perform().await?;
        page.at("//*[@data-stage='bracket']//*[contains(text(),'riser hole 1')]").await?;
        page.saved().await?;
        let job = shop.job(&id).await;
        assert_eq!(job["document"]["setups"]["plans"]["chosen"]["axle"]["hole"], "riser hole 1");
        assert_eq!(job["document"]["setups"]["plans"]["kept"][0]["axle"]["hole"], "riser hole 2");
        // By key: one hole up again.
        page.at("//*[@data-eye='axle']").await?.send_keys(Key::Up + "").await?;
        page.at("//*[@data-stage='bracket']//*[contains(text(),'riser hole 2')]").await?;
        page.saved().await?;
        // Its drill template comes out at one to one in both formats.
        page.press("Drill templates, full size").await?;
        for (format, sign) in [("svg", "mm\" height=\""), ("dxf", "CIRCLE")] {
            let link = page
                .at(&format!("//a[contains(@href,'format={format}') and contains(@href,'holes')]"))
                .await?;
            let path = link.attr("href").await?.unwrap_or_default();
            let drawing = reqwest::get(format!("{}{path}", shop.address)).await.expect("the server answers");
            assert!(drawing.text().await.expect("a drawing is text").contains(sign), "{format}");
        }
        // The plan goes on to Bar and to Cycle.
        page.key("3").await?;
        page.sees("[data-plan]", "Based on the axle end 3″ up, riser hole 2").await?;
        page.sees("[data-should-read]", "Both sides should then measure 6″").await?;
        page.key("5").await?;
        page.sees(ANSWER, "Clear to the stops.").await?;
        assert_eq!(page.complaints().await?, Vec::<String>::new());
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_bracket_of_ones_own_is_ranked_and_its_plan_proved() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/bracket", shop.address)).await?;
        page.sees(ANSWER, "Use riser hole 2").await?;
        page.at("//*[@data-own-bracket]//input").await?.send_keys("tower").await?;
        for (hole, up) in [(1, "2 1/4"), (2, "2 3/4"), (3, "3 1/4"), (4, "5")] {
            let field = format!("//*[@data-own-bracket]//label[contains(.,'Hole {hole},')]//input");
            page.at(&field).await?.send_keys(up).await?;
        }
        page.press("Try this bracket").await?;
        page.saved().await?;
        // 3 1/4 in is nearer to level than the 3 in of riser hole 2, and still clears the pan.
        page.sees(ANSWER, "Use tower, hole 3").await?;
        page.at("//tr[@data-option='tower, hole 3'][@data-rank='1']").await?;
        page.press("Choose this plan").await?;
        page.saved().await?;
        page.key("3").await?;
        page.sees("[data-plan]", "axle end 3 1/4″ up").await?;
        page.enter("Length as set, eye to eye", "32 1/16").await?;
        page.saved().await?;
        page.press("Measure both sides again (Prove)").await?;
        page.press("Start the after measurements").await?;
        page.saved().await?;
        page.type_readings(["6", "6", "6", "6", "6", "6", "6", "6"]).await?;
        page.sees(ANSWER, "Proved: centered within 1/8″").await?;
        page.sees("[data-movement]", "has moved 1/2″ right").await?;
        page.sees("[data-readings]", "Left should measure 6″ and measures 6″").await?;
        let id = page.job_id().await?;
        let job = shop.job(&id).await;
        assert_eq!(job["results"]["prove"]["movement"]["agrees"], true);
        assert_eq!(job["document"]["setups"]["rounds"][0]["moved"][0]["by_mm"][2], 82.55);
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_parts_library_is_searched_sorted_added_to_and_retired_from() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&shop.address).await?;
        page.press("Parts library").await?;
        page.sees("[data-parts]", "weld-on riser").await?;
        page.press("New part").await?;
        page.at("//*[@id='part-name']").await?.send_keys("tall riser").await?;
        // Each hole is a row that moves the hole drawn.
        page.enter("up, hole 1", "5 17/16").await?;
        page.sees("[role=alert]", "fraction must be less than 1").await?;
        page.misses("[data-part-form] [data-hole-drawn]").await?;
        page.enter("up, hole 1", "5").await?;
        let first = page.at("//*[@data-part-form]//*[@data-hole-drawn='hole 1']/*[1]").await?;
        let before = first.attr("cy").await?;
        page.enter("up, hole 2", "6").await?;
        page.at("//*[@data-part-form]//*[@data-hole-drawn='hole 2']").await?;
        assert_ne!(first.attr("cy").await?, before, "the plate grew over the first hole");
        page.press("Save this part").await?;
        page.sees("[data-parts]", "tall riser").await?;
        page.at("//input[@placeholder='find a part']").await?.send_keys("tall").await?;
        page.misses("[data-part='weld-on riser']").await?;
        // The table is a press away, with the same parts.
        page.press("Show as a table").await?;
        page.sees("table[data-parts]", "holes 5″, 6″").await?;
        page.press("Show as drawings").await?;
        page.press("Retire tall riser").await?;
        page.misses("[data-part='tall riser']").await?;
        page.press("Show retired parts").await?;
        page.sees("[data-parts]", "tall riser retired").await?;
        // Taken into a job it is one more to try.
        page.press("Bring back tall riser").await?;
        page.at("//*[@aria-label='Retire tall riser']").await?;
        page.go(&format!("{}/jobs/lookout-truck-12/bracket", shop.address)).await?;
        page.sees(ANSWER, "three-hole drop").await?;
        page.pick("//button[contains(.,'From the library')]").await?;
        // Held against this axle first: everything is told as if it were tried, and nothing is kept.
        let before = shop.job("lookout-truck-12").await["revision"].clone();
        page.press("Try on tall riser").await?;
        page.sees("[data-held]", "Trying on this axle, not added to the job").await?;
        page.sees("[data-options]", "tall riser").await?;
        assert_eq!(shop.job("lookout-truck-12").await["revision"], before);
        page.press("Take it away").await?;
        page.misses("[data-held]").await?;
        page.press("Add tall riser").await?;
        page.sees("[data-options]", "").await?;
        page.saved().await?;
        Ok(())
    })
    .await;
}

/// A Y-link that sits to one side and has turned its pinion: the legs are told one aim after the other, and a
/// conversion with everything done is right.
#[tokio::test(flavor = "multi_thread")]
async fn a_y_link_is_set_leg_by_leg_until_it_is_right() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/relay-wagon-5/bracket", shop.address)).await?;
        page.sees(ANSWER, "OK so far, 1 left to check").await?;
        page.misses("[data-legs]").await?;
        page.enter("Now, at road", "9.5").await?;
        page.saved().await?;
        // 5.5° further down than the 4.0° before: both legs alike bring it back.
        page.sees("[data-legs]", "Pinion 5.5° up, back to its old angle").await?;
        page.sees("[data-legs]", "right leg of the Y-link").await?;
        page.sees("[data-checks]", "pinion at road: fails").await?;
        page.enter("Now, at road", "4.2").await?;
        page.saved().await?;
        page.misses("[data-legs]").await?;
        // Two readings that are 20 mm apart: 10 mm too far left, and the legs go opposite ways.
        page.go(&format!("{}/jobs/relay-wagon-5/tape", shop.address)).await?;
        for reading in 1..=3 {
            page.enter(&format!("left reading {reading}"), "198").await?;
            page.enter(&format!("right reading {reading}"), "178").await?;
        }
        page.saved().await?;
        page.go(&format!("{}/jobs/relay-wagon-5/bracket", shop.address)).await?;
        let reported = page.sees("[data-legs]", "pinion angle unchanged").await?;
        assert!(
            reported.contains("longer") && reported.contains("shorter") && reported.contains("turn"),
            "{reported}"
        );
        page.sees("[data-checks]", "adjust the legs as shown").await?;
        let kept = shop.job("relay-wagon-5").await;
        assert_eq!(kept["document"]["bracket"]["conversion"]["pinion"][0]["after"]["text"], "4.2");
        Ok(())
    })
    .await;
}

/// A torque is typed in the unit of its sheet, and kept as typed; a comma that can be read both ways is asked
/// about at its field.
#[tokio::test(flavor = "multi_thread")]
async fn a_torque_and_a_weight_are_typed_with_their_unit() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/bracket", shop.address)).await?;
        page.enter("Torque from the part's instructions", "130 lb-ft").await?;
        page.saved().await?;
        let kept = shop.job("lookout-truck-7").await;
        assert_eq!(kept["document"]["bracket"]["bolt"]["torque"], "130 lb-ft");
        // A nut that looks alike stops the work; the bolt's own does not.
        page.enter("Track bar bolt thread", "9/16-18").await?;
        page.enter("Nut thread", "9/16-12").await?;
        page.sees("[data-bolt]", "nut: fails").await?;
        page.sees("[data-bolt]", "Stop, get the matching nut").await?;
        page.enter("Nut thread", "9/16-18").await?;
        page.sees("[data-bolt]", "nut: good").await?;
        page.go(&format!("{}/jobs/lookout-truck-7/rig", shop.address)).await?;
        page.enter("Or the other axle alone", "2,600 lb").await?;
        page.sees("main", "1.25 or 1250?").await?;
        Ok(())
    })
    .await;
}
