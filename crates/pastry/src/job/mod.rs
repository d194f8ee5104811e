//! What a cream must do, the window its geometry asks for, and whether this one does it.
//!
//! [`geometry`] is what the person sets, [`kind`] what each job measures; [`drip`], [`film`], [`slump`]
//! and [`soak`] are the physics; [`judge`] compares a prediction with the window; [`reach`] says how far
//! one phase may move, [`pour`] what happens before it sets, [`figures`] what else a cook looks at,
//! [`why`] where it comes from; [`words`] say it as the spoon would; [`assess()`] does all of it for a
//! document from outside, [`compare()`] for several side by side. [`starts`] are formulas to begin with, [`usual`] what each family is
//! used for.

pub mod assess;
pub mod baume;
pub mod chance;
pub mod compare;
pub mod document;
pub mod drip;
pub mod figures;
pub mod film;
pub mod geometry;
pub mod judge;
pub mod kind;
pub mod pour;
pub mod reach;
pub mod slump;
pub mod soak;
pub mod spoon_sign;
pub mod starts;
pub mod usual;
pub mod why;
pub mod words;

pub use assess::{Assessment, assess, assess_from};
pub use compare::{Comparison, compare};
pub use document::{FormulaDocument, Work};
pub use judge::{Judged, Outcome};
pub use kind::Job;
