//! Which offsets bear on a formula, and how much: the kitchen's, its family's, and each ingredient's by its share of what holds the
//! mass up.

use crate::belief::offset::{Offset, Terms, USUAL_SIGMA};
use crate::formula::WeighedLine;
use crate::ingredient::Ingredient;
use crate::ingredient::composition::Part;
use crate::ingredient::role::Role;
use crate::rheology::consistency::Contributions;
use std::collections::BTreeMap;

/// An ingredient that holds up less than this share of a mass has no offset in it (assumed).
const LEAST_SHARE: f64 = 0.05;

/// Of a formula.
///
/// # Arguments
/// * `family`: its key; `holds`: where its yield stress comes from, Pa, at the temperature it is asked at; `base`: standard
///   deviation of ln of its family by itself.
pub fn terms(lines: &[WeighedLine], family: &str, holds: &Contributions, base: f64) -> Terms {
    // Offsets are of a usual family: one that is known better moves less with each.
    let times = base / USUAL_SIGMA;
    let mut weights =
        vec![(Offset::Kitchen {}, times), (Offset::Family { family: family.to_owned() }, times)];
    for (ingredient, share) in shares(lines, holds) {
        weights.extend(of_ingredient(lines, &ingredient, times * share));
    }
    // Two that are bought in the place of the same share its offset.
    let mut together: Vec<(Offset, f64)> = Vec::with_capacity(weights.len());
    for (offset, weight) in weights {
        match together.iter_mut().find(|own| own.0 == offset) {
            Some(own) => own.1 += weight,
            None => together.push((offset, weight)),
        }
    }
    let weights = together;
    let explained: f64 = weights.iter().map(|(offset, weight)| weight * weight * offset.variance()).sum();
    Terms { weights, scatter: (base * base - explained).max(0.0) }
}

/// What one that is bought in the place of another shares with it: a correlation (assumed).
const LIKE_BEFORE: f64 = 0.8;

/// The offset of an ingredient; where it is bought in the place of another it is 0.8 of that one's and the rest its own, so that its
/// spread before any test is that of any.
fn of_ingredient(lines: &[WeighedLine], key: &str, weight: f64) -> Vec<(Offset, f64)> {
    let of = |key: &str| Offset::Ingredient { ingredient: key.to_owned() };
    let leaves = || lines.iter().flat_map(|line| line.ingredient.leaves(1.0));
    let Some((own, _)) = leaves().find(|(own, _)| own.id == key) else { return vec![(of(key), weight)] };
    let apart = (1.0 - LIKE_BEFORE * LIKE_BEFORE).sqrt();
    let mut weights = Vec::new();
    let (mut at, mut left) = (key, weight);
    for before in &own.replaced {
        weights.push((of(at), apart * left));
        (at, left) = (before, LIKE_BEFORE * left);
    }
    weights.push((of(at), left));
    weights
}

/// Whether an ingredient can be off by itself: what is bought under one name and differs by its maker and its season.
fn matters(ingredient: &Ingredient) -> bool {
    [Role::Chocolate, Role::Butter, Role::Cream, Role::Whippable, Role::Gelatin, Role::Egg, Role::Starch]
        .iter()
        .any(|role| ingredient.is(*role))
        || ingredient.flags.protease
        || ingredient.composition.get(Part::Fibre) > 0.0
        || ingredient.composition.get(Part::Cocoa) > 0.05
        || ingredient.body_pa > 0.0
}

/// Share of each ingredient that matters in what holds a mass up: of each network, by what of it the ingredient brings. They add up
/// to 1 at the most.
pub fn shares(lines: &[WeighedLine], holds: &Contributions) -> Vec<(String, f64)> {
    let whole = holds.sum();
    if whole.is_nan() || whole <= 0.0 {
        return Vec::new();
    }
    let dry = |own: &Ingredient| 1.0 - own.composition.get(Part::Water) - own.composition.get(Part::Alcohol);
    let fat = |own: &Ingredient| {
        [Part::CocoaButter, Part::MilkFat, Part::Lauric]
            .iter()
            .map(|part| own.composition.get(*part))
            .sum::<f64>()
    };
    let of = |part: Part| move |own: &Ingredient| own.composition.get(part);
    let egg = |own: &Ingredient| own.composition.get(Part::EggWhite) + own.composition.get(Part::Yolk);
    // What of an ingredient builds each network.
    type Builds<'a> = &'a dyn Fn(&Ingredient) -> f64;
    let crowds = |own: &Ingredient| (dry(own) - sugars(own)).max(0.0);
    let foams = |own: &Ingredient| fat(own) + egg(own) + own.composition.get(Part::MilkProtein);
    let body = |own: &Ingredient| own.body_pa.powf(0.4);
    let starch = |own: &Ingredient| own.composition.get(Part::Starch) * own.starch_strength;
    let (gel, agar, gum, pectin) = (of(Part::Gelatin), of(Part::Agar), of(Part::Gum), of(Part::Pectin));
    let networks: [(f64, Builds<'_>); 10] = [
        (holds.fat, &fat),
        (holds.crowd, &crowds),
        (holds.gel, &gel),
        (holds.agar, &agar),
        (holds.starch, &starch),
        (holds.foam, &foams),
        (holds.gum, &gum),
        (holds.body, &body),
        (holds.pectin, &pectin),
        (holds.egg, &egg),
    ];
    let mut all: BTreeMap<String, f64> = BTreeMap::new();
    for (pascal, builds) in networks.iter().filter(|own| own.0 > 0.0) {
        let mut brought: Vec<(&Ingredient, f64)> = Vec::new();
        for line in lines {
            for (leaf, grams) in line.ingredient.leaves(line.mass.grams()) {
                brought.push((leaf, (grams * builds(leaf)).max(0.0)));
            }
        }
        let together: f64 = brought.iter().map(|own| own.1).sum();
        if together <= 0.0 {
            continue;
        }
        for (leaf, own) in brought.iter().filter(|own| own.1 > 0.0 && matters(own.0)) {
            *all.entry(leaf.id.clone()).or_default() += pascal / whole * own / together;
        }
    }
    all.into_iter().filter(|(_, share)| *share >= LEAST_SHARE).collect()
}

fn sugars(own: &Ingredient) -> f64 {
    [Part::Sucrose, Part::Glucose, Part::Fructose, Part::Lactose, Part::Maltose, Part::Dextrin, Part::Polyol]
        .iter()
        .map(|part| own.composition.get(*part))
        .sum()
}
