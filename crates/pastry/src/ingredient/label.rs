//! A label's nutrition panel: what it says, what does not fit together, and what is made of it. How the
//! rest is inferred is in [`crate::ingredient::infer`].

use crate::fault::{Fault, FaultCode};
use crate::ingredient::composition::Part;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What kind of thing the label is on; the panel alone cannot tell milk fat from cocoa butter.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LabelKind {
    /// Dark chocolate, cocoa mass.
    DarkChocolate,
    /// Milk chocolate.
    MilkChocolate,
    /// White chocolate.
    WhiteChocolate,
    /// Cocoa powder.
    CocoaPowder,
    /// Milk, cream, cheese, butter, milk powder.
    Dairy,
    /// Whole egg, yolk or white.
    Egg,
    /// Sugar, sugar syrup without glucose syrup.
    Sugar,
    /// Glucose (corn) syrup.
    GlucoseSyrup,
    /// Honey, invert sugar, agave.
    InvertSyrup,
    /// Fruit, juice, puree, jam.
    Fruit,
    /// Nut or seed paste.
    NutPaste,
    /// Oil, nut fat, vegetable fat.
    PlantFat,
    /// Coconut milk, cream, fat.
    Coconut,
    /// Flour, starch, biscuit.
    Starch,
    /// Plant drink, coffee, other liquid.
    PlantDrink,
    /// Spirit, liqueur, wine.
    Alcohol,
}

/// A nutrition panel per 100 g, and what else the pack says.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Label {
    /// What kind of thing it is.
    pub kind: LabelKind,
    /// Fat, g per 100 g.
    #[schema(minimum = 0, maximum = 100, example = 36.0)]
    pub fat_g: f64,
    /// Of which saturates, g per 100 g.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 100)]
    pub saturates_g: Option<f64>,
    /// Carbohydrate without fibre, g per 100 g.
    #[schema(minimum = 0, maximum = 100, example = 3.0)]
    pub carbohydrate_g: f64,
    /// Of which sugars, g per 100 g.
    #[schema(minimum = 0, maximum = 100, example = 3.0)]
    pub sugars_g: f64,
    /// Fibre, g per 100 g.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 100)]
    pub fibre_g: Option<f64>,
    /// Protein, g per 100 g.
    #[schema(minimum = 0, maximum = 100, example = 2.1)]
    pub protein_g: f64,
    /// Salt, g per 100 g.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 100)]
    pub salt_g: f64,
    /// Cocoa, per cent of weight, as on a chocolate.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 100)]
    pub cocoa_percent: Option<f64>,
    /// Milk fat, per cent of weight.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 100)]
    pub milk_fat_percent: Option<f64>,
    /// Alcohol, per cent of volume.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 100)]
    pub alcohol_percent_vol: Option<f64>,
    /// Dissolved solids, °Bx, where known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 100)]
    pub brix: Option<f64>,
}

/// One value and how it was come by.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Inference {
    /// The constituent.
    pub part: Part,
    /// Its share, per cent of weight.
    pub percent: f64,
    /// Why, in words.
    pub why: String,
    /// Whether the label says so itself.
    pub said_by_label: bool,
}

/// A whole composition inferred from a label.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Inferred {
    /// Per cent of weight by constituent, adding up to 100.
    pub composition_percent: BTreeMap<Part, f64>,
    /// How each value was come by.
    pub inferences: Vec<Inference>,
    /// Whether its fat sits in globules of its own.
    pub fat_in_globules: bool,
}

/// A label's values are rounded: this much over 100 g is taken as rounding.
const ROUNDING_G: f64 = 1.5;

impl Label {
    /// What does not fit together, each with its field.
    pub fn faults(&self) -> Vec<Fault> {
        let mut faults = Vec::new();
        let numbers = [
            ("fat_g", Some(self.fat_g)),
            ("saturates_g", self.saturates_g),
            ("carbohydrate_g", Some(self.carbohydrate_g)),
            ("sugars_g", Some(self.sugars_g)),
            ("fibre_g", self.fibre_g),
            ("protein_g", Some(self.protein_g)),
            ("salt_g", Some(self.salt_g)),
            ("cocoa_percent", self.cocoa_percent),
            ("milk_fat_percent", self.milk_fat_percent),
            ("alcohol_percent_vol", self.alcohol_percent_vol),
            ("brix", self.brix),
        ];
        for (field, value) in numbers {
            if value.is_some_and(|value| !(0.0..=100.0).contains(&value)) {
                let message = "is between 0 and 100 per 100 g: read the column per 100 g, not per serving";
                faults.push(Fault::new(field, FaultCode::OutOfRange, message));
            }
        }
        let mut fault = |field: &str, message: String| {
            faults.push(Fault::new(field, FaultCode::DoesNotAddUp, message));
        };
        if self.sugars_g > self.carbohydrate_g + 0.5 {
            fault(
                "sugars_g",
                format!(
                    "{} g of sugars cannot be in {} g of carbohydrate: swap them, or read the label again",
                    self.sugars_g, self.carbohydrate_g
                ),
            );
        }
        if let Some(saturates) = self.saturates_g.filter(|s| *s > self.fat_g + 0.5) {
            fault("saturates_g", format!("{saturates} g of saturates cannot be in {} g of fat", self.fat_g));
        }
        if let Some(milk_fat) = self.milk_fat_percent.filter(|m| *m > self.fat_g + 0.5) {
            fault(
                "milk_fat_percent",
                format!("{milk_fat} % of milk fat cannot be in {} g of fat", self.fat_g),
            );
        }
        let sum =
            self.fat_g + self.carbohydrate_g + self.fibre_g.unwrap_or(0.0) + self.protein_g + self.salt_g;
        if sum > 100.0 + ROUNDING_G {
            fault(
                "fat_g",
                format!(
                    "the label adds up to {sum:.1} g in 100 g: one number may be per serving, or in the wrong field"
                ),
            );
        }
        faults
    }
}
