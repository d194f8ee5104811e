//! The shelf a formula is weighed from: the catalogue, and over it the kitchen's own ingredients.

use crate::belief::Beliefs;
use crate::fault::{Fault, FaultCode};
use crate::ingredient::catalogue::{catalogue, find};
use crate::ingredient::document::IngredientDocument;
use crate::ingredient::item::Ingredient;
use crate::ingredient::key::named_in;
use std::collections::BTreeMap;
use std::sync::Arc;

/// An own ingredient: as it was written, and as it is asked.
#[derive(Debug, Clone)]
struct Own {
    document: Arc<IngredientDocument>,
    ingredient: Arc<Ingredient>,
}

/// Ingredients by key. Keys of own ingredients begin with [`OWN`](crate::ingredient::key::OWN), so they never hide the
/// catalogue.
#[derive(Debug, Clone, Default)]
pub struct Shelf {
    own: BTreeMap<String, Own>,
    /// What is made here and what comes beside it, by its key; or why it cannot be had.
    made: BTreeMap<String, Result<Arc<Ingredient>, NotMade>>,
    /// What the kitchen's own tests taught of it; none where the book is asked.
    beliefs: Option<Arc<Beliefs>>,
}

/// Why something made here cannot be had.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct NotMade {
    /// Which fault it is.
    pub code: FaultCode,
    /// In words, with what to do.
    pub words: String,
}

impl Shelf {
    /// Only the catalogue.
    pub fn catalogue() -> Self {
        Self::default()
    }

    /// With own ingredients that were fit when they were kept; of two with one key the first stays, and one that no longer
    /// is fit is as if it were not there.
    pub fn with<'a>(mut self, own: impl IntoIterator<Item = &'a IngredientDocument>) -> Self {
        for document in own {
            if let Ok(ingredient) = document.ingredient() {
                self.add(document, ingredient);
            }
        }
        self.say_replaced();
        self
    }

    /// Says of each own ingredient in whose place it is bought, as far back as is known.
    fn say_replaced(&mut self) {
        let before: BTreeMap<String, String> = self
            .own
            .iter()
            .filter_map(|(key, own)| Some((key.clone(), own.document.replaces.clone()?)))
            .collect();
        for (key, own) in &mut self.own {
            let mut chain: Vec<String> = Vec::new();
            let mut at = key;
            while let Some(next) = before.get(at) {
                // In a circle each stands once.
                if next == key || chain.contains(next) {
                    break;
                }
                chain.push(next.clone());
                at = next;
            }
            if own.ingredient.replaced != chain {
                Arc::make_mut(&mut own.ingredient).replaced = chain;
            }
        }
    }

    /// With what the kitchen's own tests taught.
    pub fn taught(mut self, beliefs: Arc<Beliefs>) -> Self {
        self.beliefs = (!beliefs.is_book()).then_some(beliefs);
        self
    }

    /// What the kitchen's own tests taught; none where nothing did.
    pub fn beliefs(&self) -> Option<&Beliefs> {
        self.beliefs.as_deref()
    }

    /// The same without what was taught: as the book has it.
    pub fn by_the_book(&self) -> Self {
        Shelf { beliefs: None, ..self.clone() }
    }

    /// With what a document brings; of two with one key that of the kitchen stays.
    ///
    /// # Errors
    /// Faults of what is brought, each with its field.
    pub fn bringing(&self, ingredients: &[IngredientDocument]) -> Result<Self, Vec<Fault>> {
        let mut shelf = self.clone();
        let mut faults = Vec::new();
        for (at, document) in ingredients.iter().enumerate() {
            match document.ingredient() {
                Ok(ingredient) => shelf.add(document, ingredient),
                Err(found) => faults.extend(found.into_iter().map(|fault| {
                    let field = format!("ingredients.{at}.{}", fault.field);
                    Fault { field, ..fault }
                })),
            }
        }
        shelf.say_replaced();
        if faults.is_empty() { Ok(shelf) } else { Err(faults) }
    }

    fn add(&mut self, document: &IngredientDocument, ingredient: Ingredient) {
        self.own.entry(ingredient.id.clone()).or_insert_with(|| Own {
            document: Arc::new(document.clone()),
            ingredient: Arc::new(ingredient),
        });
    }

    /// The ingredient with this key.
    pub fn find(&self, id: &str) -> Option<&Arc<Ingredient>> {
        find(id).or_else(|| match named_in(id) {
            Some(_) => self.made.get(id)?.as_ref().ok(),
            None => Some(&self.own.get(id)?.ingredient),
        })
    }

    /// Puts something made here on it, or why it cannot be had; of two with one key the first stays.
    pub fn put(&mut self, key: String, made: Result<Arc<Ingredient>, NotMade>) {
        self.made.entry(key).or_insert(made);
    }

    /// Whether it is known of something made here if it can be had.
    pub fn knows(&self, key: &str) -> bool {
        self.made.contains_key(key)
    }

    /// Why there is no ingredient with this key, and what to do.
    pub fn why_not(&self, id: &str) -> NotMade {
        let words = |words: String, code: FaultCode| NotMade { code, words };
        let shown: String = id.chars().take(60).collect();
        match named_in(id).map(|_| self.made.get(id)) {
            Some(Some(Err(why))) => why.clone(),
            Some(_) => words(
                "what was made here for this line is not in this kitchen: pick another formula, or open the file that brings it"
                    .to_owned(),
                FaultCode::MissingComponent,
            ),
            None => words(
                format!("“{shown}” is not in the pantry: pick an ingredient from the list"),
                FaultCode::UnknownIngredient,
            ),
        }
    }

    /// An own ingredient as it was written.
    pub fn document(&self, key: &str) -> Option<&IngredientDocument> {
        Some(&self.own.get(key)?.document)
    }

    /// All of them: own ones first.
    pub fn all(&self) -> impl Iterator<Item = &Arc<Ingredient>> {
        self.own.values().map(|own| &own.ingredient).chain(catalogue())
    }
}
