//! Ingredients of the kitchen's own, and the shelf with them.

use crate::kept::Revision;
use crate::list::Listed;
use crate::noun::{INGREDIENT, Kept, Noun};
use crate::{Store, StoreError};
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

impl Store {
    /// How often an ingredient of the kitchen's own was saved: what is worked out of what they are made of holds while this stands.
    ///
    /// # Errors
    /// When the file fails.
    pub async fn ingredients_saved(&self) -> Result<i64, StoreError> {
        let sql = "SELECT count(*) FROM revisions WHERE noun = ?";
        Ok(sqlx::query_scalar(sql).bind(INGREDIENT.word).fetch_one(&self.readers).await?)
    }
}
