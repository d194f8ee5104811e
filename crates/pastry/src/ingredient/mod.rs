//! Ingredients: what they are made of, where they come from, and what a cup or a piece of them weighs.

pub mod catalogue;
pub mod composition;
pub mod diet;
pub mod document;
pub mod infer;
pub mod label;
pub mod measure;
pub mod search;
pub mod shelf;
pub mod table;

pub use catalogue::{Ingredient, Pack, catalogue, find};
pub use composition::{Composition, Part, Phase, PhaseShares};
pub use diet::{Diet, Origin, diet};
pub use document::IngredientDocument;
pub use label::Label;
pub use shelf::Shelf;
