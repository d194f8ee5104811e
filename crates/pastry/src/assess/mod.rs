//! What a formula comes to: its document, and the whole answer to it.
//!
//! [`document`] is what comes from outside, [`ready`] the same in grams, and [`answer`] the answer to it: [`map`] is the job over all temperatures, [`reach`] says how far one phase may move
//! and where the job is met, [`pour`] what happens before it sets, [`figures`] what else a cook looks at, [`why`] where
//! it comes from; [`words`] say it as the spoon would, and [`spoon_sign`] what a spoonful does. [`compare()`] sets several
//! side by side. [`learned`] what the kitchen's own tests do to it, [`starts`] are formulas to begin with, [`usual`] what each family is used for.

pub mod answer;
pub mod baume;
pub mod boiled;
pub mod compare;
pub mod document;
pub mod figures;
pub mod in_the_room;
pub mod learned;
pub mod made_here;
pub mod map;
pub mod moved;
pub mod open;
pub mod pour;
pub mod prepared;
pub mod reach;
pub mod ready;
pub mod room;
pub mod spoon_sign;
pub mod starts;
pub mod strained;
pub mod usual;
pub mod why;
pub mod words;
pub mod zone;

pub use answer::{Assessment, assess, assess_from, assessed};
pub use compare::{Comparison, compare};
pub use document::{BroughtComponent, FormulaDocument, Work};
pub use ready::Ready;
