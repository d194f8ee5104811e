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

/// A key made of a name: "Meadow cream 38 %" becomes `own-meadow-cream-38`.
pub fn key_for(name: &str) -> String {
    let plain = deunicode::deunicode(name).to_lowercase();
    let mut key = String::from(OWN);
    for word in plain.split(|c: char| !c.is_ascii_alphanumeric()).filter(|word| !word.is_empty()) {
        if key.len() + word.len() > 52 {
            break;
        }
        if !key.ends_with('-') {
            key.push('-');
        }
        key.push_str(word);
    }
    if key.len() == OWN.len() { key + "ingredient" } else { key }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_name_in_any_script_makes_a_key() {
        assert_eq!(key_for("Crème double 45 %"), "own-creme-double-45");
        assert_eq!(key_for("  "), "own-ingredient");
    }
}
