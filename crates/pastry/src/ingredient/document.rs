//! The open format of an ingredient: a JSON document, versioned, with a published schema. The same
//! document is written by the page, kept by the kitchen, carried inside formulas and listed in files.

use crate::fault::{Fault, FaultCode};
use crate::format;
use crate::ingredient::catalogue;
use crate::ingredient::composition::{Composition, Part};
use crate::ingredient::diet::ALLERGENS;
use crate::ingredient::group::Group;
use crate::ingredient::item::{Flags, Ingredient, Pack};
use crate::ingredient::key::OWN;
use crate::ingredient::label::Label;
use crate::ingredient::origin::Origin;
use crate::ingredient::starch::StarchKind;
use crate::ingredient::weights::{HouseholdWeight, HouseholdWeights};
use crate::units::kitchen::{Unit, UnitKind};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What the `format` field says.
pub const FORMAT: &str = format::INGREDIENT.name;
/// The version written and read here.
pub const VERSION: u32 = format::INGREDIENT.version;
/// How far shares may add up beside 100, points: what rounding to a tenth can do over 26 shares.
const CLOSES: f64 = 0.5;

/// What a piece weighs.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Piece {
    /// Unit it is counted in: egg, yolk, white, leaf, stick, envelope, square.
    #[schema(example = "leaf")]
    pub unit: String,
    /// Weight of one, g.
    #[schema(exclusive_minimum = 0, maximum = 100000)]
    pub weight_g: f64,
}

fn one() -> f64 {
    1.0
}

fn is_one(value: &f64) -> bool {
    *value == 1.0
}

fn is_zero(value: &f64) -> bool {
    *value == 0.0
}

fn is_false(value: &bool) -> bool {
    !*value
}

/// An ingredient of a kitchen's own.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct IngredientDocument {
    /// Always `bright-spoon/ingredient`.
    #[schema(example = "bright-spoon/ingredient")]
    pub format: String,
    /// Version of the format: 1.
    #[schema(example = 1, minimum = 1, maximum = 1)]
    pub version: u32,
    /// Its key, beginning with `own-`; small letters, digits and dashes.
    #[schema(example = "own-meadow-cream", max_length = 60)]
    pub key: String,
    /// Its name in the kitchen.
    #[schema(example = "Meadow cream 38 %", max_length = 120)]
    pub name: String,
    /// What others call it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub also: Vec<String>,
    /// Shelf it stands on.
    #[schema(example = "dairy")]
    pub group: String,
    /// Shares, per cent of its weight, adding up to 100; what is left out is 0.
    pub composition_percent: BTreeMap<Part, f64>,
    /// Where a share is from, by constituent.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub sources: BTreeMap<Part, String>,
    /// Key of the ingredient in whose place it is bought: what the kitchen learned of that holds for this as well, in part.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 60)]
    pub replaces: Option<String>,
    /// The label it was read from.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub label: Option<Label>,
    /// Bloom strength of its gelatin, g.
    #[serde(default, skip_serializing_if = "is_zero")]
    #[schema(minimum = 0, maximum = 400)]
    pub bloom_g: f64,
    /// Strength of its starch; corn starch is 1.
    #[serde(default = "one", skip_serializing_if = "is_one")]
    #[schema(minimum = 0, maximum = 5)]
    pub starch_strength: f64,
    /// Strength of its gum; xanthan is 1.
    #[serde(default = "one", skip_serializing_if = "is_one")]
    #[schema(minimum = 0, maximum = 5)]
    pub gum_strength: f64,
    /// Whether its fat sits in globules of its own, as in cream and milk.
    #[serde(default, skip_serializing_if = "is_false")]
    pub fat_in_globules: bool,
    /// Yield stress it brings ready-made, Pa, as curds and jams do.
    #[serde(default, skip_serializing_if = "is_zero")]
    #[schema(minimum = 0, maximum = 10000)]
    pub body_pa: f64,
    /// Raw fruit whose enzyme cuts gelatin: pineapple, kiwi, papaya, fig, ginger.
    #[serde(default, skip_serializing_if = "is_false")]
    pub raw_protease: bool,
    /// Starch that swells without boiling.
    #[serde(default, skip_serializing_if = "is_false")]
    pub cold_starch: bool,
    /// Egg that was not pasteurised.
    #[serde(default, skip_serializing_if = "is_false")]
    pub raw_egg: bool,
    /// Pectin that is added to set; fruit's own never does.
    #[serde(default, skip_serializing_if = "is_false")]
    pub sets_with_pectin: bool,
    /// Locust bean gum, which sets with xanthan though neither does alone.
    #[serde(default, skip_serializing_if = "is_false")]
    pub locust_bean: bool,
    /// What its starch is of, where that is not corn.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub starch_of: Option<StarchKind>,
    /// Its pH, where somebody measured one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.5, maximum = 11)]
    pub ph: Option<f64>,
    /// Gelatin of cold-water fish, which hardly sets in a fridge.
    #[serde(default, skip_serializing_if = "is_false")]
    pub cold_water_fish: bool,
    /// Allergens it brings.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub allergens: Vec<String>,
    /// Where it comes from.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub origins: Vec<Origin>,
    /// Density as scooped or poured, g/ml.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.02, maximum = 3)]
    pub density_g_per_ml: Option<f64>,
    /// What a piece of it weighs.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub pieces: Vec<Piece>,
    /// The pack it is bought in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pack: Option<Pack>,
    /// Where its composition is from.
    #[serde(default)]
    #[schema(max_length = 400)]
    pub source: String,
    /// Anything worth remembering.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 4000)]
    pub note: String,
}

