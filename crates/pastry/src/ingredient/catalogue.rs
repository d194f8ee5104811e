//! The catalogue: ingredients compiled in from `data/ingredients.csv`, each with its source.

use crate::ingredient::composition::{Composition, Part};
use std::collections::HashMap;
use std::sync::LazyLock;

/// Properties some ingredients have besides their composition.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Flags {
    /// Raw fruit whose enzyme cuts gelatin.
    pub protease: bool,
    /// Starch that swells without boiling.
    pub cold_starch: bool,
}

/// A row of the catalogue.
#[derive(Debug, Clone, PartialEq)]
pub struct Ingredient {
    /// Stable key, used in files.
    pub id: String,
    /// Name in the kitchen.
    pub name: String,
    /// What other countries or cooks call it.
    pub also: Vec<String>,
    /// Shelf it stands on: chocolate, dairy, sugar …
    pub group: String,
    /// Mass fractions, adding up to 1.
    pub composition: Composition,
    /// Bloom strength of its gelatin, g.
    pub bloom: f64,
    /// Strength of its starch; corn starch is 1.
    pub starch_strength: f64,
    /// Strength of its gum; xanthan is 1.
    pub gum_strength: f64,
    /// 1 when its fat sits in globules of its own, as in cream; 0 when it melts into the common fat.
    pub globule: f64,
    /// Yield stress it brings ready-made, Pa (curds and jams).
    pub body_pa: f64,
    /// Enzyme and starch properties.
    pub flags: Flags,
    /// Allergens it brings, EU and US lists.
    pub allergens: Vec<String>,
    /// Where the composition is from.
    pub source: String,
    /// high, medium or low.
    pub confidence: String,
}

static CATALOGUE: LazyLock<Vec<Ingredient>> =
    LazyLock::new(|| read(include_str!("../../data/ingredients.csv")));

static BY_ID: LazyLock<HashMap<&'static str, &'static Ingredient>> =
    LazyLock::new(|| CATALOGUE.iter().map(|ingredient| (ingredient.id.as_str(), ingredient)).collect());

/// All ingredients, in the order of the table.
pub fn catalogue() -> &'static [Ingredient] {
    &CATALOGUE
}

/// The ingredient with this key.
pub fn find(id: &str) -> Option<&'static Ingredient> {
    BY_ID.get(id).copied()
}

fn read(text: &str) -> Vec<Ingredient> {
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    let header = reader.headers().expect("the table has a header").clone();
    let column: HashMap<&str, usize> = header.iter().enumerate().map(|(at, name)| (name, at)).collect();
    reader
        .records()
        .map(|record| {
            let record = record.expect("the table is well formed");
            let text = |name: &str| record[column[name]].trim();
            let number = |name: &str, empty: f64| match text(name) {
                "" => empty,
                value => value.parse().expect("the table holds numbers"),
            };
            let list = |name: &str| {
                text(name).split(';').map(str::trim).filter(|s| !s.is_empty()).map(str::to_owned).collect()
            };
            let flags = text("flags");
            Ingredient {
                id: text("id").to_owned(),
                name: text("name").to_owned(),
                also: list("also"),
                group: text("group").to_owned(),
                composition: Composition(Part::ALL.map(|part| number(part.column(), 0.0))),
                bloom: number("bloom", 0.0),
                starch_strength: number("starch_eff", 1.0),
                gum_strength: number("gum_eff", 1.0),
                globule: number("glob", 0.0),
                body_pa: number("body_pa", 0.0),
                flags: Flags {
                    protease: flags.contains("protease"),
                    cold_starch: flags.contains("cold_starch"),
                },
                allergens: list("allergens"),
                source: text("source").to_owned(),
                confidence: text("confidence").to_owned(),
            }
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_composition_adds_up_to_one_and_names_its_source() {
        for ingredient in catalogue() {
            let sum: f64 = ingredient.composition.0.iter().sum();
            assert!((sum - 1.0).abs() < 1e-9, "{} adds up to {sum}", ingredient.id);
            assert!(!ingredient.source.is_empty(), "{} has no source", ingredient.id);
        }
        assert!(catalogue().len() > 110);
    }
}
