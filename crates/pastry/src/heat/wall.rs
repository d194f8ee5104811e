//! What a wall is made of, and what lies on top.

use crate::code::codes;
use serde::Deserialize;
use serde::de::DeserializeOwned;
use std::collections::HashMap;
use std::hash::Hash;
use std::sync::LazyLock;

codes! {
    /// What a wall is made of.
    Wall {
        /// No wall.
        Nothing = "none",
        /// 1 mm of steel.
        Steel = "steel",
        /// 1.5 mm of aluminium.
        Aluminium = "aluminium",
        /// 4 mm of glass.
        Glass = "glass",
        /// 5 mm of ceramic.
        Ceramic = "ceramic",
        /// 2 mm of plastic.
        Plastic = "plastic",
        /// 3 mm of silicone.
        Silicone = "silicone",
        /// A strip of acetate.
        Acetate = "acetate",
        /// A closed cake box, with the air in it.
        Card = "card",
    }
}

#[derive(Debug, Clone, Deserialize)]
pub(super) struct WallRow {
    wall: Wall,
    pub(super) words: Option<String>,
    pub(super) resistance: f64,
    pub(super) capacity: f64,
    pub(super) kg_m2: f64,
}

/// A table of the data, by key.
pub(super) fn table<K: Hash + Eq, T: DeserializeOwned>(text: &str, key: impl Fn(&T) -> K) -> HashMap<K, T> {
    csv::Reader::from_reader(text.as_bytes())
        .deserialize()
        .map(|row| {
            let row: T = row.expect("a table of vessels is well formed");
            (key(&row), row)
        })
        .collect()
}

static WALLS: LazyLock<HashMap<Wall, WallRow>> =
    LazyLock::new(|| table(include_str!("../../data/walls.csv"), |row: &WallRow| row.wall));

impl Wall {
    pub(super) fn row(self) -> &'static WallRow {
        &WALLS[&self]
    }

    /// Heat capacity of what it is made of, J/(kg K).
    pub fn capacity(self) -> f64 {
        WALLS[&self].capacity
    }
}
