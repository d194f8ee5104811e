//! The page as a cook meets it: things by their name and role, waiting for what is to be seen.

use crate::viewport::Viewport;
use fantoccini::actions::{InputSource, KeyAction, KeyActions, MouseActions, PointerAction, TouchActions};
use fantoccini::elements::Element;
use fantoccini::key::Key;
use fantoccini::wd::WebDriverCompatibleCommand;
use fantoccini::{Client, Locator};
use serde_json::{Value, json};
use server::config::Serve;
use server::serve::Running;
use std::time::{Duration, Instant};
use tempfile::TempDir;

/// How long something may take to show, on a machine that does other work too.
const PATIENCE: Duration = Duration::from_secs(60);
/// How often it is looked for.
const GLANCE: Duration = Duration::from_millis(40);

/// The page and what serves it.
pub struct Ui {
    /// The browser.
    pub client: Client,
    /// Address of the server.
    pub address: String,
    server: Option<Running>,
    options: Serve,
    _data: Option<TempDir>,
}

impl Ui {
    pub(crate) fn new(client: Client, server: Running, options: Serve, data: TempDir) -> Self {
        let address = format!("http://{}", server.address);
        Ui { client, address, server: Some(server), options, _data: Some(data) }
    }

    /// Another browser at the same kitchen, which does not serve it.
    pub(crate) fn beside(&self, client: Client) -> Self {
        Ui { client, address: self.address.clone(), server: None, options: self.options.clone(), _data: None }
    }

    /// Stops the server, as a power cut would.
    pub async fn stop_server(&mut self) {
        if let Some(server) = self.server.take() {
            server.stop().await;
        }
    }

    /// Starts it again on the same port and file.
    ///
    /// # Panics
    /// When it does not start.
    pub async fn start_server_again(&mut self) {
        self.server = Some(server::serve::start(&self.options).await.expect("the server starts again"));
    }

    /// The kitchen's file behind the page, for what others do to it.
    ///
    /// # Panics
    /// While the server is stopped.
    pub fn store(&self) -> &store::Store {
        self.server.as_ref().expect("the server runs").store()
    }

    /// Runs a script in every page before its own scripts, from the next page on.
    pub async fn before_every_page(&self, script: &str) {
        let command =
            Devtools { method: "Page.addScriptToEvaluateOnNewDocument", params: json!({ "source": script }) };
        self.client.issue_cmd(command).await.expect("the driver takes it");
    }

    /// Makes the page itself as large as asked: the window has a frame.
    pub async fn set_viewport(&self, Viewport(width, height): Viewport) {
        for _ in 0..3 {
            let inner = self.js("return [innerWidth, innerHeight, outerWidth, outerHeight]").await;
            let at = |k: usize| inner[k].as_u64().expect("a number of pixels") as u32;
            if (at(0), at(1)) == (width, height) {
                return;
            }
            let (w, h) = (width + at(2) - at(0), height + at(3) - at(1));
            self.client.set_window_size(w, h).await.expect("the window resizes");
        }
    }

    /// Opens a path of the page.
    pub async fn open(&self, path: &str) {
        self.client.goto(&format!("{}{path}", self.address)).await.expect("the page opens");
    }

    /// Opens an order of the demo kitchen by its name, at a view, and waits until it is worked out.
    pub async fn open_order(&self, name: &str, view: &str) {
        self.open("/orders").await;
        self.click(&format!("//ul[@aria-label='All orders']//a[.//span[.='{name}']]")).await;
        self.find("//h1[string-length(normalize-space(.)) > 3]").await;
        if view != "Cake" {
            self.click(&format!("//nav[@aria-label='Views of the order']//button[.='{view}']")).await;
            self.find("//h1[string-length(normalize-space(.)) > 3]").await;
        } else {
            self.find("//*[@role='listbox'][starts-with(@aria-label, 'Places of the cake')]").await;
        }
    }

    /// Opens a formula of the demo kitchen by its name and waits for its verdict.
    pub async fn open_formula(&self, name: &str) {
        self.open("/").await;
        self.click("//button[.='Open a formula']").await;
        self.click(&format!("//a[.//span[.='{name}']]")).await;
        self.wait_for("its name in the title", async || {
            self.value("//input[@aria-label='Name of the formula']").await == name
        })
        .await;
        self.verdict_that("is there", |_| true).await;
    }

