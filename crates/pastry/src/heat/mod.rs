//! Heat: what a gram of a mass holds at a temperature, and where parts that are put together come out.
//!
//! [`enthalpy`] is heat over temperature from composition, [`mix`] the balance of parts and bowl, [`freezing`] where ice begins
//! and how much of it there is.

pub mod enthalpy;
pub mod freezing;
pub mod mix;

pub use enthalpy::HeatShares;
pub use freezing::Freezing;
pub use mix::{MixPart, mix_temperature, part_temperature_for};
