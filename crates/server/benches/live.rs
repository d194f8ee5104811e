//! From a scale's line to the page, with thirty devices and ten pages; and a batch of 2,000 events opened. Prints its figures.

#![allow(missing_docs)]

use devices::stand_in::told::told;
use devices::{DeviceAddress, DeviceKind};
use jiff::Timestamp;
use pastry::batch::{BatchAsk, BatchDocument, BatchEvent, ReadBy, look};
use pastry::ingredient::Shelf;
use server::config::Serve;
use server::serve;
use std::time::{Duration, Instant};
use store::journal::NewEvent;
use store::noun::BATCH;
use store::{By, SaveId};
use tokio::runtime::Runtime;
use tokio::sync::mpsc;

const FORMULA: &str = include_str!("../demo/01-bay-milk-drip.json");
const DEVICES: usize = 30;
const PAGES: usize = 10;
const CHANGES: usize = 300;

/// Seconds of processor time this process used.
fn used() -> f64 {
    let text = std::fs::read_to_string("/proc/self/stat").unwrap_or_default();
    let fields: Vec<&str> = text.rsplit(')').next().unwrap_or_default().split_whitespace().collect();
    let ticks = |at: usize| fields.get(at).and_then(|own| own.parse::<f64>().ok()).unwrap_or(0.0);
    (ticks(11) + ticks(12)) / 100.0
}

fn at_share(sorted: &[f64], share: f64) -> f64 {
    sorted[((sorted.len() - 1) as f64 * share).round() as usize]
}

async fn live() {
    let running = serve::start(&Serve::here(None)).await.expect("the server starts");
    let base = format!("http://{}", running.address);
    let client = reqwest::Client::new();
    let mut tellers = Vec::new();
    let mut all = Vec::new();
    for at in 0..DEVICES {
        let (tell, says) = mpsc::unbounded_channel();
        let address = told(says).await.expect("a free port").to_string();
        all.push(DeviceAddress { kind: DeviceKind::Scale, name: format!("s{at}"), address });
        tellers.push(tell);
    }
    let revision = running.store().devices().await.expect("the list").revision;
    let settings = serde_json::json!({
        "devices": all, "fridge_most_c": 8.0, "fridge_most_min": 20.0, "revision": revision
    });
    let saved = client.put(format!("{base}/api/devices")).json(&settings).send().await.expect("an answer");
    assert_eq!(saved.status(), 200);
    let (heard, mut hears) = mpsc::unbounded_channel::<Instant>();
    for page in 0..PAGES {
        let mut answer = client.get(format!("{base}/api/live")).send().await.expect("a stream");
        let heard = heard.clone();
        tokio::spawn(async move {
            while let Ok(Some(piece)) = answer.chunk().await {
                // The first page looks for the number that was said last; the others read along.
                let text = String::from_utf8_lossy(&piece);
                if page == 0 && text.contains("\"s0\"") && text.contains("7777.") {
                    let _ = heard.send(Instant::now());
                }
            }
        });
    }
    tokio::time::sleep(Duration::from_secs(2)).await;
    let mut took = Vec::new();
    let (began, before) = (Instant::now(), used());
    for turn in 0..CHANGES {
        let said = Instant::now();
        let _ = tellers[0].send(7777.0 + 0.1 * (turn % 9) as f64);
        took.push((hears.recv().await.expect("it is heard") - said).as_secs_f64() * 1000.0);
        let _ = tellers[0].send(1.0);
        tokio::time::sleep(Duration::from_millis(110)).await;
        while hears.try_recv().is_ok() {}
        // The others are poured on as well.
        for (own, tell) in tellers.iter().enumerate().skip(1) {
            let _ = tell.send((turn * own) as f64);
        }
    }
    let share = 100.0 * (used() - before) / began.elapsed().as_secs_f64();
    took.sort_by(f64::total_cmp);
    println!("scale's line to the stream of a page, {DEVICES} devices, {PAGES} pages:");
    println!(
        "  median {:.1} ms, 95th {:.1} ms, most {:.1} ms",
        at_share(&took, 0.5),
        at_share(&took, 0.95),
        took[took.len() - 1]
    );
    println!("  of one core, with the thirty scales and ten listeners in the same process: {share:.1} %");
    running.stop().await;
}

async fn long_batch() {
    let running = serve::start(&Serve::here(None)).await.expect("the server starts");
    let formula = serde_json::from_str(FORMULA).expect("a formula");
    let ask = BatchAsk {
        formula,
        weigh_g: None,
        component: None,
        revision: None,
        made_for: Vec::new(),
        made_at: None,
    };
    let batch = BatchDocument::begin(ask, &Shelf::catalogue(), &[]).expect("it can be made");
    let by = By::at(Timestamp::now());
    let kept = running.store().create("long-batch-of-the-bench", &batch, &by).await.expect("kept");
    for part in 0..4 {
        let events: Vec<NewEvent<BatchEvent>> = (0..500)
            .map(|at| NewEvent {
                id: SaveId::read(&format!("bench-event-{part}-{at}")).expect("an id"),
                at: Timestamp::now(),
                event: BatchEvent::Read { c: 20.0 + 0.01 * f64::from(at), by: ReadBy::Device },
            })
            .collect();
        running.store().append(BATCH, &kept.id, &events, &by).await.expect("kept");
    }
    let client = reqwest::Client::new();
    let url = format!("http://{}/api/batches/{}", running.address, kept.id);
    let mut took = Vec::new();
    for _ in 0..60 {
        let begun = Instant::now();
        let answer = client.get(&url).send().await.expect("an answer").bytes().await.expect("a body");
        assert!(answer.len() > 10_000);
        took.push(begun.elapsed().as_secs_f64() * 1000.0);
    }
    took.sort_by(f64::total_cmp);
    println!(
        "a batch of 2,000 events opened: median {:.1} ms, 95th {:.1} ms",
        at_share(&took, 0.5),
        at_share(&took, 0.95)
    );
    let (mut read, mut looked) = (Vec::new(), Vec::new());
    for _ in 0..30 {
        let begun = Instant::now();
        let kept_events = running.store().batch_events(&kept.id, 0).await.expect("events");
        read.push(begun.elapsed().as_secs_f64() * 1000.0);
        let begun = Instant::now();
        let (entries, _) = server::batch_log::entries(&kept_events);
        let view = look(&batch, &entries, &Shelf::catalogue()).expect("a view");
        looked.push(begun.elapsed().as_secs_f64() * 1000.0);
        assert_eq!(view.happened.len(), 2000);
    }
    for (what, mut took) in [("read from the file", read), ("folded and judged", looked)] {
        took.sort_by(f64::total_cmp);
        println!("  of that {what}: median {:.1} ms", at_share(&took, 0.5));
    }
    running.stop().await;
}

fn main() {
    let runtime = Runtime::new().expect("a runtime");
    runtime.block_on(live());
    runtime.block_on(long_batch());
}
