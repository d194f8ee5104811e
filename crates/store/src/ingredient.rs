//! Ingredients of the kitchen's own, and the shelf with them.

use crate::kept::Revision;
use crate::list::Listed;
use crate::noun::{INGREDIENT, Kept, Noun};
use crate::{Store, StoreError};
use pastry::ingredient::{IngredientDocument, Shelf};
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

/// A kept document was fit when it was kept; one that no longer is, is as if it were not there.
fn over_the_catalogue<'a>(own: impl Iterator<Item = &'a OwnIngredient>) -> Shelf {
    Shelf::catalogue().with(own.map(|own| &own.document))
}

impl Store {
    /// The shelf that holds the own ingredients among some keys, over the catalogue.
    ///
    /// # Errors
    /// When the file fails; [`StoreError::Damaged`].
    pub async fn shelf(&self, keys: impl IntoIterator<Item = &str>) -> Result<Shelf, StoreError> {
        let own: Vec<&str> = keys.into_iter().filter(|key| pastry::ingredient::key::is_own(key)).collect();
        if own.is_empty() {
            return Ok(Shelf::catalogue());
        }
        let found = self.some::<IngredientDocument>(&own).await?;
        Ok(over_the_catalogue(found.values()))
    }

    /// The catalogue with everything of the kitchen's own.
    ///
    /// # Errors
    /// When the file fails; [`StoreError::Damaged`].
    pub async fn whole_shelf(&self) -> Result<Shelf, StoreError> {
        Ok(over_the_catalogue(self.all().await?.iter()))
    }
}
