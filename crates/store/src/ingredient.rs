//! Ingredients of the kitchen's own, and the shelf with them.

use crate::kept::Revision;
use crate::list::Listed;
use crate::noun::{INGREDIENT, Kept, Noun};
use pastry::ingredient::IngredientDocument;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A revision of an own ingredient.
pub type OwnIngredient = Revision<IngredientDocument>;

/// An own ingredient as a list shows it.
pub type OwnIngredientSummary = Listed<IngredientDocument>;

/// What a list shows of an own ingredient beside its name: the pantry works the rest out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct IngredientShown {}

impl Kept for IngredientDocument {
    type Shown = IngredientShown;
    const NOUN: Noun = INGREDIENT;
    const DESCRIBED: (&'static str, &'static str) = ("OwnIngredient", "OwnIngredientSummary");

    fn called(&self) -> &str {
        &self.name
    }

    fn shown(&self) -> IngredientShown {
        IngredientShown {}
    }
}
