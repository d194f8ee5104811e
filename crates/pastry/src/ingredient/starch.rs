//! What a starch is of: where it swells.

use crate::code::codes;

codes! {
    /// What a starch is of.
    StarchKind {
        /// Maize, and custard powder.
        Corn = "corn",
        /// Wheat, and flour.
        Wheat = "wheat",
        /// Rice.
        Rice = "rice",
        /// Cassava.
        Tapioca = "tapioca",
        /// Potato.
        Potato = "potato",
    }
}

impl StarchKind {
    /// Where it begins to swell in water and where it is fully swollen, °C (order of RVA and Brabender curves, from memory;
    /// checked against `tests/it/data/starch_pasting.csv`).
    pub fn swells_c(self) -> [f64; 2] {
        match self {
            StarchKind::Corn => [70.0, 88.0],
            StarchKind::Wheat => [66.0, 88.0],
            StarchKind::Rice => [72.0, 90.0],
            StarchKind::Tapioca => [64.0, 80.0],
            StarchKind::Potato => [61.0, 78.0],
        }
    }
}

/// How much later it swells in a syrup, K: 0.20 s + 0.0045 s², `sugar` per cent of sugar and water (Spies & Hoseney 1982,
/// Bean & Yamazaki 1978, from memory).
pub fn later_k(sugar: f64) -> f64 {
    0.20 * sugar + 0.0045 * sugar * sugar
}
