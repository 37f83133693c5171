//! Stage Sway as a person uses it, from end to end: real browser, real server, its database behind.

use derecho_e2e::{DESK, PHONE, Page, Shop, in_browser};
use serde_json::json;
use thirtyfour::Key;
use thirtyfour::error::WebDriverResult;

const ANSWER: &str = "[data-answer]";
/// Where the left link's ends are drawn in the end view: x and y of both.
async fn drawn(page: &Page, rod: usize) -> WebDriverResult<[f64; 4]> {
    let line = page.at(&format!("//*[@data-rod-drawn='{rod}']/*[last()]")).await?;
    let mut ends = [0.0; 4];
    for (end, name) in ends.iter_mut().zip(["x1", "y1", "x2", "y2"]) {
        *end = line.attr(name).await?.and_then(|text| text.parse().ok()).unwrap_or(f64::NAN);
    }
    Ok(ends)
}

/// Waits until the stored job holds this text at a place of its document.
async fn kept(page: &Page, shop: &Shop, pointer: &str, text: &str) -> WebDriverResult<()> {
    let id = page.job_id().await?;
    let at = format!("/document{pointer}/text");
    shop.until(&id, |job| job.pointer(&at).is_some_and(|kept| kept == text)).await;
    Ok(())
}

/// Types into the field of a place in the document and leaves it with Enter.
async fn type_at(page: &Page, pointer: &str, text: &str) -> WebDriverResult<()> {
    let field = page.at(&format!("//*[@data-tape='{pointer}']")).await?;
    field.send_keys(Key::Control + "a").await?;
    field.send_keys(format!("{text}{}", Key::Enter.value())).await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_link_over_centre_is_reported_and_a_longer_one_works() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/tape", shop.address)).await?;
        page.sees("nav", "don't work: 6″").await?;
        page.key("6").await?;
        page.sees(ANSWER, "goes over center").await?;
        page.sees("[data-window]", "too short").await?;
        page.at("//*[@data-link-rule]//*[@data-window]").await?;
        page.at("//*[@data-arm='left']").await?;
        page.at("//*[@data-arm='right']").await?;
        // The worst pose is one press away, and the stick goes there.
        page.pick("//*[@data-worst]").await?;
        page.at("//*[@data-travel][not(contains(., 'ride height'))]").await?;
        page.sees("[data-arm]", "out of reach").await?;
        page.enter("Sway link length, eye to eye", "8 1/4").await?;
        page.saved().await?;
        page.sees(ANSWER, "A 8 1/4″ sway link goes from").await?;
        page.sees("[data-window]", "yours is in range").await?;
        page.sees("nav", "links 8 1/4″").await?;
        let id = page.job_id().await?;
        let job = shop.job(&id).await;
        assert_eq!(job["document"]["sway"]["link"]["text"], "8 1/4");
        let stage = &job["results"]["stages"][5];
        assert_eq!((&stage["stage"], &stage["progress"]), (&"sway".into(), &"settled".into()));
        // In millimetres the same link stands as 8.25 × 25.4, to a tenth as on its rule and in the strip.
        page.key("u").await?;
        page.sees(ANSWER, "A 209.6 mm sway link goes from").await?;
        page.sees("[data-link-rule]", "link now 209.6").await?;
        page.sees("nav", "links 209.6").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_hole_of_the_arm_is_chosen_for_a_load_on_the_roof() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/supply-truck-9/sway", shop.address)).await?;
        page.sees("[data-arm-hole='1']", "the hole in use").await?;
        page.sees("[data-suggests]", "a high load needs the least body roll").await?;
        let road = |text: String| -> Option<f64> {
            let (before, _) = text.split_once("° per g")?;
            before.rsplit(' ').next()?.parse().ok()
        };
        let before = road(page.sees("[data-arm-hole='1']", "per g").await?);
        page.pick("//*[@data-arm-hole='0']").await?;
        page.saved().await?;
        let after = road(page.sees("[data-arm-hole='0']", "the hole in use").await?);
        // A shorter arm is a stiffer bar: less roll on the road.
        assert!(before.is_some() && after.is_some() && after < before, "{before:?} {after:?}");
        page.sees("[data-arm-hole='1']", "% softer than the hole in use").await?;
        let id = page.job_id().await?;
        assert_eq!(shop.job(&id).await["document"]["sway"]["hole"], "hole-1");
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn pins_and_a_soft_torsion_bar_are_weighed_road_against_trail() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/relay-wagon-5/sway", shop.address)).await?;
        // Picked by its point, as the list below picks it too.
        page.pick("//*[@data-point='two-rate bar']").await?;
        page.sees("[data-choice='two-rate bar']", "a lever or air cylinder").await?;
        page.pick("//*[@data-choice='pins']").await?;
        let pins = page.sees("[data-choice='pins']", "level ground or a helper").await?;
        page.pick("//*[starts-with(@data-choice,'soft torsion bar')]").await?;
        let soft = page.sees("[data-choice^='soft torsion bar']", " arms").await?;
        // "5.3° (3.5 to 7.3) per g on the road; 18° of twist …"
        let figures = |text: &str| -> Option<(f64, f64)> {
            let (road, rest) = text.split_once(") per g on the road; ")?;
            let (trail, _) = rest.split_once('°')?;
            let (road, _) = road.rsplit_once('(')?;
            let road = road.trim().trim_end_matches('°').split_whitespace().last()?;
            Some((road.rsplit(|c: char| c.is_alphabetic()).next()?.parse().ok()?, trail.parse().ok()?))
        };
        // Pins hold better on the road and let go altogether on the trail; the soft bar is
        // between the two and none of it has to be unbolted.
        let (pins, soft) =
            (figures(&pins).expect("two typical values"), figures(&soft).expect("two typical values"));
        assert!(pins.0 < soft.0 && pins.1 > soft.1, "{pins:?} {soft:?}");
        page.sees("[aria-label=Cautions]", "Never drive on the road with the sway bar disconnected").await?;
        // The bar it speaks of was chosen from those that can be had, for a reason in numbers.
        page.sees("[data-splined]", "Crawling: allow 7.0° of body roll per g").await?;
        page.press("All bars and arms you can get (15)").await?;
        page.sees("[data-splined]", "too short for the frame").await?;
        // Another use, another bar: fast open ground wants it to roll less.
        page.key("1").await?;
        page.press("Fast, open ground").await?;
        page.saved().await?;
        page.key("6").await?;
        page.sees("[data-splined]", "Fast open ground: allow 4.0° of body roll per g").await?;
        page.key("u").await?;
        page.sees("[data-splined]", "N·m/°").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_stowed_link_is_shown_and_its_bolts_and_slope_are_judged() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/sway", shop.address)).await?;
        page.pick("//*[@data-stow]").await?;
        page.sees("[data-stow-says]", "Stowed, it comes closest to the left tire").await?;
        page.at("//*[@data-arm='left']//*[@data-stud]").await?;
        page.pick("//*[@data-stow]").await?;
        page.misses("[data-stow-says]").await?;
        // Hung lower, the rail stands beside the eye of the arm.
        type_at(&page, "/sway/room/rail_underside", "23 1/2").await?;
        page.sees("[data-checks]", "the left frame rail is in the way; flip it").await?;
        page.sees("[data-cut='inner fender']", "Cut the inner fender from").await?;
        page.sees("[data-rod]", "cut 4 15/16″").await?;
        // Turned round, the bolt comes out; on flatter ground the pins go in.
        page.pick("(//button[normalize-space()='outward'])[2]").await?;
        page.enter("Side slope of the ground", "0.5").await?;
        page.saved().await?;
        page.sees("[data-checks]", "upper link bolt comes back out: good").await?;
        page.sees("[data-checks]", "pins go in on this slope: good").await?;
        let id = page.job_id().await?;
        assert_eq!(shop.job(&id).await["document"]["sway"]["bolts"][1]["way"], "outward");
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn weights_are_typed_in_rig_and_roll_the_vehicle_in_sway() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/supply-truck-9/rig", shop.address)).await?;
        page.sees("[data-vehicle-assumed]", "axle weight 397 lb").await?;
        page.fill("Weight of the axle itself", "heavy").await?;
        page.sees("[role=alert]", "Not a weight").await?;
        page.enter("Weight of the axle itself", "430 lb").await?;
        page.enter("Center of gravity above the floor", "36").await?;
        page.saved().await?;
        let id = page.job_id().await?;
        let document = &shop.job(&id).await["document"];
        assert_eq!(document["vehicle"]["unsprung_weight"], "430 lb");
        assert_eq!(document["vehicle"]["centre_of_gravity"]["text"], "36");
        page.key("6").await?;
        // 2700 and 2500 lb less twice 430.
        page.sees("[data-weighs]", "4340 lb sprung, 260 lb on the roof at 80″").await?;
        page.key("u").await?;
        page.sees("[data-weighs]", "1969 kg sprung").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn arms_and_links_follow_the_stick_without_the_server() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/water-tender-3/sway", shop.address)).await?;
        page.sees("[data-here]", "lb-ft/°").await?;
        let (still, bar) = (drawn(&page, 3).await?, drawn(&page, 0).await?);
        let calls = page.asked_in_all().await?;
        for _ in 0..16 {
            page.key("]").await?;
        }
        page.sees("[data-travel]", "2″ bump").await?;
        // The bar is on the axle: in bump the body comes down, the link's upper end with it, and the link
        // turns the arm down about the bar, which stays where the axle is.
        let bumped = drawn(&page, 3).await?;
        let moved = [bumped[1] - still[1], bumped[3] - still[3]];
        assert!(moved[1] > 8.0 && (moved[0] - moved[1]).abs() < 2.0, "{still:?} {bumped:?}");
        let bar_now = drawn(&page, 0).await?;
        assert!((bar_now[1] - bar[1]).abs() < 1.0, "{bar:?} {bar_now:?}");
        // Right and left move alike in heave.
        let right = drawn(&page, 4).await?;
        assert!((right[3] - bumped[3]).abs() < 3.0, "{right:?} {bumped:?}");
        page.key(&Key::Home.value().to_string()).await?;
        // Cross-axled the two links part.
        page.press("crossed up").await?;
        page.key(" ").await?;
        page.sees("[data-here]", "twisted").await?;
        // It goes round by itself: sooner or later the two are apart.
        let deadline = std::time::Instant::now() + std::time::Duration::from_secs(10);
        loop {
            let (left, right) = (drawn(&page, 3).await?, drawn(&page, 4).await?);
            if (left[1] - right[1]).abs() > 2.0 {
                break;
            }
            assert!(std::time::Instant::now() < deadline, "{left:?} {right:?}");
        }
        page.key(" ").await?;
        let after = page.asked_in_all().await?;
        assert_eq!(after, calls, "moving the stick asks the server for nothing");
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_link_is_sized_to_each_target_in_millimetres() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/relay-van-2/sway", shop.address)).await?;
        page.at("//*[@data-answer]").await?;
        page.key("u").await?;
        page.sees("[data-target='arms level at driven height']", "mm").await?;
        page.press("in line with the lower arms").await?;
        page.saved().await?;
        page.press("at your own angle").await?;
        page.enter("Your own arm angle", "3").await?;
        page.saved().await?;
        // Three degrees nose up on an arm of 240 mm lifts its eye by 12.6 mm and takes that much more link
        // than a level one, but for the eye's way back by the cosine.
        let level = page.sees("[data-target='arms level at driven height']", "mm").await?;
        let own = page.sees("[data-target='arms at your own angle']", "mm").await?;
        let link =
            |text: &str| -> Option<f64> { text.split_once(": ")?.1.split_once(" mm")?.0.trim().parse().ok() };
        let (level, own) = (link(&level).expect("a length"), link(&own).expect("a length"));
        assert!((own - level - 12.6).abs() < 1.0, "{own} {level}");
        // The preload is on purpose, and told as corner weights.
        page.sees("[data-panel]", "on purpose. Without it the scales would show").await?;
        let id = page.job_id().await?;
        assert_eq!(shop.job(&id).await["document"]["sway"]["target"], "own_angle");
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_splined_bar_is_chosen_from_what_is_typed() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/sway", shop.address)).await?;
        page.press("Add a bar you can get").await?;
        page.saved().await?;
        // 36 × 1 in to begin with: 31 in of frame and 3 in over is 34 in.
        page.sees("[data-splined]", "sticking out 2 1/2″ each side").await?;
        page.press("Add an arm length").await?;
        page.saved().await?;
        type_at(&page, "/sway/splined/arms/0/arm", "11").await?;
        page.saved().await?;
        page.sees("[data-splined]", "11″ arms").await?;
        type_at(&page, "/sway/splined/bars/0/length", "33").await?;
        page.saved().await?;
        page.sees("[data-splined]", "None of these bars and arms works").await?;
        page.press("All bars and arms you can get (1)").await?;
        page.sees("[data-splined]", "1″ too short for the frame").await?;
        // Undo brings the longer one back.
        page.press("Undo").await?;
        page.sees("[data-splined]", "sticking out 2 1/2″ each side").await?;
        let id = page.job_id().await?;
        let bars = &shop.job(&id).await["document"]["sway"]["splined"]["bars"];
        assert_eq!(bars[0]["length"]["text"], "36");
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_shock_in_the_way_is_found_and_its_pose_is_one_press_away() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/supply-truck-9/sway", shop.address)).await?;
        page.sees("[data-room]", "clear everything measured near them").await?;
        page.press("Add a shock").await?;
        page.saved().await?;
        // Begun and not measured, nothing is called clear, and what is wanted is a press to its field.
        page.sees("[data-room] [data-goes-to='/sway/room/shocks/0/body']", "this end of the shock").await?;
        // Upright through the middle of the link, which stands 17 to 17 1/4 in out.
        for (end, height) in [("body", "32"), ("axle", "14")] {
            for (field, text) in [("height", height), ("sideways", "17 1/4"), ("fore_aft", "0")] {
                let pointer = format!("/sway/room/shocks/0/{end}/{field}");
                type_at(&page, &pointer, text).await?;
                kept(&page, &shop, &pointer, text).await?;
            }
        }
        let reported = page.sees("[data-room]", "hits the left shock at").await?;
        assert!(reported.contains("Hits or nearly"), "{reported}");
        page.pick("(//*[@data-room]//li/button)[1]").await?;
        page.at("//*[@data-travel][not(contains(., 'ride height'))]").await?;
        // The drawing shows it there, and lets go of it in another pose.
        let drawn = page.sees("[data-room-drawn]", "closest: hits").await?;
        assert!(drawn.contains("link to ") && drawn.contains(" shock"), "{drawn}");
        page.key(&String::from(Key::Home.value())).await?;
        page.misses("[data-room-drawn] [data-near]").await?;
        // Further out it is clear.
        for end in ["body", "axle"] {
            let pointer = format!("/sway/room/shocks/0/{end}/sideways");
            type_at(&page, &pointer, "22").await?;
            kept(&page, &shop, &pointer, "22").await?;
        }
        page.sees("[data-room]", "clear everything measured near them").await?;
        // A panel across the arm, which points forward from behind the axle, wants a hole.
        page.press("Add a panel").await?;
        page.saved().await?;
        type_at(&page, "/sway/room/panels/0/at", "-5").await?;
        page.saved().await?;
        page.sees("[data-cut='inner fender']", "Cut the inner fender from").await?;
        page.key("u").await?;
        page.sees("[data-cut='inner fender']", "That leaves 12.5 mm all around").await?;
        Ok(())
    })
    .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn on_a_phone_the_link_is_mended_too() {
    let shop = Shop::open();
    in_browser(PHONE, |page| async move {
        page.go(&format!("{}/jobs/lookout-truck-7/sway", shop.address)).await?;
        page.sees(ANSWER, "goes over center").await?;
        page.at("//*[@data-sway-end]").await?;
        page.at("//*[@data-link-rule]//*[@data-window]").await?;
        page.enter("Sway link length, eye to eye", "8 1/4").await?;
        page.saved().await?;
        page.sees(ANSWER, "A 8 1/4″ sway link goes from").await?;
        assert_eq!(page.grave_faults().await?, Vec::<String>::new());
        Ok(())
    })
    .await;
}

