//! What a document takes along to another kitchen: the formulas it names, and the own ingredients that they, its sponges
//! and its pieces need. One way for all.

use crate::assess::{BroughtComponent, FormulaDocument};
use crate::ingredient::key::{is_own, named_in};
use crate::ingredient::{IngredientDocument, Shelf};
use crate::order::OrderDocument;
use crate::stack::{Known, StackDocument};

/// What a document brings already, and what is missing of these keys, as the kitchen has it.
fn with_missing<'a>(
    has: &[IngredientDocument],
    keys: impl IntoIterator<Item = &'a str>,
    shelf: &Shelf,
) -> Vec<IngredientDocument> {
    let mut all: Vec<IngredientDocument> = Vec::new();
    for key in keys.into_iter().filter(|key| is_own(key)) {
        // The kitchen's own stays over what a file brought: that is what it was weighed from.
        let found = shelf.document(key).or_else(|| has.iter().find(|own| own.key == key));
        if let Some(found) = found.filter(|found| !all.iter().any(|own| own.key == found.key)) {
            all.push(found.clone());
        }
    }
    let unused = has.iter().filter(|own| !all.iter().any(|taken| taken.key == own.key)).cloned();
    let unused: Vec<IngredientDocument> = unused.collect();
    all.extend(unused);
    all
}

/// A formula with the components its lines name, and the own ingredients that all of it needs.
pub fn formula(document: &FormulaDocument, known: &Known) -> FormulaDocument {
    let mut components: Vec<BroughtComponent> = Vec::new();
    let mut asked: Vec<&str> = document.made_here().collect();
    while let Some(named) = asked.pop() {
        if components.iter().any(|own| own.key == named) {
            continue;
        }
        // The kitchen's own stays over what a file brought: that is what it was weighed from.
        let brought = || document.components.iter().find(|own| own.key == named).map(|own| &own.document);
        let Some(found) = known.formulas.get(named).or_else(brought) else { continue };
        asked.extend(found.made_here());
        let own = FormulaDocument { components: Vec::new(), ..with_own(found, known.shelf) };
        components.push(BroughtComponent { key: named.to_owned(), document: own });
    }
    components.sort_by(|a, b| a.key.cmp(&b.key));
    FormulaDocument { components, ..with_own(document, known.shelf) }
}

fn with_own(document: &FormulaDocument, shelf: &Shelf) -> FormulaDocument {
    let keys = document.lines.iter().map(|line| line.ingredient.as_str());
    FormulaDocument { ingredients: with_missing(&document.ingredients, keys, shelf), ..document.clone() }
}

/// A cake with every formula it names, and the own ingredients of its sponges and pieces.
pub fn stack(document: &StackDocument, known: &Known) -> StackDocument {
    let named_by_bakes = document.bakes.iter().flat_map(|bake| &bake.lines);
    let named_by_bakes = named_by_bakes.filter_map(|line| named_in(&line.ingredient));
    let mut keys: Vec<&str> = document.component_keys().into_iter().chain(named_by_bakes).collect();
    keys.sort_unstable();
    keys.dedup();
    let components = keys
        .into_iter()
        .filter_map(|key| {
            let brought = || document.components.iter().find(|own| own.key == key).map(|own| &own.document);
            let found = known.formulas.get(key).or_else(brought)?;
            Some(BroughtComponent { key: key.to_owned(), document: formula(found, known) })
        })
        .collect();
    let ingredients = with_missing(&document.ingredients, document.own_ingredient_keys(), known.shelf);
    StackDocument { components, ingredients, ..document.clone() }
}

/// An order with all that its cakes need.
pub fn order(document: &OrderDocument, known: &Known) -> OrderDocument {
    let mut whole = document.clone();
    for cake in &mut whole.cakes {
        cake.stack = stack(&cake.stack, known);
    }
    whole
}