    /// Posts JSON as the page would, and gives the status.
    pub async fn post(&self, path: &str, body: &Value) -> u64 {
        self.send("POST", path, body).await
    }

    /// Sends JSON as the page would, and gives the status.
    pub async fn send(&self, method: &str, path: &str, body: &Value) -> u64 {
        let script = "const [method, path, body, done] = arguments;
            fetch(path, { method, headers: { 'content-type': 'application/json' },
              body: JSON.stringify(body) }).then((r) => done(r.status))";
        let answer = self.client.execute_async(script, vec![method.into(), path.into(), body.clone()]).await;
        answer.expect("it is sent").as_u64().expect("a status")
    }

    /// Runs a script.
    pub async fn js(&self, script: &str) -> Value {
        self.client.execute(script, vec![]).await.expect("the script runs")
    }

    /// Waits until something holds.
    ///
    /// # Panics
    /// When it does not for a minute.
    pub async fn wait_for(&self, what: &str, holds: impl AsyncFn() -> bool) {
        let start = Instant::now();
        while !holds().await {
            assert!(start.elapsed() < PATIENCE, "waited in vain for {what}");
            tokio::time::sleep(GLANCE).await;
        }
    }

    /// The element at an XPath, once it can be seen.
    pub async fn find(&self, xpath: &str) -> Element {
        let start = Instant::now();
        loop {
            if let Ok(element) = self.client.find(Locator::XPath(xpath)).await
                && element.is_displayed().await.unwrap_or(false)
            {
                return element;
            }
            assert!(start.elapsed() < PATIENCE, "not to be seen: {xpath}");
            tokio::time::sleep(GLANCE).await;
        }
    }

    /// Whether anything is at an XPath.
    pub async fn has(&self, xpath: &str) -> bool {
        self.client.find(Locator::XPath(xpath)).await.is_ok()
    }

    /// Does something with what is at an XPath, again while the page exchanges it under the hand: an
    /// element found a moment ago may be gone when it is read.
    async fn with<T, E: std::fmt::Display>(
        &self,
        xpath: &str,
        what: &str,
        act: impl AsyncFn(Element) -> Result<T, E>,
    ) -> T {
        let start = Instant::now();
        loop {
            match act(self.find(xpath).await).await {
                Ok(done) => return done,
                Err(error) => assert!(start.elapsed() < PATIENCE, "cannot {what} {xpath}: {error}"),
            }
            tokio::time::sleep(GLANCE).await;
        }
    }

    /// Clicks, once nothing around it is about to be exchanged: a list that still answers an older question
    /// moves away under the hand, and the click meets another row or none.
    pub async fn click(&self, xpath: &str) {
        let settled = format!("({xpath})[not(ancestor::*[@aria-busy='true'])]");
        self.find(&settled).await;
        self.with(xpath, "click", async |element| element.click().await).await;
    }

    /// Text at an XPath.
    pub async fn text(&self, xpath: &str) -> String {
        self.with(xpath, "read", async |element| element.text().await).await
    }

    /// Value of a field.
    pub async fn value(&self, xpath: &str) -> String {
        self.with(xpath, "read", async |element| element.prop("value").await).await.unwrap_or_default()
    }

    /// Types over what a field holds.
    pub async fn write(&self, xpath: &str, text: &str) {
        self.with(xpath, "write into", async |field| {
            field.click().await?;
            self.chord(Key::Control, 'a').await;
            field.send_keys(text).await
        })
        .await;
    }

    /// The amount field of an ingredient.
    pub fn amount(name: &str) -> String {
        format!("//input[@aria-label='Amount of {name}']")
    }

    /// Presses one key where the focus is.
    pub async fn press(&self, key: impl Into<char>) {
        let value = key.into();
        let keys =
            KeyActions::new("keys".into()).then(KeyAction::Down { value }).then(KeyAction::Up { value });
        self.client.perform_actions(keys).await.expect("the key is pressed");
    }

    /// Presses a key while another is held.
    pub async fn chord(&self, held: Key, value: char) {
        let keys = KeyActions::new("keys".into())
            .then(KeyAction::Down { value: held.into() })
            .then(KeyAction::Down { value })
            .then(KeyAction::Up { value })
            .then(KeyAction::Up { value: held.into() });
        self.client.perform_actions(keys).await.expect("the keys are pressed");
    }

