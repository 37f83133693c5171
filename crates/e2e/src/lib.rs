//! # derecho-e2e
//!
//! Drives the finished `derecho` binary as a person would: a real browser, the real
//! server, its real database. Here is the bench for it: starting the server and the
//! browser, finding things by what they are called on the screen, waiting for what is
//! said. The journeys are in `tests/`, the screenshot maker in `src/bin/`.
//!
//! Nothing depends on this crate.

mod to_the_record;

use std::future::Future;
use std::io::{BufRead, BufReader};
use std::os::unix::process::CommandExt;
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};
use std::time::Duration;

use serde_json::{Value, json};
use tempfile::TempDir;
use thirtyfour::common::capabilities::chrome::ChromeCapabilities;
use thirtyfour::common::capabilities::chromium::ChromiumLikeCapabilities;
use thirtyfour::error::WebDriverErrorInner;
use thirtyfour::prelude::*;
use thirtyfour::{Key, LoggingPrefsLogLevel, WebElement};

/// How long anything on a screen may take to appear.
const PATIENCE: Duration = Duration::from_secs(15);
/// How often the screen is looked at while waiting.
const GLANCE: Duration = Duration::from_millis(50);

/// A process group that ends with its owner.
struct Group(Child);

impl Drop for Group {
    fn drop(&mut self) {
        // The group's id is its leader's: the child itself and all it started.
        let _ = Command::new("kill").args(["-KILL", "--", &format!("-{}", self.0.id())]).status();
        let _ = self.0.wait();
    }
}

fn start(command: &mut Command) -> Group {
    Group(
        command
            .process_group(0)
            .spawn()
            .expect("the program starts: bin/derecho-test installs and builds it"),
    )
}

/// Reads lines until one holds `sign`, gives what follows it, and keeps draining; None where it ended before.
fn await_line(output: impl std::io::Read + Send + 'static, sign: &str) -> Option<String> {
    let mut lines = BufReader::new(output).lines().map_while(Result::ok);
    let found = lines.by_ref().find_map(|line| line.split_once(sign).map(|(_, rest)| rest.to_owned()))?;
    std::thread::spawn(move || lines.for_each(drop));
    Some(found)
}

/// Starts ChromeDriver, and tells its port. The port it is given by one protocol may be taken in the other: it ends
/// then, and is started again.
fn chromedriver() -> (Group, String) {
    for _ in 0..5 {
        let mut group =
            start(Command::new("chromedriver").arg("--port=0").stdout(Stdio::piped()).stderr(Stdio::null()));
        let output = group.0.stdout.take().expect("the output is piped");
        if let Some(port) = await_line(output, "started successfully on port ") {
            return (group, port.trim_end_matches('.').to_owned());
        }
    }
    panic!("ChromeDriver ends before it has started");
}

/// The finished binary, beside the test's own.
#[must_use]
pub fn binary() -> PathBuf {
    let here = std::env::current_exe().expect("a running program has a path");
    let built = here
        .ancestors()
        .map(|folder| folder.join("derecho"))
        .find(|path| path.is_file())
        .expect("derecho is built: run cargo build --workspace first");
    std::env::var_os("DERECHO_BIN").map_or(built, PathBuf::from)
}

/// A server of its own, with a database of its own.
pub struct Shop {
    server: Group,
    /// Such as `http://127.0.0.1:40123`.
    pub address: String,
    data: TempDir,
}

impl Shop {
    /// Opens with the sample jobs in the bay.
    #[must_use]
    pub fn open() -> Self {
        let data = tempfile::tempdir().expect("there is room for a database");
        let (server, address) = Self::serve(data.path());
        Self { server, address, data }
    }

    /// Opens with nothing in the bay.
    #[must_use]
    pub fn empty() -> Self {
        let data = tempfile::tempdir().expect("there is room for a database");
        let (server, address) = Self::serve_with(data.path(), &[]);
        Self { server, address, data }
    }

