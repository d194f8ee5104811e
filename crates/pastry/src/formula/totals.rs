//! What a formula adds up to, in grams and per cent, each with its base.

use crate::formula::line::{WeighedLine, flat};
use crate::ingredient::Role;
use crate::ingredient::composition::{Part, PhaseShares, SUGARS};
use serde::Serialize;
use utoipa::ToSchema;

/// Grams of one constituent and its share of the total.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Share {
    /// Grams in the batch.
    pub mass_g: f64,
    /// Per cent of total weight.
    pub of_total_percent: f64,
}

/// Totals of a batch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Totals {
    /// All of it, g.
    pub batch_mass_g: f64,
    /// The five phases of the balance, grams.
    pub phases_g: PhaseShares,
    /// The five phases, per cent of total weight.
    pub phases_of_total_percent: PhaseShares,
    /// Cocoa butter.
    pub cocoa_butter: Share,
    /// Milk fat.
    pub milk_fat: Share,
    /// Liquid oils.
    pub oil: Share,
    /// Lauric fats.
    pub lauric_fat: Share,
    /// Sucrose.
    pub sucrose: Share,
    /// All other sugars and polyols.
    pub other_sugars: Share,
    /// Water.
    pub water: Share,
    /// Fat-free cocoa.
    pub cocoa_solids: Share,
    /// Milk protein.
    pub milk_protein: Share,
    /// Alcohol.
    pub alcohol: Share,
    /// Gelatin, starch, pectin, agar and gums.
    pub setting_agents: Share,
    /// Salt.
    pub salt: Share,
    /// Chocolate to liquid dairy by weight, when both are there: 1.5 means 3:2.
    pub chocolate_to_cream: Option<f64>,
    /// Allergens brought by the ingredients, in words.
    pub allergens: Vec<String>,
}

/// Adds up weighed lines.
pub fn totals(lines: &[WeighedLine]) -> Totals {
    let flat = flat(lines);
    let lines = flat.as_ref();
    let batch: f64 = lines.iter().map(|line| line.mass.grams()).sum();
    let grams_of = |part: Part| -> f64 {
        lines.iter().map(|line| line.mass.grams() * line.ingredient.composition.get(part)).sum()
    };
    let percent = |grams: f64| 100.0 * grams / batch.max(1e-9);
    let share = |mass_g: f64| Share { mass_g, of_total_percent: percent(mass_g) };
    let mut phases_g = PhaseShares::default();
    for line in lines {
        let (phases, grams) = (line.ingredient.composition.phases(), line.mass.grams());
        phases_g.fat += grams * phases.fat;
        phases_g.sugar += grams * phases.sugar;
        phases_g.water += grams * phases.water;
        phases_g.dry += grams * phases.dry;
        phases_g.setting += grams * phases.setting;
    }
    let cream: f64 = lines
        .iter()
        .filter(|line| line.ingredient.is(Role::Dairy) && line.ingredient.composition.get(Part::Water) > 0.3)
        .map(|line| line.mass.grams())
        .sum();
    let chocolate: f64 =
        lines.iter().filter(|line| line.ingredient.is(Role::Chocolate)).map(|line| line.mass.grams()).sum();
    let mut allergens: Vec<String> = lines
        .iter()
        .filter(|line| line.mass.grams() > 0.0)
        .flat_map(|line| line.ingredient.allergens.iter().cloned())
        .collect();
    allergens.sort();
    allergens.dedup();
    Totals {
        batch_mass_g: batch,
        phases_g,
        phases_of_total_percent: PhaseShares {
            fat: percent(phases_g.fat),
            sugar: percent(phases_g.sugar),
            water: percent(phases_g.water),
            dry: percent(phases_g.dry),
            setting: percent(phases_g.setting),
        },
        cocoa_butter: share(grams_of(Part::CocoaButter)),
        milk_fat: share(grams_of(Part::MilkFat)),
        oil: share(grams_of(Part::Oil)),
        lauric_fat: share(grams_of(Part::Lauric)),
        sucrose: share(grams_of(Part::Sucrose)),
        other_sugars: share(SUGARS[1..].iter().map(|part| grams_of(*part)).sum()),
        water: share(grams_of(Part::Water)),
        cocoa_solids: share(grams_of(Part::Cocoa)),
        milk_protein: share(grams_of(Part::MilkProtein)),
        alcohol: share(grams_of(Part::Alcohol)),
        setting_agents: share(phases_g.setting),
        salt: share(grams_of(Part::Salt)),
        chocolate_to_cream: (chocolate > 0.0 && cream > 0.0).then(|| chocolate / cream),
        allergens,
    }
}
