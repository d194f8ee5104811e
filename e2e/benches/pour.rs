//! From a scale's line to the glass: how long after the scale said a weight the page shows it. Prints its figures.

#![allow(missing_docs)]

use devices::stand_in::told::told;
use devices::{DeviceAddress, DeviceKind};
use e2e::browser::Session;
use e2e::viewport::LAPTOP;
use std::time::{Duration, SystemTime, UNIX_EPOCH};
use tokio::runtime::Runtime;
use tokio::sync::mpsc;

const CHANGES: usize = 200;

/// What the page shows beside the scale's name, and when it was drawn: two frames after the change stood in the page at the latest.
const LOG: &str = r"
    window.shown = [];
    new MutationObserver(() => {
        const text = document.querySelector('section[aria-label=\'To weigh\']')?.innerText ?? '';
        const grams = /told: ([0-9.,]+) g/.exec(text)?.[1];
        if (grams === undefined || window.shown.at(-1)?.[0] === grams) return;
        const own = [grams, 0, Date.now()];
        window.shown.push(own);
        requestAnimationFrame(() => requestAnimationFrame(() => { own[1] = Date.now() }));
    }).observe(document.body, { subtree: true, childList: true, characterData: true });
    return null";

/// By the clock that the page has too, ms.
fn now_ms() -> f64 {
    SystemTime::now().duration_since(UNIX_EPOCH).expect("after 1970").as_secs_f64() * 1000.0
}

fn at_share(sorted: &[f64], share: f64) -> f64 {
    sorted[((sorted.len() - 1) as f64 * share).round() as usize]
}

fn print(what: &str, mut took: Vec<f64>) {
    took.sort_by(f64::total_cmp);
    println!(
        "  {what}: median {:.0} ms, 95th {:.0} ms, most {:.0} ms, of {}",
        at_share(&took, 0.5),
        at_share(&took, 0.95),
        took[took.len() - 1],
        took.len()
    );
}

async fn pour() {
    let session = Session::start(true, LAPTOP).await;
    let ui = &session.ui;
    ui.open("/make").await;
    let (tell, says) = mpsc::unbounded_channel();
    let address = told(says).await.expect("a free port").to_string();
    let settings = ui.store().devices().await.expect("the list");
    let devices = [DeviceAddress { kind: DeviceKind::Scale, name: "told".to_owned(), address }];
    let body = serde_json::json!({
        "devices": devices, "fridge_most_c": 8.0, "fridge_most_min": 20.0, "revision": settings.revision
    });
    assert_eq!(ui.send("PUT", "/api/devices", &body).await, 200, "the scale is named");
    let _ = tell.send(1.0);
    ui.click("(//main//ul//a[starts-with(@href, '/make/')])[1]").await;
    ui.find("//section[@aria-label='To weigh'][contains(., 'told: 1 g')]").await;
    ui.js(LOG).await;
    let mut said: Vec<(f64, f64)> = Vec::with_capacity(CHANGES);
    for turn in 0..CHANGES {
        // A few grams, each other than the one before: below what any line may weigh.
        let grams = 1.0 + ((turn * 7) % 50) as f64 / 10.0;
        said.push((now_ms(), grams));
        let _ = tell.send(grams);
        // Not in step with the frames, nor with the scale's own tenth of a second.
        tokio::time::sleep(Duration::from_millis(130 + (turn as u64 * 7) % 40)).await;
    }
    tokio::time::sleep(Duration::from_millis(500)).await;
    let shown = ui.js("return window.shown").await;
    let shown: Vec<(f64, f64, f64)> = shown
        .as_array()
        .expect("a list")
        .iter()
        .map(|own| {
            let grams = own[0].as_str().unwrap_or_default().replace(',', "").parse().unwrap_or(f64::NAN);
            (grams, own[1].as_f64().unwrap_or(f64::NAN), own[2].as_f64().unwrap_or(f64::NAN))
        })
        .collect();
    let (mut drawn, mut changed) = (Vec::new(), Vec::new());
    for (when, grams) in said {
        // The same weight is said again seven seconds later.
        let its =
            |own: &&(f64, f64, f64)| (own.0 - grams).abs() < 0.01 && (when..when + 2000.0).contains(&own.2);
        let Some(own) = shown.iter().find(its) else { continue };
        drawn.push(own.1 - when);
        changed.push(own.2 - when);
    }
    assert!(drawn.len() > CHANGES * 9 / 10, "only {} of {CHANGES} weights were shown", drawn.len());
    println!("a scale's line to the page of a batch, headless Chromium:");
    print("in the page", changed);
    print("drawn (two frames later at the latest)", drawn);
    session.stop().await;
}

fn main() {
    Runtime::new().expect("a runtime").block_on(pour());
}
