//! What is added on top of fat and crowding: gelatin, agar, pectin, starch, egg, gums, ready-made body, air.

use crate::formula::mixture::Mixture;
use crate::formula::system::{Continuous, System};
use crate::ingredient::composition::Part;
use crate::rheology::agar::{self, Agar};
use crate::rheology::clock::Clock;
use crate::rheology::consistency::{History, Options};
use crate::rheology::egg_set::stirred_pa;
use crate::rheology::gelatin::Gelatin;
use crate::rheology::params::{STARCH_PA, STARCH_POWER, yield_strain};
use crate::rheology::pectin::{self, Pectin};
use crate::rheology::serum::Serum;
use crate::rheology::smooth::{above_zero, smin};
use crate::rheology::volumes::Cooking;

/// Hours something has set when nobody said.
pub const USUAL_HOURS: f64 = 17.0;

/// Everything of the added networks that does not depend on the temperature.
#[derive(Debug, Clone, Copy)]
pub struct Networks {
    /// Gelatin.
    pub gelatin: Gelatin,
    /// Agar.
    pub agar: Agar,
    /// Pectin that was added to set.
    pub pectin: Pectin,
    starch_pa: f64,
    egg_pa: f64,
    gum_pa: f64,
    body_pa: f64,
    foam_pa: f64,
    premade_starch: bool,
    hours: f64,
    /// Cooked starch on water, per cent.
    pub starch_on_water_percent: f64,
    /// Whether an enzyme of raw fruit cuts its gelatin, whatever the dose.
    pub gelatin_undone: bool,
}

/// Yield stresses of the added networks before air, Pa, and the moduli of the gels.
#[derive(Debug, Clone, Copy, Default)]
pub struct NetworkStress {
    /// Gel modulus of gelatin, Pa.
    pub gelatin_modulus: f64,
    /// Gel modulus of agar, Pa.
    pub agar_modulus: f64,
    /// Gel modulus of pectin, Pa.
    pub pectin_modulus: f64,
    /// Starch, Pa.
    pub starch: f64,
    /// Set egg, Pa.
    pub egg: f64,
    /// Gums, Pa.
    pub gum: f64,
    /// Ready-made body, Pa.
    pub body: f64,
}

/// How far the added networks have set.
#[derive(Debug, Clone, Copy)]
pub struct NetworksSet {
    gelatin_h: f64,
    cut_h: f64,
    young: f64,
    fresh: Option<Clock>,
    broken: bool,
}

impl Networks {
    /// From the mixture and its serum; `fat_volume` fat per total volume, `fat_of_matrix` fat per volume of matrix, `air`
    /// the volume share of air.
    pub fn new(
        mixture: &Mixture,
        serum: &Serum,
        system: System,
        options: &Options,
        cooking: &Cooking,
        ph: Option<f64>,
        [fat_volume, fat_of_matrix, air]: [f64; 3],
    ) -> Self {
        let traits = system.traits();
        let m = &mixture.composition;
        let water = above_zero(m.get(Part::Water));
        // Heat switches an enzyme off; the switch at 85 °C is by intent.
        let heated = options.cooks.protease.or(options.cook_c).is_some_and(|cook| cook >= 85.0);
        let gelatin = Gelatin::new(mixture, serum, fat_volume, heated);
        let on_water = 100.0 * (mixture.hot_starch * cooking.starch + mixture.cold_starch) / water;
        let mut starch_pa = STARCH_PA * ((on_water - 2.0).max(0.0) / 6.0).powf(STARCH_POWER);
        if traits.continuous == Continuous::Fat {
            starch_pa *= 1.0 - smin(fat_of_matrix, 0.74, 0.03) / 0.8;
        }
        let on_water_of = |part: Part| 100.0 * m.get(part) / water;
        let egg = if system == System::Custard && m.get(Part::Yolk) + m.get(Part::EggWhite) > 0.0 {
            let solids = [Part::EggWhite, Part::Yolk].map(on_water_of);
            yield_strain::EGG * stirred_pa(solids, cooking.egg_c, serum.sugar_percent())
        } else {
            0.0
        };
        let raw = |group: Option<f64>, under_c: f64| group.is_some_and(|cook| cook < under_c);
        let boiled_sour = options.cooks.agar.or(options.cook_c).is_some_and(|cook| cook >= agar::DISSOLVES_C);
        let acid_on_agar = ph.filter(|_| boiled_sour && m.get(Part::Acid) > 0.0);
        let pectin_percent = 100.0 * mixture.setting_pectin / above_zero(serum.liquid);
        Networks {
            gelatin,
            agar: Agar {
                percent: serum.agar_percent,
                raw: raw(options.cooks.agar.or(options.cook_c), agar::DISSOLVES_C),
                left_by_acid: acid_on_agar.map_or(1.0, agar::left_by_acid),
            },
            pectin: Pectin::new(
                pectin_percent,
                ph.unwrap_or(7.0),
                serum.brix,
                1000.0 * mixture.calcium / mixture.setting_pectin.max(1e-9),
                raw(options.cooks.pectin.or(options.cook_c), pectin::DISSOLVES_C),
            ),
            starch_pa,
            egg_pa: egg,
            gum_pa: 8.0 * serum.gum_percent.powf(1.7),
            body_pa: if traits.continuous == Continuous::Water { mixture.body.powf(2.5) } else { 0.0 },
            foam_pa: 3000.0 * (air - 0.60).max(0.0).powi(2),
            premade_starch: traits.premade_starch,
            hours: options.hours.unwrap_or(USUAL_HOURS).max(0.0),
            starch_on_water_percent: on_water,
            gelatin_undone: gelatin.cut_by > 0.0 && serum.gelatin_percent > 0.0,
        }
    }

