//! What the person wants kept: locks, floors and ceilings, the total, ratios, whole pieces.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What one line may do.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LineRule {
    /// It stays as it is.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
    /// What the formula is for: its fruit, its flavour, its colour. There is never less of it, and nothing goes in its
    /// place.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub kept: bool,
    /// Least of it, g.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 1000000)]
    pub least_g: Option<f64>,
    /// Most of it, g.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 1000000)]
    pub most_g: Option<f64>,
    /// Only whole packs of so many grams.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(exclusive_minimum = 0, maximum = 1000000)]
    pub pack_g: Option<f64>,
}

impl LineRule {
    /// Nothing is asked of it.
    pub fn is_free(&self) -> bool {
        *self == LineRule::default()
    }
}

/// A share of a shelf in the whole: "at least 35 % chocolate".
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShareRule {
    /// Key of an ingredient, or a shelf: chocolate, dairy, sugar …
    #[schema(example = "chocolate", max_length = 60)]
    pub of: String,
    /// Least, per cent of total.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 100)]
    pub least_percent: Option<f64>,
    /// Most, per cent of total.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 100)]
    pub most_percent: Option<f64>,
}

/// What must hold for the whole formula.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Rules {
    /// The batch keeps its weight.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub keep_total: bool,
    /// Shares with floors and ceilings.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 12)]
    pub shares: Vec<ShareRule>,
    /// Pairs of ingredients, by key, that keep their ratio.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 12)]
    pub ratios: Vec<[String; 2]>,
    /// Eggs, leaves and sticks stay whole.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub whole_pieces: bool,
}

impl Rules {
    /// Nothing is asked.
    pub fn is_free(&self) -> bool {
        *self == Rules::default()
    }
}
