//! The watery phase: what dissolves in it, how thick it is, how much water is free.

use crate::ingredient::composition::{Composition, Part, SUGARS};
use crate::rheology::params::GELATIN_DRY;
use crate::rheology::smooth::{above_zero, smin};

/// Sucrose at saturation, g per 100 g of solution, T clipped to 0–90 °C. Charles 1960, from memory.
#[inline]
pub fn sucrose_solubility(t_c: f64) -> f64 {
    let t = t_c.clamp(0.0, 90.0);
    64.397 + 0.07251 * t + 0.0020569 * t * t - 9.035e-6 * t * t * t
}

/// Viscosity of water at 0.1 MPa, Pa·s, `t_c` clipped to −5–100 °C:
/// 10⁻⁶ (280.68 t^−1.9 + 511.45 t^−7.7 + 61.131 t^−19.6 + 0.45903 t^−40), t = (T + 273.15)/300.
/// IAPWS 2008, from memory; checked against `tests/it/data/water_viscosity.csv`.
pub fn water_viscosity(t_c: f64) -> f64 {
    let ln_t = ((t_c.clamp(-5.0, 100.0) + 273.15) / 300.0).ln();
    let term = |factor: f64, power: f64| factor * (-power * ln_t).exp();
    1e-6 * (term(280.68, 1.9) + term(511.45, 7.7) + term(61.131, 19.6) + term(0.45903, 40.0))
}

/// Viscosity of a sucrose solution, Pa·s. See [`SyrupViscosity`].
pub fn syrup_viscosity(brix: f64, t_c: f64) -> f64 {
    SyrupViscosity::new(brix).at(t_c)
}

/// log₁₀(η/mPa·s) = 22.46 N − 0.114 + Θ (1.1 + 43.1 N^1.25), N = B/(1900 − 18 B),
/// Θ = (30 − T)/(91 + T), and towards pure water the viscosity of water itself: times
/// (η_water/η(0 °Bx))^exp(−B/10) (the weight is assumed).
///
/// Génotelle's equation as used by ICUMSA, from memory. Checked against Swindells 1958 and
/// Bingham & Jackson 1919 in `tests/it/handbook.rs`: within 4 % from 20 to 70 °Bx at 20 °C.
#[derive(Debug, Clone, Copy)]
pub struct SyrupViscosity {
    level: f64,
    steepness: f64,
    watery: f64,
}

/// The same form of Génotelle's equation without sugar.
const SUGARLESS: SyrupViscosity = SyrupViscosity { level: -0.114, steepness: 1.1, watery: 0.0 };

impl SyrupViscosity {
    /// For a syrup of `brix` g per 100 g, 0 to 90.
    pub fn new(brix: f64) -> Self {
        let n = brix / (1900.0 - 18.0 * brix);
        SyrupViscosity {
            level: 22.46 * n - 0.114,
            steepness: 1.1 + 43.1 * n.powf(1.25),
            watery: (-brix / 10.0).exp(),
        }
    }

    /// ln of Génotelle's form, η in Pa·s.
    #[inline]
    fn ln_form(&self, t_c: f64) -> f64 {
        let t = t_c.clamp(-5.0, 100.0);
        let theta = (30.0 - t) / (91.0 + t);
        (self.level - 3.0 + theta * self.steepness) * std::f64::consts::LN_10
    }

    /// At `t_c`, clipped to −5–100 °C, Pa·s.
    #[inline]
    pub fn at(&self, t_c: f64) -> f64 {
        let form = self.ln_form(t_c);
        (form + self.watery * (water_viscosity(t_c).ln() - SUGARLESS.ln_form(t_c))).exp()
    }
}

/// Mass of sucrose that thickens like 1 of the sugar, in the order of [`SUGARS`]. Dextrin fitted to
/// DE 42 syrup (about 55 Pa·s at 27 °C, from memory).
const THICKENS_LIKE: [f64; 7] = [1.0, 0.9, 0.9, 1.0, 1.0, 1.09, 0.9];
/// Sweetness against sucrose, from memory.
const SWEETNESS: [f64; 7] = [1.0, 0.7, 1.3, 0.2, 0.4, 0.15, 0.6];
/// Molar mass, g/mol; dextrin assumed.
const MOLAR: [f64; 7] = [342.3, 180.16, 180.16, 342.3, 342.3, 700.0, 182.2];
/// Norrish constants. Norrish 1966, Chirife & Favetto 1980, from memory; lactose and dextrin assumed.
const NORRISH: [f64; 7] = [6.47, 2.25, 2.25, 8.0, 4.54, 6.0, 1.65];

/// What the watery phase is made of; does not depend on the working temperature.
#[derive(Debug, Clone, Copy)]
pub struct Serum {
    /// Dissolved sugars, of total, in the order of [`SUGARS`].
    pub dissolved: [f64; 7],
    /// Their sum, of total.
    pub dissolved_total: f64,
    /// Sucrose left undissolved, of total.
    pub undissolved: f64,
    /// Water, sugars, alcohol, salt and acid, of total.
    pub liquid: f64,
    /// Dissolved solids of the liquid, g per 100 g.
    pub brix: f64,
    /// Gelatin as weighed, per cent of the liquid.
    pub gelatin_percent: f64,
    /// Agar, per cent of the liquid.
    pub agar_percent: f64,
    /// Gums as xanthan, per cent of the liquid.
    pub gum_percent: f64,
    /// Alcohol of water and alcohol, 0 to 1.
    pub alcohol_of_water: f64,
    /// Room of the sugars beside their water: W/(W + dissolved), 0 to 1.
    pub water_of_syrup: f64,
    /// Water activity, 0 to 1; none when there is too little free water to speak of.
    pub water_activity: Option<f64>,
    /// Sweetness, per cent sucrose equivalent of total.
    pub sweetness_percent: f64,
    syrup: SyrupViscosity,
    thickening: f64,
    sucrose_per_water: f64,
    lactose_per_water: f64,
}

