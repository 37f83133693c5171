//! Closing a job: what stands in the way is listed, leads to its place, and is put right or accepted with a reason.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_e2e::{DESK, PHONE, Shop, in_browser};
use serde_json::{Value, json};

const CLOSE: &str = "//button[contains(., 'Close this job')]";

/// A job that is proved and has nothing open, changed before it is made.
async fn proved(shop: &Shop, change: impl FnOnce(&mut Value)) -> String {
    let mut document = shop.job("supply-truck-9").await["document"].clone();
    document["title"] = json!("Supply truck 19");
    change(&mut document);
    shop.make(&document).await
}

/// A complaint nobody asked again and sensors nobody looked at: each has its own reason, and then the job closes.
#[tokio::test(flavor = "multi_thread")]
async fn a_job_closes_once_each_finding_has_its_reason() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let id = proved(&shop, |document| {
            document["complaints"][0].as_object_mut().unwrap().remove("after");
            document["proof"]["looked_at"].as_object_mut().unwrap().remove("sensors");
        })
        .await;
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.sees("[data-status=proved]", "Proved, 2 things left open").await?;
        page.at(&format!("{CLOSE}[@disabled]")).await?;
        // What comes next is the worst of them, and the press goes there.
        page.sees("[data-next-step]", "Next: Finish the checks").await?;
        page.pick("//*[@data-next-step]").await?;
        page.at("//*[@data-pointer='/proof/looked_at/sensors'][not(ancestor::*[@data-state='inactive'])]")
            .await?;
        page.pick("//button[contains(., 'Close job')]").await?;
        page.reasons("agreed with the depot").await?;
        page.sees("[data-status=proved]", "Proved, nothing left open").await?;
        page.press("Close this job").await?;
        page.sees("[data-status=closed]", "Closed").await?;
        let job = shop.job(&id).await;
        assert_eq!(job["results"]["settled_stands"], true);
        let reasons = job["document"]["proof"]["acceptances"].as_array().unwrap();
        assert_eq!(reasons.len(), 2, "{reasons:?}");
        assert!(
            reasons.iter().all(|reason| reason["because"] == "agreed with the depot" && reason["said"] != "")
        );
        assert_eq!(page.complaints().await?, Vec::<String>::new());
        Ok(())
    })
    .await;
}

/// A sway link that hangs loose: nobody can write a reason for that, on the phone either. Put back, the job closes.
#[tokio::test(flavor = "multi_thread")]
async fn no_reason_closes_a_job_over_a_loose_link() {
    let shop = Shop::open();
    in_browser(PHONE, |page| async move {
        let id = proved(&shop, |document| {
            document["bolt_up"]["taken_off"] = json!([{ "name": "left sway link" }]);
        })
        .await;
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.sees("[data-next-step=bolt_up]", "Put back what is still off the vehicle").await?;
        page.pick("//button[contains(., 'Close job')]").await?;
        page.sees("[data-gate='still_off/left sway link']", "A job can't be closed over this with a reason")
            .await?;
        page.misses("[data-gate] input").await?;
        page.at(&format!("{CLOSE}[@disabled]")).await?;
        page.pick("//*[@data-gate='still_off/left sway link']//button").await?;
        page.at("//*[@data-stage='bolt_up'][@aria-current='step']").await?;
        page.pick("//section[@aria-label='Put back']//button").await?;
        page.press("It is back on").await?;
        page.saved().await?;
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.sees("[data-status=proved]", "Proved, nothing left open").await?;
        page.press("Close this job").await?;
        page.sees("[data-settled]", "Closed on").await?;
        assert_eq!(shop.job(&id).await["results"]["status"]["state"], "closed");
        Ok(())
    })
    .await;
}

/// A complaint is followed to its cause: what to look at next is answered, the cause confirmed, mended and written down,
/// and the job closes. What was done is on its record.
#[tokio::test(flavor = "multi_thread")]
async fn a_complaint_is_followed_to_its_cause_mended_and_closed() {
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        let id = proved(&shop, |document| {
            document["complaints"] = json!([{ "text": "clunks over washboard", "about": "clunk" }]);
        })
        .await;
        page.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        page.pick("//button[contains(., 'Cause')]").await?;
        page.sees("[data-cause-says]", "Too close to call").await?;
        let next = page.at("(//*[@data-check])[1]").await?.attr("data-check").await?.unwrap();
        page.pick(&format!("//*[@data-check='{next}']//button[normalize-space()='Yes']")).await?;
        page.at(&format!("//*[@data-looked='{next}']")).await?;
        // What was seen stands in the way by itself.
        page.sees("[data-status=proved]", "2 things left open").await?;
        let cause = page.at("(//*[@data-suspect])[1]").await?.attr("data-suspect").await?.unwrap();
        page.pick(&format!("//*[@data-suspect='{cause}']//button")).await?;
        page.sees("[data-next-step]", "Next: Fix what was found").await?;
        page.enter("What you saw", "it moves when it is rocked").await?;
        page.enter("What you did about it", "replaced, tightened at ride height").await?;
        page.press("It is fixed").await?;
        page.sees(&format!("[data-confirmed='{cause}']"), "Found and fixed").await?;
        page.pick("//button[contains(., 'Checks')]").await?;
        page.pick("//*[@data-pointer='/complaints/0/after']//button[normalize-space()='gone']").await?;
        page.sees("[data-status=proved]", "Proved, nothing left open").await?;
        page.press("Close this job").await?;
        page.sees("[data-settled]", "Closed on").await?;
        let job = shop.job(&id).await;
        let found = &job["document"]["diagnosis"]["causes"][0];
        assert_eq!(
            (found["what"].as_str(), found["note"].as_str()),
            (Some(cause.as_str()), Some("it moves when it is rocked"))
        );
        assert!(found["mended"]["at"].is_string(), "{found}");
        assert_eq!(job["document"]["diagnosis"]["checks"][0]["seen"], true);
        assert_eq!(job["results"]["settled_stands"], true);
        assert_eq!(page.complaints().await?, Vec::<String>::new());
        Ok(())
    })
    .await;
}
