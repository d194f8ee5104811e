//! How sour a mixture is, from the acids and buffers of its lines.
//!
//! Σ g_i [A_i (a(p) − a(p_i)) + b_i (p − p_i) + w_i (h(p) − h(p_i))] = 0: every line gives and takes charge until all agree
//! on one pH. a is the mean charge of citric acid, b buffers, h free acid and base. Good to ± 0.3.

use crate::ingredient::composition::{Composition, Part};
use crate::ingredient::item::Ingredient;

/// Standard deviation of a pH worked out (assumed).
pub const SIGMA_PH: f64 = 0.3;
/// pKa of citric acid (from memory).
const PKA: [f64; 3] = [3.13, 4.76, 6.40];

/// Mean charge of citric acid at a pH, 0 to 3.
fn citric_charge(ph: f64) -> f64 {
    let mut weight = 1.0;
    let (mut sum, mut charge) = (1.0, 0.0);
    for (k, pka) in PKA.iter().enumerate() {
        weight *= 10f64.powf(ph - pka);
        sum += weight;
        charge += (k + 1) as f64 * weight;
    }
    charge / sum
}

/// Base less acid of water itself, mol/kg.
fn of_water(ph: f64) -> f64 {
    10f64.powf(ph - 14.0) - 10f64.powf(-ph)
}

/// Buffer of a composition, mol per kg and pH: milk protein, egg, cocoa, fibre, gelatin (fitted to the titration of milk,
/// the rest assumed).
pub fn buffer(m: &Composition) -> f64 {
    0.70 * m.get(Part::MilkProtein)
        + 0.25 * (m.get(Part::EggWhite) + 0.65 * m.get(Part::Yolk))
        + 0.15 * m.get(Part::Cocoa)
        + 0.10 * m.get(Part::Fibre)
        + 0.05 * m.get(Part::Other)
        + 0.2 * m.get(Part::Gelatin)
}

/// Charge that lines bring, summed over them: enough to know the pH of any mixture of them.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Acidity {
    acid: f64,
    buffer: f64,
    water: f64,
    charge: f64,
}

impl Acidity {
    /// Adds `grams` of something at its own pH.
    ///
    /// # Arguments
    /// * `acid`: mol/kg as citric; `buffer`: mol/kg and pH; `water`: mass fraction.
    pub fn add(&mut self, grams: f64, ph: f64, [acid, buffer, water]: [f64; 3]) {
        self.acid += grams * acid;
        self.buffer += grams * buffer;
        self.water += grams * water;
        self.charge += grams * (acid * citric_charge(ph) + buffer * ph + water * of_water(ph));
    }

    /// Adds `grams` of an ingredient.
    pub fn add_ingredient(&mut self, grams: f64, ingredient: &Ingredient) {
        let m = &ingredient.composition;
        let acid = 1000.0 * m.get(Part::Acid) / 192.1;
        self.add(grams, ingredient.ph(), [acid, buffer(m), m.get(Part::Water)]);
    }

    /// The pH all agree on; none where there is no water.
    pub fn ph(&self) -> Option<f64> {
        if self.water <= 0.0 {
            return None;
        }
        let (mut low, mut high) = (1.5, 11.0);
        for _ in 0..60 {
            let p = 0.5 * (low + high);
            let charge = self.acid * citric_charge(p) + self.buffer * p + self.water * of_water(p);
            if charge < self.charge { low = p } else { high = p }
        }
        Some(0.5 * (low + high))
    }
}
