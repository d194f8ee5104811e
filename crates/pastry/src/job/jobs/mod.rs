//! The jobs, one a file: what a person sets, and what the job answers about itself.

pub mod coat;
pub mod drip;
pub mod fill;
pub mod mask;
pub mod nappe;
pub mod pipe;
pub mod set;
pub mod soak;
pub mod spoon;
pub mod whip;

pub use coat::CoatGeometry;
pub use drip::DripGeometry;
pub use fill::FillGeometry;
pub use mask::MaskGeometry;
pub use nappe::NappeGeometry;
pub use pipe::PipeGeometry;
pub use set::{SetGeometry, SetGrade};
pub use soak::{Richness, SoakGeometry};
pub use spoon::SpoonGeometry;
pub use whip::WhipGeometry;
