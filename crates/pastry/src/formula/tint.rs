//! The colour a mixture is drawn in: of what is in it, by eye. Only for the drawing.

use crate::formula::line::flat;
use crate::formula::{Family, System, WeighedLine};
use crate::ingredient::composition::Part;
use serde::Deserialize;
use std::collections::BTreeMap;
use std::sync::LazyLock;

/// Cream, milk, starch and sugar: what takes the colour of the rest.
const PALE: [f64; 3] = [250.0, 243.0, 226.0];
/// A clear syrup or jelly.
const CLEAR: [f64; 3] = [228.0, 196.0, 128.0];
/// How much a baked crumb browns what it is made of.
const CRUST: [f64; 3] = [214.0, 160.0, 84.0];

#[derive(Deserialize)]
struct Row {
    what: String,
    red: f64,
    green: f64,
    blue: f64,
    strength: f64,
}

static TINTS: LazyLock<BTreeMap<String, ([f64; 3], f64)>> = LazyLock::new(|| {
    csv::Reader::from_reader(include_str!("../../data/tints.csv").as_bytes())
        .deserialize()
        .map(|row| {
            let row: Row = row.expect("the table of tints is well formed");
            (row.what, ([row.red, row.green, row.blue], row.strength))
        })
        .collect()
});

/// What a line colours the whole with, and how strongly.
fn tint_of(line: &WeighedLine) -> Option<([f64; 3], f64)> {
    let ingredient = &line.ingredient;
    if let Some(own) = TINTS.get(ingredient.id.as_str()) {
        return Some(*own);
    }
    // An own ingredient colours as what its names are called; the longest word that fits says it best.
    let named = |what: &str| {
        ingredient.name.to_lowercase().contains(what)
            || ingredient.also.iter().any(|also| also.to_lowercase().contains(what))
    };
    let fits = TINTS.iter().filter(|(what, _)| what.len() > 4 && named(what));
    fits.max_by_key(|(what, _)| what.len()).map(|(_, tint)| *tint)
}

/// The colour of a mixture of a family, "#rrggbb".
pub fn tint(lines: &[WeighedLine], family: Family) -> String {
    let clear = matches!(family.traits().system, System::Syrup | System::Jelly | System::Glaze);
    blend(lines, if clear { CLEAR } else { PALE }, 0.0)
}

/// The colour of what is baked of it.
pub fn baked_tint(lines: &[WeighedLine]) -> String {
    blend(lines, PALE, 0.75)
}

/// Shares weighed by mass and strength, the crust as a share of the pale.
fn blend(lines: &[WeighedLine], pale: [f64; 3], crust: f64) -> String {
    let flat = flat(lines);
    let lines = flat.as_ref();
    let base: Vec<f64> = (0..3).map(|k| pale[k] + crust * (CRUST[k] - pale[k])).collect();
    let total: f64 = lines.iter().map(|line| line.mass.grams()).sum();
    let mut sum = [base[0], base[1], base[2]];
    let mut weight = 1.0;
    for line in lines {
        let share = line.mass.grams() / total.max(1e-9);
        let (cocoa, cocoa_strength) = TINTS["cocoa"];
        let (yolk, yolk_strength) = TINTS["yolk"];
        let own = tint_of(line).map(|(colour, strength)| (colour, strength * share));
        let brown = (cocoa, cocoa_strength * share * line.ingredient.composition.get(Part::Cocoa));
        let yellow = (yolk, yolk_strength * share * line.ingredient.composition.get(Part::Yolk));
        for (colour, strength) in own.into_iter().chain([brown, yellow]) {
            weight += strength;
            (0..3).for_each(|k| sum[k] += strength * colour[k]);
        }
    }
    let [red, green, blue] = sum.map(|s| (s / weight).round().clamp(0.0, 255.0) as u8);
    format!("#{red:02x}{green:02x}{blue:02x}")
}
