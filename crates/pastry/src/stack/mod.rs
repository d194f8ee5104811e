//! A cake from the plate up: what fits into it and onto it, how much of everything, and whether it stands.
//!
//! Inside, lengths are cm, volumes ml, areas cm² throughout, unless a name says otherwise; the document and the
//! answer are in mm and g.
//!
//! * geometry: [`footprint`] is the outline a tier stands on, [`body`] its whole shape, [`vessel`] what a tin or
//!   mould holds, [`cover`] coats, drips, borders and glazes
//! * [`sponge`]: what a layer takes up of a syrup
//! * [`document`] is the open format, with [`onto`] for what goes onto a tier; [`place`] its places laid out,
//!   [`cream`] what they are made of, [`amount`] how much, [`part`] how much of each component
//! * on a [`scene`], [`built`], [`bears`], [`dowels`], [`covers`] and [`soaks`] find what does not stand, as
//!   [`finding`]s
//! * [`answer`] puts it together, [`cut`] parts it, [`template`] begins one, [`resize`] makes it another size

pub mod amount;
pub mod answer;
pub mod bears;
pub mod body;
pub mod built;
pub mod cover;
pub mod covers;
pub mod cream;
pub mod cut;
pub mod document;
pub mod dowels;
pub mod finding;
pub mod footprint;
pub mod no_cake;
pub mod onto;
pub mod part;
pub mod place;
pub mod place_answer;
pub mod resize;
pub mod scene;
pub mod soaks;
pub mod sponge;
pub mod template;
pub mod vessel;

pub use answer::{StackAnswer, stack};
pub use body::Body;
pub use cream::{Known, Makings};
pub use document::{Bake, BroughtComponent, Layer, StackDocument, Tier};
pub use finding::{BenchWork, Finding, Mend, Standing};
pub use footprint::Footprint;
pub use place::PlaceKind;
pub use resize::{ResizeAsk, Resized, resize};
pub use sponge::{Sponge, Wetness};
pub use template::{Template, templates};
pub use vessel::Vessel;
