//! What a cream must do, the window its geometry asks for, and whether this one does it.
//!
//! [`geometry`] is what the person sets; [`drip`] and [`film`] are the physics; [`judge`] compares a
//! prediction with the window; [`reach`] says how far one phase may move; [`words`] say it as the
//! spoon would; [`assess()`] does all of it for a document from outside.

pub mod assess;
pub mod chance;
pub mod document;
pub mod drip;
pub mod film;
pub mod geometry;
pub mod judge;
pub mod reach;
pub mod words;

pub use assess::{Assessment, assess};
pub use document::{FormulaDocument, Work};
pub use geometry::Job;
pub use judge::{Judged, Outcome};
