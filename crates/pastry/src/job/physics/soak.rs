//! How deep a sponge drinks.

/// Permeability and capillarity of a sponge lumped, m²: 10 mm in 30 s at 2.3 mPa·s (assumed).
pub const SPONGE: f64 = 7.5e-9;

/// Depth reached in `seconds`, mm: √(A t/η), Washburn 1921 with its constants lumped in A.
pub fn depth_mm(viscosity: f64, seconds: f64) -> f64 {
    1e3 * (SPONGE * seconds / viscosity).sqrt()
}

/// Viscosity with which `depth_mm` is reached in `seconds`, Pa·s.
pub fn viscosity_for(depth_mm: f64, seconds: f64) -> f64 {
    SPONGE * seconds / (1e-3 * depth_mm).powi(2)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_viscosity_for_a_depth_reaches_it() {
        assert!((depth_mm(viscosity_for(12.0, 90.0), 90.0) - 12.0).abs() < 1e-9);
        assert!((depth_mm(2.3e-3, 30.0) - 9.9).abs() < 0.1);
    }
}
