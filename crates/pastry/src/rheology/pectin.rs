//! Pectin that is added to set in sour sugar and melts again (NH): an order of magnitude only.

use crate::rheology::smooth::logistic;

/// Pectin that did not get this hot has not dissolved, °C (common practice: it must boil).
pub const DISSOLVES_C: f64 = 95.0;
/// Most that is claimed of anything it sets.
pub const MOST_CHANCE: f64 = 0.6;
/// Where it sets on the way down, °C.
const SETS_C: f64 = 50.0;
/// Where its gel melts, °C.
const MELTS_C: f64 = 70.0;

/// Pectin in a mixture.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pectin {
    /// Pure pectin that was added to set, per cent of the liquid.
    pub percent: f64,
    /// Its gel cold, Pa.
    pub full_pa: f64,
    /// Whether sugar and sourness are outside what it needs.
    pub wants: bool,
}

impl Pectin {
    /// In a liquid of so sour, so sweet, so much calcium.
    ///
    /// # Arguments
    /// * `ca_mg_per_g`: milligrams of calcium per gram of pectin.
    pub fn new(percent: f64, ph: f64, brix: f64, ca_mg_per_g: f64, raw: bool) -> Self {
        let full = if raw { 0.0 } else { full_pa(percent, ph, brix, ca_mg_per_g) };
        Pectin { percent, full_pa: full, wants: percent > 0.0 && (brix < 30.0 || !(3.0..=4.2).contains(&ph)) }
    }

    /// Shear modulus at `t_c`, Pa.
    #[inline]
    pub fn modulus(&self, t_c: f64, fresh: bool) -> f64 {
        let half_c = if fresh { SETS_C } else { MELTS_C };
        self.full_pa * logistic((half_c - t_c) / 3.0)
    }
}

/// 1200 c² inside pH 2.7 to 4.4 and above 30 °Bx, with calcium up to 20 mg a gram (assumed).
pub fn full_pa(percent: f64, ph: f64, brix: f64, ca_mg_per_g: f64) -> f64 {
    1200.0
        * percent
        * percent
        * logistic((4.4 - ph) / 0.2)
        * logistic((ph - 2.7) / 0.15)
        * logistic((brix - 30.0) / 4.0)
        * (0.6 + 0.4 * (ca_mg_per_g / 20.0).min(1.0))
}
