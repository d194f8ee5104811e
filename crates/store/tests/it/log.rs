//! The log in the kitchen's file: lines that stay true, found by words in many tongues, the newest first.

use crate::{document, fresh, noon};
use jiff::{SignedDuration, Timestamp};
use pastry::batch::{BatchAsk, BatchDocument, BatchEntry, BatchEvent, Came};
use pastry::ingredient::Shelf;
use pastry::log::{LogLine, log_line};
use store::journal::NewEvent;
use store::log::{LogAsk, LogOf};
use store::noun::BATCH;
use store::{SaveId, Store};

fn at(day: i64) -> Timestamp {
    noon().now - SignedDuration::from_hours(24 * day)
}

fn batch(name: &str, made: Timestamp) -> BatchDocument {
    let ask = BatchAsk {
        formula: document(name, "120 g"),
        weigh_g: None,
        component: None,
        revision: None,
        made_for: Vec::new(),
        made_at: Some(made),
    };
    BatchDocument::begin(ask, &Shelf::catalogue(), &[]).unwrap()
}

fn line(key: &str, document: &BatchDocument, events: &[BatchEvent]) -> (LogLine, String) {
    let entries: Vec<BatchEntry> = events
        .iter()
        .enumerate()
        .map(|(number, event)| BatchEntry {
            id: format!("{key}-{number}-event"),
            at: document.made_at.unwrap(),
            device: None,
            event: event.clone(),
        })
        .collect();
    let (line, names) = log_line(key, document, &entries, &Shelf::catalogue(), noon().now);
    let words = line.words(&names);
    (line, words)
}

/// Keeps a batch made so many days ago, with its line.
async fn made(store: &Store, key: &str, name: &str, day: i64, events: &[BatchEvent]) {
    let document = batch(name, at(day));
    store.create(key, &document, &noon()).await.unwrap();
    let (line, words) = line(key, &document, events);
    store.write_log(&[(line, words, 0)]).await.unwrap();
}

async fn found(store: &Store, ask: LogAsk) -> Vec<String> {
    let ask = LogAsk { most: 50, ..ask };
    store.log(&ask).await.unwrap().lines.into_iter().map(|own| own.key).collect()
}

fn words(text: &str) -> LogAsk {
    LogAsk { words: text.to_owned(), ..LogAsk::default() }
}

fn judged(came: Came, words: &str) -> BatchEvent {
    BatchEvent::Judged { came, spoon: None, words: words.to_owned() }
}

#[tokio::test]
async fn batches_are_found_by_words_in_many_tongues_and_nothing_typed_breaks_it() {
    let (_dir, store) = fresh().await;
    made(&store, "batch-crème", "Crème brûlée soufflé", 3, &[judged(Came::Loose, "ran off the plate")]).await;
    made(&store, "batch-matcha", "抹茶ガナッシュ", 2, &[]).await;
    made(&store, "batch-glaze", "Глазурь с мёдом", 1, &[judged(Came::Good, "")]).await;
    for (typed, keys) in [
        ("creme", vec!["batch-crème"]),
        ("BRÛLÉE souff", vec!["batch-crème"]),
        ("soufflé plate", vec!["batch-crème"]),
        ("soufflé bucket", vec![]),
        ("茶", vec!["batch-matcha"]),
        ("ガナ", vec!["batch-matcha"]),
        ("茶抹", vec![]),
        ("глазурь", vec!["batch-glaze"]),
        ("dark choc", vec!["batch-glaze", "batch-matcha", "batch-crème"]),
        ("\"", vec![]),
        ("' OR 1=1 --", vec![]),
        ("words: NEAR(x", vec![]),
        ("  ", vec!["batch-glaze", "batch-matcha", "batch-crème"]),
    ] {
        assert_eq!(found(&store, words(typed)).await, keys, "{typed}");
    }
}

