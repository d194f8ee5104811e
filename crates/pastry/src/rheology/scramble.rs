//! Egg that is heated too far: it scrambles, later with starch around it.

use crate::formula::mixture::Mixture;
use crate::formula::system::System;
use crate::ingredient::composition::Part;
use crate::rheology::consistency::Options;
use crate::rheology::smooth::{above_zero, logistic};

/// How far its egg is scrambled, 0 to 1: L(cook − T_s)(1 − e^−(egg/0.3 %)²) with T_s = 86 + 22 (1 − e^−st²), st the starch
/// on water in per cent. One or two per cent of starch protect: common practice; the numbers are assumed. 0 when nobody
/// said how hot it got.
pub fn scrambled(mixture: &Mixture, system: System, options: &Options) -> f64 {
    let heats_egg =
        matches!(system, System::Custard | System::Mousse | System::Mousseline | System::Diplomat);
    let cook = options.cooks.yolk.or(options.cooks.white).or(options.cook_c);
    match cook {
        Some(cook_c) if heats_egg => scrambled_at(mixture, cook_c),
        _ => 0.0,
    }
}

/// The same for a heat of `cook_c`, °C.
pub fn scrambled_at(mixture: &Mixture, cook_c: f64) -> f64 {
    let m = &mixture.composition;
    let starch = 100.0 * (mixture.hot_starch + mixture.cold_starch) / above_zero(m.get(Part::Water));
    let from_c = 86.0 + 22.0 * (1.0 - (-starch * starch).exp());
    let egg = 100.0 * (m.get(Part::Yolk) + m.get(Part::EggWhite));
    logistic(cook_c - from_c) * (1.0 - (-(egg / 0.3).powi(2)).exp())
}
