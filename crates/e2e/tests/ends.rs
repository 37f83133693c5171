//! Ends of the road: jobs that used to be stuck, closed too early or not to be closed at all, carried to their record by
//! what the screens offer.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_e2e::{DESK, PHONE, Shop, in_browser};
use serde_json::{Value, json};

const ANSWER: &str = "[data-answer]";
const CLOSE: &str = "//button[contains(., 'Close this job')]";
/// Four readings a side from the frame to the hub, in the unit of the job.
fn sheet(id: &str, unit: &str, [left, right]: [&str; 2], after: &str) -> Value {
    let side = |reads: &str| {
        let entry = json!({ "text": reads, "unit": unit });
        json!([entry, entry, entry, entry])
    };
    let mut sheet = json!({ "id": id, "kind": "centring", "method": "frame_to_hub", "sense": "outward", "unit": unit,
        "left": side(left), "right": side(right),
        "conditions": { "on_its_weight": true, "wheels_straight": true, "pressures_equal": true } });
    if !after.is_empty() {
        sheet["after"] = json!(after);
    }
    sheet
}

/// A fixed bar of 32 9/16 in where 32 5/8 centre: its plan says that it leaves the axle 1/16 in to the left, and there it
/// lands. Nobody is asked to measure again for ever.
#[tokio::test(flavor = "multi_thread")]
async fn a_fixed_bar_that_lands_a_sixteenth_off_as_planned_is_closed() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let inches = |text: &str| json!({ "text": text, "unit": "in" });
        let id = shop
            .make(&json!({ "format": "derecho-job", "version": 7, "title": "Ladder truck 7", "to_do": ["centre_axle"],
                "rig": { "end": "front", "steering_side": "left", "frame_eye_side": "left", "sheet_unit": "in",
                    "axle_location": "leaf_springs", "bump": inches("3"), "droop": inches("4") },
                "sheets": [sheet("s1", "in", ["6 5/8", "5 3/8"], "")],
                "bracket": { "bars": [{ "id": "plain", "name": "plain bar", "adjuster": "fixed",
                    "made_min": inches("32 9/16"), "made_max": inches("32 9/16") }] },
                "setups": {
                    "found": { "bar": { "length": inches("32"), "frame_eye_height": inches("24"),
                        "axle_eye_height": inches("24") }, "adjuster": { "kind": "fixed" } },
                    "plans": { "chosen": { "bar": "plain" } },
                } }))
            .await;
        shop.work_done(&id).await;
        page.go(&format!("{}/jobs/{id}/bar", shop.address)).await?;
        page.enter("Length as set, eye to eye", "32 9/16").await?;
        page.saved().await?;
        page.press("Measure both sides again (Prove)").await?;
        page.press("Start the after measurements").await?;
        page.saved().await?;
        let (left, right) = ("6 1/16", "5 15/16");
        page.type_readings([left, right, left, right, left, right, left, right]).await?;
        page.sees(ANSWER, "Proved: centered within 1/8″").await?;
        page.sees("[data-status=proved]", "Proved").await?;
        page.closed("felt good on the way back").await?;
        let job = shop.job(&id).await;
        assert_eq!(job["results"]["status"]["state"], "closed");
        assert_eq!(job["results"]["prove"]["verdict"], "can_settle");
        Ok(())
    })
    .await;
}

