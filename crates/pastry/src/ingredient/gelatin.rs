//! What a gelatin is made of, where it matters: fish gelatin melts and sets colder than that of mammals.

use crate::ingredient::composition::Part;
use crate::ingredient::item::Ingredient;
use crate::ingredient::origin::Origin;

/// A kind of gelatin.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum GelatinKind {
    /// Pork or beef.
    Mammal,
    /// Fish of warm water, as tilapia.
    WarmWaterFish,
    /// Fish of cold water, as cod.
    ColdWaterFish,
}

impl GelatinKind {
    /// Whether it is of fish.
    pub fn is_fish(self) -> bool {
        self != GelatinKind::Mammal
    }

    /// How far below its melting it sets, K (hysteresis: GMIA Gelatin Handbook, from memory).
    pub fn sets_below_k(self) -> f64 {
        match self {
            GelatinKind::Mammal => 5.0,
            GelatinKind::WarmWaterFish | GelatinKind::ColdWaterFish => 7.0,
        }
    }

    /// How much earlier than that of mammals it melts, K (Gilsenan & Ross-Murphy 2000 order, from memory).
    pub fn melts_earlier_k(self) -> f64 {
        match self {
            GelatinKind::Mammal => 0.0,
            GelatinKind::WarmWaterFish => 4.0,
            GelatinKind::ColdWaterFish => 15.0,
        }
    }
}

impl Ingredient {
    /// The kind of its gelatin; none when it has none. Fish is of warm water unless the table says cold.
    pub fn gelatin_kind(&self) -> Option<GelatinKind> {
        (self.composition.get(Part::Gelatin) > 0.0).then(|| match () {
            () if self.flags.cold_water_fish => GelatinKind::ColdWaterFish,
            () if self.origins.contains(&Origin::Fish) => GelatinKind::WarmWaterFish,
            () => GelatinKind::Mammal,
        })
    }
}
