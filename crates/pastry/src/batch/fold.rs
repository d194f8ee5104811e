//! The state of a batch: a fold over its events, whatever order they came in.
//!
//! Events are put in the order in which they happened, by their time and then their id, so two devices that add at once and are
//! heard in any order give one state. An event that is there twice counts once; one that was taken back does not count; of one
//! that was corrected the last number counts.

use crate::batch::document::BatchDocument;
use crate::batch::event::{BatchEntry, BatchEvent, Came, OverWay, ReadBy};
use crate::number::hundredths;
use jiff::Timestamp;
use serde::Serialize;
use std::collections::{HashMap, HashSet};
use utoipa::ToSchema;

/// How far events may take back events that take back events.
const DEEPEST: u32 = 50;

/// Where a batch is.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
pub struct BatchState {
    /// Its lines, in the order of the formula.
    pub lines: Vec<LineState>,
    /// Its steps, in their order.
    pub steps: Vec<StepState>,
    /// What the marks of all lines are multiplied by, since it was made larger.
    pub factor: f64,
    /// What went in that no line asks for.
    pub added: Vec<Put>,
    /// Temperatures, in the order in which they were read.
    pub reads: Vec<TemperatureRead>,
    /// Clocks that run, or have rung and were not heard yet.
    pub timers: Vec<Timer>,
    /// What came out of it, g.
    pub yielded_g: Option<f64>,
    /// Where it stands.
    pub stands_in: Option<String>,
    /// What is left over of it, g; none while nobody said.
    pub left_over_g: Option<f64>,
    /// How it came out, and in more words.
    pub came: Option<(Came, String)>,
    /// Since when it is made.
    pub begun: Option<Timestamp>,
    /// Until when.
    pub closed: Option<Timestamp>,
}

/// Where a line is.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
pub struct LineState {
    /// What of it is in the bowl, g.
    pub in_g: f64,
    /// Left out on purpose, and why.
    pub left_out: Option<String>,
    /// What was decided about it, and how much was in then, g.
    pub decided: Option<(OverWay, f64)>,
    /// From which lots.
    pub lots: Vec<String>,
    /// What is in is what the formula has: nobody weighed it.
    pub assumed: bool,
}

/// Where a step is.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
pub struct StepState {
    /// Since when somebody is at it.
    pub begun: Option<Timestamp>,
    /// Until when.
    pub done: Option<Timestamp>,
    /// Left out on purpose, and why.
    pub left_out: Option<String>,
    /// Whether its sign was there.
    pub sign: Option<bool>,
}

/// Something that went in.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct Put {
    /// Key of the ingredient.
    pub ingredient: String,
    /// How much, g.
    pub grams: f64,
    /// Why.
    pub why: String,
}

/// A temperature that was read.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TemperatureRead {
    /// When.
    #[schema(value_type = String)]
    pub at: Timestamp,
    /// °C.
    pub c: f64,
    /// What it was read from.
    pub by: ReadBy,
}

/// A clock that runs.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[schema(as = BatchTimer)]
pub struct Timer {
    /// Id of the event that set it.
    pub id: String,
    /// What for.
    pub name: String,
    /// When it was set.
    #[schema(value_type = String)]
    pub set: Timestamp,
    /// When it rings.
    #[schema(value_type = String)]
    pub rings: Timestamp,
}

/// The events that count, as they count, in the order in which they happened.
pub fn counting(entries: &[BatchEntry]) -> Vec<BatchEntry> {
    let mut all: Vec<&BatchEntry> = Vec::with_capacity(entries.len());
    let mut seen: HashSet<&str> = HashSet::with_capacity(entries.len());
    all.extend(entries.iter().filter(|own| seen.insert(&own.id)));
    all.sort_by(|a, b| a.at.cmp(&b.at).then_with(|| a.id.cmp(&b.id)));
    let mut against: HashMap<&str, Vec<&str>> = HashMap::new();
    for own in &all {
        if let BatchEvent::TakenBack { of } = &own.event {
            against.entry(of).or_default().push(&own.id);
        }
    }
    let counts = |id: &str| !is_void(id, &against, 0);
    let mut numbers: HashMap<&str, f64> = HashMap::new();
    for own in all.iter().filter(|own| counts(&own.id)) {
        if let BatchEvent::Corrected { of, to } = &own.event {
            numbers.insert(of, *to);
        }
    }
    let says = |own: &&&BatchEntry| {
        !matches!(own.event, BatchEvent::Corrected { .. } | BatchEvent::TakenBack { .. }) && counts(&own.id)
    };
    let own = all.iter().filter(says).map(|own| match numbers.get(own.id.as_str()) {
        Some(to) => BatchEntry { event: own.event.corrected(*to), ..(*own).clone() },
        None => (*own).clone(),
    });
    own.collect()
}

/// Whether an event was taken back by one that was not taken back itself.
fn is_void(id: &str, against: &HashMap<&str, Vec<&str>>, deep: u32) -> bool {
    deep < DEEPEST
        && against.get(id).is_some_and(|all| all.iter().any(|other| !is_void(other, against, deep + 1)))
}

/// Where a batch is after some events.
pub fn fold(batch: &BatchDocument, entries: &[BatchEntry]) -> BatchState {
    after(batch, &counting(entries))
}

