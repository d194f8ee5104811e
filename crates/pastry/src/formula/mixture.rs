//! A formula melted into one composition: what the consistency model reads.

use crate::formula::acidity::Acidity;
use crate::formula::line::WeighedLine;
use crate::ingredient::composition::{Composition, FATS, Part, Phase};
use crate::ingredient::item::Ingredient;
use crate::ingredient::item::STEAM;
use crate::ingredient::{Group, Role, StarchKind};

/// Shares of total mass, and the few sums that need the lines.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Mixture {
    /// Mass fractions of the whole.
    pub composition: Composition,
    /// Fat that sits in globules of its own, by kind as in [`FATS`], of total.
    pub globule_fat: [f64; 4],
    /// Bloom of its gelatin, mass-weighted, g.
    pub bloom: f64,
    /// Share of its gelatin that is of fish, 0 to 1.
    pub fish_gelatin: f64,
    /// How much earlier than mammals' its gelatin melts, K, mass-weighted.
    pub gelatin_melts_earlier_k: f64,
    /// How far below its melting its gelatin sets, K, mass-weighted.
    pub gelatin_sets_below_k: f64,
    /// How much slower than dark chocolate its chocolate sets: 1 dark, 1.5 milk, 1.7 white, mass-weighted.
    pub chocolate_slower: f64,
    /// What it brings to the pH.
    pub acidity: Acidity,
    /// Calcium, of total: milk's, and some of fruit and tap water.
    pub calcium: f64,
    /// Whether gums are in it that set together though neither does alone.
    pub gums_set_together: bool,
    /// Hot starch by what it is of, as in [`StarchKind::ALL`], corn-starch equivalents, of total.
    pub hot_starch_of: [f64; 5],
    /// Pectin of what is added to set, of total: fruit's own is not.
    pub setting_pectin: f64,
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

/// How much slower than dark chocolate it sets (assumed): milk fat and milk solids hinder it.
fn sets_slower(chocolate: &Ingredient) -> f64 {
    let part = |part: Part| chocolate.composition.get(part);
    match () {
        () if part(Part::Cocoa) < 0.03 => 1.7,
        () if part(Part::MilkProtein) + part(Part::Lactose) > 0.02 => 1.5,
        () => 1.0,
    }
}

/// Milligrams of calcium in a gram (assumed): 35 a gram of milk protein, which is 1.2 in milk and 0.7 in cream; 0.2 in
/// fruit, 0.08 in tap water.
fn calcium_mg_per_g(ingredient: &Ingredient) -> f64 {
    let part = |part: Part| ingredient.composition.get(part);
    let of_fruit = if ingredient.group == Group::Fruit { 0.2 } else { 0.0 };
    // What steams away leaves its lime behind.
    let of_water = if part(Part::Water) > 0.99 && ingredient.id != STEAM.id { 0.08 } else { 0.0 };
    35.0 * part(Part::MilkProtein) + of_fruit + of_water
}

