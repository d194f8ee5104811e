//! A cake from the plate up: what fits into it and onto it, in millilitres, and how much a sponge drinks.
//!
//! Lengths are cm, volumes ml, areas cm² throughout, unless a name says otherwise. [`footprint`] is the outline
//! a tier stands on, [`vessel`] what a tin or mould holds, [`cover`] coats, drips, borders and glazes,
//! [`sponge`] what a layer takes up of a syrup.

pub mod cover;
pub mod footprint;
pub mod sponge;
pub mod vessel;

pub use footprint::Footprint;
pub use sponge::{Sponge, Wetness};
pub use vessel::Vessel;