    fn serve(data: &Path) -> (Group, String) {
        Self::serve_with(data, &["--demo"])
    }

    fn serve_with(data: &Path, more: &[&str]) -> (Group, String) {
        let mut server = start(
            Command::new(binary())
                .args(["serve", "--listen", "127.0.0.1:0", "--data"])
                .arg(data)
                .args(more)
                .stdout(Stdio::piped()),
        );
        let output = server.0.stdout.take().expect("the output is piped");
        let address = await_line(output, "open at ").expect("the program says where it is open");
        let address = address.trim_end_matches('/').to_owned();
        (server, address)
    }

    /// Ends the server at once, as a power cut would, and starts it again on the same
    /// data. The address changes.
    pub fn cut_power(&mut self) {
        let (server, address) = {
            let _ = Command::new("kill").args(["-KILL", &self.server.0.id().to_string()]).status();
            let _ = self.server.0.wait();
            Self::serve(self.data.path())
        };
        self.server = server;
        self.address = address;
    }

    /// Stores a document as a new job and tells its id.
    ///
    /// # Panics
    /// Where the server refuses it.
    pub async fn make(&self, document: &Value) -> String {
        let client = reqwest::Client::new();
        let call = client.post(format!("{}/api/v1/jobs", self.address)).body(document.to_string());
        let answer = call.header("content-type", "application/json").send().await.expect("an answer");
        let made: Value = answer.json().await.expect("JSON");
        made["id"].as_str().unwrap_or_else(|| panic!("{made}")).to_owned()
    }

    /// Chooses the length alone for a job, where holes are on offer: no turns are said before that.
    ///
    /// # Panics
    /// Where the server refuses it.
    pub async fn choose_length_alone(&self, id: &str) {
        self.change(id, |document| document["setups"]["plans"]["chosen"] = json!({})).await;
    }

    /// Changes a job's document behind the screen's back.
    ///
    /// # Panics
    /// Where the server does not take it.
    pub async fn change(&self, id: &str, change: impl FnOnce(&mut Value)) {
        let job = self.job(id).await;
        let mut document = job["document"].clone();
        change(&mut document);
        let call = reqwest::Client::new().put(format!("{}/api/v1/jobs/{id}", self.address)).json(&document);
        let answer =
            call.header("If-Match", format!("\"{}\"", job["revision"])).send().await.expect("an answer");
        assert!(answer.status().is_success(), "{}", answer.text().await.unwrap_or_default());
    }

    /// A job as the server has it.
    pub async fn job(&self, id: &str) -> Value {
        let answer = reqwest::get(format!("{}/api/v1/jobs/{id}", self.address)).await;
        answer.expect("the server answers").json().await.expect("a job is JSON")
    }

    /// A job as the server has it, once it holds what is waited for.
    pub async fn until(&self, id: &str, holds: impl Fn(&Value) -> bool) -> Value {
        let deadline = std::time::Instant::now() + PATIENCE;
        loop {
            let job = self.job(id).await;
            if holds(&job) {
                return job;
            }
            assert!(std::time::Instant::now() < deadline, "never stored: {job}");
            tokio::time::sleep(GLANCE).await;
        }
    }
}

/// The size of a screen.
#[derive(Clone, Copy, Debug)]
pub struct Size {
    /// In CSS pixels.
    pub width: u32,
    /// In CSS pixels.
    pub height: u32,
    /// A touch screen.
    pub touch: bool,
}

/// A shop computer.
pub const DESK: Size = Size { width: 1280, height: 800, touch: false };
/// A tablet on its side.
pub const TABLET: Size = Size { width: 1024, height: 768, touch: true };
/// A phone.
pub const PHONE: Size = Size { width: 390, height: 844, touch: true };