/// The axle bracket was welded an inch low. The axle comes 3.6 mm too far to the left; the screen suspects the bracket, a
/// finder on the bar says it is lower and not to one side, the person confirms it, sets the bar to what that wants, and the
/// job is proved.
#[tokio::test(flavor = "multi_thread")]
async fn a_bracket_an_inch_off_is_found_confirmed_corrected_and_proved() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let mm = |text: &str| json!({ "text": text, "unit": "mm" });
        let id = shop
            .make(&json!({ "format": "derecho-job", "version": 7, "title": "Ladder truck 6 rear",
                "to_do": ["centre_axle"],
                "rig": { "sheet_unit": "mm", "end": "rear", "steering_side": "left", "frame_eye_side": "left",
                    "axle_location": "four_arms", "bump": mm("90"), "droop": mm("110"), "tolerance": mm("3") },
                "bracket": { "brackets": [{ "id": "riser", "name": "riser", "end": "axle", "attachment": "weld_on",
                    "holes": [{ "id": "low", "name": "low", "up": mm("100") }] }] },
                "sheets": [sheet("s1", "mm", ["158", "158"], ""), sheet("s2", "mm", ["161.5", "154.5"], "r1")],
                "setups": {
                    "found": {
                        "bar": { "length": mm("905"), "frame_eye_height": mm("610"), "axle_eye_height": mm("400"),
                            "frame_eye_from_centre": mm("400") },
                        "adjuster": { "kind": "one_end", "first": { "thread": "M24x2", "hand": "right",
                            "engagement": mm("45"), "shank": mm("90"), "tapped_depth": mm("90"), "seat": "steel" } },
                    },
                    "plans": { "chosen": { "axle": { "bracket": "riser", "hole": "low" } } },
                    "rounds": [{ "id": "r1", "length": mm("887.1"), "wanted_mm": 887.144,
                        "moved": [{ "end": "axle", "by_mm": [0.0, 0.0, 100.0],
                            "to": { "bracket": "riser", "hole": "low" } }] }],
                } }))
            .await;
        shop.work_done(&id).await;
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.sees("[data-next-step=prove]", "Measure where the eye really is").await?;
        page.sees("[data-misplaced=axle]", "An angle finder on the bar would then read 8.").await?;
        page.pick("//button[contains(., 'Checks')]").await?;
        page.enter("Bar's angle now", "8.8").await?;
        page.saved().await?;
        page.pick("//button[contains(., 'Measured')]").await?;
        page.sees("[data-misplaced=axle]", "lower than planned").await?;
        page.sees("[data-misplaced=axle]", "The bar angle you read fits it").await?;
        page.press("I measured it: it is there").await?;
        page.saved().await?;
        let job = shop.until(&id, |job| job["document"]["setups"]["rounds"][0]["cause"].is_object()).await;
        let round = &job["document"]["setups"]["rounds"][0];
        assert_eq!(round["cause"]["what"], "eye_elsewhere");
        let up = &round["moved"][0]["off"]["up"];
        let text: f64 = up["text"].as_str().unwrap().parse().unwrap();
        assert!((text + 25.4).abs() <= 2.0, "{up}");
        page.misses("[data-misplaced]").await?;
        page.sees("[data-next-step=bar]", "Set the bar").await?;
        page.pick("//*[@data-next-step]").await?;
        page.sees(ANSWER, "Make the bar 1/8″ longer").await?;
        page.enter("Length as set, eye to eye", "890.6").await?;
        page.saved().await?;
        page.press("Measure both sides again (Prove)").await?;
        page.press("Start the after measurements").await?;
        page.saved().await?;
        page.type_readings(["158", "158", "158", "158", "158", "158", "158", "158"]).await?;
        page.sees(ANSWER, "Proved: centered within 1/8″").await?;
        let job = shop.job(&id).await;
        assert_eq!(job["results"]["prove"]["movement"]["agrees"], true);
        assert_eq!(job["results"]["status"]["state"], "proved");
        Ok(())
    })
    .await;
}

/// Both sides read alike from the start: saying so is the proof, and nothing is asked of bolts nobody touched.
#[tokio::test(flavor = "multi_thread")]
async fn a_job_in_which_nothing_had_to_be_changed_is_closed() {
    let shop = Shop::open();
    in_browser(PHONE, |page| async move {
        let id = shop
            .make(&json!({ "format": "derecho-job", "version": 7, "title": "Mule 3", "to_do": ["centre_axle"],
                "rig": { "end": "rear", "steering_side": "left", "frame_eye_side": "right", "sheet_unit": "mm",
                    "axle_location": "leaf_springs" },
                "sheets": [sheet("s1", "mm", ["150", "150"], "")],
                "setups": { "found": { "bar": { "length": "800 mm", "frame_eye_height": "600 mm",
                    "axle_eye_height": "600 mm" } } } }))
            .await;
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.sees(ANSWER, "Centered as found, within 1/8″: nothing had to be set").await?;
        page.sees("[data-status=proved]", "Proved, nothing left open").await?;
        page.press("Close this job").await?;
        page.sees("[data-status=closed]", "Closed").await?;
        let job = shop.job(&id).await;
        assert_eq!(job["document"]["settled"]["results"]["prove"]["verdict"], "can_settle");
        Ok(())
    })
    .await;
}

/// Version 2 closed a job with one reason for everything. It opens as it was closed, the reason is read, marked for what it
/// was, and opened again it closes nothing: what stands open now wants its own.
#[tokio::test(flavor = "multi_thread")]
async fn a_version_2_job_closed_although_keeps_its_reason_and_closes_nothing_by_it() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let mut older: Value =
            serde_json::from_str(include_str!("../../job/tests/version_2/ridge-truck-1.derecho.json"))
                .unwrap();
        older["title"] = json!("Ridge truck 11");
        older["proof"]["although"] = json!("the owner takes it as it is");
        let id = shop.make(&older).await;
        let kept = shop.job(&id).await;
        let accepted = &kept["document"]["proof"]["acceptances"][0];
        assert_eq!(accepted["key"], "all_that_was_open");
        assert_eq!((&accepted["by"], &accepted["at"]), (&json!("R. Holt"), &older["settled"]["at"]));
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.pick("//button[contains(., 'Close job')]").await?;
        page.sees("[data-carried-over]", "the owner takes it as it is (R. Holt)").await?;
        // A complaint that came back is open again, whatever was said for everything.
        shop.change(&id, |document| {
            document["complaints"][0]["after"] = json!("same");
            document.as_object_mut().unwrap().remove("settled");
        })
        .await;
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.at(&format!("{CLOSE}[@disabled]")).await?;
        page.go(&format!("{}/log", shop.address)).await?;
        page.sees("[data-log]", "The reason was given once for all that was open then").await?;
        Ok(())
    })
    .await;
}

