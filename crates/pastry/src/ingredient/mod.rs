//! Ingredients: what they are made of, and what a cup or a piece of them weighs.

pub mod catalogue;
pub mod composition;
pub mod measure;

pub use catalogue::{Ingredient, catalogue, find};
pub use composition::{Composition, Part, Phase, PhaseShares};