/// Runs `journey` in a browser of its own, which ends with it even when it panics.
pub async fn in_browser<F, Fut>(size: Size, journey: F)
where
    F: FnOnce(Page) -> Fut,
    Fut: Future<Output = WebDriverResult<()>>,
{
    let profile = tempfile::tempdir().expect("there is room for a profile");
    let (chromedriver, port) = chromedriver();
    let url = format!("http://127.0.0.1:{port}");
    let session = WebDriver::new(url, capabilities(profile.path()).expect("the capabilities are sound"));
    let outcome = thirtyfour::testing::run_browser_test(session, |driver| async move {
        resize(&driver, size).await?;
        journey(Page { driver }).await
    })
    .await;
    drop(chromedriver);
    if let Err(error) = outcome {
        panic!("{error:?}");
    }
}

fn capabilities(profile: &Path) -> WebDriverResult<ChromeCapabilities> {
    let mut capabilities = DesiredCapabilities::chrome();
    for argument in [
        "--headless",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--disable-dev-shm-usage",
        "--hide-scrollbars",
        "--force-device-scale-factor=1",
        "--window-size=1280,800",
        "--lang=en-GB",
    ] {
        capabilities.add_arg(argument)?;
    }
    capabilities.add_arg(&format!("--user-data-dir={}", profile.display()))?;
    capabilities.set_browser_log_level(LoggingPrefsLogLevel::All)?;
    Ok(capabilities)
}

/// Gives the window the size and the pointer of a screen.
async fn resize(driver: &WebDriver, size: Size) -> WebDriverResult<()> {
    let cdp = driver.cdp();
    cdp.emulation().set_device_metrics_override(size.width, size.height, 1.0, size.touch).await?;
    // Pictures and clicks in the middle of a transition depend on the machine's speed.
    let still = json!({ "features": [{ "name": "prefers-reduced-motion", "value": "reduce" }] });
    cdp.send_raw("Emulation.setEmulatedMedia", still).await?;
    cdp.send_raw("Emulation.setTouchEmulationEnabled", json!({ "enabled": size.touch })).await?;
    Ok(())
}

/// A page in the browser, spoken of as a person would.
#[derive(Clone)]
pub struct Page {
    /// The driver, for what has no word here.
    pub driver: WebDriver,
}

/// What is pressed to see more: the tab of a section or of one of its faces, the title of a fold.
const OPENER: &str = "
    const openerOf = (element) => {
        const hosts = [];
        for (let host = element; host; host = host.parentElement)
            if (host.hasAttribute('data-reveals')) hosts.unshift(host);
        const shut = hosts.find((host) => !host.checkVisibility());
        if (!shut) return null;
        const tab = document.getElementById(shut.getAttribute('aria-labelledby') ?? '');
        return tab ?? shut.previousElementSibling;
    };
    const forText = (css, part) => {
        // Cells and lines stand apart on the screen alone.
        const bare = (text) => text.replace(/\\s+/g, '');
        const holds = (element) => bare(element.textContent).includes(bare(part));
        for (const element of document.querySelectorAll(css)) {
            if (!element.checkVisibility()) { if (holds(element)) return openerOf(element); continue; }
            const shut = [...element.querySelectorAll('[data-reveals]')].filter((host) => !host.checkVisibility());
            const found = shut.filter(holds);
            // The innermost that holds it: it may be a fold in a face in a section.
            if (found.length > 0) return openerOf(found[found.length - 1]);
        }
        return null;
    };";

fn quoted(text: &str) -> String {
    if text.contains('\'') { format!("\"{text}\"") } else { format!("'{text}'") }
}

/// Whether what was found is gone: between finding and using it the page may have drawn anew.
fn is_stale(error: &WebDriverError) -> bool {
    matches!(error.as_inner(), WebDriverErrorInner::StaleElementReference(_))
}

impl Page {
    /// Opens an address.
    pub async fn go(&self, address: &str) -> WebDriverResult<()> {
        self.driver.goto(address).await
    }

