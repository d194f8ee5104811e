//! What takes up room in a mixture: volumes per gram of it, dry and swollen.

use crate::formula::mixture::Mixture;
use crate::ingredient::composition::{FATS, Part, SUGARS};
use crate::ingredient::starch::{StarchKind, later_k};
use crate::rheology::consistency::Options;
use crate::rheology::params::*;
use crate::rheology::serum::Serum;
use crate::rheology::smooth::{smin, step};

/// By how much an uncertain swelling is raised to ask what it does.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Nudge {
    /// Factor on the swelling of cocoa and milk protein.
    pub cocoa_and_protein: f64,
    /// Factor on the swelling of yolk cooked to 83 °C.
    pub yolk: f64,
}

impl Nudge {
    /// None.
    pub const NONE: Nudge = Nudge { cocoa_and_protein: 1.0, yolk: 1.0 };
}

/// How far what swells is cooked.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Cooking {
    /// Temperature at which its starch is fully cooked, °C: sugar raises it.
    pub starch_cooks_c: f64,
    /// Temperature under which it stays thin and tastes raw, °C.
    pub starch_raw_under_c: f64,
    /// Share of its starch that is cooked, 0 to 1.
    pub starch: f64,
    /// Share of its yolk that is, 0 at 68 °C to 1 at 83.
    pub yolk: f64,
    /// Share of its white that is, 0 at 58 °C to 1 at 73.
    pub white: f64,
    /// Temperatures its white and its yolk reached, °C.
    pub egg_c: [f64; 2],
}

impl Cooking {
    /// From the temperatures its parts reached; where none is given, `mixing_c` of the system.
    pub fn new(mixture: &Mixture, serum: &Serum, options: &Options, mixing_c: f64) -> Self {
        let cook = options.cook_c.unwrap_or(mixing_c);
        let reached = |group: Option<f64>| group.unwrap_or(cook);
        let later = later_k(serum.sugar_percent());
        let cook_c = reached(options.cooks.starch);
        let (mut cooked, mut all, mut starch_cooks_c, mut starch_raw_under_c) = (0.0, 0.0, 0.0f64, 0.0f64);
        for (kind, share) in StarchKind::ALL.iter().zip(mixture.hot_starch_of) {
            if share > 0.0 {
                let [onset, full] = kind.swells_c().map(|c| c + later);
                cooked += share * step((cook_c - onset) / (full - onset));
                all += share;
                starch_cooks_c = starch_cooks_c.max(full);
                starch_raw_under_c = starch_raw_under_c.max(onset + 12.0);
            }
        }
        if all <= 0.0 {
            let [onset, full] = StarchKind::Corn.swells_c().map(|c| c + later);
            (cooked, all) = (step((cook_c - onset) / (full - onset)), 1.0);
            (starch_cooks_c, starch_raw_under_c) = (full, onset + 12.0);
        }
        let ramp = |t_c: f64, from_c: f64| ((t_c - from_c) / 15.0).clamp(0.0, 1.0);
        Cooking {
            starch_cooks_c,
            starch_raw_under_c,
            starch: cooked / all,
            yolk: ramp(reached(options.cooks.yolk), 68.0),
            white: ramp(reached(options.cooks.white), 58.0),
            egg_c: [reached(options.cooks.white), reached(options.cooks.yolk)],
        }
    }
}

