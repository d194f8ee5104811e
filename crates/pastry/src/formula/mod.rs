//! Formulas: lines of ingredients, the family they belong to, and what they add up to.

pub mod acidity;
pub mod air;
pub mod boiled;
pub mod egg_heat;
pub mod family;
pub mod keeping;
pub mod kitchen_words;
pub mod line;
pub mod mixture;
pub mod process;
pub mod rules;
pub mod strained;
pub mod system;
pub mod tint;
pub mod to_make;
pub mod totals;

pub use crate::fault::Fault;
pub use air::Air;
pub use boiled::BoilTo;
pub use family::{Family, Figure, Setting};
pub use line::{Formula, Line, WeighedLine, flat};
pub use mixture::Mixture;
pub use process::{Process, WhipStage};
pub use rules::{LineRule, Rules};
pub use strained::{Steeped, Strained};
pub use system::System;
pub use totals::{Totals, totals};
