//! What happened to a batch, as the kitchen kept it and as the batch counts it.

use crate::error::ApiError;
use jiff::{SignedDuration, Timestamp};
use pastry::batch::{BatchDocument, BatchEntry, BatchEvent};
use pastry::ingredient::Shelf;
use store::Store;
use store::batch::KeptBatchEvent;

/// A clock of a device that is further ahead than this is told, s.
const AHEAD_S: i64 = 120;

/// Kept events as the batch counts them, and devices whose clocks are ahead: nothing happened later than it came here.
pub fn entries(kept: &[KeptBatchEvent]) -> (Vec<BatchEntry>, Vec<String>) {
    let mut clocks: Vec<String> = Vec::new();
    let one = |own: &KeptBatchEvent| {
        let (at, came) = (own.at.parse::<Timestamp>(), own.kept_at.parse::<Timestamp>());
        let (at, came) = match (at, came) {
            (Ok(at), Ok(came)) => (at, came),
            (Ok(at), Err(_)) | (Err(_), Ok(at)) => (at, at),
            (Err(_), Err(_)) => (Timestamp::UNIX_EPOCH, Timestamp::UNIX_EPOCH),
        };
        if at.duration_since(came) > SignedDuration::from_secs(AHEAD_S) {
            let who = own.device.as_deref().unwrap_or("a device");
            let words = format!("The clock of {who} is ahead of the kitchen's: set it right.");
            if !clocks.contains(&words) {
                clocks.push(words);
            }
        }
        BatchEntry {
            id: own.id.clone(),
            at: at.min(came),
            device: own.device.clone(),
            event: own.event.clone(),
        }
    };
    let all = kept.iter().map(one).collect();
    (all, clocks)
}

/// Keys of what a batch is made of, and of what was added to it.
pub fn keys_of<'a>(
    batch: &'a BatchDocument,
    entries: impl Iterator<Item = &'a BatchEntry>,
) -> impl Iterator<Item = &'a str> {
    let added = entries.filter_map(|own| match &own.event {
        BatchEvent::Added { ingredient, .. } => Some(ingredient.as_str()),
        _ => None,
    });
    batch.formula.ingredient_keys().into_iter().chain(added)
}

/// The shelf that holds what a batch is made of, and what was added to it: what is made here as it was when the batch was begun.
///
/// # Arguments
/// * `key`: of the batch.
///
/// # Errors
/// When the file fails.
pub async fn shelf_of<'a>(
    store: &Store,
    key: &str,
    batch: &'a BatchDocument,
    entries: impl Iterator<Item = &'a BatchEntry>,
) -> Result<Shelf, ApiError> {
    Ok(store.shelf_of_batch(key, keys_of(batch, entries)).await?)
}
