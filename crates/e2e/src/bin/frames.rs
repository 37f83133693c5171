//! How many frames a second the drawing turns at, in this machine's headless browser:
//! `cargo run -p derecho-e2e --bin frames`. Prints a line a stage.

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

#[tokio::main]
async fn main() {
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
