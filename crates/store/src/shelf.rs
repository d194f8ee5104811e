//! The shelf a formula is weighed from: the catalogue, the kitchen's own ingredients, and what is made here.

use crate::ingredient::OwnIngredient;
use crate::noun::BATCH;
use crate::{Store, StoreError};
use pastry::assess::FormulaDocument;
use pastry::assess::made_here::{Documents, with_made};
use pastry::ingredient::key::{held, is_own, named_in};
use pastry::ingredient::made::DEEPEST;
use pastry::ingredient::{IngredientDocument, Shelf};
use std::collections::{BTreeMap, BTreeSet};

/// A kept document was fit when it was kept; one that no longer is, is as if it were not there.
fn over_the_catalogue<'a>(own: impl Iterator<Item = &'a OwnIngredient>) -> Shelf {
    Shelf::catalogue().with(own.map(|own| &own.document))
}

/// Formulas by the keys that lines name them by, as [`named_in`] reads them.
pub type Inside = BTreeMap<String, FormulaDocument>;

impl Store {
    /// The shelf that holds what some keys name, over the catalogue: own ingredients, and components with all that these are
    /// made of.
    ///
    /// # Errors
    /// When the file fails; [`StoreError::Damaged`].
    pub async fn shelf(&self, keys: impl IntoIterator<Item = &str>) -> Result<Shelf, StoreError> {
        let keys: Vec<&str> = keys.into_iter().collect();
        let named: Vec<&str> = keys.iter().filter_map(|key| named_in(key)).collect();
        let inside = self.inside(named).await?;
        self.shelf_over(keys, &inside).await
    }

    /// The shelf a batch was weighed from: what is made here as it was when the batch was begun, however it is made by now. What is
    /// bought is as it is known now: a pantry is corrected, a formula is changed.
    ///
    /// # Arguments
    /// * `batch`: its key; one that is not kept is weighed from what there is now.
    ///
    /// # Errors
    /// When the file fails; [`StoreError::Damaged`].
    pub async fn shelf_of_batch(
        &self,
        batch: &str,
        keys: impl IntoIterator<Item = &str>,
    ) -> Result<Shelf, StoreError> {
        let keys: Vec<&str> = keys.into_iter().collect();
        let named: Vec<&str> = keys.iter().filter_map(|key| named_in(key)).collect();
        if named.is_empty() {
            return self.shelf_over(keys, &Inside::new()).await;
        }
        let begun = self.begun_at(batch).await?;
        let inside = self.inside_as_of(named, begun.as_deref()).await?;
        self.shelf_over(keys, &inside).await
    }

    /// Keys by which lines of a batch name what was changed since it was begun, each with the key that holds it at its version of then.
    ///
    /// # Errors
    /// When the file fails; [`StoreError::Damaged`].
    pub async fn held_then(
        &self,
        batch: &str,
        keys: impl IntoIterator<Item = &str>,
    ) -> Result<BTreeMap<String, String>, StoreError> {
        let newest: Vec<(&str, &str)> = keys
            .into_iter()
            .filter_map(|key| Some((key, named_in(key)?)))
            .filter(|(_, named)| held(named).1.is_none())
            .collect();
        if newest.is_empty() {
            return Ok(BTreeMap::new());
        }
        let Some(begun) = self.begun_at(batch).await? else { return Ok(BTreeMap::new()) };
        let named: Vec<&str> = newest.iter().map(|own| own.1).collect();
        let then = self.some_as_of::<FormulaDocument>(&named, &begun).await?;
        let moved = |(key, named): (&str, &str)| {
            let own = then.get(named).filter(|own| own.revision < own.newest_revision)?;
            Some((key.to_owned(), format!("{key}@{}", own.revision)))
        };
        Ok(newest.into_iter().filter_map(moved).collect())
    }

