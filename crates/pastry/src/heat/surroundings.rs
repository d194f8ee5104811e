//! What something stands in: the bench, a fridge, iced water; how warm that is and how well it takes heat.

use crate::code::codes;
use serde::Deserialize;
use std::collections::HashMap;
use std::sync::LazyLock;

codes! {
    /// What something stands in while it cools or warms.
    Surroundings {
        /// Still air of the room, on a solid top.
        Bench = "bench",
        /// Moved air of the room.
        Draught = "draught",
        /// A fridge without a fan.
        Fridge = "fridge",
        /// A fridge with a fan.
        FanFridge = "fan_fridge",
        /// A blast chiller.
        Blast = "blast",
        /// A blast freezer.
        HardBlast = "hard_blast",
        /// A freezer without a fan.
        Freezer = "freezer",
        /// A freezer with a fan.
        FanFreezer = "fan_freezer",
        /// Iced water.
        IceBath = "ice_bath",
        /// Over warm water.
        WaterBath = "water_bath",
        /// In the microwave, in bursts, stirred between them.
        Microwave = "microwave",
    }
}

/// How it gives or takes heat.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum By {
    /// All round, as air.
    Air,
    /// Through the wall that stands in it, as water; what is above stands in the room.
    Water,
    /// From inside.
    Waves,
}

/// What is known of it.
#[derive(Debug, Clone, PartialEq, Deserialize)]
pub struct Known {
    /// Which.
    pub place: Surroundings,
    /// "in the fridge".
    pub words: String,
    /// How it gives or takes heat.
    pub by: By,
    /// How warm it is, °C; the room's where none.
    pub air_c: Option<f64>,
    /// Least heat transfer, W/(m² K).
    pub h_low: f64,
    /// Usual.
    pub h: f64,
    /// Most.
    pub h_high: f64,
    /// Convective part of it.
    pub convection: f64,
    /// Humidity of its air, 0 to 1.
    pub humidity: f64,
    /// Share of the heat transfer that is left below: half on a solid top.
    pub foot: f64,
    /// Whether something can be left in it.
    pub stays: bool,
    /// Where it is from.
    pub source: String,
}

static KNOWN: LazyLock<HashMap<Surroundings, Known>> = LazyLock::new(|| {
    csv::Reader::from_reader(include_str!("../../data/surroundings.csv").as_bytes())
        .deserialize()
        .map(|row| {
            let row: Known = row.expect("the table of surroundings is well formed");
            (row.place, row)
        })
        .collect()
});

impl Surroundings {
    /// What is known of it.
    pub fn known(self) -> &'static Known {
        KNOWN.get(&self).expect("all surroundings are known")
    }

    /// "in the fridge".
    pub fn words(self) -> &'static str {
        &self.known().words
    }

    /// Least, usual and most heat transfer, W/(m² K). Iced water that is stirred with what stands in it takes three times as
    /// much.
    pub fn transfer(self, stirred: bool) -> [f64; 3] {
        let own = self.known();
        match self {
            Surroundings::IceBath if stirred => [400.0, 600.0, 1000.0],
            _ => [own.h_low, own.h, own.h_high],
        }
    }

    /// How warm it is in a room, °C.
    pub fn air_c(self, room_c: f64) -> f64 {
        self.known().air_c.unwrap_or(room_c)
    }

    /// Whether it freezes what stands in it.
    pub fn freezes(self) -> bool {
        self.known().air_c.is_some_and(|t| t < -5.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_place_is_known_and_its_band_in_order() {
        for place in Surroundings::ALL {
            let own = place.known();
            assert!(!own.source.is_empty() && own.words.len() > 4, "{place}");
            for stirred in [false, true] {
                let [low, usual, high] = place.transfer(stirred);
                assert!(0.0 < low && low < usual && usual < high, "{place}");
            }
            assert!((0.0..=1.0).contains(&own.humidity) && own.convection <= own.h, "{place}");
        }
    }
}
