//! The cook's own bowls, by name: what each weighs was read once, and holds in every batch.

use crate::batch::event::{BatchEntry, BatchEvent};
use crate::batch::fold::counting;
use jiff::Timestamp;
use serde::Serialize;
use std::collections::HashMap;
use utoipa::ToSchema;

/// A bowl of the cook's own.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct OwnBowl {
    /// Its name.
    pub name: String,
    /// What it weighs, g.
    pub grams: f64,
}

/// The bowls that were weighed in some batches, by name: what was read last counts, whichever batch it was read in. One that was
/// last said to weigh nothing is there no more.
///
/// # Arguments
/// * `batches`: the events of each.
pub fn own_bowls<'a>(batches: impl IntoIterator<Item = &'a [BatchEntry]>) -> Vec<OwnBowl> {
    let mut last: HashMap<String, (Timestamp, f64)> = HashMap::new();
    let with_bowls = |own: &&[BatchEntry]| {
        own.iter().any(|entry| matches!(entry.event, BatchEvent::Tared { bowl: Some(_), .. }))
    };
    for entry in batches.into_iter().filter(with_bowls).flat_map(counting) {
        let BatchEvent::Tared { grams, bowl: Some(name) } = entry.event else { continue };
        let own = last.entry(name.trim().to_owned()).or_insert((entry.at, grams));
        if entry.at >= own.0 {
            *own = (entry.at, grams);
        }
    }
    let there = last.into_iter().filter(|(name, (_, grams))| *grams > 0.0 && !name.is_empty());
    let mut all: Vec<OwnBowl> = there.map(|(name, (_, grams))| OwnBowl { name, grams }).collect();
    all.sort_by(|a, b| a.name.cmp(&b.name));
    all
}
