//! The invented kitchen: one pastry room, its own creams and ingredients, in a throwaway file.

use jiff::{SignedDuration, Timestamp};
use pastry::ingredient::table::{Reading, from_csv};
use pastry::job::FormulaDocument;
use pastry::units::RoomTemperature;
use rust_embed::RustEmbed;
use std::collections::HashMap;
use store::library::Place;
use store::{Store, StoreError};
use uuid::Uuid;

#[derive(RustEmbed)]
#[folder = "demo"]
struct Files;

fn text(name: &str) -> String {
    let file = Files::get(name).expect("the demo kitchen is inside the program");
    String::from_utf8_lossy(&file.data).into_owned()
}

/// Names of the formula files, without ending, in order.
fn names() -> Vec<String> {
    let mut names: Vec<String> =
        Files::iter().filter_map(|name| name.strip_suffix(".json").map(str::to_owned)).collect();
    names.sort();
    names
}

/// The invented creams, in the order of their files.
///
/// # Errors
/// When a file is no formula; the tests read them all.
pub fn documents() -> Result<Vec<FormulaDocument>, serde_json::Error> {
    names().iter().map(|name| serde_json::from_str(&text(&format!("{name}.json")))).collect()
}

/// The ingredients of the kitchen's own.
pub fn ingredients() -> Reading {
    from_csv(&text("pantry.csv")).expect("the demo pantry is a table of ingredients")
}

/// Tags by the name of the formula file.
fn tags() -> HashMap<String, Vec<String>> {
    text("library.csv")
        .lines()
        .skip(1)
        .filter_map(|line| line.split_once(','))
        .map(|(file, tags)| (file.to_owned(), tags.split(';').map(str::to_owned).collect()))
        .collect()
}

/// Fills an empty store. `now` dates the newest; the others are a day older each.
///
/// # Errors
/// When the file fails.
pub async fn fill(store: &Store, now: Timestamp) -> Result<(), StoreError> {
    let mut kitchen = store.kitchen().await?;
    kitchen.name = "Lantern Street pastry room".to_owned();
    kitchen.room_temperature_c = RoomTemperature::from_celsius(21.5);
    store.save_kitchen(&kitchen).await?;
    let own: Vec<_> = ingredients().good.into_iter().map(|document| (document, 0)).collect();
    store.save_own_ingredients(&own, now).await?;
    let tags = tags();
    for (days, (name, document)) in names().iter().zip(documents()?).enumerate() {
        let saved_at = now - SignedDuration::from_hours(24 * days as i64);
        let id = store.create_component(Uuid::now_v7(), &document, saved_at).await?.id;
        if let Some(tags) = tags.get(name) {
            store.place_component(&id, &Place { tags: tags.clone(), archived: false }).await?;
        }
    }
    Ok(())
}