/// Sweetness of a composition, per cent of it as sucrose: Σ sweetness × sugar.
pub fn sweetness_percent(m: &Composition) -> f64 {
    100.0 * SUGARS.iter().zip(SWEETNESS).map(|(sugar, sweet)| sweet * m.get(*sugar)).sum::<f64>()
}

impl Serum {
    /// From a composition, its gums as xanthan, and the temperature at which sugar dissolved.
    pub fn new(m: &Composition, gum: f64, dissolving_c: f64) -> Self {
        let water = m.get(Part::Water);
        let sucrose = m.get(Part::Sucrose);
        let saturation = sucrose_solubility(dissolving_c);
        let sucrose_dissolved = smin(sucrose, water * saturation / (100.0 - saturation), 0.02);
        let mut dissolved = SUGARS.map(|sugar| m.get(sugar));
        dissolved[0] = sucrose_dissolved;
        let dissolved_total: f64 = dissolved.iter().sum();
        let (alcohol, salt, acid) = (m.get(Part::Alcohol), m.get(Part::Salt), m.get(Part::Acid));
        let liquid = water + dissolved_total + alcohol + salt + acid;
        let share_of = |amount: f64, whole: f64| if whole > 0.0 { amount / whole } else { 0.0 };
        let brix = 100.0 * share_of(dissolved_total + acid + salt, liquid);
        let thick: f64 = THICKENS_LIKE.iter().zip(&dissolved).map(|(like, d)| like * d).sum();
        let syrup_brix = smin(100.0 * share_of(thick, water + dissolved_total + alcohol), 90.0, 0.01);
        let alcohol_of_water = share_of(alcohol, water + alcohol);
        let gelatin = m.get(Part::Gelatin);
        let gelatin_percent = 100.0 * (gelatin / GELATIN_DRY) / above_zero(liquid + gelatin);
        let pectin = 100.0 * m.get(Part::Pectin) / above_zero(liquid);
        let gum_percent = 100.0 * gum / above_zero(liquid);
        // Ethanol: CRC tables from memory. Gelatin, pectin assumed. Gum: order of magnitude.
        let thickening = (4.2 * smin(alcohol_of_water, 0.25, 0.03)).exp()
            * (1.0 + 0.5 * gelatin_percent + 0.08 * gelatin_percent.powi(2))
            * (1.0 + 3.0 * pectin + 6.0 * pectin * pectin)
            * (1.0 + 20.0 * gum_percent + 60.0 * gum_percent * gum_percent);
        Serum {
            dissolved,
            dissolved_total,
            undissolved: sucrose - sucrose_dissolved,
            liquid,
            brix,
            gelatin_percent,
            agar_percent: 100.0 * m.get(Part::Agar) / above_zero(liquid),
            gum_percent,
            alcohol_of_water,
            water_of_syrup: share_of(water, water + dissolved_total),
            water_activity: water_activity(m, &dissolved),
            sweetness_percent: sweetness_percent(m),
            syrup: SyrupViscosity::new(syrup_brix),
            thickening,
            sucrose_per_water: sucrose_dissolved / above_zero(water),
            lactose_per_water: m.get(Part::Lactose) / above_zero(water),
        }
    }

    /// Dissolved sugar of sugar and water, per cent.
    pub fn sugar_percent(&self) -> f64 {
        100.0 * (1.0 - self.water_of_syrup)
    }

    /// Viscosity at `t_c`, Pa·s.
    #[inline]
    pub fn viscosity(&self, t_c: f64) -> f64 {
        self.syrup.at(t_c) * self.thickening
    }

    /// Dissolved sucrose against saturation at `t_c`; above 1.15 it may grain (assumed threshold).
    pub fn graining(&self, t_c: f64) -> f64 {
        let saturation = sucrose_solubility(t_c);
        self.sucrose_per_water / (saturation / (100.0 - saturation))
    }

    /// Lactose against its solubility at `t_c`; above 2 it may turn sandy. 19 g per 100 g water at
    /// 20 °C, from memory.
    pub fn lactose_sand(&self, t_c: f64) -> f64 {
        self.lactose_per_water / (0.123 * (0.0231 * t_c.clamp(0.0, 60.0)).exp())
    }
}

/// Multi-solute Norrish: a_w = (n_w/N) exp(−(Σ √K_i n_i/N)²), with water bound by dry solids taken
/// off first. Good to ± 0.015.
fn water_activity(m: &Composition, dissolved: &[f64; 7]) -> Option<f64> {
    let bound = 0.25
        * m.sum(&[Part::Cocoa, Part::MilkProtein, Part::EggWhite, Part::Yolk, Part::Starch, Part::Gelatin]);
    let free = m.get(Part::Water) - bound;
    // A hair of slack, so that rounding of a scaled batch does not flip the answer at the edge.
    if free < 0.02 - 1e-9 {
        return None;
    }
    let water = free / 18.015;
    let (alcohol, salt, acid) =
        (m.get(Part::Alcohol) / 46.07, m.get(Part::Salt) / 29.22, m.get(Part::Acid) / 192.1);
    let mut moles = water + alcohol + salt + acid;
    let mut held = 6.17f64.sqrt() * acid;
    for ((d, molar), k) in dissolved.iter().zip(MOLAR).zip(NORRISH) {
        moles += d / molar;
        held += f64::sqrt(k) * d / molar;
    }
    Some(water / moles * (-(held / moles).powi(2)).exp())
}
