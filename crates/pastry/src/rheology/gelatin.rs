//! Gelatin: where it melts and sets, how far it has set, how firm it is then.

use crate::formula::mixture::Mixture;
use crate::ingredient::composition::Part;
use crate::rheology::clock::{Clock, gel_rate, smin_integral};
use crate::rheology::params::{GELATIN_PA, GELATIN_POWER};
use crate::rheology::serum::Serum;
use crate::rheology::smooth::{above_zero, smin, spos, step};

/// Gelatin in a mixture.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Gelatin {
    /// As weighed, per cent of the liquid.
    pub percent: f64,
    /// Where its gel melts, °C.
    pub melts_c: f64,
    /// Where it begins to set on the way down, °C.
    pub sets_c: f64,
    /// Firmness at 10 °C, fully set, Pa: before an enzyme.
    pub full_pa: f64,
    /// What acid leaves of its strength, 0 to 1.
    pub left_by_acid: f64,
    /// Raw fruit that cuts it, of total; 0 when it was heated.
    pub cut_by: f64,
}

/// Melting of a gelatin gel, °C: 30 + 3 ln(c/6.67) + 3 ln(Bloom/200) + 0.06 °Bx, less what fish takes off. The slope is
/// that of Eldridge and Ferry 1954 (from memory); sugar and Bloom are assumed. Checked against
/// `tests/it/data/gelatin_setting.csv`.
pub fn melts_c(percent: f64, bloom: f64, brix: f64) -> f64 {
    30.0 + 3.0 * (percent.max(0.05) / 6.67).ln() + 3.0 * (bloom.max(40.0) / 200.0).ln() + 0.06 * brix
}

/// Share of its full strength after an age in hours: ln(1 + e/0.2)/ln 86, e = age²/(age + lag), the lag 0.1/c h and an hour
/// at most (ageing with the logarithm of time: te Nijenhuis 1981, from memory; the rest assumed).
pub fn set_share(age_h: f64, percent: f64) -> f64 {
    if age_h <= 0.0 {
        return 0.0;
    }
    let lag = (0.1 / percent.max(1e-9)).min(1.0);
    let counted = age_h * age_h / (age_h + lag);
    ((counted / 0.2).ln_1p() / 86f64.ln()).clamp(0.0, 1.3)
}

impl Gelatin {
    /// Of a mixture with its serum; `fat_volume` of total. Fat droplets fill the gel and make it firmer (van Vliet 1988,
    /// from memory).
    pub fn new(mixture: &Mixture, serum: &Serum, fat_volume: f64, heated: bool) -> Self {
        let percent = serum.gelatin_percent;
        let water = above_zero(mixture.composition.get(Part::Water));
        let left_by_acid =
            1.0 - 0.25 * step((100.0 * mixture.composition.get(Part::Acid) / water - 1.0) / 2.0);
        let melts_c = melts_c(percent, mixture.bloom, serum.brix) - mixture.gelatin_melts_earlier_k;
        let filler = (1.0 - smin(fat_volume, 0.5, 0.03)).powf(-2.5);
        Gelatin {
            percent,
            melts_c,
            sets_c: melts_c - mixture.gelatin_sets_below_k,
            full_pa: GELATIN_PA * (mixture.bloom / 200.0) * percent * percent * left_by_acid * filler,
            left_by_acid,
            cut_by: if heated { 0.0 } else { mixture.protease },
        }
    }

    fn width(&self) -> f64 {
        (self.sets_c - 10.0).max(4.0)
    }

    /// Age on the way down and since, in hours at full rate; none of it above where it sets.
    pub fn age_h(&self, t_c: f64, clock: Clock) -> f64 {
        let x = (self.sets_c - t_c) / self.width();
        if x <= 0.0 {
            return 0.0;
        }
        self.width() / clock.cooled_k_h * smin_integral(x, 1.6, 0.03) + clock.hours * gel_rate(x)
    }

    /// What an enzyme leaves after so many hours, 0 to 1. A catalyst is not used up: any of it goes on cutting (assumed: a
    /// twentieth of one per cent of raw fruit leaves 1/e overnight).
    pub fn left_by_fruit(&self, hours: f64) -> f64 {
        left_by_fruit(self.cut_by, hours)
    }

    /// Shear modulus at `t_c` after an age of so many hours, Pa; an enzyme has had `cut_h`.
    #[inline]
    pub fn modulus(&self, t_c: f64, age_h: f64, cut_h: f64) -> f64 {
        if self.full_pa <= 0.0 {
            return 0.0;
        }
        let melting = (spos(self.melts_c - t_c, 0.5) / (self.melts_c - 10.0).max(4.0)).powf(GELATIN_POWER);
        self.full_pa * melting * set_share(age_h, self.percent) * self.left_by_fruit(cut_h)
    }
}

/// What raw fruit, `share` of the total, leaves of a gel in so many hours, 0 to 1.
pub fn left_by_fruit(share: f64, hours: f64) -> f64 {
    if share > 0.0 { (-(share / 0.0005) * hours.min(17.0) / 17.0).exp() } else { 1.0 }
}
