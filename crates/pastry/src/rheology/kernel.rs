//! The kernel: a mixture prepared once, then asked at any temperature without allocating.

use crate::formula::line::warmest;
use crate::formula::mixture::Mixture;
use crate::formula::system::{Continuous, System, SystemTraits};
use crate::ingredient::composition::{FATS, Part};
use crate::rheology::clock::{Clock, fat_felt};
use crate::rheology::consistency::{Consistency, Contributions, Correction, History, Options, Structure};
use crate::rheology::doubt::{Doubt, Particles};
use crate::rheology::fat_outside::FatOutside;
use crate::rheology::inside_out::InsideOut;
use crate::rheology::network::{Networks, NetworksSet};
use crate::rheology::params::*;
use crate::rheology::scramble::scrambled;
use crate::rheology::serum::Serum;
use crate::rheology::smooth::spos;
use crate::rheology::solid_fat::Pool;
use crate::rheology::unchecked::Unchecked;
use crate::rheology::volumes::{Cooking, Nudge, Volumes};
use crate::rheology::water_outside::{Branch, WaterOutside};

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
    /// Share in which particles touch, 0 to 1; 1 in fat-continuous families.
    pub percolation: f64,
    /// Linking of fat crystals through droplets, 0 to 1.
    pub linking: f64,
    /// Which phase is outside, and whether it splits.
    pub inside_out: InsideOut,
    /// Gelatin, starch, gums, body, foam.
    pub networks: Networks,
    /// How far what swells is cooked.
    pub cooking: Cooking,
    /// Its pH, ± 0.3, where agar or pectin ask for it.
    pub ph: Option<f64>,
    /// How far its egg is scrambled, 0 to 1.
    pub scrambled: f64,
    /// Fat, per cent of fat, water and alcohol.
    pub whip_fat_percent: f64,
    /// Alcohol by volume, per cent.
    pub alcohol_by_volume_percent: f64,
    pub(super) system: SystemTraits,
    /// How far it stands from what was ever checked.
    pub doubt: Doubt,
    worked: Option<bool>,
    worked_c: f64,
    clock: Clock,
    chocolate_slower: f64,
    /// What air does to the network of fat; none where it is folded in or not at all.
    whipped: Option<Whipped>,
    pool_common: Pool,
    pool_globules: Pool,
    water: WaterOutside,
    fat: FatOutside,
    air_factor: f64,
    /// What this kitchen's own tests taught: times the book's yield stress and viscosity; none where nothing did.
    taught: Option<[f64; 2]>,
}

/// How far something has set by the time it is asked.
#[derive(Debug, Clone, Copy)]
pub struct SetSoFar {
    /// Melted fat: 0 just made, 1 rested.
    felt: f64,
    hours: f64,
    networks: NetworksSet,
}

impl Prepared {
    /// Prepares a mixture.
    pub fn new(mixture: &Mixture, system: System, options: &Options) -> Self {
        Self::nudged(mixture, system, options, Nudge::NONE)
    }

    /// The same with uncertain swellings raised: for the band.
    pub fn nudged(mixture: &Mixture, system: System, options: &Options, nudge: Nudge) -> Self {
        let traits = system.traits();
        let m = &mixture.composition;
        let cook = warmest(options.cook_c, options.cooks.sugar).unwrap_or(traits.mixing_c);
        let serum = Serum::new(m, mixture.gum, traits.mixing_c.max(cook.min(95.0)));
        let cooking = Cooking::new(mixture, &serum, options, traits.mixing_c);
        let v = Volumes::new(mixture, &serum, &cooking, nudge);
        let overrun = options.overrun.unwrap_or(traits.overrun).clamp(0.0, 5.0);
        let air = overrun / (1.0 + overrun);

        // Two pools: chocolate, butter and oil melt together; part of the cream's fat stays apart.
        let mixing = if traits.continuous == Continuous::Water { GLOBULE_MIXING } else { 1.0 };
        let apart = mixture.globule_fat.map(|h| (1.0 - mixing) * h);
        let fats = FATS.map(|fat| m.get(fat));
        let common = [0, 1, 2, 3].map(|k| (fats[k] - apart[k]).max(0.0));

        // Only these ask, and it is dear.
        let sour = serum.agar_percent > 0.0 || mixture.setting_pectin > 0.0;
        let ph = if sour { mixture.acidity.ph() } else { None };
        let water = WaterOutside::new(mixture, &serum, &v, &cooking, &traits, options);
        let fat = FatOutside::new(&v);
        let water_outside = traits.continuous == Continuous::Water;
        let particles = if water_outside { water.particles } else { fat.solids };
        let percolation = if water_outside { water.percolation } else { 1.0 };
        let crowding = if water_outside { water.crowding } else { fat.solids / 0.60 };
        let of_dairy = if water_outside && particles > 0.0 {
            (v.fat + v.milk_protein_swollen) / (v.total * particles)
        } else {
            0.0
        };
        Prepared {
            networks: Networks::new(
                mixture,
                &serum,
                system,
                options,
                &cooking,
                ph,
                [v.fat / v.total, fat.matrix_fat, air],
            ),
            air,
            density: (1.0 - air) / v.total,
            crowding,
            particles,
            percolation,
            doubt: Doubt::new(
                mixture,
                system,
                options,
                &serum,
                &Particles {
                    share: particles,
                    crowding,
                    percolation,
                    of_dairy,
                    yolk_cooked: cooking.yolk,
                    wet: if water_outside { 0.0 } else { 1.0 - fat.matrix_fat },
                },
            ),
            linking: if water_outside { water.linking } else { 1.0 },
            inside_out: match traits.continuous {
                Continuous::Water => InsideOut::water_outside(mixture, &v),
                Continuous::Fat => InsideOut::fat_outside(&v, fat.matrix_fat),
            },
            whip_fat_percent: water.whip_fat_percent,
            alcohol_by_volume_percent: 100.0 * (m.get(Part::Alcohol) / 789.0) / v.total,
            ph,
            scrambled: scrambled(mixture, system, options),
            serum,
            cooking,
            system: traits,
            worked: options.worked,
            worked_c: options.worked_c.unwrap_or(20.0),
            clock: options.clock.unwrap_or(Clock::ARRIVED),
            chocolate_slower: mixture.chocolate_slower,
            whipped: traits.whips.then(|| Whipped::new(air, water.linking_liquid, water.linking)),
            pool_common: Pool::new(common),
            pool_globules: Pool::new(apart),
            water,
            fat,
            air_factor: (1.0 - air).powi(2),
            taught: (options.learned != Correction::NONE).then(|| options.learned.ln_over.map(f64::exp)),
        }
    }

