//! What a mass is to heat: heat held and conducted over temperature, made ready once as tables.

use crate::heat::enthalpy::HeatShares;
use crate::heat::freezing::Freezing;
use crate::ingredient::composition::Composition;

/// Coldest temperature of the tables, °C, their step, K, and how many there are.
pub const COLDEST_C: f64 = -45.0;
/// Step of the tables, K.
pub const STEP_K: f64 = 0.5;
/// Entries of the tables.
pub const NODES: usize = 351;
/// Temperature of the density that fixes mass and shape, °C.
const SHAPED_AT_C: f64 = 20.0;

/// How much of the water is ice below freezing.
#[derive(Debug, Clone, Copy)]
pub enum Solutes {
    /// Every solute by its own law.
    Each(Freezing),
    /// Sugar, alcohol and salts by their moles, where only shares are known: 1.86 m (1 + 0.11 m) K (fitted to sucrose, CRC
    /// Handbook, from memory).
    Lumped {
        /// Water that can freeze, of total.
        water: f64,
        /// Moles in a kilogram of total.
        moles: f64,
    },
    /// Nothing freezes.
    Nothing,
}

impl Solutes {
    /// Of shares, with the mean molar mass of the sugars, g/mol (342.3 for sucrose).
    pub fn lumped(shares: &HeatShares, sugar_molar: f64) -> Self {
        let water = shares.water - shares.water.min(0.4 * shares.protein);
        if water <= 1e-9 {
            return Solutes::Nothing;
        }
        let moles = 1000.0
            * (shares.sugar.min(2.0 * shares.water) / sugar_molar
                + shares.alcohol / 46.07
                + shares.ash.min(0.02 * shares.water) / 70.0);
        Solutes::Lumped { water, moles }
    }

    /// Where the first ice forms, °C; none where nothing freezes.
    pub fn begins_c(&self) -> Option<f64> {
        match self {
            Solutes::Each(freezing) => freezing.begins_c(),
            Solutes::Lumped { water, moles } => {
                let m = moles / water;
                Some(-1.86 * m * (1.0 + 0.11 * m))
            }
            Solutes::Nothing => None,
        }
    }

    /// Ice at `t_c`, of total.
    pub fn ice(&self, t_c: f64) -> f64 {
        match self {
            Solutes::Each(freezing) => freezing.ice(t_c),
            Solutes::Lumped { water, moles } => {
                if t_c >= 0.0 || self.begins_c().is_none_or(|begins| t_c >= begins) {
                    return 0.0;
                }
                let unfrozen = ((1.0 + 0.44 * -t_c / 1.86).sqrt() - 1.0) / 0.22;
                (water - moles / unfrozen).max(0.0)
            }
            Solutes::Nothing => 0.0,
        }
    }
}

/// A mass made ready: tables of heat and conductivity from −45 to 130 °C in half kelvins.
#[derive(Debug, Clone)]
pub struct Material {
    /// Heat over that of the same mass, all liquid, at 0 °C, J/kg.
    held: Box<[f64; NODES]>,
    /// Conductivity, W/(m K).
    conducts: Box<[f64; NODES]>,
    /// Density at 20 °C with its air, kg/m³.
    density: f64,
    /// Least heat capacity between two entries, J/(kg K).
    least_capacity: f64,
}

/// What a material is made from.
#[derive(Debug, Clone, Copy)]
pub struct MadeOf {
    /// Shares of total.
    pub shares: HeatShares,
    /// Air, of volume.
    pub air: f64,
    /// Whether the fat surrounds the rest.
    pub fat_outside: bool,
    /// What keeps its water from freezing.
    pub solutes: Solutes,
    /// Whether it comes from above: fats set lower than they melt.
    pub cooling: bool,
}

impl MadeOf {
    /// A known composition, with every solute by its own law.
    pub fn of(m: &Composition, air: f64, fat_outside: bool, cooling: bool) -> Self {
        let solutes = Solutes::Each(Freezing::of(m));
        MadeOf { shares: HeatShares::of(m), air, fat_outside, solutes, cooling }
    }
}