/// A truck whose sway bar alone is worked on, of which nothing but the bar's kind is known.
fn sway_truck(title: &str, kind: &str) -> Value {
    json!({ "format": "derecho-job", "version": 7, "title": title, "to_do": ["choose_sway_bar"],
        "rig": { "end": "front", "steering_side": "left", "sheet_unit": "in", "axle_location": "radius_arms" },
        "sway": { "kind": kind } })
}

/// Keys of the steps, in their order, as the server gives them.
async fn steps_of(shop: &Shop, id: &str) -> Vec<String> {
    let document = shop.job(id).await["document"].clone();
    let call = reqwest::Client::new().post(format!("{}/api/v1/compute/work", shop.address)).json(&document);
    let work: Value = call.send().await.unwrap().json().await.unwrap();
    work["steps"].as_array().unwrap().iter().map(|step| step["key"].as_str().unwrap().to_owned()).collect()
}

/// A pin disconnect from its parts to the sheet one hands over: a nut of another pitch stops its step, the right one goes
/// on; it is not proved before it is on record, and then closed by a look, for nobody taped the sway bar.
#[tokio::test(flavor = "multi_thread")]
async fn a_pin_disconnect_goes_in_and_has_its_record() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let id = shop.make(&sway_truck("Saddle truck 6", "one_piece")).await;
        page.go(&format!("{}/jobs/{id}/sway", shop.address)).await?;
        page.pick("//button[contains(., 'Disconnect')]").await?;
        page.pick("//fieldset[contains(., 'The disconnect gets installed in this job')]//button[contains(., 'yes')]")
            .await?;
        page.saved().await?;
        page.enter("Thread of the stud", "1/2-20").await?;
        page.enter("Thread of the nut", "1/2-13").await?;
        page.saved().await?;
        page.go(&format!("{}/jobs/{id}/bolt_up", shop.address)).await?;
        page.sees("main", "a 1/2-13 nut does not fit a 1/2-20 bolt").await?;
        shop.change(&id, |document| document["sway"]["pins"]["nut_thread"] = json!("1/2-20")).await;
        shop.work_done(&id).await;
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.sees(ANSWER, "not installed yet").await?;
        page.pick("//button[contains(., 'Record')]").await?;
        page.press("It is installed").await?;
        page.saved().await?;
        page.sees(ANSWER, "not measured over the travel").await?;
        page.closed("as found on the road").await?;
        let job = shop.job(&id).await;
        assert_eq!(job["document"]["setups"]["rounds"][0]["parts"], json!(["disconnect"]));
        page.has_its_record(&shop).await?;
        // The log has the same sheet with the line that says it was closed.
        page.go(&format!("{}/log", shop.address)).await?;
        page.at(&format!("//a[@data-record='{id}']")).await?;
        Ok(())
    })
    .await;
}

/// A splined bar is planned by one press, its steps come in the order in which the parts go together, and it is closed with
/// its record.
#[tokio::test(flavor = "multi_thread")]
async fn a_splined_bar_goes_together_in_its_order_and_has_its_record() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let id = shop.make(&sway_truck("Saddle truck 8", "splined")).await;
        page.go(&format!("{}/jobs/{id}/bolt_up", shop.address)).await?;
        page.pick("//button[contains(., 'Parts')]").await?;
        page.pick(
            "//fieldset[contains(., 'The sway bar itself gets installed')]//button[contains(., 'yes')]",
        )
        .await?;
        page.saved().await?;
        page.sees("[data-installs]", "the sway bar").await?;
        let steps = steps_of(&shop, &id).await;
        let wanted = [
            "corners",
            "stands",
            "sway/links-off",
            "sway/old-off",
            "sway/mounts-on",
            "sway/bushings",
            "sway/bar-through",
            "sway/stick-out",
            "sway/mounts",
            "sway/arms-on",
            "sway/links-by-hand",
            "on-its-weight",
            "sway/arms-alike",
            "sway/pinch",
            "sway/retaining",
            "sway/links-tight",
            "witness",
            "put-back",
        ];
        assert_eq!(steps, wanted);
        page.pick("//button[contains(., 'Steps')]").await?;
        page.sees("main", "Install both sway bar mounts, bolts loose").await?;
        shop.work_done(&id).await;
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.pick("//button[contains(., 'Record')]").await?;
        page.press("It is installed").await?;
        page.saved().await?;
        page.closed("as found on the road").await?;
        page.has_its_record(&shop).await
    })
    .await;
}