impl IngredientDocument {
    /// A copy of an ingredient under a key and name of the kitchen's own.
    pub fn copy_of(ingredient: &Ingredient, key: String, name: String) -> Self {
        IngredientDocument {
            format: FORMAT.to_owned(),
            version: VERSION,
            key,
            name,
            also: Vec::new(),
            group: ingredient.group.word().to_owned(),
            composition_percent: Part::ALL
                .into_iter()
                .map(|part| (part, (1e6 * ingredient.composition.get(part)).round() / 1e4))
                .filter(|(_, percent)| *percent > 0.0)
                .collect(),
            sources: BTreeMap::new(),
            replaces: None,
            label: None,
            bloom_g: ingredient.bloom,
            starch_strength: ingredient.starch_strength,
            gum_strength: ingredient.gum_strength,
            fat_in_globules: ingredient.globule > 0.5,
            body_pa: ingredient.body_pa,
            raw_protease: ingredient.flags.protease,
            cold_starch: ingredient.flags.cold_starch,
            raw_egg: ingredient.flags.raw_egg,
            sets_with_pectin: ingredient.flags.sets_with_pectin,
            locust_bean: ingredient.flags.locust_bean,
            starch_of: ingredient.starch_of,
            ph: ingredient.ph,
            cold_water_fish: ingredient.flags.cold_water_fish,
            allergens: ingredient.allergens.clone(),
            origins: ingredient.origins.clone(),
            density_g_per_ml: ingredient.weights.density.as_ref().map(|known| known.weight),
            pieces: ingredient
                .weights
                .pieces
                .iter()
                .map(|(unit, known)| Piece { unit: unit.short().to_owned(), weight_g: known.weight })
                .collect(),
            pack: ingredient.pack,
            source: format!("copied from {}: {}", ingredient.name, ingredient.source),
            note: String::new(),
        }
    }

