//! What this kitchen pays and in what packs it buys, beside what the catalogue assumes.

use crate::error::ApiError;
use crate::state::AppState;
use pastry::ingredient::{Ingredient, Pack};
use std::collections::HashMap;

/// Packs by ingredient.
pub struct Larder(HashMap<String, Pack>);

impl Larder {
    /// The packs of a kitchen.
    ///
    /// # Errors
    /// When the store cannot be read.
    pub async fn of(state: &AppState) -> Result<Self, ApiError> {
        let items = state.store.pantry().await?;
        Ok(Larder(items.into_iter().filter_map(|item| Some((item.ingredient, item.pack?))).collect()))
    }

    /// The pack an ingredient is bought in; the catalogue's where the kitchen says nothing.
    pub fn pack(&self, ingredient: &Ingredient) -> Option<Pack> {
        self.0.get(&ingredient.id).copied().or(ingredient.pack)
    }

    /// Price of a kilogram; of what is made here, of all that is bought for it.
    pub fn price(&self, ingredient: &Ingredient) -> Option<f64> {
        ingredient.price_per_kg(&|bought| self.pack(bought).map(|pack| pack.price_per_kg()))
    }
}
