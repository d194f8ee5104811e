//! The kernel: a mixture prepared once, then asked at any temperature without allocating.

use crate::formula::mixture::Mixture;
use crate::formula::system::{Continuous, System, SystemTraits};
use crate::ingredient::composition::{FATS, Part, SUGARS};
use crate::rheology::consistency::{Banded, Consistency, Contributions, History, Options, Structure};
use crate::rheology::network::Networks;
use crate::rheology::params::*;
use crate::rheology::serum::Serum;
use crate::rheology::smooth::{above_zero, logistic, smin, spos, step};
use crate::rheology::solid_fat::Pool;

/// How much both swellings are raised to ask what their uncertainty does.
const SWELLING_NUDGE: f64 = 1.08;

/// A mixture as a system, with all that does not depend on temperature worked out.
#[derive(Debug, Clone, Copy)]
pub struct Prepared {
    /// The watery phase.
    pub serum: Serum,
    /// Volume share of air.
    pub air: f64,
    /// Density with air, kg/m³.
    pub density: f64,
    /// Crowding index: 1 is full.
    pub crowding: f64,
    /// Particle volume share (of undissolved solids in fat-continuous families).
    pub particles: f64,
    /// Fat share of the fluid between particles, which decides on splitting.
    pub fat_of_fluid: f64,
    /// Weight of the fat-continuous structure, 0 to 1.
    pub fat_weight: f64,
    /// Linking of fat crystals through droplets, 0 to 1.
    pub linking: f64,
    /// Gelatin, starch, gums, body, foam.
    pub networks: Networks,
    /// Fat, per cent of fat and liquid.
    pub fat_in_wet_percent: f64,
    /// Alcohol by volume, per cent.
    pub alcohol_by_volume_percent: f64,
    /// Temperature at which its starch is fully cooked, °C: sugar raises it.
    pub starch_cooks_c: f64,
    /// Share of its starch that is cooked, 0 to 1.
    pub starch_cooked: f64,
    system: SystemTraits,
    base_sigma: f64,
    worked: Option<bool>,
    pool_common: Pool,
    pool_globules: Pool,
    fat_volume: f64,
    crowd_factor: f64,
    paste: f64,
    split_level: f64,
    matrix_fat: f64,
    matrix_fill: f64,
    matrix_crowd: f64,
    air_factor: f64,
}

impl Prepared {
    /// Prepares a mixture.
    pub fn new(mixture: &Mixture, system: System, options: &Options) -> Self {
        Self::with_swelling(mixture, system, options, 1.0)
    }

