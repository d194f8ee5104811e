//! How long what was made keeps: defaults of the trade, never instead of a food-safety plan.

use crate::formula::{Family, WeighedLine};
use crate::units::{Hours, Minutes};
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
    /// How long in the room, minutes; 0 for not at all.
    pub room_min: Minutes,
    /// On what that hangs.
    pub room_if: Option<RoomIf>,
    /// Days at or below 5 °C, counted from the day it was made.
    pub cold_days: i64,
    /// Days frozen; none where it suffers.
    pub freeze_days: Option<i64>,
    /// Hours it is as good as fresh, for who orders the day; none where there is no end to it.
    pub grace_h: Option<Hours>,
    /// Where it is from.
    pub source: String,
}

/// What must hold before it may stand in the room.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum RoomIf {
    /// Its egg reached 71 °C.
    #[serde(rename = "egg_71")]
    Egg71,
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
        self.room_min.minutes() >= 1440.0
    }

    /// How long in the room, in words; none for not at all.
    pub fn room(&self) -> Option<String> {
        let minutes = self.room_min.minutes();
        let span = match minutes {
            m if m <= 0.0 => return None,
            m if m < 45.0 => "half an hour".to_owned(),
            m if m < 90.0 => "an hour".to_owned(),
            m if m < 1440.0 => format!("{:.0} hours", m / 60.0),
            m if m < 2160.0 => "a day".to_owned(),
            m => format!("{:.0} days", m / 1440.0),
        };
        Some(match self.room_if {
            Some(RoomIf::Egg71) => format!("{span} when its egg reached 71 °C"),
            None => span,
        })
    }
}

/// Days it keeps in the cold: those of its family, or of what keeps shortest of all that was made before and goes into it.
pub fn cold_days(family: Family, lines: &[WeighedLine]) -> i64 {
    let made =
        lines.iter().filter(|line| line.mass.grams() > 0.0).filter_map(|line| line.ingredient.made.as_ref());
    made.map(|made| made.cold_days).fold(keeping(family).cold_days, i64::min)
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
            let own = keeping(*family);
            assert!(own.cold_days >= 1, "{family:?}");
            // Nobody is told to leave out for longer than it keeps cold.
            assert!(own.room_min.minutes() <= 1440.0 * own.cold_days as f64, "{family:?}");
            assert!(
                own.grace_h.is_none_or(|grace| grace.hours() <= 24.0 * own.cold_days as f64),
                "{family:?}"
            );
        }
        assert_eq!(keeping(Family::WhippedCream).room().as_deref(), Some("half an hour"));
        assert_eq!(keeping(Family::PastryCream).room(), None);
        let swiss = keeping(Family::SwissButtercream).room();
        assert_eq!(swiss.as_deref(), Some("a day when its egg reached 71 °C"));
    }
}
