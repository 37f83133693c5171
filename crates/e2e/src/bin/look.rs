//! A picture of any address after a few presses, for looking at while working:
//! `cargo run -p derecho-e2e --bin look -- FILE WIDTHxHEIGHT ADDRESS [PRESS...]`.
//! A press that begins with `//` is an XPath, `key:` a key, `scroll:` an XPath brought into view,
//! `type:FIELD=TEXT` a text typed into a field. With `DERECHO_LOOK_JOB=FILE` it is a screen of that job, such as `/prove`.

use std::path::PathBuf;

use derecho_e2e::{Shop, Size, in_browser};
use thirtyfour::error::WebDriverResult;
use thirtyfour::prelude::*;

#[tokio::main]
async fn main() {
    let mut words = std::env::args().skip(1);
    let file = PathBuf::from(words.next().expect("a file to write"));
    let size = words.next().expect("a size such as 1280x800");
    let (width, height) = size.split_once('x').expect("a size such as 1280x800");
    let size = Size {
        width: width.parse().expect("a width"),
        height: height.parse().expect("a height"),
        touch: false,
    };
    let address = words.next().expect("an address such as /jobs/lookout-truck-7/bar");
    let presses: Vec<String> = words.collect();
    let shop = Shop::open();
    // A job of one's own: the address is then its screen, such as /prove.
    let own = std::env::var("DERECHO_LOOK_JOB").ok().map(|file| {
        let text = std::fs::read_to_string(file).expect("a file with a job");
        serde_json::from_str(&text).expect("a job as JSON")
    });
    let url = match own {
        Some(job) => format!("{}/jobs/{}{address}", shop.address, shop.make(&job).await),
        None => format!("{}{address}", shop.address),
    };
    in_browser(size, |page| async move {
        page.go(&url).await?;
        page.at(
            "//*[@data-job] | //*[@data-answer] | //*[@data-part] | //*[@data-log] | //*[@data-lessons]/li",
        )
        .await?;
        if url.ends_with("/cycle") {
            page.at("//*[@data-map]").await?;
        }
        if url.ends_with("/bracket") {
            page.at("//*[@data-options] | //*[@data-checks]").await?;
        }
        if url.ends_with("/sway") {
            page.at("//*[@data-arm]").await?;
        }
        for press in presses {
            take(&page, &press).await?;
        }
        page.picture(&file).await
    })
    .await;
}

async fn take(page: &derecho_e2e::Page, press: &str) -> WebDriverResult<()> {
    if let Some(key) = press.strip_prefix("key:") {
        return page.key(key).await;
    }
    if let Some(xpath) = press.strip_prefix("scroll:") {
        let element: WebElement = page.at(xpath).await?;
        let argument = element.to_json()?;
        let top = "arguments[0].scrollIntoView({ block: 'start' })";
        return page.driver.execute(top, vec![argument]).await.map(drop);
    }
    if let Some((field, text)) = press.strip_prefix("type:").and_then(|typed| typed.split_once('=')) {
        return page.enter(field, text).await;
    }
    if press.starts_with("//") { page.pick(press).await } else { page.press(press).await }
}
