//! Where ingredients come from.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Where an ingredient comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Origin {
    /// Plants, and what microbes make of them.
    Plant,
    /// Seaweed.
    Seaweed,
    /// Salt and water.
    Mineral,
    /// Milk.
    Milk,
    /// Eggs.
    Egg,
    /// Bees.
    Honey,
    /// Pigs.
    Pork,
    /// Cattle.
    Beef,
    /// Fish.
    Fish,
}

impl Origin {
    /// All of them.
    pub const ALL: [Origin; 9] = [
        Origin::Plant,
        Origin::Seaweed,
        Origin::Mineral,
        Origin::Milk,
        Origin::Egg,
        Origin::Honey,
        Origin::Pork,
        Origin::Beef,
        Origin::Fish,
    ];

    /// In words, as in the table.
    pub fn word(self) -> &'static str {
        match self {
            Origin::Plant => "plant",
            Origin::Seaweed => "seaweed",
            Origin::Mineral => "mineral",
            Origin::Milk => "milk",
            Origin::Egg => "egg",
            Origin::Honey => "honey",
            Origin::Pork => "pork",
            Origin::Beef => "beef",
            Origin::Fish => "fish",
        }
    }

    /// The origin written as this word.
    pub fn parse(word: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|origin| origin.word() == word.trim())
    }
}
