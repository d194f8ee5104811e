//! Ingredients: what they are made of, where they come from, and what a cup or a piece of them weighs.

pub mod catalogue;
pub mod composition;
pub mod diet;
pub mod document;
pub mod gelatin;
pub mod group;
pub mod infer;
pub mod item;
pub mod key;
pub mod label;
pub mod made;
pub mod measure;
pub mod origin;
pub mod role;
pub mod search;
pub mod shelf;
pub mod starch;
pub mod weights;

pub use catalogue::{catalogue, find};
pub use composition::{Composition, Part, Phase, PhaseShares};
pub use diet::{Diet, diet};
pub use document::IngredientDocument;
pub use gelatin::GelatinKind;
pub use group::Group;
pub use item::{Ingredient, Leaf, Made, Pack};
pub use label::Label;
pub use origin::Origin;
pub use role::Role;
pub use shelf::Shelf;
pub use starch::StarchKind;
