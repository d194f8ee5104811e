//! The words of the answer: state, options, and what one evaluation says.

use crate::formula::process::GroupCooks;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What has happened to a cream since it was made.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum History {
    /// Within about half an hour of making: melted fat still undercooled, nothing set.
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
    /// Highest temperatures by group of lines, where they differ from the whole.
    pub cooks: GroupCooks,
    /// Least standard deviation of ln yield stress and viscosity, for families that were not fitted.
    pub least_sigma: f64,
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
}

impl Contributions {
    /// Their sum.
    #[inline]
    pub fn sum(&self) -> f64 {
        self.fat + self.crowd + self.gel + self.agar + self.starch + self.foam + self.gum + self.body
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
    /// Share of it that gelatin and agar bring, Pa.
    pub gel_modulus_pa: f64,
    /// Solid fat of all fat, 0 to 1.
    pub solid_fat: f64,
    /// Split index, 0 to 1.
    pub split: f64,
    /// Viscosity of the watery phase, Pa·s.
    pub serum_viscosity_pa_s: f64,
    /// Where the yield stress comes from.
    pub contributions: Contributions,
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
}
