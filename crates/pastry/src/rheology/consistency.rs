//! The words of the answer: state, options, and what one evaluation says.

use crate::formula::process::GroupCooks;
use crate::rheology::clock::Clock;
use crate::rheology::params::yield_strain;
use crate::rheology::unchecked::Unchecked;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What has happened to a cream since it was made.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum History {
    /// Just made: melted fat still undercooled, nothing set. How long that lasts hangs on the temperature.
    Fresh,
    /// Set 12 to 17 h at the temperature.
    Rested,
    /// Set, then stirred or beaten.
    Worked,
}

impl History {
    /// All of them, in the order of the day.
    pub const ALL: [History; 3] = [History::Fresh, History::Rested, History::Worked];
}

/// What the process did, where it differs from the family's habit.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Options {
    /// Volume gained per volume before, 0 to 5.
    pub overrun: Option<f64>,
    /// 0 none, 0.4 soft peak, 0.8 to 1 stiff.
    pub whip: Option<f64>,
    /// Highest temperature reached, °C.
    pub cook_c: Option<f64>,
    /// Stirred or beaten after setting, where this differs from the history.
    pub worked: Option<bool>,
    /// Hours set, 17 when not given.
    pub hours: Option<f64>,
    /// How long and how it came to its temperature while fresh; just there, stirred on ice, when not given.
    pub clock: Option<Clock>,
    /// Where a cream with fat outside was last beaten, °C; 20 when not given.
    pub worked_c: Option<f64>,
    /// Minutes it was held at its highest temperature; none when nobody said.
    pub held_min: Option<f64>,
    /// Highest temperatures by group of lines, where they differ from the whole.
    pub cooks: GroupCooks,
    /// Least standard deviation of ln yield stress and viscosity, for families that were not fitted.
    pub least_sigma: f64,
    /// What this kitchen's own tests taught of it.
    pub learned: Correction,
}

/// What was learned of a formula: how far it is off the book, and how much better it is known than a family by itself. Of yield
/// stress, then of plastic viscosity.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Correction {
    /// ln of what this kitchen's is over the book's.
    pub ln_over: [f64; 2],
    /// The base of the band, times the book's: 1 where nothing was taught.
    pub narrower: [f64; 2],
}

impl Correction {
    /// As the book has it.
    pub const NONE: Correction = Correction { ln_over: [0.0; 2], narrower: [1.0; 2] };
}

impl Default for Correction {
    fn default() -> Self {
        Self::NONE
    }
}

/// Which phase is outside.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Structure {
    /// Fat droplets in syrup.
    WaterContinuous,
    /// Both phases run through.
    Bicontinuous,
    /// Droplets of syrup in fat.
    FatContinuous,
}

impl Structure {
    /// From the weight of the fat-continuous structure, 0 to 1.
    pub fn of(fat_weight: f64) -> Self {
        match fat_weight {
            w if w < 0.25 => Structure::WaterContinuous,
            w if w < 0.75 => Structure::Bicontinuous,
            _ => Structure::FatContinuous,
        }
    }
}

/// Where the yield stress comes from, Pa, after yield strain and air.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, ToSchema)]
pub struct Contributions {
    /// Fat crystals.
    pub fat: f64,
    /// Crowded particles.
    pub crowd: f64,
    /// Gelatin.
    pub gel: f64,
    /// Agar.
    pub agar: f64,
    /// Starch.
    pub starch: f64,
    /// Foam.
    pub foam: f64,
    /// Gums.
    pub gum: f64,
    /// Ready-made structure of curds and jams.
    pub body: f64,
    /// Pectin that was added to set.
    pub pectin: f64,
    /// Egg that set in the heat.
    pub egg: f64,
}

impl Contributions {
    /// All of them times a factor.
    pub fn times(&self, by: f64) -> Self {
        Contributions {
            fat: by * self.fat,
            crowd: by * self.crowd,
            gel: by * self.gel,
            agar: by * self.agar,
            starch: by * self.starch,
            foam: by * self.foam,
            gum: by * self.gum,
            body: by * self.body,
            pectin: by * self.pectin,
            egg: by * self.egg,
        }
    }

