//! What is asked for.

use crate::assess::document::FormulaDocument;
use crate::ingredient::Ingredient;
use crate::ingredient::composition::Part;
use crate::ingredient::origin::Origin;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What must not be in it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Avoid {
    /// Egg in any form.
    Egg,
    /// Gelatin of pork.
    Pork,
    /// Gelatin of any animal.
    Gelatin,
    /// Spirits, liqueurs, wine, extracts.
    Alcohol,
    /// Milk in any form.
    Dairy,
}

impl Avoid {
    /// All of them.
    pub const ALL: [Avoid; 5] = [Avoid::Egg, Avoid::Pork, Avoid::Gelatin, Avoid::Alcohol, Avoid::Dairy];

    /// As it is asked for: "no eggs".
    pub fn words(self) -> &'static str {
        match self {
            Avoid::Egg => "no eggs",
            Avoid::Pork => "no pork gelatin",
            Avoid::Gelatin => "no gelatin",
            Avoid::Alcohol => "no alcohol",
            Avoid::Dairy => "no dairy",
        }
    }

    /// Whether an ingredient is what is avoided.
    pub fn hits(self, ingredient: &Ingredient) -> bool {
        let from = |origin: Origin| ingredient.origins.contains(&origin);
        let allergen = |name: &str| ingredient.allergens.iter().any(|own| own == name);
        match self {
            Avoid::Egg => from(Origin::Egg) || allergen("egg"),
            Avoid::Pork => from(Origin::Pork),
            Avoid::Gelatin => {
                ingredient.bloom > 0.0 && (from(Origin::Pork) || from(Origin::Beef) || from(Origin::Fish))
            }
            Avoid::Alcohol => ingredient.composition.get(Part::Alcohol) > 0.0,
            Avoid::Dairy => from(Origin::Milk) || allergen("milk"),
        }
    }
}

/// The swap.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "swap", rename_all = "snake_case", deny_unknown_fields)]
pub enum SwapFor {
    /// One ingredient for another.
    Replace {
        /// Line of the formula.
        line: usize,
        /// Key of what takes its place.
        #[schema(max_length = 60)]
        by: String,
    },
    /// Without something, whatever takes its place.
    Without {
        /// What must not be in it.
        what: Avoid,
    },
}

/// What is kept when not all can be.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Goal {
    /// As stiff as it was; inside its window where it was not.
    Consistency,
    /// As sweet as it was, within a twentieth.
    Sweetness,
    /// No dearer than it was, within a tenth.
    Cost,
}

impl Goal {
    /// The usual ranking.
    pub const USUAL: [Goal; 3] = [Goal::Consistency, Goal::Sweetness, Goal::Cost];

    /// In a word.
    pub fn word(self) -> &'static str {
        match self {
            Goal::Consistency => "consistency",
            Goal::Sweetness => "sweetness",
            Goal::Cost => "cost",
        }
    }
}

/// A formula and what is asked of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SwapAsk {
    /// The formula as it is.
    pub document: FormulaDocument,
    /// The swap.
    pub ask: SwapFor,
    /// What is kept, the most important first; consistency, sweetness, cost when empty.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 3)]
    pub keep: Vec<Goal>,
}
