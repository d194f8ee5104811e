//! Starting and stopping what a test needs.

use crate::page::Ui;
use crate::viewport::{LAPTOP, Viewport};
use fantoccini::wd::Capabilities;
use fantoccini::{Client, ClientBuilder};
use hyper_util::client::legacy::connect::HttpConnector;
use serde_json::json;
use server::config::Serve;
use server::serve::{self, Running};
use std::path::PathBuf;
use std::process::Stdio;
use std::time::Duration;
use tempfile::TempDir;
use tokio::io::{AsyncBufReadExt, BufReader};
use tokio::process::{Child, Command};

/// Longest a test may take, ChromeDriver's start included.
const LONGEST: Duration = Duration::from_secs(240);

/// Runs `body` on a page of the demo kitchen, then closes everything, whatever happened.
///
/// # Panics
/// When the body panics or takes too long; a picture is kept in the target folder.
pub async fn ui(name: &str, body: impl AsyncFnOnce(&mut Ui)) {
    run(name, true, body).await;
}

/// The same with an empty kitchen on a real file, which outlives a stop of the server.
///
/// # Panics
/// As [`ui`].
pub async fn ui_of_own_kitchen(name: &str, body: impl AsyncFnOnce(&mut Ui)) {
    run(name, false, body).await;
}

/// Runs `body` on pages of the demo kitchen in two browsers, as on two tablets.
///
/// # Panics
/// As [`ui`].
pub async fn ui_of_two(name: &str, body: impl AsyncFnOnce(&mut Ui, &mut Ui)) {
    ui(name, async |first| {
        let (mut driver, port) = start_driver().await;
        let profile = tempfile::tempdir().expect("a throwaway profile");
        let client = connect(port, &profile).await;
        let mut second = first.beside(client);
        second.set_viewport(LAPTOP).await;
        let outcome = futures_catch(std::panic::AssertUnwindSafe(body(first, &mut second))).await;
        // Closed whatever happened: only that ends Chromium.
        let _ = second.client.clone().close().await;
        let _ = driver.kill().await;
        if let Err(panic) = outcome {
            std::panic::resume_unwind(panic);
        }
    })
    .await;
}

async fn run(name: &str, demo: bool, body: impl AsyncFnOnce(&mut Ui)) {
    let mut session = Session::start(demo, LAPTOP).await;
    let name = name.to_owned();
    let outcome = {
        let ui = &mut session.ui;
        let guarded = std::panic::AssertUnwindSafe(tokio::time::timeout(LONGEST, body(ui)));
        futures_catch(guarded).await
    };
    if !matches!(outcome, Ok(Ok(()))) {
        session.picture_of_failure(&name).await;
    }
    session.stop().await;
    match outcome {
        Ok(Ok(())) => {}
        Ok(Err(_)) => panic!("{name}: took longer than {} s", LONGEST.as_secs()),
        Err(panic) => std::panic::resume_unwind(panic),
    }
}

/// Catches a panic of a future.
async fn futures_catch<F: Future>(future: std::panic::AssertUnwindSafe<F>) -> std::thread::Result<F::Output> {
    let mut future = Box::pin(future.0);
    std::future::poll_fn(move |context| {
        let polled = std::panic::catch_unwind(std::panic::AssertUnwindSafe(|| future.as_mut().poll(context)));
        match polled {
            Ok(std::task::Poll::Pending) => std::task::Poll::Pending,
            Ok(std::task::Poll::Ready(value)) => std::task::Poll::Ready(Ok(value)),
            Err(panic) => std::task::Poll::Ready(Err(panic)),
        }
    })
    .await
}

/// A server, a driver and a browser.
pub struct Session {
    /// The page.
    pub ui: Ui,
    driver: Child,
    _profile: TempDir,
}