    /// The same with the swelling of cocoa and milk protein multiplied: for the band.
    pub fn with_swelling(mixture: &Mixture, system: System, options: &Options, swelling: f64) -> Self {
        let traits = system.traits();
        let m = &mixture.composition;
        let cook = options.cook_c.unwrap_or(traits.mixing_c);
        let cook_of = |group: Option<f64>| group.unwrap_or(cook);
        let (cook_starch, cook_yolk, cook_white) =
            (cook_of(options.cooks.starch), cook_of(options.cooks.yolk), cook_of(options.cooks.white));
        let serum = Serum::new(m, mixture.gum, traits.mixing_c.max(cook.min(95.0)));

        let v = |part: Part| m.get(part) / part.density();
        let total: f64 = Part::ALL.iter().map(|part| v(*part)).sum();
        let overrun = options.overrun.unwrap_or(traits.overrun).clamp(0.0, 5.0);
        let air = overrun / (1.0 + overrun);
        let v_undissolved = serum.undissolved / Part::Sucrose.density();
        let v_fat: f64 = FATS.iter().map(|fat| v(*fat)).sum();
        let v_sugar: f64 = SUGARS.iter().zip(serum.dissolved).map(|(sugar, d)| d / sugar.density()).sum();
        let v_serum = v_sugar
            + [
                Part::Water,
                Part::Alcohol,
                Part::Salt,
                Part::Acid,
                Part::Gelatin,
                Part::Pectin,
                Part::Agar,
                Part::Gum,
            ]
            .iter()
            .map(|part| v(*part))
            .sum::<f64>();

        // Swelling and cooking. Sugar raises gelatinisation (assumed).
        let sugar_of_water =
            100.0 * serum.dissolved_total / above_zero(m.get(Part::Water) + serum.dissolved_total);
        let gelatinises_c = 92.0 + 0.25 * spos(sugar_of_water - 20.0, 2.0);
        let cooked = step((cook_starch - (gelatinises_c - 17.0)) / 17.0);
        let swell_cocoa = SWELL_COCOA * swelling;
        let swollen_others = [
            (Part::MilkProtein, SWELL_PROTEIN * swelling),
            (Part::EggWhite, 3.0 + 2.0 * ((cook_white - 58.0) / 15.0).clamp(0.0, 1.0)),
            (Part::Yolk, 3.0 + (SWELL_YOLK_COOKED - 3.0) * ((cook_yolk - 68.0) / 15.0).clamp(0.0, 1.0)),
            (Part::Fibre, SWELL_FIBRE),
            (Part::Other, 1.0),
            (Part::Starch, 1.3 * (1.0 - cooked)),
        ];
        let v_cocoa = v(Part::Cocoa);
        let v_swollen =
            v_cocoa * swell_cocoa + swollen_others.iter().map(|(part, s)| v(*part) * s).sum::<f64>();

        // Two pools: chocolate, butter and oil melt together; part of the cream's fat stays apart.
        let mixing = if traits.continuous == Continuous::Water { GLOBULE_MIXING } else { 1.0 };
        let apart = mixture.globule_fat.map(|h| (1.0 - mixing) * h);
        let fats = FATS.map(|fat| m.get(fat));
        let common = [0, 1, 2, 3].map(|k| (fats[k] - apart[k]).max(0.0));
        let fat: f64 = fats.iter().sum();

        // Branch F: fat outside.
        let v_water = v(Part::Water);
        let v_solid = v_undissolved
            + v_cocoa
            + smin(v_cocoa * (swell_cocoa - 1.0), 0.5 * v_water, 0.1)
            + v(Part::Fibre)
            + v(Part::Other)
            + v(Part::Starch) * (1.0 - cooked);
        let solids = smin(v_solid / total, 0.595, 0.02);
        let matrix_fat = v_fat / above_zero(total - v_solid);
        let matrix_water = 1.0 - matrix_fat;
        // Chateau, Ovarlez & Trung 2008, from memory.
        let matrix_fill = ((1.0 - solids) * (1.0 - solids / 0.60).powf(-1.5)).sqrt();
        let matrix_crowd =
            (1.0 - smin(matrix_water, 0.74, 0.03) / 0.85).powi(-2) * (1.0 - solids / 0.62).powi(-2);

        // Branch W: water outside.
        let particles_w = (v_fat + v_swollen + v_undissolved) / total;
        let v_hydrated =
            if v_water > 0.0 { CHI * v_sugar * v_water / (v_water + HYDRATION * v_sugar) } else { 0.0 };
        let crowding_w = particles_w / (PACKING_MAX - v_hydrated / total);
        let room = 1.0 - crowding_w;
        let r = (room + (room * room + 4.0 * CROWDING_FLOOR * CROWDING_FLOOR).sqrt())
            / (1.0 + (1.0 + 4.0 * CROWDING_FLOOR * CROWDING_FLOOR).sqrt());
        let crowd_factor = (1.0 + CROWDING_FLOOR_2) / (r * r + CROWDING_FLOOR_2);
        let linked = {
            let x = crowding_w.max(0.0).powf(LINK_SHARPNESS);
            x / (x + LINK_CROWDING.powf(LINK_SHARPNESS))
        };
        let fat_in_wet = fat / above_zero(fat + serum.liquid);
        let whip = options.whip.unwrap_or(traits.whip);
        // Below 30 % fat cream whips poorly, common practice: half-point 27 %.
        let whips =
            if traits.whips { fat_in_wet.powi(12) / (fat_in_wet.powi(12) + 0.27f64.powi(12)) } else { 1.0 };
        let linking_w = linked + (1.0 - linked) * WHIP_LINKING * whip * whips;

        // Which phase is outside, and does it split? Constants set by hand from common practice.
        let held = 1.14 * v_cocoa
            + 0.5 * swollen_others.iter().map(|(part, s)| v(*part) * (s - 1.0)).sum::<f64>()
            + 0.25 * v_sugar;
        let free = total * spos((v_serum - held) / total, 0.01);
        let fat_of_fluid_w = if v_fat > 0.0 { v_fat / (v_fat + free) } else { 0.0 };
        let soft = (1..4).map(|k| fats[k] - mixture.globule_fat[k]).sum::<f64>() / above_zero(fat);
        let paste = logistic((soft - 0.25) / 0.03);

        let water_outside = traits.continuous == Continuous::Water;
        let fat_weight = if water_outside { paste * logistic((fat_of_fluid_w - 0.68) / 0.03) } else { 1.0 };
        Prepared {
            networks: Networks::new(
                mixture,
                &serum,
                system,
                options,
                cooked,
                [v_fat / total, matrix_fat, air],
            ),
            serum,
            air,
            density: (1.0 - air) / total,
            crowding: if water_outside { crowding_w } else { solids / 0.60 },
            particles: if water_outside { particles_w } else { solids },
            fat_of_fluid: if water_outside { fat_of_fluid_w } else { matrix_water },
            fat_weight,
            linking: if water_outside { linking_w } else { 1.0 },
            fat_in_wet_percent: 100.0 * fat_in_wet,
            alcohol_by_volume_percent: 100.0 * (m.get(Part::Alcohol) / 789.0) / total,
            starch_cooks_c: gelatinises_c,
            starch_cooked: cooked,
            system: traits,
            base_sigma: traits.sigma_yield.max(options.least_sigma),
            worked: options.worked,
            pool_common: Pool::new(common),
            pool_globules: Pool::new(apart),
            fat_volume: v_fat / total,
            crowd_factor,
            paste,
            split_level: if water_outside {
                logistic((fat_of_fluid_w - 0.67) / 0.015)
            } else {
                logistic((matrix_water - 0.70) / 0.03)
            },
            matrix_fat,
            matrix_fill,
            matrix_crowd,
            air_factor: (1.0 - air).powi(2),
        }
    }

