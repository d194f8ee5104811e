//! Shapes: [`footprint`] is the outline a tier stands on, [`body`] its whole shape, [`solid`] what lies between two heights of it, [`vessel`] what a tin or mould
//! holds, [`cover`] coats, drips, borders and glazes, [`cut`] the portions.

pub mod body;
pub mod cover;
pub mod cut;
pub mod footprint;
pub mod solid;
pub mod vessel;
