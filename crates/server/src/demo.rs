//! The invented kitchen: one pastry room, its own creams, in a throwaway file.

use jiff::{SignedDuration, Timestamp};
use pastry::job::FormulaDocument;
use pastry::units::Temperature;
use rust_embed::RustEmbed;
use store::{Store, StoreError};
use uuid::Uuid;

#[derive(RustEmbed)]
#[folder = "demo"]
struct Files;

/// The invented creams, in the order of their files.
///
/// # Errors
/// When a file is no formula; the tests read them all.
pub fn documents() -> Result<Vec<FormulaDocument>, serde_json::Error> {
    let mut names: Vec<_> = Files::iter().filter(|name| name.ends_with(".json")).collect();
    names.sort();
    names
        .iter()
        .map(|name| serde_json::from_slice(&Files::get(name).expect("listed a moment ago").data))
        .collect()
}

/// Fills an empty store. `now` dates the newest; the others are a day older each.
///
/// # Errors
/// When the file fails.
pub async fn fill(store: &Store, now: Timestamp) -> Result<(), StoreError> {
    let mut kitchen = store.kitchen().await?;
    kitchen.name = "Lantern Street pastry room".to_owned();
    kitchen.room_temperature_c = Temperature::from_celsius(21.5);
    store.save_kitchen(&kitchen).await?;
    for (days, document) in documents()?.iter().enumerate() {
        let saved_at = now - SignedDuration::from_hours(24 * days as i64);
        store.create_component(Uuid::now_v7(), document, saved_at).await?;
    }
    Ok(())
}