    /// The one element that XPath finds, as soon as it is there; what it is folded away in is opened.
    pub async fn at(&self, xpath: &str) -> WebDriverResult<WebElement> {
        let deadline = std::time::Instant::now() + PATIENCE;
        loop {
            let found = self.there(xpath).await?;
            match self.uncover(&found).await {
                Err(error) if is_stale(&error) && std::time::Instant::now() < deadline => {}
                other => return other.map(|()| found),
            }
        }
    }

    async fn there(&self, xpath: &str) -> WebDriverResult<WebElement> {
        self.driver.query(By::XPath(xpath)).wait(PATIENCE, GLANCE).first().await
    }

    /// Waits until `css` shows a text that holds `part`; gives the whole text.
    pub async fn sees(&self, css: &str, part: &str) -> WebDriverResult<String> {
        let deadline = std::time::Instant::now() + PATIENCE;
        let mut looked = 0;
        loop {
            let mut shown = Vec::new();
            for element in self.driver.find_all(By::Css(css)).await? {
                // Between finding and reading the page may have drawn anew.
                shown.push(element.text().await.unwrap_or_default().replace(['\n', '\u{a0}'], " "));
            }
            if let Some(text) = shown.iter().find(|text| text.contains(part)) {
                return Ok(text.clone());
            }
            if looked > 2 {
                match self.open_for(css, part).await {
                    Err(error) if is_stale(&error) => {}
                    other => other?,
                }
            }
            looked += 1;
            assert!(std::time::Instant::now() < deadline, "{css} never said {part:?}; it says {shown:?}");
            tokio::time::sleep(GLANCE).await;
        }
    }

    /// Opens the section or fold that hides what matches `css` and holds `part`, as a person goes through them.
    async fn open_for(&self, css: &str, part: &str) -> WebDriverResult<()> {
        let script = format!("{OPENER} return forText(arguments[0], arguments[1]);");
        let found = self.driver.execute(script, vec![json!(css), json!(part)]).await?;
        if let Ok(opener) = found.element() {
            self.bring_into_view(&opener).await?;
            opener.click().await?;
        }
        Ok(())
    }

    /// Presses whatever opens the sections and folds an element is in, until it shows.
    async fn uncover(&self, element: &WebElement) -> WebDriverResult<()> {
        for _ in 0..8 {
            let script = format!("{OPENER} return openerOf(arguments[0]);");
            let found = self.driver.execute(script, vec![element.to_json()?]).await?;
            let Ok(opener) = found.element() else { return Ok(()) };
            self.bring_into_view(&opener).await?;
            opener.click().await?;
            tokio::task::yield_now().await;
        }
        Ok(())
    }

    /// The first element of an XPath that shows, or the first of all once what it is in was opened.
    async fn shown(&self, xpath: &str) -> WebDriverResult<WebElement> {
        let deadline = std::time::Instant::now() + PATIENCE;
        loop {
            let first = self.there(xpath).await?;
            for element in self.driver.find_all(By::XPath(xpath)).await? {
                if element.is_displayed().await.unwrap_or(false) {
                    return Ok(element);
                }
            }
            match self.uncover(&first).await {
                Err(error) if is_stale(&error) && std::time::Instant::now() < deadline => {}
                other => return other.map(|()| first),
            }
        }
    }

    /// Waits until nothing matches `css`.
    pub async fn misses(&self, css: &str) -> WebDriverResult<()> {
        let deadline = std::time::Instant::now() + PATIENCE;
        while !self.driver.find_all(By::Css(css)).await?.is_empty() {
            assert!(std::time::Instant::now() < deadline, "{css} stays on the screen");
            tokio::time::sleep(GLANCE).await;
        }
        Ok(())
    }

    /// Presses the button, link or choice that is called so.
    pub async fn press(&self, name: &str) -> WebDriverResult<()> {
        let name = quoted(name);
        let named = format!(
            "//*[self::button or self::a or @role='menuitem' or @role='radio'][@aria-label={name} or normalize-space()={name}]"
        );
        self.pick(&named).await
    }