    /// Standard deviation of ln yield stress that the system has everywhere.
    pub fn base_sigma(&self) -> f64 {
        self.base_sigma
    }

    /// Which phase is outside.
    pub fn structure(&self) -> Structure {
        Structure::of(self.fat_weight)
    }

    /// Solid fat of all fat at `t_c`, 0 to 1.
    #[inline]
    fn solid_fat(&self, t_c: f64) -> f64 {
        let all = self.pool_common.total + self.pool_globules.total;
        if all <= 0.0 {
            return 0.0;
        }
        let mut solid = 0.0;
        for pool in [&self.pool_common, &self.pool_globules] {
            if pool.total > 0.0 {
                solid += pool.total * pool.solid(t_c);
            }
        }
        solid / all
    }

    /// One evaluation at `t_c` °C. Nothing is clamped here; the range is the caller's.
    #[inline]
    pub fn at(&self, t_c: f64, history: History) -> Consistency {
        let undercooled = history == History::Fresh && self.system.melted;
        let solid_fat = self.solid_fat(if undercooled { t_c + UNDERCOOLING_K } else { t_c });
        let worked = self.worked.unwrap_or(match history {
            History::Fresh => self.system.continuous == Continuous::Fat,
            History::Rested => false,
            History::Worked => true,
        });
        let left = if worked && !undercooled { WORKED_LEFT } else { 1.0 };

        let network = |linked_fat: f64| FAT_NETWORK_PA * linked_fat * linked_fat * linked_fat.sqrt();
        let serum_viscosity = self.serum.viscosity(t_c);
        let fat_outside = || {
            (
                network(solid_fat * self.matrix_fat) * self.matrix_fill * left,
                CROWD_PA * (self.matrix_crowd - 1.0),
                0.070 * (-0.030 * (t_c - 20.0)).exp() * self.matrix_crowd,
            )
        };
        let (fat, crowd, thick) = if self.system.continuous == Continuous::Fat {
            fat_outside()
        } else {
            let w_fat = network(solid_fat * self.fat_volume) * self.linking * left;
            let w_crowd =
                CROWD_PA * (-(smin(t_c, 60.0, 0.03) - 30.0) / 15.0).exp() * (self.crowd_factor - 1.0);
            let w_thick = serum_viscosity * self.crowd_factor;
            let w = self.fat_weight;
            // Below this the other structure is lost in rounding.
            if w < 1e-16 {
                (w_fat, w_crowd, w_thick)
            } else {
                let (f_fat, f_crowd, f_thick) = fat_outside();
                let (a, b) = (w_fat + w_crowd + 0.001, f_fat + f_crowd + 0.001);
                let s = ((1.0 - w) * a.ln() + w * b.ln()).exp();
                (
                    s * ((1.0 - w) * w_fat / a + w * f_fat / b),
                    s * ((1.0 - w) * w_crowd / a + w * f_crowd / b),
                    ((1.0 - w) * w_thick.ln() + w * f_thick.ln()).exp(),
                )
            }
        };

        let added = self.networks.at(t_c, history);
        let air = self.air_factor;
        let contributions = Contributions {
            fat: fat * air,
            crowd: crowd * air,
            gel: added.gelatin() * air,
            agar: added.agar() * air,
            starch: added.starch * air,
            foam: self.networks.foam(),
            gum: added.gum * air,
            body: added.body * air,
        };
        let yield_stress = contributions.sum() + 0.001;
        let dragging = if self.system.continuous == Continuous::Water {
            yield_stress
        } else {
            contributions.fat + contributions.starch
        };
        let plastic = thick / (1.0 - self.air) + 0.03 * dragging;
        let gel_modulus = contributions.gel + added.agar_modulus * air;
        let split = if self.system.continuous == Continuous::Water {
            let release = logistic((self.fat_volume * (1.0 - solid_fat) - 0.70) / 0.03);
            self.split_level * (1.0 - self.paste + self.paste * release)
        } else {
            self.split_level
        };
        Consistency {
            yield_stress_pa: yield_stress,
            viscosity_pa_s: yield_stress / 10.0 + plastic,
            plastic_viscosity_pa_s: plastic,
            modulus_pa: contributions.fat / yield_strain::FAT
                + contributions.crowd / yield_strain::CROWD
                + contributions.gel / yield_strain::GEL
                + contributions.agar / yield_strain::AGAR
                + contributions.starch / yield_strain::STARCH
                + contributions.foam / yield_strain::FOAM
                + contributions.gum / yield_strain::GUM
                + contributions.body / yield_strain::BODY,
            gel_modulus_pa: gel_modulus,
            solid_fat,
            split,
            serum_viscosity_pa_s: serum_viscosity,
            contributions,
        }
    }
}

