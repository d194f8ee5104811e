//! What the cakes of a question are made of: the formulas they name, from this kitchen, and the shelf for them.

use crate::error::ApiError;
use crate::state::AppState;
use pastry::assess::FormulaDocument;
use pastry::ingredient::Shelf;
use pastry::ingredient::key::named_in;
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
        let mut formulas = state.store.formulas(&names).await?;
        let brought = stacks.iter().flat_map(|stack| &stack.components).map(|own| &own.document);
        let of_formulas: Vec<&str> =
            formulas.values().chain(brought).flat_map(FormulaDocument::ingredient_keys).collect();
        let of_bakes = stacks.iter().flat_map(|stack| &stack.bakes).flat_map(|bake| &bake.lines);
        let pieces = stacks
            .iter()
            .flat_map(|stack| &stack.tiers)
            .flat_map(|tier| &tier.pieces)
            .filter_map(|pieces| pieces.ingredient.as_deref());
        let of_bakes = of_bakes.map(|line| line.ingredient.as_str());
        let mut keys: Vec<&str> = of_formulas.into_iter().chain(of_bakes).chain(pieces).collect();
        keys.sort_unstable();
        keys.dedup();
        let named: Vec<&str> = keys.iter().filter_map(|key| named_in(key)).collect();
        let inside = state.store.inside(named).await?;
        let shelf = state.store.shelf_over(keys, &inside).await?;
        formulas.extend(inside);
        Ok(Cupboard { formulas, shelf })
    }

    /// All that a formula is made of.
    ///
    /// # Errors
    /// When the store cannot be read.
    pub async fn of_formula(state: &AppState, document: &FormulaDocument) -> Result<Self, ApiError> {
        let named: Vec<&str> = document.made_here().collect();
        let inside = state.store.inside(named).await?;
        let shelf = state.store.shelf_over(document.ingredient_keys(), &inside).await?;
        Ok(Cupboard { formulas: inside.into_iter().collect(), shelf })
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
