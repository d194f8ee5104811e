//! From composition and temperature to consistency: yield stress, viscosity, density, split index,
//! Brix, water activity, each with its uncertainty.
//!
//! One idea carries it. Particles (fat droplets, swollen cocoa, protein) compete with sugar for the
//! room that water leaves; the crowding index says how little room is left. It sets the thickness
//! when warm, and how well fat crystals link up when set. [`kernel::Prepared`] holds what does not
//! depend on temperature; [`kernel::Prepared::at`] is one evaluation and allocates nothing.

pub mod agar;
pub mod chance;
pub mod clock;
pub mod consistency;
pub mod doubt;
pub mod egg_set;
pub mod fat_outside;
pub mod gelatin;
pub mod inside_out;
pub mod kernel;
pub mod network;
pub mod params;
pub mod pectin;
pub mod predictor;
pub mod scramble;
pub mod serum;
pub mod smooth;
pub mod solid_fat;
pub mod sweep;
pub mod unchecked;
pub mod volumes;
pub mod warning;
mod warning_code;
pub mod water_outside;
pub mod whipping;

pub use consistency::{Consistency, History, Options, Structure};
pub use kernel::Prepared;
pub use predictor::Predictor;
pub use sweep::{Grid, SWEEP_POINTS, Sweep, sweep};
pub use unchecked::Unchecked;
