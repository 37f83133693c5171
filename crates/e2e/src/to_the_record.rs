//! A job carried to its record: its steps ticked, its bolts tight, closed, its paper fetched.

use serde_json::{Value, json};
use thirtyfour::error::WebDriverResult;

use crate::{Page, Shop};

/// Done on the second of November, by Rosa.
fn done() -> Value {
    json!({ "at": "2026-11-02T09:00:00Z", "by": "Rosa" })
}

impl Shop {
    /// Ticks every step of the plan and tightens every bolt, as if it had been done in its order.
    pub async fn work_done(&self, id: &str) {
        let document = self.job(id).await["document"].clone();
        let call =
            reqwest::Client::new().post(format!("{}/api/v1/compute/work", self.address)).json(&document);
        let work: Value =
            call.send().await.expect("the server answers").json().await.expect("it answers in JSON");
        let steps: Vec<Value> = work["steps"]
            .as_array()
            .expect("a plan has steps and fasteners")
            .iter()
            .map(|step| {
                let weight = step["key"] == "corners" || !step["stands"].is_null();
                json!({ "key": step["key"], "done": done(), "read": step["does"]["in"],
                "stood": if weight { "on_its_weight" } else { "supported" } })
            })
            .collect();
        let bolts: Vec<Value> = work["fasteners"]
            .as_array()
            .expect("a plan has steps and fasteners")
            .iter()
            .map(|bolt| {
                json!({ "key": bolt["key"], "torque": "120 lb-ft", "source": "parts_sheet",
                "tight": { "torque": "120 lb-ft", "stood": "on_its_weight", "done": done() } })
            })
            .collect();
        self.change(id, |document| {
            document["bolt_up"]["by"] = json!("Rosa");
            document["bolt_up"]["steps"] = json!(steps);
            document["bolt_up"]["fasteners"] = json!(bolts);
        })
        .await;
    }
}

impl Page {
    /// The bar's length put on record as set, both sides read alike after it, the job closed with its record.
    ///
    /// # Errors
    /// Where the screens offer no such way.
    pub async fn proved_and_closed(&self, shop: &Shop, id: &str, length: &str) -> WebDriverResult<()> {
        self.go(&format!("{}/jobs/{id}/bar", shop.address)).await?;
        self.enter("Length as set, eye to eye", length).await?;
        self.saved().await?;
        self.go(&format!("{}/jobs/{id}/prove", shop.address)).await?;
        self.press("Start the after measurements").await?;
        self.press("on its wheels").await?;
        self.type_readings(["12", "12", "12", "12", "12", "12", "12", "12"]).await?;
        self.sees("[data-answer]", "Proved: centered within 1/8″").await?;
        self.closed("as found on the road").await?;
        self.has_its_record(shop).await
    }

    /// Closes a proved job: everything looked at, everything that is left open accepted, closed by its press.
    pub async fn closed(&self, reason: &str) -> WebDriverResult<()> {
        self.pick("//button[contains(., 'Checks')]").await?;
        self.all_looked_at().await?;
        self.pick("//button[contains(., 'Close job')]").await?;
        if self.driver.find(thirtyfour::By::Css("[data-gates]")).await.is_ok() {
            self.reasons(reason).await?;
        }
        self.press("Close this job").await?;
        self.sees("[data-status=closed]", "Closed").await?;
        Ok(())
    }

    /// The record of a closed job is one press away, and is a paper.
    pub async fn has_its_record(&self, shop: &Shop) -> WebDriverResult<()> {
        let sheet = self.at("//a[contains(., 'Record for the customer')]").await?;
        let address = sheet.attr("href").await?.expect("the record has an address");
        let paper = reqwest::get(format!("{}{address}", shop.address)).await.expect("the record is fetched");
        assert_eq!(paper.headers()["content-type"], "application/pdf");
        assert!(paper.bytes().await.expect("it has a body").starts_with(b"%PDF"));
        Ok(())
    }
}