    /// When a batch was begun, RFC 3339; none for one that is not kept.
    async fn begun_at(&self, batch: &str) -> Result<Option<String>, StoreError> {
        let sql = "SELECT saved_at FROM revisions WHERE noun = ? AND key = ? AND revision = 1";
        Ok(sqlx::query_scalar(sql).bind(BATCH.word).bind(batch).fetch_optional(&self.readers).await?)
    }

    /// The same with the components at hand.
    ///
    /// # Errors
    /// When the file fails; [`StoreError::Damaged`].
    pub async fn shelf_over<'a>(
        &self,
        keys: impl IntoIterator<Item = &'a str>,
        inside: &'a Inside,
    ) -> Result<Shelf, StoreError> {
        let of_components = inside.values().flat_map(FormulaDocument::ingredient_keys);
        let own: BTreeSet<&str> = keys.into_iter().chain(of_components).filter(|key| is_own(key)).collect();
        let shelf = if own.is_empty() {
            Shelf::catalogue()
        } else {
            let asked: Vec<&str> = own.into_iter().collect();
            let mut found = self.some::<IngredientDocument>(&asked).await?;
            // What each is bought in the place of, as far back as there is anything.
            loop {
                let before: BTreeSet<String> = found
                    .values()
                    .filter_map(|own| own.document.replaces.clone())
                    .filter(|key| is_own(key) && !found.contains_key(key))
                    .collect();
                let before: Vec<&str> = before.iter().map(String::as_str).collect();
                let more = self.some::<IngredientDocument>(&before).await?;
                if more.is_empty() {
                    break;
                }
                found.extend(more);
            }
            over_the_catalogue(found.values())
        };
        let documents: Documents = inside.iter().map(|(named, own)| (named.as_str(), own)).collect();
        Ok(with_made(shelf, &documents).taught(self.beliefs()))
    }

    /// The components that some keys name, and all that these name, as deep as is followed; what is not here is left out.
    ///
    /// # Arguments
    /// * `named`: keys as [`named_in`] reads them, held at a revision or not.
    ///
    /// # Errors
    /// When the file fails; [`StoreError::Damaged`].
    pub async fn inside(&self, named: Vec<&str>) -> Result<Inside, StoreError> {
        self.inside_as_of(named, None).await
    }

    async fn inside_as_of(&self, named: Vec<&str>, at: Option<&str>) -> Result<Inside, StoreError> {
        let mut inside = Inside::new();
        let mut asked: BTreeSet<String> = named.into_iter().map(str::to_owned).collect();
        // One level more than is followed, so that the one too deep is found and told.
        for _ in 0..=DEEPEST + 1 {
            if asked.is_empty() {
                break;
            }
            let (old, newest): (Vec<&String>, Vec<&String>) =
                asked.iter().partition(|named| held(named).1.is_some());
            let newest: Vec<&str> = newest.into_iter().map(String::as_str).collect();
            let mut found = match at {
                _ if newest.is_empty() => Default::default(),
                Some(at) => {
                    let then = self.some_as_of::<FormulaDocument>(&newest, at).await?;
                    then.into_iter().map(|(key, own)| (key, own.document)).collect()
                }
                None => self.formulas(&newest).await?,
            };
            for named in old {
                let (component, revision) = held(named);
                match self.read::<FormulaDocument>(component, revision).await {
                    Ok(own) => {
                        found.insert(named.clone(), own.document);
                    }
                    Err(StoreError::NotFound { .. }) => {}
                    Err(error) => return Err(error),
                }
            }
            let next =
                found.values().flat_map(|own| own.made_here()).map(str::to_owned).collect::<BTreeSet<_>>();
            inside.extend(found);
            asked = next.into_iter().filter(|named| !inside.contains_key(named)).collect();
        }
        Ok(inside)
    }

    /// The catalogue with everything of the kitchen's own ingredients.
    ///
    /// # Errors
    /// When the file fails; [`StoreError::Damaged`].
    pub async fn whole_shelf(&self) -> Result<Shelf, StoreError> {
        Ok(over_the_catalogue(self.all().await?.iter()))
    }
}
