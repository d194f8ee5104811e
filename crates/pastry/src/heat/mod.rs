//! Heat: what a gram of a mass holds at a temperature, how it goes through a body, and where parts that are put together come
//! out.
//!
//! [`enthalpy`] is heat, conduction and density from composition, [`freezing`] where ice begins and how much of it there is,
//! [`material`] the tables made of both, [`body`] layers and what they stand in, [`network`] how they cool or warm, [`mod@air`]
//! the water in what it stands in, [`case`] a body as it is written down, [`shape`] what that is as a [`form`] of cells,
//! [`cooling`] its answer, [`boiling`] syrup and what is boiled down, [`setting`] what sets on the way, [`safety`] the limits of
//! codes, [`mix`] the balance of parts and bowl. [`vessel`] and [`wall`] are what a mass stands in, [`underneath`] what it comes
//! on, [`filled`] the body that makes.

pub mod air;
pub mod body;
pub mod boiling;
pub mod case;
mod cells;
pub mod cooling;
pub mod enthalpy;
mod faults;
pub mod filled;
pub mod flowing;
pub mod form;
pub mod freezing;
pub mod material;
pub mod mix;
pub mod network;
pub mod safety;
pub mod setting;
pub mod shape;
pub mod stand;
pub mod stirred;
pub mod surroundings;
pub mod syrup;
pub mod underneath;
pub mod vessel;
pub mod wall;

pub use body::{AsOne, Body, Face, Layer, Moist, Outline, Stretch, Watched};
pub use case::CaseDocument;
pub use cooling::{CaseAnswer, cool};
pub use enthalpy::HeatShares;
pub use freezing::Freezing;
pub use material::{MadeOf, Material, Solutes};
pub use mix::{MixPart, mix_temperature, part_temperature_for};
pub use network::{Course, Until};
pub use surroundings::Surroundings;