    /// Presses the element that XPath finds.
    pub async fn pick(&self, xpath: &str) -> WebDriverResult<()> {
        let deadline = std::time::Instant::now() + PATIENCE;
        loop {
            let element = self.shown(xpath).await?;
            let pressed = match self.bring_into_view(&element).await {
                Ok(()) => element.click().await,
                Err(error) => Err(error),
            };
            match pressed {
                Err(error) if is_stale(&error) && std::time::Instant::now() < deadline => {}
                other => return other,
            }
        }
    }

    /// Scrolls no further than it takes, as a person would.
    async fn bring_into_view(&self, element: &WebElement) -> WebDriverResult<()> {
        let argument = element.to_json()?;
        self.driver
            .execute("arguments[0].scrollIntoView({ block: 'nearest' })", vec![argument])
            .await
            .map(drop)
    }

    /// The field with this label.
    pub async fn field(&self, label: &str) -> WebDriverResult<WebElement> {
        self.shown(&format!("//*[@id=(//label[normalize-space()={}]/@for)]", quoted(label))).await
    }

    /// Puts the cursor into the field with this label.
    pub async fn touch(&self, label: &str) -> WebDriverResult<()> {
        self.pick(&format!("//*[@id=(//label[normalize-space()={}]/@for)]", quoted(label))).await
    }

    /// Types into the field with this label, over what is there.
    pub async fn fill(&self, label: &str, text: &str) -> WebDriverResult<()> {
        let field = self.field(label).await?;
        self.bring_into_view(&field).await?;
        field.click().await?;
        field.send_keys(Key::Control + "a").await?;
        field.send_keys(text).await
    }

    /// Types into the field and leaves it with Enter.
    pub async fn enter(&self, label: &str, text: &str) -> WebDriverResult<()> {
        self.fill(label, &format!("{text}{}", Key::Enter.value())).await?;
        self.read(label).await
    }

    /// Waits until the server has read what was typed into a field: it is kept, or refused beside it.
    async fn read(&self, label: &str) -> WebDriverResult<()> {
        let deadline = std::time::Instant::now() + PATIENCE;
        let field = format!("//*[@id=(//label[normalize-space()={}]/@for)]", quoted(label));
        while std::time::Instant::now() < deadline {
            // A field that was drawn anew, or went with its fold, has been read.
            let Ok(element) = self.driver.find(By::XPath(&field)).await else { return Ok(()) };
            let draft = element.attr("data-draft").await.unwrap_or_default().is_some();
            let refused = element.attr("aria-invalid").await.unwrap_or_default().as_deref() == Some("true");
            if !draft || refused {
                return Ok(());
            }
            tokio::time::sleep(GLANCE).await;
        }
        Ok(())
    }

    /// Types where the cursor is.
    pub async fn type_on(&self, text: &str) -> WebDriverResult<()> {
        self.driver.active_element().await?.send_keys(text).await
    }

    /// Presses a key where no field has the cursor.
    pub async fn key(&self, key: &str) -> WebDriverResult<()> {
        self.driver.execute("document.activeElement.blur()", Vec::new()).await?;
        self.driver.find(By::Css("body")).await?.send_keys(key).await
    }

    /// What stands in the field.
    pub async fn value(&self, label: &str) -> WebDriverResult<String> {
        Ok(self.field(label).await?.prop("value").await?.unwrap_or_default())
    }

    /// Waits until the job is saved.
    pub async fn saved(&self) -> WebDriverResult<()> {
        self.at("//*[@data-saved='saved']").await.map(drop)
    }

    /// Eight readings, walking round: each Enter goes to the next.
    ///
    /// # Errors
    /// Where the browser does not answer.
    pub async fn type_readings(&self, readings: [&str; 8]) -> WebDriverResult<()> {
        self.touch("left reading 1").await?;
        for reading in readings {
            self.type_on(&format!("{reading}{}", Key::Enter.value())).await?;
        }
        self.saved().await
    }

