//! The geometry of a job as a sentence with blanks: what a page shows for a person to fill in.

use crate::units::Quantity;
use serde::Serialize;
use utoipa::ToSchema;

/// A piece of the sentence: words, a number to set, or one of a few things to choose.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Ask {
    /// Words between.
    Words {
        /// The words.
        words: &'static str,
    },
    /// A number.
    Number(AskNumber),
    /// One of a few.
    Choice(AskChoice),
}

/// A number to set.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AskNumber {
    /// Field of the geometry.
    pub field: &'static str,
    /// What it is.
    pub label: &'static str,
    /// Its unit.
    pub unit: &'static str,
    /// Least that is taken.
    pub min: f64,
    /// Most that is taken.
    pub max: f64,
    /// By how much a key moves it.
    pub step: f64,
}

/// One of a few things to choose.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AskChoice {
    /// Field of the geometry.
    pub field: &'static str,
    /// What it is.
    pub label: &'static str,
    /// What there is to choose from.
    pub options: Vec<AskOption>,
}

/// One thing to choose.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AskOption {
    /// What is written in the field.
    pub value: &'static str,
    /// In kitchen words.
    pub words: String,
}

/// Words between the blanks.
pub(super) fn words(words: &'static str) -> Ask {
    Ask::Words { words }
}

/// A blank for a quantity, in its own unit and range.
pub(super) fn number<Q: Quantity>(field: &'static str, label: &'static str, step: f64) -> Ask {
    Ask::Number(AskNumber { field, label, unit: Q::UNIT, min: Q::LEAST, max: Q::MOST, step })
}

/// A blank for one of a few.
pub(super) fn choice(
    field: &'static str,
    label: &'static str,
    options: impl IntoIterator<Item = (&'static str, String)>,
) -> Ask {
    let options = options.into_iter().map(|(value, words)| AskOption { value, words }).collect();
    Ask::Choice(AskChoice { field, label, options })
}
