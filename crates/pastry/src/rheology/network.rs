//! What is added on top of fat and crowding: gelatin, agar, starch, gums, ready-made body, air.

use crate::formula::mixture::Mixture;
use crate::formula::system::{Continuous, System};
use crate::ingredient::composition::Part;
use crate::rheology::consistency::{History, Options};
use crate::rheology::params::{
    GELATIN_MELTS_C, GELATIN_PA, GELATIN_POWER, STARCH_PA, STARCH_POWER, yield_strain,
};
use crate::rheology::serum::Serum;
use crate::rheology::smooth::{above_zero, logistic, smin, spos, step};

/// Everything of the added networks that does not depend on the temperature.
#[derive(Debug, Clone, Copy)]
pub struct Networks {
    gelatin_pa: f64,
    agar_pa: f64,
    starch_pa: f64,
    gum_pa: f64,
    body_pa: f64,
    foam_pa: f64,
    premade_starch: bool,
    /// Cooked starch on water, per cent.
    pub starch_on_water_percent: f64,
    /// What acid leaves of gelatin's strength, 0 to 1.
    pub gelatin_left_by_acid: f64,
    /// Whether an enzyme of raw fruit cuts its gelatin, whatever the dose.
    pub gelatin_undone: bool,
}

/// Yield stresses of the added networks before air, Pa, and the two gel moduli.
#[derive(Debug, Clone, Copy, Default)]
pub struct NetworkStress {
    /// Gel modulus of gelatin, Pa.
    pub gelatin_modulus: f64,
    /// Gel modulus of agar, Pa.
    pub agar_modulus: f64,
    /// Starch, Pa.
    pub starch: f64,
    /// Gums, Pa.
    pub gum: f64,
    /// Ready-made body, Pa.
    pub body: f64,
}

impl Networks {
    /// From the mixture and its serum; `cooked` is the share of starch boiled, `fat_volume` fat per
    /// total volume, `fat_of_matrix` fat per volume of matrix, `air` the volume share of air.
    pub fn new(
        mixture: &Mixture,
        serum: &Serum,
        system: System,
        options: &Options,
        cooked: f64,
        [fat_volume, fat_of_matrix, air]: [f64; 3],
    ) -> Self {
        let traits = system.traits();
        let water = above_zero(mixture.composition.get(Part::Water));
        let hours = options.hours.unwrap_or(17.0).max(0.0);
        let age = ((1.0 + hours / 0.2).ln() / 86f64.ln()).clamp(0.0, 1.3);
        let sour = 1.0 - 0.25 * step((100.0 * mixture.composition.get(Part::Acid) / water - 1.0) / 2.0);
        // A catalyst is not used up: any of it goes on cutting, and what is left falls with the hours (assumed: a
        // twentieth of one per cent of raw fruit leaves 1/e overnight). Heat switches it off; the switch at 85 °C is by
        // intent.
        let heated = options.cooks.protease.or(options.cook_c).is_some_and(|cook| cook >= 85.0);
        let active = mixture.protease > 0.0 && !heated;
        let cut = if active { (-(mixture.protease / 0.0005) * hours.min(17.0) / 17.0).exp() } else { 1.0 };
        let filler = (1.0 - smin(fat_volume, 0.5, 0.03)).powf(-2.5);
        let gelatin_pa =
            GELATIN_PA * (mixture.bloom / 200.0) * serum.gelatin_percent.powi(2) * age * sour * cut * filler;
        let on_water = 100.0 * (mixture.hot_starch * cooked + mixture.cold_starch) / water;
        let mut starch_pa = STARCH_PA * ((on_water - 2.0).max(0.0) / 6.0).powf(STARCH_POWER);
        if traits.continuous == Continuous::Fat {
            starch_pa *= 1.0 - smin(fat_of_matrix, 0.74, 0.03) / 0.8;
        }
        Networks {
            gelatin_pa,
            agar_pa: 8000.0 * serum.agar_percent.powf(2.1),
            starch_pa,
            gum_pa: 8.0 * serum.gum_percent.powf(1.7),
            body_pa: if traits.continuous == Continuous::Water { mixture.body.powf(2.5) } else { 0.0 },
            foam_pa: 3000.0 * (air - 0.60).max(0.0).powi(2),
            premade_starch: traits.premade_starch,
            starch_on_water_percent: on_water,
            gelatin_left_by_acid: sour,
            gelatin_undone: active && serum.gelatin_percent > 0.0,
        }
    }

    /// Foam, Pa: carries its own air factor.
    #[inline]
    pub fn foam(&self) -> f64 {
        self.foam_pa
    }

    /// At `t_c`.
    #[inline]
    pub fn at(&self, t_c: f64, history: History) -> NetworkStress {
        let fresh = history == History::Fresh;
        let mut stress = NetworkStress { gum: self.gum_pa, ..NetworkStress::default() };
        if self.gelatin_pa > 0.0 && !fresh {
            stress.gelatin_modulus =
                self.gelatin_pa * (spos(GELATIN_MELTS_C - t_c, 0.5) / 20.0).powf(GELATIN_POWER);
        }
        if self.agar_pa > 0.0 {
            let set = if fresh { logistic((35.0 - t_c) / 1.5) } else { logistic((82.0 - t_c) / 2.0) };
            stress.agar_modulus = self.agar_pa * set;
        }
        if self.starch_pa > 0.0 {
            let young = if fresh && !self.premade_starch { 0.35 } else { 1.0 };
            stress.starch = self.starch_pa * young * (-(t_c - 5.0) / 60.0).exp();
        }
        if self.body_pa > 0.0 {
            stress.body = self.body_pa * (-(t_c - 5.0) / 30.0).exp();
        }
        stress
    }
}

impl NetworkStress {
    /// Yield stress of gelatin, Pa.
    #[inline]
    pub fn gelatin(&self) -> f64 {
        yield_strain::GEL * self.gelatin_modulus
    }

    /// Yield stress of agar, Pa.
    #[inline]
    pub fn agar(&self) -> f64 {
        yield_strain::AGAR * self.agar_modulus
    }
}
