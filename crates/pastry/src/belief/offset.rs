//! What can be off in a kitchen, how far off that is before anything was tested, and which of it bears on a formula.

use crate::code::codes;
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

codes! {
    /// Of what an offset is.
    Quantity {
        /// Yield stress.
        Yield = "yield_stress",
        /// Viscosity.
        Viscosity = "viscosity",
    }
}

codes! {
    /// Of which kind something is that can be off.
    OffsetKind {
        /// The kitchen.
        Kitchen = "kitchen",
        /// A family.
        Family = "family",
        /// An ingredient.
        Ingredient = "ingredient",
    }
}

/// What an offset belongs to.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(tag = "of", rename_all = "snake_case", deny_unknown_fields)]
#[schema(as = LearnedOf)]
pub enum Offset {
    /// The kitchen: its thermometer, its hand, its mixer.
    Kitchen {},
    /// A family of creams.
    Family {
        /// Its key.
        #[schema(max_length = 60)]
        family: String,
    },
    /// An ingredient.
    Ingredient {
        /// Its key.
        #[schema(max_length = 60)]
        ingredient: String,
    },
    /// What one of these was before it was set back: tests up to then speak of it, and it begins anew.
    Past {
        /// Of which kind.
        kind: OffsetKind,
        /// Its key; empty for the kitchen.
        #[schema(max_length = 60)]
        key: String,
        /// When it was set back, RFC 3339.
        #[schema(value_type = String)]
        until: Timestamp,
    },
}

/// The base the shares below are of, standard deviation of ln: a fitted family's usual one.
pub const USUAL_SIGMA: f64 = 0.30;

/// Shares of a family's variance that its base stands for (assumed): they explain it and add nothing to it. What they leave is the
/// batch's own: this much at the least, and what the ingredients leave where several hold a mass up.
pub const KITCHEN_SHARE: f64 = 0.15;
/// The same of the family.
pub const FAMILY_SHARE: f64 = 0.35;
/// The same of the ingredients, where one alone holds the mass up.
pub const INGREDIENT_SHARE: f64 = 0.35;

impl Offset {
    /// Its variance before any test, of a weight of 1 in a family whose base is [`USUAL_SIGMA`].
    pub fn variance(&self) -> f64 {
        let share = match self.kind() {
            OffsetKind::Kitchen => KITCHEN_SHARE,
            OffsetKind::Family => FAMILY_SHARE,
            OffsetKind::Ingredient => INGREDIENT_SHARE,
        };
        share * USUAL_SIGMA * USUAL_SIGMA
    }

    /// Of which kind it is.
    pub fn kind(&self) -> OffsetKind {
        match self {
            Offset::Kitchen {} => OffsetKind::Kitchen,
            Offset::Family { .. } => OffsetKind::Family,
            Offset::Ingredient { .. } => OffsetKind::Ingredient,
            Offset::Past { kind, .. } => *kind,
        }
    }

    /// Key of the family or the ingredient; empty for the kitchen.
    pub fn key(&self) -> &str {
        match self {
            Offset::Kitchen {} => "",
            Offset::Family { family } => family,
            Offset::Ingredient { ingredient } => ingredient,
            Offset::Past { key, .. } => key,
        }
    }

    /// What it is called once it was set back.
    pub fn past(&self, until: Timestamp) -> Offset {
        Offset::Past { kind: self.kind(), key: self.key().to_owned(), until }
    }
}

/// The offsets that bear on a formula, each with its weight, and how far apart two batches of it are by themselves.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Terms {
    /// By offset.
    pub weights: Vec<(Offset, f64)>,
    /// Variance of ln that is the batch's own: nothing teaches it.
    pub scatter: f64,
}

impl Terms {
    /// Its variance of ln before any test: the family's.
    pub fn book(&self) -> f64 {
        self.scatter
            + self.weights.iter().map(|(offset, weight)| weight * weight * offset.variance()).sum::<f64>()
    }
}
