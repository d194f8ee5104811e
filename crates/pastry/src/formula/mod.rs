//! Formulas: lines of ingredients, the family they belong to, and what they add up to.

pub mod family;
pub mod line;
pub mod mixture;
pub mod totals;

pub use family::Family;
pub use line::{Fault, Formula, Line, WeighedLine};
pub use mixture::Mixture;
pub use totals::{Totals, totals};