    /// Everything that is wrong with it, each with its field and what to do.
    pub fn faults(&self) -> Vec<Fault> {
        let mut faults = format::INGREDIENT.faults(&self.format, self.version);
        let mut fault =
            |field: &str, code: FaultCode, message: String| faults.push(Fault::new(field, code, message));
        let tail = self.key.strip_prefix(OWN).unwrap_or_default();
        let fits = |c: char| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-' || c == '_';
        if tail.is_empty() || self.key.len() > 60 || !tail.chars().all(fits) {
            let message =
                format!("a key is {OWN} and small letters, digits or dashes, 60 at most: own-meadow-cream");
            fault("key", FaultCode::BadKey, message);
        }
        match self.replaces.as_deref() {
            Some(own) if own == self.key => {
                let message = "it cannot be bought in its own place: pick another, or none".to_owned();
                fault("replaces", FaultCode::BadKey, message);
            }
            Some(own) if own.is_empty() || own.len() > 60 => {
                let message =
                    "a key has 1 to 60 letters: pick an ingredient from the list, or none".to_owned();
                fault("replaces", FaultCode::BadKey, message);
            }
            // One of the kitchen's own may come later; what the catalogue does not have never will.
            Some(own) if !own.starts_with(OWN) && catalogue::find(own).is_none() => {
                let message =
                    format!("no ingredient has the key {own}: write the key the list has it under, or none");
                fault("replaces", FaultCode::UnknownIngredient, message);
            }
            _ => {}
        }
        let letters = self.name.trim().chars().count();
        if letters == 0 || letters > 120 {
            fault("name", FaultCode::BadName, format!("a name has 1 to 120 letters; this has {letters}"));
        }
        if Group::parse(&self.group).is_none() {
            let all: Vec<&str> = Group::ALL.iter().map(|group| group.word()).collect();
            fault("group", FaultCode::UnknownGroup, format!("pick a shelf: {}", all.join(", ")));
        }
        let mut sum = 0.0;
        for (part, percent) in &self.composition_percent {
            let field = format!("composition_percent.{}", key_of(*part));
            if !(0.0..=100.0).contains(percent) {
                let message = format!("{} is between 0 and 100 %, not {percent}", part.word());
                fault(&field, FaultCode::OutOfRange, message);
            }
            sum += percent;
        }
        if (sum - 100.0).abs() > CLOSES || !sum.is_finite() {
            let message =
                format!("the shares add up to {sum:.1} %: give or take {:.1} points", (sum - 100.0).abs());
            fault("composition_percent", FaultCode::DoesNotAddUp, message);
        }
        for (field, value, most) in [
            ("bloom_g", self.bloom_g, 400.0),
            ("starch_strength", self.starch_strength, 5.0),
            ("gum_strength", self.gum_strength, 5.0),
            ("body_pa", self.body_pa, 1e4),
        ] {
            if !(0.0..=most).contains(&value) {
                fault(field, FaultCode::OutOfRange, format!("is between 0 and {most}, not {value}"));
            }
        }
        if self.composition_percent.get(&Part::Gelatin).is_some_and(|gelatin| *gelatin > 5.0)
            && self.bloom_g < 40.0
        {
            let message = "say the Bloom strength of this gelatin, 80 to 300 g: it is on the pack".to_owned();
            fault("bloom_g", FaultCode::NoBloom, message);
        }
        if let Some(ph) = self.ph.filter(|ph| !(1.5..=11.0).contains(ph)) {
            fault("ph", FaultCode::OutOfRange, format!("a pH is 1.5 to 11, not {ph}"));
        }
        if let Some(density) = self.density_g_per_ml.filter(|density| !(0.02..=3.0).contains(density)) {
            fault(
                "density_g_per_ml",
                FaultCode::OutOfRange,
                format!("a density is 0.02 to 3 g/ml, not {density}"),
            );
        }
        for (at, piece) in self.pieces.iter().enumerate() {
            let unit = Unit::parse(&piece.unit);
            if !unit.is_some_and(|unit| unit.kind(Default::default()) == UnitKind::Piece) {
                let message = "pieces are egg, yolk, white, leaf, stick, envelope or square".to_owned();
                fault(&format!("pieces.{at}.unit"), FaultCode::UnknownUnit, message);
            }
            if !(piece.weight_g > 0.0 && piece.weight_g <= 1e5) {
                let message = format!("a piece weighs more than 0 g, not {}", piece.weight_g);
                fault(&format!("pieces.{at}.weight_g"), FaultCode::OutOfRange, message);
            }
        }
        if let Some(pack) = &self.pack {
            if !(pack.pack_g > 0.0 && pack.pack_g <= 1e6) {
                fault(
                    "pack.pack_g",
                    FaultCode::OutOfRange,
                    "a pack weighs more than 0 g, at most 1,000 kg".to_owned(),
                );
            }
            if !(0.0..=1e6).contains(&pack.pack_price) {
                fault("pack.pack_price", FaultCode::OutOfRange, "a price is 0 or more".to_owned());
            }
        }
        for (at, allergen) in self.allergens.iter().enumerate() {
            if !ALLERGENS.contains(&allergen.as_str()) {
                let message = format!("“{allergen}” is not in the list: {}", ALLERGENS.join(", "));
                fault(&format!("allergens.{at}"), FaultCode::UnknownAllergen, message);
            }
        }
        faults
    }

