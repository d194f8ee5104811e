//! How far a formula stands from what was ever checked: the band grows with it, and past a limit nothing is claimed.

use crate::formula::mixture::Mixture;
use crate::formula::system::{Continuous, System};
use crate::ingredient::composition::Part;
use crate::rheology::consistency::{Consistency, History, Options};
use crate::rheology::serum::Serum;
use crate::rheology::smooth::{above_zero, spos};
use crate::rheology::unchecked::Unchecked;

/// Past this standard deviation of ln, added by distance alone, it is not known here (assumed).
pub const KNOWN_TO: f64 = 1.0;

const SOURCES: usize = Unchecked::ALL.len();

/// What the distance adds, standard deviations of ln yield stress and of ln viscosity.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Added {
    /// By source, in the order of [`Unchecked::ALL`].
    pub terms: [[f64; 2]; SOURCES],
}

impl Added {
    /// The root of the sum of squares.
    pub fn sigma(&self) -> [f64; 2] {
        [0, 1].map(|q| self.terms.iter().map(|term| term[q] * term[q]).sum::<f64>().sqrt())
    }

    /// What it is not known for, when it is not: the largest source.
    pub fn unknown(&self) -> Option<Unchecked> {
        // What is so thin that nothing touches has no yield stress to be known, and its viscosity is.
        let mut counted = *self;
        counted.terms[Unchecked::Dilute as usize] = [0.0; 2];
        let [of_yield, of_viscosity] = counted.sigma();
        if of_yield.max(of_viscosity) <= KNOWN_TO {
            return None;
        }
        let size = |at: usize| counted.terms[at][0].max(counted.terms[at][1]);
        let largest = (0..self.terms.len()).max_by(|a, b| size(*a).total_cmp(&size(*b)))?;
        Unchecked::ALL.get(largest).copied()
    }
}

/// Everything of it that does not depend on temperature. Coefficients are assumed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Doubt {
    fixed: Added,
    fish_share: f64,
    gum: f64,
    dilute: f64,
    rested_c: [f64; 2],
    fresh_c: [f64; 2],
    base: [f64; 2],
    syrup: Option<f64>,
    dairy_of_particles: f64,
}

/// What a mixture's particles say of how well it is known.
#[derive(Debug, Clone, Copy)]
pub struct Particles {
    /// Their volume share.
    pub share: f64,
    /// Crowding index.
    pub crowding: f64,
    /// Share in which they touch.
    pub percolation: f64,
    /// Fat and milk protein of them, 0 to 1.
    pub of_dairy: f64,
    /// How far its yolk is cooked.
    pub yolk_cooked: f64,
    /// Liquid of what is between its solids, volume share, where fat is outside; 0 elsewhere.
    pub wet: f64,
}

impl Doubt {
    /// Of a mixture with its serum and particles.
    pub fn new(
        mixture: &Mixture,
        system: System,
        options: &Options,
        serum: &Serum,
        particles: &Particles,
    ) -> Self {
        let traits = system.traits();
        let water_outside = traits.continuous == Continuous::Water;
        let per_spirit = if system == System::Syrup { 0.01 } else { 0.055 };
        let alcohol = per_spirit * spos(100.0 * serum.alcohol_of_water - 5.0, 1.0);
        let pectin = 100.0 * mixture.setting_pectin / above_zero(serum.liquid);
        // Of the gel it makes no more is known than its order of magnitude.
        let pectin = 0.8 * (1.0 - (-(pectin / 0.3).powi(2)).exp());
        let (crowded, yolk) = if water_outside {
            let yolk_as_weighed = 100.0 * mixture.composition.get(Part::Yolk) / 0.24;
            (
                2.0 * spos(particles.crowding - 1.0, 0.05),
                0.04 * spos(yolk_as_weighed - 10.0, 1.0) * particles.yolk_cooked,
            )
        } else {
            (0.0, 0.0)
        };
        // Drops that crowd one another in the butter: how much they take away was set on what holds together.
        let wet = 12.0 * (particles.wet - system.wet_to()).max(0.0);
        let gum = serum.gum_percent;
        let gum_thick = 0.3 * (1.0 + 20.0 * gum + 60.0 * gum * gum).ln();
        let mut terms = [[0.0; 2]; SOURCES];
        terms[Unchecked::Alcohol as usize] = [alcohol; 2];
        terms[Unchecked::Pectin as usize] = [pectin; 2];
        terms[Unchecked::Crowded as usize] = [crowded; 2];
        terms[Unchecked::Yolk as usize] = [yolk; 2];
        terms[Unchecked::Wet as usize] = [wet; 2];
        terms[Unchecked::Gum as usize] = [0.0, gum_thick];
        let (rested_c, fresh_c) = system.checked_c();
        let [narrower_yield, narrower_viscosity] = options.learned.narrower;
        let base = [
            narrower_yield * traits.sigma_yield.max(options.least_sigma),
            narrower_viscosity * traits.sigma_viscosity.max(options.least_sigma),
        ];
        Doubt {
            fixed: Added { terms },
            fish_share: mixture.fish_gelatin,
            // Xanthan and locust bean set together: nobody knows here how far.
            gum: 0.4 * spos(gum - 0.5, 0.1) + if mixture.gums_set_together { 2.0 } else { 0.0 },
            dilute: if water_outside { 1.0 - particles.percolation } else { 0.0 },
            rested_c,
            fresh_c,
            base,
            syrup: (system == System::Syrup).then(|| 1.0 - (-particles.share / 0.02).exp()),
            dairy_of_particles: particles.of_dairy,
        }
    }

    /// What the distance adds at `t_c`.
    pub fn added(&self, point: &Consistency, t_c: f64, history: History) -> Added {
        let share = |pascal: f64| pascal / point.yield_stress_pa;
        let of = &point.contributions;
        let [low, high] = if history == History::Fresh { self.fresh_c } else { self.rested_c };
        let mut added = self.fixed;
        let mut put = |what: Unchecked, sigma: [f64; 2]| added.terms[what as usize] = sigma;
        put(Unchecked::Agar, [0.9 * share(of.agar); 2]);
        put(Unchecked::FishGelatin, [0.5 * self.fish_share * share(of.gel); 2]);
        let outside = spos(low - t_c, 1.0) + spos(t_c - high, 1.0);
        put(Unchecked::Temperature, [0.03 * (1.0 - point.thin) * outside; 2]);
        put(Unchecked::Gum, [0.8 * share(of.gum) + self.gum, self.fixed.terms[Unchecked::Gum as usize][1]]);
        put(Unchecked::Turning, point.turning);
        put(Unchecked::Dilute, [self.dilute * share(of.crowd), 0.0]);
        added
    }

    /// Share of its viscosity that is dairy's, which is known to a quarter, 0 to 1.
    pub fn dairy_share(&self, point: &Consistency, water_viscosity: f64) -> f64 {
        point.thin * self.dairy_of_particles * (water_viscosity / point.serum_viscosity_pa_s).sqrt()
    }

    /// Standard deviations of ln yield stress and ln viscosity that the system has by itself.
    pub fn base(&self, point: &Consistency, water_viscosity: f64) -> [f64; 2] {
        /// Published viscosities of milk and cream differ by so much.
        const DAIRY: f64 = 0.25;
        let [of_yield, of_viscosity] = self.base;
        let share = self.syrup.unwrap_or_else(|| self.dairy_share(point, water_viscosity));
        [of_yield, of_viscosity + (DAIRY - of_viscosity) * share]
    }

    /// The same of the yield stress, which is the same everywhere.
    pub fn base_of_yield(&self) -> f64 {
        self.base[0]
    }
}
