//! Components: creams with a name.

use crate::kept::Revision;
use crate::list::Listed;
use crate::noun::{COMPONENT, INGREDIENT, Kept, Noun};
use crate::{Store, StoreError};
use pastry::assess::FormulaDocument;
use pastry::formula::Family;
use pastry::ingredient::key::component_of;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeSet, HashMap};
use utoipa::ToSchema;

/// A revision of a component.
pub type Component = Revision<FormulaDocument>;
/// A component as the library lists it.
pub type ComponentSummary = Listed<FormulaDocument>;

/// What the library shows of a component.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ComponentShown {
    /// Its family.
    pub family: Family,
    /// Its family in kitchen words.
    pub family_word: String,
    /// Its job: drip, coat, mask, fill …
    pub job: String,
    /// Keys of the components that go into it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub made_of: Vec<String>,
    /// What comes beside it, where it is strained: a line can take that too.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub beside: Option<String>,
}

impl Kept for FormulaDocument {
    type Shown = ComponentShown;
    const NOUN: Noun = COMPONENT;
    const DESCRIBED: (&'static str, &'static str) = ("Component", "ComponentSummary");

    fn called(&self) -> &str {
        &self.name
    }

    fn shown(&self) -> ComponentShown {
        ComponentShown {
            family: self.family,
            family_word: self.family.word().to_owned(),
            job: self.work.job.word().to_owned(),
            made_of: components(self).map(str::to_owned).collect(),
            beside: self.process.strained.map(|strained| strained.beside_of(self.called())),
        }
    }

    fn uses(&self) -> Vec<(Noun, &str)> {
        let bought =
            self.lines.iter().map(|line| line.ingredient.as_str()).filter(|key| component_of(key).is_none());
        let bought = bought.map(|key| (INGREDIENT, key));
        bought.chain(components(self).map(|component| (COMPONENT, component))).collect()
    }
}

/// Keys of the components that go into it, each once.
fn components(document: &FormulaDocument) -> impl Iterator<Item = &str> {
    let all = document.lines.iter().filter_map(|line| Some(component_of(&line.ingredient)?.0));
    all.collect::<BTreeSet<_>>().into_iter()
}

impl Store {
    /// The newest formulas of so many components, by key; keys that are not here are left out.
    ///
    /// # Errors
    /// When the file fails; [`StoreError::Damaged`].
    pub async fn formulas(&self, keys: &[&str]) -> Result<HashMap<String, FormulaDocument>, StoreError> {
        let found = self.some::<FormulaDocument>(keys).await?;
        Ok(found.into_iter().map(|(key, own)| (key, own.document)).collect())
    }
}
