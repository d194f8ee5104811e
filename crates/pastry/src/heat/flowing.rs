//! Thin liquids that nobody stirs move by themselves, and carry heat as they do.

/// Change of density by a kelvin, 1/K: of water and syrups about room temperature (assumed).
const EXPANDS: f64 = 4e-4;
/// How much a liquid's own movement can add.
const MOST: f64 = 20.0;
/// A yield stress over this share of what drives it holds it still (after Balmforth & Rust 2009, from memory).
const HOLDS: f64 = 0.01;

/// A liquid, and what drives it.
#[derive(Debug, Clone, Copy)]
pub struct Liquid {
    /// Kelvin between its middle and its wall.
    pub away_k: f64,
    /// How high it stands, m.
    pub high_m: f64,
    /// Viscosity, Pa·s.
    pub viscosity: f64,
    /// Yield stress, Pa.
    pub yield_stress: f64,
    /// Density, kg/m³.
    pub density: f64,
    /// Heat capacity, J/(kg K).
    pub capacity: f64,
    /// Conductivity, W/(m K).
    pub conducts: f64,
}

/// How many times as well it carries heat as were it still: 0.2 Ra^0.25, 1 to 20 (assumed, low confidence; form after Catton), 1
/// where its yield stress holds it.
pub fn carries(liquid: &Liquid) -> f64 {
    let Liquid { away_k, high_m, viscosity, yield_stress, density, capacity, conducts } = *liquid;
    let drive = density * 9.81 * EXPANDS * away_k * high_m;
    if drive <= 0.0 || yield_stress > HOLDS * drive {
        return 1.0;
    }
    let rayleigh = density * capacity * drive * high_m * high_m / (viscosity * conducts);
    (0.2 * rayleigh.powf(0.25)).clamp(1.0, MOST)
}
