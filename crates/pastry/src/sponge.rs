//! What a layer of sponge takes up of a syrup: by its pores, by its weight, and layer by layer.
//!
//! Capillary rise: Washburn 1921, x = √(r cos θ γ t/(2 η)), with the surface tension of syrup at 0.072 N/m.

use crate::code::codes;
use serde::{Deserialize, Serialize};
use std::sync::LazyLock;
use utoipa::ToSchema;

/// Surface tension of a syrup, N/m: that of water.
const TENSION: f64 = 0.072;
/// Share of the pores that fill (assumed).
const FILLED: f64 = 0.62;
/// The bottom layer bears the rest: it gets this share of its part.
const BOTTOM: f64 = 0.85;
/// More than this times drenched is too wet; less than this times light is dry.
const TOO_WET: f64 = 1.15;
const DRY: f64 = 0.7;

codes! {
    /// A kind of sponge, as it is soaked.
    SpongeKind {
        /// Egg foam and flour.
        Genoise = "genoise",
        /// Almonds, egg foam and a little flour.
        Joconde = "joconde",
        /// Piped fingers, dry and thirsty.
        Ladyfinger = "ladyfinger",
        /// Egg foam with oil.
        OilFoam = "oil_foam",
        /// Creamed butter and sugar.
        ButterCake = "butter_cake",
        /// Chocolate and oil, stirred.
        ChocolateOil = "chocolate_oil",
        /// Yeast dough made to be soaked.
        Savarin = "savarin",
        /// Crumbs pressed with butter.
        BiscuitBase = "biscuit_base",
        /// Nuts and meringue, dried.
        NutMeringue = "nut_meringue",
        /// Flour rubbed with butter, for shells.
        ShortCrust = "short_crust",
        /// Folded with butter in sheets.
        PuffPastry = "puff_pastry",
        /// Cooked paste that puffs up hollow.
        Choux = "choux",
        /// Almonds and meringue in small shells.
        AlmondShell = "almond_shell",
        /// Thin and dry, baked between irons.
        Wafer = "wafer",
        /// Butter, sugar and syrup that run out thin and set like glass.
        LaceBiscuit = "lace_biscuit",
    }
}

impl SpongeKind {
    /// What is known of it.
    pub fn sponge(self) -> &'static Sponge {
        &SPONGES[self as usize]
    }
}

/// A kind of sponge.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Sponge {
    /// Key.
    pub key: String,
    /// In kitchen words.
    pub word: String,
    /// Density as it is, kg/m³.
    #[serde(rename = "bulk_kg_m3")]
    pub bulk: f64,
    /// Density of its walls, kg/m³.
    #[serde(rename = "solid_kg_m3")]
    pub solid: f64,
    /// Syrup for a light soak, g per g of sponge.
    #[serde(rename = "light_g_per_g")]
    pub light: f64,
    /// For a moist one.
    #[serde(rename = "moist_g_per_g")]
    pub moist: f64,
    /// For a drenched one.
    #[serde(rename = "drenched_g_per_g")]
    pub drenched: f64,
    /// Pore radius times the cosine of wetting, m.
    #[serde(rename = "pore_m")]
    pub pore: f64,
    /// Standard deviation of ln of that (assumed): nobody measured it.
    pub pore_sigma_ln: f64,
    /// Where the numbers are from.
    pub source: String,
}

/// How wet a layer is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Wetness {
    /// Less than a light soak.
    Dry,
    /// Light.
    Light,
    /// Moist.
    Moist,
    /// Drenched, and still whole.
    Drenched,
    /// It will come apart.
    TooWet,
    /// More than its pores hold: a puddle.
    Pools,
}

static SPONGES: LazyLock<Vec<Sponge>> = LazyLock::new(|| {
    csv::Reader::from_reader(include_str!("../data/sponges.csv").as_bytes())
        .deserialize()
        .map(|row| row.expect("the table of sponges is well formed"))
        .collect()
});

/// All of them.
pub fn sponges() -> &'static [Sponge] {
    &SPONGES
}

impl Sponge {
    /// Share of it that is air, 0 to 1.
    pub fn porosity(&self) -> f64 {
        1.0 - self.bulk / self.solid
    }

    /// The most syrup of `density` kg/m³ its pores hold, g per g.
    pub fn capacity(&self, density: f64) -> f64 {
        FILLED * self.porosity() * density / self.bulk
    }

    /// How deep a syrup of `viscosity` Pa·s goes in `seconds`, m.
    pub fn depth(&self, viscosity: f64, seconds: f64) -> f64 {
        (TENSION * self.pore * seconds / (2.0 * viscosity)).sqrt()
    }

    /// Standard deviation of ln of that depth, for a viscosity known to `sigma_viscosity`.
    pub fn depth_sigma(&self, sigma_viscosity: f64) -> f64 {
        0.5 * self.pore_sigma_ln.hypot(sigma_viscosity)
    }

    /// Viscosity with which a syrup goes `depth` m deep in `seconds`, Pa·s.
    pub fn viscosity_for(&self, depth: f64, seconds: f64) -> f64 {
        TENSION * self.pore * seconds / (2.0 * depth * depth)
    }

    /// How long it takes to go `depth` m, s.
    pub fn time_to(&self, depth: f64, viscosity: f64) -> f64 {
        2.0 * viscosity * depth * depth / (TENSION * self.pore)
    }

    /// How deep `grams` of a syrup of `density` kg/m³ can wet `area_cm2` at most, m.
    pub fn wet_depth(&self, grams: f64, density: f64, area_cm2: f64) -> f64 {
        1e-3 * grams / (density * FILLED * self.porosity() * 1e-4 * area_cm2)
    }

    /// What so much syrup does to it, `density` kg/m³.
    pub fn wetness(&self, gram_per_gram: f64, density: f64) -> Wetness {
        let g = gram_per_gram;
        if g > self.capacity(density) {
            Wetness::Pools
        } else if g > TOO_WET * self.drenched {
            Wetness::TooWet
        } else if g < DRY * self.light {
            Wetness::Dry
        } else if g < 0.5 * (self.light + self.moist) {
            Wetness::Light
        } else if g < 0.5 * (self.moist + self.drenched) {
            Wetness::Moist
        } else {
            Wetness::Drenched
        }
    }
}

/// `total` g of syrup over layers of so many grams, the bottom one first: by weight, the bottom one a little
/// less. They add up to the total.
pub fn over_layers(total: f64, layers: &[f64]) -> Vec<f64> {
    let weight = |at: usize| layers[at] * if at == 0 && layers.len() > 1 { BOTTOM } else { 1.0 };
    let sum: f64 = (0..layers.len()).map(weight).sum();
    (0..layers.len()).map(|at| if sum > 0.0 { total * weight(at) / sum } else { 0.0 }).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_kind_has_its_row_in_its_place() {
        assert_eq!(SPONGES.len(), SpongeKind::ALL.len());
        for kind in SpongeKind::ALL {
            assert_eq!(kind.sponge().key, kind.word());
        }
    }

    #[test]
    fn the_viscosity_for_a_depth_reaches_it() {
        let sponge = SpongeKind::Genoise.sponge();
        assert!((sponge.depth(sponge.viscosity_for(0.012, 90.0), 90.0) - 0.012).abs() < 1e-12);
    }
}