/// Where a batch is after events that count, in the order in which they happened.
pub(crate) fn after(batch: &BatchDocument, all: &[BatchEntry]) -> BatchState {
    let mut state = BatchState {
        lines: vec![LineState::default(); batch.formula.lines.len()],
        steps: vec![StepState::default(); batch.steps.len()],
        factor: 1.0,
        ..BatchState::default()
    };
    if let Some(made) = batch.made_at {
        (state.begun, state.closed) = (Some(made), Some(made));
        for (at, own) in state.lines.iter_mut().enumerate() {
            (own.in_g, own.assumed) = (batch.planned_g(at).unwrap_or(0.0), true);
        }
    }
    for entry in all {
        state.begun.get_or_insert(entry.at);
        state.apply(batch, entry);
    }
    // Whichever clock is behind: what was heard does not ring.
    let heard: HashSet<&str> = all
        .iter()
        .filter_map(|entry| match &entry.event {
            BatchEvent::TimerOff { timer } => Some(timer.as_str()),
            _ => None,
        })
        .collect();
    state.timers.retain(|own| !heard.contains(own.id.as_str()));
    state
}

impl BatchState {
    /// What is in the bowl, g.
    pub fn in_g(&self) -> f64 {
        self.lines.iter().map(|own| own.in_g).chain(self.added.iter().map(|own| own.grams)).sum()
    }

    fn apply(&mut self, batch: &BatchDocument, entry: &BatchEntry) {
        let at = entry.at;
        let step = |key: &str| batch.steps.iter().position(|own| own.key == key);
        match entry.event.clone() {
            BatchEvent::Weighed { line, grams, lot, .. } => {
                let Some(own) = self.lines.get_mut(line) else { return };
                let before = if std::mem::take(&mut own.assumed) { 0.0 } else { own.in_g };
                own.in_g = hundredths(before + grams);
                own.left_out = None;
                own.lots.extend(lot.filter(|lot| !own.lots.contains(lot)));
            }
            BatchEvent::LineLeftOut { line, why } => {
                let Some(own) = self.lines.get_mut(line) else { return };
                if std::mem::take(&mut own.assumed) {
                    own.in_g = 0.0;
                }
                own.left_out = Some(why);
            }
            BatchEvent::Decided { line, way, factor } => {
                if let (OverWay::Scale, Some(factor)) = (way, factor) {
                    self.factor *= factor;
                }
                let Some(own) = self.lines.get_mut(line) else { return };
                own.decided = Some((way, own.in_g));
            }
            BatchEvent::Added { ingredient, grams, why } => {
                match self.added.iter_mut().find(|own| own.ingredient == ingredient && own.why == why) {
                    Some(own) => own.grams = hundredths(own.grams + grams),
                    None => self.added.push(Put { ingredient, grams, why }),
                }
            }
            BatchEvent::Lost { line: Some(line), grams, .. } => {
                let Some(own) = self.lines.get_mut(line) else { return };
                own.in_g = hundredths((own.in_g - grams).max(0.0));
            }
            BatchEvent::Lost { line: None, grams, .. } => self.lose(grams),
            BatchEvent::Begun { step: key } => {
                let Some(own) = step(&key).and_then(|at| self.steps.get_mut(at)) else { return };
                *own = StepState { begun: Some(at), ..StepState::default() };
            }
            BatchEvent::Done { step: key } => {
                let Some(own) = step(&key).and_then(|at| self.steps.get_mut(at)) else { return };
                own.begun.get_or_insert(at);
                own.done = Some(at);
                own.left_out = None;
            }
            BatchEvent::StepLeftOut { step: key, why } => {
                let Some(own) = step(&key).and_then(|at| self.steps.get_mut(at)) else { return };
                own.left_out = Some(why);
            }
            BatchEvent::Seen { step: key, there, .. } => {
                let Some(own) = step(&key).and_then(|at| self.steps.get_mut(at)) else { return };
                own.sign = Some(there);
            }
            BatchEvent::Read { c, by } => self.reads.push(TemperatureRead { at, c, by }),
            BatchEvent::TimerSet { name, min } => {
                let ms = (60_000.0 * min).round().clamp(0.0, 1e12) as i64;
                let rings = at.saturating_add(jiff::SignedDuration::from_millis(ms)).unwrap_or(at);
                self.timers.push(Timer { id: entry.id.clone(), name, set: at, rings });
            }
            BatchEvent::Yielded { grams } => self.yielded_g = Some(grams),
            BatchEvent::Judged { came, words, .. } => self.came = Some((came, words)),
            BatchEvent::Put { place } => self.stands_in = Some(place),
            BatchEvent::LeftOver { grams } => self.left_over_g = Some(grams),
            BatchEvent::UsedUp {} => (self.stands_in, self.left_over_g) = (None, Some(0.0)),
            BatchEvent::Closed {} => self.closed = Some(at),
            BatchEvent::Tared { .. }
            | BatchEvent::Tested { .. }
            | BatchEvent::Counted { .. }
            | BatchEvent::Noted { .. }
            | BatchEvent::TimerOff { .. }
            | BatchEvent::Corrected { .. }
            | BatchEvent::TakenBack { .. } => {}
        }
    }

    /// So much of everything that is in goes.
    fn lose(&mut self, grams: f64) {
        let all = self.in_g();
        if all <= 0.0 {
            return;
        }
        let left = (1.0 - grams / all).max(0.0);
        for own in &mut self.lines {
            own.in_g = hundredths(own.in_g * left);
        }
        for own in &mut self.added {
            own.grams = hundredths(own.grams * left);
        }
    }
}