    /// The ingredient it describes. Shares are brought to exactly 1.
    ///
    /// # Errors
    /// [`IngredientDocument::faults`].
    pub fn ingredient(&self) -> Result<Ingredient, Vec<Fault>> {
        let faults = self.faults();
        if !faults.is_empty() {
            return Err(faults);
        }
        let sum: f64 = self.composition_percent.values().sum();
        let share = |part| self.composition_percent.get(&part).copied().unwrap_or(0.0) / sum;
        let composition = Composition(Part::ALL.map(share));
        let weight = |weight: f64| HouseholdWeight {
            how: String::new(),
            weight,
            source: "your kitchen's own".to_owned(),
        };
        let weights = HouseholdWeights {
            density: self.density_g_per_ml.map(weight),
            pieces: self
                .pieces
                .iter()
                .filter_map(|piece| Some((Unit::parse(&piece.unit)?, weight(piece.weight_g))))
                .collect(),
        };
        let group = Group::parse(&self.group).unwrap_or(Group::Other);
        Ok(Ingredient {
            id: self.key.clone(),
            name: self.name.trim().to_owned(),
            also: self.also.clone(),
            group,
            composition,
            bloom: self.bloom_g,
            starch_strength: self.starch_strength,
            starch_of: self.starch_of,
            ph: self.ph,
            gum_strength: self.gum_strength,
            globule: f64::from(u8::from(self.fat_in_globules)),
            body_pa: self.body_pa,
            flags: Flags {
                protease: self.raw_protease,
                cold_starch: self.cold_starch,
                raw_egg: self.raw_egg,
                sets_with_pectin: self.sets_with_pectin,
                locust_bean: self.locust_bean,
                cold_water_fish: self.cold_water_fish,
            },
            allergens: self.allergens.clone(),
            origins: self.origins.clone(),
            weights: weights.or_computed(&composition, group),
            pack: self.pack,
            source: if self.source.is_empty() {
                "your kitchen's own".to_owned()
            } else {
                self.source.clone()
            },
            confidence: "your own".to_owned(),
            made: None,
            steam: 0.0,
            left: None,
            replaced: Vec::new(),
        })
    }
}

/// Key of a constituent on the wire: `cocoa_butter`.
pub fn key_of(part: Part) -> String {
    serde_json::to_value(part)
        .ok()
        .and_then(|value| value.as_str().map(str::to_owned))
        .expect("a constituent serialises to a word")
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ingredient::find;

    fn cream() -> IngredientDocument {
        let cream = find("cream36").unwrap();
        IngredientDocument::copy_of(cream, "own-meadow-cream".into(), "Meadow cream".into())
    }

    #[test]
    fn a_copy_is_what_it_was_copied_from() {
        let copy = cream().ingredient().unwrap();
        let from = find("cream36").unwrap();
        for part in Part::ALL {
            assert!((copy.composition.get(part) - from.composition.get(part)).abs() < 1e-6, "{part:?}");
        }
        assert_eq!((copy.globule, copy.allergens.clone()), (from.globule, from.allergens.clone()));
    }

    #[test]
    fn every_fault_is_named_with_its_field() {
        let mut bad = cream();
        bad.key = "Meadow".into();
        bad.name = " ".into();
        bad.composition_percent.insert(Part::Water, 80.0);
        bad.allergens.push("moonlight".into());
        bad.pieces.push(Piece { unit: "cup".into(), weight_g: 3.0 });
        let fields: Vec<String> = bad.faults().into_iter().map(|fault| fault.field).collect();
        assert_eq!(fields, ["key", "name", "composition_percent", "pieces.0.unit", "allergens.1"]);
    }

    #[test]
    fn it_survives_the_wire() {
        let text = serde_json::to_string(&cream()).unwrap();
        assert_eq!(serde_json::from_str::<IngredientDocument>(&text).unwrap(), cream());
        assert!(text.contains("\"milk_fat\":"), "{text}");
    }
}
