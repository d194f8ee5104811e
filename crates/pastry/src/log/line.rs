//! A batch as the log shows it: one line, worked out from its events.

use crate::assess::spoon_sign::SpoonSign;
use crate::batch::document::BatchDocument;
use crate::batch::event::{BatchEntry, BatchEvent, Came};
use crate::batch::fold::{after, counting};
use crate::batch::said::came_words;
use crate::batch::took::{StepTook, took};
use crate::formula::Family;
use crate::ingredient::Shelf;
use crate::log::changed::changes;
use crate::log::words::spaced;
use crate::method::school::school;
use crate::number::hundredths;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A batch as the log shows it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LogLine {
    /// Its key.
    pub key: String,
    /// What it is called.
    pub name: String,
    /// Of which family.
    pub family: Family,
    /// The family in a cook's words.
    pub family_word: String,
    /// Its work: drip, coat, mask, fill …
    pub job: String,
    /// When it was made, or begun while it is being made.
    #[schema(value_type = String)]
    pub at: Timestamp,
    /// Whether it is still being made.
    pub running: bool,
    /// Whether it was written in afterwards.
    pub written_in: bool,
    /// Key of the formula in the library; none for one that is not kept.
    pub component: Option<String>,
    /// The revision it was made by.
    pub revision: Option<i64>,
    /// The school it was made by, in words.
    pub school: Option<String>,
    /// Temperature of the room, °C, as the formula had it.
    pub room_c: f64,
    /// What it is made for.
    pub made_for: Vec<String>,
    /// What went in, g.
    pub in_g: f64,
    /// What came out, g.
    pub yielded_g: Option<f64>,
    /// How it came out.
    pub came: Option<Came>,
    /// The same in words, with what the cook said of it.
    pub came_words: Option<String>,
    /// What was seen on the spoon.
    pub spoon: Option<SpoonSign>,
    /// What was noted.
    pub notes: Vec<String>,
    /// What was done otherwise than planned, and why.
    pub changed: Vec<String>,
    /// How many tests were done on it.
    pub tests: usize,
    /// Keys of what went in.
    pub ingredients: Vec<String>,
    /// From which lots.
    pub lots: Vec<String>,
    /// Devices on which something of it was said.
    pub devices: Vec<String>,
    /// How long its steps took: counted apart, and not written with the line.
    #[serde(skip)]
    pub took: Vec<StepTook>,
}

impl LogLine {
    /// Whether it did not come out as it should.
    pub fn is_wrong(&self) -> bool {
        self.came.is_some_and(|own| own != Came::Good)
    }

    /// What it is found by.
    ///
    /// # Arguments
    /// * `names`: of what went in.
    pub fn words(&self, names: &[String]) -> String {
        let mut all: Vec<&str> = vec![&self.name, &self.family_word, &self.job];
        all.extend([&self.school, &self.came_words].into_iter().flatten().map(String::as_str));
        all.extend(self.spoon.map(|own| own.word()));
        let lists = [&self.made_for, &self.notes, &self.changed, &self.lots, &self.devices];
        all.extend(lists.into_iter().flatten().map(String::as_str));
        all.extend(names.iter().map(String::as_str));
        spaced(&all.join("\n"))
    }
}

/// A batch as the log shows it, and the names of what went in.
///
/// # Arguments
/// * `kept_at`: when it came here, for one to which nothing has happened.
pub fn log_line(
    key: &str,
    batch: &BatchDocument,
    entries: &[BatchEntry],
    shelf: &Shelf,
    kept_at: Timestamp,
) -> (LogLine, Vec<String>) {
    let counts = counting(entries);
    let state = after(batch, &counts);
    let called = |key: &str| shelf.find(key).map_or_else(|| key.to_owned(), |own| own.name.clone());
    let names: Vec<String> = batch.formula.lines.iter().map(|own| called(&own.ingredient)).collect();
    let mut ingredients: Vec<String> = Vec::new();
    let mut lots: Vec<String> = Vec::new();
    for (own, line) in state.lines.iter().zip(&batch.formula.lines) {
        if own.in_g > 0.0 && !ingredients.contains(&line.ingredient) {
            ingredients.push(line.ingredient.clone());
        }
        lots.extend(own.lots.iter().filter(|lot| !lots.contains(lot)).cloned().collect::<Vec<_>>());
    }
    for own in &state.added {
        if !ingredients.contains(&own.ingredient) {
            ingredients.push(own.ingredient.clone());
        }
    }
    let mut devices: Vec<String> = Vec::new();
    let (mut notes, mut spoon, mut tests) = (Vec::new(), None, 0);
    for own in &counts {
        devices.extend(own.device.iter().filter(|name| !devices.contains(name)).cloned().collect::<Vec<_>>());
        match &own.event {
            BatchEvent::Noted { words } => notes.push(words.clone()),
            BatchEvent::Judged { spoon: seen, .. } => spoon = seen.or(spoon),
            BatchEvent::Tested { .. } => tests += 1,
            _ => {}
        }
    }
    let said = state.came.as_ref().map(|(came, more)| match more.trim() {
        "" => format!("It came out {}.", came_words(*came)),
        more => format!("It came out {}: {}.", came_words(*came), more.trim_end_matches('.')),
    });
    let formula = &batch.formula;
    let found: Vec<String> = ingredients.iter().map(|own| called(own)).collect();
    let line = LogLine {
        key: key.to_owned(),
        name: batch.name.clone(),
        family: formula.family,
        family_word: formula.family.word().to_owned(),
        job: formula.work.job.word().to_owned(),
        at: state.closed.or(state.begun).unwrap_or(kept_at),
        running: state.closed.is_none(),
        written_in: batch.made_at.is_some(),
        component: batch.component.clone(),
        revision: batch.revision,
        school: formula.method.as_deref().and_then(school).map(|own| own.name.clone()),
        room_c: formula.work.room_temperature_c.celsius(),
        made_for: batch.made_for.iter().map(|own| own.name.clone()).collect(),
        in_g: hundredths(state.in_g()),
        yielded_g: state.yielded_g,
        came: state.came.as_ref().map(|own| own.0),
        came_words: said,
        spoon,
        notes,
        changed: changes(batch, &state, &counts, &names, shelf),
        tests,
        ingredients,
        lots,
        devices,
        took: took(batch, entries),
    };
    (line, found)
}
