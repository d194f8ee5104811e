//! What can be kept: the nouns, and what a document of each must tell.

use crate::StoreError;
use serde::Serialize;
use serde::de::DeserializeOwned;
use utoipa::ToSchema;

/// What has revisions: its word in the file, and in a sentence.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Noun {
    /// In the file.
    pub word: &'static str,
    /// To a cook.
    pub said: &'static str,
}

/// Creams.
pub const COMPONENT: Noun = Noun { word: "component", said: "formula" };
/// Ingredients of the kitchen's own.
pub const INGREDIENT: Noun = Noun { word: "ingredient", said: "ingredient" };
/// Orders with their cakes.
pub const ORDER: Noun = Noun { word: "order", said: "order" };

/// The pastry room: when it is open, who works there, what stands in it.
pub const ROOM: Noun = Noun { word: "room", said: "pastry room" };
/// Plans of days.
pub const PLAN: Noun = Noun { word: "plan", said: "plan" };

/// Batches while they are made.
pub const BATCH: Noun = Noun { word: "batch", said: "batch" };

/// What was learned: a journal, never saved itself.
pub const LEARNING: Noun = Noun { word: "learning", said: "what was learned" };
/// The trainer, of each person: a journal, never saved itself.
pub const TRAINER: Noun = Noun { word: "trainer", said: "trainer" };

/// All nouns with revisions.
pub const NOUNS: [Noun; 6] = [COMPONENT, INGREDIENT, ORDER, ROOM, PLAN, BATCH];

/// A document that is kept with all its revisions.
pub trait Kept: Serialize + DeserializeOwned + Clone + Send + Sync + 'static {
    /// What lists show of it beside its name.
    type Shown: Serialize + DeserializeOwned + ToSchema + std::fmt::Debug + Clone + PartialEq + Send;

    /// Its noun.
    const NOUN: Noun;

    /// What a revision of it, and its line in a list, are called in the description of the interface.
    const DESCRIBED: (&'static str, &'static str);

    /// The order of its list, in SQL over the table `things`.
    const LISTED_BY: &'static str = "name COLLATE NOCASE, created_at";

    /// Its name.
    fn called(&self) -> &str;

    /// What lists show of it beside its name.
    fn shown(&self) -> Self::Shown;

    /// What it is made with: noun and key.
    fn uses(&self) -> Vec<(Noun, &str)> {
        Vec::new()
    }
}

/// A key as an error names it.
pub(crate) fn missing(noun: Noun, key: &str) -> StoreError {
    StoreError::NotFound { noun: noun.said, key: key.chars().take(60).collect() }
}
