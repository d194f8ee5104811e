//! Two or three batches beside each other: what went in, how warm and how long it was, how it came out, what differs marked.

use crate::batch::document::BatchDocument;
use crate::batch::event::BatchEntry;
use crate::batch::fold::{BatchState, after, counting};
use crate::batch::tested::{BatchTest, tests};
use crate::bench_test::guide::guide;
use crate::bench_test::test::BenchTestKind;
use crate::code::codes;
use crate::fault::{Fault, FaultCode};
use crate::ingredient::Shelf;
use crate::log::line::{LogLine, log_line};
use crate::number::{span_min, two_digits, weighed_g};
use jiff::Timestamp;
use serde::Serialize;
use utoipa::ToSchema;

/// Fewest and most batches beside each other.
pub const HOW_MANY: std::ops::RangeInclusive<usize> = 2..=3;
/// What went in differs when it is further apart than this, share of the larger, each taken for a batch of one size.
const APART: f64 = 0.01;

/// Of two batches more came out when it is more by this, share of what went in (assumed: two per cent stay in bowl and bag).
const KEPT: f64 = 0.02;

codes! {
    /// What a row of batches beside each other is about.
    BesideGroup {
        /// What went in.
        Bowl = "bowl",
        /// How it was made.
        Making = "making",
        /// How it came out.
        Outcome = "outcome",
    }
}

/// Batches beside each other.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Beside {
    /// What it comes to, in a sentence.
    pub sentence: String,
    /// The batches, in the order asked for.
    pub batches: Vec<LogLine>,
    /// Rows, grouped.
    pub rows: Vec<BesideRow>,
}

/// A row of batches beside each other.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BesideRow {
    /// What it is about.
    pub group: BesideGroup,
    /// What: an ingredient, a step, a test.
    pub name: String,
    /// As it was with each.
    pub texts: Vec<String>,
    /// Whether they differ.
    pub differs: bool,
}

/// A batch with what happened to it.
#[derive(Debug, Clone)]
pub struct Told {
    /// Its key.
    pub key: String,
    /// As it was begun.
    pub batch: BatchDocument,
    /// What happened.
    pub entries: Vec<BatchEntry>,
    /// When it came here.
    pub kept_at: Timestamp,
    /// What it was weighed from.
    pub shelf: Shelf,
}

/// What is shown where a batch has nothing of it.
const NONE: &str = "none";

/// Puts batches beside each other.
///
/// # Errors
/// Another number than two or three.
pub fn beside(all: &[Told]) -> Result<Beside, Vec<Fault>> {
    if !HOW_MANY.contains(&all.len()) {
        let words = format!("two or three batches can be beside each other, not {}", all.len());
        return Err(vec![Fault::new("keys", FaultCode::HowMany, words)]);
    }
    let batches: Vec<LogLine> = all
        .iter()
        .map(|own| log_line(&own.key, &own.batch, &own.entries, &own.shelf, own.kept_at).0)
        .collect();
    let states: Vec<BatchState> = all.iter().map(|own| after(&own.batch, &counting(&own.entries))).collect();
    let mut rows = bowl(all, &states);
    rows.extend(making(all, &states, &batches));
    rows.extend(outcome(all, &batches));
    let sentence = sentence(&batches, &rows);
    Ok(Beside { sentence, batches, rows })
}

fn said(group: BesideGroup, name: impl Into<String>, texts: Vec<String>) -> BesideRow {
    let differs = texts.iter().any(|own| *own != texts[0]);
    BesideRow { group, name: name.into(), texts, differs }
}

