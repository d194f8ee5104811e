//! The shelf a formula is weighed from: the catalogue, and over it the kitchen's own ingredients.

use crate::ingredient::catalogue::{Ingredient, catalogue, find};
use std::collections::BTreeMap;
use std::sync::Arc;

/// Ingredients by key. Keys of own ingredients begin with [`OWN`], so they never hide the catalogue.
#[derive(Debug, Clone, Default)]
pub struct Shelf {
    own: BTreeMap<String, Arc<Ingredient>>,
}

/// What the key of an own ingredient begins with.
pub const OWN: &str = "own-";

impl Shelf {
    /// Only the catalogue.
    pub fn catalogue() -> Self {
        Self::default()
    }

    /// With own ingredients; of two with one key the first stays.
    pub fn with(mut self, own: impl IntoIterator<Item = Ingredient>) -> Self {
        for ingredient in own {
            self.own.entry(ingredient.id.clone()).or_insert_with(|| Arc::new(ingredient));
        }
        self
    }

    /// The ingredient with this key.
    pub fn find(&self, id: &str) -> Option<&Arc<Ingredient>> {
        find(id).or_else(|| self.own.get(id))
    }

    /// All of them: own ones first.
    pub fn all(&self) -> impl Iterator<Item = &Arc<Ingredient>> {
        self.own.values().chain(catalogue())
    }
}