    /// Foam, Pa: carries its own air factor.
    #[inline]
    pub fn foam(&self) -> f64 {
        self.foam_pa
    }

    /// Whether starch or egg in it goes on setting while it cools.
    pub fn starch_sets(&self) -> bool {
        self.starch_pa + self.egg_pa > 0.0 && !self.premade_starch
    }

    /// Whether anything in it sets while it is fresh and held at `t_c`.
    pub fn sets_at(&self, t_c: f64) -> bool {
        (self.gelatin.full_pa > 0.0 && t_c < self.gelatin.sets_c)
            || (self.agar.percent > 0.0 && t_c < agar::SETS_C + 8.0)
            || (self.starch_sets() && t_c < 40.0)
    }

    /// How far they have set at `t_c`; `clock` counts while it is fresh.
    #[inline]
    pub fn set_by(&self, t_c: f64, history: History, clock: Clock) -> NetworksSet {
        let fresh = history == History::Fresh;
        let (gelatin_h, cut_h) = match fresh {
            true if self.gelatin.full_pa > 0.0 => (self.gelatin.age_h(t_c, clock), clock.hours.max(0.25)),
            true => (0.0, 0.0),
            false => (self.hours, self.hours),
        };
        let young = if fresh && self.starch_sets() {
            0.35 + 0.65 * (1.0 - (-clock.hours * ((40.0 - t_c) / 35.0).clamp(0.0, 1.0)).exp())
        } else {
            1.0
        };
        NetworksSet {
            gelatin_h,
            cut_h,
            young,
            fresh: fresh.then_some(clock),
            broken: history == History::Worked,
        }
    }

    /// At `t_c`, set so far.
    #[inline]
    pub fn at(&self, t_c: f64, set: &NetworksSet) -> NetworkStress {
        let mut stress = NetworkStress { gum: self.gum_pa, ..NetworkStress::default() };
        if self.gelatin.full_pa > 0.0 {
            stress.gelatin_modulus = self.gelatin.modulus(t_c, set.gelatin_h, set.cut_h);
        }
        if self.agar.percent > 0.0 {
            stress.agar_modulus = self.agar.modulus(t_c, set.fresh, set.broken);
        }
        if self.pectin.full_pa > 0.0 {
            stress.pectin_modulus = self.pectin.modulus(t_c, set.fresh.is_some());
        }
        if self.starch_pa > 0.0 || self.egg_pa > 0.0 {
            let colder = set.young * (-(t_c - 5.0) / 60.0).exp();
            stress.starch = self.starch_pa * colder;
            stress.egg = self.egg_pa * colder;
        }
        if self.body_pa > 0.0 {
            stress.body = self.body_pa * (-(t_c - 5.0) / 30.0).exp();
        }
        stress
    }
}