    /// Which phase is outside once it has set.
    pub fn structure(&self) -> Structure {
        Structure::of(self.inside_out.fat_weight)
    }

    /// What is left of a network of fat that was beaten at `worked_c` and then held: what has set since was never beaten, and
    /// what was slowly mends (assumed: in 6 h).
    fn left_since_beaten(&self, t_c: f64, solid_fat: f64, hours: f64) -> f64 {
        let beaten = WORKED_LEFT + (1.0 - WORKED_LEFT) * (1.0 - (-hours / 6.0).exp());
        if solid_fat <= 0.0 {
            return beaten;
        }
        let then = self.solid_fat(self.worked_c + spos(t_c - self.worked_c, 0.2));
        (beaten * then + (solid_fat - then)) / solid_fat
    }

    /// What it is not known for, when it stands too far from what was ever checked.
    pub fn unknown(&self, point: &Consistency, t_c: f64, history: History) -> Option<Unchecked> {
        self.doubt.added(point, t_c, history).unknown()
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

    /// Whether its fat melts in the making.
    pub fn melts(&self) -> bool {
        self.system.melted && self.pool_common.total + self.pool_globules.total > 0.0
    }

    /// Whether fat is outside.
    pub fn fat_outside(&self) -> bool {
        self.system.continuous == Continuous::Fat
    }

    /// How much slower than dark chocolate's its fat sets.
    pub fn chocolate_slower(&self) -> f64 {
        self.chocolate_slower
    }

    /// How long and how it came to its temperature while it is fresh.
    pub fn clock(&self) -> Clock {
        self.clock
    }

    /// One evaluation at `t_c` °C. Nothing is clamped here; the range is the caller's.
    #[inline]
    pub fn at(&self, t_c: f64, history: History) -> Consistency {
        self.at_after(t_c, history, self.clock)
    }

    /// The same with the time since it was made; it counts while it is fresh.
    #[inline]
    pub fn at_after(&self, t_c: f64, history: History, clock: Clock) -> Consistency {
        self.at_set(t_c, history, &self.set_by(t_c, history, clock))
    }

    /// How far it has set at `t_c`.
    #[inline]
    pub fn set_by(&self, t_c: f64, history: History, clock: Clock) -> SetSoFar {
        // Just melted fat is undercooled; it slides into what it is when rested.
        let melted = history == History::Fresh && self.system.melted;
        let felt = if melted { fat_felt(t_c, clock, self.chocolate_slower) } else { 1.0 };
        SetSoFar { felt, hours: clock.hours, networks: self.networks.set_by(t_c, history, clock) }
    }

    /// Whether anything in it sets while it is fresh and held at `t_c`.
    pub fn sets_at(&self, t_c: f64) -> bool {
        let fat = self.pool_common.total + self.pool_globules.total > 0.0;
        (self.system.melted && fat && t_c < 28.0) || self.networks.sets_at(t_c)
    }

    /// One evaluation of something that has set so far.
    #[inline]
    pub fn at_set(&self, t_c: f64, history: History, set: &SetSoFar) -> Consistency {
        let fresh = history == History::Fresh;
        let (melted, felt) = (fresh && self.system.melted, set.felt);
        let solid_fat = self.solid_fat(t_c + UNDERCOOLING_K * (1.0 - felt));
        let worked = self.worked.unwrap_or(match history {
            History::Fresh => self.system.continuous == Continuous::Fat,
            History::Rested => false,
            // Whipping is the work that makes a whipped cream: piping it takes nothing away.
            History::Worked => !self.system.whips,
        });
        let left = match () {
            () if !worked || melted => 1.0,
            () if fresh && self.system.continuous == Continuous::Fat => {
                self.left_since_beaten(t_c, solid_fat, set.hours)
            }
            () => WORKED_LEFT,
        };

        let serum_viscosity = self.serum.viscosity(t_c);
        // As made a melted mass is an emulsion in water, or it has split: only setting turns it over.
        let turned = felt * self.inside_out.fat_weight;
        let (branch, turning) = match self.system.continuous {
            Continuous::Fat => (self.fat.at(t_c, solid_fat, left), [0.0; 2]),
            Continuous::Water => {
                let water = self.water.at(t_c, solid_fat, left, serum_viscosity);
                // Below this the other structure is lost in rounding.
                if turned < 1e-16 {
                    (water, [0.0; 2])
                } else {
                    blend(&water, &self.fat.at(t_c, solid_fat, left), turned)
                }
            }
        };

        let added = self.networks.at(t_c, &set.networks);
        let air = self.air_factor;
        let contributions = Contributions {
            fat: branch.fat * self.whipped.as_ref().map_or(air, |whipped| whipped.factor),
            crowd: branch.crowd * air,
            gel: yield_strain::GEL * added.gelatin_modulus * air,
            agar: yield_strain::AGAR * added.agar_modulus * air,
            starch: added.starch * air,
            foam: self.networks.foam(),
            gum: added.gum * air,
            body: added.body * air,
            pectin: yield_strain::PECTIN * added.pectin_modulus * air,
            egg: added.egg * air,
        };
        let yield_stress = contributions.sum() + LEAST_PA;
        let dragging = if self.system.continuous == Continuous::Water {
            yield_stress
        } else {
            contributions.fat + contributions.starch
        };
        let flowing = branch.thick / (1.0 - self.air);
        let plastic = flowing + 0.03 * dragging;
        let viscosity = yield_stress / 10.0 + plastic;
        let book = Consistency {
            yield_stress_pa: yield_stress,
            viscosity_pa_s: viscosity,
            plastic_viscosity_pa_s: plastic,
            modulus_pa: contributions.modulus(),
            gelatin_modulus_pa: contributions.gel / yield_strain::GEL,
            gel_modulus_pa: (added.gelatin_modulus + added.agar_modulus + added.pectin_modulus) * air,
            solid_fat,
            split: self.inside_out.split(solid_fat),
            serum_viscosity_pa_s: serum_viscosity,
            contributions,
            fat_outside: if self.system.continuous == Continuous::Fat { 1.0 } else { turned },
            thin: match self.system.continuous {
                Continuous::Water => (1.0 - self.percolation) * flowing / viscosity,
                Continuous::Fat => 0.0,
            },
            turning,
        };
        match self.taught {
            None => book,
            Some(times) => book.times(times),
        }
    }
}

/// Air in whipped cream: bubbles dilute the droplets that were linked before, and are themselves the frame that whipping
/// links. With A = 8 φ² (1 − φ)², which is greatest at 100 per cent overrun, the fat network is
/// [g₀ (1 − φ)² + (g − g₀) A]/g of what it would be without air (assumed).
#[derive(Debug, Clone, Copy)]
struct Whipped {
    factor: f64,
}

impl Whipped {
    fn new(air: f64, before: f64, linked: f64) -> Self {
        let thinned = (1.0 - air).powi(2);
        let frame = whip_frame(air);
        let factor =
            if linked > 0.0 { (before * thinned + (linked - before) * frame) / linked } else { thinned };
        Whipped { factor }
    }
}

/// Strength of the frame that bubbles make, of its greatest: 16 φ² (1 − φ)², at an air share of 0 to 1.
pub fn whip_frame(air: f64) -> f64 {
    0.5 * 16.0 * air * air * (1.0 - air) * (1.0 - air)
}

/// Two structures at once, `w` of it with fat outside: a geometric mean, shared out as each brings it; and how much
/// hangs on w, ln of yield stress and of viscosity.
#[inline]
fn blend(water: &Branch, fat: &Branch, w: f64) -> (Branch, [f64; 2]) {
    let (a, b) = (water.fat + water.crowd + LEAST_PA, fat.fat + fat.crowd + LEAST_PA);
    let (ln_a, ln_b) = (a.ln(), b.ln());
    let s = ((1.0 - w) * ln_a + w * ln_b).exp();
    let (thin, thick) = (water.thick.ln(), fat.thick.ln());
    let branch = Branch {
        fat: s * ((1.0 - w) * water.fat / a + w * fat.fat / b),
        crowd: s * ((1.0 - w) * water.crowd / a + w * fat.crowd / b),
        thick: ((1.0 - w) * thin + w * thick).exp(),
    };
    (branch, [ln_b - ln_a, thick - thin].map(|ln| w * (1.0 - w) * ln.abs()))
}