    /// Their sum.
    #[inline]
    pub fn sum(&self) -> f64 {
        self.fat
            + self.crowd
            + self.gel
            + self.agar
            + self.starch
            + self.foam
            + self.gum
            + self.body
            + self.pectin
            + self.egg
    }

    /// Elastic modulus, Pa: each over its yield strain.
    #[inline]
    pub fn modulus(&self) -> f64 {
        self.fat / yield_strain::FAT
            + self.crowd / yield_strain::CROWD
            + self.gel / yield_strain::GEL
            + self.agar / yield_strain::AGAR
            + self.starch / yield_strain::STARCH
            + self.foam / yield_strain::FOAM
            + self.gum / yield_strain::GUM
            + self.body / yield_strain::BODY
            + self.pectin / yield_strain::PECTIN
            + self.egg / yield_strain::EGG
    }
}

/// One evaluation at one temperature.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Consistency {
    /// Yield stress, Pa.
    pub yield_stress_pa: f64,
    /// Viscosity at a shear rate of 10 /s, Pa·s.
    pub viscosity_pa_s: f64,
    /// Plastic viscosity, Pa·s.
    pub plastic_viscosity_pa_s: f64,
    /// Elastic modulus, Pa.
    pub modulus_pa: f64,
    /// Share of it that gelatin brings, Pa.
    pub gelatin_modulus_pa: f64,
    /// Share of it that all gels bring, Pa.
    pub gel_modulus_pa: f64,
    /// Solid fat of all fat, 0 to 1.
    pub solid_fat: f64,
    /// Split index, 0 to 1.
    pub split: f64,
    /// Viscosity of the watery phase, Pa·s.
    pub serum_viscosity_pa_s: f64,
    /// Where the yield stress comes from.
    pub contributions: Contributions,
    /// Weight of the structure with fat outside, as it is now, 0 to 1: nothing turns over before it sets.
    pub fat_outside: f64,
    /// Share of the viscosity that is of particles far apart, 0 to 1.
    pub thin: f64,
    /// How much hangs on which phase is outside: w (1 − w) |ln| of yield stress and of viscosity.
    pub turning: [f64; 2],
}

impl Consistency {
    /// Yield stress of what stands by itself, Pa: gums thicken and never set.
    pub fn set_yield_pa(&self) -> f64 {
        self.yield_stress_pa - self.contributions.gum
    }

    /// Elastic modulus of what stands by itself, Pa.
    pub fn set_modulus_pa(&self) -> f64 {
        self.modulus_pa - self.contributions.gum / yield_strain::GUM
    }

    /// The same with yield stress and plastic viscosity times a factor each: how stiff it is and how it flows, not what it is made of.
    pub(crate) fn times(self, [stiffer, thicker]: [f64; 2]) -> Self {
        let yield_stress_pa = stiffer * self.yield_stress_pa;
        let plastic_viscosity_pa_s = thicker * self.plastic_viscosity_pa_s;
        Consistency {
            yield_stress_pa,
            plastic_viscosity_pa_s,
            viscosity_pa_s: yield_stress_pa / 10.0 + plastic_viscosity_pa_s,
            modulus_pa: stiffer * self.modulus_pa,
            gelatin_modulus_pa: stiffer * self.gelatin_modulus_pa,
            gel_modulus_pa: stiffer * self.gel_modulus_pa,
            contributions: self.contributions.times(stiffer),
            ..self
        }
    }

    /// Which phase is outside now.
    pub fn structure(&self) -> Structure {
        Structure::of(self.fat_outside)
    }
}

/// Consistency with the standard deviations of its logarithms.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Banded {
    /// The middle of the prediction.
    pub middle: Consistency,
    /// Standard deviation of ln yield stress.
    pub sigma_yield: f64,
    /// Standard deviation of ln viscosity.
    pub sigma_viscosity: f64,
    /// What it is not known for, when it stands too far from what was ever checked: then no chance is claimed.
    pub unknown: Option<Unchecked>,
    /// Standard deviation of ln yield stress that the system has everywhere.
    pub base_sigma: f64,
}