    /// Drags the mouse from one place to another, in steps.
    pub async fn drag(&self, from: (f64, f64), to: (f64, f64)) {
        let mouse = stroke(MouseActions::new("mouse".into()), from, to);
        self.client.perform_actions(mouse).await.expect("the pointer drags");
    }

    /// Drags a finger from one place to another, in steps.
    pub async fn drag_by_touch(&self, from: (f64, f64), to: (f64, f64)) {
        let finger = stroke(TouchActions::new("finger".into()), from, to);
        self.client.perform_actions(finger).await.expect("the finger drags");
    }

    /// Middle of an element in the page.
    pub async fn middle(&self, xpath: &str) -> (f64, f64) {
        let (x, y, w, h) = self.find(xpath).await.rectangle().await.expect("it has a place");
        (x + w / 2.0, y + h / 2.0)
    }

    /// Waits for a verdict that holds, and gives it.
    pub async fn verdict_that(&self, what: &str, holds: impl Fn(&str) -> bool) -> String {
        let start = Instant::now();
        loop {
            let script = "return document.querySelector('[data-testid=verdict]')?.textContent ?? ''";
            let said = self.js(script).await.as_str().unwrap_or_default().to_owned();
            if !said.is_empty() && holds(&said) {
                return said;
            }
            assert!(start.elapsed() < PATIENCE, "waited for a verdict that {what}; it says “{said}”");
            tokio::time::sleep(GLANCE).await;
        }
    }

    /// The working temperature that the handle tells a screen reader.
    pub async fn temperature(&self) -> f64 {
        let handle = self.find("//*[@role='slider']").await;
        let now = handle.attr("aria-valuenow").await.expect("it has attributes").expect("it says its value");
        now.parse().expect("a number")
    }

    /// The same once it has stood still for a moment: the page has taken in every move.
    pub async fn settled_temperature(&self) -> f64 {
        let mut last = self.temperature().await;
        loop {
            tokio::time::sleep(5 * GLANCE).await;
            let now = self.temperature().await;
            if now == last {
                return now;
            }
            last = now;
        }
    }

    /// Faults that axe-core calls serious or critical, in words.
    pub async fn serious_faults(&self, axe: &str) -> Vec<String> {
        self.client.execute(axe, vec![]).await.expect("axe loads");
        let script = "const done = arguments[arguments.length - 1];
            axe.run(document, { resultTypes: ['violations'] }).then(
              (found) => done(found.violations.map((v) => ({ id: v.id, impact: v.impact,
                 at: v.nodes.map((n) => n.target.join(' ') + ' ' + (n.any[0]?.message ?? '')) }))),
              (error) => done([{ id: 'axe failed: ' + error, impact: 'critical', at: [] }]))";
        let found = self.client.execute_async(script, vec![]).await.expect("axe runs");
        let rows = found.as_array().cloned().unwrap_or_default();
        rows.iter()
            .filter(|row| row["impact"] == json!("serious") || row["impact"] == json!("critical"))
            .map(|row| format!("{} {}", row["id"], row["at"]))
            .collect()
    }
}

/// A command of Chromium's own, through ChromeDriver.
#[derive(Debug)]
struct Devtools {
    method: &'static str,
    params: Value,
}

impl WebDriverCompatibleCommand for Devtools {
    fn endpoint(&self, base: &url::Url, session: Option<&str>) -> Result<url::Url, url::ParseError> {
        base.join(&format!("session/{}/goog/cdp/execute", session.unwrap_or_default()))
    }

    fn method_and_body(&self, _: &url::Url) -> (http::Method, Option<String>) {
        let body = json!({ "cmd": self.method, "params": self.params });
        (http::Method::POST, Some(body.to_string()))
    }
}

/// Down at one place, along, and up at another.
fn stroke<S: InputSource<Action = PointerAction>>(source: S, from: (f64, f64), to: (f64, f64)) -> S {
    let go = |x: f64, y: f64| PointerAction::MoveTo { duration: Some(Duration::from_millis(20)), x, y };
    let button = fantoccini::actions::MOUSE_BUTTON_LEFT;
    let mut source = source.then(go(from.0, from.1)).then(PointerAction::Down { button });
    for k in 1..=8 {
        let part = f64::from(k) / 8.0;
        source = source.then(go(from.0 + part * (to.0 - from.0), from.1 + part * (to.1 - from.1)));
    }
    source.then(PointerAction::Up { button })
}
