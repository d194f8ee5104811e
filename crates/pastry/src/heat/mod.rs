//! Heat: what a gram of a mass holds at a temperature, how it goes through a body, and where parts that are put together come
//! out.
//!
//! [`enthalpy`] is heat, conduction and density from composition, [`freezing`] where ice begins and how much of it there is,
//! [`material`] the tables made of both, [`network`] a body that cools or warms, [`mod@air`] the water in what it stands in, [`mix`]
//! the balance of parts and bowl.

pub mod air;
mod cells;
pub mod enthalpy;
pub mod freezing;
pub mod material;
pub mod mix;
pub mod network;

pub use enthalpy::HeatShares;
pub use freezing::Freezing;
pub use material::{MadeOf, Material, Solutes};
pub use mix::{MixPart, mix_temperature, part_temperature_for};
pub use network::{Body, Course, Face, Layer, Moist, Outline, Stretch, Until, Watched};
