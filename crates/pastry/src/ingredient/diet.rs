//! Where ingredients come from and what that means at the table: origins, allergens, diets.

use crate::ingredient::composition::Part;
use crate::ingredient::item::Ingredient;
use crate::ingredient::origin::Origin;
use serde::Serialize;
use utoipa::ToSchema;

/// Allergens by the words of the table: the fourteen of Regulation (EU) 1169/2011, Annex II, which hold
/// the nine of the US (FALCPA 2004 and FASTER 2021); cereals and nuts name the kind. From memory.
pub const ALLERGENS: [&str; 26] = [
    "gluten (wheat)",
    "gluten (rye)",
    "gluten (barley)",
    "gluten (oats)",
    "crustaceans",
    "egg",
    "fish",
    "peanut",
    "soya",
    "milk",
    "nuts (almond)",
    "nuts (hazelnut)",
    "nuts (walnut)",
    "nuts (cashew)",
    "nuts (pecan)",
    "nuts (brazil)",
    "nuts (pistachio)",
    "nuts (macadamia)",
    "nuts (coconut)",
    "nuts (other)",
    "celery",
    "mustard",
    "sesame",
    "sulphites",
    "lupin",
    "molluscs",
];

/// Who may eat it, as far as ingredients tell. Kitchens and labels decide, not this list.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct Diet {
    /// Nothing of animals.
    pub vegan: bool,
    /// Nothing of dead animals.
    pub vegetarian: bool,
    /// Nothing of pigs.
    pub no_pork: bool,
    /// No alcohol worth naming: under 0.1 % of weight.
    pub no_alcohol: bool,
}

/// The diet of a list of ingredients with their grams.
pub fn diet<'a>(lines: impl Iterator<Item = (&'a Ingredient, f64)>) -> Diet {
    let mut diet = Diet { vegan: true, vegetarian: true, no_pork: true, no_alcohol: true };
    let (mut total, mut alcohol) = (0.0, 0.0);
    let lines = lines.flat_map(|(ingredient, grams)| ingredient.leaves(grams));
    for (ingredient, grams) in lines.filter(|(_, grams)| *grams > 0.0) {
        total += grams;
        alcohol += grams * ingredient.composition.get(Part::Alcohol);
        for origin in &ingredient.origins {
            diet.vegan &= matches!(origin, Origin::Plant | Origin::Seaweed | Origin::Mineral);
            diet.vegetarian &= !matches!(origin, Origin::Pork | Origin::Beef | Origin::Fish);
            diet.no_pork &= *origin != Origin::Pork;
        }
    }
    diet.no_alcohol = alcohol < 0.001 * total;
    diet
}

/// What some ingredients bring that others did not have, in words for a plain question: allergens, alcohol, raw egg,
/// and who may no longer eat it. Empty when nobody need be asked.
pub fn brings<'a>(
    before: impl Iterator<Item = (&'a Ingredient, f64)>,
    after: impl Iterator<Item = (&'a Ingredient, f64)>,
) -> Vec<String> {
    let present = |(ingredient, grams): (&'a Ingredient, f64)| (grams > 0.0).then_some((ingredient, grams));
    let before: Vec<(&Ingredient, f64)> = before.filter_map(present).collect();
    let after: Vec<(&Ingredient, f64)> = after.filter_map(present).collect();
    let mut said: Vec<String> = Vec::new();
    for allergen in after.iter().flat_map(|(own, _)| &own.allergens) {
        let words = format!("brings {allergen}, an allergen");
        if !before.iter().any(|(own, _)| own.allergens.contains(allergen)) && !said.contains(&words) {
            said.push(words);
        }
    }
    let (was, is) = (diet(before.iter().copied()), diet(after.iter().copied()));
    if was.no_pork && !is.no_pork {
        said.push("brings pork".to_owned());
    } else if was.vegetarian && !is.vegetarian {
        said.push("is not vegetarian".to_owned());
    } else if was.vegan && !is.vegan {
        said.push("is not vegan".to_owned());
    }
    if was.no_alcohol && !is.no_alcohol {
        said.push("brings alcohol".to_owned());
    }
    let raw = |all: &[(&Ingredient, f64)]| all.iter().any(|(own, _)| own.flags.raw_egg);
    if raw(&after) && !raw(&before) {
        said.push("brings raw egg".to_owned());
    }
    said
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ingredient::find;

    fn of(ids: &[&str]) -> Diet {
        diet(ids.iter().map(|id| (find(id).unwrap().as_ref(), 100.0)))
    }

    #[test]
    fn gelatin_says_whose_it_is_and_agar_is_for_all() {
        assert!(!of(&["gelatin200"]).no_pork);
        assert!(of(&["gelatin_beef"]).no_pork && !of(&["gelatin_beef"]).vegetarian);
        assert!(of(&["agar", "raspberry", "sugar"]).vegan);
        assert!(of(&["cream36"]).vegetarian && !of(&["cream36"]).vegan);
        assert!(!of(&["rum40"]).no_alcohol);
    }
}
