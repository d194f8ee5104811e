//! Egg that sets when it is heated and stirred: whites in a curd of whole eggs, yolk a little.

use crate::rheology::smooth::{spos, step};

/// Modulus of a stirred egg gel, cold, Pa.
///
/// c = white·step((T − 62 − 0.15 s)/18) + 0.35 yolk·step((T − 65 − 0.15 s)/15), 20000 (c/7.5)^2.2 from 2.5 %, and 15 % of
/// that when it is stirred while it sets. Setting at 62 to 80 °C: McGee 2004, from memory; the level is assumed.
///
/// # Arguments
/// * `white`, `yolk`: dry solids on water, per cent.
/// * `sugar`: dissolved sugar of sugar and water, per cent.
pub fn stirred_pa([white, yolk]: [f64; 2], [cook_white_c, cook_yolk_c]: [f64; 2], sugar: f64) -> f64 {
    let later = 0.15 * sugar;
    let set = white * step((cook_white_c - 62.0 - later) / 18.0)
        + 0.35 * yolk * step((cook_yolk_c - 65.0 - later) / 15.0);
    let over = (spos(set - 2.5, 0.3) - spos(-2.5, 0.3)).max(0.0);
    20_000.0 * (over / 7.5).powf(2.2) * 0.15
}