#[tokio::test]
async fn what_is_asked_for_narrows_it_and_pages_miss_nothing() {
    let (_dir, store) = fresh().await;
    for day in 0..9 {
        let came = [Came::Good, Came::Stiff, Came::Split][day as usize % 3];
        made(&store, &format!("batch-of-{day}"), "Mask", day, &[judged(came, "")]).await;
    }
    // Two made in the same second are two.
    made(&store, "batch-again", "Mask", 4, &[judged(Came::Thrown, "fell")]).await;
    assert_eq!(found(&store, LogAsk { wrong: true, ..LogAsk::default() }).await.len(), 7);
    let stiff = LogAsk { came: Some("stiff".into()), ..LogAsk::default() };
    assert_eq!(found(&store, stiff).await, ["batch-of-1", "batch-of-4", "batch-of-7"]);
    let second = |day: i64| at(day).as_second();
    let days = LogAsk { seconds: (Some(second(4)), Some(second(1))), ..LogAsk::default() };
    assert_eq!(found(&store, days).await, ["batch-of-2", "batch-of-3", "batch-again", "batch-of-4"]);
    let of = |ingredient: &str| LogAsk { ingredient: Some(ingredient.into()), ..LogAsk::default() };
    assert_eq!(found(&store, of("cream36")).await.len(), 10);
    assert_eq!(found(&store, of("butter")).await.len(), 0);
    let room = LogAsk { room_c: (Some(22.0), None), ..LogAsk::default() };
    assert_eq!(found(&store, room).await.len(), 0);
    let mut ask = LogAsk { most: 3, ..words("mask") };
    let mut all = Vec::new();
    loop {
        let page = store.log(&ask).await.unwrap();
        all.extend(page.lines.into_iter().map(|own| own.key));
        let Some(behind) = page.more_behind else { break };
        ask.behind = Some(behind);
    }
    assert_eq!(all.len(), 10);
    assert_eq!(all, found(&store, words("")).await);
    let counts = store.log_counts(LogOf::Ingredient).await.unwrap();
    assert!(counts.iter().all(|own| own.batches == 10), "{counts:?}");
}

#[tokio::test]
async fn a_line_is_behind_from_the_moment_something_happens() {
    let (_dir, store) = fresh().await;
    let document = batch("Mask", at(1));
    store.create("batch-one", &document, &noon()).await.unwrap();
    assert_eq!(store.log_behind(10).await.unwrap(), ["batch-one"]);
    let (own, text) = line("batch-one", &document, &[]);
    store.write_log(&[(own.clone(), text.clone(), 0)]).await.unwrap();
    assert!(store.log_behind(10).await.unwrap().is_empty());
    let noted = |id: &str, words: &str| NewEvent {
        id: SaveId::read(id).unwrap(),
        at: at(1),
        event: BatchEvent::Noted { words: words.into() },
    };
    store.append(BATCH, "batch-one", &[noted("event-01", "late")], &noon()).await.unwrap();
    assert_eq!(store.log_behind(10).await.unwrap(), ["batch-one"]);
    // What was worked out before the event came does not pass for the truth.
    store.write_log(&[(own, text, 0)]).await.unwrap();
    assert_eq!(store.log_behind(10).await.unwrap(), ["batch-one"]);
    let (own, text) = line("batch-one", &document, &[BatchEvent::Noted { words: "late".into() }]);
    store.write_log(&[(own, text, 1)]).await.unwrap();
    assert!(store.log_behind(10).await.unwrap().is_empty());
    assert_eq!(found(&store, words("late")).await, ["batch-one"]);
    assert_eq!(found(&store, words("")).await.len(), 1, "one line a batch");
    // One that cannot be read is told, and tried again when something happens to it.
    store.append(BATCH, "batch-one", &[noted("event-02", "later")], &noon()).await.unwrap();
    store.log_unread("batch-one").await.unwrap();
    assert_eq!(store.log_behind_count().await.unwrap(), (0, 1));
    store.append(BATCH, "batch-one", &[noted("event-03", "latest")], &noon()).await.unwrap();
    assert_eq!(store.log_behind_count().await.unwrap(), (1, 0));
}