    /// Writes the same reason for everything that stands in the way of settling, one after another.
    ///
    /// # Errors
    /// Where the browser does not answer.
    pub async fn reasons(&self, reason: &str) -> WebDriverResult<()> {
        self.at("//*[@data-gates]").await?;
        let gates = self.driver.find_all(By::Css("[data-gate]")).await?;
        let mut keys = Vec::new();
        for gate in gates {
            keys.extend(gate.attr("data-gate").await?);
        }
        for key in keys {
            let field = self.at(&format!("//*[@data-gate={}]//input", quoted(&key))).await?;
            self.bring_into_view(&field).await?;
            field.click().await?;
            field.send_keys(format!("{reason}{}", Key::Enter.value())).await?;
            self.saved().await?;
        }
        Ok(())
    }

    /// Answers everything that is looked at again with good.
    ///
    /// # Errors
    /// Where the browser does not answer.
    pub async fn all_looked_at(&self) -> WebDriverResult<()> {
        const OPEN: &str = "//*[@data-looked-at]//button[normalize-space()='good'][@aria-pressed='false']";
        self.at("//*[@data-looked-at]").await?;
        while let Ok(button) = self.driver.find(By::XPath(OPEN)).await {
            self.bring_into_view(&button).await?;
            button.click().await?;
            self.saved().await?;
        }
        Ok(())
    }

    /// The id of the job that is open.
    pub async fn job_id(&self) -> WebDriverResult<String> {
        let url = self.driver.current_url().await?;
        let mut parts = url.path_segments().into_iter().flatten().skip_while(|part| *part != "jobs");
        Ok(parts.nth(1).unwrap_or_default().to_owned())
    }

    /// A picture of the screen.
    pub async fn picture(&self, path: &Path) -> WebDriverResult<()> {
        // Fonts first, or the picture shows the stand-in.
        self.driver.execute_async("document.fonts.ready.then(arguments[0])", Vec::new()).await?;
        self.driver.screenshot(path).await
    }

    /// What axe-core finds serious or critical, one line each.
    pub async fn grave_faults(&self) -> WebDriverResult<Vec<String>> {
        // Read when it is asked for: the crate is built where the client's packages are not installed.
        let axe = concat!(env!("CARGO_MANIFEST_DIR"), "/../../web/node_modules/axe-core/axe.min.js");
        let axe = std::fs::read_to_string(axe).unwrap_or_else(|error| panic!("{axe}: {error}"));
        self.driver.execute(&axe, Vec::new()).await?;
        let found = self
            .driver
            .execute_async(
                "const done = arguments[0];
                 axe.run(document, { resultTypes: ['violations'] }).then(r => done(r.violations
                   .filter(v => v.impact === 'serious' || v.impact === 'critical')
                   .flatMap(v => v.nodes.map(n => `${v.id}: ${n.html.slice(0, 420)} ${n.failureSummary}`))));",
                Vec::new(),
            )
            .await?;
        found.convert()
    }

    /// How often the server was asked, once it is asked for nothing more.
    ///
    /// # Errors
    /// Where the browser does not answer.
    pub async fn asked_in_all(&self) -> WebDriverResult<u64> {
        let calls =
            "return performance.getEntriesByType('resource').filter(e => e.name.includes('/api/')).length";
        let deadline = std::time::Instant::now() + PATIENCE;
        let mut before: u64 = self.driver.execute(calls, Vec::new()).await?.convert()?;
        loop {
            let idle = "const done = arguments[0]; setTimeout(done, 1000);";
            self.driver.execute_async(idle, Vec::new()).await?;
            let now = self.driver.execute(calls, Vec::new()).await?.convert()?;
            if now == before || std::time::Instant::now() > deadline {
                return Ok(now);
            }
            before = now;
        }
    }

    /// What the browser's console complains about.
    pub async fn complaints(&self) -> WebDriverResult<Vec<String>> {
        let log = self.driver.browser_log().await?;
        Ok(log.into_iter().filter(|entry| entry.level == "SEVERE").map(|entry| entry.message).collect())
    }
}
