//! How long what was made keeps: defaults of the trade, never instead of a food-safety plan.

use crate::formula::Family;
use serde::Deserialize;
use std::collections::HashMap;
use std::sync::LazyLock;

/// Days in the cold for anything with raw egg in it.
pub const RAW_EGG_DAYS: i64 = 1;

/// How a family keeps.
#[derive(Debug, Clone, PartialEq, Deserialize)]
pub struct Keeping {
    /// The family.
    pub family: Family,
    /// How it is covered.
    pub cover: String,
    /// How long in the room, in words; empty for not at all.
    pub room: String,
    /// Days at or below 5 °C, counted from the day it was made.
    pub cold_days: i64,
    /// Days frozen; none where it suffers.
    pub freeze_days: Option<i64>,
    /// Where it is from.
    pub source: String,
}

static KEEPING: LazyLock<HashMap<Family, Keeping>> = LazyLock::new(|| {
    csv::Reader::from_reader(include_str!("../../data/keeping.csv").as_bytes())
        .deserialize()
        .map(|row| {
            let row: Keeping = row.expect("the table of keeping is well formed");
            (row.family, row)
        })
        .collect()
});

impl Keeping {
    /// Whether it may stand in the room overnight; what may not has hours in the room, or none.
    pub fn stands_overnight(&self) -> bool {
        self.room.starts_with("a day")
    }
}

/// How a family keeps.
pub fn keeping(family: Family) -> &'static Keeping {
    KEEPING.get(&family).expect("every family has its keeping")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_family_keeps_a_day_at_least() {
        for family in Family::ALL {
            assert!(keeping(*family).cold_days >= 1, "{family:?}");
        }
    }
}
