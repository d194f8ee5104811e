//! A cake from the plate up: what fits into it and onto it, how much of everything, and whether it stands.
//!
//! Inside, lengths are cm, volumes ml, areas cm² throughout, unless a name says otherwise; the document and the
//! answer are in mm and g.
//!
//! * [`shape`]: outlines, bodies, vessels, covers
//! * [`sponge`]: what a layer takes up of a syrup; [`baking`]: how it is mixed, baked and rested
//! * [`case`] is what holds a filling, and equal pieces; [`crisp`] how long it stays crisp
//! * [`document`] is the open format, with [`onto`] for what goes onto a tier; [`place`] and [`counted`] its places laid out,
//!   [`size`] the range of each of their sizes, [`cream`] what they are made of, [`amount`] how much, [`part`] how much of each component
//! * [`check`] finds what does not stand
//! * [`answer`] puts it together, [`template`] begins one, [`resize`] makes it another size

pub mod address;
pub mod amount;
pub mod answer;
pub mod baking;
pub mod case;
pub mod check;
pub mod counted;
pub mod cream;
pub mod crisp;
pub mod document;
pub mod no_cake;
pub mod onto;
pub mod part;
pub mod place;
pub mod place_answer;
pub mod resize;
pub mod shape;
pub mod size;
pub mod template;

pub use address::{Address, At};
pub use answer::{StackAnswer, stack};
pub use check::finding::{BenchWork, Finding, Mend, Standing};
pub use cream::{Known, Makings};
pub use document::{Bake, Layer, StackDocument, Tier};
pub use place::PlaceKind;
pub use resize::{ResizeAsk, Resized, resize};
pub use shape::body::Body;
pub use shape::footprint::Footprint;
pub use shape::vessel::Vessel;

pub use template::{Template, templates};
