//! The store on a real file.

// Helpers of tests say what they do by name, and stop at once when something is amiss.
#![allow(missing_docs, clippy::unwrap_used)]

mod audit;
mod components;
mod copies;
mod devices;
mod full;
mod histories;
mod ingredients;
mod journal;
mod kitchen;
mod log;
mod opening;
mod orders;
mod pictures;
mod saves;

use pastry::assess::FormulaDocument;
use store::{By, SaveId, Store};
use tempfile::TempDir;
use uuid::Uuid;

pub async fn fresh() -> (TempDir, Store) {
    let dir = tempfile::tempdir().unwrap();
    let store = Store::open(&dir.path().join("kitchen.db")).await.unwrap();
    (dir, store)
}

pub fn document(name: &str, amount: &str) -> FormulaDocument {
    let text = format!(
        r#"{{"format":"bright-spoon/formula","version":1,"name":"{name}","family":"ganache",
            "lines":[{{"ingredient":"dark60","amount":"{amount}"}},{{"ingredient":"cream36","amount":"1 cup"}}],
            "work":{{"job":{{"kind":"drip"}},"temperature_c":29,"room_temperature_c":21}}}}"#
    );
    serde_json::from_str(&text).unwrap()
}

/// A save at noon, by nobody named.
pub fn noon() -> By {
    By::at("2026-01-05T12:00:00Z".parse().unwrap())
}

/// The same under the id of a save.
pub fn under(id: &str) -> By {
    noon().under(SaveId::read(id))
}

pub fn new_key() -> String {
    Uuid::now_v7().to_string()
}
