//! Makes the pictures in `docs/screenshots/` from the demo data: one of each view.
//! Usage: `cargo run -p derecho-e2e --bin screenshots [FOLDER]`.

use std::path::{Path, PathBuf};

use derecho_e2e::{DESK, PHONE, Page, Shop, Size, TABLET, in_browser};
use thirtyfour::error::WebDriverResult;

/// A view: its file, its size, its address, keys pressed before the picture.
type View = (&'static str, Size, &'static str, &'static str);

const VIEWS: [View; 19] = [
    ("bay", DESK, "/", ""),
    ("rig", DESK, "/jobs/water-tender-3/rig", "f"),
    ("tape", DESK, "/jobs/lookout-truck-7/tape", ""),
    ("bar", DESK, "/jobs/tower-truck-8/bar", ""),
    ("start", DESK, "/", "start"),
    ("bar-lowered-mm", DESK, "/jobs/relay-van-2/bar", "u]]]]]]]]"),
    ("bracket", DESK, "/jobs/lookout-truck-7/bracket", ""),
    ("parts", DESK, "/parts", ""),
    ("cycle", DESK, "/jobs/lookout-truck-7/cycle", ""),
    ("cycle-binds-night", TABLET, "/jobs/water-tender-3/cycle", "night"),
    ("sway", DESK, "/jobs/lookout-truck-7/sway", ""),
    ("sway-choices", DESK, "/jobs/relay-wagon-5/sway", "choices"),
    ("walk-quarter", DESK, "/jobs/lookout-truck-7/sway", "quarter"),
    ("bolt-up", DESK, "/jobs/tower-truck-8/bolt_up", ""),
    ("walk-below", TABLET, "/jobs/lookout-truck-7/cycle", "below"),
    ("prove", DESK, "/jobs/supply-truck-9/prove", ""),
    ("log", DESK, "/log", ""),
    ("tape-phone", PHONE, "/jobs/lookout-truck-7/tape", ""),
    ("practice", DESK, "/practice", "lesson"),
];

#[tokio::main]
async fn main() {
    let folder = std::env::args()
        .nth(1)
        .map_or_else(|| Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/screenshots"), PathBuf::from);
    let only = std::env::args().nth(2);
    let shop = Shop::open();
    for (name, size, address, keys) in VIEWS {
        if only.as_ref().is_some_and(|only| !name.contains(only.as_str())) {
            continue;
        }
        let url = format!("{}{address}", shop.address);
        let file = folder.join(format!("{name}.png"));
        in_browser(size, |page| async move { take(&page, &url, keys, &file).await }).await;
    }
}

async fn take(page: &Page, url: &str, keys: &str, file: &Path) -> WebDriverResult<()> {
    page.go(url).await?;
    page.sees("h1", "").await?;
    if url.contains("/jobs/") {
        // The small drawings and the details come with the stage's own script.
        page.asked_in_all().await?;
    }
    page.at("//*[@data-job] | //*[@data-answer] | //*[@data-part] | //*[@data-log] | //*[@data-lessons]/li")
        .await?;
    if url.ends_with("/bracket") {
        page.at("//*[@data-options] | //*[@data-checks]").await?;
    }
    if url.ends_with("/cycle") {
        page.at("//*[@data-map]").await?;
    }
    if url.ends_with("/sway") {
        page.at("//*[@data-arm]").await?;
    }
    if keys == "night" {
        page.press("More").await?;
        page.press("Dark").await?;
        page.misses("[role=menu]").await?;
    } else if keys == "choices" {
        let chart = page.at("//*[@data-chart]/..").await?.to_json()?;
        page.driver.execute("arguments[0].scrollIntoView({ block: 'start' })", vec![chart]).await?;
    } else if keys == "quarter" || keys == "below" {
        page.pick(&format!("//*[@data-view='{keys}']")).await?;
        page.sees("[data-names]", "closest:").await?;
    } else if keys == "start" {
        page.press("New job").await?;
        page.pick("//*[@data-purpose='centre_axle']").await?;
        page.pick("//*[@data-purpose='fit_sway_links']").await?;
    } else if keys == "lesson" {
        page.press("Begin: The helper with nothing to do").await?;
        page.press("New left-right measurement").await?;
        page.press("Send the helper away").await?;
        page.press("Bounce it").await?;
        for (side, place) in [("left", 0), ("left", 1), ("right", 0), ("right", 1)] {
            page.pick(&format!("//input[@data-pointer='/sheets/0/{side}/{place}']")).await?;
            page.press(&format!("Measure the {side}")).await?;
            page.sees("[data-took=taken]", &format!("into “{side} reading {}”", place + 1)).await?;
        }
        page.saved().await?;
        page.driver.execute("document.querySelector('[data-panel]').scrollTo(0, 0)", vec![]).await?;
    } else {
        for key in keys.chars() {
            page.key(&key.to_string()).await?;
        }
    }
    page.picture(file).await
}
