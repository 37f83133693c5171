//! Walking round the drawing: by dragging, by keys, by the small drawings; from any side it is what the stick says, and
//! turning asks the server for nothing.

use std::time::{Duration, Instant};

use derecho_e2e::{DESK, PHONE, Page, Shop, in_browser};
use thirtyfour::Key;
use thirtyfour::error::WebDriverResult;

/// From where it is looked at: turn and tilt in degrees.
async fn look(page: &Page) -> WebDriverResult<(f64, f64)> {
    let walk = page.at("//*[@data-walk]").await?;
    let degrees = |text: Option<String>| text.and_then(|text| text.parse().ok()).unwrap_or(f64::NAN);
    Ok((degrees(walk.attr("data-turn").await?), degrees(walk.attr("data-tilt").await?)))
}

#[tokio::test(flavor = "multi_thread")]
async fn the_drawing_is_walked_round_and_asks_the_server_for_nothing() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/cycle", shop.address)).await?;
        page.at("//*[@data-map]").await?;
        page.at("//*[@data-rule]").await?;
        // A press on a small drawing: the rule is lifted off, since its scale is the elevation's.
        page.pick("//*[@data-view='quarter']").await?;
        assert_eq!(look(&page).await?, (38.0, 16.0));
        page.misses("[data-rule]").await?;
        page.sees("[data-letter=left]", "LEFT driver").await?;
        page.at("//*[@data-near]").await?;
        page.sees("[data-names]", "closest:").await?;
        let asked = page.asked_in_all().await?;
        // By keys on the drawing, 7.5° each.
        let walk = page.at("//*[@data-walk]").await?;
        walk.send_keys(Key::Right + "").await?;
        assert_eq!(look(&page).await?, (45.5, 16.0));
        walk.send_keys(Key::Down + "").await?;
        assert_eq!(look(&page).await?, (45.5, 8.5));
        // By dragging: to the left walks on to the vehicle's left, down lies under it.
        let place = walk.rect().await?;
        let (x, y) = ((place.x + place.width / 2.0) as i64, (place.y + place.height / 2.0) as i64);
        page.driver
            .action_chain()
            .move_to(x, y)
            .click_and_hold()
            .move_to(x - 60, y + 40)
            .move_to(x - 120, y + 120)
            .release()
            .perform()
            .await?;
        // 120 px each way at 0.35° a pixel, less the few it takes to be a drag.
        let deadline = Instant::now() + Duration::from_secs(8);
        let (turn, tilt) = loop {
            let (turn, tilt) = look(&page).await?;
            if turn > 80.0 && tilt < -25.0 {
                break (turn, tilt);
            }
            assert!(Instant::now() < deadline, "{turn} {tilt}");
            tokio::task::yield_now().await;
        };
        // The stick goes through it: the drawing moves, the look stays.
        let drawing = page.at("//*[@data-walk]//*[name()='svg']").await?;
        let before = drawing.inner_html().await?;
        page.key("]").await?;
        let after = drawing.inner_html().await?;
        assert_ne!(before, after, "a higher wheel is drawn higher");
        assert_eq!(look(&page).await?, (turn, tilt));
        assert_eq!(page.asked_in_all().await?, asked, "turning asks the server for nothing");
        // Home again: the plain elevation, with its rule.
        page.pick("//*[@data-view='rear']").await?;
        page.misses("[data-walk]").await?;
        page.at("//*[@data-rule]").await?;
        page.press("View from the rear, switch").await?;
        page.press("View from the front, switch").await?;
        assert_eq!(page.complaints().await?, Vec::<String>::new());
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn every_stage_with_a_drawing_can_be_walked_round_also_with_next_to_nothing_measured() {
    let shop = Shop::open();
    let bare = serde_json::json!({ "format": "derecho-job", "version": 7, "title": "Hose truck 3",
        "rig": { "end": "front", "frame_eye_side": "left" } });
    let bare = shop.make(&bare).await;
    in_browser(DESK, |page| async move {
        for job in ["lookout-truck-7", &bare] {
            for stage in ["rig", "tape", "bar", "bracket", "prove"] {
                page.go(&format!("{}/jobs/{job}/{stage}", shop.address)).await?;
                page.at("//*[@data-answer][not(contains(., '…'))]").await?;
                page.pick("//*[@data-view='below']").await?;
                assert_eq!(look(&page).await?, (8.0, -62.0), "{job}, {stage}");
                assert_eq!(page.grave_faults().await?, Vec::<String>::new(), "{job}, {stage}");
            }
        }
        // The sway bar with its arms and links stands in it where the stage is about them.
        page.go(&format!("{}/jobs/lookout-truck-7/sway", shop.address)).await?;
        page.pick("//*[@data-view='quarter']").await?;
        page.sees("[data-names]", "sway bar").await?;
        page.sees("[data-names]", "sway link").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn on_a_phone_the_named_views_are_words_to_press() {
    let shop = Shop::open();
    in_browser(PHONE, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/bar", shop.address)).await?;
        page.pick("//*[@data-view='side']").await?;
        assert_eq!(look(&page).await?, (90.0, 0.0));
        page.sees("[data-letter=front]", "FRONT").await?;
        assert_eq!(page.grave_faults().await?, Vec::<String>::new());
        Ok(())
    })
    .await;
}
