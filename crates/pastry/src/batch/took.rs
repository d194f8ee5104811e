//! How long the steps of a batch took, and what this kitchen's own minutes are then.

use crate::batch::document::BatchDocument;
use crate::batch::event::{BatchEntry, BatchEvent};
use crate::batch::fold::counting;
use crate::day::kitchen::OwnMinutes;
use crate::method::listed::listed;
use crate::method::school::schools_of;
use crate::method::step::Worker;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, HashMap};
use utoipa::ToSchema;

/// So many batches there must be before their minutes are the kitchen's own.
pub const ENOUGH: usize = 5;
/// So many of the last ones are looked at.
pub const LAST: usize = 40;
/// This part of the batches were quicker: a plan that holds four times in five (assumed).
const SHARE: f64 = 0.8;
/// A step that is said to have taken less than this of what was planned, or more than so many times of it, was told late, or
/// forgotten: nobody learns from it (assumed).
const BELIEVED: [f64; 2] = [0.1, 6.0];

/// How long a step took.
#[derive(Debug, Clone, PartialEq)]
pub struct StepTook {
    /// Key of its school.
    pub school: String,
    /// Key of the step.
    pub step: String,
    /// Times what was planned at its size.
    pub times: f64,
}

/// How long the steps of a batch took at which somebody or something works: those that were said to begin and to be done.
pub fn took(batch: &BatchDocument, entries: &[BatchEntry]) -> Vec<StepTook> {
    let formula = &batch.formula;
    let usual = || schools_of(formula.family).next().map(|own| own.id.as_str());
    let Some(school) = formula.method.as_deref().or_else(usual) else { return Vec::new() };
    let mut begun: HashMap<&str, Timestamp> = HashMap::new();
    let mut done: HashMap<&str, Timestamp> = HashMap::new();
    let counts = counting(entries);
    for own in &counts {
        match &own.event {
            // Begun twice, it was begun when it was begun first.
            BatchEvent::Begun { step } => {
                begun.entry(step).or_insert(own.at);
            }
            BatchEvent::Done { step } => {
                done.insert(step, own.at);
            }
            _ => {}
        }
    }
    let one = |step: &crate::batch::document::BatchStep| {
        let (from, to) = (*begun.get(step.key.as_str())?, *done.get(step.key.as_str())?);
        let minutes = to.duration_since(from).as_secs_f64() / 60.0;
        let times = minutes / step.minutes[1].max(0.25);
        let believed = step.kind != Worker::Wait && (BELIEVED[0]..=BELIEVED[1]).contains(&times);
        believed.then(|| StepTook { school: school.to_owned(), step: step.key.clone(), times })
    };
    batch.steps.iter().filter_map(one).collect()
}

/// A step of a school as this kitchen's batches took it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TookMinutes {
    /// The minutes: whatever the size, and more for each kilogram.
    #[serde(flatten)]
    pub own: OwnMinutes,
    /// Name of the school.
    pub name: String,
    /// What is done.
    pub what: String,
    /// What is usual.
    pub usual: [f64; 2],
    /// From so many batches.
    pub batches: usize,
}

/// The 80th percentile of some numbers: the smallest that as many are no larger than.
pub fn percentile(all: &[f64]) -> Option<f64> {
    let mut sorted = all.to_vec();
    sorted.sort_by(f64::total_cmp);
    let at = (SHARE * sorted.len() as f64).ceil() as usize;
    sorted.get(at.max(1) - 1).copied()
}

/// What steps take in this kitchen, of those that enough batches tell.
///
/// # Arguments
/// * `all`: school, step and times what was planned, of the last batches, the newest first.
pub fn took_minutes(all: impl IntoIterator<Item = (String, String, f64)>) -> Vec<TookMinutes> {
    let mut by_step: BTreeMap<(String, String), Vec<f64>> = BTreeMap::new();
    for (school, step, times) in all {
        let own = by_step.entry((school, step)).or_default();
        if own.len() < LAST {
            own.push(times);
        }
    }
    let schools = listed();
    let find = |school: &str, step: &str| {
        let of = schools.iter().find(|own| own.school == school)?;
        let own = of.steps.iter().find(|own| own.step == step)?;
        Some((of.name.clone(), own.what.clone(), own.minutes))
    };
    by_step
        .into_iter()
        .filter(|(_, all)| all.len() >= ENOUGH)
        .filter_map(|((school, step), all)| {
            let times = percentile(&all)?;
            // A step of what is made first stands behind the key of its own school.
            let within = || step.split_once('.').and_then(|(base, step)| find(base, step));
            let (name, what, usual) = find(&school, &step).or_else(within)?;
            let minutes = usual.map(|own| (10.0 * own * times).round() / 10.0);
            let own = OwnMinutes { school, step, minutes };
            Some(TookMinutes { own, name, what, usual, batches: all.len() })
        })
        .collect()
}
