//! The catalogue: ingredients compiled in from `data/ingredients.csv`, with what a cup or a piece weighs
//! (`measures.csv`), where they come from and in what packs (`shelf.csv`); each value with its source.

use crate::ingredient::composition::{Composition, Part};
use crate::ingredient::group::Group;
use crate::ingredient::item::{Flags, Ingredient, Pack};
use crate::ingredient::origin::Origin;
use crate::ingredient::starch::StarchKind;
use crate::ingredient::weights::table_weights;
use serde::Deserialize;
use std::collections::HashMap;
use std::sync::{Arc, LazyLock};

static CATALOGUE: LazyLock<Vec<Arc<Ingredient>>> =
    LazyLock::new(|| read(include_str!("../../data/ingredients.csv"), include_str!("../../data/shelf.csv")));

static BY_ID: LazyLock<HashMap<&'static str, &'static Arc<Ingredient>>> =
    LazyLock::new(|| CATALOGUE.iter().map(|ingredient| (ingredient.id.as_str(), ingredient)).collect());

/// All ingredients, in the order of the table.
pub fn catalogue() -> &'static [Arc<Ingredient>] {
    &CATALOGUE
}

/// The ingredient with this key.
pub fn find(id: &str) -> Option<&'static Arc<Ingredient>> {
    BY_ID.get(id).copied()
}

/// Words between semicolons.
pub(crate) fn words(text: &str) -> Vec<String> {
    text.split(';').map(str::trim).filter(|word| !word.is_empty()).map(str::to_owned).collect()
}

#[derive(Deserialize)]
struct ShelfRow {
    ingredient: String,
    origin: String,
    pack_g: f64,
    pack_price: f64,
}

#[derive(Deserialize)]
struct PhRow {
    ingredient: String,
    ph: f64,
}

fn read(table: &str, shelf: &str) -> Vec<Arc<Ingredient>> {
    let shelf: HashMap<String, ShelfRow> = csv::Reader::from_reader(shelf.as_bytes())
        .deserialize()
        .map(|row| {
            let row: ShelfRow = row.expect("the shelf table is well formed");
            (row.ingredient.clone(), row)
        })
        .collect();
    let ph: HashMap<String, f64> = csv::Reader::from_reader(include_str!("../../data/ph.csv").as_bytes())
        .deserialize()
        .map(|row| {
            let row: PhRow = row.expect("the table of pH is well formed");
            (row.ingredient, row.ph)
        })
        .collect();
    let mut reader = csv::Reader::from_reader(table.as_bytes());
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
            let flags = text("flags");
            let on_shelf = &shelf[text("id")];
            let composition = Composition(Part::ALL.map(|part| number(part.column(), 0.0)));
            let group = Group::parse(text("group")).expect("the table knows its shelves");
            Arc::new(Ingredient {
                id: text("id").to_owned(),
                name: text("name").to_owned(),
                also: words(text("also")),
                group,
                composition,
                bloom: number("bloom", 0.0),
                starch_strength: number("starch_eff", 1.0),
                starch_of: match text("starch_of") {
                    "" => None,
                    kind => Some(StarchKind::parse(kind).expect("the table knows its starches")),
                },
                ph: ph.get(text("id")).copied(),
                gum_strength: number("gum_eff", 1.0),
                globule: number("glob", 0.0),
                body_pa: number("body_pa", 0.0),
                flags: Flags {
                    protease: flags.contains("protease"),
                    cold_starch: flags.contains("cold_starch"),
                    raw_egg: flags.contains("raw_egg"),
                    sets_with_pectin: flags.contains("pectin"),
                    locust_bean: flags.contains("locust_bean"),
                    cold_water_fish: flags.contains("cold_water_fish"),
                },
                allergens: words(text("allergens")),
                origins: words(&on_shelf.origin)
                    .iter()
                    .map(|word| Origin::parse(word).expect("the shelf table knows its origins"))
                    .collect(),
                weights: table_weights(text("id")).or_computed(&composition, group),
                pack: Some(Pack { pack_g: on_shelf.pack_g, pack_price: on_shelf.pack_price }),
                source: text("source").to_owned(),
                confidence: text("confidence").to_owned(),
                made: None,
                steam: 0.0,
                left: None,
                replaced: Vec::new(),
            })
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

    #[test]
    fn every_ingredient_has_a_density_an_origin_a_pack_and_known_allergens() {
        for ingredient in catalogue() {
            assert!(ingredient.weights.density.is_some(), "{} has no density", ingredient.id);
            assert!(!ingredient.origins.is_empty(), "{} has no origin", ingredient.id);
            assert!(ingredient.pack.is_some_and(|pack| pack.pack_g > 0.0), "{} has no pack", ingredient.id);
            for allergen in &ingredient.allergens {
                assert!(crate::ingredient::diet::ALLERGENS.contains(&allergen.as_str()), "{allergen}");
            }
        }
    }
}
