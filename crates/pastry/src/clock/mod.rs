//! When it is ready: a formula in its vessel, and what becomes of it where that stands.
//!
//! [`document`] is what is asked, [`cooling`] the way down with its band, [`path`] how far it has set by any moment of it,
//! [`window`] when it is right for its job, [`probe`] what a reading says of a fridge, [`sets`] when it has set, [`safe`] whether it cools fast enough, [`frozen`] how hard
//! it freezes and how long it thaws, [`gain`] what would be sooner, [`boil`] what is heated and boiled down, [`notes`] what else is to be minded, [`curve`] the way as it is drawn, [`when`] minutes and [`words`] the answer as they are said, and [`answer`] all of it.

pub mod answer;
pub mod boil;
pub mod cooling;
pub mod curve;
pub mod document;
pub mod frozen;
pub mod gain;
pub mod notes;
pub mod path;
pub mod probe;
pub mod safe;
pub mod sets;
pub mod when;
pub mod window;
pub mod words;

pub use answer::{ClockAnswer, Looks, clock, clock_of};
pub use boil::{BoilAnswer, BoilDocument, boil};
pub use document::ClockDocument;