/// What went in of each ingredient, g, with its share of the whole; they differ where the shares do.
fn bowl(all: &[Told], states: &[BatchState]) -> Vec<BesideRow> {
    let mut keys: Vec<&str> = Vec::new();
    for (own, state) in all.iter().zip(states) {
        let lines = own.batch.formula.lines.iter().map(|line| line.ingredient.as_str());
        for key in lines.chain(state.added.iter().map(|put| put.ingredient.as_str())) {
            if !keys.contains(&key) {
                keys.push(key);
            }
        }
    }
    let in_g = |own: &Told, state: &BatchState, key: &str| -> f64 {
        let lines = own.batch.formula.lines.iter().zip(&state.lines);
        let poured: f64 = lines.filter(|(line, _)| line.ingredient == key).map(|(_, own)| own.in_g).sum();
        let added = state.added.iter().filter(|put| put.ingredient == key);
        poured + added.map(|put| put.grams).sum::<f64>()
    };
    let named = |key: &str| {
        let own = all.iter().find_map(|own| own.shelf.find(key));
        own.map_or_else(|| key.to_owned(), |own| own.name.clone())
    };
    let mut rows: Vec<BesideRow> = Vec::new();
    for key in keys {
        let grams: Vec<f64> = all.iter().zip(states).map(|(own, state)| in_g(own, state, key)).collect();
        if grams.iter().all(|own| *own <= 0.0) {
            continue;
        }
        let shares: Vec<f64> =
            grams.iter().zip(states).map(|(own, state)| own / state.in_g().max(1e-9)).collect();
        let texts = grams.iter().zip(&shares).map(|(own, share)| match *own > 0.0 {
            true => format!("{} g, {:.1} %", weighed_g(*own), 100.0 * share),
            false => NONE.to_owned(),
        });
        let high = shares.iter().copied().fold(0.0, f64::max);
        let low = shares.iter().copied().fold(f64::MAX, f64::min);
        rows.push(BesideRow {
            group: BesideGroup::Bowl,
            name: named(key),
            texts: texts.collect(),
            differs: high - low > APART * high,
        });
    }
    let whole = states.iter().map(|own| format!("{} g", weighed_g(own.in_g()))).collect();
    // The size of a batch makes no other cream.
    rows.push(BesideRow { differs: false, ..said(BesideGroup::Bowl, "All of it", whole) });
    rows
}

fn making(all: &[Told], states: &[BatchState], batches: &[LogLine]) -> Vec<BesideRow> {
    let group = BesideGroup::Making;
    let words = |text: Option<String>| text.unwrap_or_else(|| NONE.to_owned());
    let mut rows = vec![
        said(
            group,
            "Formula",
            batches
                .iter()
                .map(|own| match own.revision {
                    Some(revision) => format!("{}, version {revision}", own.name),
                    None => own.name.clone(),
                })
                .collect(),
        ),
        said(group, "School", batches.iter().map(|own| words(own.school.clone())).collect()),
        said(group, "Room", batches.iter().map(|own| format!("{:.1} °C", own.room_c)).collect()),
    ];
    let span = |own: &BatchState| {
        let read = || own.reads.iter().map(|read| read.c);
        let (low, high) = (read().fold(f64::MAX, f64::min), read().fold(f64::MIN, f64::max));
        if own.reads.is_empty() { NONE.to_owned() } else { format!("{low:.1} to {high:.1} °C") }
    };
    rows.push(said(group, "Read on the way", states.iter().map(span).collect()));
    let mut steps: Vec<(&str, &str)> = Vec::new();
    for own in all.iter().flat_map(|own| &own.batch.steps) {
        if !steps.iter().any(|step| step.0 == own.key) {
            steps.push((&own.key, &own.what));
        }
    }
    for (key, what) in steps {
        let minutes = all.iter().zip(states).map(|(own, state)| {
            let at = own.batch.steps.iter().position(|step| step.key == key)?;
            let step = state.steps.get(at)?;
            if step.left_out.is_some() {
                return Some("left out".to_owned());
            }
            let took = step.done?.duration_since(step.begun?).as_secs_f64() / 60.0;
            Some(span_min([took, took]))
        });
        let texts: Vec<String> = minutes.map(words).collect();
        if texts.iter().any(|own| own != NONE) {
            rows.push(said(group, what.trim_end_matches('.'), texts));
        }
    }
    let list = |own: &[String]| if own.is_empty() { NONE.to_owned() } else { own.join(", ") };
    rows.push(said(group, "Lots", batches.iter().map(|own| list(&own.lots)).collect()));
    rows.push(said(
        group,
        "Otherwise than planned",
        batches
            .iter()
            .map(|own| if own.changed.is_empty() { NONE.to_owned() } else { own.changed.join(" ") })
            .collect(),
    ));
    rows
}