/// A mixture prepared together with what its uncertainty needs.
#[derive(Debug, Clone, Copy)]
pub struct Predictor {
    /// The middle.
    pub base: Prepared,
    swollen: Prepared,
    sigma_yield: f64,
    sigma_viscosity: f64,
}

impl Predictor {
    /// Prepares a mixture and its band.
    pub fn new(mixture: &Mixture, system: System, options: &Options) -> Self {
        let traits = system.traits();
        Predictor {
            base: Prepared::new(mixture, system, options),
            swollen: Prepared::with_swelling(mixture, system, options, SWELLING_NUDGE),
            sigma_yield: traits.sigma_yield.max(options.least_sigma),
            sigma_viscosity: traits.sigma_viscosity.max(options.least_sigma),
        }
    }

    /// One evaluation with its band: σ² = base² + dT² + dS², where dT is one kelvin either way and
    /// dS both swellings raised by 8 %.
    pub fn at(&self, t_c: f64, history: History) -> Banded {
        self.banded(t_c, history, &self.base.at(t_c - 1.0, history), &self.base.at(t_c + 1.0, history))
    }

    /// Standard deviations of ln yield stress and ln viscosity by their source: the system itself, one
    /// kelvin either way, swelling 8 % off.
    pub fn band_terms(&self, t_c: f64, history: History) -> [[f64; 2]; 3] {
        let ln = |point: Consistency| [point.yield_stress_pa.ln(), point.viscosity_pa_s.ln()];
        let middle = ln(self.base.at(t_c, history));
        let (colder, warmer) = (ln(self.base.at(t_c - 1.0, history)), ln(self.base.at(t_c + 1.0, history)));
        let swollen = ln(self.swollen.at(t_c, history));
        [
            [self.sigma_yield, self.sigma_viscosity],
            [0, 1].map(|q| 0.5 * (warmer[q] - colder[q])),
            [0, 1].map(|q| swollen[q] - middle[q]),
        ]
    }

    /// The same when the neighbours one kelvin away are already known.
    #[inline]
    pub fn banded(&self, t_c: f64, history: History, colder: &Consistency, warmer: &Consistency) -> Banded {
        self.banded_from(self.base.at(t_c, history), t_c, history, colder, warmer)
    }

    #[inline]
    pub(crate) fn banded_from(
        &self,
        middle: Consistency,
        t_c: f64,
        history: History,
        colder: &Consistency,
        warmer: &Consistency,
    ) -> Banded {
        let swollen = self.swollen.at(t_c, history);
        let sigma = |base: f64, middle: f64, colder: f64, warmer: f64, swollen: f64| {
            let by_degree = 0.5 * (warmer / colder).ln();
            let by_swelling = (swollen / middle).ln();
            (base * base + by_degree * by_degree + by_swelling * by_swelling).sqrt()
        };
        Banded {
            middle,
            sigma_yield: sigma(
                self.sigma_yield,
                middle.yield_stress_pa,
                colder.yield_stress_pa,
                warmer.yield_stress_pa,
                swollen.yield_stress_pa,
            ),
            sigma_viscosity: sigma(
                self.sigma_viscosity,
                middle.viscosity_pa_s,
                colder.viscosity_pa_s,
                warmer.viscosity_pa_s,
                swollen.viscosity_pa_s,
            ),
        }
    }
}