/// No bar was there. The first gap is of the holes as they are, the riser's is 4 in higher: nothing is cut before the gap is
/// measured there, and then the bar is 27 3/4 + 1 3/4 = 29 1/2 in everywhere, to its record.
#[tokio::test(flavor = "multi_thread")]
async fn a_built_bar_is_cut_to_the_gap_in_its_planned_holes_and_has_its_record() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let inches = |text: &str| json!({ "text": text, "unit": "in" });
        let document = json!({ "format": "derecho-job", "version": 7, "title": "Sled hauler 5", "to_do": ["centre_axle"],
            "rig": { "end": "front", "steering_side": "left", "frame_eye_side": "left", "sheet_unit": "in",
                "axle_location": "leaf_springs", "bump": inches("3"), "droop": inches("4") },
            "bracket": { "builder": { "gap": inches("28 1/4"), "frame_shell": inches("1 3/4"),
                    "axle_shell": inches("1 3/4"), "stock": inches("1 1/4") },
                "brackets": [{ "id": "riser", "name": "riser", "end": "axle", "attachment": "bolt_on",
                    "holes": [{ "id": "four", "name": "4", "up": inches("4") }] }] },
            "setups": { "found": { "bar": { "frame_eye_height": inches("24"), "axle_eye_height": inches("18") } },
                "plans": { "chosen": { "axle": { "bracket": "riser", "hole": "four" } } } } });
        let id = shop.make(&document).await;
        page.go(&format!("{}/jobs/{id}/bolt_up", shop.address)).await?;
        page.at("//*[@data-step='bar/cut'][@data-state='stopped']").await?;
        page.go(&format!("{}/jobs/{id}/bar", shop.address)).await?;
        page.pick("//button[contains(., 'Other bars')]").await?;
        page.sees("[data-built]", "about 29 15/32″ eye to eye in the planned holes").await?;
        page.enter("Gap in the planned holes, brackets on", "27 3/4").await?;
        page.sees("[data-built]", "Cut 28 9/32″ of stock; the bar will be 29 1/2″").await?;
        page.sees(ANSWER, "Build the bar 29 1/2″ eye to eye").await?;
        page.saved().await?;
        page.go(&format!("{}/jobs/{id}/bolt_up", shop.address)).await?;
        page.at("//*[@data-step='bar/cut'][@data-state='waits']").await?;
        shop.work_done(&id).await;
        page.proved_and_closed(&shop, &id, "29 1/2").await
    })
    .await;
}

/// Three arms and a track bar become a Y-link: Bar says that the bar goes, the pinion is measured before anything is
/// undone, and it is proved once it is on record and both sides are measured after it.
#[tokio::test(flavor = "multi_thread")]
async fn a_y_link_goes_in_for_the_track_bar_and_has_its_record() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let id = "relay-wagon-5";
        shop.change(id, |document| {
            document["to_do"] = json!(["convert_to_y_link"]);
            document["setups"]["plans"] = json!({});
        })
        .await;
        page.go(&format!("{}/jobs/{id}/bar", shop.address)).await?;
        page.sees(ANSWER, "No track bar to set").await?;
        page.go(&format!("{}/jobs/{id}/bolt_up", shop.address)).await?;
        let steps = steps_of(&shop, id).await;
        let place = |key: &str| {
            steps.iter().position(|step| step == key).unwrap_or_else(|| panic!("{key}: {steps:?}"))
        };
        assert!(
            place("legs/pinion-before") < place("stands")
                && place("legs/bar-out") < place("legs/brackets-on")
        );
        shop.work_done(id).await;
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.pick("//button[contains(., 'Record')]").await?;
        page.press("It is installed").await?;
        page.saved().await?;
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.press("Start the after measurements").await?;
        page.press("on its wheels").await?;
        page.type_readings(["188", "188", "188", "188", "188", "188", "188", "188"]).await?;
        page.sees(ANSWER, "Proved: centered").await?;
        shop.change(id, |document| {
            for complaint in document["complaints"].as_array_mut().into_iter().flatten() {
                complaint["after"] = json!("gone");
            }
        })
        .await;
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.closed("as found on the road").await?;
        page.has_its_record(&shop).await
    })
    .await;
}
