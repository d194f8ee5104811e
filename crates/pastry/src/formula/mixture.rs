//! A formula melted into one composition: what the consistency model reads.

use crate::formula::line::WeighedLine;
use crate::ingredient::catalogue::Ingredient;
use crate::ingredient::composition::{Composition, FATS, Part, Phase};

/// Shares of total mass, and the few sums that need the lines.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Mixture {
    /// Mass fractions of the whole.
    pub composition: Composition,
    /// Fat that sits in globules of its own, by kind as in [`FATS`], of total.
    pub globule_fat: [f64; 4],
    /// Bloom of its gelatin, mass-weighted, g.
    pub bloom: f64,
    /// Starch that needs boiling, corn-starch equivalents, of total.
    pub hot_starch: f64,
    /// Starch that swells cold, same units.
    pub cold_starch: f64,
    /// Gums, xanthan equivalents, of total.
    pub gum: f64,
    /// Raw protease fruit, of total.
    pub protease: f64,
    /// Ready-made structure: Σ g·body^0.4 / Σ g, Pa^0.4.
    pub body: f64,
}

impl Mixture {
    /// Mixes ingredients; amounts in grams, at least one above 0.
    pub fn new<I: AsRef<Ingredient>>(lines: impl IntoIterator<Item = (I, f64)>) -> Self {
        let mut mixture = Mixture {
            composition: Composition::NONE,
            globule_fat: [0.0; 4],
            bloom: 0.0,
            hot_starch: 0.0,
            cold_starch: 0.0,
            gum: 0.0,
            protease: 0.0,
            body: 0.0,
        };
        let (mut total, mut gelatin) = (0.0, 0.0);
        for (ingredient, grams) in lines {
            let ingredient = ingredient.as_ref();
            total += grams;
            let composition = &ingredient.composition;
            for part in Part::ALL {
                mixture.composition.0[part as usize] += grams * composition.get(part);
            }
            for (sum, fat) in mixture.globule_fat.iter_mut().zip(FATS) {
                *sum += grams * ingredient.globule * composition.get(fat);
            }
            gelatin += grams * composition.get(Part::Gelatin);
            mixture.bloom += grams * composition.get(Part::Gelatin) * ingredient.bloom;
            let starch = grams * composition.get(Part::Starch) * ingredient.starch_strength;
            if ingredient.flags.cold_starch {
                mixture.cold_starch += starch;
            } else {
                mixture.hot_starch += starch;
            }
            mixture.gum += grams * composition.get(Part::Gum) * ingredient.gum_strength;
            if ingredient.flags.protease {
                mixture.protease += grams;
            }
            mixture.body += grams * ingredient.body_pa.powf(0.4);
        }
        let per_total = 1.0 / total.max(1e-9);
        mixture.composition.0.iter_mut().for_each(|share| *share *= per_total);
        mixture.globule_fat.iter_mut().for_each(|share| *share *= per_total);
        for share in [
            &mut mixture.hot_starch,
            &mut mixture.cold_starch,
            &mut mixture.gum,
            &mut mixture.protease,
            &mut mixture.body,
        ] {
            *share *= per_total;
        }
        mixture.bloom /= gelatin.max(1e-9);
        mixture
    }

    /// Mixes weighed lines.
    pub fn of(lines: &[WeighedLine]) -> Self {
        Self::new(lines.iter().map(|line| (line.ingredient.as_ref(), line.mass.grams())))
    }

    /// The same mixture with one phase multiplied by `factor` and everything scaled back to 1.
    ///
    /// Answers "what if only the water were more": the proportions inside every phase stay.
    pub fn with_phase_times(&self, phase: Phase, factor: f64) -> Self {
        let mut changed = *self;
        for part in Part::ALL.into_iter().filter(|part| part.phase() == phase) {
            changed.composition.0[part as usize] *= factor;
        }
        if phase == Phase::Fat {
            changed.globule_fat.iter_mut().for_each(|share| *share *= factor);
        }
        if phase == Phase::Setting {
            for share in [&mut changed.hot_starch, &mut changed.cold_starch, &mut changed.gum] {
                *share *= factor;
            }
        }
        let per_total = 1.0 / changed.composition.0.iter().sum::<f64>().max(1e-9);
        changed.composition.0.iter_mut().for_each(|share| *share *= per_total);
        changed.globule_fat.iter_mut().for_each(|share| *share *= per_total);
        for share in [
            &mut changed.hot_starch,
            &mut changed.cold_starch,
            &mut changed.gum,
            &mut changed.protease,
            &mut changed.body,
        ] {
            *share *= per_total;
        }
        changed
    }
}
