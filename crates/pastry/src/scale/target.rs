//! What a batch is sized to.

use crate::assess::document::FormulaDocument;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// An ingredient that is short: all there is of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Have {
    /// Its line in the formula.
    pub line: usize,
    /// How much there is, as a cook writes it: "310 g".
    #[schema(example = "310 g", max_length = 60)]
    pub amount: String,
}

/// What the batch is sized to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "to", rename_all = "snake_case", deny_unknown_fields)]
pub enum Target {
    /// So many grams.
    Mass {
        /// Wanted in use, g.
        #[schema(minimum = 0, maximum = 1000000)]
        grams: f64,
    },
    /// So many millilitres, with the air it holds.
    Volume {
        /// Wanted in use, ml.
        #[schema(minimum = 0, maximum = 1000000)]
        ml: f64,
    },
    /// So many pieces.
    Pieces {
        /// How many.
        #[schema(minimum = 1, maximum = 100000)]
        count: u32,
        /// In each, g or ml.
        #[schema(minimum = 0, maximum = 1000000)]
        each: f64,
        /// Whether `each` is in millilitres; grams when not.
        #[serde(default)]
        by_volume: bool,
    },
    /// As much as what is short allows.
    Short {
        /// Each ingredient there is only so much of.
        #[schema(min_items = 1, max_items = 60)]
        have: Vec<Have>,
    },
    /// So many times.
    Factor {
        /// How many times.
        #[schema(minimum = 0.01, maximum = 1000)]
        by: f64,
    },
}

/// What should come out whole.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Whole {
    /// Nothing: amounts as they fall.
    #[default]
    Nothing,
    /// Eggs, yolks, whites, leaves, sticks.
    Pieces,
    /// Packs as they are bought.
    Packs,
}

/// A formula and the size it is wanted in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ScaleAsk {
    /// The formula.
    pub document: FormulaDocument,
    /// The size.
    pub target: Target,
    /// What stays in bowl and bag, per cent of the batch: 3 to 5 for a piped cream (common practice).
    #[serde(default)]
    #[schema(minimum = 0, maximum = 50)]
    pub loss_percent: f64,
    /// What should come out whole.
    #[serde(default)]
    pub whole: Whole,
    /// Only this line comes out whole; all that are counted when none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub whole_line: Option<usize>,
}