impl Session {
    /// Starts all three; `demo` fills the kitchen.
    ///
    /// # Panics
    /// When Chromium or ChromeDriver is missing or does not start.
    pub async fn start(demo: bool, viewport: Viewport) -> Self {
        let data = tempfile::tempdir().expect("a throwaway folder");
        let options = Serve::here((!demo).then(|| data.path().join("kitchen.db")));
        let running: Running = serve::start(&options).await.expect("the server starts");
        let options = Serve { port: running.address.port(), ..options };
        let (driver, port) = start_driver().await;
        let profile = tempfile::tempdir().expect("a throwaway profile");
        let client = connect(port, &profile).await;
        let ui = Ui::new(client, running, options, data);
        ui.set_viewport(viewport).await;
        Session { ui, driver, _profile: profile }
    }

    async fn picture_of_failure(&self, name: &str) {
        let folder = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../target/ui-failures");
        let _ = std::fs::create_dir_all(&folder);
        if let Ok(png) = self.ui.client.screenshot().await {
            let file = folder.join(format!("{name}.png"));
            let _ = std::fs::write(&file, png);
            eprintln!("a picture of the failure is at target/ui-failures/{name}.png");
        }
    }

    /// Closes the browser first: only that ends Chromium.
    pub async fn stop(mut self) {
        let _ = self.ui.client.clone().close().await;
        let _ = self.driver.kill().await;
        self.ui.stop_server().await;
    }
}

/// Starts a driver on a port of its own choosing. It binds that port on IPv4 and then on IPv6, and ends
/// when another program took the second in between: then it is started again.
async fn start_driver() -> (Child, u16) {
    let mut said = String::new();
    for _ in 0..5 {
        match try_driver().await {
            Ok(started) => return started,
            Err(last) => said = last,
        }
        tokio::time::sleep(Duration::from_millis(200)).await;
    }
    panic!("chromedriver ends before it says its port; its last words: {said}");
}

/// One start: the driver and its port, or what it said before it ended.
async fn try_driver() -> Result<(Child, u16), String> {
    let mut driver = Command::new("chromedriver")
        .arg("--port=0")
        .stdout(Stdio::piped())
        .stderr(Stdio::null())
        .kill_on_drop(true)
        .spawn()
        .expect("chromedriver starts; `make test` installs it");
    let mut lines = BufReader::new(driver.stdout.take().expect("its output is ours")).lines();
    let mut said = String::new();
    while let Ok(Some(line)) = lines.next_line().await {
        if let Some((_, tail)) = line.split_once("successfully on port ") {
            let port = tail.trim_end_matches('.').trim().parse().expect("a port is a number");
            // A full pipe would stop the driver.
            tokio::spawn(async move { while let Ok(Some(_)) = lines.next_line().await {} });
            return Ok((driver, port));
        }
        said.push_str(&line);
        said.push('\n');
    }
    Err(said)
}

async fn connect(port: u16, profile: &TempDir) -> Client {
    let flags: Vec<String> = [
        "--headless=new",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-dev-shm-usage",
        "--disable-quic",
        "--no-first-run",
        "--no-default-browser-check",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--disable-extensions",
        "--hide-scrollbars",
        "--force-device-scale-factor=1",
        "--force-prefers-reduced-motion",
        "--lang=en-US",
    ]
    .into_iter()
    .map(str::to_owned)
    .chain([format!("--user-data-dir={}", profile.path().display())])
    .collect();
    let mut capabilities = Capabilities::new();
    capabilities.insert("goog:chromeOptions".into(), json!({ "args": flags }));
    capabilities.insert("goog:loggingPrefs".into(), json!({ "browser": "ALL" }));
    let address = format!("http://127.0.0.1:{port}");
    let mut last = None;
    for _ in 0..3 {
        match ClientBuilder::new(HttpConnector::new())
            .capabilities(capabilities.clone())
            .connect(&address)
            .await
        {
            Ok(client) => return client,
            Err(error) => last = Some(error),
        }
    }
    panic!("Chromium does not start: {last:?}");
}
