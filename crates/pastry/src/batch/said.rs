//! What happened to a batch, in words: everything, also what was corrected or taken back.

use crate::batch::document::BatchDocument;
use crate::batch::event::{BatchEntry, BatchEvent, Came, OverWay};
use crate::ingredient::Shelf;
use crate::number::{span_min, weighed_g};
use jiff::Timestamp;
use serde::Serialize;
use std::collections::{HashMap, HashSet};
use utoipa::ToSchema;

/// Something that happened to a batch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Happening {
    /// Id of its event.
    pub id: String,
    /// When.
    #[schema(value_type = String)]
    pub at: Timestamp,
    /// On which device, if that said so.
    pub device: Option<String>,
    /// What, in words, as it counts.
    pub words: String,
    /// What was read first, in words, where it was corrected.
    pub was: Option<String>,
    /// Whether it was taken back and does not count.
    pub taken_back: bool,
    /// Whether a cook can correct its number.
    pub has_number: bool,
}

/// Everything that happened, the last first.
///
/// # Arguments
/// * `counts`: those that count, as they count; `names`: of the lines.
pub fn happenings(
    batch: &BatchDocument,
    entries: &[BatchEntry],
    counts: &[BatchEntry],
    names: &[String],
    shelf: &Shelf,
) -> Vec<Happening> {
    let counted: HashMap<&str, &BatchEvent> =
        counts.iter().map(|own| (own.id.as_str(), &own.event)).collect();
    let mut seen: HashSet<&str> = HashSet::new();
    let mut all: Vec<Happening> = entries
        .iter()
        .filter(|own| seen.insert(&own.id))
        .filter_map(|own| {
            let first = words(&own.event, batch, names, shelf)?;
            let now = counted.get(own.id.as_str());
            let other = now.filter(|event| **event != &own.event);
            let then =
                other.and_then(|event| words(event, batch, names, shelf)).filter(|then| *then != first);
            let (words, was) = match then {
                Some(then) => (then, Some(first)),
                None => (first, None),
            };
            Some(Happening {
                id: own.id.clone(),
                at: own.at,
                device: own.device.clone(),
                was,
                words,
                taken_back: now.is_none(),
                has_number: own.event.says_a_number(),
            })
        })
        .collect();
    all.sort_by(|a, b| b.at.cmp(&a.at).then_with(|| b.id.cmp(&a.id)));
    all
}

fn grams(value: f64) -> String {
    format!("{} g", weighed_g(value))
}

/// "Left out on purpose: none there", or without a reason.
fn because(words: &str, why: &str) -> String {
    match why.trim() {
        "" => words.to_owned(),
        why => format!("{words}: {why}"),
    }
}

/// An event in words; none for one that only says something of another.
pub fn words(event: &BatchEvent, batch: &BatchDocument, names: &[String], shelf: &Shelf) -> Option<String> {
    let name = |line: usize| names.get(line).map_or("a line", String::as_str);
    let what = |key: &str| {
        let step = batch.steps.iter().find(|own| own.key == key);
        step.map_or(key, |own| own.what.trim_end_matches('.')).to_owned()
    };
    let called = |key: &str| shelf.find(key).map_or_else(|| key.to_owned(), |own| own.name.clone());
    Some(match event {
        BatchEvent::Weighed { line, grams: own, lot, .. } => {
            let lot = lot.as_ref().map(|lot| format!(", lot {lot}")).unwrap_or_default();
            format!("{} of {} in{lot}", grams(*own), name(*line))
        }
        BatchEvent::Tared { grams: own, bowl: None } => format!("Scale at 0 with a bowl, {}", grams(*own)),
        BatchEvent::Tared { grams: own, bowl: Some(bowl) } if *own > 0.0 => {
            format!("Bowl {bowl}: {} empty", grams(*own))
        }
        BatchEvent::Tared { bowl: Some(bowl), .. } => format!("Bowl {bowl} forgotten"),
        BatchEvent::Begun { step } => format!("Begun: {}", what(step)),
        BatchEvent::Done { step } => format!("Done: {}", what(step)),
        BatchEvent::LineLeftOut { line, why } => {
            because(&format!("{} left out on purpose", name(*line)), why)
        }
        BatchEvent::StepLeftOut { step, why } => {
            because(&format!("Left out on purpose: {}", what(step)), why)
        }
        BatchEvent::Read { c, .. } => format!("{c:.1} °C"),
        BatchEvent::Seen { step, there: true, .. } => format!("As it should be: {}", what(step)),
        BatchEvent::Seen { step, there: false, words } => {
            because(&format!("Not as it should be: {}", what(step)), words)
        }
        BatchEvent::Decided { line, way, factor } => match (way, factor) {
            (OverWay::Scale, Some(factor)) => {
                format!("Everything made {factor:.2} times, after {}", name(*line))
            }
            (OverWay::Restore, _) => format!("{} brought back by something else", name(*line)),
            _ => format!("{} left as it is", name(*line)),
        },
        BatchEvent::Added { ingredient, grams: own, why } => {
            because(&format!("{} of {} added", grams(*own), called(ingredient)), why)
        }
        BatchEvent::Lost { line, grams: own, why } => {
            let of = line.map_or_else(|| "it".to_owned(), |line| name(line).to_owned());
            because(&format!("{} of {of} lost", grams(*own)), why)
        }
        BatchEvent::Counted { counts: true, .. } => "A test counts again for what is learned".to_owned(),
        BatchEvent::Counted { counts: false, .. } => "A test is left out of what is learned".to_owned(),
        BatchEvent::Tested { test, c, .. } => format!("{}, at {c:.1} °C", test.words()),
        BatchEvent::Noted { words } => words.clone(),
        BatchEvent::TimerSet { name, min } => format!("{} set for {name}", span_min([*min, *min])),
        BatchEvent::Yielded { grams: own } => format!("{} came out", grams(*own)),
        BatchEvent::Judged { came, spoon, words } => {
            let seen = spoon.map_or_else(String::new, |own| format!(", on the spoon: {}", own.word()));
            because(&format!("It came out {}{}", came_words(*came), seen), words)
        }
        BatchEvent::Put { place } => format!("Put in: {place}"),
        BatchEvent::LeftOver { grams: own } => format!("{} left over", grams(*own)),
        BatchEvent::UsedUp {} => "Used up".to_owned(),
        BatchEvent::Closed {} => "Made".to_owned(),
        BatchEvent::TimerOff { .. } | BatchEvent::Corrected { .. } | BatchEvent::TakenBack { .. } => {
            return None;
        }
    })
}

/// How a batch came out, as a cook says it.
pub fn came_words(came: Came) -> &'static str {
    match came {
        Came::Good => "as it should",
        Came::Stiff => "too stiff",
        Came::Loose => "too loose",
        Came::Split => "split",
        Came::Grainy => "grainy",
        Came::Thrown => "bad: it was thrown away",
    }
}