/// A rear on four arms whose sway bar clears the upper arms by a sixteenth: once the tube it runs in is typed they hit it,
/// on Cycle, and nothing is called clear there.
#[tokio::test(flavor = "multi_thread")]
async fn a_clearance_appears_once_the_tube_of_the_bar_is_typed() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let inches = |text: &str| json!({ "text": text, "unit": "in" });
        let point = |up: &str, out: &str, ahead: &str| {
            json!({ "height": inches(up), "sideways": inches(out), "fore_aft": inches(ahead) })
        };
        // Level at 29 15/16 in at full bump under a bar at 31 1/2: 1 9/16 between the middles, less 1 of arm and 1/2 of bar.
        let id = shop
            .make(&json!({ "format": "derecho-job", "version": 7, "title": "Supply truck 21 rear", "to_do": ["choose_sway_bar"],
                "rig": { "end": "rear", "axle_location": "four_arms", "sheet_unit": "in", "track": inches("62"),
                    "axle_height": inches("17"), "bump": inches("6"), "droop": inches("4") },
                "hardpoints": { "arms": {
                    "upper_left": { "diameter": inches("2"), "body": point("29 15/16", "13", "28"),
                        "axle": point("23 15/16", "13", "0") },
                    "lower_left": { "diameter": inches("2"), "body": point("20", "15", "28"),
                        "axle": point("14", "15", "0") } } },
                "sway": { "kind": "one_piece", "diameter": inches("1"), "forward": false,
                    "eye_from_centre": inches("20"), "axis": point("31 1/2", "0", "18") } }))
            .await;
        page.go(&format!("{}/jobs/{id}/cycle", shop.address)).await?;
        let before = page.at("//*[@data-answer][not(contains(., '…'))]").await?.text().await?;
        assert!(!before.contains("hits"), "{before}");
        page.go(&format!("{}/jobs/{id}/sway", shop.address)).await?;
        page.pick("//*[@data-section-name='room']").await?;
        page.pick("//button[contains(., 'Tube and mounts of the bar')]").await?;
        page.enter("Tube the bar runs in, outside diameter", "1 3/4").await?;
        page.saved().await?;
        page.go(&format!("{}/jobs/{id}/cycle", shop.address)).await?;
        page.sees("[data-answer]", "upper control arm hits the sway bar tube").await?;
        assert_eq!(shop.job(&id).await["document"]["sway"]["room"]["tube_outside"]["text"], "1 3/4");
        Ok(())
    })
    .await;
}
