//! Gear: what stands on a method's list, and what of the kitchen it takes while it is used.

use crate::code::codes;
use serde::Deserialize;
use std::collections::HashMap;
use std::sync::LazyLock;

codes! {
    /// What a step is done with.
    Gear {
        /// A bowl.
        Bowl = "bowl",
        /// A brush.
        Brush = "brush",
        /// Film.
        Film = "film",
        /// A fridge.
        Fridge = "fridge",
        /// A freezer.
        Freezer = "freezer",
        /// A bowl in iced water.
        IceBath = "ice bath",
        /// A jug.
        Jug = "jug",
        /// A knife.
        Knife = "knife",
        /// A microwave oven.
        Microwave = "microwave",
        /// A mould.
        Mould = "mould",
        /// The flat beater of a mixer.
        Paddle = "paddle",
        /// A pan on the hob.
        Pan = "pan",
        /// A probe.
        Probe = "probe",
        /// A rack.
        Rack = "rack",
        /// A scale.
        Scale = "scale",
        /// A sieve.
        Sieve = "sieve",
        /// A spatula.
        Spatula = "spatula",
        /// A stick blender.
        StickBlender = "stick blender",
        /// A tin.
        Tin = "tin",
        /// A tray.
        Tray = "tray",
        /// A bowl over hot water.
        WaterBath = "water bath",
        /// A whisk: in the hand, or in a mixer.
        Whisk = "whisk",
    }
}

codes! {
    /// What a kitchen has so many of, and a step takes while it runs.
    Resource {
        /// A mixer.
        Mixer = "mixer",
        /// A place on the hob.
        Hob = "hob",
        /// The oven.
        Oven = "oven",
        /// The microwave oven.
        Microwave = "microwave",
        /// The stick blender.
        Blender = "blender",
        /// The fridge.
        Fridge = "fridge",
        /// The freezer.
        Freezer = "freezer",
        /// Ice.
        Ice = "ice",
    }
}

/// A row of `data/gear.csv`.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
struct Row {
    gear: Gear,
    resource: Option<Resource>,
}

static TABLE: LazyLock<HashMap<Gear, Option<Resource>>> = LazyLock::new(|| {
    csv::Reader::from_reader(include_str!("../../data/gear.csv").as_bytes())
        .deserialize()
        .map(|row| {
            let row: Row = row.expect("the table of gear is well formed");
            (row.gear, row.resource)
        })
        .collect()
});

impl Gear {
    /// What of the kitchen it takes; none for what there is enough of.
    pub fn resource(self) -> Option<Resource> {
        TABLE.get(&self).copied().flatten()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_gear_has_its_row() {
        for gear in Gear::ALL {
            assert!(TABLE.contains_key(gear), "{gear} has no row in gear.csv");
        }
        assert_eq!(Gear::WaterBath.resource(), Some(Resource::Hob));
        assert_eq!(Gear::Spatula.resource(), None);
    }
}
