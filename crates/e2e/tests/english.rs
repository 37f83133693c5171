//! The same program in another country's English: chosen once, on screens and on paper; what a person typed stays.

#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_e2e::{DESK, Shop, in_browser};
use lopdf::Document;
use serde_json::json;

#[tokio::test(flavor = "multi_thread")]
async fn two_screens_and_the_card_are_in_uk_english_and_a_typed_name_stays() {
    let shop = Shop::open();
    let mut document = shop.job("tower-truck-8").await["document"].clone();
    let holes = document["bracket"]["brackets"][0]["holes"].as_array_mut().unwrap();
    let hole = holes.iter_mut().find(|hole| hole["id"] == "hole 3").unwrap();
    hole["name"] = json!("center");
    let id = shop.make(&document).await;
    let address = shop.address.clone();
    in_browser(DESK, |page| async move {
        page.go(&format!("{}/jobs/{id}/bolt_up", shop.address)).await?;
        page.sees("li[data-step='stands']", "put jack stands under the frame").await?;
        page.sees("li[data-step='bar/frame-eye-by-hand']", "in the “center” hole of the").await?;

        page.press("More").await?;
        page.pick("//*[@role='menuitemradio'][contains(., 'UK English')]").await?;
        page.sees("li[data-step='stands']", "put axle stands under the frame").await?;
        page.sees("li[data-step='bar/frame-eye-by-hand']", "in the “center” hole of the").await?;
        page.sees("li[data-step='bar/jam']", "lock nuts").await?;
        page.go(&format!("{}/jobs/{id}/tape", shop.address)).await?;
        page.sees("body", "Tyres the same size, pressures equal").await?;
        // It is remembered on this device, in another window, too.
        page.go(&shop.address).await?;
        page.sees("body", "Centre the axle and fix the Panhard rod (track bar) angle").await?;

        let card = reqwest::Client::new()
            .get(format!("{address}/api/v1/jobs/{id}/card.pdf"))
            .header("cookie", "english=uk")
            .send()
            .await
            .unwrap();
        let card = Document::load_mem(&card.bytes().await.unwrap()).unwrap();
        let pages: Vec<u32> = card.get_pages().keys().copied().collect();
        // Where a line breaks is the paper's.
        let words = card.extract_text(&pages).unwrap().split_whitespace().collect::<Vec<_>>().join(" ");
        assert!(words.contains("axle stands under the frame"), "{words}");
        assert!(words.contains("center") && !words.contains("jack stands"), "{words}");
        Ok(())
    })
    .await;
}
