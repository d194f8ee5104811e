//! What a coat, a glaze or a drip comes on.

use crate::code::codes;
use crate::heat::enthalpy::HeatShares;
use crate::heat::material::{MadeOf, Material, Solutes};

codes! {
    /// What a coat, a glaze or a drip comes on.
    Underneath {
        /// Bare sponge.
        Sponge = "sponge",
        /// A cake masked in buttercream.
        Masked = "masked",
        /// A mousse.
        Mousse = "mousse",
    }
}

/// A butter sponge, by what is usually in it, and its air (assumed).
pub const SPONGE: HeatShares = HeatShares {
    water: 0.25,
    protein: 0.06,
    sugar: 0.28,
    starch: 0.21,
    fibre: 0.008,
    ash: 0.012,
    alcohol: 0.0,
    cocoa_fat: 0.0,
    milk_fat: 0.16,
    lauric_fat: 0.0,
    oil: 0.02,
};
/// Air of it.
pub const SPONGE_AIR: f64 = 0.58;

/// What is under a coat, by what is usually in it (assumed). Its fat is counted as on the way down: were it to melt it would take up
/// more, and a drip would be told to stand sooner than cooks see it stand.
pub(super) fn underneath(what: Underneath) -> (Material, Option<Material>) {
    let made = |shares: HeatShares, air: f64, fat_outside: bool| {
        let solutes = Solutes::lumped(&shares, 342.3);
        Material::new(&MadeOf { shares, air, fat_outside, solutes, cooling: true })
    };
    let sponge = SPONGE;
    let mask = HeatShares {
        water: 0.21,
        protein: 0.021,
        sugar: 0.33,
        ash: 0.004,
        milk_fat: 0.435,
        ..HeatShares::default()
    };
    let mousse = HeatShares {
        water: 0.64,
        protein: 0.025,
        sugar: 0.185,
        fibre: 0.01,
        ash: 0.005,
        milk_fat: 0.135,
        ..HeatShares::default()
    };
    match what {
        Underneath::Sponge => (made(sponge, SPONGE_AIR, false), None),
        Underneath::Masked => (made(sponge, SPONGE_AIR, false), Some(made(mask, 0.25, false))),
        Underneath::Mousse => (made(mousse, 0.4, false), None),
    }
}