fn outcome(all: &[Told], batches: &[LogLine]) -> Vec<BesideRow> {
    let group = BesideGroup::Outcome;
    let words = |text: Option<String>| text.unwrap_or_else(|| NONE.to_owned());
    let mut rows = vec![
        said(group, "How it came out", batches.iter().map(|own| words(own.came_words.clone())).collect()),
        said(
            group,
            "On the spoon",
            batches.iter().map(|own| words(own.spoon.map(|own| own.word().to_owned()))).collect(),
        ),
        yielded(batches),
    ];
    let done: Vec<_> = all.iter().map(|own| tests(&own.batch, &own.entries, &own.shelf)).collect();
    for kind in BenchTestKind::ALL.iter().copied() {
        if done.iter().flatten().all(|own| own.test.kind() != kind) {
            continue;
        }
        let of = |own: &Vec<BatchTest>| {
            let read: Vec<String> = own
                .iter()
                .filter(|test| test.test.kind() == kind)
                .map(|test| {
                    let times = two_digits(test.measured.value / test.book.value.max(1e-12));
                    format!("{times} times the book, at {:.1} °C", test.c)
                })
                .collect();
            if read.is_empty() { NONE.to_owned() } else { read.join("; ") }
        };
        rows.push(said(group, guide(kind).name, done.iter().map(of).collect()));
    }
    rows
}

/// What came out, and how much of what went in that is.
fn yielded(batches: &[LogLine]) -> BesideRow {
    let share = |own: &LogLine| own.yielded_g.map(|out| out / own.in_g.max(1e-9));
    let text = |own: &LogLine| match (own.yielded_g, share(own)) {
        (Some(out), Some(share)) => format!("{} g, {:.0} % of it", weighed_g(out), 100.0 * share),
        _ => NONE.to_owned(),
    };
    let shares: Vec<f64> = batches.iter().filter_map(share).collect();
    let (low, high) =
        shares.iter().fold((f64::MAX, f64::MIN), |(low, high), own| (low.min(*own), high.max(*own)));
    let row = said(BesideGroup::Outcome, "Came out", batches.iter().map(text).collect());
    BesideRow { differs: shares.len() != batches.len() && !shares.is_empty() || high - low > KEPT, ..row }
}

fn sentence(batches: &[LogLine], rows: &[BesideRow]) -> String {
    let differs: Vec<&str> = rows
        .iter()
        .filter(|own| own.group == BesideGroup::Bowl && own.differs)
        .map(|own| own.name.as_str())
        .collect();
    let wrong = batches.iter().filter(|own| own.is_wrong()).count();
    let bowl = match differs.as_slice() {
        [] => "The same went in".to_owned(),
        [one] => format!("They differ in {one}"),
        [one, two] => format!("They differ in {one} and {two}"),
        [one, two, rest @ ..] => format!("They differ in {one}, {two} and {} more", rest.len()),
    };
    let judged = batches.iter().filter(|own| own.came.is_some()).count();
    match (judged, wrong) {
        (0, _) => format!("{bowl}; nobody said how they came out."),
        (_, 0) => format!("{bowl}; none is said to be wrong."),
        (_, 1) => format!("{bowl}; one came out wrong."),
        (_, many) => format!("{bowl}; {many} came out wrong."),
    }
}
