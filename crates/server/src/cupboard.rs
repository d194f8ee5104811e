//! What the cakes of a question are made of: the formulas they name, from this kitchen, and the shelf for them.

use crate::error::ApiError;
use crate::state::AppState;
use pastry::assess::FormulaDocument;
use pastry::ingredient::Shelf;
use pastry::stack::{Known, StackDocument};
use std::collections::HashMap;

/// Formulas by key, and the shelf they are weighed from.
pub struct Cupboard {
    formulas: HashMap<String, FormulaDocument>,
    shelf: Shelf,
}

impl Cupboard {
    /// All that some cakes name.
    ///
    /// # Errors
    /// When the store cannot be read.
    pub async fn of(state: &AppState, stacks: &[&StackDocument]) -> Result<Self, ApiError> {
        let mut names: Vec<&str> = stacks.iter().flat_map(|stack| stack.component_keys()).collect();
        names.sort_unstable();
        names.dedup();
        let formulas = state.store.formulas(&names).await?;
        let brought = stacks.iter().flat_map(|stack| &stack.components).map(|own| &own.document);
        let of_formulas = formulas.values().chain(brought).flat_map(|formula| &formula.lines);
        let of_bakes = stacks.iter().flat_map(|stack| &stack.bakes).flat_map(|bake| &bake.lines);
        let pieces = stacks
            .iter()
            .flat_map(|stack| &stack.tiers)
            .flat_map(|tier| &tier.pieces)
            .filter_map(|pieces| pieces.ingredient.as_deref());
        let keys = of_formulas.chain(of_bakes).map(|line| line.ingredient.as_str()).chain(pieces);
        let mut keys: Vec<&str> = keys.collect();
        keys.sort_unstable();
        keys.dedup();
        let shelf = state.store.shelf(keys).await?;
        Ok(Cupboard { formulas, shelf })
    }

    /// As the core asks for it.
    pub fn known(&self) -> Known<'_> {
        Known { formulas: &self.formulas, shelf: &self.shelf }
    }

    /// The shelf.
    pub fn shelf(&self) -> &Shelf {
        &self.shelf
    }
}
