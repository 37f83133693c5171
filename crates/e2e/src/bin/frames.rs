//! How many frames a second the drawing turns at, and the bay scrolls at, in this machine's headless browser:
//! `cargo run -p derecho-e2e --bin frames [JOBS]`. Prints a line a stage, and one for a bay of so many jobs.

use derecho_e2e::{DESK, Shop, in_browser};

/// Drags across the drawing, a step a frame, and counts frames in which it has turned.
const TURN: &str = "
    const done = arguments[0];
    const walk = document.querySelector('[data-walk]');
    const box = walk.getBoundingClientRect();
    const send = (type, x) => walk.dispatchEvent(new PointerEvent(type, {
        bubbles: true, pointerId: 1, isPrimary: true, buttons: 1, clientX: x, clientY: box.y + box.height / 2 }));
    let frames = 0, turned = 0, last = walk.dataset.turn, x = box.x + 40;
    send('pointerdown', x);
    const began = performance.now();
    const step = () => {
        frames += 1;
        if (walk.dataset.turn !== last) turned += 1;
        last = walk.dataset.turn;
        x += 3;
        send('pointermove', x);
        if (performance.now() - began < 4000) { requestAnimationFrame(step); return; }
        send('pointerup', x);
        done([frames, turned, performance.now() - began]);
    };
    requestAnimationFrame(step);";

/// Scrolls the bay on, a step a frame, and counts frames and the longest time between two of them.
const SCROLL: &str = "
    const done = arguments[0];
    const main = document.querySelector('main');
    let frames = 0, longest = 0, last = performance.now();
    const began = last;
    const step = (now) => {
        frames += 1;
        longest = Math.max(longest, now - last);
        last = now;
        main.scrollBy(0, 30);
        if (now - began < 6000) { requestAnimationFrame(step); return; }
        done([frames, main.scrollTop, performance.now() - began, longest]);
    };
    requestAnimationFrame(step);";

/// Fills a bay and scrolls through it.
async fn scroll(count: usize) {
    let shop = Shop::empty();
    for index in 0..count {
        let mut job = serde_json::json!({ "format": "derecho-job", "version": 7 });
        job["title"] = format!("Mule {index}").into();
        shop.make(&job).await;
    }
    in_browser(DESK, |page| async move {
        page.go(&shop.address).await?;
        page.at("//*[@data-job]").await?;
        let figures: Vec<f64> = page.driver.execute_async(SCROLL, Vec::new()).await?.convert()?;
        if let [frames, far, milliseconds, longest] = figures[..] {
            let a_second = frames / milliseconds * 1000.0;
            println!("bay of {count}: {a_second:.1} frames a second over {far:.0} px, {longest:.0} ms at the longest");
        }
        Ok(())
    })
    .await;
}

#[tokio::main]
async fn main() {
    if let Some(count) = std::env::args().nth(1).and_then(|count| count.parse().ok()) {
        scroll(count).await;
    }
    let shop = Shop::open();
    in_browser(DESK, |page| async move {
        for stage in ["cycle", "sway", "bar"] {
            page.go(&format!("{}/jobs/lookout-truck-7/{stage}", shop.address)).await?;
            page.pick("//*[@data-view='quarter']").await?;
            page.at("//*[@data-near]").await?;
            let figures: Vec<f64> = page.driver.execute_async(TURN, Vec::new()).await?.convert()?;
            if let [frames, turned, milliseconds] = figures[..] {
                let a_second = |count: f64| count / milliseconds * 1000.0;
                println!(
                    "{stage}: {:.1} frames a second, turned in {:.1}",
                    a_second(frames),
                    a_second(turned)
                );
            }
        }
        Ok(())
    })
    .await;
}