/// Volumes per total mass, m³/kg.
#[derive(Debug, Clone, Copy)]
pub struct Volumes {
    /// All of it, without air.
    pub total: f64,
    /// Water.
    pub water: f64,
    /// Alcohol, salt and acid.
    pub beside_water: f64,
    /// All fat.
    pub fat: f64,
    /// Fat in globules of its own.
    pub globules: f64,
    /// Dissolved sugars.
    pub sugar: f64,
    /// Sucrose that did not dissolve.
    pub undissolved: f64,
    /// The watery phase with what is dissolved in it.
    pub serum: f64,
    /// Fat-free cocoa, dry.
    pub cocoa: f64,
    /// The same, swollen.
    pub cocoa_swollen: f64,
    /// Milk protein, dry.
    pub milk_protein: f64,
    /// The same, swollen.
    pub milk_protein_swollen: f64,
    /// Yolk solids, swollen.
    pub yolk_swollen: f64,
    /// Fibre, dry.
    pub fibre: f64,
    /// Everything else that is dry and stays so: starch not cooked, ash.
    pub inert: f64,
    /// All seven that swell, swollen.
    pub swollen: f64,
    /// Water that swelling takes up beyond the dry volume, all but cocoa.
    pub taken_up: f64,
}

impl Volumes {
    /// Of a mixture with its serum.
    pub fn new(mixture: &Mixture, serum: &Serum, cooking: &Cooking, nudge: Nudge) -> Self {
        let m = &mixture.composition;
        let v = |part: Part| m.get(part) / part.density();
        let sum = |parts: &[Part]| parts.iter().map(|part| v(*part)).sum::<f64>();
        let sugar: f64 = SUGARS.iter().zip(serum.dissolved).map(|(sugar, d)| d / sugar.density()).sum();
        let beside_water = sum(&[Part::Alcohol, Part::Salt, Part::Acid]);
        let swell_protein = SWELL_PROTEIN * nudge.cocoa_and_protein;
        // Yolk swells until its water runs short: no further than 0.6 of it.
        let yolk_full = SWELL_YOLK_COOKED * nudge.yolk;
        let yolk_dry = v(Part::Yolk);
        let yolk_takes = (2.0 + (yolk_full - 3.0) * cooking.yolk) * yolk_dry;
        let short = yolk_takes / (0.6 * v(Part::Water)).max(1e-12);
        let yolk_swollen = yolk_dry + yolk_takes / (1.0 + short * short).sqrt();
        let others = [
            (Part::MilkProtein, swell_protein),
            (Part::EggWhite, 3.0 + 2.0 * cooking.white),
            (Part::Yolk, if yolk_dry > 0.0 { yolk_swollen / yolk_dry } else { 1.0 }),
            (Part::Fibre, SWELL_FIBRE),
            (Part::Other, 1.0),
            (Part::Starch, 1.3 * (1.0 - cooking.starch)),
        ];
        let cocoa = v(Part::Cocoa);
        let cocoa_swollen = cocoa * SWELL_COCOA * nudge.cocoa_and_protein;
        Volumes {
            total: Part::ALL.iter().map(|part| v(*part)).sum(),
            water: v(Part::Water),
            beside_water,
            fat: sum(&FATS),
            globules: mixture.globule_fat.iter().zip(FATS).map(|(h, fat)| h / fat.density()).sum(),
            sugar,
            undissolved: serum.undissolved / Part::Sucrose.density(),
            serum: sugar
                + beside_water
                + sum(&[Part::Water, Part::Gelatin, Part::Pectin, Part::Agar, Part::Gum]),
            cocoa,
            cocoa_swollen,
            milk_protein: v(Part::MilkProtein),
            milk_protein_swollen: v(Part::MilkProtein) * swell_protein,
            yolk_swollen,
            fibre: v(Part::Fibre),
            inert: v(Part::Other) + v(Part::Starch) * (1.0 - cooking.starch),
            swollen: cocoa_swollen + others.iter().map(|(part, s)| v(*part) * s).sum::<f64>(),
            taken_up: others.iter().map(|(part, s)| v(*part) * (s - 1.0)).sum(),
        }
    }

    /// Solids of a fat-continuous mass: undissolved sugar, cocoa with the water it draws, fibre, dry rest.
    pub fn solids(&self) -> f64 {
        self.undissolved
            + self.cocoa
            + smin(self.cocoa_swollen - self.cocoa, 0.5 * self.water, 0.1)
            + self.fibre
            + self.inert
    }
}
