//! Whether it may stand in the room: by water activity and pH, and by what the trade does; the stricter of the two. Never
//! instead of a food-safety plan: the local code rules.
//!
//! Limits of FDA Food Code 2022, 1-201.10(B), table B (from memory): what is not heat-treated and packed. A combination
//! that asks for an assessment of the product counts as food that must be kept cold.

use crate::formula::acidity::SIGMA_PH;

/// Standard deviation of a water activity worked out.
const SIGMA_AW: f64 = 0.015;

/// Whether something may stand in the room.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Room {
    /// It may, with room for what is not known.
    May,
    /// By the numbers it may, just: measure, or treat it as hours.
    Check,
    /// Hours only.
    Hours,
    /// Not at all: raw egg.
    Not,
}

/// Whether food of this water activity and pH must be kept cold (table B).
pub fn must_be_cold(aw: f64, ph: f64) -> bool {
    match aw {
        aw if aw < 0.88 => false,
        aw if aw <= 0.90 => ph > 5.0,
        aw if aw <= 0.92 => ph > 4.6,
        _ => ph >= 4.2,
    }
}

impl Room {
    /// From its water activity and pH.
    pub fn of(aw: f64, ph: f64, raw_egg: bool) -> Self {
        match () {
            () if raw_egg => Room::Not,
            () if !must_be_cold(aw + SIGMA_AW, ph + SIGMA_PH) => Room::May,
            () if !must_be_cold(aw, ph) => Room::Check,
            () => Room::Hours,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn creams_stand_as_the_table_has_them() {
        // Water activity and pH worked out of ordinary formulas; what the trade does in brackets.
        for (what, aw, ph, room) in [
            ("American buttercream (out)", 0.83, 6.4, Room::May),
            ("Swiss buttercream (a day; hours here)", 0.89, 7.9, Room::Hours),
            ("ganache 1:1 (cold)", 0.945, 5.9, Room::Hours),
            ("ganache 2:1 (out)", 0.87, 5.7, Room::Check),
            ("white ganache 2:1 (out)", 0.85, 6.0, Room::May),
            ("lemon curd (cold)", 0.96, 3.3, Room::May),
            ("cream-cheese frosting (hours)", 0.89, 4.7, Room::Check),
            ("whipped cream (cold)", 0.98, 6.6, Room::Hours),
        ] {
            assert_eq!(Room::of(aw, ph, false), room, "{what}");
        }
        assert_eq!(Room::of(0.70, 3.0, true), Room::Not);
    }

    #[test]
    fn wetter_or_less_sour_is_never_safer() {
        for aw in (60..100).map(|k| 0.01 * f64::from(k)) {
            for ph in (20..80).map(|k| 0.1 * f64::from(k)) {
                assert!(Room::of(aw + 0.01, ph, false) >= Room::of(aw, ph, false), "{aw} {ph}");
                assert!(Room::of(aw, ph + 0.1, false) >= Room::of(aw, ph, false), "{aw} {ph}");
            }
        }
    }
}
