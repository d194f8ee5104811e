//! How soon the log answers: 50,000 batches, what a cook asks of them, the first page each time.
//!
//! Beside each question stands the same by reading every line and looking at it, which is what it would cost without an index.

// It says what it measures and stops at once when something is amiss.
#![allow(missing_docs, clippy::unwrap_used)]

use fastrand::Rng;
use jiff::{SignedDuration, Timestamp};
use pastry::batch::Came;
use pastry::formula::Family;
use pastry::log::LogLine;
use std::hint::black_box;
use std::time::{Duration, Instant};
use store::Store;
use store::log::{LogAsk, MOST};

const BATCHES: usize = 50_000;
const TURNS: usize = 20;

fn line(number: usize, dice: &mut Rng) -> LogLine {
    let pick = |dice: &mut Rng, all: &[&str]| all[dice.usize(..all.len())].to_owned();
    let (place, what) = (
        pick(dice, &["Harbour", "Lantern", "Ember", "Bay", "Quay", "Orchard", "Tide", "Chapel"]),
        pick(dice, &["mask", "drip", "filling", "glaze", "mousse", "buttercream", "curd", "soak"]),
    );
    let family = Family::ALL[dice.usize(..Family::ALL.len())];
    let came =
        [None, Some(Came::Good), Some(Came::Good), Some(Came::Good), Some(Came::Stiff), Some(Came::Loose)]
            [dice.usize(..6)];
    LogLine {
        key: format!("batch-{number:06}"),
        name: format!("{place} {what} {}", dice.u32(1..400)),
        family,
        family_word: family.word().to_owned(),
        job: pick(dice, &["drip", "coat", "mask", "fill", "pipe", "set"]),
        at: "2026-11-30T12:00:00Z".parse::<Timestamp>().unwrap()
            - SignedDuration::from_secs(1800 * number as i64),
        running: false,
        written_in: false,
        component: Some(format!("component-{}", dice.u32(..300))),
        revision: Some(1),
        school: Some("Poured over".to_owned()),
        room_c: 18.0 + f64::from(dice.u32(..80)) / 10.0,
        made_for: vec![format!("Order {}", dice.u32(..9000))],
        in_g: 480.0,
        yielded_g: Some(470.0),
        came,
        came_words: came.map(|own| format!("It came out {own}.")),
        spoon: None,
        notes: vec![format!("stood {} minutes, {}", dice.u32(..90), pick(dice, &["shiny", "dull", "even"]))],
        changed: Vec::new(),
        tests: usize::from(dice.u32(..10) == 0),
        ingredients: (0..5).map(|_| format!("ingredient_{}", dice.u32(..250))).collect(),
        lots: vec![format!("L-{}", number / 40)],
        devices: vec!["Mixer tablet".to_owned()],
        took: Vec::new(),
    }
}

fn middle(mut all: Vec<Duration>) -> f64 {
    all.sort();
    1e3 * all[all.len() / 2].as_secs_f64()
}

#[tokio::main]
async fn main() {
    let dir = tempfile::tempdir().unwrap();
    let store = Store::open(&dir.path().join("kitchen.db")).await.unwrap();
    let mut dice = Rng::with_seed(7);
    let all: Vec<LogLine> = (0..BATCHES).map(|number| line(number, &mut dice)).collect();
    for some in all.chunks(2000) {
        let lines: Vec<_> = some.iter().map(|own| (own.clone(), own.words(&[]), 0)).collect();
        store.write_log(&lines).await.unwrap();
    }
    let words = |text: &str| LogAsk { words: text.to_owned(), ..LogAsk::default() };
    let asks: Vec<(&str, LogAsk)> = vec![
        ("the newest", LogAsk::default()),
        ("a word in one of eight", words("harbour")),
        ("a word in every batch", words("tablet")),
        ("two words in few", words("harbour 311")),
        ("words in none", words("harbour zeppelin")),
        ("begins with one letter", words("h")),
        ("one family", LogAsk { family: Some(Family::Curd.key().to_owned()), ..LogAsk::default() }),
        ("wrong ones, a common word", LogAsk { wrong: true, ..words("curd") }),
        ("a rare ingredient", LogAsk { ingredient: Some("ingredient_7".into()), ..LogAsk::default() }),
        ("an ingredient in none", LogAsk { ingredient: Some("none_such".into()), ..LogAsk::default() }),
        ("an old lot", LogAsk { lot: Some("L-1200".into()), ..LogAsk::default() }),
        (
            "a warm room, tested, wrong",
            LogAsk { room_c: (Some(25.8), None), tested: true, wrong: true, ..LogAsk::default() },
        ),
        (
            "a week three years ago",
            LogAsk { seconds: (Some(1_700_000_000), Some(1_700_604_800)), ..LogAsk::default() },
        ),
    ];
    println!("{:<30} {:>8} {:>12} {:>14}", "first page of", "found", "by index, ms", "by reading, ms");
    let mut slowest: f64 = 0.0;
    for (name, ask) in asks {
        let ask = LogAsk { most: 40, ..ask };
        let mut found = 0;
        let mut times = Vec::new();
        for _ in 0..TURNS {
            let begun = Instant::now();
            found = black_box(store.log(&ask).await.unwrap()).lines.len();
            times.push(begun.elapsed());
        }
        let own = middle(times);
        slowest = slowest.max(own);
        println!("{name:<30} {found:>8} {own:>12.2} {:>14.0}", by_reading(&store, &ask).await);
    }
    println!("the slowest took {slowest:.1} ms");
    store.close().await;
}

/// The same by going through every line.
async fn by_reading(store: &Store, ask: &LogAsk) -> f64 {
    let begun = Instant::now();
    let mut all = LogAsk { most: MOST, ..LogAsk::default() };
    let mut found: Vec<LogLine> = Vec::new();
    loop {
        let page = store.log(&all).await.unwrap();
        let behind = page.more_behind;
        found.extend(page.lines.into_iter().filter(|own| {
            let text = own.words(&[]).to_lowercase();
            ask.words.split_whitespace().all(|word| text.contains(&word.to_lowercase()))
                && ask.ingredient.as_ref().is_none_or(|key| own.ingredients.contains(key))
                && (!ask.wrong || own.is_wrong())
        }));
        match behind {
            Some(behind) => all.behind = Some(behind),
            None => break,
        }
    }
    black_box(found);
    1e3 * begun.elapsed().as_secs_f64()
}