impl Mixture {
    /// Mixes ingredients; amounts in grams, at least one above 0.
    pub fn new<I: AsRef<Ingredient>>(lines: impl IntoIterator<Item = (I, f64)>) -> Self {
        let mut mixture = Mixture {
            composition: Composition::NONE,
            globule_fat: [0.0; 4],
            bloom: 0.0,
            fish_gelatin: 0.0,
            gelatin_melts_earlier_k: 0.0,
            gelatin_sets_below_k: 0.0,
            chocolate_slower: 0.0,
            acidity: Acidity::default(),
            calcium: 0.0,
            gums_set_together: false,
            hot_starch_of: [0.0; 5],
            setting_pectin: 0.0,
            hot_starch: 0.0,
            cold_starch: 0.0,
            gum: 0.0,
            protease: 0.0,
            body: 0.0,
        };
        let (mut total, mut gelatin, mut chocolate, mut gums) = (0.0, 0.0, 0.0, 0u8);
        let mut add = |ingredient: &Ingredient, grams: f64| {
            total += grams;
            let composition = &ingredient.composition;
            for part in Part::ALL {
                mixture.composition.0[part as usize] += grams * composition.get(part);
            }
            for (sum, fat) in mixture.globule_fat.iter_mut().zip(FATS) {
                *sum += grams * ingredient.globule * composition.get(fat);
            }
            let sheets = grams * composition.get(Part::Gelatin);
            gelatin += sheets;
            mixture.bloom += sheets * ingredient.bloom;
            if let Some(kind) = ingredient.gelatin_kind() {
                mixture.fish_gelatin += sheets * f64::from(u8::from(kind.is_fish()));
                mixture.gelatin_melts_earlier_k += sheets * kind.melts_earlier_k();
                mixture.gelatin_sets_below_k += sheets * kind.sets_below_k();
            }
            if grams > 0.0 && ingredient.is(Role::Chocolate) {
                chocolate += grams;
                mixture.chocolate_slower += grams * sets_slower(ingredient);
            }
            if grams > 0.0 && composition.get(Part::Gum) > 0.5 {
                gums |= if ingredient.flags.locust_bean { 2 } else { 1 };
            }
            mixture.acidity.add_ingredient(grams, ingredient);
            mixture.calcium += 1e-3 * grams * calcium_mg_per_g(ingredient);
            if ingredient.flags.sets_with_pectin {
                mixture.setting_pectin += grams * composition.get(Part::Pectin);
            }
            let starch = grams * composition.get(Part::Starch) * ingredient.starch_strength;
            if ingredient.flags.cold_starch {
                mixture.cold_starch += starch;
            } else {
                mixture.hot_starch += starch;
                mixture.hot_starch_of[ingredient.starch_of.unwrap_or(StarchKind::Corn) as usize] += starch;
            }
            mixture.gum += grams * composition.get(Part::Gum) * ingredient.gum_strength;
            if ingredient.flags.protease {
                mixture.protease += grams;
            }
            mixture.body += grams * ingredient.body_pa.powf(0.4);
        };
        for (ingredient, grams) in lines {
            ingredient.as_ref().leaves(grams).for_each(|(leaf, grams)| add(leaf, grams));
        }
        let per_total = 1.0 / total.max(1e-9);
        mixture.composition.0.iter_mut().for_each(|share| *share *= per_total);
        mixture.globule_fat.iter_mut().for_each(|share| *share *= per_total);
        mixture.hot_starch_of.iter_mut().for_each(|share| *share *= per_total);
        for share in [
            &mut mixture.calcium,
            &mut mixture.setting_pectin,
            &mut mixture.hot_starch,
            &mut mixture.cold_starch,
            &mut mixture.gum,
            &mut mixture.protease,
            &mut mixture.body,
        ] {
            *share *= per_total;
        }
        for mean in [
            &mut mixture.bloom,
            &mut mixture.fish_gelatin,
            &mut mixture.gelatin_melts_earlier_k,
            &mut mixture.gelatin_sets_below_k,
        ] {
            *mean /= gelatin.max(1e-9);
        }
        mixture.chocolate_slower = if chocolate > 0.0 { mixture.chocolate_slower / chocolate } else { 1.0 };
        mixture.gums_set_together = gums == 3;
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
            changed.hot_starch_of.iter_mut().for_each(|share| *share *= factor);
            for share in [
                &mut changed.setting_pectin,
                &mut changed.hot_starch,
                &mut changed.cold_starch,
                &mut changed.gum,
            ] {
                *share *= factor;
            }
        }
        let per_total = 1.0 / changed.composition.0.iter().sum::<f64>().max(1e-9);
        changed.composition.0.iter_mut().for_each(|share| *share *= per_total);
        changed.globule_fat.iter_mut().for_each(|share| *share *= per_total);
        changed.hot_starch_of.iter_mut().for_each(|share| *share *= per_total);
        for share in [
            &mut changed.calcium,
            &mut changed.setting_pectin,
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