impl Material {
    /// The tables of a mass.
    pub fn new(of: &MadeOf) -> Self {
        let MadeOf { shares, air, fat_outside, solutes, cooling } = of;
        let (mut held, mut conducts) = (Box::new([0.0; NODES]), Box::new([0.0; NODES]));
        for k in 0..NODES {
            let t_c = COLDEST_C + STEP_K * k as f64;
            let ice = solutes.ice(t_c);
            held[k] = shares.enthalpy_with(t_c, *cooling, ice);
            conducts[k] = shares.conducts(t_c, ice, *air, *fat_outside);
        }
        let ice = solutes.ice(SHAPED_AT_C);
        Material::tables(held, conducts, (1.0 - air) * shares.density(SHAPED_AT_C, ice))
    }

    /// Something of constant properties: conductivity, W/(m K), density, kg/m³, heat capacity, J/(kg K).
    pub fn constant(conducts: f64, density: f64, capacity: f64) -> Self {
        let held = std::array::from_fn(|k| capacity * (COLDEST_C + STEP_K * k as f64));
        Material::tables(Box::new(held), Box::new([conducts; NODES]), density)
    }

    fn tables(held: Box<[f64; NODES]>, conducts: Box<[f64; NODES]>, density: f64) -> Self {
        let steps = held.windows(2).map(|pair| (pair[1] - pair[0]) / STEP_K);
        let least_capacity = steps.fold(f64::INFINITY, f64::min);
        Material { held, conducts, density, least_capacity }
    }

    /// The same where it carries heat so many times as well, moving by itself.
    pub fn carrying(&self, times: f64) -> Self {
        let mut own = self.clone();
        own.conducts.iter_mut().for_each(|k| *k *= times);
        own
    }

    /// Density with its air, kg/m³.
    pub fn density(&self) -> f64 {
        self.density
    }

    /// Least heat capacity between two entries, J/(kg K).
    pub fn least_capacity(&self) -> f64 {
        self.least_capacity
    }

    /// The entry below a temperature, and how far above it that lies, of a step; end slopes go on outside.
    #[inline]
    fn place(t_c: f64) -> (usize, f64) {
        let steps = (t_c - COLDEST_C) * (1.0 / STEP_K);
        let k = (steps.max(0.0) as usize).min(NODES - 2);
        (k, steps - k as f64)
    }

    /// Heat held at `t_c`, J/kg.
    #[inline]
    pub fn held(&self, t_c: f64) -> f64 {
        let (k, part) = Self::place(t_c);
        self.held[k] + part * (self.held[k + 1] - self.held[k])
    }

    /// Conductivity at `t_c`, W/(m K); what it is at the ends outside the tables.
    #[inline]
    pub fn conducts(&self, t_c: f64) -> f64 {
        let (k, part) = Self::place(t_c);
        self.conducts[k] + part.clamp(0.0, 1.0) * (self.conducts[k + 1] - self.conducts[k])
    }

    /// Heat capacity at `t_c`, melting and freezing in it, over half a kelvin, J/(kg K).
    pub fn capacity(&self, t_c: f64) -> f64 {
        (self.held(t_c + 0.25) - self.held(t_c - 0.25)) / 0.5
    }

    /// Temperature at which so much heat is held, °C, looked for from entry `near` on, which moves there.
    #[inline]
    pub fn temperature(&self, held: f64, near: &mut usize) -> f64 {
        let mut k = (*near).min(NODES - 2);
        while k > 0 && held < self.held[k] {
            k -= 1;
        }
        while k < NODES - 2 && held > self.held[k + 1] {
            k += 1;
        }
        *near = k;
        let [low, high] = [self.held[k], self.held[k + 1]];
        COLDEST_C + STEP_K * (k as f64 + (held - low) / (high - low))
    }
}
