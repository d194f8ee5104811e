//! Agar: sets within minutes below 38 °C, holds to 85, and is short, not rubbery.

use crate::rheology::clock::Clock;
use crate::rheology::smooth::{logistic, spos, step};

/// Firmer than this an agar gel crumbles, Pa (assumed: above 1.36 % on water).
pub const CRUMBLES_PA: f64 = 12_000.0;
/// Agar that did not get this hot has not dissolved, °C (common practice: it must boil).
pub const DISSOLVES_C: f64 = 90.0;
/// Where it sets on the way down, °C.
pub const SETS_C: f64 = 38.0;
/// Share of a gel that is stirred after it has set.
const BROKEN: f64 = 0.1;

/// Agar in a mixture.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Agar {
    /// Dry agar, per cent of the liquid.
    pub percent: f64,
    /// Whether it was said to be heated, and too little.
    pub raw: bool,
    /// What acid boiled with it leaves, 0 to 1.
    pub left_by_acid: f64,
}

/// Acid boiled with it cuts it: 1 − 0.5 step((4.2 − pH)/1.2) (assumed).
pub fn left_by_acid(ph: f64) -> f64 {
    1.0 - 0.5 * step((4.2 - ph) / 1.2)
}

impl Agar {
    /// Shear modulus at `t_c`, Pa: 8000 c^2.1, as agarose of Normand 2000 (order, from memory); `clock` while fresh, none
    /// when it has set; `broken` when it was stirred since. Checked against `tests/it/data/agar_gel.csv`.
    #[inline]
    pub fn modulus(&self, t_c: f64, fresh: Option<Clock>, broken: bool) -> f64 {
        if self.percent <= 0.0 || self.raw {
            return 0.0;
        }
        let set = match fresh {
            None => logistic((85.0 - t_c) / 2.0),
            Some(clock) => {
                let minutes = 60.0 * (clock.hours + (SETS_C - t_c).max(0.0) / clock.cooled_k_h);
                logistic(SETS_C - t_c) * (1.0 - (-(minutes / 2.0) * spos(SETS_C - t_c, 0.5) / 5.0).exp())
            }
        };
        let whole = if broken { BROKEN } else { 1.0 };
        8000.0 * self.percent.powf(2.1) * self.left_by_acid * set * whole
    }
}
