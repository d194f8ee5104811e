//! Whether liquid cream takes air and keeps it: fat enough, cold enough, neither too thin nor too thick.

use crate::formula::mixture::Mixture;
use crate::ingredient::composition::Part;
use crate::rheology::chance::chance;
use crate::rheology::consistency::Consistency;
use crate::rheology::kernel::Prepared;
use crate::rheology::smooth::logistic;

/// Thinner than this cream does not keep bubbles apart, Pa·s at 10 /s (assumed; single cream has a third of it).
pub const THINNEST_TO_WHIP: f64 = 0.005;

/// What is asked of cream before it is whipped.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WhipLimits {
    /// Least fat of fat and water, per cent: 30 is common practice.
    pub least_fat_percent: f64,
    /// Warmest, °C: 8 is common practice.
    pub warmest_c: f64,
    /// Thickest that takes air, Pa·s at 10 /s.
    pub thickest_pa_s: f64,
}

/// How likely it passes each; none of them is a cliff.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Whips {
    /// Fat enough.
    pub fat: f64,
    /// Cold enough, and enough of its fat set.
    pub cold: f64,
    /// Neither too thin nor too thick.
    pub thickness: f64,
}

impl Whips {
    /// Of a cream prepared without air, at `t_c`; `sigma` of its ln viscosity. Half-points: 2 points under the least fat,
    /// 1.5 K over the warmest, 36 % of the fat solid (assumed).
    pub fn new(prepared: &Prepared, point: &Consistency, sigma: f64, t_c: f64, limits: &WhipLimits) -> Self {
        Whips {
            fat: logistic((prepared.whip_fat_percent - (limits.least_fat_percent - 2.0)) / 1.2),
            cold: logistic((limits.warmest_c + 1.5 - t_c) / 0.7)
                * logistic((100.0 * point.solid_fat - 36.0) / 2.0),
            thickness: chance(point.viscosity_pa_s, THINNEST_TO_WHIP, limits.thickest_pa_s, sigma),
        }
    }

    /// All three.
    pub fn chance(&self) -> f64 {
        self.fat * self.cold * self.thickness
    }
}

/// Most air that cream takes, volume gained per volume: 2.35 − 0.035 F for F per cent of fat, 0.3 to 1.6 (assumed; 36 %
/// cream doubles and a little, double cream gains two thirds).
pub fn most_overrun(fat_percent: f64) -> f64 {
    (2.35 - 0.035 * fat_percent).clamp(0.3, 1.6)
}

/// Air of cream whipped to `stage`, 0 to 1 stiff: most (1 − (1 − w)²); over-whipped, past 1, it loses air again.
pub fn overrun_at(fat_percent: f64, stage: f64) -> f64 {
    let most = most_overrun(fat_percent);
    if stage <= 1.0 {
        most * (1.0 - (1.0 - stage).powi(2))
    } else {
        most * (1.0 - 0.8 * (stage - 1.0)).max(0.0)
    }
}

/// Fat of what is whipped, per cent of all but its added sugar: 36 for a cream of 36 %.
pub fn fat_of_the_liquid(mixture: &Mixture) -> f64 {
    let m = &mixture.composition;
    let added = m.get(Part::Sucrose) + m.get(Part::Glucose) + m.get(Part::Fructose);
    100.0 * m.phases().fat / (1.0 - added).max(1e-9)
}
