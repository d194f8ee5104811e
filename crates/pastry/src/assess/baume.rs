//! Degrees Baumé of a syrup from its degrees Brix.

/// Density of sucrose solutions at 20 °C, g/ml, at 0, 5, 10 … 85 °Bx. Plato's table in NBS Circular C440
/// (1942), from memory; the last two rows are extrapolated, past saturation.
const PLATO: [f64; 18] = [
    0.99823, 1.01785, 1.03814, 1.05917, 1.08096, 1.10356, 1.12698, 1.15128, 1.17645, 1.20254, 1.22957,
    1.25754, 1.28646, 1.31633, 1.34717, 1.37897, 1.41172, 1.44539,
];

/// Baumé, heavier than water: 145 − 145/SG at 20/20 °C (NBS Circular C440, from memory). `brix` 0 to 85.
pub fn baume(brix: f64) -> f64 {
    let place = (brix / 5.0).clamp(0.0, 17.0);
    let k = (place as usize).min(16);
    let density = PLATO[k] + (place - k as f64) * (PLATO[k + 1] - PLATO[k]);
    145.0 - 145.0 * PLATO[0] / density
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn thirty_baume_is_the_pastry_syrup_of_1350_g_sugar_to_a_litre() {
        // French pastry texts, from memory: 57.4 °Bx.
        assert!((baume(57.4) - 31.1).abs() < 0.3, "{}", baume(57.4));
        assert!((baume(50.0) - 27.28).abs() < 0.05);
        assert_eq!(baume(0.0), 0.0);
    }
}
